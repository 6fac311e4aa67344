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
