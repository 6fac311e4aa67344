// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/edits/edits.h"
#include <stop_token>

namespace hinge {

/// Sizes with which a new structure works on a seat: the fitted ones, made smaller or moved along
/// the fold until nothing spoils the card, as far as `given` leaves them free. When no try works
/// the first one is returned: the findings then say what is wrong. Cost: up to 21 analyses.
Result<ParameterValues> proposeValues(const Design& design, std::string_view kind,
                                      std::string_view seat, const ParameterValues& given,
                                      std::stop_token stop = {});

/// The design with a new structure on a seat: of sizes as proposed or, for a free piece, worked as
/// its recipe begins. After a stop request the first try is returned.
Result<Added> addProposed(const Design& design, std::string_view kind, std::string_view seat,
                          const ParameterValues& given, std::stop_token stop = {});

} // namespace hinge
