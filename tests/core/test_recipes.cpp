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
  void aNewStructureOnAnySeatIsFreeOfSpoilingFindings_data() {
    QTest::addColumn<QString>("kind");
    QTest::addColumn<QString>("seat");
    for (const StructureKind* kind : structureKinds())
      for (const char* seat : {"gutter", "s1/ridge", "s2/ridge", "s1/valley-a", "s2/valley-b"})
        QTest::addRow("%s on %s", kind->key.data(), seat) << QString::fromUtf8(kind->key.data()) << QString::fromUtf8(seat);
  }
  void aNewStructureOnAnySeatIsFreeOfSpoilingFindings() {
    QFETCH(QString, kind);
    QFETCH(QString, seat);
    Design d = card(160, 240);
    add(d, "box", "gutter", {{"position", 150}});
    add(d, "vfold", "gutter", {{"position", 50}});
    if (seat == QStringLiteral("gutter")) d = card();
    add(d, kind.toUtf8().constData(), seat.toUtf8().constData());
    const Analysis analysis = checked(d);
    for (const Finding& f : analysis.findings) QVERIFY2(f.severity != Severity::Spoils, describe(f, d).c_str());
    QCOMPARE(analysis.motion->mobility(), 0);
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
    QCOMPARE(QString::fromStdString(assembly.error().code), QStringLiteral("seat.missing"));
    QCOMPARE(QString::fromStdString(assembly.error().place), QStringLiteral("s1"));
  }
  void panelsThatLieOnOneAnotherInTheSheetAreRefused() {
    Design d = card();
    const StructureId id = add(d, "vfold", "gutter");
    // An outer edge as high as this runs over the crease into the other panel.
    const auto edited = setValues(d, id, {{"gamma1", 20}, {"gamma2", 20}, {"ea", 200}, {"eb", 200}, {"la", 50}, {"lb", 50}});
    QVERIFY(edited.ok());
    const auto assembly = assembleDesign(*edited);
    QVERIFY(!assembly.ok());
    QCOMPARE(QString::fromStdString(assembly.error().code), QStringLiteral("piece.overlap"));
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
    add(forward, "vfold", "gutter", {{"position", 70}, {"alpha", 50}, {"beta", 40}, {"gamma1", 80}, {"gamma2", 90}, {"la", 40}, {"lb", 50}});
    add(back, "vfold", "gutter", {{"position", 110}, {"alpha", 50}, {"beta", 40}, {"gamma1", 80}, {"gamma2", 90}, {"la", 40}, {"lb", 50}, {"turned", 1}});
    const Motion one = Motion::trace(assemble(forward)), two = Motion::trace(assemble(back));
    for (double t : {10.0, 90.0, 170.0}) {
      const Pose p = one.poseAt(radians(t)), q = two.poseAt(radians(t));
      const auto bounds = [](const Motion& m, const Pose& pose, const char* key) {
        Eigen::AlignedBox3d box;
        const PanelIndex panel = m.assembly().findPanel(key);
        for (const Vec2& c : m.assembly().panels[panel].outline) box.extend(pose.panels[panel] * lift(c));
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
};

QTEST_APPLESS_MAIN(TestRecipes)
#include "test_recipes.moc"
