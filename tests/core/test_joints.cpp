// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/io/migrations.h"
#include "core/structures/ways.h"
#endif

using namespace hinge;
using namespace hinge::test;

// Joints as a maker gives them, as they stand in an assembly, and as files say them.

namespace {

const std::array<given::Kind, 6> kKinds{
    given::Glue{30, true},  given::Slot{20, 70, 11, 12, 3},
    given::Pivot{40, true}, given::Slide{15, 80, true, -5, 25, 12, 60, 150},
    given::Band{55},        given::Film{66}};

/// A sheet of 40 by 20 on page a, joined there at its point (10, 5) to the point (60, 40).
Design joined(const given::Kind& kind) {
  PieceWork work = plainStrip(40, 20);
  work.joints = {{{10, 5}, "card/page-a", {60, 40}, kind}};
  const auto added = addStructure(card(), "piece", "gutter", {{"position", 0.0}}, work);
  if (!added) qFatal("%s", say(added.error()).c_str());
  return added->design;
}

template <class Kind> const Kind& only(const Assembly& assembly) {
  return (*assembly.every<Kind>().begin()).joint;
}

/// The face of page a, into the page's piece.
Iso3 face(const Assembly& assembly) {
  return assembly.findSeat("card/page-a")->sides[0].toPiece;
}

double apart(const Iso3& a, const Iso3& b) {
  return (a.matrix() - b.matrix()).norm();
}

} // namespace

class TestJoints : public QObject {
  Q_OBJECT
private slots:
  // --- what a maker says ---------------------------------------------------------------------
  void everyKindHasItsWordAndItsNumbers() {
    const std::vector<std::string> numbers{
        "turn_deg",
        "turn_deg way_deg slit_mm face_slit_mm catch_mm",
        "turn_deg hand_from_deg hand_to_deg hand_step_deg over",
        "turn_deg way_deg least_mm most_mm pull_mm pull_from_deg pull_to_deg hand_from_mm "
        "hand_to_mm hand_step_mm over",
        "length_mm",
        "length_mm"};
    for (std::size_t k = 0; k < kKinds.size(); ++k) {
      QCOMPARE(QString::fromUtf8(jointKey(kKinds[k]).data()),
               QString::fromUtf8(kJointKeys[k].data()));
      given::Kind kind = kKinds[k];
      std::string all;
      for (const JointNumber& number : numbersOf(kind)) {
        all += (all.empty() ? "" : " ") + std::string(number.key);
        QCOMPARE(number.isLength(), number.key.ends_with("_mm"));
      }
      QCOMPARE(all, numbers[k]);
    }
  }
  void numbersAreThoseOfTheJoint() {
    given::Kind kind = given::Slide{15, 80, true, -5, 25, 12, 60, 150, 3, 20, 4, 1};
    std::vector<double> values;
    for (const JointNumber& number : numbersOf(kind))
      values.push_back(*number.value);
    QVERIFY((values == std::vector<double>{15, 80, -5, 25, 12, 60, 150, 3, 20, 4, 1}));
    *numbersOf(kind)[3].value = 30;
    QCOMPARE(std::get<given::Slide>(kind).most_mm, 30.0);
  }
  void onlyWhatLiesOnAFaceHasASide() {
    for (const given::Kind& kind : kKinds) {
      const bool lies = !std::holds_alternative<given::Slot>(kind) &&
                        !std::holds_alternative<given::Band>(kind) &&
                        !std::holds_alternative<given::Film>(kind);
      QCOMPARE(byFaceOf(kind) != nullptr, lies);
      if (lies) QVERIFY(*byFaceOf(kind));
    }
  }
  void anotherKindKeepsWhatBothHave() {
    const given::Kind slide = given::Slide{15, 80, true, -5, 25, 12, 60, 150};
    QVERIFY(changedTo(0, slide) == given::Kind(given::Glue{15, true}));
    QVERIFY(changedTo(1, slide) == given::Kind(given::Slot{15, 80, 0, 0, 0}));
    QVERIFY(changedTo(2, slide) == given::Kind(given::Pivot{15, true}));
    QVERIFY(changedTo(3, slide) == slide);
    QVERIFY(changedTo(4, slide) == given::Kind(given::Band{40})); // a length of its own
    QVERIFY(changedTo(5, given::Band{55}) == given::Kind(given::Film{55}));
    // By way of a band, which has no turn, a glue starts anew.
    QVERIFY(changedTo(0, changedTo(4, slide)) == given::Kind(given::Glue{0, false}));
  }
  void glueAndSlidesSayHowThePieceLies() {
    const LiesOn glue = *liesOn(given::Glue{30, false});
    QVERIFY((glue.x - Vec2(std::cos(radians(30)), std::sin(radians(30)))).norm() < 1e-12);
    QVERIFY((glue.y() - Vec2(-std::sin(radians(30)), std::cos(radians(30)))).norm() < 1e-12);
    // By its face it lies the other way up: y is seen on the other hand of x.
    const LiesOn over = *liesOn(given::Glue{30, true});
    QVERIFY((over.x - glue.x).norm() < 1e-12 && (over.y() + glue.y()).norm() < 1e-12);
    // A way of 90 degrees on the piece along 90 degrees on the face: not turned.
    QVERIFY((liesOn(given::Slide{90, 90, false})->x - Vec2(1, 0)).norm() < 1e-12);
    QVERIFY((liesOn(given::Slide{90, 90, true})->x - Vec2(-1, 0)).norm() < 1e-12);
    QVERIFY((liesOn(given::Slide{0, 90, false})->x - Vec2(0, -1)).norm() < 1e-12);
    for (const given::Kind& kind : {kKinds[1], kKinds[2], kKinds[4], kKinds[5]})
      QVERIFY(!liesOn(kind));
  }
  void theImageOfTheImageIsTheJoint() {
    for (const given::Kind& kind : kKinds)
      QVERIFY(mirrored(mirrored(kind)) == kind);
    QVERIFY(mirrored(given::Kind(given::Slot{20, 70, 11, 12, 3})) ==
            given::Kind(given::Slot{-20, 110, 11, 12, 3}));
  }
  void impossibleNumbersAreRefused_data() {
    QTest::addColumn<int>("row");
    QTest::addColumn<QString>("code");
    const char* codes[] = {"work.length", "work.length", "work.length", "work.catch",
                           "work.catch",  "work.slit",   "work.slit",   "work.slide",
                           "work.slide",  "work.slide",  "work.slide",  "work.joint"};
    for (int k = 0; k < 12; ++k)
      QTest::addRow("%d %s", k, codes[k]) << k << QString::fromLatin1(codes[k]);
  }
  void impossibleNumbersAreRefused() {
    QFETCH(int, row);
    QFETCH(QString, code);
    const given::Kind wrong[] = {given::Band{0},
                                 given::Film{-3},
                                 given::Band{1e9},
                                 given::Slot{0, 90, 0, 0, -1},
                                 given::Slot{0, 90, 0, 0, 50.5},
                                 given::Slot{0, 90, -1, 0, 0},
                                 given::Slot{0, 90, 0, -1, 0},
                                 given::Slide{0, 90, false, 5, 4},
                                 given::Slide{0, 90, false, 0, 0, 5, -1, 90},
                                 given::Slide{0, 90, false, 0, 0, 5, 91, 90},
                                 given::Slide{0, 90, false, 0, 0, 5, 90, 181},
                                 given::Glue{std::nan(""), false}};
    PieceWork work = plainStrip(40, 20);
    work.joints = {{{10, 5}, "card/page-a", {60, 40}, wrong[row]}};
    const auto valid = validate(work, "s1");
    QVERIFY(!valid.ok());
    QCOMPARE(QString::fromStdString(valid.error().code()), code);
    QCOMPARE(valid.error().place, std::string("s1.joints[0]"));
  }
  void theWidestNumbersAreTaken() {
    PieceWork work = plainStrip(40, 20);
    for (const given::Kind& kind :
         {given::Kind(given::Slot{0, 90, 0, 0, 50}), given::Kind(given::Slot{0, 90, 0, 0, 0}),
          given::Kind(given::Slide{0, 90, false, 4, 4}),
          given::Kind(given::Slide{0, 90, false, 0, 0, 5, 0, 180})}) {
      work.joints = {{{10, 5}, "card/page-a", {60, 40}, kind}};
      QVERIFY(validate(work, "s1").ok());
    }
  }

  // --- as they stand in an assembly ----------------------------------------------------------
  void glueLaysPointOnPointWithTheTurn() {
    for (bool byFace : {false, true}) {
      const auto assembly = assemble(joined(given::Glue{30, byFace}));
      const Glue& glue = only<Glue>(*assembly);
      QCOMPARE(assembly->panels[glue.tab].key, std::string("s1/panel-1"));
      QCOMPARE(assembly->panels[glue.host].key, std::string("card/page-a"));
      QCOMPARE(glue.byFace, byFace);
      const Iso3 onFace = face(*assembly).inverse() * glue.tabToHost;
      QVERIFY((onFace * Vec3(10, 5, 0) - Vec3(60, 40, 0)).norm() < 1e-9);
      const Vec3 x = onFace.linear().col(0), z = onFace.linear().col(2);
      QVERIFY((x - Vec3(std::cos(radians(30)), std::sin(radians(30)), 0)).norm() < 1e-12);
      QVERIFY_NEAR(z.z(), byFace ? -1.0 : 1.0, 1e-12);
      QCOMPARE(assembly->glueOf(glue.tab), &glue);
    }
  }
  void aPinHoldsBothPointsAndLooksAwayFromTheFace() {
    const auto assembly = assemble(joined(given::Pivot{0, false}));
    const Pivot& pin = only<Pivot>(*assembly);
    const Iso3 onFace = face(*assembly).inverse() * pin.onFirst;
    QVERIFY((onFace.translation() - Vec3(60, 40, 0)).norm() < 1e-9);
    QVERIFY((pin.onSecond.translation() - Vec3(10, 5, 0)).norm() < 1e-12);
    QVERIFY((onFace.linear().col(1) - Vec3(0, 0, 1)).norm() < 1e-12);
    QCOMPARE(pin.onFace(), pin.onFirst.linear()(2, 1) > 0);
    // Turned by a right angle about the pin, its point stays and its other points swing.
    const Iso3 still = face(*assembly).inverse() * turnedInFirst(pin, 0),
               turned = face(*assembly).inverse() * turnedInFirst(pin, 0.5 * kPi);
    for (const Iso3& at : {still, turned})
      QVERIFY((at * Vec3(10, 5, 0) - Vec3(60, 40, 0)).norm() < 1e-9);
    QVERIFY((still * Vec3(20, 5, 0) - Vec3(70, 40, 0)).norm() < 1e-9);
    QVERIFY_NEAR((turned * Vec3(20, 5, 0) - still * Vec3(20, 5, 0)).norm(), 10 * std::sqrt(2.0),
                 1e-9);
  }
  void aSlideRunsAlongItsWayWithoutTurning() {
    const auto assembly = assemble(joined(given::Slide{90, 90, false, -5, 25, 12, 60, 150}));
    const Slide& slide = only<Slide>(*assembly);
    QCOMPARE(slide.least_mm, -5.0);
    QCOMPARE(slide.most_mm, 25.0);
    QCOMPARE(slide.middle_mm(), 10.0);
    for (double way : {0.0, 7.0, -5.0}) {
      const Iso3 at = face(*assembly).inverse() * slidInFirst(slide, way);
      QVERIFY((at * Vec3(10, 5, 0) - Vec3(60, 40 + way, 0)).norm() < 1e-9);
      QVERIFY((at.linear() - Eigen::Matrix3d::Identity()).norm() < 1e-12);
    }
    QVERIFY(slide.pull);
    QCOMPARE(slide.pull->at_mm(radians(30)), 0.0);
    QVERIFY_NEAR(slide.pull->at_mm(radians(105)), 6.0, 1e-12);
    QVERIFY_NEAR(slide.pull->at_mm(radians(170)), 12.0, 1e-12);
    QVERIFY(!only<Slide>(*assemble(joined(given::Slide{90, 90, false, 0, 20}))).pull);
  }
  void aSlotKeepsTheLineOfBothPanels() {
    const auto assembly = assemble(demo("lamp-lattice"));
    int count = 0;
    for (const auto& [index, slot] : assembly->every<Slot>()) {
      ++count;
      // At zero both frames coincide; at any angle the line stays.
      for (double angle : {0.0, 0.7, -1.9}) {
        const Iso3 second = turnedInFirst(slot, angle) * slot.onSecond;
        QVERIFY((second.translation() - slot.onFirst.translation()).norm() < 1e-9);
        QVERIFY_NEAR(second.linear().col(1).dot(slot.onFirst.linear().col(1)), 1.0, 1e-12);
      }
      QVERIFY(apart(turnedInFirst(slot, 0) * slot.onSecond, slot.onFirst) < 1e-9);
      QVERIFY(slot.slitShort_mm <= 1e-9);
      QCOMPARE(assembly->ownerOf(assembly->joints[index])->value, 2);
    }
    QCOMPARE(count, 2);
  }
  void bandsAndFilmsJoinTwoPoints() {
    const auto band = assemble(joined(given::Band{55})), film = assemble(joined(given::Film{66}));
    const Band& soft = only<Band>(*band);
    QCOMPARE(soft.length_mm, 55.0);
    QCOMPARE(only<Film>(*film).length_mm, 66.0);
    QVERIFY((soft.at[1] - Vec2(10, 5)).norm() < 1e-12);
    const Vec3 there = face(*band).inverse() * lift(soft.at[0]);
    QVERIFY((there - Vec3(60, 40, 0)).norm() < 1e-9);
    QCOMPARE(band->panels[soft.panels[0]].key, std::string("card/page-a"));
    QCOMPARE(band->panels[soft.panels[1]].key, std::string("s1/panel-1"));
  }
  void everyJointSaysItsPanelsItsOwnerAndItsWord() {
    for (std::size_t k = 0; k < kKinds.size(); ++k) {
      if (std::holds_alternative<given::Slot>(kKinds[k])) continue; // has no room on this sheet
      const auto assembly = assemble(joined(kKinds[k]));
      QCOMPARE(assembly->joints.size(), std::size_t(1));
      const Joint& joint = assembly->joints[JointIndex(0)];
      QCOMPARE(QString::fromUtf8(jointKey(joint).data()), QString::fromUtf8(kJointKeys[k].data()));
      const auto [there, joins] = panelsOf(joint);
      QCOMPARE(assembly->panels[there].key, std::string("card/page-a"));
      QCOMPARE(assembly->panels[joins].key, std::string("s1/panel-1"));
      QCOMPARE(assembly->ownerOf(joint)->value, 1);
      const bool guides = k == 2 || k == 3, ties = k >= 4;
      QCOMPARE(guideOf(joint) != nullptr, guides);
      QCOMPARE(tieOf(joint) != nullptr, ties);
    }
  }
  void walkingThroughAKindFindsAllOfIt() {
    const auto assembly = assemble(demo("waving-boatmen"));
    std::set<JointIndex> found;
    for (const auto& [j, joint] : assembly->every<Glue>())
      QVERIFY(found.insert(j).second && std::get_if<Glue>(&assembly->joints[j]) == &joint);
    for (const auto& [j, joint] : assembly->every<Pivot>())
      QVERIFY(found.insert(j).second && std::get_if<Pivot>(&assembly->joints[j]) == &joint);
    for (const auto& [j, joint] : assembly->every<Slide>())
      QVERIFY(found.insert(j).second && std::get_if<Slide>(&assembly->joints[j]) == &joint);
    for (const auto& item : assembly->every<Band>())
      QVERIFY2(false, item.joint.key.c_str());
    QCOMPARE(found.size(), assembly->joints.size());
    // The first glue of a tab is the one it is known by.
    for (const auto& [j, glue] : assembly->every<Glue>())
      QVERIFY(assembly->panels[glue.tab].gluedBy <= j);
  }

  // --- as files say them ---------------------------------------------------------------------
  void aMigrationChangesWordsAndLeavesTheRest() {
    Json project = Json::parse(R"({"version": 1, "rain": [1, 2], "structures": [
      {"id": "s1", "work": {"joints": [
        {"kind": "elastic", "by": "back", "at": [1, 2], "colour": "amber"},
        {"kind": "tie", "by": "face"}, {"kind": "slot", "by": "back", "way_deg": 80},
        {"kind": "glue", "by": "face"}, {"kind": 7, "by": "face"}, "no joint"]}},
      {"id": "s2", "values": {}}, {"id": "s3", "work": 5}, "no structure"]})");
    migrate(project);
    QCOMPARE(project.at("version").get<int>(), kFormatVersion);
    const Json& joints = project.at("structures")[0].at("work").at("joints");
    QCOMPARE(joints[0].dump(), std::string(R"({"kind":"band","at":[1,2],"colour":"amber"})"));
    QCOMPARE(joints[1].dump(), std::string(R"({"kind":"film"})"));
    QCOMPARE(joints[2].dump(), std::string(R"({"kind":"slot","way_deg":80})"));
    QCOMPARE(joints[3].dump(), std::string(R"({"kind":"glue","by":"face"})"));
    QCOMPARE(joints[4].dump(), std::string(R"({"kind":7,"by":"face"})"));
    QCOMPARE(project.at("rain").dump(), std::string("[1,2]"));
    const std::string once = project.dump();
    migrate(project);
    QCOMPARE(project.dump(), once);
  }
  void everyKindIsSavedAndReadBack() {
    for (const given::Kind& kind : kKinds) {
      if (std::holds_alternative<given::Slot>(kind)) continue;
      const Design d = joined(kind);
      const std::string text = designToJson(d);
      const auto read = designFromJson(text);
      QVERIFY2(read.ok(), read.ok() ? "" : say(read.error()).c_str());
      QVERIFY(*read == d);
      QCOMPARE(text.find("\"by\"") != std::string::npos, byFaceOf(kind) != nullptr);
    }
  }
};

QTEST_APPLESS_MAIN(TestJoints)
#include "test_joints.moc"
