// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/edits/edits.h"
#include <stop_token>

namespace hinge {

/// The design with a new structure on a seat: of the sizes that its kind drafts, made smaller or
/// moved along the fold until nothing that it has a part in spoils the card, as far as `given`
/// leaves them free; in a card in inches then on eighths, or sixteenths. When no try works the
/// first one is added: the findings then say what is wrong. After a stop request the try at hand
/// is. Cost: up to 21 analyses.
Result<Added> addProposed(const Design& design, std::string_view kind, std::string_view seat,
                          const ParameterValues& given, std::stop_token stop = {});

/// The same with a finished card on a face or astride a fold, where its kind puts it at first.
Result<Added> addCardWithin(const Design& design, std::string_view kind, std::string_view seat,
                            const ParameterValues& given, const CardWithin& card);

} // namespace hinge
