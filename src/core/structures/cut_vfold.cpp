// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/closed_forms.h"
#include "core/structures/common.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>

// Cut V-fold: a V-fold made of the sheet itself. One cut from base end over the tip to base end
// frees it; the fold of the sheet gives way to a crease that runs the other way. To lie flat when
// open, the two panel angles must be those of the base lines crosswise (gamma1 = beta, gamma2 =
// alpha), which also lets it shut flat: any angles work.

namespace hinge {
namespace {

constexpr ParameterSpec kCutVFoldTable[] = {
    {"position",
     {"size.cut-vfold.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     60,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"alpha",
     {"size.cut-vfold.alpha", "a"},
     ParameterUnit::Degree,
     5,
     88,
     50,
     ParameterRole::Gives,
     "beta"},
    {"beta",
     {"size.cut-vfold.alpha", "b"},
     ParameterUnit::Degree,
     5,
     88,
     50,
     ParameterRole::Gives,
     "alpha"},
    {"la",
     {"size.cut-vfold.la", "a"},
     ParameterUnit::Millimetre,
     8,
     1000,
     45,
     ParameterRole::Gives,
     "lb"},
    {"lb",
     {"size.cut-vfold.la", "b"},
     ParameterUnit::Millimetre,
     8,
     1000,
     45,
     ParameterRole::Gives,
     "la"},
    {"lc", {"size.cut-vfold.lc"}, ParameterUnit::Millimetre, 5, 1000, 40, ParameterRole::Gives, ""},
    {"turned",
     {"size.cut-vfold.turned"},
     ParameterUnit::Switch,
     0,
     1,
     0,
     ParameterRole::Held,
     "",
     Sense::TurnedRound},
};

std::vector<MendDirection> cutVFoldMends() {
  return {{{{"position", 1}}},
          {{{"lc", 1}}},
          {{{"la", 1}, {"lb", 1}}},
          {{{"la", 1}, {"lb", 1}, {"lc", 1}}},
          {{{"alpha", 1}, {"beta", 1}}}};
}

/// Corners in the flat sheet: x to side b, y along the fold, the point of the V in the origin.
struct CutVFoldShape {
  Vec2 endA, tip, endB;
  double across; ///< where the cut crosses the fold
};

CutVFoldShape cutVFoldShapeOf(const ParameterValues& v) {
  const auto get = [&](const char* key) { return v.find(key)->second; };
  const double al = radians(get("alpha")), be = radians(get("beta"));
  CutVFoldShape s;
  s.endA = get("la") * Vec2(-std::sin(al), std::cos(al));
  s.endB = get("lb") * Vec2(std::sin(be), std::cos(be));
  s.tip = get("lc") * Vec2(-std::sin(al - be), std::cos(al - be));
  const auto crossing = [](const Vec2& p, const Vec2& q) {
    return p.y() + (q.y() - p.y()) * p.x() / (p.x() - q.x());
  };
  s.across = s.tip.x() < -1e-9  ? crossing(s.tip, s.endB)
             : s.tip.x() > 1e-9 ? crossing(s.endA, s.tip)
                                : s.tip.y();
  return s;
}

/// The crease and the valleys beside the base lines; `ways` are the directions of base line a,
/// crease and base line b from the point, in the frame of side a.
void offerSeats(const RecipeInput& in, AssemblyBuilder& builder, const Seat& seat,
                const std::array<PanelIndex, 2>& panels, const std::array<Vec2, 3>& ways,
                const Vec2& apex, const std::array<double, 3>& lengths_mm,
                const std::array<std::string, 2>& names) {
  const auto side = [&](PanelIndex panel, const Vec2& away, const Vec2& along) {
    return SeatSide{panel, seat.sides[0].toPiece * planarFrame(apex, away, along)};
  };
  const Vec2 up = ways[1].normalized(), right(up.y(), -up.x());
  builder.seat("ridge", Text("centre-crease-of", in.name()), side(panels[0], right, up),
               side(panels[1], -right, up), lengths_mm[1], 2 * kPi);
  // Along a base line the sheet lies on one side, the panel on the other.
  const Vec2 dirA = ways[0].normalized(), outA(dirA.y(), -dirA.x());
  const Vec2 dirB = ways[2].normalized(), outB(-dirB.y(), dirB.x());
  builder.seat("valley-" + names[0], valleyAt(Text("panel", names[0]), in),
               side(seat.sides[0].panel, outA, dirA), side(panels[0], -outA, dirA), lengths_mm[0],
               0);
  builder.seat("valley-" + names[1], valleyAt(Text("panel", names[1]), in),
               side(panels[1], -outB, dirB), side(seat.sides[1].panel, outB, dirB), lengths_mm[2],
               0);
  builder.twinSeats("valley-" + names[0], "valley-" + names[1]);
  builder.twins(panels[0], panels[1]);
}

/// Base line a, base line b and the crease between them, from the point to their ends (base line a,
/// crease, base line b) in the flat piece.
void addFolds(AssemblyBuilder& builder, const Seat& seat, const std::array<PanelIndex, 2>& panels,
              const Vec2& point, const std::array<Vec2, 3>& ends,
              const std::array<std::string, 2>& names) {
  // Folds are named as seen from the sheet's face, which may be the far side of this fold.
  const bool faceOut = seat.sides[0].toPiece.linear()(2, 2) < 0;
  const double shut = faceOut ? kPi : -kPi;
  const auto fold = [&](const std::string& role, const Text& label, PanelIndex left,
                        PanelIndex right, const Vec2& end, bool base) {
    const FoldSense sense = base == faceOut ? FoldSense::Valley : FoldSense::Mountain;
    builder.fold(role, label, left, right, faceOut ? point : end, faceOut ? end : point, sense,
                 base ? shut : -shut);
  };
  fold("foot-" + names[0], Text("base-line", names[0]), seat.sides[0].panel, panels[0], ends[0],
       true);
  fold("foot-" + names[1], Text("base-line", names[1]), panels[1], seat.sides[1].panel, ends[2],
       true);
  // Last: the faces stand on the base lines.
  fold("crease", "centre-crease", panels[0], panels[1], ends[1], false);
}

Result<void> buildCutVFold(const RecipeInput& in, AssemblyBuilder& builder) {
  const Seat seat = in.seat.kind() == SeatKind::Ridge ? seenFromBelow(in.seat) : in.seat;
  const bool below = in.seat.kind() == SeatKind::Ridge;
  const ParameterValues values = below ? swapTwins(kCutVFoldTable, in.values) : in.values;
  const auto [sa, sb] = below ? std::array{in.sideNames[1], in.sideNames[0]} : in.sideNames;
  const double al = radians(values.find("alpha")->second),
               be = radians(values.find("beta")->second), position = in.value("position");
  const CutVFoldShape s = cutVFoldShapeOf(values);
  if (s.across < 1) return Error{"cut.impossible", in.item.id.text()};
  const Vec2 apex(0, position);
  const auto first = [&](const Vec2& p) {
    return Vec2(-p.x(), p.y() + position);
  }; // into the frame of side a
  const auto second = [&](const Vec2& p) { return Vec2(p.x(), p.y() + position); };
  std::vector<Vec2> onFirst{first(s.endA)}, onSecond{second(s.endB)};
  if (s.tip.x() < -1e-9) onFirst.push_back(first(s.tip));
  if (s.tip.x() > 1e-9) onSecond.push_back(second(s.tip));
  builder.cutAcross(seat, position, position + s.across, onFirst, onSecond);

  const PieceIndex piece = builder.pieceOf(seat.sides[0]);
  const auto flat = [&](const Vec2& p) {
    return Vec2((seat.sides[0].toPiece * lift(first(p))).head<2>());
  };
  const Vec2 point = flat(Vec2::Zero());
  const PanelIndex panelA = builder.panel(piece, "panel-" + sa, Text("panel", sa), PanelUse::Wall,
                                          {point, flat(s.tip), flat(s.endA)});
  const PanelIndex panelB = builder.panel(piece, "panel-" + sb, Text("panel", sb), PanelUse::Wall,
                                          {point, flat(s.endB), flat(s.tip)});
  addFolds(builder, seat, {panelA, panelB}, point, {flat(s.endA), flat(s.tip), flat(s.endB)},
           {sa, sb});
  // The closed form has the apex in the origin, the crease along y and the face towards the
  // structure.
  const double lean = al - be; // of the crease from the fold, towards side a
  const Vec2 up = first(Vec2(-std::sin(lean), std::cos(lean))) - apex, right(up.y(), -up.x());
  const Iso3 panelFrame =
      inverseOf(seat.sides[0].toPiece * frame(lift(apex), lift(-right), lift(up), -Vec3::UnitZ()));
  builder.placement(seat, {panelA, panelB}, [=](double opening) {
    auto poses = vFoldPoses(opening, position, al, be, be, al);
    if (poses)
      for (Iso3& pose : *poses)
        pose = pose * panelFrame;
    return poses;
  });

  const auto key = [&](std::string_view k) {
    const ParameterSpec* spec = findSpec(kCutVFoldTable, k);
    return std::string(in.turned != below && !spec->twin.empty() ? spec->twin : k);
  };
  builder.dimension(key("la"), panelA, point, flat(s.endA));
  builder.dimension(key("lb"), panelB, point, flat(s.endB));
  builder.dimension("lc", panelA, point, flat(s.tip));
  const Vec2 ahead(0, position + 30);
  builder.dimensionOn(seat.sides[0], key("alpha"), ahead, first(30 * s.endA.normalized()), apex);
  builder.dimensionOn(seat.sides[1], key("beta"), ahead, second(30 * s.endB.normalized()), apex);
  builder.dimensionOn(seat.sides[in.turned ? 0 : 1], "position",
                      Vec2(0, in.turned ? seat.length_mm : 0), apex);

  offerSeats(in, builder, seat, {panelA, panelB}, {first(s.endA) - apex, up, first(s.endB) - apex},
             apex, {s.endA.norm(), s.tip.norm(), s.endB.norm()}, {sa, sb});
  return builder.status();
}

Room cutVFoldRoom(const ParameterValues& v, double) {
  const CutVFoldShape s = cutVFoldShapeOf(v);
  const double reach = std::max({s.endA.norm(), s.tip.norm(), s.endB.norm()});
  return {reach, 0, std::max({s.endA.y(), s.endB.y(), s.tip.y(), 1.0})};
}

ParameterValues fitCutVFold(const Seat& seat, const Assembly& assembly, const Settings& settings) {
  return fitToSeat(kCutVFoldTable, seat, assembly, settings, cutVFoldRoom);
}

Sketch cutVFoldSketch() {
  using L = Sketch::Line;
  const Vec2 p(0.50, 0.12), end(0.50, 0.96), tip(0.50, 0.62), al(0.12, 0.44), be(0.88, 0.44);
  return {{{p, al, L::Use::Fold},
           {p, be, L::Use::Fold},
           {p, tip, L::Use::Fold},
           {al, tip, L::Use::Paper},
           {tip, be, L::Use::Paper},
           {tip, end, L::Use::Page}},
          {{"la", p, al, std::nullopt},
           {"lb", p, be, std::nullopt},
           {"lc", p, tip, std::nullopt},
           {"alpha", al, tip, p},
           {"beta", tip, be, p}}};
}

} // namespace

const StructureKind& cutVFoldKind() {
  static const StructureKind kind{"cut-vfold", kCutVFoldTable, kOnFolds | kOneSheet,
                                  noClosures,  cutVFoldMends,  buildCutVFold,
                                  fitCutVFold, cutVFoldSketch};
  return kind;
}

} // namespace hinge
