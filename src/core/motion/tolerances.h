#pragma once
#include "core/units/length.h"

/// Every tolerance of the motion engine, with its unit and reason.
namespace hinge::motion {

/// A closure counts as closed below this (mm). The solver reaches about 1e-12; paper does not know
/// 1e-7.
constexpr double kClosed_mm = 1e-7;
/// Joints typed by hand may stand askew by as much (mm) and still be put together: no paper knows
/// it. Their rings then count as closed at kAskewShare times the gap that is left where they are
/// put together.
constexpr double kAskew_mm = 0.02, kAskewShare = 3;
/// The two sides of a joint meet when they are no farther apart (mm): a third of what hands place
/// glue to, and more than kAskewShare lets rings stand askew.
constexpr double kMeets_mm = 0.15;
/// Corrections stop when the residual is this small relative to the block's size: the floor of
/// double arithmetic.
constexpr double kResidualFloor = 1e-13;
/// Directions of the Jacobian weaker than this share of the strongest are left at the predictor
/// (flat states).
constexpr double kWeakDirection = 1e-5;
/// A Jacobian below this share of the block's size is the rounding of hinges that lie on one line,
/// not a lever.
constexpr double kRoundingLever = 1e-9;
/// Largest change of a fold angle in one correction (rad).
constexpr double kLargestStep_rad = 0.35;
constexpr int kMostCorrections = 40;

/// Largest step of the opening while tracing.
constexpr double kTraceStep_rad = radians(4.0);
/// Smallest step: a structure that cannot be followed over this is at its limit.
constexpr double kLeastTraceStep_rad = radians(1e-5);
/// The trace approaches the flat states by halves down to this distance.
constexpr double kFlatDistance_rad = radians(1e-3);
/// A step is refused when the correction is larger than this share of the step itself ...
constexpr double kCorrectionShare = 0.6;
/// ... unless the correction is too small to matter (rad).
constexpr double kHarmlessCorrection_rad = 1e-3;

} // namespace hinge::motion
