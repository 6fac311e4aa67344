// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/plan_drawings.h"
#include "core/production/tool_path.h"
#include "core/units/length.h"
#include "render/dxf_writing.h"
#include <QByteArray>
#include <QXmlStreamWriter>
#include <array>

namespace hinge {
namespace {

struct KindLook {
  StrokeKind kind;
  const char *colour, *dash;
  int dxfColour;
};
/// Kinds differ by pattern as well as colour.
constexpr std::array<KindLook, 4> kKinds{{{StrokeKind::ScoreMountain, "#a3472f", "6 1.5 1 1.5", 6},
                                          {StrokeKind::ScoreValley, "#8a5a00", "0.6 1.4", 30},
                                          {StrokeKind::CutInside, "#1d2733", "", 5},
                                          {StrokeKind::CutOutline, "#1d2733", "", 7}}};

QString number(double value) {
  return QString::fromStdString(formatNumber(value, 4));
}

QString pathOf(const ToolStroke& stroke, double height_mm) {
  QString d;
  for (const Vec2& p : stroke.points)
    d += QStringLiteral("%1%2,%3").arg(d.isEmpty() ? QStringLiteral("M") : QStringLiteral(" L"),
                                       number(p.x()), number(height_mm - p.y()));
  return stroke.closed ? d + QStringLiteral(" Z") : d;
}

void writeLayer(QXmlStreamWriter& xml, const KindLook& look, const std::vector<ToolStroke>& strokes,
                const LaidSheet& sheet) {
  xml.writeStartElement(QStringLiteral("g"));
  const auto key = keyOf(look.kind);
  xml.writeAttribute(QStringLiteral("id"), QString::fromUtf8(key.data(), qsizetype(key.size())));
  xml.writeAttribute(QStringLiteral("fill"), QStringLiteral("none"));
  xml.writeAttribute(QStringLiteral("stroke"), QLatin1String(look.colour));
  xml.writeAttribute(QStringLiteral("stroke-width"), QStringLiteral("0.2"));
  if (*look.dash) xml.writeAttribute(QStringLiteral("stroke-dasharray"), QLatin1String(look.dash));
  for (const ToolStroke& stroke : strokes) {
    if (stroke.kind != look.kind) continue;
    xml.writeEmptyElement(QStringLiteral("path"));
    xml.writeAttribute(QStringLiteral("data-part"), QString::number(stroke.part + 1));
    xml.writeAttribute(QStringLiteral("d"), pathOf(stroke, sheet.height_mm));
  }
  xml.writeEndElement();
}

} // namespace

std::string sheetToSvg(const CutPlan& plan, std::size_t sheet) {
  const LaidSheet& here = plan.sheets[sheet];
  const std::vector<ToolStroke> strokes = strokesOf(plan, sheet);
  QByteArray out;
  QXmlStreamWriter xml(&out);
  xml.setAutoFormatting(true);
  xml.setAutoFormattingIndent(2);
  xml.writeStartDocument();
  xml.writeStartElement(QStringLiteral("svg"));
  xml.writeDefaultNamespace(QStringLiteral("http://www.w3.org/2000/svg"));
  xml.writeAttribute(QStringLiteral("width"), number(here.width_mm) + QStringLiteral("mm"));
  xml.writeAttribute(QStringLiteral("height"), number(here.height_mm) + QStringLiteral("mm"));
  xml.writeAttribute(
      QStringLiteral("viewBox"),
      QStringLiteral("0 0 %1 %2").arg(number(here.width_mm), number(here.height_mm)));
  for (const KindLook& look : kKinds)
    writeLayer(xml, look, strokes, here);
  xml.writeEndElement();
  xml.writeEndDocument();
  return out.toStdString();
}

Result<std::string> sheetToDxf(const CutPlan& plan, std::size_t sheet) {
  const LaidSheet& here = plan.sheets[sheet];
  std::vector<DxfLayer> layers;
  for (const KindLook& look : kKinds)
    layers.push_back({std::string(keyOf(look.kind)), look.dxfColour});
  layers.push_back({"sheet", 8});
  return writtenAsDxf(layers, [&](const DxfPath& path) {
    for (const ToolStroke& stroke : strokesOf(plan, sheet))
      path(static_cast<std::size_t>(stroke.kind), stroke.points, stroke.closed);
    path(kKinds.size(),
         {{0, 0}, {here.width_mm, 0}, {here.width_mm, here.height_mm}, {0, here.height_mm}}, true);
  });
}

} // namespace hinge
