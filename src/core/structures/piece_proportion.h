// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/structures/ways.h"

namespace hinge {

/// The length row of a piece that grows as a whole.
inline constexpr std::string_view kWholeKey = "whole";
/// True for a piece that is no strip: it has scores besides those that run up from edge to edge, so
/// that only the whole of it can be made larger.
bool growsEvenly(const PieceWork& work);

/// True when a panel, counted from the left, is glued down.
bool isGlued(const PieceWork& work, std::size_t panel);

/// True when the widths of a free piece run across the folds of the base; on other pieces as theirs
/// do.
bool widthsRunAcross(const Design& design, const StructureItem& item);

/// The piece with every panel that gives wider by the factor, and what stands in it and where it is
/// glued in proportion.
Result<PieceWork> grown(const Design& design, const StructureItem& item, double factor,
                        const std::set<std::string>& held);

} // namespace hinge
