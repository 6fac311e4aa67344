// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "kept.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/dress/mats.h"
#include "core/model/snapshot.h"
#include "core/states/lift.h"
#include "core/states/lying.h"
#include "core/states/shut_state.h"
#endif

namespace hinge::test {

// What a card comes to before anything is planned for its making, in numbers that are kept: see
// kept.h.

inline double one(const Feature& feature) {
  double sum = 1 + static_cast<double>(feature.index());
  if (const auto* slit = std::get_if<Slit>(&feature))
    for (const std::size_t side : {0U, 1U})
      sum += at(side) * (one(slit->inner[side]) + 1.9 * one(slit->lips[side])) + slit->width_mm +
             1.3 * slit->catch_mm + number(slit->panel);
  else if (const auto* cut = std::get_if<Cut>(&feature))
    sum += one(cut->from) + 1.9 * one(cut->to) + number(cut->panel);
  else if (const auto* window = std::get_if<Window>(&feature))
    sum += number(window->panel) + static_cast<double>(window->hole);
  else if (const auto* strap = std::get_if<Strap>(&feature))
    sum += number(strap->panel) + 1.7 * number(strap->carrier) + 2.3 * number(strap->folds[0]) +
           2.9 * number(strap->folds[1]);
  return sum;
}

inline void addPaper(const Assembly& a, Numbers& n) {
  n["pieces"] = static_cast<double>(a.pieces.size());
  n["panels"] = static_cast<double>(a.panels.size());
  for (const Piece& piece : a.pieces) {
    n["pieces called"] += one(piece.key) + 1.7 * said(piece.label) + 2.3 * one(piece.paper);
    for (const Feature& feature : piece.features)
      n["features"] += one(feature);
  }
  for (PanelIndex p : a.panels.indices()) {
    const Panel& panel = a.panels[p];
    const double k = at(static_cast<std::size_t>(p.value));
    n["paper"] += one(panel.outline), n["twins"] += number(panel.twin);
    n["panels called"] += k * (one(panel.key) + 1.7 * said(panel.label));
    n["uses"] += k * (static_cast<int>(panel.use) + 0.1 * static_cast<double>(panel.folds.size()));
    n["held by"] += k * number(panel.gluedBy) + 0.1 * number(panel.piece);
  }
  for (const DimensionMark& mark : a.dimensions) {
    n["dimensions"] += one(mark.from) + 1.9 * one(mark.to);
    n["dimensions"] += 0.1 * one(mark.key) + number(mark.panel);
    if (mark.corner) n["dimensions"] += 2.3 * one(*mark.corner);
  }
}

inline void addHinges(const Assembly& a, Numbers& n) {
  n["folds"] = static_cast<double>(a.folds.size());
  for (FoldIndex f : a.folds.indices()) {
    const Fold& fold = a.folds[f];
    const double k = at(static_cast<std::size_t>(f.value));
    n["fold lines"] += one(fold.from) + 3.1 * one(fold.to);
    n["fold angles"] += fold.shutAngle_rad + fold.rest_rad.value_or(0.1);
    n["fold angles"] += k * (fold.start_rad.value_or(0.2) + 0.3 * fold.hangs + fold.shutKnown);
    n["mountains"] += fold.sense == FoldSense::Mountain;
    n["folds called"] += k * (one(fold.key) + 1.7 * said(fold.label));
    n["hinged"] += k * (number(fold.left) + 1.7 * number(fold.right));
  }
  for (const Drive& drive : a.drives)
    n["driven"] += number(drive.fold) + drive.shut_rad + 1.7 * drive.open_rad +
                   2.3 * drive.from_rad + 2.9 * drive.to_rad;
  for (const Lift& by : a.lifts)
    n["lifts"] += by.least + 1.7 * by.most + by.step + 0.1 * static_cast<double>(by.panels.size()) +
                  by.secondMoves + 1.3 * by.slides + number(by.fold) + number(by.joint) +
                  by.stopAt(0.37) + 1.7 * by.nextStop(0.2);
  for (const Carried& carried : a.carried)
    n["carried"] += number(carried.panel) + 1.7 * number(carried.host) + one(carried.at);
  n["openings"] = a.openBy_rad + 1.7 * a.low_rad + 2.3 * a.high_rad + a.symmetric;
}

inline void addJoints(const Assembly& a, Numbers& n) {
  n["joints"] = static_cast<double>(a.joints.size());
  for (const auto& [j, glue] : a.every<Glue>())
    n["glue"] += one(glue.tabToHost) + glue.byFace + glue.raised_mm + 1.3 * one(glue.area);
  for (JointIndex j : a.joints.indices()) {
    const Joint& joint = a.joints[j];
    const double k = at(static_cast<std::size_t>(j.value));
    const auto [first, second] = panelsOf(joint);
    n["joined"] += k * (number(first) + 1.7 * number(second) + static_cast<double>(joint.index()));
    if (const Guide* guide = guideOf(joint)) {
      n["guides"] += one(guide->onFirst) + 1.9 * one(guide->onSecond);
      const auto byHand = guide->byHand.value_or(std::array{0.1, 0.2});
      n["guides by hand"] += k * (byHand[0] + 1.7 * byHand[1] + guide->handStep + guide->rests +
                                  1.3 * guide->over + 0.01 * one(guide->key));
    }
    if (const auto* slide = std::get_if<Slide>(&joint)) {
      n["slides"] += slide->least_mm + 1.7 * slide->most_mm + slide->room_mm + slide->guided_mm;
      if (const auto& pull = slide->pull)
        n["pulls"] += pull->way_mm + pull->from_rad + 1.7 * pull->to_rad;
    }
    if (const Tie* tie = tieOf(joint))
      n["tied"] += one(tie->at[0]) + 1.7 * one(tie->at[1]) + tie->length_mm + 0.01 * one(tie->key);
  }
}

inline void addSeats(const Assembly& a, Numbers& n) {
  for (const Seat& seat : a.seats) {
    n["seats"] += seat.length_mm + seat.shutOpening_rad;
    n["seats called"] += one(seat.key) + 1.7 * said(seat.label) + 2.3 * one(seat.twin);
    n["seats called"] += static_cast<int>(seat.kind()) + seat.fromBehind[0];
    for (const int side : {0, 1})
      n["room"] +=
          seatDepth_mm(seat, side, a) + one(seat.sides[static_cast<std::size_t>(side)].toPiece);
  }
}

inline void addAssembly(const Assembly& a, Numbers& n) {
  addPaper(a, n);
  addHinges(a, n);
  addJoints(a, n);
  addSeats(a, n);
}

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
  const Stacking stack = *snapshot.stack();
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
