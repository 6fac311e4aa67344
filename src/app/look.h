// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "render/theme.h"
#include <QFont>
#include <QString>
#include <string_view>

class QApplication;

namespace hinge {

/// Text of the core's tables as Qt wants it.
inline QString words(std::string_view text) {
  return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size()));
}

/// The look of the whole window: one theme at a time, Lato with tabular figures, quiet surfaces.
class Look {
public:
  static const Theme& theme();
  static bool isDark();
  static void apply(QApplication& application, bool dark);
  static QFont font(double size_px, int weight = QFont::Normal);
};

} // namespace hinge
