// SPDX-License-Identifier: GPL-3.0-or-later
#include "seeds.h"
#include "support.h"
#ifndef Q_MOC_RUN
#include "core/geom/border.h"
#include "core/geom/region.h"
#include "core/geom/subdivision.h"
#include "core/production/flat_pattern.h"
#include "core/production/flat_piece.h"
#include <random>
#endif

using namespace hinge;
using namespace hinge::test;

namespace {

Polygon box(double x, double y, double w, double h) {
  return {{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}};
}
double areaOf(const std::vector<Region>& all) {
  double area = 0;
  for (const Region& region : all)
    area += area_mm2(region);
  return area;
}
const Region kFrame = *withHole(box(0, 0, 40, 30), box(10, 10, 12, 8));

/// What an even count of points finds of an area: an independent measure, rough but unbiased.
double sampledArea_mm2(const std::vector<Region>& all, double step_mm) {
  double area = 0;
  for (double x = -50.5 * step_mm; x < 100; x += step_mm)
    for (double y = -50.5 * step_mm; y < 100; y += step_mm)
      for (const Region& region : all)
        area += contains(region, {x, y}) ? step_mm * step_mm : 0;
  return area;
}

} // namespace

class TestRegions : public QObject {
  Q_OBJECT
private slots:
  void sumsAndDifferencesKeepTheirAreas() {
    const Region other = box(30, 20, 20, 20);
    QVERIFY_NEAR(area_mm2(kFrame), 1200 - 96, 1e-6);
    QVERIFY_NEAR(areaOf(united({kFrame, other})), 1104 + 400 - 100, 1e-6);
    QVERIFY_NEAR(areaOf(common(kFrame, other)), 100, 1e-6);
    QVERIFY_NEAR(areaOf(without(kFrame, {other})), 1104 - 100, 1e-6);
    QVERIFY_NEAR(overlapArea_mm2(kFrame, other), 100, 1e-6);
    QVERIFY_NEAR(overlapArea_mm2(kFrame, box(10, 10, 12, 8)), 0, 1e-6);
    QCOMPARE(overlapArea_mm2(kFrame, box(50, 0, 5, 5)), 0.0);
  }
  void whatIsTakenFromTheMiddleLeavesAHole() {
    const auto left = without(box(0, 0, 30, 30), {box(5, 5, 4, 4), box(20, 20, 5, 5)});
    QCOMPARE(left.size(), std::size_t(1));
    QCOMPARE(left.front().holes.size(), std::size_t(2));
    QVERIFY(signedArea_mm2(left.front().rim) > 0);
    for (const Polygon& hole : left.front().holes)
      QVERIFY(signedArea_mm2(hole) < 0);
  }
  void whatCutsThroughLeavesTwoParts() {
    const auto parts = without(box(0, 0, 30, 30), {box(-5, 10, 40, 5)});
    QCOMPARE(parts.size(), std::size_t(2));
    QVERIFY_NEAR(areaOf(parts), 30 * 25, 1e-6);
  }
  void anIslandInAHoleIsARegionOfItsOwn() {
    const auto all = united({kFrame, box(13, 12, 4, 3)});
    QCOMPARE(all.size(), std::size_t(2));
    QVERIFY_NEAR(areaOf(all), 1104 + 12, 1e-6);
  }
  void bordersAreEvenRoundHolesToo() {
    const auto mat = offset(kFrame, -2);
    QCOMPARE(mat.size(), std::size_t(1));
    QCOMPARE(mat.front().holes.size(), std::size_t(1));
    QVERIFY_NEAR(area_mm2(mat.front()), 36 * 26 - 16 * 12, 1e-6);
    for (const auto& [from, to] : edgesOf(mat.front()))
      QVERIFY_NEAR(distanceToOutline(kFrame, 0.5 * (from + to)), 2, 1e-5);
    QVERIFY_NEAR(areaOf(offset(kFrame, 1)), 42 * 32 - 10 * 6, 1e-6);
    // Rounded corners outside: the edges and four quarters of a disc.
    const auto round = offset(box(0, 0, 10, 10), 3, CornerStyle::Round);
    // A sagitta of 0.01 mm along an arc of 19 mm.
    QVERIFY_NEAR(areaOf(round), 100 + 4 * 30 + kPi * 9, 0.19);
    QVERIFY(offset(box(0, 0, 10, 3), -2).empty());
    // A neck narrower than twice the border parts the mat.
    const Polygon neck{{0, 0},   {10, 0},  {10, 4}, {20, 4}, {20, 0},  {30, 0},
                       {30, 10}, {20, 10}, {20, 6}, {10, 6}, {10, 10}, {0, 10}};
    QCOMPARE(offset(neck, -1.5).size(), std::size_t(2));
  }
  /// Round outlines at random, notches among them, against the distance of every point.
  void bordersAreAsWideAsTheyAre_data() { rowsOfSeeds(60); }
  void bordersAreAsWideAsTheyAre() {
    QFETCH(unsigned, seed);
    std::mt19937 random(seed);
    const auto between = [&](double low, double high) {
      return low + (high - low) * random() / 4294967296.0;
    };
    Polygon rim;
    const int corners = 5 + static_cast<int>(random() % 5);
    for (int k = 0; k < corners; ++k) {
      const double angle = 2 * kPi * (k + between(-0.2, 0.2)) / corners, arm = between(15, 45);
      rim.push_back(Vec2(50, 50) + arm * Vec2(std::cos(angle), std::sin(angle)));
    }
    const double width = between(1, 6);
    const bool even = seed % 3 != 0;
    const auto border = [&](const Edge& edge) {
      return even ? width : width * (1 + 0.5 * (std::lround(edge.first.x() * 100) % 3));
    };
    const CornerStyle corner = even || seed % 2 == 0 ? CornerStyle::Round : CornerStyle::Sharp;
    const auto left = withoutBorder(Region(rim), border, corner);
    for (double x = 0.5; x < 100; x += 1.3)
      for (double y = 0.5; y < 100; y += 1.3) {
        const Vec2 p(x, y);
        const bool stays =
            std::ranges::any_of(left, [&](const Region& part) { return contains(part, p, 0); });
        const double off = distanceToOutline(Region(rim), p);
        if (!contains(rim, p)) {
          QVERIFY(!stays);
          continue;
        }
        bool taken = false; // square to an edge, within its border
        double nearest = 1e9;
        for (const Edge& edge : edgesOf(Region(rim))) {
          const Vec2 along = (edge.second - edge.first).normalized();
          const double t = along.dot(p - edge.first), far = cross2(along, p - edge.first);
          nearest = std::min(
              nearest, std::abs(distanceToSegment(p, edge.first, edge.second) - border(edge)));
          taken = taken ||
                  (t > 0 && t < (edge.second - edge.first).norm() && far > 0 && far < border(edge));
        }
        // Round about a corner that stands into the paper, when both its borders are as wide.
        const auto edges = edgesOf(Region(rim));
        for (std::size_t k = 0; corner == CornerStyle::Round && k < edges.size(); ++k) {
          const Edge &one = edges[k], &next = edges[(k + 1) % edges.size()];
          if (cross2(one.second - one.first, next.second - next.first) < -1e-3 &&
              std::abs(border(one) - border(next)) < 1e-9 &&
              (p - one.second).norm() < border(one) - 0.05)
            QVERIFY(!stays);
        }
        if (nearest < 0.05) continue; // on the line itself
        if (taken) QVERIFY(!stays);
        if (even) QCOMPARE(stays, off > width);
        if (off > 2 * width * 6) QVERIFY(stays);
      }
  }
  void pointsFallIntoPaperOrHoles() {
    QVERIFY(contains(kFrame, {5, 5}));
    QVERIFY(!contains(kFrame, {15, 14}));
    QVERIFY(contains(kFrame, {10.5, 14}, 0.6)); // within the margin of the hole's edge
    QVERIFY(!contains(kFrame, {41, 14}));
    QVERIFY_NEAR(distanceToOutline(kFrame, {16, 14}), 4, 1e-12);
  }
  void partsAreSimpleAndCoverTheRegion() {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> size(2, 7), at(3, 80);
    for (int k = 0; k < 60; ++k) {
      Region region = box(0, 0, 100, 90);
      for (int n = 0; n < 8; ++n)
        if (auto with = withHole(region, box(at(random), at(random), size(random), size(random))))
          region = *with;
      std::vector<Edge> cuts{{{0, 44.5}, {1 + size(random), 44.5}}};
      const auto faces = subdivide(region, partingLines(region, cuts)).faces;
      double area = 0;
      for (const Region& face : faces) {
        QVERIFY(isSimple(face.rim) && face.holes.empty());
        area += area_mm2(face);
      }
      QVERIFY_NEAR(area, area_mm2(region), 1e-4);
      double convex = 0;
      for (const Polygon& part : convexParts(region))
        convex += signedArea_mm2(part);
      QVERIFY_NEAR(convex, area_mm2(region), 1e-4);
    }
  }
  void clippingAgreesWithCounting() {
    std::mt19937 random(11);
    std::uniform_real_distribution<double> angle(0, 2 * kPi), reach(8, 30), at(20, 60);
    const auto star = [&] {
      const Vec2 middle(at(random), at(random));
      Polygon p;
      for (int k = 0; k < 9; ++k)
        p.push_back(middle +
                    reach(random) * Vec2(std::cos(k * 2 * kPi / 9), std::sin(k * 2 * kPi / 9)));
      return p;
    };
    for (int k = 0; k < 12; ++k) {
      const Region a = star(), b = star();
      QVERIFY_NEAR(areaOf(common(a, b)), sampledArea_mm2(common(a, b), 0.5), 12);
      const double both = areaOf(common(a, b));
      QVERIFY_NEAR(areaOf(united({a, b})), area_mm2(a) + area_mm2(b) - both, 1e-3);
      QVERIFY_NEAR(areaOf(without(a, {b})), area_mm2(a) - both, 1e-3);
    }
  }
  void aMirrorKeepsTheWayRound() {
    const Region turned = mapped(kFrame, rotationAboutLine(Vec3::Zero(), Vec3::UnitY(), kPi));
    QVERIFY(signedArea_mm2(turned.rim) > 0);
    QVERIFY(signedArea_mm2(turned.holes.front()) < 0);
    QVERIFY_NEAR(boundsOf(turned).low.x(), -40, 1e-9);
  }
  void aPatternNamesEveryEdge() {
    // A stair cut from the card, and a window in a page: all kinds of edges but bare cuts.
    Design d = card();
    add(d, "step", "gutter", {{"position", 60}});
    add(d, "window", "card/page-b", {{"position", 150}, {"up", 90}, {"width", 16}, {"height", 20}});
    const auto assembly = assemble(d);
    const FlatPattern pattern = flatPattern(*assembly, PieceIndex(0));
    std::map<EdgeKind, double> length;
    for (const PatternEdge& edge : pattern.edges) {
      const double l = (pattern.vertices[edge.from] - pattern.vertices[edge.to]).norm();
      length[edge.kind] += l;
      QCOMPARE(edge.beyond.has_value(), edge.kind != EdgeKind::Border);
      QCOMPARE(edge.fold.valid(), edge.kind == EdgeKind::Fold);
    }
    double folds = 0, cut = 0;
    for (const Fold& fold : assembly->folds)
      if (assembly->panels[fold.left].piece == PieceIndex(0)) folds += (fold.to - fold.from).norm();
    for (const FlatLine& line : flatPiece(*assembly, PieceIndex(0)).lines)
      if (line.kind == LineKind::Cut)
        for (std::size_t k = 0; k + (line.closed ? 0 : 1) < line.corners.size(); ++k)
          cut += (line.corners[(k + 1) % line.corners.size()] - line.corners[k]).norm();
    QVERIFY_NEAR(length[EdgeKind::Fold], folds, 1e-6);
    QVERIFY_NEAR(length[EdgeKind::Border] + length[EdgeKind::Cut], cut, 1e-6);
    QVERIFY(length[EdgeKind::Cut] > 10);
    QVERIFY(length[EdgeKind::Join] > 10);
    // Euler: vertices less edges and faces, the hole counted as a face; the piece hangs together.
    QCOMPARE(static_cast<int>(pattern.vertices.size()) - static_cast<int>(pattern.edges.size()) +
                 static_cast<int>(pattern.faces.size()) + 1,
             1);
  }
};

QTEST_APPLESS_MAIN(TestRegions)
#include "test_regions.moc"
