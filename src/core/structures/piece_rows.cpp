// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/piece_rows.h"
#include <algorithm>
#include <array>
#include <fmt/format.h>

namespace hinge {
namespace {

/// Rows with text that lives as long as the program: "panel-1" to "panel-24".
struct Rows {
  std::array<std::string, kMostPanels> keys, labels;
  std::array<ParameterSpec, kMostPanels + 1> specs;
  Rows() {
    specs[0] = {
        "position",
        "Position",
        ParameterUnit::Millimetre,
        -1000,
        1000,
        0,
        ParameterRole::Gives,
        "",
        "How far the piece is moved along the panels it is joined to, from where its joints say",
        Sense::Place};
    for (std::size_t k = 0; k < kMostPanels; ++k) {
      keys[k] = fmt::format("panel-{}", k + 1), labels[k] = fmt::format("Panel {}", k + 1);
      specs[k + 1] = {keys[k],
                      labels[k],
                      ParameterUnit::Millimetre,
                      0.5,
                      2000,
                      30,
                      ParameterRole::Gives,
                      "",
                      "Along the lower edge of the piece, from score to score"};
    }
  }
};
const Rows& rows() {
  static const Rows all;
  return all;
}

} // namespace

ParameterTable pieceRows() {
  return ParameterTable(rows().specs).first(1);
}

ParameterTable pieceRows(std::size_t panels) {
  return ParameterTable(rows().specs).first(1 + std::min(kMostPanels, panels));
}

std::string_view panelKey(std::size_t panel) {
  return rows().keys[panel];
}

} // namespace hinge
