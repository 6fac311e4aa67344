// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/picture.h"
#include "core/io/text_file.h"
#include "core/states/stand.h"
#include "render/stage_painter.h"
#include <QBuffer>
#include <algorithm>

namespace hinge {

namespace {

/// How the card is shown: lying on its second page, or standing on the edges it rests on, its
/// lowest point on the table.
Iso3 shownPose(const Assembly& assembly, const CardBase& card, const Pose& pose) {
  if (card.rests == Rests::OnPage) return benchPose(assembly, pose.opening_rad);
  const Iso3 turn = onTable(card, assembly, pose.opening_rad);
  double ground = 1e300;
  for (PanelIndex p : assembly.panels.indices())
    if (pose.placed[p])
      for (const Vec2& c : assembly.panels[p].outline.rim)
        ground = std::min(ground, (turn * (pose.panels[p] * lift(c))).z());
  return Eigen::Translation3d(0, 0, ground < 1e300 ? -ground : 0.0) * turn;
}

} // namespace

QImage stagePicture(const Motion& motion, const CardBase& card, double opening_rad, QSize size,
                    std::shared_ptr<const CardLook> look,
                    std::shared_ptr<const InPlaneReport> sheets) {
  QImage image(size, QImage::Format_ARGB32_Premultiplied);
  image.fill(Qt::black);
  QPainter painter(&image);
  const QRectF area(QPointF(0, 0), QSizeF(size));
  const Pose pose = motion.poseAt(drawableOpening(opening_rad));
  StageStyle style;
  style.look = std::move(look), style.sheets = std::move(sheets);
  style.bench = shownPose(motion.assembly(), card, pose);
  const Camera camera = cameraAt(card, area, motion.assembly(), pose, *style.bench);
  paintStage(painter, area, motion.assembly(), pose, camera, style);
  return image;
}

QImage galleryPicture(const std::vector<GalleryCard>& cards, QSize tile, int columns) {
  constexpr int kName_px = 30;
  const Theme theme = StageStyle{}.theme;
  const int count = static_cast<int>(cards.size()), across = std::max(1, std::min(columns, count)),
            rows = (count + across - 1) / across;
  QImage image(tile.width() * across, (tile.height() + kName_px) * rows, QImage::Format_RGB32);
  image.fill(theme.stageBottom);
  QPainter painter(&image);
  QFont font(QStringLiteral("Lato"));
  font.setPixelSize(16);
  painter.setFont(font);
  for (int k = 0; k < count; ++k) {
    const GalleryCard& card = cards[static_cast<std::size_t>(k)];
    const QPoint corner((k % across) * tile.width(), (k / across) * (tile.height() + kName_px));
    painter.drawImage(corner, stagePicture(*card.motion, card.card, card.opening_rad, tile,
                                           card.look, card.sheets));
    painter.setPen(theme.stageInk);
    painter.drawText(QRect(corner.x(), corner.y() + tile.height(), tile.width(), kName_px),
                     Qt::AlignCenter, card.name);
  }
  return image;
}

Result<void> writePicture(const QImage& image, const std::string& path, Replaces replaces) {
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  if (!image.save(&buffer, "PNG")) return Error{"file.unwritable/picture", path};
  return writeOutput(
      path,
      std::string_view(buffer.data().constData(), static_cast<std::size_t>(buffer.data().size())),
      replaces);
}

} // namespace hinge
