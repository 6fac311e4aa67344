// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/parting.h"
#include "core/edits/renaming.h"
#include "core/geom/rim.h"
#include "core/geom/subdivision.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <utility>

namespace hinge {
namespace {

constexpr double kAlike_mm = 0.1, kOverlap_mm2 = 0.5;
const std::string kPiece = "/piece";

/// One side of a sheet: its outline with all that lies on it.
PieceWork sideOf(const PieceWork& work, std::size_t line, const Polygon& outline) {
  PieceWork side;
  side.outline = outline;
  const auto on = [&](const Vec2& p) { return contains(outline, p, kTouch_mm); };
  for (std::size_t k = 0; k < work.lines.size(); ++k) {
    if (k == line) continue;
    WorkLine own = work.lines[k];
    const bool from = on(own.from), to = on(own.to);
    if (!from && !to) continue;
    // What crosses the line ends there.
    if (!from) own.from = endOnRim(outline, own.from, own.to);
    if (!to) own.to = endOnRim(outline, own.to, own.from);
    const Vec2 middle = 0.5 * (own.from + own.to);
    if (!on(middle) || (own.to - own.from).norm() < kSameVertex_mm ||
        distanceToOutline(outline, middle) < kTouch_mm)
      continue;
    side.lines.push_back(std::move(own));
  }
  for (const Polygon& window : work.windows)
    if (on(centroidOf(convexParts(window).front()))) side.windows.push_back(window);
  for (const PieceJoint& joint : work.joints)
    if (encloses(outline, joint.at)) {
      side.joints.push_back(joint);
      // What goes by a joint of the other part goes by its numbers from now on.
      std::erase_if(side.joints.back().rules, [&](PlaceRule& rule) {
        const bool byJoint = !lineBelow(rule);
        bool here = true;
        eachPoint(rule, [&](const Vec2& p) { here &= encloses(outline, p); });
        return byJoint && !here;
      });
    }
  return side;
}

/// The joint of a piece that has been turned in its flat frame: directions on the piece turn with
/// it, so that it lies on its face as before.
PieceJoint turnedOnPiece(PieceJoint joint, double turn_deg) {
  std::visit(
      [&](auto& kind) {
        if constexpr (requires { kind.way_deg; })
          kind.way_deg += turn_deg;
        else if constexpr (requires { kind.turn_deg; })
          kind.turn_deg -= (kind.byFace ? -1 : 1) * turn_deg;
      },
      joint.kind);
  joint.rules.clear(); // its sides have other names now: it stays where it lies
  return joint;
}

StructureItem* itemIn(Design& design, StructureId id) {
  const auto found = std::ranges::find(design.structures, id, &StructureItem::id);
  return found == design.structures.end() ? nullptr : &*found;
}

} // namespace

Result<Added> parted(const Design& design, StructureId piece, std::size_t line) {
  const StructureItem* item = design.find(piece);
  if (!item || !item->work || line >= item->work->lines.size())
    return Error{{"work.missing/no-piece", piece.text()}, ""};
  const PieceWork& work = *item->work;
  const auto faces = subdivide(work.outline, {{work.lines[line].from, work.lines[line].to}}).faces;
  if (faces.size() != 2) return Error{"part.not-across", piece.text()};
  const PieceWork stays = sideOf(work, line, faces[0].rim), goes = sideOf(work, line, faces[1].rim);
  auto added = addStructure(design, item->kind, item->seat, item->values, goes);
  if (!added) return added;
  Added made = std::move(added).value();
  if (auto set = setWork(made.design, piece, stays))
    made.design = std::move(set).value();
  else
    return set.error();
  // Behind the piece that it was, before all that may stand on it.
  auto& all = made.design.structures;
  const auto first = std::ranges::find(all, piece, &StructureItem::id) + 1;
  std::rotate(first, all.end() - 1, all.end());
  const auto before = assembleDesign(upTo(design, piece));
  const auto after = assembleDesign(upTo(made.design, made.id));
  if (!after) return after.error();
  const std::string own = piece.text() + kPiece, other = made.id.text() + kPiece;
  if (before)
    Renaming(*before, *after, [&](const std::string& key, const Vec2& at) {
      std::vector<Renaming::Place> places{{key, at}};
      if (key == own) places.push_back({other, at});
      return places;
    }).apply(made.design);
  return made;
}

Result<Design> joinedAlong(const Design& design, StructureId piece, std::size_t edge,
                           StructureId other, std::size_t otherEdge) {
  const StructureItem *one = design.find(piece), *two = design.find(other);
  if (!one || !one->work || !two || !two->work || piece == other)
    return Error{{"work.missing/no-piece", other.text()}, ""};
  const PieceWork &work = *one->work, &more = *two->work;
  if (edge >= work.outline.size() || otherEdge >= more.outline.size())
    return Error{"sheet.no-edge", ""};
  const Edge to = edgesOf(work.outline)[edge], from = edgesOf(more.outline)[otherEdge];
  const Vec2 way = to.second - to.first, its = from.second - from.first;
  if (std::abs(way.norm() - its.norm()) > kAlike_mm)
    return Error{{"join.edges", Millimetres{way.norm()}, Millimetres{its.norm()}}, ""};
  // Edge on edge, the paper on the other side of it: both run round their paper the same way.
  const Vec2 u = its.normalized(), v = -way.normalized();
  const double c = u.dot(v), s = cross2(u, v);
  const auto place = [&](const Vec2& p) {
    const Vec2 d = p - 0.5 * (from.first + from.second);
    return Vec2(0.5 * (to.first + to.second) + Vec2(c * d.x() - s * d.y(), s * d.x() + c * d.y()));
  };
  PieceWork laid = more;
  eachPoint(laid, [&](Vec2& p) { p = place(p); });
  if (overlapArea_mm2(work.outline, laid.outline) > kOverlap_mm2) return Error{"join.overlap", ""};
  const auto whole = united({work.outline, laid.outline});
  if (whole.size() != 1 || !whole.front().holes.empty()) return Error{"join.overlap", ""};
  PieceWork made = work;
  made.outline = whole.front().rim;
  for (Vec2& corner : made.outline) // the union is rounded to its lattice
    for (const Polygon* rim : {&work.outline, &std::as_const(laid.outline)})
      for (const Vec2& exact : *rim)
        if ((corner - exact).norm() < kSameVertex_mm) corner = exact;
  made.lines.push_back({WorkLine::Kind::Valley, to.first, to.second});
  made.lines.insert(made.lines.end(), laid.lines.begin(), laid.lines.end());
  made.windows.insert(made.windows.end(), laid.windows.begin(), laid.windows.end());
  for (const PieceJoint& joint : laid.joints)
    made.joints.push_back(turnedOnPiece(joint, degrees(std::atan2(s, c))));
  // What held one piece on the other is the sheet itself now.
  std::erase_if(made.joints, [&](const PieceJoint& joint) {
    const auto owner = ownerOfKey(joint.on);
    return owner == piece || owner == other;
  });
  Design next = design;
  StructureItem* own = itemIn(next, piece);
  own->work = made;
  std::erase_if(next.structures, [&](const StructureItem& item) { return item.id == other; });
  auto settled = setWork(next, piece, made);
  if (!settled) return settled;
  next = std::move(settled).value();
  const auto before = assembleDesign(
      upTo(design, std::ranges::find(design.structures, piece, &StructureItem::id) <
                           std::ranges::find(design.structures, other, &StructureItem::id)
                       ? other
                       : piece));
  const auto after = assembleDesign(upTo(next, piece));
  if (!after) return after.error();
  if (before)
    Renaming(*before, *after, [&](const std::string& key, const Vec2& at) {
      if (key == other.text() + kPiece)
        return std::vector<Renaming::Place>{{piece.text() + kPiece, place(at)}};
      return std::vector<Renaming::Place>{{key, at}};
    }).apply(next);
  return next;
}

} // namespace hinge
