#include "core/assembly/builder.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace hinge {

std::string AssemblyBuilder::key(std::string_view role) const {
  return fmt::format("{}/{}", m_owner ? m_owner->text() : "card", role);
}

void AssemblyBuilder::fail(std::string code, std::string message, std::string place) {
  if (!m_error) m_error = Error{std::move(code), std::move(message), std::move(place)};
}

Result<void> AssemblyBuilder::status() const {
  if (m_error) return *m_error;
  for (const Piece& piece : m_assembly.pieces) {
    if (piece.owner != m_owner) continue;
    for (std::size_t i = 0; i < piece.panels.size(); ++i)
      for (std::size_t j = i + 1; j < piece.panels.size(); ++j) {
        const Panel &a = m_assembly.panels[piece.panels[i]], &b = m_assembly.panels[piece.panels[j]];
        if (overlapArea_mm2(a.outline, b.outline) > 1e-3)
          return Error{"piece.overlap", fmt::format("these sizes cannot be cut from one sheet: {} and {} lie on one another in the flat piece", a.label, b.label), piece.key};
      }
  }
  return {};
}

PieceIndex AssemblyBuilder::piece(std::string_view role, std::string label) {
  return m_assembly.pieces.push({key(role), std::move(label), m_owner, {}});
}

PanelIndex AssemblyBuilder::panel(PieceIndex piece, std::string_view role, std::string label, PanelUse use,
                                  Polygon outline) {
  if (signedArea_mm2(outline) < 0) std::reverse(outline.begin(), outline.end());
  if (!isSimple(outline) || std::abs(signedArea_mm2(outline)) < 1e-6)
    fail("panel.impossible", fmt::format("these sizes make no possible {}: its outline crosses itself or has no area", label),
         key(role));
  const PanelIndex index =
      m_assembly.panels.push({key(role), std::move(label), m_owner, piece, use, std::move(outline)});
  m_assembly.pieces[piece].panels.push_back(index);
  return index;
}

FoldIndex AssemblyBuilder::fold(std::string_view role, std::string label, PanelIndex left, PanelIndex right, Vec2 from,
                                Vec2 to, FoldSense sense, double shutAngle_rad) {
  for (PanelIndex panel : {left, right})
    for (const Vec2& end : {from, to})
      if (!insertOnOutline(m_assembly.panels[panel].outline, end))
        fail("fold.off-outline", fmt::format("the {} does not lie on the edge of {}", label, m_assembly.panels[panel].label),
             key(role));
  return m_assembly.folds.push({key(role), std::move(label), left, right, from, to, sense, shutAngle_rad});
}

void AssemblyBuilder::glue(PanelIndex tab, PanelIndex host, const Iso3& tabToHost) {
  m_assembly.glues.push_back({tab, host, tabToHost});
}

void AssemblyBuilder::seat(std::string_view role, std::string label, const SeatSide& first, const SeatSide& second,
                           double length_mm, double shutOpening_rad) {
  const std::string seatKey = m_owner ? key(role) : std::string(role);
  m_assembly.seats.push({seatKey, std::move(label), {first, second}, length_mm, shutOpening_rad});
}

void AssemblyBuilder::dimension(std::string key, PanelIndex panel, const Vec2& from, const Vec2& to, std::optional<Vec2> corner) {
  m_assembly.dimensions.push_back({*m_owner, std::move(key), panel, from, to, corner});
}

void AssemblyBuilder::dimensionOn(const SeatSide& side, std::string key, const Vec2& from, const Vec2& to, std::optional<Vec2> corner) {
  const auto flat = [&](const Vec2& p) { return Vec2((side.toPiece * lift(p)).head<2>()); };
  dimension(std::move(key), side.panel, flat(from), flat(to), corner ? std::optional(flat(*corner)) : std::nullopt);
}

void AssemblyBuilder::placement(const Seat& on, std::vector<PanelIndex> panels,
                                std::function<std::optional<std::vector<Iso3>>(double)> poses) {
  m_assembly.placements.push_back({*m_owner, on, std::move(panels), std::move(poses)});
}

Polygon tabOutline(const Vec2& from, const Vec2& to, double depth_mm, double bevel_deg, const Polygon& keepInside) {
  const Vec2 along = (to - from).normalized(), out(along.y(), -along.x());
  const double length = (to - from).norm();
  // Ends lean in by the bevel, but a short tab keeps at least a third of its length at the far edge.
  const double lean = std::min(depth_mm * std::tan(radians(bevel_deg)), length / 3.0);
  // Counter-clockwise with the base first: the tab lies right of from -> to, so its own travel is to -> from.
  Polygon outline{to, from, from + along * lean + out * depth_mm, to - along * lean + out * depth_mm};
  if (!keepInside.empty()) outline = intersectConvex(outline, keepInside);
  return outline;
}

double tabDepth_mm(const Polygon& outline, const Vec2& from, const Vec2& to) {
  const Vec2 along = (to - from).normalized(), out(along.y(), -along.x());
  double depth = 0;
  for (const Vec2& p : outline) depth = std::max(depth, out.dot(p - from));
  return depth;
}

} // namespace hinge
