// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/options.h"
#include "core/bases/base.h"
#include "core/checks/analysis.h"
#include "core/checks/fit_search.h"
#include "core/checks/propose.h"
#include "core/design/card_numbers.h"
#include "core/edits/dressing.h"
#include "core/edits/proportion.h"
#include "core/edits/sheet.h"
#include "core/edits/solve_piece.h"
#include "core/edits/wrap_round.h"
#include "core/io/design_json.h"
#include "core/io/text_file.h"
#include "core/model/snapshot.h"
#include "core/paper/envelope.h"
#include "core/structures/closure.h"
#include "core/structures/registry.h"
#include "words/words.h"
#include <algorithm>
#include <fmt/format.h>
#include <set>
#include <tuple>

// The verbs that change a design.

namespace hinge {
namespace {

/// A length of the new card: its own unit, or what is written behind the number.
Result<double> sizeOfCard(const std::string& text, LengthUnit unit, const char* what) {
  const auto length = parseLength_mm(text, unit);
  if (length) return length;
  return Error{length.error().message, what};
}

/// One of a list of words, or the refusal that lists them.
Result<std::string> oneOf(const std::vector<std::string>& known, const std::string& key,
                          const std::string& text) {
  if (std::ranges::find(known, text) != known.end()) return text;
  return Error{{"value.unknown/choice", key, text, listed(known)}, key};
}

std::vector<std::string> keysOf(const auto& list) {
  std::vector<std::string> keys;
  for (const auto& item : list)
    keys.emplace_back(item.key);
  return keys;
}

/// A choice of the card that is one of a list of words; false when the key is none of them.
Result<bool> setChoice(Design& d, const std::string& key, const std::string& text) {
  struct Choice {
    std::string_view key;
    std::vector<std::string> words;
    void (*set)(Design&, const std::string&);
  };
  static const Choice kAll[] = {
      {"unit",
       {"mm", "cm", "in"},
       [](Design& e, const std::string& word) { e = inUnit(e, *unitFromKey(word)); }},
      {"sheet", keysOf(knownSheets()),
       [](Design& e, const std::string& word) { e.settings.sheet = word; }},
      {"fold",
       {"side", "top"},
       [](Design& e, const std::string& word) {
         e.card.fold = word == "top" ? FoldSide::Top : FoldSide::Side;
       }},
      {"rests",
       {"page", "edge"},
       [](Design& e, const std::string& word) {
         e.card.rests = word == "page" ? Rests::OnPage : Rests::OnEdge;
       }},
      {"slice", {"yes", "no"}, [](Design& e, const std::string& word) {
         e.settings.slice = word == "yes";
       }}};
  const auto choice = std::ranges::find(kAll, key, &Choice::key);
  if (choice == std::end(kAll)) return false;
  const auto word = oneOf(choice->words, key, text);
  if (!word) return word.error();
  choice->set(d, *word);
  return true;
}

/// The card on another base; as a base of sheets it stays what it is.
Result<Design> withBase(const Design& d, const std::string& key) {
  if (key == d.card.kind) return d;
  if (key == sheetBase().key) return withBaseAsSheet(d);
  const auto based = onBase(d.card, key);
  if (!based) return based.error();
  CardBase card = *based;
  card.sheets.clear(), card.ground.reset();
  return setCard(d, card);
}

/// One of the card's own values, whatever its base; false when the key is none of them.
Result<bool> setOwn(Design& d, const std::string& key, const std::string& text) {
  if (key == "title") return d.title = text, true;
  if (key == "base") {
    const auto changed = withBase(d, text);
    if (!changed) return changed.error();
    return d = *changed, true;
  }
  if (key == "stock") {
    const auto changed = withCardPaper(d, text);
    if (!changed) return Error{changed.error().message, "stock"};
    return d = *changed, true;
  }
  if (key == "envelope") {
    const auto envelope = envelopeKeyFrom(text, d.settings.unit);
    if (!envelope) return envelope.error();
    return d.settings.envelope = *envelope, true;
  }
  if (const auto chosen = setChoice(d, key, text); !chosen || *chosen) return chosen;
  for (const auto& [name, size] :
       {std::pair{"width", &CardBase::width_mm}, std::pair{"height", &CardBase::height_mm}}) {
    if (key != name) continue;
    const auto typed = sizeOfCard(text, d.settings.unit, name);
    if (!typed) return typed.error();
    d.card.*size = *typed;
    return true;
  }
  if (const CardNumber* number = findCardNumber(key)) {
    auto set = setCardNumber(d, *number, text);
    return set ? Result<bool>(true) : set.error();
  }
  return false;
}

/// Sizes of a base by its table; what every card has counts among them. The unit counts from the
/// first of them on, wherever it stands.
Result<Design> withSizes(const Design& design, std::vector<std::string> sets) {
  // The base first, because it decides which sizes there are.
  for (const char* first : {"unit=", "base="})
    std::ranges::stable_partition(sets, [&](const std::string& s) { return s.starts_with(first); });
  Design changed = design;
  std::vector<std::string> own;
  for (const std::string& set : sets) {
    const auto equals = std::min(set.find('='), set.size());
    const auto taken =
        setOwn(changed, set.substr(0, equals), equals < set.size() ? set.substr(equals + 1) : "");
    if (!taken) return taken.error();
    if (!*taken) own.push_back(set);
  }
  CardBase& card = changed.card;
  const auto given =
      parseSets(own, findBaseKind(card.kind)->parameters, card.kind, changed.settings.unit);
  if (!given) return given.error();
  for (const auto& [key, value] : *given)
    card.values[key] = value;
  return setCard(changed, card);
}

/// Takes what was worked into a free piece over into the file.
int saveWork(const Design& d, StructureId id, const Result<PieceWork>& work,
             const std::string& path) {
  if (!work) {
    Error error = work.error();
    if (error.place.empty()) error.place = id.text();
    return refuse(error, d.settings.unit);
  }
  auto edited = setWork(d, id, *work);
  return edited ? saveAndTell(*edited, path) : refuse(edited.error(), d.settings.unit);
}

/// Every key must be one that the card or piece has.
Result<void> known(const std::vector<std::string>& keys, const std::vector<LengthRow>& rows,
                   const char* option) {
  std::vector<std::string> all;
  for (const LengthRow& row : rows)
    all.push_back(row.key);
  for (const std::string& key : keys)
    if (std::ranges::find(all, key) == all.end())
      return Error{{"value.unknown/length", key, listed(all)}, option};
  return {};
}

} // namespace

namespace {

/// The new card's own size. A base of sheets needs none: it is what the shut card comes to.
Result<CardBase> sizedCard(const Options& o, const Design& d) {
  CardBase card = d.card;
  const LengthUnit unit = d.settings.unit;
  for (const auto& [text, option, size] :
       {std::tuple{o.width, "--width", &card.width_mm}, {o.height, "--height", &card.height_mm}}) {
    if (text.empty() && !o.sheet.empty()) continue;
    if (text.empty()) return Error{{"usage/required", option}, "new"};
    const auto length = sizeOfCard(text, unit, option);
    if (!length) return length.error();
    *size = *length;
  }
  card.fold = o.fold == "top" ? FoldSide::Top : FoldSide::Side;
  if (auto valid = validateCard(card); !valid) return valid.error();
  return card;
}

/// The card on a base of one sheet, given in sentences.
Result<Design> onSheet(const Design& d, const Options& o) {
  const auto sheet = workedBySentences({{}, true, {}}, o.sheet, d.settings.unit);
  if (!sheet) return sheet.error();
  Design made = d;
  auto card = onBase(d.card, "sheet");
  if (!card) return card.error();
  made.card = *card, made.card.sheets = {sheet->work}, made.card.ground = sheet->ground;
  // A leaf without a fold lies: on its edge it would fall.
  if (sheet->work.lines.empty()) made.card.rests = Rests::OnPage;
  if (o.width.empty() || o.height.empty()) {
    const CardBase shut = withFinishedSize(made);
    if (o.width.empty()) made.card.width_mm = shut.width_mm;
    if (o.height.empty()) made.card.height_mm = shut.height_mm;
  }
  return made;
}

} // namespace

int newDesign(const Options& o) {
  if (!o.force && fileExists(o.file)) return refuse({"file.exists", o.file});
  Design d;
  if (!o.unit.empty()) {
    const auto unit = unitFromKey(o.unit);
    if (!unit) return refuse(unit.error(), d.settings.unit);
    d.settings = startingSettings(*unit);
  }
  const auto sized = sizedCard(o, d);
  if (!sized) return refuse(sized.error(), d.settings.unit);
  d.card = *sized;
  if (!o.sheet.empty()) {
    const auto made = onSheet(d, o);
    if (!made) return refuse(made.error(), d.settings.unit);
    d = *made;
  } else if (o.base != "single-fold") {
    const auto card = onBase(d.card, o.base);
    if (!card) return refuse(card.error(), d.settings.unit);
    d.card = *card;
  }
  const auto card = withSizes(d, o.sets);
  return card ? saveEdited(*card, o.file) : refuse(card.error(), d.settings.unit);
}

namespace {

/// A free piece as its maker says it is, where it is said to be.
Result<Added> addWorked(const Design& d, const StructureKind& kind, const Options& o,
                        const ParameterValues& given) {
  if (!kind.ways->carriesWork()) return Error{{"work.missing/no-piece", o.kind}, "--sheet"};
  const auto sheet = workedBySentences({}, o.sheet, d.settings.unit);
  if (!sheet) return sheet.error();
  ParameterValues values = startingValues(kind.parameters);
  for (const auto& [key, value] : given)
    values[key] = value;
  PieceWork bare = sheet->work; // first the paper, then what joins it: rules need what is there
  bare.joints.clear();
  auto added = addStructure(d, o.kind, o.seat, values, bare);
  if (!added) return added;
  auto joined = withSheet(added->design, {added->id, 0}, *sheet);
  if (!joined) return joined.error();
  return Added{std::move(joined).value(), added->id};
}

/// A finished card on a face or astride a fold.
Result<Added> addCard(const Design& d, const Options& o, const ParameterValues& given) {
  auto small = loadDesign(o.card);
  if (!small) return small.error();
  return addCardWithin(d, o.kind, o.seat, given,
                       {std::make_shared<const Design>(std::move(small).value())});
}

} // namespace

int addOne(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const StructureKind* kind = findStructureKind(o.kind);
  if (!kind) return refuse({{"structure.unknown", o.kind}, ""});
  auto given = parseSets(o.sets, kind->parameters, o.kind, d->settings.unit);
  if (!given) return refuse(given.error(), d->settings.unit);
  auto added = !o.card.empty()    ? addCard(*d, o, *given)
               : !o.sheet.empty() ? addWorked(*d, *kind, o, *given)
                                  : addProposed(*d, o.kind, o.seat, *given);
  if (!added) return refuse(added.error(), d->settings.unit);
  if (auto possible = Snapshot(added->design).possible(); !possible)
    return refuse(possible.error(), d->settings.unit);
  fmt::print("{}\n", added->id.text());
  return saveAndTell(added->design, o.target());
}

int setOne(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  if (o.id == "card") {
    const auto card = withSizes(*d, o.sets);
    return card ? saveAndTell(*card, o.target()) : refuse(card.error(), d->settings.unit);
  }
  auto id = idIn(*d, o.id);
  if (!id) return refuse(id.error(), d->settings.unit);
  Design base = *d;
  std::vector<std::string> sets = o.sets;
  // What it is cut from and what it is called are no sizes of its table.
  constexpr std::string_view kPaper = "paper=", kName = "name=";
  for (const std::string& set : o.sets)
    if (set.starts_with(kPaper)) {
      auto with = withPaperFor(base, *id, set.substr(kPaper.size()));
      if (!with) return refuse(with.error(), d->settings.unit);
      base = std::move(with).value();
      std::erase(sets, set);
    } else if (set.starts_with(kName)) {
      std::ranges::find(base.structures, *id, &StructureItem::id)->label = set.substr(kName.size());
      std::erase(sets, set);
    }
  const StructureItem& item = *base.find(*id);
  auto values = parseSets(sets, parametersOf(item), item.kind, d->settings.unit);
  if (!values) return refuse(values.error(), d->settings.unit);
  auto edited = setValues(base, *id, *values);
  return edited ? saveAndTell(*edited, o.target()) : refuse(edited.error(), d->settings.unit);
}

int solveOne(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  auto id = idIn(*d, o.id);
  if (!id) return refuse(id.error(), d->settings.unit);
  if (!d->find(*id)->work) return refuse({"work.missing/no-piece", o.id});
  if (o.wrapGiven) {
    constexpr double kLeast_mm = 3, kMost_mm = 60;
    const auto overlap = parseLength_mm(o.wrap, d->settings.unit);
    if (!overlap) return refuse({overlap.error().message, "--wrap"}, d->settings.unit);
    if (*overlap < kLeast_mm || *overlap > kMost_mm)
      return refuse({{"usage/overlap", Millimetres{kLeast_mm}, Millimetres{kMost_mm}}, "--wrap"},
                    d->settings.unit);
    return saveWork(*d, *id, wrappedRound(*d, *id, *overlap), o.target());
  }
  if (o.steps > 0) return saveWork(*d, *id, evenSteps(*d, *id, o.steps), o.target());
  const Snapshot snapshot(*d);
  if (auto possible = snapshot.possible(); !possible)
    return refuse(possible.error(), d->settings.unit);
  const Motion& motion = *snapshot.motion();
  if (std::ranges::find(motion.impossible(), *id) != motion.impossible().end())
    return refuse({"piece.impossible", o.id});
  if (shutGap_mm(*id, motion) < kExactClosure) {
    tell({"cli.lies-flat", id->text()}, *d);
    return kFine;
  }
  const auto found = solveShut(*d, motion, *id);
  if (!found) return refuse({"mend.none/width", o.id});
  auto edited = applyMend(*d, *found);
  if (!edited) return refuse(edited.error(), d->settings.unit);
  fmt::print("{}\n", describe(*found, *d));
  return saveAndTell(*edited, o.target());
}

int fitOne(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  std::optional<StructureId> piece;
  if (o.id != "card") {
    auto id = idIn(*d, o.id);
    if (!id) return refuse(id.error(), d->settings.unit);
    piece = *id;
  }
  const auto rows = lengthRows(*d, piece);
  if (auto fine = known(o.hold, rows, "--hold"); !fine)
    return refuse(fine.error(), d->settings.unit);
  if (auto fine = known(o.give, rows, "--give"); !fine)
    return refuse(fine.error(), d->settings.unit);
  if (o.sets.empty()) {
    const auto length = flatLength_mm(*d, piece);
    if (!length) return refuse(length.error(), d->settings.unit);
    tell({"cli.flat-length", Millimetres{*length}}, *d);
    for (const LengthRow& row : rows)
      fmt::print("{:5} {:24} {:>12}  {}\n", say(row.held ? "cli.held" : "cli.gives"), row.key,
                 formatLength(row.value_mm, d->settings.unit), say(row.label));
    return kFine;
  }
  const auto length = parseLength_mm(o.sets.front(), d->settings.unit);
  if (!length) return refuse(length.error(), d->settings.unit);
  std::set<std::string> held(o.hold.begin(), o.hold.end());
  for (const LengthRow& row : rows)
    if (row.held && std::ranges::find(o.give, row.key) == o.give.end()) held.insert(row.key);
  const auto fitted = fittedTo(*d, piece, *length, held);
  if (!fitted) return refuse(fitted.error(), d->settings.unit);
  tell({"cli.grown", Decimal{100 * fitted->factor, 2}}, *d);
  const int code = saveAndTell(fitted->design, o.target());
  if (code == kSpoiled) {
    const auto nearest = nearestFit_mm(*d, piece, *length, held);
    tell(nearest ? Text("cli.nearest-fit", Millimetres{*nearest}) : Text("cli.nearest-fit/none"),
         *d);
  }
  return code;
}

int smallCard(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  auto id = idIn(*d, o.id);
  if (!id) return refuse(id.error(), d->settings.unit);
  const auto& within = d->find(*id)->card;
  if (!within) return refuse({{"card-within.none", o.id}, ""});
  if (o.card.empty()) {
    if (o.out.empty()) return refuse({{"usage/required", "-o"}, "small"});
    return saveEdited(*within->design, o.out);
  }
  auto small = loadDesign(o.card);
  if (!small) return refuse(small.error());
  auto edited = setCardWithin(*d, *id, {std::make_shared<const Design>(std::move(small).value())});
  return edited ? saveAndTell(*edited, o.target()) : refuse(edited.error(), d->settings.unit);
}

int removeOne(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  auto id = idIn(*d, o.id);
  if (!id) return refuse(id.error(), d->settings.unit);
  auto edited = removeStructure(*d, *id);
  return edited ? saveAndTell(*edited, o.target()) : refuse(edited.error(), d->settings.unit);
}

} // namespace hinge
