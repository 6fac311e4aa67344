// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/proportion.h"
#include "core/bases/base.h"
#include "core/edits/dressing.h"
#include "core/edits/settling.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"
#include "core/units/length.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace hinge {
namespace {

constexpr double kSettled_mm = 1e-6;

/// A sheet of the base made wider, across its upright scores: what lies on it goes along.
void stretch(PieceWork& sheet, double factor) {
  for (Vec2& p : sheet.outline)
    p.x() *= factor;
  for (WorkLine& line : sheet.lines)
    line.from.x() *= factor, line.to.x() *= factor;
  for (Polygon& window : sheet.windows)
    for (Vec2& p : window)
      p.x() *= factor;
  for (PieceJoint& joint : sheet.joints) {
    joint.at.x() *= factor;
    for (PlaceRule& rule : joint.rules)
      eachPoint(rule, [factor](Vec2& p) { p.x() *= factor; });
    // Faces of sheets stand on their lower edge.
    joint.to.x() *= factor;
  }
}

Result<Design> scaled(const Design& design, std::optional<StructureId> only, double factor,
                      const std::set<std::string>& held) {
  Design next = design;
  const auto gives = [&](std::string_view owner, std::string_view key) {
    return !held.contains(lengthRowKey(owner, key));
  };
  if (!only) {
    if (gives("card", "width")) next.card.width_mm *= factor;
    const bool evenly = findBaseKind(design.card.kind)->growsEvenly;
    if (gives("card", "height") || (evenly && gives("card", "width")))
      next.card.height_mm *= factor;
    for (const ParameterSpec& spec : findBaseKind(design.card.kind)->parameters)
      if (spec.unit == ParameterUnit::Millimetre && gives("card", spec.key))
        next.card.values[std::string(spec.key)] *= factor;
    if (gives("card", "sheets"))
      for (PieceWork& sheet : next.card.sheets)
        stretch(sheet, factor);
    if (gives("card", "sheets") && next.card.ground) next.card.ground->x() *= factor;
    if (auto valid = validateCard(next.card); !valid) return valid.error();
  }
  for (const StructureItem& item : design.structures) {
    if (only && item.id != *only) continue;
    const auto place = std::ranges::find(next.structures, item.id, &StructureItem::id);
    if (auto done = waysOf(item).scale(*place, design, factor, held); !done)
      return Error{done.error().message, item.id.text()};
  }
  return toppersCarriedAlong(design, withDistancesMeasured(std::move(next)));
}

} // namespace

std::vector<LengthRow> lengthRows(const Design& design, std::optional<StructureId> piece) {
  std::vector<LengthRow> rows;
  if (!piece) {
    const bool side = design.card.fold == FoldSide::Side;
    rows.push_back({"card.width", "card.width/of-card", design.card.width_mm, !side});
    rows.push_back({"card.height", "card.height/of-card", design.card.height_mm, side});
    for (const ParameterSpec& spec : findBaseKind(design.card.kind)->parameters)
      if (spec.unit == ParameterUnit::Millimetre)
        rows.push_back({lengthRowKey("card", spec.key), Text("row-of-card", nameOf(spec)),
                        design.card.value(spec.key), spec.role == ParameterRole::Held});
  }
  if (!piece && !design.card.sheets.empty())
    rows.push_back({lengthRowKey("card", "sheets"), "card.sheets/of-card",
                    boundsOf(design.card.sheets.front().outline).size().x(), false});
  for (const StructureItem& item : design.structures) {
    if (piece && item.id != *piece) continue;
    const auto own = waysOf(item).lengths(design, item, piece.has_value());
    rows.insert(rows.end(), own.begin(), own.end());
  }
  return rows;
}

Result<double> flatLength_mm(const Design& design, std::optional<StructureId> piece) {
  if (piece) {
    const StructureItem* item = design.find(*piece);
    const auto length = item ? waysOf(*item).flatLength_mm(*item) : std::nullopt;
    if (!length) return Error{"structure.missing/fit", piece->text()};
    return *length;
  }
  const auto assembled = assembleDesign(design);
  if (!assembled) return assembled.error();
  // Along the sheet is across the gutter.
  const Seat* gutter = assembled->findSeat("gutter");
  const PieceIndex sheet = assembled->panels[assembled->root].piece;
  const Vec2 across =
      gutter ? Vec2(gutter->sides[0].toPiece.linear().col(0).head<2>()) : Vec2(1, 0);
  double low = 1e300, high = -1e300;
  for (PanelIndex p : assembled->pieces[sheet].panels)
    if (!assembled->panels[p].owner)
      for (const Vec2& c : assembled->panels[p].outline.rim)
        low = std::min(low, across.dot(c)), high = std::max(high, across.dot(c));
  return high - low;
}

Result<Fitted> fittedTo(const Design& design, std::optional<StructureId> piece, double length_mm,
                        const std::set<std::string>& held) {
  const auto now = flatLength_mm(design, piece);
  if (!now) return now.error();
  for (const std::string& key : held)
    if (std::ranges::none_of(lengthRows(design, piece),
                             [&](const LengthRow& row) { return row.key == key; }))
      return Error{{"proportion.unknown", key}, ""};
  // The length grows evenly with the factor: two designs tell it.
  constexpr double kTry = 1.001;
  const auto tried = scaled(design, piece, kTry, held);
  const auto then = tried ? flatLength_mm(*tried, piece) : Result<double>(tried.error());
  if (!then) return then.error();
  const double slope = (*then - *now) / (kTry - 1);
  if (slope < kSettled_mm) return Error{"proportion.all-held", piece ? piece->text() : "card"};
  const double factor = 1 + (length_mm - *now) / slope;
  if (factor < 0.05)
    return Error{{"proportion.too-short", Millimetres{length_mm}}, piece ? piece->text() : "card"};
  auto fitted = scaled(design, piece, factor, held);
  if (!fitted) return fitted.error();
  const auto reached = flatLength_mm(*fitted, piece);
  if (!reached) return reached.error();
  if (std::abs(*reached - length_mm) > 1e-3)
    return Error{{"proportion.uneven", Millimetres{*reached}}, piece ? piece->text() : "card"};
  return Fitted{std::move(fitted).value(), factor};
}

} // namespace hinge
