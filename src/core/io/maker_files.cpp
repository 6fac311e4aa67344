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
Result<void> knownVersion(std::optional<double> version, const std::string& path) {
  if (!version || *version <= kVersion) return {};
  return Error{{"file.version", static_cast<int>(*version), kVersion}, path};
}

/// Reads a file as far as its version, which stands near its beginning: a record of years of work
/// is written after every act and need not be read whole each time.
class VersionOf : public nlohmann::json_sax<Json> {
public:
  std::optional<double> version;

  bool null() override { return true; }
  bool boolean(bool) override { return true; }
  bool number_integer(number_integer_t value) override {
    return number(static_cast<double>(value));
  }
  bool number_unsigned(number_unsigned_t value) override {
    return number(static_cast<double>(value));
  }
  bool number_float(number_float_t value, const string_t&) override { return number(value); }
  bool string(string_t&) override { return true; }
  bool binary(binary_t&) override { return true; }
  bool start_object(std::size_t) override { return ++m_depth, true; }
  bool end_object() override { return --m_depth, true; }
  bool start_array(std::size_t) override { return ++m_depth, true; }
  bool end_array() override { return --m_depth, true; }
  bool key(string_t& name) override {
    m_isVersion = m_depth == 1 && name == "version";
    return true;
  }
  bool parse_error(std::size_t, const std::string&, const nlohmann::detail::exception&) override {
    return false;
  }

private:
  bool number(double value) {
    if (m_isVersion && m_depth == 1) version = value;
    return !version;
  }
  int m_depth = 0;
  bool m_isVersion = false;
};

} // namespace

Result<Json> readMakersFile(const std::string& path, std::string_view format) {
  const auto text = readFile(path);
  if (!text) return text.error();
  Json json = Json::parse(*text, nullptr, false);
  if (!json.is_object() || json.value("format", Json()) != format)
    return Error{{"file.format/kept", format}, path};
  const auto version = json.find("version");
  const bool told = version != json.end() && version->is_number();
  if (const auto known =
          knownVersion(told ? std::optional(version->get<double>()) : std::nullopt, path);
      !known)
    return known.error();
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
    VersionOf reading;
    Json::sax_parse(*old, &reading);
    if (auto known = knownVersion(reading.version, path); !known) return known;
  }
  return writeFile(path, text);
}

} // namespace hinge
