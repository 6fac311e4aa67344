// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/contact/contact.h"
#include "core/contact/swept.h"
#include "core/motion/openings.h"
#include <algorithm>
#include <cmath>
#include <map>
#include <utility>

namespace hinge {
namespace {

using Corners = std::vector<Vec3>;

/// A panel to be tested: its convex parts in the piece frame.
struct Plate {
  PanelIndex panel;
  BodyIndex body;
  std::vector<Corners> parts;
  bool wanted = true; ///< pairs without a wanted plate are not looked at
};

struct Pair {
  int first, second; ///< indices of plates
  auto operator<=>(const Pair&) const = default;
};

struct Hit {
  double from = 1e300, to = -1e300, depth = 0, deepest = 0;
  Vec3 place = Vec3::Zero();
};

/// Tabs that lie inside their host move and lie exactly as it does; testing them again finds
/// nothing new.
bool hiddenTab(const Assembly& assembly, PanelIndex p) {
  const Glue* glue = assembly.glueOf(p);
  if (!glue) return false;
  for (const Vec2& q : assembly.panels[p].outline.rim)
    if (!contains(assembly.panels[glue->host].outline, (glue->tabToHost * lift(q)).head<2>(), 1e-6))
      return false;
  return true;
}

class Search {
public:
  Search(const Motion& motion, const ContactOptions& options, std::stop_token stop)
      : m_motion(motion), m_options(options), m_stop(stop) {
    const Assembly& assembly = motion.assembly();
    for (PanelIndex p : assembly.panels.indices()) {
      if (assembly.panels[p].use == PanelUse::Tab && hiddenTab(assembly, p)) continue;
      const auto& owner = assembly.panels[p].owner;
      const bool wanted = options.only.empty() ||
                          (owner && std::ranges::find(options.only, *owner) != options.only.end());
      Plate plate{p, motion.mechanism().bodyOf[p], {}, wanted};
      for (const Polygon& part : convexParts(assembly.panels[p].outline)) {
        Corners corners;
        for (const Vec2& q : part)
          corners.push_back(lift(q));
        plate.parts.push_back(std::move(corners));
      }
      m_plates.push_back(std::move(plate));
    }
  }

  ContactReport run() {
    withinBodies();
    for (const auto& [t0, t1] :
         stretchesOf(m_motion, m_options.coarsest_rad, m_options.finest_rad)) {
      if (m_stop.stop_requested()) break;
      const ThreePoses at{&poseAt(t0, {}), &poseAt(0.5 * (t0 + t1), {}), &poseAt(t1, {})};
      search(t0, t1, candidates(at));
      m_poses.erase(m_poses.begin(), m_poses.lower_bound(t1));
    }
    for (auto& [pair, hit] : m_hits)
      if (bodyOf(pair.first) != bodyOf(pair.second)) deepen(pair, hit);
    for (const auto& [pair, hit] : m_hits)
      m_report.contacts.push_back({m_plates[static_cast<std::size_t>(pair.first)].panel,
                                   m_plates[static_cast<std::size_t>(pair.second)].panel, hit.from,
                                   hit.to, hit.depth, hit.deepest, hit.place});
    m_report.complete = !m_stop.stop_requested();
    return std::move(m_report);
  }

private:
  BodyIndex bodyOf(int plate) const { return m_plates[static_cast<std::size_t>(plate)].body; }

  /// Widest intervals over which three samples are taken to tell that panels cross throughout, or
  /// that they only touch. How near the deepest opening is found: the depth is flat there.
  static constexpr double kDeepestTo_rad = radians(0.1), kLook_rad = radians(3.0);
  static constexpr int kFewestLooks = 8;
  static constexpr double kWidestVerdict_rad = radians(2.0), kWidestTouch_rad = radians(0.75);

  /// A pose is kept for the pairs it was asked for; only these and fewer are looked at in the
  /// halves of its interval.
  const Pose& poseAt(double t, const std::vector<char>& wanted) {
    const auto it = m_poses.find(t);
    return it != m_poses.end() ? it->second
                               : m_poses.emplace(t, m_motion.poseAt(t, wanted)).first->second;
  }

  std::vector<char> blocksOf(const std::vector<Pair>& pairs) const {
    std::vector<BodyIndex> bodies;
    for (const Pair& pair : pairs)
      bodies.push_back(m_plates[static_cast<std::size_t>(pair.first)].body),
          bodies.push_back(m_plates[static_cast<std::size_t>(pair.second)].body);
    return m_motion.blocksFor(bodies);
  }

  enum class Within { OneBody, TwoBodies };
  std::vector<Pair> candidates(const ThreePoses& at, Within within = Within::TwoBodies) const {
    std::vector<SweptBox> boxes;
    for (std::size_t k = 0; k < m_plates.size(); ++k) {
      if (!present(m_plates[k].panel, at)) continue;
      boxes.push_back(sweptBox(m_plates[k].parts, m_plates[k].panel, at, m_options.tolerance_mm));
      boxes.back().what = static_cast<int>(k);
    }
    std::vector<Pair> pairs;
    for (const auto& [first, second] : meetingBoxes(std::move(boxes))) {
      const Plate &p = m_plates[static_cast<std::size_t>(first)],
                  &q = m_plates[static_cast<std::size_t>(second)];
      if ((p.body == q.body) == (within == Within::OneBody) && (p.wanted || q.wanted))
        pairs.push_back({first, second});
    }
    return pairs;
  }

  /// Panels that glue and held folds keep as they are cross at every opening or at none.
  void withinBodies() {
    const double low = m_motion.low_rad(), high = m_motion.high_rad(), middle = 0.5 * (low + high);
    const Pose& pose = poseAt(middle, {});
    const ThreePoses still{&pose, &pose, &pose};
    for (const Pair& pair : candidates(still, Within::OneBody)) {
      const Plate &a = m_plates[static_cast<std::size_t>(pair.first)],
                  &b = m_plates[static_cast<std::size_t>(pair.second)];
      Vec3 place = Vec3::Zero();
      const double depth = depthOf(a, b, pose, &place, DepthOf::Place);
      if (depth > m_options.tolerance_mm) m_hits[pair] = {low, high, depth, middle, place};
    }
  }

  /// Widths are those of what turns: a leaf that opens quickly goes through them in less of the
  /// opening.
  void search(double t0, double t1, const std::vector<Pair>& pairs) {
    if (m_stop.stop_requested() || pairs.empty()) return;
    const double middle = 0.5 * (t0 + t1), width = turnBetween(m_motion.assembly(), t0, t1);
    const std::vector<char> wanted = blocksOf(pairs);
    const ThreePoses at{&poseAt(t0, wanted), &poseAt(middle, wanted), &poseAt(t1, wanted)};
    std::vector<Pair> left;
    for (const Pair& pair : pairs) {
      const Plate &a = m_plates[static_cast<std::size_t>(pair.first)],
                  &b = m_plates[static_cast<std::size_t>(pair.second)];
      // Panels that are seen to cross need no search for a plane between them.
      const bool sampled = width <= kWidestVerdict_rad;
      Vec3 place = Vec3::Zero();
      double depths[3] = {0, 0, 0};
      if (sampled)
        depths[0] = depthOf(a, b, *at[0], nullptr), depths[1] = depthOf(a, b, *at[1], &place),
        depths[2] = depthOf(a, b, *at[2], nullptr);
      if (std::max({depths[0], depths[1], depths[2]}) <= m_options.tolerance_mm &&
          shownClear(a, b, at)) {
        ++m_report.intervals;
        continue;
      }
      if (!sampled) {
        left.push_back(pair);
        continue;
      }
      const double least = std::min({depths[0], depths[1], depths[2]}),
                   most = std::max({depths[0], depths[1], depths[2]});
      // Paper that lies against paper cannot be told apart by a plane; its depth is bounded as the
      // motion is.
      const double drift =
          std::abs(depths[2] - depths[0]) + std::abs(depths[0] - 2 * depths[1] + depths[2]);
      if (width <= kWidestTouch_rad && most + drift <= m_options.tolerance_mm)
        ++m_report.touching;
      else if (least > m_options.tolerance_mm)
        record(pair, t0, t1, depths[1], middle, place);
      else if (width > m_options.finest_rad)
        left.push_back(pair);
      else if (depths[1] > m_options.tolerance_mm)
        record(pair, t0, t1, depths[1], middle, place);
      else if (most <= m_options.tolerance_mm)
        ++m_report.sampled;
    }
    search(t0, middle, left);
    search(middle, t1, left);
  }

  void record(const Pair& pair, double t0, double t1, double depth, double at, const Vec3& place) {
    Hit& hit = m_hits[pair];
    hit.from = std::min(hit.from, t0), hit.to = std::max(hit.to, t1);
    if (depth > hit.depth) hit.depth = depth, hit.deepest = at, hit.place = place;
  }

  /// Finds the opening at which paper would have to give way most, anywhere between the first and
  /// the last at which the two cross: the search kept the one at which whole sheets are deepest.
  void deepen(const Pair& pair, Hit& hit) {
    const Plate &a = m_plates[static_cast<std::size_t>(pair.first)],
                &b = m_plates[static_cast<std::size_t>(pair.second)];
    const std::vector<char> wanted = blocksOf({pair});
    const double whole = std::exchange(hit.depth, 0.0);
    const auto depth = [&](double t) {
      Vec3 place = Vec3::Zero();
      const Pose pose = m_motion.poseAt(t, wanted);
      if (!pose.placed[a.panel] || !pose.placed[b.panel]) return 0.0;
      const double d = depthOf(a, b, pose, &place, DepthOf::Place);
      if (d > hit.depth) hit.depth = d, hit.deepest = t, hit.place = place;
      return d;
    };
    const int steps =
        std::max(kFewestLooks, static_cast<int>(std::ceil((hit.to - hit.from) / kLook_rad)));
    const double from = hit.from, step = (hit.to - hit.from) / steps;
    depth(hit.deepest);
    for (int k = 0; k <= steps && !m_stop.stop_requested(); ++k)
      depth(from + step * k);
    if (hit.depth == 0) hit.depth = whole;
    const double share = 0.5 * (std::sqrt(5.0) - 1);
    double low = std::max(hit.from, hit.deepest - step),
           high = std::min(hit.to, hit.deepest + step);
    double left = high - share * (high - low), right = low + share * (high - low);
    double atLeft = depth(left), atRight = depth(right);
    while (high - low > kDeepestTo_rad && !m_stop.stop_requested()) {
      if (atLeft > atRight)
        high = right, right = left, atRight = atLeft, left = high - share * (high - low),
        atLeft = depth(left);
      else
        low = left, left = right, atLeft = atRight, right = low + share * (high - low),
        atRight = depth(right);
    }
  }

  static void move(const Corners& corners, const Iso3& by, Corners& out) {
    out.clear();
    for (const Vec3& c : corners)
      out.push_back(by * c);
  }

  double depthOf(const Plate& a, const Plate& b, const Pose& pose, Vec3* place,
                 DepthOf which = DepthOf::WholeSheets) const {
    const auto moveAll = [&](const Plate& plate, std::vector<Corners>& out) {
      out.resize(plate.parts.size());
      for (std::size_t k = 0; k < plate.parts.size(); ++k)
        move(plate.parts[k], pose.panels[plate.panel], out[k]);
    };
    moveAll(a, m_sheets[0]), moveAll(b, m_sheets[1]);
    return crossingDepth(m_sheets[0], m_sheets[1], place, which);
  }

  bool shownClear(const Plate& a, const Plate& b, const ThreePoses& at) const {
    std::array<Iso3, 3> bInA, aInB;
    for (std::size_t k = 0; k < 3; ++k) {
      bInA[k] = inverseOf(at[k]->panels[a.panel]) * at[k]->panels[b.panel];
      aInB[k] = inverseOf(bInA[k]);
    }
    for (const Corners& pa : a.parts)
      for (const Corners& pb : b.parts)
        if (!separated(pa, pb, bInA) && !separated(pb, pa, aInB)) return false;
    return true;
  }

  /// Looks for a plane at rest in the frame of `still` that keeps it on one side and `other` on the
  /// far side over the whole interval: its own plane, its edges' planes, and planes along one edge
  /// of each as at the middle.
  bool separated(const Corners& still, const Corners& other,
                 const std::array<Iso3, 3>& otherInStill) const {
    std::array<Corners, 3>& q = m_moved;
    for (std::size_t k = 0; k < 3; ++k)
      move(other, otherInStill[k], q[k]);
    const auto clears = [&](const Vec3& n, double level) {
      for (std::size_t i = 0; i < other.size(); ++i) {
        const double s0 = n.dot(q[0][i]) - level, s1 = n.dot(q[1][i]) - level,
                     s2 = n.dot(q[2][i]) - level;
        if (std::min({s0, s1, s2}) - 0.5 * std::abs(s0 - 2 * s1 + s2) <
            -0.5 * m_options.tolerance_mm)
          return false;
      }
      return true;
    };
    if (clears(Vec3::UnitZ(), 0) || clears(-Vec3::UnitZ(), 0)) return true;
    for (std::size_t i = 0; i < still.size(); ++i) {
      const Vec3 d = (still[(i + 1) % still.size()] - still[i]).normalized(), out(d.y(), -d.x(), 0);
      if (clears(out, out.dot(still[i]))) return true;
    }
    for (std::size_t i = 0; i < still.size(); ++i)
      for (std::size_t j = 0; j < other.size(); ++j) {
        Vec3 n = (still[(i + 1) % still.size()] - still[i])
                     .cross(q[1][(j + 1) % other.size()] - q[1][j]);
        const double length = n.norm();
        if (length < 1e-9) continue;
        n /= length;
        double low = 1e300, high = -1e300;
        for (const Vec3& p : still)
          low = std::min(low, n.dot(p)), high = std::max(high, n.dot(p));
        if (clears(n, high) || clears(-n, -low)) return true;
      }
    return false;
  }

  const Motion& m_motion;
  ContactOptions m_options;
  std::stop_token m_stop;
  std::vector<Plate> m_plates;
  std::map<double, Pose> m_poses;
  mutable std::array<std::vector<Corners>, 2> m_sheets;
  mutable std::array<Corners, 3> m_moved; ///< room for corners, kept from call to call
  std::map<Pair, Hit> m_hits;
  ContactReport m_report;
};

} // namespace

ContactReport findContacts(const Motion& motion, const ContactOptions& options,
                           std::stop_token stop) {
  return Search(motion, options, stop).run();
}

} // namespace hinge
