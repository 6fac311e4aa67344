// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"

namespace hinge {

/// The panels of a card at one opening, in a tree of boxes, so that what lies on a straight way is
/// found without looking at all of them.
class Walls {
public:
  Walls(const Assembly& assembly, Pose pose);

  const Pose& pose() const { return m_pose; }

  /// True when a panel for which `counts` is true stands in the straight way from one point to
  /// another. Only panels near the way are asked about. Cost: about the logarithm of their number.
  template <class Counts>
  bool inTheWay(const Vec3& from, const Vec3& to, const Counts& counts) const {
    return !m_nodes.empty() && inTheWay(0, Way(from, to), counts);
  }

  /// True when something of this half thickness, coming from outside in at least `enough` of the
  /// kWays directions within 70 degrees of `outwards`, gets to a point past the panels that count.
  template <class Counts>
  bool haveRoom(const Vec3& at, const Vec3& outwards, double radius_mm, const Counts& counts,
                int enough = 1) const {
    int left = kWays;
    const Vec3 skin = at + kSkin_mm * outwards;
    const auto free = [&](const Vec3& from, const Vec3& to) { return !inTheWay(from, to, counts); };
    for (const Vec3& way : waysFrom(outwards)) {
      const Vec3 u = way.unitOrthogonal(), v = way.cross(u);
      bool clear = free(skin, skin + kReach_mm * way);
      // The finger itself begins where it is clear of the panel it touches.
      for (int k = 0; k < 6 && clear; ++k) {
        const Vec3 rim = std::cos(kPi * k / 3) * u + std::sin(kPi * k / 3) * v;
        const Vec3 from = at + radius_mm * (outwards + rim);
        clear = free(skin, from) && free(from, from + kReach_mm * way);
      }
      if (clear && --enough == 0) return true;
      if (--left < enough) return false;
    }
    return false;
  }
  static constexpr int kWays = 37;

private:
  static constexpr double kSkin_mm = 0.02; ///< off the paper that is touched
  static constexpr double kReach_mm = 250; ///< from farther away a hand comes from outside
  struct Wall {
    PanelIndex panel;
    Iso3 toPanel;
    const Region* outline;
    Vec3 low, high;
  };
  /// A straight way with what the boxes ask for again and again.
  struct Way {
    Vec3 from, to;
    Eigen::Array3d inverse; ///< of its direction; infinite where it does not go
    Way(const Vec3& a, const Vec3& b) : from(a), to(b), inverse((b - a).array().inverse()) {}
  };
  struct Node {
    Vec3 low, high;
    int left = -1, right = -1; ///< nodes; of a leaf: -1 and -1
    std::size_t first = 0, count = 0;
  };
  int build(std::size_t first, std::size_t count);
  static std::vector<Vec3> waysFrom(const Vec3& outwards);
  static bool stands(const Wall& wall, const Way& way);

  static bool meets(const Node& node, const Way& way) {
    double enters = 0, leaves = 1; // shares of the way
    for (int k = 0; k < 3; ++k) {
      const double a = (node.low[k] - way.from[k]) * way.inverse[k],
                   b = (node.high[k] - way.from[k]) * way.inverse[k];
      enters = std::max(enters, std::min(a, b)), leaves = std::min(leaves, std::max(a, b));
      if (enters > leaves) return false;
    }
    return true;
  }
  template <class Counts> bool inTheWay(int at, const Way& way, const Counts& counts) const {
    const Node& node = m_nodes[static_cast<std::size_t>(at)];
    if (!meets(node, way)) return false;
    if (node.left >= 0)
      return inTheWay(node.left, way, counts) || inTheWay(node.right, way, counts);
    for (std::size_t k = node.first; k < node.first + node.count; ++k)
      if (counts(m_walls[k].panel) && stands(m_walls[k], way)) return true;
    return false;
  }

  Pose m_pose;
  std::vector<Wall> m_walls;
  std::vector<Node> m_nodes;
};

} // namespace hinge
