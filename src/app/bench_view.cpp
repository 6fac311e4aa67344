// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench_view.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/checks/finding.h"
#include "render/flat_painter.h"
#include <QMouseEvent>

namespace hinge {
namespace {
constexpr int kHead = 40, kFoot = 30;
}

BenchView::BenchView(Document* document, QWidget* parent) : QWidget(parent), m_document(document) {
  setMouseTracking(true);
  setMinimumSize(320, 220);
  setAccessibleName(tr("Flat piece"));
  setAccessibleDescription(tr("The selected piece as it is cut, with folds, glue tabs and sizes"));
  m_tags = new SizeTags(this, document);
  connect(m_tags, &SizeTags::refused, this, &BenchView::refused);
  connect(m_tags, &SizeTags::repaint, this, qOverload<>(&QWidget::update));
  const auto step = [this](const QString& sign, const QString& name, int by) {
    auto* button = new QToolButton(this);
    button->setText(sign);
    button->setAccessibleName(name);
    button->setToolTip(name);
    connect(button, &QToolButton::clicked, this, [this, by] { turnTo(m_at + by); });
    return button;
  };
  m_before = step(QStringLiteral("‹"), tr("The piece before"), -1);
  m_next = step(QStringLiteral("›"), tr("The next piece"), 1);
  connect(document, &Document::designChanged, this, &BenchView::refresh);
  connect(document, &Document::selectionChanged, this, &BenchView::refresh);
  refresh();
}

void BenchView::refresh() {
  const auto snapshot = m_document->snapshot();
  const auto assembled = snapshot->assembly();
  if (!assembled) return;
  m_assembly = *assembled;
  if (m_of != m_document->selection()) m_at = 0;
  m_of = m_document->selection();
  m_pieces.clear();
  for (const FlatPiece& piece : *snapshot->flatPieces())
    if (m_assembly->pieces[piece.piece].owner == m_of) m_pieces.push_back(piece);
  turnTo(std::min(m_at, std::max(0, pieceCount() - 1)));
}

void BenchView::turnTo(int piece) {
  const int count = pieceCount();
  m_at = count > 0 ? (piece + count) % count : 0;
  m_piece = count > 0 ? &m_pieces[static_cast<std::size_t>(m_at)] : nullptr;
  emit pieceTurnedTo(m_piece ? m_piece->piece : PieceIndex());
  m_before->setVisible(count > 1);
  m_next->setVisible(count > 1);
  layOut();
  update();
}

void BenchView::layOut() {
  m_next->move(width() - 16 - m_next->width(), 8);
  m_before->move(m_next->x() - 54 - m_before->width(), 8);
  if (!m_piece) return;
  const QRectF area = QRectF(rect()).adjusted(34, kHead + 12, -34, -kFoot - 14);
  const Vec2 size = m_piece->bounds.size(), centre = m_piece->bounds.centre();
  const double scale = std::min({area.width() / size.x(), area.height() / size.y(), 6.0});
  m_toPixels = QTransform(scale, 0, 0, -scale, area.center().x() - scale * centre.x(),
                          area.center().y() + scale * centre.y());
  m_tags->update(
      *m_assembly,
      [this](PanelIndex p, const Vec2& q) -> std::optional<QPointF> {
        if (m_assembly->panels[p].piece != m_piece->piece) return std::nullopt;
        return m_toPixels.map(QPointF(q.x(), q.y()));
      },
      QRectF(rect()).adjusted(4, kHead - 6, -4, -kFoot));
}

void BenchView::setHoveredPanel(const QString& key) {
  if (key == m_hovered) return;
  m_hovered = key;
  update();
}

QPointF BenchView::panelPoint(const QString& key) const {
  const Vec2 c = centroidOf(m_assembly->panels[m_assembly->findPanel(key.toStdString())].outline);
  return m_toPixels.map(QPointF(c.x(), c.y()));
}

PanelIndex BenchView::panelAt(const QPointF& point) const {
  if (!m_piece) return {};
  for (PanelIndex p : m_assembly->pieces[m_piece->piece].panels)
    if (toPath(m_assembly->panels[p].outline, m_toPixels).contains(point)) return p;
  return {};
}

void BenchView::setLook(std::shared_ptr<const CardLook> look, std::shared_ptr<const Assembly> of) {
  if (look == m_look && of == m_lookOf) return;
  m_look = std::move(look), m_lookOf = std::move(of);
  update();
}

void BenchView::paintEvent(QPaintEvent*) {
  const Theme& theme = Look::theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  if (!m_piece) return;
  const LengthUnit unit = m_document->design().settings.unit;
  p.setPen(theme.ink);
  p.setFont(Look::font(15, QFont::Bold));
  QString name = said(pieceName(m_document->design(), *m_assembly, m_piece->piece));
  name[0] = name[0].toUpper();
  p.drawText(QRectF(16, 10, width() - 32, 22), Qt::AlignLeft | Qt::AlignVCenter, name);
  const double named = QFontMetricsF(p.font()).horizontalAdvance(name);
  p.setFont(Look::font(13));
  p.setPen(theme.inkSoft);
  const Vec2 size = m_piece->bounds.size();
  p.drawText(QRectF(16 + named + 12, 10, width(), 22), Qt::AlignLeft | Qt::AlignVCenter,
             tr("flat, %1 × %2")
                 .arg(QString::fromStdString(formatLength(size.x(), unit, false)),
                      QString::fromStdString(formatLength(size.y(), unit))));

  if (pieceCount() > 1)
    p.drawText(QRectF(m_before->geometry().right() + 1, 10, 54, 22), Qt::AlignCenter,
               tr("%1 of %2").arg(m_at + 1).arg(pieceCount()));

  // A soft edge of shadow lifts the sheet off the bench.
  p.setPen(Qt::NoPen);
  for (int k = 3; k >= 1; --k) {
    p.setBrush(QColor(0, 0, 0, theme.dark ? 26 : 9));
    for (PanelIndex panel : m_assembly->pieces[m_piece->piece].panels)
      p.drawPath(toPath(m_assembly->panels[panel].outline,
                        m_toPixels * QTransform::fromTranslate(0.4 * k, 1.2 * k)));
  }
  FlatStyle style;
  style.theme = theme;
  if (m_lookOf == m_assembly) style.look = m_look;
  paintFlatPiece(p, *m_assembly, *m_piece, m_toPixels, style);
  // The name stands above the drawing already.
  FlatPiece lettered = *m_piece;
  std::erase_if(lettered.labels, [](const FlatLabel& label) { return !label.panel.valid(); });
  paintLabels(p, m_document->design(), *m_assembly, lettered, m_toPixels, m_toPixels.m11(),
              theme.inkSoft);
  const PanelIndex hovered = m_assembly->findPanel(m_hovered.toStdString());
  if (hovered.valid() && m_assembly->panels[hovered].piece == m_piece->piece) {
    QColor veil = theme.accent;
    veil.setAlphaF(0.16f);
    p.setBrush(veil);
    p.setPen(Qt::NoPen);
    p.drawPath(toPath(m_assembly->panels[hovered].outline, m_toPixels));
  }
  m_tags->paint(p, false);

  paintLegend(p);
}

/// Of the line code.
void BenchView::paintLegend(QPainter& p) const {
  const Theme& theme = Look::theme();
  double x = 16;
  const double y = height() - 0.5 * kFoot;
  p.setFont(Look::font(12));
  const auto entry = [&](const QString& text, const QPen& pen) {
    p.setPen(pen);
    p.drawLine(QPointF(x, y), QPointF(x + 34, y));
    p.setPen(theme.inkSoft);
    p.drawText(QPointF(x + 41, y + 4), text);
    x += 41 + QFontMetricsF(p.font()).horizontalAdvance(text) + 18;
  };
  for (LineKind kind : {LineKind::Cut, LineKind::Mountain, LineKind::Valley}) {
    QPen pen = linePen(kind, theme, 1.4);
    if (theme.dark && kind == LineKind::Cut) pen.setColor(theme.ink);
    if (theme.dark && kind != LineKind::Cut) pen.setColor(pen.color().lighter(190));
    entry(lineName(kind), pen);
  }
  p.setPen(QPen(theme.glue, 1));
  for (int k = 0; k < 6; ++k)
    p.drawLine(QPointF(x + 5 * k, y + 5), QPointF(x + 5 * k + 8, y - 5));
  p.setPen(theme.inkSoft);
  p.drawText(QPointF(x + 44, y + 4), tr("glue"));
}

void BenchView::resizeEvent(QResizeEvent*) {
  layOut();
}

void BenchView::mousePressEvent(QMouseEvent* event) {
  if (m_tags->press(event->position())) return;
  const PanelIndex panel = panelAt(event->position());
  if (!panel.valid() || !m_piece) return;
  // A click on a glue mark of the card selects the structure that goes there.
  for (const FlatArea& mark : m_piece->marks)
    if (toPath(mark.outline, m_toPixels).contains(event->position())) {
      m_document->select(m_assembly->panels[mark.panel].owner);
      return;
    }
}

void BenchView::mouseMoveEvent(QMouseEvent* event) {
  if (m_tags->move(event->position())) return;
  const PanelIndex panel = panelAt(event->position());
  const QString key =
      panel.valid() ? QString::fromStdString(m_assembly->panels[panel].key) : QString();
  if (key == m_hovered) return;
  m_hovered = key;
  emit panelHovered(key);
  update();
}

void BenchView::mouseReleaseEvent(QMouseEvent* event) {
  m_tags->release(event->position());
}

void BenchView::leaveEvent(QEvent*) {
  m_tags->leave();
  m_hovered.clear();
  emit panelHovered({});
  update();
}

QList<AccessibleItem> BenchView::accessibleItems() const {
  QList<AccessibleItem> items;
  if (!m_piece) return items;
  for (PanelIndex p : m_assembly->pieces[m_piece->piece].panels)
    items.append({said(panelOnSheet(m_document->design(), *m_assembly, p)),
                  QString::fromStdString(m_assembly->panels[p].key),
                  toPath(m_assembly->panels[p].outline, m_toPixels).boundingRect().toRect(),
                  QAccessible::Graphic, false});
  for (const Fold& fold : m_assembly->folds)
    if (m_assembly->panels[fold.left].piece == m_piece->piece)
      items.append({tr("fold %1").arg(QString::fromStdString(fold.key)),
                    fold.sense == FoldSense::Mountain ? tr("mountain") : tr("valley"),
                    toPolygon({fold.from, fold.to}, m_toPixels)
                        .boundingRect()
                        .toRect()
                        .adjusted(-2, -2, 2, 2),
                    QAccessible::Separator, false});
  for (const auto& tag : m_tags->tags())
    items.append({tr("size %1").arg(asQt(tag.spec->key)),
                  tr("%1 %2").arg(said(nameOf(*tag.spec)), tag.text), tag.rect.toRect(),
                  QAccessible::Button, true});
  return items;
}

void BenchView::pressItem(int index) {
  const auto items = accessibleItems();
  const auto firstTag = items.size() - static_cast<qsizetype>(m_tags->tags().size());
  if (index >= firstTag) m_tags->edit(index - static_cast<int>(firstTag));
}

} // namespace hinge
