// SPDX-License-Identifier: GPL-3.0-or-later
#include "dense_contact.h"
#include "random_designs.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/contact/contact.h"
#include <random>
#endif

using namespace hinge;
using namespace hinge::test;

namespace {
std::vector<Vec3> rectangle(const Vec3& o, const Vec3& u, const Vec3& v) {
  return {o, o + u, o + u + v, o + v};
}
const std::vector<Vec3> kPage = rectangle({0, 0, 0}, {80, 0, 0}, {0, 60, 0});
} // namespace

class TestContact : public QObject {
  Q_OBJECT
private slots:
  void depthOfTwoPlates_data() {
    QTest::addColumn<int>("which");
    QTest::addColumn<double>("depth_mm");
    QTest::newRow("standing on the page") << 0 << 0.0;
    QTest::newRow("half a millimetre through") << 1 << 0.5;
    QTest::newRow("15 mm through") << 2 << 15.0;
    QTest::newRow("lying on it") << 3 << 0.0;
    QTest::newRow("beside it") << 4 << 0.0;
    QTest::newRow("a corner pokes 3 mm") << 5 << 3.0;
    QTest::newRow("only the edges' ends meet") << 6 << 0.0;
  }
  void depthOfTwoPlates() {
    QFETCH(int, which);
    QFETCH(double, depth_mm);
    const Vec3 x(40, 0, 0), z(0, 0, 30);
    const double r = std::sqrt(0.5);
    const std::vector<std::vector<Vec3>> other{
        rectangle({20, 30, 0}, x, z),
        rectangle({20, 30, -0.5}, x, z),
        rectangle({20, 30, -15}, x, z),
        rectangle({20, 10, 0}, x, {0, 20, 0}),
        rectangle({100, 30, -5}, x, z),
        rectangle({40, 30, -3}, {40 * r, 0, 40 * r}, {-30 * r, 0, 30 * r}),
        rectangle({80, 60, -10}, {0, 20, 0}, z)};
    Vec3 place = Vec3::Zero();
    const double depth = crossingDepth(kPage, other[static_cast<std::size_t>(which)], &place);
    QVERIFY_NEAR(depth, depth_mm, 1e-9);
    QVERIFY_NEAR(crossingDepth(other[static_cast<std::size_t>(which)], kPage), depth, 1e-9);
    if (depth > 0) QVERIFY_NEAR(place.z(), 0, 1e-9);
  }
  void neighboursAndGluedFacesAreNoContacts() {
    Design d = card();
    add(d, "vfold", "gutter", {{"position", 35}, {"alpha", 62}, {"gamma1", 80}});
    add(d, "box", "gutter", {{"position", 90}});
    add(d, "box", "s2/ridge", {{"a", 12}, {"c", 30}});
    const ContactReport report = findContacts(Motion::trace(assemble(d)));
    QVERIFY(report.contacts.empty());
    QCOMPARE(report.sampled, 0);
    QVERIFY(report.intervals > 100);
    QVERIFY(report.complete);
  }
  void aWallInTheWayIsFoundWithItsOpenings() {
    // A V-fold whose panels sweep over a box that stands too near.
    Design d = card();
    add(d, "vfold", "gutter",
        {{"position", 40}, {"alpha", 40}, {"gamma1", 80}, {"la", 66}, {"lc", 40}, {"ea", 26}});
    add(d, "box", "gutter", {{"position", 80}, {"length", 42}, {"a", 34}, {"c", 46}});
    const Motion motion = Motion::trace(assemble(d));
    const ContactReport report = findContacts(motion);
    QVERIFY(!report.contacts.empty());
    for (const Contact& c : report.contacts) {
      QVERIFY(c.from_rad < c.deepest_rad && c.deepest_rad < c.to_rad);
      // Sampling finds nothing outside of the reported interval and something inside it.
      double inside = 0, outside = 0;
      for (double deg = 0.5; deg < 180; deg += 0.25) {
        const Pose pose = motion.poseAt(radians(deg));
        std::vector<Vec3> a, b;
        for (const Vec2& q : motion.assembly().panels[c.first].outline.rim)
          a.push_back(pose.panels[c.first] * lift(q));
        for (const Vec2& q : motion.assembly().panels[c.second].outline.rim)
          b.push_back(pose.panels[c.second] * lift(q));
        const bool within = radians(deg) >= c.from_rad && radians(deg) <= c.to_rad;
        (within ? inside : outside) = std::max(within ? inside : outside, crossingDepth(a, b));
      }
      QVERIFY_NEAR(inside, c.depth_mm, 0.15);
      QVERIFY2(outside < 0.06, fmt::format("{} mm outside", outside).c_str());
    }
  }
  void onlyLimitsTheSearchToTheNamedStructures() {
    Design d = card();
    add(d, "vfold", "gutter",
        {{"position", 40}, {"alpha", 40}, {"gamma1", 80}, {"la", 66}, {"lc", 40}});
    add(d, "box", "gutter", {{"position", 80}, {"a", 34}, {"c", 46}});
    add(d, "box", "gutter", {{"position", 150}, {"length", 20}, {"a", 10}, {"c", 20}});
    ContactOptions options;
    options.only = {StructureId{3}};
    QVERIFY(findContacts(Motion::trace(assemble(d)), options).contacts.empty());
    options.only = {StructureId{2}};
    const std::size_t all = findContacts(Motion::trace(assemble(d))).contacts.size();
    QCOMPARE(findContacts(Motion::trace(assemble(d)), options).contacts.size(), all);
  }
  void depthIsThatOfThePlaceItself_data() {
    QTest::addColumn<double>("over_mm");
    QTest::newRow("five millimetres of the page") << 5.0;
    QTest::newRow("a hair of it") << 0.5;
  }
  void depthIsThatOfThePlaceItself() {
    QFETCH(double, over_mm);
    // A long strip that stands on edge comes down one in two through the plane of the page just
    // before its end: over the stretch where both are, it is through by half of that stretch,
    // although farther on, beside the page, it hangs far below.
    const Vec3 down(2 / std::sqrt(5.0), 0, -1 / std::sqrt(5.0)),
        up(1 / std::sqrt(5.0), 0, 2 / std::sqrt(5.0));
    const auto strip = rectangle(Vec3(80 - over_mm, 30, 0) - 60 * down, 120 * down, 20 * up);
    QVERIFY_NEAR(crossingDepth(kPage, strip), over_mm, 1e-9);
    QVERIFY_NEAR(crossingDepth(kPage, strip, nullptr, DepthOf::Place), 0.5 * over_mm, 1e-9);
    QVERIFY_NEAR(crossingDepth(strip, kPage, nullptr, DepthOf::Place), 0.5 * over_mm, 1e-9);
  }
  void theDepthOfAPlaceIsNeverMoreThanOfWholeSheets() {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> any(-1, 1);
    const auto vector = [&](double size) {
      return Vec3(size * Vec3(any(random), any(random), any(random)));
    };
    int crossing = 0, smaller = 0;
    for (int k = 0; k < 400; ++k) {
      const auto sheet = [&] {
        const Vec3 o = vector(20), u = vector(60);
        return rectangle(o, u, u.unitOrthogonal() * 40);
      };
      const auto a = sheet(), b = sheet();
      const double whole = crossingDepth(a, b),
                   place = crossingDepth(a, b, nullptr, DepthOf::Place);
      QCOMPARE(whole > 0, place > 0);
      QVERIFY(place <= whole + 1e-9);
      QVERIFY_NEAR(crossingDepth(b, a, nullptr, DepthOf::Place), place, 1e-9);
      crossing += whole > 0, smaller += place < whole - 1e-6;
    }
    QVERIFY(crossing > 40);
    QVERIFY(smaller > 5);
  }
  void aStopRequestIsReported() {
    Design d = card();
    add(d, "box", "gutter");
    std::stop_source stop;
    stop.request_stop();
    QVERIFY(!findContacts(Motion::trace(assemble(d)), {}, stop.get_token()).complete);
  }
  void nothingIsMissedThatLookingFindsAndDepthsAreRight() {
    // The same densely over 200 designs: tests/core/contact_misses.cpp.
    int pairs = 0;
    for (unsigned seed : {90003u, 90010u, 90012u, 90016u, 90021u, 90034u}) {
      const Misses misses = missesOf(Motion::trace(assemble(randomDesign(seed))), radians(0.25));
      QVERIFY2(misses.missed == 0, qPrintable(QString::number(misses.deepest_mm)));
      // Where paper gives way most is not where whole sheets are deepest in one another.
      QVERIFY2(misses.off == 0, qPrintable(QString::number(misses.worst)));
      pairs += misses.pairs;
    }
    QVERIFY(pairs > 0);
  }
};

QTEST_APPLESS_MAIN(TestContact)
#include "test_contact.moc"
