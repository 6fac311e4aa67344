// SPDX-License-Identifier: GPL-3.0-or-later
#include "strips.h"
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/arrange.h"
#include "core/edits/solve_piece.h"
#include "core/edits/wrap_round.h"
#include "core/geom/subdivision.h"
#include "core/io/design_json.h"
#include "core/pieces/pocket.h"
#include "core/pieces/wrap.h"
#include "core/production/flat_piece.h"
#include "core/structures/closure.h"
#include "core/structures/names.h"
#include "core/structures/piece.h"
#include "core/structures/registry.h"
#include <random>
#endif

using namespace hinge;
using namespace hinge::test;

// Free pieces: what is worked into them, how they are joined, and that the engine puts them
// together as closed forms say.

namespace {

using Kind = WorkLine::Kind;

/// The first joint of a kind.
template <class Kind> const Kind& only(const Assembly& assembly) {
  return (*assembly.every<Kind>().begin()).joint;
}

Motion trace(const Design& design) {
  return Motion::trace(assemble(design));
}

} // namespace

class TestPieces : public QObject {
  Q_OBJECT
private slots:
  // --- lines across a sheet
  // ----------------------------------------------------------------------------------------------
  void crossingLinesPartASheetIntoFaces() {
    const Polygon square{{0, 0}, {10, 0}, {10, 10}, {0, 10}};
    const Subdivision parts = subdivide(square, {{{5, 0}, {5, 10}}, {{0, 4}, {10, 4}}});
    QCOMPARE(parts.faces.size(), std::size_t(4));
    QCOMPARE(parts.borders.size(), std::size_t(4));
    double area = 0;
    for (const Region& face : parts.faces)
      area += area_mm2(face);
    QVERIFY_NEAR(area, 100.0, 1e-9);
    for (const auto& border : parts.borders) {
      const Vec2 along = (border.to - border.from).normalized(), left(-along.y(), along.x()),
                 middle = 0.5 * (border.from + border.to);
      QVERIFY(contains(parts.faces[border.left], middle + 0.1 * left));
      QVERIFY(contains(parts.faces[border.right], middle - 0.1 * left));
    }
  }
  void aLineThatEndsInsidePartsNothing() {
    const Subdivision parts = subdivide({{0, 0}, {10, 0}, {10, 10}, {0, 10}}, {{{5, 0}, {5, 6}}});
    QCOMPARE(parts.faces.size(), std::size_t(1));
    QCOMPARE(parts.loose.size(), std::size_t(1));
    QCOMPARE(parts.faces.front().rim.size(), std::size_t(5)); // the foot of the line is a corner
  }
  void aLineFromTheRimToALoopPartsNothing() {
    // A flap of four lines, and one that leads to it from the rim; another between two flaps.
    std::vector<Edge> lines{{{10, 10}, {20, 10}},
                            {{20, 10}, {20, 20}},
                            {{20, 20}, {10, 20}},
                            {{10, 20}, {10, 10}},
                            {{15, 0}, {15, 10}}};
    const Polygon sheet{{0, 0}, {60, 0}, {60, 30}, {0, 30}};
    const Subdivision led = subdivide(sheet, lines);
    QCOMPARE(led.faces.size(), std::size_t(2));
    QCOMPARE(led.loose.size(), std::size_t(1));
    QCOMPARE(led.loose.front().first, std::size_t(4));
    double area = 0;
    for (const Region& face : led.faces)
      area += area_mm2(face);
    QVERIFY_NEAR(area, 1800.0, 1e-9);
    for (const Edge& edge :
         {Edge{{40, 10}, {50, 10}}, Edge{{50, 10}, {50, 20}}, Edge{{50, 20}, {40, 20}},
          Edge{{40, 20}, {40, 10}}, Edge{{20, 15}, {40, 15}}})
      lines.push_back(edge);
    const Subdivision two = subdivide(sheet, lines);
    QCOMPARE(two.faces.size(), std::size_t(3));
    QCOMPARE(two.loose.size(), std::size_t(2));
  }
  void aLoopInsideIsAHoleOfItsFace() {
    // A flap: three cuts and a fold that touch nothing else; within it another, and one beside it.
    const auto loop = [](double x, double y, double w, double h) {
      return std::vector<Edge>{{{x, y}, {x + w, y}},
                               {{x + w, y}, {x + w, y + h}},
                               {{x + w, y + h}, {x, y + h}},
                               {{x, y + h}, {x, y}}};
    };
    std::vector<Edge> lines = loop(10, 10, 30, 20);
    for (const Edge& edge : loop(15, 15, 5, 5))
      lines.push_back(edge);
    for (const Edge& edge : loop(60, 10, 10, 10))
      lines.push_back(edge);
    const Subdivision parts = subdivide({{0, 0}, {100, 0}, {100, 50}, {0, 50}}, lines);
    QCOMPARE(parts.faces.size(), std::size_t(4));
    double area = 0;
    std::size_t holes = 0;
    for (const Region& face : parts.faces)
      area += area_mm2(face), holes += face.holes.size();
    QVERIFY_NEAR(area, 5000.0, 1e-9);
    QCOMPARE(holes, std::size_t(3));
    QCOMPARE(parts.borders.size(), std::size_t(12));
    for (const auto& border : parts.borders) {
      const Vec2 along = (border.to - border.from).normalized(), left(-along.y(), along.x()),
                 middle = 0.5 * (border.from + border.to);
      QVERIFY(contains(parts.faces[border.left], middle + 0.1 * left));
      QVERIFY(contains(parts.faces[border.right], middle - 0.1 * left));
    }
  }
  void facesComeFromLeftToRight() {
    const Subdivision parts =
        subdivide({{0, 0}, {30, 0}, {30, 5}, {0, 5}}, {{{20, 0}, {20, 5}}, {{10, 0}, {12, 5}}});
    QCOMPARE(parts.faces.size(), std::size_t(3));
    for (std::size_t k = 1; k < 3; ++k)
      QVERIFY(centroidOf(parts.faces[k]).x() > centroidOf(parts.faces[k - 1]).x());
  }
  void manyRandomLinesKeepTheWholeArea() {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> at(0, 100);
    for (int round = 0; round < 40; ++round) {
      std::vector<Edge> lines;
      for (int k = 0; k < 6; ++k)
        lines.push_back({{at(random), 0}, {at(random), 60}});
      const Subdivision parts = subdivide({{0, 0}, {100, 0}, {100, 60}, {0, 60}}, lines);
      double area = 0;
      for (const Region& face : parts.faces)
        area += area_mm2(face);
      QVERIFY_NEAR(area, 6000.0, 1e-6);
      // Euler: faces = 1 + lines + inner crossings.
      int crossings = 0;
      for (std::size_t i = 0; i < 6; ++i)
        for (std::size_t j = i + 1; j < 6; ++j)
          crossings += (lines[i].first.x() - lines[j].first.x()) *
                           (lines[i].second.x() - lines[j].second.x()) <
                       0;
      QCOMPARE(parts.faces.size(), static_cast<std::size_t>(7 + crossings));
    }
  }

  // --- the strip as makers think of it
  // ------------------------------------------------------------------------------------
  void scoresReadFromTheLeftEnd() {
    const PieceWork work =
        strip({10, 25.4, 30, 8}, 20, {Kind::Mountain, Kind::Valley, Kind::Mountain});
    const auto marks = scoreMarks(work);
    QCOMPARE(marks.size(), std::size_t(3));
    QVERIFY_NEAR(marks[1].low_mm, 35.4, 1e-12);
    const auto widths = panelWidths_mm(work);
    QCOMPARE(widths.size(), std::size_t(4));
    QVERIFY_NEAR(widths[3], 8.0, 1e-12);
  }
  void panelsAreReadInTheirMiddlesBetweenSlantedScores() {
    // One score leans from 20 to 30, the other from 50 to 54.
    PieceWork work = plainStrip(80, 40);
    work.lines.push_back({Kind::Mountain, {20, 0}, {30, 40}});
    work.lines.push_back({Kind::Valley, {50, 0}, {54, 40}});
    const auto points = panelPoints(work);
    QCOMPARE(points.size(), std::size_t(3));
    // All at half height: the scores stand at 25 and 52 there.
    QVERIFY_NEAR((points[0] - Vec2(12.5, 20)).norm(), 0.0, 1e-12);
    QVERIFY_NEAR((points[1] - Vec2(38.5, 20)).norm(), 0.0, 1e-12);
    QVERIFY_NEAR((points[2] - Vec2(66, 20)).norm(), 0.0, 1e-12);
    // On a sheet whose lower edge is stepped a score begins higher: its neighbour is read up there.
    PieceWork stepped = work;
    stepped.lines[0].from = {22.5, 10};
    stepped.outline = {{0, 10}, {40, 10}, {40, 0}, {80, 0}, {80, 40}, {0, 40}};
    const auto higher = panelPoints(stepped);
    QCOMPARE(higher.size(), std::size_t(3));
    QVERIFY_NEAR((higher[1] - Vec2(0.5 * (26.25 + 52.5), 25)).norm(), 0.0, 1e-12);
  }
  void aMovedScoreCarriesWhatLiesBeyondItOrNot() {
    PieceWork work = strip({10, 20, 20, 10}, 20, {Kind::Mountain, Kind::Valley, Kind::Mountain});
    work.joints.push_back({.at = {55, 10}, .on = "card/page-b"});
    const auto carried = withScoreMoved(work, 1, 35, true);
    QVERIFY(carried.ok());
    QVERIFY_NEAR(boundsOf(carried->outline).size().x(), 65.0, 1e-12);
    QVERIFY_NEAR(carried->joints[0].at.x(), 60.0, 1e-12);
    QVERIFY_NEAR(scoreMarks(*carried)[2].low_mm, 55.0, 1e-12);
    const auto alone = withScoreMoved(work, 1, 35, false);
    QVERIFY_NEAR(boundsOf(alone->outline).size().x(), 60.0, 1e-12);
    QVERIFY_NEAR(scoreMarks(*alone)[2].low_mm, 50.0, 1e-12);
    QVERIFY(!withScoreMoved(work, 1, 5, false).ok()); // past its neighbour
    QVERIFY(!withScoreMoved(work, 9, 5, false).ok()); // no such score
  }
  void aSlantedScoreStaysSlantedWhenItMoves() {
    PieceWork work = strip({10, 20, 30}, 20, {Kind::Mountain, Kind::Valley});
    work.lines[1].to.x() += 6;
    const auto moved = withScoreMoved(work, 1, 40, false);
    QVERIFY(moved.ok());
    QVERIFY_NEAR(scoreMarks(*moved)[1].high_mm - scoreMarks(*moved)[1].low_mm, 6.0, 1e-12);
  }
  void aTypedListMakesAndTakesAwayScores() {
    const PieceWork work = strip({10, 20, 30}, 20, {Kind::Mountain, Kind::Valley});
    const auto more = withScores(work, {12, 30, 44, 52});
    QVERIFY(more.ok());
    QCOMPARE(more->lines.size(), std::size_t(4));
    QVERIFY(more->lines[0].kind == Kind::Mountain && more->lines[1].kind == Kind::Valley &&
            more->lines[2].kind == Kind::Mountain && more->lines[3].kind == Kind::Valley);
    // A list takes its marks with it, and keeps those it says nothing of.
    const auto marked = withScores(work, {{12, Kind::Valley}, 30, 44, {52, Kind::Mountain}, 56});
    const auto kinds = [](const PieceWork& w) {
      std::vector<Kind> all;
      for (const ScoreMark& mark : scoreMarks(w))
        all.push_back(w.lines[mark.line].kind);
      return all;
    };
    const auto before = kinds(work), after = kinds(*marked);
    QCOMPARE(after.size(), std::size_t(5));
    QVERIFY(after[0] == Kind::Valley && after[3] == Kind::Mountain && after[4] == Kind::Valley);
    for (std::size_t k = 1; k < before.size(); ++k)
      QVERIFY(after[k] == before[k]);
    const auto fewer = withScores(*more, {12});
    QCOMPARE(fewer->lines.size(), std::size_t(1));
    QVERIFY(!withScores(work, {20, 10}).ok());
    QVERIFY(!withScores(work, {20, 400}).ok());
  }
  void theMirrorImageOfTheMirrorImageIsThePiece() {
    PieceWork work = strip({10, 20, 30}, 20, {Kind::Mountain, Kind::Valley});
    work.lines[1].to.x() += 5;
    work.joints.push_back({{5, 10}, "card/page-a", {0, 0}, given::Glue{30, false}});
    work.joints.push_back({{6, 10}, "card/page-a", {0, 0}, given::Slot{20, 70, 0, 0, 0}});
    QVERIFY(mirrored(mirrored(work)) == work);
    QVERIFY_NEAR(scoreMarks(mirrored(work))[0].low_mm, 30.0, 1e-12);
  }
  void panelWidthsAreParametersOfThePiece() {
    const Design d = overGutter(40, 40, 50, 50);
    QVERIFY_NEAR(d.structures[0].values.find("panel-2")->second, 50.0, 1e-12);
    const auto wider = setValues(d, StructureId{1}, {{"panel-2", 60}});
    QVERIFY(wider.ok());
    QVERIFY_NEAR(scoreMarks(*wider->structures[0].work)[1].low_mm, 68.0, 1e-12);
    QVERIFY_NEAR(wider->structures[0].values.find("panel-2")->second, 60.0, 1e-12);
    QVERIFY(!setValues(d, StructureId{1}, {{"panel-9", 20}}).ok());
    QVERIFY(!setValues(d, StructureId{1}, {{"panel-2", -3}}).ok());
    const auto last = setValues(d, StructureId{1}, {{"panel-4", 12}});
    QVERIFY(last.ok());
    QVERIFY_NEAR(boundsOf(last->structures[0].work->outline).size().x(), 120.0, 1e-12);
  }

  // --- motion against closed forms
  // ----------------------------------------------------------------------------------------
  void aStripOverTheGutterIsTheBoxOfTheSameSizes_data() {
    QTest::addColumn<double>("a");
    QTest::addColumn<double>("b");
    QTest::addColumn<double>("c");
    QTest::addColumn<double>("d");
    QTest::newRow("alike") << 40.0 << 40.0 << 52.0 << 52.0;
    QTest::newRow("leaning") << 30.0 << 50.0 << 60.0 << 40.0;
  }
  void aStripOverTheGutterIsTheBoxOfTheSameSizes() {
    QFETCH(double, a);
    QFETCH(double, b);
    QFETCH(double, c);
    QFETCH(double, d);
    const Motion piece = trace(overGutter(a, b, c, d));
    for (double deg = 5; deg < 176; deg += 10) {
      const Pose pose = piece.poseAt(radians(deg));
      const Vec3 crease = worldPoint(piece, pose, "s1/panel-2", {8 + c, 0});
      // Planar four-bar, kinematics b: the intersection of two circles away from the gutter.
      const double t = radians(deg), S = std::sin(t / 2), C = std::cos(t / 2);
      const Vec2 A0(-a * S, a * C), B0(b * S, b * C);
      const double D = (B0 - A0).norm(), u = D / 2 + (c - d) * (c + d) / (2 * D),
                   h = std::sqrt(c * c - u * u);
      const Vec2 e = (B0 - A0) / D, n(-e.y(), e.x());
      const Vec2 Q = A0 + u * e + h * n;
      QVERIFY_NEAR(crease.x(), Q.x(), 1e-6);
      QVERIFY_NEAR(crease.z(), Q.y(), 1e-6);
      QVERIFY_NEAR(crease.y(), 40.0, 1e-6); // glued at 60 in the middle of its height
    }
    QVERIFY_NEAR(piece.low_rad(), 0.0, 1e-12);
    QCOMPARE(piece.mobility(), 0);
  }
  void whatIsCutAlongAScoreIsCutOff() {
    const Design d = overGutter(40, 40, 50, 50);
    const WorkLine score = d.structures[0].work->lines[1]; // in the middle, 40 mm long
    const auto cutTo = [&](double height) {
      Design cut = d;
      cut.structures[0].work->lines.push_back(
          {Kind::Cut, score.from, Vec2(score.from.x(), height)});
      return assembleDesign(cut);
    };
    QCOMPARE(cutTo(40).error().message.key, std::string("work.in-two"));
    const auto half = cutTo(25);
    QVERIFY(half.ok());
    double folded = 0;
    for (const Fold& fold : half->folds)
      if (std::abs(fold.from.x() - score.from.x()) < 1e-9) folded += (fold.to - fold.from).norm();
    QVERIFY_NEAR(folded, 15, 1e-9);
  }
  void aStripThatIsOutOfStepJamsWhereTheFormulaSays() {
    // Defect 0.5: 4ab sin^2(t/2) = (c-d)^2 - (a-b)^2, kinematics b: 0.7162 degrees.
    const Design d = overGutter(40, 40, 50, 50.5);
    const Motion motion = trace(d);
    QVERIFY_NEAR(degrees(motion.low_rad()), 0.7162, 2e-3);
    const Analysis analysis = checked(d, true);
    const Finding* f = findCode(analysis, "shut-flat");
    QVERIFY(f);
    QVERIFY_NEAR(f->amount, 0.5, 1e-5);
    QCOMPARE(f->detail.key, std::string("jams"));
    QVERIFY(f->mend.has_value());
    const auto mended = applyMend(d, *f->mend);
    QVERIFY(mended.ok());
    QVERIFY(!findCode(checked(*mended), "shut-flat"));
    QVERIFY_NEAR(shutGap_mm(StructureId{1}, trace(*mended)), 0.0, 1e-9);
  }
  void randomStripsAreRigidClosedAndOutOfStepByTheirDefect() {
    std::mt19937 random(11);
    std::uniform_real_distribution<double> foot(18, 60), wall(20, 80);
    int exact = 0, off = 0;
    for (int round = 0; round < 120; ++round) {
      const double a = foot(random), b = foot(random), c = wall(random),
                   d = round % 2 ? a + c - b : wall(random);
      if (d < 5 || c + d < std::abs(a - b) + 2) continue;
      const Motion motion = trace(overGutter(a, b, c, d));
      if (!motion.impossible().empty()) continue;
      const double gap = shutGap_mm(StructureId{1}, motion), defect = std::abs(a + c - b - d);
      // Mountain marks choose the branch away from the gutter: its condition is a + c = b + d.
      if (round % 2) {
        QVERIFY2(gap < 1e-6, fmt::format("{} {} {} {}: {}", a, b, c, d, gap).c_str());
        ++exact;
      } else if (motion.blocks().front().low_rad > 0) {
        // Or what is nearer: panels folded the other way along the pages.
        double nearest = defect;
        for (double s : {-1.0, 1.0})
          for (double r : {-1.0, 1.0})
            nearest = std::min(nearest, std::abs(a + s * c - b - r * d));
        QVERIFY2(std::abs(gap - nearest) < 1e-6,
                 fmt::format("{} {} {} {}: {} against {}", a, b, c, d, gap, nearest).c_str());
        ++off;
      }
      for (double t : motion.nodeOpenings())
        QVERIFY(motion.poseAt(t).residual_mm < 1e-6 + 2 * motion.blocks().front().gap_mm);
    }
    QVERIFY(exact > 30 && off > 10);
  }
  void aScoreThatWasMovedIsMovedBack() {
    const Design good = demo("steps-in-the-fold");
    const PieceWork& work = *good.structures[0].work;
    const auto moved = withScoreMoved(work, scoreMarks(work)[2].line, 72, false);
    const auto bad = setWork(good, StructureId{1}, *moved);
    const auto mend = solveShut(*bad, trace(*bad), StructureId{1});
    QVERIFY(mend.has_value());
    const auto mended = applyMend(*bad, *mend);
    QVERIFY(mended.ok());
    for (const Finding& f : checked(*mended).findings)
      QVERIFY2(f.severity != Severity::Spoils, describe(f, *mended).c_str());
    QVERIFY_NEAR(scoreMarks(*mended->structures[0].work)[2].low_mm, 66.0, 1e-6);
  }
  void aSlotTurnsAboutTheCommonLineAtOneDistanceFromBothCreases() {
    const Design d = demo("lamp-lattice");
    const Motion motion = trace(d);
    // Both sheets: the slot stays 28 mm from the crease of either, and both panels share the line.
    for (double deg : {10.0, 60.0, 120.0, 170.0}) {
      const Pose pose = motion.poseAt(radians(deg));
      const Slot& slot = only<Slot>(motion.assembly());
      const Iso3 a = pose.panels[slot.first] * slot.onFirst,
                 b = pose.panels[slot.second] * slot.onSecond;
      QVERIFY_NEAR((a.translation() - b.translation()).norm(), 0.0, 1e-7);
      QVERIFY_NEAR(a.linear().col(1).dot(b.linear().col(1)), 1.0, 1e-9);
      // A rhombus of sides 28: both sheets are folded alike.
      const auto bend = [&](const char* left, const char* right) {
        const Vec3 u = pose.panels[motion.assembly().findPanel(left)].linear().col(0),
                   v = pose.panels[motion.assembly().findPanel(right)].linear().col(0);
        return std::acos(std::clamp(u.dot(v), -1.0, 1.0));
      };
      QVERIFY_NEAR(bend("s1/panel-2", "s1/panel-3"), bend("s2/panel-1", "s2/panel-2"), 1e-7);
    }
    QCOMPARE(motion.mobility(), 0);
  }
  void aStrapPullsASlideAsTheCosineRuleSays() {
    const Design d = demo("ferry-pass");
    const Motion motion = trace(d);
    const double a = 10, s = 60; // foot of the strap on the flap, its length
    for (double deg : {1.0, 40.0, 90.0, 150.0, 179.0}) {
      const Pose pose = motion.poseAt(radians(deg));
      const Slide& slide = only<Slide>(motion.assembly());
      const double way = ((pose.panels[slide.first] * slide.onFirst).inverse() *
                          pose.panels[slide.second] * slide.onSecond)
                             .translation()
                             .y();
      const double t = radians(deg),
                   foot = a * std::cos(t) + std::sqrt(s * s - a * a * std::sin(t) * std::sin(t));
      QVERIFY_NEAR(way, foot - 50, 1e-6); // the strap meets the insert at 50 when the slide is at 0
    }
  }
  void limbsTurnOnTheirPivotsAsTheirLinksSay() {
    const Design d = demo("waving-boatmen");
    const Motion motion = trace(d);
    const Assembly& assembly = motion.assembly();
    double first = 0, last = 0;
    for (double deg : {90.0, 130.0, 160.0, 180.0}) {
      const Pose pose = motion.poseAt(radians(deg));
      for (const auto& [j, h] : assembly.every<Pivot>()) {
        const Iso3 between =
            (pose.panels[h.first] * h.onFirst).inverse() * pose.panels[h.second] * h.onSecond;
        QVERIFY_NEAR(between.translation().norm(), 0.0, 1e-7); // the pin holds
        QVERIFY_NEAR(between.linear()(1, 1), 1.0, 1e-9);       // in the plane
      }
      const Vec3 arm = pose.panels[assembly.findPanel("card/page-b")].linear().transpose() *
                       pose.panels[assembly.findPanel("s2/panel-1")].linear().col(1);
      (deg == 90 ? first : last) = std::atan2(arm.y(), arm.x());
    }
    QVERIFY2(std::abs(last - first) > radians(20), "the pull waves the arm");
    QCOMPARE(motion.mobility(), 0);
  }
  void pullsHaveTheRestOfTheLeaf() {
    const Design d = demo("waving-boatmen"); // the card is open at 120 of the leaf's 180 degrees
    const Motion motion = trace(d);
    const Assembly& a = motion.assembly();
    const auto between = [&](double deg) {
      const Pose pose = motion.poseAt(radians(deg));
      const Vec3 pageA = pose.panels[a.findPanel("card/page-a")].linear() * Vec3(-1, 0, 0),
                 pageB = pose.panels[a.findPanel("card/page-b")].linear() * Vec3(1, 0, 0);
      return degrees(std::acos(std::clamp(pageA.dot(pageB), -1.0, 1.0)));
    };
    QVERIFY_NEAR(between(60), 90.0, 1e-6);
    for (double deg : {120.0, 150.0, 180.0})
      QVERIFY_NEAR(between(deg), 180.0, 1e-5);
    const Slide& slide = only<Slide>(a);
    QVERIFY(slide.pull);
    for (const auto& [deg, way] :
         {std::pair{40.0, 0.0}, {120.0, 0.0}, {150.0, 9.0}, {180.0, 18.0}}) {
      const Pose pose = motion.poseAt(radians(deg));
      QVERIFY_NEAR(((pose.panels[slide.first] * slide.onFirst).inverse() *
                    pose.panels[slide.second] * slide.onSecond)
                       .translation()
                       .y(),
                   way, 1e-7);
    }
    QCOMPARE(say(openingText(d.card, radians(60))), std::string("90°"));
    QCOMPARE(say(openingText(d.card, radians(150))), std::string("180° and pulled 50 %"));
    QVERIFY(designFromJson(designToJson(d))->card.openBy_deg == 120);
    Design wrong = d;
    wrong.card.openBy_deg = 10;
    QCOMPARE(assembleDesign(wrong).error().code(), std::string("card.open-by"));
  }
  void whatStandsOnTheGutterIsTheSameOnAShorterLeaf() {
    Design d = card(130, 180);
    add(d, "box", "gutter");
    const Motion plain = trace(d);
    d.card.openBy_deg = 90;
    const Motion quick = trace(d);
    const PanelIndex wall = plain.assembly().findPanel("s1/wall-a");
    QVERIFY(wall.valid());
    for (double deg : {20.0, 50.0, 80.0})
      QVERIFY((plain.poseAt(radians(2 * deg)).panels[wall].matrix() -
               quick.poseAt(radians(deg)).panels[wall].matrix())
                  .norm() < 1e-6);
    QVERIFY(checked(d).findings.empty());
  }
  void halfShellsRiseAsASarrusLinkage() {
    const Design d = demo("pop-up-lantern");
    const Motion motion = trace(d);
    for (double deg : {30.0, 90.0, 180.0}) {
      const Pose pose = motion.poseAt(radians(deg));
      const Iso3 low = pose.panels[motion.assembly().findPanel("card/page-b")];
      const PanelIndex top = [&] {
        for (PanelIndex p : motion.assembly().panels.indices())
          if (motion.assembly().panels[p].owner &&
              area_mm2(motion.assembly().panels[p].outline) > 5000)
            return p;
        return PanelIndex();
      }();
      QVERIFY(top.valid());
      // Parallel, straight above, at twice the height of a petal: 2 * 24 * sin(fold angle).
      const double bend = radians(60.0 * deg / 180.0);
      QVERIFY_NEAR(std::abs(low.linear().col(2).dot(pose.panels[top].linear().col(2))), 1.0, 1e-9);
      const Vec3 apart = low.inverse() * (pose.panels[top] *
                                          lift(centroidOf(motion.assembly().panels[top].outline)));
      QVERIFY_NEAR(apart.z(), 2 * 24 * std::sin(bend), 1e-6);
    }
  }
  void aLooseStripIsPutTogetherAgainWithItsBraces() {
    Design d = demo("steps-in-the-fold");
    QCOMPARE(trace(d).mobility(), 0);
    d = *removeStructure(d, StructureId{3});
    const Analysis one = checked(d);
    QVERIFY(findCode(one, "floppy"));
    QVERIFY_NEAR(findCode(one, "floppy")->amount, 1.0, 1e-12);
    d = *removeStructure(d, StructureId{2});
    QVERIFY_NEAR(findCode(checked(d), "floppy")->amount, 2.0, 1e-12);
    QVERIFY2(!findCode(checked(d), "shut-flat"),
             "where a loose piece comes to lie says nothing of its sizes");
  }
  void puttingTogetherIsTheSameEveryTime() {
    const Design d = demo("steps-in-the-fold");
    const Motion first = trace(d), second = trace(d);
    const Pose a = first.poseAt(1.0), b = second.poseAt(1.0);
    for (PanelIndex p : first.assembly().panels.indices())
      QVERIFY_NEAR((a.panels[p].matrix() - b.panels[p].matrix()).norm(), 0.0, 1e-15);
  }
  void jointsAskewByLessThanPaperKnowsAreTaken() {
    // Typed to a hundredth of a millimetre the feet are no longer parallel to the last digit; the
    // rings stay open by as much.
    Design d = overGutter(40, 40, 52, 52);
    PieceWork work = *d.structures[0].work;
    work.joints[0].to.x() += 0.004;
    const Analysis askew = checked(*setWork(d, StructureId{1}, work));
    QVERIFY2(askew.findings.empty(),
             askew.findings.empty() ? "" : describe(askew.findings.front(), d).c_str());
    work.joints[0].to.x() += 3;
    QVERIFY2(findCode(checked(*setWork(d, StructureId{1}, work)), "impossible"),
             "3 mm askew cannot be glued");
  }
  void foldsWithTheWrongMarksCannotBePutTogether() {
    Design d = overGutter(40, 40, 52, 52);
    PieceWork work = *d.structures[0].work;
    work.lines[1].kind =
        Kind::Valley; // two panels over the gutter bulge away from it only with a mountain
    work.lines[0].kind = work.lines[2].kind = Kind::Mountain;
    const Analysis analysis = checked(*setWork(d, StructureId{1}, work));
    // Pushed towards the gutter it lies below the pages at a mid opening, or it does not close at
    // all.
    QVERIFY(analysis.verdict == Verdict::Spoiled);
  }

  // --- what the program works out
  // ---------------------------------------------------------------------------------------
  void evenStepsLieFlatWhateverTheirNumber_data() {
    QTest::addColumn<int>("steps");
    for (int n : {1, 2, 3, 5})
      QTest::addRow("%d", n) << n;
  }
  void evenStepsLieFlatWhateverTheirNumber() {
    QFETCH(int, steps);
    Design d = demo("steps-in-the-fold");
    d = *removeStructure(*removeStructure(d, StructureId{3}), StructureId{2});
    const auto work = evenSteps(d, StructureId{1}, steps);
    QVERIFY2(work.ok(), work.ok() ? "" : say(work.error()).c_str());
    const auto widths = panelWidths_mm(*work);
    QCOMPARE(widths.size(), static_cast<std::size_t>(2 * steps + 2));
    double treads = 0, risers = 0;
    for (std::size_t k = 1; k + 1 < widths.size(); ++k)
      (k % 2 ? treads : risers) += widths[k];
    QVERIFY_NEAR(treads, 54.0, 1e-9); // feet of the demo: 60 up the one page, 54 out on the other
    QVERIFY_NEAR(risers, 60.0, 1e-9);
    const auto stepped = setWork(d, StructureId{1}, *work);
    QVERIFY(stepped.ok());
    const Analysis analysis = checked(*stepped);
    QVERIFY(!findCode(analysis, "impossible"));
    QVERIFY(!findCode(analysis, "jammed"));
  }
  void evenStepsDoNotDependOnWhereTheOutlineIsDrawn() {
    Design d = demo("steps-in-the-fold");
    d = *removeStructure(*removeStructure(d, StructureId{3}), StructureId{2});
    PieceWork moved = *d.structures[0].work;
    const Vec2 by(200, -30);
    for (Vec2& p : moved.outline)
      p += by;
    for (WorkLine& line : moved.lines)
      line.from += by, line.to += by;
    for (PieceJoint& joint : moved.joints)
      joint.at += by;
    const auto here = evenSteps(d, StructureId{1}, 3),
               there = evenSteps(*setWork(d, StructureId{1}, moved), StructureId{1}, 3);
    QVERIFY(here.ok());
    QVERIFY2(there.ok(), there.ok() ? "" : say(there.error()).c_str());
    QCOMPARE(there->lines.size(), here->lines.size());
    for (std::size_t k = 0; k < here->lines.size(); ++k)
      QVERIFY((there->lines[k].from - here->lines[k].from).norm() < 1e-9);
    QCOMPARE(there->joints.size(), here->joints.size());
    for (std::size_t k = 0; k < here->joints.size(); ++k)
      QVERIFY((there->joints[k].at - here->joints[k].at).norm() < 1e-9);
  }
  void whatIsNotGluedOnBothSidesMakesNoSteps() {
    const Design d = demo("canal-frames");
    QVERIFY(evenSteps(d, StructureId{1}, 0).error().code() == "steps.range");
    PieceWork one = *d.structures[0].work;
    one.joints.pop_back();
    QVERIFY(evenSteps(*setWork(d, StructureId{1}, one), StructureId{1}, 2).error().code() ==
            "steps.not-glued");
    QVERIFY(evenSteps(d, StructureId{99}, 2).error().code() == "structure.missing");
  }

  // --- checks of joints
  // ----------------------------------------------------------------------------------------------
  void slitsThatDoNotMeetAreFound() {
    Design d = demo("lamp-lattice");
    PieceWork work = *d.structures[1].work;
    std::get<given::Slot>(work.joints[0].kind).slit_mm = 20;
    const Analysis analysis = checked(*setWork(d, d.structures[1].id, work));
    const Finding* f = findCode(analysis, "slot-short");
    QVERIFY(f);
    // The face is slit to half a millimetre past the meeting point, the piece only 20 mm of what it
    // needs up to there.
    QVERIFY_NEAR(f->amount, work.joints[0].at.y() - 20 - 0.5, 1e-6);
  }
  void aCatchClosesTheMouthOfASlit() {
    Design d = demo("lamp-lattice"); // its second sheet is held by catches of 3 mm
    // What is cut of the second sheet, and the length of bare cuts in it.
    const auto cuts = [](const Design& design) {
      const auto assembly = assemble(design);
      const FlatPiece flat =
          flatPiece(*assembly, assembly->panels[assembly->findPanel("s2/panel-1")].piece);
      double length = 0;
      int closed = 0;
      for (const FlatLine& line : flat.lines) {
        if (line.kind != LineKind::Cut) continue;
        closed += line.closed;
        for (std::size_t k = 0; k + (line.closed ? 0 : 1) < line.corners.size(); ++k)
          length += (line.corners[(k + 1) % line.corners.size()] - line.corners[k]).norm();
      }
      return std::pair{closed, length};
    };
    PieceWork work = *d.structures[1].work;
    for (PieceJoint& joint : work.joints)
      std::get<given::Slot>(joint.kind).catch_mm = 0;
    const Design open = *setWork(d, d.structures[1].id, work);
    const auto held = cuts(d), loose = cuts(open);
    QCOMPARE(loose.first, 1); // its rim, with both slits in it
    QCOMPARE(held.first, 3);  // its rim, and two narrow openings
    // At each catch one cut in place of two, and the openings and the rim closed across.
    const double width = d.cardPaper().thickness_mm + 0.1;
    QVERIFY_NEAR(held.second - loose.second, 2 * (3.0 - 2 * 3.0 + 2 * width), 0.02);
    // The catch changes nothing of how it moves.
    const Motion with = trace(d), without = trace(open);
    const PanelIndex p = with.assembly().findPanel("s2/panel-1");
    QVERIFY((with.poseAt(1.2).panels[p].matrix() - without.poseAt(1.2).panels[p].matrix()).norm() <
            1e-6);
    QVERIFY(checked(d).findings.empty());
    for (PieceJoint& joint : work.joints)
      std::get<given::Slot>(joint.kind).catch_mm = 45;
    QCOMPARE(assembleDesign(*setWork(d, d.structures[1].id, work)).error().code(),
             std::string("slit.catch"));
    for (PieceJoint& joint : work.joints)
      std::get<given::Slot>(joint.kind).catch_mm = -1;
    QCOMPARE(setWork(d, d.structures[1].id, work).error().code(), std::string("work.catch"));
  }
  void aFilmIsTautWhereItIsTooShort() {
    Design d = demo("oil-sleeve");
    QVERIFY(!findCode(checked(d), "film-taut"));
    PieceWork work = *d.structures[2].work;
    std::get<given::Film>(work.joints[1].kind).length_mm = 60;
    const Analysis analysis = checked(*setWork(d, d.structures[2].id, work));
    const Finding* f = findCode(analysis, "film-taut");
    QVERIFY(f);
    // Ends 37 mm apart along the front and 40 mm across: |37 + 40 e^it| = 60 at 2 asin-free cosine:
    // cos t = (3600-2969)/2960.
    QVERIFY_NEAR(f->amount, 77.0 - 60.0, 1e-2);
    QVERIFY_NEAR(degrees(f->to_rad),
                 degrees(std::acos((3600.0 - 37 * 37 - 40 * 40) / (2 * 37 * 40))), 0.05);
  }
  void aBandMustPullAndNotBeDrawnTooFar() {
    Design d = demo("pop-up-lantern");
    QVERIFY(checked(d).findings.empty());
    PieceWork work = *d.structures[0].work;
    std::get<given::Band>(work.joints.back().kind).length_mm = 200;
    QVERIFY(findCode(checked(*setWork(d, StructureId{1}, work)), "band-slack"));
    std::get<given::Band>(work.joints.back().kind).length_mm = 40;
    QVERIFY(findCode(checked(*setWork(d, StructureId{1}, work)), "band-drawn"));
  }
  void aSlidePastItsStopIsFound() {
    Design d = demo("ferry-pass");
    PieceWork work = *d.structures[0].work;
    std::get<given::Slide>(work.joints[0].kind).most_mm = 12;
    const Analysis analysis = checked(*setWork(d, StructureId{1}, work));
    const Finding* f = findCode(analysis, "slide-past-stop");
    QVERIFY(f);
    QVERIFY_NEAR(f->amount, 8.0, 1e-3);
    QCOMPARE(f->detail.key, std::string("most"));
  }
  void aPocketLeavesRoomToSlideAndToGlue() {
    const Design d = demo("ferry-pass");
    const auto pockets = pocketsOf(*assemble(d));
    // The strap that pulls is glued on the insert itself: only the pocket's front is on the page.
    QCOMPARE(pockets.size(), std::size_t(1));
    QVERIFY(pockets.front().covers);
    // The insert, and three of the band round it.
    QVERIFY_NEAR(pockets.front().inside_mm, 4 * d.cardPaper().thickness_mm, 1e-9);
    const double band = wrapWidth_mm(60, d.cardPaper().thickness_mm, d.cardPaper().thickness_mm);
    QVERIFY_NEAR(pockets.front().low_mm, 0.5 * (82 - band), 1e-9);
    QVERIFY_NEAR(pockets.front().high_mm, 0.5 * (82 - band), 1e-9);
    // What is left for glue lies beside everything that slides.
    QCOMPARE(pockets.front().strips.size(), std::size_t(2));
    double glued = 0;
    for (const Polygon& strip : pockets.front().strips)
      glued += std::abs(signedArea_mm2(strip));
    QVERIFY_NEAR(glued, 26 * (82 - band - 2 * slidePlay_mm(4 * d.cardPaper().thickness_mm)), 1e-6);
  }
  void aPocketThatIsTooNarrowIsFound_data() {
    QTest::addColumn<double>("width");
    QTest::addColumn<QString>("code");
    QTest::newRow("wide enough") << 82.0 << "";
    QTest::newRow("little glue") << 76.0 << "pocket-glue";
    QTest::newRow("no room") << 71.0 << "pocket-tight";
    QTest::newRow("narrower than the insert") << 60.0 << "pocket-tight";
  }
  void aPocketThatIsTooNarrowIsFound() {
    QFETCH(double, width);
    QFETCH(QString, code);
    Design d = demo("ferry-pass");
    d = *setValues(d, StructureId{3}, {{"panel-1", width}}); // its right end moves
    const Analysis analysis = checked(d, true);
    if (code.isEmpty()) {
      QVERIFY(analysis.findings.empty());
      return;
    }
    const Finding* f = findCode(analysis, code.toStdString());
    QVERIFY(f);
    const double band = wrapWidth_mm(60, d.cardPaper().thickness_mm, d.cardPaper().thickness_mm),
                 right = width - 41 - 0.5 * band,
                 play = slidePlay_mm(4 * d.cardPaper().thickness_mm);
    QVERIFY_NEAR(f->amount,
                 code == "pocket-tight" ? play - right : play + d.settings.leastTabDepth_mm - right,
                 1e-9);
    QVERIFY(f->mend.has_value()); // a wider front
    QVERIFY(!findCode(checked(*applyMend(d, *f->mend)), code.toStdString()));
  }
  void aTabBesideTheWayKeepsClearOfWhatSlides() {
    Design d = demo("ferry-pass");
    PieceWork stop = plainStrip(6, 20);
    PieceJoint glue = d.structures[2].work->joints.front();
    glue.at = {3, 10}, glue.to = {98, 70}; // beside the band's right end, at 60 + 30.92
    std::get<given::Glue>(glue.kind).turn_deg = 0;
    stop.joints = {glue};
    d = addStructure(d, "piece", "gutter", {{"position", 0.0}}, stop)->design;
    QVERIFY(!findCode(checked(d), "pocket-tight"));
    PieceWork near = stop;
    near.joints.front().to.x() = 93; // reaches over the insert's side by a millimetre
    const Analysis analysis = checked(*setWork(d, d.structures.back().id, near));
    const Finding* f = findCode(analysis, "pocket-tight");
    QVERIFY(f && f->elements.front() == "s5/panel-1");
  }
  void aStrapGoesRoundEverythingInsideIt() {
    const Design d = demo("ferry-pass");
    const auto wraps = wrapsOf(*assemble(d));
    QCOMPARE(wraps.size(), std::size_t(1));
    QCOMPARE(wraps.front().layers, 1);
    QVERIFY_NEAR(wraps.front().width_mm, 60.0, 1e-9);
    // Half a turn round one layer and to the middle of its own paper at each of two folds, a
    // millimetre of play.
    QVERIFY_NEAR(wraps.front().needed_mm, 60 + 1 + kPi * d.cardPaper().thickness_mm, 1e-9);
    QVERIFY_NEAR(wraps.front().inside_mm, wraps.front().needed_mm, 1e-6);
    Design thick = d;
    thick.cardPaper().thickness_mm = 0.5;
    const Analysis thicker = checked(thick);
    const Finding* f = findCode(thicker, "strap-tight");
    QVERIFY(f);
    QVERIFY_NEAR(f->amount, kPi * (0.5 - d.cardPaper().thickness_mm), 1e-6);
    // Worked out anew it goes round the thicker paper.
    const auto again = wrappedRound(thick, StructureId{4}, 8);
    QVERIFY(again.ok());
    QVERIFY(!findCode(checked(*setWork(thick, StructureId{4}, *again)), "strap-tight"));
  }
  void aLayerMoreMakesTheStrapLonger() {
    Design d = demo("ferry-pass");
    PieceWork mat = plainStrip(40, 30); // a mat on the insert, under the band
    PieceJoint glue;
    glue.at = {20, 15}, glue.on = "s1/panel-1", glue.to = {30, 22};
    mat.joints = {glue};
    d = addStructure(d, "piece", "gutter", {{"position", 0.0}}, mat)->design;
    const auto wraps = wrapsOf(*assemble(d));
    QCOMPARE(wraps.front().layers, 2);
    QVERIFY_NEAR(wraps.front().needed_mm - wraps.front().inside_mm,
                 0.5 * kPi * d.cardPaper().thickness_mm, 1e-6);
  }
  void aStrapFromTheFrontIsFoldedTheOtherWay() {
    Design d = demo("ferry-pass");
    d = *removeStructure(d, StructureId{4});
    PieceWork band = plainStrip(50, 6);
    PieceJoint glue;
    glue.at = {25, 3}, glue.on = "s1/panel-1",
    glue.to = {30, 30}; // its back on the face of the insert
    band.joints = {glue};
    const auto added = addStructure(d, "piece", "gutter", {{"position", 0.0}}, band);
    const auto work = wrappedRound(added->design, added->id, 10);
    QVERIFY2(work.ok(), work.ok() ? "" : say(work.error()).c_str());
    for (const WorkLine& line : work->lines)
      QVERIFY(line.kind == Kind::Mountain);
    const Analysis analysis = checked(*setWork(added->design, added->id, *work));
    QVERIFY(!findCode(analysis, "impossible") && !findCode(analysis, "strap-tight") &&
            !findCode(analysis, "floppy"));
    QCOMPARE(wrapsOf(*analysis.assembly).size(), std::size_t(1));
  }
  void whatLiesOnNothingIsNotWrapped() {
    const Design d = demo("oil-sleeve");
    QVERIFY(wrappedRound(d, StructureId{99}, 8).error().code() == "structure.missing");
    Design loose = demo("ferry-pass");
    PieceWork work = *loose.structures[3].work;
    work.joints.erase(work.joints.begin());
    QVERIFY(wrappedRound(*setWork(loose, StructureId{4}, work), StructureId{4}, 8).error().code() ==
            "wrap.lies-on-nothing");
    QVERIFY(wrappedRound(demo("ferry-pass"), StructureId{4}, 45).error().code() == "wrap.narrow");
  }
  void limbsInOneLayerThatMeetAreFound() {
    Design d = demo("waving-boatmen");
    QVERIFY(!findCode(checked(d), "limbs-hit"));
    // A longer right arm reaches over the left one.
    const auto item = d.find(StructureId{4});
    PieceWork work = *item->work;
    for (Vec2& p : work.outline)
      p.x() = p.x() > 6 ? p.x() + 40 : p.x();
    const Analysis analysis = checked(*setWork(d, StructureId{4}, work));
    const Finding* f = findCode(analysis, "limbs-hit");
    QVERIFY(f);
    QVERIFY(f->amount > 1 && f->to_rad >= f->from_rad);
  }

  // --- impossible input
  // ----------------------------------------------------------------------------------------------
  void impossiblePiecesSayWhy_data() {
    QTest::addColumn<QString>("what");
    QTest::addColumn<QString>("code");
    QTest::newRow("score outside") << "outside"
                                   << "work.line-outside";
    QTest::newRow("cut in two") << "two"
                                << "work.in-two";
    QTest::newRow("joint beside the paper") << "joint"
                                            << "work.joint-outside";
    QTest::newRow("unknown face") << "face"
                                  << "joint.no-face";
    QTest::newRow("outline crosses itself") << "outline"
                                            << "work.outline";
    QTest::newRow("band without length") << "band"
                                         << "work.length";
    QTest::newRow("not a number") << "nan"
                                  << "work.size";
  }
  void impossiblePiecesSayWhy() {
    QFETCH(QString, what);
    QFETCH(QString, code);
    const Design d = overGutter(40, 40, 52, 52);
    PieceWork work = *d.structures[0].work;
    if (what == "outside") work.lines[1].to.y() = 70;
    if (what == "two") work.lines[1].kind = Kind::Cut;
    if (what == "joint") work.joints[0].at = {-5, 5};
    if (what == "face") work.joints[0].on = "s7/panel-3";
    if (what == "outline") std::swap(work.outline[1], work.outline[2]);
    if (what == "band") work.joints[0].kind = given::Band{0};
    if (what == "nan") work.outline[1].x() = std::nan("");
    const auto set = setWork(d, StructureId{1}, work);
    std::string found;
    if (!set)
      found = set.error().code();
    else if (const auto assembled = assembleDesign(*set); !assembled)
      found = assembled.error().code();
    QCOMPARE(QString::fromStdString(found), code);
  }
  void aWindowMayLieAcrossAScore() {
    const auto assembly = assemble(demo("canal-frames"));
    // The opening is taken out of both panels beside the crease and parts the crease in two.
    const PanelIndex left = assembly->findPanel("s1/panel-2");
    QVERIFY(area_mm2(assembly->panels[left].outline) < 30 * 66 - 200);
    int creases = 0;
    for (const Fold& fold : assembly->folds)
      creases += fold.key.starts_with("s1/score-2");
    QCOMPARE(creases, 2);
  }
  void aPieceMovesAlongTheFoldOnBothPages() {
    const Design d = overGutter(40, 40, 52, 52);
    const auto moved = setValues(d, StructureId{1}, {{"position", 12.5}});
    const Motion before = trace(d), after = trace(*moved);
    QVERIFY(after.impossible().empty());
    const Pose p = before.poseAt(1.2), q = after.poseAt(1.2);
    for (const char* panel : {"s1/panel-1", "s1/panel-2", "s1/panel-4"}) {
      const Vec3 by = worldPoint(after, q, panel, {20, 5}) - worldPoint(before, p, panel, {20, 5});
      QVERIFY_NEAR((by - Vec3(0, 12.5, 0)).norm(), 0.0, 1e-6);
    }
  }
  void theMirrorImageOfAPieceStandsOnTheOtherPages() {
    const Design d = overGutter(30, 50, 60, 40);
    const auto image = mirrored(d, StructureId{1});
    QVERIFY(image.ok());
    const Motion one = trace(d), two = trace(*image);
    QVERIFY(two.impossible().empty());
    const Vec3 a = worldPoint(one, one.poseAt(1.3), "s1/panel-2", {68, 0}),
               b = worldPoint(two, two.poseAt(1.3), "s1/panel-2", {48, 0});
    QVERIFY_NEAR(a.x(), -b.x(), 1e-6);
    QVERIFY_NEAR(a.y(), b.y(), 1e-6);
    QVERIFY_NEAR(a.z(), b.z(), 1e-6);
    const auto twice = mirrored(*image, StructureId{1});
    QVERIFY(twice->structures[0].work->outline == d.structures[0].work->outline);
    QCOMPARE(QString::fromStdString(twice->structures[0].work->joints[0].on),
             QString::fromStdString(d.structures[0].work->joints[0].on));
  }
  void theMirrorImageOfAPieceOnAFaceStaysThere() {
    // Moved seven millimetres up a page: its image is as far from the other end.
    const Design d = addProposed(card(), "piece", "card/page-a", {{"position", 7}})->design;
    const auto image = mirrored(d, StructureId{1});
    QVERIFY(image.ok());
    const auto middle = [](const Design& design) {
      const auto assembly = assemble(design);
      const Glue& glue = only<Glue>(*assembly);
      const Vec2 centre = centroidOf(assembly->panels[glue.tab].outline);
      return std::pair{assembly->panels[glue.host].key,
                       Vec2((glue.tabToHost * lift(centre)).head<2>())};
    };
    const auto [page, at] = middle(d);
    const auto [same, mirror] = middle(*image);
    QCOMPARE(same, page);
    QVERIFY_NEAR(mirror.x(), at.x(), 1e-9);
    QVERIFY_NEAR(mirror.y(), d.card.height_mm - at.y(), 1e-9);
    QVERIFY(*mirrored(*image, StructureId{1}) == d);
    // A copy on the other side lies where a mirror in the gutter would show it.
    const auto copied = copiedToOtherSide(d, StructureId{1});
    QVERIFY(copied.ok());
    const Motion motion = trace(copied->design);
    const Pose pose = motion.poseAt(1.0);
    const auto placed = [&](const char* key) {
      const PanelIndex panel = motion.assembly().findPanel(key);
      return Vec3(pose.panels[panel] * lift(centroidOf(motion.assembly().panels[panel].outline)));
    };
    const Vec3 one = placed("s1/panel-1"), two = placed("s2/panel-1");
    QVERIFY_NEAR(one.x(), -two.x(), 1e-9);
    QVERIFY_NEAR(one.y(), two.y(), 1e-9);
  }
  void aPieceOfMoreThan100PanelsIsRefusedInWords() {
    PieceWork work = plainStrip(1212, 20);
    for (int k = 1; k < 100; ++k)
      work.lines.push_back({k % 2 ? Kind::Mountain : Kind::Valley, {12.0 * k, 0}, {12.0 * k, 20}});
    QVERIFY(addStructure(card(), "piece", "gutter", {{"position", 0.0}}, work).ok());
    for (int k = 100; k < 101; ++k)
      work.lines.push_back({k % 2 ? Kind::Mountain : Kind::Valley, {12.0 * k, 0}, {12.0 * k, 20}});
    const auto added = addStructure(card(), "piece", "gutter", {{"position", 0.0}}, work);
    QVERIFY(!added.ok());
    QCOMPARE(added.error().code(), std::string("work.too-much"));
    QVERIFY(say(added.error()).find("100") != std::string::npos);
  }
  void aNewPieceOnAFaceIsGluedInItsMiddle() {
    const auto added = addProposed(card(), "piece", "card/page-b", {});
    QVERIFY(added.ok());
    const PieceWork& work = *added->design.find(added->id)->work;
    const Vec2 size = boundsOf(work.outline).size();
    QCOMPARE(work.joints.size(), std::size_t(1));
    QVERIFY_NEAR((work.joints[0].at - 0.5 * size).norm(), 0.0, 1e-9);
  }
  void aRepeatedPieceStandsBesideTheFirst() {
    const Design d = overGutter(40, 40, 52, 52);
    const auto both = repeatedAlong(d, StructureId{1}, 1, 50);
    QVERIFY(both.ok());
    QCOMPARE(both->structures.size(), std::size_t(2));
    const Analysis analysis = checked(*both);
    QVERIFY2(analysis.findings.empty(),
             analysis.findings.empty() ? "" : describe(analysis.findings.front(), *both).c_str());
  }
  void removingAHostTakesThePiecesJoinedToIt() {
    const Design d = demo("steps-in-the-fold");
    QCOMPARE(removeStructure(d, StructureId{1})->structures.size(), std::size_t(0));
    QCOMPARE(removeStructure(d, StructureId{2})->structures.size(), std::size_t(2));
  }
  void piecesAreSavedAndReadBackByteForByte() {
    for (const char* name : {"lamp-lattice", "waving-boatmen", "pop-up-lantern", "oil-sleeve",
                             "ferry-pass", "canal-frames"}) {
      const std::string once = designToJson(demo(name));
      const auto again = designFromJson(once, "");
      QVERIFY2(again.ok(), name);
      QCOMPARE(QString::fromStdString(designToJson(*again)), QString::fromStdString(once));
      QVERIFY(*again == demo(name));
    }
  }
  void damagedWorkNamesItsPlace_data() {
    QTest::addColumn<QString>("from");
    QTest::addColumn<QString>("to");
    QTest::addColumn<QString>("place");
    QTest::newRow("no point") << "\"at\": ["
                              << "\"at\": [\"x\", "
                              << "structures[0].work.joints[0].at";
    QTest::newRow("unknown joint") << "\"kind\": \"glue\""
                                   << "\"kind\": \"nails\""
                                   << "structures[0].work.joints[0].kind";
    QTest::newRow("unknown line") << "\"kind\": \"mountain\""
                                  << "\"kind\": \"crumple\""
                                  << "structures[0].work.lines[0].kind";
    QTest::newRow("no outline") << "\"outline\": ["
                                << "\"rim\": ["
                                << "structures[0].work.outline";
  }
  void damagedWorkNamesItsPlace() {
    QFETCH(QString, from);
    QFETCH(QString, to);
    QFETCH(QString, place);
    QString text = QString::fromStdString(designToJson(demo("canal-frames")));
    const auto at = text.indexOf(from);
    QVERIFY(at >= 0);
    text.replace(at, from.size(), to);
    const auto read = designFromJson(text.toStdString(), "card.hinge");
    QVERIFY(!read.ok());
    QVERIFY2(QString::fromStdString(read.error().place).contains(place), say(read.error()).c_str());
  }
  void aNewPieceOnAFoldIsGood() {
    Design d = card();
    add(d, "piece", "gutter");
    const Analysis analysis = checked(d);
    QVERIFY2(analysis.findings.empty(),
             analysis.findings.empty() ? "" : describe(analysis.findings.front(), d).c_str());
    QVERIFY(addStructure(d, "piece", "gutter", {{"position", 0.0}}).error().code() ==
            "work.missing");
    QVERIFY(addStructure(d, "box", "gutter", {}, plainStrip(10, 10)).error().code() ==
            "work.unwanted");
  }
  void aNewPieceIsProposedOnFacesAndRidgesToo() {
    Design d = card();
    add(d, "box", "gutter");
    for (const char* seat : {"card/page-a", "card/page-b-back", "s1/ridge", "s1/wall-a"}) {
      const auto added = addProposed(d, "piece", seat, {});
      QVERIFY2(added.ok(), seat);
      const Analysis analysis = checked(added->design);
      for (const Finding& f : analysis.findings)
        QVERIFY2(f.severity != Severity::Spoils,
                 qPrintable(QString::fromLatin1(seat) + QStringLiteral(": ") +
                            QString::fromStdString(describe(f, added->design))));
    }
    Design gate = demo("gate-to-the-market");
    const auto assembled = assembleDesign(gate);
    const auto span = std::ranges::find_if(
        assembled->seats, [](const Seat& s) { return s.kind() == SeatKind::Span; });
    QVERIFY(span != assembled->seats.end());
    QCOMPARE(addProposed(gate, "piece", span->key, {}).error().code(),
             std::string("work.none")); // a strip bridges it, a piece must be thought of
  }
  void aNewPieceIsSmallerWhereRoomIsShort() {
    const Design d = demo("night-market");
    const auto added = addProposed(d, "piece", "gutter", {});
    QVERIFY(added.ok());
    const Analysis analysis = checked(added->design);
    for (const Finding& f : analysis.findings)
      QVERIFY2(f.severity != Severity::Spoils, describe(f, added->design).c_str());
    Design empty = card(d.card.width_mm, d.card.height_mm);
    const auto alone = addProposed(empty, "piece", "gutter", {});
    QVERIFY(boundsOf(added->design.structures.back().work->outline).size().x() <=
            boundsOf(alone->design.structures.back().work->outline).size().x());
  }
};

QTEST_APPLESS_MAIN(TestPieces)
#include "test_pieces.moc"
