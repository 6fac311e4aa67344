// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/design/place_rule.h"
#include <utility>

namespace hinge {

const placed::LineBelow* lineBelow(const PlaceRule& rule) {
  return std::visit(
      [](const auto& given) -> const placed::LineBelow* {
        if constexpr (requires { given.from; })
          return &given.from;
        else if constexpr (requires { given.on; })
          return &given.on;
        else
          return nullptr;
      },
      rule);
}

placed::LineBelow* lineBelow(PlaceRule& rule) {
  return const_cast<placed::LineBelow*>(lineBelow(std::as_const(rule)));
}

void eachPoint(PlaceRule& rule, const std::function<void(Vec2&)>& change) {
  if (auto* distance = std::get_if<placed::Distance>(&rule)) {
    if (Vec2* point = std::get_if<Vec2>(&distance->own)) change(*point);
  } else if (auto* level = std::get_if<placed::Level>(&rule)) {
    change(level->with);
  } else if (auto* mirror = std::get_if<placed::Mirrored>(&rule)) {
    change(mirror->of);
  }
}

PlaceRule mirrored(const PlaceRule& rule) {
  PlaceRule image = rule;
  if (auto* distance = std::get_if<placed::Distance>(&image))
    if (SheetEdge* side = std::get_if<SheetEdge>(&distance->own)) *side = exchanged(*side);
  return image;
}

} // namespace hinge
