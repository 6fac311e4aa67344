// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/production/flat_piece.h"
#include "core/structures/closed_forms.h"
#endif

using namespace hinge;
using namespace hinge::test;

// Structures cut from the sheet they stand on, and what is glued on faces.

class TestCuts : public QObject {
  Q_OBJECT
  static double areaOf(const Assembly& assembly) {
    double sum = 0;
    for (const Panel& p : assembly.panels)
      if (p.use != PanelUse::Tab) sum += area_mm2(p.outline);
    return sum;
  }
  static double foldLength(const Assembly& assembly, std::string_view label) {
    double sum = 0;
    for (const Fold& f : assembly.folds)
      if (say(f.label) == label) sum += (f.to - f.from).norm();
    return sum;
  }
private slots:
  void aStepTakesNothingFromTheSheetAndOpensItsFold() {
    Design d = card(130, 180);
    add(d, "step", "gutter", {{"position", 60}, {"length", 50}, {"a", 30}, {"b", 22}});
    const auto assembly = assemble(d);
    QCOMPARE(assembly->pieces.size(), std::size_t(1));
    QVERIFY_NEAR(areaOf(*assembly), 2 * 130 * 180, 1e-6);
    QVERIFY_NEAR(foldLength(*assembly, "gutter"), 130, 1e-9); // 180 less the 50 between the slits
    QCOMPARE(assembly->joints.size(), std::size_t(0));
  }
  void severalCutsShareOneGutter() {
    Design d = card(130, 200);
    add(d, "step", "gutter", {{"position", 20}, {"length", 30}, {"a", 20}, {"b", 20}});
    add(d, "step", "gutter", {{"position", 130}, {"length", 40}, {"a", 30}, {"b", 20}});
    add(d, "cut-vfold", "gutter", {{"position", 70}, {"la", 30}, {"lb", 30}, {"lc", 25}});
    const auto assembly = assemble(d);
    QVERIFY_NEAR(foldLength(*assembly, "gutter"), 200 - 30 - 40 - 25, 1e-9);
    QVERIFY_NEAR(areaOf(*assembly), 2 * 130 * 200, 1e-6);
    const Analysis a = checked(d);
    QVERIFY2(a.verdict == Verdict::Good,
             a.findings.empty() ? "" : describe(a.findings.front(), d).c_str());
  }
  void aStepMovesAsItsClosedFormSays() {
    Design d = card(130, 180);
    add(d, "step", "gutter", {{"position", 60}, {"length", 50}, {"a", 30}, {"b", 22}});
    const Motion motion = Motion::trace(assemble(d));
    for (double deg : {1.0, 45.0, 90.0, 135.0, 179.0}) {
      const double S = std::sin(radians(deg / 2)), C = std::cos(radians(deg / 2));
      // Q = a uA + b uB; the ridge lies at x = b - a in the flat sheet.
      const Vec3 q = worldPoint(motion, motion.poseAt(radians(deg)), "s1/wall-a", {22 - 30, 60});
      QVERIFY((q - Vec3(-30 * S + 22 * S, 60, 30 * C + 22 * C)).norm() < 1e-6);
    }
  }
  void aStairStandsInStepsOfEqualHeightAtARightAngle() {
    Design d = card(150, 190);
    add(d, "step", "gutter",
        {{"position", 50}, {"length", 80}, {"a", 60}, {"b", 48}, {"treads", 4}, {"narrow", 4}});
    const Analysis a = checked(d);
    QVERIFY2(a.verdict == Verdict::Good,
             a.findings.empty() ? "" : describe(a.findings.front(), d).c_str());
    QCOMPARE(a.motion->mobility(), 0);
    const Pose pose = a.motion->poseAt(radians(90));
    // Page a upright, page b level: ridges at (depth, height) = (12, 60), (24, 45), (36, 30), (48,
    // 15).
    const Vec3 uA(-std::sqrt(0.5), 0, std::sqrt(0.5)), uB(std::sqrt(0.5), 0, std::sqrt(0.5));
    for (int k = 0; k < 4; ++k) {
      const std::string ridge = k == 0 ? "s1/ridge" : fmt::format("s1/tread-{}-ridge", k + 1);
      const Seat* seat = a.assembly->findSeat(ridge);
      QVERIFY(seat);
      const Vec3 q = pose.panels[seat->sides[0].panel] * (seat->sides[0].toPiece * Vec3(0, 0, 0));
      QVERIFY_NEAR(q.dot(uB), 12 * (k + 1), 1e-7);
      QVERIFY_NEAR(q.dot(uA), 60 - 15 * k, 1e-7);
    }
  }
  void overARidgeAStepIsPushedIn() {
    Design d = card(130, 180);
    add(d, "box", "gutter", {{"a", 40}, {"b", 40}, {"c", 50}, {"d", 50}, {"length", 60}});
    add(d, "step", "s1/ridge", {{"position", 15}, {"length", 30}, {"a", 14}, {"b", 10}});
    const Analysis a = checked(d);
    QVERIFY2(a.verdict == Verdict::Good,
             a.findings.empty() ? "" : describe(a.findings.front(), d).c_str());
    // Its own ridge points into the box, below the ridge of the box.
    const Pose pose = a.motion->poseAt(radians(100));
    const auto height = [&](const char* key) {
      const Seat* seat = a.assembly->findSeat(key);
      return (pose.panels[seat->sides[0].panel] * seat->sides[0].toPiece.translation()).z();
    };
    QVERIFY(height("s2/ridge") < height("s1/ridge") - 5);
  }
  void cutsThatDoNotFitAreRefusedByName_data() {
    QTest::addColumn<QString>("kind");
    QTest::addColumn<QVariantMap>("values");
    QTest::addColumn<QString>("code");
    QTest::newRow("past the end of the fold")
        << "step" << QVariantMap{{"position", 150}, {"length", 50}} << "cut.past-edge";
    QTest::newRow("past the fore edge") << "step" << QVariantMap{{"a", 140}} << "cut.past-edge";
    QTest::newRow("too many treads")
        << "step" << QVariantMap{{"treads", 8}, {"length", 40}, {"narrow", 5}} << "step.too-short";
    QTest::newRow("V past the edge") << "cut-vfold" << QVariantMap{{"la", 300}} << "cut.past-edge";
  }
  void cutsThatDoNotFitAreRefusedByName() {
    QFETCH(QString, kind);
    QFETCH(QVariantMap, values);
    QFETCH(QString, code);
    Design d = card(130, 180);
    const auto assembly = assemble(d);
    ParameterValues given;
    for (auto it = values.begin(); it != values.end(); ++it)
      given[it.key().toStdString()] = it.value().toDouble();
    const auto all = valuesForNew(*assembly, d.settings, kind.toStdString(), "gutter", given);
    QVERIFY(all.ok());
    const auto refused =
        assembleDesign(addStructure(d, kind.toStdString(), "gutter", *all)->design);
    QVERIFY(!refused.ok());
    QCOMPARE(QString::fromStdString(refused.error().code()), code);
    QVERIFY(!say(refused.error()).empty());
  }
  void slitsAreDrawnOnce() {
    Design d = card(130, 180);
    add(d, "step", "gutter", {{"position", 60}, {"length", 50}, {"a", 30}, {"b", 22}});
    const auto assembly = assemble(d);
    const FlatPiece flat = flatPiece(*assembly, PieceIndex(0));
    double cut = 0;
    for (const FlatLine& line : flat.lines) {
      if (line.kind != LineKind::Cut) continue;
      const std::size_t n = line.corners.size();
      for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n; ++i)
        cut += (line.corners[(i + 1) % n] - line.corners[i]).norm();
    }
    QVERIFY_NEAR(cut, 2 * (260 + 180) + 2 * 52, 1e-6); // the outline and two slits of a + b
  }
  void aFigureMovesWithItsPanel() {
    Design d = card(130, 180);
    add(d, "box", "gutter", {{"length", 60}});
    add(d, "figure", "s1/wall-b", {{"position", 20}, {"up", 5}, {"width", 16}, {"height", 20}});
    const Motion motion = Motion::trace(assemble(d));
    const auto& m = motion.mechanism();
    QVERIFY(m.bodyOf[motion.assembly().findPanel("s2/figure")] ==
            m.bodyOf[motion.assembly().findPanel("s1/wall-b")]);
    // Its foot lies 5 mm up the wall at every opening.
    for (double deg : {20.0, 90.0, 160.0}) {
      const Pose pose = motion.poseAt(radians(deg));
      const Vec3 foot = worldPoint(motion, pose, "s2/figure", {0, 0});
      const Seat* seat = motion.assembly().findSeat("s1/wall-b");
      const Vec3 base =
          pose.panels[seat->sides[0].panel] * (seat->sides[0].toPiece * Vec3(20, 0, 0));
      QVERIFY_NEAR((foot - base).norm(), 5, 1e-9);
    }
    QVERIFY(checked(d).verdict != Verdict::Spoiled);
  }
  void aFigureThatStrikesThePageIsFound() {
    Design d = card(130, 180);
    add(d, "box", "gutter",
        {{"position", 60}, {"length", 40}, {"a", 40}, {"b", 40}, {"c", 40}, {"d", 40}});
    // It hangs down from the wall, 20 mm longer than the wall is high there.
    add(d, "figure", "s1/wall-b",
        {{"position", 20}, {"up", 10}, {"width", 10}, {"height", 30}, {"shape", 0}, {"turn", 180}});
    const Analysis a = checked(d);
    const Finding* f = findCode(a, "panels-hit");
    QVERIFY(f);
    QVERIFY(f->amount > 5);
  }

  void aWindowTakesPaperFromItsPanelAndIsCutInItsPiece() {
    Design d = card(130, 180);
    add(d, "closed-box", "gutter", {{"lid", 0}});
    const double before = areaOf(*assemble(d));
    const StructureId id =
        add(d, "window", "s1/wall-b", {{"shape", 0}, {"width", 12}, {"height", 10}, {"turn", 20}});
    const auto assembly = assemble(d);
    QVERIFY_NEAR(areaOf(*assembly), before - 120, 1e-6);
    const FlatPiece flat =
        flatPiece(*assembly, assembly->panels[assembly->findPanel("s1/wall-b")].piece);
    int loops = 0;
    for (const FlatLine& line : flat.lines)
      if (line.kind == LineKind::Cut && line.closed && line.corners.size() == 4) {
        ++loops;
        for (std::size_t k = 0; k < 4; ++k)
          QVERIFY_NEAR((line.corners[(k + 1) % 4] - line.corners[k]).norm(),
                       k % 2 == 0 ? (line.corners[1] - line.corners[0]).norm()
                                  : (line.corners[2] - line.corners[1]).norm(),
                       1e-9);
      }
    QCOMPARE(loops, 1);
    QVERIFY(checked(d).findings.empty());
    const auto outside = setValues(d, id, {{"width", 300}});
    QVERIFY(!outside || !assembleDesign(*outside));
  }
  void paperThatPassesThroughAWindowHitsNothing() {
    Design d = card(150, 200);
    add(d, "box", "gutter",
        {{"position", 40}, {"length", 80}, {"a", 30}, {"b", 30}, {"c", 40}, {"d", 40}});
    add(d, "box", "gutter",
        {{"position", 70}, {"length", 16}, {"a", 15}, {"b", 50}, {"c", 60}, {"d", 25}, {"tab", 8}});
    QVERIFY(findCode(checked(d), "panels-hit"));
    const StructureId window =
        add(d, "window", "s1/wall-b",
            {{"shape", 0}, {"position", 40}, {"up", 1.2}, {"width", 24}, {"height", 37.5}});
    QVERIFY(checked(d).findings.empty());
    // 10 mm wide, the window catches 3 mm of the 16 mm wide strip at either side.
    const Analysis narrow = checked(*setValues(d, window, {{"width", 10}}));
    QVERIFY(findCode(narrow, "panels-hit"));
  }
  void aTabOverAWindowIsFound() {
    Design d = card(130, 180);
    add(d, "box", "gutter",
        {{"position", 60},
         {"length", 50},
         {"a", 30},
         {"b", 30},
         {"c", 40},
         {"d", 40},
         {"tab", 12}});
    QVERIFY(checked(d).findings.empty());
    const Assembly plain = *assemble(d);
    const Panel& page = plain.panels[plain.findPanel("card/page-b")];
    const Glue* glue = plain.glueOf(plain.findPanel("s1/tab-b"));
    QCOMPARE(glue->host.value, plain.findPanel("card/page-b").value);
    const Seat* face = plain.findSeat("card/page-b");
    const Vec3 middle = face->sides[0].toPiece.inverse() *
                        (glue->tabToHost * lift(centroidOf(plain.panels[glue->tab].outline)));
    QVERIFY(
        contains(page.outline,
                 (glue->tabToHost * lift(centroidOf(plain.panels[glue->tab].outline))).head<2>()));
    add(d, "window", "card/page-b",
        {{"shape", 0},
         {"position", middle.x()},
         {"up", middle.y() - 4},
         {"width", 8},
         {"height", 8}});
    const Analysis analysis = checked(d);
    const Finding* f = findCode(analysis, "tab-off-panel");
    QVERIFY(f);
    QVERIFY_NEAR(f->amount, 8, 0.05);
  }
  void aCutAcrossTheGutterLeavesWindowsInPeace() {
    Design d = card(130, 180);
    add(d, "window", "card/page-b",
        {{"shape", 6}, {"position", 120}, {"up", 70}, {"width", 20}, {"height", 20}});
    add(d, "step", "gutter", {{"position", 20}, {"length", 40}, {"a", 20}, {"b", 20}});
    const auto assembly = assemble(d);
    QCOMPARE(assembly->panels[assembly->findPanel("card/page-b")].outline.holes.size(),
             std::size_t(1));
    QVERIFY(checked(d).findings.empty());
  }
  void windowsInTheWallsOfACubeChangeNothingElse() {
    Design d = card(130, 180);
    add(d, "cube", "gutter");
    for (const char* seat : {"s1/wall-a", "s1/wall-b-back", "s1/near-a"})
      add(d, "window", seat, {{"shape", 1}});
    const Motion motion = Motion::trace(assemble(d));
    for (double deg : {20.0, 90.0, 160.0})
      QVERIFY(motion.poseAt(radians(deg)).residual_mm < 1e-9);
    QVERIFY(checked(d).findings.empty());
  }
  void aCubeOnItsCornerIsAPrism() {
    Design d = card(150, 200);
    add(d, "corner-cube", "gutter", {{"w", 30}, {"h", 36}});
    const Motion motion = Motion::trace(assemble(d));
    for (double deg : {1.0, 30.0, 90.0, 150.0, 179.0}) {
      const Pose pose = motion.poseAt(radians(deg));
      const auto normal = [&](const char* panel) {
        return Vec3(pose.panels[motion.assembly().findPanel(panel)].linear().col(2));
      };
      QVERIFY_NEAR((normal("s1/near-a") + normal("s1/far-b")).norm(), 0, 1e-7);
      QVERIFY_NEAR((normal("s1/near-b") + normal("s1/far-a")).norm(), 0, 1e-7);
      // Spherical triangle of the V: cos of the angle between the near faces' feet.
      const double t = radians(deg), al = radians(45);
      const Vec3 a = pose.panels[motion.assembly().findPanel("s1/near-a")].linear().col(0),
                 b = pose.panels[motion.assembly().findPanel("s1/near-b")].linear().col(0);
      QVERIFY_NEAR(-a.dot(b),
                   std::cos(al) * std::cos(al) + std::sin(al) * std::sin(al) * std::cos(t), 1e-9);
    }
    QVERIFY(checked(d).findings.empty());
  }
  void aBoxBesideTheFoldStandsUprightWhenOpenFlat_data() {
    QTest::addColumn<double>("side");
    QTest::newRow("on a") << 0.0;
    QTest::newRow("on b") << 1.0;
  }
  void aBoxBesideTheFoldStandsUprightWhenOpenFlat() {
    QFETCH(double, side);
    Design d = card(150, 200);
    add(d, "side-box", "gutter",
        {{"side", side}, {"a", 36}, {"h", 36}, {"b", 12}, {"s", 60}, {"w", 28}});
    const Motion motion = Motion::trace(assemble(d));
    const Pose open = motion.poseAt(kPi);
    for (const char* wall : {"s1/inner", "s1/outer"})
      QVERIFY_NEAR(open.panels[motion.assembly().findPanel(wall)].linear()(2, 2), 0, 1e-6);
    QVERIFY_NEAR(std::abs(open.panels[motion.assembly().findPanel("s1/lid")].linear()(2, 2)), 1,
                 1e-6);
    QVERIFY(checked(d).findings.empty());
    // A strap that is too short pulls the wall before the card is open; one that does not fit keeps
    // the card from shutting.
    const Analysis analysis = checked(*setValues(d, StructureId{1}, {{"s", 56}}));
    QVERIFY(findCode(analysis, "shut-flat"));
  }
  void crownsOfVFoldsKeepTheMotion_data() {
    QTest::addColumn<double>("top");
    for (int k = 0; k <= 4; ++k)
      QTest::addRow("%d", k) << double(k);
  }
  void crownsOfVFoldsKeepTheMotion() {
    QFETCH(double, top);
    Design plain = card(150, 200), crowned = plain;
    add(plain, "vfold", "gutter");
    add(crowned, "vfold", "gutter", {{"top", top}, {"rise", 7}, {"open", 11}});
    const Motion a = Motion::trace(assemble(plain)), b = Motion::trace(assemble(crowned));
    for (double deg : {10.0, 90.0, 170.0})
      QVERIFY_NEAR((a.poseAt(radians(deg)).panels[a.assembly().findPanel("s1/panel-a")].matrix() -
                    b.poseAt(radians(deg)).panels[b.assembly().findPanel("s1/panel-a")].matrix())
                       .norm(),
                   0, 1e-6);
    const Panel& panel = b.assembly().panels[b.assembly().findPanel("s1/panel-a")];
    QVERIFY(!contains(panel.outline, {-0.1, 1})); // cut back at the point
    const double grown = area_mm2(panel.outline);
    Design low = crowned;
    low = *setValues(low, StructureId{1}, {{"rise", 0}});
    const auto flat = assemble(low);
    const double straight = area_mm2(flat->panels[flat->findPanel("s1/panel-a")].outline);
    if (top == 0)
      QVERIFY_NEAR(grown, straight, 1e-9);
    else
      QVERIFY(grown > straight + 20);
    QVERIFY(!assembleDesign(*setValues(crowned, StructureId{1}, {{"open", 60}})));
  }
  void aLidInTwoHalvesMovesAsOneInOneSheet() {
    Design one = card(150, 200), two = one;
    add(one, "cube", "gutter");
    add(two, "cube", "gutter", {{"parts", 1}});
    const Motion a = Motion::trace(assemble(one)), b = Motion::trace(assemble(two));
    QCOMPARE(b.assembly().pieces.size(), a.assembly().pieces.size() + 1);
    for (double deg : {10.0, 90.0, 170.0})
      for (const char* panel : {"s1/lid-a", "s1/lid-b", "s1/near-a"})
        QVERIFY_NEAR((a.poseAt(radians(deg)).panels[a.assembly().findPanel(panel)].matrix() -
                      b.poseAt(radians(deg)).panels[b.assembly().findPanel(panel)].matrix())
                         .norm(),
                     0, 1e-6);
    QVERIFY(checked(two).findings.empty());
  }
};

QTEST_APPLESS_MAIN(TestCuts)
#include "test_cuts.moc"
