#pragma once
#include "core/checks/check.h"
#include <memory>
#include <stop_token>

namespace hinge {

enum class Verdict { Good, Advice, Spoiled };
std::string_view verdictKey(Verdict verdict); ///< "good", "advice", "spoiled"

/// A design worked out: assembly, motion and findings, all of one state of the document.
struct Analysis {
  Design design;
  std::shared_ptr<const Assembly> assembly;
  std::shared_ptr<const Motion> motion;
  std::vector<Finding> findings; ///< those that spoil the card first
  Verdict verdict = Verdict::Good;
  bool complete = true; ///< false after a stop request: not to be shown as a verdict
};

struct AnalysisOptions {
  bool searchMends = true; ///< try changes for findings whose check knows no direct one; each try is a full analysis
};

/// Recipes, motion and all checks. Fails only when the recipes do (a seat that is not there, impossible panels).
Result<Analysis> analyse(const Design& design, const AnalysisOptions& options = {}, std::stop_token stop = {});

/// The design with a mend applied.
Result<Design> applyMend(const Design& design, const Mend& mend);

/// Looks for the smallest change along the mend directions of the finding's structures that removes the finding and
/// brings no new one that spoils the card, on the lattice of the user's unit (0.5 mm, 1/16 inch, 0.5 degrees).
std::optional<Mend> searchMend(const Analysis& before, const Finding& finding, std::stop_token stop = {});

/// Fills in the mends of all findings that have none yet. A stop request leaves the rest open.
void searchMends(Analysis& analysis, std::stop_token stop = {});

/// Applies mends until no finding that spoils the card has one left. `applied` counts them.
struct Mended {
  Design design;
  int applied = 0;
};
Result<Mended> mendAll(const Design& design, std::stop_token stop = {});

} // namespace hinge
