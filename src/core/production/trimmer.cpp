// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/production/packing.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <array>
#include <chrono>
#include <cmath>
#include <map>
#include <numeric>
#include <random>

namespace hinge {
namespace {

/// Strips thinner than this are no blank but what the blade takes.
constexpr double kNothing_mm = 1e-6;

struct Item {
  std::size_t part = 0;
  double width = 0, height = 0;
  bool upright = true, turned = true; ///< how it may lie
};

enum class Fit { Area, ShortSide, LongSide };
enum class Split { ShorterRest, LongerRest, SmallerRest, LargerRest };

/// How one attempt goes about it: item by item in their order, each into the blank that fits it
/// best; or blank by blank, each time the pair of blank and item that fits best.
struct Manner {
  Fit fit = Fit::Area;
  Split split = Split::ShorterRest;
  bool byBlank = false;
};

class Attempt {
public:
  Attempt(const std::vector<SheetSupply>& supply, const LayoutOptions& options,
          const std::string& paper, Manner manner)
      : m_supply(supply), m_options(options), m_paper(paper), m_manner(manner) {}

  Packed run(const std::vector<Item>& items) {
    if (m_manner.byBlank)
      fillBlanks(items);
    else
      for (const Item& item : items)
        if (!place(item) && !(openSheet(item) && place(item))) m_out.left.push_back(item.part);
    for (std::size_t s = 0; s < m_out.sheets.size(); ++s)
      listOffcuts(m_out.roots[s], m_out.sheets[s]);
    return std::move(m_out);
  }

private:
  struct Choice {
    std::size_t free = 0; ///< in m_free
    bool turned = false;
    double score = 1e300;
  };
  struct Free {
    std::size_t node = 0, sheet = 0;
  };

  double score(const Vec2& room, double w, double h) const {
    const double dx = room.x() - w, dy = room.y() - h;
    switch (m_manner.fit) {
    case Fit::Area: return room.x() * room.y() - w * h;
    case Fit::ShortSide: return std::min(dx, dy);
    case Fit::LongSide: return std::max(dx, dy);
    }
    return 0;
  }

  /// A new sheet is begun with the first item that no blank takes; then the best pairs are made.
  void fillBlanks(std::vector<Item> items) {
    while (!items.empty()) {
      std::size_t which = 0;
      Choice best;
      for (std::size_t k = 0; k < items.size(); ++k)
        if (const Choice one = bestFor(items[k]); one.score < best.score) best = one, which = k;
      if (best.score > 1e299) {
        if (!openSheet(items.front())) {
          m_out.left.push_back(items.front().part);
          items.erase(items.begin());
          continue;
        }
        best = bestFor(items.front()), which = 0;
      }
      put(items[which], best);
      items.erase(items.begin() + static_cast<std::ptrdiff_t>(which));
    }
  }

  bool place(const Item& item) {
    const Choice best = bestFor(item);
    if (best.score > 1e299) return false;
    put(item, best);
    return true;
  }

  Choice bestFor(const Item& item) const {
    Choice best;
    for (std::size_t k = 0; k < m_free.size(); ++k) {
      const Vec2 room = m_out.nodes[m_free[k].node].box.size();
      for (bool turned : {false, true}) {
        if (!(turned ? item.turned : item.upright)) continue;
        const double w = turned ? item.height : item.width, h = turned ? item.width : item.height;
        if (w > room.x() + kNothing_mm || h > room.y() + kNothing_mm) continue;
        if (const double s = score(room, w, h); s < best.score) best = {k, turned, s};
      }
    }
    return best;
  }

  void put(const Item& item, const Choice& choice) {
    const Free free = m_free[choice.free];
    m_free.erase(m_free.begin() + static_cast<std::ptrdiff_t>(choice.free));
    const double w = choice.turned ? item.height : item.width,
                 h = choice.turned ? item.width : item.height;
    const Vec2 room = m_out.nodes[free.node].box.size();
    const bool uprightFirst = splitsUpright(room.x() - w, room.y() - h, w, h);
    std::size_t node = cutOff(free.node, uprightFirst, uprightFirst ? w : h, free.sheet);
    node = cutOff(node, !uprightFirst, uprightFirst ? h : w, free.sheet);
    LaidSheet& sheet = m_out.sheets[free.sheet];
    m_out.nodes[node].place = sheet.places.size();
    sheet.places.push_back({item.part, choice.turned ? 1 : 0, m_out.nodes[node].box.low});
  }

  bool splitsUpright(double dx, double dy, double w, double h) const {
    switch (m_manner.split) {
    case Split::ShorterRest: return dx >= dy;
    case Split::LongerRest: return dx < dy;
    case Split::SmallerRest: return dy * w < dx * h;
    case Split::LargerRest: return dy * w >= dx * h;
    }
    return true;
  }

  /// Cuts a strip off a node; nothing is cut when it is as wide as that. Returns the strip.
  std::size_t cutOff(std::size_t node, bool upright, double width, std::size_t sheet) {
    const Box2 box = m_out.nodes[node].box;
    const Eigen::Index axis = upright ? 0 : 1;
    if (box.size()[axis] - width <= kNothing_mm) return node;
    Box2 strip = box, rest = box;
    strip.high[axis] = rest.low[axis] = box.low[axis] + width;
    const std::size_t first = m_out.nodes.size(), second = first + 1;
    m_out.nodes.push_back({strip}), m_out.nodes.push_back({rest});
    m_out.nodes[node].upright = upright, m_out.nodes[node].first = first,
    m_out.nodes[node].rest = second;
    m_free.push_back({second, sheet});
    return first;
  }

  bool openSheet(const Item& item) {
    const double margin = m_options.margin_mm;
    for (std::size_t k = 0; k < m_supply.size(); ++k) {
      SheetSupply& supply = m_supply[k];
      const double w = supply.width_mm - 2 * margin, h = supply.height_mm - 2 * margin;
      const auto fits = [&](double a, double b) {
        return a <= w + kNothing_mm && b <= h + kNothing_mm;
      };
      if (supply.count <= 0 || !((item.upright && fits(item.width, item.height)) ||
                                 (item.turned && fits(item.height, item.width))))
        continue;
      --supply.count;
      const std::size_t sheet = m_out.sheets.size();
      m_out.sheets.push_back({m_paper, supply.width_mm, supply.height_mm, {}, {}});
      std::size_t node = m_out.nodes.size();
      m_out.roots.push_back(node);
      TrimNode root;
      root.box.add(Vec2(0, 0)), root.box.add(Vec2(supply.width_mm, supply.height_mm));
      m_out.nodes.push_back(root);
      const std::size_t kept = m_free.size();
      for (bool upright : {true, false})
        if (margin > kNothing_mm) {
          cutOff(node, upright, margin, sheet);
          node = m_out.nodes[node].rest;
          node = cutOff(node, upright, upright ? w : h, sheet);
        }
      m_free.resize(kept); // margins are no blanks
      m_free.push_back({node, sheet});
      return true;
    }
    return false;
  }

  void listOffcuts(std::size_t node, LaidSheet& sheet) const {
    const TrimNode& here = m_out.nodes[node];
    if (here.first || here.rest)
      return listOffcuts(here.first, sheet), listOffcuts(here.rest, sheet);
    if (!here.place && here.box.size().minCoeff() >= m_options.offcut_mm)
      sheet.offcuts.push_back(here.box);
    std::ranges::stable_sort(sheet.offcuts, std::ranges::greater(),
                             [](const Box2& box) { return box.size().x() * box.size().y(); });
  }

  std::vector<SheetSupply> m_supply;
  const LayoutOptions& m_options;
  std::string m_paper;
  Manner m_manner;
  std::vector<Free> m_free;
  Packed m_out;
};

/// Turns that `part` may have, as a rectangle.
Item itemOf(const std::vector<CutPart>& parts, std::size_t part, double gap_mm) {
  const Vec2 size = parts[part].size();
  return {part, size.x() + gap_mm, size.y() + gap_mm, (parts[part].turns & 0b0101) != 0,
          (parts[part].turns & 0b1010) != 0};
}

/// The keys by which attempts order their items, largest first.
std::vector<std::function<double(const Item&)>> orders() {
  return {[](const Item& i) { return i.width * i.height; },
          [](const Item& i) { return std::max(i.width, i.height); },
          [](const Item& i) { return std::min(i.width, i.height); },
          [](const Item& i) { return i.height; },
          [](const Item& i) { return i.width; },
          [](const Item& i) { return i.width + i.height; }};
}

/// From the node's corner to where the part's frame has its origin.
void settle(Packed& packed, const std::vector<CutPart>& parts, double gap_mm) {
  for (LaidSheet& sheet : packed.sheets)
    for (PartPlace& place : sheet.places) {
      const CutPart& part = parts[place.part];
      if (!(part.turns & (1u << place.quarters))) place.quarters += 2;
      const Vec2 corner = place.offset + Vec2(0.5 * gap_mm, 0.5 * gap_mm);
      place.offset = Vec2::Zero();
      place.offset = corner - boxOnSheet(part, place).low;
    }
}

double sheetArea(const Packed& packed) {
  double area = 0;
  for (const LaidSheet& sheet : packed.sheets)
    area += sheet.width_mm * sheet.height_mm;
  return area;
}

std::size_t settingsOf(const Packed& packed, const std::vector<CutPart>& parts) {
  const auto cuts = cutsOf({packed}, parts);
  return static_cast<std::size_t>(std::ranges::count_if(cuts, &TrimCut::setting));
}

/// Paper that is neither part nor worth keeping, for parts of the same area in all.
double wasted(const Packed& packed) {
  double area = sheetArea(packed);
  for (const LaidSheet& sheet : packed.sheets)
    for (const Box2& box : sheet.offcuts)
      area -= box.size().x() * box.size().y();
  return area;
}

/// Less than this (mm2) is no difference to anybody.
constexpr double kSameWaste_mm2 = 300;

} // namespace

bool better(const Packed& a, const Packed& b) {
  if (a.left.size() != b.left.size()) return a.left.size() < b.left.size();
  if (std::abs(sheetArea(a) - sheetArea(b)) > 1) return sheetArea(a) < sheetArea(b);
  return wasted(a) < wasted(b) - kSameWaste_mm2;
}

Packed packForTrimmer(const std::vector<CutPart>& parts, const std::vector<std::size_t>& which,
                      std::vector<SheetSupply> supply, const LayoutOptions& options,
                      std::stop_token stop) {
  using Clock = std::chrono::steady_clock;
  const auto until = Clock::now() + std::chrono::duration_cast<Clock::duration>(
                                        std::chrono::duration<double>(options.seconds));
  std::vector<Item> items;
  for (std::size_t part : which)
    items.push_back(itemOf(parts, part, options.gap_mm));
  const std::string paper = which.empty() ? "" : parts[which.front()].paper;
  std::optional<Packed> best;
  std::size_t bestSettings = 0;
  const auto over = [&] { return best && (stop.stop_requested() || Clock::now() >= until); };
  const auto attempt = [&](const std::vector<Item>& order, Manner manner) {
    Packed made = Attempt(supply, options, paper, manner).run(order);
    const bool sameWaste = best && made.left.size() == best->left.size() &&
                           std::abs(sheetArea(made) - sheetArea(*best)) < 1 &&
                           std::abs(wasted(made) - wasted(*best)) <= kSameWaste_mm2;
    if (best && !sameWaste && !better(made, *best)) return;
    const std::size_t settings = settingsOf(made, parts);
    if (sameWaste && settings >= bestSettings) return;
    best = std::move(made), bestSettings = settings;
  };
  for (std::size_t first = 0; first < supply.size() && !over(); ++first) {
    for (const auto& key : orders()) {
      std::vector<Item> order = items;
      std::ranges::stable_sort(order, std::ranges::greater(), key);
      for (Fit fit : {Fit::Area, Fit::ShortSide, Fit::LongSide})
        for (Split split :
             {Split::ShorterRest, Split::LongerRest, Split::SmallerRest, Split::LargerRest})
          for (bool byBlank : {false, true})
            if (!over()) attempt(order, {fit, split, byBlank});
    }
    // Small exchanges in the order by area; the same ones every time.
    std::mt19937 chance(17);
    for (int n = 0; n < 900 && !over(); ++n) {
      std::vector<std::pair<double, Item>> drawn;
      for (const Item& item : items)
        drawn.push_back(
            {item.width * item.height * std::uniform_real_distribution<double>(0.7, 1.3)(chance),
             item});
      std::ranges::stable_sort(drawn, std::ranges::greater(), &std::pair<double, Item>::first);
      std::vector<Item> order;
      for (const auto& [by, item] : drawn)
        order.push_back(item);
      attempt(order, {static_cast<Fit>(n % 3), static_cast<Split>(n / 3 % 4), n % 2 == 1});
    }
    std::ranges::rotate(supply, supply.begin() + 1);
  }
  if (!best) return {{}, which, {}, {}};
  settle(*best, parts, options.gap_mm);
  return std::move(*best);
}

namespace {

/// All blanks in hand, and the cuts that can be made of them.
class Cutting {
public:
  Cutting(const std::vector<Packed>& packed, const std::vector<CutPart>& parts)
      : m_packed(packed), m_parts(parts) {}

  std::vector<TrimCut> run() {
    for (std::size_t p = 0; p < m_packed.size(); ++p)
      for (std::size_t s = 0; s < m_packed[p].roots.size(); ++s)
        m_hand.push_back({p, s, m_packed[p].roots[s], m_blanks++, 0});
    while (!m_hand.empty())
      if (!cutNext()) break;
    return std::move(m_cuts);
  }

private:
  struct Blank {
    std::size_t packed, sheet, node, number;
    int sliced = 0; ///< strips cut off a wide sheet so far
  };

  const TrimNode& nodeOf(const Blank& blank) const {
    return m_packed[blank.packed].nodes[blank.node];
  }
  /// The stop for a blank's next cut, and along which axis; nothing when it is done.
  std::optional<std::pair<double, bool>> nextCut(const Blank& blank) const {
    const TrimNode& node = nodeOf(blank);
    if (node.first) {
      const Vec2 strip = m_packed[blank.packed].nodes[node.first].box.size();
      return std::pair(node.upright ? strip.x() : strip.y(), node.upright);
    }
    if (!node.place) return std::nullopt;
    const PartPlace& place = m_packed[blank.packed].sheets[blank.sheet].places[*node.place];
    const CutPart& part = m_parts[place.part];
    const auto strips = static_cast<int>(part.flat.slices.size());
    if (strips < 2 || blank.sliced >= strips - 1) return std::nullopt;
    return std::pair(part.size().y() / strips, place.quarters % 2 == 1);
  }

  bool cutNext() {
    // As set, if anything can be cut so; else the stop that most cuts wait for, widest first.
    std::map<long, std::pair<int, std::size_t>, std::greater<>> waiting;
    std::erase_if(m_hand, [&](const Blank& blank) { return !nextCut(blank); });
    if (m_hand.empty()) return false;
    for (std::size_t k = 0; k < m_hand.size(); ++k) {
      auto& [count, first] = waiting[key(nextCut(m_hand[k])->first)];
      if (count++ == 0) first = k;
    }
    auto chosen = waiting.find(m_set);
    const bool setting = chosen == waiting.end();
    if (setting) {
      chosen = waiting.begin();
      for (auto it = waiting.begin(); it != waiting.end(); ++it)
        if (it->second.first > chosen->second.first) chosen = it;
    }
    m_set = chosen->first;
    make(chosen->second.second, setting);
    return true;
  }

  void make(std::size_t which, bool setting) {
    Blank blank = m_hand[which];
    const auto [stop, upright] = *nextCut(blank);
    TrimCut cut{blank.number, stop, upright, setting, m_blanks, m_blanks + 1};
    m_blanks += 2;
    m_cuts.push_back(cut);
    m_hand.erase(m_hand.begin() + static_cast<std::ptrdiff_t>(which));
    const TrimNode& node = nodeOf(blank);
    if (node.first) {
      m_hand.push_back({blank.packed, blank.sheet, node.first, cut.strip, 0});
      m_hand.push_back({blank.packed, blank.sheet, node.rest, cut.rest, 0});
    } else {
      blank.number = cut.rest, ++blank.sliced;
      m_hand.push_back(blank);
    }
  }

  /// Stops that no hand tells apart are one.
  static long key(double set_mm) { return std::lround(set_mm / 0.02); }

  const std::vector<Packed>& m_packed;
  const std::vector<CutPart>& m_parts;
  std::vector<Blank> m_hand;
  std::vector<TrimCut> m_cuts;
  std::size_t m_blanks = 0;
  long m_set = -1;
};

} // namespace

std::vector<TrimCut> cutsOf(const std::vector<Packed>& packed, const std::vector<CutPart>& parts) {
  return Cutting(packed, parts).run();
}

} // namespace hinge
