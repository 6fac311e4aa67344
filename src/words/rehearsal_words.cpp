// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/rehearsal_words.h"
#include "core/structures/names.h"
#include "words/words.h"

namespace hinge {
namespace {

std::string jointsOf(const PlannedWork& work, std::size_t step) {
  return describe(work.plan.steps[step].joints, work.design(), work.assembly());
}
Text asItIs(std::string text) {
  return {"as-it-is", std::move(text)};
}

} // namespace

RehearsalWords inWords(const RehearsalTask& task, const PlannedWork& work) {
  const Assembly& assembly = work.assembly();
  switch (task.kind) {
  case RehearsalTask::Kind::FoldSense: {
    const Fold& fold = assembly.folds[task.fold];
    return {saySentence({"rehearse.fold",
                         pieceName(work.design(), assembly, assembly.panels[fold.left].piece),
                         panelLetter(assembly, fold.left), panelLetter(assembly, fold.right)}),
            {say(Text("rehearse.mountain")), say(Text("rehearse.valley"))}};
  }
  case RehearsalTask::Kind::GlueSide:
    return {saySentence({"rehearse.glue", asItIs(jointsOf(work, task.step))}),
            {say(Text("rehearse.face")), say(Text("rehearse.back"))}};
  case RehearsalTask::Kind::NextJoint: {
    RehearsalWords words{saySentence(Text("rehearse.next")), {}};
    for (std::size_t choice : task.choices)
      words.answers.push_back(saySentence(asItIs(jointsOf(work, choice))));
    return words;
  }
  }
  return {};
}

std::string sayWrongFold(const FoldedWrong& wrong, const PlannedWork& work) {
  const Assembly& assembly = work.assembly();
  const Degrees at{degrees(wrong.at_rad)};
  switch (wrong.what) {
  case FoldedWrong::What::DoesNotMeet: return saySentence(Text("rehearse.does-not-meet"));
  case FoldedWrong::What::Jams: return saySentence({"rehearse.jams", at});
  case FoldedWrong::What::Works: return saySentence(Text("rehearse.works"));
  case FoldedWrong::What::Hits:
    return saySentence({"rehearse.hits", at, panelName(work.design(), assembly, wrong.panel),
                        panelName(work.design(), assembly, wrong.other)});
  }
  return {};
}

std::string sayMisstep(const RehearsalTask& task, const Misstep& misstep, const PlannedWork& work) {
  if (task.kind == RehearsalTask::Kind::NextJoint)
    return saySentence({"rehearse.out-of-reach", asItIs(jointsOf(work, misstep.outOfReach))});
  if (misstep.off_mm > 0)
    return saySentence({"rehearse.turned-over", Millimetres{misstep.off_mm}},
                       work.design().settings.unit);
  return saySentence(Text("rehearse.looks-away"));
}

} // namespace hinge
