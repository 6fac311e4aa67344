// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/document.h"
#include <QComboBox>
#include <QPlainTextEdit>
#include <QWidget>

namespace hinge {

/// The sheets of a base in words, one sentence a line, as the command line takes them (see
/// core/pieces/sheet_words.h). What is typed is taken over by the button or Ctrl+Enter, as one step
/// that can be undone; a sentence that is not understood is refused and stays to be mended.
class SheetWords : public QWidget {
  Q_OBJECT
public:
  explicit SheetWords(Document* document, QWidget* parent = nullptr);
  QPlainTextEdit* words() const { return m_words; }
  QComboBox* choice() const { return m_which; }
  void takeOver();

signals:
  void refused(const QString& why);

private:
  void refill();
  void showSheet();
  void showGrammar();
  Document* m_document;
  QComboBox* m_which;
  QPlainTextEdit* m_words;
};

} // namespace hinge
