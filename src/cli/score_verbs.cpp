// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/options.h"
#include "core/edits/edits.h"
#include "core/edits/sheet.h"
#include "core/io/design_json.h"
#include "core/model/snapshot.h"
#include "core/structures/names.h"
#include "words/words.h"
#include <algorithm>
#include <fmt/format.h>

// The verb that lists the scores of a piece, or takes them anew.

namespace hinge {
namespace {

Text lineName(const WorkLine& line) {
  return "line." + std::string(workKey(line.kind)) + "/short";
}

/// Scores from edge to edge by their place; of all other lines both ends.
void printScores(const Design& d, const PieceWork& work) {
  std::vector<char> printed(work.lines.size(), 0);
  for (const ScoreMark& mark : scoreMarks(work)) {
    const bool slanted = std::abs(mark.low_mm - mark.high_mm) > 1e-6;
    Text line = lineName(work.lines[mark.line]);
    if (slanted) line = Text("cli.score-above", std::move(line), Millimetres{mark.high_mm});
    fmt::print("{:>12}  {}\n", formatLength(mark.low_mm, d.settings.unit),
               say(line, d.settings.unit));
    printed[mark.line] = 1;
  }
  const Vec2 corner = boundsOf(work.outline).low;
  const auto point = [&](const Vec2& p) {
    return fmt::format("{} / {}", formatLength(p.x() - corner.x(), d.settings.unit),
                       formatLength(p.y() - corner.y(), d.settings.unit));
  };
  for (std::size_t k = 0; k < work.lines.size(); ++k)
    if (const WorkLine& line = work.lines[k]; !printed[k])
      fmt::print("{:>12}  {}\n", say("cli.partly"),
                 say(Text{"cli.from-to", lineName(line), point(line.from), point(line.to)}));
}

/// All pieces of a structure, or of the base; each by its name where there are several.
int printPieces(const Design& d, std::optional<StructureId> owner) {
  const Snapshot snapshot(d);
  const auto assembled = snapshot.assembly();
  if (!assembled) return refuse(assembled.error(), d.settings.unit);
  const Assembly& assembly = **assembled;
  const auto own = [&](const Piece& piece) { return piece.owner == owner; };
  const auto count = std::ranges::count_if(assembly.pieces, own);
  for (PieceIndex p : assembly.pieces.indices()) {
    if (!own(assembly.pieces[p])) continue;
    if (count > 1) fmt::print("{}\n", say(pieceName(d, assembly, p)));
    printScores(d, workOf(assembly, assembly.pieces[p]));
  }
  return kFine;
}

} // namespace

int scoresOf(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const LengthUnit unit = d->settings.unit;
  std::optional<StructureId> owner;
  if (o.id != "card") {
    const auto id = idIn(*d, o.id);
    if (!id) return refuse(id.error(), unit);
    owner = *id;
  }
  const StructureItem* item = owner ? d->find(*owner) : nullptr;
  const bool free = item && item->work;
  if (o.sets.empty()) {
    if (!free) return printPieces(*d, owner);
    printScores(*d, *item->work);
    return kFine;
  }
  if (!free) return refuse({owner ? "work.missing/no-piece" : "work.missing/base", o.id});
  std::string list;
  for (const std::string& part : o.sets)
    list += (list.empty() ? "" : ", ") + part;
  const auto places = scorePlaces(list, unit);
  if (!places) return refuse(places.error(), unit);
  if (places->empty() && list != "none") return refuse({"usage", "scores"});
  const auto work = withScores(*item->work, *places);
  auto edited = work ? setWork(*d, *owner, *work) : Result<Design>(work.error());
  if (edited) return saveAndTell(*edited, o.target());
  Error error = edited.error();
  if (error.place.empty()) error.place = o.id;
  return refuse(error, unit);
}

} // namespace hinge
