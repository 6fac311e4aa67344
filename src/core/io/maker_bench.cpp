// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/maker_bench.h"
#include "core/io/json_reader.h"
#include "core/io/maker_files.h"
#include "core/io/text_file.h"

namespace hinge {
namespace {

constexpr const char* kBenchFormat = "hinge-lantern-bench";

} // namespace

std::string makersBenchPath() {
  return makersFile("bench.json");
}

Result<Bench> makersBench() {
  const std::string path = makersBenchPath();
  Bench bench;
  if (!fileExists(path)) return bench;
  const auto read = readMakersFile(path, kBenchFormat);
  if (!read) return read.error();
  const Json& json = *read;
  for (const BenchRow& row : benchRows()) {
    const auto given = json.find(row.key);
    if (given == json.end()) continue;
    const std::string place = path + ": " + std::string(row.key);
    if (row.number && !given->is_number()) return Error{"value.range/number", place};
    if (row.number)
      bench.*row.number = given->get<double>();
    else if (!given->is_string() || !setSchool(bench, row.key, given->get<std::string>()))
      return Error{"bench.choice", place};
  }
  const auto speeds = json.find("speeds");
  if (speeds != json.end() && !speeds->is_object())
    return Error{"value.range/number", path + ": speeds"};
  if (speeds != json.end())
    for (const auto& [paper, speed] : speeds->items()) {
      if (!speed.is_number()) return Error{"value.range/number", path + ": speeds." + paper};
      bench.speeds_cms[paper] = speed.get<double>();
    }
  if (const auto valid = validate(bench); !valid)
    return Error{valid.error().message, path + ": " + valid.error().place};
  return bench;
}

Result<void> keepBench(const Bench& bench) {
  if (auto valid = validate(bench); !valid) return valid;
  Json out = {{"format", kBenchFormat}, {"version", 1}};
  for (const BenchRow& row : benchRows())
    if (row.number)
      out[std::string(row.key)] = bench.*row.number;
    else
      out[std::string(row.key)] = schoolOf(bench, row.key);
  if (!bench.speeds_cms.empty()) out["speeds"] = bench.speeds_cms;
  return writeMakersFile(makersBenchPath(), out.dump(2) + "\n");
}

} // namespace hinge
