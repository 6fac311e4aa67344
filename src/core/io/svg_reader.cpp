// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/drawing.h"
#include "core/io/flatten.h"
#include "core/io/svg_path.h"
#include "core/units/length.h"
#include <QXmlStreamReader>
#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

// Drawings in SVG 1.1: shapes, paths, groups, transforms, units. What is no line (text, pictures,
// references, scripts) is left aside and named.

namespace hinge {
namespace {

constexpr double kPixel_mm = kMillimetresPerInch / 96;

std::string utf8(QStringView text) {
  return text.toUtf8().toStdString();
}

/// "210mm", "8.5in", "96" (pixels); nothing for per cents and other units.
std::optional<double> lengthOf(const std::string& text, double pixel_mm = kPixel_mm) {
  const auto numbers = svgNumbers(text);
  if (numbers.empty()) return std::nullopt;
  const std::size_t end = text.find_last_of("0123456789.");
  std::string unit = text.substr(end == std::string::npos ? 0 : end + 1);
  std::erase(unit, ' ');
  static constexpr std::pair<std::string_view, double> kUnits[] = {{"mm", 1},
                                                                   {"cm", 10},
                                                                   {"in", kMillimetresPerInch},
                                                                   {"pt", kMillimetresPerInch / 72},
                                                                   {"pc", kMillimetresPerInch / 6}};
  if (unit.empty() || unit == "px") return numbers.front() * pixel_mm;
  for (const auto& [name, mm] : kUnits)
    if (unit == name) return numbers.front() * mm;
  return std::nullopt;
}

/// What a group hands on to what it holds.
struct Context {
  SvgMap toDrawing; ///< into mm, y down
  LineLook look;
  bool hidden = false, stroked = false, filled = true;
};

class DrawingOfSvg {
public:
  explicit DrawingOfSvg(std::string_view text)
      : m_xml(QByteArray(text.data(), static_cast<qsizetype>(text.size()))) {}

  Result<Drawing> run() {
    bool root = false;
    while (!m_xml.atEnd()) {
      switch (m_xml.readNext()) {
      case QXmlStreamReader::StartElement:
        if (!root && m_xml.name() != QStringLiteral("svg")) return fail("svg.none");
        root = true;
        if (m_open.size() > kMostDrawnDepth) return fail({"drawing.deep", kMostDrawnDepth});
        start();
        break;
      case QXmlStreamReader::EndElement:
        if (!m_open.empty()) m_open.pop_back();
        break;
      case QXmlStreamReader::Characters:
        if (m_inStyle) readStyles(utf8(m_xml.text()));
        break;
      default: break;
      }
      if (m_error) return *m_error;
      if (m_points > kMostDrawnPoints) return fail({"drawing.large", kMostDrawnPoints});
    }
    if (m_xml.hasError()) return fail({"svg.broken", utf8(m_xml.errorString())});
    if (!root) return fail("svg.none");
    // Up is up from here on.
    for (DrawnLine& line : m_made.lines)
      for (Vec2& p : line.points) {
        p.y() = m_height - p.y();
        if (!(p.cwiseAbs().maxCoeff() <= kFarthestDrawn_mm))
          return Error{{"drawing.far", Millimetres{kFarthestDrawn_mm}}, ""};
      }
    return std::move(m_made);
  }

private:
  Error fail(Text why) const {
    return {std::move(why), fmt::format("line {}", m_xml.lineNumber())};
  }
  void refuse(Text why) {
    if (!m_error) m_error = fail(std::move(why));
  }
  std::string attribute(const char* name) const {
    return utf8(m_xml.attributes().value(QLatin1String(name)));
  }
  void unused(const std::string& what) { ++m_made.unused["svg.unused/" + what]; }

  // --- looks ---------------------------------------------------------------------------------
  /// A property as an attribute, in the style, or by a class; the style wins.
  std::string property(const std::string& name) const {
    if (auto own = inStyle(attribute("style"), name); !own.empty()) return own;
    const std::string classes = attribute("class");
    for (std::size_t from = 0; from < classes.size();) {
      const std::size_t end = std::min(classes.find(' ', from), classes.size());
      if (const auto found = m_styles.find(classes.substr(from, end - from));
          found != m_styles.end())
        if (auto own = inStyle(found->second, name); !own.empty()) return own;
      from = end + 1;
    }
    return attribute(name.c_str());
  }
  static std::string trimmed(std::string_view text) {
    const std::size_t from = text.find_first_not_of(" \t\r\n");
    if (from == std::string_view::npos) return {};
    return std::string(text.substr(from, text.find_last_not_of(" \t\r\n") - from + 1));
  }
  static std::string inStyle(std::string_view style, std::string_view name) {
    while (!style.empty()) {
      const std::size_t end = std::min(style.find(';'), style.size());
      const std::string_view one = style.substr(0, end);
      if (const std::size_t colon = one.find(':'); colon != std::string_view::npos)
        if (trimmed(one.substr(0, colon)) == name) return trimmed(one.substr(colon + 1));
      style.remove_prefix(std::min(end + 1, style.size()));
    }
    return {};
  }
  /// ".fold { stroke: red }": classes alone, the rest of CSS is left aside.
  void readStyles(std::string_view text) {
    while (true) {
      const std::size_t open = text.find('{');
      const std::size_t shut = open == std::string_view::npos ? open : text.find('}', open);
      if (shut == std::string_view::npos) return;
      const std::string selector = trimmed(text.substr(0, open));
      if (selector.starts_with('.') && selector.find_first_of(" ,>:#") == std::string::npos)
        m_styles[selector.substr(1)] = std::string(text.substr(open + 1, shut - open - 1));
      else
        unused("style");
      text.remove_prefix(shut + 1);
    }
  }
  static std::string colourOf(std::string text) {
    std::ranges::transform(text, text.begin(), [](unsigned char c) { return std::tolower(c); });
    if (text.size() == 4 && text[0] == '#')
      return {'#', text[1], text[1], text[2], text[2], text[3], text[3]};
    return text;
  }

  Context inherited() {
    Context own = m_open.empty() ? Context{{}, {}, false, false, true} : m_open.back();
    if (const auto stroke = property("stroke"); !stroke.empty()) {
      own.stroked = stroke != "none";
      own.look.colour = own.stroked ? colourOf(stroke) : "";
    }
    if (const auto fill = property("fill"); !fill.empty()) own.filled = fill != "none";
    if (const auto dash = property("stroke-dasharray"); !dash.empty())
      own.look.dash = dash == "none" ? "" : dash;
    own.hidden = own.hidden || property("display") == "none" || property("visibility") == "hidden";
    if (const std::string map = attribute("transform"); !map.empty()) {
      if (const auto read = svgTransform(map))
        own.toDrawing = own.toDrawing * *read;
      else
        refuse({"svg.transform", map.substr(0, 60)});
    }
    return own;
  }

  // --- elements ------------------------------------------------------------------------------
  void start() {
    const std::string name = utf8(m_xml.name());
    Context own = inherited();
    m_inStyle = name == "style";
    if (name == "svg") {
      ownPage(own);
    } else if (name == "g") {
      const std::string label = layerName();
      if (!label.empty()) own.look.layer = label;
    } else if (name == "defs" || name == "symbol" || name == "clipPath" || name == "mask" ||
               name == "pattern" || name == "marker") {
      own.hidden = true;
      if (name != "defs") unused(name == "clipPath" ? "clip" : name);
    } else if (name == "use" || name == "image" || name == "text" || name == "script" ||
               name == "foreignObject") {
      if (!own.hidden) unused(name);
      own.hidden = true;
    } else if (!own.hidden) {
      shape(name, own);
    }
    m_open.push_back(own);
  }

  /// Programs for drawing keep the name of a layer as its label, in a namespace of their own.
  std::string layerName() const {
    for (const QXmlStreamAttribute& one : m_xml.attributes())
      if (one.name() == QLatin1String("label") && !one.namespaceUri().isEmpty())
        return utf8(one.value());
    return attribute("id");
  }

  /// Width, height and viewBox of the outermost drawing, or of one inside.
  void ownPage(Context& own) {
    const auto box = svgNumbers(attribute("viewBox"));
    const double givenWidth = lengthOf(attribute("width")).value_or(0),
                 givenHeight = lengthOf(attribute("height")).value_or(0);
    const bool hasBox = box.size() == 4 && box[2] > 0 && box[3] > 0;
    if (!m_open.empty()) {
      const double x = lengthOf(attribute("x"), 1).value_or(0),
                   y = lengthOf(attribute("y"), 1).value_or(0);
      own.toDrawing = own.toDrawing * SvgMap{1, 0, 0, 1, x, y};
      return unused("page");
    }
    double width = givenWidth, height = givenHeight;
    if (hasBox && width <= 0) width = height > 0 ? height * box[2] / box[3] : box[2] * kPixel_mm;
    if (hasBox && height <= 0) height = width * box[3] / box[2];
    m_height = height;
    double scale = kPixel_mm;
    if (hasBox) {
      scale = std::min(width / box[2], height / box[3]); // as wide as fits, in the middle
      own.toDrawing = SvgMap{scale,
                             0,
                             0,
                             scale,
                             0.5 * (width - scale * box[2]) - scale * box[0],
                             0.5 * (height - scale * box[3]) - scale * box[1]} *
                      own.toDrawing;
    } else {
      own.toDrawing = SvgMap{scale, 0, 0, scale, 0, 0} * own.toDrawing;
    }
  }

  void shape(const std::string& name, const Context& own) {
    const auto number = [&](const char* key) {
      const std::string text = attribute(key);
      return text.empty() ? 0.0 : lengthOf(text, 1).value_or(0);
    };
    const double off = kChordOff_mm / std::max(own.toDrawing.scale(), 1e-6);
    if (name == "path") {
      std::optional<std::size_t> wrong;
      for (SvgStretch& stretch : svgPath(attribute("d"), off, wrong))
        add(std::move(stretch.points), stretch.closed, own);
      if (wrong) refuse({"svg.path", *wrong + 1});
    } else if (name == "line") {
      add({{number("x1"), number("y1")}, {number("x2"), number("y2")}}, false, own);
    } else if (name == "polyline" || name == "polygon") {
      const auto n = svgNumbers(attribute("points"));
      std::vector<Vec2> points;
      for (std::size_t k = 0; k + 1 < n.size(); k += 2)
        points.push_back({n[k], n[k + 1]});
      add(std::move(points), name == "polygon", own);
    } else if (name == "rect") {
      rect(number("x"), number("y"), number("width"), number("height"), number("rx"), number("ry"),
           off, own);
    } else if (name == "circle" || name == "ellipse") {
      const double rx = name == "circle" ? number("r") : number("rx"),
                   ry = name == "circle" ? rx : number("ry");
      if (rx <= 0 || ry <= 0) return;
      std::vector<Vec2> points;
      addArc(points, {number("cx"), number("cy")}, {rx, 0}, {0, ry}, 0, 2 * kPi, off);
      add(std::move(points), true, own);
    } else if (name != "title" && name != "desc" && name != "metadata" && name != "style" &&
               m_xml.namespaceUri().contains(QLatin1String("svg"))) {
      unused("other");
    }
  }

  void rect(double x, double y, double w, double h, double rx, double ry, double off,
            const Context& own) {
    if (w <= 0 || h <= 0) return;
    if (rx <= 0) rx = ry;
    if (ry <= 0) ry = rx;
    rx = std::min(rx, 0.5 * w), ry = std::min(ry, 0.5 * h);
    std::vector<Vec2> points;
    if (rx <= 0 || ry <= 0) {
      points = {{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}};
    } else {
      const Vec2 ax(rx, 0), ay(0, ry);
      const std::array<Vec2, 4> middles{Vec2(x + w - rx, y + ry), Vec2(x + w - rx, y + h - ry),
                                        Vec2(x + rx, y + h - ry), Vec2(x + rx, y + ry)};
      for (int k = 0; k < 4; ++k) {
        const double from = (k - 1) * 0.5 * kPi;
        const Vec2& m = middles[static_cast<std::size_t>(k)];
        points.push_back(m + std::cos(from) * ax + std::sin(from) * ay);
        addArc(points, m, ax, ay, from, from + 0.5 * kPi, off);
      }
    }
    add(std::move(points), true, own);
  }

  void add(std::vector<Vec2> points, bool closed, const Context& own) {
    if (points.size() < 2 || (!own.stroked && !own.filled)) return;
    m_points += points.size();
    for (Vec2& p : points)
      p = own.toDrawing * p;
    DrawnLine line{std::move(points), closed, own.look, {}, {}};
    // A plain area without a line round it is cut out as it is.
    if (!own.stroked && own.filled) line.closed = true;
    m_made.lines.push_back(std::move(line));
  }

  QXmlStreamReader m_xml;
  Drawing m_made;
  std::vector<Context> m_open;
  std::map<std::string, std::string> m_styles;
  std::optional<Error> m_error;
  std::size_t m_points = 0;
  double m_height = 0;
  bool m_inStyle = false;
};

} // namespace

Result<Drawing> drawingFromSvg(std::string_view text) {
  return DrawingOfSvg(text).run();
}

} // namespace hinge
