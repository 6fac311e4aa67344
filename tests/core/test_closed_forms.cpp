// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"

using namespace hinge;
using namespace hinge::test;

// The engine against closed forms that are written here anew, from the four-bar formulas: 1e-6 mm
// from 1 to 179 degrees wherever the mechanism reaches.

namespace {

constexpr double kAgreement_mm = 1e-6;

/// Ridge of the planar four-bar a, c, d, b over a fold open by t: intersection of two circles, the
/// upper one.
std::optional<Vec2> ridge(double a, double b, double c, double d, double t) {
  const Vec2 A(-a * std::sin(t / 2), a * std::cos(t / 2)),
      B(b * std::sin(t / 2), b * std::cos(t / 2));
  const double D = (B - A).norm();
  if (D > c + d || D < std::abs(c - d)) return std::nullopt;
  const double along = (D * D + c * c - d * d) / (2 * D);
  const Vec2 e = (B - A) / D;
  return A + along * e + std::sqrt(std::max(0.0, c * c - along * along)) * Vec2(-e.y(), e.x());
}

/// Crease direction of the spherical four-bar from the two half-angle triples (kinematics a.).
std::optional<Vec3> crease(double al, double be, double g1, double g2, double t) {
  const double S = std::sin(t / 2), C = std::cos(t / 2);
  const Vec3 a(-S * std::sin(al), std::cos(al), C * std::sin(al)),
      b(S * std::sin(be), std::cos(be), C * std::sin(be));
  const Vec3 m = 0.5 * (a + b), d = 0.5 * (a - b);
  const double w = std::acos(std::clamp(a.dot(b), -1.0, 1.0));
  const double product = std::sin((w + g2 - g1) / 2) * std::sin((w + g1 - g2) / 2) *
                         std::sin((g1 + g2 - w) / 2) * std::sin((2 * kPi - g1 - g2 - w) / 2);
  if (product < 0) return std::nullopt;
  const double z = 2 * std::sqrt(product) / std::sin(w);
  const double cm = (std::cos(g1) + std::cos(g2)) / 2,
               cd = -std::sin((g1 + g2) / 2) * std::sin((g1 - g2) / 2);
  return Vec3(m * cm / m.squaredNorm() +
              (d.squaredNorm() > 1e-20 ? Vec3(d * cd / d.squaredNorm()) : Vec3(Vec3::Zero())) +
              z * b.cross(a).normalized());
}

} // namespace

class TestClosedForms : public QObject {
  Q_OBJECT
private slots:
  void boxRidgeFollowsTheFourBar_data() {
    QTest::addColumn<double>("a");
    QTest::addColumn<double>("b");
    QTest::addColumn<double>("c");
    QTest::addColumn<double>("d");
    QTest::newRow("square box") << 30.0 << 30.0 << 30.0 << 30.0;
    QTest::newRow("tent") << 30.0 << 30.0 << 45.0 << 45.0;
    QTest::newRow("unequal") << 20.0 << 35.0 << 50.0 << 35.0;
    QTest::newRow("step") << 25.0 << 40.0 << 40.0 << 25.0;
    QTest::newRow("taut before flat") << 50.0 << 40.0 << 38.0 << 48.0;
    QTest::newRow("inch fractions") << 25.4 << 31.75 << 44.45 << 38.1;
  }
  void boxRidgeFollowsTheFourBar() {
    QFETCH(double, a);
    QFETCH(double, b);
    QFETCH(double, c);
    QFETCH(double, d);
    Design design = card(160, 200);
    add(design, "box", "gutter",
        {{"position", 40}, {"length", 60}, {"a", a}, {"b", b}, {"c", c}, {"d", d}});
    const Motion motion = Motion::trace(assemble(design));
    int compared = 0;
    for (int deg = 1; deg <= 179; ++deg) {
      const auto expected = ridge(a, b, c, d, radians(deg));
      const Pose pose = motion.poseAt(radians(deg));
      const PanelIndex wall = motion.assembly().findPanel("s1/wall-a");
      if (!expected) {
        QVERIFY2(!pose.placed[wall], fmt::format("must not reach {}", deg).c_str());
        continue;
      }
      if (radians(deg) > motion.high_rad() - radians(0.01)) continue;
      const Vec3 q = pose.panels[wall] * Vec3(c, 0, 0);
      const double error = std::max(
          {std::abs(q.x() - expected->x()), std::abs(q.y() - 40), std::abs(q.z() - expected->y())});
      QVERIFY2(error < kAgreement_mm, fmt::format("at {} deg off by {} mm", deg, error).c_str());
      ++compared;
    }
    QVERIFY(compared > 100);
    const double limit =
        c + d >= a + b ? kPi : std::acos((a * a + b * b - (c + d) * (c + d)) / (2 * a * b));
    QVERIFY_NEAR(degrees(motion.high_rad()), degrees(limit), 1e-4);
  }

  void vFoldCreaseFollowsTheSphericalFourBar_data() {
    QTest::addColumn<double>("al");
    QTest::addColumn<double>("be");
    QTest::addColumn<double>("g1");
    QTest::addColumn<double>("g2");
    QTest::newRow("symmetric") << 45.0 << 45.0 << 90.0 << 90.0;
    QTest::newRow("leaning forward") << 45.0 << 45.0 << 70.0 << 70.0;
    QTest::newRow("asymmetric") << 60.0 << 45.0 << 80.0 << 95.0;
    QTest::newRow("flat at 180") << 50.0 << 50.0 << 50.0 << 50.0;
    QTest::newRow("taut") << 60.0 << 60.0 << 50.0 << 50.0;
    QTest::newRow("obtuse base") << 110.0 << 60.0 << 50.0 << 100.0;
  }
  void vFoldCreaseFollowsTheSphericalFourBar() {
    QFETCH(double, al);
    QFETCH(double, be);
    QFETCH(double, g1);
    QFETCH(double, g2);
    Design design = card(200, 260);
    add(design, "vfold", "gutter",
        {{"position", 130},
         {"alpha", al},
         {"beta", be},
         {"gamma1", g1},
         {"gamma2", g2},
         {"la", 50},
         {"lb", 50},
         {"lc", 60},
         {"ea", 5},
         {"eb", 5}});
    const Motion motion = Motion::trace(assemble(design));
    int compared = 0;
    for (int deg = 1; deg <= 179; ++deg) {
      const auto expected =
          crease(radians(al), radians(be), radians(g1), radians(g2), radians(deg));
      const Pose pose = motion.poseAt(radians(deg));
      const PanelIndex panel = motion.assembly().findPanel("s1/panel-b");
      if (!expected) {
        QVERIFY(!pose.placed[panel]);
        continue;
      }
      if (radians(deg) > motion.high_rad() - radians(0.01)) continue;
      const Vec3 q = pose.panels[panel] * Vec3(0, 60, 0) - Vec3(0, 130, 0);
      const double error = (q - 60 * *expected).cwiseAbs().maxCoeff();
      QVERIFY2(error < kAgreement_mm, fmt::format("at {} deg off by {} mm", deg, error).c_str());
      ++compared;
    }
    QVERIFY(compared > 100);
  }

  void jamAngleIsThatOfTheDefect() {
    // 4ab sin^2(t/2) = (c-d)^2 - (a-b)^2; the reference jams at 0.7162 degrees.
    Design design = card(160, 200);
    add(design, "box", "gutter", {{"a", 40}, {"b", 40}, {"c", 50}, {"d", 50.5}});
    const Motion motion = Motion::trace(assemble(design));
    QVERIFY_NEAR(degrees(motion.low_rad()), 0.7162, 1e-4);
  }
};

QTEST_APPLESS_MAIN(TestClosedForms)
#include "test_closed_forms.moc"
