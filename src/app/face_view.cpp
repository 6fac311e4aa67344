// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/face_view.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/structures/names.h"
#include "core/structures/toppers.h"
#include "core/units/lattice.h"
#include "render/flat_painter.h"
#include "render/paper_brush.h"
#include <QMouseEvent>
#include <cmath>

namespace hinge {
namespace {

constexpr double kMargin_px = 44, kFaceHead_px = 56, kLine_px = 22, kGrip_px = 7;

} // namespace

FaceView::FaceView(Document* document, DressHand* hand, QWidget* parent)
    : QWidget(parent), m_document(document), m_hand(hand) {
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(320, 240);
  setAccessibleName(tr("Face"));
  setAccessibleDescription(
      tr("The chosen face with its layers. Drag the edge of a layer to change its border, with "
         "Shift on one side. Up and Down choose a layer, numbers say its border."));
  connect(hand, &DressHand::changed, this, qOverload<>(&QWidget::update));
}

void FaceView::layOut() {
  const auto face = m_hand->chosen();
  if (!face) return;
  const Box2 box = boundsOf(face->outline);
  const double list = kLine_px * static_cast<double>(m_hand->stack().size());
  const QRectF room(kMargin_px, kFaceHead_px + list, width() - 2 * kMargin_px,
                    height() - kFaceHead_px - list - kMargin_px);
  const double scale =
      std::max(0.2, std::min(room.width() / box.size().x(), room.height() / box.size().y()));
  m_toPixels = QTransform(scale, 0, 0, -scale, room.center().x() - scale * box.centre().x(),
                          room.center().y() + scale * box.centre().y());
}

Vec2 FaceView::fromScreen(const QPointF& at) const {
  const QPointF on = m_toPixels.inverted().map(at);
  return {on.x(), on.y()};
}

std::vector<QRectF> FaceView::lines() const {
  std::vector<QRectF> lines;
  for (std::size_t k = 0; k < m_hand->stack().size(); ++k)
    lines.emplace_back(16, kFaceHead_px - 6 + kLine_px * static_cast<double>(k), width() - 32,
                       kLine_px);
  return lines;
}

std::vector<Region> FaceView::below(std::size_t layer) const {
  const auto face = m_hand->chosen();
  const auto wears = m_hand->wears();
  if (!face) return {};
  if (layer == 0 || layer > wears.size()) return {face->outline};
  return wears[layer - 1].parts;
}

std::optional<FaceView::EdgeAt> FaceView::edgeAt(const QPointF& at) const {
  const double reach = kGrip_px / std::max(0.1, m_toPixels.m11());
  const Vec2 on = fromScreen(at);
  std::optional<EdgeAt> found;
  double nearest = reach;
  const auto wears = m_hand->wears();
  for (std::size_t k = wears.size(); k-- > 0;)
    for (const Region& part : wears[k].parts)
      for (const Edge& edge : edgesOf(part))
        if (const double far = distanceToSegment(on, edge.first, edge.second); far < nearest)
          nearest = far, found = EdgeAt{k, sideOf(edge)};
  return found;
}

void FaceView::mousePressEvent(QMouseEvent* event) {
  setFocus();
  if (event->button() != Qt::LeftButton) return;
  const auto listed = lines();
  for (std::size_t k = 0; k < listed.size(); ++k)
    if (listed[k].contains(event->position())) return m_hand->chooseLayer(listed.size() - 1 - k);
  m_pointer = event->position();
  if (const auto chosen = m_hand->topper())
    if (handleOf(*chosen).contains(event->position())) {
      m_topper = chosen, m_sizing = true, m_topperMoved = false;
      return;
    }
  if (const int on = topperAt(event->position())) {
    m_hand->chooseTopper(on);
    m_topper = m_hand->topper(), m_sizing = m_topperMoved = false;
    return;
  }
  m_hand->chooseTopper(0);
  m_dragged = edgeAt(event->position());
  if (!m_dragged) return;
  m_hand->chooseLayer(m_dragged->layer);
  m_belowDragged = below(m_dragged->layer);
  m_startBorders = m_hand->stack()[m_dragged->layer].border_mm;
}

std::vector<double> FaceView::bordersFor(const QPointF& at, bool oneSide) const {
  const Vec2 on = fromScreen(at);
  const double step = latticeStep_mm(m_document->design().settings.unit);
  // From the edge of what lies below, on the side that was taken.
  double border = 1e300;
  bool inside = false;
  for (const Region& part : m_belowDragged) {
    inside = inside || contains(part, on);
    for (const Edge& edge : edgesOf(part))
      if (sideOf(edge) == m_dragged->side)
        border = std::min(border, distanceToSegment(on, edge.first, edge.second));
  }
  if (!inside || border > 1e299) border = 0;
  border = std::max(0.0, onLattice(border, step));
  if (!oneSide) return {border};
  std::vector<double> all = m_startBorders;
  if (all.empty()) {
    const auto face = m_hand->chosen();
    all = {face ? usualBorder_mm(m_document->design().settings, face->outline) : 0.0};
  }
  all.resize(4, all.front());
  all[m_dragged->side] = border;
  return all;
}

/// The topper that is dragged, with the pointer at a place.
Topper FaceView::dragged(const QPointF& at) const {
  Topper topper = *m_topper;
  const double step = latticeStep_mm(m_document->design().settings.unit);
  if (!m_sizing) {
    const Vec2 by = fromScreen(at) - fromScreen(m_pointer);
    for (int axis : {0, 1})
      topper.at[axis] = onLattice(topper.at[axis] + by[axis], step);
    return topper;
  }
  // The handle lies at the upper right corner of its box, turned with it.
  const double turn = radians(topper.turn_deg);
  const Vec2 out = fromScreen(at) - topper.at;
  const Vec2 half(std::cos(turn) * out.x() + std::sin(turn) * out.y(),
                  -std::sin(turn) * out.x() + std::cos(turn) * out.y());
  topper.width_mm =
      std::clamp(onLattice(2 * std::abs(half.x()), step), kLeastTopper_mm, kLargestTopper_mm);
  topper.height_mm =
      std::clamp(onLattice(2 * std::abs(half.y()), step), kLeastTopper_mm, kLargestTopper_mm);
  return topper;
}

int FaceView::topperAt(const QPointF& at) const {
  const Vec2 on = fromScreen(at);
  int found = 0;
  for (const Topper& topper : m_hand->toppers()) {
    const double turn = -radians(topper.turn_deg);
    const Vec2 by = on - topper.at;
    const Vec2 own(std::cos(turn) * by.x() - std::sin(turn) * by.y(),
                   std::sin(turn) * by.x() + std::cos(turn) * by.y());
    for (const Region& shape : takenBy(topper, m_document->design().settings))
      if (contains(Region(shape.rim), own)) found = topper.id;
  }
  return found;
}

QRectF FaceView::handleOf(const Topper& topper) const {
  constexpr double kHandle_px = 7;
  if (!topper.outlines.empty()) return {}; // drawn as it is
  const double turn = radians(topper.turn_deg), w = 0.5 * topper.width_mm,
               h = 0.5 * topper.height_mm;
  const Vec2 corner = topper.at + Vec2(std::cos(turn) * w - std::sin(turn) * h,
                                       std::sin(turn) * w + std::cos(turn) * h);
  const QPointF on = toScreen(corner);
  return {on.x() - kHandle_px, on.y() - kHandle_px, 2 * kHandle_px, 2 * kHandle_px};
}

void FaceView::mouseMoveEvent(QMouseEvent* event) {
  if (m_topper) {
    constexpr double kStill_px = 3;
    if (!m_topperMoved && (event->position() - m_pointer).manhattanLength() < kStill_px) return;
    m_topperMoved = true;
    return m_hand->previewTopper(dragged(event->position()));
  }
  m_pointer = event->position();
  if (m_dragged)
    return m_hand->previewBorder(
        bordersFor(event->position(), event->modifiers() & Qt::ShiftModifier));
  const auto over = edgeAt(event->position());
  if (over)
    setCursor(over->side % 2 == 0 ? Qt::SizeVerCursor : Qt::SizeHorCursor);
  else
    unsetCursor();
}

void FaceView::mouseReleaseEvent(QMouseEvent* event) {
  if (m_topper) {
    const Topper next = dragged(event->position());
    m_hand->endPreview();
    m_topper.reset();
    if (m_topperMoved) m_hand->setTopper(next, tr("move %1").arg(asQt(next.name())));
    return update();
  }
  if (!m_dragged) return;
  const auto borders = bordersFor(event->position(), event->modifiers() & Qt::ShiftModifier);
  m_hand->endPreview();
  const bool moved = borders != m_startBorders;
  m_dragged.reset();
  if (moved) m_hand->setBorder(borders);
  update();
}

bool FaceView::event(QEvent* event) {
  if (event->type() == QEvent::ShortcutOverride) {
    const auto* key = static_cast<QKeyEvent*>(event);
    if (!(key->modifiers() & (Qt::ControlModifier | Qt::AltModifier)) && !key->text().isEmpty()) {
      event->accept();
      return true;
    }
  }
  return QWidget::event(event);
}

/// Arrows move the chosen topper, R turns it, M mirrors it, P puts it on pads or takes them away.
bool FaceView::topperKey(const QKeyEvent& event) {
  auto chosen = m_hand->topper();
  if (!chosen) return false;
  constexpr double kTurn_deg = 15;
  const double step = latticeStep_mm(m_document->design().settings.unit);
  switch (event.key()) {
  case Qt::Key_Left: chosen->at.x() -= step; break;
  case Qt::Key_Right: chosen->at.x() += step; break;
  case Qt::Key_Up: chosen->at.y() += step; break;
  case Qt::Key_Down: chosen->at.y() -= step; break;
  case Qt::Key_R:
    chosen->turn_deg += event.modifiers() & Qt::ShiftModifier ? -kTurn_deg : kTurn_deg;
    break;
  case Qt::Key_M: chosen->mirrored = !chosen->mirrored; break;
  case Qt::Key_P:
    chosen->fix = chosen->fix == TopperFix::Pads ? TopperFix::Flat : TopperFix::Pads;
    break;
  case Qt::Key_Escape: return m_hand->chooseTopper(0), true;
  default: return false;
  }
  m_hand->setTopper(*chosen, tr("change %1").arg(asQt(chosen->name())));
  return true;
}

void FaceView::keyPressEvent(QKeyEvent* event) {
  if (topperKey(*event)) return;
  const std::size_t now = m_hand->layer();
  switch (event->key()) {
  case Qt::Key_Up: return m_hand->chooseLayer(now + 1);
  case Qt::Key_Down: return now > 0 ? m_hand->chooseLayer(now - 1) : void();
  case Qt::Key_PageDown: return m_hand->chooseNext(1);
  case Qt::Key_PageUp: return m_hand->chooseNext(-1);
  case Qt::Key_Escape:
    if (m_dragged) {
      m_dragged.reset();
      return m_hand->endPreview();
    }
    return m_hand->choose({});
  default: emit paperKey(event->key());
  }
}

void FaceView::paintStack(QPainter& p, const Face& face) const {
  const auto snapshot = m_document->snapshot();
  const auto made = snapshot->assembly();
  if (!made) return;
  const Design& design = snapshot->design();
  const Assembly& assembly = **made;
  const double scale = m_toPixels.m11();
  const Paper* ground = design.findPaper(assembly.pieces[assembly.panels[face.panel].piece].paper);
  p.save();
  p.setTransform(m_toPixels, true);
  p.setPen(Qt::NoPen);
  const auto lay = [&](const Paper& paper, bool back, const Region& region, double up_rad) {
    QBrush brush = paperBrush(paper, back, scale * devicePixelRatioF());
    QTransform turned;
    turned.rotateRadians(up_rad - 0.5 * kPi);
    if (brush.style() == Qt::TexturePattern) brush.setTransform(brush.transform() * turned);
    p.fillPath(toPath(region, {}), brush);
  };
  if (ground) lay(*ground, face.back, face.outline, 0.5 * kPi);
  for (const CutLayer& layer : m_hand->wears())
    if (const Paper* paper = design.findPaper(layer.paper))
      for (const Region& part : layer.parts) {
        p.fillPath(toPath(part, QTransform::fromTranslate(0.4, -0.5)),
                   QColor(0x30, 0x22, 0x1c, 46));
        lay(*paper, false, part, layer.up_rad);
      }
  p.restore();
}

void FaceView::paintGlue(QPainter& p, const Face& face) const {
  const auto made = m_document->snapshot()->assembly();
  if (!made) return;
  QColor moss = Look::theme().glue;
  p.setPen(QPen(moss, 1.2, Qt::DashLine));
  moss.setAlphaF(0.55f);
  p.setBrush(QBrush(moss, Qt::FDiagPattern));
  for (const GluedOn& on : gluedOnto(**made, face))
    for (const Region& part : on.area)
      p.drawPath(toPath(part, m_toPixels));
}

void FaceView::paintBorders(QPainter& p, const Face& face) const {
  const Theme& theme = Look::theme();
  const auto wears = m_hand->wears();
  const auto layers = m_hand->stack();
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(theme.cut, 1.4));
  p.drawPath(toPath(face.outline, m_toPixels));
  for (std::size_t k = 0; k < wears.size(); ++k) {
    const bool chosen = k == m_hand->layer();
    p.setPen(QPen(chosen ? theme.accent : QColor(0x20, 0x14, 0x12, 0x60), chosen ? 2 : 1));
    for (const Region& part : wears[k].parts)
      p.drawPath(toPath(part, m_toPixels));
  }
  const std::size_t at = m_hand->layer();
  if (at >= wears.size() || at >= layers.size() || wears[at].parts.empty()) return;
  // The chosen border in numbers, in the middle of each side.
  const LengthUnit unit = m_document->design().settings.unit;
  std::vector<double> border = layers[at].border_mm;
  if (border.empty()) border = {usualBorder_mm(m_document->design().settings, face.outline)};
  const bool each = border.size() == 4;
  border.resize(4, border.front());
  Box2 box;
  for (const Region& part : wears[at].parts)
    box.add(boundsOf(part));
  const Vec2 middle = box.centre();
  const Vec2 places[] = {{middle.x(), box.low.y()},
                         {box.high.x(), middle.y()},
                         {middle.x(), box.high.y()},
                         {box.low.x(), middle.y()}};
  p.setFont(Look::font(12, QFont::Bold));
  for (std::size_t side = 0; side < (each ? 4u : 1u); ++side) {
    const QString text = QString::fromStdString(formatLength(border[side], unit, false));
    const double w = QFontMetricsF(p.font()).horizontalAdvance(text) + 14;
    const QPointF on = toScreen(places[side]);
    const QRectF pill(on.x() - 0.5 * w, on.y() - 10, w, 20);
    p.setPen(Qt::NoPen);
    p.setBrush(theme.accent);
    p.drawRoundedRect(pill, 10, 10);
    p.setPen(theme.accentInk);
    p.drawText(pill, Qt::AlignCenter, text);
  }
}

/// Toppers as they lie, the chosen one with where it is held, its size and its handle.
void FaceView::paintToppers(QPainter& p, const Face& face) const {
  const Theme& theme = Look::theme();
  const auto snapshot = m_document->snapshot();
  const auto made = snapshot->assembly();
  if (!made) return;
  const Design& design = snapshot->design();
  const Seat& seat = (*made)->seats[face.seat];
  const auto chosen = m_hand->topper();
  for (const Topper& topper : m_hand->toppers()) {
    QTransform place;
    place.translate(topper.at.x(), topper.at.y());
    place.rotate(topper.turn_deg);
    const QTransform toScreen = place * m_toPixels;
    const bool own = chosen && chosen->id == topper.id;
    const auto fill = [&](const std::vector<Region>& shapes, const std::string& key) {
      const Paper* paper = design.findPaper(key);
      for (const Region& shape : shapes) {
        const QPainterPath path = toPath(shape, toScreen);
        p.setPen(QPen(own ? theme.accent : QColor(0x20, 0x14, 0x12, 0xa0), own ? 2 : 1));
        p.setBrush(paper ? meanColour(*paper, false) : Qt::white);
        p.drawPath(path);
      }
    };
    const auto shapes = shapesOf(topper), outer = takenBy(topper, design.settings);
    if (topper.mat) fill(outer, topper.mat->paper);
    fill(shapes, topper.paper);
    if (!own) continue;
    QColor moss = theme.glue;
    moss.setAlphaF(0.8f);
    p.setPen(Qt::NoPen);
    p.setBrush(QBrush(moss, Qt::BDiagPattern));
    for (const Region& shape : outer)
      for (const Region& zone :
           fixingZone(**made, seat, topper, shape, design.settings.foldClearance_mm))
        p.drawPath(toPath(zone, toScreen));
    p.setPen(QPen(theme.raised, 1.5));
    p.setBrush(theme.accent);
    if (const QRectF handle = handleOf(topper); !handle.isEmpty())
      p.drawEllipse(handle.adjusted(2, 2, -2, -2));
  }
}

/// Which face it is, who sees it, and its layers, the top one first.
void FaceView::paintSaying(QPainter& p, const Face& face) const {
  const Theme& theme = Look::theme();
  const auto snapshot = m_document->snapshot();
  const auto made = snapshot->assembly();
  if (!made) return;
  const Seat& seat = (*made)->seats[face.seat];
  p.setPen(theme.ink);
  p.setFont(Look::font(14, QFont::Bold));
  p.drawText(QRectF(16, 8, width() - 32, 22), Qt::AlignLeft | Qt::AlignVCenter,
             said(seatName(snapshot->design(), **made, seat)));
  p.setFont(Look::font(12));
  p.setPen(theme.inkSoft);
  const auto seen = m_hand->seen();
  QString sight = tr("who sees it is being worked out …");
  if (seen) {
    const int display = static_cast<int>(std::lround(100 * seen->display)),
              opening = static_cast<int>(std::lround(100 * seen->opening));
    sight = seen->seenAs() == SeenClass::Display ? tr("seen on display, %1 % of it").arg(display)
            : seen->seenAs() == SeenClass::Opening
                ? tr("seen only while it opens, %1 % of it").arg(opening)
                : tr("nobody sees it: glue and pencil go here");
  }
  const Vec2 size = boundsOf(face.outline).size();
  const LengthUnit unit = snapshot->design().settings.unit;
  p.drawText(QRectF(16, 28, width() - 32, 20), Qt::AlignLeft | Qt::AlignVCenter,
             QStringLiteral("%1 × %2, %3")
                 .arg(QString::fromStdString(formatLength(size.x(), unit, false)),
                      QString::fromStdString(formatLength(size.y(), unit)), sight));
  const auto layers = m_hand->stack();
  const auto listed = lines();
  for (std::size_t k = 0; k < listed.size(); ++k) {
    const std::size_t own = layers.size() - 1 - k;
    const Paper* paper = snapshot->design().findPaper(layers[own].paper);
    if (!paper) continue;
    const bool chosen = own == m_hand->layer();
    p.setPen(QPen(chosen ? theme.accent : theme.line, chosen ? 2 : 1));
    QBrush brush = paperBrush(*paper, false, 2);
    if (brush.style() == Qt::TexturePattern)
      brush.setTransform(brush.transform() * QTransform::fromScale(2, 2));
    p.setBrush(brush);
    p.drawRect(QRectF(listed[k].left(), listed[k].top() + 4, 22, 13));
    p.setPen(chosen ? theme.ink : theme.inkSoft);
    p.setFont(Look::font(12, chosen ? QFont::Bold : QFont::Normal));
    p.drawText(listed[k].adjusted(32, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter,
               said(nameOf(*paper)));
  }
}

void FaceView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
  const auto face = m_hand->chosen();
  if (!face) {
    p.setPen(Look::theme().inkSoft);
    p.setFont(Look::font(13));
    p.drawText(rect().adjusted(40, 0, -40, 0), Qt::AlignCenter | Qt::TextWordWrap,
               tr("Click a face of the card: it comes here at large, with its layers and their "
                  "borders."));
    return;
  }
  if (!m_dragged && !m_topper) layOut();
  paintStack(p, *face);
  paintGlue(p, *face);
  paintBorders(p, *face);
  paintToppers(p, *face);
  paintSaying(p, *face);
}

QList<AccessibleItem> FaceView::accessibleItems() const {
  QList<AccessibleItem> items;
  const auto layers = m_hand->stack();
  const auto listed = lines();
  for (std::size_t k = 0; k < listed.size(); ++k) {
    const Layer& layer = layers[layers.size() - 1 - k];
    const Paper* paper = m_document->design().findPaper(layer.paper);
    items.append({tr("layer %1").arg(layers.size() - k),
                  paper ? said(nameOf(*paper)) : asQt(layer.paper), listed[k].toRect(),
                  QAccessible::Button, true});
  }
  for (const Topper& topper : m_hand->toppers())
    items.append({tr("topper %1").arg(asQt(topper.name())), said(Text("topper." + topper.shape)),
                  QRectF(toScreen(topper.at) - QPointF(8, 8), QSizeF(16, 16)).toRect(),
                  QAccessible::Button, true});
  return items;
}

void FaceView::pressItem(int index) {
  const auto count = static_cast<int>(m_hand->stack().size());
  const auto on = m_hand->toppers();
  if (index >= 0 && index < count)
    m_hand->chooseLayer(static_cast<std::size_t>(count - 1 - index));
  else if (index >= count && index < count + static_cast<int>(on.size()))
    m_hand->chooseTopper(on[static_cast<std::size_t>(index - count)].id);
}

} // namespace hinge
