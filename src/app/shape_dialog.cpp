// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shape_dialog.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/units/length.h"
#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPushButton>

namespace hinge {
namespace {

using Kind = WorkLine::Kind;
constexpr Kind kKinds[] = {Kind::Mountain, Kind::Valley, Kind::Cut};

} // namespace

ShapeDialog::ShapeDialog(Document* document, StructureId piece, QWidget* parent)
    : QDialog(parent), m_document(document), m_piece(piece),
      m_editor(new PieceEditor(document, piece, this)) {
  setWindowTitle(tr("Shape of the piece"));
  setAttribute(Qt::WA_DeleteOnClose);
  setModal(false);
  resize(560, 560);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 16, 20, 16);
  column->setSpacing(10);
  auto* hint = new QLabel(
      tr("Corners go round the piece in order, each from its left end and lower edge; a notch is "
         "three corners more. Scores run from edge to edge, cuts may end inside."),
      this);
  hint->setObjectName(QStringLiteral("soft"));
  hint->setWordWrap(true);
  column->addWidget(hint);
  addOutline(column);
  addLines(column);
  auto* buttons = new QHBoxLayout;
  auto* done = new QPushButton(tr("Done"), this);
  done->setObjectName(QStringLiteral("primary"));
  done->setAutoDefault(false);
  connect(done, &QPushButton::clicked, this, &QDialog::accept);
  buttons->addStretch();
  buttons->addWidget(done);
  column->addLayout(buttons);
  connect(m_corners, &QTableWidget::cellChanged, this, [this](int row) {
    if (!m_filling) takeCorner(row);
  });
  connect(m_lines, &QTableWidget::cellChanged, this, [this](int row) {
    if (!m_filling) takeLine(row);
  });
  // What was refused shows what it was before.
  connect(m_editor, &PieceEditor::refused, this, [this](const QString& why) {
    emit refused(why);
    QMetaObject::invokeMethod(this, &ShapeDialog::refill, Qt::QueuedConnection);
  });
  // Anew after the event that caused it, which may come from one of the cells.
  connect(document, &Document::designChanged, this, [this] {
    if (!work())
      close();
    else
      QMetaObject::invokeMethod(this, &ShapeDialog::refill, Qt::QueuedConnection);
  });
  refill();
}

void ShapeDialog::addOutline(QVBoxLayout* column) {
  column->addWidget(new QLabel(tr("Outline"), this));
  m_corners = makeTable({tr("from the left"), tr("up")}, tr("Corners"));
  column->addWidget(m_corners, 3);
  addButtons(
      column, m_corners, tr("Another corner"),
      [this](int row) {
        PieceWork next = *work();
        const auto at = static_cast<std::size_t>(row), after = (at + 1) % next.outline.size();
        // Half-way to the next corner: it changes nothing until it is moved.
        next.outline.insert(next.outline.begin() + row + 1,
                            0.5 * (next.outline[at] + next.outline[after]));
        m_editor->change(next, tr("add a corner"));
      },
      [this](int row) {
        PieceWork next = *work();
        next.outline.erase(next.outline.begin() + row);
        m_editor->change(next, tr("remove a corner"));
      });
}

void ShapeDialog::addLines(QVBoxLayout* column) {
  column->addWidget(new QLabel(tr("Lines"), this));
  m_lines = makeTable({tr("kind"), tr("from"), tr("up"), tr("to"), tr("up")}, tr("Lines"));
  m_lines->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Fixed);
  m_lines->setColumnWidth(0, 130);
  column->addWidget(m_lines, 3);
  addButtons(
      column, m_lines, tr("Another cut"),
      [this](int) {
        PieceWork next = *work();
        const Box2 box = boundsOf(next.outline);
        const Vec2 middle = box.centre();
        next.lines.push_back({Kind::Cut, middle, middle + Vec2(0, 0.25 * box.size().y())});
        m_editor->change(next, tr("add a cut"));
      },
      [this](int row) {
        PieceWork next = *work();
        next.lines.erase(next.lines.begin() + row);
        m_editor->change(next, tr("remove a line"));
      });
}

QTableWidget* ShapeDialog::makeTable(const QStringList& headings, const QString& name) {
  auto* table = new QTableWidget(0, static_cast<int>(headings.size()), this);
  table->setAccessibleName(name);
  table->setHorizontalHeaderLabels(headings);
  table->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  table->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft);
  table->setShowGrid(false);
  table->setSelectionMode(QAbstractItemView::SingleSelection);
  return table;
}

void ShapeDialog::addButtons(QLayout* column, QTableWidget* table, const QString& more,
                             const std::function<void(int)>& insert,
                             const std::function<void(int)>& remove) {
  auto* row = new QHBoxLayout;
  auto* add = new QPushButton(more, this);
  connect(add, &QPushButton::clicked, this, [this, table, insert] {
    if (work()) insert(std::max(0, table->currentRow()));
  });
  auto* take = new QPushButton(tr("Remove it"), this);
  take->setAccessibleName(tr("Remove from %1").arg(table->accessibleName()));
  connect(take, &QPushButton::clicked, this, [this, table, remove] {
    if (work() && table->currentRow() >= 0) remove(table->currentRow());
  });
  for (QPushButton* button : {add, take})
    button->setAutoDefault(false), row->addWidget(button);
  row->addStretch();
  static_cast<QVBoxLayout*>(column)->addLayout(row);
}

std::optional<double> ShapeDialog::lengthIn(const QTableWidget& table, int row, int column) {
  const auto typed = parseLength_mm(table.item(row, column)->text().trimmed().toStdString(),
                                    m_document->committed().settings.unit);
  if (typed) return *typed;
  emit refused(said(typed.error(), m_document->design().settings.unit));
  QMetaObject::invokeMethod(this, &ShapeDialog::refill, Qt::QueuedConnection);
  return std::nullopt;
}

void ShapeDialog::takeCorner(int row) {
  const auto x = lengthIn(*m_corners, row, 0), y = x ? lengthIn(*m_corners, row, 1) : std::nullopt;
  if (!y || !work()) return;
  PieceWork next = *work();
  const Vec2 from = next.outline[static_cast<std::size_t>(row)], to(*x, *y);
  next.outline[static_cast<std::size_t>(row)] = to;
  // A score that ended in this corner still does.
  for (WorkLine& line : next.lines)
    for (Vec2* end : {&line.from, &line.to})
      if ((*end - from).norm() < 1e-6) *end = to;
  m_editor->change(next, tr("move a corner"));
}

void ShapeDialog::takeLine(int row) {
  std::array<double, 4> numbers{};
  for (int k = 0; k < 4; ++k) {
    const auto typed = lengthIn(*m_lines, row, k + 1);
    if (!typed) return;
    numbers[static_cast<std::size_t>(k)] = *typed;
  }
  if (!work()) return;
  PieceWork next = *work();
  WorkLine& line = next.lines[static_cast<std::size_t>(row)];
  line.from = {numbers[0], numbers[1]}, line.to = {numbers[2], numbers[3]};
  m_editor->change(next, tr("move a line"));
}

void ShapeDialog::refill() {
  const PieceWork* now = work();
  if (!now) return;
  m_filling = true;
  const LengthUnit unit = m_document->committed().settings.unit;
  const auto put = [&](QTableWidget* table, int row, int column, double mm) {
    table->setItem(row, column,
                   new QTableWidgetItem(QString::fromStdString(formatLength(mm, unit, false))));
  };
  m_corners->setRowCount(static_cast<int>(now->outline.size()));
  for (std::size_t k = 0; k < now->outline.size(); ++k)
    put(m_corners, static_cast<int>(k), 0, now->outline[k].x()),
        put(m_corners, static_cast<int>(k), 1, now->outline[k].y());
  m_lines->setRowCount(static_cast<int>(now->lines.size()));
  for (std::size_t k = 0; k < now->lines.size(); ++k) {
    const WorkLine& line = now->lines[k];
    const int row = static_cast<int>(k);
    auto* kind = new QComboBox(m_lines);
    kind->addItems({tr("mountain"), tr("valley"), tr("cut")});
    kind->setCurrentIndex(static_cast<int>(std::ranges::find(kKinds, line.kind) - kKinds));
    kind->setAccessibleName(tr("Kind of line %1").arg(k + 1));
    connect(kind, &QComboBox::activated, this, [this, k](int chosen) {
      PieceWork next = *work();
      next.lines[k].kind = kKinds[chosen];
      m_editor->change(next, tr("change a line"));
    });
    m_lines->setCellWidget(row, 0, kind);
    int column = 1;
    for (double mm : {line.from.x(), line.from.y(), line.to.x(), line.to.y()})
      put(m_lines, row, column++, mm);
  }
  m_filling = false;
}

} // namespace hinge
