// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/record_writer.h"

namespace hinge {

void RecordWriter::write(std::function<Result<void>()> write) {
  constexpr int kWaits_ms = 100;
  m_busy = true;
  const int number = ++m_newest;
  const auto how = std::make_shared<std::optional<Result<void>>>();
  m_thread.clear();
  m_thread.start([this, how, number, write = std::move(write)] {
    *how = write();
    const auto told = [this, how, number] { hear(number, **how); };
    QMetaObject::invokeMethod(m_owner, told, Qt::QueuedConnection);
  });
  if (m_thread.waitForDone(kWaits_ms)) hear(number, **how);
}

void RecordWriter::hear(int number, const Result<void>& how) {
  if (number != m_newest || !m_busy) return;
  m_busy = false;
  m_heard(how);
}

} // namespace hinge
