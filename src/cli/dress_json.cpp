// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/dress_json.h"
#include "cli/json_text.h"
#include "core/edits/dressing.h"
#include "core/io/dressing_json.h"
#include "core/paper/envelope.h"
#include "words/words.h"
#include <fmt/format.h>

namespace hinge {
namespace {

std::string pieceOf(const Snapshot& snapshot, FaceIndex face) {
  const Assembly& assembly = **snapshot.assembly();
  return assembly.pieces[assembly.panels[(*snapshot.faces())[face].panel].piece].key;
}

} // namespace

std::string_view keyOf(SeenClass seen) {
  return seen == SeenClass::Display ? "display" : seen == SeenClass::Opening ? "opening" : "hidden";
}

std::string_view handOf(const MatLine& line, const MatPlace& place) {
  return !line.handed ? "either" : place.mirrored ? "right" : "left";
}

std::string sizeText(const Vec2& size_mm, LengthUnit unit) {
  return fmt::format("{} x {}", formatLength(size_mm.x(), unit, false),
                     formatLength(size_mm.y(), unit));
}

std::string papersToJson(const Snapshot& snapshot) {
  const Design& design = snapshot.design();
  const auto needs =
      paperNeeds(design, **snapshot.assembly(), matList(design, *snapshot.dressed()));
  Json out = Json::array();
  for (const Paper& paper : design.papers) {
    Json entry = jsonOf(paper);
    entry["name"] = say(nameOf(paper));
    entry["used"] = isUsed(design, paper.key);
    const auto need = std::ranges::find(needs, paper.key, &PaperNeed::paper);
    if (need != needs.end()) {
      entry["needs"] = {{"pieces", need->pieces},
                        {"mats", need->mats},
                        {"area_mm2", need->area_mm2},
                        {"sheets_at_least", need->sheetsAtLeast},
                        {"too_large", need->tooLarge}};
      if (need->atHand) entry["needs"]["at_hand"] = *need->atHand;
    }
    out.push_back(std::move(entry));
  }
  return printed(out);
}

std::string facesToJson(const Snapshot& snapshot) {
  const Assembly& assembly = **snapshot.assembly();
  const auto faces = snapshot.faces();
  const auto seen = snapshot.seen();
  const auto dressed = snapshot.dressed();
  Json out = Json::array();
  for (FaceIndex f : faces->indices()) {
    const Face& face = (*faces)[f];
    const FaceSeen& shares = (*seen)[static_cast<std::size_t>(f.value)];
    Json entry = {{"key", face.key},
                  {"piece", pieceOf(snapshot, f)},
                  {"panel", assembly.panels[face.panel].key},
                  {"side", face.back ? "back" : "face"}};
    addRegion(entry, face.outline);
    entry["seen"] = {
        {"display", shares.display}, {"opening", shares.opening}, {"never", 1 - shares.opening}};
    entry["class"] = keyOf(shares.seenAs());
    const auto wears = std::ranges::find(*dressed, f, &DressedFace::face);
    entry["rule"] = wears == dressed->end() ? Json() : Json(wears->rule + 1);
    out.push_back(std::move(entry));
  }
  return printed(out);
}

std::string matsToJson(const Snapshot& snapshot) {
  const Design& design = snapshot.design();
  const auto faces = snapshot.faces();
  Json out = Json::array();
  for (const MatLine& line : matList(design, *snapshot.dressed())) {
    Json entry = {{"paper", line.paper},
                  {"count", line.count()},
                  {"left", line.left()},
                  {"right", line.right()},
                  {"handed", line.handed},
                  {"size", sizeText(line.size_mm(), design.settings.unit)},
                  {"width_mm", line.size_mm().x()},
                  {"height_mm", line.size_mm().y()}};
    addRegion(entry, line.outline);
    entry["up_deg"] = degrees(line.up_rad);
    entry["places"] = Json::array();
    for (const MatPlace& place : line.places)
      entry["places"].push_back({{"piece", pieceOf(snapshot, place.face)},
                                 {"face", (*faces)[place.face].key},
                                 {"layer", place.layer + 1},
                                 {"hand", handOf(line, place)}});
    out.push_back(std::move(entry));
  }
  return printed(out);
}

std::string matsToCsv(const Snapshot& snapshot) {
  const Design& design = snapshot.design();
  std::string out = "piece,face,layer,paper,count,hand,width_mm,height_mm,size\n";
  for (const MatLine& line : matList(design, *snapshot.dressed()))
    for (const MatPlace& place : line.places)
      out += fmt::format("{},{},{},{},{},{},{:.3f},{:.3f},{}\n", pieceOf(snapshot, place.face),
                         (*snapshot.faces())[place.face].key, place.layer + 1, line.paper,
                         line.count(), handOf(line, place), line.size_mm().x(), line.size_mm().y(),
                         sizeText(line.size_mm(), design.settings.unit));
  return out;
}

std::string thicknessToJson(const Snapshot& snapshot) {
  const Assembly& assembly = **snapshot.assembly();
  const ShutState& shut = *snapshot.shut();
  const EnvelopeSize envelope = envelopeByKey(snapshot.design().settings.envelope);
  const EnvelopeNeed need =
      envelopeFor(shut.width_mm, shut.height_mm, shut.thickness_mm, starting::kEnvelopeRoom_mm);
  Json out = {{"thickness_mm", shut.thickness_mm},
              {"sheets", shut.thickestSheets},
              {"place", {shut.thickestPlace.x(), shut.thickestPlace.y()}},
              {"stack", Json::array()}};
  for (const StackedSheet& sheet : shut.stack)
    out["stack"].push_back({{"panel", assembly.panels[sheet.panel].key},
                            {"paper", sheet.paper.empty() ? Json() : Json(sheet.paper)},
                            {"laid", sheet.laid},
                            {"thickness_mm", sheet.thickness_mm}});
  out["gutter"] = {{"sheets", shut.gutterSheets}, {"relief_mm", shut.gutterRelief_mm}};
  out["envelope"] = {{"key", envelope.key},
                     {"long_mm", need.long_mm},
                     {"short_mm", need.short_mm},
                     {"short_by_mm", shortfall_mm(envelope, need)}};
  out["map"] = {{"cell_mm", shut.map.cell_mm},
                {"origin", {shut.map.origin.x(), shut.map.origin.y()}},
                {"columns", shut.map.columns},
                {"rows", shut.map.rows},
                {"high_mm", shut.map.high_mm}};
  return out.dump(-1, ' ', false, Json::error_handler_t::replace) + "\n";
}

} // namespace hinge
