// SPDX-License-Identifier: GPL-3.0-or-later
#include "referee.h"
#include "core/assembly/paper_of.h"
#include "referee_geometry.h"
#include "referee_order.h"
#include <fmt/format.h>
#include <set>

namespace hinge::test {
namespace {

using Kind = Complaint::Kind;

/// Keeps the worst of each kind about the same things.
class Findings {
public:
  void add(Kind kind, const std::string& what, double amount, double at_deg) {
    Complaint& c = m_worst[{kind, what}];
    if (c.what.empty() || amount > c.amount) c = {kind, what, amount, at_deg};
  }
  std::vector<Complaint> all() const {
    std::vector<Complaint> out;
    for (const auto& [key, complaint] : m_worst)
      out.push_back(complaint);
    return out;
  }

private:
  std::map<std::pair<Kind, std::string>, Complaint> m_worst;
};

/// Every so often, and close where a drive or a pull is short.
std::vector<double> openingsOf(const Motion& motion, double step_rad) {
  const Assembly& assembly = motion.assembly();
  std::set<double> all;
  const double low = assembly.low_rad, high = assembly.high_rad;
  for (double t = low; t < high; t += step_rad)
    all.insert(t);
  all.insert(high);
  // Paper that lies flat at an end is seen to leave it.
  for (const double beside_deg : {0.05, 0.3, 1.5})
    for (const double t : {low + radians(beside_deg), high - radians(beside_deg)})
      all.insert(std::clamp(t, low, high));
  // And just before a structure comes to its limit.
  constexpr double kInside_rad = 1e-4;
  for (const Motion::BlockReport& block : motion.blocks())
    for (const double t : {block.low_rad + kInside_rad, block.high_rad - kInside_rad})
      if (block.low_rad < block.high_rad) all.insert(std::clamp(t, low, high));
  const auto within = [&](double from, double to) {
    constexpr int kParts = 30;
    for (int k = 0; k <= kParts; ++k)
      all.insert(std::clamp(from + (to - from) * k / kParts, low, high));
  };
  for (const Drive& drive : assembly.drives) {
    const double share = assembly.openBy_rad / kPi; // of the leaf's way in the base's
    within(drive.from_rad * share, drive.to_rad * share);
  }
  for (const auto& [j, slide] : assembly.every<Slide>())
    if (slide.pull) within(slide.pull->from_rad, slide.pull->to_rad);
  return {all.begin(), all.end()};
}

class Referee {
public:
  Referee(const Analysis& card, const RefereeOptions& options)
      : m_card(card), m_assembly(*card.assembly), m_motion(*card.motion), m_options(options) {}

  std::vector<Complaint> run() {
    holding();
    declaredUse();
    layersAtFolds();
    const std::vector<double> openings = openingsOf(m_motion, radians(m_options.step_deg));
    OrderReferee order(m_assembly, m_motion);
    for (const double t : openings) {
      const Pose pose = t > 0 ? m_motion.poseAt(t) : m_motion.shutPose();
      place(pose);
      torn(pose, t);
      if (t > 0) foldWays(pose, t);
      crossings(t);
      films(pose, t);
      if (t == 0) flatWhenShut(pose);
      order.next(pose, t);
    }
    handMoves(order, openings);
    for (const OrderReferee::Wrong& wrong : order.wrong())
      m_found.add(Kind::Order, keys(wrong.a, wrong.b), wrong.depth_mm, degrees(wrong.at_rad));
    return m_found.all();
  }

private:
  std::string keys(PanelIndex a, PanelIndex b) const {
    return m_assembly.panels[a].key + " / " + m_assembly.panels[b].key;
  }
  const Region& paper(PanelIndex p) const { return m_assembly.panels[p].outline; }
  bool isThere(PanelIndex p, const Pose& pose) const {
    return pose.placed[p] && !m_motion.isLoose(p);
  }

  void place(const Pose& pose) {
    m_placed.clear();
    for (PanelIndex p : m_assembly.panels.indices())
      m_placed.emplace_back(pose.panels[p], paper(p));
    m_there = &pose;
  }
  const PlacedPanel& placed(PanelIndex p) const {
    return m_placed[static_cast<std::size_t>(p.value)];
  }

  // --- Joints: both sides in the same place -----------------------------------------------------

  void torn(const Pose& pose, double t) {
    const auto note = [&](PanelIndex a, PanelIndex b, double gap, double play) {
      if (gap > m_options.gap_mm + play) m_found.add(Kind::Torn, keys(a, b), gap, degrees(t));
    };
    for (const Fold& fold : m_assembly.folds) {
      if (!isThere(fold.left, pose) || !isThere(fold.right, pose)) continue;
      double gap = 0;
      for (const Vec2& end : {fold.from, fold.to})
        gap = std::max(
            gap, (pose.panels[fold.left] * lift(end) - pose.panels[fold.right] * lift(end)).norm());
      note(fold.left, fold.right, gap, 0);
    }
    for (const Joint& joint : m_assembly.joints) {
      if (tieOf(joint)) continue;
      const auto [first, second] = panelsOf(joint);
      if (!isThere(first, pose) || !isThere(second, pose)) continue;
      if (const Glue* glue = std::get_if<Glue>(&joint)) {
        double gap = 0;
        for (const Vec2& corner : paper(glue->tab).rim)
          gap = std::max(gap, (pose.panels[glue->host] * (glue->tabToHost * lift(corner)) -
                               pose.panels[glue->tab] * lift(corner))
                                  .norm());
        note(first, second, gap, 0);
        continue;
      }
      const Guide& guide = *guideOf(joint);
      const Iso3 one = pose.panels[first] * guide.onFirst,
                 other = pose.panels[second] * guide.onSecond;
      const Iso3 between = one.inverse() * other;
      constexpr double kArm_mm = 20;
      Vec3 apart = between.translation();
      double turned = kArm_mm * (between.linear().col(1) - Vec3::UnitY()).norm();
      double play = 0;
      if (std::holds_alternative<Slide>(joint)) {
        apart.y() = 0;
        turned = std::max(turned, kArm_mm * (between.linear().col(2) - Vec3::UnitZ()).norm());
        play = m_assembly.slidePlay_mm * 4; // askew from edge to edge
      } else if (std::holds_alternative<Pivot>(joint)) {
        play = m_assembly.pinPlay_mm * 2;
      }
      note(first, second, std::max(apart.norm(), turned), play);
    }
  }

  // --- Crossings, every pair ---------------------------------------------------------------------

  void crossings(double t) {
    for (PanelIndex a : m_assembly.panels.indices())
      for (PanelIndex b : m_assembly.panels.indices())
        if (a < b) cross(a, b, t, "");
  }
  void cross(PanelIndex a, PanelIndex b, double t, const std::string& how) {
    if (!isThere(a, *m_there) || !isThere(b, *m_there) || !placed(a).mayMeet(placed(b))) return;
    const double depth = crossingOf(placed(a), paper(a), placed(b), paper(b));
    if (depth > m_options.depth_mm)
      m_found.add(Kind::Crossing, keys(a, b) + how, depth, degrees(t));
  }

  /// What hands spin, pull and lift, on its whole way, at several openings from where the card is
  /// shown on: in a card that is less open no hand does so.
  void handMoves(OrderReferee& order, const std::vector<double>& openings) {
    constexpr int kOpenings = 4, kShares = 60;
    for (const Lift& lift : m_assembly.lifts)
      for (int k = 0; k <= kOpenings; ++k) {
        const double shown =
            std::clamp(radians(m_card.design.card.display_deg), openings.front(), openings.back());
        const double t = shown + (openings.back() - shown) * k / kOpenings;
        const Pose rest = m_motion.poseAt(t);
        std::vector<Pose> way;
        for (int s = 0; s <= kShares; ++s) {
          way.push_back(lifted(rest, lift, static_cast<double>(s) / kShares));
          place(way.back());
          for (PanelIndex a : lift.panels)
            for (PanelIndex b : m_assembly.panels.indices())
              if (std::ranges::find(lift.panels, b) == lift.panels.end())
                cross(a, b, t, " by hand");
        }
        order.byHand(way, t);
      }
  }
  /// Apart from the product's: the panels turn about the line of their joint, or run along it.
  Pose lifted(const Pose& rest, const Lift& lift, double share) const {
    Pose pose = rest;
    if (lift.poses) {
      const std::vector<Iso3> at = lift.poses(share);
      for (std::size_t k = 0; k < at.size(); ++k)
        pose.panels[lift.panels[k]] = rest.panels[lift.stays] * at[k];
      return pose;
    }
    const double way = (lift.most - lift.least) * share;
    Iso3 change = Iso3::Identity();
    if (lift.fold.valid()) {
      const Fold& fold = m_assembly.folds[lift.fold];
      const Vec3 from = rest.panels[fold.left] * hinge::lift(fold.from),
                 to = rest.panels[fold.left] * hinge::lift(fold.to);
      change.linear() = Eigen::AngleAxisd(lift.secondMoves ? -way : way, (to - from).normalized())
                            .toRotationMatrix();
      change.translation() = from - change.linear() * from;
    } else {
      const Guide& guide = *guideOf(m_assembly.joints[lift.joint]);
      const Iso3 line = rest.panels[guide.first] * guide.onFirst;
      const Vec3 along = line.linear().col(1), from = line.translation();
      const double signedWay = lift.secondMoves ? way : -way;
      if (lift.slides) {
        change.translation() = signedWay * along;
      } else {
        change.linear() = Eigen::AngleAxisd(signedWay, along).toRotationMatrix();
        change.translation() = from - change.linear() * from;
      }
    }
    for (PanelIndex p : lift.panels)
      pose.panels[p] = change * rest.panels[p];
    return pose;
  }

  /// A strip of film that is not taut still has to go round what stands between its ends: in the
  /// upright plane through both, the way over all paper that the straight line meets.
  void films(const Pose& pose, double t) {
    for (const auto& [j, film] : m_assembly.every<Film>()) {
      if (!isThere(film.panels[0], pose) || !isThere(film.panels[1], pose)) continue;
      const Vec3 from = pose.panels[film.panels[0]] * hinge::lift(film.at[0]),
                 to = pose.panels[film.panels[1]] * hinge::lift(film.at[1]);
      const double straight = (to - from).norm();
      if (straight < 1) continue;
      const Vec3 along = (to - from) / straight;
      const Vec3 up = (Vec3::UnitZ() - Vec3::UnitZ().dot(along) * along).normalized();
      const Vec3 side = along.cross(up);
      double needed = straight;
      for (PanelIndex p : m_assembly.panels.indices()) {
        if (!isThere(p, pose) || p == film.panels[0] || p == film.panels[1]) continue;
        if (m_assembly.panels[p].use == PanelUse::Page || m_assembly.panels[p].use == PanelUse::Tab)
          continue;
        const PlacedPanel& at = placed(p);
        Vec3 line = at.normal.cross(side);
        if (line.norm() < 1e-6) continue;
        line.normalize();
        const Vec3 across = at.normal.cross(line);
        if (std::abs(across.dot(side)) < 1e-6) continue;
        const Vec3 on = at.pose.translation() +
                        across * ((from - at.pose.translation()).dot(side) / across.dot(side));
        const auto ends = test::crossings(paper(p), at.inPlane(on),
                                          Vec2((at.pose.linear().transpose() * line).head<2>()));
        for (std::size_t k = 0; k + 1 < ends.size(); k += 2) {
          const Vec3 a = on + ends[k] * line - from, b = on + ends[k + 1] * line - from;
          const double ha = a.dot(up), hb = b.dot(up);
          if ((ha > 0) == (hb > 0)) continue; // the straight line passes it by
          const double x = along.dot(a) + (along.dot(b) - along.dot(a)) * ha / (ha - hb);
          if (x < 0.5 || x > straight - 0.5) continue;
          const Vec3 top = ha > hb ? a : b;
          needed = std::max(needed, top.norm() + (top - (to - from)).norm());
        }
      }
      if (needed > film.length_mm + 0.5 && straight <= film.length_mm)
        m_found.add(Kind::Crossing, keys(film.panels[0], film.panels[1]) + " film",
                    needed - film.length_mm, degrees(t));
    }
  }

  // --- The shut card
  // ------------------------------------------------------------------------------

  /// All paper of a shut card lies in one plane.
  void flatWhenShut(const Pose& shut) {
    const PlacedPanel& page = placed(m_assembly.root);
    for (PanelIndex p : m_assembly.panels.indices()) {
      if (!isThere(p, shut)) continue;
      double off = 0;
      for (const Vec2& corner : paper(p).rim)
        off = std::max(off, std::abs(page.over(shut.panels[p] * hinge::lift(corner))));
      if (off > 3 * m_options.gap_mm)
        m_found.add(Kind::Crossing, m_assembly.panels[p].key + " stands in the shut card", off, 0);
    }
  }

  /// What is laid on two leaves near the fold that closes on it has no room there: the fold gives
  /// way by as much as it is wide of its ends.
  void layersAtFolds() {
    if (!m_motion.shuts()) return;
    const auto laid = m_card.snapshot->laid();
    if (!laid) return;
    for (FoldIndex f : m_assembly.folds.indices()) {
      const Fold& fold = m_assembly.folds[f];
      const double shut = m_motion.shutAngle(f);
      if (std::abs(shut) < 0.5 * kPi) continue;
      // Stack by stack: how high each side is, and how near to the fold that begins.
      struct Step {
        double near_mm, high_mm;
      };
      std::vector<Step> sides[2];
      for (const LaidOn& on : *laid) {
        const int side = on.panel == fold.left ? 0 : on.panel == fold.right ? 1 : -1;
        if (side < 0 || on.onBack == (shut > 0)) continue;
        const Vec2 along = (fold.to - fold.from).normalized();
        double near = 1e300;
        for (const Vec2& p : on.onPiece.rim) {
          const double s = along.dot(p - fold.from);
          if (s > -1 && s < (fold.to - fold.from).norm() + 1)
            near = std::min(near, std::abs(cross2(along, p - fold.from)));
        }
        if (near < 1e300) sides[side].push_back({near, on.thickness_mm});
      }
      const auto high = [&](int side, double near) {
        double sum = 0;
        for (const Step& step : sides[side])
          if (step.near_mm <= near + 1e-9) sum += step.high_mm;
        return sum;
      };
      for (const auto& steps : sides)
        for (const Step& step : steps) {
          const double lack = 0.5 * (high(0, step.near_mm) + high(1, step.near_mm)) - step.near_mm;
          if (lack > 0.5) m_found.add(Kind::Thickness, keys(fold.left, fold.right), lack, 0);
        }
    }
  }

  // --- Glue and pins have paper under them
  // ---------------------------------------------------------

  void holding() {
    for (const Joint& joint : m_assembly.joints) {
      if (const Glue* glue = std::get_if<Glue>(&joint)) {
        const Region tab = paper(glue->tab);
        Area glued{tab};
        if (!glue->area.empty()) glued = Area::common(glued, Area(Region(glue->area)));
        Region host;
        const Iso3 toTab = glue->tabToHost.inverse();
        const auto brought = [&](const Polygon& ring) {
          Polygon there;
          for (const Vec2& p : ring)
            there.push_back((toTab * hinge::lift(p)).head<2>());
          return there;
        };
        host.rim = brought(paper(glue->host).rim);
        for (const Polygon& hole : paper(glue->host).holes)
          host.holes.push_back(brought(hole));
        const double holds = Area::common(glued, Area(host)).size_mm2();
        const double enough = std::min(20.0, 0.5 * Area(tab).size_mm2());
        if (holds < enough)
          m_found.add(Kind::Holding, keys(glue->tab, glue->host), enough - holds, 0);
      } else if (const Pivot* pin = std::get_if<Pivot>(&joint)) {
        const Vec2 one = pin->onFirst.translation().head<2>(),
                   other = pin->onSecond.translation().head<2>();
        if (!Area(paper(pin->first)).has(one) || !Area(paper(pin->second)).has(other))
          m_found.add(Kind::Holding, keys(pin->first, pin->second), 1, 0);
      }
    }
  }

  // --- Folds go the way they are marked
  // --------------------------------------------------------------

  void foldWays(const Pose& pose, double t) {
    for (const Fold& fold : m_assembly.folds) {
      if (!isThere(fold.left, pose) || !isThere(fold.right, pose)) continue;
      const Vec3 left = pose.panels[fold.left].linear().col(2),
                 right = pose.panels[fold.right].linear().col(2);
      const Vec3 along =
          pose.panels[fold.left].linear() * hinge::lift(fold.to - fold.from).normalized();
      // A valley turns the right leaf towards the eye: about the line, against the clock of its
      // end.
      const double angle = -degrees(std::atan2(along.dot(left.cross(right)), left.dot(right)));
      const double wrong = fold.sense == FoldSense::Valley ? -angle : angle;
      if (wrong > 3 && wrong < 175) m_found.add(Kind::FoldWay, fold.key, wrong, degrees(t));
    }
  }

  // --- What the maker declares
  // -------------------------------------------------------------------------

  void declaredUse() {
    const CardBase& card = m_card.design.card;
    if (!m_assembly.drives.empty() && (card.display_deg < card.worksFrom_deg - 0.01 ||
                                       card.display_deg > card.worksTo_deg + 0.01))
      m_found.add(Kind::DeclaredUse, "display", card.display_deg, card.display_deg);
    for (const auto& [j, slide] : m_assembly.every<Slide>()) {
      if (!slide.pull || slide.pull->way_mm == 0) continue;
      // The card is open and the hand is free to pull.
      if (slide.pull->from_rad >= m_assembly.openBy_rad - radians(0.1)) continue;
      const bool drawn = std::ranges::any_of(m_assembly.joints, [&](const Joint& joint) {
        return tieOf(joint) &&
               (panelsOf(joint)[0] == slide.second || panelsOf(joint)[1] == slide.second);
      });
      if (!drawn)
        m_found.add(Kind::DeclaredUse, m_assembly.panels[slide.second].key + " pulled by nothing",
                    slide.pull->way_mm, 0);
    }
    if (card.worksFrom_deg <= 0) return;
    Design whole = m_card.design;
    whole.card.worksFrom_deg = 0;
    const auto below = analyse(whole);
    if (!below) return;
    Referee shut(*below, m_options);
    shut.torn(below->motion->shutPose(), 0);
    for (const Complaint& torn : shut.m_found.all())
      m_found.add(Kind::DeclaredUse, torn.what + " cannot be shut", torn.amount, 0);
  }

  const Analysis& m_card;
  const Assembly& m_assembly;
  const Motion& m_motion;
  RefereeOptions m_options;
  Findings m_found;
  std::vector<PlacedPanel> m_placed;
  const Pose* m_there = nullptr;
};

} // namespace

std::vector<Complaint> complaintsOf(const Analysis& card, const RefereeOptions& options) {
  return Referee(card, options).run();
}

std::string told(const std::vector<Complaint>& complaints) {
  static constexpr const char* kNames[] = {"torn",    "order",    "crossing",    "thickness",
                                           "holding", "fold way", "declared use"};
  std::string lines;
  for (const Complaint& c : complaints)
    lines += fmt::format("{}: {} by {:.2f} at {:.1f} degrees\n", kNames[static_cast<int>(c.kind)],
                         c.what, c.amount, c.at_deg);
  return lines;
}

} // namespace hinge::test
