// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/edits.h"
#include "core/pieces/pocket.h"
#include "core/pieces/sheet_words.h"
#include "core/states/lift.h"
#endif

using namespace hinge;
using namespace hinge::test;

// What turns on pins and runs in slides: how much play lets it move, in which layer it lies, and by
// which steps a hand moves it.

namespace {

PieceWork workOf(std::initializer_list<const char*> sentences) {
  SheetInWork made{{}, false, {}};
  for (const char* sentence : sentences) {
    auto next = workedBy(made, sentence, LengthUnit::Millimetre);
    if (!next) qFatal("%s", say(next.error()).c_str());
    made = std::move(next).value();
  }
  return made.work;
}

Design withPiece(const Design& on, const char* seat, std::initializer_list<const char*> sentences) {
  const auto added = addStructure(on, "piece", seat, {{"position", 0.0}}, workOf(sentences));
  if (!added) qFatal("%s", say(added.error()).c_str());
  return added->design;
}

/// The boatmen's two arms, 40 apart, with a bar across whose holes are a little farther apart.
Design boatmenWithBar(double apart_mm, double play_mm) {
  Design d = demo("waving-boatmen");
  d.settings.pinPlay_mm = play_mm;
  PieceWork bar = workOf({"size 56 x 8", "pivot 6,4 on s2/panel-1 at 6,38 over 1",
                          "pivot 46,4 on s4/panel-1 at 6,38 over 1"});
  bar.joints[1].at.x() = 6 + apart_mm;
  return addStructure(d, "piece", "gutter", {{"position", 0.0}}, bar)->design;
}

std::vector<std::string> stackOf(const Design& d) {
  const Analysis a = checked(d);
  const Stacking stack = *a.snapshot->stack();
  std::vector<std::string> keys;
  for (PanelIndex p : stack.order)
    keys.push_back(a.assembly->panels[p].key);
  return keys;
}

bool lieInTurn(const std::vector<std::string>& stack, std::initializer_list<const char*> keys) {
  auto from = stack.begin();
  for (const char* key : keys) {
    from = std::find(from, stack.end(), key);
    if (from == stack.end()) return false;
  }
  return true;
}

/// A slider on page b with a strap across it, and something over or under that.
Design strapped(const char* slide) {
  Design d = withPiece(card(), "card/page-b", {"size 30 x 60", slide});
  return withPiece(d, "card/page-b", {"size 70 x 14", "glue 35,7 on card/page-b at 60,60"});
}

} // namespace

class TestLimbs : public QObject {
  Q_OBJECT
private slots:
  // --- play
  void pinsTakeUpWhatTheirPlayAllows_data() {
    QTest::addColumn<double>("apart");
    QTest::addColumn<double>("play");
    QTest::addColumn<bool>("moves");
    QTest::newRow("exact") << 40.0 << 0.0 << true;
    QTest::newRow("a tenth, no play") << 40.1 << 0.0 << false;
    QTest::newRow("a tenth") << 40.1 << 0.2 << true;
    QTest::newRow("too short by a tenth") << 39.9 << 0.2 << true;
    QTest::newRow("more than two pins give") << 40.5 << 0.2 << false;
    QTest::newRow("wider holes") << 40.5 << 0.3 << true;
  }
  void pinsTakeUpWhatTheirPlayAllows() {
    QFETCH(double, apart);
    QFETCH(double, play);
    QFETCH(bool, moves);
    const Analysis a = checked(boatmenWithBar(apart, play));
    QCOMPARE(a.verdict == Verdict::Good, moves);
    if (!moves) return;
    // The bar is where both arms hold it, as nearly as the play asks for, all the way.
    const PanelIndex bar = a.assembly->findPanel("s6/panel-1");
    for (double t = a.motion->low_rad() + 0.01; t < a.motion->high_rad(); t += 0.2) {
      const Pose pose = a.motion->poseAt(t);
      QVERIFY(pose.placed[bar]);
      const Vec3 left = worldPoint(*a.motion, pose, "s2/panel-1", {6, 38}),
                 right = worldPoint(*a.motion, pose, "s4/panel-1", {6, 38});
      QVERIFY((pose.panels[bar] * Vec3(6, 4, 0) - left).norm() <= 2 * play + 1e-6);
      QVERIFY((pose.panels[bar] * Vec3(6 + apart, 4, 0) - right).norm() <= 2 * play + 1e-6);
    }
  }
  void aSliderIsGuidedByWhatLiesOverIt() {
    const auto with = [](double up_mm) {
      Design d = withPiece(card(130, 200), "card/page-b",
                           {"size 30 x 90", "slide 15,45 on card/page-b at 60,60 turned 90"});
      d = withPiece(d, "card/page-b", {"size 70 x 10", "glue 35,5 on card/page-b at 60,30"});
      PieceWork second = workOf({"size 70 x 10", "glue 35,5 on card/page-b at 60,40"});
      second.joints[0].to.y() = up_mm;
      d = addStructure(d, "piece", "card/page-b", {{"position", 0.0}}, second)->design;
      const auto assembly = assemble(d);
      return (*assembly->every<Slide>().begin()).joint;
    };
    const Slide near = with(40), far = with(90);
    QVERIFY_NEAR(near.room_mm, slidePlay_mm(1 * 0.27), 1e-9);
    QVERIFY_NEAR(near.guided_mm, 20.0, 1e-9);
    QVERIFY_NEAR(far.guided_mm, 70.0, 1e-9);
    QVERIFY_NEAR(near.guidedAt_mm, -25.0, 1e-9); // 35 up the page, the slider's zero is at 60
    QVERIFY_NEAR(far.guidedAt_mm, 0.0, 1e-9);
  }
  void aSliderStandsByAnEdgeOrAskew() {
    // The heron's slider, which a strap pulls by its lower end: what a loose pocket leaves it.
    const auto play_mm = [](const Design& d) {
      const Motion motion = Motion::trace(assemble(d));
      for (const Block& block : motion.parts())
        for (const Block::Step& step : block.steps)
          if (motion.mechanism().pairs[step.pair].slides) return block.play_mm.at(0);
      return -1.0;
    };
    const Design bare = demo("night-heron");
    QVERIFY_NEAR(play_mm(bare), starting::kSlidePlay_mm, 1e-12);
    const auto withCover = [&](double up_mm) {
      PieceWork cover = workOf({"size 70 x 10", "glue 35,5 on card/page-b at 80,80"});
      cover.joints[0].to.y() = up_mm;
      return addStructure(bare, "piece", "card/page-b", {{"position", 0.0}}, cover)->design;
    };
    // Pulled through under the cover the strap's fold comes to the middle of it: no lever. The end
    // of the strap goes with the slider.
    QVERIFY_NEAR(play_mm(withCover(65)), slidePlay_mm(2 * 0.27), 1e-9);
    // Beyond its way, at least 15 from the fold: from edge to edge over the cover's 10.
    QVERIFY_NEAR(play_mm(withCover(100)), slidePlay_mm(1 * 0.27) * (1 + 2 * 15.0 / 10), 1e-6);
  }
  void playTakesUpNoTurn() {
    Block block;
    block.play_mm = {0.3};
    Eigen::VectorXd gap(6);
    gap << 0.3, 0, 0, 0.3, 0, 0; // both ends of the pin alike
    QVERIFY_NEAR(beyondPlay(block, gap).norm(), 0.0, 1e-12);
    gap << 0.5, 0, 0, 0.5, 0, 0;
    QVERIFY_NEAR(beyondPlay(block, gap).norm(), 0.2 * std::sqrt(2), 1e-12);
    gap << 0.2, 0, 0, -0.2, 0, 0; // askew
    QVERIFY_NEAR(beyondPlay(block, gap).norm(), 0.2 * std::sqrt(2), 1e-12);
    block.play_mm = {0};
    gap << 0.2, 0, 0, 0.2, 0, 0;
    QVERIFY_NEAR(beyondPlay(block, gap).norm(), 0.2 * std::sqrt(2), 1e-12);
  }

  // --- layers
  void whatSlidesInAPocketLiesInIt() {
    const auto stack = stackOf(demo("ferry-pass"));
    // From page b down: the band's middle, the insert, the band's ends, the pocket's front.
    QVERIFY(lieInTurn(stack, {"s3/panel-1", "s4/panel-3", "s4/panel-1", "s1/panel-1", "s4/panel-2",
                              "card/page-b"}));
  }
  void itsMakerLaysItOverOrUnderAStrap() {
    const Design under = strapped("slide 15,30 on card/page-b at 60,50 pushed 0 to 20");
    QVERIFY(lieInTurn(stackOf(under), {"s2/panel-1", "s1/panel-1", "card/page-b"}));
    QCOMPARE(pocketsOf(*assemble(under)).size(), std::size_t(1));
    const Design over = strapped("slide 15,30 on card/page-b at 60,50 pushed 0 to 20 over 1");
    QVERIFY(lieInTurn(stackOf(over), {"s1/panel-1", "s2/panel-1", "card/page-b"}));
    QVERIFY(pocketsOf(*assemble(over)).empty());
  }
  /// Two flaps, each hinged on a page 40 mm from the gutter, slide on one another: both lie in the
  /// plane through both hinges, whatever the opening.
  void flapsThatSlideOnOneAnotherBridgeTheGutter() {
    Design d =
        withPiece(card(), "gutter",
                  {"size 60 x 20", "score 20 v", "glue 10,10 on card/page-a at 90,50 turned -90"});
    d = withPiece(d, "gutter",
                  {"size 80 x 20", "score 20 v", "glue 10,10 on card/page-b at 90,50 turned -90",
                   "slide 40,10 on s1/panel-2 at 20,10 turned 0 way 180 least -60 most 60"});
    const Motion motion = Motion::trace(assemble(d));
    QCOMPARE(motion.mobility(), 0);
    for (const double opening_deg : {40.0, 90.0, 120.0, 150.0, 175.0}) {
      const Pose pose = motion.poseAt(radians(opening_deg));
      const auto at = [&](const char* panel, double x, double y) {
        return worldPoint(motion, pose, panel, {x, y});
      };
      const Vec3 a = at("s1/panel-1", 20, 0), b = at("s2/panel-1", 20, 0);
      const Vec3 hinge = at("s1/panel-1", 20, 20) - a, normal = hinge.cross(b - a).normalized();
      QVERIFY_NEAR(Vec3(b - a - hinge.dot(b - a) / hinge.squaredNorm() * hinge).norm(),
                   80 * std::sin(radians(0.5 * opening_deg)), 1e-6);
      for (const char* flap : {"s1/panel-2", "s2/panel-2"})
        for (const double x : {20.0, 60.0})
          for (const double y : {0.0, 20.0})
            QVERIFY_NEAR(normal.dot(at(flap, x, y) - a), 0, 1e-6);
      // They point at one another.
      QVERIFY((at("s1/panel-2", 60, 0) - a).dot(b - a) > 0);
      QVERIFY((at("s2/panel-2", 80, 0) - b).dot(a - b) > 0);
    }
  }
  void limbsInOneLayerHitAndInTwoDoNot() {
    const auto crossing = [](const char* second) {
      const Design d =
          withPiece(card(), "card/page-b",
                    {"size 60 x 10", "pivot 5,5 on card/page-b at 60,60 spun 0 to 30"});
      return withPiece(d, "card/page-b", {"size 60 x 10", second});
    };
    const Design same = crossing("pivot 5,5 on card/page-b at 75,50 turned 90 spun 0 to 30"),
                 over = crossing("pivot 5,5 on card/page-b at 75,50 turned 90 spun 0 to 30 over 1");
    const Analysis hit = checked(same);
    const Finding* finding = findCode(hit, "limbs-hit");
    QVERIFY(finding);
    // Both rest where they lie whatever the card does: they hit at every opening, by the square of
    // 10 mm that both cover, whose middle is 5 mm from either's middle line.
    QVERIFY_NEAR(finding->from_rad, hit.motion->low_rad(), radians(0.2));
    QVERIFY_NEAR(finding->to_rad, hit.motion->high_rad(), radians(0.2));
    QVERIFY_NEAR(finding->amount, 10, 1e-3);
    QVERIFY(!findCode(checked(over), "limbs-hit"));
    QVERIFY(lieInTurn(stackOf(over), {"s2/panel-1", "s1/panel-1", "card/page-b"}));
  }
  void onlyWholeLayersAreTaken() {
    PieceWork work = workOf({"size 40 x 10", "pivot 5,5 on card/page-b at 60,60 over 2"});
    QCOMPARE(std::get<given::Pivot>(work.joints[0].kind).over, 2.0);
    for (double wrong : {-1.0, 0.5, 21.0}) {
      std::get<given::Pivot>(work.joints[0].kind).over = wrong;
      QCOMPARE(validate(work, "").error().code(), std::string("work.over"));
    }
    work =
        workOf({"size 40 x 10", "slide 5,5 on card/page-b at 60,60 pushed 0 to 9 step 3 over 1"});
    QCOMPARE(std::get<given::Slide>(work.joints[0].kind).over, 1.0);
    QCOMPARE(std::get<given::Slide>(work.joints[0].kind).handStep_mm, 3.0);
    std::get<given::Slide>(work.joints[0].kind).handStep_mm = -1;
    QCOMPARE(validate(work, "").error().code(), std::string("work.step"));
  }

  // --- steps
  void aHandStopsAtSteps() {
    Lift lift;
    lift.least = 0, lift.most = radians(90), lift.step = radians(30);
    QVERIFY_NEAR(lift.stopAt(0.3), 1.0 / 3, 1e-12);
    QVERIFY_NEAR(lift.stopAt(0.6), 2.0 / 3, 1e-12);
    QVERIFY_NEAR(lift.stopAt(0.95), 1.0, 1e-12);
    QVERIFY_NEAR(lift.nextStop(0), 1.0 / 3, 1e-12);
    QVERIFY_NEAR(lift.nextStop(2.0 / 3), 1.0, 1e-12);
    QCOMPARE(lift.nextStop(1), 1.0);
    lift.step = 0;
    QCOMPARE(lift.stopAt(0.3), 0.3);
    QCOMPARE(lift.nextStop(0.3), 1.0);
  }
  void stepsAreSaidAndKept() {
    const Design d = withPiece(card(), "card/page-b",
                               {"size 40 x 10", "score 20 v lifted from 180 to 60 step 40",
                                "glue 10,5 on card/page-b at 60,60"});
    const auto assembly = assemble(d);
    QCOMPARE(assembly->lifts.size(), std::size_t(1));
    QVERIFY_NEAR(assembly->lifts[0].step, radians(40), 1e-12);
    const auto again = designFromJson(designToJson(d), "");
    QVERIFY(again && *again == d);
    const auto said = sentencesOf({*d.structures[0].work, false, {}}, LengthUnit::Millimetre);
    QVERIFY(std::ranges::find(said, "score 20 valley lifted from 180 to 60 step 40") != said.end());
    // Spun from the pin.
    const Design spun =
        withPiece(card(), "card/page-b",
                  {"size 40 x 10", "pivot 5,5 on card/page-b at 60,60 spun 0 to 90 step 45"});
    QVERIFY_NEAR(assemble(spun)->lifts[0].step, radians(45), 1e-12);
    QVERIFY(*designFromJson(designToJson(spun), "") == spun);
  }
};

QTEST_GUILESS_MAIN(TestLimbs)
#include "test_limbs.moc"
