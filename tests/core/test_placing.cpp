// SPDX-License-Identifier: GPL-3.0-or-later
#include "strips.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/arrange.h"
#include "core/edits/edits.h"
#include "core/edits/parting.h"
#include "core/edits/place_said.h"
#include "core/edits/rounding.h"
#include "core/edits/settling.h"
#include "core/edits/sheet.h"
#include "core/io/design_json.h"
#include "core/io/page.h"
#include "core/pieces/placing.h"
#include "words/words.h"
#endif

using namespace hinge;
using namespace hinge::test;

// Paper that is placed by rules: what the maker said holds, whatever becomes of the sizes.

namespace {

/// How far a glued panel is from the four sides of what it is glued to, both drawn flat: by the
/// corners alone, without any rule.
struct Margins {
  double left, right, bottom, top;
};

Margins marginsOf(const Assembly& assembly, std::string_view tab) {
  const PanelIndex panel = assembly.findPanel(tab);
  const Glue* glue = assembly.glueOf(panel);
  if (!glue) qFatal("nothing holds %s", std::string(tab).c_str());
  const Box2 page = boundsOf(assembly.panels[glue->host].outline.rim);
  Box2 box;
  for (const Vec2& p : assembly.panels[panel].outline.rim)
    box.add((glue->tabToHost * lift(p)).head<2>());
  return {box.low.x() - page.low.x(), page.high.x() - box.high.x(), box.low.y() - page.low.y(),
          page.high.y() - box.high.y()};
}

/// A sheet of so many millimetres beside the gutter, joined as a maker says.
Result<Design> said(const Design& on, const PieceWork& work, const std::string& sentence,
                    LengthUnit unit = LengthUnit::Millimetre) {
  const auto added = addStructure(on, "piece", "gutter", {{"position", 0.0}}, work);
  if (!added) return added.error();
  const SheetTarget target{added->id, 0};
  auto worked = workedBy(sheetOf(added->design, target), sentence, unit);
  if (!worked) return worked.error();
  return withSheet(added->design, target, *worked);
}

Design laid(const Design& on, const PieceWork& work, const std::string& sentence) {
  const auto made = said(on, work, sentence);
  if (!made) qFatal("%s", say(made.error()).c_str());
  return *made;
}

Margins ofSheet(const Design& design) {
  return marginsOf(*assemble(design), "s1/panel-1");
}

Design taller(Design design, double by_mm) {
  design.card.height_mm += by_mm;
  return withPlacesSettled(std::move(design));
}

const PieceJoint& jointOf(const Design& design, std::size_t number = 0) {
  return design.structures.back().work->joints[number];
}

/// The first finding in words, if there is any.
std::string firstOf(const Analysis& analysis, const Design& design) {
  return analysis.findings.empty() ? "" : describe(analysis.findings.front(), design);
}

/// Two tabs that point to the fold and two walls: the strip of a maker over the gutter.
PieceWork bridge() {
  return strip({8, 40, 40, 8}, 40, std::vector(3, WorkLine::Kind::Mountain));
}

} // namespace

class TestPlacing : public QObject {
  Q_OBJECT

private slots:
  void theDistanceThatWasSaidIsThere_data() {
    QTest::addColumn<QString>("rules");
    QTest::addColumn<QString>("side"); ///< of the page, by which it lies so far in
    QTest::addColumn<double>("far");
    QTest::newRow("so far from the fold") << "left edge 6 from fold gutter"
                                          << "right" << 6.0;
    QTest::newRow("against the fold") << "left edge on fold"
                                      << "right" << 0.0;
    QTest::newRow("over the edge") << "left edge -5 from left edge"
                                   << "left" << -5.0;
    QTest::newRow("up to a line") << "right edge up to 60 from the fold gutter"
                                  << "right" << 20.0;
    QTest::newRow("flush with an edge") << "top edge on bottom edge"
                                        << "bottom" << 0.0;
    QTest::newRow("the edge at a point") << "edge 20,0 7 from bottom edge"
                                         << "bottom" << 7.0;
    QTest::newRow("the point alone") << "point 50 from fold gutter"
                                     << "right" << 35.0;
  }
  void theDistanceThatWasSaidIsThere() {
    QFETCH(QString, rules);
    QFETCH(QString, side);
    QFETCH(double, far);
    const Design d = laid(card(), plainStrip(40, 30),
                          "glue 20,15 on card/page-a at 90,60 " + rules.toStdString());
    const Margins m = ofSheet(d);
    const double is = side == "left" ? m.left : side == "right" ? m.right : m.bottom;
    QVERIFY_NEAR(is, far, 1e-9);
  }

  /// A quarter of an inch from the fold and one from the lower edge, in any order.
  void twoRulesPlaceASheet() {
    const PieceWork sheet = plainStrip(40, 30);
    const std::string one = "left edge 1/4 from fold gutter", two = "top edge 1 from bottom edge";
    for (const std::string& rules : {one + " and " + two, two + " and " + one}) {
      const auto d = said(card(), sheet, "glue 1,1/2 on card/page-a " + rules, LengthUnit::Inch);
      QVERIFY2(d, d ? "" : say(d.error()).c_str());
      QVERIFY_NEAR(ofSheet(*d).right, 6.35, 1e-9);
      QVERIFY_NEAR(ofSheet(*d).bottom, 25.4, 1e-9);
    }
  }

  /// Page b counts from the far end: by numbers alone the sheet would stay at the upper edge.
  void aTallerCardKeepsTheDistance() {
    for (const char page : {'a', 'b'}) {
      const bool a = page == 'a';
      const Design d = laid(card(), plainStrip(40, 30),
                            std::string("glue 20,15 on card/page-") + page +
                                " left edge 10 from fold gutter and " + (a ? "top" : "bottom") +
                                " edge 12 from bottom edge");
      const Vec2 was = jointOf(d).to;
      const Design now = taller(d, 25);
      QVERIFY_NEAR(ofSheet(now).bottom, 12, 1e-9);
      QVERIFY_NEAR(a ? ofSheet(now).right : ofSheet(now).left, 10, 1e-9);
      // What the file keeps is where it lies now.
      QVERIFY_NEAR((jointOf(now).to - was).norm(), a ? 0 : 25, 1e-9);
    }
  }

  void theMiddleStaysTheMiddle() {
    const Design d = laid(card(), plainStrip(40, 30),
                          "glue 5,5 on card/page-b left edge 8 from fold gutter and centred on "
                          "fold gutter");
    for (const double by : {0.0, 31.0}) {
      const Margins m = ofSheet(taller(d, by));
      QVERIFY_NEAR(m.bottom, m.top, 1e-9);
      QVERIFY_NEAR(m.left, 8, 1e-9);
    }
  }

  /// Three sheets of 30 mm on 180 mm: gaps of 90 / 4.
  void equalGapsAreEqual() {
    for (int k = 1; k <= 3; ++k) {
      const Design d = laid(card(), plainStrip(40, 30),
                            "glue 20,15 on card/page-b left edge on fold gutter and spaced " +
                                std::to_string(k) + " of 3 on fold gutter");
      QVERIFY_NEAR(ofSheet(d).bottom, 22.5 * k + 30 * (k - 1), 1e-9);
    }
    QCOMPARE(codeOf(said(card(), plainStrip(40, 30),
                         "glue 20,15 on card/page-b spaced 1 of 7 on fold gutter")),
             std::string("rule.no-room"));
  }

  /// The other end of a bridge, said in two ways: as far along the fold and so far from it, or as
  /// the mirror image of the first. Both stand as the one that is glued by numbers, and fold.
  void bothEndsOfABridge() {
    const std::string first = "glue 4,20 on card/page-a right edge up to 30 from fold gutter and "
                              "centred on fold gutter by face; ";
    for (const char* other :
         {"glue 92,20 on card/page-b left edge up to 30 from fold and level with 4,20 by face",
          "glue 92,20 on card/page-b mirrored from 4,20 by face"}) {
      const Design d = laid(card(), bridge(), first + other);
      for (const double by : {0.0, 14.0}) {
        const auto assembly = assemble(taller(d, by));
        const Margins a = marginsOf(*assembly, "s1/panel-1"),
                      b = marginsOf(*assembly, "s1/panel-4");
        QVERIFY_NEAR(a.right, 22, 1e-9);
        QVERIFY_NEAR(b.left, 22, 1e-9);
        QVERIFY_NEAR(a.bottom, b.bottom, 1e-9);
        QVERIFY_NEAR(a.bottom, 70 + by / 2, 1e-9);
        QCOMPARE(checked(taller(d, by)).verdict, Verdict::Good);
      }
    }
  }

  void rulesThatCannotBothHoldAreNamed() {
    const auto refused = [](const std::string& rules) {
      const auto made =
          said(card(), plainStrip(40, 30), "glue 20,15 on card/page-a at 90,60 " + rules);
      return made ? QString() : QString::fromStdString(say(made.error()));
    };
    const QString apart =
        refused("left edge 6 from fold gutter and right edge up to 50 from fold gutter");
    QVERIFY2(apart.contains(QLatin1String("\"left edge 6 mm from the fold gutter\"")) &&
                 apart.contains(QLatin1String("\"right edge up to 50 mm from the fold gutter\"")),
             qPrintable(apart));
    // The paper lies upside down: its lower edge is the upper one of the page.
    const QString turned = refused("left edge on fold and bottom edge 12 from bottom edge");
    QVERIFY2(turned.contains(QLatin1String("the other way round")), qPrintable(turned));
    // Both say the same: they hold.
    QCOMPARE(refused("left edge 6 from fold gutter and right edge up to 46 from fold gutter"),
             QString());
  }

  void whatARuleGoesByMustBeThere_data() {
    QTest::addColumn<QString>("sentence");
    QTest::addColumn<QString>("code");
    QTest::newRow("fold") << "glue 4,20 on card/page-a left edge on fold ridge"
                          << "rule.no-fold";
    QTest::newRow("other joint") << "glue 4,20 on card/page-a level with 92,20"
                                 << "rule.no-joint";
    QTest::newRow("in a circle") << "glue 4,20 on card/page-a level with 92,20; "
                                    "glue 92,20 on card/page-b level with 4,20"
                                 << "rule.later";
    QTest::newRow("edge of a band") << "band 4,20 on card/page-a left edge on fold gutter"
                                    << "rule.own-line";
    QTest::newRow("one fold between") << "glue 4,20 on card/page-a at 90,30; "
                                         "glue 92,20 on card/page-a mirrored from 4,20"
                                      << "rule.mirrored";
    QTest::newRow("no rule, no numbers") << "glue 4,20 on card/page-a"
                                         << "sheet.sentence/end";
    QTest::newRow("which line") << "glue 4,20 on card/page-a left edge 6 from gutter"
                                << "sheet.sentence";
  }
  void whatARuleGoesByMustBeThere() {
    QFETCH(QString, sentence);
    QFETCH(QString, code);
    QCOMPARE(QString::fromStdString(codeOf(said(card(), bridge(), sentence.toStdString()))), code);
  }

  /// On another base page b has other folds: the sheet stays where it was, and that is told.
  void aLineThatGoesAwayLeavesTheSheetWhereItWas() {
    Design d = laid(card(), plainStrip(40, 30),
                    "glue 20,15 on card/page-b left edge 8 from fold gutter and bottom edge 12 "
                    "from bottom edge");
    const Margins before = ofSheet(d);
    auto& rule = std::get<placed::Distance>(d.structures.back().work->joints[0].rules[0]);
    rule.from = placed::FoldBelow{"ridge-that-was"};
    const Margins now = ofSheet(d);
    QVERIFY_NEAR(now.left, before.left, 1e-9);
    const Analysis told = checked(d);
    QVERIFY(findCode(told, "rule-lost"));
    QCOMPARE(told.verdict, Verdict::Advice);
  }

  /// A score more on the sheet below gives its folds other numbers: the rule goes on by the same
  /// one.
  void aFoldKeepsItsRuleWhenItsNameChanges() {
    Design d = laid(card(), plainStrip(80, 60),
                    "score 50 v; glue 25,30 on card/page-a at 90,60 turned 90");
    d = laid(d, plainStrip(10, 10), "glue 5,5 on s1/panel-1 right edge 4 from fold score-1");
    QVERIFY_NEAR(marginsOf(*assemble(d), "s2/panel-1").right, 4, 1e-9);
    const SheetTarget below{StructureId{1}, 0};
    const auto worked = workedBy(sheetOf(d, below), "score 20 m", LengthUnit::Millimetre);
    QVERIFY(worked);
    const auto more = withSheet(d, below, *worked);
    QVERIFY2(more, more ? "" : say(more.error()).c_str());
    QCOMPARE(codeOf(said(*more, plainStrip(5, 5), "glue 2,2 on s1/panel-2 left edge on fold")),
             std::string("rule.which-fold"));
    QVERIFY_NEAR(marginsOf(*assemble(*more), "s2/panel-1").right, 4, 1e-9);
  }

  void numbersTakeThePlaceOfRules() {
    const Design d =
        laid(card(), plainStrip(40, 30), "glue 20,15 on card/page-b left edge on fold gutter");
    const SheetTarget target{d.structures.back().id, 0};
    const auto worked = workedBy(sheetOf(d, target),
                                 "loosen 20,15; glue 20,15 on card/page-b at "
                                 "90,50 turned 90",
                                 LengthUnit::Millimetre);
    QVERIFY(worked);
    QVERIFY(worked->work.joints[0].rules.empty());
    QVERIFY_NEAR(ofSheet(*withSheet(d, target, *worked)).left, 30, 1e-9);
  }

  /// All kinds of rules, in sentences, on the page and in the file, in both units.
  void rulesAreReadAsTheyAreWritten() {
    Design d = laid(card(), bridge(),
                    "glue 4,20 on card/page-a right edge up to 30 from fold gutter and spaced 1 "
                    "of 2 on left edge by face; glue 92,20 on card/page-b mirrored from 4,20 by "
                    "face");
    d = laid(d, plainStrip(40, 30),
             "glue 20,15 on card/page-b edge 40,15 up to right edge and centred on fold; "
             "loosen 20,15; pivot 20,15 on card/page-b point 12.5 from fold and point -3 from "
             "top edge; film 30,15 on card/page-a level with 20,15 and point on fold long 80");
    for (const LengthUnit unit : {LengthUnit::Millimetre, LengthUnit::Inch}) {
      d.settings.unit = unit;
      const auto again = designFromPage(pageOf(d));
      QVERIFY2(again, again ? "" : say(again.error()).c_str());
      for (std::size_t s = 0; s < d.structures.size(); ++s)
        for (std::size_t k = 0; k < d.structures[s].work->joints.size(); ++k) {
          const auto& was = d.structures[s].work->joints[k].rules;
          const auto& now = again->structures[s].work->joints[k].rules;
          QCOMPARE(now.size(), was.size());
          for (std::size_t r = 0; r < was.size(); ++r)
            QCOMPARE(say(described(now[r])), say(described(was[r])));
        }
      const auto file = designFromJson(designToJson(d));
      QVERIFY2(file, file ? "" : say(file.error()).c_str());
      QVERIFY(*file == d);
    }
  }

  void theOtherSideGetsTheMirrorImage() {
    const Design d = laid(card(), plainStrip(40, 30),
                          "glue 20,15 on card/page-b left edge 8 from fold gutter and bottom "
                          "edge 12 from bottom edge");
    const auto both = mirrored(d, d.structures.back().id);
    QVERIFY2(both, both ? "" : say(both.error()).c_str());
    const Margins m = ofSheet(taller(*both, 20));
    QVERIFY_NEAR(m.right, 8, 1e-9);
    QVERIFY_NEAR(m.bottom, 12, 1e-9);
  }

  /// Cards that fell apart when they were made 5 % higher, since page b counts from the far end.
  void demosThatLieByRulesMayBeHigher_data() {
    QTest::addColumn<QString>("name");
    for (const char* name : {"canal-frames", "lamp-lattice", "lock-halves", "moth-wings",
                             "tube-lantern", "two-awnings", "two-sheet-ridge"})
      QTest::newRow(name) << name;
  }
  void demosThatLieByRulesMayBeHigher() {
    QFETCH(QString, name);
    const Design d = demo(name.toStdString());
    const Design high = taller(d, 0.05 * d.card.height_mm);
    const Analysis analysis = checked(high);
    QVERIFY2(analysis.verdict != Verdict::Spoiled, firstOf(analysis, high).c_str());
    for (const Finding& f : analysis.findings)
      QVERIFY2(f.code != "rule-lost", describe(f, high).c_str());
    // The numbers beside the rules are those to which they come.
    QVERIFY(withPlacesSettled(d) == d);
  }
  /// Distances of rules are set by hand as any length: rounded with the sizes, all closures kept.
  void roundingMovesTheDistancesOfRules() {
    for (const char* name : {"lock-halves", "two-awnings", "canal-frames", "two-sheet-ridge"}) {
      const Design d = demo(name);
      const Analysis before = checked(d);
      const auto rounded =
          roundedTo(d, *before.motion, 0.5, {}, RoundingKeeps::ShutFlat, std::chrono::seconds(20));
      QVERIFY2(rounded, rounded ? "" : (name + (": " + say(rounded.error()))).c_str());
      QVERIFY2(checked(withPlacesSettled(rounded->design)).verdict != Verdict::Spoiled, name);
    }
  }
  /// What is said of a place comes to that place: rules for a card of numbers move nothing.
  void rulesForWhatLiesThereMoveNothing() {
    int ruled = 0;
    for (const char* name : {"steps-in-the-fold", "waving-boatmen", "sail-to-raise", "two-quays",
                             "night-heron", "lantern-through-the-wall", "row-of-lamps"}) {
      const Design d = demo(name);
      const auto before = assemble(d);
      const Design kept = keptByRules(d, *before, std::nullopt);
      const auto after = assemble(kept);
      for (const auto& [j, glue] : before->every<Glue>()) {
        const Glue& now = *after->glueOf(glue.tab);
        if (now.host != glue.host) continue; // another joint of the same panel
        QVERIFY2((now.tabToHost.matrix() - glue.tabToHost.matrix()).norm() < 1e-6, name);
      }
      for (const StructureItem& item : kept.structures)
        for (const PieceJoint& joint : item.joints())
          ruled += !joint.rules.empty();
    }
    QVERIFY2(ruled >= 10, std::to_string(ruled).c_str());
  }

  /// Parted in two, what went by the other half lies by its numbers; grown together again too.
  void whatIsPartedStaysWhereItLies() {
    const Design d = laid(card(), strip({40, 40}, 30, {WorkLine::Kind::Valley}),
                          "glue 20,15 on card/page-b left edge 6 from fold and bottom edge 12 from "
                          "bottom edge; glue 60,15 on card/page-b level with 20,15 and right edge "
                          "up to 86 from fold");
    const Margins first = marginsOf(*assemble(d), "s1/panel-1"),
                  second = marginsOf(*assemble(d), "s1/panel-2");
    const auto two = parted(d, StructureId{1}, 0);
    QVERIFY2(two, two ? "" : say(two.error()).c_str());
    const auto assembly = assemble(two->design);
    QVERIFY_NEAR(marginsOf(*assembly, "s1/panel-1").left, first.left, 1e-6);
    QVERIFY_NEAR(marginsOf(*assembly, "s2/panel-1").left, second.left, 1e-6);
    QVERIFY_NEAR(marginsOf(*assembly, "s2/panel-1").bottom, second.bottom, 1e-6);
    for (const PlacedByRule& placed : assembly->byRule)
      QVERIFY(!placed.lost);
  }

  /// Both ends of a bridge go along, however they were placed.
  void aBridgeIsRepeatedAlongItsFold() {
    const char* ways[] = {
        "glue 4,20 on card/page-a right edge up to 30 from fold and bottom edge 20 from bottom "
        "edge by face; glue 92,20 on card/page-b mirrored from 4,20 by face",
        "glue 4,20 on card/page-a at 40,26 by face turned 90; "
        "glue 92,20 on card/page-b at 140,26 by face turned -90"};
    for (const char* way : ways) {
      const Design d = laid(card(), bridge(), way);
      QCOMPARE(checked(d).verdict, Verdict::Good);
      const auto two = repeatedAlong(d, d.structures.back().id, 1, 45);
      QVERIFY2(two, two ? "" : say(two.error()).c_str());
      const Analysis analysis = checked(*two);
      QVERIFY2(analysis.verdict == Verdict::Good, firstOf(analysis, *two).c_str());
      const auto assembly = assemble(*two);
      for (const char* tab : {"panel-1", "panel-4"})
        QVERIFY_NEAR(marginsOf(*assembly, std::string("s2/") + tab).bottom -
                         marginsOf(*assembly, std::string("s1/") + tab).bottom,
                     45, 1e-9);
    }
  }

  /// Copies keep what was said, each moved along by the step.
  void copiesKeepTheirRules() {
    const Design d = laid(card(), plainStrip(40, 30),
                          "glue 20,15 on card/page-b left edge 8 from fold gutter and bottom "
                          "edge 12 from bottom edge");
    const auto more = repeatedAlong(d, d.structures.back().id, 1, 45);
    QVERIFY2(more, more ? "" : say(more.error()).c_str());
    const auto assembly = assemble(taller(*more, 20));
    QVERIFY_NEAR(marginsOf(*assembly, "s2/panel-1").left, 8, 1e-9);
    QVERIFY_NEAR(marginsOf(*assembly, "s2/panel-1").bottom -
                     marginsOf(*assembly, "s1/panel-1").bottom,
                 45, 1e-9);
  }
};

QTEST_GUILESS_MAIN(TestPlacing)
#include "test_placing.moc"
