#pragma once
#include "core/assembly/assembly.h"

namespace hinge {

/// Collects what a recipe makes. Keys are prefixed with the owner ("s3/"); the first problem found is kept and
/// reported by status(), so that recipes read as a list of parts.
class AssemblyBuilder {
public:
  explicit AssemblyBuilder(Assembly& assembly, std::optional<StructureId> owner) : m_assembly(assembly), m_owner(owner) {}

  PieceIndex piece(std::string_view role, std::string label);
  /// Outline in the piece's frame, either direction of travel. Must be a simple polygon with an area.
  PanelIndex panel(PieceIndex piece, std::string_view role, std::string label, PanelUse use, Polygon outline);
  /// A fold along from -> to, which must lie on the outlines of both panels, `left` on the left hand.
  FoldIndex fold(std::string_view role, std::string label, PanelIndex left, PanelIndex right, Vec2 from, Vec2 to,
                 FoldSense sense, double shutAngle_rad);
  void glue(PanelIndex tab, PanelIndex host, const Iso3& tabToHost);
  void seat(std::string_view role, std::string label, const SeatSide& first, const SeatSide& second, double length_mm,
            double shutOpening_rad);
  void dimension(std::string key, PanelIndex panel, const Vec2& from, const Vec2& to, std::optional<Vec2> corner = {});
  /// The same in the frame of a seat side, on the panel of that side.
  void dimensionOn(const SeatSide& side, std::string key, const Vec2& from, const Vec2& to, std::optional<Vec2> corner = {});
  void placement(const Seat& on, std::vector<PanelIndex> panels,
                 std::function<std::optional<std::vector<Iso3>>(double)> poses);

  const Assembly& assembly() const { return m_assembly; }
  Assembly& assembly() { return m_assembly; }
  /// The first problem met, or panels of one piece that would lie on one another in the flat sheet.
  Result<void> status() const;

private:
  std::string key(std::string_view role) const;
  void fail(std::string code, std::string message, std::string place);

  Assembly& m_assembly;
  std::optional<StructureId> m_owner;
  std::optional<Error> m_error;
};

/// A glue tab right of the line from -> to: a trapezoid with leaning ends, cut back to where `keepInside` (a convex
/// polygon) holds. Returns its outline with the base corners first; empty when nothing is left of it.
Polygon tabOutline(const Vec2& from, const Vec2& to, double depth_mm, double bevel_deg, const Polygon& keepInside = {});

/// The depth of a tab measured from its base line, where it is deepest.
double tabDepth_mm(const Polygon& outline, const Vec2& from, const Vec2& to);

} // namespace hinge
