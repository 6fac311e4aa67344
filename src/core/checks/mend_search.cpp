#include "core/checks/analysis.h"
#include "core/checks/solve_piece.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kLattice_mm = 0.5, kLattice_in = kMillimetresPerInch / 16, kLattice_deg = 0.5;
constexpr double kFarthest_mm = 80, kFarthest_deg = 60;
/// Changes looked at for one finding where free pieces have to be put together anew for each: some tens of milliseconds a change.
constexpr int kMostOfPieces = 60;

struct Candidate {
  StructureId id;
  MendDirection direction;
  double sign;
};

/// How welcome a change is: its size times the number of dimensions it touches.
double costOf(const Candidate& c, double step) {
  const bool moves = c.direction.terms.size() == 1 && c.direction.terms.front().key == "position";
  return step * (moves ? 0.75 : static_cast<double>(c.direction.terms.size()));
}

std::optional<Mend> changed(const Design& design, const Candidate& c, double step) {
  Mend mend;
  const StructureItem* item = design.find(c.id);
  for (const auto& [key, coefficient] : c.direction.terms) {
    const ParameterSpec* spec = findSpec(parametersOf(*item), key);
    const double from = item->values.find(key)->second, to = from + c.sign * coefficient * step;
    if (to < spec->least || to > spec->most) return std::nullopt;
    mend.edits.push_back({c.id, std::string(key), spec->unit, from, to});
  }
  return mend;
}

/// What a mend may bring with it: nothing at all, or (second best) advice in place of a spoiled card.
enum class Price { Nothing, Advice };

/// The finding is gone and nothing worse than the price has come or grown.
bool cures(const Analysis& before, const Finding& finding, const Mend& mend, Price price, std::stop_token stop) {
  const auto edited = applyMend(before.design, mend);
  if (!edited) return false;
  // The check that found the trouble is asked first: most tries end here, long before a full analysis.
  const auto assembled = assembleDesign(*edited);
  if (!assembled) return false;
  const Motion motion = Motion::trace(std::make_shared<const Assembly>(*assembled), stop);
  for (const CheckKind* check : checkKinds())
    if (check->key == finding.check)
      for (const Finding& f : check->run({*edited, *assembled, motion, stop, finding.owners}))
        if (sameTrouble(f, finding)) return false;
  const auto after = analyse(*edited, {.searchMends = false}, stop);
  if (!after || !after->complete) return false;
  for (const Finding& f : after->findings) {
    if (sameTrouble(f, finding)) return false;
    if (price == Price::Advice && f.severity != Severity::Spoils && finding.severity == Severity::Spoils) continue;
    const bool known = std::ranges::any_of(before.findings, [&](const Finding& old) { return sameTrouble(old, f) && f.amount <= old.amount * 1.05 + 0.1; });
    if (!known) return false;
  }
  return true;
}

} // namespace

namespace {

std::optional<Mend> searchAt(Price price, const Analysis& before, const Finding& finding, std::stop_token stop) {
  std::vector<Candidate> candidates;
  for (StructureId id : finding.owners) {
    const StructureItem* item = before.design.find(id);
    if (!item) continue;
    for (const MendDirection& direction : mendDirectionsOf(*item))
      for (double sign : {-1.0, 1.0}) candidates.push_back({id, direction, sign});
  }
  const bool pieces = std::ranges::any_of(finding.owners, [&](StructureId id) { return before.design.find(id) && before.design.find(id)->work; });
  int looked = 0;
  std::optional<Mend> best;
  double bestCost = 1e300;
  for (const Candidate& c : candidates) {
    if (pieces && looked >= kMostOfPieces) break;
    const ParameterSpec& spec = *findSpec(parametersOf(*before.design.find(c.id)), c.direction.terms.front().key);
    const bool angle = spec.unit == ParameterUnit::Degree;
    const double lattice = spec.whole() ? 1.0 : angle ? kLattice_deg : before.design.settings.unit == LengthUnit::Inch ? kLattice_in : kLattice_mm;
    const double farthest = angle ? kFarthest_deg : kFarthest_mm;
    // Doubling steps find the first change that cures, halving the least on the lattice.
    const auto works = [&](int n) {
      const auto mend = changed(before.design, c, n * lattice);
      if (!mend || costOf(c, n * lattice) >= bestCost) return false;
      ++looked;
      return cures(before, finding, *mend, price, stop);
    };
    int high = 1;
    while (high * lattice <= farthest && costOf(c, high * lattice) < bestCost && changed(before.design, c, high * lattice) &&
           !stop.stop_requested() && !works(high))
      high *= 2;
    if (stop.stop_requested()) return std::nullopt;
    if (high * lattice > farthest || !works(high)) continue;
    int low = high / 2;
    while (high - low > 1) {
      const int middle = (low + high) / 2;
      (works(middle) ? high : low) = middle;
    }
    best = changed(before.design, c, high * lattice);
    bestCost = costOf(c, high * lattice);
  }
  return best;
}

} // namespace

std::optional<Mend> searchMend(const Analysis& before, const Finding& finding, std::stop_token stop) {
  // What makes a free piece lie flat is not searched for but worked out.
  if (finding.code == "shut-flat" && before.design.find(finding.owners.front())->work)
    if (auto solved = solveShut(before.design, *before.motion, finding.owners.front())) return solved;
  auto mend = searchAt(Price::Nothing, before, finding, stop);
  const bool piece = !finding.owners.empty() && before.design.find(finding.owners.front()) && before.design.find(finding.owners.front())->work;
  if (!mend && !piece && finding.severity == Severity::Spoils) mend = searchAt(Price::Advice, before, finding, stop);
  return mend;
}

} // namespace hinge
