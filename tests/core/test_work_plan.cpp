// SPDX-License-Identifier: GPL-3.0-or-later
#include "strips.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/splices.h"
#include "core/io/maker_ways.h"
#include "core/io/text_file.h"
#include "core/making/access.h"
#include "core/making/placing_room.h"
#include "core/making/schedule.h"
#include "core/making/work_plan.h"
#include "core/model/snapshot.h"
#include "core/pieces/splicing.h"
#include "words/plan_words.h"
#include <QDir>
#include <QTemporaryDir>
#include <map>
#endif

using namespace hinge;
using namespace hinge::test;

// The plan of work: everything in exactly one step, in an order and a way that can be done.

namespace {

struct Planned {
  std::shared_ptr<const Snapshot> snapshot;
  std::shared_ptr<const Motion> motion;
  std::shared_ptr<const AssemblyOrder> order;
  WorkPlan plan;
  const Assembly& assembly() const { return motion->assembly(); }
};

Planned planned(const Design& design, const MakingWays& ways = {}) {
  Planned out;
  out.snapshot = std::make_shared<const Snapshot>(design);
  out.motion = out.snapshot->motion(), out.order = out.snapshot->order();
  if (!out.motion || !out.order) return out;
  out.plan = workPlan({out.snapshot->design(), *out.motion, *out.order, *out.snapshot->faces(),
                       *out.snapshot->dressed(), *out.snapshot->seen()},
                      ways);
  return out;
}

std::vector<PressWay> waysOf(const WorkPlan& plan) {
  std::vector<PressWay> all;
  for (const WorkStep& step : plan.steps)
    if (step.kind == WorkKind::Join) all.push_back(step.press);
  return all;
}

} // namespace

class TestWorkPlan : public QObject {
  Q_OBJECT
private slots:
  void everythingIsInOneStep_data() {
    QTest::addColumn<QString>("file");
    for (const QString& file : QDir(QStringLiteral(HINGE_SOURCE_DIR "/demo"))
                                   .entryList({QStringLiteral("*.hinge")}, QDir::Files))
      QTest::newRow(qPrintable(file)) << file;
  }
  void everythingIsInOneStep() {
    QFETCH(QString, file);
    const Design design = demoAsItComes(file.chopped(6).toStdString());
    const Planned made = planned(design);
    if (!made.order) return; // nothing can be put together there
    const Assembly& a = made.assembly();
    std::map<int, int> joints;
    std::map<int, int> faces;
    int last = -1;
    for (std::size_t k = 0; k < made.plan.steps.size(); ++k) {
      const WorkStep& step = made.plan.steps[k];
      if (step.kind == WorkKind::Join)
        for (JointIndex j : step.joints)
          ++joints[static_cast<int>(j.value)];
      if (step.kind == WorkKind::Dress)
        for (FaceIndex f : step.faces)
          ++faces[static_cast<int>(f.value)];
      if (step.kind == WorkKind::Join) last = static_cast<int>(k);
      // What must come before another step does.
      QVERIFY(step.before < 0 || step.before > static_cast<int>(k));
      if (step.before >= 0)
        QCOMPARE(made.plan.steps[static_cast<std::size_t>(step.before)].kind, WorkKind::Join);
      // A joint is tried and waited for beside it, not elsewhere.
      if (step.kind == WorkKind::DryFit)
        QVERIFY(made.plan.steps[k + 1].kind == WorkKind::Join &&
                made.plan.steps[k + 1].joints == step.joints);
      if (step.kind == WorkKind::Wait)
        QVERIFY(made.plan.steps[k - 1].kind == WorkKind::Join &&
                made.plan.steps[k - 1].joints == step.joints);
    }
    for (JointIndex j : a.joints.indices()) {
      const bool unreachable =
          std::ranges::any_of(made.plan.unreachable, [&](const JointGroup& group) {
            return std::ranges::count(group, j) > 0;
          });
      const int wanted = comesMade(a, a.joints[j]) || unreachable ? 0 : 1;
      QCOMPARE(joints[static_cast<int>(j.value)], wanted);
    }
    for (const DressedFace& wears : *made.snapshot->dressed()) {
      const bool bare = std::ranges::all_of(
          wears.layers, [](const CutLayer& layer) { return layer.parts.empty(); });
      QCOMPARE(faces[static_cast<int>(wears.face.value)], bare ? 0 : 1);
    }
    QCOMPARE(made.plan.steps.back().kind, WorkKind::Finish);
    QVERIFY(last < static_cast<int>(made.plan.steps.size()) - 1);
    const auto words = inWords(made.plan, design, a);
    QCOMPARE(words.size(), made.plan.steps.size());
    for (const StepWords& one : words)
      QVERIFY(!one.what.empty() && one.what.find('%') == std::string::npos);
  }

  void glueStaysClearOfFolds() {
    for (const char* name : {"canal-houses", "tea-chests", "ferry-pass", "tower", "tube-lantern"}) {
      const Design design = demoAsItComes(name);
      const Planned made = planned(design);
      const Assembly& a = made.assembly();
      int looked = 0;
      for (const WorkStep& step : made.plan.steps) {
        if (step.kind != WorkKind::Join || step.joints.size() != 1) continue;
        if (!std::holds_alternative<Glue>(a.joints[step.joints.front()])) continue;
        const auto& glue = std::get<Glue>(a.joints[step.joints.front()]);
        for (const Region& part : step.glueOn)
          for (const Vec2& corner : part.rim)
            for (const Fold& fold : a.folds)
              if (a.panels[fold.left].piece == a.panels[glue.tab].piece &&
                  !gluedOnBothSides(a, fold, a.panels[glue.host].piece)) {
                ++looked;
                QVERIFY2(distanceToSegment(corner, fold.from, fold.to) >
                             design.settings.foldClearance_mm - 0.01,
                         name);
              }
      }
      QVERIFY2(looked > 10, name);
    }
  }

  void schoolsGiveOtherPlansThatCanBeDone() {
    int different = 0;
    for (const char* name : {"canal-houses", "tea-chests", "night-market", "steps-in-the-fold",
                             "tower", "ferry-pass", "canal-frames", "lock-diorama"}) {
      const Design design = demoAsItComes(name);
      MakingWays marks;
      marks.closing = Closing::OnMarks;
      const Planned shut = planned(design), open = planned(design, marks);
      different += waysOf(shut.plan) != waysOf(open.plan) ? 1 : 0;
      for (const Planned* one : {&shut, &open}) {
        // Replayed: each joint can be made in the way that is said.
        const Assembly& a = one->assembly();
        Access access(*one->motion, displayOpening_rad(design.card, a));
        std::size_t number = 0;
        for (const WorkStep& step : one->plan.steps) {
          if (step.kind != WorkKind::Join) continue;
          const MakingStep& made = one->order->steps[number++];
          std::vector<const JointGroup*> groups;
          for (const JointGroup& group : made.joints)
            groups.push_back(&group);
          const auto press = step.press == PressWay::Openly     ? Access::Press::Openly
                             : step.press == PressWay::ByFinger ? Access::Press::ByFinger
                                                                : Access::Press::ByShutting;
          QVERIFY2(access.reaches(groups, press), name);
          QCOMPARE(step.opening_deg == 0, step.press == PressWay::ByShutting);
          for (const JointGroup& group : made.joints)
            access.set(group, true);
        }
        // On marks only what has no other way is made by shutting.
        if (one == &open)
          for (std::size_t k = 0; k < one->order->steps.size(); ++k)
            QCOMPARE(waysOf(open.plan)[k] == PressWay::ByShutting, one->order->steps[k].byShutting);
      }
    }
    QVERIFY2(different >= 5, qPrintable(QString::number(different)));
  }

  void whatIsPressedIsPressedAsLongAsItsMakerSays() {
    const Design design = demoAsItComes("canal-houses");
    MakingWays slow;
    slow.holds_s[slow.joints] = 900;
    const auto waits = [](const Planned& one) {
      std::vector<double> all;
      for (const WorkStep& step : one.plan.steps)
        if (step.kind == WorkKind::Wait) all.push_back(step.waits_s);
      return all;
    };
    const auto usual = waits(planned(design)), own = waits(planned(design, slow));
    QVERIFY(!usual.empty());
    QCOMPARE(own.size(), usual.size());
    for (std::size_t k = 0; k < own.size(); ++k)
      QCOMPARE(own[k], usual[k] == factsOf(slow.joints).holds_s ? 900 : usual[k]);
    // What holds at once is waited for nowhere.
    slow.holds_s[slow.joints] = 0, slow.holds_s[slow.layers] = 0;
    QVERIFY(waits(planned(design, slow)).empty());
  }
  void whoCutsFirstScoresAfterwards() {
    const Design design = demoAsItComes("canal-houses");
    MakingWays ways;
    const auto kinds = [&] {
      std::vector<WorkKind> all;
      for (const WorkStep& step : planned(design, ways).plan.steps)
        if (step.kind == WorkKind::Score || step.kind == WorkKind::Cut ||
            step.kind == WorkKind::Fold)
          all.push_back(step.kind);
      return all;
    };
    QVERIFY((kinds() == std::vector{WorkKind::Score, WorkKind::Cut, WorkKind::Fold}));
    ways.cutFirst = true;
    QVERIFY((kinds() == std::vector{WorkKind::Cut, WorkKind::Score, WorkKind::Fold}));
  }
  /// A strap round a bar that slides is pulled at by it, though it has glue alone.
  void guidesAreHeldByWhatHoldsWhatMoves() {
    const Planned made = planned(demoAsItComes("ferry-pass"));
    const Assembly& a = made.assembly();
    int straps = 0;
    for (const WorkStep& step : made.plan.steps)
      for (JointIndex j : step.joints)
        if (const auto* glue = std::get_if<Glue>(&a.joints[j]); glue && step.adhesive)
          for (const Feature& feature : a.pieces[a.panels[glue->tab].piece].features)
            if (std::holds_alternative<Strap>(feature)) {
              ++straps;
              QCOMPARE(*step.adhesive, MakingWays().moving);
            }
    QVERIFY(straps > 0);
  }

  void adhesivesAreDataAndAChoice() {
    const Design design = demoAsItComes("canal-houses");
    MakingWays tape;
    tape.joints = Adhesive::StrongTape, tape.layers = Adhesive::SolventGlue;
    const Planned glued = planned(design), taped = planned(design, tape);
    QVERIFY(glued.plan.tape_mm < taped.plan.tape_mm);
    QVERIFY(glued.plan.glue_cm2 > taped.plan.glue_cm2);
    const auto said = [&](const Planned& one) {
      std::string all;
      for (const StepWords& step : inWords(one.plan, design, one.assembly()))
        for (const std::string& caution : step.cautions)
          all += caution + "\n";
      return all;
    };
    QVERIFY(said(glued).find("no flame") == std::string::npos);
    QVERIFY(said(taped).find("data sheet") != std::string::npos);
    // In full once, short later.
    const std::string cautions = said(taped);
    QCOMPARE(cautions.find("data sheet"), cautions.rfind("data sheet"));
    QVERIFY(cautions.find("Air, no flame") != std::string::npos);
    for (const AdhesiveFacts& facts : knownAdhesives()) {
      QCOMPARE(adhesiveFromKey(facts.key), std::optional(facts.adhesive));
      QVERIFY(facts.byLength ? facts.strip_mm > 0 : facts.grams_cm2 > 0);
      QVERIFY(!sayAdhesive(facts.adhesive).empty());
    }
    QVERIFY(!adhesiveFromKey("spit"));
    for (Closing closing : {Closing::ShutOnIt, Closing::OnMarks})
      QCOMPARE(closingFromKey(keyOf(closing)), std::optional(closing));
  }

  void waysAreKept() {
    QTemporaryDir folder;
    qputenv("XDG_DATA_HOME", folder.path().toUtf8());
    QVERIFY(makersWays() && *makersWays() == MakingWays());
    MakingWays ways;
    ways.closing = Closing::OnMarks, ways.moving = Adhesive::SolventGlue;
    QVERIFY(keepWays(ways));
    QVERIFY(makersWays() && *makersWays() == ways);
    QVERIFY(writeFile(makersWaysPath(), R"({"format": "hinge-lantern-ways", "joints": "spit"})"));
    QCOMPARE(makersWays().error().code(), std::string("bench.choice"));
    QVERIFY(writeFile(makersWaysPath(), "[]"));
    QCOMPARE(makersWays().error().code(), std::string("file.format"));
  }

  void marksLieUnderWhatIsGluedThere() {
    MakingWays marks;
    marks.closing = Closing::OnMarks;
    const Design design = demoAsItComes("canal-houses");
    const Planned made = planned(design, marks);
    const Assembly& a = made.assembly();
    const auto step = std::ranges::find(made.plan.steps, WorkKind::Pencil, &WorkStep::kind);
    QVERIFY(step != made.plan.steps.end() && step->points.size() > 4);
    for (const PencilPoint& point : step->points) {
      const Vec2 at = point.from_mm + boundsOf(a.panels[point.panel].outline).low;
      bool covered = false;
      for (const auto& [j, glue] : a.every<Glue>())
        if (glue.host == point.panel)
          for (const Region& part : gluedOf(a, glue)) {
            const Box2 box = boundsOf(mapped(part, glue.tabToHost));
            covered = covered || ((at - box.low).minCoeff() > 0 && (box.high - at).minCoeff() > 0);
          }
      QVERIFY(covered);
    }
    // Fewer are needed when the card is shut on what closes.
    const Planned shut = planned(design);
    const auto fewer = std::ranges::find(shut.plan.steps, WorkKind::Pencil, &WorkStep::kind);
    QVERIFY(fewer == shut.plan.steps.end() || fewer->points.size() < step->points.size());
  }

  /// Two sheets that are glued to one another on both sides of a fold never part there.
  void glueGoesUpToFoldsThatTurnTogether() {
    const Design design = demoAsItComes("tube-lantern");
    const Planned made = planned(design);
    const Assembly& a = made.assembly();
    double nearest = 1e9;
    for (const WorkStep& step : made.plan.steps) {
      if (step.kind != WorkKind::Join) continue;
      const auto* glue = std::get_if<Glue>(&a.joints[step.joints.front()]);
      if (!glue) continue;
      for (const Fold& fold : a.folds)
        if (gluedOnBothSides(a, fold, a.panels[glue->host].piece))
          for (const Region& part : step.glueOn)
            for (const Vec2& corner : part.rim)
              nearest = std::min(nearest, distanceToSegment(corner, fold.from, fold.to));
    }
    QVERIFY(nearest < 0.1);
  }

  /// On marks both sides are fixed: half a millimetre in the ring is what paper takes up. A page
  /// that is shut on it takes it wherever it is, as long as it stays within the card.
  void howNearATabMustBeIsWorkedOut() {
    Design design = card();
    add(design, "vfold", "gutter");
    const auto assembly = assemble(design);
    const Motion motion = Motion::trace(assembly);
    for (const auto& [j, glue] : assembly->every<Glue>()) {
      const double fixed = placingRoom_mm(motion, j, Vec2(1, 0), false),
                   taken = placingRoom_mm(motion, j, Vec2(1, 0), true);
      QVERIFY_NEAR(fixed, kTakenUp_mm, 0.3);
      QVERIFY(taken > fixed);
      QCOMPARE(taken, kMostRoom_mm);
    }
    // Near the edge of the card there is less room.
    const Pose shut = motion.shutPose();
    double farthest = 0;
    for (PanelIndex p : assembly->panels.indices())
      if (assembly->panels[p].owner)
        for (const Vec2& corner : assembly->panels[p].outline.rim)
          farthest = std::max(
              farthest, (shut.panels[assembly->root].inverse() * (shut.panels[p] * lift(corner)))
                            .cwiseAbs()
                            .x());
    Design edge = design;
    edge.card.width_mm = farthest + 1;
    const Motion near = Motion::trace(assemble(edge));
    for (const auto& [j, glue] : near.assembly().every<Glue>())
      QVERIFY_NEAR(placingRoom_mm(near, j, Vec2(1, 0), true), 1, 0.05);
  }

  void whatEndsOnAFoldIsLinedUpAgainstIt() {
    int along = 0, apart = 0;
    for (const char* name : {"tube-lantern", "photo-stand", "pop-up-lantern", "canal-houses"}) {
      const Planned made = planned(demoAsItComes(name));
      const Assembly& a = made.assembly();
      for (const WorkStep& step : made.plan.steps) {
        const auto* glue = step.kind == WorkKind::Join && step.joints.size() == 1
                               ? std::get_if<Glue>(&a.joints[step.joints.front()])
                               : nullptr;
        if (!glue) continue;
        double second = 1e9, nearest = 1e9; // the two corners that are nearest to one fold
        for (FoldIndex f : a.foldsOf(glue->host)) {
          std::vector<double> far;
          for (const Region& part : gluedOf(a, *glue))
            for (const Vec2& corner : mapped(part, glue->tabToHost).rim)
              far.push_back(distanceToSegment(corner, a.folds[f].from, a.folds[f].to));
          std::ranges::sort(far);
          if (far.size() > 1 && far[1] < second) second = far[1], nearest = far[0];
        }
        QVERIFY(nearest <= second);
        if (step.alongFold) QVERIFY(second < 0.5);
        if (second > 0.6) QVERIFY(!step.alongFold);
        (step.alongFold ? along : apart) += 1;
      }
    }
    QVERIFY2(along > 0 && apart > 0, qPrintable(QString::number(along)));
  }

  void stripsAreSlicedFromOneSheet() {
    Design design = card(120, 150);
    PieceWork strip = plainStrip(60, 10);
    for (double x : {8.0, 30.0, 52.0})
      strip.lines.push_back(
          {x == 30 ? WorkLine::Kind::Mountain : WorkLine::Kind::Valley, {x, 0}, {x, 10}});
    for (int k = 0; k < 3; ++k) {
      strip.joints = {{{4, 5}, "card/page-a", {20 + 22.0 * k, 60}, given::Glue()}};
      design = addStructure(design, "piece", "gutter", {{"position", 0.0}}, strip)->design;
    }
    const auto slicesIn = [](const Design& of) {
      std::vector<std::size_t> all;
      for (const WorkStep& step : planned(of).plan.steps)
        if (step.kind == WorkKind::Slice) all.push_back(step.pieces.size());
      return all;
    };
    QVERIFY(slicesIn(design).empty());
    design.settings.slice = true;
    QCOMPARE(slicesIn(design), std::vector<std::size_t>{3});
  }

  void whatIsMeasuredIsOnTheCard() {
    const Design design = demoAsItComes("canal-houses");
    const Planned made = planned(design);
    int measured = 0;
    for (const WorkStep& step : made.plan.steps) {
      if (step.kind != WorkKind::Measure) continue;
      ++measured;
      QVERIFY(step.number_mm > 0.5 && step.number_mm < design.card.width_mm);
      QVERIFY(step.within_mm >= kLeastRoom_mm && step.within_mm <= kMostRoom_mm);
    }
    QVERIFY(measured > 0);
  }

  void manyCardsAreScheduled_data() {
    QTest::addColumn<int>("copies");
    QTest::addColumn<bool>("byTool");
    for (int copies : {1, 5, 40})
      for (bool byTool : {true, false})
        QTest::addRow("%d%s", copies, byTool ? " by tool" : " card by card") << copies << byTool;
  }
  void manyCardsAreScheduled() {
    QFETCH(int, copies);
    QFETCH(bool, byTool);
    for (const char* name : {"canal-houses", "ferry-pass"}) {
      const Planned made = planned(demoAsItComes(name));
      ScheduleWays ways;
      ways.copies = copies;
      ways.batching = byTool ? Batching::ByTool : Batching::CardByCard;
      const Schedule schedule = scheduleOf(made.plan, ways);
      QCOMPARE(schedule.work.size(), made.plan.steps.size() * static_cast<std::size_t>(copies));
      // One pair of hands; every card's steps in their order; what sets is left alone until then.
      std::vector<std::size_t> next(static_cast<std::size_t>(copies), 0);
      std::vector<std::vector<std::pair<PieceIndex, double>>> sets(
          static_cast<std::size_t>(copies));
      double now = 0, busy = 0, last = 0;
      std::vector<std::pair<double, double>> clips;
      for (const ScheduledWork& work : schedule.work) {
        const auto copy = static_cast<std::size_t>(work.copy);
        const WorkStep& step = made.plan.steps[work.step];
        QVERIFY(work.from_s >= now - 1e-9 && work.to_s >= work.from_s + step.hands_s - 1e-9);
        QCOMPARE(work.step, next[copy]++);
        for (const auto& [piece, until] : sets[copy])
          QVERIFY(!std::ranges::count(step.pieces, piece) || work.from_s >= until - 1e-9);
        if (work.free_s > work.to_s) {
          for (PieceIndex p : step.pieces)
            sets[copy].push_back({p, work.free_s});
          clips.push_back({work.to_s, work.free_s});
        }
        now = work.to_s, busy += work.to_s - work.from_s, last = std::max(last, work.free_s);
      }
      for (const auto& [from, to] : clips)
        QVERIFY(std::ranges::count_if(clips, [f = from](const auto& other) {
                  return other.first <= f && f < other.second;
                }) <= ways.clips);
      for (const auto& [from, to] : schedule.breaks)
        for (const ScheduledWork& work : schedule.work)
          QVERIFY(work.to_s <= from + 1e-9 || work.from_s >= to - 1e-9);
      QVERIFY(std::abs(busy - schedule.hands_s) < 1e-6 && std::abs(last - schedule.end_s) < 1e-6);
      QVERIFY(schedule.ratio() >= 1 - 1e-9);
      qInfo("%s, %d %s: %.0f minutes, %.3f of the bound, %d tool changes", name, copies,
            byTool ? "by tool" : "card by card", schedule.end_s / 60, schedule.ratio(),
            schedule.toolChanges);
      // Breaks are no part of the bound: 5 minutes in 45.
      if (byTool) QVERIFY2(schedule.ratio() < 1.25, qPrintable(QString::number(schedule.ratio())));
    }
  }

  /// Two tabs of one piece on one page, on which the card is shut: both have their glue before.
  void tabsBesideOneAnotherAreGluedInOneGo() {
    Design design = card(150, 200);
    PieceWork work;
    work.outline = {{0, 0},    {48, 0},   {48, 40},  {56, 40},  {56, 60},  {48, 60},
                    {48, 100}, {56, 100}, {56, 120}, {48, 120}, {48, 160}, {0, 160}};
    const auto score = [&](const Vec2& from, const Vec2& to) {
      work.lines.push_back({WorkLine::Kind::Mountain, from, to});
    };
    score({8, 0}, {8, 160}), score({28, 0}, {28, 160});
    score({48, 40}, {48, 60}), score({48, 100}, {48, 120});
    work.joints = {onPage('a', design, {4, 80}, 100, 16, true),
                   onPage('b', design, {52, 50}, 70, 16, true),
                   onPage('b', design, {52, 110}, 130, 16, true)};
    const auto added = addStructure(design, "piece", "gutter", {{"position", 0.0}}, work);
    QVERIFY2(added.ok(), added ? "" : say(added.error()).c_str());
    MakingWays ways;
    ways.closing = Closing::ShutOnIt;
    const Planned made = planned(added->design, ways);
    std::vector<std::size_t> joints;
    for (const WorkStep& step : made.plan.steps)
      if (step.kind == WorkKind::Join) joints.push_back(step.joints.size());
    QCOMPARE(joints, (std::vector<std::size_t>{1, 2}));
  }

  /// What closes a tube is glued while it lies flat by itself.
  void tubesAreClosedFirst() {
    const Planned made = planned(demo("tube-lantern"));
    const auto ofLantern = std::ranges::find_if(made.plan.steps, [&](const WorkStep& step) {
      return step.kind == WorkKind::Join &&
             made.assembly().ownerOf(made.assembly().joints[step.joints.front()]) == StructureId{1};
    });
    QVERIFY(ofLantern != made.plan.steps.end());
    QCOMPARE(ofLantern->pieces.size(), std::size_t(1)); // to itself
    QVERIFY(!ofLantern->onCard);
  }

  void partsAreJoinedFirst() {
    Design design = card();
    design.card.width_mm = 240;
    const auto next = withSplice(design, {"card/page-a", 100, false, 12, false});
    QVERIFY(next);
    const Planned made = planned(*next);
    const auto step = std::ranges::find(made.plan.steps, WorkKind::Splice, &WorkStep::kind);
    QVERIFY(step != made.plan.steps.end());
    QVERIFY(step->glue_cm2 > 10 && step->adhesive == Adhesive::WetGlue);
    QCOMPARE(std::ranges::count(made.plan.steps, WorkKind::Splice, &WorkStep::kind), 1);
  }
};

QTEST_GUILESS_MAIN(TestWorkPlan)
#include "test_work_plan.moc"
