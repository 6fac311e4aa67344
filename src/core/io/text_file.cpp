// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/text_file.h"
#include <QFile>
#include <QSaveFile>
#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <filesystem>
#include <sys/stat.h>
#include <unistd.h>

namespace hinge {
namespace {

namespace fs = std::filesystem;

/// Why something that is no file cannot be one.
Text kindOf(fs::file_type type) {
  switch (type) {
  case fs::file_type::directory: return "file.is/folder";
  case fs::file_type::fifo: return "file.is/pipe";
  case fs::file_type::socket: return "file.is/socket";
  case fs::file_type::character:
  case fs::file_type::block: return "file.is/device";
  default: return "file.is/no-file";
  }
}

constexpr std::size_t kHead_bytes = 1024; ///< of a file, that say what it is

fs::file_type typeOf(const std::string& path) {
  std::error_code ignored;
  return fs::status(path, ignored).type();
}

} // namespace

bool fileExists(const std::string& path) {
  const fs::file_type type = typeOf(path);
  return type != fs::file_type::not_found && type != fs::file_type::none;
}

bool isSameFile(const std::string& a, const std::string& b) {
  std::error_code ignored;
  return fs::equivalent(a, b, ignored);
}

Result<std::string> readFile(const std::string& path) {
  const auto refused = [&](Said why) { return Error{{"file.unreadable", std::move(why)}, path}; };
  // Without O_NONBLOCK the opening of a pipe would wait for somebody who writes.
  const int handle = ::open(path.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC);
  if (handle < 0) return refused(std::strerror(errno));
  QFile file;
  if (!file.open(handle, QIODevice::ReadOnly, QFileDevice::AutoCloseHandle)) {
    ::close(handle);
    return refused(file.errorString().toStdString());
  }
  struct stat facts {};
  if (::fstat(handle, &facts) != 0) return refused(std::strerror(errno));
  if (!S_ISREG(facts.st_mode)) return refused(kindOf(typeOf(path)));
  // One byte more than allowed is asked for: some files have no size until they are read.
  const QByteArray content = file.read(kLargestFile_bytes + 1);
  if (file.error() != QFileDevice::NoError) return refused(file.errorString().toStdString());
  if (content.size() > kLargestFile_bytes) {
    const int most_MB = kLargestFile_bytes / 1024 / 1024;
    return Error{{"file.too-large", most_MB}, path};
  }
  return content.toStdString();
}

std::string kindOfContent(std::string_view content) {
  const std::string_view head = content.substr(0, kHead_bytes);
  const auto has = [&](std::string_view text) { return head.find(text) != std::string_view::npos; };
  if (head.empty()) return {};
  if (head.front() == '{') {
    constexpr std::string_view kFormat = "\"format\": \"";
    const auto at = head.find(kFormat);
    if (at == std::string_view::npos) return has("\"file_spec\"") ? "fold" : "json";
    const std::string_view name = head.substr(at + kFormat.size());
    return std::string(name.substr(0, name.find('"')));
  }
  struct Kind {
    std::string_view key, begins, holds;
  };
  static constexpr Kind kKinds[] = {
      {"png", "\x89PNG", ""}, {"jpeg", "\xff\xd8", ""},           {"pdf", "%PDF", ""},
      {"svg", "<", "<svg"},   {"html", "<!doctype html", ""},     {"obj", "# Hinge Lantern", ""},
      {"hpgl", "IN;", ""},    {"page", "hinge-lantern page", ""}, {"dxf", "", "SECTION"}};
  for (const Kind& kind : kKinds)
    if (head.starts_with(kind.begins) && has(kind.holds)) return std::string(kind.key);
  return "text: " + std::string(head.substr(0, head.find_first_of("\r\n")));
}

Result<void> writeOutput(const std::string& path, std::string_view content, Replaces replaces) {
  if (replaces == Replaces::SameKind && typeOf(path) == fs::file_type::regular) {
    QFile file(QString::fromStdString(path));
    // What cannot be looked at is not known to be of the same kind.
    if (!file.open(QIODevice::ReadOnly)) return Error{"file.other-kind", path};
    const std::string old = file.read(kHead_bytes).toStdString();
    if (!old.empty() && kindOfContent(old) != kindOfContent(content))
      return Error{"file.other-kind", path};
  }
  return writeFile(path, content);
}

Result<std::string> setAside(const std::string& path) {
  std::string to = path + ".damaged";
  for (int number = 2; fileExists(to); ++number)
    to = path + ".damaged-" + std::to_string(number);
  std::error_code error;
  fs::rename(path, to, error);
  if (error) return Error{{"file.unwritable", error.message()}, path};
  return to;
}

Result<void> writeFile(const std::string& path, std::string_view content, FileAccess access) {
  const auto failed = [&](Said why) { return Error{{"file.unwritable", std::move(why)}, path}; };
  const fs::file_type there = typeOf(path);
  if (fileExists(path) && there != fs::file_type::regular) return failed(kindOf(there));
  QSaveFile file(QString::fromStdString(path));
  const auto why = [&] { return file.errorString().toStdString(); };
  if (!file.open(QIODevice::WriteOnly)) return failed(why());
  constexpr auto kOwner = QFile::ReadOwner | QFile::WriteOwner;
  if (access == FileAccess::OwnerOnly && !file.setPermissions(kOwner)) return failed(why());
  const auto size = static_cast<qint64>(content.size());
  if (file.write(content.data(), size) != size) return failed(why());
  // A full disk shows when the buffer is flushed, or only when the disk takes the pages; commit()
  // looks at neither.
  if (!file.flush()) return failed(why());
  if (::fsync(file.handle()) != 0 && errno != EINVAL && errno != ENOTSUP)
    return failed(std::strerror(errno));
  if (!file.commit()) return failed(why());
  return {};
}

} // namespace hinge
