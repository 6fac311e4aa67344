// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/newest_work.h"
#ifndef Q_MOC_RUN
#include "render/step_picture.h"
#endif
#include <QElapsedTimer>
#include <QWidget>

namespace hinge {

/// One step of the work as a picture, painted on another thread: the window never waits for it.
/// On request the paper moves as it does in the step.
class StepView : public QWidget {
  Q_OBJECT
public:
  explicit StepView(QWidget* parent = nullptr);

  /// Null: nothing.
  void showStep(std::shared_ptr<const StepPainter> painter, std::size_t step);
  /// Paints the picture in a size, at a share of its motion; without one as it rests. Called on
  /// another thread.
  using Paint = std::function<QImage(QSize, std::optional<double>)>;
  void showPicture(Paint paint, bool moves);
  /// The paper goes its way once.
  void play();
  bool playing() const { return m_clock.isValid(); }
  bool busy() const { return m_work.running(); }
  const QImage& image() const { return m_image; }

signals:
  void painted();

protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  QSize minimumSizeHint() const override { return {240, 180}; }

private:
  void ask();
  Paint m_paint; ///< empty: nothing
  bool m_moves = false;
  QImage m_image;
  bool m_again = false; ///< something changed while a picture was being painted
  QElapsedTimer m_clock;
  NewestWork m_work;
};

} // namespace hinge
