// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/sheets_svg.h"
#include "core/paper/line_code.h"
#include "core/production/labels.h"
#include "core/structures/names.h"
#include "render/one_sheet.h"
#include "words/words.h"
#include <QXmlStreamWriter>
#include <fmt/format.h>
#include <map>

namespace hinge {
namespace {

/// Layers in the order in which they are drawn.
enum class Layer { Glue, Marks, Valley, Mountain, Cut, Labels };

struct LayerStyle {
  Layer layer;
  const char* id;
  std::vector<std::pair<const char*, const char*>> attributes;
};

const std::vector<LayerStyle>& layerStyles() {
  using namespace line_code;
  static const std::vector<LayerStyle> all{
      {Layer::Glue, "glue", {{"fill", kGlue}, {"fill-opacity", "0.15"}, {"stroke", "none"}}},
      {Layer::Marks,
       "marks",
       {{"fill", "none"}, {"stroke", kMark}, {"stroke-width", "0.1"}, {"stroke-dasharray", "1 1"}}},
      {Layer::Valley,
       "valley",
       {{"fill", "none"},
        {"stroke", kValley},
        {"stroke-width", "0.2"},
        {"stroke-dasharray", "0.4 1.4"},
        {"stroke-linecap", "round"}}},
      {Layer::Mountain,
       "mountain",
       {{"fill", "none"},
        {"stroke", kMountain},
        {"stroke-width", "0.2"},
        {"stroke-dasharray", "7 1.2 0.6 1.2 0.6 1.2"}}},
      {Layer::Cut, "cut", {{"fill", "none"}, {"stroke", kCut}, {"stroke-width", "0.2"}}},
      {Layer::Labels,
       "labels",
       {{"font-family", "Lato, sans-serif"},
        {"fill", kText},
        {"text-anchor", "middle"},
        {"dominant-baseline", "central"}}}};
  return all;
}

/// A path with the key of what it belongs to, or a name at a point.
struct Element {
  const char* keyName = nullptr; ///< "data-piece", "data-panel"; of a text: null
  std::string key, path;
  Vec2 at = Vec2::Zero();
  double height_mm = 0;
  bool upwards = false;
};

/// Puts the pieces into layers, y downwards from the upper edge of the drawing.
class Drawing {
public:
  Drawing(const Assembly& assembly, const Design& design)
      : m_assembly(assembly), m_design(design), m_sheet(assembly, design) {
    for (const SheetPlace& place : m_sheet.layout.places)
      add(place);
  }
  double width_mm() const { return m_sheet.layout.width_mm; }
  double height_mm() const { return m_sheet.height_mm; }
  const std::vector<Element>& in(Layer layer) { return m_layers[layer]; }

private:
  Vec2 onDrawing(const SheetPlace& place, const Vec2& p) const {
    const Vec2 q = place.onSheet(p);
    return {q.x(), m_sheet.height_mm - q.y()};
  }
  std::string path(const SheetPlace& place, const std::vector<Vec2>& corners, bool closed) const {
    std::string d;
    for (const Vec2& c : corners) {
      const Vec2 q = onDrawing(place, c);
      d += fmt::format("{}{},{}", d.empty() ? "M" : " L", formatNumber(q.x(), 4),
                       formatNumber(q.y(), 4));
    }
    return d + (closed ? " Z" : "");
  }
  std::string path(const SheetPlace& place, const Region& region) const {
    std::string d;
    for (const Polygon* ring : ringsOf(region))
      d += (d.empty() ? "" : " ") + path(place, *ring, true);
    return d;
  }
  void add(const SheetPlace& place) {
    const FlatPiece& piece = m_sheet.pieceOf(place);
    const std::string& key = m_assembly.pieces[place.piece].key;
    for (const FlatLine& line : piece.lines) {
      const Layer layer = line.kind == LineKind::Cut        ? Layer::Cut
                          : line.kind == LineKind::Mountain ? Layer::Mountain
                                                            : Layer::Valley;
      m_layers[layer].push_back({"data-piece", key, path(place, line.corners, line.closed)});
    }
    const auto areas = [&](Layer layer, const std::vector<FlatArea>& all) {
      for (const FlatArea& area : all)
        m_layers[layer].push_back(
            {"data-panel", m_assembly.panels[area.panel].key, path(place, area.outline)});
    };
    areas(Layer::Glue, piece.glue);
    areas(Layer::Marks, piece.marks);
    for (const FlatLabel& label : piece.labels) {
      const std::string text = label.panel.valid()
                                   ? panelLetter(m_assembly, label.panel)
                                   : say(pieceName(m_design, m_assembly, label.piece));
      const auto lettering = letteringOf(label, text.size());
      if (!lettering) continue;
      // Turned with the piece, but never upside down.
      const bool upwards = !label.panel.valid() && lettering->upwards != place.turned;
      m_layers[Layer::Labels].push_back(
          {nullptr, text, "", onDrawing(place, label.at), lettering->height_mm, upwards});
    }
  }

  const Assembly& m_assembly;
  const Design& m_design;
  const OneSheet m_sheet;
  std::map<Layer, std::vector<Element>> m_layers;
};

QString number(double value, int decimals) {
  return QString::fromStdString(formatNumber(value, decimals));
}

void write(QXmlStreamWriter& xml, const Element& element) {
  const QString key = QString::fromStdString(element.key);
  if (element.keyName) {
    xml.writeEmptyElement(QStringLiteral("path"));
    xml.writeAttribute(QLatin1String(element.keyName), key);
    xml.writeAttribute(QStringLiteral("d"), QString::fromStdString(element.path));
    return;
  }
  xml.writeStartElement(QStringLiteral("text"));
  xml.writeAttribute(QStringLiteral("x"), number(element.at.x(), 3));
  xml.writeAttribute(QStringLiteral("y"), number(element.at.y(), 3));
  xml.writeAttribute(QStringLiteral("font-size"), number(element.height_mm, 2));
  if (element.upwards)
    xml.writeAttribute(QStringLiteral("transform"),
                       QStringLiteral("rotate(-90 %1 %2)")
                           .arg(number(element.at.x(), 3), number(element.at.y(), 3)));
  xml.writeCharacters(key);
  xml.writeEndElement();
}

} // namespace

std::string piecesToSvg(const Assembly& assembly, const Design& design) {
  Drawing drawing(assembly, design);
  QByteArray out;
  QXmlStreamWriter xml(&out);
  xml.setAutoFormatting(true);
  xml.setAutoFormattingIndent(2);
  xml.writeStartDocument();
  xml.writeStartElement(QStringLiteral("svg"));
  xml.writeDefaultNamespace(QStringLiteral("http://www.w3.org/2000/svg"));
  const QString width = number(drawing.width_mm(), 4), height = number(drawing.height_mm(), 4);
  xml.writeAttribute(QStringLiteral("width"), width + QStringLiteral("mm"));
  xml.writeAttribute(QStringLiteral("height"), height + QStringLiteral("mm"));
  xml.writeAttribute(QStringLiteral("viewBox"), QStringLiteral("0 0 %1 %2").arg(width, height));
  xml.writeTextElement(
      QStringLiteral("title"),
      QString::fromStdString(design.title.empty() ? "Hinge Lantern pieces" : design.title));
  for (const LayerStyle& style : layerStyles()) {
    xml.writeStartElement(QStringLiteral("g"));
    xml.writeAttribute(QStringLiteral("id"), QLatin1String(style.id));
    for (const auto& [name, value] : style.attributes)
      xml.writeAttribute(QLatin1String(name), QLatin1String(value));
    for (const Element& element : drawing.in(style.layer))
      write(xml, element);
    xml.writeEndElement();
  }
  xml.writeEndElement();
  xml.writeEndDocument();
  return out.toStdString();
}

} // namespace hinge
