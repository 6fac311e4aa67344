// SPDX-License-Identifier: GPL-3.0-or-later
#include "referee_order.h"
#include "referee_geometry.h"
#include <algorithm>

namespace hinge::test {
namespace {

constexpr double kFlat_mm = 0.02, kSpeck_mm2 = 0.5, kBeside_mm = 0.5;
/// Paper that has turned by less has not yet left.
constexpr double kLeft_rad = 0.005;

Region broughtInto(const Iso3& pose, const Iso3& other, const Region& paper) {
  const Iso3 map = pose.inverse() * other;
  Region there;
  const auto bring = [&](const Polygon& ring) {
    Polygon moved;
    for (const Vec2& p : ring)
      moved.push_back((map * lift(p)).head<2>());
    return moved;
  };
  there.rim = bring(paper.rim);
  for (const Polygon& hole : paper.holes)
    there.holes.push_back(bring(hole));
  return there;
}

} // namespace

OrderReferee::OrderReferee(const Assembly& assembly, const Motion& motion)
    : m_assembly(assembly), m_motion(motion) {
  for (PanelIndex p : assembly.panels.indices())
    m_heldWith.push(p.value);
  for (const auto& [j, glue] : assembly.every<Glue>()) {
    const int from = m_heldWith[glue.tab], to = m_heldWith[glue.host];
    for (int& group : m_heldWith)
      if (group == from) group = to;
  }
}

bool OrderReferee::there(PanelIndex p, const Pose& pose) const {
  return pose.placed[p] && !m_motion.isLoose(p);
}

bool OrderReferee::inOnePlane(const Pose& pose, PanelIndex a, PanelIndex b) const {
  const Vec3 na = pose.panels[a].linear().col(2), nb = pose.panels[b].linear().col(2);
  if (na.cross(nb).norm() > 1e-4) return false;
  return std::ranges::all_of(m_assembly.panels[b].outline.rim, [&](const Vec2& p) {
    return std::abs(na.dot(pose.panels[b] * lift(p) - pose.panels[a].translation())) < kFlat_mm;
  });
}

OrderReferee::Moment OrderReferee::momentAt(const Pose& pose, double opening_rad,
                                            const Moment* before) const {
  Moment now{pose, opening_rad, {}, {}};
  std::vector<PlacedPanel> placed;
  for (PanelIndex p : m_assembly.panels.indices())
    placed.emplace_back(pose.panels[p], m_assembly.panels[p].outline);
  for (PanelIndex a : m_assembly.panels.indices())
    for (PanelIndex b : m_assembly.panels.indices()) {
      if (!(a < b) || !there(a, pose) || !there(b, pose)) continue;
      if (!placed[std::size_t(a.value)].mayMeet(placed[std::size_t(b.value)])) continue;
      if (!inOnePlane(pose, a, b)) continue;
      if (before && before->common.contains({a, b})) { // as they lay
        const Iso3 was = before->pose.panels[a].inverse() * before->pose.panels[b],
                   is = pose.panels[a].inverse() * pose.panels[b];
        if ((was.matrix() - is.matrix()).cwiseAbs().maxCoeff() < 1e-9) {
          now.common[{a, b}] = before->common.at({a, b});
          continue;
        }
      }
      const Area shared = Area::common(
          Area(m_assembly.panels[a].outline),
          Area(broughtInto(pose.panels[a], pose.panels[b], m_assembly.panels[b].outline)));
      if (shared.size_mm2() > kSpeck_mm2) now.common[{a, b}] = shared.corners();
    }
  return now;
}

std::optional<int> OrderReferee::sideAlong(const Moment& m, PanelIndex a, PanelIndex b,
                                           const Vec3& up) const {
  const bool turned = b < a;
  const PanelIndex first = turned ? b : a;
  const auto known = m.sides.find(turned ? Pair{b, a} : Pair{a, b});
  if (known == m.sides.end()) return std::nullopt;
  const int along = m.pose.panels[first].linear().col(2).dot(up) > 0 ? 1 : -1;
  return known->second * along * (turned ? -1 : 1);
}

/// Notes that b lies above a, or below it (side -1), along `up`; false when that was known.
bool OrderReferee::put(Moment& m, PanelIndex a, PanelIndex b, int side, const Vec3& up,
                       double depth_mm) {
  const bool turned = b < a;
  const Pair pair = turned ? Pair{b, a} : Pair{a, b};
  if (!m.common.contains(pair)) return false;
  const int along = m.pose.panels[pair.first].linear().col(2).dot(up) > 0 ? 1 : -1;
  const int own = side * along * (turned ? -1 : 1);
  const auto [known, isNew] = m.sides.emplace(pair, own);
  if (!isNew && known->second != own) m_wrong.push_back({a, b, depth_mm, m.at_rad});
  return isNew;
}

/// Nothing of k lies between a and b: it lies over both or under both.
bool OrderReferee::alike(Moment& m, PanelIndex k, PanelIndex a, PanelIndex b) {
  const Vec3 up = m.pose.panels[a].linear().col(2);
  bool found = false;
  if (const auto side = sideAlong(m, a, k, up)) found = put(m, b, k, *side, up, 1);
  if (const auto side = sideAlong(m, b, k, up)) found = put(m, a, k, *side, up, 1) || found;
  return found;
}

/// Whether the panel has paper on both sides of a line in its plane.
bool OrderReferee::liesAcross(const Moment& m, PanelIndex k, const Vec3& from, const Vec3& to,
                              double* least_mm) const {
  const PlacedPanel placed(m.pose.panels[k], m_assembly.panels[k].outline);
  if (std::abs(placed.over(from)) > kFlat_mm || std::abs(placed.over(to)) > kFlat_mm) return false;
  const Vec2 a = placed.inPlane(from), b = placed.inPlane(to), along = (b - a).normalized(),
             across(-along.y(), along.x());
  bool lies = false;
  for (const double share : {0.1, 0.3, 0.5, 0.7, 0.9}) {
    const auto round = paperRound(m_assembly.panels[k].outline, a + share * (b - a), across);
    const double least = std::min(round[0], round[1]);
    if (least < kBeside_mm) continue;
    lies = true;
    if (least_mm) *least_mm = std::max(*least_mm, least);
  }
  return lies;
}

bool OrderReferee::slidesOn(PanelIndex k, PanelIndex host) const {
  for (const auto& [j, slide] : m_assembly.every<Slide>())
    if (slide.first == host)
      for (PanelIndex p :
           m_assembly.pieces[m_assembly.panels[k].piece].panels) // a strap goes along
        if (m_heldWith[slide.second] == m_heldWith[p]) return true;
  return false;
}

/// Of two that are glued to the same side of a panel the one whose place there the other covers
/// whole was there first.
void OrderReferee::glueOverGlue(Moment& m) {
  struct On {
    PanelIndex panel;
    bool onFace;
    Area there;
  };
  std::map<PanelIndex, std::vector<On>> on;
  for (const auto& [j, glue] : m_assembly.every<Glue>()) {
    Area held(m_assembly.panels[glue.tab].outline);
    if (!glue.area.empty()) held = Area::common(held, Area(Region(glue.area)));
    held = Area::common(held, Area(broughtInto(m.pose.panels[glue.tab], m.pose.panels[glue.host],
                                               m_assembly.panels[glue.host].outline)));
    const auto inWorld = [&](const Iso3& into) { // the glued place in another frame, by its corners
      return into.inverse() * m.pose.panels[glue.tab];
    };
    on[glue.tab].push_back({glue.host, glue.byFace, held.moved(Iso3::Identity())});
    on[glue.host].push_back(
        {glue.tab, glue.onHostFace(), held.moved(inWorld(m.pose.panels[glue.host]))});
  }
  for (const auto& [panel, all] : on)
    for (const On& inner : all)
      for (const On& outer : all) {
        if (inner.panel == outer.panel || inner.onFace != outer.onFace) continue;
        const double covered = Area::common(inner.there, outer.there).size_mm2();
        if (covered < 0.9 * inner.there.size_mm2() ||
            outer.there.size_mm2() < 1.5 * inner.there.size_mm2())
          continue;
        put(m, inner.panel, outer.panel, inner.onFace ? 1 : -1,
            m.pose.panels[panel].linear().col(2), 1);
      }
}

void OrderReferee::joints(Moment& m) {
  for (const Joint& joint : m_assembly.joints) {
    if (tieOf(joint) || std::holds_alternative<Slot>(joint)) continue;
    const auto [first, second] = panelsOf(joint);
    const Glue* glue = std::get_if<Glue>(&joint);
    const Pivot* pin = std::get_if<Pivot>(&joint);
    const bool onFace = glue  ? glue->onHostFace()
                        : pin ? pin->onFace()
                              : std::get<Slide>(joint).onFace();
    put(m, first, second, onFace ? 1 : -1, m.pose.panels[first].linear().col(2), 1);
  }
}

/// Of a fold that is folded over its mark says which leaf lies on the other's face.
void OrderReferee::folds(Moment& m) {
  for (const Fold& fold : m_assembly.folds) {
    const Vec3 left = m.pose.panels[fold.left].linear().col(2),
               right = m.pose.panels[fold.right].linear().col(2);
    if (left.dot(right) > 0) continue;
    const bool valley = fold.rest_rad ? *fold.rest_rad > 0 : fold.sense == FoldSense::Valley;
    put(m, fold.left, fold.right, valley ? 1 : -1, left, 1);
  }
}

/// A leaf that rises from a plane does so clear of what lies over its fold.
void OrderReferee::risingFolds(Moment& m) {
  for (const Fold& fold : m_assembly.folds)
    for (const auto& [flat, rising] :
         {std::pair{fold.left, fold.right}, std::pair{fold.right, fold.left}}) {
      if (!there(flat, m.pose) || !there(rising, m.pose)) continue;
      const Vec3 up = m.pose.panels[flat].linear().col(2);
      const Vec3 from = m.pose.panels[flat] * lift(fold.from),
                 to = m.pose.panels[flat] * lift(fold.to);
      double high = 0;
      for (const Vec2& p : m_assembly.panels[rising].outline.rim) {
        const double h = up.dot(m.pose.panels[rising] * lift(p) - from);
        if (std::abs(h) > std::abs(high)) high = h;
      }
      const double sine = up.cross(m.pose.panels[rising].linear().col(2)).norm();
      if (sine < kLeft_rad) continue;
      for (PanelIndex k : m_assembly.panels.indices()) {
        if (k == flat || k == rising || !there(k, m.pose)) continue;
        if (!m.common.contains(std::minmax(k, flat))) continue;
        double least = 0;
        if (liesAcross(m, k, from, to, &least))
          put(m, flat, k, high > 0 ? -1 : 1, up, std::min(least, std::abs(high)));
      }
    }
}

/// Two leaves on different sides of a sheet that has paper on both sides of their fold.
void OrderReferee::straddled(const Moment& m) {
  for (const Fold& fold : m_assembly.folds) {
    if (!there(fold.left, m.pose) || !there(fold.right, m.pose)) continue;
    const Vec3 from = m.pose.panels[fold.left] * lift(fold.from),
               to = m.pose.panels[fold.left] * lift(fold.to);
    for (PanelIndex k : m_assembly.panels.indices()) {
      if (k == fold.left || k == fold.right || !there(k, m.pose)) continue;
      double least = 0;
      if (!liesAcross(m, k, from, to, &least)) continue;
      const Vec3 up = m.pose.panels[k].linear().col(2);
      double rise[2];
      int n = 0;
      for (const PanelIndex leaf : {fold.left, fold.right}) {
        double high = 0;
        for (const Vec2& p : m_assembly.panels[leaf].outline.rim) {
          const double h = up.dot(m.pose.panels[leaf] * lift(p) - from);
          if (std::abs(h) > std::abs(high)) high = h;
        }
        rise[n++] = up.cross(m.pose.panels[leaf].linear().col(2)).norm() < kLeft_rad ? 0 : high;
      }
      if (rise[0] * rise[1] < 0)
        m_wrong.push_back(
            {k, fold.left, std::min({least, std::abs(rise[0]), std::abs(rise[1])}), m.at_rad});
    }
  }
}

/// What slides or turns on a face without anything between lies under all that is glued there.
void OrderReferee::movers(Moment& m) {
  for (const Joint& joint : m_assembly.joints) {
    const Pivot* pin = std::get_if<Pivot>(&joint);
    const Slide* slide = std::get_if<Slide>(&joint);
    if (!pin && !slide) continue;
    const Guide& guide = *guideOf(joint);
    const bool onFace = pin ? pin->onFace() : slide->onFace();
    if (guide.over != 0) continue;
    for (const auto& [j, glue] : m_assembly.every<Glue>()) {
      if (glue.host != guide.first || glue.onHostFace() != onFace || glue.tab == guide.second)
        continue;
      const Vec3 up = m.pose.panels[guide.first].linear().col(2) * (onFace ? 1.0 : -1.0);
      if (!inOnePlane(m.pose, guide.first, guide.second)) continue;
      put(m, guide.second, glue.tab, 1, up, 1);
    }
  }
}

bool OrderReferee::consequences(Moment& m) {
  bool found = false;
  for (const auto& [j, glue] : m_assembly.every<Glue>())
    for (PanelIndex k : m_assembly.panels.indices()) {
      if (k == glue.host || k == glue.tab || !m.common.contains(std::minmax(k, glue.host)) ||
          !m.common.contains(std::minmax(k, glue.tab)))
        continue;
      if (m_heldWith[k] == m_heldWith[glue.host]) continue; // glued in between it stays there
      // A panel glued on over what slides is the front of a pocket, with glue beside the way alone.
      if (m_assembly.panels[glue.tab].use == PanelUse::Wall && slidesOn(k, glue.host)) continue;
      Area held(m_assembly.panels[glue.tab].outline);
      if (!glue.area.empty()) held = Area::common(held, Area(Region(glue.area)));
      const Pose& pose = m.pose;
      held = Area::common(held, Area(broughtInto(pose.panels[glue.tab], pose.panels[glue.host],
                                                 m_assembly.panels[glue.host].outline)));
      held = Area::common(held, Area(broughtInto(pose.panels[glue.tab], pose.panels[k],
                                                 m_assembly.panels[k].outline)));
      if (held.size_mm2() > kSpeck_mm2) found = alike(m, k, glue.host, glue.tab) || found;
    }
  for (const Fold& fold : m_assembly.folds) {
    if (!there(fold.left, m.pose) || !there(fold.right, m.pose)) continue;
    if (!inOnePlane(m.pose, fold.left, fold.right)) continue;
    const Vec3 from = m.pose.panels[fold.left] * lift(fold.from),
               to = m.pose.panels[fold.left] * lift(fold.to);
    for (PanelIndex k : m_assembly.panels.indices())
      if (k != fold.left && k != fold.right && there(k, m.pose) &&
          m.common.contains(std::minmax(k, fold.left)) &&
          m.common.contains(std::minmax(k, fold.right)) && liesAcross(m, k, from, to))
        found = alike(m, k, fold.left, fold.right) || found;
  }
  // What lies over what lies over a third lies over that, where all three have paper.
  const Sides known = m.sides;
  for (const auto& [one, s] : known)
    for (const auto& [two, z] : known)
      for (const auto& [below, middle] :
           {std::pair{one.first, one.second}, std::pair{one.second, one.first}}) {
        const PanelIndex above = two.first == middle ? two.second : two.first;
        if ((two.first != middle && two.second != middle) || above == below) continue;
        const Vec3 up = m.pose.panels[below].linear().col(2);
        const auto first = sideAlong(m, below, middle, up),
                   second = sideAlong(m, middle, above, up);
        const Pair pair = std::minmax(below, above);
        if (!first || !second || *first != *second || !m.common.contains(pair)) continue;
        if (m.sides.contains(pair) && *sideAlong(m, below, above, up) == *first) continue;
        const auto in = [&](PanelIndex p) {
          return Area(
              broughtInto(m.pose.panels[below], m.pose.panels[p], m_assembly.panels[p].outline));
        };
        if (Area::common(Area::common(in(below), in(middle)), in(above)).size_mm2() > kSpeck_mm2)
          found = put(m, below, above, *first, up, 1) || found;
      }
  return found;
}

/// Two folds on one line, folded to the same side, are one within the other.
void OrderReferee::interleaved(Moment& m) {
  std::vector<const Fold*> over;
  for (const Fold& fold : m_assembly.folds)
    if (m.common.contains(std::minmax(fold.left, fold.right))) over.push_back(&fold);
  for (std::size_t i = 0; i < over.size(); ++i)
    for (std::size_t j = i + 1; j < over.size(); ++j) {
      const Fold &f = *over[i], &g = *over[j];
      const PanelIndex four[] = {f.left, f.right, g.left, g.right};
      if (f.left == g.left || f.left == g.right || f.right == g.left || f.right == g.right)
        continue;
      const Iso3 home = m.pose.panels[f.left].inverse();
      const auto flat = [&](PanelIndex p, const Vec2& at) {
        return Vec2((home * (m.pose.panels[p] * lift(at))).head<2>());
      };
      const Vec2 a = flat(f.left, f.from), b = flat(f.left, f.to), c = flat(g.left, g.from),
                 d = flat(g.left, g.to), along = (b - a).normalized();
      if (std::abs(cross2(along, c - a)) > kFlat_mm || std::abs(cross2(along, d - a)) > kFlat_mm)
        continue;
      const double low = std::max(0.0, std::min(along.dot(c - a), along.dot(d - a))),
                   high = std::min((b - a).norm(), std::max(along.dot(c - a), along.dot(d - a)));
      if (high - low < 1) continue;
      const Vec3 up = m.pose.panels[f.left].linear().col(2);
      std::optional<int> s[4];
      for (int k = 0; k < 4; ++k)
        s[k] = sideAlong(m, four[k / 2], four[2 + k % 2], up);
      if (!s[0] || !s[1] || !s[2] || !s[3]) continue;
      const bool thirdBetween = *s[0] != *s[2], fourthBetween = *s[1] != *s[3];
      if (thirdBetween != fourthBetween) m_wrong.push_back({f.left, g.left, 1, m.at_rad});
    }
}

/// The height of b's paper over a where they lie on one another at one of two moments, at the
/// other.
namespace {
double heightOver(const Pose& lying, const Pose& apart, PanelIndex a, PanelIndex b,
                  const std::vector<Vec2>& common) {
  double most = 0;
  for (const Vec2& p : common) {
    const Vec3 onB = lying.panels[b].inverse() * (lying.panels[a] * lift(p));
    const double h =
        apart.panels[a].linear().col(2).dot(apart.panels[b] * onB - apart.panels[a].translation());
    if (std::abs(h) > std::abs(most)) most = h;
  }
  return most;
}
} // namespace

void OrderReferee::arrive(const Moment& before, Moment& now) {
  for (const auto& [pair, common] : now.common) {
    const auto& [a, b] = pair;
    if (!there(a, before.pose) || !there(b, before.pose)) continue;
    const Vec3 up = now.pose.panels[a].linear().col(2);
    if (before.common.contains(pair)) {
      if (const auto known = before.sides.find(pair); known != before.sides.end())
        put(now, a, b, known->second, up, 1);
    } else if (!inOnePlane(before.pose, a, b)) {
      const double h = heightOver(now.pose, before.pose, a, b, common);
      if (std::abs(h) > 5 * kFlat_mm) put(now, a, b, h > 0 ? 1 : -1, up, std::abs(h));
    }
  }
}

void OrderReferee::leave(Moment& moment, const Moment& next) {
  for (const auto& [pair, common] : moment.common) {
    const auto& [a, b] = pair;
    if (!there(a, next.pose) || !there(b, next.pose) || inOnePlane(next.pose, a, b)) continue;
    const double h = heightOver(moment.pose, next.pose, a, b, common);
    if (std::abs(h) > 5 * kFlat_mm)
      put(moment, a, b, h > 0 ? 1 : -1, moment.pose.panels[a].linear().col(2), std::abs(h));
  }
}

/// What is known of the moment before is complete once it is seen how paper leaves it.
void OrderReferee::follow(std::optional<Moment>& before, Moment now) {
  if (before) {
    leave(*before, now);
    while (consequences(*before)) {
    }
    interleaved(*before);
    arrive(*before, now);
  }
  joints(now), glueOverGlue(now), folds(now), movers(now), risingFolds(now), straddled(now);
  while (consequences(now)) {
  }
  before = std::move(now);
}

void OrderReferee::next(const Pose& pose, double opening_rad) {
  follow(m_before, momentAt(pose, opening_rad, m_before ? &*m_before : nullptr));
}

void OrderReferee::byHand(const std::vector<Pose>& way, double opening_rad) {
  std::optional<Moment> before;
  for (const Pose& pose : way)
    follow(before, momentAt(pose, opening_rad, before ? &*before : nullptr));
}

} // namespace hinge::test
