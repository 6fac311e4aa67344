// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/toppers.h"
#include "core/checks/evidence.h"
#include "core/motion/fold_angle.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <map>

// Toppers: something holds each on one panel, none reaches over a fold that closes on it, and what
// stands on pads clears what passes over it. That they are paper like all other in the motion and
// in the shut card is seen to by the checks for panels.

namespace hinge {
namespace {

/// Less paper than this (mm2) holds nothing.
constexpr double kLeastHeld_mm2 = 25;
constexpr double kLeastOver_mm = 0.2;
const double kCloses_rad = radians(1);
/// Paper that comes down on pads lies on them from here on; how high that is is told as thickness.
const double kLyingDown = std::sin(radians(25));

class Topping {
public:
  Topping(const CheckInput& in, std::vector<Finding>& found) : m_in(in), m_found(found) {
    const auto at = [&](double opening) { m_poses.push_back(in.motion.poseAt(opening)); };
    for (double opening = in.motion.low_rad(); opening < in.motion.high_rad();
         opening += kCheckStep_rad)
      at(opening);
    at(in.motion.high_rad());
  }

  void look(const Topper& topper) {
    const Seat* seat = m_in.assembly.findSeat(topper.face);
    if (!seat || seat->kind() != SeatKind::Face) return;
    const std::vector<Region> outer = takenBy(topper, m_in.design.settings);
    const std::vector<std::string> keys = lowestPanels(topper, m_in.design.settings);
    for (std::size_t k = 0; k < outer.size(); ++k) {
      const PanelIndex panel = m_in.assembly.findPanel(keys[k]);
      if (!panel.valid()) continue;
      held(topper, *seat, panel, outer[k]);
      folds(topper, *seat, panel, outer[k]);
      if (topper.fix == TopperFix::Pads) passes(topper, *seat, panel);
    }
  }

private:
  void add(std::string code, PanelIndex panel, PanelIndex other, double amount, double opening) {
    Finding f = findingOn(m_in, std::move(code), Severity::Spoils,
                          other.valid() ? std::vector{panel, other} : std::vector{panel});
    f.amount = amount, f.show_rad = opening;
    m_found.push_back(std::move(f));
  }

  void held(const Topper& topper, const Seat& seat, PanelIndex panel, const Region& shape) {
    double area = 0;
    for (const Region& part :
         fixingZone(m_in.assembly, seat, topper, shape, m_in.design.settings.foldClearance_mm))
      area += area_mm2(part);
    if (area < kLeastHeld_mm2)
      add("topper-unheld", panel, {}, std::sqrt(kLeastHeld_mm2) - std::sqrt(area),
          radians(m_in.design.card.display_deg));
  }

  void folds(const Topper& topper, const Seat& seat, PanelIndex panel, const Region& shape) {
    const PanelIndex host = seat.sides[0].panel;
    const Iso3 frame = onPiece(topper, seat);
    const Region onHost = mapped(shape, frame);
    const double side = frame.linear()(2, 2) < 0 ? -1 : 1;
    for (FoldIndex f : m_in.assembly.foldsOf(host)) {
      const Fold& fold = m_in.assembly.folds[f];
      const PanelIndex beyond = fold.left == host ? fold.right : fold.left;
      const double over = reachOver(fold, fold.left == host, onHost, beyond);
      if (over < kLeastOver_mm) continue;
      for (const Pose& pose : m_poses)
        if (pose.placed[host] && pose.placed[beyond] &&
            side * foldAngleIn(pose, fold) > kCloses_rad) {
          add("topper-over-fold", panel, beyond, over, pose.opening_rad);
          break;
        }
    }
  }

  /// How far a shape reaches past a fold over the panel beyond it.
  double reachOver(const Fold& fold, bool hostIsLeft, const Region& shape,
                   PanelIndex beyond) const {
    const Vec2 along = (fold.to - fold.from).normalized(),
               out = hostIsLeft ? Vec2(along.y(), -along.x()) : Vec2(-along.y(), along.x());
    double over = 0;
    for (const Region& part : common(shape, m_in.assembly.panels[beyond].outline))
      for (const Vec2& corner : part.rim)
        over = std::max(over, out.dot(corner - fold.from));
    return over;
  }

  std::vector<std::vector<Vec3>> inSpace(PanelIndex panel, const Pose& pose, double raised) const {
    std::vector<std::vector<Vec3>> parts;
    const Iso3& place = pose.panels[panel];
    const Vec3 off = raised * place.linear().col(2);
    for (const Polygon& part : convexParts(m_in.assembly.panels[panel].outline)) {
      std::vector<Vec3>& corners = parts.emplace_back();
      for (const Vec2& corner : part)
        corners.push_back(place * lift(corner) + off);
    }
    return parts;
  }

  /// What passes through a topper on its pads, while it does not just come down on it.
  void passes(const Topper& topper, const Seat& seat, PanelIndex panel) {
    std::map<int, std::pair<double, double>> worst; // by panel: depth and opening
    for (const Pose& pose : m_poses) {
      if (!pose.placed[panel]) continue;
      const auto own = inSpace(panel, pose, topper.raised_mm);
      for (PanelIndex other : m_in.assembly.panels.indices()) {
        if (!pose.placed[other] || other == seat.sides[0].panel ||
            m_in.assembly.panels[other].use == PanelUse::Topper)
          continue;
        const Vec3 across =
            pose.panels[panel].linear().col(2).cross(pose.panels[other].linear().col(2));
        if (across.norm() < kLyingDown) continue;
        const double depth = crossingDepth(own, inSpace(other, pose, 0));
        auto& known = worst[other.value];
        if (depth > known.first) known = {depth, pose.opening_rad};
      }
    }
    constexpr double kTouch_mm = 0.2;
    for (const auto& [other, hit] : worst)
      if (hit.first > kTouch_mm)
        add("topper-hits", panel, PanelIndex(other), hit.first, hit.second);
  }

  const CheckInput& m_in;
  std::vector<Finding>& m_found;
  std::vector<Pose> m_poses;
};

std::vector<Finding> checkToppers(const CheckInput& in) {
  std::vector<Finding> found;
  if (in.design.dressing.toppers.empty()) return found;
  Topping topping(in, found);
  for (const Topper& topper : in.design.dressing.toppers)
    topping.look(topper);
  return found;
}

} // namespace

const CheckKind& toppersCheck() {
  static const CheckKind kind{"toppers", checkToppers};
  return kind;
}

} // namespace hinge
