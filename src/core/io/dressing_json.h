// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/dressing.h"
#include "core/io/json_reader.h"
#include "core/paper/paper.h"

namespace hinge {

// Papers and dressing as they stand in files: in a project, and in the maker's own drawer.

/// Bytes as a file of text holds them; nothing when the text holds none.
std::string toBase64(const std::string& bytes);
std::optional<std::string> fromBase64(const std::string& text);

Json jsonOf(const Paper& paper);
/// What is wrong is noted with its place; what it comes to then is not used.
Paper readPaper(const Json& json, const std::string& place, std::optional<Error>& error);
/// A list of papers; of `json` that is none, only the failure.
std::vector<Paper> readPapers(const Json& json, const std::string& place,
                              std::optional<Error>& error);

Json jsonOf(const Dressing& dressing);
Dressing readDressing(const Json& json, const std::string& place, std::optional<Error>& error);

constexpr std::size_t kMostPapers = 500, kMostRules = 5000, kMostLayers = 20, kMostToppers = 1000;

} // namespace hinge
