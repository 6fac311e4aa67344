// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include <string>
#include <string_view>

namespace hinge {

/// Largest file that is read at all; a real design is a few kilobytes.
constexpr long long kLargestFile_bytes = 32LL * 1024 * 1024;

/// Who may read a file that is written: as the system has it, or its owner alone.
enum class FileAccess { Usual, OwnerOnly };

/// Reads a regular file. Folders, devices, pipes and files over the limit are refused, without
/// waiting for anything.
Result<std::string> readFile(const std::string& path);

/// Writes beside the target, on to the disk, and moves it into place, so that any failure leaves
/// the old file as it was. Only a regular file is ever replaced.
Result<void> writeFile(const std::string& path, std::string_view content,
                       FileAccess access = FileAccess::Usual);

/// True when both names lead to one file that is there.
bool isSameFile(const std::string& a, const std::string& b);
bool fileExists(const std::string& path);

} // namespace hinge
