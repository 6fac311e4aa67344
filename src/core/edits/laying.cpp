// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/laying.h"
#include "core/geom/rim.h"
#include "core/pieces/outline_edits.h"
#include "core/pieces/piece_sheet.h"
#include "core/pieces/placing.h"
#include "core/structures/piece.h"
#include "core/structures/registry.h"
#include "core/units/lattice.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kInPlane = 0.02; ///< how far a direction may point out of a face and lie in it
constexpr double kTidy_deg = 1e-6;

/// The direction of all scores of a sheet; nothing when they are not parallel or there are none.
std::optional<Vec2> scoresRun(const PieceWork& work) {
  std::optional<Vec2> along;
  for (const WorkLine& line : work.lines) {
    if (line.kind == WorkLine::Kind::Cut) continue;
    const Vec2 own = (line.to - line.from).normalized();
    if (along && std::abs(cross2(*along, own)) > 1e-6) return std::nullopt;
    if (!along) along = own;
  }
  return along;
}

PanelIndex placedPanelOf(const Assembly& assembly, const Pose& pose, const SheetTarget& target) {
  if (!target.piece) return {};
  for (PanelIndex p : assembly.panels.indices())
    if (assembly.panels[p].owner == target.piece && pose.placed[p]) return p;
  return {};
}

double angleOf(const Vec2& v) {
  return degrees(std::atan2(v.y(), v.x()));
}

double tidied(double deg) {
  double turned = std::remainder(deg, 360.0);
  if (const double whole = std::round(turned); std::abs(turned - whole) < kTidy_deg) turned = whole;
  return turned == -180 ? 180 : turned;
}

/// Lines of the paper below to which an edge can be laid: its rim, its openings.
std::vector<Edge> edgesBelow(const Assembly& assembly, const SeatSide& side) {
  std::vector<Edge> edges;
  for (const auto& [a, b] : edgesOf(assembly.panels[side.panel].outline))
    edges.push_back({facePoint(side, a), facePoint(side, b)});
  return edges;
}

/// The middle of the paper below, and of everything that is glued to it.
std::vector<Vec2> middlesBelow(const Assembly& assembly, const SeatSide& side) {
  const auto middleOf = [&](const Polygon& flat) {
    Box2 box;
    for (const Vec2& p : flat)
      box.add(facePoint(side, p));
    return box.centre();
  };
  std::vector<Vec2> middles{middleOf(assembly.panels[side.panel].outline.rim)};
  for (const auto& [j, glue] : assembly.every<Glue>())
    if (glue.host == side.panel)
      middles.push_back(middleOf(mapped(assembly.panels[glue.tab].outline, glue.tabToHost).rim));
  return middles;
}

Polygon panelOnFace(const PieceWork& work, const HeldSheet& lying) {
  const Iso3 lies = onFace(lying);
  Polygon panel = heldPanel(work, lying.at);
  for (Vec2& p : panel)
    p = (lies * lift(p)).head<2>();
  return panel;
}

/// The least move that brings an edge of the panel onto an edge below, along a direction that is
/// not `taken`; nothing within reach.
std::optional<Vec2> flushMove(const Polygon& panel, const std::vector<Edge>& below, double reach_mm,
                              const std::optional<Vec2>& taken) {
  std::optional<Vec2> best;
  for (const auto& [a, b] : edgesOf(panel)) {
    const Vec2 along = (b - a).normalized(), across(-along.y(), along.x());
    if (taken && std::abs(cross2(across, *taken)) < 0.5) continue;
    for (const auto& [c, d] : below) {
      const Vec2 its = (d - c).normalized();
      if ((d - c).norm() < 1 || std::abs(cross2(along, its)) > 1e-4) continue;
      const Vec2 move = across.dot(c - a) * across;
      if (move.norm() < reach_mm && (!best || move.norm() < best->norm())) best = move;
    }
  }
  return best;
}

/// The nearest edge and its normal that looks away from the paper.
Vec2 nearestOut(const Polygon& rim, const Vec2& at) {
  PieceWork sheet;
  sheet.outline = rim;
  return outwards(rim, edgeAt(sheet, at, 1e300).value_or(0));
}

} // namespace

bool liesFlat(const HeldSheet& lying) {
  const given::Kind made = changedTo(lying.kind, given::Kind());
  return byFaceOf(made) != nullptr;
}

Iso3 onFace(const HeldSheet& lying) {
  const double up = lying.byFace ? -1 : 1, turn = radians(lying.turn_deg);
  const Vec3 x(std::cos(turn), std::sin(turn), 0), y = up * Vec3(-x.y(), x.x(), 0);
  return frame(lift(lying.to), x, y, up * Vec3::UnitZ()) * Eigen::Translation3d(-lift(lying.at));
}

Polygon heldPanel(const PieceWork& work, const Vec2& at) {
  const PieceSheet sheet(work);
  const std::size_t face = sheet.faceAt(at);
  return face < sheet.parts.faces.size() ? sheet.parts.faces[face].rim : work.outline;
}

double turnFor(const Assembly& assembly, const Pose& pose, const SheetTarget& target,
               const PieceWork& work, const HeldSheet& lying) {
  const Seat* seat = assembly.findSeat(lying.on);
  const auto along = scoresRun(work);
  if (!seat || !along) return 0;
  const double up = lying.byFace ? -1 : 1;
  const SeatSide& side = seat->sides[0];
  if (const PanelIndex own = placedPanelOf(assembly, pose, target);
      own.valid() && pose.placed[side.panel]) {
    const Vec3 world = pose.panels[own].linear() * lift(*along);
    const Vec3 local =
        (pose.panels[side.panel].linear() * side.toPiece.linear()).transpose() * world;
    if (std::abs(local.z()) < kInPlane)
      return tidied(angleOf(local.head<2>()) - up * angleOf(*along));
  }
  // Along the face's line, with the rest of the sheet towards it; a tab that is glued by its face
  // is folded under, so that the rest begins on its other side.
  const Vec2 rest = boundsOf(work.outline).centre() - lying.at;
  const double straight = -up * angleOf(*along);
  const auto falls = [&](double turn) {
    const double a = radians(turn + up * angleOf(rest));
    return rest.norm() * std::sin(a);
  };
  const bool towards = falls(straight) <= falls(straight + 180);
  return tidied(towards != lying.byFace ? straight : straight + 180);
}

LaySnap snappedLying(const Assembly& assembly, const PieceWork& work, const HeldSheet& lying,
                     double reach_mm, double lattice_mm) {
  LaySnap snap{lying.to};
  const Seat* seat = assembly.findSeat(lying.on);
  if (!seat) return snap;
  HeldSheet moved = lying;
  if (lattice_mm > 0) {
    const Vec2 start = layingStart(work, lying);
    moved.to = layingPointFor(work, lying,
                              {onLattice(start.x(), lattice_mm), onLattice(start.y(), lattice_mm)});
  }
  const auto below = edgesBelow(assembly, seat->sides[0]);
  std::optional<Vec2> taken;
  for (int k = 0; k < 2; ++k) {
    // From where the pointer has it, so that the lattice does not hide what is near.
    const auto move = flushMove(panelOnFace(work, lying), below, reach_mm, taken);
    if (!move) break;
    const Vec2 direction = move->norm() > kTouch_mm ? Vec2(move->normalized()) : Vec2(Vec2::Zero());
    if (direction.norm() < 0.5) break;
    const Vec2 already = moved.to - lying.to;
    moved.to += *move - direction.dot(already) * direction;
    snap.flush = true, taken = direction;
  }
  // Where no edge is met: middle over middle of the face, or of what is glued there already.
  const Vec2 centre = boundsOf(panelOnFace(work, lying)).centre();
  const auto middles = middlesBelow(assembly, seat->sides[0]);
  for (int axis : {0, 1}) {
    if (taken && std::abs((*taken)[axis]) > 0.5) continue;
    double least = reach_mm;
    for (const Vec2& middle : middles)
      if (const double off = middle[axis] - centre[axis]; std::abs(off) < least)
        least = std::abs(off), moved.to[axis] = lying.to[axis] + off, snap.flush = true;
  }
  snap.to = moved.to;
  return snap;
}

Vec2 layingStart(const PieceWork& work, const HeldSheet& lying) {
  return boundsOf(panelOnFace(work, lying)).low;
}

Vec2 layingPointFor(const PieceWork& work, const HeldSheet& lying, const Vec2& start) {
  return lying.to + start - layingStart(work, lying);
}

Result<PieceJoint> jointOf(const Design& design, const Assembly& assembly, const Pose& pose,
                           const SheetTarget& target, const HeldSheet& lying) {
  const Seat* seat = assembly.findSeat(lying.on);
  if (!seat || seat->kind() != SeatKind::Face) return Error{{"joint.no-face", lying.on}, ""};
  const SeatSide& side = seat->sides[0];
  PieceJoint joint;
  joint.at = lying.at, joint.on = lying.on, joint.to = lying.to;
  // The row that moves a piece along its seat counts on top of what its joints say.
  if (const StructureItem* item = target.piece ? design.find(*target.piece) : nullptr)
    if (const ParameterSpec* place = findSense(parametersOf(*item), Sense::Place))
      if (const Seat* stands = assembly.findSeat(item->seat))
        joint.to -= item->values.find(place->key)->second * alongFace(*stands, side);
  joint.kind = changedTo(lying.kind, joint.kind);
  const PieceWork& work = sheetOf(design, target).work;
  const PanelIndex own = placedPanelOf(assembly, pose, target);
  std::visit(
      [&](auto& made) {
        using Made = std::decay_t<decltype(made)>;
        if constexpr (requires { made.byFace; }) made.byFace = lying.byFace;
        if constexpr (std::is_same_v<Made, given::Slot>) {
          made.turn_deg =
              tidied(angleOf(facePoint(side, flatPoint(side, lying.to) +
                                                 nearestOut(assembly.panels[side.panel].outline.rim,
                                                            flatPoint(side, lying.to))) -
                             lying.to));
          made.way_deg = tidied(angleOf(-nearestOut(work.outline, lying.at)));
        } else if constexpr (std::is_same_v<Made, given::Slide>) {
          // Lies as it is held, and runs along the sheet's own upright.
          made.turn_deg = tidied(lying.turn_deg + (lying.byFace ? -1 : 1) * made.way_deg);
        } else if constexpr (requires { made.turn_deg; }) {
          made.turn_deg = tidied(lying.turn_deg);
        }
        if constexpr (requires { made.length_mm; }) {
          if (own.valid() && pose.placed[side.panel])
            made.length_mm =
                std::max(1.0, onLattice((pose.panels[own] * lift(lying.at) -
                                         pose.panels[side.panel] * (side.toPiece * lift(lying.to)))
                                            .norm()));
        }
      },
      joint.kind);
  return joint;
}

} // namespace hinge
