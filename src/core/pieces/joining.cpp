// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/joining.h"
#include "core/pieces/placing.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace hinge {
namespace {

constexpr double kSlotRoom_mm = 0.1; ///< a slot is this much wider than the paper
/// Both slits of a slot together are longer by twice this than they must be.
constexpr double kSlitOver_mm = 0.5;

Vec3 direction(double deg) {
  return {std::cos(radians(deg)), std::sin(radians(deg)), 0};
}
/// The side of the piece that looks away from the face.
double up(bool byFace) {
  return byFace ? -1.0 : 1.0;
}

/// One joint, made kind by kind.
class Joining {
public:
  Joining(AssemblyBuilder& builder, const PieceJoint& joint, std::size_t number, PanelIndex own,
          const SeatSide& side, const JoinedHow& how)
      : m_builder(builder), m_thickness_mm(how.thickness_mm),
        m_faceThickness_mm(how.faceThickness_mm ? how.faceThickness_mm(joint.on)
                                                : how.thickness_mm),
        m_joint(joint), m_own(own), m_side(side), m_to(joint.to + how.moved(side)),
        m_role(fmt::format("{}-{}", jointKey(joint.kind), number)) {}

  void operator()(const given::Glue& glue) {
    const Vec3 z(0, 0, 1), x = direction(glue.turn_deg);
    const Iso3 lies = onFace(x, up(glue.byFace) * z.cross(x), up(glue.byFace) * z);
    // Its corners may be told in either direction.
    Polygon area = glue.area;
    if (signedArea_mm2(area) < 0) std::ranges::reverse(area);
    m_builder.glue(m_own, m_side.panel, lies * Eigen::Translation3d(-lift(m_joint.at)), glue.byFace,
                   std::move(area));
  }

  void operator()(const given::Slot& given) {
    const Vec3 z(0, 0, 1), x = direction(given.turn_deg), way = direction(given.way_deg);
    // Each slit is as wide as what stands in it: the other's paper.
    const double ownWidth = m_faceThickness_mm + kSlotRoom_mm,
                 faceWidth = m_thickness_mm + kSlotRoom_mm;
    const auto length = [](double mm) { return mm > 0 ? std::optional(mm) : std::nullopt; };
    const Vec2 along = way.head<2>();
    const Vec2 ownEnd = m_builder.slit(m_own, m_joint.at + kSlitOver_mm * along, -along, ownWidth,
                                       length(given.slit_mm), given.catch_mm);
    const Vec2 inner = (m_side.toPiece * Vec3(lift(m_to) - kSlitOver_mm * x)).head<2>();
    const Vec2 out = (m_side.toPiece.linear() * x).head<2>();
    const Vec2 faceEnd =
        m_builder.slit(m_side.panel, inner, out, faceWidth, length(given.faceSlit_mm));
    Slot slot;
    slot.first = m_side.panel, slot.second = m_own;
    slot.onFirst = onFace(x.cross(z), x, z);
    slot.onSecond = frame(lift(m_joint.at), way.cross(z), way, z);
    // Along the common line: how far the face's slit begins above the end of the piece's.
    const Vec2 there = (m_side.toPiece * lift(m_to)).head<2>();
    slot.slitShort_mm = out.dot(faceEnd - there) - along.dot(ownEnd - m_joint.at);
    m_builder.join(m_role, std::move(slot));
  }

  void operator()(const given::Pivot& given) {
    const Vec3 z(0, 0, 1), x = direction(given.turn_deg), away = up(given.byFace) * z;
    Pivot pivot;
    pivot.first = m_side.panel, pivot.second = m_own;
    pivot.onFirst = onFace(x, z, x.cross(z));
    pivot.onSecond =
        frame(lift(m_joint.at), Vec3::UnitX(), away, up(given.byFace) * Vec3::UnitX().cross(z));
    if (given.handFrom_deg != given.handTo_deg)
      pivot.byHand = {radians(given.handFrom_deg), radians(given.handTo_deg)};
    pivot.handStep = radians(given.handStep_deg), pivot.over = static_cast<int>(given.over);
    m_builder.join(m_role, std::move(pivot));
  }

  void operator()(const given::Slide& given) {
    const Vec3 z(0, 0, 1), x = direction(given.turn_deg), way = direction(given.way_deg);
    const Vec3 away = up(given.byFace) * z;
    Slide slide;
    slide.first = m_side.panel, slide.second = m_own;
    slide.onFirst = onFace(x.cross(z), x, z);
    slide.onSecond = frame(lift(m_joint.at), way.cross(away), way, away);
    slide.least_mm = given.least_mm, slide.most_mm = given.most_mm;
    if (given.pullTo_deg > given.pullFrom_deg)
      slide.pull = Pull{given.pull_mm, radians(given.pullFrom_deg), radians(given.pullTo_deg)};
    if (given.handFrom_mm != given.handTo_mm) slide.byHand = {given.handFrom_mm, given.handTo_mm};
    slide.handStep = given.handStep_mm, slide.over = static_cast<int>(given.over);
    m_builder.join(m_role, std::move(slide));
  }

  void operator()(const given::Band& band) { tie(Band(), band.length_mm); }
  void operator()(const given::Film& film) { tie(Film(), film.length_mm); }

private:
  /// A frame at the joint's point of the face, in the piece of that.
  Iso3 onFace(const Vec3& u, const Vec3& v, const Vec3& w) const {
    return m_side.toPiece * frame(lift(m_to), u, v, w);
  }

  template <class Made> void tie(Made made, double length_mm) {
    made.panels = {m_side.panel, m_own};
    made.at = {Vec2((m_side.toPiece * lift(m_to)).head<2>()), m_joint.at};
    made.length_mm = length_mm;
    m_builder.join(m_role, std::move(made));
  }

  AssemblyBuilder& m_builder;
  double m_thickness_mm, m_faceThickness_mm;
  const PieceJoint& m_joint;
  PanelIndex m_own;
  SeatSide m_side;
  Vec2 m_to;
  std::string m_role;
};

Result<void> join(AssemblyBuilder& builder, const PieceJoint& joint, std::size_t number,
                  PanelIndex own, const JoinedHow& how) {
  if (const auto* glue = std::get_if<given::Glue>(&joint.kind); glue && !glue->area.empty()) {
    Polygon area = glue->area;
    if (signedArea_mm2(area) < 0) std::ranges::reverse(area);
    if (common(builder.assembly().panels[own].outline, area).empty())
      return Error{"joint.glue-beside", how.place};
  }
  const Seat* face = builder.assembly().findSeat(joint.on);
  std::visit(Joining(builder, joint, number, own, face->sides[0], how), joint.kind);
  return {};
}

} // namespace

Result<void> joinPiece(AssemblyBuilder& builder, const PieceWork& work, const WorkedPiece& made,
                       const JoinedHow& how) {
  std::vector<PieceJoint> placed;
  for (std::size_t k = 0; k < work.joints.size(); ++k) {
    const PieceJoint& given = work.joints[k];
    const Seat* face = builder.assembly().findSeat(given.on);
    if (!face || face->kind() != SeatKind::Face)
      return Error{{"joint.no-face", given.on}, how.place};
    const PanelIndex own = made.panelAt(given.at);
    const Assembly& assembly = builder.assembly();
    const Panel& panel = assembly.panels[own];
    auto lies = placedByRules(given, {assembly, work, panel.outline.rim, panel.label, placed});
    // An edge that is gone takes its rule with it; the paper stays where it was.
    placed.push_back(lies ? std::move(lies).value() : given);
    if (!given.rules.empty())
      builder.placedByRule({builder.owner(), how.sheet, k, own, face->sides[0].panel, placed.back(),
                            lies ? std::nullopt : std::optional(lies.error())});
    if (auto joined = join(builder, placed.back(), k + 1, own, how); !joined) return joined;
  }
  return {};
}

} // namespace hinge
