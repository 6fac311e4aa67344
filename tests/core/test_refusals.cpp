// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/bases/base.h"
#include "core/edits/edits.h"
#include "core/edits/proportion.h"
#include "core/edits/solve_piece.h"
#include "core/io/fold_file.h"
#include "core/io/obj.h"
#include <functional>
#include <limits>
#endif

using namespace hinge;
using namespace hinge::test;

// What is refused, at the limit: just inside it is taken, just outside it is refused with its own
// sentence, at its own place. The limits are worked out by hand beside each row.

namespace {

/// A card of one base, with some of its sizes.
Result<Assembly> based(const char* base, const ParameterValues& values, double width_mm = 130,
                       double height_mm = 180) {
  Design d = card(width_mm, height_mm);
  d.card = *onBase(d.card, base);
  for (const auto& [key, value] : values)
    d.card.values[key] = value;
  return assembleDesign(d);
}

/// One structure with these sizes, as they are, on a single fold of 130 x 180 mm.
Result<Assembly> standing(const char* kind, const ParameterValues& values,
                          const char* seat = "gutter") {
  Design d = card();
  const StructureId id = add(d, kind, seat);
  for (const auto& [key, value] : values)
    d.structures.back().values[key] = value;
  Q_UNUSED(id);
  return assembleDesign(d);
}

/// A step and a V in the same fold: the second one cuts where the first one has cut.
Result<Assembly> twoCuts(double first_mm, double second_mm) {
  Design d = card();
  add(d, "step", "gutter",
      {{"position", first_mm}, {"length", 40}, {"a", 30}, {"b", 30}, {"treads", 1}});
  Design both = d;
  add(both, "step", "gutter",
      {{"position", 120}, {"length", 20}, {"a", 20}, {"b", 20}, {"treads", 1}});
  both.structures.back().values["position"] = second_mm;
  return assembleDesign(both);
}

/// A strip of four panels of 20 mm, 40 mm high.
PieceWork strip() {
  PieceWork work = plainStrip(80, 40);
  for (double x : {20.0, 40.0, 60.0})
    work.lines.push_back({WorkLine::Kind::Mountain, {x, 0}, {x, 40}});
  return work;
}

template <class T> Result<void> outcome(const Result<T>& result) {
  return result.ok() ? Result<void>() : Result<void>(result.error());
}

using Attempt = std::function<Result<void>()>;

} // namespace

Q_DECLARE_METATYPE(Attempt)

class TestRefusals : public QObject {
  Q_OBJECT

  static void row(const char* name, const char* key, const char* place, Attempt refused,
                  Attempt taken) {
    QTest::newRow(name) << QString::fromLatin1(key) << QString::fromLatin1(place) << refused
                        << taken;
  }
  static void columns() {
    QTest::addColumn<QString>("key");
    QTest::addColumn<QString>("place");
    QTest::addColumn<Attempt>("refused");
    QTest::addColumn<Attempt>("taken");
  }
  static void judge() {
    QFETCH(QString, key);
    QFETCH(QString, place);
    QFETCH(Attempt, refused);
    QFETCH(Attempt, taken);
    const auto no = refused();
    QVERIFY2(!no.ok(), "was taken");
    QCOMPARE(QString::fromStdString(no.error().message.key), key);
    QCOMPARE(QString::fromStdString(no.error().place), place);
    // A sentence of its own, with everything in it that it is said of.
    const QString said = QString::fromStdString(say(no.error().message));
    QVERIFY2(said != key && !said.contains(QLatin1Char('%')), qPrintable(said));
    const auto yes = taken();
    QVERIFY2(yes.ok(), yes.ok() ? "" : say(yes.error()).c_str());
  }
  static Attempt base(const char* kind, const ParameterValues& values) {
    return [=] { return outcome(based(kind, values)); };
  }
  static Attempt structure(const char* kind, const ParameterValues& values,
                           const char* seat = "gutter") {
    return [=] { return outcome(standing(kind, values, seat)); };
  }
  static Attempt work(const std::function<void(PieceWork&)>& change) {
    return [=] {
      PieceWork changed = strip();
      change(changed);
      return validate(changed, "s1");
    };
  }

private slots:
  void bases_data() {
    columns();
    // Pages of the card are 130 mm deep.
    row("easel without a front", "easel.no-front/strut", "card.base_values.strut",
        base("easel", {{"strut", 125.5}, {"stop", 122}}),
        base("easel", {{"strut", 125}, {"stop", 122}}));
    // strut 65 + front 65: the stop is less than 130 and more than 0 mm away.
    row("easel with a stop too far", "easel.stop", "card.base_values.stop",
        base("easel", {{"strut", 65}, {"stop", 129.5}}),
        base("easel", {{"strut", 65}, {"stop", 129}}));
    // strut 90, front 40: it cannot stand nearer than 50 mm.
    row("easel with a stop too near", "easel.stop", "card.base_values.stop",
        base("easel", {{"strut", 90}, {"stop", 50.5}}),
        base("easel", {{"strut", 90}, {"stop", 51}}));
    // 130 - 40 - 40 - 45.5 leaves 4.5 mm.
    row("double easel without a second front", "easel.no-front", "card.base_values.strut2",
        base("double-easel",
             {{"strut", 40}, {"front", 40}, {"strut2", 45.5}, {"stop", 50}, {"stop2", 92}}),
        base("double-easel",
             {{"strut", 40}, {"front", 40}, {"strut2", 45}, {"stop", 50}, {"stop2", 92}}));
    row("double easel, first stop too far", "easel.stop", "card.base_values.stop",
        base("double-easel",
             {{"strut", 30}, {"front", 30}, {"strut2", 35}, {"stop", 59.5}, {"stop2", 100}}),
        base("double-easel",
             {{"strut", 30}, {"front", 30}, {"strut2", 35}, {"stop", 59}, {"stop2", 100}}));
    // The second tent has 35 + 35 mm over what lies between the stops.
    row("double easel, second stop too far", "easel.stop/second", "card.base_values.stop2",
        base("double-easel",
             {{"strut", 30}, {"front", 30}, {"strut2", 35}, {"stop", 40}, {"stop2", 109.5}}),
        base("double-easel",
             {{"strut", 30}, {"front", 30}, {"strut2", 35}, {"stop", 40}, {"stop2", 109}}));
    row("joined fold with a flap too deep", "joined.flap", "card.base_values.flap",
        base("joined-fold", {{"flap", 130.5}}), base("joined-fold", {{"flap", 129.5}}));
    row("gate with flaps that meet", "base.flaps-meet", "card.base_values",
        base("gate", {{"left", 65}, {"right", 65.5}}), base("gate", {{"left", 65}, {"right", 65}}));
    row("letter fold with an inner flap too wide", "base.inner-wide", "card.base_values.inner",
        base("tri-fold", {{"inner", 130.5}}), base("tri-fold", {{"inner", 130}}));
    row("sleeve without a front", "sleeve.no-front", "card.base_values.depth",
        base("sleeve", {{"depth", 125.5}, {"tab", 5}}),
        base("sleeve", {{"depth", 125}, {"tab", 5}}));
    row("sleeve with a tab too deep", "sleeve.tab", "card.base_values.tab",
        base("sleeve", {{"depth", 100}, {"tab", 30.5}}),
        base("sleeve", {{"depth", 100}, {"tab", 30}}));
    // The middle of a page 130 mm wide is 65 mm from its nearer sides.
    row("petals that meet", "petals.meet", "card.base_values.petal",
        base("petals", {{"petal", 65}}), base("petals", {{"petal", 64.5}}));
    row("petals round the page are free of that", "petals.meet", "card.base_values.petal",
        base("petals", {{"petal", 70}}), base("petals", {{"petal", 70}, {"shut", 1}}));
    row("a size out of its range", "value.range", "card flap", base("joined-fold", {{"flap", -1}}),
        base("joined-fold", {{"flap", 20}}));
    row("a size that no base has", "value.unknown", "card depth",
        base("joined-fold", {{"depth", 20}}), base("sleeve", {{"depth", 20}}));
  }
  void bases() { judge(); }

  void cards_data() {
    columns();
    const auto sized = [](auto change) {
      return Attempt([=] {
        CardBase changed = card().card;
        change(changed);
        return validateCard(changed);
      });
    };
    const auto width = [&](double mm) { return sized([=](CardBase& c) { c.width_mm = mm; }); };
    const auto height = [&](double mm) { return sized([=](CardBase& c) { c.height_mm = mm; }); };
    const auto shown = [&](double deg) { return sized([=](CardBase& c) { c.display_deg = deg; }); };
    const auto pulls = [&](double deg) { return sized([=](CardBase& c) { c.openBy_deg = deg; }); };
    const double least = starting::kLeastCard_mm, most = starting::kLargestCard_mm;
    row("narrow", "card.size", "card width", width(least - 0.01), width(least));
    row("wide", "card.size", "card width", width(most + 0.01), width(most));
    row("no number", "card.size", "card width", width(std::numeric_limits<double>::quiet_NaN()),
        width(100));
    row("low", "card.size", "card height", height(least - 0.01), height(least));
    row("high", "card.size", "card height", height(most + 0.01), height(most));
    row("shown shut", "card.display", "card display", shown(0.99), shown(1));
    row("shown too far open", "card.display", "card display", shown(180.01), shown(180));
    row("pulls from the start", "card.open-by", "card open_by_deg", pulls(29.9), pulls(30));
    row("pulls past the end", "card.open-by", "card open_by_deg", pulls(180.1), pulls(180));
  }
  void cards() { judge(); }

  void structures_data() {
    columns();
    row("an arm wider than long", "arm.too-short", "s1",
        structure("arm", {{"length", 20}, {"width", 20.5}}, "card/page-b"),
        structure("arm", {{"length", 20}, {"width", 20}}, "card/page-b"));
    // Each line must be a millimetre longer than what is cut back at the point.
    row("a V cut away", "vfold.cut-away", "s1",
        structure("vfold", {{"la", 30}, {"lb", 30}, {"lc", 30}, {"open", 29.5}}),
        structure("vfold", {{"la", 30}, {"lb", 30}, {"lc", 30}, {"open", 28}}));
    // Three tiers that step in by 9: the feet are 36, 27, 18 mm; with 16 the last one has 4.
    row("tiers without a top", "tier.too-small", "s1",
        structure("tiers", {{"tiers", 3}, {"a", 36}, {"length", 84}, {"inset", 16.5}}),
        structure("tiers", {{"tiers", 3}, {"a", 36}, {"length", 84}, {"inset", 16}}));
    // Two lengths of inset a tier: 84 - 4 * 19 leaves 8 mm.
    row("tiers without a length", "tier.too-small", "s1",
        structure("tiers", {{"tiers", 3}, {"a", 60}, {"length", 84}, {"inset", 19.5}, {"h", 10}}),
        structure("tiers", {{"tiers", 3}, {"a", 60}, {"length", 84}, {"inset", 19}, {"h", 10}}));
    // 40 - 2 * 3 * 6 leaves 4 mm, 40 - 2 * 3 * 5.5 leaves 7.
    row("a stair that ends early", "step.too-short", "s1",
        structure("step", {{"length", 40}, {"treads", 4}, {"narrow", 6}}),
        structure("step", {{"length", 40}, {"treads", 4}, {"narrow", 5.5}}));
    row(
        "a cut through another cut", "cut.past-edge/whole", "s2/cut",
        [] { return outcome(twoCuts(60, 100.5)); }, [] { return outcome(twoCuts(60, 101)); });
    row(
        "a cut that ends with the fold", "cut.past-edge/whole", "s2/cut",
        [] { return outcome(twoCuts(60, 159.5)); }, [] { return outcome(twoCuts(60, 159)); });
    row("a window at the edge", "window.past-edge", "s1/window",
        structure("window", {{"position", 10.5}, {"width", 20}, {"height", 20}, {"turn", 0}},
                  "card/page-b"),
        structure("window", {{"position", 11}, {"width", 20}, {"height", 20}, {"turn", 0}},
                  "card/page-b"));
    row(
        "a box on a face", "seat.unsuitable", "s1",
        [] {
          Design d = card();
          add(d, "box", "gutter");
          d.structures.back().seat = "card/page-a";
          return outcome(assembleDesign(d));
        },
        [] {
          Design d = card();
          add(d, "figure", "card/page-a");
          return outcome(assembleDesign(d));
        });
    row(
        "a kind that is none", "structure.unknown", "s1",
        [] {
          Design d = card();
          add(d, "box", "gutter");
          d.structures.back().kind = "castle";
          return outcome(assembleDesign(d));
        },
        [] { return outcome(standing("box", {})); });
    row("a count that is no whole number", "value.range/whole", "s1 tiers",
        structure("tiers", {{"tiers", 2.5}}), structure("tiers", {{"tiers", 2}}));
    row("no number", "value.range/number", "s1 h",
        structure("tiers", {{"h", std::numeric_limits<double>::infinity()}}),
        structure("tiers", {{"h", 20}}));
    row(
        "a value left out", "value.missing", "s1 h",
        [] {
          Design d = card();
          add(d, "tiers", "gutter");
          d.structures.back().values.erase("h");
          return outcome(assembleDesign(d));
        },
        structure("tiers", {}));
  }
  void structures() { judge(); }

  void pieces_data() {
    columns();
    using K = WorkLine::Kind;
    row("an outline too far out", "work.size", "s1.outline[1]",
        work([](PieceWork& w) { w.outline[1].x() = 5000.5; }),
        work([](PieceWork& w) { w.outline[1].x() = 80; }));
    row("an outline that crosses itself", "work.outline", "s1",
        work([](PieceWork& w) { std::swap(w.outline[1], w.outline[2]); }), work([](PieceWork&) {}));
    row("a line out of the piece", "work.line-outside", "s1.lines[3]", work([](PieceWork& w) {
          w.lines.push_back({K::Cut, {70, 10}, {81, 10}});
        }),
        work([](PieceWork& w) {
          w.lines.push_back({K::Cut, {70, 10}, {80, 10}});
        }));
    row("a line too short", "work.line", "s1.lines[3]", work([](PieceWork& w) {
          w.lines.push_back({K::Cut, {70, 10}, {70.4, 10}});
        }),
        work([](PieceWork& w) {
          w.lines.push_back({K::Cut, {70, 10}, {70.5, 10}});
        }));
    row("a line too far out", "work.size", "s1.lines[3]", work([](PieceWork& w) {
          w.lines.push_back({K::Cut, {70, 10}, {70, -6000}});
        }),
        work([](PieceWork& w) {
          w.lines.push_back({K::Cut, {70, 10}, {70, 0}});
        }));
    row("an opening that crosses itself", "work.window", "s1.windows[0]", work([](PieceWork& w) {
          w.windows = {{{5, 5}, {15, 15}, {15, 5}, {5, 15}}};
        }),
        work([](PieceWork& w) {
          w.windows = {{{5, 5}, {15, 5}, {15, 15}, {5, 15}}};
        }));
    row("a joint beside the paper", "work.joint-outside", "s1.joints[0]", work([](PieceWork& w) {
          w.joints = {{{81, 10}, "card/page-a", {5, 5}, given::Glue()}};
        }),
        work([](PieceWork& w) {
          w.joints = {{{79, 10}, "card/page-a", {5, 5}, given::Glue()}};
        }));
    row("a joint nowhere", "work.joint", "s1.joints[0]", work([](PieceWork& w) {
          w.joints = {{{70, 10}, "card/page-a", {6000, 5}, given::Glue()}};
        }),
        work([](PieceWork& w) {
          w.joints = {{{70, 10}, "card/page-a", {5, 5}, given::Glue()}};
        }));
    row("too many openings", "work.too-much/parts", "s1", work([](PieceWork& w) {
          w.windows.assign(201, {{5, 5}, {6, 5}, {6, 6}});
        }),
        work([](PieceWork& w) {
          w.windows.assign(200, {{5, 5}, {6, 5}, {6, 6}});
        }));
  }
  void pieces() { judge(); }

  void scores_data() {
    columns();
    const auto moved = [](double to, bool carry) {
      return Attempt([=] { return outcome(withScoreMoved(strip(), 1, to, carry)); });
    };
    // The second score is at 40, its neighbours at 20 and 60; a panel is half a millimetre at
    // least.
    row("onto the score before it", "work.order", "", moved(20.5, false), moved(20.6, false));
    row("onto the score after it", "work.order", "", moved(59.5, false), moved(59.4, false));
    row("carrying the rest along", "work.order", "", moved(20.4, true), moved(75, true));
    row(
        "a line that is no score", "work.no-score", "",
        [] { return outcome(withScoreMoved(strip(), 7, 30, false)); }, moved(30, false));
    const auto wide = [](std::size_t panel, double mm) {
      return Attempt([=] { return outcome(withPanelWidth(strip(), panel, mm)); });
    };
    row("a panel that is none", "work.no-panel", "", wide(4, 20), wide(3, 25));
    row("a first panel of nothing", "work.order", "", wide(0, 0.4), wide(0, 0.6));
    row("a last panel of nothing", "work.order/vanish", "", wide(3, 0.4), wide(3, 0.6));
    const auto added = [](double at) {
      return Attempt([=] { return outcome(withScoreAdded(strip(), at, WorkLine::Kind::Valley)); });
    };
    row("a score on a score", "work.order/there", "", added(40.4), added(40.6));
    row("a score beside the paper", "work.score-outside", "", added(80.5), added(79));
    const auto all = [](std::vector<double> at) {
      return Attempt([=] { return outcome(withScores(strip(), {at.begin(), at.end()})); });
    };
    row("scores that do not rise", "work.order/rise", "", all({10, 30, 30.4}), all({10, 30, 30.5}));
    row(
        "a line that is not there", "work.no-line", "",
        [] { return outcome(withLineRemoved(strip(), 3)); },
        [] { return outcome(withLineRemoved(strip(), 2)); });
    row(
        "a cut cannot be turned over", "work.no-line/score", "",
        [] {
          PieceWork cut = strip();
          cut.lines[0].kind = WorkLine::Kind::Cut;
          return outcome(withLineTurned(cut, 0));
        },
        [] { return outcome(withLineTurned(strip(), 0)); });
  }
  void scores() { judge(); }

  void aMovedScoreIsWhereItWasPut() {
    const auto alone = withScoreMoved(strip(), 1, 33, false),
               along = withScoreMoved(strip(), 1, 33, true);
    const auto places = [](const PieceWork& w) {
      std::vector<double> at;
      for (const ScoreMark& mark : scoreMarks(w))
        at.push_back(mark.low_mm);
      return at;
    };
    QVERIFY(places(*alone) == (std::vector<double>{20, 33, 60}));
    QVERIFY(places(*along) == (std::vector<double>{20, 33, 53}));
    QVERIFY_NEAR(boundsOf(along->outline).high.x(), 73, 1e-9);
    // The last panel grows to the right and takes nothing along.
    const auto wide = withPanelWidth(strip(), 3, 28);
    QVERIFY(places(*wide) == (std::vector<double>{20, 40, 60}));
    QVERIFY_NEAR(boundsOf(wide->outline).high.x(), 88, 1e-9);
    const auto narrow = withPanelWidth(strip(), 0, 12);
    QVERIFY(places(*narrow) == (std::vector<double>{12, 32, 52}));
    QVERIFY_NEAR(boundsOf(narrow->outline).high.x(), 72, 1e-9);
  }
  void addedScoresTakeTurns() {
    using K = WorkLine::Kind;
    const auto more = withScores(strip(), {10, 20, 30, 50, 60});
    QVERIFY(more.ok());
    std::vector<K> kinds;
    for (const ScoreMark& mark : scoreMarks(*more))
      kinds.push_back(more->lines[mark.line].kind);
    QVERIFY(kinds ==
            (std::vector<K>{K::Mountain, K::Mountain, K::Mountain, K::Valley, K::Mountain}));
    const auto fewer = withScores(strip(), {15});
    QCOMPARE(scoreMarks(*fewer).size(), std::size_t(1));
    QVERIFY_NEAR(scoreMarks(*fewer).front().low_mm, 15, 1e-12);
  }
  void aPoseOutOfReachIsNamed() {
    Design d = card();
    const StructureId id = add(d, "box", "gutter", {{"a", 30}, {"b", 30}, {"c", 30}, {"d", 30}});
    d.structures.back().values["c"] = 25;
    d.structures.back().values["d"] = 25;
    const Motion motion = Motion::trace(assemble(d));
    // Walls of 25 mm on feet 30 mm out: they are straight where sin(half the opening) is 25 / 30.
    const double limit = degrees(2 * std::asin(25.0 / 30.0));
    QVERIFY(degrees(motion.high_rad()) < limit + 0.1);
    for (const double beyond : {limit + 5, 180.0}) {
      const auto model = poseToObj(motion, beyond);
      QVERIFY(!model.ok());
      QCOMPARE(model.error().code(), std::string("pose.out-of-reach"));
      const std::vector<double> openings{beyond};
      QCOMPARE(motionToFold(motion, openings).error().code(), std::string("pose.out-of-reach"));
    }
    QVERIFY(poseToObj(motion, limit - 5).ok());
    Q_UNUSED(id);
  }
};

QTEST_APPLESS_MAIN(TestRefusals)
#include "test_refusals.moc"
