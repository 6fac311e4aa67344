// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/io/json_reader.h"

namespace hinge {

/// Makes what a project file of an earlier version says into what the present one says, version by
/// version. What does not look as it should stays as it is: the reader names it, by the path it has
/// in the file.
void migrate(Json& project);

} // namespace hinge
