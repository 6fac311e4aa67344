// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/checks/failing_step.h"
#include "core/io/text_file.h"
#include "core/io/work_record_json.h"
#include "core/making/bench_work.h"
#include "core/model/planned.h"
#include "words/bench_words.h"
#include "words/plan_words.h"
#include <QDir>
#include <QFile>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <random>
#include <set>
#endif

using namespace hinge;
using namespace hinge::test;

// The card on the table: what is done, what sets, what went wrong, and that nothing of it is lost.

namespace {

constexpr double kStart = 1.8e9; // some day

std::shared_ptr<const PlannedWork> planned(const char* name) {
  return planWork(std::make_shared<const Snapshot>(demoAsItComes(name)), {});
}

BenchWork atBench(const PlannedWork& work, WorkRecord record = {}, double now = kStart,
                  std::vector<int> parts = {}) {
  return {work.plan, work.assembly(), std::move(parts), std::move(record), now};
}

std::size_t firstOf(const WorkPlan& plan, WorkKind kind) {
  for (std::size_t k = 0; k < plan.steps.size(); ++k)
    if (plan.steps[k].kind == kind) return k;
  qFatal("no such step");
}

} // namespace

class TestBenchWork : public QObject {
  Q_OBJECT
  QTemporaryDir m_folder;

private slots:
  void initTestCase() {
    QStandardPaths::setTestModeEnabled(false);
    qputenv("XDG_DATA_HOME", m_folder.path().toUtf8());
  }

  void namesOfStepsAreDifferentAndOutliveASchool() {
    const auto design = demoAsItComes("canal-houses");
    const auto snapshot = std::make_shared<const Snapshot>(design);
    MakingWays marks;
    marks.closing = Closing::OnMarks, marks.joints = Adhesive::StrongTape;
    const auto one = planWork(snapshot, {}), other = planWork(snapshot, marks);
    const auto names = stepNames(one->plan, one->assembly()),
               others = stepNames(other->plan, other->assembly());
    QCOMPARE(std::set<std::string>(names.begin(), names.end()).size(), names.size());
    const auto joins = [](const std::vector<std::string>& all) {
      std::set<std::string> some;
      for (const std::string& name : all)
        if (name.starts_with("join:")) some.insert(name);
      return some;
    };
    QVERIFY(joins(names).size() > 5);
    QCOMPARE(joins(names), joins(others));
  }

  void whatIsDressedOrSplicedIsNamedByItsPiece() {
    const auto work = planned("canal-houses");
    const auto names = stepNames(work->plan, work->assembly());
    int dressed = 0, others = 0;
    for (std::size_t k = 0; k < names.size(); ++k) {
      const WorkStep& step = work->plan.steps[k];
      const std::string kind(keyOf(step.kind)), name = names[k].substr(0, names[k].find('#'));
      if (!step.joints.empty()) continue;
      const bool each = step.kind == WorkKind::Dress || step.kind == WorkKind::Splice;
      if (each) QVERIFY(!step.pieces.empty());
      QCOMPARE(name, each ? kind + ":" + work->assembly().pieces[step.pieces.front()].key : kind);
      ++(each ? dressed : others);
    }
    QVERIFY(dressed > 2 && others > 2);
  }

  void everyStepIsTickedOffOnce() {
    const auto work = planned("night-market");
    BenchWork bench = atBench(*work);
    double now = kStart;
    std::size_t acts = 0;
    while (!bench.finished()) {
      QVERIFY(++acts <= bench.steps());
      QVERIFY(!bench.done(bench.current()));
      bench.next(now += 30);
    }
    QCOMPARE(acts, bench.steps());
    QCOMPARE(std::set<std::string>(bench.record().done.begin(), bench.record().done.end()).size(),
             bench.steps());
    bench.next(now += 30); // at the end nothing more happens
    QVERIFY(bench.finished());
    QCOMPARE(bench.record().done.size(), bench.steps());
  }

  /// Steps are gone to by their number; beyond the last one there is only the last one.
  void anyStepCanBeGoneTo() {
    const auto work = planned("night-market");
    BenchWork bench = atBench(*work);
    for (const std::size_t step : {std::size_t(3), std::size_t(0), bench.steps() - 1}) {
      bench.goTo(step, kStart);
      QCOMPARE(bench.current(), step);
    }
    bench.goTo(bench.steps() + 5, kStart);
    QCOMPARE(bench.current(), bench.steps() - 1);
    bench.goTo(4, kStart);
    bench.next(kStart + 9);
    QVERIFY(bench.done(4) && !bench.done(5));
    bench.goTo(4, kStart + 10); // to be done again
    QVERIFY(!bench.done(4));
    for (int k = 0; k < 200; ++k)
      bench.back(kStart + 11);
    QCOMPARE(bench.current(), std::size_t(0));
  }

  void numbersOfAStepComeOneByOne() {
    const auto work = planned("night-market");
    const std::size_t score = firstOf(work->plan, WorkKind::Score);
    std::vector<int> parts(work->plan.steps.size(), 1);
    parts[score] = 3;
    BenchWork bench = atBench(*work, {}, kStart, parts);
    bench.goTo(score, kStart);
    bench.next(kStart), bench.next(kStart);
    QCOMPARE(bench.current(), score);
    QCOMPARE(bench.part(), 2);
    bench.back(kStart);
    QCOMPARE(bench.part(), 1);
    bench.next(kStart), bench.next(kStart);
    QVERIFY(bench.done(score));
    QCOMPARE(bench.current(), score + 1);
    bench.back(kStart); // the last number again, which is to be done again
    QCOMPARE(bench.current(), score);
    QCOMPARE(bench.part(), 2);
    QVERIFY(!bench.done(score));
  }

  void whatIsPressedSetsWhileOtherStepsGoOn() {
    const auto work = planned("canal-houses");
    std::size_t join = 0;
    while (work->plan.steps[join].kind != WorkKind::Join ||
           work->plan.steps[join + 1].kind != WorkKind::Wait)
      ++join;
    BenchWork bench = atBench(*work);
    bench.goTo(join, kStart);
    QVERIFY(bench.running(kStart).empty());
    bench.next(kStart);
    const double sets = work->plan.steps[join].waits_s;
    QCOMPARE(bench.running(kStart).size(), std::size_t(1));
    QVERIFY_NEAR(bench.running(kStart + 10).front().left_s, sets - 10, 1e-6);
    QVERIFY_NEAR(bench.setting_s(kStart + 10), sets - 10, 1e-6); // the waiting itself
    bench.next(kStart + 10);
    QVERIFY_NEAR(bench.running(kStart + 20).front().left_s, sets - 20, 1e-6);
    QVERIFY(bench.ended(kStart + 20).empty());
    QCOMPARE(bench.ended(kStart + sets + 1), std::vector<std::size_t>{join});
    QVERIFY(bench.ended(kStart + sets + 2).empty()); // told once
    QVERIFY(bench.running(kStart + sets + 300).empty());
  }

  void aClosedLidIsNoTimeForAStep() {
    const auto work = planned("night-market");
    BenchWork bench = atBench(*work);
    bench.next(kStart + 100);
    bench.next(kStart + 100 + 8 * 3600);
    bench.next(kStart + 100 + 8 * 3600 + 0.1);
    QCOMPARE(bench.record().times.size(), std::size_t(1));
    QVERIFY_NEAR(bench.record().times.front().took_s, 100, 1e-6);
  }

  void wrongWorkIsNotedAndDoneAgain() {
    const auto work = planned("canal-houses");
    const std::size_t join = firstOf(work->plan, WorkKind::Join);
    BenchWork bench = atBench(*work);
    bench.goTo(join, kStart);
    const auto pieces = bench.wrong("crooked", kStart + 5);
    QCOMPARE(pieces.size(), std::size_t(1));
    QCOMPARE(pieces.front(), work->plan.steps[join].pieces.front());
    const WorkRecord::Miss& miss = bench.record().misses.front();
    QCOMPARE(miss.word, std::string("crooked"));
    QCOMPARE(miss.pieces.front(), work->assembly().pieces[pieces.front()].key);
    QVERIFY(!bench.done(join));
    // And it is known from which sheet the piece comes.
    const Design& design = work->design();
    const CutPlan sheets =
        layOutParts(design, partsToCut(design, *work->snapshot->cutPieces(), {}, 1, false), {});
    QVERIFY(QString::fromStdString(sayAgain(pieces, sheets, *work))
                .contains(QStringLiteral("again, from sheet ")));
    QVERIFY(QString::fromStdString(sayAgain(pieces, {}, *work))
                .contains(QStringLiteral("a new sheet")));
  }

  void aMeasureIsNearOrNot() {
    const auto work = planned("canal-houses");
    const std::size_t measure = firstOf(work->plan, WorkKind::Measure);
    const WorkStep& step = work->plan.steps[measure];
    BenchWork bench = atBench(*work);
    bench.goTo(measure, kStart);
    QVERIFY(bench.measure(step.number_mm + step.within_mm, kStart));
    QVERIFY(bench.measure(step.number_mm - step.within_mm, kStart));
    QVERIFY(!bench.measure(step.number_mm + step.within_mm + 0.1, kStart));
    QCOMPARE(bench.record().measured.size(), std::size_t(3));
    QVERIFY_NEAR(bench.record().measured.back().wanted_mm, step.number_mm, 1e-9);
    // What is drawn as measured is as long as the number says.
    QVERIFY_NEAR((step.between.first - step.between.second).norm(), step.number_mm, 1e-6);
  }

  /// Written after each of many random acts and read again by another bench, nothing differs.
  void aCrashLosesNothing() {
    const auto work = planned("canal-houses");
    const std::string path = m_folder.filePath(QStringLiteral("card.hinge.work")).toStdString();
    std::vector<int> parts(work->plan.steps.size(), 1);
    parts[1] = 4, parts[2] = 3;
    std::mt19937 random(7);
    double now = kStart;
    BenchWork bench = atBench(*work, {}, now, parts);
    for (int k = 0; k < 120; ++k) {
      now += 5 + static_cast<double>(random() % 60);
      switch (random() % 8) {
      case 0: bench.back(now); break;
      case 1: bench.wrong("tear \"here\"\n", now); break;
      case 2: bench.measure(12.5, now); break;
      case 3: bench.ended(now); break;
      default: bench.next(now); break;
      }
      QVERIFY(writeWorkRecord(path, bench.record()));
      const auto read = readWorkRecord(path);
      QVERIFY(read);
      QVERIFY(*read == bench.record());
      BenchWork again = atBench(*work, *read, now, parts);
      QCOMPARE(again.current(), bench.current());
      QCOMPARE(again.part(), bench.part());
      QCOMPARE(again.doneCount(), bench.doneCount());
      QCOMPARE(again.running(now).size(), bench.running(now).size());
      bench = std::move(again);
    }
  }

  /// Two benches on one card, and a rehearsal that ends meanwhile: what one of them has written is
  /// never lost by what the other writes.
  void twoBenchesOnOneCardLoseNothing() {
    const std::string path = m_folder.filePath(QStringLiteral("two.hinge.work")).toStdString();
    WorkRecord begun;
    begun.done = {"ready"};
    QVERIFY(writeWorkRecord(path, begun));
    KeptRecord one(path, begun), other(path, begun);
    WorkRecord more = begun;
    more.done.push_back("cut:card");
    QVERIFY(one.write(more));
    WorkRecord rehearsed = more;
    rehearsed.rehearsed = {{kStart, 5, 1, true}};
    QVERIFY(writeWorkRecord(path, rehearsed)); // as the window of the rehearsal does
    more.done.push_back("score:card");
    QVERIFY(one.write(more));
    WorkRecord there = *readWorkRecord(path);
    QVERIFY(there.done == more.done && there.rehearsed == rehearsed.rehearsed);
    WorkRecord late = begun;
    late.done.push_back("dress:card");
    const auto refused = other.write(late);
    QVERIFY(!refused && refused.error().message.key == "record.other-bench");
    QVERIFY(*readWorkRecord(path) == there);
    // A record that is gone meanwhile is written anew.
    QVERIFY(QFile::remove(QString::fromStdString(path)));
    QVERIFY(one.write(more) && readWorkRecord(path)->done == more.done);
  }

  void recordsOfOtherPlansAreKept() {
    const auto work = planned("night-market");
    WorkRecord record;
    record.done = {"join:s99/gone>card/page-a", "ready"};
    record.current = "join:s99/gone>card/page-a";
    record.timers = {{"join:s99/gone>card/page-a", kStart + 50}};
    BenchWork bench = atBench(*work, record);
    QCOMPARE(bench.current(), std::size_t(1)); // the first that is not done
    QVERIFY(bench.running(kStart).empty());
    bench.next(kStart);
    QVERIFY(std::ranges::count(bench.record().done, record.done.front()) == 1);
  }

  void damagedRecordsAreRefusedWithTheirPlace() {
    const std::string path = m_folder.filePath(QStringLiteral("bad.work")).toStdString();
    QVERIFY(readWorkRecord(path)); // no file: nothing is done yet
    for (const auto& [text, place] :
         {std::pair{"[]", "bad.work"}, std::pair{"{\"format\":\"other\"}", "bad.work"},
          std::pair{"{\"format\":\"hinge-lantern-work\",\"done\":[3]}", "done"},
          std::pair{"{\"format\":\"hinge-lantern-work\",\"timers\":[{\"step\":\"x\"}]}", "ends"},
          std::pair{"{\"format\":\"hinge-lantern-work\",\"timers\":[{\"ends\":4}]}", "step"},
          std::pair{"{\"format\":\"hinge-lantern-work\",\"misses\":[{\"word\":\"x\"}]}", "step"},
          std::pair{"{\"format\":\"hinge-lantern-work\",\"measured\":[{\"mm\":4}]}", "step"},
          std::pair{"{\"format\":\"hinge-lantern-work\",\"measured\":[{\"step\":\"x\"}]}", "mm"},
          std::pair{"{\"format\":\"hinge-lantern-work\",\"times\":[{\"kind\":\"x\"}]}", "step"},
          std::pair{"{\"format\":\"hinge-lantern-work\",\"times\":[{\"step\":\"x\"}]}", "kind"},
          std::pair{"{\"format\":\"hinge-lantern-work\",\"times\":{}}", "times"},
          std::pair{"{\"format\":\"hinge-lantern-work\",\"current\":7}", "current"}}) {
      QVERIFY(writeFile(path, text));
      const auto read = readWorkRecord(path);
      QVERIFY2(!read, text);
      QVERIFY2(QString::fromStdString(say(read.error())).contains(QLatin1String(place)),
               say(read.error()).c_str());
    }
  }

  void ownTimesChangeThePlanOnceThereAreEnough() {
    OwnTimes own;
    for (int k = 0; k < 2; ++k)
      own.add({"x", "join", 40, 80});
    QVERIFY_NEAR(own.factor(WorkKind::Join), 1, 1e-9);
    own.add({"x", "join", 40, 80});
    QVERIFY_NEAR(own.factor(WorkKind::Join), 2, 1e-9);
    QVERIFY_NEAR(own.factor(WorkKind::Cut), 1, 1e-9);
    for (int k = 0; k < 9; ++k)
      own.add({"x", "cut", 10, 1000});
    QVERIFY_NEAR(own.factor(WorkKind::Cut), 4, 1e-9); // no maker is slower than that
    own.add({"x", "open", 0, 5});
    QVERIFY(!own.kinds.contains("open"));
    QVERIFY(keepTimes(own));
    const auto read = makersTimes();
    QVERIFY(read);
    QVERIFY_NEAR(read->factor(WorkKind::Join), 2, 1e-9);
    const auto snapshot = std::make_shared<const Snapshot>(demoAsItComes("canal-houses"));
    const auto usual = planWork(snapshot, {}), mine = planWork(snapshot, {}, *read);
    for (std::size_t k = 0; k < usual->plan.steps.size(); ++k)
      QVERIFY_NEAR(mine->plan.steps[k].hands_s,
                   usual->plan.steps[k].hands_s * own.factor(usual->plan.steps[k].kind), 1e-9);
  }

  void numbersAreThoseOfTheTables() {
    const auto work = planned("canal-houses");
    const auto tables =
        scoreTables(work->assembly(), work->design(), *work->snapshot->flatPieces(), Bench());
    std::size_t scores = 0;
    for (const PieceTable& table : tables)
      scores += table.scores.size();
    for (std::size_t k = 0; k < work->plan.steps.size(); ++k) {
      const auto numbers = benchNumbers(*work, k, tables, Bench());
      QVERIFY(!numbers.empty());
      switch (work->plan.steps[k].kind) {
      case WorkKind::Score: QCOMPARE(numbers.size(), scores); break;
      case WorkKind::Cut: QCOMPARE(numbers.size(), tables.size()); break;
      case WorkKind::Pencil: QCOMPARE(numbers.size(), work->plan.steps[k].points.size()); break;
      case WorkKind::Join: QVERIFY(numbers.front().number.empty()); break;
      default: QCOMPARE(numbers.size(), std::size_t(1)); break;
      }
    }
  }

  void theStepThatFailsIsTold() {
    const Design design = demoAsItComes("night-market-mistakes");
    const auto analysis = analyse(design);
    QVERIFY(analysis);
    const auto work = planWork(std::make_shared<const Snapshot>(design), {});
    QVERIFY(work);
    int told = 0;
    for (const Finding& finding : analysis->findings) {
      const auto step = failingStep(work->plan, work->assembly(), finding);
      if (finding.severity != Severity::Spoils) QVERIFY(!step);
      if (!step) continue;
      ++told;
      QCOMPARE(work->plan.steps[*step].kind, WorkKind::Join);
    }
    QVERIFY(told >= 3);
  }

  void aChangeOfSchoolIsSaid() {
    const auto snapshot = std::make_shared<const Snapshot>(demoAsItComes("canal-houses"));
    MakingWays marks;
    marks.closing = Closing::OnMarks;
    const auto one = planWork(snapshot, {}), other = planWork(snapshot, marks);
    QVERIFY(sayChange(one->plan, one->plan).empty());
    const QString said = QString::fromStdString(sayChange(one->plan, other->plan));
    QVERIFY2(said.contains(QStringLiteral("laid on marks")), qPrintable(said));
    MakingWays tape;
    tape.joints = Adhesive::StrongTape, tape.layers = Adhesive::SolventGlue;
    const auto taped = planWork(snapshot, tape);
    const QString then = QString::fromStdString(sayChange(one->plan, taped->plan));
    QVERIFY2(then.contains(QStringLiteral("another adhesive")), qPrintable(then));
    QVERIFY2(then.contains(QStringLiteral("steps instead of")), qPrintable(then));
  }
};

QTEST_GUILESS_MAIN(TestBenchWork)
#include "test_bench_work.moc"
