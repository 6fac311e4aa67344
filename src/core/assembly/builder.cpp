// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assembly/builder.h"
#include "core/units/length.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace hinge {

std::string AssemblyBuilder::key(std::string_view role) const {
  std::string key = m_name;
  key += '/';
  return key += role;
}

void AssemblyBuilder::fail(Text message, std::string place) {
  if (!m_error) m_error = Error{std::move(message), std::move(place)};
}

Result<void> AssemblyBuilder::status() const {
  if (m_error) return *m_error;
  constexpr double kOverlap_mm2 = 1e-3;
  // Neighbours on a sheet mostly share an edge and no more: their boxes say so at once.
  std::vector<Box2> boxes;
  const auto share = [&](std::size_t i, std::size_t j) {
    const Vec2 size = boxes[i].high.cwiseMin(boxes[j].high) - boxes[i].low.cwiseMax(boxes[j].low);
    return size.x() > 0 && size.y() > 0 && size.prod() > kOverlap_mm2;
  };
  for (std::size_t k = m_firstPiece; k < m_assembly.pieces.size(); ++k) {
    const Piece& piece = m_assembly.pieces[PieceIndex(k)];
    boxes.clear();
    for (PanelIndex p : piece.panels)
      boxes.push_back(boundsOf(m_assembly.panels[p].outline));
    for (std::size_t i = 0; i < piece.panels.size(); ++i)
      for (std::size_t j = i + 1; j < piece.panels.size(); ++j) {
        if (!share(i, j)) continue;
        const Panel &a = m_assembly.panels[piece.panels[i]],
                    &b = m_assembly.panels[piece.panels[j]];
        if (overlapArea_mm2(a.outline, b.outline) > kOverlap_mm2)
          return Error{{"piece.overlap", a.label, b.label}, piece.key};
      }
  }
  return {};
}

PieceIndex AssemblyBuilder::piece(std::string_view role, Text label) {
  return m_assembly.pieces.push({key(role), std::move(label), m_owner, {}, {}, {}});
}

PanelIndex AssemblyBuilder::panel(PieceIndex piece, std::string_view role, Text label, PanelUse use,
                                  Polygon outline) {
  if (signedArea_mm2(outline) < 0) std::reverse(outline.begin(), outline.end());
  if (!isSimple(outline) || std::abs(signedArea_mm2(outline)) < 1e-6)
    fail({"panel.impossible", label}, key(role));
  const PanelIndex index = m_assembly.panels.push(
      {key(role), std::move(label), m_owner, piece, use, std::move(outline)});
  m_assembly.pieces[piece].panels.push_back(index);
  return index;
}

namespace {

/// On the rim, or on the edge of a hole in which a flap hangs.
bool insertOnPaper(Region& paper, const Vec2& point) {
  if (insertOnOutline(paper.rim, point)) return true;
  return std::ranges::any_of(paper.holes,
                             [&](Polygon& hole) { return insertOnOutline(hole, point); });
}

} // namespace

FoldIndex AssemblyBuilder::fold(std::string_view role, Text label, PanelIndex left,
                                PanelIndex right, Vec2 from, Vec2 to, FoldSense sense,
                                double shutAngle_rad) {
  for (PanelIndex panel : {left, right})
    for (const Vec2& end : {from, to})
      if (!insertOnPaper(m_assembly.panels[panel].outline, end))
        fail({"fold.off-outline", label, m_assembly.panels[panel].label}, key(role));
  return m_assembly.addFold(
      {key(role), std::move(label), left, right, from, to, sense, shutAngle_rad});
}

void AssemblyBuilder::glue(PanelIndex tab, PanelIndex host, const Iso3& tabToHost, bool byFace,
                           Polygon area) {
  m_assembly.addJoint(Glue{tab, host, tabToHost, byFace, std::move(area)});
}

void AssemblyBuilder::notch(const SeatSide& side, double from_mm, double to_mm,
                            const std::vector<Vec2>& corners) {
  Panel& panel = m_assembly.panels[side.panel];
  const auto flat = [&](const Vec2& p) { return Vec2((side.toPiece * lift(p)).head<2>()); };
  const Vec2 from = flat({0, from_mm}), to = flat({0, to_mm});
  for (const Vec2& p : corners)
    if (p.x() < 1e-6 || !contains(panel.outline, flat(p)))
      return fail({"cut.past-edge", panel.label}, key("cut"));
  Polygon outline = panel.outline.rim;
  if (!insertOnOutline(outline, from) || !insertOnOutline(outline, to))
    return fail({"cut.past-edge/fold-end", panel.label}, key("cut"));
  const auto at = [&](const Vec2& p) {
    return std::ranges::find_if(outline, [&](const Vec2& q) { return (p - q).norm() < 1e-6; }) -
           outline.begin();
  };
  const auto n = static_cast<std::ptrdiff_t>(outline.size()), i = at(from), j = at(to);
  const bool forward = (i + 1) % n == j;
  if (!forward && (j + 1) % n != i) return fail({"cut.in-the-way", panel.label}, key("cut"));
  std::vector<Vec2> path;
  for (const Vec2& p : corners)
    path.push_back(flat(p));
  if (!forward) std::reverse(path.begin(), path.end());
  outline.insert(outline.begin() + (forward ? i : j) + 1, path.begin(), path.end());
  if (!isSimple(outline)) return fail({"cut.in-the-way/runs-into", panel.label}, key("cut"));
  Region whole(std::move(outline));
  for (const Polygon& window : panel.outline.holes) {
    auto with = withHole(whole, window);
    if (!with) return fail({"cut.in-the-way/window", panel.label}, key("cut"));
    whole = std::move(*with);
  }
  panel.outline = std::move(whole);
}

void AssemblyBuilder::cutWindow(PanelIndex index, const Polygon& window) {
  Panel& panel = m_assembly.panels[index];
  auto with = withHole(panel.outline, window);
  if (!with)
    return fail({"window.past-edge", panel.label, Millimetres{kLeastBridge_mm}}, key("window"));
  panel.outline = std::move(*with);
  feature(panel.piece, Window{index, panel.outline.holes.size() - 1});
}

bool AssemblyBuilder::openFold(const Seat& seat, const Vec2& from, const Vec2& to) {
  const PanelIndex a = seat.sides[0].panel, b = seat.sides[1].panel;
  for (FoldIndex f : m_assembly.foldsOf(a)) {
    const Fold fold = m_assembly.folds[f];
    if (!((fold.left == a && fold.right == b) || (fold.left == b && fold.right == a))) continue;
    const double length = (fold.to - fold.from).norm();
    const Vec2 along = (fold.to - fold.from) / length;
    if (std::abs(cross2(along, from - fold.from)) > 1e-6) continue;
    const auto [low, high] =
        std::minmax({along.dot(from - fold.from), along.dot(to - fold.from)}); // the list: by value
    // What is left of the fold at both ends holds the sheet together.
    constexpr double kLeast_mm = 1.0;
    if (low < kLeast_mm || high > length - kLeast_mm) continue;
    m_assembly.folds[f].to = fold.from + low * along;
    Fold rest = fold;
    rest.from = fold.from + high * along;
    rest.key += "-" + (m_owner ? m_name : "cut");
    while (m_assembly.findFold(rest.key).valid())
      rest.key += "'";
    m_assembly.addFold(rest);
    return true;
  }
  return false;
}

void AssemblyBuilder::cutAcross(const Seat& seat, double from_mm, double to_mm,
                                const std::vector<Vec2>& onFirst,
                                const std::vector<Vec2>& onSecond) {
  const auto end = [&](double y) {
    return Vec2((seat.sides[0].toPiece * Vec3(0, y, 0)).head<2>());
  };
  if (pieceOf(seat.sides[0]) != pieceOf(seat.sides[1]))
    return fail("cut.not-one-sheet", key("cut"));
  if (!openFold(seat, end(from_mm), end(to_mm))) return fail("cut.past-edge/whole", key("cut"));
  notch(seat.sides[0], from_mm, to_mm, onFirst);
  notch(seat.sides[1], from_mm, to_mm, onSecond);
}

Vec2 AssemblyBuilder::slit(PanelIndex index, const Vec2& inner, const Vec2& way, double width_mm,
                           std::optional<double> length_mm, double catch_mm) {
  Panel& panel = m_assembly.panels[index];
  const Vec2 u = way.normalized(), side(-u.y(), u.x());
  const auto past = [&] {
    fail({"slit.off-panel", panel.label}, panel.key);
    return inner;
  };
  if (!panel.outline.holes.empty()) {
    fail({"slit.window", panel.label}, panel.key);
    return inner;
  }
  const Polygon outline = panel.outline.rim;
  struct Exit {
    double at = 1e300;
    std::size_t edge = 0;
    Vec2 place = Vec2::Zero();
  };
  const auto exitOf = [&](const Vec2& from) {
    Exit exit;
    for (std::size_t k = 0; k < outline.size(); ++k) {
      const Vec2 a = outline[k], d = outline[(k + 1) % outline.size()] - a;
      const double den = cross2(u, d);
      if (std::abs(den) < 1e-12) continue;
      const double t = cross2(a - from, d) / den, s = cross2(a - from, u) / den;
      if (t > 1e-9 && s >= 0 && s < 1 && t < exit.at) exit = {t, k, from + t * u};
    }
    return exit;
  };
  Vec2 start = inner;
  if (length_mm) {
    const Exit middle = exitOf(inner);
    if (middle.at > 1e299) return past();
    start = inner + (middle.at - *length_mm) * u;
  }
  if (!contains(outline, start)) return past();
  // Both long sides must end on the same edge, the first that they meet. The outline runs
  // counter-clockwise, so that it comes to the right side of the slit first.
  const Vec2 left = start + 0.5 * width_mm * side, right = start - 0.5 * width_mm * side;
  const Exit a = exitOf(left), b = exitOf(right);
  if (a.at > 1e299 || b.at > 1e299 || a.edge != b.edge || !contains(outline, left) ||
      !contains(outline, right))
    return past();
  if (catch_mm > 0) {
    const Exit middle = exitOf(start);
    if (std::min(a.at, b.at) < catch_mm + width_mm || middle.at > 1e299) {
      fail({"slit.catch", panel.label, Millimetres{catch_mm}}, panel.key);
      return inner;
    }
  }
  Polygon cut;
  const auto add = [&](const Vec2& p) {
    if (cut.empty() || (p - cut.back()).norm() > 1e-9) cut.push_back(p);
  };
  for (std::size_t k = 0; k < outline.size(); ++k) {
    add(outline[k]);
    if (k == a.edge)
      for (const Vec2& p : {b.place, right, left, a.place})
        add(p);
  }
  if (!isSimple(cut)) return past();
  panel.outline = std::move(cut);
  feature(panel.piece, Slit{index, {right, left}, {b.place, a.place}, width_mm, catch_mm});
  return start;
}

void AssemblyBuilder::feature(PieceIndex piece, Feature made) {
  m_assembly.pieces[piece].features.push_back(std::move(made));
}

SeatSide sideOn(PanelIndex panel, const Vec2& origin, const Vec2& x, const Vec2& y) {
  return {panel, planarFrame(origin, x, y)};
}

Seat seatOnFold(AssemblyBuilder& builder, std::string_view role, Text label, PanelIndex left,
                PanelIndex right, const Vec2& from, const Vec2& to, double shutOpening_rad) {
  const Vec2 y = (to - from).normalized(), x(y.y(), -y.x());
  return builder.seat(role, std::move(label), sideOn(left, from, -x, y), sideOn(right, from, x, y),
                      (to - from).norm(), shutOpening_rad);
}

Seat AssemblyBuilder::seat(std::string_view role, Text label, const SeatSide& first,
                           const SeatSide& second, double length_mm, double shutOpening_rad) {
  return m_assembly.seats[m_assembly.seats.push({m_owner ? key(role) : std::string(role),
                                                 std::move(label),
                                                 {first, second},
                                                 length_mm,
                                                 shutOpening_rad})];
}

void AssemblyBuilder::faceSeats(PanelIndex panel, const Vec2& from, const Vec2& to) {
  const Panel& p = m_assembly.panels[panel];
  if (m_assembly.findSeat(p.key)) return;
  const Vec2 along = (to - from).normalized(), up(-along.y(), along.x());
  const SeatSide face{panel, planarFrame(from, along, up)},
      back{panel, planarFrame(to, -along, up)};
  const double length = (to - from).norm();
  Text name = m_owner ? Text("of", p.label, m_name) : p.label;
  m_assembly.seats.push({p.key, Text("face-of", name), {face, face}, length, kPi});
  m_assembly.seats.push(
      {p.key + "-back", Text("back-of", std::move(name)), {back, back}, length, kPi});
}

void AssemblyBuilder::twins(PanelIndex one, PanelIndex other) {
  m_assembly.panels[one].twin = other, m_assembly.panels[other].twin = one;
}

void AssemblyBuilder::crease(const std::string& seatKey) {
  if (const SeatIndex seat = m_assembly.seats.find(seatKey); seat.valid())
    m_assembly.seats[seat].crease = true;
}

void AssemblyBuilder::twinSeats(std::string_view role, std::string_view other) {
  const auto set = [&](const std::string& which, const std::string& twin) {
    if (const auto at = m_assembly.seats.find(which); at.valid()) m_assembly.seats[at].twin = twin;
  };
  set(key(role), key(other)), set(key(other), key(role));
}

void AssemblyBuilder::dimension(std::string key, PanelIndex panel, const Vec2& from, const Vec2& to,
                                std::optional<Vec2> corner) {
  m_assembly.dimensions.push_back({*m_owner, std::move(key), panel, from, to, corner});
}

void AssemblyBuilder::dimensionOn(const SeatSide& side, std::string key, const Vec2& from,
                                  const Vec2& to, std::optional<Vec2> corner) {
  const auto flat = [&](const Vec2& p) { return Vec2((side.toPiece * lift(p)).head<2>()); };
  dimension(std::move(key), side.panel, flat(from), flat(to),
            corner ? std::optional(flat(*corner)) : std::nullopt);
}

void AssemblyBuilder::placement(const Seat& on, std::vector<PanelIndex> panels,
                                std::function<std::optional<std::vector<Iso3>>(double)> poses) {
  m_assembly.placements.push_back(
      {*m_owner, on, std::move(panels),
       [on, poses = std::move(poses)](const Iso3& first, const Iso3& second) {
         const SeatPose seat = seatPose(on, first, second);
         auto found = poses(seat.opening_rad);
         if (found)
           for (Iso3& pose : *found)
             pose = seat.frame * pose;
         return found;
       }});
}

void AssemblyBuilder::placementBetween(
    const Seat& span, std::vector<PanelIndex> panels,
    std::function<std::optional<std::vector<Iso3>>(const Iso3&)> between) {
  m_assembly.placements.push_back(
      {*m_owner, span, std::move(panels),
       [span, between = std::move(between)](const Iso3& first, const Iso3& second) {
         const Iso3 frame = first * span.sides[0].toPiece;
         auto found = between(inverseOf(frame) * second * span.sides[1].toPiece);
         if (found)
           for (Iso3& pose : *found)
             pose = frame * pose;
         return found;
       }});
}

Polygon tabOutline(const Vec2& from, const Vec2& to, double depth_mm, double bevel_deg,
                   const Polygon& keepInside) {
  const Vec2 along = (to - from).normalized(), out(along.y(), -along.x());
  const double length = (to - from).norm();
  // Ends lean in by the bevel, but a short tab keeps at least a third of its length at the far
  // edge.
  const double lean = std::min(depth_mm * std::tan(radians(bevel_deg)), length / 3.0);
  // Counter-clockwise with the base first: the tab lies right of from -> to, so its own travel is
  // to -> from.
  Polygon outline{to, from, from + along * lean + out * depth_mm,
                  to - along * lean + out * depth_mm};
  if (!keepInside.empty()) outline = intersectConvex(outline, keepInside);
  return outline;
}

double tabDepth_mm(const Polygon& outline, const Vec2& from, const Vec2& to) {
  const Vec2 along = (to - from).normalized(), out(along.y(), -along.x());
  double depth = 0;
  for (const Vec2& p : outline)
    depth = std::max(depth, std::abs(out.dot(p - from)));
  return depth;
}

} // namespace hinge
