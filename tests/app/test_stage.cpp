// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/size_nudge.h"
#include "app/stage_scene.h"
#include "app/standing_tree.h"
#include "support.h"
#include <QSignalSpy>

using namespace hinge;
using namespace hinge::test;

// What makes up the stage, part by part, without a window around it.

namespace {

struct Shown {
  std::shared_ptr<const Snapshot> snapshot;
  StageScene scene;

  explicit Shown(const Design& design, double opening_deg = 110)
      : snapshot(std::make_shared<const Snapshot>(design)) {
    if (!scene.show(snapshot)) qFatal("does not assemble");
    scene.setArea(QRectF(0, 0, 800, 600));
    scene.open(radians(opening_deg), nullptr);
    paint();
  }
  void paint() {
    QImage image(800, 600, QImage::Format_RGB32);
    QPainter painter(&image);
    StageStyle style;
    scene.setDrawn(
        paintStage(painter, image.rect(), *scene.assembly(), scene.pose(), scene.camera(), style));
  }
  PanelIndex panel(const char* key) const { return scene.assembly()->findPanel(key); }
};

QPointF on(const StageScene& scene, PanelIndex panel, const Vec2& flat) {
  return scene.onScreen(panel, flat).value_or(QPointF(-1e6, -1e6));
}

double between(const QPointF& a, const QPointF& b) {
  return QLineF(a, b).length();
}

} // namespace

class TestStage : public QObject {
  Q_OBJECT
private slots:
  // --- the scene -----------------------------------------------------------------------------
  void theSameSnapshotIsShownOnce() {
    Shown shown(demo("night-market"));
    QVERIFY(!shown.scene.show(shown.snapshot));
    QVERIFY(shown.scene.show(std::make_shared<const Snapshot>(demo("tower"))));
    QCOMPARE(shown.scene.shown()->design().title, demo("tower").title);
  }
  void pointsOfAPanelLieInItsOutline() {
    const Shown shown(demo("night-market"));
    for (PanelIndex p : shown.scene.assembly()->panels.indices()) {
      const Panel& panel = shown.scene.assembly()->panels[p];
      const QPolygonF outline = shown.scene.outlineOf(p);
      QCOMPARE(outline.size(), static_cast<qsizetype>(panel.outline.rim.size()));
      const QPointF middle = shown.scene.middleOf(p);
      QVERIFY2(outline.boundingRect().adjusted(-1, -1, 1, 1).contains(middle), panel.key.c_str());
      QVERIFY(between(middle, on(shown.scene, p, centroidOf(panel.outline))) < 1e-9);
    }
  }
  void whatIsInFrontIsPointedAt() {
    const Shown shown(demo("night-market"));
    const QPointF page = on(shown.scene, shown.panel("card/page-b"), {120, 20});
    QCOMPARE(shown.scene.panelAt(page), shown.panel("card/page-b"));
    QVERIFY(!shown.scene.panelAt({-50, -50}).valid());
    QVERIFY(!shown.scene.faceAt({-50, -50}).valid());
    const SeatIndex face = shown.scene.faceAt(page);
    QVERIFY(face.valid());
    const Seat& seat = shown.scene.assembly()->seats[face];
    QVERIFY(seat.kind() == SeatKind::Face);
    QCOMPARE(seat.sides[0].panel, shown.panel("card/page-b"));
  }
  void theSideThatIsSeenIsTheFace() {
    // The same page from the front and, with the eye gone half round the card, from behind.
    Shown shown(card(), 90);
    const PanelIndex page = shown.panel("card/page-a");
    const SeatIndex front = shown.scene.faceAt(shown.scene.middleOf(page));
    QVERIFY(front.valid());
    shown.scene.orbit(kPi, 0);
    shown.paint();
    const SeatIndex back = shown.scene.faceAt(shown.scene.middleOf(page));
    QVERIFY(back.valid() && back != front);
    QCOMPARE(shown.scene.assembly()->seats[back].sides[0].panel, page);
  }
  void aPickedPointIsTheOneUnderThePointer() {
    const Shown shown(demo("night-market"));
    const PanelIndex page = shown.panel("card/page-b");
    for (const Vec2& flat : {Vec2(120, 20), Vec2(118.5, 33), Vec2(100, 12.5)}) {
      const auto picked = shown.scene.pickedAt(on(shown.scene, page, flat), 0.5);
      QVERIFY(picked);
      QCOMPARE(picked->panel, page);
      QVERIFY((picked->onPiece - flat).norm() < 1e-9);
      // The same point, said on the face.
      const Seat& face = *shown.scene.assembly()->findSeat(picked->face);
      const Vec3 there = face.sides[0].toPiece.inverse() * lift(flat);
      QVERIFY((picked->onFace - there.head<2>()).norm() < 0.5);
    }
    QVERIFY(!shown.scene.pickedAt({-50, -50}, 0.5));
    // On a coarser lattice it goes to the nearest point of that.
    const auto coarse = shown.scene.pickedAt(on(shown.scene, page, {118.5, 33}), 10);
    QVERIFY((coarse->onPiece - Vec2(120, 30)).norm() < 1e-9);
  }
  void beadsAreNearerThanFaces() {
    const Shown shown(demo("night-market"));
    const Seat& ridge = *shown.scene.assembly()->findSeat("s2/ridge");
    const QPointF bead = shown.scene.beadOf(ridge);
    const SeatIndex at = shown.scene.seatAt(bead + QPointF(3, 2));
    QCOMPARE(shown.scene.assembly()->seats[at].key, std::string("s2/ridge"));
    const QPointF page = on(shown.scene, shown.panel("card/page-b"), {125, 10});
    QVERIFY(shown.scene.assembly()->seats[shown.scene.seatAt(page)].kind() == SeatKind::Face);
    // A span has its bead between its two pages.
    const Shown gate(demo("gate-to-the-market"), 60);
    for (const Seat& seat : gate.scene.assembly()->seats)
      if (seat.kind() == SeatKind::Span)
        QVERIFY(between(gate.scene.beadOf(seat), 0.5 * (gate.scene.middleOf(seat.sides[0].panel) +
                                                        gate.scene.middleOf(seat.sides[1].panel))) <
                1e-9);
  }
  void badgesStandOnWhatTheyAreAbout() {
    const Shown shown(demo("night-market-mistakes"));
    const auto findings = checked(demo("night-market-mistakes")).findings;
    QVERIFY(findings.size() > 1);
    int placed = 0;
    for (std::size_t k = 0; k < findings.size(); ++k) {
      const auto place = shown.scene.badgeOf(findings[k]);
      if (!place) continue;
      ++placed;
      const int found = shown.scene.badgeAt(*place, findings);
      QVERIFY(found >= 0 && found <= static_cast<int>(k)); // the first of those that share a place
      QVERIFY(between(*shown.scene.badgeOf(findings[static_cast<std::size_t>(found)]), *place) <
              12);
    }
    QVERIFY(placed > 1);
    QCOMPARE(shown.scene.badgeAt({-50, -50}, findings), -1);
    Finding nowhere;
    nowhere.elements = {"s99/wall-a"};
    QVERIFY(!shown.scene.badgeOf(nowhere));
    Finding owner;
    owner.elements = {"s2"}; // a structure: on the first of its walls
    QVERIFY(shown.scene.badgeOf(owner));
  }
  void zoomingIsBoundedAndLookingStraightUndoesAll() {
    Shown shown(demo("tower"));
    const Camera straight = shown.scene.camera();
    shown.scene.zoom(1e6);
    QVERIFY_NEAR(shown.scene.camera().scale_px, 5 * straight.scale_px, 1e-9);
    shown.scene.zoom(1e-9);
    QVERIFY_NEAR(shown.scene.camera().scale_px, 0.5 * straight.scale_px, 1e-9);
    shown.scene.orbit(0.4, 9);
    QVERIFY_NEAR(shown.scene.camera().turn_rad, straight.turn_rad + 0.4, 1e-12);
    QVERIFY_NEAR(shown.scene.camera().height_rad, 1.5, 1e-12); // not over the top
    shown.scene.lookStraight();
    QCOMPARE(shown.scene.camera().turn_rad, straight.turn_rad);
    QCOMPARE(shown.scene.camera().height_rad, straight.height_rad);
    QCOMPARE(shown.scene.camera().scale_px, straight.scale_px);
  }
  void theTracedMotionIsShownWhenItIsThatOfTheCard() {
    Shown shown(demo("pop-up-lantern"));
    const auto analysis = analyse(shown.snapshot->design());
    QVERIFY(analysis.ok());
    // Of another snapshot: solved directly, near what is known.
    shown.scene.open(radians(100), analysis->motion.get());
    const Pose direct = shown.scene.pose();
    const auto same = std::make_shared<const Snapshot>(shown.snapshot->design());
    const auto own = analyse(same);
    QVERIFY(own.ok());
    QVERIFY(shown.scene.show(same));
    shown.scene.open(radians(100), nullptr);
    const PanelIndex p = shown.panel("s1/panel-3");
    QVERIFY((direct.panels[p].matrix() - shown.scene.pose().panels[p].matrix()).norm() < 1e-5);
    QVERIFY((own->motion->poseAt(radians(100)).panels[p].matrix() -
             shown.scene.pose().panels[p].matrix())
                .norm() == 0);
  }

  // --- arrow keys ----------------------------------------------------------------------------
  void arrowsMoveAndWithCtrlChangeTheChosenSize() {
    Document document;
    document.start(demo("night-market"));
    SizeNudge nudge(&document, nullptr);
    const auto press = [&](Qt::Key key, Qt::KeyboardModifiers modifiers = {}) {
      return nudge.take(QKeyEvent(QEvent::KeyPress, key, modifiers));
    };
    const auto value = [&](const char* key) {
      return document.committed().find(StructureId{2})->values.at(key);
    };
    QVERIFY(!press(Qt::Key_Up)); // nothing is selected
    document.select(StructureId{2});
    const double at = value("position"), length = value("length");
    QVERIFY(press(Qt::Key_Up));
    QVERIFY_NEAR(value("position"), at + 0.5, 1e-9);
    QVERIFY(press(Qt::Key_Down, Qt::ShiftModifier));
    QVERIFY_NEAR(value("position"), at - 4.5, 1e-9);
    QVERIFY(press(Qt::Key_Up, Qt::ControlModifier));
    QVERIFY_NEAR(value("length"), length + 0.5, 1e-9);
    QCOMPARE(document.undoStack().count(), 3);
    // Another size, and back to the first; the place and switches are no sizes of these keys.
    QSignalSpy chosen(&nudge, &SizeNudge::chosen);
    const StructureItem item = *document.committed().find(StructureId{2});
    std::set<std::string> seen;
    for (int k = 0; k < 12; ++k) {
      seen.insert(std::string(nudge.sizeOf(item)->key));
      QVERIFY(press(Qt::Key_Right, Qt::ControlModifier));
    }
    QVERIFY((seen == std::set<std::string>{"length", "a", "b", "c", "d", "tab"}));
    QCOMPARE(chosen.count(), 12);
    QCOMPARE(std::string(nudge.sizeOf(item)->key), std::string("length"));
    QVERIFY(press(Qt::Key_Left, Qt::ControlModifier));
    QCOMPARE(std::string(nudge.sizeOf(item)->key), std::string("tab"));
    QVERIFY(!press(Qt::Key_Left) && !press(Qt::Key_A));
  }
  void whatCannotBeIsRefusedInWords() {
    Document document;
    Design d = card();
    add(d, "step", "gutter");
    document.start(d);
    document.select(StructureId{1});
    SizeNudge nudge(&document, nullptr);
    QSignalSpy refused(&nudge, &SizeNudge::refused);
    for (int k = 0; k < 60 && refused.isEmpty(); ++k)
      QVERIFY(nudge.take(QKeyEvent(QEvent::KeyPress, Qt::Key_Up, Qt::ShiftModifier)));
    QCOMPARE(refused.count(), 1); // past the end of its fold
    QVERIFY(!refused.front().front().toString().isEmpty());
  }

  // --- what stands on what -------------------------------------------------------------------
  void theTreeFollowsTheCardAndSelects() {
    Document document;
    document.start(demo("night-market"));
    StandingTree tree(&document, nullptr);
    const auto texts = [&] {
      QStringList all;
      for (QTreeWidgetItemIterator it(&tree); *it; ++it)
        all << (*it)->text(0);
      return all;
    };
    QCOMPARE(texts().size(), 1 + static_cast<qsizetype>(document.design().structures.size()));
    QCOMPARE(tree.currentItem()->text(0), QStringLiteral("Card"));
    document.select(StructureId{2});
    QCOMPARE(tree.currentItem()->text(0), QStringLiteral("Fruit stall"));
    tree.setCurrentItem(tree.topLevelItem(0));
    QVERIFY(!document.selection());
    // What stands on a structure stands below it in the tree.
    for (QTreeWidgetItemIterator it(&tree); *it; ++it) {
      const auto id = structureIdFromText((*it)->data(0, Qt::UserRole).toString().toStdString());
      if (!id) continue;
      const auto owner = ownerOfKey(document.design().find(*id)->seat);
      const auto above =
          structureIdFromText((*it)->parent()->data(0, Qt::UserRole).toString().toStdString());
      QVERIFY(owner == above);
    }
    QVERIFY(document.apply(*removeStructure(document.design(), StructureId{2}), QString()).ok());
    QVERIFY(!texts().contains(QStringLiteral("Fruit stall")));
    tree.layOut(60);
    QVERIFY(tree.height() <= 60);
  }
};

QTEST_MAIN(TestStage)
#include "test_stage.moc"
