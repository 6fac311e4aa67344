// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/preview_motion.h"
#include <utility>

namespace hinge {

void PreviewMotion::ask(std::shared_ptr<const Snapshot> snapshot) {
  if (!snapshot) {
    m_working.stop();
    m_begun.reset(), m_next.reset(), m_newest.reset();
    return;
  }
  if (snapshot == m_begun) return;
  m_next = std::move(snapshot);
  if (!m_working.running()) start();
}

void PreviewMotion::start() {
  m_begun = std::exchange(m_next, nullptr);
  m_working.start(
      [snapshot = m_begun](std::stop_token stop) { return snapshot->motion(stop) != nullptr; },
      [this](bool known) {
        if (known) m_newest = m_begun;
        if (m_next) start();
        emit changed();
      });
}

} // namespace hinge
