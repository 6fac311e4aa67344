// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include <functional>
#include <set>

namespace hinge {

struct StructureKind;

/// A length that may give when a card or a piece is fitted to another sheet.
struct LengthRow {
  std::string key; ///< "card.rest", "s3.a", "s2.panel-4"
  Text label;      ///< "Other leaves of the card"
  double value_mm = 0;
  bool held = false; ///< as proposed: what runs along the folds, tabs, and whatever its table holds
};
/// "s3.a" of "s3" and "a".
std::string lengthRowKey(std::string_view owner, std::string_view key);

/// What a new structure would be, without a number yet.
struct Draft {
  ParameterValues values;
  std::optional<PieceWork> work;
};

/// Where a draft is wanted.
struct DraftPlace {
  const StructureKind& kind;
  const Seat& seat;
  const Assembly& assembly;
  const Settings& settings;
  const ParameterValues& given; ///< what the user asks for
};

/// What a kind does with its structures besides building them. Most kinds have structures that are
/// values in a table and nothing else (tableWays()); a free piece carries what its maker worked
/// into it. Who edits, mirrors, scales, mends or proposes a structure asks here and does not look
/// what it is made of.
class StructureWays {
public:
  virtual ~StructureWays() = default;
  /// True when its structures carry PieceWork, which files and the editor of pieces then look for.
  virtual bool carriesWork() const = 0;
  /// True when its structures carry a finished design.
  virtual bool carriesCard() const { return false; }
  /// There is no closed form for whether it lies flat: the rings of the motion decide, what makes
  /// it lie flat is worked out, and a trial of a change is dear.
  virtual bool ringsDecide() const = 0;

  /// The rows that this structure has.
  virtual ParameterTable rows(const StructureItem& item) const = 0;
  /// Changes that are worth a try to mend it, gentlest first.
  virtual std::vector<MendDirection> mends(const StructureItem& item) const = 0;
  /// Brings values up to date that follow from the rest; then all of it must be possible.
  virtual Result<void> settle(StructureItem& item, std::string_view place) const = 0;
  virtual Result<void> set(StructureItem& item, std::string_view key, double value) const = 0;
  /// Makes it its mirror image, to stand on a seat (its own, `seat`, or the one on the other side):
  /// on the same fold with its sides exchanged, on a face with left and right exchanged.
  virtual void mirror(StructureItem& item, const Seat& seat, const Assembly& assembly,
                      const std::string& onto) const = 0;

  /// Lengths that can give: when the whole card is fitted to another sheet, or the structure alone.
  virtual std::vector<LengthRow> lengths(const Design& design, const StructureItem& item,
                                         bool alone) const = 0;
  /// Makes every length that is not held larger by a factor.
  virtual Result<void> scale(StructureItem& item, const Design& design, double factor,
                             const std::set<std::string>& held) const = 0;
  /// How long it lies flat; nothing when it cannot be fitted to a length of its own.
  virtual std::optional<double> flatLength_mm(const StructureItem& item) const = 0;

  /// Whether there is a draft at all for a place on which the kind stands.
  virtual bool canDraft(const DraftPlace&) const { return true; }
  /// Sizes and place for a new one, tried from large to small until `works` takes one; else the
  /// first. Fails when the seat or what is given allows none.
  virtual Result<Draft> draft(const DraftPlace& place,
                              const std::function<bool(const Draft&)>& works) const = 0;
};

/// The ways of kinds whose structures are values in a table.
const StructureWays& tableWays();
/// The ways of free pieces.
const StructureWays& pieceWays();
/// The ways of the structure's kind, which must be known.
const StructureWays& waysOf(const StructureItem& item);

} // namespace hinge
