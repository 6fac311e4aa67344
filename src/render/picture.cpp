#include "render/picture.h"
#include "core/io/text_file.h"
#include "render/stage_painter.h"
#include <QBuffer>

namespace hinge {

QImage stagePicture(const Motion& motion, const CardBase& card, double opening_rad, QSize size) {
  QImage image(size, QImage::Format_ARGB32_Premultiplied);
  image.fill(Qt::black);
  QPainter painter(&image);
  const QRectF area(QPointF(0, 0), QSizeF(size));
  paintStage(painter, area, motion.assembly(), motion.poseAt(drawableOpening(opening_rad)), cameraFor(card, area, motion.assembly()), StageStyle{});
  return image;
}

QImage galleryPicture(const std::vector<GalleryCard>& cards, QSize tile, int columns) {
  constexpr int kName_px = 30;
  const Theme theme = StageStyle{}.theme;
  const int count = static_cast<int>(cards.size()), across = std::max(1, std::min(columns, count)), rows = (count + across - 1) / across;
  QImage image(tile.width() * across, (tile.height() + kName_px) * rows, QImage::Format_RGB32);
  image.fill(theme.stageBottom);
  QPainter painter(&image);
  QFont font(QStringLiteral("Lato"));
  font.setPixelSize(16);
  painter.setFont(font);
  for (int k = 0; k < count; ++k) {
    const GalleryCard& card = cards[static_cast<std::size_t>(k)];
    const QPoint corner((k % across) * tile.width(), (k / across) * (tile.height() + kName_px));
    painter.drawImage(corner, stagePicture(*card.motion, card.card, card.opening_rad, tile));
    painter.setPen(theme.stageInk);
    painter.drawText(QRect(corner.x(), corner.y() + tile.height(), tile.width(), kName_px), Qt::AlignCenter, card.name);
  }
  return image;
}

Result<void> writePicture(const QImage& image, const std::string& path) {
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  if (!image.save(&buffer, "PNG")) return Error{"file.unwritable", "the picture could not be encoded", path};
  return writeFile(path, std::string_view(buffer.data().constData(), static_cast<std::size_t>(buffer.data().size())));
}

} // namespace hinge
