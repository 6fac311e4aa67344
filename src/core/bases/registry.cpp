// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/base.h"

namespace hinge {

std::span<const BaseKind* const> baseKinds() {
  static const BaseKind* const all[] = {&singleFoldBase(), &concertinaBase(),  &gateBase(),
                                        &triFoldBase(),    &easelBase(),       &footBase(),
                                        &sleeveBase(),     &doubleEaselBase(), &petalsBase(),
                                        &joinedBase(),     &sheetBase()};
  return all;
}

const BaseKind* findBaseKind(std::string_view key) {
  for (const BaseKind* kind : baseKinds())
    if (kind->key == key) return kind;
  return nullptr;
}

namespace {

/// A sheet of two pages with a valley between them: what a base of sheets begins with.
PieceWork plainCard(const CardBase& card) {
  PieceWork sheet = plainStrip(2 * card.pageDepth_mm(), card.gutterLength_mm());
  const double fold = card.pageDepth_mm();
  sheet.lines.push_back(
      {WorkLine::Kind::Valley, {fold, 0}, {fold, card.gutterLength_mm()}, FoldMoves()});
  return sheet;
}

} // namespace

Result<CardBase> onBase(const CardBase& card, std::string_view key) {
  const BaseKind* kind = findBaseKind(key);
  if (!kind) return Error{{"base.unknown", key}, "card"};
  CardBase changed = card;
  changed.sheets.clear(), changed.ground.reset();
  if (kind == &sheetBase()) changed.sheets = {plainCard(card)};
  changed.kind = key, changed.values = kind->fit(card), changed.display_deg = kind->display_deg,
  changed.rests = kind->rests;
  return changed;
}

} // namespace hinge
