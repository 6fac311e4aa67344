// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/schedule_bars.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "app/document.h"
#include "words/plan_words.h"
#endif
#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QSpinBox>

namespace hinge {

/// The work on the card, step by step: the maker's ways on top, all steps in a list, the chosen one
/// large with what it needs, how long it takes and what to mind, and the bars of hands and waiting.
/// Planned on another thread.
class MakePlace : public QWidget {
  Q_OBJECT
public:
  explicit MakePlace(Document* document, QWidget* parent = nullptr);
  ~MakePlace() override;
  bool busy() const { return m_busy; }
  const WorkPlan* plan() const { return m_made ? &m_made->plan : nullptr; }
  QListWidget& steps() { return *m_steps; }

signals:
  void refused(const QString& why);

protected:
  void showEvent(QShowEvent*) override;

private:
  struct Made {
    WorkPlan plan;
    std::vector<StepWords> words;
    std::vector<std::string> unreachable;
    Schedule schedule;
  };
  QLayout* makeWays();
  QLayout* makeStep();
  void planAnew();
  void receive(int request, std::shared_ptr<const Made> made);
  void fill();
  void showStep(int row);
  MakingWays ways() const;
  void keep(); ///< the ways, for all cards

  Document* m_document;
  std::shared_ptr<const Made> m_made;
  std::stop_source m_stop;
  int m_request = 0;
  bool m_busy = false, m_stale = true;
  QComboBox *m_closing, *m_joints, *m_moving, *m_layers;
  QSpinBox* m_copies;
  QCheckBox* m_cardByCard;
  QLabel *m_says, *m_what, *m_notes, *m_number, *m_times;
  QListWidget* m_steps;
  ScheduleBars* m_bars;
};

} // namespace hinge
