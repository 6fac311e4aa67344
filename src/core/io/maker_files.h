// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/io/file_lock.h"
#include <nlohmann/json_fwd.hpp>
#include <string>
#include <string_view>

namespace hinge {

/// A file that a maker has for all cards, in the user's data folder (XDG).
std::string makersFile(std::string_view name);
/// The object in a file of a maker whose member "format" says `format`. Errors: those of
/// readFile(), "file.format/kept", "file.version" for one of a later program.
Result<nlohmann::ordered_json> readMakersFile(const std::string& path, std::string_view format);
/// Holds the folder of these files while one of them is read, changed and written: makes it if it
/// is not there yet.
FileLock holdMakersFiles();
/// Writes one, and the folder if it is not there yet; never over one of a later program.
Result<void> writeMakersFile(const std::string& path, const std::string& text);

} // namespace hinge
