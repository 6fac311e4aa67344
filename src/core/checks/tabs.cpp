// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assembly/builder.h"
#include "core/checks/check.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <array>
#include <cmath>

// Glue tabs: deep enough to hold, inside the panel they are glued to, clear of its folds, and not
// on one another.

namespace hinge {
namespace {

struct GluedTab {
  PanelIndex tab, host;
  Polygon onHost; ///< outline in the host's piece frame, counter-clockwise
  bool onFace;    ///< glued to the host's face side
  Vec3 shutPlace;
};

/// Smallest width of a polygon over the edge directions of its hull.
double leastWidth_mm(const Polygon& outline) {
  const Polygon p = convexHull(outline);
  double least = 1e300;
  for (std::size_t i = 0; i < p.size(); ++i) {
    const Vec2 d = (p[(i + 1) % p.size()] - p[i]).normalized(), n(-d.y(), d.x());
    double far = 0;
    for (const Vec2& q : p)
      far = std::max(far, n.dot(q - p[i]));
    least = std::min(least, far);
  }
  return p.size() < 3 ? 0.0 : least;
}

std::vector<GluedTab> gluedTabs(const CheckInput& in, const Pose& open) {
  std::vector<GluedTab> tabs;
  for (const auto& [j, glue] : in.assembly.every<Glue>()) {
    if (in.assembly.panels[glue.tab].use != PanelUse::Tab)
      continue; // a panel glued on as a whole is no tab
    GluedTab t{glue.tab, glue.host, {}, glue.onHostFace(), Vec3::Zero()};
    const auto glued = gluedOf(in.assembly, glue);
    if (glued.empty()) continue; // refused when it was joined
    for (const Vec2& p : std::ranges::max_element(glued, {}, area_mm2)->rim)
      t.onHost.push_back((glue.tabToHost * lift(p)).head<2>());
    if (signedArea_mm2(t.onHost) < 0) std::reverse(t.onHost.begin(), t.onHost.end());
    t.shutPlace = open.panels[glue.host] * lift(centroidOf(t.onHost));
    tabs.push_back(std::move(t));
  }
  return tabs;
}

Finding make(std::string code, Severity severity, const CheckInput& in, const GluedTab& t,
             double amount, double show_rad) {
  Finding f{std::move(code), severity, {in.assembly.panels[t.tab].key}, {}};
  if (in.assembly.panels[t.tab].owner) f.owners.push_back(*in.assembly.panels[t.tab].owner);
  f.to_rad = kPi, f.amount = amount, f.place = t.shutPlace, f.show_rad = show_rad;
  return f;
}

void checkDepth(const CheckInput& in, const GluedTab& t, double show_rad,
                std::vector<Finding>& found) {
  const double least = in.design.settings.leastTabDepth_mm;
  for (FoldIndex f : in.assembly.foldsOf(t.tab)) {
    const Fold& fold = in.assembly.folds[f];
    const double depth = tabDepth_mm(in.assembly.panels[t.tab].outline.rim, fold.from, fold.to);
    if (depth >= least - kTouch_mm) continue;
    Finding finding = make("tab-narrow", Severity::Advice, in, t, least - depth, show_rad);
    const auto owner = in.assembly.panels[t.tab].owner;
    const StructureItem* item = owner ? in.design.find(*owner) : nullptr;
    if (item && item->values.contains("tab") && item->values.find("tab")->second < least)
      finding.proposed.push_back(Mend{
          {{item->id, "tab", ParameterUnit::Millimetre, item->values.find("tab")->second, least}}});
    found.push_back(std::move(finding));
  }
}

/// Structures cut from the panel a tab is glued to can be moved out of its way.
void addCutters(const CheckInput& in, const GluedTab& t, Finding& finding) {
  const Panel& host = in.assembly.panels[t.host];
  for (FoldIndex f : in.assembly.foldsOf(t.host))
    for (PanelIndex p : {in.assembly.folds[f].left, in.assembly.folds[f].right}) {
      const auto& owner = in.assembly.panels[p].owner;
      if (owner && owner != host.owner &&
          std::ranges::find(finding.owners, *owner) == finding.owners.end())
        finding.owners.push_back(*owner);
    }
}

void checkHost(const CheckInput& in, const GluedTab& t, double show_rad,
               std::vector<Finding>& found) {
  const Panel& host = in.assembly.panels[t.host];
  double past = 0, nearFold = 1e300;
  for (const Vec2& p : t.onHost)
    if (!contains(host.outline, p, kTouch_mm))
      past = std::max(past, distanceToOutline(host.outline, p));
  for (const Polygon& hole : host.outline.holes) {
    const Polygon over(hole.rbegin(), hole.rend());
    for (const Region& open : common(Region(t.onHost), Region(over)))
      past = std::max(past, leastWidth_mm(open.rim));
  }
  for (FoldIndex f : in.assembly.foldsOf(t.host)) {
    const Fold& fold = in.assembly.folds[f];
    const PanelIndex neighbour = fold.left == t.host ? fold.right : fold.left;
    // The base of another tab is a fold too, but it is the outline there and nothing glues across
    // it.
    if (in.assembly.panels[neighbour].use == PanelUse::Tab) continue;
    const Vec2 d = (fold.to - fold.from).normalized();
    // A wall that stands in the fold itself has its tab begin there: the fold line is the tab's
    // own.
    if (std::ranges::any_of(in.assembly.foldsOf(t.tab), [&](FoldIndex own) {
          const Fold& base = in.assembly.folds[own];
          const Iso3& onto = in.assembly.glueOf(t.tab)->tabToHost;
          return std::ranges::all_of(std::array{base.from, base.to}, [&](const Vec2& p) {
            return std::abs(cross2(d, Vec2((onto * lift(p)).head<2>()) - fold.from)) < 1e-6;
          });
        }))
      continue;
    const Vec2 inward = fold.left == t.host ? Vec2(-d.y(), d.x()) : Vec2(d.y(), -d.x());
    // Only what lies beside this stretch of the fold: a cut may end it half-way across the panel.
    const Polygon beside = clipToHalfPlane(clipToHalfPlane(t.onHost, fold.from, d), fold.to, -d);
    if (beside.empty()) continue;
    double least = 1e300, most = -1e300;
    for (const Vec2& p : beside)
      least = std::min(least, inward.dot(p - fold.from)),
      most = std::max(most, inward.dot(p - fold.from));
    if (most <= kTouch_mm) continue; // beyond the cut on the far side of the fold
    nearFold = std::min(nearFold, least);
  }
  const double clearance = in.design.settings.foldClearance_mm;
  if (nearFold < -kTouch_mm) {
    found.push_back(make("tab-crosses-fold", Severity::Spoils, in, t, -nearFold, show_rad));
    addCutters(in, t, found.back());
  } else if (past > kTouch_mm) {
    found.push_back(make("tab-off-panel", Severity::Spoils, in, t, past, show_rad));
    addCutters(in, t, found.back());
  } else if (nearFold < clearance - kTouch_mm)
    found.push_back(make("tab-near-fold", Severity::Advice, in, t, clearance - nearFold, show_rad));
}

std::vector<Finding> checkTabs(const CheckInput& in) {
  const double show = 0.5 * (in.motion.low_rad() + in.motion.high_rad());
  const std::vector<GluedTab> tabs = gluedTabs(in, in.motion.poseAt(show));
  std::vector<Finding> found;
  for (const GluedTab& t : tabs) {
    checkDepth(in, t, show, found);
    checkHost(in, t, show, found);
  }
  for (std::size_t i = 0; i < tabs.size(); ++i)
    for (std::size_t j = i + 1; j < tabs.size(); ++j) {
      if (tabs[i].host != tabs[j].host || tabs[i].onFace != tabs[j].onFace) continue;
      double width = 0;
      for (const Region& shared : common(Region(tabs[i].onHost), Region(tabs[j].onHost)))
        width = std::max(width, leastWidth_mm(shared.rim));
      if (width < 0.05) continue; // less than any hand places
      Finding f = make("tabs-overlap", Severity::Spoils, in, tabs[i], width, show);
      f.elements.push_back(in.assembly.panels[tabs[j].tab].key);
      if (in.assembly.panels[tabs[j].tab].owner)
        f.owners.push_back(*in.assembly.panels[tabs[j].tab].owner);
      found.push_back(std::move(f));
    }
  return found;
}

} // namespace

const CheckKind& tabsCheck() {
  static const CheckKind kind{"tabs", checkTabs};
  return kind;
}

} // namespace hinge
