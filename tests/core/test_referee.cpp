// SPDX-License-Identifier: GPL-3.0-or-later
#include "../referee.h"
#include "support.h"
#include <QDir>

using namespace hinge;
using namespace hinge::test;

/// The referee itself: it finds what is wrong with cards that are known to be wrong, for the reason
/// that is known, and nothing with those that are known to be good.
class TestReferee : public QObject {
  Q_OBJECT
private slots:
  void findsWhatIsWrong_data();
  void findsWhatIsWrong();
  void findsNothingInGoodCards_data();
  void findsNothingInGoodCards();
};

using Kind = Complaint::Kind;

void TestReferee::findsWhatIsWrong_data() {
  QTest::addColumn<int>("kind");
  const auto row = [](const char* card, Kind kind) { QTest::newRow(card) << int(kind); };
  row("torn-fold", Kind::Torn);
  row("pin-ties-pages", Kind::Torn);
  row("slide-ties-pages", Kind::Torn);
  row("slider-through-foot", Kind::Order);
  row("slider-over-star", Kind::Order);
  row("arm-through-glued-sheets", Kind::Order);
  row("leaf-rolled-in", Kind::Order);
  row("step-through-flap", Kind::Order);
  row("small-card-on-glued-side", Kind::Order);
  row("held-walls-cross", Kind::Crossing);
  row("film-through-box", Kind::Crossing);
  row("leaf-held-upright", Kind::Crossing);
  row("flap-in-half-a-degree", Kind::Crossing);
  row("board-to-the-fold", Kind::Thickness);
  row("pin-in-a-hole", Kind::Holding);
  row("speck-of-glue", Kind::Holding);
  row("glued-over-window", Kind::Holding);
  row("tower-marked-wrong", Kind::FoldWay);
  row("used-from-40-degrees", Kind::DeclaredUse);
  row("pulled-by-nothing", Kind::DeclaredUse);
}

void TestReferee::findsWhatIsWrong() {
  QFETCH(int, kind);
  const auto design =
      loadDesign(fmt::format(HINGE_TEST_DATA "/wrong/{}.hinge", QTest::currentDataTag()));
  QVERIFY(design);
  const auto found = complaintsOf(checked(*design));
  QVERIFY2(std::ranges::find(found, Kind(kind), &Complaint::kind) != found.end(),
           told(found).c_str());
}

void TestReferee::findsNothingInGoodCards_data() {
  QTest::addColumn<QString>("name");
  for (const QString& file : QDir(HINGE_SOURCE_DIR "/demo").entryList({"*.hinge"}))
    if (!file.contains("mistakes")) QTest::newRow(qPrintable(file)) << file.chopped(6);
}

void TestReferee::findsNothingInGoodCards() {
  QFETCH(QString, name);
  const auto found = complaintsOf(checked(demoAsItComes(name.toStdString())), {.step_deg = 5});
  QVERIFY2(found.empty(), told(found).c_str());
}

QTEST_APPLESS_MAIN(TestReferee)
#include "test_referee.moc"
