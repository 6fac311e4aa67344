// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/finding.h"
#include "core/structures/names.h"
#include "core/structures/registry.h"
#include "words/sentences.h"
#include "words/words.h"
#include <optional>

namespace hinge {

namespace {

/// What is said of each code of a finding, or of a code with a detail ("shut-flat/jams"). Names in
/// braces: who (the structure), panel and other (the panels, the main one first), last and the one
/// before it, all of them, much (the amount), detail, openings (from and to), from, to, show (an
/// opening each).
constexpr Sentence kFindingsSaid[] = {
    {"shut-flat/forgiven",
     QT_TRANSLATE_NOOP("words",
                       "the panels of {who} miss closing their loop by {much}: paper gives "
                       "that, but no more")},
    {"shut-flat/jams",
     QT_TRANSLATE_NOOP(
         "words",
         "{who} does not shut flat: its loop misses closing by {much} and it jams at {to}")},
    {"shut-flat", QT_TRANSLATE_NOOP(
                      "words", "{who} does not shut flat: its loop misses closing by {much} and it "
                               "stands off the pages")},
    {"outside-cover",
     QT_TRANSLATE_NOOP("words", "{panel} pokes {much} past the {detail} edge of the shut card")},
    {"edge-reserve",
     QT_TRANSLATE_NOOP(
         "words", "{panel} comes {much} into the reserve at the {detail} edge of the shut card")},
    {"panels-hit/in-plane",
     QT_TRANSLATE_NOOP("words", "{panel} and {other} would have to pass {much} through one another "
                                "{openings}: one lies where the other has to go")},
    {"order-open",
     QT_TRANSLATE_NOOP("words",
                       "not fully checked: so many sheets lie on one another that no order "
                       "of them was found in time")},
    {"panels-hit",
     QT_TRANSLATE_NOOP("words", "{panel} and {other} pass {much} through one another {openings}")},
    {"plates-hit",
     QT_TRANSLATE_NOOP("words", "{panel} and {other} are too thick to pass one another {openings}: "
                                "they lack {much} of room")},
    {"taut",
     QT_TRANSLATE_NOOP(
         "words",
         "{who} goes taut at {from}: the card cannot open the last {much} without tearing it")},
    {"jammed", QT_TRANSLATE_NOOP("words", "{who} jams at {to}: the card cannot shut past it")},
    {"finished-small",
     QT_TRANSLATE_NOOP("words", "the card is {much} larger when shut than its finished size")},
    {"by-band",
     QT_TRANSLATE_NOOP("words", "{who} is moved by the band or pull that its maker gives "
                                "it alone: without one it stays shut")},
    {"by-hand-along",
     QT_TRANSLATE_NOOP("words", "{panel} opens with the card because its maker says so: a hand "
                                "opens it where no joint does")},
    {"by-spring",
     QT_TRANSLATE_NOOP("words", "{panel} is held upright by the spring of its tabs alone: "
                                "bend both alike")},
    {"card-within",
     QT_TRANSLATE_NOOP("words", "{who} is spoiled by itself ({much}): open its own file "
                                "and mend it there")},
    {"hangs/as-folded",
     QT_TRANSLATE_NOOP("words", "{panel} hangs on {detail} alone: it rests as it was folded until "
                                "a hand moves it")},
    {"hangs", QT_TRANSLATE_NOOP("words", "{panel} hangs on {detail} alone: it rests flat until a "
                                         "hand lifts it")},
    {"lift-hits/in-plane",
     QT_TRANSLATE_NOOP("words", "{panel} and {other} would have to pass {much} through one another "
                                "when a hand moves them: one lies where the other has to go")},
    {"lift-hits",
     QT_TRANSLATE_NOOP("words", "{panel} hits {other} by {much} when a hand moves it to "
                                "{detail}")},
    {"impossible/apart-at",
     QT_TRANSLATE_NOOP("words", "{who} cannot be put together: its ring stays {much} open at "
                                "{detail}")},
    {"impossible/other-way",
     QT_TRANSLATE_NOOP("words", "{who} cannot be put together as its scores are marked: it closes "
                                "when they fold the other way, {detail} among them")},
    {"unjoined", QT_TRANSLATE_NOOP("words", "{who} is joined to nothing yet")},
    {"impossible",
     QT_TRANSLATE_NOOP("words",
                       "{who} cannot be put together: its panels do not meet at any opening")},
    {"locked",
     QT_TRANSLATE_NOOP("words", "{who} ties {before} and {last} together: the card is locked, they "
                                "would have to part by {much}")},
    {"torn/forgiven",
     QT_TRANSLATE_NOOP("words", "{panel} and {last} are joined {much} apart: paper gives that, but "
                                "no more")},
    {"torn/parting",
     QT_TRANSLATE_NOOP("words", "{panel} and {last} are joined where they part by {much} "
                                "{openings}: the joint tears")},
    {"torn/parting-fold",
     QT_TRANSLATE_NOOP("words", "the fold between {panel} and {last} is held on both sides, which "
                                "part by {much} {openings}: the paper tears")},
    {"torn",
     QT_TRANSLATE_NOOP(
         "words", "{panel} and {last} are joined in ways that are {much} apart: the joint tears")},
    {"foot-covered",
     QT_TRANSLATE_NOOP(
         "words", "{panel} lies over {much} of the foot of {other}, which stands up through it")},
    {"floppy",
     QT_TRANSLATE_N_NOOP("words",
                         "{who} flops: %n motions are left free when the card is held still"),
     "{who} flops: %n motion is left free when the card is held still"},
    {"mat-vanishes",
     QT_TRANSLATE_NOOP("words", "nothing is left of {detail} on {panel}: its border "
                                "takes all of it")},
    {"mat-parts", QT_TRANSLATE_NOOP("words", "{detail} on {panel} falls apart into {much} parts")},
    {"mat-neck",
     QT_TRANSLATE_NOOP("words", "{detail} on {panel} is narrower than {much} somewhere: it tears")},
    {"dress-lost",
     QT_TRANSLATE_NOOP("words", "something is laid on the face {detail}, which is not there")},
    {"splice-lost",
     QT_TRANSLATE_NOOP("words", "where {panel} was to be parted it no longer can be: {detail}")},
    {"topper-unheld",
     QT_TRANSLATE_NOOP("words", "nothing holds {panel}: on its own panel, clear of the folds, too "
                                "little of it is left, by {much}")},
    {"topper-over-fold",
     QT_TRANSLATE_NOOP("words", "{panel} reaches {much} over the fold to {other}, which closes on "
                                "it: the card tears it off")},
    {"topper-hits",
     QT_TRANSLATE_NOOP("words", "{other} passes {much} through {panel} on its pads at {show}")},
    {"tab-narrow", QT_TRANSLATE_NOOP("words", "{panel} is {much} too narrow to hold")},
    {"tab-crosses-fold",
     QT_TRANSLATE_NOOP("words", "{panel} crosses a fold of its panel by {much}")},
    {"tab-off-panel",
     QT_TRANSLATE_NOOP("words", "{panel} sticks out {much} past the panel it is glued to")},
    {"tab-near-fold",
     QT_TRANSLATE_NOOP("words", "{panel} is {much} too near to a fold: glue would creep into it")},
    {"tabs-overlap",
     QT_TRANSLATE_NOOP("words", "{panel} and {other} are glued over one another by {much}")},
    {"behind-glue",
     QT_TRANSLATE_NOOP("words",
                       "{panel} swings {much} behind {other}, through the paper it is glued to")},
    {"stack-ring",
     QT_TRANSLATE_NOOP("words", "{all} overlap in a ring when shut: each lies under the next, so "
                                "they must be tucked in by hand")},
    {"stack-through",
     QT_TRANSLATE_NOOP(
         "words", "{panel} would have to pass through the {detail} of {other} in the shut card")},
    {"slot-short",
     QT_TRANSLATE_NOOP(
         "words", "the slits of {panel} and {other} are {much} too short to push them together")},
    {"slots-askew",
     QT_TRANSLATE_NOOP("words", "{who} cannot be pushed into its slots: they stand {much} askew "
                                "to one another at every opening")},
    {"film-taut",
     QT_TRANSLATE_NOOP("words", "the film on {panel} is {much} too short: it is taut {openings}")},
    {"band-drawn",
     QT_TRANSLATE_NOOP("words", "the band on {panel} is drawn {much} too far at {show}")},
    {"band-slack",
     QT_TRANSLATE_NOOP(
         "words",
         "the band on {panel} hangs {much} slack where the card is shown: it does not pull")},
    {"slide-past-stop/least",
     QT_TRANSLATE_NOOP("words", "{panel} runs {much} past its first stop {openings}")},
    {"slide-past-stop",
     QT_TRANSLATE_NOOP("words", "{panel} runs {much} past its last stop {openings}")},
    {"pocket-tight",
     QT_TRANSLATE_NOOP("words", "{panel} leaves {much} too little room for {other} to slide")},
    {"pocket-glue",
     QT_TRANSLATE_NOOP("words",
                       "{panel} is {much} too narrow: beside {other} too little is left for glue")},
    {"strap-tight",
     QT_TRANSLATE_NOOP("words", "the folds of {panel} are {much} too near to one another to go "
                                "round {detail} of {other}")},
    {"limbs-hit",
     QT_TRANSLATE_NOOP("words", "{panel} runs {much} over {other} in the same layer {openings}")},
    {"unreachable",
     QT_TRANSLATE_N_NOOP(
         "words", "no order of work leaves room for {detail} between {panel} and {other}: %n "
                  "joints shut one another in"),
     "no order of work leaves room for {detail} between {panel} and {other}"},
    {"falls-over",
     QT_TRANSLATE_NOOP("words", "the card falls over when it is shown open at {show}: its weight "
                                "lies {much} outside of what it stands on")},
    {"tips-easily",
     QT_TRANSLATE_NOOP("words",
                       "the card shown open at {show} falls over when it is tilted by {much}")},
    {"glue-on-nothing", QT_TRANSLATE_NOOP("words", "{panel} is glued where {other} has no paper")},
    {"glue-little",
     QT_TRANSLATE_NOOP("words", "{panel} is held on {other} by a spot of glue of {detail} square: "
                                "too little paper lies under it")},
    {"pin-in-the-open",
     QT_TRANSLATE_NOOP("words", "the pin of {panel} on {other} goes through an opening: it is "
                                "{much} from the paper")},
    {"folds-other-way",
     QT_TRANSLATE_NOOP("words", "{detail} between {panel} and {other} folds the other way, by "
                                "{much} at {show}")},
    {"layers-at-fold",
     QT_TRANSLATE_NOOP("words", "what lies on {panel} and {other} is too thick so near to their "
                                "fold: they lack {much} of room to close")},
    {"score-ends",
     QT_TRANSLATE_NOOP("words", "{detail} of {who} ends in the paper: along {much} of {panel} "
                                "nothing folds. Draw it on to an edge or another line, or cut "
                                "across its end")},
    {"stands-in-shut",
     QT_TRANSLATE_NOOP("words", "{panel} is held at an angle and stands {much} out of the shut "
                                "card")},
    {"shown-outside",
     QT_TRANSLATE_NOOP("words", "the card is shown open at {detail}, where it never is: it is used "
                                "{openings}")},
    {"hand-does-nothing",
     QT_TRANSLATE_NOOP("words", "a hand is to move {panel} on {other}, but other joints hold it: "
                                "the hand does nothing")},
    {"over-nothing",
     QT_TRANSLATE_NOOP("words", "{panel} is said to lie \"over {much}\" on {other}, but nothing "
                                "else is joined to that side of it: leave that out")},
    {"rule-lost",
     QT_TRANSLATE_NOOP("words", "{panel} lies on {other} where it lay last, not by its rule any "
                                "more: {detail}. Place it anew")},
    {"hands-in-turn",
     QT_TRANSLATE_NOOP("words", "{panel} and {other} can be moved by hand, but only the one that "
                                "lies on top first")},
    {"pulled-by-nothing",
     QT_TRANSLATE_NOOP("words", "nothing pulls {panel}: it runs {much} on {other} only when a "
                                "band, a strip or a hand draws it")},
    {"not-shut-below",
     QT_TRANSLATE_NOOP("words", "the card cannot be shut below {to}: {who} is {much} out; what the "
                                "shut card measures is not known")},
    {"tie-blocked",
     QT_TRANSLATE_NOOP("words", "{last} stands in the way between the ends of what {panel} is tied "
                                "with: to go round it takes {much} more")},
    {"envelope-small",
     QT_TRANSLATE_NOOP("words", "the shut card is {much} too large for the envelope {detail}")},
    {"envelope-tight",
     QT_TRANSLATE_NOOP(
         "words", "the shut card fits the envelope {detail} too tightly: it wants {much} more")},
};

} // namespace

std::span<const Sentence> Words::findings() {
  return kFindingsSaid;
}

namespace {

/// Saying a finding: what the names in the pattern stand for.
class FindingWords {
public:
  FindingWords(const Finding& finding, const Design& design) : m_f(finding), m_design(design) {}

  QString sentence() const {
    const Sentence* found = Words::find(m_f.code + "/" + m_f.detail.key);
    if (!found) found = Words::find(m_f.code);
    if (!found) return QString::fromStdString(m_f.code);
    const int count = m_f.unit == AmountUnit::Count ? static_cast<int>(m_f.amount) : -1;
    return Words::filled(Words::patternOf(*found, count),
                         [this](const QString& name) { return value(name); });
  }

private:
  QString said(const Said& what) const { return Words::said(what, m_design.settings.unit); }
  QString who() const {
    return said(m_f.owners.empty() ? Text("the-card") : nameOf(m_design, m_f.owners.front()));
  }
  QString panel(std::size_t k) const { return k < m_f.names.size() ? said(m_f.names[k]) : who(); }
  QString fromEnd(std::size_t k) const { return panel(m_f.names.size() - 1 - k); }
  QString opening(double at_rad) const { return said(openingText(m_design.card, at_rad)); }
  QString amount() const {
    switch (m_f.unit) {
    case AmountUnit::Millimetre: return said(Millimetres{m_f.amount});
    case AmountUnit::Degree: return said(Degrees{m_f.amount});
    case AmountUnit::Count: return said(Decimal{m_f.amount, 0});
    }
    return {};
  }
  QString all() const {
    if (m_f.names.empty()) return who();
    Text list = m_f.names.front();
    for (std::size_t k = 1; k < m_f.names.size(); ++k)
      list = Text("list", std::move(list), m_f.names[k]);
    return said(list);
  }
  QString value(const QString& name) const {
    if (name == QLatin1String("who")) return who();
    if (name == QLatin1String("panel")) return panel(0);
    if (name == QLatin1String("other")) return panel(1);
    if (name == QLatin1String("last")) return fromEnd(0);
    if (name == QLatin1String("before")) return fromEnd(1);
    if (name == QLatin1String("all")) return all();
    if (name == QLatin1String("much")) return amount();
    if (name == QLatin1String("detail")) return said(m_f.detail);
    if (name == QLatin1String("from")) return opening(m_f.from_rad);
    if (name == QLatin1String("to")) return opening(m_f.to_rad);
    if (name == QLatin1String("show")) return opening(m_f.show_rad);
    if (name == QLatin1String("openings"))
      return said(Text("openings", openingText(m_design.card, m_f.from_rad),
                       openingText(m_design.card, m_f.to_rad)));
    return {};
  }

  const Finding& m_f;
  const Design& m_design;
};

/// A value of an edit: the choice of a switch, a count, a length or an angle.
Said valueIn(const MendEdit& edit, const ParameterSpec* spec, double value) {
  if (spec && spec->unit == ParameterUnit::Switch) return choiceOf(*spec, static_cast<int>(value));
  if (spec) return valueOf(*spec, value);
  return edit.unit == ParameterUnit::Millimetre ? Said(Millimetres{value}) : Said(Degrees{value});
}

/// Two rows at once: "Wall a, b" where they are the same size on both sides.
Text bothOf(const ParameterSpec& one, const ParameterSpec& twin) {
  if (one.name.key == twin.name.key)
    return {"mend/sides", nameOnBothSides(one), one.name.of, twin.name.of};
  return {"mend/both", nameOf(one), nameOf(twin)};
}

} // namespace

std::string describe(const Finding& finding, const Design& design) {
  return Words::withCapital(FindingWords(finding, design).sentence()).toStdString();
}

std::string describe(const Mend& mend, const Design& design) {
  std::optional<Text> all;
  for (std::size_t k = 0; k < mend.edits.size(); ++k) {
    const MendEdit& edit = mend.edits[k];
    const StructureItem* item = design.find(edit.id);
    const ParameterTable table = item ? parametersOf(*item) : ParameterTable();
    const ParameterSpec* spec = findSpec(table, edit.key);
    Text label = spec ? nameOf(*spec) : Text("as-it-is", edit.key);
    // Both sides changed alike are one statement: "Wall a, b 66 -> 44 mm".
    if (k + 1 < mend.edits.size() && spec && mend.edits[k + 1].key == spec->twin &&
        mend.edits[k + 1].from == edit.from && mend.edits[k + 1].to == edit.to)
      label = bothOf(*spec, *findSpec(table, mend.edits[++k].key));
    // The unit is told once: "66 -> 44 mm".
    const Said from = edit.unit == ParameterUnit::Millimetre
                          ? Said(formatLength(edit.from, design.settings.unit, false))
                          : valueIn(edit, spec, edit.from);
    Text change("mend/edit", std::move(label), from, valueIn(edit, spec, edit.to));
    if (all)
      all = Text("list", std::move(*all), std::move(change));
    else
      all = Text("mend/who", nameOf(design, edit.id), std::move(change));
  }
  if (!all && !mend.change.empty()) return say(mend.change, design.settings.unit);
  return all ? say(*all, design.settings.unit) : std::string();
}

} // namespace hinge
