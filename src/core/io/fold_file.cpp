#include "core/io/fold_file.h"
#include "core/production/flat_piece.h"
#include "core/units/length.h"
#include <fmt/format.h>
#include <map>
#include <nlohmann/json.hpp>
#include <numeric>

namespace hinge {
namespace {

using Json = nlohmann::ordered_json;

/// Corners of all panels as FOLD vertices: two corners are one vertex only where a fold joins them,
/// so that what merely lies together in the flat sheet may part when it folds.
class Vertices {
public:
  explicit Vertices(const Assembly& assembly) : m_assembly(assembly) {
    for (const Panel& panel : assembly.panels) {
      m_first.push_back(static_cast<int>(m_parent.size()));
      for (std::size_t k = 0; k < panel.outline.size(); ++k)
        m_parent.push_back(static_cast<int>(m_parent.size()));
    }
    for (const Fold& fold : assembly.folds)
      for (const Vec2& end : {fold.from, fold.to})
        m_parent[static_cast<std::size_t>(root(corner(fold.left, end)))] =
            root(corner(fold.right, end));
    for (PanelIndex p : assembly.panels.indices())
      for (std::size_t k = 0; k < assembly.panels[p].outline.size(); ++k) {
        const int r = root(m_first[static_cast<std::size_t>(p.value)] + static_cast<int>(k));
        if (m_number.emplace(r, static_cast<int>(m_number.size())).second)
          owners.push_back({p, assembly.panels[p].outline[k]});
      }
  }
  int of(PanelIndex p, std::size_t k) {
    return m_number.at(root(m_first[static_cast<std::size_t>(p.value)] + static_cast<int>(k)));
  }
  int at(PanelIndex p, const Vec2& point) { return m_number.at(root(corner(p, point))); }

  std::vector<std::pair<PanelIndex, Vec2>> owners; ///< one panel and flat corner per vertex

private:
  int corner(PanelIndex p, const Vec2& point) const {
    const Polygon& outline = m_assembly.panels[p].outline;
    std::size_t best = 0;
    for (std::size_t k = 1; k < outline.size(); ++k)
      if ((outline[k] - point).squaredNorm() < (outline[best] - point).squaredNorm()) best = k;
    return m_first[static_cast<std::size_t>(p.value)] + static_cast<int>(best);
  }
  int root(int v) {
    while (m_parent[static_cast<std::size_t>(v)] != v)
      v = m_parent[static_cast<std::size_t>(v)];
    return v;
  }
  const Assembly& m_assembly;
  std::vector<int> m_first, m_parent;
  std::map<int, int> m_number;
};

double foldAngle_deg(const Pose& pose, const Fold& fold) {
  const Iso3 &left = pose.panels[fold.left], &right = pose.panels[fold.right];
  const Vec3 axis = left.linear() * lift((fold.to - fold.from).normalized());
  const Vec3 n1 = left.linear().col(2), n2 = right.linear().col(2);
  return -degrees(std::atan2(n1.cross(n2).dot(axis), n1.dot(n2)));
}

} // namespace

Result<std::string> motionToFold(const Motion& motion, std::span<const double> openings_deg) {
  const Assembly& assembly = motion.assembly();
  Vertices vertices(assembly);
  Json out = Json::object();
  out["file_spec"] = 1.1;
  out["file_creator"] = "Hinge Lantern";
  out["frame_classes"] = {"creasePattern"};
  out["frame_unit"] = "mm";

  const std::vector<FlatPiece> pieces = flatPieces(assembly);
  const SheetLayout layout = layOut(pieces, 600, 1e6, 0, 10);
  std::map<int, const SheetPlace*> places;
  for (const SheetPlace& place : layout.places)
    places[place.piece.value] = &place;
  Json coords = Json::array();
  for (const auto& [panel, corner] : vertices.owners) {
    const Vec2 q = places.at(assembly.panels[panel].piece.value)->onSheet(corner);
    coords.push_back({q.x(), q.y()});
  }
  out["vertices_coords"] = coords;

  std::map<std::pair<int, int>, const Fold*> foldEdges;
  for (const Fold& fold : assembly.folds) {
    const int a = vertices.at(fold.left, fold.from), b = vertices.at(fold.left, fold.to);
    foldEdges[std::minmax(a, b)] = &fold;
  }
  Json edges = Json::array(), assignment = Json::array(), faces = Json::array(),
       keys = Json::array();
  std::map<std::pair<int, int>, std::size_t> seen;
  std::vector<const Fold*> edgeFold;
  for (PanelIndex p : assembly.panels.indices()) {
    Json face = Json::array();
    const std::size_t n = assembly.panels[p].outline.size();
    for (std::size_t k = 0; k < n; ++k) {
      const int a = vertices.of(p, k), b = vertices.of(p, (k + 1) % n);
      face.push_back(a);
      if (!seen.emplace(std::minmax(a, b), seen.size()).second) continue;
      const auto fold = foldEdges.find(std::minmax(a, b));
      edges.push_back({a, b});
      assignment.push_back(fold == foldEdges.end()                      ? "B"
                           : fold->second->sense == FoldSense::Mountain ? "M"
                                                                        : "V");
      edgeFold.push_back(fold == foldEdges.end() ? nullptr : fold->second);
    }
    faces.push_back(face);
    keys.push_back(assembly.panels[p].key);
  }
  out["edges_vertices"] = edges;
  out["edges_assignment"] = assignment;
  out["faces_vertices"] = faces;
  out["hinge-lantern:face_keys"] = keys;
  Json glued = Json::array();
  for (const Glue& glue : assembly.glues)
    glued.push_back({glue.tab.value, glue.host.value});
  out["hinge-lantern:glued_faces"] = glued;

  // Faces that hang on a motion which the opening does not decide: their folded places are one
  // choice among many that are as good.
  Json arbitrary = Json::array();
  for (PanelIndex p : assembly.panels.indices())
    if (motion.isLoose(p)) arbitrary.push_back(p.value);

  Json frames = Json::array();
  for (double opening : openings_deg) {
    const Pose pose = motion.poseAt(radians(opening));
    for (PanelIndex p : assembly.panels.indices())
      if (!pose.placed[p])
        return Error{"pose.out-of-reach",
                     fmt::format("{} does not reach an opening of {} degrees",
                                 assembly.panels[p].key, formatNumber(opening, 3)),
                     ""};
    Json frame = Json::object();
    frame["frame_classes"] = {"foldedForm"};
    frame["frame_parent"] = 0;
    frame["frame_inherit"] = true;
    frame["frame_title"] = fmt::format("open {} deg", formatNumber(opening, 3));
    frame["hinge-lantern:opening_deg"] = opening;
    if (!arbitrary.empty()) frame["hinge-lantern:arbitrary_faces"] = arbitrary;
    Json folded = Json::array();
    for (const auto& [panel, corner] : vertices.owners) {
      const Vec3 q = pose.panels[panel] * lift(corner);
      folded.push_back({q.x(), q.y(), q.z()});
    }
    frame["vertices_coords"] = folded;
    Json angles = Json::array();
    for (const Fold* fold : edgeFold)
      angles.push_back(fold ? Json(foldAngle_deg(pose, *fold)) : Json(nullptr));
    frame["edges_foldAngle"] = angles;
    frames.push_back(frame);
  }
  out["file_frames"] = frames;
  return out.dump() + "\n";
}

} // namespace hinge
