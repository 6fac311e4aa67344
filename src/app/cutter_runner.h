// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/sending/talk.h"
#endif
#include <QObject>
#include <QProcess>
#include <QTemporaryDir>
#include <thread>

namespace hinge {

/// Sends jobs to a cutting machine on a thread of its own, one at a time: a job takes minutes,
/// which the window's pool is not for. When this goes, the job ends with the leg that is under way.
class CutterRunner : public QObject {
  Q_OBJECT
public:
  explicit CutterRunner(QObject* parent = nullptr) : QObject(parent) {}

  /// From the start, or from where a job was broken off.
  void send(const CutterJob& job, const QString& device, std::optional<CutterMark> mark);
  /// Starts the simulated machine in a window of its own, which goes with this one; where it is
  /// called, or nothing when it does not lie beside this program.
  QString startSimulated(double width_mm, double height_mm, double blade_mm);
  void setPaused(bool paused) { m_pause = paused; }
  bool paused() const { return m_pause; }
  void stop() { m_thread.request_stop(); }
  bool busy() const { return m_busy; }

signals:
  void progress(double done_mm, double all_mm, int step);
  void ended(); ///< result() is there

public:
  const std::optional<Result<CutterEnd>>& result() const { return m_result; }

private:
  std::atomic<bool> m_pause = false;
  bool m_busy = false;
  std::optional<Result<CutterEnd>> m_result;
  std::unique_ptr<QTemporaryDir> m_folder; ///< of the simulated machine's socket
  std::unique_ptr<QProcess> m_simulated;
  std::jthread m_thread; ///< last: it ends before what it writes to goes
};

} // namespace hinge
