// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/chain.h"
#include "core/units/lattice.h"
#include <cmath>
#include <fmt/format.h>

// Petals: a middle page of n sides with a petal on each, closed over it. Petals that end before the
// middle all move at once and never meet; of longer ones each comes down after the one before.

namespace hinge {
namespace {

constexpr ParameterSpec kPetals[] = {
    {"sides", {"size.petals.sides"}, ParameterUnit::Count, 3, 10, 4, ParameterRole::Held, ""},
    {"petal",
     {"size.petals.petal"},
     ParameterUnit::Millimetre,
     5,
     1000,
     40,
     ParameterRole::Gives,
     ""},
    {"tip", {"size.petals.tip"}, ParameterUnit::Millimetre, 2, 1000, 12, ParameterRole::Gives, ""},
    {"shut", {"size.petals.shut"}, ParameterUnit::Switch, 0, 1, 0, ParameterRole::Held, ""},
    {"open", {"size.petals.open"}, ParameterUnit::Degree, 5, 180, 180, ParameterRole::Held, ""},
};

double reachOf(const CardBase& card) {
  return 0.5 * std::min(card.width_mm, card.height_mm);
}

ParameterValues fitPetals(const CardBase& card) {
  return {{"sides", 4},
          {"petal", toHalf_mm(0.8 * reachOf(card))},
          {"tip", 12},
          {"shut", 0},
          {"open", 180}};
}

Result<void> buildPetals(const CardBase& card, AssemblyBuilder& builder) {
  const int n = static_cast<int>(card.value("sides"));
  const double petal = card.value("petal"), step = 2 * kPi / n;
  // Four sides take the card as it is; any other number a regular page round the circle in the
  // smaller size.
  Polygon page;
  const double w = card.pageDepth_mm(), l = card.gutterLength_mm();
  if (n == 4)
    page = {{0, 0}, {w, 0}, {w, l}, {0, l}};
  else {
    const double corner = reachOf(card) / std::cos(0.5 * step);
    for (int k = 0; k < n; ++k)
      page.push_back(Vec2(0.5 * w, 0.5 * l) + corner * Vec2(std::cos(kPi + 0.5 * step + k * step),
                                                            std::sin(kPi + 0.5 * step + k * step)));
  }
  const PieceIndex sheet = builder.piece("sheet", "card");
  const PanelIndex middle = builder.panel(sheet, "page-b", "middle-page", PanelUse::Page, page);
  Assembly& assembly = builder.assembly();
  assembly.root = middle, assembly.symmetric = false;
  const Vec2 centre = boundsOf(page).centre();
  for (std::size_t k = 0; k < page.size(); ++k) {
    const Vec2 from = page[k], to = page[(k + 1) % page.size()], along = (to - from).normalized(),
               out(along.y(), -along.x());
    const double side = (to - from).norm(), inward = out.dot(from - centre);
    const bool over = card.value("shut") == 0;
    if (over && petal > inward - 0.5)
      return Error{{"petals.meet", Millimetres{petal}, Millimetres{downToLattice(inward - 0.5)}},
                   "card.base_values.petal"};
    // A petal stays inside the wedge of its side, seen from the middle.
    const double tip =
        over ? std::min(card.value("tip"), side * (inward - petal) / inward) : card.value("tip");
    const Vec2 foot = 0.5 * (from + to) + petal * out;
    const bool gutter = k == 0;
    const std::string letter(1, static_cast<char>('a' + (k == 0 ? 0 : k + 1)));
    const PanelIndex leaf =
        builder.panel(sheet, "page-" + letter, Text("petal", k + 1), PanelUse::Page,
                      {to, from, foot - 0.5 * tip * along, foot + 0.5 * tip * along});
    const FoldIndex fold = builder.fold(gutter ? "gutter" : fmt::format("fold-{}", k + 1),
                                        gutter ? Text("gutter") : Text("fold", k + 1), middle, leaf,
                                        from, to, FoldSense::Valley, over ? kPi : 0);
    assembly.drives.push_back({fold, over ? kPi : 0, kPi - radians(card.value("open")), 0, kPi});
    if (!over && !gutter)
      continue; // flat in the shut card: it carries nothing that must lie flat with it
    const SeatSide inner{middle, planarFrame(to, -out, -along)},
        outer{leaf, planarFrame(to, out, -along)};
    builder.seat(gutter ? "gutter" : fmt::format("fold-{}", k + 1),
                 gutter ? Text("gutter") : Text("fold", k + 1), outer, inner, side, 0);
  }
  return builder.status();
}

} // namespace

const BaseKind& petalsBase() {
  static const BaseKind kind{"petals", kPetals, fitPetals, buildPetals, 90, Rests::OnPage, true};
  return kind;
}

} // namespace hinge
