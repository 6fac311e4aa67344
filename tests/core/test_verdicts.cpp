// SPDX-License-Identifier: GPL-3.0-or-later
#include "../referee.h"
#include "random_designs.h"
#include "support.h"
#include <set>
#ifndef Q_MOC_RUN
#include "core/bases/base.h"
#include "core/pieces/sheet_words.h"
#endif

using namespace hinge;
using namespace hinge::test;

namespace {

/// What a maker says to a sheet, sentence by sentence.
PieceWork workOf(const std::vector<std::string>& sentences) {
  SheetInWork made{{}, false, {}};
  for (const std::string& sentence : sentences) {
    auto next = workedBy(made, sentence, LengthUnit::Millimetre);
    if (!next) qFatal("%s: %s", sentence.c_str(), say(next.error()).c_str());
    made = std::move(next).value();
  }
  return made.work;
}
void addPiece(Design& on, const char* face, const std::vector<std::string>& sentences) {
  const auto added = addStructure(on, "piece", face, {{"position", 0.0}}, workOf(sentences));
  if (!added) qFatal("%s", say(added.error()).c_str());
  on = added->design;
}
void addBox(Design& on, double at, double length, double foot, double high) {
  addFitted(
      on, "box",
      {{"position", at}, {"length", length}, {"a", foot}, {"b", foot}, {"c", high}, {"d", high}});
}
Design onSheet(const std::vector<std::string>& sentences, double display_deg = 120) {
  Design d = card(130, 180);
  d.card = *onBase(d.card, "sheet");
  d.card.sheets = {workOf(sentences)};
  d.card.display_deg = display_deg;
  return d;
}

// --- Members of the classes: cards that are right or wrong by what chance gives them
// --------------

/// A sheet with a score in the middle, glued to both pages or one.
Design tornOrNot(Draw& draw) {
  Design d = card();
  const double w = draw.in(40, 80), at = draw.in(40, 120), up = draw.in(30, 100);
  addPiece(d, "card/page-a",
           {fmt::format("size {} x 30", w), fmt::format("score {} v", 0.5 * w),
            fmt::format("glue {},15 on card/page-a at {},{} turned -90", 0.25 * w, at, up)});
  if (draw.chance(0.5)) {
    PieceWork work = *d.structures.back().work;
    const auto tied = workOf(
        {fmt::format("size {} x 30", w), fmt::format("glue {},15 on card/page-b at {},{} turned 90",
                                                     0.75 * w, at, up + draw.in(-20, 20))});
    work.joints.push_back(tied.joints.front());
    d = *setWork(d, d.structures.back().id, work);
  }
  return d;
}

/// A slider beside a box, pulled or pushed along the page: under the foot of the wall or not.
Design sliderByFoot(Draw& draw) {
  Design d = card(150, 200);
  const double foot = draw.in(25, 60);
  addBox(d, 60, draw.in(40, 80), foot, draw.in(25, 50));
  const double from = draw.in(10, 90), way = draw.in(-40, 60);
  addPiece(d, "card/page-b",
           {"size 20 x 20", fmt::format("slide 10,10 on card/page-b at {},{} turned 90 least -80 "
                                        "most 80 pushed 0 to {}",
                                        draw.in(40, 150), from, way)});
  return d;
}

/// An arm spun past sheets that are glued beside it.
Design armBySheets(Draw& draw) {
  Design d = card(150, 200);
  addPiece(d, "card/page-b",
           {"size 60 x 10", fmt::format("pivot 5,5 on card/page-b at 90,70 turned {} spun 0 to {}",
                                        draw.in(0, 360), draw.in(-120, 120))});
  for (const double angle : {draw.in(0, 360), draw.in(0, 360)})
    addPiece(d, "card/page-b",
             {"size 20 x 20",
              fmt::format("glue 10,10 on card/page-b at {},{}", 90 + 45 * std::cos(radians(angle)),
                          70 + 45 * std::sin(radians(angle)))});
  return d;
}

/// A structure in a base whose flap lies on a page for a part of the way.
Design underFlap(Draw& draw) {
  Design d = card(130, 180);
  d.card = *onBase(d.card, "tri-fold");
  const auto assembly = assembleDesign(d);
  std::vector<std::string> folds;
  for (const Seat& seat : assembly->seats)
    if (seat.kind() == SeatKind::Valley) folds.push_back(seat.key);
  const std::string on = folds[draw.below(folds.size())];
  const char* kind = draw.chance(0.5) ? "step" : "box";
  const auto added = addStructure(d, kind, on, *valuesForNew(*assembly, d.settings, kind, on, {}));
  return added ? added->design : d;
}

/// Leaves that lie on one another and open at different times.
Design leavesInTurn(Draw& draw) {
  const double w = draw.in(60, 110);
  const auto leaf = [&](int k) {
    const double from = draw.chance(0.5) ? 0 : 90, to = from + 90;
    return fmt::format("score {} {} opens to 180 between {} and {}", k * w,
                       draw.chance(0.5) ? "v" : "m", from, to);
  };
  const int leaves = draw.chance(0.5) ? 3 : 4;
  std::vector<std::string> sentences{fmt::format("size {} x 90", leaves * w)};
  for (int k = 1; k < leaves; ++k)
    sentences.push_back(leaf(k));
  return onSheet(sentences);
}

/// A figure that stands on the gutter below a ridge that comes down, or beside it.
Design figureByRidge(Draw& draw) {
  Design d = card(130, 180);
  addFitted(d, "standing-figure", {{"position", draw.in(40, 120)}});
  addBox(d, draw.in(20, 110), draw.in(30, 60), draw.in(15, 40), draw.in(20, 60));
  return d;
}

/// Two walls held upright on one page.
Design heldWalls(Draw& draw) {
  Design d = card(150, 200);
  d.card.worksFrom_deg = 100, d.card.display_deg = 150;
  for (int k = 0; k < 2; ++k)
    addPiece(d, "card/page-b",
             {fmt::format("size {} x 40", draw.in(15, 40)), "score across 10 v held at 90",
              fmt::format("glue 7,5 on card/page-b at {},{} turned {}", draw.in(60, 120),
                          draw.in(40, 80), draw.in(0, 360))});
  return d;
}

/// A leaf that is held at an angle while the others shut, or that lies flat.
Design leafHeld(Draw& draw) {
  const double held = draw.chance(0.4) ? 0 : draw.chance(0.3) ? 180 : draw.in(20, 160);
  return onSheet({"size 300 x 90", "score 100 v opens to 180",
                  fmt::format("score 200 v held at {}", held), "ground 50,45"});
}

/// A film from page to page with a box between, or beside.
Design filmByBox(Draw& draw) {
  Design d = card(130, 180);
  addBox(d, draw.in(20, 100), draw.in(20, 60), draw.in(8, 20), draw.in(20, 60));
  addPiece(d, "card/page-b",
           {"size 10 x 10", fmt::format("glue 5,5 on card/page-b at 80,{}", draw.in(70, 100)),
            fmt::format("film 5,5 on card/page-a at 80,{} long {}", draw.in(70, 100),
                        draw.in(150, 220))});
  return d;
}

/// A flap of the base that opens within a fraction of a degree, beside a wall that leans over it.
Design quickFlap(Draw& draw) {
  const double from = draw.in(20, 150), out = draw.in(10, 50);
  Design d =
      onSheet({"size 260 x 180", "score 130 v opens to 180",
               fmt::format("cut 200,120 to {},120 to {},60 to 200,60", 200 + out, 200 + out),
               fmt::format("score 200,60 to 200,120 v opens to 180 between {:.3f} and {:.3f}", from,
                           from + draw.in(0.2, 1))});
  addBox(d, 60, 60, draw.in(10, 50), draw.in(10, 60));
  return d;
}

/// Layers of any thickness, near a fold or not.
Design layersByFold(Draw& draw) {
  Design d = card(130, 180);
  Paper board;
  board.key = "board", board.label = "Board";
  board.thickness_mm = draw.in(0.1, 3);
  d.papers.push_back(board);
  for (const char* face : {"card/page-a", "card/page-b"}) {
    if (draw.chance(0.3)) continue;
    DressRule rule;
    rule.face = face;
    rule.layers.push_back({});
    rule.layers.back().paper = "board", rule.layers.back().border_mm = {draw.in(0, 4)};
    d.dressing.rules.push_back(rule);
  }
  return d;
}

/// A sheet glued where there is paper, an opening, or little of either.
Design gluedOrNot(Draw& draw) {
  Design d = card(130, 180);
  const auto given = valuesForNew(*assembleDesign(d), d.settings, "window", "card/page-b", {});
  d = addStructure(d, "window", "card/page-b", *given)->design;
  addPiece(d, "card/page-b",
           {"size 40 x 30",
            fmt::format("glue 20,15 on card/page-b at {},{}", draw.in(40, 140), draw.in(30, 100))});
  if (draw.chance(0.4)) {
    const double s = draw.in(0.3, 8);
    PieceWork work = *d.structures.back().work;
    std::get<given::Glue>(work.joints.front().kind).area = {
        {20, 15}, {20 + s, 15}, {20 + s, 15 + s}, {20, 15 + s}};
    d = *setWork(d, d.structures.back().id, work);
  }
  return d;
}

/// A strip over the gutter whose glue decides how it folds, marked by chance.
Design markedByChance(Draw& draw) {
  Design d = card(130, 180);
  const double w = draw.in(30, 60), foot = draw.in(20, 40);
  const auto mark = [&] { return draw.chance(0.7) ? "v" : "m"; };
  const auto back = [&] { return draw.chance(0.7) ? "m" : "v"; };
  addPiece(d, "card/page-a",
           {fmt::format("size {} x 30", 20 + 2 * w),
            fmt::format("score 10 {}, {} {}, {} {}", mark(), 10 + w, back(), 10 + 2 * w, mark()),
            fmt::format("glue 5,15 on card/page-a at 90,{} turned -90", foot - 5),
            fmt::format("glue {},15 on card/page-b at 90,{} turned 90", 15 + 2 * w, foot - 5)});
  return d;
}

struct Class {
  const char* name;
  Design (*member)(Draw&);
};
constexpr Class kClasses[] = {
    {"torn or not", tornOrNot},          {"slider by a foot", sliderByFoot},
    {"arm by sheets", armBySheets},      {"under a flap", underFlap},
    {"leaves in turn", leavesInTurn},    {"figure by a ridge", figureByRidge},
    {"held walls", heldWalls},           {"leaf held", leafHeld},
    {"film by a box", filmByBox},        {"quick flap", quickFlap},
    {"layers by a fold", layersByFold},  {"glued or not", gluedOrNot},
    {"marked by chance", markedByChance}};

/// Codes of findings that the referee looks for too.
const std::set<std::string> kJudged{
    "torn",           "panels-hit",      "lift-hits",   "stands-in-shut",  "tie-blocked",
    "layers-at-fold", "glue-on-nothing", "glue-little", "pin-in-the-open", "folds-other-way",
    "stack-through"};

} // namespace

/// The product's verdict against the referee's: cards that are known to be wrong, and random
/// members of the classes in which holes were found. HINGE_MEMBERS=300 tries as many of each.
class TestVerdicts : public QObject {
  Q_OBJECT
private slots:
  void flapsOnOnePageAreLiftedInTurn();
  void aHandThatCanMoveNothingIsTold();
  void whatLiesOverNothingIsTold();
  void cardsThatAreWrongAreNotCalledGood_data();
  void cardsThatAreWrongAreNotCalledGood();
  void membersOfAClassAreJudgedAsTheRefereeDoes_data();
  void membersOfAClassAreJudgedAsTheRefereeDoes();
  void randomDesignsAreJudgedAsTheRefereeDoes();
};

void TestVerdicts::flapsOnOnePageAreLiftedInTurn() {
  // Two flaps folded over towards one another, lying on the page: 30 mm apart, or overlapping.
  const auto flaps = [](double apart) {
    Design d = card(150, 200);
    for (const auto& [at, turn] : {std::pair{60.0, 180}, std::pair{60 + apart, 0}})
      addPiece(d, "card/page-b",
               {"size 60 x 30", "score 10 v lifted from 0 to 170",
                fmt::format("glue 5,15 on card/page-b at {},{} turned {}", 100.0, at, turn + 90)});
    return checked(d);
  };
  QVERIFY(!findCode(flaps(110), "hands-in-turn"));
  const Analysis over = flaps(70);
  QVERIFY(findCode(over, "hands-in-turn"));
  QVERIFY(over.verdict == Verdict::Advice);
}

void TestVerdicts::aHandThatCanMoveNothingIsTold() {
  // A bar on a slide, held by a link on two pins: the hand that is to push it does nothing.
  Design d = card(150, 200);
  addPiece(
      d, "card/page-b",
      {"size 20 x 60", "slide 10,10 on card/page-b at 100,40 turned 90 most 60 pushed 0 to 38"});
  QVERIFY(!findCode(checked(d), "hand-does-nothing"));
  addPiece(
      d, "card/page-b",
      {"size 40 x 8", "pivot 4,4 on s1/panel-1 at 10,50", "pivot 36,4 on card/page-b at 60,80"});
  QVERIFY(findCode(checked(d), "hand-does-nothing") || checked(d).verdict == Verdict::Spoiled);
}

void TestVerdicts::whatLiesOverNothingIsTold() {
  // An arm that is to lie over one thing: the strap glued beside it, or nothing.
  const auto arm = [](bool strap) {
    Design d = card(150, 200);
    if (strap) addPiece(d, "card/page-b", {"size 60 x 10", "glue 30,5 on card/page-b at 60,30"});
    addPiece(d, "card/page-b",
             {"size 60 x 10", "pivot 5,5 on card/page-b at 60,60 spun 0 to 30 over 1"});
    return checked(d);
  };
  QVERIFY(!findCode(arm(true), "over-nothing"));
  const Analysis alone = arm(false);
  const Finding* told = findCode(alone, "over-nothing");
  QVERIFY(told && told->amount == 1 && alone.verdict == Verdict::Advice);
}

void TestVerdicts::cardsThatAreWrongAreNotCalledGood_data() {
  QTest::addColumn<int>("verdict");
  QTest::addColumn<QString>("code");
  const auto row = [](const char* card, const char* code, Verdict verdict = Verdict::Spoiled) {
    QTest::newRow(card) << int(verdict) << code;
  };
  row("torn-fold", "torn");
  row("pin-ties-pages", "torn");
  row("slide-ties-pages", "torn");
  row("slider-through-foot", "panels-hit");
  row("slider-over-star", "panels-hit");
  row("arm-through-glued-sheets", "lift-hits");
  row("leaf-rolled-in", "panels-hit");
  row("step-through-flap", "panels-hit");
  row("small-card-on-glued-side", "panels-hit");
  row("held-walls-cross", "panels-hit");
  row("film-through-box", "tie-blocked");
  row("leaf-held-upright", "stands-in-shut");
  row("flap-in-half-a-degree", "panels-hit");
  row("board-to-the-fold", "layers-at-fold");
  row("pin-in-a-hole", "pin-in-the-open");
  row("speck-of-glue", "glue-little");
  row("glued-over-window", "glue-on-nothing");
  row("tower-marked-wrong", "folds-other-way");
  row("used-from-40-degrees", "not-shut-below", Verdict::Advice);
  row("pulled-by-nothing", "pulled-by-nothing", Verdict::Advice);
}

void TestVerdicts::cardsThatAreWrongAreNotCalledGood() {
  QFETCH(int, verdict);
  QFETCH(QString, code);
  const auto design =
      loadDesign(fmt::format(HINGE_TEST_DATA "/wrong/{}.hinge", QTest::currentDataTag()));
  QVERIFY(design);
  const Analysis analysis = checked(*design);
  QVERIFY2(findCode(analysis, code.toStdString()), qPrintable(code));
  QCOMPARE(int(analysis.verdict), verdict);
}

void TestVerdicts::membersOfAClassAreJudgedAsTheRefereeDoes_data() {
  QTest::addColumn<int>("number");
  for (std::size_t k = 0; k < std::size(kClasses); ++k)
    QTest::newRow(kClasses[k].name) << int(k);
}

namespace {

constexpr double kSurelySeen_mm = 1.25 * RefereeOptions().depth_mm;

/// Where product and referee differ on a card, in sentences; nothing where they agree.
std::string differenceOn(const Design& design, int& right, int& wrong) {
  auto analysis = analyse(design);
  if (!analysis) return {}; // refused
  const auto complaints = complaintsOf(*analysis, {.step_deg = 2});
  ++(complaints.empty() ? right : wrong);
  if (!complaints.empty() && analysis->verdict == Verdict::Good)
    return "called good\n" + told(complaints);
  std::string says;
  bool judged = false;
  for (const Finding& f : analysis->findings) {
    if (f.severity != Severity::Spoils) continue;
    says += fmt::format("    product: {}\n", describe(f, design));
    // The referee looks at other openings, for crossings that are deeper than the product's.
    const bool slight = f.unit == AmountUnit::Millimetre && f.amount < kSurelySeen_mm;
    judged = judged || (kJudged.contains(f.code) && !slight);
  }
  if (complaints.empty() && judged) return "called spoiled, the referee finds nothing\n" + says;
  return {};
}

int membersToTry(int usual) {
  return std::max(usual, qEnvironmentVariableIntValue("HINGE_MEMBERS"));
}

} // namespace

void TestVerdicts::membersOfAClassAreJudgedAsTheRefereeDoes() {
  QFETCH(int, number);
  int right = 0, wrong = 0;
  std::string differs;
  for (int seed = 0; seed < membersToTry(12); ++seed) {
    Draw draw(static_cast<unsigned>(1000 * number + seed));
    const std::string difference = differenceOn(kClasses[number].member(draw), right, wrong);
    if (!difference.empty()) differs += fmt::format("  {}: {}", seed, difference);
  }
  QVERIFY2(differs.empty(), ("\n" + differs).c_str());
  QVERIFY(right + wrong > 0);
  qInfo("%d right, %d wrong", right, wrong);
}

void TestVerdicts::randomDesignsAreJudgedAsTheRefereeDoes() {
  int right = 0, wrong = 0;
  std::string differs;
  for (int seed = 0; seed < membersToTry(25); ++seed) {
    const std::string difference =
        differenceOn(randomDesign(static_cast<unsigned>(seed + 5000)), right, wrong);
    if (!difference.empty()) differs += fmt::format("  {}: {}", seed, difference);
  }
  QVERIFY2(differs.empty(), ("\n" + differs).c_str());
  qInfo("%d right, %d wrong", right, wrong);
}

QTEST_APPLESS_MAIN(TestVerdicts)
#include "test_verdicts.moc"
