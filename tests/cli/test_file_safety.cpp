// SPDX-License-Identifier: GPL-3.0-or-later
#include "command_runner.h"
#include <QDir>
#include <QFileInfo>
#include <QJsonArray>
#include <QRegularExpression>
#include <QTemporaryDir>
#include <QTest>
#include <memory>
#include <vector>

/// Nothing of a maker's is overwritten or lost by a command that means something else, and the
/// commands of the README do what it says.
class TestFileSafety : public QObject {
  Q_OBJECT
private slots:
  void resultsReplaceOnlyTheirOwnKind_data();
  void resultsReplaceOnlyTheirOwnKind();
  void anEditReplacesNoOtherCard();
  void emptyNamesAreRefused_data();
  void emptyNamesAreRefused();
  void nothingIsChangedWhenNobodyCanHearIt();
  void commandLinesAtOnceLoseNothing();
  void verbsThatLeaveACardSpoiledEndWithOne();
  void roundingNeverSpoilsAGoodCard();
  void theReadmesCommandsEndInAGoodCard();

private:
  QString at(const QString& name) const { return m_folder.filePath(name); }
  QString copyOf(const char* demo, const QString& name) const {
    QFile::remove(at(name));
    const QString from = QStringLiteral(HINGE_SOURCE_DIR "/demo/%1.hinge").arg(QLatin1String(demo));
    if (!QFile::copy(from, at(name))) qFatal("cannot copy %s", demo);
    return at(name);
  }
  static void write(const QString& path, const QByteArray& content) {
    QFile file(path);
    if (!file.open(QIODevice::WriteOnly) || file.write(content) != content.size())
      qFatal("cannot write %s", qPrintable(path));
  }

  QTemporaryDir m_folder;
};

void TestFileSafety::resultsReplaceOnlyTheirOwnKind_data() {
  QTest::addColumn<QStringList>("verb");
  for (const char* format : {"svg", "dxf", "pdf", "fold", "obj", "png", "csv", "txt"})
    QTest::newRow(format) << QStringList{"export", "CARD", "--to", format, "-o", "OUT"};
  QTest::newRow("page") << QStringList{"describe", "CARD", "-o", "OUT"};
  QTest::newRow("gallery") << QStringList{"gallery", "CARD", "--size", "80", "-o", "OUT"};
  QTest::newRow("step") << QStringList{"step", "CARD", "1", "--picture", "OUT.svg"};
  QTest::newRow("booklet") << QStringList{"booklet", "CARD", "--bare", "-o", "OUT.html"};
}

void TestFileSafety::resultsReplaceOnlyTheirOwnKind() {
  QFETCH(QStringList, verb);
  const QString card = copyOf("two-tents", QStringLiteral("own.hinge"));
  QString out = at(QStringLiteral("out"));
  for (QString& word : verb) {
    word.replace(QStringLiteral("CARD"), card);
    if (word.startsWith(QStringLiteral("OUT"))) word = out = out + word.mid(3);
  }
  // Another card, a photo, a note.
  const QByteArray others[] = {bytesOf(QStringLiteral(HINGE_SOURCE_DIR "/demo/tower.hinge")),
                               QByteArray("\xff\xd8\xff\xe0 a photo"), "strap 6 mm short\n",
                               "{\n  \"format\": \"hinge-lantern-work\"\n}\n"};
  for (const QByteArray& other : others) {
    write(out, other);
    const Ran refused = run(verb);
    QCOMPARE(refused.code, 2);
    QVERIFY2(refused.err.contains("--force"), refused.err);
    QCOMPARE(bytesOf(out), other);
  }
  QCOMPARE(run(verb + QStringList{"--force"}).code, 0);
  const QByteArray first = bytesOf(out);
  QVERIFY(first != others[3]);
  QCOMPARE(run(verb).code, 0); // its own kind is replaced
  write(out, {});
  QCOMPARE(run(verb).code, 0); // and an empty file
  QFile::remove(out);
}

void TestFileSafety::anEditReplacesNoOtherCard() {
  const QString card = copyOf("two-tents", QStringLiteral("own.hinge")),
                other = copyOf("tower", QStringLiteral("other.hinge"));
  const QByteArray before = bytesOf(other);
  const QStringList edit{"set", card, "card", "title=Mine", "-o"};
  QCOMPARE(run(edit + QStringList{other}).code, 2);
  QCOMPARE(bytesOf(other), before);
  QCOMPARE(run(edit + QStringList{card}).code, 0); // itself
  QCOMPARE(run(edit + QStringList{other, "--force"}).code, 0);
  QVERIFY(bytesOf(other) != before);
}

void TestFileSafety::emptyNamesAreRefused_data() {
  QTest::addColumn<QStringList>("verb");
  QTest::newRow("out") << QStringList{"set", "CARD", "card", "title=x", "-o", ""};
  QTest::newRow("device") << QStringList{"cut", "CARD", "--to", ""};
  QTest::newRow("drawing") << QStringList{"topper", "CARD", "card/page-a", "star", "--from", ""};
  QTest::newRow("picture") << QStringList{"step", "CARD", "1", "--picture", ""};
}

void TestFileSafety::emptyNamesAreRefused() {
  QFETCH(QStringList, verb);
  const QString card = copyOf("two-tents", QStringLiteral("own.hinge"));
  const QByteArray before = bytesOf(card);
  verb[1] = card;
  const Ran ran = run(verb);
  QCOMPARE(ran.code, 2);
  QVERIFY2(ran.err.contains("empty"), ran.err);
  QCOMPARE(bytesOf(card), before);
}

void TestFileSafety::nothingIsChangedWhenNobodyCanHearIt() {
  const QString card = copyOf("two-tents", QStringLiteral("own.hinge"));
  const QByteArray before = bytesOf(card);
  for (const QStringList& verb : {QStringList{"add", card, "box", "--on", "gutter"},
                                  QStringList{"sheet", card, "card", "score 20 v"}}) {
    QProcess shell;
    const Ran ran = runProcess(shell, QStringLiteral("/bin/sh"),
                               QStringList{"-c", "\"$0\" \"$@\" > /dev/full", HINGE_CLI} + verb);
    QCOMPARE(ran.code, 2);
    QCOMPARE(bytesOf(card), before);
  }
}

void TestFileSafety::commandLinesAtOnceLoseNothing() {
  const QString card = copyOf("two-tents", QStringLiteral("own.hinge"));
  constexpr int kAtOnce = 6;
  const auto toppers = [&] {
    const auto dressing = QJsonDocument::fromJson(bytesOf(card)).object()["dressing"].toObject();
    return dressing["toppers"].toArray().size();
  };
  const auto before = toppers();
  std::vector<std::unique_ptr<QProcess>> all;
  for (int k = 0; k < kAtOnce; ++k) {
    all.push_back(std::make_unique<QProcess>());
    all.back()->start(QStringLiteral(HINGE_CLI),
                      {"topper", card, "card/page-a", "star", "--paper", "card-220", "--set",
                       QStringLiteral("at %1 150; size 8 x 8").arg(20 + 14 * k)});
  }
  for (const auto& process : all)
    QVERIFY(process->waitForFinished(120000));
  QCOMPARE(toppers(), before + kAtOnce);
}

void TestFileSafety::verbsThatLeaveACardSpoiledEndWithOne() {
  const QString card = at(QStringLiteral("spoiled.hinge"));
  QFile::remove(card);
  QCOMPARE(run({"new", card, "--width", "130", "--height", "180"}).code, 0);
  QCOMPARE(
      run({"add", card, "box", "--on", "gutter", "--set", "a=30", "b=30", "c=45", "d=45"}).code, 0);
  const Ran set = run({"set", card, "s1", "c=48"});
  QCOMPARE(set.code, 1);
  QVERIFY2(set.out.contains("spoils the card"), set.out);
  // Whatever else is changed, it stays spoiled; and a mend makes it good.
  QCOMPARE(run({"set", card, "card", "title=Still"}).code, 1);
  QCOMPARE(run({"topper", card, "card/page-a", "star", "--set", "at 100 150; size 8 x 8"}).code, 1);
  QCOMPARE(run({"dress", card, "card/page-a", "--papers", "card-220"}).code, 1);
  QCOMPARE(run({"mend", card, "--all", "-o", card}).code, 0);
  QCOMPARE(run({"set", card, "card", "title=Good"}).code, 0);
}

void TestFileSafety::roundingNeverSpoilsAGoodCard() {
  for (const char* demo : {"moth-wings", "night-heron", "lamp-lattice", "canal-frames"})
    for (const char* step : {"1mm", "2mm", "1/8in"}) {
      const QString card = copyOf(demo, QStringLiteral("rounded.hinge"));
      run({"round", card, "--to", step, "--apply"}); // refused where no sizes keep all closures
      QVERIFY2(run({"check", card, "--mends", "0"}).code == 0, demo);
    }
}

void TestFileSafety::theReadmesCommandsEndInAGoodCard() {
  const QString readme = QString::fromUtf8(bytesOf(QStringLiteral(HINGE_SOURCE_DIR "/README.md")));
  const QString kProgram = QStringLiteral("build/bin/hinge-lantern-cli ");
  QTemporaryDir folder;
  QDir(folder.path()).mkpath(QStringLiteral("build"));
  QVERIFY(QFile::link(QFileInfo(QStringLiteral(HINGE_CLI)).path(),
                      folder.filePath(QStringLiteral("build/bin"))));
  QVERIFY(QFile::link(QStringLiteral(HINGE_SOURCE_DIR "/demo"),
                      folder.filePath(QStringLiteral("demo"))));
  int typed = 0;
  for (QString line : readme.split(QLatin1Char('\n'))) {
    if (!line.startsWith(QStringLiteral("    ") + kProgram)) continue;
    QProcess shell;
    shell.setWorkingDirectory(folder.path());
    QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
    environment.insert(QStringLiteral("XDG_DATA_HOME"), folder.filePath(QStringLiteral("data")));
    shell.setProcessEnvironment(environment);
    const Ran ran = runProcess(shell, QStringLiteral("/bin/sh"), {"-c", line.trimmed()});
    QVERIFY2(ran.code == 0, qPrintable(line + QLatin1Char('\n') + QString::fromUtf8(ran.out) +
                                       QString::fromUtf8(ran.err)));
    ++typed;
  }
  QVERIFY(typed > 30);
  for (const char* card : {"card.hinge", "z.hinge"}) {
    const Ran check =
        run({"check", folder.filePath(QLatin1String(card)), "--json", "--mends", "0"});
    const auto verdict = check.json()["verdict"].toString();
    QVERIFY2(check.code == 0 && verdict != QLatin1String("spoiled"), check.out.left(4000));
  }
}

QTEST_GUILESS_MAIN(TestFileSafety)
#include "test_file_safety.moc"
