// SPDX-License-Identifier: GPL-3.0-or-later
#include "../referee.h"
#include "kept.h"
#include <QDir>
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/dressing.h"
#include "core/edits/edits.h"
#include "core/structures/registry.h"
#endif

using namespace hinge;
using namespace hinge::test;

namespace {

/// `off`: 1, far off; less, nearer to what was meant.
class Hand : public Dice {
public:
  Hand(unsigned seed, double off) : Dice(seed), m_off(off) {}
  double off(double low, double high) { return m_off * between(low, high); }

private:
  double m_off;
};

void keep(Design& design, const Result<Design>& made) {
  if (made && assembleDesign(*made)) design = *made;
}

/// Corners of the outline and ends of lines a little off.
PieceWork offBy(PieceWork work, Hand& hand) {
  const auto off = [&](Vec2& p) {
    if (hand.chance(0.15)) p += Vec2(hand.off(-2, 2), hand.off(-2, 2));
  };
  std::ranges::for_each(work.outline, off);
  for (WorkLine& line : work.lines)
    off(line.from), off(line.to);
  return work;
}

void spoilSizes(Design& design, Hand& hand) {
  const std::vector<StructureItem> items = design.structures;
  for (const StructureItem& item : items) {
    for (const ParameterSpec& row : waysOf(item).rows(item)) {
      const auto value = item.values.find(row.key);
      if (value == item.values.end() || row.whole() || !hand.chance(0.3)) continue;
      const double to = value->second * (1 + hand.off(-0.25, 0.3)) + hand.off(-1, 1);
      keep(design, setValues(design, item.id, {{std::string(row.key), to}}));
    }
    if (item.work && hand.chance(0.7))
      keep(design, setWork(design, item.id, offBy(*item.work, hand)));
  }
}

void spoilBase(Design& design, Hand& hand) {
  for (const auto& [key, value] : ParameterValues(design.card.values)) {
    CardBase base = design.card;
    base.values[key] = value * (1 + hand.off(-0.1, 0.1));
    keep(design, setCard(design, base));
  }
  CardBase base = design.card;
  base.width_mm *= 1 + hand.off(-0.04, 0.04), base.height_mm *= 1 + hand.off(-0.04, 0.04);
  base.display_deg *= 1 + hand.off(-0.3, 0), base.worksTo_deg *= 1 + hand.off(-0.2, 0);
  if (hand.chance(0.4)) base.rests = base.rests == Rests::OnEdge ? Rests::OnPage : Rests::OnEdge;
  keep(design, setCard(design, base));
}

void spoilDressing(Design& design, Hand& hand) {
  for (DressRule rule : std::vector(design.dressing.rules)) {
    for (Layer& layer : rule.layers)
      if (hand.chance(0.5)) layer.border_mm = {hand.between(0, 9)};
    if (hand.chance(0.3)) rule.atGlue = AtGlue::Over;
    keep(design, withRule(design, rule));
  }
  for (Topper topper : std::vector(design.dressing.toppers)) {
    topper.at += Vec2(hand.off(-25, 25), hand.off(-25, 25));
    topper.turn_deg += hand.off(-40, 40), topper.raised_mm *= 1 + hand.off(-0.5, 2);
    keep(design, withTopper(design, topper));
  }
}

} // namespace

/// Cards that hurried hands have spoiled are judged as the referee judges them.
class TestSpoiledCards : public QObject {
  Q_OBJECT
private slots:
  void noneIsCalledGoodThatIsNot_data();
  void noneIsCalledGoodThatIsNot();
};

void TestSpoiledCards::noneIsCalledGoodThatIsNot_data() {
  QTest::addColumn<QString>("name");
  for (const QString& file : QDir(HINGE_SOURCE_DIR "/demo").entryList({"*.hinge"}))
    QTest::newRow(qPrintable(file)) << file.chopped(6);
}

void TestSpoiledCards::noneIsCalledGoodThatIsNot() {
  QFETCH(QString, name);
  const Design whole = demoAsItComes(name.toStdString());
  for (unsigned seed = 1; seed <= 4; ++seed) {
    Design design = whole;
    Hand hand(seed, 0.25 * seed);
    if (seed % 2 == 0) spoilBase(design, hand);
    spoilSizes(design, hand);
    spoilDressing(design, hand);
    const Analysis card = checked(design);
    if (card.verdict == Verdict::Spoiled) continue;
    const auto complaints = complaintsOf(card, {.step_deg = 6});
    QVERIFY2(complaints.empty(), fmt::format("{}: {}", seed, told(complaints)).c_str());
  }
}

QTEST_GUILESS_MAIN(TestSpoiledCards)
#include "test_spoiled_cards.moc"
