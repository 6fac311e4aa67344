// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/joint_hand.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/pieces/piece_sheet.h"
#include "render/flat_painter.h"
#include <cmath>

namespace hinge {
namespace {

constexpr double kClear_mm = 0.1;
constexpr double kSnap_px = 8, kTurn_deg = 90, kSmallTurn_deg = 15;

bool liesFlat(std::size_t kind) {
  const given::Kind made = changedTo(kind, given::Kind());
  return byFaceOf(made) != nullptr;
}

} // namespace

JointHand::JointHand(Document* document, SheetHand* hand, SheetView* sheet, StageView* stage,
                     QObject* parent)
    : QObject(parent), m_document(document), m_hand(hand), m_sheet(sheet), m_stage(stage) {
  m_typed = new QLineEdit(stage);
  m_typed->setObjectName(QStringLiteral("typed-place"));
  m_typed->setAccessibleName(tr("Where it begins: along, away"));
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
  // As it is joined there already, if it is.
  for (const PieceJoint& joint : m_work.joints)
    if (const bool* byFace = byFaceOf(joint.kind)) m_lying.byFace = *byFace;
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
            "numbers: where it begins");
}

void JointHand::goTo(const std::string& face, const Vec2& to) {
  const auto assembly = m_stage->assembly();
  if (!assembly) return;
  if (face != m_lying.on) {
    m_lying.on = face;
    m_lying.to = to;
    m_lying.turn_deg = turnFor(*assembly, m_stage->pose(), m_target, m_work, m_lying);
  }
  m_lying.to = to;
}

void JointHand::pointed(const QPointF& at) {
  const auto assembly = m_stage->assembly();
  const auto picked = m_stage->scene().pickedAt(at, 0);
  if (!picked || !assembly) return;
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
  m_lying.to += by;
  m_stage->update();
}

void JointHand::turn(double by_deg) {
  m_lying.turn_deg = std::remainder(m_lying.turn_deg + by_deg, 360.0);
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
    m_lying.byFace = !m_lying.byFace;
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
  if (event.text().isEmpty() || !event.text().at(0).isDigit() || !face()) return false;
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
  const Vec2 start = layingStart(m_work, m_lying);
  const std::vector<StrokeMeasure> measures{{start, start}, {start, start}};
  const auto values = typedMeasures(measures, m_typed->text().toStdString(), unit);
  if (!values) return void(emit refused(said(values.error(), unit)));
  Vec2 wanted = start;
  for (std::size_t k = 0; k < values->size(); ++k)
    wanted[static_cast<Eigen::Index>(k)] = (*values)[k];
  m_lying.to = layingPointFor(m_work, m_lying, wanted);
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

void JointHand::keep() {
  const auto assembly = m_stage->assembly();
  if (!assembly) return;
  m_document->select(m_target.piece);
  if (!m_hand->target()) return m_stage->take(nullptr);
  const Design& design = m_document->committed();
  const LengthUnit unit = design.settings.unit;
  const auto joint = jointOf(design, *assembly, m_stage->pose(), m_target, m_lying);
  if (!joint) return void(emit refused(said(joint.error(), unit)));
  QString sentence = QString::fromStdString(jointSentence(m_hand->committed(), *joint, unit));
  if (!m_more.trimmed().isEmpty()) sentence += QLatin1Char(' ') + m_more.trimmed();
  // A panel is glued in one place: the new one takes over.
  const PieceSheet sheet(m_work);
  const bool again =
      m_lying.kind == 0 && std::ranges::any_of(m_work.joints, [&](const PieceJoint& made) {
        return is<given::Glue>(made) && sheet.faceAt(made.at) == sheet.faceAt(m_lying.at);
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
  if (liesFlat(m_lying.kind)) {
    QColor veil = theme.paperLit;
    veil.setAlphaF(0.22f);
    p.setPen(QPen(theme.stageSoft, 1, Qt::DashLine));
    p.setBrush(veil);
    p.drawPolygon(outline(m_work.outline));
    veil.setAlphaF(0.55f);
    p.setPen(QPen(theme.accent, 2));
    p.setBrush(veil);
    p.drawPolygon(outline(heldPanel(m_work, m_lying.at)));
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(theme.stageSoft, 1, Qt::DotLine));
    for (const WorkLine& line : m_work.lines)
      if (const QPolygonF ends = outline({line.from, line.to}); ends.size() == 2)
        p.drawLine(ends[0], ends[1]);
  }
  const auto at = onStage(m_lying.to);
  if (!at) return;
  p.setBrush(m_flush ? theme.fine : theme.accent);
  p.setPen(Qt::NoPen);
  p.drawEllipse(*at, 4, 4);
  // Where it begins: along the line on which the face stands, and away from it.
  const Vec2 start = liesFlat(m_lying.kind) ? layingStart(m_work, m_lying) : m_lying.to;
  const LengthUnit unit = m_document->design().settings.unit;
  const QString text = tr("%1 along, %2 away")
                           .arg(QString::fromStdString(formatLength(start.x(), unit, false)),
                                QString::fromStdString(formatLength(start.y(), unit)));
  p.setFont(Look::font(12, QFont::DemiBold));
  const double w = QFontMetricsF(p.font()).horizontalAdvance(text) + 16;
  const QRectF tag(at->x() + 12, at->y() - 34, w, 22);
  p.setBrush(theme.accent);
  p.drawRoundedRect(tag, 11, 11);
  p.setPen(theme.accentInk);
  p.drawText(tag, Qt::AlignCenter, text);
}

} // namespace hinge
