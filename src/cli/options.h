// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "cli/commands.h"
#include "core/design/design.h"
#include "core/design/parameter.h"
#include "core/io/text_file.h"
#include "core/pieces/sheet_words.h"
#include <optional>
#include <string>
#include <vector>

namespace hinge {

/// What was typed, as text wherever the meaning depends on the card: a number without a unit is in
/// the card's own.
struct Options {
  std::string file, out, kind, seat, id, fold = "side", base = "single-fold", format, finding, unit;
  std::string way = "1"; ///< of several mends of a finding
  std::string width, height, wrap, open, mends = "2";
  std::string card;           ///< file of a card that stands on another one
  std::string source, as, at; ///< a drawing from outside, what it becomes, where it lies
  std::vector<std::string> sets, files, hold, give, sheet, uses;
  std::vector<std::string> papers, borders; ///< of layers
  std::string turn, reach, atGlue;          ///< empty: as usual
  std::string fit;                          ///< a flat length of the card
  std::string to;                           ///< a step of the maker's lattice
  std::string picture, wide = "100mm";      ///< of a paper that is put in
  bool mine = false;
  std::string tool, margin, gap; ///< of a layout; no tool: a machine, or what the bench has
  int sheetNumber = 0;           ///< of its sheets, from 1; 0: none asked for
  int cards = 1;
  std::vector<std::string> drying; ///< "wet-glue=5min"
  bool fromStock = false;
  std::string from, overlap; ///< of a splice
  bool level = false, onFace = false;
  std::string closing, glue, moving, layersBy; ///< schools of a plan
  std::string device;                          ///< path of a cutting machine
  std::vector<std::string> measured;           ///< of its test squares
  std::string lines, page, only;               ///< of a PDF: of what is printed, the printer's page
  bool prints = false, backs = false;
  bool cardByCard = false, stapled = false;
  std::string progress; ///< through a step, 0 to 1; empty: as tells most
  bool squares = false, resume = false, again = false;
  int drop = 0; ///< number of a rule, from 1
  bool csv = false, round = false, more = false, bare = false, allSeen = false;
  bool allDisplayed = false;
  int number = 1, columns = 3, steps = 0, size = 400;
  double step = 10;
  bool apply = false, text = false;
  bool json = false, all = false, force = false;
  /// Told apart from an option that was given an empty text.
  bool openGiven = false, findingGiven = false, wrapGiven = false;
  std::string target() const { return out.empty() ? file : out; }
  Replaces replaces() const { return force ? Replaces::Anything : Replaces::SameKind; }
};

/// Says something on stdout, as a line of its own.
void tell(const Text& text, const Design& design);
/// Says why on stderr, lengths in the unit, and returns the exit code for unusable input.
int refuse(const Error& error, LengthUnit unit = LengthUnit::Millimetre);

/// "key=value" by a parameter table; lengths without a unit are in `unit`, angles in degrees.
Result<ParameterValues> parseSets(const std::vector<std::string>& sets, ParameterTable table,
                                  std::string_view owner, LengthUnit unit);
/// A number of a range, or the reason why the text is none. `what` names the option.
Result<double> parseNumber(const std::string& text, double least, double most,
                           std::string_view what);
/// An opening in degrees, 0 to 180.
Result<double> parseOpening_deg(const std::string& text);
/// The structure of that name.
Result<StructureId> idIn(const Design& design, const std::string& text);
/// "a, b, c" for a message that says what there is.
std::string listed(const std::vector<std::string>& words);
/// What was printed has arrived: a full disk or a closed pipe shows only when it is written out.
bool allWasWritten();
/// An edit is saved only when the edited design can be assembled, and when what was said of it so
/// far has been heard.
int saveEdited(const Design& edited, const std::string& path);
/// The sheet after sentences as in core/pieces/sheet_words.h, given in one text or many, with ";"
/// between them.
Result<SheetInWork> workedBySentences(SheetInWork sheet, const std::vector<std::string>& words,
                                      LengthUnit unit);
/// Says what spoils the card and returns the exit code of that.
int tellVerdict(const Design& design);
/// Says what spoils the edited card, saves it, and returns the exit code of the verdict.
int saveAndTell(const Design& edited, const std::string& path);
/// Refuses to write a result over a file that it was made from.
Result<void> mayWriteTo(const std::string& target, const std::vector<std::string>& sources);

// The verbs, one function each; the return value is the exit code.
int listStructures(const Options& o);
int newDesign(const Options& o);
int listSeats(const Options& o);
int addOne(const Options& o);
int setOne(const Options& o);
int scoresOf(const Options& o);
int sheetVerb(const Options& o);
int importFile(const Options& o);
int partPiece(const Options& o);
int joinPieces(const Options& o);
int keepByRules(const Options& o);
int solveOne(const Options& o);
int fitOne(const Options& o);
int removeOne(const Options& o);
int smallCard(const Options& o);
int papersVerb(const Options& o);
int facesVerb(const Options& o);
int dressVerb(const Options& o);
int matsVerb(const Options& o);
int thicknessVerb(const Options& o);
int topperVerb(const Options& o);
int roundVerb(const Options& o);
int benchVerb(const Options& o);
int scoresTableVerb(const Options& o);
int layoutVerb(const Options& o);
int cutVerb(const Options& o);
int planVerb(const Options& o);
int stepVerb(const Options& o);
int bookletVerb(const Options& o);
int spliceVerb(const Options& o);
int orderOf(const Options& o);
int check(const Options& o);
int mend(const Options& o);
int sweep(const Options& o);
int exportFile(const Options& o);
int describePage(const Options& o);
int readPage(const Options& o);
int gallery(const Options& o);

} // namespace hinge
