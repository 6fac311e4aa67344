// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/splices.h"
#include "core/pieces/splicing.h"
#include "core/structures/assemble.h"

namespace hinge {

Result<Design> withSplice(const Design& design, const Splice& splice) {
  const auto assembly = assembleDesign(design);
  if (!assembly) return assembly.error();
  const auto laid = laidSplice(*assembly, splice);
  if (!laid) return laid.error();
  for (const Splice& other : design.splices) {
    const auto there = laidSplice(*assembly, other);
    if (there && there->panel == laid->panel && overlapArea_mm2(there->overlap, laid->overlap) > 0)
      return Error{"splice.meets", splice.panel};
  }
  if (design.splices.size() >= kMostSplices) return Error{"splice.many", splice.panel};
  Design next = design;
  next.splices.push_back(splice);
  return next;
}

Result<Design> withSplices(Design design, const std::vector<Splice>& splices) {
  for (const Splice& splice : splices) {
    auto next = withSplice(design, splice);
    if (!next) return next;
    design = std::move(next).value();
  }
  return design;
}

Result<Design> withoutSplice(const Design& design, std::size_t number) {
  if (number >= design.splices.size())
    return Error{{"splice.none", design.splices.size()}, std::to_string(number + 1)};
  Design next = design;
  next.splices.erase(next.splices.begin() + static_cast<std::ptrdiff_t>(number));
  return next;
}

} // namespace hinge
