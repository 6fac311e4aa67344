// SPDX-License-Identifier: GPL-3.0-or-later
#include "kept.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/design/design.h"
#include "core/io/cut_mark.h"
#include "core/io/design_json.h"
#include "core/io/drawing.h"
#include "core/io/fold_file.h"
#include "core/io/maker_bench.h"
#include "core/io/maker_drawer.h"
#include "core/io/maker_ways.h"
#include "core/io/obj.h"
#include "core/io/page.h"
#include "core/io/work_record_json.h"
#include "core/model/planned.h"
#include <QTemporaryDir>
#endif

using namespace hinge;
using namespace hinge::test;

// What is written of cards, and what damaged files are found to be: see kept.h.

namespace {

/// Any value within, at any depth: what stands alone is as likely as what stands in a long list.
nlohmann::json::json_pointer anyWithin(const nlohmann::json& all, Dice& dice) {
  nlohmann::json::json_pointer path;
  const nlohmann::json* at = &all;
  while (at->is_structured() && !at->empty() && (at == &all || !dice.chance(0.2))) {
    auto child = at->begin();
    const std::size_t which = dice.below(at->size());
    std::advance(child, static_cast<std::ptrdiff_t>(which));
    at->is_object() ? path /= child.key() : path /= which;
    at = &*child;
  }
  return path;
}

/// Something else in the place of one value, or nothing.
nlohmann::json damaged(nlohmann::json all, Dice& dice) {
  const auto path = anyWithin(all, dice);
  const nlohmann::json others[] = {-1,  0,  7e3,       0.37, "x", "", "s1", true, nlohmann::json(),
                                   {1}, {}, {{"x", 1}}};
  const std::size_t other = dice.below(std::size(others) + 4);
  if (other < std::size(others))
    all[path] = others[other];
  else if (nlohmann::json& holder = all[path.parent_pointer()]; holder.is_object())
    holder.erase(path.back());
  else
    holder.insert(holder.begin(), holder.back());
  return all;
}

/// A text of which something is missing, doubled or another.
std::string damaged(std::string text, Dice& dice) {
  const std::size_t at = dice.below(text.size()), to = dice.below(9) + 1;
  switch (dice.below(5)) {
  case 0: return text.erase(at, to);
  case 1: return text.insert(at, text.substr(at, to));
  case 2: return text.replace(at, 1, 1, "-1e3.,;:\"<>(){}[] \nxZ"[dice.below(21)]), text;
  case 3: {
    const std::size_t line = text.rfind('\n', at), end = text.find('\n', at);
    return text.erase(line == std::string::npos ? 0 : line,
                      end == std::string::npos ? end
                                               : end - (line == std::string::npos ? 0 : line));
  }
  default: return text.substr(0, at);
  }
}

void addWrittenFiles(const Design& design, Numbers& n) {
  addWritten("file", designToJson(design), n);
  addWritten("page", pageOf(design), n);
  const auto motion = Snapshot(design).motion();
  if (const auto folded = motionToFold(*motion, std::array<double, 3>{0, 71, 180}))
    addWritten("FOLD", *folded, n);
  else
    addRefused("FOLD", folded.error(), 1, n);
  if (const auto solid = poseToObj(*motion, 103)) addWritten("OBJ", *solid, n);
}

void addDamagedFiles(const Design& design, Numbers& n) {
  const std::string text = designToJson(design);
  const auto whole = nlohmann::json::parse(text);
  Dice dice(7);
  for (std::size_t k = 0; k < 240; ++k) {
    const auto read = designFromJson(
        k % 6 == 0 ? damaged(text, dice) : damaged(whole, dice).dump(1), "card.hinge");
    if (read)
      addWritten(fmt::format("read {}", k % 6), designToJson(*read), n);
    else
      addRefused("refused", read.error(), at(k), n);
  }
  const std::string page = pageOf(design);
  for (std::size_t k = 0; k < 120; ++k)
    if (const auto read = designFromPage(damaged(page, dice)))
      addWritten(fmt::format("page read {}", k % 6), designToJson(*read), n);
    else
      addRefused("page refused", read.error(), at(k), n);
}

/// What is made of a drawing: its lines, what they are taken for, and the pieces of them.
void addDrawing(const std::string& name, const Result<Drawing>& drawing, double weight,
                Numbers& n) {
  if (!drawing) return addRefused(name, drawing.error(), weight, n);
  for (std::size_t k = 0; k < drawing->lines.size(); ++k) {
    const DrawnLine& line = drawing->lines[k];
    double& sum = n[name];
    sum += weight * at(k) * (line.closed + 0.1 * line.inside + line.folded_deg.value_or(0.3));
    sum += 0.01 * one(line.look.layer + line.look.colour + line.look.dash);
    for (std::size_t j = 0; j < line.points.size(); ++j)
      sum += weight * at(j) * one(line.points[j]);
  }
  for (const auto& [unused, count] : drawing->unused)
    n[name + " unused"] += weight * count * 0.01 * one(unused);
  const auto pieces = piecesOf(*drawing, likelyUses(*drawing));
  if (!pieces) return addRefused(name + " as pieces", pieces.error(), weight, n);
  for (const PieceWork& piece : *pieces) {
    n[name + " as pieces"] += weight * one(piece.outline);
    for (const WorkLine& line : piece.lines)
      n[name + " as pieces"] +=
          weight * (static_cast<int>(line.kind) + one(line.from) + 1.7 * one(line.to));
  }
}

std::string textIn(const std::string& path) {
  QFile file(QString::fromStdString(path));
  if (!file.open(QIODevice::ReadOnly)) qFatal("no %s", path.c_str());
  return file.readAll().toStdString();
}

/// Damages a JSON file again and again, from what it is now, and looks what is read.
void damageFile(const std::string& path, const std::function<void(std::size_t)>& look) {
  const auto whole = nlohmann::json::parse(textIn(path));
  Dice dice(9);
  for (std::size_t k = 0; k < 400; ++k) {
    QFile file(QString::fromStdString(path));
    if (!file.open(QIODevice::WriteOnly)) qFatal("cannot write %s", path.c_str());
    const std::string text = (k == 0 ? whole : damaged(whole, dice)).dump(1);
    file.write(QByteArray::fromStdString(k % 40 == 7 ? damaged(text, dice) : text));
    file.close();
    look(k);
  }
}

/// The drawing as it is, and damaged ones.
void addDrawings(const std::string& text, Result<Drawing> (*read)(std::string_view),
                 const std::function<std::string(Dice&)>& damage, Numbers& n) {
  Dice dice(11);
  addDrawing("whole", read(text), 1, n);
  for (std::size_t k = 0; k < 1500; ++k)
    addDrawing(fmt::format("damaged {}", k % 10), read(damage(dice)), at(k), n);
}

/// A record in which everything has happened once.
WorkRecord fullRecord() {
  WorkRecord record;
  record.done = {"ready", "score:card"}, record.current = "join:s1/tab-a", record.part = 2;
  record.timers = {{"join:s1/tab-b", 1.8e9, true}, {"join:s2/tab-a", 1.8e9 + 60, false}};
  record.misses = {{"join:s1/tab-a", "glue-side", 1.8e9, {"s1/piece"}}};
  record.measured = {{"measure:s1", 41.5, 41, 1.8e9}};
  record.times = {{"score:card", "score", 60, 75.5}};
  record.rehearsed = {{1.8e9, 12, 3, true}};
  return record;
}

} // namespace

class TestKeptFiles : public KeptTest {
  Q_OBJECT
public:
  TestKeptFiles() : KeptTest("kept_files.json") {}

private:
  QTemporaryDir m_folder; ///< what is the maker's own is not the tests' to change

private slots:
  void initTestCase() { qputenv("XDG_DATA_HOME", m_folder.path().toUtf8()); }
  void filesSayWhatTheySaid_data() { rowsOfDemos(); }
  void filesSayWhatTheySaid() {
    QFETCH(QString, name);
    Numbers n;
    addWrittenFiles(demoAsItComes(name.toStdString()), n);
    compare(name.toStdString(), n);
  }
  void damagedFilesAreWhatTheyWere_data() { rowsOfDemos(); }
  void damagedFilesAreWhatTheyWere() {
    QFETCH(QString, name);
    Numbers n;
    addDamagedFiles(demoAsItComes(name.toStdString()), n);
    compare(name.toStdString() + " damaged", n);
  }
  void drawingsAreWhatTheyWere_data() {
    QTest::addColumn<QString>("format");
    for (const char* format : {"svg", "dxf", "fold"})
      QTest::newRow(format) << format;
  }
  void drawingsAreWhatTheyWere() {
    QFETCH(QString, format);
    Numbers n;
    if (format == "fold") {
      for (const char* card : {"ferry-pass", "lamp-lattice"}) {
        const auto motion = Snapshot(demoAsItComes(card)).motion();
        const std::string text = *motionToFold(*motion, std::array{180.0});
        const auto whole = nlohmann::json::parse(text);
        const auto damage = [&](Dice& dice) { return damaged(whole, dice).dump(); };
        addDrawings(text, drawingFromFold, damage, n);
      }
    } else {
      const std::string text = textIn(HINGE_TEST_DATA "/drawing." + format.toStdString());
      const auto damage = [&](Dice& dice) { return damaged(text, dice); };
      addDrawings(text, format == "svg" ? drawingFromSvg : drawingFromDxf, damage, n);
    }
    compare("drawn as " + format.toStdString(), n);
  }
  void listsOfScoresAreWhatTheyWere() {
    const std::string list = "position, fold\n12.5, valley\n40 mm; mountain, right\n"
                             "1 1/4 in\tv\n\n70, m, left\r\n55\n";
    Numbers n;
    Dice dice(5);
    for (std::size_t k = 0; k < 400; ++k) {
      const std::string text = k < 2 ? list : damaged(list, dice);
      const auto read = scoresFromCsv(text, k % 2 ? LengthUnit::Inch : LengthUnit::Millimetre, 100);
      if (!read) {
        addRefused("refused", read.error(), at(k), n);
        continue;
      }
      for (std::size_t j = 0; j < read->size(); ++j)
        n["read"] += at(j) * (*read)[j].low_mm +
                     ((*read)[j].kind ? 1 + static_cast<int>(*(*read)[j].kind) : 0);
    }
    compare("lists of scores", n);
  }
  void damagedMarksAreWhatTheyWere() {
    QVERIFY(keepCutMark({"0123456789abcdef", 7, 2, {3, {400, 800}}}));
    Numbers n;
    damageFile(cutMarkPath(), [&](std::size_t k) {
      const auto read = keptCutMark();
      if (!read)
        addRefused("refused", Error{read.error().message, ""}, at(k), n);
      else if (*read)
        n["read"] += at(k) * (one((*read)->job) + static_cast<double>((*read)->step) +
                              1.7 * static_cast<double>((*read)->leg) +
                              2.3 * static_cast<double>((*read)->from.behind) +
                              (*read)->from.at[0] + 1.9 * (*read)->from.at[1]);
    });
    compare("damaged marks", n);
  }
  /// Bench, schools and papers of the maker: what is read of damaged ones is kept again.
  void damagedDrawersAreWhatTheyWere() {
    Bench bench;
    bench.speeds_cms = {{"card-220", 12.5}, {"tissue", 4}};
    MakingWays ways;
    ways.closing = Closing::OnMarks, ways.joints = Adhesive::StrongTape;
    QVERIFY(keepBench(bench) && keepWays(ways));
    for (const Paper& paper : demoAsItComes("night-market").papers)
      QVERIFY(keepPaper(paper));
    const auto read = [](auto reads, auto keeps, const std::string& path, const char* name) {
      Numbers n;
      damageFile(path, [&](std::size_t k) {
        const auto made = reads();
        if (!made)
          addRefused(name, Error{made.error().message, ""}, at(k), n);
        else if (keeps(*made))
          addWritten(name, textIn(path), n);
      });
      return n;
    };
    compare("damaged bench", read(makersBench, keepBench, makersBenchPath(), "bench"));
    compare("damaged schools", read(makersWays, keepWays, makersWaysPath(), "schools"));
    OwnTimes times;
    times.add({"join:s1/tab-a", "join", 60, 75.5}), times.add({"cut:s1", "cut", 30, 20});
    QVERIFY(keepTimes(times));
    const std::string timesPath = m_folder.filePath("hinge-lantern/times.json").toStdString();
    compare("damaged times", read(makersTimes, keepTimes, timesPath, "times"));
    const auto last = [](const std::vector<Paper>& papers) {
      return papers.empty() ? Result<void>() : keepPaper(papers.back());
    };
    compare("damaged drawer", read(makersPapers, last, makersDrawerPath(), "drawer"));
  }
  void damagedRecordsAreWhatTheyWere() {
    const std::string path = m_folder.filePath("card.work").toStdString();
    QVERIFY(writeWorkRecord(path, fullRecord()));
    Numbers n;
    damageFile(path, [&](std::size_t k) {
      const auto read = readWorkRecord(path);
      if (!read)
        addRefused("refused", Error{read.error().message, "", read.error().line}, at(k), n);
      else if (writeWorkRecord(path, *read))
        addWritten("read", textIn(path), n);
    });
    compare("damaged records", n);
  }
};

QTEST_GUILESS_MAIN(TestKeptFiles)
#include "test_kept_files.moc"
