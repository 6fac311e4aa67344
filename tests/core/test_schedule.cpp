// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/making/schedule.h"
#include <limits>
#endif

using namespace hinge;

// Schedules of small plans against times that were added up by hand.

namespace {

WorkStep step(WorkKind kind, std::vector<int> pieces, double hands_s, double waits_s = 0) {
  WorkStep made;
  made.kind = kind, made.hands_s = hands_s, made.waits_s = waits_s;
  for (int p : pieces)
    made.pieces.push_back(PieceIndex{p});
  if (kind == WorkKind::Join) made.adhesive = Adhesive::WetGlue;
  return made;
}

/// Two joints, of which the first sets for longer than all the rest takes.
WorkPlan smallPlan() {
  WorkPlan plan;
  plan.steps = {step(WorkKind::Ready, {}, 10),         step(WorkKind::Score, {0, 1}, 60),
                step(WorkKind::Cut, {0, 1}, 100),      step(WorkKind::Join, {0, 1}, 30, 600),
                step(WorkKind::Join, {2, 3}, 40, 300), step(WorkKind::Finish, {}, 5)};
  return plan;
}

ScheduleWays withoutBreaks(int copies, Batching batching) {
  ScheduleWays ways;
  ways.copies = copies, ways.batching = batching;
  ways.breakAfter_s = std::numeric_limits<double>::infinity();
  return ways;
}

struct Row {
  int copy;
  std::size_t step;
  double from_s, to_s, free_s;
};

void compare(const Schedule& schedule, const std::vector<Row>& expected) {
  QCOMPARE(schedule.work.size(), expected.size());
  for (std::size_t k = 0; k < expected.size(); ++k) {
    const ScheduledWork& is = schedule.work[k];
    const Row& want = expected[k];
    QVERIFY2(is.copy == want.copy && is.step == want.step && is.from_s == want.from_s &&
                 is.to_s == want.to_s && is.free_s == want.free_s,
             qPrintable(QStringLiteral("row %1: card %2 step %3 from %4 to %5 free %6")
                            .arg(k)
                            .arg(is.copy)
                            .arg(is.step)
                            .arg(is.from_s)
                            .arg(is.to_s)
                            .arg(is.free_s)));
  }
}

} // namespace

class TestSchedule : public QObject {
  Q_OBJECT
private slots:
  void oneCard() {
    const Schedule made = scheduleOf(smallPlan(), withoutBreaks(1, Batching::ByTool));
    compare(made, {{0, 0, 0, 10, 10},
                   {0, 1, 10, 70, 70},
                   {0, 2, 70, 190, 190}, // the knife is taken up
                   {0, 3, 190, 240, 840},
                   {0, 4, 240, 280, 580}, // other pieces: it waits for nothing
                   {0, 5, 840, 845, 845}});
    QCOMPARE(made.toolChanges, 2);
    QCOMPARE(made.hands_s, 285.0);
    QCOMPARE(made.end_s, 845.0);
    QCOMPARE(made.longest_s, 805.0); // with tools that lie at hand
    QCOMPARE(made.ratio(), 845.0 / 805.0);
    QCOMPARE(made.ready_s, std::vector<double>{845});
    QCOMPARE(made.breaks, (std::vector<std::pair<double, double>>{{280, 840}}));
  }

  void twoCardsOneAfterTheOther() {
    const Schedule made = scheduleOf(smallPlan(), withoutBreaks(2, Batching::CardByCard));
    compare(made, {{0, 0, 0, 10, 10},
                   {0, 1, 10, 70, 70},
                   {0, 2, 70, 190, 190},
                   {0, 3, 190, 240, 840},
                   {0, 4, 240, 280, 580},
                   {1, 0, 280, 290, 290}, // while the first card sets
                   {1, 1, 290, 370, 370},
                   {1, 2, 370, 490, 490},
                   {1, 3, 490, 540, 1140},
                   {1, 4, 540, 580, 880},
                   {0, 5, 840, 845, 845},
                   {1, 5, 1140, 1145, 1145}});
    QCOMPARE(made.toolChanges, 5);
    QCOMPARE(made.ready_s, (std::vector<double>{845, 1145}));
    QVERIFY(made.breaks.empty()); // 260 s and 295 s are too short for one
  }

  void twoCardsByTool() {
    const Schedule made = scheduleOf(smallPlan(), withoutBreaks(2, Batching::ByTool));
    compare(made, {{0, 0, 0, 10, 10},
                   {1, 0, 10, 20, 20},
                   {0, 1, 20, 80, 80},
                   {1, 1, 80, 140, 140},
                   {0, 2, 140, 260, 260},
                   {1, 2, 260, 360, 360},
                   {0, 3, 360, 410, 1010},
                   {1, 3, 410, 440, 1040}, // before the first card's next: more comes after it
                   {0, 4, 440, 480, 780},
                   {1, 4, 480, 520, 820},
                   {0, 5, 1010, 1015, 1015},
                   {1, 5, 1040, 1045, 1045}});
    QCOMPARE(made.toolChanges, 2);
    QCOMPARE(made.hands_s, 530.0);
    QCOMPARE(made.end_s, 1045.0);
  }

  void aClipIsWaitedFor() {
    ScheduleWays ways = withoutBreaks(1, Batching::ByTool);
    ways.clips = 1;
    const Schedule made = scheduleOf(smallPlan(), ways);
    QCOMPARE(made.work[4].from_s, 840.0);
    QCOMPARE(made.work[5].from_s, 1180.0);
    ways.clips = 2;
    QCOMPARE(scheduleOf(smallPlan(), ways).work[4].from_s, 240.0);
    QCOMPARE(made.longest_s, 805.0); // the bound knows no want of clips
  }

  void handsRestWhenTheyWereBusyForLong() {
    ScheduleWays ways;
    ways.breakAfter_s = 150, ways.break_s = 100;
    const Schedule made = scheduleOf(smallPlan(), ways);
    compare(made, {{0, 0, 0, 10, 10},
                   {0, 1, 10, 70, 70},
                   {0, 2, 70, 190, 190},
                   {0, 3, 290, 340, 940},
                   {0, 4, 340, 380, 680},
                   {0, 5, 940, 945, 945}});
    QCOMPARE(made.breaks, (std::vector<std::pair<double, double>>{{190, 290}, {380, 940}}));
    QCOMPARE(made.hands_s, 285.0);
  }

  void aStepOfWaitingIsNotCountedTwice() {
    WorkPlan plan;
    plan.steps = {step(WorkKind::Join, {0}, 30, 600), step(WorkKind::Wait, {0}, 0, 600),
                  step(WorkKind::Join, {0}, 10)};
    const Schedule made = scheduleOf(plan, withoutBreaks(1, Batching::ByTool));
    compare(made, {{0, 0, 0, 30, 630}, {0, 1, 630, 630, 630}, {0, 2, 630, 640, 640}});
    QCOMPARE(plan.hands_s(), 40.0);
  }

  void openingWaitsForAllThatSets() {
    WorkPlan plan;
    plan.steps = {step(WorkKind::Join, {0}, 30, 100), step(WorkKind::Measure, {5}, 10),
                  step(WorkKind::Open, {7}, 5)};
    const Schedule made = scheduleOf(plan, withoutBreaks(1, Batching::ByTool));
    QCOMPARE(made.work[1].from_s, 30.0);
    QCOMPARE(made.work[2].from_s, 130.0);
  }

  void nothingToDoIsNoSchedule() {
    QVERIFY(scheduleOf({}, {}).work.empty());
    QVERIFY(scheduleOf(smallPlan(), withoutBreaks(0, Batching::ByTool)).work.empty());
    QCOMPARE(Schedule().ratio(), 1.0);
  }
};

QTEST_APPLESS_MAIN(TestSchedule)
#include "test_schedule.moc"
