// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/face_view.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/structures/names.h"
#include "core/units/lattice.h"
#include "render/flat_painter.h"
#include "render/paper_brush.h"
#include <QMouseEvent>
#include <cmath>

namespace hinge {
namespace {

constexpr double kMargin_px = 44, kHead_px = 56, kLine_px = 22, kGrip_px = 7;

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
  const QRectF room(kMargin_px, kHead_px + list, width() - 2 * kMargin_px,
                    height() - kHead_px - list - kMargin_px);
  const double scale = std::max(
      0.2, std::min(room.width() / box.size().x(), room.height() / box.size().y()));
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
    lines.emplace_back(16, kHead_px - 6 + kLine_px * static_cast<double>(k), width() - 32,
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
    if (listed[k].contains(event->position()))
      return m_hand->chooseLayer(listed.size() - 1 - k);
  m_dragged = edgeAt(event->position());
  if (!m_dragged) return;
  m_hand->chooseLayer(m_dragged->layer);
  m_belowDragged = below(m_dragged->layer);
  m_startBorders = m_hand->stack()[m_dragged->layer].border_mm;
  m_pointer = event->position();
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

void FaceView::mouseMoveEvent(QMouseEvent* event) {
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

void FaceView::keyPressEvent(QKeyEvent* event) {
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
        p.fillPath(toPath(part, QTransform::fromTranslate(0.4, -0.5)), QColor(0x30, 0x22, 0x1c, 46));
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
  const Vec2 places[] = {{middle.x(), box.low.y()}, {box.high.x(), middle.y()},
                         {middle.x(), box.high.y()}, {box.low.x(), middle.y()}};
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

/// Which face it is, who sees it, and its layers, the top one first.
void FaceView::paintSaying(QPainter& p, const Face& face) const {
  const Theme& theme = Look::theme();
  const auto snapshot = m_document->snapshot();
  const auto made = snapshot->assembly();
  if (!made) return;
  const Seat& seat = (*made)->seats[face.seat];
  p.setPen(theme.ink);
  p.setFont(Look::font(14, QFont::Bold));
  p.drawText(QRectF(16, 8, width() - 32, 22), Qt::AlignLeft | Qt::AlignVCenter, said(seat.label));
  p.setFont(Look::font(12));
  p.setPen(theme.inkSoft);
  const auto seen = m_hand->seen();
  QString sight = tr("who sees it is being worked out …");
  if (seen) {
    const int display = static_cast<int>(std::lround(100 * seen->display)),
              opening = static_cast<int>(std::lround(100 * seen->opening));
    sight = seen->seenAs() == SeenClass::Display
                ? tr("seen on display, %1 % of it").arg(display)
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
  if (!m_dragged) layOut();
  paintStack(p, *face);
  paintGlue(p, *face);
  paintBorders(p, *face);
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
  return items;
}

void FaceView::pressItem(int index) {
  const auto count = static_cast<int>(m_hand->stack().size());
  if (index >= 0 && index < count)
    m_hand->chooseLayer(static_cast<std::size_t>(count - 1 - index));
}

} // namespace hinge
