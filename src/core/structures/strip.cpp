// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/common.h"
#include "core/structures/registry.h"
#include "core/units/lattice.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

// Strip: panels in a row, parted by scores, from a line on one page to a line on another that is
// not its neighbour. Two panels are guided by the pages alone; every further one is a free motion
// until something else guides it.
//
// Flat frame of the piece: x along the strip with the foot on side a at 0, y along the folds of the
// base, face (+z) outside.

namespace hinge {
namespace {

constexpr int kMostPanels = 4;
constexpr const char* kWidths[kMostPanels] = {"w1", "w2", "w3", "w4"};

constexpr ParameterSpec kStripTable[] = {
    {"position",
     {"size.strip.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     20,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"length",
     {"size.strip.length"},
     ParameterUnit::Millimetre,
     5,
     1000,
     30,
     ParameterRole::Gives,
     "",
     Sense::FromPlace},
    {"a", {"size.strip.a", "a"}, ParameterUnit::Millimetre, 2, 1000, 30, ParameterRole::Gives, "b"},
    {"b", {"size.strip.a", "b"}, ParameterUnit::Millimetre, 2, 1000, 30, ParameterRole::Gives, "a"},
    {"panels",
     {"size.strip.panels"},
     ParameterUnit::Count,
     2,
     kMostPanels,
     2,
     ParameterRole::Held,
     ""},
    {"w1", {"size.strip.w1"}, ParameterUnit::Millimetre, 3, 1000, 60, ParameterRole::Gives, ""},
    {"w2", {"size.strip.w2"}, ParameterUnit::Millimetre, 3, 1000, 60, ParameterRole::Gives, ""},
    {"w3", {"size.strip.w3"}, ParameterUnit::Millimetre, 3, 1000, 60, ParameterRole::Gives, ""},
    {"w4", {"size.strip.w4"}, ParameterUnit::Millimetre, 3, 1000, 60, ParameterRole::Gives, ""},
    {"tab",
     {"size.strip.tab"},
     ParameterUnit::Millimetre,
     1,
     60,
     starting::kTabDepth_mm,
     ParameterRole::Held,
     "",
     Sense::Tab},
    {"bulge", {"size.strip.bulge"}, ParameterUnit::Switch, 0, 1, 1, ParameterRole::Held, ""},
};

std::vector<MendDirection> stripMends() {
  return {{{{"w1", 1}}},
          {{{"w2", 1}}},
          {{{"w1", 1}, {"w2", 1}}},
          {{{"w1", 1}, {"w2", -1}}},
          {{{"position", 1}}},
          {{{"length", 1}}},
          {{{"a", 1}}},
          {{{"b", 1}}},
          {{{"tab", 1}}}};
}

std::vector<double> widthsOf(const ParameterValues& v) {
  std::vector<double> widths;
  for (int k = 0; k < static_cast<int>(v.find("panels")->second); ++k)
    widths.push_back(v.find(kWidths[k])->second);
  return widths;
}

/// Where the second foot lies at an opening of the card, in the frame of the first side (its y is
/// not used).
Vec3 secondFoot(const Assembly& assembly, const Seat& seat, double b, double opening_rad,
                Vec3* way = nullptr) {
  Iso3 first, second;
  for (const auto& [page, pose] : assembly.basePoses(opening_rad)) {
    if (page == seat.sides[0].panel) first = pose * seat.sides[0].toPiece;
    if (page == seat.sides[1].panel) second = pose * seat.sides[1].toPiece;
  }
  const Iso3 relative = inverseOf(first) * second;
  if (way) *way = relative.linear().col(0);
  return relative * Vec3(b, 0, 0);
}

/// Corners of the strip between its feet, seen along the folds, as part of a circle: the first
/// guess of its shape. Nothing when it is too short.
std::optional<std::vector<Vec3>> arc(const Vec3& from, const Vec3& to,
                                     const std::vector<double>& widths, const Vec3& side) {
  const double gap = (to - from).norm();
  double sum = 0, widest = 0;
  for (double w : widths)
    sum += w, widest = std::max(widest, w);
  if (gap < 1e-6 || sum < gap - 1e-9 || 2 * widest > sum + gap) return std::nullopt;
  const Vec3 along = (to - from) / gap;
  const Vec3 up = (side - along.dot(side) * along).normalized();
  if (widths.size() == 2) {
    const double t = 0.5 * gap + (widths[0] - widths[1]) * (widths[0] + widths[1]) / (2 * gap);
    return std::vector<Vec3>{
        from, from + t * along + std::sqrt(std::max(0.0, widths[0] * widths[0] - t * t)) * up, to};
  }
  // Half angles over the chords sum to that of the gap when the arc is less than half the circle,
  // and to what is left of pi when more.
  const auto sumOf = [&](double r) {
    double s = 0;
    for (double w : widths)
      s += std::asin(std::min(1.0, w / (2 * r)));
    return s;
  };
  const double least = 0.5 * std::max(widest, gap);
  const bool more = sumOf(least * (1 + 1e-12)) > std::asin(std::min(1.0, gap / (2 * least)));
  double low = least, high = 1e6;
  for (int k = 0; k < 200; ++k) {
    const double r = 0.5 * (low + high), own = std::asin(std::min(1.0, gap / (2 * r)));
    // On the larger arc the chords want the rest of the circle.
    const double want =
        more && sumOf(least) >= kPi - std::asin(std::min(1.0, gap / (2 * least))) ? kPi - own : own;
    (sumOf(r) > want ? low : high) = r;
  }
  const double r = 0.5 * (low + high);
  std::vector<Vec3> corners{from};
  double turned = 0, total = 2 * sumOf(r);
  for (std::size_t k = 0; k + 1 < widths.size(); ++k) {
    const double half = std::asin(std::min(1.0, widths[k] / (2 * r))),
                 angle = 0.5 * total - turned - half;
    corners.push_back(corners.back() +
                      widths[k] * (std::cos(angle) * along + std::sin(angle) * up));
    turned += 2 * half;
  }
  corners.push_back(to);
  return corners;
}

/// Directions (+1, -1) in which the panels lie in the shut card, along the first side's x: those
/// whose sum comes nearest to where the second foot is.
std::vector<double> shutWays(const std::vector<double>& widths, double distance) {
  std::vector<double> best;
  double least = 1e300;
  for (unsigned bits = 0; bits < (1u << widths.size()); ++bits) {
    std::vector<double> ways;
    double sum = 0;
    for (std::size_t k = 0; k < widths.size(); ++k)
      ways.push_back(bits >> k & 1 ? -1 : 1), sum += ways.back() * widths[k];
    if (std::abs(sum - distance) < least - 1e-9) least = std::abs(sum - distance), best = ways;
  }
  return best;
}

/// Panels of a strip between its feet, `a` from one page's fold and `b` from the other's, away from
/// the folds or towards them; `relative` is the second page's frame in the first's.
std::optional<std::vector<Iso3>> bowed(const Vec3& start, const Iso3& relative, double a, double b,
                                       const std::vector<double>& widths, bool inside) {
  const Vec3 y = Vec3::UnitY();
  const Vec3 from = start + a * Vec3::UnitX(), to = relative * Vec3(start + b * Vec3::UnitX());
  const Vec3 folds = 0.5 * relative.translation();
  const Vec3 outward = 0.5 * (from + to) - start - folds;
  const auto corners = arc(from, to, widths, inside ? Vec3(-outward) : outward);
  if (!corners) return std::nullopt;
  std::vector<Iso3> poses;
  double score = 0;
  for (std::size_t k = 0; k < widths.size(); ++k) {
    const Vec3 x = (corners->at(k + 1) - corners->at(k)).normalized();
    poses.push_back(frame(corners->at(k) - score * x, x, y, x.cross(y)));
    score += widths[k];
  }
  return poses;
}

Result<void> buildStrip(const RecipeInput& in, AssemblyBuilder& builder) {
  const double position = in.value("position"), length = in.value("length"), a = in.value("a"),
               b = in.value("b");
  const std::vector<double> widths = widthsOf(in.values);
  const bool inside = in.value("bulge") != 0;
  const auto& [sa, sb] = in.sideNames;
  Vec3 wayB;
  const Vec3 shutFoot = secondFoot(builder.assembly(), in.seat, b, 0, &wayB);
  const std::vector<double> ways = shutWays(widths, shutFoot.x() - a);
  const auto folded = [](bool straight) { return straight ? 0.0 : -kPi; };
  // Bulging away from the folds the strip's own scores are mountains, towards them valleys.
  const FoldSense sense = inside ? FoldSense::Valley : FoldSense::Mountain;
  const double bent = inside ? kPi : -kPi, seatShut = inside ? 0.0 : 2 * kPi;

  const PieceIndex piece = builder.piece("piece", "strip");
  std::vector<PanelIndex> panels;
  std::vector<double> scores{0};
  for (std::size_t k = 0; k < widths.size(); ++k) {
    const double from = scores.back(), to = from + widths[k];
    panels.push_back(builder.panel(piece, fmt::format("panel-{}", k + 1), Text("panel", k + 1),
                                   PanelUse::Wall,
                                   {{from, 0}, {to, 0}, {to, length}, {from, length}}));
    if (k > 0)
      builder.fold(fmt::format("score-{}", k), Text("score", k), panels[k - 1], panels[k],
                   {from, 0}, {from, length}, sense, ways[k - 1] == ways[k] ? 0.0 : bent);
    scores.push_back(to);
  }
  const double total = scores.back();
  const SeatSide &first = in.seat.sides[0], &second = in.seat.sides[1];
  // Continued flat over its foot the strip runs on towards the fold; the side of the tab that meets
  // the page takes the glue.
  addTab(builder, in, piece,
         {panels.front(),
          {0, length},
          {0, 0},
          "tab-" + sa,
          Text("tab", sa),
          first.panel,
          first.toPiece * planarFrame({a, position}, Vec2::UnitX(), Vec2::UnitY()),
          FoldSense::Mountain,
          folded(ways.front() > 0),
          !in.seat.fromBehind[0]});
  addTab(builder, in, piece,
         {panels.back(),
          {total, 0},
          {total, length},
          "tab-" + sb,
          Text("tab", sb),
          second.panel,
          second.toPiece * planarFrame({b + total, position}, -Vec2::UnitX(), Vec2::UnitY()),
          FoldSense::Mountain,
          folded(ways.back() * wayB.x() < 0),
          !in.seat.fromBehind[1]});
  builder.placementBetween(in.seat, panels, [=](const Iso3& relative) {
    return bowed({0, position, 0}, relative, a, b, widths, inside);
  });
  for (std::size_t k = 0; k < widths.size(); ++k) {
    builder.dimension(kWidths[k], panels[k], {scores[k], length}, {scores[k + 1], length});
    builder.faceSeats(panels[k], {scores[k], 0}, {scores[k + 1], 0});
    if (k > 0)
      seatOnFold(builder, fmt::format("score-{}", k), Text("score-of", k, in.name()), panels[k - 1],
                 panels[k], {scores[k], 0}, {scores[k], length},
                 ways[k - 1] == ways[k] ? kPi : seatShut);
  }
  builder.dimension("length", panels.front(), {0, 0}, {0, length});
  builder.dimensionOn(first, "a", {0, position}, {a, position});
  builder.dimensionOn(second, "b", {0, position}, {b, position});
  builder.dimensionOn(second, "position", {0, 0}, {0, position});
  return builder.status();
}

/// Two panels whose sum just spans the pages where they are farthest apart and whose difference is
/// their distance in the shut card: that lies flat exactly.
ParameterValues fitStrip(const Seat& seat, const Assembly& assembly, const Settings& settings) {
  ParameterValues v = startingValues(kStripTable);
  const auto half = [](double x) { return onLattice(x); };
  const double room = std::min(seatDepth_mm(seat, 0, assembly), seatDepth_mm(seat, 1, assembly));
  constexpr double kSlack_mm = 1; // a strip that is pulled quite straight has no way to fold
  // A long panel low on one page and a short one that folds up under the other clear both pages
  // while these shut.
  v["a"] = std::max(2.0, half(0.20 * room)), v["b"] = std::max(4.0, half(0.68 * room));
  v["length"] = std::max(5.0, half(std::min(30.0, 0.4 * seat.length_mm)));
  v["position"] = half(0.5 * (seat.length_mm - v["length"]));
  double farthest = 0;
  for (int k = 0; k <= 36; ++k)
    farthest = std::max(
        farthest, (secondFoot(assembly, seat, v["b"], kPi * k / 36) - Vec3(v["a"], 0, 0)).norm());
  const double shut = secondFoot(assembly, seat, v["b"], 0).x() - v["a"];
  const double sum = std::ceil(farthest + kSlack_mm);
  v["w1"] = std::max(3.0, 0.5 * (sum + shut)), v["w2"] = std::max(3.0, 0.5 * (sum - shut));
  v["tab"] = std::clamp(
      downToLattice(v["a"] - std::max(settings.foldClearance_mm, settings.edgeReserve_mm)), 1.0,
      starting::kTabDepth_mm);
  return v;
}

Sketch stripSketch() {
  using L = Sketch::Line;
  const Vec2 l0(0.12, 0.12), r0(0.88, 0.12), l1(0.12, 0.88), r1(0.88, 0.88), A(0.12, 0.5),
      B(0.88, 0.5), Q(0.58, 0.66);
  return {{{l0, r0, L::Use::Page},
           {l0, l1, L::Use::Page},
           {r0, r1, L::Use::Page},
           {A, Q, L::Use::Paper},
           {Q, B, L::Use::Paper}},
          {{"a", l0, A, std::nullopt},
           {"b", r0, B, std::nullopt},
           {"w1", A, Q, std::nullopt},
           {"w2", Q, B, std::nullopt}}};
}

} // namespace

const StructureKind& stripKind() {
  static const StructureKind kind{"strip",    kStripTable, kOnSpans, noClosures,
                                  stripMends, buildStrip,  fitStrip, stripSketch};
  return kind;
}

} // namespace hinge
