// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN
#include "core/io/design_json.h"
#include "core/production/flat_piece.h"
#include "core/production/slices.h"
#include "core/states/shut_state.h"
#include "render/sheets_svg.h"
#include <QFile>
#include <QXmlStreamReader>
#endif

using namespace hinge;
using namespace hinge::test;

namespace {
Design boxCard() {
  Design d = card();
  d.title = "Golden box";
  add(d, "box", "gutter", {{"position", 60}, {"length", 50}, {"a", 30}, {"c", 45}});
  return d;
}
} // namespace

class TestProduction : public QObject {
  Q_OBJECT
private slots:
  void theCutLineOfAPieceIsOneClosedOutline() {
    const auto assembly = assemble(boxCard());
    for (const FlatPiece& piece : flatPieces(*assembly)) {
      int cuts = 0;
      for (const FlatLine& line : piece.lines) {
        cuts += line.kind == LineKind::Cut;
        QVERIFY(line.kind != LineKind::Cut || line.closed);
      }
      QCOMPARE(cuts, 1);
    }
  }
  void aBoxHasThreeMountainsAndTwoGluedTabs() {
    const auto assembly = assemble(boxCard());
    const FlatPiece piece = flatPiece(*assembly, PieceIndex(1));
    int mountains = 0;
    for (const FlatLine& line : piece.lines)
      mountains += line.kind == LineKind::Mountain;
    QCOMPARE(mountains, 3);
    QCOMPARE(piece.glue.size(), std::size_t(2));
    QVERIFY_NEAR(piece.bounds.size().x(), 45 + 45 + 20, 1e-9);
    QVERIFY_NEAR(piece.bounds.size().y(), 50, 1e-9);
  }
  void theCardIsMarkedWhereTheTabsGo() {
    const auto assembly = assemble(boxCard());
    const FlatPiece sheet = flatPiece(*assembly, PieceIndex(0));
    QCOMPARE(sheet.marks.size(), std::size_t(2));
    // Tabs point to the gutter: from foot 30 back to 20, on either side.
    Box2 left, right;
    for (const FlatArea& mark : sheet.marks)
      (boundsOf(mark.outline).centre().x() < 0 ? left : right).add(boundsOf(mark.outline));
    QVERIFY_NEAR(left.low.x(), -30, 1e-9);
    QVERIFY_NEAR(left.high.x(), -20, 1e-9);
    QVERIFY_NEAR(right.low.x(), 20, 1e-9);
    QVERIFY_NEAR(right.low.y(), 60, 1e-9);
    QVERIFY_NEAR(right.high.y(), 110, 1e-9);
  }
  void sheetsAreCountedWhereTheyLie() {
    const Design d = boxCard(); // feet at 30, walls of 45, tabs of 10 towards the gutter, from 60
                                // to 110 along it
    const Motion motion = Motion::trace(assemble(d));
    const ShutState shut = shutState(motion, d);
    const auto sheets = [&](double out, double along) {
      return shut.map.at(static_cast<int>(-out - shut.map.origin.x()),
                         static_cast<int>(along - shut.map.origin.y()));
    };
    QCOMPARE(sheets(100.5, 80.5), 2); // two pages
    QCOMPARE(sheets(50.5, 80.5), 4);  // two pages, two walls
    QCOMPARE(sheets(25.5, 80.5), 4);  // two pages, two tabs
    QCOMPARE(sheets(10.5, 80.5), 2);
    QCOMPARE(sheets(50.5, 20.5), 2);
    QCOMPARE(shut.thickestSheets, 4);
    QVERIFY_NEAR(shut.thickness_mm, 4 * 0.27, 1e-12);
    QVERIFY_NEAR(shut.width_mm, 130, 1e-9);
    QVERIFY_NEAR(shut.height_mm, 180, 1e-9);
  }
  void theShutSizeHoldsWhatPokesOut() {
    Design d = card();
    d.card.fold = FoldSide::Top;
    add(d, "box", "gutter", {{"position", -4}, {"length", 50}, {"a", 30}, {"c", 45}});
    const ShutState shut = shutState(Motion::trace(assemble(d)), d);
    QVERIFY_NEAR(shut.width_mm, 134, 1e-9);
    QVERIFY_NEAR(shut.height_mm, 180, 1e-9);
  }
  void piecesOnASheetDoNotOverlap() {
    Design d = card(100, 150);
    for (int k = 0; k < 8; ++k)
      add(d, k % 2 ? "box" : "vfold", "gutter", {{"position", 10.0 + k}});
    const auto assembly = assemble(d);
    const auto pieces = flatPieces(*assembly);
    const SheetLayout layout = layOut(pieces, 210, 297, 10, 6, true);
    QCOMPARE(layout.places.size(), pieces.size());
    std::vector<std::pair<int, Box2>> boxes;
    for (const SheetPlace& place : layout.places) {
      Box2 box;
      const FlatPiece& piece = pieces[static_cast<std::size_t>(place.piece.value)];
      for (const Vec2& p : {piece.bounds.low, piece.bounds.high})
        box.add(place.onSheet(p));
      QVERIFY(box.low.x() >= 10 - 1e-9 && box.high.x() <= 200 + 1e-9 && box.low.y() >= 10 - 1e-9 &&
              box.high.y() <= 287 + 1e-9);
      for (const auto& [sheet, other] : boxes)
        QVERIFY(sheet != place.sheet || box.low.x() >= other.high.x() + 5.9 ||
                other.low.x() >= box.high.x() + 5.9 || box.low.y() >= other.high.y() + 5.9 ||
                other.low.y() >= box.high.y() + 5.9);
      boxes.push_back({place.sheet, box});
    }
  }
  void aPieceLargerThanTheSheetGetsItsOwn() {
    const auto assembly = assemble(card(400, 300));
    const SheetLayout layout = layOut(flatPieces(*assembly), 210, 297, 10, 6);
    QCOMPARE(layout.sheets, 1);
    QVERIFY(layout.places.front().oversize);
  }
  void padsAreAsHighAsPinsAndLimbs() {
    const auto loaded = loadDesign(HINGE_SOURCE_DIR "/demo/waving-boatmen.hinge");
    const Motion motion = Motion::trace(assemble(*loaded));
    const ShutState shut = shutState(motion, *loaded);
    // Link on strip, or link on arm: two layers of card and the head.
    QVERIFY_NEAR(shut.pads_mm, 2 * loaded->cardPaper().thickness_mm + starting::kPinHead_mm, 1e-9);
    QVERIFY(shut.thickness_mm >= 4 * loaded->cardPaper().thickness_mm + starting::kPinHead_mm -
                                     1e-9); // both pages, two limbs, a head
    const auto flat = loadDesign(HINGE_SOURCE_DIR "/demo/ferry-pass.hinge");
    QCOMPARE(shutState(Motion::trace(assemble(*flat)), *flat).pads_mm, 0.0);
  }
  void equalStripsAreCutAsOneWideSheet() {
    const Design boatmen = demo("waving-boatmen");
    // Of other papers they stay apart.
    const Design asItComes = demoAsItComes("waving-boatmen");
    const auto dressed = flatPieces(*assemble(asItComes));
    QCOMPARE(takenTogether(dressed, 190).size(), dressed.size());
    const auto assembly = assemble(boatmen);
    const auto single = flatPieces(*assembly), wide = takenTogether(single, 190);
    // Two arms and two links, each pair alike.
    QCOMPARE(wide.size(), single.size() - 2);
    std::size_t parts = 0;
    for (const FlatPiece& piece : wide) {
      parts += std::max<std::size_t>(1, piece.slices.size());
      if (piece.slices.empty()) continue;
      QCOMPARE(piece.slices.size(), std::size_t(2));
      const auto names = std::ranges::count_if(
          piece.labels, [](const FlatLabel& label) { return !label.panel.valid(); });
      QCOMPARE(names, 2);
      const auto one = std::ranges::find(single, piece.slices.front(), &FlatPiece::piece);
      QVERIFY_NEAR(piece.bounds.size().x(), one->bounds.size().x(), 1e-9);
      QVERIFY_NEAR(piece.bounds.size().y(), 2 * one->bounds.size().y(), 1e-9);
      // One cut between the two in place of two.
      double cut = 0, alone = 0;
      const auto lengthOf = [](const FlatLine& line) {
        double sum = 0;
        for (std::size_t k = 0; k + (line.closed ? 0 : 1) < line.corners.size(); ++k)
          sum += (line.corners[(k + 1) % line.corners.size()] - line.corners[k]).norm();
        return line.kind == LineKind::Cut ? sum : 0.0;
      };
      for (const FlatLine& line : piece.lines)
        cut += lengthOf(line);
      for (const FlatLine& line : one->lines)
        alone += lengthOf(line);
      QVERIFY_NEAR(cut, 2 * alone - one->bounds.size().x(), 1e-6);
    }
    QCOMPARE(parts, single.size());
  }
  void scoresRunThroughAllSlices() {
    Design d = card(120, 150);
    PieceWork strip = plainStrip(60, 10);
    for (double x : {8.0, 30.0, 52.0})
      strip.lines.push_back(
          {x == 30 ? WorkLine::Kind::Mountain : WorkLine::Kind::Valley, {x, 0}, {x, 10}});
    for (int k = 0; k < 5; ++k) {
      strip.joints = {{{4, 5}, "card/page-a", {20 + 22.0 * k, 60}, given::Glue()}};
      if (k == 4) strip.lines[1].kind = WorkLine::Kind::Valley; // not alike: it stays alone
      d = addStructure(d, "piece", "gutter", {{"position", 0.0}}, strip)->design;
    }
    const auto assembly = assemble(d);
    QCOMPARE(piecesToCut(flatPieces(*assembly), d).size(), std::size_t(6));
    d.settings.slice = true;
    const auto pieces = piecesToCut(flatPieces(*assembly), d);
    QCOMPARE(pieces.size(), std::size_t(3)); // card, four together, one alone
    const auto wide =
        std::ranges::find_if(pieces, [](const FlatPiece& p) { return p.slices.size() == 4; });
    QVERIFY(wide != pieces.end());
    int scores = 0;
    for (const FlatLine& line : wide->lines) {
      if (line.kind == LineKind::Cut) continue;
      ++scores;
      QVERIFY_NEAR((line.corners.front() - line.corners.back()).norm(), 40.0, 1e-9);
    }
    QCOMPARE(scores, 3);
    QCOMPARE(wide->glue.size(), std::size_t(4));
    // Where their own frames begin makes no difference: glue and names are on their strips.
    for (const Vec2& by : {Vec2(0, 0), Vec2(7, -3)}) {
      std::vector<FlatPiece> moved = flatPieces(*assembly);
      for (FlatPiece& piece : moved) {
        for (FlatLine& line : piece.lines)
          for (Vec2& corner : line.corners)
            corner += by;
        for (FlatArea& area : piece.glue)
          area.outline = mapped(area.outline, Iso3(Eigen::Translation3d(lift(by))));
        for (FlatLabel& label : piece.labels)
          label.at += by;
        piece.bounds.low += by, piece.bounds.high += by;
      }
      const auto together = piecesToCut(moved, d);
      const auto four =
          std::ranges::find_if(together, [](const FlatPiece& p) { return p.slices.size() == 4; });
      QVERIFY(four != together.end());
      for (std::size_t k = 0; k < 4; ++k) {
        const double from = 10 * static_cast<double>(k);
        const Box2 glued = boundsOf(four->glue[k].outline);
        QVERIFY(glued.low.x() > -1e-9 && glued.high.x() < 8 + 1e-9);
        QVERIFY(glued.low.y() > from - 1e-9 && glued.high.y() < from + 10 + 1e-9);
        QVERIFY(std::ranges::any_of(four->labels, [&](const FlatLabel& label) {
          return label.piece == four->slices[k] && label.at.y() > from &&
                 label.at.y() < from + 10 && label.at.x() > 0 && label.at.x() < 60;
        }));
      }
    }
    // Strips longer than the sheet stay alone.
    QCOMPARE(takenTogether(flatPieces(*assembly), 59).size(), std::size_t(6));
    const std::string svg = piecesToSvg(*assembly, d);
    for (PieceIndex p : assembly->pieces.indices()) // every strip keeps its name
      QVERIFY(svg.find(">" + say(pieceName(d, *assembly, p)) + "</text>") != std::string::npos);
    const auto saved = designFromJson(designToJson(d));
    QVERIFY(saved.ok() && saved->settings.slice);
  }
  void svgIsTheGoldenFile() {
    const std::string svg = piecesToSvg(*assemble(boxCard()), boxCard());
    QFile golden(QStringLiteral(HINGE_TEST_DATA "/golden_box.svg"));
    if (qEnvironmentVariableIsSet("HINGE_WRITE_GOLDEN")) {
      QVERIFY(golden.open(QIODevice::WriteOnly));
      golden.write(svg.c_str());
      golden.close();
    }
    QVERIFY(golden.open(QIODevice::ReadOnly));
    QVERIFY2(golden.readAll().toStdString() == svg,
             "differs from tests/data/golden_box.svg (write it anew with HINGE_WRITE_GOLDEN=1 and "
             "look at it)");
  }
  void svgIsWellFormedInMillimetresWithALayerPerKindOfLine() {
    Design d = boxCard();
    d.title = "a < b & \"c\"";
    QXmlStreamReader xml(QString::fromStdString(piecesToSvg(*assemble(d), d)));
    QStringList layers;
    while (!xml.atEnd()) {
      if (xml.readNext() != QXmlStreamReader::StartElement) continue;
      if (xml.name() == QStringLiteral("g"))
        layers << xml.attributes().value(QStringLiteral("id")).toString();
      if (xml.name() == QStringLiteral("svg")) {
        const QString width = xml.attributes().value(QStringLiteral("width")).toString();
        QVERIFY(width.endsWith(QStringLiteral("mm")));
        QCOMPARE(xml.attributes()
                         .value(QStringLiteral("viewBox"))
                         .toString()
                         .split(QLatin1Char(' '))
                         .at(2) +
                     QStringLiteral("mm"),
                 width);
      }
    }
    QVERIFY2(!xml.hasError(), qPrintable(xml.errorString()));
    QCOMPARE(layers, (QStringList{QStringLiteral("glue"), QStringLiteral("marks"),
                                  QStringLiteral("valley"), QStringLiteral("mountain"),
                                  QStringLiteral("cut"), QStringLiteral("labels")}));
  }
};

QTEST_APPLESS_MAIN(TestProduction)
#include "test_production.moc"
