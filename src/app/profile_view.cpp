// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/profile_view.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/pieces/sheet_words.h"
#include "render/flat_painter.h"
#include "render/stage_painter.h"
#include <QMouseEvent>
#include <QPainter>
#include <QRegularExpression>
#include <cmath>

namespace hinge {
namespace {
constexpr int kHeight = 128, kReach = 10;
} // namespace

ProfileView::ProfileView(Document* document, QWidget* parent)
    : QWidget(parent), m_document(document),
      m_editor(new PieceEditor(document, std::nullopt, this)) {
  setFixedHeight(kHeight);
  setMinimumWidth(190);
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("Folded profile"));
  setAccessibleDescription(tr("The piece from its side as it is folded. Choose a ridge with Left "
                              "and Right and type how high it is, and at what angle."));
  m_typed = new QLineEdit(this);
  m_typed->setObjectName(QStringLiteral("typed-ridge"));
  m_typed->setAccessibleName(tr("Height and angle of the ridge"));
  m_typed->setFixedWidth(116);
  m_typed->hide();
  m_typed->installEventFilter(this);
  connect(m_editor, &PieceEditor::refused, this, &ProfileView::refused);
  connect(document, &Document::selectionChanged, this, [this] {
    m_chosen = -1;
    m_typed->hide();
    work();
  });
}

void ProfileView::setPose(std::shared_ptr<const Assembly> assembly, const Pose& pose) {
  m_assembly = std::move(assembly), m_pose = pose;
  work();
}

void ProfileView::work() {
  m_profile.reset();
  const PieceWork* piece = m_editor->shown();
  if (piece && m_assembly && m_editor->id())
    m_profile = profileOf(*m_assembly, m_pose, benchPose(*m_assembly, m_pose.opening_rad),
                          *m_editor->id(), *piece);
  update();
}

QTransform ProfileView::toPixels() const {
  Box2 box;
  for (const Vec2& p : m_profile->corners)
    box.add(p);
  for (const Polygon& page : m_profile->pages)
    box.add(boundsOf(page));
  const QRectF area = QRectF(rect()).adjusted(14, 12, -14, -12);
  const Vec2 size = box.size().cwiseMax(1.0), centre = box.centre();
  const double scale = std::min(area.width() / size.x(), area.height() / size.y());
  return QTransform(scale, 0, 0, -scale, area.center().x() - scale * centre.x(),
                    area.center().y() + scale * centre.y());
}

QPointF ProfileView::ridgePoint(std::size_t score) const {
  const Vec2& at = m_profile->corners[score + 1];
  return toPixels().map(QPointF(at.x(), at.y()));
}

QString ProfileView::told(std::size_t score) const {
  const LengthUnit unit = m_document->design().settings.unit;
  return tr("%1 high at %2")
      .arg(QString::fromStdString(formatLength(m_profile->height_mm(score), unit, false)),
           QString::fromStdString(formatAngle(m_profile->angle_deg(score))));
}

void ProfileView::paintEvent(QPaintEvent*) {
  const Theme& theme = Look::theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(Qt::NoPen);
  p.setBrush(theme.stageBottom);
  p.drawRoundedRect(rect(), 6, 6);
  p.setFont(Look::font(11));
  if (!m_profile) {
    p.setPen(theme.stageSoft);
    p.drawText(rect().adjusted(12, 0, -12, 0), Qt::AlignCenter | Qt::TextWordWrap,
               tr("Scored and joined, the sheet is seen here from its side."));
    return;
  }
  const QTransform to = toPixels();
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(theme.stageSoft, 1));
  for (const Polygon& page : m_profile->pages)
    p.drawPolygon(toPolygon(page, to));
  p.setPen(QPen(theme.paperLit, 2.2, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
  p.drawPolyline(toPolygon(m_profile->corners, to));
  for (std::size_t k = 0; k < m_profile->lines.size(); ++k) {
    const bool chosen = static_cast<int>(k) == m_chosen;
    p.setPen(Qt::NoPen);
    p.setBrush(chosen ? theme.accent : theme.paperBack);
    p.drawEllipse(ridgePoint(k), chosen ? 4.5 : 2.8, chosen ? 4.5 : 2.8);
  }
  p.setPen(theme.stageInk);
  p.drawText(rect().adjusted(10, 6, -8, 0), Qt::AlignLeft | Qt::AlignTop,
             m_chosen >= 0 && m_chosen < static_cast<int>(m_profile->lines.size())
                 ? told(static_cast<std::size_t>(m_chosen))
                 : tr("from the side"));
}

void ProfileView::mousePressEvent(QMouseEvent* event) {
  setFocus();
  m_chosen = -1;
  double least = kReach;
  for (std::size_t k = 0; m_profile && k < m_profile->lines.size(); ++k)
    if (const double d = QLineF(ridgePoint(k), event->position()).length(); d < least)
      least = d, m_chosen = static_cast<int>(k);
  if (m_chosen >= 0) open(m_chosen);
  update();
}

void ProfileView::open(int score) {
  m_chosen = score;
  const auto k = static_cast<std::size_t>(score);
  const LengthUnit unit = m_document->design().settings.unit;
  const QPointF at = ridgePoint(k);
  m_typed->setText(
      QString::fromStdString(formatLength(m_profile->height_mm(k), unit, false)) +
      QStringLiteral(" at ") +
      QString::fromStdString(exactNumber(std::round(m_profile->angle_deg(k) * 10) / 10)));
  m_typed->move(std::clamp(static_cast<int>(at.x()) - 40, 2, width() - m_typed->width() - 2),
                std::clamp(static_cast<int>(at.y()) + 8, 2, height() - m_typed->height() - 2));
  m_typed->show();
  m_typed->setFocus();
  m_typed->selectAll();
  update();
}

void ProfileView::take() {
  const LengthUnit unit = m_document->design().settings.unit;
  const PieceWork* piece = m_editor->committed();
  if (!piece || !m_profile || m_chosen < 0) return;
  const auto wish = ridgeWish(m_typed->text().toStdString(), unit);
  if (!wish) return void(emit refused(said(wish.error(), unit)));
  m_typed->hide();
  setFocus();
  m_editor->change(withRidge(*piece, *m_profile, static_cast<std::size_t>(m_chosen), *wish),
                   tr("a ridge where it is wanted"));
}

bool ProfileView::eventFilter(QObject* object, QEvent* event) {
  if (object != m_typed || event->type() != QEvent::KeyPress) return false;
  const int key = static_cast<QKeyEvent*>(event)->key();
  if (key == Qt::Key_Return || key == Qt::Key_Enter) return take(), true;
  if (key != Qt::Key_Escape) return false;
  m_typed->hide();
  setFocus();
  return true;
}

bool ProfileView::event(QEvent* event) {
  if (event->type() == QEvent::ShortcutOverride && m_chosen >= 0 &&
      static_cast<QKeyEvent*>(event)->text().left(1).contains(
          QRegularExpression(QStringLiteral("\\d")))) {
    event->accept();
    return true;
  }
  return QWidget::event(event);
}

void ProfileView::keyPressEvent(QKeyEvent* event) {
  const int count = m_profile ? static_cast<int>(m_profile->lines.size()) : 0;
  if (count == 0) return QWidget::keyPressEvent(event);
  switch (event->key()) {
  case Qt::Key_Left: m_chosen = m_chosen < 0 ? count - 1 : std::max(0, m_chosen - 1); break;
  case Qt::Key_Right: m_chosen = std::min(count - 1, m_chosen + 1); break;
  case Qt::Key_Return:
  case Qt::Key_Enter:
    if (m_chosen >= 0) open(m_chosen);
    break;
  default:
    if (m_chosen < 0 || event->text().isEmpty() || !event->text().at(0).isDigit())
      return QWidget::keyPressEvent(event);
    open(m_chosen);
    m_typed->setText(event->text());
  }
  update();
}

QList<AccessibleItem> ProfileView::accessibleItems() const {
  QList<AccessibleItem> items;
  for (std::size_t k = 0; m_profile && k < m_profile->lines.size(); ++k) {
    const QPointF at = ridgePoint(k);
    items.append({tr("ridge %1").arg(k + 1), told(k),
                  QRectF(at.x() - kReach, at.y() - kReach, 2 * kReach, 2 * kReach).toRect(),
                  QAccessible::Button, true});
  }
  return items;
}

void ProfileView::pressItem(int index) {
  if (m_profile && index >= 0 && index < static_cast<int>(m_profile->lines.size())) open(index);
}

} // namespace hinge
