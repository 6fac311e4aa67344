// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <span>
#include <string_view>

namespace hinge {

/// The word that was most likely meant: the one with the fewest letters put in, left out or
/// exchanged, at most two and half of them; nothing when none is so near. Cost: the
/// length of the text times that of all words.
std::optional<std::string_view> nearestWord(std::string_view text,
                                            std::span<const std::string_view> words);

} // namespace hinge
