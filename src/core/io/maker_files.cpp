// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/maker_files.h"
#include "core/io/json_reader.h"
#include "core/io/text_file.h"
#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>

namespace hinge {

std::string makersFile(std::string_view name) {
  return QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation).toStdString() +
         "/hinge-lantern/" + std::string(name);
}

Result<Json> readMakersFile(const std::string& path, std::string_view format) {
  const auto text = readFile(path);
  if (!text) return text.error();
  Json json = Json::parse(*text, nullptr, false);
  if (!json.is_object() || json.value("format", Json()) != format)
    return Error{{"file.format/kept", format}, path};
  return json;
}

FileLock holdMakersFiles() {
  const std::string folder = makersFile("");
  QDir().mkpath(QString::fromStdString(folder));
  return FileLock::of(folder);
}

Result<void> writeMakersFile(const std::string& path, const std::string& text) {
  if (!QDir().mkpath(QFileInfo(QString::fromStdString(path)).path()))
    return Error{"file.unwritable/folder", path};
  return writeFile(path, text);
}

} // namespace hinge
