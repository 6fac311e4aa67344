// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/piece_proportion.h"
#include "core/bases/base.h"
#include "core/structures/piece_rows.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace hinge {
namespace {

constexpr double kSettled_mm = 1e-6;

std::size_t panelOf(const PieceWork& work, double x) {
  double right = boundsOf(work.outline).low.x();
  const auto widths = panelWidths_mm(work);
  std::size_t k = 0;
  while (k + 1 < widths.size() && (right += widths[k]) < x)
    ++k;
  return k;
}

/// The way across on a face (its x axis runs along the line on which it stands), and whether
/// lengths there give.
struct Across {
  Vec2 way = Vec2::UnitY();
  bool gives = true;
};
Across acrossOn(const Design& design, std::string_view face, const std::set<std::string>& held) {
  const auto owner = ownerOfKey(face);
  const StructureItem* host = owner ? design.find(*owner) : nullptr;
  if (!owner && !design.card.sheets.empty()) // pages of sheets stand on their lower edge
    return {Vec2::UnitX(), !held.contains(lengthRowKey("card", "sheets"))};
  if (!host || !host->work) return {};
  // Panels of free pieces stand on the lower edge, along which their widths are read.
  if (!widthsRunAcross(design, *host)) return {Vec2::UnitY(), false};
  const auto isFaceOf = [&](std::size_t k) {
    const std::string own = fmt::format("{}/{}", host->id.text(), panelKey(k));
    return face == own || face == own + "-back";
  };
  std::size_t k = 0;
  while (k < kMostPanels && !isFaceOf(k))
    ++k;
  return {Vec2::UnitX(),
          k == kMostPanels || !held.contains(lengthRowKey(host->id.text(), panelKey(k)))};
}

} // namespace

bool growsEvenly(const PieceWork& work) {
  const auto scores = std::ranges::count_if(
      work.lines, [](const WorkLine& line) { return line.kind != WorkLine::Kind::Cut; });
  return static_cast<std::size_t>(scores) != scoreMarks(work).size();
}

bool isGlued(const PieceWork& work, std::size_t panel) {
  return std::ranges::any_of(work.joints, [&](const PieceJoint& j) {
    return is<given::Glue>(j) && panelOf(work, j.at.x()) == panel;
  });
}

bool widthsRunAcross(const Design& design, const StructureItem& item) {
  for (const PieceJoint& joint : item.work->joints) {
    const auto lies = liesOn(joint.kind);
    if (!lies || ownerOfKey(joint.on) == item.id) continue;
    return std::abs(acrossOn(design, joint.on, {}).way.dot(lies->x)) > 0.5;
  }
  return true;
}

namespace {

/// Whether a face grows in both directions when the card is fitted: that of a base which does, or
/// of another piece which does.
bool facesGrowEvenly(const Design& design, std::string_view face,
                     const std::set<std::string>& held) {
  const auto owner = ownerOfKey(face);
  if (!owner) return findBaseKind(design.card.kind)->growsEvenly;
  const StructureItem* host = design.find(*owner);
  return host && host->work && growsEvenly(*host->work) &&
         !held.contains(lengthRowKey(owner->text(), kWholeKey));
}

/// A piece that is no strip: larger as a whole, with what is worked into it.
PieceWork grownEvenly(const Design& design, const StructureItem& item, double factor,
                      const std::set<std::string>& held) {
  PieceWork work = *item.work;
  if (held.contains(lengthRowKey(item.id.text(), kWholeKey))) return work;
  for (Vec2& p : work.outline)
    p *= factor;
  for (WorkLine& line : work.lines)
    line.from *= factor, line.to *= factor;
  for (Polygon& window : work.windows)
    for (Vec2& p : window)
      p *= factor;
  for (PieceJoint& joint : work.joints) {
    joint.at *= factor;
    for (PlaceRule& rule : joint.rules)
      eachPoint(rule, [factor](Vec2& p) { p *= factor; });
    if (auto* band = std::get_if<given::Band>(&joint.kind)) band->length_mm *= factor;
    if (auto* film = std::get_if<given::Film>(&joint.kind)) film->length_mm *= factor;
    if (facesGrowEvenly(design, joint.on, held))
      joint.to *= factor;
    else if (const Across across = acrossOn(design, joint.on, held); across.gives)
      joint.to += (factor - 1) * across.way.dot(joint.to) * across.way;
  }
  return work;
}

} // namespace

Result<PieceWork> grown(const Design& design, const StructureItem& item, double factor,
                        const std::set<std::string>& held) {
  const PieceWork& old = *item.work;
  if (growsEvenly(old)) return grownEvenly(design, item, factor, held);
  const auto widths = panelWidths_mm(old);
  const auto gives = [&](std::size_t k) {
    return !held.contains(lengthRowKey(item.id.text(), panelKey(k)));
  };
  PieceWork work = old;
  // From the right, so that what a panel carries along has had its own change already.
  for (std::size_t k = widths.size(); k-- > 0;) {
    if (!gives(k)) continue;
    double left = boundsOf(work.outline).low.x();
    for (std::size_t i = 0; i < k; ++i)
      left += widths[i];
    const double right = left + widths[k];
    const auto inside = [&](double x) { return x > left + kSettled_mm && x < right - kSettled_mm; };
    std::vector<Vec2*> points;
    std::vector<double> places;
    const auto made = withPanelWidth(work, k, widths[k] * factor);
    if (!made) return made.error();
    PieceWork wider = *made;
    for (std::size_t w = 0; w < work.windows.size(); ++w)
      for (std::size_t c = 0; c < work.windows[w].size(); ++c)
        if (inside(work.windows[w][c].x()))
          points.push_back(&wider.windows[w][c]), places.push_back(work.windows[w][c].x());
    for (std::size_t j = 0; j < work.joints.size(); ++j)
      if (inside(work.joints[j].at.x()))
        points.push_back(&wider.joints[j].at), places.push_back(work.joints[j].at.x());
    for (std::size_t i = 0; i < points.size(); ++i)
      points[i]->x() = left + factor * (places[i] - left);
    work = std::move(wider);
  }
  // Feet: the score beside a glued panel stands so much farther out on the face it is glued to.
  const auto before = scoreMarks(old);
  const double low = boundsOf(old.outline).low.x();
  for (std::size_t j = 0; j < work.joints.size(); ++j) {
    const PieceJoint& was = old.joints[j];
    if (auto* band = std::get_if<given::Band>(&work.joints[j].kind)) band->length_mm *= factor;
    if (auto* film = std::get_if<given::Film>(&work.joints[j].kind)) film->length_mm *= factor;
    const std::size_t panel = panelOf(old, was.at.x());
    const Across across = acrossOn(design, was.on, held);
    if (!across.gives) continue;
    double foot = across.way.dot(was.to);
    const auto lies = is<given::Glue>(was) ? liesOn(was.kind) : std::nullopt;
    if (lies && !before.empty() && std::abs(lies->x.dot(across.way)) > 0.5) {
      const double score = low + (panel == 0               ? before.front()
                                  : panel >= before.size() ? before.back()
                                                           : before[panel - 1])
                                     .low_mm;
      foot += (score - was.at.x()) * lies->x.dot(across.way);
    }
    work.joints[j].to += (factor - 1) * foot * across.way;
  }
  return work;
}

} // namespace hinge
