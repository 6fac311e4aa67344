// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/fold_hand.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/assembly/loose_folds.h"
#include "core/pieces/sheet_edits.h"
#include "core/states/lift.h"
#include "core/units/lattice.h"
#include <QLineF>
#include <cmath>

namespace hinge {
namespace {

constexpr double kStep_deg = 5;
constexpr double kSharpest_deg = 175; ///< as far as paper is folded by hand before it is glued

} // namespace

FoldHand::FoldHand(Document* document, SheetHand* hand, StageView* stage, QObject* parent)
    : QObject(parent), m_document(document), m_hand(hand), m_stage(stage) {}

std::vector<PanelIndex> FoldHand::foldable() const {
  std::vector<PanelIndex> found;
  const auto assembly = m_stage->assembly();
  const auto target = m_hand->target();
  if (!assembly || !target) return found;
  for (PanelIndex p : assembly->panels.indices())
    if (assembly->panels[p].owner == target->piece && m_stage->pose().placed[p] &&
        foldingOf(*assembly, p))
      found.push_back(p);
  return found;
}

PanelIndex FoldHand::panel() const {
  const auto assembly = m_stage->assembly();
  return assembly && !m_key.empty() ? assembly->findPanel(m_key) : PanelIndex();
}

std::optional<Lift> FoldHand::folding() const {
  const PanelIndex own = panel();
  return own.valid() ? foldingOf(*m_stage->assembly(), own) : std::nullopt;
}

double FoldHand::angleNow() const {
  const auto lift = folding();
  return lift ? lift->least : 0;
}

QString FoldHand::hint() const {
  if (foldable().empty())
    return tr("Glue one panel first: then the others can be folded from it. Esc ends.");
  return panel().valid() ? tr("Drag it about its fold, or type the angle. Esc ends.")
                         : tr("Drag a panel to where it goes, fold by fold. Esc ends.");
}

void FoldHand::pressed(const QPointF& at) {
  const PanelIndex panel = m_stage->scene().panelAt(at);
  const auto all = foldable();
  m_dragging = std::ranges::find(all, panel) != all.end();
  if (!m_dragging) return;
  m_key = m_stage->assembly()->panels[panel].key, m_angle = angleNow();
  m_stage->update();
}

void FoldHand::pointed(const QPointF& at) {
  if (!m_dragging) return;
  const auto assembly = m_stage->assembly();
  auto lift = folding();
  if (!lift) return;
  double nearest = 1e300;
  for (double deg = -kSharpest_deg; deg <= kSharpest_deg; deg += kStep_deg) {
    lift->most = radians(deg);
    const Pose pose = lifted(*assembly, m_stage->pose(), *lift, 1);
    const QPointF knob = m_stage->scene().middleIn(panel(), pose);
    if (const double far = QLineF(knob, at).length(); far < nearest)
      nearest = far, m_angle = radians(deg);
  }
  m_stage->update();
}

void FoldHand::released(const QPointF&) {
  if (std::exchange(m_dragging, false)) fold(panel(), m_angle);
}

void FoldHand::fold(PanelIndex panel, double angle_rad) {
  const auto assembly = m_stage->assembly();
  const auto lift = foldingOf(*assembly, panel);
  if (!lift) return;
  const Fold& fold = assembly->folds[lift->fold];
  m_key = assembly->panels[panel].key;
  const PieceWork work = m_hand->committed().work;
  const auto line = lineAt(work, 0.5 * (fold.from + fold.to));
  if (!line) return;
  const std::string place =
      placeInWords(work, nameOfLine(work, *line), m_document->committed().settings.unit);
  // A fold that is turned the other way is the other kind of fold.
  const bool valley = work.lines[*line].kind == WorkLine::Kind::Valley;
  std::string sentence;
  if (angle_rad != 0 && valley != (angle_rad > 0)) sentence = "turn " + place + "; ";
  sentence += "fold " + place + " folded " + exactNumber(180 - std::abs(degrees(angle_rad)));
  m_hand->say(QString::fromStdString(sentence));
}

bool FoldHand::key(const QKeyEvent& event) {
  const auto all = foldable();
  if (all.empty()) return false;
  const auto step = [&](int by) {
    const auto at = std::ranges::find(all, panel());
    const auto count = static_cast<std::ptrdiff_t>(all.size());
    const std::ptrdiff_t now = at == all.end() ? (by > 0 ? -1 : count) : at - all.begin();
    m_key =
        m_stage->assembly()->panels[all[static_cast<std::size_t>((now + by + count) % count)]].key;
    m_stage->update();
  };
  const double by = radians(event.modifiers() & Qt::ShiftModifier ? 1 : kStep_deg);
  switch (event.key()) {
  case Qt::Key_PageDown: return step(1), true;
  case Qt::Key_PageUp: return step(-1), true;
  case Qt::Key_Up:
  case Qt::Key_Down:
    if (!panel().valid()) return step(1), true;
    fold(panel(), std::clamp(angleNow() + (event.key() == Qt::Key_Up ? by : -by),
                             -radians(kSharpest_deg), radians(kSharpest_deg)));
    return true;
  case Qt::Key_Return:
  case Qt::Key_Enter: m_stage->take(nullptr); return true;
  default: return false;
  }
}

void FoldHand::paint(QPainter& p) const {
  const Theme& theme = Look::theme();
  const auto assembly = m_stage->assembly();
  auto lift = folding();
  if (!lift) return;
  lift->most = m_dragging ? m_angle : lift->least;
  const Pose pose = lifted(*assembly, m_stage->pose(), *lift, 1);
  QColor veil = theme.paperLit;
  veil.setAlphaF(0.45f);
  p.setBrush(veil);
  p.setPen(QPen(theme.accent, 2));
  for (PanelIndex panel : lift->panels)
    p.drawPolygon(m_stage->scene().outlineIn(panel, pose));
  p.setFont(Look::font(13, QFont::Bold));
  const QString text = QString::fromStdString(formatAngle(180 - std::abs(degrees(lift->most))));
  const QPointF at = m_stage->scene().middleIn(panel(), pose);
  const double w = QFontMetricsF(p.font()).horizontalAdvance(text) + 16;
  const QRectF tag(at.x() + 10, at.y() - 30, w, 22);
  p.setPen(Qt::NoPen);
  p.setBrush(theme.accent);
  p.drawRoundedRect(tag, 11, 11);
  p.setPen(theme.accentInk);
  p.drawText(tag, Qt::AlignCenter, text);
}

void FoldHand::ended() {
  m_key.clear();
  m_dragging = false;
  emit finished();
}

} // namespace hinge
