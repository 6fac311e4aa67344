// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/assembly/builder.h"
#include "core/motion/corrector.h"
#endif
#include <random>

using namespace hinge;
using namespace hinge::test;

namespace {

Design market() {
  Design d = card();
  add(d, "vfold", "gutter",
      {{"position", 35}, {"alpha", 62}, {"gamma1", 80}, {"la", 60}, {"lc", 40}});
  add(d, "box", "gutter", {{"position", 80}, {"length", 40}, {"a", 34}, {"c", 46}});
  add(d, "box", "gutter", {{"position", 125}, {"length", 46}, {"a", 42}, {"c", 54}});
  add(d, "box", "s3/ridge", {{"position", 9}, {"length", 28}, {"a", 16}, {"c", 34}});
  return d;
}

} // namespace

class TestMotion : public QObject {
  Q_OBJECT
private slots:
  /// Each ring that closes by itself is solved by itself: without that every pose is right too, and
  /// takes long.
  void whatClosesByItselfIsABlock() {
    const auto ownersOf = [](const char* name) {
      std::vector<std::string> all;
      const Motion motion = Motion::trace(assemble(demo(name)));
      for (const auto& block : motion.blocks()) {
        std::string owners;
        for (StructureId owner : block.owners)
          owners += (owners.empty() ? "" : "+") + owner.text();
        all.push_back(owners);
      }
      std::ranges::sort(all);
      return all;
    };
    using Owners = std::vector<std::string>;
    QCOMPARE(ownersOf("night-market"), (Owners{"s1", "s2", "s3", "s4"})); // s4 stands on another
    QCOMPARE(ownersOf("lamp-lattice"), (Owners{"s1", "s2"}));
    // One structure may be two blocks, two structures one.
    QCOMPARE(ownersOf("canal-houses"), (Owners{"s2", "s2", "s3", "s4+s1"}));
  }

  void jacobianIsTheDerivativeOfTheResidual() {
    Design d = card();
    add(d, "vfold", "gutter", {{"alpha", 60}, {"beta", 45}, {"gamma1", 80}, {"gamma2", 95}});
    const Motion motion = Motion::trace(assemble(d));
    const Mechanism& m = motion.mechanism();
    const Block& block = motion.parts().front();
    BodyPoses poses;
    poses.assign(m.bodies.size(), Iso3::Identity());
    m.placeBase(motion.assembly(), radians(70), poses);
    // A pose that is not closed, so that no term of the derivative hides.
    Eigen::VectorXd x(2);
    x << -0.7, -1.1;
    Eigen::VectorXd plus, minus;
    Eigen::MatrixXd jacobian;
    placeBlock(m, block, x, poses);
    closureJacobian(m, block, poses, jacobian);
    const double h = 1e-6;
    for (Eigen::Index k = 0; k < x.size(); ++k) {
      Eigen::VectorXd y = x;
      y[k] += h;
      placeBlock(m, block, y, poses);
      closureResidual(m, block, poses, plus);
      y[k] -= 2 * h;
      placeBlock(m, block, y, poses);
      closureResidual(m, block, poses, minus);
      const double error = ((plus - minus) / (2 * h) - jacobian.col(k)).cwiseAbs().maxCoeff();
      QVERIFY2(error < 1e-6, fmt::format("column {} off by {}", k, error).c_str());
    }
  }
  void everyStructureOfTheMarketIsABlockOfItsOwn() {
    const Motion motion = Motion::trace(assemble(market()));
    QCOMPARE(motion.parts().size(), std::size_t(4));
    for (const Block& block : motion.parts())
      QCOMPARE(block.steps.size(), std::size_t(2));
    QCOMPARE(motion.mobility(), 0);
    QVERIFY_NEAR(motion.low_rad(), 0, 0);
    QVERIFY_NEAR(motion.high_rad(), kPi, 0);
  }
  void panelsKeepTheirShapeAndFoldsTheirLineAtEveryOpening() {
    const Motion motion = Motion::trace(assemble(market()));
    const Assembly& assembly = motion.assembly();
    for (double deg = 0; deg <= 180; deg += 2.5) {
      const Pose pose = motion.poseAt(radians(deg));
      QVERIFY2(pose.residual_mm < 1e-8,
               fmt::format("residual {} at {}", pose.residual_mm, deg).c_str());
      for (PanelIndex p : assembly.panels.indices()) {
        QVERIFY(pose.placed[p]);
        QVERIFY((pose.panels[p].linear() * pose.panels[p].linear().transpose() -
                 Eigen::Matrix3d::Identity())
                    .norm() < 1e-9);
      }
      for (const Fold& fold : assembly.folds)
        for (const Vec2& end : {fold.from, fold.to})
          QVERIFY(
              (pose.panels[fold.left] * lift(end) - pose.panels[fold.right] * lift(end)).norm() <
              1e-7);
      for (const auto& [j, glue] : assembly.every<Glue>())
        QVERIFY(
            ((pose.panels[glue.host] * glue.tabToHost).matrix() - pose.panels[glue.tab].matrix())
                .norm() < 1e-9);
    }
  }
  void foldsKeepTheirMountainOrValley() {
    const Motion motion = Motion::trace(assemble(market()));
    for (double deg : {20.0, 90.0, 160.0}) {
      const Pose pose = motion.poseAt(radians(deg));
      for (const Fold& fold : motion.assembly().folds) {
        const Vec3 axis =
            pose.panels[fold.left].linear() * lift((fold.to - fold.from).normalized());
        const Vec3 n1 = pose.panels[fold.left].linear().col(2),
                   n2 = pose.panels[fold.right].linear().col(2);
        const double angle = -std::atan2(n1.cross(n2).dot(axis), n1.dot(n2));
        QVERIFY2(fold.sense == FoldSense::Valley ? angle > 0 : angle < 0,
                 fmt::format("{} at {} deg: {}", fold.key, deg, angle).c_str());
      }
    }
  }
  void shutEveryPanelLiesInOnePlane() {
    const Motion motion = Motion::trace(assemble(market()));
    for (const Pose& pose : {motion.shutPose(), motion.poseAt(0)})
      for (PanelIndex p : motion.assembly().panels.indices())
        for (const Vec2& c : motion.assembly().panels[p].outline.rim)
          QVERIFY_NEAR((pose.panels[p] * lift(c)).x(), 0, 1e-9);
  }
  void pagesFollowTheWorldFrameOfTheHandbook() {
    const Motion motion = Motion::trace(assemble(card(100, 160)));
    for (double deg : {0.0, 33.0, 90.0, 180.0}) {
      const Pose pose = motion.poseAt(radians(deg));
      const double s = std::sin(radians(deg) / 2), c = std::cos(radians(deg) / 2);
      QVERIFY((worldPoint(motion, pose, "card/page-a", {-100, 160}) - Vec3(-100 * s, 160, 100 * c))
                  .norm() < 1e-9);
      QVERIFY(
          (worldPoint(motion, pose, "card/page-b", {100, 0}) - Vec3(100 * s, 0, 100 * c)).norm() <
          1e-9);
    }
  }
  void aPoseDoesNotDependOnWhatWasAskedBefore() {
    const auto assembly = assemble(market());
    const Motion one = Motion::trace(assembly), two = Motion::trace(assembly);
    (void)one.poseAt(radians(179));
    const Pose a = one.poseAt(radians(61.7)), b = two.poseAt(radians(61.7));
    for (PanelIndex p : assembly->panels.indices())
      QVERIFY(a.panels[p].matrix() == b.panels[p].matrix());
  }
  void theQuickPoseIsTheTracedOne() {
    const auto assembly = assemble(market());
    const Motion motion = Motion::trace(assembly);
    for (double deg : {8.0, 77.0, 171.0}) {
      const Pose quick = Motion::quickPose(*assembly, radians(deg)),
                 traced = motion.poseAt(radians(deg));
      for (PanelIndex p : assembly->panels.indices())
        QVERIFY((quick.panels[p].matrix() - traced.panels[p].matrix()).norm() < 1e-7);
    }
  }
  void nearTheFlatStatesThePosesStayAccurate() {
    Design d = card();
    add(d, "box", "gutter", {{"a", 30}, {"c", 30}}); // flat at both ends
    const Motion motion = Motion::trace(assemble(d));
    for (double deg : {1e-4, 1e-3, 0.01, 0.5, 179.5, 179.99, 179.9999}) {
      const Pose pose = motion.poseAt(radians(deg));
      const double s = std::sin(radians(deg) / 2), c = std::cos(radians(deg) / 2);
      // A rhombus: the ridge stands at 60 cos(t/2) on the bisector.
      const Vec3 ridge = worldPoint(motion, pose, "s1/wall-a", {30, 0});
      QVERIFY_NEAR(ridge.x(), 0, 1e-6);
      QVERIFY_NEAR(ridge.z(), 60 * c, 1e-6);
      QVERIFY_NEAR(worldPoint(motion, pose, "s1/wall-a", {0, 0}).x(), -30 * s, 1e-6);
    }
  }
  void structuresThatCannotExistAreNamedAndTheOthersMove() {
    Design d = market();
    const StructureId bad =
        add(d, "box", "gutter",
            {{"position", 5}, {"length", 20}, {"a", 60}, {"b", 5}, {"c", 10}, {"d", 20}});
    const Motion motion = Motion::trace(assemble(d));
    QCOMPARE(motion.impossible(), std::vector<StructureId>{bad});
    const Pose pose = motion.poseAt(radians(90));
    QVERIFY(!pose.placed[motion.assembly().findPanel("s5/wall-a")]);
    QVERIFY(pose.placed[motion.assembly().findPanel("s2/wall-a")]);
  }
  void aStructureAtItsLimitDoesNotStopTheOthers() {
    Design d = market();
    add(d, "box", "gutter", {{"position", 5}, {"length", 10}, {"a", 40}, {"c", 30}});
    const Motion motion = Motion::trace(assemble(d));
    QVERIFY(motion.high_rad() < radians(120));
    const Pose pose = motion.poseAt(radians(170));
    QVERIFY(!pose.placed[motion.assembly().findPanel("s5/wall-a")]);
    QVERIFY(pose.placed[motion.assembly().findPanel("s4/wall-a")]);
  }
  void aStopRequestEndsTheTrace() {
    std::stop_source stop;
    stop.request_stop();
    const Motion motion = Motion::trace(assemble(market()), stop.get_token());
    QVERIFY(motion.nodeOpenings().size() <= 2);
  }
  void aWallWithoutItsSecondTabFlops() {
    // Take the glue of one tab away: the strip hangs on one side and its three hinges are free.
    Design d = card();
    add(d, "box", "gutter");
    const auto whole = assemble(d);
    Assembly loose = *whole;
    loose.joints = {};
    for (JointIndex j : whole->joints.indices())
      if (loose.joints.size() + 1 < whole->joints.size()) loose.addJoint(whole->joints[j]);
    const Motion motion = Motion::trace(std::make_shared<const Assembly>(loose));
    QCOMPARE(motion.mobility(), 3);
  }
  void twoStripsSideBySideMakeOneGuidedBlock() {
    // A platform of two legs and a divided table over the gutter, built by hand from panels:
    // without a middle wall it has one freedom more than a box, and the engine must see that from
    // the joints alone.
    Assembly assembly = *assemble(card());
    AssemblyBuilder builder(assembly, StructureId{1});
    const PieceIndex piece = builder.piece("piece", "strip");
    const PanelIndex one =
        builder.panel(piece, "one", "one", PanelUse::Wall, {{0, 0}, {30, 0}, {30, 40}, {0, 40}});
    const PanelIndex two =
        builder.panel(piece, "two", "two", PanelUse::Wall, {{30, 0}, {60, 0}, {60, 40}, {30, 40}});
    const PanelIndex three = builder.panel(piece, "three", "three", PanelUse::Wall,
                                           {{60, 0}, {90, 0}, {90, 40}, {60, 40}});
    const PanelIndex tabA = builder.panel(piece, "tab-a", "tab a", PanelUse::Tab,
                                          {{-10, 0}, {0, 0}, {0, 40}, {-10, 40}});
    const PanelIndex tabB = builder.panel(piece, "tab-b", "tab b", PanelUse::Tab,
                                          {{90, 0}, {100, 0}, {100, 40}, {90, 40}});
    builder.fold("f0", "f0", tabA, one, {0, 0}, {0, 40}, FoldSense::Mountain, 0);
    builder.fold("f1", "f1", one, two, {30, 0}, {30, 40}, FoldSense::Mountain, -kPi / 2);
    builder.fold("f2", "f2", two, three, {60, 0}, {60, 40}, FoldSense::Mountain, -kPi / 2);
    builder.fold("f3", "f3", three, tabB, {90, 0}, {90, 40}, FoldSense::Mountain, 0);
    const Seat gutter = *assembly.findSeat("gutter");
    const auto glueTo = [&](PanelIndex tab, int side, const Iso3& flat) {
      builder.glue(tab, gutter.sides[static_cast<std::size_t>(side)].panel,
                   gutter.sides[static_cast<std::size_t>(side)].toPiece * flat);
    };
    glueTo(tabA, 0, planarFrame({40, 60}, Vec2::UnitX(), Vec2::UnitY()));
    glueTo(tabB, 1, planarFrame({40 + 90, 60}, -Vec2::UnitX(), Vec2::UnitY()));
    QVERIFY(builder.status().ok());
    const double t = radians(150);
    builder.placement(gutter, {one, two, three},
                      [t](double opening) -> std::optional<std::vector<Iso3>> {
                        const double s = std::sin(opening / 2), c = std::cos(opening / 2);
                        const Vec3 A(-40 * s, 60, 40 * c), B(40 * s, 60, 40 * c), y = Vec3::UnitY();
                        const double half = (B - A).norm() / 2 - 15, h2 = 900 - half * half;
                        if (h2 < 1) return std::nullopt;
                        const Vec3 d1 = Vec3(half, 0, std::sqrt(h2)) / 30, d2 = Vec3::UnitX(),
                                   d3 = Vec3(half, 0, -std::sqrt(h2)) / 30;
                        const auto at = [&](const Vec3& start, const Vec3& dir, double from) {
                          return frame(start - from * dir, dir, y, dir.cross(y));
                        };
                        return std::vector<Iso3>{at(A, d1, 0), at(A + 30 * d1, d2, 30),
                                                 at(A + 30 * d1 + 30 * d2, d3, 60)};
                      });
    const Motion motion = Motion::trace(std::make_shared<const Assembly>(assembly));
    QVERIFY(motion.impossible().empty());
    QCOMPARE(motion.parts().size(), std::size_t(1));
    QCOMPARE(motion.mobility(), 1);
    QVERIFY(motion.poseAt(t).residual_mm < 1e-9);
  }
};

QTEST_APPLESS_MAIN(TestMotion)
#include "test_motion.moc"
