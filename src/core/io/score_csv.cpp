// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/drawing.h"
#include "core/pieces/sheet_scanner.h"
#include <algorithm>
#include <fmt/format.h>

namespace hinge {
namespace {

constexpr std::size_t kMostScores = 800;

/// One line of the list; nothing when it is empty.
class ScoreLine {
public:
  ScoreLine(std::string text, LengthUnit unit) : m_text(std::move(text)), m_in(m_text, unit) {}

  Result<ScorePlace> read(double width_mm) {
    const auto place = m_in.length();
    if (!place) return m_in.lost("length");
    ScorePlace made(*place);
    bool fromRight = false;
    for (bool any = true; any;) {
      any = false;
      m_in.take(",");
      if (m_in.take("valley") || m_in.take("v"))
        made.kind = WorkLine::Kind::Valley, any = true;
      else if (m_in.take("mountain") || m_in.take("m"))
        made.kind = WorkLine::Kind::Mountain, any = true;
      else if (m_in.take("right"))
        fromRight = any = true;
      else if (m_in.take("left"))
        fromRight = false, any = true;
    }
    if (!m_in.atEnd()) return m_in.tooMuch();
    if (fromRight) made.low_mm = width_mm - made.low_mm;
    return made;
  }

private:
  std::string m_text; ///< before the scanner, which looks into it
  SheetScanner m_in;
};

} // namespace

Result<std::vector<ScorePlace>> scoresFromCsv(std::string_view text, LengthUnit unit,
                                              double width_mm) {
  std::vector<ScorePlace> places;
  int number = 0;
  while (!text.empty()) {
    const std::size_t end = std::min(text.find('\n'), text.size());
    std::string line(text.substr(0, end));
    text.remove_prefix(std::min(end + 1, text.size()));
    ++number;
    for (char& c : line) {
      if (c == ';' || c == '\t') c = ',';
      if (c == '\r' || c == '\'') c = ' ';
      c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    }
    if (line.find_first_not_of(" ,") == std::string::npos) continue;
    if (places.empty() && line.find_first_of("0123456789") == std::string::npos) continue;
    const auto place = ScoreLine(std::move(line), unit).read(width_mm);
    if (!place) return Error{place.error().message, fmt::format("line {}", number)};
    places.push_back(*place);
    if (places.size() > kMostScores) return Error{{"drawing.large", kMostScores}, ""};
  }
  if (places.empty()) return Error{"csv.empty", ""};
  std::ranges::stable_sort(places, {}, &ScorePlace::low_mm);
  return places;
}

} // namespace hinge
