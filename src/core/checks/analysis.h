// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/progress.h"
#include "core/checks/check.h"
#include <functional>
#include <memory>
#include <stop_token>

namespace hinge {

enum class Verdict { Good, Advice, Spoiled };
std::string_view verdictKey(Verdict verdict); ///< "good", "advice", "spoiled"

/// A design worked out: assembly, motion and findings, all of one state of the document.
struct Analysis {
  std::shared_ptr<const Snapshot> snapshot;
  Design design;
  std::shared_ptr<const Assembly> assembly;
  std::shared_ptr<const Motion> motion;
  std::vector<Finding> findings;              ///< those that spoil the card first
  std::shared_ptr<const AssemblyOrder> order; ///< null when something cannot be put together at all
  /// What is shown of a card besides its findings; see workOutFacts().
  std::shared_ptr<const ShutState> shut;
  std::shared_ptr<const Stand> stand;
  Verdict verdict = Verdict::Good;
  bool complete = true; ///< false after a stop request: not to be shown as a verdict
};

/// Recipes, motion and all checks. Mends are another matter: see searchMends(). Fails only when the
/// recipes do (a seat that is not there, impossible panels).
Result<Analysis> analyse(const Design& design, std::stop_token stop = {});
/// The same of a snapshot, whose parts stay worked out. Told of its progress after the motion, the
/// order of work and each check.
Result<Analysis> analyse(std::shared_ptr<const Snapshot> snapshot, std::stop_token stop = {},
                         const Progress& progress = {});

/// Fills in how the shut card and the standing one measure.
void workOutFacts(Analysis& analysis);

/// Looks for the smallest change along the mend directions of the finding's structures that removes
/// the finding and brings no new one that spoils the card, on the lattice of the user's unit (0.5
/// mm, 1/16 inch, 0.5 degrees). What the check itself proposes is tried first. Every candidate is
/// tried whole: all checks run on the changed design. Where several single changes are known each
/// of which would do alone, the nearest first, `most` at most; nothing when there is none.
std::vector<Mend> searchMend(const Analysis& before, const Finding& finding,
                             std::stop_token stop = {}, std::size_t most = 1);
/// So many mends of one finding are told, the first of them by itself.
inline constexpr std::size_t kMostMends = 5;

/// Looks for the mends of all findings, those that spoil the card first, and tells of each finding
/// (by its index) that it has come to an end with; then for what else would do for each. A stop
/// request leaves the rest unsought.
void searchMends(Analysis& analysis, std::stop_token stop = {},
                 const std::function<void(std::size_t)>& sought = {});

/// Applies mends until no finding that spoils the card has one left. `applied` counts them. Told
/// how many of the findings that spoilt the card at first are gone or beyond mending.
struct Mended {
  Design design;
  int applied = 0;
};
Result<Mended> mendAll(const Design& design, std::stop_token stop = {},
                       const Progress& progress = {});

} // namespace hinge
