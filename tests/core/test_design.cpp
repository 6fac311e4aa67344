// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/paper/envelope.h"
#include "core/structures/registry.h"
#endif

using namespace hinge;
using namespace hinge::test;

class TestDesign : public QObject {
  Q_OBJECT
private slots:
  void editsLeaveTheirArgumentAlone() {
    Design d = card();
    const StructureId id = add(d, "box", "gutter");
    const Design before = d;
    const auto edited = setValues(d, id, {{"c", 50}});
    QVERIFY(edited.ok());
    QVERIFY(d == before);
    QVERIFY_NEAR(edited->find(id)->values.at("c"), 50, 0);
  }
  void removingTakesWhatStandsOnIt() {
    Design d = card();
    const StructureId low = add(d, "box", "gutter");
    const StructureId mid = add(d, "box", "s1/ridge");
    add(d, "vfold", "s2/ridge");
    const StructureId other = add(d, "vfold", "gutter", {{"position", 150}});
    QCOMPARE(standingOn(d, low).size(), std::size_t(3));
    const auto removed = removeStructure(d, mid);
    QVERIFY(removed.ok());
    QCOMPARE(removed->structures.size(), std::size_t(2));
    QVERIFY(removed->find(low) && removed->find(other));
    QVERIFY(assembleDesign(*removed).ok());
  }
  void idsAreNeverUsedAgain() {
    Design d = card();
    add(d, "box", "gutter");
    const auto removed = removeStructure(d, StructureId{1});
    Design next = *removed;
    QCOMPARE(add(next, "box", "gutter").value, 2);
  }
  void valuesOutsideTheirTableAreRefused_data() {
    QTest::addColumn<QString>("key");
    QTest::addColumn<double>("value");
    QTest::newRow("negative width") << "c" << -3.0;
    QTest::newRow("zero") << "a" << 0.0;
    QTest::newRow("huge") << "d" << 1e9;
    QTest::newRow("not a number") << "b" << std::nan("");
    QTest::newRow("infinite") << "length" << HUGE_VAL;
    QTest::newRow("unknown key") << "zz" << 5.0;
  }
  void valuesOutsideTheirTableAreRefused() {
    QFETCH(QString, key);
    QFETCH(double, value);
    Design d = card();
    const StructureId id = add(d, "box", "gutter");
    const auto edited = setValues(d, id, {{key.toStdString(), value}});
    QVERIFY(!edited.ok());
    QVERIFY2(edited.error().place.find(key.toStdString()) != std::string::npos,
             say(edited.error()).c_str());
  }
  void impossibleCardsAreRefused_data() {
    QTest::addColumn<double>("width");
    for (double w : {0.0, -10.0, 5.0, 5000.0})
      QTest::addRow("%g mm", w) << w;
    QTest::newRow("nan") << std::nan("");
  }
  void impossibleCardsAreRefused() {
    QFETCH(double, width);
    CardBase c;
    c.width_mm = width;
    const auto edited = setCard(card(), c);
    QVERIFY(!edited.ok());
    QCOMPARE(QString::fromStdString(edited.error().place), QStringLiteral("card width"));
  }
  /// Settings that nobody touched follow the unit and come back; what was set stays.
  void untouchedSettingsFollowTheUnit() {
    Design d;
    d.settings.edgeReserve_mm = 4;
    const Design inches = inUnit(d, LengthUnit::Inch);
    QCOMPARE(inches.settings.sheet, std::string("letter"));
    QCOMPARE(inches.settings.edgeReserve_mm, 4.0);
    QCOMPARE(inches.settings.matBorder_mm, 25.4 / 8);
    QVERIFY(inches.card == d.card);
    QVERIFY(inUnit(inches, LengthUnit::Millimetre) == d);
    QVERIFY(startingSettings(LengthUnit::Millimetre) == Settings());
  }
  void envelopesAreKnownOrOnesOwn() {
    const auto own = envelopeKeyFrom("4 3/8 x 5 3/4", LengthUnit::Inch);
    QVERIFY(own && isEnvelope(*own));
    QVERIFY_NEAR(envelopeByKey(*own).long_mm, 146.05, 1e-4);
    QVERIFY_NEAR(envelopeByKey(*own).short_mm, 111.125, 1e-4);
    // The same as the known one of that size, told as its maker did.
    QVERIFY_NEAR(envelopeByKey("a2").long_mm, envelopeByKey(*own).long_mm, 1e-4);
    QCOMPARE(*envelopeKeyFrom("no-10", LengthUnit::Inch), std::string("no-10"));
    for (const char* wrong : {"", "huge", "5 3/4", "x 4", "5 x", "5 x 0", "5 x -4", "1e9 x 3"})
      QVERIFY2(!envelopeKeyFrom(wrong, LengthUnit::Inch), wrong);
    for (const char* wrong :
         {"own-", "own-10", "own-10x20", "own-10x5x3", "own-nanx5", "own-9e9x5"})
      QVERIFY2(!isEnvelope(wrong), wrong);
  }
  void twinsPointAtEachOther() {
    for (const StructureKind* kind : structureKinds())
      for (const ParameterSpec& spec : kind->parameters) {
        QVERIFY(spec.least < spec.most && spec.start >= spec.least && spec.start <= spec.most);
        if (spec.twin.empty()) continue;
        const ParameterSpec* twin = findSpec(kind->parameters, spec.twin);
        QVERIFY(twin);
        QCOMPARE(twin->twin, spec.key);
        QVERIFY(twin->unit == spec.unit && twin->role == spec.role);
      }
  }
  void mirroringTwiceIsTheSame() {
    Design d = card();
    const StructureId id = add(d, "box", "gutter", {{"a", 20}, {"b", 30}, {"c", 50}, {"d", 40}});
    const auto table = boxKind().parameters;
    const auto once = swapTwins(table, d.find(id)->values);
    QVERIFY_NEAR(once.at("a"), 30, 0);
    QVERIFY(swapTwins(table, once) == d.find(id)->values);
  }
};

QTEST_APPLESS_MAIN(TestDesign)
#include "test_design.moc"
