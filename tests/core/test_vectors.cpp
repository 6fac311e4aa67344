// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#include <QFile>
#include <list>
#include <nlohmann/json.hpp>

using namespace hinge;
using namespace hinge::test;

// Expected coordinates computed independently (tests/data/*.json): every listed point of the
// structures we have.

namespace {

struct PointOnPanel {
  const char* name;  ///< in the vector file
  const char* panel; ///< ours
  Vec2 flat;
};

Vec2 direction(double fromY_deg) {
  return {std::sin(radians(fromY_deg)), std::cos(radians(fromY_deg))};
}

std::vector<PointOnPanel> vfoldPoints(const char* prefix, const char* a, const char* b, double g1,
                                      double g2, double la, double lb, double lc) {
  static std::list<std::string> names;
  const auto name = [&](const char* n) {
    return names.emplace_back(std::string(prefix) + n).c_str();
  };
  return {{name("VA"), a, la * direction(-g1)},
          {name("VB"), b, lb * direction(g2)},
          {name("VC"), a, Vec2(0, lc)},
          {name("VC"), b, Vec2(0, lc)}};
}

} // namespace

class TestVectors : public QObject {
  Q_OBJECT
  void compare(const char* file, const Design& design, const std::vector<PointOnPanel>& points,
               double shiftY) {
    QFile source(QStringLiteral(HINGE_TEST_DATA "/%1.json").arg(QLatin1String(file)));
    QVERIFY(source.open(QIODevice::ReadOnly));
    const auto data = nlohmann::json::parse(source.readAll().toStdString());
    const Motion motion = Motion::trace(assemble(design));
    QCOMPARE(motion.mobility(), 0);
    int compared = 0;
    for (const auto& expected : data["poses"]) {
      const double theta = expected["theta"];
      const bool limit =
          theta != std::floor(theta); // the reach limit itself: poses there move like a square root
      if (limit) continue;
      const Pose pose = motion.poseAt(radians(theta));
      for (const PointOnPanel& p : points) {
        const auto& q = expected["points"][p.name];
        const Vec3 wanted(q[0], double(q[1]) + shiftY, q[2]);
        const PanelIndex panel = motion.assembly().findPanel(p.panel);
        QVERIFY2(panel.valid() && pose.placed[panel], p.panel);
        const double error = (pose.panels[panel] * lift(p.flat) - wanted).norm();
        // The file has nine digits.
        QVERIFY2(error < 2e-6,
                 fmt::format("{} at {} deg is off by {} mm", p.name, theta, error).c_str());
        ++compared;
      }
    }
    QVERIFY(compared >= 16);
  }

private slots:
  void symmetricVFold() {
    Design d = card(100, 160);
    add(d, "vfold", "gutter",
        {{"position", 80}, {"alpha", 45}, {"gamma1", 90}, {"la", 50}, {"lc", 60}, {"ea", 0}});
    compare("vfold_sym", d, vfoldPoints("", "s1/panel-a", "s1/panel-b", 90, 90, 50, 50, 60), 80);
  }
  void vFoldThatLiesFlatAt180() {
    Design d = card(100, 160);
    add(d, "vfold", "gutter",
        {{"position", 80}, {"alpha", 50}, {"gamma1", 50}, {"la", 50}, {"lc", 60}, {"ea", 0}});
    compare("vfold_flat180", d, vfoldPoints("", "s1/panel-a", "s1/panel-b", 50, 50, 50, 50, 60),
            80);
  }
  void vFoldThatGoesTaut() {
    Design d = card(100, 160);
    add(d, "vfold", "gutter",
        {{"position", 80}, {"alpha", 60}, {"gamma1", 50}, {"la", 50}, {"lc", 60}, {"ea", 0}});
    compare("vfold_reach_limited", d,
            vfoldPoints("", "s1/panel-a", "s1/panel-b", 50, 50, 50, 50, 60), 80);
    QVERIFY_NEAR(degrees(Motion::trace(assemble(d)).high_rad()), 124.39286420855562, 1e-4);
  }
  void stepIsACaseOfTheBox() {
    Design d = card(100, 160);
    add(d, "box", "gutter",
        {{"position", 60}, {"length", 40}, {"a", 30}, {"b", 50}, {"c", 50}, {"d", 30}});
    compare("step", d,
            {{"FA0", "s1/wall-a", {0, 0}},
             {"FA1", "s1/wall-a", {0, 40}},
             {"Q0", "s1/wall-a", {50, 0}},
             {"Q1", "s1/wall-b", {50, 40}},
             {"FB0", "s1/wall-b", {80, 0}},
             {"FB1", "s1/wall-b", {80, 40}}},
            80);
  }
  void closedBoxWithInwardEnds() {
    Design d = card(100, 120);
    add(d, "closed-box", "gutter",
        {{"position", 20}, {"length", 80}, {"a", 30}, {"h", 40}, {"e", 30}, {"inward", 1}});
    // Belt: wall a 0..80 (far to near), near end 80..140, wall b 140..220 (near to far), far end
    // 220..280.
    compare("box_lid", d,
            {{"WA0b", "s1/wall-a", {80, 0}},
             {"WA1t", "s1/wall-a", {0, 40}},
             {"EM0b", "s1/near-a", {110, 0}},
             {"EM0t", "s1/near-b", {110, 40}},
             {"WB0b", "s1/near-b", {140, 0}},
             {"WB1t", "s1/wall-b", {220, 40}},
             {"EM1b", "s1/far-b", {250, 0}},
             {"EM1t", "s1/far-a", {250, 40}},
             {"WA1b", "s1/far-a", {280, 0}}},
            60);
  }
  void vFoldOnTheCreaseOfAVFold() {
    Design d = card(110, 180);
    add(d, "vfold", "gutter",
        {{"position", 90}, {"alpha", 45}, {"gamma1", 90}, {"la", 60}, {"lc", 80}, {"ea", 0}});
    add(d, "vfold", "s1/ridge",
        {{"position", 40}, {"alpha", 50}, {"gamma1", 80}, {"la", 25}, {"lc", 30}, {"ea", 0}});
    auto points = vfoldPoints("", "s1/panel-a", "s1/panel-b", 90, 90, 60, 60, 80);
    for (const auto& p : vfoldPoints("2", "s2/panel-a", "s2/panel-b", 80, 80, 25, 25, 30))
      points.push_back(p);
    compare("tier_vfold", d, points, 90);
  }
};

QTEST_APPLESS_MAIN(TestVectors)
#include "test_vectors.moc"
