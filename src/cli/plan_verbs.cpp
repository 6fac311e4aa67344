// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/application.h"
#include "cli/json_text.h"
#include "cli/options.h"
#include "core/io/design_json.h"
#include "core/io/maker_bench.h"
#include "core/io/maker_ways.h"
#include "core/io/text_file.h"
#include "core/io/work_record_json.h"
#include "core/making/schedule.h"
#include "core/model/planned.h"
#include "core/structures/names.h"
#include "core/units/duration.h"
#include "render/booklet.h"
#include "render/picture.h"
#include "render/step_picture.h"
#include "words/plan_words.h"
#include "words/words.h"
#include <fmt/format.h>

// The verbs that plan the work and show it.

namespace hinge {
namespace {

using Json = ReportJson;

constexpr QSize kPngSize(1200, 900), kSvgSize(800, 600);

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
  for (const std::string& said : o.drying) {
    const auto equals = std::min(said.find('='), said.size());
    const auto adhesive = adhesiveFromKey(said.substr(0, equals));
    if (!adhesive) {
      std::vector<std::string> known;
      for (const AdhesiveFacts& facts : knownAdhesives())
        known.push_back(std::string(facts.key));
      return Error{{"making.no-adhesive", said.substr(0, equals), listed(known)}, "--drying"};
    }
    if (equals == said.size()) return Error{{"making.no-time", said}, "--drying " + said};
    const auto seconds = parseDuration_s(said.substr(equals + 1));
    if (!seconds) return seconds.error();
    if (!(*seconds >= 0 && *seconds <= kLongestPressed_s))
      return Error{"making.pressed", "--drying " + said};
    ways.holds_s[*adhesive] = *seconds;
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

void printStep(std::size_t number, const StepWords& words) {
  fmt::print("{:>3}. {}\n", number + 1, words.what);
  for (const std::string& note : words.notes)
    fmt::print("       {}\n", note);
  for (const std::string& caution : words.cautions)
    fmt::print("     ! {}\n", caution);
}

void printPlan(const WorkPlan& plan, const std::vector<StepWords>& words, LengthUnit unit) {
  for (std::size_t k = 0; k < words.size(); ++k)
    printStep(k, words[k]);
  fmt::print("{}\n",
             say(Text("cli.plan-sum", plan.steps.size(), Text("as-it-is", sayTime(plan.hands_s())),
                      SquareMillimetres{100 * plan.glue_cm2}, OffTheRoll{plan.tape_mm}),
                 unit));
}

} // namespace

namespace {

/// Calls `use` with the planned work, or says why there is none.
template <class Use> int withPlan(const Options& o, const Use& use) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const auto ways = waysOf(o);
  if (!ways) return refuse(ways.error());
  const auto snapshot = std::make_shared<const Snapshot>(std::move(d).value());
  if (const auto possible = snapshot->possible(); !possible)
    return refuse(possible.error(), snapshot->design().settings.unit);
  const auto own = makersTimes();
  if (!own) return refuse(own.error());
  const auto work = planWork(snapshot, *ways, *own);
  if (work) return use(work);
  fmt::print("   x {}\n", say("cli.no-order"));
  return kSpoiled;
}

void printPlanJson(const Options& o, const PlannedWork& work, const std::vector<StepWords>& words) {
  const WorkPlan& plan = work.plan;
  Json out = {{"steps", Json::array()},
              {"unreachable", plan.unreachable.size()},
              {"glue_cm2", plan.glue_cm2},
              {"tape_mm", plan.tape_mm},
              {"hands_s", plan.hands_s()}};
  for (std::size_t k = 0; k < words.size(); ++k)
    out["steps"].push_back(
        stepJson(plan.steps[k], words[k], work.assembly(), *work.snapshot->faces(), work.design()));
  out["schedule"] = scheduleJson(scheduleOf(plan, scheduleWays(o)));
  fmt::print("{}", printed(out));
}

Result<void> writeStep(const Options& o, const StepPainter& painter, std::size_t step,
                       const StepWords& words) {
  std::optional<double> progress;
  if (!o.progress.empty()) {
    const auto number = parseNumber(o.progress, 0, 1, "--progress");
    if (!number) return number.error();
    progress = *number;
  }
  if (o.picture.ends_with(".svg")) {
    const QString title = QString::fromStdString(words.what);
    return writeOutput(o.picture, stepSvg(painter, step, kSvgSize, title, progress).toStdString(),
                       o.replaces());
  }
  if (o.picture.ends_with(".png"))
    return writePicture(stepImage(painter, step, kPngSize, progress), o.picture, o.replaces());
  return Error{"plan.picture-format", o.picture};
}

} // namespace

int planVerb(const Options& o) {
  return withPlan(o, [&](const std::shared_ptr<const PlannedWork>& work) -> int {
    const WorkPlan& plan = work->plan;
    const auto words = inWords(plan, work->design(), work->assembly());
    if (o.json) {
      printPlanJson(o, *work, words);
    } else {
      printPlan(plan, words, work->design().settings.unit);
      if (o.cards > 1) printSchedule(scheduleOf(plan, scheduleWays(o)), work->design());
      for (const JointGroup& group : plan.unreachable)
        fmt::print("  x  {}\n", describe(group, work->design(), work->assembly()));
    }
    return plan.unreachable.empty() ? kFine : kSpoiled;
  });
}

int stepVerb(const Options& o) {
  return withPlan(o, [&](const std::shared_ptr<const PlannedWork>& work) -> int {
    const std::size_t count = work->plan.steps.size();
    if (o.number < 1 || static_cast<std::size_t>(o.number) > count)
      return refuse({{"plan.no-step", count, o.number}, o.file});
    const auto step = static_cast<std::size_t>(o.number - 1);
    const auto words = inWords(work->plan, work->design(), work->assembly());
    if (!o.picture.empty()) {
      Application::paint();
      if (const auto done = writeStep(o, StepPainter(work), step, words[step]); !done)
        return refuse(done.error());
    }
    if (o.json)
      fmt::print("{}", printed(stepJson(work->plan.steps[step], words[step], work->assembly(),
                                        *work->snapshot->faces(), work->design())));
    else
      printStep(step, words[step]);
    return kFine;
  });
}

int bookletVerb(const Options& o) {
  return withPlan(o, [&](const std::shared_ptr<const PlannedWork>& work) -> int {
    const auto bench = makersBench();
    if (!bench) return refuse(bench.error());
    BookletWishes wishes;
    wishes.stapled = o.stapled, wishes.templates = !o.bare;
    if (o.page == "half-letter") wishes.page_mm = Vec2(5.5, 8.5) * kMillimetresPerInch;
    Application::paint();
    const StepPainter painter(work);
    const bool html = o.out.ends_with(".html") || o.out.ends_with(".htm");
    if (!html && !o.out.ends_with(".pdf")) return refuse({"booklet.format", o.out});
    const auto done =
        html ? writeBookletHtml(*work, painter, *bench, o.out, {}, {}, o.replaces())
             : writeBooklet(*work, painter, *bench, o.out, wishes, {}, {}, o.replaces());
    return done ? static_cast<int>(kFine) : refuse(done.error());
  });
}

} // namespace hinge
