// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/assembly/loose_folds.h"
#include "core/edits/laying.h"
#include "core/edits/parting.h"
#include "core/edits/sheet.h"
#include "core/pieces/profile.h"
#include "core/pieces/score_edits.h"
#include "core/pieces/sheet_edits.h"
#include "core/pieces/strokes.h"
#include "core/production/flat_piece.h"
#include "core/structures/assemble.h"
#include "words/words.h"
#endif

using namespace hinge;
using namespace hinge::test;

// What a hand does on a sheet, the sentences that say the same, and how a sheet is laid on a face.

namespace {

using Kind = WorkLine::Kind;
using What = Grip::What;
constexpr LengthUnit kMm = LengthUnit::Millimetre;

SheetInWork made(const char* sentences, const SheetInWork& from = {}) {
  const auto sheet = workedBy(from, sentences, kMm);
  if (!sheet) qFatal("%s: %s", sentences, hinge::say(sheet.error()).c_str());
  return *sheet;
}
std::string refusal(const SheetInWork& on, const char* sentence) {
  const auto sheet = workedBy(on, sentence, kMm);
  return sheet ? "" : sheet.error().message.key;
}
double area(const SheetInWork& sheet) {
  return std::abs(signedArea_mm2(sheet.work.outline));
}
Box2 box(const SheetInWork& sheet) {
  return boundsOf(sheet.work.outline);
}

Stroke stroke(SheetTool tool, const Vec2& from, const Vec2& to) {
  Stroke made;
  made.tool = tool, made.from = from, made.to = to, made.pressed = true;
  made.snapping = {0.5, 2};
  return made;
}
QString said(const SheetInWork& sheet, const Stroke& stroke) {
  return QString::fromStdString(drawnBy(sheet, stroke, kMm).sentence);
}

/// A card with a free piece, worked by sentences, on the gutter.
Design withPiece(const char* sentences) {
  auto added = newSheet(card());
  if (!added) qFatal("%s", hinge::say(added.error()).c_str());
  const auto next = withSheet(added->design, {added->id, 0}, made(sentences));
  if (!next) qFatal("%s", hinge::say(next.error()).c_str());
  return *next;
}

} // namespace

class TestStrokes : public QObject {
  Q_OBJECT
private slots:
  // --- sentences of the hand -----------------------------------------------------------------
  void anEdgeIsPulledUntilThePaperIsSoWide() {
    const SheetInWork plain = made("size 100 x 60; score 40 v; score across 20 m");
    const SheetInWork wide = made("pull edge 100,30 to 130", plain);
    QVERIFY_NEAR(box(wide).size().x(), 130, 1e-9);
    QVERIFY_NEAR(wide.work.lines[1].to.x(), 130, 1e-9); // what ended there still does
    QVERIFY_NEAR(wide.work.lines[0].to.y(), 60, 1e-9);
    const SheetInWork left = made("pull edge 0,30 to 110", plain);
    QVERIFY_NEAR(box(left).low.x(), -10, 1e-9);
    QVERIFY_NEAR(left.work.lines[0].from.x(), 40, 1e-9);
    QCOMPARE(refusal(plain, "pull edge 50,30 to 110"), "sheet.nothing-at");
  }
  void aRoundedCornerGoesAlongWithItsEdge() {
    const SheetInWork round = made("size 100 x 60; round 100,60 by 20; pull edge 100,20 to 120");
    const SheetInWork later = made("size 120 x 60; round 120,60 by 20");
    QCOMPARE(round.work.outline.size(), later.work.outline.size());
    for (std::size_t k = 0; k < round.work.outline.size(); ++k)
      QVERIFY_NEAR((round.work.outline[k] - later.work.outline[k]).norm(), 0, 1e-9);
  }
  void aSlantedEdgeKeepsItsNeighboursDirections() {
    // A trapezoid: its upper edge goes up along the slanted sides.
    const SheetInWork higher = made("outline 0,0 100,0 80,40 20,40; pull edge 50,40 to 60");
    QVERIFY_NEAR(higher.work.outline[2].x(), 70, 1e-9);
    QVERIFY_NEAR(higher.work.outline[3].x(), 30, 1e-9);
    QVERIFY_NEAR(higher.work.outline[2].y(), 60, 1e-9);
  }
  void cornersArePulledAddedAndTakenAway() {
    const SheetInWork roof =
        made("size 100 x 60; score 50 m; kink 50,60; pull corner 50,60 to 50,90");
    QCOMPARE(roof.work.outline.size(), std::size_t(5));
    QVERIFY_NEAR(area(roof), 100 * 60 + 0.5 * 100 * 30, 1e-6);
    QVERIFY_NEAR(roof.work.lines[0].to.y(), 90, 1e-9); // ended in that corner
    const SheetInWork flat = made("smooth 50,90", roof);
    QVERIFY_NEAR(area(flat), 6000, 1e-6);
    QVERIFY_NEAR(flat.work.lines[0].to.y(), 60, 1e-6);
    QCOMPARE(refusal(roof, "smooth 50,60"), "sheet.nothing-at");
  }
  void cornersAreRoundedAndCutOffOneByOne() {
    const SheetInWork snipped = made("size 100 x 60; snip 0,0 by 12");
    QVERIFY_NEAR(area(snipped), 6000 - 0.5 * 12 * 12, 1e-9);
    const SheetInWork round = made("size 100 x 60; round 0,0 by 12");
    QVERIFY_NEAR(area(round), 6000 - 12 * 12 * (1 - 0.25 * kPi), 0.7);
    // Inner corners too.
    const SheetInWork inner = made("outline 0,0 100,0 100,60 50,60 50,30 0,30; round 50,30 by 10");
    QVERIFY_NEAR(area(inner), 100 * 30 + 50 * 30 + 10 * 10 * (1 - 0.25 * kPi), 0.7);
    QCOMPARE(refusal(snipped, "round 100,0 by 80"), "sheet.radius");
  }
  void linesArePulledLeantAndRepeated() {
    const SheetInWork one = made("size 100 x 60; score 20 v");
    const SheetInWork many = made("repeat 20 every 20 turning", one);
    QCOMPARE(many.work.lines.size(), std::size_t(4)); // 20, 40, 60, 80
    QVERIFY(many.work.lines[1].kind == Kind::Mountain && many.work.lines[2].kind == Kind::Valley);
    QCOMPARE(made("repeat 20 every 30 times 2", one).work.lines.size(), std::size_t(3));
    QCOMPARE(refusal(one, "repeat 20 every 30 times 3"), "sheet.no-room");
    QCOMPARE(refusal(one, "repeat 20 every 90"), "sheet.no-room");
    const SheetInWork slanted = made("pull end 20,60 to 35,60", one);
    QVERIFY_NEAR(leaning_deg(slanted.work.lines[0]), degrees(std::atan2(15, 60)), 1e-9);
    const SheetInWork lent = made("lean 20 30", one);
    QVERIFY_NEAR(lent.work.lines[0].to.x(), 20 + 60 * std::tan(radians(30)), 1e-6);
    QVERIFY_NEAR(lent.work.lines[0].to.y(), 60, 1e-9);
    const SheetInWork moved = made("pull line 27.5,30 to 57.5,30", slanted);
    QVERIFY_NEAR(moved.work.lines[0].from.x(), 50, 1e-9);
    const SheetInWork carried = made("move 20 to 30 carrying", made("score 50 m", one));
    QVERIFY_NEAR(carried.work.lines[1].from.x(), 60, 1e-9);
    QVERIFY_NEAR(box(carried).size().x(), 110, 1e-9);
  }
  void bothSidesAreMadeAlike() {
    const SheetInWork one =
        made("size 100 x 60; score 20 v; score 50 m; opening 5,5 to 15,20; alike");
    QCOMPARE(one.work.lines.size(), std::size_t(3)); // the middle one is its own twin
    QVERIFY_NEAR(one.work.lines[2].from.x(), 80, 1e-9);
    QCOMPARE(one.work.windows.size(), std::size_t(2));
    QVERIFY_NEAR(boundsOf(one.work.windows[1]).low.x(), 85, 1e-9);
    QCOMPARE(refusal(one, "alike"), "sheet.alike");
  }
  void openingsAreMovedReshapedAndClosed() {
    const SheetInWork open = made("size 100 x 60; opening 10,10 to 30,30");
    const SheetInWork moved = made("pull opening 20,20 to 25,22", open);
    QVERIFY_NEAR(boundsOf(moved.work.windows[0]).low.x(), 15, 1e-9);
    const SheetInWork shaped = made("pull opening 30,30 to 40,30", open);
    QVERIFY_NEAR(std::abs(signedArea_mm2(shaped.work.windows[0])), 500, 1e-9);
    QVERIFY(made("close 20,20", open).work.windows.empty());
    QCOMPARE(refusal(open, "close 60,20"), "sheet.nothing-at");
  }
  void aPieceOfARingIsAnOpening() {
    const SheetInWork ring =
        made("size 100 x 60; opening ring 50,20 from 10 to 20 towards 90 wide 90");
    QVERIFY_NEAR(std::abs(signedArea_mm2(ring.work.windows[0])), 0.25 * kPi * (400 - 100), 2.0);
    QVERIFY_NEAR(boundsOf(ring.work.windows[0]).high.y(), 40, 0.06);
    QCOMPARE(refusal({}, "opening ring 50,20 from 10 to 10.2 towards 90 wide 90"), "sheet.ring");
  }
  void aTabGrowsOutOfAnyEdge() {
    const SheetInWork tab = made("outline 0,0 100,0 80,40 20,40; tab at 90,20 10 v bevel 45");
    QCOMPARE(tab.work.outline.size(), std::size_t(6));
    const double edge = std::hypot(20, 40);
    QVERIFY_NEAR(area(tab), 0.5 * (100 + 60) * 40 + 10 * (edge - 10), 1e-6);
    QVERIFY_NEAR((tab.work.lines[0].from - Vec2(100, 0)).norm(), 0, 1e-9);
    QCOMPARE(refusal(tab, "tab at 50,20 10 v"), "sheet.no-edge");
    QVERIFY(refusal(tab, "tab at 0,0 10 v bevel 89").starts_with("sheet.sentence"));
  }
  void severalSentencesStandBehindOneAnother() {
    QCOMPARE(made("size 50 x 20; score 10 v; score 30 m").work.lines.size(), std::size_t(2));
    QCOMPARE(refusal({}, "size 50 x 20; scratch 10"), "sheet.no-verb/none");
  }

  // --- where a hand is helped ----------------------------------------------------------------
  void pointsSnapToWhatIsMeant_data() {
    QTest::addColumn<double>("x");
    QTest::addColumn<double>("y");
    QTest::addColumn<double>("toX");
    QTest::addColumn<double>("toY");
    QTest::addColumn<int>("why");
    const auto row = [](const char* name, double x, double y, double tx, double ty, SnapTo why) {
      QTest::newRow(name) << x << y << tx << ty << static_cast<int>(why);
    };
    row("corner", 99, 59, 100, 60, SnapTo::Corner);
    row("end of a score", 41, 59, 40, 60, SnapTo::End);
    row("crossing", 40.8, 30.9, 40, 30, SnapTo::Crossing);
    row("middle of an edge", 51, 1, 50, 0, SnapTo::Middle);
    row("edge, on the lattice", 70.1, 1, 70, 0, SnapTo::Rim);
    row("line, on the lattice", 41, 12.2, 40, 12, SnapTo::Line);
    row("lattice", 70.2, 12.3, 70, 12.5, SnapTo::Lattice);
  }
  void pointsSnapToWhatIsMeant() {
    QFETCH(double, x);
    QFETCH(double, y);
    QFETCH(double, toX);
    QFETCH(double, toY);
    QFETCH(int, why);
    const SheetInWork sheet = made("size 100 x 60; score 40 v; score across 30 m");
    const Snapped snap = snappedPoint(sheet.work, {x, y}, {0.5, 1.6});
    QVERIFY_NEAR(snap.at.x(), toX, 1e-9);
    QVERIFY_NEAR(snap.at.y(), toY, 1e-9);
    QCOMPARE(static_cast<int>(snap.to), why);
  }
  void scoresSnapToMiddleTwinAndEqualSteps() {
    const SheetInWork sheet = made("size 100 x 60; score 12 v; score 30 m");
    const auto snap = [&](double x) { return snappedPlace(sheet.work, 0, x, {0.5, 1.5}); };
    QVERIFY(snap(50.9).to == SnapTo::Middle && std::abs(snap(50.9).at - 50) < 1e-9);
    QVERIFY(snap(88.6).to == SnapTo::Twin && std::abs(snap(88.6).at - 88) < 1e-9);
    QVERIFY(snap(47.3).to == SnapTo::EqualStep && std::abs(snap(47.3).at - 48) < 1e-9);
    QVERIFY(snap(60.3).to == SnapTo::Lattice && std::abs(snap(60.3).at - 60.5) < 1e-9);
    // A score that is being moved does not hold itself back.
    Snapping own{0.5, 1.5, 1};
    QVERIFY(snappedPlace(sheet.work, 0, 70.4, own).to == SnapTo::Lattice);
  }

  void slantedScoresRunParallelToWhatIsThere() {
    const SheetInWork sheet = made("size 100 x 60; score 20,0 to 50,60 v");
    const Vec2 way = Vec2(30, 60).normalized(), off = Vec2(55, 15) + 40 * way + Vec2(0.6, 0);
    const Drawn drawn = drawnBy(sheet, stroke(SheetTool::Score, {55, 15}, off), kMm);
    QVERIFY(drawn.at.to == SnapTo::Parallel);
    QCOMPARE(drawn.ghost.size(), std::size_t(1));
    const auto& [from, to] = drawn.ghost.front();
    QVERIFY_NEAR(cross2(way, (to - from).normalized()), 0, 1e-9);
    QVERIFY_NEAR(std::abs(to.y() - from.y()), 60, 1e-9); // from edge to edge
  }

  void cutsRunParallelToWhatIsThere() {
    const SheetInWork sheet = made("size 100 x 60; score 20,0 to 50,60 v");
    const Vec2 way = Vec2(30, 60).normalized();
    const auto near =
        snappedParallel(sheet.work, {60, 10}, Vec2(60, 10) + 30 * way + Vec2(0.4, 0), {0.5, 1.5});
    QVERIFY(near.has_value());
    QVERIFY_NEAR(cross2(way, *near - Vec2(60, 10)), 0, 1e-9);
    QVERIFY_NEAR(std::remainder((*near - Vec2(60, 10)).norm(), 0.5), 0, 1e-9);
    QVERIFY(!snappedParallel(sheet.work, {60, 10}, {80, 22}, {0.5, 1.5}));
    Stroke cut = stroke(SheetTool::Cut, {60, 10}, Vec2(60, 10) + 30 * way + Vec2(0.4, 0));
    QVERIFY(drawnBy(sheet, cut, kMm).at.to == SnapTo::Parallel);
  }

  // --- strokes -------------------------------------------------------------------------------
  void aStrokeSaysWhatItDoes() {
    const SheetInWork sheet = made("size 100 x 60; score 40 v; opening 60,10 to 80,30");
    QCOMPARE(said(sheet, stroke(SheetTool::Score, {20, 10}, {20, 10})), "score 20 valley");
    QCOMPARE(said(sheet, stroke(SheetTool::Score, {20, 10}, {21, 50})), "score 20 valley");
    QCOMPARE(said(sheet, stroke(SheetTool::Score, {3, 42}, {90, 44})), "score across 42 valley");
    QCOMPARE(said(sheet, stroke(SheetTool::Score, {20, 0.3}, {30, 59.8})),
             "score 20,0 to 30,60 valley");
    QCOMPARE(said(sheet, stroke(SheetTool::Cut, {20, 20}, {30, 20})), "cut 20,20 to 30,20");
    QCOMPARE(said(sheet, stroke(SheetTool::Opening, {30, 30}, {10, 12})), "opening 10,12 to 30,30");
    QCOMPARE(said(sheet, stroke(SheetTool::Reverse, {30, 20}, {50, 36})),
             "reverse 30 to 50 between 20 and 36");
    QVERIFY(said(sheet, stroke(SheetTool::Cut, {20, 20}, {20, 20})).isEmpty());
  }
  /// Less than half the way across is no score from edge to edge, and a slanted drag is slanted.
  void aShortDragScoresNoFartherThanItGoes() {
    const SheetInWork sheet = made("size 100 x 60; score 40 v; cut 60,20 to 90,20");
    QCOMPARE(said(sheet, stroke(SheetTool::Score, {20, 10}, {20.6, 32})),
             "score 20 valley from 10 to 32");
    QCOMPARE(said(sheet, stroke(SheetTool::Score, {20, 32}, {20.6, 10})),
             "score 20 valley from 10 to 32");
    QCOMPARE(said(sheet, stroke(SheetTool::Score, {44, 12}, {70, 12.2})),
             "score across 12 valley from 44 to 70");
    QCOMPARE(said(sheet, stroke(SheetTool::Score, {20, 50}, {20, 66})), // over the edge
             "score 20 valley from 50 to 60");
    QCOMPARE(said(sheet, stroke(SheetTool::Score, {10, 10}, {14, 35})), // no longer straightened
             "score 10,10 to 14,35 valley");
    // The end lies on what is met: the cut.
    QCOMPARE(said(sheet, stroke(SheetTool::Score, {70, 1}, {70, 20.6})),
             "score 70,0 to 70,20 valley");
    // Typed are its place, and where it begins and ends.
    Stroke typed = stroke(SheetTool::Score, {20, 10}, {20, 30});
    typed.typed = *typedMeasures(drawnBy(sheet, typed, kMm).measures, "25, 12, 28", kMm);
    QCOMPARE(said(sheet, typed), "score 25 valley from 12 to 28");
  }
  void shapesAreDrawnInTheirBoxOrAboutAMiddle() {
    const SheetInWork sheet = made("size 100 x 60; score 60 v");
    Stroke s = stroke(SheetTool::Opening, {10, 10}, {30, 20});
    s.opening = DrawnShape::Oval;
    QCOMPARE(said(sheet, s), "opening oval 20,15 20 x 10");
    s.opening = DrawnShape::Named, s.shape = "boat";
    QCOMPARE(said(sheet, s), "opening boat 20,15 20 x 10");
    // About the middle of the panel on the right, 80,30: as far to both sides.
    s = stroke(SheetTool::Opening, {80, 30}, {88, 35});
    s.centredOn = Vec2(70, 8);
    QCOMPARE(said(sheet, s), "opening rectangle centred on 70,8 16 x 10");
    s.centredOn = Vec2(60, 8), s.opening = DrawnShape::Disc, s.to = {60, 41};
    QCOMPARE(said(sheet, s), "opening disc centred on 60,8 across 22");
    s.tool = SheetTool::Outline, s.outline = DrawnShape::Oval, s.centredOn.reset();
    s.from = {0, 0}, s.to = {90, 50};
    QCOMPARE(said(sheet, s), "outline oval 45,25 90 x 50");
  }
  /// All along a side from its edge; as far as a score from a corner.
  void aStripIsTrimmedOff() {
    const SheetInWork sheet = made("size 100 x 60; score 40 v");
    const auto trimmed = [&](const Vec2& from, const Vec2& to, std::vector<double> typed = {}) {
      Stroke s = stroke(SheetTool::Trim, from, to);
      s.grip = gripAt(sheet.work, from, 2);
      s.typed = std::move(typed);
      return said(sheet, s);
    };
    QCOMPARE(trimmed({70, 60}, {72, 52}), QStringLiteral("trim top 8"));
    QCOMPARE(trimmed({0, 30}, {6, 31}), QStringLiteral("trim left 6"));
    QCOMPARE(trimmed({70, 60}, {72, 52}, {9.5}), QStringLiteral("trim top 9.5"));
    QCOMPARE(trimmed({0, 60}, {41, 52}), QStringLiteral("trim top 8 from 0 to 40"));
    QCOMPARE(trimmed({100, 0}, {41, 5}), QStringLiteral("trim bottom 5 from 40 to 100"));
    QCOMPARE(trimmed({100, 0}, {95, 25}, {4, 30}), QStringLiteral("trim right 4 from 0 to 30"));
    QVERIFY(trimmed({70, 60}, {72, 68}).isEmpty()); // away from the paper
    QVERIFY(trimmed({50, 30}, {60, 20}).isEmpty()); // in the middle of it
  }
  void everyStrokeIsASentenceThatIsUnderstood() {
    const SheetInWork sheet = made("size 100 x 60; score 40 v; opening 60,10 to 80,30; "
                                   "score across 50 m; pull end 100,50 to 100,45");
    const SheetTool tools[] = {SheetTool::Hold,    SheetTool::Score,   SheetTool::Cut,
                               SheetTool::Opening, SheetTool::Reverse, SheetTool::Tab,
                               SheetTool::Trim,    SheetTool::Corner};
    int spoken = 0, refused = 0;
    for (SheetTool tool : tools)
      for (int shape = 0; shape < 4; ++shape)
        for (int k = 0; k < 60; ++k) {
          const Vec2 from((7 * k) % 101, (13 * k) % 61), to((29 * k + 11) % 101, (17 * k + 5) % 61);
          Stroke s = stroke(tool, from, to);
          s.opening = std::array{DrawnShape::Rectangle, DrawnShape::Disc, DrawnShape::Oval,
                                 DrawnShape::Named}[static_cast<std::size_t>(shape)];
          s.corner = shape % 2 ? CornerCut::Snip : CornerCut::Round;
          s.fromFarEnd = shape == 2, s.carry = shape == 3;
          s.grip = gripAt(sheet.work, from, 2);
          const std::string sentence = drawnBy(sheet, s, LengthUnit::Inch).sentence;
          if (sentence.empty()) continue;
          ++spoken;
          const auto done = workedBy(sheet, sentence, LengthUnit::Inch);
          if (done) continue;
          ++refused;
          // Paper may refuse; the words may not be misunderstood.
          QVERIFY2(!done.error().message.key.starts_with("sheet.sentence"), sentence.c_str());
        }
    QVERIFY2(spoken > 400 && refused < spoken / 2,
             qPrintable(QStringLiteral("%1 of %2 refused").arg(refused).arg(spoken)));
  }
  void whatIsHeldIsPulled() {
    const SheetInWork sheet = made("size 100 x 60; score 40 v; opening 60,10 to 80,30");
    const auto pulled = [&](const Vec2& from, const Vec2& to) {
      Stroke s = stroke(SheetTool::Hold, from, to);
      s.grip = gripAt(sheet.work, from, 2);
      if (s.grip.what == What::Line) s.snapping.line = s.grip.index;
      return said(sheet, s);
    };
    QCOMPARE(pulled({40, 30}, {55, 30}), "move 40 to 55");
    QCOMPARE(pulled({100, 60}, {110, 66}), "pull corner 100,60 to 110,66");
    QCOMPARE(pulled({100, 30}, {112, 31}), "pull edge 100,30 to 112");
    QCOMPARE(pulled({40, 60}, {46, 59.5}), "pull end 40,60 to 46,60");
    QCOMPARE(pulled({70, 20}, {75, 25}), "pull opening 70,20 to 75,25");
    QCOMPARE(pulled({80, 30}, {85, 35}), "pull opening 80,30 to 85,35");
    QVERIFY(pulled({20, 20}, {25, 30}).isEmpty()); // bare paper
  }
  void linesInThePaperArePulledAlongOneAxisOrBoth() {
    const SheetInWork sheet = made("size 100 x 60; cut 20,20 to 60,20; cut 70,10 to 85,40");
    const auto pulled = [&](const Vec2& from, const Vec2& to) {
      Stroke s = stroke(SheetTool::Hold, from, to);
      s.grip = gripAt(sheet.work, from, 2);
      if (s.grip.what != What::Line) qFatal("no line is held");
      s.snapping.line = s.grip.index;
      return said(sheet, s);
    };
    // What runs level goes up and down; what leans goes anywhere.
    QCOMPARE(pulled({40, 20}, {47, 33}), "pull line 40,20 to 40,33");
    QCOMPARE(pulled({40, 20}, {40, 13.5}), "pull line 40,20 to 40,13.5");
    QCOMPARE(pulled({77.5, 25}, {75.5, 31}), "pull line 77.5,25 to 75.5,31");
  }
  void typedNumbersReplaceTheMeasures() {
    const SheetInWork sheet = made("size 100 x 60; score 40 v");
    Stroke s = stroke(SheetTool::Score, {20, 10}, {20, 10});
    const auto typed = typedMeasures(drawnBy(sheet, s, kMm).measures, "33 1/2", kMm);
    QVERIFY(typed.ok());
    s.typed = *typed;
    QCOMPARE(said(sheet, s), "score 33.5 valley");
    s.fromFarEnd = true;
    QCOMPARE(said(sheet, s), "score 66.5 valley");
    Stroke window = stroke(SheetTool::Opening, {10, 10}, {20, 20});
    window.typed = *typedMeasures(drawnBy(sheet, window, kMm).measures, "30 x 12", kMm);
    QCOMPARE(said(sheet, window), "opening 10,10 to 40,22");
    Stroke cut = stroke(SheetTool::Cut, {10, 10}, {20, 10});
    cut.typed = *typedMeasures(drawnBy(sheet, cut, kMm).measures, "25, 90", kMm);
    QCOMPARE(said(sheet, cut), "cut 10,10 to 10,35");
    QVERIFY(!typedMeasures(drawnBy(sheet, s, kMm).measures, "a bit", kMm));
    QVERIFY(!typedMeasures(drawnBy(sheet, s, kMm).measures, "3 x 4", kMm));
  }
  void measuresTellTheNeighbours() {
    const SheetInWork sheet = made("size 100 x 60; score 40 v; score 70 v");
    const auto measures = drawnBy(sheet, stroke(SheetTool::Score, {50, 9}, {50, 9}), kMm).measures;
    QCOMPARE(measures.size(), std::size_t(3));
    QVERIFY_NEAR(measures[0].value, 50, 1e-9);
    QVERIFY_NEAR(measures[1].value, 10, 1e-9);
    QVERIFY_NEAR(measures[2].value, 20, 1e-9);
    QVERIFY(measures[0].typed && !measures[1].typed && !measures[2].typed);
  }
  void linesAreNamedSoThatNoOtherIsMeant() {
    const SheetInWork sheet = made("size 100 x 60; cut 20,30 to 80,30; cut 50,10 to 50,50");
    for (std::size_t k = 0; k < 2; ++k)
      QCOMPARE(lineAt(sheet.work, nameOfLine(sheet.work, k)), std::optional(k));
  }

  // --- glue on a part of a panel -------------------------------------------------------------
  void glueMayCoverAPartOfAPanel() {
    const char* whole = "size 60 x 30; glue 30,15 on card/page-a at 60,40";
    const Design all = withPiece(whole);
    const SheetInWork part =
        made("glued 30,15 only 0,0 30,0 30,30 0,30", sheetOf(all, {StructureId{1}, 0}));
    const auto d = withSheet(all, {StructureId{1}, 0}, part);
    QVERIFY(d.ok());
    const auto glued = [](const Design& design) {
      const auto assembly = assemble(design);
      double sum = 0;
      for (const FlatPiece& piece : flatPieces(*assembly))
        for (const FlatArea& a : piece.glue)
          sum += area_mm2(a.outline);
      return sum;
    };
    QVERIFY_NEAR(glued(all), 1800, 1e-3);
    QVERIFY_NEAR(glued(*d), 900, 1e-3);
    // It is said, saved and read again as it was.
    SheetInWork again;
    for (const std::string& sentence : sentencesOf(part, kMm))
      again = *workedBy(again, sentence, kMm);
    QVERIFY(again.work == part.work);
    const auto read = designFromJson(designToJson(*d));
    QVERIFY(read.ok() && *read == *d);
    // Beside the panel there is nothing to glue.
    const auto beside =
        workedBy(part, "loosen 30,15; glue 30,15 on card/page-a at 60,40 only 70,0 90,0 90,9", kMm);
    QVERIFY(beside.ok());
    const auto refused = withSheet(all, {StructureId{1}, 0}, *beside);
    QVERIFY(!refused && refused.error().message.key == "joint.glue-beside");
    QCOMPARE(refusal(part, "glued 30,15 only 0,0 30,30 30,0 0,30"), "work.glue-area");
  }

  // --- laying --------------------------------------------------------------------------------
  void aPanelIsLaidOnAFaceAndJoined() {
    const Design d = withPiece("size 70 x 30; score 10 v, 60 v");
    const auto assembly = assemble(d);
    const Motion motion = Motion::trace(assembly);
    const SheetTarget piece{StructureId{1}, 0};
    HeldSheet lying;
    lying.at = {5, 15}, lying.on = "card/page-a", lying.to = {60.2, 40.3};
    const PieceWork work = sheetOf(d, piece).work;
    lying.turn_deg = turnFor(*assembly, motion.poseAt(2.0), piece, work, lying);
    // Scores run along the gutter, the rest of the strip lies towards it.
    const Iso3 lies = onFace(lying);
    QVERIFY_NEAR(std::abs((lies.linear() * Vec3::UnitY()).x()), 1, 1e-9);
    QVERIFY((lies * Vec3(60, 15, 0)).y() < (lies * Vec3(5, 15, 0)).y());
    const LaySnap snap = snappedLying(*assembly, work, lying, 1.5, 0.5);
    lying.to = snap.to;
    QVERIFY(!snap.flush);
    const Vec2 start = layingStart(work, lying);
    QVERIFY_NEAR(std::remainder(start.x(), 0.5), 0, 1e-9);
    QVERIFY_NEAR(std::remainder(start.y(), 0.5), 0, 1e-9);
    lying.to = layingPointFor(work, lying, {20, 40});
    QVERIFY_NEAR((layingStart(work, lying) - Vec2(20, 40)).norm(), 0, 1e-9);
    const auto joint = jointOf(d, *assembly, motion.poseAt(2.0), piece, lying);
    QVERIFY(joint.ok() && is<given::Glue>(*joint));
    const std::string sentence = jointSentence(sheetOf(d, piece), *joint, kMm);
    const auto glued = withSheet(d, piece, *workedBy(sheetOf(d, piece), sentence, kMm));
    QVERIFY2(glued.ok(), sentence.c_str());
    // The panel lies where the ghost lay.
    const auto after = assemble(*glued);
    const Pose pose = Motion::trace(after).poseAt(2.0);
    const PanelIndex tab = after->findPanel("s1/panel-1"), page = after->findPanel("card/page-a");
    const Iso3 onPage = pose.panels[page].inverse() * pose.panels[tab];
    const Iso3 wanted = after->findSeat("card/page-a")->sides[0].toPiece * onFace(lying);
    QVERIFY_NEAR((onPage * Vec3(5, 15, 0) - wanted * Vec3(5, 15, 0)).norm(), 0, 1e-9);
    QVERIFY_NEAR((onPage * Vec3(0, 0, 0) - wanted * Vec3(0, 0, 0)).norm(), 0, 1e-9);
  }
  void everyKindOfJointIsLaid_data() {
    QTest::addColumn<int>("kind");
    for (std::size_t k = 0; k < kJointKeys.size(); ++k)
      QTest::newRow(std::string(kJointKeys[k]).c_str()) << static_cast<int>(k);
  }
  void everyKindOfJointIsLaid() {
    QFETCH(int, kind);
    const Design d = withPiece("size 60 x 30");
    const auto assembly = assemble(d);
    const Pose pose = Motion::trace(assembly).poseAt(radians(100));
    const SheetTarget piece{StructureId{1}, 0};
    HeldSheet lying;
    lying.kind = static_cast<std::size_t>(kind), lying.on = "card/page-a";
    lying.at = {30, 12}, lying.to = {60, 50}, lying.turn_deg = 90;
    const auto joint = jointOf(d, *assembly, pose, piece, lying);
    QVERIFY(joint.ok() && joint->kind.index() == static_cast<std::size_t>(kind));
    const std::string sentence = jointSentence(sheetOf(d, piece), *joint, kMm);
    const auto worked = workedBy(sheetOf(d, piece), sentence, kMm);
    QVERIFY2(worked.ok(), sentence.c_str());
    QVERIFY(worked->work.joints.front() == *joint);
    QVERIFY2(withSheet(d, piece, *worked).ok(), sentence.c_str());
    // What lies flat lies as it was held.
    if (const auto lies = liesOn(joint->kind))
      QVERIFY_NEAR((lies->x - onFace(lying).linear().col(0).head<2>()).norm(), 0, 1e-9);
    if (const auto* slot = std::get_if<given::Slot>(&joint->kind))
      QVERIFY_NEAR(slot->way_deg, 90, 1e-9); // in from the nearest edge, the lower one
  }
  void edgesLieFlushWithinReach() {
    const Design d = withPiece("size 40 x 30");
    const auto assembly = assemble(d);
    HeldSheet lying;
    lying.at = {20, 15}, lying.on = "card/page-a", lying.to = {21.1, 60};
    const PieceWork work = sheetOf(d, {StructureId{1}, 0}).work;
    const LaySnap snap = snappedLying(*assembly, work, lying, 1.5, 0.5);
    QVERIFY(snap.flush);
    QVERIFY_NEAR(snap.to.x(), 20, 1e-9); // its left edge on the page's edge
    // Middle over middle of the page, and of what is glued there.
    const Box2 page = boundsOf(assembly->panels[assembly->findPanel("card/page-a")].outline.rim);
    lying.to = {0.5 * page.size().y() + 0.7, 40};
    QVERIFY_NEAR(snappedLying(*assembly, work, lying, 1.5, 0.5).to.x(), 0.5 * page.size().y(),
                 1e-9);
    const Design glued = withPiece("size 40 x 30; glue 20,15 on card/page-a at 33.3,71.1");
    const auto other = assemble(glued);
    lying.to = {34, 100};
    QVERIFY_NEAR(snappedLying(*other, work, lying, 1.5, 0.5).to.x(), 33.3, 1e-9);
  }
  void theOtherEndRunsAsTheScoresMust() {
    Design d = withPiece("size 70 x 30; score 10 v, 60 v; "
                         "glue 5,15 on card/page-a at 60,40 turned -90");
    const auto assembly = assemble(d);
    const Pose pose = Motion::trace(assembly).poseAt(radians(100));
    const SheetTarget piece{StructureId{1}, 0};
    const PieceWork work = sheetOf(d, piece).work;
    HeldSheet lying;
    lying.at = {65, 15}, lying.on = "card/page-b", lying.to = {60, 40};
    for (bool byFace : {false, true}) {
      lying.byFace = byFace;
      lying.turn_deg = turnFor(*assembly, pose, piece, work, lying);
      const Vec3 there = pose.panels[assembly->findPanel("card/page-b")].linear() *
                         assembly->findSeat("card/page-b")->sides[0].toPiece.linear() *
                         onFace(lying).linear() * Vec3::UnitY();
      const Vec3 here = pose.panels[assembly->findPanel("s1/panel-1")].linear() * Vec3::UnitY();
      QVERIFY_NEAR((there - here).norm(), 0, 1e-6);
    }
  }
  void whatIsJoinedToNothingIsSaidToBe() {
    const Analysis loose = checked(withPiece("size 70 x 30; score 10 v, 60 v"));
    QVERIFY(findCode(loose, "unjoined") && !findCode(loose, "impossible"));
    const Analysis glued = checked(withPiece("size 70 x 30; glue 5,15 on card/page-a at 60,40"));
    QVERIFY(!findCode(glued, "unjoined"));
  }

  // --- parting and growing together ----------------------------------------------------------
  void aPieceIsPartedAndGrownTogetherAgain() {
    Design d = withPiece("size 100 x 40; score 30 v; score 60 m; opening 70,10 to 80,20; "
                         "score across 20 v; erase 10,20; "
                         "glue 15,20 on card/page-a at 60,40; glue 90,20 on card/page-a at 60,115");
    // Something stands on what goes.
    const auto guest = addStructure(d, "piece", "s1/panel-3", {{"position", 0}},
                                    made("size 10 x 10; glue 5,5 on s1/panel-3 at 8,30").work);
    QVERIFY2(guest.ok(), guest ? "" : hinge::say(guest.error()).c_str());
    d = guest->design;
    const auto two = parted(d, StructureId{1}, 1); // along the score at 60
    QVERIFY2(two.ok(), two ? "" : hinge::say(two.error()).c_str());
    const PieceWork &stays = *two->design.find(StructureId{1})->work,
                    &goes = *two->design.find(two->id)->work;
    QVERIFY_NEAR(std::abs(signedArea_mm2(stays.outline)), 2400, 1e-9);
    QVERIFY_NEAR(std::abs(signedArea_mm2(goes.outline)), 1600, 1e-9);
    QCOMPARE(stays.joints.size(), std::size_t(1));
    QCOMPARE(goes.joints.size(), std::size_t(1));
    QCOMPARE(goes.windows.size(), std::size_t(1));
    const StructureItem& on = *two->design.find(guest->id);
    QVERIFY(on.seat.starts_with(two->id.text()));
    QVERIFY(on.work->joints[0].on.starts_with(two->id.text()));
    QVERIFY(assembleDesign(two->design).ok());
    // Together again: the same paper, with the score back.
    const auto edgeOn = [](const PieceWork& work, const Vec2& at) {
      return *edgeAt(work, at, 0.5);
    };
    const auto one = joinedAlong(two->design, StructureId{1}, edgeOn(stays, {60, 20}), two->id,
                                 edgeOn(goes, {60, 20}));
    QVERIFY2(one.ok(), one ? "" : hinge::say(one.error()).c_str());
    const PieceWork& whole = *one->find(StructureId{1})->work;
    QVERIFY_NEAR(std::abs(signedArea_mm2(whole.outline)), 4000, 1e-6);
    QCOMPARE(scoreMarks(whole).size(), std::size_t(2));
    QVERIFY(!one->find(two->id));
    QVERIFY(one->find(guest->id)->seat.starts_with("s1/"));
    // What held one on the other is one sheet now; what holds them elsewhere stays.
    Design held = two->design;
    for (StructureItem& item : held.structures)
      if (item.id == two->id)
        item.work->joints.push_back(
            made("size 10 x 10; glue 5,5 on s1/panel-1 at 8,20").work.joints[0]);
    const auto grown =
        joinedAlong(held, StructureId{1}, edgeOn(stays, {60, 20}), two->id, edgeOn(goes, {60, 20}));
    QVERIFY2(grown.ok(), grown ? "" : hinge::say(grown.error()).c_str());
    QCOMPARE(grown->find(StructureId{1})->work->joints.size(), std::size_t(2));
    for (const PieceJoint& joint : grown->find(StructureId{1})->work->joints)
      QVERIFY(joint.on == "card/page-a");
    const auto uneven = joinedAlong(two->design, StructureId{1}, edgeOn(stays, {60, 20}), two->id,
                                    edgeOn(goes, {80, 0}));
    QVERIFY(uneven.ok()); // 40 on 40: the lower edge is as long
  }
  void whatCannotBePartedOrGrownTogetherIsRefused() {
    // A line that ends inside parts nothing.
    const Design cut = withPiece("size 100 x 40; cut 20,10 to 60,10");
    const auto refused = parted(cut, StructureId{1}, 0);
    QVERIFY(!refused && refused.error().message.key == "part.not-across");
    const Design odd = withPiece("size 30 x 25");
    auto pair = newSheet(odd);
    QVERIFY(pair.ok());
    const Design table = [&] {
      Design with = odd;
      ::add(with, "vfold", "gutter");
      return with;
    }();
    const StructureId sheet{1}, tabled{2}, none{9};
    for (const auto& [a, b] :
         {std::pair{sheet, sheet}, {sheet, none}, {none, sheet}, {sheet, tabled}, {tabled, sheet}})
      QCOMPARE(codeOf(joinedAlong(table, a, 0, b, 0)), std::string("work.missing/no-piece"));
    QCOMPARE(codeOf(parted(table, none, 0)), std::string("work.missing/no-piece"));
    QCOMPARE(codeOf(parted(table, tabled, 0)), std::string("work.missing/no-piece"));
    QCOMPARE(codeOf(parted(table, sheet, 0)), std::string("work.missing/no-piece"));
    QCOMPARE(codeOf(joinedAlong(pair->design, sheet, 9, pair->id, 0)),
             std::string("sheet.no-edge"));
    QCOMPARE(codeOf(joinedAlong(pair->design, sheet, 0, pair->id, 9)),
             std::string("sheet.no-edge"));
    const auto apart = joinedAlong(pair->design, StructureId{1}, 0, pair->id, 0);
    QVERIFY(!apart && apart.error().message.key == "join.edges");
  }

  // --- folding before glueing ----------------------------------------------------------------
  void aPieceRestsAsItWasFolded() {
    const Design d = withPiece("size 70 x 30; score 10 v folded 120, 60 m; "
                               "glue 5,15 on card/page-a at 60,40 turned -90");
    const auto assembly = assemble(d);
    const PanelIndex middle = assembly->findPanel("s1/panel-2");
    const auto lift = foldingOf(*assembly, middle);
    QVERIFY(lift.has_value());
    QVERIFY_NEAR(lift->least, radians(60), 1e-9);
    QCOMPARE(lift->panels.size(), std::size_t(2)); // the last panel goes along
    QVERIFY(!foldingOf(*assembly, assembly->findPanel("s1/panel-1")));
    const auto read = designFromJson(designToJson(d));
    QVERIFY(read.ok() && *read == d);
  }
  void theSearchBeginsWhereItWasFolded() {
    // A strip of equal halves between two pages can stand up or hang down; its maker folded it up.
    const char* piece = "size 100 x 20; score 10 v, 50 m, 90 v; "
                        "glue 5,10 on card/page-a at 60,30 by face turned 90; "
                        "glue 95,10 on card/page-b at 60,30 by face turned 90";
    const auto assembly = assemble(withPiece(piece));
    const Motion motion = Motion::trace(assembly);
    const SheetInWork sheet = made(piece);
    for (double folded : {100.0, 140.0}) {
      SheetInWork begun = sheet;
      begun.work.lines[1].folded_deg = folded;
      const auto d = withSheet(withPiece(piece), {StructureId{1}, 0}, begun);
      QVERIFY(d.ok());
      const auto other = assemble(*d);
      const Motion again = Motion::trace(other);
      QCOMPARE(again.impossible().size(), motion.impossible().size());
      QVERIFY_NEAR(*other->folds[other->findFold("s1/score-2")].start_rad, -radians(180 - folded),
                   1e-9);
    }
  }

  // --- places are read from the corner that was told -----------------------------------------
  void aStretchIsReadFromTheCorner() {
    const PieceWork work = made("size 100 x 60; corner at 7,9; score 40 v from 10 to 30; score "
                                "across 20 m from 5 to 95")
                               .work;
    QVERIFY_NEAR((work.lines[0].from - Vec2(47, 19)).norm(), 0, 1e-9);
    QVERIFY_NEAR((work.lines[0].to - Vec2(47, 39)).norm(), 0, 1e-9);
    QVERIFY_NEAR((work.lines[1].from - Vec2(12, 29)).norm(), 0, 1e-9);
    QVERIFY_NEAR((work.lines[1].to - Vec2(102, 29)).norm(), 0, 1e-9);
  }

  // --- the folded profile --------------------------------------------------------------------
  void aRidgeComesToWhereItIsWanted() {
    Design d = demo("steps-in-the-fold");
    d.structures.resize(1); // the braces hold it otherwise
    const StructureId id = d.structures.front().id;
    const auto profileOfIt = [&](const Design& design) {
      const auto assembly = assemble(design);
      const Motion motion = Motion::trace(assembly);
      return profileOf(*assembly, motion.poseAt(radians(90)), Iso3::Identity(), id,
                       *design.find(id)->work);
    };
    const auto before = profileOfIt(d);
    QVERIFY(before.has_value());
    QCOMPARE(before->corners.size(), std::size_t(7));
    // Scores that were drawn downwards are the same scores.
    Design downwards = d;
    for (WorkLine& line : downwards.structures.front().work->lines)
      std::swap(line.from, line.to);
    const auto same = profileOfIt(downwards);
    QVERIFY(same.has_value());
    for (std::size_t k = 0; k < before->corners.size(); ++k)
      QVERIFY_NEAR((same->corners[k] - before->corners[k]).norm(), 0, 1e-6);
    // A place near by is found again by its height and the angle under which it sees the others.
    const Vec2 a = before->corners[1], b = before->corners[3];
    const Vec2 wanted = before->corners[2] + Vec2(1.5, 2);
    const double angle_deg =
        degrees(std::acos((a - wanted).normalized().dot((b - wanted).normalized())));
    const auto higher = withRidge(*d.find(id)->work, *before, 1, {wanted.y(), angle_deg});
    QVERIFY2(higher.ok(), higher ? "" : hinge::say(higher.error()).c_str());
    const auto next = setWork(d, id, *higher);
    QVERIFY(next.ok());
    const auto widths = panelWidths_mm(*higher);
    QVERIFY_NEAR(widths[1], (wanted - a).norm(), 1e-6);
    QVERIFY_NEAR(widths[2], (wanted - b).norm(), 1e-6);
    const auto angle = withRidge(*d.find(id)->work, *before, 1, {std::nullopt, 100.0});
    QVERIFY(angle.ok());
    // Law of cosines: both panels meet at that angle over the line between their neighbours.
    const auto opened = panelWidths_mm(*angle);
    QVERIFY_NEAR((b - a).squaredNorm(),
                 opened[1] * opened[1] + opened[2] * opened[2] -
                     2 * opened[1] * opened[2] * std::cos(radians(100)),
                 1e-6);
    QVERIFY(!withRidge(*d.find(id)->work, *before, 1, {400.0, 170.0}));
  }
  void wishesOfARidgeAreRead() {
    const auto both = ridgeWish("40 high at 90", kMm);
    QVERIFY(both.ok() && *both->height_mm == 40 && *both->angle_deg == 90);
    const auto angle = ridgeWish("at 75deg", kMm);
    QVERIFY(angle.ok() && !angle->height_mm && *angle->angle_deg == 75);
    const auto inches = ridgeWish("1 1/2", LengthUnit::Inch);
    QVERIFY(inches.ok() && std::abs(*inches->height_mm - 38.1) < 1e-9);
    QVERIFY(!ridgeWish("", kMm) && !ridgeWish("40 at", kMm) && !ridgeWish("40 at 90 x", kMm));
  }
};

QTEST_APPLESS_MAIN(TestStrokes)
#include "test_strokes.moc"
