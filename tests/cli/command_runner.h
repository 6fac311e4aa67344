// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QFile>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QStringList>

/// The command line as scripts run it.
struct Ran {
  int code;
  QByteArray out, err;
  QJsonObject json() const { return QJsonDocument::fromJson(out).object(); }
};

inline Ran runProcess(QProcess& process, const QString& program, const QStringList& arguments) {
  process.start(program, arguments);
  if (!process.waitForFinished(120000)) return {-1, {}, "did not finish"};
  return {process.exitStatus() == QProcess::NormalExit ? process.exitCode() : -2,
          process.readAllStandardOutput(), process.readAllStandardError()};
}

inline Ran run(const QStringList& arguments) {
  QProcess process;
  return runProcess(process, QStringLiteral(HINGE_CLI), arguments);
}

inline QByteArray bytesOf(const QString& path) {
  QFile file(path);
  return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
}
