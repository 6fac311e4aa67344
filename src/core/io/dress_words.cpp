// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/dress_words.h"
#include "core/io/dressing_json.h"
#include "core/io/quoted.h"
#include "core/paper/paper_keys.h"
#include "core/pieces/sheet_words.h"
#include <algorithm>
#include <fmt/format.h>

namespace hinge {
namespace {

/// Where the first part ends; what stands in quotes is not parted.
std::size_t endOfPart(std::string_view text, char at) {
  for (std::size_t k = 0; k < text.size(); ++k) {
    if (text[k] == at) return k;
    if (text[k] == '"' && (k == 0 || text[k - 1] == ' ')) k = endOfQuoted(text, k) - 1;
  }
  return text.size();
}

std::vector<std::string> partsOf(std::string_view text, char at) {
  std::vector<std::string> parts;
  while (!text.empty()) {
    const auto end = endOfPart(text, at);
    std::string_view part = text.substr(0, end);
    text.remove_prefix(std::min(end + 1, text.size()));
    while (!part.empty() && part.front() == ' ')
      part.remove_prefix(1);
    while (!part.empty() && (part.back() == ' ' || part.back() == '\r'))
      part.remove_suffix(1);
    if (!part.empty()) parts.emplace_back(part);
  }
  return parts;
}

Error notUnderstood(std::string_view what) {
  return {{"dress.words", std::string(what.substr(0, 60))}, ""};
}

/// A length in one word, whatever the unit: for lists of borders, where a blank would part them.
std::string inOneWord(double length_mm, LengthUnit unit) {
  const std::string text = exactLength(length_mm, unit);
  if (text.find(' ') == std::string::npos) return text;
  return exactLength(length_mm, LengthUnit::Millimetre) + "mm";
}

/// The second of two lengths side by side. A bare fraction would be taken for part of the first.
std::string beside(double length_mm, LengthUnit unit) {
  const std::string text = exactLength(length_mm, unit);
  const bool bare = text.find('/') != std::string::npos && text.find(' ') == std::string::npos;
  return bare && length_mm > 0 ? "0 " + text : text;
}

/// Before and behind the colon.
std::pair<std::string, std::string> headed(std::string_view text) {
  const auto colon = std::min(text.find(':'), text.size());
  const auto head = partsOf(text.substr(0, colon), '\n');
  return {head.empty() ? "" : head.front(),
          std::string(text.substr(std::min(colon + 1, text.size())))};
}

template <class Enum, std::size_t N>
bool wordTo(const std::string_view (&words)[N], const std::string& word, Enum& out) {
  for (std::size_t k = 0; k < N; ++k)
    if (words[k] == word) return out = static_cast<Enum>(k), true;
  return false;
}

/// Words one after the other, with what each takes behind it.
class Words {
public:
  explicit Words(std::string_view text) : m_all(partsOf(text, ' ')) {}
  bool done() const { return m_at >= m_all.size(); }
  std::string next() { return done() ? "" : m_all[m_at++]; }
  std::string peek() const { return done() ? "" : m_all[m_at]; }
  /// A length: a whole number takes the fraction behind it along, and a number its unit.
  Result<double> length_mm(LengthUnit unit) {
    std::string text = next();
    const auto isDigits = [](std::string_view word) {
      return !word.empty() && word.find_first_not_of("0123456789") == std::string_view::npos;
    };
    const std::string behind = peek();
    const auto stroke = behind.find('/');
    const bool isFraction = stroke != std::string::npos && isDigits(behind.substr(0, stroke)) &&
                            parseLength_mm(behind, unit).ok();
    if (isFraction && isDigits(std::string_view(text).substr(text.starts_with('-') ? 1 : 0)))
      text += " " + next();
    if (peek() == "mm" || peek() == "cm" || peek() == "in") text += " " + next();
    return parseLength_mm(text, unit);
  }
  std::string rest() {
    std::string text;
    while (!done())
      text += (text.empty() ? "" : " ") + next();
    return text;
  }

private:
  std::vector<std::string> m_all;
  std::size_t m_at = 0;
};

Result<Print> printFromWords(Words& words, LengthUnit unit) {
  Print print;
  print.key = words.next();
  while (!words.done()) {
    const std::string word = words.next();
    if (word == "every" || word == "share") {
      const auto value = word == "every" ? words.length_mm(unit) : parseAngle_deg(words.next());
      if (!value) return value.error();
      (word == "every" ? print.repeat_mm : print.share) = *value;
    } else if (const auto ink = colourFromText(word)) {
      print.inks.push_back(*ink);
    } else {
      return notUnderstood(word);
    }
  }
  return print;
}

Result<SheetsAtHand> sheetFromWords(Words& words, LengthUnit unit) {
  SheetsAtHand sheet;
  const auto width = words.length_mm(unit);
  const bool by = words.next() == "x";
  const auto height = words.length_mm(unit);
  if (!width || !height || !by) return notUnderstood("sheets");
  sheet.width_mm = *width, sheet.height_mm = *height;
  if (words.done()) return sheet;
  const auto count = parseAngle_deg(words.next());
  if (!count || *count < 0) return notUnderstood("sheets");
  sheet.count = static_cast<int>(*count);
  return sheet;
}

Result<void> readOnePart(const std::string& part, LengthUnit unit, Paper& paper) {
  Words words(part);
  const std::string what = words.next();
  const auto number = [&](double& out) -> Result<void> {
    const auto value =
        what == "thick" ? parseLength_mm(words.rest(), unit) : parseAngle_deg(words.rest());
    if (!value) return value.error();
    return out = *value, Result<void>();
  };
  if (what == "called") return paper.label = unquoted(words.rest()), Result<void>();
  if (what == "thick") return number(paper.thickness_mm);
  if (what == "weight") return number(paper.weight_gsm);
  if (what == "price") return number(paper.price.emplace());
  if (what == "face" || what == "back") {
    const auto colour = colourFromText(words.rest());
    if (!colour) return notUnderstood(part);
    return paper.colours[what == "face" ? 0 : 1] = *colour, Result<void>();
  }
  if (what == "print") {
    auto print = printFromWords(words, unit);
    if (!print) return print.error();
    return paper.print = *print, Result<void>();
  }
  if (what == "picture") {
    const auto wide = words.length_mm(unit);
    const auto bytes = fromBase64(words.next());
    if (!wide || !bytes || !words.done()) return notUnderstood("picture");
    return paper.picture = Picture{*bytes, *wide}, Result<void>();
  }
  if (what == "sheets") {
    const auto sheet = sheetFromWords(words, unit);
    if (!sheet) return sheet.error();
    return paper.sheets.push_back(*sheet), Result<void>();
  }
  const std::string word = words.rest();
  if ((what == "surface" && wordTo(kSurfaceKeys, word, paper.surface)) ||
      (what == "way" && wordTo(kWayKeys, word, paper.way)) ||
      (what == "grain" && wordTo(kGrainKeys, word, paper.grain)))
    return {};
  return notUnderstood(part);
}

Result<Layer> layerFromWords(const std::string& text, LengthUnit unit) {
  Words words(text);
  Layer layer;
  layer.paper = words.next();
  while (!words.done()) {
    const std::string word = words.next();
    if (word == "border") {
      auto borders = bordersFromText(words.next(), unit);
      if (!borders) return borders.error();
      layer.border_mm = *borders;
    } else if (word == "round") {
      layer.corners = CornerStyle::Round;
    } else if (word == "along-fold") {
      layer.turn = PatternTurn::AlongFold;
    } else if (word == "turned") {
      const auto angle = parseAngle_deg(words.next());
      if (!angle) return angle.error();
      layer.turn = PatternTurn::Angle, layer.angle_deg = *angle;
    } else {
      return notUnderstood(word);
    }
  }
  return layer;
}

/// `parting` stands between borders; where a comma parts what is said, they take another.
std::string inWords(const Layer& layer, LengthUnit unit, char parting = ',') {
  std::string text = layer.paper;
  for (std::size_t k = 0; k < layer.border_mm.size(); ++k)
    text += (k == 0 ? " border " : std::string(1, parting)) + inOneWord(layer.border_mm[k], unit);
  if (layer.corners == CornerStyle::Round) text += " round";
  if (layer.turn == PatternTurn::AlongFold) text += " along-fold";
  if (layer.turn == PatternTurn::Angle) text += " turned " + exactNumber(layer.angle_deg);
  return text;
}

/// Corners as "x/y" in mm, which no unit rounds.
Result<Region> outlineFromWords(Words& words) {
  Region region;
  Polygon* ring = &region.rim;
  while (!words.done()) {
    const std::string word = words.next();
    if (word == "hole") {
      ring = &region.holes.emplace_back();
      continue;
    }
    const auto stroke = std::min(word.find('/'), word.size());
    const auto x = parseAngle_deg(word.substr(0, stroke)),
               y = parseAngle_deg(word.substr(std::min(stroke + 1, word.size())));
    if (!x || !y) return notUnderstood(word);
    ring->emplace_back(*x, *y);
  }
  return region;
}

Result<void> readLengths(Words& words, LengthUnit unit, bool by, double& one, double& other) {
  const auto first = words.length_mm(unit);
  if (by && words.next() != "x") return notUnderstood("size");
  const auto second = words.length_mm(unit);
  if (!first) return first.error();
  if (!second) return second.error();
  one = *first, other = *second;
  return {};
}

Result<void> readTopperPart(const std::string& part, LengthUnit unit, Topper& topper) {
  Words words(part);
  const std::string what = words.next();
  const auto number = [&](double& out, bool length) -> Result<void> {
    const auto value = length ? parseLength_mm(words.rest(), unit) : parseAngle_deg(words.rest());
    if (!value) return value.error();
    return out = *value, Result<void>();
  };
  if (what == "paper") return topper.paper = words.rest(), Result<void>();
  if (what == "shape") return topper.shape = words.rest(), Result<void>();
  if (what == "on") return topper.face = words.rest(), Result<void>();
  if (what == "text") return topper.text = unquoted(words.rest()), Result<void>();
  if (what == "mirrored") return topper.mirrored = words.rest() != "no", Result<void>();
  if (what == "at") return readLengths(words, unit, false, topper.at.x(), topper.at.y());
  if (what == "size") return readLengths(words, unit, true, topper.width_mm, topper.height_mm);
  if (what == "detail") return number(topper.detail, false);
  if (what == "turned") return number(topper.turn_deg, false);
  if (const auto fix = topperFixFromKey(what)) {
    topper.fix = *fix;
    return words.done() ? Result<void>() : number(topper.raised_mm, true);
  }
  if (what == "mat") {
    const std::string rest = words.rest();
    if (rest == "no") return topper.mat.reset(), Result<void>();
    auto layer = layerFromWords(rest, unit);
    if (!layer) return layer.error();
    return topper.mat = *layer, Result<void>();
  }
  if (what == "outline") {
    auto outline = outlineFromWords(words);
    if (!outline) return outline.error();
    return topper.outlines.push_back(*outline), Result<void>();
  }
  return notUnderstood(part);
}

} // namespace

Result<std::vector<double>> bordersFromText(std::string_view text, LengthUnit unit) {
  std::vector<double> borders;
  const char parting = text.find(':') == std::string_view::npos ? ',' : ':';
  for (const std::string& part : partsOf(text, parting)) {
    const auto border = parseLength_mm(part, unit);
    if (!border) return border.error();
    borders.push_back(*border);
  }
  if (borders.size() != 1 && borders.size() != 4) return Error{"dress.borders", ""};
  return borders;
}

std::string inWords(const Paper& paper, LengthUnit unit) {
  std::string text =
      fmt::format("{}: thick {}, weight {}", paper.key, exactLength(paper.thickness_mm, unit),
                  exactNumber(paper.weight_gsm));
  if (paper.colours != Paper().colours)
    text += fmt::format(", face {}, back {}", paper.colours[0].text(), paper.colours[1].text());
  if (paper.surface != Surface::Matt)
    text += fmt::format(", surface {}", kSurfaceKeys[static_cast<std::size_t>(paper.surface)]);
  if (paper.print) {
    text += fmt::format(", print {} every {} share {}", paper.print->key,
                        exactLength(paper.print->repeat_mm, unit), exactNumber(paper.print->share));
    for (const Colour& ink : paper.print->inks)
      text += " " + ink.text();
  }
  if (paper.picture)
    text += fmt::format(", picture {} {}", exactLength(paper.picture->width_mm, unit),
                        toBase64(paper.picture->bytes));
  if (paper.way != PatternWay::None)
    text += fmt::format(", way {}", kWayKeys[static_cast<std::size_t>(paper.way)]);
  if (paper.grain != Grain::Unknown)
    text += fmt::format(", grain {}", kGrainKeys[static_cast<std::size_t>(paper.grain)]);
  for (const SheetsAtHand& sheet : paper.sheets) {
    text += fmt::format(", sheets {} x {}", exactLength(sheet.width_mm, unit),
                        exactLength(sheet.height_mm, unit));
    if (sheet.count) text += fmt::format(" {}", *sheet.count);
  }
  if (paper.price) text += ", price " + exactNumber(*paper.price);
  return text + ", called " + quoted(paper.label, ',');
}

Result<Paper> paperFromWords(std::string_view text, LengthUnit unit) {
  const auto [key, rest] = headed(text);
  Paper paper;
  paper.key = key, paper.label = key;
  for (const std::string& part : partsOf(rest, ','))
    if (auto read = readOnePart(part, unit, paper); !read) return read.error();
  if (auto valid = validate(paper); !valid) return valid.error();
  return paper;
}

std::string inWords(const DressRule& rule, LengthUnit unit) {
  std::string text(keyOf(rule.reach));
  if (!rule.face.empty()) text += " " + rule.face;
  if (rule.atGlue != AtGlue::Under) text += fmt::format(" {}", keyOf(rule.atGlue));
  for (std::size_t k = 0; k < rule.layers.size(); ++k)
    text += (k == 0 ? ": " : "; ") + inWords(rule.layers[k], unit);
  return text;
}

Result<DressRule> ruleFromWords(std::string_view text, LengthUnit unit) {
  const auto [head, rest] = headed(text);
  Words words(head);
  DressRule rule;
  const auto reach = dressReachFromKey(words.peek());
  if (!reach) return notUnderstood(head);
  rule.reach = *reach;
  words.next();
  if (namesFace(rule.reach)) rule.face = words.next();
  if (!words.done()) {
    const auto how = atGlueFromKey(words.next());
    if (!how || !words.done()) return notUnderstood(head);
    rule.atGlue = *how;
  }
  for (const std::string& part : partsOf(rest, ';')) {
    auto layer = layerFromWords(part, unit);
    if (!layer) return layer.error();
    rule.layers.push_back(std::move(layer).value());
  }
  return rule;
}

std::string inWords(const Topper& topper, LengthUnit unit) {
  std::string text =
      fmt::format("{} {} on {}: paper {}, at {} {}, size {} x {}, detail {}", topper.name(),
                  topper.shape, topper.face, topper.paper, exactLength(topper.at.x(), unit),
                  beside(topper.at.y(), unit), exactLength(topper.width_mm, unit),
                  exactLength(topper.height_mm, unit), exactNumber(topper.detail));
  if (topper.turn_deg != 0) text += ", turned " + exactNumber(topper.turn_deg);
  if (topper.mirrored) text += ", mirrored";
  if (topper.fix != TopperFix::Flat)
    text += fmt::format(", {} {}", keyOf(topper.fix), exactLength(topper.raised_mm, unit));
  if (topper.mat) text += ", mat " + inWords(*topper.mat, unit, ':');
  if (!topper.text.empty()) text += ", text " + quoted(topper.text, ',');
  const auto ring = [](const Polygon& corners) {
    std::string points;
    for (const Vec2& corner : corners)
      points += fmt::format(" {}/{}", exactNumber(corner.x()), exactNumber(corner.y()));
    return points;
  };
  for (const Region& outline : topper.outlines) {
    text += ", outline" + ring(outline.rim);
    for (const Polygon& hole : outline.holes)
      text += " hole" + ring(hole);
  }
  return text;
}

Result<Topper> toppedUp(Topper topper, const std::vector<std::string>& parts, LengthUnit unit) {
  for (const std::string& part : parts)
    if (auto read = readTopperPart(part, unit, topper); !read) return read.error();
  return topper;
}

Result<Topper> topperFromWords(std::string_view text, LengthUnit unit) {
  const auto [head, rest] = headed(text);
  Words words(head);
  const std::string id = words.next();
  Topper topper;
  const auto number =
      id.starts_with('t') ? parseAngle_deg(id.substr(1)) : Result<double>(notUnderstood(id));
  if (!number || !(*number >= 1 && *number < 1e9)) return notUnderstood(head);
  topper.id = static_cast<int>(*number);
  topper.shape = words.next();
  if (words.next() != "on") return notUnderstood(head);
  topper.face = words.next();
  return toppedUp(std::move(topper), partsOf(rest, ','), unit);
}

std::string inWords(const Splice& splice, LengthUnit unit) {
  return fmt::format("{}: at {}, overlap {}{}{}", splice.panel, exactLength(splice.at_mm, unit),
                     exactLength(splice.overlap_mm, unit), splice.level ? ", level" : "",
                     splice.onFace ? ", on-face" : "");
}

Result<Splice> spliceFromWords(std::string_view text, LengthUnit unit) {
  const auto colon = text.find(": ");
  if (colon == std::string_view::npos) return Error{{"page.line", text.substr(0, 40)}, ""};
  Splice splice;
  splice.panel = text.substr(0, colon);
  for (const std::string& part : partsOf(text.substr(colon + 2), ',')) {
    Words words(part);
    const std::string word = words.next();
    if (word == "level" || word == "on-face") {
      (word == "level" ? splice.level : splice.onFace) = true;
      continue;
    }
    const auto length = parseLength_mm(words.rest(), unit);
    if (word != "at" && word != "overlap") return Error{{"page.line", part}, ""};
    if (!length) return length.error();
    (word == "at" ? splice.at_mm : splice.overlap_mm) = *length;
  }
  return splice;
}

} // namespace hinge
