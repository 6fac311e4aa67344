#include "cli/commands.h"
#include "core/bases/base.h"
#include "core/io/design_json.h"
#include "core/io/fold_file.h"
#include "core/io/obj.h"
#include "core/io/report_json.h"
#include "core/io/svg.h"
#include "core/io/text_file.h"
#include "core/checks/propose.h"
#include "core/checks/solve_piece.h"
#include "core/structures/closure.h"
#include "core/structures/assemble.h"
#include "core/structures/proportion.h"
#include "core/structures/registry.h"
#include "core/structures/wrap.h"
#include "render/picture.h"
#include "render/sheets_pdf.h"
#include <CLI/CLI.hpp>
#include <QGuiApplication>
#include <cstdlib>
#include <fmt/format.h>

namespace hinge {
namespace {

int refuse(const Error& error) {
  fmt::print(stderr, "hinge-lantern-cli: {}\n", error.text());
  return kUnusable;
}

/// Qt's painting for pictures and PDF; it needs fonts but never a screen.
class PaintingSession {
public:
  PaintingSession() {
    if (!std::getenv("QT_QPA_PLATFORM")) setenv("QT_QPA_PLATFORM", "offscreen", 1);
    // The offscreen platform asks for a runtime folder only to warn that there is none.
    if (!std::getenv("XDG_RUNTIME_DIR")) qputenv("QT_LOGGING_RULES", "qt.core.qstandardpaths=false;default.warning=false");
    m_application.emplace(m_count, m_arguments);
  }

private:
  int m_count = 1;
  char m_name[18] = "hinge-lantern-cli";
  char* m_arguments[2] = {m_name, nullptr};
  std::optional<QGuiApplication> m_application;
};

struct Options {
  std::string file, out, kind, seat, id, fold = "side", base = "single-fold", format, finding;
  std::vector<std::string> sets, files, hold, give;
  int columns = 3, steps = 0, size = 400;
  double width = 0, height = 0, step = 10, wrap = 0;
  std::optional<double> open;
  bool json = false, all = false;
  std::string target() const { return out.empty() ? file : out; }
};

/// "key=value" with lengths in mm (or with a unit: 1 1/2in) and angles in degrees.
Result<ParameterValues> parseSets(const std::vector<std::string>& sets, ParameterTable table, std::string_view owner) {
  ParameterValues values;
  for (const std::string& set : sets) {
    const auto equals = set.find('=');
    if (equals == std::string::npos) return Error{"usage", "must be key=value", fmt::format("--set {}", set)};
    const std::string key = set.substr(0, equals);
    const ParameterSpec* spec = findSpec(table, key);
    if (!spec) return Error{"value.unknown", fmt::format("{} has no parameter \"{}\"", owner, key), ""};
    const auto value = spec->unit == ParameterUnit::Millimetre ? parseLength_mm(std::string_view(set).substr(equals + 1), LengthUnit::Millimetre)
                                                               : parseAngle_deg(std::string_view(set).substr(equals + 1));
    if (!value) return Error{value.error().code, value.error().message, key};
    values[key] = *value;
  }
  return values;
}

Result<ParameterValues> parseSets(const std::vector<std::string>& sets, std::string_view kindKey) {
  const StructureKind* kind = findStructureKind(kindKey);
  if (!kind) return Error{"structure.unknown", fmt::format("there is no structure kind \"{}\"", kindKey), ""};
  return parseSets(sets, kind->parameters, kindKey);
}

int listStructures(const Options& o) {
  if (o.json) {
    fmt::print("{}", kindsToJson());
    return kFine;
  }
  for (const StructureKind* kind : structureKinds()) {
    fmt::print("{}  {}: {}\n", kind->key, kind->label, kind->summary);
    for (const ParameterSpec& p : kind->parameters)
      fmt::print("    {:9} {:16} {:>7} {:5} {} to {}  {}\n", p.key, p.label, formatNumber(p.start, 3), unitKey(p.unit), formatNumber(p.least, 3), formatNumber(p.most, 3), p.meaning);
  }
  return kFine;
}

/// An edit is saved only when the edited design can be assembled.
int saveEdited(const Design& edited, const std::string& path) {
  if (auto assembly = assembleDesign(edited); !assembly) return refuse(assembly.error());
  if (auto saved = saveDesign(edited, path); !saved) return refuse(saved.error());
  return kFine;
}

int newDesign(const Options& o) {
  Design d;
  d.card.width_mm = o.width, d.card.height_mm = o.height;
  d.card.fold = o.fold == "top" ? FoldSide::Top : FoldSide::Side;
  if (auto valid = validateCard(d.card); !valid) return refuse(valid.error());
  if (o.base != "single-fold") {
    const auto card = onBase(d.card, o.base);
    if (!card) return refuse(card.error());
    d.card = *card;
  }
  auto given = parseSets(o.sets, findBaseKind(d.card.kind)->parameters, d.card.kind);
  if (!given) return refuse(given.error());
  for (const auto& [key, value] : *given) d.card.values[key] = value;
  return saveEdited(d, o.file);
}

int listSeats(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  auto assembly = assembleDesign(*d);
  if (!assembly) return refuse(assembly.error());
  if (o.json) fmt::print("{}", seatsToJson(*assembly));
  else
    for (const Seat& seat : assembly->seats) fmt::print("{:16} {:36} {} mm\n", seat.key, seat.label, formatNumber(seat.length_mm, 3));
  return kFine;
}

int addOne(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  auto given = parseSets(o.sets, o.kind);
  if (!given) return refuse(given.error());
  auto added = addProposed(*d, o.kind, o.seat, *given);
  if (!added) return refuse(added.error());
  const int code = saveEdited(added->design, o.target());
  if (code == kFine) fmt::print("{}\n", added->id.text());
  return code;
}

Result<StructureId> idIn(const Design& d, const std::string& text) {
  const auto id = structureIdFromText(text);
  if (!id || !d.find(*id)) return Error{"structure.missing", fmt::format("there is no structure \"{}\"", text), ""};
  return *id;
}

int setOne(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  if (o.id == "card") { // sizes of the base
    auto given = parseSets(o.sets, findBaseKind(d->card.kind)->parameters, d->card.kind);
    if (!given) return refuse(given.error());
    Design edited = *d;
    for (const auto& [key, value] : *given) edited.card.values[key] = value;
    return saveEdited(edited, o.target());
  }
  auto id = idIn(*d, o.id);
  if (!id) return refuse(id.error());
  auto values = parseSets(o.sets, parametersOf(*d->find(*id)), d->find(*id)->kind);
  if (!values) return refuse(values.error());
  auto edited = setValues(*d, *id, *values);
  return edited ? saveEdited(*edited, o.target()) : refuse(edited.error());
}

/// Takes what was worked into a free piece over into the file.
int saveWork(const Design& d, StructureId id, const Result<PieceWork>& work, const std::string& path) {
  if (!work) return refuse({work.error().code, work.error().message, work.error().place.empty() ? id.text() : work.error().place});
  auto edited = setWork(d, id, *work);
  return edited ? saveEdited(*edited, path) : refuse(edited.error());
}

/// "card.hinge s2 10, 36 1/4in, 66": the scores of a free piece from its left end.
int scoresOf(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  auto id = idIn(*d, o.id);
  if (!id) return refuse(id.error());
  const StructureItem& item = *d->find(*id);
  if (!item.work) return refuse({"work.missing", "is no free piece", o.id});
  if (o.sets.empty()) {
    for (const ScoreMark& mark : scoreMarks(*item.work)) fmt::print("{:>9} mm  {}\n", formatNumber(mark.low_mm, 3), workKey(item.work->lines[mark.line].kind));
    return kFine;
  }
  std::vector<double> places;
  for (const std::string& set : o.sets) {
    std::string_view rest = set;
    while (!rest.empty()) {
      const auto comma = rest.find(',');
      const std::string_view part = rest.substr(0, comma);
      rest = comma == std::string_view::npos ? std::string_view() : rest.substr(comma + 1);
      if (part.find_first_not_of(' ') == std::string_view::npos) continue;
      const auto place = parseLength_mm(part, LengthUnit::Millimetre);
      if (!place) return refuse(place.error());
      places.push_back(*place);
    }
  }
  return saveWork(*d, *id, withScores(*item.work, places), o.target());
}

int solveOne(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  auto id = idIn(*d, o.id);
  if (!id) return refuse(id.error());
  if (!d->find(*id)->work) return refuse({"work.missing", "is no free piece", o.id});
  if (o.wrap > 0) return saveWork(*d, *id, wrappedRound(*d, *id, o.wrap), o.target());
  if (o.steps > 0) return saveWork(*d, *id, evenSteps(*d, *id, o.steps), o.target());
  auto assembly = assembleDesign(*d);
  if (!assembly) return refuse(assembly.error());
  const Motion motion = Motion::trace(std::make_shared<const Assembly>(std::move(assembly).value()));
  if (shutGap_mm(*id, motion) < kExactClosure) {
    fmt::print("{} lies flat exactly as it is\n", id->text());
    return kFine;
  }
  const auto found = solveShut(*d, motion, *id);
  if (!found) return refuse({"mend.none", "no single width makes it lie flat", o.id});
  auto edited = applyMend(*d, *found);
  if (!edited) return refuse(edited.error());
  fmt::print("{}\n", describe(*found, *d));
  return saveEdited(*edited, o.target());
}

/// "fit card.hinge card 594 --hold card.rest": another sheet, or another length of one free piece.
int fitOne(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  std::optional<StructureId> piece;
  if (o.id != "card") {
    auto id = idIn(*d, o.id);
    if (!id) return refuse(id.error());
    piece = *id;
  }
  const auto rows = lengthRows(*d, piece);
  if (o.sets.empty()) {
    const auto length = flatLength_mm(*d, piece);
    if (!length) return refuse(length.error());
    fmt::print("flat length {} mm\n", formatNumber(*length, 3));
    for (const LengthRow& row : rows) fmt::print("{:5} {:24} {:>9} mm  {}\n", row.held ? "held" : "gives", row.key, formatNumber(row.value_mm, 3), row.label);
    return kFine;
  }
  const auto length = parseLength_mm(o.sets.front(), LengthUnit::Millimetre);
  if (!length) return refuse(length.error());
  std::set<std::string> held(o.hold.begin(), o.hold.end());
  for (const LengthRow& row : rows)
    if (row.held && std::ranges::find(o.give, row.key) == o.give.end()) held.insert(row.key);
  const auto fitted = fittedTo(*d, piece, *length, held);
  if (!fitted) return refuse(fitted.error());
  const int code = saveEdited(fitted->design, o.target());
  if (code == kFine) fmt::print("what gives has grown to {} %\n", formatNumber(100 * fitted->factor, 2));
  return code;
}

int orderOf(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  auto assembled = assembleDesign(*d);
  if (!assembled) return refuse(assembled.error());
  const auto assembly = std::make_shared<const Assembly>(std::move(assembled).value());
  const AssemblyOrder order = assemblyOrder(Motion::trace(assembly), radians(d->card.display_deg));
  if (o.json) {
    fmt::print("{}", orderToJson(order, *d, *assembly));
    return order.unreachable.empty() ? kFine : kSpoiled;
  }
  const auto lines = describe(order, *d, *assembly);
  for (std::size_t k = 0; k < lines.size(); ++k) fmt::print("{:>4} {}\n", k < order.steps.size() ? fmt::format("{}.", k + 1) : "x", lines[k]);
  return order.unreachable.empty() ? kFine : kSpoiled;
}

int removeOne(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  auto id = idIn(*d, o.id);
  if (!id) return refuse(id.error());
  auto edited = removeStructure(*d, *id);
  return edited ? saveEdited(*edited, o.target()) : refuse(edited.error());
}

int check(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  auto analysis = analyse(*d);
  if (!analysis) return refuse(analysis.error());
  if (o.json) fmt::print("{}", analysisToJson(*analysis));
  else {
    fmt::print("{}: {}, mobility {}\n", o.file, verdictKey(analysis->verdict), analysis->motion->mobility());
    int number = 0;
    for (const Finding& f : analysis->findings) {
      fmt::print("{:3}  {}: {}\n", ++number, f.severity == Severity::Spoils ? "spoils the card" : "advice", describe(f, *d));
      if (f.mend) fmt::print("     mend: {}\n", describe(*f.mend, *d));
    }
  }
  return analysis->verdict == Verdict::Spoiled ? kSpoiled : kFine;
}

int mend(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  Design edited;
  int applied = 0;
  if (o.all || o.finding.empty()) {
    auto mended = mendAll(*d);
    if (!mended) return refuse(mended.error());
    edited = mended->design, applied = mended->applied;
  } else {
    auto analysis = analyse(*d);
    if (!analysis) return refuse(analysis.error());
    const auto number = parseAngle_deg(o.finding); // a plain number
    if (!number || *number < 1 || *number > static_cast<double>(analysis->findings.size()) || *number != std::floor(*number))
      return refuse({"usage", fmt::format("there is no finding {}; \"check\" lists {}", o.finding, analysis->findings.size()), "--finding"});
    const Finding& f = analysis->findings[static_cast<std::size_t>(*number) - 1];
    if (!f.mend) return refuse({"mend.none", fmt::format("no change of sizes was found that mends: {}", describe(f, *d)), ""});
    auto next = applyMend(*d, *f.mend);
    if (!next) return refuse(next.error());
    edited = std::move(next).value(), applied = 1;
  }
  if (const int code = saveEdited(edited, o.target()); code != kFine) return code;
  auto after = analyse(edited);
  if (!after) return refuse(after.error());
  fmt::print("{} mended, verdict {}\n", applied, verdictKey(after->verdict));
  for (const Finding& f : after->findings)
    if (f.severity == Severity::Spoils) fmt::print("not mended: {}\n", describe(f, edited));
  return after->verdict == Verdict::Spoiled ? kSpoiled : kFine;
}

Result<Motion> motionOf(const std::string& file, Design& design) {
  auto d = loadDesign(file);
  if (!d) return d.error();
  design = *d;
  auto assembly = assembleDesign(design);
  if (!assembly) return assembly.error();
  return Motion::trace(std::make_shared<const Assembly>(std::move(assembly).value()));
}

int sweep(const Options& o) {
  if (!(o.step >= 0.01 && o.step <= 180)) return refuse({"usage", "must be from 0.01 to 180 degrees", "--step"});
  Design d;
  auto motion = motionOf(o.file, d);
  if (!motion) return refuse(motion.error());
  std::vector<double> openings;
  for (int k = 0; k * o.step <= 180 + 1e-9; ++k) openings.push_back(std::min(180.0, k * o.step));
  if (o.json) fmt::print("{}", sweepToJson(*motion, d, openings));
  else
    for (double t : openings) fmt::print("{:7} deg  residual {:.2e} mm\n", formatNumber(t, 2), motion->poseAt(radians(t)).residual_mm);
  return kFine;
}

int exportFile(const Options& o) {
  if (o.open && !(*o.open >= 0 && *o.open <= 180)) return refuse({"usage", "must be from 0 to 180 degrees", "--open"});
  Design d;
  auto motion = motionOf(o.file, d);
  if (!motion) return refuse(motion.error());
  Result<void> written;
  std::optional<PaintingSession> painting;
  if (o.format == "pdf" || o.format == "png") painting.emplace();
  if (o.format == "svg") written = writeFile(o.out, piecesToSvg(motion->assembly(), d));
  else if (o.format == "pdf") written = writeSheetsPdf(motion->assembly(), d, o.out);
  else if (o.format == "png") written = writePicture(stagePicture(*motion, d.card, radians(o.open.value_or(100)), {1200, 900}), o.out);
  else if (o.format == "obj") {
    auto text = poseToObj(*motion, o.open.value_or(100));
    if (!text) return refuse(text.error());
    written = writeFile(o.out, *text);
  } else {
    std::vector<double> openings;
    if (o.open) openings.push_back(*o.open);
    else
      for (double t : kFoldFrames_deg) {
        if (radians(t) >= motion->low_rad() && radians(t) <= motion->high_rad()) openings.push_back(t);
        else fmt::print(stderr, "hinge-lantern-cli: left out the frame at {} degrees, which the design does not reach\n", t);
      }
    auto text = motionToFold(*motion, openings);
    if (!text) return refuse(text.error());
    written = writeFile(o.out, *text);
  }
  return written ? kFine : refuse(written.error());
}

int gallery(const Options& o) {
  if (!(o.columns >= 1 && o.columns <= 12)) return refuse({"usage", "must be from 1 to 12", "--columns"});
  PaintingSession painting;
  std::vector<Motion> motions;
  std::vector<Design> designs;
  motions.reserve(o.files.size());
  for (const std::string& file : o.files) {
    Design d;
    auto motion = motionOf(file, d);
    if (!motion) return refuse(motion.error());
    motions.push_back(std::move(motion).value()), designs.push_back(std::move(d));
  }
  std::vector<GalleryCard> cards;
  for (std::size_t k = 0; k < motions.size(); ++k)
    cards.push_back({&motions[k], designs[k].card, std::clamp(radians(o.open.value_or(designs[k].card.display_deg)), motions[k].low_rad(), motions[k].high_rad()), QString::fromStdString(designs[k].title)});
  const auto written = writePicture(galleryPicture(cards, {o.size, o.size * 3 / 4}, o.columns), o.out);
  return written ? kFine : refuse(written.error());
}

} // namespace

int runCommandLine(int argc, char** argv) {
  CLI::App app{"Pop-up card engineering: build, check, mend and cut. Lengths are mm unless they carry a unit (1 1/2in)."};
  app.name("hinge-lantern-cli");
  app.require_subcommand(1);
  Options o;
  int (*chosen)(const Options&) = nullptr;
  const auto verb = [&](const char* name, const char* text, int (*run)(const Options&)) {
    CLI::App* sub = app.add_subcommand(name, text);
    sub->callback([&chosen, run] { chosen = run; });
    return sub;
  };
  const auto withFile = [&](CLI::App* sub) {
    sub->add_option("file", o.file, "project file (.hinge)")->required();
    return sub;
  };
  verb("structures", "list every base and structure kind with its parameters", listStructures)->add_flag("--json", o.json, "as JSON");
  CLI::App* create = verb("new", "make an empty card", newDesign);
  create->add_option("out", o.file, "project file to write")->required();
  create->add_option("--width", o.width, "finished (shut) width in mm")->required();
  create->add_option("--height", o.height, "finished (shut) height in mm")->required();
  create->add_option("--fold", o.fold, "edge with the fold")->check(CLI::IsMember({"top", "side"}));
  create->add_option("--base", o.base, "kind of base, see \"structures\"");
  create->add_option("--set", o.sets, "sizes of the base, key=value ...")->expected(1, -1);
  withFile(verb("seats", "list the folds on which a structure can stand", listSeats))->add_flag("--json", o.json, "as JSON");
  CLI::App* add = withFile(verb("add", "put a structure on a seat; prints its id", addOne));
  add->add_option("kind", o.kind, "structure kind, see \"structures\"")->required();
  add->add_option("--on", o.seat, "seat id, see \"seats\"")->required();
  add->add_option("--set", o.sets, "key=value ...")->expected(1, -1);
  add->add_option("-o,--out", o.out, "write here instead of changing the file");
  CLI::App* set = withFile(verb("set", "change parameters of a structure", setOne));
  set->add_option("id", o.id, "structure id (s1, s2, ...), or \"card\" for the sizes of the base")->required();
  set->add_option("values", o.sets, "key=value ...")->required()->expected(1, -1);
  set->add_option("-o,--out", o.out, "write here instead of changing the file");
  CLI::App* scores = withFile(verb("scores", "show or change the scores of a free piece, read from its left end", scoresOf));
  scores->add_option("id", o.id, "structure id")->required();
  scores->add_option("places", o.sets, "places from the left end, parted by commas")->expected(0, -1);
  scores->add_option("-o,--out", o.out, "write here instead of changing the file");
  CLI::App* solve = withFile(verb("solve", "make a free piece lie flat in the shut card, or even steps", solveOne));
  solve->add_option("id", o.id, "structure id")->required();
  solve->add_option("--steps", o.steps, "score it as this many even steps between the two pages")->check(CLI::Range(1, 10));
  solve->add_option("--wrap", o.wrap, "fold it as a strap round the panel it lies on, closed by an overlap of this many mm")->check(CLI::Range(3.0, 60.0));
  solve->add_option("-o,--out", o.out, "write here instead of changing the file");
  CLI::App* fit = withFile(verb("fit", "fit the card's sheet, or a free piece, to another flat length; without one: list what is held and what gives", fitOne));
  fit->add_option("id", o.id, "\"card\", or the id of a free piece")->required();
  fit->add_option("length", o.sets, "flat length")->expected(0, 1);
  fit->add_option("--hold", o.hold, "lengths to hold")->expected(1, -1);
  fit->add_option("--give", o.give, "held lengths that may give")->expected(1, -1);
  fit->add_option("-o,--out", o.out, "write here instead of changing the file");
  CLI::App* remove = withFile(verb("remove", "take a structure away with everything on it", removeOne));
  remove->add_option("id", o.id, "structure id")->required();
  remove->add_option("-o,--out", o.out, "write here instead of changing the file");
  withFile(verb("order", "an order of work in which every joint can be reached; exit 1 when there is none", orderOf))->add_flag("--json", o.json, "as JSON");
  withFile(verb("check", "judge the design; exit 1 when something spoils the card", check))->add_flag("--json", o.json, "as JSON");
  CLI::App* mending = withFile(verb("mend", "apply proposed changes", mend));
  mending->add_option("--finding", o.finding, "number of one finding as \"check\" lists them");
  mending->add_flag("--all", o.all, "all that can be mended");
  mending->add_option("-o,--out", o.out, "write here")->required();
  CLI::App* sweeping = withFile(verb("sweep", "panel corners along the opening", sweep));
  sweeping->add_option("--step", o.step, "degrees between openings (10)");
  sweeping->add_flag("--json", o.json, "as JSON");
  CLI::App* exporting = withFile(verb("export", "write cutting files, folded frames or a picture", exportFile));
  exporting->add_option("--to", o.format, "format")->required()->check(CLI::IsMember({"svg", "pdf", "fold", "obj", "png"}));
  exporting->add_option("--open", o.open, "opening in degrees (picture, model, folded frame)");
  exporting->add_option("-o,--out", o.out, "file to write")->required();
  CLI::App* pictures = verb("gallery", "one picture of several cards", gallery);
  pictures->add_option("files", o.files, "project files")->required()->expected(1, -1);
  pictures->add_option("--columns", o.columns, "cards in a row (3)");
  pictures->add_option("--size", o.size, "width of one picture in pixels (400)")->check(CLI::Range(80, 2000));
  pictures->add_option("--open", o.open, "opening in degrees (as each card is shown)");
  pictures->add_option("-o,--out", o.out, "picture to write")->required();
  try {
    app.parse(argc, argv);
  } catch (const CLI::Success& e) {
    return app.exit(e);
  } catch (const CLI::ParseError& e) {
    app.exit(e);
    return kUnusable;
  }
  return chosen(o);
}

} // namespace hinge
