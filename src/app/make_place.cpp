// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/make_place.h"
#include "app/background.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/io/maker_ways.h"
#include "words/words.h"
#include <QHBoxLayout>
#include <QThreadPool>
#include <QVBoxLayout>

namespace hinge {
MakePlace::MakePlace(Document* document, QWidget* parent) : QWidget(parent), m_document(document) {
  setObjectName(QStringLiteral("page"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(24, 20, 24, 20);
  column->setSpacing(12);
  column->addLayout(makeWays());
  m_says = new QLabel(this);
  m_says->setObjectName(QStringLiteral("soft"));
  m_says->setWordWrap(true);
  column->addWidget(m_says);
  auto* row = new QHBoxLayout;
  row->setSpacing(24);
  m_steps = new QListWidget(this);
  m_steps->setAccessibleName(tr("Steps of the work"));
  m_steps->setWordWrap(true);
  m_steps->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  row->addWidget(m_steps, 5);
  row->addLayout(makeStep(), 6);
  column->addLayout(row, 1);
  m_bars = new ScheduleBars(this);
  column->addWidget(m_bars);
  connect(m_steps, &QListWidget::currentRowChanged, this, &MakePlace::showStep);
  connect(document, &Document::designChanged, this, [this] {
    if (m_document->previewing()) return;
    m_stale = true;
    if (isVisible()) planAnew();
  });
}

MakePlace::~MakePlace() {
  m_stop.request_stop();
  // Workers post to this object; none may be left when it goes.
  backgroundPool().waitForDone();
}

QLayout* MakePlace::makeWays() {
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
  column->setSpacing(12);
  const auto label = [&](double size, int weight) {
    auto* one = new QLabel(this);
    one->setWordWrap(true);
    one->setFont(Look::font(size, weight));
    one->setTextInteractionFlags(Qt::TextSelectableByMouse);
    column->addWidget(one);
    return one;
  };
  m_what = label(24, QFont::DemiBold);
  m_number = label(44, QFont::Bold);
  m_notes = label(16, QFont::Normal);
  m_times = label(14, QFont::Normal);
  m_times->setObjectName(QStringLiteral("soft"));
  column->addStretch();
  return column;
}

MakingWays MakePlace::ways() const {
  const auto adhesive = [](const QComboBox* box) {
    return *adhesiveFromKey(box->currentData().toString().toStdString());
  };
  MakingWays all;
  all.closing = *closingFromKey(m_closing->currentData().toString().toStdString());
  all.joints = adhesive(m_joints), all.moving = adhesive(m_moving);
  all.layers = adhesive(m_layers);
  return all;
}

void MakePlace::keep() {
  if (const auto kept = keepWays(ways()); !kept) emit refused(said(kept.error()));
  planAnew();
}

void MakePlace::showEvent(QShowEvent*) {
  if (m_stale) planAnew();
}

void MakePlace::planAnew() {
  m_stale = false;
  m_stop.request_stop();
  m_stop = std::stop_source();
  m_busy = true;
  m_says->setText(tr("Planning …"));
  ScheduleWays schedule;
  schedule.copies = m_copies->value();
  schedule.batching = m_cardByCard->isChecked() ? Batching::CardByCard : Batching::ByTool;
  runInBackground([this, request = ++m_request, snapshot = m_document->committedSnapshot(),
                   ways = ways(), schedule, stop = m_stop.get_token()] {
    const auto motion = snapshot->motion(stop);
    const auto order = snapshot->order(stop);
    const auto dressed = snapshot->dressed(stop);
    const auto seen = snapshot->seen(stop);
    if (stop.stop_requested()) return;
    std::shared_ptr<Made> made;
    if (motion && order && dressed && seen) {
      const Design& design = snapshot->design();
      made = std::make_shared<Made>();
      made->plan = workPlan({design, *motion, *order, *snapshot->faces(), *dressed, *seen}, ways);
      made->words = inWords(made->plan, design, motion->assembly());
      for (const JointGroup& group : made->plan.unreachable)
        made->unreachable.push_back(describe(group, design, motion->assembly()));
      made->schedule = scheduleOf(made->plan, schedule);
    }
    QMetaObject::invokeMethod(
        this, [this, request, made] { receive(request, made); }, Qt::QueuedConnection);
  });
}

void MakePlace::receive(int request, std::shared_ptr<const Made> made) {
  if (request != m_request) return;
  m_busy = false;
  m_made = std::move(made);
  fill();
}

void MakePlace::fill() {
  const int row = std::max(0, m_steps->currentRow());
  m_steps->clear();
  if (!m_made) {
    m_says->setText(tr("This cannot be put together: see the findings"));
    m_bars->show({});
    return showStep(-1);
  }
  for (std::size_t k = 0; k < m_made->words.size(); ++k)
    m_steps->addItem(QStringLiteral("%1.  %2").arg(k + 1).arg(asQt(m_made->words[k].what)));
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
  m_says->setText(says);
  m_bars->show(schedule);
  m_steps->setCurrentRow(std::min(row, m_steps->count() - 1));
}

void MakePlace::showStep(int row) {
  for (QLabel* label : {m_what, m_number, m_notes, m_times})
    label->clear();
  m_number->hide();
  if (!m_made || row < 0 || row >= static_cast<int>(m_made->words.size())) return;
  const auto at = static_cast<std::size_t>(row);
  const StepWords& words = m_made->words[at];
  const WorkStep& step = m_made->plan.steps[at];
  const LengthUnit unit = m_document->design().settings.unit;
  m_what->setText(asQt(words.what));
  if (step.kind == WorkKind::Measure) {
    m_number->setText(asQt(formatLength(step.number_mm, unit)));
    m_number->show();
  }
  QStringList notes;
  for (const std::string& note : words.notes)
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
