#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/io/design_json.h"
#endif

using namespace hinge;
using namespace hinge::test;

Q_DECLARE_METATYPE(hinge::ParameterValues)

class TestMends : public QObject {
  Q_OBJECT
private slots:
  void everyMendRemovesItsFindingAndSpoilsNothingElse_data() {
    QTest::addColumn<QString>("code");
    QTest::addColumn<ParameterValues>("values");
    QTest::newRow("pokes out at the fore edge") << "outside-cover" << ParameterValues{{"position", 50}, {"a", 30}, {"c", 110}};
    QTest::newRow("pokes out at the end") << "outside-cover" << ParameterValues{{"position", 150}, {"a", 30}, {"c", 45}};
    QTest::newRow("does not shut") << "shut-flat" << ParameterValues{{"a", 30}, {"b", 34}, {"c", 45}, {"d", 45}};
    QTest::newRow("goes taut") << "taut" << ParameterValues{{"a", 40}, {"c", 33}};
    QTest::newRow("tab over the gutter") << "tab-crosses-fold" << ParameterValues{{"a", 8}, {"c", 40}, {"tab", 12}};
    QTest::newRow("tab too narrow") << "tab-narrow" << ParameterValues{{"tab", 3}};
  }
  void everyMendRemovesItsFindingAndSpoilsNothingElse() {
    QFETCH(QString, code);
    QFETCH(ParameterValues, values);
    Design design = card();
    add(design, "box", "gutter", values);
    const Analysis before = checked(design, true);
    const Finding* f = findCode(before, code.toStdString());
    QVERIFY(f);
    QVERIFY2(f->mend, "a change of sizes exists");
    const auto mended = applyMend(design, *f->mend);
    QVERIFY(mended.ok());
    const Analysis after = checked(*mended);
    QVERIFY(!findCode(after, code.toStdString()));
    QVERIFY(after.verdict != Verdict::Spoiled);
    for (const MendEdit& edit : f->mend->edits) QVERIFY_NEAR(std::remainder(edit.to, 0.5), 0, 1e-9); // on the lattice
  }
  void mendsStayOnSixteenthsForInchUsers() {
    Design design = card(127, 177.8);
    design.settings.unit = LengthUnit::Inch;
    add(design, "box", "gutter", {{"position", 25.4}, {"length", 50.8}, {"a", 25.4}, {"c", 114.3}});
    const Analysis a = checked(design, true);
    const Finding* f = findCode(a, "outside-cover");
    QVERIFY(f && f->mend);
    for (const MendEdit& edit : f->mend->edits) QVERIFY_NEAR(std::remainder(edit.to, 25.4 / 16), 0, 1e-9);
  }
  void aCollisionIsMendedByMovingApart() {
    Design d = card();
    add(d, "vfold", "gutter", {{"position", 40}, {"alpha", 40}, {"gamma1", 80}, {"la", 66}, {"lc", 40}, {"ea", 26}});
    add(d, "box", "gutter", {{"position", 80}, {"length", 42}, {"a", 34}, {"c", 46}});
    const Analysis a = checked(d, true);
    const Finding* f = findCode(a, "panels-hit");
    QVERIFY(f && f->mend);
    QVERIFY(!findCode(checked(*applyMend(d, *f->mend)), "panels-hit"));
  }
  void theDemoWithMistakesIsMendedCompletely() {
    const auto demo = loadDesign(HINGE_SOURCE_DIR "/demo/night-market-mistakes.hinge");
    QVERIFY(demo.ok());
    const Analysis before = checked(*demo);
    QCOMPARE(std::ranges::count(before.findings, Severity::Spoils, &Finding::severity), 4);
    const auto mended = mendAll(*demo);
    QVERIFY(mended.ok());
    QVERIFY(mended->applied >= 3);
    QVERIFY(checked(mended->design).verdict == Verdict::Good);
  }
  void theDemoIsGood() {
    const auto demo = loadDesign(HINGE_SOURCE_DIR "/demo/night-market.hinge");
    QVERIFY(demo.ok());
    const Analysis a = checked(*demo);
    QVERIFY(a.verdict == Verdict::Good);
    QCOMPARE(a.motion->mobility(), 0);
  }
};

QTEST_APPLESS_MAIN(TestMends)
#include "test_mends.moc"
