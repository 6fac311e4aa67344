// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/common.h"
#include "core/units/lattice.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace hinge {

std::string shownKey(const RecipeInput& input, ParameterTable table, std::string_view key) {
  const ParameterSpec* spec = findSpec(table, key);
  return std::string(input.turned && !spec->twin.empty() ? spec->twin : key);
}

Seat turnedRound(const Seat& seat) {
  Seat turned = seat;
  const Iso3 flip =
      frame(Vec3(0, seat.length_mm, 0), Vec3::UnitX(), -Vec3::UnitY(), -Vec3::UnitZ());
  for (int k : {0, 1}) {
    const SeatSide& other = seat.sides[static_cast<std::size_t>(1 - k)];
    turned.sides[static_cast<std::size_t>(k)] = {other.panel, other.toPiece * flip};
  }
  return turned;
}

SeatSide sideWithin(const SeatSide& host, const Vec2& origin, const Vec2& x, const Vec2& y) {
  return {host.panel, host.toPiece * planarFrame(origin, x, y)};
}

std::optional<std::pair<Vec2, Vec2>> baseOnLine(const Polygon& outline, const Vec2& from,
                                                const Vec2& to) {
  const Vec2 along = (to - from).normalized();
  double low = 1e300, high = -1e300;
  for (const Vec2& p : outline) {
    if (std::abs(cross2(along, p - from)) > 1e-7) continue;
    low = std::min(low, along.dot(p - from));
    high = std::max(high, along.dot(p - from));
  }
  if (high - low < 1.0) return std::nullopt;
  return std::pair{Vec2(from + low * along), Vec2(from + high * along)};
}

PanelIndex addTab(AssemblyBuilder& builder, const RecipeInput& input, PieceIndex piece,
                  const GluedTab& tab) {
  const Polygon outline =
      tabOutline(tab.from, tab.to, input.value("tab"), input.settings.tabBevel_deg, tab.keepInside);
  const auto base = baseOnLine(outline, tab.from, tab.to);
  // Without a base the outline is empty. It is kept as a named failure: a structure without a tab
  // cannot be fixed at all.
  const PanelIndex panel =
      builder.panel(piece, tab.role, tab.label, PanelUse::Tab, base ? outline : Polygon());
  if (!base) return panel;
  const std::string foldRole =
      tab.role.starts_with("tab") ? "fold" + tab.role.substr(3) : "fold of " + tab.role;
  builder.fold(foldRole, Text("fold-of", tab.label), tab.wall, panel, base->first, base->second,
               tab.sense, tab.shutAngle_rad);
  builder.glue(panel, tab.host, tab.flatToHost, tab.byFace);
  return panel;
}

Seat seenFromBelow(const Seat& seat) {
  Seat below = seat;
  std::swap(below.sides[0], below.sides[1]);
  below.shutOpening_rad = 2 * kPi - seat.shutOpening_rad;
  return below;
}

namespace {

/// The half of a tab's base line that the maker wants: that at the start of the seat's fold, or at
/// its other end; across the fold that nearer to it, or farther from it.
std::pair<Vec2, Vec2> halfOf(const RecipeInput& input, const Vec2& from, const Vec2& to,
                             const Iso3& flatToSide) {
  const auto half = input.values.find("half");
  if (half == input.values.end() || half->second == 0) return {from, to};
  constexpr double kBetween_mm = 0.5; // of two halves side by side, each gives up as much
  const Vec2 start = (flatToSide * lift(from)).head<2>(), end = (flatToSide * lift(to)).head<2>();
  const Vec2 way = end - start;
  const bool rising = std::abs(way.y()) > std::abs(way.x()) ? way.y() > 0 : way.x() > 0;
  const Vec2 middle = 0.5 * (from + to), back = kBetween_mm * (to - from).normalized();
  return rising == (half->second == 1) ? std::pair(from, Vec2(middle - back))
                                       : std::pair(Vec2(middle + back), to);
}

} // namespace

void addGluedTab(AssemblyBuilder& builder, const RecipeInput& input, PanelIndex wall,
                 PieceIndex piece, const Vec2& from, const Vec2& to, const std::string& sideName,
                 const SeatSide& side, const Iso3& flatToSide,
                 std::optional<double> clipToSide_mm) {
  Polygon allowed;
  if (clipToSide_mm) {
    constexpr double kFar_mm = 1e4;
    const Iso3 back = inverseOf(flatToSide);
    for (const Vec3& corner : {Vec3(*clipToSide_mm, -kFar_mm, 0), Vec3(kFar_mm, -kFar_mm, 0),
                               Vec3(kFar_mm, kFar_mm, 0), Vec3(*clipToSide_mm, kFar_mm, 0)})
      allowed.push_back((back * corner).head<2>());
    if (signedArea_mm2(allowed) < 0) std::reverse(allowed.begin(), allowed.end());
  }
  const bool valley = isValley(input.seat.shutOpening_rad);
  const auto [start, end] = halfOf(input, from, to, flatToSide);
  addTab(builder, input, piece,
         {wall, start, end, "tab-" + sideName, Text("tab", sideName), side.panel,
          side.toPiece * flatToSide, FoldSense::Mountain, valley ? 0.0 : -kPi, true, allowed});
}

ParameterValues fitToSeat(ParameterTable table, const Seat& seat, const Assembly& assembly,
                          const Settings& settings,
                          Room (*needed_mm)(const ParameterValues&, double)) {
  ParameterValues values = startingValues(table);
  const Room room = needed_mm(values, seat.shutOpening_rad);
  const double depth = std::min(seatDepth_mm(seat, 0, assembly), seatDepth_mm(seat, 1, assembly));
  const double reserve = settings.edgeReserve_mm + 1.0;
  const double scale =
      std::min({1.0, std::max(0.0, depth - reserve) / room.out_mm,
                std::max(0.0, seat.length_mm - 2 * reserve) / (room.high_mm - room.low_mm)});
  for (const ParameterSpec& spec : table)
    if (spec.unit == ParameterUnit::Millimetre && spec.key != "position" && spec.key != "tab")
      values[std::string(spec.key)] =
          std::clamp(std::floor(2.0 * spec.start * scale + 1e-9) / 2.0, spec.least, spec.most);
  // A tab that points to the fold must end before it.
  if (const auto tab = values.find("tab"); tab != values.end())
    for (const char* foot : {"a", "b"})
      if (const auto at = values.find(foot);
          at != values.end() && at->second > settings.foldClearance_mm + 1)
        tab->second = std::min(tab->second, downToLattice(at->second - settings.foldClearance_mm));
  const Room taken = needed_mm(values, seat.shutOpening_rad);
  const double middle = 0.5 * seat.length_mm - 0.5 * (taken.low_mm + taken.high_mm);
  values["position"] = std::round(2.0 * middle) / 2.0;
  return values;
}

std::vector<LinearClosure> noClosures(double) {
  return {};
}

} // namespace hinge
