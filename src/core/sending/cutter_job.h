// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/sending/tool_way.h"
#include <array>
#include <limits>
#include <span>

namespace hinge {

/// Places on the bed of a machine: 1/40 mm, x to the right and y up from the sheet's lower left
/// corner, as HPGL counts.
using MachinePoint = std::array<int, 2>;
constexpr double kMachineUnit_mm = 0.025;
constexpr int kMachineMost = 32767; ///< the largest number that such machines take

double lengthOf_mm(std::span<const MachinePoint> way);

/// One stroke as the machine makes it: the tool goes to the start of the way raised, along it
/// lowered. The way is parted into at least two legs, each of which is sent and confirmed by
/// itself; where the tool stopped tells how far it came without doubt, because start and end of a
/// closed way lie in different legs, and only the first has the tool raised.
struct CutterStep {
  StrokeKind kind = StrokeKind::CutOutline;
  std::size_t part = kNoPart; ///< in the plan
  int tool = 1;               ///< 1 scores, 2 cuts
  std::vector<MachinePoint> way;
  std::vector<std::size_t> legs; ///< the point of the way at which each leg ends
  static constexpr std::size_t kNoPart = std::numeric_limits<std::size_t>::max();
};

/// All that is done to one sheet.
struct CutterJob {
  double width_mm = 0, height_mm = 0; ///< of the sheet
  int speed_cms = 0;                  ///< 0: as the machine stands
  int force_g = 0;                    ///< of the knife; 0: as the machine stands
  std::vector<CutterStep> steps;
  double lowered_mm() const; ///< way of all tools in the paper
  double raised_mm() const;  ///< between strokes
  double seconds() const;    ///< about how long it takes
};

/// What a machine does with what it is told: a place p comes out at scale * p + offset, for each
/// axis. Told is what comes out right.
struct MachineFit {
  Vec2 scale = Vec2::Ones();
  Vec2 offset_mm = Vec2::Zero();
  Vec2 told(const Vec2& wanted) const {
    return ((wanted - offset_mm).array() / scale.array()).matrix();
  }
};
/// What the maker's bench says of the machine.
MachineFit fitOf(const Bench& bench);
void setFit(Bench& bench, const MachineFit& fit);

/// The job for one sheet of a plan. Errors: "cutter.large" (the sheet is beyond what machines
/// count), "cutter.outside" (what is told of a part lies below zero).
Result<CutterJob> cutterJob(const CutPlan& plan, std::size_t sheet, const Design& design,
                            const Bench& bench);

/// A place on a step's way: behind which of its points, and where exactly.
struct WayPlace {
  std::size_t behind = 0;
  MachinePoint at{};
  bool operator==(const WayPlace&) const = default;
};
WayPlace startOf(const CutterStep& step, std::size_t leg);

/// HPGL of one leg, from a place on its way. `lowered` when the tool is in the paper there.
std::string hpglOf(const CutterJob& job, const CutterStep& step, std::size_t leg,
                   const WayPlace& from, bool lowered);
/// HPGL of a whole job, for a file.
std::string hpglOf(const CutterJob& job);

/// Where on a leg, at or after a place, the tool stands; nothing when it stands off the way by more
/// than two units.
std::optional<WayPlace> placeOn(const CutterStep& step, std::size_t leg, const WayPlace& from,
                                const MachinePoint& tool);

/// A job's own number: jobs that do the same have the same.
std::string markOf(const CutterJob& job);

/// Two squares of 20 mm, the second as far from the first as the sheet lets it, told as they are:
/// what comes of them tells how a machine is off. `Measured` is read with a ruler.
struct TestSquares {
  CutterJob job;
  Vec2 first_mm, apart_mm; ///< lower left corner of the first; from there to that of the second
};
constexpr double kSquare_mm = 20;
Result<TestSquares> testSquares(double width_mm, double height_mm, const Paper& paper,
                                const Bench& bench);
struct MeasuredSquares {
  Vec2 first_mm, apart_mm;
};
/// How the machine is off. Error "cutter.measured" when a scale is beyond 10 %.
Result<MachineFit> fitFrom(const TestSquares& told, const MeasuredSquares& measured);

/// Speed (cm/s) and force (g) that a paper of a thickness gets when its maker says nothing.
int speedFor_cms(const Paper& paper, const Bench& bench);
int forceFor_g(const Paper& paper);

} // namespace hinge
