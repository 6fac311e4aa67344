// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/sheet.h"
#include "core/bases/base.h"
#include "core/edits/renaming.h"
#include "core/edits/settling.h"
#include "core/motion/motion.h"
#include "core/states/shut_state.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"
#include "core/structures/toppers.h"
#include "core/units/lattice.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <charconv>
#include <cmath>

namespace hinge {
namespace {

constexpr std::string_view kCard = "card";
constexpr double kUnionOff_mm = 1e-5;

} // namespace

Result<SheetTarget> sheetTarget(const Design& design, std::string_view text) {
  if (const auto id = structureIdFromText(text)) {
    const StructureItem* item = design.find(*id);
    if (!item) return Error{{"structure.missing", text}, ""};
    if (!item->work) return Error{{"work.missing/no-piece", text}, ""};
    return SheetTarget{*id, 0};
  }
  if (text == kCard) return SheetTarget{};
  std::size_t number = 0;
  const std::string_view digits = text.starts_with("card/") ? text.substr(5) : std::string_view();
  const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), number);
  const std::size_t most = std::max<std::size_t>(1, design.card.sheets.size()) + 1;
  if (digits.empty() || error != std::errc() || end != digits.data() + digits.size() ||
      number < 1 || number > most)
    return Error{{"sheet.unknown", text, most}, ""};
  return SheetTarget{{}, number - 1};
}

SheetInWork sheetOf(const Design& design, const SheetTarget& target) {
  if (target.piece) return {*design.find(*target.piece)->work, false, {}};
  const bool there = target.sheet < design.card.sheets.size();
  return {there ? design.card.sheets[target.sheet] : PieceWork(), true,
          target.sheet == 0 ? design.card.ground : std::nullopt};
}

Result<Design> withSheet(const Design& design, const SheetTarget& target,
                         const SheetInWork& worked) {
  Design edited = design;
  if (target.piece) {
    auto set = setWork(design, *target.piece, worked.work);
    if (!set) return set;
    edited = std::move(set).value();
  } else {
    if (target.sheet >= edited.card.sheets.size()) edited.card.sheets.resize(target.sheet + 1);
    edited.card.sheets[target.sheet] = worked.work;
    if (target.sheet == 0) edited.card.ground = worked.ground;
  }
  const auto before = assembleDesign(upTo(design, target.piece));
  const auto after = assembleDesign(upTo(edited, target.piece));
  if (!after) return after.error();
  const SheetInWork was = sheetOf(design, target);
  if (auto holds = newRulesHold(*after, target, was.work, worked.work); !holds)
    return holds.error();
  if (before) Renaming(*before, *after).apply(edited);
  return withPlacesSettled(std::move(edited));
}

PieceWork workOf(const Assembly& assembly, const Piece& piece) {
  PieceWork work;
  std::vector<Region> parts;
  for (PanelIndex p : piece.panels)
    parts.push_back(assembly.panels[p].outline);
  const auto whole = united(parts);
  if (whole.size() == 1) work.outline = whole.front().rim;
  for (Vec2& corner : work.outline) // the union is rounded to its lattice
    for (const Region& part : parts)
      for (const Vec2& exact : part.rim)
        if ((corner - exact).norm() < kUnionOff_mm) corner = exact;
  for (const Fold& fold : assembly.folds)
    if (std::ranges::find(piece.panels, fold.left) != piece.panels.end())
      work.lines.push_back(
          {fold.sense == FoldSense::Valley ? WorkLine::Kind::Valley : WorkLine::Kind::Mountain,
           fold.from, fold.to});
  return work;
}

namespace {

/// Faces of sheets stand on another line than those of leaves: toppers stay where they are on the
/// paper, whose frame is the same.
void layToppersAgain(const Design& before, const Assembly& then, Design& after,
                     const Assembly& now) {
  for (std::size_t k = 0; k < before.dressing.toppers.size(); ++k) {
    Topper& topper = after.dressing.toppers[k];
    const Seat *old = then.findSeat(before.dressing.toppers[k].face),
               *made = now.findSeat(topper.face);
    if (!old || !made) continue; // on a structure
    const Iso3 on = inverseOf(made->sides[0].toPiece) * onPiece(before.dressing.toppers[k], *old);
    topper.at = on.translation().head<2>();
    topper.turn_deg = degrees(std::atan2(on.linear()(1, 0), on.linear()(0, 0)));
  }
}

} // namespace

Result<Design> withBaseAsSheet(const Design& design) {
  if (design.card.kind == sheetBase().key) return design;
  Design bare = upTo(design, {});
  bare.dressing.toppers.clear(); // they are no part of the sheet
  const auto assembled = assembleDesign(bare);
  if (!assembled) return assembled.error();
  Design edited = design;
  PieceWork work;
  if (assembled->pieces.size() == 1 && assembled->joints.empty())
    work = workOf(*assembled, assembled->pieces[PieceIndex(0)]);
  if (work.outline.empty())
    return Error{{"sheet.of-many", Text("base." + design.card.kind)}, "card"};
  // The base is all there is: its folds are the lines, in the same order.
  for (const Drive& drive : assembled->drives) {
    WorkLine& line = work.lines[static_cast<std::size_t>(drive.fold.value)];
    const double sign = line.kind == WorkLine::Kind::Valley ? 1 : -1;
    line.moves =
        FoldMoves{180 - sign * degrees(drive.shut_rad), 180 - sign * degrees(drive.open_rad),
                  degrees(drive.from_rad), degrees(drive.to_rad)};
  }
  edited.card.kind = sheetBase().key;
  edited.card.values.clear();
  edited.card.sheets = {std::move(work)};
  // Of two pages that lie alike the second one is on the table.
  const PanelIndex still =
      assembled->symmetric ? assembled->panels[assembled->root].twin : assembled->root;
  const Panel& root = assembled->panels[still];
  edited.card.ground = centroidOf(convexParts(root.outline).front());
  const auto after = assembleDesign(upTo(edited, {}));
  if (!after) return after.error();
  Renaming(*assembled, *after).apply(edited);
  layToppersAgain(design, *assembled, edited, *after);
  return edited;
}

std::string firstSeat(const Assembly& assembly) {
  for (const Seat& seat : assembly.seats)
    if (seat.kind() != SeatKind::Face) return seat.key;
  return assembly.seats.empty() ? "" : assembly.seats[SeatIndex(0)].key;
}

Result<Added> newSheet(const Design& design) {
  const auto assembled = assembleDesign(upTo(design, {}));
  if (!assembled) return assembled.error();
  if (assembled->seats.empty()) return Error{"sheet.no-edge", "card"};
  const Vec2 page = boundsOf(assembled->panels[assembled->root].outline).size();
  const double step = latticeStep_mm(design.settings.unit);
  constexpr double kWide = 1.5, kHigh = 1.0 / 3, kLeast_mm = 10;
  const auto size = [&](double mm) { return std::max(kLeast_mm, onLattice(mm, step)); };
  const StructureKind* kind = findStructureKind("piece");
  return addStructure(design, kind->key, firstSeat(*assembled), startingValues(kind->parameters),
                      plainStrip(size(kWide * page.x()), size(kHigh * page.y())));
}

Design followingTheSheet(const Design& before, Design after) {
  CardBase& card = after.card;
  if (before.card.sheets == card.sheets || before.card.sheets.empty() || card.sheets.empty())
    return after;
  const Design was = upTo(before, {}), is = upTo(after, {});
  const CardBase then = withFinishedSize(was), now = withFinishedSize(is);
  constexpr double kSame_mm = 1e-3;
  for (double CardBase::*size_mm : {&CardBase::width_mm, &CardBase::height_mm})
    if (std::abs(was.card.*size_mm - then.*size_mm) < kSame_mm &&
        std::abs(now.*size_mm - then.*size_mm) > kSame_mm && card.*size_mm == was.card.*size_mm)
      card.*size_mm = onLattice(now.*size_mm, kTouch_mm);
  const auto rests = [](const CardBase& base) {
    const auto folds = [](const WorkLine& line) { return line.moves && !line.moves->held(); };
    return std::ranges::any_of(base.sheets.front().lines, folds) ? Rests::OnEdge : Rests::OnPage;
  };
  if (before.card.rests == rests(before.card)) card.rests = rests(card);
  return after;
}

CardBase withFinishedSize(const Design& design) {
  CardBase card = design.card;
  auto assembled = assembleDesign(design);
  if (!assembled) return card;
  const Motion motion =
      Motion::trace(std::make_shared<const Assembly>(std::move(assembled).value()));
  const ShutState shut = shutState(motion, design);
  card.width_mm = shut.width_mm, card.height_mm = shut.height_mm;
  return card;
}

} // namespace hinge
