// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/units/length.h"

// Every tolerance that several places share or that decides a verdict, with its unit and reason.
// What only guards one formula against a division by nothing stands beside it.

/// Flat geometry and paper.
namespace hinge {

/// Points of a flat sheet closer than this (mm) are one point: rounding of recipes and files is
/// below 1e-9, nothing that is cut is above 1e-3.
constexpr double kSamePoint_mm = 1e-6;
/// Corners of neighbouring panels this close are one vertex of a flat pattern: corners that were
/// turned and moved into one another carry more rounding than one recipe's own.
constexpr double kSameVertex_mm = 1e-5;
/// A length that misses its limit by less (mm) keeps it.
constexpr double kTouch_mm = 1e-6;
/// Panels in the shut card that are less apart than this (mm) tell nothing of their order.
constexpr double kApart_mm = 1e-7;
/// Paper may end on a fold or a foot, or come as near to it (mm) as no hand can tell.
constexpr double kBesideFold_mm = 0.05;
/// As far as hands miss the place where they glue: if paper lacks less room than this (mm) it
/// gives, which is felt; if it lacks more the card is spoiled.
constexpr double kPaperGives_mm = 0.5;
/// Less common area (mm2) is two corners that touch, not two sheets on one another.
constexpr double kLeastOverlap_mm2 = 0.5;
/// Slots whose ways differ by less are pushed together in one go: paper bends that much.
constexpr double kParallel_rad = radians(2.0);
/// Checks that look at the whole way step by this much of the opening ...
constexpr double kCheckStep_rad = radians(2.0);
/// ... and where something begins or ends they halve the step down to this.
constexpr double kCheckFinest_rad = radians(0.01);

} // namespace hinge

/// The motion engine.
namespace hinge::motion {

/// A pose is shown when its rings close to this (mm), or to what they close to at best: a corrector
/// that did not converge leaves more.
constexpr double kShown_mm = 1e-3;
/// Lines of two hinges that differ by less (mm) are one line.
constexpr double kSameLine_mm = 1e-6;

/// A closure counts as closed below this (mm). The solver reaches about 1e-12; paper does not know
/// 1e-7.
constexpr double kClosed_mm = 1e-7;
/// Loops and joints that miss closing by less (mm) say nothing of it: no paper knows it. Joints
/// typed by hand may stand askew by as much and still be put together; their rings then count as
/// closed at kAskewShare times the gap that is left there. Up to the closure limit of the design
/// (Assembly::closureLimit_mm) paper gives, which is told; beyond it the card is spoiled.
constexpr double kAskew_mm = 0.02, kAskewShare = 3;
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
