// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/design/design.h"
#include <functional>
#include <map>

namespace hinge {

/// Parts of one design found again in another, by where they are on their pieces; what stood on
/// them goes along. `moved` tells the pieces in which the paper of a piece may be now, and where a
/// point of it lies there; without it every piece is itself.
class Renaming {
public:
  struct Place {
    std::string piece; ///< key
    Vec2 at;
  };
  using Moved = std::function<std::vector<Place>(const std::string& piece, const Vec2& at)>;

  Renaming(const Assembly& before, const Assembly& after, const Moved& moved = nullptr);
  /// Seats and faces that joints are on, in the whole design.
  void apply(Design& design) const;

private:
  void note(const std::string& from, const std::string& to);
  void applyTo(std::string& key) const;
  void applyTo(PieceJoint& joint) const;

  std::map<std::string, std::string> m_names;
};

/// Only the card and the structures up to the one that was changed: the rest may not fit any more
/// until it is renamed.
Design upTo(const Design& design, const std::optional<StructureId>& last);

} // namespace hinge
