// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/score_ruler.h"
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSpinBox>
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/checks/finding.h"
#include <stop_token>
#endif

namespace hinge {

class JointsDialog;

/// Everything about the selected free piece that is worked into it: the score ruler, the scores as
/// a typed list, what the program can work out, and its joints.
class WorkPanel : public QWidget {
  Q_OBJECT
public:
  explicit WorkPanel(Document* document, QWidget* parent = nullptr);
  ~WorkPanel() override { m_stop.request_stop(); }
  ScoreRuler& ruler() { return *m_ruler; }
  QLineEdit& scores() { return *m_scores; }
  QPushButton& solveButton() { return *m_solve; }
  QPushButton& stepsButton() { return *m_even; }
  QPushButton& wrapButton() { return *m_wrap; }
  QPushButton& shapeButton() { return *m_shape; }
  QPushButton& fitButton() { return *m_fit; }
  QPushButton& jointsButton() { return *m_joints; }
  void refill();

signals:
  void refused(const QString& why);
  void notice(const QString& text);
  void jointsOpened(JointsDialog* dialog);

private:
  QHBoxLayout* makeSolvers(); ///< what works the scores out
  QHBoxLayout* makeTools();   ///< what opens a dialog
  std::optional<StructureItem> item() const;
  void commitScores();
  /// Works out on another thread what makes the piece lie flat.
  void solve();
  struct Solved {
    bool flatAlready = false;
    std::optional<Mend> mend;
  };
  void takeSolved(const std::shared_ptr<const Snapshot>& of, const Solved& solved);
  void openJoints();

  Document* m_document;
  PieceEditor* m_editor; ///< of the selected piece
  ScoreRuler* m_ruler;
  QLineEdit* m_scores;
  QSpinBox* m_steps;
  std::stop_source m_stop; ///< of what is being worked out
  QPushButton *m_solve, *m_even, *m_wrap, *m_fit, *m_shape, *m_joints;
};

} // namespace hinge
