// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/dress/layers.h"
#include "core/geom/border.h"
#include "core/geom/rim.h"
#include "core/states/stand.h"
#include "core/units/lattice.h"
#include <array>
#include <cmath>

namespace hinge {
namespace {

/// Whether an edge is one of a hole: those keep the widest border all round.
bool isOfHole(const Region& region, const Edge& edge) {
  const Vec2 middle = 0.5 * (edge.first + edge.second);
  return std::ranges::any_of(region.holes, [&](const Polygon& hole) {
    return distanceToOutline(hole, middle) < kTouch_mm;
  });
}

std::vector<Region> inside(const Region& region, const std::vector<double>& border_mm,
                           CornerStyle corners) {
  if (border_mm.size() != 4)
    return withoutBorder(
        region, [&](const Edge&) { return border_mm.front(); }, corners);
  const double widest = std::ranges::max(border_mm);
  return withoutBorder(
      region,
      [&](const Edge& edge) { return isOfHole(region, edge) ? widest : border_mm[sideOf(edge)]; },
      corners);
}

std::vector<Region> parted(std::vector<Region> parts, const std::vector<Region>& taken) {
  if (taken.empty()) return parts;
  std::vector<Region> left;
  for (const Region& part : parts)
    for (Region& rest : without(part, taken))
      left.push_back(std::move(rest));
  return left;
}

class Dresser {
public:
  Dresser(const Design& design, const Assembly& assembly, const Pose& displayed)
      : m_design(design), m_assembly(assembly), m_displayed(displayed),
        m_table(onTable(design.card, assembly, displayed.opening_rad)) {}

  DressedFace dress(FaceIndex index, const Face& face, std::size_t ruleIndex) const {
    const DressRule& rule = m_design.dressing.rules[ruleIndex];
    DressedFace dressed{index, ruleIndex, {}};
    std::vector<Region> over; ///< what layers that lie over tabs leave free
    std::vector<Region> below = ground(face, rule, over);
    for (std::size_t k = 0; k < rule.layers.size(); ++k) {
      const Layer& layer = rule.layers[k];
      std::vector<double> border = layer.border_mm;
      if (border.empty()) border = {usualBorder_mm(m_design.settings, face.outline)};
      std::vector<Region> next;
      for (const Region& part : below)
        for (Region& inner : inside(part, border, layer.corners))
          next.push_back(std::move(inner));
      below = std::move(next);
      dressed.layers.push_back({k, layer.paper, parted(below, over), up_rad(face, layer)});
    }
    return dressed;
  }

private:
  /// The paper that the first layer is measured from.
  std::vector<Region> ground(const Face& face, const DressRule& rule,
                             std::vector<Region>& over) const {
    std::vector<Region> taken = gluedAway(m_assembly, face);
    for (const GluedOn& on : gluedOnto(m_assembly, face)) {
      if (rule.atGlue == AtGlue::Around) taken.insert(taken.end(), on.area.begin(), on.area.end());
      if (rule.atGlue == AtGlue::Over && on.stands)
        over.push_back(roomAlong(*on.stands, kBesideStanding_mm));
    }
    return parted({face.outline}, taken);
  }

  double up_rad(const Face& face, const Layer& layer) const {
    if (layer.turn == PatternTurn::AlongFold) return 0.5 * kPi;
    if (layer.turn == PatternTurn::Angle) return 0.5 * kPi + radians(layer.angle_deg);
    if (!m_displayed.placed[face.panel]) return 0.5 * kPi;
    const Eigen::Matrix3d toTable =
        (m_table * m_displayed.panels[face.panel] * face.toPiece).linear();
    // On the level, the top is what is farther away.
    constexpr double kLevel = 0.95;
    const bool level = std::abs(toTable.col(2).z()) > kLevel;
    const Vec3 up = toTable.transpose() * (level ? Vec3(Vec3::UnitY()) : Vec3(Vec3::UnitZ()));
    const double angle = std::atan2(up.y(), up.x());
    // A hair off the edges is what only a ruler would notice.
    constexpr double kHair_rad = radians(1.5);
    const double square = 0.5 * kPi * std::round(angle / (0.5 * kPi));
    return std::abs(angle - square) < kHair_rad ? square : angle;
  }

  const Design& m_design;
  const Assembly& m_assembly;
  const Pose& m_displayed;
  const Iso3 m_table;
};

} // namespace

std::size_t sideOf(const Edge& edge) {
  const Vec2 along = edge.second - edge.first, out(along.y(), -along.x());
  if (std::abs(out.y()) >= std::abs(out.x())) return out.y() < 0 ? 0 : 2;
  return out.x() > 0 ? 1 : 3;
}

double usualBorder_mm(const Settings& settings, const Region& face) {
  const bool narrow = boundsOf(face).size().minCoeff() < starting::kNarrowPanel_mm;
  const double step = latticeStep_mm(settings.unit),
               whole = std::max(step, onLattice(settings.matBorder_mm, step));
  return narrow ? 0.5 * whole : whole;
}

std::vector<DressedFace> dressedFaces(const Design& design, const Assembly& assembly,
                                      const KeyedVector<FaceIndex, Face>& faces,
                                      const std::vector<SeenClass>& seen, const Pose& displayed) {
  constexpr std::size_t kNone = std::size_t(-1);
  std::vector<std::size_t> ruleOf(faces.size(), kNone);
  for (std::size_t r = 0; r < design.dressing.rules.size(); ++r)
    for (FaceIndex f : reachedBy(design.dressing.rules[r], assembly, faces, seen))
      ruleOf[static_cast<std::size_t>(f.value)] = r;
  const Dresser dresser(design, assembly, displayed);
  std::vector<DressedFace> dressed;
  for (FaceIndex f : faces.indices()) {
    const std::size_t rule = ruleOf[static_cast<std::size_t>(f.value)];
    if (rule == kNone || design.dressing.rules[rule].layers.empty()) continue;
    dressed.push_back(dresser.dress(f, faces[f], rule));
  }
  return dressed;
}

} // namespace hinge
