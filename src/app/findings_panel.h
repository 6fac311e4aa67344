#pragma once
#include "app/analyst.h"
#include "app/document.h"
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace hinge {

/// Findings as sentences with a number, "show me" and the mend written out. While a design is being checked the old
/// verdict is gone, never shown as current.
class FindingsPanel : public QWidget {
  Q_OBJECT
public:
  FindingsPanel(Document* document, Analyst* analyst, QWidget* parent = nullptr);
  QPushButton* mendButton(int index) const;
  QPushButton* mendAllButton() const { return m_mendAll; }
  QString verdictText() const { return m_verdict->text(); }

signals:
  void showRequested(int index);
  void refused(const QString& why);

private:
  void rebuild();
  Document* m_document;
  Analyst* m_analyst;
  QLabel* m_verdict;
  QPushButton* m_mendAll;
  QVBoxLayout* m_list;
  QWidget* m_content;
};

} // namespace hinge
