// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/page.h"
#include "core/bases/base.h"
#include "core/design/card_numbers.h"
#include "core/io/dress_words.h"
#include "core/io/quoted.h"
#include "core/paper/envelope.h"
#include "core/pieces/sheet_words.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <functional>

namespace hinge {
namespace {

/// Lengths are written to 1e-9 mm: nearer they are the same.
constexpr double kSame = 1e-9;

std::string trimmed(std::string_view text) {
  const auto from = text.find_first_not_of(" \t\r");
  if (from == std::string_view::npos) return {};
  return std::string(text.substr(from, text.find_last_not_of(" \t\r") + 1 - from));
}

/// The first word of a line, and the rest.
std::pair<std::string, std::string> parted(const std::string& line) {
  const auto space = std::min(line.find(' '), line.size());
  return {line.substr(0, space), trimmed(std::string_view(line).substr(space))};
}

class Writing {
public:
  explicit Writing(const Design& design) : d(design) {}

  std::string run() {
    line("hinge-lantern page 1");
    if (!d.title.empty()) line("title " + quoted(d.title));
    line(fmt::format("unit {}", unitKey(d.settings.unit)));
    line(fmt::format("finished {} x {}", length(d.card.width_mm), length(d.card.height_mm)));
    line("base " + d.card.kind + values(findBaseKind(d.card.kind)->parameters, d.card.values));
    line(fmt::format("fold {}", d.card.fold == FoldSide::Side ? "side" : "top"));
    line(fmt::format("rests {}", d.card.rests == Rests::OnPage ? "page" : "edge"));
    for (const Paper& paper : d.papers)
      line("paper " + inWords(paper, d.settings.unit));
    line("stock " + d.stock);
    line("sheet-size " + d.settings.sheet);
    line("envelope " + d.settings.envelope);
    if (d.settings.slice) line("slice");
    Design usual, own = d;
    for (const CardNumber& number : cardNumbers())
      if (const double value = number.of(own); std::abs(value - number.of(usual)) > kSame)
        line(fmt::format("{} {}", number.key,
                         number.unit == ParameterUnit::Millimetre ? length(value)
                                                                  : exactNumber(value)));
    for (std::size_t k = 0; k < d.card.sheets.size(); ++k) {
      line("sheet");
      sentences({d.card.sheets[k], true, k == 0 ? d.card.ground : std::nullopt});
    }
    for (const StructureItem& item : d.structures)
      structure(item);
    for (const DressRule& rule : d.dressing.rules)
      line("dress " + inWords(rule, d.settings.unit));
    for (const Topper& topper : d.dressing.toppers)
      line("topper " + inWords(topper, d.settings.unit));
    for (const Splice& splice : d.splices)
      line("splice " + inWords(splice, d.settings.unit));
    line(fmt::format("next s{}", d.nextId));
    return std::move(m_out);
  }

private:
  std::string length(double mm) const { return exactLength(mm, d.settings.unit); }
  void line(const std::string& text) { m_out += text + "\n"; }
  void sentences(const SheetInWork& sheet) {
    for (const std::string& one : sentencesOf(sheet, d.settings.unit))
      line("  " + one);
  }
  std::string values(ParameterTable table, const ParameterValues& given) const {
    std::string text;
    for (const ParameterSpec& spec : table) {
      const double value = given.find(spec.key)->second;
      text +=
          fmt::format("{}{}={}", text.empty() ? ": " : ", ", spec.key,
                      spec.unit == ParameterUnit::Millimetre ? length(value) : exactNumber(value));
    }
    return text;
  }
  void structure(const StructureItem& item) {
    line(fmt::format("{} {} on {}{}", item.id.text(), item.kind, item.seat,
                     values(findStructureKind(item.kind)->parameters, item.values)));
    if (!item.label.empty()) line("  called " + quoted(item.label));
    if (!item.paper.empty()) line("  from " + item.paper);
    if (item.work) sentences({*item.work, false, {}});
    if (item.card) within(*item.card->design);
  }

  /// The page of a card on this one, behind a bar.
  void within(const Design& design) {
    const std::string page = Writing(design).run();
    for (std::size_t at = 0; at < page.size();) {
      const std::size_t end = page.find('\n', at);
      line("  | " + page.substr(at, end - at));
      at = end + 1;
    }
  }

  const Design& d;
  std::string m_out;
};

class PageReading {
public:
  explicit PageReading(int depth = 0) : m_depth(depth) {}
  Result<Design> run(std::string_view text) {
    int number = 0;
    while (!text.empty()) {
      const auto end = std::min(text.find('\n'), text.size());
      const std::string one = trimmed(text.substr(0, end));
      text.remove_prefix(std::min(end + 1, text.size()));
      ++number;
      if (one.empty() || one.front() == '#') continue;
      if (auto done = read(one); !done) return at(done.error(), number);
    }
    if (!m_begun) return Error{"page.format", ""};
    if (auto done = close(); !done) return done.error();
    if (auto assembled = assembleDesign(d); !assembled) return assembled.error();
    return d;
  }

private:
  static Error at(Error error, int line) {
    error.line = line;
    return error;
  }
  static Error lost(const std::string& line) {
    constexpr std::size_t kMost = 60;
    return {{"page.line", line.substr(0, kMost)}, ""};
  }

  Result<void> read(const std::string& line) {
    if (!m_begun) {
      m_begun = line == "hinge-lantern page 1";
      return m_begun ? Result<void>() : Error{"page.format", ""};
    }
    const auto [word, rest] = parted(line);
    if (word == "|" && m_item) {
      if (m_depth >= kDeepest) return Error{{"card-within.deep", kDeepest}, ""};
      m_within += rest + "\n";
      return {};
    }
    if (const auto id = structureIdFromText(word)) return structure(*id, rest);
    if (word == "sheet" && rest.empty()) return sheet();
    if (word == "next") return next(rest);
    if (word == "dress") return dress(rest);
    if (word == "topper") return topper(rest);
    if (word == "splice") return splice(rest);
    if (word == "from" && m_item) return m_item->paper = rest, Result<void>();
    if (m_open) {
      if (word == "called" && m_item) return m_item->label = unquoted(rest), Result<void>();
      auto worked = workedBy(*m_open, line, d.settings.unit);
      if (!worked) return worked.error();
      *m_open = std::move(worked).value();
      return {};
    }
    if (word == "called" && m_item) return m_item->label = unquoted(rest), Result<void>();
    return ofCard(word, rest, line);
  }

  Result<void> ofCard(const std::string& word, const std::string& rest, const std::string& line) {
    if (word == "title") return d.title = unquoted(rest), Result<void>();
    if (word == "unit") {
      const auto unit = unitFromKey(rest);
      if (!unit) return unit.error();
      d.settings.unit = *unit;
      return {};
    }
    if (word == "finished") return finished(rest, line);
    if (word == "base") return base(rest);
    if (word == "fold" && (rest == "side" || rest == "top"))
      return d.card.fold = rest == "top" ? FoldSide::Top : FoldSide::Side, Result<void>();
    if (word == "rests" && (rest == "page" || rest == "edge"))
      return d.card.rests = rest == "page" ? Rests::OnPage : Rests::OnEdge, Result<void>();
    if (word == "paper") return paper(rest);
    if (word == "stock") return stock(rest);
    if (word == "sheet-size" && sheetByKey(rest).key == rest)
      return d.settings.sheet = rest, Result<void>();
    if (word == "envelope" && isEnvelope(rest)) return d.settings.envelope = rest, Result<void>();
    if (word == "slice") return d.settings.slice = true, Result<void>();
    if (const CardNumber* number = findCardNumber(word)) {
      auto set = setCardNumber(d, *number, rest);
      return set ? validateCard(d.card) : set;
    }
    return lost(line);
  }

  Result<void> paper(const std::string& rest) {
    auto read = paperFromWords(rest, d.settings.unit);
    if (!read) return read.error();
    if (!std::exchange(m_papers, true)) d.papers.clear();
    d.papers.push_back(std::move(read).value());
    return {};
  }

  /// Pages that know no drawer have the paper's name behind its key.
  Result<void> stock(const std::string& rest) {
    const auto [key, label] = parted(rest);
    d.stock = key;
    if (!m_papers) d.papers.front().key = key;
    if (!m_papers && !label.empty()) d.papers.front().label = label;
    return {};
  }

  Result<void> dress(const std::string& rest) {
    if (auto done = close(); !done) return done;
    auto rule = ruleFromWords(rest, d.settings.unit);
    if (!rule) return rule.error();
    d.dressing.rules.push_back(std::move(rule).value());
    return {};
  }

  Result<void> topper(const std::string& rest) {
    if (auto done = close(); !done) return done;
    auto read = topperFromWords(rest, d.settings.unit);
    if (!read) return read.error();
    d.dressing.toppers.push_back(std::move(read).value());
    return {};
  }

  Result<void> splice(const std::string& rest) {
    if (auto done = close(); !done) return done;
    auto read = spliceFromWords(rest, d.settings.unit);
    if (!read) return read.error();
    d.splices.push_back(std::move(read).value());
    return {};
  }

  Result<void> finished(const std::string& rest, const std::string& line) {
    const auto by = rest.find(" x ");
    if (by == std::string::npos) return lost(line);
    const auto w = parseLength_mm(rest.substr(0, by), d.settings.unit),
               h = parseLength_mm(rest.substr(by + 3), d.settings.unit);
    if (!w) return w.error();
    if (!h) return h.error();
    d.card.width_mm = *w, d.card.height_mm = *h;
    return validateCard(d.card);
  }

  /// "a=20, b=2 1/2" by a table.
  Result<void> readValues(const std::string& text, ParameterTable table,
                          ParameterValues& values) const {
    for (std::string_view rest = text; !rest.empty();) {
      const auto comma = std::min(rest.find(','), rest.size());
      const std::string one = trimmed(rest.substr(0, comma));
      rest.remove_prefix(std::min(comma + 1, rest.size()));
      const auto equals = std::min(one.find('='), one.size());
      const ParameterSpec* spec = findSpec(table, one.substr(0, equals));
      if (!spec || equals == one.size()) return lost(one);
      const std::string number = one.substr(equals + 1);
      const auto value = spec->unit == ParameterUnit::Millimetre
                             ? parseLength_mm(number, d.settings.unit)
                             : parseAngle_deg(number);
      if (!value) return value.error();
      values[std::string(spec->key)] = *value;
    }
    return {};
  }

  Result<void> base(const std::string& rest) {
    const auto colon = std::min(rest.find(':'), rest.size());
    const auto card = onBase(d.card, trimmed(rest.substr(0, colon)));
    if (!card) return card.error();
    d.card = *card;
    d.card.sheets.clear();
    const ParameterTable table = findBaseKind(d.card.kind)->parameters;
    if (auto read =
            readValues(colon < rest.size() ? rest.substr(colon + 1) : "", table, d.card.values);
        !read)
      return read;
    return validate(table, d.card.values, "base");
  }

  Result<void> sheet() {
    if (auto done = close(); !done) return done;
    if (m_structures) return Error{"page.order", ""};
    m_open = SheetInWork{{}, true, {}};
    return {};
  }

  Result<void> structure(StructureId id, const std::string& rest) {
    if (auto done = close(); !done) return done;
    m_structures = true;
    const auto colon = std::min(rest.find(':'), rest.size());
    const auto [kindKey, where] = parted(trimmed(rest.substr(0, colon)));
    const StructureKind* kind = findStructureKind(kindKey);
    if (!kind) return Error{{"structure.unknown", kindKey}, ""};
    const auto [on, seat] = parted(where);
    if (on != "on" || seat.empty()) return lost(rest);
    if (d.find(id)) return Error{{"file.member/twice", id.text()}, ""};
    StructureItem item{id, kindKey, seat, "", startingValues(kind->parameters), "", {}, {}, ""};
    if (auto read = readValues(colon < rest.size() ? rest.substr(colon + 1) : "", kind->parameters,
                               item.values);
        !read)
      return read;
    m_item = std::move(item);
    if (kind->ways->carriesWork()) m_open = SheetInWork{};
    return {};
  }

  Result<void> next(const std::string& rest) {
    if (auto done = close(); !done) return done;
    const auto id = structureIdFromText(rest);
    if (!id) return lost("next " + rest);
    d.nextId = std::max(d.nextId, id->value);
    return {};
  }

  /// Puts what has been read of a sheet or a structure into the design.
  Result<void> close() {
    if (m_item) {
      if (m_open) m_item->work = m_open->work;
      if (!m_within.empty()) {
        auto card = PageReading(m_depth + 1).run(std::exchange(m_within, {}));
        if (!card) return Error{{"card-within.made", card.error().message}, m_item->id.text()};
        m_item->card = CardWithin{std::make_shared<const Design>(std::move(card).value())};
      }
      if (auto settled = waysOf(*m_item).settle(*m_item, m_item->id.text()); !settled)
        return settled;
      d.nextId = std::max(d.nextId, m_item->id.value + 1);
      d.structures.push_back(std::move(*m_item));
    } else if (m_open) {
      if (d.card.sheets.empty()) d.card.ground = m_open->ground;
      d.card.sheets.push_back(m_open->work);
    }
    m_item.reset(), m_open.reset();
    return {};
  }

  static constexpr int kDeepest = 3; ///< cards in one another, as their kind has it
  Design d;
  int m_depth; ///< of the card that is read in others
  bool m_begun = false, m_structures = false, m_papers = false;
  std::optional<StructureItem> m_item; ///< being read
  std::string m_within;                ///< the page of the card on it, as far as it is read
  std::optional<SheetInWork> m_open;   ///< the sheet of the base, or of the item, being read
};

} // namespace

std::string pageOf(const Design& design) {
  return Writing(design).run();
}

Result<Design> designFromPage(std::string_view text) {
  return PageReading().run(text);
}

} // namespace hinge
