// SPDX-License-Identifier: GPL-3.0-or-later
#include "../../bench/designs.h"
#include "core/contact/contact.h"
#include "support.h"

using namespace hinge;
using namespace hinge::test;

// The benchmarks are not built with the tests; what they measure must still be what they say it is.

class TestMeasuredDesigns : public QObject {
  Q_OBJECT
private slots:
  void rowsAreMadeAndMove() {
    for (const int count : {3, 15, 60}) {
      const auto assembly = assemble(bench::row(count));
      // Two pages, and of each box two walls and two tabs.
      QCOMPARE(assembly->panels.size(), static_cast<std::size_t>(2 + 4 * count));
      const Motion motion = Motion::trace(assembly);
      QVERIFY(motion.impossible().empty());
      QCOMPARE(motion.mobility(), 0);
      QVERIFY_NEAR(motion.low_rad(), 0, 1e-9);
      QVERIFY_NEAR(motion.high_rad(), kPi, 1e-9);
      QVERIFY(findContacts(motion).contacts.empty());
    }
  }
  void rowsThatReachIntoOneAnotherCollide() {
    const Motion motion = Motion::trace(assemble(bench::row(6, 1.2)));
    QVERIFY(!findContacts(motion).contacts.empty());
  }
  void theLargestRowIsMadeToo() {
    QCOMPARE(assemble(bench::row(250))->panels.size(), std::size_t(1002));
  }
  void slowCasesAreStillWhatTheyWere() {
    // The verdict of the first takes as long as all the rest and is left out.
    const std::tuple<const char*, std::size_t, std::optional<bool>> cases[] = {
        {"clean-500", 500, std::nullopt},
        {"messy-50", 50, true},
        {"inset-22", 22, true},
        {"sheet-100", 100, false}};
    for (const auto& [name, panels, spoiled] : cases) {
      const Design design = bench::slowCase(name);
      const auto assembly = assemble(design);
      QVERIFY2(assembly->panels.size() >= panels,
               fmt::format("{}: {}", name, assembly->panels.size()).c_str());
      if (spoiled) QCOMPARE(checked(design).verdict == Verdict::Spoiled, *spoiled);
    }
  }
};

QTEST_APPLESS_MAIN(TestMeasuredDesigns)
#include "test_measured_designs.moc"
