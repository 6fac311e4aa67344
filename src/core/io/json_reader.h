// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/printable.h"
#include "core/base/result.h"
#include <cmath>
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <optional>
#include <set>
#include <string>
#include <string_view>

namespace hinge {

using Json = nlohmann::ordered_json; ///< members keep their order

/// Reads members and remembers the first failure with its place, so that the reading code stays a
/// list.
class Reader {
public:
  Reader(const Json& object, std::string place, std::optional<Error>& error)
      : m_object(object), m_place(std::move(place)), m_error(error) {}

  void fail(std::string_view member, Text message) {
    if (!m_error) m_error = Error{std::move(message), where(member)};
  }
  const Json* get(std::string_view member, bool required) {
    m_known.insert(std::string(member));
    const auto it = m_object.find(member);
    if (it != m_object.end()) return &*it;
    if (required) fail(member, "file.member/missing");
    return nullptr;
  }
  void number(std::string_view member, double& out, bool required = false) {
    const Json* value = get(member, required);
    if (!value) return;
    if (!value->is_number() || !std::isfinite(value->get<double>()))
      fail(member, "file.member/number");
    else
      out = value->get<double>();
  }
  void positive(std::string_view member, double& out) {
    number(member, out);
    if (!(out >= 0 && out <= 1e4)) fail(member, "file.member/positive");
  }
  void text(std::string_view member, std::string& out, bool required = false) {
    const Json* value = get(member, required);
    if (!value) return;
    if (!value->is_string())
      fail(member, "file.member/text");
    else
      out = printable(value->get<std::string>());
  }
  /// The key of one of these; what there is stands in the message.
  void keyOf(const auto& known, std::string_view member, std::string& out) {
    text(member, out);
    std::string all;
    for (const auto& item : known) {
      if (item.key == out) return;
      all += fmt::format("{}{}", all.empty() ? "" : ", ", item.key);
    }
    fail(member, {"file.member/none-of", out.substr(0, 40), all});
  }
  void yesOrNo(std::string_view member, bool& out) {
    const Json* value = get(member, false);
    if (!value) return;
    if (!value->is_boolean())
      fail(member, "file.member/yes-no");
    else
      out = value->get<bool>();
  }
  void integer(std::string_view member, int& out) {
    const Json* value = get(member, false);
    if (!value) return;
    if (!value->is_number_integer() || value->get<double>() < 0 || value->get<double>() > 1e9)
      fail(member, "file.member/whole");
    else
      out = value->get<int>();
  }
  std::string where(std::string_view member) const {
    return m_place.empty() ? std::string(member) : fmt::format("{}.{}", m_place, member);
  }
  /// Members this version does not know.
  Json extras() const {
    Json rest = Json::object();
    for (const auto& [key, value] : m_object.items())
      if (!m_known.contains(key)) rest[key] = value;
    return rest;
  }
  /// The same as text; empty when all are known.
  std::string extrasText() const {
    const Json rest = extras();
    return rest.empty() ? "" : rest.dump(-1, ' ', false, Json::error_handler_t::replace);
  }

private:
  const Json& m_object;
  std::string m_place;
  std::optional<Error>& m_error;
  std::set<std::string> m_known;
};

/// The object a member holds; an empty one, and a failure noted, when it is none.
const Json& objectOf(const Json* value, Reader& parent, std::string_view member);

/// Adds kept members behind the known ones: `extras` as Reader::extrasText() gave them, or what
/// they have under `member`.
void addExtras(Json& object, const std::string& extras, const char* member = nullptr);

} // namespace hinge
