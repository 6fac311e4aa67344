// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/fit_dialog.h"
#include "app/saying.h"
#include "core/units/length.h"
#include <QHBoxLayout>
#include <QHeaderView>

namespace hinge {

FitDialog::FitDialog(Document* document, std::optional<StructureId> piece, QWidget* parent)
    : WorkDialog(
          document, piece ? tr("Fit to another length") : tr("Fit to another sheet"),
          piece ? tr("Free lengths grow in proportion until the piece is as long as this; its feet "
                     "stand farther out, its windows with it.")
                : tr("Free lengths grow in proportion until the open sheet is as long as this. "
                     "Ticked lengths are locked: at first those along the folds, and the tabs."),
          parent),
      m_piece(piece) {
  resize(560, 520);
  const LengthUnit unit = document->committed().settings.unit;
  auto* row = new QHBoxLayout;
  row->addWidget(new QLabel(tr("Flat length"), this));
  m_length = new QLineEdit(this);
  m_length->setFixedWidth(120);
  m_length->setAccessibleName(tr("Flat length"));
  if (const auto now = flatLength_mm(document->committed(), piece))
    m_length->setText(QString::fromStdString(formatLength(*now, unit)));
  row->addWidget(m_length);
  row->addStretch();
  m_column->addLayout(row);
  makeTable();
  addFoot(tr("Fit it"));
  connect(m_take, &QPushButton::clicked, this, &FitDialog::take);
  connect(m_length, &QLineEdit::textChanged, this, &FitDialog::work);
  connect(m_table, &QTableWidget::itemChanged, this, [this](QTableWidgetItem* item) {
    if (item->column() == 0) work();
  });
  // What it was worked out from is gone when the document changes behind it.
  connect(document, &Document::designChanged, this, &QDialog::reject);
  work();
}

void FitDialog::makeTable() {
  const LengthUnit unit = m_document->committed().settings.unit;
  m_rows = lengthRows(m_document->committed(), m_piece);
  m_table = new QTableWidget(static_cast<int>(m_rows.size()), 3, this);
  m_table->setAccessibleName(tr("Lengths locked and free"));
  m_table->setHorizontalHeaderLabels({tr("Held"), tr("Now"), tr("Then")});
  m_table->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  m_table->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft);
  m_table->verticalHeader()->hide();
  m_table->setShowGrid(false);
  m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
  for (std::size_t k = 0; k < m_rows.size(); ++k) {
    const int at = static_cast<int>(k);
    auto* name = new QTableWidgetItem(said(m_rows[k].label));
    name->setFlags(Qt::ItemIsEnabled | Qt::ItemIsUserCheckable | Qt::ItemIsSelectable);
    name->setCheckState(m_rows[k].held ? Qt::Checked : Qt::Unchecked);
    m_table->setItem(at, 0, name);
    m_table->setItem(
        at, 1,
        new QTableWidgetItem(QString::fromStdString(formatLength(m_rows[k].value_mm, unit))));
    m_table->setItem(at, 2, new QTableWidgetItem);
  }
  m_column->addWidget(m_table, 1);
}

std::set<std::string> FitDialog::held() const {
  std::set<std::string> keys;
  for (std::size_t k = 0; k < m_rows.size(); ++k)
    if (m_table->item(static_cast<int>(k), 0)->checkState() == Qt::Checked)
      keys.insert(m_rows[k].key);
  return keys;
}

void FitDialog::work() {
  m_fitted.reset();
  const Design& design = m_document->committed();
  const LengthUnit unit = design.settings.unit;
  const auto length = parseLength_mm(m_length->text().trimmed().toStdString(), unit);
  auto fitted =
      length ? fittedTo(design, m_piece, *length, held()) : Result<Fitted>(length.error());
  std::vector<LengthRow> then;
  if (fitted) {
    if (auto possible = Snapshot(fitted->design).possible(); !possible)
      fitted = possible.error();
    else
      then = lengthRows(fitted->design, m_piece);
  }
  for (std::size_t k = 0; k < m_rows.size(); ++k)
    m_table->item(static_cast<int>(k), 2)
        ->setText(k < then.size() ? QString::fromStdString(formatLength(then[k].value_mm, unit))
                                  : QString());
  if (fitted) {
    m_says->setText(
        tr("Free lengths become %1 % of what they are.").arg(100 * fitted->factor, 0, 'f', 1));
    m_fitted = *fitted;
  } else
    sayRefusal(fitted.error());
  m_take->setEnabled(m_fitted.has_value());
}

void FitDialog::take() {
  if (!m_fitted) return;
  const Design next = m_fitted->design;
  const double factor = m_fitted->factor;
  if (const auto done = m_document->apply(next, m_piece ? tr("fit to another length")
                                                        : tr("fit to another sheet"));
      !done)
    return m_says->setText(said(done.error(), m_document->design().settings.unit));
  emit notice(tr("Fitted: free lengths are %1 % of what they were").arg(100 * factor, 0, 'f', 1));
}

} // namespace hinge
