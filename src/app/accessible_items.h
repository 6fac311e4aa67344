// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QAccessible>
#include <QList>
#include <QRect>
#include <QString>

class QWidget;

namespace hinge {

/// One thing drawn on a canvas that assistive technology can find: a panel, a fold, a size, a
/// finding.
struct AccessibleItem {
  QString name, description;
  QRect rect; ///< in the widget's coordinates
  QAccessible::Role role = QAccessible::Graphic;
  bool pressable = false;
};

/// A custom-drawn widget that lists its content. pressItem() does what a click on the item does.
class AccessibleCanvas {
public:
  virtual ~AccessibleCanvas() = default;
  virtual QList<AccessibleItem> accessibleItems() const = 0;
  virtual void pressItem(int index) = 0;
  virtual QWidget* canvasWidget() = 0;
};

/// Makes canvases visible to assistive technology; call once after the application object exists.
void installCanvasAccessibility();

} // namespace hinge
