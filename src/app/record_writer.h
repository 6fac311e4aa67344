// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QObject>
#include <QThreadPool>
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/base/result.h"
#include <functional>
#include <memory>
#include <optional>
#endif

namespace hinge {

/// Writes what must not be lost after every act. It is on disk before anything else happens; a
/// record of years takes longer than the maker should have to wait, then the newest follows as soon
/// as the one before is there. A member of the window that tells how it went: that does not go
/// before all is written.
class RecordWriter {
public:
  using Heard = std::function<void(const Result<void>&)>;
  RecordWriter(QObject* owner, Heard heard) : m_owner(owner), m_heard(std::move(heard)) {
    m_thread.setMaxThreadCount(1);
  }

  /// `write` runs on another thread. Of several that wait only the newest does.
  void write(std::function<Result<void>()> write);
  bool busy() const { return m_busy; }

private:
  void hear(int number, const Result<void>& how);

  QObject* m_owner;
  Heard m_heard;
  bool m_busy = false;
  int m_newest = 0; ///< only that one tells whether the record is kept
  QThreadPool m_thread;
};

} // namespace hinge
