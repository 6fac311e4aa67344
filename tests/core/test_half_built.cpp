// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/making/partly_built.h"
#include "core/making/patches.h"
#include "core/model/snapshot.h"
#include "core/states/glue_lines.h"
#include "core/states/lift.h"
#include "core/states/lying.h"
#include "core/states/ties.h"
#include <numeric>
#include <random>
#include <set>
#endif

using namespace hinge;
using namespace hinge::test;

// What holds together and where it is while a card is made, against plain ways to find the same:
// taking each joint away, looking whether hinges meet, measuring.

namespace {

constexpr const char* kCards[] = {"night-market",  "ferry-pass", "canal-houses", "waving-boatmen",
                                  "paddle-wheels", "oil-sleeve", "market-table", "tea-chests"};

struct Made {
  std::unique_ptr<Snapshot> snapshot;
  std::shared_ptr<const Motion> motion;
  const Assembly& assembly() const { return motion->assembly(); }
};

Made made(const std::string& name) {
  Made m{std::make_unique<Snapshot>(demo(name)), nullptr};
  m.motion = m.snapshot->motion();
  if (!m.motion) qFatal("%s has no motion", name.c_str());
  return m;
}

/// Numbers that are joined one after another.
class Groups {
public:
  explicit Groups(std::size_t count) : m_to(count) { std::iota(m_to.begin(), m_to.end(), 0U); }
  std::size_t of(std::size_t k) { return m_to[k] == k ? k : m_to[k] = of(m_to[k]); }
  void join(std::size_t a, std::size_t b) { m_to[of(a)] = of(b); }

private:
  std::vector<std::size_t> m_to;
};

std::size_t at(auto index) {
  return static_cast<std::size_t>(index.value);
}

/// What is connected when one pair is missing.
Groups groupsWithout(const Mechanism& m, PairIndex missing) {
  Groups groups(m.bodies.size());
  for (PairIndex p : m.pairs.indices())
    if (p != missing) groups.join(at(m.pairs[p].left), at(m.pairs[p].right));
  return groups;
}

/// Joints that are made by chance, and those that come made.
MadeJoints someMade(const Assembly& assembly, std::mt19937& chance, double share) {
  MadeJoints joints = madeAtFirst(assembly);
  std::bernoulli_distribution make(share);
  for (JointIndex j : joints.indices())
    if (make(chance)) joints[j] = 1;
  return joints;
}

/// By how much folds and made glue are torn between panels that are placed.
double torn_mm(const Assembly& assembly, const MadeJoints& joints, const Pose& pose) {
  double worst = 0;
  const auto apart = [&](PanelIndex a, PanelIndex b, const Vec3& onA, const Vec3& onB) {
    if (pose.placed[a] && pose.placed[b])
      worst = std::max(worst, (pose.panels[a] * onA - pose.panels[b] * onB).norm());
  };
  for (const Fold& fold : assembly.folds)
    for (const Vec2& end : {fold.from, fold.to})
      apart(fold.left, fold.right, lift(end), lift(end));
  for (const auto& [j, glue] : assembly.every<Glue>()) {
    if (!joints[j]) continue;
    for (const Vec2& corner : assembly.panels[glue.tab].outline.rim)
      apart(glue.tab, glue.host, lift(corner), glue.tabToHost * lift(corner));
  }
  return worst;
}

/// Turned about the fold of a swing.
Pose swung(Pose pose, const PartlyBuilt::Swing& swing, double by_rad) {
  const Iso3& frame = pose.panels[swing.from];
  const Vec3 origin = frame * swing.origin, axis = frame.linear() * swing.axis;
  const Iso3 turn = Eigen::Translation3d(origin) * Eigen::AngleAxisd(by_rad, axis) *
                    Eigen::Translation3d(-origin);
  for (PanelIndex p : swing.panels)
    pose.panels[p] = turn * pose.panels[p];
  return pose;
}

} // namespace

class TestHalfBuilt : public QObject {
  Q_OBJECT
private slots:
  // --- what holds together -------------------------------------------------------------------
  void ringsAreWhatNoSinglePairHolds() {
    std::mt19937 chance(11);
    for (const char* name : kCards) {
      const Made card = made(name);
      for (const double share : {0.3, 0.7, 1.0}) {
        const Mechanism m = heldBy(card.assembly(), someMade(card.assembly(), chance, share));
        const std::vector<int> ring = ringNumbers(m);
        std::vector<Groups> without;
        for (PairIndex p : m.pairs.indices())
          without.push_back(groupsWithout(m, p));
        Groups whole = groupsWithout(m, {});
        for (std::size_t a = 0; a < m.bodies.size(); ++a)
          for (std::size_t b = a + 1; b < m.bodies.size(); ++b) {
            const bool always =
                whole.of(a) == whole.of(b) &&
                std::ranges::all_of(without, [&](Groups& g) { return g.of(a) == g.of(b); });
            QVERIFY2((ring[a] == ring[b]) == always, name);
          }
      }
    }
  }
  void everyJointMadeIsTheWholeCard() {
    for (const char* name : kCards) {
      const Made card = made(name);
      MadeJoints all;
      all.assign(card.assembly().joints.size(), 1);
      const Mechanism held = heldBy(card.assembly(), all), &whole = card.motion->mechanism();
      QCOMPARE(held.bodies.size(), whole.bodies.size());
      QCOMPARE(held.pairs.size(), whole.pairs.size());
      for (PanelIndex a : card.assembly().panels.indices())
        for (PanelIndex b : card.assembly().panels.indices())
          QCOMPARE(held.bodyOf[a] == held.bodyOf[b], whole.bodyOf[a] == whole.bodyOf[b]);
    }
  }
  void onlyWhatComesMadeIsMadeAtFirst() {
    std::size_t ready = 0;
    for (const char* name : {"night-market", "canal-houses", "harbour-album", "two-quays"}) {
      const Assembly assembly = *assemble(demo(name));
      const MadeJoints first = madeAtFirst(assembly);
      for (JointIndex j : assembly.joints.indices()) {
        bool all = true;
        for (const PanelIndex p : panelsOf(assembly.joints[j])) {
          const std::size_t piece = at(assembly.panels[p].piece);
          all = all && piece < assembly.readyMade.size() && assembly.readyMade[piece] != 0;
        }
        QCOMPARE(first[j] != 0, all);
        ready += all;
      }
    }
    QVERIFY(ready > 0); // a small card within a large one
  }
  void panelsAreTogetherWhenFoldsAndMadeJointsJoinThem() {
    std::mt19937 chance(12);
    for (const char* name : kCards) {
      const Made card = made(name);
      const Assembly& assembly = card.assembly();
      for (const double share : {0.2, 0.5, 0.8}) {
        const MadeJoints joints = someMade(assembly, chance, share);
        Groups groups(assembly.panels.size());
        for (const Fold& fold : assembly.folds)
          groups.join(at(fold.left), at(fold.right));
        for (JointIndex j : assembly.joints.indices())
          // A band or a film guides nothing.
          if (joints[j] && !tieOf(assembly.joints[j])) {
            const auto [a, b] = panelsOf(assembly.joints[j]);
            groups.join(at(a), at(b));
          }
        for (const Carried& carried : assembly.carried)
          groups.join(at(carried.panel), at(carried.host));
        const std::vector<int> rank;
        const PartlyBuilt built(*card.motion, joints, rank);
        for (PanelIndex a : assembly.panels.indices()) {
          QCOMPARE(built.onCard(a), groups.of(at(a)) == groups.of(at(assembly.root)));
          for (PanelIndex b : assembly.panels.indices())
            QVERIFY2(built.together(a, b) == (groups.of(at(a)) == groups.of(at(b))), name);
        }
      }
    }
  }

  // --- where it is ---------------------------------------------------------------------------
  void aHalfBuiltCardIsNowhereTorn() {
    std::mt19937 chance(13);
    int flat = 0, standing = 0;
    for (const char* name : kCards) {
      const Made card = made(name);
      for (const double share : {0.0, 0.3, 0.6, 1.0}) {
        const MadeJoints joints = someMade(card.assembly(), chance, share);
        const std::vector<int> rank;
        const PartlyBuilt built(*card.motion, joints, rank);
        for (const double opening : {radians(60), radians(120), radians(170)})
          for (const Hanging how : {Hanging::Flat, Hanging::Standing}) {
            LayerOffsets off;
            const Pose pose = built.poseAt(opening, how, card.assembly().root, off);
            const Pose whole = card.motion->poseAt(opening);
            QVERIFY2(torn_mm(card.assembly(), joints, pose) < 1e-4 + 2 * whole.residual_mm, name);
            bool moved = false;
            for (PanelIndex p : card.assembly().panels.indices()) {
              if (!built.onCard(p)) QVERIFY(!pose.placed[p]);
              if (pose.placed[p] && whole.placed[p])
                moved = moved || !pose.panels[p].isApprox(whole.panels[p], 1e-6);
            }
            (how == Hanging::Standing ? standing : flat) += moved;
          }
      }
    }
    QCOMPARE(standing, 0); // as in the finished card
    QVERIFY(flat > 20);
  }
  void aFinishedCardHasNothingThatHangs() {
    for (const char* name : {"night-market", "canal-houses", "tea-chests"}) {
      const Made card = made(name);
      MadeJoints all;
      all.assign(card.assembly().joints.size(), 1);
      const std::vector<int> rank;
      const PartlyBuilt built(*card.motion, all, rank);
      LayerOffsets off;
      const Pose pose = built.poseAt(2, Hanging::Flat, card.assembly().root, off),
                 whole = card.motion->poseAt(2);
      const auto& held = card.motion->mechanism();
      const std::vector<int> ring = ringNumbers(held);
      for (PanelIndex p : card.assembly().panels.indices())
        if (ring[at(held.bodyOf[p])] == ring[at(held.bodyOf[card.assembly().root])])
          QVERIFY2(pose.panels[p].isApprox(whole.panels[p], 1e-6), name);
    }
  }
  void whatSwingsTearsNothing() {
    std::mt19937 chance(14);
    int swings = 0, held = 0;
    for (const char* name : kCards) {
      const Made card = made(name);
      const Assembly& assembly = card.assembly();
      for (const double share : {0.2, 0.5, 0.9}) {
        const MadeJoints joints = someMade(assembly, chance, share);
        const std::vector<int> rank;
        const PartlyBuilt built(*card.motion, joints, rank);
        const Pose pose = card.motion->poseAt(1.5);
        const double before = torn_mm(assembly, joints, pose);
        for (PanelIndex p : assembly.panels.indices()) {
          if (p == assembly.root || !built.onCard(p)) continue;
          const auto swing = built.swingOf(p, assembly.root);
          if (!swing) {
            ++held;
            continue;
          }
          ++swings;
          const std::set<PanelIndex> moves(swing->panels.begin(), swing->panels.end());
          QCOMPARE(moves.size(), swing->panels.size());
          QVERIFY2(moves.contains(p) && !moves.contains(assembly.root), name);
          for (const double by : {0.4, -1.1})
            QVERIFY2(torn_mm(assembly, joints, swung(pose, *swing, by)) < before + 1e-6, name);
        }
      }
    }
    QVERIFY(swings > 50 && held > 50);
  }
  void whatIsNotJoinedDoesNotSwing() {
    const Made card = made("night-market");
    MadeJoints none;
    none.assign(card.assembly().joints.size(), 0);
    const std::vector<int> rank;
    const PartlyBuilt built(*card.motion, none, rank);
    for (PanelIndex p : card.assembly().panels.indices())
      if (!built.onCard(p)) QVERIFY(!built.swingOf(p, card.assembly().root));
  }

  // --- what lies glued -----------------------------------------------------------------------
  void everyGlueCoversAPlaceOnBothSheets() {
    for (const char* name : kCards) {
      const Made card = made(name);
      const Assembly& assembly = card.assembly();
      const Patches patches(assembly, card.motion->mechanism());
      std::size_t glues = 0;
      for (const auto& [j, glue] : assembly.every<Glue>()) {
        ++glues;
        const Patch &host = patches.all()[patches.onHost(j)],
                    &tab = patches.all()[patches.onTab(j)];
        QVERIFY(host.panel == glue.host && host.other == glue.tab && host.glue == j);
        QVERIFY(tab.panel == glue.tab && tab.other == glue.host && tab.glue == j);
        QVERIFY_NEAR(area_mm2(host.outline), area_mm2(assembly.panels[glue.tab].outline), 1e-6);
        QVERIFY_NEAR(area_mm2(tab.outline), area_mm2(assembly.panels[glue.host].outline), 1e-6);
      }
      QCOMPARE(patches.all().size(), 2 * glues);
      for (std::size_t k = 0; k < patches.all().size(); ++k)
        for (std::size_t other : patches.beside(k)) {
          const Patch &a = patches.all()[k], &b = patches.all()[other];
          QVERIFY(a.panel == b.panel && a.onFace == b.onFace && k != other);
          QVERIFY(std::ranges::count(patches.beside(other), k) == 1);
        }
    }
  }
  void patchesThatOverlapAreBesideOneAnother() {
    for (const char* name : kCards) {
      const Made card = made(name);
      const Patches patches(card.assembly(), card.motion->mechanism());
      for (std::size_t a = 0; a < patches.all().size(); ++a)
        for (std::size_t b = a + 1; b < patches.all().size(); ++b) {
          const Patch &p = patches.all()[a], &q = patches.all()[b];
          if (p.panel != q.panel || p.onFace != q.onFace) continue;
          if (!common(p.outline, q.outline).empty())
            QVERIFY2(std::ranges::count(patches.beside(a), b) == 1, name);
        }
    }
  }
  void aFootStaysWhereItsWallStands() {
    std::size_t feet = 0;
    for (const char* name : kCards) {
      const Made card = made(name);
      const Patches patches(card.assembly(), card.motion->mechanism());
      for (const Foot& foot : patches.feet()) {
        const PanelIndex panel = patches.all()[foot.patch].panel;
        std::optional<Vec3> first;
        for (const double opening : {0.7, 1.4, 2.1}) {
          const Pose pose = card.motion->poseAt(opening);
          if (!pose.placed[panel] || !pose.placed[foot.wall]) continue;
          const Vec3 inWall =
              pose.panels[foot.wall].inverse() * (pose.panels[panel] * lift(foot.from));
          QVERIFY2(std::abs(inWall.z()) < 1e-3, name); // a line of the wall
          if (first) QVERIFY2((inWall - *first).norm() < 1e-3, name);
          first = inWall, ++feet;
        }
      }
    }
    QVERIFY(feet > 100);
  }
  void wallsRiseAsHighAsTheirAngleSays() {
    std::size_t lines = 0;
    for (const char* name : kCards) {
      const Made card = made(name);
      const Assembly& assembly = card.assembly();
      for (const GlueLine& line : glueLines(assembly))
        for (const double opening : {1.0, 2.0}) {
          const Pose pose = card.motion->poseAt(opening);
          if (!line.placedIn(pose)) continue;
          const Iso3 inHost = pose.panels[line.host].inverse() * pose.panels[line.wall];
          const Vec3 toWall = inHost.inverse() * lift(line.middle);
          for (const Vec2& corner : assembly.panels[line.wall].outline.rim) {
            const double into = line.into.dot(lift(corner) - toWall);
            QVERIFY2(std::abs(line.side.dot(inHost * lift(corner)) - line.rise(pose) * into) < 1e-3,
                     name);
          }
          ++lines;
        }
    }
    QVERIFY(lines > 50);
  }
  void whatIsGluedOnLiesOver() {
    for (const char* name : kCards) {
      const Made card = made(name);
      const Pose pose = card.motion->poseAt(1.2);
      Lying lying(card.assembly(), pose);
      for (const auto& [j, glue] : card.assembly().every<Glue>()) {
        if (card.assembly().glueOf(glue.tab) != &glue || !pose.placed[glue.tab]) continue;
        const Vec3 normal = pose.panels[glue.host].linear().col(2);
        const double over = normal.dot(lying.off_mm(glue.tab) - lying.off_mm(glue.host));
        QVERIFY_NEAR(over, (glue.onHostFace() ? 1 : -1) * (Lying::kStep_mm + glue.raised_mm), 1e-9);
      }
      QVERIFY(lying.off_mm(card.assembly().root).norm() < 1e-12);
    }
  }

  // --- what hands and bands do ---------------------------------------------------------------
  void whatAHandMovesStaysOnItsHinges() {
    std::size_t lifts = 0;
    for (const auto& entry : QDir(HINGE_SOURCE_DIR "/demo").entryList({"*.hinge"})) {
      const std::string name = entry.chopped(6).toStdString();
      const auto assembly = assemble(demo(name));
      if (assembly->lifts.empty()) continue;
      const auto motion = std::make_shared<const Motion>(Motion::trace(assembly));
      MadeJoints all;
      all.assign(assembly->joints.size(), 1);
      const Pose pose = motion->poseAt(0.9 * motion->high_rad());
      const double before = torn_mm(*assembly, all, pose);
      for (const Lift& by : assembly->lifts) {
        const std::set<PanelIndex> moves(by.panels.begin(), by.panels.end());
        const Pose still = lifted(*assembly, pose, by, 0);
        for (const double share : {0.35, 1.0}) {
          const Pose moved = lifted(*assembly, pose, by, share);
          QVERIFY2(torn_mm(*assembly, all, moved) < before + 1e-3, name.c_str());
          for (PanelIndex p : assembly->panels.indices())
            if (!moves.contains(p) && pose.placed[p])
              QVERIFY2(moved.panels[p].isApprox(pose.panels[p], 1e-9), name.c_str());
        }
        for (PanelIndex p : by.panels)
          if (pose.placed[p])
            QVERIFY2(still.panels[p].isApprox(pose.panels[p], 1e-4), name.c_str());
        ++lifts;
      }
    }
    QVERIFY2(lifts > 4, std::to_string(lifts).c_str());
  }
  void platesAreThePaperOfAPanel() {
    const Made card = made("lantern-through-the-wall");
    const Pose pose = card.motion->poseAt(1.3);
    for (PanelIndex p : card.assembly().panels.indices()) {
      if (!pose.placed[p]) continue;
      double area = 0;
      for (const auto& plate : platesOf(card.assembly(), p, pose))
        for (std::size_t k = 2; k < plate.size(); ++k)
          area += 0.5 * (plate[k - 1] - plate[0]).cross(plate[k] - plate[0]).norm();
      QVERIFY_NEAR(area, area_mm2(card.assembly().panels[p].outline), 0.01);
    }
  }
  void bandsAreAsLongAsTheyAreMeasured() {
    for (const char* name : {"oil-sleeve", "pop-up-lantern"}) {
      const Made card = made(name);
      for (const Joint& joint : card.assembly().joints) {
        const Tie* tie = tieOf(joint);
        if (!tie) continue;
        const auto apart = [&](double opening) {
          const Pose pose = opening > 0 ? card.motion->poseAt(opening) : card.motion->shutPose();
          return (pose.panels[tie->panels[0]] * lift(tie->at[0]) -
                  pose.panels[tie->panels[1]] * lift(tie->at[1]))
              .norm();
        };
        const TieTravel travel = travelOf(*tie, *card.motion, 1.5);
        QVERIFY(travel.known);
        QVERIFY_NEAR(travel.shut_mm, apart(0), 1e-9);
        QVERIFY_NEAR(travel.shown_mm, apart(1.5), 1e-9);
        QVERIFY_NEAR(travel.longest_mm, apart(travel.longest_rad), 1e-9);
        for (int k = 0; k <= 60; ++k) {
          const double d = apart(kPi * k / 60);
          QVERIFY(d < travel.longest_mm + 1e-9 && d > travel.shortest_mm - 1e-9);
        }
        // Taut from where it is as long as it is without force.
        Tie half = *tie;
        half.length_mm = 0.5 * (travel.shortest_mm + travel.longest_mm);
        const TieTravel taut = travelOf(half, *card.motion, 1.5);
        if (travel.longest_mm - travel.shortest_mm < 1) continue;
        QVERIFY(taut.tautTo_rad > taut.tautFrom_rad);
        if (taut.tautFrom_rad > 0) QVERIFY_NEAR(apart(taut.tautFrom_rad), half.length_mm, 0.1);
        if (taut.tautTo_rad < kPi) QVERIFY_NEAR(apart(taut.tautTo_rad), half.length_mm, 0.1);
        half.length_mm = travel.longest_mm + 1;
        QCOMPARE(travelOf(half, *card.motion, 1.5).tautTo_rad, 0.0);
      }
    }
  }
};

QTEST_GUILESS_MAIN(TestHalfBuilt)
#include "test_half_built.moc"
