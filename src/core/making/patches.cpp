// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/patches.h"
#include "core/units/tolerances.h"
#include <algorithm>

namespace hinge {
namespace {

/// Less of a foot is the corner of something, not a piece that lies over it.
constexpr double kLeastCovered_mm = 0.5;

bool strictlyInside(const Region& outline, const Vec2& p) {
  return contains(outline, p) && distanceToOutline(outline, p) > kBesideFold_mm;
}

/// Length of the part of a segment that lies inside an outline.
double lengthInside(const Region& outline, const Vec2& from, const Vec2& to) {
  const Vec2 way = to - from;
  std::vector<double> cuts{0.0, 1.0};
  for (const auto& [a, b] : edgesOf(outline)) {
    const Vec2 d = b - a;
    const double den = cross2(way, d);
    if (std::abs(den) < 1e-12) continue;
    const double t = cross2(a - from, d) / den, s = cross2(a - from, way) / den;
    if (t > 0 && t < 1 && s >= 0 && s <= 1) cuts.push_back(t);
  }
  std::ranges::sort(cuts);
  double length = 0;
  for (std::size_t k = 0; k + 1 < cuts.size(); ++k)
    if (strictlyInside(outline, from + 0.5 * (cuts[k] + cuts[k + 1]) * way))
      length += (cuts[k + 1] - cuts[k]) * way.norm();
  return length;
}

} // namespace

Patches::Patches(const Assembly& assembly, const Mechanism& mechanism) {
  m_on.assign(assembly.panels.size(), {});
  m_onHost.assign(assembly.joints.size(), 0);
  for (const auto& [index, glue] : assembly.every<Glue>()) {
    m_onHost[index] = m_patches.size();
    const auto add = [&, g = index](PanelIndex panel, PanelIndex other, bool onFace,
                                    const Iso3& map) {
      Patch patch{g, panel, other, onFace, mapped(assembly.panels[other].outline, map), {}};
      patch.box = boundsOf(patch.outline);
      m_on[panel].push_back(m_patches.size());
      m_patches.push_back(std::move(patch));
    };
    add(glue.host, glue.tab, glue.onHostFace(), glue.tabToHost);
    add(glue.tab, glue.host, glue.byFace, inverseOf(glue.tabToHost));
  }
  findNeighbours();
  findFeet(assembly, mechanism);
}

void Patches::findNeighbours() {
  m_beside.resize(m_patches.size());
  for (const auto& here : m_on) {
    std::vector<std::size_t> byStart = here, open;
    // Tabs stand in a row along a fold, which runs along y on every page.
    std::ranges::sort(byStart, {}, [&](std::size_t k) { return m_patches[k].box.low.y(); });
    for (std::size_t k : byStart) {
      const Patch& p = m_patches[k];
      std::erase_if(open, [&](std::size_t o) { return m_patches[o].box.high.y() < p.box.low.y(); });
      for (std::size_t o : open) {
        const Patch& q = m_patches[o];
        const bool apart = q.box.high.x() < p.box.low.x() || p.box.high.x() < q.box.low.x();
        if (q.onFace != p.onFace || apart) continue;
        m_beside[k].push_back(o);
        m_beside[o].push_back(k);
      }
      open.push_back(k);
    }
  }
}

void Patches::findFeet(const Assembly& assembly, const Mechanism& mechanism) {
  const auto isTab = [&](PanelIndex p) { return assembly.panels[p].use == PanelUse::Tab; };
  for (std::size_t k = 0; k < m_patches.size(); ++k) {
    const Patch& patch = m_patches[k];
    const Glue& glue = std::get<Glue>(assembly.joints[patch.glue]);
    const Iso3 map = patch.panel == glue.host ? glue.tabToHost : inverseOf(glue.tabToHost);
    for (FoldIndex f : assembly.foldsOf(patch.other)) {
      const Fold& fold = assembly.folds[f];
      const PanelIndex wall = fold.left == patch.other ? fold.right : fold.left;
      if (mechanism.bodyOf[wall] == mechanism.bodyOf[patch.panel]) continue; // it never rises
      const Foot foot{k, wall, (map * lift(fold.from)).head<2>(), (map * lift(fold.to)).head<2>()};
      for (std::size_t other : m_beside[k]) {
        if (m_patches[other].glue == patch.glue) continue;
        // Two tabs on one another are a trouble of their own, with no first and no second.
        if (isTab(patch.other) && isTab(m_patches[other].other)) continue;
        const double covered = lengthInside(m_patches[other].outline, foot.from, foot.to);
        if (covered > kLeastCovered_mm) m_covered.push_back({m_feet.size(), other, covered});
      }
      m_feet.push_back(foot);
    }
  }
}

} // namespace hinge
