// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/size_drawing.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/edits/sheet.h"
#include "core/paper/sheet_size.h"
#include "core/paper/starting_values.h"
#include "core/states/shut_state.h"
#include "core/units/lattice.h"
#include "render/flat_painter.h"
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

namespace hinge {
namespace {

constexpr double kFigureReach_px = 8, kFiguresApart_px = 34, kFigureLabel_px = 38,
                 kFigureRoom_px = 12;

bool acrossIsWide(const Design& design) {
  return design.card.fold == FoldSide::Side;
}
QSizeF onScreen(const Vec2& mm, bool wide) {
  return wide ? QSizeF(mm.x(), mm.y()) : QSizeF(mm.y(), mm.x());
}
/// Turned the way the other one lies.
QSizeF like(const QSizeF& size, const QSizeF& other) {
  return (size.width() > size.height()) == (other.width() > other.height()) ? size
                                                                            : size.transposed();
}

} // namespace

SizeDrawing::SizeDrawing(Document* document, QWidget* parent)
    : QWidget(parent), m_document(document) {
  setMinimumSize(420, 420);
  setMouseTracking(true);
  setFocusPolicy(Qt::ClickFocus);
  setAccessibleName(tr("The card open, shut and in its envelope"));
  connect(document, &Document::designChanged, this, &SizeDrawing::look);
  look();
}

void SizeDrawing::look() {
  const Design& d = m_document->design();
  m_bare = std::make_shared<const Snapshot>(Design{.card = d.card});
  const auto assembly = m_bare->assembly();
  if (!assembly) return update();
  const bool wide = acrossIsWide(d);
  m_openSize = onScreen(flatLeaves(**assembly).size(), wide);
  m_shutSize = onScreen(shutLeaves(**assembly).size(), wide);
  const SheetSize& sheet = sheetByKey(d.settings.sheet);
  m_sheetSize = like({sheet.width_mm, sheet.height_mm}, m_openSize);
  const auto times = [](double card, double of) {
    return std::max(1, static_cast<int>(std::ceil(card / of - 1e-6)));
  };
  m_columns = times(m_openSize.width(), m_sheetSize.width());
  m_rows = times(m_openSize.height(), m_sheetSize.height());
  const EnvelopeSize envelope = envelopeByKey(d.settings.envelope);
  QSizeF inside(envelope.long_mm, envelope.short_mm);
  if (envelope.long_mm <= 0) {
    const EnvelopeNeed need =
        envelopeFor(m_shutSize.width(), m_shutSize.height(), 0, starting::kEnvelopeRoom_mm);
    // What is made to measure is made by a ruler.
    const double step_mm = latticeStep_mm(d.settings.unit);
    inside = {-downToLattice(1e-6 - need.long_mm, step_mm),
              -downToLattice(1e-6 - need.short_mm, step_mm)};
  }
  m_envelopeSize = like(inside, m_shutSize);
  setAccessibleDescription(tr("open %1, shut %2, envelope %3")
                               .arg(size(m_openSize), size(m_shutSize), size(m_envelopeSize)));
  if (!m_held) m_layout = laidOut();
  update();
}

QString SizeDrawing::size(const QSizeF& mm) const {
  const LengthUnit unit = m_document->design().settings.unit;
  return QStringLiteral("%1 × %2").arg(asQt(formatLength(mm.width(), unit, false)),
                                       asQt(sayLength(mm.height(), unit)));
}

/// The open card above, the other two side by side below it, or all three in one row: whichever
/// lets them be larger.
SizeDrawing::Layout SizeDrawing::laidOut() const {
  const QSizeF sheets(m_columns * m_sheetSize.width(), m_rows * m_sheetSize.height());
  const QSizeF top = sheets.expandedTo(m_openSize);
  const double low = std::max(m_shutSize.height(), m_envelopeSize.height()),
               pair = m_shutSize.width() + m_envelopeSize.width();
  const double w = width() - 2 * kFigureRoom_px, h = height() - 2 * kFigureRoom_px;
  const double stacked =
      std::min({w / top.width(), (w - kFiguresApart_px) / pair,
                (h - kFiguresApart_px - 2 * kFigureLabel_px) / (top.height() + low)});
  const double inRow = std::min((w - 2 * kFiguresApart_px) / (top.width() + pair),
                                (h - kFigureLabel_px) / std::max(top.height(), low));
  Layout made;
  made.scale = std::max({stacked, inRow, 0.05});
  const double s = made.scale;
  const auto boxAt = [&](const QPointF& middle, const QSizeF& mm) {
    return QRectF(middle - 0.5 * s * QPointF(mm.width(), mm.height()), s * mm);
  };
  QPointF open, shut, envelope;
  if (inRow > stacked) {
    const double y = kFigureRoom_px + 0.5 * (h - kFigureLabel_px);
    const double left = 0.5 * (width() - s * (top.width() + pair) - 2 * kFiguresApart_px);
    open = {left + 0.5 * s * top.width(), y};
    shut = {left + s * (top.width() + 0.5 * m_shutSize.width()) + kFiguresApart_px, y};
    envelope = {
        left + s * (top.width() + pair - 0.5 * m_envelopeSize.width()) + 2 * kFiguresApart_px, y};
  } else {
    const double spare = h - s * (top.height() + low) - kFiguresApart_px - 2 * kFigureLabel_px;
    open = {0.5 * width(), kFigureRoom_px + 0.5 * spare + 0.5 * s * top.height()};
    const double y =
        open.y() + 0.5 * s * top.height() + kFigureLabel_px + kFiguresApart_px + 0.5 * s * low;
    const double left = 0.5 * (width() - s * pair - kFiguresApart_px);
    shut = {left + 0.5 * s * m_shutSize.width(), y};
    envelope = {left + s * (pair - 0.5 * m_envelopeSize.width()) + kFiguresApart_px, y};
  }
  made.sheets = boxAt(open, sheets), made.open = boxAt(open, m_openSize);
  made.shut = boxAt(shut, m_shutSize), made.envelope = boxAt(envelope, m_envelopeSize);
  return made;
}

// --- edges -----------------------------------------------------------------------------------

std::vector<SizeDrawing::Edge> SizeDrawing::edges() const {
  const Design& d = m_document->design();
  const bool wide = acrossIsWide(d);
  std::vector<Edge> all;
  const auto add = [&](Figure figure, const QRectF& box, bool upwards) {
    // The sheet's y runs up the screen, or to the right when the card folds along its top.
    const double y = upwards ? box.top() : box.bottom();
    all.push_back(
        {figure, wide, true, false, {box.right(), box.top()}, {box.right(), box.bottom()}});
    all.push_back({figure, !wide, false, upwards, {box.left(), y}, {box.right(), y}});
  };
  add(Figure::Open, m_layout.open, wide);
  add(Figure::Shut, m_layout.shut, wide);
  if (envelopeByKey(d.settings.envelope).key.starts_with("own-"))
    add(Figure::Envelope, m_layout.envelope, true);
  return all;
}

std::optional<SizeDrawing::Edge> SizeDrawing::edgeAt(const QPointF& at) const {
  for (const Edge& edge : edges()) {
    const double off = edge.upright ? at.x() - edge.from.x() : at.y() - edge.from.y();
    const double along = edge.upright ? at.y() : at.x();
    const double low = edge.upright ? edge.from.y() : edge.from.x(),
                 high = edge.upright ? edge.to.y() : edge.to.x();
    if (std::abs(off) <= kFigureReach_px && along > low && along < high) return edge;
  }
  return std::nullopt;
}

Result<Design> SizeDrawing::pulledTo(const QPointF& at) const {
  const Design& d = m_document->committed();
  const QPointF moved = at - m_from;
  const double by_mm = (m_held->upright   ? moved.x()
                        : m_held->upwards ? -moved.y()
                                          : moved.y()) /
                       m_layout.scale;
  if (m_held->figure != Figure::Envelope)
    return withEdgePulled(d, m_held->figure == Figure::Open ? CardFigure::Open : CardFigure::Shut,
                          m_held->across, by_mm);
  QSizeF inside = m_layout.envelope.size() / m_layout.scale;
  const double step = latticeStep_mm(d.settings.unit);
  if (m_held->upright)
    inside.setWidth(onLattice(inside.width() + by_mm, step));
  else
    inside.setHeight(onLattice(inside.height() + by_mm, step));
  const auto key = envelopeKeyFrom(QStringLiteral("%1 x %2")
                                       .arg(asQt(formatLength(inside.width(), d.settings.unit)),
                                            asQt(formatLength(inside.height(), d.settings.unit)))
                                       .toStdString(),
                                   d.settings.unit);
  if (!key) return key.error();
  Design next = d;
  next.settings.envelope = *key;
  return next;
}

void SizeDrawing::mousePressEvent(QMouseEvent* event) {
  m_held = event->button() == Qt::LeftButton ? edgeAt(event->position()) : std::nullopt;
  m_from = event->position();
  update();
}

void SizeDrawing::mouseMoveEvent(QMouseEvent* event) {
  if (!m_held) {
    m_hovered = edgeAt(event->position());
    setCursor(!m_hovered           ? Qt::ArrowCursor
              : m_hovered->upright ? Qt::SizeHorCursor
                                   : Qt::SizeVerCursor);
    return update();
  }
  const auto next = pulledTo(event->position());
  // What cannot be is not shown: the card stays as it was last.
  if (next) (void)m_document->preview(*next);
}

void SizeDrawing::mouseReleaseEvent(QMouseEvent* event) {
  if (!m_held) return;
  const LengthUnit unit = m_document->committed().settings.unit;
  const auto next = pulledTo(event->position());
  const bool moved = (event->position() - m_from).manhattanLength() > 2;
  m_held.reset();
  m_document->endPreview();
  if (moved) {
    const auto done = next ? m_document->apply(followingTheSheet(m_document->committed(), *next),
                                               tr("pull an edge of the card"))
                           : Result<void>(next.error());
    if (!done) emit refused(said(done.error(), unit));
  }
  look();
}

void SizeDrawing::keyPressEvent(QKeyEvent* event) {
  if (event->key() != Qt::Key_Escape || !m_held) return QWidget::keyPressEvent(event);
  m_held.reset();
  m_document->endPreview();
  look();
}

void SizeDrawing::leaveEvent(QEvent*) {
  m_hovered.reset();
  update();
}

// --- painting --------------------------------------------------------------------------------

void SizeDrawing::paintEvent(QPaintEvent*) {
  if (!m_bare->possible()) return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  if (!m_held) m_layout = laidOut();
  paintOpen(p);
  paintShut(p);
  paintEnvelope(p);
  paintGrips(p);
  const auto& edge = m_held ? m_held : m_hovered;
  if (!edge || m_held) return; // while it is pulled the figure itself moves
  p.setPen(QPen(Look::theme().accent, 3, Qt::SolidLine, Qt::RoundCap));
  p.drawLine(edge->from, edge->to);
}

/// What can be pulled has something to hold in its middle.
void SizeDrawing::paintGrips(QPainter& p) const {
  if (m_held) return;
  constexpr double kGrip_px = 11;
  QColor soft = Look::theme().accent;
  soft.setAlphaF(0.55f);
  p.setPen(QPen(soft, 4, Qt::SolidLine, Qt::RoundCap));
  for (const Edge& edge : edges()) {
    const QPointF half = edge.upright ? QPointF(0, kGrip_px) : QPointF(kGrip_px, 0);
    p.drawLine(edge.middle() - half, edge.middle() + half);
  }
}

void SizeDrawing::label(QPainter& p, const QRectF& under, const QString& text, bool trouble) const {
  const Theme& theme = Look::theme();
  p.setFont(Look::font(12));
  p.setPen(trouble ? theme.trouble : theme.inkSoft);
  double wide = 8;
  for (const QString& line : text.split(QLatin1Char('\n')))
    wide = std::max(wide, QFontMetricsF(p.font()).horizontalAdvance(line) + 8);
  const double x = std::clamp(under.center().x() - 0.5 * wide, 0.0, std::max(0.0, width() - wide));
  p.drawText(QRectF(x, under.bottom() + 4, wide, kFigureLabel_px - 4),
             Qt::AlignHCenter | Qt::AlignTop, text);
}

void SizeDrawing::paintOpen(QPainter& p) const {
  const Theme& theme = Look::theme();
  const Design& d = m_document->design();
  const bool wide = acrossIsWide(d);
  const double s = m_layout.scale;
  // While an edge is pulled the far edge moves and the rest stays where it is.
  QRectF card(m_layout.open.topLeft(), s * m_openSize);
  if (m_held && wide) card.moveBottom(m_layout.open.bottom());
  QPen dashed(theme.inkFaint, 1.2);
  dashed.setDashPattern({4, 4});
  p.setPen(dashed);
  p.setBrush(Qt::NoBrush);
  for (int column = 0; column < m_columns; ++column)
    for (int row = 0; row < m_rows; ++row)
      p.drawRect(QRectF(m_layout.sheets.topLeft() +
                            s * QPointF(column * m_sheetSize.width(), row * m_sheetSize.height()),
                        s * m_sheetSize));
  const std::shared_ptr<const Assembly> assembly = *m_bare->assembly();
  const FlatPiece& own = m_bare->flatPieces()->front();
  const Vec2 low = own.bounds.low;
  const QTransform toPixels =
      wide ? QTransform(s, 0, 0, -s, card.left() - s * low.x(), card.bottom() + s * low.y())
           : QTransform(0, s, s, 0, card.left() - s * low.y(), card.top() - s * low.x());
  QPainterPath paper;
  for (PanelIndex panel : assembly->pieces[own.piece].panels)
    paper.addPath(toPath(assembly->panels[panel].outline, toPixels));
  p.setPen(Qt::NoPen);
  p.fillPath(paper, theme.sheet);
  FlatStyle style;
  style.theme = theme;
  style.fillSheet = style.glue = style.marks = false;
  style.lineWidth_px = 1.8;
  paintFlatPiece(p, *assembly, own, toPixels, style);
  const bool tiled = m_columns * m_rows > 1;
  const QString sheet = said(Text("sheet." + std::string(sheetByKey(d.settings.sheet).key)));
  label(p, m_layout.sheets.united(card),
        tiled ? tr("◆  open\n%1: larger than %2, it takes %3")
                    .arg(size(m_openSize), sheet)
                    .arg(m_columns * m_rows)
              : tr("open\n%1 on %2").arg(size(m_openSize), sheet),
        tiled);
}

void SizeDrawing::paintShut(QPainter& p) const {
  const Theme& theme = Look::theme();
  const Design& d = m_document->design();
  QRectF card(m_layout.shut.topLeft(), m_layout.scale * m_shutSize);
  if (m_held && acrossIsWide(d)) card.moveBottom(m_layout.shut.bottom());
  // Two leaves, and the fold where they hang together.
  p.setPen(QPen(theme.sheetEdge, 1));
  p.setBrush(theme.paperBack);
  p.drawRect(card.translated(3, 3));
  p.setBrush(theme.sheet);
  p.drawRect(card);
  p.setPen(QPen(theme.valley, 2.4));
  if (acrossIsWide(d))
    p.drawLine(card.topLeft(), card.bottomLeft());
  else
    p.drawLine(card.topLeft(), card.topRight());
  label(p, card, tr("shut\n%1").arg(size(m_shutSize)));
}

void SizeDrawing::paintEnvelope(QPainter& p) const {
  const Theme& theme = Look::theme();
  const Design& d = m_document->design();
  QRectF envelope(m_layout.envelope.topLeft(), m_layout.scale * m_envelopeSize);
  if (m_held) envelope.moveBottom(m_layout.envelope.bottom());
  p.setPen(QPen(theme.inkSoft, 1.4));
  p.setBrush(theme.raised);
  p.drawRect(envelope);
  QRectF card(QPointF(), m_layout.scale * m_shutSize);
  card.moveCenter({envelope.center().x(), 0});
  card.moveBottom(envelope.bottom() - 0.5 * (envelope.height() - card.height()));
  p.setPen(QPen(theme.sheetEdge, 1));
  p.setBrush(theme.sheet);
  p.drawRect(card);
  // The flap, thrown back.
  p.setPen(QPen(theme.inkFaint, 1.2));
  const QPointF point(envelope.center().x(), envelope.top() + 0.28 * envelope.height());
  p.drawPolyline(QPolygonF({envelope.topLeft(), point, envelope.topRight()}));
  const EnvelopeSize known = envelopeByKey(d.settings.envelope);
  const double lacks = shortfall_mm(
      known, envelopeFor(m_shutSize.width(), m_shutSize.height(), 0, starting::kEnvelopeRoom_mm));
  const LengthUnit unit = d.settings.unit;
  const QString name = said(nameOf(known), unit);
  label(p, envelope,
        lacks > 1e-6 ? tr("◆  %1\ntoo small by %2").arg(name, asQt(sayLength(lacks, unit)))
                     : tr("%1\n%2 inside").arg(name, size(m_envelopeSize)),
        lacks > 1e-6);
}

} // namespace hinge
