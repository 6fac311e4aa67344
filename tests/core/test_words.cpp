// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#include <QDirIterator>
#include <QFile>
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/bases/base.h"
#include "core/paper/envelope.h"
#include "core/paper/paper.h"
#include "core/structures/names.h"
#include "core/structures/registry.h"
#include "words/sentences.h"
#include <set>
#endif

using namespace hinge;
using namespace hinge::test;

class TestWords : public QObject {
  Q_OBJECT
  static std::vector<std::span<const Sentence>> topics() {
    return {Words::parameters(), Words::kinds(), Words::parts(),  Words::errors(),
            Words::findings(),   Words::rules(), Words::making(), Words::commandLine()};
  }
  /// All sources but those of the words themselves.
  static QString sources() {
    QString all;
    for (QDirIterator it(QStringLiteral(HINGE_SOURCE_DIR "/src"),
                         {QStringLiteral("*.h"), QStringLiteral("*.cpp")}, QDir::Files,
                         QDirIterator::Subdirectories);
         it.hasNext();) {
      const QString path = it.next();
      QFile file(path);
      if (file.open(QIODevice::ReadOnly)) {
        const QString text = QString::fromUtf8(file.readAll());
        // Of the tables only what uses the sentences counts, not what defines them.
        static const QRegularExpression tableEnd(QStringLiteral("return k\\w+Said;"));
        const bool tables = path.contains(QStringLiteral("/words/")) && text.contains(tableEnd);
        all += tables ? text.section(tableEnd, 1) : text;
      }
    }
    return all;
  }
  static void addUnknown(const Text& text, std::set<std::string>& unknown) {
    if (!Words::find(text.key)) unknown.insert(text.key);
    for (const Said& one : text.with())
      if (const Text* inner = std::get_if<Text>(&one.what)) addUnknown(*inner, unknown);
  }
  static QString listed(const std::set<std::string>& keys) {
    QStringList list;
    for (const std::string& key : keys)
      list << QString::fromStdString(key);
    return list.join(QStringLiteral(", "));
  }
  static void addRows(ParameterTable table, std::set<std::string>& unknown) {
    for (const ParameterSpec& spec : table) {
      addUnknown(nameOf(spec), unknown), addUnknown(meaningOf(spec), unknown);
      if (!spec.twin.empty()) addUnknown(nameOnBothSides(spec), unknown);
      for (int k = 0; k < spec.choices(); ++k)
        addUnknown(choiceOf(spec, k), unknown);
    }
  }
private slots:
  void keysAreThereOnce() {
    std::set<std::string_view> seen;
    for (const auto topic : topics())
      for (const Sentence& sentence : topic)
        QVERIFY2(seen.insert(sentence.key).second, sentence.key);
    QVERIFY(seen.size() > 600);
  }
  /// A place of an edit is told as its maker counts; in a file it is the path that is found there.
  void placesAreToldAsMakersCount() {
    QCOMPARE(say(Error{"work.window", "s1.windows[1]"}),
             "s1, opening 2: " + say(Text("work.window")));
    QCOMPARE(say(Error{"work.window", "card.sheets[0].lines[3]"}),
             "card, sheet 1, line 4: " + say(Text("work.window")));
    QCOMPARE(say(Error{"work.window", "s1.values"}), "s1.values: " + say(Text("work.window")));
    Error inFile{"work.window", "s1.windows[1]"};
    inFile.line = 7;
    QVERIFY(say(inFile).starts_with("s1.windows[1]: "));
  }
  /// Inches are told on a ruler's marks; what is thinner than a sixteenth in thousandths.
  void inchesAreToldOnAMark_data() {
    QTest::addColumn<double>("inches");
    QTest::addColumn<QString>("told");
    QTest::newRow("a fraction") << 3.75 << "3 3/4 in";
    QTest::newRow("a 64th") << 2 + 5 / 64.0 << "2 5/64 in";
    QTest::newRow("less than a mark") << 9.8043 << "9 13/16 in less a hair";
    QTest::newRow("beyond a mark") << 1.005 << "1 in and a hair";
    QTest::newRow("to the other side") << -1.005 << "-1 in and a hair";
    QTest::newRow("paper") << 0.0106 << "0.011 in";
    QTest::newRow("hardly anything") << 0.0034 << "0.003 in";
  }
  void inchesAreToldOnAMark() {
    QFETCH(double, inches);
    QFETCH(QString, told);
    const double mm = inches * kMillimetresPerInch;
    QCOMPARE(QString::fromStdString(sayLength(mm, LengthUnit::Inch)), told);
    QCOMPARE(sayLength(mm, LengthUnit::Millimetre), formatLength(mm, LengthUnit::Millimetre));
  }
  void everyKindAndRowHasWords() {
    std::set<std::string> unknown;
    for (const StructureKind* kind : structureKinds()) {
      addRows(kind->parameters, unknown);
      addUnknown(kind->name(), unknown);
      for (const char* more : {"/summary", "/unsuitable"})
        addUnknown(Text(kind->name().key + more), unknown);
    }
    for (const BaseKind* base : baseKinds()) {
      addRows(base->parameters, unknown);
      addUnknown(base->name(), unknown), addUnknown(Text(base->name().key + "/summary"), unknown);
    }
    for (const Paper& stock : knownPapers())
      addUnknown(Text("stock." + stock.key), unknown);
    for (const SheetSize& sheet : knownSheets())
      addUnknown(Text("sheet." + std::string(sheet.key)), unknown);
    for (const EnvelopeSize& envelope : knownEnvelopes())
      addUnknown(Text("envelope." + std::string(envelope.key)), unknown);
    QVERIFY2(unknown.empty(), qPrintable(listed(unknown)));
  }
  void everythingInTheDemosHasAName() {
    std::set<std::string> unknown;
    int seen = 0;
    for (const QFileInfo& file : QDir(QStringLiteral(HINGE_SOURCE_DIR "/demo"))
                                     .entryInfoList({QStringLiteral("*.hinge")})) {
      const auto design = loadDesign(file.filePath().toStdString());
      QVERIFY2(design.ok(), qPrintable(file.fileName()));
      const auto assembly = assemble(*design);
      for (const Panel& panel : assembly->panels)
        addUnknown(panel.label, unknown), ++seen;
      for (const Fold& fold : assembly->folds)
        addUnknown(fold.label, unknown);
      for (const Seat& seat : assembly->seats)
        addUnknown(seat.label, unknown);
      for (PieceIndex p : assembly->pieces.indices())
        addUnknown(pieceName(*design, *assembly, p), unknown);
      for (const StructureItem& item : design->structures)
        addRows(parametersOf(item), unknown);
    }
    QVERIFY(seen > 300);
    QVERIFY2(unknown.empty(), qPrintable(listed(unknown)));
  }
  void everyErrorInTheSourcesHasItsSentence() {
    static const QRegularExpression said(
        QStringLiteral("(?:Error\\{|fail\\((?=\\{?\"[a-z-]+\\.)|fail\\([^,;]{1,60}, "
                       "|refuse\\(|refused\\(|tell\\(|say\\(Text|"
                       "say\\(|said\\(|help\\(|Text\\()\\{{0,2}\\(?\"([a-z][\\w./-]*)\""));
    const QString text = sources();
    std::set<std::string> unknown;
    int seen = 0;
    for (auto it = said.globalMatch(text); it.hasNext(); ++seen) {
      const std::string key = it.next().captured(1).toStdString();
      // The beginning of a key that is put together ends with its mark.
      if (!key.ends_with('.') && !key.ends_with('/') && !Words::find(key)) unknown.insert(key);
    }
    QVERIFY(seen > 200);
    QVERIFY2(unknown.empty(), qPrintable(listed(unknown)));
  }
  void everySentenceIsSaidSomewhere() {
    static const QRegularExpression composed(QStringLiteral(
        "^(size|kind|base|stock|topper|sheet|envelope|joint|line|verdict|make|edge)\\.|"
        "^seen/|^adhesive\\.|^caution\\.[a-z]+/short$|"
        "^(svg|dxf|fold)\\.unused/|"
        "^help\\.label/|/(meaning|both|\\d+|of-card)$"));
    const QString text = sources();
    std::set<std::string> silent;
    for (const auto topic : topics())
      for (const Sentence& sentence : topic) {
        const QString key = QString::fromUtf8(sentence.key);
        const QString code = key.section(QLatin1Char('/'), 0, 0);
        const bool finding = Words::findings().data() <= &sentence &&
                             &sentence < Words::findings().data() + Words::findings().size();
        const auto quoted = [](const QString& s) {
          return QLatin1Char('"') + s + QLatin1Char('"');
        };
        if (!composed.match(key).hasMatch() && !text.contains(quoted(finding ? code : key)))
          silent.insert(sentence.key);
      }
    QVERIFY2(silent.empty(), qPrintable(listed(silent)));
  }
  void countsChooseTheForm() {
    QCOMPARE(say(Text("cli.laid-sheets", 1)), std::string("one sheet"));
    QCOMPARE(say(Text("cli.laid-sheets", 2)), std::string("2 sheets"));
    QCOMPARE(say(Text("cli.laid-sheets", 0)), std::string("0 sheets"));
  }
  void unitsAreTheUsers() {
    const Text text("proportion.too-short", Millimetres{95.25});
    QVERIFY(say(text).find("95.25 mm") != std::string::npos);
    QVERIFY(say(text, LengthUnit::Inch).find("3 3/4 in") != std::string::npos);
    QCOMPARE(say(Text("as-it-is", Degrees{22.5})), std::string("22.5°"));
    QCOMPARE(say(Text("as-it-is", Decimal{2.345, 1})), std::string("2.3"));
  }
  void whatAUserCallsThingsIsNotReadAsAPattern() {
    Design d = card();
    const StructureId id = add(d, "box", "gutter");
    for (StructureItem& item : d.structures)
      item.label = "100 %2 {who} %n";
    QCOMPARE(say(nameOf(d, id)), std::string("100 %2 {who} %n"));
    QCOMPARE(say(Text("of", Text("wall", "a"), nameOf(d, id))),
             std::string("wall a of 100 %2 {who} %n"));
    Finding f{"impossible", Severity::Spoils};
    f.owners = {id};
    QVERIFY(describe(f, d).starts_with("100 %2 {who} %n cannot be put together"));
  }
  void errorsBeginWithTheirPlaceAndEndWithTheirLine() {
    QCOMPARE(say(Error{"file.member/missing", "x.hinge: card.width_mm", 12}),
             std::string("x.hinge: card.width_mm: is missing (line 12)"));
    QCOMPARE(say(Error{"file.member/missing", ""}), std::string("is missing"));
    const Error error{"value.range/whole", "s1 tiers"};
    QCOMPARE(error.code(), std::string("value.range"));
  }
  void sentencesBeginWithACapital() {
    QCOMPARE(saySentence(Text("wall", "a")), std::string("Wall a"));
    QCOMPARE(saySentence(Text("as-it-is", "été")), std::string("Été"));
    QCOMPARE(say("no key of any table"), std::string("no key of any table"));
  }
};

QTEST_APPLESS_MAIN(TestWords)
#include "test_words.moc"
