// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace hinge {

/// The program with its window, from its arguments to its exit code: 0, or 2 when a file or picture
/// that is asked for cannot be opened or written.
int startWindow(int argc, char** argv);

} // namespace hinge
