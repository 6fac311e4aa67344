// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/dressing.h"
#include "core/paper/sheet_size.h"
#include "core/production/cut_plan.h"
#include "core/production/score_table.h"
#include "core/units/mark.h"
#include "words/tables.h"
#include <QDir>
#include <map>
#include <random>
#endif

using namespace hinge;
using namespace hinge::test;

// What hands and machines are given: score tables, sheets that are cut edge to edge or nested.

namespace {

/// A rectangle as a part of plain card.
CutPart rectangle(double width, double height, unsigned turns = 0b1111) {
  CutPart part;
  part.outline = Region{{0, 0}, {width, 0}, {width, height}, {0, height}};
  part.flat.bounds = boundsOf(part.outline), part.paper = Paper().key, part.turns = turns;
  return part;
}

std::vector<CutPart> partsOf(const Design& design, bool together, int cards = 1) {
  const Snapshot snapshot(design);
  return partsToCut(design, *snapshot.cutPieces(), matList(design, *snapshot.dressed()), cards,
                    together);
}

LayoutOptions forTool(LayoutFor how) {
  LayoutOptions options = usualFor(how, Bench());
  options.unlimited = true, options.seconds = 0.5;
  return options;
}

/// A cutter that knows nothing but straight cuts from edge to edge: what it ends with.
std::vector<Vec2> blanksAfter(const CutPlan& plan) {
  std::vector<std::optional<Vec2>> blanks;
  for (const LaidSheet& sheet : plan.sheets)
    blanks.push_back(Vec2(sheet.width_mm, sheet.height_mm));
  for (const TrimCut& cut : plan.cuts) {
    if (cut.blank >= blanks.size() || !blanks[cut.blank]) return {};
    const Vec2 whole = *blanks[cut.blank];
    blanks[cut.blank].reset();
    if (cut.strip != blanks.size() || cut.rest != blanks.size() + 1) return {};
    const Eigen::Index axis = cut.upright ? 0 : 1;
    Vec2 strip = whole, rest = whole;
    strip[axis] = cut.set_mm, rest[axis] = whole[axis] - cut.set_mm;
    if (strip[axis] <= 0 || rest[axis] <= 0) return {};
    blanks.push_back(strip), blanks.push_back(rest);
  }
  std::vector<Vec2> left;
  for (const auto& blank : blanks)
    if (blank) left.push_back(*blank);
  return left;
}

/// Takes one blank of a size out, lying either way.
bool takeOut(std::vector<Vec2>& blanks, const Vec2& size) {
  const auto found = std::ranges::find_if(blanks, [&](const Vec2& blank) {
    return (blank - size).norm() < 0.03 || (blank - Vec2(size.y(), size.x())).norm() < 0.03;
  });
  if (found == blanks.end()) return false;
  blanks.erase(found);
  return true;
}

bool crosses(const Edge& a, const Edge& b) {
  const auto side = [](const Edge& e, const Vec2& p) {
    const Vec2 along = e.second - e.first, to = p - e.first;
    const double area = along.x() * to.y() - along.y() * to.x();
    return std::abs(area) < 1e-2 * along.norm() ? 0 : area > 0 ? 1 : -1;
  };
  return side(a, b.first) * side(a, b.second) < 0 && side(b, a.first) * side(b, a.second) < 0;
}

/// Even-odd along a level ray, apart from the clipping library.
bool within(const Region& region, const Vec2& p) {
  bool inside = false;
  for (const Polygon* ring : ringsOf(region))
    for (std::size_t k = 0; k < ring->size(); ++k) {
      const Vec2 &a = (*ring)[k], &b = (*ring)[(k + 1) % ring->size()];
      if ((a.y() > p.y()) != (b.y() > p.y()) &&
          p.x() < a.x() + (b.x() - a.x()) * (p.y() - a.y()) / (b.y() - a.y()))
        inside = !inside;
    }
  return inside;
}

/// A point well inside of a region.
Vec2 someInside(const Region& region) {
  for (const Polygon& part : convexParts(region))
    if (signedArea_mm2(part) > 1) return centroidOf(Region(part));
  return centroidOf(region);
}

bool overlap(const Region& a, const Region& b) {
  const Box2 ba = boundsOf(a), bb = boundsOf(b);
  if ((ba.low.array() > bb.high.array()).any() || (bb.low.array() > ba.high.array()).any())
    return false;
  for (const Edge& one : edgesOf(a))
    for (const Edge& other : edgesOf(b))
      if (crosses(one, other)) return true;
  return within(a, someInside(b)) || within(b, someInside(a));
}

/// Nothing over anything, all on its sheet, everything once, turned only as it may be.
void checkLayout(const CutPlan& plan, double margin_mm) {
  std::vector<int> placed(plan.parts.size(), 0);
  for (const LaidSheet& sheet : plan.sheets) {
    std::vector<Region> there;
    for (const PartPlace& place : sheet.places) {
      const CutPart& part = plan.parts[place.part];
      ++placed[place.part];
      QCOMPARE(part.paper, sheet.paper);
      QVERIFY(part.turns & (1u << place.quarters));
      const Box2 box = boxOnSheet(part, place);
      QVERIFY(box.low.minCoeff() > margin_mm - 0.01);
      QVERIFY(box.high.x() < sheet.width_mm - margin_mm + 0.01);
      QVERIFY(box.high.y() < sheet.height_mm - margin_mm + 0.01);
      const Region region = onSheet(part, place);
      for (const Region& other : there)
        QVERIFY2(!overlap(region, other), part.key.c_str());
      there.push_back(region);
    }
  }
  for (std::size_t part : plan.tooLarge)
    ++placed[part];
  for (std::size_t part : plan.noSheet)
    ++placed[part];
  QVERIFY(std::ranges::all_of(placed, [](int times) { return times == 1; }));
}

} // namespace

class TestCutting : public QObject {
  Q_OBJECT
private slots:
  void stripsAreTakenTogetherWhenThatSaves() {
    for (const char* name : {"steps-in-the-fold", "canal-houses", "tea-chests", "waving-boatmen"})
      for (int cards : {1, 4}) {
        const Design design = demo(name);
        const Snapshot snapshot(design);
        const LayoutOptions options = forTool(LayoutFor::Trimmer);
        const CutPlan chosen = layOutCards(design, *snapshot.cutPieces(), {}, cards, options);
        LayoutOptions half = options;
        half.seconds *= 0.5;
        for (const bool together : {true, false}) {
          const CutPlan one = layOutParts(
              design, partsToCut(design, *snapshot.cutPieces(), {}, cards, together), half);
          QVERIFY(chosen.sheets_mm2 <= one.sheets_mm2 + 1);
          if (std::abs(chosen.sheets_mm2 - one.sheets_mm2) < 1)
            QVERIFY(chosen.settings() <= one.settings() + 2); // the search ends by the clock
        }
      }
  }

  void blanksLieWhereTheyAreCut() {
    for (const char* name : {"canal-houses", "tea-chests"}) {
      const Design design = demoAsItComes(name);
      const CutPlan plan = layOutParts(design, partsOf(design, true), forTool(LayoutFor::Trimmer));
      const auto blanks = blanksOf(plan);
      std::vector<Vec2> left = blanksAfter(plan);
      QVERIFY(!left.empty());
      std::size_t ends = 0;
      for (const Blank& blank : blanks) {
        if (blank.cut) continue;
        ++ends;
        QVERIFY(takeOut(left, blank.box.size()));
      }
      QVERIFY(left.empty() && ends > plan.parts.size());
      // Every part lies in one of them, and as long and wide as it.
      for (std::size_t s = 0; s < plan.sheets.size(); ++s)
        for (const PartPlace& place : plan.sheets[s].places) {
          if (!plan.parts[place.part].flat.slices.empty()) continue;
          const Box2 box = boxOnSheet(plan.parts[place.part], place);
          QVERIFY(std::ranges::any_of(blanks, [&](const Blank& blank) {
            return !blank.cut && blank.sheet == s && (blank.box.low - box.low).norm() < 0.03 &&
                   (blank.box.high - box.high).norm() < 0.03;
          }));
        }
    }
  }

  void numbersOfAStrip() {
    Design design = card();
    const auto added = loadDesign(HINGE_SOURCE_DIR "/demo/steps-in-the-fold.hinge");
    QVERIFY(added);
    design = undressed(*added);
    const auto assembly = assemble(design);
    const auto tables = scoreTables(*assembly, design, flatPieces(*assembly), Bench());
    // The steps: 134 long, scored at 10, 36, 66, 94, 124.
    const auto steps = std::ranges::find_if(
        tables, [](const PieceTable& table) { return std::abs(table.size.x() - 134) < 1e-6; });
    QVERIFY(steps != tables.end());
    const std::vector<double> first{10, 36, 66, 94, 124}, step{10, 26, 30, 28, 30};
    QCOMPARE(steps->scores.size(), first.size());
    for (std::size_t k = 0; k < first.size(); ++k) {
      QVERIFY_NEAR(steps->scores[k].first_mm, first[k], 1e-9);
      QVERIFY_NEAR(steps->scores[k].other_mm, 134 - first[k], 1e-9);
      QVERIFY_NEAR(steps->scores[k].step_mm, step[k], 1e-9);
      QVERIFY(steps->scores[k].way == ScoreSetting::Way::Upright && !steps->scores[k].fromBack);
    }
    Bench bench;
    bench.first = FirstEdge::Right, bench.sides = ScoreSides::Both, bench.board_mm = 100;
    for (const PieceTable& table : scoreTables(*assembly, design, flatPieces(*assembly), bench)) {
      if (std::abs(table.size.x() - 134) > 1e-6) continue;
      QVERIFY_NEAR(table.scores.front().first_mm, 134 - 124, 1e-9);
      for (const ScoreSetting& score : table.scores)
        QCOMPARE(score.fromBack, score.kind == LineKind::Mountain);
      // Longer than the board: one of them comes first, those beyond its end from the other edge.
      QCOMPARE(std::ranges::count_if(table.scores, &ScoreSetting::firstOfLong), 1);
      QVERIFY(std::ranges::find_if(table.scores, &ScoreSetting::firstOfLong)->first_mm > 60);
      QVERIFY(std::ranges::count(table.notes, PieceNote::LongerThanBoard));
      break;
    }
  }

  void mirroredPiecesAreHands() {
    Design design = card();
    add(design, "vfold", "gutter");
    design.cardPaper().print = findPaper(knownPapers(), "canal-waves")->print;
    const auto assembly = assemble(design);
    for (const PieceTable& table : scoreTables(*assembly, design, flatPieces(*assembly), Bench()))
      QCOMPARE(table.count(), table.same.size() + table.mirrored.size());
    // Two equal structures are one line of two.
    add(design, "vfold", "gutter", {{"position", 100}});
    design.structures[1].values = design.structures[0].values;
    design.structures[1].values["position"] += 60;
    const auto both = assemble(design);
    const auto tables = scoreTables(*both, design, flatPieces(*both), Bench());
    QCOMPARE(std::ranges::count_if(tables, [](const PieceTable& t) { return t.count() == 2; }), 1);
  }

  void onlyPiecesScoredAlikeShareATable() {
    PieceWork work = plainStrip(100, 40);
    work.outline = {{0, 0}, {100, 0}, {100, 40}, {20, 40}, {0, 25}}; // lies on itself in one way
    work.lines = {{WorkLine::Kind::Valley, {30, 0}, {30, 40}},
                  {WorkLine::Kind::Valley, {60, 0}, {60, 40}}};
    work.joints = {{{45, 20}, "card/page-a", {70, 60}, given::Glue()}};
    Design design = card();
    for (double y : {40.0, 90.0}) {
      work.joints.front().to = {70, y};
      design = addStructure(design, "piece", "gutter", {{"position", 0.0}}, work)->design;
    }
    const auto assembly = assemble(design);
    const std::vector<FlatPiece> pieces = flatPieces(*assembly);
    const auto last = [](std::vector<FlatPiece>& of) -> FlatLine& {
      return *std::ranges::find_if(of.back().lines,
                                   [](const FlatLine& l) { return l.kind == LineKind::Valley; });
    };
    const auto alike = [&](const auto& change) {
      std::vector<FlatPiece> changed = pieces;
      change(last(changed));
      return std::ranges::any_of(scoreTables(*assembly, design, changed, Bench()),
                                 [](const PieceTable& t) { return t.count() == 2; });
    };
    QVERIFY(alike([](FlatLine&) {}));
    QVERIFY(alike([](FlatLine& l) { std::swap(l.corners.front(), l.corners.back()); }));
    QVERIFY(alike([](FlatLine& l) { l.corners.front().x() += 0.04; })); // less than a hand sees
    QVERIFY(!alike([](FlatLine& l) { l.corners.front().x() += 4; }));
    QVERIFY(!alike([](FlatLine& l) { l.corners.back().x() += 4; }));
    QVERIFY(!alike([](FlatLine& l) { l.corners.back() = l.corners.front(); }));
    QVERIFY(!alike([](FlatLine& l) { l.corners.front() = l.corners.back(); }));
    QVERIFY(!alike([](FlatLine& l) {
      for (Vec2& corner : l.corners)
        corner.x() += 9;
    }));
    QVERIFY(!alike([](FlatLine& l) { l.kind = LineKind::Mountain; }));
  }

  void marksAndHairs() {
    QVERIFY(nearestMark(62.5, 0.5).exact());
    QVERIFY_NEAR(nearestMark(62.7, 0.5).off_mm, 0.2, 1e-12);
    QCOMPARE(sayMark(62.7, 0.5, LengthUnit::Millimetre), std::string("62.5 +0.2"));
    QCOMPARE(sayMark(92.5, 25.4 / 16, LengthUnit::Inch), std::string("3 5/8 and a hair"));
    QCOMPARE(sayMark(92.075, 25.4 / 16, LengthUnit::Inch), std::string("3 5/8"));
    QCOMPARE(sayMark(91.6, 25.4 / 16, LengthUnit::Inch), std::string("3 5/8 less a hair"));
  }

  /// Text in columns, CSV as RFC 4180: read back by a reader of its own.
  void tablesAsText() {
    const ReadTable table{
        "A  Card", {"one piece"}, {"line", "from"}, {{"valley", "3, 4"}, {"a \"b\"", "12"}}};
    const std::string text = plainText({table}), csv = commaSeparated({table});
    QVERIFY(text.find("  valley  3, 4\n") != std::string::npos);
    QCOMPARE(csv, std::string("piece,line,from\r\nA  Card,valley,\"3, 4\"\r\n"
                              "A  Card,\"a \"\"b\"\"\",12\r\n"));
    QCOMPARE(tabSeparated({table}), std::string("piece\tline\tfrom\nA  Card\tvalley\t3, 4\n"
                                                "A  Card\ta \"b\"\t12\n"));
  }

  void trimmedSheetsReplayed_data() {
    QTest::addColumn<QString>("name");
    for (const char* name : {"night-market", "canal-houses", "tea-chests", "waving-boatmen",
                             "canal-frames", "lantern-tower", "ferry-pass"})
      QTest::newRow(name) << name;
  }
  void trimmedSheetsReplayed() {
    QFETCH(QString, name);
    const Design design = demoAsItComes(name.toStdString());
    const CutPlan plan = layOutParts(design, partsOf(design, true), forTool(LayoutFor::Trimmer));
    checkLayout(plan, 0);
    std::vector<Vec2> blanks = blanksAfter(plan);
    QVERIFY(!blanks.empty());
    std::size_t expected = plan.sheets.size() + plan.cuts.size();
    QCOMPARE(blanks.size(), expected); // every cut makes one blank more
    for (const LaidSheet& sheet : plan.sheets)
      for (const PartPlace& place : sheet.places) {
        const CutPart& part = plan.parts[place.part];
        const std::size_t strips = std::max<std::size_t>(1, part.flat.slices.size());
        for (std::size_t k = 0; k < strips; ++k)
          QVERIFY2(
              takeOut(blanks, Vec2(part.size().x(), part.size().y() / static_cast<double>(strips))),
              part.key.c_str());
      }
    // Settings are told: the stop changes where it says so and nowhere else.
    double set = -1;
    for (const TrimCut& cut : plan.cuts) {
      QCOMPARE(cut.setting, std::abs(cut.set_mm - set) > 0.02);
      set = cut.set_mm;
    }
  }

  void sixtyRectanglesOnA4() {
    std::mt19937 chance(3);
    std::uniform_real_distribution<double> side(18, 95);
    double bound = 0, taken = 0;
    for (int round = 0; round < 4; ++round) {
      std::vector<CutPart> parts;
      double area = 0;
      for (int k = 0; k < 60; ++k) {
        parts.push_back(rectangle(side(chance), side(chance)));
        area += parts.back().size().prod();
      }
      LayoutOptions options = forTool(LayoutFor::Trimmer);
      options.seconds = 3;
      const CutPlan plan = layOutParts(card(), std::move(parts), options);
      checkLayout(plan, 0);
      // Offcuts that are kept are not taken.
      bound += area, taken += plan.sheets_mm2 - plan.kept_mm2;
    }
    QVERIFY2(taken <= 1.1 * bound, qPrintable(QString::number(taken / bound)));
  }

  void nestedOutlinesDoNotOverlap_data() {
    QTest::addColumn<QString>("name");
    for (const char* name : {"night-market", "canal-houses", "pop-up-lantern", "night-heron",
                             "paddle-wheels", "bridge-of-arches", "barge-at-dusk"})
      QTest::newRow(name) << name;
  }
  void nestedOutlinesDoNotOverlap() {
    QFETCH(QString, name);
    const Design design = demoAsItComes(name.toStdString());
    const CutPlan plan =
        layOutParts(design, partsOf(design, false, 2), forTool(LayoutFor::Machine));
    checkLayout(plan, 5);
    QVERIFY(plan.noSheet.empty());
  }

  /// What was put somewhere by hand stays there, on its sheet; the others are laid round it.
  void whatIsPinnedStays() {
    const Design design = demo("canal-houses");
    const auto parts = partsOf(design, false, 2);
    LayoutOptions options = forTool(LayoutFor::Machine);
    options.seconds = 0;
    const CutPlan before = layOutParts(design, parts, options);
    QVERIFY(before.sheets.size() > 1);
    const LaidSheet &first = before.sheets.front(), &last = before.sheets.back();
    const PartPlace one = first.places.back(), other = last.places.front();
    PartPlace nowhere = first.places.front();
    options.pinned = {{one, 7, first.width_mm, first.height_mm},
                      {other, 9, last.width_mm, last.height_mm},
                      {nowhere, 11, 77, 88}, // there are no such sheets
                      {nowhere, 12, first.width_mm, 88},
                      {nowhere, 13, 77, first.height_mm}};
    const CutPlan plan = layOutParts(design, parts, options);
    checkLayout(plan, 5);
    std::map<std::size_t, std::pair<std::size_t, PartPlace>> pinned;
    for (std::size_t s = 0; s < plan.sheets.size(); ++s)
      for (const PartPlace& place : plan.sheets[s].places)
        if (place.pinned) pinned[place.part] = {s, place};
    QCOMPARE(pinned.size(), std::size_t(2));
    for (const PartPlace& wanted : {one, other}) {
      const auto& [sheet, place] = pinned.at(wanted.part);
      QCOMPARE(place.quarters, wanted.quarters);
      QVERIFY_NEAR((place.offset - wanted.offset).norm(), 0, 1e-2);
    }
    QVERIFY(pinned.at(one.part).first != pinned.at(other.part).first);
  }

  /// Against rows of boxes with a printer's margins, which is how sheets were laid out once: on the
  /// same parts of all demos, offcuts of 60 mm and more kept by both.
  void lessWasteThanRows() {
    double rowsWaste = 0, trimmedWaste = 0, nestedWaste = 0;
    for (const QString& file :
         QDir(QStringLiteral(HINGE_SOURCE_DIR "/demo")).entryList({QStringLiteral("*.hinge")})) {
      const auto design = loadDesign(HINGE_SOURCE_DIR "/demo/" + file.toStdString());
      QVERIFY(design);
      std::vector<CutPart> parts = partsOf(*design, false);
      const auto waste = [](const CutPlan& plan) {
        return plan.sheets_mm2 - plan.parts_mm2 - plan.kept_mm2;
      };
      std::map<std::string, std::vector<FlatPiece>> papers;
      LayoutOptions nesting = forTool(LayoutFor::Machine), trimming = forTool(LayoutFor::Trimmer);
      nesting.seconds = trimming.seconds = 0.05; // the first answers will do
      const CutPlan nested = layOutParts(*design, parts, nesting);
      const CutPlan trimmed = layOutParts(*design, parts, trimming);
      if (!nested.tooLarge.empty() || !trimmed.tooLarge.empty()) continue;
      nestedWaste += waste(nested), trimmedWaste += waste(trimmed);
      double area = 0;
      for (const CutPart& part : parts)
        papers[part.paper].push_back(part.flat), area += area_mm2(part.outline);
      const SheetSize& sheet = sheetByKey(design->settings.sheet);
      for (const auto& [paper, pieces] : papers) {
        const SheetLayout rows = layOut(pieces, sheet.width_mm, sheet.height_mm, 10, 6, true, 14);
        std::vector<double> lowest(static_cast<std::size_t>(rows.sheets), sheet.height_mm);
        for (std::size_t k = 0; k < rows.places.size(); ++k) {
          // The rows begin at the upper edge; their order is that of the places.
          Box2 box;
          for (const FlatPiece& piece : pieces)
            if (piece.piece == rows.places[k].piece)
              for (const Vec2& p : {piece.bounds.low, piece.bounds.high})
                box.add(rows.places[k].onSheet(p));
          auto& low = lowest[static_cast<std::size_t>(rows.places[k].sheet)];
          low = std::min(low, box.low.y() + 14);
        }
        for (double low : lowest) {
          rowsWaste += sheet.width_mm * sheet.height_mm;
          if (low - 6 >= 60) rowsWaste -= sheet.width_mm * (low - 6);
        }
      }
      rowsWaste -= area;
    }
    qInfo("waste of rows %.0f cm2, trimmed %.2f and nested %.2f of it", rowsWaste / 100,
          trimmedWaste / rowsWaste, nestedWaste / rowsWaste);
    QVERIFY(trimmedWaste <= 0.75 * rowsWaste);
    QVERIFY(nestedWaste <= 0.75 * rowsWaste);
  }

  void twoHundredPiecesNested() {
    std::vector<CutPart> parts;
    for (const char* name : {"canal-houses", "tea-chests", "night-heron", "bridge-of-arches"}) {
      const Design design = demo(name);
      for (CutPart& part : partsOf(design, false))
        part.paper = Paper().key, parts.push_back(std::move(part));
    }
    const std::size_t distinct = parts.size();
    for (std::size_t k = 0; parts.size() < 200; ++k)
      parts.push_back(parts[k % distinct]);
    Design design = card();
    design.cardPaper().sheets = {{420, 594, {}}};
    const CutPlan plan = layOutParts(design, parts, forTool(LayoutFor::Machine));
    checkLayout(plan, 5);
    QVERIFY(plan.tooLarge.empty() && plan.noSheet.empty());
  }

  void holesAreUsed() {
    CutPart frame = rectangle(180, 180);
    frame.outline.holes.push_back({{20, 20}, {20, 160}, {160, 160}, {160, 20}});
    std::vector<CutPart> parts{frame};
    for (int k = 0; k < 6; ++k)
      parts.push_back(rectangle(60, 40));
    const CutPlan plan = layOutParts(card(), std::move(parts), forTool(LayoutFor::Machine));
    checkLayout(plan, 5);
    const Region whole = onSheet(plan.parts[0], plan.sheets[0].places[0]);
    const Box2 hole =
        boundsOf(Region(Polygon(whole.holes.front().rbegin(), whole.holes.front().rend())));
    int inside = 0;
    for (const PartPlace& place : plan.sheets[0].places) {
      const Box2 box = boxOnSheet(plan.parts[place.part], place);
      inside += (box.low.array() > hole.low.array()).all() &&
                (box.high.array() < hole.high.array()).all();
    }
    QVERIFY2(inside >= 4, qPrintable(QString::number(inside)));
  }

  void patternsStayUpright() {
    Design design = card();
    Paper paper = *findPaper(knownPapers(), "canal-waves");
    paper.key = "waves", paper.way = PatternWay::Both;
    design = *withPaper(design, paper);
    std::vector<CutPart> parts;
    for (int k = 0; k < 5; ++k)
      parts.push_back(rectangle(120, 50, 0b0001)), parts.back().paper = "waves";
    const CutPlan plan = layOutParts(design, std::move(parts), forTool(LayoutFor::Machine));
    checkLayout(plan, 5);
    // On paper of the drawer the turns follow from its pattern, or its grain.
    Layer layer;
    layer.paper = "waves";
    design = *withRule(design, {DressReach::Face, "card/page-a", AtGlue::Under, {layer}});
    for (const CutPart& part : partsOf(design, false))
      QCOMPARE(part.turns, part.mat ? 0b0001u : 0b1111u);
    design.cardPaper().grain = Grain::Long;
    for (const CutPart& part : partsOf(design, false))
      QCOMPARE(part.turns, part.mat ? 0b0001u : 0b0101u);
  }

  void sheetsAtHandAndToBuy() {
    Design design = card(100, 140);
    design.cardPaper().sheets = {{210, 297, 3}};
    // One sheet holds one card of 200 x 140 twice over: 210 x 297.
    const Snapshot snapshot(design);
    LayoutOptions options = forTool(LayoutFor::Trimmer);
    const CardsFromStock enough = cardsFromStock(design, *snapshot.flatPieces(), {}, options, 100);
    QCOMPARE(enough.cards, 6);
    QCOMPARE(enough.endsFirst, design.stock);
    options.unlimited = true;
    const CutPlan ten = layOutParts(design, partsOf(design, true, 10), options);
    const auto needs = sheetsOf(ten, design);
    QCOMPARE(needs.size(), std::size_t{1});
    QCOMPARE(needs.front().sheets, 5);
    QCOMPARE(needs.front().toBuy(), 2);
    options.unlimited = false;
    const CutPlan short_ = layOutParts(design, partsOf(design, true, 10), options);
    QCOMPARE(short_.noSheet.size(), std::size_t{4});
    // A page larger than the sheet is told, whatever is at hand.
    const CutPlan large = layOutParts(card(250, 300), partsOf(card(250, 300), true), options);
    QCOMPARE(large.tooLarge.size(), std::size_t{1});
  }

  void stoppedLayoutsSaySo() {
    const Design design = demoAsItComes("canal-houses");
    std::stop_source stop;
    stop.request_stop();
    const CutPlan plan =
        layOutParts(design, partsOf(design, false), forTool(LayoutFor::Machine), stop.get_token());
    checkLayout(plan, 5); // a layout all the same
    std::size_t told = 0, all = 0;
    layOutParts(design, partsOf(design, false), forTool(LayoutFor::Machine), {},
                [&](std::size_t done, std::size_t of) {
                  QCOMPARE(done, told + 1);
                  told = done, all = of;
                });
    QCOMPARE(told, all);
  }
};

QTEST_GUILESS_MAIN(TestCutting)
#include "test_cutting.moc"
