// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/cut_mark.h"
#include "core/io/json_reader.h"
#include "core/io/maker_files.h"
#include "core/io/text_file.h"

namespace hinge {
namespace {

constexpr const char* kCutFormat = "hinge-lantern-cut";

std::optional<std::size_t> counted(const Json& json, const char* key) {
  const auto found = json.find(key);
  if (found == json.end() || !found->is_number_unsigned()) return std::nullopt;
  return found->get<std::size_t>();
}

} // namespace

std::string cutMarkPath() {
  return makersFile("cut-under-way.json");
}

Result<void> keepCutMark(const CutterMark& mark) {
  const Json out = {{"format", kCutFormat}, {"version", 1},    {"job", mark.job},
                    {"step", mark.step},    {"leg", mark.leg}, {"behind", mark.from.behind},
                    {"at", mark.from.at}};
  return writeMakersFile(cutMarkPath(), out.dump(2) + "\n");
}

Result<std::optional<CutterMark>> keptCutMark() {
  const std::string path = cutMarkPath();
  if (!fileExists(path)) return std::optional<CutterMark>();
  const auto read = readMakersFile(path, kCutFormat);
  if (!read) return read.error();
  const Json& json = *read;
  const auto step = counted(json, "step"), leg = counted(json, "leg"),
             behind = counted(json, "behind");
  const auto at = json.find("at");
  const auto job = json.find("job");
  if (!step || !leg || !behind || at == json.end() || !at->is_array() || at->size() != 2 ||
      !(*at)[0].is_number_integer() || !(*at)[1].is_number_integer() || job == json.end() ||
      !job->is_string())
    return Error{{"file.format/kept", kCutFormat}, path};
  return std::optional(CutterMark{
      job->get<std::string>(), *step, *leg, {*behind, {(*at)[0].get<int>(), (*at)[1].get<int>()}}});
}

void forgetCutMark() {
  std::remove(cutMarkPath().c_str());
}

} // namespace hinge
