// SPDX-License-Identifier: GPL-3.0-or-later
#include "cutter/drag_cutter.h"
#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <sstream>

namespace hinge {
namespace {

constexpr double kUnit_mm = 0.025, kRaised_mms = 400;
/// Of the axis between two places of a trailing tip: much less than the blade is off it.
constexpr double kDragStep_mm = 0.02;
constexpr double kTold_mm = 0.05; ///< between points of a track
constexpr char kEscape = '\x1b';
constexpr int kUnknown = 1, kWrongNumbers = 2, kJam = 20, kOutOfPaper = 21;

double lengthOf(const QPointF& p) {
  return std::hypot(p.x(), p.y());
}

} // namespace

DragCutter::DragCutter(const QSizeF& sheet_mm, double blade_mm, const CutterFaults& faults)
    : m_sheet(sheet_mm), m_blade(blade_mm), m_faults(faults) {}

QPointF DragCutter::real(const QPointF& units) const {
  return {units.x() * kUnit_mm * m_faults.scale.x() + m_faults.offset_mm.x(),
          units.y() * kUnit_mm * m_faults.scale.y() + m_faults.offset_mm.y()};
}

void DragCutter::take(std::string_view text) {
  for (const char c : text)
    takeByte(c);
}

void DragCutter::takeByte(char c) {
  if (c == kEscape || !m_escape.empty()) {
    m_escape += c;
    if (m_escape.size() < 3) return;
    if (m_escape[1] == '.' && m_escape[2] == 'K') m_todo.clear(), m_half.clear(), m_began = false;
    m_escape.clear();
    return;
  }
  const bool letter = std::isalpha(static_cast<unsigned char>(c)) != 0;
  if (letter && m_half.size() >= 2) finishInstruction();
  if (c == ';')
    finishInstruction();
  else if (c != '\n' && c != '\r' && c != ' ')
    m_half += c;
}

void DragCutter::finishInstruction() {
  std::string text;
  text.swap(m_half);
  if (text.empty()) return;
  Instruction made;
  made.name = text.substr(0, 2);
  std::stringstream rest(text.substr(std::min<std::size_t>(2, text.size())));
  std::string number;
  while (std::getline(rest, number, ',')) {
    double value = 0;
    const auto [end, failed] = std::from_chars(number.data(), number.data() + number.size(), value);
    if (failed != std::errc{} || end != number.data() + number.size()) {
      m_error = kWrongNumbers;
      return;
    }
    made.numbers.push_back(value);
  }
  m_todo.push_back(std::move(made));
}

void DragCutter::lineCut() {
  m_half.clear(), m_escape.clear();
}

bool DragCutter::takeLoss() {
  const bool lost = m_lost;
  m_lost = false;
  return lost;
}

std::string DragCutter::takeAnswers() {
  std::string out;
  out.swap(m_answers);
  return out;
}

void DragCutter::lower() {
  if (m_lowered) return;
  m_lowered = true;
  m_tip = real(m_at) - offsetOf(m_tool) * m_heading;
  m_tracks.push_back({m_tool, {m_tip}});
}

/// What an instruction does at once; ways follow.
void DragCutter::begin(const Instruction& now) {
  const auto number = [&](double usual) { return now.numbers.empty() ? usual : now.numbers[0]; };
  if (now.name == "OA")
    m_answers += std::to_string(std::lround(m_at.x())) + "," +
                 std::to_string(std::lround(m_at.y())) + "," + (m_lowered ? "1" : "0") + "\r";
  else if (now.name == "OE") {
    const int fault = m_state == State::Jammed    ? kJam
                      : m_state == State::NoPaper ? kOutOfPaper
                                                  : m_error;
    m_answers += std::to_string(fault) + "\r";
    m_error = 0;
  } else if (now.name == "OS")
    m_answers += std::to_string((m_lowered ? 1 : 0) + (m_state == State::Ready ? 16 : 32)) + "\r";
  else if (m_state != State::Ready)
    return; // until somebody has seen to it, nothing moves
  else if (now.name == "IN")
    m_lowered = false, m_error = 0, m_speed_mms = 200;
  else if (now.name == "SP")
    m_lowered = false, m_tool = static_cast<int>(number(0));
  else if (now.name == "VS")
    m_speed_mms = 10 * std::clamp(number(20), 1.0, 100.0);
  else if (now.name == "PU")
    m_lowered = false;
  else if (now.name == "PD")
    lower();
  else if (now.name != "PA" && now.name != "FS")
    m_error = kUnknown;
}

void DragCutter::leave(const QPointF& tip) {
  auto& points = m_tracks.back().points;
  // Points in between are moved on, so that the end is always where the tip is.
  if (points.size() >= 2 && lengthOf(points.back() - points[points.size() - 2]) < kTold_mm)
    points.back() = tip;
  else
    points.push_back(tip);
}

/// The axis goes straight; the tip is drawn after it at the blade's offset.
void DragCutter::drag(const QPointF& from, const QPointF& to) {
  const double offset = offsetOf(m_tool);
  const int steps = std::max(1, static_cast<int>(std::ceil(lengthOf(to - from) / kDragStep_mm)));
  for (int k = 1; k <= steps; ++k) {
    const QPointF axis = from + (to - from) * k / steps;
    const QPointF pull = axis - m_tip;
    if (offset <= 0) {
      m_tip = axis;
    } else if (lengthOf(pull) > 1e-12) {
      m_heading = pull / lengthOf(pull);
      m_tip = axis - offset * m_heading;
    }
    leave(m_tip);
  }
}

bool DragCutter::move(const QPointF& to, double& seconds) {
  const double whole_mm = lengthOf(to - m_at) * kUnit_mm;
  const double speed = m_lowered ? m_speed_mms : kRaised_mms;
  double way_mm = std::min(whole_mm, speed * seconds);
  const auto stopsAt = [&](std::optional<double>& after) {
    if (!after || m_way_mm + way_mm < *after) return false;
    way_mm = std::max(0.0, *after - m_way_mm);
    after.reset();
    return true;
  };
  if (stopsAt(m_faults.jamAfter_mm)) m_state = State::Jammed;
  if (stopsAt(m_faults.outAfter_mm)) m_state = State::NoPaper;
  if (stopsAt(m_faults.loseLineAfter_mm)) m_lost = true;
  const bool there = way_mm >= whole_mm - 1e-9;
  const QPointF before = m_at;
  m_at = there ? to : m_at + (to - m_at) * (way_mm / whole_mm);
  m_way_mm += way_mm, seconds -= way_mm / speed;
  if (m_lowered) drag(real(before), real(m_at));
  return there;
}

void DragCutter::advance(double seconds) {
  const std::size_t known = m_tracks.size();
  const std::size_t begun = known > 0 ? m_tracks.back().points.size() : 0;
  bool happened = false;
  while (!m_todo.empty() && (seconds > 0 || m_todo.front().numbers.size() < 2)) {
    Instruction& now = m_todo.front();
    if (!m_began) begin(now), m_began = true, happened = true;
    const bool moves = now.name == "PU" || now.name == "PD" || now.name == "PA";
    if (moves && m_state == State::Ready && now.numbers.size() >= 2) {
      happened = true;
      const bool there = move({now.numbers[0], now.numbers[1]}, seconds);
      if (m_state != State::Ready || !there) continue;
      now.numbers.erase(now.numbers.begin(), now.numbers.begin() + 2);
      if (now.numbers.size() >= 2) continue;
    }
    m_began = false;
    m_todo.pop_front();
  }
  if (!happened) return;
  std::ostringstream line;
  line.precision(10);
  for (std::size_t k = known > 0 ? known - 1 : 0; k < m_tracks.size(); ++k) {
    const auto& points = m_tracks[k].points;
    // The last point of an unfinished track may have been moved on: it is told again.
    const std::size_t from = k + 1 == known ? begun - std::min<std::size_t>(1, begun) : 0;
    line << "T " << k << ' ' << m_tracks[k].tool << ' ' << from << ' ' << points.size() - from;
    for (std::size_t at = from; at < points.size(); ++at)
      line << ' ' << points[at].x() << ' ' << points[at].y();
    line << ' ';
  }
  line << "S " << m_at.x() << ' ' << m_at.y() << ' ' << m_heading.x() << ' ' << m_heading.y() << ' '
       << m_tip.x() << ' ' << m_tip.y() << ' ' << m_lowered << ' ' << m_tool << " .\n";
  m_record += line.str();
}

std::string DragCutter::takeRecord() {
  std::string out;
  out.swap(m_record);
  return out;
}

void DragCutter::restore(const std::string& record) {
  std::istringstream lines(record);
  std::string text;
  while (std::getline(lines, text)) {
    if (!text.ends_with(" .")) continue; // was being written when the machine went off
    std::istringstream in(text);
    std::string word;
    while (in >> word && word != ".") {
      if (word == "T") {
        std::size_t track = 0, from = 0, count = 0;
        int tool = 0;
        in >> track >> tool >> from >> count;
        m_tracks.resize(std::max(m_tracks.size(), track + 1));
        m_tracks[track].tool = tool;
        m_tracks[track].points.resize(from + count);
        for (std::size_t k = from; k < from + count; ++k)
          in >> m_tracks[track].points[k].rx() >> m_tracks[track].points[k].ry();
      } else if (word == "S") {
        in >> m_at.rx() >> m_at.ry() >> m_heading.rx() >> m_heading.ry() >> m_tip.rx() >>
            m_tip.ry() >> m_lowered >> m_tool;
      }
    }
  }
}

} // namespace hinge
