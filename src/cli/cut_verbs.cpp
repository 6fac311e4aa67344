// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/cut_verbs.h"
#include "cli/cut_json.h"
#include "cli/options.h"
#include "core/checks/rounding_search.h"
#include "core/io/design_json.h"
#include "core/io/maker_bench.h"
#include "core/io/maker_files.h"
#include "core/io/text_file.h"
#include "core/model/snapshot.h"
#include "core/production/cut_plan.h"
#include "core/structures/names.h"
#include "core/units/mark.h"
#include "core/units/tolerances.h"
#include "words/fitted_tables.h"
#include "words/words.h"
#include <algorithm>
#include <fmt/format.h>

// The verbs of the cutting table: sizes on the maker's lattice, tables, layouts.

namespace hinge {
namespace {

void printRounding(const Rounding& rounding, const Design& design, LengthUnit then) {
  tell({"cli.rounded", rounding.changes.size(), rounding.lengths, rounding.conditions,
        Millimetres{rounding.greatest_mm}},
       design);
  const auto shown = [&](double mm, LengthUnit unit) { return formatLength(mm, unit); };
  for (const RoundedLength& length : rounding.changes)
    fmt::print("{:16} {:>12} -> {:12} {}\n", length.key,
               shown(length.from_mm, design.settings.unit), shown(length.to_mm, then),
               say(length.label, design.settings.unit));
  for (const auto& [owner, why] : rounding.left)
    tell({"cli.left-as-is", owner, why}, design);
}

} // namespace

int roundVerb(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const auto step = parseLength_mm(o.to, d->settings.unit);
  if (!step) return refuse({step.error().message, "--to"}, d->settings.unit);
  const auto before = analyse(*d);
  if (!before) return refuse(before.error(), d->settings.unit);
  const auto judged =
      judgedRounding(*before, *step, {o.hold.begin(), o.hold.end()}, kMostForRounding);
  if (!judged) return refuse(judged.error(), d->settings.unit);
  const Rounding* const rounded = &judged->rounding;
  if (o.json)
    fmt::print("{}", roundingToJson(*rounded, *step));
  else
    printRounding(*rounded, *d, unitNamedIn(o.to, d->settings.unit));
  if (!o.apply) {
    const int verdict = o.json ? static_cast<int>(kFine) : tellVerdict(rounded->design);
    return verdict == kUnusable ? kUnusable : kFine;
  }
  const int after = tellVerdict(rounded->design);
  if (after == kUnusable) return after;
  if (after == kSpoiled && before->verdict != Verdict::Spoiled) {
    tell("cli.round-would-spoil", *d);
    return kSpoiled; // the card stays as it is
  }
  const int saved = saveEdited(rounded->design, o.target());
  return saved == kFine ? after : saved;
}

namespace {

/// A bench with some of it otherwise: "key=value".
Result<Bench> benchWith(Bench bench, const std::vector<std::string>& sets, LengthUnit unit) {
  for (const std::string& set : sets) {
    const auto equals = set.find('=');
    const std::string key = set.substr(0, equals);
    const auto row = std::ranges::find(benchRows(), key, &BenchRow::key);
    if (key.starts_with(kSpeedWord) && equals != std::string::npos) {
      const std::string paper = key.substr(kSpeedWord.size());
      const auto speed = parseNumber(set.substr(equals + 1), 0, kFastest_cms, key);
      if (!speed) return speed.error();
      if (*speed > 0)
        bench.speeds_cms[paper] = *speed;
      else
        bench.speeds_cms.erase(paper);
      continue;
    }
    if (row == benchRows().end() || equals == std::string::npos) {
      std::vector<std::string> known;
      for (const BenchRow& one : benchRows())
        known.push_back(std::string(one.key));
      known.push_back(std::string(kSpeedWord) + "PAPER");
      return Error{{"bench.unknown", key, listed(known)}, "--set"};
    }
    const std::string value = set.substr(equals + 1);
    if (row->plain) {
      const auto number = parseNumber(value, row->least, row->most, key);
      if (!number) return number.error();
      bench.*row->number = *number;
    } else if (row->number) {
      const auto length = parseLength_mm(value, unit);
      if (!length) return Error{length.error().message, key};
      bench.*row->number = *length;
    } else if (!setSchool(bench, key, value)) {
      return Error{"bench.choice", set};
    }
  }
  if (auto valid = validate(bench); !valid) return valid.error();
  return bench;
}

Result<Bench> benchFor(const Options& o, LengthUnit unit) {
  const auto kept = makersBench();
  return kept ? benchWith(*kept, o.sets, unit) : kept;
}

} // namespace

int benchVerb(const Options& o) {
  FileLock hold; // while it is read, changed and written
  if (!o.sets.empty()) hold = holdMakersFiles();
  const LengthUnit unit = o.unit.empty() ? LengthUnit::Millimetre : *unitFromKey(o.unit);
  const auto bench = benchFor(o, unit);
  if (!bench) return refuse(bench.error(), unit);
  if (!o.sets.empty())
    if (const auto kept = keepBench(*bench); !kept) return refuse(kept.error());
  if (o.json) {
    fmt::print("{}", benchToJson(*bench));
    return kFine;
  }
  for (const BenchRow& row : benchRows())
    if (row.number)
      fmt::print("{}\n", say(row.plain ? Text("cli.bench-length", std::string(row.key),
                                              Decimal{(*bench).*row.number, 4})
                                       : Text("cli.bench-length", std::string(row.key),
                                              Millimetres{(*bench).*row.number}),
                             unit));
    else
      fmt::print("{}\n", say(Text("cli.bench-choice", std::string(row.key),
                                  std::string(schoolOf(*bench, row.key)),
                                  saySchool(row.key, schoolOf(*bench, row.key)))));
  for (const auto& [paper, speed] : bench->speeds_cms)
    fmt::print("{}\n",
               say(Text("cli.bench-speed", std::string(kSpeedWord) + paper, Decimal{speed, 1})));
  return kFine;
}

Result<BenchTables> tablesFor(const Options& o, const Snapshot& snapshot) {
  const Design& design = snapshot.design();
  const auto bench = benchFor(o, design.settings.unit);
  if (!bench) return bench.error();
  const auto assembly = snapshot.assembly();
  if (!assembly) return assembly.error();
  return BenchTables{*bench, scoreTables(**assembly, design, *snapshot.flatPieces(), *bench)};
}

namespace {

/// The tables of the card fitted to another length, beside those that there are; on plain text also
/// what was held and what gave.
Result<void> putBeside(const Options& o, const Design& design, const Bench& bench,
                       std::vector<ReadTable>& read) {
  const auto length = parseLength_mm(o.fit, design.settings.unit);
  if (!length) return Error{length.error().message, "--fit"};
  const auto fitted = tablesFitted(design, *length, {o.hold.begin(), o.hold.end()}, bench);
  if (!fitted) return fitted.error();
  for (ReadTable& table : read)
    for (const ReadTable& then : fitted->tables)
      if (then.title == table.title) table = sideBySide(table, then);
  if (o.csv) return {};
  for (const FittedLength& row : fitted->lengths) {
    const bool same = std::abs(row.to_mm - row.from_mm) < kTouch_mm;
    tell(same ? Text("cli.fit-held", row.label, Millimetres{row.to_mm})
              : Text("cli.fit-gave", row.label, Millimetres{row.from_mm}, Millimetres{row.to_mm}),
         design);
  }
  return {};
}

} // namespace

int scoresTableVerb(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const Snapshot snapshot(*d);
  auto made = tablesFor(o, snapshot);
  if (!made) return refuse(made.error(), d->settings.unit);
  const Bench* const bench = &made->bench;
  std::vector<PieceTable> tables = made->tables;
  const auto assembly = snapshot.assembly();
  if (!o.id.empty()) {
    std::erase_if(tables, [&](const PieceTable& table) { return table.letter != o.id; });
    if (tables.empty()) return refuse({{"table.no-piece", o.id}, "--piece"});
  }
  if (o.json) {
    fmt::print("{}", tablesToJson(tables, *d, **assembly, *bench));
    return kFine;
  }
  std::vector<ReadTable> read = readTables(tables, *d, **assembly, *bench);
  if (!o.fit.empty())
    if (auto done = putBeside(o, *d, *bench, read); !done)
      return refuse(done.error(), d->settings.unit);
  fmt::print("{}", o.csv ? commaSeparated(read) : plainText(read));
  return kFine;
}

namespace {

/// As far as anybody plans.
constexpr int kMostCards = 500;

struct Job {
  std::shared_ptr<const Snapshot> snapshot;
  std::shared_ptr<const Assembly> assembly;
  std::vector<MatLine> mats;
  const Design& design() const { return snapshot->design(); }
  std::string nameOfPart(const CutPart& part) const {
    if (part.mat == 0) {
      const Text name = pieceName(design(), *assembly, part.flat.piece);
      return saySentence(part.flat.part > 0 ? Text("cli.part-of", name, part.flat.part) : name);
    }
    const Paper* paper = design().findPaper(part.paper);
    return say(Text("cli.layer-part", part.mat, paper ? nameOf(*paper) : Text()));
  }
};

std::string times(const Vec2& size, LengthUnit unit) {
  return formatLength(size.x(), unit, false) + " x " + formatLength(size.y(), unit);
}

void printSheets(const CutPlan& plan, const Job& job) {
  const LengthUnit unit = job.design().settings.unit;
  for (std::size_t s = 0; s < plan.sheets.size(); ++s) {
    const LaidSheet& sheet = plan.sheets[s];
    std::string parts;
    for (const PartPlace& place : sheet.places)
      parts += (parts.empty() ? "" : ", ") + std::to_string(place.part + 1);
    tell({"cli.sheet-line", s + 1, nameOf(job.design().paperNamed(sheet.paper)),
          formatLength(sheet.width_mm, unit, false), Millimetres{sheet.height_mm}, parts},
         job.design());
    for (const Box2& box : sheet.offcuts)
      fmt::print("    {}\n", say(Text("cli.offcut", formatLength(box.size().x(), unit, false),
                                      Millimetres{box.size().y()}),
                                 unit));
  }
}

void printCuts(const CutPlan& plan, const Job& job) {
  if (plan.how != LayoutFor::Trimmer) return;
  tell({"cli.settings", plan.cuts.size(), plan.settings()}, job.design());
  for (const TrimCut& cut : plan.cuts) {
    if (cut.setting) tell({"cli.trim-set", Millimetres{cut.set_mm}}, job.design());
    Text text("cli.trim-cut", cut.blank + 1, cut.strip + 1, cut.rest + 1);
    if (!cut.upright) text = Text("cli.trim-turned", std::move(text));
    fmt::print("    {}\n", say(text));
  }
}

void printPlan(const CutPlan& plan, const Job& job) {
  const Design& design = job.design();
  const LengthUnit unit = design.settings.unit;
  tell({"cli.laid-out", plan.parts.size(), Text("cli.laid-sheets", plan.sheets.size()),
        Decimal{100 * plan.waste(), 1},
        Decimal{plan.sheets_mm2 > 0 ? 100 * plan.kept_mm2 / plan.sheets_mm2 : 0, 1}},
       design);
  for (std::size_t k = 0; k < plan.parts.size(); ++k)
    fmt::print("{:>4}  {:32} {}\n", k + 1, job.nameOfPart(plan.parts[k]),
               times(plan.parts[k].size(), unit));
  printSheets(plan, job);
  printCuts(plan, job);
  for (const SheetCount& need : sheetsOf(plan, design)) {
    const Text name = nameOf(design.paperNamed(need.paper));
    const std::string width = formatLength(need.width_mm, unit, false);
    const Text sheets("cli.laid-sheets", need.sheets);
    tell(need.atHand ? Text("cli.need-at-hand", name, width, Millimetres{need.height_mm}, sheets,
                            *need.atHand, need.toBuy())
                     : Text("cli.need", name, width, Millimetres{need.height_mm}, sheets),
         design);
  }
  for (std::size_t part : plan.tooLarge)
    tell({"cli.too-large", job.nameOfPart(plan.parts[part]),
          formatLength(plan.parts[part].size().x(), unit, false),
          Millimetres{plan.parts[part].size().y()}},
         design);
  for (std::size_t part : plan.noSheet)
    tell({"cli.no-sheet", job.nameOfPart(plan.parts[part])}, design);
}

} // namespace

Result<LayoutOptions> layoutOptions(const Options& o, LengthUnit unit) {
  const auto bench = makersBench();
  if (!bench) return bench.error();
  LayoutOptions options =
      usualFor(o.tool == "trimmer" ? LayoutFor::Trimmer : LayoutFor::Machine, *bench);
  options.unlimited = !o.fromStock;
  for (const auto& [text, value, name] : {std::tuple{&o.margin, &options.margin_mm, "--margin"},
                                          std::tuple{&o.gap, &options.gap_mm, "--gap"}}) {
    if (text->empty()) continue;
    const auto length = parseLength_mm(*text, unit);
    if (!length) return Error{length.error().message, name};
    if (!(*length >= 0 && *length <= 50))
      return Error{{"value.range", Millimetres{*length}, Millimetres{0}, Millimetres{50}}, name};
    *value = *length;
  }
  return options;
}

Result<CutPlan> planFor(const Options& o, const Snapshot& snapshot) {
  const Design& design = snapshot.design();
  const auto options = layoutOptions(o, design.settings.unit);
  if (!options) return options.error();
  const auto assembly = snapshot.assembly();
  if (!assembly) return assembly.error();
  return layOutCards(design, *snapshot.cutPieces(), matList(design, *snapshot.dressed()), o.cards,
                     *options);
}

namespace {

/// Of a bench that its maker has described, the trimmer if it has one.
bool cutsByTrimmer() {
  const auto bench = makersBench();
  return bench && fileExists(makersBenchPath()) && bench->trimmer_mm > 0;
}

} // namespace

int layoutVerb(const Options& given) {
  Options o = given;
  if (o.tool.empty() && cutsByTrimmer()) o.tool = "trimmer";
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const LengthUnit unit = d->settings.unit;
  Job job{std::make_shared<const Snapshot>(std::move(d).value()), {}, {}};
  const auto made = planFor(o, *job.snapshot);
  if (!made) return refuse(made.error(), unit);
  const CutPlan& plan = *made;
  job.assembly = *job.snapshot->assembly();
  job.mats = matList(job.design(), *job.snapshot->dressed());
  const auto& pieces = *job.snapshot->cutPieces();
  std::optional<CardsFromStock> enough;
  if (o.fromStock)
    enough = cardsFromStock(job.design(), pieces, job.mats, *layoutOptions(o, unit), kMostCards);
  if (o.json) {
    fmt::print("{}", planToJson(plan, job.design(), *job.assembly, enough));
  } else {
    printPlan(plan, job);
    if (enough && enough->endsFirst.empty())
      tell("cli.cards-from-stock/uncounted", job.design());
    else if (enough)
      tell({"cli.cards-from-stock", enough->cards,
            nameOf(*job.design().findPaper(enough->endsFirst))},
           job.design());
  }
  return plan.tooLarge.empty() && plan.noSheet.empty() ? kFine : kSpoiled;
}

} // namespace hinge
