// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/checks/evidence.h"
#include "core/contact/contact.h"
#include "core/states/lift.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

// What hangs and what is lifted by hand: paper that nothing but a fold holds is told of unless its
// maker wants it so; what is lifted hits nothing on its whole way, in the card as it is displayed
// and opened farther. In a card that is less open no hand lifts it.

namespace hinge {
namespace {

/// One for each piece: what hangs on what hangs is the same paper.
void findHanging(const CheckInput& in, std::vector<Finding>& found) {
  std::vector<PieceIndex> told;
  for (const Fold& fold : in.assembly.folds) {
    const PieceIndex piece = in.assembly.panels[fold.left].piece;
    if (!fold.hangs || std::ranges::find(told, piece) != told.end()) continue;
    told.push_back(piece);
    Finding f{"hangs", Severity::Advice};
    const bool leftHeld = in.assembly.panels[fold.left].gluedBy.valid();
    addPanel(in, leftHeld ? fold.right : fold.left, f);
    f.detail = *fold.rest_rad == 0 ? fold.label : Text("as-folded", fold.label);
    f.amount = 1, f.unit = AmountUnit::Count;
    f.to_rad = kPi, f.show_rad = 0.5 * (in.motion.low_rad() + in.motion.high_rad());
    found.push_back(std::move(f));
  }
}

/// The deepest crossing of what is lifted with all else, on its whole way.
class Sweep {
public:
  Sweep(const CheckInput& in, const Lift& lift) : m_in(in), m_lift(lift) { m_f.code = "lift-hits"; }

  std::optional<Finding> run() {
    const double low = m_in.motion.low_rad(), high = m_in.motion.high_rad();
    const double shown = std::clamp(radians(m_in.design.card.display_deg), low, high);
    constexpr double kApart_rad = radians(30);
    const int parts = static_cast<int>(std::ceil((high - shown) / kApart_rad));
    look(shown);
    for (int k = 1; k <= parts; ++k)
      look(shown + (high - shown) * k / parts);
    return m_f.amount > 0 ? std::optional(m_f) : std::nullopt;
  }

private:
  /// The whole way at one opening.
  void look(double opening_rad) {
    constexpr double kStep_rad = radians(2), kStep_mm = 2;
    const Pose rest = m_in.motion.poseAt(opening_rad);
    const double way = std::abs(m_lift.most - m_lift.least);
    const int steps =
        std::max(1, static_cast<int>(std::ceil(way / (m_lift.slides ? kStep_mm : kStep_rad))));
    for (int k = 0; k <= steps && !m_in.stop.stop_requested(); ++k) {
      const double share = static_cast<double>(k) / steps;
      look(lifted(m_in.assembly, rest, m_lift, share),
           m_lift.least + (m_lift.most - m_lift.least) * share);
    }
  }

  void look(const Pose& pose, double at) {
    constexpr double kDeep_mm = 0.05; // shallower crossings are touching paper
    for (PanelIndex p : m_lift.panels) {
      if (!pose.placed[p]) continue;
      const auto own = platesOf(m_in.assembly, p, pose);
      for (PanelIndex q : m_in.assembly.panels.indices()) {
        if (!pose.placed[q] || m_in.motion.isLoose(q) ||
            std::ranges::find(m_lift.panels, q) != m_lift.panels.end())
          continue;
        Vec3 place;
        const auto other = platesOf(m_in.assembly, q, pose);
        const double depth = crossingDepth(own, other, &place, DepthOf::Place);
        if (depth <= std::max(kDeep_mm, m_f.amount)) continue;
        m_f.elements.clear(), m_f.owners.clear();
        addPanel(m_in, p, m_f), addPanel(m_in, q, m_f);
        m_f.amount = depth, m_f.place = place;
        m_f.from_rad = m_f.to_rad = m_f.show_rad = pose.opening_rad;
        m_f.detail = placeOf(at);
      }
    }
  }

  /// A fold by the angle between its leaves, a pin by its turn, a slide by its way.
  Text placeOf(double at) const {
    if (m_lift.slides) return {"as-it-is", Millimetres{at}};
    return {"as-it-is", Degrees{m_lift.fold.valid() ? 180 - std::abs(degrees(at)) : degrees(at)}};
  }

  const CheckInput& m_in;
  const Lift& m_lift;
  Finding m_f;
};

std::vector<Finding> checkLifts(const CheckInput& in) {
  std::vector<Finding> found;
  findHanging(in, found);
  for (const Lift& lift : in.assembly.lifts)
    if (auto f = Sweep(in, lift).run()) found.push_back(std::move(*f));
  return found;
}

} // namespace

const CheckKind& liftsCheck() {
  static const CheckKind kind{"lifts", checkLifts};
  return kind;
}

} // namespace hinge
