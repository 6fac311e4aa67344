// SPDX-License-Identifier: GPL-3.0-or-later
#include "command_runner.h"
#include <QFile>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QTemporaryDir>
#include <QTest>

// The command line as scripts use it: exit codes, stdout, stderr, files.

class TestCommandLine : public QObject {
  Q_OBJECT
  QTemporaryDir m_folder;
  QString at(const char* name) const { return m_folder.filePath(QString::fromLatin1(name)); }
  QString copyOf(const char* demo) {
    const QString file = at(demo) + QStringLiteral("-copy.hinge");
    QFile::remove(file);
    QFile::copy(QStringLiteral(HINGE_SOURCE_DIR "/demo/") + QLatin1String(demo) +
                    QStringLiteral(".hinge"),
                file);
    return file;
  }
  static QJsonObject fileOf(const QString& path) {
    QFile file(path);
    return file.open(QIODevice::ReadOnly) ? QJsonDocument::fromJson(file.readAll()).object()
                                          : QJsonObject();
  }
  QString market(const char* name) {
    const QString file = at(name);
    run({"new", file, "--width", "130", "--height", "180"});
    run({"add", file, "vfold", "--on", "gutter", "--set", "position=35", "alpha=62", "gamma1=80"});
    run({"add", file, "box", "--on", "gutter", "--set", "position=90", "length=40"});
    return file;
  }
  void addRowsOfWhatIsNotThere(const QString& file, const QString& piece) {
    QTest::newRow("the card itself as target")
        << QStringList{"export", file, "--to", "svg", "-o", file} << "card itself";
    QTest::newRow("the card itself in a gallery")
        << QStringList{"gallery", file, "-o", file} << "card itself";
    QTest::newRow("a card that is there")
        << QStringList{"new", file, "--width", "100", "--height", "100"} << "--force";
    QTest::newRow("a device") << QStringList{"check", "/dev/zero"} << "device";
    QTest::newRow("a device as target")
        << QStringList{"export", file, "--to", "svg", "-o", "/dev/null"} << "device";
    QTest::newRow("empty opening")
        << QStringList{"export", file, "--to", "png", "--open", "", "-o", at("x")} << "--open";
    QTest::newRow("opening that is no number")
        << QStringList{"gallery", file, "--open", "nan", "-o", at("x")} << "--open";
    QTest::newRow("empty finding")
        << QStringList{"mend", file, "--finding", "", "-o", at("x")} << "--finding";
    QTest::newRow("seconds that are none")
        << QStringList{"check", file, "--mends", "soon"} << "--mends";
    QTest::newRow("empty scores") << QStringList{"scores", piece, "s1", ""} << "none";
    QTest::newRow("overlap that is no number")
        << QStringList{"solve", piece, "s1", "--wrap", "nan"} << "--wrap";
    QTest::newRow("length to hold that is not there")
        << QStringList{"fit", piece, "s1", "--hold", "s1.heigth"} << "panel-1";
    QTest::newRow("length to give that is not there")
        << QStringList{"fit", file, "card", "200", "--give", "s9.length"} << "card.width";
    QTest::newRow("box on a face")
        << QStringList{"add", file, "box", "--on", "card/page-a"} << "gutter";
  }
private slots:
  void theWholeWorkIsPlanned() {
    const QString card = QStringLiteral(HINGE_SOURCE_DIR "/demo/ferry-pass.hinge");
    const Ran text = run({"plan", card});
    QCOMPARE(text.code, 0);
    QVERIFY(text.out.contains("Leave it pressed") && text.out.contains("away from the hand"));
    const QJsonObject plan = run({"plan", card, "--json", "--copies", "3"}).json();
    const QJsonArray steps = plan["steps"].toArray();
    QVERIFY(steps.size() > 20);
    QCOMPARE(steps.first().toObject()["kind"].toString(), QStringLiteral("ready"));
    QCOMPARE(steps.last().toObject()["kind"].toString(), QStringLiteral("finish"));
    const QJsonObject schedule = plan["schedule"].toObject();
    QCOMPARE(schedule["work"].toArray().size(), 3 * steps.size());
    QCOMPARE(schedule["ready_s"].toArray().size(), 3);
    QVERIFY(schedule["ratio"].toDouble() >= 1);
    // Schools change the plan; what is none is refused.
    const QJsonObject tape = run({"plan", card, "--glue", "strong-tape", "--json"}).json();
    QVERIFY(tape["tape_mm"].toDouble() > plan["tape_mm"].toDouble());
    QCOMPARE(run({"plan", card, "--glue", "spit"}).code, 2);
    QCOMPARE(run({"plan", card, "--copies", "0"}).code, 2);
    QVERIFY(run({"plan", card, "--copies", "40"}).out.contains(" h "));
    // How long adhesive is pressed is the maker's to say.
    const QJsonObject slow = run({"plan", card, "--drying", "wet-glue=15 min", "--json"}).json();
    bool waited = false;
    for (const QJsonValue& step : slow["steps"].toArray())
      waited = waited || step.toObject()["waits_s"].toDouble() == 900;
    QVERIFY(waited);
    for (const char* wrong : {"wet-glue=soon", "wet-glue", "spit=5min", "wet-glue=99h"})
      QCOMPARE(run({"plan", card, "--drying", wrong}).code, 2);
    QVERIFY(run({"plan", card, "--drying", "spit=5min"}).err.contains("solvent-glue"));
    QCOMPARE(run({"plan", "/nowhere"}).code, 2);
  }

  /// Whatever is told of a card in inches is told in inches: areas, tape, limits, the bench.
  void aCardInInchesIsToldInInches() {
    const QString card = at("told-in-inches.hinge");
    QCOMPARE(run({"new", card, "--unit", "in", "--width", "5 1/2", "--height", "4 1/4"}).code, 0);
    QVERIFY(run({"add", card, "box", "--on", "gutter"}).code != 2);
    for (const QStringList& wanted :
         {QStringList{"plan", card}, QStringList{"plan", card, "--glue", "strong-tape"},
          QStringList{"layout", card}, QStringList{"scores-table", card},
          QStringList{"check", card}, QStringList{"bench", "--unit", "in"}}) {
      const QByteArray out = run(wanted).out;
      QVERIFY2(!out.contains(" mm") && !out.contains("cm"), wanted[0].toLatin1() + ": " + out);
    }
    QVERIFY(run({"plan", card}).out.contains("sq in"));
    // Tape is cut off the roll on the quarters, never too short.
    const QByteArray taped = run({"plan", card, "--glue", "strong-tape"}).out;
    QVERIFY2(!taped.contains("hair of") && taped.contains("in of tape"), taped);
    const QByteArray limits = run({"structures", "--unit", "in"}).out;
    QVERIFY(limits.contains("1 15/16"));
    QVERIFY(!limits.contains(" mm "));
    QCOMPARE(run({"structures", "--unit", "ell"}).code, 2);
  }

  void aCardFromNothingToFiles() {
    const QString file = at("a.hinge");
    QCOMPARE(run({"new", file, "--width", "130", "--height", "180", "--fold", "side"}).code, 0);
    QCOMPARE(
        run({"add", file, "box", "--on", "gutter", "--set", "a=30", "c=1 3/4in"}).out.trimmed(),
        QByteArray("s1"));
    QCOMPARE(run({"add", file, "box", "--on", "s1/ridge"}).out.trimmed(), QByteArray("s2"));
    const Ran seats = run({"seats", file, "--json"});
    const QJsonArray list = QJsonDocument::fromJson(seats.out).array();
    QVERIFY(list.size() >= 5);
    QCOMPARE(list.first().toObject()["id"].toString(), QStringLiteral("gutter"));
    QCOMPARE(list.first().toObject()["length_mm"].toDouble(), 180.0);
    const Ran check = run({"check", file, "--json"});
    QCOMPARE(check.code, 0);
    QCOMPARE(check.json()["verdict"].toString(), QStringLiteral("good"));
    QCOMPARE(check.json()["mobility"].toInt(-1), 0);
    QVERIFY(std::abs(check.json()["shut"].toObject()["width_mm"].toDouble() - 130) < 1e-9);
    for (const char* format : {"svg", "pdf", "fold", "obj", "png"}) {
      const QString target = at("out.") + QString::fromLatin1(format);
      const Ran exported = run({"export", file, "--to", QString::fromLatin1(format), "-o", target});
      QVERIFY2(exported.code == 0, exported.err);
      QVERIFY(QFile(target).size() > 500);
    }
    QCOMPARE(run({"remove", file, "s1"}).code, 0);
    QStringList folds;
    for (const auto& seat : QJsonDocument::fromJson(run({"seats", file, "--json"}).out).array())
      if (seat.toObject()["kind"].toString() != QStringLiteral("face"))
        folds << seat.toObject()["id"].toString();
    QCOMPARE(folds, QStringList{"gutter"});
  }
  void theScoresOfAPieceAreToldAndSet() {
    const QString file = copyOf("canal-frames");
    const auto places = [&] {
      QStringList all;
      for (const QByteArray& line : run({"scores", file, "s1"}).out.split('\n'))
        if (!line.trimmed().isEmpty())
          all << QString::fromUtf8(line.simplified()).section(QLatin1Char(' '), 0, 0);
      return all;
    };
    QCOMPARE(places(), (QStringList{"8", "38", "68"}));
    QCOMPARE(run({"scores", file, "s1", "8, 40", "66"}).code, 1); // written, and spoiled by it
    QCOMPARE(places()[1], QStringLiteral("40"));
    const Ran check = run({"check", file, "--json", "--mends", "0"});
    QCOMPARE(check.code, 1); // it does not lie flat any more
    QCOMPARE(check.json()["findings"].toArray().first().toObject()["code"].toString(),
             QStringLiteral("shut-flat"));
    // The frame stands by rules: both feet are 26 mm from the fold, wherever its scores are.
    const Ran solved = run({"solve", file, "s1"});
    QVERIFY2(solved.code == 0, solved.err);
    QVERIFY2(solved.out.contains("score 2 at 40 mm → 37 mm"), solved.out);
    QCOMPARE(run({"check", file, "--mends", "0"}).code, 0);
    QVERIFY(run({"solve", file, "s1"}).out.contains("lies flat exactly"));
    // Falling places are refused, and nothing is changed.
    const QStringList before = places();
    const Ran refused = run({"scores", file, "s1", "30, 20"});
    QCOMPARE(refused.code, 2);
    QVERIFY2(refused.err.contains("s1"), refused.err);
    QCOMPARE(places(), before);
    // Those of a recipe's pieces are told, and changed by its sizes.
    QVERIFY(run({"scores", copyOf("night-market"), "s2"}).out.contains("mountain"));
    QCOMPARE(run({"scores", copyOf("night-market"), "s2", "10, 20"}).code, 2);
  }
  void aSlantedScoreTellsBothEnds() {
    const Ran scores = run({"scores", copyOf("lamp-lattice"), "s1"});
    QCOMPARE(scores.code, 0);
    const Ran frames = run({"scores", copyOf("pop-up-lantern"), "s1"});
    QCOMPARE(frames.code, 0);
    QVERIFY2(frames.out.contains("partly") || frames.out.contains("above"), frames.out);
  }
  void evenStepsAreWorkedOut() {
    const QString file = copyOf("steps-in-the-fold");
    run({"remove", file, "s3"}), run({"remove", file, "s2"});
    QCOMPARE(run({"solve", file, "s1", "--steps", "3"}).code, 1); // it flops without its braces
    QCOMPARE(run({"scores", file, "s1"}).out.trimmed().split('\n').size(), 7);
    QCOMPARE(run({"solve", file, "s1", "--steps", "99"}).code, 2);
  }
  void theCardsOwnValuesAreSet() {
    const QString file = copyOf("night-market");
    QCOMPARE(run({"set", file, "card", "display_deg=80", "open_by_deg=150", "rests=edge"}).code, 0);
    const QJsonObject card = fileOf(file)["card"].toObject();
    QCOMPARE(card["display_deg"].toDouble(), 80.0);
    QCOMPARE(card["open_by_deg"].toDouble(), 150.0);
    QCOMPARE(card["rests"].toString(), QStringLiteral("edge"));
    QCOMPARE(run({"set", file, "card", "width=5in", "rests=page"}).code, 0);
    QCOMPARE(fileOf(file)["card"].toObject()["width_mm"].toDouble(), 127.0);
    QCOMPARE(fileOf(file)["card"].toObject()["rests"].toString(), QStringLiteral("page"));
    for (const char* wrong :
         {"rests=floor", "display_deg=soon", "open_by_deg=999", "width=-3", "spine=4", "width"}) {
      const Ran refused = run({"set", file, "card", QString::fromLatin1(wrong)});
      QVERIFY2(refused.code == 2 && !refused.err.isEmpty(), wrong);
    }
  }
  void aFilmIsCalledFilmInTheOrderOfWork() {
    QStringList kinds;
    for (const auto& step :
         run({"order", copyOf("oil-sleeve"), "--json"}).json()["steps"].toArray())
      for (const auto& join : step.toObject()["joins"].toArray()) {
        kinds << join.toObject()["kind"].toString();
        if (kinds.last() == QStringLiteral("film"))
          QVERIFY(join.toObject()["text"].toString().contains(QStringLiteral("film")));
      }
    QCOMPARE(kinds.count(QStringLiteral("film")), 1);
    QCOMPARE(kinds.count(QStringLiteral("band")), 0);
    // Read from a file of version 1 it is the same.
    const QString old = QStringLiteral(HINGE_TEST_DATA "/version-1/oil-sleeve.hinge");
    QVERIFY(run({"order", old, "--json"}).out.contains("\"film\""));
  }
  void spoiledCardsExitWithOneAndCanBeMended() {
    const QString file = market("b.hinge");
    QCOMPARE(run({"set", file, "s2", "d=47"}).code, 1);
    const Ran check = run({"check", file, "--json"});
    QCOMPARE(check.code, 1);
    const QJsonObject finding = check.json()["findings"].toArray().first().toObject();
    QCOMPARE(finding["code"].toString(), QStringLiteral("shut-flat"));
    QCOMPARE(finding["amount"].toDouble(), 2.0);
    const QString mended = at("mended.hinge");
    QCOMPARE(run({"mend", file, "--finding", "1", "-o", mended}).code, 0);
    QCOMPARE(run({"check", mended}).code, 0);
    QCOMPARE(run({"check", file}).code, 1);                       // the input is left alone
    QCOMPARE(run({"mend", file, "--all", "-o", mended}).code, 2); // another card is there
    QCOMPARE(run({"mend", file, "--all", "-o", mended, "--force"}).code, 0);
  }
  void sweepGivesEveryPanelAtEveryOpening() {
    const Ran sweep = run({"sweep", market("c.hinge"), "--step", "45", "--json"});
    QCOMPARE(sweep.code, 0);
    const QJsonArray openings = sweep.json()["openings"].toArray();
    QCOMPARE(openings.size(), qsizetype(5));
    for (const auto& value : openings) {
      QVERIFY(value.toObject()["residual_mm"].toDouble() < 1e-8);
      QCOMPARE(value.toObject()["panels"].toArray().size(), qsizetype(10));
    }
    // World frame: page b points along (sin t/2, 0, cos t/2).
    const QJsonObject ninety = openings.at(2).toObject();
    double farthest = 0;
    for (const auto& panel : ninety["panels"].toArray())
      if (panel.toObject()["key"].toString() == QStringLiteral("card/page-b"))
        for (const auto& corner : panel.toObject()["corners"].toArray())
          farthest = std::max(farthest, corner.toArray().at(0).toDouble());
    QVERIFY(std::abs(farthest - 130 * std::sqrt(0.5)) < 1e-9);
  }
  void structuresAreListedWithTheirTables() {
    const Ran list = run({"structures", "--json"});
    QCOMPARE(list.code, 0);
    QStringList keys;
    for (const auto& kind : list.json()["structures"].toArray())
      keys << kind.toObject()["key"].toString();
    QCOMPARE(keys,
             (QStringList{"vfold", "box", "closed-box", "cube", "corner-cube", "side-box", "tiers",
                          "platform", "step", "cut-vfold", "figure", "arm", "standing-figure",
                          "window", "strip", "piece", "card-on-face", "card-on-fold"}));
    QVERIFY(run({"structures"}).out.contains("gamma1"));
  }
  void unusableInputExitsWithTwoAndSaysWhy_data() {
    QTest::addColumn<QStringList>("arguments");
    QTest::addColumn<QString>("mentions");
    const QString file = market("d.hinge"), broken = at("broken.hinge"), piece = at("piece.hinge");
    run({"new", piece, "--width", "130", "--height", "180"});
    run({"add", piece, "piece", "--on", "gutter"});
    QFile out(broken);
    if (out.open(QIODevice::WriteOnly)) out.write("{\"format\": \"hinge-lantern\", ");
    out.close();
    QTest::newRow("no verb") << QStringList{} << "subcommand";
    QTest::newRow("unknown verb") << QStringList{"fold", file} << "";
    QTest::newRow("zero width") << QStringList{"new", at("x.hinge"), "--width",
                                               "0",   "--height",    "100"}
                                << "card width";
    QTest::newRow("negative height")
        << QStringList{"new", at("x.hinge"), "--width", "100", "--height", "-5"} << "card height";
    QTest::newRow("nan") << QStringList{"new", at("x.hinge"), "--width", "nan", "--height", "100"}
                         << "width";
    QTest::newRow("huge") << QStringList{"new",         at("x.hinge"), "--width",
                                         "99999999999", "--height",    "100"}
                          << "card width";
    QTest::newRow("fold side") << QStringList{"new",      at("x.hinge"), "--width", "100",
                                              "--height", "100",         "--fold",  "middle"}
                               << "fold";
    QTest::newRow("seat that is not there")
        << QStringList{"add", file, "box", "--on", "s9/ridge"} << "s9/ridge";
    QTest::newRow("kind that is not there")
        << QStringList{"add", file, "castle", "--on", "gutter"} << "castle";
    QTest::newRow("parameter that is not there") << QStringList{"set", file, "s1", "zz=3"} << "zz";
    QTest::newRow("no value") << QStringList{"set", file, "s1", "la"} << "key=value";
    QTest::newRow("no number") << QStringList{"set", file, "s1", "la=long"} << "la";
    QTest::newRow("negative size") << QStringList{"set", file, "s1", "la=-4"} << "la";
    QTest::newRow("structure that is not there")
        << QStringList{"set", file, "s77", "la=4"} << "s77";
    QTest::newRow("file that is not there")
        << QStringList{"check", at("none.hinge")} << "none.hinge";
    QTest::newRow("damaged file") << QStringList{"check", broken} << "broken.hinge";
    QTest::newRow("unwritable target")
        << QStringList{"export", file, "--to", "svg", "-o", at("no/such/folder.svg")}
        << "folder.svg";
    QTest::newRow("unknown format")
        << QStringList{"export", file, "--to", "stl", "-o", at("x")} << "to";
    QTest::newRow("opening out of range")
        << QStringList{"export", file, "--to", "fold", "--open", "200", "-o", at("x")} << "180";
    QTest::newRow("step of nothing")
        << QStringList{"sweep", file, "--step", "0", "--json"} << "step";
    addRowsOfWhatIsNotThere(file, piece);
    QTest::newRow("finding that is not there")
        << QStringList{"mend", file, "--finding", "7", "-o", at("x")} << "7";
  }
  void unusableInputExitsWithTwoAndSaysWhy() {
    QFETCH(QStringList, arguments);
    QFETCH(QString, mentions);
    const Ran ran = run(arguments);
    QVERIFY2(ran.code == 2, QByteArray::number(ran.code) + ran.err);
    QVERIFY2(QString::fromUtf8(ran.err).contains(mentions), ran.err);
    QVERIFY(!ran.err.isEmpty());
  }
  void aRefusedEditLeavesTheFile() {
    const QString file = market("e.hinge");
    QFile before(file);
    QVERIFY(before.open(QIODevice::ReadOnly));
    const QByteArray text = before.readAll();
    QCOMPARE(run({"set", file, "s1", "gamma1=20", "gamma2=20", "ea=300", "eb=300"}).code,
             2); // a panel that crosses itself
    QFile after(file);
    QVERIFY(after.open(QIODevice::ReadOnly));
    QCOMPARE(after.readAll(), text);
  }
  void aFullDiskLosesNothing() {
    const QString file = market("full.hinge");
    QFile before(file);
    QVERIFY(before.open(QIODevice::ReadOnly));
    const QByteArray text = before.readAll();
    QProcess shell;
    // No file may grow past 1 kB here, as on a full disk.
    shell.start(QStringLiteral("bash"),
                {"-c", "trap '' XFSZ; ulimit -f 1; exec \"$0\" add \"$1\" vfold --on gutter",
                 HINGE_CLI, file});
    QVERIFY(shell.waitForFinished());
    QCOMPARE(shell.exitCode(), 2);
    QVERIFY(shell.readAllStandardError().contains("full.hinge"));
    QFile after(file);
    QVERIFY(after.open(QIODevice::ReadOnly));
    QCOMPARE(after.readAll(), text);
  }
  void outputThatCannotBeWrittenIsNoSuccess() {
    const QString file = market("out.hinge");
    for (const QString& verb : {QStringLiteral("check"), QStringLiteral("order"),
                                QStringLiteral("structures"), QStringLiteral("--help")}) {
      QProcess shell;
      QStringList call{"-c", "\"$0\" \"$@\" > /dev/full", HINGE_CLI, verb};
      if (verb == QStringLiteral("check") || verb == QStringLiteral("order")) call << file;
      shell.start(QStringLiteral("bash"), call);
      QVERIFY(shell.waitForFinished());
      QVERIFY2(shell.exitStatus() == QProcess::NormalExit, qPrintable(verb));
      QVERIFY2(shell.exitCode() == 2, qPrintable(verb));
      QVERIFY2(shell.readAllStandardError().contains("cannot be written"), qPrintable(verb));
    }
  }
  void numbersAreInTheCardsOwnUnit() {
    const QString file = at("inch.hinge");
    QCOMPARE(run({"new", file, "--width", "5 1/2", "--height", "7in", "--unit", "in"}).code, 0);
    QCOMPARE(run({"add", file, "box", "--on", "gutter", "--set", "a=1 1/4", "b=1 1/4", "c=2 1/4",
                  "d=57.15mm"})
                 .code,
             0);
    const QJsonObject shut = run({"check", file, "--json"}).json()["shut"].toObject();
    QVERIFY(std::abs(shut["width_mm"].toDouble() - 139.7) < 1e-6);
    const QByteArray rows = run({"fit", file, "card"}).out;
    QVERIFY2(rows.contains("2 1/4 in") && !rows.contains("mm"), rows);
    QCOMPARE(run({"add", file, "piece", "--on", "gutter"}).code, 0);
    const QByteArray scores = run({"scores", file, "s2"}).out;
    QVERIFY2(scores.contains(" in") && !scores.contains("mm"), scores);
    QCOMPARE(run({"new", file, "--width", "100mm", "--height", "9.5 cm", "--force"}).code, 0);
    QCOMPARE(run({"set", file, "card", "width=120"}).code, 0);
    const QJsonObject wider = run({"check", file, "--json"}).json()["shut"].toObject();
    QVERIFY(std::abs(wider["width_mm"].toDouble() - 120) < 1e-6);
    QVERIFY(std::abs(wider["height_mm"].toDouble() - 95) < 1e-6);
  }
  void theVerdictDoesNotWaitForMends() {
    const QString slow = QStringLiteral(HINGE_SOURCE_DIR "/bench/cases/messy-50.hinge");
    const Ran none = run({"check", slow, "--mends", "0", "--json"});
    QCOMPARE(none.code, 1);
    for (const auto& f : none.json()["findings"].toArray()) {
      QVERIFY(f.toObject()["mend"].isNull());
      QVERIFY(!f.toObject()["mend_sought"].toBool());
    }
    const Ran some = run({"check", slow, "--mends", "1"});
    QCOMPARE(some.code, 1);
    QVERIFY2(some.out.contains("not looked into within 1 s"), some.out);
  }
  void helpIsThereForEveryVerb() {
    for (const char* verb : {"structures", "new", "seats", "add", "set", "remove", "check", "mend",
                             "sweep", "export", "scores", "solve", "fit", "order", "gallery"}) {
      const Ran help = run({QString::fromLatin1(verb), "--help"});
      QCOMPARE(help.code, 0);
      QVERIFY(help.out.contains("Usage"));
    }
    QCOMPARE(run({"--help"}).code, 0);
  }
  void everyDemoExportsAVerifiableFold_data() {
    QTest::addColumn<QString>("demo");
    for (const QString& name :
         QDir(QStringLiteral(HINGE_SOURCE_DIR "/demo")).entryList({QStringLiteral("*.hinge")}))
      QTest::newRow(qPrintable(name)) << name;
  }
  void everyDemoExportsAVerifiableFold() {
    QFETCH(QString, demo);
    const QString target = at("demo.fold");
    QVERIFY2(run({"export", QStringLiteral(HINGE_SOURCE_DIR "/demo/") + demo, "--to", "fold", "-o",
                  target})
                     .code == 0,
             "export");
    QFile file(target);
    QVERIFY(file.open(QIODevice::ReadOnly));
    const QJsonObject fold = QJsonDocument::fromJson(file.readAll()).object();
    QVERIFY(fold["file_frames"].toArray().size() >= 3);
    const qsizetype faces = fold["faces_vertices"].toArray().size();
    QVERIFY(faces >= 4);
    for (const auto& frame : fold["file_frames"].toArray())
      QVERIFY(frame.toObject()["frame_inherit"].toBool());
  }

  void everyStructureHasItsRowsInTheDocs() {
    QFile docs(QStringLiteral(HINGE_SOURCE_DIR "/docs/structures.md"));
    QVERIFY(docs.open(QIODevice::ReadOnly));
    const QString text = QString::fromUtf8(docs.readAll());
    const QJsonArray kinds = run({"structures", "--json"}).json()["structures"].toArray();
    QVERIFY(kinds.size() >= 13);
    for (const auto& kind : kinds) {
      const qsizetype start =
          text.indexOf(QStringLiteral("(`%1`)").arg(kind.toObject()["key"].toString()));
      QVERIFY2(start >= 0, qPrintable(kind.toObject()["key"].toString()));
      const QString own = text.mid(start, text.indexOf(QStringLiteral("\n## "), start) - start);
      for (const auto& row : kind.toObject()["parameters"].toArray()) {
        const QString key = row.toObject()["key"].toString();
        QVERIFY2(own.contains(QStringLiteral("| `%1` |").arg(key)) &&
                     own.contains(row.toObject()["meaning"].toString()),
                 qPrintable(key));
      }
    }
  }
  void theOrderOfWorkIsTold() {
    QTemporaryDir folder; // without its moon, which may be put on at any time
    const QString lantern = folder.filePath(QStringLiteral("lantern.hinge"));
    QCOMPARE(run({"topper", QStringLiteral(HINGE_SOURCE_DIR "/demo/pop-up-lantern.hinge"), "t1",
                  "--remove", "-o", lantern})
                 .code,
             0);
    const Ran text = run({"order", lantern});
    QCOMPARE(text.code, 0);
    QVERIFY(text.out.contains("6. Fasten the band") &&
            text.out.contains("before step 7 shuts it in"));
    const QJsonObject order = run({"order", lantern, "--json"}).json();
    QCOMPARE(order["steps"].toArray().size(), qsizetype(7));
    QCOMPARE(order["steps"].toArray()[5].toObject()["before"].toInt(), 7);
    QVERIFY(order["steps"].toArray()[0].toObject()["before"].isNull());
    QCOMPARE(
        order["steps"].toArray()[5].toObject()["joins"].toArray()[0].toObject()["kind"].toString(),
        QStringLiteral("band"));
    QCOMPARE(order["unreachable"].toArray().size(), qsizetype(0));
    QCOMPARE(run({"order", at("missing.hinge")}).code, 2);
  }
  void aCardIsFittedToAnotherSheet() {
    const QString quay = QStringLiteral(HINGE_SOURCE_DIR "/demo/long-quay.hinge"),
                  target = at("fitted.hinge");
    QVERIFY(run({"fit", quay, "card"}).out.contains("flat length 560 mm"));
    QVERIFY(run({"fit", quay, "card", "630", "--hold", "card.width", "-o", target}).code == 0);
    QVERIFY(run({"fit", target, "card"}).out.contains("flat length 630 mm"));
    QCOMPARE(run({"check", target}).code, 0);
    QCOMPARE(
        run({"fit", quay, "card", "630", "--hold", "card.width", "card.rest", "-o", target}).code,
        2);
    QCOMPARE(run({"fit", quay, "s99", "630", "-o", target}).code, 2);
    QCOMPARE(run({"fit", quay, "card", "wide", "-o", target}).code, 2);
  }
  void aStrapIsWrapped() {
    const QString pass = QStringLiteral(HINGE_SOURCE_DIR "/demo/ferry-pass.hinge"),
                  target = at("wrapped.hinge");
    QCOMPARE(run({"solve", pass, "s4", "--wrap", "12", "-o", target}).code, 0);
    QVERIFY(run({"scores", target, "s4"}).out.contains("12 mm"));
    QCOMPARE(run({"check", target}).code, 0);
    QCOMPARE(run({"solve", pass, "s4", "--wrap", "1", "-o", target}).code, 2);
  }
  void aGalleryShowsEveryCard() {
    const QString picture = at("gallery.png"),
                  one = QStringLiteral(HINGE_SOURCE_DIR "/demo/night-market.hinge"),
                  two = QStringLiteral(HINGE_SOURCE_DIR "/demo/quay-steps.hinge");
    QCOMPARE(run({"gallery", one, two, "--columns", "2", "-o", picture}).code, 0);
    QFile png(picture);
    QVERIFY(png.open(QIODevice::ReadOnly));
    const QByteArray head = png.read(24);
    const auto number = [&](int from) {
      return (static_cast<unsigned char>(head[from + 2]) << 8) +
             static_cast<unsigned char>(head[from + 3]);
    };
    QCOMPARE(number(16), 800); // two tiles of 400
    QVERIFY(number(20) > 300);
    QCOMPARE(run({"gallery", one, "--columns", "0", "-o", picture}).code, 2);
    QCOMPARE(run({"gallery", at("missing.hinge"), "-o", picture}).code, 2);
  }
  /// A card in inches begins on the sheet and the ruler of who works in inches.
  void whatIsNewInInchesStandsOnAnInchRuler() {
    const QString file = at("begun.hinge");
    QCOMPARE(run({"new", file, "--width", "5 1/4", "--height", "7 1/4", "--unit", "in"}).code, 0);
    QCOMPARE(fileOf(file)["settings"].toObject()["sheet"].toString(), QStringLiteral("letter"));
    for (const char* kind : {"box", "vfold", "side-box", "tiers", "platform", "cube", "step"}) {
      const QString one = at("one.hinge");
      QFile::remove(one);
      QVERIFY(QFile::copy(file, one));
      QVERIFY2(run({"add", one, kind, "--on", "gutter"}).code == 0, kind);
      // Whole numbers and fractions, no decimals: all stand on the ruler.
      const QByteArray page = run({"describe", one}).out;
      const QByteArray sizes = page.mid(page.indexOf("\ns1 ") + 1).split('\n').value(0);
      QVERIFY2(sizes.contains('/') && !sizes.contains('.'), sizes);
    }
    QCOMPARE(run({"add", file, "box", "--on", "gutter"}).code, 0);
    QVERIFY(run({"describe", file}).out.contains("tab=1/2"));
    QVERIFY(run({"set", file, "card", "envelope=4 3/8 x 5 3/4"}).code <= 1);
    const Ran checked = run({"check", file});
    QVERIFY2(checked.out.contains("too large for the envelope 5 3/4 in x 4 3/8 in inside"),
             checked.out);
    const Ran wrong = run({"set", file, "card", "envelope=huge"});
    QCOMPARE(wrong.code, 2);
    QVERIFY2(wrong.err.contains("such as \"5 3/4 x 4 3/8\""), wrong.err);
    // Fractions side by side, as they are typed.
    QVERIFY(run({"topper", file, "card/page-b", "disc", "--set", "at 2 3 1/2", "--set",
                 "size 1 3/4 x 1 3/4"})
                .code <= 1);
    const QByteArray page = run({"describe", file}).out;
    QVERIFY2(page.contains("at 2 3 1/2, size 1 3/4 x 1 3/4"), page);
  }
  /// What its maker calls it is what it is called.
  void piecesAreCalledByTheirNames() {
    const QString file = copyOf("steps-in-the-fold");
    QCOMPARE(run({"set", file, "s2", "name=Accordion"}).code, 0);
    QVERIFY(run({"describe", file}).out.contains("called Accordion"));
    const QByteArray seats = run({"seats", file}).out;
    QVERIFY2(seats.contains("face of panel 2 of Accordion") && !seats.contains(" of s2"), seats);
    QCOMPARE(run({"set", file, "s2", "name="}).code, 0);
    QVERIFY(run({"seats", file}).out.contains("face of panel 2 of Free piece s2"));
  }
  void refusalsTellLengthsInTheCardsUnit() {
    const QString file = at("inches.hinge");
    QCOMPARE(run({"new", file, "--width", "5", "--height", "7", "--unit", "in"}).code, 0);
    QCOMPARE(run({"add", file, "box", "--on", "gutter"}).code, 0);
    const Ran far = run({"set", file, "s1", "position=99in"});
    QCOMPARE(far.code, 2);
    QVERIFY2(far.err.contains("99 in is outside"), far.err.constData());
    const Ran narrow = run({"new", at("easel.hinge"), "--width", "5", "--height", "7", "--unit",
                            "in", "--base", "easel", "--set", "strut=4.9"});
    QCOMPARE(narrow.code, 2);
    QVERIFY2(narrow.err.contains("less than 3/16 in and a hair"), narrow.err.constData());
  }
};

QTEST_APPLESS_MAIN(TestCommandLine)
#include "test_command_line.moc"
