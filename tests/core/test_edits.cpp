// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/bases/base.h"
#include "core/edits/arrange.h"
#include "core/structures/names.h"
#include "core/structures/registry.h"
#endif

using namespace hinge;
using namespace hinge::test;

// Edits of a design: what they change, what they leave alone, what they refuse.

namespace {

/// Everywhere a new structure of each kind is offered on an empty card.
std::vector<std::pair<std::string, std::string>> places() {
  std::vector<std::pair<std::string, std::string>> all;
  const auto assembly = assemble(card(160, 240));
  for (const StructureKind* kind : structureKinds())
    for (const char* seat : {"gutter", "card/page-a", "card/page-b"})
      if (kind->offeredOn(*assembly->findSeat(seat), *assembly, Settings()))
        all.push_back({std::string(kind->key), seat});
  return all;
}

/// A structure that is not alike on both sides, if its kind can be that.
Design uneven(const std::string& kind, const std::string& seat) {
  Design d = card(160, 240);
  const StructureId id = add(d, kind.c_str(), seat.c_str());
  const StructureItem item = *d.find(id);
  ParameterValues changes;
  for (const ParameterSpec& row : parametersOf(item)) {
    const double value = item.values.at(std::string(row.key));
    if (row.sense == Sense::Hand) changes[std::string(row.key)] = 1;
    if (row.sense == Sense::Turn) changes[std::string(row.key)] = 25;
    if (row.sense == Sense::Place) changes[std::string(row.key)] = value + 7;
  }
  // Foot and wall on one side, so that it still shuts flat.
  if (kind == "box") changes["a"] = item.values.at("a") + 6, changes["c"] = item.values.at("c") - 6;
  const auto edited = setValues(d, id, changes);
  return edited && assembleDesign(*edited) ? *edited : d;
}

/// Middles of all walls of the structures, in space, in a fixed order.
std::vector<Vec3> walls(const Design& design, double opening_rad, double side) {
  const Motion motion = Motion::trace(assemble(design));
  const Pose pose = motion.poseAt(opening_rad);
  std::vector<Vec3> all;
  for (PanelIndex p : motion.assembly().panels.indices()) {
    const Panel& panel = motion.assembly().panels[p];
    if (!panel.owner || panel.use != PanelUse::Wall || !pose.placed[p]) continue;
    Vec3 middle = pose.panels[p] * lift(centroidOf(panel.outline));
    middle.x() *= side;
    all.push_back(middle);
  }
  std::ranges::sort(all, [](const Vec3& a, const Vec3& b) {
    for (int k : {1, 0, 2})
      if (std::abs(a[k] - b[k]) > 1e-4) return a[k] < b[k];
    return false;
  });
  return all;
}

} // namespace

class TestEdits : public QObject {
  Q_OBJECT
private slots:
  // --- adding and changing -------------------------------------------------------------------
  void whatCannotBeAddedIsSaid() {
    const Design d = card();
    QCOMPARE(addStructure(d, "castle", "gutter", {}).error().code(),
             std::string("structure.unknown"));
    const auto missing = addStructure(d, "box", "gutter", {{"position", 60}});
    QVERIFY(!missing.ok());
    Design full = d;
    full.nextId = kLargestStructureNumber + 1;
    QCOMPARE(
        addStructure(full, "box", "gutter", startingValues(boxKind().parameters)).error().code(),
        std::string("structure.numbers"));
    full.nextId = kLargestStructureNumber;
    const auto last = addStructure(full, "box", "gutter", startingValues(boxKind().parameters));
    QVERIFY(last.ok() && last->id.value == kLargestStructureNumber);
    QCOMPARE(addProposed(d, "castle", "gutter", {}).error().code(),
             std::string("structure.unknown"));
    QCOMPARE(addProposed(d, "box", "s9/ridge", {}).error().code(), std::string("seat.missing"));
    QVERIFY(!addProposed(d, "box", "gutter", {{"zz", 3}}).ok());
  }
  void whatIsGivenIsKept() {
    Design d = card(160, 240);
    const StructureId id = add(d, "box", "gutter", {{"position", 33}, {"a", 21}});
    QCOMPARE(d.find(id)->values.at("position"), 33.0);
    QCOMPARE(d.find(id)->values.at("a"), 21.0);
    QCOMPARE(d.find(id)->values.at("b"), 21.0); // its twin follows
    QVERIFY(checked(d).findings.empty());
  }
  void aStoppedSearchStillAdds() {
    std::stop_source stop;
    stop.request_stop();
    const auto added = addProposed(demo("night-market"), "box", "gutter", {}, stop.get_token());
    QVERIFY(added.ok() && added->design.find(added->id));
  }
  void editsOfWhatIsNotThereAreRefused() {
    const Design d = demo("night-market");
    const StructureId none{77};
    QVERIFY(!setValues(d, none, {{"a", 3}}).ok());
    QVERIFY(!setWork(d, none, plainStrip(10, 10)).ok());
    QVERIFY(!setWork(d, StructureId{2}, plainStrip(10, 10)).ok()); // a box carries no work
    QVERIFY(!removeStructure(d, none).ok());
    QVERIFY(!repeatedAlong(d, none, 1, 10).ok());
    QVERIFY(!repeatedAlong(d, StructureId{2}, 0, 10).ok());
    QVERIFY(!copiedToOtherSide(d, none).ok());
    QCOMPARE(copiedToOtherSide(d, StructureId{2}).error().code(),
             std::string("seat.no-other-side"));
  }
  void aMendIsAppliedWholeOrNotAtAll() {
    Design d = card();
    const StructureId id = add(d, "box", "gutter");
    Mend mend;
    mend.edits = {{id, "a", ParameterUnit::Millimetre, 0, 31},
                  {id, "c", ParameterUnit::Millimetre, 0, 44}};
    const auto mended = applyMend(d, mend);
    QVERIFY(mended.ok());
    QCOMPARE(mended->find(id)->values.at("a"), 31.0);
    QCOMPARE(mended->find(id)->values.at("c"), 44.0);
    mend.edits.push_back({id, "d", ParameterUnit::Millimetre, 0, -1});
    const Design before = d;
    QVERIFY(!applyMend(d, mend).ok() && d == before);
  }
  void aPanelsWidthMovesWhatLiesBeyondIt() {
    Design d = demo("canal-frames");
    const StructureItem before = *d.find(StructureId{1});
    const auto wider = setValues(d, StructureId{1}, {{"panel-2", before.values.at("panel-2") + 4}});
    QVERIFY(wider.ok());
    const StructureItem after = *wider->find(StructureId{1});
    for (const auto& [key, value] : before.values)
      QVERIFY_NEAR(after.values.at(key), value + (key == "panel-2" ? 4 : 0), 1e-9);
    const auto was = scoreMarks(*before.work), is = scoreMarks(*after.work);
    QCOMPARE(is.size(), was.size());
    for (std::size_t k = 0; k < was.size(); ++k)
      QVERIFY_NEAR(is[k].low_mm, was[k].low_mm + (k >= 1 ? 4 : 0), 1e-9);
    for (const char* key : {"panel-99", "panel-0", "panel-", "a"})
      QVERIFY(!setValues(d, StructureId{1}, {{key, 12}}).ok());
    QVERIFY(!setValues(d, StructureId{1}, {{"panel-2", 0.1}}).ok());
  }

  // --- mirror images -------------------------------------------------------------------------
  void theImageOfTheImageIsTheStructure_data() {
    QTest::addColumn<QString>("kind");
    QTest::addColumn<QString>("seat");
    for (const auto& [kind, seat] : places())
      QTest::addRow("%s on %s", kind.c_str(), seat.c_str())
          << QString::fromStdString(kind) << QString::fromStdString(seat);
  }
  void theImageOfTheImageIsTheStructure() {
    QFETCH(QString, kind);
    QFETCH(QString, seat);
    const Design d = uneven(kind.toStdString(), seat.toStdString());
    const StructureId id = d.structures.back().id;
    const auto once = mirrored(d, id);
    QVERIFY(once.ok());
    QCOMPARE(once->find(id)->seat, d.find(id)->seat);
    const auto twice = mirrored(*once, id);
    QVERIFY(twice.ok());
    for (const auto& [key, value] : d.find(id)->values)
      QVERIFY2(std::abs(twice->find(id)->values.at(key) - value) < 1e-9, key.c_str());
  }
  void theImageStandsWhereAMirrorShowsIt_data() {
    QTest::addColumn<QString>("kind");
    for (const auto& [kind, seat] : places())
      if (seat == "gutter") QTest::newRow(kind.c_str()) << QString::fromStdString(kind);
  }
  void theImageStandsWhereAMirrorShowsIt() {
    QFETCH(QString, kind);
    const Design d = uneven(kind.toStdString(), "gutter");
    const auto image = mirrored(d, d.structures.back().id);
    QVERIFY(image.ok());
    for (double deg : {60.0, 130.0}) {
      const auto one = walls(d, radians(deg), 1), two = walls(*image, radians(deg), -1);
      QCOMPARE(two.size(), one.size());
      for (std::size_t k = 0; k < one.size(); ++k)
        QVERIFY2((one[k] - two[k]).norm() < 1e-3,
                 fmt::format("wall {}: {} {} {} against {} {} {}", k, one[k].x(), one[k].y(),
                             one[k].z(), two[k].x(), two[k].y(), two[k].z())
                     .c_str());
    }
  }
  void onAFaceLeftAndRightAreExchanged() {
    Design d = card(160, 240);
    const StructureId id = add(d, "figure", "card/page-a",
                               {{"position", 50}, {"up", 30}, {"turn", 20}, {"handed", 0}});
    const auto image = mirrored(d, id);
    QVERIFY(image.ok());
    const ParameterValues& values = image->find(id)->values;
    const double length = assemble(d)->findSeat("card/page-a")->length_mm;
    QCOMPARE(values.at("position"), length - 50);
    QCOMPARE(values.at("up"), 30.0);
    QCOMPARE(values.at("turn"), -20.0);
    QCOMPARE(values.at("handed"), 1.0);
    QCOMPARE(values.at("width"), d.find(id)->values.at("width"));
  }
  void guestsGoToTheOtherSideWithTheirHost() {
    Design d = card(160, 240);
    const StructureId box = add(d, "box", "gutter", {{"position", 60}, {"length", 60}});
    const StructureId guest = add(d, "vfold", "s1/valley-a");
    const auto image = mirrored(d, box);
    QVERIFY(image.ok());
    QCOMPARE(image->find(guest)->seat, std::string("s1/valley-b"));
    QVERIFY(assembleDesign(*image).ok());
    const auto back = mirrored(*image, box);
    QCOMPARE(back->find(guest)->seat, std::string("s1/valley-a"));
  }

  // --- copies --------------------------------------------------------------------------------
  void copiesStandAStepApartWithAllTheyCarry() {
    Design d = card(160, 400);
    const StructureId box = add(d, "box", "gutter", {{"position", 10}, {"length", 40}});
    add(d, "vfold", "s1/ridge");
    d.structures.front().label = "Stall";
    const auto row = repeatedAlong(d, box, 3, 60);
    QVERIFY(row.ok());
    QCOMPARE(row->structures.size(), std::size_t(8));
    int stalls = 0;
    for (const StructureItem& item : row->structures)
      if (item.kind == "box") {
        QCOMPARE(item.values.at("position"), 10.0 + 60 * stalls++);
        QCOMPARE(item.label, std::string("Stall"));
      } else
        QCOMPARE(item.seat, "s" + std::to_string(item.id.value - 1) + "/ridge");
    QCOMPARE(stalls, 4);
    QVERIFY(assembleDesign(*row).ok());
  }
  void aCopyOnTheOtherSideIsAnImage() {
    Design d = card(160, 240);
    add(d, "box", "gutter", {{"position", 60}, {"length", 80}});
    const StructureId fold = add(d, "vfold", "s1/valley-a", {{"alpha", 50}, {"beta", 35}});
    const auto copied = copiedToOtherSide(d, fold);
    QVERIFY(copied.ok());
    const StructureItem& copy = *copied->design.find(copied->id);
    QCOMPARE(copy.seat, std::string("s1/valley-b"));
    QCOMPARE(copy.values.at("alpha"), 35.0);
    QCOMPARE(copy.values.at("beta"), 50.0);
    QVERIFY(*copied->design.find(fold) == *d.find(fold));
  }
  void theOtherSideOfASeatIsNamed() {
    Design d = card(160, 240);
    add(d, "box", "gutter", {{"position", 20}, {"length", 60}});
    add(d, "closed-box", "gutter", {{"position", 140}});
    add(d, "step", "gutter", {{"position", 90}, {"length", 30}, {"a", 20}, {"b", 20}});
    const auto assembly = assemble(d);
    const std::pair<const char*, const char*> keys[] = {{"s1/valley-a", "s1/valley-b"},
                                                        {"card/page-a", "card/page-b"},
                                                        {"card/page-a-back", "card/page-b-back"},
                                                        {"s1/wall-a-back", "s1/wall-b-back"},
                                                        {"s2/near-a", "s2/near-b"},
                                                        {"s3/valley-a", "s3/valley-b"}};
    for (const auto& [one, other] : keys) {
      QVERIFY2(assembly->findSeat(one) && assembly->findSeat(other), one);
      QCOMPARE(assembly->otherSideOf(one), std::string(other));
      QCOMPARE(assembly->otherSideOf(other), std::string(one));
    }
    for (const char* alone : {"gutter", "s1/ridge", "s2/near", "no-seat"})
      QCOMPARE(assembly->otherSideOf(alone), std::string());
  }
  void flapsOfAGateAreTwins() {
    Design d = card(160, 200);
    d.card = *onBase(d.card, "gate");
    const auto assembly = assemble(d);
    QCOMPARE(assembly->otherSideOf("card/page-a"), std::string("card/page-c"));
    QCOMPARE(assembly->otherSideOf("card/page-b"), std::string());
  }
};

QTEST_APPLESS_MAIN(TestEdits)
#include "test_edits.moc"
