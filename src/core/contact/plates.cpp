// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/contact/plates.h"
#include "core/contact/swept.h"
#include "core/motion/openings.h"
#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <optional>
#include <set>
#include <span>
#include <tuple>

namespace hinge {
namespace {

struct Extent {
  double low = 1e300, high = -1e300;
};

Extent along(const ConvexSlab& slab, const Vec3& way) {
  Extent out;
  for (const Vec3& corner : slab.corners) {
    const double s = way.dot(corner);
    out.low = std::min(out.low, s), out.high = std::max(out.high, s);
  }
  const double up = way.dot(slab.normal);
  const auto [least, most] = std::minmax({up * slab.from_mm, up * slab.to_mm});
  out.low += least, out.high += most;
  return out;
}

/// The directions of its edges. Of parallel ones, such as the two pairs that most panels have, one
/// says all.
std::vector<Vec3> edgesOf(const ConvexSlab& slab) {
  constexpr double kParallel_rad = 1e-11, kNoEdge_mm = 1e-9;
  std::vector<Vec3> edges;
  for (std::size_t k = 0; k < slab.corners.size(); ++k) {
    const Vec3 edge = slab.corners[(k + 1) % slab.corners.size()] - slab.corners[k];
    const auto isAlong = [&](const Vec3& other) {
      return edge.cross(other).squaredNorm() <=
             kParallel_rad * kParallel_rad * edge.squaredNorm() * other.squaredNorm();
    };
    if (edge.norm() > kNoEdge_mm && std::ranges::none_of(edges, isAlong)) edges.push_back(edge);
  }
  return edges;
}

} // namespace

double gapBetween(const ConvexSlab& a, const ConvexSlab& b, double enough_mm) {
  double widest = -1e300;
  // True when the gap is wide enough to look no further.
  const auto look = [&](const Vec3& way) {
    const double length = way.norm();
    if (length < 1e-9) return false;
    const Vec3 unit = way / length;
    const Extent ea = along(a, unit), eb = along(b, unit);
    widest = std::max({widest, eb.low - ea.high, ea.low - eb.high});
    return widest >= enough_mm;
  };
  // What lies far apart mostly does so along the line between, or along a normal.
  if (enough_mm < 1e300 && look(b.corners.front() - a.corners.front())) return widest;
  if (look(a.normal) || look(b.normal) || look(a.normal.cross(b.normal))) return widest;
  const std::vector<Vec3> made[2] = {a.edges.empty() ? edgesOf(a) : std::vector<Vec3>(),
                                     b.edges.empty() ? edgesOf(b) : std::vector<Vec3>()};
  const std::vector<Vec3>& edgesA = a.edges.empty() ? made[0] : a.edges;
  const std::vector<Vec3>& edgesB = b.edges.empty() ? made[1] : b.edges;
  for (const auto* own : {&edgesA, &edgesB})
    for (const Vec3& edge : *own)
      if (look(edge.cross(a.normal)) || look(edge.cross(b.normal))) return widest;
  for (const Vec3& one : edgesA)
    for (const Vec3& other : edgesB)
      if (look(one.cross(other))) return widest;
  return widest;
}

namespace {

/// All that moves with one panel.
struct Slabbed {
  PanelIndex panel;
  BodyIndex body;
  std::vector<ConvexSlab> slabs;          ///< in the piece frame
  std::vector<std::vector<Vec3>> corners; ///< of both sides of them
  std::vector<ConvexSlab> sheet;          ///< the panel as a drawing, without thickness
  bool wanted = true;
  Vec3 low = Vec3::Constant(1e300), high = Vec3::Constant(-1e300); ///< all of it, in its frame
};

using PlatePair = std::pair<int, int>;

/// The slabs of a pair that are nearest to one another.
struct SlabMeeting {
  double gap = 1e300;
  const ConvexSlab *first = nullptr, *second = nullptr; ///< in their piece frames
};

/// A pair in a stretch of the opening, met at both its ends.
struct Stretched {
  PlatePair pair;
  SlabMeeting start, end;
};

class PlateSearch {
public:
  PlateSearch(const Motion& motion, const std::vector<Slab>& slabs, const PlateOptions& options,
              std::stop_token stop)
      : m_motion(motion), m_assembly(motion.assembly()), m_options(options), m_stop(stop) {
    gather(slabs);
    findJoined();
  }

  std::vector<PlateTouch> run() {
    const double low = m_motion.low_rad(), high = m_motion.high_rad();
    if (high - low <= 2 * m_options.settling_rad) return {};
    // Where one stretch ends the next begins: as they met there they still do.
    std::map<PlatePair, SlabMeeting> there;
    double thereAt = -1;
    for (const auto& [t0, t1] : stretches()) {
      if (m_stop.stop_requested()) break;
      if (t0 < low - m_options.finest_rad || t1 > high + m_options.finest_rad) continue;
      const ThreePoses at = threeAt(t0, t1);
      std::vector<Stretched> pairs;
      std::map<PlatePair, SlabMeeting> ends;
      for (const auto& [pair, moves_mm] : candidates(at)) {
        // What is farther apart in the middle than it moves meets nowhere.
        if (meetingAt(pair, *at[1], moves_mm).gap >= moves_mm) continue;
        const auto known = there.find(pair);
        const bool still = thereAt == t0 && known != there.end();
        const Stretched one{pair, still ? known->second : meetingAt(pair, *at[0]),
                            meetingAt(pair, *at[2])};
        ends[pair] = one.end;
        if (!onlyLies(one, t0, t1, at)) pairs.push_back(one);
      }
      there = std::move(ends), thereAt = t1;
      search(t0, t1, pairs);
      m_poses.erase(m_poses.begin(), m_poses.lower_bound(t1));
    }
    std::vector<PlateTouch> found;
    for (auto& [pair, runs] : m_runs)
      judge(pair, runs, found);
    return found;
  }

private:
  /// Cosine of 6 degrees: so much paper bends to lie on paper.
  static constexpr double kParallel = 0.9945;
  static constexpr double kMeets_mm = 0.3; ///< as truly as hands cut
  static constexpr double kFar_mm = 60;    ///< what is as far apart does not meet soon
  /// A card that stops as much short of its end is open, or shut, all the same.
  static constexpr double kEnd_rad = radians(2.0);

  /// The ends of the motion by themselves: there most of the paper lies on paper.
  std::vector<std::pair<double, double>> stretches() const {
    std::vector<std::pair<double, double>> all;
    for (auto [t0, t1] : stretchesOf(m_motion, m_options.coarsest_rad, m_options.finest_rad)) {
      for (const double at : {m_motion.low_rad() + kEnd_rad, m_motion.high_rad() - kEnd_rad})
        if (at > t0 + m_options.finest_rad && at < t1 - m_options.finest_rad)
          all.push_back({t0, at}), t0 = at;
      all.push_back({t0, t1});
    }
    return all;
  }

  /// If two panels meet in this stretch they do so nowhere else, and as paper that lies on paper:
  /// that counts for nothing (see worstOf()).
  bool onlyLies(const Stretched& one, double t0, double t1, const ThreePoses& at) const {
    const auto apart = [&](const SlabMeeting& m) { return m.gap >= -m_options.tolerance_mm; };
    const bool begins = t0 <= m_motion.low_rad() + m_options.finest_rad,
               ends = t1 >= m_motion.high_rad() - m_options.finest_rad;
    return (begins || apart(one.start)) && (ends || apart(one.end)) &&
           std::ranges::all_of(at, [&](const Pose* pose) { return parallel(one.pair, *pose); });
  }

  struct Sample {
    double at = 0, depth = 0;
    bool parallel = false; ///< paper lies on paper
    Vec3 place = Vec3::Zero();
  };
  struct Run {
    double from, to;
    std::vector<Sample> samples;
  };

  const Slabbed& plate(int k) const { return m_plates[static_cast<std::size_t>(k)]; }

  static ConvexSlab flat(const Polygon& part, double from_mm, double to_mm) {
    ConvexSlab slab{{}, Vec3::UnitZ(), from_mm, to_mm};
    for (const Vec2& q : part)
      slab.corners.push_back(lift(q));
    slab.edges = edgesOf(slab);
    return slab;
  }

  void gather(const std::vector<Slab>& slabs) {
    std::map<PanelIndex, std::size_t> of;
    for (const Slab& slab : slabs) {
      if (m_motion.isLoose(slab.panel)) continue;
      const auto [at, isNew] = of.emplace(slab.panel, m_plates.size());
      const auto& owner = m_assembly.panels[slab.panel].owner;
      if (isNew) {
        const bool wanted =
            m_options.only.empty() || (owner && std::ranges::count(m_options.only, *owner) > 0);
        m_plates.push_back(
            {slab.panel, m_motion.mechanism().bodyOf[slab.panel], {}, {}, {}, wanted});
        for (const Polygon& part : convexParts(m_assembly.panels[slab.panel].outline))
          m_plates.back().sheet.push_back(flat(part, 0, 0));
      }
      Slabbed& plate = m_plates[at->second];
      for (const Polygon& part : convexParts(slab.onPiece)) {
        std::vector<Vec3> both;
        for (const Vec2& q : part) {
          both.push_back(lift(q) + slab.from_mm * Vec3::UnitZ());
          both.push_back(lift(q) + slab.to_mm * Vec3::UnitZ());
        }
        for (const Vec3& corner : both)
          plate.low = plate.low.cwiseMin(corner), plate.high = plate.high.cwiseMax(corner);
        plate.slabs.push_back(flat(part, slab.from_mm, slab.to_mm));
        plate.corners.push_back(std::move(both));
      }
    }
  }

  /// A panel with what it is glued down on and what is glued flat onto it.
  std::vector<PanelIndex> withGlued(PanelIndex panel) const {
    std::vector<PanelIndex> all{panel};
    for (const auto& [j, glue] : m_assembly.every<Glue>()) {
      if (m_assembly.panels[glue.tab].use == PanelUse::Topper) continue;
      if (glue.tab == panel) all.push_back(glue.host);
      if (glue.host == panel) all.push_back(glue.tab);
    }
    return all;
  }

  void findJoined() {
    const auto join = [&](PanelIndex a, PanelIndex b) { m_joined.insert(std::minmax(a, b)); };
    for (const Fold& fold : m_assembly.folds)
      for (PanelIndex left : withGlued(fold.left))
        for (PanelIndex right : withGlued(fold.right))
          join(left, right);
    for (const Joint& joint : m_assembly.joints) {
      const auto panels = hinge::panelsOf(joint);
      join(panels[0], panels[1]);
    }
  }

  ThreePoses threeAt(double t0, double t1) {
    return {&poseAt(t0, {}), &poseAt(0.5 * (t0 + t1), {}), &poseAt(t1, {})};
  }
  const Pose& poseAt(double t, const std::vector<char>& wanted) {
    const auto it = m_poses.find(t);
    return it != m_poses.end() ? it->second
                               : m_poses.emplace(t, m_motion.poseAt(t, wanted)).first->second;
  }

  /// How far apart the boxes of two panels are at least, along the axes of both; negative when no
  /// axis parts them. `bInA` leads from the second's frame into the first's.
  static double boxesApart_mm(const Slabbed& a, const Slabbed& b, const Iso3& bInA) {
    double widest = -1e300;
    const auto look = [&](const Slabbed& own, const Slabbed& other, const Iso3& there) {
      const Vec3 middle = there * Vec3(0.5 * (other.low + other.high)),
                 half = 0.5 * (other.high - other.low), reach = there.linear().cwiseAbs() * half;
      widest = std::max(
          {widest, (middle - reach - own.high).maxCoeff(), (own.low - middle - reach).maxCoeff()});
    };
    look(a, b, bInA), look(b, a, inverseOf(bInA));
    return widest;
  }

  /// How far anything of two panels moves against the other from the middle of an interval on (mm).
  /// Nothing when their boxes are farther apart there: then they need no closer look.
  std::optional<double> movesNearBy(const Slabbed& a, const Slabbed& b,
                                    const ThreePoses& at) const {
    Iso3 bInA[3];
    for (std::size_t k = 0; k < 3; ++k)
      bInA[k] = inverseOf(at[k]->panels[a.panel]) * at[k]->panels[b.panel];
    double moved = 0;
    for (int corner = 0; corner < 8; ++corner) {
      const Vec3 c(corner & 1 ? b.low.x() : b.high.x(), corner & 2 ? b.low.y() : b.high.y(),
                   corner & 4 ? b.low.z() : b.high.z());
      const Vec3 middle = bInA[1] * c;
      moved = std::max({moved, (bInA[0] * c - middle).norm(), (bInA[2] * c - middle).norm()});
    }
    constexpr double kPathOverChord = 1.25; // a path is no straight line
    if (boxesApart_mm(a, b, bInA[1]) > kPathOverChord * moved) return std::nullopt;
    return kPathOverChord * moved;
  }

  std::vector<std::pair<PlatePair, double>> candidates(const ThreePoses& at) const {
    std::vector<SweptBox> boxes;
    for (std::size_t k = 0; k < m_plates.size(); ++k) {
      const Slabbed& plate = m_plates[k];
      if (!present(plate.panel, at)) continue;
      boxes.push_back(sweptBox(plate.corners, plate.panel, at, 0));
      boxes.back().what = static_cast<int>(k);
    }
    std::vector<std::pair<PlatePair, double>> pairs;
    for (const auto& [first, second] : meetingBoxes(std::move(boxes))) {
      const Slabbed &p = plate(first), &q = plate(second);
      if (p.body == q.body || !(p.wanted || q.wanted) ||
          m_joined.contains(std::minmax(p.panel, q.panel)))
        continue;
      if (const auto moves_mm = movesNearBy(p, q, at))
        pairs.push_back({{first, second}, *moves_mm});
    }
    return pairs;
  }

  /// `out` keeps its room.
  static void move(const ConvexSlab& slab, const Iso3& by, ConvexSlab& out) {
    out.normal = by.linear() * slab.normal, out.from_mm = slab.from_mm, out.to_mm = slab.to_mm;
    out.corners.clear(), out.edges.clear();
    for (const Vec3& corner : slab.corners)
      out.corners.push_back(by * corner);
    for (const Vec3& edge : slab.edges)
      out.edges.push_back(by.linear() * edge);
  }
  static ConvexSlab moved(const ConvexSlab& slab, const Iso3& by) {
    ConvexSlab out;
    move(slab, by, out);
    return out;
  }

  SlabMeeting meetingAt(const PlatePair& pair, const Pose& pose, double far_mm = kFar_mm) const {
    return meetingOf(pair, pose, &Slabbed::slabs, far_mm);
  }

  /// A slab of the second in the frame of the first, with the ball that it lies in.
  struct Brought {
    const ConvexSlab* own = nullptr;
    ConvexSlab slab = {};
    Vec3 middle = Vec3::Zero();
    double radius = 0;
  };
  static std::pair<Vec3, double> ballOf(const ConvexSlab& slab) {
    Vec3 low = Vec3::Constant(1e300), high = Vec3::Constant(-1e300);
    for (const Vec3& corner : slab.corners)
      low = low.cwiseMin(corner), high = high.cwiseMax(corner);
    const double off = std::max(std::abs(slab.from_mm), std::abs(slab.to_mm));
    return {0.5 * (low + high), 0.5 * (high - low).norm() + off};
  }

  /// Only the nearest two matter, and beyond some distance not even how far those are apart.
  SlabMeeting meetingOf(const PlatePair& pair, const Pose& pose,
                        std::vector<ConvexSlab> Slabbed::*slabs, double far_mm = kFar_mm) const {
    const Slabbed &a = plate(pair.first), &b = plate(pair.second);
    const Iso3 bInA = inverseOf(pose.panels[a.panel]) * pose.panels[b.panel];
    const std::size_t count = (b.*slabs).size();
    if (m_brought.size() < count) m_brought.resize(count);
    for (std::size_t k = 0; k < count; ++k) {
      Brought& there = m_brought[k];
      there.own = &(b.*slabs)[k];
      move(*there.own, bInA, there.slab);
      std::tie(there.middle, there.radius) = ballOf(there.slab);
    }
    SlabMeeting least;
    for (const ConvexSlab& one : a.*slabs) {
      const auto [middle, radius] = ballOf(one);
      for (const Brought& other : std::span(m_brought).first(count)) {
        const double apart = (other.middle - middle).norm() - radius - other.radius;
        if (least.first && apart >= std::min(least.gap, far_mm)) continue;
        const double gap =
            gapBetween(one, other.slab, least.first ? std::min(least.gap, far_mm) : far_mm);
        if (gap < least.gap || !least.first) least = {gap, &one, other.own};
      }
    }
    return least;
  }

  Vec3 placeOf(const PlatePair& pair, const SlabMeeting& meeting, const Pose& pose) const {
    return between(moved(*meeting.first, pose.panels[plate(pair.first).panel]),
                   moved(*meeting.second, pose.panels[plate(pair.second).panel]));
  }

  /// The corner of one that is nearest to the other's plane and lies over it; roughly their place.
  static Vec3 between(const ConvexSlab& a, const ConvexSlab& b) {
    const auto middle = [](const ConvexSlab& slab) {
      Vec3 sum = Vec3::Zero();
      for (const Vec3& corner : slab.corners)
        sum += corner;
      return Vec3(sum / static_cast<double>(slab.corners.size()));
    };
    const Vec3 ma = middle(a), mb = middle(b);
    Vec3 best = 0.5 * (ma + mb);
    double nearest = 1e300;
    for (const auto& [one, other, to] : {std::tuple{&a, &b, &mb}, std::tuple{&b, &a, &ma}})
      for (const Vec3& corner : one->corners) {
        const double off =
            std::abs(other->normal.dot(corner - other->corners[0])) + 0.01 * (corner - *to).norm();
        if (off < nearest) nearest = off, best = corner;
      }
    return best;
  }

  void search(double t0, double t1, const std::vector<Stretched>& pairs) {
    if (m_stop.stop_requested() || pairs.empty()) return;
    std::vector<BodyIndex> bodies;
    for (const auto& [pair, start, end] : pairs)
      bodies.push_back(plate(pair.first).body), bodies.push_back(plate(pair.second).body);
    const double middle = 0.5 * (t0 + t1);
    const Pose& pose = poseAt(middle, m_motion.blocksFor(bodies));
    std::vector<Stretched> before, after;
    for (const auto& [pair, start, end] : pairs) {
      const SlabMeeting now = meetingAt(pair, pose);
      const auto [least, most] = std::minmax({start.gap, now.gap, end.gap});
      const double bend =
          0.5 * std::abs(start.gap - 2 * now.gap + end.gap) + 0.25 * std::abs(end.gap - start.gap);
      if (least - bend > -m_options.tolerance_mm) continue;
      if (most < -m_options.tolerance_mm ||
          turnBetween(m_assembly, t0, t1) <= m_options.finest_rad) {
        if (now.gap < -m_options.tolerance_mm)
          record(pair, t0, t1, {middle, -now.gap, parallel(pair, pose), placeOf(pair, now, pose)});
      } else {
        before.push_back({pair, start, now}), after.push_back({pair, now, end});
      }
    }
    search(t0, middle, before);
    search(middle, t1, after);
  }

  void record(const PlatePair& pair, double t0, double t1, const Sample& sample) {
    auto& runs = m_runs[pair];
    if (runs.empty() || t0 > runs.back().to + 2 * m_options.finest_rad)
      runs.push_back({t0, t1, {}});
    runs.back().to = std::max(runs.back().to, t1);
    runs.back().samples.push_back(sample);
  }

  bool parallel(const PlatePair& pair, const Pose& pose) const {
    const Vec3 a = pose.panels[plate(pair.first).panel].linear().col(2),
               b = pose.panels[plate(pair.second).panel].linear().col(2);
    return std::abs(a.dot(b)) > kParallel;
  }
  bool parallelAt(const PlatePair& pair, double t) const {
    const Pose pose = m_motion.poseAt(t);
    return !pose.placed[plate(pair.first).panel] || !pose.placed[plate(pair.second).panel] ||
           parallel(pair, pose);
  }

  /// As drawings they still meet, in a corner or an edge, where they have parted as paper: like a
  /// fold, paper takes that up.
  bool stillMeet(const PlatePair& pair, double parted_rad) const {
    const Pose pose = m_motion.poseAt(parted_rad);
    return meetingOf(pair, pose, &Slabbed::sheet).gap <= kMeets_mm;
  }

  /// What of a run is neither made so nor for the stack of the shut card to judge: where it is
  /// deepest.
  std::optional<Sample> worstOf(const PlatePair& pair, const Run& run) const {
    const double low = m_motion.low_rad(), high = m_motion.high_rad();
    const bool begins = run.from <= low + m_options.finest_rad,
               ends = run.to >= high - m_options.finest_rad;
    if (begins && ends) return std::nullopt;
    if ((begins || stillMeet(pair, run.from)) && (ends || stillMeet(pair, run.to)))
      return std::nullopt;
    const bool lies = (begins || ends) && parallelAt(pair, begins ? low : high);
    std::optional<Sample> worst;
    for (const Sample& sample : run.samples) {
      const double within = begins ? sample.at - low : high - sample.at;
      if ((begins || ends) && within <= (lies ? m_options.settling_rad : kEnd_rad)) continue;
      if (!sample.parallel && (!worst || sample.depth > worst->depth)) worst = sample;
    }
    return worst;
  }

  void judge(const PlatePair& pair, const std::vector<Run>& runs,
             std::vector<PlateTouch>& found) const {
    PlateTouch touch{plate(pair.first).panel, plate(pair.second).panel};
    for (const Run& run : runs)
      if (const auto worst = worstOf(pair, run); worst && worst->depth > touch.depth_mm)
        touch.from_rad = run.from, touch.to_rad = run.to, touch.depth_mm = worst->depth,
        touch.deepest_rad = worst->at, touch.place = worst->place;
    if (touch.depth_mm > 0) found.push_back(touch);
  }

  const Motion& m_motion;
  const Assembly& m_assembly;
  PlateOptions m_options;
  std::stop_token m_stop;
  std::vector<Slabbed> m_plates;
  std::set<std::pair<PanelIndex, PanelIndex>> m_joined;
  std::map<double, Pose> m_poses;
  mutable std::vector<Brought> m_brought; ///< room for slabs, kept from call to call
  std::map<PlatePair, std::vector<Run>> m_runs;
};

} // namespace

std::vector<PlateTouch> plateTouches(const Motion& motion, const std::vector<Slab>& slabs,
                                     const PlateOptions& options, std::stop_token stop) {
  return PlateSearch(motion, slabs, options, stop).run();
}

} // namespace hinge
