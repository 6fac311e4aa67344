// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/contact/swept.h"
#include "core/geom/symmetric.h"
#include "core/making/walls.h"
#include "core/model/snapshot.h"
#include <random>
#include <set>
#endif

using namespace hinge;
using namespace hinge::test;

// What trees, sweeps and boxes find quickly, against trying everything.

namespace {

/// Whether a straight way goes through the paper of a panel; nothing where it is too near to an
/// edge to say.
std::optional<bool> through(const Region& outline, const Iso3& pose, const Vec3& from,
                            const Vec3& to) {
  const Vec3 normal = pose.linear().col(2), at = pose.translation();
  const double before = normal.dot(from - at), after = normal.dot(to - at);
  if (std::min(std::abs(before), std::abs(after)) < 1e-6) return std::nullopt;
  if (before * after > 0) return false;
  const Vec3 hit = from + (to - from) * (before / (before - after));
  const Vec2 flat = (pose.inverse() * hit).head<2>();
  if (distanceToOutline(outline, flat) < 1e-6) return std::nullopt;
  return contains(outline, flat);
}

class Chance {
public:
  double between(double low, double high) {
    return std::uniform_real_distribution(low, high)(m_engine);
  }
  Vec3 point(double low, double high) {
    return {between(low, high), between(low, high), between(low, high)};
  }

private:
  std::mt19937 m_engine{20'261};
};

} // namespace

class TestWalls : public QObject {
  Q_OBJECT
private slots:
  void boxesThatMeet() {
    Chance chance;
    for (int round = 0; round < 20; ++round) {
      std::vector<SweptBox> boxes;
      for (int k = 0; k < 60; ++k) {
        const Vec3 low = chance.point(0, 100);
        boxes.push_back({low, low + chance.point(1, 40), k});
      }
      std::set<std::pair<int, int>> expected;
      for (int a = 0; a < 60; ++a)
        for (int b = a + 1; b < 60; ++b) {
          bool meet = true;
          for (int axis : {0, 1, 2}) {
            const SweptBox &p = boxes[static_cast<std::size_t>(a)],
                           &q = boxes[static_cast<std::size_t>(b)];
            meet = meet && p.low[axis] < q.high[axis] && q.low[axis] < p.high[axis];
          }
          if (meet) expected.insert({a, b});
        }
      const auto found = meetingBoxes(boxes);
      QCOMPARE(found.size(), expected.size()); // each once
      QVERIFY(std::set(found.begin(), found.end()) == expected);
      QVERIFY(!expected.empty());
    }
  }

  void boxesHoldWhatMoves() {
    for (const char* name : {"night-market", "ferry-pass", "paddle-wheels"}) {
      const auto motion = Snapshot(demo(name)).motion();
      QVERIFY(motion);
      const Assembly& assembly = motion->assembly();
      for (double from : {0.4, 1.2, 2.0}) {
        const double to = from + radians(6);
        const Pose a = motion->poseAt(from), b = motion->poseAt(0.5 * (from + to)),
                   c = motion->poseAt(to);
        const ThreePoses three{&a, &b, &c};
        for (PanelIndex p : assembly.panels.indices()) {
          QCOMPARE(present(p, three), a.placed[p] && b.placed[p] && c.placed[p]);
          if (!present(p, three)) continue;
          std::vector<Vec3> corners;
          for (const Vec2& corner : assembly.panels[p].outline.rim)
            corners.push_back(lift(corner));
          const SweptBox tight = sweptBox({corners}, p, three, 0);
          const SweptBox wide = sweptBox({corners}, p, three, 5);
          for (int k = 0; k <= 12; ++k) {
            const Pose at = motion->poseAt(from + (to - from) * k / 12);
            for (const Vec3& corner : corners) {
              const Vec3 q = at.panels[p] * corner;
              QVERIFY(((q - tight.low).array() > -1e-6).all());
              QVERIFY(((tight.high - q).array() > -1e-6).all());
            }
          }
          // The margin holds unless the bend of the path is more than that already.
          QVERIFY(((tight.low - wide.low).array() > -1e-9).all());
          const double bend = (0.5 * (wide.high - wide.low - tight.high + tight.low)).maxCoeff();
          QVERIFY(bend <= 5 + 1e-9);
        }
      }
    }
  }

  void stretchesCoverTheMotion() {
    const auto motion = Snapshot(demo("night-market")).motion();
    const auto stretches = stretchesOf(*motion, radians(10), 1e-9);
    QVERIFY_NEAR(stretches.front().first, motion->assembly().low_rad, 1e-12);
    QVERIFY_NEAR(stretches.back().second, motion->assembly().high_rad, 1e-12);
    for (std::size_t k = 0; k < stretches.size(); ++k) {
      const auto& [low, high] = stretches[k];
      QVERIFY(high > low && high - low <= radians(10) + 1e-12);
      if (k > 0) QVERIFY_NEAR(low, stretches[k - 1].second, 1e-12);
    }
    QCOMPARE(stretchesOf(*motion, 100, 1e-9).size(), std::size_t(1));
    QVERIFY(stretchesOf(*motion, radians(10), 100).empty());
  }

  void waysThroughPanels_data() {
    QTest::addColumn<QString>("name");
    for (const char* name : {"night-market", "ferry-pass", "paddle-wheels", "oil-sleeve"})
      QTest::newRow(name) << QString::fromUtf8(name);
  }
  void waysThroughPanels() {
    QFETCH(QString, name);
    const auto motion = Snapshot(demo(name.toStdString())).motion();
    QVERIFY(motion);
    const Assembly& assembly = motion->assembly();
    const double mid = 0.5 * (motion->low_rad() + motion->high_rad());
    const Walls walls(assembly, motion->poseAt(mid));
    const Pose& pose = walls.pose();
    Chance chance;
    int blocked = 0, clear = 0;
    for (int round = 0; round < 400; ++round) {
      const Vec3 from = chance.point(-120, 200), to = chance.point(-120, 200);
      const int kind = round % 3; // all panels count, or one in two
      const auto counts = [&](PanelIndex p) { return kind == 0 || p.value % 2 == kind - 1; };
      bool expected = false, sure = true;
      for (PanelIndex p : assembly.panels.indices()) {
        if (!pose.placed[p] || !counts(p)) continue;
        const auto one = through(assembly.panels[p].outline, pose.panels[p], from, to);
        if (!one) sure = false;
        expected = expected || one.value_or(false);
      }
      if (!sure) continue;
      QCOMPARE(walls.inTheWay(from, to, counts), expected);
      QCOMPARE(walls.inTheWay(to, from, counts), expected);
      ++(expected ? blocked : clear);
    }
    QVERIFY2(blocked > 40 && clear > 40,
             qPrintable(QStringLiteral("%1 %2").arg(blocked).arg(clear)));
  }

  void aFingerHasRoomWhereNothingStands() {
    // A card that is open flat with nothing on it, and then half shut: beside the fold a finger of
    // 6 mm finds no way straight to the page, farther out it does.
    const auto motion = Snapshot(card()).motion();
    QVERIFY(motion);
    const Assembly& assembly = motion->assembly();
    const auto all = [](PanelIndex) { return true; };
    const Walls flat(assembly, motion->poseAt(kPi));
    const Vec3 up = flat.pose().panels[assembly.root].linear().col(2);
    const Vec3 middle = flat.pose().panels[assembly.root] *
                        lift(boundsOf(assembly.panels[assembly.root].outline).centre());
    QVERIFY(flat.haveRoom(middle, up, 6, all, Walls::kWays)); // from everywhere
    const Walls narrow(assembly, motion->poseAt(radians(10)));
    const Iso3& page = narrow.pose().panels[assembly.root];
    const Vec3 inside = page.linear().col(2);
    const Box2 box = boundsOf(assembly.panels[assembly.root].outline);
    const auto at = [&](double fromFold_mm) {
      return Vec3(page * lift(Vec2(box.high.x() - fromFold_mm, box.centre().y())));
    };
    // At 10 degrees the pages are 12 mm apart at 69 mm from the fold.
    QVERIFY(!narrow.haveRoom(at(30), inside, 6, all));
    QVERIFY(narrow.haveRoom(at(120), inside, 6, all));
    QVERIFY(narrow.haveRoom(at(30), inside, 6, [&](PanelIndex p) { return p == assembly.root; }));
    // At 40 degrees something thin slips in level, something thick does not.
    const Walls half(assembly, motion->poseAt(radians(40)));
    const Iso3& there = half.pose().panels[assembly.root];
    const Vec3 low = there * lift(Vec2(box.high.x() - 30, box.centre().y()));
    QVERIFY(half.haveRoom(low, there.linear().col(2), 1, all));
    QVERIFY(!half.haveRoom(low, there.linear().col(2), 15, all));
    // From outside nothing is in the way.
    QVERIFY(narrow.haveRoom(at(30), -inside, 6, all, Walls::kWays));
  }

  void symmetricMatrices() {
    const double a = 3, b = 1, turn = radians(30), c = std::cos(turn), s = std::sin(turn);
    Eigen::MatrixXd matrix(2, 2);
    matrix << a * c * c + b * s * s, (a - b) * c * s, (a - b) * c * s, a * s * s + b * c * c;
    const SymmetricParts parts = symmetricParts(matrix);
    QVERIFY_NEAR(parts.values[0], 1, 1e-12);
    QVERIFY_NEAR(parts.values[1], 3, 1e-12);
    QVERIFY_NEAR(std::abs(parts.vectors(0, 1)), c, 1e-12);
    QVERIFY_NEAR(std::abs(parts.vectors(1, 1)), s, 1e-12);
    QVERIFY_NEAR(parts.vectors.col(0).dot(parts.vectors.col(1)), 0, 1e-12);
  }
};

QTEST_GUILESS_MAIN(TestWalls)
#include "test_walls.moc"
