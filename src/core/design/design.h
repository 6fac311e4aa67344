// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/parameter.h"
#include "core/design/piece_work.h"
#include "core/paper/starting_values.h"
#include "core/paper/stock.h"
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
  std::string sheet = "a4"; ///< key of the sheet the pieces are cut from
  bool slice =
      false; ///< equal plain strips are cut as one wide sheet, scored together and then sliced
  std::string envelope = "to-measure"; ///< key of the envelope, see knownEnvelopes()
  bool operator==(const Settings&) const = default;
};

/// The whole document, an immutable value: edits return a new one.
struct Design {
  std::string title;
  CardBase card;
  Stock stock;
  Settings settings;
  std::vector<StructureItem> structures; ///< a structure stands behind the one it sits on
  int nextId = 1;
  std::string extras; ///< unknown members of the file, as JSON text
  bool operator==(const Design&) const = default;

  const StructureItem* find(StructureId id) const;
};

/// Owner of a seat or element key: "s3/ridge" -> s3; nothing for the card's own.
std::optional<StructureId> ownerOfKey(std::string_view key);

Result<void> validateCard(const CardBase& card);

/// Structures a structure is fixed to: the owner of its seat and, of a free piece, of the panels it
/// is joined to.
std::vector<StructureId> hostsOf(const StructureItem& item);
/// The structure and all that stands on it or is joined to it, directly or not.
std::vector<StructureId> standingOn(const Design& design, StructureId id);

} // namespace hinge
