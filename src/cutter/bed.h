// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "cutter/drag_cutter.h"
#include <QElapsedTimer>
#include <QFile>
#include <QImage>
#include <QObject>
#include <QSocketNotifier>
#include <QTimer>
#include <memory>

namespace hinge {

/// The simulated machine on its line: a local socket or a pseudo-terminal, a clock, and a file in
/// which its sheet outlives it.
class Bed : public QObject {
  Q_OBJECT
public:
  Bed(const QSizeF& sheet_mm, double blade_mm, const CutterFaults& faults, double timesFaster,
      QObject* parent = nullptr);
  ~Bed() override;

  /// Waits for one caller at a time at a local socket; what is left of an ended run is replaced.
  bool listenAt(const QString& path);
  /// Opens a pseudo-terminal and returns the name under which it is called; empty: not possible.
  QString openTerminal();
  /// Keeps the sheet there, and goes on with the one that is there.
  bool remember(const QString& path);

  /// "clear", "jam", "no-paper", "lose", "new-sheet": what a hand does at the machine.
  bool doAtMachine(const QString& what);
  const DragCutter& cutter() const { return m_cutter; }
  QImage picture(double pixelsPerMm) const;
  QString says() const; ///< its state in a few words

signals:
  void changed();

private:
  void tick();
  void accept();
  void readLine();
  void closeLine();

  QSizeF m_sheet;
  double m_blade;
  DragCutter m_cutter;
  double m_timesFaster;
  QTimer m_timer;
  QElapsedTimer m_clock;
  QFile m_memory;
  QString m_socketPath;
  int m_listens = -1, m_line = -1, m_terminal = -1;
  std::unique_ptr<QSocketNotifier> m_calls, m_reads;
};

} // namespace hinge
