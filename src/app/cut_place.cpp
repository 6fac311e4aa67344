// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/cut_place.h"
#include "app/look.h"
#include "app/round_dialog.h"
#include "app/saying.h"
#include "core/checks/finding.h"
#include "core/io/fold_file.h"
#include "core/io/maker_bench.h"
#include "core/io/text_file.h"
#include "core/making/dress_moments.h"
#include "render/sheets_dxf.h"
#include "render/sheets_pdf.h"
#include "render/sheets_svg.h"
#include "words/tables.h"
#include <QClipboard>
#include <QFileDialog>
#include <QGuiApplication>
#include <QHeaderView>
#include <QScrollArea>
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
  table->setWordWrap(true);
  return table;
}

QLabel* softLabel(const QString& text, QWidget* parent) {
  auto* label = new QLabel(text, parent);
  label->setObjectName(QStringLiteral("soft"));
  label->setWordWrap(true);
  return label;
}

} // namespace

CutPlace::CutPlace(Document* document, QWidget* parent)
    : QWidget(parent), m_document(document), m_planner(new CutPlanner(this)) {
  setObjectName(QStringLiteral("page"));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(24, 20, 24, 20);
  row->setSpacing(24);
  row->addWidget(makeSheetSide(), 5);
  auto* column = new QVBoxLayout;
  column->setSpacing(10);
  m_tabs = new QTabWidget(this);
  m_tabs->setAccessibleName(tr("What to set, cut and join"));
  m_tabs->addTab(makeNumbers(), tr("Numbers"));
  m_tabs->addTab(makeCuts(), tr("Cuts and sheets"));
  m_tabs->addTab(makeTogether(), tr("Put together"));
  column->addWidget(m_tabs, 1);
  column->addWidget(softLabel(tr("Cut on a mat along a metal rule, away from your hand, and cover "
                                 "the blade afterwards. Follow the maker's own data sheet for glue "
                                 "and board."),
                              this));
  column->addLayout(makeButtons());
  row->addLayout(column, 6);
  connect(document, &Document::designChanged, this, [this] {
    if (!m_document->previewing()) refill();
  });
  connect(document, &Document::selectionChanged, this, &CutPlace::followSelection);
  connect(m_planner, &CutPlanner::changed, this, &CutPlace::showPlan);
  refill();
}

QWidget* CutPlace::makeSheetSide() {
  auto* side = new QWidget(this);
  auto* column = new QVBoxLayout(side);
  column->setContentsMargins(0, 0, 0, 0);
  auto* row = new QHBoxLayout;
  const auto way = [&](const QString& text, bool on) {
    auto* button = new QPushButton(text, side);
    button->setCheckable(true), button->setChecked(on), button->setAutoExclusive(true);
    row->addWidget(button);
    connect(button, &QPushButton::clicked, this, &CutPlace::layOutAgain);
    return button;
  };
  m_byHand = way(tr("By hand"), true);
  m_byHand->setToolTip(
      tr("Cuts from edge to edge with a trimmer, the stop set as rarely as can be"));
  m_byMachine = way(tr("By knife or machine"), false);
  m_byMachine->setObjectName(QStringLiteral("by-machine"));
  m_byMachine->setToolTip(tr("Outlines nested close; drag a part to give it another place"));
  row->addSpacing(12);
  auto* label = new QLabel(tr("Cards"), side);
  m_cards = new QSpinBox(side);
  m_cards->setRange(1, 99);
  m_cards->setAccessibleName(tr("How many cards"));
  label->setBuddy(m_cards);
  connect(m_cards, &QSpinBox::valueChanged, this, &CutPlace::layOutAgain);
  row->addWidget(label), row->addWidget(m_cards);
  auto* again = new QPushButton(tr("Lay out again"), side);
  again->setToolTip(tr("Parts that were put somewhere by hand stay there"));
  connect(again, &QPushButton::clicked, this, &CutPlace::layOutAgain);
  row->addWidget(again);
  row->addStretch();
  column->addLayout(row);
  m_summary = softLabel({}, side);
  column->addWidget(m_summary);
  auto* scroll = new QScrollArea(side);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setAccessibleName(tr("Sheets"));
  m_sheets = new SheetsView(m_document, scroll);
  scroll->setWidget(m_sheets);
  column->addWidget(scroll, 1);
  connect(m_sheets, &SheetsView::chosen, this, &CutPlace::choosePart);
  connect(m_sheets, &SheetsView::refused, this, &CutPlace::refused);
  return side;
}

QWidget* CutPlace::makeNumbers() {
  auto* page = new QWidget(this);
  auto* column = new QVBoxLayout(page);
  column->setContentsMargins(0, 10, 0, 0);
  m_pieces = quietTable(4, page);
  m_pieces->setAccessibleName(tr("Piece list"));
  m_pieces->setHorizontalHeaderLabels({QString(), tr("Piece"), tr("Size"), tr("Paper")});
  for (int c : {0, 1, 2})
    m_pieces->horizontalHeader()->setSectionResizeMode(c, QHeaderView::ResizeToContents);
  m_pieces->setSelectionBehavior(QAbstractItemView::SelectRows);
  column->addWidget(m_pieces, 3);
  connect(m_pieces, &QTableWidget::currentCellChanged, this, [this](int row) { choosePiece(row); });
  m_ruler = new PieceRuler(m_document, page);
  column->addWidget(m_ruler, 2);
  m_says = softLabel({}, page);
  column->addWidget(m_says);
  m_numbers = quietTable(7, page);
  m_numbers->setAccessibleName(tr("Numbers to set"));
  m_numbers->setWordWrap(false);
  column->addWidget(m_numbers, 4);
  connect(m_numbers, &QTableWidget::currentCellChanged, this,
          [this](int row, int cell) { m_ruler->measure(row, cell); });
  return page;
}

QWidget* CutPlace::makeCuts() {
  auto* page = new QWidget(this);
  auto* column = new QVBoxLayout(page);
  column->setContentsMargins(0, 10, 0, 0);
  m_cuts = new QListWidget(page);
  m_cuts->setAccessibleName(tr("Cuts in their order, sheets that are needed"));
  m_cuts->setWordWrap(true);
  m_cuts->setSelectionMode(QAbstractItemView::NoSelection);
  column->addWidget(m_cuts, 1);
  m_slice = new QCheckBox(tr("Printed sheets: equal plain strips as one wide sheet"), page);
  connect(m_slice, &QCheckBox::clicked, this, [this](bool on) {
    Design next = m_document->committed();
    next.settings.slice = on;
    if (auto applied = m_document->apply(next, tr("slice equal strips")); !applied)
      emit refused(said(applied.error(), m_document->design().settings.unit));
  });
  column->addWidget(m_slice);
  return page;
}

QWidget* CutPlace::makeTogether() {
  auto* page = new QWidget(this);
  auto* column = new QVBoxLayout(page);
  column->setContentsMargins(0, 10, 0, 0);
  m_order = new QListWidget(page);
  m_order->setObjectName(QStringLiteral("order"));
  m_order->setAccessibleName(tr("Order of work"));
  m_order->setWordWrap(true);
  m_order->setSelectionMode(QAbstractItemView::NoSelection);
  m_order->setFocusPolicy(Qt::TabFocus);
  column->addWidget(m_order, 1);
  return page;
}

QLayout* CutPlace::makeButtons() {
  auto* buttons = new QHBoxLayout;
  auto* round = new QPushButton(tr("Round…"), this);
  round->setObjectName(QStringLiteral("round-sizes"));
  round->setToolTip(tr("Every size to what a hand can set, with everything that shuts flat kept"));
  connect(round, &QPushButton::clicked, this, [this] {
    auto* dialog = new RoundDialog(m_document, window());
    connect(dialog, &RoundDialog::notice, this, &CutPlace::notice);
    dialog->show();
  });
  buttons->addWidget(round);
  auto* copy = new QPushButton(tr("Copy numbers"), this);
  connect(copy, &QPushButton::clicked, this, &CutPlace::copyTables);
  buttons->addWidget(copy);
  buttons->addStretch();
  for (const auto& [format, label, primary] :
       {std::tuple{"pdf", tr("PDF 1:1"), true}, std::tuple{"svg", tr("SVG"), false},
        std::tuple{"dxf", tr("DXF"), false}, std::tuple{"csv", tr("Numbers (CSV)"), false},
        std::tuple{"fold", tr("FOLD"), false}}) {
    auto* button = new QPushButton(label, this);
    if (primary) button->setObjectName(QStringLiteral("primary"));
    connect(button, &QPushButton::clicked, this,
            [this, f = QString::fromLatin1(format)] { ask(f); });
    buttons->addWidget(button);
  }
  return buttons;
}

void CutPlace::showEvent(QShowEvent*) {
  if (m_stale) layOutAgain();
}

void CutPlace::refill() {
  m_stale = true;
  const auto snapshot = m_document->snapshot();
  if (!snapshot->assembly()) return;
  if (const auto bench = makersBench())
    m_bench = *bench;
  else
    emit refused(said(bench.error()));
  m_slice->setChecked(m_document->design().settings.slice);
  fillPieces();
  m_sheets->unpinAll();
  if (isVisible()) layOutAgain();
}

void CutPlace::fillPieces() {
  const auto snapshot = m_document->snapshot();
  const Design& design = m_document->design();
  const Assembly& assembly = **snapshot->assembly();
  const LengthUnit unit = design.settings.unit;
  m_tables = scoreTables(assembly, design, *snapshot->flatPieces(), m_bench);
  const auto dressed = snapshot->dressedIfReady();
  m_mats = dressed ? matList(design, *dressed) : std::vector<MatLine>{};
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
  choosePiece(std::max(0, m_pieces->currentRow()));
}

void CutPlace::layOutAgain() {
  m_stale = false;
  LayoutOptions options =
      usualFor(m_byMachine->isChecked() ? LayoutFor::Machine : LayoutFor::Trimmer, m_bench);
  options.unlimited = true;
  if (m_byMachine->isChecked() && m_planner->plan() && m_planner->plan()->how == LayoutFor::Machine)
    options.pinned = m_sheets->pinned();
  m_planner->request(m_document->snapshot(), options, m_cards->value());
}

void CutPlace::showPlan() {
  if (m_planner->busy()) {
    m_summary->setText(
        m_planner->all() > 0
            ? tr("Laying out: %1 of %2 parts").arg(m_planner->done()).arg(m_planner->all())
            : tr("Laying out …"));
    return;
  }
  const auto plan = m_planner->plan();
  m_sheets->show(plan);
  if (!plan) return m_summary->clear();
  const auto percent = [&](double share) { return QString::number(100 * share, 'f', 0); };
  QString text = tr("%1 parts on %2 sheets, %3 % waste, %4 % worth keeping")
                     .arg(plan->parts.size())
                     .arg(plan->sheets.size())
                     .arg(percent(plan->waste()),
                          percent(plan->sheets_mm2 > 0 ? plan->kept_mm2 / plan->sheets_mm2 : 0));
  if (plan->how == LayoutFor::Trimmer)
    text += tr("; %1 cuts, the stop is set %2 times").arg(plan->cuts.size()).arg(plan->settings());
  if (const auto lost = plan->tooLarge.size() + plan->noSheet.size(); lost > 0)
    text += tr("; ◆ %1 without a sheet: see Cuts and sheets").arg(lost);
  m_summary->setText(text);
  if (m_mats.empty() && m_document->snapshot()->dressedIfReady()) fillPieces();
  showCuts();
  choosePiece(m_pieces->currentRow());
}

void CutPlace::showCuts() {
  const auto plan = m_planner->plan();
  const Design& design = m_document->design();
  const LengthUnit unit = design.settings.unit;
  m_cuts->clear();
  const auto length = [&](double mm) { return asQt(formatLength(mm, unit)); };
  for (std::size_t part : plan->tooLarge)
    m_cuts->addItem(
        tr("! %1 is larger than every sheet of its paper: part it, or get a larger sheet")
            .arg(length(plan->parts[part].size().maxCoeff())));
  for (std::size_t part : plan->noSheet)
    m_cuts->addItem(
        tr("! No sheet is left for %1").arg(length(plan->parts[part].size().maxCoeff())));
  for (const SheetCount& need : sheetsOf(*plan, design)) {
    const Paper* paper = design.findPaper(need.paper);
    QString text = tr("%1 × %2, %3 × %4")
                       .arg(need.sheets)
                       .arg(paper ? said(nameOf(*paper)) : QString(),
                            asQt(formatLength(need.width_mm, unit, false)), length(need.height_mm));
    if (need.atHand)
      text = tr("%1: %2 at hand, %3 to buy").arg(text).arg(*need.atHand).arg(need.toBuy());
    m_cuts->addItem(text);
  }
  QString line;
  int number = 0;
  const auto flush = [&] {
    if (!line.isEmpty()) m_cuts->addItem(line);
    line.clear();
  };
  for (const TrimCut& cut : plan->cuts) {
    if (cut.setting) {
      flush();
      line = tr("%1.  Set %2: cut").arg(++number).arg(length(cut.set_mm));
    }
    line += (line.endsWith(tr("cut")) ? QStringLiteral(" ") : QStringLiteral(", ")) +
            (cut.upright ? tr("%1").arg(cut.blank + 1) : tr("%1 turned").arg(cut.blank + 1)) +
            QStringLiteral(" → %1 + %2").arg(cut.strip + 1).arg(cut.rest + 1);
  }
  flush();
}

void CutPlace::choosePiece(int row) {
  const auto place = static_cast<std::size_t>(std::max(0, row));
  std::vector<std::size_t> parts;
  const auto plan = m_planner->plan();
  const bool piece = place < m_tables.size();
  for (std::size_t k = 0; plan && k < plan->parts.size(); ++k) {
    const CutPart& part = plan->parts[k];
    if (!piece ? part.mat == place - m_tables.size() + 1
               : part.mat == 0 && (std::ranges::count(m_tables[place].same, part.flat.piece) ||
                                   std::ranges::count(m_tables[place].mirrored, part.flat.piece)))
      parts.push_back(k);
  }
  m_sheets->choose(parts);
  m_numbers->setRowCount(0);
  m_says->clear();
  if (!piece) return m_ruler->clear();
  const auto snapshot = m_document->snapshot();
  const PieceTable& table = m_tables[place];
  const ReadTable read = readTable(table, m_document->design(), **snapshot->assembly(), m_bench);
  QStringList says;
  for (const std::string& line : read.lines)
    says << capital(asQt(line));
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
  if (const auto owner = (*snapshot->assembly())->pieces[table.piece].owner;
      owner && owner != m_document->selection() && isVisible())
    m_document->select(owner);
}

void CutPlace::choosePart(std::size_t part) {
  const auto plan = m_planner->plan();
  if (!plan || part >= plan->parts.size()) return;
  const CutPart& chosen = plan->parts[part];
  for (std::size_t k = 0; k < m_tables.size(); ++k)
    if (chosen.mat == 0 && (std::ranges::count(m_tables[k].same, chosen.flat.piece) ||
                            std::ranges::count(m_tables[k].mirrored, chosen.flat.piece)))
      m_pieces->setCurrentCell(static_cast<int>(k), 1);
  if (chosen.mat > 0)
    m_pieces->setCurrentCell(static_cast<int>(m_tables.size() + chosen.mat) - 1, 1);
}

void CutPlace::followSelection() {
  const auto selection = m_document->selection();
  const auto assembled = m_document->snapshot()->assembly();
  const auto row = static_cast<std::size_t>(std::max(0, m_pieces->currentRow()));
  if (!selection || !assembled) return;
  const auto ownerOf = [&](std::size_t k) {
    const PieceIndex piece = m_tables[k].piece;
    return static_cast<std::size_t>(piece.value) < (*assembled)->pieces.size()
               ? (*assembled)->pieces[piece].owner
               : std::nullopt;
  };
  if (row < m_tables.size() && ownerOf(row) == selection) return;
  for (std::size_t k = 0; k < m_tables.size(); ++k)
    if (ownerOf(k) == selection) return m_pieces->setCurrentCell(static_cast<int>(k), 1);
}

void CutPlace::showOrder(const Analysis& analysis) {
  if (m_mats.empty() && analysis.snapshot.get() == m_document->snapshot().get()) fillPieces();
  if (m_orderOf == analysis.motion) return; // only mends have been added since
  m_orderOf = analysis.motion;
  m_order->clear();
  if (!analysis.order) {
    m_order->addItem(tr("Something cannot be put together: see the findings"));
    return;
  }
  const AssemblyOrder& order = *analysis.order;
  const Snapshot& snapshot = *analysis.snapshot;
  const auto dressed = snapshot.dressedIfReady();
  const auto moments = dressed ? dressMoments(analysis.design, *analysis.assembly,
                                              *snapshot.faces(), *dressed, order)
                               : std::vector<DressMoment>{};
  const auto lines = orderLines(order, moments, analysis.design, *analysis.assembly);
  for (const OrderLine& line : lines)
    m_order->addItem(QString::fromStdString(line.number + "  " + line.text));
  if (lines.empty()) m_order->addItem(tr("Nothing to glue: cut and fold"));
}

void CutPlace::copyTables() {
  const auto assembled = m_document->snapshot()->assembly();
  if (!assembled) return;
  std::vector<ReadTable> read;
  for (const PieceTable& table : m_tables)
    read.push_back(readTable(table, m_document->design(), **assembled, m_bench));
  QGuiApplication::clipboard()->setText(asQt(tabSeparated(read)));
  emit notice(tr("The numbers of all pieces are on the clipboard, in columns"));
}

void CutPlace::ask(const QString& format) {
  const QString suggested = m_document->name() + QLatin1Char('.') + format;
  const QString path = QFileDialog::getSaveFileName(
      this, tr("Export"), suggested, QStringLiteral("%1 (*.%2)").arg(format.toUpper(), format));
  if (!path.isEmpty()) exportTo(format, path);
}

Result<void> CutPlace::writeModel(const Snapshot& snapshot, const QString& path) {
  // As a rule the verdict has had it worked out before anybody asks for a file.
  const auto motion = snapshot.motion();
  std::vector<double> openings;
  for (double t : foldFrames_deg(*motion))
    if (radians(t) >= motion->low_rad() && radians(t) <= motion->high_rad()) openings.push_back(t);
  const auto text = motionToFold(*motion, openings);
  return text ? writeFile(path.toStdString(), *text) : Result<void>(text.error());
}

bool CutPlace::exportTo(const QString& format, const QString& path) {
  if (isSameFile(path.toStdString(), m_document->path().toStdString())) {
    emit refused(tr("%1 is the card itself: choose another name").arg(path));
    return false;
  }
  const auto snapshot = m_document->committedSnapshot();
  const Design& design = snapshot->design();
  const auto assembled = snapshot->assembly();
  Result<void> written;
  if (!assembled)
    written = assembled.error();
  else if (format == QStringLiteral("svg"))
    written = writeFile(path.toStdString(), piecesToSvg(**assembled, design));
  else if (format == QStringLiteral("dxf")) {
    const auto drawing = piecesToDxf(**assembled, design);
    written = drawing ? writeFile(path.toStdString(), *drawing) : Result<void>(drawing.error());
  } else if (format == QStringLiteral("pdf"))
    written = writeSheetsPdf(*snapshot, m_bench, path.toStdString());
  else if (format == QStringLiteral("csv")) {
    std::vector<ReadTable> read;
    for (const PieceTable& table :
         scoreTables(**assembled, design, *snapshot->flatPieces(), m_bench))
      read.push_back(readTable(table, design, **assembled, m_bench));
    written = writeFile(path.toStdString(), commaSeparated(read));
  } else {
    written = writeModel(*snapshot, path);
  }
  if (!written)
    emit refused(said(written.error(), m_document->design().settings.unit));
  else
    emit notice(tr("Written: %1").arg(path));
  return written.ok();
}

} // namespace hinge
