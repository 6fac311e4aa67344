// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/svg_path.h"
#include "core/io/flatten.h"
#include "core/units/length.h"
#include <algorithm>
#include <charconv>
#include <cmath>

namespace hinge {
namespace {

class Numbers {
public:
  explicit Numbers(std::string_view text) : m_text(text) {}

  void skip() {
    while (m_at < m_text.size() &&
           (m_text[m_at] == ' ' || m_text[m_at] == ',' || m_text[m_at] == '\n' ||
            m_text[m_at] == '\t' || m_text[m_at] == '\r'))
      ++m_at;
  }
  bool atEnd() {
    skip();
    return m_at >= m_text.size();
  }
  char peek() { return atEnd() ? '\0' : m_text[m_at]; }
  char take() { return m_text[m_at++]; }
  std::size_t at() const { return m_at; }

  std::optional<double> number() {
    if (atEnd()) return std::nullopt;
    std::size_t from = m_at;
    if (m_text[from] == '+') ++from;
    double value = 0;
    const auto [end, error] =
        std::from_chars(m_text.data() + from, m_text.data() + m_text.size(), value);
    if (error != std::errc() || !std::isfinite(value)) return std::nullopt;
    m_at = static_cast<std::size_t>(end - m_text.data());
    return value;
  }
  /// One digit, which need not be parted from what follows.
  std::optional<bool> flag() {
    if (atEnd() || (m_text[m_at] != '0' && m_text[m_at] != '1')) return std::nullopt;
    return m_text[m_at++] == '1';
  }
  std::optional<Vec2> point() {
    const auto x = number(), y = x ? number() : std::nullopt;
    return y ? std::optional(Vec2(*x, *y)) : std::nullopt;
  }

private:
  std::string_view m_text;
  std::size_t m_at = 0;
};

class Path {
public:
  Path(std::string_view data, double off) : m_in(data), m_off(off) {}

  std::vector<SvgStretch> run(std::optional<std::size_t>& wrong) {
    char command = '\0';
    while (!m_in.atEnd()) {
      const char next = m_in.peek();
      if (std::isalpha(static_cast<unsigned char>(next)))
        command = m_in.take();
      else if (command == '\0')
        return stop(wrong);
      if (!step(command)) return stop(wrong);
      // Further pairs after a move are lines.
      if (command == 'M') command = 'L';
      if (command == 'm') command = 'l';
      // What stands behind a closed path needs a word of its own.
      if (command == 'Z' || command == 'z') command = '\0';
    }
    finish();
    return std::move(m_made);
  }

private:
  std::vector<SvgStretch> stop(std::optional<std::size_t>& wrong) {
    wrong = m_in.at();
    finish();
    return std::move(m_made);
  }
  void finish() {
    if (m_now.points.size() > 1) m_made.push_back(std::move(m_now));
    m_now = {};
  }
  std::optional<Vec2> target(bool relative) {
    const auto p = m_in.point();
    return p && relative ? std::optional<Vec2>(*p + m_here) : p;
  }
  void begin() {
    if (m_now.points.empty()) m_now.points.push_back(m_here);
  }
  void lineTo(const Vec2& p) {
    begin();
    m_now.points.push_back(p);
    m_here = m_lastControl = p;
  }
  void cubicTo(const Vec2& b, const Vec2& c, const Vec2& d) {
    begin();
    addCubic(m_now.points, m_here, b, c, d, m_off);
    m_here = d;
  }

  bool step(char command) {
    const bool relative = std::islower(static_cast<unsigned char>(command));
    switch (std::toupper(static_cast<unsigned char>(command))) {
    case 'M': return move(relative);
    case 'L': return line(relative);
    case 'H': return along(relative, 0);
    case 'V': return along(relative, 1);
    case 'C': return cubic(relative, false);
    case 'S': return cubic(relative, true);
    case 'Q': return square(relative, false);
    case 'T': return square(relative, true);
    case 'A': return arc(relative);
    case 'Z': return close();
    default: return false;
    }
  }
  bool move(bool relative) {
    const auto p = target(relative);
    if (!p) return false;
    finish();
    m_here = m_start = m_lastControl = *p;
    m_curve = '\0';
    return true;
  }
  bool line(bool relative) {
    const auto p = target(relative);
    if (!p) return false;
    lineTo(*p);
    m_curve = '\0';
    return true;
  }
  bool along(bool relative, int axis) {
    const auto value = m_in.number();
    if (!value) return false;
    Vec2 p = m_here;
    p[axis] = relative ? p[axis] + *value : *value;
    lineTo(p);
    m_curve = '\0';
    return true;
  }
  bool cubic(bool relative, bool smooth) {
    const auto b =
        smooth ? std::optional<Vec2>(m_curve == 'C' ? Vec2(2 * m_here - m_lastControl) : m_here)
               : target(relative);
    const auto c = b ? target(relative) : std::nullopt, d = c ? target(relative) : std::nullopt;
    if (!d) return false;
    cubicTo(*b, *c, *d);
    m_lastControl = *c, m_curve = 'C';
    return true;
  }
  bool square(bool relative, bool smooth) {
    const auto b =
        smooth ? std::optional<Vec2>(m_curve == 'Q' ? Vec2(2 * m_here - m_lastControl) : m_here)
               : target(relative);
    const auto d = b ? target(relative) : std::nullopt;
    if (!d) return false;
    const Vec2 from = m_here;
    cubicTo(from + 2.0 / 3 * (*b - from), *d + 2.0 / 3 * (*b - *d), *d);
    m_lastControl = *b, m_curve = 'Q';
    return true;
  }
  /// From the end points to the middle, as in the implementation notes of the format.
  bool arc(bool relative) {
    const auto radii = m_in.point();
    const auto tilt = radii ? m_in.number() : std::nullopt;
    const auto large = tilt ? m_in.flag() : std::nullopt,
               sweep = large ? m_in.flag() : std::nullopt;
    const auto end = sweep ? target(relative) : std::nullopt;
    if (!end) return false;
    m_curve = '\0';
    double rx = std::abs(radii->x()), ry = std::abs(radii->y());
    if (rx < 1e-12 || ry < 1e-12) return lineTo(*end), true;
    const double phi = radians(*tilt);
    const Vec2 u(std::cos(phi), std::sin(phi)), v(-u.y(), u.x());
    const Vec2 half = 0.5 * (m_here - *end);
    const double x = u.dot(half), y = v.dot(half);
    const double grow = x * x / (rx * rx) + y * y / (ry * ry);
    if (grow > 1) rx *= std::sqrt(grow), ry *= std::sqrt(grow);
    const double den = rx * rx * y * y + ry * ry * x * x;
    if (den < 1e-18) return lineTo(*end), true;
    const double root = std::sqrt(std::max(0.0, rx * rx * ry * ry / den - 1));
    const double sign = *large == *sweep ? -1 : 1;
    const double cx = sign * root * rx * y / ry, cy = -sign * root * ry * x / rx;
    const Vec2 middle = 0.5 * (m_here + *end) + cx * u + cy * v;
    const double from = std::atan2((y - cy) / ry, (x - cx) / rx);
    double turn = std::atan2((-y - cy) / ry, (-x - cx) / rx) - from;
    if (*sweep && turn < 0) turn += 2 * kPi;
    if (!*sweep && turn > 0) turn -= 2 * kPi;
    begin();
    addArc(m_now.points, middle, rx * u, ry * v, from, from + turn, m_off);
    m_now.points.back() = *end;
    m_here = m_lastControl = *end;
    return true;
  }
  bool close() {
    if (m_now.points.size() > 1) {
      m_now.closed = true;
      if ((m_now.points.back() - m_now.points.front()).norm() < 1e-9) m_now.points.pop_back();
    }
    finish();
    m_here = m_lastControl = m_start;
    m_curve = '\0';
    return true;
  }

  Numbers m_in;
  double m_off;
  Vec2 m_here = Vec2::Zero(), m_start = Vec2::Zero(), m_lastControl = Vec2::Zero();
  char m_curve = '\0'; ///< what the last control point belongs to
  SvgStretch m_now;
  std::vector<SvgStretch> m_made;
};

} // namespace

std::vector<SvgStretch> svgPath(std::string_view data, double off,
                                std::optional<std::size_t>& wrong) {
  wrong.reset();
  return Path(data, off).run(wrong);
}

std::vector<double> svgNumbers(std::string_view text) {
  Numbers in(text);
  std::vector<double> all;
  while (const auto value = in.number())
    all.push_back(*value);
  return all;
}

SvgMap SvgMap::operator*(const SvgMap& in) const {
  return {a * in.a + c * in.b, b * in.a + d * in.b,     a * in.c + c * in.d,
          b * in.c + d * in.d, a * in.e + c * in.f + e, b * in.e + d * in.f + f};
}

double SvgMap::scale() const {
  return std::max(std::hypot(a, b), std::hypot(c, d));
}

std::optional<SvgMap> svgTransform(std::string_view text) {
  SvgMap all;
  while (true) {
    const std::size_t name = text.find_first_not_of(" ,\t\r\n");
    if (name == std::string_view::npos) return all;
    const std::size_t open = text.find('(', name), shut = text.find(')', name);
    if (open == std::string_view::npos || shut == std::string_view::npos || shut < open)
      return std::nullopt;
    std::string_view word = text.substr(name, open - name);
    word = word.substr(0, word.find_last_not_of(" \t\r\n") + 1);
    const auto n = svgNumbers(text.substr(open + 1, shut - open - 1));
    SvgMap one;
    if (word == "matrix" && n.size() == 6)
      one = {n[0], n[1], n[2], n[3], n[4], n[5]};
    else if (word == "translate" && (n.size() == 1 || n.size() == 2))
      one = {1, 0, 0, 1, n[0], n.size() > 1 ? n[1] : 0};
    else if (word == "scale" && (n.size() == 1 || n.size() == 2))
      one = {n[0], 0, 0, n.size() > 1 ? n[1] : n[0], 0, 0};
    else if (word == "rotate" && (n.size() == 1 || n.size() == 3)) {
      const double t = radians(n[0]);
      one = {std::cos(t), std::sin(t), -std::sin(t), std::cos(t), 0, 0};
      if (n.size() == 3)
        one = SvgMap{1, 0, 0, 1, n[1], n[2]} * one * SvgMap{1, 0, 0, 1, -n[1], -n[2]};
    } else if (word == "skewX" && n.size() == 1)
      one = {1, 0, std::tan(radians(n[0])), 1, 0, 0};
    else if (word == "skewY" && n.size() == 1)
      one = {1, std::tan(radians(n[0])), 0, 1, 0, 0};
    else
      return std::nullopt;
    all = all * one;
    text.remove_prefix(shut + 1);
  }
}

} // namespace hinge
