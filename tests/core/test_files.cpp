// SPDX-License-Identifier: GPL-3.0-or-later
#include "fold_reading.h"
#include "support.h"
#ifndef Q_MOC_RUN
#include "cli/report_json.h"
#include "core/edits/settling.h"
#include "core/io/design_json.h"
#include "core/io/fold_file.h"
#include "core/io/json_place.h"
#include "core/io/obj.h"
#include "core/io/page.h"
#include "core/io/text_file.h"
#include "core/structures/registry.h"
#include <QDir>
#include <QFile>
#include <QTemporaryDir>
#include <csignal>
#include <nlohmann/json.hpp>
#include <sstream>
#include <sys/resource.h>
#include <sys/stat.h>
#endif

using namespace hinge;
using namespace hinge::test;

namespace {

Design sample() {
  Design d = card();
  d.title = "Stalls <&> \"lamps\" ü";
  add(d, "vfold", "gutter", {{"position", 30}});
  add(d, "box", "gutter", {{"position", 100}, {"a", 25.4 / 3}});
  return d;
}

std::string replaced(std::string text, const std::string& from, const std::string& to) {
  const auto at = text.find(from);
  if (at == std::string::npos) qFatal("the sample has no %s", from.c_str());
  return text.replace(at, from.size(), to);
}

} // namespace

class TestFiles : public QObject {
  Q_OBJECT
private slots:
  void savingLoadingSavingIsByteEqual() {
    const std::string once = designToJson(sample());
    const auto back = designFromJson(once);
    QVERIFY2(back.ok(), back.ok() ? "" : say(back.error()).c_str());
    QVERIFY(*back == sample());
    QVERIFY(designToJson(*back) == once);
  }
  void unknownMembersAreKept() {
    std::string text = designToJson(sample());
    text = replaced(text, "\"title\"", "\"weather\": {\"rain\": [1, 2]}, \"title\"");
    text = replaced(text, "\"fold\": \"side\"", "\"fold\": \"side\", \"spine\": 3");
    text = replaced(text, "\"kind\": \"box\"", "\"colour\": \"amber\", \"kind\": \"box\"");
    const auto d = designFromJson(text);
    QVERIFY(d.ok());
    const std::string saved = designToJson(*d);
    for (const char* kept : {"\"rain\"", "\"spine\": 3", "\"colour\": \"amber\""})
      QVERIFY2(saved.find(kept) != std::string::npos, kept);
    QVERIFY(designToJson(*designFromJson(saved)) == saved);
  }
  void filesOfVersion1SayTheSameInTodaysWords_data() {
    QTest::addColumn<QString>("name");
    for (const char* name : {"pop-up-lantern", "oil-sleeve", "lamp-lattice"})
      QTest::newRow(name) << name;
  }
  void filesOfVersion1SayTheSameInTodaysWords() {
    QFETCH(QString, name);
    const auto read = [&](const QString& folder) {
      return loadDesign(
          (QStringLiteral(HINGE_SOURCE_DIR "/") + folder + name + ".hinge").toStdString());
    };
    const auto old = read("tests/data/version-1/"), today = read("demo/");
    QVERIFY2(old.ok(), old.ok() ? "" : say(old.error()).c_str());
    QVERIFY(today.ok());
    const Design plain = withoutRules(undressed(*today)); // it got both since
    QVERIFY(*old == plain);
    QCOMPARE(QString::fromStdString(designToJson(*old)),
             QString::fromStdString(designToJson(plain)));
  }
  /// What an older file says wrongly is refused with its place, whatever the version.
  void jointsOfOlderFilesMayBeWrong() {
    QFile file(HINGE_SOURCE_DIR "/tests/data/version-1/pop-up-lantern.hinge");
    QVERIFY(file.open(QIODevice::ReadOnly));
    const std::string old = file.readAll().toStdString();
    for (const char* kind : {"7", "null", "[]", "{\"a\": 1}", "\"stitch\""}) {
      const auto read =
          designFromJson(replaced(old, "\"kind\": \"elastic\"", std::string("\"kind\": ") + kind));
      QVERIFY2(!read.ok(), kind);
      QVERIFY2(hinge::say(read.error()).find("joints[") != std::string::npos,
               hinge::say(read.error()).c_str());
    }
    const auto without = designFromJson(replaced(old, "\"kind\": \"elastic\",", ""));
    QVERIFY(!without.ok());
  }
  /// Version 5 added rules: what version 4 says is read as it was, and makes the same paper.
  void cardsOfVersion4AreTheSame() {
    const QDir folder(QStringLiteral(HINGE_SOURCE_DIR "/demo"));
    int read = 0;
    for (const QString& name : folder.entryList({QStringLiteral("*.hinge")})) {
      QFile file(folder.filePath(name));
      QVERIFY(file.open(QIODevice::ReadOnly));
      std::string text = file.readAll().toStdString();
      const auto now = designFromJson(text);
      text = replaced(text, "\"version\": 5", "\"version\": 4");
      const auto before = designFromJson(text);
      QVERIFY2(now && before, qPrintable(name));
      QVERIFY2(*now == *before, qPrintable(name));
      QVERIFY2(designToJson(*before) == designToJson(*now), qPrintable(name));
      ++read;
    }
    QVERIFY(read > 40);
  }
  /// Depth counts what is open, not how many there were.
  void manyThingsBesideOneAnotherAreNotDeep() {
    std::string text = "{\"much\":[";
    for (int k = 0; k < 5000; ++k)
      text += "[{}],";
    const auto read = designFromJson(text + "[]]}", "much.hinge");
    QVERIFY(!read.ok() && read.error().message.key != "file.too-deep");
    const auto deep = designFromJson("{\"deep\":" + std::string(5000, '['), "deep.hinge");
    QVERIFY(!deep.ok() && deep.error().message.key == "file.too-deep");
    const auto quoted =
        designFromJson("{\"deep\":\"\\\"" + std::string(5000, '[') + "\"}", "quoted.hinge");
    QVERIFY(!quoted.ok() && quoted.error().message.key != "file.too-deep");
  }
  void wordsOfAnEarlierVersionAreRefusedInALaterOne() {
    std::string text = designToJson(demo("pop-up-lantern"));
    text = replaced(text, "\"kind\": \"band\"", "\"kind\": \"elastic\"");
    const auto read = designFromJson(text);
    QVERIFY(!read.ok());
    QVERIFY2(say(read.error()).find("joints[") != std::string::npos, say(read.error()).c_str());
  }
  void damagedFilesAreRefusedWithPlaceAndCause_data() {
    QTest::addColumn<QString>("text");
    QTest::addColumn<QString>("code");
    QTest::addColumn<QString>("mentions");
    const std::string good = designToJson(sample());
    const auto row = [](const char* name, const std::string& text, const char* code,
                        const char* mentions) {
      QTest::newRow(name) << QString::fromStdString(text) << code << mentions;
    };
    row("empty", "", "file.syntax", "line 1");
    row("truncated", good.substr(0, good.size() / 2), "file.syntax", "line");
    row("binary", std::string("\x01\x02\x7f{", 4), "file.syntax", "line 1");
    row("another kind of file", "{\"a\": 1}", "file.format", "format");
    row("a list", "[1, 2]", "file.format", "project");
    row("newer version", replaced(good, "\"version\": 5", "\"version\": 9"), "file.version", "9");
    row("nested deeply", std::string(100000, '['), "file.too-deep", "64");
    row("nested in an unknown member",
        replaced(good, "\"title\"",
                 "\"x\": " + std::string(500, '[') + std::string(500, ']') + ", \"title\""),
        "file.too-deep", "line");
    row("text for a number", replaced(good, "\"width_mm\": 130.0", "\"width_mm\": \"wide\""),
        "file.member", "card.width_mm");
    row("negative card", replaced(good, "\"width_mm\": 130.0", "\"width_mm\": -5"), "card.size",
        "card width");
    row("huge number", replaced(good, "\"width_mm\": 130.0", "\"width_mm\": 1e400"), "file.number",
        "1e400");
    row("value out of range", replaced(good, "\"c\": 45.0", "\"c\": -1"), "value.range",
        "structures[1].values c");
    row("unknown parameter", replaced(good, "\"c\": 45.0", "\"zz\": 45.0"), "value.unknown", "zz");
    row("unknown kind", replaced(good, "\"kind\": \"box\"", "\"kind\": \"castle\""), "file.member",
        "structures[1].kind");
    row("same id twice", replaced(good, "\"id\": \"s2\"", "\"id\": \"s1\""), "file.member",
        "structures[1].id");
    row("no such id", replaced(good, "\"id\": \"s2\"", "\"id\": \"x\""), "file.member",
        "structures[1].id");
    row("seat that is not there",
        replaced(replaced(good, "\"on\": \"gutter\"", "\"on\": \"s7/ridge\""), "s7", "s7"),
        "seat.missing", "s7/ridge");
    row("structures no list", replaced(good, "\"structures\": [", "\"structures\": 3, \"old\": ["),
        "file.member", "structures");
    row("no structures", replaced(good, "\"structures\": [", "\"old\": ["), "file.member",
        "structures");
    row("fold side unknown", replaced(good, "\"fold\": \"side\"", "\"fold\": \"left\""),
        "file.member", "card.fold");
    row("unit unknown", replaced(good, "\"unit\": \"mm\"", "\"unit\": \"ell\""), "file.member",
        "settings.unit");
  }
  void damagedFilesAreRefusedWithPlaceAndCause() {
    QFETCH(QString, text);
    QFETCH(QString, code);
    QFETCH(QString, mentions);
    const auto d = designFromJson(text.toStdString(), "market.hinge");
    QVERIFY(!d.ok());
    const QString said = QString::fromStdString(say(d.error()));
    QVERIFY2(QString::fromStdString(d.error().code()).startsWith(code), d.error().code().c_str());
    QVERIFY2(said.contains(mentions), qPrintable(said));
    QVERIFY2(said.startsWith(QStringLiteral("market.hinge")), qPrintable(said));
  }
  void damagedPiecesAreRefusedWithPlaceAndCause_data() {
    QTest::addColumn<QByteArray>("at");
    QTest::addColumn<QByteArray>("value");
    QTest::addColumn<QString>("code");
    QTest::addColumn<QString>("mentions");
    const auto row = [](const char* name, const char* at, const std::string& value,
                        const char* code, const char* mentions) {
      QTest::newRow(name) << QByteArray("/structures/0/work") + '/' + at
                          << QByteArray::fromStdString(value) << code << mentions;
    };
    row("a point of one number", "outline/1", "[76]", "file.member/point", "outline");
    row("a point of three", "outline/1", "[76, 0, 0]", "file.member/point", "outline");
    row("a point with a text first", "outline/1", "[\"76\", 0]", "file.member/point", "outline");
    row("a point with a text last", "lines/0/to", "[8, \"66\"]", "file.member/point",
        "lines[0].to");
    row("a point as members", "lines/0/to", "{\"x\": 8, \"y\": 66}", "file.member/point",
        "lines[0].to");
    row("an outline that is a text", "outline", "\"round\"", "file.member/points", "outline");
    std::string many = "[[0, 0]";
    for (int k = 1; k <= 1000; ++k)
      many += fmt::format(",[{}, 1]", k);
    row("an outline of 1001 points", "outline", many + "]", "file.member/points", "outline");
    row("lines no list", "lines", "{}", "file.member/list", "lines");
    row("a line that is a number", "lines/1", "7", "file.member/object", "lines[1]");
    row("a kind of line unknown", "lines/2/kind", "\"hill\"", "file.member/unknown", "hill");
    row("a kind of joint unknown", "joints/1/kind", "\"nail\"", "file.member/unknown", "nail");
    row("a side unknown", "joints/0/by", "\"edge\"", "file.member/by", "joints[0].by");
    row("windows no list", "windows", "3", "file.member/list", "windows");
    row("a window that is none", "windows/0", "3", "file.member/points", "windows");
  }
  void damagedPiecesAreRefusedWithPlaceAndCause() {
    QFETCH(QByteArray, at);
    QFETCH(QByteArray, value);
    QFETCH(QString, code);
    QFETCH(QString, mentions);
    auto json = nlohmann::json::parse(designToJson(demo("canal-frames")));
    json.at(nlohmann::json::json_pointer(at.toStdString())) =
        nlohmann::json::parse(value.toStdString());
    const auto d = designFromJson(json.dump());
    QVERIFY(!d.ok());
    QCOMPARE(QString::fromStdString(d.error().message.key), code);
    const QString said = QString::fromStdString(say(d.error()));
    QVERIFY2(said.contains(mentions), qPrintable(said));
    QVERIFY2(said.contains(QStringLiteral("structures[0].work")), qPrintable(said));
  }
  void theLastFigureOfTooLargeANumberIsSaid() {
    const auto read = designFromJson("{\"a\": 1e999}");
    QVERIFY(!read.ok());
    QCOMPARE(say(read.error()), say(Error{{"file.number", "1e999"}, ""}));
  }
  void everyPrefixOfAFileIsRefusedWithoutHarm() {
    const std::string good = designToJson(sample());
    for (std::size_t n = 0; n + 2 < good.size(); n += 7)
      QVERIFY(!designFromJson(std::string_view(good).substr(0, n)).ok());
  }
  void flippedBytesNeverCrash() {
    const std::string good = designToJson(sample());
    int read = 0;
    for (std::size_t n = 0; n < good.size(); ++n) {
      std::string bad = good;
      bad[n] = static_cast<char>(bad[n] ^ 0x15);
      const auto d = designFromJson(bad);
      if (!d) continue;
      ++read;
      QVERIFY(assembleDesign(*d).ok());
    }
    QVERIFY(read < static_cast<int>(good.size()));
  }
  void aFailedWriteLeavesTheOldFile() {
    QTemporaryDir folder;
    const std::string path = folder.filePath(QStringLiteral("a.hinge")).toStdString();
    QVERIFY(saveDesign(sample(), path).ok());
    const auto missing =
        saveDesign(sample(), folder.filePath(QStringLiteral("none/b.hinge")).toStdString());
    QVERIFY(!missing.ok());
    QVERIFY(missing.error().place.find("none/b.hinge") != std::string::npos);
    QVERIFY(!writeFile(folder.path().toStdString(), "x").ok()); // a folder is no target
    QVERIFY(*loadDesign(path) == sample());
  }
  void unreadableFilesAreNamed() {
    QTemporaryDir folder;
    for (const QString& path : {folder.filePath(QStringLiteral("gone.hinge")), folder.path()}) {
      const auto d = loadDesign(path.toStdString());
      QVERIFY(!d.ok());
      QCOMPARE(QString::fromStdString(d.error().place), path);
    }
  }

  void foldFileHasTheFlatPatternAndTheSameFacesFolded() {
    const Motion motion = Motion::trace(assemble(sample()));
    const auto text = motionToFold(motion, kFoldFrames_deg);
    QVERIFY(text.ok());
    const FoldReading fold(*text);
    QCOMPARE(fold.folded(), std::size_t(5));
    QCOMPARE(fold.flat("faces_vertices").size(), motion.assembly().panels.size());
    std::size_t glues = 0;
    for (const auto& item : motion.assembly().every<Glue>())
      glues += item.joint.tab.valid();
    QCOMPARE(fold.flat("hinge-lantern:glued_faces").size(), glues);
    QCOMPARE(fold.notPlanar(), 0);
    for (std::size_t k = 0; k < fold.folded(); ++k) {
      QVERIFY(!fold.flat("file_frames")[k].contains("faces_vertices")); // nothing parts
      QVERIFY_NEAR(fold.stretched(k), 0, 1e-8);
      QVERIFY_NEAR(fold.torn(k), 0, 1e-8);
      QCOMPARE(fold.wrongWay(k), 0);
    }
  }
  void foldFilePartsPaperAtCutsAndJoinsItRoundHoles() {
    Design d = card();
    add(d, "step", "gutter", {{"position", 60}});
    add(d, "window", "card/page-b", {{"position", 150}, {"up", 90}, {"width", 16}, {"height", 20}});
    const Motion motion = Motion::trace(assemble(d));
    const FoldReading fold(*motionToFold(motion, kFoldFrames_deg));
    QCOMPARE(fold.notPlanar(), 0);
    std::map<std::string, int> letters;
    for (const auto& letter : fold.flat("edges_assignment"))
      ++letters[letter.get<std::string>()];
    QVERIFY(letters["C"] >= 4); // both sides of the step, in two pages
    QVERIFY(letters["J"] >= 2); // one to each side of the window
    QVERIFY(letters["V"] >= 2 && letters["M"] >= 1);
    QVERIFY(fold.flat("faces_vertices").size() > motion.assembly().panels.size());
    QCOMPARE(fold.flat("hinge-lantern:face_keys").size(), fold.flat("faces_vertices").size());
    for (std::size_t k = 0; k < fold.folded(); ++k) {
      // The cut edges have come apart: more vertices, the same faces.
      QVERIFY(fold.of(k, "vertices_coords").size() > fold.flat("vertices_coords").size());
      QCOMPARE(fold.of(k, "faces_vertices").size(), fold.flat("faces_vertices").size());
      QCOMPARE(fold.of(k, "edges_foldAngle").size(), fold.of(k, "edges_vertices").size());
      QCOMPARE(fold.of(k, "edges_assignment").size(), fold.of(k, "edges_vertices").size());
      QVERIFY_NEAR(fold.stretched(k), 0, 1e-8);
      QVERIFY_NEAR(fold.torn(k), 0, 1e-8);
      QCOMPARE(fold.wrongWay(k), 0);
    }
  }
  void foldFileRefusesOpeningsOutOfReach() {
    Design d = card();
    add(d, "box", "gutter", {{"a", 40}, {"c", 30}});
    const double beyond[] = {170};
    const auto text = motionToFold(Motion::trace(assemble(d)), beyond);
    QVERIFY(!text.ok());
    QVERIFY(say(text.error()).find("170") != std::string::npos);
  }
  void objHasEveryPanelInTheWorldFrame() {
    const Motion motion = Motion::trace(assemble(sample()));
    const auto text = poseToObj(motion, 90);
    QVERIFY(text.ok());
    std::istringstream lines(*text);
    std::string line;
    std::size_t objects = 0, corners = 0, used = 0;
    Eigen::AlignedBox3d box;
    while (std::getline(lines, line)) {
      objects += line.starts_with("o ");
      if (line.starts_with("v ")) {
        double x = 0, y = 0, z = 0;
        QCOMPARE(std::sscanf(line.c_str(), "v %lf %lf %lf", &x, &y, &z), 3);
        box.extend(Vec3(x, y, z));
        ++corners;
      }
      if (line.starts_with("f ")) used += static_cast<std::size_t>(std::ranges::count(line, ' '));
    }
    QCOMPARE(objects, motion.assembly().panels.size());
    QCOMPARE(used, corners);
    QVERIFY_NEAR(box.max().x(), 130 * std::sqrt(0.5), 1e-6);
    QVERIFY_NEAR(box.min().x(), -130 * std::sqrt(0.5), 1e-6);
    Design taut = card();
    add(taut, "box", "gutter", {{"a", 40}, {"c", 30}});
    QVERIFY(!poseToObj(Motion::trace(assemble(taut)), 170).ok());
  }
  void reportsAreCompleteJson() {
    const auto kinds = nlohmann::json::parse(kindsToJson());
    QCOMPARE(kinds["structures"].size(), structureKinds().size());
    for (const auto& kind : kinds["structures"])
      for (const auto& p : kind["parameters"])
        for (const char* key : {"key", "label", "unit", "min", "max", "default", "meaning"})
          QVERIFY2(p.contains(key), key);
    Design d = card();
    add(d, "box", "gutter", {{"a", 30}, {"b", 30}, {"c", 45}, {"d", 47}});
    const auto report = nlohmann::json::parse(analysisToJson(checked(d, true)));
    QCOMPARE(report["verdict"].get<std::string>(), std::string("spoiled"));
    const auto& f = report["findings"][0];
    for (const char* key : {"code", "severity", "elements", "from_deg", "to_deg", "amount", "unit",
                            "message", "mend"})
      QVERIFY2(f.contains(key), key);
    QCOMPARE(f["mend"]["edits"][0]["key"].get<std::string>(), std::string("d"));
    QVERIFY_NEAR(f["mend"]["edits"][0]["to"].get<double>(), 45, 1e-9);
    const double at[] = {0, 90};
    const auto sweep = nlohmann::json::parse(sweepToJson(Snapshot(card()), at));
    QCOMPARE(sweep["openings"].size(), std::size_t(2));
    QCOMPARE(sweep["openings"][1]["panels"].size(), std::size_t(2));
  }
  void aFullDiskIsToldAndLeavesTheOldFile_data() {
    QTest::addColumn<int>("size");
    QTest::newRow("fails when the buffer is flushed") << 3000;
    QTest::newRow("fails while writing") << 200000;
  }
  void aFullDiskIsToldAndLeavesTheOldFile() {
    QFETCH(int, size);
    QTemporaryDir folder;
    const std::string path = folder.filePath(QStringLiteral("a.hinge")).toStdString();
    QVERIFY(writeFile(path, "what was there").ok());
    // A limit on the size of files stands for the disk: what is over it fails as a full disk does.
    std::signal(SIGXFSZ, SIG_IGN);
    rlimit before{};
    QCOMPARE(getrlimit(RLIMIT_FSIZE, &before), 0);
    const rlimit small{1024, before.rlim_max};
    QCOMPARE(setrlimit(RLIMIT_FSIZE, &small), 0);
    const auto written = writeFile(path, std::string(static_cast<std::size_t>(size), 'x'));
    setrlimit(RLIMIT_FSIZE, &before);
    QVERIFY(!written.ok());
    QCOMPARE(written.error().place, path);
    QCOMPARE(*readFile(path), std::string("what was there"));
    QCOMPARE(QDir(folder.path()).entryList(QDir::Files).size(), qsizetype(1)); // nothing lies about
  }
  void onlyOrdinaryFilesAreReadAndReplaced_data() {
    QTest::addColumn<QString>("path");
    QTest::addColumn<QString>("mentions");
    QTest::newRow("pipe") << "pipe"
                          << "pipe";
    QTest::newRow("folder") << "."
                            << "folder";
    QTest::newRow("endless device") << "/dev/zero"
                                    << "device";
    QTest::newRow("full device") << "/dev/full"
                                 << "device";
  }
  void onlyOrdinaryFilesAreReadAndReplaced() {
    QFETCH(QString, path);
    QFETCH(QString, mentions);
    QTemporaryDir folder;
    QCOMPARE(::mkfifo(folder.filePath(QStringLiteral("pipe")).toLocal8Bit().constData(), 0600), 0);
    const std::string name = QDir(folder.path()).absoluteFilePath(path).toStdString();
    const auto read = readFile(name);
    QVERIFY(!read.ok());
    QVERIFY2(QString::fromStdString(say(read.error().message)).contains(mentions),
             say(read.error()).c_str());
    struct stat before {
    }, after{};
    QCOMPARE(::stat(name.c_str(), &before), 0);
    const auto written = writeFile(name, "text");
    QVERIFY(!written.ok());
    QCOMPARE(::stat(name.c_str(), &after), 0);
    QCOMPARE(after.st_ino, before.st_ino);
    QCOMPARE(after.st_mode, before.st_mode);
  }
  void aFileCanBeKeptForItsOwnerAlone() {
    QTemporaryDir folder;
    const std::string path = folder.filePath(QStringLiteral("private")).toStdString();
    QVERIFY(writeFile(path, "text", FileAccess::OwnerOnly).ok());
    struct stat facts {};
    QCOMPARE(::stat(path.c_str(), &facts), 0);
    QCOMPARE(facts.st_mode & 0777, 0600u);
  }
  void everythingAboutTheCardStandsOnItsPage() {
    Design d = card(130, 180);
    d.title = "Quay";
    d.card.display_deg = 70, d.card.openBy_deg = 150;
    d.card.worksFrom_deg = 5, d.card.worksTo_deg = 170;
    d.card.fold = FoldSide::Top, d.card.rests = Rests::OnEdge;
    d.papers = {{"own", "Own board", 0.4, 333}};
    d.stock = "own";
    d.settings.leastTabDepth_mm = 7, d.settings.tabBevel_deg = 25;
    d.settings.foldClearance_mm = 0.75, d.settings.edgeReserve_mm = 4.5;
    d.settings.sheet = "a3", d.settings.envelope = "c5", d.settings.slice = true;
    d.nextId = 9;
    add(d, "box", "gutter");
    d.structures.back().label = "Stall";
    for (LengthUnit unit : {LengthUnit::Millimetre, LengthUnit::Centimetre, LengthUnit::Inch}) {
      d.settings.unit = unit;
      const auto again = designFromPage(pageOf(d));
      QVERIFY2(again.ok(), again ? "" : say(again.error()).c_str());
      QCOMPARE(again->title, d.title);
      QCOMPARE(again->nextId, d.nextId);
      QCOMPARE(again->structures.back().label, std::string("Stall"));
      QCOMPARE(again->stock, d.stock);
      QCOMPARE(again->cardPaper().label, d.cardPaper().label);
      const auto near = [](double a, double b) { return std::abs(a - b) < 1e-8; };
      QVERIFY(near(again->cardPaper().thickness_mm, 0.4) &&
              near(again->cardPaper().weight_gsm, 333));
      const Settings& s = again->settings;
      QVERIFY(s.unit == unit && s.sheet == "a3" && s.envelope == "c5" && s.slice);
      QVERIFY(near(s.leastTabDepth_mm, 7) && near(s.tabBevel_deg, 25));
      QVERIFY(near(s.foldClearance_mm, 0.75) && near(s.edgeReserve_mm, 4.5));
      const CardBase& c = again->card;
      QVERIFY(near(c.width_mm, 130) && near(c.height_mm, 180) && c.fold == FoldSide::Top);
      QVERIFY(near(c.display_deg, 70) && near(c.openBy_deg, 150) && c.rests == Rests::OnEdge);
      QVERIFY(near(c.worksFrom_deg, 5) && near(c.worksTo_deg, 170));
    }
  }
  /// Whatever a maker calls things, in any unit: read again they are called so.
  void aPageKeepsEveryText() {
    const std::vector<std::string> texts{"a, b",
                                         "a; b",
                                         "1/2",
                                         "0,0 1/2,0",
                                         "\"quoted\"",
                                         "it's",
                                         "#hash",
                                         "called x",
                                         "| bar",
                                         "title z",
                                         "s1 box on gutter",
                                         "a\\b",
                                         "two  blanks",
                                         "100% %1",
                                         "<b>&amp;",
                                         "end ",
                                         "  lead",
                                         ":",
                                         "a=b, c=d",
                                         "a\tb",
                                         "next s9",
                                         "a\"b, c\"d",
                                         "x \"y",
                                         "\"",
                                         "\"\"",
                                         "\\",
                                         "\\\"",
                                         "line\nbreak",
                                         " ",
                                         "κανάλι, βράδυ",
                                         std::string(300, 'x')};
    for (const LengthUnit unit : {LengthUnit::Millimetre, LengthUnit::Inch})
      for (const std::string& text : texts) {
        Design d = sample();
        d.settings.unit = unit;
        d.title = d.structures.front().label = d.papers.front().label = text;
        Topper topper;
        topper.id = 1, topper.face = "card/page-a", topper.shape = kLettering;
        topper.paper = d.papers.front().key, topper.at = {60, 40}, topper.text = text;
        topper.outlines = {Region{{0, 0}, {20, 0}, {20, 10}, {0, 10}}};
        d.dressing.toppers.push_back(topper);
        const auto again = designFromPage(pageOf(d));
        QVERIFY2(again.ok(), (text + ": " + (again ? "" : say(again.error()))).c_str());
        QCOMPARE(again->title, text);
        QCOMPARE(again->structures.front().label, text);
        QCOMPARE(again->papers.front().label, text);
        QCOMPARE(again->dressing.toppers.front().text, text);
        QCOMPARE(pageOf(*again), pageOf(d));
      }
  }
  void aPageWithoutTheNextNumberGoesOnBehindItsLast() {
    const Design market = demo("night-market");
    std::string page = pageOf(market);
    const std::size_t next = page.find("\nnext ") + 1;
    QVERIFY(next > 0);
    page.erase(next, page.find('\n', next) + 1 - next);
    const auto read = designFromPage(page);
    QVERIFY2(read.ok(), read ? "" : say(read.error()).c_str());
    int last = 0;
    for (const StructureItem& item : read->structures)
      last = std::max(last, item.id.value);
    QCOMPARE(read->nextId, last + 1);
  }
  void numbersOfStructuresAreAnSAndDigits() {
    QVERIFY(structureIdFromText("s7") == StructureId{7});
    for (const char* wrong : {"", "s", "7", "x7", "77", "s7x", "s-7", "s 7", "S7", "s0"})
      QVERIFY2(!structureIdFromText(wrong), wrong);
  }
  void numbersOfStructuresDoNotRunOver() {
    const std::string text = designToJson(sample());
    for (const char* id : {"s2147483647", "s1000000001", "s99999999999999999999"}) {
      const auto d =
          designFromJson(replaced(text, "\"id\": \"s2\"", std::string("\"id\": \"") + id + "\""));
      QVERIFY2(!d.ok(), id);
      QVERIFY2(d.error().place.find("id") != std::string::npos, say(d.error()).c_str());
    }
    const auto last = designFromJson(replaced(text, "\"id\": \"s2\"", "\"id\": \"s1000000000\""));
    QVERIFY(last.ok());
    const auto more =
        addStructure(*last, "box", "gutter", startingValues(findStructureKind("box")->parameters));
    QVERIFY(!more.ok());
    QCOMPARE(more.error().code(), std::string("structure.numbers"));
  }
  void sheetsAndEnvelopesThatAreNotThereAreNamed() {
    const std::string text = designToJson(sample());
    const auto sheet = designFromJson(replaced(text, "\"sheet\": \"a4\"", "\"sheet\": \"a9\""));
    QVERIFY(!sheet.ok());
    QVERIFY(sheet.error().place.find("settings.sheet") != std::string::npos);
    QVERIFY(say(sheet.error()).find("letter") != std::string::npos); // what there is
    const auto envelope =
        designFromJson(replaced(text, "\"envelope\": \"to-measure\"", "\"envelope\": \"b99\""));
    QVERIFY(!envelope.ok());
    QVERIFY(say(envelope.error()).find("c6") != std::string::npos);
  }
  void foldMarksFacesWhosePlaceIsOneOfMany() {
    const Motion loose =
        Motion::trace(assemble(*loadDesign(HINGE_SOURCE_DIR "/bench/cases/inset-22.hinge")));
    const double at[] = {90};
    const auto fold = nlohmann::json::parse(*motionToFold(loose, at));
    const auto& marked = fold["file_frames"][0]["hinge-lantern:arbitrary_faces"];
    std::set<std::string> expected, found;
    for (PanelIndex p : loose.assembly().panels.indices())
      if (loose.isLoose(p)) expected.insert(loose.assembly().panels[p].key);
    QVERIFY(!expected.empty());
    for (const auto& face : marked)
      found.insert(fold["hinge-lantern:face_keys"][face.get<std::size_t>()].get<std::string>());
    QVERIFY(found == expected);
    const auto guided = nlohmann::json::parse(*motionToFold(Motion::trace(assemble(sample())), at));
    QVERIFY(!guided["file_frames"][0].contains("hinge-lantern:arbitrary_faces"));
  }
  void linesOfPlacesAreFound_data() {
    QTest::addColumn<QByteArray>("path");
    QTest::addColumn<int>("line"); // 0: leads nowhere
    QTest::newRow("member") << QByteArray("a") << 2;
    QTest::newRow("nested") << QByteArray("b.c") << 4;
    QTest::newRow("in a list") << QByteArray("b.d[1]") << 7;
    QTest::newRow("in a list's object") << QByteArray("b.d[2].x") << 8;
    QTest::newRow("missing member") << QByteArray("b.none") << 3;
    QTest::newRow("past the list") << QByteArray("b.d[9]") << 5;
    QTest::newRow("behind a text with braces") << QByteArray("e") << 10;
    QTest::newRow("nowhere") << QByteArray("zzz") << 0;
    QTest::newRow("nothing") << QByteArray("") << 0;
  }
  void linesOfPlacesAreFound() {
    QFETCH(QByteArray, path);
    QFETCH(int, line);
    const std::string_view text =
        "{\n \"a\": \"}{\\\"[\",\n \"b\": {\n  \"c\": 1.5e3,\n  \"d\": [\n"
        "   [1, 2],\n   3,\n   {\"x\": null}\n  ]},\n \"e\": 1}";
    QCOMPARE(lineOf(text, path.toStdString()).value_or(0), line);
  }
  void whatIsWrongSaysItsLine() {
    const std::string text = designToJson(sample());
    const auto line = [&](std::string_view part) {
      return static_cast<int>(std::ranges::count(text.substr(0, text.find(part)), '\n')) + 1;
    };
    const auto wrong = designFromJson(replaced(text, "\"fold\": \"side\"", "\"fold\": \"left\""));
    QVERIFY(!wrong.ok());
    QCOMPARE(wrong.error().place, std::string("card.fold"));
    QVERIFY(say(wrong.error()).ends_with(fmt::format("(line {})", line("\"fold\""))));
    // What the recipes refuse is named by its structure and by the line of its entry.
    const auto homeless = designFromJson(replaced(text, "\"on\": \"gutter\"", "\"on\": \"roof\""));
    QVERIFY(!homeless.ok());
    QVERIFY(say(homeless.error()).find("(line ") != std::string::npos);
  }
  void unknownMembersAreKeptAtEveryLevelOfAPiece() {
    std::string text = designToJson(demo("steps-in-the-fold"));
    text = replaced(text, "\"kind\": \"mountain\"", "\"tint\": [1, 2], \"kind\": \"mountain\"");
    text = replaced(text, "\"kind\": \"glue\"", "\"kind\": \"glue\", \"tape\": {\"wide\": 6}");
    text = replaced(text, "\"lines\":", "\"grain\": \"long\", \"lines\":");
    const auto read = designFromJson(text);
    QVERIFY2(read.ok(), read.ok() ? "" : say(read.error()).c_str());
    const std::string again = designToJson(*read);
    for (const char* kept : {"\"tint\"", "\"tape\"", "\"wide\"", "\"grain\""})
      QVERIFY2(again.find(kept) != std::string::npos, kept);
    QCOMPARE(designToJson(*designFromJson(again)), again);
    // They go along when the piece is changed.
    const StructureItem& item = read->structures.front();
    const auto moved =
        withScoreMoved(*item.work, 0, scoreMarks(*item.work).front().low_mm + 1, true);
    const std::string edited = designToJson(*setWork(*read, item.id, *moved));
    QVERIFY(edited.find("\"tint\"") != std::string::npos);
    QVERIFY(edited.find("\"grain\"") != std::string::npos);
  }
};

QTEST_APPLESS_MAIN(TestFiles)
#include "test_files.moc"
