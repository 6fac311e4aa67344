// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/json_reader.h"

namespace hinge {

const Json& objectOf(const Json* value, Reader& parent, std::string_view member) {
  static const Json nothing = Json::object();
  if (!value) return nothing;
  if (!value->is_object()) {
    parent.fail(member, "file.member/object");
    return nothing;
  }
  return *value;
}

void addExtras(Json& object, const std::string& extras, const char* member) {
  if (extras.empty()) return;
  const Json parsed = Json::parse(extras);
  const Json* source = &parsed;
  if (member) {
    const auto it = parsed.find(member);
    if (it == parsed.end()) return;
    source = &*it;
  }
  for (const auto& [key, value] : source->items())
    if (!object.contains(key)) object[key] = value;
}

} // namespace hinge
