// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/design/piece_joint.h"
#include "core/units/length.h"
#include <cmath>

namespace hinge {

static_assert(std::variant_size_v<given::Kind> == kJointKeys.size());

std::string_view jointKey(const given::Kind& kind) {
  return kJointKeys[kind.index()];
}

std::vector<JointNumber> numbersOf(given::Kind& kind) {
  std::vector<JointNumber> all;
  const auto angle = [&](std::string_view key, double& value, bool spared = false) {
    all.push_back({key, &value, ParameterUnit::Degree, spared});
  };
  const auto length = [&](std::string_view key, double& value, bool spared = false) {
    all.push_back({key, &value, ParameterUnit::Millimetre, spared});
  };
  std::visit(
      [&](auto& joint) {
        if constexpr (requires { joint.turn_deg; }) angle("turn_deg", joint.turn_deg);
        if constexpr (requires { joint.way_deg; }) angle("way_deg", joint.way_deg);
        if constexpr (requires { joint.slit_mm; })
          length("slit_mm", joint.slit_mm), length("face_slit_mm", joint.faceSlit_mm),
              length("catch_mm", joint.catch_mm);
        if constexpr (requires { joint.pull_mm; })
          length("least_mm", joint.least_mm), length("most_mm", joint.most_mm),
              length("pull_mm", joint.pull_mm), angle("pull_from_deg", joint.pullFrom_deg),
              angle("pull_to_deg", joint.pullTo_deg);
        if constexpr (requires { joint.handFrom_deg; })
          angle("hand_from_deg", joint.handFrom_deg), angle("hand_to_deg", joint.handTo_deg),
              angle("hand_step_deg", joint.handStep_deg, true);
        if constexpr (requires { joint.handFrom_mm; })
          length("hand_from_mm", joint.handFrom_mm), length("hand_to_mm", joint.handTo_mm),
              length("hand_step_mm", joint.handStep_mm, true);
        if constexpr (requires { joint.over; })
          all.push_back({"over", &joint.over, ParameterUnit::Count, true});
        if constexpr (requires { joint.length_mm; }) length("length_mm", joint.length_mm);
      },
      kind);
  return all;
}

bool* byFaceOf(given::Kind& kind) {
  return std::visit(
      [](auto& joint) -> bool* {
        if constexpr (requires { joint.byFace; })
          return &joint.byFace;
        else
          return nullptr;
      },
      kind);
}

const bool* byFaceOf(const given::Kind& kind) {
  return byFaceOf(const_cast<given::Kind&>(kind));
}

given::Kind changedTo(std::size_t kind, const given::Kind& from) {
  static const std::array<given::Kind, kJointKeys.size()> blank{
      given::Glue(), given::Slot(), given::Pivot(), given::Slide(), given::Band(), given::Film()};
  given::Kind made = blank[kind], old = from;
  for (const JointNumber& was : numbersOf(old))
    for (const JointNumber& now : numbersOf(made))
      if (now.key == was.key) *now.value = *was.value;
  if (const bool* was = byFaceOf(from))
    if (bool* now = byFaceOf(made)) *now = *was;
  return made;
}

std::optional<LiesOn> liesOn(const given::Kind& kind) {
  const auto along = [](double turn_deg, bool byFace) {
    return LiesOn{{std::cos(radians(turn_deg)), std::sin(radians(turn_deg))}, byFace ? -1.0 : 1.0};
  };
  if (const auto* glue = std::get_if<given::Glue>(&kind))
    return along(glue->turn_deg, glue->byFace);
  // A slide says which way of the piece runs along its line.
  if (const auto* slide = std::get_if<given::Slide>(&kind))
    return along(slide->turn_deg - (slide->byFace ? -1 : 1) * slide->way_deg, slide->byFace);
  return std::nullopt;
}

std::optional<LiesOn> startsAs(const given::Kind& kind) {
  const auto* pin = std::get_if<given::Pivot>(&kind);
  return pin ? liesOn(given::Glue{pin->turn_deg, pin->byFace, {}}) : liesOn(kind);
}

void layAs(given::Kind& kind, double x_rad) {
  const auto set = [&](double& turn_deg, double way_deg) {
    constexpr double kTidy_deg = 1e-9; // what is turned by a whole number of degrees says so
    const double turned = std::remainder(degrees(x_rad) + way_deg, 360.0),
                 whole = std::round(turned);
    turn_deg = std::abs(turned - whole) < kTidy_deg ? whole : turned;
    if (turn_deg == -180) turn_deg = 180;
  };
  if (auto* glue = std::get_if<given::Glue>(&kind)) set(glue->turn_deg, 0);
  if (auto* pin = std::get_if<given::Pivot>(&kind)) set(pin->turn_deg, 0);
  if (auto* slide = std::get_if<given::Slide>(&kind))
    set(slide->turn_deg, (slide->byFace ? -1 : 1) * slide->way_deg);
}

given::Kind mirrored(const given::Kind& kind) {
  given::Kind image = kind;
  std::visit(
      [](auto& joint) {
        if constexpr (requires { joint.turn_deg; }) joint.turn_deg = -joint.turn_deg;
        if constexpr (requires { joint.way_deg; }) joint.way_deg = 180 - joint.way_deg;
        if constexpr (requires { joint.handFrom_deg; })
          joint.handFrom_deg = -joint.handFrom_deg, joint.handTo_deg = -joint.handTo_deg;
      },
      image);
  return image;
}

given::Kind turnedOver(const given::Kind& kind) {
  given::Kind other = kind;
  std::visit(
      [](auto& joint) {
        // A way along the piece is turned over with it; without one the turn says how it lies.
        if constexpr (requires { joint.way_deg; })
          joint.way_deg = 180 - joint.way_deg;
        else if constexpr (requires { joint.turn_deg; })
          joint.turn_deg += joint.turn_deg > 0 ? -180 : 180;
      },
      other);
  if (bool* byFace = byFaceOf(other)) *byFace = !*byFace;
  return other;
}

} // namespace hinge
