// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/contact/contact.h"
#include "core/structures/closure.h"
#include "core/structures/ways.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <map>

// Panels hit: no panel passes through another at any opening, pages included. Contacts between the
// same two structures are one finding with the deepest place first.

namespace hinge {
namespace {

std::string ownerKey(const Panel& panel) {
  return panel.owner ? panel.owner->text() : "card";
}

/// What misses closing by no more than paper gives leans over near the shut card as far as that
/// gives, and is pressed flat there: up to this opening.
constexpr double kPressedFlat_rad = radians(15);

/// A structure that does not shut flat runs into itself, its host and the pages near the shut
/// state; that is the same trouble and "shut-flat" names its cause.
bool consequenceOfMisfit(const CheckInput& in, const Contact& contact, const Panel& a,
                         const Panel& b) {
  for (const auto& [own, other] : {std::pair{&a, &b}, std::pair{&b, &a}}) {
    const StructureItem* item = own->owner ? in.design.find(*own->owner) : nullptr;
    if (!item) continue;
    const Seat* seat = in.assembly.findSeat(item->seat);
    if (closesExactly(*item, in.motion)) continue;
    const bool given = closesAsPaperGives(*item, in.motion);
    if (given && contact.to_rad > kPressedFlat_rad) continue;
    const auto hosts = hostsOf(*item);
    const bool host = in.assembly.panels[seat->sides[0].panel].key == other->key ||
                      in.assembly.panels[seat->sides[1].panel].key == other->key ||
                      (waysOf(*item).ringsDecide() && other->owner &&
                       std::ranges::find(hosts, *other->owner) != hosts.end());
    if (own->owner == other->owner || host || other->use == PanelUse::Page) return true;
  }
  return false;
}

/// Where rings miss closing by what paper gives, panels are that much out of their places.
double outOfPlace_mm(const CheckInput& in, PanelIndex panel) {
  double gap = 0;
  for (const Motion::BlockReport& block : in.motion.blocks())
    if (block.gap_mm > motion::kAskew_mm &&
        std::ranges::find(block.panels, panel) != block.panels.end())
      gap = std::max(gap, block.gap_mm);
  return gap;
}

std::vector<Finding> checkPanelsHit(const CheckInput& in) {
  ContactOptions options;
  options.only = in.only;
  const auto report =
      in.only.empty()
          ? in.snapshot.contacts(in.stop)
          : std::make_shared<const ContactReport>(findContacts(in.motion, options, in.stop));
  if (!report) return {};
  std::map<std::pair<std::string, std::string>, Finding> byOwners;
  for (const Contact& c : report->contacts) {
    const Panel *a = &in.assembly.panels[c.first], *b = &in.assembly.panels[c.second];
    if (consequenceOfMisfit(in, c, *a, *b)) continue;
    // Where loose panels go is not decided by the opening: what they might hit says nothing.
    if (in.motion.isLoose(c.first) || in.motion.isLoose(c.second)) continue;
    if (c.depth_mm <= 2 * std::max(outOfPlace_mm(in, c.first), outOfPlace_mm(in, c.second)))
      continue;
    if (ownerKey(*b) < ownerKey(*a)) std::swap(a, b);
    Finding& f = byOwners[{ownerKey(*a), ownerKey(*b)}];
    const bool first = f.code.empty();
    if (first) {
      f.code = "panels-hit", f.from_rad = c.from_rad, f.to_rad = c.to_rad;
      for (const Panel* p : {b, a})
        if (p->owner && std::ranges::find(f.owners, *p->owner) == f.owners.end())
          f.owners.push_back(*p->owner);
    }
    f.from_rad = std::min(f.from_rad, c.from_rad), f.to_rad = std::max(f.to_rad, c.to_rad);
    const bool deepest = c.depth_mm > f.amount;
    if (deepest) f.amount = c.depth_mm, f.place = c.place, f.show_rad = c.deepest_rad;
    for (const Panel* p : {b, a}) {
      const auto at = std::ranges::find(f.elements, p->key);
      if (at != f.elements.end()) f.elements.erase(at);
      f.elements.insert(deepest ? f.elements.begin() : f.elements.end(), p->key);
    }
  }
  std::vector<Finding> found;
  for (auto& [owners, finding] : byOwners)
    found.push_back(std::move(finding));
  return found;
}

} // namespace

const CheckKind& panelsHitCheck() {
  static const CheckKind kind{"panels-hit", checkPanelsHit};
  return kind;
}

} // namespace hinge
