// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/at_bench.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/io/maker_bench.h"
#include "core/io/work_record_json.h"
#include "render/sheets_pdf.h"
#include "words/words.h"
#include <QApplication>
#include <QDateTime>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPushButton>
#include <QVBoxLayout>
#include <cmath>

namespace hinge {
namespace {

constexpr double kNumber_px = 92, kWhat_px = 30, kMore_px = 22, kHead_px = 20;

double now() {
  return static_cast<double>(QDateTime::currentMSecsSinceEpoch()) / 1000;
}

QString clock(double seconds) {
  const int whole = static_cast<int>(std::ceil(std::max(0.0, seconds)));
  return QStringLiteral("%1:%2").arg(whole / 60).arg(whole % 60, 2, 10, QLatin1Char('0'));
}

std::vector<std::vector<BenchNumber>> numbersOf(const PlannedWork& work) {
  const auto kept = makersBench();
  const Bench bench = kept ? *kept : Bench();
  const auto tables =
      scoreTables(work.assembly(), work.design(), *work.snapshot->flatPieces(), bench);
  std::vector<std::vector<BenchNumber>> all;
  for (std::size_t k = 0; k < work.plan.steps.size(); ++k)
    all.push_back(benchNumbers(work, k, tables, bench));
  return all;
}

std::vector<int> countsOf(const std::vector<std::vector<BenchNumber>>& numbers) {
  std::vector<int> counts;
  for (const auto& of : numbers)
    counts.push_back(static_cast<int>(of.size()));
  return counts;
}

} // namespace

AtBench::AtBench(std::shared_ptr<const ReadyPlan> plan, WorkRecord record, std::string path,
                 QWidget* parent)
    : QWidget(parent, Qt::Window), m_plan(std::move(plan)),
      m_kept(std::make_shared<KeptRecord>(std::move(path), record)),
      m_numbers(numbersOf(*m_plan->work)),
      m_work(std::make_unique<BenchWork>(m_plan->work->plan, m_plan->work->assembly(),
                                         countsOf(m_numbers), std::move(record), now())),
      m_timesKept(m_work->record().times.size()), m_laying(this),
      m_writer(this, [this](const Result<void>& kept) {
        m_notKept = kept ? QString() : tr("◆  Not kept: %1").arg(said(kept.error()));
        refresh(false);
      }) {
  setObjectName(QStringLiteral("page"));
  setAccessibleName(tr("At the bench"));
  setWindowTitle(tr("%1 at the bench").arg(asQt(m_plan->work->design().title)));
  setFocusPolicy(Qt::StrongFocus);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(28, 18, 28, 14);
  column->setSpacing(10);
  column->addLayout(makeHead());
  m_view = new StepView(this);
  column->addWidget(m_view, 1);
  column->addLayout(makeFoot());
  connect(&m_second, &QTimer::timeout, this, &AtBench::tellTimers);
  m_second.start(500);
  // Where a piece comes from is only asked for when one is spoiled.
  m_laying.start(
      [work = m_plan->work](std::stop_token stop) {
        return printedPlan(*work->snapshot, PdfPrint::LinesAlone, stop);
      },
      [this](CutPlan sheets) { m_sheets = std::move(sheets); });
  refresh(true);
}

QLayout* AtBench::makeHead() {
  auto* row = new QHBoxLayout;
  m_place = new QLabel(this);
  m_place->setFont(Look::font(kHead_px, QFont::DemiBold));
  m_timers = new QLabel(this);
  m_timers->setAccessibleName(tr("What sets"));
  m_timers->setFont(Look::font(kHead_px, QFont::DemiBold));
  row->addWidget(m_place);
  row->addStretch();
  row->addWidget(m_timers);
  return row;
}

QLayout* AtBench::makeFoot() {
  auto* column = new QVBoxLayout;
  column->setSpacing(6);
  const auto label = [&](double size, int weight) {
    auto* one = new QLabel(this);
    one->setFont(Look::font(size, weight));
    one->setWordWrap(true);
    return one;
  };
  auto* row = new QHBoxLayout;
  row->setSpacing(32);
  auto* words = new QVBoxLayout;
  m_what = label(kWhat_px, QFont::DemiBold);
  m_more = label(kMore_px, QFont::Normal);
  words->addWidget(m_what);
  words->addWidget(m_more);
  row->addLayout(words, 1);
  auto* numbers = new QVBoxLayout;
  m_number = label(kNumber_px, QFont::Bold);
  m_number->setWordWrap(false);
  m_number->setAlignment(Qt::AlignRight);
  m_number->setAccessibleName(tr("Next number"));
  m_of = label(16, QFont::Normal);
  m_of->setAlignment(Qt::AlignRight);
  numbers->addWidget(m_number);
  numbers->addWidget(m_of);
  row->addLayout(numbers);
  column->addLayout(row);
  m_says = label(kMore_px, QFont::DemiBold);
  m_says->setAccessibleName(tr("What happened"));
  column->addWidget(m_says);
  auto* foot = new QHBoxLayout;
  m_entry = new QLineEdit(this);
  m_entry->setFont(Look::font(kMore_px));
  m_entry->hide();
  m_entry->installEventFilter(this);
  foot->addWidget(m_entry, 1);
  m_keys = new QLabel(tr("Space or pedal: done, go on      ←  back      W  this went wrong      "
                         "Esc  leave"),
                      this);
  m_keys->setObjectName(QStringLiteral("soft"));
  foot->addWidget(m_keys, 1);
  const auto button = [&](const QString& text, const std::function<void()>& does) {
    auto* one = new QPushButton(text, this);
    one->setFocusPolicy(Qt::NoFocus);
    connect(one, &QPushButton::clicked, this, does);
    foot->addWidget(one);
  };
  button(tr("Back"), [this] { act([this](double t) { m_work->back(t); }); });
  button(tr("This went wrong"), [this] { askWord(); });
  button(tr("Done"), [this] { goOn(); });
  column->addLayout(foot);
  return column;
}

void AtBench::goOn() {
  act([this](double t) { m_work->next(t); });
}

/// The bench covers the window: what is wrong with the record is said on the bench itself.
void AtBench::keepRecord() {
  m_writer.write([kept = m_kept, record = m_work->record()] { return kept->write(record); });
}

void AtBench::tell(const QString& what) {
  m_told = what;
  refresh(false);
}

void AtBench::act(const std::function<void(double now_s)>& what) {
  m_told.clear();
  what(now());
  keepRecord();
  const auto& times = m_work->record().times;
  if (m_timesKept < times.size()) {
    if (const auto known = makersTimes(); known) {
      OwnTimes own = *known;
      for (; m_timesKept < times.size(); ++m_timesKept)
        own.add(times[m_timesKept]);
      if (const auto kept = keepTimes(own); !kept) emit refused(said(kept.error()));
    }
  }
  refresh(true);
}

void AtBench::refresh(bool picture) {
  const std::size_t at = m_work->current();
  const StepWords& words = m_plan->words[at];
  const WorkStep& step = m_plan->work->plan.steps[at];
  if (picture && std::exchange(m_shown, at) != at) m_view->showStep(m_plan->painter, at);
  m_place->setText(m_work->finished() ? tr("All %1 steps are done").arg(m_work->steps())
                                      : tr("%1 of %2").arg(at + 1).arg(m_work->steps()));
  m_what->setText(asQt(words.what));
  // At most two sentences: what to do, and what to mind before how it is done.
  QString more;
  if (!words.cautions.empty())
    more = QStringLiteral("◆  ") + asQt(words.cautions.front());
  else if (const auto& notes = notesBesidePicture(step, words); !notes.empty())
    more = asQt(notes.front());
  const double left = m_work->setting_s(now());
  if (left > 0 && step.kind != WorkKind::Wait)
    more = tr("What this holds on to still sets for %1").arg(clock(left));
  m_more->setText(more);
  const BenchNumber& number = m_numbers[at][static_cast<std::size_t>(m_work->part())];
  m_number->setText(step.kind == WorkKind::Wait && !m_work->done(at) ? clock(left)
                                                                     : asQt(number.number));
  m_number->setVisible(!m_number->text().isEmpty());
  m_of->setText(asQt(number.of));
  m_of->setVisible(!number.of.empty());
  QStringList says{m_told, m_notKept};
  says.removeAll(QString());
  m_says->setText(says.join(QLatin1Char('\n')));
  m_says->setVisible(!says.isEmpty());
}

void AtBench::tellTimers() {
  QStringList running;
  for (const BenchWork::Running& timer : m_work->running(now())) {
    // What has set stands out for a while.
    const QString text = timer.left_s > 0
                             ? tr("⧗ %1  step %2").arg(clock(timer.left_s)).arg(timer.step + 1)
                             : tr("✓ step %1 has set").arg(timer.step + 1);
    running << (timer.left_s > 0
                    ? text.toHtmlEscaped()
                    : QStringLiteral("<span style=\"background:%1;color:%2\">&nbsp;%3&nbsp;</span>")
                          .arg(Look::theme().accent.name(), Look::theme().accentInk.name(),
                               text.toHtmlEscaped()));
  }
  m_timers->setText(running.join(QStringLiteral("&nbsp;&nbsp;&nbsp; ")));
  const auto ended = m_work->ended(now());
  if (!ended.empty()) {
    QApplication::beep();
    m_told = tr("✓  Set: %1").arg(asQt(m_plan->words[ended.back()].what));
    keepRecord();
  }
  refresh(false);
}

void AtBench::askWord() {
  ask(Asks::Word, {}, tr("What went wrong"), tr("What went wrong, in a word; Enter notes it"));
}

void AtBench::askMeasure(const QString& begun) {
  ask(Asks::Measure, begun, tr("What the ruler shows"), tr("What the ruler shows; Enter notes it"));
}

void AtBench::ask(Asks what, const QString& begun, const QString& name, const QString& hint) {
  m_asks = what;
  m_entry->setText(begun);
  m_entry->setPlaceholderText(hint);
  m_entry->setAccessibleName(name);
  m_keys->hide();
  m_entry->show();
  m_entry->setFocus();
  m_entry->end(false);
}

void AtBench::enter() {
  const QString text = m_entry->text().trimmed();
  const Asks asked = endEntry();
  const LengthUnit unit = m_plan->work->design().settings.unit;
  QString told;
  if (asked == Asks::Word) {
    std::vector<PieceIndex> pieces;
    act([&](double t) { pieces = m_work->wrong(text.toStdString(), t); });
    told = pieces.empty() ? tr("Noted")
                          : tr("Noted: %1").arg(asQt(sayAgain(pieces, m_sheets, *m_plan->work)));
  } else if (asked == Asks::Measure) {
    const auto mm = parseLength_mm(text.toStdString(), unit);
    if (!mm) {
      told = said(mm.error());
    } else {
      bool near = false;
      act([&](double t) { near = m_work->measure(*mm, t); });
      const WorkStep& step = m_plan->work->plan.steps[m_work->current()];
      const QString off = asQt(formatLength(std::abs(*mm - step.number_mm), unit));
      told = near ? tr("✓  %1 off: near enough").arg(off)
                  : tr("◆  %1 off: take it up again, or the card will not shut").arg(off);
    }
  }
  m_told = told;
  refresh(false);
}

/// Enter and Escape end what is typed, and do not go on to the step.
bool AtBench::eventFilter(QObject* watched, QEvent* event) {
  if (watched != m_entry || event->type() != QEvent::KeyPress)
    return QWidget::eventFilter(watched, event);
  const int key = static_cast<QKeyEvent*>(event)->key();
  if (key == Qt::Key_Return || key == Qt::Key_Enter) return enter(), true;
  if (key != Qt::Key_Escape) return false;
  endEntry();
  return true;
}

AtBench::Asks AtBench::endEntry() {
  m_entry->hide(), m_keys->show();
  setFocus();
  return std::exchange(m_asks, Asks::Nothing);
}

void AtBench::keyPressEvent(QKeyEvent* event) {
  const bool measures = m_plan->work->plan.steps[m_work->current()].kind == WorkKind::Measure;
  switch (event->key()) {
  case Qt::Key_Space:
  case Qt::Key_Right:
  case Qt::Key_Down:
  case Qt::Key_PageDown:
  case Qt::Key_Return:
  case Qt::Key_Enter: return goOn();
  case Qt::Key_Left:
  case Qt::Key_Up:
  case Qt::Key_PageUp:
  case Qt::Key_Backspace: return act([this](double t) { m_work->back(t); });
  case Qt::Key_W: return askWord();
  case Qt::Key_M: m_view->play(); return;
  case Qt::Key_Escape: close(); return;
  default: break;
  }
  if (measures && !event->text().isEmpty() && event->text().front().isDigit())
    return askMeasure(event->text());
  QWidget::keyPressEvent(event);
}

} // namespace hinge
