// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/make_place.h"
#include "app/at_bench.h"
#include "app/booklet_dialog.h"
#include "app/look.h"
#include "app/rehearsal_window.h"
#include "app/saying.h"
#include "core/checks/failing_step.h"
#include "core/io/maker_ways.h"
#include "core/io/work_record_json.h"
#include "core/units/duration.h"
#include "words/words.h"
#include <QHBoxLayout>
#include <QVBoxLayout>

namespace hinge {
namespace {
constexpr QSize kThumb(132, 96);
}

MakePlace::MakePlace(Document* document, Analyst* analyst, QWidget* parent)
    : QWidget(parent), m_document(document), m_analyst(analyst), m_planning(this), m_thumbs(this),
      m_opening(this) {
  setObjectName(QStringLiteral("page"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(24, 16, 24, 16);
  column->setSpacing(10);
  column->addLayout(makeWays());
  auto* row = new QHBoxLayout;
  row->setSpacing(20);
  m_steps = new QListWidget(this);
  m_steps->setAccessibleName(tr("Steps of the work"));
  m_steps->setWordWrap(true);
  m_steps->setIconSize(kThumb);
  m_steps->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  row->addWidget(m_steps, 4);
  row->addLayout(makeStep(), 7);
  m_bars = new ScheduleBars(this);
  m_says = new QLabel(this);
  m_says->setObjectName(QStringLiteral("soft"));
  m_says->setWordWrap(true);
  auto* said = new QHBoxLayout;
  said->addWidget(m_says, 1);
  m_cancel = new QPushButton(tr("Stop"), this);
  m_cancel->hide();
  said->addWidget(m_cancel);
  column->addLayout(said);
  column->addLayout(row, 1);
  column->addWidget(m_bars);
  connect(m_steps, &QListWidget::currentRowChanged, this, &MakePlace::showStep);
  connect(m_analyst, &Analyst::changed, this, &MakePlace::markTrouble);
  connect(m_cancel, &QPushButton::clicked, this, [this] {
    m_planning.stop(), m_thumbs.stop();
    m_stale = true;
    m_cancel->hide();
    sayPlan();
  });
  connect(document, &Document::designChanged, this, [this] {
    if (m_document->previewing()) return;
    m_stale = true, m_waysChanged = false;
    if (isVisible()) planAnew();
  });
}

QLayout* MakePlace::makeWays() {
  constexpr int kAdhesiveLetters = 11; // the row has to fit a small screen
  auto* row = new QHBoxLayout;
  const auto add = [&](const QString& name, QWidget* field) {
    auto* label = new QLabel(name, this);
    label->setBuddy(field);
    field->setAccessibleName(name);
    row->addWidget(label), row->addWidget(field);
  };
  m_closing = new QComboBox(this);
  m_closing->addItem(tr("Shut the card on it"), QStringLiteral("shut"));
  m_closing->addItem(tr("Lay it on marks"), QStringLiteral("marks"));
  m_closing->setToolTip(
      tr("Shut on it: the page takes the last side where it must be, even when the "
         "drawing was off. On marks: everything is seen while it is glued."));
  add(tr("Closing"), m_closing);
  const auto adhesives = [&](const QString& name, Adhesive usual, const QString& tip) {
    auto* box = new QComboBox(this);
    for (const AdhesiveFacts& facts : knownAdhesives())
      box->addItem(asQt(sayAdhesive(facts.adhesive)), asQt(facts.key));
    box->setCurrentIndex(box->findData(asQt(factsOf(usual).key)));
    box->setToolTip(tip);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(kAdhesiveLetters);
    add(name, box);
    connect(box, &QComboBox::activated, this, &MakePlace::keep);
    return box;
  };
  const MakingWays usual = makersWays() ? *makersWays() : MakingWays();
  m_closing->setCurrentIndex(m_closing->findData(asQt(keyOf(usual.closing))));
  m_joints = adhesives(tr("Joints"), usual.joints,
                       tr("Glue can be slid to its place and takes its time; tape holds at once"));
  m_moving = adhesives(tr("What is pulled at"), usual.moving,
                       tr("Tape does not creep when a slide or a band pulls at it"));
  m_layers = adhesives(tr("Layers"), usual.layers,
                       tr("A stick wets paper least; what is wet more makes it curl"));
  m_pressed = new QLineEdit(this);
  m_pressed->setFixedWidth(84);
  m_pressed->setToolTip(tr("How long what holds the joints is pressed: 90 s, 5 min. Each adhesive "
                           "has its own"));
  m_pressed->setAccessibleName(tr("Pressed for"));
  row->insertWidget(row->indexOf(m_joints) + 1, m_pressed); // beside what it is said of
  m_holds_s = usual.holds_s;
  sayPressed();
  connect(m_pressed, &QLineEdit::editingFinished, this, &MakePlace::keepPressed);
  connect(m_joints, &QComboBox::activated, this, &MakePlace::sayPressed);
  m_copies = new QSpinBox(this);
  m_copies->setRange(1, 99);
  add(tr("Cards"), m_copies);
  m_cardByCard = new QCheckBox(tr("One after the other"), this);
  m_cardByCard->setToolTip(
      tr("Otherwise what one tool does is done for all cards before the next is taken up"));
  row->addWidget(m_cardByCard);
  row->addStretch();
  connect(m_closing, &QComboBox::activated, this, &MakePlace::keep);
  connect(m_copies, &QSpinBox::valueChanged, this, &MakePlace::planAnew);
  connect(m_cardByCard, &QCheckBox::clicked, this, &MakePlace::planAnew);
  return row;
}

QLayout* MakePlace::makeStep() {
  auto* column = new QVBoxLayout;
  column->setSpacing(8);
  m_view = new StepView(this);
  column->addWidget(m_view, 1);
  const auto label = [&](double size, int weight) {
    auto* one = new QLabel(this);
    one->setWordWrap(true);
    one->setFont(Look::font(size, weight));
    one->setTextInteractionFlags(Qt::TextSelectableByMouse);
    return one;
  };
  auto* head = new QHBoxLayout;
  m_what = label(19, QFont::DemiBold);
  m_number = label(34, QFont::Bold);
  head->addWidget(m_what, 1);
  head->addWidget(m_number);
  column->addLayout(head);
  m_notes = label(14, QFont::Normal);
  column->addWidget(m_notes);
  m_times = label(13, QFont::Normal);
  m_times->setObjectName(QStringLiteral("soft"));
  auto* foot = new QHBoxLayout;
  foot->addWidget(m_times, 1);
  foot->addLayout(makeActions());
  column->addLayout(foot);
  return column;
}

QLayout* MakePlace::makeActions() {
  auto* row = new QHBoxLayout;
  const auto button = [&](const QString& text, const char* name, const QString& tip) {
    auto* one = new QPushButton(text, this);
    one->setObjectName(QLatin1String(name));
    one->setToolTip(tip);
    row->addWidget(one);
    return one;
  };
  m_play = button(tr("Show the motion"), "play-step", tr("How the paper comes to its place"));
  m_rehearse = button(tr("Rehearse…"), "rehearse",
                      tr("Fold and glue it on the screen before good paper is touched"));
  m_booklet = button(tr("Booklet…"), "booklet", tr("The whole work with pictures, to print"));
  m_bench = button(tr("At the bench"), "at-the-bench",
                   tr("One step over the whole window, to be read from a metre away"));
  connect(m_play, &QPushButton::clicked, m_view, &StepView::play);
  connect(m_bench, &QPushButton::clicked, this, &MakePlace::openBench);
  connect(m_booklet, &QPushButton::clicked, this, &MakePlace::openBooklet);
  connect(m_rehearse, &QPushButton::clicked, this, &MakePlace::openRehearsal);
  return row;
}

MakingWays MakePlace::ways() const {
  const auto adhesive = [](const QComboBox* box) {
    return *adhesiveFromKey(box->currentData().toString().toStdString());
  };
  MakingWays all;
  all.closing = *closingFromKey(m_closing->currentData().toString().toStdString());
  all.joints = adhesive(m_joints), all.moving = adhesive(m_moving);
  all.layers = adhesive(m_layers);
  all.holds_s = m_holds_s;
  if (const auto kept = makersWays()) all.cutFirst = kept->cutFirst;
  return all;
}

void MakePlace::sayPressed() {
  const MakingWays all = ways();
  m_pressed->setText(asQt(sayTime(all.pressed_s(all.joints))));
}

void MakePlace::keepPressed() {
  if (!m_pressed->isModified()) return;
  m_pressed->setModified(false);
  const auto seconds = parseDuration_s(m_pressed->text().toStdString());
  if (!seconds || !(*seconds >= 0 && *seconds <= kLongestPressed_s)) {
    emit refused(said(seconds ? Error{"making.pressed", ""} : seconds.error()));
    return sayPressed();
  }
  m_holds_s[ways().joints] = *seconds;
  sayPressed();
  keep();
}

void MakePlace::keep() {
  if (const auto kept = keepWays(ways()); !kept) emit refused(said(kept.error()));
  m_waysChanged = true;
  planAnew();
}

void MakePlace::showEvent(QShowEvent*) {
  if (m_stale) planAnew();
}

void MakePlace::planAnew() {
  m_stale = false;
  m_thumbs.stop();
  m_says->setText(tr("Planning …"));
  m_cancel->show();
  ScheduleWays schedule;
  schedule.copies = m_copies->value();
  schedule.batching = m_cardByCard->isChecked() ? Batching::CardByCard : Batching::ByTool;
  m_planning.start(
      [snapshot = m_document->committedSnapshot(), ways = ways(), schedule](std::stop_token stop) {
        const auto own = makersTimes();
        const auto work = planWork(snapshot, ways, own ? *own : OwnTimes(), stop);
        if (!work || stop.stop_requested()) return std::shared_ptr<ReadyPlan>();
        auto made = std::make_shared<ReadyPlan>();
        made->work = work;
        made->words = inWords(work->plan, work->design(), work->assembly());
        for (const JointGroup& group : work->plan.unreachable)
          made->unreachable.push_back(describe(group, work->design(), work->assembly()));
        made->schedule = scheduleOf(work->plan, schedule);
        made->painter = std::make_shared<const StepPainter>(work);
        return made;
      },
      [this](std::shared_ptr<ReadyPlan> made) { receive(std::move(made)); });
}

void MakePlace::receive(std::shared_ptr<const ReadyPlan> made) {
  m_changed.clear();
  if (std::exchange(m_waysChanged, false) && made && m_made)
    m_changed = asQt(sayChange(m_made->work->plan, made->work->plan));
  m_made = std::move(made);
  fill();
}

void MakePlace::fill() {
  const int row = std::max(0, m_steps->currentRow());
  m_steps->clear();
  for (QPushButton* button : {m_play, m_bench, m_booklet, m_rehearse})
    button->setEnabled(m_made != nullptr);
  if (!m_made) {
    m_cancel->hide();
    m_says->setText(tr("This cannot be put together: see the findings"));
    m_bars->show({});
    return showStep(-1);
  }
  QImage blank(kThumb, QImage::Format_ARGB32_Premultiplied);
  blank.fill(Qt::white);
  const QIcon waiting(QPixmap::fromImage(blank));
  for (std::size_t k = 0; k < m_made->words.size(); ++k)
    new QListWidgetItem(
        waiting, QStringLiteral("%1.  %2").arg(k + 1).arg(asQt(m_made->words[k].what)), m_steps);
  m_bars->show(m_made->schedule);
  markTrouble();
  m_steps->setCurrentRow(std::min(row, m_steps->count() - 1));
  drawStrip();
}

/// The pictures of the strip, one after another; what is chosen anew stops them.
void MakePlace::drawStrip() {
  m_cancel->show();
  m_thumbs.start(
      [this, painter = m_made->painter, count = m_made->words.size(),
       ratio = devicePixelRatioF()](std::stop_token stop, const NewestWork::Tell& tell) {
        for (std::size_t k = 0; k < count && !stop.stop_requested(); ++k) {
          QImage image = stepImage(*painter, k, kThumb * ratio);
          image.setDevicePixelRatio(ratio);
          tell([this, k, count, image] { putPicture(k, count, image); });
        }
        return true;
      },
      [this](bool) {
        m_cancel->hide();
        sayPlan();
      });
}

void MakePlace::putPicture(std::size_t step, std::size_t count, const QImage& image) {
  auto* item = m_steps->item(static_cast<int>(step));
  if (!item) return;
  QIcon icon;
  for (QIcon::Mode mode : {QIcon::Normal, QIcon::Selected})
    icon.addPixmap(QPixmap::fromImage(image), mode);
  item->setIcon(icon);
  m_says->setText(tr("Pictures: %1 of %2").arg(step + 1).arg(count));
}

void MakePlace::sayPlan() {
  if (!m_made) return m_says->clear();
  const Schedule& schedule = m_made->schedule;
  QString says = schedule.ready_s.size() > 1
                     ? tr("%1 cards: the first is ready after %2, all after %3; hands are busy for "
                          "%4, tools are "
                          "changed %5 times")
                           .arg(schedule.ready_s.size())
                           .arg(asQt(sayTime(schedule.ready_s.front())),
                                asQt(sayTime(schedule.end_s)), asQt(sayTime(schedule.hands_s)))
                           .arg(schedule.toolChanges)
                     : tr("%1 steps, ready after %2, of which hands are busy for %3")
                           .arg(m_made->words.size())
                           .arg(asQt(sayTime(schedule.end_s)), asQt(sayTime(schedule.hands_s)));
  for (const std::string& joint : m_made->unreachable)
    says += QStringLiteral("\n◆  ") + tr("No hand gets there any more: %1").arg(asQt(joint));
  for (std::size_t k = 0; k < m_trouble.size(); ++k)
    if (!m_trouble[k].isEmpty())
      says +=
          QStringLiteral("\n◆  ") +
          tr("Step %1 will fail: %2").arg(k + 1).arg(m_trouble[k].section(QLatin1Char('\n'), 0, 0));
  if (!m_changed.isEmpty()) says += QStringLiteral("\n") + m_changed;
  m_says->setText(says);
}

void MakePlace::markTrouble() {
  m_trouble.clear();
  const auto analysis = m_analyst->current();
  if (!m_made || !analysis || analysis->snapshot != m_made->work->snapshot) return;
  m_trouble.resize(m_made->words.size());
  for (const Finding& finding : analysis->findings)
    if (const auto step = failingStep(m_made->work->plan, m_made->work->assembly(), finding)) {
      QString& why = m_trouble[*step];
      why += (why.isEmpty() ? QString() : QStringLiteral("\n")) +
             asQt(describe(finding, analysis->design));
    }
  for (std::size_t k = 0; k < m_trouble.size(); ++k)
    if (auto* item = m_steps->item(static_cast<int>(k)))
      item->setText(QStringLiteral("%1%2.  %3")
                        .arg(m_trouble[k].isEmpty() ? QString() : QStringLiteral("◆ "))
                        .arg(k + 1)
                        .arg(asQt(m_made->words[k].what)));
  if (!m_thumbs.running()) sayPlan();
  showStep(m_steps->currentRow());
}

void MakePlace::openBench() {
  if (!m_made) return;
  const std::string path = workRecordPath(m_document->path().toStdString());
  m_bench->setEnabled(false);
  m_opening.start([path](std::stop_token) { return recordToGoOn(path); },
                  [this, path, made = m_made](const Result<RecordToGoOn>& record) {
                    m_bench->setEnabled(m_made != nullptr);
                    if (m_stale || made != m_made) return; // of another card by now
                    if (!record) return emit refused(said(record.error()));
                    showBench(*record, path);
                  });
}

void MakePlace::showBench(const RecordToGoOn& record, const std::string& path) {
  auto* bench = new AtBench(m_made, record.record, path, window());
  bench->setAttribute(Qt::WA_DeleteOnClose);
  if (record.why)
    bench->tell(
        tr("◆  What was done before is not known: %1. It is kept as %2; the work starts anew.")
            .arg(said(*record.why), asQt(record.setAsideTo)));
  connect(bench, &AtBench::refused, this, &MakePlace::refused);
  bench->showFullScreen();
}

void MakePlace::openRehearsal() {
  if (!m_made) return;
  auto* window =
      new RehearsalWindow(m_made, workRecordPath(m_document->path().toStdString()), this->window());
  window->setAttribute(Qt::WA_DeleteOnClose);
  connect(window, &RehearsalWindow::refused, this, &MakePlace::refused);
  window->show();
}

void MakePlace::openBooklet() {
  if (!m_made) return;
  auto* dialog = new BookletDialog(m_document, m_made, window());
  connect(dialog, &WorkDialog::notice, this, &MakePlace::notice);
  dialog->show();
}

void MakePlace::showStep(int row) {
  for (QLabel* label : {m_what, m_number, m_notes, m_times})
    label->clear();
  m_number->hide();
  if (!m_made || row < 0 || row >= static_cast<int>(m_made->words.size()))
    return m_view->showStep(nullptr, 0);
  const auto at = static_cast<std::size_t>(row);
  const StepWords& words = m_made->words[at];
  const WorkStep& step = m_made->work->plan.steps[at];
  const LengthUnit unit = m_document->design().settings.unit;
  m_view->showStep(m_made->painter, at);
  m_play->setEnabled(m_made->painter->moves(at));
  m_what->setText(asQt(words.what));
  if (step.kind == WorkKind::Measure) {
    m_number->setText(asQt(formatLength(step.number_mm, unit)));
    m_number->show();
  }
  QStringList notes;
  if (at < m_trouble.size() && !m_trouble[at].isEmpty())
    for (const QString& why : m_trouble[at].split(QLatin1Char('\n')))
      notes << QStringLiteral("◆  ") + tr("This will fail: %1").arg(why);
  for (const std::string& note : notesBesidePicture(step, words))
    notes << asQt(note);
  for (const std::string& caution : words.cautions)
    notes << QStringLiteral("◆  ") + asQt(caution);
  m_notes->setText(notes.join(QLatin1Char('\n')));
  QStringList times;
  if (step.hands_s > 0) times << tr("Hands: about %1").arg(asQt(sayTime(step.hands_s)));
  if (step.waits_s > 0) times << tr("then it sets for %1").arg(asQt(sayTime(step.waits_s)));
  m_times->setText(times.join(QStringLiteral(", ")));
  m_bars->choose(at);
}

} // namespace hinge
