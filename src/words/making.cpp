// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/dress_moments.h"
#include "core/making/order.h"
#include "core/structures/names.h"
#include "words/sentences.h"
#include "words/words.h"

// The order of work in words. A step of several joints, or one that must come before another, is
// told as one sentence about the others.

namespace hinge {

namespace {

constexpr Sentence kMakingSaid[] = {
    {"make.glue", QT_TRANSLATE_NOOP("words", "glue %2 to %1")},
    {"make.slot", QT_TRANSLATE_N_NOOP("words", "push the %n slots of %2 and %1 together"),
     "push the slots of %2 and %1 together"},
    {"make.pivot", QT_TRANSLATE_NOOP("words", "pin %2 to %1")},
    {"make.slide", QT_TRANSLATE_NOOP("words", "lay %2 on %1 so that it slides")},
    {"make.band", QT_TRANSLATE_NOOP("words", "fasten the band from %1 to %2")},
    {"make.film", QT_TRANSLATE_NOOP("words", "fasten the film from %1 to %2")},
    {"make/with", QT_TRANSLATE_NOOP("words", "%1, and with it %2")},
    {"make/by-shutting", QT_TRANSLATE_NOOP("words", "%1, shutting the card on it")},
    {"make/before", QT_TRANSLATE_NOOP("words", "%1, before step %2 shuts it in")},
    {"make/dress-before", QT_TRANSLATE_NOOP("words", "%1, before step %2 glues onto them")},
    {"make.dress", QT_TRANSLATE_N_NOOP("words", "stick the layers on %n faces of %2"),
     "stick the layers on one face of %2"},
    {"make/while-flat", QT_TRANSLATE_NOOP("words", "%1 while it lies flat")},
    {"make/cut-open",
     QT_TRANSLATE_NOOP("words", "%1: slip it over what stands there while its other end is free, "
                                "or cut the layer open from the slit to its edge (%2)")},
    {"make.splice", QT_TRANSLATE_NOOP("words", "glue the two parts of %1 to one another by the tab "
                                               "on %2, flat and under a weight")},
    {"picture.back", QT_TRANSLATE_NOOP("words", "%1, back")},
    {"plan.ready",
     QT_TRANSLATE_NOOP("words", "lay out the papers, a mat, a metal rule, knife, scoring tool "
                                "and bone, and what is glued with: %1")},
    {"plan.score", QT_TRANSLATE_N_NOOP("words", "score %n pieces: every line of their tables"),
     "score one piece: every line of its table"},
    {"plan.cut",
     QT_TRANSLATE_N_NOOP("words", "cut %n pieces, what lies inside before the outlines"),
     "cut one piece, what lies inside before the outline"},
    {"plan.slice",
     QT_TRANSLATE_N_NOOP("words", "cut %2 and its like, %n strips, as one wide sheet, score it "
                                  "whole, then slice it"),
     "slice one strip"},
    {"plan/along-fold",
     QT_TRANSLATE_NOOP("words", "fold the fold on which it ends back the other way: its edge is "
                                "a stop to line it up against")},
    {"plan/clip", QT_TRANSLATE_NOOP("words", "a clip, or a strip of paper tape, holds what nothing "
                                             "holds yet")},
    {"plan/slot-tape",
     QT_TRANSLATE_NOOP("words", "a bit of tape behind what stands in a slot is an insurance")},
    {"plan.fold",
     QT_TRANSLATE_N_NOOP("words", "fold every score of %n pieces both ways, and sharp"),
     "fold every score of one piece both ways, and sharp"},
    {"plan.cross",
     QT_TRANSLATE_N_NOOP("words", "put a pencil cross on %n faces that nobody will see"),
     "put a pencil cross on the one face that nobody will see"},
    {"plan.pencil",
     QT_TRANSLATE_N_NOOP("words", "mark %n places in pencil; what is glued covers them"),
     "mark one place in pencil; what is glued covers it"},
    {"plan.point",
     QT_TRANSLATE_NOOP("words", "on %1: %2 from its left and %3 from its lower border")},
    {"plan.dry-fit", QT_TRANSLATE_NOOP("words", "try it dry before you %1: hold it as it will be, "
                                                "shut the card slowly and look")},
    {"plan.dry-fit-alone",
     QT_TRANSLATE_NOOP("words", "try it dry before you %1: hold it as it will "
                                "be, fold it flat and look")},
    {"plan/openly-alone",
     QT_TRANSLATE_NOOP("words", "it lies by itself on the table; press all over")},
    {"change.shut", QT_TRANSLATE_N_NOOP("words", "the card is now shut on %n joints"),
     "the card is now shut on one joint"},
    {"change.marks",
     QT_TRANSLATE_N_NOOP("words", "%n joints are now laid on marks, without shutting the card"),
     "one joint is now laid on marks, without shutting the card"},
    {"change.glued", QT_TRANSLATE_N_NOOP("words", "%n joints are held by another adhesive"),
     "one joint is held by another adhesive"},
    {"change.layers", QT_TRANSLATE_N_NOOP("words", "another adhesive for the layers in %n steps"),
     "another adhesive for the layers in one step"},
    {"change.sum", QT_TRANSLATE_NOOP("words", "%1 steps instead of %2, %3 instead of %4")},
    {"plan.wait", QT_TRANSLATE_NOOP("words", "leave it pressed for %1")},
    {"plan.measure",
     QT_TRANSLATE_NOOP("words", "measure: %1 stands %2 from the nearest fold of %3; if "
                                "it is more than %4 off, take it up again")},
    {"plan.open", QT_TRANSLATE_NOOP("words", "open it for the first time to %1: push from behind, "
                                             "never pull")},
    {"plan.finish",
     QT_TRANSLATE_NOOP("words", "shut it, press it under a weight, and open it once more")},
    {"plan/by-shutting",
     QT_TRANSLATE_NOOP("words", "put the adhesive on, fold it flat, and shut the card "
                                "on it: the page takes it where it must be")},
    {"plan/openly", QT_TRANSLATE_NOOP("words", "the card lies open; press all over")},
    {"plan/by-finger",
     QT_TRANSLATE_NOOP("words", "the card stands at %1; a finger gets in and presses")},
    {"plan/glue",
     QT_TRANSLATE_NOOP("words", "%1 on one of the two faces only, %2, clear of the folds")},
    {"plan/tape",
     QT_TRANSLATE_NOOP("words", "%1, %2 of it, clear of the folds; it cannot be moved any more, "
                                "so peel half of its backing first")},
    {"plan/layers", QT_TRANSLATE_NOOP("words", "%1, %2; rub it down from the middle")},
    {"plan/before", QT_TRANSLATE_NOOP("words", "before step %1, which shuts it in")},
    {"plan/slides", QT_TRANSLATE_NOOP("words", "it can be slid to its place for %1")},
    {"adhesive.wet-glue", QT_TRANSLATE_NOOP("words", "wet glue")},
    {"adhesive.strong-tape", QT_TRANSLATE_NOOP("words", "strong double tape")},
    {"adhesive.glue-stick", QT_TRANSLATE_NOOP("words", "glue stick")},
    {"adhesive.pads", QT_TRANSLATE_NOOP("words", "foam pads")},
    {"adhesive.solvent-glue", QT_TRANSLATE_NOOP("words", "solvent glue")},
    {"plan.seconds", QT_TRANSLATE_N_NOOP("words", "%n seconds"), "one second"},
    {"plan.minutes", QT_TRANSLATE_N_NOOP("words", "%n minutes"), "one minute"},
    {"plan.hours", QT_TRANSLATE_NOOP("words", "%1 h %2 min")},
    {"caution.knife",
     QT_TRANSLATE_NOOP("words",
                       "cut on a mat along a metal rule, away from the hand; cover the blade "
                       "at once, and count the blades before you pack up")},
    {"caution.knife/short", QT_TRANSLATE_NOOP("words", "metal rule, mat, away from the hand")},
    {"booklet.about",
     QT_TRANSLATE_NOOP("words", "%1 by %2 when it is shut, opens to %3; %4 steps, about %5 for the "
                                "hands")},
    {"booklet.parts", QT_TRANSLATE_NOOP("words", "Parts")},
    {"booklet.part/one", QT_TRANSLATE_NOOP("words", "%1  %2, %3 by %4")},
    {"booklet.part", QT_TRANSLATE_NOOP("words", "%1  %2, %5 times, %3 by %4")},
    {"booklet/scored", QT_TRANSLATE_NOOP("words", "; scored from the first edge at %1")},
    {"booklet.papers", QT_TRANSLATE_NOOP("words", "Papers")},
    {"booklet.sheets", QT_TRANSLATE_N_NOOP("words", "%n sheets of %2, %3 by %4"),
     "one sheet of %2, %3 by %4"},
    {"booklet.adhesives", QT_TRANSLATE_NOOP("words", "Adhesives")},
    {"booklet.glue", QT_TRANSLATE_NOOP("words", "%1 for %2, about %3 g")},
    {"booklet.tape", QT_TRANSLATE_NOOP("words", "%1: %2 of it")},
    {"booklet.tools", QT_TRANSLATE_NOOP("words", "Tools")},
    {"booklet.hand-tools",
     QT_TRANSLATE_NOOP("words", "mat, metal rule, knife, scoring tool, bone, pencil, a weight")},
    {"booklet.pins", QT_TRANSLATE_NOOP("words", "pins with two legs, and a thin spacer for each")},
    {"booklet.bands", QT_TRANSLATE_NOOP("words", "elastic bands")},
    {"booklet.films", QT_TRANSLATE_NOOP("words", "clear film in strips")},
    {"booklet.cautions", QT_TRANSLATE_NOOP("words", "Mind")},
    {"booklet.steps", QT_TRANSLATE_NOOP("words", "Steps")},
    {"booklet.tables", QT_TRANSLATE_NOOP("words", "Where to score and cut")},
    {"booklet.page", QT_TRANSLATE_NOOP("words", "%1, page %2")},
    {"caution.breaks",
     QT_TRANSLATE_NOOP("words", "paper cuts, and long sitting tires: take the breaks of the plan")},
    {"caution.small-parts",
     QT_TRANSLATE_NOOP("words",
                       "pins, gems and other small parts are not for small children; magnets and "
                       "button cells are dangerous when swallowed")},
    {"caution.rules",
     QT_TRANSLATE_NOOP("words",
                       "what is sold or given to children has to keep to the rules for toys "
                       "where you are; these notes do not replace them, nor data sheets")},
    {"bench.piece/one", QT_TRANSLATE_NOOP("words", "%1 (%2)")},
    {"bench.mm", QT_TRANSLATE_NOOP("words", "%1 mm")},
    {"bench.cm", QT_TRANSLATE_NOOP("words", "%1 cm")},
    {"bench.in", QT_TRANSLATE_NOOP("words", "%1 in")},
    {"bench.piece", QT_TRANSLATE_NOOP("words", "%1 (%2), %3 times")},
    {"bench.score/first",
     QT_TRANSLATE_NOOP("words", "%1, score %2 of %3: upright, from the first edge")},
    {"bench.score/other",
     QT_TRANSLATE_NOOP("words", "%1, score %2 of %3: upright, from the other edge")},
    {"bench.score/level",
     QT_TRANSLATE_NOOP("words", "%1, score %2 of %3: level, from the lower edge")},
    {"bench.score/slanted",
     QT_TRANSLATE_NOOP("words",
                       "%1, score %2 of %3: slanted, from the left edge at both its ends")},
    {"bench.point",
     QT_TRANSLATE_NOOP("words", "%1, mark %2 of %3: from the left and the lower border")},
    {"bench.sheet", QT_TRANSLATE_NOOP("words", "sheet %1 (%2)")},
    {"bench.new-sheet", QT_TRANSLATE_NOOP("words", "a new sheet")},
    {"bench.again", QT_TRANSLATE_NOOP("words", "cut %1 again, from %2")},
    {"rehearse.fold",
     QT_TRANSLATE_NOOP("words",
                       "%1 lies with its face up: how is the fold between %2 and %3 folded?")},
    {"rehearse.mountain", QT_TRANSLATE_NOOP("words", "Mountain: it comes up to you")},
    {"rehearse.valley", QT_TRANSLATE_NOOP("words", "Valley: it goes away from you")},
    {"rehearse.glue", QT_TRANSLATE_NOOP("words", "%1: which side of the tab gets the adhesive?")},
    {"rehearse.face", QT_TRANSLATE_NOOP("words", "Its face, with the letters of the sheet")},
    {"rehearse.back", QT_TRANSLATE_NOOP("words", "Its back")},
    {"rehearse.next", QT_TRANSLATE_NOOP("words", "what is done next?")},
    {"rehearse.does-not-meet",
     QT_TRANSLATE_NOOP("words", "folded like that it cannot be glued in: its feet do not come to "
                                "their places")},
    {"rehearse.jams",
     QT_TRANSLATE_NOOP("words", "folded like that the card jams at %1 while it shuts")},
    {"rehearse.hits",
     QT_TRANSLATE_NOOP("words", "folded like that %2 would have to go through %3, from %1 on")},
    {"rehearse.works",
     QT_TRANSLATE_NOOP("words", "that moves as well; this card is drawn the other way")},
    {"rehearse.out-of-reach", QT_TRANSLATE_NOOP("words", "then no hand gets there any more to %1")},
    {"rehearse.turned-over",
     QT_TRANSLATE_NOOP("words",
                       "then the piece lies turned over, and its other end comes to lie %1 "
                       "off its place")},
    {"rehearse.looks-away",
     QT_TRANSLATE_NOOP("words", "then the piece looks away, with its face to what it is glued to")},
    {"caution.air",
     QT_TRANSLATE_NOOP("words",
                       "air the room, no flame near it, and keep to the maker's data sheet "
                       "and to what is the rule where you are")},
    {"caution.air/short", QT_TRANSLATE_NOOP("words", "air, no flame")},
    {"caution.band",
     QT_TRANSLATE_NOOP("words", "a band that slips goes for the eyes: hold it low, look "
                                "from the side")},
    {"caution.band/short", QT_TRANSLATE_NOOP("words", "mind the eyes")},
    {"caution.pin",
     QT_TRANSLATE_NOOP("words", "pins and other small parts are not for small children; "
                                "what is sold or given to them must meet the toy rules "
                                "where you are")},
    {"caution.pin/short", QT_TRANSLATE_NOOP("words", "small parts: not for small children")},
    {"caution.skin",
     QT_TRANSLATE_NOOP("words", "if skin does not take glue or tape well, wear gloves or "
                                "take another adhesive")},
    {"caution.skin/short", QT_TRANSLATE_NOOP("words", "gloves, if need be")},
    {"make/unreachable", QT_TRANSLATE_NOOP("words", "%1: out of reach in any order")},
};

} // namespace

std::span<const Sentence> Words::making() {
  return kMakingSaid;
}

namespace {

Text textOf(const JointGroup& group, const Design& design, const Assembly& assembly) {
  const Joint& joint = assembly.joints[group.front()];
  const auto [there, joins] = panelsOf(joint);
  return {"make." + std::string(jointKey(joint)), panelOnSheet(design, assembly, there),
          panelOnSheet(design, assembly, joins), group.size()};
}

} // namespace

std::string describe(const JointGroup& group, const Design& design, const Assembly& assembly) {
  return say(textOf(group, design, assembly));
}

std::vector<std::string> describe(const AssemblyOrder& order, const Design& design,
                                  const Assembly& assembly) {
  std::vector<std::string> all;
  for (const MakingStep& step : order.steps) {
    Text text = textOf(step.joints.front(), design, assembly);
    for (std::size_t k = 1; k < step.joints.size(); ++k)
      text = Text("make/with", std::move(text), textOf(step.joints[k], design, assembly));
    if (step.byShutting) text = Text("make/by-shutting", std::move(text));
    if (step.before >= 0) text = Text("make/before", std::move(text), step.before + 1);
    all.push_back(saySentence(text));
  }
  for (const JointGroup& group : order.unreachable)
    all.push_back(saySentence(Text("make/unreachable", textOf(group, design, assembly))));
  return all;
}

namespace {

std::string said(const DressMoment& moment, const Design& design, const Assembly& assembly) {
  Text text("make.dress", moment.faces.size(), pieceName(design, assembly, moment.piece));
  if (moment.after < 0) text = Text("make/while-flat", std::move(text));
  if (moment.cutOpen_mm > 0)
    text = Text("make/cut-open", std::move(text), Millimetres{moment.cutOpen_mm});
  if (moment.before >= 0) text = Text("make/dress-before", std::move(text), moment.before + 1);
  return saySentence(text, design.settings.unit);
}

} // namespace

std::vector<OrderLine> orderLines(const AssemblyOrder& order,
                                  const std::vector<DressMoment>& moments, const Design& design,
                                  const Assembly& assembly) {
  std::vector<OrderLine> lines;
  const auto dressAfter = [&](int step) {
    for (const DressMoment& moment : moments)
      if (moment.after == step) lines.push_back({"-", said(moment, design, assembly)});
  };
  for (const Splice& splice : design.splices)
    if (const PanelIndex panel = assembly.findPanel(splice.panel); panel.valid())
      lines.push_back(
          {"-", saySentence(Text("make.splice",
                                 pieceName(design, assembly, assembly.panels[panel].piece),
                                 panelName(design, assembly, panel)))});
  dressAfter(-1);
  const auto joints = describe(order, design, assembly);
  for (std::size_t k = 0; k < joints.size(); ++k) {
    const bool step = k < order.steps.size();
    lines.push_back({step ? std::to_string(k + 1) + "." : "x", joints[k]});
    if (step) dressAfter(static_cast<int>(k));
  }
  return lines;
}

} // namespace hinge
