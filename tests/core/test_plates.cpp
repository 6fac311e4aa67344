// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/contact/convex_slab.h"
#include "core/contact/plates.h"
#include "core/edits/dressing.h"
#include "core/making/dress_moments.h"
#include <map>
#include <random>
#endif

using namespace hinge;
using namespace hinge::test;

// Paper has a thickness: what passes as a drawing must pass as paper too. And when in the work the
// layers are stuck on.

namespace {

ConvexSlab plate(double width, double height, double thickness, const Iso3& at) {
  ConvexSlab slab{{}, at.linear() * Vec3::UnitZ(), -0.5 * thickness, 0.5 * thickness, {}};
  for (const Vec2& q : {Vec2(0, 0), Vec2(width, 0), Vec2(width, height), Vec2(0, height)})
    slab.corners.push_back(at * lift(q));
  slab.edges = edgesOf(slab);
  return slab;
}

Iso3 putAt(const Vec3& at, double turn_rad = 0, const Vec3& about = Vec3::UnitY()) {
  Iso3 pose = Iso3::Identity();
  pose.translation() = at, pose.linear() = Eigen::AngleAxisd(turn_rad, about).toRotationMatrix();
  return pose;
}

/// The corners of a slab and points on a grid through it.
std::vector<Vec3> pointsOf(const ConvexSlab& slab) {
  std::vector<Vec3> points;
  for (double u = 0; u <= 1; u += 0.125)
    for (double v = 0; v <= 1; v += 0.125)
      for (double h : {slab.from_mm, 0.0, slab.to_mm})
        points.push_back(slab.corners[0] + u * (slab.corners[1] - slab.corners[0]) +
                         v * (slab.corners[3] - slab.corners[0]) + h * slab.normal);
  return points;
}

bool inside(const ConvexSlab& slab, const Vec3& p) {
  const Vec3 from = p - slab.corners[0], x = slab.corners[1] - slab.corners[0],
             y = slab.corners[3] - slab.corners[0];
  const double u = from.dot(x) / x.squaredNorm(), v = from.dot(y) / y.squaredNorm(),
               h = from.dot(slab.normal);
  return u > 0 && u < 1 && v > 0 && v < 1 && h > slab.from_mm && h < slab.to_mm;
}

Design withStock(Design design, double thickness_mm) {
  design.cardPaper().thickness_mm = thickness_mm;
  return design;
}

/// The diorama of the lock with its first bridge as loose as it once was: as a drawing it clears
/// the page by half a millimetre.
Design looseBridge(double more_mm) {
  Design design = demo("lock-diorama");
  for (StructureItem& item : design.structures)
    if (item.id.text() == "s1") item.values["w1"] += more_mm, item.values["w2"] += more_mm;
  return design;
}

} // namespace

class TestPlates : public QObject {
  Q_OBJECT
private slots:
  void gapsInClosedForm() {
    const ConvexSlab flat = plate(40, 30, 0.4, putAt({0, 0, 0}));
    // Over one another: what is between them less half of each.
    QVERIFY_NEAR(gapBetween(flat, plate(20, 20, 0.6, putAt({5, 5, 2}))), 1.5, 1e-12);
    QVERIFY_NEAR(gapBetween(flat, plate(20, 20, 0.6, putAt({5, 5, 0.3}))), -0.2, 1e-12);
    // Side by side in one plane.
    QVERIFY_NEAR(gapBetween(flat, plate(20, 20, 0.4, putAt({43, 0, 0}))), 3.0, 1e-12);
    // On edge over the other: the edge has no thickness of its own along its plane.
    QVERIFY_NEAR(gapBetween(flat, plate(20, 20, 0.4, putAt({10, 10, 21}, radians(90)))), 0.8, 1e-9);
    // A leaning plate: its lowest edge is lower by half its thickness times the cosine.
    const double lean = radians(30);
    QVERIFY_NEAR(gapBetween(flat, plate(20, 20, 0.4, putAt({5, 5, 2}, -lean))),
                 2 - 0.2 - 0.2 * std::cos(lean), 1e-9);
  }

  void aCornerThatIsThereTwiceChangesNoGap() {
    const ConvexSlab flat = plate(40, 30, 0.4, putAt({0, 0, 0}));
    ConvexSlab leaning =
        plate(20, 20, 0.4, putAt({43, 4, 3}, radians(40), Vec3(1, 2, 3).normalized()));
    const double gap = gapBetween(flat, leaning);
    for (std::size_t k = 0; k < 4; ++k) {
      ConvexSlab twice = leaning;
      twice.corners.insert(twice.corners.begin() + static_cast<std::ptrdiff_t>(k),
                           leaning.corners[k]);
      QVERIFY_NEAR(gapBetween(flat, twice), gap, 1e-12);
      QVERIFY_NEAR(gapBetween(twice, flat), gap, 1e-12);
    }
  }

  /// Against points: slabs with a point of one inside of the other have no gap, and apart slabs are
  /// nowhere nearer than their gap.
  void gapsAgainstPoints() {
    std::mt19937 chance(11);
    std::uniform_real_distribution<double> turn(-kPi, kPi), place(-12, 12), size(4, 20),
        thick(0.2, 3);
    int overlaps = 0, apart = 0;
    for (int n = 0; n < 400; ++n) {
      const auto random = [&] {
        const Vec3 about = Vec3(place(chance), place(chance), place(chance)).normalized();
        return plate(size(chance), size(chance), thick(chance),
                     putAt({place(chance), place(chance), place(chance)}, turn(chance), about));
      };
      const ConvexSlab a = random(), b = random();
      const double gap = gapBetween(a, b);
      const auto of = pointsOf(a), against = pointsOf(b);
      if (std::ranges::any_of(of, [&](const Vec3& p) { return inside(b, p); })) {
        QVERIFY2(gap < 1e-9, qPrintable(QString::number(gap)));
        ++overlaps;
      }
      if (gap <= 0) continue;
      ++apart;
      for (const Vec3& p : of)
        for (const Vec3& q : against)
          QVERIFY((p - q).norm() >= gap - 1e-9);
    }
    QVERIFY(overlaps > 20 && apart > 100);
  }

  /// Two plates of which one turns by 6 degrees: what is said to part them all the way does so at
  /// each of 60 openings between, and of what does not, the middle is told.
  void partedThroughAStretch() {
    constexpr double kWanted_mm = -0.2;
    std::mt19937 chance(12);
    std::uniform_real_distribution<double> turn(-kPi, kPi), place(-12, 12), size(4, 20),
        thick(0.2, 3);
    int parted = 0, meeting = 0;
    for (int n = 0; n < 2000; ++n) {
      const auto random = [&] {
        const Vec3 about = Vec3(place(chance), place(chance), place(chance)).normalized();
        return plate(size(chance), size(chance), thick(chance),
                     putAt({place(chance), place(chance), place(chance)}, turn(chance), about));
      };
      const ConvexSlab still = random(), turning = random();
      const Vec3 axis = Vec3(place(chance), place(chance), place(chance)).normalized();
      const auto at = [&](double part) {
        return moved(turning, putAt({0, 0, 0}, radians(6) * part, axis));
      };
      const GapThrough through = gapThrough(still, {at(0), at(0.5), at(1)}, kWanted_mm);
      if (!through.parted) {
        QVERIFY_NEAR(through.middle_mm, gapBetween(still, at(0.5)), 1e-12);
        ++meeting;
        continue;
      }
      ++parted;
      for (int k = 0; k <= 60; ++k)
        QVERIFY2(gapBetween(still, at(k / 60.0)) > kWanted_mm, qPrintable(QString::number(n)));
    }
    QVERIFY2(parted > 1000 && meeting > 200,
             qPrintable(QStringLiteral("%1 parted, %2 not").arg(parted).arg(meeting)));
  }

  /// Boxes are round what they are made of, seen from another frame too.
  void boxesAreNoFartherApartThanWhatIsInThem() {
    std::mt19937 chance(13);
    std::uniform_real_distribution<double> turn(-kPi, kPi), place(-20, 20), size(4, 20);
    int apart = 0;
    for (int n = 0; n < 400; ++n) {
      const ConvexSlab own = plate(size(chance), size(chance), 1, putAt({0, 0, 0})),
                       other = plate(size(chance), size(chance), 1, putAt({0, 0, 0}));
      const Iso3 there = putAt({place(chance), place(chance), place(chance)}, turn(chance),
                               Vec3(place(chance), place(chance), place(chance)).normalized());
      const double boxes = gapBetween(boxOf({own}), boxOf({other}).seenThrough(there));
      QVERIFY(boxes <= gapBetween(own, moved(other, there)) + 1e-9);
      if (boxes > 0) ++apart;
    }
    QVERIFY(apart > 100);
  }

  void onlyWhatIsAskedForIsLookedAt() {
    const auto motion = Motion::trace(assemble(looseBridge(1.5)));
    const Assembly& assembly = motion.assembly();
    std::vector<Slab> slabs;
    for (PanelIndex p : assembly.panels.indices())
      slabs.push_back({p, assembly.panels[p].outline, -0.45, 0.45});
    const auto key = [&](const PlateTouch& touch) {
      return std::pair(touch.first.value, touch.second.value);
    };
    const auto found = [&](const std::vector<StructureId>& only) {
      PlateOptions options;
      options.only = only;
      std::map<std::pair<int, int>, double> depths;
      for (const PlateTouch& touch : plateTouches(motion, slabs, options))
        depths[key(touch)] = touch.depth_mm;
      return depths;
    };
    const auto all = found({});
    QVERIFY(!all.empty());
    std::size_t some = 0;
    for (int id : {1, 2, 3, 4, 5, 999}) { // the last is nobody
      std::map<std::pair<int, int>, double> own;
      for (const auto& [pair, depth] : all)
        for (int panel : {pair.first, pair.second})
          if (assembly.panels[PanelIndex(panel)].owner == StructureId{id}) own[pair] = depth;
      QVERIFY(found({StructureId{id}}) == own);
      QVERIFY(own.empty() || id < 999);
      some += !own.empty();
    }
    QVERIFY(some > 0);
  }

  void goodAsADrawingButNotAsPaper() {
    const Design design = looseBridge(1.5);
    QVERIFY(!findCode(checked(withStock(design, 0.05)), "plates-hit"));
    const Analysis thick = checked(withStock(design, 0.9), true);
    const Finding* f = findCode(thick, "plates-hit");
    QVERIFY(f && !findCode(thick, "panels-hit"));
    QVERIFY(f->amount > 0.2 && f->amount < 0.8);
    QCOMPARE(f->elements.front(), std::string("s1/panel-2"));
    QVERIFY(f->show_rad >= f->from_rad && f->show_rad <= f->to_rad);
    // The number grows with the paper, by as much as both sheets do.
    const Analysis thicker = checked(withStock(design, 1.1));
    const Finding* more = findCode(thicker, "plates-hit");
    QVERIFY(more);
    QVERIFY2(more->amount - f->amount > 0.05 && more->amount - f->amount < 0.3,
             qPrintable(QStringLiteral("%1 %2").arg(f->amount).arg(more->amount)));
    QVERIFY(f->severity == Severity::Advice && f->mend);
    const Analysis looser = checked(withStock(looseBridge(2), 1.1));
    const Finding* spoils = findCode(looser, "plates-hit");
    QVERIFY(spoils && spoils->severity == Severity::Spoils);
  }

  void layersCountOnTheirSide() {
    Design design = looseBridge(0.5);
    QVERIFY(!findCode(checked(withStock(design, 0.2)), "plates-hit"));
    Paper board;
    board.key = "board", board.thickness_mm = 0.8;
    const auto with = withPaper(withStock(design, 0.2), board);
    QVERIFY(with);
    Layer layer;
    layer.paper = "board";
    const auto dressed = [&](const char* face) {
      const auto next = withRule(*with, {DressReach::Face, face, AtGlue::Around, {layer}});
      if (!next) qFatal("%s", say(next.error()).c_str());
      return checked(*next);
    };
    QVERIFY(findCode(dressed("card/page-b"), "plates-hit"));
    QVERIFY(!findCode(dressed("card/page-b-back"), "plates-hit"));
  }

  /// Corners that stand on a fold, walls that fold down, paper that lies on paper: none of that is
  /// in the way, however thick.
  void whatClosesLikeAFoldIsFine_data() {
    QTest::addColumn<QString>("name");
    for (const char* name : {"night-market", "canal-houses", "tea-chests", "canal-corner",
                             "paddle-wheels", "lock-halves", "lantern-tower"})
      QTest::newRow(name) << name;
  }
  void whatClosesLikeAFoldIsFine() {
    QFETCH(QString, name);
    const Analysis analysis = checked(withStock(demo(name.toStdString()), 0.3));
    const Finding* f = findCode(analysis, "plates-hit");
    QVERIFY2(!f, f ? describe(*f, analysis.design).c_str() : "");
  }

  /// Half slots of two papers: each slit has the other's thickness and a tenth of a millimetre.
  void slitsAreAsWideAsWhatStandsInThem() {
    Design design = demo("two-quays");
    const auto slits = [](const Design& of) {
      std::vector<std::pair<std::string, double>> all; // paper of the piece that is slit, width
      const auto assembly = assemble(of);
      for (const Piece& piece : assembly->pieces)
        for (const Feature& feature : piece.features)
          if (const Slit* slit = std::get_if<Slit>(&feature))
            all.push_back({piece.paper, slit->width_mm});
      return all;
    };
    const auto alike = slits(design);
    QVERIFY(!alike.empty());
    for (const auto& [paper, width] : alike)
      QVERIFY_NEAR(width, design.cardPaper().thickness_mm + 0.1, 1e-12);
    Paper board;
    board.key = "board", board.thickness_mm = 0.8;
    design = *withPaper(design, board);
    for (StructureItem& item : design.structures)
      if (item.work && std::ranges::any_of(item.work->joints, [](const PieceJoint& joint) {
            return is<given::Slot>(joint);
          }))
        item.paper = "board";
    int wide = 0, narrow = 0;
    for (const auto& [paper, width] : slits(design)) {
      const bool inBoard = paper == "board";
      QVERIFY_NEAR(width, (inBoard ? design.cardPaper().thickness_mm : 0.8) + 0.1, 1e-12);
      ++(inBoard ? narrow : wide);
    }
    QVERIFY(wide > 0 && narrow > 0);
  }

  void whenLayersAreStuckOn() {
    Design design = card();
    const StructureId box = add(design, "box", "gutter");
    Layer layer;
    layer.paper = design.stock;
    const auto moments = [&](AtGlue how) {
      const auto ruled = withRule(design, {DressReach::Face, "card/page-a", how, {layer}});
      if (!ruled) qFatal("%s", say(ruled.error()).c_str());
      const Snapshot snapshot(*ruled);
      return dressMoments(*ruled, **snapshot.assembly(), *snapshot.faces(), *snapshot.dressed(),
                          *snapshot.order());
    };
    const auto under = moments(AtGlue::Under), over = moments(AtGlue::Over),
               around = moments(AtGlue::Around);
    for (const auto* one : {&under, &over, &around})
      QCOMPARE(one->size(), std::size_t{1});
    QCOMPARE(under.front().after, -1);
    QVERIFY(under.front().before >= 0);
    QCOMPARE(around.front().after, -1);
    QCOMPARE(around.front().before, -1);
    QVERIFY(over.front().after >= 0);
    QCOMPARE(over.front().before, -1);
    // The foot of the box is closed in by the layer: the cut is no longer than to the gutter.
    const double foot = design.find(box)->values.at("a");
    QVERIFY(over.front().cutOpen_mm > 1 && over.front().cutOpen_mm <= foot + 1e-6);
  }
};

QTEST_GUILESS_MAIN(TestPlates)
#include "test_plates.moc"
