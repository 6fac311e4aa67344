#pragma once
#include "core/assembly/builder.h"
#include "core/design/design.h"
#include <vector>

namespace hinge {

/// What a recipe is given: sizes, the seat it stands on and the settings. It does not know whether the seat is the
/// card's gutter or a fold of another structure. `sideNames` are the letters for the seat's first and second side as
/// the user knows them (they are exchanged when the structure is turned round).
struct RecipeInput {
  const StructureItem& item;
  ParameterValues values; ///< already exchanged when the structure is turned round
  Seat seat;              ///< already turned round when asked for
  const Settings& settings;
  std::array<std::string, 2> sideNames{"a", "b"};
  bool turned = false;
  /// The structure as seats are labelled: the user's name for it or its id.
  std::string name() const { return item.label.empty() ? item.id.text() : item.label; }
  double value(std::string_view key) const { return values.find(key)->second; }
};

/// A line drawing of a structure with its dimensions, in a unit box (0..1, y up).
struct Sketch {
  struct Line {
    Vec2 from, to;
    enum class Use { Page, Paper, Fold } use;
  };
  struct Dimension {
    std::string_view key; ///< parameter this distance or angle is
    Vec2 from, to;
    std::optional<Vec2> corner; ///< set for an angle: the corner between `from` and `to`
  };
  std::vector<Line> lines;
  std::vector<Dimension> dimensions;
};

/// A structure kind: data and functions, entered in the registry.
struct StructureKind {
  std::string_view key, label, summary;
  ParameterTable parameters;
  /// Conditions for shutting flat on a seat whose shut opening is 0 (valley) or 2 pi (ridge).
  std::vector<LinearClosure> (*closures)(double shutOpening_rad);
  /// Changes that keep the closures, gentlest first.
  std::vector<MendDirection> (*mendDirections)();
  /// Adds the pieces, joints, placement and new seats. Fails when the sizes make no possible panel.
  Result<void> (*build)(const RecipeInput&, AssemblyBuilder&);
  /// Starting sizes scaled so that the structure has room on the seat; closures hold.
  ParameterValues (*fit)(const Seat& seat, const Assembly& assembly, const Settings& settings);
  Sketch (*sketch)();
};

} // namespace hinge
