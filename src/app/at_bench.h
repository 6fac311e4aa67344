// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/record_writer.h"
#include "app/step_view.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "app/make_place.h"
#include "core/making/bench_work.h"
#include "words/bench_words.h"
#endif
#include <QLabel>
#include <QLineEdit>
#include <QTimer>

namespace hinge {

class KeptRecord;

/// The work as it is done, over the whole screen, to be read from a metre away: one step with its
/// picture, at most two sentences, the next number very large. Keys, a pedal or a touch go on.
/// What is done, measured and gone wrong is written beside the card's file after every act.
class AtBench : public QWidget {
  Q_OBJECT
public:
  /// `record`: the path of the side record.
  AtBench(std::shared_ptr<const ReadyPlan> plan, WorkRecord record, std::string path,
          QWidget* parent = nullptr);

  /// A sentence that stays on the bench until the next act.
  void tell(const QString& what);

  const BenchWork& work() const { return *m_work; }
  StepView& view() { return *m_view; }
  QString number() const { return m_number->text(); }
  void goOn();                                     ///< to the next number, or step
  bool keeping() const { return m_writer.busy(); } ///< the record is still on its way to the disk

signals:
  void refused(const QString& why);

protected:
  void keyPressEvent(QKeyEvent*) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  enum class Asks { Nothing, Word, Measure };
  Asks endEntry();
  QLayout* makeHead();
  QLayout* makeFoot();
  void act(const std::function<void(double now_s)>& what);
  void keepRecord();
  void refresh(bool picture);
  void tellTimers();
  void askWord();
  void askMeasure(const QString& begun);
  void ask(Asks what, const QString& begun, const QString& name, const QString& hint);
  void enter();

  std::shared_ptr<const ReadyPlan> m_plan;
  std::shared_ptr<KeptRecord> m_kept;
  std::vector<std::vector<BenchNumber>> m_numbers; ///< per step
  std::unique_ptr<BenchWork> m_work;
  CutPlan m_sheets;
  std::size_t m_shown = std::size_t(-1);
  std::size_t m_timesKept = 0; ///< of the record, that the maker's file has
  QString m_told;              ///< what happened last
  QString m_notKept;           ///< why the record is not on disk
  Asks m_asks = Asks::Nothing;
  QLabel *m_place, *m_timers, *m_what, *m_more, *m_number, *m_of, *m_says, *m_keys;
  QLineEdit* m_entry;
  StepView* m_view;
  QTimer m_second;
  NewestWork m_laying;
  RecordWriter m_writer;
};

} // namespace hinge
