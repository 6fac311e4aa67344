// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/analyst.h"
#include "app/document.h"
#include <QLabel>
#include <QPushButton>
#include <QTimer>
#include <QVBoxLayout>
#include <vector>

namespace hinge {

/// Findings as sentences with a number, "show me" and the mend written out. While a design is being
/// checked the old verdict is gone, never shown as current.
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
  /// Many findings are shown some at a time, so that the window stays at hand.
  static constexpr int kRowsAtOnce = 12;
  struct Row {
    QVBoxLayout* texts;
    QWidget* mend;      ///< the button or the words in its place
    bool sought;        ///< it does not wait for a mend any more
    std::size_t others; ///< mends beside the first that it shows
  };
  void rebuild();
  void showWorking();
  void changeEvent(QEvent* event) override; ///< another bench has other colours
  void showVerdict(const Analysis& analysis);
  void clearRows();
  void addRows(); ///< the next ones that are not there yet
  void addRow(const Analysis& analysis, std::size_t index);
  QWidget* mendOf(const Finding& finding, std::size_t index, const Design& design);
  QPushButton* mendButton(const Mend& change, const QString& how, std::size_t finding,
                          const Design& design);
  void showMend(Row& row, const Finding& finding, std::size_t index, const Design& design);
  void addFacts(const Analysis& analysis);

  Document* m_document;
  Analyst* m_analyst;
  QLabel* m_verdict;
  QPushButton* m_mendAll;
  QVBoxLayout* m_list;
  QWidget* m_content;
  std::shared_ptr<const Motion> m_shownOf; ///< the motion whose findings stand in the rows
  std::vector<Row> m_rows;
  QTimer m_more;
};

} // namespace hinge
