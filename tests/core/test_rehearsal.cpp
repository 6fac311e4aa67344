// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/checks/practice.h"
#include "core/making/access.h"
#include "core/making/folded_wrong.h"
#include "core/making/rehearsal.h"
#include "core/model/planned.h"
#include "words/rehearsal_words.h"
#include <QDir>
#include <set>
#endif

using namespace hinge;
using namespace hinge::test;

// The card built on the screen first: what is asked, what is right, what wrong answers lead to.

namespace {

std::shared_ptr<const PlannedWork> planned(const Design& design) {
  return planWork(std::make_shared<const Snapshot>(design), {});
}

struct Rehearsed {
  std::shared_ptr<const PlannedWork> work;
  std::unique_ptr<Rehearsal> rehearsal;
};
Rehearsed rehearse(const Design& design) {
  Rehearsed out{planned(design), nullptr};
  out.rehearsal = std::make_unique<Rehearsal>(out.work->plan, out.work->assembly(),
                                              out.work->motion->shutPose());
  return out;
}

int rightAnswer(const Rehearsal& rehearsal) {
  for (int answer = 0; answer < 3; ++answer)
    if (rehearsal.isRight(answer)) return answer;
  return -1;
}

FoldIndex foldOf(const Assembly& assembly, const char* key) {
  return assembly.findFold(key);
}

} // namespace

class TestRehearsal : public QObject {
  Q_OBJECT
private slots:
  void rightAnswersBuildItTwice_data() {
    QTest::addColumn<QString>("file");
    for (const QString& file : QDir(QStringLiteral(HINGE_SOURCE_DIR "/demo"))
                                   .entryList({QStringLiteral("*.hinge")}, QDir::Files))
      QTest::newRow(qPrintable(file)) << file;
  }
  void rightAnswersBuildItTwice() {
    QFETCH(QString, file);
    const auto [work, rehearsal] = rehearse(demo(file.chopped(6).toStdString()));
    const std::size_t all = rehearsal->ofAll();
    std::size_t answers = 0;
    while (!rehearsal->over()) {
      QVERIFY(answers++ < 2 * all);
      // There is always a right answer, and it never is the only one.
      const int right = rightAnswer(*rehearsal);
      QVERIFY(right >= 0);
      const auto words = inWords(rehearsal->task(), *work);
      QVERIFY(words.answers.size() >= 2);
      QVERIFY(!words.question.empty());
      bool wrong = false;
      for (int k = 0; k < static_cast<int>(words.answers.size()); ++k)
        wrong = wrong || !rehearsal->isRight(k);
      QVERIFY(wrong);
      rehearsal->answer(right);
    }
    QCOMPARE(answers, 2 * all);
    QCOMPARE(rehearsal->wrongs(), 0);
  }

  /// Of a fold the first answer is a mountain, of a glued tab the first one that its face is glued.
  void answersAreWhatThePaperSays() {
    const auto [work, rehearsal] = rehearse(demo("night-market"));
    int folds = 0, glued = 0;
    while (!rehearsal->over()) {
      const RehearsalTask& task = rehearsal->task();
      if (task.kind == RehearsalTask::Kind::FoldSense) {
        const bool mountain = work->assembly().folds[task.fold].sense == FoldSense::Mountain;
        QCOMPARE(rehearsal->isRight(0), mountain);
        QCOMPARE(rehearsal->isRight(1), !mountain);
        ++folds;
      } else if (task.kind == RehearsalTask::Kind::GlueSide) {
        QVERIFY(rehearsal->isRight(0) != rehearsal->isRight(1));
        ++glued;
      }
      rehearsal->answer(rightAnswer(*rehearsal));
    }
    QVERIFY(folds > 0 && glued > 0);
  }

  void whatWasWrongComesAgainAfterAFewOthers() {
    const auto [work, rehearsal] = rehearse(demo("canal-houses"));
    const RehearsalTask first = rehearsal->task();
    rehearsal->answer(1 - rightAnswer(*rehearsal));
    std::size_t others = 0;
    while (!(rehearsal->task() == first)) {
      rehearsal->answer(rightAnswer(*rehearsal));
      ++others;
    }
    QCOMPARE(others, Rehearsal::kAgainAfter);
    // The card with the error does not count.
    while (rehearsal->left() > 1)
      rehearsal->answer(rightAnswer(*rehearsal));
    rehearsal->answer(rightAnswer(*rehearsal));
    QCOMPARE(rehearsal->clean(), 0);
    for (std::size_t k = 0; k < rehearsal->ofAll(); ++k)
      rehearsal->answer(rightAnswer(*rehearsal));
    QCOMPARE(rehearsal->clean(), 1);
    // An error in the second card: from the beginning again.
    rehearsal->answer(1 - rightAnswer(*rehearsal));
    while (rehearsal->clean() == 1)
      rehearsal->answer(rightAnswer(*rehearsal));
    QCOMPARE(rehearsal->clean(), 0);
    QCOMPARE(rehearsal->wrongs(), 2);
  }

  void forgivenAnswersAreNoErrors() {
    const auto [work, rehearsal] = rehearse(demo("canal-houses"));
    rehearsal->answer(1 - rightAnswer(*rehearsal), true);
    QCOMPARE(rehearsal->wrongs(), 0);
  }

  /// What the rehearsal calls out of reach is so by access itself.
  void outOfReachIsTrue() {
    int asked = 0;
    for (const char* name : {"moth-wings", "tube-lantern", "pop-up-lantern", "night-heron",
                             "lantern-tower", "keepers-desk", "paddle-wheels"}) {
      const auto [work, rehearsal] = rehearse(demo(name));
      const Assembly& assembly = work->assembly();
      for (std::size_t k = 0; k < rehearsal->ofAll(); ++k) {
        const RehearsalTask task = rehearsal->task();
        if (task.kind == RehearsalTask::Kind::NextJoint)
          for (int answer = 0; answer < static_cast<int>(task.choices.size()); ++answer) {
            if (rehearsal->isRight(answer)) continue;
            ++asked;
            const Misstep misstep = rehearsal->misstep(answer);
            const std::size_t chosen = task.choices[static_cast<std::size_t>(answer)];
            Access access(*work->motion, displayOpening_rad(work->design().card, assembly));
            // All that the plan makes up to the chosen step, but the one that is passed over.
            for (std::size_t s = 0; s <= chosen; ++s)
              if (s != misstep.outOfReach && work->plan.steps[s].kind == WorkKind::Join)
                access.set(work->plan.steps[s].joints, true);
            const JointGroup missed = work->plan.steps[misstep.outOfReach].joints;
            QVERIFY2(!access.reaches({&missed}), name);
          }
        rehearsal->answer(rightAnswer(*rehearsal));
      }
    }
    QVERIFY2(asked >= 3, qPrintable(QString::number(asked)));
  }

  void aWrongFoldGoesWrongAsPaperDoes() {
    // A crease folded down would take both panels through the pages on which they stand.
    Design design = card();
    const StructureId fold = add(design, "vfold", "gutter");
    const auto assembly = assemble(design);
    const auto came = foldedWrong(*assembly, foldOf(*assembly, (fold.text() + "/crease").c_str()));
    QVERIFY(came && came->what == FoldedWrong::What::Hits);
    QCOMPARE(assembly->panels[came->other].use, PanelUse::Page);
    QVERIFY(came->at_rad > radians(150));
    // The same fold the right way hits nothing.
    const Motion motion = Motion::trace(assembly);
    QVERIFY(findContacts(motion).contacts.empty());
    // A fold in a closed belt cannot be turned by itself.
    const auto houses = assemble(demo("canal-houses"));
    const auto belt = foldedWrong(*houses, foldOf(*houses, "s1/belt-1"));
    QVERIFY(belt && belt->what == FoldedWrong::What::DoesNotMeet);
    QVERIFY(!belt->motion);
    const auto work = planned(demo("canal-houses"));
    QVERIFY(QString::fromStdString(sayWrongFold(*belt, *work))
                .contains(QStringLiteral("cannot be glued in")));
  }

  void stoppedItSaysNothing() {
    const auto assembly = assemble(demo("night-market"));
    std::stop_source stop;
    stop.request_stop();
    QVERIFY(!foldedWrong(*assembly, foldOf(*assembly, "s1/crease"), stop.get_token()));
  }

  /// The piece turned over about its tab's fold: as far off as twice the distance from it.
  void turnedOverMissesByTwiceTheDistance() {
    Design design = card();
    add(design, "vfold", "gutter");
    const auto [work, rehearsal] = rehearse(design);
    const Pose shut = work->motion->shutPose();
    int asked = 0;
    for (std::size_t k = 0; k < rehearsal->ofAll(); ++k) {
      const RehearsalTask task = rehearsal->task();
      if (task.kind == RehearsalTask::Kind::GlueSide) {
        ++asked;
        const auto& glue =
            std::get<Glue>(work->assembly().joints[work->plan.steps[task.step].joints.front()]);
        const Fold& fold = work->assembly().folds[work->assembly().panels[glue.tab].folds.front()];
        double farthest = 0;
        for (const auto& [j, other] : work->assembly().every<Glue>()) {
          if (other.tab == glue.tab) continue;
          const Iso3 toTab = shut.panels[glue.tab].inverse() * shut.panels[other.tab];
          const Vec2 along = (fold.to - fold.from).normalized();
          for (const Vec2& corner : work->assembly().panels[other.tab].outline.rim) {
            const Vec2 at = (toTab * lift(corner)).head<2>();
            farthest = std::max(farthest, std::abs(cross2(along, at - fold.from)));
          }
        }
        const int wrong = 1 - rightAnswer(*rehearsal);
        QVERIFY_NEAR(rehearsal->misstep(wrong).off_mm, 2 * farthest, 0.05);
      }
      rehearsal->answer(rightAnswer(*rehearsal));
    }
    QCOMPARE(asked, 2);
  }

  void thePracticeCardIsSmallAndGood() {
    for (const char* name : {"canal-houses", "night-market", "tea-chests"}) {
      const Design design = demoAsItComes(name);
      const auto work = planned(design);
      const auto joints = trickiestJoints(work->plan, work->assembly());
      QVERIFY(!joints.empty() && joints.size() <= 3);
      std::set<StructureId> wanted;
      for (std::size_t step : joints)
        for (PieceIndex piece : work->plan.steps[step].pieces)
          if (const auto& owner = work->assembly().pieces[piece].owner) wanted.insert(*owner);
      const auto practice = practiceOf(design, wanted);
      QVERIFY(practice);
      for (StructureId id : wanted)
        QVERIFY(practice->find(id));
      QVERIFY(practice->structures.size() <= design.structures.size());
      QVERIFY(practice->card.width_mm * practice->card.height_mm <=
              design.card.width_mm * design.card.height_mm);
      const auto verdict = analyse(*practice);
      QVERIFY(verdict && verdict->verdict != Verdict::Spoiled);
    }
    QVERIFY(!practiceOf(demo("night-market"), {StructureId{99}}));
    // One tent of the market alone needs less card.
    const Design market = demo("night-market");
    const auto one = practiceOf(market, {market.structures.front().id});
    QVERIFY(one && one->card.height_mm < market.card.height_mm);
  }
};

QTEST_GUILESS_MAIN(TestRehearsal)
#include "test_rehearsal.moc"
