// SPDX-License-Identifier: GPL-3.0-or-later
#include "cutter/bed.h"
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <pty.h>
#include <sys/socket.h>
#include <sys/un.h>
#include <unistd.h>

namespace hinge {
namespace {

constexpr int kTick_ms = 5;
constexpr QColor kSheet(0xfb, 0xf6, 0xea), kEdge(0x8d, 0x92, 0x94), kCut(0x1d, 0x27, 0x33),
    kScore(0xa3, 0x47, 0x2f), kHolder(0x2f, 0x6f, 0x73);

bool named(sockaddr_un& name, const QByteArray& path) {
  name.sun_family = AF_UNIX;
  if (path.size() >= static_cast<qsizetype>(sizeof name.sun_path)) return false;
  std::memcpy(name.sun_path, path.constData(), static_cast<std::size_t>(path.size()));
  return true;
}

} // namespace

Bed::Bed(const QSizeF& sheet_mm, double blade_mm, const CutterFaults& faults, double timesFaster,
         QObject* parent)
    : QObject(parent), m_sheet(sheet_mm), m_blade(blade_mm), m_cutter(sheet_mm, blade_mm, faults),
      m_timesFaster(timesFaster) {
  connect(&m_timer, &QTimer::timeout, this, &Bed::tick);
  m_clock.start();
  m_timer.start(kTick_ms);
}

Bed::~Bed() {
  closeLine();
  if (m_listens >= 0) ::close(m_listens);
  if (m_terminal >= 0) ::close(m_terminal);
  if (!m_socketPath.isEmpty()) QFile::remove(m_socketPath);
}

bool Bed::listenAt(const QString& path) {
  const QByteArray file = QFile::encodeName(path);
  sockaddr_un name{};
  if (!named(name, file)) return false;
  const int trial = socket(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0);
  // Only a socket at which nobody listens any more is taken away.
  if (::connect(trial, reinterpret_cast<sockaddr*>(&name), sizeof name) != 0 &&
      errno == ECONNREFUSED)
    ::unlink(file.constData());
  ::close(trial);
  m_listens = socket(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC | SOCK_NONBLOCK, 0);
  if (::bind(m_listens, reinterpret_cast<sockaddr*>(&name), sizeof name) != 0 ||
      ::listen(m_listens, 1) != 0)
    return false;
  m_socketPath = path;
  m_calls = std::make_unique<QSocketNotifier>(m_listens, QSocketNotifier::Read);
  connect(m_calls.get(), &QSocketNotifier::activated, this, &Bed::accept);
  return true;
}

QString Bed::openTerminal() {
  char name[256] = {};
  // The other end stays open here too, so that a caller who goes does not end the terminal.
  if (openpty(&m_line, &m_terminal, name, nullptr, nullptr) != 0) return {};
  termios ways{};
  tcgetattr(m_terminal, &ways);
  cfmakeraw(&ways);
  tcsetattr(m_terminal, TCSANOW, &ways);
  fcntl(m_line, F_SETFL, O_NONBLOCK);
  m_reads = std::make_unique<QSocketNotifier>(m_line, QSocketNotifier::Read);
  connect(m_reads.get(), &QSocketNotifier::activated, this, &Bed::readLine);
  return QString::fromLocal8Bit(name);
}

bool Bed::remember(const QString& path) {
  m_memory.setFileName(path);
  if (m_memory.exists()) {
    if (!m_memory.open(QIODevice::ReadOnly)) return false;
    m_cutter.restore(m_memory.readAll().toStdString());
    m_memory.close();
  }
  return m_memory.open(QIODevice::Append | QIODevice::Unbuffered);
}

void Bed::accept() {
  const int line = ::accept4(m_listens, nullptr, nullptr, SOCK_NONBLOCK | SOCK_CLOEXEC);
  if (line < 0) return;
  closeLine();
  m_line = line;
  m_reads = std::make_unique<QSocketNotifier>(m_line, QSocketNotifier::Read);
  connect(m_reads.get(), &QSocketNotifier::activated, this, &Bed::readLine);
}

void Bed::closeLine() {
  if (m_line < 0) return;
  m_reads.reset();
  ::close(m_line);
  m_line = -1;
  m_cutter.lineCut();
}

void Bed::readLine() {
  char text[4096];
  const ssize_t got = ::read(m_line, text, sizeof text);
  if (got > 0)
    m_cutter.take({text, static_cast<std::size_t>(got)});
  else if (m_terminal < 0 && (got == 0 || (errno != EAGAIN && errno != EINTR)))
    closeLine();
}

void Bed::tick() {
  m_cutter.advance(m_timesFaster * static_cast<double>(m_clock.restart()) / 1000);
  // What has been cut is on disk before anybody hears of it.
  const std::string record = m_cutter.takeRecord();
  if (!record.empty() && m_memory.isOpen())
    m_memory.write(record.data(), static_cast<qint64>(record.size()));
  const std::string answers = m_cutter.takeAnswers();
  if (m_cutter.takeLoss()) doAtMachine(QStringLiteral("lose"));
  if (m_line >= 0 && !answers.empty() && ::write(m_line, answers.data(), answers.size()) < 0 &&
      m_terminal < 0)
    closeLine();
  if (!record.empty()) emit changed();
}

bool Bed::doAtMachine(const QString& what) {
  if (what == QStringLiteral("clear"))
    m_cutter.clear();
  else if (what == QStringLiteral("jam"))
    m_cutter.jam();
  else if (what == QStringLiteral("no-paper"))
    m_cutter.runOut();
  else if (what == QStringLiteral("lose"))
    m_terminal < 0 ? closeLine() : m_cutter.lineCut();
  else if (what == QStringLiteral("new-sheet")) {
    m_cutter = DragCutter(m_sheet, m_blade, {});
    if (m_memory.isOpen()) m_memory.resize(0);
  } else
    return false;
  emit changed();
  return true;
}

QString Bed::says() const {
  switch (m_cutter.state()) {
  case DragCutter::State::Jammed: return tr("Jammed: free the sheet, then clear");
  case DragCutter::State::NoPaper: return tr("Out of paper: put a sheet in, then clear");
  case DragCutter::State::Ready: break;
  }
  return m_cutter.idle() ? tr("Ready") : tr("Cutting");
}

QImage Bed::picture(double pixelsPerMm) const {
  constexpr int kBorder = 12;
  QImage image((m_sheet * pixelsPerMm).toSize() + QSize(2 * kBorder, 2 * kBorder),
               QImage::Format_ARGB32_Premultiplied);
  image.fill(QColor(0xd9, 0xdd, 0xdc));
  QPainter painter(&image);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.translate(kBorder, kBorder + m_sheet.height() * pixelsPerMm);
  painter.scale(pixelsPerMm, -pixelsPerMm);
  painter.fillRect(QRectF(QPointF(), m_sheet), kSheet);
  painter.setPen(QPen(kEdge, 0));
  painter.drawRect(QRectF(QPointF(), m_sheet));
  for (const CutterTrack& track : m_cutter.tracks()) {
    painter.setPen(track.tool == 2 ? QPen(kCut, 0.35) : QPen(kScore, 0.5, Qt::DotLine));
    painter.drawPolyline(track.points.data(), static_cast<int>(track.points.size()));
  }
  painter.setPen(QPen(kHolder, 0.4));
  painter.setBrush(m_cutter.lowered() ? QBrush(kHolder) : QBrush(Qt::NoBrush));
  painter.drawEllipse(m_cutter.axis(), 2.2, 2.2);
  return image;
}

} // namespace hinge
