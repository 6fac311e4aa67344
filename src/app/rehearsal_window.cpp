// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/rehearsal_window.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/checks/practice.h"
#include "core/io/file_lock.h"
#include "core/io/maker_bench.h"
#include "core/io/work_record_json.h"
#include "render/sheets_pdf.h"
#include "words/rehearsal_words.h"
#include <QDateTime>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QVBoxLayout>

namespace hinge {
namespace {
constexpr int kAnswers = 3;
}

RehearsalWindow::RehearsalWindow(std::shared_ptr<const ReadyPlan> plan, std::string recordPath,
                                 QWidget* parent)
    : QWidget(parent, Qt::Window), m_plan(std::move(plan)), m_path(std::move(recordPath)),
      m_painter(std::make_shared<const RehearsalPainter>(m_plan->work)),
      m_rehearsal(std::make_unique<Rehearsal>(m_plan->work->plan, m_plan->work->assembly(),
                                              m_plan->work->motion->shutPose())),
      m_work(this), m_practice(this), m_writer(this, [this](const Result<void>& kept) {
        if (!kept) emit refused(said(kept.error()));
        if (isHidden() && !testAttribute(Qt::WA_DeleteOnClose)) deleteLater(); // see closeEvent()
      }) {
  setObjectName(QStringLiteral("page"));
  setAccessibleName(tr("Rehearsal"));
  setWindowTitle(tr("%1, rehearsed").arg(asQt(m_plan->work->design().title)));
  setFocusPolicy(Qt::StrongFocus);
  resize(1000, 720);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(24, 16, 24, 16);
  column->setSpacing(10);
  auto* head = new QHBoxLayout;
  m_place = new QLabel(this);
  m_place->setObjectName(QStringLiteral("soft"));
  m_place->setAccessibleName(tr("How far it is"));
  head->addWidget(m_place, 1);
  m_practise = new QPushButton(tr("Practice sheet…"), this);
  m_practise->setObjectName(QStringLiteral("practice"));
  m_practise->setFocusPolicy(Qt::NoFocus);
  m_practise->setToolTip(tr("The joints in which most can go wrong, as a small card to print"));
  connect(m_practise, &QPushButton::clicked, this, &RehearsalWindow::askPractice);
  head->addWidget(m_practise);
  column->addLayout(head);
  m_view = new StepView(this);
  column->addWidget(m_view, 1);
  column->addLayout(makeFoot());
  ask();
}

RehearsalWindow::~RehearsalWindow() {
  keep();
}

QLayout* RehearsalWindow::makeFoot() {
  auto* column = new QVBoxLayout;
  m_question = new QLabel(this);
  m_question->setWordWrap(true);
  m_question->setFont(Look::font(22, QFont::DemiBold));
  m_question->setAccessibleName(tr("Question"));
  column->addWidget(m_question);
  m_says = new QLabel(this);
  m_says->setWordWrap(true);
  m_says->setFont(Look::font(17));
  m_says->setAccessibleName(tr("What comes of it"));
  column->addWidget(m_says);
  auto* row = new QHBoxLayout;
  for (int k = 0; k < kAnswers; ++k) {
    auto* button = new QPushButton(this);
    button->setFocusPolicy(Qt::NoFocus);
    connect(button, &QPushButton::clicked, this, [this, k] { answer(k); });
    m_answers.push_back(button);
    row->addWidget(button);
  }
  m_next = new QPushButton(tr("Go on"), this);
  m_next->setObjectName(QStringLiteral("primary"));
  m_next->setFocusPolicy(Qt::NoFocus);
  connect(m_next, &QPushButton::clicked, this, &RehearsalWindow::goOn);
  row->addWidget(m_next);
  row->addStretch();
  column->addLayout(row);
  return column;
}

void RehearsalWindow::ask() {
  m_mistake = m_forgiven = false;
  m_answer = -1;
  m_says->clear();
  m_next->hide();
  for (QPushButton* button : m_answers)
    button->hide();
  if (m_rehearsal->over()) {
    m_place->setText(
        tr("%1 right, %2 wrong").arg(m_rehearsal->rights()).arg(m_rehearsal->wrongs()));
    m_question->setText(m_rehearsal->ofAll() == 0
                            ? tr("There is nothing to decide in this card")
                            : tr("Built twice without an error: take the good paper"));
    m_view->showStep(m_plan->painter, m_plan->words.size() - 1);
    return keep();
  }
  m_place->setText(tr("%1 of %2 to decide   ·   built without an error: %3 of %4")
                       .arg(m_rehearsal->ofAll() - m_rehearsal->left() + 1)
                       .arg(m_rehearsal->ofAll())
                       .arg(m_rehearsal->clean())
                       .arg(Rehearsal::kClean));
  const RehearsalTask task = m_rehearsal->task();
  const RehearsalWords words = inWords(task, *m_plan->work);
  m_question->setText(asQt(words.question));
  for (std::size_t k = 0; k < words.answers.size() && k < m_answers.size(); ++k) {
    m_answers[k]->setText(QStringLiteral("%1   %2").arg(k + 1).arg(asQt(words.answers[k])));
    m_answers[k]->show();
  }
  m_view->showPicture(
      [painter = m_painter, task](QSize size, std::optional<double>) {
        return painter->question(task, size);
      },
      false);
}

void RehearsalWindow::answer(int number) {
  if (m_rehearsal->over() || m_answer >= 0) return;
  const RehearsalTask task = m_rehearsal->task();
  const auto count = inWords(task, *m_plan->work).answers.size();
  if (number < 0 || static_cast<std::size_t>(number) >= count) return;
  m_answer = number;
  for (QPushButton* button : m_answers)
    button->hide();
  m_next->show();
  if (!m_rehearsal->isRight(number)) return wrong(number);
  m_says->setText(tr("✓"));
  m_view->showPicture(
      [painter = m_painter, task, number](QSize size, std::optional<double> progress) {
        return painter->answered(task, number, size, progress.value_or(1));
      },
      true);
  m_view->play();
}

/// What the choice leads to is worked out by the same engine, on another thread.
void RehearsalWindow::wrong(int number) {
  m_mistake = true;
  const RehearsalTask task = m_rehearsal->task();
  if (task.kind != RehearsalTask::Kind::FoldSense) {
    const Misstep misstep = m_rehearsal->misstep(number);
    m_says->setText(QStringLiteral("◆  ") + asQt(sayMisstep(task, misstep, *m_plan->work)));
    m_view->showPicture(
        [painter = m_painter, task, misstep, number](QSize size, std::optional<double>) {
          return task.kind == RehearsalTask::Kind::GlueSide
                     ? painter->turnedOver(task.step, size)
                     : painter->outOfReach(task.choices[static_cast<std::size_t>(number)],
                                           misstep.outOfReach, size);
        },
        false);
    return;
  }
  m_says->setText(tr("Folding it like that …"));
  m_work.start([work = m_plan->work, fold = task.fold](
                   std::stop_token stop) { return foldedWrong(work->assembly(), fold, stop); },
               [this, task](const std::optional<FoldedWrong>& came) {
                 if (!came) return;
                 // What moves as well is no error, but not this card.
                 m_forgiven = came->what == FoldedWrong::What::Works;
                 m_says->setText((m_forgiven ? QString() : QStringLiteral("◆  ")) +
                                 asQt(sayWrongFold(*came, *m_plan->work)));
                 m_view->showPicture(
                     [painter = m_painter, task, came = *came](QSize size, std::optional<double>) {
                       return painter->wrongFold(task, came, size);
                     },
                     false);
               });
}

void RehearsalWindow::goOn() {
  if (m_answer < 0 || m_work.running()) return;
  m_rehearsal->answer(m_answer, m_forgiven);
  ask();
}

void RehearsalWindow::keep() {
  if (m_kept || m_rehearsal->rights() + m_rehearsal->wrongs() == 0) return;
  m_kept = true;
  const WorkRecord::Rehearsed ended{static_cast<double>(QDateTime::currentSecsSinceEpoch()),
                                    m_rehearsal->rights(), m_rehearsal->wrongs(),
                                    m_rehearsal->over()};
  m_writer.write([path = m_path, ended]() -> Result<void> {
    const FileLock hold = FileLock::of(path);
    const auto record = readWorkRecord(path);
    // A record that cannot be read is not written over.
    if (!record) return record.error();
    WorkRecord more = *record;
    more.rehearsed.push_back(ended);
    return writeWorkRecord(path, more);
  });
}

/// A window that still writes is out of sight until it has.
void RehearsalWindow::closeEvent(QCloseEvent* event) {
  keep();
  if (m_writer.busy()) setAttribute(Qt::WA_DeleteOnClose, false);
  QWidget::closeEvent(event);
}

void RehearsalWindow::askPractice() {
  const QString path = QFileDialog::getSaveFileName(
      this, tr("Practice sheet"), tr("%1 practice.pdf").arg(asQt(m_plan->work->design().title)),
      tr("PDF (*.pdf)"));
  if (!path.isEmpty()) writePractice(path);
}

void RehearsalWindow::writePractice(const QString& path) {
  const auto bench = makersBench();
  if (!bench) return emit refused(said(bench.error()));
  m_practise->setEnabled(false);
  m_practice.start(
      [work = m_plan->work, bench = *bench, path](std::stop_token stop) -> Result<void> {
        std::set<StructureId> wanted;
        for (std::size_t step : trickiestJoints(work->plan, work->assembly()))
          for (PieceIndex piece : work->plan.steps[step].pieces)
            if (const auto& owner = work->assembly().pieces[piece].owner) wanted.insert(*owner);
        const auto design = practiceOf(work->design(), wanted, stop);
        if (!design) return design.error();
        return writeSheetsPdf(Snapshot(*design), bench, path.toStdString());
      },
      [this, path](const Result<void>& done) {
        m_practise->setEnabled(true);
        if (!done)
          emit refused(said(done.error()));
        else
          m_says->setText(tr("Written: %1").arg(path));
      });
}

void RehearsalWindow::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) {
    close();
    return;
  }
  if (m_answer >= 0) return goOn();
  const int number = event->key() - Qt::Key_1;
  if (number >= 0 && number < kAnswers) return answer(number);
  QWidget::keyPressEvent(event);
}

} // namespace hinge
