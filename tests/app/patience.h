// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

/// How long a test waits for what must come. It is no measure: on a machine with other work to do,
/// what takes a second may take forty.
constexpr int kPatience_ms = 180'000;
