// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/design/parameter.h"
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

namespace {

Text withSide(std::string key, const RowName& name) {
  return name.of.empty() ? Text(std::move(key)) : Text(std::move(key), name.of);
}

} // namespace

Text nameOf(const ParameterSpec& spec) {
  return withSide(std::string(spec.name.key), spec.name);
}

Text nameOnBothSides(const ParameterSpec& spec) {
  // Twins without words in common are told by the first one.
  return spec.name.of.empty() ? nameOf(spec) : Text(fmt::format("{}/both", spec.name.key));
}

Text meaningOf(const ParameterSpec& spec) {
  return withSide(fmt::format("{}/meaning", spec.name.key), spec.name);
}

Text choiceOf(const ParameterSpec& spec, int choice) {
  return Text(fmt::format("{}/{}", spec.name.key, choice));
}

Said valueOf(const ParameterSpec& spec, double value) {
  switch (spec.unit) {
  case ParameterUnit::Millimetre: return Millimetres{value};
  case ParameterUnit::Degree: return Degrees{value};
  default: return Decimal{value, 4};
  }
}

Result<void> validate(ParameterTable table, const ParameterValues& values, std::string_view place) {
  for (const auto& [key, value] : values) {
    const ParameterSpec* spec = findSpec(table, key);
    const auto where = [&place, &key = key] { return fmt::format("{} {}", place, key); };
    if (!spec) return Error{{"value.unknown", key}, where()};
    if (!std::isfinite(value)) return Error{"value.range/number", where()};
    if (value < spec->least || value > spec->most)
      return Error{{"value.range", valueOf(*spec, value), valueOf(*spec, spec->least),
                    valueOf(*spec, spec->most)},
                   where()};
    if (spec->whole() && value != std::floor(value)) return Error{"value.range/whole", where()};
  }
  for (const ParameterSpec& spec : table)
    if (!values.contains(spec.key))
      return Error{"value.missing", fmt::format("{} {}", place, spec.key)};
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
