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

/// What a file is by how it begins: "card", "svg", "pdf", ...; of plain text its first line, and
/// nothing of an empty one.
std::string kindOfContent(std::string_view content);

/// Which files a result may replace: those of its own kind, or whatever is there.
enum class Replaces { SameKind, Anything };

/// Writes a result that is no card. A file that is there already is only replaced when it is empty
/// or of the kind of the new content: nobody means to write a picture over a card.
Result<void> writeOutput(const std::string& path, std::string_view content,
                         Replaces replaces = Replaces::SameKind);

/// Moves a file that is of no use any more out of the way, its name with ".damaged" behind it, and
/// a number where that is taken. The new name.
Result<std::string> setAside(const std::string& path);

/// True when both names lead to one file that is there.
bool isSameFile(const std::string& a, const std::string& b);
bool fileExists(const std::string& path);

} // namespace hinge
