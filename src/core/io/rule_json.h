// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/place_rule.h"
#include "core/io/json_reader.h"

namespace hinge {

/// A rule by which a joint is placed, as it stands in a project file. What cannot be read is noted
/// in `in` by its member.
PlaceRule readRule(Reader& in);
Json ruleJson(const PlaceRule& rule);

} // namespace hinge
