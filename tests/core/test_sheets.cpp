// SPDX-License-Identifier: GPL-3.0-or-later
#include "seeds.h"
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/bases/base.h"
#include "core/edits/arrange.h"
#include "core/edits/edits.h"
#include "core/edits/sheet.h"
#include "core/geom/rim.h"
#include "core/io/design_json.h"
#include "core/pieces/piece_sheet.h"
#include "core/pieces/sheet_edits.h"
#include "core/states/lift.h"
#include "core/structures/registry.h"
#include "words/words.h"
#include <random>
#endif

using namespace hinge;
using namespace hinge::test;

// A base as its maker scores, cuts and joins it, and the words in which that is said.

namespace {

using Kind = WorkLine::Kind;

Result<SheetInWork> worked(SheetInWork sheet, std::initializer_list<const char*> sentences,
                           LengthUnit unit = LengthUnit::Millimetre) {
  for (const char* sentence : sentences) {
    auto next = workedBy(sheet, sentence, unit);
    if (!next) return next;
    sheet = std::move(next).value();
  }
  return sheet;
}

/// A sheet of the base, worked by sentences that must be understood.
SheetInWork sheet(std::initializer_list<const char*> sentences,
                  LengthUnit unit = LengthUnit::Millimetre) {
  const auto made = worked({{}, true, {}}, sentences, unit);
  if (!made) qFatal("%s", hinge::say(made.error()).c_str());
  return *made;
}

Design onSheets(const std::vector<SheetInWork>& sheets) {
  Design d = card();
  d.card = *onBase(d.card, "sheet");
  d.card.sheets.clear();
  for (const SheetInWork& s : sheets)
    d.card.sheets.push_back(s.work);
  d.card.ground = sheets.front().ground;
  return d;
}

std::string refusal(const SheetInWork& on, const char* sentence) {
  const auto made = workedBy(on, sentence, LengthUnit::Millimetre);
  return made ? "" : made.error().message.key;
}

/// A sheet with everything that can be said of one, at random.
class AnySheet {
public:
  explicit AnySheet(unsigned seed) : m_random(seed) {}
  SheetInWork make() {
    SheetInWork s;
    s.base = chance();
    s.work.outline = plainStrip(150 + any(40), 80).outline;
    if (chance()) s.work.outline[2].x() -= 20.25; // no rectangle
    const double wide = s.work.outline[2].x();
    for (double x = 10 + any(20); x < wide - 10; x += 25 + any(20)) {
      WorkLine line{chance() ? Kind::Valley : Kind::Mountain, {x, 0}, {x, 80}};
      if (any(3) == 0) line.to.x() += 4.5;
      if (any(3) == 0) line.from.y() = 10.5, line.to.y() = 50;
      // From edge to edge of a base a score follows the opening unless it is told otherwise.
      line.moves = moves(s.base);
      if (chance()) line.folded_deg = any(180);
      s.work.lines.push_back(line);
    }
    s.work.lines.push_back({Kind::Cut, {20, 55}, {30.5, 60}});
    if (chance()) s.work.windows.push_back(rectangle({60, 60}, {70.5, 70}));
    if (chance()) s.work.windows.push_back(disc({90, 65}, 11));
    if (chance()) s.work.windows.push_back({{100, 60}, {110, 60}, {104, 72}});
    while (s.work.joints.size() < 4) {
      s.work.joints.push_back(joint());
      if (!validate(s.work, "")) s.work.joints.pop_back(); // numbers that do not go together
    }
    if (s.base && chance()) s.ground = Vec2(5.5, 70);
    return s;
  }

private:
  unsigned any(unsigned most) { return static_cast<unsigned>(m_random() % (most + 1)); }
  bool chance() { return any(1) == 1; }
  double some(double low) { return low + 0.5 * any(60); }
  std::optional<FoldMoves> moves(bool base) {
    switch (any(4)) {
    case 0: return std::nullopt;
    case 1: return FoldMoves{some(20), some(90), 0, 180, true, chance() ? 0 : some(1)};
    case 2: {
      const double held = some(30);
      return FoldMoves{held, held};
    }
    case 3:
      return FoldMoves{chance() ? 0 : some(5), some(90), chance() ? 0 : some(3),
                       chance() ? 180 : some(60)};
    default: return base ? std::optional<FoldMoves>(FoldMoves()) : std::nullopt;
    }
  }
  PieceJoint joint() {
    PieceJoint j{{2.5 + any(4), 4},
                 chance() ? "card/page-a" : "s2/panel-1-back",
                 {some(3), some(-8)},
                 changedTo(any(5), given::Glue())};
    if (bool* byFace = byFaceOf(j.kind)) *byFace = chance();
    for (JointNumber& number : numbersOf(j.kind))
      if (chance()) *number.value = number.key == "over" ? any(20) : some(1);
    if (auto* glue = std::get_if<given::Glue>(&j.kind); glue && chance())
      glue->area = {{1, 1}, {6, 1}, {6, 9.5}};
    return j;
  }
  std::mt19937 m_random;
};

} // namespace

class TestSheets : public QObject {
  Q_OBJECT
private slots:
  // --- in words
  void scoresAreReadInAnyUnitAndMark() {
    const SheetInWork s =
        sheet({"size 12 x 6", "score 2 1/2 v, 60mm m, 8 3/4 in valley"}, LengthUnit::Inch);
    QCOMPARE(s.work.lines.size(), std::size_t(3));
    QVERIFY_NEAR(s.work.outline[2].x(), 304.8, 1e-9);
    QVERIFY_NEAR(s.work.lines[0].from.x(), 63.5, 1e-9);
    QVERIFY_NEAR(s.work.lines[1].from.x(), 60.0, 1e-9);
    QVERIFY_NEAR(s.work.lines[2].from.x(), 222.25, 1e-9);
    QVERIFY(s.work.lines[1].kind == Kind::Mountain && s.work.lines[2].kind == Kind::Valley);
    for (const WorkLine& line : s.work.lines) {
      QVERIFY(line.moves.has_value()); // of a base from edge to edge: it follows the opening
      QVERIFY_NEAR(line.to.y(), 152.4, 1e-9);
    }
  }
  void slantedPartlyLevelAndFreeScores() {
    const SheetInWork s = sheet({"size 200 x 100", "score 40 > 50 v", "score 80 m from 20 to 60",
                                 "score across 70 v held at 90", "score 10,10 to 30,40 m free",
                                 "score 120 v opens from 180 to 60 between 20 and 90"});
    QCOMPARE(s.work.lines.size(), std::size_t(5));
    QVERIFY_NEAR((s.work.lines[0].from - Vec2(40, 0)).norm(), 0.0, 1e-12);
    QVERIFY_NEAR((s.work.lines[0].to - Vec2(50, 100)).norm(), 0.0, 1e-12);
    QVERIFY_NEAR((s.work.lines[1].from - Vec2(80, 20)).norm(), 0.0, 1e-12);
    QVERIFY_NEAR((s.work.lines[1].to - Vec2(80, 60)).norm(), 0.0, 1e-12);
    QVERIFY(!s.work.lines[1].moves && !s.work.lines[3].moves);
    QVERIFY_NEAR((s.work.lines[2].to - Vec2(200, 70)).norm(), 0.0, 1e-12);
    QVERIFY((s.work.lines[2].moves == FoldMoves{90, 90}));
    QVERIFY((s.work.lines[4].moves == FoldMoves{180, 60, 20, 90}));
  }
  void whatCannotBeUnderstoodIsRefusedWithTheWordsBeforeIt() {
    const SheetInWork s = sheet({"size 200 x 100", "score 60 v"});
    for (const char* size : {"size -3 x 50", "size 50 x 0", "size 50 x 0.9"})
      QCOMPARE(refusal(s, size), std::string("sheet.size"));
    QCOMPARE(refusal(s, "size 1 x 1"), std::string("work.line-outside")); // its score stays behind
    QCOMPARE(refusal(s, "skore 80 v"), std::string("sheet.no-verb"));
    QVERIFY(say(workedBy(s, "skore 80 v", LengthUnit::Millimetre).error())
                .find("did you mean \"score\"?") != std::string::npos);
    QVERIFY(say(workedBy(s, "glew 5,5 on card/page-a at 40,40", LengthUnit::Millimetre).error())
                .find("did you mean \"glue\"?") != std::string::npos);
    // Named by its whole words.
    QCOMPARE(
        workedBy(s, " glue 5,5 on card/page-a left edge 12 from outer edge", LengthUnit::Millimetre)
            .error()
            .place,
        std::string("glue 5,5 on card/page-a left edge 12 ..."));
    QCOMPARE(refusal(s, "score 80"), std::string("sheet.sentence/end"));
    QCOMPARE(refusal(s, "score 80 w"), std::string("sheet.sentence"));
    QCOMPARE(refusal(s, "score 80 v 90"), std::string("sheet.sentence/no-more"));
    QCOMPARE(refusal(s, "score 60 m"), std::string("work.order/there"));
    QCOMPARE(refusal(s, "score 260 m"), std::string("work.score-outside"));
    QCOMPARE(refusal(s, "turn 61"), std::string("sheet.no-line"));
    QCOMPARE(refusal(s, "erase 90,40"), std::string("sheet.no-line/at"));
    QCOMPARE(refusal(s, "fold 60 perhaps"), std::string("sheet.sentence"));
    QCOMPARE(refusal(s, "fold 60 opens to 400"), std::string("work.moves"));
    QCOMPARE(refusal(s, "reverse 50 to 40 between 10 and 20"), std::string("sheet.reverse/order"));
    QCOMPARE(refusal(s, "reverse 80 to 90 between 10 and 20"),
             std::string("sheet.reverse/nothing"));
    QCOMPARE(refusal(s, "tab right 300 v"), std::string("sheet.tab-deep"));
    QCOMPARE(refusal(s, "corners round 60"), std::string("sheet.radius"));
    QCOMPARE(refusal(s, "loosen 10,10"), std::string("sheet.no-joint"));
    QCOMPARE(refusal(s, "opening 10,10 20,20"), std::string("sheet.sentence/end"));
    QCOMPARE(refusal(s, "cut 10,10 to 300,10"), std::string("work.line-outside"));
  }
  void refusalsNameThePlaceAndTheWord() {
    // Places are read from the left end, which a tab on the left has moved.
    const SheetInWork s = sheet({"size 200 x 100", "score 60 v", "tab left 10 v"});
    const auto missed = workedBy(s, "erase 90,40", LengthUnit::Millimetre);
    QCOMPARE(hinge::say(missed.error().message), std::string("there is no line at 90 mm, 40 mm"));
    const auto word = workedBy(s, "reverse 50 and 80 between 20 and 40", LengthUnit::Millimetre);
    QCOMPARE(hinge::say(word.error().message),
             std::string("expected to before \"and 80 between 20 and 40\""));
    const auto later = workedBy(s, "reverse 50 to 80 between 20 to 40", LengthUnit::Millimetre);
    QCOMPARE(hinge::say(later.error().message), std::string("expected and before \"to 40\""));
    QCOMPARE(refusal(s, "score 100 > 300 v"), std::string("work.score-outside"));
    QCOMPARE(refusal(s, "score 300 > 100 v"), std::string("work.score-outside"));
    // Both ends of a slanted score count from the lower edge up.
    const SheetInWork slanted = *worked(s, {"score 130 > 140 m"});
    QVERIFY_NEAR((slanted.work.lines.back().to - Vec2(130, 100)).norm(), 0.0, 1e-9);
  }
  void sheetsAreDescribedAsTheirMakersWould() {
    const SheetInWork s = sheet({"size 200 x 100", "score 60 v held at 90", "score 120 m free",
                                 "opening 10,10 to 30,20", "opening disc 90,50 across 20",
                                 "opening 150,10 170,10 160,30"});
    const std::vector<std::string> expected{
        "size 200 x 100",         "score 60 valley held at 90",   "score 120 mountain free",
        "opening 10,10 to 30,20", "opening disc 90,50 across 20", "opening 150,10 170,10 160,30"};
    const auto told = sentencesOf(s, LengthUnit::Millimetre);
    QCOMPARE(told.size(), expected.size());
    for (std::size_t k = 0; k < told.size(); ++k)
      QCOMPARE(told[k], expected[k]);
  }
  void linesAreTurnedMovedAndErased() {
    SheetInWork s = sheet({"size 200 x 100", "score 60 v, 120 m", "cut 80,20 to 100,20"});
    s = *worked(s, {"turn 60", "move 120 to 130", "erase 90,20"});
    QCOMPARE(s.work.lines.size(), std::size_t(2));
    QVERIFY(s.work.lines[0].kind == Kind::Mountain);
    QVERIFY_NEAR(s.work.lines[1].from.x(), 130.0, 1e-12);
  }
  void paperIsAddedRoundedAndOpened() {
    const SheetInWork s = sheet({"size 100 x 50", "tab right 12 v", "opening 10,10 to 30,20",
                                 "opening disc 60,25 across 20"});
    QCOMPARE(s.work.outline.size(), std::size_t(6));
    const double lean = 12 * std::tan(radians(starting::kTabBevel_deg));
    QVERIFY_NEAR(std::abs(signedArea_mm2(s.work.outline)), 5000 + 12 * (50 - lean), 1e-9);
    QCOMPARE(s.work.windows.size(), std::size_t(2));
    for (const Vec2& p : s.work.windows[1])
      QVERIFY_NEAR((p - Vec2(60, 25)).norm(), 10.0, 1e-9);
    const SheetInWork round = sheet({"size 100 x 50", "corners round 10"});
    // The chords lie inside the arcs, by 0.05 mm at most.
    const double area = std::abs(signedArea_mm2(round.work.outline)),
                 exact = 5000 - (4 - kPi) * 100;
    QVERIFY(area < exact && area > exact - 2 * kPi * 10 * 0.05);
  }
  void anySheetComesBackFromItsSentences_data() { rowsOfSeeds(60); }
  void anySheetComesBackFromItsSentences() {
    QFETCH(unsigned, seed);
    const SheetInWork s = AnySheet(seed).make();
    const auto in = seed % 2 == 0 ? LengthUnit::Millimetre : LengthUnit::Inch;
    SheetInWork again{{}, s.base, {}};
    std::string said;
    for (const std::string& sentence : sentencesOf(s, in)) {
      said += sentence + "; ";
      const auto next = workedBy(again, sentence, in);
      QVERIFY2(next.ok(), (said + (next ? "" : hinge::say(next.error()))).c_str());
      again = *next;
    }
    const auto near = [](const Vec2& a, const Vec2& b) { return (a - b).norm() < 1e-8; };
    QVERIFY2(std::ranges::equal(again.work.outline, s.work.outline, near), said.c_str());
    QVERIFY2(std::ranges::equal(again.work.windows, s.work.windows,
                                [&](const Polygon& a, const Polygon& b) {
                                  return std::ranges::equal(a, b, near);
                                }),
             said.c_str());
    QVERIFY2(again.ground.has_value() == s.ground.has_value(), said.c_str());
    QCOMPARE(again.work.lines.size(), s.work.lines.size());
    for (std::size_t k = 0; k < s.work.lines.size(); ++k) {
      const WorkLine &a = s.work.lines[k], &b = again.work.lines[k];
      QVERIFY2(a.kind == b.kind && near(a.from, b.from) && near(a.to, b.to), said.c_str());
      QVERIFY2(a.moves == b.moves && a.folded_deg == b.folded_deg, said.c_str());
    }
    QCOMPARE(again.work.joints.size(), s.work.joints.size());
    for (std::size_t k = 0; k < s.work.joints.size(); ++k) {
      const PieceJoint &was = s.work.joints[k], &now = again.work.joints[k];
      given::Kind a = was.kind, b = now.kind;
      QVERIFY2(a.index() == b.index() && near(was.at, now.at) && near(was.to, now.to),
               said.c_str());
      QVERIFY2(was.on == now.on && (!byFaceOf(a) || *byFaceOf(a) == *byFaceOf(b)), said.c_str());
      const auto p = numbersOf(a), q = numbersOf(b);
      for (std::size_t n = 0; n < p.size(); ++n)
        QVERIFY2(std::abs(*p[n].value - *q[n].value) < 1e-8,
                 (said + std::string(p[n].key)).c_str());
      if (const auto* glue = std::get_if<given::Glue>(&a))
        QVERIFY2(std::ranges::equal(glue->area, std::get<given::Glue>(b).area, near), said.c_str());
    }
  }
  /// "0,0 1/2,0" are two corners, and "0,0 1 1/2,0" too.
  void cornersInHalfInchesComeBack() {
    std::mt19937 random(5);
    const auto step = [&] { return 12.7 * static_cast<double>(1 + random() % 3); };
    for (int round = 0; round < 50; ++round) {
      SheetInWork s;
      Vec2 at(0, 0); // stairs down from the left, and back along the lower edge
      for (int k = 0; k < 4; ++k) {
        s.work.outline.push_back(at);
        at.x() += step();
        s.work.outline.push_back(at);
        at.y() -= step();
      }
      s.work.outline.push_back({0, at.y()});
      std::ranges::reverse(s.work.outline);
      SheetInWork again;
      for (const std::string& sentence : sentencesOf(s, LengthUnit::Inch)) {
        const auto next = workedBy(again, sentence, LengthUnit::Inch);
        QVERIFY2(next.ok(), (sentence + ": " + (next ? "" : hinge::say(next.error()))).c_str());
        again = *next;
      }
      const auto near = [](const Vec2& a, const Vec2& b) { return (a - b).norm() < 1e-8; };
      QVERIFY(std::ranges::equal(again.work.outline, s.work.outline, near));
    }
  }
  void sentencesReadBackGiveTheSameSheet_data() {
    QTest::addColumn<int>("unit");
    QTest::newRow("mm") << int(LengthUnit::Millimetre);
    QTest::newRow("in") << int(LengthUnit::Inch);
  }
  void sentencesReadBackGiveTheSameSheet() {
    QFETCH(int, unit);
    const auto in = static_cast<LengthUnit>(unit);
    const SheetInWork s =
        sheet({"size 211.3 x 100", "score 40 > 50 v, 82.123 m", "score across 70 v held at 90",
               "score 120 v opens from 180 to 60 between 20 and 90", "score 150 v", "tab left 12 m",
               "reverse 80 to 110 between 20 and 50", "cut 5,5 to 9,9 to 12,5",
               "opening disc 190,30 across 11", "ground 200,90",
               "glue 4,20 on card/page-b at 10,20 turned 12.5 by face",
               "slide 100,90 on card/page-a at 3,4 least -2 most 30 pulled 25 until 90"});
    SheetInWork again{{}, true, {}};
    for (const std::string& sentence : sentencesOf(s, in)) {
      const auto next = workedBy(again, sentence, in);
      QVERIFY2(next.ok(), next ? "" : hinge::say(next.error()).c_str());
      again = *next;
    }
    QCOMPARE(again.work.lines.size(), s.work.lines.size());
    const Vec2 moved = boundsOf(s.work.outline).low - boundsOf(again.work.outline).low;
    for (std::size_t k = 0; k < s.work.lines.size(); ++k) {
      const WorkLine &a = s.work.lines[k], &b = again.work.lines[k];
      QVERIFY(a.kind == b.kind && a.moves == b.moves);
      QVERIFY_NEAR((a.from - b.from - moved).norm() + (a.to - b.to - moved).norm(), 0.0, 1e-8);
    }
    QCOMPARE(again.work.joints.size(), s.work.joints.size());
    for (std::size_t k = 0; k < s.work.joints.size(); ++k) {
      given::Kind a = s.work.joints[k].kind, b = again.work.joints[k].kind;
      QCOMPARE(a.index(), b.index());
      const auto p = numbersOf(a), q = numbersOf(b);
      for (std::size_t n = 0; n < p.size(); ++n)
        QVERIFY_NEAR(*p[n].value, *q[n].value, 1e-8);
    }
    QVERIFY_NEAR((*again.ground - *s.ground + moved).norm(), 0.0, 1e-8);
    QCOMPARE(again.work.windows.size(), s.work.windows.size());
  }

  // --- as a base
  void unequalLeavesFollowTheOpening() {
    const Design d = onSheets({sheet({"size 300 x 150", "score 80 v, 190 m"})});
    const auto assembly = assemble(d);
    QCOMPARE(assembly->panels.size(), std::size_t(3));
    QCOMPARE(assembly->panels[assembly->root].key, std::string("card/page-c"));
    // The fold beside what lies on the table is the gutter; as everywhere a ridge is one from
    // below.
    QVERIFY(assembly->findSeat("gutter") && assembly->findSeat("fold-1"));
    const Motion motion = Motion::trace(assembly);
    for (double deg : {0.0, 40.0, 90.0, 180.0}) {
      const Pose pose = motion.poseAt(radians(deg));
      // From the ground at x = 190: the mountain turns leaf b by 180 - deg under it, the valley
      // leaf a back again: a Z whose leaves a and c stay parallel.
      const PanelIndex a = assembly->findPanel("card/page-a"), c = assembly->root;
      const Vec3 alongA = pose.panels[a].linear().col(0), alongC = pose.panels[c].linear().col(0);
      QVERIFY_NEAR((alongA - alongC).norm(), 0.0, 1e-9);
      const Vec3 fold = pose.panels[a] * Vec3(80, 0, 0), end = pose.panels[c] * Vec3(190, 0, 0);
      QVERIFY_NEAR((fold - end).norm(), 110.0, 1e-9);
      QVERIFY_NEAR((fold - end).dot(alongC) / 110, std::cos(radians(deg)), 1e-9);
    }
  }
  /// A leaf that opens late lies on its page till then: both hide the faces that they turn to one
  /// another.
  void aLeafThatLiesOnItsPageHidesIt() {
    Design d = onSheets({sheet(
        {"size 300 x 100", "score 100 v", "score 200 v opens from 0 to 180 between 90 and 180"})});
    d.card.ground = Vec2(150, 50);
    const auto display = [&](double display_deg, const char* face) {
      d.card.display_deg = display_deg;
      const Snapshot snapshot(d);
      const FaceIndex f = snapshot.faces()->find(face);
      if (!f.valid()) qFatal("no face %s", face);
      return (*snapshot.seen())[static_cast<std::size_t>(f.value)].display;
    };
    for (const char* face : {"card/page-b", "card/page-c"}) {
      QVERIFY(display(85, face) < FaceSeen::kSeenShare);
      QVERIFY(display(150, face) > 0.9);
    }
    QVERIFY(display(85, "card/page-c-back") > 0.9);
  }
  void whatStandsOnOneSideOfTheGutterIsCopiedToTheOther() {
    Design d = onSheets({sheet({"size 260 x 180", "score 130 v"})});
    const StructureId figure = add(d, "figure", "card/page-a");
    const auto copied = copiedToOtherSide(d, figure);
    QVERIFY2(copied.ok(), copied ? "" : hinge::say(copied.error()).c_str());
    QCOMPARE(copied->design.find(copied->id)->seat, std::string("card/page-b"));
  }
  void aReversedSectionMayEndOnAnother() {
    const Design d =
        onSheets({sheet({"size 200 x 100", "score 100 v", "reverse 70 to 130 between 30 and 60",
                         "reverse 70 to 115 between 35 and 55"})});
    QCOMPARE(verdictKey(checked(d).verdict), verdictKey(Verdict::Good));
  }
  void aReversedSectionIsFoundByTheJoints() {
    const Design d =
        onSheets({sheet({"size 200 x 100", "score 100 v", "reverse 80 to 120 between 30 and 70"})});
    const auto assembly = assemble(d);
    QCOMPARE(assembly->panels.size(), std::size_t(4));
    const Motion motion = Motion::trace(assembly);
    QCOMPARE(motion.mobility(), 0);
    QVERIFY_NEAR(motion.low_rad(), 0.0, 1e-12);
    QVERIFY_NEAR(motion.high_rad(), kPi, 1e-12);
    // A kite: the ridge is the mirror image of the gutter in the line between the ends.
    for (double deg : {30.0, 90.0, 150.0}) {
      const Pose pose = motion.poseAt(radians(deg));
      const auto at = [&](const char* key, double x) {
        return Vec3(pose.panels[assembly->findPanel(key)] * Vec3(x, 50, 0));
      };
      const Vec3 left = at("card/page-a", 80), right = at("card/page-d", 120),
                 gutter = at("card/page-a", 100);
      const Vec3 ridge = at("card/page-b", 100), along = (right - left).normalized();
      const Vec3 foot = left + (gutter - left).dot(along) * along;
      QVERIFY_NEAR((ridge - (2 * foot - gutter)).norm(), 0.0, 1e-6);
    }
    const Analysis analysis = checked(d);
    QVERIFY2(analysis.findings.empty(),
             analysis.findings.empty() ? "" : describe(analysis.findings[0], d).c_str());
  }
  void sheetsAreJoinedByATab() {
    // Sheet 1 ends in a tab that folds; sheet 2 lies on it with its left leaf.
    const SheetInWork first =
        sheet({"size 200 x 100", "score 100 v", "tab right 12 m opens to 180"});
    SheetInWork second = sheet({"size 160 x 100", "score 80 v"});
    second = *worked(second, {"glue 6,50 on card/page-c at 6,50"});
    const Design d = onSheets({first, second});
    const auto assembly = assemble(d);
    QCOMPARE(assembly->pieces.size(), std::size_t(2));
    // Leaves a, b, the tab c, and d, e on the second sheet.
    QCOMPARE(assembly->panels.size(), std::size_t(5));
    for (double deg : {20.0, 90.0, 180.0}) {
      int seen = 0;
      Iso3 tab = Iso3::Identity(), leaf = tab, other = tab;
      for (const auto& [p, pose] : assembly->basePoses(radians(deg))) {
        ++seen;
        if (assembly->panels[p].key == "card/page-c") tab = pose;
        if (assembly->panels[p].key == "card/page-d") leaf = pose;
        if (assembly->panels[p].key == "card/page-b") other = pose;
      }
      QCOMPARE(seen, 5);
      QVERIFY_NEAR((tab.linear() - leaf.linear()).norm(), 0.0, 1e-9);
      QVERIFY_NEAR(std::acos(tab.linear().col(0).dot(other.linear().col(0))), radians(180 - deg),
                   1e-6);
    }
  }
  void whatIsDrivenTwiceMustAgree() {
    // A leaf glued shut is right when its fold is held, and torn when that moves.
    SheetInWork s = sheet({"size 200 x 100", "score 100 v held at 0"});
    s = *worked(s, {"glue 30,50 on card/page-b at 70,50 turned 180 by face"});
    Design d = onSheets({s});
    const auto held = assembleDesign(d);
    QVERIFY2(held.ok(), held ? "" : hinge::say(held.error()).c_str());
    // What stays folded, or lies flat when the card is shut, is no seat.
    QVERIFY(!held->findSeat("fold-1") && !held->findSeat("gutter"));
    d.card.sheets[0] = worked(s, {"fold 100 opens to 180"})->work;
    // The card stands there, and is told not to open: leaves of 100 mm that stay on one another
    // would have their far edges 200 mm apart.
    const Analysis torn = checked(d);
    const Finding* f = findCode(torn, "locked");
    QVERIFY(f && f->severity == Severity::Spoils && f->unit == AmountUnit::Millimetre);
    QVERIFY_NEAR(f->amount, 200, 1e-6);
  }
  void aTubeIsClosedByItsOwnTab() {
    const auto tube = [](const char* last) {
      SheetInWork s = sheet(
          {"size 180 x 150", "score 60 v", "score 85 v opens from 180 to 0", "score 145 v", last});
      return onSheets({*worked(s, {"glue 175,75 on card/page-a at 5,75"})});
    };
    // Leaves of 60, 25, 60, 25 are a parallelogram; the fold of the tab is what its sides leave.
    const auto closed = assembleDesign(tube("score 170 v free"));
    QVERIFY2(closed.ok(), closed ? "" : hinge::say(closed.error()).c_str());
    QVERIFY(closed->findSeat("fold-1") && closed->findSeat("fold-2")->kind() == SeatKind::Crease);
    QVERIFY(closed->panels[closed->findPanel("card/page-e")].use == PanelUse::Tab);
    QVERIFY(closed->panels[closed->findPanel("card/page-d")].use == PanelUse::Page);
    const Analysis open = checked(tube("score 172 v free"));
    // The leaf is 2 mm longer, and its tab puts the fold 2 mm away from the edge: when both lie in
    // one direction that is 4 mm.
    const Finding* f = findCode(open, "torn");
    QVERIFY(f && f->severity == Severity::Spoils);
    QVERIFY_NEAR(f->amount, 4, 1e-6);
  }
  /// A base that is driven and glued so that it tears is measured at every opening, and never good.
  void howFarABaseIsTornIsTheVerdict() {
    for (const double off : {0.0, 0.1, 0.2, 1.0, 3.5}) {
      SheetInWork s =
          sheet({"size 180 x 150", "score 60 v", "score 85 v opens from 180 to 0", "score 145 v"});
      // Leaves of 60, 25, 60, 25: the last score by so much too far, its tab by as much too narrow.
      s = *worked(s, {("score " + exactNumber(170 + off) + " v free").c_str(),
                      "glue 175,75 on card/page-a at 5,75"});
      const Analysis analysis = checked(onSheets({s}));
      const Finding* f = findCode(analysis, "torn");
      QCOMPARE(f != nullptr, off > 0);
      if (!f) continue;
      QVERIFY_NEAR(f->amount, 2 * off, 1e-6);
      QCOMPARE(f->severity, 2 * off > 0.3 ? Severity::Spoils : Severity::Advice);
    }
  }
  void onePlainLeafStandsStill() {
    Design d = onSheets({sheet({"size 120 x 90"})});
    const auto assembly = assemble(d);
    QCOMPARE(assembly->drives.size(), std::size_t(0));
    const Motion motion = Motion::trace(assembly);
    QVERIFY(!motion.shuts()); // what stands on it is not asked to lie flat
    for (double t : {0.0, 1.0, kPi})
      QVERIFY_NEAR(
          (motion.poseAt(t).panels[assembly->root].matrix() - Iso3::Identity().matrix()).norm(),
          0.0, 1e-12);
  }
  void whatABaseOfSheetsCannotBe() {
    const auto why = [](const Design& d) {
      const auto made = assembleDesign(d);
      return made ? std::string() : made.error().message.key;
    };
    Design d = onSheets({sheet({"size 120 x 90", "score 60 v"})});
    QCOMPARE(why(d), std::string());
    Design none = d;
    none.card.sheets.clear();
    QCOMPARE(why(none), std::string("sheet.none"));
    Design away = d;
    away.card.ground = Vec2(300, 10);
    QCOMPARE(why(away), std::string("sheet.ground"));
    Design pinned = d;
    pinned.card.sheets[0].joints.push_back({{10, 10}, "card/page-b", {10, 10}, given::Pivot{}});
    QCOMPARE(why(pinned), std::string("sheet.glue-only"));
  }

  // --- edits
  void everyBaseOfOnePieceBecomesASheetWithTheSameMotion() {
    int tried = 0;
    for (const BaseKind* kind : baseKinds()) {
      Design d = card();
      d.card = *onBase(d.card, kind->key);
      if (kind == &sheetBase()) continue;
      const auto sheets = withBaseAsSheet(d);
      if (!sheets) {
        QCOMPARE(sheets.error().message.key, std::string("sheet.of-many"));
        continue;
      }
      ++tried;
      const auto before = assemble(d), after = assemble(*sheets);
      QCOMPARE(after->panels.size(), before->panels.size());
      for (double t : {0.0, 0.5, 1.7, kPi}) {
        const auto a = before->basePoses(t), b = after->basePoses(t);
        QCOMPARE(a.size(), b.size());
        // One page lies still in the other card's world: compare every page with that. Pages are
        // lettered from left to right, which some bases do not: they are found by their paper.
        const auto poseIn = [](const auto& poses, PanelIndex p) {
          for (const auto& [panel, pose] : poses)
            if (panel == p) return pose;
          return Iso3::Identity();
        };
        const auto alike = [&](PanelIndex p) {
          const Vec2 middle = centroidOf(before->panels[p].outline);
          for (PanelIndex q : after->panels.indices())
            if (contains(after->panels[q].outline, middle)) return q;
          return PanelIndex();
        };
        const auto still = std::ranges::find_if(
            a, [&](const auto& page) { return alike(page.first) == after->root; });
        QVERIFY2(still != a.end(), kind->key.data());
        for (const auto& [p, pose] : a) {
          const Iso3 was = still->second.inverse() * pose;
          QVERIFY2(alike(p).valid(), kind->key.data());
          const Iso3 is = poseIn(b, after->root).inverse() * poseIn(b, alike(p));
          QVERIFY_NEAR((was.matrix() - is.matrix()).norm(), 0.0, 1e-6);
        }
      }
    }
    QVERIFY(tried >= 5);
  }
  void structuresStayWhereTheyStandWhenPanelsAreNamedAnew() {
    Design d = onSheets({sheet({"size 300 x 100", "score 100 v, 200 m"})});
    const StructureId id = add(d, "figure", "card/page-b");
    const auto more =
        withSheet(d, {}, *worked(sheetOf(d, {}), {"score 40 v"})); // page b is page c from now on
    QVERIFY2(more.ok(), more ? "" : hinge::say(more.error()).c_str());
    QCOMPARE(more->find(id)->seat, std::string("card/page-c"));
    QVERIFY(assembleDesign(*more).ok());
    const auto less = withSheet(*more, {}, *worked(sheetOf(*more, {}), {"erase 40"}));
    QVERIFY(less.ok());
    QCOMPARE(less->find(id)->seat, std::string("card/page-b"));
  }
  void whatPanelsWearGoesAlongWhenTheyAreNamedAnew() {
    Design d = onSheets({sheet({"size 300 x 100", "score 100 v, 200 m"})});
    const auto named = [](const char* face) {
      DressRule rule;
      rule.face = face;
      return rule;
    };
    d.dressing.rules = {named("card/page-a"), named("card/page-c-back"), named("card/page-b")};
    Topper topper;
    topper.face = "card/page-b-back", topper.shape = "star", topper.paper = d.papers.front().key;
    topper.width_mm = topper.height_mm = 20, topper.at = {50, 50};
    d.dressing.toppers = {topper};
    // Of the first leaf the larger part, in which its middle lies, keeps what it wore.
    const auto more = withSheet(d, {}, *worked(sheetOf(d, {}), {"score 40 v"}));
    QVERIFY2(more.ok(), more ? "" : hinge::say(more.error()).c_str());
    QCOMPARE(more->dressing.rules[0].face, std::string("card/page-b"));
    QCOMPARE(more->dressing.rules[1].face, std::string("card/page-d-back"));
    QCOMPARE(more->dressing.rules[2].face, std::string("card/page-c"));
    QCOMPARE(more->dressing.toppers[0].face, std::string("card/page-c-back"));
    QVERIFY(more->dressing.toppers[0].at == topper.at);
    const auto less = withSheet(*more, {}, *worked(sheetOf(*more, {}), {"erase 40"}));
    QVERIFY(less.ok());
    for (std::size_t k = 0; k < 3; ++k)
      QCOMPARE(less->dressing.rules[k].face, d.dressing.rules[k].face);
    QCOMPARE(less->dressing.toppers[0].face, topper.face);
  }
  void targetsAreNamedOrRefused() {
    Design d = onSheets({sheet({"size 100 x 90", "score 50 v"})});
    QVERIFY(sheetTarget(d, "card").ok() && sheetTarget(d, "card/2").ok());
    for (const char* wrong : {"card/3", "card/0", "card/x", "cards", "s9"})
      QVERIFY2(!sheetTarget(d, wrong).ok(), wrong);
    const StructureId box = add(d, "box", "gutter");
    QCOMPARE(sheetTarget(d, box.text()).error().message.key, std::string("work.missing/no-piece"));
  }

  // --- files
  void aBaseOfSheetsIsKept() {
    Design d = onSheets({sheet({"size 200 x 100", "score 100 v opens to 120 between 10 and 90",
                                "tab right 12 m opens to 180", "ground 150,20"}),
                         sheet({"size 60 x 100", "glue 6,50 on card/page-c at 6,50"})});
    d.card.worksTo_deg = 60, d.card.display_deg = 60;
    const auto again = designFromJson(designToJson(d));
    QVERIFY2(again.ok(), again ? "" : hinge::say(again.error()).c_str());
    QCOMPARE(again->card, d.card);
    QVERIFY(!designFromJson(R"({"format":"hinge-lantern","version":3,"card":{"base":"sheet",)"
                            R"("width_mm":100,"height_mm":100,"sheets":[7]},"structures":[]})")
                 .ok());
  }

  // --- what is meant
  void aCardIsJudgedInItsWorkingRangeOnly() {
    // Walls of 20 each on feet at 45: taut at about 53 degrees; a tent that never opens farther.
    Design d = card(100, 100);
    add(d, "box", "gutter", {{"a", 45}, {"b", 45}, {"c", 20}, {"d", 20}, {"length", 40}});
    const Analysis whole = checked(d);
    const Finding* found = findCode(whole, "taut");
    QVERIFY(found);
    const double taut = found->from_rad;
    QVERIFY(taut > radians(20) && taut < radians(120));
    d.card.worksTo_deg = degrees(taut) - 1, d.card.display_deg = d.card.worksTo_deg;
    QVERIFY(!findCode(checked(d), "taut"));
    d.card.worksTo_deg = degrees(taut) + 1;
    QVERIFY(findCode(checked(d), "taut"));
  }
  void aCardThatIsUsedAtOneOpeningIsJudgedThere() {
    // Two boxes through one another, at 90 degrees and nowhere else.
    Design d = card();
    add(d, "box", "gutter",
        {{"position", 20}, {"length", 60}, {"a", 40}, {"b", 40}, {"c", 42}, {"d", 42}});
    add(d, "box", "gutter",
        {{"position", 60}, {"length", 60}, {"a", 50}, {"b", 30}, {"c", 32}, {"d", 52}});
    d.structures[0].values["position"] = 20, d.structures[1].values["position"] = 50;
    d.card.worksFrom_deg = d.card.worksTo_deg = 90;
    const Analysis analysis = checked(d);
    const Finding* hit = findCode(analysis, "panels-hit");
    QVERIFY(hit);
    QVERIFY(hit->from_rad > radians(89) && hit->to_rad < radians(91));
    QVERIFY(!findCode(analysis, "shut-flat"));
  }
  void aCardIsShownWhereItIsUsed() {
    CardBase tent = card().card;
    tent.worksTo_deg = 60; // shown at 90 until now
    const auto used = setCard(card(), tent);
    QVERIFY_NEAR(used->card.display_deg, 60.0, 1e-12);
    tent.worksFrom_deg = 50, tent.display_deg = 20;
    QVERIFY_NEAR(setCard(card(), tent)->card.display_deg, 50.0, 1e-12);
    tent.worksFrom_deg = 70;
    QCOMPARE(setCard(card(), tent).error().message.key, std::string("card.works"));
  }
  void whatNeverShutsIsNotAskedToLieFlat() {
    Design d = card(100, 100);
    add(d, "box", "gutter", {{"a", 30}, {"b", 30}, {"c", 40}, {"d", 30}, {"length", 40}});
    QVERIFY(findCode(checked(d), "shut-flat"));
    d.card.worksFrom_deg = 80, d.card.worksTo_deg = 100;
    QVERIFY(!findCode(checked(d), "shut-flat"));
  }
  void whatHangsRestsFlatAndIsToldUnlessItIsMeant() {
    // A flap of 20 x 30 near the gutter of page b.
    const auto flap = [](const char* moves) {
      SheetInWork piece{plainStrip(25, 30), false, {}};
      const std::string score = std::string("score 5 v ") + moves;
      piece = *worked(piece, {score.c_str(), "glue 2.5,15 on card/page-b at 90,2.5 turned 90"});
      Design d = card();
      const auto added = addStructure(d, "piece", "card/page-b", {{"position", 0.0}}, piece.work);
      return added->design;
    };
    const Analysis hanging = checked(flap("free"));
    const Finding* hangs = findCode(hanging, "hangs");
    QVERIFY(hangs && hangs->severity == Severity::Advice);
    QCOMPARE(hangs->elements.front(), std::string("s1/panel-2"));
    QCOMPARE(hanging.motion->mobility(), 0);
    const Pose pose = hanging.motion->poseAt(1.0);
    const Assembly& assembly = hanging.motion->assembly();
    QVERIFY_NEAR((pose.panels[assembly.findPanel("s1/panel-1")].matrix() -
                  pose.panels[assembly.findPanel("s1/panel-2")].matrix())
                     .norm(),
                 0.0, 1e-12);
    // Lifted to 100 degrees it stays clear of page a, which stands at 90; to 60 its end goes
    // through: the fold is 5 from the gutter, the end 20 farther.
    const Analysis clear = checked(flap("lifted from 180 to 100"));
    QVERIFY(!findCode(clear, "hangs") && !findCode(clear, "lift-hits"));
    const Analysis through = checked(flap("lifted from 180 to 60"));
    const Finding* hits = findCode(through, "lift-hits");
    QVERIFY(hits && hits->severity == Severity::Spoils);
    QCOMPARE(hits->elements[0], std::string("s1/panel-2"));
    QCOMPARE(hits->elements[1], std::string("card/page-a"));
    // At an angle t the end stands 20 cos t - 5 past page a, and the foot of page a 5 sin t past
    // the flap. The less of the two is largest at 61.4 degrees; steps are of 2.
    QVERIFY_NEAR(hits->amount, 20 * std::cos(radians(62)) - 5, 1e-6);
    QVERIFY_NEAR(std::get<Degrees>(hits->detail.with().front().what).value, 62.0, 1e-9);
    // A fold that an opening parts in two is one hinge: its flap hangs all the same.
    Design parted = flap("free");
    parted.structures[0].work->windows = {{{3, 10}, {8, 10}, {8, 20}, {3, 20}}};
    const Analysis both = checked(parted);
    QVERIFY(findCode(both, "hangs") && !findCode(both, "floppy"));
  }
  void whatAHandSpinsOrPushesRestsAndIsNoFault() {
    const auto joined = [](const char* joint) {
      SheetInWork piece{plainStrip(40, 10), false, {}};
      piece = *worked(piece, {joint});
      return addStructure(card(), "piece", "card/page-b", {{"position", 0.0}}, piece.work)->design;
    };
    QVERIFY(findCode(checked(joined("pivot 5,5 on card/page-b at 90,40")), "floppy"));
    QVERIFY(findCode(checked(joined("slide 5,5 on card/page-b at 90,40")), "floppy"));
    const auto moved = [&](const Design& d, double share) {
      const Analysis analysis = checked(d);
      if (!analysis.findings.empty()) qFatal("%s", describe(analysis.findings[0], d).c_str());
      const Assembly& assembly = *analysis.assembly;
      if (assembly.lifts.size() != 1) qFatal("one lift");
      const Pose pose = analysis.motion->poseAt(1.0);
      const Vec3 end(35, 5, 0);
      const PanelIndex arm = assembly.findPanel("s1/panel-1");
      return (lifted(assembly, pose, assembly.lifts[0], share).panels[arm] * end -
              pose.panels[arm] * end)
          .norm();
    };
    // 30 from the pin: a quarter of a turn is a chord of 30 times the root of two.
    const Design spun = joined("pivot 5,5 on card/page-b at 90,40 spun 0 to 90");
    QVERIFY_NEAR(moved(spun, 1), 30 * std::sqrt(2), 1e-9);
    QVERIFY_NEAR(moved(spun, 0), 0.0, 1e-12);
    const Design pushed = joined("slide 5,5 on card/page-b at 90,40 pushed 5 to 30");
    QVERIFY_NEAR(moved(pushed, 0.4), 10.0, 1e-9);
    // What cannot be.
    QCOMPARE(refusal({plainStrip(40, 10), false, {}}, "pivot 5,5 on a at 9,9 spun 0 to 200"),
             std::string("work.spun"));
  }
  void aFoldThatStaysIsASeatForFreePieces() {
    // Held at a right angle, flat when shut and folded when open, and as usual.
    const Design d = onSheets({sheet({"size 200 x 100", "score 40 v held at 90",
                                      "score 90 v opens from 180 to 60", "score 140 v"})});
    const auto assembly = assemble(d);
    int creases = 0, valleys = 0;
    for (const Seat& seat : assembly->seats)
      creases += seat.kind() == SeatKind::Crease, valleys += seat.kind() == SeatKind::Valley;
    QCOMPARE(creases, 4); // both sides of two folds
    QCOMPARE(valleys, 1);
    const Seat* held = assembly->findSeat("fold-1");
    const Seat* flat = assembly->findSeat("fold-2");
    QVERIFY(held && flat);
    QVERIFY_NEAR(held->shutOpening_rad, radians(90), 1e-12);
    QVERIFY_NEAR(flat->shutOpening_rad, kPi, 1e-12);
    for (const char* kind : {"box", "vfold", "standing-figure"})
      QVERIFY(!findStructureKind(kind)->standsOn(*held, *assembly));
    QVERIFY(findStructureKind("piece")->standsOn(*held, *assembly));
    // A strip over the fold that is flat when shut stands up as that folds.
    Design on = onSheets({sheet({"size 200 x 100", "score 100 v opens from 180 to 60"})});
    on.card.width_mm = 200, on.card.height_mm = 100;
    const auto added = addProposed(on, "piece", "gutter", {});
    const auto other = addProposed(on, "piece", "fold-1", {});
    QVERIFY(added || other);
    on = added ? added->design : other->design;
    const Analysis a = checked(on);
    QVERIFY2(a.verdict != Verdict::Spoiled,
             a.findings.empty() ? "" : describe(a.findings[0], on).c_str());
  }
  void aSleeveWithAFacetedOpeningIsASheet() {
    // Four panels in a ring: the first fold moves, the joints decide the others. The panel beside
    // the fold that moves lies on the table, not the last one.
    const Design d = onSheets({sheet(
        {"size 250 x 140", "score 80 v", "score 120 v free, 200 v free", "score 240 v free",
         "glue 245,70 on card/page-a at 5,70", "opening 60,110 80,95 100,110 90,125 70,125"})});
    const Analysis a = checked(d);
    QVERIFY2(a.findings.empty(), a.findings.empty() ? "" : describe(a.findings[0], d).c_str());
    QCOMPARE(a.motion->mobility(), 0);
    const Pose pose = a.motion->poseAt(radians(70));
    const auto normal = [&](const char* page) {
      return Vec3(pose.panels[a.assembly->findPanel(page)].linear().col(2));
    };
    QVERIFY_NEAR(normal("card/page-a").dot(normal("card/page-c")), -1.0, 1e-9);
    QVERIFY_NEAR(normal("card/page-b").dot(normal("card/page-d")), -1.0, 1e-9);
  }
  void aHeldFoldOfAPieceStaysAsItIs() {
    SheetInWork piece{plainStrip(30, 20), false, {}};
    piece = *worked(piece, {"score 10 v held at 90", "glue 5,10 on card/page-b at 90,40"});
    const auto added =
        addStructure(card(), "piece", "card/page-b", {{"position", 0.0}}, piece.work);
    const Motion motion = Motion::trace(assemble(added->design));
    for (double t : {0.2, 1.5, 3.0}) {
      const Pose pose = motion.poseAt(t);
      const Vec3 a = pose.panels[motion.assembly().findPanel("s1/panel-1")].linear().col(2),
                 b = pose.panels[motion.assembly().findPanel("s1/panel-2")].linear().col(2);
      QVERIFY_NEAR(a.dot(b), 0.0, 1e-12);
    }
  }
  void aLeafOfAPieceOpensWithTheCardAsOneOfTheBaseDoes() {
    // A flap over the right page, once worked into the sheet and once glued on by a tab: it lies
    // over the page until 30 degrees and has turned by 100 at 90. A box under it is in the way or
    // not, by its height.
    const char* const opens = "fold 10 opens from 0 to 100 between 30 and 90";
    const auto added =
        addStructure(card(), "piece", "card/page-b", {{"position", 0.0}},
                     worked({plainStrip(50, 40), false, {}},
                            {"score 10 v", opens, "glue 5,20 on card/page-b at 70,60"})
                         ->work);
    const Design sheetCard = onSheets(
        {sheet({"outline 0,0 260,0 260,60 300,60 300,100 260,100 260,180 0,180", "score 130 v",
                "score 260,60 to 260,100 v opens from 0 to 100 between 30 and 90"})});
    const Motion piece = Motion::trace(assemble(added->design)),
                 base = Motion::trace(assemble(sheetCard));
    const auto angle = [](const Motion& motion, double t, const char* leaf, const char* page) {
      const Pose pose = motion.poseAt(t);
      const auto across = [&](const char* key) {
        return Vec3(pose.panels[motion.assembly().findPanel(key)].linear().col(0));
      };
      return degrees(std::acos(std::clamp(across(leaf).dot(across(page)), -1.0, 1.0)));
    };
    for (const double t : {10.0, 45.0, 60.0, 120.0}) {
      const double inner = 100 * std::clamp((t - 30) / 60, 0.0, 1.0);
      QVERIFY_NEAR(angle(piece, radians(t), "s1/panel-2", "s1/panel-1"), 180 - inner, 1e-9);
      QVERIFY_NEAR(angle(base, radians(t), "card/page-c", "card/page-b"), 180 - inner, 1e-9);
    }
    QVERIFY(findCode(checked(added->design), "by-hand-along"));
    // What hangs on other paper has no place beforehand.
    const auto apart = addStructure(
        card(), "piece", "card/page-b", {{"position", 0.0}},
        worked({plainStrip(90, 40), false, {}},
               {"score 20 v, 50 v", "fold 50 opens to 100", "glue 5,20 on card/page-b at 70,60"})
            ->work);
    QCOMPARE(assembleDesign(apart->design).error().message.key, std::string("work.moves/apart"));
    QCOMPARE(assembleDesign(apart->design).error().place, std::string("s1.lines[1]"));
  }
  void sectionsThatDoNotStandInTheMiddleShutFlatToo() {
    const Design d = onSheets(
        {sheet({"size 300 x 100", "score 90 v, 200 m", "reverse 75 to 120 between 30 and 70",
                "reverse 180 to 230 between 10 and 25"})});
    const auto assembly = assemble(d);
    const Motion motion = Motion::trace(assembly);
    QVERIFY_NEAR(motion.low_rad(), 0.0, 1e-12);
    QVERIFY_NEAR(motion.high_rad(), kPi, 1e-12);
    for (const auto& block : motion.blocks())
      QVERIFY(block.shutMisfit_mm < 1e-9);
  }
  // --- line by line --------------------------------------------------------------------------
  void whateverTheOrderOfTheLinesThePopOutIsTheSame_data() {
    QTest::addColumn<QStringList>("sentences");
    const QString low = QStringLiteral("score 90 from 0 to 40 v"),
                  high = QStringLiteral("score 90 from 80 to 130 v"),
                  left = QStringLiteral("score 60 from 40 to 80 v"),
                  right = QStringLiteral("score 120 from 40 to 80 v"),
                  middle = QStringLiteral("score 90 from 40 to 80 m"),
                  under = QStringLiteral("cut 60,40 to 120,40"),
                  over = QStringLiteral("cut 60,80 to 120,80");
    QTest::newRow("reverse") << QStringList{QStringLiteral("score 90 v"),
                                            QStringLiteral("reverse 60 to 120 between 40 and 80")};
    QTest::newRow("scores first") << QStringList{low, high, left, right, middle, under, over};
    QTest::newRow("cuts first") << QStringList{under, over, middle, right, left, high, low};
    QTest::newRow("the gutter whole, then cut through")
        << QStringList{left, right, under, over, middle, low, high};
  }
  void whateverTheOrderOfTheLinesThePopOutIsTheSame() {
    QFETCH(QStringList, sentences);
    SheetInWork s = sheet({"size 180 x 130"});
    for (const QString& sentence : sentences) {
      const auto next = workedBy(s, sentence.toStdString(), LengthUnit::Millimetre);
      QVERIFY2(next, next ? "" : hinge::say(next.error()).c_str());
      s = *next;
      // On the way there the card may be unfinished, but it stands there.
      QVERIFY(assembleDesign(onSheets({s})));
    }
    const Analysis analysis = checked(onSheets({s}));
    for (const Finding& f : analysis.findings)
      QVERIFY2(f.severity != Severity::Spoils, describe(f, analysis.design).c_str());
    // The ridge of a section in the middle goes half as far up as its halves allow: at 90 degrees
    // it stands over the point where its sides, 30 mm from the gutter, come together.
    const Pose pose = analysis.motion->poseAt(0.5 * kPi);
    const Assembly& assembly = analysis.motion->assembly();
    bool found = false;
    for (const Fold& fold : assembly.folds) {
      if (fold.sense != FoldSense::Mountain) continue;
      const Vec3 ridge = pose.panels[fold.left] * lift(fold.from);
      const FoldIndex gutter = assembly.findFold("card/gutter");
      const Vec3 foot = pose.panels[assembly.folds[gutter].left] * lift(Vec2(90, fold.from.y()));
      QVERIFY_NEAR((ridge - foot).norm(), 30 * std::sqrt(2.0), 1e-6);
      found = true;
    }
    QVERIFY(found);
  }
  void scoresInOneRowFoldTogether() {
    // The stretches of a row from edge to edge follow the opening as one score would.
    const SheetInWork row = sheet({"size 180 x 130", "score 90 from 0 to 40 v"});
    QVERIFY(!row.work.lines[0].moves);
    const SheetInWork whole =
        sheet({"size 180 x 130", "score 90 from 0 to 40 v", "score 90 from 80 to 130 v"});
    for (const WorkLine& line : whole.work.lines)
      QCOMPARE(line.moves, std::optional(FoldMoves()));
    // What is said of one is said of all; what is drawn into the row later joins it.
    const auto held = worked(whole, {"fold 90,20 held at 120", "score 90 from 50 to 60 v"});
    QVERIFY(held);
    for (const WorkLine& line : held->work.lines)
      QCOMPARE(line.moves, std::optional(FoldMoves{120, 120}));
    // A score that folds the other way is no part of it.
    const auto other = worked(whole, {"score 90 from 50 to 60 m"});
    QVERIFY(other && !other->work.lines.back().moves);
  }
  void aScoreThatEndsInThePaperStaysAndIsTold() {
    const SheetInWork s = sheet({"size 180 x 130", "score 90 v", "score 140 from 30 to 70 v"});
    const Analysis analysis = checked(onSheets({s}));
    const Finding* f = findCode(analysis, "score-ends");
    QVERIFY(f && f->severity == Severity::Spoils);
    QVERIFY_NEAR(f->amount, 40, 1e-9);
    QCOMPARE(analysis.assembly->panels.size(), std::size_t(2)); // the card stands there without it
    // Cuts across both of its ends alone part nothing; with the third side it is a flap.
    const auto flap = worked(s, {"cut 140,30 to 160,30 to 160,70 to 140,70"});
    QVERIFY(flap);
    QVERIFY(!findCode(checked(onSheets({*flap})), "score-ends"));
    QCOMPARE(assemble(onSheets({*flap}))->panels.size(), std::size_t(3));
    // A hand that runs a little past the cut spoils nothing.
    const auto past = worked(s, {"erase 140,50", "score 140 from 27 to 70 v",
                                 "cut 140,30 to 160,30 to 160,70 to 140,70"});
    QVERIFY(past);
    const Analysis later = checked(onSheets({*past}));
    const Finding* tail = findCode(later, "score-ends");
    QVERIFY(tail && tail->severity == Severity::Advice);
    QVERIFY_NEAR(tail->amount, 3, 1e-9);
  }
  void theGroundIsThePageOntoWhichTheOthersFold() {
    const auto root = [](const Design& d) {
      const auto assembly = assemble(d);
      return boundsOf(assembly->panels[assembly->root].outline).low.x();
    };
    QVERIFY_NEAR(root(onSheets({sheet({"size 240 x 120", "score 60 v, 180 v"})})), 60, 1e-9);
    QVERIFY_NEAR(root(onSheets({sheet({"size 240 x 120", "score 60 v, 180 v", "ground 10,10"})})),
                 0, 1e-9);
    // A Z has no such page: the last leaf lies there.
    QVERIFY_NEAR(root(onSheets({sheet({"size 240 x 120", "score 80 v, 160 m"})})), 160, 1e-9);
    for (const Finding& f :
         checked(onSheets({sheet({"size 240 x 120", "score 60 v, 180 v"})})).findings)
      QVERIFY2(f.severity != Severity::Spoils, f.code.c_str());
  }
  void aNewSizeTakesAlongWhatRanToItsEdges() {
    const auto smaller = worked(sheet({"size 180 x 130", "score 90 v", "score 40 from 0 to 50 m",
                                       "cut 150,130 to 150,100"}),
                                {"size 160 x 110"});
    QVERIFY(smaller);
    QVERIFY_NEAR(smaller->work.lines[0].to.y(), 110, 1e-9);
    QVERIFY_NEAR(smaller->work.lines[1].to.y(), 50, 1e-9); // ends in the paper as it did
    QVERIFY_NEAR(smaller->work.lines[2].from.y(), 110, 1e-9);
    // What would lie beside the new sheet is not dropped without a word.
    QCOMPARE(refusal(sheet({"size 180 x 130", "score 90 v"}), "size 80 x 130"),
             std::string("work.line-outside"));
  }
  void shapesAreOpeningsAndOutlines() {
    const SheetInWork s = sheet({"size 100 x 80", "score 60 v", "opening oval 30,40 20 x 40"});
    QVERIFY_NEAR(std::abs(signedArea_mm2(s.work.windows[0])), kPi * 10 * 20, 4); // chords
    const auto boxOf = [](const Polygon& p) { return boundsOf(p); };
    const auto boat = worked(s, {"opening boat centred on 80,10 20 x 12"});
    QVERIFY(boat);
    const Box2 box = boxOf(boat->work.windows[1]);
    QVERIFY_NEAR((box.centre() - Vec2(80, 40)).norm(), 0, 1e-9); // the middle of that panel
    QVERIFY_NEAR((box.size() - Vec2(20, 12)).norm(), 0, 1e-9);
    const auto onFold = worked(s, {"opening rectangle centred on 60,5 10 x 30"});
    QVERIFY(onFold);
    QVERIFY_NEAR((boxOf(onFold->work.windows[1]).centre() - Vec2(60, 40)).norm(), 0, 1e-9);
    const auto arch = worked(s, {"outline arch centred 90 x 80"});
    QVERIFY(arch);
    QVERIFY_NEAR((boxOf(arch->work.outline).centre() - Vec2(50, 40)).norm(), 0, 1e-9);
    QCOMPARE(refusal(s, "opening oval 30,40 0 x 40"), std::string("sheet.size"));
    QCOMPARE(refusal(s, "opening disc centred on 300,10 across 5"),
             std::string("sheet.nothing-at"));
  }
  void whatStaysInsideTheFinishedSizeIsRight() {
    Design d = onSheets({sheet({"size 160 x 100", "score 80 v"})});
    d.card.width_mm = 80, d.card.height_mm = 100;
    add(d, "box", "gutter", {{"a", 50}, {"b", 50}, {"c", 50}, {"d", 50}, {"length", 40}});
    const auto outside = [](const Design& design) {
      const Analysis analysis = checked(design);
      const Finding* f = findCode(analysis, "outside-cover");
      return f ? f->amount : 0.0;
    };
    QVERIFY_NEAR(outside(d), 20.0, 1e-6);
    d.card.width_mm = 101;
    QVERIFY_NEAR(outside(d), 0.0, 1e-9);
    d.card.width_mm = 99;
    QVERIFY(outside(d) > 0);
    // Leaves of 80 in a finished size of 75.
    Design bare = onSheets({sheet({"size 160 x 100", "score 80 v"})});
    bare.card.width_mm = 75, bare.card.height_mm = 100;
    const Analysis small = checked(bare);
    const Finding* f = findCode(small, "finished-small");
    QVERIFY(f && f->severity == Severity::Spoils);
    QVERIFY_NEAR(f->amount, 5.0, 1e-9);
    bare.card.width_mm = 80;
    QVERIFY(!findCode(checked(bare), "finished-small"));
  }
};

QTEST_GUILESS_MAIN(TestSheets)
#include "test_sheets.moc"
