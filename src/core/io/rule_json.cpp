// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/rule_json.h"
#include "core/io/work_json.h"
#include <algorithm>

namespace hinge {
namespace {

/// In the order of the variant.
constexpr std::array<std::string_view, 5> kRules{"distance", "centred", "spaced", "level",
                                                 "mirrored"};
static_assert(kRules.size() == std::variant_size_v<PlaceRule>);

std::optional<SheetEdge> sideFrom(const Json& value) {
  if (!value.is_string()) return std::nullopt;
  const auto found = std::ranges::find(kSideWords, value.get<std::string>());
  if (found == kSideWords.end()) return std::nullopt;
  return static_cast<SheetEdge>(found - kSideWords.begin());
}

placed::LineBelow lineIn(Reader& in, std::string_view member) {
  const Json* value = in.get(member, true);
  if (!value) return SheetEdge::Left;
  if (const auto side = sideFrom(*value)) return *side;
  const auto fold = value->is_object() ? value->find("fold") : value->end();
  if (fold != value->end() && fold->is_string())
    return placed::FoldBelow{printable(fold->get<std::string>())};
  in.fail(member, "file.member/line");
  return SheetEdge::Left;
}

placed::OwnLine ownIn(Reader& in) {
  const Json* value = in.get("own", false);
  if (!value) return {};
  if (const auto side = sideFrom(*value)) return *side;
  return readPoint(*value, in, "own");
}

Vec2 pointIn(Reader& in, std::string_view member) {
  const Json* value = in.get(member, true);
  return value ? readPoint(*value, in, member) : Vec2(Vec2::Zero());
}

Json lineJson(const placed::LineBelow& line) {
  if (const SheetEdge* side = std::get_if<SheetEdge>(&line)) return wordOf(*side);
  return {{"fold", std::get<placed::FoldBelow>(line).key}};
}

struct RuleMembers {
  Json& out;

  void operator()(const placed::Distance& rule) const {
    if (const SheetEdge* side = std::get_if<SheetEdge>(&rule.own)) out["own"] = wordOf(*side);
    if (const Vec2* at = std::get_if<Vec2>(&rule.own)) out["own"] = pointJson(*at);
    out["distance_mm"] = rule.distance_mm;
    if (rule.upTo) out["up_to"] = true;
    out["from"] = lineJson(rule.from);
  }
  void operator()(const placed::Centred& rule) const { out["on"] = lineJson(rule.on); }
  void operator()(const placed::Spaced& rule) const {
    out["which"] = rule.which, out["of"] = rule.of, out["on"] = lineJson(rule.on);
  }
  void operator()(const placed::Level& rule) const { out["with"] = pointJson(rule.with); }
  void operator()(const placed::Mirrored& rule) const { out["of"] = pointJson(rule.of); }
};

} // namespace

PlaceRule readRule(Reader& in) {
  std::string word;
  in.text("rule", word, true);
  switch (std::ranges::find(kRules, word) - kRules.begin()) {
  case 0: {
    placed::Distance rule;
    rule.own = ownIn(in);
    in.number("distance_mm", rule.distance_mm, true);
    in.yesOrNo("up_to", rule.upTo);
    rule.from = lineIn(in, "from");
    return rule;
  }
  case 1: return placed::Centred{lineIn(in, "on")};
  case 2: {
    placed::Spaced rule;
    in.number("which", rule.which, true), in.number("of", rule.of, true);
    rule.on = lineIn(in, "on");
    return rule;
  }
  case 3: return placed::Level{pointIn(in, "with")};
  case 4: return placed::Mirrored{pointIn(in, "of")};
  default: in.fail("rule", {"file.member/unknown", word.substr(0, 40)}); return {};
  }
}

Json ruleJson(const PlaceRule& rule) {
  Json out = {{"rule", kRules[rule.index()]}};
  std::visit(RuleMembers{out}, rule);
  return out;
}

} // namespace hinge
