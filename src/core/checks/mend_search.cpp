// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/analysis.h"
#include "core/edits/rejoining.h"
#include "core/edits/solve_piece.h"
#include "core/structures/registry.h"
#include "core/structures/toppers.h"
#include "core/units/lattice.h"
#include <algorithm>
#include <cmath>
#include <iterator>
#include <map>

namespace hinge {
namespace {

constexpr double kFarthest_mm = 80, kFarthest_deg = 60;
/// Changes looked at for one finding where free pieces have to be put together anew for each: some
/// tens of milliseconds a change.
constexpr int kMostOfPieces = 60;

struct Candidate {
  StructureId id;
  MendDirection direction;
  double sign;
  bool moves = false; ///< changes nothing but where the structure stands
};

/// How welcome a change is: its size times the number of dimensions it touches.
double costOf(const Candidate& c, double step) {
  return step * (c.moves ? 0.75 : static_cast<double>(c.direction.terms.size()));
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

/// How well a change mends, worst first: not at all; in exchange for advice where the card was
/// spoiled; without anything new.
enum class Cure { None, ForAdvice, Clean };

/// Structures whose panels go another way when these are changed: what stands on them or is joined
/// to them, and what is solved together with any of those.
std::vector<StructureId> movedBy(const Design& design, const Motion& motion, const Mend& mend) {
  std::vector<StructureId> all, open;
  for (const MendEdit& edit : mend.edits)
    open.push_back(edit.id);
  for (const MendWork& made : mend.works)
    open.push_back(made.id);
  while (!open.empty()) {
    const StructureId id = open.back();
    open.pop_back();
    if (std::ranges::find(all, id) != all.end()) continue;
    all.push_back(id);
    const auto guests = standingOn(design, id);
    open.insert(open.end(), guests.begin(), guests.end());
    for (const auto& block : motion.blocks())
      if (std::ranges::find(block.owners, id) != block.owners.end())
        open.insert(open.end(), block.owners.begin(), block.owners.end());
  }
  return all;
}

const CheckKind& checkOf(const Finding& finding) {
  return **std::ranges::find(checkKinds(), finding.check, &CheckKind::key);
}

/// Whether the finding is there even when all else is taken away: then no more need be looked at.
bool staysInPart(const Design& edited, const Finding& finding, std::stop_token stop) {
  const Design part = partOf(edited, finding.owners);
  if (part.structures.size() == edited.structures.size()) return false;
  const Snapshot snapshot(part);
  const auto motion = snapshot.motion(stop);
  if (!motion) return false;
  const CheckInput input(snapshot, *motion, stop, finding.owners);
  return std::ranges::any_of(input.of(checkOf(finding)),
                             [&](const Finding& f) { return sameTrouble(f, finding); });
}

/// From the motion before, or (costlier) as if nothing were known: free pieces may fold in several
/// ways.
enum class Start { AsBefore, Anew };

/// Whether the finding goes and what comes in its place. What the changed structures have no part
/// in is as it was and need not be looked at again.
Cure cureBy(const Mend& mend, const Analysis& before, const Finding& finding, std::stop_token stop,
            Start start = Start::Anew) {
  const auto edited = applyMend(before.design, mend);
  if (!edited || staysInPart(*edited, finding, stop)) return Cure::None;
  const Snapshot snapshot(*edited, start == Start::AsBefore ? before.motion : nullptr);
  const auto motion = snapshot.motion(stop);
  if (!motion) return Cure::None;
  const CheckInput input(snapshot, *motion, stop, movedBy(*edited, *motion, mend));
  Cure cure = Cure::Clean;
  const auto judge = [&](const Finding& f) {
    if (sameTrouble(f, finding)) return Cure::None;
    const bool known = std::ranges::any_of(before.findings, [&](const Finding& old) {
      return sameTrouble(old, f) && f.amount <= old.amount * 1.05 + 0.1;
    });
    if (known) return Cure::Clean;
    const bool milder = f.severity != Severity::Spoils && finding.severity == Severity::Spoils;
    return milder ? Cure::ForAdvice : Cure::None;
  };
  const auto look = [&](const CheckKind& check) {
    for (const Finding& f : input.of(check))
      cure = std::min(cure, judge(f));
    if (stop.stop_requested()) cure = Cure::None;
  };
  // The check that found the trouble is asked first.
  look(checkOf(finding));
  for (const CheckKind* check : checkKinds()) {
    if (cure == Cure::None) break;
    look(*check);
  }
  return cure;
}

/// Tries changes of one finding's structures and remembers how each came out.
class Search {
public:
  Search(const Analysis& before, const Finding& finding, std::stop_token stop)
      : m_before(before), m_finding(finding), m_stop(stop) {
    for (StructureId id : finding.owners) {
      const StructureItem* item = before.design.find(id);
      if (!item) continue;
      if (waysOf(*item).ringsDecide()) m_triesLeft = kMostOfPieces;
      const ParameterSpec* place = findSense(parametersOf(*item), Sense::Place);
      for (const MendDirection& direction : mendDirectionsOf(*item)) {
        const bool moves =
            place && direction.terms.size() == 1 && direction.terms.front().key == place->key;
        for (double sign : {-1.0, 1.0})
          m_candidates.push_back({id, direction, sign, moves});
      }
    }
    m_outcomes.resize(m_candidates.size());
  }

  /// The least change that cures at least as well as wanted.
  std::optional<Mend> least(Cure wanted) {
    std::optional<Mend> best;
    double bestCost = 1e300;
    for (std::size_t k = 0; k < m_candidates.size(); ++k) {
      const Candidate& c = m_candidates[k];
      const auto [lattice, farthest] = latticeOf(c);
      const auto inReach = [&, l = lattice, f = farthest](int n) {
        return n * l <= f && costOf(c, n * l) < bestCost && changed(m_before.design, c, n * l);
      };
      const auto works = [&, l = lattice](int n) { return outcome(k, n, l) >= wanted; };
      // Doubling steps find the first change that cures, halving the least on the lattice.
      int high = 1;
      while (inReach(high) && !works(high))
        high *= 2;
      if (m_stop.stop_requested()) return std::nullopt;
      if (!inReach(high)) continue;
      int low = high / 2;
      while (high - low > 1) {
        const int middle = (low + high) / 2;
        (works(middle) ? high : low) = middle;
      }
      best = changed(m_before.design, c, high * lattice);
      bestCost = costOf(c, high * lattice);
    }
    return best;
  }

private:
  std::pair<double, double> latticeOf(const Candidate& c) const {
    const StructureItem& item = *m_before.design.find(c.id);
    const ParameterSpec& spec = *findSpec(parametersOf(item), c.direction.terms.front().key);
    const bool angle = spec.unit == ParameterUnit::Degree;
    const double length = latticeStep_mm(m_before.design.settings.unit);
    return {spec.whole() ? 1.0
            : angle      ? kLattice_deg
                         : length,
            angle ? kFarthest_deg : kFarthest_mm};
  }

  Cure outcome(std::size_t candidate, int steps, double lattice) {
    auto& known = m_outcomes[candidate];
    if (const auto it = known.find(steps); it != known.end()) return it->second;
    const auto mend = changed(m_before.design, m_candidates[candidate], steps * lattice);
    if (!mend || m_stop.stop_requested() || m_triesLeft == 0) return Cure::None;
    if (m_triesLeft > 0) --m_triesLeft;
    return known[steps] = cureBy(*mend, m_before, m_finding, m_stop, Start::AsBefore);
  }

  const Analysis& m_before;
  const Finding& m_finding;
  std::stop_token m_stop;
  std::vector<Candidate> m_candidates;
  std::vector<std::map<int, Cure>> m_outcomes; ///< per candidate, by steps on its lattice
  int m_triesLeft = -1;                        ///< none: as many as it takes
};

/// The topper a finding is about; null when it is about none.
const Topper* topperOf(const Analysis& before, const Finding& finding) {
  for (const Topper& topper : before.design.dressing.toppers)
    for (const std::string& element : finding.elements)
      if (isPartOf(topper, element)) return &topper;
  return nullptr;
}

/// Moves a topper on its face, makes it smaller or lowers it, by as little as mends.
class TopperSearch {
public:
  TopperSearch(const Analysis& before, const Finding& finding, const Topper& topper,
               std::stop_token stop)
      : m_before(before), m_finding(finding), m_topper(topper), m_stop(stop),
        m_step(latticeStep_mm(before.design.settings.unit)) {}

  std::optional<Mend> least() {
    std::optional<Mend> best;
    int fewest = kMostSteps + 1;
    for (int way = 0; way < kWays; ++way) {
      const auto works = [&](int steps) {
        const auto mend = changed(way, steps);
        return mend && cureBy(*mend, m_before, m_finding, m_stop) == Cure::Clean;
      };
      int high = 1;
      while (high < fewest && !works(high))
        high *= 2;
      if (high >= fewest || m_stop.stop_requested()) continue;
      int low = high / 2;
      while (high - low > 1) {
        const int middle = (low + high) / 2;
        (works(middle) ? high : low) = middle;
      }
      fewest = high, best = changed(way, high);
    }
    return best;
  }

private:
  static constexpr int kWays = 6, kMostSteps = 128;

  /// Along x, against it, along y, against it, smaller, lower.
  std::optional<Mend> changed(int way, int steps) const {
    Mend mend;
    mend.dressing = m_before.design.dressing;
    Topper& topper = *std::ranges::find(mend.dressing->toppers, m_topper.id, &Topper::id);
    const double by = steps * m_step;
    const Text who("as-it-is", topper.name());
    if (way < 4) {
      topper.at[way / 2] += way % 2 == 0 ? by : -by;
      constexpr const char* kWords[] = {"mend/right", "mend/left", "mend/up", "mend/down"};
      mend.change = Text(kWords[way], who, Millimetres{by});
    } else if (way == 4) {
      const double share = (topper.width_mm - by) / topper.width_mm;
      const bool drawn = !topper.outlines.empty(); // it keeps its drawn size
      if (drawn || share * std::min(topper.width_mm, topper.height_mm) < 2 * kLeastTopper_mm)
        return std::nullopt;
      topper.width_mm *= share, topper.height_mm *= share;
      mend.change =
          Text("mend/smaller", who, Millimetres{topper.width_mm}, Millimetres{topper.height_mm});
    } else {
      if (topper.fix == TopperFix::Flat || topper.raised_mm < by) return std::nullopt;
      topper.raised_mm -= by;
      mend.change = Text("mend/lower", who, Millimetres{topper.raised_mm});
    }
    return mend;
  }

  const Analysis& m_before;
  const Finding& m_finding;
  const Topper& m_topper;
  std::stop_token m_stop;
  const double m_step;
};

} // namespace

namespace {

constexpr double kFarOff_mm = 5; ///< a loop that misses by more was joined the wrong way

/// What need not be searched for: what the check itself knows, and of a free piece every single
/// change that makes it lie flat, or closes its ring.
std::vector<Mend> workedOut(const Analysis& before, const Finding& finding, bool piece,
                            std::stop_token stop) {
  if (!piece || (finding.code != "shut-flat" && finding.code != "impossible"))
    return finding.proposed;
  const bool apart = finding.code == "impossible";
  std::vector<Mend> all = finding.proposed;
  if (!apart || finding.unit == AmountUnit::Millimetre)
    all = changesThatShut(before.design, *before.motion, finding.owners.front(),
                          apart ? finding.amount : 0, stop);
  // What is far off is seldom a length: it closes the wrong way.
  if (finding.unit != AmountUnit::Millimetre || finding.amount > kFarOff_mm)
    std::ranges::move(
        joinedOtherwise(before.design, *before.assembly, *before.design.find(finding.owners[0])),
        std::back_inserter(all));
  return all;
}

} // namespace

std::vector<Mend> searchMend(const Analysis& before, const Finding& finding, std::stop_token stop,
                             std::size_t most) {
  const StructureItem* first =
      finding.owners.empty() ? nullptr : before.design.find(finding.owners.front());
  const bool piece = first && waysOf(*first).ringsDecide();
  const bool advice = finding.severity == Severity::Spoils; // may come in its place
  std::vector<Mend> clean, forAdvice;
  for (Mend& mend : workedOut(before, finding, piece, stop)) {
    if (clean.size() >= most) break;
    const Cure cure = cureBy(mend, before, finding, stop);
    if (cure != Cure::None) (cure == Cure::Clean ? clean : forAdvice).push_back(std::move(mend));
  }
  if (!clean.empty()) return clean;
  const auto asList = [](std::optional<Mend> mend) {
    return mend ? std::vector<Mend>{std::move(*mend)} : std::vector<Mend>();
  };
  // Sizes of structures are no mend for how something is dressed.
  if (finding.check == matsCheck().key) return {};
  if (const Topper* topper = topperOf(before, finding))
    if (auto mend = TopperSearch(before, finding, *topper, stop).least())
      return asList(std::move(mend));
  Search search(before, finding, stop);
  const auto confirmed = [&](std::optional<Mend> mend, Cure wanted) {
    // Without free pieces there is only one way to fold and the trial was as good as a fresh one.
    const bool fresh = std::ranges::all_of(before.assembly->placements,
                                           [](const Placement& p) { return p.poses != nullptr; });
    if (mend && !fresh && cureBy(*mend, before, finding, stop) < wanted) mend.reset();
    return mend;
  };
  if (auto mend = confirmed(search.least(Cure::Clean), Cure::Clean)) return asList(std::move(mend));
  if (!forAdvice.empty()) {
    forAdvice.resize(std::min(forAdvice.size(), most));
    return forAdvice;
  }
  if (!advice || piece) return {};
  return asList(confirmed(search.least(Cure::ForAdvice), Cure::ForAdvice));
}

} // namespace hinge
