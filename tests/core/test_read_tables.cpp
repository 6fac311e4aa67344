// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/proportion.h"
#include "core/model/snapshot.h"
#include "core/pieces/sheet_words.h"
#include "words/fitted_tables.h"
#include "words/plan_words.h"
#include "words/tables.h"
#include <set>
#endif

using namespace hinge;
using namespace hinge::test;

// What a maker reads off a table leads to the lengths that the core worked out.

namespace {

struct Read {
  Design design;
  std::shared_ptr<const Assembly> assembly;
  std::vector<PieceTable> tables;
  std::vector<ReadTable> read;
};

Read readOff(Design design, const Bench& bench = {}) {
  Read out{std::move(design), nullptr, {}, {}};
  out.assembly = assemble(out.design);
  out.tables = scoreTables(*out.assembly, out.design, flatPieces(*out.assembly), bench);
  out.read = readTables(out.tables, out.design, *out.assembly, bench);
  return out;
}

/// "62.5 +0.2" as a maker sets it: the mark, and so much beyond.
double set_mm(const std::string& said, LengthUnit unit) {
  const std::size_t beyond = said.find_first_of("+-", 1);
  const auto mark = parseLength_mm(said.substr(0, said.find(' ')), unit);
  if (!mark) qFatal("no mark: %s", said.c_str());
  if (beyond == std::string::npos) return *mark;
  const auto off = parseLength_mm(said.substr(beyond + 1), unit);
  return *mark + (said[beyond] == '+' ? 1 : -1) * off.value();
}

} // namespace

class TestReadTables : public QObject {
  Q_OBJECT
private slots:
  void everyRowIsAsWideAsItsHead() {
    for (const char* name : {"night-market", "canal-houses", "tea-chests", "keepers-desk"})
      for (const LengthUnit unit : {LengthUnit::Millimetre, LengthUnit::Inch}) {
        Design design = demo(name);
        design.settings.unit = unit;
        const Read off = readOff(design);
        QCOMPARE(off.read.size(), off.tables.size());
        std::set<std::string> titles;
        for (std::size_t k = 0; k < off.read.size(); ++k) {
          const ReadTable& read = off.read[k];
          QVERIFY2(titles.insert(read.title).second, read.title.c_str());
          QVERIFY(read.title.starts_with(off.tables[k].letter + "  "));
          const auto told = std::ranges::count_if(off.tables[k].cuts, &CutMark::told);
          QCOMPARE(read.rows.size() + static_cast<std::size_t>(told),
                   off.tables[k].scores.size() + off.tables[k].cuts.size());
          for (const auto& row : read.rows)
            QCOMPARE(row.size(), read.head.size());
        }
      }
  }
  void oneCutIsOneRow() {
    const auto rowsOf = [](const char* sentences, const std::string& what) {
      Design d = card();
      d.card.kind = "sheet";
      const auto sheet = workedBy({{}, true, {}}, sentences, LengthUnit::Millimetre);
      if (!sheet) qFatal("%s", say(sheet.error()).c_str());
      d.card.sheets = {sheet->work};
      std::vector<std::vector<std::string>> rows;
      const Read off = readOff(d);
      for (const auto& row : off.read.front().rows)
        if (row[0].starts_with(what)) rows.push_back(row);
      return rows;
    };
    // The band passes the gutter: two cuts of 40, not four halves.
    const auto cuts =
        rowsOf("size 200 x 100; score 100 v; reverse 80 to 120 between 30 and 60", "cut");
    QCOMPARE(cuts.size(), std::size_t(2));
    for (const auto& row : cuts)
      QCOMPARE(row[4], std::string("40"));
    // Cuts that lie in one line but do not touch stay two.
    QCOMPARE(
        rowsOf("size 200 x 100; score 100 v; cut 20,50 to 40,50; cut 45,50 to 60,50", "cut").size(),
        std::size_t(2));
    // A trimmed corner is one line in place of its three corners.
    const char* trimmed = "size 200 x 100; score 100 v; trim top 10 from 150; trim bottom 8 to 30";
    const auto trims = rowsOf(trimmed, "trimmed");
    QCOMPARE(trims.size(), std::size_t(2));
    std::set<std::string> said{trims[0][6], trims[1][6]};
    QVERIFY(said.contains("10 off the top, from 150 to the end"));
    QVERIFY(said.contains("8 off the bottom, from the left end to 30"));
    QCOMPARE(rowsOf(trimmed, "corner").size(), std::size_t(2)); // the two that are whole
    // A tab with ends alike is one line too; that of its own corners is told by it.
    Design glued = card();
    add(glued, "box", "gutter");
    const Read box = readOff(glued);
    for (const auto& row : box.read.back().rows)
      QVERIFY2(row[0] != "corner", row[1].c_str());
  }
  void whatIsReadIsWhatIsMeant() {
    int beyond = 0, exact = 0;
    for (const char* name : {"night-market", "canal-houses", "bridge-of-arches", "ferry-pass"}) {
      const Read off = readOff(demo(name));
      for (std::size_t k = 0; k < off.read.size(); ++k)
        for (std::size_t s = 0; s < off.tables[k].scores.size(); ++s) {
          const ScoreSetting& score = off.tables[k].scores[s];
          const auto& row = off.read[k].rows[s];
          if (score.way == ScoreSetting::Way::Slanted) continue;
          const std::pair<std::string, double> read[] = {
              {row[1], score.first_mm}, {row[2], score.other_mm}, {row[3], score.step_mm}};
          for (const auto& [said, length_mm] : read) {
            QVERIFY_NEAR(set_mm(said, LengthUnit::Millimetre), length_mm, 0.051);
            (said.find(' ') == std::string::npos ? exact : beyond) += 1;
          }
          QCOMPARE(row[0].find("mountain") != std::string::npos, score.kind == LineKind::Mountain);
        }
    }
    QVERIFY(beyond > 5 && exact > 20); // both ways of saying a length were met
  }
  void fromTheOtherEdgeItIsTheRest() {
    for (const char* name : {"night-market", "canal-houses"}) {
      Bench right;
      right.first = FirstEdge::Right;
      const Read fromLeft = readOff(demo(name)), fromRight = readOff(demo(name), right);
      QCOMPARE(fromLeft.tables.size(), fromRight.tables.size());
      for (std::size_t k = 0; k < fromLeft.tables.size(); ++k) {
        std::multiset<long> there, here;
        for (const ScoreSetting& score : fromLeft.tables[k].scores)
          if (score.way == ScoreSetting::Way::Upright)
            there.insert(std::lround(100 * score.other_mm));
        for (const ScoreSetting& score : fromRight.tables[k].scores)
          if (score.way == ScoreSetting::Way::Upright)
            here.insert(std::lround(100 * score.first_mm));
        QVERIFY(there == here);
        QVERIFY(fromLeft.read[k].head != fromRight.read[k].head);
      }
    }
  }
  void theLegendHasEveryPieceOnce() {
    const Read off = readOff(demo("night-market"));
    const Snapshot snapshot(off.design);
    const CutPlan plan = layOutCards(off.design, *snapshot.cutPieces(), {}, 1, LayoutOptions());
    const ReadTable legend = legendTable(off.tables, plan, off.design, *off.assembly, Bench());
    QCOMPARE(legend.rows.size(), off.tables.size()); // it wears nothing
    std::size_t pieces = 0;
    std::set<std::string> letters;
    for (const auto& row : legend.rows) {
      QCOMPARE(row.size(), legend.head.size());
      QVERIFY(letters.insert(row[0]).second);
      pieces += std::stoul(row[2]);
      QVERIFY2(!row[5].empty(), row[0].c_str()); // it lies on some sheet
    }
    QCOMPARE(pieces, off.assembly->pieces.size());
  }
  void whatChangedIsSeenSideBySide() {
    Design wider = demo("night-market");
    const Read before = readOff(wider);
    const ReadTable same = sideBySide(before.read[0], before.read[0]);
    QVERIFY(same.rows == before.read[0].rows);
    ReadTable other = before.read[0];
    QVERIFY(!other.rows.empty());
    other.rows[0][1] = "77";
    const ReadTable both = sideBySide(before.read[0], other);
    QVERIFY(both.rows[0][1].starts_with(before.read[0].rows[0][1]));
    QVERIFY(both.rows[0][1].ends_with("77"));
    QVERIFY(both.rows[0][1] != "77");
    for (std::size_t c = 0; c < other.head.size(); ++c)
      if (c != 1) QCOMPARE(both.rows[0][c], other.rows[0][c]);
    // With other rows there is nothing to hold side by side.
    other.rows.pop_back();
    QVERIFY(sideBySide(before.read[0], other).rows == other.rows);
  }
  void aFittedCardIsReadAsItIsCut() {
    const Design design = demo("ferry-pass");
    const double flat = flatLength_mm(design).value();
    const auto fitted = tablesFitted(design, 0.8 * flat, {}, Bench());
    QVERIFY2(fitted.ok(), fitted ? "" : say(fitted.error()).c_str());
    std::set<std::string> usual; // what is held as a rule
    for (const LengthRow& row : lengthRows(design))
      if (row.held) usual.insert(row.key);
    const auto plain = fittedTo(design, std::nullopt, 0.8 * flat, usual);
    QVERIFY(plain);
    QVERIFY_NEAR(flatLength_mm(plain->design).value(), 0.8 * flat, 1e-6);
    const Read off = readOff(plain->design);
    QCOMPARE(fitted->tables.size(), off.read.size());
    for (std::size_t k = 0; k < off.read.size(); ++k)
      QVERIFY(fitted->tables[k].rows == off.read[k].rows);
    int gave = 0, held = 0;
    for (const FittedLength& length : fitted->lengths)
      (std::abs(length.to_mm - length.from_mm) < 1e-9 ? held : gave) += 1;
    QVERIFY(gave > 0);
    // Held besides, it stays.
    const auto rows = lengthRows(design);
    const auto free = std::ranges::find_if(rows, [](const LengthRow& row) { return !row.held; });
    QVERIFY(free != rows.end());
    const auto less = tablesFitted(design, 0.9 * flat, {free->key}, Bench());
    if (less) {
      const auto at = static_cast<std::size_t>(free - rows.begin());
      QVERIFY_NEAR(less->lengths[at].to_mm, free->value_mm, 1e-9);
    }
  }
  void everyChoiceOfTheBenchIsSaid() {
    std::set<std::string> said;
    for (const BenchRow& row : benchRows()) {
      QVERIFY(said.insert(sayBenchRow(row.key)).second);
      for (const std::string_view choice : choicesOf(row.key))
        QVERIFY(said.insert(saySchool(row.key, choice)).second);
    }
    for (const std::string& one : said)
      QVERIFY2(one.find('/') == std::string::npos, one.c_str()); // a key that nobody put in words
  }
  void timesAreSaidAsPeopleSayThem() {
    const std::pair<double, const char*> times[] = {
        {20, "20 seconds"}, {89.4, "89 seconds"}, {90, "2 minutes"},    {149, "2 minutes"},
        {151, "3 minutes"}, {3600, "60 minutes"}, {5370, "1 h 30 min"}, {11100, "3 h 5 min"}};
    for (const auto& [seconds, said] : times)
      QCOMPARE(sayTime(seconds), std::string(said));
  }
};

QTEST_GUILESS_MAIN(TestReadTables)
#include "test_read_tables.moc"
