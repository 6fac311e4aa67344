// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/making/schedule.h"
#endif
#include <QWidget>

namespace hinge {

/// How a schedule goes by: the hands' work on each card as a row of bars, what sets after it quiet
/// behind, breaks as gaps; one step stands out.
class ScheduleBars : public QWidget {
  Q_OBJECT
public:
  explicit ScheduleBars(QWidget* parent = nullptr);
  void show(const Schedule& schedule);
  void choose(std::size_t step);

protected:
  void paintEvent(QPaintEvent*) override;
  QSize sizeHint() const override { return {400, 120}; }

private:
  Schedule m_schedule;
  std::size_t m_step = 0;
};

} // namespace hinge
