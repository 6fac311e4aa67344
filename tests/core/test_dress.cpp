// SPDX-License-Identifier: GPL-3.0-or-later
#include "strips.h"
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/dress/mats.h"
#include "core/dress/seen.h"
#include "core/edits/arrange.h"
#include "core/edits/dressing.h"
#include "core/geom/border.h"
#include "core/geom/congruent.h"
#include "core/paper/topper_shape.h"
#include "core/states/lying.h"
#include "core/states/stand.h"
#include "core/structures/toppers.h"
#include <random>
#endif

using namespace hinge;
using namespace hinge::test;

// What the card wears: borders, what is seen, hands, toppers, and what all that does to the card.

namespace {

/// A stepped outline with a corner that stands in, one slanted edge, and a hole.
Region steppedFrame() {
  return Region({{0, 0}, {80, 0}, {80, 30}, {50, 30}, {50, 60}, {10, 60}, {0, 40}},
                {{{20, 15}, {20, 25}, {35, 25}, {35, 15}}});
}

DressRule rule(DressReach reach, const char* face, std::vector<Layer> layers,
               AtGlue how = AtGlue::Under) {
  return {reach, face, how, std::move(layers)};
}
Layer layer(const char* paper, std::vector<double> border = {}) {
  Layer made;
  made.paper = paper, made.border_mm = std::move(border);
  return made;
}

Design dressed(Design design, const std::vector<DressRule>& rules) {
  for (const DressRule& one : rules) {
    const auto next = withRule(design, one);
    if (!next) qFatal("%s", say(next.error()).c_str());
    design = *next;
  }
  return design;
}

const DressedFace* wears(const Snapshot& snapshot, const char* face) {
  const FaceIndex index = snapshot.faces()->find(face);
  for (const DressedFace& one : *snapshot.dressed())
    if (one.face == index) return &one;
  return nullptr;
}

/// A plain line of sight against every panel, as the pictures of seen.cpp must count it.
double shareByRays(const Motion& motion, const CardBase& card, const Face& face, double opening) {
  const Assembly& assembly = motion.assembly();
  const Pose pose = motion.poseAt(opening);
  const Iso3 table = onTable(card, assembly, opening);
  Lying lying(assembly, pose);
  const auto place = [&](PanelIndex p) {
    Iso3 at = pose.panels[p];
    at.pretranslate(lying.off_mm(p));
    return Iso3(table * at);
  };
  std::mt19937 random(7);
  const Box2 box = boundsOf(assembly.panels[face.panel].outline);
  int seen = 0, all = 0;
  while (all < 400) {
    const Vec2 at =
        box.low + Vec2(random() / 4294967296.0, random() / 4294967296.0).cwiseProduct(box.size());
    if (!contains(assembly.panels[face.panel].outline, at)) continue;
    ++all;
    const Vec3 point = place(face.panel) * lift(at);
    const bool met = std::ranges::any_of(sightDirections(), [&](const Vec3& eye) {
      if (eye.z() < -0.05) return false;
      if ((face.back ? -1 : 1) * place(face.panel).linear().col(2).dot(eye) < 0.02) return false;
      for (PanelIndex p : assembly.panels.indices()) {
        if (p == face.panel || !pose.placed[p]) continue;
        const Iso3 there = place(p);
        const Vec3 normal = there.linear().col(2);
        const double along = normal.dot(eye);
        if (std::abs(along) < 0.02) continue;
        const double way = normal.dot(there.translation() - point) / along;
        if (way < 0.009) continue;
        const Vec3 hit = there.inverse() * (point + way * eye);
        if (contains(assembly.panels[p].outline, Vec2(hit.head<2>()))) return false;
      }
      return true;
    });
    if (met) ++seen;
  }
  return static_cast<double>(seen) / all;
}

} // namespace

class TestDress : public QObject {
  Q_OBJECT
private slots:
  // --- borders -------------------------------------------------------------------------------
  void everyCornerAndMiddleKeepsTheBorder() {
    for (const double border : {1.5, 3.0, 4.0}) {
      const Region frame = steppedFrame();
      const auto parts = withoutBorder(frame, [&](const Edge&) { return border; });
      QCOMPARE(parts.size(), std::size_t(1));
      QCOMPARE(parts.front().holes.size(), std::size_t(1));
      for (const Edge& edge : edgesOf(parts.front()))
        QVERIFY_NEAR(distanceToOutline(frame, 0.5 * (edge.first + edge.second)), border, 1e-4);
      for (const Vec2& corner : parts.front().rim)
        QVERIFY(distanceToOutline(frame, corner) > border - 1e-4);
    }
  }
  void bordersDifferBySide() {
    const Region tread({{0, 0}, {100, 0}, {100, 60}, {0, 60}});
    const auto byHand = [](const Edge& edge) {
      const double all[] = {2, 0, 5, 1}; // foot, right, top, left
      return all[sideOf(edge)];
    };
    const auto parts = withoutBorder(tread, byHand);
    QCOMPARE(parts.size(), std::size_t(1));
    const Box2 box = boundsOf(parts.front());
    QVERIFY_NEAR((box.low - Vec2(1, 2)).norm(), 0, 1e-5);
    QVERIFY_NEAR((box.high - Vec2(100, 55)).norm(), 0, 1e-5);
    // A slanted side keeps its border square to the edge, and a flush one stays where it is.
    const Region slanted({{0, 0}, {60, 0}, {60, 40}, {20, 40}});
    const auto cut =
        withoutBorder(slanted, [](const Edge& edge) { return sideOf(edge) == 3 ? 4.0 : 0.0; });
    QCOMPARE(cut.size(), std::size_t(1));
    for (const Edge& edge : edgesOf(cut.front()))
      if (sideOf(edge) == 3) {
        const Vec2 middle = 0.5 * (edge.first + edge.second);
        QVERIFY_NEAR(distanceToSegment(middle, {20, 40}, {0, 0}), 4, 1e-5);
      }
  }
  void unevenBordersMeetAtCornersThatStandIn() {
    const auto border = [](const Edge& edge) { return sideOf(edge) == 1 ? 2.0 : 5.0; };
    const auto parts = withoutBorder(steppedFrame(), border);
    QCOMPARE(parts.size(), std::size_t(1));
    for (const Edge& edge : edgesOf(parts.front())) {
      const Vec2 middle = 0.5 * (edge.first + edge.second);
      double margin = 1e9; // to the border of the nearest edge
      for (const Edge& paper : edgesOf(steppedFrame()))
        margin =
            std::min(margin, distanceToSegment(middle, paper.first, paper.second) - border(paper));
      QVERIFY_NEAR(margin, 0, 1e-4);
    }
  }
  void narrowNecksAreFound() {
    QVERIFY(!narrowPlace(Region({{0, 0}, {30, 0}, {30, 20}, {0, 20}}), 4));
    const Region bone({{0, 0},
                       {20, 0},
                       {20, 8.5},
                       {30, 8.5},
                       {30, 0},
                       {50, 0},
                       {50, 20},
                       {30, 20},
                       {30, 11.5},
                       {20, 11.5},
                       {20, 20},
                       {0, 20}});
    const auto neck = narrowPlace(bone, 4);
    QVERIFY(neck.has_value());
    QVERIFY((*neck - Vec2(25, 10)).norm() < 3);
    QVERIFY(!narrowPlace(bone, 2.9));
  }
  void theUsualBorderIsOnTheLatticeAndHalfOnNarrowPanels() {
    Settings settings;
    const Region wide({{0, 0}, {60, 0}, {60, 40}, {0, 40}}),
        narrow({{0, 0}, {60, 0}, {60, 20}, {0, 20}});
    QVERIFY_NEAR(usualBorder_mm(settings, wide), 3, 1e-9);
    QVERIFY_NEAR(usualBorder_mm(settings, narrow), 1.5, 1e-9);
    settings.unit = LengthUnit::Inch;
    QVERIFY_NEAR(usualBorder_mm(settings, wide), 25.4 / 8, 1e-9);
    QVERIFY_NEAR(usualBorder_mm(settings, narrow), 25.4 / 16, 1e-9);
  }

  // --- what is seen --------------------------------------------------------------------------
  void whatIsSeenAgreesWithPlainRays_data() {
    QTest::addColumn<QString>("name");
    for (const char* name : {"night-market", "pop-up-lantern", "house-fronts"})
      QTest::addRow("%s", name) << QString::fromLatin1(name);
  }
  void whatIsSeenAgreesWithPlainRays() {
    QFETCH(QString, name);
    const Snapshot snapshot(demo(name.toStdString()));
    const auto faces = snapshot.faces();
    const auto seen = snapshot.seen();
    const Motion& motion = *snapshot.motion();
    const CardBase& card = snapshot.design().card;
    double worst = 0;
    for (FaceIndex f : faces->indices()) {
      const double rays =
          shareByRays(motion, card, (*faces)[f], displayOpening_rad(card, motion.assembly()));
      worst = std::max(worst, std::abs(rays - (*seen)[static_cast<std::size_t>(f.value)].display));
    }
    // 400 and 500 points differ by chance alone by a few hundredths at their edges.
    QVERIFY2(worst < 0.05, qPrintable(QString::number(worst)));
  }
  void facesOnTheTableAndInsideAreNotSeen() {
    Design d = card();
    const StructureId box = add(d, "closed-box", "gutter");
    const Snapshot snapshot(d);
    const auto seenOf = [&](const std::string& key) {
      const FaceIndex face = snapshot.faces()->find(key);
      if (!face.valid()) qFatal("no face %s", key.c_str());
      return (*snapshot.seen())[static_cast<std::size_t>(face.value)];
    };
    QVERIFY(seenOf("card/page-a").display > 0.5);
    QVERIFY(seenOf("card/page-b-back").display < 0.02); // it lies on the table
    QVERIFY(seenOf("card/page-b-back").opening > 0.98); // and is the cover of the shut card
    // What a box shows of its inside on display is less than of its outside.
    QVERIFY(seenOf(box.text() + "/wall-a-back").display < seenOf(box.text() + "/wall-a").display ||
            seenOf(box.text() + "/wall-b-back").display < seenOf(box.text() + "/wall-b").display);
    // Chests that are closed all round keep some faces for themselves for good.
    const Snapshot chests(demo("tea-chests"));
    QVERIFY(std::ranges::count(*chests.seen(), SeenClass::Hidden, &FaceSeen::seenAs) >= 4);
  }

  // --- rules ---------------------------------------------------------------------------------
  /// A panel 40 mm deep that is glued down is looked at like any other; only a narrow tab is none.
  void whatIsGluedDownAndDeepIsDressedLikeAnyPanel() {
    for (const double deep : {40.0, 8.0}) {
      Design d = card(150, 150);
      PieceWork work = strip({deep, 50, 50, 8}, 40, std::vector(3, WorkLine::Kind::Mountain));
      work.joints = {onPage('a', d, {deep / 2, 20}, 60, 40 - deep / 2, true),
                     onPage('b', d, {deep + 104, 20}, 60, 36, true)};
      const auto added = addStructure(d, "piece", "gutter", {{"position", 0.0}}, work);
      QVERIFY(added);
      const Snapshot snapshot(
          dressed(added->design, {rule(DressReach::All, "", {layer("card-220", {3, 3, 3, 3})})}));
      const bool isFace = snapshot.faces()->find("s1/panel-1").valid();
      QCOMPARE(isFace, deep > 25);
      if (!isFace) continue;
      // One side takes the glue and wears nothing; the other wears its mat, 3 mm smaller all round.
      double area = 0;
      for (const char* side : {"s1/panel-1", "s1/panel-1-back"})
        if (const DressedFace* one = wears(snapshot, side))
          for (const CutLayer& cut : one->layers)
            for (const Region& part : cut.parts)
              area += area_mm2(part);
      QVERIFY_NEAR(area, 34.0 * 34.0, 1e-3);
    }
  }
  void laterRulesTakeThePlaceOfEarlierOnes() {
    Design d = card();
    add(d, "box", "gutter");
    d = dressed(d, {rule(DressReach::All, "", {layer("canal-blue"), layer("deck-planks")}),
                    rule(DressReach::Twins, "s1/wall-a", {layer("moss", {2})}),
                    rule(DressReach::Face, "card/page-a", {})});
    const Snapshot snapshot(d);
    QVERIFY(!wears(snapshot, "card/page-a"));
    QCOMPARE(wears(snapshot, "card/page-b")->layers.size(), std::size_t(2));
    for (const char* wall : {"s1/wall-a", "s1/wall-b"}) {
      QCOMPARE(wears(snapshot, wall)->layers.size(), std::size_t(1));
      QCOMPARE(wears(snapshot, wall)->layers.front().paper, std::string("moss"));
    }
    // It stays alive when sizes change.
    const double wide =
        boundsOf(wears(snapshot, "s1/wall-a")->layers.front().parts.front()).size().x();
    const auto longer =
        setValues(d, StructureId{1}, {{"length", d.structures[0].values.at("length") + 10}});
    QVERIFY(longer.ok());
    const Snapshot changed(*longer);
    QVERIFY_NEAR(boundsOf(wears(changed, "s1/wall-a")->layers.front().parts.front()).size().x(),
                 wide + 10, 1e-5);
    // The papers came into the drawer with it, and cannot go while something is made of them.
    QVERIFY(d.findPaper("moss") != nullptr);
    QVERIFY(!withoutPaper(d, "moss").ok());
    // What is removed is bare.
    const auto removed = removeStructure(d, StructureId{1});
    QVERIFY(removed.ok());
    QCOMPARE(removed->dressing.rules.size(), std::size_t(2));
  }
  void whatIsGluedOnIsLaidUnderOverOrAround() {
    Design d = card();
    add(d, "box", "gutter");
    const auto areaWith = [&](AtGlue how) {
      const Snapshot snapshot(
          dressed(d, {rule(DressReach::Face, "card/page-b", {layer("canal-blue", {3})}, how)}));
      double area = 0;
      for (const Region& part : wears(snapshot, "card/page-b")->layers.front().parts)
        area += area_mm2(part);
      return area;
    };
    const Snapshot bare(d);
    const auto on =
        gluedOnto(**bare.assembly(), (*bare.faces())[bare.faces()->find("card/page-b")]);
    QCOMPARE(on.size(), std::size_t(1));
    QVERIFY(on.front().stands.has_value());
    const double whole = 124 * 174, tab = area_mm2(on.front().area.front()),
                 foot = (on.front().stands->second - on.front().stands->first).norm();
    QVERIFY_NEAR(areaWith(AtGlue::Under), whole, 1e-3);
    // Over: a slot of a millimetre along the foot, half a millimetre longer at each end.
    QVERIFY_NEAR(areaWith(AtGlue::Over), whole - (foot + 2 * kBesideStanding_mm), 1e-3);
    // A topper lies on the layers, whatever is said of pieces that are glued on.
    const auto topped = withTopper(d, *freshTopper(d, "card/page-b", "disc", "moss"));
    QVERIFY(topped.ok());
    QCOMPARE(gluedOnto(assembleDesign(*topped).value(),
                       (*bare.faces())[bare.faces()->find("card/page-b")])
                 .size(),
             std::size_t(1));
    // Around: at least the tab and the border round it.
    QVERIFY(areaWith(AtGlue::Around) < whole - tab - 3 * foot);
  }

  // --- hands ---------------------------------------------------------------------------------
  void mirroredShapesAreCongruentByTurningOver() {
    const Region one({{0, 0}, {30, 0}, {30, 10}, {10, 10}, {10, 25}, {0, 25}});
    Region other = one;
    for (Vec2& corner : other.rim)
      corner = Vec2(5 - corner.x(), corner.y() + 3);
    std::ranges::reverse(other.rim);
    const auto ways = congruences(one, other);
    QVERIFY(!ways.empty());
    QVERIFY(std::ranges::all_of(ways, &Congruence::mirrored));
    for (std::size_t k = 0; k < one.rim.size(); ++k)
      QVERIFY(distanceToOutline(other, ways.front()(one.rim[k])) < 1e-9);
    QVERIFY(
        congruences(one, Region({{0, 0}, {30, 0}, {30, 10}, {10, 10}, {10, 24}, {0, 24}})).empty());
    // A square lies on itself in eight ways.
    const Region square({{0, 0}, {10, 0}, {10, 10}, {0, 10}});
    QCOMPARE(congruences(square, square).size(), std::size_t(8));
  }
  void printedPaperKnowsHandsAndPlainPaperDoesNot() {
    Design d = card();
    add(d, "vfold", "gutter");
    for (const auto& [paper, handed] : {std::pair("quay-bricks", true), std::pair("moss", false)}) {
      Layer one = layer(paper);
      one.turn = PatternTurn::AlongFold;
      const Snapshot snapshot(dressed(d, {rule(DressReach::Twins, "s1/panel-a", {one})}));
      const auto mats = matList(snapshot.design(), *snapshot.dressed());
      QCOMPARE(mats.size(), std::size_t(1));
      QCOMPARE(mats.front().count(), 2);
      QCOMPARE(mats.front().handed, handed);
      if (handed) QCOMPARE(mats.front().left(), 1);
    }
    // A rectangle is its own mirror image, whatever is printed on it.
    Layer planks = layer("deck-planks");
    planks.turn = PatternTurn::AlongFold;
    const Snapshot pages(dressed(d, {rule(DressReach::Twins, "card/page-a", {planks})}));
    const auto mats = matList(pages.design(), *pages.dressed());
    QCOMPARE(mats.size(), std::size_t(1));
    QVERIFY(!mats.front().handed);
  }
  void patternsStandUprightOnDisplay() {
    Design d = card();
    const Snapshot snapshot(dressed(d, {rule(DressReach::All, "", {layer("reeds")})}));
    const Motion& motion = *snapshot.motion();
    const double shown = displayOpening_rad(d.card, motion.assembly());
    const Pose pose = motion.poseAt(shown);
    const Face& face = (*snapshot.faces())[snapshot.faces()->find("card/page-a")];
    const double up = wears(snapshot, "card/page-a")->layers.front().up_rad;
    const Vec3 way =
        (onTable(d.card, motion.assembly(), shown) * pose.panels[face.panel] * face.toPiece)
            .linear() *
        Vec3(std::cos(up), std::sin(up), 0);
    QVERIFY_NEAR(way.z(), 1, 1e-6); // the page stands square, its pattern with it
  }
  void neededPaperIsCounted() {
    Design d = card();
    Paper own = *findPaper(knownPapers(), "moss");
    own.sheets = {{100, 150, 2}};
    d = *withPaper(d, own);
    const Snapshot snapshot(
        dressed(d, {rule(DressReach::Twins, "card/page-a", {layer("moss", {15})})}));
    const auto needs = paperNeeds(snapshot.design(), **snapshot.assembly(),
                                  matList(snapshot.design(), *snapshot.dressed()));
    const auto moss = std::ranges::find(needs, "moss", &PaperNeed::paper);
    QVERIFY(moss != needs.end());
    QCOMPARE(moss->mats, 2);
    QVERIFY_NEAR(moss->area_mm2, 2 * 100 * 150, 1e-2);
    QCOMPARE(moss->sheetsAtLeast, 2);
    QCOMPARE(moss->atHand, std::optional(2));
    QVERIFY(!moss->tooLarge);
  }

  // --- toppers -------------------------------------------------------------------------------
  void allShapesCanBeCut() {
    QVERIFY(topperShapes().size() >= 16);
    for (const TopperShape& shape : topperShapes())
      for (const double detail : {0.0, 0.3, 0.5, 0.8, 1.0}) {
        const Region made = topperOutline(shape, 30, 20, detail);
        const std::string name = fmt::format("{} at {}", shape.key, detail);
        QVERIFY2(isSimple(made.rim) && signedArea_mm2(made.rim) > 0, name.c_str());
        const Box2 box = boundsOf(made);
        QVERIFY2(box.low.x() > -15.01 && box.high.x() < 15.01 && box.low.y() > -10.01 &&
                     box.high.y() < 10.01,
                 name.c_str());
        for (const Polygon& hole : made.holes)
          QVERIFY2(signedArea_mm2(hole) < 0, name.c_str());
      }
  }
  void aTopperPastTheRidgeOfABoxPokesOutByTheClosedForm() {
    Design d = card(130, 180);
    add(d, "box", "gutter", {{"a", 40}, {"b", 50}});
    // In the shut card the ridge lies a + c from the fold; what is past it by the rest of the page
    // and 5 pokes out by 5.
    const ParameterValues& size = d.structures[0].values;
    const double past = 130 - (size.at("a") + size.at("c")) + 5;
    const Snapshot bare(d);
    const Face& wall = (*bare.faces())[bare.faces()->find("s1/wall-a")];
    const double high = boundsOf(wall.outline).size().y();
    Topper topper = *freshTopper(d, "s1/wall-a", "tag", "moss");
    topper.height_mm = past + 20, topper.width_mm = 10, topper.detail = 0;
    topper.at = Vec2(boundsOf(wall.outline).centre().x(), high + past - 0.5 * topper.height_mm);
    const auto with = withTopper(d, topper);
    QVERIFY(with.ok());
    const Analysis analysis = checked(*with);
    const Finding* out = findCode(analysis, "outside-cover");
    QVERIFY(out);
    QVERIFY_NEAR(out->amount, 5, 0.05);
    QCOMPARE(out->elements.front(), std::string("t1/shape-1"));
    topper.at.y() -= 10;
    const auto in = withTopper(d, topper);
    QVERIFY(!findCode(checked(*in), "outside-cover"));
  }
  void aTopperOnAPagePokesOutOfTheShutCardToo() {
    const Design d = card(130, 180);
    Topper topper = *freshTopper(d, "card/page-b", "tag", "moss");
    topper.width_mm = 20, topper.height_mm = 20, topper.detail = 0;
    topper.at = Vec2(90, 125); // 5 mm past the page, which is 130 deep
    const auto with = withTopper(d, topper);
    const Analysis analysis = checked(*with, true);
    const Finding* out = findCode(analysis, "outside-cover");
    QVERIFY(out);
    QVERIFY_NEAR(out->amount, 5, 1e-6);
    QVERIFY(out->mend && out->mend->dressing);
    QVERIFY(out->mend->dressing->toppers[0].at.y() <= 120 + 1e-9);
  }
  void aTopperOverAFoldThatClosesOnItIsFoundOnThatSideOnly() {
    Design d = card();
    add(d, "vfold", "gutter");
    const Snapshot bare(d);
    int closes = 0, free = 0;
    for (const char* key : {"s1/panel-a", "s1/panel-a-back"}) {
      const Face& face = (*bare.faces())[bare.faces()->find(key)];
      const Seat& seat = (*bare.assembly())->seats[face.seat];
      Topper topper = *freshTopper(d, key, "disc", "lamp-gold");
      topper.width_mm = topper.height_mm = 16;
      // On the middle of the centre crease.
      for (FoldIndex f : (*bare.assembly())->foldsOf(face.panel)) {
        const Fold& fold = (*bare.assembly())->folds[f];
        const PanelIndex other = fold.left == face.panel ? fold.right : fold.left;
        if ((*bare.assembly())->panels[other].use == PanelUse::Tab) continue;
        const Vec2 middle = 0.4 * fold.from + 0.6 * fold.to;
        topper.at = (seat.sides[0].toPiece.inverse() * lift(middle)).head<2>();
      }
      const auto with = withTopper(d, topper);
      QVERIFY(with.ok());
      const Analysis analysis = checked(*with);
      if (const Finding* over = findCode(analysis, "topper-over-fold")) {
        ++closes;
        QVERIFY_NEAR(over->amount, 8, 0.1); // half of the disc
      } else {
        ++free;
      }
    }
    QCOMPARE(closes, 1);
    QCOMPARE(free, 1);
  }
  void onlyWhatLiesOnItsPanelClearOfTheFoldsHoldsATopper() {
    const Design d = card(130, 180);
    const Snapshot bare(d);
    const FaceIndex page = bare.faces()->find("card/page-b");
    const Face& face = (*bare.faces())[page];
    const Seat& seat = (*bare.assembly())->seats[face.seat];
    Topper topper = *freshTopper(d, "card/page-b", "tag", "moss");
    topper.detail = 0, topper.width_mm = 40, topper.height_mm = 20;
    // Its lower half hangs over the gutter, along which the face has its x axis.
    topper.at = Vec2(90, 0);
    const auto zone = fixingZone(**bare.assembly(), seat, topper, shapesOf(topper).front(), 1.5);
    QCOMPARE(zone.size(), std::size_t(1));
    const Box2 box = boundsOf(zone.front());
    QVERIFY_NEAR(box.low.y(), 1.5, 0.05);
    QVERIFY_NEAR(box.high.y(), 10, 0.05);
    topper.at.y() = -12;
    const auto with = withTopper(d, topper);
    QVERIFY(with.ok());
    QVERIFY(findCode(checked(*with), "topper-unheld"));
  }
  void aTopperInTheWayIsMovedByTheMend() {
    Design d = card();
    add(d, "box", "gutter");
    const Snapshot bare(d);
    const Box2 wall = boundsOf((*bare.faces())[bare.faces()->find("s1/wall-b")].outline);
    Topper topper = *freshTopper(d, "s1/wall-b", "disc", "lamp-gold");
    topper.width_mm = topper.height_mm = 14;
    topper.at = Vec2(wall.centre().x(), wall.low.y() + 3); // 4 mm of it go through the page
    const auto with = withTopper(d, topper);
    QVERIFY(with.ok());
    const Analysis analysis = checked(*with, true);
    QVERIFY(!analysis.findings.empty());
    const auto mended = std::ranges::find_if(
        analysis.findings, [](const Finding& f) { return f.mend && f.mend->dressing; });
    QVERIFY(mended != analysis.findings.end());
    const auto better = applyMend(*with, *mended->mend);
    QVERIFY(better.ok());
    QVERIFY(!findCode(checked(*better), mended->code));
  }

  // --- thickness -----------------------------------------------------------------------------
  void aStackIsAsThickAsItsPapers() {
    // A plain card: two pages. A mat of 0.27 and a pattern of 0.15 on one of them, a mat on the
    // other's back, a topper of board 0.35 on pads of 2: seven things lie where the topper is held.
    Design d = card(130, 180);
    d = dressed(d, {rule(DressReach::Face, "card/page-a", {layer("moss"), layer("reeds")}),
                    rule(DressReach::Face, "card/page-b-back", {layer("mist")})});
    Topper topper = *freshTopper(d, "card/page-a", "tag", "board-300");
    topper.fix = TopperFix::Pads, topper.raised_mm = 2;
    const auto with = withTopper(d, topper);
    QVERIFY(with.ok());
    const Snapshot snapshot(*with);
    const ShutState& shut = *snapshot.shut();
    QVERIFY_NEAR(shut.thickness_mm, 2 * 0.27 + 0.27 + 0.15 + 0.27 + 0.35 + 2, 1e-9);
    QCOMPARE(shut.thickestSheets, 6); // pads are no sheet
    QCOMPARE(shut.stack.size(), std::size_t(7));
    // Beside the topper, inside of the layers.
    const Vec2 beside = (Vec2(-100, 90) - shut.map.origin) / shut.map.cell_mm;
    QVERIFY_NEAR(shut.map.highAt_mm(static_cast<int>(beside.x()), static_cast<int>(beside.y())),
                 2 * 0.27 + 0.27 + 0.15 + 0.27, 1e-6);
  }
  void anEnvelopeThatWasRightIsTooSmallForWhatIsLaidOn() {
    Design d = card(160, 112);
    d.settings.envelope = "c6";
    const double before = [&] {
      const Analysis analysis = checked(d);
      const Finding* tight = findCode(analysis, "envelope-tight");
      return tight ? tight->amount : 0;
    }();
    Topper topper = *freshTopper(d, "card/page-a", "tag", "board-300");
    topper.fix = TopperFix::Pads, topper.raised_mm = 2.5;
    const auto with = withTopper(d, topper);
    const Analysis analysis = checked(*with);
    const Finding* small = findCode(analysis, "envelope-small");
    QVERIFY(small || findCode(analysis, "envelope-tight")->amount > before + 2);
  }

  // --- findings of mats ----------------------------------------------------------------------
  void layersThatCannotBeCutAreToldAndMended() {
    Design d = card();
    add(d, "box", "gutter");
    d = dressed(d, {rule(DressReach::Face, "s1/wall-a", {layer("moss", {40})}),
                    rule(DressReach::Face, "s1/wall-b", {layer("mist", {3})})});
    const Analysis analysis = checked(d, true);
    const Finding* gone = findCode(analysis, "mat-vanishes");
    QVERIFY(gone);
    QCOMPARE(gone->severity, Severity::Advice);
    QVERIFY(gone->mend.has_value());
    const auto mended = applyMend(d, *gone->mend);
    QVERIFY(mended.ok());
    QVERIFY(!findCode(checked(*mended), "mat-vanishes") ||
            findCode(checked(*mended), "mat-vanishes")->mend);
  }
  void layersThatFallApartOrHaveANeckAreTold() {
    // A sheet that is narrow in the middle: 9 mm there, less 3 on both sides are a neck of 3; with
    // 5 nothing is left of it and the mat falls apart.
    Design d = card();
    const StructureId piece = add(d, "piece", "card/page-b");
    for (StructureItem& item : d.structures)
      if (item.id == piece)
        item.work->outline = {{0, 0},   {30, 0},  {30, 10}, {40, 10}, {40, 0},  {70, 0},
                              {70, 30}, {40, 30}, {40, 19}, {30, 19}, {30, 30}, {0, 30}},
        item.work->lines.clear(), item.work->joints.clear();
    const Snapshot bare(d);
    QVERIFY(bare.possible().ok());
    std::string face;
    for (const Face& one : *bare.faces())
      if (one.key.starts_with(piece.text()) && !one.back) face = one.key;
    QVERIFY(!face.empty());
    const auto codeWith = [&](double border) {
      const Design with =
          dressed(d, {rule(DressReach::Face, face.c_str(), {layer("moss", {border})})});
      const Analysis analysis = checked(with);
      return std::pair(findCode(analysis, "mat-neck") != nullptr,
                       findCode(analysis, "mat-parts") != nullptr);
    };
    QCOMPARE(codeWith(1), std::pair(false, false));
    QCOMPARE(codeWith(3), std::pair(true, false));
    QCOMPARE(codeWith(5), std::pair(false, true));
  }
  void whatPassesThroughPadsIsTold() {
    // The wall of a box that folds past a shape on pads beside its foot.
    Design d = card();
    add(d, "box", "gutter");
    const ParameterValues& size = d.structures[0].values;
    Topper topper = *freshTopper(d, "card/page-b", "tag", "moss");
    topper.width_mm = 20, topper.height_mm = 10, topper.detail = 0;
    topper.at = Vec2(size.at("position") + 0.5 * size.at("length"), size.at("b") + 4);
    topper.fix = TopperFix::Pads, topper.raised_mm = 12;
    const auto with = withTopper(d, topper);
    QVERIFY(with.ok());
    const Analysis analysis = checked(*with);
    QVERIFY(findCode(analysis, "topper-hits") || findCode(analysis, "panels-hit"));
    topper.at.y() = 110, topper.raised_mm = 1;
    const auto away = withTopper(d, topper);
    QVERIFY(!findCode(checked(*away), "topper-hits"));
  }
  void whatIsLaidOnAFaceThatIsNotThereIsTold() {
    Design d = card();
    d.papers.push_back(*findPaper(knownPapers(), "moss"));
    d.dressing.rules.push_back(rule(DressReach::Face, "s9/wall-a", {layer("moss")}));
    const Analysis analysis = checked(d, true);
    const Finding* lost = findCode(analysis, "dress-lost");
    QVERIFY(lost && lost->mend);
    QVERIFY(applyMend(d, *lost->mend)->dressing.rules.empty());
  }

  // --- copies --------------------------------------------------------------------------------
  void copiesWearWhatTheirOriginalsWear() {
    Design d = card(260, 180);
    const StructureId box = add(d, "box", "gutter");
    d = dressed(d, {rule(DressReach::Face, "s1/wall-a", {layer("moss")})});
    Topper topper = *freshTopper(d, "s1/wall-b", "boat", "tar");
    topper.at.x() += 5, topper.turn_deg = 10;
    d = *withTopper(d, topper);
    d = *withPaperFor(d, box, "plum");
    const auto repeated = repeatedAlong(d, box, 1, 60);
    QVERIFY(repeated.ok());
    QCOMPARE(repeated->dressing.rules.back().face, std::string("s2/wall-a"));
    QCOMPARE(repeated->dressing.toppers.back().face, std::string("s2/wall-b"));
    QCOMPARE(repeated->dressing.toppers.back().id, 2);
    QCOMPARE(repeated->structures.back().paper, std::string("plum"));
    // Mirrored, it goes over to the other wall, and points the other way.
    const auto over = mirrored(d, box);
    QVERIFY(over.ok());
    QCOMPARE(over->dressing.rules.size(), std::size_t(1));
    QCOMPARE(over->dressing.rules[0].face, std::string("s1/wall-b"));
    QCOMPARE(over->dressing.toppers.size(), std::size_t(1));
    QCOMPARE(over->dressing.toppers[0].face, std::string("s1/wall-a"));
    QVERIFY(over->dressing.toppers[0].mirrored);
    QVERIFY_NEAR(over->dressing.toppers[0].turn_deg, -10, 1e-9);
    const Snapshot before(d), after(*over);
    const auto middle = [](const Snapshot& of, const char* face) {
      return boundsOf((*of.faces())[of.faces()->find(face)].outline).centre().x();
    };
    QVERIFY_NEAR(over->dressing.toppers[0].at.x() - middle(after, "s1/wall-a"),
                 -(topper.at.x() - middle(before, "s1/wall-b")), 1e-6);
  }

  // --- random --------------------------------------------------------------------------------
  void randomStacksStayInsideTheirBorders() {
    std::mt19937 random(11);
    const auto number = [&](double low, double high) {
      return low + (high - low) * (random() / 4294967296.0);
    };
    for (int round = 0; round < 40; ++round) {
      Design d = card(number(80, 160), number(100, 200));
      const char* kinds[] = {"box", "vfold", "platform"};
      add(d, kinds[random() % 3], "gutter");
      const double mat = number(0.5, 5), top = number(0.5, 4);
      const Snapshot snapshot(
          dressed(d, {rule(DressReach::All, "", {layer("moss", {mat}), layer("reeds", {top})})}));
      for (const DressedFace& face : *snapshot.dressed()) {
        const Region& paper = (*snapshot.faces())[face.face].outline;
        double least = 0;
        for (const CutLayer& cut : face.layers) {
          least += cut.layer == 0 ? mat : top;
          for (const Region& part : cut.parts)
            for (const Vec2& corner : part.rim)
              QVERIFY(contains(paper, corner) && distanceToOutline(paper, corner) > least - 1e-3);
        }
      }
    }
  }
};

QTEST_GUILESS_MAIN(TestDress)
#include "test_dress.moc"
