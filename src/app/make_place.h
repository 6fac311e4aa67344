// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/schedule_bars.h"
#include "app/step_view.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "app/analyst.h"
#include "app/document.h"
#include "core/io/work_record_json.h"
#include "words/plan_words.h"
#endif
#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QSpinBox>

namespace hinge {

/// A plan of the work with all that is shown of it.
struct ReadyPlan {
  std::shared_ptr<const PlannedWork> work;
  std::vector<StepWords> words;
  std::vector<std::string> unreachable;
  Schedule schedule;
  std::shared_ptr<const StepPainter> painter;
};

/// The work on the card, step by step: the maker's ways on top, all steps as pictures in a strip,
/// the chosen one large with what it needs, how long it takes and what to mind, and the bars of
/// hands and waiting. Planned and painted on other threads.
class MakePlace : public QWidget {
  Q_OBJECT
public:
  MakePlace(Document* document, Analyst* analyst, QWidget* parent = nullptr);
  bool busy() const {
    return m_planning.running() || m_thumbs.running() || m_opening.running() || m_view->busy();
  }
  const WorkPlan* plan() const { return m_made ? &m_made->work->plan : nullptr; }
  std::shared_ptr<const ReadyPlan> made() const { return m_made; }
  QListWidget& steps() { return *m_steps; }
  StepView& view() { return *m_view; }

  /// The work over the whole screen, from where its record beside the file says.
  void openBench(); ///< once the record beside the card is read
  void openRehearsal();

signals:
  void refused(const QString& why);
  void notice(const QString& text);

protected:
  void showEvent(QShowEvent*) override;

private:
  QLayout* makeWays();
  QLayout* makeStep();
  QLayout* makeActions();
  void openBooklet();
  void planAnew();
  void receive(std::shared_ptr<const ReadyPlan> made);
  void fill();
  void drawStrip();
  void putPicture(std::size_t step, std::size_t count, const QImage& image);
  void showStep(int row);
  void sayPlan();
  /// Steps at which what spoils the card shows first, and what it is.
  void markTrouble();
  MakingWays ways() const;
  void keep(); ///< the ways, for all cards
  void showBench(const RecordToGoOn& record, const std::string& path);

  Document* m_document;
  Analyst* m_analyst;
  std::shared_ptr<const ReadyPlan> m_made;
  bool m_stale = true;
  bool m_waysChanged = false; ///< the plan that comes is for the same card in other ways
  QString m_changed;          ///< what that changed
  QComboBox *m_closing, *m_joints, *m_moving, *m_layers;
  QLineEdit* m_pressed;
  std::map<Adhesive, double> m_holds_s; ///< the maker's own, by adhesive
  void sayPressed();
  void keepPressed();
  QSpinBox* m_copies;
  QCheckBox* m_cardByCard;
  QLabel *m_says, *m_what, *m_notes, *m_number, *m_times;
  QPushButton *m_play, *m_bench, *m_booklet, *m_rehearse, *m_cancel;
  QListWidget* m_steps;
  StepView* m_view;
  ScheduleBars* m_bars;
  std::vector<QString> m_trouble; ///< per step: why it will fail; empty: it will not
  NewestWork m_planning, m_thumbs, m_opening;
};

} // namespace hinge
