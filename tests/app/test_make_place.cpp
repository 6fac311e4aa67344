// SPDX-License-Identifier: GPL-3.0-or-later
#include "sheet_driver.h"
#ifndef Q_MOC_RUN
#include "core/io/maker_ways.h"
#include <QTemporaryDir>
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
  void waitForPlan() { QTRY_VERIFY_WITH_TIMEOUT(!place().busy() && place().plan(), 30000); }
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
    QTRY_VERIFY_WITH_TIMEOUT(!place().busy(), 30000);
    settle();
    m_window->go(MainWindow::MakeCard);
    QTRY_VERIFY_WITH_TIMEOUT(!place().busy(), 30000);
    // There is a plan, or it is said why there is none.
    QVERIFY(place().plan() ? place().steps().count() > 0 : says(QStringLiteral("findings")));
  }
};

QTEST_MAIN(TestMakePlace)
#include "test_make_place.moc"
