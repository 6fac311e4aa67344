// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/plan_words.h"
#include "core/structures/names.h"
#include "core/units/lattice.h"
#include "words/words.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <set>

namespace hinge {
namespace {

class Wording {
public:
  Wording(const WorkPlan& plan, const Design& design, const Assembly& assembly)
      : m_plan(plan), m_design(design), m_assembly(assembly), m_unit(design.settings.unit) {}

  std::vector<StepWords> run() {
    std::vector<StepWords> all;
    for (const WorkStep& step : m_plan.steps) {
      StepWords words;
      words.what = saySentence(whatOf(step), m_unit);
      notes(step, words);
      cautions(step, words);
      all.push_back(std::move(words));
    }
    return all;
  }

private:
  /// "wet glue, strong double tape": all that the plan takes.
  Text adhesives() const {
    std::set<Adhesive> used;
    for (const WorkStep& step : m_plan.steps)
      if (step.adhesive) used.insert(*step.adhesive);
    std::string list;
    for (Adhesive one : used)
      list += (list.empty() ? "" : ", ") + sayAdhesive(one);
    return {"as-it-is", list.empty() ? "-" : list};
  }

  std::string jointsOf(const WorkStep& step) const {
    std::string text;
    std::set<std::string> said; // slots between two pieces are one thing to do
    for (JointIndex j : step.joints)
      if (const std::string one = describe({j}, m_design, m_assembly); said.insert(one).second)
        text += (text.empty() ? "" : "; ") + one;
    return text;
  }

  Text pieceOf(const WorkStep& step, std::size_t which = 0) const {
    return pieceName(m_design, m_assembly, step.pieces[which]);
  }

  Text whatOf(const WorkStep& step) const {
    const std::size_t pieces = step.pieces.size();
    switch (step.kind) {
    case WorkKind::Ready: return {"plan.ready", adhesives()};
    case WorkKind::Score: return {"plan.score", pieces};
    case WorkKind::Slice: return {"plan.slice", pieces, pieceOf(step)};
    case WorkKind::Cut: return {"plan.cut", pieces};
    case WorkKind::Fold: return {"plan.fold", pieces};
    case WorkKind::Splice:
      return {"make.splice", pieceOf(step),
              panelName(m_design, m_assembly,
                        m_assembly.findPanel(m_design.splices[step.splice].panel))};
    case WorkKind::Cross: return {"plan.cross", step.faces.size()};
    case WorkKind::Pencil: return {"plan.pencil", step.points.size()};
    case WorkKind::Dress: return {"make.dress", step.faces.size(), pieceOf(step)};
    case WorkKind::DryFit:
      return {step.onCard ? "plan.dry-fit" : "plan.dry-fit-alone",
              Text("as-it-is", jointsOf(step))};
    case WorkKind::Join: return {"as-it-is", jointsOf(step)};
    case WorkKind::Wait: return {"plan.wait", Text("as-it-is", sayTime(step.waits_s))};
    case WorkKind::Measure:
      return {"plan.measure", pieceOf(step), Millimetres{step.number_mm}, pieceOf(step, 1),
              Millimetres{onMark(step.within_mm)}};
    case WorkKind::Open: return {"plan.open", Degrees{step.opening_deg}};
    case WorkKind::Finish: return {"plan.finish"};
    }
    return {};
  }

  /// A tolerance as a ruler in inches has it: a mark, or half of one ("a hair"), never more than it
  /// is.
  double onMark(double tolerance_mm) const {
    if (m_unit != LengthUnit::Inch) return tolerance_mm;
    constexpr double kHair_mm = kLatticeInch_mm / 2;
    if (tolerance_mm < kLatticeInch_mm) return kHair_mm;
    return downToLattice(tolerance_mm + 1e-9, kLatticeInch_mm);
  }

  void notes(const WorkStep& step, StepWords& words) const {
    const auto note = [&](const Text& text) { words.notes.push_back(saySentence(text, m_unit)); };
    for (const PencilPoint& point : step.points)
      note({"plan.point", panelOnSheet(m_design, m_assembly, point.panel),
            Millimetres{point.from_mm.x()}, Millimetres{point.from_mm.y()}});
    const bool glued = step.kind == WorkKind::Join && step.adhesive;
    if (glued && step.press == PressWay::ByShutting) note({"plan/by-shutting"});
    if (glued && step.press == PressWay::Openly)
      note({step.onCard ? "plan/openly" : "plan/openly-alone"});
    if (glued && step.press == PressWay::ByFinger)
      note({"plan/by-finger", Degrees{step.opening_deg}});
    if (step.adhesive) {
      const Text name("as-it-is", sayAdhesive(*step.adhesive));
      const SquareMillimetres area{100 * step.glue_cm2};
      if (step.kind == WorkKind::Dress)
        note({"plan/layers", name, area});
      else if (factsOf(*step.adhesive).byLength)
        note({"plan/tape", name, OffTheRoll{step.tape_mm}});
      else
        note({"plan/glue", name, area});
      if (const double slides = factsOf(*step.adhesive).slides_s; slides > 0)
        note({"plan/slides", Text("as-it-is", sayTime(slides))});
    }
    if (step.kind == WorkKind::DryFit && step.onCard) note({"plan/clip"});
    if (step.kind == WorkKind::Join && std::ranges::any_of(step.joints, [&](JointIndex j) {
          return std::holds_alternative<Slot>(m_assembly.joints[j]);
        }))
      note({"plan/slot-tape"});
    if (step.alongFold) note({"plan/along-fold"});
    if (step.before >= 0) note({"plan/before", step.before + 1});
  }

  void cautions(const WorkStep& step, StepWords& words) {
    const auto caution = [&](const char* key) {
      const bool first = m_told.insert(key).second;
      words.cautions.push_back(saySentence(Text(first ? key : std::string(key) + "/short")));
      if (first) words.newCautions.push_back(words.cautions.back());
    };
    if (step.kind == WorkKind::Cut || step.kind == WorkKind::Slice) caution("caution.knife");
    if (step.adhesive && step.kind != WorkKind::Wait) {
      if (factsOf(*step.adhesive).needsAir) caution("caution.air");
      if (!m_told.contains("caution.skin")) caution("caution.skin");
    }
    if (step.kind != WorkKind::Join) return;
    for (JointIndex j : step.joints) {
      if (std::holds_alternative<Band>(m_assembly.joints[j])) return caution("caution.band");
      if (std::holds_alternative<Pivot>(m_assembly.joints[j])) return caution("caution.pin");
    }
  }

  const WorkPlan& m_plan;
  const Design& m_design;
  const Assembly& m_assembly;
  LengthUnit m_unit;
  std::set<std::string> m_told;
};

} // namespace

std::string sayTime(double seconds) {
  const int minutes = static_cast<int>(std::lround(seconds / 60));
  if (minutes >= 90) return say(Text("plan.hours", minutes / 60, minutes % 60));
  if (seconds >= 90) return say(Text("plan.minutes", minutes));
  return say(Text("plan.seconds", static_cast<int>(std::lround(seconds))));
}

std::string sayAdhesive(Adhesive adhesive) {
  return say(Text(fmt::format("adhesive.{}", factsOf(adhesive).key)));
}

std::string sayChange(const WorkPlan& before, const WorkPlan& after) {
  std::map<JointIndex, const WorkStep*> was;
  for (const WorkStep& step : before.steps)
    if (step.kind == WorkKind::Join)
      for (JointIndex j : step.joints)
        was[j] = &step;
  int toShutting = 0, toMarks = 0, glued = 0, layers = 0;
  for (const WorkStep& step : after.steps)
    if (step.kind == WorkKind::Join)
      for (JointIndex j : step.joints) {
        if (!was.contains(j)) continue;
        const bool shut = step.press == PressWay::ByShutting,
                   shutBefore = was[j]->press == PressWay::ByShutting;
        toShutting += shut && !shutBefore, toMarks += !shut && shutBefore;
        glued += step.adhesive != was[j]->adhesive;
      }
  const auto dressing = [](const WorkPlan& plan) {
    std::vector<std::optional<Adhesive>> all;
    for (const WorkStep& step : plan.steps)
      if (step.kind == WorkKind::Dress) all.push_back(step.adhesive);
    return all;
  };
  const auto one = dressing(before), other = dressing(after);
  for (std::size_t k = 0; k < std::min(one.size(), other.size()); ++k)
    layers += one[k] != other[k];
  std::string text;
  const auto add = [&](const Text& part) {
    text += (text.empty() ? "" : "; ") + (text.empty() ? saySentence(part) : say(part));
  };
  if (toShutting > 0) add({"change.shut", toShutting});
  if (toMarks > 0) add({"change.marks", toMarks});
  if (glued > 0) add({"change.glued", glued});
  if (layers > 0) add({"change.layers", layers});
  const auto time = [](const WorkPlan& plan) {
    double sum = plan.hands_s();
    for (const WorkStep& step : plan.steps)
      if (step.kind == WorkKind::Wait) sum += step.waits_s;
    return sum;
  };
  if (before.steps.size() != after.steps.size() || std::abs(time(before) - time(after)) > 1)
    add({"change.sum", after.steps.size(), before.steps.size(),
         Text("as-it-is", sayTime(time(after))), Text("as-it-is", sayTime(time(before)))});
  return text;
}

const std::vector<std::string>& notesBesidePicture(const WorkStep& step, const StepWords& words) {
  static const std::vector<std::string> none;
  return step.kind == WorkKind::Pencil ? none : words.notes;
}

std::vector<StepWords> inWords(const WorkPlan& plan, const Design& design,
                               const Assembly& assembly) {
  return Wording(plan, design, assembly).run();
}

} // namespace hinge
