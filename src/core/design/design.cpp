// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/design/design.h"
#include "core/paper/topper_shape.h"
#include <algorithm>
#include <charconv>
#include <cmath>
#include <fmt/format.h>

namespace hinge {

bool CardWithin::operator==(const CardWithin& other) const {
  return design == other.design || (design && other.design && *design == *other.design);
}

std::optional<StructureId> structureIdFromText(std::string_view text) {
  if (text.size() < 2 || text.front() != 's') return std::nullopt;
  int value = 0;
  const auto [end, error] = std::from_chars(text.data() + 1, text.data() + text.size(), value);
  if (error != std::errc() || end != text.data() + text.size()) return std::nullopt;
  if (value < 1 || value > kLargestStructureNumber) return std::nullopt;
  return StructureId{value};
}

std::optional<StructureId> ownerOfKey(std::string_view key) {
  const auto slash = key.find('/');
  return slash == std::string_view::npos ? std::nullopt : structureIdFromText(key.substr(0, slash));
}

Settings startingSettings(LengthUnit unit) {
  Settings settings;
  settings.unit = unit;
  if (unit != LengthUnit::Inch) return settings;
  settings.foldClearance_mm = starting::kFoldClearanceInch_mm;
  settings.edgeReserve_mm = starting::kEdgeReserveInch_mm;
  settings.matBorder_mm = starting::kMatBorderInch_mm;
  settings.sheet = "letter";
  return settings;
}

Design inUnit(Design design, LengthUnit unit) {
  const Settings before = startingSettings(design.settings.unit), after = startingSettings(unit);
  Settings& now = design.settings;
  const auto follow = [&](auto Settings::*member) {
    if (now.*member == before.*member) now.*member = after.*member;
  };
  follow(&Settings::foldClearance_mm), follow(&Settings::edgeReserve_mm);
  follow(&Settings::matBorder_mm), follow(&Settings::sheet);
  now.unit = unit;
  return design;
}

const StructureItem* Design::find(StructureId id) const {
  const auto it = std::ranges::find(structures, id, &StructureItem::id);
  return it == structures.end() ? nullptr : &*it;
}

const Paper& Design::cardPaper() const {
  static const Paper plain;
  const Paper* paper = findPaper(stock);
  return paper ? *paper : plain;
}

Paper& Design::cardPaper() {
  if (!findPaper(stock)) {
    papers.emplace_back();
    papers.back().key = stock;
  }
  return *std::ranges::find(papers, stock, &Paper::key);
}

const Paper& Design::paperNamed(std::string_view key) const {
  const Paper* paper = key.empty() ? nullptr : findPaper(key);
  return paper ? *paper : cardPaper();
}

const Paper& Design::paperOf(const StructureItem& item) const {
  return paperNamed(item.paper);
}

const Paper& Design::paperOf(std::optional<StructureId> owner) const {
  const StructureItem* item = owner ? find(*owner) : nullptr;
  return item ? paperOf(*item) : cardPaper();
}

namespace {

Result<void> validateLayer(const Design& design, const Layer& layer, const std::string& place) {
  constexpr double kLargest_mm = 1000;
  if (!design.findPaper(layer.paper))
    return Error{{"paper.missing", layer.paper.substr(0, 40)}, place};
  const std::size_t borders = layer.border_mm.size();
  if (borders != 0 && borders != 1 && borders != 4) return Error{"dress.borders", place};
  for (double border : layer.border_mm)
    if (!(border >= 0 && border <= kLargest_mm))
      return Error{{"dress.border", Millimetres{border}}, place};
  return {};
}

Result<void> validateTopper(const Design& design, const Topper& topper, const std::string& place) {
  const auto within = [](double value, double least, double most) {
    return value >= least && value <= most;
  };
  if (!design.findPaper(topper.paper))
    return Error{{"paper.missing", topper.paper.substr(0, 40)}, place};
  const bool drawn = topper.shape == kLettering || topper.shape == kOwnShape;
  if (!drawn && !findTopperShape(topper.shape))
    return Error{{"topper.shape", topper.shape.substr(0, 40)}, place};
  if (drawn && topper.outlines.empty()) return Error{"topper.outline", place};
  for (const Region& outline : topper.outlines)
    if (!isSimple(outline.rim) || signedArea_mm2(outline.rim) <= 0)
      return Error{"topper.outline", place};
  if (!within(topper.width_mm, kLeastTopper_mm, kLargestTopper_mm) ||
      !within(topper.height_mm, kLeastTopper_mm, kLargestTopper_mm))
    return Error{{"topper.size", Millimetres{kLeastTopper_mm}, Millimetres{kLargestTopper_mm}},
                 place};
  if (!within(topper.detail, 0, 1)) return Error{"topper.detail", place};
  if (!within(topper.raised_mm, 0, kMostRaised_mm))
    return Error{{"topper.raised", Millimetres{kMostRaised_mm}}, place};
  if (!topper.at.allFinite() || topper.at.norm() > 1e4 || !std::isfinite(topper.turn_deg))
    return Error{"topper.place", place};
  return topper.mat ? validateLayer(design, *topper.mat, place + ".mat") : Result<void>();
}

} // namespace

Result<void> validatePapers(const Design& design) {
  for (std::size_t k = 0; k < design.papers.size(); ++k) {
    const std::string place = fmt::format("papers[{}]", k);
    const Paper& paper = design.papers[k];
    if (const auto valid = validate(paper); !valid) return Error{valid.error().message, place};
    if (design.findPaper(paper.key) != &paper) return Error{{"paper.twice", paper.key}, place};
  }
  const auto missing = [&](const std::string& key, std::string place) {
    return Error{{"paper.missing", key.substr(0, 40)}, std::move(place)};
  };
  if (!design.findPaper(design.stock)) return missing(design.stock, "stock");
  for (const StructureItem& item : design.structures)
    if (!item.paper.empty() && !design.findPaper(item.paper))
      return missing(item.paper, item.id.text());
  for (std::size_t r = 0; r < design.dressing.rules.size(); ++r) {
    const DressRule& rule = design.dressing.rules[r];
    const std::string place = fmt::format("dressing.rules[{}]", r);
    if (namesFace(rule.reach) == rule.face.empty()) return Error{"dress.face-named", place};
    for (std::size_t k = 0; k < rule.layers.size(); ++k)
      if (auto valid =
              validateLayer(design, rule.layers[k], fmt::format("{}.layers[{}]", place, k));
          !valid)
        return valid;
  }
  for (const Topper& topper : design.dressing.toppers) {
    if (design.dressing.find(topper.id) != &topper)
      return Error{{"file.member/twice", topper.name()}, topper.name()};
    if (auto valid = validateTopper(design, topper, topper.name()); !valid) return valid;
  }
  return {};
}

Result<void> validateCard(const CardBase& card) {
  const auto check = [](double size, std::string_view what) -> Result<void> {
    if (!std::isfinite(size) || size < starting::kLeastCard_mm || size > starting::kLargestCard_mm)
      return Error{{"card.size", Millimetres{size}, Millimetres{starting::kLeastCard_mm},
                    Millimetres{starting::kLargestCard_mm}},
                   fmt::format("card {}", what)};
    return {};
  };
  if (auto width = check(card.width_mm, "width"); !width) return width;
  if (auto height = check(card.height_mm, "height"); !height) return height;
  if (!(card.display_deg >= 1 && card.display_deg <= 180))
    return Error{{"card.display", Degrees{card.display_deg}}, "card display"};
  if (!(card.worksFrom_deg >= 0 && card.worksTo_deg <= 180 &&
        card.worksFrom_deg <= card.worksTo_deg))
    return Error{{"card.works", Degrees{card.worksFrom_deg}, Degrees{card.worksTo_deg}},
                 "card works"};
  if (!(card.openBy_deg >= 30 && card.openBy_deg <= 180))
    return Error{{"card.open-by", Degrees{card.openBy_deg}}, "card open_by_deg"};
  return {};
}

std::vector<StructureId> hostsOf(const StructureItem& item) {
  std::vector<StructureId> hosts;
  const auto add = [&](std::string_view key) {
    if (const auto owner = ownerOfKey(key);
        owner && *owner != item.id && std::ranges::find(hosts, *owner) == hosts.end())
      hosts.push_back(*owner);
  };
  add(item.seat);
  for (const PieceJoint& joint : item.joints())
    add(joint.on);
  return hosts;
}

std::vector<StructureId> standingOn(const Design& design, StructureId id) {
  std::vector<StructureId> found{id};
  // Structures are stored after what they stand on, so one pass is enough.
  for (const StructureItem& item : design.structures) {
    const auto hosts = hostsOf(item);
    if (std::ranges::any_of(
            hosts, [&](StructureId host) { return std::ranges::find(found, host) != found.end(); }))
      found.push_back(item.id);
  }
  return found;
}

Design partOf(const Design& design, const std::vector<StructureId>& ids) {
  std::vector<StructureId> all;
  std::vector<StructureId> open;
  for (StructureId id : ids) {
    const auto guests = standingOn(design, id);
    open.insert(open.end(), guests.begin(), guests.end());
  }
  while (!open.empty()) {
    const StructureId id = open.back();
    open.pop_back();
    if (std::ranges::find(all, id) != all.end()) continue;
    all.push_back(id);
    if (const StructureItem* item = design.find(id))
      for (StructureId host : hostsOf(*item))
        open.push_back(host);
  }
  Design part = design;
  std::erase_if(part.structures, [&](const StructureItem& item) {
    return std::ranges::find(all, item.id) == all.end();
  });
  return part;
}

} // namespace hinge
