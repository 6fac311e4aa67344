// SPDX-License-Identifier: GPL-3.0-or-later
#include "sheet_driver.h"
#ifndef Q_MOC_RUN
#include "app/accessible_items.h"
#include "app/bring_in_dialog.h"
#include "core/edits/sheet.h"
#include "core/io/design_json.h"
#include "core/io/text_file.h"
#include "core/structures/assemble.h"
#include <QDialog>
#include <QMenu>
#include <QTemporaryDir>
#endif

using namespace hinge;
using namespace hinge::test;

// The sheet under the hand, in the real window with real events: what is drawn, dragged, typed and
// joined is done to the paper, and the card follows.

class TestHand : public SheetDriver {
  Q_OBJECT

  void open(const char* name) {
    QVERIFY(m_window->openFile(QStringLiteral(HINGE_SOURCE_DIR "/demo/") + QLatin1String(name) +
                               QStringLiteral(".hinge")));
    settle();
  }
  void drag(const QPoint& from, const QPoint& to) {
    QTest::mouseMove(&view(), from);
    QTest::mousePress(&view(), Qt::LeftButton, {}, from);
    QTest::mouseMove(&view(), (from + to) / 2);
    QTest::mouseMove(&view(), to);
    QTest::mouseRelease(&view(), Qt::LeftButton, {}, to);
  }
  /// Typed on the sheet as one who looks at it does: the first key opens the field.
  void type(const QString& text) {
    QTest::keyClicks(&view(), text.left(1));
    QVERIFY(view().typed().isVisible());
    QTest::keyClicks(&view().typed(), text.mid(1));
    QTest::keyClick(&view().typed(), Qt::Key_Return);
  }
  /// A Z of three leaves, seen half open, with a plain sheet under the hand.
  void zWithASheet() {
    Design d;
    d.card.width_mm = 80, d.card.height_mm = 100;
    d.card.kind = "sheet";
    const auto sheet =
        workedBy({{}, true, {}}, "size 180 x 100; score 60 v; score 120 m", LengthUnit::Millimetre);
    d.card.sheets = {sheet->work};
    document().start(d);
    m_window->go(MainWindow::BuildCard);
    m_window->stage().fan().setOpening_rad(radians(110));
    settle();
    QTest::keyClick(m_window.get(), Qt::Key_N);
    QVERIFY(document().selection().has_value());
  }

  /// Steps that want a brace from the page to the back of their first tread, with a plain sheet
  /// under the hand.
  void stepsWithoutTheirBrace() {
    open("steps-in-the-fold");
    document().select(StructureId{2});
    QTest::keyClick(m_window.get(), Qt::Key_Delete);
    m_window->stage().fan().setOpening_rad(radians(90));
    settle();
    QTest::keyClick(m_window.get(), Qt::Key_N);
    QVERIFY(document().selection().has_value());
  }
  /// A point of the stage at which a panel is seen and nothing lies before it.
  QPoint seen(const char* panel) {
    m_window->grab();
    const StageScene& scene = m_window->stage().scene();
    const PanelIndex p = scene.assembly()->findPanel(panel);
    const QRect box = scene.outlineOf(p).boundingRect().toRect();
    // As near to its middle as can be.
    QPoint best;
    double least = 1e300;
    for (int x = box.left(); x < box.right(); x += 4)
      for (int y = box.top(); y < box.bottom(); y += 4) {
        const double far = QLineF(QPointF(x, y), QRectF(box).center()).length();
        if (far < least && scene.panelAt(QPointF(x, y)) == p) least = far, best = {x, y};
      }
    return best;
  }
  QStringList spoils() {
    QStringList codes;
    for (const Finding& f : m_window->analyst().current()->findings)
      if (f.severity == Severity::Spoils) codes << QString::fromStdString(f.code);
    return codes;
  }
  void findsItMoving() {
    settle();
    const Analysis& analysis = *m_window->analyst().current();
    QCOMPARE(spoils(), QStringList());
    const auto id = *document().selection();
    const PanelIndex middle = analysis.motion->assembly().findPanel(id.text() + "/panel-2");
    const Pose narrow = analysis.motion->poseAt(radians(30)),
               wide = analysis.motion->poseAt(radians(90));
    QVERIFY(narrow.placed[middle] && wide.placed[middle]);
    QVERIFY((narrow.panels[middle].translation() - wide.panels[middle].translation()).norm() > 5);
  }

private slots:
  void initTestCase() { prepare(QStringLiteral("hinge-lantern-test-hand")); }
  void init() { openWindow(); }
  void cleanup() { m_window.reset(); }

  void theSheetLiesBesideTheStageForWhatIsWorkedByHand() {
    open("steps-in-the-fold");
    QVERIFY(!m_window->sheet().isVisible());
    document().select(StructureId{1});
    QVERIFY(m_window->sheet().isVisible() && !m_window->bench().isVisible());
    QVERIFY(view().width() > 600);
    open("house-fronts"); // a base of sheets, nothing selected
    QVERIFY(m_window->sheet().isVisible());
    open("night-market");
    document().select(StructureId{2});
    QVERIFY(!m_window->sheet().isVisible() && m_window->bench().isVisible());
  }
  void theBaseIsTakenUnderTheHand() {
    open("night-market");
    document().select(std::nullopt);
    QVERIFY(m_window->bench().isVisible());
    m_window->findChild<BuildPlace*>()->takeButton().click();
    QVERIFY(m_window->sheet().isVisible());
    QCOMPARE(work().lines.size(), std::size_t(1));
    settle();
    QCOMPARE(spoils(), QStringList()); // what stands on it still does
    document().undoStack().undo();
    QVERIFY(m_window->bench().isVisible());
  }
  void aStripIsTrimmedOffByHand() {
    zWithASheet();
    QVERIFY(hand().say(QStringLiteral("size 100 x 60; score 40 v; cut 70,20 to 70,60")));
    take("trim");
    drag(at(20, 60), at(22, 51));
    QCOMPARE(hand().lastSaid(), QStringLiteral("trim top 9"));
    QVERIFY(std::abs(boundsOf(work().outline).size().y() - 51) < 1e-9);
    for (const WorkLine& line : work().lines) // what ran over the edge ends there
      QVERIFY(std::max(line.from.y(), line.to.y()) < 51 + 1e-9);
    // As far as the score, the depth typed.
    QTest::keyClick(&view(), Qt::Key_I);
    const QPoint corner = at(0, 0), to = at(41, 5);
    QTest::mouseMove(&view(), corner);
    QTest::mousePress(&view(), Qt::LeftButton, {}, corner);
    QTest::mouseMove(&view(), (corner + to) / 2);
    QTest::mouseMove(&view(), to);
    QTest::keyClicks(&view(), QStringLiteral("6"));
    QTest::keyClick(&view().typed(), Qt::Key_Return);
    QTest::mouseRelease(&view(), Qt::LeftButton, {}, to);
    QCOMPARE(hand().lastSaid(), QStringLiteral("trim bottom 6 from 0 to 40"));
    QCOMPARE(work().outline.size(), std::size_t(6));
  }
  void aScoreIsDrawnTurnedMovedAndTakenAway() {
    open("steps-in-the-fold");
    document().select(StructureId{1});
    const std::size_t before = work().lines.size();
    take("score");
    click(at(80, 40));
    QCOMPARE(work().lines.size(), before + 1);
    QVERIFY(work().lines.back().kind == WorkLine::Kind::Valley);
    QCOMPARE(hand().lastSaid(), QStringLiteral("score 80 valley"));
    take("hold");
    click(at(80, 40)); // chosen
    QVERIFY(work().lines.back().kind == WorkLine::Kind::Valley);
    click(at(80, 40)); // turned over
    QVERIFY(work().lines.back().kind == WorkLine::Kind::Mountain);
    QTest::keyClick(&view(), Qt::Key_Space);
    QVERIFY(work().lines.back().kind == WorkLine::Kind::Valley);
    QTest::keyClick(&view(), Qt::Key_M);
    QVERIFY(work().lines.back().kind == WorkLine::Kind::Mountain);
    const int steps = document().undoStack().count();
    const QPoint from = at(80, 20), to = at(85, 20);
    QTest::mouseMove(&view(), from);
    QTest::mousePress(&view(), Qt::LeftButton, {}, from);
    QTest::mouseMove(&view(), (from + to) / 2);
    QTest::mouseMove(&view(), to);
    QTest::mouseRelease(&view(), Qt::LeftButton, {}, to);
    QVERIFY(std::abs(work().lines.back().from.x() - 85) < 0.6);
    QCOMPARE(document().undoStack().count(), steps + 1); // one gesture, one step
    QTest::keyClick(&view(), Qt::Key_Delete);
    QCOMPARE(work().lines.size(), before);
    while (document().undoStack().canUndo())
      document().undoStack().undo();
    QCOMPARE(work().lines.size(), before);
  }
  void aScoreIsRepeatedAndLeans() {
    zWithASheet();
    QVERIFY(hand().say(QStringLiteral("size 100 x 40; score 20 v")));
    take("hold");
    QVERIFY(!m_window->sheet().bar().word(QStringLiteral("repeat"))->isVisible());
    click(at(20, 20)); // chosen
    take("repeat");
    QVERIFY(view().typed().isVisible());
    QTest::keyClicks(&view().typed(), QStringLiteral("25 times 2"));
    QTest::keyClick(&view().typed(), Qt::Key_Return);
    QCOMPARE(work().lines.size(), std::size_t(3));
    QVERIFY(std::abs(work().lines[2].from.x() - 70) < 1e-9);
    take("lean");
    QTest::keyClicks(&view().typed(), QStringLiteral("10"));
    QTest::keyClick(&view().typed(), Qt::Key_Return);
    QVERIFY(std::abs(work().lines[0].to.x() - 20 - 40 * std::tan(radians(10))) < 1e-6);
  }
  void theCardFollowsWhileAScoreIsDragged() {
    open("steps-in-the-fold");
    document().select(StructureId{1});
    take("hold");
    const auto height = [&] {
      const StageScene& scene = m_window->stage().scene();
      return scene.middleOf(scene.assembly()->findPanel("s1/panel-3")).y();
    };
    const double before = height();
    QTest::mouseMove(&view(), at(66, 10));
    QTest::mousePress(&view(), Qt::LeftButton, {}, at(66, 10));
    QTest::mouseMove(&view(), at(70, 10));
    QTest::mouseMove(&view(), at(72, 10));
    QVERIFY(document().previewing());
    QVERIFY(std::abs(height() - before) > 1);
    QTest::keyClick(&view(), Qt::Key_Escape);
    QVERIFY(!document().previewing());
    QVERIFY(std::abs(height() - before) < 1e-6);
    QTest::mouseRelease(&view(), Qt::LeftButton, {}, at(72, 10));
    QCOMPARE(document().undoStack().count(), 0);
  }
  void numbersAreTypedWhileDrawing() {
    open("steps-in-the-fold");
    document().select(StructureId{1});
    take("score");
    QTest::mouseMove(&view(), at(77, 40));
    QTest::mousePress(&view(), Qt::LeftButton, {}, at(77, 40));
    type(QStringLiteral("81.5"));
    QVERIFY(std::abs(work().lines.back().from.x() - 81.5) < 1e-9);
    QTest::mouseRelease(&view(), Qt::LeftButton, {}, at(77, 40));
    QCOMPARE(document().undoStack().count(), 1);
    // Without the pointer, from the other end.
    QTest::keyClick(&view(), Qt::Key_E);
    QVERIFY(hand().stroke().fromFarEnd);
    type(QStringLiteral("20 m, 50 v")); // a list is a sentence, read from the left end
    QCOMPARE(work().lines.size(), std::size_t(8));
    // What cannot be read stays to be mended, with what is wrong said.
    QTest::keyClicks(&view(), QStringLiteral("9"));
    QTest::keyClicks(&view().typed(), QStringLiteral(" sideways"));
    QTest::keyClick(&view().typed(), Qt::Key_Return);
    QVERIFY(view().typed().isVisible());
    QVERIFY(m_window->noticeText().contains(QStringLiteral("sideways")));
    QTest::keyClick(&view().typed(), Qt::Key_Escape);
    QVERIFY(!view().typed().isVisible());
  }
  void cornersEdgesAndOpeningsAreDragged() {
    zWithASheet();
    type(QStringLiteral(":")); // nothing said, nothing done
    hand().say(QStringLiteral("size 100 x 60"));
    take("hold");
    drag(at(100, 60), at(110, 70));
    QVERIFY((work().outline[2] - Vec2(110, 70)).norm() < 1.2);
    document().undoStack().undo();
    drag(at(100, 30), at(120, 30));
    QVERIFY(std::abs(boundsOf(work().outline).size().x() - 120) < 1.2);
    take("opening");
    drag(at(20, 20), at(50, 40));
    QCOMPARE(work().windows.size(), std::size_t(1));
    take("disc");
    QTest::mouseMove(&view(), at(80, 30));
    QTest::mousePress(&view(), Qt::LeftButton, {}, at(80, 30));
    QTest::mouseMove(&view(), at(86, 30));
    type(QStringLiteral("15"));
    QCOMPARE(work().windows.size(), std::size_t(2));
    QVERIFY(std::abs(boundsOf(work().windows[1]).size().x() - 15) < 0.1);
    take("outline");
    for (const auto& [x, y] : {std::pair(100, 10), std::pair(115, 10), std::pair(108, 25)})
      click(at(x, y));
    QTest::keyClick(&view(), Qt::Key_Return);
    QCOMPARE(work().windows.size(), std::size_t(3));
    take("corner");
    click(at(0, 0));
    QCOMPARE(hand().lastSaid(), QStringLiteral("round 0,0 by 5"));
    take("tab");
    click(at(60, 60));
    QVERIFY(hand().lastSaid().startsWith(QStringLiteral("tab at 60,60 10 valley")));
    take("hold");
    click(at(35, 30));
    QVERIFY(hand().chosen().what == Grip::What::Opening);
    QTest::keyClick(&view(), Qt::Key_Delete);
    QCOMPARE(work().windows.size(), std::size_t(2));
    // A corner more, and away again.
    const std::size_t corners = work().outline.size();
    QTest::mouseDClick(&view(), Qt::LeftButton, {}, at(90, 0));
    QCOMPARE(work().outline.size(), corners + 1);
  }
  void aPartialScoreIsDrawnAndFinishedByCuts() {
    zWithASheet();
    QVERIFY(hand().say(QStringLiteral("size 100 x 60; score 40 v")));
    take("score");
    drag(at(70, 15), at(70, 35));
    QCOMPARE(hand().lastSaid().left(23), QStringLiteral("score 70 valley from 15"));
    settle();
    QVERIFY(spoils().contains(QStringLiteral("score-ends"))); // it stays, and is told
    const QImage dashed = view().grab().toImage();
    const QPoint end = at(70, 35);
    bool ringed = false; // where it stops there is a ring in the colour of trouble
    for (int dx = -6; dx <= 6; ++dx)
      ringed = ringed || dashed.pixelColor(end + QPoint(dx, 0)) == Look::theme().trouble;
    QVERIFY(ringed);
    take("cut");
    for (const auto& [from, to] :
         {std::pair(at(70, 15), at(90, 15)), std::pair(at(90, 15), at(90, 35)),
          std::pair(at(90, 35), at(70, 35))})
      drag(from, to);
    settle();
    QVERIFY(!spoils().contains(QStringLiteral("score-ends")));
    QCOMPARE(work().lines.size(), std::size_t(5));
  }
  void whatIsRefusedStaysInSight() {
    zWithASheet();
    QVERIFY(hand().say(QStringLiteral("size 100 x 60; score 40 v")));
    take("reverse");
    drag(at(60, 20), at(80, 40)); // a band across no score
    QVERIFY(!m_window->noticeText().isEmpty());
    QCOMPARE(hand().refusedStroke().size(), std::size_t(4));
    QTest::keyClick(&view(), Qt::Key_Escape);
    QVERIFY(hand().refusedStroke().empty());
    // An outline that crosses itself keeps its corners, to be gone on with.
    take("trace");
    for (const auto& [x, y] :
         {std::pair(10, 10), std::pair(90, 50), std::pair(90, 10), std::pair(10, 50)})
      click(at(x, y));
    QTest::keyClick(&view(), Qt::Key_Return);
    QCOMPARE(hand().stroke().corners.size(), std::size_t(4));
    QCOMPARE(work().outline.size(), std::size_t(4));
    QTest::keyClick(&view(), Qt::Key_Escape);
    QVERIFY(hand().stroke().corners.empty());
  }
  void toolsAreTakenUpFromTheStageAndSentencesHaveRoom() {
    zWithASheet();
    QTest::keyClick(&stage(), Qt::Key_S);
    QCOMPARE(hand().stroke().tool, SheetTool::Score);
    QTest::keyClick(&stage(), Qt::Key_C);
    QCOMPARE(hand().stroke().tool, SheetTool::Cut);
    // What works on the paper at once is a matter of the sheet alone.
    const PieceWork before = work();
    QVERIFY(hand().say(QStringLiteral("size 100 x 60; score 30 v")));
    QTest::keyClick(&stage(), Qt::Key_B); // both sides alike
    QCOMPARE(work().lines.size(), before.lines.size() + 1);
    view().setFocus();
    QTest::keyClick(&view(), Qt::Key_Colon);
    QVERIFY(view().typed().isVisible());
    QVERIFY(view().typed().width() > view().width() - 60);
    QTest::keyClick(&view().typed(), Qt::Key_Escape);
  }
  void openingsAreCentredOnWhatIsChosen() {
    zWithASheet();
    QVERIFY(hand().say(QStringLiteral("size 100 x 60; score 60 v")));
    take("opening");
    QVERIFY(!m_window->sheet().bar().word(QStringLiteral("centred"))->isVisible());
    take("hold");
    click(at(60, 20)); // the score
    take("opening");
    take("oval");
    take("centred");
    drag(at(60, 30), at(70, 45));
    QVERIFY(hand().lastSaid().startsWith(QStringLiteral("opening oval centred on 60,")));
    const Box2 box = boundsOf(work().windows.back());
    QVERIFY((box.centre() - Vec2(60, 30)).norm() < 1e-9);
    // A shape of the drawer, drawn in its box.
    take("hold");
    click(at(20, 30));
    take("opening");
    QVERIFY(!hand().centred()); // another thing is chosen: it is asked for anew
    const auto actions = m_window->sheet().bar().word(QStringLiteral("shape"))->menu()->actions();
    QVERIFY(actions.size() > 10);
    actions[0]->trigger();
    drag(at(25, 20), at(45, 35));
    QVERIFY(hand().lastSaid().startsWith(QStringLiteral("opening tag 35,27.5 20 x 15")));
    // The sheet itself as an oval.
    take("trace");
    take("oval");
    drag(at(0, 0), at(100, 60));
    QVERIFY(hand().lastSaid().startsWith(QStringLiteral("outline oval 50,30 100 x 60")));
    QVERIFY(work().outline.size() > 20);
  }
  void aReversedSectionIsOneGesture() {
    zWithASheet();
    document().select(std::nullopt); // the base
    take("reverse");
    drag(at(45, 30), at(80, 60));
    QCOMPARE(work().lines.size(), std::size_t(8)); // one parted in three, two cuts, two ends
    settle();
    QCOMPARE(m_window->stage().assembly()->panels.size(), std::size_t(6));
    QCOMPARE(spoils(), QStringList{QStringLiteral("unjoined")}); // the new sheet alone
  }
  void newPanelsFoldWhileTheStrokeLasts() {
    zWithASheet();
    document().select(std::nullopt);
    stage().fan().setOpening_rad(radians(90));
    settle();
    const auto placedBefore = std::ranges::count(stage().pose().placed, char(0));
    take("reverse");
    const QPoint from = at(45, 30), to = at(80, 60);
    QTest::mouseMove(&view(), from);
    QTest::mousePress(&view(), Qt::LeftButton, {}, from);
    QTest::mouseMove(&view(), to);
    // Not let go of, and yet all six panels stand on the stage, folded as the shut card will.
    QTRY_COMPARE(stage().assembly()->panels.size(), std::size_t(6));
    QVERIFY(document().previewing());
    QCOMPARE(std::ranges::count(stage().pose().placed, char(0)), placedBefore);
    const auto shown = document().snapshot();
    QTest::mouseRelease(&view(), Qt::LeftButton, {}, to);
    // What was worked out for the stroke is not worked out again.
    QCOMPARE(document().committedSnapshot().get(), shown.get());
    // A stroke that is given up leaves nothing behind.
    document().undoStack().undo();
    const std::size_t panels = stage().assembly()->panels.size();
    QTest::mousePress(&view(), Qt::LeftButton, {}, from);
    QTest::mouseMove(&view(), to);
    QTest::keyClick(&view(), Qt::Key_Escape);
    QTest::mouseRelease(&view(), Qt::LeftButton, {}, to);
    settle();
    QCOMPARE(stage().assembly()->panels.size(), panels);
  }
  void aTwoScoreStripIsBuiltGluedAndMoves() {
    stepsWithoutTheirBrace();
    int events = 1; // the key that cut the sheet
    const auto counted = [&](int more) { events += more; };
    type(QStringLiteral(":"));
    QTest::keyClicks(&view(), QStringLiteral(":"));
    QTest::keyClicks(&view().typed(), QStringLiteral("size 42 x 30"));
    QTest::keyClick(&view().typed(), Qt::Key_Return), counted(2);
    take("score"), counted(1);
    for (const char* text : {"8", "34"})
      type(QLatin1String(text)), counted(2);
    QCOMPARE(work().lines.size(), std::size_t(2));
    take("join"), counted(1);
    StageView& stage = m_window->stage();
    JointHand& joints = m_window->sheet().joints();
    const auto lay = [&](double x, const char* panel, bool behind, const QString& place) {
      click(at(x, 15)), counted(1);
      QVERIFY(joints.laying());
      QTest::mouseMove(&stage, seen(panel)), counted(1);
      QCOMPARE(QString::fromStdString(joints.lying().on), QLatin1String(panel));
      if (behind) QTest::keyClick(&stage, Qt::Key_O), counted(1);
      QTest::keyClicks(&stage, place.left(1));
      QVERIFY(joints.typed().isVisible());
      QTest::keyClicks(&joints.typed(), place.mid(1));
      QTest::keyClick(&joints.typed(), Qt::Key_Return), counted(2);
      QTest::keyClick(&stage, Qt::Key_Return), counted(1);
      QVERIFY(!joints.laying());
    };
    lay(4, "card/page-a", false, QStringLiteral("30, 50"));
    QCOMPARE(work().joints.size(), std::size_t(1));
    lay(38, "s1/panel-3", true, QStringLiteral("0, 30"));
    QCOMPARE(work().joints.size(), std::size_t(2));
    QVERIFY2(events <= 20, qPrintable(QString::number(events)));
    QVERIFY(m_window->findChildren<QDialog*>().isEmpty());
    findsItMoving();
  }
  void aGhostIsLaidTurnedAndDropped() {
    zWithASheet();
    hand().say(QStringLiteral("size 40 x 20"));
    take("join");
    click(at(20, 10));
    JointHand& joints = m_window->sheet().joints();
    StageView& stage = m_window->stage();
    m_window->grab();
    const QPoint there =
        stage.scene().middleOf(stage.assembly()->findPanel("card/page-c")).toPoint();
    QTest::mouseMove(&stage, there);
    QVERIFY(!joints.lying().on.empty());
    const double turn = joints.lying().turn_deg;
    QTest::keyClick(&stage, Qt::Key_Comma);
    QVERIFY(std::abs(std::remainder(joints.lying().turn_deg - turn - 90, 360)) < 1e-9);
    QTest::keyClick(&stage, Qt::Key_F);
    QVERIFY(joints.lying().byFace);
    const Vec2 before = joints.lying().to;
    QTest::keyClick(&stage, Qt::Key_Right);
    QVERIFY(std::abs(joints.lying().to.x() - before.x() - 5) < 1e-9);
    QTest::keyClick(&stage, Qt::Key_Escape);
    QVERIFY(!joints.laying() && work().joints.empty());
    // Again, and let go of.
    click(at(20, 10));
    QTest::mouseMove(&stage, there + QPoint(2, 2));
    QTest::mousePress(&stage, Qt::LeftButton, {}, there);
    QTest::mouseRelease(&stage, Qt::LeftButton, {}, there);
    QCOMPARE(work().joints.size(), std::size_t(1));
    // A drag over the panel is the part that takes the glue.
    drag(at(2, 2), at(20, 18));
    const auto* glue = std::get_if<given::Glue>(&work().joints.front().kind);
    QVERIFY(glue && glue->area.size() == 4);
    QTest::keyClick(&view(), Qt::Key_Right);
    QTest::keyClick(&view(), Qt::Key_Delete);
    QVERIFY(work().joints.empty());
  }
  /// What the ghost says is measured from named lines, what is typed takes its place, and a click
  /// keeps it; in a taller card it still holds.
  void typedDistancesAreRulesThatHold() {
    document().start(Design());
    m_window->go(MainWindow::BuildCard);
    settle();
    QTest::keyClick(m_window.get(), Qt::Key_N);
    QVERIFY(hand().say(QStringLiteral("size 40 x 30")));
    take("join");
    click(at(20, 15));
    JointHand& joints = m_window->sheet().joints();
    StageView& stage = m_window->stage();
    // Before there is a face no number goes astray to the opening.
    const double opening = stage.fan().opening_rad();
    QTest::keyClicks(&stage, QStringLiteral("9"));
    QCOMPARE(stage.fan().opening_rad(), opening);
    const QPoint page = seen("card/page-b");
    QTest::mouseMove(&stage, page);
    QCOMPARE(QString::fromStdString(joints.lying().on), QStringLiteral("card/page-b"));
    QCOMPARE(joints.told().size(), 4);
    QVERIFY2(joints.told().at(0).contains(QLatin1String("page b")),
             qPrintable(joints.told().at(0)));
    QVERIFY2(joints.told().at(1).endsWith(QLatin1String("from the fold gutter")) ||
                 joints.told().at(1).contains(QLatin1String("the fold gutter")),
             qPrintable(joints.told().join(QLatin1Char('|'))));
    QVERIFY(joints.told().at(3).contains(QLatin1String("its back takes the glue")));
    QTest::keyClicks(&stage, QStringLiteral("6"));
    QTest::keyClicks(&joints.typed(), QStringLiteral(", 12"));
    QTest::keyClick(&joints.typed(), Qt::Key_Return);
    const Vec2 typed = joints.lying().to;
    // The pointer may go where it likes.
    QTest::mouseMove(&stage, page + QPoint(9, 7));
    QTest::mouseClick(&stage, Qt::LeftButton, {}, page + QPoint(9, 7));
    QCOMPARE(work().joints.size(), std::size_t(1));
    const PieceJoint& joint = work().joints.front();
    QCOMPARE(joint.rules.size(), std::size_t(2));
    QVERIFY((joint.to - typed).norm() < 1e-9);
    QVERIFY(std::abs(std::get<placed::Distance>(joint.rules[0]).distance_mm - 6) < 1e-9);
    QVERIFY(std::abs(std::get<placed::Distance>(joint.rules[1]).distance_mm - 12) < 1e-9);
    Design taller = document().committed();
    taller.card.height_mm += 20;
    QVERIFY(document().apply(taller, QString()));
    const Vec2 moved = work().joints.front().to - typed;
    QVERIFY(moved.norm() < 1e-9 || std::abs(moved.norm() - 20) < 1e-9);
    // F says what it does, and is forgotten with the next panel.
    QTest::keyClick(m_window.get(), Qt::Key_N);
    take("join");
    click(at(5, 5));
    QTest::mouseMove(&stage, page);
    QTest::keyClick(&stage, Qt::Key_F);
    QVERIFY(joints.told().constLast().contains(QLatin1String("its face takes the glue")));
    QTest::keyClick(&stage, Qt::Key_Escape);
    click(at(5, 5));
    QVERIFY(!joints.lying().byFace);
  }
  /// Tool, last sentence and what lies on the hand belong to the card they were used on.
  void anotherCardBeginsAnew() {
    zWithASheet();
    QVERIFY(hand().say(QStringLiteral("size 40 x 20")));
    QCOMPARE(hand().lastSaid(), QStringLiteral("size 40 x 20"));
    take("join");
    click(at(20, 10));
    QVERIFY(m_window->sheet().joints().laying());
    open("steps-in-the-fold");
    QVERIFY(hand().lastSaid().isEmpty());
    QVERIFY(!m_window->sheet().joints().laying() && !view().picking());
    document().select(StructureId{1});
    QVERIFY(m_window->sheet().bar().word(QStringLiteral("hold"))->isChecked());
    QVERIFY(hand().stroke().tool == SheetTool::Hold);
  }
  void aPanelIsJoinedToAnotherSheet() {
    stepsWithoutTheirBrace();
    QVERIFY(hand().say(QStringLiteral("size 20 x 20")));
    const StructureId own = *document().selection();
    take("join");
    click(at(10, 10));
    JointHand& joints = m_window->sheet().joints();
    QVERIFY(joints.laying());
    document().select(StructureId{1}); // the sheet of the steps, which shows its treads
    QVERIFY(joints.laying());
    click(at(50, 40));
    QVERIFY(document().selection() == own);
    QCOMPARE(QString::fromStdString(joints.lying().on), QStringLiteral("s1/panel-3"));
    QTest::keyClick(&m_window->stage(), Qt::Key_Return);
    QCOMPARE(work().joints.size(), std::size_t(1));
    QCOMPARE(QString::fromStdString(work().joints[0].on), QStringLiteral("s1/panel-3"));
    QVERIFY((work().joints[0].to - Vec2(14, 40)).norm() < 1.5);
  }
  void theWholeIsDoneByKeysAlone() {
    stepsWithoutTheirBrace();
    const auto key = [&](Qt::Key k) { QTest::keyClick(&view(), k); };
    QVERIFY(view().hasFocus());
    QTest::keyClicks(&view(), QStringLiteral(":"));
    QTest::keyClicks(&view().typed(), QStringLiteral("size 42 x 30"));
    QTest::keyClick(&view().typed(), Qt::Key_Return);
    key(Qt::Key_S);
    type(QStringLiteral("8 v, 34 v"));
    QCOMPARE(work().lines.size(), std::size_t(2));
    key(Qt::Key_J);
    StageView& stage = m_window->stage();
    JointHand& joints = m_window->sheet().joints();
    const auto lay = [&](Qt::Key panel, const char* face, const char* along, const char* rest) {
      key(panel);
      key(Qt::Key_Return);
      QVERIFY(joints.laying());
      for (int k = 0; k < 30 && joints.lying().on != face; ++k)
        QTest::keyClick(&stage, Qt::Key_PageDown);
      QCOMPARE(QString::fromStdString(joints.lying().on), QLatin1String(face));
      QTest::keyClicks(&stage, QLatin1String(along));
      QTest::keyClicks(&joints.typed(), QLatin1String(rest));
      QTest::keyClick(&joints.typed(), Qt::Key_Return);
      QTest::keyClick(&stage, Qt::Key_Return);
    };
    lay(Qt::Key_Right, "card/page-a", "3", "0, 50");
    QCOMPARE(work().joints.size(), std::size_t(1));
    lay(Qt::Key_Left, "s1/panel-3-back", "0", ", 30");
    QCOMPARE(work().joints.size(), std::size_t(2));
    findsItMoving();
  }
  void aPieceIsPartedAndGrownTogetherByHand() {
    zWithASheet();
    QVERIFY(hand().say(QStringLiteral("size 100 x 40; score 60 v")));
    take("hold");
    const StructureId first = *document().selection();
    click(at(60, 20));
    QTest::keyClick(&view(), Qt::Key_X);
    QCOMPARE(document().committed().structures.size(), std::size_t(2));
    QVERIFY(std::abs(boundsOf(work().outline).size().x() - 60) < 1e-9);
    click(at(60, 20)); // the edge where they parted
    QVERIFY(hand().chosen().what == Grip::What::Rim);
    QTest::keyClick(&view(), Qt::Key_G);
    QVERIFY(hand().edgeMarked());
    document().select(document().committed().structures[1].id);
    QVERIFY(hand().edgeMarked());
    click(at(0, 20));
    QCOMPARE(document().committed().structures.size(), std::size_t(1));
    QVERIFY(document().selection() == first);
    QVERIFY(std::abs(boundsOf(work().outline).size().x() - 100) < 1e-6);
    QCOMPARE(work().lines.size(), std::size_t(1));
  }
  void aPanelIsFoldedOnTheStageBeforeItIsGlued() {
    zWithASheet();
    hand().say(QStringLiteral("size 80 x 30; score 20 v; glue 10,15 on card/page-c at 30,30"));
    take("fold");
    StageView& stage = m_window->stage();
    QVERIFY(stage.hand() == &m_window->sheet().folds());
    QTest::keyClick(&stage, Qt::Key_PageDown);
    QVERIFY(m_window->sheet().folds().panel().valid());
    for (int k = 0; k < 6; ++k)
      QTest::keyClick(&stage, Qt::Key_Up);
    QVERIFY(work().lines[0].folded_deg.has_value());
    QVERIFY(std::abs(*work().lines[0].folded_deg - 150) < 1e-6);
    // With the pointer: the panel follows about its fold.
    m_window->grab();
    const PanelIndex panel = stage.assembly()->findPanel("s1/panel-2");
    const QPoint from = stage.scene().middleOf(panel).toPoint();
    QTest::mouseMove(&stage, from);
    QTest::mousePress(&stage, Qt::LeftButton, {}, from);
    QTest::mouseMove(&stage, from + QPoint(-30, -60));
    QTest::mouseRelease(&stage, Qt::LeftButton, {}, from + QPoint(-30, -60));
    QVERIFY(std::abs(*work().lines[0].folded_deg - 150) > 1);
    QTest::keyClick(&stage, Qt::Key_Escape);
    QVERIFY(stage.hand() == nullptr);
  }
  void aRidgeIsTypedOnTheProfile() {
    open("canal-frames");
    document().select(StructureId{1});
    m_window->stage().fan().setOpening_rad(radians(100));
    settle();
    ProfileView& profile = m_window->sizes().work().profile();
    QVERIFY(profile.profile().has_value());
    QVERIFY(!profile.accessibleItems().isEmpty());
    const auto before = panelWidths_mm(work());
    profile.setFocus();
    QTest::mouseClick(&profile, Qt::LeftButton, {}, profile.ridgePoint(1).toPoint());
    QVERIFY(profile.typed().isVisible());
    const double height = profile.profile()->height_mm(1);
    profile.typed().setText(QString::number(height + 3));
    QTest::keyClick(&profile.typed(), Qt::Key_Return);
    QVERIFY(!profile.typed().isVisible());
    const auto after = panelWidths_mm(work());
    QVERIFY(std::abs(after[1] - before[1]) > 0.1);
    QCOMPARE(document().undoStack().count(), 1);
    QTest::mouseClick(&profile, Qt::LeftButton, {}, profile.ridgePoint(1).toPoint());
    profile.typed().setText(QStringLiteral("as high as the moon"));
    QTest::keyClick(&profile.typed(), Qt::Key_Return);
    QVERIFY(!m_window->noticeText().isEmpty());
    QCOMPARE(document().undoStack().count(), 1);
  }
  void paperIsBroughtInAndAskedAboutOnce() {
    open("steps-in-the-fold");
    document().select(StructureId{1});
    QTemporaryDir folder;
    const QString file = folder.filePath(QStringLiteral("kite.svg"));
    const auto written = writeFile(
        file.toStdString(),
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"60mm\" height=\"40mm\" viewBox=\"0 0 60 "
        "40\"><path fill=\"none\" stroke=\"#000\" d=\"M0 20 L30 0 L60 20 L30 40 Z\"/><line "
        "stroke=\"#a0f\" x1=\"30\" y1=\"0\" x2=\"30\" y2=\"40\"/><text>no</text></svg>");
    QVERIFY(written.ok());
    m_window->bringIn(file);
    auto* dialog = m_window->findChild<BringInDialog*>();
    QVERIFY(dialog && dialog->isVisible());
    QComboBox* line = dialog->useOf({"", "#aa00ff", ""});
    QVERIFY(line);
    line->setCurrentIndex(3);
    emit line->activated(3);
    dialog->grab();
    const std::size_t before = document().committed().structures.size();
    dialog->take().click();
    QCOMPARE(document().committed().structures.size(), before + 1);
    QCOMPARE(work().lines.size(), std::size_t(1));
    QVERIFY(work().lines[0].kind == WorkLine::Kind::Valley);
    QVERIFY(m_window->noticeText().contains(QStringLiteral("texts")));
    QTRY_VERIFY(!m_window->findChild<BringInDialog*>());
    // What was told of a look once is known.
    m_window->bringIn(file);
    dialog = m_window->findChild<BringInDialog*>();
    QCOMPARE(dialog->useOf({"", "#aa00ff", ""})->currentIndex(), 3);
    // The same as an opening in the sheet under the hand.
    QVERIFY(hand().say(QStringLiteral("erase 30,20; size 100 x 80")));
    dialog->becomes().setCurrentIndex(2);
    dialog->take().click();
    QCOMPARE(work().windows.size(), std::size_t(1));
    m_window->bringIn(folder.filePath(QStringLiteral("nothing.svg")));
    QVERIFY(!m_window->noticeText().isEmpty());
    // A list of scores goes onto the sheet.
    const QString list = folder.filePath(QStringLiteral("scores.csv"));
    QVERIFY(writeFile(list.toStdString(), "5 v\n95 v\n").ok());
    QVERIFY(hand().say(QStringLiteral("close 50,40")));
    m_window->bringIn(list);
    QVERIFY2(scoreMarks(work()).size() == 2, qPrintable(m_window->noticeText()));
  }
  void theSheetSpeaksToAssistiveTechnology() {
    open("steps-in-the-fold");
    document().select(StructureId{1});
    const auto items = view().accessibleItems();
    QCOMPARE(items.size(), qsizetype(work().lines.size() + 6));
    QVERIFY(items.first().description == QStringLiteral("valley"));
    view().pressItem(1);
    QVERIFY(hand().chosen().what == Grip::What::Line && hand().chosen().index == 1);
    for (QToolButton* word : m_window->sheet().bar().findChildren<QToolButton*>())
      QVERIFY(!word->accessibleName().isEmpty());
  }
};

QTEST_MAIN(TestHand)
#include "test_hand.moc"
