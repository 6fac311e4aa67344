// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/checks/fit_search.h"
#include "core/edits/edits.h"
#include "core/edits/proportion.h"
#include "core/io/design_json.h"
#include "core/structures/closure.h"
#include "core/structures/piece_proportion.h"
#include "core/units/lattice.h"
#endif

using namespace hinge;
using namespace hinge::test;

// Another sheet for the same card: what is held keeps its size, what gives grows by one factor, and
// what lay flat lies flat.

namespace {

std::set<std::string> proposed(const Design& design, std::optional<StructureId> piece = {}) {
  std::set<std::string> held;
  for (const LengthRow& row : lengthRows(design, piece))
    if (row.held) held.insert(row.key);
  return held;
}

} // namespace

class TestProportion : public QObject {
  Q_OBJECT
private slots:
  void theLongQuayFitsAnotherSheet() {
    const Design d = demo("long-quay");
    QVERIFY_NEAR(*flatLength_mm(d), 560.0, 1e-9);
    const auto fitted = fittedTo(d, {}, 640, proposed(d));
    QVERIFY2(fitted.ok(), fitted.ok() ? "" : say(fitted.error()).c_str());
    QVERIFY_NEAR(*flatLength_mm(fitted->design), 640.0, 1e-6);
    QVERIFY_NEAR(fitted->factor, 8.0 / 7.0, 1e-9);
    QVERIFY_NEAR(fitted->design.card.width_mm, 80.0, 1e-6);
    QVERIFY_NEAR(fitted->design.card.height_mm, 110.0, 1e-12); // along the folds
    QVERIFY_NEAR(fitted->design.structures.front().values.at("height"), 50 * 8.0 / 7.0, 1e-6);
    QVERIFY_NEAR(fitted->design.structures.front().values.at("width"), 24.0, 1e-12);
    QVERIFY(checked(fitted->design).findings.empty());
  }
  void whatIsHeldKeepsItsSizeAndTheRestGivesMore() {
    const Design d = demo("long-quay");
    auto held = proposed(d);
    held.insert("card.width"); // the covers stay, the seven other leaves give
    const auto fitted = fittedTo(d, {}, 630, held);
    QVERIFY(fitted.ok());
    QVERIFY_NEAR(fitted->design.card.width_mm, 70.0, 1e-12);
    QVERIFY_NEAR(fitted->design.card.values.at("rest"), 80.0, 1e-6);
  }
  void startingDesignsStayFlatAtAnotherLength_data() {
    QTest::addColumn<QString>("name");
    QTest::addColumn<double>("share");
    for (const char* name :
         {"block-stairs", "stage-in-the-fold", "tower", "harbour-letters", "gate-to-the-market",
          "canal-frames", "steps-in-the-fold", "lantern-through-the-wall", "lock-halves",
          "market-table", "lamp-lattice", "moth-wings", "two-awnings", "paddle-wheels",
          "quay-steps", "awnings"})
      QTest::newRow(name) << name << 1.05;
    for (const char* name :
         {"steps-in-the-fold", "two-awnings", "moth-wings", "canal-frames", "market-table"})
      QTest::addRow("%s shorter", name) << name << 0.93;
  }
  void startingDesignsStayFlatAtAnotherLength() {
    QFETCH(QString, name);
    QFETCH(double, share);
    const Design d = demo(name.toStdString());
    const double length = share * *flatLength_mm(d);
    const auto fitted = fittedTo(d, {}, length, proposed(d));
    QVERIFY2(fitted.ok(), fitted.ok() ? "" : say(fitted.error()).c_str());
    QVERIFY_NEAR(*flatLength_mm(fitted->design), length, 1e-6);
    const Motion motion = Motion::trace(assemble(fitted->design));
    QVERIFY(motion.impossible().empty());
    for (const StructureItem& item : fitted->design.structures)
      QVERIFY2(shutGap_mm(item.id, motion) < kExactClosure,
               qPrintable(QString::fromStdString(item.id.text())));
  }
  void aStripFitsAnotherLengthWithItsTabsHeld() {
    const Design d = demo("steps-in-the-fold");
    const auto rows = lengthRows(d, StructureId{1});
    QCOMPARE(rows.size(), std::size_t(6));
    QVERIFY(rows.front().held && rows.back().held && !rows[1].held);
    // A frame across the gutter: two tabs of 8 mm, two panels of 30.
    const Design frames = demo("canal-frames");
    const auto fitted = fittedTo(frames, StructureId{1}, 66, proposed(frames, StructureId{1}));
    QVERIFY2(fitted.ok(), fitted.ok() ? "" : say(fitted.error()).c_str());
    const PieceWork& work = *fitted->design.structures.front().work;
    QVERIFY_NEAR(boundsOf(work.outline).size().x(), 66.0, 1e-6);
    QVERIFY_NEAR(panelWidths_mm(work).front(), 8.0, 1e-9);
    QVERIFY_NEAR(fitted->factor, 50.0 / 60.0, 1e-9);
    // Its feet stand nearer to the fold by the same factor: it lies flat.
    QVERIFY(shutGap_mm(StructureId{1}, Motion::trace(assemble(fitted->design))) < kExactClosure);
  }
  void windowsOfAStripGoInProportion() {
    Design d = demo("canal-frames");
    const StructureItem& frame = d.structures.front();
    const auto fitted = fittedTo(d, frame.id, 1.2 * boundsOf(frame.work->outline).size().x(),
                                 proposed(d, frame.id));
    QVERIFY2(fitted.ok(), fitted.ok() ? "" : say(fitted.error()).c_str());
    const PieceWork& work = *fitted->design.find(frame.id)->work;
    QCOMPARE(work.windows.size(), frame.work->windows.size());
    QVERIFY(validate(work, "s1").ok());
  }
  void aRoundCardGrowsAsAWhole() {
    const Design d = demo("pop-up-lantern");
    const double now = *flatLength_mm(d);
    const auto rows = lengthRows(d);
    QVERIFY(std::ranges::find(rows, "s1.whole", &LengthRow::key) != rows.end());
    for (double share : {0.8, 1.25}) {
      const auto fitted = fittedTo(d, {}, share * now, proposed(d));
      QVERIFY2(fitted.ok(), fitted.ok() ? "" : say(fitted.error()).c_str());
      QVERIFY_NEAR(fitted->design.card.height_mm, share * d.card.height_mm, 1e-6);
      const PieceWork &was = *d.structures[0].work, &work = *fitted->design.structures[0].work;
      QVERIFY_NEAR((work.joints[2].at - share * was.joints[2].at).norm(), 0.0, 1e-6);
      QVERIFY_NEAR((work.joints[2].to - share * was.joints[2].to).norm(), 0.0, 1e-6);
      const Analysis a = checked(fitted->design);
      for (const Finding& f : a.findings) // a narrow tab may be too narrow then, nothing more
        QVERIFY2(f.severity != Severity::Spoils, describe(f, fitted->design).c_str());
    }
    // Held as a whole the piece stays.
    auto held = proposed(d);
    held.insert("s1.whole");
    const auto fitted = fittedTo(d, {}, 1.1 * now, held);
    QVERIFY(fitted.ok());
    QVERIFY(fitted->design.structures[0].work->outline == d.structures[0].work->outline);
  }
  void theNearestFitIsTheLastGoodOne() {
    Design d = card(100, 120);
    d.structures.clear();
    // Held in its size, the box pokes out of a card that becomes too small for it.
    add(d, "box", "gutter", {{"a", 30}, {"b", 30}, {"c", 45}, {"d", 45}, {"position", 30}});
    std::set<std::string> held;
    for (const LengthRow& row : lengthRows(d))
      if (row.key != "card.width") held.insert(row.key);
    const double wanted = 110;
    QVERIFY(checked(fittedTo(d, {}, wanted, held)->design).verdict == Verdict::Spoiled);
    const auto nearest = nearestFit_mm(d, {}, wanted, held);
    QVERIFY(nearest.has_value());
    // Shut the box reaches 75 from the fold: both pages must be that deep, and no hair more.
    QVERIFY_NEAR(*nearest, 150.0, 2 * kLattice_mm);
    QVERIFY(checked(fittedTo(d, {}, *nearest, held)->design).verdict != Verdict::Spoiled);
    QVERIFY(checked(fittedTo(d, {}, *nearest - 4 * kLattice_mm, held)->design).verdict ==
            Verdict::Spoiled);
    QVERIFY_NEAR(std::remainder(*nearest, kLattice_mm), 0.0, 1e-9);
    // What is good already is as near as can be; what never is has none.
    QVERIFY(!nearestFit_mm(d, {}, 20, {"card.width", "card.height"}).has_value());
  }
  void aPieceRunsTheWayItsFirstFlatJointLies() {
    Design d = card();
    PieceWork work = plainStrip(60, 20);
    const auto across = [&](std::vector<PieceJoint> joints) {
      work.joints = std::move(joints);
      d.structures.clear(), d.nextId = 1;
      const auto added = addStructure(d, "piece", "gutter", {{"position", 0.0}}, work);
      return widthsRunAcross(added->design, added->design.structures[0]);
    };
    const PieceJoint band{{5, 5}, "card/page-b", {40, 40}, given::Band()},
        along{{30, 10}, "card/page-a", {60, 40}, given::Glue{0}},
        square{{30, 10}, "card/page-a", {60, 40}, given::Glue{90}},
        itself{{55, 10}, "s1/panel-1", {5, 5}, given::Glue{90}};
    QVERIFY(!across({along}));
    QVERIFY(across({square}));
    // Bands and what is glued to itself tell nothing.
    QVERIFY(!across({band, along}));
    QVERIFY(!across({itself, along}));
    QVERIFY(across({itself, square}));
    QVERIFY(across({band}));
  }
  void whatCannotBeFittedSaysWhy() {
    const Design d = demo("long-quay");
    std::set<std::string> all;
    for (const LengthRow& row : lengthRows(d))
      all.insert(row.key);
    QCOMPARE(fittedTo(d, {}, 640, all).error().code(), std::string("proportion.all-held"));
    QCOMPARE(fittedTo(d, {}, 640, {"card.nothing"}).error().code(),
             std::string("proportion.unknown"));
    auto held = proposed(d);
    held.insert("card.rest");
    QCOMPARE(fittedTo(d, {}, 480, held).error().code(),
             std::string("proportion.too-short")); // seven held leaves alone are 490
    QVERIFY(!fittedTo(d, {}, 60000, proposed(d)).ok());
    QCOMPARE(flatLength_mm(d, StructureId{77}).error().code(), std::string("structure.missing"));
  }
};

QTEST_APPLESS_MAIN(TestProportion)
#include "test_proportion.moc"
