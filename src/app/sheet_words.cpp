// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/sheet_words.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/edits/sheet.h"
#include <QDialog>
#include <QDialogButtonBox>
#include <QFontDatabase>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QShortcut>
#include <QVBoxLayout>

namespace hinge {

SheetWords::SheetWords(Document* document, QWidget* parent)
    : QWidget(parent), m_document(document) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  auto* head = new QHBoxLayout;
  m_which = new QComboBox(this);
  m_which->setObjectName(QStringLiteral("which-sheet"));
  m_which->setAccessibleName(tr("Sheet of the base"));
  auto* take = new QPushButton(tr("Take it over"), this);
  take->setObjectName(QStringLiteral("take-sheet"));
  take->setToolTip(tr("Ctrl+Enter"));
  head->addWidget(m_which);
  auto* grammar = new QPushButton(tr("What can be said …"), this);
  grammar->setObjectName(QStringLiteral("sheet-grammar"));
  connect(grammar, &QPushButton::clicked, this, &SheetWords::showGrammar);
  auto* hint = new QLabel(tr("One sentence a line"), this);
  hint->setObjectName(QStringLiteral("soft"));
  head->addWidget(hint, 1);
  head->addWidget(grammar);
  head->addWidget(take);
  column->addLayout(head);
  m_words = new QPlainTextEdit(this);
  m_words->setObjectName(QStringLiteral("sheet-words"));
  m_words->setAccessibleName(tr("The sheet in words"));
  m_words->setFixedHeight(150);
  column->addWidget(m_words);
  connect(take, &QPushButton::clicked, this, &SheetWords::takeOver);
  auto* key = new QShortcut(QKeySequence(Qt::CTRL | Qt::Key_Return), m_words);
  key->setContext(Qt::WidgetShortcut);
  connect(key, &QShortcut::activated, this, &SheetWords::takeOver);
  connect(m_which, &QComboBox::activated, this, &SheetWords::showSheet);
  connect(document, &Document::designChanged, this, &SheetWords::refill);
  refill();
}

void SheetWords::refill() {
  const auto count = static_cast<int>(m_document->design().card.sheets.size());
  setVisible(count > 0);
  if (count == 0) return;
  if (m_which->count() != count + 1) {
    const int kept = std::clamp(m_which->currentIndex(), 0, count - 1);
    m_which->clear();
    for (int k = 0; k < count; ++k)
      m_which->addItem(said(Text("sheet", k + 1)));
    m_which->addItem(tr("another sheet"));
    m_which->setCurrentIndex(kept);
  }
  showSheet();
}

void SheetWords::showSheet() {
  const Design& d = m_document->design();
  const auto which = static_cast<std::size_t>(m_which->currentIndex());
  QStringList lines;
  if (which < d.card.sheets.size())
    for (const std::string& line : sentencesOf(sheetOf(d, {{}, which}), d.settings.unit))
      lines << QString::fromStdString(line);
  m_words->setPlainText(lines.join(QLatin1Char('\n')));
}

void SheetWords::showGrammar() {
  auto* dialog = new QDialog(window());
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->setWindowTitle(tr("What can be said of a sheet"));
  auto* column = new QVBoxLayout(dialog);
  auto* text = new QPlainTextEdit(said(Text("help.sheet-sentences")), dialog);
  text->setObjectName(QStringLiteral("grammar"));
  text->setAccessibleName(dialog->windowTitle());
  text->setReadOnly(true);
  text->setFont(QFontDatabase::systemFont(QFontDatabase::FixedFont));
  column->addWidget(text);
  auto* close = new QDialogButtonBox(QDialogButtonBox::Close, dialog);
  connect(close, &QDialogButtonBox::rejected, dialog, &QDialog::reject);
  column->addWidget(close);
  dialog->resize(860, 560);
  dialog->open();
}

void SheetWords::takeOver() {
  const Design& d = m_document->committed();
  const LengthUnit unit = d.settings.unit;
  SheetInWork sheet{{}, true, {}};
  for (const QString& line : m_words->toPlainText().split(QLatin1Char('\n'), Qt::SkipEmptyParts)) {
    if (line.trimmed().isEmpty()) continue;
    auto next = workedBy(sheet, line.toStdString(), unit);
    if (!next) {
      emit refused(said(next.error(), unit));
      return;
    }
    sheet = std::move(next).value();
  }
  const auto next = withSheet(d, {{}, static_cast<std::size_t>(m_which->currentIndex())}, sheet);
  const auto applied = next
                           ? m_document->apply(followingTheSheet(d, *next), tr("work on the sheet"))
                           : Result<void>(next.error());
  if (!applied) emit refused(said(applied.error(), unit));
}

} // namespace hinge
