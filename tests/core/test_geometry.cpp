// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/geom/polygon.h"
#endif

using namespace hinge;

namespace {
const Polygon kL{{0, 0}, {80, 0}, {80, 60}, {50, 60}, {50, 20}, {0, 20}};
const Polygon kSquare{{0, 0}, {10, 0}, {10, 10}, {0, 10}};
} // namespace

class TestGeometry : public QObject {
  Q_OBJECT
private slots:
  void theHullHoldsWhenRoundingSetsCornersApart() {
    // Four corners of a rectangle, each twice with the noise of a rotation: the sorted order of the
    // doubles is not that of the corners.
    std::vector<Vec2> points;
    for (const Vec2& p : {Vec2(0, 0), Vec2(39, 0), Vec2(39, 91), Vec2(0, 91)})
      for (const Vec2& noise : {Vec2(0, 0), Vec2(3e-15, -2e-15), Vec2(-4e-15, 1e-15)})
        points.push_back(p + noise);
    const auto hull = convexHull(points);
    QCOMPARE(hull.size(), std::size_t(4));
    double area = 0;
    for (std::size_t k = 0; k < 4; ++k)
      area += 0.5 * cross2(hull[k], hull[(k + 1) % 4]);
    QVERIFY(std::abs(area - 39 * 91) < 1e-4);
  }
  void areaIsPositiveCounterClockwise() {
    QVERIFY_NEAR(signedArea_mm2(kSquare), 100, 1e-12);
    Polygon turned(kSquare.rbegin(), kSquare.rend());
    QVERIFY_NEAR(signedArea_mm2(turned), -100, 1e-12);
  }
  void convexPartsCoverTheSameArea() {
    const auto parts = convexParts(kL);
    double area = 0;
    for (const Polygon& part : parts) {
      area += signedArea_mm2(part);
      for (std::size_t i = 0; i < part.size(); ++i)
        QVERIFY(cross2(part[(i + 1) % part.size()] - part[i],
                       part[(i + 2) % part.size()] - part[(i + 1) % part.size()]) > -1e-9);
    }
    QVERIFY_NEAR(area, signedArea_mm2(kL), 1e-9);
    QCOMPARE(parts.size(), std::size_t(2));
  }
  void aPolygonWithStraightCornersStaysWhole() {
    Polygon p = kSquare;
    QVERIFY(insertOnOutline(p, Vec2(5, 0)));
    QCOMPARE(p.size(), std::size_t(5));
    QVERIFY(isSimple(p));
    QCOMPARE(convexParts(p).size(), std::size_t(1));
  }
  void crossingOutlinesAreFound_data() {
    QTest::addColumn<int>("which");
    QTest::addColumn<bool>("simple");
    QTest::newRow("square") << 0 << true;
    QTest::newRow("bow tie") << 1 << false;
    QTest::newRow("corner on an edge") << 2 << false;
    QTest::newRow("folds back onto itself") << 3 << false;
    QTest::newRow("repeated corner") << 4 << false;
    QTest::newRow("two corners") << 5 << false;
  }
  void crossingOutlinesAreFound() {
    QFETCH(int, which);
    QFETCH(bool, simple);
    const std::vector<Polygon> all{kSquare,
                                   {{0, 0}, {10, 10}, {10, 0}, {0, 10}},
                                   {{0, 0}, {10, 0}, {10, 10}, {5, 0}, {0, 10}},
                                   {{0, 0}, {10, 0}, {4, 0}, {4, 5}},
                                   {{0, 0}, {10, 0}, {10, 0}, {0, 10}},
                                   {{0, 0}, {1, 1}}};
    QCOMPARE(isSimple(all[static_cast<std::size_t>(which)]), simple);
  }
  void holesAreLeftOut() {
    const Polygon sheet{{0, 0}, {40, 0}, {40, 30}, {0, 30}},
        window{{10, 10}, {16, 10}, {16, 18}, {10, 18}};
    const auto one = withHole(sheet, window);
    QVERIFY(one);
    QVERIFY_NEAR(area_mm2(*one), 1200 - 48, 1e-9);
    QVERIFY_NEAR(centroidOf(*one).x(), (1200 * 20 - 48 * 13) / 1152.0, 1e-9);
    QVERIFY(!contains(*one, {13, 14}));
    QVERIFY(contains(*one, {9, 14}));
    QVERIFY_NEAR(distanceToOutline(*one, {8, 14}), 2, 1e-9);
    const auto two = withHole(*one, {{20, 8}, {30, 12}, {24, 22}});
    QVERIFY(two);
    QCOMPARE(two->rim.size(), std::size_t(4));
    QCOMPARE(two->holes.size(), std::size_t(2));
    for (const Polygon& hole : two->holes)
      QVERIFY(signedArea_mm2(hole) < 0);
    QCOMPARE(edgesOf(*two).size(), std::size_t(4 + 4 + 3));
    double area = 0;
    for (const Polygon& part : convexParts(*two))
      area += signedArea_mm2(part);
    QVERIFY_NEAR(area, area_mm2(*two), 1e-6);
    QVERIFY_NEAR(overlapArea_mm2(*two, window), 0, 1e-9);
  }
  void holesKeepPaperBesideThem() {
    const Polygon sheet{{0, 0}, {40, 0}, {40, 30}, {0, 30}};
    QVERIFY(!withHole(sheet, {{0.5, 10}, {10, 10}, {10, 20}, {0.5, 20}}));
    QVERIFY(!withHole(sheet, {{-5, 10}, {10, 10}, {10, 20}, {-5, 20}}));
    QVERIFY(!withHole(sheet, {{-5, -5}, {45, -5}, {45, 35}, {-5, 35}}));
    const auto one = withHole(sheet, {{10, 10}, {20, 10}, {20, 20}, {10, 20}});
    QVERIFY(one);
    QVERIFY(!withHole(*one, {{18, 12}, {26, 12}, {26, 18}, {18, 18}}));
    QVERIFY(!withHole(*one, {{8, 8}, {22, 8}, {22, 22}, {8, 22}}));
    QVERIFY(!withHole(*one, {{12, 12}, {18, 12}, {18, 18}, {12, 18}}));
    QVERIFY(withHole(*one, {{22, 12}, {26, 12}, {26, 18}, {22, 18}}));
  }
  void clippingThroughACornerLeavesNoDoubles() {
    const Polygon half = clipToHalfPlane(kSquare, Vec2(0, 0), Vec2(1, -1));
    QCOMPARE(half.size(), std::size_t(3));
    QVERIFY_NEAR(signedArea_mm2(half), 50, 1e-9);
    QVERIFY(clipToHalfPlane(kSquare, Vec2(11, 0), Vec2(1, 0)).empty());
  }
  void overlapOfConvexPolygons() {
    const Polygon other{{5, 5}, {15, 5}, {15, 15}, {5, 15}};
    QVERIFY_NEAR(signedArea_mm2(intersectConvex(kSquare, other)), 25, 1e-9);
    const Polygon beside{{10, 0}, {20, 0}, {20, 10}, {10, 10}};
    QVERIFY(intersectConvex(kSquare, beside).empty());
  }
  void pointsOnTheEdgeCountWithTheMargin() {
    QVERIFY(contains(kL, Vec2(60, 40)));
    QVERIFY(!contains(kL, Vec2(20, 40)));
    QVERIFY(contains(kL, Vec2(-0.5, 10), 0.6));
    QVERIFY(!contains(kL, Vec2(-0.5, 10), 0.4));
  }
  void reachRunsToTheFarEdge() {
    QVERIFY_NEAR(reachInside(kL, Vec2(0, 10), Vec2(1, 0)), 80, 1e-9);
    QVERIFY_NEAR(reachInside(kSquare, Vec2(5, 5), Vec2(0, -1)), 5, 1e-9);
  }
};

QTEST_APPLESS_MAIN(TestGeometry)
#include "test_geometry.moc"
