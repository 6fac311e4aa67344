#include "core/checks/analysis.h"
#include "core/structures/assemble.h"
#include <algorithm>

namespace hinge {

std::string_view verdictKey(Verdict verdict) {
  switch (verdict) {
  case Verdict::Good: return "good";
  case Verdict::Advice: return "advice";
  case Verdict::Spoiled: return "spoiled";
  }
  return "";
}

Result<Analysis> analyse(const Design& design, const AnalysisOptions& options, std::stop_token stop) {
  auto assembled = assembleDesign(design);
  if (!assembled) return assembled.error();
  Analysis analysis{design, std::make_shared<const Assembly>(std::move(assembled).value())};
  analysis.motion = std::make_shared<const Motion>(Motion::trace(analysis.assembly, stop));
  const CheckInput input{analysis.design, *analysis.assembly, *analysis.motion, stop, {}, &analysis.findings};
  for (const CheckKind* check : checkKinds()) {
    if (stop.stop_requested()) break;
    for (Finding& finding : check->run(input)) {
      finding.check = check->key;
      analysis.findings.push_back(std::move(finding));
    }
  }
  std::ranges::stable_sort(analysis.findings, {}, [](const Finding& f) { return f.severity != Severity::Spoils; });
  if (!analysis.findings.empty())
    analysis.verdict = analysis.findings.front().severity == Severity::Spoils ? Verdict::Spoiled : Verdict::Advice;
  if (options.searchMends) searchMends(analysis, stop);
  analysis.complete = !stop.stop_requested();
  return analysis;
}

void searchMends(Analysis& analysis, std::stop_token stop) {
  // What a free piece does that lies flat in no way follows from its sizes: first they must be right. It comes first in the list.
  std::vector<StructureId> outOfStep;
  const auto follows = [&](StructureId id) {
    const StructureItem* item = analysis.design.find(id);
    std::vector<StructureId> all = item ? hostsOf(*item) : std::vector<StructureId>();
    all.push_back(id);
    return std::ranges::any_of(all, [&](StructureId one) { return std::ranges::find(outOfStep, one) != outOfStep.end(); });
  };
  const auto freePiece = [&](const Finding& f) { return !f.owners.empty() && analysis.design.find(f.owners.front()) && analysis.design.find(f.owners.front())->work; };
  // A free piece that cannot be put together leaves the others without their guide: it comes before everything else.
  const bool apart = std::ranges::any_of(analysis.findings, [&](const Finding& f) { return f.code == "impossible" && freePiece(f); });
  for (Finding& finding : analysis.findings) {
    if (apart && finding.code != "impossible") continue;
    if (finding.mend || stop.stop_requested() || std::ranges::any_of(finding.owners, follows)) continue;
    // Both tabs of a structure have the same trouble and the same cure: search once.
    const auto twin = std::ranges::find_if(analysis.findings, [&](const Finding& f) { return f.mend && sameTrouble(f, finding); });
    finding.mend = twin != analysis.findings.end() ? twin->mend : searchMend(analysis, finding, stop);
    if (!finding.mend && finding.code == "shut-flat" && freePiece(finding)) outOfStep.push_back(finding.owners.front());
  }
}

Result<Design> applyMend(const Design& design, const Mend& mend) {
  Design edited = design;
  for (const MendEdit& edit : mend.edits) {
    auto next = setValues(edited, edit.id, {{edit.key, edit.to}});
    if (!next) return next.error();
    edited = std::move(next).value();
  }
  return edited;
}

Result<Mended> mendAll(const Design& design, std::stop_token stop) {
  Mended mended{design};
  // Each mend removes a finding and brings none, so this ends; the bound guards against a check that contradicts itself.
  constexpr int kMost = 200;
  while (mended.applied < kMost) {
    auto analysis = analyse(mended.design, {.searchMends = false}, stop);
    if (!analysis) return analysis.error();
    bool changed = false;
    for (const Finding& finding : analysis->findings) {
      if (finding.severity != Severity::Spoils) continue;
      const auto mend = finding.mend ? finding.mend : searchMend(*analysis, finding, stop);
      if (!mend) continue;
      auto next = applyMend(mended.design, *mend);
      if (!next) return next.error();
      mended.design = std::move(next).value();
      ++mended.applied;
      changed = true;
      break;
    }
    if (!changed) break;
  }
  return mended;
}

} // namespace hinge
