// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/dressing.h"
#include "core/paper/topper_shape.h"
#include "core/structures/assemble.h"
#include "core/units/lattice.h"
#include <algorithm>

namespace hinge {

bool isUsed(const Design& design, std::string_view paper) {
  return design.stock == paper ||
         std::ranges::any_of(design.structures,
                             [&](const StructureItem& item) { return item.paper == paper; }) ||
         std::ranges::any_of(design.dressing.rules,
                             [&](const DressRule& rule) {
                               return std::ranges::any_of(rule.layers, [&](const Layer& layer) {
                                 return layer.paper == paper;
                               });
                             }) ||
         std::ranges::any_of(design.dressing.toppers, [&](const Topper& topper) {
           return topper.paper == paper || (topper.mat && topper.mat->paper == paper);
         });
}

Result<Design> withPaper(const Design& design, const Paper& paper) {
  if (auto valid = validate(paper); !valid) return valid.error();
  Design next = design;
  const auto same = std::ranges::find(next.papers, paper.key, &Paper::key);
  if (same != next.papers.end())
    *same = paper;
  else
    next.papers.push_back(paper);
  return next;
}

Result<Design> withPaperAtHand(const Design& design, std::string_view key) {
  if (design.findPaper(key)) return design;
  const Paper* known = findPaper(knownPapers(), key);
  if (!known) return Error{{"paper.unknown", std::string(key.substr(0, 40))}, "paper"};
  return withPaper(design, *known);
}

Result<Design> withoutPaper(const Design& design, std::string_view key) {
  if (!design.findPaper(key))
    return Error{{"paper.missing", std::string(key.substr(0, 40))}, "paper"};
  if (isUsed(design, key)) return Error{{"paper.used", std::string(key)}, "paper"};
  Design next = design;
  std::erase_if(next.papers, [&](const Paper& paper) { return paper.key == key; });
  return next;
}

Result<Design> withCardPaper(const Design& design, std::string_view key) {
  auto with = withPaperAtHand(design, key);
  if (!with) return with;
  Design next = std::move(with).value();
  const std::string before = std::exchange(next.stock, std::string(key));
  const Paper *own = next.findPaper(before), *known = findPaper(knownPapers(), before);
  if (own && known && *own == *known && !isUsed(next, before)) return withoutPaper(next, before);
  return next;
}

Result<Design> withPaperFor(const Design& design, StructureId id, std::string_view key) {
  auto with = key.empty() ? Result<Design>(design) : withPaperAtHand(design, key);
  if (!with) return with;
  Design next = std::move(with).value();
  const auto item = std::ranges::find(next.structures, id, &StructureItem::id);
  if (item == next.structures.end()) return Error{{"structure.missing", id.text()}, "paper"};
  item->paper = key;
  return next;
}

Result<Design> withRule(const Design& design, DressRule rule) {
  Design next = design;
  for (const Layer& layer : rule.layers) {
    auto with = withPaperAtHand(next, layer.paper);
    if (!with) return with;
    next = std::move(with).value();
  }
  std::erase_if(next.dressing.rules, [&](const DressRule& other) {
    return other.reach == rule.reach && other.face == rule.face;
  });
  next.dressing.rules.push_back(std::move(rule));
  if (auto valid = validatePapers(next); !valid) return valid.error();
  return next;
}

Result<Design> withoutRule(const Design& design, std::size_t rule) {
  if (rule >= design.dressing.rules.size())
    return Error{{"dress.no-rule", static_cast<int>(rule + 1)}, "dress"};
  Design next = design;
  next.dressing.rules.erase(next.dressing.rules.begin() + static_cast<std::ptrdiff_t>(rule));
  return next;
}

Result<Design> withTopper(const Design& design, Topper topper) {
  Design next = design;
  std::vector<std::string> papers{topper.paper};
  if (topper.mat) papers.push_back(topper.mat->paper);
  for (const std::string& paper : papers) {
    auto with = withPaperAtHand(next, paper);
    if (!with) return with;
    next = std::move(with).value();
  }
  const auto same = std::ranges::find(next.dressing.toppers, topper.id, &Topper::id);
  const std::string face = topper.face;
  if (same != next.dressing.toppers.end())
    *same = std::move(topper);
  else
    next.dressing.toppers.push_back(std::move(topper));
  const auto assembly = assembleDesign(next);
  if (!assembly) return assembly.error();
  const Seat* seat = assembly->findSeat(face);
  if (!seat || seat->kind() != SeatKind::Face)
    return Error{{"dress.no-face", face.substr(0, 60)}, "topper"};
  return next;
}

Result<Design> withoutTopper(const Design& design, int id) {
  if (!design.dressing.find(id)) return Error{{"topper.missing", id}, "topper"};
  Design next = design;
  std::erase_if(next.dressing.toppers, [&](const Topper& topper) { return topper.id == id; });
  return next;
}

Result<Topper> freshTopper(const Design& design, std::string_view face, std::string_view shape,
                           std::string_view paper) {
  constexpr double kOfFace = 0.6; ///< of the room on the face
  const auto assembly = assembleDesign(design);
  if (!assembly) return assembly.error();
  const Seat* seat = assembly->findSeat(face);
  if (!seat || seat->kind() != SeatKind::Face)
    return Error{{"dress.no-face", std::string(face.substr(0, 60))}, "topper"};
  // Lettering and own shapes come as they are drawn.
  const bool drawn = shape == kLettering || shape == kOwnShape;
  static constexpr TopperShape kDrawn{"", 60, 10, 1, nullptr};
  const TopperShape* known = drawn ? &kDrawn : findTopperShape(shape);
  if (!known) return Error{{"topper.shape", std::string(shape.substr(0, 40))}, "topper"};
  const SeatSide& side = seat->sides[0];
  const Region outline = mapped(assembly->panels[side.panel].outline, inverseOf(side.toPiece));
  const Box2 box = boundsOf(outline);
  const double fits = std::min({1.0, kOfFace * box.size().x() / known->usualWidth_mm,
                                kOfFace * box.size().y() / known->usualHeight_mm});
  const double step = latticeStep_mm(design.settings.unit);
  Topper topper;
  topper.id = design.dressing.nextTopper();
  topper.face = face, topper.shape = shape, topper.paper = paper;
  topper.width_mm = std::max(kLeastTopper_mm, downToLattice(fits * known->usualWidth_mm, step));
  topper.height_mm = std::max(kLeastTopper_mm, downToLattice(fits * known->usualHeight_mm, step));
  topper.detail = known->usualDetail;
  topper.at = box.centre();
  return topper;
}

Dressing undressed(Dressing dressing, const std::vector<StructureId>& gone) {
  const auto isGone = [&](const auto& item) {
    const auto owner = ownerOfKey(item.face);
    return owner && std::ranges::find(gone, *owner) != gone.end();
  };
  std::erase_if(dressing.rules, isGone);
  std::erase_if(dressing.toppers, isGone);
  return dressing;
}

namespace {

/// The bounds of a face in its own frame; nothing when it is not there.
std::optional<Box2> boxOf(const Assembly& assembly, const std::string& face) {
  const Seat* seat = assembly.findSeat(face);
  if (!seat || seat->kind() != SeatKind::Face) return std::nullopt;
  const SeatSide& side = seat->sides[0];
  return boundsOf(mapped(assembly.panels[side.panel].outline, inverseOf(side.toPiece)));
}

} // namespace

Design toppersCarriedAlong(const Design& before, Design after) {
  constexpr double kSameShape = 1e-3;
  if (after.dressing.toppers.empty()) return after;
  const auto then = assembleDesign(before), now = assembleDesign(after);
  if (!then || !now) return after; // who asks for it says why
  for (Topper& topper : after.dressing.toppers) {
    const auto old = boxOf(*then, topper.face), made = boxOf(*now, topper.face);
    if (!old || !made) continue;
    const Vec2 by = made->size().cwiseQuotient(old->size());
    topper.at = made->low + (topper.at - old->low).cwiseProduct(by);
    if (std::abs(by.x() - by.y()) > kSameShape || !topper.outlines.empty()) continue;
    topper.width_mm *= by.x(), topper.height_mm *= by.y();
  }
  return after;
}

void copyDressing(Design& design, const Assembly& assembly,
                  const std::map<StructureId, StructureId>& copies,
                  const std::function<std::string(const std::string&)>& imageOf, bool mirrored) {
  const auto copied = [&](const std::string& face) -> std::optional<std::string> {
    const auto owner = ownerOfKey(face);
    const auto copy = owner ? copies.find(*owner) : copies.end();
    if (copy == copies.end()) return std::nullopt;
    const std::string there = imageOf(face);
    return copy->second.text() + there.substr(std::min(there.find('/'), there.size()));
  };
  const Dressing before = design.dressing;
  for (DressRule rule : before.rules)
    if (const auto face = copied(rule.face)) {
      rule.face = *face;
      design.dressing.rules.push_back(std::move(rule));
    }
  for (Topper topper : before.toppers) {
    const auto face = copied(topper.face);
    if (!face) continue;
    if (const auto box = boxOf(assembly, topper.face); box && mirrored) {
      topper.at.x() = box->low.x() + box->high.x() - topper.at.x();
      topper.turn_deg = -topper.turn_deg, topper.mirrored = !topper.mirrored;
    }
    topper.face = *face, topper.id = design.dressing.nextTopper();
    design.dressing.toppers.push_back(std::move(topper));
  }
}

} // namespace hinge
