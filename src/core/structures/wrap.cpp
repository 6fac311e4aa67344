#include "core/structures/wrap.h"
#include "core/motion/mechanism.h"
#include "core/paper/starting_values.h"
#include "core/structures/assemble.h"
#include "core/structures/common.h"
#include "core/structures/piece.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kFlat_mm = 1e-6;

/// A panel's outline in the frame of another of its body; nothing when they do not lie in one
/// plane.
std::optional<Region> layerOn(const Assembly& assembly, PanelIndex panel, const Iso3& toThere) {
  if (std::abs(std::abs(toThere.linear()(2, 2)) - 1) > kFlat_mm ||
      std::abs(toThere.translation().z()) > kFlat_mm)
    return std::nullopt;
  return mapped(assembly.panels[panel].outline, toThere);
}

/// The part of a region in a frame (x along the strap, y across it) that the strap covers.
Box2 inBand(const Region& region, const Iso3& toStrap, double low, double high) {
  Box2 box;
  for (const Polygon& part : convexParts(mapped(region, toStrap)))
    for (const Vec2& p :
         clipToHalfPlane(clipToHalfPlane(part, {0, low}, {0, 1}), {0, high}, {0, -1}))
      box.add(p);
  return box;
}

/// What a strap at `toStrap` (from the carrier's piece) between two heights goes round: all that is
/// glued flat to the carrier or slides on it, without the strap itself.
struct Inside {
  Box2 extent;
  int layers = 0;
};
Inside insideOf(const Assembly& assembly, const Mechanism& bodies, PanelIndex carrier,
                std::optional<PieceIndex> strap, const Iso3& toStrap, double low, double high) {
  Inside inside;
  const auto count = [&](PanelIndex p, const Iso3& toCarrier) {
    if (strap && assembly.panels[p].piece == *strap) return;
    const auto layer = layerOn(assembly, p, toCarrier);
    const Box2 part = layer ? inBand(*layer, toStrap, low, high) : Box2();
    if (part.empty() || part.size().x() < 0.5) return;
    inside.extent.add(part), ++inside.layers;
  };
  const BodyIndex body = bodies.bodyOf[carrier];
  const Iso3 home = bodies.inBody[carrier].inverse();
  for (PanelIndex p : bodies.bodies[body].panels)
    count(p, home * bodies.inBody[p]);
  for (const Hinge& h : assembly.hinges)
    if (h.kind == HingeKind::Slide && bodies.bodyOf[h.first] == body &&
        bodies.bodyOf[h.second] != body) {
      const Iso3 rider =
          home * bodies.inBody[h.first] * secondInFirst(h, 0.5 * (h.least_mm + h.most_mm));
      for (PanelIndex p : bodies.bodies[bodies.bodyOf[h.second]].panels)
        count(p, rider * bodies.inBody[h.second].inverse() * bodies.inBody[p]);
    }
  return inside;
}

/// From the strap's piece into that of its carrier.
std::optional<Iso3> strapOnCarrier(const Assembly& assembly, const Strap& strap) {
  for (const Glue& g : assembly.glues)
    if (g.tab == strap.panel && g.host == strap.carrier) return g.tabToHost;
  for (const Hinge& h : assembly.hinges)
    if (h.kind == HingeKind::Slide && h.second == strap.panel && h.first == strap.carrier)
      return secondInFirst(h, 0);
  return std::nullopt;
}

/// A strap and what it goes round; nothing when nothing lies there.
std::optional<Wrap> wrapOf(const Assembly& assembly, const Mechanism& bodies, const Strap& strap,
                           const Iso3& toCarrier) {
  const PieceIndex piece = assembly.panels[strap.panel].piece;
  const Fold &a = assembly.folds[strap.folds[0]], &b = assembly.folds[strap.folds[1]];
  const Vec2 u = (a.to - a.from).normalized();
  Vec2 across(u.y(), -u.x());
  if (across.dot(b.from - a.from) < 0) across = -across;
  const double inside = across.dot(b.from - a.from);
  // x runs from the first fold to the second, y along them.
  const Vec2 along(-across.y(), across.x());
  const Iso3 frame = planarFrame(a.from, across, along);
  const double one = 0, two = along.dot(a.to - a.from);
  const Inside found =
      insideOf(assembly, bodies, strap.carrier, piece, frame.inverse() * toCarrier.inverse(),
               std::min(one, two), std::max(one, two));
  if (found.layers == 0) return std::nullopt;
  Wrap wrap{piece, strap.carrier, strap.panel, found.layers, found.extent.size().x(), inside, 0};
  // Folds that do not lie evenly on both sides leave less than they seem to.
  const double off = std::abs(0.5 * inside - found.extent.centre().x());
  wrap.inside_mm -= 2 * std::max(0.0, off - kFlat_mm);
  return wrap;
}

} // namespace

bool isGluedToItself(const Assembly& assembly, PieceIndex piece) {
  return std::ranges::any_of(assembly.glues, [&](const Glue& g) {
    return assembly.panels[g.tab].piece == piece && assembly.panels[g.host].piece == piece;
  });
}

double wrapWidth_mm(double width_mm, int layers, double thickness_mm) {
  return width_mm + 2 * starting::kSlidePlay_mm + 0.5 * kPi * (layers + 1) * thickness_mm;
}

std::vector<Wrap> wrapsOf(const Assembly& assembly, double thickness_mm) {
  std::vector<Wrap> all;
  const Mechanism bodies = Mechanism::from(assembly);
  for (PieceIndex piece : assembly.pieces.indices())
    for (const Feature& feature : assembly.pieces[piece].features) {
      const Strap* strap = std::get_if<Strap>(&feature);
      const auto toCarrier = strap ? strapOnCarrier(assembly, *strap) : std::nullopt;
      if (!toCarrier) continue;
      if (auto wrap = wrapOf(assembly, bodies, *strap, *toCarrier)) {
        wrap->needed_mm = wrapWidth_mm(wrap->width_mm, wrap->layers, thickness_mm);
        all.push_back(*wrap);
      }
    }
  return all;
}

Result<PieceWork> wrappedRound(const Design& design, StructureId id, double overlap_mm) {
  const StructureItem* item = design.find(id);
  if (!item || !item->work)
    return Error{"structure.missing", "there is no free piece to wrap", id.text()};
  const auto assembled = assembleDesign(design);
  if (!assembled) return assembled.error();
  const PieceWork& old = *item->work;
  const auto lies = std::ranges::find_if(old.joints, [](const WorkJoint& j) {
    return j.kind == WorkJoint::Kind::Glue || j.kind == WorkJoint::Kind::Slide;
  });
  const Seat* face = lies == old.joints.end() ? nullptr : assembled->findSeat(lies->on);
  if (!face || assembled->panels[face->sides[0].panel].owner == id)
    return Error{"wrap.lies-on-nothing",
                 "a strap must be glued to, or slide on, the panel that it goes round", id.text()};
  const PanelIndex carrier = face->sides[0].panel;
  const SeatSide side = face->sides[0];
  const double height = boundsOf(old.outline).size().y(),
               low = lies->at.y() - boundsOf(old.outline).low.y();
  // The strap's frame on the face: x the way it runs, the joint's point at height `low` of it. A
  // slide says which way of the piece runs along its line.
  const double turn = lies->kind == WorkJoint::Kind::Slide
                          ? lies->turn_deg - (lies->byFace ? -1 : 1) * lies->way_deg
                          : lies->turn_deg;
  const double up = lies->byFace ? -1 : 1;
  const Vec2 x(std::cos(radians(turn)), std::sin(radians(turn))), y = up * Vec2(-x.y(), x.x());
  Iso3 onFace = Iso3::Identity();
  onFace.linear().col(0) = lift(x), onFace.linear().col(1) = lift(y),
  onFace.linear().col(2) = lift(x).cross(lift(y));
  onFace.translation() = lift(Vec2(lies->to - low * y));
  std::optional<PieceIndex> own;
  for (PieceIndex p : assembled->pieces.indices())
    if (assembled->pieces[p].owner == id) own = p;
  const Iso3 strap = side.toPiece * onFace;
  const Inside inside =
      insideOf(*assembled, Mechanism::from(*assembled), carrier, own, strap.inverse(), 0, height);
  if (inside.layers == 0)
    return Error{"wrap.off-panel", "the panel it lies on is not where the strap is", id.text()};
  if (inside.extent.size().x() < 2 * overlap_mm)
    return Error{"wrap.narrow", "what the strap goes round is narrower than twice its overlap",
                 id.text()};
  const double width =
      wrapWidth_mm(inside.extent.size().x(), inside.layers, design.stock.thickness_mm);
  PieceWork made = plainStrip(overlap_mm + 2 * width, height);
  const WorkLine::Kind kind = lies->byFace ? WorkLine::Kind::Valley : WorkLine::Kind::Mountain;
  for (double at : {overlap_mm, overlap_mm + width})
    made.lines.push_back({kind, {at, 0}, {at, height}});
  WorkJoint joint = *lies;
  const double middle = overlap_mm + 0.5 * width;
  joint.at = {middle, low};
  joint.to = (onFace * Vec3(inside.extent.centre().x(), low, 0)).head<2>();
  made.joints.push_back(joint);
  // What is left open of it, as the first two panels give it: the overlap goes inside the third.
  const auto open = setWork(design, id, made);
  if (!open) return open.error();
  const auto again = assembleDesign(*open);
  if (!again) return again.error();
  const auto close = glueJoint(*again, again->findPanel(id.text() + "/panel-3"),
                               Iso3(Eigen::Translation3d(2 * width, 0, 0)), !lies->byFace,
                               {0.5 * overlap_mm, 0.5 * height});
  if (!close) return Error{"wrap.no-face", "the strap has no panel to be closed on", id.text()};
  made.joints.push_back(*close);
  // Other joints of the strap sit on its outside as they did, on the panel that lies on the
  // carrier.
  for (const WorkJoint& other : old.joints)
    if (&other != &*lies && ownerOfKey(other.on) != id) { // how it was closed before is past
      made.joints.push_back(other);
      made.joints.back().at = joint.at + (other.at - lies->at);
    }
  return made;
}

} // namespace hinge
