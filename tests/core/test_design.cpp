// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
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
