// SPDX-License-Identifier: GPL-3.0-or-later
#include "kept.h"
#include "random_designs.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/dress/mats.h"
#include "core/making/step_scene.h"
#include "core/model/planned.h"
#include "core/model/snapshot.h"
#include "core/paper/pattern.h"
#include "core/paper/topper_shape.h"
#include "core/production/cut_plan.h"
#include "core/production/score_table.h"
#include "core/sending/cutter_job.h"
#include "core/states/lift.h"
#include "core/states/lying.h"
#include "core/states/shut_state.h"
#include "core/states/stacking.h"
#include "core/structures/registry.h"
#endif

using namespace hinge;
using namespace hinge::test;

// What the cards that come with the program come to: see kept.h.

namespace {

double placesOf(const Motion& motion, const Pose& pose) {
  double sum = 0;
  for (PanelIndex p : motion.assembly().panels.indices())
    if (pose.placed[p] && !motion.isLoose(p))
      for (const Vec2& corner : motion.assembly().panels[p].outline.rim)
        sum += at(static_cast<std::size_t>(p.value)) * one(Vec3(pose.panels[p] * lift(corner)));
  return sum;
}

void addMotion(const Motion& motion, Numbers& n) {
  n["low"] = motion.low_rad(), n["high"] = motion.high_rad(), n["mobility"] = motion.mobility();
  for (const double share : {0.1, 0.35, 0.6, 0.95}) {
    const Pose pose =
        motion.poseAt(motion.low_rad() + share * (motion.high_rad() - motion.low_rad()));
    n[fmt::format("pose at {}", share)] = placesOf(motion, pose);
    for (const Lift& by : motion.assembly().lifts)
      n["lifted"] += placesOf(motion, lifted(motion.assembly(), pose, by, 0.4));
    Lying lying(motion.assembly(), pose);
    for (PanelIndex p : motion.assembly().panels.indices())
      if (pose.placed[p] && !motion.isLoose(p)) n["lying"] += one(lying.off_mm(p));
  }
  for (const Motion::BlockReport& block : motion.blocks())
    n["blocks"] += 1 + 0.1 * block.freedoms + 0.01 * static_cast<double>(block.panels.size());
  if (motion.shuts()) n["shut pose"] = placesOf(motion, motion.shutPose());
}

void addStates(const Snapshot& snapshot, const Motion& motion, Numbers& n) {
  if (const auto stand = snapshot.stand()) {
    n["stand"] = stand->leastTip_rad + one(stand->centre) + stand->worstDirection_rad;
    n["weight"] = stand->weight_g;
    for (const double tip : stand->tips_rad)
      n["tips"] += tip;
  }
  if (!motion.shuts()) return;
  const auto shut = snapshot.shut();
  n["shut size"] = shut->width_mm + 1.7 * shut->height_mm;
  n["thickness"] = shut->thickness_mm + shut->pads_mm;
  n["gutter"] = shut->gutterSheets + shut->gutterRelief_mm;
  for (int row = 0; row < shut->map.rows; ++row)
    for (int column = 0; column < shut->map.columns; ++column)
      n["sheets on sheets"] += shut->map.at(column, row) * (1 + column % 5 + 0.1 * (row % 7));
  const Stacking stack = stackShut(motion);
  for (std::size_t k = 0; k < stack.order.size(); ++k)
    n["stack"] += at(k) * number(stack.order[k]);
}

void addVerdict(const std::shared_ptr<const Snapshot>& snapshot, Numbers& n) {
  const auto analysis = analyse(snapshot);
  for (const Finding& finding : analysis->findings)
    n["finding " + finding.code] += 1 + finding.amount + finding.from_rad + 1.7 * finding.to_rad +
                                    2.9 * finding.show_rad + 1e-3 * one(finding.place);
  if (!analysis->order) return;
  for (std::size_t k = 0; k < analysis->order->steps.size(); ++k) {
    const MakingStep& step = analysis->order->steps[k];
    n["order"] += at(k) * (number(step.joints.front().front()) + 0.1 * step.before);
  }
}

void addSheets(const Snapshot& snapshot, Numbers& n) {
  for (const FlatPiece& piece : *snapshot.cutPieces()) {
    for (const FlatLine& line : piece.lines)
      for (std::size_t k = 0; k < line.corners.size(); ++k)
        n[fmt::format("lines {}", static_cast<int>(line.kind))] += at(k) * one(line.corners[k]);
    for (const FlatLabel& label : piece.labels)
      n["labels"] += one(label.at) + 0.1 * one(label.room);
    for (const FlatArea& area : piece.glue)
      n["glued"] += one(area.outline) + area.onFace;
    for (const FlatArea& area : piece.marks)
      n["marks"] += one(area.outline) + area.onFace;
  }
}

/// What is read off for hands and tools: of the usual bench, and of one where everything is done
/// the other way.
void addTables(const Snapshot& snapshot, const Bench& bench, const std::string& name, Numbers& n) {
  for (const PieceTable& table :
       scoreTables(**snapshot.assembly(), snapshot.design(), *snapshot.flatPieces(), bench)) {
    n["table sizes" + name] += one(table.size) + static_cast<double>(table.count());
    for (const PieceNote note : table.notes)
      n["notes" + name] += 1 + static_cast<int>(note);
    for (const ScoreSetting& score : table.scores) {
      double& scores = n["scores" + name];
      scores += score.first_mm + 1.7 * score.other_mm + 2.9 * score.step_mm;
      scores += score.length_mm + score.angle_deg + one(score.from) + score.fromOther;
      scores += score.fromBack + 1.3 * score.whole + 1.7 * score.firstOfLong;
      for (const Stretch& part : score.stretches)
        n["stretches" + name] += part.from_mm + 1.7 * part.to_mm;
    }
    for (const CutMark& cut : table.cuts)
      n["cuts" + name] += one(cut.from) + 1.9 * one(cut.to) + cut.depth_mm + cut.bevel_deg;
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
    n[name + " parts"] = plan.parts_mm2 + plan.kept_mm2;
    for (const TrimCut& cut : plan.cuts)
      n["cuts of the trimmer"] += cut.set_mm + cut.setting;
    for (std::size_t s = 0; s < plan.sheets.size(); ++s) {
      for (const PartPlace& place : plan.sheets[s].places)
        n[name + " places"] += at(place.part) * one(place.offset) + place.quarters;
      const auto job = cutterJob(plan, s, design, Bench());
      if (how == LayoutFor::Trimmer || !job) continue;
      n["tool"] += job->lowered_mm() + 1.7 * job->raised_mm() + job->seconds();
      n["legs"] += static_cast<double>(hpglOf(*job).size());
    }
  }
}

void addDressing(const Snapshot& snapshot, Numbers& n) {
  const auto faces = snapshot.faces();
  for (const Face& face : *faces)
    n["faces"] += one(face.outline) + one(face.toPiece);
  const auto seen = snapshot.seen();
  for (std::size_t k = 0; k < seen->size(); ++k)
    n["seen"] += at(k) * ((*seen)[k].display + 1.7 * (*seen)[k].opening);
  for (const DressedFace& dressed : *snapshot.dressed())
    for (const CutLayer& layer : dressed.layers) {
      n["layers"] += layer.up_rad;
      for (const Region& part : layer.parts)
        n["layers"] += one(part);
    }
  if (const auto laid = snapshot.laid())
    for (const LaidOn& on : *laid)
      n["laid on"] += one(on.onPiece) + on.thickness_mm;
}

/// What is shown of each step, at one moment of it.
void addScenes(const PlannedWork& work, Numbers& n) {
  const StepScenes scenes(work.plan, *work.motion, work.design().settings.foldClearance_mm);
  for (std::size_t k = 0; k < work.plan.steps.size(); ++k) {
    n["scenes of the card"] += scenes.builds(k);
    const StepScene scene = scenes.at(k, std::array{0.3, 0.8, 0.0, 1.0}[k % 4]);
    if (!scene.anything()) continue;
    double& lie = n["scenes"];
    for (PanelIndex p : work.assembly().panels.indices())
      if (scene.pose.placed[p])
        lie += at(static_cast<std::size_t>(p.value)) * (one(scene.bench * scene.pose.panels[p]));
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
    for (const Vec3& pin : scene.pins)
      n["pins"] += one(pin);
    n["nearly shut"] += at(k) * scene.shut;
    if (scene.least_mm < 1e200) n["least glue"] += scene.least_mm;
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
    for (const Region& glue : step.glueOn)
      n["step glue"] += one(glue);
    for (const PencilPoint& point : step.points)
      n["pencil"] += one(point.from_mm);
  }
}

/// What the card itself comes to, before anything is planned for its making.
std::shared_ptr<const Snapshot> addCard(const Design& design, Numbers& n) {
  const auto snapshot = std::make_shared<const Snapshot>(design);
  addAssembly(**snapshot->assembly(), n);
  addMotion(*snapshot->motion(), n);
  addStates(*snapshot, *snapshot->motion(), n);
  addVerdict(snapshot, n);
  addSheets(*snapshot, n);
  addTables(*snapshot, Bench(), "", n);
  addTables(*snapshot, otherBench(), " otherwise", n);
  return snapshot;
}

Numbers numbersOf(const Design& design) {
  Numbers n;
  const auto snapshot = addCard(design, n);
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
  void cleanupTestCase() { save(); }
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
      addCard(randomDesign(seed), own);
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
