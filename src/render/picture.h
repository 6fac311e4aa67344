// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/io/text_file.h"
#include "core/motion/motion.h"
#include "render/card_look.h"
#include <QImage>
#include <string>

namespace hinge {

/// The moving view as a picture; `sheets` says what lies on what in one plane.
QImage stagePicture(const Motion& motion, const CardBase& card, double opening_rad, QSize size,
                    std::shared_ptr<const CardLook> look = nullptr,
                    std::shared_ptr<const InPlaneReport> sheets = nullptr);

/// Several cards side by side with a name under each: `columns` in a row, each in a tile of `tile`
/// pixels.
struct GalleryCard {
  const Motion* motion;
  CardBase card;
  double opening_rad;
  QString name;
  std::shared_ptr<const CardLook> look = nullptr;
  std::shared_ptr<const InPlaneReport> sheets = nullptr;
};
QImage galleryPicture(const std::vector<GalleryCard>& cards, QSize tile, int columns);

/// PNG file of the moving view, written beside the target and moved into place.
Result<void> writePicture(const QImage& image, const std::string& path,
                          Replaces replaces = Replaces::SameKind);

} // namespace hinge
