// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/newest_work.h"
#include "app/profile_view.h"
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSpinBox>
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/checks/finding.h"
#endif

namespace hinge {

/// What is typed and worked out for the selected free piece, beside the sheet under the hand: its
/// folded profile, its scores as a list, and what the program can work out.
class WorkPanel : public QWidget {
  Q_OBJECT
public:
  explicit WorkPanel(Document* document, QWidget* parent = nullptr);
  ProfileView& profile() { return *m_profile; }
  QLineEdit& scores() { return *m_scores; }
  QPushButton& solveButton() { return *m_solve; }
  QPushButton& stepsButton() { return *m_even; }
  QPushButton& wrapButton() { return *m_wrap; }
  QPushButton& fitButton() { return *m_fit; }
  void refill();

signals:
  void refused(const QString& why);
  void notice(const QString& text);

private:
  QHBoxLayout* makeSolvers(); ///< what works the scores out
  QHBoxLayout* makeTools();   ///< what makes it another piece
  std::optional<StructureItem> item() const;
  void commitScores();
  /// Works out on another thread what makes the piece lie flat.
  void solve();
  struct Solved {
    bool flatAlready = false;
    std::optional<Mend> mend;
  };
  void takeSolved(const std::shared_ptr<const Snapshot>& of, const Solved& solved);

  Document* m_document;
  PieceEditor* m_editor; ///< of the selected piece
  ProfileView* m_profile;
  QLineEdit* m_scores;
  QSpinBox* m_steps;
  NewestWork m_solving{this};
  QPushButton *m_solve, *m_even, *m_wrap, *m_fit;
};

} // namespace hinge
