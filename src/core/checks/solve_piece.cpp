#include "core/checks/solve_piece.h"
#include "core/structures/assemble.h"
#include "core/structures/closure.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

/// The gaps of all rings of a structure, one after another.
Eigen::VectorXd gapsOf(const Motion& motion, StructureId id) {
  std::vector<double> all;
  for (const Motion::BlockReport& block : motion.blocks())
    if (std::ranges::find(block.owners, id) != block.owners.end()) all.insert(all.end(), block.shutGap.begin(), block.shutGap.end());
  return Eigen::Map<const Eigen::VectorXd>(all.data(), static_cast<Eigen::Index>(all.size()));
}

std::optional<Motion> changed(const Design& design, StructureId id, std::string_view key, double value) {
  const auto edited = setValues(design, id, {{std::string(key), value}});
  if (!edited) return std::nullopt;
  auto assembled = assembleDesign(*edited);
  if (!assembled) return std::nullopt;
  return Motion::trace(std::make_shared<const Assembly>(std::move(assembled).value()));
}

} // namespace

std::optional<Mend> solveShut(const Design& design, const Motion& motion, StructureId id) {
  const StructureItem& item = *design.find(id);
  const Eigen::VectorXd gap = gapsOf(motion, id);
  std::optional<Mend> best;
  double least = 1e300;
  for (const MendDirection& direction : mendDirectionsOf(item)) {
    const std::string_view key = direction.terms.front().key;
    const ParameterSpec* spec = findSpec(parametersOf(item), key);
    const double from = item.values.find(key)->second;
    constexpr double kStep_mm = 0.5;
    const auto tried = changed(design, id, key, from + kStep_mm);
    if (!tried) continue;
    const Eigen::VectorXd next = gapsOf(*tried, id);
    if (next.size() != gap.size()) continue;
    const Eigen::VectorXd slope = (next - gap) / kStep_mm;
    if (slope.squaredNorm() < 1e-12) continue;
    const double change = -slope.dot(gap) / slope.squaredNorm(), to = std::round((from + change) * 1e6) / 1e6;
    if ((gap + change * slope).norm() > 1e-5 || std::abs(change) >= least || to < spec->least || to > spec->most) continue;
    const auto solved = changed(design, id, key, to);
    if (!solved || shutGap_mm(id, *solved) >= kExactClosure) continue;
    least = std::abs(change), best = Mend{{{id, std::string(key), spec->unit, from, to}}};
  }
  return best;
}

} // namespace hinge
