// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assembly/joint.h"
#include "core/design/piece_joint.h"
#include <algorithm>
#include <type_traits>

namespace hinge {
namespace {

/// The joint as its base, when it has that.
template <class Base> const Base* asBase(const Joint& joint) {
  return std::visit(
      [](const auto& made) -> const Base* {
        if constexpr (std::is_base_of_v<Base, std::decay_t<decltype(made)>>)
          return &made;
        else
          return nullptr;
      },
      joint);
}

} // namespace

static_assert(std::variant_size_v<Joint> == kJointKeys.size());

double Pull::at_mm(double opening_rad) const {
  return way_mm * std::clamp((opening_rad - from_rad) / (to_rad - from_rad), 0.0, 1.0);
}

std::string_view jointKey(const Joint& joint) {
  return kJointKeys[joint.index()];
}

const Guide* guideOf(const Joint& joint) {
  return asBase<Guide>(joint);
}

const Tie* tieOf(const Joint& joint) {
  return asBase<Tie>(joint);
}

std::array<PanelIndex, 2> panelsOf(const Joint& joint) {
  if (const Glue* glue = std::get_if<Glue>(&joint)) return {glue->host, glue->tab};
  if (const Guide* guide = guideOf(joint)) return {guide->first, guide->second};
  return tieOf(joint)->panels;
}

Iso3 turnedInFirst(const Guide& guide, double angle_rad) {
  Iso3 turn = Iso3::Identity();
  turn.linear() = Eigen::AngleAxisd(angle_rad, Vec3::UnitY()).toRotationMatrix();
  return guide.onFirst * turn * inverseOf(guide.onSecond);
}

Iso3 movedInFirst(const Joint& joint, double angle_or_way) {
  if (const Slide* slide = std::get_if<Slide>(&joint)) return slidInFirst(*slide, angle_or_way);
  return turnedInFirst(*guideOf(joint), angle_or_way);
}

Iso3 slidInFirst(const Slide& slide, double way_mm) {
  return slide.onFirst * Eigen::Translation3d(way_mm * Vec3::UnitY()) * inverseOf(slide.onSecond);
}

} // namespace hinge
