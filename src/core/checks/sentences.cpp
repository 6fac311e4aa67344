#include "core/checks/finding.h"
#include "core/structures/registry.h"
#include "core/units/length.h"
#include <algorithm>
#include <cctype>
#include <fmt/format.h>

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

std::string sentence(const Finding& f, const Design& design) {
  const std::string who = f.owners.empty() ? "the card" : nameOf(design, f.owners.front());
  const std::string much = amountText(f, design);
  const std::string panel = f.elements.empty() ? who : panelName(design, f.elements.front());
  if (f.code == "shut-flat")
    return f.detail == "jams"
               ? fmt::format(
                     "{} does not shut flat: its sizes are {} out of step and it jams at {}", who,
                     much, openingText(design.card, f.to_rad))
               : fmt::format("{} does not shut flat: its sizes are {} out of step and it stands "
                             "off the pages",
                             who, much);
  if (f.code == "outside-cover")
    return fmt::format("{} pokes {} past the {} edge of the shut card", panel, much, f.detail);
  if (f.code == "edge-reserve")
    return fmt::format("{} comes {} into the reserve at the {} edge of the shut card", panel, much,
                       f.detail);
  if (f.code == "panels-hit")
    return fmt::format("{} and {} pass {} through one another {}", panel,
                       panelName(design, f.elements.at(1)), much, openings(f, design));
  if (f.code == "taut")
    return fmt::format("{} goes taut at {}: the card cannot open the last {} without tearing it",
                       who, openingText(design.card, f.from_rad), much);
  if (f.code == "jammed")
    return fmt::format("{} jams at {}: the card cannot shut past it", who,
                       openingText(design.card, f.to_rad));
  if (f.code == "impossible")
    return fmt::format("{} cannot be put together: its panels do not meet at any opening", who);
  if (f.code == "locked") {
    const std::string pages =
        fmt::format("{} and {}", panelName(design, f.elements.at(f.elements.size() - 2)),
                    panelName(design, f.elements.back()));
    return fmt::format("{} ties {} together: the card is locked, they would have to part by {}",
                       who, pages, much);
  }
  if (f.code == "torn")
    return fmt::format("{} and {} are joined in ways that are {} apart: the joint tears", panel,
                       panelName(design, f.elements.back()), much);
  if (f.code == "foot-covered")
    return fmt::format("{} lies over {} of the foot of {}, which stands up through it", panel, much,
                       panelName(design, f.elements.at(1)));
  if (f.code == "floppy")
    return fmt::format("{} flops: {} motion{} left free when the card is held still", who, much,
                       f.amount > 1 ? "s are" : " is");
  if (f.code == "tab-narrow") return fmt::format("{} is {} too narrow to hold", panel, much);
  if (f.code == "tab-crosses-fold")
    return fmt::format("{} crosses a fold of its panel by {}", panel, much);
  if (f.code == "tab-off-panel")
    return fmt::format("{} sticks out {} past the panel it is glued to", panel, much);
  if (f.code == "tab-near-fold")
    return fmt::format("{} is {} too near to a fold: glue would creep into it", panel, much);
  if (f.code == "tabs-overlap")
    return fmt::format("{} and {} are glued over one another by {}", panel,
                       panelName(design, f.elements.at(1)), much);
  if (f.code == "behind-glue")
    return fmt::format("{} swings {} behind {}, through the paper it is glued to", panel, much,
                       panelName(design, f.elements.at(1)));
  if (f.code == "stack-ring") {
    std::string ring = panel;
    for (std::size_t k = 1; k < f.elements.size(); ++k)
      ring += fmt::format(", {}", panelName(design, f.elements[k]));
    return fmt::format("{} overlap in a ring when shut: each lies under the next, so they must be "
                       "tucked in by hand",
                       ring);
  }
  if (f.code == "stack-through")
    return fmt::format("{} would have to pass through the {} of {} in the shut card", panel,
                       f.detail, panelName(design, f.elements.at(1)));
  if (f.code == "slot-short")
    return fmt::format("the slits of {} and {} are {} too short to push them together", panel,
                       panelName(design, f.elements.at(1)), much);
  if (f.code == "slots-askew")
    return fmt::format(
        "{} cannot be pushed into its slots: they stand {} askew to one another at every opening",
        who, much);
  if (f.code == "film-taut")
    return fmt::format("the film on {} is {} too short: it is taut {}", panel, much,
                       openings(f, design));
  if (f.code == "band-drawn")
    return fmt::format("the band on {} is drawn {} too far at {}", panel, much,
                       openingText(design.card, f.show_rad));
  if (f.code == "band-slack")
    return fmt::format("the band on {} hangs {} slack where the card is shown: it does not pull",
                       panel, much);
  if (f.code == "slide-past-stop")
    return fmt::format("{} runs {} past its {} {}", panel, much,
                       f.detail == "least" ? "first stop" : "last stop", openings(f, design));
  if (f.code == "pocket-tight")
    return fmt::format("{} leaves {} too little room for {} to slide", panel, much,
                       panelName(design, f.elements.at(1)));
  if (f.code == "pocket-glue")
    return fmt::format("{} is {} too narrow: beside {} too little is left for glue", panel, much,
                       panelName(design, f.elements.at(1)));
  if (f.code == "strap-tight")
    return fmt::format("the folds of {} are {} too near to one another to go round {} of {}", panel,
                       much, f.detail == "1" ? "the one layer" : f.detail + " layers",
                       panelName(design, f.elements.at(1)));
  if (f.code == "limbs-hit")
    return fmt::format("{} runs {} over {} in the same layer {}", panel, much,
                       panelName(design, f.elements.at(1)), openings(f, design));
  if (f.code == "unreachable")
    return fmt::format("no order of work leaves room to {} {} and {}{}", f.detail, panel,
                       panelName(design, f.elements.at(1)),
                       f.amount > 1 ? fmt::format(": {} joints shut one another in", much)
                                    : std::string());
  if (f.code == "falls-over")
    return fmt::format("the card falls over when it is shown open at {}: its weight lies {} "
                       "outside of what it stands on",
                       openingText(design.card, f.show_rad), much);
  if (f.code == "tips-easily")
    return fmt::format("the card shown open at {} falls over when it is tilted by {}",
                       openingText(design.card, f.show_rad), much);
  if (f.code == "envelope-small")
    return fmt::format("the shut card is {} too large for the envelope {}", much, f.detail);
  if (f.code == "envelope-tight")
    return fmt::format("the shut card fits the envelope {} too tightly: it wants {} more", f.detail,
                       much);
  return fmt::format("{}: {} {}", who, f.code, much);
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
