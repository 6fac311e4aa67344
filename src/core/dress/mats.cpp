// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/dress/mats.h"
#include "core/geom/congruent.h"
#include <algorithm>
#include <cmath>
#include <map>

namespace hinge {
namespace {

constexpr double kEqual_mm = 0.05, kEqual_rad = radians(0.5);

/// Whether a pattern that points one way comes to point another by this congruence.
bool keepsPattern(PatternWay way, const Congruence& by, double up_rad, double other_rad) {
  if (way == PatternWay::None) return true;
  const Vec2 up(std::cos(up_rad), std::sin(up_rad));
  const Vec2 turned = by(up) - by(Vec2::Zero());
  const double apart = std::remainder(std::atan2(turned.y(), turned.x()) - other_rad,
                                      way == PatternWay::Both ? kPi : 2 * kPi);
  return std::abs(apart) < kEqual_rad;
}

class Listing {
public:
  explicit Listing(const Design& design) : m_design(design) {}

  void add(const CutLayer& layer, const Region& part, const MatPlace& place) {
    const Paper* paper = m_design.findPaper(layer.paper);
    const PatternWay way = paper && paper->patterned() ? paper->way : PatternWay::None;
    for (MatLine& line : lines) {
      if (line.paper != layer.paper) continue;
      if (const auto mirrored = equal(line, part, layer.up_rad, way)) {
        line.places.push_back(place);
        line.places.back().mirrored = line.handed && *mirrored;
        return;
      }
    }
    MatLine line{layer.paper, part, layer.up_rad, !(paper && paper->twoSided()), {place}};
    if (line.handed) {
      const auto own = congruences(part, part, kEqual_mm);
      line.handed = std::ranges::none_of(own, [&](const Congruence& by) {
        return by.mirrored && keepsPattern(way, by, layer.up_rad, layer.up_rad);
      });
    }
    lines.push_back(std::move(line));
  }

  std::vector<MatLine> lines;

private:
  /// Whether it is turned over beside the first of the line; nothing when it is another shape.
  static std::optional<bool> equal(const MatLine& line, const Region& part, double up_rad,
                                   PatternWay way) {
    std::optional<bool> mirrored;
    for (const Congruence& by : congruences(line.outline, part, kEqual_mm))
      if (keepsPattern(way, by, line.up_rad, up_rad) && (!mirrored || !by.mirrored))
        mirrored = by.mirrored;
    return mirrored;
  }

  const Design& m_design;
};

} // namespace

int MatLine::left() const {
  return static_cast<int>(
      std::ranges::count_if(places, [](const MatPlace& place) { return !place.mirrored; }));
}

std::vector<MatLine> matList(const Design& design, const std::vector<DressedFace>& dressed) {
  Listing listing(design);
  for (const DressedFace& face : dressed)
    for (const CutLayer& layer : face.layers)
      for (const Region& part : layer.parts)
        listing.add(layer, part, {face.face, layer.layer, false});
  return std::move(listing.lines);
}

std::vector<PaperNeed> paperNeeds(const Design& design, const Assembly& assembly,
                                  const std::vector<MatLine>& mats) {
  std::map<std::string, PaperNeed> needs;
  std::map<std::string, Vec2> largest;
  const auto count = [&](const std::string& paper, double area, const Vec2& size) {
    PaperNeed& need = needs[paper];
    need.paper = paper, need.area_mm2 += area;
    Vec2& most = largest.try_emplace(paper, Vec2::Zero()).first->second;
    most = most.cwiseMax(Vec2(size.maxCoeff(), size.minCoeff()));
  };
  for (PieceIndex p : assembly.pieces.indices()) {
    const Piece& piece = assembly.pieces[p];
    Box2 box;
    double area = 0;
    for (PanelIndex panel : piece.panels)
      box.add(boundsOf(assembly.panels[panel].outline)),
          area += area_mm2(assembly.panels[panel].outline);
    const std::string& paper = piece.paper;
    count(paper, area, box.size());
    ++needs[paper].pieces;
  }
  for (const MatLine& line : mats)
    for (int k = 0; k < line.count(); ++k) {
      count(line.paper, area_mm2(line.outline), line.size_mm());
      ++needs[line.paper].mats;
    }
  const SheetSize& usual = sheetByKey(design.settings.sheet);
  std::vector<PaperNeed> all;
  for (const Paper& paper : design.papers) {
    const auto found = needs.find(paper.key);
    if (found == needs.end()) continue;
    PaperNeed need = found->second;
    std::vector<SheetsAtHand> sheets = paper.sheets;
    if (sheets.empty()) sheets.push_back({usual.width_mm, usual.height_mm, {}});
    double sheetArea = 0;
    need.tooLarge = true;
    for (const SheetsAtHand& sheet : sheets) {
      sheetArea = std::max(sheetArea, sheet.width_mm * sheet.height_mm);
      const Vec2 size(std::max(sheet.width_mm, sheet.height_mm),
                      std::min(sheet.width_mm, sheet.height_mm));
      if ((largest[paper.key] - size).maxCoeff() < kEqual_mm) need.tooLarge = false;
      if (sheet.count) need.atHand = need.atHand.value_or(0) + *sheet.count;
    }
    need.sheetsAtLeast = static_cast<int>(std::ceil(need.area_mm2 / sheetArea));
    all.push_back(need);
  }
  return all;
}

} // namespace hinge
