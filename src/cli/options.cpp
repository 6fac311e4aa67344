// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/options.h"
#include "core/edits/settling.h"
#include "core/io/design_json.h"
#include "core/io/text_file.h"
#include "core/model/snapshot.h"
#include "words/words.h"
#include <cmath>
#include <cstdio>
#include <fmt/format.h>
#include <iostream>

namespace hinge {

void tell(const Text& text, const Design& design) {
  fmt::print("{}\n", say(text, design.settings.unit));
}

int refuse(const Error& error, LengthUnit unit) {
  fmt::print(stderr, "hinge-lantern-cli: {}\n", say(error, unit));
  return kUnusable;
}

std::string listed(const std::vector<std::string>& words) {
  std::string text;
  for (const std::string& word : words)
    text += (text.empty() ? "" : ", ") + word;
  return text;
}

Result<ParameterValues> parseSets(const std::vector<std::string>& sets, ParameterTable table,
                                  std::string_view owner, LengthUnit unit) {
  ParameterValues values;
  for (const std::string& set : sets) {
    const auto equals = set.find('=');
    if (equals == std::string::npos) return Error{"usage/key-value", fmt::format("--set {}", set)};
    const std::string key = set.substr(0, equals);
    const std::string_view text = std::string_view(set).substr(equals + 1);
    const ParameterSpec* spec = findSpec(table, key);
    if (!spec) {
      std::vector<std::string> known;
      for (const ParameterSpec& row : table)
        known.emplace_back(row.key);
      if (known.empty()) return Error{{"value.unknown/none", owner, key}, ""};
      return Error{{"value.unknown/structure", owner, key, listed(known)}, ""};
    }
    const bool length = spec->unit == ParameterUnit::Millimetre;
    const auto value = length ? parseLength_mm(text, unit) : parseAngle_deg(text);
    if (!value) return Error{value.error().message, key};
    values[key] = *value;
  }
  return values;
}

Result<double> parseNumber(const std::string& text, double least, double most,
                           std::string_view what) {
  const auto value = parseAngle_deg(text); // a plain number
  if (value && *value >= least && *value <= most) return value;
  return Error{{"usage/number", text, Decimal{least, 2}, Decimal{most, 2}}, std::string(what)};
}

Result<double> parseOpening_deg(const std::string& text) {
  return parseNumber(text, 0, 180, "--open");
}

Result<StructureId> idIn(const Design& d, const std::string& text) {
  const auto id = structureIdFromText(text);
  if (!id || !d.find(*id)) return Error{{"structure.missing", text}, ""};
  return *id;
}

bool allWasWritten() {
  std::cout.flush();
  return std::fflush(stdout) == 0 && !std::ferror(stdout) && std::cout.good();
}

int saveEdited(const Design& edited, const std::string& path) {
  if (auto possible = Snapshot(edited).possible(); !possible)
    return refuse(possible.error(), edited.settings.unit);
  if (!allWasWritten()) return kUnusable; // which is told at the end
  if (auto saved = saveDesign(withPlacesSettled(edited), path); !saved)
    return refuse(saved.error(), edited.settings.unit);
  return kFine;
}

Result<void> mayWriteTo(const std::string& target, const std::vector<std::string>& sources) {
  for (const std::string& source : sources)
    if (isSameFile(target, source)) return Error{"file.same", target};
  return {};
}

} // namespace hinge
