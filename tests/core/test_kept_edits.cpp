// SPDX-License-Identifier: GPL-3.0-or-later
#include "kept.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/arrange.h"
#include "core/edits/parting.h"
#include "core/edits/proportion.h"
#include "core/edits/sheet.h"
#include "core/edits/solve_piece.h"
#include "core/edits/wrap_round.h"
#include "core/structures/registry.h"
#include <QDir>
#endif

using namespace hinge;
using namespace hinge::test;

// What edits make of the cards that come with the program, and how new structures begin on their
// folds and faces: see kept.h.

namespace {

/// What an edit comes to: the paper of the card that it makes, or why it is refused.
void add(Numbers& n, const std::string& name, const Design& design) {
  const auto assembly = assembleDesign(design);
  if (!assembly) {
    n[name + ": " + assembly.error().message.key] += 1;
    return;
  }
  Numbers all;
  addAssembly(*assembly, all);
  double& sum = n[name];
  for (const auto& [key, value] : all)
    sum += one(key) * 1e-3 * value;
}
void add(Numbers& n, const std::string& name, const Result<Design>& made) {
  if (made)
    add(n, name, *made);
  else
    n[name + ": " + made.error().message.key] += 1;
}
void add(Numbers& n, const std::string& name, const Result<Added>& made) {
  if (made)
    add(n, name, made->design);
  else
    n[name + ": " + made.error().message.key] += 1;
}

/// How each kind begins on each seat of a card.
void addStarts(const Design& design, Numbers& n) {
  const auto assembly = assembleDesign(design);
  if (!assembly) return;
  for (const Seat& seat : assembly->seats)
    for (const StructureKind* kind : structureKinds()) {
      if (!kind->standsOn(seat, *assembly)) continue;
      n["offered " + std::string(kind->key)] +=
          kind->offeredOn(seat, *assembly, design.settings) ? 1 : 0.01;
      for (const auto& [key, value] : kind->fit(seat, *assembly, design.settings))
        n[std::string(kind->key)] += one(key) * 1e-3 * value;
    }
}

/// Every size of every structure a little larger, and a little smaller: what follows it, and what
/// it is refused for.
void addSizes(const Design& design, Numbers& n) {
  for (const StructureItem& item : design.structures)
    for (const ParameterSpec& row : waysOf(item).rows(item)) {
      const auto value = item.values.find(row.key);
      if (value == item.values.end()) continue;
      for (const double to : {1.07 * value->second + 0.5, 0.94 * value->second - 0.5}) {
        const auto made =
            setValues(design, item.id, {{std::string(row.key), row.whole() ? std::round(to) : to}});
        add(n, item.kind + (to > value->second ? " larger" : " smaller"), made);
      }
    }
}

void addArranged(const Design& design, Numbers& n) {
  for (const StructureItem& item : design.structures) {
    add(n, "mirrored", mirrored(design, item.id));
    add(n, "repeated", repeatedAlong(design, item.id, 2, 17));
    add(n, "on the other side", copiedToOtherSide(design, item.id));
    add(n, "without", removeStructure(design, item.id));
  }
}

void addPieces(const Design& design, Numbers& n) {
  for (const StructureItem& item : design.structures) {
    if (!item.work) continue;
    const auto set = [&](const std::string& name, const Result<PieceWork>& work) {
      if (work)
        add(n, name, setWork(design, item.id, *work));
      else
        n[name + ": " + work.error().message.key] += 1;
    };
    set("even steps", evenSteps(design, item.id, 3));
    set("wrapped round", wrappedRound(design, item.id, 9));
    for (std::size_t line = 0; line < item.work->lines.size(); ++line)
      add(n, "parted", parted(design, item.id, line));
  }
}

void addFitted(const Design& design, Numbers& n) {
  const auto fit = [&](std::optional<StructureId> piece, const std::string& name) {
    std::set<std::string> held;
    for (const LengthRow& row : lengthRows(design, piece)) {
      n["lengths" + name] += one(row.key) * 1e-3 * row.value_mm + row.held;
      if (row.held) held.insert(row.key);
    }
    const auto length = flatLength_mm(design, piece);
    if (!length) return;
    n["flat length" + name] += *length;
    for (const double factor : {0.93, 1.1}) {
      const auto fitted = fittedTo(design, piece, factor * *length, held);
      if (fitted)
        add(n, "fitted" + name, fitted->design), n["factor" + name] += fitted->factor;
      else
        n["fitted" + name + ": " + fitted.error().message.key] += 1;
    }
  };
  fit({}, "");
  for (const StructureItem& item : design.structures)
    if (item.work) fit(item.id, " piece");
}

Numbers numbersOf(const Design& design) {
  Numbers n;
  addStarts(design, n);
  addSizes(design, n);
  addArranged(design, n);
  addPieces(design, n);
  addFitted(design, n);
  add(n, "base as a sheet", withBaseAsSheet(design));
  add(n, "a new sheet", newSheet(design));
  return n;
}

} // namespace

class TestKeptEdits : public QObject {
  Q_OBJECT
  Kept m_kept{"kept_edits.json"};

private slots:
  void cleanupTestCase() { QVERIFY(m_kept.save()); }
  void editsMakeWhatTheyMade_data() {
    QTest::addColumn<QString>("name");
    for (const QString& file : QDir(HINGE_SOURCE_DIR "/demo").entryList({"*.hinge"}))
      QTest::newRow(qPrintable(file)) << file.chopped(6);
  }
  void editsMakeWhatTheyMade() {
    QFETCH(QString, name);
    const std::string card = name.toStdString();
    const std::string differs = m_kept.differences(card, numbersOf(demoAsItComes(card)));
    QVERIFY2(differs.empty(), (card + differs).c_str());
  }
};

QTEST_GUILESS_MAIN(TestKeptEdits)
#include "test_kept_edits.moc"
