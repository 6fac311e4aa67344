// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/rule_words.h"
#include "core/design/piece_joint.h"
#include "core/pieces/hand_words.h"
#include "core/pieces/sheet_words.h"
#include <algorithm>
#include <fmt/format.h>

namespace hinge {
namespace {

constexpr std::string_view kLinesBelow = "left, right, bottom, top, fold";

/// What may follow a fold that is not named.
bool goesOn(std::string_view word) {
  if (word.empty() || word == "and" || word == "by" || word == "only") return true;
  for (std::size_t kind = 0; kind < kJointKeys.size(); ++kind) {
    given::Kind plain = changedTo(kind, given::Kind());
    if (std::ranges::any_of(numbersOf(plain),
                            [&](const JointNumber& n) { return jointWord(n.key) == word; }))
      return true;
  }
  return false;
}

Result<placed::LineBelow> lineIn(SheetScanner& in) {
  in.take("the");
  if (in.take("fold")) {
    SheetScanner ahead = in;
    std::string key = ahead.key();
    if (goesOn(key)) return placed::LineBelow(placed::FoldBelow());
    in = ahead;
    return placed::LineBelow(placed::FoldBelow{std::move(key)});
  }
  const auto side = sideIn(in);
  if (!side) return in.lost(kLinesBelow);
  in.take("edge");
  return placed::LineBelow(*side);
}

Result<Vec2> pointIn(SheetScanner& in, const Vec2& corner) {
  const auto at = in.point();
  if (!at) return in.lost("x,y");
  return Vec2(*at + corner);
}

Result<std::optional<PlaceRule>> distanceIn(SheetScanner& in, placed::OwnLine own) {
  placed::Distance rule;
  rule.own = std::move(own);
  if (in.take("on")) {
    // It lies there.
  } else {
    rule.upTo = in.take("up");
    if (rule.upTo && !in.take("to")) return in.lost("to");
    const auto far = in.length();
    if (!far && !rule.upTo) return in.lost("on, up to, length");
    if (far && !in.take("from")) return in.lost("from");
    rule.distance_mm = far.value_or(0);
  }
  auto line = lineIn(in);
  if (!line) return line.error();
  rule.from = std::move(line).value();
  return std::optional<PlaceRule>(std::move(rule));
}

template <class Rule> Result<std::optional<PlaceRule>> onLine(SheetScanner& in, Rule rule) {
  if (!in.take("on")) return in.lost("on");
  auto line = lineIn(in);
  if (!line) return line.error();
  rule.on = std::move(line).value();
  return std::optional<PlaceRule>(std::move(rule));
}

Result<std::optional<PlaceRule>> spacedIn(SheetScanner& in) {
  const auto which = in.angle_deg();
  if (!which) return in.lost("1, 2, 3 ...");
  if (!in.take("of")) return in.lost("of");
  const auto of = in.angle_deg();
  if (!of) return in.lost("1, 2, 3 ...");
  return onLine(in, placed::Spaced{*which, *of, {}});
}

} // namespace

std::string inWords(const placed::LineBelow& line) {
  if (const SheetEdge* side = std::get_if<SheetEdge>(&line))
    return fmt::format("{} edge", wordOf(*side));
  const std::string& key = std::get<placed::FoldBelow>(line).key;
  return key.empty() ? "fold" : "fold " + key;
}

namespace {

struct RuleInWords {
  Vec2 corner;
  LengthUnit unit;

  std::string length(double mm) const { return exactLength(mm, unit); }
  std::string point(const Vec2& p) const {
    return length(p.x() - corner.x()) + "," + length(p.y() - corner.y());
  }
  std::string operator()(const placed::Distance& rule) const {
    std::string text = "point";
    if (const SheetEdge* side = std::get_if<SheetEdge>(&rule.own))
      text = fmt::format("{} edge", wordOf(*side));
    else if (const Vec2* at = std::get_if<Vec2>(&rule.own))
      text = "edge " + point(*at);
    if (rule.upTo) text += " up to";
    if (rule.distance_mm != 0)
      text += fmt::format(" {} from", length(rule.distance_mm));
    else if (!rule.upTo)
      text += " on";
    return fmt::format("{} {}", text, inWords(rule.from));
  }
  std::string operator()(const placed::Centred& rule) const {
    return "centred on " + inWords(rule.on);
  }
  std::string operator()(const placed::Spaced& rule) const {
    return fmt::format("spaced {} of {} on {}", exactNumber(rule.which), exactNumber(rule.of),
                       inWords(rule.on));
  }
  std::string operator()(const placed::Level& rule) const {
    return "level with " + point(rule.with);
  }
  std::string operator()(const placed::Mirrored& rule) const {
    return "mirrored from " + point(rule.of);
  }
};

} // namespace

Result<std::optional<PlaceRule>> ruleIn(SheetScanner& in, const Vec2& corner) {
  if (in.take("centred")) return onLine(in, placed::Centred());
  if (in.take("spaced")) return spacedIn(in);
  if (in.take("level")) {
    if (!in.take("with")) return in.lost("with");
    const auto at = pointIn(in, corner);
    if (!at) return at.error();
    return std::optional<PlaceRule>(placed::Level{*at});
  }
  if (in.take("mirrored")) {
    if (!in.take("from")) return in.lost("from");
    const auto at = pointIn(in, corner);
    if (!at) return at.error();
    return std::optional<PlaceRule>(placed::Mirrored{*at});
  }
  if (const auto side = sideIn(in)) {
    in.take("edge");
    return distanceIn(in, *side);
  }
  if (in.take("edge")) {
    const auto at = pointIn(in, corner);
    if (!at) return at.error();
    return distanceIn(in, *at);
  }
  if (in.take("point")) return distanceIn(in, std::monostate());
  return std::optional<PlaceRule>();
}

std::string inWords(const PlaceRule& rule, const Vec2& corner, LengthUnit unit) {
  return std::visit(RuleInWords{corner, unit}, rule);
}

} // namespace hinge
