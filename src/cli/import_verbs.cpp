// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/options.h"
#include "core/edits/bring_in.h"
#include "core/io/design_json.h"
#include "core/io/drawing.h"
#include "core/io/text_file.h"
#include "core/pieces/sheet_scanner.h"
#include <algorithm>
#include <fmt/format.h>

// The verb that brings paper in from outside.

namespace hinge {
namespace {

constexpr std::pair<std::string_view, LineUse> kUses[] = {{"cut", LineUse::Cut},
                                                          {"mountain", LineUse::Mountain},
                                                          {"valley", LineUse::Valley},
                                                          {"nothing", LineUse::Nothing}};

std::string useKey(LineUse use) {
  return std::string(std::ranges::find(kUses, use, [](const auto& u) { return u.second; })->first);
}

/// "valley=mountain", "#ff0000=cut", "4 2=valley": by layer, colour or dash.
Result<LineUses> toldUses(const Drawing& drawing, const std::vector<std::string>& told) {
  LineUses uses = likelyUses(drawing);
  for (const std::string& one : told) {
    const std::size_t equals = one.rfind('=');
    const std::string look = one.substr(0, equals),
                      word = equals == std::string::npos ? "" : one.substr(equals + 1);
    const auto use = std::ranges::find_if(kUses, [&](const auto& u) { return u.first == word; });
    if (use == std::end(kUses)) return Error{{"usage/line-use", one}, "--lines"};
    bool any = false;
    for (auto& [own, meant] : uses)
      if (own.layer == look || own.colour == look || own.dash == look)
        meant = use->second, any = true;
    if (!any) return Error{{"usage/line-look", look}, "--lines"};
  }
  return uses;
}

void tellUnused(const Drawing& drawing, const Design& design) {
  for (const auto& [what, count] : drawing.unused)
    tell({"cli.unused", Text(what), count}, design);
}

int list(const Drawing& drawing, const LineUses& uses, const Design& design) {
  const LengthUnit unit = design.settings.unit;
  for (const auto& [look, use] : uses)
    fmt::print("{:<24} {:<10} {:<16} {}\n", look.layer, look.colour, look.dash, useKey(use));
  const auto pieces = piecesOf(drawing, uses);
  if (!pieces) return refuse(pieces.error(), unit);
  for (std::size_t k = 0; k < pieces->size(); ++k) {
    const PieceWork& piece = (*pieces)[k];
    const Vec2 size = boundsOf(piece.outline).size();
    tell({"cli.drawn-piece", k + 1, Millimetres{size.x()}, Millimetres{size.y()},
          piece.lines.size(), piece.windows.size()},
         design);
  }
  tellUnused(drawing, design);
  return kFine;
}

Result<PieceWork> chosenPiece(const Drawing& drawing, const LineUses& uses, int number) {
  auto pieces = piecesOf(drawing, uses);
  if (!pieces) return pieces.error();
  if (number < 1 || number > static_cast<int>(pieces->size()))
    return Error{{"usage/piece-number", pieces->size()}, "--number"};
  return (*pieces)[static_cast<std::size_t>(number - 1)];
}

Result<Design> opened(const Design& d, const Drawing& drawing, const LineUses& uses,
                      const Options& o) {
  const auto target = sheetTarget(d, o.id.empty() ? "card" : o.id);
  if (!target) return target.error();
  Design design = d;
  if (!target->piece) {
    auto sheets = withBaseAsSheet(d);
    if (!sheets) return sheets.error();
    design = std::move(sheets).value();
  }
  auto outlines = outlinesOf(drawing, uses);
  if (!outlines) return outlines.error();
  std::optional<Vec2> middle;
  if (!o.at.empty()) {
    SheetScanner in(o.at, d.settings.unit);
    middle = in.point();
    if (!middle || !in.atEnd()) return Error{{"usage/point", o.at}, "--at"};
  }
  return withOpeningsIn(design, *target, std::move(*outlines), middle);
}

Result<Design> scored(const Design& d, const Options& o) {
  auto text = readFile(o.source);
  if (!text) return text.error();
  const auto target = sheetTarget(d, o.id.empty() ? "card" : o.id);
  if (!target) return target.error();
  SheetInWork sheet = sheetOf(d, *target);
  if (sheet.work.outline.empty()) return Error{"sheet.not-there", o.id};
  const auto places =
      scoresFromCsv(*text, d.settings.unit, boundsOf(sheet.work.outline).size().x());
  if (!places)
    return Error{places.error().message,
                 places.error().place.empty() ? o.source : o.source + ", " + places.error().place};
  auto work = withScores(sheet.work, *places);
  if (!work) return work.error();
  sheet.work = std::move(work).value();
  return withSheet(d, *target, sheet);
}

Result<Design> broughtIn(const Design& d, const Drawing& drawing, const LineUses& uses,
                         const Options& o) {
  if (o.as == "opening") return opened(d, drawing, uses, o);
  const auto piece = chosenPiece(drawing, uses, o.number);
  if (!piece) return piece.error();
  if (o.as == "base") return withBaseIn(d, *piece);
  const auto added = withPieceIn(d, *piece, o.seat);
  if (!added) return added.error();
  fmt::print("{}\n", added->id.text());
  return added->design;
}

} // namespace

int importFile(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const LengthUnit unit = d->settings.unit;
  Result<Design> next = Error{};
  if (o.as == "scores") {
    next = scored(*d, o);
  } else {
    const auto drawing = drawingFromFile(o.source);
    if (!drawing) return refuse(drawing.error(), unit);
    const auto uses = toldUses(*drawing, o.uses);
    if (!uses) return refuse(uses.error(), unit);
    if (o.as == "list") return list(*drawing, *uses, *d);
    next = broughtIn(*d, *drawing, *uses, o);
    if (next) tellUnused(*drawing, *d);
  }
  if (!next) return refuse(next.error(), unit);
  return saveAndTell(*next, o.target());
}

} // namespace hinge
