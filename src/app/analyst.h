// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/newest_work.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/checks/analysis.h"
#endif
#include <QObject>
#include <memory>

namespace hinge {

/// Works the design out on another thread: motion and findings first, then the search for mends. A
/// new request ends the one before; results that are not of the newest request are dropped.
class Analyst : public QObject {
  Q_OBJECT
public:
  explicit Analyst(QObject* parent = nullptr) : QObject(parent) {}

  void request(std::shared_ptr<const Snapshot> snapshot);
  void cancel(); ///< of what is being worked out, mending included
  /// Mends everything that can be mended, on another thread; ends in mended() unless cancelled or
  /// overtaken.
  void mendAll(const Design& design);
  bool mending() const { return m_mending; }
  /// The newest result; null while none is there for the requested design.
  std::shared_ptr<const Analysis> current() const { return m_current; }
  /// The motion of the newest result, whichever design that was for: a neighbour of what is shown
  /// now.
  const Motion* lastMotion() const {
    return m_current ? m_current->motion.get() : m_lastMotion.get();
  }
  bool busy() const { return m_busy; }
  bool searchingMends() const { return m_searching; }
  /// How far what takes long has come: checks that are done, or findings that are mended, of how
  /// many. Both 0 in its first moments.
  std::size_t done() const { return m_done; }
  std::size_t all() const { return m_all; }

signals:
  void mended(const std::shared_ptr<const Design>& design);
  void changed();  ///< started, a result is there, mends are there, or cancelled
  void advanced(); ///< see done()

private:
  void receive(std::shared_ptr<const Analysis> analysis, bool final);
  void advance(std::size_t done, std::size_t all);
  std::shared_ptr<const Analysis> m_current;
  std::shared_ptr<const Motion> m_lastMotion;
  bool m_busy = false, m_searching = false, m_mending = false;
  std::size_t m_done = 0, m_all = 0;
  NewestWork m_working{this};
};

} // namespace hinge
