// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "cli/options.h"
#include <CLI/CLI.hpp>
#include <cstring>
#include <fmt/format.h>
#include <system_error>

namespace hinge {
namespace {

/// The grammar of the command line: verbs with their arguments, and the verb that was chosen.
class Grammar {
public:
  Grammar() {
    m_app.name("hinge-lantern-cli");
    m_app.require_subcommand(1);
    addLists();
    addEdits();
    addPieceWork();
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
  int runVerb() const { return m_chosen(m_options); }

private:
  using Verb = int (*)(const Options&);

  CLI::App* verb(const char* name, const char* text, Verb run) {
    CLI::App* sub = m_app.add_subcommand(name, text);
    sub->callback([this, run] { m_chosen = run; });
    return sub;
  }
  CLI::App* onFile(const char* name, const char* text, Verb run) {
    CLI::App* sub = verb(name, text, run);
    sub->add_option("file", o.file, "project file (.hinge)")->required();
    return sub;
  }
  void mayGoElsewhere(CLI::App* sub) {
    sub->add_option("-o,--out", o.out, "write here instead of changing the file");
  }
  void json(CLI::App* sub) { sub->add_flag("--json", o.json, "as JSON"); }

  void addLists() {
    json(verb("structures", "list every base and structure kind with its parameters",
              listStructures));
    json(onFile("seats", "list the folds on which a structure can stand", listSeats));
  }

  void addEdits() {
    CLI::App* create = verb("new", "make an empty card", newDesign);
    create->add_option("out", o.file, "project file to write")->required();
    create->add_option("--width", o.width, "finished (shut) width")->required();
    create->add_option("--height", o.height, "finished (shut) height")->required();
    create->add_option("--unit", o.unit, "unit of the card")
        ->check(CLI::IsMember({"mm", "cm", "in"}));
    create->add_option("--fold", o.fold, "edge with the fold")
        ->check(CLI::IsMember({"top", "side"}));
    create->add_option("--base", o.base, "kind of base, see \"structures\"");
    create->add_option("--set", o.sets, "sizes of the base, key=value ...")->expected(1, -1);
    create->add_flag("--force", o.force, "replace a file that is there");
    CLI::App* add = onFile("add", "put a structure on a seat; prints its id", addOne);
    add->add_option("kind", o.kind, "structure kind, see \"structures\"")->required();
    add->add_option("--on", o.seat, "seat id, see \"seats\"")->required();
    add->add_option("--set", o.sets, "key=value ...")->expected(1, -1);
    mayGoElsewhere(add);
    CLI::App* set = onFile("set", "change parameters of a structure", setOne);
    set->add_option("id", o.id,
                    "structure id (s1, s2, ...), or \"card\" for its base's sizes, width, height, "
                    "display_deg, "
                    "open_by_deg and rests (page or edge)")
        ->required();
    set->add_option("values", o.sets, "key=value ...")->required()->expected(1, -1);
    mayGoElsewhere(set);
    CLI::App* remove = onFile("remove", "take a structure away with everything on it", removeOne);
    remove->add_option("id", o.id, "structure id")->required();
    mayGoElsewhere(remove);
  }

  void addPieceWork() {
    CLI::App* scores = onFile(
        "scores", "show or change the scores of a free piece, read from its left end", scoresOf);
    scores->add_option("id", o.id, "structure id")->required();
    scores
        ->add_option("places", o.sets,
                     "places from the left end, parted by commas; \"none\" takes all away")
        ->expected(0, -1);
    mayGoElsewhere(scores);
    CLI::App* solve =
        onFile("solve", "make a free piece lie flat in the shut card, or even steps", solveOne);
    solve->add_option("id", o.id, "structure id")->required();
    solve->add_option("--steps", o.steps, "score it as this many even steps between the two pages")
        ->check(CLI::Range(1, 10));
    m_wrap = solve->add_option(
        "--wrap", o.wrap,
        "fold it as a strap round the panel it lies on, closed by an overlap of this length");
    mayGoElsewhere(solve);
    CLI::App* fit = onFile("fit",
                           "fit the card's sheet, or a free piece, to another flat length; without "
                           "one: list what is held and what gives",
                           fitOne);
    fit->add_option("id", o.id, "\"card\", or the id of a free piece")->required();
    fit->add_option("length", o.sets, "flat length")->expected(0, 1);
    fit->add_option("--hold", o.hold, "lengths to hold")->expected(1, -1);
    fit->add_option("--give", o.give, "held lengths that may give")->expected(1, -1);
    mayGoElsewhere(fit);
  }

  void addJudgements() {
    json(onFile("order",
                "an order of work in which every joint can be reached; exit 1 when there is none",
                orderOf));
    CLI::App* checking =
        onFile("check", "judge the design; exit 1 when something spoils the card", check);
    checking->add_option("--mends", o.mends,
                         "seconds to look for mends after the verdict (2); 0: none are looked for");
    json(checking);
    CLI::App* mending = onFile("mend", "apply proposed changes", mend);
    m_finding = mending->add_option("--finding", o.finding,
                                    "number of one finding as \"check\" lists them");
    mending->add_flag("--all", o.all, "all that can be mended");
    mending->add_option("-o,--out", o.out, "write here")->required();
    CLI::App* sweeping = onFile("sweep", "panel corners along the opening", sweep);
    sweeping->add_option("--step", o.step, "degrees between openings (10)");
    json(sweeping);
  }

  void addFiles() {
    CLI::App* exporting =
        onFile("export", "write cutting files, folded frames or a picture", exportFile);
    exporting->add_option("--to", o.format, "format")
        ->required()
        ->check(CLI::IsMember({"svg", "pdf", "fold", "obj", "png"}));
    m_open = exporting->add_option("--open", o.open,
                                   "opening in degrees (picture, model, folded frame)");
    exporting->add_option("-o,--out", o.out, "file to write")->required();
    CLI::App* pictures = verb("gallery", "one picture of several cards", gallery);
    pictures->add_option("files", o.files, "project files")->required()->expected(1, -1);
    pictures->add_option("--columns", o.columns, "cards in a row (3)");
    pictures->add_option("--size", o.size, "width of one picture in pixels (400)")
        ->check(CLI::Range(80, 2000));
    m_galleryOpen =
        pictures->add_option("--open", o.open, "opening in degrees (as each card is shown)");
    pictures->add_option("-o,--out", o.out, "picture to write")->required();
  }

  CLI::App m_app{"Pop-up card engineering: build, check, mend and cut. Lengths may carry a unit "
                 "(95mm, 9.5 cm, 1 1/2in); without one they are in the card's own."};
  Options m_options;
  Options& o = m_options; ///< short, as the grammar reads better so
  Verb m_chosen = nullptr;
  const CLI::Option *m_open = nullptr, *m_galleryOpen = nullptr, *m_finding = nullptr,
                    *m_wrap = nullptr;
};

/// What was printed must have arrived: a full disk or a closed pipe shows only now.
bool allWasWritten() {
  std::cout.flush();
  return std::fflush(stdout) == 0 && !std::ferror(stdout) && std::cout.good();
}

} // namespace

int runCommandLine(int argc, char** argv) {
  const auto lost = [](const char* why) {
    return refuse({"output.unwritable", fmt::format("cannot be written: {}", why), "output"});
  };
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
