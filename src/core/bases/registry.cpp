// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/base.h"

namespace hinge {

std::span<const BaseKind* const> baseKinds() {
  static const BaseKind* const all[] = {
      &singleFoldBase(), &concertinaBase(), &gateBase(),        &triFoldBase(), &easelBase(),
      &footBase(),       &sleeveBase(),     &doubleEaselBase(), &petalsBase(),  &joinedBase()};
  return all;
}

const BaseKind* findBaseKind(std::string_view key) {
  for (const BaseKind* kind : baseKinds())
    if (kind->key == key) return kind;
  return nullptr;
}

Result<CardBase> onBase(const CardBase& card, std::string_view key) {
  const BaseKind* kind = findBaseKind(key);
  if (!kind) return Error{{"base.unknown", key}, "card"};
  CardBase changed = card;
  changed.kind = key, changed.values = kind->fit(card), changed.display_deg = kind->display_deg,
  changed.rests = kind->rests;
  return changed;
}

} // namespace hinge
