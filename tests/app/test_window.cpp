// SPDX-License-Identifier: GPL-3.0-or-later
#include <QClipboard>
#include <QComboBox>
#include <QLabel>
#include <QTest>
#ifndef Q_MOC_RUN
#include "app/accessible_items.h"
#include "app/background.h"
#include "app/fan.h"
#include "app/fit_dialog.h"
#include "app/live_picture.h"
#include "app/look.h"
#include "app/main_window.h"
#include "app/new_place.h"
#include "app/round_dialog.h"
#include "app/sheet_words.h"
#include "app/shelf.h"
#include "app/size_drawing.h"
#include "core/edits/edits.h"
#include "core/io/design_json.h"
#include "core/io/text_file.h"
#include "core/pieces/sheet_words.h"
#include "patience.h"
#include "strips.h"
#include <QComboBox>
#include <QMessageBox>
#include <QPlainTextEdit>
#include <QScrollBar>
#include <QSemaphore>
#include <QSignalSpy>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTextDocumentFragment>
#include <QThreadPool>
#include <QTimer>
#endif

using namespace hinge;

// The real window, driven with real events.

class TestWindow : public QObject {
  Q_OBJECT
  std::unique_ptr<MainWindow> m_window;
  QTemporaryDir m_folder;

  void settle() {
    QTRY_VERIFY_WITH_TIMEOUT(!m_window->analyst().busy() && !m_window->analyst().searchingMends() &&
                                 !m_window->analyst().mending(),
                             kPatience_ms);
    QCoreApplication::processEvents();
  }
  QString demo(const char* name) const {
    return QStringLiteral(HINGE_SOURCE_DIR "/demo/") + QLatin1String(name);
  }
  double value(int id, const char* key) const {
    return m_window->document().committed().find(StructureId{id})->values.at(key);
  }
  QPointF fanPoint(double deg) const {
    Fan& fan = m_window->stage().fan();
    const QPointF hub(0.5 * fan.width(), fan.height() - 34.0);
    return hub + 60.0 * QPointF(std::cos(radians(deg)), -std::sin(radians(deg)));
  }

private slots:
  void initTestCase() {
    QStandardPaths::setTestModeEnabled(true);
    QCoreApplication::setOrganizationName(QStringLiteral("hinge-lantern-test"));
    QCoreApplication::setApplicationName(QStringLiteral("hinge-lantern-test"));
    QDir(SafetyCopy::folder()).removeRecursively(); // what a run that failed has left
    Look::apply(*qApp, false);
    installCanvasAccessibility();
  }
  void init() {
    m_window = std::make_unique<MainWindow>();
    m_window->askUnsaved = [] { return static_cast<int>(QMessageBox::Discard); };
    m_window->show();
    QVERIFY(QTest::qWaitForWindowExposed(m_window.get()));
    QVERIFY(m_window->openFile(demo("night-market.hinge")));
    settle();
  }
  void cleanup() { m_window.reset(); }

  void theDemoIsShownAndGood() {
    QCOMPARE(m_window->document().name(), QStringLiteral("night-market"));
    QVERIFY(m_window->findings().verdictText().contains(QStringLiteral("Good")));
    const QImage picture = m_window->grab().toImage();
    QVERIFY(picture.width() >= 1280);
    // The stage shows lit paper, not an empty background.
    const PanelIndex page = m_window->stage().assembly()->findPanel("card/page-b");
    const QPointF at =
        m_window->stage().mapTo(m_window.get(), m_window->stage().scene().middleOf(page).toPoint());
    const QImage bare = [&] {
      Document& document = m_window->document();
      Design plain = document.committed();
      plain.dressing = {};
      const auto undressed = document.apply(plain, QStringLiteral("undress"));
      settle();
      const QImage image = undressed ? m_window->grab().toImage() : QImage();
      document.undoStack().undo();
      settle();
      return image;
    }();
    QVERIFY(QColor(bare.pixel(at.toPoint())).lightness() > 150);
    QVERIFY(QColor(picture.pixel(at.toPoint())).lightness() < 100); // night, and its stars
  }
  void draggingTheLeafOpensTheCard() {
    Fan& fan = m_window->stage().fan();
    QTest::mousePress(&fan, Qt::LeftButton, {}, fanPoint(60).toPoint());
    QVERIFY(std::abs(fan.opening_rad() - radians(60)) < radians(3));
    QTest::mouseMove(&fan, fanPoint(150).toPoint());
    QTest::mouseRelease(&fan, Qt::LeftButton, {}, fanPoint(150).toPoint());
    QVERIFY(std::abs(fan.opening_rad() - radians(150)) < radians(3));
    QVERIFY(std::abs(m_window->stage().pose().opening_rad - fan.opening_rad()) < 1e-9);
    QTest::keyClick(&fan, Qt::Key_Home);
    QCOMPARE(fan.value(), 0);
    QTest::keyClick(&fan, Qt::Key_Left);
    QCOMPARE(fan.value(), 10);
  }
  void playMovesTheCardAndStops() {
    Fan& fan = m_window->stage().fan();
    const int before = fan.value();
    QTest::keyClick(&fan, Qt::Key_Space);
    QTRY_VERIFY(fan.value() != before);
    QTest::keyClick(&fan, Qt::Key_Space);
    QVERIFY(!fan.playing());
  }
  void aClickOnAPanelSelectsItInBothViews() {
    StageView& stage = m_window->stage();
    stage.fan().setValue(1000);
    const PanelIndex wall = stage.assembly()->findPanel("s2/wall-a");
    QTest::mouseClick(&stage, Qt::LeftButton, {}, stage.scene().middleOf(wall).toPoint());
    QVERIFY(m_window->document().selection() == StructureId{2});
    QVERIFY(
        m_window->bench().accessibleItems().front().description.contains(QStringLiteral("s2/")));
    QCOMPARE(stage.standing().currentItem()->text(0), QStringLiteral("Fruit stall"));
    QVERIFY(!stage.tags().tags().empty());
  }
  void aStructureIsAddedByPickingAFold() {
    StageView& stage = m_window->stage();
    stage.setFocus();
    QTest::keyClick(m_window.get(), Qt::Key_A);
    QVERIFY(stage.adding());
    const Seat* ridge = stage.assembly()->findSeat("s2/ridge");
    QTest::mouseClick(&stage, Qt::LeftButton, {}, stage.scene().beadOf(*ridge).toPoint());
    QWidget* shelf = QApplication::activePopupWidget();
    QVERIFY(shelf);
    auto* choice = shelf->findChild<QToolButton*>(QStringLiteral("add-box"));
    QVERIFY(choice);
    QTRY_VERIFY_WITH_TIMEOUT(choice->isEnabled(), kPatience_ms);
    QTest::mouseClick(choice, Qt::LeftButton);
    QCOMPARE(m_window->document().committed().structures.size(), std::size_t(5));
    QCOMPARE(QString::fromStdString(m_window->document().committed().structures.back().seat),
             QStringLiteral("s2/ridge"));
    settle();
    QVERIFY(m_window->analyst().current()->verdict != Verdict::Spoiled);
    m_window->document().undoStack().undo();
    QCOMPARE(m_window->document().committed().structures.size(), std::size_t(4));
  }
  void aFreePieceShowsItsScoresAndItsFoldedProfile() {
    QVERIFY(m_window->openFile(demo("steps-in-the-fold.hinge")));
    settle();
    m_window->document().select(StructureId{1});
    WorkPanel& work = m_window->sizes().work();
    QVERIFY(work.isVisible());
    QCOMPARE(work.scores().text(), QStringLiteral("10 v, 36 m, 66 v, 94 m, 124 v"));
    QCOMPARE(work.profile().accessibleItems().size(), 5);
    // The profile is drawn in the colour of lit paper.
    const QImage picture = work.profile().grab().toImage();
    int lit = 0;
    for (int x = 0; x < picture.width(); ++x)
      for (int y = 0; y < picture.height(); ++y)
        lit += QColor(picture.pixel(x, y)).lightness() > 200;
    QVERIFY(lit > 60);
    m_window->document().select(std::nullopt);
    QVERIFY(!work.isVisible());
  }
  void scoresAreTypedAndWhatIsWrongIsSaid() {
    QVERIFY(m_window->openFile(demo("canal-frames.hinge")));
    settle();
    m_window->document().select(StructureId{1});
    WorkPanel& work = m_window->sizes().work();
    const auto type = [&](const char* text) {
      work.scores().setFocus();
      work.scores().selectAll();
      QTest::keyClicks(&work.scores(), QString::fromUtf8(text));
      QTest::keyClick(&work.scores(), Qt::Key_Return);
    };
    type("8, 40, 66");
    QVERIFY(std::abs(value(1, "panel-2") - 32) < 1e-9);
    settle();
    QVERIFY(m_window->analyst().current()->verdict == Verdict::Spoiled);
    QTest::mouseClick(&work.solveButton(), Qt::LeftButton);
    QTRY_VERIFY(work.solveButton().isEnabled());
    settle();
    for (const Finding& f : m_window->analyst().current()->findings)
      QVERIFY(f.code != "shut-flat");
    type("8, 40 v, 66");
    const PieceWork& typed = *m_window->document().committed().find(StructureId{1})->work;
    QVERIFY(typed.lines[scoreMarks(typed)[1].line].kind == WorkLine::Kind::Valley);
    type("8, 4");
    QVERIFY(m_window->noticeText().contains(QStringLiteral("must rise")));
    QVERIFY(work.scores().property("wrong").toBool());
  }
  void evenStepsAreAnUndoableStep() {
    QVERIFY(m_window->openFile(demo("steps-in-the-fold.hinge")));
    settle();
    for (int id : {3, 2}) {
      m_window->document().select(StructureId{id});
      QTest::keyClick(m_window.get(), Qt::Key_Delete);
    }
    m_window->document().select(StructureId{1});
    WorkPanel& work = m_window->sizes().work();
    work.findChild<QSpinBox*>()->setValue(3);
    QTest::mouseClick(&work.stepsButton(), Qt::LeftButton);
    const auto marks = [&] {
      return scoreMarks(*m_window->document().committed().find(StructureId{1})->work).size();
    };
    QCOMPARE(marks(), std::size_t(7));
    m_window->document().undoStack().undo();
    QCOMPARE(marks(), std::size_t(5));
  }
  void theSheetIsFittedToAnotherLength() {
    QVERIFY(m_window->openFile(demo("long-quay.hinge")));
    settle();
    m_window->go(MainWindow::SizeCard);
    m_window->sizePlace().findChild<QPushButton*>(QStringLiteral("fit-sheet"))->click();
    auto* dialog = m_window->findChild<FitDialog*>();
    QVERIFY(dialog && dialog->isVisible());
    auto* length = dialog->findChild<QLineEdit*>();
    auto* table = dialog->findChild<QTableWidget*>();
    auto* take = dialog->findChildren<QPushButton*>().back();
    QCOMPARE(length->text(), QStringLiteral("560 mm"));
    length->selectAll();
    QTest::keyClicks(length, QStringLiteral("630"));
    QCOMPARE(table->item(0, 2)->text(), QStringLiteral("78.75 mm"));
    table->item(0, 0)->setCheckState(Qt::Checked); // the covers are held
    QCOMPARE(table->item(0, 2)->text(), QStringLiteral("70 mm"));
    QCOMPARE(table->item(2, 2)->text(), QStringLiteral("80 mm"));
    length->selectAll();
    QTest::keyClicks(length, QStringLiteral("60"));
    QVERIFY(!take->isEnabled()); // the held cover alone is longer
    length->selectAll();
    QTest::keyClicks(length, QStringLiteral("630"));
    QVERIFY(take->isEnabled());
    QTest::mouseClick(take, Qt::LeftButton);
    QCOMPARE(m_window->document().committed().card.values.at("rest"), 80.0);
    QVERIFY(m_window->noticeText().contains(QStringLiteral("Fitted")));
    m_window->document().undoStack().undo();
    QCOMPARE(m_window->document().committed().card.values.at("rest"), 70.0);
    settle();
  }
  void aStrapIsWrappedRoundWhatItLiesOn() {
    QVERIFY(m_window->openFile(demo("ferry-pass.hinge")));
    settle();
    m_window->document().select(StructureId{4});
    Design thick = m_window->document().committed();
    for (Paper& paper : thick.papers) // the strap and the insert are of papers of their own
      paper.thickness_mm = 0.5;
    QVERIFY(m_window->document().apply(thick, QStringLiteral("test")).ok());
    settle();
    QVERIFY(m_window->analyst().current()->verdict == Verdict::Spoiled);
    QTest::mouseClick(&m_window->sizes().work().wrapButton(), Qt::LeftButton);
    settle();
    for (const Finding& f : m_window->analyst().current()->findings)
      QVERIFY(f.code != "strap-tight");
    // What lies on nothing is not wrapped, and says so.
    QVERIFY(m_window->openFile(demo("waving-boatmen.hinge")));
    settle();
    m_window->document().select(StructureId{2}); // pinned, not lying on anything
    const Design before = m_window->document().committed();
    QTest::mouseClick(&m_window->sizes().work().wrapButton(), Qt::LeftButton);
    QVERIFY(m_window->document().committed() == before);
    QVERIFY(m_window->noticeText().contains(QStringLiteral("must be glued to")));
  }
  void aFigureIsAddedByPickingAFace() {
    StageView& stage = m_window->stage();
    stage.fan().setValue(1000);
    stage.setAdding(true);
    const PanelIndex wall = stage.assembly()->findPanel("s2/wall-b");
    QTest::mouseClick(&stage, Qt::LeftButton, {}, stage.scene().middleOf(wall).toPoint());
    auto* shelf = qobject_cast<Shelf*>(QApplication::activePopupWidget());
    QVERIFY(shelf);
    QVERIFY(!shelf->findChild<QToolButton*>(QStringLiteral("add-box"))); // a box needs a fold
    QTRY_VERIFY_WITH_TIMEOUT(shelf->isReady(), kPatience_ms);
    auto* choice = shelf->findChild<QToolButton*>(QStringLiteral("add-window"));
    QVERIFY(choice && choice->isEnabled());
    QTest::mouseClick(choice, Qt::LeftButton);
    const StructureItem& added = m_window->document().committed().structures.back();
    QCOMPARE(QString::fromStdString(added.kind), QStringLiteral("window"));
    QVERIFY(QString::fromStdString(added.seat).startsWith(QStringLiteral("s2/wall-b")));
    QVERIFY(m_window->document().selection() == added.id);
    settle();
    QVERIFY(m_window->analyst().current()->verdict == Verdict::Good);
  }
  void theVerdictHasTheColoursOfTheBench() {
    settle();
    const auto* verdict = [this]() -> QLabel* {
      for (QLabel* label : m_window->findChildren<QLabel*>())
        if (label->accessibleName() == QLatin1String("Verdict") && label->isVisible()) return label;
      return nullptr;
    }();
    QVERIFY(verdict);
    for (const bool dark : {true, false}) {
      QTest::keyClick(m_window.get(), Qt::Key_D, Qt::ControlModifier);
      QCOMPARE(Look::isDark(), dark);
      QVERIFY2(verdict->styleSheet().contains(Look::theme().fine.name()),
               qPrintable(verdict->styleSheet()));
    }
  }
  /// No pointer: A, through the plus signs, Enter, through the shelf, Enter.
  void aFirstStructureIsAddedByKeysAlone() {
    Design empty;
    m_window->document().start(empty);
    settle();
    StageView& stage = m_window->stage();
    stage.setFocus();
    QTest::keyClick(m_window.get(), Qt::Key_A);
    QVERIFY(stage.adding());
    const int opening = stage.fan().value();
    QTest::keyClick(&stage, Qt::Key_Return); // nothing is chosen yet
    QVERIFY(!QApplication::activePopupWidget());
    QTest::keyClick(&stage, Qt::Key_PageDown);
    QTest::keyClick(&stage, Qt::Key_PageDown); // a face
    QTest::keyClick(&stage, Qt::Key_PageUp);   // and back to the gutter
    QTest::keyClick(&stage, Qt::Key_Return);
    QCOMPARE(stage.fan().value(), opening);
    auto* shelf = qobject_cast<Shelf*>(QApplication::activePopupWidget());
    QVERIFY(shelf);
    QTRY_VERIFY_WITH_TIMEOUT(shelf->isReady(), kPatience_ms);
    auto* first = qobject_cast<QToolButton*>(shelf->focusWidget());
    QVERIFY(first && first->objectName().startsWith(QLatin1String("add-")));
    QTest::keyClick(shelf, Qt::Key_Right);
    auto* second = qobject_cast<QToolButton*>(shelf->focusWidget());
    QVERIFY(second && second != first);
    const QString kind = second->objectName().mid(4);
    QTest::keyClick(shelf, Qt::Key_Return);
    const auto& structures = m_window->document().committed().structures;
    QCOMPARE(structures.size(), std::size_t(1));
    QCOMPARE(QString::fromStdString(structures[0].kind), kind);
    QCOMPARE(QString::fromStdString(structures[0].seat), QStringLiteral("gutter"));
  }
  void aFinishedCardIsPlacedOnAFace() {
    const QString path = m_folder.filePath(QStringLiteral("small.hinge"));
    Design small;
    small.card.width_mm = 30, small.card.height_mm = 40;
    QFile file(path);
    QVERIFY(file.open(QIODevice::WriteOnly));
    file.write(QByteArray::fromStdString(designToJson(small)));
    file.close();
    m_window->openShelf(QStringLiteral("card/page-a"), m_window->mapToGlobal(QPoint(300, 300)));
    auto* shelf = qobject_cast<Shelf*>(QApplication::activePopupWidget());
    QVERIFY(shelf);
    auto* choice = shelf->findChild<QPushButton*>(QStringLiteral("add-card-on-face"));
    QVERIFY(choice && choice->isEnabled());
    QVERIFY(!shelf->findChild<QPushButton*>(QStringLiteral("add-card-on-fold")));
    shelf->close();
    // The dialog is the system's; what follows it is ours.
    m_window->placeCard(QStringLiteral("card-on-face"), QStringLiteral("card/page-a"), path);
    const StructureItem added = m_window->document().committed().structures.back();
    QVERIFY(added.card && added.card->design->card.width_mm == 30);
    QVERIFY(m_window->document().selection() == added.id);
    settle();
    // A hand opens it on the stage, and back.
    StageView& stage = m_window->stage();
    stage.setFocus();
    QCOMPARE(stage.assembly()->lifts.size(), std::size_t(1));
    const PanelIndex cover = stage.assembly()->findPanel(added.id.text() + "/card/page-b");
    const Vec3 shut = stage.pose().panels[cover].linear().col(2);
    QTest::keyClick(&stage, Qt::Key_L);
    QVERIFY(std::abs(shut.dot(Vec3(stage.pose().panels[cover].linear().col(2)))) < 1e-6);
    QTest::keyClick(&stage, Qt::Key_L);
    QVERIFY(std::abs(shut.dot(Vec3(stage.pose().panels[cover].linear().col(2))) - 1) < 1e-9);
    // What cannot be read is refused and changes nothing.
    const Design before = m_window->document().committed();
    m_window->placeCard(QStringLiteral("card-on-face"), QStringLiteral("card/page-a"),
                        path + QStringLiteral(".none"));
    QVERIFY(m_window->document().committed() == before);
    QVERIFY(!m_window->noticeText().isEmpty());
  }
  void arrowKeysMoveAndSizeTheSelection() {
    StageView& stage = m_window->stage();
    m_window->document().select(StructureId{2});
    stage.setFocus();
    const double position = value(2, "position");
    QTest::keyClick(&stage, Qt::Key_Up);
    QVERIFY(std::abs(value(2, "position") - position - 0.5) < 1e-9);
    QTest::keyClick(&stage, Qt::Key_Down, Qt::ShiftModifier);
    QVERIFY(std::abs(value(2, "position") - position + 4.5) < 1e-9);
    const ParameterValues before = m_window->document().committed().find(StructureId{2})->values;
    QTest::keyClick(&stage, Qt::Key_Up, Qt::ControlModifier);
    int changed = 0;
    for (const auto& [key, was] : before)
      if (const double now = value(2, key.c_str()); now != was) {
        ++changed;
        QVERIFY2(std::abs(std::abs(now - was) - 0.5) < 1e-9, key.c_str());
      }
    QVERIFY(changed >= 1 && changed <= 2); // the chosen size, and its twin on the other side
    QCOMPARE(m_window->document().undoStack().count(), 3);
    for (int k = 0; k < 3; ++k)
      m_window->document().undoStack().undo();
    QVERIFY(std::abs(value(2, "position") - position) < 1e-9);
  }
  void aStructureIsRepeatedAndMirroredByKeys() {
    m_window->document().select(StructureId{4});
    const std::size_t before = m_window->document().committed().structures.size();
    m_window->stage().setFocus();
    QTest::keyClick(m_window.get(), Qt::Key_R);
    QVERIFY(m_window->document().committed().structures.size() > before);
    const StructureItem& copy = m_window->document().committed().structures[before];
    QCOMPARE(QString::fromStdString(copy.kind),
             QString::fromStdString(m_window->document().committed().find(StructureId{4})->kind));
    QVERIFY(m_window->document().selection() == copy.id);
    m_window->document().undoStack().undo();
    m_window->document().select(StructureId{2});
    const double a = value(2, "a"), b = value(2, "b");
    QTest::keyClick(m_window.get(), Qt::Key_M);
    QVERIFY(value(2, "a") == b && value(2, "b") == a);
  }
  void envelopeAndDisplayAreChosenWithTheSize() {
    m_window->go(MainWindow::SizeCard);
    const auto named = [&]<typename T>(const char* name, T*) {
      for (T* widget : m_window->sizePlace().findChildren<T*>())
        if (widget->accessibleName() == QLatin1String(name)) return widget;
      return static_cast<T*>(nullptr);
    };
    auto* display = named("Shown open at", static_cast<QLineEdit*>(nullptr));
    auto* envelope = named("Envelope", static_cast<QComboBox*>(nullptr));
    auto* rests = named("Shown", static_cast<QComboBox*>(nullptr));
    QVERIFY(display && envelope && rests);
    display->setFocus();
    display->selectAll();
    QTest::keyClicks(display, QStringLiteral("120"));
    QTest::keyClick(display, Qt::Key_Return);
    QCOMPARE(m_window->document().committed().card.display_deg, 120.0);
    rests->setFocus();
    QTest::keyClick(rests, Qt::Key_Down);
    QVERIFY(m_window->document().committed().card.rests == Rests::OnEdge);
    const int other = envelope->currentIndex() == 1 ? 2 : 1;
    envelope->setCurrentIndex(other);
    emit envelope->activated(other);
    QCOMPARE(QString::fromStdString(m_window->document().committed().settings.envelope),
             envelope->itemData(other).toString());
    // An envelope that is in no list: its inside measures.
    envelope->setEditText(QStringLiteral("200 x 150"));
    QTest::keyClick(envelope->lineEdit(), Qt::Key_Return);
    QCOMPARE(m_window->document().committed().settings.envelope, std::string("own-200x150"));
    envelope->setEditText(QStringLiteral("a big one"));
    QTest::keyClick(envelope->lineEdit(), Qt::Key_Return);
    QCOMPARE(m_window->document().committed().settings.envelope, std::string("own-200x150"));
    QCOMPARE(envelope->currentText(), QStringLiteral("200 mm x 150 mm inside"));
    settle();
  }
  /// Who works in inches chooses so once.
  void aNewCardKeepsUnitAndSheetOfTheLastOne() {
    m_window->go(MainWindow::SizeCard);
    const auto choose = [&](const char* name, const char* key) {
      for (QComboBox* box : m_window->findChildren<QComboBox*>())
        if (box->accessibleName() == QLatin1String(name)) {
          box->setCurrentIndex(box->findData(QLatin1String(key)));
          emit box->activated(box->currentIndex());
        }
    };
    choose("Unit", "in");
    const Settings& chosen = m_window->document().committed().settings;
    QCOMPARE(chosen.sheet, std::string("letter"));
    QVERIFY_NEAR(chosen.edgeReserve_mm, 25.4 / 8, 1e-9);
    choose("Cut from", "12x12");
    const Design next = MainWindow::emptyCard(SizePlace::chosenLast());
    QVERIFY(next.settings.unit == LengthUnit::Inch);
    QCOMPARE(next.settings.sheet, std::string("12x12"));
    QVERIFY_NEAR(next.card.width_mm, 127, 1e-9);
    // Back as it was: unit, sheet, and what had followed them.
    choose("Cut from", "letter");
    choose("Unit", "mm");
    QCOMPARE(m_window->document().committed().settings.sheet, std::string("a4"));
    QVERIFY(MainWindow::emptyCard(SizePlace::chosenLast()) == Design());
  }
  void aWidthIsTypedAndUndone() {
    m_window->document().select(StructureId{2});
    QLineEdit* field = m_window->sizes().field(QStringLiteral("c"));
    QVERIFY(field);
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, QStringLiteral("2in"));
    QTest::keyClick(field, Qt::Key_Return);
    QVERIFY(std::abs(value(2, "c") - 50.8) < 1e-9);
    QVERIFY(std::abs(value(2, "d") - 50.8) < 1e-9); // both sides alike
    settle();
    QVERIFY(m_window->analyst().current()->verdict != Verdict::Spoiled);
    QTest::keySequence(m_window.get(), QKeySequence::Undo);
    QVERIFY(std::abs(value(2, "c") - 46) < 1e-9);
    QTest::keySequence(m_window.get(), QKeySequence::Redo);
    QVERIFY(std::abs(value(2, "d") - 50.8) < 1e-9);
  }
  void nonsenseInAFieldIsRefusedAndChangesNothing_data() {
    QTest::addColumn<QString>("typed");
    for (const char* typed : {"abc", "-5", "1e9", "3/0", ""})
      QTest::addRow("\"%s\"", typed) << QString::fromLatin1(typed);
  }
  void nonsenseInAFieldIsRefusedAndChangesNothing() {
    QFETCH(QString, typed);
    m_window->document().select(StructureId{2});
    QLineEdit* field = m_window->sizes().field(QStringLiteral("c"));
    field->setFocus();
    field->selectAll();
    QTest::keyClick(field, Qt::Key_Delete);
    QTest::keyClicks(field, typed);
    QTest::keyClick(field, Qt::Key_Return);
    QVERIFY(std::abs(value(2, "c") - 46) < 1e-9);
    QVERIFY(!m_window->document().isModified());
    QVERIFY(!m_window->noticeText().isEmpty());
  }
  void aTagOnTheFlatPieceIsEdited() {
    m_window->document().select(StructureId{3});
    SizeTags& tags = m_window->bench().tags();
    int index = -1;
    for (std::size_t k = 0; k < tags.tags().size(); ++k)
      if (tags.tags()[k].spec->key == "length") index = static_cast<int>(k);
    QVERIFY(index >= 0);
    QTest::mouseClick(&m_window->bench(), Qt::LeftButton, {},
                      tags.tags()[static_cast<std::size_t>(index)].rect.center().toPoint());
    QVERIFY(tags.editor());
    tags.editor()->selectAll();
    QTest::keyClicks(tags.editor(), QStringLiteral("4.4 cm"));
    QTest::keyClick(tags.editor(), Qt::Key_Return);
    QVERIFY(std::abs(value(3, "length") - 44) < 1e-9);
  }
  void theBenchShowsEveryPieceOfAStructure() {
    QVERIFY(m_window->document()
                .open(QStringLiteral(HINGE_SOURCE_DIR "/demo/lantern-tower.hinge"))
                .ok());
    m_window->document().select(StructureId{1});
    BenchView& bench = m_window->bench();
    const auto assembly = m_window->stage().assembly();
    std::set<std::string> expected, shown;
    for (const Panel& panel : assembly->panels)
      if (panel.owner == StructureId{1}) expected.insert(panel.key);
    QVERIFY(bench.pieceCount() > 1 && bench.nextButton().isVisibleTo(&bench));
    for (int k = 0; k < bench.pieceCount(); ++k) {
      QCOMPARE(bench.pieceShown(), k);
      for (const AccessibleItem& item : bench.accessibleItems())
        if (assembly->findPanel(item.description.toStdString()).valid())
          shown.insert(item.description.toStdString());
      bench.nextButton().click();
    }
    QCOMPARE(bench.pieceShown(), 0); // round and round
    QVERIFY(shown == expected);
    // A card of one sheet has nothing to step through.
    Design plain = m_window->document().committed();
    plain.dressing.toppers.clear();
    QVERIFY(m_window->document().apply(plain, QStringLiteral("undress")).ok());
    m_window->document().select(std::nullopt);
    QCOMPARE(bench.pieceCount(), 1);
    QVERIFY(!bench.nextButton().isVisibleTo(&bench));
  }
  void draggingATagIsOneUndoStep() {
    m_window->document().select(StructureId{2});
    BenchView& bench = m_window->bench();
    const auto tag = bench.tags().tags().front();
    const QPoint at = tag.rect.center().toPoint();
    const std::string key(tag.spec->key);
    const double before = value(2, key.c_str());
    QTest::mousePress(&bench, Qt::LeftButton, {}, at);
    for (int dx : {8, 16, 24})
      QTest::mouseMove(&bench, at + QPoint(dx, 0));
    QVERIFY(m_window->document().previewing());
    QTest::mouseRelease(&bench, Qt::LeftButton, {}, at + QPoint(24, 0));
    QVERIFY(!m_window->document().previewing());
    QVERIFY(value(2, key.c_str()) > before);
    QCOMPARE(m_window->document().undoStack().count(), 1);
  }
  void findingsAreShownAndMended() {
    QVERIFY(m_window->openFile(demo("night-market-mistakes.hinge")));
    settle();
    QVERIFY(m_window->findings().verdictText().contains(QStringLiteral("4")));
    const auto& findings = m_window->analyst().current()->findings;
    const auto hit = std::ranges::find(findings, "panels-hit", &Finding::code) - findings.begin();
    emit m_window->findings().showRequested(static_cast<int>(hit));
    QVERIFY(std::abs(m_window->stage().fan().opening_rad() -
                     findings[static_cast<std::size_t>(hit)].show_rad) < radians(0.2));
    QCOMPARE(m_window->stage().shownFinding(), static_cast<int>(hit));
    QPushButton* mend = m_window->findings().mendButton(0);
    QVERIFY(mend);
    QTest::mouseClick(mend, Qt::LeftButton);
    settle();
    QVERIFY(m_window->findings().verdictText().contains(QStringLiteral("3")));
    QTest::mouseClick(m_window->findings().mendAllButton(), Qt::LeftButton);
    settle();
    QVERIFY(m_window->findings().verdictText().contains(QStringLiteral("Good")));
    m_window->document().undoStack().undo();
    m_window->document().undoStack().undo();
    QVERIFY(!m_window->document().isModified());
  }
  void mendingCanBeCancelled() {
    QVERIFY(m_window->openFile(demo("night-market-mistakes.hinge")));
    settle();
    const Design before = m_window->document().committed();
    QTest::mouseClick(m_window->findings().mendAllButton(), Qt::LeftButton);
    QVERIFY(m_window->analyst().mending());
    QCOMPARE(m_window->findings().mendAllButton()->text(), QStringLiteral("Cancel"));
    QTest::mouseClick(m_window->findings().mendAllButton(), Qt::LeftButton);
    QVERIFY(!m_window->analyst().mending());
    backgroundPool().waitForDone(); // what it would have said comes now
    QCoreApplication::processEvents();
    QVERIFY(m_window->document().committed() == before);
    QVERIFY(m_window->findings().verdictText().contains(QStringLiteral("4")));
  }
  void mendingTellsHowFarItIs() {
    QVERIFY(m_window->openFile(demo("../bench/cases/messy-50.hinge")));
    QTRY_VERIFY_WITH_TIMEOUT(m_window->findings().mendAllButton()->isVisible(), kPatience_ms);
    const QSignalSpy advanced(&m_window->analyst(), &Analyst::advanced);
    QTest::mouseClick(m_window->findings().mendAllButton(), Qt::LeftButton);
    QTRY_VERIFY_WITH_TIMEOUT(m_window->analyst().all() > 0, kPatience_ms);
    QVERIFY(m_window->analyst().mending());
    QVERIFY(!advanced.empty());
    QCOMPARE(m_window->findings().verdictText(), QStringLiteral("Mending … %1 of %2")
                                                     .arg(m_window->analyst().done())
                                                     .arg(m_window->analyst().all()));
    QTest::mouseClick(m_window->findings().mendAllButton(), Qt::LeftButton);
    QVERIFY(!m_window->findings().verdictText().contains(QStringLiteral("Mending")));
  }
  void noOldVerdictIsShownWhileANewOneIsWorkedOut() {
    m_window->document().select(StructureId{2});
    const auto next = setValues(m_window->document().committed(), StructureId{2}, {{"d", 48}});
    QVERIFY(m_window->document().apply(*next, QStringLiteral("test")).ok());
    QVERIFY(m_window->analyst().busy());
    QVERIFY(!m_window->analyst().current());
    QVERIFY(m_window->findings().verdictText().contains(QStringLiteral("Checking")));
    settle();
    QVERIFY(m_window->analyst().current()->verdict == Verdict::Spoiled);
  }
  void equalStripsAreSlicedFromOneSheet() {
    QVERIFY(m_window->openFile(demo("waving-boatmen.hinge")));
    m_window->go(MainWindow::CutCard);
    auto* slice = m_window->cutPlace().findChild<QCheckBox*>();
    QVERIFY(slice && !slice->isChecked());
    slice->click();
    QVERIFY(m_window->document().committed().settings.slice);
    m_window->document().undoStack().undo();
    QVERIFY(!slice->isChecked());
    settle();
  }
  void theCutPlaceTellsTheOrderOfWork() {
    QVERIFY(m_window->openFile(demo("pop-up-lantern.hinge")));
    settle();
    m_window->go(MainWindow::CutCard);
    auto* order = m_window->cutPlace().findChild<QListWidget*>(QStringLiteral("order"));
    QVERIFY(order);
    const auto steps = [&] {
      int numbered = 0;
      for (int k = 0; k < order->count(); ++k)
        numbered += order->item(k)->text().front().isDigit();
      return numbered;
    };
    QCOMPARE(steps(), 8); // the moon among them
    // Layers are stuck on while the pieces are flat, before the first step.
    QVERIFY(order->item(0)->text().contains(QStringLiteral("while it lies flat")));
    int band = 0;
    for (int k = 0; k < order->count(); ++k)
      if (order->item(k)->text().contains(QStringLiteral("Fasten the band")) &&
          order->item(k)->text().contains(QStringLiteral("before step")))
        ++band;
    QCOMPARE(band, 1);
    QVERIFY(m_window->openFile(demo("long-quay.hinge"))); // nothing is glued there
    settle();
    QCOMPARE(steps(), 1); // its topper
  }
  void thePlaceForCuttingIsOneChoice() {
    QVERIFY(m_window->openFile(demo("canal-houses.hinge")));
    settle();
    m_window->go(MainWindow::CutCard);
    CutPlace& place = m_window->cutPlace();
    QTRY_VERIFY_WITH_TIMEOUT(!place.planner().busy() && place.planner().plan(), kPatience_ms);
    const auto plan = place.planner().plan();
    QVERIFY(plan->how == LayoutFor::Trimmer && !plan->cuts.empty());
    auto* pieces = place.findChild<QTableWidget*>();
    QVERIFY(pieces && pieces->rowCount() > 5);
    // A part on the sheets, its row, and what is selected on the card.
    std::size_t barge = 0;
    const auto assembly = *m_window->document().snapshot()->assembly();
    for (std::size_t k = 0; k < plan->parts.size(); ++k)
      if (plan->parts[k].mat == 0 &&
          assembly->pieces[plan->parts[k].flat.piece].owner == StructureId{3})
        barge = k;
    QTest::mouseClick(&place.sheets(), Qt::LeftButton, {},
                      place.sheets().middleOf(barge).toPoint());
    QCOMPARE(m_window->document().selection(), std::optional(StructureId{3}));
    QCOMPARE(pieces->item(pieces->currentRow(), 1)->text(), QStringLiteral("Prow of the barge"));
    m_window->document().select(StructureId{1});
    QCOMPARE(pieces->item(pieces->currentRow(), 1)->text(), QStringLiteral("Warehouse"));
    place.copyTables();
    QVERIFY(QGuiApplication::clipboard()->text().contains(QStringLiteral("\tmountain\t58\t172\t")));
    settle();
  }
  void aPartIsPutElsewhereByHand() {
    QVERIFY(m_window->openFile(demo("tea-chests.hinge")));
    settle();
    m_window->go(MainWindow::CutCard);
    CutPlace& place = m_window->cutPlace();
    for (QPushButton* button : place.findChildren<QPushButton*>())
      if (button->text().contains(QStringLiteral("machine"))) button->click();
    QTRY_VERIFY_WITH_TIMEOUT(
        !place.planner().busy() && place.planner().plan()->how == LayoutFor::Machine, kPatience_ms);
    SheetsView& sheets = place.sheets();
    // Onto another one: refused, and back where it was.
    const auto plan = place.planner().plan();
    std::size_t crowded = 0;
    while (crowded < plan->sheets.size() && plan->sheets[crowded].places.size() < 2)
      ++crowded;
    QVERIFY(crowded < plan->sheets.size());
    const std::size_t one = plan->sheets[crowded].places[0].part,
                      other = plan->sheets[crowded].places[1].part;
    const auto drag = [&](std::size_t part, const QPoint& to) {
      const QPoint from = sheets.middleOf(part).toPoint();
      QTest::mousePress(&sheets, Qt::LeftButton, {}, from);
      QTest::mouseMove(&sheets, from + (to - from) / 2);
      QTest::mouseMove(&sheets, to);
      QTest::mouseRelease(&sheets, Qt::LeftButton, {}, to);
    };
    const QPointF was = sheets.middleOf(one);
    drag(one, sheets.middleOf(other).toPoint());
    QCOMPARE(sheets.middleOf(one), was);
    QVERIFY(sheets.pinned().empty());
    QVERIFY(m_window->noticeText().contains(QStringLiteral("over another part")));
    settle();
  }
  void sizesAreRoundedTogether() {
    QVERIFY(m_window->openFile(demo("canal-houses.hinge")));
    settle();
    m_window->go(MainWindow::CutCard);
    for (QPushButton* button : m_window->cutPlace().findChildren<QPushButton*>())
      if (button->text().startsWith(QStringLiteral("Round"))) button->click();
    auto* dialog = m_window->findChild<RoundDialog*>();
    QVERIFY(dialog);
    auto* step = dialog->findChild<QComboBox*>();
    step->setCurrentText(QStringLiteral("1/16 in"));
    QTRY_VERIFY_WITH_TIMEOUT(!dialog->busy(), kPatience_ms);
    auto* table = dialog->findChild<QTableWidget*>();
    QVERIFY(table->rowCount() > 20);
    const Design before = m_window->document().committed();
    for (QPushButton* button : dialog->findChildren<QPushButton*>())
      if (button->text() == QStringLiteral("Round them")) {
        QVERIFY(button->isEnabled());
        button->click();
        break;
      }
    const double a = m_window->document().committed().find(StructureId{1})->values.at("a");
    QVERIFY(std::abs(std::remainder(a, 25.4 / 16)) < 1e-9);
    m_window->document().undoStack().undo();
    QVERIFY(m_window->document().committed() == before); // one step
    settle();
  }
  void everyPlaceExportsAndSaves() {
    m_window->go(MainWindow::CutCard);
    for (const char* format : {"svg", "pdf", "fold"}) {
      const QString path = m_folder.filePath(QStringLiteral("out.") + QLatin1String(format));
      QVERIFY(m_window->cutPlace().exportTo(QLatin1String(format), path));
      QVERIFY(QFileInfo(path).size() > 500);
    }
    QVERIFY(!m_window->cutPlace().exportTo(QStringLiteral("svg"),
                                           m_folder.filePath(QStringLiteral("no/out.svg"))));
    QVERIFY(m_window->noticeText().contains(QStringLiteral("out.svg")));
    const QString saved = m_folder.filePath(QStringLiteral("saved.hinge"));
    QVERIFY(m_window->document().saveTo(saved).ok());
    QVERIFY(*loadDesign(saved.toStdString()) == m_window->document().committed());
  }
  void aDamagedFileLeavesTheOpenCard() {
    const QString path = m_folder.filePath(QStringLiteral("bad.hinge"));
    QFile bad(path);
    QVERIFY(bad.open(QIODevice::WriteOnly));
    bad.write("{\"format\": ");
    bad.close();
    const Design before = m_window->document().committed();
    QVERIFY(!m_window->openFile(path));
    QVERIFY(m_window->document().committed() == before);
    QVERIFY(m_window->noticeText().contains(QStringLiteral("bad.hinge")));
  }
  void closingAsksForUnsavedWork() {
    const auto next = setValues(m_window->document().committed(), StructureId{2}, {{"d", 48}});
    QVERIFY(m_window->document().apply(*next, QStringLiteral("test")).ok());
    int asked = 0;
    m_window->askUnsaved = [&] {
      ++asked;
      return static_cast<int>(QMessageBox::Cancel);
    };
    QVERIFY(!m_window->close());
    QCOMPARE(asked, 1);
    QVERIFY(m_window->isVisible());
    m_window->askUnsaved = [] { return static_cast<int>(QMessageBox::Discard); };
    QVERIFY(m_window->close());
  }
  void everyWayOfMendingIsAButton() {
    Design slipped = hinge::test::overGutter(40, 40, 50, 50);
    const PieceWork& work = *slipped.structures[0].work;
    const auto moved = withScoreMoved(work, scoreMarks(work)[1].line, 60, false);
    slipped = *setWork(slipped, slipped.structures[0].id, *moved);
    const QString path = m_folder.filePath(QStringLiteral("slipped.hinge"));
    QVERIFY(saveDesign(slipped, path.toStdString()).ok());
    QVERIFY(m_window->openFile(path));
    settle();
    QList<QPushButton*> ways;
    for (QPushButton* one : m_window->findings().findChildren<QPushButton*>(QStringLiteral("mend")))
      if (one->isVisible() && one->property("finding").toInt() == 0) ways << one;
    QVERIFY(ways.size() > 1);
    QVERIFY2(ways[0]->toolTip().contains(QStringLiteral("60 mm → 58 mm")),
             qPrintable(ways[0]->toolTip()));
    QVERIFY(ways[1]->toolTip().startsWith(QStringLiteral("or: ")));
    QTest::mouseClick(ways[1], Qt::LeftButton);
    settle();
    QVERIFY(m_window->findings().verdictText().contains(QStringLiteral("Good")));
  }
  /// The real dialog, answered by the button that says so.
  void aFileThatSomebodyElseHasChanged() {
    const QString path = m_folder.filePath(QStringLiteral("shared.hinge"));
    const Design first = *loadDesign(HINGE_SOURCE_DIR "/demo/two-tents.hinge");
    QVERIFY(saveDesign(first, path.toStdString()).ok());
    QVERIFY(m_window->openFile(path));
    Document& document = m_window->document();
    const auto change = [&](const char* title) {
      Design mine = document.committed();
      mine.title = title;
      QVERIFY(document.apply(mine, QStringLiteral("test")).ok());
    };
    const auto onDisk = [&] { return loadDesign(path.toStdString())->title; };
    Design theirs = first;
    const auto answering = [](const QString& button) {
      QTimer::singleShot(0, [button] {
        auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
        QVERIFY(box);
        for (QAbstractButton* one : box->buttons())
          if (one->text().contains(button)) return one->click();
        QFAIL("no such button");
      });
    };
    change("mine");
    theirs.title = "theirs";
    QVERIFY(saveDesign(theirs, path.toStdString()).ok());
    answering(QStringLiteral("Cancel"));
    QVERIFY(!m_window->save());
    QCOMPARE(onDisk(), std::string("theirs"));
    answering(QStringLiteral("Keep mine"));
    QVERIFY(m_window->save());
    QCOMPARE(onDisk(), std::string("mine"));
    change("mine again");
    QVERIFY(saveDesign(theirs, path.toStdString()).ok());
    answering(QStringLiteral("Reload"));
    QVERIFY(m_window->save());
    QCOMPARE(document.committed().title, std::string("theirs"));
    QCOMPARE(onDisk(), std::string("theirs"));
    QVERIFY(!document.isModified());
  }
  /// A long search does not keep the program alive: before, this would wait for ever.
  void theWindowGoesWithoutWaitingForWork() {
    QSemaphore ends;
    runInBackground([&] { ends.acquire(); });
    {
      MainWindow other;
      other.show();
      other.close();
    }
    ends.release();
    backgroundPool().waitForDone();
  }
  void aFileThatWasTakenAway() {
    const QString path = m_folder.filePath(QStringLiteral("taken.hinge"));
    QVERIFY(
        saveDesign(*loadDesign(HINGE_SOURCE_DIR "/demo/two-tents.hinge"), path.toStdString()).ok());
    QVERIFY(m_window->openFile(path));
    QVERIFY(!m_window->document().isUnsaved());
    QVERIFY(QFile::remove(path));
    QVERIFY(m_window->document().isUnsaved()); // so that closing asks, and it can be saved
    int asked = 0;
    m_window->askUnsaved = [&] { return ++asked, static_cast<int>(QMessageBox::Cancel); };
    QVERIFY(!m_window->close());
    QCOMPARE(asked, 1);
    QVERIFY(m_window->save());
    QVERIFY(QFile::exists(path) && !m_window->document().isUnsaved());
  }
  void workSurvivesACrash() {
    const auto next = setValues(m_window->document().committed(), StructureId{2}, {{"d", 48}});
    QVERIFY(m_window->document().apply(*next, QStringLiteral("test")).ok());
    m_window->document().copyNow();
    // A program that is gone leaves its copy and its path, but no lock.
    const QDir folder(SafetyCopy::folder());
    const QStringList files = folder.entryList({QStringLiteral("*.hinge")}, QDir::Files);
    QCOMPARE(files.size(), qsizetype(1));
    QVERIFY(SafetyCopy::leftBehind().isEmpty()); // ours is alive
    const QString name = QFileInfo(files.front()).completeBaseName();
    for (const char* ending : {".hinge", ".path"})
      QVERIFY(QFile::copy(folder.filePath(name + QLatin1String(ending)),
                          folder.filePath(QStringLiteral("left") + QLatin1String(ending))));
    // A damaged one beside it, newer, must not hide it.
    QFile damaged(folder.filePath(QStringLiteral("damaged.hinge")));
    QVERIFY(damaged.open(QIODevice::WriteOnly));
    damaged.write("{");
    damaged.close();
    QVERIFY(damaged.open(QIODevice::ReadWrite) &&
            damaged.setFileTime(QDateTime::currentDateTime().addSecs(60),
                                QFileDevice::FileModificationTime));
    damaged.close();
    m_window->askUnsaved = [] { return static_cast<int>(QMessageBox::Discard); };
    MainWindow fresh;
    QStringList asked;
    fresh.askRecover = [&](const QString& what, const QDateTime&) {
      asked << what;
      return static_cast<int>(QMessageBox::Yes);
    };
    fresh.show();
    fresh.offerRecovery();
    QCOMPARE(asked.size(), qsizetype(2));
    QVERIFY(fresh.document().committed() == *next);
    QVERIFY(fresh.document().isModified());
    QVERIFY(fresh.document().path().endsWith(QStringLiteral("night-market.hinge")));
    QVERIFY(SafetyCopy::leftBehind().isEmpty());
    QVERIFY(!folder.entryList({QStringLiteral("*.damaged")}, QDir::Files).isEmpty());
  }
  void undoReachesTheDesignFromWithinAField() {
    Document& document = m_window->document();
    document.select(StructureId{2});
    const Design before = document.committed();
    QLineEdit* field = m_window->sizes().field(QStringLiteral("d"));
    QVERIFY(field);
    QTest::mouseClick(field, Qt::LeftButton);
    field->selectAll();
    QTest::keyClicks(field, "37");
    QTest::keyClick(field, Qt::Key_Return);
    QVERIFY(!(document.committed() == before));
    QCOMPARE(document.undoStack().index(), 1);
    m_window->activateWindow();
    field->setFocus();
    QTRY_VERIFY(field->hasFocus());
    QTest::keyClick(field, Qt::Key_Z, Qt::ControlModifier);
    QCOMPARE(document.undoStack().index(), 0);
    QVERIFY(document.committed() == before);
    QTest::keyClick(field, Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    QVERIFY(!(document.committed() == before));
  }
  void savingUnderANameWithoutItsEndingAsksBeforeItReplaces() {
    QTemporaryDir folder;
    const QString there = folder.filePath(QStringLiteral("card.hinge"));
    QVERIFY(saveDesign(Design{}, there.toStdString()).ok());
    const auto before = readFile(there.toStdString());
    int asked = 0;
    m_window->askReplace = [&](const QString& path) {
      ++asked;
      return path != there;
    };
    QVERIFY(!m_window->saveUnder(folder.filePath(QStringLiteral("card"))));
    QCOMPARE(asked, 1);
    QCOMPARE(*readFile(there.toStdString()), *before);
    m_window->askReplace = [](const QString&) { return true; };
    QVERIFY(m_window->saveUnder(folder.filePath(QStringLiteral("card"))));
    QVERIFY(*readFile(there.toStdString()) != *before);
    // And no export ever goes over the card.
    QVERIFY(!m_window->cutPlace().exportTo(QStringLiteral("svg"), there));
  }
  void aNewCardBeginsWithAStartingDesign() {
    m_window->openNewPlace();
    auto* place = m_window->findChild<NewPlace*>();
    QVERIFY(place);
    QVERIFY(place->isVisible()); // at once; what it holds comes when it is there
    QTRY_COMPARE_WITH_TIMEOUT(place->findChildren<LivePicture*>().size(),
                              qsizetype(startingDesigns().size()), kPatience_ms);
    QVERIFY(startingDesigns().size() >= 16);
    auto* choice = place->findChild<LivePicture*>(QStringLiteral("start-Block stairs"));
    QVERIFY(choice && choice->isEnabled());
    QTest::mouseClick(choice, Qt::LeftButton);
    QCOMPARE(m_window->document().committed().title, std::string("Block stairs"));
    QVERIFY(m_window->document().path().isEmpty()); // a copy: nothing that ships is written over
    settle();
    QVERIFY(m_window->analyst().current()->verdict == Verdict::Good);
  }
  void theBaseIsChosenWithTheSize() {
    m_window->openNewPlace();
    QTest::mouseClick(m_window->findChild<NewPlace*>()->findChild<QPushButton*>(), Qt::LeftButton);
    QVERIFY(m_window->document().committed().structures.empty());
    auto* base = m_window->sizePlace().baseChoice();
    const int gate = base->findData(QStringLiteral("gate"));
    base->setCurrentIndex(gate);
    emit base->activated(gate);
    QCOMPARE(m_window->document().committed().card.kind, std::string("gate"));
    QLineEdit* left = m_window->sizePlace().baseField(QStringLiteral("left"));
    QVERIFY(left);
    const double width = m_window->document().committed().card.width_mm;
    left->setFocus();
    left->selectAll();
    QTest::keyClicks(left, QStringLiteral("40"));
    QTest::keyClick(left, Qt::Key_Return);
    QCOMPARE(m_window->document().committed().card.values.at("left"), 40.0);
    // Flaps that are wider than the card are refused; the field shows what holds.
    left->selectAll();
    QTest::keyClicks(left, QString::number(width));
    QTest::keyClick(left, Qt::Key_Return);
    QCOMPARE(m_window->document().committed().card.values.at("left"), 40.0);
    QVERIFY(m_window->sizePlace()
                .baseField(QStringLiteral("left"))
                ->text()
                .startsWith(QStringLiteral("40")));
    m_window->document().undoStack().undo();
    m_window->document().undoStack().undo();
    QCOMPARE(m_window->document().committed().card.kind, std::string("single-fold"));
    QVERIFY(!m_window->sizePlace().baseField(QStringLiteral("left")));
  }
  void edgesOfTheCardArePulled() {
    m_window->openNewPlace();
    QTest::mouseClick(m_window->findChild<NewPlace*>()->findChild<QPushButton*>(), Qt::LeftButton);
    m_window->go(MainWindow::SizeCard);
    m_window->grab();
    auto* drawing = m_window->sizePlace().findChild<SizeDrawing*>();
    using Figure = SizeDrawing::Figure;
    const auto edge = [&](Figure figure, bool across) {
      for (const SizeDrawing::Edge& one : drawing->edges())
        if (one.figure == figure && one.across == across) return one;
      return SizeDrawing::Edge{};
    };
    const auto pull = [&](const SizeDrawing::Edge& held, const QPoint& by) {
      const QPoint from = held.middle().toPoint();
      QTest::mouseMove(drawing, from);
      QTest::mousePress(drawing, Qt::LeftButton, {}, from);
      QTest::mouseMove(drawing, from + by / 2);
      QTest::mouseMove(drawing, from + by);
      QTest::mouseRelease(drawing, Qt::LeftButton, {}, from + by);
      m_window->grab();
    };
    const auto card = [&] { return m_window->document().committed().card; };
    const CardBase before = card();
    const int steps = m_window->document().undoStack().count();
    const SizeDrawing::Edge shutSide = edge(Figure::Shut, true);
    const double scale = (shutSide.to.y() - shutSide.from.y()) / before.height_mm; // px per mm
    pull(shutSide, QPoint(20, 0));
    QVERIFY(std::abs(card().width_mm - before.width_mm - 20 / scale) < 0.6);
    QCOMPARE(m_window->document().undoStack().count(), steps + 1);  // one pull, one step
    QVERIFY(std::abs(std::remainder(card().width_mm, 0.5)) < 1e-9); // on the maker's lattice
    // The open card has two leaves: its edge goes twice as far.
    const double shut = card().width_mm;
    const SizeDrawing::Edge openSide = edge(Figure::Open, true);
    const double now = (openSide.to.y() - openSide.from.y()) / card().height_mm;
    pull(openSide, QPoint(-20, 0));
    QVERIFY(std::abs(card().width_mm - shut + 10 / now) < 0.6);
    pull(edge(Figure::Open, false), QPoint(0, -15));
    QVERIFY(card().height_mm > before.height_mm + 3);
    // Escape puts it back; one of the list has no edges, an envelope of the maker's own has.
    const CardBase kept = card();
    const QPoint at = edge(Figure::Shut, true).middle().toPoint();
    QTest::mousePress(drawing, Qt::LeftButton, {}, at);
    QTest::mouseMove(drawing, at + QPoint(30, 0));
    QVERIFY(m_window->document().previewing());
    QTest::keyClick(drawing, Qt::Key_Escape);
    QTest::mouseRelease(drawing, Qt::LeftButton, {}, at + QPoint(30, 0));
    QVERIFY(card() == kept);
    QVERIFY(edge(Figure::Envelope, true).from.isNull());
    Design own = m_window->document().committed();
    own.settings.envelope = "own-200x150";
    QVERIFY(m_window->document().apply(own, QStringLiteral("an envelope")));
    m_window->grab();
    pull(edge(Figure::Envelope, false), QPoint(0, -20));
    QVERIFY(envelopeByKey(m_window->document().committed().settings.envelope).short_mm > 150 ||
            envelopeByKey(m_window->document().committed().settings.envelope).long_mm > 200);
  }
  void theEdgeOfASheetIsPulledAndTheFinishedSizeFollows() {
    Design d;
    d.card.kind = "sheet";
    d.card.sheets = {
        workedBy({{}, true, {}}, "size 200 x 100; score 100 v", LengthUnit::Millimetre)->work};
    d.card.width_mm = 100, d.card.height_mm = 100;
    m_window->document().start(d);
    m_window->go(MainWindow::SizeCard);
    m_window->grab();
    auto* drawing = m_window->sizePlace().findChild<SizeDrawing*>();
    for (const SizeDrawing::Edge& one : drawing->edges())
      if (one.figure == SizeDrawing::Figure::Open && one.upright) {
        const QPoint from = one.middle().toPoint();
        QTest::mousePress(drawing, Qt::LeftButton, {}, from);
        QTest::mouseMove(drawing, from + QPoint(24, 0));
        QTest::mouseRelease(drawing, Qt::LeftButton, {}, from + QPoint(24, 0));
        break;
      }
    const CardBase& card = m_window->document().committed().card;
    const double wide = boundsOf(card.sheets[0].outline).size().x();
    QVERIFY(wide > 205);
    QVERIFY(std::abs(card.width_mm - (wide - 100)) < 1e-6); // the wider leaf is the shut card
  }
  void theBaseIsWorkedOnInWords() {
    m_window->openNewPlace();
    QTest::mouseClick(m_window->findChild<NewPlace*>()->findChild<QPushButton*>(), Qt::LeftButton);
    m_window->go(MainWindow::SizeCard);
    auto* words = m_window->sizePlace().findChild<SheetWords*>();
    QVERIFY(words && !words->isVisible()); // a single fold is no sheet yet
    auto* base = m_window->sizePlace().baseChoice();
    const int sheet = base->findData(QStringLiteral("sheet"));
    base->setCurrentIndex(sheet);
    emit base->activated(sheet);
    QVERIFY(words->isVisible());
    const CardBase before = m_window->document().committed().card;
    QCOMPARE(before.sheets.size(), std::size_t(1)); // the card that was there, as a sheet
    QVERIFY(words->words()->toPlainText().contains(QStringLiteral("score ")));
    QSignalSpy refused(words, &SheetWords::refused);
    words->words()->setFocus();
    words->words()->moveCursor(QTextCursor::End);
    QTest::keyClick(words->words(), Qt::Key_Return);
    QTest::keyClicks(words->words(), QStringLiteral("reverse 110 to 150 between 40 und 90"));
    QTest::keyClick(words->words(), Qt::Key_Return, Qt::ControlModifier);
    QCOMPARE(refused.size(), 1);
    QVERIFY(m_window->document().committed().card == before);
    QVERIFY(words->words()->toPlainText().contains(QStringLiteral("und"))); // it can be mended
    words->words()->setPlainText(
        words->words()->toPlainText().replace(QStringLiteral(" und "), QStringLiteral(" and ")));
    QTest::mouseClick(words->findChild<QPushButton*>(QStringLiteral("take-sheet")), Qt::LeftButton);
    QCOMPARE(refused.size(), 1);
    QVERIFY(m_window->document().committed().card.sheets[0].lines.size() > 5);
    settle();
    QVERIFY(m_window->analyst().current()->verdict == Verdict::Good);
    m_window->document().undoStack().undo();
    QVERIFY(m_window->document().committed().card == before);
    // A second sheet, glued on a page of the first.
    words->choice()->setCurrentIndex(1);
    emit words->choice()->activated(1);
    words->words()->setPlainText(QStringLiteral("size 60 x 40\nglue 5,20 on card/page-a at 20,60"));
    words->takeOver();
    QCOMPARE(m_window->document().committed().card.sheets.size(), std::size_t(2));
    QTest::mouseClick(words->findChild<QPushButton*>(QStringLiteral("sheet-grammar")),
                      Qt::LeftButton);
    auto* grammar = m_window->findChild<QPlainTextEdit*>(QStringLiteral("grammar"));
    QVERIFY(grammar && grammar->toPlainText().contains(QStringLiteral("reverse ")));
    qobject_cast<QDialog*>(grammar->parentWidget())->reject();
  }
  void aHandLiftsWhatIsLooseOnPurpose() {
    SheetInWork flap{plainStrip(60, 40), false, {}};
    for (const char* said :
         {"score 10 v lifted from 180 to 60", "glue 5,20 on card/page-b at 20,40"})
      flap = *workedBy(flap, said, LengthUnit::Millimetre);
    const auto added =
        addStructure(Design(), "piece", "card/page-b", {{"position", 0.0}}, flap.work);
    QVERIFY(m_window->document().apply(added->design, QStringLiteral("flap")).ok());
    settle();
    QVERIFY(m_window->analyst().current()->verdict == Verdict::Good);
    StageView& stage = m_window->stage();
    const PanelIndex panel = stage.assembly()->findPanel("s1/panel-2");
    const Vec3 rests = stage.pose().panels[panel].linear().col(2);
    stage.setFocus();
    QTest::keyClick(&stage, Qt::Key_L);
    const Vec3 up = stage.pose().panels[panel].linear().col(2);
    QVERIFY(std::abs(up.dot(rests) - std::cos(radians(120))) < 1e-9);
    QTest::keyClick(&stage, Qt::Key_L);
    QVERIFY((stage.pose().panels[panel].linear().col(2) - rests).norm() < 1e-12);
    // The grip is dragged from where it is to where it would be half-way.
    const QPoint from = stage.scene().knobOf(0).toPoint();
    QTest::keyClick(&stage, Qt::Key_L);
    const QPoint to = stage.scene().knobOf(0).toPoint();
    QTest::keyClick(&stage, Qt::Key_L);
    QTest::mousePress(&stage, Qt::LeftButton, {}, from);
    QTest::mouseMove(&stage, to);
    QTest::mouseRelease(&stage, Qt::LeftButton, {}, to);
    const Vec3 dragged = stage.pose().panels[panel].linear().col(2);
    QVERIFY(std::abs(dragged.dot(rests) - std::cos(radians(120))) < 0.05);
    m_window->document().undoStack().undo();
  }
  void theOpeningKeepsToWhatTheCardIsUsedFor() {
    Design tent = m_window->document().committed();
    tent.card.worksTo_deg = 60, tent.card.display_deg = 60;
    QVERIFY(m_window->document().apply(tent, QStringLiteral("tent")).ok());
    settle();
    auto* fan = m_window->findChild<Fan*>();
    fan->setOpening_rad(kPi);
    QCOMPARE(fan->value(), 600);
    m_window->document().undoStack().undo();
    fan->setOpening_rad(kPi);
    QCOMPARE(fan->value(), 1800);
  }
  void aNewCardIsSizedInInchFractions() {
    m_window->go(MainWindow::SizeCard);
    Design inches = m_window->document().committed();
    inches.settings.unit = LengthUnit::Inch;
    QVERIFY(m_window->document().apply(inches, QStringLiteral("unit")).ok());
    QLineEdit* width = m_window->sizePlace().widthField();
    width->setFocus();
    width->selectAll();
    QTest::keyClicks(width, QStringLiteral("5 1/4"));
    QTest::keyClick(width, Qt::Key_Return);
    QVERIFY(std::abs(m_window->document().committed().card.width_mm - 133.35) < 1e-9);
    QCOMPARE(width->text(), QStringLiteral("5 1/4 in"));
  }
  void assistiveTechnologySeesTheContentOfTheViews() {
    m_window->document().select(StructureId{2});
    for (QWidget* view :
         {static_cast<QWidget*>(&m_window->stage()), static_cast<QWidget*>(&m_window->bench())}) {
      QAccessibleInterface* canvas = QAccessible::queryAccessibleInterface(view);
      QVERIFY(canvas);
      QStringList names;
      for (int k = 0; k < canvas->childCount(); ++k) {
        QAccessibleInterface* child = canvas->child(k);
        QVERIFY(child);
        names << child->text(QAccessible::Name);
        names << child->text(QAccessible::Description);
        if (child->role() != QAccessible::Graphic) continue;
        QVERIFY(child->rect().isValid());
        QCOMPARE(child->parent(), canvas);
      }
      QVERIFY(names.contains(QStringLiteral("s2/wall-a")));
      QVERIFY(names.contains(QStringLiteral("wall a (A) of Fruit stall")));
      QVERIFY(names.contains(QStringLiteral("size c")));
      QVERIFY(std::ranges::any_of(
          names, [](const QString& n) { return n.startsWith(QStringLiteral("fold ")); }));
    }
    // Pressing an item does what a click does.
    const auto items = m_window->stage().accessibleItems();
    for (int k = 0; k < items.size(); ++k)
      if (items.at(k).description == QStringLiteral("s3/wall-b") &&
          items.at(k).role == QAccessible::Graphic)
        m_window->stage().pressItem(k);
    QVERIFY(m_window->document().selection() == StructureId{3});
  }
  /// Each place has a key, and the menu shows it.
  void theMenuTakesOneToEveryPlace() {
    for (int k = 0; k < 5; ++k) {
      const QKeySequence keys(Qt::CTRL | static_cast<Qt::Key>(Qt::Key_1 + k));
      QAction* found = nullptr;
      for (QMenu* menu : m_window->findChildren<QMenu*>())
        for (QAction* action : menu->actions())
          if (action->shortcut() == keys) found = action;
      QVERIFY2(found, qPrintable(keys.toString()));
      m_window->go(k == 0 ? MainWindow::BuildCard : MainWindow::SizeCard);
      QTest::keySequence(m_window.get(), keys);
      for (QToolButton* button : m_window->findChildren<QToolButton*>())
        if (button->objectName() == QStringLiteral("place"))
          QCOMPARE(button->isChecked(), button->text() == found->text());
    }
  }
  /// What is read aloud is what is seen: the opening in degrees, the verdict behind its name.
  void openingAndVerdictAreSpoken() {
    settle();
    Fan& fan = m_window->stage().fan();
    fan.setValue(1005);
    QAccessibleInterface* opening = QAccessible::queryAccessibleInterface(&fan);
    QVERIFY(opening && opening->valueInterface());
    QCOMPARE(opening->valueInterface()->currentValue().toDouble(), 100.5);
    QCOMPARE(opening->valueInterface()->maximumValue().toDouble(), 180.0);
    QCOMPARE(opening->text(QAccessible::Value), QStringLiteral("100.5°"));
    opening->valueInterface()->setCurrentValue(40);
    QCOMPARE(fan.value(), 400);
    int named = 0;
    for (QLabel* label : m_window->findChildren<QLabel*>()) {
      if (label->accessibleName().isEmpty() || label->text().isEmpty()) continue;
      const QString heard = QAccessible::queryAccessibleInterface(label)->text(QAccessible::Name);
      const QString seen = QTextDocumentFragment::fromHtml(label->text()).toPlainText();
      QVERIFY2(heard.startsWith(label->accessibleName()) && heard.endsWith(seen),
               qPrintable(heard));
      ++named;
    }
    QVERIFY(named > 0);
  }
  void everyControlHasAnAccessibleName() {
    for (QWidget* widget : m_window->findChildren<QWidget*>()) {
      const bool control =
          qobject_cast<QLineEdit*>(widget) || qobject_cast<QAbstractButton*>(widget) ||
          qobject_cast<QComboBox*>(widget) || qobject_cast<QAbstractSlider*>(widget);
      if (!control || widget->inherits("QTableCornerButton") ||
          widget->objectName().startsWith(QStringLiteral("qt_")) ||
          qobject_cast<QScrollBar*>(widget))
        continue;
      QAccessibleInterface* seen = QAccessible::queryAccessibleInterface(widget);
      QVERIFY2(
          seen && !seen->text(QAccessible::Name).isEmpty(),
          qPrintable(QStringLiteral("%1 in %2")
                         .arg(QLatin1String(widget->metaObject()->className()),
                              QLatin1String(widget->parentWidget()->metaObject()->className()))));
    }
  }
};

QTEST_MAIN(TestWindow)
#include "test_window.moc"
