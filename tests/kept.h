// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include <QDir>
#include <QFile>
#include <charconv>
#include <map>
#include <nlohmann/json.hpp>
#include <random>
#endif

namespace hinge::test {

// What cards and edits come to, in numbers that are kept: what a maker has must not change its
// paper, motion, verdicts or plans unseen. Numbers that a wanted change turns red are deleted, not
// kept anew: a property or a short report that a person can read takes their place. What is not
// kept is not compared.

using Numbers = std::map<std::string, double>;

/// By which share they may differ: sight is counted in cells, of which one may fall to either side.
constexpr double kOfNumbers = 1e-8, kOfCells = 1e-3;

/// A place as one number in which no coordinate can stand for another.
inline double one(const Vec2& p) {
  return p.x() + 1.7 * p.y();
}
inline double one(const Vec3& p) {
  return p.x() + 1.7 * p.y() + 2.9 * p.z();
}
inline double one(const Iso3& place) {
  return one(Vec3(place * Vec3(3, 5, 7)));
}
inline double one(const Polygon& polygon) {
  double sum = 0;
  for (const Vec2& corner : polygon)
    sum += one(corner);
  return sum;
}
inline double one(const Region& region) {
  double sum = area_mm2(region) + one(region.rim);
  for (const Polygon& hole : region.holes)
    sum += 1.3 * one(hole);
  return sum;
}
inline double at(std::size_t k) {
  return 1 + 0.37 * static_cast<double>(k % 11);
}
/// Texts as a number, for what is said and not measured.
inline double one(std::string_view text) {
  double sum = 0;
  for (std::size_t k = 0; k < text.size(); ++k)
    sum += at(k) * static_cast<unsigned char>(text[k]);
  return sum;
}
inline double said(const Text& text) {
  double sum = one(text.key);
  for (std::size_t k = 0; k < text.with().size(); ++k)
    sum += at(k + 3) * std::visit(
                           [](const auto& what) -> double {
                             using What = std::remove_cvref_t<decltype(what)>;
                             if constexpr (std::is_same_v<What, int>)
                               return what;
                             else if constexpr (requires { what.value; })
                               return what.value;
                             else if constexpr (requires { what.value_mm; })
                               return what.value_mm;
                             else if constexpr (std::is_same_v<What, Text>)
                               return said(what);
                             else
                               return one(what);
                           },
                           text.with()[k].what);
  return sum;
}
double number(auto index) {
  return static_cast<double>(index.value) + 1;
}

/// A refusal with its place, counted under its key.
inline void addRefused(const std::string& name, const Error& error, double weight, Numbers& n) {
  n[name + ": " + error.message.key] +=
      weight * (1 + 0.1 * error.line + 1e-4 * one(error.place) + 1e-3 * said(error.message));
}

/// The same throws on every machine, which those of the standard library need not be.
class Dice {
public:
  explicit Dice(unsigned seed) : m_random(seed) {}
  double between(double low, double high) { return low + (high - low) * m_random() / 4294967296.0; }
  std::size_t below(std::size_t n) { return static_cast<std::size_t>(between(0, double(n))); }
  bool chance(double share) { return between(0, 1) < share; }
  Vec2 in(const Box2& box, double round_mm) {
    const double x = between(box.low.x() - round_mm, box.high.x() + round_mm);
    return {x, between(box.low.y() - round_mm, box.high.y() + round_mm)};
  }

private:
  std::mt19937 m_random;
};

/// A text as two numbers: its words, and the numbers in it, which may differ in their last digits.
inline void addWritten(const std::string& name, const std::string& text, Numbers& n) {
  double &words = n[name + " words"], &numbers = n[name + " numbers"];
  std::size_t k = 0;
  for (std::size_t at = 0; at < text.size(); ++k) {
    const char* from = text.data() + at;
    double value = 0;
    const auto [end, error] = std::from_chars(from, text.data() + text.size(), value);
    if (error == std::errc() && std::abs(value) < 1e7) {
      numbers += test::at(k) * value;
      at += static_cast<std::size_t>(end - from);
    } else {
      words += test::at(k) * static_cast<unsigned char>(text[at++]);
    }
  }
}

/// The numbers of one program of tests, in tests/data.
class Kept {
public:
  explicit Kept(const char* file) : m_path(QStringLiteral(HINGE_TEST_DATA "/") + file) {
    QFile kept(m_path);
    if (kept.open(QIODevice::ReadOnly))
      m_kept = nlohmann::json::parse(kept.readAll().toStdString());
  }
  /// What differs, one a line; nothing when all is as it was, or is being recorded.
  std::string differences(const std::string& name, const Numbers& now) {
    if (!m_kept.contains(name)) return {};
    const Numbers kept = m_kept[name].get<Numbers>();
    std::string differs;
    for (const auto& [key, value] : now)
      if (const auto was = kept.find(key);
          was != kept.end() &&
          !(std::abs(value - was->second) <=
            (key == "seen" ? kOfCells : kOfNumbers) * std::max(1.0, std::abs(was->second))))
        differs += fmt::format("\n  {}: {:.12g}, kept {:.12g}", key, value, was->second);
    for (const auto& [key, was] : kept)
      if (!now.contains(key)) differs += fmt::format("\n  {}: gone, kept {:.12g}", key, was);
    return differs;
  }

private:
  QString m_path;
  nlohmann::json m_kept = nlohmann::json::object();
};

/// A class of tests that keeps numbers.
class KeptTest : public QObject {
protected:
  explicit KeptTest(const char* file) : m_kept(file) {}
  void compare(const std::string& name, const Numbers& now) {
    const std::string differs = m_kept.differences(name, now);
    QVERIFY2(differs.empty(), (name + differs).c_str());
  }
  /// A row for each card that comes with the program and is wanted.
  template <class Wanted> static void rowsOfDemos(Wanted wanted) {
    QTest::addColumn<QString>("name");
    for (const QString& file : QDir(HINGE_SOURCE_DIR "/demo").entryList({"*.hinge"}))
      if (wanted(file.chopped(6).toStdString())) QTest::newRow(qPrintable(file)) << file.chopped(6);
  }
  static void rowsOfDemos() {
    rowsOfDemos([](const std::string&) { return true; });
  }

private:
  Kept m_kept;
};

} // namespace hinge::test
