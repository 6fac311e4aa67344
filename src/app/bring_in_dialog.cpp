// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bring_in_dialog.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/edits/bring_in.h"
#include "core/units/length.h"
#include "render/flat_painter.h"
#include <QGridLayout>
#include <QPainter>
#include <QScrollArea>
#include <QSettings>
#include <QVBoxLayout>

namespace hinge {
namespace {

constexpr int kPicture = 230, kLabel = 130;

/// What a look is called: its layer, colour and dashes.
QString nameOf(const LineLook& look) {
  QStringList parts;
  if (!look.layer.empty()) parts << asQt(look.layer);
  if (!look.colour.empty()) parts << asQt(look.colour);
  if (!look.dash.empty()) parts << BringInDialog::tr("dashed");
  return parts.isEmpty() ? BringInDialog::tr("plain lines") : parts.join(QStringLiteral(" · "));
}

QString settingOf(const LineLook& look) {
  QString key = asQt(look.layer + "|" + look.colour + "|" + look.dash);
  return QStringLiteral("lines/") + QString::fromLatin1(key.toUtf8().toHex());
}

} // namespace

BringInDialog::BringInDialog(Document* document, Drawing drawing, const QString& name,
                             const std::optional<SheetTarget>& sheet, QWidget* parent)
    : QDialog(parent), m_document(document), m_drawing(std::move(drawing)), m_sheet(sheet) {
  setWindowTitle(tr("Bring paper in: %1").arg(name));
  setAttribute(Qt::WA_DeleteOnClose);
  resize(620, 420);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(20, 16, 20, 16);
  row->setSpacing(20);
  m_room = new QLabel(this); // the drawing is painted here
  m_room->setFixedWidth(kPicture);
  m_room->setAccessibleName(tr("What is brought in"));
  row->addWidget(m_room);
  auto* column = new QVBoxLayout;
  row->addLayout(column, 1);
  const auto labelled = [&](const QString& text, QComboBox* box) {
    auto* line = new QHBoxLayout;
    auto* label = new QLabel(text, this);
    label->setBuddy(box);
    label->setFixedWidth(kLabel);
    box->setAccessibleName(text);
    line->addWidget(label);
    line->addWidget(box, 1);
    column->addLayout(line);
  };
  m_becomes = new QComboBox(this);
  m_becomes->addItem(tr("a piece, joined to nothing yet"), Piece);
  m_becomes->addItem(tr("the base of the card"), Base);
  if (m_sheet) m_becomes->addItem(tr("an opening in the sheet on the table"), Opening);
  labelled(tr("It becomes"), m_becomes);
  m_number = new QComboBox(this);
  labelled(tr("Of what is drawn"), m_number);
  addLooks(column);
  m_found = new QLabel(this);
  m_found->setObjectName(QStringLiteral("soft"));
  m_found->setWordWrap(true);
  column->addWidget(m_found);
  auto* buttons = new QHBoxLayout;
  auto* leave = new QPushButton(tr("Leave it"), this);
  leave->setAutoDefault(false);
  connect(leave, &QPushButton::clicked, this, &QDialog::reject);
  m_take = new QPushButton(tr("Bring it in"), this);
  m_take->setObjectName(QStringLiteral("primary"));
  connect(m_take, &QPushButton::clicked, this, &BringInDialog::bringIn);
  buttons->addStretch();
  buttons->addWidget(leave);
  buttons->addWidget(m_take);
  column->addLayout(buttons);
  connect(m_number, &QComboBox::activated, this, qOverload<>(&QWidget::update));
  work();
}

void BringInDialog::addLooks(QLayout* column) {
  auto* scroll = new QScrollArea(this);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setWidgetResizable(true);
  scroll->setAccessibleName(tr("Kinds of line"));
  auto* holder = new QWidget(scroll);
  auto* grid = new QGridLayout(holder);
  grid->setContentsMargins(0, 8, 0, 8);
  int line = 0;
  for (const auto& [look, likely] : likelyUses(m_drawing)) {
    auto* use = new QComboBox(holder);
    for (const QString& text : {tr("left out"), tr("cut"), tr("mountain"), tr("valley")})
      use->addItem(text);
    const int remembered = QSettings().value(settingOf(look), static_cast<int>(likely)).toInt();
    use->setCurrentIndex(std::clamp(remembered, 0, 3));
    use->setAccessibleName(tr("Lines: %1").arg(nameOf(look)));
    connect(use, &QComboBox::activated, this, [this, own = look](int k) {
      QSettings().setValue(settingOf(own), k);
      work();
    });
    grid->addWidget(new QLabel(nameOf(look), holder), line, 0);
    grid->addWidget(use, line++, 1);
    m_uses[look] = use;
  }
  grid->setRowStretch(line, 1);
  scroll->setWidget(holder);
  column->addWidget(scroll);
}

QComboBox* BringInDialog::useOf(const LineLook& look) const {
  const auto found = m_uses.find(look);
  return found == m_uses.end() ? nullptr : found->second;
}

LineUses BringInDialog::uses() const {
  LineUses told;
  for (const auto& [look, box] : m_uses)
    told[look] = static_cast<LineUse>(box->currentIndex());
  return told;
}

void BringInDialog::work() {
  const LengthUnit unit = m_document->design().settings.unit;
  m_pieces = piecesOf(m_drawing, uses());
  const int kept = std::max(0, m_number->currentIndex());
  m_number->clear();
  QStringList told;
  if (m_pieces)
    for (std::size_t k = 0; k < m_pieces->size(); ++k) {
      const Vec2 size = boundsOf((*m_pieces)[k].outline).size();
      m_number->addItem(tr("%1 of %2: %3 × %4")
                            .arg(k + 1)
                            .arg(m_pieces->size())
                            .arg(QString::fromStdString(formatLength(size.x(), unit, false)),
                                 QString::fromStdString(formatLength(size.y(), unit))));
    }
  else
    told << said(m_pieces.error(), unit);
  m_number->setCurrentIndex(std::min(kept, m_number->count() - 1));
  for (const auto& [what, count] : m_drawing.unused)
    told << said(Text("cli.unused", Text(what), count));
  m_found->setText(told.join(QLatin1Char('\n')));
  m_take->setEnabled(m_pieces.ok());
  update();
}

void BringInDialog::paintEvent(QPaintEvent* event) {
  QDialog::paintEvent(event);
  if (!m_pieces || m_number->currentIndex() < 0) return;
  const PieceWork& piece = (*m_pieces)[static_cast<std::size_t>(m_number->currentIndex())];
  const Theme& theme = Look::theme();
  const QRectF area = QRectF(m_room->geometry()).adjusted(6, 6, -6, -6);
  const Box2 box = boundsOf(piece.outline);
  const double scale = std::min(area.width() / box.size().x(), area.height() / box.size().y());
  const QTransform to(scale, 0, 0, -scale, area.center().x() - scale * box.centre().x(),
                      area.center().y() + scale * box.centre().y());
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  QPainterPath paper = toPath(piece.outline, to);
  for (const Polygon& window : piece.windows)
    paper = paper.subtracted(toPath(window, to));
  p.setPen(linePen(LineKind::Cut, theme, 1.2));
  p.setBrush(theme.sheet);
  p.drawPath(paper);
  for (const WorkLine& line : piece.lines) {
    p.setPen(linePen(line.kind == WorkLine::Kind::Cut        ? LineKind::Cut
                     : line.kind == WorkLine::Kind::Mountain ? LineKind::Mountain
                                                             : LineKind::Valley,
                     theme, 1.3));
    p.drawPolyline(toPolygon({line.from, line.to}, to));
  }
}

void BringInDialog::bringIn() {
  const Design& design = m_document->committed();
  const LengthUnit unit = design.settings.unit;
  if (!m_pieces || m_number->currentIndex() < 0) return;
  const PieceWork& piece = (*m_pieces)[static_cast<std::size_t>(m_number->currentIndex())];
  std::optional<StructureId> added;
  Result<Design> next = Error{};
  switch (m_becomes->currentData().toInt()) {
  case Piece:
    if (auto made = withPieceIn(design, piece))
      next = made->design, added = made->id;
    else
      next = made.error();
    break;
  case Base: next = withBaseIn(design, piece); break;
  default: {
    const auto outlines = outlinesOf(m_drawing, uses());
    const Vec2 middle =
        0.5 * boundsOf(sheetOf(design, *m_sheet).work.outline).size(); // from there it is dragged
    next = outlines ? withOpeningsIn(design, *m_sheet, *outlines, middle)
                    : Result<Design>(outlines.error());
  }
  }
  const auto done =
      next ? m_document->apply(*next, tr("bring paper in")) : Result<void>(next.error());
  if (!done) return void(emit refused(said(done.error(), unit)));
  if (added) m_document->select(*added);
  if (!m_found->text().isEmpty()) emit notice(m_found->text());
  accept();
}

} // namespace hinge
