// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/bases/base.h"
#include "core/edits/edits.h"
#include "core/io/page.h"
#include "core/making/order.h"
#include "core/states/lift.h"
#include "core/states/shut_state.h"
#include <set>
#endif

using namespace hinge;
using namespace hinge::test;

// A finished card on another one: lying on a face, and astride a fold.

namespace {

Design smallCard() {
  Design d = card(40, 60);
  add(d, "vfold", "gutter");
  return d;
}

Design with(const Design& small, const char* kind, const char* seat,
            const ParameterValues& given = {}, Design on = card()) {
  const auto values = valuesForNew(*assemble(on), on.settings, kind, seat, given);
  if (!values) qFatal("%s", say(values.error()).c_str());
  const auto added =
      addStructure(on, kind, seat, *values, {}, CardWithin{std::make_shared<const Design>(small)});
  if (!added) qFatal("%s", say(added.error()).c_str());
  return added->design;
}

/// The points of a panel's outline in the frame of another panel.
Vec3 cornerIn(const Pose& pose, const Assembly& a, const std::string& panel,
              const std::string& frame, std::size_t corner) {
  const PanelIndex p = a.findPanel(panel);
  return pose.panels[a.findPanel(frame)].inverse() *
         (pose.panels[p] * lift(a.panels[p].outline.rim[corner]));
}

} // namespace

class TestCardsWithin : public QObject {
  Q_OBJECT
private slots:
  void onAFaceItLiesShutAndTheCardIsGood() {
    const Design d = with(smallCard(), "card-on-face", "card/page-b", {{"up", 30}});
    const Analysis a = checked(d);
    QVERIFY2(a.findings.empty(), a.findings.empty() ? "" : describe(a.findings[0], d).c_str());
    QCOMPARE(a.motion->mobility(), 0);
    // All of it goes with the page, at every opening.
    const auto& bodies = a.motion->mechanism().bodyOf;
    for (PanelIndex p : a.assembly->panels.indices())
      if (a.assembly->panels[p].owner)
        QVERIFY(bodies[p] == bodies[a.assembly->findPanel("card/page-b")]);
    // Shut it is as wide as one page and lies flat on the page it is glued to.
    const Pose pose = a.motion->poseAt(1.2);
    const Iso3 back = pose.panels[a.assembly->findPanel("card/page-b")].inverse();
    for (PanelIndex p : a.assembly->panels.indices())
      if (a.assembly->panels[p].owner)
        for (const Vec2& c : a.assembly->panels[p].outline.rim)
          QVERIFY_NEAR((back * (pose.panels[p] * lift(c))).z(), 0.0, 1e-6);
  }
  void itsPaperCountsInTheShutCard() {
    const Design d = with(smallCard(), "card-on-face", "card/page-b", {{"up", 30}});
    const ShutState bare = shutState(*checked(card()).motion, card()),
                    state = shutState(*checked(d).motion, d);
    // Two pages of the small one and the V-fold's two panels between the large ones.
    QCOMPARE(state.thickestSheets - bare.thickestSheets, 4);
  }
  void aHandOpensItAsItOpensByItself() {
    const Design small = smallCard();
    const Design d = with(small, "card-on-face", "card/page-b", {{"up", 30}, {"to", 110}});
    const Analysis a = checked(d), alone = checked(small);
    QVERIFY(a.findings.empty());
    QCOMPARE(a.assembly->lifts.size(), std::size_t(1));
    const Pose rest = a.motion->poseAt(radians(90));
    for (double share : {0.0, 0.35, 1.0}) {
      const Pose pose = lifted(*a.assembly, rest, a.assembly->lifts[0], share);
      const double opening = radians(110) * share;
      const Pose own = opening == 0 ? alone.motion->shutPose() : alone.motion->poseAt(opening);
      for (const char* panel : {"card/page-b", "s1/panel-a", "s1/panel-b"})
        for (std::size_t corner : {0u, 1u, 2u}) {
          const Vec3 there =
              cornerIn(pose, *a.assembly, std::string("s1/") + panel, "s1/card/page-a", corner);
          QVERIFY_NEAR(
              (there - cornerIn(own, *alone.assembly, panel, "card/page-a", corner)).norm(), 0.0,
              1e-9);
        }
    }
  }
  void whatIsInItsWayIsFound() {
    Design d = with(smallCard(), "card-on-face", "card/page-b", {{"up", 60}, {"to", 180}});
    QVERIFY(!findCode(checked(d), "lift-hits"));
    // Shown hardly open, the other page is in the way of the leaf.
    d.card.display_deg = 25;
    const Analysis a = checked(d);
    const Finding* f = findCode(a, "lift-hits");
    QVERIFY(f && f->amount > 5);
  }
  void itMayRestOpenAndNobodyNeedsToMoveIt() {
    const Design d = with(smallCard(), "card-on-face", "card/page-b",
                          {{"up", 30}, {"opened", 180}, {"to", 180}});
    const Analysis a = checked(d);
    QVERIFY(a.assembly->lifts.empty());
    const Pose pose = a.motion->poseAt(1.0);
    const Vec3 near = pose.panels[a.assembly->findPanel("s1/card/page-a")].linear().col(2),
               far = pose.panels[a.assembly->findPanel("s1/card/page-b")].linear().col(2);
    QVERIFY_NEAR(near.dot(far), 1.0, 1e-9);
  }
  void aBandOpensItWithTheCard() {
    const Design small = smallCard();
    const Design d =
        with(small, "card-on-face", "card/page-b", {{"up", 30}, {"to", 120}, {"moved", 1}});
    const Analysis a = checked(d), alone = checked(small);
    QVERIFY(a.verdict == Verdict::Advice);
    QVERIFY(findCode(a, "by-band"));
    QCOMPARE(a.findings.size(), std::size_t(1));
    QVERIFY(a.assembly->lifts.empty());
    for (double t : {0.0, 0.6, 1.8, kPi}) {
      const Pose pose = a.motion->poseAt(t);
      const double opening = t * 120 / 180;
      const Pose own = t == 0 ? alone.motion->shutPose() : alone.motion->poseAt(opening);
      for (const char* panel : {"card/page-b", "s1/panel-a", "s1/panel-b"})
        QVERIFY_NEAR((cornerIn(pose, *a.assembly, std::string("s1/") + panel, "s1/card/page-a", 1) -
                      cornerIn(own, *alone.assembly, panel, "card/page-a", 1))
                         .norm(),
                     0.0, 1e-8);
    }
    // On what stands by itself nothing tells beforehand how it moves.
    Design box = card();
    add(box, "box", "gutter", {{"c", 60}, {"d", 60}, {"length", 100}});
    const Design tiny = card(22, 22);
    const auto on = [&](double moved) {
      return assembleDesign(
          with(tiny, "card-on-face", "s1/wall-a", {{"up", 10}, {"moved", moved}, {"to", 40}}, box));
    };
    QVERIFY(on(0));
    QCOMPARE(on(1).error().code(), std::string("card-within.host"));
  }
  void astrideAFoldItOpensWithIt() {
    const Design small = smallCard();
    const Design d = with(small, "card-on-fold", "gutter");
    const Analysis a = checked(d), alone = checked(small);
    QVERIFY2(a.findings.empty(), a.findings.empty() ? "" : describe(a.findings[0], d).c_str());
    for (double t : {0.4, 1.3, 2.6}) {
      const Pose pose = a.motion->poseAt(t), own = alone.motion->poseAt(t);
      for (const char* panel : {"card/page-b", "s1/panel-a", "s1/panel-b"})
        QVERIFY_NEAR((cornerIn(pose, *a.assembly, std::string("s1/") + panel, "s1/card/page-a", 1) -
                      cornerIn(own, *alone.assembly, panel, "card/page-a", 1))
                         .norm(),
                     0.0, 1e-8);
    }
    // In the middle of the fold.
    const PanelIndex page = a.assembly->findPanel("s1/card/page-a");
    const Pose pose = a.motion->poseAt(kPi);
    Box2 box;
    for (const Vec2& c : a.assembly->panels[page].outline.rim)
      box.add((pose.panels[page] * lift(c)).head<2>());
    QVERIFY_NEAR(box.centre().y(), 90.0, 1e-9);
    QVERIFY_NEAR(std::max(std::abs(box.low.x()), std::abs(box.high.x())), 40.0, 1e-9);
  }
  void whatIsWrongInItSpoilsBoth() {
    Design small = card(60, 60);
    const StructureId box = add(small, "box", "gutter");
    small = *setValues(small, box, {{"c", small.structures[0].values["c"] + 2}});
    QVERIFY(checked(small).verdict == Verdict::Spoiled);
    const Design d = with(small, "card-on-fold", "gutter");
    const Analysis a = checked(d);
    const Finding* f = findCode(a, "card-within");
    QVERIFY(f);
    QVERIFY(f->amount >= 1);
    QVERIFY(!findCode(checked(with(smallCard(), "card-on-fold", "gutter")), "card-within"));
    // Open where it cannot be, it is refused.
    QVERIFY(!assembleDesign([&] {
      Design on = card();
      const auto values =
          *valuesForNew(*assemble(on), on.settings, "card-on-face", "card/page-b", {{"opened", 0}});
      return addStructure(on, "card-on-face", "card/page-b", values, {},
                          CardWithin{std::make_shared<const Design>(small)})
          ->design;
    }()));
  }
  void itComesMade() {
    const Design d = with(smallCard(), "card-on-fold", "gutter");
    const Analysis a = checked(d);
    QVERIFY(a.order);
    // The two pages are glued down; the V-fold in it was glued before.
    QCOMPARE(a.order->steps.size(), std::size_t(2));
    QVERIFY(a.order->unreachable.empty());
  }
  void itIsKeptInFilesAndOnThePage() {
    const Design d = with(smallCard(), "card-on-face", "card/page-a", {{"turn", 15}});
    const auto again = designFromJson(designToJson(d), "");
    QVERIFY(again && *again == d);
    const auto read = designFromPage(pageOf(d));
    QVERIFY2(read.ok(), read ? "" : say(read.error()).c_str());
    QVERIFY(read->structures == d.structures);
    // Damage in it is named by its place in the whole file.
    std::string text = designToJson(d);
    const auto at = text.rfind("\"vfold\"");
    text.replace(at, 7, "\"vault\"");
    const auto broken = designFromJson(text, "");
    QVERIFY(!broken);
    QVERIFY2(broken.error().place.starts_with("structures[0].design.structures[0]"),
             broken.error().place.c_str());
  }
  void cardsCanLieInOneAnotherToADepth() {
    Design d = card(30, 30);
    int deepest = 0;
    for (int k = 1; k < 6; ++k) {
      Design on = card(30 + 20.0 * k, 30 + 20.0 * k);
      const auto values =
          *valuesForNew(*assemble(on), on.settings, "card-on-face", "card/page-b", {{"to", 0}});
      const auto added = addStructure(on, "card-on-face", "card/page-b", values, {},
                                      CardWithin{std::make_shared<const Design>(d)});
      if (!added) {
        QCOMPARE(added.error().code(), std::string("card-within.deep"));
        break;
      }
      d = added->design, deepest = k;
    }
    QCOMPARE(deepest, 3);
    QVERIFY(assembleDesign(d));
    std::set<std::string> keys;
    const auto assembly = assemble(d);
    for (const Panel& panel : assembly->panels)
      keys.insert(panel.key);
    QCOMPARE(keys.size(), assembly->panels.size());
  }
  void aKindThatIsNoneCarriesNoCard() {
    const Design on = card();
    const auto values = *valuesForNew(*assemble(on), on.settings, "figure", "card/page-b", {});
    const auto wrong = addStructure(on, "figure", "card/page-b", values, {},
                                    CardWithin{std::make_shared<const Design>(card())});
    QCOMPARE(wrong.error().code(), std::string("work.unwanted"));
    const auto none = addStructure(on, "card-on-fold", "gutter", {{"position", 60.0}});
    QCOMPARE(none.error().code(), std::string("card-within.missing"));
    // A leaf that never folds cannot be opened.
    Design still = card(40, 40);
    still.card = *onBase(still.card, "sheet");
    still.card.sheets = {plainStrip(40, 40)};
    const Design laid = with(card(40, 40), "card-on-face", "card/page-b");
    Design changed = laid;
    changed.structures[0].card = CardWithin{std::make_shared<const Design>(still)};
    QCOMPARE(assembleDesign(changed).error().code(), std::string("card-within.base"));
  }
};

QTEST_GUILESS_MAIN(TestCardsWithin)
#include "test_cards_within.moc"
