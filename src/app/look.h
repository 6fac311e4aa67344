// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "render/theme.h"
#include <QFont>
#include <QString>

class QApplication;

namespace hinge {

/// The look of the whole window: one theme at a time, Lato with tabular figures, quiet surfaces.
class Look {
public:
  static const Theme& theme();
  static bool isDark();
  static void apply(QApplication& application, bool dark);
  static QFont font(double size_px, int weight = QFont::Normal);
};

} // namespace hinge
