// SPDX-License-Identifier: GPL-3.0-or-later
#include "strips.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/solve_piece.h"
#include "core/geom/region.h"
#include "core/io/design_json.h"
#include "core/structures/closure.h"
#include "core/structures/registry.h"
#include <random>
#endif

using namespace hinge;
using namespace hinge::test;

// What mends a free piece: by how far it is out of step, the single changes that make it lie flat,
// scores that are marked the wrong way round.

namespace {

/// The piece of a design with one change made to it.
template <class Change> Design with(const Design& design, const Change& change) {
  PieceWork work = *design.structures[0].work;
  change(work);
  const auto made = setWork(design, design.structures[0].id, work);
  if (!made) qFatal("%s", say(made.error()).c_str());
  return *made;
}

void turnMarks(PieceWork& work) {
  for (WorkLine& line : work.lines)
    if (line.kind != WorkLine::Kind::Cut)
      line.kind =
          line.kind == WorkLine::Kind::Mountain ? WorkLine::Kind::Valley : WorkLine::Kind::Mountain;
}

/// All mends of a finding, the first one with the others.
std::vector<Mend> mendsOf(const Finding& f) {
  std::vector<Mend> all;
  if (f.mend) all.push_back(*f.mend);
  all.insert(all.end(), f.otherMends.begin(), f.otherMends.end());
  return all;
}

/// Where the middles of a structure's panels are.
std::vector<Vec3> middles(const Motion& motion, StructureId id, double opening_rad) {
  const Pose pose = motion.poseAt(opening_rad);
  std::vector<Vec3> all;
  for (PanelIndex p : motion.assembly().panels.indices())
    if (motion.assembly().panels[p].owner == id && pose.placed[p])
      all.push_back(pose.panels[p] * lift(centroidOf(motion.assembly().panels[p].outline)));
  return all;
}

} // namespace

class TestPieceMends : public QObject {
  Q_OBJECT
private slots:
  /// a + c = b + d: whatever is off by 1/8 in is out of step by 1/8 in, wherever the ring jams or
  /// leans beside the shut card.
  void outOfStepIsTheLengthThatIsOff_data() {
    QTest::addColumn<double>("foot");
    QTest::addColumn<double>("wall");
    QTest::addColumn<double>("off");
    QTest::newRow("a tab glued farther out") << 3.175 << 0.0 << 3.175;
    QTest::newRow("a tab glued nearer") << -3.175 << 0.0 << 3.175;
    QTest::newRow("a panel too wide") << 0.0 << 3.175 << 3.175;
    QTest::newRow("a panel too narrow") << 0.0 << -3.175 << 3.175;
    QTest::newRow("half a millimetre") << 0.5 << 0.0 << 0.5;
    QTest::newRow("both, which closes again") << 2.0 << -2.0 << 0.0;
  }
  void outOfStepIsTheLengthThatIsOff() {
    QFETCH(double, foot);
    QFETCH(double, wall);
    QFETCH(double, off);
    const Analysis analysis = checked(overGutter(38.1, 38.1 + foot, 50.8, 50.8 + wall));
    const Finding* f = findCode(analysis, "shut-flat");
    QCOMPARE(f != nullptr, off > 0);
    if (f) QVERIFY_NEAR(f->amount, off, 1e-5);
  }

  void everySingleChangeIsNamedTheNearestFirst() {
    // The score on top was set 2 mm too far: one panel 2 mm too wide, the next as much too narrow.
    const Design off = with(overGutter(40, 40, 50, 50), [](PieceWork& work) {
      work = *withScoreMoved(work, scoreMarks(work)[1].line, 60, false);
    });
    const Analysis analysis = checked(off, true);
    const Finding* f = findCode(analysis, "shut-flat");
    QVERIFY(f && f->mend);
    QCOMPARE(describe(*f->mend, off), std::string("Free piece s1: score 2 at 60 mm → 58 mm"));
    const auto all = mendsOf(*f);
    QVERIFY(all.size() >= 4); // either panel by 4 mm, either tab by 4 mm
    for (const Mend& mend : all) {
      const auto mended = applyMend(off, mend);
      QVERIFY(mended.ok());
      QVERIFY_NEAR(shutGap_mm(StructureId{1}, Motion::trace(assemble(*mended))), 0, 1e-6);
      for (const Finding& g : checked(*mended).findings)
        QVERIFY2(g.severity != Severity::Spoils, describe(g, *mended).c_str());
    }
  }

  /// Strips over the gutter, each with one score or one tab that slipped, beside a box that is
  /// right. HINGE_MENDS=500 tries so many mends.
  void noMendBringsATrouble() {
    const std::size_t wanted = qEnvironmentVariableIntValue("HINGE_MENDS") > 0
                                   ? qEnvironmentVariableIntValue("HINGE_MENDS")
                                   : 30;
    std::mt19937 random(17);
    const auto any = [&](double least, double most) {
      return std::uniform_real_distribution<double>(least, most)(random);
    };
    std::size_t tried = 0;
    int searched = 0;
    for (; tried < wanted && searched < 1000; ++searched) {
      const double a = any(22, 45), b = a + any(-6, 6), c = any(25, 50), d = a + c - b;
      const double slip = (random() % 2 == 0 ? 1 : -1) * any(0.4, 4);
      const auto which = random() % 5;
      Design off = with(overGutter(a, b, c, d), [&](PieceWork& work) {
        if (which >= 3) {
          work.joints[which - 3].to[static_cast<Eigen::Index>(random() % 2)] += slip;
          return;
        }
        const ScoreMark mark = scoreMarks(work)[which];
        if (const auto moved = withScoreMoved(work, mark.line, mark.low_mm + slip, false))
          work = *moved;
      });
      add(off, "box", "gutter", {{"position", 110}, {"length", 25}, {"a", 20}, {"c", 30}});
      const Analysis before = checked(off, true);
      for (const Finding& f : before.findings)
        for (const Mend& mend : mendsOf(f)) {
          ++tried;
          const auto mended = applyMend(off, mend);
          QVERIFY(mended.ok());
          for (const Finding& g : checked(*mended).findings)
            QVERIFY2(g.severity != Severity::Spoils ||
                         std::ranges::any_of(before.findings,
                                             [&](const Finding& old) {
                                               return sameTrouble(old, g) && !sameTrouble(f, g);
                                             }),
                     (describe(mend, off) + " brings: " + describe(g, *mended)).c_str());
        }
    }
    QVERIFY(tried >= wanted);
  }

  void aPieceThatIsNowhereIsJoinedElsewhere() {
    // One tab 3 mm farther along the gutter than the other: the ring closes at no opening.
    const Design off =
        with(overGutter(40, 40, 50, 50), [](PieceWork& work) { work.joints[1].to.x() += 3; });
    const Analysis analysis = checked(off, true);
    const Finding* f = findCode(analysis, "impossible");
    QVERIFY(f && f->mend);
    QVERIFY_NEAR(f->amount, 3, 1e-3);
    const auto mended = applyMend(off, *f->mend);
    QVERIFY(mended.ok());
    QCOMPARE(verdictKey(checked(*mended).verdict), verdictKey(Verdict::Good));
  }

  /// A tab by its wrong side, or turned round, is no matter of a length: the finding says which
  /// joint, and what it comes to is the card that was meant.
  void whatClosesTheWrongWayIsJoinedOtherwise_data() {
    QTest::addColumn<bool>("side");
    QTest::newRow("by the other side") << true;
    QTest::newRow("turned half round") << false;
  }
  void whatClosesTheWrongWayIsJoinedOtherwise() {
    QFETCH(bool, side);
    const Design good = overGutter(40, 40, 50, 50);
    QCOMPARE(checked(good).verdict, Verdict::Good);
    const Design off = with(good, [&](PieceWork& work) {
      auto& glue = std::get<given::Glue>(work.joints[1].kind);
      // Its score runs along y: by the other side the way across it stays.
      if (side)
        glue.byFace = false;
      else
        glue.turn_deg += 180;
    });
    const Analysis analysis = checked(off, true);
    QVERIFY(analysis.verdict == Verdict::Spoiled);
    const char* wanted = side ? "mend/other-side" : "mend/half-round";
    bool offered = false;
    for (const Finding& f : analysis.findings)
      for (const Mend& mend : mendsOf(f)) {
        if (mend.change.key != wanted) continue;
        offered = true;
        QVERIFY2(describe(mend, off).find("joint 2") != std::string::npos,
                 describe(mend, off).c_str());
        QCOMPARE(verdictKey(checked(*applyMend(off, mend)).verdict), verdictKey(Verdict::Good));
      }
    QVERIFY2(offered, describe(analysis.findings.front(), off).c_str());
  }

  /// Three walls in a loop sway; with a fold less they are the two that were meant.
  void aFoldThatNothingDrivesIsToldWhatCould() {
    Design d = card(150, 150);
    PieceWork work = strip({8, 50, 20, 30, 8}, 40, std::vector(4, WorkLine::Kind::Mountain));
    work.joints = {onPage('a', d, {4, 20}, 60, 36, true), onPage('b', d, {112, 20}, 60, 36, true)};
    d = addStructure(d, "piece", "gutter", {{"position", 0.0}}, work)->design;
    const Analysis analysis = checked(d, true);
    const Finding* f = findCode(analysis, "floppy");
    QVERIFY(f);
    bool keptFlat = false;
    for (const Mend& mend : mendsOf(*f)) {
      const Analysis after = checked(*applyMend(d, mend));
      QVERIFY2(!findCode(after, "floppy"), describe(mend, d).c_str());
      if (mend.change.key != "mend/kept-flat") continue;
      keptFlat = true;
      QVERIFY(after.verdict != Verdict::Spoiled);
    }
    QVERIFY(keptFlat);
  }

  void scoresThatAllGoTheOtherWay() {
    const Design off =
        *loadDesign(std::string(HINGE_TEST_DATA) + "/wrong/tower-marked-wrong.hinge");
    const Analysis analysis = checked(off, true);
    int found = 0;
    for (const Finding& f : analysis.findings) {
      if (f.code != "folds-other-way") continue;
      ++found;
      const auto all = mendsOf(f);
      QCOMPARE(all.size(), std::size_t(2)); // other marks, or the piece turned over
      for (const Mend& mend : all) {
        QVERIFY(!describe(mend, off).empty());
        for (const Finding& left : checked(*applyMend(off, mend)).findings)
          QVERIFY2(!sameTrouble(left, f), describe(left, off).c_str());
      }
    }
    QCOMPARE(found, 3);
  }

  /// Turned over, with its marks the other way round too, a piece is the same paper in the same
  /// place.
  void turnedOverItLiesWhereItLay_data() {
    QTest::addColumn<QString>("name");
    for (const char* name : {"steps-in-the-fold", "waving-boatmen", "night-ticket", "two-awnings",
                             "ferry-pass", "sail-to-raise", "lamp-lattice"})
      QTest::newRow(name) << name;
  }
  void turnedOverItLiesWhereItLay() {
    QFETCH(QString, name);
    const Design design = demo(name.toStdString());
    const Motion before = Motion::trace(assemble(design));
    int turned = 0;
    for (const StructureItem& item : design.structures) {
      if (!item.work || standingOn(design, item.id).size() > 1) continue;
      const bool closed = std::ranges::any_of(
          item.work->joints, [&](const PieceJoint& j) { return ownerOfKey(j.on) == item.id; });
      if (closed) continue; // its own faces have other names then
      PieceWork work = turnedOver(*item.work);
      turnMarks(work);
      const auto other = setWork(design, item.id, work);
      QVERIFY2(other.ok(), item.id.text().c_str());
      const Motion after = Motion::trace(assemble(*other));
      for (double share : {0.3, 0.5, 0.8}) {
        const double t = before.low_rad() + share * (before.high_rad() - before.low_rad());
        const auto was = middles(before, item.id, t), is = middles(after, item.id, t);
        QCOMPARE(is.size(), was.size());
        for (const Vec3& one : was) {
          double nearest = 1e300;
          for (const Vec3& there : is)
            nearest = std::min(nearest, (there - one).norm());
          QVERIFY2(nearest < 1e-4,
                   fmt::format("{} at {}: {}", item.id.text(), degrees(t), nearest).c_str());
        }
      }
      ++turned;
    }
    QVERIFY(turned > 0);
  }
};

QTEST_APPLESS_MAIN(TestPieceMends)
#include "test_piece_mends.moc"
