// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/design/design.h"
#include <string>
#include <string_view>

namespace hinge {

/// The card on one page, as a maker would write it down: base, sheets with their scores, cuts and
/// glue places (the words of pieces/sheet_words.h), structures with their sizes, lengths in the
/// design's unit. A file format: the same in every language, exact to 1e-9 mm.
std::string pageOf(const Design& design);

/// Reads such a page; the design it gives can be assembled. Fails with the line that could not be
/// understood.
Result<Design> designFromPage(std::string_view text);

} // namespace hinge
