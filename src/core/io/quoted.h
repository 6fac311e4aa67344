// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <string_view>

namespace hinge {

/// A maker's text within a sentence or line: as it is where that is read again as it was, else in
/// quotes, with \" \\ \n and \t for what quotes and lines cannot hold. `parting` is what parts the
/// sentence, if anything does.
std::string quoted(const std::string& text, char parting = '\0');
/// The text that was meant; what does not stand in quotes is taken as it is.
std::string unquoted(std::string_view text);
/// Where what stands in quotes at `from` ends: behind the closing quote, or the end of the text.
std::size_t endOfQuoted(std::string_view text, std::size_t from);

} // namespace hinge
