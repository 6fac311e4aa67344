// SPDX-License-Identifier: GPL-3.0-or-later
#include "fold_reading.h"
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/io/design_json.h"
#include "core/io/fold_file.h"
#include <filesystem>
#include <nlohmann/json.hpp>
#include <set>
#endif

using namespace hinge;
using namespace hinge::test;

// The designs that come with the program: good as they are, rigid and closed in their FOLD file,
// and wrong with the finding that is meant when one size is.

namespace {

std::vector<std::string> allDesigns() {
  std::vector<std::string> names;
  for (const auto& entry : std::filesystem::directory_iterator(HINGE_SOURCE_DIR "/demo"))
    if (entry.path().extension() == ".hinge" &&
        entry.path().stem().string().find("mistakes") == std::string::npos)
      names.push_back(entry.path().stem().string());
  std::ranges::sort(names);
  return names;
}

} // namespace

class TestStartingDesigns : public QObject {
  Q_OBJECT
  static void rows() {
    QTest::addColumn<QString>("name");
    for (const std::string& name : allDesigns())
      QTest::newRow(name.c_str()) << QString::fromStdString(name);
  }
private slots:
  void theyAreGoodAndNamed_data() { rows(); }
  void theyAreGoodAndNamed() {
    QFETCH(QString, name);
    const Design d = demo(name.toStdString());
    QVERIFY(!d.title.empty());
    const Analysis analysis = checked(d);
    for (const Finding& f : analysis.findings) // what only a spring holds is always told
      QVERIFY2(f.code == "by-spring", describe(f, d).c_str());
    QVERIFY(analysis.verdict == (analysis.findings.empty() ? Verdict::Good : Verdict::Advice));
  }
  void theirNamesDiffer() {
    std::set<std::string> titles;
    for (const std::string& name : allDesigns())
      QVERIFY2(titles.insert(demo(name).title).second, name.c_str());
    QVERIFY(titles.size() >= 31);
  }
  void theirFoldFilesAreRigidAndClosedAtTenOpenings_data() { rows(); }
  void theirFoldFilesAreRigidAndClosedAtTenOpenings() {
    QFETCH(QString, name);
    const Motion motion = Motion::trace(assemble(demo(name.toStdString())));
    std::vector<double> openings;
    for (int k = 0; k < 10; ++k)
      openings.push_back(degrees(motion.low_rad()) +
                         (degrees(motion.high_rad()) - degrees(motion.low_rad())) * k / 9);
    const auto text = motionToFold(motion, openings);
    QVERIFY(text.ok());
    const FoldReading file(*text);
    QCOMPARE(file.folded(), std::size_t(10));
    QCOMPARE(file.notPlanar(), 0);
    for (std::size_t k = 0; k < file.folded(); ++k) {
      QVERIFY_NEAR(file.stretched(k), 0, 1e-6);
      QVERIFY_NEAR(file.torn(k), 0, 1e-6);
      QCOMPARE(file.wrongWay(k), 0);
    }
  }
  void wrongSizesGiveTheFindingTheyMust_data() {
    QTest::addColumn<QString>("name");
    QTest::addColumn<int>("id"); // 0: the base
    QTest::addColumn<QString>("size");
    QTest::addColumn<double>("value");
    QTest::addColumn<QString>("code");
    const auto row = [](const char* name, int id, const char* size, double value,
                        const char* code) {
      QTest::addRow("%s %s", name, size) << name << id << size << value << code;
    };
    row("block-stairs", 1, "c", 60, "shut-flat");
    row("stage-in-the-fold", 1, "a", 80, "outside-cover");
    row("long-quay", 1, "height", 106, "window.past-edge");
    row("tower", 1, "position", -20, "outside-cover");
    row("harbour-letters", 8, "position", 20, "panels-hit");
    row("easel-lantern", 1, "height", 160, "outside-cover");
    row("easel-lantern", 0, "stop", 130, "easel.stop");
    row("gate-to-the-market", 0, "left", 90, "base.flaps-meet");
    row("ticket-booth", 1, "c", 50, "shut-flat");
    row("lock-diorama", 1, "w2", 24, "shut-flat");
    row("lock-diorama", 2, "bulge", 0, "behind-glue");
    row("canal-corner", 1, "s", 70, "shut-flat");
    row("lantern-tower", 1, "tiers", 6, "tier.too-small");
    row("landing-stage", 1, "ends", 0, "floppy");
    row("market-table", 1, "panel-2", 50, "shut-flat");
    row("lock-halves", 1, "panel-2", 130, "shut-flat");
    row("canal-frames", 3, "panel-2", 90, "outside-cover");
    row("steps-in-the-fold", 1, "panel-3", 34, "shut-flat");
    row("lantern-through-the-wall", 1, "height", 40, "panels-hit");
    row("lamp-lattice", 1, "panel-2", 50, "shut-flat");
    row("photo-stand", 0, "open", 120, "falls-over");
    row("paddle-wheels", 4, "position", 60, "panels-hit");
    row("moth-wings", 1, "panel-2", 126, "outside-cover");
    row("two-awnings", 2, "panel-2", 30, "shut-flat");
    row("two-tents", 0, "stop2", 130, "easel.stop");
    row("ferry-pass", 3, "panel-1", 71, "pocket-tight");
    row("ferry-pass", 4, "panel-2", 60, "strap-tight");
    row("ferry-pass", 2, "panel-2", 40, "slide-past-stop");
  }
  void wrongSizesGiveTheFindingTheyMust() {
    QFETCH(QString, name);
    QFETCH(int, id);
    QFETCH(QString, size);
    QFETCH(double, value);
    QFETCH(QString, code);
    Design d = demo(name.toStdString());
    if (id == 0)
      d.card.values[size.toStdString()] = value;
    else {
      const auto changed = setValues(d, StructureId{id}, {{size.toStdString(), value}});
      QVERIFY(changed.ok());
      d = *changed;
    }
    const auto assembled = assembleDesign(d);
    if (!assembled) { // impossible sizes are refused with their reason before anything is judged
      QCOMPARE(QString::fromStdString(assembled.error().code()), code);
      return;
    }
    const Analysis analysis = checked(d);
    std::string all;
    for (const Finding& f : analysis.findings)
      all += f.code + " ";
    const Finding* found = findCode(analysis, code.toStdString());
    QVERIFY2(found, all.c_str());
    QVERIFY(found->amount > 0);
  }
};

QTEST_APPLESS_MAIN(TestStartingDesigns)
#include "test_starting_designs.moc"
