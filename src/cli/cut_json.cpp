// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/cut_json.h"
#include "cli/json_text.h"
#include "core/structures/names.h"
#include "words/tables.h"
#include "words/words.h"

namespace hinge {
namespace {

using Json = ReportJson;

} // namespace

std::string roundingToJson(const Rounding& rounding, double step_mm) {
  Json out = {{"step_mm", step_mm},
              {"lengths", rounding.lengths},
              {"conditions", rounding.conditions},
              {"greatest_mm", rounding.greatest_mm},
              {"sum_mm", rounding.sum_mm},
              {"changes", Json::array()},
              {"left", Json::array()}};
  for (const RoundedLength& length : rounding.changes)
    out["changes"].push_back({{"key", length.key},
                              {"label", say(length.label)},
                              {"from_mm", length.from_mm},
                              {"to_mm", length.to_mm}});
  for (const auto& [owner, why] : rounding.left)
    out["left"].push_back({{"owner", owner}, {"why", say(why)}});
  return printed(out);
}

std::string benchToJson(const Bench& bench) {
  Json out = Json::object();
  for (const BenchRow& row : benchRows())
    if (row.number)
      out[std::string(row.key) + (row.plain ? "" : "_mm")] = bench.*row.number;
    else
      out[std::string(row.key)] = schoolOf(bench, row.key);
  out["speeds_cms"] = bench.speeds_cms.empty() ? Json::object() : Json(bench.speeds_cms);
  return printed(out);
}

namespace {

Json jsonOf(const Splice& splice) {
  return {{"panel", splice.panel},
          {"at_mm", splice.at_mm},
          {"level", splice.level},
          {"overlap_mm", splice.overlap_mm},
          {"on_face", splice.onFace}};
}

} // namespace

std::string splicesToJson(const Design& design, const std::vector<SpliceProposal>& proposals,
                          const Assembly& assembly) {
  Json out = {{"splices", Json::array()}, {"proposed", Json::array()}};
  for (const Splice& splice : design.splices)
    out["splices"].push_back(jsonOf(splice));
  for (const SpliceProposal& one : proposals) {
    Json entry = {{"piece", say(pieceName(design, assembly, one.piece))},
                  {"splices", Json::array()},
                  {"seen", one.seen},
                  {"tab_hidden", one.tabHidden},
                  {"spared_mm", {one.spared_width_mm, one.spared_height_mm}}};
    for (const Splice& splice : one.splices)
      entry["splices"].push_back(jsonOf(splice));
    out["proposed"].push_back(std::move(entry));
  }
  return printed(out);
}

std::string cutterJobToJson(const CutterJob& job, std::optional<CutterEnd> ended) {
  Json out = {{"strokes", job.steps.size()},  {"lowered_mm", job.lowered_mm()},
              {"raised_mm", job.raised_mm()}, {"seconds", job.seconds()},
              {"speed_cms", job.speed_cms},   {"force_g", job.force_g}};
  if (ended) out["ended"] = *ended == CutterEnd::Done ? "done" : "stopped";
  return printed(out);
}

namespace {

const char* wayKey(ScoreSetting::Way way) {
  switch (way) {
  case ScoreSetting::Way::Upright: return "upright";
  case ScoreSetting::Way::Level: return "level";
  case ScoreSetting::Way::Slanted: return "slanted";
  }
  return "";
}

const char* whatKey(CutMark::What what) {
  switch (what) {
  case CutMark::What::Opening: return "opening";
  case CutMark::What::Slit: return "cut";
  case CutMark::What::Tab: return "tab";
  case CutMark::What::Corner: return "corner";
  case CutMark::What::Trim: return "trim";
  }
  return "";
}

Json scoreJson(const ScoreSetting& score, const Bench& bench, LengthUnit unit) {
  Json out = {{"way", wayKey(score.way)},
              {"kind", score.kind == LineKind::Mountain ? "mountain" : "valley"},
              {"back", score.fromBack}};
  if (score.way == ScoreSetting::Way::Slanted) {
    out["from"] = pointJson(score.from), out["to"] = pointJson(score.to);
    out["length_mm"] = score.length_mm, out["angle_deg"] = score.angle_deg;
    return out;
  }
  out["first_mm"] = score.first_mm, out["other_mm"] = score.other_mm;
  out["step_mm"] = score.step_mm, out["stretches"] = Json::array();
  for (const Stretch& part : score.stretches)
    out["stretches"].push_back({part.from_mm, part.to_mm});
  out["whole"] = score.whole, out["first"] = score.firstOfLong;
  out["set_other"] = score.fromOther;
  out["text"] =
      sayMark(score.fromOther ? score.other_mm : score.first_mm, stepOf_mm(bench, unit), unit);
  return out;
}

} // namespace

std::string tablesToJson(const std::vector<PieceTable>& tables, const Design& design,
                         const Assembly& assembly, const Bench& bench) {
  Json out = Json::array();
  for (const PieceTable& table : tables) {
    const auto keysOf = [&](const std::vector<PieceIndex>& pieces) {
      Json keys = Json::array();
      for (PieceIndex piece : pieces)
        keys.push_back(assembly.pieces[piece].key);
      return keys;
    };
    Json entry = {{"letter", table.letter},
                  {"name", saySentence(pieceName(design, assembly, table.piece))},
                  {"paper", table.paper},
                  {"count", table.count()},
                  {"same", keysOf(table.same)},
                  {"mirrored", keysOf(table.mirrored)},
                  {"handed", table.handed},
                  {"width_mm", table.size.x()},
                  {"height_mm", table.size.y()},
                  {"rectangle", table.plainRectangle},
                  {"notes", Json::array()},
                  {"scores", Json::array()},
                  {"cuts", Json::array()}};
    for (PieceNote note : table.notes)
      entry["notes"].push_back(keyOf(note));
    for (const ScoreSetting& score : table.scores)
      entry["scores"].push_back(scoreJson(score, bench, design.settings.unit));
    for (const CutMark& cut : table.cuts) {
      Json one = {{"what", whatKey(cut.what)}, {"from", pointJson(cut.from)}};
      if (cut.what != CutMark::What::Corner) one["to"] = pointJson(cut.to);
      if (cut.what == CutMark::What::Tab)
        one["depth_mm"] = cut.depth_mm, one["bevel_deg"] = cut.bevel_deg,
        one["letter"] = cut.letter;
      entry["cuts"].push_back(std::move(one));
    }
    out.push_back(std::move(entry));
  }
  return printed(out);
}

namespace {

Json sheetJson(const LaidSheet& sheet, const CutPlan& plan) {
  Json out = {{"paper", sheet.paper},
              {"width_mm", sheet.width_mm},
              {"height_mm", sheet.height_mm},
              {"places", Json::array()},
              {"offcuts", Json::array()}};
  for (const PartPlace& place : sheet.places) {
    Json one = {{"part", place.part + 1},
                {"quarters", place.quarters},
                {"offset", pointJson(place.offset)}};
    addRegion(one, onSheet(plan.parts[place.part], place));
    out["places"].push_back(std::move(one));
  }
  for (const Box2& box : sheet.offcuts)
    out["offcuts"].push_back({box.low.x(), box.low.y(), box.size().x(), box.size().y()});
  return out;
}

Json numbersFromOne(const std::vector<std::size_t>& places) {
  Json out = Json::array();
  for (std::size_t place : places)
    out.push_back(place + 1);
  return out;
}

} // namespace

std::string planToJson(const CutPlan& plan, const Design& design, const Assembly& assembly,
                       const std::optional<CardsFromStock>& enough) {
  Json out = {{"for", plan.how == LayoutFor::Trimmer ? "trimmer" : "machine"},
              {"cards_from_stock", enough ? Json(enough->cards) : Json()},
              {"ends_first", enough ? Json(enough->endsFirst) : Json()},
              {"waste", plan.waste()},
              {"kept", plan.sheets_mm2 > 0 ? plan.kept_mm2 / plan.sheets_mm2 : 0},
              {"settings", plan.settings()},
              {"parts", Json::array()},
              {"sheets", Json::array()},
              {"cuts", Json::array()},
              {"needs", Json::array()},
              {"too_large", numbersFromOne(plan.tooLarge)},
              {"no_sheet", numbersFromOne(plan.noSheet)}};
  for (std::size_t k = 0; k < plan.parts.size(); ++k) {
    const CutPart& part = plan.parts[k];
    Json one = {{"part", k + 1},
                {"key", part.mat ? part.key : assembly.pieces[part.flat.piece].key},
                {"paper", part.paper},
                {"card", part.card + 1},
                {"mirrored", part.mirrored},
                {"width_mm", part.size().x()},
                {"height_mm", part.size().y()},
                {"strips", std::max<std::size_t>(1, part.flat.slices.size())},
                {"turns", part.turns}};
    addRegion(one, part.outline);
    out["parts"].push_back(std::move(one));
  }
  for (const LaidSheet& sheet : plan.sheets)
    out["sheets"].push_back(sheetJson(sheet, plan));
  for (const TrimCut& cut : plan.cuts)
    out["cuts"].push_back({{"blank", cut.blank + 1},
                           {"set_mm", cut.set_mm},
                           {"upright", cut.upright},
                           {"setting", cut.setting},
                           {"strip", cut.strip + 1},
                           {"rest", cut.rest + 1}});
  for (const SheetCount& need : sheetsOf(plan, design))
    out["needs"].push_back({{"paper", need.paper},
                            {"width_mm", need.width_mm},
                            {"height_mm", need.height_mm},
                            {"sheets", need.sheets},
                            {"at_hand", need.atHand ? Json(*need.atHand) : Json()},
                            {"to_buy", need.toBuy()}});
  return printed(out);
}

} // namespace hinge
