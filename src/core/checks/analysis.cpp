// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/analysis.h"
#include "core/structures/ways.h"
#include <algorithm>
#include <iterator>

namespace hinge {

std::string_view verdictKey(Verdict verdict) {
  switch (verdict) {
  case Verdict::Good: return "good";
  case Verdict::Advice: return "advice";
  case Verdict::Spoiled: return "spoiled";
  }
  return "";
}

namespace {

/// Trouble that puts all of a structure, and what stands on it, in another place.
bool isCause(const Finding& f) {
  return f.severity == Severity::Spoils && !f.owners.empty() &&
         (f.code == "shut-flat" || f.code == "impossible" || f.code == "torn");
}

/// Whatever else is found of a structure that is out of step, or of what stands on it, is told
/// with that.
void tellConsequences(Analysis& analysis) {
  std::vector<Finding>& all = analysis.findings;
  for (std::size_t cause = 0; cause < all.size(); ++cause) {
    if (!isCause(all[cause])) continue;
    const auto moved = standingOn(analysis.design, all[cause].owners.front());
    for (Finding& f : all) {
      if (f.goesWith || isCause(f)) continue;
      const bool ofThese = !f.owners.empty() && std::ranges::all_of(f.owners, [&](StructureId id) {
        return std::ranges::find(moved, id) != moved.end();
      });
      if (ofThese || f.code == "falls-over") f.goesWith = cause;
    }
  }
}

} // namespace

Result<Analysis> analyse(const Design& design, std::stop_token stop) {
  return analyse(std::make_shared<const Snapshot>(design), stop);
}

Result<Analysis> analyse(std::shared_ptr<const Snapshot> snapshot, std::stop_token stop,
                         const Progress& progress) {
  const auto assembled = snapshot->assembly();
  if (!assembled) return assembled.error();
  Analysis analysis{snapshot, snapshot->design(), *assembled};
  constexpr std::size_t kBefore = 2; // motion and order
  auto told = [&, done = std::size_t(0)]() mutable {
    if (progress) progress(++done, kBefore + checkKinds().size());
  };
  analysis.motion = snapshot->motion(stop);
  told();
  analysis.order = snapshot->order(stop);
  told();
  analysis.complete = false;
  if (!analysis.motion) return analysis;
  const CheckInput input(*snapshot, *analysis.motion, stop);
  for (const CheckKind* check : checkKinds()) {
    if (stop.stop_requested()) return analysis;
    const auto& found = input.of(*check);
    analysis.findings.insert(analysis.findings.end(), found.begin(), found.end());
    told();
  }
  std::ranges::stable_sort(analysis.findings, {},
                           [](const Finding& f) { return f.severity != Severity::Spoils; });
  tellConsequences(analysis);
  if (!analysis.findings.empty())
    analysis.verdict =
        analysis.findings.front().severity == Severity::Spoils ? Verdict::Spoiled : Verdict::Advice;
  analysis.complete = !stop.stop_requested();
  return analysis;
}

void workOutFacts(Analysis& analysis) {
  analysis.shut = analysis.snapshot->shut();
  analysis.stand = analysis.snapshot->stand();
}

namespace {

/// What free pieces of a design do that lie flat in no way, or cannot be put together at all,
/// follows from that: first they must be right. The cure of the cause is tried on the rest before
/// anything is searched for.
class Causes {
public:
  explicit Causes(const Analysis& analysis) : m_analysis(analysis) {
    // A piece that cannot be put together leaves the others without their guide: it comes before
    // everything else.
    m_apart = std::ranges::any_of(
        analysis.findings, [&](const Finding& f) { return f.code == "impossible" && isPiece(f); });
  }

  bool waits(const Finding& f) const { return m_apart && f.code != "impossible"; }
  /// True when the finding follows from one that was searched before; then it has that one's mend,
  /// if it cures both.
  bool follows(Finding& f) const {
    for (const Cause& cause : m_causes) {
      if (std::ranges::none_of(f.owners, [&](StructureId id) { return restsOn(id, cause.piece); }))
        continue;
      const bool cured =
          cause.after && std::ranges::none_of(cause.after->findings, [&](const Finding& left) {
            return sameTrouble(left, f);
          });
      if (cured) f.mend = cause.mend;
      return true;
    }
    return false;
  }
  void searched(const Finding& f, std::stop_token stop) {
    if (f.code != "shut-flat" || !isPiece(f)) return;
    Cause cause{f.owners.front(), f.mend, std::nullopt};
    if (f.mend)
      if (const auto edited = applyMend(m_analysis.design, *f.mend))
        if (auto after = analyse(*edited, stop)) cause.after = std::move(after).value();
    m_causes.push_back(std::move(cause));
  }

private:
  struct Cause {
    StructureId piece;
    std::optional<Mend> mend;
    std::optional<Analysis> after;
  };
  bool isPiece(const Finding& f) const {
    const StructureItem* item =
        f.owners.empty() ? nullptr : m_analysis.design.find(f.owners.front());
    return item && waysOf(*item).ringsDecide();
  }
  bool restsOn(StructureId id, StructureId piece) const {
    const auto all = standingOn(m_analysis.design, piece);
    return std::ranges::find(all, id) != all.end();
  }

  const Analysis& m_analysis;
  std::vector<Cause> m_causes;
  bool m_apart = false;
};

/// What else would do for a finding that has a mend that was worked out; true when there is any.
bool seekOthers(const Analysis& analysis, Finding& finding, std::stop_token stop) {
  const bool severalKnown =
      finding.proposed.size() > 1 || finding.code == "shut-flat" || finding.code == "impossible";
  if (!finding.mend || !severalKnown || !finding.otherMends.empty()) return false;
  auto all = searchMend(analysis, finding, stop, kMostMends);
  if (all.size() < 2) return false;
  finding.otherMends.assign(std::make_move_iterator(all.begin() + 1),
                            std::make_move_iterator(all.end()));
  return true;
}

} // namespace

void searchMends(Analysis& analysis, std::stop_token stop,
                 const std::function<void(std::size_t)>& sought) {
  Causes causes(analysis);
  std::vector<std::size_t> byThemselves; // findings whose mend was searched for
  for (std::size_t k = 0; k < analysis.findings.size(); ++k) {
    Finding& finding = analysis.findings[k];
    if (stop.stop_requested()) return;
    if (finding.mendSought) continue;
    if (!causes.waits(finding) && !causes.follows(finding)) {
      // Both tabs of a structure have the same trouble and the same cure: search once.
      const auto twin = std::ranges::find_if(analysis.findings, [&](const Finding& f) {
        return f.mendSought && sameTrouble(f, finding);
      });
      const bool known = twin != analysis.findings.end();
      if (known)
        finding.mend = twin->mend;
      else if (auto found = searchMend(analysis, finding, stop); !found.empty())
        finding.mend = std::move(found.front()), byThemselves.push_back(k);
      if (stop.stop_requested() && !finding.mend) return;
      causes.searched(finding, stop);
    }
    finding.mendSought = true;
    if (sought) sought(k);
  }
  for (const std::size_t k : byThemselves)
    if (!stop.stop_requested() && seekOthers(analysis, analysis.findings[k], stop) && sought)
      sought(k);
}

Result<Mended> mendAll(const Design& design, std::stop_token stop, const Progress& progress) {
  Mended mended{design};
  std::optional<std::size_t> atFirst; // findings that spoil the card
  std::size_t ended = 0;              // of those
  // Each mend removes a finding and brings none, so this ends; the bound guards against a check
  // that contradicts itself.
  constexpr int kMost = 200;
  std::vector<Finding> hopeless; // since the last change; they are tried again after the next
  while (mended.applied < kMost) {
    const auto analysis = analyse(mended.design, stop);
    if (!analysis) return analysis.error();
    std::optional<Mend> mend;
    const auto left = static_cast<std::size_t>(
        std::ranges::count(analysis->findings, Severity::Spoils, &Finding::severity));
    if (!atFirst) atFirst = left;
    const auto told = [&] {
      ended = std::max(ended, *atFirst - std::min(*atFirst, left - hopeless.size()));
      if (progress) progress(ended, *atFirst);
    };
    told();
    for (const Finding& finding : analysis->findings) {
      if (finding.severity != Severity::Spoils || stop.stop_requested()) break;
      const auto same = [&](const Finding& f) { return sameTrouble(f, finding); };
      if (std::ranges::any_of(hopeless, same)) continue;
      if (auto found = searchMend(*analysis, finding, stop); !found.empty())
        mend = std::move(found.front());
      if (mend) break;
      hopeless.push_back(finding);
      told();
    }
    if (!mend) break;
    auto next = applyMend(mended.design, *mend);
    if (!next) return next.error();
    mended.design = std::move(next).value();
    ++mended.applied;
    hopeless.clear();
  }
  return mended;
}

} // namespace hinge
