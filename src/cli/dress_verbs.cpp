// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/application.h"
#include "cli/dress_json.h"
#include "cli/options.h"
#include "core/edits/dressing.h"
#include "core/io/design_json.h"
#include "core/io/drawing.h"
#include "core/io/dress_words.h"
#include "core/io/maker_drawer.h"
#include "core/io/text_file.h"
#include "core/paper/topper_shape.h"
#include "core/structures/names.h"
#include "render/lettering.h"
#include "words/words.h"
#include <charconv>
#include <fmt/format.h>

// The verbs that dress a card: its papers, its faces, what they wear.

namespace hinge {
namespace {

/// "P,Q" and "P" "Q" alike.
std::vector<std::string> keysIn(const std::vector<std::string>& given) {
  std::vector<std::string> keys;
  for (const std::string& text : given)
    for (std::size_t at = 0; at <= text.size();) {
      const std::size_t end = std::min(text.find(',', at), text.size());
      if (end > at) keys.push_back(text.substr(at, end - at));
      at = end + 1;
    }
  return keys;
}

void listPapers(std::span<const Paper> papers, LengthUnit unit, const Design* of) {
  for (Paper paper : papers) {
    if (paper.picture) paper.picture->bytes.clear(); // nobody reads them
    fmt::print("{}{}\n", inWords(paper, unit), of && isUsed(*of, paper.key) ? "  *" : "");
  }
}

/// The layers as they were asked for: one for each paper, borders in their order.
Result<std::vector<Layer>> layersOf(const Options& o, LengthUnit unit) {
  std::vector<Layer> layers;
  for (const std::string& key : keysIn(o.papers)) {
    Layer layer;
    layer.paper = key;
    const std::size_t k = layers.size();
    if (!o.borders.empty()) {
      const auto border = bordersFromText(o.borders[std::min(k, o.borders.size() - 1)], unit);
      if (!border) return Error{border.error().message, "--border"};
      layer.border_mm = *border;
    }
    if (o.round) layer.corners = CornerStyle::Round;
    if (const auto turn = patternTurnFromKey(o.turn)) {
      layer.turn = *turn;
    } else if (!o.turn.empty()) {
      const auto angle = parseAngle_deg(o.turn);
      if (!angle) return Error{angle.error().message, "--turn"};
      layer.turn = PatternTurn::Angle, layer.angle_deg = *angle;
    }
    layers.push_back(std::move(layer));
  }
  return layers;
}

/// What is said of a rule that reaches nothing is an error: a face that is not there.
Result<void> facesAreThere(const Design& design, const std::vector<std::string>& keys) {
  const Snapshot snapshot(design);
  for (const std::string& key : keys)
    if (!snapshot.faces()->find(key).valid())
      return Error{{"dress.no-face", key.substr(0, 60)}, "dress"};
  return {};
}

Result<Design> dressedAsAsked(const Design& design, const Options& o) {
  auto layers = layersOf(o, design.settings.unit);
  if (!layers) return layers.error();
  std::vector<DressRule> rules;
  const auto how = o.atGlue.empty() ? AtGlue::Under : *atGlueFromKey(o.atGlue);
  if (o.allSeen) rules.push_back({DressReach::Seen, "", how, *layers});
  if (o.allDisplayed) rules.push_back({DressReach::Displayed, "", how, *layers});
  if (auto there = facesAreThere(design, o.files); !there) return there.error();
  const DressReach reach = o.reach.empty() ? DressReach::Face : *dressReachFromKey(o.reach);
  for (const std::string& face : o.files)
    rules.push_back({reach, face, how, *layers});
  Design next = design;
  for (DressRule& rule : rules) {
    const auto same = std::ranges::find_if(next.dressing.rules, [&](const DressRule& other) {
      return other.reach == rule.reach && other.face == rule.face;
    });
    if (o.more && same != next.dressing.rules.end()) {
      std::vector<Layer> stack = same->layers;
      stack.insert(stack.end(), rule.layers.begin(), rule.layers.end());
      rule.layers = std::move(stack);
    }
    auto with = withRule(next, std::move(rule));
    if (!with) return with;
    next = std::move(with).value();
  }
  return next;
}

void listRules(const Design& design) {
  for (std::size_t r = 0; r < design.dressing.rules.size(); ++r)
    fmt::print("{:3}  {}\n", r + 1, inWords(design.dressing.rules[r], design.settings.unit));
}

} // namespace

namespace {

/// A paper in words, or one that everybody or this maker has by its key; with the picture that was
/// asked for.
Result<Paper> paperAsAsked(const Design& design, const std::string& asked, const Options& o) {
  const LengthUnit unit = design.settings.unit;
  Paper paper;
  if (asked.find(':') != std::string::npos) {
    auto told = paperFromWords(asked, unit);
    if (!told) return Error{told.error().message, "--put"};
    paper = std::move(told).value();
  } else {
    const auto mine = makersPapers();
    if (!mine) return mine.error();
    const Paper* known = findPaper(*mine, asked);
    if (!known) known = findPaper(knownPapers(), asked);
    if (!known) return Error{{"paper.unknown", asked.substr(0, 40)}, "--put"};
    paper = *known;
  }
  if (o.picture.empty()) return paper;
  const auto wide = parseLength_mm(o.wide, unit);
  if (!wide) return Error{wide.error().message, "--wide"};
  auto bytes = readFile(o.picture);
  if (!bytes) return bytes.error();
  paper.picture = Picture{std::move(bytes).value(), *wide};
  if (auto valid = validate(paper); !valid) return Error{valid.error().message, o.picture};
  return paper;
}

Result<void> changeMakersDrawer(const Design& design, const Options& o) {
  for (const std::string& key : o.hold) {
    const Paper* paper = design.findPaper(key);
    if (!paper) return Error{{"paper.missing", key.substr(0, 40)}, "--keep"};
    if (auto kept = keepPaper(*paper); !kept) return kept;
  }
  for (const std::string& key : o.uses)
    if (auto forgotten = forgetPaper(key); !forgotten) return forgotten;
  return {};
}

} // namespace

int papersVerb(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const LengthUnit unit = d->settings.unit;
  if (auto done = changeMakersDrawer(*d, o); !done) return refuse(done.error(), unit);
  if (o.all || o.mine) {
    const auto mine = makersPapers();
    if (!mine) return refuse(mine.error(), unit);
    if (o.all) listPapers(knownPapers(), unit, nullptr);
    listPapers(*mine, unit, nullptr);
    return kFine;
  }
  Design next = *d;
  for (const std::string& put : o.sets) {
    const auto paper = paperAsAsked(next, put, o);
    if (!paper) return refuse(paper.error(), unit);
    auto with = withPaper(next, *paper);
    if (!with) return refuse(with.error(), unit);
    next = std::move(with).value();
  }
  for (const std::string& key : o.give) {
    auto with = withoutPaper(next, key);
    if (!with) return refuse(with.error(), unit);
    next = std::move(with).value();
  }
  if (!(next == *d)) return saveAndTell(next, o.target());
  if (!o.json) {
    if (o.hold.empty() && o.uses.empty()) listPapers(d->papers, unit, &*d);
    return kFine;
  }
  const Snapshot snapshot(*d);
  fmt::print("{}", papersToJson(snapshot));
  return kFine;
}

int facesVerb(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const Snapshot snapshot(*d);
  if (o.json) {
    fmt::print("{}", facesToJson(snapshot));
    return kFine;
  }
  const auto faces = snapshot.faces();
  const auto seen = snapshot.seen();
  for (FaceIndex f : faces->indices()) {
    const Face& face = (*faces)[f];
    const FaceSeen& shares = (*seen)[static_cast<std::size_t>(f.value)];
    fmt::print("{:24} {:>20}  {}\n", face.key,
               sizeText(boundsOf(face.outline).size(), d->settings.unit),
               say(Text(std::string("seen/") + std::string(keyOf(shares.seenAs())),
                        Decimal{100 * shares.display, 0}, Decimal{100 * shares.opening, 0})));
  }
  return kFine;
}

int dressVerb(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const LengthUnit unit = d->settings.unit;
  if (o.drop > 0) {
    const auto next = withoutRule(*d, static_cast<std::size_t>(o.drop - 1));
    return next ? saveAndTell(*next, o.target()) : refuse(next.error(), unit);
  }
  if (o.files.empty() && !o.allSeen && !o.allDisplayed) {
    listRules(*d);
    return kFine;
  }
  if (o.papers.empty() && !o.bare) return refuse({"dress.what", "dress"}, unit);
  const auto next = dressedAsAsked(*d, o);
  return next ? saveAndTell(*next, o.target()) : refuse(next.error(), unit);
}

int thicknessVerb(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const Snapshot snapshot(*d);
  if (o.json) {
    fmt::print("{}", thicknessToJson(snapshot));
    return kFine;
  }
  const ShutState& shut = *snapshot.shut();
  tell({"thickness.whole", Millimetres{shut.thickness_mm}, shut.thickestSheets,
        Millimetres{shut.thickestPlace.x()}, Millimetres{shut.thickestPlace.y()}},
       *d);
  for (const StackedSheet& sheet : shut.stack) {
    const Text on = panelName(*d, **snapshot.assembly(), sheet.panel);
    const Paper* paper = d->findPaper(sheet.paper);
    tell({sheet.paper.empty() ? "thickness.pads"
          : sheet.laid        ? "thickness.laid"
                              : "thickness.panel",
          Millimetres{sheet.thickness_mm}, on, paper ? nameOf(*paper) : Text()},
         *d);
  }
  if (shut.gutterSheets > 0)
    tell({"thickness.gutter", shut.gutterSheets, Millimetres{shut.gutterRelief_mm}}, *d);
  return kFine;
}

int matsVerb(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const Snapshot snapshot(*d);
  if (o.json || o.csv) {
    fmt::print("{}", o.json ? matsToJson(snapshot) : matsToCsv(snapshot));
    return kFine;
  }
  for (const MatLine& line : matList(*d, *snapshot.dressed())) {
    const Text name = nameOf(*d->findPaper(line.paper));
    const std::string size = sizeText(line.size_mm(), d->settings.unit);
    tell(line.handed ? Text("mats.handed", line.count(), name, size, line.left(), line.right())
                     : Text("mats.line", line.count(), name, size),
         *d);
    std::string where;
    for (const MatPlace& place : line.places)
      where += fmt::format("{}{}", where.empty() ? "" : ", ", (*snapshot.faces())[place.face].key);
    fmt::print("    {}\n", where);
  }
  return kFine;
}

namespace {

/// "t7" as a number; 0: it is none.
int topperNumber(const std::string& text) {
  int number = 0;
  const char* end = text.data() + text.size();
  const bool is = text.size() > 1 && text.front() == 't' &&
                  std::from_chars(text.data() + 1, end, number).ptr == end;
  return is ? number : 0;
}

/// Letters are drawn from the text, an own shape comes from its file.
Result<Topper> drawn(Result<Topper> asked, const Options& o) {
  if (!asked) return asked;
  Topper topper = std::move(asked).value();
  if (topper.shape == kLettering) {
    Application::paint();
    return lettered(std::move(topper));
  }
  if (o.source.empty()) return topper;
  const auto drawing = drawingFromFile(o.source);
  if (!drawing) return drawing.error();
  auto areas = areasOf(*drawing, likelyUses(*drawing));
  if (!areas) return Error{areas.error().message, o.source};
  topper.shape = kOwnShape, topper.outlines = std::move(areas).value();
  return topper;
}

Result<Topper> topperAsAsked(const Design& design, const Options& o) {
  const LengthUnit unit = design.settings.unit;
  std::vector<std::string> parts;
  for (const std::string& set : o.sets) {
    std::size_t at = 0;
    while (at <= set.size()) {
      const std::size_t end = std::min(set.find(';', at), set.size());
      if (end > at) parts.push_back(set.substr(at, end - at));
      at = end + 1;
    }
  }
  if (!o.papers.empty()) parts.push_back("paper " + o.papers.front());
  if (!o.kind.empty() && topperNumber(o.seat) > 0) parts.push_back("shape " + o.kind);
  if (const Topper* known = design.dressing.find(topperNumber(o.seat)))
    return drawn(toppedUp(*known, parts, unit), o);
  if (topperNumber(o.seat) > 0) return Error{{"topper.missing", topperNumber(o.seat)}, "topper"};
  auto fresh = freshTopper(design, o.seat, o.kind, design.stock);
  return fresh ? drawn(toppedUp(std::move(fresh).value(), parts, unit), o) : fresh;
}

} // namespace

int topperVerb(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const LengthUnit unit = d->settings.unit;
  if (o.all) {
    for (const TopperShape& shape : topperShapes())
      fmt::print("{:12} {}: {}\n", shape.key, say(Text("topper." + std::string(shape.key))),
                 say(Text("topper." + std::string(shape.key) + "/detail")));
    return kFine;
  }
  if (o.seat.empty()) {
    for (const Topper& topper : d->dressing.toppers)
      fmt::print("{}\n", inWords(topper, unit));
    return kFine;
  }
  if (o.bare) {
    const auto next = withoutTopper(*d, topperNumber(o.seat));
    return next ? saveAndTell(*next, o.target()) : refuse(next.error(), unit);
  }
  auto topper = topperAsAsked(*d, o);
  if (!topper) return refuse(topper.error(), unit);
  const auto next = withTopper(*d, std::move(topper).value());
  return next ? saveAndTell(*next, o.target()) : refuse(next.error(), unit);
}

} // namespace hinge
