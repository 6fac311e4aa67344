// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/piece_sheet.h"
#include "core/pieces/placing.h"
#include "core/structures/assemble.h"
#include "core/structures/names.h"
#include "core/structures/piece.h"
#include "core/structures/piece_proportion.h"
#include "core/structures/piece_rows.h"
#include "core/structures/registry.h"
#include "core/units/lattice.h"
#include <algorithm>
#include <fmt/format.h>

namespace hinge {
namespace {

/// Two equal panels with a mountain between them, glued to both sides of the fold by tabs that lie
/// under it: lies flat in any size. Over a ridge the panels are longer than their feet are far from
/// it. On a face: a plain sheet glued on it.
std::optional<PieceWork> startingWork(const Seat& seat, const Assembly& assembly,
                                      const Settings& settings, double scale) {
  if (seat.kind() == SeatKind::Span) return std::nullopt;
  const auto half = [](double v) { return onLattice(v); };
  const double depth = std::min(seatDepth_mm(seat, 0, assembly), seatDepth_mm(seat, 1, assembly));
  const double height = std::max(6.0, half(scale * std::min(40.0, 0.4 * seat.length_mm))),
               at = half(0.5 * (seat.length_mm - height));
  if (seat.kind() == SeatKind::Face) {
    const double width = std::max(6.0, half(scale * 0.5 * seat.length_mm)),
                 up = std::max(6.0, half(scale * 0.4 * depth));
    PieceWork work = plainStrip(width, up);
    work.joints = {{{0.5 * width, 0.5 * up},
                    seat.key,
                    {half(0.5 * seat.length_mm), half(0.5 * depth)},
                    given::Glue()}};
    return work;
  }
  const double foot = half(scale * 0.4 * depth),
               panel = seat.kind() == SeatKind::Ridge ? half(1.4 * foot) : foot;
  if (foot < 3) return std::nullopt;
  const double tab =
      std::max(2.0, half(std::min(starting::kTabDepth_mm, foot - settings.foldClearance_mm - 1)));
  PieceWork work = plainStrip(2 * (tab + panel), height);
  for (double x : {tab, tab + panel, tab + 2 * panel})
    work.lines.push_back({WorkLine::Kind::Mountain, {x, 0}, {x, height}});
  const double right = tab + 2 * panel;
  const auto a =
      glueJoint(assembly, seat.sides[0].panel,
                seat.sides[0].toPiece * planarFrame({foot - tab, at}, Vec2::UnitX(), Vec2::UnitY()),
                true, {0.5 * tab, 0.5 * height});
  const auto b = glueJoint(assembly, seat.sides[1].panel,
                           seat.sides[1].toPiece *
                               planarFrame({foot + right, at}, -Vec2::UnitX(), Vec2::UnitY()),
                           true, {right + 0.5 * tab, 0.5 * height});
  if (!a || !b) return std::nullopt;
  work.joints = {*a, *b};
  return work;
}

/// The piece's mirror image, joined to the same faces or to the other sides of what it is joined
/// to; where there is none, mirrored on the same face.
PieceWork mirrorWork(const PieceWork& work, const Assembly& assembly, bool sameFaces) {
  PieceWork image = mirrored(work);
  for (PieceJoint& joint : image.joints) {
    const Seat* face = assembly.findSeat(joint.on);
    if (face) joint.to.x() = face->length_mm - joint.to.x();
    if (std::string other = assembly.otherSideOf(joint.on); !other.empty() && !sameFaces)
      joint.on = std::move(other);
    const Seat* onto = assembly.findSeat(joint.on);
    for (PlaceRule& rule : joint.rules)
      if (placed::LineBelow* line = lineBelow(rule); line && face && onto)
        *line = mirroredLine(assembly, *line, face->sides[0], onto->sides[0]);
  }
  return image;
}

class PieceWays : public StructureWays {
public:
  bool carriesWork() const override { return true; }
  bool ringsDecide() const override { return true; }
  ParameterTable rows(const StructureItem& item) const override {
    return pieceRows(panelWidths_mm(*item.work).size());
  }

  /// Widths of panels that are not glued down, and where the piece is.
  std::vector<MendDirection> mends(const StructureItem& item) const override {
    std::vector<MendDirection> all;
    const PieceSheet sheet(*item.work);
    const std::vector<Vec2> points = panelPoints(*item.work);
    for (std::size_t k = 0; k < std::min(points.size(), kMostPanels); ++k) {
      const std::size_t face = sheet.faceAt(points[k]);
      const bool glued = std::ranges::any_of(item.work->joints, [&](const PieceJoint& j) {
        return is<given::Glue>(j) && sheet.faceAt(j.at) == face;
      });
      // Glued down as a whole, like a pocket's front, it can still be any width.
      if (points.size() == 1 || !glued) all.push_back({{{panelKey(k), 1}}});
    }
    all.push_back({{{pieceRows().front().key, 1}}});
    return all;
  }

  Result<void> settle(StructureItem& item, std::string_view place) const override {
    if (!item.work) return Error{"work.missing/piece", std::string(place)};
    if (auto valid = validate(*item.work, place); !valid) return valid;
    const auto widths = panelWidths_mm(*item.work);
    if (widths.size() > kMostPanels)
      return Error{{"work.too-much", kMostPanels}, std::string(place)};
    for (std::size_t k = 0; k < kMostPanels; ++k)
      item.values.erase(std::string(panelKey(k)));
    for (std::size_t k = 0; k < widths.size(); ++k)
      item.values[std::string(panelKey(k))] = widths[k];
    return validate(rows(item), item.values, place);
  }

  /// The width of a panel: its right score moves and takes along what lies beyond it.
  Result<void> set(StructureItem& item, std::string_view key, double value) const override {
    const ParameterTable table = rows(item);
    const ParameterSpec* spec = findSpec(table, key);
    if (spec == &table.front()) {
      item.values[std::string(key)] = value;
      return {};
    }
    if (!spec || !(value >= spec->least && value <= spec->most))
      return Error{{"value.range/piece", key, Millimetres{value}}, item.id.text()};
    auto moved = withPanelWidth(*item.work, static_cast<std::size_t>(spec - &table[1]), value);
    if (!moved) return Error{moved.error().message, item.id.text()};
    item.work = std::move(moved).value();
    return settle(item, item.id.text());
  }

  void mirror(StructureItem& item, const Seat& seat, const Assembly& assembly,
              const std::string& onto) const override {
    const bool onFace = seat.kind() == SeatKind::Face;
    item.work = mirrorWork(*item.work, assembly, onFace && onto == item.seat);
    item.seat = onto;
    // On a face its joints are seen with left and right exchanged, and so is the way it is moved.
    double& at = item.values[std::string(pieceRows().front().key)];
    if (onFace && at != 0) at = -at;
    const auto widths = panelWidths_mm(*item.work);
    for (std::size_t k = 0; k < std::min(widths.size(), kMostPanels); ++k)
      item.values[std::string(panelKey(k))] = widths[k];
  }

  std::vector<LengthRow> lengths(const Design& design, const StructureItem& item,
                                 bool alone) const override {
    std::vector<LengthRow> all;
    if (growsEvenly(*item.work)) {
      all.push_back({lengthRowKey(item.id.text(), kWholeKey),
                     Text("row-of", "piece.whole", nameOf(design, item.id)),
                     boundsOf(item.work->outline).size().x(), false});
      return all;
    }
    const auto widths = panelWidths_mm(*item.work);
    const bool across = alone || widthsRunAcross(design, item);
    for (std::size_t k = 0; k < std::min(widths.size(), kMostPanels); ++k)
      all.push_back({lengthRowKey(item.id.text(), panelKey(k)),
                     Text("row-of", nameOf(rows(item)[k + 1]), nameOf(design, item.id)), widths[k],
                     !across || (widths.size() > 1 && isGlued(*item.work, k))});
    return all;
  }
  Result<void> scale(StructureItem& item, const Design& design, double factor,
                     const std::set<std::string>& held) const override {
    auto work = grown(design, item, factor, held);
    if (!work) return work.error();
    item.work = std::move(work).value();
    return settle(item, item.id.text());
  }
  std::optional<double> flatLength_mm(const StructureItem& item) const override {
    return boundsOf(item.work->outline).size().x();
  }

  bool canDraft(const DraftPlace& place) const override {
    return startingWork(place.seat, place.assembly, place.settings, 1.0).has_value();
  }
  /// In the middle of the fold, or beside what stands there, or smaller.
  Result<Draft> draft(const DraftPlace& place,
                      const std::function<bool(const Draft&)>& works) const override {
    const auto values =
        valuesForNew(place.assembly, place.settings, place.kind.key, place.seat.key, place.given);
    if (!values) return values.error();
    const std::string at(pieceRows().front().key);
    std::optional<Draft> first;
    for (double scale : {1.0, 0.7, 0.5, 0.35})
      for (double shift : {0.0, 0.2, -0.2, 0.35, -0.35}) {
        Draft draft{*values, startingWork(place.seat, place.assembly, place.settings, scale)};
        if (!draft.work) break;
        if (!place.given.contains(at)) draft.values[at] = onLattice(shift * place.seat.length_mm);
        if (works(draft)) return draft;
        if (!first) first = std::move(draft);
      }
    if (!first) return Error{"work.none", place.seat.key};
    return *first;
  }
};

} // namespace

const StructureWays& pieceWays() {
  static const PieceWays ways;
  return ways;
}

} // namespace hinge
