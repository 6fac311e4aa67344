// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/booklet_words.h"
#include "core/production/score_table.h"
#include "core/structures/names.h"
#include "words/words.h"
#include <algorithm>
#include <cmath>
#include <iterator>
#include <map>
#include <set>

namespace hinge {
namespace {

class Writing {
public:
  Writing(const PlannedWork& work, const CutPlan& sheets, const Bench& bench)
      : m_work(work), m_design(work.design()), m_assembly(work.assembly()), m_sheets(sheets),
        m_bench(bench) {}

  BookletWords run() {
    BookletWords words;
    words.title = m_design.title;
    words.steps = inWords(m_work.plan, m_design, m_assembly);
    words.about = saySentence({"booklet.about", Millimetres{m_design.card.pageDepth_mm()},
                               Millimetres{m_design.card.gutterLength_mm()},
                               Degrees{degrees(displayOpening_rad(m_design.card, m_assembly))},
                               words.steps.size(), time(m_work.plan.hands_s())},
                              m_design.settings.unit);
    const auto tables = scoreTables(m_assembly, m_design, *m_work.snapshot->flatPieces(), m_bench);
    words.sections = {parts(tables), papers(), adhesives(), tools(), cautions(words.steps)};
    std::erase_if(words.sections, [](const BookletSection& s) { return s.lines.empty(); });
    words.tables.push_back(legendTable(tables, m_sheets, m_design, m_assembly, m_bench));
    std::ranges::move(readTables(tables, m_design, m_assembly, m_bench),
                      std::back_inserter(words.tables));
    return words;
  }

private:
  static Text time(double seconds) { return {"as-it-is", sayTime(seconds)}; }
  std::string line(const Text& text) const { return saySentence(text, m_design.settings.unit); }

  /// Every distinct piece with its size, and where it is scored.
  BookletSection parts(const std::vector<PieceTable>& tables) const {
    BookletSection section{say(Text("booklet.parts")), {}};
    const LengthUnit unit = m_design.settings.unit;
    const auto mark = [&](double mm) { return sayMark(mm, stepOf_mm(m_bench, unit), unit); };
    for (const PieceTable& table : tables) {
      std::string scores;
      for (const ScoreSetting& score : table.scores)
        if (score.way == ScoreSetting::Way::Upright)
          scores += (scores.empty() ? "" : ", ") + mark(score.first_mm);
      std::string text =
          line({table.count() == 1 ? "booklet.part/one" : "booklet.part", table.letter,
                pieceName(m_design, m_assembly, table.piece), Millimetres{table.size.x()},
                Millimetres{table.size.y()}, table.count()});
      if (!scores.empty()) text += say(Text("booklet/scored", scores));
      section.lines.push_back(std::move(text));
    }
    return section;
  }

  BookletSection papers() const {
    BookletSection section{say(Text("booklet.papers")), {}};
    for (const SheetCount& need : sheetsOf(m_sheets, m_design)) {
      section.lines.push_back(line({"booklet.sheets", need.sheets,
                                    Text("as-it-is", say(nameOf(m_design.paperNamed(need.paper)))),
                                    Millimetres{need.width_mm}, Millimetres{need.height_mm}}));
    }
    return section;
  }

  BookletSection adhesives() const {
    struct Amount {
      double glue_cm2 = 0, tape_mm = 0;
    };
    std::map<Adhesive, Amount> used;
    for (const WorkStep& step : m_work.plan.steps)
      if (step.adhesive) {
        used[*step.adhesive].glue_cm2 += step.glue_cm2;
        used[*step.adhesive].tape_mm += step.tape_mm;
      }
    BookletSection section{say(Text("booklet.adhesives")), {}};
    for (const auto& [adhesive, amount] : used) {
      const AdhesiveFacts& facts = factsOf(adhesive);
      const Text name("as-it-is", sayAdhesive(adhesive));
      section.lines.push_back(
          facts.byLength ? line({"booklet.tape", name, OffTheRoll{amount.tape_mm}})
                         : line({"booklet.glue", name, SquareMillimetres{100 * amount.glue_cm2},
                                 Decimal{amount.glue_cm2 * facts.grams_cm2, 1}}));
    }
    return section;
  }

  BookletSection tools() const {
    BookletSection section{say(Text("booklet.tools")), {line({"booklet.hand-tools"})}};
    std::set<std::string> more;
    for (const Joint& joint : m_assembly.joints) {
      if (std::holds_alternative<Pivot>(joint)) more.insert("booklet.pins");
      if (std::holds_alternative<Band>(joint)) more.insert("booklet.bands");
      if (std::holds_alternative<Film>(joint)) more.insert("booklet.films");
    }
    for (const std::string& one : more)
      section.lines.push_back(line({one.c_str()}));
    return section;
  }

  /// Each in full, once.
  static BookletSection cautions(const std::vector<StepWords>& steps) {
    BookletSection section{say(Text("booklet.cautions")), {}};
    std::set<std::string> told;
    for (const StepWords& step : steps)
      for (const std::string& full : step.newCautions)
        if (told.insert(full).second) section.lines.push_back(full);
    for (const char* key : {"caution.breaks", "caution.small-parts", "caution.rules"})
      section.lines.push_back(saySentence(Text(key)));
    return section;
  }

  const PlannedWork& m_work;
  const Design& m_design;
  const Assembly& m_assembly;
  const CutPlan& m_sheets;
  const Bench& m_bench;
};

} // namespace

BookletWords bookletWords(const PlannedWork& work, const CutPlan& sheets, const Bench& bench) {
  return Writing(work, sheets, bench).run();
}

} // namespace hinge
