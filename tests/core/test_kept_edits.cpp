// SPDX-License-Identifier: GPL-3.0-or-later
#include "kept_cards.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/arrange.h"
#include "core/edits/bring_in.h"
#include "core/edits/free_lengths.h"
#include "core/edits/parting.h"
#include "core/edits/proportion.h"
#include "core/edits/rounding.h"
#include "core/edits/sheet.h"
#include "core/edits/solve_piece.h"
#include "core/edits/wrap_round.h"
#include "core/model/snapshot.h"
#include "core/structures/registry.h"
#include <set>
#endif

using namespace hinge;
using namespace hinge::test;

// What edits make of the cards that come with the program, and how new structures begin on their
// folds and faces: see kept.h.

namespace {

/// What an edit comes to: the paper of the card that it makes, and where it stands half open; or
/// why it is refused. `stands`: false where a hair decides to which side it folds, as it does for
/// some pieces of a maker's own.
void add(Numbers& n, const std::string& name, const Design& design, bool stands = true) {
  const auto assembly = assembleDesign(design);
  if (!assembly) {
    addRefused(name, assembly.error(), 1, n);
    return;
  }
  Numbers all;
  addAssembly(*assembly, all);
  if (stands) {
    const auto motion = Snapshot(design).motion();
    all["moves"] = motion->low_rad() + 1.7 * motion->high_rad() + motion->mobility();
    all["stands"] = placesOf(*motion, motion->poseAt(0.6 * motion->high_rad()));
  }
  double& sum = n[name];
  for (const auto& [key, value] : all)
    sum += one(key) * 1e-3 * value;
}
void add(Numbers& n, const std::string& name, const Result<Design>& made, bool stands = true) {
  if (made)
    add(n, name, *made, stands);
  else
    addRefused(name, made.error(), 1, n);
}
void add(Numbers& n, const std::string& name, const Result<Added>& made, bool stands = true) {
  if (made)
    add(n, name, made->design, stands);
  else
    addRefused(name, made.error(), 1, n);
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
        add(n, item.kind + (to > value->second ? " larger" : " smaller"), made, !item.work);
      }
      for (const double beyond : {row.least - 1, row.most + 1, row.least, row.most})
        add(n, item.kind + " beyond", setValues(design, item.id, {{std::string(row.key), beyond}}),
            !item.work);
    }
}

/// Sizes of the base, and how the card lies and opens.
void addBase(const Design& design, Numbers& n) {
  for (const auto& [key, value] : design.card.values)
    for (const double to : {1.07 * value + 0.5, 0.94 * value - 0.5, 1e4}) {
      CardBase base = design.card;
      base.values[key] = to;
      add(n, base.kind + " otherwise", setCard(design, base));
    }
  CardBase larger = design.card, other = design.card;
  larger.width_mm += 7, larger.height_mm += 11;
  add(n, "larger", setCard(design, larger));
  other.fold = other.fold == FoldSide::Side ? FoldSide::Top : FoldSide::Side;
  add(n, "folded at another side", setCard(design, other));
}

void addArranged(const Design& design, Numbers& n) {
  for (const StructureItem& item : design.structures) {
    add(n, "mirrored", mirrored(design, item.id), !item.work);
    add(n, "repeated", repeatedAlong(design, item.id, 2, 17));
    add(n, "on the other side", copiedToOtherSide(design, item.id));
    add(n, "without", removeStructure(design, item.id));
  }
}

void addPieces(const Design& design, Numbers& n) {
  for (const StructureItem& item : design.structures) {
    if (!item.work) continue;
    const auto set = [&](const std::string& name, const Result<PieceWork>& work) {
      const auto made = work ? setWork(design, item.id, *work) : Result<Design>(work.error());
      if (made)
        add(n, name, *made, false);
      else
        addRefused(name, made.error(), 1, n);
    };
    set("even steps", evenSteps(design, item.id, 3));
    set("wrapped round", wrappedRound(design, item.id, 9));
  }
}

/// A sheet with lines and an opening where nobody wants them.
PieceWork scribbledOn(PieceWork work, Dice& dice) {
  const Box2 box = boundsOf(work.outline);
  for (int k = 0; k < 3; ++k) {
    const double low = dice.between(box.low.x(), box.high.x()),
                 high = dice.between(box.low.x(), box.high.x());
    work.lines.push_back({k == 2 ? WorkLine::Kind::Cut : WorkLine::Kind::Valley,
                          {low, box.low.y()},
                          {high, k == 2 ? 0.5 * (box.low.y() + box.high.y()) : box.high.y()}});
  }
  const Vec2 at = dice.in(box, -0.2 * box.size().minCoeff());
  work.windows.push_back({at, at + Vec2(2, 0), at + Vec2(2, 3), at + Vec2(0, 3)});
  return work;
}

/// Parted along each line, and grown together again along every edge that is as long as another.
void addParted(const Design& design, StructureId piece, Numbers& n) {
  const PieceWork& whole = *design.find(piece)->work;
  for (std::size_t line = 0; line < whole.lines.size(); ++line) {
    const auto two = parted(design, piece, line);
    add(n, "parted", two, false);
    if (!two) continue;
    const auto edges = edgesOf(two->design.find(piece)->work->outline),
               others = edgesOf(two->design.find(two->id)->work->outline);
    int joined = 0;
    for (std::size_t k = 0; k < edges.size(); ++k)
      for (std::size_t j = 0; j < others.size() && joined < 3; ++j) {
        const auto length = [](const Edge& edge) { return (edge.second - edge.first).norm(); };
        if (std::abs(length(edges[k]) - length(others[j])) > 0.2) continue;
        ++joined;
        add(n, "grown together", joinedAlong(two->design, piece, k, two->id, j), false);
      }
  }
}

void addScribbled(const Design& design, Numbers& n) {
  Dice dice(17);
  for (const StructureItem& item : design.structures) {
    if (!item.work) continue;
    addParted(design, item.id, n);
    for (int k = 0; k < 3; ++k) {
      const PieceWork work = scribbledOn(*item.work, dice);
      const auto made = setWork(design, item.id, work);
      add(n, "scribbled", made, false);
      if (made) addParted(*made, item.id, n);
      if (k > 0) continue;
      add(n, "as the base", withBaseIn(design, work), false);
      add(n, "as a piece", withPieceIn(design, work), false);
      const Vec2 middle = dice.in(boundsOf(work.outline), 0);
      add(n, "openings", withOpeningsIn(design, {item.id, 0}, {work.windows.back()}, middle),
          false);
      add(n, "openings", withOpeningsIn(design, {item.id, 0}, {work.windows.back()}, {}), false);
    }
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
        addRefused("fitted" + name, fitted.error(), 1, n);
    }
  };
  fit({}, "");
  for (const StructureItem& item : design.structures)
    if (item.work) fit(item.id, " piece");
}

/// What hangs together by its lengths, and what rings and tabs miss by.
void addLengths(const Design& design, Numbers& n) {
  const FreeLengths lengths = freeLengthsOf(design);
  for (std::size_t k = 0; k < lengths.all.size(); ++k) {
    const FreeLength& length = lengths.all[k];
    n["free lengths"] += at(k) * (length.value_mm + 1e-3 * length.least_mm);
    n["free lengths called"] += one(length.key) + 1.7 * one(length.owner) + said(length.label);
    if (k % 5 != 0) continue;
    Design other = design;
    length.set(other, length.value_mm + 1);
    add(n, "free lengths set", other, false);
  }
  for (const auto& [a, b] : lengths.twins)
    n["twins"] += at(a) * static_cast<double>(b);
  for (const auto& [a, b] : lengths.neighbours)
    n["neighbours"] += at(a) * static_cast<double>(b);
  for (const auto& four : lengths.mirrored)
    n["mirrored lengths"] += at(four[0]) * static_cast<double>(four[1] + 3 * four[2] + 7 * four[3]);
  for (const auto& [owner, reason] : lengths.left)
    n["lengths left"] += one(owner) + said(reason);
  const auto motion = Snapshot(design).motion();
  const double gaps[] = {motion->low_rad(), 0.4 * motion->high_rad()};
  for (const double opening : gaps)
    for (const double gap :
         ringGaps(motion->assembly(), foldAngles(*motion, opening), opening + 0.1))
      n["ring gaps"] += std::abs(gap);
  const auto slacks = glueSlacks(motion->assembly());
  for (std::size_t k = 0; k < slacks.size(); ++k)
    n["glue slacks"] += at(k) * slacks[k];
}

/// Which width of a piece that is a little off makes it lie flat again.
void addSolved(const Design& design, Numbers& n) {
  for (const StructureItem& item : design.structures) {
    if (!item.work) continue;
    for (const auto& [key, value] : item.values) {
      const auto off = setValues(design, item.id, {{key, 1.03 * value + 0.4}});
      if (!off) continue;
      const auto motion = Snapshot(*off).motion();
      const auto mend = solveShut(*off, *motion, item.id);
      n["solved"] += mend ? 1 : 0.01;
      for (const MendEdit& edit : mend ? mend->edits : std::vector<MendEdit>())
        n["solved by"] += one(edit.key) * 1e-3 * (edit.to + 1.7 * edit.from);
    }
  }
}

/// Every length on a lattice: what moves, and what is left as it was.
void addRounded(const Design& design, Numbers& n) {
  const auto motion = Snapshot(design).motion();
  for (const RoundingKeeps keeps : {RoundingKeeps::ShutFlat, RoundingKeeps::Motion}) {
    const std::string name = keeps == RoundingKeeps::ShutFlat ? "rounded" : "rounded moving";
    const auto rounded =
        roundedTo(design, *motion, 0.8, {}, keeps, std::chrono::duration<double>(20));
    if (!rounded) {
      addRefused(name, rounded.error(), 1, n);
      continue;
    }
    n[name + " by"] += rounded->greatest_mm + 0.1 * rounded->sum_mm;
    n[name + " lengths"] += static_cast<double>(rounded->lengths);
    n[name + " conditions"] += static_cast<double>(rounded->conditions);
    for (const auto& [owner, reason] : rounded->left)
      n[name + " left: " + reason.key] += 1;
  }
}

Numbers numbersOf(const Design& design) {
  Numbers n;
  addStarts(design, n);
  addSizes(design, n);
  addBase(design, n);
  addArranged(design, n);
  addPieces(design, n);
  addScribbled(design, n);
  addLengths(design, n);
  addSolved(design, n);
  addFitted(design, n);
  add(n, "base as a sheet", withBaseAsSheet(design));
  add(n, "a new sheet", newSheet(design));
  return n;
}

} // namespace

class TestKeptEdits : public KeptTest {
  Q_OBJECT
public:
  TestKeptEdits() : KeptTest("kept_edits.json") {}

private slots:
  void editsMakeWhatTheyMade_data() { rowsOfDemos(); }
  void editsMakeWhatTheyMade() {
    QFETCH(QString, name);
    compare(name.toStdString(), numbersOf(demoAsItComes(name.toStdString())));
  }
  /// Cards whose best lattice is found at once.
  void roundingIsWhatItWas_data() {
    QTest::addColumn<QString>("name");
    for (const char* name :
         {"awnings", "barge-at-dusk", "block-stairs", "bridge-of-arches", "easel-lantern",
          "ferry-pass", "ferry-timetable", "keepers-desk", "lock-halves", "moth-wings",
          "night-heron", "night-ticket", "paddle-wheels", "pop-up-lantern", "quay-steps",
          "sail-to-raise", "two-quays", "two-sheet-ridge", "waving-boatmen"})
      QTest::newRow(name) << name;
  }
  void roundingIsWhatItWas() {
    QFETCH(QString, name);
    Numbers n;
    addRounded(demoAsItComes(name.toStdString()), n);
    compare(name.toStdString() + " rounded", n);
  }
  /// What is proposed for seats of cards that have little on them.
  void proposalsAreWhatTheyWere_data() {
    QTest::addColumn<QString>("first");
    for (const char* first : {"", "vfold", "box"})
      QTest::newRow(*first ? first : "plain") << first;
  }
  void proposalsAreWhatTheyWere() {
    QFETCH(QString, first);
    Design design = card();
    if (!first.isEmpty()) add(design, first.toUtf8().constData(), "gutter");
    Numbers n;
    const auto assembly = assemble(design);
    std::set<SeatKind> seen; // one of each kind: trying to the end takes long
    for (const Seat& seat : assembly->seats) {
      if (!seen.insert(seat.kind()).second) continue;
      for (const StructureKind* kind : structureKinds())
        if (kind->offeredOn(seat, *assembly, design.settings))
          ::add(n, std::string(kind->key), addProposed(design, kind->key, seat.key, {}));
    }
    compare("on " + (first.isEmpty() ? "nothing" : first.toStdString()), n);
  }
};

QTEST_GUILESS_MAIN(TestKeptEdits)
#include "test_kept_edits.moc"
