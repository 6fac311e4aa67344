// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/progress.h"
#include "core/design/design.h"
#include "core/dress/mats.h"
#include "core/production/bench.h"
#include "core/production/flat_piece.h"
#include <optional>
#include <stop_token>

namespace hinge {

/// One thing that is cut: a piece, equal strips as one wide sheet, or a layer.
struct CutPart {
  FlatPiece flat;          ///< a layer has no piece, and its cut line alone
  std::string key;         ///< of the piece; "layer-3" of the third line of the mats
  std::size_t mat = 0;     ///< number of that line from 1; 0: a piece
  bool mirrored = false;   ///< the other hand of its line
  std::string paper;       ///< key in the drawer
  Region outline;          ///< in the frame of `flat`
  unsigned turns = 0b1111; ///< by how many quarter turns it may lie on a sheet, as bits
  int card = 0;            ///< which copy of the card it is for, from 0
  Vec2 size() const { return flat.bounds.size(); }
};

/// Everything that is cut for so many cards, in the order of the assembly, layers after pieces.
/// Papers that run one way, or have a grain, leave pieces the turns that keep it; the upright of a
/// layer looks up in its frame. With `together` equal plain strips become one wide sheet.
std::vector<CutPart> partsToCut(const Design& design, const std::vector<FlatPiece>& pieces,
                                const std::vector<MatLine>& mats, int cards, bool together);

/// Where a part lies on its sheet: turned by quarters about its frame's origin, then moved.
struct PartPlace {
  std::size_t part = 0;
  int quarters = 0;
  Vec2 offset = Vec2::Zero();
  bool pinned = false; ///< put there by hand
  Vec2 onSheet(const Vec2& p) const {
    const Vec2 turned[] = {p, {-p.y(), p.x()}, -p, {p.y(), -p.x()}};
    return turned[quarters & 3] + offset;
  }
};
Box2 boxOnSheet(const CutPart& part, const PartPlace& place);
Region onSheet(const CutPart& part, const PartPlace& place);

/// A sheet with what is cut from it, its lower left corner in the origin.
struct LaidSheet {
  std::string paper;
  double width_mm = 0, height_mm = 0;
  std::vector<PartPlace> places;
  std::vector<Box2> offcuts; ///< rectangles that are worth keeping, the largest first
};

/// One cut of the trimmer, from edge to edge of a blank. Blanks are numbered: first the sheets,
/// then what cuts make of them.
struct TrimCut {
  std::size_t blank = 0;
  double set_mm = 0;               ///< the stop: how wide the strip is that is cut off
  bool upright = false;            ///< the strip's width lies along x
  bool setting = false;            ///< the stop is set anew for this one
  std::size_t strip = 0, rest = 0; ///< the blanks that come of it
};

/// Where a blank lies on its sheet, until it is cut.
struct Blank {
  std::size_t sheet = 0;
  Box2 box;
  std::optional<std::size_t> cut; ///< that ends it, in the list; none: it is a part or an offcut
};

enum class LayoutFor { Trimmer, Machine };

/// How a set of parts is cut from sheets.
struct CutPlan {
  LayoutFor how = LayoutFor::Machine;
  std::vector<CutPart> parts;
  std::vector<LaidSheet> sheets;
  std::vector<TrimCut> cuts;         ///< Trimmer: in their order
  std::vector<std::size_t> tooLarge; ///< parts that no sheet of their paper holds
  std::vector<std::size_t> noSheet;  ///< parts for which no sheet is left of those at hand
  double parts_mm2 = 0, sheets_mm2 = 0, kept_mm2 = 0; ///< areas: of parts, sheets, offcuts kept
  std::size_t settings() const;
  /// Share of the paper that is neither part nor worth keeping.
  double waste() const { return sheets_mm2 > 0 ? 1 - (parts_mm2 + kept_mm2) / sheets_mm2 : 0; }
};

/// All blanks by their numbers: the sheets, then what the cuts make of them, the strip to the left
/// of the rest, or below it.
std::vector<Blank> blanksOf(const CutPlan& plan);

/// A part that keeps its place when the others are laid out again.
struct PinnedPart {
  PartPlace place;
  std::size_t sheet = 0; ///< which of the sheets; those with the same number lie on one
  double width_mm = 0, height_mm = 0; ///< of that sheet
};

struct LayoutOptions {
  LayoutFor how = LayoutFor::Machine;
  double margin_mm = 5; ///< of a sheet that is not cut from
  double footer_mm = 0; ///< besides the margin at the lower edge: for the ruler of printed sheets
  double gap_mm = 2;    ///< between parts; a trimmer leaves none
  double offcut_mm = 60;
  bool unlimited = false;              ///< as many sheets as are needed, whatever is at hand
  double seconds = 3;                  ///< to look for better layouts once there is one
  std::vector<PinnedPart> pinned = {}; ///< Machine
};
/// What a tool leaves by itself: a trimmer no margin and no gap.
LayoutOptions usualFor(LayoutFor how, const Bench& bench);

/// Whether there is a sheet of its paper, at hand or usual, on which a piece finds place.
bool fitsSomeSheet(const Design& design, const FlatPiece& piece, double margin_mm);

/// Puts the parts on sheets: those at hand of each paper (the sizes in the drawer, else the sheet
/// of the settings), as few as it finds. `progress` hears of parts placed and of all. Stopped it
/// returns the best layout so far, which may lack parts only when it was stopped at once.
CutPlan layOutParts(const Design& design, std::vector<CutPart> parts, const LayoutOptions& options,
                    std::stop_token stop = {}, const Progress& progress = {});

/// Everything of so many cards on sheets. For a trimmer, equal plain strips are cut as one wide
/// sheet and sliced when that takes no more paper, and sets the stop no more often, than each by
/// itself.
CutPlan layOutCards(const Design& design, const std::vector<FlatPiece>& pieces,
                    const std::vector<MatLine>& mats, int cards, const LayoutOptions& options,
                    std::stop_token stop = {}, const Progress& progress = {});

/// How many cards the sheets at hand are enough for, up to `most`; papers whose sheets are not
/// counted do not limit it. And which paper ends first.
struct CardsFromStock {
  int cards = 0;
  std::string endsFirst; ///< empty: nothing is counted
};
CardsFromStock cardsFromStock(const Design& design, const std::vector<FlatPiece>& pieces,
                              const std::vector<MatLine>& mats, LayoutOptions options, int most,
                              std::stop_token stop = {});

/// Sheets of each paper and size that a plan takes.
struct SheetCount {
  std::string paper;
  double width_mm = 0, height_mm = 0;
  int sheets = 0;
  std::optional<int> atHand; ///< when the drawer knows
  int toBuy() const { return atHand ? std::max(0, sheets - *atHand) : sheets; }
};
std::vector<SheetCount> sheetsOf(const CutPlan& plan, const Design& design);

} // namespace hinge
