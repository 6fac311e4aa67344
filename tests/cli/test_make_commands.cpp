// SPDX-License-Identifier: GPL-3.0-or-later
#include "command_runner.h"
#include <QDir>
#include <QJsonArray>
#include <QRegularExpression>
#include <QTemporaryDir>
#include <QTest>
#include <QXmlStreamReader>

// The command line for the work itself: single steps with pictures, the booklet.

namespace {

struct PngSize {
  int width = 0, height = 0;
};

/// From the header of the file, nothing when it is no PNG.
PngSize sizeOfPng(const QByteArray& bytes) {
  if (!bytes.startsWith(QByteArray::fromHex("89504e470d0a1a0a")) || bytes.size() < 24) return {};
  const auto number = [&](int at) {
    int value = 0;
    for (int k = 0; k < 4; ++k)
      value = 256 * value + static_cast<unsigned char>(bytes[at + k]);
    return value;
  };
  return {number(16), number(20)};
}

/// Widths and heights of a PDF's pages in points, in their order.
std::vector<std::pair<int, int>> pagesOf(const QByteArray& pdf) {
  static const QRegularExpression box(QStringLiteral("/MediaBox \\[0 0 ([0-9.]+) ([0-9.]+)\\]"));
  std::vector<std::pair<int, int>> pages;
  auto match = box.globalMatch(QString::fromLatin1(pdf));
  while (match.hasNext()) {
    const auto one = match.next();
    pages.push_back({qRound(one.captured(1).toDouble()), qRound(one.captured(2).toDouble())});
  }
  return pages;
}

/// The text of the first element of that name.
QString textIn(const QByteArray& xmlText, const char* element) {
  QXmlStreamReader xml(xmlText);
  while (!xml.atEnd())
    if (xml.readNext() == QXmlStreamReader::StartElement && xml.name() == QLatin1String(element))
      return xml.readElementText();
  return {};
}

} // namespace

class TestMakeCommands : public QObject {
  Q_OBJECT
  QTemporaryDir m_dir;
  QString m_card;
  QString in(const char* name) const { return m_dir.filePath(QString::fromUtf8(name)); }

private slots:
  void initTestCase() {
    qputenv("XDG_DATA_HOME", m_dir.path().toUtf8()); // not what the maker of this machine likes
    m_card = in("card.hinge");
    QVERIFY(QFile::copy(QStringLiteral(HINGE_SOURCE_DIR "/demo/canal-houses.hinge"), m_card));
  }

  void everyStepIsOneOfThePlan() {
    const QJsonArray steps = run({"plan", m_card, "--json"}).json()["steps"].toArray();
    QVERIFY(steps.size() > 20);
    for (int k = 1; k <= steps.size(); k += 7) {
      const Ran one = run({"step", m_card, QString::number(k), "--json"});
      QCOMPARE(one.code, 0);
      QCOMPARE(one.json(), steps[k - 1].toObject());
      const Ran text = run({"step", m_card, QString::number(k)});
      QCOMPARE(text.code, 0);
      QVERIFY(text.out.trimmed().startsWith(QByteArray::number(k) + ". "));
      QVERIFY(text.out.contains(steps[k - 1].toObject()["text"].toString().toUtf8()));
    }
    for (const QString& number : {QStringLiteral("0"), QString::number(steps.size() + 1)}) {
      const Ran none = run({"step", m_card, number});
      QCOMPARE(none.code, 2);
      QVERIFY(none.err.contains(QByteArray::number(steps.size()) + " steps"));
      QVERIFY(none.err.contains("card.hinge"));
    }
    QCOMPARE(run({"step", m_card, "seven"}).code, 2);
  }

  void stepsHavePictures() {
    const QJsonArray steps = run({"plan", m_card, "--json"}).json()["steps"].toArray();
    int join = 0;
    while (steps[join].toObject()["kind"].toString() != QStringLiteral("join"))
      ++join;
    const QString number = QString::number(join + 1);
    const auto picture = [&](const char* name, const QStringList& more) {
      const Ran made = run(QStringList{"step", m_card, number, "--picture", in(name)} + more);
      return made.code == 0 ? bytesOf(in(name)) : QByteArray();
    };
    const QByteArray png = picture("a.png", {});
    QVERIFY(sizeOfPng(png).width > 800 && sizeOfPng(png).height > 500);
    const QByteArray early = picture("b.png", {"--progress", "0"}),
                     late = picture("c.png", {"--progress", "1"});
    QVERIFY(sizeOfPng(early).width > 0 && sizeOfPng(late).width > 0 && early != late);
    const QByteArray svg = picture("a.svg", {}), lateSvg = picture("b.svg", {"--progress", "1"});
    QCOMPARE(textIn(svg, "title"), steps[join].toObject()["text"].toString());
    QVERIFY(svg.count("<path") > 5 && !lateSvg.isEmpty() && svg != lateSvg);
  }

  void wrongPicturesAreRefused_data() {
    QTest::addColumn<QString>("picture");
    QTest::addColumn<QString>("progress");
    QTest::addColumn<QByteArray>("says");
    QTest::newRow("gif") << in("x.gif") << QString() << QByteArray("x.gif");
    QTest::newRow("nowhere") << QStringLiteral("/nowhere/x.png") << QString()
                             << QByteArray("/nowhere/x.png");
    QTest::newRow("nowhere as lines")
        << QStringLiteral("/nowhere/x.svg") << QString() << QByteArray("/nowhere/x.svg");
    QTest::newRow("beyond") << in("x.png") << QStringLiteral("1.5") << QByteArray("--progress");
    QTest::newRow("beyond as lines")
        << in("x.svg") << QStringLiteral("-1") << QByteArray("--progress");
    QTest::newRow("no number") << in("x.svg") << QStringLiteral("half") << QByteArray("half");
  }
  void wrongPicturesAreRefused() {
    QFETCH(QString, picture);
    QFETCH(QString, progress);
    QFETCH(QByteArray, says);
    QStringList words{"step", m_card, "3", "--picture", picture};
    if (!progress.isEmpty()) words << "--progress=" + progress;
    const Ran made = run(words);
    QCOMPARE(made.code, 2);
    QVERIFY2(made.err.contains(says), made.err.constData());
    QVERIFY(!QFile::exists(picture));
  }

  void bookletsHaveTheirPages() {
    const auto booklet = [&](const QStringList& more) {
      const QString path = in("book.pdf");
      QFile::remove(path);
      const Ran made = run(QStringList{"booklet", m_card, "-o", path} + more);
      return made.code == 0 ? pagesOf(bytesOf(path)) : std::vector<std::pair<int, int>>();
    };
    const auto whole = booklet({}), bare = booklet({"--bare"}),
               stapled = booklet({"--bare", "--stapled"}),
               letter = booklet({"--bare", "--page", "half-letter"});
    QVERIFY(bare.size() > 8 && whole.size() > bare.size());
    for (const auto& [width, height] : bare)
      QVERIFY(width == 420 && height == 595); // A5
    for (const auto& [width, height] : letter)
      QVERIFY(width == 396 && height == 612); // 5.5 by 8.5 in
    // Two pages on each side of a sheet, four pages a sheet.
    QCOMPARE(stapled.size(), 2 * ((bare.size() + 3) / 4));
    for (const auto& [width, height] : stapled)
      QVERIFY(qAbs(width - 840) <= 2 && height == 595);
    // The cutting sheets come after it, at 1:1 on the maker's paper.
    for (std::size_t k = bare.size(); k < whole.size(); ++k)
      QVERIFY(whole[k].first == 595 && whole[k].second == 842);
  }

  void bookletsAreReadInABrowser() {
    const QString path = in("book.html");
    QCOMPARE(run({"booklet", m_card, "-o", path}).code, 0);
    const QByteArray html = bytesOf(path);
    const QJsonArray steps = run({"plan", m_card, "--json"}).json()["steps"].toArray();
    QCOMPARE(html.count("type=\"checkbox\""), steps.size());
    for (const QJsonValue& step : steps)
      QVERIFY(html.contains(step["text"].toString().toHtmlEscaped().toUtf8()));
    QVERIFY(html.count("data:image/svg+xml;base64,") > steps.size() / 2);
    // All of it is in the one file.
    QVERIFY(!html.contains("http://") && !html.contains("https://") && !html.contains("file:"));
    const qsizetype at = html.indexOf("base64,") + 7;
    const QByteArray svg = QByteArray::fromBase64(html.mid(at, html.indexOf('"', at) - at));
    QVERIFY(!textIn(svg, "title").isEmpty());
  }

  void wrongBookletsAreRefused() {
    QCOMPARE(run({"booklet", m_card}).code, 2);
    const Ran text = run({"booklet", m_card, "-o", in("b.txt")});
    QCOMPARE(text.code, 2);
    QVERIFY(text.err.contains("b.txt") && !QFile::exists(in("b.txt")));
    const Ran page = run({"booklet", m_card, "-o", in("b.pdf"), "--page", "a4"});
    QCOMPARE(page.code, 2);
    QVERIFY(page.err.contains("a4") && !QFile::exists(in("b.pdf")));
    for (const char* name : {"/nowhere/b.pdf", "/nowhere/b.html"}) {
      const Ran nowhere = run({"booklet", m_card, "-o", name});
      QCOMPARE(nowhere.code, 2);
      QVERIFY2(nowhere.err.contains(name), nowhere.err.constData());
    }
    QCOMPARE(run({"booklet", in("none.hinge"), "-o", in("b.pdf")}).code, 2);
  }
};

QTEST_GUILESS_MAIN(TestMakeCommands)
#include "test_make_commands.moc"
