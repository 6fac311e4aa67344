// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

// Limbs: what turns on pivots or slides on the same side of the same panel lies in one layer, if
// its maker has not laid it over others, and may not lie over one another at any opening. Seen as
// planes such panels never cross, so the search for contacts cannot tell.

namespace hinge {
namespace {

struct Limb {
  const Guide* guide;
  bool onFace; ///< side of the panel it lies on; guide->over says in which layer there
};

double overlap_mm2(const CheckInput& in, const Limb& a, const Limb& b, double t, Vec3* place) {
  const Pose pose = in.motion.poseAt(t);
  for (PanelIndex p : {a.guide->second, b.guide->second, a.guide->first})
    if (!pose.placed[p]) return 0;
  const Iso3 home = inverseOf(pose.panels[a.guide->first]);
  std::vector<Polygon> parts[2];
  for (int k : {0, 1}) {
    const PanelIndex p = (k == 0 ? a : b).guide->second;
    for (Polygon part : convexParts(in.assembly.panels[p].outline)) {
      for (Vec2& c : part)
        c = (home * (pose.panels[p] * lift(c))).head<2>();
      if (signedArea_mm2(part) < 0) std::reverse(part.begin(), part.end());
      parts[k].push_back(std::move(part));
    }
  }
  double area = 0;
  for (const Polygon& u : parts[0])
    for (const Polygon& v : parts[1])
      if (const Polygon shared = intersectConvex(u, v); !shared.empty()) {
        area += std::abs(signedArea_mm2(shared));
        if (place) *place = pose.panels[a.guide->first] * lift(centroidOf(shared));
      }
  return area;
}

std::vector<Finding> checkLimbs(const CheckInput& in) {
  std::vector<Limb> limbs;
  for (const Joint& joint : in.assembly.joints)
    if (const Pivot* pivot = std::get_if<Pivot>(&joint))
      limbs.push_back({pivot, pivot->onFace()});
    else if (const Slide* slide = std::get_if<Slide>(&joint))
      limbs.push_back({slide, slide->onFace()});
  std::vector<Finding> found;
  for (std::size_t i = 0; i < limbs.size(); ++i)
    for (std::size_t j = i + 1; j < limbs.size(); ++j) {
      const Limb &a = limbs[i], &b = limbs[j];
      if (in.motion.isLoose(a.guide->second) || in.motion.isLoose(b.guide->second)) continue;
      if (a.guide->first != b.guide->first || a.onFace != b.onFace ||
          a.guide->over != b.guide->over || a.guide->second == b.guide->second)
        continue;
      Finding f{"limbs-hit",
                Severity::Spoils,
                {in.assembly.panels[a.guide->second].key, in.assembly.panels[b.guide->second].key}};
      for (const Guide* h : {b.guide, a.guide})
        if (h->owner && std::ranges::find(f.owners, *h->owner) == f.owners.end())
          f.owners.push_back(*h->owner);
      bool before = false;
      double last = in.motion.low_rad(), worst = 0;
      for (double t = in.motion.low_rad();;
           t = std::min(t + kCheckStep_rad, in.motion.high_rad())) {
        Vec3 place;
        const double area = overlap_mm2(in, a, b, t, &place);
        const bool over = area > kLeastOverlap_mm2;
        if (over != before && t > last) {
          double low = last, high = t;
          while (high - low > kCheckFinest_rad) {
            const double middle = 0.5 * (low + high);
            ((overlap_mm2(in, a, b, middle, nullptr) > kLeastOverlap_mm2) == before ? low : high) =
                middle;
          }
          if (over && worst == 0) f.from_rad = high;
          if (!over) f.to_rad = low;
        }
        if (over) {
          f.to_rad = t;
          if (area > worst) worst = area, f.show_rad = t, f.place = place;
        }
        before = over, last = t;
        if (t >= in.motion.high_rad() || in.stop.stop_requested()) break;
      }
      if (worst == 0) continue;
      f.amount = std::sqrt(worst); // side of a square as large as the paper that lies over
      found.push_back(std::move(f));
    }
  return found;
}

} // namespace

const CheckKind& limbsCheck() {
  static const CheckKind kind{"limbs", checkLimbs};
  return kind;
}

} // namespace hinge
