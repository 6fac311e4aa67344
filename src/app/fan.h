#pragma once
#include "core/checks/analysis.h"
#include <QAbstractSlider>
#include <QTimer>

namespace hinge {

/// The opening control: a half-disc whose leaf is dragged from shut (right) to open flat (left).
/// Troubles are hatched sectors with their number; out of reach is cross-hatched. Value in tenths
/// of a degree, 0 to 1800.
class Fan : public QAbstractSlider {
  Q_OBJECT
public:
  explicit Fan(QWidget* parent = nullptr);
  double opening_rad() const { return radians(value() / 10.0); }
  void setOpening_rad(double opening_rad);
  void setAnalysis(std::shared_ptr<const Analysis> analysis);
  void setCard(const CardBase& card); ///< tells up to where the leaf opens the base
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
