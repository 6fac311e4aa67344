// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/fold_file.h"
#include "core/motion/fold_angle.h"
#include "core/production/flat_pattern.h"
#include "core/production/flat_piece.h"
#include "core/units/length.h"
#include <fmt/format.h>
#include <map>
#include <nlohmann/json.hpp>

namespace hinge {
namespace {

using Json = nlohmann::ordered_json;

constexpr double kToldGap_mm = 1e-6; ///< smaller ones are the rounding of the motion

/// Where flat pieces go on the drawing: beside one another on a sheet as wide as the widest needs.
std::map<int, SheetPlace> placesApart(const Assembly& assembly) {
  constexpr double kGap_mm = 10, kLeastWidth_mm = 600, kEndless_mm = 1e6;
  const auto pieces = flatPieces(assembly);
  double width = kLeastWidth_mm;
  for (const FlatPiece& piece : pieces)
    width = std::max(width, piece.bounds.size().minCoeff() + kGap_mm);
  std::map<int, SheetPlace> places;
  for (const SheetPlace& place : layOut(pieces, width, kEndless_mm, 0, kGap_mm).places)
    places[place.piece.value] = place;
  return places;
}

/// What a crease is called: one that the motion folds to both sides is neither mountain nor valley.
class Creases {
public:
  explicit Creases(const Motion& motion) : m_assembly(motion.assembly()) {
    constexpr double kFlat_deg = 0.1;
    std::vector<Pose> poses;
    for (double opening : motion.nodeOpenings())
      poses.push_back(motion.poseAt(opening));
    for (const Fold& fold : m_assembly.folds) {
      bool up = false, down = false;
      for (const Pose& pose : poses) {
        if (!pose.placed[fold.left] || !pose.placed[fold.right]) continue;
        const double angle = degrees(foldAngleIn(pose, fold));
        const bool turned = std::abs(angle) > kFlat_deg && std::abs(angle) < 180 - kFlat_deg;
        up |= turned && angle > 0, down |= turned && angle < 0;
      }
      m_both.push_back(up && down);
    }
  }
  const char* letter(FoldIndex f) const {
    if (m_both[static_cast<std::size_t>(f.value)]) return "U";
    return m_assembly.folds[f].sense == FoldSense::Mountain ? "M" : "V";
  }

private:
  const Assembly& m_assembly;
  std::vector<char> m_both;
};

/// The flat patterns of all pieces as one, and what becomes of it when the paper folds. A vertex at
/// a cut may part: in the folded frames it is one vertex for each group of panels that folds hold
/// together there; the first group keeps its number.
class Pattern {
public:
  explicit Pattern(const Assembly& assembly, const Creases& creases)
      : m_assembly(assembly), m_places(placesApart(assembly)) {
    for (PieceIndex piece : assembly.pieces.indices())
      add(flatPattern(assembly, piece));
    // Creases first, so that their numbers are the same in every frame.
    std::ranges::stable_sort(m_edges, {}, [](const PatternEdge& e) {
      return e.kind == EdgeKind::Fold || e.kind == EdgeKind::Join ? 0
             : e.kind == EdgeKind::Cut                            ? 1
                                                                  : 2;
    });
    for (const PatternEdge& edge : m_edges)
      m_letters.push_back(edge.kind == EdgeKind::Fold   ? creases.letter(edge.fold)
                          : edge.kind == EdgeKind::Join ? "J"
                          : edge.kind == EdgeKind::Cut  ? "C"
                                                        : "B");
    part();
  }

  void writeTo(Json& out) const {
    Json coords = Json::array(), edges = Json::array(), faces = Json::array(), keys = Json::array();
    for (std::size_t v = 0; v < m_flat.size(); ++v) {
      const Vec2 q = m_places.at(m_pieceOf[v].value).onSheet(m_flat[v]);
      coords.push_back({q.x(), q.y()});
    }
    for (const PatternEdge& edge : m_edges)
      edges.push_back({edge.from, edge.to});
    for (const PatternFace& face : m_faces)
      faces.push_back(face.corners), keys.push_back(m_assembly.panels[face.panel].key);
    out["vertices_coords"] = coords;
    out["edges_vertices"] = edges;
    out["edges_assignment"] = m_letters;
    out["faces_vertices"] = faces;
    out["hinge-lantern:face_keys"] = keys;
    Json glued = Json::array();
    for (const auto& [j, glue] : m_assembly.every<Glue>())
      for (std::size_t tab : facesOf(glue.tab))
        for (std::size_t host : facesOf(glue.host))
          glued.push_back({tab, host});
    out["hinge-lantern:glued_faces"] = glued;
  }

  std::vector<std::size_t> facesOf(PanelIndex panel) const {
    std::vector<std::size_t> all;
    for (std::size_t f = 0; f < m_faces.size(); ++f)
      if (m_faces[f].panel == panel) all.push_back(f);
    return all;
  }

  /// Corners and fold angles of one opening; edges and faces too where paper parts at cuts.
  Json frameOf(const Pose& pose, double opening_deg) const {
    Json frame = Json::object();
    frame["frame_classes"] = {"foldedForm"};
    frame["frame_parent"] = 0;
    frame["frame_inherit"] = true;
    frame["frame_title"] = fmt::format("open {} deg", formatNumber(opening_deg, 3));
    frame["hinge-lantern:opening_deg"] = opening_deg;
    // By how much loops miss closing there: paper gives that.
    if (pose.residual_mm > kToldGap_mm) frame["hinge-lantern:gap_mm"] = pose.residual_mm;
    Json folded = Json::array(), angles = Json::array();
    for (const Folded& vertex : m_folded) {
      const Vec3 q = pose.panels[vertex.panel] * lift(m_flat[vertex.flat]);
      folded.push_back({q.x(), q.y(), q.z()});
    }
    frame["vertices_coords"] = folded;
    if (parts()) {
      Json edges = Json::array(), letters = Json::array(), faces = Json::array();
      for (const auto& [from, to, letter, fold] : m_foldedEdges)
        edges.push_back({from, to}), letters.push_back(letter);
      for (std::size_t f = 0; f < m_faces.size(); ++f) {
        Json face = Json::array();
        for (std::size_t v : m_faces[f].corners)
          face.push_back(foldedVertex(f, v));
        faces.push_back(face);
      }
      frame["edges_vertices"] = edges;
      frame["edges_assignment"] = letters;
      frame["faces_vertices"] = faces;
    }
    for (const FoldedEdge& edge : m_foldedEdges)
      angles.push_back(edge.fold.valid()
                           ? Json(degrees(foldAngleIn(pose, m_assembly.folds[edge.fold])))
                           : Json(nullptr));
    frame["edges_foldAngle"] = angles;
    return frame;
  }

private:
  struct Folded {
    std::size_t flat; ///< vertex of the flat pattern
    PanelIndex panel; ///< one of those that carry it
  };
  struct FoldedEdge {
    std::size_t from, to;
    const char* letter;
    FoldIndex fold;
  };

  bool parts() const { return m_folded.size() > m_flat.size(); }

  void add(const FlatPattern& pattern) {
    const std::size_t vertices = m_flat.size(), faces = m_faces.size();
    for (const Vec2& v : pattern.vertices)
      m_flat.push_back(v), m_pieceOf.push_back(pattern.piece);
    for (PatternFace face : pattern.faces) {
      for (std::size_t& v : face.corners)
        v += vertices;
      m_faces.push_back(std::move(face));
    }
    for (PatternEdge edge : pattern.edges) {
      edge.from += vertices, edge.to += vertices, edge.face += faces;
      if (edge.beyond) *edge.beyond += faces;
      m_edges.push_back(edge);
    }
  }

  using Corner = std::pair<std::size_t, int>; ///< a vertex as a panel has it

  Corner root(Corner corner) const {
    for (auto it = m_heldTo.find(corner); it != m_heldTo.end(); it = m_heldTo.find(corner))
      corner = it->second;
    return corner;
  }

  /// Numbers the vertices of the folded frames and says their edges.
  void part() {
    for (const PatternEdge& edge : m_edges)
      if (edge.kind == EdgeKind::Fold)
        for (std::size_t v : {edge.from, edge.to}) {
          const Corner a = root({v, m_faces[edge.face].panel.value}),
                       b = root({v, m_faces[*edge.beyond].panel.value});
          if (a != b) m_heldTo[b] = a;
        }
    m_folded.assign(m_flat.size(), {});
    std::vector<char> taken(m_flat.size(), 0);
    for (const PatternFace& face : m_faces)
      for (std::size_t v : face.corners) {
        const Corner group = root({v, face.panel.value});
        if (m_number.contains(group)) continue;
        const std::size_t number = taken[v] ? m_folded.size() : v;
        if (taken[v])
          m_folded.push_back({v, face.panel});
        else
          m_folded[v] = {v, face.panel}, taken[v] = 1;
        m_number[group] = number;
      }
    for (std::size_t e = 0; e < m_edges.size(); ++e) {
      const PatternEdge& edge = m_edges[e];
      const auto side = [&](std::size_t face) {
        return std::pair(foldedVertex(face, edge.from), foldedVertex(face, edge.to));
      };
      const auto own = side(edge.face), other = edge.beyond ? side(*edge.beyond) : own;
      const bool torn = own != other;
      m_foldedEdges.push_back({own.first, own.second, torn ? "B" : m_letters[e], edge.fold});
      if (torn) m_tornSides.push_back({other.first, other.second, "B", {}});
    }
    m_foldedEdges.insert(m_foldedEdges.end(), m_tornSides.begin(), m_tornSides.end());
  }

  std::size_t foldedVertex(std::size_t face, std::size_t v) const {
    return m_number.at(root({v, m_faces[face].panel.value}));
  }

  const Assembly& m_assembly;
  std::map<int, SheetPlace> m_places;
  std::vector<Vec2> m_flat;
  std::vector<PieceIndex> m_pieceOf; ///< per vertex
  std::vector<PatternFace> m_faces;
  std::vector<PatternEdge> m_edges;
  std::vector<const char*> m_letters;
  std::map<Corner, Corner> m_heldTo; ///< corners that a fold makes one
  std::map<Corner, std::size_t> m_number;
  std::vector<Folded> m_folded;
  std::vector<FoldedEdge> m_foldedEdges, m_tornSides;
};

} // namespace

Result<std::string> motionToFold(const Motion& motion, std::span<const double> openings_deg) {
  const Assembly& assembly = motion.assembly();
  const Pattern pattern(assembly, Creases(motion));
  Json out = Json::object();
  out["file_spec"] = 1.2;
  out["file_creator"] = "Hinge Lantern";
  out["frame_classes"] = {"creasePattern"};
  out["frame_unit"] = "mm";
  pattern.writeTo(out);
  // Faces that hang on a motion which the opening does not decide: their folded places are one
  // choice among many that are as good.
  Json arbitrary = Json::array();
  for (PanelIndex p : assembly.panels.indices())
    if (motion.isLoose(p))
      for (std::size_t face : pattern.facesOf(p))
        arbitrary.push_back(face);
  Json frames = Json::array();
  for (double opening : openings_deg) {
    const Pose pose = motion.poseAt(radians(opening));
    for (PanelIndex p : assembly.panels.indices())
      if (!pose.placed[p])
        return Error{{"pose.out-of-reach", assembly.panels[p].key, Degrees{opening}}, ""};
    Json frame = pattern.frameOf(pose, opening);
    if (!arbitrary.empty()) frame["hinge-lantern:arbitrary_faces"] = arbitrary;
    frames.push_back(std::move(frame));
  }
  out["file_frames"] = frames;
  return out.dump() + "\n";
}

std::vector<double> foldFrames_deg(const Motion& motion) {
  const double low = degrees(motion.assembly().low_rad), high = degrees(motion.assembly().high_rad);
  std::vector<double> frames;
  for (double t : kFoldFrames_deg)
    frames.push_back(low + (high - low) * t / 180);
  return frames;
}

} // namespace hinge
