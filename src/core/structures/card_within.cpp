// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assembly/merge.h"
#include "core/base/last_few.h"
#include "core/motion/motion.h"
#include "core/structures/assemble.h"
#include "core/structures/common.h"
#include "core/structures/silhouettes.h"
#include "core/structures/table_ways.h"
#include "core/units/lattice.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <mutex>

// A card on a card: a finished design of its own. On a face it lies as a whole, glued by the page
// that it rests on, and a hand opens it; astride a fold both its pages are glued down, so that the
// fold below opens it.

namespace hinge {
namespace {

constexpr double kLeastOpening_rad = radians(1); ///< to which a band opens a card

constexpr ParameterSpec kOnFaceTable[] = {
    {"position",
     {"size.card-on-face.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     40,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"up",
     {"size.card-on-face.up"},
     ParameterUnit::Millimetre,
     -500,
     1000,
     10,
     ParameterRole::Gives,
     ""},
    {"turn",
     {"size.figure.turn"},
     ParameterUnit::Degree,
     -180,
     180,
     0,
     ParameterRole::Gives,
     "",
     Sense::Turn},
    {"opened",
     {"size.card-on-face.opened"},
     ParameterUnit::Degree,
     0,
     180,
     0,
     ParameterRole::Held,
     ""},
    {"to", {"size.card-on-face.to"}, ParameterUnit::Degree, 0, 180, 90, ParameterRole::Held, ""},
    {"moved", {"size.card-on-face.moved"}, ParameterUnit::Switch, 0, 1, 0, ParameterRole::Held, ""},
};

constexpr ParameterSpec kOnFoldTable[] = {
    {"position",
     {"size.card-on-fold.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     60,
     ParameterRole::Gives,
     "",
     Sense::Place},
};

/// A small card made up by itself. Its motion is traced when it is first asked for.
class Worked {
public:
  explicit Worked(Assembly assembly)
      : m_assembly(std::make_shared<const Assembly>(std::move(assembly))) {}
  const Assembly& assembly() const { return *m_assembly; }
  const Motion& motion() const {
    std::call_once(m_once, [&] { m_motion.emplace(Motion::trace(m_assembly)); });
    return *m_motion;
  }

private:
  std::shared_ptr<const Assembly> m_assembly;
  mutable std::once_flag m_once;
  mutable std::optional<Motion> m_motion;
};

/// The last few that were made up: a design with a card on it is assembled again with every change
/// of anything else.
Result<std::shared_ptr<const Worked>> workedOf(const CardWithin& card) {
  static LastFew<std::shared_ptr<const Design>, std::shared_ptr<const Worked>> known;
  if (auto worked = known.find(card.design)) return *worked;
  auto assembled = assembleDesign(*card.design);
  if (!assembled) return assembled.error();
  auto worked = std::make_shared<const Worked>(std::move(assembled).value());
  known.keep(card.design, worked);
  return std::shared_ptr<const Worked>(worked);
}

/// Where its panels are at an opening of its own; nothing where it cannot be.
std::optional<Pose> poseOf(const Worked& worked, double opening_rad) {
  const Motion& motion = worked.motion();
  if (!motion.impossible().empty()) return std::nullopt;
  Pose pose = opening_rad == 0 ? motion.shutPose() : motion.poseAt(opening_rad);
  if (pose.residual_mm > motion::kShown_mm ||
      std::ranges::any_of(pose.placed, [](char placed) { return placed == 0; }))
    return std::nullopt;
  return pose;
}

/// The fold angle between two panels where they are.
double angleOf(const Fold& fold, const Iso3& left, const Iso3& right) {
  const Vec3 axis = lift((fold.to - fold.from).normalized()), side = axis.unitOrthogonal(),
             turned = (inverseOf(left) * right).linear() * side;
  return -std::atan2(axis.dot(side.cross(turned)), side.dot(turned));
}

/// Puts the small card on a face as it lies there, and says how a hand opens it.
class OnFace {
public:
  OnFace(const RecipeInput& in, AssemblyBuilder& builder, std::shared_ptr<const Worked> worked)
      : m_in(in), m_builder(builder), m_worked(std::move(worked)),
        m_rest(radians(in.value("opened"))), m_to(radians(in.value("to"))) {}

  Result<void> run() {
    const auto pose = poseOf(*m_worked, m_rest);
    if (!pose || !poseOf(*m_worked, m_to))
      return Error{{"card-within.opening", Degrees{degrees(pose ? m_to : m_rest)}},
                   m_in.item.id.text()};
    const Assembly& own = m_worked->assembly();
    const Seat* lies = own.findSeat(own.panels[own.root].key);
    if (!lies) return Error{"card-within.base", m_in.item.id.text()};
    const bool byBand = m_in.value("moved") != 0;
    if (byBand && m_to < kLeastOpening_rad)
      return Error{{"card-within.opening", Degrees{degrees(m_to)}}, m_in.item.id.text()};
    m_taken = takeIn(m_builder.assembly(), own, m_in.item.id, m_in.name(), byBand);
    if (!byBand) keepStill(*pose);
    const FootOnFace at(m_in.values);
    const Iso3 middle = planarFrame({0.5 * lies->length_mm, 0}, Vec2::UnitX(), Vec2::UnitY());
    const SeatSide& face = m_in.seat.sides[0];
    m_builder.glue(m_taken.panel(own.root), face.panel,
                   face.toPiece * at.frame() * inverseOf(lies->sides[0].toPiece * middle), false);
    if (byBand) {
      if (!withTheCard()) return Error{"card-within.host", m_in.item.id.text()};
    } else if (m_to != m_rest) {
      byHand();
    }
    m_builder.dimensionOn(face, "position", {0, at.foot.y()}, at.foot);
    m_builder.dimensionOn(face, "up", {at.foot.x(), 0}, at.foot);
    return m_builder.status();
  }

private:
  void keepStill(const Pose& pose) {
    const Assembly& own = m_worked->assembly();
    Assembly& all = m_builder.assembly();
    for (FoldIndex f : own.folds.indices()) {
      const Fold& fold = own.folds[f];
      Fold& taken = all.folds[m_taken.fold(f)];
      taken.rest_rad = m_rest == 0 ? m_worked->motion().shutAngle(f)
                                   : angleOf(fold, pose.panels[fold.left], pose.panels[fold.right]);
      taken.shutKnown = true, taken.shutAngle_rad = *taken.rest_rad, taken.hangs = false;
    }
    const Iso3 home = inverseOf(pose.panels[own.root]);
    for (PanelIndex p : own.panels.indices())
      if (p != own.root)
        all.carried.push_back({m_taken.panel(p), m_taken.panel(own.root), home * pose.panels[p]});
  }

  /// A band or a pull opens it as the card opens: its drives follow that. False where the face does
  /// not go with a page of the base, whose motion alone is known beforehand.
  bool withTheCard() {
    const double slower = kPi / m_to;
    for (Drive drive : m_worked->assembly().drives) {
      const double open = drive.angle_rad(m_to);
      drive.fold = m_taken.fold(drive.fold);
      drive.from_rad *= slower, drive.to_rad *= slower;
      if (drive.from_rad >= kPi) continue; // not as far as it is opened
      if (drive.to_rad > kPi) drive.open_rad = open, drive.to_rad = kPi;
      m_builder.assembly().drives.push_back(drive);
    }
    const PanelIndex root = m_taken.panel(m_worked->assembly().root);
    return std::ranges::any_of(m_builder.assembly().basePoses(0.5 * kPi),
                               [&](const auto& placed) { return placed.first == root; });
  }

  void byHand() {
    const Assembly& own = m_worked->assembly();
    const auto& bodies = m_worked->motion().mechanism().bodyOf;
    Lift lift{m_taken.fold(own.drives.front().fold), {}, kPi - m_rest, kPi - m_to, {}};
    std::vector<PanelIndex> moving;
    for (PanelIndex p : own.panels.indices())
      if (bodies[p] != bodies[own.root])
        moving.push_back(p), lift.panels.push_back(m_taken.panel(p));
    lift.stays = m_taken.panel(own.root);
    lift.poses = [worked = m_worked, moving, rest = m_rest, to = m_to](double share) {
      std::vector<Iso3> poses;
      const auto pose = poseOf(*worked, rest + (to - rest) * share);
      if (!pose) return poses;
      const Iso3 home = inverseOf(pose->panels[worked->assembly().root]);
      for (PanelIndex p : moving)
        poses.push_back(home * pose->panels[p]);
      return poses;
    };
    m_builder.assembly().lifts.push_back(std::move(lift));
  }

  const RecipeInput& m_in;
  AssemblyBuilder& m_builder;
  std::shared_ptr<const Worked> m_worked;
  double m_rest, m_to;
  Taken m_taken;
};

Result<void> buildOnFace(const RecipeInput& in, AssemblyBuilder& builder) {
  const auto worked = workedOf(*in.item.card);
  if (!worked) return Error{{"card-within.made", worked.error().message}, in.item.id.text()};
  if ((*worked)->assembly().drives.empty()) return Error{"card-within.base", in.item.id.text()};
  return OnFace(in, builder, *worked).run();
}

Result<void> buildOnFold(const RecipeInput& in, AssemblyBuilder& builder) {
  const auto worked = workedOf(*in.item.card);
  if (!worked) return Error{{"card-within.made", worked.error().message}, in.item.id.text()};
  const Assembly& own = (*worked)->assembly();
  const Seat* gutter = own.findSeat("gutter");
  if (own.drives.size() != 1 || !gutter) return Error{"card-within.base", in.item.id.text()};
  const Taken taken = takeIn(builder.assembly(), own, in.item.id, in.name(), true);
  const double start = in.value("position") - 0.5 * gutter->length_mm;
  for (std::size_t k : {0u, 1u}) {
    const SeatSide &there = in.seat.sides[k], &page = gutter->sides[k];
    builder.glue(taken.panel(page.panel), there.panel,
                 there.toPiece * planarFrame({0, start}, Vec2::UnitX(), Vec2::UnitY()) *
                     inverseOf(page.toPiece),
                 false);
  }
  builder.dimensionOn(in.seat.sides[1], "position", {0, 0}, {0, in.value("position")});
  return builder.status();
}

std::vector<MendDirection> mendsOnFace() {
  return {{{{"position", 1}}}, {{{"up", 1}}}, {{{"turn", 1}}}};
}
std::vector<MendDirection> mendsOnFold() {
  return {{{{"position", 1}}}};
}

ParameterValues fitOnFace(const Seat& seat, const Assembly& assembly, const Settings&) {
  ParameterValues v = startingValues(kOnFaceTable);
  v["position"] = 0.5 * seat.length_mm;
  v["up"] = downToLattice(0.1 * seatDepth_mm(seat, 0, assembly));
  return v;
}
ParameterValues fitOnFold(const Seat& seat, const Assembly&, const Settings&) {
  ParameterValues v = startingValues(kOnFoldTable);
  v["position"] = 0.5 * seat.length_mm;
  return v;
}

Sketch sketch(bool onFold) {
  using L = Sketch::Line;
  const Vec2 g(0.5, 0.2), a(0.12, 0.44), b(0.88, 0.44), A(0.05, 0.25), B(0.95, 0.25);
  Sketch s;
  if (onFold)
    s.lines = {{g, {0.02, 0.50}, L::Use::Page}, {g, {0.98, 0.50}, L::Use::Page}};
  else
    s.lines = {{A - Vec2(0, 0.09), B - Vec2(0, 0.09), L::Use::Page}};
  const Vec2 up(0, 0.03);
  s.lines.push_back({g + up, a + up, L::Use::Paper});
  s.lines.push_back({g + up, b + up, L::Use::Paper});
  s.lines.push_back({{0.32, 0.345}, {0.5, 0.62}, L::Use::Paper});
  s.lines.push_back({{0.5, 0.62}, {0.68, 0.345}, L::Use::Paper});
  s.dimensions = {{"position", {0.05, 0.1}, {0.5, 0.1}, std::nullopt}};
  return s;
}

/// As of values in a table, but that there is a finished design with them.
class CardWays : public TableWays {
public:
  bool carriesCard() const override { return true; }
  bool ringsDecide() const override { return true; }
  bool canDraft(const DraftPlace&) const override { return false; }
  Result<void> settle(StructureItem& item, std::string_view place) const override {
    if (!item.card || !item.card->design) return Error{"card-within.missing", std::string(place)};
    if (depthOf(*item.card->design) > kDeepest)
      return Error{{"card-within.deep", kDeepest}, std::string(place)};
    return TableWays::settle(item, place);
  }
  Result<Draft> draft(const DraftPlace& place,
                      const std::function<bool(const Draft&)>&) const override {
    return Error{"card-within.missing", place.seat.key};
  }

private:
  static constexpr int kDeepest = 3;
  /// How many cards lie in one another.
  static int depthOf(const Design& design) {
    int most = 0;
    for (const StructureItem& item : design.structures)
      if (item.card) most = std::max(most, depthOf(*item.card->design));
    return 1 + most;
  }
};

const StructureWays& cardWays() {
  static const CardWays ways;
  return ways;
}

} // namespace

const StructureKind& cardOnFaceKind() {
  static const StructureKind kind{
      "card-on-face", kOnFaceTable, kOnFaces,  noClosures,
      mendsOnFace,    buildOnFace,  fitOnFace, [] { return sketch(false); },
      &cardWays()};
  return kind;
}

const StructureKind& cardOnFoldKind() {
  static const StructureKind kind{
      "card-on-fold", kOnFoldTable, kInValleys, noClosures,
      mendsOnFold,    buildOnFold,  fitOnFold,  [] { return sketch(true); },
      &cardWays()};
  return kind;
}

} // namespace hinge
