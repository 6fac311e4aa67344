// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/making/work_plan.h"
#include <map>
#include <string>

namespace hinge {

/// A name for every step of a plan, by what it is about, that stays when the plan is made anew in
/// other ways: "join:s1/tab-a", "dress:s2/walls". Each is there once.
std::vector<std::string> stepNames(const WorkPlan& plan, const Assembly& assembly);

/// What happened to one card on the table: kept beside its file. Times of day in seconds since 1970
/// (UTC).
struct WorkRecord {
  struct Timer {
    std::string step; ///< that must set
    double ends_s = 0;
    bool heard = false; ///< its end was told
    bool operator==(const Timer&) const = default;
  };
  /// Something that went wrong.
  struct Miss {
    std::string step, word;
    double at_s = 0;
    std::vector<std::string> pieces; ///< keys of those that must be cut again
    bool operator==(const Miss&) const = default;
  };
  struct Measured {
    std::string step;
    double mm = 0, wanted_mm = 0, at_s = 0;
    bool operator==(const Measured&) const = default;
  };
  /// How long hands had with a step.
  struct Took {
    std::string step, kind;
    double planned_s = 0, took_s = 0;
    bool operator==(const Took&) const = default;
  };
  /// A rehearsal on the screen.
  struct Rehearsed {
    double at_s = 0;
    int rights = 0, wrongs = 0;
    bool finished = false; ///< built twice without an error
    bool operator==(const Rehearsed&) const = default;
  };
  std::vector<std::string> done;
  std::string current; ///< empty: at the beginning
  int part = 0;        ///< of the current step's numbers, from 0
  std::vector<Timer> timers;
  std::vector<Miss> misses;
  std::vector<Measured> measured;
  std::vector<Took> times;
  std::vector<Rehearsed> rehearsed;
  bool operator==(const WorkRecord&) const = default;
};

/// The maker's own times, gathered over cards: by kind of step, what was planned and what it took.
struct OwnTimes {
  struct Sum {
    double planned_s = 0, took_s = 0;
    int count = 0;
  };
  std::map<std::string, Sum, std::less<>> kinds;
  void add(const WorkRecord::Took& took);
  /// By how much this maker is slower or quicker than the table; 1 until there are a few notes.
  double factor(WorkKind kind) const;
};
/// Hands take the maker's own time.
void timeByOwn(WorkPlan& plan, const OwnTimes& own);

} // namespace hinge
