// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/swatch_row.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/edits/dressing.h"
#include "core/io/dress_words.h"
#include "core/io/maker_drawer.h"
#include "core/paper/topper_shape.h"
#include "render/flat_painter.h"
#include "render/paper_brush.h"
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

namespace hinge {
namespace {

constexpr int kWide_px = 92, kTall_px = 70, kGap_px = 12, kTop_px = 30, kLeft_px = 18,
              kBreak_px = 34, kLetters = 26;
constexpr double kPixelsPerMm = 96 / 25.4; ///< patterns are seen as large as they are

} // namespace

SwatchRow::SwatchRow(Document* document, QWidget* parent) : QWidget(parent), m_document(document) {
  setFocusPolicy(Qt::StrongFocus);
  setFixedHeight(132);
  setMouseTracking(true);
  setAccessibleName(tr("Paper drawer"));
  setAccessibleDescription(
      tr("Papers to lay on faces. Click one, strike its letter, or drag it "
         "onto a face. Left and Right choose, Return lays, F2 tells it in words, Ctrl+K keeps "
         "it for other cards."));
  m_words = new QLineEdit(this);
  m_words->setAccessibleName(tr("Paper in words"));
  m_words->hide();
  m_words->installEventFilter(this);
  connect(document, &Document::designChanged, this, qOverload<>(&QWidget::update));
  readMakersDrawer();
}

/// One that cannot be read is as if it were empty; whoever keeps a paper is told.
void SwatchRow::readMakersDrawer() {
  const auto papers = makersPapers();
  m_makers = papers ? *papers : std::vector<Paper>();
}

void SwatchRow::showEvent(QShowEvent* event) {
  readMakersDrawer();
  QWidget::showEvent(event);
}

void SwatchRow::mouseDoubleClickEvent(QMouseEvent* event) {
  if (swatchAt(event->position().toPoint()) >= 0) openWords();
}

/// The marked paper in words, to be changed, or called by another key to become a new one.
void SwatchRow::openWords() {
  if (m_shapes || m_current < 0) return;
  Paper paper = *paperAt(static_cast<std::size_t>(m_current));
  paper.picture.reset(); // it stays as it is
  m_words->setText(asQt(inWords(paper, m_document->committed().settings.unit)));
  m_words->setGeometry(kLeft_px, height() - 32, width() - 2 * kLeft_px, 28);
  m_words->show();
  m_words->setFocus();
  m_words->setCursorPosition(0);
}

bool SwatchRow::eventFilter(QObject* watched, QEvent* event) {
  if (watched == m_words && event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Return || key == Qt::Key_Enter) {
      m_words->hide();
      setFocus();
      emit described(m_words->text());
      return true;
    }
    if (key == Qt::Key_Escape) return m_words->hide(), setFocus(), true;
  }
  return QWidget::eventFilter(watched, event);
}

std::size_t SwatchRow::ownCount() const {
  return m_document->committed().papers.size();
}

std::vector<std::string> SwatchRow::papers() const {
  const Design& design = m_document->committed();
  std::vector<std::string> keys;
  for (const Paper& paper : design.papers)
    keys.push_back(paper.key);
  for (std::span<const Paper> more : {std::span<const Paper>(m_makers), knownPapers()})
    for (const Paper& paper : more)
      if (std::ranges::find(keys, paper.key) == keys.end()) keys.push_back(paper.key);
  return keys;
}

std::vector<std::string> SwatchRow::items() const {
  if (!m_shapes) return papers();
  std::vector<std::string> keys;
  for (const TopperShape& shape : topperShapes())
    keys.emplace_back(shape.key);
  keys.emplace_back(kLettering);
  return keys;
}

void SwatchRow::showShapes(bool on) {
  m_shapes = on;
  m_scroll = m_current = 0;
  update();
}

const Paper* SwatchRow::paperAt(std::size_t swatch) const {
  const auto keys = papers();
  return swatch < keys.size() ? find(keys[swatch]) : nullptr;
}

const Paper* SwatchRow::find(const std::string& key) const {
  const Paper* own = m_document->committed().findPaper(key);
  if (!own) own = findPaper(m_makers, key);
  return own ? own : findPaper(knownPapers(), key);
}

QRect SwatchRow::rectOf(std::size_t swatch) const {
  const int behind = !m_shapes && swatch >= ownCount() ? kBreak_px : 0;
  return {kLeft_px + static_cast<int>(swatch) * (kWide_px + kGap_px) + behind - m_scroll, kTop_px,
          kWide_px, kTall_px};
}

int SwatchRow::swatchAt(const QPoint& at) const {
  for (std::size_t k = 0; k < count(); ++k)
    if (rectOf(k).adjusted(0, 0, 0, 20).contains(at)) return static_cast<int>(k);
  return -1;
}

std::string SwatchRow::paperOf(int key) const {
  // X and letters behind those there are papers for are not papers.
  const int letter = key - static_cast<int>(Qt::Key_A);
  const auto keys = papers();
  if (letter < 0 || letter >= kLetters || key == Qt::Key_X) return {};
  const auto at = static_cast<std::size_t>(key > Qt::Key_X ? letter - 1 : letter);
  return at < keys.size() ? keys[at] : std::string();
}

void SwatchRow::scrollBy(int px) {
  const int wide = rectOf(count() - 1).right() + m_scroll + kLeft_px;
  m_scroll = std::clamp(m_scroll + px, 0, std::max(0, wide - width()));
  update();
}

void SwatchRow::reveal(std::size_t swatch) {
  const QRect rect = rectOf(swatch);
  if (rect.left() < kLeft_px) scrollBy(rect.left() - kLeft_px);
  if (rect.right() > width() - kLeft_px) scrollBy(rect.right() - width() + kLeft_px);
  update();
}

void SwatchRow::wheelEvent(QWheelEvent* event) {
  const QPoint by = event->angleDelta();
  scrollBy(-(by.x() != 0 ? by.x() : by.y()));
}

void SwatchRow::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  m_pressed = swatchAt(event->position().toPoint());
  m_pressedAt = event->position().toPoint();
  if (m_pressed >= 0) m_current = m_pressed;
  update();
}

void SwatchRow::mouseMoveEvent(QMouseEvent* event) {
  if (m_pressed < 0) {
    if (swatchAt(event->position().toPoint()) >= 0)
      setCursor(Qt::OpenHandCursor);
    else
      unsetCursor();
    return;
  }
  constexpr int kDrag_px = 6;
  if (!m_carrying && (event->position().toPoint() - m_pressedAt).manhattanLength() < kDrag_px)
    return;
  m_carrying = true;
  setCursor(Qt::ClosedHandCursor);
  emit carried(asQt(items()[static_cast<std::size_t>(m_pressed)]),
               event->globalPosition().toPoint());
}

void SwatchRow::mouseReleaseEvent(QMouseEvent* event) {
  const int pressed = std::exchange(m_pressed, -1);
  unsetCursor();
  if (std::exchange(m_carrying, false))
    return void(emit dropped(event->globalPosition().toPoint()));
  if (pressed >= 0 && pressed == swatchAt(event->position().toPoint()))
    emit chosen(asQt(items()[static_cast<std::size_t>(pressed)]));
}

bool SwatchRow::event(QEvent* event) {
  if (event->type() == QEvent::ShortcutOverride) {
    const auto* key = static_cast<QKeyEvent*>(event);
    if (!(key->modifiers() & (Qt::ControlModifier | Qt::AltModifier)) &&
        !paperOf(key->key()).empty()) {
      event->accept();
      return true;
    }
  }
  return QWidget::event(event);
}

void SwatchRow::keyPressEvent(QKeyEvent* event) {
  const int last = static_cast<int>(count()) - 1;
  switch (event->key()) {
  case Qt::Key_Left:
  case Qt::Key_Right:
    m_current = std::clamp(m_current + (event->key() == Qt::Key_Left ? -1 : 1), 0, last);
    return reveal(static_cast<std::size_t>(m_current));
  case Qt::Key_Return:
  case Qt::Key_Enter:
  case Qt::Key_Space: return void(emit chosen(asQt(items()[static_cast<std::size_t>(m_current)])));
  case Qt::Key_Escape: return void(emit putBack());
  case Qt::Key_F2: return openWords();
  default: break;
  }
  if (event->key() == Qt::Key_K && event->modifiers() & Qt::ControlModifier && !m_shapes) {
    emit keepWanted(asQt(items()[static_cast<std::size_t>(m_current)]));
    return readMakersDrawer();
  }
  const std::string paper = paperOf(event->key());
  if (paper.empty()) return QWidget::keyPressEvent(event);
  emit chosen(asQt(paper));
}

void SwatchRow::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
  const Theme& theme = Look::theme();
  p.fillRect(rect(), theme.raised);
  p.setFont(Look::font(12, QFont::Bold));
  p.setPen(theme.inkSoft);
  const QRect head(kLeft_px - m_scroll, 6, 400, 20);
  p.drawText(head, Qt::AlignLeft | Qt::AlignVCenter,
             m_shapes ? tr("Shapes to cut and put on") : tr("In the drawer of this card"));
  if (!m_shapes && ownCount() < count())
    p.drawText(QRect(rectOf(ownCount()).left(), 6, 400, 20), Qt::AlignLeft | Qt::AlignVCenter,
               tr("To be had"));
  for (std::size_t k = 0; k < count(); ++k) {
    const QRect box = rectOf(k);
    if (box.right() < 0 || box.left() > width()) continue;
    if (m_shapes)
      paintShape(p, k);
    else
      paintPaper(p, k);
    const QString name = m_shapes ? said(Text("topper." + items()[k])) : said(nameOf(*paperAt(k)));
    p.setPen(theme.inkSoft);
    p.setFont(Look::font(11));
    p.drawText(QRect(box.left() - 4, box.bottom() + 3, box.width() + 8, 18), Qt::AlignCenter,
               QFontMetrics(p.font()).elidedText(name, Qt::ElideRight, box.width() + 8));
  }
}

/// At the middle of its detail, in the ink of what is cut.
void SwatchRow::paintShape(QPainter& p, std::size_t k) const {
  const Theme& theme = Look::theme();
  const QRect box = rectOf(k);
  const bool here = static_cast<int>(k) == m_current && hasFocus();
  if (k >= topperShapes().size()) {
    p.setPen(here ? theme.accent : theme.cut);
    p.setFont(Look::font(40, QFont::Black));
    p.drawText(box, Qt::AlignCenter, tr("Aa"));
    return;
  }
  const TopperShape& shape = topperShapes()[k];
  const double scale =
      std::min(box.width() / shape.usualWidth_mm, box.height() / shape.usualHeight_mm) * 0.88;
  const QTransform place(scale, 0, 0, -scale, box.center().x(), box.center().y());
  p.setPen(QPen(here ? theme.accent : theme.cut, here ? 2.5 : 1.2));
  p.setBrush(theme.sheet);
  p.drawPath(toPath(
      topperOutline(shape, shape.usualWidth_mm, shape.usualHeight_mm, shape.usualDetail), place));
}

/// As it is; a corner is turned up and shows the back.
void SwatchRow::paintPaper(QPainter& p, std::size_t k) const {
  const Theme& theme = Look::theme();
  const QRect box = rectOf(k);
  const Paper& paper = *paperAt(k);
  QBrush brush = paperBrush(paper, false, kPixelsPerMm * devicePixelRatioF());
  if (brush.style() == Qt::TexturePattern)
    brush.setTransform(brush.transform() *
                       QTransform(kPixelsPerMm, 0, 0, -kPixelsPerMm, box.left(), box.bottom()));
  constexpr int kTurned_px = 16;
  const QPolygonF sheet{QPointF(box.left(), box.top()),
                        QPointF(box.right() - kTurned_px, box.top()),
                        QPointF(box.right(), box.top() + kTurned_px),
                        QPointF(box.right(), box.bottom()), QPointF(box.left(), box.bottom())};
  const bool current = static_cast<int>(k) == m_current && hasFocus();
  p.setPen(QPen(current ? theme.accent : theme.line, current ? 2.5 : 1));
  p.setBrush(brush);
  p.drawPolygon(sheet);
  p.setBrush(meanColour(paper, true));
  p.drawPolygon(QPolygonF{QPointF(box.right() - kTurned_px, box.top()),
                          QPointF(box.right() - kTurned_px, box.top() + kTurned_px),
                          QPointF(box.right(), box.top() + kTurned_px)});
  const std::size_t letter = k < 23 ? k : k + 1;
  if (letter >= kLetters) return;
  const QRectF badge(box.left() + 5, box.top() + 5, 18, 18);
  p.setPen(Qt::NoPen);
  p.setBrush(theme.raised);
  p.drawEllipse(badge);
  p.setPen(theme.ink);
  p.setFont(Look::font(11, QFont::Bold));
  p.drawText(badge, Qt::AlignCenter, QChar(static_cast<char16_t>(u'A' + letter)));
}

QList<AccessibleItem> SwatchRow::accessibleItems() const {
  QList<AccessibleItem> items;
  const auto keys = this->items();
  for (std::size_t k = 0; k < keys.size(); ++k)
    items.append({m_shapes ? said(Text("topper." + keys[k])) : said(nameOf(*paperAt(k))),
                  asQt(keys[k]), rectOf(k), QAccessible::Button, true});
  return items;
}

void SwatchRow::pressItem(int index) {
  const auto keys = items();
  if (index >= 0 && index < static_cast<int>(keys.size()))
    emit chosen(asQt(keys[static_cast<std::size_t>(index)]));
}

} // namespace hinge
