// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/finding.h"
#include "core/structures/registry.h"
#include "core/units/length.h"
#include <algorithm>
#include <array>
#include <cctype>
#include <fmt/format.h>
#include <utility>
#include <vector>

namespace hinge {

bool sameTrouble(const Finding& a, const Finding& b) {
  return a.code == b.code && a.owners == b.owners &&
         (a.code != "tab-narrow" || a.elements == b.elements);
}

std::string_view severityKey(Severity severity) {
  return severity == Severity::Spoils ? "spoils" : "advice";
}

std::string_view unitKey(AmountUnit unit) {
  switch (unit) {
  case AmountUnit::Millimetre: return "mm";
  case AmountUnit::Degree: return "deg";
  case AmountUnit::Count: return "count";
  }
  return "";
}

namespace {

std::string amountText(const Finding& f, const Design& design) {
  return f.unit == AmountUnit::Millimetre ? formatLength(f.amount, design.settings.unit)
         : f.unit == AmountUnit::Degree   ? formatAngle(f.amount)
                                          : formatNumber(f.amount, 0);
}

std::string openings(const Finding& f, const Design& design) {
  return fmt::format("from {} to {}", openingText(design.card, f.from_rad),
                     openingText(design.card, f.to_rad));
}

} // namespace

namespace {

/// What is said of each code, or of a code with a detail ("shut-flat/jams"). Names in braces: who
/// (the structure), panel and other (the panels, the main one first), last (of them), much (the
/// amount), detail, openings (from and to), from, to, show (an opening each).
constexpr std::pair<std::string_view, std::string_view> kSentences[] = {
    {"shut-flat/jams",
     "{who} does not shut flat: its sizes are {much} out of step and it jams at {to}"},
    {"shut-flat",
     "{who} does not shut flat: its sizes are {much} out of step and it stands off the pages"},
    {"outside-cover", "{panel} pokes {much} past the {detail} edge of the shut card"},
    {"edge-reserve", "{panel} comes {much} into the reserve at the {detail} edge of the shut card"},
    {"panels-hit", "{panel} and {other} pass {much} through one another {openings}"},
    {"taut", "{who} goes taut at {from}: the card cannot open the last {much} without tearing it"},
    {"jammed", "{who} jams at {to}: the card cannot shut past it"},
    {"impossible", "{who} cannot be put together: its panels do not meet at any opening"},
    {"locked",
     "{who} ties {before} and {last} together: the card is locked, they would have to part by "
     "{much}"},
    {"torn", "{panel} and {last} are joined in ways that are {much} apart: the joint tears"},
    {"foot-covered", "{panel} lies over {much} of the foot of {other}, which stands up through it"},
    {"floppy/one", "{who} flops: {much} motion is left free when the card is held still"},
    {"floppy", "{who} flops: {much} motions are left free when the card is held still"},
    {"tab-narrow", "{panel} is {much} too narrow to hold"},
    {"tab-crosses-fold", "{panel} crosses a fold of its panel by {much}"},
    {"tab-off-panel", "{panel} sticks out {much} past the panel it is glued to"},
    {"tab-near-fold", "{panel} is {much} too near to a fold: glue would creep into it"},
    {"tabs-overlap", "{panel} and {other} are glued over one another by {much}"},
    {"behind-glue", "{panel} swings {much} behind {other}, through the paper it is glued to"},
    {"stack-ring",
     "{all} overlap in a ring when shut: each lies under the next, so they must be tucked in by "
     "hand"},
    {"stack-through",
     "{panel} would have to pass through the {detail} of {other} in the shut card"},
    {"slot-short", "the slits of {panel} and {other} are {much} too short to push them together"},
    {"slots-askew",
     "{who} cannot be pushed into its slots: they stand {much} askew to one another at every "
     "opening"},
    {"film-taut", "the film on {panel} is {much} too short: it is taut {openings}"},
    {"band-drawn", "the band on {panel} is drawn {much} too far at {show}"},
    {"band-slack",
     "the band on {panel} hangs {much} slack where the card is shown: it does not pull"},
    {"slide-past-stop/least", "{panel} runs {much} past its first stop {openings}"},
    {"slide-past-stop", "{panel} runs {much} past its last stop {openings}"},
    {"pocket-tight", "{panel} leaves {much} too little room for {other} to slide"},
    {"pocket-glue", "{panel} is {much} too narrow: beside {other} too little is left for glue"},
    {"strap-tight/1",
     "the folds of {panel} are {much} too near to one another to go round the one layer of "
     "{other}"},
    {"strap-tight",
     "the folds of {panel} are {much} too near to one another to go round {detail} layers of "
     "{other}"},
    {"limbs-hit", "{panel} runs {much} over {other} in the same layer {openings}"},
    {"unreachable/one", "no order of work leaves room to {detail} {panel} and {other}"},
    {"unreachable",
     "no order of work leaves room to {detail} {panel} and {other}: {much} joints shut one another "
     "in"},
    {"falls-over",
     "the card falls over when it is shown open at {show}: its weight lies {much} outside of what "
     "it stands on"},
    {"tips-easily", "the card shown open at {show} falls over when it is tilted by {much}"},
    {"envelope-small", "the shut card is {much} too large for the envelope {detail}"},
    {"envelope-tight",
     "the shut card fits the envelope {detail} too tightly: it wants {much} more"},
};

} // namespace

std::vector<std::string_view> findingCodes() {
  std::vector<std::string_view> codes;
  for (const auto& [key, pattern] : kSentences) {
    const std::string_view code = key.substr(0, key.find('/'));
    if (std::ranges::find(codes, code) == codes.end()) codes.push_back(code);
  }
  return codes;
}

namespace {

/// The sentence of the code with this detail (or, of counts, with just one), else that of the code.
std::string_view patternOf(const Finding& f) {
  const bool one = f.unit == AmountUnit::Count && f.amount <= 1;
  const std::string detailed = f.code + "/" + (one ? std::string("one") : f.detail);
  std::string_view plain = "{who}: {code} {much}";
  for (const auto& [key, pattern] : kSentences) {
    if (key == detailed) return pattern;
    if (key == f.code) plain = pattern;
  }
  return plain;
}

std::string sentence(const Finding& f, const Design& design) {
  const std::string who = f.owners.empty() ? "the card" : nameOf(design, f.owners.front());
  std::vector<std::string> panels;
  for (const std::string& key : f.elements)
    panels.push_back(panelName(design, key));
  const auto panel = [&](std::size_t k) { return k < panels.size() ? panels[k] : who; };
  const auto fromEnd = [&](std::size_t k) { return panel(panels.size() - 1 - k); };
  const auto opening = [&](double t) { return openingText(design.card, t); };
  using fmt::arg;
  return fmt::format(fmt::runtime(patternOf(f)), arg("who", who), arg("code", f.code),
                     arg("detail", f.detail), arg("much", amountText(f, design)),
                     arg("panel", panel(0)), arg("other", panel(1)), arg("last", fromEnd(0)),
                     arg("before", fromEnd(1)), arg("all", fmt::to_string(fmt::join(panels, ", "))),
                     arg("openings", openings(f, design)), arg("from", opening(f.from_rad)),
                     arg("to", opening(f.to_rad)), arg("show", opening(f.show_rad)));
}

} // namespace

std::string describe(const Finding& f, const Design& design) {
  std::string text = sentence(f, design);
  if (!text.empty()) text[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(text[0])));
  return text;
}

std::string describe(const Mend& mend, const Design& design) {
  std::string text;
  for (std::size_t k = 0; k < mend.edits.size(); ++k) {
    const MendEdit& edit = mend.edits[k];
    const StructureItem* item = design.find(edit.id);
    const ParameterSpec* spec = item ? findSpec(parametersOf(*item), edit.key) : nullptr;
    const bool length = edit.unit == ParameterUnit::Millimetre;
    const auto value = [&](double v) -> std::string {
      if (spec && spec->unit == ParameterUnit::Switch)
        return std::string(spec->choices[static_cast<std::size_t>(v)]);
      if (spec && spec->unit == ParameterUnit::Count) return formatNumber(v, 0);
      return length ? formatLength(v, design.settings.unit, false) : formatAngle(v);
    };
    std::string label = spec ? std::string(spec->label) : edit.key;
    if (!label.empty())
      label[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(label[0])));
    // Both sides changed alike are one statement: "wall a and b 66 -> 44 mm".
    const bool twin = k + 1 < mend.edits.size() && spec && mend.edits[k + 1].key == spec->twin &&
                      mend.edits[k + 1].from == edit.from && mend.edits[k + 1].to == edit.to;
    if (twin) label += fmt::format(" and {}", label.ends_with(" a") ? "b" : "a"), ++k;
    text += text.empty() ? fmt::format("{}, ", nameOf(design, edit.id)) : std::string(", ");
    text += fmt::format("{} {} → {}{}", label, value(edit.from), value(edit.to),
                        length ? fmt::format(" {}", unitKey(design.settings.unit)) : "");
  }
  return text;
}

} // namespace hinge
