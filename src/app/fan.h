// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/checks/analysis.h"
#include <QAbstractSlider>
#include <QPainterPath>
#include <QTimer>

namespace hinge {

/// The opening control: a half-disc whose leaf is dragged from shut (right) to open flat (left).
/// Troubles are hatched sectors with their number; out of reach is cross-hatched. Value in tenths
/// of a degree, 0 to 1800 or what of it the card is used for.
class Fan : public QAbstractSlider {
  Q_OBJECT
public:
  static constexpr double kPerDegree = 10; ///< steps of the slider

  explicit Fan(QWidget* parent = nullptr);
  double opening_rad() const { return radians(value() / 10.0); }
  void setOpening_rad(double opening_rad);
  void setAnalysis(std::shared_ptr<const Analysis> analysis);
  /// Tells up to where the leaf opens the base, and between which openings the card is used.
  void setCard(const CardBase& card);
  void togglePlay();
  bool playing() const { return m_play.isActive(); }
  QSize sizeHint() const override { return {280, 166}; }

signals:
  void findingChosen(int index);

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

private:
  double lowest_rad() const { return radians(minimum() / 10.0); }
  double highest_rad() const { return radians(maximum() / 10.0); }
  QPointF at(double opening_rad, double share) const; ///< a share of the radius from the hub
  QPainterPath sector(double from_rad, double to_rad, double inner, double outer) const;
  void paintTrouble(QPainter& p) const;
  void paintScale(QPainter& p) const;
  void paintLeaf(QPainter& p) const;
  void paintReading(QPainter& p) const;
  QPointF hub() const;
  double radius() const;
  QRectF playButton() const;
  void advance();
  int sectorAt(const QPointF& point) const;
  void dragTo(const QPointF& point);

  std::shared_ptr<const Analysis> m_analysis;
  CardBase m_card;
  QTimer m_play;
  int m_direction = 1;
  bool m_dragging = false;
};

} // namespace hinge
