// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/round_dialog.h"
#include "app/saying.h"
#include "core/units/mark.h"
#include <QHBoxLayout>
#include <QHeaderView>

namespace hinge {

RoundDialog::RoundDialog(Document* document, QWidget* parent)
    : WorkDialog(document, tr("Round to what I can set"),
                 tr("Every size moves to the nearest mark, all of them together, so that what "
                    "shuts flat still does and what is the same on both sides still is. Ticked "
                    "sizes are locked as they are."),
                 parent),
      m_snapshot(document->committedSnapshot()), m_working(this) {
  resize(640, 560);
  makeSteps();
  makeTable();
  addFoot(tr("Round them"));
  connect(m_take, &QPushButton::clicked, this, &RoundDialog::take);
  // What it was worked out from is gone when the document changes behind it.
  connect(document, &Document::designChanged, this, &QDialog::reject);
  work();
}

void RoundDialog::makeSteps() {
  auto* row = new QHBoxLayout;
  auto* label = new QLabel(tr("In steps of"), this);
  m_step = new QComboBox(this);
  m_step->setEditable(true);
  m_step->setAccessibleName(tr("Step"));
  const bool inches = m_document->committed().settings.unit == LengthUnit::Inch;
  const QStringList steps{QStringLiteral("1/16 in"), QStringLiteral("1/8 in"),
                          QStringLiteral("0.5 mm"), QStringLiteral("1 mm")};
  m_step->addItems(steps);
  m_step->setCurrentIndex(inches ? 0 : 2);
  label->setBuddy(m_step);
  row->addWidget(label), row->addWidget(m_step), row->addStretch();
  m_column->addLayout(row);
  connect(m_step, &QComboBox::currentTextChanged, this, &RoundDialog::work);
}

void RoundDialog::makeTable() {
  m_table = new QTableWidget(0, 3, this);
  m_table->setAccessibleName(tr("Sizes that change"));
  m_table->setHorizontalHeaderLabels({tr("Held"), tr("Now"), tr("Then")});
  m_table->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  m_table->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft);
  m_table->verticalHeader()->hide();
  m_table->setShowGrid(false);
  m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
  m_column->addWidget(m_table, 1);
  connect(m_table, &QTableWidget::itemChanged, this, [this](QTableWidgetItem* item) {
    if (item->column() != 0) return;
    const std::string key = item->data(Qt::UserRole).toString().toStdString();
    if (item->checkState() == Qt::Checked)
      m_held.insert(key);
    else
      m_held.erase(key);
    work();
  });
}

void RoundDialog::work() {
  m_working.stop();
  m_answer.reset();
  m_take->setEnabled(false);
  const LengthUnit unit = m_document->committed().settings.unit;
  const auto step = parseLength_mm(m_step->currentText().trimmed().toStdString(), unit);
  if (!step) return receive(step.error());
  m_says->setText(tr("Working it out …"));
  m_working.start(
      [this, snapshot = m_snapshot, mm = *step, held = m_held](std::stop_token stop,
                                                               const NewestWork::Tell& tell) {
        const auto before = analyse(snapshot, stop);
        if (!before) return Result<JudgedRounding>(before.error());
        const auto told = [this](std::size_t done, std::size_t all) {
          m_says->setText(tr("Working it out: %1 of %2 parts").arg(done).arg(all));
        };
        return judgedRounding(*before, mm, held, kMostForRounding, stop,
                              toldNowAndThen(tell, told));
      },
      [this](const Result<JudgedRounding>& answer) { receive(answer); });
}

void RoundDialog::fill(const Rounding& rounding) {
  const QSignalBlocker quiet(m_table);
  const LengthUnit unit = m_document->committed().settings.unit;
  m_table->setRowCount(static_cast<int>(rounding.changes.size() + m_held.size()));
  // What it comes to is read in the unit of the step.
  const LengthUnit then = unitNamedIn(m_step->currentText().toStdString(), unit);
  int row = 0;
  const auto put = [&](const std::string& key, const QString& name, bool held, const QString& now,
                       const QString& later) {
    auto* item = new QTableWidgetItem(name);
    item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsUserCheckable | Qt::ItemIsSelectable);
    item->setCheckState(held ? Qt::Checked : Qt::Unchecked);
    item->setData(Qt::UserRole, asQt(key));
    m_table->setItem(row, 0, item);
    m_table->setItem(row, 1, new QTableWidgetItem(now));
    m_table->setItem(row++, 2, new QTableWidgetItem(later));
  };
  for (const std::string& key : m_held)
    put(key, asQt(key), true, tr("locked"), {});
  for (const RoundedLength& change : rounding.changes)
    put(change.key, said(change.label, unit), false, asQt(formatLength(change.from_mm, unit)),
        asQt(formatLength(change.to_mm, then)));
}

void RoundDialog::receive(const Result<JudgedRounding>& answer) {
  const LengthUnit unit = m_document->committed().settings.unit;
  if (!answer) {
    sayRefusal(answer.error());
    return emit worked();
  }
  m_answer = *answer;
  const Rounding& rounding = m_answer->rounding;
  fill(rounding);
  QString text = tr("%1 of %2 sizes change, by %3 at most; %4 conditions are kept.")
                     .arg(rounding.changes.size())
                     .arg(rounding.lengths)
                     .arg(asQt(formatLength(rounding.greatest_mm, unit)))
                     .arg(rounding.conditions);
  if (m_answer->analysis.verdict == Verdict::Spoiled && !m_answer->analysis.findings.empty())
    text += QStringLiteral("\n◆  ") +
            tr("Then %1").arg(
                asQt(describe(m_answer->analysis.findings.front(), m_answer->analysis.design)));
  if (!rounding.left.empty())
    text += QLatin1Char('\n') +
            tr("%1 stays as it is: %2")
                .arg(asQt(rounding.left.front().first), said(rounding.left.front().second, unit));
  m_says->setText(text);
  m_take->setEnabled(!rounding.changes.empty());
  emit worked();
}

void RoundDialog::take() {
  if (!m_answer) return;
  const Design next = m_answer->rounding.design;
  const auto changed = m_answer->rounding.changes.size();
  if (const auto done = m_document->apply(next, tr("round sizes")); !done)
    return m_says->setText(said(done.error(), m_document->design().settings.unit));
  emit notice(tr("Rounded: %1 sizes have changed").arg(changed));
}

} // namespace hinge
