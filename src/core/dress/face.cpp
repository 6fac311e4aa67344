// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/dress/face.h"
#include "core/geom/congruent.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

Region asSeen(const Face& face, const Region& onPiece) {
  return mapped(onPiece, inverseOf(face.toPiece));
}

/// The fold on which what is glued down goes on into the open.
std::optional<Edge> standsOn(const Assembly& assembly, const Glue& glue) {
  for (FoldIndex f : assembly.foldsOf(glue.tab)) {
    const Fold& fold = assembly.folds[f];
    const PanelIndex other = fold.left == glue.tab ? fold.right : fold.left;
    const Glue* also = assembly.glueOf(other);
    if (!also || also->host != glue.host) return Edge{fold.from, fold.to};
  }
  return std::nullopt;
}

/// A tab is no deeper than this beyond its fold; what is glued down and deeper is a panel like
/// others, with a side that is looked at.
constexpr double kDeepestTab_mm = 25;

bool isMereTab(const Assembly& assembly, PanelIndex index) {
  const Panel& panel = assembly.panels[index];
  if (panel.use != PanelUse::Tab) return false;
  double deepest_mm = 0;
  for (FoldIndex f : assembly.foldsOf(index)) {
    const Fold& fold = assembly.folds[f];
    const Vec2 along = (fold.to - fold.from).normalized();
    for (const Vec2& corner : panel.outline.rim)
      deepest_mm = std::max(deepest_mm, std::abs(cross2(along, Vec2(corner - fold.from))));
  }
  return deepest_mm <= kDeepestTab_mm;
}

} // namespace

KeyedVector<FaceIndex, Face> facesOf(const Assembly& assembly) {
  KeyedVector<FaceIndex, Face> faces;
  for (SeatIndex s : assembly.seats.indices()) {
    const Seat& seat = assembly.seats[s];
    if (seat.kind() != SeatKind::Face) continue;
    const SeatSide& side = seat.sides[0];
    const Panel& panel = assembly.panels[side.panel];
    const auto piece = static_cast<std::size_t>(panel.piece.value);
    if (isMereTab(assembly, side.panel)) continue;
    if (piece < assembly.readyMade.size() && assembly.readyMade[piece]) continue;
    Face face{seat.key, s, side.panel, side.toPiece.linear()(2, 2) < 0, side.toPiece, {}};
    face.outline = asSeen(face, panel.outline);
    faces.push(std::move(face));
  }
  return faces;
}

std::vector<GluedOn> gluedOnto(const Assembly& assembly, const Face& face) {
  std::vector<GluedOn> all;
  for (const auto& [index, glue] : assembly.every<Glue>()) {
    if (glue.host != face.panel || glue.onHostFace() == face.back) continue;
    if (assembly.panels[glue.tab].use == PanelUse::Topper) continue; // it goes on top of all
    const Iso3 toFace = inverseOf(face.toPiece) * glue.tabToHost;
    GluedOn on{glue.tab, {}, {}};
    for (const Region& part : gluedOf(assembly, glue))
      on.area.push_back(mapped(part, toFace));
    if (const auto line = standsOn(assembly, glue))
      on.stands =
          Edge{(toFace * lift(line->first)).head<2>(), (toFace * lift(line->second)).head<2>()};
    all.push_back(std::move(on));
  }
  return all;
}

std::vector<Region> gluedAway(const Assembly& assembly, const Face& face) {
  std::vector<Region> away;
  for (const auto& [index, glue] : assembly.every<Glue>())
    if (glue.tab == face.panel && glue.byFace != face.back)
      for (const Region& part : gluedOf(assembly, glue))
        away.push_back(asSeen(face, part));
  return away;
}

std::vector<FaceIndex> reachedBy(const DressRule& rule, const Assembly& assembly,
                                 const KeyedVector<FaceIndex, Face>& faces,
                                 const std::vector<SeenClass>& seen) {
  const FaceIndex named = faces.find(rule.face);
  std::vector<FaceIndex> reached;
  if (namesFace(rule.reach) && !named.valid()) return reached;
  const auto isMeant = [&](FaceIndex f) {
    const Face& face = faces[f];
    const auto seenAs = seen.empty() ? SeenClass::Hidden : seen[static_cast<std::size_t>(f.value)];
    switch (rule.reach) {
    case DressReach::All: return true;
    case DressReach::Seen: return seenAs != SeenClass::Hidden;
    case DressReach::Displayed: return seenAs == SeenClass::Display;
    case DressReach::Face: return f == named;
    case DressReach::Twins: return f == named || face.key == assembly.otherSideOf(rule.face);
    case DressReach::Alike:
      return f == named || !congruences(faces[named].outline, face.outline, 0.05, 1).empty();
    case DressReach::Part: {
      const Panel &one = assembly.panels[faces[named].panel], &other = assembly.panels[face.panel];
      return one.owner == other.owner && one.use == other.use && faces[named].back == face.back;
    }
    }
    return false;
  };
  for (FaceIndex f : faces.indices())
    if (isMeant(f)) reached.push_back(f);
  return reached;
}

} // namespace hinge
