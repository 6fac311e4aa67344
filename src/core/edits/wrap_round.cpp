// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/wrap_round.h"
#include "core/pieces/wrap.h"
#include "core/structures/assemble.h"
#include "core/structures/piece.h"
#include <algorithm>
#include <cmath>

namespace hinge {

Result<PieceWork> wrappedRound(const Design& design, StructureId id, double overlap_mm) {
  const StructureItem* item = design.find(id);
  if (!item || !item->work) return Error{"structure.missing/wrap", id.text()};
  const auto assembled = assembleDesign(design);
  if (!assembled) return assembled.error();
  const PieceWork& old = *item->work;
  const auto lies = std::ranges::find_if(
      old.joints, [](const PieceJoint& j) { return liesOn(j.kind).has_value(); });
  const Seat* face = lies == old.joints.end() ? nullptr : assembled->findSeat(lies->on);
  if (!face || assembled->panels[face->sides[0].panel].owner == id)
    return Error{"wrap.lies-on-nothing", id.text()};
  const PanelIndex carrier = face->sides[0].panel;
  const SeatSide side = face->sides[0];
  const double height = boundsOf(old.outline).size().y(),
               low = lies->at.y() - boundsOf(old.outline).low.y();
  // The strap's frame on the face: x the way it runs, the joint's point at height `low` of it.
  const LiesOn way = *liesOn(lies->kind);
  const Vec2 x = way.x, y = way.y();
  const bool byFace = way.up < 0;
  Iso3 onFace = Iso3::Identity();
  onFace.linear().col(0) = lift(x), onFace.linear().col(1) = lift(y),
  onFace.linear().col(2) = lift(x).cross(lift(y));
  onFace.translation() = lift(Vec2(lies->to - low * y));
  std::optional<PieceIndex> own;
  for (PieceIndex p : assembled->pieces.indices())
    if (assembled->pieces[p].owner == id) own = p;
  const Iso3 strap = side.toPiece * onFace;
  const Inside inside =
      insideOf(*assembled, Mechanism::from(*assembled), carrier, own, inverseOf(strap), 0, height);
  if (inside.layers == 0) return Error{"wrap.off-panel", id.text()};
  if (inside.extent.size().x() < 2 * overlap_mm) return Error{"wrap.narrow", id.text()};
  const double width =
      wrapWidth_mm(inside.extent.size().x(), inside.thick_mm, design.paperOf(*item).thickness_mm);
  PieceWork made = plainStrip(overlap_mm + 2 * width, height);
  const WorkLine::Kind kind = byFace ? WorkLine::Kind::Valley : WorkLine::Kind::Mountain;
  for (double at : {overlap_mm, overlap_mm + width})
    made.lines.push_back({kind, {at, 0}, {at, height}});
  PieceJoint joint = *lies;
  const double middle = overlap_mm + 0.5 * width;
  joint.at = {middle, low};
  joint.to = (onFace * Vec3(inside.extent.centre().x(), low, 0)).head<2>();
  made.joints.push_back(joint);
  // What is left open of it, as the first two panels give it: the overlap goes inside the third.
  const auto open = setWork(design, id, made);
  if (!open) return open.error();
  const auto again = assembleDesign(*open);
  if (!again) return again.error();
  const auto close = glueJoint(*again, again->findPanel(id.text() + "/panel-3"),
                               Iso3(Eigen::Translation3d(2 * width, 0, 0)), !byFace,
                               {0.5 * overlap_mm, 0.5 * height});
  if (!close) return Error{"wrap.no-face", id.text()};
  made.joints.push_back(*close);
  // Other joints of the strap sit on its outside as they did, on the panel that lies on the
  // carrier.
  for (const PieceJoint& other : old.joints)
    if (&other != &*lies && ownerOfKey(other.on) != id) { // how it was closed before is past
      made.joints.push_back(other);
      made.joints.back().at = joint.at + (other.at - lies->at);
      made.joints.back().rules.clear(); // they named edges of the sheet as it was
    }
  return made;
}

} // namespace hinge
