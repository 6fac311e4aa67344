// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/production/bench.h"
#include "core/units/lattice.h"
#include <algorithm>
#include <array>
#include <cmath>

namespace hinge {
namespace {

constexpr std::array<std::string_view, 2> kSides{"face", "both"}, kLength{"whole", "folding"},
    kOrder{"score-first", "cut-first"}, kFirst{"left", "right"};

/// The place of a word among a school's choices.
int placeOf(std::span<const std::string_view> choices, std::string_view word) {
  return static_cast<int>(std::ranges::find(choices, word) - choices.begin());
}

} // namespace

std::span<const BenchRow> benchRows() {
  static const std::array<BenchRow, 16> all{{
      {"trimmer", &Bench::trimmer_mm, 0, 2000},
      {"board", &Bench::board_mm, 0, 2000},
      {"grid", &Bench::grid_mm, 0, 50},
      {"step", &Bench::step_mm, 0, 25.4},
      {"thickest", &Bench::thickest_mm, 0.05, 10},
      {"offcut", &Bench::offcut_mm, 1, 1000},
      {"blade", &Bench::blade_mm, 0, 2},
      {"overcut", &Bench::overcut_mm, 0, 5},
      {"scale-x", &Bench::scaleX, 0.9, 1.1, true},
      {"scale-y", &Bench::scaleY, 0.9, 1.1, true},
      {"offset-x", &Bench::offsetX_mm, -20, 20},
      {"offset-y", &Bench::offsetY_mm, -20, 20},
      {"sides"},
      {"length"},
      {"order"},
      {"first"},
  }};
  return all;
}

std::span<const std::string_view> choicesOf(std::string_view key) {
  if (key == "sides") return kSides;
  if (key == "length") return kLength;
  if (key == "order") return kOrder;
  if (key == "first") return kFirst;
  return {};
}

std::string_view schoolOf(const Bench& bench, std::string_view key) {
  const auto choices = choicesOf(key);
  const int at = key == "sides"    ? static_cast<int>(bench.sides)
                 : key == "length" ? static_cast<int>(bench.length)
                 : key == "order"  ? static_cast<int>(bench.order)
                                   : static_cast<int>(bench.first);
  return choices.empty() ? std::string_view() : choices[static_cast<std::size_t>(at)];
}

bool setSchool(Bench& bench, std::string_view key, std::string_view choice) {
  const auto choices = choicesOf(key);
  const int at = placeOf(choices, choice);
  if (at == static_cast<int>(choices.size())) return false;
  if (key == "sides") bench.sides = static_cast<ScoreSides>(at);
  if (key == "length") bench.length = static_cast<ScoreLength>(at);
  if (key == "order") bench.order = static_cast<ScoreOrder>(at);
  if (key == "first") bench.first = static_cast<FirstEdge>(at);
  return true;
}

double stepOf_mm(const Bench& bench, LengthUnit unit) {
  return bench.step_mm > 0 ? bench.step_mm : latticeStep_mm(unit);
}

Result<void> validate(const Bench& bench) {
  for (const BenchRow& row : benchRows())
    if (row.number)
      if (const double value = bench.*row.number; !(value >= row.least && value <= row.most)) {
        const std::string place = "bench." + std::string(row.key);
        if (row.plain)
          return Error{
              {"value.range", Decimal{value, 3}, Decimal{row.least, 1}, Decimal{row.most, 1}},
              place};
        return Error{
            {"value.range", Millimetres{value}, Millimetres{row.least}, Millimetres{row.most}},
            place};
      }
  for (const auto& [paper, speed] : bench.speeds_cms)
    if (!(speed >= kSlowest_cms && speed <= kFastest_cms))
      return Error{{"value.range", Decimal{speed}, Decimal{kSlowest_cms}, Decimal{kFastest_cms}},
                   "bench." + std::string(kSpeedWord) + paper};
  return {};
}

} // namespace hinge
