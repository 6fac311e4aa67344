// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/fan.h"
#include "app/look.h"
#include "app/saying.h"
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

namespace hinge {
namespace {
constexpr double kInner = 0.42; ///< sectors begin at this share of the radius
}

Fan::Fan(QWidget* parent) : QAbstractSlider(parent) {
  setRange(0, 1800);
  setSingleStep(10);
  setPageStep(100);
  setValue(1000);
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("Opening"));
  setAccessibleDescription(tr("Opening angle of the card in degrees, 0 shut to 180 open flat"));
  setToolTip(tr("Drag the leaf, or use the arrow keys; space plays"));
  m_play.setInterval(16);
  connect(&m_play, &QTimer::timeout, this, &Fan::advance);
}

void Fan::setOpening_rad(double opening_rad) {
  setValue(static_cast<int>(std::lround(degrees(opening_rad) * 10)));
}

void Fan::setAnalysis(std::shared_ptr<const Analysis> analysis) {
  m_analysis = std::move(analysis);
  update();
}

QPointF Fan::hub() const {
  return {0.5 * width(), height() - 34.0};
}
double Fan::radius() const {
  return std::min(0.5 * width() - 30, height() - 34.0 - 24);
}
QRectF Fan::playButton() const {
  return {hub().x() + 34, hub().y() + 8, 22, 22};
}

void Fan::togglePlay() {
  if (m_play.isActive())
    m_play.stop();
  else
    m_direction = value() >= maximum() - 10 ? -1 : 1, m_play.start();
  update();
}

void Fan::advance() {
  // A full way takes three seconds, eased at both ends as a hand does.
  const double share = value() / 1800.0,
               speed = 4.0 + 9.0 * std::sin(kPi * std::clamp(share, 0.0, 1.0));
  const int next = value() + m_direction * static_cast<int>(std::lround(speed));
  if (next >= maximum()) m_direction = -1;
  if (next <= minimum()) m_direction = 1;
  setValue(next);
}

int Fan::sectorAt(const QPointF& point) const {
  if (!m_analysis) return -1;
  const QPointF d = point - hub();
  const double r = std::hypot(d.x(), d.y()), t = std::atan2(-d.y(), d.x());
  if (r < kInner * radius() || r > radius()) return -1;
  for (std::size_t k = 0; k < m_analysis->findings.size(); ++k) {
    const Finding& f = m_analysis->findings[k];
    if (f.to_rad - f.from_rad > kPi - 0.02) continue;
    if (t >= f.from_rad - 0.02 && t <= std::max(f.to_rad, f.from_rad + 0.03) + 0.02)
      return static_cast<int>(k);
  }
  return -1;
}

QPointF Fan::at(double t, double share) const {
  return hub() + radius() * share * QPointF(std::cos(t), -std::sin(t));
}

QPainterPath Fan::sector(double from, double to, double inner, double outer) const {
  const QPointF c = hub();
  const double span = degrees(to - from), rOut = radius() * outer, rIn = radius() * inner;
  const QRectF out(c.x() - rOut, c.y() - rOut, 2 * rOut, 2 * rOut);
  const QRectF in(c.x() - rIn, c.y() - rIn, 2 * rIn, 2 * rIn);
  QPainterPath path;
  path.arcMoveTo(out, degrees(from));
  path.arcTo(out, degrees(from), span);
  path.arcTo(in, degrees(to), -span);
  path.closeSubpath();
  return path;
}

void Fan::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  QColor veil(255, 255, 255, 16);
  p.setPen(Qt::NoPen);
  p.setBrush(veil);
  // What lies outside of the openings in which the card is used is not there.
  p.drawPath(sector(lowest_rad(), highest_rad(), kInner, 1.0));
  // The part the card has opened so far glows.
  QRadialGradient glow(hub(), radius());
  QColor warm(0xff, 0xc8, 0x7a);
  warm.setAlphaF(0.42f);
  glow.setColorAt(kInner, warm);
  warm.setAlphaF(0.10f);
  glow.setColorAt(1, warm);
  p.setBrush(glow);
  if (value() > minimum()) p.drawPath(sector(lowest_rad(), opening_rad(), kInner, 1.0));
  if (m_analysis) paintTrouble(p);
  paintScale(p);
  paintLeaf(p);
  paintReading(p);
}

void Fan::paintTrouble(QPainter& p) const {
  const QColor red(0xf0, 0x86, 0x86);
  const auto hatched = [&](double from, double to, Qt::BrushStyle pattern, const QColor& colour,
                           double inner) {
    p.setPen(QPen(colour, 1));
    p.setBrush(QBrush(colour, pattern));
    p.drawPath(sector(from, std::max(to, from + 0.02), inner, 1.0));
  };
  const Motion& motion = *m_analysis->motion;
  if (motion.low_rad() > lowest_rad() + 1e-6)
    hatched(lowest_rad(), motion.low_rad(), Qt::DiagCrossPattern, red, kInner);
  if (motion.high_rad() < highest_rad() - 1e-6)
    hatched(motion.high_rad(), highest_rad(), Qt::DiagCrossPattern, red, kInner);
  p.setFont(Look::font(11, QFont::Bold));
  for (std::size_t k = 0; k < m_analysis->findings.size(); ++k) {
    const Finding& f = m_analysis->findings[k];
    if (f.to_rad - f.from_rad > kPi - 0.02) continue; // true everywhere: no place on the fan
    const bool spoils = f.severity == Severity::Spoils;
    const QColor colour = spoils ? red : QColor(0xe6, 0xc3, 0x62);
    hatched(f.from_rad, f.to_rad, spoils ? Qt::BDiagPattern : Qt::Dense6Pattern, colour, 0.68);
    const double middle = std::clamp(0.5 * (f.from_rad + f.to_rad), 0.05, kPi - 0.05);
    const QPointF badge = at(middle, 1.13);
    p.setBrush(colour);
    p.setPen(Qt::NoPen);
    p.drawEllipse(badge, 8.5, 8.5);
    p.setPen(QColor(0x2a, 0x18, 0x18));
    p.drawText(QRectF(badge.x() - 9, badge.y() - 9, 18, 18), Qt::AlignCenter,
               QString::number(k + 1));
  }
}

void Fan::paintScale(QPainter& p) const {
  const Theme& theme = Look::theme();
  const double below = hub().y() + 4;
  p.setFont(Look::font(11));
  for (int k = 0; k <= 180; k += 15) {
    const double t = radians(k);
    p.setPen(QPen(QColor(255, 255, 255, k % 45 == 0 ? 150 : 70), 1));
    p.drawLine(at(t, k % 45 == 0 ? 0.92 : 0.96), at(t, 1.0));
  }
  p.setPen(theme.stageSoft);
  p.drawText(QRectF(at(0, 1.0).x() - 22, below, 44, 16), Qt::AlignCenter, tr("shut"));
  const bool pulls = m_card.openBy_deg < 180;
  p.drawText(QRectF(at(kPi, 1.0).x() - 22, below, 44, 16), Qt::AlignCenter,
             pulls ? tr("pulled") : tr("flat"));
  if (!pulls) return;
  // From here on the card stays as it is and the pull moves.
  const double by = radians(m_card.openBy_deg);
  p.setPen(QPen(theme.stageInk, 1.5, Qt::DotLine));
  p.drawLine(at(by, kInner), at(by, 1.06));
  p.setPen(theme.stageSoft);
  p.drawText(QRectF(at(by, 1.17).x() - 22, at(by, 1.17).y() - 8, 44, 16), Qt::AlignCenter,
             tr("open"));
}

void Fan::paintLeaf(QPainter& p) const {
  // The lying page and the leaf, drawn as the two halves of the card.
  const QColor leaf = hasFocus() ? Theme::night().accent : Look::theme().paperEdge;
  p.setPen(QPen(QColor(0xf1, 0xd9, 0xb0), 3, Qt::SolidLine, Qt::RoundCap));
  p.drawLine(hub(), at(0, 1.0));
  p.setPen(QPen(leaf, 4, Qt::SolidLine, Qt::RoundCap));
  p.drawLine(hub(), at(opening_rad(), 1.0));
  p.setPen(QPen(QColor(0x3a, 0x2a, 0x1d), 1.5));
  p.setBrush(Theme::night().accent);
  p.drawEllipse(at(opening_rad(), 0.98), 8, 8);
}

void Fan::paintReading(QPainter& p) const {
  const QPointF c = hub();
  p.setPen(Look::theme().stageInk);
  if (value() > 10 * m_card.openBy_deg) {
    const double share = (value() - 10 * m_card.openBy_deg) / (18 - 0.1 * m_card.openBy_deg);
    p.setFont(Look::font(13, QFont::DemiBold));
    p.drawText(QRectF(c.x() - 62, c.y() + 6, 98, 26), Qt::AlignCenter,
               tr("pulled %1 %").arg(std::round(share)));
  } else {
    const double shown = radians(std::round(10 * degrees(opening_rad())) / 10);
    p.setFont(Look::font(19, QFont::DemiBold));
    p.drawText(QRectF(c.x() - 50, c.y() + 6, 76, 26), Qt::AlignCenter,
               said(openingText(m_card, shown)));
  }
  const QRectF play = playButton();
  p.setPen(Qt::NoPen);
  p.setBrush(Look::theme().stageInk);
  if (playing()) {
    p.drawRect(QRectF(play.left() + 5, play.top() + 4, 4, 14));
    p.drawRect(QRectF(play.left() + 13, play.top() + 4, 4, 14));
  } else {
    p.drawPolygon(QPolygonF({{play.left() + 6, play.top() + 3},
                             {play.left() + 18, play.center().y()},
                             {play.left() + 6, play.bottom() - 3}}));
  }
}

void Fan::setCard(const CardBase& card) {
  m_card = card;
  setRange(static_cast<int>(std::lround(card.worksFrom_deg * 10)),
           static_cast<int>(std::lround(card.worksTo_deg * 10)));
  update();
}

void Fan::dragTo(const QPointF& point) {
  const QPointF d = point - hub();
  double t = std::atan2(-d.y(), d.x());
  if (t < 0) t = d.x() < 0 ? kPi : 0;
  setOpening_rad(t);
}

void Fan::mousePressEvent(QMouseEvent* event) {
  if (playButton().adjusted(-4, -4, 4, 4).contains(event->position())) return togglePlay();
  const int sector = sectorAt(event->position());
  // A click on a trouble sector away from the leaf goes to it; near the leaf it is a drag.
  const QPointF knob =
      hub() + radius() * 0.98 * QPointF(std::cos(opening_rad()), -std::sin(opening_rad()));
  if (sector >= 0 && QLineF(knob, event->position()).length() > 14) {
    emit findingChosen(sector);
    return;
  }
  m_play.stop();
  m_dragging = true;
  setSliderDown(true);
  dragTo(event->position());
}

void Fan::mouseMoveEvent(QMouseEvent* event) {
  if (m_dragging) dragTo(event->position());
}

void Fan::mouseReleaseEvent(QMouseEvent*) {
  m_dragging = false;
  setSliderDown(false);
}

void Fan::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Space) return togglePlay();
  m_play.stop();
  // Left and right follow the leaf; up and down (and the page keys) open and shut.
  const int step = event->modifiers() & Qt::ShiftModifier ? 1 : singleStep();
  if (event->key() == Qt::Key_Left)
    setValue(value() + step);
  else if (event->key() == Qt::Key_Right)
    setValue(value() - step);
  else
    QAbstractSlider::keyPressEvent(event);
}

} // namespace hinge
