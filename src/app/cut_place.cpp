// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/cut_place.h"
#include "app/background.h"
#include "app/bench_dialog.h"
#include "app/cutter_dialog.h"
#include "app/look.h"
#include "app/pdf_dialog.h"
#include "app/round_dialog.h"
#include "app/saying.h"
#include "app/splice_dialog.h"
#include "core/checks/finding.h"
#include "core/io/maker_bench.h"
#include "core/io/text_file.h"
#include "core/making/dress_moments.h"
#include "words/tables.h"
#include <QClipboard>
#include <QFileDialog>
#include <QGuiApplication>
#include <QScrollArea>
#include <QVBoxLayout>
#include <algorithm>

namespace hinge {
namespace {

QLabel* softLabel(const QString& text, QWidget* parent) {
  auto* label = new QLabel(text, parent);
  label->setObjectName(QStringLiteral("soft"));
  label->setWordWrap(true);
  return label;
}

} // namespace

CutPlace::CutPlace(Document* document, QWidget* parent)
    : QWidget(parent), m_document(document), m_planner(new CutPlanner(this)),
      m_runner(new CutterRunner(this)) {
  setObjectName(QStringLiteral("page"));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(24, 20, 24, 20);
  row->setSpacing(24);
  row->addWidget(makeSheetSide(), 5);
  auto* column = new QVBoxLayout;
  column->setSpacing(10);
  m_tabs = new QTabWidget(this);
  m_tabs->setAccessibleName(tr("What to set, cut and join"));
  m_numbers = new NumbersPanel(document, this);
  m_tabs->addTab(m_numbers, tr("Numbers"));
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
  connect(document, &Document::selectionChanged, m_numbers, &NumbersPanel::followSelection);
  connect(m_numbers, &NumbersPanel::chosen, this, &CutPlace::showChosen);
  connect(m_numbers, &NumbersPanel::refused, this, &CutPlace::refused);
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

QWidget* CutPlace::makeCuts() {
  auto* page = new QWidget(this);
  auto* column = new QVBoxLayout(page);
  column->setContentsMargins(0, 10, 0, 0);
  m_cuts = new QListWidget(page);
  m_cuts->setAccessibleName(tr("Cuts in their order, sheets that are needed"));
  m_cuts->setWordWrap(true);
  m_cuts->setSelectionMode(QAbstractItemView::NoSelection);
  column->addWidget(m_cuts, 1);
  m_part = new QPushButton(tr("Split oversize pieces…"), page);
  m_part->setObjectName(QStringLiteral("part"));
  m_part->setVisible(false);
  connect(m_part, &QPushButton::clicked, this, &CutPlace::askSplices);
  column->addWidget(m_part, 0, Qt::AlignLeft);
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
  auto* bench = new QPushButton(tr("My bench…"), this);
  bench->setObjectName(QStringLiteral("bench"));
  bench->setToolTip(tr("Trimmer, scoring board, machine, habits: described once for all cards"));
  connect(bench, &QPushButton::clicked, this, &CutPlace::askBench);
  buttons->addWidget(bench);
  buttons->addStretch();
  auto* files = new QPushButton(tr("Files"), this);
  files->setObjectName(QStringLiteral("files"));
  files->setMenu(makeFilesMenu());
  buttons->addWidget(files);
  m_send = new QPushButton(tr("Send to cutter…"), this);
  m_send->setObjectName(QStringLiteral("send"));
  m_send->setVisible(false);
  connect(m_send, &QPushButton::clicked, this, &CutPlace::askCutter);
  buttons->addWidget(m_send);
  auto* print = new QPushButton(tr("PDF 1:1…"), this);
  print->setObjectName(QStringLiteral("primary"));
  connect(print, &QPushButton::clicked, this, &CutPlace::askPdf);
  buttons->addWidget(print);
  return buttons;
}

QMenu* CutPlace::makeFilesMenu() {
  auto* menu = new QMenu(this);
  const auto add = [&](const QString& text, const char* format) {
    connect(menu->addAction(text), &QAction::triggered, this,
            [this, f = QString::fromLatin1(format)] { ask(f, this->files()); });
  };
  menu->addSection(tr("This sheet, a layer for each tool"));
  add(tr("SVG"), "sheet-svg"), add(tr("DXF"), "sheet-dxf");
  add(tr("HPGL, for a cutting machine"), "sheet-hpgl");
  menu->addSection(tr("All pieces of the card"));
  add(tr("SVG, side by side"), "svg"), add(tr("DXF, side by side"), "dxf");
  add(tr("FOLD, flat and folded"), "fold");
  menu->addSection(tr("Numbers"));
  add(tr("CSV"), "csv"), add(tr("Plain text"), "txt");
  return menu;
}

void CutPlace::askBench() {
  auto* dialog = new BenchDialog(m_document, m_bench, window());
  connect(dialog, &BenchDialog::notice, this, &CutPlace::notice);
  connect(dialog, &BenchDialog::benchChanged, this, &CutPlace::refill);
  dialog->show();
}

void CutPlace::askSplices() {
  auto* dialog =
      new SpliceDialog(m_document, usualFor(m_planner->plan()->how, m_bench).margin_mm, window());
  connect(dialog, &SpliceDialog::notice, this, &CutPlace::notice);
  dialog->show();
}

void CutPlace::askCutter() {
  auto* dialog = new CutterDialog(m_document, m_runner, m_planner->plan(), m_bench, window());
  connect(dialog, &CutterDialog::notice, this, &CutPlace::notice);
  connect(dialog, &CutterDialog::benchChanged, this, &CutPlace::refill);
  dialog->show();
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
  m_numbers->refill(m_bench);
  m_sheets->unpinAll();
  if (isVisible()) layOutAgain();
}

void CutPlace::layOutAgain() {
  m_stale = false;
  m_send->setVisible(m_byMachine->isChecked());
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
    text += tr("; %1 cuts, %2 fence settings").arg(plan->cuts.size()).arg(plan->settings());
  if (const auto lost = plan->tooLarge.size() + plan->noSheet.size(); lost > 0)
    text += tr("; ◆ %1 without a sheet: see Cuts and sheets").arg(lost);
  m_summary->setText(text);
  if (m_numbers->lacksLayers() && m_document->snapshot()->dressedIfReady()) m_numbers->fillLayers();
  showCuts();
  showChosen();
}

void CutPlace::showCuts() {
  const auto plan = m_planner->plan();
  const Design& design = m_document->design();
  const LengthUnit unit = design.settings.unit;
  m_cuts->clear();
  m_part->setVisible(!plan->tooLarge.empty());
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

void CutPlace::choosePart(std::size_t part) {
  const auto plan = m_planner->plan();
  if (plan && part < plan->parts.size()) m_numbers->choose(plan->parts[part]);
}

void CutPlace::showChosen() {
  const auto plan = m_planner->plan();
  m_sheets->choose(plan ? m_numbers->chosenIn(*plan) : std::vector<std::size_t>{});
}

void CutPlace::showOrder(const Analysis& analysis) {
  if (m_numbers->lacksLayers() && analysis.snapshot.get() == m_document->snapshot().get())
    m_numbers->fillLayers();
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
  QGuiApplication::clipboard()->setText(asQt(tabSeparated(m_numbers->readTables())));
  emit notice(tr("The numbers of all pieces are on the clipboard, in columns"));
}

CardFiles CutPlace::files() const {
  return {
      m_document->committedSnapshot(), m_bench, {}, m_planner->plan(), m_sheets->currentSheet()};
}

void CutPlace::askPdf() {
  auto* dialog = new PdfDialog(m_document, window());
  connect(dialog, &QDialog::accepted, this, [this, dialog] {
    CardFiles what = files();
    what.pdf = dialog->wishes();
    ask(QStringLiteral("pdf"), what);
  });
  dialog->show();
}

void CutPlace::ask(const QString& format, const CardFiles& files) {
  const QString ending = format.section(QLatin1Char('-'), -1);
  QString name = m_document->name();
  if (format.contains(QLatin1Char('-'))) name += tr(" sheet %1").arg(files.sheet + 1);
  const QString path =
      QFileDialog::getSaveFileName(this, tr("Export"), name + QLatin1Char('.') + ending,
                                   QStringLiteral("%1 (*.%2)").arg(ending.toUpper(), ending));
  if (path.isEmpty() || !mayWrite(path)) return;
  emit notice(tr("Writing %1 …").arg(path));
  const int request = ++m_writing;
  m_writers.start([this, files, format, path, request] {
    yieldToWindow();
    const auto written = files.write(format, path);
    QMetaObject::invokeMethod(
        this, [this, written, path, request] { tellWritten(written, path, request); },
        Qt::QueuedConnection);
  });
}

bool CutPlace::mayWrite(const QString& path) {
  if (!isSameFile(path.toStdString(), m_document->path().toStdString())) return true;
  emit refused(tr("%1 is the card itself: choose another name").arg(path));
  return false;
}

void CutPlace::tellWritten(const Result<void>& written, const QString& path, int request) {
  if (!written)
    emit refused(said(written.error(), m_document->design().settings.unit));
  else if (request == m_writing)
    emit notice(tr("Written: %1").arg(path));
}

bool CutPlace::exportTo(const QString& format, const QString& path) {
  if (!mayWrite(path)) return false;
  const auto written = files().write(format, path);
  tellWritten(written, path, ++m_writing);
  return written.ok();
}

CutPlace::~CutPlace() {
  delete m_planner; // which ends its search
  // What was asked for is written to its end, and tells this object so.
  m_writers.waitForDone();
}

} // namespace hinge
