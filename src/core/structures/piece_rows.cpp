// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/piece_rows.h"
#include <algorithm>
#include <array>
#include <fmt/format.h>

namespace hinge {
namespace {

/// Rows with text that lives as long as the program: "panel-1" to "panel-100".
struct Rows {
  std::array<std::string, kMostPanels> keys, numbers;
  std::array<ParameterSpec, kMostPanels + 1> specs;
  Rows() {
    specs[0] = {"position",
                {"size.piece.position"},
                ParameterUnit::Millimetre,
                -1000,
                1000,
                0,
                ParameterRole::Gives,
                "",
                Sense::Place};
    for (std::size_t k = 0; k < kMostPanels; ++k) {
      numbers[k] = fmt::to_string(k + 1), keys[k] = "panel-" + numbers[k];
      specs[k + 1] = {keys[k],
                      {"size.piece.panel", numbers[k]},
                      ParameterUnit::Millimetre,
                      0.5,
                      2000,
                      30,
                      ParameterRole::Gives};
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
