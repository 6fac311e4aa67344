// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/piece_work.h"
#include "core/io/json_reader.h"

namespace hinge {

/// The `work` of a free piece. The first failure, with its path, goes into `error`; `place` is the
/// path of `source`.
PieceWork readWork(const Json& source, const std::string& place, std::optional<Error>& error);
Json workJson(const PieceWork& work);

Vec2 readPoint(const Json& value, Reader& in, std::string_view member);
Json pointJson(const Vec2& p);

} // namespace hinge
