// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/design.h"

namespace hinge {

// The edits everything else is made of. Each checks what it is given against the parameter tables
// and leaves the design alone that it is given.

/// A design with one structure more, and its number.
struct Added {
  Design design;
  StructureId id;
};

/// Puts a structure on a seat; every parameter of its table must have a value (see addProposed).
/// Does not check that the seat exists: that needs the assembly (see assembleDesign).
Result<Added> addStructure(const Design& design, std::string_view kind, std::string_view seat,
                           const ParameterValues& values, const std::optional<PieceWork>& work = {},
                           const std::optional<CardWithin>& card = {});
Result<Design> setValues(const Design& design, StructureId id, const ParameterValues& changes);
/// Replaces what is worked into a free piece.
Result<Design> setWork(const Design& design, StructureId id, const PieceWork& work);
/// Puts another finished card in the place of a small one.
Result<Design> setCardWithin(const Design& design, StructureId id, const CardWithin& card);
/// Removes the structure and everything that stands on it.
Result<Design> removeStructure(const Design& design, StructureId id);
Result<Design> setCard(const Design& design, const CardBase& card);

/// One changed value of a mend.
struct MendEdit {
  StructureId id;
  std::string key;
  ParameterUnit unit = ParameterUnit::Millimetre;
  double from = 0, to = 0;
};

/// What is worked into a piece, in place of what was.
struct MendWork {
  StructureId id;
  PieceWork work;
};

/// A change that removes a finding and brings no new one that spoils the card.
struct Mend {
  std::vector<MendEdit> edits;
  std::optional<Dressing> dressing = {}; ///< in place of what the card wears
  Text change = {};                      ///< what that comes to, to be said
  std::vector<MendWork> works = {};
};

/// The design with a mend applied.
Result<Design> applyMend(const Design& design, const Mend& mend);

} // namespace hinge
