// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/dressing.h"
#include "core/design/parameter.h"
#include "core/design/piece_work.h"
#include "core/design/splice.h"
#include "core/paper/paper.h"
#include "core/paper/sheet_size.h"
#include "core/paper/starting_values.h"
#include "core/units/length.h"
#include <compare>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace hinge {

/// Largest number of a structure; numbers are not reused, so that there must be room above it.
constexpr int kLargestStructureNumber = 1'000'000'000;

/// Stable name of a structure in a design: printed "s7". Never reused inside a design.
struct StructureId {
  int value = 0;
  constexpr auto operator<=>(const StructureId&) const = default;
  std::string text() const { return "s" + std::to_string(value); }
};
std::optional<StructureId> structureIdFromText(std::string_view text);

/// A finished design that stands on another one. Shared, because it never changes.
struct CardWithin {
  std::shared_ptr<const struct Design> design;
  bool operator==(const CardWithin& other) const; ///< the same design, wherever it is kept
};

/// A structure as the user asked for it: which recipe, on which seat, with which sizes.
struct StructureItem {
  StructureId id;
  std::string kind;  ///< key in the structure registry
  std::string seat;  ///< seat key: "gutter", "s3/ridge"
  std::string label; ///< the user's name for it; may be empty
  ParameterValues values;
  std::string paper;                   ///< it is cut from, a key in the drawer; empty: as the card
  std::optional<PieceWork> work;       ///< of a free piece: everything its table does not say
  std::optional<CardWithin> card = {}; ///< of a card on a card
  std::string
      extras; ///< members of the file this version does not know, as JSON text; kept on save
  /// How it is joined to other structures besides standing on its seat.
  std::span<const PieceJoint> joints() const {
    return work ? std::span<const PieceJoint>(work->joints) : std::span<const PieceJoint>();
  }
  bool operator==(const StructureItem&) const = default;
};

enum class FoldSide { Side, Top };

/// How the open card stands on the table: page b lies on it, or the card stands on its edges.
enum class Rests { OnPage, OnEdge };

/// The card itself. Width and height are the finished (shut) size as the user holds it.
struct CardBase {
  std::string kind = "single-fold";
  double width_mm = 130, height_mm = 180;
  FoldSide fold = FoldSide::Side;
  ParameterValues values;        ///< of the base's own table; none for a single fold
  std::vector<PieceWork> sheets; ///< of a base of sheets: as they are scored, cut and joined
  std::optional<Vec2> ground;    ///< on the first sheet: the panel that lies on the table
  double display_deg = starting::kDisplay_deg; ///< opening at which it is shown
  /// Openings between which the card is used. It is judged there and only there.
  double worksFrom_deg = 0, worksTo_deg = 180;
  /// Way of the leaf (0 shut to 180) by which the base is fully open; pulls have the rest of it to
  /// themselves.
  double openBy_deg = 180;
  Rests rests = Rests::OnPage;
  double value(std::string_view key) const {
    return values.find(key)->second;
  } ///< a size of the base
  double gutterLength_mm() const { return fold == FoldSide::Side ? height_mm : width_mm; }
  double pageDepth_mm() const { return fold == FoldSide::Side ? width_mm : height_mm; }
  bool operator==(const CardBase&) const = default;
};

/// How the maker of this card works: unit, limits of their hand, paper to cut from.
struct Settings {
  LengthUnit unit = LengthUnit::Millimetre;
  double leastTabDepth_mm = starting::kLeastTabDepth_mm;
  double tabBevel_deg = starting::kTabBevel_deg;
  double foldClearance_mm = starting::kFoldClearance_mm;
  double edgeReserve_mm = starting::kEdgeReserve_mm;
  double pinPlay_mm = starting::kPinPlay_mm;
  /// How far loops of panels may miss closing before that spoils the card.
  double closureLimit_mm = starting::kClosureLimit_mm;
  double matBorder_mm = starting::kMatBorder_mm; ///< of a layer, unless it has its own
  std::string sheet = "a4";                      ///< key of the sheet the pieces are cut from
  bool slice =
      false; ///< equal plain strips are cut as one wide sheet, scored together and then sliced
  std::string envelope = "to-measure"; ///< key of the envelope, see knownEnvelopes()
  bool operator==(const Settings&) const = default;
};

/// The settings of a card that is begun in a unit: what a hand sets stands on that unit's ruler.
Settings startingSettings(LengthUnit unit);

/// The whole document, an immutable value: edits return a new one.
struct Design {
  std::string title;
  CardBase card;
  std::vector<Paper> papers = {Paper()}; ///< the drawer: what this card is or may be made of
  std::string stock = Paper().key;       ///< the paper of the base and of all that names no other
  Settings settings;
  std::vector<StructureItem> structures; ///< a structure stands behind the one it sits on
  Dressing dressing;
  std::vector<Splice> splices; ///< of pieces that are longer than every sheet
  int nextId = 1;
  std::string extras; ///< unknown members of the file, as JSON text
  bool operator==(const Design&) const = default;

  const StructureItem* find(StructureId id) const;
  /// Null when it is not in the drawer.
  const Paper* findPaper(std::string_view key) const { return hinge::findPaper(papers, key); }
  /// The paper of the base; there is one in every design that passes validatePapers().
  const Paper& cardPaper() const;
  Paper& cardPaper();
  /// The paper of that key; that of the card when it is not in the drawer.
  const Paper& paperNamed(std::string_view key) const;
  const Paper& paperOf(const StructureItem& item) const;
  /// Of the pieces that a structure, or without one the base, makes.
  const Paper& paperOf(std::optional<StructureId> owner) const;
};

/// The card in another unit. Settings that are still those a card in the old one begins with become
/// those of the new one; sizes stay as they are.
Design inUnit(Design design, LengthUnit unit);

/// Every paper by itself, no key twice, and every one that is named is there; the place of an error
/// is where it is named ("stock", "s3", "dressing.rules[1]").
Result<void> validatePapers(const Design& design);

/// Owner of a seat or element key: "s3/ridge" -> s3; nothing for the card's own.
std::optional<StructureId> ownerOfKey(std::string_view key);

Result<void> validateCard(const CardBase& card);

/// Structures a structure is fixed to: the owner of its seat and, of a free piece, of the panels it
/// is joined to.
std::vector<StructureId> hostsOf(const StructureItem& item);
/// The structure and all that stands on it or is joined to it, directly or not.
std::vector<StructureId> standingOn(const Design& design, StructureId id);
/// The design without what has nothing to do with these structures: they themselves, what they
/// stand on or are joined to, and what stands on any of those of theirs.
Design partOf(const Design& design, const std::vector<StructureId>& ids);

} // namespace hinge
