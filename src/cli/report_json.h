// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/checks/analysis.h"
#include "core/making/dress_moments.h"
#include "core/making/order.h"
#include <span>
#include <string>

namespace hinge {

// What the command line prints with --json; each a complete document. Keys are a contract:
// extended, never renamed.

/// {"bases":[...],"structures":[{"key","label","summary","parameters":[{"key","label","unit","min",
/// "max","default","role","twin","meaning"}]}]}
std::string kindsToJson();
/// [{"id","label","length_mm","kind":"valley"|"ridge"}]
/// From where places on a seat are read: the line it stands on, as its maker sees it.
Text seatStart(const Assembly& assembly, const Seat& seat);
std::string seatsToJson(const Design& design, const Assembly& assembly);
/// {"verdict","mobility","findings":[{"code",...,"mend","mend_sought"}],"shut":{"thickness_mm",
/// "width_mm","height_mm","thickest_sheets"},"stand":{...}}
std::string analysisToJson(const Analysis& analysis);
/// {"low_deg","high_deg","mobility","contacts":[{"panels","from_deg","to_deg","depth_mm"}],
/// "thickness":{...},"openings":[{"opening_deg","residual_mm","mobility",
/// "panels":[{"key","corners"}]}]}
std::string sweepToJson(const Snapshot& snapshot, std::span<const double> openings_deg);

/// {"steps":[{"step","joins":[{"kind","first","second","text"}],"before","by_shutting"}],
/// "unreachable":[...],"dressing":[{"piece","faces","after","before","cut_open_mm"}]}; "before" is
/// the number of the step after which the joints cannot be reached any more, or null. Dressing is
/// done after a step (0: while flat) and before the step that glues something onto it, or null.
std::string orderToJson(const AssemblyOrder& order, const Design& design, const Assembly& assembly,
                        const std::vector<DressMoment>& moments,
                        const KeyedVector<FaceIndex, Face>& faces);

} // namespace hinge
