// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/words.h"
#include "words/sentences.h"
#include <QLocale>
#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <unordered_map>

namespace hinge {

const Sentence* Words::find(std::string_view key) {
  static const auto all = [] {
    std::unordered_map<std::string_view, const Sentence*> map;
    for (const auto topic : {parameters(), kinds(), parts(), errors(), findings(), rules(),
                             making(), tables(), commandLine()})
      for (const Sentence& sentence : topic)
        map.emplace(sentence.key, &sentence);
    return map;
  }();
  const auto it = all.find(key);
  return it == all.end() ? nullptr : it->second;
}

QString Words::patternOf(const Sentence& sentence, int count) {
  const QString pattern = tr(sentence.source, nullptr, count);
  if (!sentence.one || count != 1) return pattern;
  // Untranslated it comes back as it is: then English has its own singular.
  const QString source =
      QString::fromUtf8(sentence.source).replace(QLatin1String("%n"), QString::number(count));
  if (pattern != source) return pattern;
  return QString::fromUtf8(sentence.one).replace(QLatin1String("%n"), QString::number(count));
}

QString Words::filled(const QString& pattern, const std::function<QString(const QString&)>& value) {
  QString out;
  for (qsizetype at = 0; at < pattern.size(); ++at) {
    const QChar c = pattern[at];
    const qsizetype close = c == QLatin1Char('{') ? pattern.indexOf(QLatin1Char('}'), at) : -1;
    if (c == QLatin1Char('%') && at + 1 < pattern.size() && pattern[at + 1].isDigit())
      out += value(pattern.mid(++at, 1));
    else if (close > at) {
      out += value(pattern.mid(at + 1, close - at - 1));
      at = close;
    } else
      out += c;
  }
  return out;
}

std::string sayLength(double length_mm, LengthUnit unit) {
  const std::string exact = formatLength(length_mm, unit);
  // What stands on a 64th is a fraction already.
  if (unit != LengthUnit::Inch || exact.find('.') == std::string::npos) return exact;
  constexpr double kMark_mm = kMillimetresPerInch / 16;
  if (std::abs(length_mm) < kMark_mm) return sayThickness(length_mm, unit);
  const double mark_mm = std::round(length_mm / kMark_mm) * kMark_mm;
  return say(Text(std::abs(length_mm) > std::abs(mark_mm) ? "table.mark-over" : "table.mark-under",
                  formatLength(mark_mm, unit)));
}

std::string sayThickness(double thickness_mm, LengthUnit unit) {
  if (unit != LengthUnit::Inch) return formatLength(thickness_mm, LengthUnit::Millimetre);
  constexpr int kThousandths = 3;
  return formatNumber(thickness_mm / kMillimetresPerInch, kThousandths) + " in";
}

namespace {

/// Square centimetres or inches, with as many decimals as tell two such areas apart.
std::string sayArea(double area_mm2, LengthUnit unit) {
  const bool inches = unit == LengthUnit::Inch;
  const double in_mm = inches ? kMillimetresPerInch : 10, area = area_mm2 / (in_mm * in_mm);
  const int decimals = area < (inches ? 1 : 0.1) ? 2 : area < 10 ? 1 : 0;
  return formatNumber(area, decimals) + (inches ? " sq in" : " cm²");
}

std::string sayOffTheRoll(double length_mm, LengthUnit unit) {
  const double step_mm = unit == LengthUnit::Inch ? kMillimetresPerInch / 4 : 1;
  return formatLength(step_mm * std::ceil(length_mm / step_mm - 1e-9), unit);
}

} // namespace

QString Words::said(const Said& one, LengthUnit unit) {
  struct {
    LengthUnit unit;
    QString operator()(int count) const { return QString::number(count); }
    QString operator()(Millimetres length) const {
      return QString::fromStdString(sayLength(length.value, unit));
    }
    QString operator()(SquareMillimetres area) const {
      return QString::fromStdString(sayArea(area.value, unit));
    }
    QString operator()(OffTheRoll length) const {
      return QString::fromStdString(sayOffTheRoll(length.value_mm, unit));
    }
    QString operator()(Degrees angle) const {
      return QString::fromStdString(formatAngle(angle.value));
    }
    QString operator()(Decimal number) const {
      return QString::fromStdString(formatNumber(number.value, number.decimals));
    }
    QString operator()(const std::string& name) const { return QString::fromStdString(name); }
    QString operator()(const Text& text) const { return Words::said(text, unit); }
  } as{unit};
  return std::visit(as, one.what);
}

QString Words::said(const Text& text, LengthUnit unit) {
  const Sentence* sentence = find(text.key);
  if (!sentence) return QString::fromStdString(text.key);
  int count = -1;
  for (const Said& one : text.with())
    if (const int* whole = std::get_if<int>(&one.what)) {
      count = *whole;
      break;
    }
  return filled(patternOf(*sentence, count), [&](const QString& number) {
    const auto k = static_cast<std::size_t>(number.toInt());
    return k > 0 && k <= text.with().size() ? said(text.with()[k - 1], unit) : QString();
  });
}

QString Words::withCapital(QString text) {
  if (!text.isEmpty()) text.replace(0, 1, QLocale().toUpper(text.left(1)));
  return text;
}

std::string say(const Text& text, LengthUnit unit) {
  return Words::said(text, unit).toStdString();
}

std::string saySentence(const Text& text, LengthUnit unit) {
  return Words::withCapital(Words::said(text, unit)).toStdString();
}

namespace {

/// The place of an edit as its maker calls it: "s1.lines[1]" is "s1, line 2". What is no part of a
/// sheet stays as it is.
std::string placeOfEdit(const std::string& place) {
  static constexpr std::pair<std::string_view, const char*> kParts[] = {
      {"sheets[", "place/sheet"},   {"lines[", "place/line"},     {"joints[", "place/joint"},
      {"windows[", "place/window"}, {"outline[", "place/corner"},
  };
  std::string told;
  bool any = false;
  for (std::size_t at = 0; at <= place.size();) {
    const std::size_t end = std::min(place.find('.', at), place.size());
    std::string part = place.substr(at, end - at);
    for (const auto& [begin, key] : kParts)
      if (part.starts_with(begin) && part.ends_with(']')) {
        part = say(Text(key, std::atoi(part.c_str() + begin.size()) + 1));
        any = true;
        break;
      }
    told += (told.empty() ? "" : ", ") + part;
    at = end + 1;
  }
  return any ? told : place;
}

} // namespace

std::string say(const Error& error, LengthUnit unit) {
  Text text = error.message;
  // With a line it is a file, in which the path can be found.
  if (error.line > 0) text = Text("error/line", std::move(text), error.line);
  if (!error.place.empty())
    text = Text("error/place", error.line > 0 ? error.place : placeOfEdit(error.place),
                std::move(text));
  return say(text, unit);
}

} // namespace hinge
