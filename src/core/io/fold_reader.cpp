// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/drawing.h"
#include "core/units/length.h"
#include <cmath>
#include <fmt/format.h>
#include <nlohmann/json.hpp>

// Patterns in FOLD: vertices, edges with their assignment (mountain, valley, border, cut,
// unfolded), and the angles of the first folded frame as the pose in which the maker has it.

namespace hinge {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::size_t kMostEdges = 50'000;
constexpr double kFlat_deg = 1e-3;

class DrawingOfFold {
public:
  explicit DrawingOfFold(const Json& file) : m_file(file) {}

  Result<Drawing> run() {
    if (!m_file.is_object()) return Error{"fold.none", ""};
    if (auto scale = findUnit(); !scale) return scale.error();
    if (auto read = vertices(); !read) return read.error();
    if (auto read = edges(); !read) return read.error();
    folds();
    return std::move(m_made);
  }

private:
  const Json* member(const Json& of, const char* key, std::size_t most) {
    const auto found = of.find(key);
    if (found == of.end() || !found->is_array() || found->size() > most) return nullptr;
    return &*found;
  }

  Result<void> findUnit() {
    const auto unit = m_file.find("frame_unit");
    if (unit == m_file.end() || !unit->is_string()) return {};
    const auto& name = unit->get_ref<const std::string&>();
    static const std::pair<const char*, double> kUnits[] = {{"mm", 1},
                                                            {"cm", 10},
                                                            {"m", 1000},
                                                            {"in", kMillimetresPerInch},
                                                            {"pt", kMillimetresPerInch / 72},
                                                            {"unit", 1}};
    for (const auto& [key, mm] : kUnits)
      if (name == key) return m_unit_mm = mm, Result<void>();
    return Error{{"fold.unit", name.substr(0, 20)}, "frame_unit"};
  }

  Result<void> vertices() {
    const Json* list = member(m_file, "vertices_coords", kMostDrawnPoints);
    if (!list || list->empty()) return Error{"fold.member", "vertices_coords"};
    for (std::size_t k = 0; k < list->size(); ++k) {
      const Json& p = (*list)[k];
      const std::string place = fmt::format("vertices_coords[{}]", k);
      if (!p.is_array() || p.size() < 2 || p.size() > 3 || !p[0].is_number() || !p[1].is_number())
        return Error{"fold.point", place};
      if (p.size() == 3 && (!p[2].is_number() || std::abs(p[2].get<double>()) > 1e-6))
        return Error{"fold.not-flat", place};
      const Vec2 at = m_unit_mm * Vec2(p[0].get<double>(), p[1].get<double>());
      if (!(at.cwiseAbs().maxCoeff() <= kFarthestDrawn_mm))
        return Error{{"drawing.far", Millimetres{kFarthestDrawn_mm}}, place};
      m_vertices.push_back(at);
    }
    return {};
  }

  static std::optional<LineUse> useOf(const std::string& letter) {
    if (letter == "M") return LineUse::Mountain;
    if (letter == "V") return LineUse::Valley;
    if (letter == "B" || letter == "C") return LineUse::Cut;
    return std::nullopt;
  }

  Result<void> edges() {
    const Json* list = member(m_file, "edges_vertices", kMostEdges);
    if (!list || list->empty()) return Error{"fold.member", "edges_vertices"};
    const Json* assignments = member(m_file, "edges_assignment", kMostEdges);
    const Json* bent = firstFolded();
    for (std::size_t k = 0; k < list->size(); ++k) {
      const Json& edge = (*list)[k];
      const std::string place = fmt::format("edges_vertices[{}]", k);
      if (!edge.is_array() || edge.size() != 2 || !isVertex(edge[0]) || !isVertex(edge[1]))
        return Error{"fold.edge", place};
      const std::string letter =
          assignments && k < assignments->size() && (*assignments)[k].is_string()
              ? (*assignments)[k].get<std::string>()
              : "U";
      DrawnLine line{
          {m_vertices[edge[0].get<std::size_t>()], m_vertices[edge[1].get<std::size_t>()]},
          false,
          {letter.substr(0, 4), "", ""},
          useOf(letter),
          {}};
      if (letter == "F" || letter == "J") {
        ++m_made.unused["fold.unused/flat"];
        continue;
      }
      if (letter == "U") line.use = LineUse::Valley; // bent to both sides, or not said
      line.inside = letter == "C";
      if (bent && k < bent->size() && (*bent)[k].is_number()) {
        const double angle = (*bent)[k].get<double>();
        if (letter != "B" && letter != "C" && std::abs(angle) <= 180 &&
            std::abs(angle) > kFlat_deg) {
          line.folded_deg = 180 - std::abs(angle);
          if (letter == "U") line.use = angle > 0 ? LineUse::Valley : LineUse::Mountain;
        }
      } else if (letter == "U") {
        ++m_made.unused["fold.unused/unassigned"];
      }
      m_made.lines.push_back(std::move(line));
    }
    return {};
  }
  bool isVertex(const Json& index) const {
    return index.is_number_unsigned() && index.get<std::size_t>() < m_vertices.size();
  }

  /// The fold angles of this frame or of the first other one that has them.
  const Json* firstFolded() {
    if (const Json* own = member(m_file, "edges_foldAngle", kMostEdges)) return own;
    const Json* frames = member(m_file, "file_frames", 10'000);
    if (!frames) return nullptr;
    for (const Json& frame : *frames)
      if (frame.is_object())
        if (const Json* angles = member(frame, "edges_foldAngle", kMostEdges)) return angles;
    return nullptr;
  }

  /// Other members that say more than is taken.
  void folds() {
    for (const char* key : {"faceOrders", "edgeOrders"})
      if (m_file.contains(key)) ++m_made.unused["fold.unused/order"];
  }

  const Json& m_file;
  double m_unit_mm = 1;
  std::vector<Vec2> m_vertices;
  Drawing m_made;
};

/// Deep nesting would be read by recursion.
bool nestsTooDeep(std::string_view text) {
  std::size_t depth = 0;
  bool quoted = false;
  for (std::size_t k = 0; k < text.size(); ++k) {
    const char c = text[k];
    if (quoted) {
      if (c == '\\') ++k;
      if (c == '"') quoted = false;
    } else if (c == '"') {
      quoted = true;
    } else if (c == '[' || c == '{') {
      if (++depth > kMostDrawnDepth) return true;
    } else if ((c == ']' || c == '}') && depth > 0) {
      --depth;
    }
  }
  return false;
}

} // namespace

Result<Drawing> drawingFromFold(std::string_view text) {
  if (nestsTooDeep(text)) return Error{{"drawing.deep", kMostDrawnDepth}, ""};
  try {
    const Json file = Json::parse(text);
    return DrawingOfFold(file).run();
  } catch (const Json::out_of_range&) {
    return Error{"fold.number", ""};
  } catch (const Json::parse_error& error) {
    const auto line =
        1 +
        std::count(text.begin(),
                   text.begin() + static_cast<std::ptrdiff_t>(std::min(error.byte, text.size())),
                   '\n');
    return Error{"fold.none", fmt::format("line {}", line)};
  }
}

} // namespace hinge
