// SPDX-License-Identifier: GPL-3.0-or-later
#include "sheet_driver.h"
#ifndef Q_MOC_RUN
#include "core/checks/propose.h"
#include "core/io/design_json.h"
#include "core/structures/toppers.h"
#endif

using namespace hinge;

// The place Dress, driven in the real window: faces, papers, borders, toppers, by pointer and keys.

class TestDressing : public hinge::test::SheetDriver {
  Q_OBJECT

  DressPlace& place() { return m_window->dressPlace(); }
  DressHand& dress() { return place().hand(); }
  FaceView& face() { return place().face(); }
  SwatchRow& drawer() { return place().drawer(); }
  const Dressing& wears() { return document().committed().dressing; }

  /// A box on a plain card, half open, in the place Dress.
  void boxOnACard() {
    Design d;
    d.card.width_mm = 130, d.card.height_mm = 180;
    const auto added = addProposed(d, "box", "gutter", {});
    QVERIFY(added.ok());
    document().start(added->design);
    m_window->go(MainWindow::DressCard);
    stage().fan().setOpening_rad(radians(100));
    settle();
  }
  /// A point of the stage where the face side of a panel is in front.
  QPoint seen(const char* panel) {
    const StageScene& scene = place().stage().scene();
    return scene.middleOf(scene.assembly()->findPanel(panel)).toPoint();
  }
  void chooseOnStage(const char* panel) {
    StageView& on = place().stage();
    QTest::mouseMove(&on, seen(panel));
    QTest::mouseClick(&on, Qt::LeftButton, {}, seen(panel));
  }
  int swatchOf(const char* key) {
    const auto all = drawer().items();
    return static_cast<int>(std::ranges::find(all, std::string(key)) - all.begin());
  }
  QPoint swatchAt(const char* key) {
    return drawer().rectOf(static_cast<std::size_t>(swatchOf(key))).center();
  }

private slots:
  void initTestCase() { prepare(QStringLiteral("hinge-lantern-test-dressing")); }
  void init() { openWindow(); }
  void cleanup() { m_window.reset(); }

  void aFaceIsClickedAndAPaperLaidOnIt() {
    boxOnACard();
    chooseOnStage("card/page-b");
    QCOMPARE(dress().face(), std::string("card/page-b"));
    QVERIFY(dress().seen().has_value());
    QTest::mouseClick(&drawer(), Qt::LeftButton, {}, swatchAt("night-blue"));
    QCOMPARE(wears().rules.size(), std::size_t(1));
    QCOMPARE(wears().rules[0].reach, DressReach::Twins);
    QCOMPARE(wears().rules[0].layers.size(), std::size_t(1));
    // Its twin wears it too, and the stage shows both.
    settle();
    QCOMPARE(place().stage().scene().dressed()->size(), std::size_t(2));
    QVERIFY(place().stage().scene().look() != nullptr);
    // One more by its letter, then the top one off again.
    const auto all = drawer().items();
    const auto reeds = static_cast<int>(std::ranges::find(all, std::string("reeds")) - all.begin());
    QTest::keyClick(&face(), static_cast<Qt::Key>(Qt::Key_A + (reeds >= 23 ? reeds + 1 : reeds)));
    if (wears().rules[0].layers.size() < 2) // behind the letters there are
      drawer().pressItem(reeds);
    QCOMPARE(wears().rules[0].layers.size(), std::size_t(2));
    QTest::keyClick(&face(), Qt::Key_Backspace);
    QCOMPARE(wears().rules[0].layers.size(), std::size_t(1));
    document().undoStack().undo();
    QCOMPARE(wears().rules[0].layers.size(), std::size_t(2));
  }
  void aSwatchIsDraggedOntoTheStage() {
    boxOnACard();
    const QPoint from = swatchAt("canal-blue");
    const QPoint to =
        drawer().mapFrom(m_window.get(), place().stage().mapTo(m_window.get(), seen("s1/wall-a")));
    QTest::mousePress(&drawer(), Qt::LeftButton, {}, from);
    QTest::mouseMove(&drawer(), from + QPoint(20, -20));
    QTest::mouseMove(&drawer(), to);
    QCOMPARE(dress().carried(), std::string("canal-blue"));
    QVERIFY(!dress().over().empty());
    QVERIFY(!place().stage().grab().isNull()); // with the ghost on the face
    QTest::mouseRelease(&drawer(), Qt::LeftButton, {}, to);
    QVERIFY(dress().carried().empty());
    QCOMPARE(wears().rules.size(), std::size_t(1));
    QVERIFY(wears().rules[0].face.starts_with("s1/wall-a"));
    QCOMPARE(wears().rules[0].layers[0].paper, std::string("canal-blue"));
  }
  void bordersAreDraggedAndTyped() {
    boxOnACard();
    dress().choose("card/page-b");
    QVERIFY(dress().lay("moss"));
    settle();
    QVERIFY(!face().grab().isNull());
    const auto cut = dress().wears();
    QCOMPARE(cut.size(), std::size_t(1));
    const Box2 box = boundsOf(cut[0].parts.front());
    // The foot of the mat is taken 8 mm into the face.
    const Vec2 foot(box.centre().x(), box.low.y());
    const QPoint from = face().toScreen(foot).toPoint(),
                 to = face().toScreen(foot + Vec2(0, 5)).toPoint();
    QTest::mousePress(&face(), Qt::LeftButton, {}, from);
    QTest::mouseMove(&face(), (from + to) / 2);
    QTest::mouseMove(&face(), to);
    QVERIFY(document().previewing());
    QTest::mouseRelease(&face(), Qt::LeftButton, {}, to);
    QVERIFY(!document().previewing());
    QCOMPARE(wears().rules[0].layers[0].border_mm.size(), std::size_t(1));
    QVERIFY(std::abs(wears().rules[0].layers[0].border_mm[0] - 8) < 0.75);
    // Typed: by side, from the foot on.
    QTest::keyClicks(&face(), QStringLiteral("2"));
    QVERIFY(place().border().hasFocus());
    QTest::keyClicks(&place().border(), QStringLiteral(",0,5,1"));
    QTest::keyClick(&place().border(), Qt::Key_Return);
    QCOMPARE(wears().rules[0].layers[0].border_mm, (std::vector<double>{2, 0, 5, 1}));
    // What is no border is told, and changes nothing.
    place().border().setFocus();
    place().border().selectAll();
    QTest::keyClicks(&place().border(), QStringLiteral("1,2"));
    QTest::keyClick(&place().border(), Qt::Key_Return);
    QVERIFY(!m_window->noticeText().isEmpty());
    QCOMPARE(wears().rules[0].layers[0].border_mm.size(), std::size_t(4));
  }
  void choicesChangeTheRule() {
    boxOnACard();
    dress().choose("s1/wall-a");
    place().choice(QStringLiteral("part"))->click();
    QVERIFY(dress().lay("deck-planks"));
    QCOMPARE(wears().rules[0].reach, DressReach::Part);
    place().choice(QStringLiteral("along-fold"))->click();
    QCOMPARE(wears().rules[0].layers[0].turn, PatternTurn::AlongFold);
    place().choice(QStringLiteral("round"))->click();
    QCOMPARE(wears().rules[0].layers[0].corners, CornerStyle::Round);
    place().choice(QStringLiteral("around"))->click();
    QCOMPARE(wears().rules[0].atGlue, AtGlue::Around);
    QCOMPARE(wears().rules.size(), std::size_t(1));
    QVERIFY(place().choice(QStringLiteral("around"))->isChecked());
  }
  void everythingThatIsSeenIsDressedAtOnceAndAFaceLeavesIt() {
    boxOnACard();
    place().dressAllButton().click();
    QCOMPARE(wears().rules.size(), std::size_t(1));
    QCOMPARE(wears().rules[0].reach, DressReach::Seen);
    QCOMPARE(wears().rules[0].layers.size(), std::size_t(2));
    settle();
    const std::size_t all = place().stage().scene().dressed()->size();
    QVERIFY(all >= 5);
    place().choice(QStringLiteral("face"))->click();
    dress().choose("s1/wall-a");
    dress().bare();
    settle();
    QCOMPARE(place().stage().scene().dressed()->size(), all - 1);
  }
  void hiddenFacesAreStruckOut() {
    boxOnACard();
    QTest::keyClick(&place().stage(), Qt::Key_X);
    QVERIFY(dress().hiddenShown());
    QVERIFY(place().choice(QStringLiteral("hidden"))->isChecked());
    QVERIFY(!place().stage().grab().isNull());
    QTest::keyClick(&place().stage(), Qt::Key_X);
    QVERIFY(!dress().hiddenShown());
  }
  void aTopperIsPutOnMovedSizedAndSaid() {
    boxOnACard();
    dress().choose("card/page-a");
    place().choice(QStringLiteral("shapes"))->click();
    QTest::mouseClick(&drawer(), Qt::LeftButton, {}, swatchAt("moon"));
    QCOMPARE(wears().toppers.size(), std::size_t(1));
    QVERIFY(dress().topper().has_value());
    QVERIFY(!face().grab().isNull());
    const Topper before = wears().toppers[0];
    // Its crescent is at the left of its middle.
    const Vec2 hold = before.at - Vec2(0.35 * before.width_mm, 0);
    const QPoint from = face().toScreen(hold).toPoint(),
                 to = face().toScreen(hold + Vec2(12, 20)).toPoint();
    QTest::mousePress(&face(), Qt::LeftButton, {}, from);
    QTest::mouseMove(&face(), (from + to) / 2);
    QTest::mouseMove(&face(), to);
    QVERIFY(document().previewing());
    QTest::mouseRelease(&face(), Qt::LeftButton, {}, to);
    QVERIFY((wears().toppers[0].at - before.at - Vec2(12, 20)).norm() < 1.5);
    // By keys: half a millimetre, a turn, pads.
    const double x = wears().toppers[0].at.x();
    QTest::keyClick(&face(), Qt::Key_Right);
    QVERIFY(std::abs(wears().toppers[0].at.x() - x - 0.5) < 1e-9);
    QTest::keyClick(&face(), Qt::Key_R);
    QCOMPARE(wears().toppers[0].turn_deg, 15.0);
    QTest::keyClick(&face(), Qt::Key_P);
    QCOMPARE(wears().toppers[0].fix, TopperFix::Pads);
    // In words.
    place().topperWords().setFocus();
    place().topperWords().selectAll();
    QTest::keyClicks(&place().topperWords(), QStringLiteral("size 20 x 24; mat tar border 1"));
    QTest::keyClick(&place().topperWords(), Qt::Key_Return);
    QCOMPARE(wears().toppers[0].width_mm, 20.0);
    QVERIFY(wears().toppers[0].mat.has_value());
    // A paper now means the topper.
    QVERIFY(dress().lay("brass-foil"));
    QCOMPARE(wears().toppers[0].paper, std::string("brass-foil"));
    settle();
    QVERIFY(place().stage().assembly()->findPanel("t1/shape-1").valid());
    QTest::keyClick(&face(), Qt::Key_Delete);
    QVERIFY(wears().toppers.empty());
  }
  void letteringIsDrawnFromItsText() {
    boxOnACard();
    dress().choose("card/page-a");
    QVERIFY(dress().addTopper("lettering", Vec2(90, 80)));
    QVERIFY(!wears().toppers[0].outlines.empty());
    const double wide = wears().toppers[0].width_mm;
    QVERIFY(dress().sayTopper(QStringLiteral("text Lanterns lit at nine; size 10 x 6; detail 1")));
    QVERIFY(std::abs(wears().toppers[0].width_mm - wide) > 1);
    QCOMPARE(wears().toppers[0].outlines.size(), std::size_t(1)); // on a strip: one piece
    QVERIFY(dress().sayTopper(QStringLiteral("detail 0")));
    QVERIFY(wears().toppers[0].outlines.size() > 10); // letters apart
  }
  void theFaceSpeaksToAssistiveTechnology() {
    boxOnACard();
    dress().choose("card/page-b");
    QVERIFY(dress().lay("moss"));
    QCOMPARE(face().accessibleItems().size(), 1);
    QVERIFY(drawer().accessibleItems().size() > 20);
    QVERIFY(!drawer().accessibleName().isEmpty());
    // By keys alone: to the next face, and the marked swatch on it.
    QTest::keyClick(&face(), Qt::Key_PageDown);
    const std::string next = dress().face();
    QVERIFY(next != "card/page-b");
    drawer().setFocus();
    QTest::keyClick(&drawer(), Qt::Key_Right);
    QTest::keyClick(&drawer(), Qt::Key_Return);
    QCOMPARE(wears().rules.size(), std::size_t(2));
    QCOMPARE(wears().rules.back().face, next);
  }
};

QTEST_MAIN(TestDressing)
#include "test_dressing.moc"
