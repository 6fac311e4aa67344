// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace hinge {

/// Exit codes of the command line.
enum ExitCode { kFine = 0, kSpoiled = 1, kUnusable = 2 };

/// Parses and runs one verb; messages for people go to stderr, results to stdout.
int runCommandLine(int argc, char** argv);

} // namespace hinge
