// SPDX-License-Identifier: GPL-3.0-or-later
#include "dense_contact.h"
#include "random_designs.h"
#include <cstdio>
#include <cstdlib>

// How often the search for contacts misses a crossing, and by how much: random designs looked at
// densely. Not a test of the suite (a quarter of an hour); docs/decisions/0015 has what it said.
//
// usage: contact_misses [DESIGNS=200] [STEP_DEG=0.005] [FIRST=0]

int main(int count, char** arguments) {
  using namespace hinge;
  const int designs = count > 1 ? std::atoi(arguments[1]) : 200;
  const double step = radians(count > 2 ? std::atof(arguments[2]) : 0.005);
  const int first = count > 3 ? std::atoi(arguments[3]) : 0;
  test::Misses all;
  int crossing = 0;
  for (int k = first; k < first + designs; ++k) {
    const Motion motion =
        Motion::trace(test::assemble(test::randomDesign(90000u + static_cast<unsigned>(k))));
    const test::Misses one = test::missesOf(motion, step);
    crossing += one.pairs > 0;
    all.pairs += one.pairs, all.missed += one.missed;
    all.intervals += one.intervals, all.sampled += one.sampled;
    if (one.missed > 0)
      std::printf("design %d: %d of %d pairs missed, deepest %.4f mm\n", k, one.missed, one.pairs,
                  one.deepest_mm);
    if (one.off > 0)
      std::printf("design %d: %d of %d depths off by more than 30 %%, the worst %.2f of what is "
                  "seen densely\n",
                  k, one.off, one.pairs, one.worst);
    all.deepest_mm = std::max(all.deepest_mm, one.deepest_mm), all.off += one.off;
    std::fflush(stdout);
  }
  std::printf("%d designs, %d with crossings: %d pairs cross, %d missed (deepest %.4f mm), "
              "%d depths off by more than 30 %%; %d shown clear, %d only sampled\n",
              designs, crossing, all.pairs, all.missed, all.deepest_mm, all.off, all.intervals,
              all.sampled);
  return 0;
}
