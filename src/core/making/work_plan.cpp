// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/work_plan.h"
#include "core/geom/border.h"
#include "core/making/access.h"
#include "core/making/placing_room.h"
#include "core/pieces/splicing.h"
#include "core/production/slices.h"
#include <algorithm>
#include <cmath>
#include <set>

namespace hinge {
namespace {

constexpr double kSpeck_mm2 = 0.5;
constexpr double kSameFold_mm = 0.2; ///< two folds that hands fold as one
/// Nearer to a fold a tab is on it: there is nothing to measure.
constexpr double kOnFold_mm = 0.5;

/// What holds sooner is pressed meanwhile: no step of its own.
constexpr double kWorthWaiting_s = 10;

/// Seconds that hands take, as starting values.
constexpr double kReady_s = 180, kScore_s = 12, kCut_s = 9, kFold_s = 5, kCross_s = 2,
                 kPencil_s = 20, kLayer_s = 25, kFit_s = 20, kJoin_s = 40, kMeasure_s = 15,
                 kOpen_s = 30, kFinish_s = 60;

Region bandAlong(const Vec2& from, const Vec2& to, double half_mm) {
  const Vec2 along = (to - from).normalized() * half_mm;
  const Vec2 aside(-along.y(), along.x());
  const Vec2 a = from - along, b = to + along;
  return Region{a - aside, b - aside, b + aside, a + aside};
}

double areaOf(const std::vector<Region>& regions) {
  double sum = 0;
  for (const Region& region : regions)
    sum += area_mm2(region);
  return sum;
}

/// The longer side of the box round each part, where a strip of tape lies.
double stripsOn_mm(const std::vector<Region>& regions) {
  double sum = 0;
  for (const Region& region : regions)
    sum += boundsOf(region).size().maxCoeff();
  return sum;
}

/// A fold near a tab, in the frame of its piece, and the panel on its far side.
struct FoldOnTab {
  Edge line;
  PanelIndex beyond; ///< not valid: the fold is not one of the panel's own
};
PanelIndex beyond(const Fold& fold, PanelIndex panel) {
  return fold.left == panel ? fold.right : fold.right == panel ? fold.left : PanelIndex();
}
/// Both sheets fold along the same line, and are glued to one another beyond it too: they never
/// part there, so glue goes up to it.
bool turnTogether(const Assembly& assembly, const FoldOnTab& a, const FoldOnTab& b) {
  if (!a.beyond.valid() || !b.beyond.valid()) return false;
  const Vec2 along = (b.line.second - b.line.first).normalized();
  for (const Vec2& end : {a.line.first, a.line.second})
    if (std::abs(cross2(along, end - b.line.first)) > kSameFold_mm) return false;
  for (const auto& [j, glue] : assembly.every<Glue>())
    if ((glue.tab == a.beyond && glue.host == b.beyond) ||
        (glue.tab == b.beyond && glue.host == a.beyond))
      return true;
  return false;
}

/// Which pieces hold together by now.
class Together {
public:
  explicit Together(std::size_t pieces) : m_of(pieces) {
    for (std::size_t k = 0; k < pieces; ++k)
      m_of[k] = k;
  }
  bool joined(PieceIndex a, PieceIndex b) const { return of(a) == of(b); }
  void join(PieceIndex a, PieceIndex b) {
    const std::size_t from = of(a), to = of(b);
    for (std::size_t& one : m_of)
      if (one == from) one = to;
  }

private:
  std::size_t of(PieceIndex p) const { return m_of[static_cast<std::size_t>(p.value)]; }
  std::vector<std::size_t> m_of;
};

class Planning {
public:
  Planning(const WorkInput& in, const MakingWays& ways)
      : m_in(in), m_ways(ways), m_assembly(in.motion.assembly()),
        m_moments(dressMoments(in.design, m_assembly, in.faces, in.dressed, in.order)) {}

  WorkPlan run() {
    decide();
    prepare();
    for (std::size_t k = 0; k < m_in.order.steps.size();) {
      const std::size_t end = madeWith(k);
      join(k, end);
      k = end;
    }
    add(WorkKind::Open, kOpen_s).opening_deg =
        degrees(displayOpening_rad(m_in.design.card, m_assembly));
    add(WorkKind::Finish, kFinish_s);
    for (WorkStep& step : m_plan.steps) {
      // Steps of the order are counted by their own numbers; the plan has others between them.
      if (step.before >= 0) step.before = m_madeBy[static_cast<std::size_t>(step.before)];
      m_plan.glue_cm2 += step.glue_cm2, m_plan.tape_mm += step.tape_mm;
    }
    m_plan.unreachable = m_in.order.unreachable;
    return std::move(m_plan);
  }

private:
  WorkStep& add(WorkKind kind, double hands_s) {
    WorkStep& step = m_plan.steps.emplace_back();
    step.kind = kind, step.hands_s = hands_s;
    return step;
  }

  void prepare() {
    add(WorkKind::Ready, kReady_s);
    std::vector<PieceIndex> scored, all;
    double scores = 0;
    std::set<PieceIndex> folding;
    for (const Fold& fold : m_assembly.folds) {
      folding.insert(m_assembly.panels[fold.left].piece);
      scores += 1;
    }
    for (PieceIndex p : m_assembly.pieces.indices()) {
      all.push_back(p);
      if (folding.contains(p)) scored.push_back(p);
    }
    const auto score = [&] {
      if (!scored.empty()) add(WorkKind::Score, kScore_s * scores).pieces = scored;
    };
    // Strips that are sliced off one sheet are scored together, so before.
    const auto sheets = piecesToCut(flatPieces(m_assembly), m_in.design);
    const bool sliced =
        std::ranges::any_of(sheets, [](const FlatPiece& sheet) { return !sheet.slices.empty(); });
    const bool cutFirst = m_ways.cutFirst && !sliced;
    if (!cutFirst) score();
    for (const FlatPiece& sheet : sheets)
      if (!sheet.slices.empty())
        add(WorkKind::Slice, kCut_s * static_cast<double>(sheet.slices.size())).pieces =
            sheet.slices;
    add(WorkKind::Cut, kCut_s * 4 * static_cast<double>(all.size())).pieces = all;
    if (cutFirst) score();
    for (std::size_t k = 0; k < m_in.design.splices.size(); ++k)
      splice(k);
    if (!scored.empty()) add(WorkKind::Fold, kFold_s * scores).pieces = scored;
    cross();
    dressAfter(-1);
    pencil();
  }

  void splice(std::size_t number) {
    const auto laid = laidSplice(m_assembly, m_in.design.splices[number]);
    if (!laid) return;
    WorkStep& step = add(WorkKind::Splice, kJoin_s);
    step.splice = number;
    step.pieces = {m_assembly.panels[laid->panel].piece};
    putGlue(step, m_ways.joints, {laid->tab});
  }

  /// What nobody sees is crossed before it is glued, and shows where not to dress.
  void cross() {
    if (m_in.seen.size() != m_in.faces.size()) return;
    std::vector<FaceIndex> hidden;
    for (FaceIndex f : m_in.faces.indices())
      if (m_in.seen[static_cast<std::size_t>(f.value)].seenAs() == SeenClass::Hidden)
        hidden.push_back(f);
    if (!hidden.empty())
      add(WorkKind::Cross, kCross_s * static_cast<double>(hidden.size())).faces = hidden;
  }

  void dressAfter(int step) {
    for (const DressMoment& moment : m_moments) {
      if (moment.after != step) continue;
      std::size_t layers = 0;
      double area = 0;
      for (const DressedFace& wears : m_in.dressed)
        if (std::ranges::count(moment.faces, wears.face) > 0)
          for (const CutLayer& layer : wears.layers) {
            layers += layer.parts.size();
            area += areaOf(layer.parts);
          }
      WorkStep& dress = add(WorkKind::Dress, kLayer_s * static_cast<double>(layers));
      dress.pieces = {moment.piece}, dress.faces = moment.faces;
      dress.adhesive = m_ways.layers, dress.before = moment.before;
      dress.glue_cm2 = area / 100;
      dress.waits_s = m_ways.pressed_s(m_ways.layers);
    }
  }

  /// Places on panels that no edge or fold shows, for what is laid on marks.
  void pencil() {
    std::vector<PencilPoint> points;
    std::set<PieceIndex> on;
    for (std::size_t k = 0; k < m_in.order.steps.size(); ++k)
      for (JointIndex j : jointsOf(m_in.order.steps[k]))
        if (const auto* glue = std::get_if<Glue>(&m_assembly.joints[j]);
            glue && m_press[k] != PressWay::ByShutting &&
            m_assembly.panels[glue->tab].piece != m_assembly.panels[glue->host].piece)
          mark(*glue, points, on);
    if (points.empty()) return;
    WorkStep& step = add(WorkKind::Pencil, kPencil_s * static_cast<double>(points.size()));
    step.points = std::move(points);
    step.pieces.assign(on.begin(), on.end());
  }

  /// Two corners of what is glued, a little inside of it and of its panel, unless borders show the
  /// place both ways; folds are borders of panels too.
  void mark(const Glue& glue, std::vector<PencilPoint>& points, std::set<PieceIndex>& on) const {
    constexpr double kInside_mm = 1, kShown_mm = 0.5;
    const Panel& host = m_assembly.panels[glue.host];
    const Box2 panel = boundsOf(host.outline);
    for (const Region& part : gluedOf(m_assembly, glue)) {
      const Box2 box = boundsOf(mapped(part, glue.tabToHost));
      const bool acrossShown =
          box.low.x() - panel.low.x() < kShown_mm || panel.high.x() - box.high.x() < kShown_mm;
      const bool upShown =
          box.low.y() - panel.low.y() < kShown_mm || panel.high.y() - box.high.y() < kShown_mm;
      if (acrossShown && upShown) continue;
      const Box2 there{box.low.cwiseMax(panel.low), box.high.cwiseMin(panel.high)};
      const Vec2 low = there.low - panel.low + Vec2::Constant(kInside_mm);
      const Vec2 far(there.high.x() - panel.low.x() - kInside_mm, low.y());
      for (const Vec2& at : {low, far})
        points.push_back({glue.host, at});
      on.insert(host.piece);
    }
  }

  void putGlue(WorkStep& step, Adhesive adhesive, std::vector<Region> where) const {
    const AdhesiveFacts& facts = factsOf(adhesive);
    step.adhesive = adhesive;
    if (facts.byLength)
      step.tape_mm += stripsOn_mm(where);
    else
      step.glue_cm2 += areaOf(where) / 100;
    step.glueOn.insert(step.glueOn.end(), where.begin(), where.end());
    step.waits_s = std::max(step.waits_s, m_ways.pressed_s(adhesive));
  }

  /// How each joint is made, before anything is planned: marks are only for what needs them.
  void decide() {
    Access access(m_in.motion, displayOpening_rad(m_in.design.card, m_assembly));
    Together together(m_assembly.pieces.size());
    for (const MakingStep& made : m_in.order.steps) {
      bool closing = true;
      for (JointIndex j : jointsOf(made)) {
        const auto [there, joins] = piecesOf(j);
        closing = closing && std::holds_alternative<Glue>(m_assembly.joints[j]) &&
                  together.joined(there, joins);
      }
      m_closing.push_back(closing);
      m_press.push_back(pressOf(made, access, closing));
      for (const JointGroup& group : made.joints)
        access.set(group, true);
      for (JointIndex j : jointsOf(made)) {
        const auto [there, joins] = piecesOf(j);
        together.join(there, joins);
      }
      m_onCard.push_back(together.joined(piecesOf(made.joints.front().front()).first,
                                         m_assembly.panels[m_assembly.root].piece));
    }
  }

  std::pair<PieceIndex, PieceIndex> piecesOf(JointIndex j) const {
    const auto panels = panelsOf(m_assembly.joints[j]);
    return {m_assembly.panels[panels[0]].piece, m_assembly.panels[panels[1]].piece};
  }

  static std::vector<JointIndex> jointsOf(const MakingStep& made) {
    std::vector<JointIndex> all;
    for (const JointGroup& group : made.joints)
      all.insert(all.end(), group.begin(), group.end());
    return all;
  }

  PressWay pressOf(const MakingStep& made, const Access& access, bool closing) const {
    std::vector<const JointGroup*> groups;
    for (const JointGroup& group : made.joints)
      groups.push_back(&group);
    if (made.byShutting) return PressWay::ByShutting;
    if (m_ways.closing == Closing::ShutOnIt && closing &&
        access.reaches(groups, Access::Press::ByShutting))
      return PressWay::ByShutting;
    return access.reaches(groups, Access::Press::Openly) ? PressWay::Openly : PressWay::ByFinger;
  }

  /// The end of the steps of the order that are made in one go from `number` on: when the card is
  /// shut on one tab of a piece it is shut on those beside it too, which need their glue before.
  std::size_t madeWith(std::size_t number) const {
    std::size_t end = number + 1;
    if (!m_closing[number] || m_press[number] != PressWay::ByShutting) return end;
    const auto tabOn = [&](JointIndex j) {
      const auto* glue = std::get_if<Glue>(&m_assembly.joints[j]);
      return glue ? std::pair(glue->host, m_assembly.panels[glue->tab].piece)
                  : std::pair(PanelIndex(), PieceIndex());
    };
    const auto first = tabOn(m_in.order.steps[number].joints.front().front());
    if (!first.first.valid() || m_assembly.panels[first.first].piece == first.second) return end;
    const auto beside = [&](JointIndex j) { return tabOn(j) == first; };
    while (end < m_in.order.steps.size() && m_closing[end] &&
           m_press[end] == PressWay::ByShutting &&
           std::ranges::all_of(jointsOf(m_in.order.steps[end]), beside))
      ++end;
    return end;
  }

  /// Makes the joints of these steps of the order.
  void join(std::size_t number, std::size_t end) {
    MakingStep made;
    for (std::size_t k = number; k < end; ++k) {
      const MakingStep& one = m_in.order.steps[k];
      made.joints.insert(made.joints.end(), one.joints.begin(), one.joints.end());
      if (one.before >= static_cast<int>(end) && (made.before < 0 || one.before < made.before))
        made.before = one.before;
    }
    const std::vector<JointIndex> joints = jointsOf(made);
    const PressWay press = m_press[number];
    std::vector<PieceIndex> pieces;
    for (JointIndex j : joints)
      for (PanelIndex panel :
           {panelsOf(m_assembly.joints[j])[1], panelsOf(m_assembly.joints[j])[0]})
        if (const PieceIndex p = m_assembly.panels[panel].piece; !std::ranges::count(pieces, p))
          pieces.push_back(p);
    // What cannot be undone is tried without glue first.
    const bool closing = m_closing[number];
    if (closing) {
      WorkStep& fit = add(WorkKind::DryFit, kFit_s);
      fit.joints = joints, fit.pieces = pieces, fit.opening_deg = 0;
      fit.onCard = m_onCard[number];
    }
    WorkStep& step = add(WorkKind::Join, kJoin_s * static_cast<double>(made.joints.size()));
    step.joints = joints, step.pieces = pieces, step.press = press, step.before = made.before;
    step.onCard = m_onCard[number];
    step.opening_deg = press == PressWay::ByShutting ? 0
                       : press == PressWay::Openly   ? 180
                                                     : shown();
    bool glued = false;
    for (JointIndex j : joints)
      if (const auto* glue = std::get_if<Glue>(&m_assembly.joints[j])) {
        glued = true;
        step.alongFold = step.alongFold || (press == PressWay::Openly && liesAlongFold(*glue));
        putGlue(step,
                glue->raised_mm > 0 ? Adhesive::Pads
                : pulled(*glue)     ? m_ways.moving
                                    : m_ways.joints,
                glueRegion(m_assembly, *glue, m_in.design.settings.foldClearance_mm));
      }
    m_madeBy.insert(m_madeBy.end(), end - number, static_cast<int>(m_plan.steps.size()) - 1);
    const double waits = step.waits_s;
    if (glued && waits >= kWorthWaiting_s) {
      WorkStep& wait = add(WorkKind::Wait, 0);
      wait.joints = joints, wait.waits_s = waits,
      wait.opening_deg = m_plan.steps.end()[-2].opening_deg;
    }
    if (!closing) measure(joints, number);
    for (std::size_t k = number; k < end; ++k)
      dressAfter(static_cast<int>(k));
  }

  /// Two corners of what is glued lie on a fold of the host.
  bool liesAlongFold(const Glue& glue) const {
    for (FoldIndex f : m_assembly.foldsOf(glue.host)) {
      const Fold& fold = m_assembly.folds[f];
      int on = 0;
      for (const Region& part : gluedOf(m_assembly, glue))
        for (const Vec2& corner : mapped(part, glue.tabToHost).rim)
          on += distanceToSegment(corner, fold.from, fold.to) < kOnFold_mm;
      if (on >= 2) return true;
    }
    return false;
  }

  /// A joint that comes later closes a ring through the piece.
  bool closesLater(PieceIndex piece, std::size_t number) const {
    for (std::size_t k = number + 1; k < m_in.order.steps.size(); ++k)
      for (JointIndex j : jointsOf(m_in.order.steps[k])) {
        const auto [there, joins] = piecesOf(j);
        if (m_closing[k] && there != joins && (there == piece || joins == piece)) return true;
      }
    return false;
  }

  /// What closes its rings is picked up by the page that is shut on it.
  bool takenUpLater(PieceIndex piece, std::size_t number) const {
    for (std::size_t k = number + 1; k < m_in.order.steps.size(); ++k)
      for (JointIndex j : jointsOf(m_in.order.steps[k])) {
        const auto [there, joins] = piecesOf(j);
        if (m_closing[k] && (there == piece || joins == piece) &&
            m_press[k] != PressWay::ByShutting)
          return false;
      }
    return true;
  }

  double shown() const { return degrees(displayOpening_rad(m_in.design.card, m_assembly)); }

  /// Its piece has a pin, a slide or a band too, which pull at it, or goes round what is pulled.
  bool pulled(const Glue& glue) const {
    const PieceIndex piece = m_assembly.panels[glue.tab].piece;
    if (std::ranges::any_of(m_assembly.pieces[piece].features, [&](const Feature& feature) {
          const Strap* strap = std::get_if<Strap>(&feature);
          return strap && slides(strap->carrier);
        }))
      return true;
    for (const Joint& joint : m_assembly.joints) {
      if (std::holds_alternative<Glue>(joint)) continue;
      for (PanelIndex panel : panelsOf(joint))
        if (m_assembly.panels[panel].piece == piece) return true;
    }
    return false;
  }

  /// A slide leads on or over the panel: what lies round it is the guide of that.
  bool slides(PanelIndex panel) const {
    return std::ranges::any_of(m_assembly.joints, [&](const Joint& joint) {
      const auto panels = panelsOf(joint);
      return std::holds_alternative<Slide>(joint) && std::ranges::count(panels, panel) > 0;
    });
  }

  /// The first side of a structure decides where all of it stands: how far its fold lies from the
  /// nearest fold of the page is measured before the second side follows.
  void measure(const std::vector<JointIndex>& joints, std::size_t number) {
    for (JointIndex j : joints) {
      const auto* glue = std::get_if<Glue>(&m_assembly.joints[j]);
      if (!glue || !closesLater(m_assembly.panels[glue->tab].piece, number)) continue;
      const auto parts = gluedOf(m_assembly, *glue);
      if (parts.empty()) continue;
      const Region there = mapped(parts.front(), glue->tabToHost);
      double nearest = std::numeric_limits<double>::infinity();
      Edge between{Vec2::Zero(), Vec2::Zero()};
      for (const Fold& fold : m_assembly.folds)
        if (fold.left == glue->host || fold.right == glue->host)
          for (const Vec2& corner : there.rim)
            if (const double far = distanceToSegment(corner, fold.from, fold.to); far < nearest)
              nearest = far, between = {nearestOn({fold.from, fold.to}, corner), corner};
      // On the fold itself there is nothing to measure.
      if (!(nearest > kOnFold_mm) || !std::isfinite(nearest)) continue;
      WorkStep& step = add(WorkKind::Measure, kMeasure_s);
      step.joints = {j}, step.number_mm = nearest;
      step.within_mm = placingRoom_mm(m_in.motion, j, (between.second - between.first).normalized(),
                                      takenUpLater(m_assembly.panels[glue->tab].piece, number));
      step.between = between;
      step.pieces = {m_assembly.panels[glue->tab].piece, m_assembly.panels[glue->host].piece};
    }
  }

  const WorkInput& m_in;
  const MakingWays& m_ways;
  const Assembly& m_assembly;
  std::vector<DressMoment> m_moments;
  std::vector<PressWay> m_press; ///< per step of the order
  std::vector<bool> m_onCard;    ///< per step of the order: of what is on the card then
  std::vector<bool> m_closing;   ///< both of its pieces hold together already
  std::vector<int> m_madeBy;     ///< per step of the order: the step of the plan that makes it
  WorkPlan m_plan;
};

} // namespace

std::string_view keyOf(WorkKind kind) {
  static constexpr std::string_view all[] = {"ready",  "score", "slice",   "cut",   "fold",
                                             "splice", "cross", "pencil",  "dress", "dry-fit",
                                             "join",   "wait",  "measure", "open",  "finish"};
  return all[static_cast<std::size_t>(kind)];
}

std::string_view keyOf(PressWay way) {
  static constexpr std::string_view all[] = {"openly", "by-finger", "by-shutting"};
  return all[static_cast<std::size_t>(way)];
}

double WorkPlan::hands_s() const {
  double sum = 0;
  for (const WorkStep& step : steps)
    sum += step.hands_s;
  return sum;
}

std::vector<Region> glueRegion(const Assembly& assembly, const Glue& glue, double clearance_mm) {
  const Iso3 toTab = inverseOf(glue.tabToHost);
  const PieceIndex tab = assembly.panels[glue.tab].piece, host = assembly.panels[glue.host].piece;
  std::vector<FoldOnTab> own, hosts;
  for (const Fold& fold : assembly.folds) {
    const PieceIndex piece = assembly.panels[fold.left].piece;
    if (piece == tab) own.push_back({{fold.from, fold.to}, beyond(fold, glue.tab)});
    if (piece == host)
      hosts.push_back({{(toTab * lift(fold.from)).head<2>(), (toTab * lift(fold.to)).head<2>()},
                       beyond(fold, glue.host)});
  }
  std::vector<Region> bands;
  const auto keepClear = [&](const std::vector<FoldOnTab>& folds,
                             const std::vector<FoldOnTab>& others) {
    for (const FoldOnTab& fold : folds)
      if (std::ranges::none_of(
              others, [&](const FoldOnTab& other) { return turnTogether(assembly, fold, other); }))
        bands.push_back(bandAlong(fold.line.first, fold.line.second, clearance_mm));
  };
  keepClear(own, hosts);
  keepClear(hosts, own);
  std::vector<Region> left;
  for (const Region& part : gluedOf(assembly, glue))
    for (Region& rest : without(part, bands))
      if (area_mm2(rest) > kSpeck_mm2) left.push_back(std::move(rest));
  return left;
}

WorkPlan workPlan(const WorkInput& input, const MakingWays& ways) {
  return Planning(input, ways).run();
}

} // namespace hinge
