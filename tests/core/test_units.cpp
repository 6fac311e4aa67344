// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/units/length.h"
#endif

using namespace hinge;

class TestUnits : public QObject {
  Q_OBJECT
private slots:
  void readsLengthsAsPeopleWriteThem_data() {
    QTest::addColumn<QString>("text");
    QTest::addColumn<int>("unit");
    QTest::addColumn<double>("expected_mm");
    const auto row = [](const char* text, LengthUnit unit, double mm) {
      QTest::newRow(text) << QString::fromUtf8(text) << static_cast<int>(unit) << mm;
    };
    row("95", LengthUnit::Millimetre, 95);
    row("95mm", LengthUnit::Inch, 95);
    row("9.5 cm", LengthUnit::Millimetre, 95);
    row("9,5 cm", LengthUnit::Millimetre, 95);
    row("3 3/4", LengthUnit::Inch, 95.25);
    row("3-3/4 in", LengthUnit::Millimetre, 95.25);
    row("3.75in", LengthUnit::Millimetre, 95.25);
    row("3 3/4\"", LengthUnit::Millimetre, 95.25);
    row("1/2 inch", LengthUnit::Millimetre, 12.7);
    row("  7/8 ", LengthUnit::Inch, 22.225);
    row("-2 mm", LengthUnit::Inch, -2);
  }
  void readsLengthsAsPeopleWriteThem() {
    QFETCH(QString, text);
    QFETCH(int, unit);
    QFETCH(double, expected_mm);
    const auto length = parseLength_mm(text.toStdString(), static_cast<LengthUnit>(unit));
    QVERIFY2(length.ok(), "must be readable");
    QVERIFY_NEAR(*length, expected_mm, 1e-9);
  }

  void refusesWhatIsNoLength_data() {
    QTest::addColumn<QString>("text");
    for (const char* text :
         {"", "mm", "abc", "3/0", "1 2", "5 miles", "1e400", "nan", "inf", "3 3/", "--2", "1/2/3"})
      QTest::newRow(text) << QString::fromUtf8(text);
  }
  void refusesWhatIsNoLength() {
    QFETCH(QString, text);
    const auto length = parseLength_mm(text.toStdString(), LengthUnit::Inch);
    QVERIFY(!length.ok());
    QVERIFY(say(length.error()).find("length") != std::string::npos);
  }

  void writesTheShortestExactForm_data() {
    QTest::addColumn<double>("mm");
    QTest::addColumn<int>("unit");
    QTest::addColumn<QString>("expected");
    QTest::newRow("whole mm") << 38.0 << 0 << "38 mm";
    QTest::newRow("half mm") << 38.5 << 0 << "38.5 mm";
    QTest::newRow("cm") << 95.0 << 1 << "9.5 cm";
    QTest::newRow("fraction") << 95.25 << 2 << "3 3/4 in";
    QTest::newRow("small fraction") << 25.4 / 16 << 2 << "1/16 in";
    QTest::newRow("no fraction") << 10.0 << 2 << "0.3937 in";
    QTest::newRow("negative") << -95.25 << 2 << "-3 3/4 in";
    QTest::newRow("no minus zero") << -0.0001 << 0 << "0 mm";
  }
  void writesTheShortestExactForm() {
    QFETCH(double, mm);
    QFETCH(int, unit);
    QFETCH(QString, expected);
    QCOMPARE(QString::fromStdString(formatLength(mm, static_cast<LengthUnit>(unit))), expected);
  }

  void everySixtyFourthOfAnInchSurvivesWritingAndReading() {
    for (int k = -200; k <= 700; ++k) {
      const double mm = k * 25.4 / 64;
      const auto back = parseLength_mm(formatLength(mm, LengthUnit::Inch), LengthUnit::Millimetre);
      QVERIFY(back.ok());
      QVERIFY_NEAR(*back, mm, 1e-9);
    }
  }

  void readsAngles() {
    QVERIFY_NEAR(*parseAngle_deg("45"), 45, 1e-12);
    QVERIFY_NEAR(*parseAngle_deg("22.5 deg"), 22.5, 1e-12);
    QVERIFY_NEAR(*parseAngle_deg("67 1/2°"), 67.5, 1e-12);
    QVERIFY(!parseAngle_deg("45 mm").ok());
  }
};

QTEST_APPLESS_MAIN(TestUnits)
#include "test_units.moc"
