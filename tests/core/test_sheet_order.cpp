// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN
#include "core/motion/openings.h"
#include "core/states/lying.h"
#include "core/states/order_solver.h"
#include "words/words.h"
#endif

using namespace hinge;
using namespace hinge::test;

/// What lies on what: statements and what ties them, and the openings at which it is looked at.
class TestSheetOrder : public QObject {
  Q_OBJECT
private slots:
  void whatIsAlikeFollows();
  void ofThreeNoneLiesOverAndUnder();
  void aContradictionLeavesWhatWasKnown();
  void groupsCountOnlyWhenAskedFor();
  void whatIsLeftOpenIsTriedOut();
  void aSearchThatIsCutOffSaysSo();
  void noDriveTurnsByMoreThanAStep();
  void hitsDoNotHangOnTheSizeOfThePages();
  void checkPictureAndShutCardHaveOneOrder_data();
  void checkPictureAndShutCardHaveOneOrder();
};

using L = OrderSolver::Literal;

namespace {

OrderSolver::Found found(const OrderSolver& order, int tries) {
  OrderSolver::Known known = order.nothing();
  const auto how = order.decide(known, tries);
  // What was found leaves nothing open.
  if (how == OrderSolver::Found::Yes && std::ranges::count(known, 0) > 0)
    qFatal("something is left open");
  return how;
}

} // namespace

void TestSheetOrder::whatIsAlikeFollows() {
  OrderSolver order;
  const int a = order.addStatement(), b = order.addStatement(), c = order.addStatement();
  order.addEven({{a}, {b}});        // both or neither
  order.addEven({{b}, {c, false}}); // b or c
  auto known = order.nothing();
  QVERIFY(order.take({a}, known));
  QCOMPARE(int(known[std::size_t(b)]), 1);
  QCOMPARE(int(known[std::size_t(c)]), -1);
}

void TestSheetOrder::ofThreeNoneLiesOverAndUnder() {
  // b over a and c over b: then a is not over c.
  OrderSolver order;
  const int ab = order.addStatement(), bc = order.addStatement(), ca = order.addStatement();
  order.addUnlike({ab}, {bc}, {ca});
  auto known = order.nothing();
  QVERIFY(order.take({ab}, known) && order.take({bc}, known));
  QCOMPARE(int(known[std::size_t(ca)]), -1);
}

void TestSheetOrder::aContradictionLeavesWhatWasKnown() {
  OrderSolver order;
  const int a = order.addStatement(), b = order.addStatement();
  order.addEven({{a}, {b}});
  auto known = order.nothing();
  QVERIFY(order.take({a}, known));
  const auto before = known;
  QVERIFY(!order.take({b, false}, known));
  QCOMPARE(known, before);
}

void TestSheetOrder::groupsCountOnlyWhenAskedFor() {
  OrderSolver order;
  const int a = order.addStatement(), b = order.addStatement();
  order.addEven({{a}, {b}}, 1);
  auto known = order.nothing();
  QVERIFY(order.take({a}, known) && order.take({b, false}, known));
  QVERIFY(!order.settle(known, 1));
  QVERIFY(order.settle(known, 2));
}

void TestSheetOrder::whatIsLeftOpenIsTriedOut() {
  // Three statements of which, two by two, one is true: impossible, and nothing follows from
  // anything before one is tried.
  OrderSolver order;
  const int a = order.addStatement(), b = order.addStatement(), c = order.addStatement();
  for (const auto& [one, other] : {std::pair{a, b}, std::pair{b, c}, std::pair{c, a}})
    order.addEven({{one}, {other, false}});
  QCOMPARE(found(order, 100), OrderSolver::Found::No);
  OrderSolver possible;
  const int d = possible.addStatement(), e = possible.addStatement();
  possible.addEven({{d}, {e, false}});
  QCOMPARE(found(possible, 100), OrderSolver::Found::Yes);
}

void TestSheetOrder::aSearchThatIsCutOffSaysSo() {
  OrderSolver order;
  const int a = order.addStatement(), b = order.addStatement();
  order.addEven({{a}, {b}});
  QCOMPARE(found(order, 0), OrderSolver::Found::CutOff);
  // Which is told as a verdict of its own kind, never as good.
  const Finding open{"order-open", Severity::Spoils, {"card"}};
  QVERIFY(QString::fromStdString(describe(open, card())).startsWith("Not fully checked"));
}

void TestSheetOrder::noDriveTurnsByMoreThanAStep() {
  Assembly assembly = *assemble(card());
  assembly.drives.front().from_rad = radians(50), assembly.drives.front().to_rad = radians(50.4);
  const double step = radians(2);
  const auto openings = openingsToLookAt(assembly, step);
  QCOMPARE(openings.front(), 0.0);
  QCOMPARE(openings.back(), kPi);
  for (std::size_t k = 0; k + 1 < openings.size(); ++k) {
    QVERIFY(openings[k] < openings[k + 1]);
    QVERIFY(turnBetween(assembly, openings[k], openings[k + 1]) < step + 1e-12);
  }
  // 180 degrees in steps of 2 within four tenths of a degree.
  const auto within = [&](double t) { return t > radians(50) - 1e-9 && t < radians(50.4) + 1e-9; };
  QCOMPARE(std::ranges::count_if(openings, within), std::ptrdiff_t(91));
}

void TestSheetOrder::hitsDoNotHangOnTheSizeOfThePages() {
  const auto design = loadDesign(HINGE_TEST_DATA "/wrong/step-through-flap.hinge");
  const auto hits = [](const Design& d) {
    std::vector<double> depths;
    for (const InPlaneHit& hit : findInPlaneHits(*checked(d).motion).hits)
      depths.push_back(hit.depth_mm);
    return depths;
  };
  const auto found = hits(*design);
  QVERIFY(!found.empty());
  Design larger = *design; // a larger card: the same step stands through the same flap
  larger.card.height_mm += 40;
  QCOMPARE(hits(larger).size(), found.size());
  QVERIFY(hits(card()).empty());
}

void TestSheetOrder::checkPictureAndShutCardHaveOneOrder_data() {
  QTest::addColumn<QString>("with");
  QTest::newRow("ferry-pass") << "a band round an insert that slides under a pocket front";
  QTest::newRow("harbour-album") << "a small card on a page";
  QTest::newRow("night-ticket") << "flaps folded over one another";
  QTest::newRow("sail-to-raise") << "a leaf lifted by hand";
  QTest::newRow("waving-boatmen") << "arms on pins";
  QTest::newRow("lantern-tower") << "belts over tiers";
}

void TestSheetOrder::checkPictureAndShutCardHaveOneOrder() {
  const Snapshot snapshot(demo(QTest::currentDataTag()));
  const auto motion = snapshot.motion();
  const auto order = snapshot.inPlane()->order;
  const Assembly& assembly = motion->assembly();
  const auto both = [&](PanelIndex under, PanelIndex over) {
    return QStringLiteral("%1 under %2")
        .arg(assembly.panels[under].key.c_str(), assembly.panels[over].key.c_str());
  };
  QVERIFY(!order.empty());
  for (const double t : {0.02, 0.9, 2.4}) {
    const Pose pose = motion->poseAt(t);
    const Lying lying(assembly, pose, order);
    const auto isOff = [&](PanelIndex under, PanelIndex over, bool onFace) {
      const Vec3 up = (onFace ? 1 : -1) * pose.panels[under].linear().col(2);
      return up.dot(lying.off_mm(over) - lying.off_mm(under)) > 0.9 * Lying::kStep_mm;
    };
    for (const SheetOrder& two : order)
      if (t >= two.from_rad && t <= two.to_rad)
        QVERIFY2(isOff(two.under, two.over, two.onFace), qPrintable(both(two.under, two.over)));
    for (const auto& [j, glue] : assembly.every<Glue>())
      if (assembly.glueOf(glue.tab) == &glue)
        QVERIFY2(isOff(glue.host, glue.tab, glue.onHostFace()),
                 qPrintable(both(glue.host, glue.tab)));
  }
  // In the shut card what is certain lies as it did just before.
  const auto stack = snapshot.stack()->order;
  const Pose shut = motion->shutPose();
  const auto rank = [&](PanelIndex p) { return std::ranges::find(stack, p) - stack.begin(); };
  QCOMPARE(stack.size(), assembly.panels.size());
  const PanelIndex low = stack.front();
  const Vec3 upwards = [&] { // from the lowest sheet to the card's inside
    Vec3 sum = Vec3::Zero();
    const Pose open = motion->poseAt(0.05);
    for (PanelIndex p : assembly.panels.indices())
      if (open.placed[p])
        sum += open.panels[p] * lift(centroidOf(assembly.panels[p].outline.rim)) -
               open.panels[low] * lift(centroidOf(assembly.panels[low].outline.rim));
    const Vec3 n = shut.panels[low].linear().col(2);
    return Vec3(n.dot(sum) > 0 ? n : -n);
  }();
  for (const SheetOrder& two : order) {
    if (two.open || two.from_rad > 0) continue;
    const Vec3 up = (two.onFace ? 1 : -1) * shut.panels[two.under].linear().col(2);
    QVERIFY2((rank(two.over) > rank(two.under)) == (up.dot(upwards) > 0),
             qPrintable(both(two.under, two.over)));
  }
}

QTEST_APPLESS_MAIN(TestSheetOrder)
#include "test_sheet_order.moc"
