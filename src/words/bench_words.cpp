// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/bench_words.h"
#include "core/structures/names.h"
#include "words/plan_words.h"
#include "words/tables.h"
#include "words/words.h"
#include <algorithm>

namespace hinge {
namespace {

class Numbers {
public:
  Numbers(const PlannedWork& work, const WorkStep& step, const std::vector<PieceTable>& tables,
          const Bench& bench)
      : m_work(work), m_step(step), m_tables(tables), m_bench(bench),
        m_unit(work.design().settings.unit) {}

  std::vector<BenchNumber> run() {
    switch (m_step.kind) {
    case WorkKind::Score: scores(); break;
    case WorkKind::Cut: sizes(); break;
    case WorkKind::Pencil: points(); break;
    case WorkKind::Measure: m_all.push_back({length(m_step.number_mm), {}}); break;
    case WorkKind::Wait: m_all.push_back({sayTime(m_step.waits_s), {}}); break;
    default: break;
    }
    if (m_all.empty()) m_all.push_back({});
    return std::move(m_all);
  }

private:
  std::string length(double mm) const { return formatLength(mm, m_unit); }
  std::string mark(double mm) const {
    static constexpr const char* kWith[] = {"bench.mm", "bench.cm", "bench.in"};
    return say(Text(kWith[static_cast<std::size_t>(m_unit)],
                    sayMark(mm, stepOf_mm(m_bench, m_unit), m_unit)));
  }
  Text nameOf(const PieceTable& table) const {
    const Text name = pieceName(m_work.design(), m_work.assembly(), table.piece);
    if (table.count() == 1) return {"bench.piece/one", name, table.letter};
    return {"bench.piece", name, table.letter, table.count()};
  }

  void scores() {
    for (const PieceTable& table : m_tables) {
      std::size_t number = 0;
      for (const ScoreSetting& score : table.scores) {
        ++number;
        std::string at = score.way == ScoreSetting::Way::Slanted
                             ? mark(score.from.x()) + " / " + mark(score.to.x())
                             : mark(score.fromOther ? score.other_mm : score.first_mm);
        const char* way = score.way == ScoreSetting::Way::Slanted ? "bench.score/slanted"
                          : score.way == ScoreSetting::Way::Level ? "bench.score/level"
                          : score.fromOther                       ? "bench.score/other"
                                                                  : "bench.score/first";
        m_all.push_back(
            {std::move(at), saySentence({way, nameOf(table), number, table.scores.size()})});
      }
    }
  }

  void sizes() {
    for (const PieceTable& table : m_tables)
      m_all.push_back(
          {mark(table.size.x()) + " × " + mark(table.size.y()), saySentence(nameOf(table))});
  }

  void points() {
    for (std::size_t k = 0; k < m_step.points.size(); ++k) {
      const PencilPoint& point = m_step.points[k];
      m_all.push_back({"→ " + mark(point.from_mm.x()) + "  ↑ " + mark(point.from_mm.y()),
                       saySentence({"bench.point",
                                    panelOnSheet(m_work.design(), m_work.assembly(), point.panel),
                                    k + 1, m_step.points.size()})});
    }
  }

  const PlannedWork& m_work;
  const WorkStep& m_step;
  const std::vector<PieceTable>& m_tables;
  const Bench& m_bench;
  LengthUnit m_unit;
  std::vector<BenchNumber> m_all;
};

} // namespace

std::vector<BenchNumber> benchNumbers(const PlannedWork& work, std::size_t step,
                                      const std::vector<PieceTable>& tables, const Bench& bench) {
  return Numbers(work, work.plan.steps[step], tables, bench).run();
}

std::string sayAgain(const std::vector<PieceIndex>& pieces, const CutPlan& sheets,
                     const PlannedWork& work) {
  std::string all;
  for (PieceIndex piece : pieces) {
    std::string from;
    for (std::size_t k = 0; k < sheets.sheets.size(); ++k)
      if (std::ranges::any_of(sheets.sheets[k].places, [&](const PartPlace& place) {
            const CutPart& part = sheets.parts[place.part];
            return part.mat == 0 &&
                   (part.flat.piece == piece || std::ranges::count(part.flat.slices, piece) > 0);
          })) {
        from += (from.empty() ? "" : ", ") +
                say(Text("bench.sheet", k + 1,
                         nameOf(work.design().paperNamed(sheets.sheets[k].paper))));
      }
    if (from.empty()) from = say(Text("bench.new-sheet"));
    all += (all.empty() ? "" : "; ") +
           say(Text("bench.again", pieceName(work.design(), work.assembly(), piece), from));
  }
  return all;
}

} // namespace hinge
