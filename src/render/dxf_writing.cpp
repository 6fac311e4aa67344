// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/dxf_writing.h"
#include "core/io/text_file.h"
#include <QTemporaryFile>
#include <dxflib/dl_dxf.h>
#include <memory>

namespace hinge {
namespace {

void writeHead(DL_Dxf& dxf, DL_WriterA& out, const std::vector<DxfLayer>& layers) {
  dxf.writeHeader(out);
  out.dxfString(9, "$INSUNITS");
  out.dxfInt(70, 4);
  out.sectionEnd();
  out.sectionTables();
  out.tableLayers(static_cast<int>(layers.size()));
  for (const DxfLayer& layer : layers)
    dxf.writeLayer(out, DL_LayerData(layer.name, 0),
                   DL_Attributes("", layer.colour, 100, "CONTINUOUS", 1));
  out.tableEnd();
  out.sectionEnd();
  out.sectionEntities();
}

} // namespace

Result<std::string> writtenAsDxf(const std::vector<DxfLayer>& layers,
                                 const std::function<void(const DxfPath&)>& draw) {
  // The library writes files alone.
  QTemporaryFile file;
  if (!file.open()) return Error{{"file.unwritable", file.fileName().toStdString()}, ""};
  const std::string name = file.fileName().toStdString();
  DL_Dxf dxf;
  const std::unique_ptr<DL_WriterA> out(dxf.out(name.c_str(), DL_VERSION_R12));
  if (!out) return Error{{"file.unwritable", name}, ""};
  writeHead(dxf, *out, layers);
  draw([&](std::size_t layer, const std::vector<Vec2>& points, bool closed) {
    const DL_Attributes look(layers[layer].name, 256, -1, "BYLAYER", 1);
    dxf.writePolyline(*out, DL_PolylineData(static_cast<int>(points.size()), 0, 0, closed ? 1 : 0),
                      look);
    for (const Vec2& p : points)
      dxf.writeVertex(*out, DL_VertexData(p.x(), p.y(), 0));
    dxf.writePolylineEnd(*out);
  });
  out->sectionEnd();
  out->dxfEOF();
  out->close();
  return readFile(name);
}

} // namespace hinge
