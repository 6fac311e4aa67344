// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/common.h"
#include "core/structures/registry.h"
#include "core/structures/silhouettes.h"
#include "core/units/lattice.h"
#include <algorithm>
#include <cmath>

// Figure on the fold: a silhouette that stands on a fold of the base, in the plane that halves its
// opening. Half of its foot is folded to the one page, half to the other: both tabs are bent alike,
// and their spring holds the figure in the middle. Nothing else does, so the engine takes its
// motion as driven (`Drive`), and a check says what it rests on.
//
// Flat frame of the piece: middle of the foot in the origin, x along the fold, y up, face (+z) to
// side b.

namespace hinge {
namespace {

constexpr double kFootHeight_mm = 4; ///< of the bar that joins a narrow shape to its foot

constexpr ParameterSpec kStandingFigureTable[] = {
    {"position",
     {"size.standing-figure.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     60,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"width",
     {"size.figure.width"},
     ParameterUnit::Millimetre,
     3,
     1000,
     40,
     ParameterRole::Gives,
     "",
     Sense::AboutPlace},
    {"height",
     {"size.figure.height"},
     ParameterUnit::Millimetre,
     5,
     1000,
     50,
     ParameterRole::Gives,
     ""},
    {"foot",
     {"size.standing-figure.foot"},
     ParameterUnit::Millimetre,
     14,
     1000,
     30,
     ParameterRole::Gives,
     "",
     Sense::AboutPlace},
    {"shape",
     {"size.figure.shape"},
     ParameterUnit::Switch,
     0,
     kMostSilhouette,
     1,
     ParameterRole::Held,
     ""},
    {"handed", {"size.figure.handed"}, ParameterUnit::Switch, 0, 1, 0, ParameterRole::Held, ""},
    {"tab",
     {"size.box.tab"},
     ParameterUnit::Millimetre,
     1,
     60,
     starting::kTabDepth_mm,
     ParameterRole::Held,
     "",
     Sense::Tab},
};

std::vector<MendDirection> standingFigureMends() {
  return {{{{"position", 1}}},
          {{{"height", 1}}},
          {{{"width", 1}, {"height", 1}}},
          {{{"foot", 1}}},
          {{{"tab", 1}}}};
}

/// The silhouette and the bar of its foot as one outline.
std::optional<Polygon> outlineOf(const ParameterValues& values) {
  const double half = 0.5 * values.find("foot")->second;
  const Polygon bar{{-half, 0}, {half, 0}, {half, kFootHeight_mm}, {-half, kFootHeight_mm}};
  Polygon shape = silhouetteOf(values);
  if (signedArea_mm2(shape) < 0) std::ranges::reverse(shape); // of a mirrored one
  const auto joined = united({Region(shape), Region(bar)});
  if (joined.size() != 1 || !joined.front().holes.empty()) return std::nullopt;
  return joined.front().rim;
}

Result<void> buildStandingFigure(const RecipeInput& in, AssemblyBuilder& builder) {
  const Drive* found = builder.assembly().driveBetween(in.seat);
  const auto outline = outlineOf(in.values);
  if (!found) return Error{"kind.standing-figure/unsuitable", in.item.id.text()};
  if (!outline) return Error{"standing-figure.outline", in.item.id.text()};
  const Drive seat = *found;
  const double foot = 0.5 * in.value("foot"), position = in.value("position");
  const PieceIndex piece = builder.piece("piece", "figure");
  const PanelIndex panel = builder.panel(piece, "figure", "figure", PanelUse::Wall, *outline);
  // On either page the tab points away from the fold.
  const Iso3 down = planarFrame({0, position}, Vec2::UnitY(), -Vec2::UnitX());
  const auto tab = [&](int side, double from, double to) {
    const SeatSide& page = in.seat.sides[static_cast<std::size_t>(side)];
    const std::string& letter = in.sideNames[static_cast<std::size_t>(side)];
    return addTab(builder, in, piece,
                  {panel,
                   {from, 0},
                   {to, 0},
                   "tab-" + letter,
                   Text("tab", letter),
                   page.panel,
                   page.toPiece * down,
                   side == 0 ? FoldSense::Mountain : FoldSense::Valley,
                   side == 0 ? -kPi : kPi,
                   side == 0});
  };
  const PanelIndex tabA = tab(0, -foot, 0);
  tab(1, 0, foot);
  if (const auto status = builder.status(); !status) return status;
  // Folded up from its tab by what is left of a half turn after half the opening.
  const auto folded = [](double seat_rad) { return -(kPi - 0.5 * (kPi - std::abs(seat_rad))); };
  builder.assembly().drives.push_back({builder.assembly().foldsOf(tabA).front(),
                                       folded(seat.shut_rad), folded(seat.open_rad), seat.from_rad,
                                       seat.to_rad});
  const double width = in.value("width"), height = in.value("height");
  builder.faceSeats(panel, {-foot, 0}, {foot, 0});
  builder.dimension("width", panel, {-0.5 * width, 0.5 * height}, {0.5 * width, 0.5 * height});
  builder.dimension("height", panel, {0, 0}, {0, height});
  builder.dimension("foot", panel, {-foot, 0}, {foot, 0});
  builder.dimensionOn(in.seat.sides[1], "position", {0, 0}, {0, position});
  return builder.status();
}

Room standingFigureRoom(const ParameterValues& v, double) {
  const double half = 0.5 * std::max(v.find("width")->second, v.find("foot")->second);
  return {v.find("height")->second, -half, half};
}

ParameterValues fitStandingFigure(const Seat& seat, const Assembly& assembly,
                                  const Settings& settings) {
  ParameterValues v = fitToSeat(kStandingFigureTable, seat, assembly, settings, standingFigureRoom);
  v["foot"] = std::max(v["foot"], findSpec(kStandingFigureTable, "foot")->least);
  return v;
}

Sketch standingFigureSketch() {
  using L = Sketch::Line;
  Sketch s;
  const Polygon p = silhouette(1);
  const auto at = [](const Vec2& q) { return Vec2(0.5 + 0.5 * q.x(), 0.22 + 0.7 * q.y()); };
  for (std::size_t k = 0; k < p.size(); ++k)
    s.lines.push_back({at(p[k]), at(p[(k + 1) % p.size()]), L::Use::Paper});
  s.lines.push_back({{0.04, 0.30}, {0.5, 0.22}, L::Use::Page});
  s.lines.push_back({{0.5, 0.22}, {0.96, 0.30}, L::Use::Page});
  s.dimensions = {{"height", {0.85, 0.22}, {0.85, 0.92}, std::nullopt},
                  {"width", {0.25, 0.96}, {0.75, 0.96}, std::nullopt},
                  {"foot", {0.35, 0.14}, {0.65, 0.14}, std::nullopt}};
  return s;
}

} // namespace

const StructureKind& standingFigureKind() {
  static const StructureKind kind{
      "standing-figure",   kStandingFigureTable, kInValleys | kMovedByBase, noClosures,
      standingFigureMends, buildStandingFigure,  fitStandingFigure,         standingFigureSketch};
  return kind;
}

} // namespace hinge
