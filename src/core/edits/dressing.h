// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/base/result.h"
#include "core/design/design.h"
#include <functional>
#include <map>

namespace hinge {

/// The drawer with this paper; one of the same key is replaced.
Result<Design> withPaper(const Design& design, const Paper& paper);
/// The drawer with one of the papers that everybody has; unchanged when it is there already.
/// Error paper.unknown.
Result<Design> withPaperAtHand(const Design& design, std::string_view key);
/// Refused, with who needs it, while something is made of it.
Result<Design> withoutPaper(const Design& design, std::string_view key);
/// Whether anything of the design names it.
bool isUsed(const Design& design, std::string_view paper);

/// The base, and all that names no other paper, cut from this one, which is put into the drawer if
/// it is one that everybody has. The one before leaves the drawer when nothing else is made of it.
Result<Design> withCardPaper(const Design& design, std::string_view key);
/// A structure cut from another paper than the card; an empty key: from that of the card again.
Result<Design> withPaperFor(const Design& design, StructureId id, std::string_view key);

/// The rule as the last one, in the place of one for the same faces. Its papers are put into the
/// drawer if they are ones that everybody has.
Result<Design> withRule(const Design& design, DressRule rule);
Result<Design> withoutRule(const Design& design, std::size_t rule);

/// The topper in the place of the one of its number, or as a new one. Its papers are put into the
/// drawer if they are ones that everybody has; it must be on a face that is there.
Result<Design> withTopper(const Design& design, Topper topper);
Result<Design> withoutTopper(const Design& design, int id);
/// A new topper of a shape on a face, in its usual size or as large as the face lets it be, in the
/// middle of it.
Result<Topper> freshTopper(const Design& design, std::string_view face, std::string_view shape,
                           std::string_view paper);

/// Without what is laid on the panels of these structures.
Dressing undressed(Dressing dressing, const std::vector<StructureId>& gone);

/// Toppers of a design whose faces have become larger or smaller than they were before: each in the
/// same part of its face, and larger or smaller with it where that keeps its shape.
Design toppersCarriedAlong(const Design& before, Design after);

/// What is laid on the panels of structures laid on those of their copies as well: `imageOf` gives
/// the face of a copy for a face, in the words of the original; mirrored copies wear mirrored
/// toppers.
void copyDressing(Design& design, const Assembly& assembly,
                  const std::map<StructureId, StructureId>& copies,
                  const std::function<std::string(const std::string&)>& imageOf, bool mirrored);

} // namespace hinge
