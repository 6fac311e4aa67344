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

constexpr Sentence kAll[] = {
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
    {"plan.ready",
     QT_TRANSLATE_NOOP("words", "lay out the papers, a mat, a metal rule, knife, scoring tool "
                                "and bone, and what is glued with: %1")},
    {"plan.score", QT_TRANSLATE_N_NOOP("words", "score %n pieces: every line of their tables"),
     "score one piece: every line of its table"},
    {"plan.cut",
     QT_TRANSLATE_N_NOOP("words", "cut %n pieces, what lies inside before the outlines"),
     "cut one piece, what lies inside before the outline"},
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
     QT_TRANSLATE_NOOP("words", "%1 on one of the two faces only, %2 cm2, clear of the folds")},
    {"plan/tape",
     QT_TRANSLATE_NOOP("words", "%1, %2 of it, clear of the folds; it cannot be moved any more, "
                                "so peel half of its backing first")},
    {"plan/layers", QT_TRANSLATE_NOOP("words", "%1, %2 cm2; rub it down from the middle")},
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
  return kAll;
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
