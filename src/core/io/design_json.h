// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/design/design.h"

namespace hinge {

constexpr int kFormatVersion = 5;

/// The project file as text: UTF-8 JSON, members in a fixed order, unknown members of a read file
/// kept. See docs/format.md.
std::string designToJson(const Design& design);

/// Reads a project file of this version or an earlier one. Errors name the member
/// ("structures[2].values.c") or the line of a syntax error; `source` is put before it. Numbers
/// must be finite, ids unique, kinds known, every structure behind the one it stands on.
Result<Design> designFromJson(std::string_view text, const std::string& source = "");

Result<Design> loadDesign(const std::string& path);
Result<void> saveDesign(const Design& design, const std::string& path);

} // namespace hinge
