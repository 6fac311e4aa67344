// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/options.h"
#include "cli/report_json.h"
#include "core/base/deadline.h"
#include "core/checks/analysis.h"
#include "core/io/design_json.h"
#include "core/pieces/placing.h"
#include "core/pieces/rule_words.h"
#include "core/structures/names.h"
#include "core/structures/registry.h"
#include "core/units/lattice.h"
#include "words/words.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

// The verbs that say what is there and what it is worth.

namespace hinge {
namespace {

/// By which rules can place paper on a face.
std::string linesOf(const Assembly& assembly, const Seat& face) {
  std::string all;
  for (const auto& [name, line] : linesBelow(assembly, face.sides[0]))
    all += (all.empty() ? "" : ", ") + inWords(name);
  return all;
}

} // namespace

namespace {

/// A row of a table: "    a         Foot a   1 3/16 in  1/16 to 39 3/8  From the fold to ...". In
/// inches the values are the nearest marks of a ruler, on which a card in inches begins.
void printRow(const ParameterSpec& row, LengthUnit unit) {
  const bool length = row.unit == ParameterUnit::Millimetre;
  const auto number = [&](double value) {
    if (!length) return formatNumber(value, 3);
    if (unit == LengthUnit::Inch)
      return formatLength(onLattice(value, kLatticeInch_mm), unit, false);
    return formatNumber(value / millimetresIn(unit), 3);
  };
  const std::string_view what = length ? unitKey(unit) : unitKey(row.unit);
  fmt::print("    {:9} {:16} {:>7} {:5} {}  {}\n", row.key, say(nameOf(row)), number(row.start),
             what, say(Text("cli.row-range", number(row.least), number(row.most))),
             say(meaningOf(row)));
}

} // namespace

int listStructures(const Options& o) {
  if (o.json) {
    fmt::print("{}", kindsToJson());
    return kFine;
  }
  const LengthUnit unit = o.unit.empty() ? LengthUnit::Millimetre : *unitFromKey(o.unit);
  for (const StructureKind* kind : structureKinds()) {
    fmt::print("{}  {}\n", kind->key,
               say(Text{"cli.kind", kind->name(), Text(kind->name().key + "/summary")}));
    for (const ParameterSpec& row : kind->parameters)
      printRow(row, unit);
  }
  return kFine;
}

int listSeats(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const Snapshot snapshot(*d);
  const auto assembly = snapshot.assembly();
  if (!assembly) return refuse(assembly.error(), d->settings.unit);
  if (o.json)
    fmt::print("{}", seatsToJson(*d, **assembly));
  else
    for (const Seat& seat : (*assembly)->seats) {
      const bool face = seat.kind() == SeatKind::Face;
      const auto side = [&](std::size_t k) {
        return (*assembly)->panels[seat.sides[k].panel].label;
      };
      fmt::print(
          "{:16} {:36} {:>12}  {}\n", seat.key, say(seatName(*d, **assembly, seat)),
          formatLength(seat.length_mm, d->settings.unit),
          say(face ? Text("cli.seat-face", seatStart(**assembly, seat), linesOf(**assembly, seat))
                   : Text("cli.seat-fold", side(0), side(1))));
    }
  return kFine;
}

int orderOf(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const Snapshot snapshot(*d);
  const auto assembly = snapshot.assembly();
  if (!assembly) return refuse(assembly.error(), d->settings.unit);
  const auto worked = snapshot.order();
  if (!worked) {
    // No order at all: "check" says what cannot be put together.
    if (o.json)
      fmt::print("{}", orderToJson({}, *d, **assembly, {}, *snapshot.faces()));
    else
      fmt::print("   x {}\n", say("cli.no-order"));
    return kSpoiled;
  }
  const AssemblyOrder& order = *worked;
  const int code = order.unreachable.empty() ? kFine : kSpoiled;
  const auto moments = dressMoments(*d, **assembly, *snapshot.faces(), *snapshot.dressed(), order);
  if (o.json) {
    fmt::print("{}", orderToJson(order, *d, **assembly, moments, *snapshot.faces()));
    return code;
  }
  for (const OrderLine& line : orderLines(order, moments, *d, **assembly))
    fmt::print("{:>4} {}\n", line.number, line.text);
  return code;
}

namespace {

Text verdictName(Verdict verdict) {
  return "verdict." + std::string(verdictKey(verdict));
}

void printFindings(const Options& o, const Analysis& analysis) {
  tell({"cli.verdict", o.file, verdictName(analysis.verdict), analysis.motion->mobility()},
       analysis.design);
  int number = 0;
  for (const Finding& f : analysis.findings) {
    std::string text = say(Text{f.severity == Severity::Spoils ? "cli.spoils" : "cli.advice",
                                describe(f, analysis.design)});
    if (f.goesWith) text = say(Text{"cli.goes-with", *f.goesWith + 1, Text("as-it-is", text)});
    fmt::print("{:3}  {}\n", ++number, text);
  }
  std::fflush(stdout); // the verdict does not wait for the mends
}

void printMends(const Analysis& analysis, double seconds) {
  std::size_t number = 0, unsought = 0;
  for (const Finding& f : analysis.findings) {
    ++number;
    unsought += !f.mendSought;
    if (f.mend)
      fmt::print("     {}\n", say(Text{"cli.mend", number, describe(*f.mend, analysis.design)}));
    std::size_t way = 1;
    for (const Mend& other : f.otherMends)
      fmt::print("       {}\n",
                 say(Text{"cli.other-mend", ++way, describe(other, analysis.design)}));
  }
  if (unsought > 0 && seconds > 0)
    fmt::print("     {}\n",
               say(Text{"cli.unsought", unsought, analysis.findings.size(), Decimal{seconds, 2}}));
}

} // namespace

int check(const Options& o) {
  constexpr double kMost_s = 86400;
  const auto seconds = parseNumber(o.mends, 0, kMost_s, "--mends");
  if (!seconds) return refuse(seconds.error());
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  auto analysed = analyse(*d);
  if (!analysed) return refuse(analysed.error(), d->settings.unit);
  Analysis analysis = std::move(analysed).value();
  if (!o.json) printFindings(o, analysis);
  if (*seconds > 0) {
    const Deadline deadline{std::chrono::duration<double>(*seconds)};
    searchMends(analysis, deadline.token());
  }
  if (o.json)
    fmt::print("{}", analysisToJson(analysis));
  else
    printMends(analysis, *seconds);
  return analysis.verdict == Verdict::Spoiled ? kSpoiled : kFine;
}

namespace {

/// The design with a mend of one finding, both numbered as "check" lists them.
Result<Design> withOneMended(const Design& d, const std::string& text, const std::string& wayText) {
  const auto analysis = analyse(d);
  if (!analysis) return analysis.error();
  const auto count = static_cast<double>(analysis->findings.size());
  const auto number = parseNumber(text, 1, std::max(1.0, count), "--finding");
  if (!number || count == 0 || *number != std::floor(*number))
    return Error{{"usage/finding", text, Decimal{count, 0}}, "--finding"};
  const Finding& f = analysis->findings[static_cast<std::size_t>(*number) - 1];
  const auto way = parseNumber(wayText, 1, kMostMends, "--way");
  if (!way || *way != std::floor(*way)) return Error{{"usage/way", wayText}, "--way"};
  const auto which = static_cast<std::size_t>(*way);
  const auto mends = searchMend(*analysis, f, {}, which);
  if (mends.size() >= which) return applyMend(d, mends[which - 1]);
  if (!mends.empty()) return Error{{"mend.ways", which, mends.size()}, "--way"};
  return Error{{"mend.none", describe(f, d)}, ""};
}

} // namespace

int mend(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  Design edited;
  int applied = 1;
  if (!o.findingGiven || o.all) {
    auto mended = mendAll(*d);
    if (!mended) return refuse(mended.error(), d->settings.unit);
    edited = mended->design, applied = mended->applied;
  } else {
    auto one = withOneMended(*d, o.finding, o.way);
    if (!one) return refuse(one.error(), d->settings.unit);
    edited = std::move(one).value();
  }
  auto after = analyse(edited);
  if (!after) return refuse(after.error(), d->settings.unit);
  tell({"cli.mended", applied, verdictName(after->verdict)}, edited);
  for (const Finding& f : after->findings)
    if (f.severity == Severity::Spoils) tell({"cli.not-mended", describe(f, edited)}, edited);
  if (const int code = saveEdited(edited, o.target()); code != kFine) return code;
  return after->verdict == Verdict::Spoiled ? kSpoiled : kFine;
}

} // namespace hinge
