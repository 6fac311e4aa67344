// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

class QThreadPool;

namespace hinge {

/// Threads for work that takes longer than a frame, of lower priority than the window. Qt's global
/// pool is left alone: painting waits for it, so a long search there would freeze the window.
QThreadPool& backgroundPool();

/// Runs the work on one of these threads.
void runInBackground(std::function<void()> work);

/// Lowers the priority of the calling thread; for work that reaches the pool in another way.
void yieldToWindow();

} // namespace hinge
