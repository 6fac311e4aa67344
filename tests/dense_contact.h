// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#ifndef Q_MOC_RUN
#include "core/contact/contact.h"
#include <map>
#endif

namespace hinge::test {

/// Deepest crossing (how far paper would have to give way) of every pair of panels, found by
/// nothing but looking: a pose every `step_rad` of the opening, every pair whose boxes meet. Slow
/// and simple, against which the search for contacts is measured. Panels of one body, folds of each
/// other's and tabs inside their host are left out as the search leaves them out.
inline std::map<std::pair<int, int>, double> denseContacts(const Motion& motion, double step_rad) {
  const Assembly& assembly = motion.assembly();
  struct Sheet {
    int panel, body;
    std::vector<std::vector<Vec3>> flat;
  };
  std::vector<Sheet> sheets;
  for (PanelIndex p : assembly.panels.indices()) {
    const Glue* glue = assembly.glueOf(p);
    bool hidden = glue && assembly.panels[p].use == PanelUse::Tab;
    for (const Vec2& q : assembly.panels[p].outline.rim)
      hidden = hidden && contains(assembly.panels[glue->host].outline,
                                  Vec2((glue->tabToHost * lift(q)).head<2>()), 1e-6);
    if (hidden) continue;
    Sheet sheet{p.value, motion.mechanism().bodyOf[p].value, {}};
    for (const Polygon& part : convexParts(assembly.panels[p].outline)) {
      sheet.flat.emplace_back();
      for (const Vec2& q : part)
        sheet.flat.back().push_back(lift(q));
    }
    sheets.push_back(std::move(sheet));
  }
  std::map<std::pair<int, int>, double> deepest;
  for (double t = step_rad; t < kPi; t += step_rad) {
    const Pose pose = motion.poseAt(t);
    struct Placed {
      std::vector<std::vector<Vec3>> parts;
      Vec3 low = Vec3::Constant(1e300), high = Vec3::Constant(-1e300);
      bool there = false;
    };
    std::vector<Placed> placed(sheets.size());
    for (std::size_t k = 0; k < sheets.size(); ++k) {
      const PanelIndex p(sheets[k].panel);
      if (!pose.placed[p]) continue;
      placed[k].there = true, placed[k].parts = sheets[k].flat;
      for (auto& part : placed[k].parts)
        for (Vec3& q : part) {
          q = pose.panels[p] * q;
          placed[k].low = placed[k].low.cwiseMin(q), placed[k].high = placed[k].high.cwiseMax(q);
        }
    }
    for (std::size_t i = 0; i < sheets.size(); ++i)
      for (std::size_t j = i + 1; j < sheets.size(); ++j) {
        const Placed &a = placed[i], &b = placed[j];
        if (!a.there || !b.there || sheets[i].body == sheets[j].body) continue;
        if ((a.low.array() > b.high.array()).any() || (b.low.array() > a.high.array()).any())
          continue;
        const double depth = crossingDepth(a.parts, b.parts, nullptr, DepthOf::Place);
        double& worst = deepest[{sheets[i].panel, sheets[j].panel}];
        worst = std::max(worst, depth);
      }
  }
  return deepest;
}

/// How the search for contacts did on one design against looking densely, at panels whose place the
/// opening decides.
struct Misses {
  int pairs = 0;         ///< that cross deeper than the search's tolerance, seen densely
  int missed = 0;        ///< of those, not in the search's report
  double deepest_mm = 0; ///< of the missed ones
  int off = 0;           ///< reported, but by more than 30 % too shallow or too deep
  double worst = 1;      ///< reported depth by the one seen densely, where that is farthest from 1
  int intervals = 0, sampled = 0;
};
inline Misses missesOf(const Motion& motion, double step_rad) {
  const ContactOptions options;
  const ContactReport report = findContacts(motion, options);
  Misses misses;
  misses.intervals = report.intervals, misses.sampled = report.sampled;
  for (const auto& [pair, depth] : denseContacts(motion, step_rad)) {
    if (depth <= options.tolerance_mm) continue;
    // Where loose panels are is one pose of many: two queries may give two.
    if (motion.isLoose(PanelIndex(pair.first)) || motion.isLoose(PanelIndex(pair.second))) continue;
    ++misses.pairs;
    const auto known = std::ranges::find_if(report.contacts, [&, p = pair](const Contact& c) {
      return std::pair(std::min(c.first.value, c.second.value),
                       std::max(c.first.value, c.second.value)) == p;
    });
    if (known != report.contacts.end()) {
      const double share = known->depth_mm / depth;
      misses.off += share < 0.7 || share > 1.3;
      if (std::abs(std::log(share)) > std::abs(std::log(misses.worst))) misses.worst = share;
      continue;
    }
    ++misses.missed;
    misses.deepest_mm = std::max(misses.deepest_mm, depth);
  }
  return misses;
}

} // namespace hinge::test
