// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/making/work_record.h"
#include <span>

namespace hinge {

/// One card on the table: which step is next, what sets, what went wrong. Everything it knows is in
/// its record, which can be written after each act and read again later. Time comes from outside,
/// in seconds since 1970.
class BenchWork {
public:
  /// The plan must outlive it. `parts`: how many numbers are shown one after another in each step,
  /// at least one. What the record says of steps that the plan has no more is kept and left alone.
  BenchWork(const WorkPlan& plan, const Assembly& assembly, std::vector<int> parts,
            WorkRecord record, double now_s);

  const WorkRecord& record() const { return m_record; }
  std::size_t steps() const { return m_names.size(); }
  std::size_t current() const { return m_current; }
  int part() const { return m_record.part; }
  bool done(std::size_t step) const;
  std::size_t doneCount() const;
  bool finished() const { return doneCount() == steps(); }

  /// The next number of the step; after the last the step is ticked off, what must set begins to,
  /// and the next step that is not done comes.
  void next(double now_s);
  /// To the number or step before; it is not done any more when it is gone over again.
  void back(double now_s);
  void goTo(std::size_t step, double now_s);

  /// Notes what went wrong with the current step: its pieces must be cut again, and it is done
  /// again. Returns the pieces.
  std::vector<PieceIndex> wrong(const std::string& word, double now_s);
  /// Notes what the ruler shows; true when it is as near as it must be. Of a step that measures.
  bool measure(double mm, double now_s);

  struct Running {
    std::size_t step; ///< that must set
    double left_s;    ///< not positive: it has
  };
  std::vector<Running> running(double now_s) const;
  /// Timers that have ended since they were last asked for: to be told by sound and picture.
  std::vector<std::size_t> ended(double now_s);
  /// Seconds that the current step must still wait because something of its pieces sets.
  double setting_s(double now_s) const;

private:
  void tick(double now_s);
  void arrive(std::size_t step, double now_s);
  int indexOf(const std::string& name) const;

  const WorkPlan* m_plan;
  std::vector<std::string> m_names;
  std::vector<std::string> m_pieceKeys;
  std::vector<int> m_parts;
  WorkRecord m_record;
  std::size_t m_current = 0;
  double m_since_s = 0; ///< when the current step came
};

} // namespace hinge
