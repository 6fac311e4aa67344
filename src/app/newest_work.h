// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/background.h"
#include <QElapsedTimer>
#include <QObject>
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/base/progress.h"
#include <memory>
#include <mutex>
#include <stop_token>
#include <type_traits>
#include <utility>
#endif

namespace hinge {

/// Work on another thread of which only the newest counts: what is begun anew stops what runs, and
/// what comes late is dropped. Belongs to the window's thread, as a member of its owner; when the
/// owner goes nothing waits for what still runs, so the work must not touch the owner but through
/// what it is given.
class NewestWork {
  struct Shared {
    std::mutex lock;
    QObject* owner = nullptr; ///< null: it is gone
  };

public:
  /// Runs something on the owner's thread, if the owner is still there and the work still counts.
  class Tell {
  public:
    template <class What> void operator()(What what) const {
      const std::lock_guard guard(m_shared->lock);
      if (!m_shared->owner) return;
      QMetaObject::invokeMethod(
          m_shared->owner,
          [stop = m_stop, what = std::move(what)]() mutable {
            if (!stop.stop_requested()) what();
          },
          Qt::QueuedConnection);
    }

  private:
    friend class NewestWork;
    std::shared_ptr<Shared> m_shared;
    std::stop_token m_stop;
  };

  explicit NewestWork(QObject* owner) : m_shared(std::make_shared<Shared>()) {
    m_shared->owner = owner;
  }
  ~NewestWork() {
    stop();
    const std::lock_guard guard(m_shared->lock);
    m_shared->owner = nullptr;
  }
  NewestWork(const NewestWork&) = delete;
  NewestWork& operator=(const NewestWork&) = delete;

  bool running() const { return m_running; }
  /// Nothing of what runs is heard of any more.
  void stop() {
    m_stop.request_stop();
    m_running = false;
  }
  /// `work` gets a stop token, and a Tell if it takes one, and runs on another thread; `done` gets
  /// what it returns, here.
  template <class Work, class Done> void start(Work work, Done done) {
    stop();
    m_stop = std::stop_source();
    m_running = true;
    Tell tell;
    tell.m_shared = m_shared, tell.m_stop = m_stop.get_token();
    runInBackground([this, tell, work = std::move(work), done = std::move(done)] {
      auto result = [&] {
        if constexpr (std::is_invocable_v<const Work&, std::stop_token, const Tell&>)
          return work(tell.m_stop, tell);
        else
          return work(tell.m_stop);
      }();
      // Told only while the owner, and this with it, is there.
      tell([this, done, result = std::move(result)]() mutable {
        m_running = false;
        done(std::move(result));
      });
    });
  }

private:
  std::shared_ptr<Shared> m_shared;
  std::stop_source m_stop;
  bool m_running = false;
};

/// Tells the owner how far its work is: `what` gets so many of how many. What is soon done tells
/// nothing, and nothing is told so often that showing it becomes the work.
template <class What> Progress toldNowAndThen(const NewestWork::Tell& tell, What what) {
  constexpr int kEvery_ms = 150;
  QElapsedTimer sinceTold;
  sinceTold.start();
  return [tell, what = std::move(what), sinceTold](std::size_t done, std::size_t all) mutable {
    if (sinceTold.elapsed() < kEvery_ms) return;
    sinceTold.restart();
    tell([what, done, all] { what(done, all); });
  };
}

} // namespace hinge
