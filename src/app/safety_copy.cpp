// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/safety_copy.h"
#include "core/io/design_json.h"
#include "core/io/text_file.h"
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QStandardPaths>
#include <QUuid>
#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>

namespace hinge {
namespace {

const QString kDesign = QStringLiteral(".hinge"), kPath = QStringLiteral(".path");
const QString kLock = QStringLiteral(".lock"), kDamaged = QStringLiteral(".damaged");

QString beside(const QString& file, const QString& ending) {
  return file.chopped(kDesign.size()) + ending;
}

/// Opens and takes a lock file; -1 when it cannot be opened or somebody holds it.
int lockFile(const QString& name, int flags) {
  const int handle = ::open(QFile::encodeName(name).constData(), flags | O_RDWR | O_CLOEXEC, 0600);
  if (handle < 0) return -1;
  if (::flock(handle, LOCK_EX | LOCK_NB) == 0) return handle;
  ::close(handle);
  return -1;
}

bool isHeld(const QString& file) {
  const QString lock = beside(file, kLock);
  if (!QFile::exists(lock)) return false;
  const int handle = lockFile(lock, 0);
  if (handle < 0) return true;
  ::close(handle);
  return false;
}

} // namespace

SafetyCopy::~SafetyCopy() {
  if (m_lock >= 0) ::close(m_lock);
}

QString SafetyCopy::folder() {
  return QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation) +
         QStringLiteral("/recovery");
}

Result<void> SafetyCopy::claim() {
  if (!m_file.isEmpty()) return {};
  const QString where = folder();
  QDir().mkpath(where);
  QFile::setPermissions(where, QFile::ReadOwner | QFile::WriteOwner | QFile::ExeOwner);
  const QString file =
      where + QLatin1Char('/') + QUuid::createUuid().toString(QUuid::Id128) + kDesign;
  m_lock = lockFile(beside(file, kLock), O_CREAT);
  if (m_lock < 0) return Error{{"file.unwritable", std::strerror(errno)}, where.toStdString()};
  m_file = file;
  return {};
}

Result<void> SafetyCopy::write(const Design& design, const QString& originalPath) {
  if (auto claimed = claim(); !claimed) return claimed;
  const std::string path = originalPath.toStdString(), file = m_file.toStdString();
  // The path first: a copy without it would come back as an unsaved card.
  Result<void> named;
  if (m_pathWritten != originalPath || !m_kept)
    named = writeFile(beside(m_file, kPath).toStdString(), path, FileAccess::OwnerOnly);
  if (named) m_pathWritten = originalPath;
  const Result<void> copied = writeFile(file, designToJson(design), FileAccess::OwnerOnly);
  m_kept = m_kept || copied.ok();
  return copied ? named : copied;
}

void SafetyCopy::remove() {
  if (m_file.isEmpty()) return;
  discard({m_file, {}, {}});
  if (m_lock >= 0) ::close(m_lock);
  m_lock = -1, m_kept = false;
  m_file.clear(), m_pathWritten.clear();
}

QList<SafetyCopy::Left> SafetyCopy::leftBehind() {
  QList<Left> found;
  const QDir where(folder());
  for (const QFileInfo& info : where.entryInfoList({u'*' + kDesign}, QDir::Files, QDir::Time)) {
    if (isHeld(info.filePath())) continue;
    const auto original = readFile(beside(info.filePath(), kPath).toStdString());
    found.append({info.filePath(), original ? QString::fromStdString(*original) : QString(),
                  info.lastModified()});
  }
  // A program that ended before its first copy leaves a lock and a path that belong to nothing.
  for (const QFileInfo& info : where.entryInfoList({u'*' + kLock, u'*' + kPath}, QDir::Files)) {
    const QString file = where.filePath(info.completeBaseName() + kDesign);
    if (!QFile::exists(file) && !isHeld(file)) QFile::remove(info.filePath());
  }
  return found;
}

void SafetyCopy::discard(const Left& copy) {
  for (const QString& ending : {kDesign, kPath, kLock})
    QFile::remove(beside(copy.file, ending));
}

QString SafetyCopy::setAside(const Left& copy) {
  const QString name = beside(copy.file, kDamaged);
  QFile::rename(copy.file, name);
  for (const QString& ending : {kPath, kLock})
    QFile::remove(beside(copy.file, ending));
  return name;
}

} // namespace hinge
