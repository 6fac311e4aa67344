// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/arrange.h"
#include "core/model/snapshot.h"
#include "core/paper/envelope.h"
#include "core/states/shut_state.h"
#include "core/states/stand.h"
#endif

using namespace hinge;
using namespace hinge::test;

// States of the whole card: stacked when shut, standing on the table, in its envelope.

class TestStates : public QObject {
  Q_OBJECT
private slots:
  void anEmptyCardTipsWhereTheClosedFormSays_data() {
    QTest::addColumn<double>("opening");
    for (double t : {60.0, 90.0, 120.0, 150.0})
      QTest::addRow("%g", t) << t;
  }
  void anEmptyCardTipsWhereTheClosedFormSays() {
    QFETCH(double, opening);
    Design d = card(130, 180);
    d.card.display_deg = opening;
    const Stand stand = standOf(*checked(d).motion, d);
    QVERIFY(stand.reached);
    // Page b lies from 0 to 130, page a rises from the gutter at the opening angle: the centre of
    // both lies at x = (65 + 65 cos t) / 2 over the page and z = 65 sin(t) / 2 high.
    const double t = radians(opening), x = 32.5 * (1 + std::cos(t)), z = 32.5 * std::sin(t);
    QVERIFY_NEAR(stand.leastTip_rad, std::atan2(x, z), 1e-9);
    QVERIFY_NEAR(stand.worstDirection_rad, kPi, 1e-9); // backwards over the gutter
    QVERIFY_NEAR(stand.weight_g, 2 * 0.130 * 0.180 * 220, 1e-9);
  }
  void aCardWeighsWithWhatItWears() {
    Design d = card(130, 180);
    Paper lining = d.papers.front();
    lining.key = "lining", lining.weight_gsm = 120;
    d.papers.push_back(lining);
    DressRule rule;
    rule.face = "card/page-b";
    rule.layers = {{"lining", {3}}, {"lining", {10}}};
    d.dressing.rules = {rule};
    const auto stand = Snapshot(d).stand();
    // The second layer's border is measured from the first.
    const double pages = 2 * 0.130 * 0.180 * 220, layers = (0.124 * 0.174 + 0.104 * 0.154) * 120;
    QVERIFY_NEAR(stand->weight_g, pages + layers, 1e-6);
    // Both layers lie in the middle of page b, so that the centre moves towards it.
    const double bare = standOf(*checked(card(130, 180)).motion, card(130, 180)).centre.x();
    QVERIFY(std::abs(bare) < 1e-9 && stand->centre.x() > 1);
  }
  void aCardOnItsEdgeStandsOnTheAngleOfItsPages() {
    Design d = card(130, 180);
    d.card.rests = Rests::OnEdge;
    const Stand stand = standOf(*checked(d).motion, d);
    // Seen from above a right angle of two pages: the centre lies on its bisector, 65 / sqrt 2 from
    // the gutter, hence 65 / 2 inside each page, and 90 mm high.
    QVERIFY_NEAR(stand.leastTip_rad, std::atan2(32.5, 90), 1e-9);
    d.card.fold = FoldSide::Top; // like a roof on both fore edges
    const Stand roof = standOf(*checked(d).motion, d);
    // The fore edges of the roof are 180 / sqrt 2 to either side and twice as far below the gutter
    // as the centre.
    QVERIFY_NEAR(roof.leastTip_rad, std::atan2(65.0, 90 * std::sqrt(0.5)), 1e-9);
  }
  void whatLeansTooFarIsSaidToFall() {
    Design d = card(130, 180);
    d.card.display_deg = 90;
    const StructureId box = add(d, "box", "gutter", {{"a", 30}, {"b", 30}, {"c", 45}, {"d", 45}});
    (void)box;
    QVERIFY(!findCode(checked(d), "falls-over"));
    // A heavy sail far out beyond the gutter on the back page.
    add(d, "figure", "card/page-a-back",
        {{"position", 90},
         {"up", 100},
         {"width", 170},
         {"height", 260},
         {"turn", 0},
         {"shape", 0}});
    d.card.display_deg = 150;
    const Analysis a = checked(d);
    QVERIFY(standOf(*a.motion, d).leastTip_rad <
            standOf(*checked(card()).motion, card()).leastTip_rad);
    QVERIFY(findCode(a, "falls-over") || findCode(a, "tips-easily"));
  }
  void panelsOfABoxLieBetweenThePages() {
    Design d = card();
    add(d, "box", "gutter");
    const Analysis a = checked(d);
    const Stacking stack = *a.snapshot->stack();
    QVERIFY(stack.known);
    QVERIFY(stack.ring.empty() && stack.through.empty());
    QCOMPARE(stack.order.size(), a.assembly->panels.size());
    const auto rank = [&](const char* key) {
      return std::ranges::find(stack.order, a.assembly->findPanel(key)) - stack.order.begin();
    };
    QVERIFY(rank("card/page-a") < rank("s1/wall-a"));
    QVERIFY(rank("s1/wall-a") < rank("s1/wall-b"));
    QVERIFY(rank("s1/wall-b") < rank("card/page-b"));
    // A tab lies on the inside of its page.
    QVERIFY(rank("card/page-a") < rank("s1/tab-a"));
    QVERIFY(rank("s1/tab-b") < rank("card/page-b"));
  }
  void everyFamilyCanBeStacked_data() {
    QTest::addColumn<QString>("kind");
    for (const char* kind :
         {"vfold", "box", "closed-box", "cube", "tiers", "platform", "step", "cut-vfold"})
      QTest::addRow("%s", kind) << QString::fromUtf8(kind);
  }
  void everyFamilyCanBeStacked() {
    QFETCH(QString, kind);
    Design d = card(150, 200);
    add(d, kind.toUtf8().constData(), "gutter");
    const Stacking stack = *checked(d).snapshot->stack();
    QVERIFY(stack.known && stack.ring.empty() && stack.through.empty());
  }
  void aSinkingLidBetweenInwardEndsHasNoOrder() {
    Design d = card(150, 200);
    add(d, "closed-box", "gutter", {{"lid", 2}, {"inward", 1}, {"length", 80}});
    const Analysis a = checked(d);
    QVERIFY(findCode(a, "panels-hit"));
    QVERIFY(!a.snapshot->stack()
                 ->through.empty());        // seen in the shut state too, from the fold of the lid
    QVERIFY(!findCode(a, "stack-through")); // but told once only
  }
  void whatDoesNotShutHasNoStack() {
    Design d = card();
    const StructureId box = add(d, "box", "gutter");
    d = *setValues(d, box, {{"d", 50}, {"c", 45}});
    QVERIFY(!checked(d).snapshot->stack()->known);
  }
  void envelopesAreMeasuredWithRoomAndThickness() {
    Design d = card(108, 156);
    d.settings.envelope = "c6"; // 162 x 114: 156 + 6 + two sheets is half a millimetre too much
    const Analysis a = checked(d);
    const Finding* f = findCode(a, "envelope-tight");
    QVERIFY(f);
    QVERIFY_NEAR(f->amount, 0.54, 1e-9);
    QVERIFY(a.verdict == Verdict::Advice);
    d.card.height_mm = 163;
    const Analysis large = checked(d);
    QVERIFY(findCode(large, "envelope-small"));
    QVERIFY_NEAR(findCode(large, "envelope-small")->amount, 1.54, 1e-9);
    d.settings.envelope = "to-measure";
    QVERIFY(checked(d).verdict == Verdict::Good);
  }
  void theMapCountsEverySheet() {
    for (const char* name : {"night-market", "canal-houses", "bridge-of-arches", "waving-boatmen",
                             "lantern-through-the-wall"}) {
      const Design design = demo(name);
      const Snapshot snapshot(design);
      const auto motion = snapshot.motion();
      for (const double cell : {1.0, 2.5}) {
        const ShutState state = shutState(*motion, design, {}, cell);
        const Pose shut = motion->shutPose();
        const Assembly& assembly = motion->assembly();
        const Iso3 toPage = shut.panels[assembly.root].inverse();
        std::vector<Region> lying;
        for (PanelIndex p : assembly.panels.indices())
          if (shut.placed[p])
            lying.push_back(mapped(assembly.panels[p].outline, toPage * shut.panels[p]));
        int most = 0, cells = 0;
        for (int row = 0; row < state.map.rows; row += 3)
          for (int column = 0; column < state.map.columns; column += 2) {
            const Vec2 middle = state.map.origin + cell * Vec2(column + 0.5, row + 0.5);
            const auto atEdge = [&](const Region& region) {
              return distanceToOutline(region, middle) < 1e-3;
            };
            if (std::ranges::any_of(lying, atEdge)) continue;
            const auto sheets = std::ranges::count_if(
                lying, [&](const Region& region) { return contains(region, middle); });
            QVERIFY2(state.map.at(column, row) == sheets,
                     fmt::format("{} at {} {}", name, column, row).c_str());
            QVERIFY_NEAR(state.map.highAt_mm(column, row),
                         static_cast<double>(sheets) * design.papers.front().thickness_mm, 1e-6);
            most = std::max(most, static_cast<int>(sheets)), ++cells;
          }
        QVERIFY2(cells > 200 && most >= 2 && most <= state.thickestSheets, name);
      }
    }
  }
  void theGutterWrapsWhatLiesAlongIt() {
    Design d = card();
    QCOMPARE(shutState(*checked(d).motion, d).gutterSheets, 0);
    add(d, "vfold", "gutter");
    const ShutState shut = shutState(*checked(d).motion, d);
    QVERIFY(shut.gutterSheets >= 2); // both panels of the V begin in the fold
    QVERIFY_NEAR(shut.gutterRelief_mm, 0.5 * shut.gutterSheets * 0.27, 1e-12);
  }
  void repeatsAreCopiesFurtherAlong() {
    Design d = card(150, 260);
    const StructureId box = add(d, "box", "gutter", {{"position", 20}, {"length", 30}});
    add(d, "vfold", "s1/ridge", {{"la", 12}, {"lb", 12}, {"lc", 12}, {"ea", 5}, {"eb", 5}});
    const auto repeated = repeatedAlong(d, box, 3, 45);
    QVERIFY(repeated.ok());
    QCOMPARE(repeated->structures.size(), std::size_t(8));
    QVERIFY_NEAR(repeated->structures[2].values.at("position"), 65, 1e-12);
    QVERIFY_NEAR(repeated->structures[6].values.at("position"), 155, 1e-12);
    QCOMPARE(QString::fromStdString(repeated->structures[7].seat), QStringLiteral("s7/ridge"));
    QVERIFY(assembleDesign(*repeated).ok());
    QVERIFY(!repeatedAlong(d, StructureId{99}, 1, 10).ok());
  }
  void aCopyOnTheOtherSideIsTheMirrorImage() {
    Design d = card(150, 200);
    add(d, "box", "gutter", {{"position", 60}, {"length", 60}});
    const StructureId guest =
        add(d, "box", "s1/valley-a", {{"a", 20}, {"b", 16}, {"c", 18}, {"length", 30}});
    const auto copied = copiedToOtherSide(d, guest);
    QVERIFY(copied.ok());
    const Motion motion = Motion::trace(assemble(copied->design));
    for (double t : {30.0, 90.0, 150.0}) {
      const Pose pose = motion.poseAt(radians(t));
      const Vec3 left = worldPoint(motion, pose, "s2/wall-a", {0, 0}),
                 right = worldPoint(motion, pose, "s3/wall-b", {22 + 18, 0});
      QVERIFY((left - Vec3(-right.x(), right.y(), right.z())).norm() < 1e-7);
    }
    QVERIFY(!copiedToOtherSide(d, StructureId{1}).ok()); // the gutter has no other side
  }
};

QTEST_APPLESS_MAIN(TestStates)
#include "test_states.moc"
