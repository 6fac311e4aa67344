// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/cutter_dialog.h"
#include "app/saying.h"
#include "core/io/cut_mark.h"
#include "core/io/maker_bench.h"
#include <QGridLayout>
#include <QSettings>

namespace hinge {
namespace {

constexpr auto kDevices = "cutter/devices";
constexpr int kBarSteps = 1000, kDevicesKept = 5;

} // namespace

CutterDialog::CutterDialog(Document* document, CutterRunner* runner,
                           std::shared_ptr<const CutPlan> plan, const Bench& bench, QWidget* parent)
    : WorkDialog(document, tr("Send to the cutting machine"),
                 tr("Scores first, then what is cut inside, then outlines. Keep hands and sleeves "
                    "away from the carriage while it moves, and follow the machine's own "
                    "instructions. When something goes wrong leave the sheet where it is: the job "
                    "goes on at the place where the tool stands."),
                 parent),
      m_plan(std::move(plan)), m_bench(bench), m_runner(runner) {
  resize(620, 330);
  makeWhere();
  makeSquares();
  makeProgress();
  addFoot(tr("Send"));
  m_goOn = new QPushButton(tr("Go on where it stopped"), this);
  m_buttons->insertWidget(m_buttons->count() - 1, m_goOn);
  connect(m_goOn, &QPushButton::clicked, this, [this] { send(true); });
  connect(m_take, &QPushButton::clicked, this, [this] { send(false); });
  connect(m_runner, &CutterRunner::progress, this, [this](double done, double all) {
    m_bar->setValue(static_cast<int>(kBarSteps * done / std::max(1.0, all)));
  });
  connect(m_runner, &CutterRunner::ended, this, &CutterDialog::ended);
  describeJob();
}

void CutterDialog::makeWhere() {
  auto* grid = new QGridLayout;
  grid->setColumnStretch(1, 1);
  const auto add = [&](int row, const QString& name, QComboBox* box) {
    auto* label = new QLabel(name, this);
    label->setBuddy(box);
    box->setAccessibleName(name);
    grid->addWidget(label, row, 0), grid->addWidget(box, row, 1);
  };
  m_sheet = new QComboBox(this);
  const Design& design = m_document->design();
  const LengthUnit unit = design.settings.unit;
  for (std::size_t k = 0; m_plan && k < m_plan->sheets.size(); ++k) {
    const LaidSheet& sheet = m_plan->sheets[k];
    const Paper* paper = design.findPaper(sheet.paper);
    m_sheet->addItem(tr("%1  %2, %3 × %4")
                         .arg(k + 1)
                         .arg(paper ? said(nameOf(*paper)) : QString(),
                              asQt(formatLength(sheet.width_mm, unit, false)),
                              asQt(formatLength(sheet.height_mm, unit))));
  }
  add(0, tr("Sheet"), m_sheet);
  m_device = new QComboBox(this);
  m_device->setEditable(true);
  m_device->addItems(QSettings().value(QLatin1String(kDevices)).toStringList());
  m_device->lineEdit()->setPlaceholderText(tr("socket or terminal, as /dev/usb/lp0"));
  add(1, tr("Machine"), m_device);
  m_simulate = new QPushButton(tr("Try a simulated one"), this);
  m_simulate->setToolTip(tr("Opens a window with a sheet in it, and what can go wrong as buttons"));
  grid->addWidget(m_simulate, 1, 2);
  connect(m_simulate, &QPushButton::clicked, this, &CutterDialog::simulate);
  m_column->addLayout(grid);
  connect(m_sheet, &QComboBox::currentIndexChanged, this, &CutterDialog::describeJob);
}

void CutterDialog::makeSquares() {
  m_squares = new QCheckBox(tr("Two squares to measure instead of the sheet"), this);
  m_column->addWidget(m_squares);
  m_measuredRow = new QWidget(this);
  auto* grid = new QGridLayout(m_measuredRow);
  grid->setContentsMargins(24, 0, 0, 0);
  const QString names[] = {tr("From the left edge to the first"),
                           tr("From the lower edge to the first"),
                           tr("From there to the second, across"), tr("and up")};
  for (int k = 0; k < 4; ++k) {
    auto* label = new QLabel(names[k], this);
    auto*& field = m_measured[static_cast<std::size_t>(k)];
    field = new QLineEdit(this);
    field->setFixedWidth(100);
    field->setAccessibleName(names[k]);
    label->setBuddy(field);
    grid->addWidget(label, k / 2, k % 2 * 2), grid->addWidget(field, k / 2, k % 2 * 2 + 1);
  }
  m_keep = new QPushButton(tr("Set the machine right"), this);
  m_keep->setToolTip(tr("What it measures goes to the bench; later jobs come out right"));
  grid->addWidget(m_keep, 2, 3);
  m_column->addWidget(m_measuredRow);
  m_measuredRow->hide();
  connect(m_keep, &QPushButton::clicked, this, &CutterDialog::takeMeasured);
  connect(m_squares, &QCheckBox::toggled, this, [this](bool on) {
    m_measuredRow->setVisible(on);
    m_sheet->setEnabled(!on);
    describeJob();
  });
}

void CutterDialog::makeProgress() {
  auto* row = new QHBoxLayout;
  m_bar = new QProgressBar(this);
  m_bar->setRange(0, kBarSteps);
  m_bar->setAccessibleName(tr("How much is cut"));
  row->addWidget(m_bar, 1);
  m_pause = new QPushButton(tr("Pause"), this);
  m_pause->setCheckable(true);
  m_stop = new QPushButton(tr("Stop"), this);
  row->addWidget(m_pause), row->addWidget(m_stop);
  m_column->addLayout(row);
  m_column->addStretch(1);
  connect(m_pause, &QPushButton::toggled, this, [this](bool on) {
    m_runner->setPaused(on);
    if (m_runner->busy()) m_says->setText(on ? tr("Waits, the tool raised") : tr("Cuts …"));
  });
  connect(m_stop, &QPushButton::clicked, this, [this] {
    m_runner->stop();
    m_pause->setChecked(false);
  });
}

void CutterDialog::simulate() {
  const auto made = job();
  if (!made) return sayRefusal(made.error());
  const QString place = m_runner->startSimulated(made->width_mm, made->height_mm, m_bench.blade_mm);
  if (place.isEmpty())
    return m_says->setText(tr("The simulated machine does not lie beside this program"));
  m_device->setCurrentText(place);
  m_says->setText(tr("It stands ready: send the sheet"));
}

namespace {

Result<TestSquares> squaresOf(const Design& design, const CutPlan* plan, const Bench& bench) {
  if (plan && !plan->sheets.empty())
    return testSquares(plan->sheets.front().width_mm, plan->sheets.front().height_mm,
                       design.cardPaper(), bench);
  return Error{{"layout.no-sheet", 0, 1}, ""};
}

} // namespace

Result<CutterJob> CutterDialog::job() const {
  const Design& design = m_document->design();
  if (m_squares->isChecked()) {
    const auto squares = squaresOf(design, m_plan.get(), m_bench);
    return squares ? Result<CutterJob>(squares->job) : Result<CutterJob>(squares.error());
  }
  const int sheet = m_sheet->currentIndex();
  if (!m_plan || sheet < 0) return Error{{"layout.no-sheet", 0, 1}, ""};
  return cutterJob(*m_plan, static_cast<std::size_t>(sheet), design, m_bench);
}

void CutterDialog::describeJob() {
  const LengthUnit unit = m_document->design().settings.unit;
  const auto made = job();
  if (!made) {
    sayRefusal(made.error());
  } else if (m_squares->isChecked()) {
    const auto squares = squaresOf(m_document->design(), m_plan.get(), m_bench);
    m_says->setText(
        tr("Squares of %1: the first %2 from the left and lower edge, the second %3 across and %4 "
           "up from it, when all is well. Measure what comes out and type it in.")
            .arg(asQt(formatLength(kSquare_mm, unit)),
                 asQt(formatLength(squares->first_mm.x(), unit)),
                 asQt(formatLength(squares->apart_mm.x(), unit)),
                 asQt(formatLength(squares->apart_mm.y(), unit))));
  } else {
    m_says->setText(tr("%1 strokes at %2 cm/s, %3 g: about %4 minutes")
                        .arg(made->steps.size())
                        .arg(made->speed_cms)
                        .arg(made->force_g)
                        .arg(std::max(0.1, made->seconds() / 60), 0, 'f', 1));
  }
  m_bar->setValue(0);
  showState();
}

void CutterDialog::showState() {
  const bool busy = m_runner->busy();
  const auto made = job();
  const auto mark = keptCutMark();
  const bool broken = mark && *mark && made && (*mark)->job == markOf(*made);
  m_take->setEnabled(!busy && made.ok());
  m_take->setText(broken ? tr("Begin on a new sheet") : tr("Send"));
  m_goOn->setVisible(broken && !busy);
  m_sheet->setEnabled(!busy && !m_squares->isChecked());
  m_device->setEnabled(!busy), m_squares->setEnabled(!busy), m_simulate->setEnabled(!busy);
  m_pause->setEnabled(busy), m_stop->setEnabled(busy);
}

void CutterDialog::send(bool goOn) {
  const auto made = job();
  if (!made) return sayRefusal(made.error());
  const auto mark = keptCutMark();
  if (goOn && !mark) return sayRefusal(mark.error());
  const QString device = m_device->currentText().trimmed();
  QStringList known = QSettings().value(QLatin1String(kDevices)).toStringList();
  known.removeAll(device);
  known.prepend(device);
  QSettings().setValue(QLatin1String(kDevices), QStringList(known.mid(0, kDevicesKept)));
  m_pause->setChecked(false);
  m_says->setText(tr("Cuts …"));
  m_runner->send(*made, device, goOn ? *mark : std::nullopt);
  showState();
}

void CutterDialog::ended() {
  const auto& result = *m_runner->result();
  if (!result)
    sayRefusal(result.error());
  else if (*result == CutterEnd::Stopped)
    m_says->setText(tr("Stopped, the tool raised"));
  else {
    m_bar->setValue(kBarSteps);
    m_says->setText(tr("The sheet is cut"));
    emit notice(tr("The sheet is cut"));
  }
  showState();
}

void CutterDialog::takeMeasured() {
  const LengthUnit unit = m_document->design().settings.unit;
  double read[4] = {};
  for (std::size_t k = 0; k < 4; ++k) {
    const auto length = parseLength_mm(m_measured[k]->text().trimmed().toStdString(), unit);
    if (!length) return sayRefusal(length.error());
    read[k] = *length;
  }
  const auto squares = squaresOf(m_document->design(), m_plan.get(), m_bench);
  if (!squares) return sayRefusal(squares.error());
  const auto fit = fitFrom(*squares, {Vec2(read[0], read[1]), Vec2(read[2], read[3])});
  if (!fit) return sayRefusal(fit.error());
  setFit(m_bench, *fit);
  if (const auto kept = keepBench(m_bench); !kept) return sayRefusal(kept.error());
  m_says->setText(
      tr("The machine makes %1 of a length of 1 across and %2 up. Jobs are told so that "
         "they come out right.")
          .arg(fit->scale.x(), 0, 'f', 4)
          .arg(fit->scale.y(), 0, 'f', 4));
  emit benchChanged();
}

} // namespace hinge
