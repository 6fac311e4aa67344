// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/background.h"
#include <QThread>
#include <QThreadPool>
#include <algorithm>
#include <sys/resource.h>
#include <unistd.h>

namespace hinge {
namespace {

/// Nice level of background work: beside the window it gets a tenth of a processor that both want.
constexpr int kNice = 12;

} // namespace

QThreadPool& backgroundPool() {
  static QThreadPool pool;
  // Two at least: what is no longer wanted may need a moment to notice, the new must not wait.
  static const bool sized = [] {
    pool.setMaxThreadCount(std::max(2, QThread::idealThreadCount()));
    return true;
  }();
  (void)sized;
  return pool;
}

void yieldToWindow() {
  // Qt's thread priorities mean nothing to Linux's ordinary scheduler; its nice levels do, by
  // thread.
  ::setpriority(PRIO_PROCESS, static_cast<id_t>(::gettid()), kNice);
}

void runInBackground(std::function<void()> work) {
  backgroundPool().start([work = std::move(work)] {
    yieldToWindow();
    work();
  });
}

} // namespace hinge
