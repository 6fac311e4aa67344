// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/bases/base.h"
#include "core/io/design_json.h"
#include "core/states/stand.h"
#endif

using namespace hinge;
using namespace hinge::test;

// Bases with several folds: their travel, what they look like shut and open, and structures on each
// of their folds.

class TestBases : public QObject {
  Q_OBJECT
  static Design on(const char* base, const ParameterValues& given = {}) {
    Design d = card(120, 160);
    const auto changed = onBase(d.card, base);
    if (!changed) qFatal("%s", say(changed.error()).c_str());
    d.card = *changed;
    for (const auto& [key, value] : given)
      d.card.values[key] = value;
    return d;
  }
  static Vec3 normal(const Motion& motion, double deg, const char* panel) {
    return motion.poseAt(radians(deg)).panels[motion.assembly().findPanel(panel)].linear().col(2);
  }
  static Vec3 at(const Motion& motion, double deg, const char* panel, const Vec2& flat) {
    return worldPoint(motion, motion.poseAt(radians(deg)), panel, flat);
  }

private slots:
  void everyBaseOpensShutsAndIsGood_data() {
    QTest::addColumn<QString>("base");
    for (const BaseKind* base : baseKinds())
      QTest::newRow(base->key.data()) << QString::fromUtf8(base->key.data());
  }
  void everyBaseOpensShutsAndIsGood() {
    QFETCH(QString, base);
    const Design d = on(base.toUtf8().constData());
    const Analysis analysis = checked(d);
    QVERIFY2(analysis.findings.empty(),
             analysis.findings.empty() ? "" : describe(analysis.findings.front(), d).c_str());
    QCOMPARE(analysis.motion->mobility(), 0);
    // Shut, no page lies outside of the finished size.
    const Pose shut = analysis.motion->shutPose();
    Box2 box;
    const Iso3 toRoot = shut.panels[analysis.motion->assembly().root].inverse();
    for (PanelIndex p : analysis.motion->assembly().panels.indices())
      for (const Vec2& c : analysis.motion->assembly().panels[p].outline.rim) {
        const Vec3 q = toRoot * (shut.panels[p] * lift(c));
        QVERIFY_NEAR(q.z(), 0, 1e-9);
        box.add(q.head<2>());
      }
    QVERIFY_NEAR(box.size().x(), 120, 1e-9);
    QVERIFY_NEAR(box.size().y(), 160, 1e-9);
  }
  void everyBaseSurvivesItsFile_data() { everyBaseOpensShutsAndIsGood_data(); }
  void everyBaseSurvivesItsFile() {
    QFETCH(QString, base);
    Design d = on(base.toUtf8().constData());
    if (!d.card.values.empty()) d.card.values.rbegin()->second += 1;
    const auto back = designFromJson(designToJson(d));
    QVERIFY(back.ok());
    QVERIFY(back->card == d.card);
  }
  void aConcertinaFoldsToAndFro() {
    const Motion motion = Motion::trace(assemble(on("concertina", {{"leaves", 5}})));
    for (double deg : {30.0, 90.0, 150.0})
      for (const char* leaf : {"card/page-a", "card/page-c"})
        QVERIFY_NEAR((normal(motion, deg, leaf) - normal(motion, deg, "card/page-e")).norm(), 0,
                     1e-9); // every second one is parallel
    QVERIFY_NEAR(normal(motion, 90, "card/page-d").dot(normal(motion, 90, "card/page-e")), 0, 1e-9);
    // Open flat, five leaves of 120 lie side by side.
    QVERIFY_NEAR(at(motion, 180, "card/page-a", {-480, 0}).x(), -480, 1e-9);
  }
  void aFoldOpensAsFarAsItsTravel() {
    const Motion motion = Motion::trace(assemble(on("foot", {{"open", 105}})));
    QVERIFY_NEAR(normal(motion, 180, "card/page-a").dot(normal(motion, 180, "card/page-b")),
                 std::cos(radians(75)), 1e-9);
    QVERIFY_NEAR(normal(motion, 90, "card/page-a").dot(normal(motion, 90, "card/page-b")),
                 std::cos(radians(180 - 52.5)), 1e-9);
  }
  void petalsStayInsideTheWedgeOfTheirSide() {
    // Of four petals 50 long on a page of 120 x 160: seen from the middle, a side of 160 is 60
    // away, one of 120 is 80 away.
    const auto hasEdge = [](const Panel& panel, double length_mm) {
      return std::ranges::any_of(edgesOf(panel.outline.rim), [&](const Edge& edge) {
        return std::abs((edge.second - edge.first).norm() - length_mm) < 1e-9;
      });
    };
    for (double tip : {1000.0, 20.0}) { // as wide as can be, and narrower than that
      int ofLong = 0, ofShort = 0;
      const auto assembly = assemble(on("petals", {{"petal", 50}, {"tip", tip}}));
      for (const Panel& panel : assembly->panels) {
        if (panel.key == "card/page-b") continue;
        const bool isLong = hasEdge(panel, 160);
        (isLong ? ofLong : ofShort)++;
        QVERIFY(isLong || hasEdge(panel, 120));
        QVERIFY(hasEdge(panel, std::min(tip, isLong ? 160 * (60 - 50) / 60.0 : 120 * 30 / 80.0)));
      }
      QCOMPARE(ofLong, 2);
      QCOMPARE(ofShort, 2);
    }
  }
  void theLettersCoverOpensBeforeItsInnerFlap() {
    const Motion motion = Motion::trace(assemble(on("tri-fold", {{"first", 80}})));
    QVERIFY_NEAR((normal(motion, 80, "card/page-a") - normal(motion, 80, "card/page-b")).norm(), 0,
                 1e-9); // cover open
    QVERIFY_NEAR((normal(motion, 80, "card/page-c") + normal(motion, 80, "card/page-b")).norm(), 0,
                 1e-9); // flap still shut
    QVERIFY_NEAR((normal(motion, 180, "card/page-c") - normal(motion, 180, "card/page-b")).norm(),
                 0, 1e-9);
  }
  void theEaselsFrontStandsOnItsStop() {
    const Motion motion = Motion::trace(assemble(on("easel", {{"strut", 55}, {"stop", 90}})));
    const Vec3 foot = at(motion, 180, "card/page-a2", {-120, 0});
    QVERIFY_NEAR(foot.x(), 90, 1e-9);
    QVERIFY_NEAR(foot.z(), 0, 1e-9);
    const Vec3 ridge = at(motion, 180, "card/page-a", {-55, 0});
    QVERIFY_NEAR((foot - ridge).norm(), 65, 1e-9);
    QVERIFY(ridge.z() > 20);
    QVERIFY(!assembleDesign(on("easel", {{"stop", 119.9}})));
  }
  void impossibleBasesAreRefusedWithTheirPlace() {
    const auto wide = assembleDesign(on("gate", {{"left", 80}}));
    QVERIFY(!wide && wide.error().code() == "base.flaps-meet");
    const auto many = assembleDesign(on("concertina", {{"leaves", 40}}));
    QVERIFY(!many && many.error().place.find("leaves") != std::string::npos);
    QVERIFY(!onBase(CardBase{}, "parcel"));
    const auto broken = designFromJson(
        R"({"format":"hinge-lantern","version":1,"card":{"base":"gate","width_mm":100,)"
        R"("height_mm":100,"base_values":{"left":"wide"}},"structures":[]})");
    QVERIFY(!broken && broken.error().place.find("base_values.left") != std::string::npos);
  }
  void structuresStandOnEveryFoldOfAConcertina() {
    // The second fold is a mountain on the face: it carries a valley's structures on its back.
    Design d = on("concertina");
    for (const char* seat : {"gutter", "fold-1-back"}) {
      const StructureId id =
          add(d, "box", seat,
              {{"position", 30}, {"length", 40}, {"a", 30}, {"b", 30}, {"c", 30}, {"d", 30}});
      QVERIFY(d.find(id));
    }
    const Analysis analysis = checked(d);
    QVERIFY2(analysis.findings.empty(),
             analysis.findings.empty() ? "" : describe(analysis.findings.front(), d).c_str());
    // A parallel fold with equal sides at 90 degrees is a square: its walls are parallel to the
    // leaves.
    QVERIFY_NEAR(std::abs(normal(*analysis.motion, 90, "s1/wall-a")
                              .dot(normal(*analysis.motion, 90, "card/page-c"))),
                 1, 1e-9);
    QVERIFY_NEAR(std::abs(normal(*analysis.motion, 90, "s2/wall-a")
                              .dot(normal(*analysis.motion, 90, "card/page-a"))),
                 1, 1e-9);
  }
  void aStepIsCutFromTheFoldOfAGate() {
    Design d = on("gate");
    add(d, "step", "fold-2", {{"position", 40}, {"length", 60}, {"a", 25}, {"b", 25}});
    QVERIFY(checked(d).findings.empty());
  }
  void aStripBridgesTheFlapsOfAGate() {
    Design d = on("gate", {{"open", 90}, {"left", 58}, {"right", 58}});
    const StructureId id = add(d, "strip", "page-a+page-c");
    const Analysis analysis = checked(d);
    QVERIFY2(analysis.findings.empty(),
             analysis.findings.empty() ? "" : describe(analysis.findings.front(), d).c_str());
    QCOMPARE(analysis.motion->mobility(), 0);
    const ParameterValues& v = d.find(id)->values;
    // Shut, the feet are the page's width less both feet apart; the panels lie back on one another
    // by that much.
    QVERIFY_NEAR(v.at("w1") - v.at("w2"), 120 - v.at("a") - v.at("b"), 1e-9);
    for (double deg : {20.0, 90.0, 170.0}) {
      // Triangle of the two feet and the score: all widths as cut, the feet where the flaps carry
      // them.
      const Pose pose = analysis.motion->poseAt(radians(deg));
      const double flap = radians(180 - 0.5 * deg); // how far each flap is still folded over
      const Vec3 left(-v.at("a") * std::cos(flap), v.at("position"), v.at("a") * std::sin(flap)),
          right(120 + v.at("b") * std::cos(flap), v.at("position"), v.at("b") * std::sin(flap));
      const Vec3 footA = worldPoint(*analysis.motion, pose, "s1/panel-1", {0, 0}),
                 footB =
                     worldPoint(*analysis.motion, pose, "s1/panel-2", {v.at("w1") + v.at("w2"), 0});
      QVERIFY_NEAR((footA - left).norm(), 0, 1e-6);
      QVERIFY_NEAR((footB - right).norm(), 0, 1e-6);
      QVERIFY_NEAR((worldPoint(*analysis.motion, pose, "s1/panel-1", {v.at("w1"), 0}) -
                    worldPoint(*analysis.motion, pose, "s1/panel-2", {v.at("w1"), 0}))
                       .norm(),
                   0, 1e-6);
    }
  }
  void aStripOutOfStepStandsOffByItsMisfit() {
    Design d = on("gate", {{"open", 90}, {"left", 58}, {"right", 58}});
    const StructureId id = add(d, "strip", "page-a+page-c");
    const Analysis analysis = checked(*setValues(d, id, {{"w1", d.find(id)->values.at("w1") + 3}}));
    const Finding* f = findCode(analysis, "shut-flat");
    QVERIFY(f);
    QVERIFY_NEAR(f->amount, 3, 1e-6);
    // Too short, it goes taut before the flaps stand.
    const Analysis taut = checked(*setValues(
        d, id, {{"w1", d.find(id)->values.at("w1") - 4}, {"w2", d.find(id)->values.at("w2") - 4}}));
    QVERIFY(findCode(taut, "taut"));
  }
  void aStripThatSwingsBehindItsPageIsFound() {
    // Both feet high up: shut, the short panel would lie on the far side of the flap it is glued
    // to. As planes the two meet only in the glue line, where no contact is seen.
    Design d = on("gate", {{"open", 90}, {"left", 58}, {"right", 58}});
    add(d, "strip", "page-a+page-c", {{"a", 36}, {"b", 46}, {"w1", 80}, {"w2", 42}, {"bulge", 0}});
    const Analysis analysis = checked(d);
    const Finding* f = findCode(analysis, "behind-glue");
    QVERIFY(f);
    QVERIFY(f->amount > 45); // degrees
    QCOMPARE(f->elements.front(), std::string("s1/panel-2"));
    QCOMPARE(f->elements.back(), std::string("card/page-c"));
  }
  void aStripOfThreePanelsIsLoose() {
    Design d = on("gate", {{"open", 90}, {"left", 58}, {"right", 58}});
    const StructureId id = add(d, "strip", "page-a+page-c");
    const double w1 = d.find(id)->values.at("w1"), w2 = d.find(id)->values.at("w2");
    const Analysis analysis =
        checked(*setValues(d, id, {{"panels", 3}, {"w1", w1 / 2}, {"w2", w1 / 2}, {"w3", w2}}));
    QCOMPARE(analysis.motion->mobility(), 1);
    QVERIFY(findCode(analysis, "floppy"));
    QVERIFY(!findCode(analysis, "shut-flat"));
  }
  void onlyPagesThatFaceEachOtherOfferASpan() {
    const auto spans = [](const Design& d) {
      int count = 0;
      const auto assembly = assemble(d); // kept while its seats are looked at
      for (const Seat& seat : assembly->seats)
        count += seat.kind() == SeatKind::Span;
      return count;
    };
    QCOMPARE(spans(on("gate")), 1);
    QCOMPARE(spans(on("foot")), 0);
    QCOMPARE(spans(on("concertina")), 0); // the middle leaf is in the way
  }
  void aConcertinaStandsOnItsEdges() {
    const Design d = on("concertina");
    const Motion motion = Motion::trace(assemble(d));
    const Stand stand = standOf(motion, d);
    QVERIFY(stand.reached);
    // A zigzag of three leaves of 120 x 160 at right angles: the centre is 80 high over a foot some
    // 40 deep at the least.
    QVERIFY(degrees(stand.leastTip_rad) > 10 && degrees(stand.leastTip_rad) < 60);
  }
  void everyFoldOfASleeveIsASeat() {
    Design d = card(90, 140);
    d.card = *onBase(d.card, "sleeve");
    const auto assembly = assemble(d);
    for (const auto& [key, kind] : {std::pair{"gutter", SeatKind::Valley},
                                    {"fold-2", SeatKind::Crease},
                                    {"fold-3", SeatKind::Valley},
                                    {"fold-4", SeatKind::Crease}})
      for (const char* side : {"", "-back"}) {
        const Seat* seat = assembly->findSeat(std::string(key) + side);
        QVERIFY2(seat, key);
        const bool back = *side != 0;
        QVERIFY(seat->kind() == (kind == SeatKind::Valley && back ? SeatKind::Ridge : kind));
        QVERIFY_NEAR(seat->length_mm, 140.0, 1e-9);
      }
    // The last one is between the panel that the tab closes and the one it is glued to: their edges
    // meet at every opening.
    const Motion motion = Motion::trace(assembly);
    const Seat& last = *assembly->findSeat("fold-4");
    for (double t : {0.5, 1.5, 2.5}) {
      const Pose pose = motion.poseAt(t);
      const auto at = [&](std::size_t side, double y) {
        return Vec3(pose.panels[last.sides[side].panel] *
                    (last.sides[side].toPiece * Vec3(0, y, 0)));
      };
      QVERIFY_NEAR((at(0, 0) - at(1, 0)).norm(), 0.0, 1e-9);
      QVERIFY_NEAR((at(0, 140) - at(1, 140)).norm(), 0.0, 1e-9);
    }
  }
};

QTEST_GUILESS_MAIN(TestBases)
#include "test_bases.moc"
