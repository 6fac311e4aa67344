#include "core/structures/common.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>

// Closed box: two walls that stand along the bisector of the seat, joined at both ends by a wall with a crease in its
// middle. The ends guide the walls, so that nothing is left loose. Kinematics "c. Box".
//
// Flat frame of the piece: one belt, x along it, y up the walls, face (+z) outside. From left to right: wall a (far end
// first), near end, wall b, far end, and a tab that closes the belt behind wall a.

namespace hinge {
namespace {

constexpr ParameterSpec kTable[] = {
    {"position", "Position", ParameterUnit::Millimetre, -1000, 1000, 60, ParameterRole::Gives, "",
     "From the start of the fold to the near corner of the walls"},
    {"length", "Length", ParameterUnit::Millimetre, 5, 1000, 50, ParameterRole::Gives, "", "Of the walls, along the fold"},
    {"a", "Foot", ParameterUnit::Millimetre, 4, 1000, 26, ParameterRole::Gives, "",
     "From the fold to the line where each wall stands"},
    {"h", "Height", ParameterUnit::Millimetre, 4, 1000, 34, ParameterRole::Gives, "", "Of the walls, from the foot up"},
    {"e", "Half end", ParameterUnit::Millimetre, 4, 1000, 26, ParameterRole::Gives, "",
     "From a corner to the crease of the end; as wide as the foot the end is straight when the card is open flat"},
    {"tab", "Tab depth", ParameterUnit::Millimetre, 1, 60, starting::kTabDepth_mm, ParameterRole::Held, "",
     "From a foot to the far edge of its glue tab, which points to the fold; also of the tab that closes the belt"},
    {"inward", "Ends fold", ParameterUnit::Switch, 0, 1, 0, ParameterRole::Held, "", "0: the ends fold outwards when the card shuts, 1: inwards", {"outwards", "inwards"}},
};

/// Equal halves and equal feet are built in: there is no condition left that sizes could break.
std::vector<LinearClosure> closures(double) { return {}; }

std::vector<MendDirection> mendDirections() {
  return {{{{"position", 1}}}, {{{"h", 1}}}, {{{"length", 1}}}, {{{"e", 1}}}, {{{"a", 1}, {"e", 1}}}, {{{"a", 1}}}, {{{"tab", 1}}}};
}

struct Sizes {
  double position, length, a, h, e, inward;
};

/// Panel poses for an opening: wall a, near end a and b, wall b, far end b and a.
std::optional<std::vector<Iso3>> poses(double opening_rad, const Sizes& s) {
  const double S = std::sin(0.5 * opening_rad), C = std::cos(0.5 * opening_rad);
  const double o2 = (s.e - s.a) * (s.e + s.a) + s.a * s.a * C * C;
  if (o2 < 1e-6 || S < 1e-9) return std::nullopt;
  const double o = (s.inward != 0 ? 1.0 : -1.0) * std::sqrt(o2), z = s.a * C;
  const Vec3 up = Vec3::UnitZ(), y = Vec3::UnitY();
  const double near = s.position, far = s.position + s.length;
  const Vec3 aNear(-s.a * S, near, z), bNear(s.a * S, near, z), aFar(-s.a * S, far, z), bFar(s.a * S, far, z);
  const Vec3 creaseNear(0, near + o, z), creaseFar(0, far - o, z);
  // The panel that starts at flat x = `from` at the point `start` and runs along `along`.
  const auto at = [&](double from, const Vec3& start, const Vec3& along) {
    const Vec3 x = along.normalized();
    return frame(start - from * x, x, up, x.cross(up));
  };
  const double l = s.length, e = s.e;
  return std::vector<Iso3>{at(0, aFar, -y),
                           at(l, aNear, creaseNear - aNear),
                           at(l + e, creaseNear, bNear - creaseNear),
                           at(l + 2 * e, bNear, y),
                           at(2 * l + 2 * e, bFar, creaseFar - bFar),
                           at(2 * l + 3 * e, creaseFar, aFar - creaseFar)};
}

Result<void> build(const RecipeInput& in, AssemblyBuilder& builder) {
  if (!isValley(in.seat.shutOpening_rad))
    return Error{"seat.unsuitable", "a closed box stands in a valley only: over a ridge its ends would run through the panels under it", in.item.id.text()};
  const Sizes s{in.value("position"), in.value("length"), in.value("a"), in.value("h"), in.value("e"), in.value("inward")};
  const double l = s.length, e = s.e, h = s.h, tab = in.value("tab");
  const auto& [sa, sb] = in.sideNames;
  const PieceIndex piece = builder.piece("piece", "closed box");
  const double stops[] = {0, l, l + e, l + 2 * e, 2 * l + 2 * e, 2 * l + 3 * e, 2 * l + 4 * e};
  const std::array<std::pair<std::string, std::string>, 6> names{{{"wall-" + sa, "wall " + sa}, {"near-" + sa, "near end " + sa}, {"near-" + sb, "near end " + sb},
                                                                  {"wall-" + sb, "wall " + sb}, {"far-" + sb, "far end " + sb}, {"far-" + sa, "far end " + sa}}};
  std::vector<PanelIndex> belt;
  for (std::size_t k = 0; k < names.size(); ++k)
    belt.push_back(builder.panel(piece, names[k].first, names[k].second, PanelUse::Wall, {{stops[k], 0}, {stops[k + 1], 0}, {stops[k + 1], h}, {stops[k], h}}));
  // Corners turn out of the way of the ends: flat when the ends fold outwards, right round when inwards.
  const bool inward = s.inward != 0;
  const double corner = inward ? -kPi : 0.0, crease = inward ? kPi : -kPi;
  const FoldSense creaseSense = inward ? FoldSense::Valley : FoldSense::Mountain;
  for (std::size_t k = 0; k + 1 < belt.size(); ++k) {
    const bool middle = k == 1 || k == 4;
    builder.fold("belt-" + std::to_string(k + 1), middle ? "end crease" : "corner", belt[k], belt[k + 1], {stops[k + 1], 0}, {stops[k + 1], h},
                 middle ? creaseSense : FoldSense::Mountain, middle ? crease : corner);
  }
  // The tab that closes the belt goes behind wall a.
  const double lean = std::min(tab * std::tan(radians(in.settings.tabBevel_deg)), h / 3);
  const PanelIndex closing = builder.panel(piece, "tab-belt", "belt tab", PanelUse::Tab, {{stops[6], 0}, {stops[6] + tab, lean}, {stops[6] + tab, h - lean}, {stops[6], h}});
  builder.fold("belt-6", "corner", belt[5], closing, {stops[6], 0}, {stops[6], h}, FoldSense::Mountain, corner);
  Iso3 onto = Iso3::Identity();
  onto.translation() = Vec3(-stops[6], 0, 0);
  builder.glue(closing, belt[0], onto);
  // Feet: the wall continued flat runs on towards the fold.
  const Iso3 toA = planarFrame({s.a, s.position + l}, -Vec2::UnitY(), Vec2::UnitX());
  const Iso3 toB = planarFrame({s.a, s.position - stops[3]}, Vec2::UnitY(), Vec2::UnitX());
  addGluedTab(builder, in, belt[0], piece, {0, 0}, {l, 0}, sa, in.seat.sides[0], toA, std::nullopt);
  addGluedTab(builder, in, belt[3], piece, {stops[3], 0}, {stops[4], 0}, sb, in.seat.sides[1], toB, std::nullopt);
  builder.placement(in.seat, belt, [s](double opening) { return poses(opening, s); });

  builder.dimension("length", belt[3], {stops[3], h}, {stops[4], h});
  builder.dimension("h", belt[3], {stops[3], 0}, {stops[3], h});
  builder.dimension("e", belt[2], {stops[2], h}, {stops[3], h});
  builder.dimensionOn(in.seat.sides[1], "a", {0, s.position}, {s.a, s.position});
  builder.dimensionOn(in.seat.sides[1], "position", {0, 0}, {0, s.position});

  const std::string name = in.name();
  const double creaseShut = inward ? 0.0 : 2 * kPi;
  const Vec2 x = Vec2::UnitX(), y = Vec2::UnitY();
  builder.seat("near", "near end crease of " + name, sideOn(belt[1], {stops[2], 0}, -x, y), sideOn(belt[2], {stops[2], 0}, x, y), h, creaseShut);
  builder.seat("far", "far end crease of " + name, sideOn(belt[4], {stops[5], 0}, -x, y), sideOn(belt[5], {stops[5], 0}, x, y), h, creaseShut);
  builder.seat("valley-" + sa, "valley at wall " + sa + " of " + name, sideWithin(in.seat.sides[0], {s.a, s.position}, x, y), sideOn(belt[0], {l, 0}, y, -x), l, 0);
  builder.seat("valley-" + sb, "valley at wall " + sb + " of " + name, sideOn(belt[3], {stops[3], 0}, y, x), sideWithin(in.seat.sides[1], {s.a, s.position}, x, y), l, 0);
  return builder.status();
}

Room room(const ParameterValues& v, double) {
  const auto get = [&](const char* key) { return v.find(key)->second; };
  const double past = get("inward") != 0 ? 0.0 : get("e");
  return {get("a") + get("h"), -past, get("length") + past};
}

ParameterValues fit(const Seat& seat, const Assembly& assembly, const Settings& settings) {
  return fitToSeat(kTable, seat, assembly, settings, room);
}

Sketch sketch() {
  using L = Sketch::Line;
  const Vec2 g0(0.50, 0.06), g1(0.62, 0.30), a0(0.16, 0.20), a1(0.28, 0.44), b0(0.78, 0.20), b1(0.90, 0.44), c(0.47, 0.12), up(0, 0.44);
  return {{{g0, g1, L::Use::Page}, {a0, a0 + up, L::Use::Paper}, {a0 + up, a1 + up, L::Use::Paper}, {a0, c, L::Use::Paper}, {c, b0, L::Use::Paper}, {a0 + up, c + up, L::Use::Paper},
           {c + up, b0 + up, L::Use::Paper}, {c, c + up, L::Use::Fold}, {b0, b0 + up, L::Use::Paper}, {b0 + up, b1 + up, L::Use::Paper}, {b1, b1 + up, L::Use::Paper}, {b0, b1, L::Use::Paper}},
          {{"h", b1, b1 + up, std::nullopt}, {"e", c + up, b0 + up, std::nullopt}, {"length", b0 + up, b1 + up, std::nullopt}, {"a", g0, b0, std::nullopt}}};
}

} // namespace

const StructureKind& closedBoxKind() {
  static const StructureKind kind{"closed-box", "Closed box", "Four walls: two along the fold, an end with a crease at either side", kTable, closures, mendDirections, build, fit, sketch};
  return kind;
}

} // namespace hinge
