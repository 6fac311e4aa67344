// SPDX-License-Identifier: GPL-3.0-or-later
#include "kept.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/laying.h"
#include "core/edits/sheet.h"
#include "core/model/snapshot.h"
#include "core/pieces/profile.h"
#include "core/pieces/score_edits.h"
#include "core/pieces/sheet_words.h"
#include "core/pieces/strokes.h"
#endif

using namespace hinge;
using namespace hinge::test;

// What hands and sentences make of the sheets of the cards that come with the program: see kept.h.

namespace {

constexpr LengthUnit kMm = LengthUnit::Millimetre;

/// The same numbers on every machine, which the standard's distributions do not promise.
double one(const PieceWork& work) {
  double sum = test::one(work.outline) + static_cast<double>(work.outline.size());
  for (const Polygon& window : work.windows)
    sum += 1.3 * test::one(window) + static_cast<double>(window.size());
  for (const WorkLine& line : work.lines) {
    sum += test::one(line.from) + 1.9 * test::one(line.to) + 7 * static_cast<int>(line.kind);
    if (line.moves) sum += line.moves->shut_deg + 1.7 * line.moves->open_deg;
    sum += line.folded_deg.value_or(0.3);
  }
  for (const PieceJoint& joint : work.joints) {
    given::Kind kind = joint.kind;
    sum += test::one(joint.at) + 1.9 * test::one(joint.to) + test::one(joint.on);
    for (const JointNumber& number : numbersOf(kind))
      sum += test::one(number.key) * 1e-3 * *number.value;
  }
  return sum;
}

void add(Numbers& n, const std::string& name, const Result<PieceWork>& made) {
  if (made)
    n[name] += one(*made);
  else
    addRefused(name, made.error(), 1, n);
}
void add(Numbers& n, const std::string& name, const Result<SheetInWork>& made) {
  if (made) {
    n[name] += one(made->work) + test::one(made->ground.value_or(Vec2(0.1, 0.2)));
  } else
    addRefused(name, made.error(), 1, n);
}

/// A point to press or to point at: half of them near something that can be held.
Vec2 somewhere(const PieceWork& work, Dice& dice) {
  const Vec2 beside(dice.between(-1.5, 1.5), dice.between(-1.5, 1.5));
  switch (dice.below(8)) {
  case 0: return work.outline[dice.below(work.outline.size())] + beside;
  case 1: {
    const Edge edge = edgesOf(work.outline)[dice.below(work.outline.size())];
    return edge.first + dice.between(0, 1) * (edge.second - edge.first) + beside;
  }
  case 2:
  case 3:
    if (!work.lines.empty()) {
      const WorkLine& line = work.lines[dice.below(work.lines.size())];
      const double share = std::array{0.0, 0.5, 0.7, 1.0}[dice.below(4)];
      return line.from + share * (line.to - line.from) + beside;
    }
    [[fallthrough]];
  case 4:
    if (!work.windows.empty()) {
      const Polygon& window = work.windows[dice.below(work.windows.size())];
      return (dice.below(2) == 0 ? window[dice.below(window.size())] : boundsOf(window).centre()) +
             beside;
    }
    [[fallthrough]];
  default: return dice.in(boundsOf(work.outline), 8);
  }
}

Stroke anyStroke(const PieceWork& work, Dice& dice) {
  Stroke stroke;
  stroke.tool = static_cast<SheetTool>(dice.below(8));
  if (dice.below(3) == 0) stroke.tool = SheetTool::Hold;
  stroke.from = somewhere(work, dice), stroke.to = somewhere(work, dice);
  if (dice.below(3) == 0) stroke.to[static_cast<int>(dice.below(2))] += 0.05 + stroke.from.x() * 0;
  if (dice.below(3) == 0) {
    const int axis = static_cast<int>(dice.below(2)); // nearly straight
    stroke.to[axis] = stroke.from[axis] + dice.between(-2, 2);
  }
  stroke.pressed = dice.below(5) != 0;
  stroke.snapping = {dice.below(4) == 0 ? 0 : 0.5, 2};
  stroke.grip = gripAt(work, stroke.from, 2);
  if (stroke.grip.what == Grip::What::Line || stroke.grip.what == Grip::What::LineFrom ||
      stroke.grip.what == Grip::What::LineTo)
    stroke.snapping.line = stroke.grip.index;
  stroke.fold = static_cast<WorkLine::Kind>(dice.below(2));
  stroke.opening = static_cast<DrawnShape>(dice.below(4));
  stroke.corner = static_cast<CornerCut>(dice.below(2));
  stroke.bevel_deg = std::array{30.0, 45.0}[dice.below(2)];
  stroke.fromFarEnd = dice.below(2) == 0, stroke.carry = dice.below(2) == 0;
  if (dice.below(3) == 0)
    for (std::size_t k = 0; k <= dice.below(3); ++k)
      stroke.typed.push_back(std::round(dice.between(1, 60)));
  if (stroke.cornerByCorner())
    for (std::size_t k = 0; k < 2 + dice.below(4); ++k)
      stroke.corners.push_back(dice.in(boundsOf(work.outline), 0));
  return stroke;
}

void addStrokes(const SheetInWork& sheet, Dice& dice, Numbers& n) {
  for (int k = 0; k < 250; ++k) {
    const Stroke stroke = anyStroke(sheet.work, dice);
    const Drawn drawn = drawnBy(sheet, stroke, kMm);
    const std::string tool = fmt::format("stroke {} ", static_cast<int>(stroke.tool));
    n["grips"] += static_cast<int>(stroke.grip.what) + 0.1 * double(stroke.grip.index) +
                  0.01 * double(stroke.grip.corner);
    n[tool + "at"] += test::one(drawn.at.at) + static_cast<int>(drawn.at.to);
    for (const StrokeMeasure& m : drawn.measures)
      n[tool + "measures"] +=
          test::one(m.from) + 1.9 * test::one(m.to) + 2.3 * m.value + 0.7 * m.angle + 0.3 * m.typed;
    for (const Edge& edge : drawn.ghost)
      n[tool + "ghost"] += test::one(edge.first) + 1.9 * test::one(edge.second);
    if (!drawn.sentence.empty()) add(n, tool, workedBy(sheet, drawn.sentence, kMm));
  }
}

void addSnaps(const PieceWork& work, Dice& dice, Numbers& n) {
  for (int k = 0; k < 60; ++k) {
    const Vec2 at = somewhere(work, dice), from = somewhere(work, dice);
    const Snapping how{k % 3 == 0 ? 0 : 0.5, 2.5};
    const Snapped point = snappedPoint(work, at, how);
    n["points"] += test::one(point.at) + 3 * static_cast<int>(point.to);
    if (const auto parallel = snappedParallel(work, from, at, how))
      n["parallels"] += test::one(*parallel);
    for (const int axis : {0, 1}) {
      const SnappedPlace place = snappedPlace(work, axis, at[axis], how);
      n["places"] += (1 + axis) * place.at + 3 * static_cast<int>(place.to);
    }
  }
}

/// Sentences of a hand and of a maker, with places of the sheet put in, right ones and wrong ones.
void addSentences(const SheetInWork& sheet, Dice& dice, Numbers& n) {
  const Box2 box = boundsOf(sheet.work.outline);
  const auto place = [&]() -> Vec2 { return somewhere(sheet.work, dice) - box.low; };
  for (const char* sentence : {"lean {0:.3f} 12",
                               "lean {0:.3f} -70",
                               "repeat {0:.3f} every 9 times 3",
                               "repeat {0:.3f} every 7 turning",
                               "repeat {0:.3f} every 7 times 0",
                               "repeat {0:.3f} every 7 times 2.5",
                               "alike",
                               "kink {0:.3f},{1:.3f}",
                               "smooth {0:.3f},{1:.3f}",
                               "round {0:.3f},{1:.3f} by 4",
                               "snip {0:.3f},{1:.3f} by 6",
                               "corners round 5",
                               "close {0:.3f},{1:.3f}",
                               "turn {0:.3f}",
                               "erase {0:.3f}",
                               "move {0:.3f} to {2:.3f}",
                               "move {0:.3f} to {2:.3f} carrying",
                               "tab left 10 v",
                               "tab top 12 m",
                               "tab at {0:.3f},{1:.3f} 9 v bevel 50",
                               "fold {0:.3f} held at 90",
                               "fold {0:.3f} opens to 120",
                               "score {0:.3f} v, {2:.3f} m",
                               "score {0:.3f} > {2:.3f} v",
                               "score across {1:.3f} m",
                               "reverse {0:.3f} to {2:.3f} between {1:.3f} and {3:.3f}",
                               "opening {0:.3f},{1:.3f} to {2:.3f},{3:.3f}",
                               "opening disc {0:.3f},{1:.3f} across 8",
                               "opening ring {0:.3f},{1:.3f} from 6 to 14 towards 40 wide 70",
                               "cut {0:.3f},{1:.3f} to {2:.3f},{3:.3f}",
                               "pull edge {0:.3f},{1:.3f} to {2:.3f}",
                               "corner at {0:.3f},{1:.3f}",
                               "size {2:.3f} x {3:.3f}",
                               "loosen {0:.3f},{1:.3f}"})
    for (int k = 0; k < 8; ++k) {
      Vec2 p = place();
      const Vec2 q = place();
      if (!sheet.work.lines.empty() && k < 4)
        p = sheet.work.lines[dice.below(sheet.work.lines.size())].from - box.low;
      if (k == 4) p = sheet.work.outline[dice.below(sheet.work.outline.size())] - box.low;
      if (k == 5) p = 0.25 * box.size();
      const std::string said = fmt::format(fmt::runtime(sentence), p.x(), p.y(), q.x(), q.y());
      add(n, "\"" + said.substr(0, said.find(' ')) + "\"", workedBy(sheet, said, kMm));
    }
}

void addProfile(const Assembly& assembly, const Pose& pose, const StructureItem& item, Numbers& n) {
  const auto profile = profileOf(assembly, pose, Iso3::Identity(), item.id, *item.work);
  if (!profile) return;
  n["profile"] += test::one(profile->corners);
  for (const Polygon& page : profile->pages)
    n["pages"] += test::one(page);
  for (std::size_t k = 0; k < profile->lines.size(); ++k) {
    n["ridges"] += at(k) * (profile->angle_deg(k) + 1.7 * profile->height_mm(k));
    for (const char* wish : {"25 high at 80", "18", "at 100deg"})
      add(n, "ridge", withRidge(*item.work, *profile, k, *ridgeWish(wish, kMm)));
  }
}

void addLying(const Design& design, const Assembly& assembly, const Pose& pose,
              const StructureItem& item, Dice& dice, Numbers& n) {
  const SheetTarget target{item.id, 0};
  for (const PieceJoint& joint : item.work->joints)
    for (int k = 0; k < 4; ++k) {
      HeldSheet lying{joint.kind.index(),      joint.at,          joint.on, joint.to,
                      dice.between(-180, 180), dice.below(2) == 0};
      lying.to += Vec2(dice.between(-3, 3), dice.between(-3, 3));
      n["turns"] += turnFor(assembly, pose, target, *item.work, lying);
      if (k % 2 == 0) lying.turn_deg = turnFor(assembly, pose, target, *item.work, lying);
      n["on faces"] += test::one(onFace(lying));
      n["held"] += test::one(heldPanel(*item.work, lying.at));
      const LaySnap snap = snappedLying(assembly, *item.work, lying, 2.5, k == 3 ? 0 : 0.5);
      n["laid"] += test::one(snap.to) + 3 * snap.flush;
      n["starts"] += test::one(layingStart(*item.work, lying));
      n["starts"] += test::one(layingPointFor(*item.work, lying, Vec2(7, 11)));
      const auto made = jointOf(design, assembly, pose, target, lying);
      if (!made) {
        addRefused("joints", made.error(), 1, n);
        continue;
      }
      PieceWork alone;
      alone.joints = {*made};
      n["joints"] += one(alone);
    }
}

Numbers numbersOf(const Design& design) {
  Numbers n;
  Dice dice(11);
  std::vector<SheetInWork> sheets;
  for (std::size_t k = 0; k < design.card.sheets.size(); ++k)
    sheets.push_back(sheetOf(design, {{}, k}));
  const Snapshot snapshot(design);
  const auto motion = snapshot.motion();
  const Pose pose = motion->poseAt(0.4 * motion->low_rad() + 0.6 * motion->high_rad());
  for (const StructureItem& item : design.structures) {
    if (!item.work) continue;
    sheets.push_back(sheetOf(design, {item.id, 0}));
    addProfile(motion->assembly(), pose, item, n);
    addLying(design, motion->assembly(), pose, item, dice, n);
  }
  for (const SheetInWork& sheet : sheets) {
    addStrokes(sheet, dice, n);
    addSnaps(sheet.work, dice, n);
    addSentences(sheet, dice, n);
  }
  return n;
}

} // namespace

class TestKeptHands : public KeptTest {
  Q_OBJECT
public:
  TestKeptHands() : KeptTest("kept_hands.json") {}

private slots:
  void sheetsOfSentencesToo_data() {
    QTest::addColumn<QString>("sentences");
    QTest::newRow("scores") << "size 100 x 60; score 40 v, 60 > 70 m, 85 v; score across 20 m";
    QTest::newRow("openings") << "size 120 x 80; score 60 m; opening disc 30,30 across 14; opening "
                                 "80,20 to 100,50; cut 10,60 to 40,65";
    QTest::newRow("slanted")
        << "outline 0,0 100,10 80,60 20,50; score 30,30 to 70,30 v; kink 50,5; tab at 90,35 "
           "8 m";
    QTest::newRow("sections") << "size 140 x 60; score 70 v; reverse 50 to 95 between 15 and 40; "
                                 "score 20 v from 0 to 30";
  }
  void sheetsOfSentencesToo() {
    QFETCH(QString, sentences);
    const auto sheet = workedBy({}, sentences.toStdString(), kMm);
    QVERIFY2(sheet.ok(), sheet ? "" : hinge::say(sheet.error()).c_str());
    Numbers n;
    Dice dice(23);
    for (int k = 0; k < 6; ++k)
      addStrokes(*sheet, dice, n);
    addSnaps(sheet->work, dice, n);
    addSentences(*sheet, dice, n);
    compare(QTest::currentDataTag(), n);
  }
  void handsMakeWhatTheyMade_data() {
    rowsOfDemos([](const std::string& name) {
      const Design design = demoAsItComes(name);
      return !design.card.sheets.empty() ||
             std::ranges::any_of(design.structures,
                                 [](const auto& item) { return item.work.has_value(); });
    });
  }
  void handsMakeWhatTheyMade() {
    QFETCH(QString, name);
    compare(name.toStdString(), numbersOf(demoAsItComes(name.toStdString())));
  }
};

QTEST_GUILESS_MAIN(TestKeptHands)
#include "test_kept_hands.moc"
