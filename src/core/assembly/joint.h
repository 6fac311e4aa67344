// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/feature.h"
#include "core/design/design.h"
#include <array>
#include <optional>
#include <string>
#include <variant>

namespace hinge {

// The joints that are made by hand, as they stand in an assembly. Their words are those of the
// joints of a free piece (design/piece_joint.h), which become these. The seventh joint, the fold,
// is made by scoring: it parts the panels of one piece and has a table of its own, because drives,
// features and files go by its number (decision 13).

using JointIndex = Index<struct JointTag>;

/// `tab` is glued onto `host` and moves with it; the motion maps the tab's piece frame into the
/// host's.
struct Glue {
  PanelIndex tab, host;
  Iso3 tabToHost;
  bool byFace = true;   ///< the face of the tab takes the glue; false: its back
  Polygon area = {};    ///< the part of the tab that takes the glue, in its piece; empty: all of it
  double raised_mm = 0; ///< by pads in between; the motion has it flat on its host
  bool onHostFace() const { return (tabToHost.linear()(2, 2) < 0) == byFace; }
};

/// What slot, pivot and slide have in common: two panels that stay joined along one line, which
/// guides them. Each side has a frame on its panel (into the panel's piece); the line is their
/// common y axis, and where the joint stands at zero both frames coincide.
struct Guide {
  std::string key;
  std::optional<StructureId> owner;
  PanelIndex first, second; ///< the panel that was there, the panel that joins it
  Iso3 onFirst, onSecond;
  /// Moved by hand from the first of these to the second (rad about the line, or mm along it).
  std::optional<std::array<double, 2>> byHand = {};
  double handStep = 0; ///< by so much at a time; 0: to anywhere
  /// It rests there, whatever the card does: the panels move as one.
  bool rests = false;
  /// Of a pivot or slide: how many of the things that are joined flat to that side of the first
  /// panel lie between the two; the maker decides.
  int over = 0;
};

/// Half slots pushed into one another: both panels turn about their common line.
struct Slot : Guide {
  double slitShort_mm = 0; ///< how much paper is left between the ends of the two slits
};

/// A pin: the panels lie on one another and turn about it. The axis looks from the first panel to
/// the second.
struct Pivot : Guide {
  bool onFace() const { return onFirst.linear()(2, 1) > 0; } ///< of the first panel
};

/// What the opening of the card does to a slide: its way follows the opening in a straight line
/// within a stretch of it.
struct Pull {
  double way_mm = 0, from_rad = 0, to_rad = kPi;
  double at_mm(double opening_rad) const;
};

/// The second panel runs along a line of the first without turning. The frames' z looks from the
/// first panel to the second.
struct Slide : Guide {
  double least_mm = 0, most_mm = 0; ///< its stops; both the same: none
  /// What pockets and straps leave it: room on either side, the length over which they guide it,
  /// and where the middle of that is on its line. Filled in by measureSlides(); no length: nothing
  /// is known of that.
  double room_mm = 0, guided_mm = 0, guidedAt_mm = 0;
  std::optional<Pull> pull;
  bool onFace() const { return onFirst.linear()(2, 2) > 0; } ///< of the first panel
  double middle_mm() const { return 0.5 * (least_mm + most_mm); }
};

/// What band and film have in common: something soft between two points of panels, that guides
/// nothing.
struct Tie {
  std::string key;
  std::optional<StructureId> owner;
  std::array<PanelIndex, 2> panels;
  std::array<Vec2, 2> at; ///< in the flat frames of the panels' pieces
  double length_mm = 0;   ///< without force
};

struct Band : Tie {}; ///< elastic: pulls when it is longer than that
struct Film : Tie {}; ///< bows until it is taut, and is never longer

using Joint = std::variant<Glue, Slot, Pivot, Slide, Band, Film>;

/// "glue", "slot", "pivot", "slide", "band", "film".
std::string_view jointKey(const Joint& joint);
/// The guide in a joint; null in the others.
const Guide* guideOf(const Joint& joint);
/// The band or film in a joint; null in the others.
const Tie* tieOf(const Joint& joint);
/// What was there, and what is joined to it.
std::array<PanelIndex, 2> panelsOf(const Joint& joint);

/// The map from the second panel's piece to the first's when the joint stands at `angle_rad`, or at
/// `way_mm` along its line.
Iso3 turnedInFirst(const Guide& guide, double angle_rad);
Iso3 slidInFirst(const Slide& slide, double way_mm);

/// The same for whichever of the two the joint is; a slot turns like a pivot.
Iso3 movedInFirst(const Joint& guide, double angle_or_way);

/// The joints of one kind in a list, with their indices there: `for (const auto& [index, glue] :
/// JointsOf<Glue>(joints))`.
template <class Kind> class JointsOf {
public:
  using List = IndexedVector<JointIndex, Joint>;
  struct Item {
    JointIndex index;
    const Kind& joint;
  };
  class Iterator {
  public:
    Iterator(const List& list, std::size_t at) : m_list(&list), m_at(at) { skip(); }
    Item operator*() const {
      const JointIndex index(m_at);
      return {index, *std::get_if<Kind>(&(*m_list)[index])};
    }
    Iterator& operator++() {
      ++m_at;
      skip();
      return *this;
    }
    bool operator==(const Iterator& other) const { return m_at == other.m_at; }

  private:
    void skip() {
      while (m_at < m_list->size() && !std::holds_alternative<Kind>((*m_list)[JointIndex(m_at)]))
        ++m_at;
    }
    const List* m_list;
    std::size_t m_at;
  };
  explicit JointsOf(const List& list) : m_list(list) {}
  Iterator begin() const { return {m_list, 0}; }
  Iterator end() const { return {m_list, m_list.size()}; }

private:
  const List& m_list;
};

} // namespace hinge
