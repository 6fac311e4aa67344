// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/making/work_record.h"
#include <deque>

namespace hinge {

/// One thing that the maker decides while the card is built on the screen.
struct RehearsalTask {
  enum class Kind {
    FoldSense, ///< mountain or valley, as the face of the piece looks up
    NextJoint, ///< which joint is made next
    GlueSide   ///< face or back of the tab
  };
  Kind kind = Kind::FoldSense;
  FoldIndex fold;                   ///< FoldSense
  std::size_t step = 0;             ///< of the plan: NextJoint, GlueSide
  std::vector<std::size_t> choices; ///< NextJoint: steps that are offered, in the order of the plan
  bool operator==(const RehearsalTask&) const = default;
};

/// What a wrong answer leads to, apart from the paper that goes wrong (see foldedWrong()).
struct Misstep {
  /// NextJoint: the joint's step that cannot be reached any more once the chosen one is made.
  std::size_t outOfReach = 0;
  /// GlueSide: how far (mm) the piece comes to lie off its other places when it is turned over;
  /// 0: it has no others, and looks away.
  double off_mm = 0;
};

/// Building the card on the screen, decision by decision. Right answers are never told first; what
/// was wrong comes again after a few other tasks, and it is over when the card was built twice
/// without an error. Everything follows from plan, assembly and the answers.
class Rehearsal {
public:
  /// Plan and assembly must outlive it. `shut` is the motion's shut pose, for what a piece turned
  /// over would miss.
  Rehearsal(const WorkPlan& plan, const Assembly& assembly, const Pose& shut);

  const RehearsalTask& task() const { return m_open.front(); }
  /// The step of the plan up to which joints are made at this task.
  std::size_t builtUpTo() const;
  bool over() const { return m_clean >= kClean; }
  int clean() const { return m_clean; }              ///< times built without an error in a row
  std::size_t left() const { return m_open.size(); } ///< tasks of this card
  std::size_t ofAll() const { return m_all.size(); }
  int rights() const { return m_rights; }
  int wrongs() const { return m_wrongs; }
  static constexpr int kClean = 2;
  static constexpr std::size_t kAgainAfter = 3; ///< other tasks before one that was wrong

  /// Whether the answer to the task is right: for FoldSense 0 mountain, 1 valley; for GlueSide 0
  /// face, 1 back; for NextJoint the place in `choices`.
  bool isRight(int answer) const;
  /// What a wrong one leads to.
  Misstep misstep(int answer) const;
  /// Takes the answer; the next task comes. `forgiven`: a wrong one that works as well.
  void answer(int answer, bool forgiven = false);

private:
  void begin();
  std::vector<RehearsalTask> tasks() const;
  std::optional<RehearsalTask> nextJoint(std::size_t step) const;

  const WorkPlan& m_plan;
  const Assembly& m_assembly;
  Pose m_shut;
  std::vector<RehearsalTask> m_all;
  std::deque<RehearsalTask> m_open;
  bool m_erred = false; ///< in the card that is being built
  int m_clean = 0, m_rights = 0, m_wrongs = 0;
};

/// Turns a piece over about the fold at the tab of a glue, from where it is in a pose; nothing when
/// the tab has no fold.
std::optional<Iso3> turnedOver(const Assembly& assembly, const Glue& glue, const Pose& pose);

/// The joints of a plan in which most can go wrong, the worst first: pressed by shutting the card
/// or by a finger, before another that shuts them in, closing a ring, narrow. At most `most`.
std::vector<std::size_t> trickiestJoints(const WorkPlan& plan, const Assembly& assembly,
                                         std::size_t most = 3);

} // namespace hinge
