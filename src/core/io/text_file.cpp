#include "core/io/text_file.h"
#include <QFile>
#include <QFileInfo>
#include <QSaveFile>
#include <fmt/format.h>

namespace hinge {

Result<std::string> readFile(const std::string& path) {
  const QString name = QString::fromStdString(path);
  if (QFileInfo(name).isDir()) return Error{"file.unreadable", "is a folder, not a file", path};
  QFile file(name);
  if (!file.open(QIODevice::ReadOnly)) return Error{"file.unreadable", file.errorString().toStdString(), path};
  if (file.size() > kLargestFile_bytes)
    return Error{"file.too-large", fmt::format("is larger than {} MB", kLargestFile_bytes / 1024 / 1024), path};
  return file.readAll().toStdString();
}

Result<void> writeFile(const std::string& path, std::string_view content) {
  QSaveFile file(QString::fromStdString(path));
  const auto failed = [&] { return Error{"file.unwritable", fmt::format("cannot be written: {}", file.errorString().toStdString()), path}; };
  if (!file.open(QIODevice::WriteOnly)) return failed();
  if (file.write(content.data(), static_cast<qint64>(content.size())) != static_cast<qint64>(content.size())) return failed();
  if (!file.commit()) return failed();
  return {};
}

} // namespace hinge
