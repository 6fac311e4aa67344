// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/look.h"
#include "app/saying.h"
#include "app/sheet_view.h"
#include "core/pieces/piece_sheet.h"
#include "core/units/length.h"
#include "core/units/tolerances.h"
#include "render/flat_painter.h"
#include <cmath>

// How the sheet under the hand is drawn; sheet_view.cpp has what hands do on it.

namespace hinge {
namespace {

QString shown(const StrokeMeasure& measure, LengthUnit unit) {
  return QString::fromStdString(measure.angle ? formatAngle(measure.value)
                                              : formatLength(measure.value, unit, false));
}

/// What was met, in a word beside the pointer.
QString nameOf(SnapTo to) {
  switch (to) {
  case SnapTo::Corner: return SheetView::tr("corner");
  case SnapTo::End: return SheetView::tr("end");
  case SnapTo::Crossing: return SheetView::tr("crossing");
  case SnapTo::Middle: return SheetView::tr("middle");
  case SnapTo::Rim: return SheetView::tr("edge");
  case SnapTo::Line: return SheetView::tr("on the line");
  case SnapTo::Parallel: return SheetView::tr("parallel");
  case SnapTo::Twin: return SheetView::tr("twin");
  case SnapTo::EqualStep: return SheetView::tr("equal step");
  case SnapTo::Free:
  case SnapTo::Lattice: return {};
  }
  return {};
}

void pill(QPainter& p, const QPointF& middle, const QString& text, bool live) {
  const Theme& theme = Look::theme();
  p.setFont(Look::font(live ? 13 : 11, live ? QFont::Bold : QFont::Normal));
  const double w = QFontMetricsF(p.font()).horizontalAdvance(text) + 14, h = live ? 21 : 17;
  const QRectF box(middle.x() - 0.5 * w, middle.y() - 0.5 * h, w, h);
  p.setPen(Qt::NoPen);
  p.setBrush(live ? theme.accent : theme.raised);
  p.drawRoundedRect(box, 0.5 * h, 0.5 * h);
  p.setPen(live ? theme.accentInk : theme.inkSoft);
  p.drawText(box, Qt::AlignCenter, text);
}

} // namespace

void SheetView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& theme = Look::theme();
  if (!m_sheet) {
    p.setPen(theme.inkSoft);
    p.setFont(Look::font(13));
    p.drawText(rect(), Qt::AlignCenter, tr("No sheet is selected."));
    return;
  }
  const PieceSheet parts(m_sheet->work);
  paintPaper(p);
  paintJoints(p, parts);
  FlatStyle style;
  style.theme = theme;
  style.fillSheet = false;
  FlatPiece drawn = m_flat;
  if (m_document->previewing()) drawn.glue.clear(), drawn.marks.clear();
  if (m_assembly) paintFlatPiece(p, *m_assembly, drawn, m_toPixels, style);
  if (m_assembly && !m_document->previewing()) {
    FlatPiece lettered = m_flat;
    std::erase_if(lettered.labels, [](const FlatLabel& label) { return !label.panel.valid(); });
    QColor faint = theme.cut;
    faint.setAlphaF(0.45f);
    paintLabels(p, m_document->design(), *m_assembly, lettered, m_toPixels, m_toPixels.m11(),
                faint);
  }
  paintIdleScores(p, parts);
  paintRuler(p);
  paintChosen(p);
  paintStroke(p);
  paintMeasures(p);
  if (m_hand->edgeMarked()) {
    p.setPen(theme.accent);
    p.setFont(Look::font(12, QFont::DemiBold));
    p.drawText(QRectF(16, 6, width() - 32, 18), Qt::AlignLeft,
               tr("Choose the other piece and click the edge that meets this one. Esc ends."));
  }
  if (!m_tracing.wantsPoints() && !m_tracing.wantsDistance()) return;
  p.setPen(QPen(theme.accent, 2));
  p.setBrush(Qt::NoBrush);
  for (const Vec2& point : m_tracing.points())
    p.drawEllipse(toScreen(point), 5, 5);
  p.setFont(Look::font(12, QFont::DemiBold));
  p.drawText(QRectF(16, 6, width() - 32, 18), Qt::AlignLeft,
             m_tracing.wantsPoints() ? tr("Click two points whose distance is known.")
                                     : tr("Type how far apart they are."));
}

void SheetView::paintPaper(QPainter& p) const {
  const Theme& theme = Look::theme();
  Region paper(m_sheet->work.outline);
  const QPainterPath whole = toPath(paper, m_toPixels);
  QPainterPath open;
  for (const Polygon& window : m_sheet->work.windows)
    open.addPath(toPath(window, m_toPixels));
  const QPainterPath sheet = whole.subtracted(open);
  p.setPen(Qt::NoPen);
  for (int k = 3; k >= 1; --k) {
    p.setBrush(QColor(0, 0, 0, theme.dark ? 26 : 9));
    p.drawPath(sheet.translated(0.4 * k, 1.2 * k));
  }
  QColor colour = theme.sheet;
  if (m_tracing.shown()) {
    m_tracing.paint(p, m_toPixels);
    colour.setAlphaF(0.35f);
  }
  p.setPen(Qt::NoPen);
  p.setBrush(colour);
  p.drawPath(sheet);
  const PanelIndex hovered =
      m_assembly ? m_assembly->findPanel(m_hovered.toStdString()) : PanelIndex();
  if (!hovered.valid() || m_assembly->panels[hovered].piece != m_piece || m_document->previewing())
    return;
  QColor veil = theme.accent;
  veil.setAlphaF(m_picking ? 0.30f : 0.12f);
  p.setBrush(veil);
  p.drawPath(toPath(m_assembly->panels[hovered].outline, m_toPixels));
}

void SheetView::paintJoints(QPainter& p, const PieceSheet& parts) const {
  const Theme& theme = Look::theme();
  if (m_picked) {
    const std::size_t face = parts.faceAt(*m_picked);
    if (face < parts.parts.faces.size()) {
      p.setPen(QPen(theme.accent, 2));
      QColor veil = theme.accent;
      veil.setAlphaF(0.25f);
      p.setBrush(veil);
      p.drawPath(toPath(parts.parts.faces[face], m_toPixels));
    }
  }
  if (m_areaFrom) {
    p.setPen(QPen(theme.glue, 1.4, Qt::DashLine));
    p.setBrush(Qt::NoBrush);
    p.drawRect(QRectF(toScreen(*m_areaFrom), toScreen(m_areaTo)).normalized());
  }
  // Where pins, slots, slides and ties are made: a ring with a bar for what it lets go.
  p.setBrush(theme.sheet);
  p.setPen(QPen(theme.cut, 1.3));
  for (const PieceJoint& joint : m_sheet->work.joints) {
    if (is<given::Glue>(joint)) continue;
    const QPointF at = toScreen(joint.at);
    p.drawEllipse(at, 4.5, 4.5);
    double way = 0;
    if (const auto* slot = std::get_if<given::Slot>(&joint.kind)) way = slot->way_deg;
    if (const auto* slide = std::get_if<given::Slide>(&joint.kind)) way = slide->way_deg;
    if (way != 0) {
      const QPointF along(std::cos(radians(way)), -std::sin(radians(way)));
      p.drawLine(at - 10 * along, at + 10 * along);
    }
  }
}

/// Scores that end in the paper: dashed, with a ring where they stop.
void SheetView::paintIdleScores(QPainter& p, const PieceSheet& parts) const {
  for (const auto& [line, stretch] : parts.parts.loose) {
    if (line >= m_sheet->work.lines.size()) continue;
    const WorkLine& own = m_sheet->work.lines[line];
    if (own.kind == WorkLine::Kind::Cut) continue;
    const QPointF from = toScreen(stretch.first), to = toScreen(stretch.second);
    p.setPen(QPen(Look::theme().trouble, 1.4, Qt::DashLine));
    p.setBrush(Qt::NoBrush);
    p.drawLine(from, to);
    for (const Vec2& end : {own.from, own.to})
      if (distanceToOutline(m_sheet->work.outline, end) > kTouch_mm &&
          distanceToSegment(end, stretch.first, stretch.second) < kTouch_mm)
        p.drawEllipse(toScreen(end), 4, 4);
  }
}

void SheetView::paintRuler(QPainter& p) const {
  // Ticks along the edge the maker reads from: small and whole ones, as on a rule.
  const Theme& theme = Look::theme();
  const LengthUnit unit = m_document->design().settings.unit;
  const Box2 box = boundsOf(m_sheet->work.outline);
  const double small = unit == LengthUnit::Inch ? kMillimetresPerInch / 4 : 5,
               large = unit == LengthUnit::Inch ? kMillimetresPerInch : 10;
  const double scale = m_toPixels.m11(), y = toScreen(box.low).y() + 9;
  const bool far = m_hand->stroke().fromFarEnd;
  p.setPen(QPen(theme.inkFaint, 1));
  const double length = box.size().x();
  p.setFont(Look::font(10));
  for (int k = 0; k * small <= length + 1e-9 && small * scale > 3; ++k) {
    const double mm = k * small;
    const double x = toScreen({far ? box.high.x() - mm : box.low.x() + mm, box.low.y()}).x();
    const bool whole = std::abs(std::remainder(mm, large)) < 1e-6;
    p.drawLine(QPointF(x, y), QPointF(x, y + (whole ? 7 : 4)));
  }
  const double zero = toScreen({far ? box.high.x() : box.low.x(), box.low.y()}).x();
  p.setPen(theme.inkSoft);
  p.drawText(QRectF(zero - 20, y + 7, 40, 14), Qt::AlignCenter, QStringLiteral("0"));
}

void SheetView::paintChosen(QPainter& p) const {
  const Theme& theme = Look::theme();
  const auto mark = [&](const Grip& grip, double width) {
    const PieceWork& work = m_sheet->work;
    p.setPen(QPen(theme.accent, width));
    p.setBrush(Qt::NoBrush);
    switch (grip.what) {
    case Grip::What::Line:
      if (grip.index < work.lines.size())
        p.drawLine(toScreen(work.lines[grip.index].from), toScreen(work.lines[grip.index].to));
      break;
    case Grip::What::LineFrom:
    case Grip::What::LineTo:
      if (grip.index < work.lines.size())
        p.drawEllipse(toScreen(grip.what == Grip::What::LineTo ? work.lines[grip.index].to
                                                               : work.lines[grip.index].from),
                      6, 6);
      break;
    case Grip::What::Corner:
      if (grip.index < work.outline.size()) p.drawEllipse(toScreen(work.outline[grip.index]), 6, 6);
      break;
    case Grip::What::Rim:
      if (grip.index < work.outline.size())
        p.drawLine(toScreen(work.outline[grip.index]),
                   toScreen(work.outline[(grip.index + 1) % work.outline.size()]));
      break;
    case Grip::What::Opening:
    case Grip::What::OpeningCorner:
      if (grip.index < work.windows.size())
        p.drawPath(toPath(work.windows[grip.index], m_toPixels));
      break;
    case Grip::What::Nothing:
    case Grip::What::Panel: break;
    }
  };
  mark(m_hand->chosen(), 3);
  const Stroke& stroke = m_hand->stroke();
  if (stroke.tool == SheetTool::Hold && !stroke.pressed && !m_picking && underMouse())
    mark(gripAt(m_sheet->work, stroke.to, stroke.snapping.reach_mm), 1.6);
}

void SheetView::paintStroke(QPainter& p) const {
  if (m_picking) return;
  const Theme& theme = Look::theme();
  const Stroke& stroke = m_hand->stroke();
  const bool fold = stroke.tool == SheetTool::Score || stroke.tool == SheetTool::Tab;
  const LineKind kind = !fold                                     ? LineKind::Cut
                        : stroke.fold == WorkLine::Kind::Mountain ? LineKind::Mountain
                                                                  : LineKind::Valley;
  QPen pen = linePen(kind, theme, 1.6);
  if (!fold) pen.setColor(theme.accent);
  p.setPen(pen);
  for (const Edge& edge : m_hand->drawn().ghost)
    p.drawLine(toScreen(edge.first), toScreen(edge.second));
  p.setPen(QPen(theme.trouble, 1.6, Qt::DotLine));
  for (const Edge& edge : m_hand->refusedStroke())
    p.drawLine(toScreen(edge.first), toScreen(edge.second));
  p.setBrush(theme.sheet);
  p.setPen(QPen(theme.accent, 1.4));
  for (const Vec2& corner : stroke.corners)
    p.drawEllipse(toScreen(corner), 3, 3);
}

void SheetView::paintMeasures(QPainter& p) const {
  if (m_picking || (!underMouse() && !m_hand->underWay())) return;
  const Theme& theme = Look::theme();
  const LengthUnit unit = m_document->design().settings.unit;
  const Drawn& drawn = m_hand->drawn();
  // What is only told stands clear of the pointer, beside the sheet.
  const auto tell = [&](const StrokeMeasure& measure) {
    const Vec2 low = boundsOf(m_sheet->work.outline).low;
    QPointF from = toScreen(measure.from), to = toScreen(measure.to);
    if (!measure.angle && std::abs(from.y() - to.y()) < 1)
      from.ry() = to.ry() = toScreen(low).y() + 30;
    else if (!measure.angle && std::abs(from.x() - to.x()) < 1)
      from.rx() = to.rx() = toScreen(low).x() - 24;
    if (QLineF(from, to).length() < 3) return;
    p.drawLine(from, to);
    for (const QPointF& end : {from, to})
      p.drawEllipse(end, 1.5, 1.5);
    pill(p, 0.5 * (from + to) + (measure.angle ? QPointF(0, 16) : QPointF(0, 0)),
         shown(measure, unit), false);
  };
  QStringList live;
  for (const StrokeMeasure& measure : drawn.measures) {
    const QPointF from = toScreen(measure.from), to = toScreen(measure.to);
    p.setPen(QPen(measure.typed ? theme.accent : theme.inkFaint, 1));
    if (!measure.angle && measure.typed) p.drawLine(from, to);
    if (measure.typed)
      live << shown(measure, unit);
    else
      tell(measure);
  }
  const QString met = nameOf(drawn.at.to);
  if (live.isEmpty() && met.isEmpty()) return;
  const QPointF at = toScreen(m_hand->stroke().to) + QPointF(0, -22);
  if (!live.isEmpty()) pill(p, at, live.join(QStringLiteral(" × ")), true);
  if (met.isEmpty()) return;
  p.setFont(Look::font(11));
  p.setPen(theme.accent);
  p.drawText(QRectF(at.x() - 60, at.y() - 26, 120, 14), Qt::AlignCenter, met);
}

} // namespace hinge
