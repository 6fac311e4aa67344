// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/evidence.h"
#include "core/geom/border.h"
#include "core/units/lattice.h"

// Layers: something is left of each within its border, in one part, and nowhere so narrow that it
// tears. Rules and toppers are for faces that are there.

namespace hinge {
namespace {

Finding onLayer(const CheckInput& in, std::string code, const Face& face, const CutLayer& layer) {
  Finding f = findingOn(in, std::move(code), Severity::Advice, {face.panel});
  const Paper* paper = in.design.findPaper(layer.paper);
  f.detail = paper ? nameOf(*paper) : Text("as-it-is", layer.paper);
  return f;
}

/// The same stack with the borders of one layer that much narrower, for this face alone.
std::optional<Mend> narrower(const CheckInput& in, const DressedFace& dressed, const Face& face,
                             std::size_t layer) {
  DressRule own = in.design.dressing.rules[dressed.rule];
  own.reach = DressReach::Face, own.face = face.key;
  const double step = latticeStep_mm(in.design.settings.unit);
  std::vector<double>& border = own.layers[layer].border_mm;
  if (border.empty()) border = {usualBorder_mm(in.design.settings, face.outline)};
  for (double& side : border)
    side = downToLattice(0.5 * side, 0.5 * step);
  Mend mend;
  mend.dressing = in.design.dressing;
  std::erase_if(mend.dressing->rules, [&](const DressRule& rule) {
    return rule.reach == DressReach::Face && rule.face == face.key;
  });
  mend.dressing->rules.push_back(std::move(own));
  mend.change = Text("mend/border", Text("as-it-is", face.key), Millimetres{border.front()});
  return mend;
}

void checkLayer(const CheckInput& in, const DressedFace& dressed, const Face& face,
                const CutLayer& layer, std::vector<Finding>& found) {
  const auto add = [&](std::string code, double amount, AmountUnit unit) {
    Finding f = onLayer(in, std::move(code), face, layer);
    f.amount = amount, f.unit = unit;
    if (auto mend = narrower(in, dressed, face, layer.layer))
      f.proposed.push_back(std::move(*mend));
    found.push_back(std::move(f));
  };
  if (layer.parts.empty()) return add("mat-vanishes", 1, AmountUnit::Count);
  const auto& below =
      layer.layer == 0 ? std::vector<Region>{face.outline} : dressed.layers[layer.layer - 1].parts;
  if (layer.parts.size() > below.size())
    return add("mat-parts", static_cast<double>(layer.parts.size()), AmountUnit::Count);
  for (const Region& part : layer.parts)
    if (narrowPlace(part, starting::kNarrowNeck_mm))
      return add("mat-neck", starting::kNarrowNeck_mm, AmountUnit::Millimetre);
}

/// What is laid on a face that is not there any more.
void checkFaces(const CheckInput& in, const KeyedVector<FaceIndex, Face>& faces,
                std::vector<Finding>& found) {
  const auto lost = [&](const std::string& face, Dressing without) {
    if (face.empty() || faces.find(face).valid()) return;
    Finding f = findingOn(in, "dress-lost", Severity::Advice, {in.assembly.root});
    f.elements = {"card"}, f.detail = Text("as-it-is", face);
    f.amount = 1, f.unit = AmountUnit::Count;
    f.proposed.push_back({{}, std::move(without), Text("mend/undress", Text("as-it-is", face))});
    found.push_back(std::move(f));
  };
  const Dressing& all = in.design.dressing;
  for (std::size_t k = 0; k < all.rules.size(); ++k) {
    Dressing without = all;
    without.rules.erase(without.rules.begin() + static_cast<std::ptrdiff_t>(k));
    lost(all.rules[k].face, std::move(without));
  }
  for (std::size_t k = 0; k < all.toppers.size(); ++k) {
    Dressing without = all;
    without.toppers.erase(without.toppers.begin() + static_cast<std::ptrdiff_t>(k));
    lost(all.toppers[k].face, std::move(without));
  }
}

std::vector<Finding> checkMats(const CheckInput& in) {
  std::vector<Finding> found;
  // Changes of sizes are tried by the hundred, and what they do to mats is told when one is made.
  if (in.design.dressing.empty() || !in.only.empty()) return found;
  const auto faces = in.snapshot.faces();
  checkFaces(in, *faces, found);
  const auto dressed = in.snapshot.dressed(in.stop);
  if (!dressed) return found;
  for (const DressedFace& face : *dressed)
    for (const CutLayer& layer : face.layers)
      checkLayer(in, face, (*faces)[face.face], layer, found);
  return found;
}

} // namespace

const CheckKind& matsCheck() {
  static const CheckKind kind{"mats", checkMats};
  return kind;
}

} // namespace hinge
