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
  paintStage(painter, area, motion.assembly(), motion.poseAt(drawableOpening(opening_rad)), cameraFor(card, area), StageStyle{});
  return image;
}

Result<void> writePicture(const QImage& image, const std::string& path) {
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  if (!image.save(&buffer, "PNG")) return Error{"file.unwritable", "the picture could not be encoded", path};
  return writeFile(path, std::string_view(buffer.data().constData(), static_cast<std::size_t>(buffer.data().size())));
}

} // namespace hinge
