// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/dressing.h"
#include "core/edits/splices.h"
#include "core/io/fold_file.h"
#include "core/io/page.h"
#include "core/making/dress_moments.h"
#include "core/pieces/splicing.h"
#include "core/production/spliced.h"
#include "words/tables.h"
#include "words/words.h"
#endif

using namespace hinge;
using namespace hinge::test;

// Pieces that are longer than every sheet: parted on a panel, with a tab, and one panel still.

namespace {

/// A card that is 480 x 160 when it lies open: longer than an A4 sheet.
Design longCard() {
  Design design = card();
  design.card.width_mm = 240, design.card.height_mm = 160;
  return design;
}

double lengthOf(const std::vector<FlatPiece>& parts, LineKind kind) {
  double sum = 0;
  for (const FlatPiece& part : parts)
    for (const FlatLine& line : part.lines)
      for (std::size_t k = 0; line.kind == kind && k + (line.closed ? 0 : 1) < line.corners.size();
           ++k)
        sum += (line.corners[(k + 1) % line.corners.size()] - line.corners[k]).norm();
  return sum;
}

std::vector<SpliceProposal> proposalsFor(const Design& design) {
  const Snapshot snapshot(design);
  return proposedSplices(design, **snapshot.assembly(), *snapshot.flatPieces(), *snapshot.faces(),
                         *snapshot.seen(), *snapshot.laid(), 5);
}

CutPlan planOf(const Design& design) {
  const Snapshot snapshot(design);
  LayoutOptions options = usualFor(LayoutFor::Machine, Bench());
  options.unlimited = true, options.seconds = 0.2;
  return layOutParts(design, partsToCut(design, *snapshot.cutPieces(), {}, 1, false), options);
}

} // namespace

class TestSplices : public QObject {
  Q_OBJECT
private slots:
  void partsAreThePieceAndATab() {
    const Design design = longCard();
    const Splice splice{"card/page-a", 100, false, 12, false};
    const auto next = withSplice(design, splice);
    QVERIFY(next);
    const Snapshot snapshot(*next);
    const Assembly& assembly = **snapshot.assembly();
    const FlatPiece& whole = snapshot.flatPieces()->front();
    const auto& parts = *snapshot.cutPieces();
    QCOMPARE(parts.size(), std::size_t(2));
    QCOMPARE(snapshot.flatPieces()->size(), std::size_t(1));
    const auto laid = laidSplice(assembly, splice);
    QVERIFY(laid);
    // The tab is 1 mm narrower on both sides: 12 x 158.
    QVERIFY(std::abs(area_mm2(laid->tab) - 12 * 158) < 0.01);
    const double sum = area_mm2(paperOf(parts[0])) + area_mm2(paperOf(parts[1]));
    QVERIFY(std::abs(sum - area_mm2(paperOf(whole)) - area_mm2(laid->tab)) < 0.01);
    QVERIFY(std::abs(lengthOf(parts, LineKind::Valley) - lengthOf({whole}, LineKind::Valley)) <
            1e-6);
    QVERIFY(lengthOf({whole}, LineKind::Valley) > 100);
    QCOMPARE(parts[0].part, 1);
    QCOMPARE(parts[1].part, 2);
    // The tab has glue on its face, and lies behind the other part.
    QCOMPARE(parts[0].glue.size(), std::size_t(1));
    QVERIFY(parts[0].glue.front().onFace);
    QVERIFY(!parts[1].marks.empty() && !parts[1].marks.back().onFace);
    QVERIFY(!parts[0].labels.empty() && !parts[1].labels.empty());
  }

  void itIsProposedAppliedAndFindsItsSheets() {
    const Design design = longCard();
    QVERIFY(!planOf(design).tooLarge.empty());
    const auto proposals = proposalsFor(design);
    QCOMPARE(proposals.size(), std::size_t(1));
    QVERIFY(!proposals[0].splices.empty());
    QVERIFY(proposals[0].spared_height_mm >= 490 && proposals[0].spared_width_mm >= 170);
    const auto next = withSplices(design, splicesOf(proposals));
    QVERIFY(next);
    const CutPlan plan = planOf(*next);
    QVERIFY(plan.tooLarge.empty());
    QCOMPARE(plan.parts.size(), proposals[0].splices.size() + 1);
    QVERIFY(proposalsFor(*next).empty());
    // It moves, and is written for others, as before.
    const Snapshot before(design), after(*next);
    const std::vector<double> openings{0, 90, 180};
    QCOMPARE(*motionToFold(*after.motion(), openings), *motionToFold(*before.motion(), openings));
    const auto analysis = analyse(*next);
    QVERIFY(analysis && analysis->verdict != Verdict::Spoiled);
  }

  void ofALongStripSeveralPartsAreMade() {
    Design design = card();
    design.card.width_mm = 500, design.card.height_mm = 150;
    const auto proposals = proposalsFor(design);
    QCOMPARE(proposals.size(), std::size_t(1));
    QVERIFY(proposals[0].splices.size() >= 3);
    const auto next = withSplices(design, splicesOf(proposals));
    QVERIFY(next);
    QVERIFY(planOf(*next).tooLarge.empty());
  }

  void whereNobodyLooksIsBetter() {
    // On a bare card every cut is seen.
    Design design = longCard();
    const auto bare = proposalsFor(design);
    QVERIFY(bare[0].seen > 0.5);
    // A layer over the inside of the pages hides it.
    for (const char* page : {"card/page-a", "card/page-b"}) {
      DressRule rule;
      rule.reach = DressReach::Face, rule.face = page;
      rule.layers = {{design.stock, {3}}};
      const auto worn = withRule(design, rule);
      QVERIFY(worn);
      design = *worn;
    }
    const auto covered = proposalsFor(design);
    QVERIFY2(covered[0].seen < 0.2, qPrintable(QString::number(covered[0].seen)));
    for (const Splice& splice : covered[0].splices)
      QVERIFY(splice.at_mm >= 10 && splice.at_mm + splice.overlap_mm <= 230);
  }

  void placesThatAreNoneAreRefused() {
    const Design design = longCard();
    const auto with = [&](const char* panel, double at, double overlap = 12) {
      return codeOf(withSplice(design, {panel, at, false, overlap, false}));
    };
    QCOMPARE(with("card/nothing", 50), std::string("splice.no-panel"));
    QCOMPARE(with("card/page-a", 1), std::string("splice.outside"));
    QCOMPARE(with("card/page-a", 235), std::string("splice.outside"));
    QCOMPARE(with("card/page-a", 50, 2), std::string("splice.outside"));
    // A level cut through one page would go on through the other.
    QCOMPARE(codeOf(withSplice(design, {"card/page-a", 80, true, 12, false})),
             std::string("splice.fold"));
    const auto once = withSplice(design, {"card/page-a", 100, false, 12, false});
    QVERIFY(once);
    QCOMPARE(codeOf(withSplice(*once, {"card/page-a", 105, false, 12, false})),
             std::string("splice.meets"));
    QVERIFY(withSplice(*once, {"card/page-a", 150, false, 12, false}));
    QCOMPARE(codeOf(withoutSplice(*once, 1)), std::string("splice.none"));
    QVERIFY(*withoutSplice(*once, 0) == design);
    const auto demo = loadDesign(HINGE_SOURCE_DIR "/demo/canal-houses.hinge");
    QVERIFY(demo);
    QCOMPARE(codeOf(withSplice(*demo, {"s1/tab-a", 3, false, 5, false})),
             std::string("splice.tab"));
  }

  void aCutThatMeetsPaperTwiceIsRefused() {
    // A sheet with a deep notch from its left border: a cut within it would part off two pieces.
    Design design = card(240, 160);
    const auto added = addProposed(design, "piece", "gutter", {});
    QVERIFY(added);
    PieceWork work;
    work.outline = {{0, 0}, {120, 0}, {120, 90}, {0, 90}, {0, 60}, {70, 60}, {70, 30}, {0, 30}};
    const auto notched = setWork(added->design, added->id, work);
    QVERIFY(notched);
    const std::string panel = added->id.text() + "/panel-1";
    const auto codeAt = [&](double at) {
      return codeOf(withSplice(*notched, {panel, at, false, 12, false}));
    };
    QCOMPARE(codeAt(66), std::string("splice.opening")); // the tab reaches past the notch
    QCOMPARE(codeAt(20), std::string("splice.opening"));
    QCOMPARE(codeAt(90), std::string());
  }

  void itIsKeptInTheFileAndWrongOnesAreTold() {
    const Design design = longCard();
    const auto next = withSplice(design, {"card/page-b", 60, false, 15, true});
    QVERIFY(next);
    const std::string text = designToJson(*next);
    const auto read = designFromJson(text);
    QVERIFY(read && *read == *next);
    const auto page = designFromPage(pageOf(*next));
    QVERIFY(page && page->splices == next->splices);
    QVERIFY(!designFromPage(pageOf(design) + "splice card/page-a at\n"));
    const auto broken = [&](const std::string& from, const std::string& to) {
      std::string other = text;
      const auto at = other.find(from);
      other.replace(at, from.size(), to);
      const auto wrong = designFromJson(other);
      return wrong ? std::string() : wrong.error().place;
    };
    QVERIFY(broken("\"at_mm\": 60.0", "\"at_mm\": \"x\"").find("splices[0].at_mm") !=
            std::string::npos);
    QVERIFY(broken("\"on_face\": true", "\"on_face\": 3").find("splices[0].on_face") !=
            std::string::npos);
  }

  void whatIsGoneIsFound() {
    const auto made = withSplice(longCard(), {"card/page-a", 200, false, 12, false});
    QVERIFY(made);
    Design next = *made;
    next.card.width_mm = 150; // the page has become shorter than that
    const auto analysis = analyse(next);
    QVERIFY(analysis);
    const Finding* lost = nullptr;
    for (const Finding& finding : analysis->findings)
      if (finding.code == "splice-lost") lost = &finding;
    QVERIFY(lost && lost->severity == Severity::Advice);
    QVERIFY(describe(*lost, next).find("border") != std::string::npos);
  }

  void theOverlapIsPaperToo() {
    const Design design = longCard();
    const auto next = withSplice(design, {"card/page-a", 100, false, 12, false});
    QVERIFY(next);
    const Snapshot before(design), after(*next);
    QCOMPARE(before.laid()->size(), std::size_t(0));
    QCOMPARE(after.laid()->size(), std::size_t(1));
    QVERIFY(after.laid()->front().onBack);
    QVERIFY(std::abs(after.laid()->front().thickness_mm - design.cardPaper().thickness_mm) < 1e-9);
    // Tables and the order of work tell it.
    const Assembly& assembly = **after.assembly();
    const auto tables = scoreTables(assembly, *next, *after.flatPieces(), Bench());
    const ReadTable read = readTable(tables[0], *next, assembly, Bench());
    QVERIFY(std::ranges::any_of(read.lines, [](const std::string& line) {
      return line.find("parted at 100") != std::string::npos;
    }));
    const auto lines = orderLines(*after.order(), {}, *next, assembly);
    QVERIFY(!lines.empty() && lines.front().text.find("under a weight") != std::string::npos);
  }

  void splicesGoWithTheirStructure() {
    auto loaded = loadDesign(HINGE_SOURCE_DIR "/demo/canal-houses.hinge");
    QVERIFY(loaded);
    Design design = *loaded;
    const auto assembly = assemble(design);
    std::string panel;
    for (const Panel& one : assembly->panels)
      if (one.key.starts_with("s1/") && withSplice(design, {one.key, 12, false, 6, false}))
        panel = one.key;
    QVERIFY(!panel.empty());
    const auto next = withSplice(design, {panel, 12, false, 6, false});
    const auto gone = removeStructure(*next, StructureId{1});
    QVERIFY(gone && gone->splices.empty());
    // With another structure only its own go.
    const auto without = removeStructure(*next, design.structures.back().id);
    QVERIFY(without && without->splices.size() == 1);
  }
};

QTEST_GUILESS_MAIN(TestSplices)
#include "test_splices.moc"
