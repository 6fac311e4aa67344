// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/score_ruler.h"
#include "app/look.h"
#include "core/units/lattice.h"
#include "core/units/length.h"
#include "render/flat_painter.h"
#include "render/stage_painter.h"
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

namespace hinge {
namespace {
constexpr int kHeight = 116, kProfile = 128, kReach = 9;
} // namespace

ScoreRuler::ScoreRuler(Document* document, QWidget* parent)
    : QWidget(parent), m_document(document),
      m_editor(new PieceEditor(document, std::nullopt, this)) {
  setFixedHeight(kHeight);
  setMinimumWidth(320);
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("Score ruler"));
  setAccessibleDescription(
      tr("Scores of the piece from its left end, and the piece as it is folded"));
  connect(m_editor, &PieceEditor::refused, this, &ScoreRuler::refused);
  connect(document, &Document::designChanged, this, qOverload<>(&QWidget::update));
  connect(document, &Document::selectionChanged, this, [this] {
    m_chosen = -1;
    update();
  });
}

void ScoreRuler::setPose(std::shared_ptr<const Assembly> assembly, const Pose& pose) {
  m_assembly = std::move(assembly), m_pose = pose;
  update();
}

QRectF ScoreRuler::ruler() const {
  return QRectF(12, 40, width() - kProfile - 44, 26);
}
QRectF ScoreRuler::profileArea() const {
  return QRectF(width() - kProfile - 8, 4, kProfile, kHeight - 8);
}

QPointF ScoreRuler::rulerPoint(double mm) const {
  const double length = boundsOf(work()->outline).size().x();
  return {ruler().left() + ruler().width() * mm / length, ruler().center().y()};
}

QPointF ScoreRuler::markPoint(int mark) const {
  return rulerPoint(scoreMarks(*work())[static_cast<std::size_t>(mark)].low_mm);
}

int ScoreRuler::markAt(const QPointF& point) const {
  if (!work() || std::abs(point.y() - ruler().center().y()) > 26) return -1;
  const auto marks = scoreMarks(*work());
  int best = -1;
  double least = kReach;
  for (std::size_t k = 0; k < marks.size(); ++k)
    if (const double d = std::abs(rulerPoint(marks[k].low_mm).x() - point.x()); d < least)
      least = d, best = static_cast<int>(k);
  return best;
}

double ScoreRuler::lattice_mm() const {
  return latticeStep_mm(m_document->design().settings.unit);
}

void ScoreRuler::paintEvent(QPaintEvent*) {
  const PieceWork* piece = work();
  if (!piece) return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  paintRuler(p, *piece);
  paintProfile(p, *piece);
}

void ScoreRuler::paintRuler(QPainter& p, const PieceWork& piece) const {
  const Theme& theme = Look::theme();
  const QRectF band = ruler();
  const LengthUnit unit = m_document->design().settings.unit;
  const double length = boundsOf(piece.outline).size().x();
  p.setPen(QPen(theme.dark ? theme.ink : theme.cut, 1.2));
  p.setBrush(theme.sheet);
  p.drawRect(band);
  // Ticks as on the maker's rule: every 5 and 10 mm, or every quarter and whole inch.
  const double small = unit == LengthUnit::Inch ? kMillimetresPerInch / 4 : 5,
               large = unit == LengthUnit::Inch ? kMillimetresPerInch : 10;
  p.setPen(QPen(theme.inkFaint, 1));
  if (band.width() * small / length > 3)
    for (int k = 0; k * small <= length + 1e-9; ++k) {
      const double x = rulerPoint(k * small).x();
      const bool whole = std::abs(std::remainder(k * small, large)) < 1e-6;
      p.drawLine(QPointF(x, band.bottom()), QPointF(x, band.bottom() + (whole ? 6 : 3)));
    }
  const auto marks = scoreMarks(piece);
  p.setFont(Look::font(11, QFont::DemiBold));
  double lastLabel[2] = {-1e9, -1e9};
  for (std::size_t k = 0; k < marks.size(); ++k) {
    const double x = rulerPoint(marks[k].low_mm).x();
    const bool mountain = piece.lines[marks[k].line].kind == WorkLine::Kind::Mountain,
               chosen = static_cast<int>(k) == m_chosen;
    QPen pen = linePen(mountain ? LineKind::Mountain : LineKind::Valley, theme, chosen ? 2.4 : 1.5);
    p.setPen(pen);
    p.drawLine(QPointF(x, band.top()), QPointF(x, band.bottom()));
    // A roof over a mountain, a trough under a valley: the sign does not hang on the colour.
    p.setPen(QPen(pen.color(), chosen ? 2.4 : 1.6));
    const double y = band.top() - 5, tip = mountain ? -6 : 6;
    p.drawPolyline(QPolygonF(
        {QPointF(x - 6, y - 0.5 * tip), QPointF(x, y + 0.5 * tip), QPointF(x + 6, y - 0.5 * tip)}));
    const QString text = QString::fromStdString(formatLength(marks[k].low_mm, unit, false));
    const double w = QFontMetricsF(p.font()).horizontalAdvance(text);
    const int row = x - 0.5 * w < lastLabel[0] + 6 ? 1 : 0;
    p.setPen(chosen ? theme.accent : theme.inkSoft);
    p.drawText(QPointF(x - 0.5 * w, band.bottom() + 19 + 13 * row), text);
    lastLabel[row] = x + 0.5 * w;
  }
  p.setPen(theme.inkSoft);
  p.setFont(Look::font(12));
  p.drawText(QRectF(12, 4, band.width(), 18), Qt::AlignLeft | Qt::AlignVCenter,
             tr("scores from the left end"));
  p.setPen(theme.inkFaint);
  p.setFont(Look::font(11));
  p.drawText(QRectF(12, kHeight - 16, band.width() + 20, 16), Qt::AlignLeft | Qt::AlignVCenter,
             tr("click turns over · drag moves · double click adds"));
}

std::vector<Vec3> ScoreRuler::foldedEnds(const PieceWork& piece, const Iso3& bench,
                                         Vec3& axis) const {
  // The lower ends of the scores, from panel to panel.
  std::vector<Vec3> corners;
  const auto marks = scoreMarks(piece);
  const Box2 box = boundsOf(piece.outline);
  const auto lowEnd = [&](const ScoreMark& mark) {
    const WorkLine& line = piece.lines[mark.line];
    return line.from.y() <= line.to.y() ? line.from : line.to;
  };
  std::vector<Vec2> ends{{box.low.x(), lowEnd(marks.front()).y()}};
  for (const ScoreMark& mark : marks)
    ends.push_back(lowEnd(mark));
  ends.push_back({box.high.x(), lowEnd(marks.back()).y()});
  const auto points = panelPoints(piece);
  const auto panelAt = [&](const Vec2& point) -> PanelIndex {
    for (PanelIndex q : m_assembly->panels.indices())
      if (m_assembly->panels[q].owner == m_document->selection() &&
          contains(m_assembly->panels[q].outline, point))
        return q;
    return {};
  };
  for (std::size_t k = 0; k + 1 < ends.size(); ++k) {
    const PanelIndex q = panelAt(points[k]);
    if (!q.valid() || !m_pose.placed[q]) return {};
    if (k == 0) {
      const WorkLine& line = piece.lines[marks.front().line];
      axis = bench.linear() * m_pose.panels[q].linear() * lift((line.to - line.from).normalized());
      corners.push_back(bench * (m_pose.panels[q] * lift(ends[0])));
    }
    corners.push_back(bench * (m_pose.panels[q] * lift(ends[k + 1])));
  }
  return corners;
}

void ScoreRuler::paintProfile(QPainter& p, const PieceWork& piece) const {
  const Theme& theme = Look::theme();
  const QRectF area = profileArea();
  p.setPen(Qt::NoPen);
  p.setBrush(theme.stageBottom);
  p.drawRoundedRect(area, 6, 6);
  const auto marks = scoreMarks(piece);
  if (!m_assembly || marks.empty()) return;
  const Iso3 bench = benchPose(*m_assembly, m_pose.opening_rad);
  Vec3 axis = Vec3::UnitY();
  const auto corners = foldedEnds(piece, bench, axis);
  if (corners.empty()) return;
  Vec3 up = Vec3::UnitZ() - axis.z() * axis;
  up = up.norm() > 0.2 ? Vec3(up.normalized()) : axis.unitOrthogonal();
  const Vec3 across = axis.cross(up);
  const auto flat = [&](const Vec3& q) { return QPointF(across.dot(q), -up.dot(q)); };
  QList<QPolygonF> pages;
  QPolygonF path;
  for (const Vec3& q : corners)
    path << flat(q);
  QRectF bounds = path.boundingRect();
  for (const auto& [page, pose] : m_assembly->basePoses(m_pose.opening_rad)) {
    if (m_assembly->panels[page].owner) continue;
    QPolygonF outline;
    for (const Vec2& c : m_assembly->panels[page].outline.rim)
      outline << flat(bench * (pose * lift(c)));
    pages << outline;
    bounds = bounds.united(outline.boundingRect());
  }
  const double scale = std::min((area.width() - 16) / std::max(1.0, bounds.width()),
                                (area.height() - 16) / std::max(1.0, bounds.height()));
  const QTransform to(scale, 0, 0, scale, area.center().x() - scale * bounds.center().x(),
                      area.center().y() - scale * bounds.center().y());
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(theme.stageSoft, 1));
  for (const QPolygonF& page : pages)
    p.drawPolygon(to.map(page));
  p.setPen(QPen(theme.paperLit, 2.2, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
  p.drawPolyline(to.map(path));
  for (std::size_t k = 0; k < marks.size(); ++k) {
    const bool chosen = static_cast<int>(k) == m_chosen;
    p.setPen(Qt::NoPen);
    p.setBrush(chosen ? theme.accent : theme.paperBack);
    p.drawEllipse(to.map(path[static_cast<qsizetype>(k) + 1]), chosen ? 4.5 : 2.6,
                  chosen ? 4.5 : 2.6);
  }
}

void ScoreRuler::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton || !work()) return;
  m_chosen = markAt(event->position());
  m_dragging = m_chosen >= 0, m_moved = false;
  m_pressedAt = event->position();
  setFocus();
  update();
}

void ScoreRuler::mouseMoveEvent(QMouseEvent* event) {
  const PieceWork* before = m_editor->committed();
  if (!m_dragging || !before) return;
  if (!m_moved && std::abs(event->position().x() - m_pressedAt.x()) < 4) return;
  m_moved = true;
  const auto marks = scoreMarks(*before);
  const double length = boundsOf(before->outline).size().x();
  const double by = (event->position().x() - m_pressedAt.x()) * length / ruler().width();
  const double low =
      std::round((marks[static_cast<std::size_t>(m_chosen)].low_mm + by) / lattice_mm()) *
      lattice_mm();
  m_editor->preview(withScoreMoved(*before, marks[static_cast<std::size_t>(m_chosen)].line, low,
                                   event->modifiers() & Qt::ShiftModifier));
}

void ScoreRuler::mouseReleaseEvent(QMouseEvent*) {
  if (!m_dragging) return;
  m_dragging = false;
  if (m_moved) return m_editor->keepPreview(tr("move a score"));
  const PieceWork* piece = work();
  if (piece && m_chosen >= 0)
    m_editor->change(
        withLineTurned(*piece, scoreMarks(*piece)[static_cast<std::size_t>(m_chosen)].line),
        tr("turn a score over"));
}

void ScoreRuler::mouseDoubleClickEvent(QMouseEvent* event) {
  const PieceWork* piece = work();
  if (!piece || markAt(event->position()) >= 0 ||
      !ruler().adjusted(0, -14, 0, 14).contains(event->position()))
    return;
  const double mm = std::round((event->position().x() - ruler().left()) / ruler().width() *
                               boundsOf(piece->outline).size().x() / lattice_mm()) *
                    lattice_mm();
  m_editor->change(withScoreAdded(*piece, mm, WorkLine::Kind::Valley), tr("add a score"));
}

bool ScoreRuler::event(QEvent* event) {
  if (event->type() == QEvent::ShortcutOverride && m_chosen >= 0) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Delete || key == Qt::Key_Backspace || key == Qt::Key_Space) {
      event->accept();
      return true;
    }
  }
  return QWidget::event(event);
}

void ScoreRuler::keyPressEvent(QKeyEvent* event) {
  const PieceWork* piece = work();
  const int count = piece ? static_cast<int>(scoreMarks(*piece).size()) : 0;
  if (count == 0) return QWidget::keyPressEvent(event);
  const auto line = [&] { return scoreMarks(*piece)[static_cast<std::size_t>(m_chosen)]; };
  switch (event->key()) {
  case Qt::Key_Left: m_chosen = std::max(0, m_chosen - 1); break;
  case Qt::Key_Right: m_chosen = std::min(count - 1, m_chosen + 1); break;
  case Qt::Key_Space:
    if (m_chosen >= 0)
      m_editor->change(withLineTurned(*piece, line().line), tr("turn a score over"));
    break;
  case Qt::Key_Up:
  case Qt::Key_Down:
    if (m_chosen >= 0)
      m_editor->change(
          withScoreMoved(*piece, line().line,
                         line().low_mm + (event->key() == Qt::Key_Up ? 1 : -1) * lattice_mm(),
                         event->modifiers() & Qt::ShiftModifier),
          tr("move a score"));
    break;
  case Qt::Key_Delete:
  case Qt::Key_Backspace:
    if (m_chosen >= 0) m_editor->change(withLineRemoved(*piece, line().line), tr("remove a score"));
    m_chosen = -1;
    break;
  default: return QWidget::keyPressEvent(event);
  }
  update();
}

QList<AccessibleItem> ScoreRuler::accessibleItems() const {
  QList<AccessibleItem> items;
  const PieceWork* piece = work();
  if (!piece) return items;
  const auto marks = scoreMarks(*piece);
  for (std::size_t k = 0; k < marks.size(); ++k) {
    const QPointF at = rulerPoint(marks[k].low_mm);
    const bool mountain = piece->lines[marks[k].line].kind == WorkLine::Kind::Mountain;
    items.append(
        {tr("score %1 at %2")
             .arg(k + 1)
             .arg(QString::fromStdString(
                 formatLength(marks[k].low_mm, m_document->design().settings.unit))),
         mountain ? tr("mountain") : tr("valley"),
         QRectF(at.x() - kReach, ruler().top() - 12, 2 * kReach, ruler().height() + 24).toRect(),
         QAccessible::Button, true});
  }
  return items;
}

void ScoreRuler::pressItem(int index) {
  const PieceWork* piece = work();
  if (!piece || index < 0 || index >= static_cast<int>(scoreMarks(*piece).size())) return;
  m_chosen = index;
  m_editor->change(withLineTurned(*piece, scoreMarks(*piece)[static_cast<std::size_t>(index)].line),
                   tr("turn a score over"));
}

} // namespace hinge
