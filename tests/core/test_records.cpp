// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/dress/mats.h"
#include "core/making/work_plan.h"
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
#include <QDir>
#include <QFile>
#include <map>
#include <nlohmann/json.hpp>
#endif

using namespace hinge;
using namespace hinge::test;

// What the cards that come with the program come to, in numbers that are kept: cards that a maker
// has must not change their paper, motion, verdicts or plans unseen. Who changes them on purpose
// looks at what differs and keeps the new ones:
//     HINGE_RECORD=1 build/bin/test_records

namespace {

using Numbers = std::map<std::string, double>;

/// By which share they may differ: sight is counted in cells, of which one may fall to either side.
constexpr double kOfNumbers = 1e-6, kOfCells = 1e-3;

constexpr const char* kKept = HINGE_TEST_DATA "/records.json";

/// A place as one number in which no coordinate can stand for another.
double one(const Vec2& p) {
  return p.x() + 1.7 * p.y();
}
double one(const Vec3& p) {
  return p.x() + 1.7 * p.y() + 2.9 * p.z();
}
double one(const Iso3& place) {
  return one(Vec3(place * Vec3(3, 5, 7)));
}
double one(const Region& region) {
  double sum = area_mm2(region);
  for (const Vec2& corner : region.rim)
    sum += one(corner);
  for (const Polygon& hole : region.holes)
    for (const Vec2& corner : hole)
      sum += 1.3 * one(corner);
  return sum;
}
double at(std::size_t k) {
  return 1 + 0.37 * static_cast<double>(k % 11);
}
double number(auto index) {
  return static_cast<double>(index.value) + 1;
}

void addAssembly(const Assembly& a, Numbers& n) {
  n["pieces"] = static_cast<double>(a.pieces.size());
  n["panels"] = static_cast<double>(a.panels.size());
  n["folds"] = static_cast<double>(a.folds.size());
  n["joints"] = static_cast<double>(a.joints.size());
  for (const Panel& panel : a.panels)
    n["paper"] += one(panel.outline), n["twins"] += number(panel.twin);
  for (const Fold& fold : a.folds) {
    n["fold lines"] += one(fold.from) + 3.1 * one(fold.to);
    n["fold angles"] += fold.shutAngle_rad + fold.rest_rad.value_or(0.1);
    n["mountains"] += fold.sense == FoldSense::Mountain;
  }
  for (const auto& [j, glue] : a.every<Glue>())
    n["glue"] += one(glue.tabToHost) + glue.byFace + glue.raised_mm;
  for (const Joint& joint : a.joints)
    if (const Guide* guide = guideOf(joint))
      n["guides"] += one(guide->onFirst) + 1.9 * one(guide->onSecond);
  for (const Seat& seat : a.seats) {
    n["seats"] += seat.length_mm + seat.shutOpening_rad;
    for (const int side : {0, 1})
      n["room"] +=
          seatDepth_mm(seat, side, a) + one(seat.sides[static_cast<std::size_t>(side)].toPiece);
  }
  for (const DimensionMark& mark : a.dimensions)
    n["dimensions"] += one(mark.from) + 1.9 * one(mark.to);
  for (const Piece& piece : a.pieces)
    for (const Feature& feature : piece.features)
      n["features"] += 1 + static_cast<double>(feature.index());
}

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
    n["finding " + finding.code] += 1 + finding.amount;
  if (!analysis->order) return;
  for (std::size_t k = 0; k < analysis->order->steps.size(); ++k) {
    const MakingStep& step = analysis->order->steps[k];
    n["order"] += at(k) * (number(step.joints.front().front()) + 0.1 * step.before);
  }
}

void addSheets(const Snapshot& snapshot, Numbers& n) {
  const Design& design = snapshot.design();
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
  for (const PieceTable& table :
       scoreTables(**snapshot.assembly(), design, *snapshot.flatPieces(), Bench())) {
    n["table sizes"] += one(table.size) + static_cast<double>(table.count());
    for (const ScoreSetting& score : table.scores) {
      n["scores"] += score.first_mm + 1.7 * score.other_mm + 2.9 * score.step_mm;
      n["scores"] += score.length_mm + score.angle_deg + one(score.from) + score.fromOther;
      for (const Stretch& part : score.stretches)
        n["stretches"] += part.from_mm + 1.7 * part.to_mm;
    }
    for (const CutMark& cut : table.cuts)
      n["cuts"] += one(cut.from) + 1.9 * one(cut.to) + cut.depth_mm + cut.bevel_deg;
  }
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

void addWork(const std::shared_ptr<const Snapshot>& snapshot, Numbers& n) {
  const auto work = planWork(snapshot, MakingWays());
  if (!work) return;
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

Numbers numbersOf(const Design& design) {
  Numbers n;
  const auto snapshot = std::make_shared<const Snapshot>(design);
  addAssembly(**snapshot->assembly(), n);
  addMotion(*snapshot->motion(), n);
  addStates(*snapshot, *snapshot->motion(), n);
  addVerdict(snapshot, n);
  addSheets(*snapshot, n);
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

class TestRecords : public QObject {
  Q_OBJECT
  nlohmann::json m_kept = nlohmann::json::object();
  bool m_record = false;

  void compare(const std::string& name, const Numbers& now) {
    if (m_record) {
      m_kept[name] = now;
      return;
    }
    QVERIFY2(m_kept.contains(name), qPrintable(QString::fromStdString(name + " is not kept yet")));
    const Numbers kept = m_kept[name].get<Numbers>();
    std::string differs;
    for (const auto& [key, value] : now)
      if (const auto was = kept.find(key); was == kept.end())
        differs += fmt::format("\n  {}: {} is new", key, value);
      else if (std::abs(value - was->second) >
               (key == "seen" ? kOfCells : kOfNumbers) * std::max(1.0, std::abs(was->second)))
        differs += fmt::format("\n  {}: {:.9g}, kept {:.9g}", key, value, was->second);
    for (const auto& [key, was] : kept)
      if (!now.contains(key)) differs += fmt::format("\n  {}: gone, kept {:.9g}", key, was);
    QVERIFY2(differs.empty(), (name + differs).c_str());
  }

private slots:
  void initTestCase() {
    m_record = qEnvironmentVariableIsSet("HINGE_RECORD");
    QFile file(QString::fromUtf8(kKept));
    if (!file.open(QIODevice::ReadOnly)) return;
    m_kept = nlohmann::json::parse(file.readAll().toStdString());
  }
  void cleanupTestCase() {
    if (!m_record) return;
    QFile file(QString::fromUtf8(kKept));
    QVERIFY(file.open(QIODevice::WriteOnly));
    file.write(QByteArray::fromStdString(m_kept.dump(1) + "\n"));
  }
  void cardsAreWhatTheyWere_data() {
    QTest::addColumn<QString>("name");
    for (const QString& file : QDir(HINGE_SOURCE_DIR "/demo").entryList({"*.hinge"}))
      QTest::newRow(qPrintable(file)) << file.chopped(6);
  }
  void cardsAreWhatTheyWere() {
    QFETCH(QString, name);
    compare(name.toStdString(), numbersOf(demoAsItComes(name.toStdString())));
  }
  void drawingsAreWhatTheyWere() { compare("drawings", drawingNumbers()); }
};

QTEST_GUILESS_MAIN(TestRecords)
#include "test_records.moc"
