// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/builder.h"
#include "core/pieces/piece_sheet.h"
#include <functional>

namespace hinge {

/// How a worked piece and its parts are called: keys without their owner, and names.
struct WorkedNames {
  std::string_view piece;
  Text label;
  /// Of a panel by its number in the piece, from 1, left to right.
  std::function<std::pair<std::string, Text>(int number)> panel;
  std::string_view fold;             ///< "score": folds are "score-1", "score-2", ...
  std::optional<std::size_t> gutter; ///< the line whose folds are called "gutter"
  /// What a fold and the seat on it are called: "score 1", "score 1 of s1".
  std::function<Text(std::string number)> foldLabel, seatLabel;
  PanelUse use = PanelUse::Wall;
  bool largeIsNoTab = false; ///< what is glued to a smaller panel has that for its tab
  std::string place;         ///< what errors name
};

/// A piece with lines and openings worked into it, as panels, folds, seats and bare cuts of an
/// assembly: the same for the free pieces of a card and for the sheets of its base. Joints are left
/// to joinPiece().
class WorkedPiece {
public:
  /// Fails when a joint is where there is no paper, cuts part the piece in two, or no panels come
  /// of it. A score that ends inside the paper folds nothing (IdleScore). `work` must outlive what
  /// is made.
  static Result<WorkedPiece> make(const PieceWork& work, const WorkedNames& names,
                                  AssemblyBuilder& builder);

  PieceIndex piece() const { return m_piece; }
  const PieceSheet& sheet() const { return m_sheet; }
  /// Per face of the sheet; invalid for openings.
  const std::vector<PanelIndex>& panels() const { return m_panels; }
  /// The panel that holds a point; invalid where there is no paper.
  PanelIndex panelAt(const Vec2& at) const;
  /// A glue joint lies on this face.
  bool glued(std::size_t face) const;
  /// The folds with the lines of the work on which they lie.
  const std::vector<std::pair<FoldIndex, std::size_t>>& folds() const { return m_folds; }
  /// The scores of which the maker says how they move become drives of the assembly. Held ones are
  /// drives in a base, whose pages follow from its drives; in a piece two panels are one.
  void drive(Assembly& assembly, bool heldToo) const;

private:
  explicit WorkedPiece(const PieceWork& work) : m_work(&work), m_sheet(work) {}
  Result<void> possible(const std::string& place) const;
  void makePanels(const WorkedNames& names, AssemblyBuilder& builder);
  void makeFolds(const WorkedNames& names, AssemblyBuilder& builder);
  bool isFold(const Subdivision::Border& border) const;
  bool isTab(std::size_t face, const WorkedNames& names, const Assembly& assembly) const;
  bool isOneSheet() const;

  const PieceWork* m_work;
  PieceSheet m_sheet;
  PieceIndex m_piece;
  std::vector<PanelIndex> m_panels;
  std::vector<std::pair<FoldIndex, std::size_t>> m_folds;
};

} // namespace hinge
