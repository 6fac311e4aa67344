#pragma once
#include "core/checks/finding.h"
#include "core/motion/motion.h"

namespace hinge {

/// The width of one panel of a free piece that makes it lie flat in the shut card, exactly. The gap of the rings in the shut state
/// is linear in every width, so that two poses tell it; the smallest change is taken. Glued panels keep their width. Nothing when
/// no single width closes the rings. Cost: a trace per panel.
std::optional<Mend> solveShut(const Design& design, const Motion& motion, StructureId id);

} // namespace hinge
