// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/bases/base.h"
#include "core/io/design_json.h"
#include "core/making/access.h"
#include "core/making/order.h"
#include <filesystem>
#include <set>
#endif

using namespace hinge;
using namespace hinge::test;

// The order of work: every joint once, each while the hand reaches it, and what no order leaves
// room for.

namespace {

Design with(const Design& design, const PieceWork& work) {
  const auto added = addStructure(design, "piece", "gutter", {{"position", 0.0}}, work);
  if (!added) qFatal("%s", say(added.error()).c_str());
  return added->design;
}

/// An order of work with the assembly it is for.
struct Made {
  std::shared_ptr<const Assembly> assembly;
  AssemblyOrder order;

  const Joint& first(const JointGroup& group) const { return assembly->joints[group.front()]; }
  std::optional<StructureId> owner(const JointGroup& group) const {
    return assembly->ownerOf(first(group));
  }
  template <class Kind> bool is(const JointGroup& group) const {
    return std::holds_alternative<Kind>(first(group));
  }
  template <class Kind> int stepOf() const {
    for (std::size_t k = 0; k < order.steps.size(); ++k)
      for (const JointGroup& group : order.steps[k].joints)
        if (is<Kind>(group)) return static_cast<int>(k);
    return -1;
  }
};
Made made(const Design& design) {
  auto assembly = assemble(design);
  return {assembly, assemblyOrder(Motion::trace(assembly), radians(design.card.display_deg))};
}

} // namespace

class TestOrder : public QObject {
  Q_OBJECT
private slots:
  void whatStandsInABoxIsGluedBeforeItsLastSide_data() {
    QTest::addColumn<double>("lid");
    QTest::newRow("a lid that rises leaves gables open") << 1.0;
    QTest::newRow("a lid that sinks leaves nothing open") << 2.0;
  }
  void whatStandsInABoxIsGluedBeforeItsLastSide() {
    QFETCH(double, lid);
    Design d = card(200, 200);
    const StructureId outer =
        add(d, "cube", "gutter",
            {{"position", 40}, {"w", 100}, {"depth", 100}, {"h", 60}, {"lid", lid}});
    const StructureId inner =
        add(d, "box", "gutter", {{"position", 80}, {"length", 20}, {"a", 12}, {"c", 15}});
    const Made all = made(d);
    const AssemblyOrder& order = all.order;
    QVERIFY(order.unreachable.empty());
    int lastOuter = -1, lastInner = -1;
    for (std::size_t k = 0; k < order.steps.size(); ++k)
      for (const JointGroup& group : order.steps[k].joints) {
        if (all.owner(group) == outer) lastOuter = static_cast<int>(k);
        if (all.owner(group) == inner) lastInner = static_cast<int>(k);
        if (all.owner(group) == inner && lid == 2)
          QVERIFY(order.steps[k].before > static_cast<int>(k));
      }
    QVERIFY(lastInner >= 0);
    QVERIFY2(lastInner < lastOuter, "the box is closed over what still has to be glued");
    for (const MakingStep& step : order.steps)
      QVERIFY(!step.byShutting);
    // Beside the cube there is no such hurry: the later structure comes later.
    const auto beside = setValues(d, inner, {{"position", 160}});
    QVERIFY(beside.ok());
    const Made free = made(*beside);
    QCOMPARE(free.owner(free.order.steps.back().joints.back())->value, inner.value);
  }
  void whatLiesUnderAFootIsGluedFirst() {
    // The boat of the landing stage, pushed under the wall of the ticket booth that stands on the
    // deck.
    Design d = demo("landing-stage");
    const StructureId boat{4}, booth{2};
    const auto stepsOf = [&](const Design& design, StructureId owner) {
      std::vector<int> all;
      const Made at = made(design);
      for (std::size_t k = 0; k < at.order.steps.size(); ++k)
        for (const JointGroup& group : at.order.steps[k].joints)
          if (at.owner(group) == owner && at.is<Glue>(group)) all.push_back(static_cast<int>(k));
      return all;
    };
    const Design under = *setValues(d, boat, {{"position", 50}});
    QVERIFY(findCode(checked(under), "foot-covered"));
    QVERIFY(!findCode(checked(d), "foot-covered"));
    int foot = -1;
    const Made all = made(under);
    for (std::size_t k = 0; k < all.order.steps.size(); ++k)
      for (const JointGroup& group : all.order.steps[k].joints)
        if (all.owner(group) == booth &&
            all.assembly->panels[panelsOf(all.first(group))[1]].key == "s2/tab-b")
          foot = static_cast<int>(k);
    QVERIFY(foot >= 0);
    QVERIFY(stepsOf(under, boat).front() < foot);
  }
  void everyJointOfTheStartingDesignsIsMadeOnce_data() {
    QTest::addColumn<QString>("file");
    for (const auto& entry : std::filesystem::directory_iterator(HINGE_SOURCE_DIR "/demo"))
      if (entry.path().extension() == ".hinge")
        QTest::newRow(entry.path().stem().c_str())
            << QString::fromStdString(entry.path().stem().string());
  }
  void everyJointOfTheStartingDesignsIsMadeOnce() {
    QFETCH(QString, file);
    const Design design = demo(file.toStdString());
    const auto assembly = assemble(design);
    const AssemblyOrder order =
        assemblyOrder(Motion::trace(assembly), radians(design.card.display_deg));
    QCOMPARE(order.unreachable.size(), std::size_t(0));
    std::set<JointIndex> joints;
    std::size_t all = 0;
    for (const MakingStep& step : order.steps)
      for (const JointGroup& group : step.joints) {
        joints.insert(group.begin(), group.end());
        all += group.size();
      }
    // What comes made has been made in its own order.
    const auto made = std::ranges::count_if(
        assembly->joints, [&](const Joint& joint) { return comesMade(*assembly, joint); });
    QCOMPARE(joints.size(), assembly->joints.size() - static_cast<std::size_t>(made));
    QCOMPARE(all, joints.size());
    const auto lines = describe(order, design, *assembly);
    QCOMPARE(lines.size(), order.steps.size());
  }
  void hostsComeBeforeWhatStandsOnThem() {
    const Made all = made(demo("night-market"));
    int last = -1;
    for (const MakingStep& step : all.order.steps)
      for (const JointGroup& group : step.joints) {
        const auto owner = all.owner(group);
        QVERIFY(owner && owner->value >= last);
        last = owner->value;
      }
  }
  void theBandOfTheLanternGoesInBeforeItsLastSide() {
    const Made all = made(demo("pop-up-lantern"));
    const AssemblyOrder& order = all.order;
    QCOMPARE(all.stepOf<Band>(), 5);
    QCOMPARE(order.steps.size(), std::size_t(7)); // one side stays open, no more
    QCOMPARE(order.steps[5].before, 6);
    QVERIFY(all.is<Glue>(order.steps[6].joints.front()));
  }
  void aBandOutsideIsTiedLast() {
    // The same lantern with the band round its outside.
    Design design = demo("pop-up-lantern");
    for (PieceJoint& joint : design.structures.front().work->joints)
      if (is<given::Band>(joint))
        joint.on = "card/page-b", joint.to = {10, 10}, joint.at = {0, -60};
    const Made all = made(design);
    QVERIFY(all.order.unreachable.empty());
    QVERIFY(all.stepOf<Band>() >= 0);
  }
  void aPinInsideASleeveGoesInBeforeItIsClosed() {
    Design design = card(120, 150);
    const auto base = onBase(design.card, "sleeve");
    QVERIFY(base.ok());
    design.card = *base;
    design.card.values["depth"] = 12;
    PieceWork arm = plainStrip(30, 10);
    arm.joints = {{{15, 5}, "card/page-a", {75, 60}, given::Pivot()}};
    design = with(design, arm);
    const Made all = made(design);
    QVERIFY(all.order.unreachable.empty());
    const int at = all.stepOf<Pivot>();
    QVERIFY(at >= 0 && all.order.steps[static_cast<std::size_t>(at)].before > at);
    // Near the open end a finger comes to it from there.
    design.structures.front().work->joints.front().to = {4, 60};
    const Made end = made(design);
    QVERIFY(end.order.steps[static_cast<std::size_t>(end.stepOf<Pivot>())].before < 0);
  }
  void aPinUnderAGluedPanelGoesInBeforeIt() {
    Design design = card(120, 150);
    PieceWork arm = plainStrip(30, 10);
    arm.joints = {{{15, 5}, "card/page-a", {75, 60}, given::Pivot()}};
    design = with(design, arm);
    PieceWork cover = plainStrip(20, 8);
    cover.joints = {{{10, 4}, "s1/panel-1", {15, 5}, given::Glue()}};
    design = with(design, cover);
    const Made all = made(design);
    const AssemblyOrder& order = all.order;
    QCOMPARE(order.steps.size(), std::size_t(2));
    QVERIFY(all.is<Pivot>(order.steps[0].joints.front()));
    QCOMPARE(order.steps[0].before, 1);
    QVERIFY(QString::fromStdString(describe(order, design, *assemble(design)).front())
                .contains("before step 2 shuts it in"));
  }
  void whatIsGluedUnderALimbComesBeforeItsPin() {
    Design design = card(120, 150);
    PieceWork arm = plainStrip(30, 10);
    arm.joints = {{{15, 5}, "card/page-a", {75, 60}, given::Pivot()}};
    design = with(design, arm);
    // On the side of the limb that lies on the page, and on the page where the limb lies.
    for (const auto& [face, place] :
         {std::pair{"s1/panel-1-back", Vec2(8, 5)}, std::pair{"card/page-a", Vec2(70, 60)}}) {
      PieceWork under = plainStrip(6, 6);
      under.joints = {{{3, 3}, face, place, given::Glue()}};
      const Made all = made(with(design, under));
      QCOMPARE(all.order.steps.size(), std::size_t(2));
      QVERIFY2(all.is<Glue>(all.order.steps[0].joints.front()), face);
      QCOMPARE(all.order.steps[0].before, 1);
    }
    // On its other side, and beside it, any time is good.
    for (const auto& [face, place] :
         {std::pair{"s1/panel-1", Vec2(25, 5)}, std::pair{"card/page-a", Vec2(30, 20)}}) {
      PieceWork beside = plainStrip(6, 6);
      beside.joints = {{{3, 3}, face, place, given::Glue()}};
      const Made all = made(with(design, beside));
      const int glued = all.stepOf<Glue>();
      QVERIFY(glued >= 0);
      QVERIFY2(all.order.steps[static_cast<std::size_t>(glued)].before < 0, face);
    }
  }
  void slotsThatRunAskewAreOutOfReachInAnyOrder() {
    // A second V-fold locked into a first by two slots that run towards the point in which all
    // creases meet, one of them farther from the creases than the other: it moves as one, but the
    // slots are never parallel.
    Design design = card(150, 150);
    add(design, "vfold", "gutter",
        {{"position", 75}, {"alpha", 60}, {"beta", 45}, {"la", 60}, {"lb", 60}});
    const auto first = assemble(design);
    const Fold& crease =
        first->folds[first->findFold("s1/crease")]; // its flat frame begins where all creases meet
    const double away = 30;
    PieceWork work;
    work.outline = {{-35, 10}, {35, 10}, {35, 60}, {-35, 60}};
    work.lines = {{WorkLine::Kind::Mountain, {0, 10}, {0, 60}}};
    for (const char* key : {"s1/panel-a", "s1/panel-b"}) {
      const bool a = std::string(key) == "s1/panel-a";
      const double inFirst = radians(a ? 20 : 35), inSecond = radians(a ? 24 : 39);
      const Seat& face = *first->findSeat(key);
      const Panel& panel = first->panels[face.sides[0].panel];
      const Vec2 apex(0, 0), along = (crease.to - crease.from).normalized(),
                             middle = boundsOf(panel.outline).centre();
      const double side = cross2(along, middle) > 0 ? 1 : -1;
      const Vec2 way = Eigen::Rotation2Dd(side * inFirst) * along;
      PieceJoint joint;
      given::Slot slot;
      joint.on = key;
      const Iso3 toFace = face.sides[0].toPiece.inverse();
      joint.to = (toFace * lift(Vec2(apex + away * way))).head<2>();
      const Vec3 turned = toFace.linear() * lift(way);
      slot.turn_deg = degrees(std::atan2(turned.y(), turned.x()));
      const double own = a ? 1 : -1;
      joint.at = away * Vec2(-own * std::sin(inSecond), std::cos(inSecond));
      slot.way_deg = 90 + own * degrees(inSecond);
      joint.kind = slot;
      work.joints.push_back(joint);
    }
    design = with(design, work);
    const Analysis analysis = checked(design);
    std::string all;
    for (const Finding& f : analysis.findings)
      all += describe(f, design) + "; ";
    QVERIFY2(analysis.motion->impossible().empty(), all.c_str());
    const Finding* found = findCode(analysis, "unreachable");
    QVERIFY2(found, all.c_str());
    QVERIFY(found->severity == Severity::Spoils && found->amount == 1); // both slots are one act
    QVERIFY(findCode(analysis, "slots-askew"));
  }
  void crossingPiecesAreSlottedBeforeTheLastGlueShutsThemIn() {
    // Two pieces that cross: each stands on both pages, parallel to them all along, and where they
    // meet they run in each other along the gutter, which no page lets them do once all is glued.
    const auto crossing = [](double onA, double onB, double at) {
      PieceWork work = plainStrip(16 + onA + onB, 40);
      using K = WorkLine::Kind;
      for (const auto& [x, kind] : {std::pair{8.0, K::Valley}, std::pair{8 + onB, K::Mountain},
                                    std::pair{8 + onA + onB, K::Valley}})
        work.lines.push_back({kind, {x, 0}, {x, 40}});
      work.joints = {
          {{4, 20}, "card/page-a", {at, onA + 4}, given::Glue{-90, false}},
          {{12 + onA + onB, 20}, "card/page-b", {150 - at, onB + 4}, given::Glue{90, false}}};
      return work;
    };
    const Design one = with(card(130, 150), crossing(30, 60, 40));
    PieceWork other = crossing(60, 30, 70);
    other.joints.push_back({{68, 5}, "s1/panel-2", {30, 35}, given::Slot{90, 90, 0, 0, 0}});
    const Made all = made(with(one, other));
    QVERIFY(all.order.unreachable.empty());
    const int slotted = all.stepOf<Slot>();
    QVERIFY(slotted >= 0);
    const int last = all.order.steps[static_cast<std::size_t>(slotted)].before;
    QCOMPARE(last, static_cast<int>(all.order.steps.size()) - 1);
    // Without the order: the slot with all glue made, and with any one of the four not made.
    const Motion motion = Motion::trace(all.assembly);
    std::vector<JointGroup> glued;
    JointGroup slot;
    for (JointIndex j : all.assembly->joints.indices())
      if (std::holds_alternative<Slot>(all.assembly->joints[j]))
        slot.push_back(j);
      else
        glued.push_back({j});
    QCOMPARE(glued.size(), std::size_t(4));
    for (std::size_t open = 0; open <= glued.size(); ++open) {
      Access access(motion, radians(90));
      for (std::size_t k = 0; k < glued.size(); ++k)
        if (k != open) access.set(glued[k], true);
      QCOMPARE(access.reaches({&slot}), open < glued.size());
    }
  }
  void aRigidPieceOnTwoPanelsIsGluedOnInOneGo() {
    // A strip with no score glued over two panels of the same card page at two places: one body,
    // two glued areas.
    Design design = card(120, 150);
    PieceWork brace = plainStrip(60, 10);
    brace.joints = {{{10, 5}, "card/page-a", {40, 60}, given::Glue()},
                    {{50, 5}, "card/page-a", {80, 60}, given::Glue()}};
    design = with(design, brace);
    const AssemblyOrder order = made(design).order;
    QVERIFY(order.unreachable.empty());
    QCOMPARE(order.steps.size(), std::size_t(1));
    QCOMPARE(order.steps.front().joints.size(), std::size_t(2));
  }
};

QTEST_APPLESS_MAIN(TestOrder)
#include "test_order.moc"
