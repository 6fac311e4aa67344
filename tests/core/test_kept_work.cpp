// SPDX-License-Identifier: GPL-3.0-or-later
#include "kept.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/making/bench_work.h"
#include "core/making/folded_wrong.h"
#include "core/making/rehearsal.h"
#include "core/making/schedule.h"
#include "core/model/planned.h"
#include "core/production/spliced.h"
#include "core/states/ties.h"
#endif

using namespace hinge;
using namespace hinge::test;

// What the work on the cards that come with the program comes to, done in several ways: see kept.h.

namespace {

double one(const std::vector<std::string>& all) {
  double sum = 0;
  for (std::size_t k = 0; k < all.size(); ++k)
    sum += at(k) * hinge::test::one(all[k]);
  return sum;
}

void addSteps(const PlannedWork& work, Numbers& n) {
  n["hands"] = work.plan.hands_s(), n["glue"] = work.plan.glue_cm2 + work.plan.tape_mm;
  n["names"] = one(stepNames(work.plan, work.assembly()));
  for (std::size_t k = 0; k < work.plan.steps.size(); ++k) {
    const WorkStep& step = work.plan.steps[k];
    n["steps"] += at(k) * (1 + static_cast<int>(step.kind) + 0.1 * static_cast<int>(step.press));
    n["times"] += at(k) * step.hands_s + step.waits_s + step.before;
    n["ways"] += at(k) * (step.opening_deg + step.onCard + 1.7 * step.alongFold);
    for (const Region& glue : step.glueOn)
      n["glued"] += hinge::test::one(glue);
    for (const PencilPoint& point : step.points)
      n["pencil"] += hinge::test::one(point.from_mm) + number(point.panel);
  }
  for (const std::size_t step : trickiestJoints(work.plan, work.assembly(), 5))
    n["trickiest"] = 3 * n["trickiest"] + static_cast<double>(step);
}

void addSchedules(const WorkPlan& plan, Numbers& n) {
  for (const Batching batching : {Batching::CardByCard, Batching::ByTool})
    for (const int clips : {1, 4}) {
      ScheduleWays ways;
      ways.copies = 3, ways.batching = batching, ways.clips = clips;
      ways.breakAfter_s = 20 * 60, ways.break_s = 4 * 60;
      const Schedule schedule = scheduleOf(plan, ways);
      const std::string name = fmt::format("schedule {} {}", static_cast<int>(batching), clips);
      for (std::size_t k = 0; k < schedule.work.size(); ++k) {
        const ScheduledWork& work = schedule.work[k];
        n[name] += at(k) * (work.from_s + 1.7 * work.to_s + 2.3 * work.free_s + work.copy) +
                   static_cast<double>(work.step);
      }
      for (const auto& [from, to] : schedule.breaks)
        n[name + " breaks"] += from + 1.7 * to;
      for (std::size_t k = 0; k < schedule.ready_s.size(); ++k)
        n[name + " ready"] += at(k) * schedule.ready_s[k];
      n[name + " ratio"] = schedule.ratio() + schedule.end_s + schedule.toolChanges;
    }
}

/// A day at the bench on which something of everything happens.
void addBenchWork(const PlannedWork& work, Numbers& n) {
  double now = 1000;
  std::vector<int> parts(work.plan.steps.size());
  for (std::size_t k = 0; k < parts.size(); ++k)
    parts[k] = 1 + static_cast<int>(k % 3);
  BenchWork bench(work.plan, work.assembly(), parts, {}, now);
  for (std::size_t k = 0; k < 2 * parts.size() + 30; ++k) {
    now += 7 + 31 * static_cast<double>(k % 5);
    if (k % 11 == 5)
      bench.back(now);
    else if (k % 17 == 9)
      bench.goTo((k * 7) % bench.steps(), now);
    else if (k % 13 == 7)
      for (const PieceIndex piece : bench.wrong("torn", now))
        n["cut again"] += at(k) * number(piece);
    else
      bench.next(now);
    if (work.plan.steps[bench.current()].kind == WorkKind::Measure)
      n["near"] += at(k) * bench.measure(work.plan.steps[bench.current()].number_mm + 0.3, now);
    n["at the bench"] += at(k) * (static_cast<double>(bench.current()) + 0.1 * bench.part()) +
                         static_cast<double>(bench.doneCount()) + 0.3 * bench.finished();
    n["setting"] += at(k) * bench.setting_s(now);
    for (const auto& running : bench.running(now))
      n["running"] += at(k) * static_cast<double>(running.step) + running.left_s;
    for (const std::size_t ended : bench.ended(now))
      n["ended"] += at(k) * static_cast<double>(ended);
  }
  n["record"] = one(bench.record().done);
  for (const WorkRecord::Took& took : bench.record().times)
    n["took"] += took.planned_s + 1.7 * took.took_s + 1e-3 * hinge::test::one(took.step);
}

/// A rehearsal in which every third answer is wrong.
void addRehearsal(const PlannedWork& work, Numbers& n) {
  if (!work.motion->shuts()) return;
  Rehearsal rehearsal(work.plan, work.assembly(), work.motion->shutPose());
  for (std::size_t k = 0; k < 90 && rehearsal.ofAll() > 0 && !rehearsal.over(); ++k) {
    const RehearsalTask task = rehearsal.task();
    const int choices =
        task.kind == RehearsalTask::Kind::NextJoint ? static_cast<int>(task.choices.size()) : 2;
    int right = 0, wrong = -1;
    for (int answer = 0; answer < choices; ++answer)
      (rehearsal.isRight(answer) ? right : wrong) = answer;
    n["tasks"] += at(k) * (static_cast<int>(task.kind) + 0.1 * choices + 0.01 * right);
    n["built"] += at(k) * static_cast<double>(rehearsal.builtUpTo());
    if (wrong >= 0 && task.kind != RehearsalTask::Kind::FoldSense) {
      const Misstep misstep = rehearsal.misstep(wrong);
      n["missteps"] += at(k) * (static_cast<double>(misstep.outOfReach) + misstep.off_mm);
    }
    rehearsal.answer(k % 3 == 2 && k < 40 && wrong >= 0 ? wrong : right, k % 7 == 2);
    n["answers"] += at(k) * (rehearsal.rights() + 1.7 * rehearsal.wrongs() +
                             2.3 * rehearsal.clean() + static_cast<double>(rehearsal.left()));
  }
}

/// What comes of some of the folds when they are folded to the other side. What hits is left out:
/// where paper only touches, a hair decides whether that works.
void addFoldedWrong(const PlannedWork& work, Numbers& n) {
  const auto& folds = work.assembly().folds;
  for (std::size_t k = 2; k < folds.size() && k < 30; k += 4)
    if (const auto came = foldedWrong(work.assembly(), FoldIndex(k));
        came && (came->gap_mm > 0 || came->what == FoldedWrong::What::Jams))
      n[fmt::format("folded wrong {}", static_cast<int>(came->what))] +=
          at(k) * (1 + came->at_rad + came->gap_mm);
}

/// How the pieces are parted when the sheets at hand are too small for them.
void addSplices(Design design, const Vec2& sheet, Numbers& n) {
  for (Paper& paper : design.papers)
    paper.sheets = {{sheet.x(), sheet.y(), {}}};
  design.splices.clear();
  const Snapshot snapshot(design);
  const auto proposals = proposedSplices(design, **snapshot.assembly(), *snapshot.flatPieces(),
                                         *snapshot.faces(), *snapshot.seen(), *snapshot.laid(), 5);
  const std::string name = fmt::format("sheets of {:.0f} mm: ", sheet.x());
  for (const SpliceProposal& proposal : proposals) {
    n[name + "seen"] += proposal.seen + proposal.tabHidden;
    n[name + "spared"] += proposal.spared_width_mm + 1.7 * proposal.spared_height_mm;
    for (const Splice& splice : proposal.splices)
      n[name + "parted"] +=
          number(proposal.piece) * (splice.at_mm + 0.01 * hinge::test::one(splice.panel));
    if (proposal.splices.empty()) n[name + "whole"] += number(proposal.piece);
  }
  design.splices = splicesOf(proposals);
  const auto whole = Snapshot(design).flatPieces();
  for (const FlatPiece& piece : *whole)
    for (const FlatPiece& part : cutParts(piece, **snapshot.assembly(), design.splices))
      for (const FlatLine& line : part.lines)
        for (std::size_t k = 0; k < line.corners.size(); ++k)
          n[name + "lines"] += at(k) * hinge::test::one(line.corners[k]) + part.part;
}

void addTies(const PlannedWork& work, Numbers& n) {
  for (const Joint& joint : work.assembly().joints)
    if (const Tie* tie = tieOf(joint)) {
      const TieTravel way = travelOf(*tie, *work.motion, 0.8 * work.motion->high_rad());
      n["ties"] += way.known + way.shut_mm + 1.7 * way.shown_mm + 2.3 * way.shortest_mm +
                   2.9 * way.longest_mm;
      n["taut"] += way.longest_rad + way.tautFrom_rad + 1.7 * way.tautTo_rad;
    }
}

Numbers numbersOf(const Design& design) {
  Numbers all;
  const auto snapshot = std::make_shared<const Snapshot>(design);
  const MakingWays others[] = {
      {},
      {Closing::OnMarks, Adhesive::StrongTape, Adhesive::WetGlue, Adhesive::Pads},
      {Closing::ShutOnIt, Adhesive::Pads, Adhesive::SolventGlue, Adhesive::WetGlue}};
  for (std::size_t k = 0; k < std::size(others); ++k) {
    const auto work = planWork(snapshot, others[k]);
    if (!work) continue;
    Numbers n;
    addSteps(*work, n);
    addSchedules(work->plan, n);
    addBenchWork(*work, n);
    if (k == 0) addRehearsal(*work, n), addTies(*work, n), addFoldedWrong(*work, n);
    for (const auto& [key, value] : n)
      all[fmt::format("{} {}", k, key)] = value;
  }
  addSplices(design, {150, 110}, all);
  addSplices(design, {210, 140}, all);
  return all;
}

} // namespace

class TestKeptWork : public KeptTest {
  Q_OBJECT
public:
  TestKeptWork() : KeptTest("kept_work.json") {}

private slots:
  void plansAreWhatTheyWere_data() { rowsOfDemos(); }
  void plansAreWhatTheyWere() {
    QFETCH(QString, name);
    compare(name.toStdString(), numbersOf(demoAsItComes(name.toStdString())));
  }
};

QTEST_GUILESS_MAIN(TestKeptWork)
#include "test_kept_work.moc"
