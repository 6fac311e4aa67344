// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/joint_hand.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/pieces/piece_sheet.h"
#include "core/structures/names.h"
#include "render/flat_painter.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kClear_mm = 0.1, kSamePlace_mm = 1e-6;
constexpr double kSnap_px = 8, kTurn_deg = 90, kSmallTurn_deg = 15;

} // namespace

JointHand::JointHand(Document* document, SheetHand* hand, SheetView* sheet, StageView* stage,
                     QObject* parent)
    : QObject(parent), m_document(document), m_hand(hand), m_sheet(sheet), m_stage(stage) {
  m_typed = new QLineEdit(stage);
  m_typed->setObjectName(QStringLiteral("typed-place"));
  m_typed->setAccessibleName(tr("How far it is from the lines that are told"));
  m_typed->setFixedWidth(130);
  m_typed->hide();
  m_typed->installEventFilter(this);
  connect(sheet, &SheetView::panelPicked, this, &JointHand::pick);
  connect(sheet, &SheetView::areaPicked, this, &JointHand::takeArea);
  connect(sheet, &SheetView::loosened, this, &JointHand::loosen);
  // What is held belongs to the card as it was.
  const auto letGo = [this] {
    if (m_laying && !m_document->previewing()) m_stage->take(nullptr);
  };
  connect(document, &Document::designChanged, this, letGo);
  connect(document, &Document::selectionChanged, this, [this] {
    const auto target = m_hand->target();
    if (!m_laying) return;
    const bool own = target && target->piece == m_target.piece;
    m_sheet->setPicked(own ? std::optional(m_lying.at) : std::nullopt);
  });
}

void JointHand::setKind(std::size_t kind) {
  m_lying.kind = kind;
  m_more.clear();
  m_stage->update();
  emit changed();
}

QString JointHand::placeOf(const Vec2& at) const {
  return QString::fromStdString(placeInWords(m_work, at, m_document->committed().settings.unit));
}

void JointHand::pick(const Vec2& at) {
  const auto target = m_hand->target();
  if (!target) return;
  if (m_laying && target->piece != m_target.piece) return layOnSheet(at);
  m_target = *target;
  m_work = m_hand->committed().work;
  // Where the pointer is, on the lattice, as long as that is on the panel and on no fold of it.
  const PieceSheet sheet(m_work);
  const std::size_t face = sheet.faceAt(at);
  Snapping plain = m_hand->stroke().snapping;
  plain.reach_mm = 0;
  m_lying.at = snappedPoint(m_work, at, plain).at;
  if (face < sheet.parts.faces.size()) {
    const Region& panel = sheet.parts.faces[face];
    if (!contains(panel, m_lying.at) || distanceToOutline(panel, m_lying.at) < kClear_mm)
      m_lying.at = centroidOf(convexParts(panel).front());
  }
  // As this panel is joined already; else by its back.
  m_lying.byFace = false, m_typedRules.clear();
  for (const PieceJoint& joint : m_work.joints)
    if (const bool* byFace = byFaceOf(joint.kind); byFace && sheet.faceAt(joint.at) == face)
      m_lying.byFace = *byFace;
  m_sheet->setPicked(m_lying.at);
  m_lying.on.clear();
  m_laying = true;
  m_stage->take(this);
  emit changed();
}

void JointHand::layOnSheet(const Vec2& at) {
  const auto assembly = m_stage->assembly();
  const PieceIndex piece = m_sheet->piece();
  if (!assembly || !piece.valid()) return;
  for (PanelIndex p : assembly->pieces[piece].panels) {
    const Panel& panel = assembly->panels[p];
    const Seat* seat = assembly->findSeat(panel.key);
    if (!contains(panel.outline, at) || !seat) continue;
    goTo(panel.key, (inverseOf(seat->sides[0].toPiece) * lift(at)).head<2>());
    m_lying.to = snappedLying(*assembly, m_work, m_lying, 0, m_hand->lattice_mm()).to;
    m_document->select(m_target.piece);
    m_sheet->setPicked(m_lying.at);
    m_stage->setFocus();
    return m_stage->update();
  }
}

void JointHand::takeArea(const Vec2& at, const Polygon& area) {
  if (!m_hand->target()) return;
  m_work = m_hand->committed().work;
  const PieceSheet sheet(m_work);
  const std::size_t face = sheet.faceAt(at);
  for (const PieceJoint& joint : m_work.joints) {
    if (!is<given::Glue>(joint) || sheet.faceAt(joint.at) != face) continue;
    QString points;
    for (const Vec2& p : area)
      points += QLatin1Char(' ') + placeOf(p);
    m_hand->say(QStringLiteral("glued %1 only%2").arg(placeOf(joint.at), points));
    return;
  }
  emit refused(tr("That panel is not glued yet: pick it, then say which part takes the glue"));
}

void JointHand::loosen(const Vec2& at) {
  m_work = m_hand->committed().work;
  m_hand->say(QStringLiteral("loosen ") + placeOf(at));
}

const SeatSide* JointHand::face() const {
  const auto assembly = m_stage->assembly();
  const Seat* seat = assembly && !m_lying.on.empty() ? assembly->findSeat(m_lying.on) : nullptr;
  return seat ? &seat->sides[0] : nullptr;
}

std::optional<QPointF> JointHand::onStage(const Vec2& onFace) const {
  const SeatSide* side = face();
  if (!side) return std::nullopt;
  return m_stage->scene().onScreen(side->panel, (side->toPiece * lift(onFace)).head<2>());
}

QString JointHand::hint() const {
  if (m_lying.on.empty())
    return tr("Point at the face it is joined to, or choose another sheet and click there. Esc "
              "ends.");
  return tr("Click joins it · , . turn it · F turns it over · O: the other side of the paper · "
            "numbers: how far from these lines");
}

void JointHand::goTo(const std::string& face, const Vec2& to) {
  const auto assembly = m_stage->assembly();
  if (!assembly) return;
  if (face != m_lying.on) {
    m_lying.on = face, m_typedRules.clear();
    m_lying.to = to;
    m_lying.turn_deg = turnFor(*assembly, m_stage->pose(), m_target, m_work, m_lying);
  }
  m_lying.to = to;
}

void JointHand::pointed(const QPointF& at) {
  const auto assembly = m_stage->assembly();
  const auto picked = m_stage->scene().pickedAt(at, 0);
  if (!picked || !assembly) return;
  // What was typed stays until something else is said.
  if (!m_typedRules.empty() && picked->face == m_lying.on) return;
  goTo(picked->face, picked->onFace);
  const double scale = m_stage->scene().camera().scale_px;
  const LaySnap snap = snappedLying(*assembly, m_work, m_lying, kSnap_px / std::max(scale, 0.1),
                                    m_hand->lattice_mm());
  m_lying.to = snap.to, m_flush = snap.flush;
  m_stage->update();
}

void JointHand::released(const QPointF& at) {
  pointed(at);
  if (!m_lying.on.empty()) keep();
}

void JointHand::nextFace(int by) {
  const auto assembly = m_stage->assembly();
  std::vector<const Seat*> faces;
  for (const Seat& seat : assembly->seats)
    if (seat.kind() == SeatKind::Face && m_stage->pose().placed[seat.sides[0].panel])
      faces.push_back(&seat);
  if (faces.empty()) return;
  int at = by > 0 ? -1 : static_cast<int>(faces.size());
  for (std::size_t k = 0; k < faces.size(); ++k)
    if (faces[k]->key == m_lying.on) at = static_cast<int>(k);
  const int count = static_cast<int>(faces.size());
  const Seat& next = *faces[static_cast<std::size_t>((at + by + count) % count)];
  const Region& panel = assembly->panels[next.sides[0].panel].outline;
  const Vec2 middle =
      (inverseOf(next.sides[0].toPiece) * lift(centroidOf(convexParts(panel).front()))).head<2>();
  goTo(next.key, middle);
  m_lying.to = snappedLying(*assembly, m_work, m_lying, 0, m_hand->lattice_mm()).to;
  m_stage->update();
}

void JointHand::otherSide() {
  const auto assembly = m_stage->assembly();
  const SeatSide* here = face();
  if (!here) return;
  const Vec2 flat = (here->toPiece * lift(m_lying.to)).head<2>();
  for (const Seat& seat : assembly->seats)
    if (seat.kind() == SeatKind::Face && seat.sides[0].panel == here->panel &&
        seat.key != m_lying.on) {
      goTo(seat.key, (inverseOf(seat.sides[0].toPiece) * lift(flat)).head<2>());
      return m_stage->update();
    }
}

void JointHand::slide(const Vec2& by) {
  if (m_lying.on.empty()) return nextFace(1);
  m_lying.to += by, m_typedRules.clear();
  m_stage->update();
}

void JointHand::turn(double by_deg) {
  m_lying.turn_deg = std::remainder(m_lying.turn_deg + by_deg, 360.0);
  m_typedRules.clear();
  m_stage->update();
}

bool JointHand::key(const QKeyEvent& event) {
  const bool shift = event.modifiers() & Qt::ShiftModifier;
  const double step = m_hand->lattice_mm() * (shift ? 1 : 10);
  switch (event.key()) {
  case Qt::Key_Left: return slide({-step, 0}), true;
  case Qt::Key_Right: return slide({step, 0}), true;
  case Qt::Key_Up: return slide({0, step}), true;
  case Qt::Key_Down: return slide({0, -step}), true;
  case Qt::Key_PageDown: return nextFace(1), true;
  case Qt::Key_PageUp: return nextFace(-1), true;
  case Qt::Key_Comma:
  case Qt::Key_Less: return turn(shift ? kSmallTurn_deg : kTurn_deg), true;
  case Qt::Key_Period:
  case Qt::Key_Greater: return turn(shift ? -kSmallTurn_deg : -kTurn_deg), true;
  case Qt::Key_F:
    m_lying.byFace = !m_lying.byFace, m_typedRules.clear();
    if (face())
      m_lying.turn_deg = turnFor(*m_stage->assembly(), m_stage->pose(), m_target, m_work, m_lying);
    m_stage->update();
    return true;
  case Qt::Key_O: return otherSide(), true;
  case Qt::Key_Return:
  case Qt::Key_Enter:
    if (face()) keep();
    return true;
  default: break;
  }
  if (event.text().isEmpty() || !event.text().at(0).isDigit()) return false;
  if (!face()) {
    emit refused(tr("Point at the face first: numbers are measured from its lines"));
    return true;
  }
  const QPointF at = onStage(m_lying.to).value_or(QPointF(20, 60));
  m_typed->move(at.toPoint() + QPoint(16, 12));
  m_typed->setText(event.text());
  m_typed->show();
  m_typed->setFocus();
  m_typed->end(false);
  return true;
}

void JointHand::takeTyped() {
  const LengthUnit unit = m_document->committed().settings.unit;
  const auto assembly = m_stage->assembly();
  if (!assembly) return;
  const auto distances = distancesSaid(*assembly, m_work, m_lying);
  std::vector<StrokeMeasure> measures(distances.size());
  const auto values = typedMeasures(measures, m_typed->text().toStdString(), unit);
  if (!values) return void(emit refused(said(values.error(), unit)));
  std::vector<PlaceRule> rules;
  for (std::size_t k = 0; k < values->size(); ++k) {
    placed::Distance rule = distances[k].rule;
    rule.distance_mm = (*values)[k];
    rules.push_back(std::move(rule));
  }
  const auto laid = laidBy(*assembly, m_work, m_lying, rules);
  if (!laid) return void(emit refused(said(laid.error(), unit)));
  m_lying = *laid, m_typedRules = std::move(rules);
  m_typed->hide();
  m_stage->setFocus();
  m_stage->update();
}

bool JointHand::eventFilter(QObject* object, QEvent* event) {
  if (object != m_typed || event->type() != QEvent::KeyPress) return false;
  const int key = static_cast<QKeyEvent*>(event)->key();
  if (key == Qt::Key_Return || key == Qt::Key_Enter) return takeTyped(), true;
  if (key != Qt::Key_Escape) return false;
  m_typed->hide();
  m_stage->setFocus();
  return true;
}

std::vector<PlaceRule> JointHand::rulesKept(const Assembly& assembly) const {
  std::vector<PlaceRule> rules = m_typedRules;
  constexpr std::size_t kPlace = 2; ///< rules fix it
  for (const PlaceRule& met : metBy(placeSaid(assembly, m_work, m_lying))) {
    if (rules.size() == kPlace) break;
    rules.push_back(met);
    const auto laid = laidBy(assembly, m_work, m_lying, rules);
    if (!laid || (laid->to - m_lying.to).norm() > kSamePlace_mm) rules.pop_back();
  }
  return rules;
}

void JointHand::keep() {
  const auto assembly = m_stage->assembly();
  if (!assembly) return;
  m_document->select(m_target.piece);
  if (!m_hand->target()) return m_stage->take(nullptr);
  const Design& design = m_document->committed();
  const LengthUnit unit = design.settings.unit;
  auto made = jointOf(design, *assembly, m_stage->pose(), m_target, m_lying);
  if (!made) return void(emit refused(said(made.error(), unit)));
  PieceJoint joint = std::move(made).value();
  // Where the piece is moved along its fold the joint lies elsewhere than its rules say.
  if ((joint.to - m_lying.to).norm() < kSamePlace_mm) joint.rules = rulesKept(*assembly);
  QString sentence = QString::fromStdString(jointSentence(m_hand->committed(), joint, unit));
  if (!m_more.trimmed().isEmpty()) sentence += QLatin1Char(' ') + m_more.trimmed();
  // A panel is glued in one place: the new one takes over.
  const PieceSheet sheet(m_work);
  const bool again =
      m_lying.kind == 0 && std::ranges::any_of(m_work.joints, [&](const PieceJoint& was) {
        return is<given::Glue>(was) && sheet.faceAt(was.at) == sheet.faceAt(m_lying.at);
      });
  if (again) sentence = QStringLiteral("loosen %1; %2").arg(placeOf(m_lying.at), sentence);
  m_stage->take(nullptr);
  if (m_hand->say(sentence)) m_sheet->setFocus();
}

void JointHand::ended() {
  m_laying = false;
  m_typed->hide();
  m_sheet->setPicked(std::nullopt);
  emit changed();
}

void JointHand::paint(QPainter& p) const {
  const SeatSide* side = face();
  if (!side) return;
  const Theme& theme = Look::theme();
  const Iso3 lies = onFace(m_lying);
  const auto outline = [&](const Polygon& flat) {
    QPolygonF polygon;
    for (const Vec2& q : flat)
      if (const auto at = onStage((lies * lift(q)).head<2>())) polygon << *at;
    return polygon;
  };
  QRectF ghost;
  if (liesFlat(m_lying)) {
    QColor veil = theme.paperLit;
    veil.setAlphaF(0.22f);
    p.setPen(QPen(theme.stageSoft, 1, Qt::DashLine));
    p.setBrush(veil);
    p.drawPolygon(outline(m_work.outline));
    veil.setAlphaF(0.55f);
    p.setPen(QPen(theme.accent, 2));
    p.setBrush(veil);
    const QPolygonF held = outline(heldPanel(m_work, m_lying.at));
    ghost = held.boundingRect();
    p.drawPolygon(held);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(theme.stageSoft, 1, Qt::DotLine));
    for (const WorkLine& line : m_work.lines)
      if (const QPolygonF ends = outline({line.from, line.to}); ends.size() == 2)
        p.drawLine(ends[0], ends[1]);
  }
  const auto at = onStage(m_lying.to);
  if (!at) return;
  paintSlit(p, *at);
  paintMeasures(p);
  p.setBrush(m_flush ? theme.fine : theme.accent);
  p.setPen(Qt::NoPen);
  p.drawEllipse(*at, 4, 4);
  paintTold(p, ghost.united(QRectF(*at - QPointF(4, 4), QSizeF(8, 8))));
}

/// From the lines that are told to where the sheet begins.
void JointHand::paintMeasures(QPainter& p) const {
  const auto assembly = m_stage->assembly();
  if (!assembly) return;
  p.setPen(QPen(Look::theme().accent, 1.5, Qt::DotLine));
  for (const SaidDistance& said : distancesSaid(*assembly, m_work, m_lying))
    if (const auto from = onStage(said.from), to = onStage(said.to); from && to)
      p.drawLine(*from, *to);
}

/// A slot runs out to the nearest edge of the face: where it would be cut.
void JointHand::paintSlit(QPainter& p, const QPointF& at) const {
  const auto assembly = m_stage->assembly();
  const SeatSide* side = face();
  if (!assembly || !side || kJointKeys[m_lying.kind] != "slot") return;
  const auto lines = linesBelow(*assembly, *side);
  const auto far = [&](const auto& line) {
    return line.second.in.dot(m_lying.to - line.second.at);
  };
  const auto nearest = std::ranges::min_element(lines, {}, far);
  if (nearest == lines.end()) return;
  const auto end = onStage(m_lying.to - far(*nearest) * nearest->second.in);
  if (!end) return;
  p.setPen(QPen(Look::theme().accent, 3));
  p.drawLine(at, *end);
}

QStringList JointHand::told() const {
  const auto assembly = m_stage->assembly();
  const SeatSide* side = face();
  if (!assembly || !side) return {};
  const Design& design = m_document->design();
  const LengthUnit unit = design.settings.unit;
  QStringList lines{said(seatName(design, *assembly, *assembly->findSeat(m_lying.on)), unit)};
  // Numbers take the place of these, in their order.
  for (const SaidDistance& one : distancesSaid(*assembly, m_work, m_lying)) {
    const QString far = said(described(one.rule), unit);
    lines << (one.middle ? tr("%1, in the middle").arg(far) : far);
  }
  if (!liesFlat(m_lying)) return lines;
  const QString turn =
      m_lying.turn_deg == 0 ? QString() : tr(", turned %1°").arg(m_lying.turn_deg, 0, 'g', 6);
  lines << (m_lying.byFace ? tr("its face takes the glue") : tr("its back takes the glue")) + turn;
  return lines;
}

/// Above the ghost, or below it where there is no room; on the stage whatever is near its rim.
void JointHand::paintTold(QPainter& p, const QRectF& ghost) const {
  const QStringList lines = told();
  const Theme& theme = Look::theme();
  p.setFont(Look::font(12, QFont::DemiBold));
  const QFontMetricsF metrics(p.font());
  double wide = 0;
  for (const QString& line : lines)
    wide = std::max(wide, metrics.horizontalAdvance(line));
  const QSizeF size(wide + 20, metrics.lineSpacing() * static_cast<double>(lines.size()) + 10);
  constexpr double kBeside_px = 10;
  const QRectF stage = QRectF(m_stage->rect()).adjusted(4, 4, -4, -4);
  QRectF tag(QPointF(ghost.center().x(), ghost.top() - kBeside_px - size.height()), size);
  if (tag.top() < stage.top()) tag.moveTop(ghost.bottom() + kBeside_px);
  const auto within = [](double at, double low, double high) {
    return std::clamp(at, low, std::max(low, high));
  };
  tag.moveLeft(within(tag.left(), stage.left(), stage.right() - size.width()));
  tag.moveTop(within(tag.top(), stage.top(), stage.bottom() - size.height()));
  p.setPen(Qt::NoPen);
  p.setBrush(theme.accent);
  p.drawRoundedRect(tag, 8, 8);
  p.setPen(theme.accentInk);
  p.drawText(tag.adjusted(10, 5, -10, -5), Qt::AlignLeft | Qt::AlignVCenter,
             lines.join(QLatin1Char('\n')));
}

} // namespace hinge
