// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/cutter_port.h"
#include "core/io/file_lock.h"
#include "core/io/maker_files.h"
#include "core/io/text_file.h"
#include <cerrno>
#include <chrono>
#include <cstring>
#include <fcntl.h>
#include <filesystem>
#include <functional>
#include <poll.h>
#include <sys/socket.h>
#include <sys/stat.h>
#include <sys/un.h>
#include <termios.h>
#include <unistd.h>

namespace hinge {
namespace {

using Clock = std::chrono::steady_clock;
constexpr int kSendPatience_ms = 5000;
constexpr std::size_t kLongestAnswer = 4096;

int left_ms(Clock::time_point until) {
  const auto left =
      std::chrono::duration_cast<std::chrono::milliseconds>(until - Clock::now()).count();
  return static_cast<int>(std::max<long long>(0, left));
}

/// A file descriptor that is written to and read from with patience that ends.
class PortLine : public CutterLine {
public:
  PortLine(int port, std::string path, bool socket, FileLock hold)
      : m_port(port), m_path(std::move(path)), m_socket(socket), m_hold(std::move(hold)) {}
  PortLine(const PortLine&) = delete;
  PortLine& operator=(const PortLine&) = delete;
  ~PortLine() override { close(m_port); }

  Result<void> send(std::string_view text) override {
    const auto until = Clock::now() + std::chrono::milliseconds(kSendPatience_ms);
    while (!text.empty()) {
      const ssize_t sent = m_socket ? ::send(m_port, text.data(), text.size(), MSG_NOSIGNAL)
                                    : write(m_port, text.data(), text.size());
      if (sent > 0) {
        text.remove_prefix(static_cast<std::size_t>(sent));
        continue;
      }
      if (sent < 0 && errno == EINTR) continue;
      if (sent < 0 && errno != EAGAIN && errno != EWOULDBLOCK) return Error{"cutter.lost", m_path};
      pollfd waits{m_port, POLLOUT, 0};
      if (poll(&waits, 1, left_ms(until)) == 0) return Error{"cutter.silent", m_path};
    }
    return {};
  }

  Result<std::string> answer(int patience_ms) override {
    const auto until = Clock::now() + std::chrono::milliseconds(patience_ms);
    for (;;) {
      if (const auto end = m_read.find_first_of("\r\n"); end != std::string::npos) {
        std::string line = m_read.substr(0, end);
        m_read.erase(0, end + 1);
        if (!line.empty()) return line;
        continue;
      }
      if (m_read.size() > kLongestAnswer)
        return Error{{"cutter.answer", m_read.substr(0, 40)}, m_path};
      pollfd waits{m_port, POLLIN, 0};
      const int ready = poll(&waits, 1, left_ms(until));
      if (ready < 0 && errno == EINTR) continue;
      if (ready == 0) return Error{"cutter.silent", m_path};
      char text[512];
      const ssize_t got = read(m_port, text, sizeof text);
      if (got > 0)
        m_read.append(text, static_cast<std::size_t>(got));
      else if (got == 0 || (errno != EAGAIN && errno != EINTR))
        return Error{"cutter.lost", m_path};
    }
  }

private:
  int m_port;
  std::string m_path, m_read;
  bool m_socket;
  FileLock m_hold; ///< nobody else sends to it meanwhile
};

/// Holds a machine for as long as somebody sends to it: two senders at once would spoil the sheet.
/// False when somebody else does. Where nothing can be kept nothing is held: how far a cut has come
/// cannot be kept there either, and that is told.
bool holdMachine(const std::string& path, FileLock& hold) {
  std::error_code ignored;
  const std::string real = std::filesystem::weakly_canonical(path, ignored).string();
  const std::string name =
      makersFile("cutter-" + std::to_string(std::hash<std::string>()(real)) + ".lock");
  if (!fileExists(name))
    if (auto made = writeMakersFile(name, ""); !made) return true;
  hold = FileLock::tryOf(name);
  return hold.holds();
}

Result<int> connected(const std::string& path) {
  sockaddr_un name{};
  name.sun_family = AF_UNIX;
  if (path.size() >= sizeof name.sun_path) return Error{"cutter.gone", path};
  std::memcpy(name.sun_path, path.data(), path.size());
  const int port = socket(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0);
  if (port < 0) return Error{"cutter.gone", path};
  if (connect(port, reinterpret_cast<const sockaddr*>(&name), sizeof name) != 0) {
    close(port);
    return Error{"cutter.gone", path};
  }
  fcntl(port, F_SETFL, O_NONBLOCK);
  return port;
}

/// A terminal without echo, or any change of what goes through it.
Result<int> openedTerminal(const std::string& path) {
  const int port = open(path.c_str(), O_RDWR | O_NOCTTY | O_NONBLOCK | O_CLOEXEC);
  if (port < 0) return Error{"cutter.gone", path};
  termios ways{};
  if (tcgetattr(port, &ways) != 0) {
    close(port);
    return Error{"cutter.no-device", path};
  }
  cfmakeraw(&ways);
  cfsetspeed(&ways, B9600);
  tcsetattr(port, TCSANOW, &ways);
  tcflush(port, TCIOFLUSH);
  return port;
}

} // namespace

Result<std::unique_ptr<CutterLine>> openCutter(const std::string& path) {
  struct stat what {};
  if (stat(path.c_str(), &what) != 0) return Error{"cutter.gone", path};
  const bool socket = S_ISSOCK(what.st_mode);
  if (!socket && !S_ISCHR(what.st_mode)) return Error{"cutter.no-device", path};
  FileLock hold;
  if (!holdMachine(path, hold)) return Error{"cutter.busy", path};
  const auto port = socket ? connected(path) : openedTerminal(path);
  if (!port) return port.error();
  return std::unique_ptr<CutterLine>(
      std::make_unique<PortLine>(*port, path, socket, std::move(hold)));
}

} // namespace hinge
