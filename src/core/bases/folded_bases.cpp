#include "core/bases/chain.h"
#include <algorithm>
#include <cmath>

// The bases that are leaves in a row: concertina, gate, letter fold, easel and foot.

namespace hinge {
namespace {

double value(const CardBase& card, std::string_view key) { return card.values.find(key)->second; }
double half(double mm) { return std::round(2 * mm) / 2; }

// --- concertina -----------------------------------------------------------------------------------------------------------

constexpr ParameterSpec kConcertina[] = {
    {"leaves", "Leaves", ParameterUnit::Count, 3, 12, 3, ParameterRole::Held, "", "How many leaves; three make a Z-fold"},
    {"rest", "Other leaves", ParameterUnit::Millimetre, 5, 1000, 130, ParameterRole::Gives, "", "Width of the leaves above the lowest one, which is as wide as the finished card"},
    {"open", "Opens to", ParameterUnit::Degree, 5, 180, 180, ParameterRole::Held, "", "Angle between neighbouring leaves when the card is open"},
};

ParameterValues fitConcertina(const CardBase& card) { return {{"leaves", 3}, {"rest", card.pageDepth_mm()}, {"open", 180}}; }

Result<void> buildConcertina(const CardBase& card, AssemblyBuilder& builder) {
  const auto count = static_cast<std::size_t>(value(card, "leaves"));
  std::vector<Leaf> leaves;
  std::vector<Crease> creases;
  for (std::size_t k = 0; k < count; ++k) {
    const char letter = static_cast<char>('a' + k);
    leaves.push_back({std::string("page-") + letter, std::string("page ") + letter, k + 1 == count ? card.pageDepth_mm() : value(card, "rest")});
  }
  // The lowest fold is a valley, so that the others stack above it; from there mountain and valley take turns.
  for (std::size_t k = 0; k + 1 < count; ++k) creases.push_back({(count - 2 - k) % 2 == 0 ? FoldSense::Valley : FoldSense::Mountain, value(card, "open")});
  buildChain(builder, leaves, creases, count - 1, card.gutterLength_mm());
  return builder.status();
}

// --- gate -----------------------------------------------------------------------------------------------------------------

constexpr ParameterSpec kGate[] = {
    {"left", "Left flap", ParameterUnit::Millimetre, 5, 1000, 64.5, ParameterRole::Gives, "right", "From its fold to its edge"},
    {"right", "Right flap", ParameterUnit::Millimetre, 5, 1000, 64.5, ParameterRole::Gives, "left", "From its fold to its edge"},
    {"open", "Opens to", ParameterUnit::Degree, 5, 180, 180, ParameterRole::Held, "", "Angle between each flap and the middle when the card is open"},
};

ParameterValues fitGate(const CardBase& card) {
  const double flap = half(0.5 * card.pageDepth_mm()) - 0.5;
  return {{"left", flap}, {"right", flap}, {"open", 180}};
}

Result<void> buildGate(const CardBase& card, AssemblyBuilder& builder) {
  const double open = value(card, "open");
  if (value(card, "left") + value(card, "right") > card.pageDepth_mm())
    return Error{"base.flaps-meet", "the two flaps together are wider than the card they close over", "card.base_values"};
  buildChain(builder, {{"page-a", "left flap", value(card, "left")}, {"page-b", "middle page", card.pageDepth_mm()}, {"page-c", "right flap", value(card, "right")}},
             {{FoldSense::Valley, open}, {FoldSense::Valley, open}}, 1, card.gutterLength_mm());
  return builder.status();
}

// --- letter fold ----------------------------------------------------------------------------------------------------------

constexpr ParameterSpec kTriFold[] = {
    {"cover", "Cover", ParameterUnit::Millimetre, 5, 1000, 130, ParameterRole::Gives, "", "Width of the leaf that closes last and opens first"},
    {"inner", "Inner flap", ParameterUnit::Millimetre, 5, 1000, 128.5, ParameterRole::Gives, "", "Width of the leaf that lies inside; a little less than the card"},
    {"first", "Cover open at", ParameterUnit::Degree, 10, 170, 90, ParameterRole::Held, "", "Opening at which the cover has opened and the inner flap begins"},
};

ParameterValues fitTriFold(const CardBase& card) { return {{"cover", card.pageDepth_mm()}, {"inner", card.pageDepth_mm() - 1.5}, {"first", 90}}; }

Result<void> buildTriFold(const CardBase& card, AssemblyBuilder& builder) {
  const double first = radians(value(card, "first"));
  if (value(card, "inner") > card.pageDepth_mm()) return Error{"base.inner-wide", "the inner flap is wider than the page it lies on", "card.base_values.inner"};
  buildChain(builder, {{"page-a", "cover", value(card, "cover")}, {"page-b", "middle page", card.pageDepth_mm()}, {"page-c", "inner flap", value(card, "inner")}},
             {{FoldSense::Valley, 180, 0, first}, {FoldSense::Valley, 180, first, kPi}}, 1, card.gutterLength_mm());
  return builder.status();
}

// --- easel ----------------------------------------------------------------------------------------------------------------

constexpr ParameterSpec kEasel[] = {
    {"strut", "Strut", ParameterUnit::Millimetre, 5, 1000, 65, ParameterRole::Gives, "", "From the gutter to the second fold; what is left of the front carries the picture leaf"},
    {"stop", "Stop at", ParameterUnit::Millimetre, 5, 1000, 105, ParameterRole::Gives, "", "From the gutter to the stop against which the front stands"},
};

ParameterValues fitEasel(const CardBase& card) {
  const double w = card.pageDepth_mm();
  return {{"strut", half(0.5 * w)}, {"stop", half(0.8 * w)}};
}

/// Base page, strut and front make a triangle when the card is set up; the picture leaf, as large as the card, is glued on
/// the outside of the front and covers the strut when the card is shut.
Result<void> buildEasel(const CardBase& card, AssemblyBuilder& builder) {
  const double w = card.pageDepth_mm(), length = card.gutterLength_mm(), p = value(card, "strut"), q = w - p, stop = value(card, "stop");
  if (q < 5) return Error{"easel.no-front", "the strut leaves less than 5 mm of the front", "card.base_values.strut"};
  if (stop >= p + q - 0.5 || stop <= std::abs(p - q) + 0.5)
    return Error{"easel.stop", "strut and front cannot reach a stop at this distance from the gutter", "card.base_values.stop"};
  const double lean = std::acos((p * p + stop * stop - q * q) / (2 * p * stop)), ridge = std::acos((p * p + q * q - stop * stop) / (2 * p * q));
  const auto panels = buildChain(builder, {{"page-a2", "front", q}, {"page-a", "strut", p}, {"page-b", "base page", w}},
                                 {{FoldSense::Valley, degrees(ridge), 0.3 * kPi, kPi, true}, {FoldSense::Valley, degrees(lean), 0, 0.6 * kPi}}, 2, length);
  const PieceIndex picture = builder.piece("picture", "picture leaf");
  const PanelIndex leaf = builder.panel(picture, "picture", "picture leaf", PanelUse::Wall, {{-w, 0}, {0, 0}, {0, length}, {-w, length}});
  builder.glue(leaf, panels[0], Iso3::Identity());
  builder.faceSeats(leaf, {-w, length}, {-w, 0}); // as it stands: on the edge at the stop
  return builder.status();
}

// --- foot -----------------------------------------------------------------------------------------------------------------

constexpr ParameterSpec kFoot[] = {
    {"foot", "Foot", ParameterUnit::Millimetre, 5, 1000, 60, ParameterRole::Gives, "", "Depth of the leaf that lies on the table"},
    {"open", "Stands at", ParameterUnit::Degree, 45, 135, 90, ParameterRole::Held, "", "Angle between foot and standing page when the card is set up"},
};

ParameterValues fitFoot(const CardBase& card) { return {{"foot", half(0.6 * card.pageDepth_mm())}, {"open", 90}}; }

Result<void> buildFoot(const CardBase& card, AssemblyBuilder& builder) {
  buildChain(builder, {{"page-a", "standing page", card.pageDepth_mm()}, {"page-b", "foot", value(card, "foot")}}, {{FoldSense::Valley, value(card, "open")}}, 1, card.gutterLength_mm());
  return builder.status();
}

} // namespace

const BaseKind& concertinaBase() {
  static const BaseKind kind{"concertina", "Concertina", "Leaves that fold to and fro; three make a Z-fold", kConcertina, fitConcertina, buildConcertina, 90, Rests::OnEdge};
  return kind;
}
const BaseKind& gateBase() {
  static const BaseKind kind{"gate", "Gate", "A middle page closed by two flaps", kGate, fitGate, buildGate, 90};
  return kind;
}
const BaseKind& triFoldBase() {
  static const BaseKind kind{"tri-fold", "Letter fold", "A cover over an inner flap over a middle page", kTriFold, fitTriFold, buildTriFold, 180};
  return kind;
}
const BaseKind& easelBase() {
  static const BaseKind kind{"easel", "Easel", "A base page with a front that stands against a stop", kEasel, fitEasel, buildEasel, 180};
  return kind;
}
const BaseKind& footBase() {
  static const BaseKind kind{"foot", "Foot", "A page that stands at a right angle on its foot", kFoot, fitFoot, buildFoot, 180};
  return kind;
}

} // namespace hinge
