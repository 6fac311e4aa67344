// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/sheet_view.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/pieces/piece_sheet.h"
#include "core/structures/names.h"
#include "core/units/length.h"
#include "render/flat_painter.h"
#include <QMouseEvent>
#include <cmath>

// What hands and keys do on the sheet; sheet_paint.cpp draws it.

namespace hinge {
namespace {

constexpr double kReach_px = 8, kMostScale = 8;
constexpr int kMargin = 46;

/// The sheet's own lines as the painter of flat pieces takes them.
std::vector<FlatLine> linesOf(const PieceWork& work) {
  std::vector<FlatLine> lines{{LineKind::Cut, work.outline, true}};
  for (const Polygon& window : work.windows)
    lines.push_back({LineKind::Cut, window, true});
  for (const WorkLine& line : work.lines)
    lines.push_back({line.kind == WorkLine::Kind::Cut        ? LineKind::Cut
                     : line.kind == WorkLine::Kind::Mountain ? LineKind::Mountain
                                                             : LineKind::Valley,
                     {line.from, line.to},
                     false});
  return lines;
}

} // namespace

namespace {

/// Keys that mean something on the sheet; the others are the window's.
bool isHandKey(const QKeyEvent& key) {
  static const QString letters = QStringLiteral("hscortklfjvmebugx0123456789.-: \b");
  return key.key() == Qt::Key_Delete || key.key() == Qt::Key_Backspace ||
         (!key.text().isEmpty() && letters.contains(key.text().at(0).toLower()));
}

} // namespace

SheetView::SheetView(Document* document, SheetHand* hand, QWidget* parent)
    : QWidget(parent), m_document(document), m_hand(hand) {
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(320, 200);
  setAccessibleName(tr("Sheet"));
  setAccessibleDescription(
      tr("The sheet you work on. What is drawn, dragged or typed here is done to the paper. "
         "Left and Right choose a line, Space turns it over, Delete takes it away; typing says "
         "where the next stroke goes."));
  m_typed = new QLineEdit(this);
  m_typed->setObjectName(QStringLiteral("typed-measure"));
  m_typed->setAccessibleName(tr("Typed measure"));
  m_typed->hide();
  m_typed->installEventFilter(this);
  connect(m_typed, &QLineEdit::textEdited, this, [this](const QString& text) {
    placeTyped();
    m_hand->showTyped(text);
  });
  connect(m_hand, &SheetHand::changed, this, &SheetView::refresh);
  refresh();
}

void SheetView::setHoveredPanel(const QString& key) {
  if (key == m_hovered) return;
  m_hovered = key;
  update();
}

void SheetView::setPicking(bool on) {
  m_picking = on;
  m_areaFrom.reset();
  if (!on) m_picked.reset();
  update();
}

void SheetView::setPicked(const std::optional<Vec2>& at) {
  m_picked = at;
  update();
}

void SheetView::lay(const Tracing& tracing) {
  m_tracing = tracing;
  layOut();
  setFocus();
  update();
}

void SheetView::refresh() {
  const auto target = m_hand->target();
  m_sheet.reset();
  if (target) m_sheet = m_hand->sheet();
  if (!m_sheet || m_sheet->work.outline.empty()) {
    m_sheet.reset();
    return update();
  }
  // Letters and glue come with the card that is kept, not with each step of a drag.
  const auto snapshot = m_document->committedSnapshot();
  if (const auto assembled = snapshot->assembly(); assembled && !m_document->previewing()) {
    m_assembly = *assembled;
    m_piece = {};
    std::size_t number = 0;
    for (PieceIndex p : m_assembly->pieces.indices())
      if (m_assembly->pieces[p].owner == target->piece && number++ == target->sheet) m_piece = p;
    for (const FlatPiece& piece : *snapshot->flatPieces())
      if (piece.piece == m_piece) m_flat = piece;
  }
  m_flat.lines = linesOf(m_sheet->work);
  layOut();
  update();
}

QTransform SheetView::fitting() const {
  Box2 box = boundsOf(m_sheet->work.outline);
  if (m_tracing.shown()) box.add(m_tracing.extent());
  const QRectF area = QRectF(rect()).adjusted(kMargin, kMargin - 12, -kMargin, -kMargin);
  const Vec2 size = box.size(), centre = box.centre();
  const double scale = std::min({area.width() / size.x(), area.height() / size.y(), kMostScale});
  return QTransform(scale, 0, 0, -scale, area.center().x() - scale * centre.x(),
                    area.center().y() + scale * centre.y());
}

void SheetView::layOut() {
  if (!m_sheet) return;
  if (!m_hand->underWay()) m_toPixels = fitting();
  m_hand->setReach(kReach_px / m_toPixels.m11());
}

QPointF SheetView::toScreen(const Vec2& flat) const {
  return m_toPixels.map(QPointF(flat.x(), flat.y()));
}

Vec2 SheetView::toSheet(const QPointF& point) const {
  const QPointF flat = m_toPixels.inverted().map(point);
  return {flat.x(), flat.y()};
}

PanelIndex SheetView::panelAt(const Vec2& at) const {
  if (!m_piece.valid() || !m_assembly) return {};
  for (PanelIndex p : m_assembly->pieces[m_piece].panels)
    if (contains(m_assembly->panels[p].outline, at)) return p;
  return {};
}

void SheetView::resizeEvent(QResizeEvent*) {
  layOut();
}

void SheetView::mousePressEvent(QMouseEvent* event) {
  setFocus();
  if (m_sheet) m_dragFrom = toSheet(event->position());
  if (event->button() != Qt::LeftButton || !m_sheet) return;
  closeTyped(false);
  const Vec2 at = toSheet(event->position());
  if (m_tracing.wantsPoints()) {
    m_tracing.point(at);
    if (m_tracing.wantsDistance()) openTyped({});
    return update();
  }
  if (m_picking) {
    m_areaFrom = m_areaTo = at;
    return;
  }
  m_hand->press(at);
}

void SheetView::mouseMoveEvent(QMouseEvent* event) {
  if (!m_sheet) return;
  m_pointer = event->position();
  const Vec2 at = toSheet(m_pointer);
  if (m_picking) {
    m_areaTo = at;
    update();
  } else if (m_tracing.shown() && (event->buttons() & Qt::MiddleButton)) {
    m_tracing.move(m_dragFrom, at);
    m_dragFrom = at;
    update();
  } else {
    m_hand->point(at, event->modifiers());
  }
  const PanelIndex panel = panelAt(at);
  const QString key = panel.valid() ? asQt(m_assembly->panels[panel].key) : QString();
  if (key == m_hovered) return;
  m_hovered = key;
  emit panelHovered(key);
}

void SheetView::mouseReleaseEvent(QMouseEvent* event) {
  if (!m_sheet || event->button() != Qt::LeftButton) return;
  if (!m_picking) return m_hand->release();
  if (!m_areaFrom) return;
  const Vec2 from = *std::exchange(m_areaFrom, std::nullopt), to = toSheet(event->position());
  const Vec2 size = (to - from).cwiseAbs();
  const PieceSheet sheet(m_sheet->work);
  if (size.minCoeff() * m_toPixels.m11() > kReach_px) {
    const auto tidy = [&](Vec2 p) {
      return snappedPoint(m_sheet->work, p, m_hand->stroke().snapping).at;
    };
    emit areaPicked(0.5 * (from + to), rectangle(tidy(from.cwiseMin(to)), tidy(from.cwiseMax(to))));
  } else if (sheet.hasPaper(to)) {
    emit panelPicked(to);
  }
  update();
}

void SheetView::mouseDoubleClickEvent(QMouseEvent* event) {
  if (!m_sheet || m_picking || m_hand->stroke().tool != SheetTool::Hold) return;
  // A corner more where an edge is touched twice; one less where a corner is.
  const Vec2 at = toSheet(event->position());
  const Grip grip = gripAt(m_sheet->work, at, kReach_px / m_toPixels.m11());
  const auto place = [&](const Vec2& p) {
    return QString::fromStdString(
        placeInWords(m_sheet->work, p, m_document->design().settings.unit));
  };
  m_hand->cancel();
  if (grip.what == Grip::What::Rim)
    m_hand->say(QStringLiteral("kink ") +
                place(snappedPoint(m_sheet->work, at, m_hand->stroke().snapping).at));
  else if (grip.what == Grip::What::Corner)
    m_hand->say(QStringLiteral("smooth ") + place(m_sheet->work.outline[grip.index]));
}

void SheetView::leaveEvent(QEvent*) {
  m_hovered.clear();
  emit panelHovered({});
  update();
}

bool SheetView::event(QEvent* event) {
  if (event->type() == QEvent::ShortcutOverride && m_sheet) {
    const auto* key = static_cast<QKeyEvent*>(event);
    const bool plain = !(key->modifiers() & (Qt::ControlModifier | Qt::AltModifier));
    if (plain && isHandKey(*key)) {
      event->accept();
      return true;
    }
  }
  return QWidget::event(event);
}

bool SheetView::pickKey(const QKeyEvent& event) {
  if (!m_picking) return false;
  const PieceSheet sheet(m_sheet->work);
  std::vector<Vec2> middles;
  for (std::size_t f = 0; f < sheet.parts.faces.size(); ++f)
    if (sheet.paper[f]) middles.push_back(centroidOf(convexParts(sheet.parts.faces[f]).front()));
  std::ranges::stable_sort(middles, {}, [](const Vec2& p) { return std::pair(p.x(), p.y()); });
  const std::size_t now = m_picked ? sheet.faceAt(*m_picked) : sheet.parts.faces.size();
  std::size_t at = middles.size();
  for (std::size_t k = 0; k < middles.size(); ++k)
    if (sheet.faceAt(middles[k]) == now) at = k;
  const std::size_t count = middles.size();
  switch (event.key()) {
  case Qt::Key_Left: setPicked(middles[at == count ? count - 1 : (at + count - 1) % count]); break;
  case Qt::Key_Right: setPicked(middles[at == count ? 0 : (at + 1) % count]); break;
  case Qt::Key_Return:
  case Qt::Key_Enter:
    if (m_picked) emit panelPicked(*m_picked);
    break;
  case Qt::Key_Delete:
  case Qt::Key_Backspace:
    if (m_picked) emit loosened(*m_picked);
    break;
  default: return false;
  }
  return true;
}

bool SheetView::nudgeKey(const QKeyEvent& event) {
  if (!(event.modifiers() & Qt::ControlModifier)) return false;
  const double step = m_hand->lattice_mm() * (event.modifiers() & Qt::ShiftModifier ? 10 : 1);
  switch (event.key()) {
  case Qt::Key_Left: m_hand->nudgeChosen({-step, 0}); return true;
  case Qt::Key_Right: m_hand->nudgeChosen({step, 0}); return true;
  case Qt::Key_Up: m_hand->nudgeChosen({0, step}); return true;
  case Qt::Key_Down: m_hand->nudgeChosen({0, -step}); return true;
  default: return false;
  }
}

void SheetView::keyPressEvent(QKeyEvent* event) {
  if (!m_sheet) return QWidget::keyPressEvent(event);
  if (pickKey(*event) || nudgeKey(*event)) return;
  switch (event->key()) {
  case Qt::Key_Left: return m_hand->chooseNext(-1);
  case Qt::Key_Right: return m_hand->chooseNext(1);
  case Qt::Key_Space: return m_hand->turnChosen();
  case Qt::Key_Delete:
  case Qt::Key_Backspace: return m_hand->eraseChosen();
  case Qt::Key_Return:
  case Qt::Key_Enter: return m_hand->finishOutline();
  case Qt::Key_Escape:
    if (!m_hand->cancel()) m_hand->choose({});
    return;
  default: break;
  }
  if (event->key() == Qt::Key_X) return m_hand->partChosen();
  if (event->key() == Qt::Key_G) return m_hand->markEdge();
  if (event->key() == Qt::Key_U && m_tracing.shown()) return lay({}); // away with it
  const QString text = event->text();
  if (text.isEmpty() || !text.at(0).isPrint()) return QWidget::keyPressEvent(event);
  const QChar first = text.at(0);
  // Numbers say where; letters choose how, and a colon begins any other sentence.
  if (first.isDigit() || first == QLatin1Char('.') || first == QLatin1Char('-'))
    openTyped(text);
  else if (first == QLatin1Char(':'))
    openTyped({});
  else
    emit toolKey(event->key());
}

void SheetView::openTyped(const QString& begun) {
  m_typed->setPlaceholderText(m_tracing.wantsDistance() ? tr("how far apart they are")
                                                        : tr("in words"));
  m_typed->setText(begun);
  placeTyped();
  m_typed->show();
  m_typed->setFocus();
  m_typed->deselect();
  m_typed->end(false);
  if (!begun.isEmpty()) m_hand->showTyped(begun);
}

/// A measure stands beside the pointer; a sentence has the whole width below the sheet.
void SheetView::placeTyped() {
  constexpr int kMeasure_px = 190, kRoomy_px = 40, kAside_px = 14, kEdge_px = 4;
  const bool measure = m_hand->stroke().pressed;
  const int most = width() - 2 * kEdge_px;
  const int text = m_typed->fontMetrics().horizontalAdvance(m_typed->text()) + kRoomy_px;
  m_typed->resize(measure ? std::clamp(text, kMeasure_px, most) : most - 2 * kAside_px,
                  m_typed->sizeHint().height());
  const QPointF at = measure ? m_pointer : QPointF(0, height() - 34);
  m_typed->move(
      std::clamp(static_cast<int>(at.x()) + kAside_px, kEdge_px,
                 width() - m_typed->width() - kEdge_px),
      std::clamp(static_cast<int>(at.y()) + 8, kEdge_px, height() - m_typed->height() - kEdge_px));
}

void SheetView::closeTyped(bool keep) {
  if (m_typed->isHidden()) return;
  if (m_tracing.wantsDistance()) {
    if (!scaleTracing(keep)) return;
  } else if (keep && !m_hand->keepTyped(m_typed->text())) {
    return; // it is there to be mended
  }
  if (!keep) m_hand->cancel();
  m_typed->hide();
  setFocus();
}

/// What was typed is the distance of the two points; false when it has to be mended.
bool SheetView::scaleTracing(bool keep) {
  if (!keep) return m_tracing.again(), true;
  const LengthUnit unit = m_document->design().settings.unit;
  const auto mm = parseLength_mm(m_typed->text().trimmed().toStdString(), unit);
  if (mm && m_tracing.setDistance(*mm)) return layOut(), true;
  emit refused(mm ? tr("Two different points and their distance give the scale")
                  : said(mm.error(), unit));
  return false;
}

bool SheetView::eventFilter(QObject* object, QEvent* event) {
  if (object != m_typed) return QWidget::eventFilter(object, event);
  if (event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Return || key == Qt::Key_Enter) return closeTyped(true), true;
    if (key == Qt::Key_Escape) return closeTyped(false), true;
  }
  return QWidget::eventFilter(object, event);
}

QList<AccessibleItem> SheetView::accessibleItems() const {
  QList<AccessibleItem> items;
  if (!m_sheet) return items;
  const LengthUnit unit = m_document->design().settings.unit;
  const Box2 box = boundsOf(m_sheet->work.outline);
  for (std::size_t k = 0; k < m_sheet->work.lines.size(); ++k) {
    const WorkLine& line = m_sheet->work.lines[k];
    const auto place = [&](const Vec2& p) {
      return QString::fromStdString(formatLength(p.x() - box.low.x(), unit, false)) +
             QStringLiteral(", ") + QString::fromStdString(formatLength(p.y() - box.low.y(), unit));
    };
    const QRectF at = QRectF(toScreen(line.from), toScreen(line.to)).normalized();
    items.append({tr("line %1 from %2 to %3").arg(k + 1).arg(place(line.from), place(line.to)),
                  lineName(linesOf(m_sheet->work)[k + 1 + m_sheet->work.windows.size()].kind),
                  at.toRect().adjusted(-4, -4, 4, 4), QAccessible::Button, true});
  }
  if (m_assembly && m_piece.valid())
    for (PanelIndex p : m_assembly->pieces[m_piece].panels)
      items.append({said(panelOnSheet(m_document->design(), *m_assembly, p)),
                    asQt(m_assembly->panels[p].key),
                    toPath(m_assembly->panels[p].outline, m_toPixels).boundingRect().toRect(),
                    QAccessible::Graphic, m_picking});
  return items;
}

void SheetView::pressItem(int index) {
  if (!m_sheet || index < 0) return;
  const auto at = static_cast<std::size_t>(index), lines = m_sheet->work.lines.size();
  if (at < lines) return m_hand->choose({Grip::What::Line, at});
  const auto& panels = m_assembly->pieces[m_piece].panels;
  if (m_picking && at - lines < panels.size())
    emit panelPicked(
        centroidOf(convexParts(m_assembly->panels[panels[at - lines]].outline).front()));
}

} // namespace hinge
