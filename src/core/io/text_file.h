#pragma once
#include "core/base/result.h"
#include <string>
#include <string_view>

namespace hinge {

/// Largest file that is read at all; a real design is a few kilobytes.
constexpr long long kLargestFile_bytes = 32LL * 1024 * 1024;

Result<std::string> readFile(const std::string& path);
/// Writes beside the target and moves it into place, so that a failure leaves the old file as it was.
Result<void> writeFile(const std::string& path, std::string_view content);

} // namespace hinge
