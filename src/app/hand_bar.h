// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/fold_hand.h"
#include "app/joint_hand.h"
#include <QLabel>
#include <QToolButton>
#include <map>

namespace hinge {

/// What the hand does, as words over the sheet, each with the letter that chooses it; below them
/// what that needs to know, and what was said last.
class HandBar : public QWidget {
  Q_OBJECT
public:
  HandBar(SheetHand* hand, SheetView* sheet, JointHand* joints, FoldHand* folds, StageView* stage,
          QWidget* parent = nullptr);

  /// The letter of a word, or of one of its choices, as if it were clicked.
  void choose(int key);
  /// Takes up the tool of a letter; false when it is the letter of none.
  bool takeUpBy(int key);
  QToolButton* word(const QString& name) const;

signals:
  void refused(const QString& why);

private:
  enum class Way { Tool, Join, Fold };
  struct Word {
    QToolButton* button;
    int key;
    Way way;
    SheetTool tool;
  };
  void addWord(const QString& text, const QString& name, int key, Way way,
               SheetTool tool = SheetTool::Hold, const QString& tip = {});
  void takeUp(const Word& word);
  QToolButton* addChoice(const QString& text, const QString& name, const std::function<void()>& run,
                         const std::function<bool()>& on, const std::function<bool()>& shown);
  void addChoices();
  void addShapes();
  void addJointChoices();
  void refresh();

  struct Choice {
    QToolButton* button;
    std::function<bool()> on, shown;
  };
  SheetHand* m_hand;
  SheetView* m_sheet;
  JointHand* m_joints;
  FoldHand* m_folds;
  StageView* m_stage;
  Way m_way = Way::Tool;
  std::vector<Word> m_words;
  std::vector<Choice> m_choices;
  QLayout *m_wordRow, *m_choiceRow;
  QLineEdit* m_more;
  QLabel* m_said;
};

} // namespace hinge
