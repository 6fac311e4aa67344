// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN
#include "core/motion/openings.h"
#include "core/states/in_plane.h"
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

QTEST_APPLESS_MAIN(TestSheetOrder)
#include "test_sheet_order.moc"
