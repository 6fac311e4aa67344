// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>
#include <optional>
#include <span>
#include <string_view>

namespace hinge {

enum class Adhesive { WetGlue, StrongTape, GlueStick, Pads, SolventGlue };

/// What an adhesive asks of hands. Times in seconds, as makers count them; starting values that a
/// maker's own take the place of.
struct AdhesiveFacts {
  Adhesive adhesive = Adhesive::WetGlue;
  std::string_view key;  ///< "wet-glue", ... also the words of the command line
  double slides_s = 0;   ///< so long a part can still be moved to its place; 0: not at all
  double holds_s = 0;    ///< pressed so long, it holds
  double strong_s = 0;   ///< before the joint is moved or pulled at
  bool byLength = false; ///< taken in strips, by their length; else by area
  double strip_mm = 0;   ///< width of such a strip
  double grams_cm2 = 0;  ///< of what is taken by area
  bool needsAir = false; ///< fumes
};
std::span<const AdhesiveFacts> knownAdhesives();
const AdhesiveFacts& factsOf(Adhesive adhesive);
std::optional<Adhesive> adhesiveFromKey(std::string_view key);
constexpr double kLongestPressed_s = 48 * 3600;

/// How a structure on a fold is closed: its last side with adhesive on it, the card shut on it so
/// that the page takes it where it must; or laid on marked lines of the open page.
enum class Closing { ShutOnIt, OnMarks };
std::string_view keyOf(Closing closing); ///< "shut", "marks"
std::optional<Closing> closingFromKey(std::string_view key);

/// The maker's schools at glueing.
struct MakingWays {
  Closing closing = Closing::ShutOnIt;
  Adhesive joints = Adhesive::WetGlue;    ///< of what stands or lies still
  Adhesive moving = Adhesive::StrongTape; ///< of what is pulled at when the card opens
  Adhesive layers = Adhesive::GlueStick;  ///< of mats
  /// How long the maker presses, in place of AdhesiveFacts::holds_s; seconds.
  std::map<Adhesive, double> holds_s = {};
  bool cutFirst = false; ///< before scoring: a habit of the bench, and kept there
  double pressed_s(Adhesive adhesive) const;
  bool operator==(const MakingWays&) const = default;
};

} // namespace hinge
