// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/maker_ways.h"
#include "core/io/json_reader.h"
#include "core/io/maker_bench.h"
#include "core/io/maker_files.h"
#include "core/io/text_file.h"

namespace hinge {
namespace {

constexpr const char* kWaysFormat = "hinge-lantern-ways";

struct Row {
  const char* key;
  Adhesive MakingWays::*adhesive;
};
constexpr Row kRows[] = {{"joints", &MakingWays::joints},
                         {"moving", &MakingWays::moving},
                         {"layers", &MakingWays::layers}};

std::string textOf(const Json& json, const char* key) {
  const auto found = json.find(key);
  return found != json.end() && found->is_string() ? found->get<std::string>() : std::string();
}

} // namespace

std::string makersWaysPath() {
  return makersFile("making.json");
}

Result<MakingWays> makersWays() {
  const std::string path = makersWaysPath();
  MakingWays ways;
  if (const auto bench = makersBench()) ways.cutFirst = bench->order == ScoreOrder::CutFirst;
  if (!fileExists(path)) return ways;
  const auto read = readMakersFile(path, kWaysFormat);
  if (!read) return read.error();
  const Json& json = *read;
  const auto closing = closingFromKey(textOf(json, "closing"));
  if (json.contains("closing") && !closing) return Error{"bench.choice", path + ": closing"};
  if (closing) ways.closing = *closing;
  for (const Row& row : kRows) {
    const auto adhesive = adhesiveFromKey(textOf(json, row.key));
    if (json.contains(row.key) && !adhesive) return Error{"bench.choice", path + ": " + row.key};
    if (adhesive) ways.*row.adhesive = *adhesive;
  }
  if (const auto own = json.find("holds_s"); own != json.end() && own->is_object())
    for (const auto& [key, seconds] : own->items()) {
      const auto adhesive = adhesiveFromKey(key);
      if (!adhesive || !seconds.is_number() || !(seconds.get<double>() >= 0) ||
          !(seconds.get<double>() <= kLongestPressed_s))
        return Error{"bench.choice", path + ": holds_s." + key};
      ways.holds_s[*adhesive] = seconds.get<double>();
    }
  return ways;
}

Result<void> keepWays(const MakingWays& ways) {
  Json out = {{"format", kWaysFormat}, {"version", 1}, {"closing", keyOf(ways.closing)}};
  for (const Row& row : kRows)
    out[row.key] = factsOf(ways.*row.adhesive).key;
  for (const auto& [adhesive, seconds] : ways.holds_s)
    out["holds_s"][std::string(factsOf(adhesive).key)] = seconds;
  return writeMakersFile(makersWaysPath(), out.dump(2) + "\n");
}

} // namespace hinge
