// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/evidence.h"
#include "core/pieces/wrap.h"

// Straps: one that is folded round layers of paper is long enough for its way round all of them.

namespace hinge {
namespace {

std::vector<Finding> checkStraps(const CheckInput& in) {
  std::vector<Finding> found;
  for (const Wrap& wrap : wrapsOf(in.assembly)) {
    if (wrap.inside_mm >= wrap.needed_mm - 1e-6) continue;
    Finding f = findingOn(in, "strap-tight", Severity::Spoils, {wrap.panel, wrap.carrier});
    f.amount = wrap.needed_mm - wrap.inside_mm, f.detail = Text("layers", wrap.layers);
    found.push_back(std::move(f));
  }
  return found;
}

} // namespace

const CheckKind& strapsCheck() {
  static const CheckKind kind{"straps", checkStraps};
  return kind;
}

} // namespace hinge
