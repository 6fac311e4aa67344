// SPDX-License-Identifier: GPL-3.0-or-later
#include <QSignalSpy>
#include <QTest>
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "app/analyst.h"
#include "app/background.h"
#include "app/newest_work.h"
#include "app/preview_motion.h"
#include "core/edits/edits.h"
#include "patience.h"
#include "support.h"
#include <QThreadPool>
#include <atomic>
#endif

using namespace hinge;
using namespace hinge::test;

// What works on other threads, without a window: the newest counts, what is stopped says nothing.

namespace {

std::shared_ptr<const Snapshot> snapshotOf(const char* name) {
  return std::make_shared<const Snapshot>(demo(name));
}
/// Everything that was begun has ended, and has been heard.
void letAllEnd() {
  backgroundPool().waitForDone();
  QCoreApplication::processEvents();
}

} // namespace

class TestAnalyst : public QObject {
  Q_OBJECT
  void settle(const Analyst& analyst) {
    QTRY_VERIFY_WITH_TIMEOUT(!analyst.busy() && !analyst.searchingMends() && !analyst.mending(),
                             kPatience_ms);
  }

private slots:
  void cleanup() { letAllEnd(); }

  // --- the analyst ---------------------------------------------------------------------------
  void aVerdictComes() {
    Analyst analyst;
    QVERIFY(!analyst.busy() && !analyst.current() && !analyst.lastMotion());
    const QSignalSpy changed(&analyst, &Analyst::changed);
    const auto snapshot = snapshotOf("night-market");
    analyst.request(snapshot);
    QVERIFY(analyst.busy() && !analyst.current());
    QCOMPARE(changed.size(), qsizetype(1));
    settle(analyst);
    QVERIFY(analyst.current());
    QCOMPARE(analyst.current()->snapshot.get(), snapshot.get());
    QVERIFY(analyst.current()->verdict == Verdict::Good);
    // A good card has its facts, and what is seen of it is known.
    QVERIFY(analyst.current()->shut && analyst.current()->stand);
    QVERIFY(snapshot->seenIfReady() && snapshot->dressedIfReady());
    QCOMPARE(analyst.lastMotion(), analyst.current()->motion.get());
  }
  void mendsComeAfterTheVerdict() {
    Analyst analyst;
    bool verdictFirst = false;
    connect(&analyst, &Analyst::changed, this, [&] {
      if (analyst.current() && analyst.searchingMends()) verdictFirst = true;
    });
    analyst.request(std::make_shared<const Snapshot>(demoAsItComes("night-market-mistakes")));
    settle(analyst);
    QVERIFY(verdictFirst);
    const auto& findings = analyst.current()->findings;
    QVERIFY(findings.size() >= 4);
    for (const Finding& finding : findings)
      QVERIFY(finding.mendSought);
  }
  void onlyTheNewestIsShown() {
    Analyst analyst;
    std::vector<const Snapshot*> shown;
    connect(&analyst, &Analyst::changed, this, [&] {
      if (analyst.current()) shown.push_back(analyst.current()->snapshot.get());
    });
    std::shared_ptr<const Snapshot> last;
    for (const char* name : {"canal-houses", "tower", "ferry-pass", "night-market"})
      analyst.request(last = snapshotOf(name));
    settle(analyst);
    letAllEnd();
    QVERIFY(!shown.empty());
    for (const Snapshot* one : shown)
      QCOMPARE(one, last.get());
  }
  void theMotionBeforeIsANeighbour() {
    Analyst analyst;
    analyst.request(snapshotOf("night-market"));
    settle(analyst);
    const auto before = analyst.current()->motion;
    analyst.request(snapshotOf("tower"));
    QVERIFY(!analyst.current());
    QCOMPARE(analyst.lastMotion(), before.get());
    settle(analyst);
    QVERIFY(analyst.lastMotion() != before.get());
  }
  void whatIsCancelledSaysNothing() {
    Analyst analyst;
    analyst.request(snapshotOf("canal-houses"));
    analyst.cancel();
    QVERIFY(!analyst.busy());
    const QSignalSpy changed(&analyst, &Analyst::changed);
    letAllEnd();
    QCOMPARE(changed.size(), qsizetype(0));
    QVERIFY(!analyst.current());
  }
  void whatCannotBeAssembledIsNoVerdict() {
    Design impossible = card();
    add(impossible, "box", "gutter");
    impossible.structures.front().seat = "no-such-fold";
    Analyst analyst;
    analyst.request(std::make_shared<const Snapshot>(impossible));
    settle(analyst);
    QVERIFY(!analyst.current());
  }
  void allIsMended() {
    Analyst analyst;
    const Design broken = demoAsItComes("night-market-mistakes");
    std::shared_ptr<const Design> whole;
    connect(&analyst, &Analyst::mended, this, [&](const auto& design) { whole = design; });
    std::vector<std::size_t> told;
    connect(&analyst, &Analyst::advanced, this, [&] {
      QVERIFY(analyst.done() <= analyst.all());
      told.push_back(analyst.done());
    });
    analyst.mendAll(broken);
    QVERIFY(analyst.mending());
    QTRY_VERIFY_WITH_TIMEOUT(whole, kPatience_ms);
    QVERIFY(!analyst.mending());
    QVERIFY(std::ranges::is_sorted(told));
    QVERIFY(checked(*whole).verdict == Verdict::Good);
    QVERIFY(!(*whole == broken));
  }
  void mendingThatIsCancelledChangesNothing() {
    Analyst analyst;
    const QSignalSpy mended(&analyst, &Analyst::mended);
    analyst.mendAll(demoAsItComes("night-market-mistakes"));
    analyst.cancel();
    letAllEnd();
    QCOMPARE(mended.size(), qsizetype(0));
    QVERIFY(!analyst.mending());
  }
  void itMayGoWhileItWorks() {
    for (int k = 0; k < 5; ++k) {
      Analyst analyst;
      analyst.request(snapshotOf("canal-houses"));
      QTest::qWait(3 * k); // at another moment of the work each time
    }
    letAllEnd();
  }

  // --- the card under a stroke ---------------------------------------------------------------
  void aStrokeIsFollowedToItsEnd() {
    PreviewMotion preview;
    std::shared_ptr<const Snapshot> last;
    Design design = demo("night-market");
    for (int k = 0; k < 30; ++k) {
      design.card.width_mm += 0.5;
      preview.ask(last = std::make_shared<const Snapshot>(design));
      QCoreApplication::processEvents();
    }
    QTRY_COMPARE_WITH_TIMEOUT(preview.newest().get(), last.get(), kPatience_ms);
    QVERIFY(last->motionIfReady());
    preview.ask(nullptr);
    QVERIFY(!preview.newest());
  }
  void whatComesAfterAStrokeIsNobodys() {
    PreviewMotion preview;
    const QSignalSpy changed(&preview, &PreviewMotion::changed);
    preview.ask(snapshotOf("canal-houses"));
    preview.ask(nullptr);
    letAllEnd();
    QCOMPARE(changed.size(), qsizetype(0));
    QVERIFY(!preview.newest());
  }

  // --- what they stand on --------------------------------------------------------------------
  void newWorkEndsTheOld() {
    QObject owner;
    NewestWork work(&owner);
    std::atomic<int> stopped = 0;
    std::vector<int> heard;
    for (int k = 0; k < 6; ++k)
      work.start(
          [k, &stopped](std::stop_token stop, const NewestWork::Tell& tell) {
            tell([] {});
            // All but the last wait for what ends them.
            while (k < 5 && !stop.stop_requested())
              QThread::usleep(200);
            stopped += stop.stop_requested();
            return k;
          },
          [&](int told) { heard.push_back(told); });
    QVERIFY(work.running());
    QTRY_VERIFY_WITH_TIMEOUT(!work.running(), kPatience_ms);
    letAllEnd();
    QCOMPARE(heard, std::vector<int>{5});
    QCOMPARE(stopped.load(), 5);
  }
  void nothingIsToldToAnOwnerThatIsGone() {
    bool told = false, done = false;
    std::atomic<bool> go = false;
    {
      auto owner = std::make_unique<QObject>();
      NewestWork work(owner.get());
      work.start(
          [&](std::stop_token, const NewestWork::Tell& tell) {
            while (!go)
              QThread::usleep(200);
            tell([&] { told = true; });
            return 0;
          },
          [&](int) { done = true; });
    }
    go = true;
    letAllEnd();
    QVERIFY(!told && !done);
  }
};

QTEST_MAIN(TestAnalyst)
#include "test_analyst.moc"
