// SPDX-License-Identifier: GPL-3.0-or-later
#include "command_runner.h"
#include <QDir>
#include <QFileInfo>
#include <QJsonArray>
#include <QProcessEnvironment>
#include <QTemporaryDir>
#include <QTest>

// Sheets on the command line: the verb that works on them, the card on one page, and the scripts
// that make the demos of sheets.

class TestSheetCommands : public QObject {
  Q_OBJECT
  QTemporaryDir m_folder;
  QString at(const QString& name) const { return m_folder.filePath(name); }
  /// A new card on a sheet, which must come out.
  QString made(const QString& name, const QString& sheet, const QStringList& more = {}) {
    const QString file = at(name);
    QFile::remove(file);
    const Ran ran = run(QStringList{"new", file, "--sheet", sheet} + more);
    if (ran.code != 0) qFatal("%s", ran.err.constData());
    return file;
  }

private slots:
  // --- scripts
  void scriptsMakeTheDemos_data() {
    QTest::addColumn<QString>("script");
    const QDir folder(QStringLiteral(HINGE_SOURCE_DIR "/demo/scripts"));
    const QStringList scripts = folder.entryList({QStringLiteral("*.sh")});
    QVERIFY(scripts.size() >= 6);
    for (const QString& script : scripts)
      QTest::newRow(qPrintable(script)) << folder.filePath(script);
  }
  void scriptsMakeTheDemos() {
    QFETCH(QString, script);
    const QString name = QFileInfo(script).completeBaseName() + QStringLiteral(".hinge");
    QProcess shell;
    QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
    environment.insert(QStringLiteral("PATH"), QFileInfo(QStringLiteral(HINGE_CLI)).path() +
                                                   QLatin1Char(':') +
                                                   environment.value(QStringLiteral("PATH")));
    shell.setProcessEnvironment(environment);
    QFile::remove(at(name));
    const Ran ran = runProcess(shell, QStringLiteral("/bin/sh"), {script, at(name)});
    QVERIFY2(ran.code == 0, ran.err + ran.out);
    const QString dressing =
        QStringLiteral(HINGE_SOURCE_DIR "/demo/dressing/") + QFileInfo(script).fileName();
    const Ran dressed = runProcess(shell, QStringLiteral("/bin/sh"), {dressing, at(name)});
    QVERIFY2(dressed.code == 0, dressed.err + dressed.out);
    QCOMPARE(bytesOf(at(name)), bytesOf(QStringLiteral(HINGE_SOURCE_DIR "/demo/") + name));
    const Ran verdict = run({"check", at(name), "--mends", "0"});
    QVERIFY2(verdict.code == 0, verdict.out);
  }

  // --- the verb
  void aChangeIsToldInTheUnitOfTheCard() {
    const QString file = made(QStringLiteral("in.hinge"), QStringLiteral("size 12 x 6; score 6 v"),
                              {"--unit", "in"});
    const Ran ran = run({"sheet", file, "card", "score 60mm m,", "8", "1/2", "m"});
    QVERIFY2(ran.code == 0, ran.err);
    QVERIFY2(ran.out.startsWith("lengths in in\n"), ran.out);
    QVERIFY2(ran.out.contains("+ score 60mm mountain\n"), ran.out);
    QVERIFY2(ran.out.contains("+ score 8 1/2 mountain\n"), ran.out);
    const Ran turned = run({"sheet", file, "card", "turn 8 1/2"});
    QVERIFY2(turned.out.contains("- score 8 1/2 mountain\n+ score 8 1/2 valley\n"), turned.out);
    const Ran shown = run({"sheet", file, "card"});
    QCOMPARE(shown.code, 0);
    QVERIFY2(shown.out.startsWith("size 12 x 6\nscore 6 valley\n"), shown.out);
  }
  void aCardThatIsSpoiledEndsWithOneAndSaysWhy() {
    const QString file =
        made(QStringLiteral("spoiled.hinge"), QStringLiteral("size 200 x 100; score 100 v"));
    const Ran ran =
        run({"sheet", file, "card", "cut 80,30 to 120,30", ";", "cut 80,70 to 120,70", ";",
             "erase 100", ";", "score 100 v from 0 to 30", ";", "score 100 v from 70 to 100", ";",
             "fold 100,10 opens to 180", ";", "score 80 v from 30 to 70; score 120 v from 30 to 70",
             ";", "score 95 m from 30 to 70"});
    QVERIFY2(ran.code == 1, ran.err + ran.out);
    QVERIFY2(ran.out.contains("spoils the card: The card does not shut flat"), ran.out);
  }
  void wrongInputIsRefusedAndChangesNothing_data() {
    QTest::addColumn<QStringList>("words");
    QTest::addColumn<QByteArray>("said");
    QTest::newRow("unknown word") << QStringList{"card", "skore 50 v"}
                                  << QByteArray("did you mean \"score\"?");
    QTest::newRow("no mark") << QStringList{"card", "score 50"} << QByteArray("valley, mountain");
    QTest::newRow("off the paper") << QStringList{"card", "score 500 v"} << QByteArray("500 mm");
    QTest::newRow("there already") << QStringList{"card", "score 100 m"} << QByteArray("already");
    QTest::newRow("no such line") << QStringList{"card", "turn 90"}
                                  << QByteArray("no score at 90 mm");
    QTest::newRow("no such sheet") << QStringList{"card/7", "size 3 x 4"} << QByteArray("card/2");
    QTest::newRow("no such piece") << QStringList{"s4", "size 30 x 40"} << QByteArray("s4");
    QTest::newRow("no such face") << QStringList{"card/2",
                                                 "size 30 x 40; glue 5,5 on card/page-z at 0,0"}
                                  << QByteArray("card/page-z");
    QTest::newRow("second is wrong")
        << QStringList{"card", "score 50 v; score 60 q"} << QByteArray("\"q\"");
    QTest::newRow("cut in two") << QStringList{"card", "cut 50,0 to 50,100"} << QByteArray("two");
  }
  void wrongInputIsRefusedAndChangesNothing() {
    QFETCH(QStringList, words);
    QFETCH(QByteArray, said);
    const QString file =
        made(QStringLiteral("kept.hinge"), QStringLiteral("size 200 x 100; score 100 v"));
    const QByteArray before = bytesOf(file);
    const Ran ran = run(QStringList{"sheet", file} + words);
    QCOMPARE(ran.code, 2);
    QVERIFY2(ran.err.contains(said), ran.err);
    QCOMPARE(bytesOf(file), before);
  }
  void anyBaseOfOnePieceIsWorkedOn() {
    const QString file = at(QStringLiteral("gate.hinge"));
    QCOMPARE(run({"new", file, "--width", "120", "--height", "160", "--base", "gate"}).code, 0);
    QCOMPARE(run({"add", file, "figure", "--on", "card/page-b"}).code, 0);
    const Ran ran = run({"sheet", file, "card", "opening 70,60 to 90,80"});
    QVERIFY2(ran.code == 0, ran.err + ran.out);
    QVERIFY(bytesOf(file).contains("\"base\": \"sheet\""));
    QCOMPARE(
        run({"new", at("tube.hinge"), "--width", "100", "--height", "90", "--base", "sleeve"}).code,
        0);
    const Ran tube = run({"sheet", at("tube.hinge"), "card", "score 10 v"});
    QCOMPARE(tube.code, 2);
    QVERIFY2(tube.err.contains("more than one sheet"), tube.err);
  }
  void aFreePieceIsSaidInOneGo() {
    const QString file =
        made(QStringLiteral("piece.hinge"), QStringLiteral("size 260 x 180; score 130 v"));
    const Ran ran = run({"add", file, "piece", "--on", "card/page-b", "--sheet",
                         "size 60 x 30; score 10 v lifted from 180 to 60; glue 5,15 on card/page-b "
                         "at 20,40"});
    QVERIFY2(ran.code == 0, ran.err);
    QCOMPARE(run({"check", file}).code, 0);
    const Ran hangs = run({"sheet", file, "s1", "fold 10 free"});
    QCOMPARE(hangs.code, 0);
    const Ran told = run({"check", file, "--json", "--mends", "0"});
    QCOMPARE(told.code, 0);
    QVERIFY2(told.out.contains("\"code\": \"hangs\""), told.out);
    const Ran box = run({"add", file, "box", "--on", "gutter", "--sheet", "size 3 x 4"});
    QCOMPARE(box.code, 2);
  }
  void paperIsPlacedByRulesThatHold() {
    const QString file = at(QStringLiteral("rules.hinge"));
    QCOMPARE(run({"new", file, "--width", "5", "--height", "7", "--unit", "in"}).code, 0);
    const Ran added =
        run({"add", file, "piece", "--on", "gutter", "--sheet",
             "size 2 x 1; glue 1,1/2 on card/page-b left edge 1/4 from fold gutter and bottom "
             "edge 1 from bottom edge"});
    QVERIFY2(added.code == 0, added.err + added.out);
    // Page b counts from its upper end: the number follows, the rule stays.
    QVERIFY(run({"describe", file}).out.contains("at 5 1/2,1 1/4 left edge 1/4 from fold gutter"));
    QCOMPARE(run({"set", file, "card", "height=8"}).code, 0);
    QVERIFY(run({"describe", file}).out.contains("at 6 1/2,1 1/4 left edge 1/4 from fold gutter"));
    // Which lines there are to go by.
    QVERIFY(run({"seats", file}).out.contains("lines: fold gutter, right edge, bottom edge"));
    const QJsonArray seats = QJsonDocument::fromJson(run({"seats", file, "--json"}).out).array();
    const auto page = std::ranges::find_if(seats, [](const QJsonValue& seat) {
      return seat[QStringLiteral("id")].toString() == QLatin1String("card/page-b");
    });
    QVERIFY(page != seats.end());
    QCOMPARE((*page)[QStringLiteral("lines")].toArray().first().toString(),
             QStringLiteral("fold gutter"));
    // What cannot hold is refused, and the card stays as it was.
    const QByteArray before = bytesOf(file);
    const Ran both = run({"sheet", file, "s1",
                          "loosen 1,1/2; glue 1,1/2 on card/page-b left edge 1/4 from fold and "
                          "right edge up to 3 from fold"});
    QCOMPARE(both.code, 2);
    QVERIFY2(
        both.err.contains("\"left edge 1/4 in from the fold\" and \"right edge up to 3 in from "
                          "the fold\" cannot both hold"),
        both.err);
    QCOMPARE(bytesOf(file), before);
  }
  void theFinishedSizeOfASheetIsThatOfTheShutCardOrAsGiven() {
    const auto sizes = [](const QString& file) {
      const QJsonObject card =
          QJsonDocument::fromJson(bytesOf(file)).object().value("card").toObject();
      return QPair(card.value("width_mm").toDouble(), card.value("height_mm").toDouble());
    };
    // Leaves of 80, 80 and 110: the Z shuts to 110.
    const QString z =
        made(QStringLiteral("z.hinge"), QStringLiteral("size 270 x 150; score 80 v, 160 m"));
    QVERIFY(qAbs(sizes(z).first - 110) < 1e-9 && qAbs(sizes(z).second - 150) < 1e-9);
    const QString given =
        made(QStringLiteral("given.hinge"), QStringLiteral("size 270 x 150; score 80 v, 160 m"),
             {"--width", "120", "--height", "6 in"});
    QVERIFY(qAbs(sizes(given).first - 120) < 1e-9 && qAbs(sizes(given).second - 152.4) < 1e-9);
  }
  void theFinishedSizeFollowsTheSheetUntilItIsSet() {
    const auto sizes = [](const QString& file) {
      const QJsonObject card =
          QJsonDocument::fromJson(bytesOf(file)).object().value("card").toObject();
      return QPair(card.value("width_mm").toDouble(), card.value("height_mm").toDouble());
    };
    const QString follows =
        made(QStringLiteral("follows.hinge"), QStringLiteral("size 270 x 150; score 80 v, 160 m"));
    QCOMPARE(run({"sheet", follows, "card", "size 280 x 140"}).code, 0);
    QVERIFY(qAbs(sizes(follows).first - 120) < 1e-9 && qAbs(sizes(follows).second - 140) < 1e-9);
    const QString set =
        made(QStringLiteral("set.hinge"), QStringLiteral("size 270 x 150; score 80 v, 160 m"),
             {"--width", "125"});
    QCOMPARE(run({"sheet", set, "card", "size 280 x 140"}).code, 0);
    QVERIFY(qAbs(sizes(set).first - 125) < 1e-9 && qAbs(sizes(set).second - 140) < 1e-9);
  }
  void aCardDrawnLineByLineIsJudgedOnTheWayAndAtItsEnd() {
    const QString card = made(QStringLiteral("lines.hinge"), QStringLiteral("size 180 x 130"));
    for (const char* line :
         {"score 90 v from 0 to 40", "score 90 v from 80 to 130", "cut 60,40 to 120,40",
          "cut 60,80 to 120,80", "score 60 v from 40 to 80", "score 120 v from 40 to 80"})
      QVERIFY(run({"sheet", card, "card", line}).code != 2);
    const Ran unfinished = run({"sheet", card, "card", "score 75 v from 50 to 60"});
    QCOMPARE(unfinished.code, 1);
    const Ran told = run({"check", card});
    QCOMPARE(told.code, 1);
    QVERIFY2(told.out.contains("ends in the paper"), told.out);
    QCOMPARE(run({"sheet", card, "card", "erase 75,55"}).code == 2, false);
    QCOMPARE(run({"sheet", card, "card", "score 90 m from 40 to 80"}).code, 0);
    QCOMPARE(run({"check", card}).code, 0);
  }
  void shapesAreSaidInOneWord() {
    const QString card =
        made(QStringLiteral("shapes.hinge"), QStringLiteral("size 200 x 120; score 100 v"));
    for (const char* shape :
         {"opening oval 50,60 30 x 40", "opening boat centred on 150,60 40 x 20",
          "opening rectangle centred on 100,10 20 x 30"})
      QCOMPARE(run({"sheet", card, "card", shape}).code, 0);
    QCOMPARE(run({"sheet", card, "card", "opening oval 50,60 30"}).code, 2);
    const Ran heart = run({"sheet", card, "card", "opening heart 50,60 30 x 30"});
    QVERIFY(heart.code == 2 && heart.err.contains("topper --shapes"));
    QVERIFY(
        run({"sheet", card, "card", "opening bota 50,60 30 x 30"}).err.contains("mean \"boat\""));
    QCOMPARE(run({"check", card}).code, 0);
  }
  void helpListsTheSentences() {
    const Ran ran = run({"sheet", "--help"});
    QCOMPARE(ran.code, 0);
    for (const char* word :
         {"size ", "outline ", "score ", "cut ", "opening ", "reverse ", "tab ", "corners ",
          "turn ", "erase ", "move ", "fold ", "JOINT ", "loosen ", "ground "})
      QVERIFY2(ran.out.contains(word), word);
  }

  void scoresAreListedOfEveryPieceAndTakeTheirMarks() {
    const QString file = at(QStringLiteral("scores.hinge"));
    QFile::remove(file);
    QCOMPARE(run({"new", file, "--width", "130", "--height", "180", "--unit", "mm"}).code, 0);
    QCOMPARE(
        run({"add", file, "box", "--on", "gutter", "--set", "a=30", "b=30", "c=20", "d=20"}).code,
        1); // written, though it goes taut
    // The pages have their gutter; the box its ridge and the folds of its two tabs.
    const Ran card = run({"scores", file, "card"});
    QVERIFY2(card.code == 0 && card.out.trimmed() == "130 mm  valley", card.out);
    const Ran box = run({"scores", file, "s1"});
    QCOMPARE(box.code, 0);
    QCOMPARE(box.out.trimmed().split('\n').size(), 3);
    QVERIFY2(box.out.contains("mountain"), box.out);
    QCOMPARE(run({"scores", file, "s1", "10 v"}).code, 2);
    QCOMPARE(run({"scores", file, "card", "10 v"}).code, 2);
    QCOMPARE(run({"add", file, "piece", "--on", "card/page-b", "--sheet",
                  "size 60 x 20; score 10 v; glue 5,10 on card/page-b at 20,20"})
                 .code,
             1);
    const Ran set = run({"scores", file, "s2", "1/2 in m, 30 v", "45m"});
    QVERIFY2(set.code == 1, set.err);
    const QByteArray listed = run({"scores", file, "s2"}).out.simplified();
    QCOMPARE(listed, QByteArray("12.7 mm mountain 30 mm valley 45 mm mountain"));
    QCOMPARE(run({"scores", file, "s2", "10 x"}).code, 2);
  }
  void seatsNameTheirSidesAndTheLineTheyStandOn() {
    const QString file =
        made(QStringLiteral("seats.hinge"), QStringLiteral("size 260 x 180; score 130 v"));
    const QJsonArray seats = QJsonDocument::fromJson(run({"seats", file, "--json"}).out).array();
    bool fold = false, face = false;
    for (const QJsonValue& value : seats) {
      const QJsonObject seat = value.toObject();
      if (seat.value("id") == QStringLiteral("gutter")) {
        fold = true;
        QCOMPARE(seat.value("sides").toObject().value("a").toString(),
                 QStringLiteral("card/page-a"));
        QCOMPARE(seat.value("sides").toObject().value("b").toString(),
                 QStringLiteral("card/page-b"));
      }
      if (seat.value("id") == QStringLiteral("card/page-a")) {
        face = true;
        QCOMPARE(seat.value("start").toString(), QStringLiteral("the lower edge"));
      }
    }
    QVERIFY(fold && face);
    QVERIFY(run({"seats", file}).out.contains("side a: page a, side b: page b"));
  }
  void anEditThatSpoilsAGoodCardSaysSo() {
    const QString file =
        made(QStringLiteral("edit.hinge"), QStringLiteral("size 200 x 100; score 100 v"));
    QCOMPARE(
        run({"add", file, "box", "--on", "gutter", "--set", "a=40", "b=40", "c=45", "d=45"}).code,
        0);
    const Ran wrong = run({"set", file, "s1", "c=48"});
    QCOMPARE(wrong.code, 1); // written all the same: it is what was asked for
    QVERIFY2(wrong.out.contains("spoils the card: "), wrong.out);
    const Ran still = run({"set", file, "s1", "c=49"});
    QVERIFY(still.code == 1 && still.out.contains("spoils the card: "));
    QCOMPARE(run({"set", file, "s1", "c=45"}).code, 0);
    QCOMPARE(run({"set", file, "card", "width=40"}).code, 1);
    // 1.2 times the card with the height held: what grows along the fold runs out of it.
    const QString tower = at(QStringLiteral("tower.hinge"));
    const Ran fitted = run({"fit", QStringLiteral(HINGE_SOURCE_DIR "/demo/lantern-tower.hinge"),
                            "card", "336", "-o", tower});
    QCOMPARE(fitted.code, 1);
    const qsizetype says = fitted.out.indexOf("the nearest length that does not spoil it: ");
    QVERIFY2(says >= 0, fitted.out);
    const QByteArray nearest = fitted.out.mid(says).split(':').at(1).trimmed();
    const Ran better = run({"fit", QStringLiteral(HINGE_SOURCE_DIR "/demo/lantern-tower.hinge"),
                            "card", nearest, "-o", tower, "--force"});
    QVERIFY2(better.code == 0 && !better.out.contains("spoils"), better.out + better.err);
  }
  void aBaseOfSheetsIsFittedToAnotherLength() {
    const QString file = at(QStringLiteral("fitted.hinge"));
    const Ran ran = run({"fit", QStringLiteral(HINGE_SOURCE_DIR "/demo/house-fronts.hinge"), "card",
                         "396", "-o", file});
    QVERIFY2(ran.code == 0, ran.err + ran.out);
    const QByteArray scores = run({"sheet", file, "card"}).out;
    QVERIFY2(scores.contains("size 396 x 150\nscore 99,0 to 99,25 valley\n"), scores);
  }

  // --- what the card is
  void everythingAboutACardCanBeSet() {
    const QString file =
        made(QStringLiteral("set.hinge"), QStringLiteral("size 260 x 180; score 130 v"));
    const Ran ran = run({"set", file, "card", "width=5 1/8", "unit=in", "stock=board-300",
                         "sheet=letter", "envelope=c5", "slice=yes", "fold=top", "rests=page",
                         "title=Quay", "works_from_deg=5", "works_to_deg=170"});
    QVERIFY2(ran.code == 0, ran.err);
    const QJsonObject all = QJsonDocument::fromJson(bytesOf(file)).object();
    const QJsonObject card = all.value("card").toObject(),
                      settings = all.value("settings").toObject();
    QVERIFY(qAbs(card.value("width_mm").toDouble() - 130.175) < 1e-9);
    QCOMPARE(card.value("works_from_deg").toDouble(), 5.0);
    QCOMPARE(card.value("works_to_deg").toDouble(), 170.0);
    QCOMPARE(card.value("fold").toString(), QStringLiteral("top"));
    QCOMPARE(all.value("title").toString(), QStringLiteral("Quay"));
    QCOMPARE(all.value("stock").toString(), QStringLiteral("board-300"));
    QCOMPARE(settings.value("sheet").toString(), QStringLiteral("letter"));
    QCOMPARE(settings.value("envelope").toString(), QStringLiteral("c5"));
    QVERIFY(settings.value("slice").toBool());
    for (const char* wrong : {"stock=oak", "unit=ell", "slice=perhaps", "works_to_deg=200",
                              "works_from_deg=175", "width=wide"}) {
      const Ran refused = run({"set", file, "card", wrong});
      QVERIFY2(refused.code == 2 && !refused.err.isEmpty(), wrong);
    }
  }

  // --- the card on one page
  void aCardIsDescribedAndReadAgain_data() {
    QTest::addColumn<QString>("file");
    const QDir folder(QStringLiteral(HINGE_SOURCE_DIR "/demo"));
    for (const QString& name : folder.entryList({QStringLiteral("*.hinge")}))
      QTest::newRow(qPrintable(name)) << folder.filePath(name);
  }
  void aCardIsDescribedAndReadAgain() {
    QFETCH(QString, file);
    const QString page = at(QStringLiteral("page.txt")), again = at(QStringLiteral("again.hinge"));
    QCOMPARE(run({"describe", file, "-o", page}).code, 0);
    const Ran read = run({"read", page, again, "--force"});
    QVERIFY2(read.code == 0, read.err);
    compare(QJsonDocument::fromJson(bytesOf(file)).object(),
            QJsonDocument::fromJson(bytesOf(again)).object(), QString());
  }
  void aPageThatIsNoneIsRefusedWithItsLine_data() {
    QTest::addColumn<QByteArray>("page");
    QTest::addColumn<QByteArray>("said");
    const QByteArray head = "hinge-lantern page 1\nunit mm\nfinished 100 x 90\n";
    QTest::newRow("empty") << QByteArray() << QByteArray("first line");
    QTest::newRow("other text") << QByteArray("score 5 v\n") << QByteArray("line 1");
    QTest::newRow("unknown line") << head + "colour blue\n" << QByteArray("line 4");
    QTest::newRow("bad size") << head + "base gate: flap=wide\n" << QByteArray("line 4");
    QTest::newRow("bad sentence") << head + "base sheet\nsheet\n size 200 x 90\n score 100\n"
                                  << QByteArray("line 7");
    QTest::newRow("no paper") << head + "base sheet\n" << QByteArray("needs a sheet");
    QTest::newRow("no seat") << head + "s1 box on nowhere: a=30\n" << QByteArray("nowhere");
    QTest::newRow("twice") << head + "s1 box on gutter\ns1 box on gutter\n" << QByteArray("line 5");
    QByteArray deep = head;
    for (int k = 0; k < 6; ++k)
      deep = head + "s1 card-on-fold on gutter\n| " + deep.trimmed().replace('\n', "\n| ") + "\n";
    QTest::newRow("too deep") << deep << QByteArray("more than 3 cards lie in one another");
    QTest::newRow("too late") << head + "s1 box on gutter\nsheet\n" << QByteArray("line 5");
  }
  void aPageThatIsNoneIsRefusedWithItsLine() {
    QFETCH(QByteArray, page);
    QFETCH(QByteArray, said);
    QFile file(at(QStringLiteral("wrong.txt")));
    QVERIFY(file.open(QIODevice::WriteOnly));
    file.write(page);
    file.close();
    const QString out = at(QStringLiteral("wrong.hinge"));
    const Ran ran = run({"read", file.fileName(), out});
    QCOMPARE(ran.code, 2);
    QVERIFY2(ran.err.contains(said), ran.err);
    QVERIFY(!QFile::exists(out));
  }

  // --- cards on cards, bases, settings
  void aFinishedCardGoesOnAnother() {
    const QString small = at(QStringLiteral("small.hinge")),
                  file = at(QStringLiteral("large.hinge"));
    for (const QString& one : {small, file})
      QFile::remove(one);
    QCOMPARE(run({"new", small, "--width", "1 5/8", "--height", "2 3/8", "--unit", "in"}).code, 0);
    QCOMPARE(run({"add", small, "vfold", "--on", "gutter"}).code, 0);
    QCOMPARE(run({"new", file, "--width", "5 1/8", "--height", "7", "--unit", "in"}).code, 0);
    const QByteArray before = bytesOf(file);
    // What is missing, not there, or does not carry a card.
    const Ran without = run({"add", file, "card-on-face", "--on", "card/page-b"});
    QCOMPARE(without.code, 2);
    QVERIFY2(without.err.contains("--card FILE"), without.err);
    QCOMPARE(run({"add", file, "card-on-face", "--on", "card/page-b", "--card", "none.hinge"}).code,
             2);
    const Ran figure = run({"add", file, "figure", "--on", "card/page-b", "--card", small});
    QCOMPARE(figure.code, 2);
    QVERIFY2(figure.err.contains("does not carry a card"), figure.err);
    const Ran far = run(
        {"add", file, "card-on-face", "--on", "card/page-b", "--card", small, "--set", "to=190"});
    QCOMPARE(far.code, 2);
    QCOMPARE(bytesOf(file), before);
    // There it lies, in the card's own unit, and is judged with it.
    QCOMPARE(run({"add", file, "card-on-face", "--on", "card/page-b", "--card", small, "--set",
                  "up=2 1/2", "to=120deg"})
                 .code,
             0);
    const Ran verdict = run({"check", file, "--json", "--mends", "0"});
    QCOMPARE(verdict.code, 0);
    QCOMPARE(verdict.json()["verdict"].toString(), QStringLiteral("good"));
    const Ran page = run({"describe", file});
    QVERIFY2(page.out.contains("s1 card-on-face on card/page-b: position=3 1/2, up=2 1/2"),
             page.out);
    QVERIFY2(page.out.contains("  | finished 1 5/8 x 2 3/8\n"),
             page.out); // in the small card's own
    QVERIFY(run({"seats", file}).out.contains("s1/card/page-a"));
    // Taken out it is what was put in; changed it goes back.
    const QString out = at(QStringLiteral("out.hinge"));
    QCOMPARE(run({"small", file, "s1"}).code, 2); // where to?
    QCOMPARE(run({"small", file, "s1", "-o", out}).code, 0);
    QCOMPARE(bytesOf(out), bytesOf(small));
    QCOMPARE(run({"set", out, "card", "title=Boat"}).code, 0);
    QCOMPARE(run({"small", file, "s1", "--card", out}).code, 0);
    QVERIFY(bytesOf(file).contains("\"title\": \"Boat\""));
    QCOMPARE(run({"small", file, "s1", "--card", file}).code, 1); // far too large for itself
    QCOMPARE(run({"small", small, "s1", "-o", out}).code, 2);     // no small card
  }
  void aCardGetsAnotherBase() {
    const QString file = at(QStringLiteral("based.hinge"));
    QFile::remove(file);
    QCOMPARE(run({"new", file, "--width", "130", "--height", "180"}).code, 0);
    const Ran gate = run({"set", file, "card", "left=60", "right=70", "base=gate"});
    QVERIFY2(gate.code == 0, gate.err);
    QVERIFY2(run({"describe", file}).out.contains("base gate: left=60, right=70"),
             run({"describe", file}).out);
    QCOMPARE(run({"set", file, "card", "base=sheet"}).code, 0);
    QVERIFY(run({"describe", file}).out.contains("base sheet\nfold"));
    const QByteArray before = bytesOf(file);
    const Ran none = run({"set", file, "card", "base=umbrella"});
    QCOMPARE(none.code, 2);
    QVERIFY2(none.err.contains("umbrella"), none.err);
    QCOMPARE(bytesOf(file), before);
    // What does not suit what stands there is told.
    QCOMPARE(run({"set", file, "card", "base=single-fold"}).code, 0);
    QCOMPARE(run({"add", file, "box", "--on", "gutter"}).code, 0);
    const Ran sleeve = run({"set", file, "card", "base=sleeve"}); // another gutter
    QCOMPARE(sleeve.code, 1);
    QVERIFY2((sleeve.out + sleeve.err).contains("spoils the card"), sleeve.out + sleeve.err);
  }
  void everyNumberOfTheSettingsIsSet() {
    const QString file = at(QStringLiteral("settings.hinge"));
    QFile::remove(file);
    QCOMPARE(run({"new", file, "--width", "5", "--height", "7", "--unit", "in"}).code, 0);
    const Ran set = run({"set", file, "card", "pin_play=1/32", "least_tab=1/4", "tab_bevel_deg=20",
                         "thickness=0.3mm", "weight_gsm=240"});
    QVERIFY2(set.code == 0, set.err);
    const QByteArray page = run({"describe", file}).out;
    for (const char* line : {"pin_play 1/32\n", "least_tab 1/4\n", "tab_bevel_deg 20\n",
                             "thickness 0.3mm\n", "weight_gsm 240\n"})
      if (!QByteArray(line).startsWith("thickness")) QVERIFY2(page.contains(line), page);
    for (const char* wrong :
         {"pin_play=9mm", "tab_bevel_deg=85", "display_deg=200", "thickness=x"}) {
      const Ran refused = run({"set", file, "card", wrong});
      QVERIFY2(refused.code == 2, wrong);
      QVERIFY2(refused.err.contains(QByteArray(wrong).split('=').front()), refused.err);
    }
  }
  void aNotchIsTold() {
    const QString file =
        made(QStringLiteral("notch.hinge"), QStringLiteral("size 200 x 100; score 100 v"));
    const Ran hole = run({"sheet", file, "card", "opening 20,20 to 40,40"});
    QVERIFY2(hole.code == 0 && !hole.out.contains("notch"), hole.out);
    const Ran notch = run({"sheet", file, "card", "opening 60,80 to 80,110"});
    QVERIFY2((notch.out + notch.err).contains("it is a notch there"), notch.out + notch.err);
  }
  void stepsAndLayersAreSaid() {
    const QString file =
        made(QStringLiteral("dial.hinge"), QStringLiteral("size 200 x 140; score 100 v"));
    QCOMPARE(run({"add", file, "piece", "--on", "card/page-a", "--sheet",
                  "size 40 x 12; pivot 6,6 on card/page-a at 60,50 spun -90 to 90 step 30 over 1"})
                 .code,
             0);
    const Ran said = run({"sheet", file, "s1"});
    QVERIFY2(said.out.contains("pivot 6,6 on card/page-a at 60,50 spun -90 to 90 step 30 over 1\n"),
             said.out);
    const Ran wrong = run({"sheet", file, "s1", "pivot 20,6 on card/page-a at 80,50 over 1/2"});
    QCOMPARE(wrong.code, 2);
    const QByteArray help = run({"sheet", "--help"}).out;
    QVERIFY(help.contains("step 30") && help.contains("over 1"));
  }

private:
  /// Two projects are the same but for rounding of lengths.
  static void compare(const QJsonValue& a, const QJsonValue& b, const QString& where) {
    QVERIFY2(a.type() == b.type() || where.isEmpty(), qPrintable(where));
    if (a.isDouble()) {
      QVERIFY2(qAbs(a.toDouble() - b.toDouble()) < 1e-8, qPrintable(where));
    } else if (a.isArray()) {
      QVERIFY2(a.toArray().size() == b.toArray().size(), qPrintable(where));
      for (qsizetype k = 0; k < a.toArray().size(); ++k)
        compare(a.toArray()[k], b.toArray()[k], where + QStringLiteral("[%1]").arg(k));
    } else if (a.isObject()) {
      for (const QString& key : a.toObject().keys())
        if (key != QStringLiteral("version"))
          compare(a.toObject().value(key), b.toObject().value(key), where + QLatin1Char('.') + key);
    } else {
      QVERIFY2(a == b, qPrintable(where));
    }
  }
};

QTEST_GUILESS_MAIN(TestSheetCommands)
#include "test_sheet_commands.moc"
