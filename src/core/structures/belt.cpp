// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/belt.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

// Flat frame of the belt: x along it, y up the walls, face (+z) outside. Of the lid: x from side a
// to side b with the crease at 0, y along the fold, face up. Of the middle wall: x along the fold,
// y up, face to side b.

namespace hinge {
namespace {

enum Part { kWallA, kNearA, kNearB, kWallB, kFarB, kFarA, kParts };

/// The parts of each piece of the belt, from left to right, and whether a tab closes it to a ring.
struct Run {
  std::vector<Part> parts;
  bool closed = false;
};

std::vector<Run> runsOf(const BeltSizes& s) {
  if (s.nearEnd && s.farEnd) return {{{kWallA, kNearA, kNearB, kWallB, kFarB, kFarA}, true}};
  if (s.nearEnd) return {{{kWallA, kNearA, kNearB, kWallB}}};
  if (s.farEnd) return {{{kWallB, kFarB, kFarA, kWallA}}};
  return {{{kWallA}}, {{kWallB}}};
}

bool isWall(Part p) {
  return p == kWallA || p == kWallB;
}

/// Corners of the standing belt at an opening of its seat, in the seat's frame at the height of the
/// feet.
struct Standing {
  Vec3 aNear, aFar, bNear, bFar, creaseNear, creaseFar;
  double lidCrease = 0; ///< height of the lid's crease over the fold
};

std::optional<Standing> standingAt(double opening_rad, const BeltSizes& s) {
  const double S = std::sin(0.5 * opening_rad), C = std::cos(0.5 * opening_rad);
  const double o2 = (s.e - s.a) * (s.e + s.a) + s.a * s.a * C * C,
               l2 = (s.l - s.a) * (s.l + s.a) + s.a * s.a * C * C;
  const bool ends = s.nearEnd || s.farEnd;
  if ((ends && o2 < 1e-6) || S < 1e-9 || (s.lid != LidKind::None && l2 < 1e-6)) return std::nullopt;
  const double o = ends ? (s.inward ? 1.0 : -1.0) * std::sqrt(o2) : 0.0, z = s.a * C;
  const double near = s.position, far = s.position + s.length;
  Standing at{{-s.a * S, near, z}, {-s.a * S, far, z}, {s.a * S, near, z},
              {s.a * S, far, z},   {0, near + o, z},   {0, far - o, z}};
  if (s.lid != LidKind::None)
    at.lidCrease = z + s.h + (s.lid == LidKind::Rises ? 1.0 : -1.0) * std::sqrt(l2);
  return at;
}

Polygon lidHalf(const BeltSizes& s, double side) {
  const double out = s.l + s.over, c = std::min({s.corner, out - 1, 0.5 * s.length - 1});
  Polygon p{{0, 0}};
  if (c > 0.01) {
    // Three facets round the corner off: cut by hand they are straight cuts.
    for (double t : {0.0, 30.0, 60.0, 90.0})
      p.push_back({side * (out - c + c * std::sin(radians(t))), c - c * std::cos(radians(t))});
    for (double t : {90.0, 60.0, 30.0, 0.0})
      p.push_back(
          {side * (out - c + c * std::sin(radians(t))), s.length - c + c * std::cos(radians(t))});
  } else {
    p.push_back({side * out, 0}), p.push_back({side * out, s.length});
  }
  p.push_back({0, s.length});
  return p;
}

/// An inner wall ends this far before the belt's ends.
constexpr double kInnerClear_mm = 1;

class Builder {
public:
  Builder(const RecipeInput& in, AssemblyBuilder& builder, const Seat& seat, const BeltSizes& s,
          const BeltNames& names)
      : m_in(in), m_builder(builder), m_seat(seat), m_s(s), m_names(names), m_a(in.sideNames[0]),
        m_b(in.sideNames[1]) {}

  Seat build() {
    walls();
    if (m_s.lid != LidKind::None) lid();
    if (m_s.middleWall) middleWall();
    for (int k = 0; k < m_s.inner; ++k)
      innerWall(k, true), innerWall(k, false);
    const std::vector<PanelIndex> panels = m_placed;
    m_builder.placement(m_seat, panels,
                        [s = m_s, order = m_order, starts = m_start](double opening) {
                          return poses(opening, s, order, starts);
                        });
    return seats();
  }

private:
  /// What a placed panel is: a part of the belt, or one of these.
  static constexpr int kLidA = 100, kLidB = 101, kMiddle = 102, kInnerA = 200, kInnerB = 300;

  static std::optional<std::vector<Iso3>> poses(double opening, const BeltSizes& s,
                                                const std::vector<int>& order,
                                                const std::array<double, kParts>& starts) {
    const auto at = standingAt(opening, s);
    if (!at) return std::nullopt;
    const Vec3 up = Vec3::UnitZ(), y = Vec3::UnitY();
    std::vector<Iso3> all;
    for (int what : order) {
      if (what >= kInnerA) {
        all.push_back(innerPose(opening, s, what % 100, what < kInnerB));
        continue;
      }
      // The part that starts at flat x = `from` at the point `start` and runs along `along`.
      const auto part = [&](const Vec3& start, const Vec3& along) {
        const Vec3 x = along.normalized();
        return frame(start - starts[static_cast<std::size_t>(what)] * x, x, up, x.cross(up));
      };
      const Vec3 crease(0, s.position, at->lidCrease);
      const auto half = [&](const Vec3& x) { return frame(crease, x, y, x.cross(y)); };
      switch (what) {
      case kWallA: all.push_back(part(at->aFar, -y)); break;
      case kNearA: all.push_back(part(at->aNear, at->creaseNear - at->aNear)); break;
      case kNearB: all.push_back(part(at->creaseNear, at->bNear - at->creaseNear)); break;
      case kWallB: all.push_back(part(at->bNear, y)); break;
      case kFarB: all.push_back(part(at->bFar, at->creaseFar - at->bFar)); break;
      case kFarA: all.push_back(part(at->creaseFar, at->aFar - at->creaseFar)); break;
      case kLidA: all.push_back(half((crease - at->aNear - s.h * up).normalized())); break;
      case kLidB: all.push_back(half((at->bNear + s.h * up - crease).normalized())); break;
      case kMiddle: all.push_back(frame(Vec3(0, s.position, 0), y, up, Vec3::UnitX())); break;
      }
    }
    return all;
  }

  std::string role(const std::string& r) const { return m_names.mark + r; }
  Text label(Text l) const { return m_names.tier <= 1 ? l : Text("tier", m_names.tier, l); }
  PanelIndex place(PanelIndex panel, int what) {
    m_placed.push_back(panel), m_order.push_back(what);
    return panel;
  }
  double start(Part p) const { return m_start[static_cast<std::size_t>(p)]; }
  PanelIndex panel(Part p) const { return m_panel[static_cast<std::size_t>(p)]; }

  void walls() {
    const std::array<std::pair<std::string, Text>, kParts> called{
        {{"wall-" + m_a, {"wall", m_a}},
         {"near-" + m_a, {"near-end", m_a}},
         {"near-" + m_b, {"near-end", m_b}},
         {"wall-" + m_b, {"wall", m_b}},
         {"far-" + m_b, {"far-end", m_b}},
         {"far-" + m_a, {"far-end", m_a}}}};
    // Corners turn out of the way of the ends: flat when the ends fold outwards, right round when
    // inwards.
    const double corner = m_s.inward ? -kPi : 0.0, crease = m_s.inward ? kPi : -kPi, h = m_s.h;
    const FoldSense creaseSense = m_s.inward ? FoldSense::Valley : FoldSense::Mountain;
    int folds = 0;
    const std::vector<Run> runs = runsOf(m_s);
    for (std::size_t r = 0; r < runs.size(); ++r) {
      const std::string suffix = runs.size() > 1 ? (r == 0 ? "-" + m_a : "-" + m_b) : "";
      const PieceIndex piece = m_builder.piece(role("piece" + suffix), label(m_names.piece));
      double x = 0;
      Part before = kParts;
      for (Part p : runs[r].parts) {
        const auto k = static_cast<std::size_t>(p);
        const double width = isWall(p) ? m_s.length : m_s.e;
        m_start[k] = x;
        m_panel[k] =
            place(m_builder.panel(piece, role(called[k].first), label(called[k].second),
                                  PanelUse::Wall, {{x, 0}, {x + width, 0}, {x + width, h}, {x, h}}),
                  p);
        if (before != kParts) {
          const bool middle = !isWall(p) && !isWall(before);
          m_builder.fold(role(fmt::format("belt-{}", ++folds)),
                         label(middle ? "end-crease" : "corner"), panel(before), m_panel[k], {x, 0},
                         {x, h}, middle ? creaseSense : FoldSense::Mountain,
                         middle ? crease : corner);
        }
        before = p;
        x += width;
      }
      if (runs[r].closed) closingTab(piece, x, corner);
    }
    // Feet: the wall continued flat runs on towards the fold.
    const Iso3 toA = planarFrame({m_s.a, m_s.position + m_s.length + start(kWallA)}, -Vec2::UnitY(),
                                 Vec2::UnitX());
    const Iso3 toB =
        planarFrame({m_s.a, m_s.position - start(kWallB)}, Vec2::UnitY(), Vec2::UnitX());
    foot(kWallA, m_a, m_seat.sides[0], toA);
    foot(kWallB, m_b, m_seat.sides[1], toB);
  }

  void foot(Part wall, const std::string& side, const SeatSide& on, const Iso3& flatToSide) {
    const double x = start(wall);
    addTab(m_builder, m_in, pieceOf(wall),
           {panel(wall),
            {x, 0},
            {x + m_s.length, 0},
            role("tab-" + side),
            label({"tab", side}),
            on.panel,
            on.toPiece * flatToSide,
            FoldSense::Mountain,
            0.0,
            true,
            tabRoom(0)});
  }

  /// The tab that closes the belt goes behind wall a.
  void closingTab(PieceIndex piece, double x, double corner) {
    const double tab = m_in.value("tab"), h = m_s.h;
    const double lean = std::min(tab * std::tan(radians(m_in.settings.tabBevel_deg)), h / 3);
    const PanelIndex closing =
        m_builder.panel(piece, role("tab-belt"), label("belt-tab"), PanelUse::Tab,
                        {{x, 0}, {x + tab, lean}, {x + tab, h - lean}, {x, h}});
    m_builder.fold(role("belt-6"), label("corner"), panel(kFarA), closing, {x, 0}, {x, h},
                   FoldSense::Mountain, corner);
    Iso3 onto = Iso3::Identity();
    onto.translation() = Vec3(-x, 0, 0);
    m_builder.glue(closing, panel(kWallA), onto);
  }

  PieceIndex pieceOf(Part p) const { return m_builder.assembly().panels[panel(p)].piece; }

  void lid() {
    const bool sinks = m_s.lid == LidKind::Sinks;
    const PieceIndex piece = m_builder.piece(role("lid"), label(m_names.lid));
    const PieceIndex second =
        m_s.twoParts ? m_builder.piece(role("lid-2"), label({"other-half-of", m_names.lid}))
                     : piece;
    m_lidA = place(m_builder.panel(piece, role("lid-" + m_a), label({"lid-half", m_a}),
                                   PanelUse::Wall, lidHalf(m_s, -1)),
                   kLidA);
    m_lidB = place(m_builder.panel(second, role("lid-" + m_b), label({"lid-half", m_b}),
                                   PanelUse::Wall, lidHalf(m_s, 1)),
                   kLidB);
    const FoldSense sense = sinks ? FoldSense::Valley : FoldSense::Mountain;
    const double folded = sinks ? kPi : -kPi;
    if (m_s.twoParts)
      addTab(m_builder, m_in, piece,
             {m_lidA,
              {0, 0},
              {0, m_s.length},
              role("tab-lid"),
              label("tab-between-halves"),
              m_lidB,
              Iso3::Identity(),
              sense,
              folded});
    else
      m_builder.fold(role("lid-crease"), label("lid-crease"), m_lidA, m_lidB, {0, 0},
                     {0, m_s.length}, sense, folded);
    const double h = m_s.h, len = m_s.length, shut = sinks ? -kPi : 0.0, xa = start(kWallA),
                 xb = start(kWallB);
    const Iso3 fromA = planarFrame({-h - m_s.l, xa + len}, -Vec2::UnitY(), Vec2::UnitX());
    const Iso3 fromB = planarFrame({h + m_s.l, -xb}, Vec2::UnitY(), -Vec2::UnitX());
    addTab(m_builder, m_in, pieceOf(kWallA),
           {panel(kWallA),
            {xa + len, h},
            {xa, h},
            role("tab-lid-" + m_a),
            label({"lid-tab-on", m_a}),
            m_lidA,
            fromA,
            FoldSense::Mountain,
            shut,
            true,
            tabRoom(0)});
    addTab(m_builder, m_in, pieceOf(kWallB),
           {panel(kWallB),
            {xb + len, h},
            {xb, h},
            role("tab-lid-" + m_b),
            label({"lid-tab-on", m_b}),
            m_lidB,
            fromB,
            FoldSense::Mountain,
            shut,
            true,
            tabRoom(0)});
  }

  /// One sheet under the lid's crease; of its tabs those near one end go to side a and those near
  /// the other to side b, so that it hinges in the fold below and in the crease above. Between them
  /// both folds stay free for cuts.
  void middleWall() {
    const PieceIndex piece = m_builder.piece(role("middle"), label("middle-wall"));
    const double len = m_s.length, h = m_s.h, low = 0.32 * len, high = 0.68 * len;
    const PanelIndex wall =
        place(m_builder.panel(piece, role("middle-wall"), label("middle-wall"), PanelUse::Wall,
                              {{0, 0}, {len, 0}, {len, h}, {0, h}}),
              kMiddle);
    const Iso3 down = planarFrame({0, m_s.position}, Vec2::UnitY(), -Vec2::UnitX());
    const Polygon middle = tabRoom(m_s.inner);
    const SeatSide &sa = m_seat.sides[0], &sb = m_seat.sides[1];
    addTab(m_builder, m_in, piece,
           {wall,
            {0, 0},
            {low, 0},
            role("tab-middle-" + m_a),
            label({"middle-tab", m_a}),
            sa.panel,
            sa.toPiece * down,
            FoldSense::Mountain,
            -kPi,
            true,
            middle});
    addTab(m_builder, m_in, piece,
           {wall,
            {high, 0},
            {len, 0},
            role("tab-middle-" + m_b),
            label({"middle-tab", m_b}),
            sb.panel,
            sb.toPiece * down,
            FoldSense::Valley,
            kPi,
            false,
            middle});
    const Iso3 underA = planarFrame({h, 0}, Vec2::UnitY(), -Vec2::UnitX()),
               underB = planarFrame({-h, 0}, Vec2::UnitY(), Vec2::UnitX());
    addTab(m_builder, m_in, piece,
           {wall,
            {low, h},
            {0, h},
            role("tab-top-" + m_a),
            label({"upper-tab", m_a}),
            m_lidA,
            underA,
            FoldSense::Mountain,
            0,
            true,
            middle});
    addTab(m_builder, m_in, piece,
           {wall,
            {len, h},
            {high, h},
            role("tab-top-" + m_b),
            label({"upper-tab", m_b}),
            m_lidB,
            underB,
            FoldSense::Valley,
            0,
            false,
            middle});
  }

  /// How far from the fold an inner wall stands, the outermost first.
  static double innerAt_mm(const BeltSizes& s, int k) {
    return s.a * (s.inner - k) / (s.inner + 1);
  }
  static Iso3 innerPose(double opening, const BeltSizes& s, int k, bool onA) {
    const double at = innerAt_mm(s, k), side = onA ? -1 : 1;
    const Vec3 up = Vec3::UnitZ(), x = side * Vec3::UnitY();
    return frame({side * at * std::sin(0.5 * opening),
                  s.position + (onA ? s.length - kInnerClear_mm : kInnerClear_mm),
                  at * std::cos(0.5 * opening)},
                 x, up, x.cross(up));
  }

  /// Where the tabs of a wall may be, in its flat frame: they end before those of the next one. 0
  /// is the outer wall; the middle wall's tabs run towards those of the last one, and get its
  /// number.
  Polygon tabRoom(int number) const {
    if (m_s.inner == 0) return {};
    constexpr double kFar_mm = 1e4;
    const bool shared = m_s.middleWall && number == m_s.inner;
    const double step = m_s.a / (m_s.inner + 1) - m_in.settings.foldClearance_mm,
                 deepest = shared ? 0.5 * step : step;
    return {{-kFar_mm, -deepest},
            {kFar_mm, -deepest},
            {kFar_mm, m_s.h + deepest},
            {-kFar_mm, m_s.h + deepest}};
  }

  /// A wall beside and parallel to the outer one: with page and lid a parallelogram like that. Its
  /// tabs point to the fold and to the crease and end before the next wall's.
  void innerWall(int k, bool onA) {
    const std::string side = onA ? m_a : m_b, mark = fmt::format("inner-{}-{}", k + 1, side);
    const Text wallLabel = label({"belt-inner-wall", k + 1, side});
    const PieceIndex piece = m_builder.piece(role(mark), wallLabel);
    const double len = m_s.length - 2 * kInnerClear_mm, h = m_s.h, at = innerAt_mm(m_s, k);
    const PanelIndex wall = place(m_builder.panel(piece, role(mark), wallLabel, PanelUse::Wall,
                                                  {{0, 0}, {len, 0}, {len, h}, {0, h}}),
                                  (onA ? kInnerA : kInnerB) + k);
    (onA ? m_innerA : m_innerB).push_back(wall);
    const double start = m_s.position + (onA ? m_s.length - kInnerClear_mm : kInnerClear_mm);
    const Vec2 along(0, onA ? -1 : 1);
    const SeatSide& page = m_seat.sides[onA ? 0 : 1];
    addTab(m_builder, m_in, piece,
           {wall,
            {0, 0},
            {len, 0},
            role("tab-" + mark),
            label({"belt-inner-tab", k + 1, side}),
            page.panel,
            page.toPiece * planarFrame({at, start}, along, Vec2::UnitX()),
            FoldSense::Mountain,
            0.0,
            true,
            tabRoom(k + 1)});
    const double out = onA ? -1 : 1;
    addTab(m_builder, m_in, piece,
           {wall,
            {len, h},
            {0, h},
            role("tab-lid-" + mark),
            label({"belt-inner-upper-tab", k + 1, side}),
            onA ? m_lidA : m_lidB,
            planarFrame({out * (h + at), start - m_s.position}, along, {-out, 0}),
            FoldSense::Mountain,
            -kPi,
            true,
            tabRoom(k + 1)});
  }

  Seat seats() {
    const std::string name = m_in.name();
    const double l = m_s.length, h = m_s.h, creaseShut = m_s.inward ? 0.0 : 2 * kPi;
    const Vec2 x = Vec2::UnitX(), y = Vec2::UnitY();
    if (m_s.nearEnd)
      seatOnFold(m_builder, role("near"), label({"near-end-crease-of", name}), panel(kNearA),
                 panel(kNearB), {start(kNearB), 0}, {start(kNearB), h}, creaseShut);
    if (m_s.farEnd)
      seatOnFold(m_builder, role("far"), label({"far-end-crease-of", name}), panel(kFarB),
                 panel(kFarA), {start(kFarA), 0}, {start(kFarA), h}, creaseShut);
    m_builder.seat(role("valley-" + m_a), valleyAt(label({"wall", m_a}), m_in),
                   sideWithin(m_seat.sides[0], {m_s.a, m_s.position}, x, y),
                   sideOn(panel(kWallA), {start(kWallA) + l, 0}, y, -x), l, 0);
    m_builder.seat(role("valley-" + m_b), valleyAt(label({"wall", m_b}), m_in),
                   sideOn(panel(kWallB), {start(kWallB), 0}, y, x),
                   sideWithin(m_seat.sides[1], {m_s.a, m_s.position}, x, y), l, 0);
    m_builder.twinSeats(role("valley-" + m_a), role("valley-" + m_b));
    for (const auto& [one, other] :
         {std::pair{kWallA, kWallB}, std::pair{kNearA, kNearB}, std::pair{kFarA, kFarB}})
      if (panel(one).valid()) m_builder.twins(panel(one), panel(other));
    if (m_lidA.valid()) m_builder.twins(m_lidA, m_lidB);
    for (std::size_t k = 0; k < m_innerA.size(); ++k)
      m_builder.twins(m_innerA[k], m_innerB[k]);
    for (Part p : {kWallA, kNearA, kNearB, kWallB, kFarB, kFarA})
      if (panel(p).valid())
        m_builder.faceSeats(panel(p), {start(p), 0}, {start(p) + (isWall(p) ? l : m_s.e), 0});
    if (m_s.lid == LidKind::None) return m_seat;
    const bool sinks = m_s.lid == LidKind::Sinks;
    return seatOnFold(m_builder, role(sinks ? "table" : "ridge"),
                      label({sinks ? "fold-in-the-lid-of" : "ridge-of", name}), m_lidA, m_lidB,
                      {0, 0}, {0, l}, sinks ? 0.0 : 2 * kPi);
  }

  const RecipeInput& m_in;
  AssemblyBuilder& m_builder;
  const Seat m_seat;
  const BeltSizes m_s;
  const BeltNames m_names;
  const std::string m_a, m_b;
  std::array<PanelIndex, kParts> m_panel;
  std::array<double, kParts> m_start{};
  PanelIndex m_lidA, m_lidB;
  std::vector<PanelIndex> m_innerA, m_innerB;
  std::vector<PanelIndex> m_placed;
  std::vector<int> m_order;
};

} // namespace

Seat buildBelt(const RecipeInput& in, AssemblyBuilder& builder, const Seat& seat,
               const BeltSizes& sizes, const BeltNames& names) {
  return Builder(in, builder, seat, sizes, names).build();
}

Result<void> carriesInnerWalls(const BeltSizes& s, const std::string& place) {
  if (!s.middleWall && s.inner == 0) return {};
  if (s.lid != LidKind::Sinks || std::abs(s.l - s.a) > kTouch_mm)
    return Error{{"belt.inner-lid", Millimetres{s.a}}, place};
  constexpr double kNarrowest_mm = 4;
  if (s.a / (s.inner + 1) < kNarrowest_mm || s.length < 2 * kInnerClear_mm + kNarrowest_mm)
    return Error{{"belt.inner-narrow", Millimetres{kNarrowest_mm}}, place};
  return {};
}

Room beltRoom(const BeltSizes& s) {
  const double past = s.inward ? 0.0 : s.e;
  const double lid = s.lid == LidKind::Rises ? s.l : 0.0;
  return {s.a + s.h + lid + s.over, s.nearEnd ? -past : 0.0, s.length + (s.farEnd ? past : 0.0)};
}

} // namespace hinge
