// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/work_json.h"
#include "core/io/rule_json.h"
#include <algorithm>

namespace hinge {

Vec2 readPoint(const Json& value, Reader& in, std::string_view member) {
  if (value.is_array() && value.size() == 2 && value[0].is_number() && value[1].is_number())
    return {value[0].get<double>(), value[1].get<double>()};
  in.fail(member, "file.member/point");
  return Vec2::Zero();
}

Json pointJson(const Vec2& p) {
  return Json::array({p.x(), p.y()});
}

namespace {

Polygon readPolygon(const Json& value, Reader& in, std::string_view member) {
  Polygon polygon;
  if (!value.is_array() || value.size() > 1000)
    in.fail(member, "file.member/points");
  else
    for (const Json& p : value)
      polygon.push_back(readPoint(p, in, member));
  return polygon;
}

template <class Kind> void readKind(Reader& in, Kind& out, std::initializer_list<Kind> kinds) {
  std::string key;
  in.text("kind", key, true);
  for (Kind kind : kinds)
    if (workKey(kind) == key) return void(out = kind);
  in.fail("kind", {"file.member/unknown", key.substr(0, 40)});
}

/// Calls `read` for every object of a list.
template <class Read>
void eachOf(const Json* list, Reader& in, std::string_view member, std::optional<Error>& error,
            Read read) {
  if (!list) return;
  if (!list->is_array()) return in.fail(member, "file.member/list");
  for (std::size_t k = 0; k < list->size() && !error; ++k) {
    if (!(*list)[k].is_object())
      return in.fail(fmt::format("{}[{}]", member, k), "file.member/object");
    Reader item((*list)[k], fmt::format("{}[{}]", in.where(member), k), error);
    read(item);
  }
}

Json polygonJson(const Polygon& polygon) {
  Json list = Json::array();
  for (const Vec2& p : polygon)
    list.push_back(pointJson(p));
  return list;
}

} // namespace

PieceWork readWork(const Json& source, const std::string& place, std::optional<Error>& error) {
  PieceWork work;
  Reader in(source, place, error);
  if (const Json* outline = in.get("outline", true))
    work.outline = readPolygon(*outline, in, "outline");
  const auto point = [](Reader& r, std::string_view member, Vec2& out) {
    if (const Json* value = r.get(member, true)) out = readPoint(*value, r, member);
  };
  eachOf(in.get("lines", false), in, "lines", error, [&](Reader& r) {
    WorkLine line;
    using K = WorkLine::Kind;
    readKind(r, line.kind, {K::Mountain, K::Valley, K::Cut});
    point(r, "from", line.from), point(r, "to", line.to);
    if (const Json* moves = r.get("moves", false)) {
      Reader how(objectOf(moves, r, "moves"), r.where("moves"), error);
      line.moves = FoldMoves();
      how.number("shut_deg", line.moves->shut_deg), how.number("open_deg", line.moves->open_deg);
      how.yesOrNo("by_hand", line.moves->byHand), how.number("step_deg", line.moves->step_deg);
      how.number("from_deg", line.moves->from_deg), how.number("to_deg", line.moves->to_deg);
    }
    if (r.get("folded_deg", false)) r.number("folded_deg", line.folded_deg.emplace());
    line.extras = r.extrasText();
    work.lines.push_back(std::move(line));
  });
  if (const Json* windows = in.get("windows", false)) {
    if (!windows->is_array())
      in.fail("windows", "file.member/list");
    else
      for (const Json& window : *windows)
        work.windows.push_back(readPolygon(window, in, "windows"));
  }
  eachOf(in.get("joints", false), in, "joints", error, [&](Reader& r) {
    PieceJoint j;
    std::string kind;
    r.text("kind", kind, true);
    const auto known = std::ranges::find(kJointKeys, kind);
    if (known == kJointKeys.end())
      return r.fail("kind", {"file.member/unknown", kind.substr(0, 40)});
    j.kind = changedTo(static_cast<std::size_t>(known - kJointKeys.begin()), j.kind);
    point(r, "at", j.at), point(r, "to", j.to);
    r.text("on", j.on, true);
    if (bool* byFace = byFaceOf(j.kind)) {
      std::string side = "back";
      r.text("by", side);
      if (side != "face" && side != "back") r.fail("by", "file.member/by");
      *byFace = side == "face";
    }
    for (const JointNumber& number : numbersOf(j.kind))
      r.number(number.key, *number.value);
    if (auto* glue = std::get_if<given::Glue>(&j.kind))
      if (const Json* area = r.get("area", false)) glue->area = readPolygon(*area, r, "area");
    eachOf(r.get("rules", false), r, "rules", error,
           [&](Reader& rule) { j.rules.push_back(readRule(rule)); });
    j.extras = r.extrasText();
    work.joints.push_back(std::move(j));
  });
  work.extras = in.extrasText();
  if (!error)
    if (auto valid = validate(work, place); !valid) error = valid.error();
  return work;
}

Json workJson(const PieceWork& work) {
  Json out = {{"outline", polygonJson(work.outline)}, {"lines", Json::array()}};
  for (const WorkLine& line : work.lines) {
    Json entry = {
        {"kind", workKey(line.kind)}, {"from", pointJson(line.from)}, {"to", pointJson(line.to)}};
    if (line.moves) {
      entry["moves"] = {{"shut_deg", line.moves->shut_deg},
                        {"open_deg", line.moves->open_deg},
                        {"from_deg", line.moves->from_deg},
                        {"to_deg", line.moves->to_deg}};
      if (line.moves->byHand) entry["moves"]["by_hand"] = true;
      if (line.moves->step_deg != 0) entry["moves"]["step_deg"] = line.moves->step_deg;
    }
    if (line.folded_deg) entry["folded_deg"] = *line.folded_deg;
    addExtras(entry, line.extras);
    out["lines"].push_back(std::move(entry));
  }
  if (!work.windows.empty()) {
    out["windows"] = Json::array();
    for (const Polygon& window : work.windows)
      out["windows"].push_back(polygonJson(window));
  }
  out["joints"] = Json::array();
  for (PieceJoint joint : work.joints) {
    Json entry = {{"kind", jointKey(joint.kind)},
                  {"at", pointJson(joint.at)},
                  {"on", joint.on},
                  {"to", pointJson(joint.to)}};
    if (const bool* byFace = byFaceOf(joint.kind)) entry["by"] = *byFace ? "face" : "back";
    for (const JointNumber& number : numbersOf(joint.kind))
      if (!number.spared || *number.value != 0) entry[std::string(number.key)] = *number.value;
    if (const auto* glue = std::get_if<given::Glue>(&joint.kind); glue && !glue->area.empty())
      entry["area"] = polygonJson(glue->area);
    for (const PlaceRule& rule : joint.rules)
      entry["rules"].push_back(ruleJson(rule));
    addExtras(entry, joint.extras);
    out["joints"].push_back(std::move(entry));
  }
  addExtras(out, work.extras);
  return out;
}

} // namespace hinge
