// SPDX-License-Identifier: GPL-3.0-or-later
#include "patience.h"
#include "sheet_driver.h"
#ifndef Q_MOC_RUN
#include "app/bench_dialog.h"
#include "app/cutter_dialog.h"
#include "app/pdf_dialog.h"
#include "app/splice_dialog.h"
#include "core/io/cut_mark.h"
#include "core/io/maker_bench.h"
#include "core/io/text_file.h"
#include "cutter/bed.h"
#include <QMenu>
#endif

using namespace hinge;

// The place Cut, driven in the real window: the bench, files, what is too long, a machine.

class TestCutPlace : public hinge::test::SheetDriver {
  Q_OBJECT

  QTemporaryDir m_files;

  CutPlace& place() { return m_window->cutPlace(); }
  QPushButton* button(const char* name) {
    return place().findChild<QPushButton*>(QLatin1String(name));
  }
  static QPushButton* labelled(QWidget* parent, const QString& text) {
    for (QPushButton* one : parent->findChildren<QPushButton*>())
      if (one->text() == text) return one;
    return nullptr;
  }
  template <class Widget> static Widget* named(QWidget* parent, const QString& name) {
    for (Widget* one : parent->findChildren<Widget*>())
      if (one->accessibleName() == name) return one;
    return nullptr;
  }
  static QString saysIn(QWidget* dialog, const QString& part) {
    for (QLabel* label : dialog->findChildren<QLabel*>())
      if (label->text().contains(part)) return label->text();
    return {};
  }
  void openCut(const char* demo, bool machine) {
    QVERIFY(m_window->openFile(QStringLiteral(HINGE_SOURCE_DIR "/demo/") + QLatin1String(demo)));
    m_window->go(MainWindow::CutCard);
    if (machine) button("by-machine")->click();
    QTRY_VERIFY_WITH_TIMEOUT(!place().planner().busy() && place().planner().plan(), kPatience_ms);
  }

private slots:
  void initTestCase() {
    prepare(QStringLiteral("hinge-lantern-test-cut"));
    // The maker's own bench is not the tests' to change, nor that of tests beside this one.
    QStandardPaths::setTestModeEnabled(false);
    qputenv("XDG_DATA_HOME", m_files.filePath(QStringLiteral("data")).toUtf8());
    qputenv("XDG_CONFIG_HOME", m_files.filePath(QStringLiteral("config")).toUtf8());
  }
  void init() { openWindow(); }
  void cleanup() {
    m_window.reset();
    std::remove(makersBenchPath().c_str());
    forgetCutMark();
  }

  void theBenchIsDescribed() {
    openCut("canal-houses.hinge", false);
    button("bench")->click();
    auto* dialog = m_window->findChild<BenchDialog*>();
    QVERIFY(dialog);
    auto* board =
        named<QLineEdit>(dialog, QStringLiteral("Length of the scoring board (0: a ruler)"));
    auto* first = named<QComboBox>(dialog, QStringLiteral("Where numbers begin"));
    QVERIFY(board && first && board->text() == QStringLiteral("300 mm"));
    board->setText(QStringLiteral("twelve"));
    labelled(dialog, QStringLiteral("Keep it"))->click();
    QVERIFY(!saysIn(dialog, QStringLiteral("◆")).isEmpty()); // and nothing is kept
    QVERIFY(!fileExists(makersBenchPath()));
    board->setText(QStringLiteral("12 in"));
    first->setCurrentIndex(1);
    auto* numbers = named<QTableWidget>(&place(), QStringLiteral("Numbers to set"));
    QCOMPARE(numbers->horizontalHeaderItem(1)->text(), QStringLiteral("From the left"));
    labelled(dialog, QStringLiteral("Keep it"))->click();
    const auto kept = makersBench();
    QVERIFY(kept && std::abs(kept->board_mm - 304.8) < 1e-9);
    QCOMPARE(kept->first, FirstEdge::Right);
    QCOMPARE(numbers->horizontalHeaderItem(1)->text(), QStringLiteral("From the right"));
  }

  void numbersStandBesideThoseOfAnotherSheet() {
    openCut("long-quay.hinge", false);
    auto* field = named<QLineEdit>(&place(), QStringLiteral("Flat length of another sheet"));
    auto* numbers = named<QTableWidget>(&place(), QStringLiteral("Numbers to set"));
    QVERIFY(field && numbers && numbers->rowCount() > 1);
    const auto both = [&] {
      int cells = 0;
      for (int r = 0; r < numbers->rowCount(); ++r)
        for (int c = 0; c < numbers->columnCount(); ++c)
          cells += numbers->item(r, c)->text().contains(QStringLiteral("->")) ? 1 : 0;
      return cells;
    };
    QCOMPARE(both(), 0);
    field->setText(QStringLiteral("640"));
    QTest::keyClick(field, Qt::Key_Return);
    QVERIFY(both() > 2);
    QVERIFY(!saysIn(&place(), QStringLiteral("Free:")).isEmpty());
    field->clear();
    QTest::keyClick(field, Qt::Key_Return);
    QCOMPARE(both(), 0);
    field->setText(QStringLiteral("1"));
    QTest::keyClick(field, Qt::Key_Return);
    QVERIFY(!m_window->noticeText().isEmpty());
  }

  void oneSheetIsWritten() {
    openCut("ferry-pass.hinge", true);
    QTest::mouseClick(&place().sheets(), Qt::LeftButton, {},
                      place().sheets().middleOf(1).toPoint());
    const std::size_t sheet = place().sheets().currentSheet();
    for (const char* format : {"sheet-svg", "sheet-dxf", "sheet-hpgl", "txt", "csv", "dxf"}) {
      const QString path = m_files.filePath(QLatin1String(format));
      QVERIFY2(place().exportTo(QLatin1String(format), path), format);
      QVERIFY(QFileInfo(path).size() > 100);
    }
    const auto text = readFile(m_files.filePath(QStringLiteral("sheet-svg")).toStdString());
    const double width = place().planner().plan()->sheets[sheet].width_mm;
    QVERIFY(QString::fromStdString(*text).contains(QStringLiteral("width=\"%1mm\"").arg(width)));
    QVERIFY(button("files")->menu()->actions().size() > 8);
  }

  void howItIsPrintedIsAsked() {
    openCut("ferry-pass.hinge", false);
    button("primary")->click();
    auto* dialog = m_window->findChild<PdfDialog*>();
    QVERIFY(dialog);
    QVERIFY(!dialog->wishes().page_mm && dialog->wishes().print == PdfPrint::LinesAlone);
    named<QComboBox>(dialog, QStringLiteral("On the sheets"))->setCurrentIndex(2);
    named<QComboBox>(dialog, QStringLiteral("What"))->setCurrentIndex(1);
    named<QComboBox>(dialog, QStringLiteral("Printer's page"))->setCurrentIndex(1);
    dialog->findChild<QCheckBox*>()->setChecked(true);
    const PdfWishes wishes = dialog->wishes();
    QCOMPARE(wishes.print, PdfPrint::LinesUnder);
    QCOMPARE(wishes.what, PdfContent::Sheets);
    QVERIFY(wishes.backs && wishes.page_mm && std::abs(wishes.page_mm->x() - 210) < 1e-9);
  }

  void whatIsTooLongIsParted() {
    Design design;
    design.card.width_mm = 240, design.card.height_mm = 160;
    document().start(design);
    m_window->go(MainWindow::CutCard);
    QTRY_VERIFY_WITH_TIMEOUT(!place().planner().busy() && place().planner().plan(), kPatience_ms);
    QCOMPARE(place().planner().plan()->tooLarge.size(), std::size_t(1));
    QVERIFY(button("part")->isVisibleTo(button("part")->parentWidget()));
    button("part")->click();
    auto* dialog = m_window->findChild<SpliceDialog*>();
    QVERIFY(dialog);
    QTRY_VERIFY_WITH_TIMEOUT(!dialog->busy(), kPatience_ms);
    QVERIFY(dialog->findChild<QListWidget*>()->item(0)->text().contains(
        QStringLiteral("would hold it whole")));
    labelled(dialog, QStringLiteral("Part them"))->click();
    QVERIFY(!document().committed().splices.empty());
    QTRY_VERIFY_WITH_TIMEOUT(
        !place().planner().busy() && place().planner().plan()->tooLarge.empty(), kPatience_ms);
    QVERIFY(!button("part")->isVisibleTo(button("part")->parentWidget()));
    document().undoStack().undo();
    QVERIFY(document().committed().splices.empty());
  }

  void aSheetIsSentJamsAndGoesOn() {
    CutterFaults faults;
    faults.jamAfter_mm = 400;
    Bed bed({210, 297}, 0.25, faults, 200);
    const QString socket = m_files.filePath(QStringLiteral("cutter"));
    QVERIFY(bed.listenAt(socket));
    openCut("ferry-pass.hinge", true);
    QVERIFY(button("send")->isVisibleTo(&place()));
    button("send")->click();
    auto* dialog = m_window->findChild<CutterDialog*>();
    QVERIFY(dialog);
    auto* machine = named<QComboBox>(dialog, QStringLiteral("Machine"));
    machine->setCurrentText(m_files.filePath(QStringLiteral("nobody")));
    labelled(dialog, QStringLiteral("Send"))->click();
    QTRY_VERIFY_WITH_TIMEOUT(!saysIn(dialog, QStringLiteral("switched on")).isEmpty(),
                             kPatience_ms);
    machine->setCurrentText(socket);
    labelled(dialog, QStringLiteral("Send"))->click();
    QTRY_VERIFY_WITH_TIMEOUT(!saysIn(dialog, QStringLiteral("jammed")).isEmpty(), kPatience_ms);
    QVERIFY(bed.says().contains(QStringLiteral("Jammed")));
    QVERIFY(labelled(dialog, QStringLiteral("Begin on a new sheet")));
    QVERIFY(bed.doAtMachine(QStringLiteral("clear")));
    labelled(dialog, QStringLiteral("Go on where it stopped"))->click();
    QTRY_VERIFY_WITH_TIMEOUT(!saysIn(dialog, QStringLiteral("The sheet is cut")).isEmpty(),
                             kPatience_ms);
    QVERIFY(!fileExists(cutMarkPath()));
    QCOMPARE(dialog->findChild<QProgressBar*>()->value(), 1000);
    QVERIFY(!bed.picture(2).isNull() && !bed.cutter().tracks().empty());
  }

  void aSimulatedMachineIsTried() {
    openCut("ferry-pass.hinge", true);
    button("send")->click();
    auto* dialog = m_window->findChild<CutterDialog*>();
    named<QComboBox>(dialog, QStringLiteral("Sheet"))->setCurrentIndex(3); // the shortest of them
    labelled(dialog, QStringLiteral("Try a simulated one"))->click();
    const QString socket = named<QComboBox>(dialog, QStringLiteral("Machine"))->currentText();
    QTRY_VERIFY_WITH_TIMEOUT(QFileInfo::exists(socket), kPatience_ms);
    labelled(dialog, QStringLiteral("Send"))->click();
    QTRY_VERIFY_WITH_TIMEOUT(!saysIn(dialog, QStringLiteral("The sheet is cut")).isEmpty(),
                             kPatience_ms);
  }

  void theWindowDoesNotWaitForAWholeJob() {
    Bed bed({210, 297}, 0.25, {}, 0.2); // minutes for a sheet
    const QString socket = m_files.filePath(QStringLiteral("slow"));
    QVERIFY(bed.listenAt(socket));
    openCut("ferry-pass.hinge", true);
    button("send")->click();
    auto* dialog = m_window->findChild<CutterDialog*>();
    named<QComboBox>(dialog, QStringLiteral("Machine"))->setCurrentText(socket);
    labelled(dialog, QStringLiteral("Send"))->click();
    QTRY_VERIFY_WITH_TIMEOUT(!bed.cutter().tracks().empty(), kPatience_ms);
    // The machine is not served while the window goes: its patience ends, not the job.
    m_window.reset();
    const auto mark = keptCutMark();
    QVERIFY(mark && *mark);
    openWindow();
  }

  void theMachineIsSetRight() {
    openCut("ferry-pass.hinge", true);
    button("send")->click();
    auto* dialog = m_window->findChild<CutterDialog*>();
    dialog->findChild<QCheckBox*>()->setChecked(true);
    QVERIFY(!saysIn(dialog, QStringLiteral("150 mm across")).isEmpty());
    const auto fields = dialog->findChildren<QLineEdit*>();
    const QStringList read{QStringLiteral("20.7"), QStringLiteral("21"), QStringLiteral("151.5"),
                           QStringLiteral("230")};
    int filled = 0;
    for (QLineEdit* field : fields)
      if (!field->accessibleName().isEmpty() && filled < 4) field->setText(read[filled++]);
    QCOMPARE(filled, 4);
    labelled(dialog, QStringLiteral("Set the machine right"))->click();
    const auto bench = makersBench();
    QVERIFY(bench && std::abs(bench->scaleX - 1.01) < 1e-9);
    QVERIFY(std::abs(bench->offsetX_mm - 0.5) < 1e-9 && std::abs(bench->offsetY_mm - 1) < 1e-9);
  }
};

QTEST_MAIN(TestCutPlace)
#include "test_cut_place.moc"
