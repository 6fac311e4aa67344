// SPDX-License-Identifier: GPL-3.0-or-later
#include "patience.h"
#include "sheet_driver.h"
#ifndef Q_MOC_RUN
#include "app/at_bench.h"
#include "app/booklet_dialog.h"
#include "app/rehearsal_window.h"
#include "core/io/maker_ways.h"
#include "core/io/text_file.h"
#include "core/io/work_record_json.h"
#include "support.h"
#include <QProcess>
#include <QSignalSpy>
#include <QTemporaryDir>
#include <csignal>
#include <cstring>
#endif

using namespace hinge;

// The place Make, driven in the real window: the plan, the maker's ways, several cards.

class TestMakePlace : public hinge::test::SheetDriver {
  Q_OBJECT

  QTemporaryDir m_folder;

  MakePlace& place() { return m_window->makePlace(); }
  template <class Widget> Widget* named(const QString& name) {
    for (Widget* one : place().findChildren<Widget*>())
      if (one->accessibleName() == name) return one;
    return nullptr;
  }
  bool says(const QString& part) {
    for (QLabel* label : place().findChildren<QLabel*>())
      if (label->text().contains(part)) return true;
    return false;
  }
  void waitForPlan() { QTRY_VERIFY_WITH_TIMEOUT(!place().busy() && place().plan(), kPatience_ms); }
  void openMake(const char* demo) {
    QVERIFY(m_window->openFile(QStringLiteral(HINGE_SOURCE_DIR "/demo/") + QLatin1String(demo)));
    m_window->go(MainWindow::MakeCard);
    QVERIFY(place().isVisible());
    waitForPlan();
  }
  std::vector<PressWay> presses() {
    std::vector<PressWay> all;
    for (const WorkStep& step : place().plan()->steps)
      if (step.kind == WorkKind::Join) all.push_back(step.press);
    return all;
  }

private slots:
  void initTestCase() {
    prepare(QStringLiteral("hinge-lantern-test-make"));
    // The maker's own ways are not the tests' to change.
    QStandardPaths::setTestModeEnabled(false);
    qputenv("XDG_DATA_HOME", m_folder.path().toUtf8());
  }
  void init() { openWindow(); }
  void cleanup() { m_window.reset(); }

  void stepsAreListedAndOneIsLarge() {
    openMake("canal-houses.hinge");
    const WorkPlan& plan = *place().plan();
    QCOMPARE(place().steps().count(), static_cast<int>(plan.steps.size()));
    QVERIFY(place().steps().item(0)->text().startsWith(QStringLiteral("1.  Lay out")));
    for (std::size_t k = 0; k < plan.steps.size(); ++k) {
      if (plan.steps[k].kind != WorkKind::Measure) continue;
      place().steps().setCurrentRow(static_cast<int>(k));
      QVERIFY(says(QString::number(plan.steps[k].number_mm, 'g', 5)));
      break;
    }
    // By keys alone, from one to the next.
    place().steps().setFocus();
    const int row = place().steps().currentRow();
    QTest::keyClick(&place().steps(), Qt::Key_Down);
    QCOMPARE(place().steps().currentRow(), row + 1);
    QVERIFY(!place().grab().isNull());
  }

  void schoolsChangeThePlanAtOnce() {
    openMake("canal-houses.hinge");
    const auto before = presses();
    auto* closing = named<QComboBox>(QStringLiteral("Closing"));
    QVERIFY(closing);
    closing->setCurrentIndex(1);
    emit closing->activated(1);
    waitForPlan();
    QVERIFY(presses() != before);
    const double tape = place().plan()->tape_mm;
    auto* joints = named<QComboBox>(QStringLiteral("Joints"));
    joints->setCurrentIndex(joints->findData(QStringLiteral("strong-tape")));
    emit joints->activated(joints->currentIndex());
    waitForPlan();
    QVERIFY(place().plan()->tape_mm > tape);
    // They are kept for the next start.
    const auto kept = makersWays();
    QVERIFY(kept && kept->closing == Closing::OnMarks && kept->joints == Adhesive::StrongTape);
    openWindow();
    QCOMPARE(named<QComboBox>(QStringLiteral("Closing"))->currentIndex(), 1);
    std::remove(makersWaysPath().c_str());
  }

  void severalCardsAreScheduled() {
    openMake("ferry-pass.hinge");
    QVERIFY(says(QStringLiteral("ready after")));
    named<QSpinBox>(QStringLiteral("Cards"))->setValue(5);
    waitForPlan();
    QVERIFY(says(QStringLiteral("5 cards: the first is ready after")));
  }

  void whatCannotBePutTogetherIsSaid() {
    openMake("night-market.hinge");
    QVERIFY(
        m_window->openFile(QStringLiteral(HINGE_SOURCE_DIR "/demo/night-market-mistakes.hinge")));
    QTRY_VERIFY_WITH_TIMEOUT(!place().busy(), kPatience_ms);
    settle();
    m_window->go(MainWindow::MakeCard);
    QTRY_VERIFY_WITH_TIMEOUT(!place().busy(), kPatience_ms);
    // There is a plan, or it is said why there is none.
    QVERIFY(place().plan() ? place().steps().count() > 0 : says(QStringLiteral("findings")));
    if (place().plan()) {
      QVERIFY(says(QStringLiteral("will fail")));
      int marked = 0;
      for (int k = 0; k < place().steps().count(); ++k)
        marked += place().steps().item(k)->text().startsWith(QStringLiteral("◆"));
      QVERIFY(marked > 0);
    }
  }

  void whatASchoolChangesIsSaid() {
    openMake("canal-houses.hinge");
    QTRY_VERIFY_WITH_TIMEOUT(!place().busy(), kPatience_ms);
    auto* joints = named<QComboBox>(QStringLiteral("Joints"));
    joints->setCurrentIndex(joints->findData(QStringLiteral("strong-tape")));
    emit joints->activated(joints->currentIndex());
    QTRY_VERIFY_WITH_TIMEOUT(!place().busy(), kPatience_ms);
    QVERIFY(says(QStringLiteral("another adhesive")));
    std::remove(makersWaysPath().c_str());
  }

  void stepsHavePicturesAndMove() {
    openMake("two-tents.hinge");
    QTRY_VERIFY_WITH_TIMEOUT(!place().busy(), kPatience_ms);
    const WorkPlan& plan = *place().plan();
    int joint = 0;
    while (plan.steps[static_cast<std::size_t>(joint)].kind != WorkKind::Join)
      ++joint;
    place().steps().setCurrentRow(joint);
    QTRY_VERIFY_WITH_TIMEOUT(!place().view().busy(), kPatience_ms);
    const QImage still = place().view().image();
    QVERIFY(!still.isNull());
    auto* play = place().findChild<QPushButton*>(QStringLiteral("play-step"));
    QVERIFY(play->isEnabled());
    QTest::mouseClick(play, Qt::LeftButton);
    int frames = 0, others = 0;
    connect(&place().view(), &StepView::painted, this, [&] {
      ++frames;
      others += place().view().image() != still;
    });
    QTRY_VERIFY_WITH_TIMEOUT(!place().view().playing() && !place().view().busy(), kPatience_ms);
    QVERIFY2(frames > 5 && others > 3, qPrintable(QString::number(frames)));
    QVERIFY(place().view().image() == still);
    // Pictures of the strip are there, and differ.
    QVERIFY(place().steps().item(0)->icon().pixmap(132, 96).toImage() !=
            place().steps().item(joint)->icon().pixmap(132, 96).toImage());
  }

  void theBookletIsWritten() {
    openMake("two-tents.hinge");
    QTRY_VERIFY_WITH_TIMEOUT(!place().busy(), kPatience_ms);
    QTest::mouseClick(place().findChild<QPushButton*>(QStringLiteral("booklet")), Qt::LeftButton);
    auto* dialog = m_window->findChild<BookletDialog*>();
    QVERIFY(dialog && dialog->isVisible());
    for (const char* name : {"tents.pdf", "tents.html"}) {
      const QString path = m_folder.filePath(QLatin1String(name));
      dialog->write(path);
      QTRY_VERIFY_WITH_TIMEOUT(!dialog->busy(), kPatience_ms);
      QVERIFY(QFileInfo(path).size() > 10000);
    }
    dialog->write(m_folder.filePath(QStringLiteral("no/such/folder/b.pdf")));
    QTRY_VERIFY_WITH_TIMEOUT(!dialog->busy(), kPatience_ms);
    QVERIFY(!QFile::exists(m_folder.filePath(QStringLiteral("no"))));
    dialog->close();
  }

  void theBenchGoesOnByKeysAndSurvivesBeingKilled() {
    const QString card = m_folder.filePath(QStringLiteral("card.hinge"));
    QVERIFY(QFile::copy(QStringLiteral(HINGE_SOURCE_DIR "/demo/canal-houses.hinge"), card));
    // Another process works at the card and is killed in mid-step.
    QProcess child;
    child.start(QCoreApplication::applicationFilePath(), {QStringLiteral("--bench-child"), card});
    QVERIFY(child.waitForFinished(60000));
    QCOMPARE(child.exitStatus(), QProcess::CrashExit);
    const auto record = readWorkRecord(workRecordPath(card.toStdString()));
    QVERIFY(record);
    QCOMPARE(record->done, std::vector<std::string>{"ready"});
    QCOMPARE(record->current, std::string("score"));
    QCOMPARE(record->part, 2);
    QCOMPARE(record->misses.size(), std::size_t(1));
    QCOMPARE(record->misses.front().word, std::string("torn"));

    QVERIFY(m_window->openFile(card));
    m_window->go(MainWindow::MakeCard);
    waitForPlan();
    QTest::mouseClick(place().findChild<QPushButton*>(QStringLiteral("at-the-bench")),
                      Qt::LeftButton);
    QTRY_VERIFY_WITH_TIMEOUT(m_window->findChild<AtBench*>(), kPatience_ms);
    auto* bench = m_window->findChild<AtBench*>();
    QVERIFY(bench->isVisible());
    QCOMPARE(bench->work().current(), std::size_t(1));
    QCOMPARE(bench->work().part(), 2);
    // A pedal is a keyboard; every key for going on goes on.
    for (Qt::Key key : {Qt::Key_PageDown, Qt::Key_Right, Qt::Key_Space}) {
      const int part = bench->work().part();
      QTest::keyClick(bench, key);
      QCOMPARE(bench->work().part(), part + 1);
    }
    QTest::keyClick(bench, Qt::Key_Left);
    QCOMPARE(bench->work().part(), 4);
    while (place().plan()->steps[bench->work().current()].kind != WorkKind::Measure)
      QTest::keyClick(bench, Qt::Key_Space);
    QVERIFY(bench->work().doneCount() > 10);
    QVERIFY(
        !bench->work().running(static_cast<double>(QDateTime::currentSecsSinceEpoch())).empty());
    // What the ruler shows is typed right there.
    QTest::keyClicks(bench, QStringLiteral("9"));
    auto* entry = bench->findChild<QLineEdit*>();
    QVERIFY(entry->isVisible());
    QTest::keyClick(entry, Qt::Key_Return);
    QCOMPARE(bench->work().record().measured.size(), std::size_t(1));
    QVERIFY_NEAR(bench->work().record().measured.front().mm, 9, 1e-9);
    // Another bench goes on with the card: what it has written stays, and this one says so.
    QTRY_VERIFY_WITH_TIMEOUT(!bench->keeping(), kPatience_ms);
    WorkRecord others = *readWorkRecord(workRecordPath(card.toStdString()));
    others.done.push_back("elsewhere");
    QVERIFY(writeWorkRecord(workRecordPath(card.toStdString()), others));
    QTest::keyClick(bench, Qt::Key_Space);
    QTRY_VERIFY_WITH_TIMEOUT(
        std::ranges::any_of(
            bench->findChildren<QLabel*>(),
            [](QLabel* label) { return label->text().contains(QStringLiteral("another bench")); }),
        kPatience_ms);
    QVERIFY(*readWorkRecord(workRecordPath(card.toStdString())) == others);
    QTest::keyClick(bench, Qt::Key_Escape);
    QTRY_VERIFY_WITH_TIMEOUT(!m_window->findChild<AtBench*>(), kPatience_ms);
  }

  void theRehearsalShowsWhatAChoiceLeadsTo() {
    const QString card = m_folder.filePath(QStringLiteral("rehearsed.hinge"));
    QVERIFY(QFile::copy(QStringLiteral(HINGE_SOURCE_DIR "/demo/night-market.hinge"), card));
    QVERIFY(m_window->openFile(card));
    m_window->go(MainWindow::MakeCard);
    waitForPlan();
    QTest::mouseClick(place().findChild<QPushButton*>(QStringLiteral("rehearse")), Qt::LeftButton);
    auto* window = m_window->findChild<RehearsalWindow*>();
    QVERIFY(window && window->isVisible());
    const Rehearsal& rehearsal = window->rehearsal();
    const auto rightKey = [&] {
      for (int k = 0; k < 3; ++k)
        if (rehearsal.isRight(k)) return k;
      return -1;
    };
    const auto saysIn = [&](const QString& part) {
      for (QLabel* label : window->findChildren<QLabel*>())
        if (label->text().contains(part)) return true;
      return false;
    };
    // A wrong fold: it is worked out, shown and said, and comes again.
    QCOMPARE(rehearsal.task().kind, RehearsalTask::Kind::FoldSense);
    const RehearsalTask first = rehearsal.task();
    QTest::keyClick(window, static_cast<Qt::Key>(Qt::Key_1 + 1 - rightKey()));
    QVERIFY(window->showsMistake());
    QTRY_VERIFY_WITH_TIMEOUT(!window->busy(), kPatience_ms);
    QVERIFY(saysIn(QStringLiteral("would have to go through")));
    QTest::keyClick(window, Qt::Key_Space);
    QVERIFY(!window->showsMistake());
    QCOMPARE(rehearsal.wrongs(), 1);
    QVERIFY(!(rehearsal.task() == first));
    // Then everything right, by keys and pointer, till it is over.
    bool again = false;
    for (int k = 0; !rehearsal.over() && k < 200; ++k) {
      again = again || rehearsal.task() == first;
      QTest::keyClick(window, static_cast<Qt::Key>(Qt::Key_1 + rightKey()));
      QVERIFY(!window->showsMistake());
      QTest::keyClick(window, Qt::Key_Space);
    }
    QVERIFY(again && rehearsal.over());
    QVERIFY(saysIn(QStringLiteral("take the good paper")));
    QTRY_VERIFY_WITH_TIMEOUT(!window->busy(), kPatience_ms);
    const auto record = readWorkRecord(workRecordPath(card.toStdString()));
    QVERIFY(record);
    QCOMPARE(record->rehearsed.size(), std::size_t(1));
    QVERIFY(record->rehearsed.front().finished);
    QCOMPARE(record->rehearsed.front().wrongs, 1);

    const QString sheet = m_folder.filePath(QStringLiteral("practice.pdf"));
    window->writePractice(sheet);
    QTRY_VERIFY_WITH_TIMEOUT(!window->busy(), kPatience_ms);
    QVERIFY(QFileInfo(sheet).size() > 5000);
    QTest::keyClick(window, Qt::Key_Escape);
    QTRY_VERIFY_WITH_TIMEOUT(!m_window->findChild<RehearsalWindow*>(), kPatience_ms);
  }

  /// The bench opens all the same; what is wrong with the record stands on it.
  void aDamagedRecordIsSetAside() {
    const QString card = m_folder.filePath(QStringLiteral("other.hinge"));
    QVERIFY(QFile::copy(QStringLiteral(HINGE_SOURCE_DIR "/demo/two-tents.hinge"), card));
    const std::string path = workRecordPath(card.toStdString());
    QVERIFY(writeFile(path, "{ half a record"));
    QVERIFY(m_window->openFile(card));
    m_window->go(MainWindow::MakeCard);
    waitForPlan();
    place().openBench();
    QTRY_VERIFY_WITH_TIMEOUT(m_window->findChild<AtBench*>(), kPatience_ms);
    auto* bench = m_window->findChild<AtBench*>();
    QCOMPARE(bench->work().doneCount(), std::size_t(0));
    const auto says = [&](const QString& part) {
      return std::ranges::any_of(bench->findChildren<QLabel*>(), [&](QLabel* label) {
        return label->isVisible() && label->text().contains(part);
      });
    };
    QVERIFY(says(QString::fromStdString(path + ".damaged")));
    QCOMPARE(*readFile(path + ".damaged"), std::string("{ half a record"));
    QTest::keyClick(bench, Qt::Key_Space);
    QVERIFY(readWorkRecord(path) && !says(QStringLiteral("Not kept")));
    // Then it cannot be written any more.
    QVERIFY(QFile::remove(QString::fromStdString(path)) &&
            QDir().mkdir(QString::fromStdString(path)));
    QTest::keyClick(bench, Qt::Key_Space);
    QVERIFY(says(QStringLiteral("Not kept")));
    QVERIFY(QDir().rmdir(QString::fromStdString(path)));
    QTest::keyClick(bench, Qt::Key_Space);
    QVERIFY(readWorkRecord(path) && !says(QStringLiteral("Not kept")));
    QTest::keyClick(bench, Qt::Key_Escape);
  }

  /// What a later program has written is not touched.
  void aRecordOfALaterProgramIsLeftAlone() {
    const QString card = m_folder.filePath(QStringLiteral("later.hinge"));
    QVERIFY(QFile::copy(QStringLiteral(HINGE_SOURCE_DIR "/demo/two-tents.hinge"), card));
    const std::string path = workRecordPath(card.toStdString());
    const std::string text = R"({"format": "hinge-lantern-work", "version": 7})";
    QVERIFY(writeFile(path, text));
    QVERIFY(m_window->openFile(card));
    m_window->go(MainWindow::MakeCard);
    waitForPlan();
    QSignalSpy refused(&place(), &MakePlace::refused);
    place().openBench();
    QTRY_COMPARE_WITH_TIMEOUT(refused.count(), 1, kPatience_ms);
    QVERIFY(!m_window->findChild<AtBench*>());
    QCOMPARE(*readFile(path), text);
  }
};

namespace {

/// The process that is killed: three acts at the bench and a note, then the power goes.
int benchChild(int argc, char** argv) {
  QApplication application(argc, argv);
  QStandardPaths::setTestModeEnabled(false);
  QCoreApplication::setOrganizationName(QStringLiteral("hinge-lantern-test"));
  Look::apply(application, false);
  MainWindow window;
  window.resize(1280, 800);
  window.show();
  if (!window.openFile(QString::fromLocal8Bit(argv[2]))) return 1;
  window.go(MainWindow::MakeCard);
  if (!QTest::qWaitFor([&] { return window.makePlace().plan() != nullptr; }, 40000)) return 1;
  window.makePlace().openBench();
  const auto open = [&] { return window.findChild<AtBench*>() != nullptr; };
  if (!QTest::qWaitFor(open, 40000)) return 1;
  auto* bench = window.findChild<AtBench*>();
  for (int k = 0; k < 3; ++k)
    QTest::keyClick(bench, Qt::Key_Space);
  QTest::keyClick(bench, Qt::Key_W);
  QTest::keyClicks(bench->findChild<QLineEdit*>(), QStringLiteral("torn"));
  QTest::keyClick(bench->findChild<QLineEdit*>(), Qt::Key_Return);
  if (!QTest::qWaitFor([&] { return !bench->keeping(); }, 40000)) return 1;
  ::raise(SIGKILL);
  return 1;
}

} // namespace

int main(int argc, char** argv) {
  if (argc == 3 && std::strcmp(argv[1], "--bench-child") == 0) return benchChild(argc, argv);
  QApplication application(argc, argv);
  TestMakePlace test;
  QTEST_SET_MAIN_SOURCE_PATH
  return QTest::qExec(&test, argc, argv);
}
#include "test_make_place.moc"
