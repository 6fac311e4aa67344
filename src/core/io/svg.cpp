#include "core/io/svg.h"
#include "core/checks/finding.h"
#include "core/production/flat_piece.h"
#include "core/production/slices.h"
#include <fmt/format.h>

namespace hinge {
namespace {

constexpr double kGap_mm = 8.0;

struct Layer {
  std::string_view id, style;
  std::string body;
};

std::string escaped(std::string_view text) {
  std::string out;
  for (char c : text) {
    if (c == '<')
      out += "&lt;";
    else if (c == '&')
      out += "&amp;";
    else if (c == '"')
      out += "&quot;";
    else
      out += c;
  }
  return out;
}

} // namespace

std::string piecesToSvg(const Assembly& assembly, const Design& design) {
  const std::vector<FlatPiece> pieces = piecesToCut(assembly, design);
  double widest = 0;
  for (const FlatPiece& p : pieces)
    widest = std::max({widest, p.bounds.size().x(), p.bounds.size().y()});
  // One long sheet as wide as the widest piece needs.
  const SheetLayout layout = layOut(pieces, widest + 2 * kGap_mm, 1e6, kGap_mm, kGap_mm);
  double height = 0;
  for (const SheetPlace& place : layout.places) {
    const Box2& bounds = std::ranges::find(pieces, place.piece, &FlatPiece::piece)->bounds;
    for (const Vec2& p : {bounds.low, bounds.high})
      height = std::max(height, place.onSheet(p).y());
  }
  height += kGap_mm;

  Layer cut{"cut", R"(fill="none" stroke="#1d1b22" stroke-width="0.2")", {}};
  Layer mountain{
      "mountain",
      R"(fill="none" stroke="#8a3f12" stroke-width="0.2" stroke-dasharray="7 1.2 0.6 1.2 0.6 1.2")",
      {}};
  Layer valley{
      "valley",
      R"(fill="none" stroke="#1f5f78" stroke-width="0.2" stroke-dasharray="0.4 1.4" stroke-linecap="round")",
      {}};
  Layer glue{"glue", R"(fill="#6b8f3c" fill-opacity="0.15" stroke="none")", {}};
  Layer marks{
      "marks", R"(fill="none" stroke="#9a958c" stroke-width="0.1" stroke-dasharray="1 1")", {}};
  Layer labels{
      "labels",
      R"(font-family="Lato, sans-serif" font-size="3.2" fill="#5d574f" text-anchor="middle")",
      {}};
  for (const SheetPlace& place : layout.places) {
    const FlatPiece& piece = *std::ranges::find(pieces, place.piece, &FlatPiece::piece);
    const auto at = [&](const Vec2& p) {
      const Vec2 q = place.onSheet(p);
      return fmt::format("{},{}", formatNumber(q.x(), 4), formatNumber(height - q.y(), 4));
    };
    const auto path = [&](const std::vector<Vec2>& corners, bool closed) {
      std::string d;
      for (const Vec2& c : corners)
        d += (d.empty() ? "M" : " L") + at(c);
      return d + (closed ? " Z" : "");
    };
    const std::string key = escaped(assembly.pieces[place.piece].key);
    for (const FlatLine& line : piece.lines) {
      Layer& layer = line.kind == LineKind::Cut        ? cut
                     : line.kind == LineKind::Mountain ? mountain
                                                       : valley;
      layer.body += fmt::format("    <path data-piece=\"{}\" d=\"{}\"/>\n", key,
                                path(line.corners, line.closed));
    }
    for (const FlatArea& area : piece.glue)
      glue.body += fmt::format("    <path data-panel=\"{}\" d=\"{}\"/>\n",
                               escaped(assembly.panels[area.panel].key), path(area.outline, true));
    for (const FlatArea& area : piece.marks)
      marks.body += fmt::format("    <path data-panel=\"{}\" d=\"{}\"/>\n",
                                escaped(assembly.panels[area.panel].key), path(area.outline, true));
    for (const FlatLabel& label : piece.labels) {
      const auto& owner = assembly.pieces[label.piece].owner;
      const Vec2 q = place.onSheet(label.at);
      labels.body += fmt::format("    <text x=\"{}\" y=\"{}\">{}</text>\n", formatNumber(q.x(), 3),
                                 formatNumber(height - q.y(), 3),
                                 escaped(owner ? nameOf(design, *owner) : "card"));
    }
  }
  std::string out =
      fmt::format("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n"
                  "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}mm\" height=\"{1}mm\" "
                  "viewBox=\"0 0 {0} {1}\">\n"
                  "  <title>{2}</title>\n",
                  formatNumber(layout.width_mm, 4), formatNumber(height, 4),
                  escaped(design.title.empty() ? "Hinge Lantern pieces" : design.title));
  for (const Layer* layer : {&glue, &marks, &valley, &mountain, &cut, &labels})
    out += fmt::format("  <g id=\"{}\" {}>\n{}  </g>\n", layer->id, layer->style, layer->body);
  return out + "</svg>\n";
}

} // namespace hinge
