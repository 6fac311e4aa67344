// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/preview_motion.h"
#include "app/background.h"
#include <QThreadPool>
#include <utility>

namespace hinge {

PreviewMotion::~PreviewMotion() {
  m_stop.request_stop();
  // Workers post to this object; none may be left when it goes.
  backgroundPool().waitForDone();
}

void PreviewMotion::ask(std::shared_ptr<const Snapshot> snapshot) {
  if (!snapshot) {
    m_stop.request_stop();
    m_begun.reset(), m_next.reset(), m_newest.reset();
    m_running = false;
    ++m_stroke;
    return;
  }
  if (snapshot == m_begun) return;
  m_next = std::move(snapshot);
  if (!m_running) start();
}

void PreviewMotion::start() {
  m_begun = std::exchange(m_next, nullptr);
  m_running = true;
  m_stop = std::stop_source();
  runInBackground([this, snapshot = m_begun, stop = m_stop.get_token(), stroke = m_stroke] {
    const bool known = snapshot->motion(stop) != nullptr;
    QMetaObject::invokeMethod(
        this,
        [this, snapshot, known, stroke] {
          if (stroke != m_stroke) return;
          m_running = false;
          if (known) m_newest = snapshot;
          if (m_next) start();
          emit changed();
        },
        Qt::QueuedConnection);
  });
}

} // namespace hinge
