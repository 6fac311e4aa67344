// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/drawing.h"
#include "core/io/flatten.h"
#include "core/units/length.h"
#include <cmath>
#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>
#include <sstream>

// Drawings in DXF, read by libdxflib: lines, polylines with bulges, arcs, circles, ellipses,
// splines, layers, the unit of the drawing. Blocks, texts, hatches are left aside and named.

namespace hinge {
namespace {

constexpr double kUnknownUnit_mm = 1;
constexpr std::string_view kComment = "999";

double unitOf(int insunits) {
  switch (insunits) {
  case 1: return kMillimetresPerInch;
  case 2: return 12 * kMillimetresPerInch;
  case 4: return 1;
  case 5: return 10;
  case 6: return 1000;
  default: return kUnknownUnit_mm;
  }
}

class DrawingOfDxf : public DL_CreationAdapter {
public:
  Drawing made;
  double unit_mm = kUnknownUnit_mm;
  bool anything = false;
  std::size_t points = 0;

  void setVariableInt(const std::string& key, int value, int) override {
    anything = true;
    if (key == "$INSUNITS") unit_mm = unitOf(value);
  }
  void addLayer(const DL_LayerData& data) override {
    anything = true;
    const DL_Attributes& own = getAttributes();
    m_layers[data.name] = {own.getColor(), own.getLinetype()};
  }
  void addLine(const DL_LineData& d) override { add({{d.x1, d.y1}, {d.x2, d.y2}}, false); }
  void addArc(const DL_ArcData& d) override {
    double from = radians(d.angle1), to = radians(d.angle2);
    while (to <= from)
      to += 2 * kPi;
    if (!(d.radius > 0) || !(to - from < 100)) return unused("arc");
    const Vec2 middle(d.cx, d.cy);
    std::vector<Vec2> arc{middle + d.radius * Vec2(std::cos(from), std::sin(from))};
    hinge::addArc(arc, middle, {d.radius, 0}, {0, d.radius}, from, to, off());
    add(std::move(arc), false);
  }
  void addCircle(const DL_CircleData& d) override {
    if (!(d.radius > 0)) return unused("circle");
    std::vector<Vec2> rim;
    hinge::addArc(rim, {d.cx, d.cy}, {d.radius, 0}, {0, d.radius}, 0, 2 * kPi, off());
    add(std::move(rim), true);
  }
  void addEllipse(const DL_EllipseData& d) override {
    const Vec2 x(d.mx, d.my), y = d.ratio * Vec2(-d.my, d.mx);
    double from = d.angle1, to = d.angle2;
    if (!(std::abs(from) < 100) || !(std::abs(to) < 100)) return unused("ellipse");
    while (to <= from)
      to += 2 * kPi;
    std::vector<Vec2> arc{Vec2(d.cx, d.cy) + std::cos(from) * x + std::sin(from) * y};
    hinge::addArc(arc, {d.cx, d.cy}, x, y, from, to, off());
    const bool whole = to - from > 2 * kPi - 1e-6;
    if (whole) arc.pop_back();
    add(std::move(arc), whole);
  }
  void addPolyline(const DL_PolylineData& d) override {
    flush();
    m_open = true, m_closed = d.flags & 1, m_look = look();
    m_sequence = d.number == 0; // its vertices come as entities of their own
  }
  void addVertex(const DL_VertexData& d) override {
    if (m_open && m_vertices.size() < kMostDrawnPoints) m_vertices.push_back({{d.x, d.y}, d.bulge});
  }
  void addSpline(const DL_SplineData& d) override {
    flush();
    m_spline = true, m_degree = static_cast<int>(d.degree), m_look = look();
    m_closed = d.flags & 1;
  }
  void addControlPoint(const DL_ControlPointData& d) override {
    if (m_spline && m_control.size() < kMostDrawnPoints) m_control.push_back({d.x, d.y});
  }
  void addKnot(const DL_KnotData& d) override {
    if (m_spline && m_knots.size() < kMostDrawnPoints) m_knots.push_back(d.k);
  }
  void endEntity() override {
    if (!(m_open && m_sequence)) flush();
  }
  void endSequence() override { flush(); }
  void addInsert(const DL_InsertData&) override { unused("block"); }
  void addText(const DL_TextData&) override { unused("text"); }
  void addMText(const DL_MTextData&) override { unused("text"); }
  void addHatch(const DL_HatchData&) override { unused("hatch"); }
  void addPoint(const DL_PointData&) override { unused("point"); }
  void addSolid(const DL_SolidData&) override { unused("solid"); }
  void addImage(const DL_ImageData&) override { unused("image"); }
  void addDimLinear(const DL_DimensionData&, const DL_DimLinearData&) override {
    unused("dimension");
  }
  void addDimAlign(const DL_DimensionData&, const DL_DimAlignedData&) override {
    unused("dimension");
  }

  void flush() {
    if (m_open && m_vertices.size() > 1) {
      std::vector<Vec2> path{m_vertices.front().first};
      for (std::size_t k = 0; k + (m_closed ? 0 : 1) < m_vertices.size(); ++k) {
        const auto& [from, bulge] = m_vertices[k];
        addBulge(path, from, m_vertices[(k + 1) % m_vertices.size()].first, bulge, off());
      }
      if (m_closed) path.pop_back();
      add(std::move(path), m_closed, m_look);
    }
    if (m_spline && m_control.size() > 1) {
      std::vector<Vec2> path;
      hinge::addSpline(path, m_control, m_knots, m_degree, off());
      add(std::move(path), false, m_look);
    }
    m_open = m_spline = m_closed = m_sequence = false;
    m_vertices.clear(), m_control.clear(), m_knots.clear();
  }

private:
  double off() const { return kChordOff_mm / unit_mm; }
  void unused(const std::string& what) {
    anything = true;
    ++made.unused["dxf.unused/" + what];
  }
  LineLook look() {
    const DL_Attributes own = getAttributes();
    int colour = own.getColor();
    std::string dash = own.getLinetype();
    if (const auto layer = m_layers.find(own.getLayer()); layer != m_layers.end()) {
      if (colour == 256) colour = layer->second.first;
      if (dash == "BYLAYER") dash = layer->second.second;
    }
    if (dash == "CONTINUOUS" || dash == "Continuous" || dash == "BYLAYER") dash.clear();
    return {own.getLayer(), colour == 256 || colour == 0 ? "" : std::to_string(colour), dash};
  }
  void add(std::vector<Vec2> path, bool closed) { add(std::move(path), closed, look()); }
  void add(std::vector<Vec2> path, bool closed, const LineLook& look) {
    anything = true;
    points += path.size();
    if (points <= kMostDrawnPoints && path.size() > 1)
      made.lines.push_back({std::move(path), closed, look, {}, {}});
  }

  std::map<std::string, std::pair<int, std::string>> m_layers;
  std::vector<std::pair<Vec2, double>> m_vertices;
  std::vector<Vec2> m_control;
  std::vector<double> m_knots;
  LineLook m_look;
  int m_degree = 3;
  bool m_open = false, m_spline = false, m_closed = false, m_sequence = false;
};

/// The library reads pairs of lines, a number and a value, and takes what it finds for granted: the
/// first pair that is none is told, so that it never sees it. Comments are left out: it looks for
/// its own version in them and trusts what it finds. Nothing is kept behind a broken pair.
std::optional<std::size_t> brokenLine(std::string_view text, std::string& kept) {
  std::size_t number = 0;
  while (!text.empty()) {
    const std::size_t end = std::min(text.find('\n'), text.size());
    std::string_view code = text.substr(0, end);
    ++number;
    const std::size_t from = code.find_first_not_of(" \t\r");
    if (from == std::string_view::npos) {
      if (end + 1 >= text.size()) return std::nullopt; // an empty last line
      return number;
    }
    code = code.substr(from, code.find_last_not_of(" \t\r") - from + 1);
    if (code.size() > 6 || code.find_first_not_of("-0123456789") != std::string_view::npos)
      return number;
    text.remove_prefix(std::min(end + 1, text.size()));
    if (text.empty()) return number;
    const std::size_t next = std::min(text.find('\n'), text.size() - 1) + 1;
    if (code != kComment) {
      kept.append(code).append("\n").append(text.substr(0, next));
      if (kept.back() != '\n') kept += '\n';
    }
    text.remove_prefix(next);
    ++number;
  }
  return std::nullopt;
}

} // namespace

Result<Drawing> drawingFromDxf(std::string_view text) {
  if (text.find('\0') != std::string_view::npos) return Error{"dxf.binary", ""};
  std::string kept;
  if (const auto line = brokenLine(text, kept))
    return Error{"dxf.broken", "line " + std::to_string(*line)};
  DrawingOfDxf reading;
  std::istringstream stream{std::move(kept)};
  DL_Dxf dxf;
  try {
    if (!dxf.in(stream, &reading)) return Error{"dxf.none", ""};
  } catch (const std::exception&) { // what it does not expect it lets fall
    return Error{"dxf.none", ""};
  }
  reading.flush();
  if (!reading.anything) return Error{"dxf.none", ""};
  if (reading.points > kMostDrawnPoints) return Error{{"drawing.large", kMostDrawnPoints}, ""};
  for (DrawnLine& line : reading.made.lines)
    for (Vec2& p : line.points) {
      p *= reading.unit_mm;
      if (!(p.cwiseAbs().maxCoeff() <= kFarthestDrawn_mm))
        return Error{{"drawing.far", Millimetres{kFarthestDrawn_mm}}, ""};
    }
  return std::move(reading.made);
}

} // namespace hinge
