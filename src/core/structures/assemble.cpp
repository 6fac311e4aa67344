// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/assemble.h"
#include "core/assembly/loose_folds.h"
#include "core/bases/base.h"
#include "core/pieces/pocket.h"
#include "core/structures/common.h"
#include "core/structures/registry.h"
#include "core/structures/toppers.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace hinge {
namespace {

/// Offers the faces of the panels an owner has just made, each standing on the fold to its tab or
/// else on its first fold.
void offerFaces(Assembly& assembly, AssemblyBuilder& builder, std::optional<StructureId> owner) {
  std::map<int, const Fold*> stands;
  for (std::size_t k = builder.firstFold(); k < assembly.folds.size(); ++k) {
    const Fold& fold = assembly.folds[FoldIndex(k)];
    for (PanelIndex p : {fold.left, fold.right}) {
      if (assembly.panels[p].owner != owner || assembly.panels[p].use == PanelUse::Tab) continue;
      const PanelIndex other = fold.left == p ? fold.right : fold.left;
      const Fold*& known = stands[p.value];
      if (!known || assembly.panels[other].use == PanelUse::Tab) known = &fold;
    }
  }
  for (const auto& [p, fold] : stands) {
    const bool left = fold->left == PanelIndex(p);
    builder.faceSeats(PanelIndex(p), left ? fold->from : fold->to, left ? fold->to : fold->from);
  }
}

/// The openings in which the card is used. A leaf that never folds stands as it is shown. Checks
/// that look along the opening need some of it.
void useBetween(const CardBase& card, Assembly& assembly) {
  constexpr double kSome_rad = radians(0.5);
  double low = radians(card.worksFrom_deg), high = radians(card.worksTo_deg);
  if (assembly.drives.empty()) low = high = radians(card.display_deg);
  if (high - low < 2 * kSome_rad) {
    const double middle = 0.5 * (low + high);
    low = std::max(0.0, middle - kSome_rad), high = std::min(kPi, middle + kSome_rad);
  }
  assembly.low_rad = low, assembly.high_rad = high;
}

/// The seats that would take a structure; not all of them when there are many.
Text whereElse(const StructureKind& kind, const Assembly& assembly) {
  constexpr int kMost = 6;
  std::string keys;
  int count = 0;
  for (const Seat& seat : assembly.seats)
    if (kind.standsOn(seat, assembly) && ++count <= kMost)
      keys += fmt::format("{}{}", keys.empty() ? "" : ", ", seat.key);
  if (count == 0) return "seat.unsuitable/nowhere";
  return {count > kMost ? "seat.unsuitable/among" : "seat.unsuitable/on", keys};
}

} // namespace

Result<Assembly> assembleDesign(const Design& design) {
  if (auto valid = validateCard(design.card); !valid) return valid.error();
  const BaseKind* base = findBaseKind(design.card.kind);
  if (!base) return Error{{"base.unknown", design.card.kind}, "card"};
  if (auto valid = validate(base->parameters, design.card.values, "card"); !valid)
    return valid.error();
  if (auto valid = validatePapers(design); !valid) return valid.error();
  Assembly assembly;
  {
    AssemblyBuilder builder(assembly, std::nullopt);
    if (auto built = base->build(design.card, builder); !built) return built.error();
    offerFaces(assembly, builder, std::nullopt);
  }
  assembly.openBy_rad = radians(design.card.openBy_deg);
  assembly.pinPlay_mm = design.settings.pinPlay_mm;
  assembly.closureLimit_mm = design.settings.closureLimit_mm;
  assembly.slidePlay_mm = starting::kSlidePlay_mm;
  useBetween(design.card, assembly);
  for (const StructureItem& item : design.structures) {
    const std::string place = item.id.text();
    const StructureKind* kind = findStructureKind(item.kind);
    if (!kind) return Error{{"structure.unknown", item.kind}, place};
    if (auto valid = validate(parametersOf(item), item.values, place); !valid) return valid.error();
    const Seat* seat = assembly.findSeat(item.seat);
    if (!seat) return Error{{"seat.missing", item.seat}, place};
    if (!kind->standsOn(*seat, assembly))
      return Error{{"seat.unsuitable", kind->name(), seat->label,
                    Text(kind->name().key + "/unsuitable"), whereElse(*kind, assembly)},
                   place};
    RecipeInput input{item, item.values, *seat, design.settings, design.paperOf(item).thickness_mm};
    input.faceThickness_mm = [&design](std::string_view face) {
      return design.paperOf(ownerOfKey(face)).thickness_mm;
    };
    const ParameterSpec* turned = findSense(kind->parameters, Sense::TurnedRound);
    if (turned && item.values.find(turned->key)->second != 0) {
      input.turned = true;
      input.seat = turnedRound(*seat);
      input.values = swapTwins(kind->parameters, item.values);
      std::swap(input.sideNames[0], input.sideNames[1]);
      // Positions are read from the start of the fold whichever way the structure points.
      double& at = input.values.find(findSense(kind->parameters, Sense::Place)->key)->second;
      at = seat->length_mm - at;
    }
    AssemblyBuilder builder(assembly, item.id);
    if (auto built = kind->build(input, builder); !built) return built.error();
    offerFaces(assembly, builder, item.id);
  }
  for (Piece& piece : assembly.pieces)
    if (piece.paper.empty()) piece.paper = design.paperOf(piece.owner).key;
  addToppers(design, assembly);
  for (Piece& piece : assembly.pieces) // what comes made of its own design has its thickness
    if (piece.thickness_mm == 0) piece.thickness_mm = design.paperNamed(piece.paper).thickness_mm;
  settleLooseFolds(assembly);
  if (assembly.every<Slide>().begin() != assembly.every<Slide>().end()) measureSlides(assembly);
  return assembly;
}

namespace {

/// Lets one dimension that the user did not give take up the misfit of a closure; prefers the first
/// term, which the recipes put where makers expect it.
void followClosures(const StructureKind& kind, double shutOpening_rad, const ParameterValues& given,
                    ParameterValues& values) {
  for (const LinearClosure& closure : kind.closures(shutOpening_rad)) {
    const double misfit = closure.misfit(values);
    if (std::abs(misfit) < 1e-9) continue;
    for (const LinearClosure::Term& term : closure.terms) {
      const ParameterSpec* spec = findSpec(kind.parameters, term.key);
      const double wanted = values.find(term.key)->second - misfit / term.coefficient;
      if (given.contains(term.key) || wanted < spec->least || wanted > spec->most) continue;
      values[std::string(term.key)] = wanted;
      break;
    }
  }
}

} // namespace

Result<ParameterValues> valuesForNew(const Assembly& assembly, const Settings& settings,
                                     std::string_view kindKey, std::string_view seatKey,
                                     const ParameterValues& given) {
  const StructureKind* kind = findStructureKind(kindKey);
  if (!kind) return Error{{"structure.unknown", kindKey}, ""};
  const Seat* seat = assembly.findSeat(seatKey);
  if (!seat) return Error{{"seat.missing", seatKey}, std::string(kindKey)};
  ParameterValues values = kind->fit(*seat, assembly, settings);
  for (const auto& [key, value] : given)
    values[key] = value;
  if (auto valid = validate(kind->parameters, values, kindKey); !valid) return valid.error();
  // A twin that was not given takes the value of the one that was: most structures are symmetric.
  for (const ParameterSpec& spec : kind->parameters)
    if (!spec.twin.empty() && given.contains(spec.key) && !given.contains(spec.twin))
      values[std::string(spec.twin)] = given.find(spec.key)->second;
  followClosures(*kind, seat->shutOpening_rad, given, values);
  return values;
}

} // namespace hinge
