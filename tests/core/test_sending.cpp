// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/io/cut_mark.h"
#include "core/io/maker_bench.h"
#include "core/io/text_file.h"
#include "core/sending/talk.h"
#include "cutter/drag_cutter.h"
#include <QTemporaryDir>
#include <random>
#endif

using namespace hinge;
using namespace hinge::test;

// What a cutting machine is sent, held against what a machine that knows nothing of it leaves on
// its sheet.

namespace {

constexpr double kWithin_mm = 0.1;

/// The simulated machine without a real line: it gets time whenever an answer is waited for.
class DirectLine : public CutterLine {
public:
  explicit DirectLine(DragCutter& cutter) : m_cutter(cutter) {}
  Result<void> send(std::string_view text) override {
    if (m_gone) return Error{"cutter.lost", ""};
    m_cutter.take(text);
    return {};
  }
  Result<std::string> answer(int patience_ms) override {
    m_patience_ms = std::max(m_patience_ms, patience_ms);
    for (int k = 0; k < 4000 && m_read.find('\r') == std::string::npos; ++k) {
      if (m_gone) return Error{"cutter.lost", ""};
      m_cutter.advance(0.02);
      m_read += m_cutter.takeAnswers();
      if (m_cutter.takeLoss()) m_gone = true, m_cutter.lineCut();
    }
    const auto end = m_read.find('\r');
    if (end == std::string::npos) return Error{"cutter.silent", ""};
    std::string line = m_read.substr(0, end);
    m_read.erase(0, end + 1);
    return line;
  }

  int patience_ms() const { return m_patience_ms; } ///< the longest

private:
  DragCutter& m_cutter;
  int m_patience_ms = 0;
  std::string m_read;
  bool m_gone = false;
};

CutPlan planOf(const Design& design) {
  const Snapshot snapshot(design);
  LayoutOptions options = usualFor(LayoutFor::Machine, Bench());
  options.unlimited = true, options.seconds = 0.2;
  return layOutParts(
      design,
      partsToCut(design, *snapshot.cutPieces(), matList(design, *snapshot.dressed()), 1, false),
      options);
}

Design demo(const char* name) {
  const auto loaded = loadDesign(std::string(HINGE_SOURCE_DIR "/demo/") + name + ".hinge");
  return loaded ? *loaded : card();
}

double toSegment(const Vec2& p, const Vec2& a, const Vec2& b) {
  const Vec2 along = b - a;
  const double square = along.squaredNorm();
  const double share = square > 0 ? std::clamp((p - a).dot(along) / square, 0.0, 1.0) : 0;
  return (a + share * along - p).norm();
}

/// Straight pieces, as pairs of points.
using Lines = std::vector<std::pair<Vec2, Vec2>>;

Lines tracksOf(const DragCutter& cutter, int tool) {
  Lines lines;
  for (const CutterTrack& track : cutter.tracks())
    for (std::size_t k = 0; track.tool == tool && k + 1 < track.points.size(); ++k)
      lines.push_back({Vec2(track.points[k].x(), track.points[k].y()),
                       Vec2(track.points[k + 1].x(), track.points[k + 1].y())});
  return lines;
}

Lines linesOf(const std::vector<ToolStroke>& strokes, bool scores) {
  Lines lines;
  for (const ToolStroke& stroke : strokes) {
    const bool scored =
        stroke.kind == StrokeKind::ScoreMountain || stroke.kind == StrokeKind::ScoreValley;
    for (std::size_t k = 0; scored == scores && k + (stroke.closed ? 0 : 1) < stroke.points.size();
         ++k)
      lines.push_back({stroke.points[k], stroke.points[(k + 1) % stroke.points.size()]});
  }
  return lines;
}

double lengthOf(const Lines& lines) {
  double sum = 0;
  for (const auto& [a, b] : lines)
    sum += (b - a).norm();
  return sum;
}

/// The farthest that a point of some lines is from all of the others; what is nearer than `enough`
/// is not looked at further.
double farthest(const Lines& from, const Lines& to, double enough = 0.01) {
  double worst = 0;
  std::size_t last = 0; // the next point lies near the same line
  for (const auto& [a, b] : from) {
    const int steps = 1 + static_cast<int>((b - a).norm());
    for (int k = 0; k <= steps; ++k) {
      const Vec2 p = a + (b - a) * k / steps;
      double nearest = std::numeric_limits<double>::infinity();
      for (std::size_t n = 0; n < to.size() && nearest > enough; ++n) {
        const auto& [c, d] = to[(last + n) % to.size()];
        if (const double off = toSegment(p, c, d); off < nearest) {
          nearest = off;
          if (off <= enough) last = (last + n) % to.size();
        }
      }
      worst = std::max(worst, nearest);
    }
  }
  return worst;
}

/// Everything wanted is on the sheet, and nothing else.
void compareSheets(const DragCutter& cutter, const std::vector<ToolStroke>& strokes,
                   std::optional<Vec2> settled = Vec2(1, 1)) {
  for (const bool scores : {true, false}) {
    const Lines wanted = linesOf(strokes, scores), done = tracksOf(cutter, scores ? 1 : 2);
    QVERIFY2(farthest(wanted, done) < kWithin_mm,
             scores ? "a score is missing" : "a cut is missing");
    Lines allowed = wanted;
    if (!scores && settled) allowed.push_back({*settled, *settled + Vec2(3, 0)});
    QVERIFY2(farthest(done, allowed) < kWithin_mm, "cut where nothing is cut");
  }
}

ToolStroke closedStroke(std::vector<Vec2> points) {
  return {StrokeKind::CutOutline, std::move(points), true, 0};
}

/// The sheet of a plan on which most is done.
std::size_t busiest(const CutPlan& plan) {
  std::size_t best = 0;
  for (std::size_t k = 1; k < plan.sheets.size(); ++k)
    if (strokesOf(plan, k).size() > strokesOf(plan, best).size()) best = k;
  return best;
}

} // namespace

class TestSending : public QObject {
  Q_OBJECT
  QTemporaryDir m_folder;
private slots:
  void initTestCase() {
    // The maker's own bench is not the tests' to change.
    qputenv("XDG_DATA_HOME", m_folder.path().toUtf8());
  }

  void aTrailingTipFollowsTheLine() {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> radius(8, 40), turn(0.2, 0.9), offset(0.1, 1);
    for (int round = 0; round < 30; ++round) {
      std::vector<Vec2> corners;
      for (double angle = 0; angle < 6; angle += turn(random))
        corners.push_back(Vec2(100, 100) + radius(random) * Vec2(std::cos(angle), std::sin(angle)));
      const double blade = offset(random);
      Vec2 heading = Vec2::UnitX();
      const ToolStroke stroke = closedStroke(corners);
      const auto way = wayOf(stroke, {blade, 0.5}, heading);
      // A tip that is drawn after the axis at its distance.
      Vec2 tip = way.front() - blade * Vec2::UnitX();
      Lines drawn;
      for (std::size_t k = 0; k + 1 < way.size(); ++k) {
        const int steps = 1 + static_cast<int>((way[k + 1] - way[k]).norm() / 0.01);
        for (int s = 1; s <= steps; ++s) {
          const Vec2 axis = way[k] + (way[k + 1] - way[k]) * s / steps;
          const Vec2 next = axis - blade * (axis - tip).normalized();
          drawn.push_back({tip, next});
          tip = next;
        }
      }
      const Lines wanted = linesOf({stroke}, false);
      QVERIFY(farthest(wanted, drawn) < 0.02);
      QVERIFY(farthest(drawn, wanted) < 0.02);
      const double over = lengthOf(drawn) - lengthOf(wanted);
      // Turning on chords of the arc pushes the tip a little there and back.
      QVERIFY2(over > 0.45 && over < 0.9, qPrintable(QString::number(over)));
    }
  }

  void whatIsSentIsWhatIsWanted_data() {
    QTest::addColumn<QString>("name");
    for (const char* name : {"night-market", "ferry-pass", "canal-frames", "lock-diorama",
                             "tube-lantern", "bridge-of-arches"})
      QTest::newRow(name) << QString::fromLatin1(name);
  }
  void whatIsSentIsWhatIsWanted() {
    QFETCH(QString, name);
    const Design design = demo(qPrintable(name));
    const CutPlan plan = planOf(design);
    QVERIFY(!plan.sheets.empty());
    for (std::size_t sheet = 0; sheet < plan.sheets.size(); ++sheet) {
      const auto job = cutterJob(plan, sheet, design, Bench());
      QVERIFY(job);
      DragCutter cutter({plan.sheets[sheet].width_mm, plan.sheets[sheet].height_mm}, 0.25, {});
      cutter.take(hpglOf(*job));
      for (int k = 0; k < 10000 && !cutter.idle(); ++k)
        cutter.advance(1);
      compareSheets(cutter, strokesOf(plan, sheet));
      bool cut = false;
      for (const CutterTrack& track : cutter.tracks()) {
        cut = cut || track.tool == 2;
        QVERIFY2(!cut || track.tool == 2, "scored after the first cut");
      }
    }
  }

  /// A leg may run from corner to corner of the sheet before the machine is given up.
  void aLegIsWaitedForAsLongAsItMayTake() {
    const Design design = demo("ferry-pass");
    const CutPlan plan = planOf(design);
    auto job = cutterJob(plan, 0, design, Bench());
    QVERIFY(job);
    CutterJob slow = *job;
    for (const int speed : {0, 5, 20}) {
      slow.speed_cms = speed;
      DragCutter cutter({slow.width_mm, slow.height_mm}, 0.25, {});
      DirectLine line(cutter);
      CutterControl control;
      control.keep = [](const CutterMark&) { return Result<void>(); };
      control.patience_ms = 1234;
      QVERIFY(runCutter(slow, line, {}, control).ok());
      const double leg_ms = 100 * (slow.width_mm + slow.height_mm) / (speed ? speed : 5);
      QVERIFY2(std::abs(line.patience_ms() - 1234 - leg_ms) <= 1,
               qPrintable(QString::number(line.patience_ms())));
    }
  }

  /// The knife is turned to its way beside all parts, in the first corner that is free.
  void theKnifeIsSetBesideTheParts() {
    const Design design = demo("ferry-pass");
    CutPlan plan = planOf(design);
    LaidSheet& sheet = plan.sheets[0];
    sheet.places.resize(1);
    PartPlace& place = sheet.places[0];
    const Box2 box = boxOnSheet(plan.parts[place.part], place);
    const Vec2 offset = place.offset, room(sheet.width_mm, sheet.height_mm);
    std::mt19937 random(5);
    const auto within = [&](double low, double high) {
      return low + (high - low) * (random() % 1000) / 999;
    };
    int set = 0;
    for (int k = 0; k < 200; ++k) {
      // A part that lies near a corner, or over it.
      const Vec2 at(within(-2, 8), within(-2, 8));
      place.offset = offset - box.low + at;
      const Box2 lies = boxOnSheet(plan.parts[place.part], place);
      const auto job = cutterJob(plan, 0, design, Bench());
      if (!job) continue; // beyond the sheet
      for (const CutterStep& step : job->steps) {
        if (step.part != CutterStep::kNoPart) continue;
        double clear = 1e9;
        ++set;
        for (const MachinePoint& point : step.way) {
          const Vec2 p = kMachineUnit_mm * Vec2(point[0], point[1]);
          const Vec2 off = (lies.low - p).cwiseMax(p - lies.high);
          clear = std::min(clear, off.maxCoeff());
          QVERIFY(p.x() >= 0 && p.y() >= 0 && p.x() < room.x() && p.y() < room.y());
        }
        QVERIFY2(clear >= 0.2,
                 qPrintable(QStringLiteral("%1 at %2, %3").arg(clear).arg(at.x()).arg(at.y())));
      }
    }
    QVERIFY(set > 20);
  }

  void nothingIsLostAndNothingCutTwice_data() {
    QTest::addColumn<int>("how");
    QTest::newRow("jammed") << 0;
    QTest::newRow("out of paper") << 1;
    QTest::newRow("line lost") << 2;
    QTest::newRow("machine off, line lost") << 3;
    QTest::newRow("program killed before it sends") << 4;
    QTest::newRow("program killed while it waits") << 5;
  }
  void nothingIsLostAndNothingCutTwice() {
    QFETCH(int, how);
    const Design design = demo("ferry-pass");
    const CutPlan plan = planOf(design);
    const std::size_t sheet = busiest(plan);
    const auto job = cutterJob(plan, sheet, design, Bench());
    QVERIFY(job && job->steps.size() > 3);
    const double whole = job->lowered_mm() + job->raised_mm();
    const double wanted = lengthOf(linesOf(strokesOf(plan, sheet), false));
    std::size_t closed = 0;
    for (const ToolStroke& stroke : strokesOf(plan, sheet))
      closed += stroke.closed ? 1 : 0;
    std::mt19937 random(static_cast<unsigned>(how) + 1);
    std::uniform_real_distribution<double> place(0, whole);
    for (int round = 0; round < 50; ++round) {
      CutterFaults faults;
      const double at = place(random);
      if (how == 0) faults.jamAfter_mm = at;
      if (how == 1) faults.outAfter_mm = at;
      if (how == 2 || how == 3 || how == 5) faults.loseLineAfter_mm = at;
      DragCutter cutter({297, 420}, 0.25, faults);
      std::optional<CutterMark> mark;
      std::string record;
      int runs = 0;
      for (; runs < 4; ++runs) {
        DirectLine line(cutter);
        CutterControl control;
        std::size_t legs = 0;
        control.keep = [&](const CutterMark& now) -> Result<void> {
          if (how == 4 && runs == 0 && ++legs == 1 + static_cast<std::size_t>(at / whole * 12))
            return Error{"file.unwritable/folder", "killed"};
          mark = now;
          return {};
        };
        const auto ended = runCutter(*job, line, mark, control);
        record += cutter.takeRecord();
        if (ended) break;
        if (how == 0) {
          QCOMPARE(ended.error().code(), std::string("cutter.jam"));
          // Nothing moves before somebody has freed it.
          DirectLine again(cutter);
          const auto still = runCutter(*job, again, mark, control);
          QVERIFY(!still && still.error().code() == "cutter.jam");
          cutter.clear();
        } else if (how == 1) {
          QCOMPARE(ended.error().code(), std::string("cutter.paper"));
          cutter.clear();
        } else if (how == 3) {
          // What was under way when it went off: its record ends within a line.
          cutter = DragCutter({297, 420}, 0.25, {});
          cutter.restore(record + "T 0 2 1 1 3");
        }
      }
      QVERIFY2(runs == 1 || (runs == 0 && (how == 5 || how == 2 || how == 3 || how == 4)),
               qPrintable(QString::number(runs)));
      compareSheets(cutter, strokesOf(plan, sheet));
      const double done = lengthOf(tracksOf(cutter, 2)) - 3; // the first short cut
      const double over = done - wanted - 0.5 * static_cast<double>(closed);
      QVERIFY2(std::abs(over) < 0.3, qPrintable(QString::number(over)));
    }
  }

  void aPausedAndStoppedJobGoesOn() {
    const Design design = demo("ferry-pass");
    const CutPlan plan = planOf(design);
    const std::size_t sheet = busiest(plan);
    const auto job = cutterJob(plan, sheet, design, Bench());
    QVERIFY(job);
    DragCutter cutter({297, 420}, 0.25, {});
    std::optional<CutterMark> mark;
    int runs = 0;
    for (; runs < 1000; ++runs) {
      DirectLine line(cutter);
      std::stop_source stop;
      CutterControl control;
      int legs = 0;
      control.stop = stop.get_token();
      control.keep = [&](const CutterMark& now) -> Result<void> {
        mark = now;
        if (++legs == 2) stop.request_stop();
        return {};
      };
      const auto ended = runCutter(*job, line, mark, control);
      QVERIFY(ended);
      if (*ended == CutterEnd::Done) break;
      QVERIFY(!cutter.lowered() || legs > 2);
    }
    QVERIFY(runs > 3 && runs < 1000);
    compareSheets(cutter, strokesOf(plan, sheet));
  }

  void anotherJobIsNotGoneOnWith() {
    const Design design = demo("ferry-pass");
    const CutPlan plan = planOf(design);
    const auto job = cutterJob(plan, 0, design, Bench());
    Bench other;
    other.blade_mm = 0.4;
    const auto changed = cutterJob(plan, 0, design, other);
    QVERIFY(job && changed && markOf(*job) != markOf(*changed));
    DragCutter cutter({210, 297}, 0.25, {});
    DirectLine line(cutter);
    CutterControl control;
    control.keep = [](const CutterMark&) { return Result<void>(); };
    const CutterMark mark{markOf(*job), 0, 0, startOf(job->steps[0], 0)};
    const auto wrong = runCutter(*changed, line, mark, control);
    QVERIFY(!wrong && wrong.error().code() == "cutter.other-job");
    // The tool was moved by hand, lowered: where it stands is not on the way.
    cutter.take("PU8000,11000;PD8001,11001;");
    cutter.advance(10);
    const CutterMark second{markOf(*job), 0, 1, startOf(job->steps[0], 1)};
    const auto moved = runCutter(*job, line, second, control);
    QVERIFY(!moved && moved.error().code() == "cutter.elsewhere");
  }

  void strangeAnswersAreErrors() {
    struct Fixed : CutterLine {
      std::vector<std::string> lines;
      Result<void> send(std::string_view) override { return {}; }
      Result<std::string> answer(int) override {
        if (lines.empty()) return Error{"cutter.silent", ""};
        std::string line = lines.front();
        lines.erase(lines.begin());
        return line;
      }
    };
    const Design design = demo("ferry-pass");
    const auto job = cutterJob(planOf(design), 0, design, Bench());
    CutterControl control;
    control.keep = [](const CutterMark&) { return Result<void>(); };
    const auto codeFor = [&](std::vector<std::string> lines) {
      Fixed line;
      line.lines = std::move(lines);
      return runCutter(*job, line, std::nullopt, control).error().code();
    };
    QCOMPARE(codeFor({}), std::string("cutter.silent"));
    QCOMPARE(codeFor({"hello"}), std::string("cutter.answer"));
    QCOMPARE(codeFor({"0", "1,2"}), std::string("cutter.answer"));
    QCOMPARE(codeFor({"0", "1,2,x"}), std::string("cutter.answer"));
    QCOMPARE(codeFor({"0", "0;0;0"}), std::string("cutter.answer"));
    QCOMPARE(codeFor({"0", "0 0 0"}), std::string("cutter.answer"));
    QCOMPARE(codeFor({"", "0,0,0"}), std::string("cutter.answer"));
    QCOMPARE(codeFor({"5", "0,0,0"}), std::string("cutter.refused"));
    QCOMPARE(codeFor({"0", "0,0,0", "0", "7,7,0"}), std::string("cutter.elsewhere"));
  }

  void squaresSetTheMachineRight() {
    CutterFaults faults;
    faults.scale = {1.02, 0.985}, faults.offset_mm = {1.5, 2.25};
    Bench bench;
    const auto squares = testSquares(210, 297, Paper(), bench);
    QVERIFY(squares);
    QCOMPARE(squares->apart_mm, Vec2(150, 230));
    DragCutter cutter({210, 297}, 0.25, faults);
    cutter.take(hpglOf(squares->job));
    while (!cutter.idle())
      cutter.advance(1);
    // With a ruler: where the squares begin, the settling cut apart.
    std::vector<Box2> boxes;
    for (const CutterTrack& track : cutter.tracks()) {
      Box2 box;
      for (const QPointF& p : track.points)
        box.add(Vec2(p.x(), p.y()));
      if (box.size().minCoeff() > 5) boxes.push_back(box);
    }
    QCOMPARE(boxes.size(), std::size_t(2));
    const auto fit = fitFrom(*squares, {boxes[0].low, boxes[1].low - boxes[0].low});
    QVERIFY(fit);
    QVERIFY((fit->scale - Vec2(1.02, 0.985)).norm() < 1e-3);
    setFit(bench, *fit);
    const Design design = demo("ferry-pass");
    const CutPlan plan = planOf(design);
    const std::size_t sheet = busiest(plan);
    for (const bool corrected : {false, true}) {
      const auto job = cutterJob(plan, sheet, design, corrected ? bench : Bench());
      QVERIFY(job);
      DragCutter off({210, 297}, 0.25, faults);
      off.take(hpglOf(*job));
      while (!off.idle())
        off.advance(1);
      const Lines wanted = linesOf(strokesOf(plan, sheet), false);
      QCOMPARE(farthest(wanted, tracksOf(off, 2)) < kWithin_mm, corrected);
    }
    QCOMPARE(fitFrom(*squares, {Vec2(20, 20), Vec2(100, 230)}).error().code(),
             std::string("cutter.measured"));
    QCOMPARE(testSquares(90, 300, Paper(), bench).error().code(),
             std::string("cutter.small-sheet"));
  }

  void whatMachinesDoNotTakeIsRefused() {
    CutPlan plan;
    plan.sheets.push_back({Paper().key, 1000, 1000, {}, {}});
    CutPart part;
    part.outline = Region{{0, 0}, {900, 0}, {900, 900}, {0, 900}};
    part.flat.bounds = boundsOf(part.outline);
    part.flat.lines = {{LineKind::Cut, part.outline.rim, true}};
    plan.parts = {part};
    plan.sheets[0].places = {{0, 0, Vec2(5, 5), false}};
    QCOMPARE(cutterJob(plan, 0, card(), Bench()).error().code(), std::string("cutter.large"));
    Bench off;
    plan.sheets[0].width_mm = plan.sheets[0].height_mm = 500;
    off.offsetX_mm = 15;
    part.outline = Region{{0, 0}, {90, 0}, {90, 90}, {0, 90}};
    plan.parts[0].flat.lines = {{LineKind::Cut, part.outline.rim, true}};
    QCOMPARE(cutterJob(plan, 0, card(), off).error().code(), std::string("cutter.outside"));
    Paper heavy;
    heavy.thickness_mm = 1;
    QVERIFY(speedFor_cms(heavy, Bench()) < speedFor_cms(Paper(), Bench()));
    Bench own;
    own.speeds_cms[Paper().key] = 7;
    QCOMPARE(speedFor_cms(Paper(), own), 7);
  }

  void theMarkIsKeptAndAWrongOneTold() {
    const auto none = keptCutMark();
    QVERIFY(none && !*none);
    const CutterMark mark{"0123456789abcdef", 3, 1, {17, {400, 12345}}};
    QVERIFY(keepCutMark(mark));
    const auto kept = keptCutMark();
    QVERIFY(kept && *kept && **kept == mark);
    for (const char* text : {"{", "[]", R"({"format": "hinge-lantern-cut", "step": -1})",
                             R"({"format": "hinge-lantern-cut", "version": 1, "job": "a",
                                 "step": 0, "leg": 0, "behind": 0, "at": [1]})"}) {
      QVERIFY(writeFile(cutMarkPath(), text));
      const auto wrong = keptCutMark();
      QVERIFY(!wrong);
      QCOMPARE(wrong.error().code(), std::string("file.format"));
    }
    forgetCutMark();
    QVERIFY(!fileExists(cutMarkPath()));
  }

  void theBenchKeepsTheMachine() {
    Bench bench;
    bench.scaleX = 1.02, bench.offsetY_mm = -1.5, bench.blade_mm = 0.3;
    bench.speeds_cms = {{"card-220", 12}, {"foil", 8}};
    QVERIFY(keepBench(bench));
    const auto kept = makersBench();
    QVERIFY(kept && *kept == bench);
    bench.speeds_cms["foil"] = 500;
    QCOMPARE(keepBench(bench).error().code(), std::string("value.range"));
    bench.speeds_cms.clear();
    bench.scaleY = 1.2;
    QCOMPARE(keepBench(bench).error().code(), std::string("value.range"));
    std::remove(makersBenchPath().c_str());
  }
};

QTEST_GUILESS_MAIN(TestSending)
#include "test_sending.moc"
