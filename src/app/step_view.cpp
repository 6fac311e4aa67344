// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/step_view.h"
#include "app/look.h"
#include <QPainterPath>
#include <optional>

namespace hinge {
namespace {
constexpr double kPlays_ms = 2200; ///< the way of the paper, with a rest at its end
constexpr double kMoves = 0.8;     ///< the share of that in which it moves
constexpr int kRound_px = 10;
} // namespace

StepView::StepView(QWidget* parent) : QWidget(parent), m_work(this) {
  setAccessibleName(tr("Picture of the step"));
}

void StepView::showStep(std::shared_ptr<const StepPainter> painter, std::size_t step) {
  if (!painter) return showPicture({}, false);
  const bool moves = painter->moves(step);
  showPicture(
      [painter = std::move(painter), step](QSize size, std::optional<double> progress) {
        return stepImage(*painter, step, size, progress);
      },
      moves);
}

void StepView::showPicture(Paint paint, bool moves) {
  m_paint = std::move(paint), m_moves = moves;
  m_clock.invalidate();
  m_work.stop();
  m_again = false;
  if (!m_paint) {
    m_image = QImage();
    return update();
  }
  ask();
}

void StepView::play() {
  if (!m_paint || !m_moves) return;
  m_clock.start();
  if (!m_work.running()) ask();
}

void StepView::resizeEvent(QResizeEvent*) {
  if (!m_paint) return;
  if (m_work.running())
    m_again = true;
  else
    ask();
}

void StepView::ask() {
  std::optional<double> progress;
  if (m_clock.isValid()) {
    const double t = static_cast<double>(m_clock.elapsed()) / kPlays_ms;
    if (t >= 1)
      m_clock.invalidate();
    else
      progress = std::min(1.0, t / kMoves);
  }
  const QSize size = this->size() * devicePixelRatioF();
  if (size.isEmpty()) return;
  m_work.start(
      [paint = m_paint, size, progress](std::stop_token stop) {
        return stop.stop_requested() ? QImage() : paint(size, progress);
      },
      [this](QImage image) {
        m_image = std::move(image);
        m_image.setDevicePixelRatio(devicePixelRatioF());
        update();
        if (m_clock.isValid() || std::exchange(m_again, false)) ask();
        emit painted();
      });
}

void StepView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  QPainterPath round;
  round.addRoundedRect(rect(), kRound_px, kRound_px);
  p.fillPath(round, Look::isDark() ? QColor(0xe9, 0xe5, 0xdd) : QColor(Qt::white));
  if (m_image.isNull()) return;
  p.setClipPath(round);
  // Ink stays ink at night; the paper is only a little darker.
  if (Look::isDark()) p.setCompositionMode(QPainter::CompositionMode_Multiply);
  p.drawImage(rect(), m_image);
}

} // namespace hinge
