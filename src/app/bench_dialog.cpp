// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench_dialog.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/io/maker_bench.h"
#include "core/sending/cutter_job.h"
#include "words/tables.h"
#include <QScrollArea>

namespace hinge {
namespace {

constexpr int kFieldWidth = 110;
/// From here on rows are of the cutting machine.
constexpr std::string_view kFirstOfMachine = "blade";

} // namespace

BenchDialog::BenchDialog(Document* document, const Bench& bench, QWidget* parent)
    : WorkDialog(document, tr("My bench"),
                 tr("Tools and habits at the cutting table, described once for all cards: tables, "
                    "rounding and layouts go by them."),
                 parent),
      m_bench(bench) {
  resize(720, 700);
  auto* scroll = new QScrollArea(this);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* inside = new QWidget(scroll);
  auto* column = new QVBoxLayout(inside);
  QFormLayout* form = nullptr;
  const auto group = [&](const QString& title) {
    auto* head = new QLabel(title, inside);
    head->setFont(Look::font(15, QFont::DemiBold));
    column->addWidget(head);
    form = new QFormLayout;
    form->setContentsMargins(12, 0, 0, 12);
    column->addLayout(form);
  };
  group(tr("Trimmer and scoring board"));
  for (const BenchRow& row : benchRows()) {
    if (row.key == kFirstOfMachine) group(tr("Cutting machine"));
    if (row.key == "sides") group(tr("Habits"));
    addRow(form, row);
  }
  group(tr("Speed of the machine, in cm/s"));
  for (const Paper& paper : document->design().papers) {
    auto* field = new QLineEdit(inside);
    field->setFixedWidth(kFieldWidth);
    Bench unset = bench;
    unset.speeds_cms.erase(paper.key);
    field->setPlaceholderText(QString::number(speedFor_cms(paper, unset)));
    if (const auto own = bench.speeds_cms.find(paper.key); own != bench.speeds_cms.end())
      field->setText(QString::number(own->second));
    form->addRow(said(nameOf(paper)), field);
    field->setAccessibleName(tr("Speed on %1").arg(said(nameOf(paper))));
    m_numbers[std::string(kSpeedWord) + paper.key] = field;
  }
  column->addStretch();
  scroll->setWidget(inside);
  m_column->addWidget(scroll, 1);
  addFoot(tr("Keep it"));
  connect(m_take, &QPushButton::clicked, this, &BenchDialog::take);
}

void BenchDialog::addRow(QFormLayout* form, const BenchRow& row) {
  const std::string key(row.key);
  const QString name = asQt(sayBenchRow(row.key));
  if (row.number) {
    auto* field = new QLineEdit(this);
    field->setFixedWidth(kFieldWidth);
    field->setAccessibleName(name);
    const double value = m_bench.*row.number;
    field->setText(row.plain ? QString::number(value, 'g', 6)
                             : asQt(formatLength(value, m_document->design().settings.unit)));
    form->addRow(name, field);
    m_numbers[key] = field;
    return;
  }
  auto* box = new QComboBox(this);
  box->setAccessibleName(name);
  for (std::string_view choice : choicesOf(row.key))
    box->addItem(asQt(saySchool(row.key, choice)), asQt(choice));
  box->setCurrentIndex(box->findData(asQt(schoolOf(m_bench, row.key))));
  box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  box->setMinimumContentsLength(20);
  box->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  form->addRow(name, box);
  m_schools[key] = box;
}

void BenchDialog::take() {
  Bench next = m_bench;
  const LengthUnit unit = m_document->design().settings.unit;
  for (const BenchRow& row : benchRows()) {
    const std::string key(row.key);
    if (!row.number) {
      setSchool(next, row.key, m_schools[key]->currentData().toString().toStdString());
      continue;
    }
    const QString text = m_numbers[key]->text().trimmed();
    if (row.plain) {
      bool number = false;
      next.*row.number = text.toDouble(&number);
      if (!number) return sayRefusal(Error{"value.range/number", sayBenchRow(row.key)});
      continue;
    }
    const auto length = parseLength_mm(text.toStdString(), unit);
    if (!length) return sayRefusal(Error{length.error().message, sayBenchRow(row.key)});
    // What reads the same has not been changed: a finer number stays.
    if (text != asQt(formatLength(m_bench.*row.number, unit))) next.*row.number = *length;
  }
  for (const Paper& paper : m_document->design().papers) {
    const QString text = m_numbers[std::string(kSpeedWord) + paper.key]->text().trimmed();
    next.speeds_cms.erase(paper.key);
    if (text.isEmpty()) continue;
    bool number = false;
    next.speeds_cms[paper.key] = text.toDouble(&number);
    if (!number) return sayRefusal(Error{"value.range/number", say(nameOf(paper))});
  }
  if (const auto kept = keepBench(next); !kept) return sayRefusal(kept.error());
  emit benchChanged();
  emit notice(tr("Kept for all cards"));
  accept();
}

} // namespace hinge
