// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/schedule_bars.h"
#include "app/look.h"
#include "app/saying.h"
#include "words/plan_words.h"
#include <QPainter>
#include <algorithm>

namespace hinge {
namespace {

/// Rows of cards that are drawn by themselves; more are drawn thinner.
constexpr double kRow_px = 16, kLeastRow_px = 2, kMost_px = 160;
constexpr int kFoot_px = 22; ///< for the times below them

} // namespace

ScheduleBars::ScheduleBars(QWidget* parent) : QWidget(parent) {
  setAccessibleName(tr("Hands and waiting, card by card"));
}

void ScheduleBars::show(const Schedule& schedule) {
  m_schedule = schedule;
  const double rows = kRow_px * static_cast<double>(schedule.ready_s.size());
  setFixedHeight(static_cast<int>(std::clamp(rows, kRow_px, kMost_px)) + kFoot_px);
  update();
}

void ScheduleBars::choose(std::size_t step) {
  m_step = step;
  update();
}

void ScheduleBars::paintEvent(QPaintEvent*) {
  if (m_schedule.work.empty() || !(m_schedule.end_s > 0)) return;
  const Theme& theme = Look::theme();
  QPainter p(this);
  const double high = height() - kFoot_px;
  const auto cards = static_cast<double>(m_schedule.ready_s.size());
  const double row = std::clamp(high / cards, kLeastRow_px, kRow_px);
  const auto x = [&](double seconds) { return seconds / m_schedule.end_s * width(); };
  for (const ScheduledWork& work : m_schedule.work) {
    const QRectF hands(x(work.from_s), work.copy * row,
                       std::max(1.0, x(work.to_s) - x(work.from_s)), row - (row > 4 ? 3 : 0));
    if (work.free_s > work.to_s)
      p.fillRect(QRectF(hands.right(), hands.center().y() - 1, x(work.free_s) - hands.right(), 2),
                 theme.inkSoft);
    p.fillRect(hands, work.step == m_step ? theme.accent : theme.ink);
  }
  p.setPen(QPen(theme.inkSoft, 1, Qt::DotLine));
  for (const auto& [from, to] : m_schedule.breaks)
    for (double edge : {from, to})
      p.drawLine(QPointF(x(edge), 0), QPointF(x(edge), high));
  p.setPen(theme.inkSoft);
  p.setFont(Look::font(11));
  p.drawText(QRectF(0, height() - 18.0, width(), 18), Qt::AlignLeft, tr("now"));
  p.drawText(QRectF(0, height() - 18.0, width(), 18), Qt::AlignRight,
             asQt(sayTime(m_schedule.end_s)));
}

} // namespace hinge
