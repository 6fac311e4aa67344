// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/io/design_json.h"
#include <random>
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
    QTest::newRow("pokes out at the fore edge")
        << "outside-cover" << ParameterValues{{"position", 50}, {"a", 30}, {"c", 110}};
    QTest::newRow("pokes out at the end")
        << "outside-cover" << ParameterValues{{"position", 150}, {"a", 30}, {"c", 45}};
    QTest::newRow("does not shut")
        << "shut-flat" << ParameterValues{{"a", 30}, {"b", 34}, {"c", 45}, {"d", 45}};
    QTest::newRow("goes taut") << "taut" << ParameterValues{{"a", 40}, {"c", 33}};
    QTest::newRow("tab over the gutter")
        << "tab-crosses-fold" << ParameterValues{{"a", 8}, {"c", 40}, {"tab", 12}};
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
    for (const MendEdit& edit : f->mend->edits)
      QVERIFY_NEAR(std::remainder(edit.to, 0.5), 0, 1e-9); // on the lattice
  }
  void aProposedMendThatSpoilsSomethingElseIsNotTaken() {
    // The wall's exact length would push the box into the reserve and past the fore edge.
    Design d = card();
    add(d, "box", "gutter", {{"a", 40}, {"b", 60}, {"c", 66}, {"d", 46}});
    const auto off = setValues(d, StructureId{1}, {{"c", 60}});
    QVERIFY(off.ok());
    const Analysis a = checked(*off, true);
    for (const Finding& f : a.findings) {
      QVERIFY(f.mendSought);
      if (!f.mend) continue;
      const Analysis after = checked(*applyMend(*off, *f.mend));
      for (const Finding& g : after.findings) {
        const bool before = std::ranges::any_of(
            a.findings, [&](const Finding& old) { return sameTrouble(old, g); });
        QVERIFY2(before || g.severity != Severity::Spoils, describe(g, *off).c_str());
      }
    }
  }
  void noMendOfRandomBoxesBringsATroubleThatSpoils() {
    std::mt19937 random(11);
    std::uniform_real_distribution<double> any(0, 1);
    int mends = 0;
    for (int k = 0; k < 12; ++k) {
      Design d = card();
      const double a = 15 + 40 * any(random), c = 20 + 70 * any(random);
      const auto values = ParameterValues{{"position", 20 + 60 * any(random)},
                                          {"length", 40},
                                          {"a", a},
                                          {"b", a},
                                          {"c", c},
                                          {"d", c},
                                          {"tab", 10},
                                          {"half", 0}};
      const auto first = addStructure(d, "box", "gutter", values);
      if (!first) continue;
      const auto spoiled =
          setValues(first->design, first->id, {{"d", c + 8 * (any(random) - 0.5)}});
      if (!spoiled || !assembleDesign(*spoiled)) continue;
      const Analysis before = checked(*spoiled, true);
      for (const Finding& f : before.findings) {
        if (!f.mend) continue;
        ++mends;
        for (const Finding& g : checked(*applyMend(*spoiled, *f.mend)).findings)
          QVERIFY(g.severity != Severity::Spoils ||
                  std::ranges::any_of(before.findings,
                                      [&](const Finding& old) { return sameTrouble(old, g); }));
      }
    }
    QVERIFY(mends > 5);
  }
  void aStoppedSearchSaysWhatItDidNotLookInto() {
    Analysis a = checked(demo("night-market-mistakes"));
    const Verdict verdict = a.verdict;
    std::stop_source stop;
    std::size_t told = 0;
    searchMends(a, stop.get_token(), [&](std::size_t k) {
      QCOMPARE(k, told++);
      stop.request_stop(); // after the first
    });
    QCOMPARE(told, std::size_t(1));
    QVERIFY(a.findings.front().mendSought);
    for (std::size_t k = 1; k < a.findings.size(); ++k)
      QVERIFY(!a.findings[k].mendSought && !a.findings[k].mend);
    QVERIFY(a.verdict == verdict);
    searchMends(a); // and goes on where it left off
    for (const Finding& f : a.findings)
      QVERIFY(f.mendSought);
  }
  void mendsStayOnSixteenthsForInchUsers() {
    Design design = card(127, 177.8);
    design.settings.unit = LengthUnit::Inch;
    add(design, "box", "gutter", {{"position", 25.4}, {"length", 50.8}, {"a", 25.4}, {"c", 114.3}});
    const Analysis a = checked(design, true);
    const Finding* f = findCode(a, "outside-cover");
    QVERIFY(f && f->mend);
    for (const MendEdit& edit : f->mend->edits)
      QVERIFY_NEAR(std::remainder(edit.to, 25.4 / 16), 0, 1e-9);
  }
  void aCollisionIsMendedByMovingApart() {
    Design d = card();
    add(d, "vfold", "gutter",
        {{"position", 40}, {"alpha", 40}, {"gamma1", 80}, {"la", 66}, {"lc", 40}, {"ea", 26}});
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
  void progressIsToldToItsEnd() {
    const auto demo = loadDesign(HINGE_SOURCE_DIR "/demo/night-market-mistakes.hinge");
    std::size_t before = 0, all = 0;
    const auto worked =
        analyse(std::make_shared<const Snapshot>(*demo), {}, [&](std::size_t done, std::size_t of) {
          QCOMPARE(done, before + 1);
          before = done, all = of;
        });
    QVERIFY(worked && worked->complete);
    QCOMPARE(before, all);
    QCOMPARE(all, checkKinds().size() + 2);

    std::vector<std::pair<std::size_t, std::size_t>> told;
    QVERIFY(
        mendAll(*demo, {}, [&](std::size_t done, std::size_t of) { told.emplace_back(done, of); }));
    QCOMPARE(told.front(), std::pair(std::size_t(0), std::size_t(4)));
    QCOMPARE(told.back(), std::pair(std::size_t(4), std::size_t(4)));
    QVERIFY(std::ranges::is_sorted(told));
  }
  void whatIsStoppedIsNotComplete() {
    const auto demo = loadDesign(HINGE_SOURCE_DIR "/demo/night-market-mistakes.hinge");
    // Stopped after so many parts of the work, the next one is not done any more.
    for (const std::size_t after : {std::size_t(1), std::size_t(2), std::size_t(9)}) {
      std::stop_source stop;
      std::size_t last = 0;
      const auto worked = analyse(std::make_shared<const Snapshot>(*demo), stop.get_token(),
                                  [&](std::size_t done, std::size_t) {
                                    last = done;
                                    if (done == after) stop.request_stop();
                                  });
      QVERIFY(worked && !worked->complete);
      QVERIFY(last <= std::max(after, std::size_t(2)));
    }
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
