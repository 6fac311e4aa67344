// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/options.h"
#include "core/checks/analysis.h"
#include "core/edits/parting.h"
#include "core/edits/place_said.h"
#include "core/edits/sheet.h"
#include "core/io/design_json.h"
#include "core/pieces/hand_words.h"
#include "core/pieces/outline_edits.h"
#include "core/structures/assemble.h"
#include "core/units/tolerances.h"
#include "words/words.h"
#include <algorithm>
#include <fmt/format.h>

// The verb that works on a sheet, in the words of core/pieces/sheet_words.h.

namespace hinge {
namespace {

/// "size 300 x 150; score 80 v, 160 m" -> its sentences.
std::vector<std::string> sentencesIn(const std::vector<std::string>& words) {
  std::string all;
  for (const std::string& word : words)
    all += (all.empty() ? "" : " ") + word;
  std::vector<std::string> sentences;
  for (std::size_t at = 0; at <= all.size();) {
    const std::size_t end = std::min(all.find_first_of(";\n", at), all.size());
    std::string one = all.substr(at, end - at);
    if (one.find_first_not_of(" \t") != std::string::npos) sentences.push_back(std::move(one));
    at = end + 1;
  }
  return sentences;
}

/// What is there now that was not there before.
void printChanges(const SheetInWork& before, const SheetInWork& after, LengthUnit unit) {
  const auto old =
      before.work.outline.empty() ? std::vector<std::string>() : sentencesOf(before, unit);
  const auto made = sentencesOf(after, unit);
  for (const std::string& line : old)
    if (std::ranges::find(made, line) == made.end()) fmt::print("- {}\n", line);
  for (const std::string& line : made)
    if (std::ranges::find(old, line) == old.end()) fmt::print("+ {}\n", line);
}

/// An opening that reaches the edge is a notch: a maker who did not mean that must hear of it.
void tellNotches(const SheetInWork& before, const SheetInWork& after, const Design& design) {
  const auto notches = [](const PieceWork& work) {
    return std::ranges::count_if(work.windows, [&](const Polygon& window) {
      return !std::ranges::all_of(window, [&](const Vec2& p) {
        return encloses(work.outline, p) && distanceToOutline(work.outline, p) > kTouch_mm;
      });
    });
  };
  if (notches(after.work) > notches(before.work)) tell({"cli.notch"}, design);
}

} // namespace

int keepByRules(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  std::optional<StructureId> only;
  if (!o.id.empty()) {
    const auto id = idIn(*d, o.id);
    if (!id) return refuse(id.error(), d->settings.unit);
    if (!d->find(*id)->work) return refuse({"work.missing/no-piece", o.id});
    only = *id;
  }
  const auto assembled = assembleDesign(*d);
  if (!assembled) return refuse(assembled.error(), d->settings.unit);
  const Design kept = keptByRules(*d, *assembled, only);
  std::size_t ruled = 0, all = 0;
  for (const StructureItem& item : kept.structures) {
    if (only && item.id != *only) continue;
    for (const PieceJoint& joint : item.joints()) {
      ++all;
      if (joint.rules.empty()) continue;
      ++ruled;
      fmt::print("{}: {}\n", item.id.text(),
                 jointSentence({*item.work, false, {}}, joint, d->settings.unit));
    }
  }
  tell(
      {"cli.kept-by-rules", Decimal{static_cast<double>(ruled)}, Decimal{static_cast<double>(all)}},
      *d);
  return saveAndTell(kept, o.target());
}

Result<SheetInWork> workedBySentences(SheetInWork sheet, const std::vector<std::string>& words,
                                      LengthUnit unit) {
  for (const std::string& sentence : sentencesIn(words)) {
    auto next = workedBy(sheet, sentence, unit);
    if (!next) return next;
    sheet = std::move(next).value();
  }
  return sheet;
}

int tellVerdict(const Design& design) {
  const auto analysis = analyse(design);
  if (!analysis) return refuse(analysis.error(), design.settings.unit);
  for (const Finding& f : analysis->findings)
    if (f.severity == Severity::Spoils) tell({"cli.spoils", describe(f, design)}, design);
  return analysis->verdict == Verdict::Spoiled ? kSpoiled : kFine;
}

int saveAndTell(const Design& edited, const std::string& path) {
  // All is said before anything is written: where nobody can hear it nothing is changed.
  const int verdict = tellVerdict(edited);
  if (verdict == kUnusable) return verdict;
  const int saved = saveEdited(edited, path);
  return saved == kFine ? verdict : saved;
}

int sheetVerb(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const LengthUnit unit = d->settings.unit;
  const auto target = sheetTarget(*d, o.id);
  if (!target) return refuse(target.error(), unit);
  Design design = *d;
  if (!target->piece) {
    auto sheets = withBaseAsSheet(design);
    if (!sheets) return refuse(sheets.error(), unit);
    design = std::move(sheets).value();
  }
  const SheetInWork before = sheetOf(design, *target);
  if (o.sets.empty()) {
    for (const std::string& line : sentencesOf(before, unit))
      fmt::print("{}\n", line);
    return kFine;
  }
  const auto after = workedBySentences(before, o.sets, unit);
  if (!after) return refuse(after.error(), unit);
  auto edited = withSheet(design, *target, *after);
  if (edited) edited = followingTheSheet(design, std::move(edited).value());
  if (!edited) return refuse(edited.error(), unit);
  if (auto possible = Snapshot(*edited).possible(); !possible)
    return refuse(possible.error(), unit);
  tell({"cli.unit", unitKey(unit)}, *edited);
  printChanges(before, *after, unit);
  tellNotches(before, *after, *edited);
  return saveAndTell(*edited, o.target());
}

namespace {

/// The edge of a piece on which a point lies.
Result<std::size_t> edgeNamed(const Design& d, StructureId id, const std::string& text) {
  constexpr double kNear_mm = 0.5;
  const StructureItem* item = d.find(id);
  if (!item->work) return Error{{"work.missing/no-piece", id.text()}, ""};
  SheetScanner in(text, d.settings.unit);
  const auto point = in.point();
  if (!point || !in.atEnd()) return Error{{"usage/point", text}, ""};
  const auto edge = edgeAt(*item->work, *point + boundsOf(item->work->outline).low, kNear_mm);
  if (!edge) return Error{"sheet.no-edge", ""};
  return *edge;
}

} // namespace

int partPiece(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const LengthUnit unit = d->settings.unit;
  const auto id = idIn(*d, o.id);
  if (!id) return refuse(id.error(), unit);
  const StructureItem* item = d->find(*id);
  if (!item->work) return refuse({{"work.missing/no-piece", o.id}, ""}, unit);
  SheetScanner in(o.at, unit);
  const auto line = lineMeant(*item->work, in, boundsOf(item->work->outline).low);
  if (!line) return refuse(line.error(), unit);
  const auto made = parted(*d, *id, *line);
  if (!made) return refuse(made.error(), unit);
  fmt::print("{}\n", made->id.text());
  return saveAndTell(made->design, o.target());
}

int joinPieces(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const LengthUnit unit = d->settings.unit;
  const auto id = idIn(*d, o.id), other = idIn(*d, o.source);
  if (!id) return refuse(id.error(), unit);
  if (!other) return refuse(other.error(), unit);
  const auto edge = edgeNamed(*d, *id, o.at), its = edgeNamed(*d, *other, o.as);
  if (!edge) return refuse(edge.error(), unit);
  if (!its) return refuse(its.error(), unit);
  const auto next = joinedAlong(*d, *id, *edge, *other, *its);
  return next ? saveAndTell(*next, o.target()) : refuse(next.error(), unit);
}

} // namespace hinge
