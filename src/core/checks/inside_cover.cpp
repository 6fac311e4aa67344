// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <array>
#include <cmath>
#include <map>

// Inside the cover when shut: no corner of a structure past an edge of the shut card (spoils), and
// all of them the edge reserve inside (advice). Measured in the plane of the shut pages.

namespace hinge {
namespace {

struct Worst {
  double out_mm = -1e300; ///< past the edge; negative: inside by that much
  int edge = 0;
  PanelIndex panel;
  Vec3 place = Vec3::Zero();
};

/// Names of the edges as the user holds the card, for the flat page frame: low x, start and end of
/// the gutter, high x.
Text edgeName(int edge, FoldSide fold, bool folded) {
  if (edge == 0 || edge == 3) return folded ? "edge.gutter" : "edge.fore";
  // A fold along the upper or lower edge is called by the edge.
  static const char* const kSide[] = {"edge.bottom", "edge.top"};
  static const char* const kTop[] = {"edge.left", "edge.right"};
  return (fold == FoldSide::Side ? kSide : kTop)[edge - 1];
}

/// True when a fold of the base lies folded on the edge of the shut card where the coordinate
/// `axis` (0 across the gutter, 1 along it) is `at`.
bool foldedAt(const CheckInput& in, const Pose& shut, const Iso3& toPage, int axis, double at) {
  return std::ranges::any_of(in.assembly.drives, [&](const Drive& drive) {
    const Fold& fold = in.assembly.folds[drive.fold];
    return drive.shut_rad != 0 &&
           std::ranges::all_of(std::array{fold.from, fold.to}, [&](const Vec2& end) {
             return std::abs((toPage * (shut.panels[fold.left] * lift(end)))[axis] - at) < 1e-3;
           });
  });
}

/// By how much the shut card with all that is on it stays inside its finished size, along the page
/// frame's axes; what sticks out of a page but not out of the finished size is right.
Vec2 spareOf(const CheckInput& in, const Pose& shut, const Iso3& toPage, const Box2& cover) {
  Box2 all = cover;
  for (PanelIndex p : in.assembly.panels.indices())
    if (shut.placed[p] && !in.motion.isLoose(p))
      all.add(boundsOf(mapped(in.assembly.panels[p].outline, toPage * shut.panels[p])));
  const CardBase& card = in.design.card;
  return Vec2(card.pageDepth_mm(), card.gutterLength_mm()) - all.size();
}

/// Panels of which only the one that sticks out most is told: those of a structure, or a topper on
/// a page. Where loose ones come to lie says nothing.
struct Group {
  std::vector<StructureId> owners;
  std::vector<PanelIndex> panels;
};

std::vector<Group> groupsOf(const CheckInput& in, const Pose& shut) {
  std::map<int, std::vector<PanelIndex>> panels; // by owner
  std::vector<Group> groups, onPages;
  for (PanelIndex p : in.assembly.panels.indices()) {
    const Panel& panel = in.assembly.panels[p];
    if (!shut.placed[p] || in.motion.isLoose(p)) continue;
    if (panel.owner)
      panels[panel.owner->value].push_back(p);
    else if (panel.use == PanelUse::Topper)
      onPages.push_back({{}, {p}});
  }
  for (const StructureItem& item : in.design.structures)
    groups.push_back({{item.id}, panels[item.id.value]});
  groups.insert(groups.end(), onPages.begin(), onPages.end());
  return groups;
}

std::vector<Finding> checkInsideCover(const CheckInput& in) {
  // A card that cannot be shut, or is not meant to be, has no shut state.
  if (!in.motion.shuts()) return {};
  const auto locked = [](const Finding& f) { return f.code == "locked"; };
  if (std::ranges::any_of(in.of(holdsCheck()), locked)) return {};
  const Pose shut = in.motion.shutPose();
  const Iso3 toPage = inverseOf(shut.panels[in.assembly.root]);
  Box2 cover; // all pages of the base as they lie in the shut card
  for (const auto& [page, pose] : in.assembly.basePoses(0)) {
    // What a pull moves is no page, nor is what was put on one.
    if (in.assembly.panels[page].owner || in.assembly.panels[page].use == PanelUse::Topper)
      continue;
    for (const Vec2& c : in.assembly.panels[page].outline.rim)
      cover.add(Vec2((toPage * (pose * lift(c))).head<2>()));
  }
  const bool folded[] = {
      foldedAt(in, shut, toPage, 0, cover.low.x()), foldedAt(in, shut, toPage, 1, cover.low.y()),
      foldedAt(in, shut, toPage, 1, cover.high.y()), foldedAt(in, shut, toPage, 0, cover.high.x())};
  const Vec2 spare = spareOf(in, shut, toPage, cover);
  std::vector<Finding> found;
  for (const Group& group : groupsOf(in, shut)) {
    Worst worst;
    for (PanelIndex p : group.panels) {
      for (const Vec2& corner : in.assembly.panels[p].outline.rim) {
        const Vec3 world = shut.panels[p] * lift(corner), q = toPage * world;
        const double reserve = in.design.settings.edgeReserve_mm;
        // No reserve at a fold: structures start there.
        const double out[] = {cover.low.x() - q.x(), cover.low.y() - q.y(), q.y() - cover.high.y(),
                              q.x() - cover.high.x()};
        // The first of those that stick out as far: poses are not truer than that.
        for (int edge = 0; edge < 4; ++edge)
          if (const double past = out[edge] - (folded[edge] ? reserve : 0);
              past > worst.out_mm + motion::kShown_mm)
            worst = {past, edge, p, world};
      }
    }
    const double reserve = in.design.settings.edgeReserve_mm;
    if (!worst.panel.valid() || worst.out_mm <= -reserve + kTouch_mm) continue;
    const bool alongDepth = worst.edge == 0 || worst.edge == 3;
    if (worst.out_mm > kTouch_mm && spare[alongDepth ? 0 : 1] > -kTouch_mm) continue;
    const double past = folded[worst.edge] ? worst.out_mm + reserve : worst.out_mm;
    Finding f{past > kTouch_mm ? "outside-cover" : "edge-reserve",
              past > kTouch_mm ? Severity::Spoils : Severity::Advice,
              {in.assembly.panels[worst.panel].key},
              group.owners};
    f.amount = past > kTouch_mm ? past : past + reserve;
    f.detail = edgeName(worst.edge, in.design.card.fold, folded[worst.edge]);
    f.place = worst.place;
    found.push_back(std::move(f));
  }
  // Of sheets the leaves themselves may be larger than what they are wanted for.
  const double over = -std::min(spare.x(), spare.y());
  if (found.empty() && !in.design.card.sheets.empty() && over > kTouch_mm) {
    Finding f{"finished-small", Severity::Spoils, {"card"}};
    f.amount = over, f.place = shut.panels[in.assembly.root].translation();
    found.push_back(std::move(f));
  }
  return found;
}

} // namespace

const CheckKind& insideCoverCheck() {
  static const CheckKind kind{"outside-cover", checkInsideCover};
  return kind;
}

} // namespace hinge
