// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/rounding_search.h"
#include "core/model/snapshot.h"
#include "core/production/cut_plan.h"
#include "designs.h"
#include <benchmark/benchmark.h>

// What a maker waits for at the cutting table.

using namespace hinge;
using namespace hinge::bench;

namespace {

/// So many pieces of one paper, those of a row of structures over and over.
std::vector<CutPart> manyParts(const Design& design, std::size_t count) {
  const Snapshot snapshot(design);
  const std::vector<CutPart> once = partsToCut(design, *snapshot.cutPieces(), {}, 1, false);
  std::vector<CutPart> parts;
  for (std::size_t k = 0; parts.size() < count; ++k)
    if (once[1 + k % (once.size() - 1)].size().maxCoeff() < 280)
      parts.push_back(once[1 + k % (once.size() - 1)]);
  return parts;
}

void layout(benchmark::State& state, LayoutFor how) {
  const Design design = row(14);
  const auto parts = manyParts(design, static_cast<std::size_t>(state.range(0)));
  LayoutOptions options = usualFor(how, Bench());
  options.unlimited = true;
  double waste = 0;
  for (auto _ : state)
    waste = layOutParts(design, parts, options).waste();
  state.counters["waste"] = waste;
}
BENCHMARK_CAPTURE(layout, nested, LayoutFor::Machine)->Arg(200)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(layout, trimmed, LayoutFor::Trimmer)->Arg(200)->Unit(benchmark::kMillisecond);

void roundingOfManySizes(benchmark::State& state) {
  const Analysis before = *analyse(row(static_cast<int>(state.range(0))));
  for (auto _ : state)
    benchmark::DoNotOptimize(
        judgedRounding(before, 25.4 / 16, {}, std::chrono::seconds(60))->rounding.changes.size());
}
BENCHMARK(roundingOfManySizes)->Arg(14)->Unit(benchmark::kMillisecond);

} // namespace
