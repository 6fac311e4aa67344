// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/piece_sheet.h"
#include "core/pieces/sheet_scanner.h"
#include "core/pieces/sheet_words.h"

// Scores as a list of places from the left end, each with its mark.

namespace hinge {

Result<std::vector<ScorePlace>> scorePlaces(std::string_view list, LengthUnit unit) {
  std::vector<ScorePlace> places;
  SheetScanner in(list, unit);
  if (in.take("none")) return in.atEnd() ? Result(places) : in.tooMuch();
  while (!in.atEnd()) {
    if (in.take(",")) continue;
    const auto place = in.length();
    if (!place) return in.lost("length");
    ScorePlace score(*place);
    if (in.take("valley") || in.take("v"))
      score.kind = WorkLine::Kind::Valley;
    else if (in.take("mountain") || in.take("m"))
      score.kind = WorkLine::Kind::Mountain;
    if (!in.atEnd() && !in.sees(",")) return in.tooMuch();
    places.push_back(score);
  }
  return places;
}

std::string scoreList(const PieceWork& work, LengthUnit unit) {
  std::string list;
  for (const ScoreMark& mark : scoreMarks(work))
    list += (list.empty() ? "" : ", ") + formatLength(mark.low_mm, unit, false) +
            (work.lines[mark.line].kind == WorkLine::Kind::Valley ? " v" : " m");
  return list;
}

} // namespace hinge
