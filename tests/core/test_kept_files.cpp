// SPDX-License-Identifier: GPL-3.0-or-later
#include "kept.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/design/design.h"
#include "core/io/design_json.h"
#include "core/io/drawing.h"
#include "core/io/fold_file.h"
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

/// A refusal with its place, counted under its key.
void addRefused(const std::string& name, const Error& error, double weight, Numbers& n) {
  n[name + ": " + error.message.key] +=
      weight * (1 + 0.1 * error.line + 1e-4 * one(error.place) + 1e-3 * said(error.message));
}

/// Any value within, at any depth.
nlohmann::json::json_pointer anyWithin(const nlohmann::json& all, Dice& dice) {
  const nlohmann::json flat = all.flatten();
  auto place = flat.begin();
  std::advance(place, static_cast<std::ptrdiff_t>(dice.below(flat.size())));
  nlohmann::json::json_pointer path(place.key());
  // As often something that holds others.
  for (std::size_t up = dice.below(3); up > 0 && !path.parent_pointer().empty(); --up)
    path = path.parent_pointer();
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

std::string dataFile(const char* name) {
  QFile file(QStringLiteral(HINGE_TEST_DATA "/") + name);
  if (!file.open(QIODevice::ReadOnly)) qFatal("no %s", name);
  return file.readAll().toStdString();
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

private slots:
  void cleanupTestCase() { save(); }
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
      const auto motion = Snapshot(demoAsItComes("ferry-pass")).motion();
      const std::string text = *motionToFold(*motion, std::array{180.0});
      const auto whole = nlohmann::json::parse(text);
      const auto damage = [&](Dice& dice) { return damaged(whole, dice).dump(); };
      addDrawings(text, drawingFromFold, damage, n);
    } else {
      const std::string text = dataFile(format == "svg" ? "drawing.svg" : "drawing.dxf");
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
  void damagedRecordsAreWhatTheyWere() {
    QTemporaryDir folder;
    const std::string path = folder.filePath("card.work").toStdString();
    QVERIFY(writeWorkRecord(path, fullRecord()));
    QFile file(QString::fromStdString(path));
    QVERIFY(file.open(QIODevice::ReadOnly));
    const auto whole = nlohmann::json::parse(file.readAll().toStdString());
    file.close();
    Numbers n;
    Dice dice(3);
    for (std::size_t k = 0; k < 400; ++k) {
      QVERIFY(file.open(QIODevice::WriteOnly));
      file.write(QByteArray::fromStdString((k == 0 ? whole : damaged(whole, dice)).dump(1)));
      file.close();
      const auto read = readWorkRecord(path);
      if (!read) {
        n["refused: " + read.error().message.key] += at(k) * (1 + 0.1 * read.error().line);
        continue;
      }
      QVERIFY(writeWorkRecord(path, *read));
      QVERIFY(file.open(QIODevice::ReadOnly));
      addWritten("read", file.readAll().toStdString(), n);
      file.close();
    }
    compare("damaged records", n);
  }
};

QTEST_GUILESS_MAIN(TestKeptFiles)
#include "test_kept_files.moc"
