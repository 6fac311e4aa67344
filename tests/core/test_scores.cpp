// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/flatten.h"
#include "core/paper/envelope.h"
#include "core/pieces/score_edits.h"
#include "core/pieces/sheet_edits.h"
#include "core/units/lattice.h"
#include "support.h"

using namespace hinge;
using namespace hinge::test;

// What hands do to the lines of a sheet, and curves as chords, against numbers from the drawing
// board.

namespace {

using Kind = WorkLine::Kind;

PieceWork sheet(std::vector<WorkLine> lines, Polygon outline = {}) {
  PieceWork work;
  work.outline = outline.empty() ? Polygon{{0, 0}, {100, 0}, {100, 60}, {0, 60}} : outline;
  work.lines = std::move(lines);
  return work;
}

void isLine(const WorkLine& line, Kind kind, const Vec2& from, const Vec2& to) {
  QVERIFY2(line.kind == kind && (line.from - from).norm() < 1e-9 && (line.to - to).norm() < 1e-9,
           qPrintable(QStringLiteral("%1: %2,%3 to %4,%5")
                          .arg(static_cast<int>(line.kind))
                          .arg(line.from.x())
                          .arg(line.from.y())
                          .arg(line.to.x())
                          .arg(line.to.y())));
}

/// How far points between the chords lie off a curve that `off` measures, at most.
template <class Off> double farthest(const std::vector<Vec2>& points, const Off& off) {
  double worst = 0;
  for (std::size_t k = 0; k + 1 < points.size(); ++k)
    for (double share : {0.0, 0.25, 0.5, 0.75, 1.0})
      worst = std::max(worst, off(Vec2(points[k] + share * (points[k + 1] - points[k]))));
  return worst;
}

} // namespace

class TestScores : public QObject {
  Q_OBJECT
private slots:
  void aScoreEndsWhereTheEdgeIs() {
    const PieceWork work = sheet({}, {{0, 0}, {100, 20}, {100, 80}, {0, 40}});
    const auto added = withScoreAdded(work, 25, Kind::Valley);
    QVERIFY2(added.ok(), added ? "" : say(added.error()).c_str());
    isLine(added->lines[0], Kind::Valley, {25, 5}, {25, 50});
  }
  void linesMove() {
    const PieceWork work =
        sheet({{Kind::Valley, {30, 0}, {30, 60}}, {Kind::Cut, {50, 20}, {60, 20}}});
    const auto moved = withLineMoved(work, 0, {12, 5});
    QVERIFY(moved);
    isLine(moved->lines[0], Kind::Valley, {42, 0}, {42, 60}); // its ends go on to the rim
    isLine(moved->lines[1], Kind::Cut, {50, 20}, {60, 20});
    const auto cut = withLineMoved(work, 1, {12, 5});
    QVERIFY(cut);
    isLine(cut->lines[1], Kind::Cut, {62, 25}, {72, 25});
    QCOMPARE(codeOf(withLineMoved(work, 0, {80, 0})), std::string("work.score-outside"));
    QCOMPARE(codeOf(withLineMoved(work, 1, {45, 0})), std::string("work.score-outside"));
    const auto end = withEndMoved(work, 1, true, {60, 35});
    QVERIFY(end);
    isLine(end->lines[1], Kind::Cut, {50, 20}, {60, 35});
    isLine(withEndMoved(work, 1, false, {45, 10})->lines[1], Kind::Cut, {45, 10}, {60, 20});
  }

  void onSlantedRimsLinesGrowAndShrink() {
    const PieceWork work =
        sheet({{Kind::Valley, {30, 0}, {30, 30}}}, {{0, 0}, {100, 0}, {100, 100}});
    const auto moved = withLineMoved(work, 0, {20, 0});
    QVERIFY(moved);
    isLine(moved->lines[0], Kind::Valley, {50, 0}, {50, 50});
  }

  void linesLean() {
    const PieceWork work =
        sheet({{Kind::Valley, {30, 0}, {30, 60}}, {Kind::Mountain, {70, 50}, {70, 10}}});
    QVERIFY_NEAR(leaning_deg(work.lines[0]), 0, 1e-12);
    const auto leaning = withLineLeaning(work, 0, 30);
    QVERIFY(leaning);
    isLine(leaning->lines[0], Kind::Valley, {30, 0}, {30 + 60 / std::sqrt(3.0), 60});
    QVERIFY_NEAR(leaning_deg(leaning->lines[0]), 30, 1e-9);
    const auto other = withLineLeaning(work, 1, -30); // drawn from above, inside the sheet
    QVERIFY(other);
    isLine(other->lines[1], Kind::Mountain, {50, 10 + 20 * std::sqrt(3.0)}, {70, 10});
    QVERIFY_NEAR(leaning_deg(other->lines[1]), -30, 1e-9);
    QVERIFY_NEAR(leaning_deg({Kind::Cut, {10, 0}, {0, 0}}), -90, 1e-9);
  }

  void linesRepeat() {
    const PieceWork work =
        sheet({{Kind::Valley, {30, 0}, {30, 60}}, {Kind::Mountain, {0, 20}, {100, 20}}});
    const auto three = withRepeated(work, 0, 20, 3, true);
    QVERIFY(three && three->lines.size() == 5);
    isLine(three->lines[2], Kind::Mountain, {50, 0}, {50, 60});
    isLine(three->lines[3], Kind::Valley, {70, 0}, {70, 60});
    isLine(three->lines[4], Kind::Mountain, {90, 0}, {90, 60});
    const auto filled = withRepeated(work, 0, -12, 0, false); // 18 and 6 have room, -6 has none
    QVERIFY(filled && filled->lines.size() == 4);
    isLine(filled->lines[3], Kind::Valley, {6, 0}, {6, 60});
    const auto level = withRepeated(work, 1, 15, 0, false);
    QVERIFY(level && level->lines.size() == 4);
    isLine(level->lines[2], Kind::Mountain, {0, 35}, {100, 35});
    QCOMPARE(withRepeated(work, 0, 10, 0, false)->lines.size(), std::size_t(2 + 6)); // 100 is rim
    QCOMPARE(codeOf(withRepeated(work, 0, 20, 4, false)), std::string("sheet.no-room"));
    QCOMPARE(codeOf(withRepeated(work, 0, 0, 3, false)), std::string("sheet.no-room"));
    QCOMPARE(codeOf(withRepeated(work, 0, 90, 0, false)), std::string("sheet.no-room"));
  }

  void bothSidesAlike() {
    PieceWork work =
        sheet({{Kind::Valley, {50, 0}, {50, 60}}, {Kind::Mountain, {20, 0}, {30, 60}}});
    work.windows = {{{10, 20}, {15, 20}, {15, 40}, {10, 40}}};
    const auto made = withBothSidesAlike(work);
    QVERIFY(made && made->lines.size() == 3 && made->windows.size() == 2);
    isLine(made->lines[2], Kind::Mountain, {80, 0}, {70, 60});
    QVERIFY((centroidOf(made->windows[1]) - Vec2(87.5, 30)).norm() < 1e-9);
    QVERIFY_NEAR(signedArea_mm2(made->windows[1]), 100, 1e-9); // it runs the same way round
    QCOMPARE(codeOf(withBothSidesAlike(*made)), std::string("sheet.alike"));
    // A window in the same place of another size is another one.
    PieceWork uneven = *made;
    uneven.windows[1] = {{86, 20}, {89, 20}, {89, 40}, {86, 40}};
    QCOMPARE(withBothSidesAlike(uneven)->windows.size(), std::size_t(4));
  }

  void stretchesAcross() {
    const PieceWork work = sheet({}, {{0, 0}, {100, 0}, {80, 40}, {20, 40}});
    const auto up = acrossAt(work, 10);
    QVERIFY(up && (up->first - Vec2(10, 0)).norm() < 1e-9);
    QVERIFY((up->second - Vec2(10, 20)).norm() < 1e-9);
    const auto along = alongAt(work, 10);
    QVERIFY(along && (along->first - Vec2(5, 10)).norm() < 1e-9);
    QVERIFY((along->second - Vec2(95, 10)).norm() < 1e-9);
    QVERIFY(!acrossAt(work, 101) && !acrossAt(work, -1) && !alongAt(work, 41));
  }

  void theNearestLine() {
    const PieceWork work = sheet({{Kind::Valley, {30, 0}, {30, 60}},
                                  {Kind::Cut, {30, 20}, {60, 20}},
                                  {Kind::Cut, {30, 20}, {60, 20}}});
    QVERIFY(lineAt(work, {29.6, 50}) == 0u && !lineAt(work, {29.4, 50}));
    QVERIFY(lineAt(work, {29.4, 50}, 1) == 0u);
    QVERIFY(lineAt(work, {40, 20.2}) == 2u); // of two the one put in last
    QVERIFY(lineAt(work, {32, 21.5}, 3) == 2u);
    QVERIFY(lineAt(work, {31, 23}, 3) == 0u);
  }

  void sectionsFoldTheOtherWay() {
    const PieceWork work = sheet({{Kind::Valley, {50, 0}, {50, 60}},
                                  {Kind::Mountain, {90, 0}, {90, 60}},
                                  {Kind::Cut, {40, 5}, {60, 5}}});
    const auto made = withReversed(work, 30, 80, 20, 40);
    QVERIFY(made && made->lines.size() == 9);
    isLine(made->lines[0], Kind::Valley, {50, 0}, {50, 20});
    isLine(made->lines[1], Kind::Mountain, {60, 20}, {60, 40}); // 20 from the other end
    isLine(made->lines[2], Kind::Valley, {50, 40}, {50, 60});
    isLine(made->lines[3], Kind::Mountain, {90, 0}, {90, 60});
    isLine(made->lines[4], Kind::Cut, {40, 5}, {60, 5});
    isLine(made->lines[5], Kind::Valley, {30, 20}, {30, 40}); // scored like the one they span
    isLine(made->lines[6], Kind::Valley, {80, 20}, {80, 40});
    isLine(made->lines[7], Kind::Cut, {30, 20}, {80, 20});
    isLine(made->lines[8], Kind::Cut, {30, 40}, {80, 40});
    QCOMPARE(codeOf(withReversed(work, 55, 80, 20, 40)), std::string("sheet.reverse/nothing"));
    QCOMPARE(codeOf(withReversed(work, 30, 30.5, 20, 40)), std::string("sheet.reverse/order"));
    QCOMPARE(codeOf(withReversed(work, 30, 80, 40, 20)), std::string("sheet.reverse/order"));
  }

  /// An end that lies on a score folds in that score: no second line is laid over it.
  void sectionsThatEndOnAScore() {
    const PieceWork work = sheet({{Kind::Mountain, {30, 0}, {30, 60}},
                                  {Kind::Valley, {50, 0}, {50, 60}},
                                  {Kind::Mountain, {80, 0}, {80, 25}}});
    const auto made = withReversed(work, 30, 80, 20, 40);
    QVERIFY(made && made->lines.size() == 8);
    isLine(made->lines[0], Kind::Mountain, {30, 0}, {30, 60});
    isLine(made->lines[4], Kind::Mountain, {80, 0}, {80, 25});
    isLine(made->lines[5], Kind::Valley, {80, 25}, {80, 40}); // where it was not scored yet
    isLine(made->lines[6], Kind::Cut, {30, 20}, {80, 20});
    isLine(made->lines[7], Kind::Cut, {30, 40}, {80, 40});
  }

  void arcsAsChords() {
    std::vector<Vec2> points{{25, 3}};
    addArc(points, {5, 3}, {20, 0}, {0, 20}, 0, kPi, 0.05);
    QVERIFY((points.back() - Vec2(-15, 3)).norm() < 1e-9);
    QCOMPARE(points.size(), std::size_t(1 + 23)); // chords of 8.1 degrees lie 0.05 mm off
    const double off =
        farthest(points, [](const Vec2& p) { return std::abs((p - Vec2(5, 3)).norm() - 20); });
    QVERIFY(off <= 0.05 && off > 0.02);
    // An ellipse, the other way round.
    std::vector<Vec2> flat{{0, 10}};
    addArc(flat, {0, 0}, {30, 0}, {0, 10}, kPi / 2, -kPi / 2, 0.02);
    QVERIFY((flat.back() - Vec2(0, -10)).norm() < 1e-9);
    for (const Vec2& p : flat)
      QVERIFY_NEAR(p.x() * p.x() / 900 + p.y() * p.y() / 100, 1, 1e-9);
    QVERIFY(flat[flat.size() / 2].x() > 29);
  }

  void bulgesAsChords() {
    // A quarter of a circle of 10 mm about (0, 0): the tangent of 22.5 degrees.
    std::vector<Vec2> points{{10, 0}};
    addBulge(points, {10, 0}, {0, 10}, std::tan(kPi / 8), 0.01);
    for (const Vec2& p : points)
      QVERIFY_NEAR(p.norm(), 10, 1e-9);
    QVERIFY(points.back() == Vec2(0, 10) && points.size() > 5);
    // Turned the other way it bends to the other side.
    std::vector<Vec2> other{{10, 0}};
    addBulge(other, {10, 0}, {0, 10}, -std::tan(kPi / 8), 0.01);
    for (const Vec2& p : other)
      QVERIFY_NEAR((p - Vec2(10, 10)).norm(), 10, 1e-9);
    std::vector<Vec2> straight{{10, 0}};
    addBulge(straight, {10, 0}, {0, 10}, 0, 0.01);
    QCOMPARE(straight.size(), std::size_t(2));
  }

  void curvesAsChords() {
    const Vec2 a(0, 0), b(0, 40), c(60, 40), d(60, 0);
    std::vector<Vec2> points{a};
    addCubic(points, a, b, c, d, 0.05);
    QVERIFY(points.back() == d && points.size() > 8 && points.size() < 70);
    const auto at = [&](double t) {
      const double s = 1 - t;
      return Vec2(s * s * s * a + 3 * s * s * t * b + 3 * s * t * t * c + t * t * t * d);
    };
    QVERIFY(farthest(points, [&](const Vec2& p) {
              double least = 1e300;
              for (int k = 0; k <= 4000; ++k)
                least = std::min(least, (at(k / 4000.0) - p).norm());
              return least;
            }) <= 0.06);
    std::vector<Vec2> level{a};
    addCubic(level, a, {20, 0}, {40, 0}, {60, 0}, 0.05);
    QCOMPARE(level.size(), std::size_t(2));
    // The same curve as a spline with its knots at the ends.
    std::vector<Vec2> spline;
    addSpline(spline, {a, b, c, d}, {0, 0, 0, 0, 1, 1, 1, 1}, 3, 0.05);
    QVERIFY(spline.front() == a && (spline.back() - d).norm() < 1e-9);
    QVERIFY((spline[spline.size() / 2] - at(0.5)).norm() < 1e-9);
    QVERIFY((spline[spline.size() / 4] - at(0.25)).norm() < 1e-9);
    // Two spans: in its middle knot it is where the two middle control points meet.
    std::vector<Vec2> two;
    addSpline(two, {{0, 0}, {10, 20}, {30, 20}, {40, 0}}, {0, 0, 0, 0.5, 1, 1, 1}, 2, 0.05);
    QVERIFY((two[two.size() / 2] - Vec2(20, 20)).norm() < 1e-9);
    std::vector<Vec2> unfit;
    addSpline(unfit, {a, b, c, d}, {0, 1}, 3, 0.05);
    QCOMPARE(unfit.size(), std::size_t(4));
  }

  void envelopesAndLattices() {
    const EnvelopeNeed need = envelopeFor(100, 150, 2, 1.5);
    QVERIFY_NEAR(need.long_mm, 155, 1e-9);
    QVERIFY_NEAR(need.short_mm, 105, 1e-9);
    QVERIFY_NEAR(shortfall_mm(envelopeByKey("c6"), need), 0, 1e-12);
    QVERIFY_NEAR(shortfall_mm(envelopeByKey("c6"), envelopeFor(160, 100, 2, 1.5)), 3, 1e-9);
    QVERIFY_NEAR(shortfall_mm(envelopeByKey("dl"), envelopeFor(120, 100, 2, 1.5)), 0, 1e-9);
    QVERIFY_NEAR(shortfall_mm(envelopeByKey("dl"), envelopeFor(120, 112, 2, 1.5)), 7, 1e-9);
    QVERIFY_NEAR(shortfall_mm(envelopeByKey("to-measure"), need), 0, 1e-12);
    QVERIFY(envelopeByKey("no such one").key == "to-measure");
    QVERIFY_NEAR(onLattice(10.3), 10.5, 1e-12);
    QVERIFY_NEAR(downToLattice(10.9), 10.5, 1e-12);
    QVERIFY_NEAR(onLattice(25, latticeStep_mm(LengthUnit::Inch)), 25.4, 1e-9);
    QVERIFY_NEAR(onLattice(8, kLatticeInch_mm), 25.4 * 5 / 16, 1e-9);
    QVERIFY_NEAR(latticeStep_mm(LengthUnit::Millimetre), 0.5, 1e-12);
  }
};

QTEST_APPLESS_MAIN(TestScores)
#include "test_scores.moc"
