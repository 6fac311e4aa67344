// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/nearest_word.h"
#include <algorithm>
#include <numeric>
#include <vector>

namespace hinge {
namespace {

/// Edit distance, row by row (R. Wagner, M. Fischer, The string-to-string correction problem,
/// 1974).
std::size_t apart(std::string_view a, std::string_view b) {
  std::vector<std::size_t> row(b.size() + 1);
  std::iota(row.begin(), row.end(), std::size_t(0));
  for (std::size_t i = 1; i <= a.size(); ++i) {
    std::size_t diagonal = row[0];
    row[0] = i;
    for (std::size_t j = 1; j <= b.size(); ++j) {
      const std::size_t exchanged = diagonal + (a[i - 1] == b[j - 1] ? 0 : 1);
      diagonal = row[j];
      row[j] = std::min({exchanged, row[j] + 1, row[j - 1] + 1});
    }
  }
  return row.back();
}

} // namespace

std::optional<std::string_view> nearestWord(std::string_view text,
                                            std::span<const std::string_view> words) {
  constexpr std::size_t kLongest = 40, kMostWrong = 2;
  if (text.size() > kLongest) return std::nullopt;
  std::optional<std::string_view> best;
  std::size_t least = kMostWrong + 1;
  for (const std::string_view word : words)
    if (const std::size_t wrong = apart(text, word); wrong < least && 2 * wrong <= word.size())
      least = wrong, best = word;
  return best;
}

} // namespace hinge
