// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/toppers.h"
#include "core/geom/rim.h"
#include "core/paper/topper_shape.h"
#include "core/units/lattice.h"
#include <algorithm>
#include <fmt/format.h>

namespace hinge {
namespace {

Region turnedOver(Region region) {
  const auto over = [](Polygon& ring) {
    for (Vec2& corner : ring)
      corner.x() = -corner.x();
    std::ranges::reverse(ring);
  };
  over(region.rim);
  for (Polygon& hole : region.holes)
    over(hole);
  return region;
}

std::string keyOfPanel(const Topper& topper, bool mat, std::size_t shape) {
  return fmt::format("{}/{}-{}", topper.name(), mat ? "mat" : "shape", shape + 1);
}

const Region& largest(const std::vector<Region>& parts) {
  return *std::ranges::max_element(parts, {}, area_mm2);
}

double matBorder_mm(const Topper& topper, const Settings& settings) {
  if (!topper.mat->border_mm.empty()) return topper.mat->border_mm.front();
  return onLattice(settings.matBorder_mm, latticeStep_mm(settings.unit));
}

/// One piece of one panel, glued down by its back.
class Adding {
public:
  Adding(const Design& design, Assembly& assembly, const Topper& topper, const Seat& face)
      : m_design(design), m_assembly(assembly), m_topper(topper), m_face(face),
        m_owner(assembly.panels[face.sides[0].panel].owner) {}

  void run() {
    const std::vector<Region> shapes = shapesOf(m_topper),
                              outer = takenBy(m_topper, m_design.settings);
    const PanelIndex panel = m_face.sides[0].panel;
    const Iso3 frame = onPiece(m_topper, m_face);
    const Text name("topper-named", Text(nameKey()), m_topper.name());
    for (std::size_t k = 0; k < shapes.size(); ++k) {
      if (!m_topper.mat) {
        glue(add(false, k, name, m_topper.paper, shapes[k]), panel, frame, shapes[k]);
        continue;
      }
      const PanelIndex mat = add(true, k, Text("topper-mat", name), m_topper.mat->paper, outer[k]);
      glue(mat, panel, frame, outer[k]);
      const PanelIndex shape = add(false, k, name, m_topper.paper, shapes[k]);
      m_assembly.addJoint(Glue{shape, mat, Iso3::Identity(), false});
    }
  }

private:
  std::string nameKey() const {
    return "topper." + (m_topper.shape.empty() ? std::string(kOwnShape) : m_topper.shape);
  }
  PanelIndex add(bool mat, std::size_t k, Text label, const std::string& paper,
                 const Region& outline) {
    const std::string key = keyOfPanel(m_topper, mat, k);
    const PieceIndex piece = m_assembly.pieces.push({key, label, m_owner, {}, paper, {}});
    const PanelIndex panel =
        m_assembly.panels.push({key, std::move(label), m_owner, piece, PanelUse::Topper, outline});
    m_assembly.pieces[piece].panels.push_back(panel);
    return panel;
  }
  void glue(PanelIndex piece, PanelIndex host, const Iso3& frame, const Region& outline) {
    const auto zone =
        fixingZone(m_assembly, m_face, m_topper, outline, m_design.settings.foldClearance_mm);
    Glue glue{piece, host, frame, false};
    // What nothing can hold still goes where it was put; its finding says so.
    if (!zone.empty()) glue.area = largest(zone).rim;
    if (m_topper.fix != TopperFix::Flat) glue.raised_mm = m_topper.raised_mm;
    m_assembly.addJoint(std::move(glue));
  }

  const Design& m_design;
  Assembly& m_assembly;
  const Topper& m_topper;
  const Seat m_face;
  const std::optional<StructureId> m_owner;
};

} // namespace

std::vector<Region> shapesOf(const Topper& topper) {
  std::vector<Region> shapes = topper.outlines;
  if (const TopperShape* shape = findTopperShape(topper.shape))
    shapes = {topperOutline(*shape, topper.width_mm, topper.height_mm, topper.detail)};
  if (topper.mirrored)
    for (Region& shape : shapes)
      shape = turnedOver(std::move(shape));
  return shapes;
}

std::vector<Region> takenBy(const Topper& topper, const Settings& settings) {
  std::vector<Region> shapes = shapesOf(topper);
  if (!topper.mat) return shapes;
  for (Region& shape : shapes) {
    const auto wider =
        offset(Region(shape.rim), matBorder_mm(topper, settings), topper.mat->corners);
    if (!wider.empty()) shape = Region(largest(wider).rim);
  }
  return shapes;
}

Iso3 onPiece(const Topper& topper, const Seat& face) {
  const double turn = radians(topper.turn_deg);
  const Vec2 x(std::cos(turn), std::sin(turn)), y(-x.y(), x.x());
  return face.sides[0].toPiece * planarFrame(topper.at, x, y);
}

std::vector<Region> fixingZone(const Assembly& assembly, const Seat& face, const Topper& topper,
                               const Region& shape, double foldClearance_mm) {
  const PanelIndex panel = face.sides[0].panel;
  const Iso3 toShape = inverseOf(onPiece(topper, face));
  const Region host = mapped(assembly.panels[panel].outline, toShape);
  std::vector<Region> folds;
  for (FoldIndex f : assembly.foldsOf(panel)) {
    const Fold& fold = assembly.folds[f];
    folds.push_back(
        roomAlong({(toShape * lift(fold.from)).head<2>(), (toShape * lift(fold.to)).head<2>()},
                  foldClearance_mm));
  }
  std::vector<Region> zone;
  for (const Region& on : common(shape, host))
    for (Region& part : without(on, folds))
      zone.push_back(std::move(part));
  return zone;
}

std::vector<std::string> lowestPanels(const Topper& topper, const Settings& settings) {
  std::vector<std::string> keys;
  for (std::size_t k = 0; k < takenBy(topper, settings).size(); ++k)
    keys.push_back(keyOfPanel(topper, topper.mat.has_value(), k));
  return keys;
}

bool isPartOf(const Topper& topper, std::string_view panelKey) {
  return panelKey.starts_with(topper.name() + "/");
}

void addToppers(const Design& design, Assembly& assembly) {
  for (const Topper& topper : design.dressing.toppers) {
    const Seat* face = assembly.findSeat(topper.face);
    if (face && face->kind() == SeatKind::Face) Adding(design, assembly, topper, *face).run();
  }
}

} // namespace hinge
