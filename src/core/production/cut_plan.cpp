// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/production/cut_plan.h"
#include "core/paper/sheet_size.h"
#include "core/production/packing.h"
#include "core/production/slices.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace hinge {
namespace {

constexpr int kEndless = 100000; ///< sheets, where nobody counts them

/// Wide sheets of strips are no longer than makers handle.
constexpr double kWidest_mm = 300;

unsigned turnsOn(const Paper* paper) {
  if (!paper) return 0b1111;
  if (paper->way == PatternWay::Both) return 0b0001;
  const bool oneWay = paper->way == PatternWay::Along || paper->grain != Grain::Unknown;
  return oneWay ? 0b0101 : 0b1111;
}

CutPart pieceToCut(const Design& design, const FlatPiece& flat, int card) {
  CutPart part;
  part.flat = flat, part.key = fmt::format("piece-{}", flat.piece.value + 1);
  if (flat.part > 0) part.key += fmt::format("/{}", flat.part);
  part.paper = flat.paper, part.card = card;
  part.outline = paperOf(flat);
  part.turns = turnsOn(design.findPaper(flat.paper));
  return part;
}

/// A layer, with the upright of its pattern along y.
CutPart layerToCut(const Design& design, const MatLine& line, std::size_t number,
                   const MatPlace& place, int card) {
  CutPart part;
  part.key = fmt::format("layer-{}", number), part.mat = number, part.card = card;
  part.mirrored = place.mirrored, part.paper = line.paper;
  const double turn = 0.5 * kPi - line.up_rad;
  const auto lies = [&](const Vec2& p) {
    const Vec2 hand = place.mirrored ? Vec2(-p.x(), p.y()) : p;
    const double by = place.mirrored ? -turn : turn;
    return Vec2(std::cos(by) * hand.x() - std::sin(by) * hand.y(),
                std::sin(by) * hand.x() + std::cos(by) * hand.y());
  };
  const auto ring = [&](const Polygon& corners) {
    Polygon out;
    for (const Vec2& p : corners)
      out.push_back(lies(p));
    if (place.mirrored) std::ranges::reverse(out);
    return out;
  };
  part.outline.rim = ring(line.outline.rim);
  for (const Polygon& hole : line.outline.holes)
    part.outline.holes.push_back(ring(hole));
  for (const Polygon* edge : ringsOf(part.outline))
    part.flat.lines.push_back({LineKind::Cut, *edge, true});
  part.flat.bounds = boundsOf(part.outline), part.flat.paper = line.paper;
  part.turns = turnsOn(design.findPaper(line.paper));
  return part;
}

std::vector<SheetSupply> supplyOf(const Design& design, const std::string& key, bool unlimited) {
  const Paper* paper = design.findPaper(key);
  std::vector<SheetSupply> all;
  for (const SheetsAtHand& sheets : paper ? paper->sheets : std::vector<SheetsAtHand>())
    all.push_back({sheets.width_mm, sheets.height_mm,
                   unlimited ? kEndless : sheets.count.value_or(kEndless)});
  const SheetSize& usual = sheetByKey(design.settings.sheet);
  if (all.empty()) all.push_back({usual.width_mm, usual.height_mm, kEndless});
  // The smallest that holds a part is opened for it.
  std::ranges::stable_sort(all, {}, [](const SheetSupply& s) { return s.width_mm * s.height_mm; });
  return all;
}

bool fitsOn(const CutPart& part, const SheetSupply& sheet, double margin_mm) {
  const Vec2 size = part.size();
  const double w = sheet.width_mm - 2 * margin_mm + 1e-6,
               h = sheet.height_mm - 2 * margin_mm + 1e-6;
  return ((part.turns & 0b0101) && size.x() <= w && size.y() <= h) ||
         ((part.turns & 0b1010) && size.y() <= w && size.x() <= h);
}

} // namespace

bool fitsSomeSheet(const Design& design, const FlatPiece& piece, double margin_mm) {
  const CutPart part = pieceToCut(design, piece, 0);
  return std::ranges::any_of(supplyOf(design, part.paper, true), [&](const SheetSupply& sheet) {
    return fitsOn(part, sheet, margin_mm);
  });
}

Box2 boxOnSheet(const CutPart& part, const PartPlace& place) {
  Box2 box;
  box.add(place.onSheet(part.flat.bounds.low)), box.add(place.onSheet(part.flat.bounds.high));
  return box;
}

Region onSheet(const CutPart& part, const PartPlace& place) {
  Region out;
  const auto ring = [&](const Polygon& corners) {
    Polygon moved;
    for (const Vec2& p : corners)
      moved.push_back(place.onSheet(p));
    return moved;
  };
  out.rim = ring(part.outline.rim);
  for (const Polygon& hole : part.outline.holes)
    out.holes.push_back(ring(hole));
  return out;
}

std::vector<CutPart> partsToCut(const Design& design, const std::vector<FlatPiece>& pieces,
                                const std::vector<MatLine>& mats, int cards, bool together) {
  const std::vector<FlatPiece> flat = together ? takenTogether(pieces, kWidest_mm) : pieces;
  std::vector<CutPart> all;
  for (int card = 0; card < cards; ++card) {
    for (const FlatPiece& piece : flat)
      all.push_back(pieceToCut(design, piece, card));
    for (std::size_t k = 0; k < mats.size(); ++k)
      for (const MatPlace& place : mats[k].places)
        all.push_back(layerToCut(design, mats[k], k + 1, place, card));
  }
  return all;
}

std::vector<Blank> blanksOf(const CutPlan& plan) {
  std::vector<Blank> blanks;
  for (std::size_t s = 0; s < plan.sheets.size(); ++s)
    blanks.push_back(
        {s, {Vec2::Zero(), Vec2(plan.sheets[s].width_mm, plan.sheets[s].height_mm)}, {}});
  for (std::size_t k = 0; k < plan.cuts.size(); ++k) {
    const TrimCut& cut = plan.cuts[k];
    const Eigen::Index axis = cut.upright ? 0 : 1;
    Blank strip{blanks[cut.blank].sheet, blanks[cut.blank].box, {}}, rest = strip;
    strip.box.high[axis] = rest.box.low[axis] = strip.box.low[axis] + cut.set_mm;
    blanks[cut.blank].cut = k;
    blanks.resize(std::max(blanks.size(), std::max(cut.strip, cut.rest) + 1));
    blanks[cut.strip] = strip, blanks[cut.rest] = rest;
  }
  return blanks;
}

std::size_t CutPlan::settings() const {
  return static_cast<std::size_t>(std::ranges::count_if(cuts, &TrimCut::setting));
}

LayoutOptions usualFor(LayoutFor how, const Bench& bench) {
  LayoutOptions options;
  options.how = how, options.offcut_mm = bench.offcut_mm;
  if (how == LayoutFor::Trimmer) options.margin_mm = options.gap_mm = 0;
  return options;
}

namespace {

/// The better of what the ways of packing make of the parts of one paper.
Packed packPaper(const std::vector<CutPart>& parts, const std::vector<std::size_t>& which,
                 const std::vector<SheetSupply>& supply, const LayoutOptions& options,
                 std::stop_token stop, const std::function<void()>& placed) {
  if (options.how == LayoutFor::Trimmer) {
    Packed packed = packForTrimmer(parts, which, supply, options, stop);
    for (std::size_t k = 0; placed && k < which.size(); ++k)
      placed();
    return packed;
  }
  if (!options.pinned.empty()) return nestForMachine(parts, which, supply, options, stop, placed);
  // Rectangles cut edge to edge are a layout at once, and a good one where all are rectangles.
  LayoutOptions quick = options;
  quick.seconds = std::min(0.3, options.seconds);
  Packed best = packForTrimmer(parts, which, supply, quick, stop);
  best.nodes.clear(), best.roots.clear();
  Packed nested = nestForMachine(parts, which, supply, options, stop, placed);
  if (!stop.stop_requested() && !better(best, nested)) best = std::move(nested);
  return best;
}

/// Off the strip at the lower edge that is kept for other things.
void raise(LaidSheet& sheet, double by_mm) {
  sheet.height_mm += by_mm;
  for (PartPlace& place : sheet.places)
    place.offset.y() += by_mm;
  for (Box2& box : sheet.offcuts)
    box.low.y() += by_mm, box.high.y() += by_mm;
}

} // namespace

CutPlan layOutParts(const Design& design, std::vector<CutPart> parts, const LayoutOptions& options,
                    std::stop_token stop, const Progress& progress) {
  CutPlan plan;
  plan.how = options.how, plan.parts = std::move(parts);
  std::vector<std::string> papers;
  std::map<std::string, std::vector<std::size_t>> of;
  for (std::size_t k = 0; k < plan.parts.size(); ++k) {
    const std::string& paper = plan.parts[k].paper;
    if (!of.contains(paper)) papers.push_back(paper);
    of[paper].push_back(k);
  }
  std::size_t done = 0;
  const auto placed = [&] {
    if (progress) progress(++done, plan.parts.size());
  };
  std::vector<Packed> packed;
  for (const std::string& paper : papers) {
    auto supply = supplyOf(design, paper, options.unlimited);
    for (SheetSupply& sheet : supply)
      sheet.height_mm -= options.footer_mm;
    std::vector<std::size_t> which;
    for (std::size_t part : of[paper])
      if (std::ranges::any_of(supply, [&](const SheetSupply& sheet) {
            return fitsOn(plan.parts[part], sheet, options.margin_mm);
          }))
        which.push_back(part);
      else
        plan.tooLarge.push_back(part), placed();
    if (which.empty()) continue;
    packed.push_back(packPaper(plan.parts, which, supply, options, stop, placed));
    plan.noSheet.insert(plan.noSheet.end(), packed.back().left.begin(), packed.back().left.end());
  }
  if (options.how == LayoutFor::Trimmer) plan.cuts = cutsOf(packed, plan.parts);
  for (Packed& one : packed)
    for (LaidSheet& sheet : one.sheets) {
      raise(sheet, options.footer_mm);
      plan.sheets.push_back(std::move(sheet));
    }
  for (const LaidSheet& sheet : plan.sheets) {
    plan.sheets_mm2 += sheet.width_mm * sheet.height_mm;
    for (const Box2& box : sheet.offcuts)
      plan.kept_mm2 += box.size().x() * box.size().y();
    for (const PartPlace& place : sheet.places)
      plan.parts_mm2 += area_mm2(plan.parts[place.part].outline);
  }
  return plan;
}

namespace {

/// Whether a layout is worth its many strips: less lost, less paper, or the stop set less often.
bool savesBy(const CutPlan& apart, const CutPlan& together) {
  constexpr double kSameArea_mm2 = 1;
  if (apart.noSheet.size() + apart.tooLarge.size() !=
      together.noSheet.size() + together.tooLarge.size())
    return apart.noSheet.size() + apart.tooLarge.size() <
           together.noSheet.size() + together.tooLarge.size();
  if (std::abs(apart.sheets_mm2 - together.sheets_mm2) > kSameArea_mm2)
    return apart.sheets_mm2 < together.sheets_mm2;
  return apart.settings() < together.settings();
}

} // namespace

CutPlan layOutCards(const Design& design, const std::vector<FlatPiece>& pieces,
                    const std::vector<MatLine>& mats, int cards, const LayoutOptions& options,
                    std::stop_token stop, const Progress& progress) {
  std::vector<CutPart> single = partsToCut(design, pieces, mats, cards, false);
  if (options.how != LayoutFor::Trimmer)
    return layOutParts(design, std::move(single), options, stop, progress);
  std::vector<CutPart> wide = partsToCut(design, pieces, mats, cards, true);
  const bool strips = wide.size() < single.size();
  LayoutOptions half = options;
  if (strips) half.seconds *= 0.5;
  CutPlan together = layOutParts(design, std::move(wide), half, stop, progress);
  if (!strips || stop.stop_requested()) return together;
  CutPlan apart = layOutParts(design, std::move(single), half, stop, progress);
  return !stop.stop_requested() && savesBy(apart, together) ? apart : together;
}

CardsFromStock cardsFromStock(const Design& design, const std::vector<FlatPiece>& pieces,
                              const std::vector<MatLine>& mats, LayoutOptions options, int most,
                              std::stop_token stop) {
  options.unlimited = false;
  CardsFromStock answer;
  const auto counted = [&](const Paper& paper) {
    return !paper.sheets.empty() && std::ranges::all_of(paper.sheets, [](const SheetsAtHand& s) {
      return s.count.has_value();
    });
  };
  const auto enough = [&](const std::string& paper, int cards) {
    std::vector<CutPart> parts =
        partsToCut(design, pieces, mats, cards, options.how == LayoutFor::Trimmer);
    std::erase_if(parts, [&](const CutPart& part) { return part.paper != paper; });
    const CutPlan plan = layOutParts(design, std::move(parts), options, stop);
    return plan.noSheet.empty() && plan.tooLarge.empty();
  };
  answer.cards = most;
  std::vector<std::string> papers;
  for (const CutPart& part : partsToCut(design, pieces, mats, 1, false))
    if (std::ranges::find(papers, part.paper) == papers.end()) papers.push_back(part.paper);
  for (const std::string& key : papers) {
    const Paper* paper = design.findPaper(key);
    if (!paper || !counted(*paper)) continue;
    // Doubling, then halving between what is enough and what is not.
    int low = 0, high = 1;
    while (high <= answer.cards && enough(key, high) && !stop.stop_requested())
      low = high, high *= 2;
    high = std::min(high, answer.cards + 1);
    while (high - low > 1 && !stop.stop_requested()) {
      const int middle = (low + high) / 2;
      (enough(key, middle) ? low : high) = middle;
    }
    if (low < answer.cards || answer.endsFirst.empty()) answer.endsFirst = key;
    answer.cards = std::min(answer.cards, low);
  }
  return answer;
}

std::vector<SheetCount> sheetsOf(const CutPlan& plan, const Design& design) {
  std::vector<SheetCount> all;
  for (const LaidSheet& sheet : plan.sheets) {
    const auto same = std::ranges::find_if(all, [&](const SheetCount& one) {
      return one.paper == sheet.paper && one.width_mm == sheet.width_mm &&
             one.height_mm == sheet.height_mm;
    });
    if (same != all.end()) {
      ++same->sheets;
      continue;
    }
    SheetCount count{sheet.paper, sheet.width_mm, sheet.height_mm, 1, {}};
    if (const Paper* paper = design.findPaper(sheet.paper))
      for (const SheetsAtHand& sheets : paper->sheets)
        if (sheets.width_mm == sheet.width_mm && sheets.height_mm == sheet.height_mm)
          count.atHand = sheets.count;
    all.push_back(count);
  }
  return all;
}

} // namespace hinge
