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

namespace {

constexpr int kVersion = 1; ///< of all of them, so far

/// A file of a later program may say more than this one knows: it is not read, nor written anew.
Result<void> knownVersion(const Json& json, const std::string& path) {
  const auto version = json.find("version");
  if (version == json.end() || !version->is_number() || version->get<double>() <= kVersion)
    return {};
  return Error{{"file.version", static_cast<int>(version->get<double>()), kVersion}, path};
}

} // namespace

Result<Json> readMakersFile(const std::string& path, std::string_view format) {
  const auto text = readFile(path);
  if (!text) return text.error();
  Json json = Json::parse(*text, nullptr, false);
  if (!json.is_object() || json.value("format", Json()) != format)
    return Error{{"file.format/kept", format}, path};
  if (const auto known = knownVersion(json, path); !known) return known.error();
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
  if (const auto old = fileExists(path) ? readFile(path) : Result<std::string>(""); old) {
    const Json json = Json::parse(*old, nullptr, false);
    if (json.is_object())
      if (auto known = knownVersion(json, path); !known) return known;
  }
  return writeFile(path, text);
}

} // namespace hinge
