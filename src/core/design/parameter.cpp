// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/design/parameter.h"
#include "core/units/length.h"
#include <cmath>
#include <fmt/format.h>

namespace hinge {

const ParameterSpec* findSpec(ParameterTable table, std::string_view key) {
  for (const ParameterSpec& spec : table)
    if (spec.key == key) return &spec;
  return nullptr;
}

const ParameterSpec* findSense(ParameterTable table, Sense sense) {
  for (const ParameterSpec& spec : table)
    if (spec.sense == sense) return &spec;
  return nullptr;
}

std::string_view unitKey(ParameterUnit unit) {
  switch (unit) {
  case ParameterUnit::Millimetre: return "mm";
  case ParameterUnit::Degree: return "deg";
  case ParameterUnit::Switch: return "switch";
  case ParameterUnit::Count: return "count";
  }
  return "";
}

Result<void> validate(ParameterTable table, const ParameterValues& values, std::string_view place) {
  for (const auto& [key, value] : values) {
    const ParameterSpec* spec = findSpec(table, key);
    const std::string where = fmt::format("{} {}", place, key);
    if (!spec)
      return Error{"value.unknown", fmt::format("there is no parameter \"{}\"", key), where};
    if (!std::isfinite(value)) return Error{"value.range", "is not a number", where};
    if (value < spec->least || value > spec->most)
      return Error{"value.range",
                   fmt::format("{} {} is outside {} to {} {}", formatNumber(value, 4),
                               unitKey(spec->unit), formatNumber(spec->least, 4),
                               formatNumber(spec->most, 4), unitKey(spec->unit)),
                   where};
    if (spec->whole() && value != std::floor(value))
      return Error{"value.range", "must be a whole number", where};
  }
  for (const ParameterSpec& spec : table)
    if (!values.contains(spec.key))
      return Error{"value.missing", "has no value", fmt::format("{} {}", place, spec.key)};
  return {};
}

ParameterValues startingValues(ParameterTable table) {
  ParameterValues values;
  for (const ParameterSpec& spec : table)
    values.emplace(spec.key, spec.start);
  return values;
}

ParameterValues swapTwins(ParameterTable table, const ParameterValues& values) {
  ParameterValues swapped = values;
  for (const ParameterSpec& spec : table)
    if (!spec.twin.empty()) swapped.find(spec.twin)->second = values.find(spec.key)->second;
  return swapped;
}

double LinearClosure::misfit(const ParameterValues& values) const {
  double sum = 0;
  for (const Term& term : terms)
    sum += term.coefficient * values.find(term.key)->second;
  return sum;
}

} // namespace hinge
