// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "kept.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/dress/mats.h"
#include "core/model/snapshot.h"
#include "core/states/lift.h"
#include "core/states/lying.h"
#include "core/states/shut_state.h"
#include "core/states/stacking.h"
#endif

namespace hinge::test {

// What a card comes to before anything is planned for its making, in numbers that are kept: see
// kept.h.

inline double placesOf(const Motion& motion, const Pose& pose) {
  double sum = 0;
  for (PanelIndex p : motion.assembly().panels.indices())
    if (pose.placed[p] && !motion.isLoose(p))
      for (const Vec2& corner : motion.assembly().panels[p].outline.rim)
        sum += at(static_cast<std::size_t>(p.value)) * one(Vec3(pose.panels[p] * lift(corner)));
  return sum;
}

inline void addMotion(const Motion& motion, Numbers& n) {
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

inline void addStates(const Snapshot& snapshot, const Motion& motion, Numbers& n) {
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

inline void addVerdict(const std::shared_ptr<const Snapshot>& snapshot, Numbers& n) {
  const auto analysis = analyse(snapshot);
  for (const Finding& finding : analysis->findings) {
    n["finding " + finding.code] += 1 + finding.amount + finding.from_rad + 1.7 * finding.to_rad +
                                    2.9 * finding.show_rad + 1e-3 * one(finding.place);
    double& told = n["told of " + finding.code];
    told += said(finding.detail) + static_cast<int>(finding.severity);
    told += 0.1 * static_cast<int>(finding.unit);
    for (std::size_t k = 0; k < finding.elements.size(); ++k)
      told += at(k) * one(finding.elements[k]);
    for (std::size_t k = 0; k < finding.owners.size(); ++k)
      told += 2.9 * at(k) * one(finding.owners[k].text());
    for (const Text& name : finding.names)
      told += 1.3 * said(name);
  }
  if (!analysis->order) return;
  for (std::size_t k = 0; k < analysis->order->steps.size(); ++k) {
    const MakingStep& step = analysis->order->steps[k];
    n["order"] += at(k) * (0.1 * step.before + step.byShutting);
    for (const JointGroup& group : step.joints)
      for (std::size_t j = 0; j < group.size(); ++j)
        n["order"] += at(k) * at(j) * number(group[j]);
  }
  for (const JointGroup& group : analysis->order->unreachable)
    for (const JointIndex joint : group)
      n["unreachable"] += number(joint);
}

inline void addSheets(const Snapshot& snapshot, Numbers& n) {
  for (const FlatPiece& piece : *snapshot.cutPieces()) {
    for (const FlatLine& line : piece.lines)
      for (std::size_t k = 0; k < line.corners.size(); ++k)
        n[fmt::format("lines {}", static_cast<int>(line.kind))] += at(k) * one(line.corners[k]);
    for (const FlatLine& line : piece.lines)
      n["closed lines"] += line.closed;
    for (const FlatLabel& label : piece.labels)
      n["labels"] += one(label.at) + 0.1 * one(label.room) + number(label.panel);
    n["flat pieces"] += one(piece.paper) + piece.part + one(piece.bounds.low) +
                        1.9 * one(piece.bounds.high) + static_cast<double>(piece.slices.size());
    for (const FlatArea& area : piece.glue)
      n["glued"] += one(area.outline) + area.onFace;
    for (const FlatArea& area : piece.marks)
      n["marks"] += one(area.outline) + area.onFace;
  }
  for (const Vec2& size : {Vec2(297, 420), Vec2(210, 297), Vec2(160, 120)})
    for (const bool fromTop : {false, true}) {
      const SheetLayout layout =
          layOut(*snapshot.cutPieces(), size.x(), size.y(), 6, 3, fromTop, fromTop ? 11 : 0);
      n["sheets"] += at(static_cast<std::size_t>(size.x())) * layout.sheets;
      for (const SheetPlace& place : layout.places)
        n["on sheets"] += number(place.piece) * (one(place.offset) + place.sheet + place.turned +
                                                 1.3 * place.oversize + 1.7 * place.toTheEdge);
    }
}

/// All of that.
inline void addCard(const std::shared_ptr<const Snapshot>& snapshot, Numbers& n) {
  addAssembly(**snapshot->assembly(), n);
  addMotion(*snapshot->motion(), n);
  addStates(*snapshot, *snapshot->motion(), n);
  addVerdict(snapshot, n);
  addSheets(*snapshot, n);
}

inline void addDressing(const Snapshot& snapshot, Numbers& n) {
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

} // namespace hinge::test
