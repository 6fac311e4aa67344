// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/sheets_view.h"
#include "app/look.h"
#include "app/saying.h"
#include "render/sheet_painter.h"
#include <QMouseEvent>
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kBetween_px = 26, kUnder_px = 46, kEdge_px = 8;
constexpr double kSnap_mm = 3;

} // namespace

SheetsView::SheetsView(Document* document, QWidget* parent)
    : QWidget(parent), m_document(document) {
  setAccessibleName(tr("Cutting sheets"));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(false);
}

void SheetsView::show(std::shared_ptr<const CutPlan> plan) {
  m_plan = plan ? std::make_shared<CutPlan>(*plan) : nullptr;
  m_dragged.reset();
  m_current = 0;
  resizeEvent(nullptr);
  update();
}

void SheetsView::choose(std::vector<std::size_t> parts) {
  m_chosen = std::move(parts);
  if (m_plan && !m_chosen.empty())
    for (std::size_t s = 0; s < m_plan->sheets.size(); ++s)
      if (std::ranges::count(m_plan->sheets[s].places, m_chosen.front(), &PartPlace::part) > 0)
        m_current = s;
  update();
}

std::vector<PinnedPart> SheetsView::pinned() const {
  std::vector<PinnedPart> all;
  if (m_plan)
    for (std::size_t s = 0; s < m_plan->sheets.size(); ++s)
      for (const PartPlace& place : m_plan->sheets[s].places)
        if (place.pinned)
          all.push_back({place, s, m_plan->sheets[s].width_mm, m_plan->sheets[s].height_mm});
  return all;
}

void SheetsView::unpinAll() {
  if (!m_plan) return;
  for (LaidSheet& sheet : m_plan->sheets)
    for (PartPlace& place : sheet.places)
      place.pinned = false;
  update();
}

int SheetsView::columns() const {
  return width() > 420 && m_plan && m_plan->sheets.size() > 1 ? 2 : 1;
}

double SheetsView::scale() const {
  double widest = 1;
  if (m_plan)
    for (const LaidSheet& sheet : m_plan->sheets)
      widest = std::max(widest, sheet.width_mm);
  return std::min(1.6, ((width() - 2 * kEdge_px) / columns() - kBetween_px) / widest);
}

QRectF SheetsView::pageOf(std::size_t sheet) const {
  // Rows as high as their highest sheet.
  const auto across = static_cast<std::size_t>(columns());
  const double s = scale();
  double top = kEdge_px, widest = 0;
  for (const LaidSheet& one : m_plan->sheets)
    widest = std::max(widest, one.width_mm);
  for (std::size_t row = 0; row < sheet / across; ++row) {
    double high = 0;
    for (std::size_t k = row * across; k < (row + 1) * across; ++k)
      high = std::max(high, m_plan->sheets[k].height_mm);
    top += high * s + kUnder_px;
  }
  const LaidSheet& here = m_plan->sheets[sheet];
  return {kEdge_px + static_cast<double>(sheet % across) * (widest * s + kBetween_px), top,
          here.width_mm * s, here.height_mm * s};
}

QTransform SheetsView::toPixels(std::size_t sheet) const {
  const QRectF page = pageOf(sheet);
  const double s = scale();
  return {s, 0, 0, -s, page.left(), page.bottom()};
}

void SheetsView::resizeEvent(QResizeEvent*) {
  const bool any = m_plan && !m_plan->sheets.empty();
  double bottom = 0;
  for (std::size_t k = 0; any && k < m_plan->sheets.size(); ++k)
    bottom = std::max(bottom, pageOf(k).bottom());
  setMinimumHeight(static_cast<int>(bottom + kUnder_px));
}

QString SheetsView::titleOf(std::size_t sheet) const {
  const LaidSheet& here = m_plan->sheets[sheet];
  const Paper* paper = m_document->design().findPaper(here.paper);
  const LengthUnit unit = m_document->design().settings.unit;
  return tr("%1  %2, %3 × %4")
      .arg(sheet + 1)
      .arg(paper ? said(nameOf(*paper)) : QString(), asQt(formatLength(here.width_mm, unit, false)),
           asQt(formatLength(here.height_mm, unit)));
}

/// Cuts by the places they have in the list of cuts, blanks by their numbers there.
void SheetsView::paintCuts(QPainter& p, std::size_t sheet, const std::vector<Blank>& blanks) const {
  const Theme& theme = Look::theme();
  const QTransform to = toPixels(sheet);
  p.setFont(Look::font(10));
  for (std::size_t k = 0; k < blanks.size(); ++k) {
    const Blank& blank = blanks[k];
    if (blank.sheet != sheet || k < m_plan->sheets.size()) continue;
    const QRectF box(to.map(QPointF(blank.box.low.x(), blank.box.high.y())),
                     to.map(QPointF(blank.box.high.x(), blank.box.low.y())));
    p.setPen(QPen(theme.accent, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(box);
    const QString number = QString::number(k + 1);
    const QSizeF needs = QFontMetricsF(p.font()).size(Qt::TextSingleLine, number);
    if (blank.cut || needs.width() + 4 > box.width() || needs.height() > box.height()) continue;
    p.setPen(theme.cut); // on paper, whatever the bench looks like
    const QRectF corner(box.left() + 1, box.top() + 1, needs.width() + 4, needs.height());
    p.fillRect(corner, theme.sheet);
    p.drawText(corner, Qt::AlignCenter, number);
  }
}

void SheetsView::paintSheet(QPainter& p, std::size_t sheet, const Assembly& assembly) const {
  const Theme& theme = Look::theme();
  const LaidSheet& here = m_plan->sheets[sheet];
  const QRectF page = pageOf(sheet);
  const Design& design = m_document->design();
  const QTransform to = toPixels(sheet);
  paintPaper(p, design.paperNamed(here.paper), QRectF(0, 0, here.width_mm, here.height_mm), to);
  // Offcuts are quiet: a thin frame with a corner turned in.
  p.setPen(QPen(theme.inkSoft, 1, Qt::DotLine));
  p.setBrush(Qt::NoBrush);
  for (const Box2& box : here.offcuts)
    p.drawRect(QRectF(to.map(QPointF(box.low.x(), box.high.y())),
                      to.map(QPointF(box.high.x(), box.low.y())))
                   .adjusted(3, 3, -3, -3));
  SheetStyle style;
  style.lines.theme = Theme::light();
  style.lines.lineWidth_px = 1.0;
  style.pixelsPerMm = scale();
  style.accent = theme.accent;
  const auto snapshot = m_document->snapshot();
  if (const auto seen = snapshot->seenIfReady(); seen && seen->size() == snapshot->faces()->size())
    style.unseen = unseenFaces(*snapshot->faces(), *seen);
  for (const PartPlace& place : here.places) {
    const bool chosen = std::ranges::find(m_chosen, place.part) != m_chosen.end();
    paintPart(p, assembly, design, m_plan->parts[place.part], place, chosen, to, style);
    if (!place.pinned) continue;
    const Box2 box = boxOnSheet(m_plan->parts[place.part], place);
    p.setBrush(theme.accent), p.setPen(Qt::NoPen);
    p.drawEllipse(to.map(QPointF(box.high.x(), box.high.y())) + QPointF(-6, 6), 4, 4);
  }
  if (m_plan->how == LayoutFor::Trimmer) paintCuts(p, sheet, blanksOf(*m_plan));
  const bool current = m_plan->how == LayoutFor::Machine && sheet == m_current;
  p.setPen(QPen(current ? theme.accent : theme.sheetEdge, current ? 2 : 1));
  p.setBrush(Qt::NoBrush);
  p.drawRect(page);
  p.setPen(theme.inkSoft);
  p.setFont(Look::font(12));
  p.drawText(QRectF(page.left(), page.bottom() + 4, page.width(), 18), Qt::AlignLeft,
             titleOf(sheet));
}

void SheetsView::paintEvent(QPaintEvent* event) {
  const auto assembled = m_document->snapshot()->assembly();
  if (!m_plan || !assembled) return;
  // A plan of a card that has changed since is not painted with the new card's pieces.
  for (const CutPart& part : m_plan->parts)
    if (part.mat == 0 &&
        static_cast<std::size_t>(part.flat.piece.value) >= (*assembled)->pieces.size())
      return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  for (std::size_t sheet = 0; sheet < m_plan->sheets.size(); ++sheet)
    if (pageOf(sheet).adjusted(-4, -4, 4, kUnder_px).intersects(event->rect()))
      paintSheet(p, sheet, **assembled);
}

Vec2 SheetsView::onSheetAt(std::size_t sheet, const QPointF& at) const {
  const QPointF mm = toPixels(sheet).inverted().map(at);
  return {mm.x(), mm.y()};
}

std::optional<SheetsView::Spot> SheetsView::at(const QPointF& where) const {
  if (!m_plan) return std::nullopt;
  for (std::size_t s = 0; s < m_plan->sheets.size(); ++s) {
    if (!pageOf(s).contains(where)) continue;
    const Vec2 p = onSheetAt(s, where);
    for (std::size_t k = 0; k < m_plan->sheets[s].places.size(); ++k) {
      const PartPlace& place = m_plan->sheets[s].places[k];
      if (contains(onSheet(m_plan->parts[place.part], place), p)) return Spot{s, k};
    }
  }
  return std::nullopt;
}

QPointF SheetsView::middleOf(std::size_t part) const {
  for (std::size_t s = 0; m_plan && s < m_plan->sheets.size(); ++s)
    for (const PartPlace& place : m_plan->sheets[s].places)
      if (place.part == part) {
        const Vec2 middle = boxOnSheet(m_plan->parts[part], place).centre();
        return toPixels(s).map(QPointF(middle.x(), middle.y()));
      }
  return {};
}

Vec2 SheetsView::snapped(const Spot& spot, const Vec2& offset) const {
  const LaidSheet& sheet = m_plan->sheets[spot.sheet];
  PartPlace place = sheet.places[spot.place];
  place.offset = offset;
  const Box2 own = boxOnSheet(m_plan->parts[place.part], place);
  const LayoutOptions kept; // by the layout of a machine
  Vec2 out = offset;
  for (Eigen::Index axis : {0, 1}) {
    double best = kSnap_mm, by = 0;
    const auto pull = [&](double from, double to) {
      if (std::abs(to - from) < best) best = std::abs(to - from), by = to - from;
    };
    const double size = axis == 0 ? sheet.width_mm : sheet.height_mm;
    pull(own.low[axis], kept.margin_mm), pull(own.high[axis], size - kept.margin_mm);
    for (std::size_t k = 0; k < sheet.places.size(); ++k) {
      if (k == spot.place) continue;
      const Box2 other = boxOnSheet(m_plan->parts[sheet.places[k].part], sheet.places[k]);
      pull(own.low[axis], other.low[axis]), pull(own.high[axis], other.high[axis]);
      pull(own.low[axis], other.high[axis] + kept.gap_mm);
      pull(own.high[axis], other.low[axis] - kept.gap_mm);
    }
    out[axis] += by;
  }
  return out;
}

bool SheetsView::free(const Spot& spot, const Vec2& offset) const {
  constexpr double kNoOverlap_mm2 = 0.5;
  const LaidSheet& sheet = m_plan->sheets[spot.sheet];
  PartPlace place = sheet.places[spot.place];
  place.offset = offset;
  const CutPart& part = m_plan->parts[place.part];
  const Box2 box = boxOnSheet(part, place);
  if (box.low.minCoeff() < 0 || box.high.x() > sheet.width_mm || box.high.y() > sheet.height_mm)
    return false;
  const Region own = onSheet(part, place);
  for (std::size_t k = 0; k < sheet.places.size(); ++k)
    if (k != spot.place && overlapArea_mm2(own, onSheet(m_plan->parts[sheet.places[k].part],
                                                        sheet.places[k])) > kNoOverlap_mm2)
      return false;
  return true;
}

void SheetsView::mousePressEvent(QMouseEvent* event) {
  for (std::size_t s = 0; m_plan && s < m_plan->sheets.size(); ++s)
    if (pageOf(s).contains(event->position())) m_current = s, update();
  const auto spot = at(event->position());
  if (!spot || event->button() != Qt::LeftButton) return;
  const PartPlace& place = m_plan->sheets[spot->sheet].places[spot->place];
  emit chosen(place.part);
  if (m_plan->how != LayoutFor::Machine) return; // cuts from edge to edge leave no choice
  m_dragged = spot, m_from = place.offset, m_moved = false;
  m_grip = onSheetAt(spot->sheet, event->position()) - place.offset;
}

void SheetsView::mouseMoveEvent(QMouseEvent* event) {
  if (!m_dragged) return;
  const Vec2 wanted = onSheetAt(m_dragged->sheet, event->position()) - m_grip;
  if (!m_moved && (wanted - m_from).norm() * scale() < 4) return;
  m_moved = true;
  m_plan->sheets[m_dragged->sheet].places[m_dragged->place].offset = snapped(*m_dragged, wanted);
  update();
}

void SheetsView::mouseReleaseEvent(QMouseEvent*) {
  if (!m_dragged) return;
  const Spot spot = *m_dragged;
  m_dragged.reset();
  if (!m_moved) return;
  PartPlace& place = m_plan->sheets[spot.sheet].places[spot.place];
  if (free(spot, place.offset)) {
    place.pinned = true;
    emit moved();
  } else {
    place.offset = m_from;
    emit refused(tr("There it would lie over another part, or beyond the sheet"));
  }
  update();
}

void SheetsView::keyPressEvent(QKeyEvent* event) {
  const bool back = event->key() == Qt::Key_Left || event->key() == Qt::Key_Up;
  const bool on = event->key() == Qt::Key_Right || event->key() == Qt::Key_Down;
  if (!m_plan || m_plan->parts.empty() || (!back && !on)) return QWidget::keyPressEvent(event);
  const std::size_t n = m_plan->parts.size();
  const std::size_t now = m_chosen.empty() ? (on ? n - 1 : 0) : m_chosen.front();
  emit chosen((now + (on ? 1 : n - 1)) % n);
}

} // namespace hinge
