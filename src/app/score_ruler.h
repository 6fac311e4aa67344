// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/accessible_items.h"
#include "app/piece_editor.h"
#include <QWidget>
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/motion/motion.h"
#include <memory>
#endif

namespace hinge {

/// The selected free piece as a ruler: its scores read from the left end, mountains pointing up and
/// valleys down, and beside it the piece as it is folded at the opening shown. A click turns a
/// score over, a drag moves it (with Shift all that lies to its right goes along), a double click
/// makes one, Delete takes the chosen one away.
class ScoreRuler : public QWidget, public AccessibleCanvas {
  Q_OBJECT
public:
  ScoreRuler(Document* document, QWidget* parent = nullptr);
  /// The pose on the stage, for the folded profile.
  void setPose(std::shared_ptr<const Assembly> assembly, const Pose& pose);
  QPointF markPoint(int mark) const; ///< where the score is drawn, left one first
  QPointF rulerPoint(double mm) const;
  int chosen() const { return m_chosen; }

  QList<AccessibleItem> accessibleItems() const override;
  void pressItem(int index) override;
  QWidget* canvasWidget() override { return this; }

signals:
  void refused(const QString& why);

protected:
  bool event(
      QEvent*) override; ///< Delete belongs to the chosen score before it belongs to the structure
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void mouseDoubleClickEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

private:
  /// Where the lower ends of the scores (and of the piece) are on the bench, from the left; empty
  /// when the piece is not placed. `axis` becomes the direction of its first score.
  std::vector<Vec3> foldedEnds(const PieceWork& piece, const Iso3& bench, Vec3& axis) const;
  const PieceWork* work() const { return m_editor->shown(); }
  QRectF ruler() const;
  QRectF profileArea() const;
  int markAt(const QPointF& point) const;
  double lattice_mm() const;
  void paintRuler(QPainter& painter, const PieceWork& work) const;
  void paintProfile(QPainter& painter, const PieceWork& work) const;

  Document* m_document;
  PieceEditor* m_editor; ///< of the selected piece
  std::shared_ptr<const Assembly> m_assembly;
  Pose m_pose;
  int m_chosen = -1;
  bool m_dragging = false, m_moved = false;
  QPointF m_pressedAt;
};

} // namespace hinge
