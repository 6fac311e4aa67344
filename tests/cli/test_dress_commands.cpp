// SPDX-License-Identifier: GPL-3.0-or-later
#include "command_runner.h"
#include <QJsonArray>
#include <QJsonDocument>
#include <QTemporaryDir>
#include <QTest>

// Dressing by the command line: papers, faces, layers, toppers, lists.

class TestDressCommands : public QObject {
  Q_OBJECT
  QTemporaryDir m_folder;
  QString at(const QString& name) const { return m_folder.filePath(name); }
  QString made(const char* name) {
    const QString file = at(QLatin1String(name));
    QFile::remove(file);
    for (const QStringList& words : {QStringList{"new", file, "--width", "130", "--height", "180"},
                                     QStringList{"add", file, "box", "--on", "gutter"}})
      if (const Ran ran = run(words); ran.code != 0) qFatal("%s", ran.err.constData());
    return file;
  }
  QJsonDocument json(QStringList words) {
    const Ran ran = run(words << QStringLiteral("--json"));
    if (ran.code != 0) qFatal("%s", ran.err.constData());
    return QJsonDocument::fromJson(ran.out);
  }
private slots:
  void facesSayWhatIsSeenOfThem() {
    const QString file = made("faces.hinge");
    const QJsonArray faces = json({"faces", file}).array();
    QCOMPARE(faces.size(), 8); // both sides of two pages and two walls
    for (const QJsonValue& value : faces) {
      const QJsonObject face = value.toObject(), seen = face["seen"].toObject();
      QVERIFY(face["outline"].toArray().size() >= 4);
      const double display = seen["display"].toDouble(), opening = seen["opening"].toDouble();
      QVERIFY(display >= 0 && opening >= display && opening <= 1);
      QVERIFY(std::abs(seen["never"].toDouble() - (1 - opening)) < 1e-12);
    }
    QVERIFY(run({"faces", file}).out.contains("seen on display"));
  }
  void whatIsLaidOnComesOutOfTheLists() {
    const QString file = made("dress.hinge");
    QCOMPARE(run({"dress", file, "--all-seen", "--papers", "canal-blue,deck-planks"}).code, 0);
    QCOMPARE(run({"dress", file, "s1/wall-a", "--for", "twins", "--paper", "moss", "--border",
                  "3,0,5,1", "--at-glue", "around"})
                 .code,
             0);
    const Ran rules = run({"dress", file});
    QVERIFY2(rules.out.contains("1  seen: canal-blue; deck-planks\n"), rules.out);
    QVERIFY2(rules.out.contains("2  twins s1/wall-a around: moss border 3,0,5,1\n"), rules.out);
    const QJsonArray mats = json({"mats", file}).array();
    int moss = 0, pages = 0;
    for (const QJsonValue& value : mats) {
      const QJsonObject mat = value.toObject();
      if (mat["paper"] == QLatin1String("moss")) moss += mat["count"].toInt();
      for (const QJsonValue& place : mat["places"].toArray())
        if (place.toObject()["face"].toString().startsWith(QLatin1String("card/"))) ++pages;
    }
    QCOMPARE(moss, 2);
    QVERIFY(pages >= 6); // two layers each on what is seen of two pages
    const QByteArray csv = run({"mats", file, "--csv"}).out;
    QVERIFY2(csv.startsWith("piece,face,layer,paper,count,hand,width_mm,height_mm,size\n"), csv);
    QVERIFY2(csv.contains(",s1/wall-a,1,moss,2,"), csv);
    // One more on top, then that rule away again.
    QCOMPARE(run({"dress", file, "s1/wall-a", "--for", "twins", "--paper", "reeds", "--more"}).code,
             0);
    QVERIFY(run({"dress", file}).out.contains("; reeds"));
    QCOMPARE(run({"dress", file, "--drop", "2"}).code, 0);
    QVERIFY(!run({"dress", file}).out.contains("twins"));
    QVERIFY(run({"papers", file}).out.contains("canal-blue: thick 0.27"));
    const QJsonArray papers = json({"papers", file}).array();
    QVERIFY(papers.at(1).toObject()["needs"].toObject()["mats"].toInt() > 0);
  }
  void toppersArePutOnChangedAndTakenAway() {
    const QString file = made("topper.hinge");
    QVERIFY(run({"topper", file, "--shapes"}).out.count('\n') >= 16);
    QCOMPARE(run({"topper", file, "card/page-a", "moon", "--paper", "brass-foil", "--set",
                  "at 130 100; size 18 x 20"})
                 .code,
             0);
    QCOMPARE(run({"topper", file, "t1", "--set", "pads 2", "turned 15", "mat tar border 1"}).code,
             0);
    const Ran listed = run({"topper", file});
    QVERIFY2(listed.out.startsWith("t1 moon on card/page-a: paper brass-foil, at 130 100, "
                                   "size 18 x 20, detail 0.5, turned 15, pads 2, mat tar border 1"),
             listed.out);
    const QJsonObject thick = json({"thickness", file}).object();
    QVERIFY(std::abs(thick["thickness_mm"].toDouble() - (2 * 0.27 + 2 * 0.27 + 2)) < 1e-9);
    QCOMPARE(thick["stack"].toArray().size(), 5);
    QVERIFY(run({"thickness", file}).out.contains("pads on"));
    const Ran lettered = run({"topper", file, "card/page-b", "lettering", "--paper", "plum",
                              "--set", "text Open", "size 40 x 8", "at 90 60"});
    QVERIFY2(lettered.code == 0, lettered.err + lettered.out);
    // The card on one page has all of it.
    const QString page = at("page.txt"), again = at("again.hinge");
    QCOMPARE(run({"describe", file, "-o", page}).code, 0);
    QCOMPARE(run({"read", page, again, "--force"}).code, 0);
    QVERIFY(run({"topper", again}).out.contains("t2 lettering on card/page-b: paper plum"));
    QCOMPARE(run({"topper", file, "t1", "--remove"}).code, 0);
    QVERIFY(!run({"topper", file}).out.contains("t1"));
    // As an outline from a drawing of ours.
    const Ran own = run({"topper", file, "card/page-a", "own", "--paper", "moss", "--from",
                         QStringLiteral(HINGE_SOURCE_DIR "/demo/drawings/bridge-arches.svg")});
    QVERIFY2(own.code != 2, own.err);
  }
  void aTopperThatSpoilsTheCardEndsWithOne() {
    const QString file = made("spoils.hinge");
    const Ran ran = run(
        {"topper", file, "s1/wall-b", "disc", "--paper", "moss", "--set", "at 25 2; size 20 x 20"});
    QCOMPARE(ran.code, 1);
    QVERIFY2(ran.out.contains("t1"), ran.out);
  }
  void aStructureIsCutFromItsOwnPaper() {
    const QString file = made("own.hinge");
    QCOMPARE(run({"set", file, "s1", "paper=plum"}).code, 0);
    const QJsonArray papers = json({"papers", file}).array();
    QCOMPARE(papers.at(1).toObject()["needs"].toObject()["pieces"].toInt(), 1);
    QCOMPARE(run({"papers", file, "--take-out", "plum"}).code, 2);
    QCOMPARE(run({"set", file, "s1", "paper="}).code, 0);
    QCOMPARE(run({"papers", file, "--take-out", "plum"}).code, 0);
    QCOMPARE(run({"papers", file, "--put",
                  "own-blue: thick 0.3, weight 250, face #102030, back #ffffff, print dots every 6 "
                  "share 0.4 #f2b134, sheets 100 x 150 3"})
                 .code,
             0);
    QVERIFY(run({"papers", file}).out.contains("own-blue: thick 0.3, weight 250"));
  }
  void whatCannotBeIsRefusedWithItsPlace_data() {
    QTest::addColumn<QStringList>("words");
    QTest::addColumn<QString>("said");
    QTest::newRow("paper") << QStringList{"dress", "@", "s1/wall-a", "--paper", "oak"} << "oak";
    QTest::newRow("face") << QStringList{"dress", "@", "s7/wall-a", "--paper", "moss"}
                          << "s7/wall-a";
    QTest::newRow("borders") << QStringList{"dress", "@",        "s1/wall-a", "--paper",
                                            "moss",  "--border", "1,2"}
                             << "four";
    QTest::newRow("number") << QStringList{"dress", "@",        "s1/wall-a", "--paper",
                                           "moss",  "--border", "wide"}
                            << "wide";
    QTest::newRow("nothing") << QStringList{"dress", "@", "s1/wall-a"} << "--bare";
    QTest::newRow("rule") << QStringList{"dress", "@", "--drop", "4"} << "4";
    QTest::newRow("shape") << QStringList{"topper", "@", "card/page-a", "anchor"} << "anchor";
    QTest::newRow("topper") << QStringList{"topper", "@", "t9", "--set", "pads 2"} << "t9";
    QTest::newRow("words") << QStringList{"topper", "@", "card/page-a", "moon", "--set", "sideways"}
                           << "sideways";
    QTest::newRow("size") << QStringList{"topper", "@",     "card/page-a",
                                         "moon",   "--set", "size 900 x 900"}
                          << "500";
    QTest::newRow("drawing")
        << QStringList{"topper", "@",      "card/page-a",
                       "own",    "--from", QStringLiteral(HINGE_SOURCE_DIR "/README.md")}
        << "README.md";
    QTest::newRow("pattern") << QStringList{"papers", "@", "--put", "a: print zigzag #000000"}
                             << "zigzag";
    QTest::newRow("key") << QStringList{"papers", "@", "--put", "a b: thick 0.2"} << "a b";
  }
  void whatCannotBeIsRefusedWithItsPlace() {
    QFETCH(QStringList, words);
    QFETCH(QString, said);
    const QString file = made("refused.hinge");
    const QByteArray before = bytesOf(file);
    words.replaceInStrings(QStringLiteral("@"), file);
    const Ran ran = run(words);
    QCOMPARE(ran.code, 2);
    QVERIFY2(ran.err.contains(said.toUtf8()), ran.err);
    QCOMPARE(bytesOf(file), before);
  }
  void damagedDressingIsNamedByItsPlace_data() {
    QTest::addColumn<QByteArray>("from");
    QTest::addColumn<QByteArray>("to");
    QTest::addColumn<QByteArray>("said");
    QTest::newRow("paper") << QByteArray("\"paper\": \"moss\"") << QByteArray("\"paper\": \"oak\"")
                           << QByteArray("oak");
    QTest::newRow("border") << QByteArray("\"on\": \"face\"") << QByteArray("\"on\": \"floor\"")
                            << QByteArray("rules[0].on");
    QTest::newRow("colour") << QByteArray("#5f7a3d") << QByteArray("#5f7a3")
                            << QByteArray("colours");
    QTest::newRow("list") << QByteArray("\"rules\": [") << QByteArray("\"rules\": 3, \"x\": [")
                          << QByteArray("dressing.rules");
    QTest::newRow("twice") << QByteArray("\"key\": \"moss\"") << QByteArray("\"key\": \"card-220\"")
                           << QByteArray("card-220");
    QTest::newRow("stock") << QByteArray("\"stock\": \"card-220\"")
                           << QByteArray("\"stock\": \"x\"") << QByteArray("stock");
  }
  void damagedDressingIsNamedByItsPlace() {
    QFETCH(QByteArray, from);
    QFETCH(QByteArray, to);
    QFETCH(QByteArray, said);
    const QString file = made("damaged.hinge");
    QCOMPARE(run({"dress", file, "s1/wall-a", "--paper", "moss"}).code, 0);
    QByteArray bytes = bytesOf(file);
    QVERIFY2(bytes.contains(from), bytes);
    bytes.replace(from, to);
    QFile out(file);
    QVERIFY(out.open(QIODevice::WriteOnly));
    out.write(bytes);
    out.close();
    const Ran ran = run({"check", file});
    QCOMPARE(ran.code, 2);
    QVERIFY2(ran.err.contains(said), ran.err);
  }
};

QTEST_GUILESS_MAIN(TestDressCommands)
#include "test_dress_commands.moc"
