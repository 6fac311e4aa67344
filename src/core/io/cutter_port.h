// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/sending/talk.h"
#include <memory>
#include <string>

namespace hinge {

/// The line to a machine at a local socket or a serial terminal (a pseudo-terminal too). Errors:
/// "cutter.gone" when nothing answers under that name, "cutter.no-device" when it is a file of
/// another kind.
Result<std::unique_ptr<CutterLine>> openCutter(const std::string& path);

} // namespace hinge
