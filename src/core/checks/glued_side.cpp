// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

// A wall stands on the side of the paper on which its tab is glued. Seen as planes, a wall that
// swings through its own glue line to the other side meets its host only in that line, so the
// search for contacts cannot tell; its tab can.

namespace hinge {
namespace {

constexpr double kBeside_mm = 0.5;
/// Paper that lies on its host may seem this far behind it.
const double kLeastSine = std::sin(radians(0.5));

struct TabHinge {
  PanelIndex wall, tab, host;
  Vec3 into;   ///< from the glue line into the wall, in the wall's piece
  Vec3 side;   ///< out of the host on the glued side, in the host's piece
  Vec2 middle; ///< of the glue line, in the host's piece
};

std::vector<TabHinge> hingesOf(const CheckInput& in) {
  const Assembly& assembly = in.assembly;
  // What does not shut flat is said to; where its walls go meanwhile follows from that.
  const auto standsOff = [&](const std::optional<StructureId>& owner) {
    return owner && std::ranges::any_of(in.of(shutFlatCheck()), [&](const Finding& f) {
             return std::ranges::find(f.owners, *owner) != f.owners.end();
           });
  };
  std::vector<TabHinge> all;
  for (const auto& [j, glue] : assembly.every<Glue>()) {
    if (assembly.panels[glue.tab].use != PanelUse::Tab ||
        standsOff(assembly.panels[glue.tab].owner))
      continue;
    for (FoldIndex f : assembly.foldsOf(glue.tab)) {
      const Fold& fold = assembly.folds[f];
      const PanelIndex wall = fold.left == glue.tab ? fold.right : fold.left;
      if (in.motion.isLoose(wall)) continue; // on which side it hangs is not decided
      const Vec2 along = (fold.to - fold.from).normalized(), left(-along.y(), along.x());
      const Vec2 into = fold.left == wall ? left : Vec2(-left);
      const Vec2 middle = (glue.tabToHost * lift(0.5 * (fold.from + fold.to))).head<2>(),
                 across = (glue.tabToHost.linear() * lift(left)).head<2>();
      // At the edge of its host a wall is free to swing to both sides.
      const Region& outline = assembly.panels[glue.host].outline;
      if (!contains(outline, middle + kBeside_mm * across) ||
          !contains(outline, middle - kBeside_mm * across))
        continue;
      all.push_back(
          {wall, glue.tab, glue.host, lift(into), Vec3(0, 0, glue.onHostFace() ? 1 : -1), middle});
    }
  }
  return all;
}

std::vector<Finding> run(const CheckInput& in) {
  std::vector<Finding> found;
  const std::vector<TabHinge> hinges = hingesOf(in);
  std::vector<int> known(hinges.size(), -1);
  for (double t = kCheckStep_rad; t < kPi; t += kCheckStep_rad) {
    const Pose pose = in.motion.poseAt(t);
    for (std::size_t k = 0; k < hinges.size(); ++k) {
      const TabHinge& h = hinges[k];
      if (!pose.placed[h.wall] || !pose.placed[h.host]) continue;
      const double above =
          (pose.panels[h.wall].linear() * h.into).dot(pose.panels[h.host].linear() * h.side);
      if (above > -kLeastSine) continue;
      if (known[k] < 0) {
        known[k] = static_cast<int>(found.size());
        Finding f{"behind-glue",
                  Severity::Spoils,
                  {in.assembly.panels[h.wall].key, in.assembly.panels[h.host].key}};
        if (const auto& owner = in.assembly.panels[h.wall].owner) f.owners.push_back(*owner);
        f.from_rad = t, f.unit = AmountUnit::Degree;
        found.push_back(std::move(f));
      }
      Finding& f = found[static_cast<std::size_t>(known[k])];
      f.to_rad = t;
      const double angle = degrees(std::asin(std::min(1.0, -above)));
      if (angle > f.amount)
        f.amount = angle, f.show_rad = t, f.place = pose.panels[h.host] * lift(h.middle);
    }
  }
  return found;
}

} // namespace

const CheckKind& gluedSideCheck() {
  static const CheckKind kind{"glued-side", run};
  return kind;
}

} // namespace hinge
