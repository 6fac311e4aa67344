// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/numbers_panel.h"
#include "app/saying.h"
#include "core/structures/names.h"
#include "core/units/mark.h"
#include "core/units/tolerances.h"
#include "words/fitted_tables.h"
#include <QHBoxLayout>
#include <QHeaderView>
#include <QVBoxLayout>
#include <algorithm>

namespace hinge {
namespace {

QString capital(QString text) {
  if (!text.isEmpty()) text[0] = text[0].toUpper();
  return text;
}

QTableWidget* quietTable(int columns, QWidget* parent) {
  auto* table = new QTableWidget(0, columns, parent);
  table->horizontalHeader()->setStretchLastSection(true);
  table->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft);
  table->verticalHeader()->hide();
  table->setShowGrid(false);
  table->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table->setSelectionMode(QAbstractItemView::SingleSelection);
  return table;
}

bool means(const PieceTable& table, const CutPart& part) {
  return part.mat == 0 && (std::ranges::count(table.same, part.flat.piece) > 0 ||
                           std::ranges::count(table.mirrored, part.flat.piece) > 0);
}

} // namespace

NumbersPanel::NumbersPanel(Document* document, QWidget* parent)
    : QWidget(parent), m_document(document), m_pieces(quietTable(4, this)),
      m_numbers(quietTable(7, this)), m_ruler(new PieceRuler(document, this)),
      m_says(new QLabel(this)) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 10, 0, 0);
  m_pieces->setAccessibleName(tr("Piece list"));
  m_pieces->setWordWrap(true);
  m_pieces->setHorizontalHeaderLabels({QString(), tr("Piece"), tr("Size"), tr("Paper")});
  for (int c : {0, 1, 2})
    m_pieces->horizontalHeader()->setSectionResizeMode(c, QHeaderView::ResizeToContents);
  m_pieces->setSelectionBehavior(QAbstractItemView::SelectRows);
  column->addWidget(m_pieces, 3);
  connect(m_pieces, &QTableWidget::currentCellChanged, this, [this](int row) { chooseRow(row); });
  column->addWidget(m_ruler, 2);
  m_says->setObjectName(QStringLiteral("soft"));
  m_says->setWordWrap(true);
  column->addWidget(m_says);
  m_numbers->setAccessibleName(tr("Numbers to set"));
  m_numbers->setWordWrap(false);
  column->addWidget(m_numbers, 4);
  connect(m_numbers, &QTableWidget::currentCellChanged, this,
          [this](int row, int cell) { m_ruler->measure(row, cell); });
  makeBeside();
}

void NumbersPanel::makeBeside() {
  auto* row = new QHBoxLayout;
  auto* label = new QLabel(tr("Beside them those for a sheet this long"), this);
  m_otherSheet = new QLineEdit(this);
  m_otherSheet->setFixedWidth(110);
  m_otherSheet->setAccessibleName(tr("Flat length of another sheet"));
  label->setBuddy(m_otherSheet);
  row->addWidget(label), row->addWidget(m_otherSheet), row->addStretch();
  static_cast<QVBoxLayout*>(layout())->addLayout(row);
  connect(m_otherSheet, &QLineEdit::editingFinished, this, [this] {
    const LengthUnit unit = m_document->design().settings.unit;
    const QString text = m_otherSheet->text().trimmed();
    if (text.isEmpty()) {
      if (!m_beside.empty()) (void)putBeside(std::nullopt);
      return;
    }
    const auto length = parseLength_mm(text.toStdString(), unit);
    if (auto done = length ? putBeside(*length) : Result<void>(length.error()); !done)
      emit refused(said(done.error(), unit));
  });
}

void NumbersPanel::refill(const Bench& bench) {
  const auto snapshot = m_document->snapshot();
  m_bench = bench;
  m_beside.clear(), m_gave.clear();
  m_otherSheet->clear();
  m_tables =
      scoreTables(**snapshot->assembly(), m_document->design(), *snapshot->flatPieces(), m_bench);
  fillLayers();
}

void NumbersPanel::fillLayers() {
  const auto dressed = m_document->snapshot()->dressedIfReady();
  m_mats = dressed ? matList(m_document->design(), *dressed) : std::vector<MatLine>{};
  fill();
}

void NumbersPanel::fill() {
  const Design& design = m_document->design();
  const Assembly& assembly = **m_document->snapshot()->assembly();
  const LengthUnit unit = design.settings.unit;
  const QSignalBlocker quiet(m_pieces);
  m_pieces->setRowCount(static_cast<int>(m_tables.size() + m_mats.size()));
  const auto put = [&](std::size_t row, int column, const QString& text) {
    m_pieces->setItem(static_cast<int>(row), column, new QTableWidgetItem(text));
  };
  const auto size = [&](const Vec2& mm) {
    const double step = stepOf_mm(m_bench, unit);
    return asQt(sayMark(mm.x(), step, unit) + " × " + sayMark(mm.y(), step, unit));
  };
  const auto paper = [&](const std::string& key) {
    const Paper* known = design.findPaper(key);
    return known ? said(nameOf(*known)) : QString();
  };
  const auto counted = [](std::size_t count, const QString& name) {
    return count > 1 ? QStringLiteral("%1 × %2").arg(count).arg(name) : name;
  };
  for (std::size_t k = 0; k < m_tables.size(); ++k) {
    const PieceTable& table = m_tables[k];
    put(k, 0, asQt(table.letter));
    put(k, 1, counted(table.count(), capital(said(pieceName(design, assembly, table.piece)))));
    put(k, 2, size(table.size));
    put(k, 3, paper(table.paper));
  }
  for (std::size_t k = 0; k < m_mats.size(); ++k) {
    const MatLine& line = m_mats[k];
    const std::size_t row = m_tables.size() + k;
    put(row, 0, QString::number(k + 1));
    QString what = counted(static_cast<std::size_t>(line.count()), tr("layer"));
    if (line.handed)
      what = tr("%1, %2 left, %3 right").arg(what).arg(line.left()).arg(line.right());
    put(row, 1, what), put(row, 2, size(line.size_mm())), put(row, 3, paper(line.paper));
  }
  if (m_pieces->currentRow() < 0 && m_pieces->rowCount() > 0) m_pieces->setCurrentCell(0, 1);
  chooseRow(std::max(0, m_pieces->currentRow()));
}

std::vector<ReadTable> NumbersPanel::readTables() const {
  const auto assembled = m_document->snapshot()->assembly();
  return assembled ? hinge::readTables(m_tables, m_document->design(), **assembled, m_bench)
                   : std::vector<ReadTable>();
}

std::vector<std::size_t> NumbersPanel::chosenIn(const CutPlan& plan) const {
  const auto row = static_cast<std::size_t>(std::max(0, m_pieces->currentRow()));
  std::vector<std::size_t> parts;
  for (std::size_t k = 0; k < plan.parts.size(); ++k)
    if (row < m_tables.size() ? means(m_tables[row], plan.parts[k])
                              : plan.parts[k].mat == row - m_tables.size() + 1)
      parts.push_back(k);
  return parts;
}

void NumbersPanel::chooseRow(int row) {
  const auto place = static_cast<std::size_t>(std::max(0, row));
  emit chosen();
  m_numbers->setRowCount(0);
  m_says->clear();
  if (place >= m_tables.size()) return m_ruler->clear();
  const auto snapshot = m_document->snapshot();
  const PieceTable& table = m_tables[place];
  ReadTable read = readTable(table, m_document->design(), **snapshot->assembly(), m_bench);
  for (const ReadTable& beside : m_beside)
    if (beside.title == read.title) read = sideBySide(read, beside);
  QStringList says;
  for (const std::string& line : read.lines)
    says << capital(asQt(line));
  if (!m_gave.empty()) says << asQt(m_gave);
  m_says->setText(says.join(QStringLiteral(". ")));
  QStringList head;
  for (const std::string& name : read.head)
    head << capital(asQt(name));
  m_numbers->setHorizontalHeaderLabels(head);
  m_numbers->setRowCount(static_cast<int>(read.rows.size()));
  for (std::size_t r = 0; r < read.rows.size(); ++r)
    for (std::size_t c = 0; c < read.rows[r].size(); ++c)
      m_numbers->setItem(static_cast<int>(r), static_cast<int>(c),
                         new QTableWidgetItem(asQt(read.rows[r][c])));
  m_numbers->resizeColumnsToContents();
  m_ruler->show((*snapshot->flatPieces())[static_cast<std::size_t>(table.piece.value)], table,
                m_bench);
  if (const auto owner = ownerOf(place); owner && owner != m_document->selection() && isVisible())
    m_document->select(owner);
}

std::optional<StructureId> NumbersPanel::ownerOf(std::size_t row) const {
  const auto assembled = m_document->snapshot()->assembly();
  if (!assembled || row >= m_tables.size()) return std::nullopt;
  const PieceIndex piece = m_tables[row].piece;
  return static_cast<std::size_t>(piece.value) < (*assembled)->pieces.size()
             ? (*assembled)->pieces[piece].owner
             : std::nullopt;
}

void NumbersPanel::choose(const CutPart& part) {
  for (std::size_t k = 0; k < m_tables.size(); ++k)
    if (means(m_tables[k], part)) m_pieces->setCurrentCell(static_cast<int>(k), 1);
  if (part.mat > 0) m_pieces->setCurrentCell(static_cast<int>(m_tables.size() + part.mat) - 1, 1);
}

void NumbersPanel::followSelection() {
  const auto selection = m_document->selection();
  const auto row = static_cast<std::size_t>(std::max(0, m_pieces->currentRow()));
  if (!selection || (row < m_tables.size() && ownerOf(row) == selection)) return;
  for (std::size_t k = 0; k < m_tables.size(); ++k)
    if (ownerOf(k) == selection) return m_pieces->setCurrentCell(static_cast<int>(k), 1);
}

Result<void> NumbersPanel::putBeside(std::optional<double> flat_mm) {
  m_beside.clear(), m_gave.clear();
  if (flat_mm) {
    const auto fit = tablesFitted(m_document->committed(), *flat_mm, {}, m_bench);
    if (!fit) {
      chooseRow(m_pieces->currentRow());
      return fit.error();
    }
    m_beside = fit->tables;
    const LengthUnit unit = m_document->committed().settings.unit;
    QStringList gave;
    for (const FittedLength& length : fit->lengths)
      if (std::abs(length.to_mm - length.from_mm) >= kTouch_mm)
        gave << tr("%1: %2 → %3")
                    .arg(said(length.label, unit), asQt(formatLength(length.from_mm, unit, false)),
                         asQt(formatLength(length.to_mm, unit)));
    m_gave = (gave.isEmpty() ? tr("Nothing is free")
                             : tr("Free: %1").arg(gave.join(QStringLiteral("; "))))
                 .toStdString();
  }
  chooseRow(m_pieces->currentRow());
  return {};
}

} // namespace hinge
