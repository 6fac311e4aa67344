// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/states/glue_lines.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

// A wall stands on the side of the paper on which its tab is glued. Seen as planes, a wall that
// swings through its own glue line to the other side meets its host only in that line, so the
// search for contacts cannot tell; its tab can.

namespace hinge {
namespace {

const double kLeastSine = std::sin(kLiesOn_rad);

std::vector<GlueLine> linesOf(const CheckInput& in) {
  // What does not shut flat is said to; where its walls go meanwhile follows from that.
  const auto standsOff = [&](const std::optional<StructureId>& owner) {
    return owner && std::ranges::any_of(in.of(shutFlatCheck()), [&](const Finding& f) {
             return std::ranges::find(f.owners, *owner) != f.owners.end();
           });
  };
  std::vector<GlueLine> all = glueLines(in.assembly);
  // Of what is loose it is not decided on which side it hangs.
  std::erase_if(all, [&](const GlueLine& line) {
    return standsOff(in.assembly.panels[line.tab].owner) || in.motion.isLoose(line.wall);
  });
  return all;
}

std::vector<Finding> checkGluedSide(const CheckInput& in) {
  std::vector<Finding> found;
  const std::vector<GlueLine> lines = linesOf(in);
  std::vector<int> known(lines.size(), -1);
  for (double t = kCheckStep_rad; t < kPi; t += kCheckStep_rad) {
    const Pose pose = in.motion.poseAt(t);
    for (std::size_t k = 0; k < lines.size(); ++k) {
      const GlueLine& h = lines[k];
      if (!h.placedIn(pose)) continue;
      const double above = h.rise(pose);
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
  static const CheckKind kind{"glued-side", checkGluedSide};
  return kind;
}

} // namespace hinge
