// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/design/design.h"
#include <QDateTime>
#include <QList>
#include <QString>

namespace hinge {

/// The copy of one document's unsaved work, kept beside the maker's own files so that it survives a
/// crash. While the program runs it holds a lock on its copy; the lock goes with the process,
/// however that ends, so a copy without a lock is one that a program left behind.
///
/// Three files share a name: the design (.hinge), the path of the file it belongs to (.path,
/// written first) and the lock (.lock). Only their owner may read them.
class SafetyCopy {
public:
  SafetyCopy() = default;
  SafetyCopy(const SafetyCopy&) = delete;
  SafetyCopy& operator=(const SafetyCopy&) = delete;
  ~SafetyCopy(); ///< lets the lock go; the copy stays

  /// Writes or replaces the copy. `originalPath` is empty for a card that was never saved.
  Result<void> write(const Design& design, const QString& originalPath);
  /// Removes the copy: the work is saved, or nothing is left to save.
  void remove();
  bool kept() const { return m_kept; }

  /// A copy that a program left behind.
  struct Left {
    QString file, originalPath;
    QDateTime saved;
  };
  static QString folder();
  static QList<Left> leftBehind(); ///< the newest first
  static void discard(const Left& copy);
  /// Takes a copy that cannot be read out of the way without deleting it; returns its new name.
  static QString setAside(const Left& copy);

private:
  Result<void> claim();
  QString m_file; ///< empty while there is none
  QString m_pathWritten;
  int m_lock = -1;
  bool m_kept = false;
};

} // namespace hinge
