// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/assembly/builder.h"
#include "core/structures/registry.h"
#endif

using namespace hinge;
using namespace hinge::test;

class TestRecipes : public QObject {
  Q_OBJECT
private slots:
  void everyTableSaysWhatItsRowsMean() {
    for (const StructureKind* kind : structureKinds()) {
      const auto name = [&](const ParameterSpec& row) {
        return std::string(kind->key) + " " + std::string(row.key);
      };
      int places = 0;
      for (const ParameterSpec& row : kind->parameters) {
        places += row.sense == Sense::Place;
        const bool twoWays = row.sense == Sense::Hand || row.sense == Sense::TurnedRound;
        QVERIFY2(!twoWays || (row.unit == ParameterUnit::Switch && row.least == 0 && row.most == 1),
                 name(row).c_str());
        QVERIFY2(row.sense != Sense::Turn || row.unit == ParameterUnit::Degree, name(row).c_str());
        QVERIFY2(!row.runsAlong() || row.unit == ParameterUnit::Millimetre, name(row).c_str());
        if (row.twin.empty()) continue;
        const ParameterSpec* twin = findSpec(kind->parameters, row.twin);
        QVERIFY2(twin && twin->twin == row.key && twin->sense == row.sense, name(row).c_str());
      }
      QVERIFY2(places == 1, kind->key.data());
      QVERIFY2(!(findSense(kind->parameters, Sense::FromPlace) &&
                 findSense(kind->parameters, Sense::AboutPlace)),
               kind->key.data());
    }
  }
  void aNewStructureOnAnySeatIsFreeOfSpoilingFindings_data() {
    QTest::addColumn<QString>("kind");
    QTest::addColumn<QString>("host");
    QTest::addColumn<QString>("seat");
    const std::pair<const char*, const char*> places[] = {
        {"", "gutter"},           {"", "card/page-b"},          {"box", "s1/ridge"},
        {"box", "s1/valley-a"},   {"box", "s1/wall-a"},         {"vfold", "s1/ridge"},
        {"vfold", "s1/valley-b"}, {"vfold", "s1/panel-b-back"}, {"platform", "s1/table"},
        {"step", "s1/ridge"},     {"step", "s1/valley-b"},      {"cut-vfold", "s1/ridge"}};
    for (const StructureKind* kind : structureKinds())
      for (const auto& [host, seat] : places)
        QTest::addRow("%s on %s %s", kind->key.data(), host, seat)
            << QString::fromUtf8(kind->key.data()) << QString::fromUtf8(host)
            << QString::fromUtf8(seat);
  }
  /// A structure either works at once where it is put, or is refused for the kind of place it is.
  void aNewStructureOnAnySeatIsFreeOfSpoilingFindings() {
    QFETCH(QString, kind);
    QFETCH(QString, host);
    QFETCH(QString, seat);
    Design d = card(160, 240);
    if (!host.isEmpty())
      add(d, host.toUtf8().constData(), "gutter",
          host == QStringLiteral("platform")
              ? ParameterValues{{"position", 70}, {"length", 90}, {"a", 50}, {"h", 40}}
              : ParameterValues{});
    const auto assembly = assemble(d);
    const Seat* place = assembly->findSeat(seat.toStdString());
    QVERIFY(place);
    const StructureKind& asked = *findStructureKind(kind.toStdString());
    if (!asked.offeredOn(*place, *assembly, d.settings)) {
      if (asked.ways->carriesWork()) {
        QVERIFY(addProposed(d, asked.key, place->key, {}).error().code() == "work.none");
        return;
      }
      if (asked.ways->carriesCard()) {
        QVERIFY(addProposed(d, asked.key, place->key, {}).error().code() == "card-within.missing");
        return;
      }
      const auto added = addStructure(d, asked.key, place->key, startingValues(asked.parameters));
      QVERIFY(added.ok());
      const auto refused = assembleDesign(added->design);
      QVERIFY(!refused.ok());
      QCOMPARE(QString::fromStdString(refused.error().code()), QStringLiteral("seat.unsuitable"));
      return;
    }
    add(d, kind.toUtf8().constData(), seat.toUtf8().constData());
    const Analysis analysis = checked(d);
    for (const Finding& f : analysis.findings)
      QVERIFY2(f.severity != Severity::Spoils, describe(f, d).c_str());
    QCOMPARE(analysis.motion->mobility(), 0);
  }
  void aClosedBoxIsGuidedAndShutsBothWays_data() {
    QTest::addColumn<double>("inward");
    QTest::addColumn<double>("e");
    QTest::newRow("outwards, straight when open") << 0.0 << 26.0;
    QTest::newRow("outwards, pointed when open") << 0.0 << 34.0;
    QTest::newRow("inwards") << 1.0 << 26.0;
  }
  void aClosedBoxIsGuidedAndShutsBothWays() {
    QFETCH(double, inward);
    QFETCH(double, e);
    Design d = card(160, 240);
    const StructureId id =
        add(d, "closed-box", "gutter",
            {{"position", 80}, {"length", 80}, {"a", 26}, {"h", 40}, {"e", e}, {"inward", inward}});
    const Analysis a = checked(d);
    QVERIFY2(a.verdict == Verdict::Good,
             a.findings.empty() ? "" : describe(a.findings.front(), d).c_str());
    QCOMPARE(a.motion->mobility(), 0);
    for (const auto& block : a.motion->blocks())
      QVERIFY(block.shutMisfit_mm < 1e-9);
    // Shut it reaches foot and height from the gutter, and half an end past each corner when the
    // ends fold outwards.
    const Pose shut = a.motion->shutPose();
    Box2 box;
    for (PanelIndex p : a.assembly->panels.indices())
      if (a.assembly->panels[p].owner == id)
        for (const Vec2& c : a.assembly->panels[p].outline.rim) {
          const Vec3 q = shut.panels[p] * lift(c);
          box.add(Vec2(q.y(), q.z()));
        }
    QVERIFY_NEAR(box.high.y(), 66, 1e-9);
    QVERIFY_NEAR(box.low.x(), inward != 0 ? 80 : 80 - e, 1e-9);
    QVERIFY_NEAR(box.high.x(), inward != 0 ? 160 : 160 + e, 1e-9);
  }
  void inwardEndsThatMeetAreFound() {
    Design d = card(160, 240);
    add(d, "closed-box", "gutter",
        {{"position", 80},
         {"length", 44},
         {"a", 26},
         {"h", 40},
         {"e", 26},
         {"inward", 1}}); // 44 < 2 x 26
    const Analysis a = checked(d);
    const Finding* f = findCode(a, "panels-hit");
    QVERIFY(f);
    // The creases meet where 2 o = 44 with o = a cos(t/2).
    QVERIFY_NEAR(degrees(f->to_rad), degrees(2 * std::acos(22.0 / 26.0)), 0.6);
  }
  void dimensionsThatAreNotGivenFollowTheClosure() {
    Design d = card();
    const StructureId id = add(d, "box", "gutter", {{"a", 20}, {"b", 35}, {"c", 50}});
    QVERIFY_NEAR(d.find(id)->values.at("d"), 35, 1e-12);
    QVERIFY(checked(d).verdict != Verdict::Spoiled);
  }
  void explicitValuesAreTakenExactly() {
    Design d = card();
    const StructureId id = add(d, "box", "gutter", {{"a", 20}, {"b", 35}, {"c", 50}, {"d", 50}});
    QVERIFY_NEAR(d.find(id)->values.at("d"), 50, 0);
    QVERIFY(findCode(checked(d), "shut-flat"));
  }
  void aStructureWithoutItsSeatIsRefusedByName() {
    Design d = card();
    add(d, "box", "gutter");
    d.structures.front().seat = "s9/ridge";
    const auto assembly = assembleDesign(d);
    QVERIFY(!assembly.ok());
    QCOMPARE(QString::fromStdString(assembly.error().code()), QStringLiteral("seat.missing"));
    QCOMPARE(QString::fromStdString(assembly.error().place), QStringLiteral("s1"));
  }
  void panelsThatLieOnOneAnotherInTheSheetAreRefused() {
    Design d = card();
    const StructureId id = add(d, "vfold", "gutter");
    // An outer edge as high as this runs over the crease into the other panel.
    const auto edited = setValues(
        d, id, {{"gamma1", 20}, {"gamma2", 20}, {"ea", 200}, {"eb", 200}, {"la", 50}, {"lb", 50}});
    QVERIFY(edited.ok());
    const auto assembly = assembleDesign(*edited);
    QVERIFY(!assembly.ok());
    QCOMPARE(QString::fromStdString(assembly.error().code()), QStringLiteral("piece.overlap"));
  }
  void tabsLeanInAndKeepTheirDepth() {
    const Polygon tab = tabOutline({0, 0}, {0, 50}, 10, 30);
    QVERIFY_NEAR(tabDepth_mm(tab, {0, 0}, {0, 50}), 10, 1e-12);
    QVERIFY_NEAR(signedArea_mm2(tab), 10 * (50 - 10 * std::tan(radians(30))), 1e-9);
    // A tab shorter than its own lean keeps a third of its length.
    const Polygon slim = tabOutline({0, 0}, {0, 6}, 20, 60);
    QVERIFY_NEAR(signedArea_mm2(slim), 20 * (6 + 2) / 2.0, 1e-9);
  }
  void pointingTheOtherWayMirrorsThePose() {
    Design forward = card(), back = card();
    add(forward, "vfold", "gutter",
        {{"position", 70},
         {"alpha", 50},
         {"beta", 40},
         {"gamma1", 80},
         {"gamma2", 90},
         {"la", 40},
         {"lb", 50}});
    add(back, "vfold", "gutter",
        {{"position", 110},
         {"alpha", 50},
         {"beta", 40},
         {"gamma1", 80},
         {"gamma2", 90},
         {"la", 40},
         {"lb", 50},
         {"turned", 1}});
    const Motion one = Motion::trace(assemble(forward)), two = Motion::trace(assemble(back));
    for (double t : {10.0, 90.0, 170.0}) {
      const Pose p = one.poseAt(radians(t)), q = two.poseAt(radians(t));
      const auto bounds = [](const Motion& m, const Pose& pose, const char* key) {
        Eigen::AlignedBox3d box;
        const PanelIndex panel = m.assembly().findPanel(key);
        for (const Vec2& c : m.assembly().panels[panel].outline.rim)
          box.extend(pose.panels[panel] * lift(c));
        return box;
      };
      for (const char* key : {"s1/panel-a", "s1/panel-b"}) {
        const auto a = bounds(one, p, key), b = bounds(two, q, key);
        QVERIFY_NEAR(a.min().x(), b.min().x(), 1e-7);
        QVERIFY_NEAR(a.max().z(), b.max().z(), 1e-7);
        QVERIFY_NEAR(a.min().y(), 180 - b.max().y(), 1e-7); // mirrored along the gutter of 180 mm
      }
    }
  }

  // --- inner walls, half tabs, figures on the fold
  void innerWallsStandParallelToTheOuterOnes_data() {
    QTest::addColumn<QString>("kind");
    QTest::addColumn<int>("perTier");
    QTest::newRow("closed box") << "closed-box" << 1;
    QTest::newRow("platform") << "platform" << 1;
    QTest::newRow("tiers") << "tiers" << 2;
  }
  void innerWallsStandParallelToTheOuterOnes() {
    QFETCH(QString, kind);
    QFETCH(int, perTier);
    Design d = card(150, 200);
    ParameterValues sizes{{"position", 70}, {"length", 60}, {"a", 45}, {"h", 30},
                          {"inner", 1},     {"wall", 1},    {"tab", 6}};
    if (kind == QStringLiteral("closed-box")) sizes["e"] = sizes["l"] = 45, sizes["lid"] = 2;
    if (kind == QStringLiteral("tiers")) sizes["tiers"] = 2;
    add(d, kind.toUtf8().constData(), "gutter", sizes);
    const Analysis a = checked(d);
    QVERIFY2(a.verdict == Verdict::Good,
             a.findings.empty() ? "" : describe(a.findings[0], d).c_str());
    QCOMPARE(a.motion->mobility(), 0);
    const Assembly& all = *a.assembly;
    const auto count = std::ranges::count_if(all.panels, [](const Panel& p) {
      return p.key.find("/inner-") != std::string::npos ||
             p.key.find("-inner-1") != std::string::npos;
    });
    QVERIFY(count >= 2 * perTier);
    const PanelIndex inner = all.findPanel("s1/inner-1-a"), wall = all.findPanel("s1/wall-a");
    QVERIFY(inner.valid() && all.panels[inner].twin == all.findPanel("s1/inner-1-b"));
    for (double t : {0.3, 1.4, 2.8}) {
      const Pose pose = a.motion->poseAt(t);
      QVERIFY_NEAR((pose.panels[inner].linear().col(2) - pose.panels[wall].linear().col(2)).norm(),
                   0.0, 1e-9);
      // Halfway between the wall and the fold, on page and lid alike.
      const Vec3 foot = pose.panels[inner] * Vec3(0, 0, 0),
                 top = pose.panels[inner] * Vec3(0, 30, 0);
      const Vec3 page = pose.panels[all.findPanel("card/page-a")].linear().col(2);
      QVERIFY_NEAR(page.dot(foot - pose.panels[all.findPanel("card/page-a")].translation()), 0.0,
                   1e-9);
      QVERIFY_NEAR(std::hypot(foot.x(), foot.z()), 22.5, 1e-9);
      QVERIFY_NEAR((top - foot).norm(), 30.0, 1e-9);
    }
  }
  void innerWallsNeedALidThatCarriesThem() {
    Design d = card(150, 200);
    const StructureId box = add(d, "closed-box", "gutter", {{"lid", 2}});
    const auto refused = [&](const ParameterValues& values) {
      const auto made = assembleDesign(*setValues(d, box, values));
      return made ? std::string() : made.error().code();
    };
    QCOMPARE(refused({{"wall", 1}}), std::string());
    QCOMPARE(refused({{"wall", 1}, {"lid", 1}}), std::string("belt.inner-lid"));
    QCOMPARE(refused({{"inner", 1}, {"l", d.structures[0].values["a"] + 3}}),
             std::string("belt.inner-lid"));
    QCOMPARE(refused({{"inner", 4}, {"a", 12}, {"e", 12}, {"l", 12}}),
             std::string("belt.inner-narrow"));
  }
  void halfTabsShareALine() {
    // Two boxes back to back in one place: their tabs meet in the middle.
    const auto extent = [](const Design& d, const char* tab) {
      const auto assembly = assemble(d);
      const PanelIndex p = assembly->findPanel(tab);
      const Glue& glue = *assembly->glueOf(p);
      Box2 box;
      for (const Vec2& c : assembly->panels[p].outline.rim)
        box.add((glue.tabToHost * lift(c)).head<2>());
      return box;
    };
    for (const char* kind : {"box", "vfold"}) {
      Design d = card();
      const StructureId id = add(d, kind, "gutter");
      const Box2 whole = extent(d, "s1/tab-a"),
                 first = extent(*setValues(d, id, {{"half", 1}}), "s1/tab-a"),
                 second = extent(*setValues(d, id, {{"half", 2}}), "s1/tab-a"),
                 other = extent(*setValues(d, id, {{"half", 1}}), "s1/tab-b");
      const Vec2 gap = first.centre() - second.centre();
      QVERIFY(gap.norm() > 0.3 * whole.size().maxCoeff());
      QVERIFY(first.size().maxCoeff() < 0.75 * whole.size().maxCoeff());
      // On both sides the same half.
      QVERIFY_NEAR(first.size().norm(), other.size().norm(), 1e-6);
      QVERIFY(checked(*setValues(d, id, {{"half", 1}})).verdict == Verdict::Good);
    }
  }
  void aFigureOnTheFoldStandsInTheMiddle() {
    Design d = card();
    add(d, "standing-figure", "gutter", {{"position", 90}, {"shape", 3}});
    const Analysis a = checked(d);
    QVERIFY(a.verdict == Verdict::Advice);
    const Finding* f = findCode(a, "by-spring");
    QVERIFY(f && f->severity == Severity::Advice);
    QCOMPARE(a.findings.size(), std::size_t(1));
    QVERIFY(!findCode(checked(card()), "by-spring"));
    const PanelIndex figure = a.assembly->findPanel("s1/figure");
    for (double t : {0.0, 0.7, 2.0, kPi}) {
      const Pose pose = a.motion->poseAt(t);
      for (const Vec2& c : a.assembly->panels[figure].outline.rim)
        QVERIFY_NEAR((pose.panels[figure] * lift(c)).x(), 0.0, 1e-9);
      // Its foot stays on the fold, its head is up.
      QVERIFY_NEAR((pose.panels[figure] * Vec3(0, 0, 0)).z(), 0.0, 1e-9);
      QVERIFY_NEAR((pose.panels[figure] * Vec3(0, 40, 0)).z(), 40.0, 1e-9);
    }
    // Both tabs are bent alike and lie on their pages.
    const Pose pose = a.motion->poseAt(1.1);
    const auto normal = [&](const char* key) {
      return Vec3(pose.panels[a.assembly->findPanel(key)].linear().col(2));
    };
    QVERIFY_NEAR(std::abs(normal("s1/tab-a").dot(normal("card/page-a"))), 1.0, 1e-9);
    QVERIFY_NEAR(std::abs(normal("s1/tab-b").dot(normal("card/page-b"))), 1.0, 1e-9);
  }
  void aFigureOnTheFoldNeedsAFoldOfTheBase() {
    Design d = card();
    add(d, "box", "gutter");
    const auto on = addProposed(d, "standing-figure", "s1/valley-a", {});
    QVERIFY(!on || !assembleDesign(on->design));
    // A narrow shape beside its foot would not be one sheet.
    Design wide = card();
    const StructureId id = add(wide, "standing-figure", "gutter", {{"shape", 1}});
    QVERIFY(assembleDesign(*setValues(wide, id, {{"shape", 6}, {"width", 8}, {"height", 30}})));
  }
};

QTEST_APPLESS_MAIN(TestRecipes)
#include "test_recipes.moc"
