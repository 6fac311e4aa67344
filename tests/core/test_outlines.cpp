// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geom/rim.h"
#include "core/pieces/outline_edits.h"
#include "core/pieces/sheet_words.h"
#include "core/pieces/snapping.h"
#include "core/units/tolerances.h"
#include "support.h"
#include <fmt/format.h>
#include <random>

using namespace hinge;
using namespace hinge::test;

// Rims, what hands do to outlines, and where a hand's point snaps to, against numbers from the
// drawing board.

namespace {

const Polygon kSheet = rectangle({0, 0}, {100, 60});
const Polygon kAngle = {{0, 0}, {80, 0}, {80, 30}, {30, 30}, {30, 80}, {0, 80}};
const Polygon kTrapezoid = {{0, 0}, {100, 0}, {80, 40}, {20, 40}};

Polygon turned(Polygon rim) {
  std::ranges::reverse(rim);
  return rim;
}

bool near(const Vec2& a, const Vec2& b) {
  return (a - b).norm() < 1e-9;
}

bool same(const Polygon& a, const Polygon& b) {
  return std::ranges::equal(a, b, near);
}

PieceWork sheet(const Polygon& outline, std::vector<WorkLine> lines = {}) {
  PieceWork work;
  work.outline = outline, work.lines = std::move(lines);
  return work;
}

WorkLine score(const Vec2& from, const Vec2& to) {
  return {WorkLine::Kind::Valley, from, to};
}

QString said(const Vec2& p) {
  return QStringLiteral("(%1, %2)").arg(p.x(), 0, 'g', 9).arg(p.y(), 0, 'g', 9);
}

void isSnapped(const Snapped& is, const Vec2& at, SnapTo to) {
  QVERIFY2(near(is.at, at), qPrintable(said(is.at) + QStringLiteral(" is not ") + said(at)));
  QCOMPARE(static_cast<int>(is.to), static_cast<int>(to));
}

void isPlaced(const SnappedPlace& is, double at, SnapTo to) {
  QVERIFY_NEAR(is.at, at, 1e-9);
  QCOMPARE(static_cast<int>(is.to), static_cast<int>(to));
}

} // namespace

class TestOutlines : public QObject {
  Q_OBJECT
private slots:
  void cornersAreRounded() {
    for (const auto& [rim, corner] : {std::pair{kSheet, 2u}, std::pair{turned(kSheet), 1u}}) {
      const auto arc = roundedCorner(rim, corner, 10);
      QVERIFY(arc);
      QCOMPARE(arc->size(), std::size_t(9)); // chords of 11.25 degrees lie 0.048 mm off
      const bool reversed = corner == 1u;
      QVERIFY(near(arc->front(), reversed ? Vec2(90, 60) : Vec2(100, 50)));
      QVERIFY(near(arc->back(), reversed ? Vec2(100, 50) : Vec2(90, 60)));
      for (const Vec2& p : *arc)
        QVERIFY_NEAR((p - Vec2(90, 50)).norm(), 10, 1e-9);
      QVERIFY((*arc)[4].x() > 97 && (*arc)[4].y() > 57);
    }
    // Into the paper at a corner that looks inwards.
    const auto hollow = roundedCorner(kAngle, 3, 10);
    QVERIFY(hollow && near(hollow->front(), {40, 30}) && near(hollow->back(), {30, 40}));
    for (const Vec2& p : *hollow)
      QVERIFY_NEAR((p - Vec2(40, 40)).norm(), 10, 1e-9);
  }

  void cornersAreRoundedAsFarAsEdgesGo() {
    const Polygon triangle = {{0, 0}, {60, 0}, {30, 30 * std::sqrt(3.0)}};
    QVERIFY(roundedCorner(triangle, 0, 17.3)); // it begins 29.96 mm from the corner
    QVERIFY(!roundedCorner(triangle, 0, 17.4));
    QVERIFY(!roundedCorner(triangle, 0, 0.05) && roundedCorner(triangle, 0, 0.06));
    const Polygon straight = {{0, 0}, {50, -0.2}, {100, 0}, {100, 60}, {0, 60}};
    QVERIFY(!roundedCorner(straight, 1, 5) && !snippedCorner(straight, 1, 5));
  }

  void cornersAreSnipped() {
    const auto cut = snippedCorner(kSheet, 1, 10);
    QVERIFY(cut && cut->size() == 2 && near((*cut)[0], {90, 0}) && near((*cut)[1], {100, 10}));
    QVERIFY(snippedCorner(kSheet, 1, 59) && !snippedCorner(kSheet, 1, 60));
    QVERIFY(!snippedCorner(kSheet, 1, 0.05) && snippedCorner(kSheet, 1, 0.06));
  }

  void edgesMoveOutwards() {
    const Vec2 out[] = {{0, -1}, {1, 0}, {0, 1}, {-1, 0}};
    for (std::size_t k = 0; k < 4; ++k) {
      QVERIFY(near(outwards(kSheet, k), out[k]));
      QVERIFY(near(outwards(turned(kSheet), k), out[(6 - k) % 4]));
    }
    QVERIFY(same(withEdgeOut(kSheet, 1, 15), rectangle({0, 0}, {115, 60})));
    QVERIFY(same(withEdgeOut(kSheet, 3, 15), rectangle({-15, 0}, {100, 60})));
    QVERIFY(same(withEdgeOut(turned(kSheet), 1, -15), turned(rectangle({0, 0}, {85, 60}))));
    // Edges beside it go on in their own direction.
    QVERIFY(same(withEdgeOut(kTrapezoid, 2, 10), {{0, 0}, {100, 0}, {75, 50}, {25, 50}}));
    QVERIFY(same(withEdgeOut(kTrapezoid, 2, -10), {{0, 0}, {100, 0}, {85, 30}, {15, 30}}));
    // One that is parallel to it does not say where to go.
    const Polygon halved = {{0, 0}, {50, 0}, {100, 0}, {100, 60}, {0, 60}};
    QVERIFY(same(withEdgeOut(halved, 0, 5), {{0, -5}, {50, -5}, {100, 0}, {100, 60}, {0, 60}}));
  }

  void roundCornersGoAlong() {
    const auto arc = roundedCorner(kSheet, 2, 10);
    Polygon rim = {{0, 0}, {100, 0}};
    rim.insert(rim.end(), arc->begin(), arc->end());
    rim.push_back({0, 60});
    const Polygon moved = withEdgeOut(rim, 1, 5);
    QVERIFY(near(moved[1], {105, 0}));
    for (std::size_t k = 2; k < 2 + arc->size(); ++k)
      QVERIFY(near(moved[k], rim[k] + Vec2(5, 0)));
    QVERIFY(near(moved.back(), {0, 60}) && near(moved.front(), {0, 0}));
    // From the other side of the arc too.
    const Polygon up = withEdgeOut(rim, rim.size() - 2, 5);
    for (std::size_t k = 2; k < 2 + arc->size(); ++k)
      QVERIFY(near(up[k], rim[k] + Vec2(0, 5)));
    QVERIFY(near(up.back(), {0, 65}) && near(up[1], {100, 0}));
  }

  void endsOfLinesFindTheRim() {
    QVERIFY(near(endOnRim(kSheet, {100, 30}, {10, 30}), {100, 30}));
    QVERIFY(near(endOnRim(kSheet, {95, 30}, {10, 30}), {100, 30}));
    QVERIFY(near(endOnRim(kSheet, {120, 30}, {10, 30}), {100, 30}));
    QVERIFY(near(endOnRim(kSheet, {90, 50}, {30, 20}), {100, 55}));
    const Polygon fork = {{0, 0},   {90, 0},  {90, 60}, {60, 60},
                          {60, 20}, {30, 20}, {30, 60}, {0, 60}};
    QVERIFY(near(endOnRim(fork, {58, 40}, {10, 40}), {60, 40})); // not 30, not 90
    QVERIFY(near(endOnRim(fork, {33, 40}, {10, 40}), {30, 40}));
    QVERIFY(near(endOnRim(fork, {88, 40}, {10, 40}), {90, 40}));
  }

  void discsAndRings() {
    const Polygon round = disc({3, 4}, 40);
    QCOMPARE(round.size(), std::size_t(45)); // chords of 8 degrees lie 0.0487 mm off
    for (const Vec2& p : round)
      QVERIFY_NEAR((p - Vec2(3, 4)).norm(), 20, 1e-9);
    QCOMPARE(disc({0, 0}, 2).size(), kLeastDisc);

    const Polygon ring = ringSegment({10, 20}, 5, 15, 90, 60);
    QCOMPARE(ring.size(), std::size_t(8 + 5));
    QVERIFY(near(ring.front(), {10 + 7.5, 20 + 7.5 * std::sqrt(3.0)}));
    QVERIFY(near(ring[7], {10 - 7.5, 20 + 7.5 * std::sqrt(3.0)}));
    QVERIFY(near(ring[8], {10 - 2.5, 20 + 2.5 * std::sqrt(3.0)}));
    QVERIFY(near(ring.back(), {10 + 2.5, 20 + 2.5 * std::sqrt(3.0)}));
    QVERIFY_NEAR(signedArea_mm2(ring), 0.5 * (225 - 25) * kPi / 3, 0.6);
    const Polygon most = ringSegment({0, 0}, 5, 15, 0, 400);
    QVERIFY_NEAR(std::atan2(most.front().y(), most.front().x()), radians(-175), 1e-9);

    const Region room = roomAlong({{0, 0}, {6, 8}}, 2);
    QVERIFY_NEAR(area_mm2(room), 14 * 4, 1e-4);
    QVERIFY(contains(room, {-1, -1}) && contains(room, {7, 9}) && !contains(room, {2, 7}));
  }

  void cornersMoveWithWhatEndsThere() {
    const PieceWork work = sheet(kSheet, {score({40, 0}, {40, 60}), score({0, 0}, {100, 60})});
    const auto moved = withCornerMoved(work, 2, {120, 70});
    QVERIFY(moved);
    QVERIFY(near(moved->outline[2], {120, 70}) && near(moved->outline[3], {0, 60}));
    QVERIFY(near(moved->lines[0].from, {40, 0}) && near(moved->lines[0].to, {40, 60 + 10.0 / 3}));
    QVERIFY(near(moved->lines[1].from, {0, 0}) && near(moved->lines[1].to, {120, 70}));
    const auto higher = withEdgeMoved(work, 2, 10);
    QVERIFY(higher && near(higher->lines[0].to, {40, 70}) && near(higher->lines[0].from, {40, 0}));
    QVERIFY(near(higher->lines[1].to, {100, 70}));
    // Outlines that cross themselves are no paper.
    QVERIFY(!withCornerMoved(sheet(kSheet), 2, {50, -20}));
  }

  void cornersComeAndGo() {
    const PieceWork work = sheet(kSheet);
    const auto more = withCornerAdded(work, 0, {30, 5});
    QVERIFY(more && more->outline.size() == 5 && near(more->outline[1], {30, 0}));
    const auto last = withCornerAdded(work, 3, {-2, 15});
    QVERIFY(last && near(last->outline.back(), {0, 15}));
    const auto less = withCornerRemoved(*more, 1);
    QVERIFY(less && same(less->outline, kSheet));
  }

  void cornersAreCut() {
    const PieceWork work = sheet(kSheet);
    const auto snipped = withCornerCut(work, 2, CornerCut::Snip, 10);
    QVERIFY(snipped && same(snipped->outline, {{0, 0}, {100, 0}, {100, 50}, {90, 60}, {0, 60}}));
    QCOMPARE(withCornerCut(work, 2, CornerCut::Round, 10)->outline.size(), std::size_t(3 + 9));
    QCOMPARE(codeOf(withCornerCut(work, 2, CornerCut::Snip, 70)), std::string("sheet.radius"));
    QCOMPARE(codeOf(withCornerCut(work, 2, CornerCut::Round, 31)), std::string("sheet.radius"));

    for (const Polygon& rim : {kSheet, turned(kSheet)}) {
      const auto soft = withRoundCorners(sheet(rim), 10);
      QVERIFY(soft && soft->outline.size() == 4 * 9);
      QVERIFY_NEAR(std::abs(signedArea_mm2(soft->outline)), 6000 - (4 - kPi) * 100, 2.1);
    }
    QCOMPARE(withRoundCorners(sheet(kAngle), 5)->outline.size(),
             5 * roundedCorner(kAngle, 0, 5)->size() + 1); // the hollow corner stays
    QCOMPARE(codeOf(withRoundCorners(work, 31)), std::string("sheet.radius"));
  }

  void edgesOfASide() {
    const PieceWork work = sheet(kSheet);
    QVERIFY(edgeOnSide(work.outline, SheetEdge::Bottom) == 0u &&
            edgeOnSide(work.outline, SheetEdge::Right) == 1u);
    QVERIFY(edgeOnSide(work.outline, SheetEdge::Top) == 2u &&
            edgeOnSide(work.outline, SheetEdge::Left) == 3u);
    const PieceWork parted = sheet({{0, 0}, {30, 0}, {100, 0}, {100, 60}, {0, 60}});
    QVERIFY(edgeOnSide(parted.outline, SheetEdge::Bottom) == 1u);
    QVERIFY(!edgeOnSide({{0, 0}, {100, 0}, {50, 50}}, SheetEdge::Top));
    QVERIFY_NEAR(widthAt_mm(work, 1), 100, 1e-9);
    QVERIFY_NEAR(widthAt_mm(work, 2), 60, 1e-9);
    QVERIFY_NEAR(widthAt_mm(sheet(kTrapezoid), 2), 40, 1e-9);
    QVERIFY(cornerAt(work, {99, 1}, 3) == 1u && !cornerAt(work, {50, 30}, 3));
    QVERIFY(!cornerAt(work, {97, 0}, 3) && cornerAt(work, {97.1, 0}, 3) == 1u);
    QVERIFY(edgeAt(work, {50, 2}, 3) == 0u && !edgeAt(work, {50, 10}, 3));
    QVERIFY(edgeAt(work, {99, 58}, 3) == 1u);
  }

  void tabsAreAdded() {
    const PieceWork work = sheet(kSheet);
    const auto tab = withTab(work, 1, 12, WorkLine::Kind::Mountain, 45);
    QVERIFY(tab);
    QVERIFY(same(tab->outline, {{0, 0}, {100, 0}, {112, 12}, {112, 48}, {100, 60}, {0, 60}}));
    QCOMPARE(tab->lines.size(), std::size_t(1));
    QVERIFY(tab->lines[0].kind == WorkLine::Kind::Mountain);
    QVERIFY(near(tab->lines[0].from, {100, 0}) && near(tab->lines[0].to, {100, 60}));
    QVERIFY(withTab(work, 1, 29.4, WorkLine::Kind::Valley, 45));
    QCOMPARE(codeOf(withTab(work, 1, 29.6, WorkLine::Kind::Valley, 45)),
             std::string("sheet.tab-deep"));
    QCOMPARE(codeOf(withTab(work, 1, 0, WorkLine::Kind::Valley, 20)),
             std::string("sheet.tab-deep"));
  }

  /// So much off one side: lines end at the new edge, what was on the rest is gone.
  void sidesAreTrimmed() {
    PieceWork work = sheet(kSheet, {score({30, 0}, {30, 60}), score({0, 50}, {100, 50}),
                                    score({0, 20}, {100, 20}), score({10, 52}, {20, 58})});
    work.windows = {rectangle({60, 30}, {80, 55}), rectangle({40, 53}, {45, 57})};
    const auto top = withTrimmed(work, SheetEdge::Top, 10, -1e4, 1e4);
    QVERIFY(top);
    // The first opening is open to the top now, the second is gone, with the score on the edge and
    // the one beyond it.
    QVERIFY_NEAR(std::abs(signedArea_mm2(top->outline)), 100 * 50 - 20 * 20, 1e-9);
    QVERIFY(top->windows.empty());
    QCOMPARE(top->lines.size(), std::size_t(2));
    QVERIFY(near(top->lines[0].to, {30, 50}) && near(top->lines[1].to, {100, 20}));
    // As far as the score.
    work.windows.clear(), work.lines.pop_back();
    const auto corner = withTrimmed(work, SheetEdge::Top, 10, -1e4, 30);
    QVERIFY(corner && corner->outline.size() == 6);
    for (const Vec2& at : {Vec2(0, 50), Vec2(30, 50), Vec2(30, 60), Vec2(100, 60)})
      QVERIFY(std::ranges::any_of(corner->outline, [&](const Vec2& c) { return c == at; }));
    // The score stops where it would run along the edge, the level one begins there.
    QVERIFY(near(corner->lines[0].to, {30, 50}));
    QVERIFY(near(corner->lines[1].from, {30, 50}) && near(corner->lines[1].to, {100, 50}));
    QCOMPARE(codeOf(withTrimmed(work, SheetEdge::Top, 60, -1e4, 1e4)),
             std::string("sheet.trim-apart"));
    QCOMPARE(codeOf(withTrimmed(work, SheetEdge::Left, 10, 70, 80)),
             std::string("sheet.trim-nothing"));
    QVERIFY_NEAR(std::abs(signedArea_mm2(withTrimmed(work, SheetEdge::Left, 10, 20, 50)->outline)),
                 6000 - 300, 1e-9);
    work.joints.push_back({{50, 58}, "card/page-a", {10, 10}, given::Glue(), {}});
    QCOMPARE(codeOf(withTrimmed(work, SheetEdge::Top, 10, 40, 60)),
             std::string("sheet.trim-joint"));
    QVERIFY(withTrimmed(work, SheetEdge::Top, 10, 60, 100));
  }
  /// In words, in inches, on sheets of any size: what is left is what was there less the strip.
  void trimmedInWords() {
    std::mt19937 chance(5);
    const auto sixteenths = [&](int least, int most) {
      return static_cast<int>(std::uniform_int_distribution(least, most)(chance));
    };
    const auto inches = [](int of) { return exactLength(of * 25.4 / 16, LengthUnit::Inch); };
    const char* const sides[] = {"left", "right", "bottom", "top"};
    for (int n = 0; n < 60; ++n) {
      const int wide = sixteenths(32, 160), high = sixteenths(32, 160), side = n % 4;
      const int across = side < 2 ? wide : high, depth = sixteenths(1, across - 1);
      const auto made =
          workedBy({},
                   fmt::format("size {} x {}; score {} v; trim {} {}", inches(wide), inches(high),
                               inches(wide / 2), sides[side], inches(depth)),
                   LengthUnit::Inch);
      QVERIFY2(made.ok(), made ? "" : hinge::say(made.error()).c_str());
      const double inch2 = 25.4 * 25.4 / 256;
      const int along = side < 2 ? high : wide;
      QVERIFY_NEAR(std::abs(signedArea_mm2(made->work.outline)),
                   (wide * high - depth * along) * inch2, 1e-6);
      for (const WorkLine& line : made->work.lines)
        QVERIFY(distanceToOutline(made->work.outline, line.from) < 1e-9 &&
                distanceToOutline(made->work.outline, line.to) < 1e-9);
      // Written and read again it is the same sheet.
      const auto sentences = sentencesOf(*made, LengthUnit::Inch);
      const auto again =
          workedBy({}, fmt::format("{}", fmt::join(sentences, "; ")), LengthUnit::Inch);
      QVERIFY(again && sentencesOf(*again, LengthUnit::Inch) == sentences);
    }
  }

  void pointsSnap() {
    PieceWork work = sheet(kSheet, {score({30, 0}, {30, 60}), score({0, 20}, {100, 20})});
    work.windows = {rectangle({60, 30}, {80, 50})};
    Snapping how;
    isSnapped(snappedPoint(work, {1, 1.2}, how), {0, 0}, SnapTo::Corner);
    isSnapped(snappedPoint(work, {61, 31}, how), {60, 30}, SnapTo::Corner);
    isSnapped(snappedPoint(work, {30.5, 1}, how), {30, 0}, SnapTo::End);
    isSnapped(snappedPoint(work, {30.7, 20.9}, how), {30, 20}, SnapTo::Crossing);
    isSnapped(snappedPoint(work, {51, 59.2}, how), {50, 60}, SnapTo::Middle);
    isSnapped(snappedPoint(work, {30.4, 30.5}, how), {30, 30}, SnapTo::Middle);
    isSnapped(snappedPoint(work, {70.3, 0.8}, how), {70.5, 0}, SnapTo::Rim);
    isSnapped(snappedPoint(work, {0.9, 40.2}, how), {0, 40}, SnapTo::Rim);
    isSnapped(snappedPoint(work, {75.3, 20.8}, how), {75.5, 20}, SnapTo::Line);
    isSnapped(snappedPoint(work, {90.3, 40.2}, how), {90.5, 40}, SnapTo::Lattice);
    how.line = 1; // the one that is moved is no help
    isSnapped(snappedPoint(work, {75.3, 20.8}, how), {75.5, 21}, SnapTo::Lattice);
    how.lattice_mm = 0;
    isSnapped(snappedPoint(work, {90.3, 40.2}, how), {90.3, 40.2}, SnapTo::Free);
    isSnapped(snappedPoint(work, {70.3, 0.8}, how), {70.3, 0}, SnapTo::Rim);
    // The lattice is counted from the sheet's lower left corner.
    isSnapped(snappedPoint(sheet(rectangle({0.2, 0.3}, {100.2, 60.3})), {70.3, 40.2}, {}),
              {70.2, 40.3}, SnapTo::Lattice);
  }

  void linesRunParallel() {
    const PieceWork work = sheet(kSheet, {score({0, 0}, {60, 60})});
    const auto level = snappedParallel(work, {10, 10}, {40.2, 11}, {});
    QVERIFY(level && near(*level, {40, 10}));
    const auto upright = snappedParallel(work, {10, 10}, {8.5, 35.3}, {});
    QVERIFY(upright && near(*upright, {10, 35.5}));
    const auto slanted = snappedParallel(work, {10, 10}, {40, 40.7}, {});
    QVERIFY(slanted && near(*slanted, Vec2(10, 10) + 43 / std::sqrt(2.0) * Vec2(1, 1)));
    QVERIFY(!snappedParallel(work, {10, 10}, {20, 15}, {}));
    Snapping alone;
    alone.line = 0;
    QVERIFY(!snappedParallel(work, {10, 10}, {40, 40.7}, alone));
    Snapping free;
    free.lattice_mm = 0;
    QVERIFY(near(*snappedParallel(work, {10, 10}, {40.2, 11}, free), {40.2, 10}));
  }

  void scoresSnapToPlaces() {
    const PieceWork work = sheet(kSheet, {score({30, 0}, {30, 60}), score({0, 20}, {100, 20})});
    isPlaced(snappedPlace(work, 0, 51, {}), 50, SnapTo::Middle);
    isPlaced(snappedPlace(work, 0, 71, {}), 70, SnapTo::Twin);
    isPlaced(snappedPlace(work, 0, 60.8, {}), 60, SnapTo::EqualStep);
    isPlaced(snappedPlace(work, 1, 40.5, {}), 40, SnapTo::Twin);
    isPlaced(snappedPlace(work, 0, 42.3, {}), 42.5, SnapTo::Lattice);
    isPlaced(snappedPlace(work, 0, 1.1, {}), 1, SnapTo::Lattice); // none stands on the rim
    isPlaced(snappedPlace(work, 0, 99.2, {}), 99, SnapTo::Lattice);
    Snapping moving;
    moving.line = 0, moving.lattice_mm = 0;
    isPlaced(snappedPlace(work, 0, 70.7, moving), 70.7, SnapTo::Free);
    isPlaced(snappedPlace(sheet(kAngle), 0, 29, {}), 30, SnapTo::Corner);
  }
  void theLongestOfTheOutermostEdgesIsMeant() {
    // A step in the middle of every side parts it into a long edge and a short one, either first.
    PieceWork work;
    work.outline = {{0, 0},   {70, 0},  {70, 4},   {80, 4},   {80, 0},  {100, 0}, {100, 15},
                    {96, 15}, {96, 25}, {100, 25}, {100, 80}, {90, 80}, {90, 76}, {60, 76},
                    {60, 80}, {0, 80},  {0, 70},   {4, 70},   {4, 60},  {0, 60}};
    const std::pair<SheetEdge, Edge> sides[] = {{SheetEdge::Bottom, {{0, 0}, {70, 0}}},
                                                {SheetEdge::Right, {{100, 25}, {100, 80}}},
                                                {SheetEdge::Top, {{60, 80}, {0, 80}}},
                                                {SheetEdge::Left, {{0, 60}, {0, 0}}}};
    const std::vector<Edge> edges = edgesOf(work.outline);
    for (const auto& [side, meant] : sides) {
      const auto found = edgeOnSide(work.outline, side);
      QVERIFY(found && edges[*found] == meant);
    }
    // A point is no edge.
    work.outline = {{0, 0}, {50, 0}, {25, 40}};
    QVERIFY(!edgeOnSide(work.outline, SheetEdge::Top) &&
            edgeOnSide(work.outline, SheetEdge::Bottom) == 0U);
  }
};

QTEST_APPLESS_MAIN(TestOutlines)
#include "test_outlines.moc"
