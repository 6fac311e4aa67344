// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/contact/plates.h"
#include "core/contact/convex_slab.h"
#include "core/contact/swept.h"
#include "core/motion/openings.h"
#include <algorithm>
#include <cmath>
#include <map>
#include <optional>
#include <set>

namespace hinge {
namespace {

/// All that moves with one panel, in the frame of its piece.
struct Slabbed {
  PanelIndex panel;
  BodyIndex body;
  std::vector<ConvexSlab> slabs;
  std::vector<AxisBox> boxes; ///< of each of them
  bool wanted = true;
  AxisBox box = {}; ///< of all its slabs
};

using PlatePair = std::pair<int, int>;

/// A slab of the first of a pair and one of the second.
struct SlabPair {
  const ConvexSlab *first, *second;
  bool operator==(const SlabPair&) const = default;
};

/// A pair in a stretch of the opening.
struct Stretched {
  PlatePair pair;
  std::vector<SlabPair> near;                             ///< what of the pair may meet in it
  std::optional<bool> meetsAtStart = {}, meetsAtEnd = {}; ///< where that has been looked for
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
    for (const auto& [t0, t1] : stretches()) {
      if (m_stop.stop_requested()) break;
      if (t0 < low - m_options.finest_rad || t1 > high + m_options.finest_rad) continue;
      const ThreePoses at = threeAt(t0, t1);
      std::vector<Stretched> pairs;
      for (const PlatePair& pair : candidates(at)) {
        Stretched one{pair, nearThrough(pair, at)};
        if (!one.near.empty() && !onlyLies(pair, t0, t1, at)) pairs.push_back(std::move(one));
      }
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
  bool onlyLies(const PlatePair& pair, double t0, double t1, const ThreePoses& at) const {
    const bool begins = t0 <= m_motion.low_rad() + m_options.finest_rad,
               ends = t1 >= m_motion.high_rad() - m_options.finest_rad;
    return (begins || ends) &&
           std::ranges::all_of(at, [&](const Pose* pose) { return parallel(pair, *pose); }) &&
           (begins || !meetAt(pair, *at[0])) && (ends || !meetAt(pair, *at[2]));
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
    ConvexSlab slab{{}, Vec3::UnitZ(), from_mm, to_mm, {}};
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
        m_plates.push_back({slab.panel, m_motion.mechanism().bodyOf[slab.panel], {}, {}, wanted});
      }
      Slabbed& plate = m_plates[at->second];
      for (const Polygon& part : convexParts(slab.onPiece)) {
        plate.slabs.push_back(flat(part, slab.from_mm, slab.to_mm));
        plate.boxes.push_back(boxOf({plate.slabs.back()}));
      }
    }
    for (Slabbed& plate : m_plates)
      plate.box = boxOf(plate.slabs);
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

  std::vector<PlatePair> candidates(const ThreePoses& at) const {
    std::vector<SweptBox> boxes;
    for (std::size_t k = 0; k < m_plates.size(); ++k) {
      const Slabbed& plate = m_plates[k];
      if (!present(plate.panel, at)) continue;
      const auto corners = plate.box.corners();
      boxes.push_back(sweptBox({{corners.begin(), corners.end()}}, plate.panel, at, 0));
      boxes.back().what = static_cast<int>(k);
    }
    std::vector<PlatePair> pairs;
    for (const auto& [first, second] : meetingBoxes(std::move(boxes))) {
      const Slabbed &p = plate(first), &q = plate(second);
      if (p.body != q.body && (p.wanted || q.wanted) &&
          !m_joined.contains(std::minmax(p.panel, q.panel)))
        pairs.push_back({first, second});
    }
    return pairs;
  }

  Iso3 secondInFirst(const PlatePair& pair, const Pose& pose) const {
    return inverseOf(pose.panels[plate(pair.first).panel]) * pose.panels[plate(pair.second).panel];
  }

  std::array<Iso3, 3> secondInFirst(const PlatePair& pair, const ThreePoses& at) const {
    return {secondInFirst(pair, *at[0]), secondInFirst(pair, *at[1]), secondInFirst(pair, *at[2])};
  }

  /// How far anything in a box of the second of a pair moves against the first from the middle of
  /// an interval on (mm).
  static double moves_mm(const AxisBox& box, const std::array<Iso3, 3>& bInA) {
    constexpr double kPathOverChord = 1.25; // a path is no straight line
    double moved = 0;
    for (const Vec3& corner : box.corners()) {
      const Vec3 middle = bInA[1] * corner;
      moved = std::max({moved, (bInA[0] * corner - middle).squaredNorm(),
                        (bInA[2] * corner - middle).squaredNorm()});
    }
    return kPathOverChord * std::sqrt(moved);
  }
  /// What of two panels may be nearer together than `near_mm`, by the boxes round it.
  std::vector<SlabPair> nearAt(const PlatePair& pair, const Iso3& bInA, double near_mm) const {
    const Slabbed &a = plate(pair.first), &b = plate(pair.second);
    const Iso3 aInB = inverseOf(bInA);
    if (gapBetween(a.box, b.box.seenThrough(bInA)) >= near_mm ||
        gapBetween(a.box.seenThrough(aInB), b.box) >= near_mm)
      return {};
    m_seen.clear();
    for (const AxisBox& box : a.boxes)
      m_seen.push_back(box.seenThrough(aInB));
    std::vector<SlabPair> near;
    for (std::size_t j = 0; j < b.slabs.size(); ++j) {
      const AxisBox box = b.boxes[j].seenThrough(bInA);
      for (std::size_t i = 0; i < a.slabs.size(); ++i)
        if (gapBetween(a.boxes[i], box) < near_mm && gapBetween(m_seen[i], b.boxes[j]) < near_mm)
          near.push_back({&a.slabs[i], &b.slabs[j]});
    }
    return near;
  }
  /// What of two panels may meet in an interval: it is nearer together in the middle than it moves.
  std::vector<SlabPair> nearThrough(const PlatePair& pair, const ThreePoses& at) const {
    const std::array<Iso3, 3> bInA = secondInFirst(pair, at);
    return nearAt(pair, bInA[1], moves_mm(plate(pair.second).box, bInA));
  }

  /// True when anything of these is nearer together than `gap_mm`.
  bool nearerAt(const PlatePair& pair, const std::vector<SlabPair>& near, const Pose& pose,
                double gap_mm) const {
    const Iso3 bInA = secondInFirst(pair, pose);
    const ConvexSlab* there = nullptr;
    return std::ranges::any_of(near, [&](const SlabPair& slabs) {
      if (there != slabs.second) there = slabs.second, move(*there, bInA, m_brought[1]);
      return gapBetween(*slabs.first, m_brought[1], gap_mm) < gap_mm;
    });
  }
  bool meetAt(const PlatePair& pair, const std::vector<SlabPair>& near, const Pose& pose) const {
    return nearerAt(pair, near, pose, -m_options.tolerance_mm);
  }
  bool meetAt(const PlatePair& pair, const Pose& pose) const {
    return meetAt(pair, nearAt(pair, secondInFirst(pair, pose), -m_options.tolerance_mm), pose);
  }

  Vec3 placeOf(const PlatePair& pair, const SlabPair& slabs, const Pose& pose) const {
    return placeBetween(moved(*slabs.first, pose.panels[plate(pair.first).panel]),
                        moved(*slabs.second, pose.panels[plate(pair.second).panel]));
  }

  /// What of a pair is left when all that stays apart through an interval is taken out, and what of
  /// it meets deepest in the middle.
  struct Left {
    std::vector<SlabPair> near;
    SlabPair deepest = {};
    double gap_mm = 1e300;
  };
  Left leftOf(const Stretched& one, const ThreePoses& at) const {
    const std::array<Iso3, 3> bInA = secondInFirst(one.pair, at);
    const ConvexSlab* there = nullptr;
    Left left;
    for (const SlabPair& slabs : one.near) {
      if (there != slabs.second) {
        there = slabs.second;
        for (std::size_t k = 0; k < 3; ++k)
          move(*there, bInA[k], m_brought[k]);
      }
      const GapThrough through = gapThrough(*slabs.first, m_brought, -m_options.tolerance_mm);
      if (through.parted) continue;
      left.near.push_back(slabs);
      if (through.middle_mm < left.gap_mm) left.gap_mm = through.middle_mm, left.deepest = slabs;
    }
    return left;
  }

  void search(double t0, double t1, const std::vector<Stretched>& pairs) {
    if (m_stop.stop_requested() || pairs.empty()) return;
    std::vector<BodyIndex> bodies;
    for (const Stretched& one : pairs)
      bodies.push_back(plate(one.pair.first).body), bodies.push_back(plate(one.pair.second).body);
    const double middle = 0.5 * (t0 + t1);
    const auto wanted = m_motion.blocksFor(bodies);
    const ThreePoses at = {&poseAt(t0, wanted), &poseAt(middle, wanted), &poseAt(t1, wanted)};
    std::vector<Stretched> before, after;
    for (const Stretched& one : pairs) {
      Left left = leftOf(one, at);
      if (left.near.empty()) continue;
      const bool meets = left.gap_mm < -m_options.tolerance_mm;
      std::optional<bool> start = one.meetsAtStart, end = one.meetsAtEnd;
      if (meets && !start) start = meetAt(one.pair, left.near, *at[0]);
      if (meets && *start && !end) end = meetAt(one.pair, left.near, *at[2]);
      const bool allTheWay = meets && *start && *end;
      if (allTheWay || turnBetween(m_assembly, t0, t1) <= m_options.finest_rad) {
        if (meets)
          record(one.pair, t0, t1,
                 {middle, -left.gap_mm, parallel(one.pair, *at[1]),
                  placeOf(one.pair, left.deepest, *at[1])});
      } else {
        before.push_back({one.pair, left.near, start, meets});
        after.push_back({one.pair, std::move(left.near), meets, end});
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
  Pose poseOf(const PlatePair& pair, double t) const {
    return m_motion.poseAt(t,
                           m_motion.blocksFor({plate(pair.first).body, plate(pair.second).body}));
  }
  bool parallelAt(const PlatePair& pair, double t) const {
    const Pose pose = poseOf(pair, t);
    return !pose.placed[plate(pair.first).panel] || !pose.placed[plate(pair.second).panel] ||
           parallel(pair, pose);
  }

  /// The panel as a drawing, without thickness. Few are asked for.
  const std::vector<ConvexSlab>& sheetOf(int k) const {
    const auto [at, isNew] = m_sheets.emplace(k, std::vector<ConvexSlab>());
    if (isNew)
      for (const Polygon& part : convexParts(m_assembly.panels[plate(k).panel].outline))
        at->second.push_back(flat(part, 0, 0));
    return at->second;
  }

  /// As drawings they still meet, in a corner or an edge, where they have parted as paper: like a
  /// fold, paper takes that up.
  bool stillMeet(const PlatePair& pair, double parted_rad) const {
    std::vector<SlabPair> all;
    for (const ConvexSlab& other : sheetOf(pair.second))
      for (const ConvexSlab& one : sheetOf(pair.first))
        all.push_back({&one, &other});
    return nearerAt(pair, all, poseOf(pair, parted_rad), kMeets_mm);
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
  mutable std::map<int, std::vector<ConvexSlab>> m_sheets; ///< see sheetOf()
  mutable std::array<ConvexSlab, 3> m_brought; ///< room for slabs, kept from call to call
  mutable std::vector<AxisBox> m_seen;         ///< and for boxes
  std::map<PlatePair, std::vector<Run>> m_runs;
};

} // namespace

std::vector<PlateTouch> plateTouches(const Motion& motion, const std::vector<Slab>& slabs,
                                     const PlateOptions& options, std::stop_token stop) {
  return PlateSearch(motion, slabs, options, stop).run();
}

} // namespace hinge
