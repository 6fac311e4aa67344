// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/paper.h"
#include <algorithm>
#include <cctype>

namespace hinge {
namespace {

Paper stock(const char* key, const char* label, double thickness_mm, double weight_gsm) {
  Paper paper;
  paper.key = key, paper.label = label;
  paper.thickness_mm = thickness_mm, paper.weight_gsm = weight_gsm;
  return paper;
}

Paper coloured(const char* key, const char* label, Colour colour) {
  Paper paper = stock(key, label, 0.27, 220);
  paper.colours = {colour, colour};
  return paper;
}

Paper printed(const char* key, const char* label, const char* pattern, Colour ground,
              std::vector<Colour> inks, double share = 0.5) {
  Paper paper = stock(key, label, 0.15, 120);
  const PatternKind& kind = *findPattern(pattern);
  paper.colours = {ground, Paper::kPlain};
  paper.print = Print{pattern, kind.usualRepeat_mm, share, std::move(inks)};
  paper.way = kind.way;
  return paper;
}

std::vector<Paper> everyPaper() {
  std::vector<Paper> all{stock("card-160", "Text-weight card 160 gsm", 0.20, 160), Paper{},
                         stock("board-300", "Board 300 gsm", 0.35, 300),
                         stock("patterned-120", "Patterned paper 120 gsm", 0.15, 120),
                         stock("film-140", "Clear film", 0.10, 140)};
  all.back().surface = Surface::Film;
  const Colour night{0x1f, 0x2a, 0x44}, canal{0x2f, 0x6d, 0x86}, lamp{0xf2, 0xb1, 0x34},
      brick{0xa8, 0x4a, 0x35}, moss{0x5f, 0x7a, 0x3d}, plum{0x6b, 0x35, 0x57},
      rice{0xf7, 0xee, 0xdc}, tar{0x2b, 0x2a, 0x2e}, shell{0xe9, 0xc9, 0xb4},
      reed{0xc9, 0xb6, 0x6d}, mist{0xc4, 0xd3, 0xd6}, oak{0xb9, 0x86, 0x52};
  for (const auto& [key, label, colour] :
       {std::tuple("night-blue", "Night blue", night),
        std::tuple("canal-blue", "Canal blue", canal), std::tuple("lamp-gold", "Lamp gold", lamp),
        std::tuple("brick-red", "Brick red", brick), std::tuple("moss", "Moss", moss),
        std::tuple("plum", "Plum", plum), std::tuple("rice", "Rice white", rice),
        std::tuple("tar", "Tar black", tar), std::tuple("shell", "Shell", shell),
        std::tuple("mist", "Mist", mist)})
    all.push_back(coloured(key, label, colour));
  Paper foil = coloured("brass-foil", "Brass foil", {0xd8, 0xa8, 0x4e});
  foil.surface = Surface::Foil, foil.colours[1] = Paper::kPlain;
  all.push_back(std::move(foil));
  all.push_back(printed("awning-stripes", "Awning stripes", "stripes", rice, {brick}));
  all.push_back(printed("lamp-dots", "Lamp dots", "dots", night, {lamp}, 0.35));
  all.push_back(printed("net", "Net", "lattice", mist, {canal}, 0.2));
  all.push_back(printed("canal-waves", "Canal waves", "waves", canal, {mist}, 0.35));
  all.push_back(printed("lantern-string", "String of lanterns", "lanterns", plum, {lamp, tar}));
  all.push_back(printed("deck-planks", "Deck planks", "planks", oak, {tar}, 0.2));
  all.push_back(printed("quay-tiles", "Quay tiles", "tiles", shell, {brick, canal}));
  all.push_back(printed("night-sky", "Night sky", "night-sky", night, {rice, lamp}));
  all.push_back(printed("quay-bricks", "Quay bricks", "bricks", brick, {shell}, 0.2));
  all.push_back(printed("roof-scales", "Roof scales", "scales", moss, {tar}, 0.2));
  all.push_back(printed("reeds", "Reeds", "reeds", reed, {moss, oak}));
  all.push_back(printed("pennants", "Pennants", "pennants", rice, {brick, canal}));
  return all;
}

bool isWord(const std::string& key) {
  return !key.empty() && key.size() <= 40 &&
         std::ranges::all_of(key, [](unsigned char c) { return std::isalnum(c) || c == '-'; });
}

} // namespace

std::span<const Paper> knownPapers() {
  static const std::vector<Paper> all = everyPaper();
  return all;
}

const Paper* findPaper(std::span<const Paper> papers, std::string_view key) {
  const auto found = std::ranges::find(papers, key, &Paper::key);
  return found == papers.end() ? nullptr : &*found;
}

Text nameOf(const Paper& paper) {
  const Paper* known = findPaper(knownPapers(), paper.key);
  return known && known->label == paper.label ? Text("stock." + paper.key)
                                              : Text("as-it-is", paper.label);
}

Result<void> validate(const Paper& paper) {
  const auto wrong = [&](Text why) { return Error{std::move(why), paper.key}; };
  if (!isWord(paper.key)) return wrong({"paper.key", paper.key.substr(0, 40)});
  if (!(paper.thickness_mm >= 0 && paper.thickness_mm <= kLargestThickness_mm))
    return wrong({"paper.thickness", Millimetres{kLargestThickness_mm}});
  if (!(paper.weight_gsm >= 0 && paper.weight_gsm <= kLargestWeight_gsm))
    return wrong({"paper.weight", Decimal{kLargestWeight_gsm, 0}});
  for (const SheetsAtHand& sheet : paper.sheets)
    if (!(sheet.width_mm > 0 && sheet.height_mm > 0 && sheet.width_mm <= 5000 &&
          sheet.height_mm <= 5000 && sheet.count.value_or(0) >= 0))
      return wrong("paper.sheet");
  if (paper.picture) {
    const std::string& bytes = paper.picture->bytes;
    const bool known = bytes.starts_with("\x89PNG") || bytes.starts_with("\xff\xd8");
    if (!known || bytes.size() > kLargestPicture || paper.print) return wrong("paper.picture");
    if (!(paper.picture->width_mm >= kLeastRepeat_mm && paper.picture->width_mm <= 1000))
      return wrong({"paper.picture-wide", Millimetres{kLeastRepeat_mm}});
  }
  if (!paper.print) return {};
  const PatternKind* kind = findPattern(paper.print->key);
  if (!kind) return wrong({"paper.pattern", paper.print->key.substr(0, 40)});
  const Print& print = *paper.print;
  if (!(print.repeat_mm >= kLeastRepeat_mm && print.repeat_mm <= kLargestRepeat_mm))
    return wrong({"paper.repeat", Millimetres{kLeastRepeat_mm}, Millimetres{kLargestRepeat_mm}});
  if (!(print.share >= kLeastShare && print.share <= kLargestShare))
    return wrong({"paper.share", Decimal{kLeastShare, 1}, Decimal{kLargestShare, 1}});
  if (print.inks.size() != kind->inks) return wrong({"paper.inks", static_cast<int>(kind->inks)});
  return {};
}

} // namespace hinge
