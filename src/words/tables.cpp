// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/tables.h"
#include "core/pieces/splicing.h"
#include "core/structures/names.h"
#include "core/units/mark.h"
#include "words/sentences.h"
#include "words/words.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <functional>
#include <map>

// The score and cut tables in words, and tables as text.

namespace hinge {

namespace {

constexpr Sentence kTablesSaid[] = {
    {"table.mark-over", QT_TRANSLATE_NOOP("words", "%1 and a hair")},
    {"table.mark-under", QT_TRANSLATE_NOOP("words", "%1 less a hair")},
    {"table.title", QT_TRANSLATE_NOOP("words", "%1  %2")},
    {"table.count", QT_TRANSLATE_N_NOOP("words", "%n pieces, %2, %3 x %4"),
     "one piece, %2, %3 x %4"},
    {"table.hands", QT_TRANSLATE_NOOP("words", "%1 as shown and %2 as its mirror image: cut them "
                                               "face to face")},
    {"table.mirrored", QT_TRANSLATE_NOOP("words", "%1 of them are mirror images: turn the piece "
                                                  "over before it is folded")},
    {"table.longer-than-board",
     QT_TRANSLATE_NOOP("words", "longer than the scoring board: make the mid score first, then "
                                "score from both ends")},
    {"table.larger-than-trimmer",
     QT_TRANSLATE_NOOP("words", "larger than the trimmer: cut it along a metal rule, the blade "
                                "away from the hand that holds")},
    {"table.too-thick",
     QT_TRANSLATE_NOOP("words", "thicker than the trimmer cuts: several light cuts with a knife "
                                "along a metal rule, the blade away from the hand that holds")},
    {"table.off-grid", QT_TRANSLATE_NOOP("words", "not all scores lie in the grooves of the board: "
                                                  "use a ruler for those")},
    {"table.order/score-first", QT_TRANSLATE_NOOP("words", "score it, then cut")},
    {"table.order/cut-first", QT_TRANSLATE_NOOP("words", "cut it, then score")},
    {"table.what", QT_TRANSLATE_NOOP("words", "line")},
    {"table.from-left", QT_TRANSLATE_NOOP("words", "from the left")},
    {"table.from-right", QT_TRANSLATE_NOOP("words", "from the right")},
    {"table.from-below", QT_TRANSLATE_NOOP("words", "from below")},
    {"table.step", QT_TRANSLATE_NOOP("words", "step")},
    {"table.part", QT_TRANSLATE_NOOP("words", "which part")},
    {"table.side", QT_TRANSLATE_NOOP("words", "side")},
    {"table.remark", QT_TRANSLATE_NOOP("words", "mind")},
    {"table.mountain", QT_TRANSLATE_NOOP("words", "mountain")},
    {"table.valley", QT_TRANSLATE_NOOP("words", "valley")},
    {"table.level", QT_TRANSLATE_NOOP("words", "%1, level")},
    {"table.slanted", QT_TRANSLATE_NOOP("words", "%1, slanted")},
    {"table.whole", QT_TRANSLATE_NOOP("words", "all of it")},
    {"table.stretch", QT_TRANSLATE_NOOP("words", "%1 to %2")},
    {"table.face", QT_TRANSLATE_NOOP("words", "face")},
    {"table.back", QT_TRANSLATE_NOOP("words", "back")},
    {"table.first-of-long", QT_TRANSLATE_NOOP("words", "first")},
    {"table.set-other", QT_TRANSLATE_NOOP("words", "set from the other edge")},
    {"table.slant", QT_TRANSLATE_NOOP("words", "%1 long, rises %2")},
    {"table.opening", QT_TRANSLATE_NOOP("words", "opening")},
    {"table.slit", QT_TRANSLATE_NOOP("words", "cut")},
    {"table.tab", QT_TRANSLATE_NOOP("words", "tab %1")},
    {"table.corner", QT_TRANSLATE_NOOP("words", "corner")},
    {"table.trim", QT_TRANSLATE_NOOP("words", "trimmed corner")},
    {"table.trimmed/to-end", QT_TRANSLATE_NOOP("words", "%1 off %2, from %3 to the end")},
    {"table.trimmed/from-start", QT_TRANSLATE_NOOP("words", "%1 off %2, from the left end to %3")},
    {"table.top", QT_TRANSLATE_NOOP("words", "the top")},
    {"table.bottom", QT_TRANSLATE_NOOP("words", "the bottom")},
    {"table.points",
     QT_TRANSLATE_NOOP("words", "points are measured from the lower left corner: to "
                                "the right, then up")},
    {"table.tab-depth", QT_TRANSLATE_NOOP("words", "%1 deep, ends lean in by %2")},
    {"table.tab-depth/square", QT_TRANSLATE_NOOP("words", "%1 deep")},
    {"table.piece", QT_TRANSLATE_NOOP("words", "piece")},
    {"table.splice", QT_TRANSLATE_NOOP("words", "parted at %1 from the left, with a tab of %2")},
    {"table.splice/level", QT_TRANSLATE_NOOP("words", "parted at %1 from below, with a tab of %2")},
    {"legend.title", QT_TRANSLATE_NOOP("words", "What the letters mean")},
    {"legend.letter", QT_TRANSLATE_NOOP("words", "letter")},
    {"legend.what", QT_TRANSLATE_NOOP("words", "piece")},
    {"legend.count", QT_TRANSLATE_NOOP("words", "count")},
    {"legend.size", QT_TRANSLATE_NOOP("words", "size")},
    {"legend.paper", QT_TRANSLATE_NOOP("words", "paper")},
    {"legend.sheets", QT_TRANSLATE_NOOP("words", "sheets")},
    {"legend.layer", QT_TRANSLATE_NOOP("words", "layer")},
    {"bench.row/trimmer", QT_TRANSLATE_NOOP("words", "Longest cut of the trimmer (0: none)")},
    {"bench.row/board", QT_TRANSLATE_NOOP("words", "Length of the scoring board (0: a ruler)")},
    {"bench.row/grid", QT_TRANSLATE_NOOP("words", "Between its grooves (0: anywhere)")},
    {"bench.row/step", QT_TRANSLATE_NOOP("words", "Finest step that is set (0: as usual)")},
    {"bench.row/thickest", QT_TRANSLATE_NOOP("words", "Thickest paper that the trimmer cuts")},
    {"bench.row/offcut", QT_TRANSLATE_NOOP("words", "Offcuts are kept from")},
    {"bench.row/blade", QT_TRANSLATE_NOOP("words", "Knife, from its axis to its tip")},
    {"bench.row/overcut", QT_TRANSLATE_NOOP("words", "Closed cuts go past their start by")},
    {"bench.row/scale-x", QT_TRANSLATE_NOOP("words", "It makes of a length of 1, across")},
    {"bench.row/scale-y", QT_TRANSLATE_NOOP("words", "It makes of a length of 1, up")},
    {"bench.row/offset-x", QT_TRANSLATE_NOOP("words", "X offset (it begins too far right by)")},
    {"bench.row/offset-y", QT_TRANSLATE_NOOP("words", "Y offset (it begins too far up by)")},
    {"bench.row/sides", QT_TRANSLATE_NOOP("words", "Scored from")},
    {"bench.row/length", QT_TRANSLATE_NOOP("words", "How much of a line")},
    {"bench.row/order", QT_TRANSLATE_NOOP("words", "What comes first")},
    {"bench.row/first", QT_TRANSLATE_NOOP("words", "Where numbers begin")},
    {"school.sides/face",
     QT_TRANSLATE_NOOP("words", "every line on the face: one side up all the time, quick and hard "
                                "to get wrong; good for thin card")},
    {"school.sides/both",
     QT_TRANSLATE_NOOP("words", "valleys on the face, mountains on the back: thick card cracks "
                                "less with the groove outside of the bend")},
    {"school.length/whole",
     QT_TRANSLATE_NOOP("words", "from edge to edge wherever nothing else would be creased: "
                                "straighter, fewer marks")},
    {"school.length/folding",
     QT_TRANSLATE_NOOP("words", "only where it folds: no groove shows beside openings")},
    {"school.order/score-first",
     QT_TRANSLATE_NOOP("words", "score, then cut: the sheet still has its straight edges to lie "
                                "against")},
    {"school.order/cut-first",
     QT_TRANSLATE_NOOP("words", "cut, then score: nothing is scored that is thrown away, and the "
                                "cuts show where to stop")},
    {"school.first/left", QT_TRANSLATE_NOOP("words", "read from the left edge")},
    {"school.first/right",
     QT_TRANSLATE_NOOP("words", "read from the right edge, for boards with their stop there")},
};

} // namespace

std::span<const Sentence> Words::tables() {
  return kTablesSaid;
}

std::string sayMark(double length_mm, double step_mm, LengthUnit unit) {
  const Mark mark = nearestMark(length_mm, step_mm);
  const std::string at = formatLength(mark.at_mm, unit, false);
  if (mark.exact()) return at;
  if (unit == LengthUnit::Inch)
    return say(Text(mark.off_mm > 0 ? "table.mark-over" : "table.mark-under", at));
  return fmt::format("{} {}{}", at, mark.off_mm > 0 ? "+" : "-",
                     formatLength(std::abs(mark.off_mm), unit, false));
}

std::string sayBenchRow(std::string_view key) {
  return say(Text(fmt::format("bench.row/{}", key)));
}

std::string saySchool(std::string_view key, std::string_view choice) {
  return say(Text(fmt::format("school.{}/{}", key, choice)));
}

namespace {

class Reading {
public:
  Reading(const PieceTable& table, const Design& design, const Assembly& assembly,
          const Bench& bench)
      : m_table(table), m_design(design), m_assembly(assembly), m_bench(bench),
        m_unit(design.settings.unit) {}

  ReadTable run() {
    ReadTable out;
    out.title =
        say(Text("table.title", m_table.letter,
                 Text("as-it-is", saySentence(pieceName(m_design, m_assembly, m_table.piece)))));
    out.lines.push_back(
        say(Text("table.count", m_table.count(), nameOf(m_design.paperNamed(m_table.paper)),
                 mark(m_table.size.x()), mark(m_table.size.y()) + unitMark())));
    if (m_table.handed)
      out.lines.push_back(say(Text("table.hands", m_table.same.size(), m_table.mirrored.size())));
    else if (!m_table.mirrored.empty())
      out.lines.push_back(say(Text("table.mirrored", m_table.mirrored.size())));
    for (PieceNote note : m_table.notes)
      out.lines.push_back(say(Text(fmt::format("table.{}", keyOf(note)))));
    addSplices(out);
    if (!m_table.scores.empty() && !m_table.cuts.empty())
      out.lines.push_back(say(Text(fmt::format("table.order/{}", schoolOf(m_bench, "order")))));
    if (!m_table.cuts.empty()) out.lines.push_back(say(Text("table.points")));
    const bool left = m_bench.first == FirstEdge::Left;
    for (const char* key : {"table.what", left ? "table.from-left" : "table.from-right",
                            left ? "table.from-right" : "table.from-left", "table.step",
                            "table.part", "table.side", "table.remark"})
      out.head.push_back(say(Text(key)));
    for (const ScoreSetting& score : m_table.scores)
      out.rows.push_back(rowOf(score));
    for (const CutMark& cut : m_table.cuts)
      if (!cut.told) out.rows.push_back(rowOf(cut));
    return out;
  }

private:
  /// Where it is parted, from its own left or lower border.
  void addSplices(ReadTable& out) const {
    Box2 box;
    for (PanelIndex p : m_assembly.pieces[m_table.piece].panels)
      box.add(boundsOf(m_assembly.panels[p].outline));
    for (const Splice& splice : m_design.splices) {
      const auto laid = laidSplice(m_assembly, splice);
      if (!laid || m_assembly.panels[laid->panel].piece != m_table.piece) continue;
      const double at = laid->cut_mm - box.low[splice.level ? 1 : 0];
      out.lines.push_back(
          say(Text(splice.level ? "table.splice/level" : "table.splice", Text("as-it-is", mark(at)),
                   Text("as-it-is", mark(splice.overlap_mm)))));
    }
  }
  std::string mark(double mm) const { return sayMark(mm, stepOf_mm(m_bench, m_unit), m_unit); }
  std::string unitMark() const { return " " + std::string(unitKey(m_unit)); }
  std::string point(const Vec2& p) const { return mark(p.x()) + ", " + mark(p.y()); }
  std::string both(const std::string& from, const std::string& to) const {
    return say(Text("table.stretch", from, to));
  }

  std::string partOf(const ScoreSetting& score) const {
    if (score.whole) return say(Text("table.whole"));
    std::string parts;
    for (const Stretch& part : score.stretches)
      parts += (parts.empty() ? "" : "; ") + both(mark(part.from_mm), mark(part.to_mm));
    return parts;
  }

  std::vector<std::string> rowOf(const ScoreSetting& score) const {
    const Text kind(score.kind == LineKind::Mountain ? "table.mountain" : "table.valley");
    const std::string side = say(Text(score.fromBack ? "table.back" : "table.face"));
    if (score.way == ScoreSetting::Way::Slanted)
      return {say(Text("table.slanted", kind)),
              point(score.from),
              point(score.to),
              "",
              "",
              side,
              say(Text("table.slant", Text("as-it-is", mark(score.length_mm)),
                       Degrees{score.angle_deg}))};
    std::string remark;
    if (score.firstOfLong) remark = say(Text("table.first-of-long"));
    if (score.fromOther) remark += (remark.empty() ? "" : "; ") + say(Text("table.set-other"));
    const bool level = score.way == ScoreSetting::Way::Level;
    return {level ? say(Text("table.level", kind)) : say(kind),
            mark(score.first_mm),
            mark(score.other_mm),
            mark(score.step_mm),
            partOf(score),
            side,
            remark};
  }

  std::vector<std::string> rowOf(const CutMark& cut) const {
    std::vector<std::string> row(7);
    row[1] = point(cut.from);
    switch (cut.what) {
    case CutMark::What::Opening:
      row[0] = say(Text("table.opening")), row[2] = point(cut.to);
      row[4] = mark(cut.to.x() - cut.from.x()) + " x " + mark(cut.to.y() - cut.from.y());
      break;
    case CutMark::What::Slit:
      row[0] = say(Text("table.slit")), row[2] = point(cut.to);
      row[4] = mark((cut.to - cut.from).norm());
      break;
    case CutMark::What::Tab:
      row[0] = say(Text("table.tab", cut.letter)), row[2] = point(cut.to);
      row[6] = cut.bevel_deg > 0.05
                   ? say(Text("table.tab-depth", mark(cut.depth_mm), Degrees{cut.bevel_deg}))
                   : say(Text("table.tab-depth/square", mark(cut.depth_mm)));
      break;
    case CutMark::What::Corner: row[0] = say(Text("table.corner")); break;
    case CutMark::What::Trim:
      row[0] = say(Text("table.trim")), row[2] = point(cut.to);
      row[6] = trimmed(cut);
      break;
    }
    return row;
  }

  /// "3/8 off the top, from 3 1/4 to the end".
  std::string trimmed(const CutMark& cut) const {
    const bool top = cut.to.y() > cut.from.y(), right = cut.to.x() > cut.from.x();
    const std::string depth = mark(std::abs(cut.to.y() - cut.from.y())), at = mark(cut.from.x());
    return say(Text(right ? "table.trimmed/to-end" : "table.trimmed/from-start",
                    Text("as-it-is", depth), Text(top ? "table.top" : "table.bottom"),
                    Text("as-it-is", at)));
  }

  const PieceTable& m_table;
  const Design& m_design;
  const Assembly& m_assembly;
  const Bench& m_bench;
  LengthUnit m_unit;
};

/// As a person sees it: code points, not bytes.
std::size_t columnsOf(const std::string& text) {
  return static_cast<std::size_t>(
      std::ranges::count_if(text, [](char c) { return (c & 0xC0) != 0x80; }));
}

std::string quoted(const std::string& text) {
  if (text.find_first_of(",\"\n\r") == std::string::npos) return text;
  std::string out = "\"";
  for (char c : text)
    out += c == '"' ? std::string("\"\"") : std::string(1, c);
  return out + "\"";
}

} // namespace

ReadTable readTable(const PieceTable& table, const Design& design, const Assembly& assembly,
                    const Bench& bench) {
  return Reading(table, design, assembly, bench).run();
}

std::vector<ReadTable> readTables(const std::vector<PieceTable>& tables, const Design& design,
                                  const Assembly& assembly, const Bench& bench) {
  std::vector<ReadTable> read;
  for (const PieceTable& table : tables)
    read.push_back(readTable(table, design, assembly, bench));
  return read;
}

namespace {

/// "1, 3" of the sheets that hold a part that is meant.
std::string sheetsWith(const CutPlan& plan, const std::function<bool(const CutPart&)>& meant) {
  std::string list;
  for (std::size_t s = 0; s < plan.sheets.size(); ++s)
    if (std::ranges::any_of(plan.sheets[s].places,
                            [&](const PartPlace& place) { return meant(plan.parts[place.part]); }))
      list += (list.empty() ? "" : ", ") + std::to_string(s + 1);
  return list;
}

} // namespace

ReadTable legendTable(const std::vector<PieceTable>& tables, const CutPlan& plan,
                      const Design& design, const Assembly& assembly, const Bench& bench) {
  const LengthUnit unit = design.settings.unit;
  const double step = stepOf_mm(bench, unit);
  const auto size = [&](const Vec2& mm) {
    return sayMark(mm.x(), step, unit) + " x " + sayMark(mm.y(), step, unit);
  };
  const auto paperNamed = [&](const std::string& key) {
    return say(nameOf(design.paperNamed(key)));
  };
  ReadTable out;
  out.title = say(Text("legend.title"));
  for (const char* key : {"legend.letter", "legend.what", "legend.count", "legend.size",
                          "legend.paper", "legend.sheets"})
    out.head.push_back(say(Text(key)));
  for (const PieceTable& table : tables)
    out.rows.push_back({table.letter, saySentence(pieceName(design, assembly, table.piece)),
                        std::to_string(table.count()), size(table.size), paperNamed(table.paper),
                        sheetsWith(plan, [&](const CutPart& part) {
                          return part.mat == 0 &&
                                 (std::ranges::count(table.same, part.flat.piece) > 0 ||
                                  std::ranges::count(table.mirrored, part.flat.piece) > 0);
                        })});
  std::map<std::size_t, std::pair<std::size_t, const CutPart*>> layers;
  for (const CutPart& part : plan.parts)
    if (part.mat > 0) ++layers[part.mat].first, layers[part.mat].second = &part;
  for (const auto& [number, line] : layers)
    out.rows.push_back({std::to_string(number), say(Text("legend.layer")),
                        std::to_string(line.first), size(line.second->size()),
                        paperNamed(line.second->paper),
                        sheetsWith(plan, [n = number](const CutPart& p) { return p.mat == n; })});
  return out;
}

ReadTable sideBySide(const ReadTable& before, const ReadTable& after) {
  if (before.rows.size() != after.rows.size() || before.head != after.head) return after;
  ReadTable both = after;
  for (std::size_t r = 0; r < both.rows.size(); ++r)
    for (std::size_t c = 0; c < both.rows[r].size(); ++c)
      if (before.rows[r][c] != after.rows[r][c])
        both.rows[r][c] = before.rows[r][c] + " -> " + after.rows[r][c];
  return both;
}

std::string plainText(const std::vector<ReadTable>& tables) {
  std::string out;
  for (const ReadTable& table : tables) {
    out += (out.empty() ? "" : "\n") + table.title + "\n";
    for (const std::string& line : table.lines)
      out += "  " + line + "\n";
    if (table.rows.empty()) continue;
    std::vector<std::size_t> wide;
    for (const std::string& name : table.head)
      wide.push_back(columnsOf(name));
    for (const auto& row : table.rows)
      for (std::size_t c = 0; c < row.size(); ++c)
        wide[c] = std::max(wide[c], columnsOf(row[c]));
    const auto write = [&](const std::vector<std::string>& row) {
      std::string line = "  ";
      for (std::size_t c = 0; c < row.size(); ++c)
        line += row[c] + std::string(wide[c] - columnsOf(row[c]) + 2, ' ');
      out += line.substr(0, line.find_last_not_of(' ') + 1) + "\n";
    };
    write(table.head);
    for (const auto& row : table.rows)
      write(row);
  }
  return out;
}

namespace {

std::string separated(const std::vector<ReadTable>& tables,
                      const std::function<std::string(const std::vector<std::string>&)>& line) {
  std::string out;
  for (const ReadTable& table : tables) {
    if (out.empty()) {
      std::vector<std::string> head{say(Text("table.piece"))};
      head.insert(head.end(), table.head.begin(), table.head.end());
      out += line(head);
    }
    for (const auto& row : table.rows) {
      std::vector<std::string> full{table.title};
      full.insert(full.end(), row.begin(), row.end());
      out += line(full);
    }
  }
  return out;
}

} // namespace

std::string commaSeparated(const std::vector<ReadTable>& tables) {
  return separated(tables, [](const std::vector<std::string>& row) {
    std::string out;
    for (std::size_t c = 0; c < row.size(); ++c)
      out += (c == 0 ? "" : ",") + quoted(row[c]);
    return out + "\r\n";
  });
}

std::string tabSeparated(const std::vector<ReadTable>& tables) {
  return separated(tables, [](const std::vector<std::string>& row) {
    std::string out;
    for (std::size_t c = 0; c < row.size(); ++c)
      out += (c == 0 ? "" : "\t") + row[c];
    return out + "\n";
  });
}

} // namespace hinge
