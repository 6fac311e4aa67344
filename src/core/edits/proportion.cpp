// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/proportion.h"
#include "core/bases/base.h"
#include "core/structures/assemble.h"
#include "core/structures/names.h"
#include "core/structures/registry.h"
#include "core/units/length.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace hinge {
namespace {

constexpr double kSettled_mm = 1e-6;

/// Lengths along the fold or along a face's line: a longer sheet does not ask them to change.
bool runsAlong(std::string_view key) {
  return key == "position" || key == "length" || key == "width";
}

std::string rowName(std::string_view owner, std::string_view key) {
  return fmt::format("{}.{}", owner, key);
}

std::size_t panelOf(const PieceWork& work, double x) {
  double right = boundsOf(work.outline).low.x();
  const auto widths = panelWidths_mm(work);
  std::size_t k = 0;
  while (k + 1 < widths.size() && (right += widths[k]) < x)
    ++k;
  return k;
}

bool isGlued(const PieceWork& work, std::size_t panel) {
  return std::ranges::any_of(work.joints, [&](const PieceJoint& j) {
    return is<given::Glue>(j) && panelOf(work, j.at.x()) == panel;
  });
}

std::string panelKey(std::size_t k) {
  return fmt::format("panel-{}", k + 1);
}

/// True when the widths of a free piece run across the folds of the base; on other pieces as theirs
/// do.
bool widthsRunAcross(const Design& design, const StructureItem& item);

/// The way across on a face (its x axis runs along the line on which it stands), and whether
/// lengths there give.
struct Across {
  Vec2 way = Vec2::UnitY();
  bool gives = true;
};
Across acrossOn(const Design& design, std::string_view face, const std::set<std::string>& held) {
  const auto owner = ownerOfKey(face);
  const StructureItem* host = owner ? design.find(*owner) : nullptr;
  if (!host || !host->work) return {};
  // Panels of free pieces stand on the lower edge, along which their widths are read.
  std::string panel(face.substr(face.find('/') + 1));
  if (panel.ends_with("-back")) panel.resize(panel.size() - 5);
  if (widthsRunAcross(design, *host))
    return {Vec2::UnitX(), !held.contains(rowName(host->id.text(), panel))};
  return {Vec2::UnitY(), false};
}

bool widthsRunAcross(const Design& design, const StructureItem& item) {
  for (const PieceJoint& joint : item.work->joints) {
    const auto lies = liesOn(joint.kind);
    if (!lies || ownerOfKey(joint.on) == item.id) continue;
    return std::abs(acrossOn(design, joint.on, {}).way.dot(lies->x)) > 0.5;
  }
  return true;
}

/// The piece with every panel that gives wider by the factor, and what stands in it and where it is
/// glued in proportion.
Result<PieceWork> grown(const Design& design, const StructureItem& item, double factor,
                        const std::set<std::string>& held) {
  const PieceWork& old = *item.work;
  const auto widths = panelWidths_mm(old);
  const auto gives = [&](std::size_t k) {
    return !held.contains(rowName(item.id.text(), panelKey(k)));
  };
  PieceWork work = old;
  // From the right, so that what a panel carries along has had its own change already.
  for (std::size_t k = widths.size(); k-- > 0;) {
    if (!gives(k)) continue;
    double left = boundsOf(work.outline).low.x();
    for (std::size_t i = 0; i < k; ++i)
      left += widths[i];
    const double right = left + widths[k];
    const auto inside = [&](double x) { return x > left + kSettled_mm && x < right - kSettled_mm; };
    std::vector<Vec2*> points;
    std::vector<double> places;
    const auto made = withPanelWidth(work, k, widths[k] * factor);
    if (!made) return made.error();
    PieceWork wider = *made;
    for (std::size_t w = 0; w < work.windows.size(); ++w)
      for (std::size_t c = 0; c < work.windows[w].size(); ++c)
        if (inside(work.windows[w][c].x()))
          points.push_back(&wider.windows[w][c]), places.push_back(work.windows[w][c].x());
    for (std::size_t j = 0; j < work.joints.size(); ++j)
      if (inside(work.joints[j].at.x()))
        points.push_back(&wider.joints[j].at), places.push_back(work.joints[j].at.x());
    for (std::size_t i = 0; i < points.size(); ++i)
      points[i]->x() = left + factor * (places[i] - left);
    work = std::move(wider);
  }
  // Feet: the score beside a glued panel stands so much farther out on the face it is glued to.
  const auto before = scoreMarks(old);
  const double low = boundsOf(old.outline).low.x();
  for (std::size_t j = 0; j < work.joints.size(); ++j) {
    const PieceJoint& was = old.joints[j];
    if (auto* band = std::get_if<given::Band>(&work.joints[j].kind)) band->length_mm *= factor;
    if (auto* film = std::get_if<given::Film>(&work.joints[j].kind)) film->length_mm *= factor;
    const std::size_t panel = panelOf(old, was.at.x());
    const Across across = acrossOn(design, was.on, held);
    if (!across.gives) continue;
    double foot = across.way.dot(was.to);
    const auto lies = is<given::Glue>(was) ? liesOn(was.kind) : std::nullopt;
    if (lies && !before.empty() && std::abs(lies->x.dot(across.way)) > 0.5) {
      const double score = low + (panel == 0               ? before.front()
                                  : panel >= before.size() ? before.back()
                                                           : before[panel - 1])
                                     .low_mm;
      foot += (score - was.at.x()) * lies->x.dot(across.way);
    }
    work.joints[j].to += (factor - 1) * foot * across.way;
  }
  return work;
}

Result<Design> scaled(const Design& design, std::optional<StructureId> only, double factor,
                      const std::set<std::string>& held) {
  Design next = design;
  const auto gives = [&](std::string_view owner, std::string_view key) {
    return !held.contains(rowName(owner, key));
  };
  if (!only) {
    if (gives("card", "width")) next.card.width_mm *= factor;
    if (gives("card", "height")) next.card.height_mm *= factor;
    for (const ParameterSpec& spec : findBaseKind(design.card.kind)->parameters)
      if (spec.unit == ParameterUnit::Millimetre && gives("card", spec.key))
        next.card.values[std::string(spec.key)] *= factor;
    if (auto valid = validateCard(next.card); !valid) return valid.error();
  }
  for (const StructureItem& item : design.structures) {
    if (only && item.id != *only) continue;
    const auto place = std::ranges::find(next.structures, item.id, &StructureItem::id);
    if (item.work) {
      auto work = grown(design, item, factor, held);
      if (!work) return Error{work.error().code, work.error().message, item.id.text()};
      auto changed = setWork(next, item.id, *work);
      if (!changed) return changed.error();
      next = std::move(changed).value();
      continue;
    }
    for (const ParameterSpec& spec : parametersOf(item))
      if (spec.unit == ParameterUnit::Millimetre && gives(item.id.text(), spec.key))
        place->values[std::string(spec.key)] *= factor;
    if (auto valid = validate(parametersOf(item), place->values, item.id.text()); !valid)
      return valid.error();
  }
  return next;
}

} // namespace

std::vector<LengthRow> lengthRows(const Design& design, std::optional<StructureId> piece) {
  std::vector<LengthRow> rows;
  if (!piece) {
    const bool side = design.card.fold == FoldSide::Side;
    rows.push_back({"card.width", "Width of the card", design.card.width_mm, !side});
    rows.push_back({"card.height", "Height of the card", design.card.height_mm, side});
    for (const ParameterSpec& spec : findBaseKind(design.card.kind)->parameters)
      if (spec.unit == ParameterUnit::Millimetre)
        rows.push_back({rowName("card", spec.key), fmt::format("{} of the card", spec.label),
                        design.card.value(spec.key), spec.role == ParameterRole::Held});
  }
  for (const StructureItem& item : design.structures) {
    if (piece && item.id != *piece) continue;
    const std::string owner = nameOf(design, item.id);
    if (item.work) {
      const auto widths = panelWidths_mm(*item.work);
      const bool across = piece || widthsRunAcross(design, item);
      for (std::size_t k = 0; k < widths.size(); ++k)
        rows.push_back({rowName(item.id.text(), panelKey(k)),
                        fmt::format("Panel {} of {}", k + 1, owner), widths[k],
                        !across || (widths.size() > 1 && isGlued(*item.work, k))});
      continue;
    }
    for (const ParameterSpec& spec : parametersOf(item))
      if (spec.unit == ParameterUnit::Millimetre)
        rows.push_back({rowName(item.id.text(), spec.key),
                        fmt::format("{} of {}", spec.label, owner),
                        item.values.find(spec.key)->second,
                        spec.role == ParameterRole::Held || runsAlong(spec.key)});
  }
  return rows;
}

Result<double> flatLength_mm(const Design& design, std::optional<StructureId> piece) {
  if (piece) {
    const StructureItem* item = design.find(*piece);
    if (!item || !item->work)
      return Error{"structure.missing", "there is no free piece to fit", piece->text()};
    return boundsOf(item->work->outline).size().x();
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
      return Error{"proportion.unknown", fmt::format("there is no length \"{}\" to hold", key), ""};
  // The length grows evenly with the factor: two designs tell it.
  constexpr double kTry = 1.001;
  const auto tried = scaled(design, piece, kTry, held);
  const auto then = tried ? flatLength_mm(*tried, piece) : Result<double>(tried.error());
  if (!then) return then.error();
  const double slope = (*then - *now) / (kTry - 1);
  if (slope < kSettled_mm)
    return Error{"proportion.all-held",
                 "everything that makes the length is held: let something give",
                 piece ? piece->text() : "card"};
  const double factor = 1 + (length_mm - *now) / slope;
  if (factor < 0.05)
    return Error{
        "proportion.too-short",
        fmt::format("what is held leaves nothing of {} mm to the rest", formatNumber(length_mm, 2)),
        piece ? piece->text() : "card"};
  auto fitted = scaled(design, piece, factor, held);
  if (!fitted) return fitted.error();
  const auto reached = flatLength_mm(*fitted, piece);
  if (!reached) return reached.error();
  if (std::abs(*reached - length_mm) > 1e-3)
    return Error{
        "proportion.uneven",
        fmt::format("these lengths do not grow evenly with the sheet: {} mm is what they give",
                    formatNumber(*reached, 2)),
        piece ? piece->text() : "card"};
  return Fitted{std::move(fitted).value(), factor};
}

} // namespace hinge
