// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/contact/contact.h"
#include "core/structures/assemble.h"
#include "designs.h"
#include <benchmark/benchmark.h>
#include <chrono>
#include <fcl/fcl.h>

// Contact over the whole opening: proved by the engine, against every pair of panels as triangle
// meshes in a general collision library at each whole degree. Both run in one benchmark.

namespace hinge::bench {
namespace {

using Clock = std::chrono::steady_clock;
using Mesh = fcl::BVHModel<fcl::OBBRSSd>;

/// Neighbours meet along folds and glued paper lies in one plane: the meshes are drawn in by this
/// much so that only paper that passes through paper is found.
constexpr double kInset_mm = 0.3;

std::shared_ptr<Mesh> meshOf(const Region& outline) {
  auto mesh = std::make_shared<Mesh>();
  mesh->beginModel();
  for (const Polygon& part : convexParts(outline)) {
    Polygon inner = part;
    for (std::size_t k = 0; k < part.size() && !inner.empty(); ++k) {
      const Vec2 along = (part[(k + 1) % part.size()] - part[k]).normalized(),
                 in(-along.y(), along.x());
      inner = clipToHalfPlane(inner, part[k] + kInset_mm * in, in);
    }
    for (std::size_t k = 2; k < inner.size(); ++k)
      mesh->addTriangle(lift(inner[0]), lift(inner[k - 1]), lift(inner[k]));
  }
  mesh->endModel();
  return mesh;
}

struct Hit {
  PanelIndex first, second;
  int deg;
};

std::vector<Hit> bruteForce(const Motion& motion,
                            const IndexedVector<PanelIndex, std::shared_ptr<Mesh>>& meshes) {
  std::vector<Hit> hits;
  fcl::CollisionRequestd request;
  for (int deg = 1; deg < 180; ++deg) {
    const Pose pose = motion.poseAt(radians(deg));
    for (PanelIndex a : meshes.indices())
      for (PanelIndex b : meshes.indices()) {
        if (!(a < b) || !pose.placed[a] || !pose.placed[b] ||
            motion.mechanism().bodyOf[a] == motion.mechanism().bodyOf[b])
          continue;
        if (meshes[a]->num_tris == 0 || meshes[b]->num_tris == 0) continue;
        fcl::CollisionResultd result;
        if (fcl::collide(meshes[a].get(), pose.panels[a], meshes[b].get(), pose.panels[b], request,
                         result) > 0)
          hits.push_back({a, b, deg});
      }
  }
  return hits;
}

double depthAt(const Motion& motion, const Hit& hit) {
  const Pose pose = motion.poseAt(radians(hit.deg));
  const auto sheet = [&](PanelIndex p) {
    std::vector<std::vector<Vec3>> parts;
    for (const Polygon& part : convexParts(motion.assembly().panels[p].outline)) {
      parts.emplace_back();
      for (const Vec2& q : part)
        parts.back().push_back(pose.panels[p] * lift(q));
    }
    return parts;
  };
  return crossingDepth(sheet(hit.first), sheet(hit.second));
}

void contactAgainstMeshes(benchmark::State& state, const Design& design) {
  const auto assembly = std::make_shared<const Assembly>(*assembleDesign(design));
  const Motion motion = Motion::trace(assembly);
  IndexedVector<PanelIndex, std::shared_ptr<Mesh>> meshes;
  for (PanelIndex p : assembly->panels.indices())
    meshes.push(meshOf(assembly->panels[p].outline));
  double ours = 0, theirs = 0;
  ContactReport report;
  std::vector<Hit> hits;
  for (auto _ : state) {
    auto from = Clock::now();
    report = findContacts(motion);
    ours += std::chrono::duration<double>(Clock::now() - from).count();
    from = Clock::now();
    hits = bruteForce(motion, meshes);
    theirs += std::chrono::duration<double>(Clock::now() - from).count();
  }
  // Tabs inside their hosts are left out by the engine: what they hit, the host hits too.
  const auto host = [&](PanelIndex p) {
    const Glue* glue = assembly->glueOf(p);
    return glue ? glue->host : p;
  };
  int missed = 0, shallow = 0;
  for (const Hit& hit : hits) {
    const bool found = std::ranges::any_of(report.contacts, [&](const Contact& c) {
      const auto is = [&](PanelIndex x, PanelIndex y) {
        return (x == hit.first || x == host(hit.first)) &&
               (y == hit.second || y == host(hit.second));
      };
      return (is(c.first, c.second) || is(c.second, c.first)) &&
             c.from_rad - radians(0.02) <= radians(hit.deg) &&
             radians(hit.deg) <= c.to_rad + radians(0.02);
    });
    if (found) continue;
    if (depthAt(motion, hit) <= ContactOptions{}.tolerance_mm)
      ++shallow;
    else
      ++missed, std::fprintf(stderr, "missed: %s x %s at %d deg\n",
                             assembly->panels[hit.first].key.c_str(),
                             assembly->panels[hit.second].key.c_str(), hit.deg);
  }
  state.counters["panels"] = static_cast<double>(assembly->panels.size());
  state.counters["engine_ms"] = 1e3 * ours / static_cast<double>(state.iterations());
  state.counters["meshes_ms"] = 1e3 * theirs / static_cast<double>(state.iterations());
  state.counters["times_faster"] = theirs / ours;
  state.counters["contacts"] = static_cast<double>(report.contacts.size());
  state.counters["sampled"] = report.sampled;
  state.counters["mesh_hits"] = static_cast<double>(hits.size());
  state.counters["mesh_hits_shallow"] = shallow;
  state.counters["mesh_hits_missed"] = missed;
  if (missed > 0) state.SkipWithError("the meshes found a contact that the engine did not");
}

BENCHMARK_CAPTURE(contactAgainstMeshes, demo, demo())->Iterations(3)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(contactAgainstMeshes, demoWithMistakes, demo("night-market-mistakes"))
    ->Iterations(3)
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(contactAgainstMeshes, row, row(15))->Iterations(3)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(contactAgainstMeshes, rowThatCollides, row(15, 1.1))
    ->Iterations(3)
    ->Unit(benchmark::kMillisecond);

} // namespace
} // namespace hinge::bench
