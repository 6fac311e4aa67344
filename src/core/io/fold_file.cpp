#include "core/io/fold_file.h"
#include "core/production/flat_piece.h"
#include "core/units/length.h"
#include <fmt/format.h>
#include <map>
#include <nlohmann/json.hpp>
#include <numeric>
#include <set>

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

namespace {

/// The flat pattern as edges and faces, and the fold that each edge is, if it is one.
class Pattern {
public:
  explicit Pattern(const Assembly& assembly) : m_assembly(assembly), m_vertices(assembly) {
    for (const Fold& fold : assembly.folds) {
      const int a = m_vertices.at(fold.left, fold.from), b = m_vertices.at(fold.left, fold.to);
      m_foldEdges[std::minmax(a, b)] = &fold;
    }
    for (PanelIndex p : assembly.panels.indices())
      addFace(p);
  }

  void writeTo(Json& out) const {
    const SheetLayout layout = layOut(flatPieces(m_assembly), 600, 1e6, 0, 10);
    std::map<int, const SheetPlace*> places;
    for (const SheetPlace& place : layout.places)
      places[place.piece.value] = &place;
    Json coords = Json::array();
    for (const auto& [panel, corner] : m_vertices.owners) {
      const Vec2 q = places.at(m_assembly.panels[panel].piece.value)->onSheet(corner);
      coords.push_back({q.x(), q.y()});
    }
    out["vertices_coords"] = coords;
    out["edges_vertices"] = m_edges;
    out["edges_assignment"] = m_assignment;
    out["faces_vertices"] = m_faces;
    out["hinge-lantern:face_keys"] = m_keys;
    Json glued = Json::array();
    for (const Glue& glue : m_assembly.glues)
      glued.push_back({glue.tab.value, glue.host.value});
    out["hinge-lantern:glued_faces"] = glued;
  }

  /// Corners and fold angles of one opening.
  Json frameOf(const Pose& pose, double opening_deg) const {
    Json frame = Json::object();
    frame["frame_classes"] = {"foldedForm"};
    frame["frame_parent"] = 0;
    frame["frame_inherit"] = true;
    frame["frame_title"] = fmt::format("open {} deg", formatNumber(opening_deg, 3));
    frame["hinge-lantern:opening_deg"] = opening_deg;
    Json folded = Json::array(), angles = Json::array();
    for (const auto& [panel, corner] : m_vertices.owners) {
      const Vec3 q = pose.panels[panel] * lift(corner);
      folded.push_back({q.x(), q.y(), q.z()});
    }
    for (const Fold* fold : m_edgeFold)
      angles.push_back(fold ? Json(foldAngle_deg(pose, *fold)) : Json(nullptr));
    frame["vertices_coords"] = folded;
    frame["edges_foldAngle"] = angles;
    return frame;
  }

private:
  void addFace(PanelIndex p) {
    Json face = Json::array();
    const std::size_t n = m_assembly.panels[p].outline.size();
    for (std::size_t k = 0; k < n; ++k) {
      const int a = m_vertices.of(p, k), b = m_vertices.of(p, (k + 1) % n);
      face.push_back(a);
      if (!m_seen.insert(std::minmax(a, b)).second) continue;
      const auto known = m_foldEdges.find(std::minmax(a, b));
      const Fold* fold = known == m_foldEdges.end() ? nullptr : known->second;
      m_edges.push_back({a, b});
      m_assignment.push_back(!fold ? "B" : fold->sense == FoldSense::Mountain ? "M" : "V");
      m_edgeFold.push_back(fold);
    }
    m_faces.push_back(face);
    m_keys.push_back(m_assembly.panels[p].key);
  }

  const Assembly& m_assembly;
  Vertices m_vertices;
  std::map<std::pair<int, int>, const Fold*> m_foldEdges;
  std::set<std::pair<int, int>> m_seen;
  Json m_edges = Json::array(), m_assignment = Json::array(), m_faces = Json::array(),
       m_keys = Json::array();
  std::vector<const Fold*> m_edgeFold;
};

} // namespace

Result<std::string> motionToFold(const Motion& motion, std::span<const double> openings_deg) {
  const Assembly& assembly = motion.assembly();
  const Pattern pattern(assembly);
  Json out = Json::object();
  out["file_spec"] = 1.1;
  out["file_creator"] = "Hinge Lantern";
  out["frame_classes"] = {"creasePattern"};
  out["frame_unit"] = "mm";
  pattern.writeTo(out);
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
    Json frame = pattern.frameOf(pose, opening);
    if (!arbitrary.empty()) frame["hinge-lantern:arbitrary_faces"] = arbitrary;
    frames.push_back(std::move(frame));
  }
  out["file_frames"] = frames;
  return out.dump() + "\n";
}

} // namespace hinge
