// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/json_text.h"
#include "cli/options.h"
#include "core/io/design_json.h"
#include "core/io/maker_ways.h"
#include "core/making/schedule.h"
#include "core/model/snapshot.h"
#include "core/structures/names.h"
#include "words/plan_words.h"
#include "words/words.h"
#include <fmt/format.h>

// The verb that plans the work.

namespace hinge {
namespace {

using Json = ReportJson;

/// The maker's ways that the options ask for.
Result<MakingWays> waysOf(const Options& o) {
  const auto kept = makersWays();
  if (!kept) return kept;
  MakingWays ways = *kept;
  const auto closing = closingFromKey(o.closing);
  if (!o.closing.empty() && !closing) return Error{"bench.choice", "--closing"};
  if (closing) ways.closing = *closing;
  for (const auto& [text, value, name] : {std::tuple{&o.glue, &ways.joints, "--glue"},
                                          std::tuple{&o.moving, &ways.moving, "--moving"},
                                          std::tuple{&o.layersBy, &ways.layers, "--layers"}}) {
    if (text->empty()) continue;
    const auto adhesive = adhesiveFromKey(*text);
    if (!adhesive) return Error{"bench.choice", name};
    *value = *adhesive;
  }
  return ways;
}

Json stepJson(const WorkStep& step, const StepWords& words, const Assembly& assembly,
              const KeyedVector<FaceIndex, Face>& faces, const Design& design) {
  Json out = {{"kind", keyOf(step.kind)}, {"text", words.what},
              {"notes", words.notes},     {"cautions", words.cautions},
              {"pieces", Json::array()},  {"joints", Json::array()},
              {"faces", Json::array()},   {"opening_deg", step.opening_deg}};
  for (PieceIndex p : step.pieces)
    out["pieces"].push_back(say(pieceName(design, assembly, p)));
  for (JointIndex j : step.joints)
    out["joints"].push_back(static_cast<int>(j.value));
  for (FaceIndex f : step.faces)
    out["faces"].push_back(faces[f].key);
  if (step.kind == WorkKind::Join) out["press"] = keyOf(step.press);
  if (step.adhesive) {
    out["adhesive"] = factsOf(*step.adhesive).key;
    out["glue_cm2"] = step.glue_cm2, out["tape_mm"] = step.tape_mm;
  }
  if (step.kind == WorkKind::Measure)
    out["number_mm"] = step.number_mm, out["within_mm"] = step.within_mm;
  out["before"] = step.before >= 0 ? Json(step.before + 1) : Json();
  out["hands_s"] = step.hands_s, out["waits_s"] = step.waits_s;
  return out;
}

ScheduleWays scheduleWays(const Options& o) {
  ScheduleWays ways;
  ways.copies = o.cards;
  if (o.cardByCard) ways.batching = Batching::CardByCard;
  return ways;
}

void printSchedule(const Schedule& schedule, const Design& design) {
  const auto time = [](double seconds) { return Text("as-it-is", sayTime(seconds)); };
  tell({"cli.plan-schedule", schedule.ready_s.size(), time(schedule.ready_s.front()),
        time(schedule.end_s), time(schedule.hands_s), schedule.toolChanges,
        Decimal{schedule.ratio(), 2}},
       design);
  for (const auto& [from, to] : schedule.breaks)
    tell({"cli.plan-break", time(from), time(to - from)}, design);
}

Json scheduleJson(const Schedule& schedule) {
  Json out = {{"copies", schedule.ready_s.size()},
              {"end_s", schedule.end_s},
              {"hands_s", schedule.hands_s},
              {"longest_s", schedule.longest_s},
              {"ratio", schedule.ratio()},
              {"tool_changes", schedule.toolChanges},
              {"ready_s", schedule.ready_s},
              {"breaks", Json::array()},
              {"work", Json::array()}};
  for (const auto& [from, to] : schedule.breaks)
    out["breaks"].push_back({from, to});
  for (const ScheduledWork& work : schedule.work)
    out["work"].push_back({{"copy", work.copy + 1},
                           {"step", work.step + 1},
                           {"from_s", work.from_s},
                           {"to_s", work.to_s},
                           {"free_s", work.free_s}});
  return out;
}

void printPlan(const WorkPlan& plan, const std::vector<StepWords>& words) {
  for (std::size_t k = 0; k < words.size(); ++k) {
    fmt::print("{:>3}. {}\n", k + 1, words[k].what);
    for (const std::string& note : words[k].notes)
      fmt::print("       {}\n", note);
    for (const std::string& caution : words[k].cautions)
      fmt::print("     ! {}\n", caution);
  }
  fmt::print("{}\n",
             say(Text("cli.plan-sum", plan.steps.size(), Text("as-it-is", sayTime(plan.hands_s())),
                      Decimal{plan.glue_cm2, 0}, Millimetres{std::ceil(plan.tape_mm)})));
}

} // namespace

int planVerb(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const auto ways = waysOf(o);
  if (!ways) return refuse(ways.error());
  const Snapshot snapshot(*d);
  const auto motion = snapshot.motion();
  if (!motion) return refuse(snapshot.possible().error(), d->settings.unit);
  const auto order = snapshot.order();
  if (!order) {
    fmt::print("   x {}\n", say("cli.no-order"));
    return kSpoiled;
  }
  const WorkPlan plan = workPlan(
      {*d, *motion, *order, *snapshot.faces(), *snapshot.dressed(), *snapshot.seen()}, *ways);
  const Assembly& assembly = motion->assembly();
  const auto words = inWords(plan, *d, assembly);
  if (o.json) {
    Json out = {{"steps", Json::array()},
                {"unreachable", plan.unreachable.size()},
                {"glue_cm2", plan.glue_cm2},
                {"tape_mm", plan.tape_mm},
                {"hands_s", plan.hands_s()}};
    for (std::size_t k = 0; k < words.size(); ++k)
      out["steps"].push_back(stepJson(plan.steps[k], words[k], assembly, *snapshot.faces(), *d));
    out["schedule"] = scheduleJson(scheduleOf(plan, scheduleWays(o)));
    fmt::print("{}", printed(out));
  } else {
    printPlan(plan, words);
    if (o.cards > 1) printSchedule(scheduleOf(plan, scheduleWays(o)), *d);
    for (const JointGroup& group : plan.unreachable)
      fmt::print("  x  {}\n", describe(group, *d, assembly));
  }
  return plan.unreachable.empty() ? kFine : kSpoiled;
}

} // namespace hinge
