// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QApplication>
#include <QElapsedTimer>
#include <QEvent>
#include <QString>
#include <ctime>
#include <vector>

namespace hinge::test {

/// An application that notes how long each event keeps the interface thread at work. Processor time
/// of the thread is counted, not the clock: other work on the machine must not look like a freeze.
class RecordingApplication : public QApplication {
public:
  using QApplication::QApplication;

  struct Stall {
    double ms = 0;
    QString what; ///< event and receiver
  };
  bool notify(QObject* receiver, QEvent* event) override {
    // Inside of an event only painting is told apart: a window paints all it holds in one go.
    if (m_depth > 0 && event->type() != QEvent::Paint) return QApplication::notify(receiver, event);
    const auto type = event->type();
    // The receiver may be gone afterwards.
    const QString name = QString::fromLatin1(receiver->metaObject()->className());
    ++m_depth;
    const double from = threadTime_ms();
    const bool taken = QApplication::notify(receiver, event);
    const double took = threadTime_ms() - from;
    --m_depth;
    if (m_depth > 0) {
      if (took > m_painted.ms) m_painted = {took, name};
      return taken;
    }
    if (took > m_longest.ms)
      m_longest = {took, QStringLiteral("event %1 to %2, %3 ms of it painting a %4")
                             .arg(static_cast<int>(type))
                             .arg(name)
                             .arg(m_painted.ms)
                             .arg(m_painted.what)};
    m_painted = {};
    return taken;
  }
  void restart() { m_longest = {}; }
  const Stall& longest() const { return m_longest; }

private:
  static double threadTime_ms() {
    timespec now{};
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &now);
    return 1e3 * static_cast<double>(now.tv_sec) + 1e-6 * static_cast<double>(now.tv_nsec);
  }
  int m_depth = 0;
  Stall m_longest, m_painted;
};

} // namespace hinge::test
