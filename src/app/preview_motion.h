// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/newest_work.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/model/snapshot.h"
#endif
#include <QObject>
#include <memory>

namespace hinge {

/// Works out how the card under a stroke moves, on another thread. While one card is being worked
/// out only the newest that was asked for waits: none is left half done, so a pointer that never
/// rests is followed too, a moment late.
class PreviewMotion : public QObject {
  Q_OBJECT
public:
  explicit PreviewMotion(QObject* parent = nullptr) : QObject(parent) {}

  /// Null: the stroke is over, and what was worked out for it is nobody's any more.
  void ask(std::shared_ptr<const Snapshot> snapshot);
  /// The newest card of this stroke whose motion is known; null while there is none.
  std::shared_ptr<const Snapshot> newest() const { return m_newest; }

signals:
  void changed();

private:
  void start();

  std::shared_ptr<const Snapshot> m_begun, m_next, m_newest;
  NewestWork m_working{this}; ///< works m_begun out
};

} // namespace hinge
