// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "cli/application.h"
#include "cli/options.h"
#include "core/io/file_lock.h"
#include "core/making/adhesive.h"
#include "words/words.h"
#include <CLI/CLI.hpp>
#include <cstring>
#include <fmt/format.h>
#include <memory>
#include <set>
#include <system_error>

namespace hinge {
namespace {

std::string help(const char* key) {
  return say(Text(key));
}

/// A whole number of a range; what the library would say of it is English.
CLI::Validator between(int least, int most) {
  CLI::Range range(least, most);
  return range.description(fmt::format("{}..{}", least, most));
}

/// The grammar of the command line: verbs with their arguments, and the verb that was chosen.
class Grammar {
public:
  Grammar() {
    m_app.name("hinge-lantern-cli");
    m_app.require_subcommand(1);
    translateLabels();
    addLists();
    addEdits();
    addPieceWork();
    addDressing();
    addCutting();
    addJudgements();
    addFiles();
  }
  /// The exit code when parsing ends it all: help, or something that is no command.
  std::optional<int> parse(int argc, char** argv) {
    try {
      m_app.parse(argc, argv);
    } catch (const CLI::Success& e) {
      return m_app.exit(e);
    } catch (const CLI::ParseError& e) {
      m_app.exit(e);
      return kUnusable;
    }
    const auto given = [](const CLI::Option* option) { return option->count() > 0; };
    m_options.openGiven = given(m_open) || given(m_galleryOpen);
    m_options.findingGiven = given(m_finding), m_options.wrapGiven = given(m_wrap);
    return std::nullopt;
  }
  /// Two command lines that change one card at once wait for one another: each works on what the
  /// one before has left.
  int runVerb() const {
    if (const auto may = mayWrite(); !may) return refuse(may.error());
    FileLock lock;
    if (m_edits.contains(m_verb)) lock = FileLock::of(m_options.file);
    return m_chosen(m_options);
  }

private:
  using Verb = int (*)(const Options&);

  /// A name that was given must be one, and an edit replaces no other card unless it is told to.
  Result<void> mayWrite() const {
    for (const CLI::Option* option : m_verb->get_options())
      for (const std::string& value : option->results())
        if (value.empty() && option->get_name().starts_with('-'))
          return Error{"usage/empty", option->get_name()};
    const bool elsewhere = m_edits.contains(m_verb) && !m_options.out.empty() &&
                           !isSameFile(m_options.out, m_options.file);
    if (elsewhere && !m_options.force && fileExists(m_options.out))
      return Error{"file.exists", m_options.out};
    return {};
  }

  /// Headings and marks of the help, which the library writes itself.
  void translateLabels() {
    const auto formatter = std::make_shared<CLI::Formatter>();
    for (const char* label : {"Usage", "Options", "Subcommands", "Positionals", "OPTIONS",
                              "SUBCOMMAND", "REQUIRED", "TEXT", "INT", "FLOAT"})
      formatter->label(label, help((std::string("help.label/") + label).c_str()));
    m_app.formatter(formatter);
    m_app.option_defaults()->group(help("help.label/Options"));
    m_app.set_help_flag("-h,--help", help("help.help"));
    m_app.failure_message([](const CLI::App*, const CLI::Error& error) {
      return say(Error{{"usage/command-line", error.what()}, "hinge-lantern-cli"}) + "\n" +
             say(Text("usage/see-help")) + "\n";
    });
  }

  CLI::App* verb(const char* name, const std::string& text, Verb run) {
    CLI::App* sub = m_app.add_subcommand(name, text);
    sub->group(help("help.label/Subcommands"));
    sub->set_help_flag("-h,--help", help("help.help"));
    sub->callback([this, run, sub] { m_chosen = run, m_verb = sub; });
    return sub;
  }
  CLI::App* onFile(const char* name, const std::string& text, Verb run) {
    CLI::App* sub = verb(name, text, run);
    sub->add_option("file", o.file, help("help.project-file"))->required();
    return sub;
  }
  /// A verb that changes the card, or writes the changed one elsewhere.
  void mayGoElsewhere(CLI::App* sub) {
    sub->add_option("-o,--out", o.out, help("help.write-here-instead-of-changing"));
    mayReplace(sub);
    m_edits.insert(sub);
  }
  void mayReplace(CLI::App* sub) {
    sub->add_flag("--force", o.force, help("help.replace-a-file-that-is"));
  }
  void inUnit(CLI::App* sub, const char* what) {
    sub->add_option("--unit", o.unit, help(what))
        ->type_name(help("help.label/TEXT"))
        ->check(CLI::IsMember({"mm", "cm", "in"}));
  }
  /// A verb without a card: in which unit it reads and tells lengths.
  void told(CLI::App* sub) { inUnit(sub, "help.unit-told"); }
  void json(CLI::App* sub) { sub->add_flag("--json", o.json, help("help.as-json")); }

  void addLists() {
    CLI::App* structures =
        verb("structures", help("help.list-every-base-and-structure"), listStructures);
    told(structures);
    json(structures);
    json(onFile("seats", help("help.list-the-folds-on-which"), listSeats));
  }

  void addEdits() {
    CLI::App* create = verb("new", help("help.make-an-empty-card"), newDesign);
    create->add_option("out", o.file, help("help.project-file-to-write"))->required();
    create->add_option("--width", o.width, help("help.finished-shut-width"));
    create->add_option("--height", o.height, help("help.finished-shut-height"));
    create->add_option("--sheet", o.sheet, help("help.base-as-a-sheet"))->expected(1, -1);
    inUnit(create, "help.unit-of-the-card");
    create->add_option("--fold", o.fold, help("help.edge-with-the-fold"))
        ->type_name(help("help.label/TEXT"))
        ->check(CLI::IsMember({"top", "side"}));
    create->add_option("--base", o.base, help("help.kind-of-base-see-structures"));
    create->add_option("--set", o.sets, help("help.sizes-of-the-base-keyvalue"))->expected(1, -1);
    create->add_flag("--force", o.force, help("help.replace-a-file-that-is"));
    CLI::App* add = onFile("add", help("help.put-a-structure-on-a"), addOne);
    add->add_option("kind", o.kind, help("help.structure-kind-see-structures"))->required();
    add->add_option("--on", o.seat, help("help.seat-id-see-seats"))->required();
    add->add_option("--set", o.sets, help("help.keyvalue"))->expected(1, -1);
    add->add_option("--sheet", o.sheet, help("help.piece-as-a-sheet"))->expected(1, -1);
    add->add_option("--card", o.card, help("help.card-on-a-card"));
    mayGoElsewhere(add);
    CLI::App* set = onFile("set", help("help.change-parameters-of-a-structure"), setOne);
    set->add_option("id", o.id, help("help.structure-id-s1-s2-or"))->required();
    set->add_option("values", o.sets, help("help.keyvalue"))->required()->expected(1, -1);
    mayGoElsewhere(set);
    CLI::App* small = onFile("small", help("help.small-card"), smallCard);
    small->add_option("id", o.id, help("help.structure-id"))->required();
    small->add_option("--card", o.card, help("help.small-card-instead"));
    small->add_option("-o,--out", o.out, help("help.small-card-out"));
    mayReplace(small);
    m_edits.insert(small);
    CLI::App* remove = onFile("remove", help("help.take-a-structure-away-with"), removeOne);
    remove->add_option("id", o.id, help("help.structure-id"))->required();
    mayGoElsewhere(remove);
  }

  void addPieceWork() {
    CLI::App* sheet = onFile("sheet", help("help.work-on-a-sheet"), sheetVerb);
    sheet->add_option("target", o.id, help("help.which-sheet"))->required();
    sheet->add_option("words", o.sets, help("help.sentences"))->expected(0, -1);
    sheet->footer(help("help.sheet-sentences"));
    mayGoElsewhere(sheet);
    CLI::App* part = onFile("part", help("help.part-a-piece"), partPiece);
    part->add_option("id", o.id, help("help.structure-id"))->required();
    part->add_option("line", o.at, help("help.line-of-it"))->required();
    mayGoElsewhere(part);
    CLI::App* join = onFile("join", help("help.join-pieces"), joinPieces);
    join->add_option("id", o.id, help("help.structure-id"))->required();
    join->add_option("edge", o.at, help("help.edge-of-it"))->required();
    join->add_option("other", o.source, help("help.other-piece"))->required();
    join->add_option("edge-of-other", o.as, help("help.edge-of-it"))->required();
    mayGoElsewhere(join);
    CLI::App* bring = onFile("import", help("help.bring-paper-in"), importFile);
    bring->add_option("source", o.source, help("help.drawing"))->required();
    bring->add_option("--as", o.as, help("help.import-as"))
        ->type_name(help("help.label/TEXT"))
        ->check(CLI::IsMember({"piece", "base", "opening", "scores", "list"}))
        ->required();
    bring->add_option("--into", o.id, help("help.import-into"));
    bring->add_option("--on", o.seat, help("help.seat-id-see-seats"));
    bring->add_option("--lines", o.uses, help("help.import-lines"))->expected(1, -1);
    bring->add_option("--number", o.number, help("help.import-number"))
        ->type_name(help("help.label/INT"));
    bring->add_option("--at", o.at, help("help.import-at"));
    mayGoElsewhere(bring);
    CLI::App* scores = onFile("scores", help("help.show-or-change-the-scores"), scoresOf);
    scores->add_option("id", o.id, help("help.structure-id"))->required();
    scores->add_option("places", o.sets, help("help.places-from-the-left-end"))->expected(0, -1);
    mayGoElsewhere(scores);
    CLI::App* rules = onFile("rules", help("help.keep-places-by-rules"), keepByRules);
    rules->add_option("id", o.id, help("help.only-this-piece"));
    mayGoElsewhere(rules);
    CLI::App* solve = onFile("solve", help("help.make-a-free-piece-lie"), solveOne);
    solve->add_option("id", o.id, help("help.structure-id"))->required();
    solve->add_option("--steps", o.steps, help("help.score-it-as-this-many"))
        ->type_name(help("help.label/INT"))
        ->check(between(1, 10));
    m_wrap = solve->add_option("--wrap", o.wrap, help("help.fold-it-as-a-strap"));
    mayGoElsewhere(solve);
    CLI::App* fit = onFile("fit", help("help.fit-the-cards-sheet-or"), fitOne);
    fit->add_option("id", o.id, help("help.card-or-the-id-of"))->required();
    fit->add_option("length", o.sets, help("help.flat-length"))->expected(0, 1);
    fit->add_option("--hold", o.hold, help("help.lengths-to-hold"))->expected(1, -1);
    fit->add_option("--give", o.give, help("help.held-lengths-that-may-give"))->expected(1, -1);
    mayGoElsewhere(fit);
  }

  void addDressing() {
    CLI::App* papers = onFile("papers", help("help.papers"), papersVerb);
    papers->add_flag("--all", o.all, help("help.papers-all"));
    papers->add_option("--put", o.sets, help("help.papers-put"))->expected(1, -1);
    papers->add_option("--picture", o.picture, help("help.papers-picture"));
    papers->add_option("--wide", o.wide, help("help.papers-wide"));
    papers->add_flag("--mine", o.mine, help("help.papers-mine"));
    papers->add_option("--keep", o.hold, help("help.papers-keep"))->expected(1, -1);
    papers->add_option("--forget", o.uses, help("help.papers-forget"))->expected(1, -1);
    papers->add_option("--take-out", o.give, help("help.papers-take-out"))->expected(1, -1);
    mayGoElsewhere(papers);
    json(papers);
    json(onFile("faces", help("help.faces"), facesVerb));
    CLI::App* dress = onFile("dress", help("help.dress"), dressVerb);
    dress->add_option("faces", o.files, help("help.dress-faces"))->expected(0, -1);
    dress->add_option("--paper,--papers", o.papers, help("help.dress-papers"))->expected(1, -1);
    dress->add_option("--border,--borders", o.borders, help("help.dress-border"))->expected(1, -1);
    dress->add_option("--for", o.reach, help("help.dress-for"))
        ->type_name(help("help.label/TEXT"))
        ->check(CLI::IsMember({"face", "twins", "part", "alike"}));
    dress->add_option("--at-glue", o.atGlue, help("help.dress-at-glue"))
        ->type_name(help("help.label/TEXT"))
        ->check(CLI::IsMember({"under", "over", "around"}));
    dress->add_option("--turn", o.turn, help("help.dress-turn"));
    dress->add_flag("--round", o.round, help("help.dress-round"));
    dress->add_flag("--all-seen", o.allSeen, help("help.dress-all-seen"));
    dress->add_flag("--all-displayed", o.allDisplayed, help("help.dress-all-displayed"));
    dress->add_flag("--more", o.more, help("help.dress-more"));
    dress->add_flag("--bare", o.bare, help("help.dress-bare"));
    dress->add_option("--drop", o.drop, help("help.dress-drop"))->type_name(help("help.label/INT"));
    mayGoElsewhere(dress);
    CLI::App* topper = onFile("topper", help("help.topper"), topperVerb);
    topper->add_option("face", o.seat, help("help.topper-face"));
    topper->add_option("shape", o.kind, help("help.topper-shape"));
    topper->add_option("--paper", o.papers, help("help.topper-paper"))->expected(1);
    topper->add_option("--set", o.sets, help("help.topper-set"))->expected(1, -1);
    topper->add_option("--from", o.source, help("help.topper-from"));
    topper->add_flag("--remove", o.bare, help("help.topper-remove"));
    topper->add_flag("--shapes", o.all, help("help.topper-shapes"));
    mayGoElsewhere(topper);
    json(onFile("thickness", help("help.thickness"), thicknessVerb));
    CLI::App* mats = onFile("mats", help("help.mats"), matsVerb);
    mats->add_flag("--csv", o.csv, help("help.as-csv"));
    json(mats);
  }

  void addCutting() {
    CLI::App* rounding = onFile("round", help("help.round"), roundVerb);
    rounding->add_option("--to", o.to, help("help.round-to"))->required();
    rounding->add_option("--hold", o.hold, help("help.lengths-to-hold"))->expected(1, -1);
    rounding->add_flag("--apply", o.apply, help("help.round-apply"));
    mayGoElsewhere(rounding);
    json(rounding);
    CLI::App* bench = verb("bench", help("help.bench"), benchVerb);
    bench->add_option("--set", o.sets, help("help.bench-set"))->expected(1, -1);
    told(bench);
    json(bench);
    CLI::App* layout = onFile("layout", help("help.layout"), layoutVerb);
    layout->add_option("--for", o.tool, help("help.layout-for-bench"))
        ->type_name(help("help.label/TEXT"))
        ->check(CLI::IsMember({"trimmer", "machine"}));
    layout->add_option("--cards", o.cards, help("help.layout-cards"))
        ->type_name(help("help.label/INT"))
        ->check(between(1, 500));
    layout->add_flag("--from-stock", o.fromStock, help("help.layout-from-stock"));
    layout->add_option("--margin", o.margin, help("help.layout-margin"));
    layout->add_option("--gap", o.gap, help("help.layout-gap"));
    json(layout);
    CLI::App* splice = onFile("splice", help("help.splice"), spliceVerb);
    splice->add_option("--on", o.at, help("help.splice-on"));
    splice->add_option("--from", o.from, help("help.splice-from"));
    splice->add_flag("--level", o.level, help("help.splice-level"));
    splice->add_option("--overlap", o.overlap, help("help.splice-overlap"));
    splice->add_flag("--on-face", o.onFace, help("help.splice-on-face"));
    splice->add_option("--remove", o.drop, help("help.splice-remove"))
        ->type_name(help("help.label/INT"))
        ->check(between(1, 1000));
    splice->add_flag("--apply", o.apply, help("help.splice-apply"));
    splice->add_option("--margin", o.margin, help("help.layout-margin"));
    mayGoElsewhere(splice);
    json(splice);
    CLI::App* cut = onFile("cut", help("help.cut"), cutVerb);
    cut->add_option("--sheet", o.sheetNumber, help("help.cut-sheet"))
        ->type_name(help("help.label/INT"))
        ->check(between(1, 10000));
    cut->add_option("--for", o.tool, help("help.layout-for"))
        ->type_name(help("help.label/TEXT"))
        ->check(CLI::IsMember({"trimmer", "machine"}));
    cut->add_option("--cards", o.cards, help("help.layout-cards"))
        ->type_name(help("help.label/INT"))
        ->check(between(1, 500));
    cut->add_option("--to", o.device, help("help.cut-to"));
    cut->add_flag("--resume", o.resume, help("help.cut-resume"));
    cut->add_flag("--again", o.again, help("help.cut-again"));
    cut->add_flag("--squares", o.squares, help("help.cut-squares"));
    cut->add_option("--measured", o.measured, help("help.cut-measured"))->expected(4);
    json(cut);
    CLI::App* tables = onFile("scores-table", help("help.scores-table"), scoresTableVerb);
    tables->add_option("--fit", o.fit, help("help.scores-table-fit"));
    tables->add_option("--hold", o.hold, help("help.lengths-to-hold"))->expected(1, -1);
    tables->add_option("--piece", o.id, help("help.scores-table-piece"));
    tables->add_option("--set", o.sets, help("help.scores-table-set"))->expected(1, -1);
    tables->add_flag("--csv", o.csv, help("help.as-csv"));
    tables->add_flag("--text", o.text, help("help.as-text"));
    json(tables);
  }

  /// The maker's schools at glueing.
  void makingWays(CLI::App* planning) {
    planning->add_option("--closing", o.closing, help("help.plan-closing"))
        ->type_name(help("help.label/TEXT"))
        ->check(CLI::IsMember({"shut", "marks"}));
    std::vector<std::string> known;
    for (const AdhesiveFacts& facts : knownAdhesives())
      known.push_back(std::string(facts.key));
    const CLI::IsMember adhesives(known);
    for (const auto& [name, text, key] : {std::tuple{"--glue", &o.glue, "help.plan-glue"},
                                          std::tuple{"--moving", &o.moving, "help.plan-moving"},
                                          std::tuple{"--layers", &o.layersBy, "help.plan-layers"}})
      planning->add_option(name, *text, help(key))
          ->type_name(help("help.label/TEXT"))
          ->check(adhesives);
    planning->add_option("--drying", o.drying, help("help.plan-drying"))->expected(1, -1);
  }

  void addJudgements() {
    json(onFile("order", help("help.an-order-of-work-in"), orderOf));
    CLI::App* planning = onFile("plan", help("help.plan"), planVerb);
    makingWays(planning);
    planning->add_option("--copies", o.cards, help("help.plan-copies"))
        ->type_name(help("help.label/INT"))
        ->check(between(1, 500));
    planning->add_flag("--card-by-card", o.cardByCard, help("help.plan-card-by-card"));
    planning->add_flag("--text", o.text, help("help.as-text"));
    json(planning);
    CLI::App* step = onFile("step", help("help.step"), stepVerb);
    step->add_option("number", o.number, help("help.step-number"))->required();
    step->add_option("--picture", o.picture, help("help.step-picture"));
    mayReplace(step);
    step->add_option("--progress", o.progress, help("help.step-progress"))
        ->type_name(help("help.label/FLOAT"));
    makingWays(step);
    json(step);
    CLI::App* booklet = onFile("booklet", help("help.booklet"), bookletVerb);
    booklet->add_option("-o,--out", o.out, help("help.booklet-out"))->required();
    mayReplace(booklet);
    booklet->add_option("--page", o.page, help("help.booklet-page"))
        ->type_name(help("help.label/TEXT"))
        ->check(CLI::IsMember({"a5", "half-letter"}));
    booklet->add_flag("--stapled", o.stapled, help("help.booklet-stapled"));
    booklet->add_flag("--bare", o.bare, help("help.booklet-bare"));
    makingWays(booklet);
    CLI::App* checking = onFile("check", help("help.judge-the-design-exit-1"), check);
    checking->add_option("--mends", o.mends, help("help.seconds-to-look-for-mends"));
    json(checking);
    CLI::App* mending = onFile("mend", help("help.apply-proposed-changes"), mend);
    m_finding = mending->add_option("--finding", o.finding, help("help.number-of-one-finding-as"));
    mending->add_option("--way", o.way, help("help.mend-way"));
    mending->add_flag("--all", o.all, help("help.all-that-can-be-mended"));
    mending->add_option("-o,--out", o.out, help("help.write-here"))->required();
    mayReplace(mending);
    m_edits.insert(mending);
    CLI::App* sweeping = onFile("sweep", help("help.panel-corners-along-the-opening"), sweep);
    sweeping->add_option("--step", o.step, help("help.degrees-between-openings-10"));
    json(sweeping);
  }

  void addFiles() {
    CLI::App* exporting =
        onFile("export", help("help.write-cutting-files-folded-frames"), exportFile);
    exporting->add_option("--to", o.format, help("help.format"))
        ->required()
        ->type_name(help("help.label/TEXT"))
        ->check(CLI::IsMember({"svg", "dxf", "pdf", "fold", "obj", "png", "csv", "txt", "hpgl"}));
    exporting->add_option("--sheet", o.sheetNumber, help("help.export-sheet"))
        ->type_name(help("help.label/INT"))
        ->check(between(1, 10000));
    exporting->add_option("--for", o.tool, help("help.layout-for"))
        ->type_name(help("help.label/TEXT"))
        ->check(CLI::IsMember({"trimmer", "machine"}));
    exporting->add_option("--cards", o.cards, help("help.layout-cards"))
        ->type_name(help("help.label/INT"))
        ->check(between(1, 500));
    exporting->add_flag("--prints", o.prints, help("help.export-prints"));
    exporting->add_option("--lines", o.lines, help("help.export-lines"))
        ->type_name(help("help.label/TEXT"))
        ->check(CLI::IsMember({"over", "under"}));
    exporting->add_flag("--backs", o.backs, help("help.export-backs"));
    exporting->add_option("--page", o.page, help("help.export-page"))
        ->type_name(help("help.label/TEXT"))
        ->check(CLI::IsMember({"a4", "a3", "letter", "12x12"}));
    exporting->add_option("--only", o.only, help("help.export-only"))
        ->type_name(help("help.label/TEXT"))
        ->check(CLI::IsMember({"sheets", "tables"}));
    m_open = exporting->add_option("--open", o.open, help("help.opening-in-degrees-picture-model"));
    exporting->add_option("-o,--out", o.out, help("help.file-to-write"))->required();
    mayReplace(exporting);
    CLI::App* describing = onFile("describe", help("help.describe"), describePage);
    describing->add_option("-o,--out", o.out, help("help.write-here"));
    mayReplace(describing);
    CLI::App* reading = verb("read", help("help.read-a-page"), readPage);
    reading->add_option("page", o.id, help("help.page"))->required();
    reading->add_option("out", o.file, help("help.project-file-to-write"))->required();
    reading->add_flag("--force", o.force, help("help.replace-a-file-that-is"));
    CLI::App* pictures = verb("gallery", help("help.one-picture-of-several-cards"), gallery);
    pictures->add_option("files", o.files, help("help.project-files"))->required()->expected(1, -1);
    pictures->add_option("--columns", o.columns, help("help.cards-in-a-row-3"));
    pictures->add_option("--size", o.size, help("help.width-of-one-picture-in"))
        ->type_name(help("help.label/INT"))
        ->check(between(80, 2000));
    m_galleryOpen = pictures->add_option("--open", o.open, help("help.opening-in-degrees-as-each"));
    pictures->add_option("-o,--out", o.out, help("help.picture-to-write"))->required();
    mayReplace(pictures);
  }

  CLI::App m_app{help("help.program")};
  Options m_options;
  Options& o = m_options; ///< short, as the grammar reads better so
  Verb m_chosen = nullptr;
  const CLI::App* m_verb = nullptr;
  std::set<const CLI::App*> m_edits; ///< verbs that change a card
  const CLI::Option *m_open = nullptr, *m_galleryOpen = nullptr, *m_finding = nullptr,
                    *m_wrap = nullptr;
};

} // namespace

int runCommandLine(int argc, char** argv) {
  const auto lost = [](const char* why) { return refuse({{"file.unwritable/output", why}, ""}); };
  const Application application;
  try {
    Grammar grammar;
    const auto ended = grammar.parse(argc, argv);
    const int code = ended ? *ended : grammar.runVerb();
    return allWasWritten() ? code : lost(std::strerror(errno));
  } catch (const std::system_error& e) {
    return lost(e.what());
  }
}

} // namespace hinge
