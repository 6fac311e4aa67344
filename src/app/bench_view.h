// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/accessible_items.h"
#include "app/size_tags.h"
#include "core/production/flat_piece.h"
#include <QToolButton>

namespace hinge {

/// The flat piece of the selected structure, or the card: cuts, mountains, valleys, glue and sizes,
/// at one scale with a legend of the line code.
class BenchView : public QWidget, public AccessibleCanvas {
  Q_OBJECT
public:
  BenchView(Document* document, QWidget* parent = nullptr);
  SizeTags& tags() { return *m_tags; }
  void setHoveredPanel(const QString& key);
  QPointF panelPoint(const QString& key) const;

  QList<AccessibleItem> accessibleItems() const override;
  void pressItem(int index) override;
  QWidget* canvasWidget() override { return this; }

signals:
  void panelHovered(const QString& key);
  void refused(const QString& why);

protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void leaveEvent(QEvent*) override;

private:
  void refresh();
  void layOut();
  PanelIndex panelAt(const QPointF& point) const;

  Document* m_document;
  SizeTags* m_tags;
  std::shared_ptr<const Assembly> m_assembly;
  std::optional<FlatPiece> m_piece;
  QTransform m_toPixels;
  QString m_hovered;
};

} // namespace hinge
