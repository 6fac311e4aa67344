// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/make_place.h"
#include "app/record_writer.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/making/rehearsal.h"
#include "render/rehearsal_picture.h"
#endif

namespace hinge {

/// The card is built on the screen before good paper is touched: what is decided happens, and what
/// is wrong shows what it leads to. Answers by key (1, 2, 3) or pointer; any key goes on after a
/// wrong one. The result goes into the card's side record.
class RehearsalWindow : public QWidget {
  Q_OBJECT
public:
  RehearsalWindow(std::shared_ptr<const ReadyPlan> plan, std::string recordPath,
                  QWidget* parent = nullptr);
  ~RehearsalWindow() override; ///< keeps what was learnt so far

  const Rehearsal& rehearsal() const { return *m_rehearsal; }
  /// A consequence is shown, or being worked out: the next key goes on.
  bool showsMistake() const { return m_mistake; }
  bool busy() const {
    return m_work.running() || m_view->busy() || m_practice.running() || m_writer.busy();
  }
  StepView& view() { return *m_view; }
  /// A small card with the trickiest joints, to be printed.
  void writePractice(const QString& path);

signals:
  void refused(const QString& why);

protected:
  void keyPressEvent(QKeyEvent*) override;
  void closeEvent(QCloseEvent*) override;

private:
  QLayout* makeFoot();
  void ask();
  void answer(int number);
  void wrong(int number);
  void goOn();
  void askPractice();
  void keep();

  std::shared_ptr<const ReadyPlan> m_plan;
  std::string m_path;
  std::shared_ptr<const RehearsalPainter> m_painter;
  std::unique_ptr<Rehearsal> m_rehearsal;
  bool m_mistake = false, m_forgiven = false, m_kept = false;
  int m_answer = -1; ///< that waits to be taken
  StepView* m_view;
  QLabel *m_place, *m_question, *m_says;
  std::vector<QPushButton*> m_answers;
  QPushButton *m_next, *m_practise;
  NewestWork m_work, m_practice;
  RecordWriter m_writer;
};

} // namespace hinge
