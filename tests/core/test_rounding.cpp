// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/free_lengths.h"
#include "core/edits/lattice_program.h"
#include "core/edits/rounding.h"
#include "core/model/snapshot.h"
#include "core/structures/registry.h"
#include <random>
#endif

using namespace hinge;
using namespace hinge::test;

// Sizes on the maker's lattice: sums kept in whole steps, the least change, and cards that shut as
// flat as before.

namespace {

constexpr std::chrono::seconds kLong(30);

/// All lattice points within so many steps of the values, by trying each: the least greatest change
/// and with it the least sum.
struct Best {
  double greatest = 1e300, sum = 1e300;
};
Best byTrying(const LatticeProgram& program, int steps) {
  Best best;
  std::vector<double> values(program.variables.size());
  const std::function<void(std::size_t)> choose = [&](std::size_t k) {
    if (k == values.size()) {
      double greatest = 0, sum = 0;
      for (const auto& condition : program.conditions) {
        double total = 0;
        for (const auto& [v, c] : condition.terms)
          total += c * values[v];
        if (std::abs(total - condition.sum) > 1e-7) return;
      }
      for (std::size_t v = 0; v < values.size(); ++v) {
        const double change = std::abs(values[v] - program.variables[v].value);
        greatest = std::max(greatest, change), sum += change;
      }
      if (greatest < best.greatest - 1e-9 || (greatest < best.greatest + 1e-9 && sum < best.sum))
        best = {greatest, sum};
      return;
    }
    const auto& variable = program.variables[k];
    if (variable.held) {
      values[k] = variable.value;
      return choose(k + 1);
    }
    const double middle = std::round(variable.value / program.step);
    for (int n = -steps; n <= steps; ++n) {
      values[k] = (middle + n) * program.step;
      if (values[k] >= variable.least - 1e-9 && values[k] <= variable.most + 1e-9) choose(k + 1);
    }
  };
  choose(0);
  return best;
}

bool onStep(double value, double step) {
  return std::abs(value / step - std::round(value / step)) < 1e-7;
}

Result<Rounding> rounded(const Design& design, double step_mm,
                         const std::set<std::string>& held = {}) {
  const Snapshot snapshot(design);
  return roundedTo(design, *snapshot.motion(), step_mm, held, RoundingKeeps::ShutFlat, kLong);
}

double worstGap(const Design& design) {
  double worst = 0;
  const Snapshot snapshot(design);
  for (const auto& block : snapshot.motion()->blocks())
    worst = std::max(worst, block.shutMisfit_mm);
  return worst;
}

} // namespace

class TestRounding : public QObject {
  Q_OBJECT
private slots:
  void leastChangeAgainstTrying() {
    std::mt19937 chance(5);
    std::uniform_real_distribution<double> value(5, 60);
    std::uniform_int_distribution<int> coefficient(-2, 2);
    int found = 0;
    for (int n = 0; n < 60; ++n) {
      LatticeProgram program;
      program.step = n % 2 ? 1.5875 : 0.5;
      for (int v = 0; v < 4; ++v)
        program.variables.push_back({value(chance), 1, 70, n % 5 == 0 && v == 3});
      for (int c = 0; c < 2; ++c) {
        LatticeProgram::Condition condition;
        for (std::size_t v = 0; v < 4; ++v)
          if (const int times = coefficient(chance)) condition.terms.push_back({v, times});
        // Sums that the lattice can keep, but not the present one.
        condition.sum = program.step * std::round(value(chance) / 20);
        double now = 0;
        for (const auto& [v, times] : condition.terms)
          now += times * program.variables[v].value;
        condition.sum = program.step * std::round(now / program.step);
        if (!condition.terms.empty()) program.conditions.push_back(condition);
      }
      const LatticeAnswer answer = nearestOnLattice(program, kLong);
      const Best best = byTrying(program, 4);
      if (answer.end != LatticeAnswer::End::Found) {
        QVERIFY(best.greatest > 1e299);
        continue;
      }
      ++found;
      QVERIFY_NEAR(answer.greatest, best.greatest, 1e-6);
      QVERIFY_NEAR(answer.sum, best.sum, 1e-6);
      for (const auto& condition : program.conditions) {
        double total = 0;
        for (const auto& [v, times] : condition.terms)
          total += times * answer.values[v];
        QVERIFY_NEAR(total, condition.sum, 1e-9);
      }
    }
    QVERIFY(found > 40);
  }

  void saysWhichConditionForbids() {
    LatticeProgram program;
    program.step = 1;
    program.variables = {{10.2, 0, 100}, {20.3, 0, 100}, {5.25, 0, 100, true}};
    program.conditions = {{{{0, 1}, {1, -1}}, -10, false}, {{{0, 1}, {2, 1}}, 15, false}};
    const LatticeAnswer answer = nearestOnLattice(program, kLong);
    QVERIFY(answer.end == LatticeAnswer::End::Impossible);
    QCOMPARE(*answer.condition, std::size_t{1});
    program.step = 0.25;
    QVERIFY(nearestOnLattice(program, kLong).end == LatticeAnswer::End::Found);
  }

  void whatIsStoppedHasNoAnswer() {
    LatticeProgram program;
    program.variables = {{1.3}, {2.4}};
    std::stop_source stop;
    stop.request_stop();
    QVERIFY(nearestOnLattice(program, kLong, stop.get_token()).end == LatticeAnswer::End::Stopped);
  }

  void cardsShutAsFlatAsBefore_data() {
    QTest::addColumn<QString>("name");
    QTest::addColumn<double>("step");
    for (const char* name :
         {"night-market", "canal-houses", "tea-chests", "steps-in-the-fold", "lock-diorama",
          "canal-frames", "two-quays", "ferry-pass", "keepers-desk", "barge-at-dusk"})
      for (double step : {25.4 / 16, 25.4 / 8, 1.0, 0.5})
        QTest::addRow("%s to %g", name, step) << QString(name) << step;
  }
  void cardsShutAsFlatAsBefore() {
    QFETCH(QString, name);
    QFETCH(double, step);
    const Design design = demo(name.toStdString());
    const auto result = rounded(design, step);
    if (!result) {
      QVERIFY2(result.error().code() == "round.impossible", say(result.error()).c_str());
      return;
    }
    for (const RoundedLength& length : result->changes) {
      QVERIFY2(onStep(length.to_mm, step), length.key.c_str());
      QVERIFY(std::abs(length.to_mm - length.from_mm) <= result->greatest_mm + 1e-9);
    }
    QVERIFY_NEAR(worstGap(result->design), worstGap(design), 1e-6);
    // Twice is once.
    const auto again = rounded(result->design, step);
    QVERIFY(again);
    QVERIFY2(again->changes.empty(),
             again->changes.empty() ? "" : again->changes.front().key.c_str());
  }

  void randomStructuresKeepTheirClosures() {
    std::mt19937 chance(29);
    std::uniform_real_distribution<double> off(-0.8, 0.8);
    int closures = 0;
    for (int n = 0; n < 12; ++n) {
      Design design = card(140, 200);
      const StructureId box = add(design, "box", "gutter", {{"position", 20 + off(chance)}});
      add(design, "vfold", "gutter", {{"position", 120 + off(chance)}});
      // Sizes off every lattice that still close: along the directions that keep the closures.
      for (StructureItem& item : design.structures)
        for (const MendDirection& way : mendDirectionsOf(item)) {
          const double by = off(chance);
          bool angle = false;
          for (const auto& term : way.terms)
            angle =
                angle || findSpec(parametersOf(item), term.key)->unit != ParameterUnit::Millimetre;
          if (angle) continue;
          for (const auto& term : way.terms)
            item.values[std::string(term.key)] += by * term.coefficient;
        }
      if (!assembleDesign(design)) continue;
      const auto result = rounded(design, 25.4 / 16);
      QVERIFY2(result, result ? "" : say(result.error()).c_str());
      const StructureItem& after = *result->design.find(box);
      for (const LinearClosure& closure : findStructureKind("box")->closures(0)) {
        // In whole steps the sum is zero exactly.
        long sum = 0;
        for (const auto& term : closure.terms)
          sum += std::lround(term.coefficient) *
                 std::lround(after.values.find(term.key)->second / (25.4 / 16));
        QCOMPARE(sum, 0L);
        ++closures;
      }
      for (const FreeLength& length : freeLengthsOf(result->design).all)
        QVERIFY2(onStep(length.value_mm, 25.4 / 16), length.key.c_str());
    }
    QVERIFY(closures >= 10);
  }

  void heldValuesStay() {
    Design design = card();
    const StructureId box = add(design, "box", "gutter");
    auto& values = design.structures.front().values;
    values["a"] = values["b"] = 20.3, values["c"] = values["d"] = 31.4;
    const auto result = rounded(design, 0.5, {"s1.c"});
    QVERIFY(result);
    const auto& after = result->design.find(box)->values;
    QCOMPARE(after.at("c"), 31.4);
    QCOMPARE(after.at("d"), 31.4); // its twin
    QVERIFY_NEAR(after.at("a"), 20.5, 1e-12);
    QVERIFY_NEAR(after.at("b"), 20.5, 1e-12);
    QCOMPARE(rounded(design, 0.5, {"s1.none"}).error().code(), std::string("proportion.unknown"));
    QCOMPARE(rounded(design, 0).error().code(), std::string("round.step"));
  }
  void progressIsToldToItsEnd() {
    for (const char* name : {"ferry-pass", "tower", "canal-houses"}) {
      const Snapshot snapshot(demo(name));
      std::size_t told = 0, all = 0;
      const auto made =
          roundedTo(snapshot.design(), *snapshot.motion(), 1, {}, RoundingKeeps::ShutFlat, kLong,
                    {}, [&](std::size_t done, std::size_t of) {
                      QCOMPARE(done, told + 1);
                      told = done, all = of;
                    });
      QVERIFY2(made.ok(), name);
      QVERIFY2(told > 0 && told == all, name); // each part once by its greatest, once by their sum
    }
  }
};

QTEST_GUILESS_MAIN(TestRounding)
#include "test_rounding.moc"
