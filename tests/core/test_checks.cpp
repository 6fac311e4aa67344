// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#include <QDir>
#include <QFile>
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/design/piece_work.h"
#include "core/structures/registry.h"
#include "words/sentences.h"
#include <set>
#endif

using namespace hinge;
using namespace hinge::test;

class TestChecks : public QObject {
  Q_OBJECT
private slots:
  void verdictsAreSpelledForPrograms() {
    QCOMPARE(severityKey(Severity::Spoils), std::string_view("spoils"));
    QCOMPARE(severityKey(Severity::Advice), std::string_view("advice"));
    QCOMPARE(unitKey(AmountUnit::Millimetre), std::string_view("mm"));
    QCOMPARE(unitKey(AmountUnit::Degree), std::string_view("deg"));
    QCOMPARE(unitKey(AmountUnit::Count), std::string_view("count"));
  }
  void anEmptyCardIsGood() {
    const Analysis a = checked(card());
    QVERIFY(a.verdict == Verdict::Good);
    QVERIFY(a.findings.empty());
  }
  void shutFlatIsExact_data() {
    QTest::addColumn<double>("d");
    QTest::addColumn<double>("misfit");
    QTest::newRow("exact") << 45.0 << 0.0;
    QTest::newRow("half a millimetre") << 45.5 << 0.5;
    QTest::newRow("a hundredth, which no paper knows") << 45.01 << 0.0;
    QTest::newRow("a tenth, which paper gives") << 45.1 << 0.1;
    QTest::newRow("a quarter, which paper gives") << 45.25 << 0.25;
    QTest::newRow("too short") << 43.0 << 2.0;
  }
  void shutFlatIsExact() {
    QFETCH(double, d);
    QFETCH(double, misfit);
    Design design = card();
    add(design, "box", "gutter", {{"a", 30}, {"b", 30}, {"c", 45}, {"d", d}});
    const Analysis a = checked(design, true);
    const Finding* f = findCode(a, "shut-flat");
    QCOMPARE(f != nullptr, misfit > 0);
    if (!f) return;
    QVERIFY_NEAR(f->amount, misfit, 1e-9);
    const bool given = misfit <= design.settings.closureLimit_mm;
    QCOMPARE(a.verdict, given ? Verdict::Advice : Verdict::Spoiled);
    QCOMPARE(f->detail.key == "forgiven", given);
    QVERIFY(f->mend);
    QVERIFY_NEAR(f->mend->edits.front().to, 45, 1e-9);
    QCOMPARE(checked(*applyMend(design, *f->mend)).verdict, Verdict::Good);
    QVERIFY(!findCode(a, "panels-hit")); // the consequence is not reported as a second trouble
  }
  void theClosureLimitIsASetting() {
    Design design = card();
    add(design, "box", "gutter", {{"a", 30}, {"b", 30}, {"c", 45}, {"d", 45.25}});
    design.settings.closureLimit_mm = 0.2;
    QCOMPARE(checked(design).verdict, Verdict::Spoiled);
    design.settings.closureLimit_mm = 0.3;
    const Analysis given = checked(design);
    QCOMPARE(given.verdict, Verdict::Advice);
    // It comes down to the shut card, open by what it misses and no more.
    QCOMPARE(given.motion->low_rad(), 0.0);
    QVERIFY(given.motion->poseAt(radians(0.1)).residual_mm <= 0.3);
    QVERIFY(given.motion->poseAt(radians(60)).residual_mm < 1e-6);
  }
  void aCardIsShownWhereItOpens() {
    Design design = card();
    design.card.worksTo_deg = 50, design.card.display_deg = 170;
    const Analysis a = checked(design);
    const Finding* f = findCode(a, "shown-outside");
    QVERIFY(f);
    QCOMPARE(a.verdict, Verdict::Spoiled);
    QVERIFY_NEAR(f->amount, 120, 1e-9);
    design.card.display_deg = 50;
    QVERIFY(!findCode(checked(design), "shown-outside"));
  }
  void angleMisfitsAreInDegrees() {
    Design design = card();
    add(design, "vfold", "gutter", {{"alpha", 50}, {"beta", 50}, {"gamma1", 85}, {"gamma2", 88}});
    const Analysis a = checked(design);
    const Finding* f = findCode(a, "shut-flat");
    QVERIFY(f && f->unit == AmountUnit::Degree);
    QVERIFY_NEAR(f->amount, 3, 1e-9);
  }
  void overARidgeTheOtherConditionHolds() {
    Design design = card(160, 220);
    add(design, "box", "gutter", {{"position", 60}, {"length", 90}, {"a", 40}, {"c", 60}});
    add(design, "box", "s1/ridge",
        {{"position", 10}, {"length", 40}, {"a", 15}, {"b", 25}, {"c", 30}, {"d", 40}});
    QVERIFY(!findCode(checked(design), "shut-flat"));
    const auto edited =
        setValues(design, StructureId{2}, {{"c", 40}, {"d", 30}}); // right in a valley, wrong here
    QVERIFY_NEAR(findCode(checked(*edited), "shut-flat")->amount, 20, 1e-9);
  }
  void pokingOutNamesTheEdgeAndTheAmount_data() {
    QTest::addColumn<QString>("fold");
    QTest::addColumn<double>("position");
    QTest::addColumn<double>("wall");
    QTest::addColumn<QString>("edge");
    QTest::addColumn<double>("amount");
    QTest::newRow("fore edge") << "side" << 50.0 << 110.0 << "fore"
                               << 10.0; // a + c = 140 on a page of 130
    QTest::newRow("bottom") << "side" << -4.0 << 45.0 << "bottom" << 4.0;
    QTest::newRow("top") << "side" << 145.0 << 45.0 << "top" << 15.0;
    QTest::newRow("left of a top fold") << "top" << -2.0 << 45.0 << "left" << 2.0;
  }
  void pokingOutNamesTheEdgeAndTheAmount() {
    QFETCH(QString, fold);
    QFETCH(double, position);
    QFETCH(double, wall);
    QFETCH(QString, edge);
    QFETCH(double, amount);
    Design design = card();
    design.card.fold = fold == QStringLiteral("top") ? FoldSide::Top : FoldSide::Side;
    add(design, "box", "gutter", {{"position", position}, {"length", 50}, {"a", 30}, {"c", wall}});
    const Analysis a = checked(design);
    const Finding* f = findCode(a, "outside-cover");
    QVERIFY(f);
    QCOMPARE(QString::fromStdString(say(f->detail)), edge);
    QVERIFY_NEAR(f->amount, amount, 1e-9);
  }
  void theReserveIsAdviceOnly() {
    Design design = card();
    add(design, "box", "gutter",
        {{"position", 50}, {"a", 30}, {"c", 98.5}}); // 1.5 mm inside, 3 mm wanted
    const Analysis a = checked(design);
    QVERIFY(a.verdict == Verdict::Advice);
    QVERIFY_NEAR(findCode(a, "edge-reserve")->amount, 1.5, 1e-9);
  }
  void tautStructuresNameTheirLimit() {
    Design design = card(160, 200);
    add(design, "box", "gutter", {{"a", 50}, {"b", 40}, {"c", 38}, {"d", 48}});
    const Analysis a = checked(design);
    const Finding* f = findCode(a, "taut");
    QVERIFY(f);
    const double limit = degrees(std::acos((2500 + 1600 - 86.0 * 86.0) / (2 * 50 * 40)));
    QVERIFY_NEAR(degrees(f->from_rad), limit, 1e-3);
    QVERIFY_NEAR(f->amount, 180 - limit, 1e-3);
  }
  void onlyTheCauseOfALimitIsNamed() {
    Design design = card(160, 200);
    add(design, "box", "gutter", {{"length", 60}, {"a", 50}, {"c", 45}});
    add(design, "box", "s1/ridge", {{"a", 12}, {"c", 20}});
    int count = 0;
    const Analysis a = checked(design);
    for (const Finding& f : a.findings)
      count += f.code == "taut";
    QCOMPARE(count, 1);
    QCOMPARE(findCode(a, "taut")->owners.front().value, 1);
  }
  void impossibleStructuresAreNamedOnce() {
    Design design = card(160, 200);
    add(design, "box", "gutter", {{"a", 80}, {"b", 10}, {"c", 20}, {"d", 15}});
    add(design, "box", "s1/ridge");
    const Analysis a = checked(design);
    QVERIFY(findCode(a, "impossible"));
    QCOMPARE(findCode(a, "impossible")->owners.front().value, 1);
    QCOMPARE(std::ranges::count(a.findings, "impossible", &Finding::code), 1);
  }
  void tabsAreJudged_data() {
    QTest::addColumn<QString>("code");
    QTest::addColumn<double>("foot");
    QTest::addColumn<double>("tab");
    QTest::addColumn<double>("amount");
    QTest::newRow("too narrow") << "tab-narrow" << 30.0 << 4.0 << 2.0;
    QTest::newRow("crosses the gutter") << "tab-crosses-fold" << 8.0 << 12.0 << 4.0;
    QTest::newRow("too near the gutter") << "tab-near-fold" << 11.0 << 10.0 << 0.5;
  }
  void tabsAreJudged() {
    QFETCH(QString, code);
    QFETCH(double, foot);
    QFETCH(double, tab);
    QFETCH(double, amount);
    Design design = card();
    add(design, "box", "gutter", {{"a", foot}, {"tab", tab}});
    const Analysis a = checked(design);
    const Finding* f = findCode(a, code.toStdString());
    QVERIFY(f);
    QVERIFY_NEAR(f->amount, amount, 1e-9);
  }
  void tabsOnOneAnotherAreFound() {
    Design design = card();
    add(design, "box", "gutter", {{"position", 40}, {"length", 50}, {"a", 40}, {"c", 45}});
    QVERIFY(!findCode(checked(design), "tabs-overlap"));
    add(design, "box", "gutter", {{"position", 80}, {"length", 50}, {"a", 36}, {"c", 41}});
    QVERIFY(findCode(checked(design), "tabs-overlap"));
  }
  void sentencesCarryTheNumbersInTheUsersUnit() {
    Design design = card();
    add(design, "box", "gutter", {{"a", 25.4}, {"b", 25.4}, {"c", 50.8}, {"d", 57.15}});
    design.settings.unit = LengthUnit::Inch;
    const Analysis a = checked(design, true);
    const std::string text = describe(*findCode(a, "shut-flat"), design);
    QVERIFY2(text.find("1/4 in") != std::string::npos, text.c_str());
    const std::string mend = describe(*findCode(a, "shut-flat")->mend, design);
    QVERIFY2(mend.find("2 1/4 → 2 in") != std::string::npos, mend.c_str());
  }
  void noVerdictChangesWhenADesignIsMirrored() {
    for (double c : {45.0, 46.0, 110.0}) {
      Design design = card();
      const StructureId id =
          add(design, "box", "gutter", {{"a", 30}, {"b", 20}, {"c", c}, {"d", 55}});
      const auto mirrored =
          setValues(design, id, swapTwins(boxKind().parameters, design.find(id)->values));
      const Analysis a = checked(design), b = checked(*mirrored);
      QCOMPARE(a.findings.size(), b.findings.size());
      for (std::size_t k = 0; k < a.findings.size(); ++k) {
        QCOMPARE(a.findings[k].code, b.findings[k].code);
        QVERIFY_NEAR(a.findings[k].amount, b.findings[k].amount, 1e-6);
      }
    }
  }
  void noFindingIsToldTwice() {
    const Design insert = *loadDesign(HINGE_SOURCE_DIR "/bench/cases/inset-22.hinge");
    const Design messy = *loadDesign(HINGE_SOURCE_DIR "/bench/cases/messy-50.hinge");
    for (const Design& d : {demo("night-market-mistakes"), insert, messy}) {
      std::set<std::string> said;
      for (const Finding& f : checked(d).findings)
        QVERIFY2(said.insert(describe(f, d)).second, describe(f, d).c_str());
    }
    const Analysis a = checked(insert);
    QCOMPARE(std::ranges::count(a.findings, "floppy", &Finding::code), 1);
    QVERIFY_NEAR(findCode(a, "floppy")->amount, a.motion->mobility(), 1e-9);
  }
  void loosePanelsAreNotBlamedForWhereTheyHappenToHang() {
    const Analysis a = checked(*loadDesign(HINGE_SOURCE_DIR "/bench/cases/inset-22.hinge"));
    QVERIFY(a.motion->anyLoose());
    for (const Finding& f : a.findings) {
      if (f.code == "floppy") continue;
      for (const std::string& key : f.elements) {
        const PanelIndex panel = a.assembly->findPanel(key);
        QVERIFY2(!panel.valid() || !a.motion->isLoose(panel), f.code.c_str());
      }
    }
    QVERIFY(!findCode(a, "taut") && !findCode(a, "behind-glue") && !findCode(a, "outside-cover"));
  }
  void gluedTogetherPagesAreLocked() {
    // A flat strip that is glued to both pages and has no score.
    Design d = card();
    const StructureId id = add(d, "piece", "gutter");
    const auto flat = withScores(*d.find(id)->work, {});
    QVERIFY(flat.ok());
    const Design locked = *setWork(d, id, *flat);
    const Analysis a = checked(locked);
    QVERIFY(a.verdict == Verdict::Spoiled);
    const Finding* f = findCode(a, "locked");
    QVERIFY(f);
    QCOMPARE(f->owners.front().value, id.value);
    QVERIFY((f->elements == std::vector<std::string>{"s1/panel-1", "card/page-a", "card/page-b"}));
    QVERIFY(f->amount >
            100); // the fore edges are far apart where the strip would hold them together
    QVERIFY(!findCode(a, "torn")); // the same trouble at the pages' own fold
    QVERIFY(!findCode(a, "outside-cover"));
    QVERIFY(!findCode(checked(d), "locked"));
  }
  void glueThatHoldsInTwoWaysAtOnceTears() {
    // One panel, glued twice to the same page, a millimetre out of place the second time.
    const auto with = [](double off_mm) {
      Design d = card();
      PieceWork work = plainStrip(60, 20);
      work.joints = {{{10, 10}, "card/page-a", {60, 40}, given::Glue()},
                     {{50, 10}, "card/page-a", {100 + off_mm, 40}, given::Glue()}};
      const auto added = addStructure(d, "piece", "gutter", {{"position", 0.0}}, work);
      if (!added) qFatal("%s", say(added.error()).c_str());
      return added->design;
    };
    const Analysis torn = checked(with(1.0)), whole = checked(with(0.0));
    const Finding* f = findCode(torn, "torn");
    QVERIFY(f);
    QVERIFY_NEAR(f->amount, 1.0, 1e-9);
    QVERIFY((std::set<std::string>(f->elements.begin(), f->elements.end()) ==
             std::set<std::string>{"s1/panel-1", "card/page-a"}));
    QCOMPARE(f->elements.size(), std::size_t(2));
    QVERIFY(!findCode(whole, "torn"));
  }
  void nothingIsGluedOverAFoot() {
    Design d = card();
    add(d, "box", "gutter", {{"position", 60}, {"length", 50}, {"a", 30}, {"c", 45}});
    const StructureId figure =
        add(d, "figure", "card/page-a", {{"width", 20}, {"height", 20}, {"shape", 0}});
    bool covered = false, clear = false;
    // Along the page's lower edge and up from it: over the foot of the wall, and away from it.
    for (double position = 20; position <= 160; position += 20)
      for (double up = 2; up <= 90; up += 22) {
        const auto moved = setValues(d, figure, {{"position", position}, {"up", up}});
        if (!moved || !assembleDesign(*moved)) continue;
        const Analysis a = checked(*moved);
        const Finding* f = findCode(a, "foot-covered");
        // Independently: does the figure's outline hold a point of the line on which the wall
        // stands?
        const Glue& glue = *a.assembly->glueOf(a.assembly->findPanel("s1/tab-a"));
        const Fold& foot = a.assembly->folds[a.assembly->foldsOf(glue.tab).front()];
        const Glue& flat = *a.assembly->glueOf(a.assembly->findPanel("s2/figure"));
        QCOMPARE(glue.host.value, flat.host.value);
        double length = 0;
        constexpr int kParts = 2000;
        for (int k = 0; k < kParts; ++k) {
          const Vec2 on = foot.from + (k + 0.5) / kParts * (foot.to - foot.from);
          const Vec2 there = (flat.tabToHost.inverse() * (glue.tabToHost * lift(on))).head<2>();
          if (contains(a.assembly->panels[flat.tab].outline, there))
            length += (foot.to - foot.from).norm() / kParts;
        }
        if (length > 1) QVERIFY(f);
        if (length == 0) QVERIFY(!f);
        if (f) QVERIFY_NEAR(f->amount, length, 0.1);
        covered = covered || f, clear = clear || !f;
      }
    QVERIFY(covered && clear);
  }
  /// A triangle of strips on pins, each over the one before and the first over the last: by hand it
  /// is soon made, and no order of stacking says how.
  void stripsPinnedRoundLieInARing() {
    const auto triangle = [](bool round) {
      const double side = std::hypot(20, 35); // corners at (40, 60), (80, 60), (60, 95) on the page
      const auto put = [](Design& d, std::vector<PieceJoint> joints) {
        PieceWork strip;
        strip.outline = {{0, 0}, {60, 0}, {60, 16}, {0, 16}};
        strip.joints = std::move(joints);
        const auto added = addStructure(d, "piece", "card/page-a", {{"position", 0.0}}, strip);
        if (!added) qFatal("%s", say(added.error()).c_str());
        d = added->design;
      };
      Design d = card(150, 200);
      put(d, {{{30, 8},
               "card/page-a",
               {60, 60},
               given::Glue{0, false, {{25, 3}, {35, 3}, {35, 13}, {25, 13}}}}});
      put(d, {{{10, 8}, "s1/panel-1", {50, 8}, given::Pivot{119.7449}}});
      const Vec2 other(10 + side, 8);
      put(d, {{{10, 8}, "s2/panel-1", other, given::Pivot{120.5102}},
              {other,
               round ? "s1/panel-1-back" : "s1/panel-1",
               {round ? 50.0 : 10.0, 8},
               given::Pivot{0, round}}});
      return checked(d);
    };
    const Analysis ring = triangle(true);
    const Finding* f = findCode(ring, "stack-ring");
    QVERIFY(f && f->severity == Severity::Advice);
    QCOMPARE(f->amount, 3.0);
    QCOMPARE(f->owners.size(), std::size_t(3));
    QCOMPARE(std::set(f->elements.begin(), f->elements.end()),
             (std::set<std::string>{"s1/panel-1", "s2/panel-1", "s3/panel-1"}));
    QCOMPARE(ring.findings.size(), std::size_t(1));
    // With its last end on top the last strip lies over both others.
    QVERIFY(!findCode(triangle(false), "stack-ring"));
  }
  void everyCodeIsProducedByATest() {
    std::string tests;
    for (const QFileInfo& file : QDir(QStringLiteral(HINGE_SOURCE_DIR "/tests/core"))
                                     .entryInfoList({QStringLiteral("test_*.cpp")})) {
      QFile source(file.filePath());
      QVERIFY(source.open(QIODevice::ReadOnly));
      tests += source.readAll().toStdString();
    }
    QVERIFY(Words::findings().size() > 30);
    for (const Sentence& sentence : Words::findings()) {
      const std::string_view key = sentence.key, code = key.substr(0, key.find('/'));
      QVERIFY2(tests.find(fmt::format("\"{}\"", code)) != std::string::npos,
               std::string(code).c_str());
    }
  }
};

QTEST_APPLESS_MAIN(TestChecks)
#include "test_checks.moc"
