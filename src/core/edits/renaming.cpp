// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/renaming.h"
#include "core/units/tolerances.h"
#include <algorithm>

namespace hinge {
namespace {

const std::string kBack = "-back";

Vec2 middleOf(const Panel& panel) {
  return centroidOf(convexParts(panel.outline).front());
}
/// Folds of the base are seats by their bare name.
std::string seatKey(std::string_view foldKey) {
  const std::string_view own = "card/";
  return std::string(foldKey.starts_with(own) ? foldKey.substr(own.size()) : foldKey);
}

} // namespace

Renaming::Renaming(const Assembly& before, const Assembly& after, const Moved& moved) {
  std::map<std::string, PieceIndex> pieces;
  for (PieceIndex p : after.pieces.indices())
    pieces[after.pieces[p].key] = p;
  const auto places = [&](const std::string& piece, const Vec2& at) {
    return moved ? moved(piece, at) : std::vector<Place>{{piece, at}};
  };
  const auto panelAt = [&](const Place& place) -> PanelIndex {
    const auto piece = pieces.find(place.piece);
    if (piece == pieces.end()) return {};
    for (PanelIndex p : after.pieces[piece->second].panels)
      if (contains(after.panels[p].outline, place.at)) return p;
    return {};
  };
  for (const Panel& panel : before.panels)
    for (const Place& place : places(before.pieces[panel.piece].key, middleOf(panel)))
      if (const PanelIndex p = panelAt(place); p.valid()) {
        note(panel.key, after.panels[p].key);
        break;
      }
  const auto foldAt = [&](const Place& place) -> const Fold* {
    for (const Fold& other : after.folds)
      if (place.piece == after.pieces[after.panels[other.left].piece].key &&
          distanceToSegment(place.at, other.from, other.to) < kTouch_mm)
        return &other;
    return nullptr;
  };
  for (const Fold& fold : before.folds)
    for (const Place& place :
         places(before.pieces[before.panels[fold.left].piece].key, 0.5 * (fold.from + fold.to)))
      if (const Fold* other = foldAt(place)) {
        note(seatKey(fold.key), seatKey(other->key));
        break;
      }
}

void Renaming::note(const std::string& from, const std::string& to) {
  if (from == to) return;
  m_names[from] = to;
  m_names[from + kBack] = to + kBack;
}

void Renaming::applyTo(std::string& key) const {
  if (const auto found = m_names.find(key); found != m_names.end()) key = found->second;
}

void Renaming::applyTo(PieceJoint& joint) const {
  // Rules call a fold of the panel below by its last word.
  const auto owner = ownerOfKey(joint.on);
  const std::string before = owner ? owner->text() + "/" : "";
  for (PlaceRule& rule : joint.rules) {
    placed::LineBelow* line = lineBelow(rule);
    auto* fold = line ? std::get_if<placed::FoldBelow>(line) : nullptr;
    if (!fold || fold->key.empty()) continue;
    std::string whole = before + fold->key.substr(fold->key.rfind('/') + 1);
    applyTo(whole);
    fold->key = whole.substr(whole.rfind('/') + 1);
  }
  applyTo(joint.on);
}

void Renaming::apply(Design& design) const {
  for (PieceWork& sheet : design.card.sheets)
    for (PieceJoint& joint : sheet.joints)
      applyTo(joint);
  for (StructureItem& item : design.structures) {
    applyTo(item.seat);
    if (item.work)
      for (PieceJoint& joint : item.work->joints)
        applyTo(joint);
  }
  for (DressRule& rule : design.dressing.rules)
    applyTo(rule.face);
  for (Topper& topper : design.dressing.toppers)
    applyTo(topper.face);
  for (Splice& splice : design.splices)
    applyTo(splice.panel);
}

Design upTo(const Design& design, const std::optional<StructureId>& last) {
  Design part = design;
  const auto end = last ? std::ranges::find(part.structures, *last, &StructureItem::id) + 1
                        : part.structures.begin();
  part.structures.erase(end, part.structures.end());
  return part;
}

} // namespace hinge
