// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/design/card_numbers.h"
#include "core/edits/dressing.h"
#include "core/geom/region.h"
#include "core/io/dress_words.h"
#include "core/io/dressing_json.h"
#include "core/io/maker_drawer.h"
#include "core/io/maker_files.h"
#include "core/io/text_file.h"
#include "core/paper/pattern.h"
#include "core/paper/topper_shape.h"
#include "core/production/bench.h"
#include <QDir>
#include <QTemporaryDir>
#include <random>
#include <set>
#endif

using namespace hinge;
using namespace hinge::test;

// Papers, what is printed on them, and the drawers and tables in which a maker keeps what is true
// of all cards.

namespace {

/// Which ink lies on top at the points of a grid over one repeat (0: bare paper), as it is painted:
/// each shape with those that come in from the neighbours.
class InkMap {
public:
  InkMap(const PatternTile& tile, int across, int up)
      : m_across(across), m_up(up), m_inks(static_cast<std::size_t>(across * up), 0) {
    for (int row = 0; row < up; ++row)
      for (int column = 0; column < across; ++column)
        at(column, row) = topmost(
            tile, {(column + 0.5) * tile.width_mm / across, (row + 0.5) * tile.height_mm / up});
  }

  double share() const {
    return static_cast<double>(std::ranges::count_if(m_inks, [](int ink) { return ink > 0; })) /
           static_cast<double>(m_inks.size());
  }

  /// How much of the ink does not come to lie on the same ink when the paper is turned by quarters
  /// and laid where it fits best; 0 when it looks the same.
  double offWhenTurned(int quarters) const {
    double least = 1e9;
    for (int up = 0; up < m_up; ++up)
      for (int across = 0; across < m_across; ++across)
        least = std::min(least, offBy(quarters, across, up));
    return least / (2 * share());
  }

private:
  static int topmost(const PatternTile& tile, const Vec2& point) {
    int ink = 0;
    for (const PatternTile::Shape& shape : tile.shapes)
      for (int dy = -1; dy <= 1; ++dy)
        for (int dx = -1; dx <= 1; ++dx)
          if (contains(Region(shape.outline),
                       point - Vec2(dx * tile.width_mm, dy * tile.height_mm)))
            ink = static_cast<int>(shape.ink) + 1;
    return ink;
  }
  int& at(int column, int row) { return m_inks[static_cast<std::size_t>(row * m_across + column)]; }
  int at(int column, int row) const {
    return m_inks[static_cast<std::size_t>((row % m_up) * m_across + column % m_across)];
  }
  double offBy(int quarters, int across, int up) const {
    int off = 0;
    for (int row = 0; row < m_up; ++row)
      for (int column = 0; column < m_across; ++column) {
        const bool half = quarters == 2;
        const int x = half ? m_across - 1 - column : m_across - 1 - row,
                  y = half ? m_up - 1 - row : column;
        off += at(column, row) != at(x + across, y + up);
      }
    return static_cast<double>(off) / static_cast<double>(m_inks.size());
  }

  int m_across, m_up;
  std::vector<int> m_inks;
};

/// A grid about as fine both ways.
InkMap inkMap(const PatternTile& tile, int across = 40) {
  return {tile, across, static_cast<int>(std::lround(across * tile.height_mm / tile.width_mm))};
}

Paper mossy() {
  Paper paper;
  paper.key = "moss-300", paper.label = "Mossy board";
  paper.thickness_mm = 0.35, paper.weight_gsm = 300;
  paper.colours = {Colour{0x60, 0x70, 0x30}, Colour{0xf0, 0xf0, 0xe0}};
  paper.sheets = {{297, 420, 3}, {210, 297, std::nullopt}};
  paper.price = 1.25;
  return paper;
}

} // namespace

class TestPapers : public QObject {
  Q_OBJECT
private slots:
  void init() {
    m_folder = std::make_unique<QTemporaryDir>();
    QVERIFY(m_folder->isValid());
    qputenv("XDG_DATA_HOME", m_folder->path().toUtf8());
  }

  // --- colours -------------------------------------------------------------------------------
  void coloursAreReadAsTheyAreWritten() {
    for (int k = 0; k < 256; ++k) {
      const auto part = static_cast<std::uint8_t>(k);
      const Colour colour{part, static_cast<std::uint8_t>(255 - k), 7};
      QCOMPARE(colourFromText(colour.text()), std::optional(colour));
    }
    QCOMPARE(Colour({0xf3, 0xe6, 0xcf}).text(), std::string("#f3e6cf"));
    QCOMPARE(colourFromText("#F3e6Cf"), std::optional(Colour{0xf3, 0xe6, 0xcf}));
  }
  void whatIsNoColourIsNone() {
    for (const char* text : {"", "#", "f3e6cf", "#f3e6c", "#f3e6cf0", "#f3e6cg", "#f3 6cf",
                             "#+3e6cf", "#-3e6cf", "f#3e6cf", "#0x1122", "moss"})
      QVERIFY2(!colourFromText(text), text);
  }

  // --- patterns ------------------------------------------------------------------------------
  void everyPatternHasItsTile() {
    std::set<std::string_view> keys;
    for (const PatternKind& kind : knownPatterns()) {
      QVERIFY(keys.insert(kind.key).second);
      QCOMPARE(findPattern(kind.key), &kind);
      for (const double share : {kLeastShare, 0.5, kLargestShare}) {
        const PatternTile tile = tileOf({std::string(kind.key), kind.usualRepeat_mm, share, {}});
        const std::string name = fmt::format("{} at {}", kind.key, share);
        QVERIFY2(tile.width_mm > 0 && tile.height_mm > 0, name.c_str());
        std::set<std::size_t> inks;
        for (const PatternTile::Shape& shape : tile.shapes) {
          inks.insert(shape.ink);
          // Painted once more on each side: what reaches farther would be cut off at a seam.
          for (const Vec2& corner : shape.outline)
            QVERIFY2(corner.x() > -tile.width_mm && corner.x() < 2 * tile.width_mm &&
                         corner.y() > -tile.height_mm && corner.y() < 2 * tile.height_mm,
                     name.c_str());
        }
        QVERIFY2(inks.size() == kind.inks && *inks.rbegin() == kind.inks - 1, name.c_str());
      }
    }
    QVERIFY(!findPattern("herringbone"));
  }
  void aPatternGrowsWithItsRepeat() {
    for (const PatternKind& kind : knownPatterns()) {
      const PatternTile small = kind.tile(5, 0.4), large = kind.tile(15, 0.4);
      QVERIFY_NEAR(large.width_mm, 3 * small.width_mm, 1e-9);
      QVERIFY_NEAR(large.height_mm, 3 * small.height_mm, 1e-9);
      QCOMPARE(large.shapes.size(), small.shapes.size());
      for (std::size_t k = 0; k < small.shapes.size(); ++k)
        for (std::size_t c = 0; c < small.shapes[k].outline.size(); ++c)
          QVERIFY((large.shapes[k].outline[c] - 3 * small.shapes[k].outline[c]).norm() < 1e-9);
    }
  }
  void moreInkIsMoreInk() {
    for (const PatternKind& kind : knownPatterns()) {
      double before = 0;
      for (const double share : {0.2, 0.5, 0.8}) {
        const double inked = inkMap(kind.tile(10, share)).share();
        QVERIFY2(inked > before + 0.005 && inked < 1,
                 fmt::format("{} at {}: {} after {}", kind.key, share, inked, before).c_str());
        before = inked;
      }
    }
    // Of stripes it can be said beforehand.
    QVERIFY_NEAR(inkMap(findPattern("stripes")->tile(10, 0.5)).share(), 0.5, 1e-9);
    QVERIFY_NEAR(inkMap(findPattern("stripes")->tile(10, 0.2)).share(), 0.2, 1e-9);
  }
  /// What a layout may do with printed paper rests on this word.
  void aPatternMayBeTurnedWhenItLooksTheSameTurned() {
    constexpr double kSame = 0.2, kOther = 0.35; // the grid is not finer than its cells
    for (const PatternKind& kind : knownPatterns()) {
      const InkMap map = inkMap(kind.tile(10, 0.5));
      const double half = map.offWhenTurned(2);
      const std::string name = fmt::format("{}: {} off upside down", kind.key, half);
      if (kind.way == PatternWay::Along)
        QVERIFY2(half > kOther, name.c_str());
      else
        QVERIFY2(half < kSame, name.c_str());
      if (kind.way == PatternWay::None) {
        const double quarter = map.offWhenTurned(1);
        QVERIFY2(quarter < kSame, fmt::format("{}: {} off aside", kind.key, quarter).c_str());
      }
    }
  }

  // --- toppers -------------------------------------------------------------------------------
  void aTopperFillsItsFrame() {
    for (const TopperShape& shape : topperShapes()) {
      QCOMPARE(findTopperShape(shape.key), &shape);
      Vec2 most = Vec2::Zero();
      for (const double detail : {0.0, 0.35, 0.7, 1.0}) {
        const Box2 box = boundsOf(topperOutline(shape, 30, 20, detail));
        most = most.cwiseMax(box.size());
        QVERIFY2(box.low.x() > -15.001 && box.high.x() < 15.001 && box.low.y() > -10.001 &&
                     box.high.y() < 10.001,
                 fmt::format("{} at {}", shape.key, detail).c_str());
      }
      // A moon is a sickle, the half of a disc and a little; all others come to the edges.
      const double least = shape.key == "moon" ? 0.74 : 0.9;
      QVERIFY2(most.x() > least * 30 && most.y() > 0.9 * 20, shape.key.data());
    }
    QVERIFY(!findTopperShape("anchor"));
  }
  void theDetailOfATopperIsSeen() {
    for (const TopperShape& shape : topperShapes()) {
      const Region least = topperOutline(shape, 30, 30, 0), most = topperOutline(shape, 30, 30, 1);
      double off = 0;
      for (const Region& part : without(most, {least}))
        off += area_mm2(part);
      for (const Region& part : without(least, {most}))
        off += area_mm2(part);
      QVERIFY2(off > 9, fmt::format("{}: {} mm2", shape.key, off).c_str());
    }
  }

  // --- papers --------------------------------------------------------------------------------
  void papersThatEverybodyHas() {
    std::set<std::string> keys;
    for (const Paper& paper : knownPapers()) {
      QVERIFY(keys.insert(paper.key).second);
      QVERIFY(validate(paper));
      QCOMPARE(findPaper(knownPapers(), paper.key), &paper);
    }
    QCOMPARE(Design().papers.front(), knownPapers()[1]);
    QVERIFY(!findPaper(knownPapers(), "parchment"));
  }
  void paperHasTwoSidesWhenTheyLookAlike() {
    Paper paper;
    QVERIFY(paper.twoSided() && !paper.patterned());
    paper.colours[1].blue = 0;
    QVERIFY(!paper.twoSided());
    paper = {}, paper.print = Print{"stripes", 10, 0.5, {Colour{}}};
    QVERIFY(!paper.twoSided() && paper.patterned());
    paper = {}, paper.picture = Picture{"x", 20};
    QVERIFY(!paper.twoSided() && paper.patterned());
  }

  void picturesAreFilesOfPictures() {
    Paper paper;
    const auto with = [&](const std::string& bytes, double wide) {
      paper.picture = Picture{bytes, wide};
      return codeOf(validate(paper));
    };
    QCOMPARE(with("\x89PNG and more", 50), "");
    QCOMPARE(with("\xff\xd8 and more", 50), "");
    QCOMPARE(with("GIF89a", 50), "paper.picture");
    QCOMPARE(with("", 50), "paper.picture");
    QCOMPARE(with("\x89PNG" + std::string(kLargestPicture, 'x'), 50), "paper.picture");
    QCOMPARE(with("\x89PNG", kLeastRepeat_mm), "");
    QCOMPARE(with("\x89PNG", 1000), "");
    QCOMPARE(with("\x89PNG", kLeastRepeat_mm - 0.01), "paper.picture-wide");
    QCOMPARE(with("\x89PNG", 1000.01), "paper.picture-wide");
    QCOMPARE(with("\x89PNG", std::nan("")), "paper.picture-wide");
    paper.print = Print{"stripes", 10, 0.5, {Colour{}}}; // one or the other
    QCOMPARE(with("\x89PNG", 50), "paper.picture");
  }
  void sheetsAtHandHaveASizeAndANumber() {
    const auto with = [](const SheetsAtHand& sheet) {
      Paper paper;
      paper.sheets = {sheet};
      return codeOf(validate(paper));
    };
    for (const SheetsAtHand& right : {SheetsAtHand{0.1, 5000, 0}, SheetsAtHand{5000, 0.1, {}}})
      QCOMPARE(with(right), "");
    for (const SheetsAtHand& wrong :
         {SheetsAtHand{0, 100, 3}, SheetsAtHand{100, 0, 3}, SheetsAtHand{-1, 100, 3},
          SheetsAtHand{100, -1, 3}, SheetsAtHand{5000.1, 100, 3}, SheetsAtHand{100, 5000.1, 3},
          SheetsAtHand{100, 100, -1}, SheetsAtHand{std::nan(""), 100, 3},
          SheetsAtHand{100, std::nan(""), 3}})
      QCOMPARE(with(wrong), "paper.sheet");
  }
  void papersInUseStay() {
    const char* const kept[] = {"stock", "piece", "rule", "topper", "mat"};
    for (int use = 0; use < 5; ++use) {
      Design design = card();
      const std::string own = design.stock;
      design = *withPaper(design, mossy());
      QVERIFY(!isUsed(design, mossy().key));
      QVERIFY(withoutPaper(design, mossy().key).ok());
      add(design, "vfold", "gutter");
      Topper topper;
      topper.paper = own;
      if (use == 0) design.stock = mossy().key;
      if (use == 1) design.structures.front().paper = mossy().key;
      if (use == 2)
        design.dressing.rules = {{DressReach::All, "", AtGlue::Under, {{own}, {mossy().key}}}};
      if (use == 3) topper.paper = mossy().key;
      if (use == 4) topper.mat = Layer{mossy().key};
      design.dressing.toppers = {topper};
      QVERIFY2(isUsed(design, mossy().key), kept[use]);
      QVERIFY2(!withoutPaper(design, mossy().key).ok(), kept[use]);
    }
  }

  // --- as lines of words ---------------------------------------------------------------------
  /// Made at random: written in words and read again they are as they were.
  void papersComeBackFromTheirWords() {
    std::mt19937 random(5);
    const auto any = [&](int most) {
      return static_cast<int>(random() % (static_cast<unsigned>(most) + 1));
    };
    const auto length = [&] { return 0.25 + any(4000) * 0.125; };
    for (int k = 0; k < 400; ++k) {
      const LengthUnit unit = any(1) ? LengthUnit::Millimetre : LengthUnit::Inch;
      Paper paper;
      paper.key = fmt::format("paper-{}", k);
      paper.label = any(1) ? "Night blue" : "Moss";
      paper.thickness_mm = 0.01 * (1 + any(90)), paper.weight_gsm = any(400);
      for (Colour& colour : paper.colours)
        colour = {static_cast<std::uint8_t>(any(255)), static_cast<std::uint8_t>(any(255)),
                  static_cast<std::uint8_t>(any(255))};
      paper.surface = static_cast<Surface>(any(3)), paper.way = static_cast<PatternWay>(any(2));
      paper.grain = static_cast<Grain>(any(2));
      if (any(1))
        paper.print = Print{"stripes", 2 + 0.25 * any(300), 0.1 + 0.01 * any(80), {{1, 2, 3}}};
      else if (any(1))
        paper.picture = Picture{"\x89PNG bytes", 2 + 0.25 * any(300)};
      for (int sheets = any(2); sheets > 0; --sheets) {
        paper.sheets.push_back({length(), length(), {}});
        if (any(1)) paper.sheets.back().count = any(9);
      }
      if (any(1)) paper.price = 0.25 * any(40);
      const std::string words = inWords(paper, unit);
      const auto read = paperFromWords(words, unit);
      QVERIFY2(read.ok(), (words + (read ? "" : " | " + hinge::say(read.error()))).c_str());
      QVERIFY2(inWords(*read, unit) == words, words.c_str());
      const auto same = [](double a, double b) { return std::abs(a - b) < 1e-9; };
      QVERIFY2(same(read->thickness_mm, paper.thickness_mm) && read->label == paper.label,
               words.c_str());
      QVERIFY2(read->surface == paper.surface && read->way == paper.way &&
                   read->grain == paper.grain,
               words.c_str());
      QVERIFY2(read->print.has_value() == paper.print.has_value(), words.c_str());
      QVERIFY2(!paper.print || (same(read->print->repeat_mm, paper.print->repeat_mm) &&
                                same(read->print->share, paper.print->share)),
               words.c_str());
      QVERIFY2(read->picture.has_value() == paper.picture.has_value(), words.c_str());
      QVERIFY2(!paper.picture || (read->picture->bytes == paper.picture->bytes &&
                                  same(read->picture->width_mm, paper.picture->width_mm)),
               words.c_str());
      QVERIFY2(read->price == paper.price && read->sheets.size() == paper.sheets.size(),
               words.c_str());
      for (std::size_t s = 0; s < paper.sheets.size(); ++s)
        QVERIFY2(same(read->sheets[s].width_mm, paper.sheets[s].width_mm) &&
                     read->sheets[s].count == paper.sheets[s].count,
                 words.c_str());
    }
  }
  /// In inches whole numbers and fractions stand beside one another, in sizes and in places.
  void fractionsComeBackSideBySide() {
    Topper topper;
    topper.shape = "disc", topper.face = "card/page-b", topper.paper = "moss";
    for (const double x : {0.0, 12.7, 25.4, 88.9})
      for (const double y : {0.0, 3.175, 76.2, 98.425}) {
        topper.at = {x, y}, topper.width_mm = 12.7 + x, topper.height_mm = 12.7 + y;
        const std::string words = inWords(topper, LengthUnit::Inch);
        const auto again = topperFromWords(words, LengthUnit::Inch);
        QVERIFY2(again.ok() && (again->at - topper.at).norm() < 1e-9, words.c_str());
        QVERIFY2(std::abs(again->width_mm - topper.width_mm) < 1e-9 &&
                     std::abs(again->height_mm - topper.height_mm) < 1e-9,
                 words.c_str());
      }
    const auto typed = toppedUp(topper, {"at 2 3 1/2", "size 3 3/4 x 1 in"}, LengthUnit::Inch);
    QVERIFY(typed.ok() && (typed->at - Vec2(50.8, 88.9)).norm() < 1e-9);
    QVERIFY_NEAR(typed->width_mm, 95.25, 1e-9);
    QVERIFY_NEAR(typed->height_mm, 25.4, 1e-9);
  }
  void rulesToppersAndSplicesComeBackFromTheirWords() {
    std::mt19937 random(6);
    const auto any = [&](int most) {
      return static_cast<int>(random() % (static_cast<unsigned>(most) + 1));
    };
    const auto length = [&] { return 0.5 * any(60); };
    const auto anyLayer = [&] {
      Layer layer{any(1) ? "tar" : "canal-blue"};
      for (int sides = std::array{0, 1, 4}[static_cast<std::size_t>(any(2))]; sides > 0; --sides)
        layer.border_mm.push_back(length());
      layer.corners = static_cast<CornerStyle>(any(1));
      layer.turn = static_cast<PatternTurn>(any(2));
      if (layer.turn == PatternTurn::Angle) layer.angle_deg = any(359) + 0.25;
      return layer;
    };
    for (int k = 0; k < 400; ++k) {
      DressRule rule{static_cast<DressReach>(any(6)), "", static_cast<AtGlue>(any(2)), {}};
      if (namesFace(rule.reach)) rule.face = "s3/wall-a";
      for (int layers = any(3); layers > 0; --layers)
        rule.layers.push_back(anyLayer());
      const std::string said = inWords(rule, LengthUnit::Millimetre);
      const auto read = ruleFromWords(said, LengthUnit::Millimetre);
      QVERIFY2(read.ok() && *read == rule, said.c_str());

      Topper topper;
      topper.id = 1 + any(20), topper.face = "s3/wall-a", topper.shape = "lantern";
      topper.paper = "tar", topper.at = {length() - 9, length()};
      topper.width_mm = 2 + length(), topper.height_mm = 2 + length();
      topper.detail = 0.25 * any(4), topper.turn_deg = any(359), topper.mirrored = any(1) != 0;
      topper.fix = static_cast<TopperFix>(any(2)), topper.raised_mm = 1 + any(9);
      if (any(1)) topper.mat = anyLayer();
      if (any(3) == 0) {
        topper.shape = std::string(kOwnShape);
        topper.outlines = {Region{{0, 0}, {10.5, 0}, {0, 10}}};
        if (any(1)) topper.outlines.front().holes = {{{1, 1}, {1, 2}, {2, 1}}};
      }
      const std::string words = inWords(topper, LengthUnit::Millimetre);
      const auto topped = topperFromWords(words, LengthUnit::Millimetre);
      QVERIFY2(topped.ok(), (words + (topped ? "" : " | " + hinge::say(topped.error()))).c_str());
      Topper again = *topped;
      if (topper.fix == TopperFix::Flat) again.raised_mm = topper.raised_mm; // means nothing
      QVERIFY2(again == topper, (words + " | " + inWords(*topped, LengthUnit::Millimetre)).c_str());
      // In a file as in words.
      Dressing worn;
      worn.rules = {rule}, worn.toppers = {topper};
      std::optional<Error> error;
      Dressing kept = readDressing(jsonOf(worn), "dressing", error);
      QVERIFY2(!error && kept.toppers.size() == 1, error ? hinge::say(*error).c_str() : "");
      if (topper.fix == TopperFix::Flat) kept.toppers[0].raised_mm = topper.raised_mm;
      QVERIFY2(kept == worn, words.c_str());
      const auto turned =
          toppedUp(topper, {"mirrored no", "mat no", "turned 7"}, LengthUnit::Millimetre);
      QVERIFY(turned.ok() && !turned->mirrored && !turned->mat && turned->turn_deg == 7);

      const Splice splice{"card/page-a", length(), any(1) != 0, 5 + length(), any(1) != 0};
      const std::string cut = inWords(splice, LengthUnit::Inch);
      const auto spliced = spliceFromWords(cut, LengthUnit::Inch);
      QVERIFY2(spliced.ok() && spliced->panel == splice.panel && spliced->level == splice.level,
               cut.c_str());
      QVERIFY2(spliced->onFace == splice.onFace && std::abs(spliced->at_mm - splice.at_mm) < 1e-9,
               cut.c_str());
      QVERIFY2(std::abs(spliced->overlap_mm - splice.overlap_mm) < 1e-9, cut.c_str());
    }
  }
  void wordsThatSayNothingAreRefused() {
    for (const char* words :
         {"p: thick x", "p: weight", "p: face red-ish", "p: print stripes every x",
          "p: print stripes 7", "p: sheets 10 by 20", "p: sheets 10 x", "p: sheets 10 x 20 -1",
          "p: picture 10", "p: picture x eHg=", "p: picture 10 eHg= more", "p: surface rough-ish",
          "p: way up", "p: grain odd", "p: colour #112233"})
      QVERIFY2(!paperFromWords(words, LengthUnit::Millimetre).ok(), words);
    for (const char* words :
         {"somewhere s1/a: tar", "face s1/a beside: tar", "face s1/a over under: tar",
          "all: tar border x", "all: tar squared", "all: tar turned x", "all: tar border 1,2,x,4"})
      QVERIFY2(!ruleFromWords(words, LengthUnit::Millimetre).ok(), words);
    for (const char* words : {"t1 lantern on s1/a: at 3", "t1 lantern on s1/a: size 3 y 4",
                              "t1 lantern on s1/a: size x x 4", "t1 lantern on s1/a: turned x",
                              "t1 lantern on s1/a: pads x", "t1 lantern on s1/a: mat tar odd",
                              "t1 own on s1/a: outline 0/0 1/x", "t1 lantern on s1/a: hovering 3"})
      QVERIFY2(!topperFromWords(words, LengthUnit::Millimetre).ok(), words);
  }

  // --- the maker's drawer --------------------------------------------------------------------
  void noFileIsAnEmptyDrawer() {
    QCOMPARE(makersPapers().value(), std::vector<Paper>());
    QVERIFY(forgetPaper("moss-300"));
    QVERIFY(!QFile::exists(QString::fromStdString(makersDrawerPath())));
    QCOMPARE(makersDrawerPath(), m_folder->path().toStdString() + "/hinge-lantern/papers.json");
  }
  void whatIsKeptIsThereAgain() {
    Paper other = mossy();
    other.key = "reed", other.label = "", other.print = Print{"reeds", 14, 0.4, {{}, {1, 2, 3}}};
    QVERIFY(keepPaper(mossy()) && keepPaper(other));
    QCOMPARE(makersPapers().value(), (std::vector<Paper>{mossy(), other}));

    Paper thicker = mossy();
    thicker.thickness_mm = 0.4;
    QVERIFY(keepPaper(thicker)); // in the place of the one before
    QCOMPARE(makersPapers().value(), (std::vector<Paper>{thicker, other}));
    QVERIFY(forgetPaper("moss-300") && forgetPaper("never-kept"));
    QCOMPARE(makersPapers().value(), (std::vector<Paper>{other}));
  }
  void whatCannotBeIsNotKept() {
    Paper paper = mossy();
    paper.thickness_mm = -1;
    QVERIFY(!keepPaper(paper));
    QCOMPARE(makersPapers().value(), std::vector<Paper>());
  }
  void aDamagedDrawerIsLeftAsItIs() {
    QVERIFY(keepPaper(mossy()));
    const std::string path = makersDrawerPath(), whole = readFile(path).value();
    std::string impossible = whole;
    const std::size_t at = impossible.find("0.35");
    QVERIFY(at != std::string::npos);
    impossible.replace(at, 4, "9000");
    const std::pair<std::string, std::string> damaged[] = {
        {whole.substr(0, whole.size() / 2), path},
        {"[]", path},
        {"{\"format\": \"hinge-lantern\"}", path},
        {impossible, path + ": papers[0].thickness_mm"}};
    for (const auto& [text, place] : damaged) {
      QVERIFY(writeFile(path, text));
      const auto read = makersPapers();
      QVERIFY(!read);
      QVERIFY2(read.error().place.starts_with(path), read.error().place.c_str());
      QVERIFY(!keepPaper(mossy()) && !forgetPaper("moss-300"));
      QCOMPARE(readFile(path).value(), text);
    }
  }
  void aFileWhereTheFolderShouldBeIsNamed() {
    const std::string folder =
        QFileInfo(QString::fromStdString(makersDrawerPath())).path().toStdString();
    QVERIFY(writeFile(folder, "not a folder"));
    const auto kept = keepPaper(mossy());
    QCOMPARE(codeOf(kept), std::string("file.unwritable/folder"));
    QCOMPARE(kept.error().place, makersDrawerPath());
    QCOMPARE(readFile(folder).value(), std::string("not a folder"));
  }

  // --- tables --------------------------------------------------------------------------------
  void theCardsNumbersKeepToTheirRanges() {
    for (const CardNumber& number : cardNumbers()) {
      const std::string name(number.key);
      QCOMPARE(findCardNumber(name), &number);
      Design d = card();
      const auto set = [&](double value) {
        return setCardNumber(d, number, fmt::format("{}", value));
      };
      QVERIFY2(set(number.least) && number.of(d) == number.least, name.c_str());
      QVERIFY2(set(number.most) && number.of(d) == number.most, name.c_str());
      for (const double beyond : {number.least - 0.01, number.most + 0.01}) {
        const auto refused = set(beyond);
        QVERIFY2(codeOf(refused) == "value.range" && refused.error().place == name, name.c_str());
        QVERIFY2(number.of(d) == number.most, name.c_str());
      }
      const auto unread = setCardNumber(d, number, "much");
      QVERIFY2(!unread && unread.error().place == name, name.c_str());
      QVERIFY2(number.of(d) == number.most, name.c_str());
    }
    QVERIFY(!findCardNumber("colour"));
  }
  void theCardsLengthsAreReadInItsUnit() {
    Design d = card();
    d.settings.unit = LengthUnit::Inch;
    QVERIFY(setCardNumber(d, *findCardNumber("least_tab"), "1/2"));
    QVERIFY_NEAR(d.settings.leastTabDepth_mm, 12.7, 1e-9);
    QVERIFY(setCardNumber(d, *findCardNumber("tab_bevel_deg"), "30"));
    QVERIFY_NEAR(d.settings.tabBevel_deg, 30, 1e-12);
  }
  void theBenchKeepsToItsRanges() {
    for (const BenchRow& row : benchRows()) {
      const std::string place = "bench." + std::string(row.key);
      if (!row.number) {
        const auto choices = choicesOf(row.key);
        QCOMPARE(choices.size(), std::size_t(2));
        Bench bench;
        for (const std::string_view choice : choices) {
          QVERIFY2(setSchool(bench, row.key, choice), place.c_str());
          QVERIFY2(schoolOf(bench, row.key) == choice, place.c_str());
        }
        QVERIFY2(!setSchool(bench, row.key, "sometimes"), place.c_str());
        QVERIFY2(schoolOf(bench, row.key) == choices[1], place.c_str());
        continue;
      }
      QVERIFY(choicesOf(row.key).empty());
      for (const auto& [value, good] :
           {std::pair{row.least, true}, std::pair{row.most, true},
            std::pair{row.least - 1e-3, false}, std::pair{row.most + 1e-3, false}}) {
        Bench bench;
        bench.*row.number = value;
        const auto valid = validate(bench);
        QVERIFY2(bool(valid) == good, fmt::format("{} {}", place, value).c_str());
        if (!valid) QCOMPARE(valid.error().place, place);
      }
    }
    Bench bench;
    bench.speeds_cms["moss-300"] = kFastest_cms + 1;
    QCOMPARE(validate(bench).error().place, std::string("bench.speed:moss-300"));
  }
  void withoutAStepTheUnitsLatticeIsTheFinest() {
    Bench bench;
    QVERIFY_NEAR(stepOf_mm(bench, LengthUnit::Millimetre), 0.5, 1e-12);
    QVERIFY_NEAR(stepOf_mm(bench, LengthUnit::Inch), 25.4 / 16, 1e-12);
    bench.step_mm = 2;
    QVERIFY_NEAR(stepOf_mm(bench, LengthUnit::Inch), 2, 1e-12);
  }

private:
  std::unique_ptr<QTemporaryDir> m_folder;
};

QTEST_GUILESS_MAIN(TestPapers)
#include "test_papers.moc"
