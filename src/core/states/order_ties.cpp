// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/order_ties.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <array>
#include <cmath>

namespace hinge {
namespace {

class Tying {
public:
  Tying(const SheetsInPlane& sheets, OrderSolver& solver)
      : m_sheets(sheets), m_assembly(sheets.assembly()), m_solver(solver) {}

  void run(std::stop_token stop) {
    for (const SheetMoment& m : m_sheets.moments()) {
      if (stop.stop_requested()) return;
      tieGlue(m), tieFolds(m), tieNested(m), tieThree(m);
    }
  }

private:
  /// k lies over both or under both.
  void tieAlike(const SheetMoment& m, PanelIndex k, PanelIndex a, PanelIndex b) {
    const Vec3 up = m.upOf(k);
    const auto one = m.above(k, a, up), other = m.above(k, b, up);
    const std::array key{one.statement, other.statement, one.holds == other.holds ? 1 : 0, m.hand};
    if (m_tied.insert(key).second) m_solver.addEven({one, other}, m.hand);
  }

  /// Where glue is nothing else is; what goes with both may have been glued in between, and what
  /// slides under the front of a pocket does so beside its glue.
  void tieGlue(const SheetMoment& m) {
    for (const auto& [j, glue] : m_assembly.every<Glue>()) {
      if (!m.lyingOf(glue.host, glue.tab)) continue;
      for (PanelIndex k : neighbours(m, glue.tab)) {
        if (k == glue.host || m_sheets.together(k, glue.host) || !m.lyingOf(k, glue.host)) continue;
        if (m_assembly.panels[glue.tab].use == PanelUse::Wall && slidesOn(k, glue.host)) continue;
        if (meetsGlue(m, glue, k)) tieAlike(m, k, glue.host, glue.tab);
      }
    }
  }
  bool meetsGlue(const SheetMoment& m, const Glue& glue, PanelIndex k) const {
    const Iso3 toTab = inverseOf(m.pose.panels[glue.tab]);
    const Region other = mapped(m_assembly.panels[k].outline, toTab * m.pose.panels[k]),
                 host =
                     mapped(m_assembly.panels[glue.host].outline, toTab * m.pose.panels[glue.host]);
    double area = 0;
    for (const Region& glued : gluedOf(m_assembly, glue))
      for (const Region& held : common(glued, host))
        for (const Region& part : common(held, other))
          area += area_mm2(part);
    return area > kLeastOverlap_mm2;
  }
  bool slidesOn(PanelIndex k, PanelIndex host) const {
    const auto& panels = m_assembly.pieces[m_assembly.panels[k].piece].panels;
    for (const auto& [j, slide] : m_assembly.every<Slide>())
      if (slide.first == host && std::ranges::any_of(panels, [&, &s = slide](PanelIndex p) {
            return m_sheets.together(p, s.second); // a strap round it goes along
          }))
        return true;
    return false;
  }

  static std::vector<PanelIndex> neighbours(const SheetMoment& m, PanelIndex p) {
    const auto it = m.beside.find(p);
    return it == m.beside.end() ? std::vector<PanelIndex>() : it->second;
  }

  /// Nothing that has paper on both sides of a fold lies between its leaves, be they folded over or
  /// flat.
  void tieFolds(const SheetMoment& m) {
    for (const Fold& fold : m_assembly.folds) {
      if (!m_sheets.isThere(fold.left, m.pose) || !m_sheets.isThere(fold.right, m.pose)) continue;
      if (!m_sheets.areInPlane(m.pose, fold.left, fold.right)) continue;
      const Vec3 from = m.pose.panels[fold.left] * lift(fold.from),
                 to = m.pose.panels[fold.left] * lift(fold.to);
      for (PanelIndex k : neighbours(m, fold.left)) {
        if (k == fold.right || !m.lyingOf(k, fold.right)) continue;
        if (m_sheets.together(k, fold.left) && m_sheets.together(k, fold.right)) continue;
        if (m_sheets.reachesPast(m, k, from, to) > 0) tieAlike(m, k, fold.left, fold.right);
      }
    }
  }

  /// Two folds on one line are one within the other, or beside one another.
  void tieNested(const SheetMoment& m) {
    std::vector<const Fold*> over;
    for (const Fold& fold : m_assembly.folds)
      if (m.lyingOf(fold.left, fold.right) && m.upOf(fold.left).dot(m.upOf(fold.right)) < 0)
        over.push_back(&fold);
    for (std::size_t i = 0; i < over.size(); ++i)
      for (std::size_t j = i + 1; j < over.size(); ++j) {
        const Fold &f = *over[i], &g = *over[j];
        const PanelIndex four[] = {f.left, f.right, g.left, g.right};
        if (std::set<PanelIndex>(four, four + 4).size() < 4) continue;
        bool all = areOnOneLine(m, f, g);
        for (int k = 0; k < 4 && all; ++k)
          all = m.lyingOf(four[k / 2], four[2 + k % 2]) &&
                !m_sheets.isSlotted(four[k / 2], four[2 + k % 2]);
        if (!all) continue;
        const Vec3 up = m.upOf(f.left);
        std::vector<OrderSolver::Literal> between;
        std::array<int, 4> key{};
        for (int k = 0; k < 4; ++k) {
          between.push_back(m.above(four[k / 2], four[2 + k % 2], up));
          key[static_cast<std::size_t>(k)] = between.back().statement;
        }
        if (m_nested.insert({key, m.hand}).second) m_solver.addEven(std::move(between), m.hand);
      }
  }
  bool areOnOneLine(const SheetMoment& m, const Fold& f, const Fold& g) const {
    const Vec3 a = m.pose.panels[f.left] * lift(f.from), b = m.pose.panels[f.left] * lift(f.to),
               c = m.pose.panels[g.left] * lift(g.from), d = m.pose.panels[g.left] * lift(g.to);
    const Vec3 along = (b - a).normalized();
    if (along.cross(c - a).norm() > kInPlane_mm || along.cross(d - a).norm() > kInPlane_mm)
      return false;
    const auto [low, high] = std::minmax({along.dot(c - a), along.dot(d - a)});
    return std::min(high, (b - a).norm()) - std::max(low, 0.0) > kPast_mm;
  }

  /// Of three on one another none lies over one and under that.
  void tieThree(const SheetMoment& m) {
    std::map<PanelIndex, std::vector<PanelIndex>> beside;
    for (const auto& [pair, lying] : m.lying)
      beside[pair.first].push_back(pair.second); // the higher numbers, rising
    for (const auto& [a, more] : beside)
      for (std::size_t i = 0; i < more.size(); ++i)
        for (std::size_t j = i + 1; j < more.size(); ++j) {
          const PanelIndex b = more[i], c = more[j];
          if (!m.lyingOf(b, c) || (m_sheets.together(a, b) && m_sheets.together(b, c))) continue;
          const Vec3 up = m.upOf(a);
          const auto ab = m.above(a, b, up), bc = m.above(b, c, up), ca = m.above(c, a, up);
          const std::array key{ab.statement, bc.statement, ca.statement, m.hand};
          if (m_three.contains(key) || !haveCommon(m, a, b, c)) continue;
          m_three.insert(key);
          m_solver.addUnlike(ab, bc, ca, m.hand);
        }
  }
  bool haveCommon(const SheetMoment& m, PanelIndex a, PanelIndex b, PanelIndex c) const {
    const Region third =
        mapped(m_assembly.panels[c].outline, inverseOf(m.pose.panels[a]) * m.pose.panels[c]);
    double area = 0;
    for (const Region& part : m.lying.at({a, b})->common)
      for (const Region& all : common(part, third))
        area += area_mm2(all);
    return area > kLeastOverlap_mm2;
  }

  const SheetsInPlane& m_sheets;
  const Assembly& m_assembly;
  OrderSolver& m_solver;
  std::set<std::array<int, 4>> m_tied, m_three;
  std::set<std::pair<std::array<int, 4>, int>> m_nested;
};

} // namespace

void tieOrders(const SheetsInPlane& sheets, OrderSolver& solver, std::stop_token stop) {
  Tying(sheets, solver).run(stop);
}

} // namespace hinge
