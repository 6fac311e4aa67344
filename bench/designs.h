// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/design.h"

// The designs that are measured.
namespace hinge::bench {

/// A design from demo/, by its file name without extension.
Design demo(const char* name = "night-market");

/// A card that was slow once, from bench/cases.
Design slowCase(const char* name);

/// A long card with `count` open boxes in towers of three, each standing on the ridge of the one
/// below. `reach` is the length of the lowest box as a share of the pitch: above 1 each tower runs
/// into the next.
Design row(int count, double reach = 0.8);

} // namespace hinge::bench
