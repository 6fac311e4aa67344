// SPDX-License-Identifier: GPL-3.0-or-later
#include "sheet_driver.h"
#ifndef Q_MOC_RUN
#include "app/bring_in_dialog.h"
#include "core/bases/base.h"
#include "core/edits/settling.h"
#include "core/edits/sheet.h"
#include "core/io/design_json.h"
#endif

using namespace hinge;
using namespace hinge::test;

// The demos of the sheet under the hand, each made in the real window with pointer and keys, and
// compared with the file that its script makes on the command line: both are the same card.

class TestMakings : public SheetDriver {
  Q_OBJECT

  void click(double x, double y) { SheetDriver::click(at(x, y)); }
  /// A drag whose measures are typed while it lasts.
  void drag(const Vec2& from, const Vec2& to, const char* typed) {
    const QPoint a = at(from.x(), from.y()), b = at(to.x(), to.y());
    QTest::mouseMove(&view(), a);
    QTest::mousePress(&view(), Qt::LeftButton, {}, a);
    QTest::mouseMove(&view(), (a + b) / 2);
    QTest::mouseMove(&view(), b);
    const QString text = QLatin1String(typed);
    QTest::keyClicks(&view(), text.left(1));
    QTest::keyClicks(&view().typed(), text.mid(1));
    QTest::keyClick(&view().typed(), Qt::Key_Return);
    QTest::mouseRelease(&view(), Qt::LeftButton, {}, b);
    QVERIFY2(view().typed().isHidden(), typed);
  }
  void type(const char* words) {
    QTest::keyClicks(&view(), QStringLiteral(":"));
    QTest::keyClicks(&view().typed(), QLatin1String(words));
    QTest::keyClick(&view().typed(), Qt::Key_Return);
    QVERIFY2(view().typed().isHidden(), qPrintable(m_window->noticeText()));
  }
  /// Picks a panel, goes to a face by keys, says how far it is from the lines there, and joins it.
  void glue(double x, double y, const char* face, const char* start, bool byFace = false,
            bool turned = false) {
    take("join");
    click(x, y);
    JointHand& joints = m_window->sheet().joints();
    QVERIFY(joints.laying());
    for (int k = 0; k < 60 && joints.lying().on != face; ++k)
      QTest::keyClick(&stage(), Qt::Key_PageDown);
    QCOMPARE(QString::fromStdString(joints.lying().on), QLatin1String(face));
    if (byFace != joints.lying().byFace) QTest::keyClick(&stage(), Qt::Key_F);
    for (int k = 0; turned && k < 2; ++k)
      QTest::keyClick(&stage(), Qt::Key_Comma);
    const QString text = QLatin1String(start);
    QTest::keyClicks(&stage(), text.left(1));
    QTest::keyClicks(&joints.typed(), text.mid(1));
    QTest::keyClick(&joints.typed(), Qt::Key_Return);
    QTest::keyClick(&stage(), Qt::Key_Return);
    QVERIFY(!joints.laying());
    settle();
  }
  void begin(double width, double height, double display_deg, const char* title) {
    Design d;
    d.card.width_mm = width, d.card.height_mm = height, d.card.display_deg = display_deg;
    d.title = title;
    document().start(d);
    m_window->go(MainWindow::BuildCard);
    stage().fan().setOpening_rad(radians(90));
    settle();
  }
  /// A card on one sheet with its scores.
  void beginOnSheet(const char* sentences, double display_deg, const char* title) {
    Design d;
    d.card = *onBase(d.card, "sheet");
    d.card.sheets = {workedBy({{}, true, {}}, sentences, LengthUnit::Millimetre)->work};
    const CardBase shut = withFinishedSize(d);
    d.card.width_mm = shut.width_mm, d.card.height_mm = shut.height_mm;
    d.card.display_deg = display_deg, d.title = title;
    document().start(d);
    m_window->go(MainWindow::BuildCard);
    settle();
    QVERIFY(m_window->sheet().isVisible());
  }
  void newSheet(const char* wide, const char* high) {
    stage().setFocus();
    QTest::keyClick(m_window.get(), Qt::Key_N);
    take("hold");
    const Vec2 size = boundsOf(work().outline).size();
    drag({size.x(), 0.5 * size.y()}, {size.x() + 5, 0.5 * size.y()}, wide);
    const Vec2 wider = boundsOf(work().outline).size();
    drag({0.4 * wider.x(), wider.y()}, {0.4 * wider.x(), wider.y() + 5}, high);
  }
  static QStringList linesOf(const Design& design) {
    return QString::fromStdString(designToJson(design)).split(QLatin1Char('\n'));
  }
  void isTheDemo(const char* name) {
    settle();
    QVERIFY(m_window->analyst().current()->verdict != Verdict::Spoiled);
    const std::string file = std::string(HINGE_SOURCE_DIR "/demo/") + name + ".hinge";
    const auto demo = loadDesign(file);
    QVERIFY2(demo.ok(), name);
    // What it wears came afterwards.
    Design bare = *demo;
    bare.papers = Design().papers, bare.stock = Design().stock, bare.dressing = {};
    for (StructureItem& item : bare.structures)
      item.paper.clear();
    bare = withoutRules(bare);
    // Rules are how a hand came to the places: these are compared.
    const Design bySizes = withoutRules(document().committed());
    const QStringList made = linesOf(bySizes), wanted = linesOf(bare);
    for (qsizetype k = 0; k < std::min(made.size(), wanted.size()); ++k)
      QCOMPARE(made[k], wanted[k]);
    QCOMPARE(made.size(), wanted.size());
  }

private slots:
  void initTestCase() { prepare(QStringLiteral("hinge-lantern-test-makings")); }
  void init() { openWindow(); }
  void cleanup() { m_window.reset(); }

  void aBargeIsDrawnFromAPlainSheet() {
    beginOnSheet("size 240 x 120; score 120 v", 100, "Barge at dusk");
    take("hold");
    for (double x : {60.0, 180.0})
      QTest::mouseDClick(&view(), Qt::LeftButton, {}, at(x, 120));
    QCOMPARE(work().outline.size(), std::size_t(6));
    drag({0, 120}, {0, 84}, "0, 80");
    drag({240, 120}, {240, 84}, "240, 80");
    drag({60, 120}, {44, 106}, "40, 104");
    drag({180, 120}, {196, 106}, "200, 104");
    take("corner");
    take("snipped");
    drag({0, 0}, {12, 8}, "24");
    drag({240, 0}, {228, 8}, "24");
    take("opening");
    take("disc");
    drag({60, 60}, {70, 60}, "30");
    take("ring");
    drag({60, 60}, {60, 80}, "24 x 20");
    QTest::keyClick(&view(), Qt::Key_B); // both sides alike
    isTheDemo("barge-at-dusk");
  }
  void aMessageFlapIsCutIntoAPage() {
    beginOnSheet("size 240 x 150; score 120 v", 110, "Keeper's message");
    take("cut");
    drag({150, 104}, {150, 50}, "60, -90");
    drag({150, 44}, {200, 44}, "60, 0");
    drag({210, 44}, {210, 90}, "60, 90");
    type("score 150,104 to 210,104 v lifted from 180 to 40");
    take("opening");
    take("disc");
    drag({60, 90}, {70, 90}, "36");
    take("ring");
    drag({60, 90}, {60, 66}, "28 x 24 x 150");
    take("corner");
    take("rounded");
    drag({240, 150}, {230, 145}, "25");
    drag({0, 150}, {10, 145}, "25");
    isTheDemo("keepers-message");
  }
  void aStripWithFourScoresBecomesATube() {
    begin(110, 150, 90, "Tube lantern");
    newSheet("150", "60");
    take("score");
    QTest::keyClicks(&view(), QStringLiteral("3"));
    QTest::keyClicks(&view().typed(), QStringLiteral("5 v, 70 v, 105 v, 140 v"));
    QTest::keyClick(&view().typed(), Qt::Key_Return);
    take("opening");
    take("rectangle");
    drag({80, 12}, {90, 40}, "15 x 36");
    drag({115, 12}, {125, 40}, "15 x 36");
    glue(17.5, 30, "card/page-a", "0, 45");
    glue(52.5, 30, "card/page-b", "0, 45");
    glue(145, 30, "s1/panel-1", "35, 0");
    isTheDemo("tube-lantern");
  }
  void twoSheetsAreJoinedByATab() {
    begin(110, 150, 100, "Two-sheet ridge");
    newSheet("60", "80");
    take("score");
    QTest::keyClick(&view(), Qt::Key_M);
    QTest::keyClicks(&view(), QStringLiteral("1"));
    QTest::keyClicks(&view().typed(), QStringLiteral("0"));
    QTest::keyClick(&view().typed(), Qt::Key_Return);
    glue(5, 40, "card/page-a", "50, 35", true);
    take("opening");
    take("disc");
    drag({38, 40}, {44, 40}, "22");
    newSheet("60", "80");
    take("score");
    QTest::keyClicks(&view(), QStringLiteral("5"));
    QTest::keyClicks(&view().typed(), QStringLiteral("0"));
    QTest::keyClick(&view().typed(), Qt::Key_Return);
    take("opening");
    take("disc");
    drag({22, 40}, {28, 40}, "22");
    take("tab");
    click(0, 40);
    glue(65, 40, "card/page-b", "50, 35", true);
    glue(5, 40, "s1/panel-2-back", "45, 40", true);
    isTheDemo("two-sheet-ridge");
  }
  void anOpeningFromADrawingLiesAcrossThreeFolds() {
    beginOnSheet("size 280 x 120; score 70 v, 140 m, 210 v", 70, "Bridge of arches");
    m_window->bringIn(QStringLiteral(HINGE_SOURCE_DIR "/demo/drawings/bridge-arches.svg"));
    auto* dialog = m_window->findChild<BringInDialog*>();
    QVERIFY(dialog);
    dialog->becomes().setCurrentIndex(2);
    dialog->take().click();
    QCOMPARE(work().windows.size(), std::size_t(1));
    // It lies in the middle of the sheet; its maker wants it six higher.
    take("hold");
    click(100, 62);
    QVERIFY(hand().chosen().what == Grip::What::Opening);
    for (int k = 0; k < 12; ++k)
      QTest::keyClick(&view(), Qt::Key_Up, Qt::ControlModifier);
    isTheDemo("bridge-of-arches");
  }
  void aSailIsTracedFromAScan() {
    begin(130, 150, 110, "Sail to raise");
    m_window->bringIn(QStringLiteral(HINGE_SOURCE_DIR "/demo/drawings/sail-template.png"));
    QVERIFY(view().tracing().wantsPoints());
    QVERIFY(document().selection().has_value()); // a sheet to trace on
    // Where things are on the scan, in its pixels: the crosses, then the corners of the sail.
    const auto onScan = [&](double x, double y) {
      const QPointF flat = view().tracing().toSheet().map(QPointF(x, y));
      return view().toScreen({flat.x(), flat.y()}).toPoint();
    };
    type("size 170 x 190"); // large enough to see all of the scan
    QTest::mouseClick(&view(), Qt::LeftButton, {}, onScan(68.25, 637.74));
    QTest::mouseClick(&view(), Qt::LeftButton, {}, onScan(540.24, 617.13));
    QVERIFY(view().tracing().wantsDistance() && view().typed().isVisible());
    QTest::keyClicks(&view().typed(), QStringLiteral("100"));
    QTest::keyClick(&view().typed(), Qt::Key_Return);
    QVERIFY(!view().tracing().wantsDistance());
    const auto level = view().tracing().points();
    QVERIFY(std::abs(level[1].y() - level[0].y()) < 1e-9);
    take("trace");
    const std::vector<QPointF> corners{{112.98, 579.04}, {471.69, 563.38}, {494.24, 429.99},
                                       {430.18, 262.54}, {291.43, 117.27}, {192.13, 225.65},
                                       {133.47, 398.45}};
    for (const QPointF& p : corners)
      QTest::mouseClick(&view(), Qt::LeftButton, {}, onScan(p.x(), p.y()));
    QTest::keyClick(&view(), Qt::Key_Return);
    QCOMPARE(work().outline.size(), corners.size());
    // Traced within what a hand sees: the template is 76 wide at its foot and 96 high.
    const Box2 box = boundsOf(work().outline);
    QVERIFY2(std::abs(box.size().y() - 96) < 1.5, qPrintable(QString::number(box.size().y())));
    QVERIFY(std::abs(box.size().x() - 82) < 1.5);
    QTest::keyClick(&view(), Qt::Key_U); // the scan is taken away
    QVERIFY(!view().tracing().shown());
    // Its foot gets a tab, on which it stands.
    take("tab");
    const Vec2 foot = 0.5 * (work().outline[0] + work().outline[1]) - box.low;
    click(foot.x(), foot.y());
    QCOMPARE(work().lines.size(), std::size_t(1));
    const double middle = 0.5 * boundsOf(work().outline).size().x();
    type("fold 40,10 lifted from 180 to 70");
    glue(middle, 5, "card/page-b", "20, 72", false, true);
    settle();
    QVERIFY(m_window->analyst().current()->verdict != Verdict::Spoiled);
    // What was traced is the sail of the demo within a millimetre, with the same fold and joint.
    const auto demo = loadDesign(HINGE_SOURCE_DIR "/demo/sail-to-raise.hinge");
    QVERIFY(demo.ok());
    const PieceWork traced = work(), wanted = *demo->structures.front().work;
    QCOMPARE(traced.outline.size(), wanted.outline.size());
    const Vec2 from = boundsOf(traced.outline).low, there = boundsOf(wanted.outline).low;
    for (std::size_t k = 0; k < wanted.outline.size(); ++k)
      QVERIFY((traced.outline[k] - from - wanted.outline[k] + there).norm() < 1);
    QVERIFY(traced.lines[0].moves == wanted.lines[0].moves);
    QVERIFY(traced.joints[0].on == wanted.joints[0].on);
    QVERIFY((traced.joints[0].to - wanted.joints[0].to).norm() < 1);
  }
};

QTEST_MAIN(TestMakings)
#include "test_makings.moc"
