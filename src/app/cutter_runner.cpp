// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/cutter_runner.h"
#include "core/io/cut_mark.h"
#include "core/io/cutter_port.h"
#include <QCoreApplication>
#include <QFileInfo>

namespace hinge {
namespace {

/// Short of what the machine does by itself, nothing is lost when the window closes: the mark is
/// kept before each leg.
Result<CutterEnd> sendAll(const CutterJob& job, const std::string& device,
                          const std::optional<CutterMark>& mark, const CutterControl& control) {
  auto line = openCutter(device);
  if (!line) return line.error();
  const auto ended = runCutter(job, **line, mark, control);
  if (ended && *ended == CutterEnd::Done) forgetCutMark();
  return ended;
}

} // namespace

QString CutterRunner::startSimulated(double width_mm, double height_mm, double blade_mm) {
  const QString program =
      QCoreApplication::applicationDirPath() + QStringLiteral("/hinge-lantern-cutter");
  if (!QFileInfo(program).isExecutable()) return {};
  m_simulated = nullptr; // the one before has another sheet in it
  m_folder = std::make_unique<QTemporaryDir>();
  const QString socket = m_folder->filePath(QStringLiteral("cutter"));
  m_simulated = std::make_unique<QProcess>();
  m_simulated->start(program, {QStringLiteral("--window"), QStringLiteral("--socket"), socket,
                               QStringLiteral("--blade"), QString::number(blade_mm),
                               QStringLiteral("--sheet"),
                               QStringLiteral("%1x%2").arg(width_mm).arg(height_mm)});
  return socket;
}

void CutterRunner::send(const CutterJob& job, const QString& device,
                        std::optional<CutterMark> mark) {
  if (m_busy) return;
  m_pause = false, m_busy = true;
  m_result.reset();
  CutterControl control;
  control.keep = keepCutMark;
  control.pause = &m_pause;
  control.progress = [this](double done, double all, std::size_t step) {
    QMetaObject::invokeMethod(
        this, [this, done, all, step] { emit progress(done, all, static_cast<int>(step)); },
        Qt::QueuedConnection);
  };
  m_thread = std::jthread([this, job, device = device.toStdString(), mark = std::move(mark),
                           control](std::stop_token stop) mutable {
    control.stop = stop;
    const auto result = sendAll(job, device, mark, control);
    QMetaObject::invokeMethod(
        this,
        [this, result] {
          m_busy = false;
          m_result = result;
          emit ended();
        },
        Qt::QueuedConnection);
  });
}

} // namespace hinge
