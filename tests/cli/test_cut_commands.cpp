// SPDX-License-Identifier: GPL-3.0-or-later
#include "command_runner.h"
#include <QDir>
#include <QJsonArray>
#include <QProcessEnvironment>
#include <QRegularExpression>
#include <QTemporaryDir>
#include <QTest>
#include <QXmlStreamReader>
#include <cmath>
#include <map>
#include <memory>

// The command line at the cutting table: rounding, the bench, tables, layouts, drawings of sheets.

namespace {

/// Outlines of a drawing by layer: how many, and their length in all.
struct Layers {
  std::map<QString, int> count;
  std::map<QString, double> length;
  std::vector<QString> order; ///< layers as their strokes come
  void add(const QString& layer, const std::vector<QPointF>& points, bool closed) {
    ++count[layer];
    if (order.empty() || order.back() != layer) order.push_back(layer);
    for (std::size_t k = 0; k + (closed ? 0 : 1) < points.size(); ++k) {
      const QPointF d = points[(k + 1) % points.size()] - points[k];
      length[layer] += std::hypot(d.x(), d.y());
    }
  }
};

/// The groups and paths of an SVG, read as XML.
Layers svgLayers(const QByteArray& text, QString& size) {
  Layers all;
  QXmlStreamReader xml(text);
  QString group;
  while (!xml.atEnd()) {
    if (xml.readNext() != QXmlStreamReader::StartElement) continue;
    const auto value = [&](const char* name) {
      return xml.attributes().value(QLatin1String(name)).toString();
    };
    if (xml.name() == QStringLiteral("svg"))
      size =
          value("width") + QLatin1Char(' ') + value("height") + QLatin1Char(' ') + value("viewBox");
    if (xml.name() == QStringLiteral("g")) group = value("id");
    if (xml.name() != QStringLiteral("path")) continue;
    const QString d = value("d");
    std::vector<QPointF> points;
    static const QRegularExpression number(QStringLiteral("(-?[0-9.]+),(-?[0-9.]+)"));
    auto match = number.globalMatch(d);
    while (match.hasNext()) {
      const auto one = match.next();
      points.push_back({one.captured(1).toDouble(), one.captured(2).toDouble()});
    }
    all.add(group, points, d.endsWith(QLatin1Char('Z')));
  }
  return all;
}

/// The polylines of a DXF, read by its group codes.
Layers dxfLayers(const QByteArray& text, int& units) {
  Layers all;
  const QList<QByteArray> lines = text.split('\n');
  QString layer;
  bool closed = false, vertex = false;
  std::vector<QPointF> points;
  for (qsizetype k = 0; k + 1 < lines.size(); k += 2) {
    const int code = lines[k].trimmed().toInt();
    const QByteArray value = lines[k + 1].trimmed();
    if (code == 9 && value == "$INSUNITS" && k + 3 < lines.size()) units = lines[k + 3].toInt();
    if (code == 0) {
      vertex = value == "VERTEX";
      if (value == "POLYLINE") points.clear(), closed = false, layer.clear();
      if (value == "SEQEND") all.add(layer, points, closed);
      if (vertex) points.push_back({});
    }
    if (code == 8 && !vertex) layer = QString::fromLatin1(value);
    if (code == 70 && !vertex) closed = value.toInt() & 1;
    if (code == 10 && vertex) points.back().setX(value.toDouble());
    if (code == 20 && vertex) points.back().setY(value.toDouble());
  }
  return all;
}

QList<QJsonObject> objectsIn(const QJsonArray& values) {
  QList<QJsonObject> all;
  for (const QJsonValue& value : values)
    all << value.toObject();
  return all;
}

double apart(const QJsonValue& one, const QJsonValue& other) {
  const QJsonArray a = one.toArray(), b = other.toArray();
  return std::hypot(a.at(0).toDouble() - b.at(0).toDouble(),
                    a.at(1).toDouble() - b.at(1).toDouble());
}

/// The simulated cutting machine as a process of its own.
class Machine {
public:
  explicit Machine(const QStringList& arguments) {
    m_process.start(QStringLiteral(HINGE_CUTTER), arguments);
    while (!m_process.canReadLine() && m_process.waitForReadyRead(20000)) {
    }
    const QString line = QString::fromLocal8Bit(m_process.readLine()).trimmed();
    if (line.startsWith(QStringLiteral("listening "))) m_place = line.mid(10);
  }
  ~Machine() { kill(); }
  QString place() const { return m_place; }
  /// What a hand does at it; returns when it is done.
  bool tell(const QByteArray& what) {
    m_process.write(what + "\n");
    while (!m_process.canReadLine() && m_process.waitForReadyRead(20000)) {
    }
    return m_process.readLine().trimmed() == "done " + what;
  }
  void kill() {
    m_process.kill();
    m_process.waitForFinished();
  }

private:
  QProcess m_process;
  QString m_place;
};

/// How much the knife has cut, from the machine's own record.
double cutLength(const QString& memory) {
  std::map<int, std::vector<QPointF>> tracks;
  std::map<int, int> tools;
  for (const QByteArray& line : bytesOf(memory).split('\n')) {
    if (!line.endsWith(" .")) continue;
    const QList<QByteArray> words = line.split(' ');
    for (qsizetype k = 0; k + 4 < words.size() && words[k] == "T";) {
      const int track = words[k + 1].toInt(), from = words[k + 3].toInt(),
                count = words[k + 4].toInt();
      tools[track] = words[k + 2].toInt();
      tracks[track].resize(static_cast<std::size_t>(from + count));
      for (int p = 0; p < count; ++p)
        tracks[track][static_cast<std::size_t>(from + p)] = {words[k + 5 + 2 * p].toDouble(),
                                                             words[k + 6 + 2 * p].toDouble()};
      k += 5 + 2 * count;
    }
  }
  Layers cut;
  for (const auto& [track, points] : tracks)
    if (tools[track] == 2) cut.add(QStringLiteral("cut"), points, false);
  return cut.length[QStringLiteral("cut")];
}

} // namespace

class TestCutCommands : public QObject {
  Q_OBJECT
  QTemporaryDir m_folder;
  QString at(const QString& name) const { return m_folder.filePath(name); }
  static QString demo(const char* name) {
    return QStringLiteral(HINGE_SOURCE_DIR "/demo/") + QLatin1String(name) +
           QStringLiteral(".hinge");
  }
private slots:
  void initTestCase() {
    // The maker's own bench is not the tests' to change.
    qputenv("XDG_DATA_HOME", at("data").toUtf8());
  }

  void roundingListsAndApplies() {
    const QString copy = at("card.hinge");
    QVERIFY(QFile::copy(demo("canal-houses"), copy));
    const QByteArray before = bytesOf(copy);
    const Ran listed = run({"round", copy, "--to", "1/16in", "--json"});
    QCOMPARE(listed.code, 0);
    QCOMPARE(bytesOf(copy), before);
    const QJsonArray changes = listed.json()["changes"].toArray();
    QVERIFY(changes.size() > 20);
    double greatest = 0;
    for (const QJsonObject& change : objectsIn(changes)) {
      const double to = change["to_mm"].toDouble(), from = change["from_mm"].toDouble();
      QVERIFY(std::abs(std::remainder(to, 25.4 / 16)) < 1e-9);
      greatest = std::max(greatest, std::abs(to - from));
    }
    QVERIFY(std::abs(greatest - listed.json()["greatest_mm"].toDouble()) < 1e-9);
    QCOMPARE(run({"round", copy, "--to", "1/16in", "--hold", "s1", "card.width", "--apply"}).code,
             0);
    const QByteArray after = bytesOf(copy);
    QVERIFY(after != before);
    QVERIFY(run({"check", copy}).code == 0);
    const Ran again = run({"round", copy, "--to", "1/16in", "--hold", "s1", "card.width"});
    QVERIFY(again.out.startsWith("0 of "));
  }

  void aMachineIsSentASheetAndGoesOn_data() {
    QTest::addColumn<QStringList>("wrong");
    QTest::addColumn<QByteArray>("cause");
    QTest::newRow("nothing") << QStringList() << QByteArray();
    QTest::newRow("jam") << QStringList{"--jam-after", "900"} << QByteArray("jammed");
    QTest::newRow("paper") << QStringList{"--paper-for", "700"} << QByteArray("out of paper");
    QTest::newRow("line") << QStringList{"--lose-line-after", "800"} << QByteArray("line");
  }
  void aMachineIsSentASheetAndGoesOn() {
    QFETCH(QStringList, wrong);
    QFETCH(QByteArray, cause);
    const QString memory = at(QString::fromLatin1(QTest::currentDataTag()) + ".memory");
    Machine machine(QStringList{"--socket", at("cutter"), "--faster", "200", "--memory", memory} +
                    wrong);
    QCOMPARE(machine.place(), at("cutter"));
    const QStringList sheet{"cut", demo("ferry-pass"), "--sheet", "2", "--to", machine.place()};
    const Ran first = run(sheet);
    QCOMPARE(first.code, cause.isEmpty() ? 0 : 2);
    QVERIFY2(first.err.contains(cause), first.err.constData());
    if (!cause.isEmpty()) {
      const Ran refused = run(sheet);
      QCOMPARE(refused.code, 2);
      QVERIFY(refused.err.contains("--resume"));
      QVERIFY(machine.tell("clear"));
      QCOMPARE(run(sheet + QStringList{"--resume"}).code, 0);
    }
    QCOMPARE(run(sheet + QStringList{"--resume"}).code, 2); // nothing is under way any more
    QVERIFY(machine.tell("picture " + at("sheet.png").toUtf8()));
    QVERIFY(bytesOf(at("sheet.png")).startsWith("\x89PNG"));
    const double length = cutLength(memory);
    static double whole = 0;
    if (whole == 0) whole = length;
    QVERIFY(whole > 500);
    QVERIFY2(std::abs(length - whole) < 0.3, qPrintable(QString::number(length - whole)));
  }

  void aMachineThatIsKilledGoesOn() {
    const QString memory = at("killed.memory");
    const QStringList how{"--socket", at("cutter"), "--faster", "3", "--memory", memory};
    const QStringList sheet{"cut", demo("ferry-pass"), "--sheet", "2", "--to", at("cutter")};
    auto machine = std::make_unique<Machine>(how);
    QProcess sends;
    sends.start(QStringLiteral(HINGE_CLI), sheet);
    while (!sends.readAllStandardOutput().contains("20 %") && sends.waitForReadyRead(20000)) {
    }
    machine->kill();
    QVERIFY(sends.waitForFinished(30000));
    QCOMPARE(sends.exitCode(), 2);
    machine = std::make_unique<Machine>(how);
    // And the program that sends is killed too.
    sends.start(QStringLiteral(HINGE_CLI), sheet + QStringList{"--resume"});
    while (!sends.readAllStandardOutput().contains("60 %") && sends.waitForReadyRead(20000)) {
    }
    sends.kill();
    QVERIFY(sends.waitForFinished(30000));
    QCOMPARE(run(sheet + QStringList{"--resume"}).code, 0);
    const QString other = at("whole.memory");
    machine.reset();
    machine = std::make_unique<Machine>(
        QStringList{"--socket", at("cutter"), "--faster", "200", "--memory", other});
    QCOMPARE(run(sheet).code, 0);
    const double more = cutLength(memory) - cutLength(other);
    QVERIFY2(std::abs(more) < 0.3, qPrintable(QString::number(more)));
  }

  void aTerminalIsALineToo() {
    Machine machine({"--faster", "300", "--scale-x", "1.01", "--off", "0.5x1"});
    QVERIFY(machine.place().startsWith("/dev/"));
    const QStringList squares{"cut", demo("ferry-pass"), "--squares"};
    const Ran told = run(squares + QStringList{"--to", machine.place()});
    QVERIFY2(told.code == 0, told.err.constData());
    QVERIFY(told.out.contains("150 mm"));
    const Ran kept = run(squares + QStringList{"--measured", "20.7", "21", "151.5", "230"});
    QCOMPARE(kept.code, 0);
    const QJsonObject bench = run({"bench", "--json"}).json();
    QVERIFY(std::abs(bench["scale-x"].toDouble() - 1.01) < 1e-9);
    QVERIFY(std::abs(bench["offset-x_mm"].toDouble() - 0.5) < 1e-9);
    QCOMPARE(
        run({"bench", "--set", "scale-x=1", "offset-x=0", "offset-y=0", "speed:canal-blue=9"}).code,
        0);
    QCOMPARE(run({"cut", demo("ferry-pass"), "--json"}).json()["speed_cms"].toInt(), 9);
    QCOMPARE(run({"bench", "--set", "speed:canal-blue=0"}).code, 0);
    QCOMPARE(run({"bench", "--set", "speed:canal-blue=x"}).code, 2);
  }

  void whatIsTooLongIsParted() {
    const QString card = at("long.hinge");
    QCOMPARE(run({"new", card, "--width", "240", "--height", "160"}).code, 0);
    QCOMPARE(run({"layout", card}).code, 1);
    const Ran told = run({"splice", card});
    QVERIFY(told.out.contains("longer than every sheet") && told.out.contains("parted on"));
    const QJsonObject json = run({"splice", card, "--json"}).json();
    const QJsonObject proposed = json["proposed"].toArray().first().toObject();
    QVERIFY(!proposed["splices"].toArray().isEmpty());
    QVERIFY(proposed["spared_mm"].toArray().at(1).toDouble() > 480);
    QCOMPARE(run({"splice", card, "--apply"}).code, 0);
    QCOMPARE(run({"layout", card}).code, 0);
    QVERIFY(run({"layout", card}).out.contains("part 2"));
    QVERIFY(run({"order", card}).out.contains("under a weight"));
    const qsizetype many = run({"splice", card, "--json"}).json()["splices"].toArray().size();
    QCOMPARE(run({"splice", card, "--remove", "1"}).code, 0);
    QCOMPARE(run({"splice", card, "--json"}).json()["splices"].toArray().size(), many - 1);
    QCOMPARE(run({"splice", card, "--on", "card/page-b", "--from", "2cm", "--overlap", "1cm"}).code,
             0);
    const Ran outside = run({"splice", card, "--on", "card/page-b", "--from", "235"});
    QCOMPARE(outside.code, 2);
    QVERIFY(outside.err.contains("226 mm"));
  }

  void pdfsAreAsTheyAreWished() {
    const auto written = [&](const QStringList& how) {
      const QString file = at("sheets.pdf");
      if (run(QStringList{"export", demo("ferry-pass"), "--to", "pdf", "-o", file} + how).code != 0)
        return QByteArray();
      return bytesOf(file);
    };
    const auto pages = [](const QByteArray& pdf) {
      return pdf.count("/Type /Page") - pdf.count("/Type /Pages");
    };
    const QByteArray plain = written({}), sheets = written({"--only", "sheets"}),
                     tables = written({"--only", "tables"});
    QVERIFY(pages(plain) > 3);
    QCOMPARE(pages(plain), pages(sheets) + pages(tables));
    // With backs there are two pages for each sheet; prints bring their patterns as images.
    QCOMPARE(pages(written({"--only", "sheets", "--backs"})), 2 * pages(sheets));
    QVERIFY(!plain.contains("/Subtype /Image"));
    QVERIFY(written({"--prints"}).contains("/Subtype /Image"));
    QVERIFY(written({"--prints", "--lines", "under"}).size() > plain.size());
  }

  void whatIsNoMachineIsSaid() {
    const QStringList sheet{"cut", demo("ferry-pass"), "--to"};
    QVERIFY(run(sheet + QStringList{at("nothing")}).err.contains("switched on"));
    QVERIFY(run(sheet + QStringList{demo("ferry-pass")}).err.contains("another kind"));
    QVERIFY(run(sheet + QStringList{"/dev/null"}).err.contains("another kind"));
    QCOMPARE(run({"cut", demo("ferry-pass"), "--sheet", "99"}).code, 2);
    // Where no mark can be kept, nothing is sent.
    Machine machine({"--faster", "200"});
    QProcess process;
    auto environment = QProcessEnvironment::systemEnvironment();
    environment.insert("XDG_DATA_HOME", demo("ferry-pass"));
    process.setProcessEnvironment(environment);
    const Ran full = runProcess(process, HINGE_CLI, sheet + QStringList{machine.place()});
    QCOMPARE(full.code, 2);
    QVERIFY2(full.err.contains("cut-under-way"), full.err);
    const QString file = at("sheet.hpgl");
    QCOMPARE(run({"export", demo("ferry-pass"), "--to", "hpgl", "--sheet", "2", "-o", file}).code,
             0);
    QVERIFY(bytesOf(file).startsWith("IN;SP"));
  }

  void theBenchIsKept() {
    QCOMPARE(run({"bench", "--json"}).json()["board_mm"].toDouble(), 300.0);
    QCOMPARE(run({"bench", "--set", "board=12in", "sides=both"}).code, 0);
    const QJsonObject kept = run({"bench", "--json"}).json();
    QCOMPARE(kept["board_mm"].toDouble(), 304.8);
    QCOMPARE(kept["sides"].toString(), QStringLiteral("both"));
    QVERIFY(run({"bench"}).out.contains("mountains on the back"));
    QVERIFY(run({"bench", "--unit", "in"}).out.contains("board = 12 in"));
    // Who has described a bench with a trimmer is laid out for it; a word asks for the machine.
    const auto laidOutFor = [](const QStringList& more) {
      return run(QStringList{"layout", demo("canal-houses"), "--json"} + more)
          .json()["for"]
          .toString();
    };
    QCOMPARE(laidOutFor({}), QStringLiteral("trimmer"));
    QCOMPARE(laidOutFor({"--for", "machine"}), QStringLiteral("machine"));
    QCOMPARE(run({"bench", "--set", "trimmer=0"}).code, 0);
    QCOMPARE(laidOutFor({}), QStringLiteral("machine"));
    QCOMPARE(run({"bench", "--set", "trimmer=310"}).code, 0);
    // Who cuts first scores afterwards, in the plan as well.
    const auto first = [] {
      for (const QJsonValue& step :
           run({"plan", demo("canal-houses"), "--json"}).json()["steps"].toArray())
        if (const QString kind = step.toObject()["kind"].toString();
            kind == QLatin1String("cut") || kind == QLatin1String("score"))
          return kind;
      return QString();
    };
    QCOMPARE(first(), QStringLiteral("score"));
    QCOMPARE(run({"bench", "--set", "order=cut-first"}).code, 0);
    QCOMPARE(first(), QStringLiteral("cut"));
    QCOMPARE(run({"bench", "--set", "order=score-first"}).code, 0);
    for (const auto& [set, says] :
         {std::pair{"boards=3", "the bench has no"}, std::pair{"sides=all", "choices"},
          std::pair{"grid=99", "outside"}, std::pair{"trimmer=long", "trimmer"}}) {
      const Ran wrong = run({"bench", "--set", set});
      QCOMPARE(wrong.code, 2);
      QVERIFY2(wrong.err.contains(says), wrong.err);
    }
    QCOMPARE(run({"bench", "--json"}).json(), kept);
    // A damaged file is told and left as it is.
    const QString path = at("data/hinge-lantern/bench.json");
    QFile file(path);
    QVERIFY(file.open(QIODevice::WriteOnly));
    file.write("{ \"format\": \"hinge-lantern-bench\", \"board\": \"wide\" }");
    file.close();
    const Ran damaged = run({"scores-table", demo("canal-houses")});
    QCOMPARE(damaged.code, 2);
    QVERIFY(damaged.err.contains("bench.json: board"));
    QVERIFY(bytesOf(path).contains("wide"));
    QVERIFY(QFile::remove(path));
  }

  void scoreTables() {
    const QJsonArray tables =
        QJsonDocument::fromJson(run({"scores-table", demo("canal-houses"), "--json"}).out).array();
    QVERIFY(tables.size() >= 5);
    for (const QJsonObject& table : objectsIn(tables)) {
      double before = 0;
      for (const QJsonObject& score : objectsIn(table["scores"].toArray())) {
        if (score["way"] != QStringLiteral("upright")) continue;
        QVERIFY(std::abs(score["first_mm"].toDouble() + score["other_mm"].toDouble() -
                         table["width_mm"].toDouble()) < 1e-9);
        QVERIFY(std::abs(score["first_mm"].toDouble() - before - score["step_mm"].toDouble()) <
                1e-9);
        before = score["first_mm"].toDouble();
      }
    }
    const Ran text = run({"scores-table", demo("canal-houses"), "--piece", "B"});
    QVERIFY(text.out.contains("Warehouse") && !text.out.contains("Lock keeper"));
    const Ran csv = run({"scores-table", demo("canal-houses"), "--csv"});
    for (const QByteArray& line : csv.out.split('\n'))
      if (!line.isEmpty()) QVERIFY(line.endsWith('\r'));
    const Ran fitted = run({"scores-table", demo("canal-houses"), "--fit", "300mm"});
    QCOMPARE(fitted.code, 0);
    QVERIFY(fitted.out.contains("140 -> 150") && fitted.out.contains("locked"));
    QCOMPARE(run({"scores-table", demo("canal-houses"), "--piece", "Q"}).code, 2);
    QCOMPARE(run({"scores-table", at("missing.hinge")}).code, 2);
  }

  void layouts() {
    for (const char* tool : {"trimmer", "machine"}) {
      const Ran ran =
          run({"layout", demo("canal-houses"), "--for", tool, "--json", "--cards", "2"});
      QCOMPARE(ran.code, 0);
      const QJsonObject plan = ran.json();
      QCOMPARE(plan["for"].toString(), QLatin1String(tool));
      qsizetype placed = 0;
      for (const QJsonObject& sheet : objectsIn(plan["sheets"].toArray()))
        placed += sheet["places"].toArray().size();
      QCOMPARE(placed, plan["parts"].toArray().size());
      QCOMPARE(plan["cuts"].toArray().isEmpty(), QLatin1String(tool) == QLatin1String("machine"));
    }
    QVERIFY(run({"layout", demo("canal-houses"), "--for", "trimmer"}).out.contains("set "));
    // A card larger than its sheet.
    const QString large = at("large.hinge");
    QCOMPARE(run({"new", large, "--width", "300", "--height", "400"}).code, 0);
    const Ran told = run({"layout", large});
    QCOMPARE(told.code, 1);
    QVERIFY(told.out.contains("larger than every sheet"));
    QCOMPARE(run({"layout", large, "--gap", "-1"}).code, 2);
    QCOMPARE(run({"layout", large, "--margin", "wide"}).code, 2);
    QCOMPARE(run({"layout", demo("canal-houses"), "--gap", "0", "--margin", "0"}).code, 0);
  }

  void sheetsFromStock() {
    const QString copy = at("stock.hinge");
    QCOMPARE(run({"new", copy, "--width", "100", "--height", "140"}).code, 0);
    const Ran uncounted = run({"layout", copy, "--from-stock"});
    QVERIFY(uncounted.out.contains("no sheets of these papers are counted"));
  }

  /// One sheet as SVG and DXF: the same lengths on the same layers, closed outlines, millimetres.
  void drawingsOfOneSheet() {
    const QJsonObject plan =
        run({"layout", demo("tea-chests"), "--for", "machine", "--json"}).json();
    const auto sheets = plan["sheets"].toArray();
    for (int sheet = 1; sheet <= sheets.size(); ++sheet) {
      const QString svg = at("s.svg"), dxf = at("s.dxf"), number = QString::number(sheet);
      QCOMPARE(run({"export", demo("tea-chests"), "--to", "svg", "--sheet", number, "--for",
                    "machine", "-o", svg})
                   .code,
               0);
      QCOMPARE(run({"export", demo("tea-chests"), "--to", "dxf", "--sheet", number, "--for",
                    "machine", "-o", dxf})
                   .code,
               0);
      QString size;
      int units = 0;
      Layers one = svgLayers(bytesOf(svg), size), other = dxfLayers(bytesOf(dxf), units);
      QCOMPARE(units, 4);
      QCOMPARE(size, QStringLiteral("210mm 297mm 0 0 210 297"));
      QCOMPARE(other.count["sheet"], 1);
      double outlines = 0;
      for (const QJsonObject& place :
           objectsIn(sheets.at(sheet - 1).toObject()["places"].toArray())) {
        const QJsonArray ring = place["outline"].toArray();
        for (qsizetype k = 0; k < ring.size(); ++k)
          outlines += apart(ring.at(k), ring.at((k + 1) % ring.size()));
      }
      QVERIFY(std::abs(one.length["cut-outline"] - outlines) < 0.05);
      for (const char* layer : {"score-mountain", "score-valley", "cut-inside", "cut-outline"}) {
        QCOMPARE(one.count[layer], other.count[layer]);
        QVERIFY(std::abs(one.length[layer] - other.length[layer]) < 0.05);
      }
      // Scores first, and no score after a cut.
      const auto isCut = [](const QString& layer) {
        return layer.startsWith(QStringLiteral("cut"));
      };
      const auto firstCut = std::ranges::find_if(other.order, isCut);
      QVERIFY(std::find_if(firstCut, other.order.end(), [](const QString& layer) {
                return layer.startsWith(QStringLiteral("score"));
              }) == other.order.end());
    }
    QCOMPARE(run({"export", demo("tea-chests"), "--to", "svg", "--sheet", "999", "-o", at("x.svg")})
                 .code,
             2);
    QCOMPARE(
        run({"export", demo("tea-chests"), "--to", "obj", "--sheet", "1", "-o", at("x.obj")}).code,
        2);
    QCOMPARE(run({"export", demo("tea-chests"), "--to", "csv", "-o", at("t.csv")}).code, 0);
    QVERIFY(bytesOf(at("t.csv")).contains("mountain"));
    QCOMPARE(run({"export", demo("tea-chests"), "--to", "txt", "-o", at("no/t.txt")}).code, 2);
  }

  void theOrderSaysWhenLayersAreStuckOn() {
    const QJsonObject order = run({"order", demo("canal-houses"), "--json"}).json();
    const QJsonArray dressing = order["dressing"].toArray();
    QVERIFY(!dressing.isEmpty());
    const auto steps = order["steps"].toArray().size();
    for (const QJsonObject& moment : objectsIn(dressing)) {
      QVERIFY(!moment["faces"].toArray().isEmpty());
      QVERIFY(moment["after"].toInt() >= 0 && moment["after"].toInt() <= steps);
      if (!moment["before"].isNull())
        QVERIFY(moment["before"].toInt() > moment["after"].toInt() &&
                moment["before"].toInt() <= steps);
    }
    QVERIFY(run({"order", demo("canal-houses")}).out.contains("while it lies flat"));
  }
};

QTEST_GUILESS_MAIN(TestCutCommands)
#include "test_cut_commands.moc"
