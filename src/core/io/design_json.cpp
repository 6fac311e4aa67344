// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/design_json.h"
#include "core/bases/base.h"
#include "core/io/dressing_json.h"
#include "core/io/json_place.h"
#include "core/io/migrations.h"
#include "core/io/text_file.h"
#include "core/io/work_json.h"
#include "core/paper/envelope.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <fmt/format.h>

namespace hinge {
namespace {

constexpr int kDeepestNesting = 64;

std::optional<Error> tooDeep(std::string_view text) {
  int depth = 0;
  long line = 1;
  bool quoted = false;
  for (std::size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (c == '\n') ++line;
    if (quoted) {
      if (c == '\\')
        ++i;
      else if (c == '"')
        quoted = false;
    } else if (c == '"')
      quoted = true;
    else if (c == '[' || c == '{') {
      if (++depth > kDeepestNesting)
        return Error{{"file.too-deep", kDeepestNesting, static_cast<int>(line)}, ""};
    } else if (c == ']' || c == '}')
      --depth;
  }
  return std::nullopt;
}

/// The finished design that stands on this one: a file of its own in this one's.
std::optional<CardWithin> readCardWithin(const Json& source, const Reader& in,
                                         std::optional<Error>& error) {
  if (error) return std::nullopt;
  auto design = designFromJson(source.dump(-1, ' ', false, Json::error_handler_t::replace), "");
  if (design) return CardWithin{std::make_shared<const Design>(std::move(design).value())};
  error = design.error();
  error->place = in.where("design") + (error->place.empty() ? "" : "." + error->place);
  error->line = 0;
  return std::nullopt;
}

void readStructure(const Json& source, const std::string& place, std::optional<Error>& error,
                   Design& design) {
  if (!source.is_object()) {
    if (!error) error = Error{"file.member/object", place};
    return;
  }
  Reader in(source, place, error);
  StructureItem item;
  std::string id;
  in.text("id", id, true);
  in.text("kind", item.kind, true);
  in.text("on", item.seat, true);
  in.text("label", item.label);
  in.text("paper", item.paper);
  const Json* values = in.get("values", true);
  const auto parsed = structureIdFromText(id);
  if (!parsed) return in.fail("id", {"file.member/id", id.substr(0, 40)});
  item.id = *parsed;
  if (design.find(item.id)) return in.fail("id", {"file.member/twice", id});
  const StructureKind* kind = findStructureKind(item.kind);
  if (!kind) return in.fail("kind", {"file.member/kind", item.kind.substr(0, 40)});
  if (!values || !values->is_object()) return in.fail("values", "file.member/object");
  item.values = startingValues(
      kind->parameters); // a parameter that a newer version added starts at its default
  if (kind->ways->carriesWork())
    item.work = readWork(objectOf(in.get("work", true), in, "work"), in.where("work"), error);
  if (kind->ways->carriesCard())
    item.card = readCardWithin(objectOf(in.get("design", true), in, "design"), in, error);
  if (error) return;
  for (const auto& [key, value] : values->items()) {
    if (!value.is_number()) return in.fail(fmt::format("values.{}", key), "file.member/number");
    item.values[key] = value.get<double>();
  }
  if (auto settled = waysOf(item).settle(item, place + ".values"); !settled) {
    if (!error) error = settled.error();
    return;
  }
  item.extras = in.extrasText();
  design.structures.push_back(std::move(item));
}

void keepExtras(Json& all, const char* member, const Json& extras) {
  if (!extras.empty()) all[member] = extras;
}

} // namespace

namespace {

/// What is as it starts is left out of the newer members.
Json settingsOf(const Settings& settings) {
  Json out = {{"unit", unitKey(settings.unit)},
              {"least_tab_mm", settings.leastTabDepth_mm},
              {"tab_bevel_deg", settings.tabBevel_deg},
              {"fold_clearance_mm", settings.foldClearance_mm},
              {"edge_reserve_mm", settings.edgeReserve_mm},
              {"sheet", settings.sheet},
              {"envelope", settings.envelope}};
  if (settings.pinPlay_mm != starting::kPinPlay_mm) out["pin_play_mm"] = settings.pinPlay_mm;
  if (settings.closureLimit_mm != starting::kClosureLimit_mm)
    out["closure_mm"] = settings.closureLimit_mm;
  if (settings.matBorder_mm != starting::kMatBorder_mm)
    out["mat_border_mm"] = settings.matBorder_mm;
  if (settings.slice) out["slice"] = true;
  return out;
}

Json jsonOf(const Design& d) {
  Json out = Json::object();
  out["format"] = "hinge-lantern";
  out["version"] = kFormatVersion;
  out["title"] = d.title;
  out["card"] = {{"base", d.card.kind},
                 {"width_mm", d.card.width_mm},
                 {"height_mm", d.card.height_mm},
                 {"fold", d.card.fold == FoldSide::Side ? "side" : "top"},
                 {"display_deg", d.card.display_deg},
                 {"rests", d.card.rests == Rests::OnPage ? "page" : "edge"}};
  if (d.card.openBy_deg != 180) out["card"]["open_by_deg"] = d.card.openBy_deg;
  if (const BaseKind* base = findBaseKind(d.card.kind); base && !base->parameters.empty()) {
    Json values = Json::object();
    for (const ParameterSpec& spec : base->parameters)
      values[std::string(spec.key)] = d.card.values.find(spec.key)->second;
    out["card"]["base_values"] = std::move(values);
  }
  if (d.card.worksFrom_deg != 0) out["card"]["works_from_deg"] = d.card.worksFrom_deg;
  if (d.card.worksTo_deg != 180) out["card"]["works_to_deg"] = d.card.worksTo_deg;
  for (const PieceWork& sheet : d.card.sheets)
    out["card"]["sheets"].push_back(workJson(sheet));
  if (d.card.ground) out["card"]["ground"] = pointJson(*d.card.ground);
  addExtras(out["card"], d.extras, "card");
  out["papers"] = Json::array();
  for (const Paper& paper : d.papers)
    out["papers"].push_back(jsonOf(paper));
  out["stock"] = d.stock;
  out["settings"] = settingsOf(d.settings);
  addExtras(out["settings"], d.extras, "settings");
  out["structures"] = Json::array();
  for (const StructureItem& item : d.structures) {
    Json values = Json::object();
    // In the order of the parameter table, which is how people think of them.
    const ParameterTable table =
        findStructureKind(item.kind)->parameters; // widths of free pieces stand in their work
    for (const ParameterSpec& spec : table)
      values[std::string(spec.key)] = item.values.find(spec.key)->second;
    Json entry = {{"id", item.id.text()}, {"kind", item.kind}, {"on", item.seat}};
    if (!item.label.empty()) entry["label"] = item.label;
    if (!item.paper.empty()) entry["paper"] = item.paper;
    entry["values"] = std::move(values);
    if (item.work) entry["work"] = workJson(*item.work);
    if (item.card) entry["design"] = jsonOf(*item.card->design);
    addExtras(entry, item.extras);
    out["structures"].push_back(std::move(entry));
  }
  if (!d.dressing.empty()) out["dressing"] = jsonOf(d.dressing);
  for (const Splice& splice : d.splices)
    out["splices"].push_back({{"panel", splice.panel},
                              {"at_mm", splice.at_mm},
                              {"level", splice.level},
                              {"overlap_mm", splice.overlap_mm},
                              {"on_face", splice.onFace}});
  out["next_id"] = d.nextId;
  addExtras(out, d.extras);
  return out;
}

} // namespace

std::string designToJson(const Design& d) {
  return jsonOf(d).dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

namespace {

Result<Json> parsed(std::string_view text) {
  if (auto deep = tooDeep(text)) return *deep;
  try {
    return Json::parse(text);
  } catch (const Json::parse_error& e) {
    const auto upTo = text.substr(0, std::min<std::size_t>(e.byte, text.size()));
    return Error{{"file.syntax", 1 + static_cast<int>(std::ranges::count(upTo, '\n'))}, ""};
  } catch (const Json::exception& e) {
    // A number beyond what a double holds; the library quotes it.
    const std::string_view said = e.what();
    const auto open = std::min(said.find('\''), said.size() - 1);
    const auto close = std::min(said.find('\'', open + 1), said.size());
    return Error{{"file.number", said.substr(open + 1, close - open - 1)}, ""};
  }
}

/// Whether it is a project of ours at all, in a version that is read here.
std::optional<Error> strange(Reader& in) {
  std::string format;
  in.text("format", format);
  if (format != "hinge-lantern") return Error{"file.format", "format"};
  int version = -1;
  in.integer("version", version);
  if (version < 1 || version > kFormatVersion)
    return Error{{"file.version", version, kFormatVersion}, "version"};
  return std::nullopt;
}

void readSheets(Reader& card, std::optional<Error>& error, CardBase& out) {
  if (const Json* ground = card.get("ground", false))
    out.ground = readPoint(*ground, card, "ground");
  const Json* sheets = card.get("sheets", false);
  if (!sheets) return;
  constexpr std::size_t kMost = 20;
  if (!sheets->is_array() || sheets->size() > kMost) return card.fail("sheets", "file.member/list");
  for (std::size_t k = 0; k < sheets->size() && !error; ++k)
    if ((*sheets)[k].is_object())
      out.sheets.push_back(readWork((*sheets)[k], fmt::format("card.sheets[{}]", k), error));
    else
      card.fail(fmt::format("sheets[{}]", k), "file.member/object");
}

void readCard(Reader& card, std::optional<Error>& error, CardBase& out) {
  card.text("base", out.kind);
  card.number("width_mm", out.width_mm, true);
  card.number("height_mm", out.height_mm, true);
  std::string fold = "side";
  card.text("fold", fold);
  if (fold != "side" && fold != "top") card.fail("fold", "file.member/fold");
  out.fold = fold == "top" ? FoldSide::Top : FoldSide::Side;
  card.number("display_deg", out.display_deg, false);
  card.number("open_by_deg", out.openBy_deg, false);
  card.number("works_from_deg", out.worksFrom_deg, false);
  card.number("works_to_deg", out.worksTo_deg, false);
  readSheets(card, error, out);
  std::string rests = "page";
  card.text("rests", rests);
  if (rests != "page" && rests != "edge") card.fail("rests", "file.member/rests");
  out.rests = rests == "edge" ? Rests::OnEdge : Rests::OnPage;
  if (!error)
    if (auto valid = validateCard(out); !valid) error = valid.error();
  const BaseKind* base = findBaseKind(out.kind);
  if (!base || base->parameters.empty()) return;
  out.values = base->fit(out); // what is not given starts as on a new card
  const Json* given = card.get("base_values", false);
  for (const auto& [key, value] : objectOf(given, card, "base_values").items()) {
    if (value.is_number())
      out.values[key] = value.get<double>();
    else
      card.fail(fmt::format("base_values.{}", key), "file.member/number");
  }
  if (error) return;
  if (auto valid = validate(base->parameters, out.values, "card.base_values"); !valid)
    error = valid.error();
}

void readPapersAndDressing(Reader& in, std::optional<Error>& error, Design& d) {
  if (const Json* papers = in.get("papers", true)) d.papers = readPapers(*papers, "papers", error);
  in.text("stock", d.stock, true);
  if (const Json* dressing = in.get("dressing", false))
    d.dressing = readDressing(objectOf(dressing, in, "dressing"), "dressing", error);
}

void readSplices(Reader& in, std::optional<Error>& error, Design& d) {
  const Json* splices = in.get("splices", false);
  if (!splices) return;
  if (!splices->is_array() || splices->size() > kMostSplices)
    return in.fail("splices", "file.member/list");
  for (std::size_t k = 0; k < splices->size() && !error; ++k) {
    const std::string place = fmt::format("splices[{}]", k);
    if (!(*splices)[k].is_object()) return in.fail(place, "file.member/object");
    Reader one((*splices)[k], place, error);
    Splice& splice = d.splices.emplace_back();
    one.text("panel", splice.panel, true);
    one.number("at_mm", splice.at_mm, true);
    one.yesOrNo("level", splice.level);
    one.positive("overlap_mm", splice.overlap_mm);
    one.yesOrNo("on_face", splice.onFace);
  }
}

void readSettings(Reader& settings, Settings& out) {
  std::string unit = "mm";
  settings.text("unit", unit);
  if (auto known = unitFromKey(unit); known)
    out.unit = *known;
  else
    settings.fail("unit", {"file.member/unit", unit.substr(0, 40)});
  settings.positive("least_tab_mm", out.leastTabDepth_mm);
  settings.positive("tab_bevel_deg", out.tabBevel_deg);
  if (out.tabBevel_deg > 80) settings.fail("tab_bevel_deg", "file.member/bevel");
  settings.positive("fold_clearance_mm", out.foldClearance_mm);
  settings.positive("edge_reserve_mm", out.edgeReserve_mm);
  settings.number("pin_play_mm", out.pinPlay_mm);
  if (!(out.pinPlay_mm >= 0 && out.pinPlay_mm <= starting::kMostPinPlay_mm))
    settings.fail("pin_play_mm", {"file.member/play", Millimetres{starting::kMostPinPlay_mm}});
  settings.number("closure_mm", out.closureLimit_mm);
  if (!(out.closureLimit_mm >= 0 && out.closureLimit_mm <= starting::kMostClosureLimit_mm))
    settings.fail("closure_mm", {"file.member/play", Millimetres{starting::kMostClosureLimit_mm}});
  settings.positive("mat_border_mm", out.matBorder_mm);
  settings.keyOf(knownSheets(), "sheet", out.sheet);
  settings.yesOrNo("slice", out.slice);
  settings.text("envelope", out.envelope);
  if (!isEnvelope(out.envelope)) settings.keyOf(knownEnvelopes(), "envelope", out.envelope);
}

void readStructures(Reader& in, std::optional<Error>& error, Design& d) {
  const Json* structures = in.get("structures", true);
  if (structures && !structures->is_array())
    in.fail("structures", "file.member/list");
  else if (structures)
    for (std::size_t i = 0; i < structures->size() && !error; ++i)
      readStructure((*structures)[i], fmt::format("structures[{}]", i), error, d);
  in.integer("next_id", d.nextId);
  for (const StructureItem& item : d.structures)
    d.nextId = std::max(d.nextId, item.id.value + 1);
}

} // namespace

Result<Design> designFromJson(std::string_view text, const std::string& source) {
  const auto placed = [&](Error error) {
    if (const auto line = lineOf(text, error.place)) error.line = *line;
    if (!source.empty()) error.place = error.place.empty() ? source : source + ": " + error.place;
    return error;
  };
  auto readable = parsed(text);
  if (!readable) return placed(readable.error());
  Json root = std::move(readable).value();
  if (!root.is_object()) return placed({"file.format", ""});
  std::optional<Error> error;
  Reader in(root, "", error);
  if (auto no = strange(in)) return placed(*no);
  migrate(root);

  Design d;
  in.text("title", d.title);
  Reader card(objectOf(in.get("card", true), in, "card"), "card", error);
  readCard(card, error, d.card);
  readPapersAndDressing(in, error, d);
  readSplices(in, error, d);
  Reader settings(objectOf(in.get("settings", false), in, "settings"), "settings", error);
  readSettings(settings, d.settings);
  readStructures(in, error, d);
  if (error) return placed(*error);

  Json extras = in.extras();
  keepExtras(extras, "card", card.extras());
  keepExtras(extras, "settings", settings.extras());
  if (!extras.empty()) d.extras = extras.dump(-1, ' ', false, Json::error_handler_t::replace);
  if (auto assembled = assembleDesign(d); !assembled) {
    Error why = assembled.error();
    // A structure is named by its number; the line is that of its entry.
    const auto item = std::ranges::find_if(
        d.structures, [&](const StructureItem& i) { return i.id.text() == why.place; });
    if (item != d.structures.end())
      if (const auto line =
              lineOf(text, fmt::format("structures[{}]", item - d.structures.begin())))
        why.line = *line;
    return placed(why);
  }
  return d;
}

Result<Design> loadDesign(const std::string& path) {
  auto text = readFile(path);
  if (!text) return text.error();
  return designFromJson(*text, path);
}

Result<void> saveDesign(const Design& design, const std::string& path) {
  return writeFile(path, designToJson(design));
}

} // namespace hinge
