#pragma once
#include "core/base/result.h"
#include "core/motion/motion.h"
#include <QImage>
#include <string>

namespace hinge {

/// The moving view as a picture.
QImage stagePicture(const Motion& motion, const CardBase& card, double opening_rad, QSize size);

/// PNG file of the moving view, written beside the target and moved into place.
Result<void> writePicture(const QImage& image, const std::string& path);

} // namespace hinge
