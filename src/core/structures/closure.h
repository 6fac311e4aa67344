// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"

namespace hinge {

/// Sums of typed decimals and inch fractions differ by the rounding of doubles only; a real misfit
/// is far above this (mm or degrees).
constexpr double kExactClosure = 1e-6;

/// What an angle that is off comes to at the end of a panel of usual size: its arm.
constexpr double kAngleArm_mm = 60;
/// How far a condition of a recipe is from holding, in mm; angles by what they come to.
double misfit_mm(const LinearClosure& closure, const ParameterValues& values);

/// True when the structure meets all exact conditions for lying flat in the shut card on the seat
/// it stands on. Strips and free pieces have none in closed form: their
/// rings in the shut state tell.
bool closesExactly(const StructureItem& item, const Motion& motion);
/// The same but for what paper gives (Assembly::closureLimit_mm).
bool closesAsPaperGives(const StructureItem& item, const Motion& motion);

/// The worst gap (mm) in the shut state of the rings a structure has a part in.
double shutGap_mm(StructureId id, const Motion& motion);

/// True for structures whose condition for lying flat stands in their rings alone.
bool ringsDecide(const StructureItem& item, const Seat& seat);

} // namespace hinge
