// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/free_lengths.h"
#include "core/bases/base.h"
#include "core/structures/names.h"
#include "core/structures/registry.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

bool upright(const Vec2& from, const Vec2& to) {
  return std::abs(from.x() - to.x()) < kSamePoint_mm;
}
bool level(const Vec2& from, const Vec2& to) {
  return std::abs(from.y() - to.y()) < kSamePoint_mm;
}
bool square(double turn_deg) {
  return std::abs(std::remainder(turn_deg, 90.0)) < 1e-9;
}

/// Why the places across a sheet cannot move one by one; nothing when they can.
std::optional<Text> whyLeft(const PieceWork& work) {
  for (const WorkLine& line : work.lines) {
    if (!upright(line.from, line.to) && !level(line.from, line.to)) return "round.left/slanted";
    // Its ends slide along slanted edges.
    for (const Vec2& end : {line.from, line.to})
      for (const Edge& edge : edgesOf(Region(work.outline)))
        if (!upright(edge.first, edge.second) && !level(edge.first, edge.second) &&
            distanceToSegment(end, edge.first, edge.second) < kSamePoint_mm &&
            (end - edge.first).norm() > kSamePoint_mm && (end - edge.second).norm() > kSamePoint_mm)
          return "round.left/slanted";
  }
  for (const PieceJoint& joint : work.joints) {
    const auto* glue = std::get_if<given::Glue>(&joint.kind);
    if (!glue && !is<given::Band>(joint) && !is<given::Film>(joint)) return "round.left/moves";
    if (glue && !square(glue->turn_deg)) return "round.left/slanted";
  }
  return std::nullopt;
}

/// Which of a sheet's points, in the order of eachPoint(), lie on upright or level edges and lines;
/// the others stay where they are.
std::vector<char> pointsOnLattice(PieceWork work) {
  std::vector<char> on;
  const auto ring = [&](const Polygon& corners) {
    for (std::size_t k = 0; k < corners.size(); ++k) {
      const Vec2 &before = corners[(k + corners.size() - 1) % corners.size()], &here = corners[k],
                 &next = corners[(k + 1) % corners.size()];
      on.push_back(upright(before, here) || level(before, here) || upright(here, next) ||
                   level(here, next));
    }
  };
  ring(work.outline);
  on.insert(on.end(), 2 * work.lines.size(), 1);
  for (const Polygon& window : work.windows)
    ring(window);
  for (PieceJoint& joint : work.joints) {
    on.push_back(1);
    for (PlaceRule& rule : joint.rules)
      eachPoint(rule, [&](Vec2&) { on.push_back(1); });
    if (auto* glue = std::get_if<given::Glue>(&joint.kind)) ring(glue->area);
  }
  return on;
}

StructureItem& itemOf(Design& design, StructureId id) {
  return *std::ranges::find(design.structures, id, &StructureItem::id);
}

class Gathering {
public:
  explicit Gathering(const Design& design) : m_design(design) {}

  FreeLengths run() {
    card();
    for (const StructureItem& item : m_design.structures)
      structure(item);
    for (const Topper& topper : m_design.dressing.toppers)
      add(topper);
    return std::move(m_out);
  }

private:
  std::size_t push(const std::string& owner, const std::string& key, Text label, double value,
                   double least, double most, std::function<void(Design&, double)> set) {
    m_out.all.push_back(
        {owner + "." + key, owner, std::move(label), value, least, most, std::move(set)});
    return m_out.all.size() - 1;
  }

  void card() {
    const CardBase& card = m_design.card;
    push("card", "width", "card.width/of-card", card.width_mm, starting::kLeastCard_mm,
         starting::kLargestCard_mm, [](Design& d, double mm) { d.card.width_mm = mm; });
    push("card", "height", "card.height/of-card", card.height_mm, starting::kLeastCard_mm,
         starting::kLargestCard_mm, [](Design& d, double mm) { d.card.height_mm = mm; });
    for (const ParameterSpec& spec : findBaseKind(card.kind)->parameters)
      if (spec.unit == ParameterUnit::Millimetre)
        push("card", std::string(spec.key), Text("row-of-card", nameOf(spec)), card.value(spec.key),
             spec.least, spec.most,
             [key = std::string(spec.key)](Design& d, double mm) { d.card.values[key] = mm; });
    for (std::size_t k = 0; k < card.sheets.size(); ++k)
      sheet("card", card.sheets.size() == 1 ? "" : std::to_string(k + 1) + "-", card.sheets[k],
            "round.sheet", [k](Design& d) { return &d.card.sheets[k]; });
  }

  void structure(const StructureItem& item) {
    const Text name = nameOf(m_design, item.id);
    if (item.work)
      sheet(item.id.text(), "", *item.work, name,
            [id = item.id](Design& d) { return &*itemOf(d, id).work; });
    const ParameterTable table = findStructureKind(item.kind)->parameters;
    std::map<std::string, std::size_t, std::less<>> rows;
    for (const ParameterSpec& spec : table) {
      const auto value = item.values.find(spec.key);
      if (spec.unit != ParameterUnit::Millimetre || value == item.values.end()) continue;
      rows[std::string(spec.key)] = push(
          item.id.text(), std::string(spec.key), Text("of", nameOf(spec), name), value->second,
          spec.least, spec.most, [id = item.id, key = std::string(spec.key)](Design& d, double mm) {
            itemOf(d, id).values[key] = mm;
          });
    }
    for (const ParameterSpec& spec : table) {
      const auto own = rows.find(spec.key), other = rows.find(spec.twin);
      if (own == rows.end() || other == rows.end() || own->second > other->second) continue;
      if (std::abs(m_out.all[own->second].value_mm - m_out.all[other->second].value_mm) <
          kSamePoint_mm)
        m_out.twins.push_back({own->second, other->second});
    }
  }

  void add(const Topper& topper) {
    const std::string owner = topper.name();
    const Text name("as-it-is", owner);
    const auto with = [id = topper.id](double Topper::*size) {
      return [id, size](Design& d, double mm) {
        for (Topper& t : d.dressing.toppers)
          if (t.id == id) t.*size = mm;
      };
    };
    // What is cut to outlines of its own has them in millimetres.
    if (topper.outlines.empty()) {
      push(owner, "width", Text("of", Text("round.width"), name), topper.width_mm, kLeastTopper_mm,
           kLargestTopper_mm, with(&Topper::width_mm));
      push(owner, "height", Text("of", Text("round.height"), name), topper.height_mm,
           kLeastTopper_mm, kLargestTopper_mm, with(&Topper::height_mm));
    }
    for (Eigen::Index axis : {0, 1})
      push(owner, axis == 0 ? "x" : "y",
           Text("of", Text(axis == 0 ? "round.along" : "round.up"), name), topper.at[axis], -1e6,
           1e6, [id = topper.id, axis](Design& d, double mm) {
             for (Topper& t : d.dressing.toppers)
               if (t.id == id) t.at[axis] = mm;
           });
  }

  /// The places across a sheet and up it that its corners and lines share.
  void sheet(const std::string& owner, const std::string& mark, const PieceWork& work,
             const Text& name, const std::function<PieceWork*(Design&)>& in) {
    if (const auto why = whyLeft(work)) {
      m_out.left.push_back({owner, *why});
      return;
    }
    const std::vector<char> on = pointsOnLattice(work);
    for (Eigen::Index axis : {0, 1}) {
      std::vector<std::pair<double, std::size_t>> places;
      std::size_t point = 0;
      PieceWork copy = work;
      eachPoint(copy, [&](Vec2& p) {
        if (on[point]) places.push_back({p[axis], point});
        ++point;
      });
      placesAcross(owner, mark, name, axis, places, in);
    }
    for (std::size_t k = 0; k < work.joints.size(); ++k) {
      for (std::size_t r = 0; r < work.joints[k].rules.size(); ++r)
        if (const auto* rule = std::get_if<placed::Distance>(&work.joints[k].rules[r]);
            rule && rule->distance_mm != 0)
          push(owner, mark + "joint" + std::to_string(k + 1) + "-rule" + std::to_string(r + 1),
               Text("of", Text("round.joint", k + 1), name), rule->distance_mm, -1e6, 1e6,
               [in, k, r](Design& d, double mm) {
                 std::get<placed::Distance>(in(d)->joints[k].rules[r]).distance_mm = mm;
               });
      if (!work.joints[k].rules.empty()) continue; // its rules say where it lies
      for (Eigen::Index axis : {0, 1}) {
        const std::string key = mark + "joint" + std::to_string(k + 1) + (axis == 0 ? "-x" : "-y");
        push(owner, key, Text("of", Text("round.joint", k + 1), name), work.joints[k].to[axis],
             -1e6, 1e6, [in, k, axis](Design& d, double mm) { in(d)->joints[k].to[axis] = mm; });
      }
    }
  }

  void placesAcross(const std::string& owner, const std::string& mark, const Text& name,
                    Eigen::Index axis, std::vector<std::pair<double, std::size_t>> places,
                    const std::function<PieceWork*(Design&)>& in) {
    std::ranges::sort(places);
    std::vector<std::size_t> own;
    for (std::size_t k = 0; k < places.size();) {
      const double value = places[k].first;
      std::vector<std::size_t> points;
      for (; k < places.size() && places[k].first - value < kSamePoint_mm; ++k)
        points.push_back(places[k].second);
      own.push_back(push(owner, mark + (axis == 0 ? "x" : "y") + std::to_string(own.size() + 1),
                         Text(axis == 0 ? "round.from-left" : "round.from-below", name), value,
                         -1e6, 1e6, [in, points, axis](Design& d, double mm) {
                           std::size_t point = 0;
                           eachPoint(*in(d), [&](Vec2& p) {
                             if (std::ranges::binary_search(points, point)) p[axis] = mm;
                             ++point;
                           });
                         }));
      if (own.size() > 1) m_out.neighbours.push_back({own[own.size() - 2], own.back()});
    }
    mirror(own);
  }

  void mirror(const std::vector<std::size_t>& own) {
    const auto at = [&](std::size_t k) { return m_out.all[own[k]].value_mm; };
    const std::size_t n = own.size();
    for (std::size_t k = 1; k < n; ++k)
      if (std::abs(at(k) + at(n - 1 - k) - at(0) - at(n - 1)) > kSamePoint_mm) return;
    for (std::size_t k = 1; k < n - k; ++k)
      m_out.mirrored.push_back({own[0], own[k], own[n - 1 - k], own[n - 1]});
  }

  const Design& m_design;
  FreeLengths m_out;
};

} // namespace

FreeLengths freeLengthsOf(const Design& design) {
  return Gathering(design).run();
}

} // namespace hinge
