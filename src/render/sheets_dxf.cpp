// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/sheets_dxf.h"
#include "core/io/text_file.h"
#include "render/one_sheet.h"
#include <QTemporaryFile>
#include <array>
#include <dxflib/dl_dxf.h>
#include <memory>

namespace hinge {
namespace {

struct Layer {
  const char* name;
  int colour; ///< of the format's list: the programs that read it tell layers apart by it
};
/// In the order of LineKind, then glue and marks.
constexpr std::array<Layer, 5> kLayers{
    {{"cut", 7}, {"mountain", 6}, {"valley", 30}, {"glue", 94}, {"marks", 8}}};

int layerOf(LineKind kind) {
  return kind == LineKind::Cut ? 0 : kind == LineKind::Mountain ? 1 : 2;
}

class Writing {
public:
  Writing(DL_Dxf& dxf, DL_WriterA& out) : m_dxf(dxf), m_out(out) {}

  void head() {
    m_dxf.writeHeader(m_out);
    m_out.dxfString(9, "$INSUNITS");
    m_out.dxfInt(70, 4);
    m_out.sectionEnd();
    m_out.sectionTables();
    m_out.tableLayers(static_cast<int>(kLayers.size()));
    for (const Layer& layer : kLayers)
      m_dxf.writeLayer(m_out, DL_LayerData(layer.name, 0),
                       DL_Attributes("", layer.colour, 100, "CONTINUOUS", 1));
    m_out.tableEnd();
    m_out.sectionEnd();
    m_out.sectionEntities();
  }
  void path(int layer, const std::vector<Vec2>& points, bool closed) {
    const DL_Attributes look(kLayers[static_cast<std::size_t>(layer)].name, 256, -1, "BYLAYER", 1);
    m_dxf.writePolyline(
        m_out, DL_PolylineData(static_cast<int>(points.size()), 0, 0, closed ? 1 : 0), look);
    for (const Vec2& p : points)
      m_dxf.writeVertex(m_out, DL_VertexData(p.x(), p.y(), 0));
    m_dxf.writePolylineEnd(m_out);
  }
  void end() {
    m_out.sectionEnd();
    m_out.dxfEOF();
    m_out.close();
  }

private:
  DL_Dxf& m_dxf;
  DL_WriterA& m_out;
};

} // namespace

Result<std::string> piecesToDxf(const Assembly& assembly, const Design& design) {
  // The library writes files alone.
  QTemporaryFile file;
  if (!file.open()) return Error{{"file.unwritable", file.fileName().toStdString()}, ""};
  const std::string name = file.fileName().toStdString();
  DL_Dxf dxf;
  const std::unique_ptr<DL_WriterA> out(dxf.out(name.c_str(), DL_VERSION_R12));
  if (!out) return Error{{"file.unwritable", name}, ""};
  Writing writing(dxf, *out);
  writing.head();
  const OneSheet sheet(assembly, design);
  for (const SheetPlace& place : sheet.layout.places) {
    const FlatPiece& piece = sheet.pieceOf(place);
    const auto placed = [&](std::vector<Vec2> points) {
      for (Vec2& p : points)
        p = place.onSheet(p);
      return points;
    };
    for (const FlatLine& line : piece.lines)
      writing.path(layerOf(line.kind), placed(line.corners), line.closed);
    const std::pair<int, const std::vector<FlatArea>*> areas[] = {{3, &piece.glue},
                                                                  {4, &piece.marks}};
    for (const auto& [layer, all] : areas)
      for (const FlatArea& area : *all)
        for (const Polygon* ring : ringsOf(area.outline))
          writing.path(layer, placed(*ring), true);
  }
  writing.end();
  return readFile(name);
}

} // namespace hinge
