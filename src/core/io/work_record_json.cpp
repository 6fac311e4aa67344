// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/work_record_json.h"
#include "core/io/file_lock.h"
#include "core/io/json_reader.h"
#include "core/io/maker_files.h"
#include "core/io/text_file.h"

namespace hinge {
namespace {

constexpr const char *kRecord = "hinge-lantern-work", *kTimes = "hinge-lantern-times";

/// Texts in a list; others are refused with their place.
std::vector<std::string> textsIn(Reader& reader, const char* member) {
  std::vector<std::string> all;
  const Json* list = reader.get(member, false);
  if (!list) return all;
  if (!list->is_array()) {
    reader.fail(member, "file.member/list");
    return all;
  }
  for (const Json& one : *list) {
    if (one.is_string())
      all.push_back(one.get<std::string>());
    else
      reader.fail(member, "file.member/text");
  }
  return all;
}

template <class Item, class Read>
void listIn(Reader& reader, const char* member, std::optional<Error>& error, std::vector<Item>& out,
            const Read& read) {
  const Json* list = reader.get(member, false);
  if (!list) return;
  if (!list->is_array()) return reader.fail(member, "file.member/list");
  for (const Json& one : *list) {
    if (!one.is_object()) return reader.fail(member, "file.member/list");
    Reader inside(one, member, error);
    Item item;
    read(inside, item);
    out.push_back(std::move(item));
  }
}

} // namespace

std::string workRecordPath(const std::string& card) {
  return card.empty() ? makersFile("unsaved.work") : card + ".work";
}

Result<WorkRecord> readWorkRecord(const std::string& path) {
  WorkRecord record;
  if (!fileExists(path)) return record;
  const auto json = readMakersFile(path, kRecord);
  if (!json) return json.error();
  std::optional<Error> error;
  Reader reader(*json, path, error);
  record.done = textsIn(reader, "done");
  reader.text("current", record.current);
  double part = 0;
  reader.number("part", part);
  record.part = static_cast<int>(std::clamp(part, 0.0, 1e4));
  listIn(reader, "timers", error, record.timers, [](Reader& r, WorkRecord::Timer& timer) {
    r.text("step", timer.step, true), r.number("ends", timer.ends_s, true);
    if (const Json* heard = r.get("heard", false)) timer.heard = heard->is_boolean() && *heard;
  });
  listIn(reader, "misses", error, record.misses, [](Reader& r, WorkRecord::Miss& miss) {
    r.text("step", miss.step, true), r.text("word", miss.word), r.number("at", miss.at_s);
    miss.pieces = textsIn(r, "pieces");
  });
  listIn(reader, "measured", error, record.measured, [](Reader& r, WorkRecord::Measured& one) {
    r.text("step", one.step, true), r.number("mm", one.mm, true);
    r.number("wanted_mm", one.wanted_mm), r.number("at", one.at_s);
  });
  listIn(reader, "times", error, record.times, [](Reader& r, WorkRecord::Took& took) {
    r.text("step", took.step, true), r.text("kind", took.kind, true);
    r.number("planned_s", took.planned_s), r.number("took_s", took.took_s);
  });
  listIn(reader, "rehearsed", error, record.rehearsed, [](Reader& r, WorkRecord::Rehearsed& one) {
    double rights = 0, wrongs = 0;
    r.number("at", one.at_s), r.number("right", rights), r.number("wrong", wrongs);
    if (const Json* done = r.get("finished", false)) one.finished = done->is_boolean() && *done;
    one.rights = static_cast<int>(std::clamp(rights, 0.0, 1e6));
    one.wrongs = static_cast<int>(std::clamp(wrongs, 0.0, 1e6));
  });
  if (error) return *error;
  return record;
}

Result<RecordToGoOn> recordToGoOn(const std::string& path) {
  auto record = readWorkRecord(path);
  if (record) return RecordToGoOn{std::move(record).value(), {}, {}};
  const std::string& key = record.error().message.key;
  if (key == "file.version" || key == "file.unreadable") return record.error();
  auto to = setAside(path);
  if (!to) return record.error();
  return RecordToGoOn{{}, record.error(), std::move(to).value()};
}

namespace {

std::string textOf(const WorkRecord& record) {
  Json out = {{"format", kRecord},         {"version", 1},
              {"current", record.current}, {"part", record.part},
              {"done", record.done},       {"timers", Json::array()},
              {"misses", Json::array()},   {"measured", Json::array()},
              {"times", Json::array()},    {"rehearsed", Json::array()}};
  for (const WorkRecord::Timer& timer : record.timers)
    out["timers"].push_back({{"step", timer.step}, {"ends", timer.ends_s}, {"heard", timer.heard}});
  for (const WorkRecord::Miss& miss : record.misses)
    out["misses"].push_back(
        {{"step", miss.step}, {"word", miss.word}, {"at", miss.at_s}, {"pieces", miss.pieces}});
  for (const WorkRecord::Measured& one : record.measured)
    out["measured"].push_back(
        {{"step", one.step}, {"mm", one.mm}, {"wanted_mm", one.wanted_mm}, {"at", one.at_s}});
  for (const WorkRecord::Took& took : record.times)
    out["times"].push_back({{"step", took.step},
                            {"kind", took.kind},
                            {"planned_s", took.planned_s},
                            {"took_s", took.took_s}});
  for (const WorkRecord::Rehearsed& one : record.rehearsed)
    out["rehearsed"].push_back({{"at", one.at_s},
                                {"right", one.rights},
                                {"wrong", one.wrongs},
                                {"finished", one.finished}});
  return out.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

} // namespace

Result<void> writeWorkRecord(const std::string& path, const WorkRecord& record) {
  return writeMakersFile(path, textOf(record));
}

Result<void> KeptRecord::write(WorkRecord record) {
  const FileLock hold = FileLock::of(m_path);
  if (fileExists(m_path)) {
    const auto there = readFile(m_path);
    if (!there) return there.error();
    if (*there != m_text) {
      auto other = readWorkRecord(m_path);
      if (!other) return other.error();
      record.rehearsed = m_last.rehearsed = other->rehearsed;
      if (!(*other == m_last)) return Error{{"record.other-bench"}, m_path};
    }
  }
  std::string text = textOf(record);
  if (auto written = writeMakersFile(m_path, text); !written) return written;
  m_text = std::move(text), m_last = std::move(record);
  return {};
}

Result<OwnTimes> makersTimes() {
  OwnTimes times;
  const std::string path = makersFile("times.json");
  if (!fileExists(path)) return times;
  const auto json = readMakersFile(path, kTimes);
  if (!json) return json.error();
  std::optional<Error> error;
  Reader reader(*json, path, error);
  const Json* kinds = reader.get("kinds", false);
  if (!kinds || !kinds->is_object()) return times;
  for (const auto& [kind, sum] : kinds->items()) {
    if (!sum.is_object()) continue;
    Reader inside(sum, path + ": " + kind, error);
    OwnTimes::Sum& own = times.kinds[kind];
    double count = 0;
    inside.number("planned_s", own.planned_s), inside.number("took_s", own.took_s);
    inside.number("count", count);
    own.count = static_cast<int>(std::clamp(count, 0.0, 1e6));
  }
  if (error) return *error;
  return times;
}

Result<void> keepTimes(const OwnTimes& times) {
  Json out = {{"format", kTimes}, {"version", 1}, {"kinds", Json::object()}};
  for (const auto& [kind, sum] : times.kinds)
    out["kinds"][kind] = {
        {"planned_s", sum.planned_s}, {"took_s", sum.took_s}, {"count", sum.count}};
  return writeMakersFile(makersFile("times.json"), out.dump(2) + "\n");
}

} // namespace hinge
