// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/sheet_hand.h"
#include "app/saying.h"
#include "core/edits/parting.h"
#include "core/io/drawing.h"
#include "core/io/text_file.h"
#include "core/units/lattice.h"
#include <fmt/format.h>

namespace hinge {
namespace {

using What = Grip::What;

bool isLine(const Grip& grip) {
  return grip.what == What::Line || grip.what == What::LineFrom || grip.what == What::LineTo;
}

} // namespace

SheetHand::SheetHand(Document* document, QObject* parent) : QObject(parent), m_document(document) {
  connect(document, &Document::started, this, [this] {
    m_lastSaid.clear();
    setTool(SheetTool::Hold);
    emit started();
  });
  connect(document, &Document::selectionChanged, this, [this] {
    m_chosen = {};
    const auto marked = m_marked; // it waits for an edge of another piece
    cancel();
    m_marked = marked;
    emit changed();
  });
  connect(document, &Document::designChanged, this, [this] {
    m_sheet = std::min(m_sheet, std::max<std::size_t>(1, sheetCount()) - 1);
    if (!m_document->previewing()) {
      m_shown.clear();
      if (const auto on = target();
          !on || (isLine(m_chosen) && m_chosen.index >= committed().work.lines.size()))
        m_chosen = {};
      redraw();
    }
    emit changed();
  });
}

std::optional<SheetTarget> SheetHand::target() const {
  const Design& design = m_document->design();
  if (const auto id = m_document->selection()) {
    const StructureItem* item = design.find(*id);
    return item && item->work ? std::optional(SheetTarget{*id, 0}) : std::nullopt;
  }
  if (m_sheet >= design.card.sheets.size()) return std::nullopt;
  return SheetTarget{{}, m_sheet};
}

void SheetHand::turnTo(std::size_t sheet) {
  cancel();
  m_chosen = {};
  m_sheet = sheet;
  emit changed();
}

std::size_t SheetHand::sheetCount() const {
  return m_document->selection() ? 1 : m_document->design().card.sheets.size();
}

SheetInWork SheetHand::sheet() const {
  return sheetOf(m_document->design(), *target());
}

SheetInWork SheetHand::committed() const {
  return sheetOf(m_document->committed(), *target());
}

double SheetHand::lattice_mm() const {
  return latticeStep_mm(m_document->design().settings.unit);
}

void SheetHand::setTool(SheetTool tool) {
  cancel();
  m_stroke.tool = tool;
  if (tool == SheetTool::Hold) m_stroke.centredOn.reset(); // something else may be chosen
  redraw();
  emit changed();
}

void SheetHand::setFold(WorkLine::Kind kind) {
  m_stroke.fold = kind;
  if (target() && isLine(m_chosen) && m_stroke.tool == SheetTool::Hold &&
      committed().work.lines[m_chosen.index].kind != kind)
    turnChosen();
  redraw();
  emit changed();
}

void SheetHand::setShape(DrawnShape shape, const std::string& key) {
  (m_stroke.tool == SheetTool::Outline ? m_stroke.outline : m_stroke.opening) = shape;
  if (!key.empty()) m_stroke.shape = key;
  setTool(m_stroke.tool);
}

void SheetHand::setCorner(CornerCut how) {
  m_stroke.corner = how;
  setTool(SheetTool::Corner);
}

bool SheetHand::canCentre() const {
  return target() && (isLine(m_chosen) || m_chosen.what == What::Panel);
}

void SheetHand::setCentred(bool on) {
  m_stroke.centredOn.reset();
  if (on && canCentre())
    m_stroke.centredOn =
        isLine(m_chosen) ? nameOfLine(committed().work, m_chosen.index) : m_chosenAt;
  redraw();
  emit changed();
}

void SheetHand::setFarEnd(bool on) {
  m_stroke.fromFarEnd = on;
  redraw();
  emit changed();
}

void SheetHand::choose(const Grip& grip) {
  m_chosen = grip;
  emit changed();
}

void SheetHand::chooseNext(int by) {
  if (!target()) return;
  const PieceWork& work = committed().work;
  const int count = static_cast<int>(work.lines.size());
  if (count == 0) return;
  // From the left end on, as they are read.
  std::vector<int> order(work.lines.size());
  for (int k = 0; k < count; ++k)
    order[static_cast<std::size_t>(k)] = k;
  const auto place = [&](int k) {
    const WorkLine& line = work.lines[static_cast<std::size_t>(k)];
    return std::pair(line.from.x() + line.to.x(), line.from.y() + line.to.y());
  };
  std::ranges::stable_sort(order, {}, place);
  int at = by > 0 ? -1 : count;
  for (int k = 0; isLine(m_chosen) && k < count; ++k)
    if (order[static_cast<std::size_t>(k)] == static_cast<int>(m_chosen.index)) at = k;
  at = std::clamp(at + by, 0, count - 1);
  choose({What::Line, static_cast<std::size_t>(order[static_cast<std::size_t>(at)])});
}

void SheetHand::redraw() {
  m_drawn = {};
  if (!target()) return;
  const Settings& settings = m_document->committed().settings;
  m_stroke.snapping.lattice_mm = lattice_mm();
  m_stroke.bevel_deg = settings.tabBevel_deg;
  m_stroke.snapping.line.reset();
  if (m_stroke.pressed && isLine(m_stroke.grip)) m_stroke.snapping.line = m_stroke.grip.index;
  m_drawn = drawnBy(committed(), m_stroke, settings.unit);
}

void SheetHand::showLive() {
  if (m_drawn.sentence == m_shown) return;
  m_shown = m_drawn.sentence;
  if (m_shown.empty()) return m_document->endPreview();
  const Design& now = m_document->committed();
  const auto worked = workedBy(committed(), m_shown, now.settings.unit);
  const auto next = worked ? withSheet(now, *target(), *worked) : Result<Design>(worked.error());
  // What cannot be is not shown: the sheet stays as it was, under the drawn line.
  if (!next || !m_document->preview(*next)) m_document->endPreview();
}

void SheetHand::point(const Vec2& at, Qt::KeyboardModifiers keys) {
  m_stroke.to = at;
  m_stroke.carry = keys & Qt::ShiftModifier;
  if (!m_stroke.pressed) m_stroke.from = at;
  redraw();
  if (m_stroke.pressed) showLive();
  emit changed();
}

void SheetHand::press(const Vec2& at) {
  if (!target()) return;
  m_stroke.from = m_stroke.to = at;
  m_stroke.typed.clear();
  m_refused.clear();
  m_stroke.grip = gripAt(committed().work, at, m_stroke.snapping.reach_mm);
  if (m_marked && m_stroke.tool == SheetTool::Hold && m_stroke.grip.what == What::Rim &&
      target()->piece && *target()->piece != m_marked->piece)
    return joinMarked(m_stroke.grip.index);
  m_stroke.pressed = true;
  m_wasChosen = m_stroke.grip == m_chosen && isLine(m_chosen);
  if (m_stroke.tool == SheetTool::Hold) m_chosen = m_stroke.grip, m_chosenAt = at;
  redraw();
  emit changed();
}

void SheetHand::release() {
  if (!m_stroke.pressed) return;
  redraw();
  const std::string sentence = m_drawn.sentence;
  const std::vector<Edge> ghost = m_drawn.ghost;
  const bool outlined = m_stroke.cornerByCorner();
  m_stroke.pressed = false;
  if (outlined) {
    const bool closes =
        m_stroke.corners.size() > 2 &&
        (m_stroke.corners.front() - m_drawn.at.at).norm() < m_stroke.snapping.reach_mm;
    if (closes) return finishOutline();
    m_stroke.corners.push_back(m_drawn.at.at);
  } else if (!sentence.empty()) {
    if (!keep(sentence)) m_refused = ghost;
  } else if (m_stroke.tool == SheetTool::Hold && m_wasChosen) {
    turnChosen();
  }
  redraw();
  emit changed();
}

void SheetHand::finishOutline() {
  Stroke whole = m_stroke;
  whole.to = whole.corners.empty() ? whole.to : whole.corners.front();
  const std::string sentence =
      drawnBy(committed(), whole, m_document->committed().settings.unit).sentence;
  m_stroke.corners.clear();
  m_stroke.pressed = false;
  // What was refused can be gone on with, or given up with Escape.
  if (!sentence.empty() && !keep(sentence)) m_stroke.corners = whole.corners;
  redraw();
  emit changed();
}

bool SheetHand::cancel() {
  const bool any = underWay() || !m_stroke.typed.empty() || !m_refused.empty();
  m_refused.clear();
  m_marked.reset();
  m_stroke.pressed = false;
  m_stroke.corners.clear();
  m_stroke.typed.clear();
  m_stroke.from = m_stroke.to;
  if (!m_shown.empty()) {
    m_shown.clear();
    m_document->endPreview();
  }
  redraw();
  return any;
}

bool SheetHand::showTyped(const QString& text) {
  if (!m_stroke.pressed) return false;
  const auto typed =
      typedMeasures(m_drawn.measures, text.toStdString(), m_document->committed().settings.unit);
  if (!typed) return false;
  m_stroke.typed = *typed;
  redraw();
  showLive();
  emit changed();
  return true;
}

bool SheetHand::keepTyped(const QString& text) {
  if (text.trimmed().isEmpty()) return true;
  if (!m_stroke.pressed) return say(verbBefore(text.trimmed()));
  const auto typed =
      typedMeasures(m_drawn.measures, text.toStdString(), m_document->committed().settings.unit);
  if (!typed) {
    emit refused(said(typed.error(), m_document->committed().settings.unit));
    return false;
  }
  m_stroke.typed = *typed;
  redraw();
  const std::string sentence = m_drawn.sentence;
  m_stroke.pressed = false;
  m_stroke.typed.clear();
  const bool done = sentence.empty() || keep(sentence);
  redraw();
  emit changed();
  return done;
}

QString SheetHand::verb() const {
  switch (m_stroke.tool) {
  case SheetTool::Hold: return {};
  case SheetTool::Score: return QStringLiteral("score");
  case SheetTool::Cut: return QStringLiteral("cut");
  case SheetTool::Opening: return QStringLiteral("opening");
  case SheetTool::Reverse: return QStringLiteral("reverse");
  case SheetTool::Tab: return QStringLiteral("tab");
  case SheetTool::Trim: return QStringLiteral("trim");
  case SheetTool::Outline: return QStringLiteral("outline");
  case SheetTool::Corner:
    return m_stroke.corner == CornerCut::Round ? QStringLiteral("round") : QStringLiteral("snip");
  }
  return {};
}

/// A sentence begins with a word of its own; numbers, and what only this tool understands, get its
/// verb. A list of scores without marks folds as the next score would.
QString SheetHand::verbBefore(const QString& text) const {
  const std::string own = text.toStdString();
  const LengthUnit unit = m_document->committed().settings.unit;
  if (verb().isEmpty() || workedBy(committed(), own, unit)) return text;
  const QString whole = verb() + QLatin1Char(' ') + text;
  if (m_stroke.tool != SheetTool::Score) return whole;
  const QString folded = whole + QLatin1Char(' ') + asQt(workKey(m_stroke.fold));
  return !workedBy(committed(), whole.toStdString(), unit) &&
                 workedBy(committed(), folded.toStdString(), unit)
             ? folded
             : whole;
}

bool SheetHand::say(const QString& sentence) {
  return keep(sentence.toStdString());
}

bool SheetHand::keep(const std::string& sentence) {
  if (!target()) return false;
  m_shown.clear();
  const Design now = m_document->committed();
  const auto worked = workedBy(committed(), sentence, now.settings.unit);
  const auto next = worked ? withSheet(now, *target(), *worked) : Result<Design>(worked.error());
  const auto done = next ? m_document->apply(followingTheSheet(now, *next),
                                             tr("work on the sheet: %1").arg(asQt(sentence)))
                         : Result<void>(next.error());
  if (!done) {
    m_document->endPreview();
    emit refused(said(done.error(), now.settings.unit));
    return false;
  }
  m_lastSaid = asQt(sentence);
  emit changed();
  return true;
}

std::string SheetHand::placeOf(const Vec2& at) const {
  return placeInWords(committed().work, at, m_document->committed().settings.unit);
}

Result<void> SheetHand::takeScores(const QString& path) {
  const Design& now = m_document->committed();
  if (!target()) return Error{"sheet.not-there", ""};
  const auto text = readFile(path.toStdString());
  if (!text) return text.error();
  SheetInWork next = committed();
  const auto places =
      scoresFromCsv(*text, now.settings.unit, boundsOf(next.work.outline).size().x());
  if (!places)
    return Error{places.error().message, path.toStdString() + ", " + places.error().place};
  auto work = withScores(next.work, *places);
  if (!work) return work.error();
  next.work = std::move(work).value();
  const auto design = withSheet(now, *target(), next);
  return design ? m_document->apply(*design, tr("take over a list of scores")) : design.error();
}

void SheetHand::turnChosen() {
  if (!target() || !isLine(m_chosen)) return;
  const PieceWork& work = committed().work;
  if (work.lines[m_chosen.index].kind == WorkLine::Kind::Cut) return;
  keep("turn " + placeOf(nameOfLine(work, m_chosen.index)));
}

QString SheetHand::begunWith(const QString& verb, const QString& then) const {
  if (!target() || !isLine(m_chosen)) return {};
  const std::string place = placeOf(nameOfLine(committed().work, m_chosen.index));
  return verb + QLatin1Char(' ') + QString::fromStdString(place) + QLatin1Char(' ') + then;
}

void SheetHand::partChosen() {
  const auto on = target();
  if (!on || !on->piece || !isLine(m_chosen)) return;
  const Design now = m_document->committed();
  const auto made = parted(now, *on->piece, m_chosen.index);
  m_chosen = {};
  const auto done =
      made ? m_document->apply(made->design, tr("part the piece")) : Result<void>(made.error());
  if (!done) emit refused(said(done.error(), now.settings.unit));
}

void SheetHand::markEdge() {
  const auto on = target();
  if (!on || !on->piece || m_chosen.what != What::Rim) return;
  m_marked = {*on->piece, m_chosen.index};
  emit changed();
}

void SheetHand::joinMarked(std::size_t edge) {
  const Design now = m_document->committed();
  const MarkedEdge marked = *std::exchange(m_marked, std::nullopt);
  const auto next = joinedAlong(now, marked.piece, marked.edge, *target()->piece, edge);
  m_chosen = {};
  const auto done =
      next ? m_document->apply(*next, tr("grow two pieces together")) : Result<void>(next.error());
  if (!done) return void(emit refused(said(done.error(), now.settings.unit)));
  m_document->select(marked.piece);
}

void SheetHand::eraseChosen() {
  if (!target()) return;
  const PieceWork work = committed().work;
  const Grip grip = std::exchange(m_chosen, {});
  if (isLine(grip)) keep("erase " + placeOf(nameOfLine(work, grip.index)));
  if (grip.what == What::Corner) keep("smooth " + placeOf(work.outline[grip.index]));
  if (grip.what == What::Opening || grip.what == What::OpeningCorner)
    keep("close " + placeOf(centroidOf(convexParts(work.windows[grip.index]).front())));
}

void SheetHand::nudgeChosen(const Vec2& by) {
  if (!target()) return;
  const PieceWork work = committed().work;
  const std::size_t k = m_chosen.index;
  const auto pull = [&](std::string_view what, const Vec2& from) {
    keep(fmt::format("pull {} {} to {}", what, placeOf(from), placeOf(from + by)));
  };
  switch (m_chosen.what) {
  case What::Line: return pull("line", nameOfLine(work, k));
  case What::LineFrom: return pull("end", work.lines[k].from);
  case What::LineTo: return pull("end", work.lines[k].to);
  case What::Corner: return pull("corner", work.outline[k]);
  case What::OpeningCorner: return pull("opening", work.windows[k][m_chosen.corner]);
  case What::Opening: return pull("opening", centroidOf(convexParts(work.windows[k]).front()));
  case What::Rim: {
    const Edge edge = edgesOf(work.outline)[k];
    const Vec2 middle = 0.5 * (edge.first + edge.second);
    const double width = widthAt_mm(work, k) + outwards(work.outline, k).dot(by);
    return void(keep(fmt::format("pull edge {} to {}", placeOf(middle),
                                 exactLength(width, m_document->committed().settings.unit))));
  }
  case What::Nothing:
  case What::Panel: return;
  }
}

} // namespace hinge
