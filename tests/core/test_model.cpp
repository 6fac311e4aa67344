// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN
#include "core/model/snapshot.h"
#include <atomic>
#include <set>
#include <thread>
#endif

using namespace hinge;
using namespace hinge::test;

class TestModel : public QObject {
  Q_OBJECT
private slots:
  void partsAreWorkedOutOnce() {
    const Snapshot snapshot(demo("night-market"));
    QVERIFY(!snapshot.motionIfReady());
    const auto assembly = *snapshot.assembly();
    QCOMPARE(snapshot.assembly()->get(), assembly.get());
    const auto motion = snapshot.motion();
    QVERIFY(motion);
    QCOMPARE(&motion->assembly(), assembly.get());
    QCOMPARE(snapshot.motion().get(), motion.get());
    QCOMPARE(snapshot.motionIfReady().get(), motion.get());
    QCOMPARE(snapshot.order().get(), snapshot.order().get());
    QCOMPARE(snapshot.contacts().get(), snapshot.contacts().get());
    QCOMPARE(snapshot.shut().get(), snapshot.shut().get());
    QCOMPARE(snapshot.stand().get(), snapshot.stand().get());
    QCOMPARE(snapshot.flatPieces().get(), snapshot.flatPieces().get());
    QCOMPARE(snapshot.flatPieces().get(), snapshot.flatPieces().get());
    QCOMPARE(snapshot.flatPieces()->size(), assembly->pieces.size());
  }
  void partsAreWhatTheFunctionsGive() {
    const Design design = demo("ticket-booth");
    const Snapshot snapshot(design);
    const Motion motion = Motion::trace(assemble(design));
    QCOMPARE(snapshot.shut()->thickestSheets, shutState(motion, design).thickestSheets);
    QVERIFY_NEAR(snapshot.stand()->weight_g, standOf(motion, design).weight_g, 1e-9);
    QCOMPARE(snapshot.order()->steps.size(),
             assemblyOrder(motion, radians(design.card.display_deg)).steps.size());
    QVERIFY(snapshot.contacts()->contacts.empty());
  }
  void manyThreadsShareOneMotion() {
    const Snapshot snapshot(demo("lantern-tower"));
    std::vector<std::shared_ptr<const Motion>> seen(8);
    {
      std::vector<std::jthread> threads;
      for (auto& mine : seen)
        threads.emplace_back([&] { mine = snapshot.motion(); });
    }
    for (const auto& one : seen)
      QVERIFY(one && one.get() == seen.front().get());
  }
  void whoIsStoppedGetsNothingAndThePartStaysOpen() {
    const Snapshot snapshot(demo("night-market"));
    std::stop_source stop;
    stop.request_stop();
    QVERIFY(!snapshot.motion(stop.get_token()));
    QVERIFY(!snapshot.contacts(stop.get_token()));
    QVERIFY(!snapshot.motionIfReady());
    QVERIFY(snapshot.motion());
    QVERIFY(snapshot.motion(stop.get_token())); // what is there is given to everybody
  }
  void whoWaitsCanBeStopped() {
    // One thread works until it is told to end; another one that waits for it gives up.
    const Lazy<int> lazy;
    std::atomic<bool> working = false, end = false;
    std::jthread worker([&] {
      lazy.get({}, [&] {
        working = true;
        while (!end)
          std::this_thread::yield();
        return std::make_shared<const int>(7);
      });
    });
    while (!working)
      std::this_thread::yield();
    std::stop_source stop;
    std::shared_ptr<const int> waited = std::make_shared<const int>(0);
    std::jthread waiting([&] {
      waited = lazy.get(stop.get_token(), [] { return std::make_shared<const int>(8); });
    });
    stop.request_stop();
    waiting.join();
    QVERIFY(!waited);
    end = true;
    worker.join();
    QCOMPARE(*lazy.ready(), 7);
  }
  void workThatThrowsLeavesThePartOpen() {
    const Lazy<int> lazy;
    QVERIFY_THROWS_EXCEPTION(std::runtime_error, lazy.get({}, []() -> std::shared_ptr<const int> {
      throw std::runtime_error("no");
    }));
    QCOMPARE(*lazy.get({}, [] { return std::make_shared<const int>(3); }), 3);
  }
  void whatCannotBeAssembledSaysWhy() {
    Design design = demo("night-market");
    design.structures.front().seat = "nowhere";
    const Snapshot snapshot(design);
    QVERIFY(!snapshot.possible().ok());
    QCOMPARE(snapshot.possible().error().code(), std::string("seat.missing"));
    QVERIFY(!snapshot.motion() && !snapshot.contacts() && !snapshot.order());
    QVERIFY(!snapshot.flatPieces() && !snapshot.shut());
    QVERIFY(!analyse(design).ok());
  }
  void checksBuildOnOneAnotherByType() {
    // What the stacking check asks of the hits is worked out once, whoever comes first.
    const Snapshot snapshot(demo("night-market-mistakes"));
    const auto motion = snapshot.motion();
    const CheckInput input(snapshot, *motion);
    QVERIFY(input.of(stackingCheck()).empty());
    const auto& hits = input.of(panelsHitCheck());
    QVERIFY(!hits.empty());
    QCOMPARE(&input.of(panelsHitCheck()), &hits);
    for (const Finding& f : hits)
      QCOMPARE(f.check, panelsHitCheck().key);
  }
  void anAnalysisKeepsItsSnapshot() {
    const auto snapshot = std::make_shared<const Snapshot>(demo("night-market"));
    const auto analysis = analyse(snapshot);
    QVERIFY(analysis.ok() && analysis->complete);
    QCOMPARE(analysis->snapshot.get(), snapshot.get());
    QCOMPARE(analysis->motion.get(), snapshot->motionIfReady().get());
    std::stop_source stop;
    stop.request_stop();
    const auto stopped = analyse(std::make_shared<const Snapshot>(demo("tower")), stop.get_token());
    QVERIFY(stopped.ok() && !stopped->complete);
  }
  void piecesAndPanelsAreNamedApart() {
    const Design design = demo("lantern-tower");
    const auto assembly = assemble(design);
    std::set<std::string> pieces;
    for (PieceIndex p : assembly->pieces.indices()) {
      QVERIFY2(pieces.insert(say(pieceName(design, *assembly, p))).second,
               "two pieces of one name");
      std::set<std::string> letters;
      for (PanelIndex panel : assembly->pieces[p].panels)
        QVERIFY(letters.insert(panelLetter(*assembly, panel)).second);
      // Every letter has its place on the paper of its own panel.
      for (const FlatLabel& label : flatPiece(*assembly, p).labels)
        if (label.panel.valid()) QVERIFY(contains(assembly->panels[label.panel].outline, label.at));
    }
    QVERIFY(assembly->pieces.size() > 5);
    QCOMPARE(say(panelOnSheet(design, *assembly, assembly->findPanel("card/page-a"))),
             std::string("page a (A)"));
  }
};

QTEST_APPLESS_MAIN(TestModel)
#include "test_model.moc"
