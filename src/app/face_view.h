// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/accessible_items.h"
#include "app/dress_hand.h"
#include <QWidget>

namespace hinge {

/// The chosen face at large, as it is looked at: its stack in true papers, what is glued on it, and
/// the edges of its layers, which are dragged to make their borders wider or narrower (with Shift
/// on one side only).
class FaceView : public QWidget, public AccessibleCanvas {
  Q_OBJECT
public:
  FaceView(Document* document, DressHand* hand, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {420, 360}; }
  /// Where a point of the face, in mm in its own frame, is drawn.
  QPointF toScreen(const Vec2& at) const { return m_toPixels.map(QPointF(at.x(), at.y())); }
  Vec2 fromScreen(const QPointF& at) const;

  QList<AccessibleItem> accessibleItems() const override;
  void pressItem(int index) override;
  QWidget* canvasWidget() override { return this; }

signals:
  void paperKey(int key); ///< a letter was struck

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  bool event(QEvent*) override;

private:
  /// An edge of a layer under a point: which, and which side of the face it is on.
  struct EdgeAt {
    std::size_t layer, side;
  };
  std::optional<EdgeAt> edgeAt(const QPointF& at) const;
  void layOut();
  /// The borders of the dragged layer with its edge under a point.
  std::vector<double> bordersFor(const QPointF& at, bool oneSide) const;
  std::vector<Region> below(std::size_t layer) const;
  void paintStack(QPainter& painter, const Face& face) const;
  void paintGlue(QPainter& painter, const Face& face) const;
  void paintBorders(QPainter& painter, const Face& face) const;
  void paintToppers(QPainter& painter, const Face& face) const;
  int topperAt(const QPointF& at) const;       ///< 0: none
  QRectF handleOf(const Topper& topper) const; ///< by which its size is dragged
  Topper dragged(const QPointF& at) const;
  bool topperKey(const QKeyEvent& event);
  void paintSaying(QPainter& painter, const Face& face) const;
  std::vector<QRectF> lines() const; ///< where the layers are listed, the top one first

  Document* m_document;
  DressHand* m_hand;
  QTransform m_toPixels;
  std::optional<EdgeAt> m_dragged;
  std::vector<Region> m_belowDragged;
  std::vector<double> m_startBorders;
  QPointF m_pointer;
  std::optional<Topper> m_topper; ///< that is dragged, as it was
  bool m_sizing = false, m_topperMoved = false;
};

} // namespace hinge
