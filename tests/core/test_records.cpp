// SPDX-License-Identifier: GPL-3.0-or-later
#include "kept_cards.h"
#include "random_designs.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/making/step_scene.h"
#include "core/model/planned.h"
#include "core/paper/pattern.h"
#include "core/paper/topper_shape.h"
#include "core/production/cut_plan.h"
#include "core/production/score_table.h"
#include "core/sending/cutter_job.h"
#include "core/structures/registry.h"
#endif

using namespace hinge;
using namespace hinge::test;

// What the cards that come with the program come to: see kept.h.

namespace {

/// What is read off for hands and tools: of the usual bench, and of one where everything is done
/// the other way.
void addTables(const Snapshot& snapshot, const Bench& bench, const std::string& name, Numbers& n) {
  for (const PieceTable& table :
       scoreTables(**snapshot.assembly(), snapshot.design(), *snapshot.flatPieces(), bench)) {
    n["table sizes" + name] += one(table.size) + static_cast<double>(table.count());
    for (const PieceNote note : table.notes)
      n["notes" + name] += 1 + static_cast<int>(note);
    n["alike" + name] += one(table.letter) + table.handed + 1.7 * table.plainRectangle +
                         2.3 * static_cast<double>(table.mirrored.size());
    for (const ScoreSetting& score : table.scores) {
      double& scores = n["scores" + name];
      scores += score.first_mm + 1.7 * score.other_mm + 2.9 * score.step_mm;
      scores += score.length_mm + score.angle_deg + one(score.from) + score.fromOther;
      scores += score.fromBack + 1.3 * score.whole + 1.7 * score.firstOfLong;
      scores += 2.3 * static_cast<int>(score.way) + 2.9 * static_cast<int>(score.kind);
      for (const Stretch& part : score.stretches)
        n["stretches" + name] += part.from_mm + 1.7 * part.to_mm;
    }
    for (const CutMark& cut : table.cuts)
      n["cuts" + name] += one(cut.from) + 1.9 * one(cut.to) + cut.depth_mm + cut.bevel_deg +
                          one(cut.letter) + static_cast<int>(cut.what);
  }
}

Bench otherBench() {
  Bench bench;
  bench.trimmer_mm = 150, bench.board_mm = 120, bench.grid_mm = 3, bench.thickest_mm = 0.25;
  bench.sides = ScoreSides::Both, bench.length = ScoreLength::Whole;
  bench.first = FirstEdge::Right;
  return bench;
}

void addLayouts(const Snapshot& snapshot, Numbers& n) {
  const Design& design = snapshot.design();
  for (const LayoutFor how : {LayoutFor::Trimmer, LayoutFor::Machine}) {
    LayoutOptions options = usualFor(how, Bench());
    options.seconds = 0; // the first layout, whatever else the machine does
    const CutPlan plan = layOutCards(design, *snapshot.cutPieces(),
                                     matList(design, *snapshot.dressed()), 2, options);
    const std::string name = how == LayoutFor::Trimmer ? "trimmed" : "nested";
    n[name + " sheets"] = plan.sheets_mm2;
    n[name + " not"] = static_cast<double>(plan.tooLarge.size() + 10 * plan.noSheet.size());
    n[name + " parts"] = plan.parts_mm2 + plan.kept_mm2;
    for (const TrimCut& cut : plan.cuts)
      n["cuts of the trimmer"] += cut.set_mm + cut.setting + 1.7 * cut.upright +
                                  2.3 * static_cast<double>(cut.blank) +
                                  2.9 * static_cast<double>(cut.strip);
    for (std::size_t s = 0; s < plan.sheets.size(); ++s) {
      for (const PartPlace& place : plan.sheets[s].places)
        n[name + " places"] += at(place.part) * one(place.offset) + place.quarters;
      const auto job = cutterJob(plan, s, design, Bench());
      if (how == LayoutFor::Trimmer || !job) continue;
      n["tool"] += job->lowered_mm() + 1.7 * job->raised_mm() + job->seconds();
      addWritten("told to the machine", hpglOf(*job), n);
    }
  }
}

void addScene(const PlannedWork& work, const StepScene& scene, std::size_t k, Numbers& n) {
  if (!scene.anything()) return;
  double& lie = n["scenes"];
  for (PanelIndex p : work.assembly().panels.indices()) {
    if (!scene.pose.placed[p]) continue;
    lie += at(static_cast<std::size_t>(p.value)) * (one(scene.bench * scene.pose.panels[p]));
    if (!scene.off.empty()) n["lying in scenes"] += one(scene.off[p]);
  }
  for (const PanelIndex p : scene.fresh)
    n["fresh"] += at(k) * number(p);
  for (const PanelIndex p : scene.named)
    n["named"] += at(k) * number(p);
  for (const GlueSpot& spot : scene.glue)
    for (const Region& where : spot.where)
      n["glue spots"] += one(where) * (1 + 0.3 * spot.onBack + 0.7 * spot.lands);
  for (const auto& way : scene.ways)
    for (std::size_t j = 0; j < way.size(); ++j)
      n["ways"] += at(j) * one(way[j]);
  for (const auto& [from, to] : scene.ties)
    n["ties"] += one(from) + 1.9 * one(to);
  n["ties"] += static_cast<double>(scene.freshTies);
  for (const Vec3& pin : scene.pins)
    n["pins"] += one(pin);
  n["nearly shut"] += at(k) * scene.shut;
  if (scene.least_mm < 1e200) n["least glue"] += scene.least_mm;
}

/// What is shown of each step, at two moments of it.
void addScenes(const PlannedWork& work, Numbers& n) {
  const StepScenes scenes(work.plan, *work.motion, *work.stack,
                          work.design().settings.foldClearance_mm);
  for (std::size_t k = 0; k < work.plan.steps.size(); ++k) {
    n["scenes of the card"] += at(k) * scenes.builds(k);
    addScene(work, scenes.at(k, 0.3), k, n);
    addScene(work, scenes.at(k, std::array{0.8, 0.0, 1.0}[k % 3]), k, n);
  }
}
void addWork(const std::shared_ptr<const Snapshot>& snapshot, Numbers& n) {
  const auto work = planWork(snapshot, MakingWays());
  if (!work) return;
  addScenes(*work, n);
  n["work"] = work->plan.hands_s();
  n["work glue"] = work->plan.glue_cm2 + work->plan.tape_mm;
  for (std::size_t k = 0; k < work->plan.steps.size(); ++k) {
    const WorkStep& step = work->plan.steps[k];
    n["steps"] += at(k) * (1 + static_cast<int>(step.kind)) + 0.1 * static_cast<int>(step.press);
    n["steps"] += step.waits_s + step.before + step.opening_deg + step.number_mm + step.within_mm;
    n["hands"] += at(k) * step.hands_s + step.glue_cm2 + 0.1 * step.tape_mm;
    n["ways of steps"] +=
        at(k) * (step.onCard + 1.7 * step.alongFold +
                 2.3 * (step.adhesive ? 1 + static_cast<int>(*step.adhesive) : 0));
    n["measured"] += one(step.between.first) + 1.9 * one(step.between.second);
    for (std::size_t j = 0; j < step.pieces.size(); ++j)
      n["pieces of steps"] += at(k) * at(j) * number(step.pieces[j]);
    for (std::size_t j = 0; j < step.joints.size(); ++j)
      n["joints of steps"] += at(k) * at(j) * number(step.joints[j]);
    for (std::size_t j = 0; j < step.faces.size(); ++j)
      n["faces of steps"] += at(k) * at(j) * number(step.faces[j]);
    for (const Region& glue : step.glueOn)
      n["step glue"] += one(glue);
    for (const PencilPoint& point : step.points)
      n["pencil"] += one(point.from_mm) + number(point.panel);
  }
}

/// What the card itself comes to, before anything is planned for its making.
std::shared_ptr<const Snapshot> addWithTables(const Design& design, Numbers& n) {
  const auto snapshot = std::make_shared<const Snapshot>(design);
  addCard(snapshot, n);
  addTables(*snapshot, Bench(), "", n);
  addTables(*snapshot, otherBench(), " otherwise", n);
  return snapshot;
}

Numbers numbersOf(const Design& design) {
  Numbers n;
  const auto snapshot = addWithTables(design, n);
  addLayouts(*snapshot, n);
  addDressing(*snapshot, n);
  addWork(snapshot, n);
  return n;
}

Numbers drawingNumbers() {
  Numbers n;
  for (const TopperShape& shape : topperShapes())
    for (const double detail : {0.0, 0.3, 0.6, 1.0})
      n[fmt::format("topper {}", shape.key)] +=
          at(static_cast<std::size_t>(10 * detail)) * one(topperOutline(shape, 31, 23, detail));
  for (const StructureKind* kind : structureKinds()) {
    double& sum = n[fmt::format("sketch {}", kind->key)];
    const Sketch sketch = kind->sketch();
    for (std::size_t k = 0; k < sketch.lines.size(); ++k)
      sum += at(k) * (one(sketch.lines[k].from) + 1.9 * one(sketch.lines[k].to));
    for (std::size_t k = 0; k < sketch.dimensions.size(); ++k)
      sum += at(k) * (one(sketch.dimensions[k].from) + 1.9 * one(sketch.dimensions[k].to) +
                      one(sketch.dimensions[k].corner.value_or(Vec2::Zero())));
  }
  for (const PatternKind& kind : knownPatterns())
    for (const double share : {0.2, 0.7}) {
      const PatternTile tile = kind.tile(12, share);
      double& sum = n[fmt::format("pattern {}", kind.key)];
      sum += tile.width_mm + 1.7 * tile.height_mm;
      for (const PatternTile::Shape& shape : tile.shapes)
        sum += one(Region(shape.outline)) * (1 + 0.3 * static_cast<double>(shape.ink));
    }
  return n;
}

} // namespace

class TestRecords : public KeptTest {
  Q_OBJECT
public:
  TestRecords() : KeptTest("records.json") {}

private slots:
  void cardsAreWhatTheyWere_data() { rowsOfDemos(); }
  void cardsAreWhatTheyWere() {
    QFETCH(QString, name);
    compare(name.toStdString(), numbersOf(demoAsItComes(name.toStdString())));
  }
  /// Cards with structures drawn at random, good ones and spoiled ones.
  void randomCardsAreWhatTheyWere_data() {
    QTest::addColumn<unsigned>("first");
    for (unsigned first = 1; first <= 24; first += 8)
      QTest::addRow("%u", first) << first;
  }
  void randomCardsAreWhatTheyWere() {
    QFETCH(unsigned, first);
    Numbers n;
    for (unsigned seed = first; seed < first + 8; ++seed) {
      Numbers own;
      addWithTables(randomDesign(seed), own);
      for (const auto& [key, value] : own)
        n[key] += at(seed) * value;
    }
    compare(fmt::format("random from {}", first), n);
  }
  void mendsAreWhatTheyWere_data() {
    QTest::addColumn<QString>("name");
    for (const char* name : {"night-market-mistakes", "dressing-mistakes"})
      QTest::newRow(name) << name;
  }
  void mendsAreWhatTheyWere() {
    QFETCH(QString, name);
    Numbers n;
    for (const Finding& finding : checked(demoAsItComes(name.toStdString()), true).findings) {
      n["sought"] += finding.mendSought;
      if (!finding.mend) continue;
      for (const MendEdit& edit : finding.mend->edits)
        n[finding.code] += one(edit.id.text() + edit.key) * 1e-3 * (edit.to + 1.7 * edit.from);
      if (const auto& dressing = finding.mend->dressing)
        for (const DressRule& rule : dressing->rules)
          for (const Layer& layer : rule.layers)
            for (const double border : layer.border_mm)
              n[finding.code + " borders"] += border;
    }
    compare("mends of " + name.toStdString(), n);
  }
  void drawingsAreWhatTheyWere() { compare("drawings", drawingNumbers()); }
};

QTEST_GUILESS_MAIN(TestRecords)
#include "test_records.moc"
