// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/dressing_json.h"
#include "core/paper/paper_keys.h"
#include <QByteArray>
#include <charconv>

namespace hinge {
namespace {

constexpr std::string_view kCorners[] = {"sharp", "round"};

template <class Enum, std::size_t N>
std::string_view wordOf(const std::string_view (&words)[N], Enum value) {
  return words[static_cast<std::size_t>(value)];
}

/// One of these words, when the member is there.
template <class Enum, std::size_t N>
void readWord(Reader& in, const char* member, const std::string_view (&words)[N], Enum& out) {
  std::string word(wordOf(words, out)), all;
  in.text(member, word);
  for (std::size_t k = 0; k < N; ++k) {
    if (word == words[k]) return void(out = static_cast<Enum>(k));
    all += (k == 0 ? "" : ", ") + std::string(words[k]);
  }
  in.fail(member, {"file.member/none-of", word.substr(0, 40), all});
}

Colour readColour(Reader& in, const Json& json, const std::string& member) {
  const auto colour =
      json.is_string() ? colourFromText(json.get<std::string>()) : std::optional<Colour>();
  if (!colour) in.fail(member, "file.member/colour");
  return colour.value_or(Colour());
}

/// The items of a list, each with its place; notes when it is none or too long.
template <class Each>
void readList(Reader& in, const char* member, std::size_t most, const Each& each) {
  const Json* list = in.get(member, false);
  if (!list) return;
  if (!list->is_array() || list->size() > most) return in.fail(member, "file.member/list");
  for (std::size_t k = 0; k < list->size(); ++k)
    each((*list)[k], fmt::format("{}[{}]", member, k));
}

void readPrint(const Json& json, const std::string& place, std::optional<Error>& error,
               Print& out) {
  Reader in(json, place, error);
  in.text("pattern", out.key, true);
  in.number("repeat_mm", out.repeat_mm);
  in.number("share", out.share);
  readList(in, "inks", 8, [&](const Json& ink, const std::string& member) {
    out.inks.push_back(readColour(in, ink, member));
  });
}

void readPicture(const Json& json, const std::string& place, std::optional<Error>& error,
                 Picture& out) {
  Reader in(json, place, error);
  std::string data;
  in.number("width_mm", out.width_mm, true);
  in.text("data", data, true);
  if (const auto bytes = fromBase64(data))
    out.bytes = *bytes;
  else
    in.fail("data", "paper.picture");
}

void readSheet(const Json& json, const std::string& place, std::optional<Error>& error,
               Paper& out) {
  Reader in(json, place, error);
  SheetsAtHand sheet;
  in.number("width_mm", sheet.width_mm, true);
  in.number("height_mm", sheet.height_mm, true);
  int count = -1;
  in.integer("count", count);
  if (count >= 0) sheet.count = count;
  out.sheets.push_back(sheet);
}

Json jsonOf(const Layer& layer) {
  Json out = {{"paper", layer.paper}};
  if (!layer.border_mm.empty()) out["border_mm"] = layer.border_mm;
  if (layer.corners != CornerStyle::Sharp) out["corners"] = wordOf(kCorners, layer.corners);
  if (layer.turn != PatternTurn::Upright) out["turn"] = keyOf(layer.turn);
  if (layer.turn == PatternTurn::Angle) out["angle_deg"] = layer.angle_deg;
  return out;
}

Layer readLayer(const Json& json, const std::string& place, std::optional<Error>& error) {
  Reader in(json, place, error);
  Layer layer;
  in.text("paper", layer.paper, true);
  readList(in, "border_mm", 4, [&](const Json& border, const std::string& member) {
    if (!border.is_number()) return in.fail(member, "file.member/number");
    layer.border_mm.push_back(border.get<double>());
  });
  readWord(in, "corners", kCorners, layer.corners);
  std::string turn(keyOf(layer.turn));
  in.text("turn", turn);
  if (const auto known = patternTurnFromKey(turn))
    layer.turn = *known;
  else
    in.fail("turn", {"file.member/none-of", turn.substr(0, 40), "upright, along-fold, angle"});
  in.number("angle_deg", layer.angle_deg);
  return layer;
}

DressRule readRule(const Json& json, const std::string& place, std::optional<Error>& error) {
  Reader in(json, place, error);
  DressRule rule;
  std::string on, at(keyOf(rule.atGlue));
  in.text("on", on, true);
  if (const auto known = dressReachFromKey(on))
    rule.reach = *known;
  else
    in.fail("on", {"file.member/none-of", on.substr(0, 40),
                   "face, twins, part, alike, displayed, seen, all"});
  in.text("face", rule.face);
  in.text("at_glue", at);
  if (const auto known = atGlueFromKey(at))
    rule.atGlue = *known;
  else
    in.fail("at_glue", {"file.member/none-of", at.substr(0, 40), "under, over, around"});
  readList(in, "layers", kMostLayers, [&](const Json& layer, const std::string& member) {
    if (!layer.is_object()) return in.fail(member, "file.member/object");
    rule.layers.push_back(readLayer(layer, in.where(member), error));
  });
  return rule;
}

Json ringJson(const Polygon& ring) {
  Json points = Json::array();
  for (const Vec2& point : ring)
    points.push_back({point.x(), point.y()});
  return points;
}

Json jsonOf(const Topper& topper) {
  Json out = {{"id", topper.name()},           {"face", topper.face},
              {"shape", topper.shape},         {"width_mm", topper.width_mm},
              {"height_mm", topper.height_mm}, {"detail", topper.detail}};
  if (!topper.text.empty()) out["text"] = topper.text;
  for (const Region& outline : topper.outlines) {
    Json one = {{"outline", ringJson(outline.rim)}};
    for (const Polygon& hole : outline.holes)
      one["holes"].push_back(ringJson(hole));
    out["outlines"].push_back(std::move(one));
  }
  out["paper"] = topper.paper;
  if (topper.mat) out["mat"] = jsonOf(*topper.mat);
  out["at"] = {topper.at.x(), topper.at.y()};
  out["turn_deg"] = topper.turn_deg;
  if (topper.mirrored) out["mirrored"] = true;
  out["fix"] = keyOf(topper.fix);
  if (topper.fix != TopperFix::Flat) out["raised_mm"] = topper.raised_mm;
  return out;
}

Vec2 readPlace(Reader& in, const Json& json, const std::string& member) {
  if (!json.is_array() || json.size() != 2 || !json[0].is_number() || !json[1].is_number()) {
    in.fail(member, "file.member/point");
    return Vec2::Zero();
  }
  return {json[0].get<double>(), json[1].get<double>()};
}

Polygon readRing(Reader& in, const Json& json, const std::string& member) {
  constexpr std::size_t kMostCorners = 5000;
  Polygon ring;
  if (!json.is_array() || json.size() > kMostCorners) {
    in.fail(member, "file.member/list");
    return ring;
  }
  for (std::size_t k = 0; k < json.size(); ++k)
    ring.push_back(readPlace(in, json[k], fmt::format("{}[{}]", member, k)));
  return ring;
}

Region readOutline(const Json& json, const std::string& place, std::optional<Error>& error) {
  Reader in(json, place, error);
  Region region;
  if (const Json* rim = in.get("outline", true)) region.rim = readRing(in, *rim, "outline");
  readList(in, "holes", 200, [&](const Json& hole, const std::string& member) {
    region.holes.push_back(readRing(in, hole, member));
  });
  return region;
}

Topper readTopper(const Json& json, const std::string& place, std::optional<Error>& error) {
  Reader in(json, place, error);
  Topper topper;
  std::string id, fix(keyOf(topper.fix));
  in.text("id", id, true);
  int number = 0;
  const char* end = id.data() + id.size();
  if (id.size() < 2 || id.front() != 't' ||
      std::from_chars(id.data() + 1, end, number).ptr != end || number < 1)
    in.fail("id", {"file.member/topper-id", id.substr(0, 40)});
  topper.id = number;
  in.text("face", topper.face, true);
  in.text("shape", topper.shape, true);
  in.number("width_mm", topper.width_mm);
  in.number("height_mm", topper.height_mm);
  in.number("detail", topper.detail);
  in.text("text", topper.text);
  readList(in, "outlines", 200, [&](const Json& outline, const std::string& member) {
    if (!outline.is_object()) return in.fail(member, "file.member/object");
    topper.outlines.push_back(readOutline(outline, in.where(member), error));
  });
  in.text("paper", topper.paper, true);
  if (const Json* mat = in.get("mat", false))
    topper.mat = readLayer(objectOf(mat, in, "mat"), in.where("mat"), error);
  if (const Json* at = in.get("at", false)) topper.at = readPlace(in, *at, "at");
  in.number("turn_deg", topper.turn_deg);
  in.yesOrNo("mirrored", topper.mirrored);
  in.text("fix", fix);
  if (const auto known = topperFixFromKey(fix))
    topper.fix = *known;
  else
    in.fail("fix", {"file.member/none-of", fix.substr(0, 40), "flat, pads, spring"});
  in.number("raised_mm", topper.raised_mm);
  return topper;
}

} // namespace

std::string toBase64(const std::string& bytes) {
  return QByteArray(bytes.data(), static_cast<qsizetype>(bytes.size())).toBase64().toStdString();
}

std::optional<std::string> fromBase64(const std::string& text) {
  const auto read = QByteArray::fromBase64Encoding(
      QByteArray(text.data(), static_cast<qsizetype>(text.size())),
      QByteArray::Base64Encoding | QByteArray::AbortOnBase64DecodingErrors);
  if (!read) return std::nullopt;
  return read.decoded.toStdString();
}

Json jsonOf(const Paper& paper) {
  Json out = {{"key", paper.key},
              {"label", paper.label},
              {"thickness_mm", paper.thickness_mm},
              {"weight_gsm", paper.weight_gsm}};
  if (paper.colours != Paper().colours)
    out["colours"] = {paper.colours[0].text(), paper.colours[1].text()};
  if (paper.surface != Surface::Matt) out["surface"] = wordOf(kSurfaceKeys, paper.surface);
  if (paper.print) {
    Json inks = Json::array();
    for (const Colour& ink : paper.print->inks)
      inks.push_back(ink.text());
    out["print"] = {{"pattern", paper.print->key},
                    {"repeat_mm", paper.print->repeat_mm},
                    {"share", paper.print->share},
                    {"inks", std::move(inks)}};
  }
  if (paper.picture)
    out["picture"] = {{"width_mm", paper.picture->width_mm},
                      {"data", toBase64(paper.picture->bytes)}};
  if (paper.way != PatternWay::None) out["way"] = wordOf(kWayKeys, paper.way);
  if (paper.grain != Grain::Unknown) out["grain"] = wordOf(kGrainKeys, paper.grain);
  for (const SheetsAtHand& sheet : paper.sheets) {
    out["sheets"].push_back({{"width_mm", sheet.width_mm}, {"height_mm", sheet.height_mm}});
    if (sheet.count) out["sheets"].back()["count"] = *sheet.count;
  }
  if (paper.price) out["price"] = *paper.price;
  addExtras(out, paper.extras);
  return out;
}

Paper readPaper(const Json& json, const std::string& place, std::optional<Error>& error) {
  Reader in(json, place, error);
  Paper out;
  in.text("key", out.key, true);
  in.text("label", out.label);
  in.number("thickness_mm", out.thickness_mm);
  in.number("weight_gsm", out.weight_gsm);
  if (in.get("colours", false)) {
    std::size_t side = 0;
    readList(in, "colours", 2, [&](const Json& colour, const std::string& member) {
      out.colours[side++] = readColour(in, colour, member);
    });
    if (side != 2) in.fail("colours", "file.member/list");
  }
  readWord(in, "surface", kSurfaceKeys, out.surface);
  if (const Json* print = in.get("print", false))
    readPrint(objectOf(print, in, "print"), in.where("print"), error, out.print.emplace());
  if (const Json* picture = in.get("picture", false))
    readPicture(objectOf(picture, in, "picture"), in.where("picture"), error,
                out.picture.emplace());
  readWord(in, "way", kWayKeys, out.way);
  readWord(in, "grain", kGrainKeys, out.grain);
  readList(in, "sheets", 20, [&](const Json& sheet, const std::string& member) {
    if (!sheet.is_object()) return in.fail(member, "file.member/object");
    readSheet(sheet, in.where(member), error, out);
  });
  double price = -1;
  in.number("price", price);
  if (price >= 0) out.price = price;
  out.extras = in.extrasText();
  return out;
}

std::vector<Paper> readPapers(const Json& json, const std::string& place,
                              std::optional<Error>& error) {
  std::vector<Paper> papers;
  if (!json.is_array() || json.size() > kMostPapers) {
    if (!error) error = Error{"file.member/list", place};
    return papers;
  }
  for (std::size_t k = 0; k < json.size() && !error; ++k) {
    const std::string where = fmt::format("{}[{}]", place, k);
    if (json[k].is_object())
      papers.push_back(readPaper(json[k], where, error));
    else
      error = Error{"file.member/object", where};
  }
  return papers;
}

Json jsonOf(const Dressing& dressing) {
  Json rules = Json::array();
  for (const DressRule& rule : dressing.rules) {
    Json out = {{"on", keyOf(rule.reach)}};
    if (!rule.face.empty()) out["face"] = rule.face;
    if (rule.atGlue != AtGlue::Under) out["at_glue"] = keyOf(rule.atGlue);
    out["layers"] = Json::array();
    for (const Layer& layer : rule.layers)
      out["layers"].push_back(jsonOf(layer));
    rules.push_back(std::move(out));
  }
  Json out = {{"rules", std::move(rules)}};
  for (const Topper& topper : dressing.toppers)
    out["toppers"].push_back(jsonOf(topper));
  return out;
}

Dressing readDressing(const Json& json, const std::string& place, std::optional<Error>& error) {
  Reader in(json, place, error);
  Dressing dressing;
  readList(in, "rules", kMostRules, [&](const Json& rule, const std::string& member) {
    if (!rule.is_object()) return in.fail(member, "file.member/object");
    dressing.rules.push_back(readRule(rule, in.where(member), error));
  });
  readList(in, "toppers", kMostToppers, [&](const Json& topper, const std::string& member) {
    if (!topper.is_object()) return in.fail(member, "file.member/object");
    dressing.toppers.push_back(readTopper(topper, in.where(member), error));
  });
  return dressing;
}

} // namespace hinge
