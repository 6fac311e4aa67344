// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/report_json.h"
#include "cli/json_text.h"
#include "core/bases/base.h"
#include "core/contact/contact.h"
#include "core/paper/envelope.h"
#include "core/pieces/placing.h"
#include "core/pieces/rule_words.h"
#include "core/states/shut_state.h"
#include "core/states/stand.h"
#include "core/structures/names.h"
#include "core/structures/registry.h"
#include "words/words.h"
#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace hinge {
namespace {

using Json = ReportJson;

std::string_view seatKindKey(SeatKind kind) {
  switch (kind) {
  case SeatKind::Valley: return "valley";
  case SeatKind::Ridge: return "ridge";
  case SeatKind::Face: return "face";
  case SeatKind::Span: return "span";
  case SeatKind::Crease: return "crease";
  }
  return "";
}

Json listOf(ParameterTable table) {
  Json list = Json::array();
  for (const ParameterSpec& p : table) {
    Json choices = Json::array();
    for (int k = 0; k < p.choices(); ++k)
      choices.push_back(say(choiceOf(p, k)));
    list.push_back({{"key", p.key},
                    {"label", say(nameOf(p))},
                    {"unit", unitKey(p.unit)},
                    {"min", p.least},
                    {"max", p.most},
                    {"default", p.start},
                    {"role", p.role == ParameterRole::Held ? "held" : "gives"},
                    {"twin", p.twin.empty() ? Json(nullptr) : Json(p.twin)},
                    {"meaning", say(meaningOf(p))}});
    if (!choices.empty()) list.back()["choices"] = choices;
  }
  return list;
}

Json baseParameters(const BaseKind& base) {
  // The card's own sizes are not a structure's table; their limits are the same as validateCard's.
  Json list = Json::array();
  const CardBase start;
  for (const auto& [key, value] :
       {std::pair{"width", start.width_mm}, std::pair{"height", start.height_mm}})
    list.push_back({{"key", key},
                    {"label", say(Text(fmt::format("card.{}", key)))},
                    {"unit", "mm"},
                    {"min", starting::kLeastCard_mm},
                    {"max", starting::kLargestCard_mm},
                    {"default", value},
                    {"meaning", say(Text(fmt::format("card.{}/meaning", key)))}});
  for (Json& own : listOf(base.parameters))
    list.push_back(std::move(own));
  return list;
}

} // namespace

std::string kindsToJson() {
  Json out = {{"bases", Json::array()}, {"structures", Json::array()}};
  for (const BaseKind* base : baseKinds())
    out["bases"].push_back({{"key", base->key},
                            {"label", say(base->name())},
                            {"summary", say(Text(base->name().key + "/summary"))},
                            {"parameters", baseParameters(*base)}});
  for (const StructureKind* kind : structureKinds())
    out["structures"].push_back({{"key", kind->key},
                                 {"label", say(kind->name())},
                                 {"summary", say(Text(kind->name().key + "/summary"))},
                                 {"parameters", listOf(kind->parameters)}});
  return printed(out);
}

Text seatStart(const Assembly& assembly, const Seat& seat) {
  const SeatSide& side = seat.sides[0];
  if (seat.kind() != SeatKind::Face) return {"seat.start/fold", seat.label};
  // A face stands on a fold of its panel, or on the lower edge of it.
  const Vec2 origin = side.toPiece.translation().head<2>(),
             along = side.toPiece.linear().col(0).head<2>();
  for (FoldIndex f : assembly.foldsOf(side.panel)) {
    const Fold& fold = assembly.folds[f];
    if (std::abs(cross2(along, fold.from - origin)) < 1e-6 &&
        std::abs(cross2(along, fold.to - origin)) < 1e-6)
      return {"seat.start/fold", fold.label};
  }
  return "seat.start/edge";
}

std::string seatsToJson(const Design& design, const Assembly& assembly) {
  Json out = Json::array();
  for (const Seat& seat : assembly.seats) {
    Json entry = {{"id", seat.key},
                  {"label", say(seatName(design, assembly, seat))},
                  {"length_mm", seat.length_mm},
                  {"kind", seatKindKey(seat.kind())},
                  {"start", say(seatStart(assembly, seat))}};
    if (seat.kind() != SeatKind::Face)
      entry["sides"] = {{"a", assembly.panels[seat.sides[0].panel].key},
                        {"b", assembly.panels[seat.sides[1].panel].key}};
    else
      for (const auto& [name, line] : linesBelow(assembly, seat.sides[0]))
        entry["lines"].push_back(inWords(name));
    out.push_back(std::move(entry));
  }
  return printed(out);
}

namespace {

Json shutJson(const ShutState& shut) {
  const EnvelopeNeed envelope =
      envelopeFor(shut.width_mm, shut.height_mm, shut.thickness_mm, starting::kEnvelopeRoom_mm);
  return {{"thickness_mm", shut.thickness_mm},
          {"width_mm", shut.width_mm},
          {"height_mm", shut.height_mm},
          {"thickest_sheets", shut.thickestSheets},
          {"gutter_sheets", shut.gutterSheets},
          {"gutter_relief_mm", shut.gutterRelief_mm},
          {"pads_mm", shut.pads_mm},
          {"envelope_mm", {envelope.long_mm, envelope.short_mm}}};
}

Json standJson(const Stand& stand, const Design& design) {
  constexpr int kDirections = 12;
  Json out = {{"opening_deg", degrees(stand.opening_rad)},
              {"rests", design.card.rests == Rests::OnPage ? "page" : "edge"},
              {"reached", stand.reached}};
  if (!stand.reached) return out;
  out["stands"] = stand.leastTip_rad >= radians(starting::kStandingTilt_deg);
  out["tip_deg"] = degrees(stand.leastTip_rad);
  out["tip_direction_deg"] = degrees(stand.worstDirection_rad);
  out["weight_g"] = stand.weight_g;
  out["directions"] = Json::array();
  for (std::size_t k = 0; k < stand.tips_rad.size(); k += stand.tips_rad.size() / kDirections)
    out["directions"].push_back({{"direction_deg", 360.0 * static_cast<double>(k) /
                                                       static_cast<double>(stand.tips_rad.size())},
                                 {"tip_deg", degrees(stand.tips_rad[k])}});
  return out;
}

Json stackJson(const Stacking& stack, const Assembly& assembly) {
  Json out = {{"known", stack.known}, {"order", Json::array()}, {"ring", Json::array()}};
  for (PanelIndex p : stack.order)
    out["order"].push_back(assembly.panels[p].key);
  for (PanelIndex p : stack.ring)
    out["ring"].push_back(assembly.panels[p].key);
  return out;
}

Json mendJson(const Mend& mend, const Design& design) {
  Json out = {{"text", describe(mend, design)}, {"edits", Json::array()}};
  for (const MendEdit& e : mend.edits)
    out["edits"].push_back({{"id", e.id.text()},
                            {"key", e.key},
                            {"unit", unitKey(e.unit)},
                            {"from", e.from},
                            {"to", e.to}});
  return out;
}

} // namespace

std::string analysisToJson(const Analysis& analysis) {
  Json out = {{"verdict", verdictKey(analysis.verdict)},
              {"mobility", analysis.motion->mobility()},
              {"findings", Json::array()}};
  for (const Finding& f : analysis.findings) {
    Json others = Json::array();
    for (const Mend& other : f.otherMends)
      others.push_back(mendJson(other, analysis.design));
    out["findings"].push_back({{"code", f.code},
                               {"severity", severityKey(f.severity)},
                               {"elements", f.elements},
                               {"from_deg", degrees(f.from_rad)},
                               {"to_deg", degrees(f.to_rad)},
                               {"amount", f.amount},
                               {"unit", unitKey(f.unit)},
                               {"message", describe(f, analysis.design)},
                               {"mend", f.mend ? mendJson(*f.mend, analysis.design) : Json()},
                               {"other_mends", others},
                               {"goes_with", f.goesWith ? Json(*f.goesWith + 1) : Json()},
                               {"mend_sought", f.mendSought}});
  }
  // A card that does not come down to shut has no shut state: nothing is known of it.
  const bool shuts = analysis.motion->shuts();
  out["shut"] = shuts ? shutJson(*analysis.snapshot->shut()) : Json::object();
  out["shut"]["known"] = shuts;
  out["shut"]["stack"] = stackJson(*analysis.snapshot->stack(), *analysis.assembly);
  out["stand"] = standJson(*analysis.snapshot->stand(), analysis.design);
  return printed(out);
}

std::string sweepToJson(const Snapshot& snapshot, std::span<const double> openings_deg) {
  const Motion& motion = *snapshot.motion();
  const Assembly& assembly = motion.assembly();
  Json out = {{"low_deg", degrees(motion.low_rad())},
              {"high_deg", degrees(motion.high_rad())},
              {"mobility", motion.mobility()},
              {"contacts", Json::array()}};
  for (const Contact& c : findContacts(motion).contacts)
    out["contacts"].push_back(
        {{"panels", {assembly.panels[c.first].key, assembly.panels[c.second].key}},
         {"from_deg", degrees(c.from_rad)},
         {"to_deg", degrees(c.to_rad)},
         {"depth_mm", c.depth_mm}});
  out["thickness"] = shutJson(*snapshot.shut());
  out["openings"] = Json::array();
  for (double opening : openings_deg) {
    const Pose pose = motion.poseAt(radians(opening));
    Json panels = Json::array();
    for (PanelIndex p : assembly.panels.indices()) {
      if (!pose.placed[p]) continue;
      Json corners = Json::array();
      for (const Vec2& c : assembly.panels[p].outline.rim) {
        const Vec3 q = pose.panels[p] * lift(c);
        corners.push_back({q.x(), q.y(), q.z()});
      }
      panels.push_back({{"key", assembly.panels[p].key}, {"corners", corners}});
    }
    out["openings"].push_back({{"opening_deg", opening},
                               {"residual_mm", pose.residual_mm},
                               {"mobility", motion.mobility()},
                               {"panels", panels}});
  }
  return out.dump() + "\n";
}

std::string orderToJson(const AssemblyOrder& order, const Design& design, const Assembly& assembly,
                        const std::vector<DressMoment>& moments,
                        const KeyedVector<FaceIndex, Face>& faces) {
  const auto joinJson = [&](const JointGroup& group) {
    const Joint& joint = assembly.joints[group.front()];
    return Json{{"kind", jointKey(joint)},
                {"first", assembly.panels[panelsOf(joint)[0]].key},
                {"second", assembly.panels[panelsOf(joint)[1]].key},
                {"text", describe(group, design, assembly)}};
  };
  Json out = {{"steps", Json::array()}, {"unreachable", Json::array()}};
  for (std::size_t k = 0; k < order.steps.size(); ++k) {
    Json step = {{"step", k + 1}, {"joins", Json::array()}, {"before", nullptr}};
    for (const JointGroup& j : order.steps[k].joints)
      step["joins"].push_back(joinJson(j));
    if (order.steps[k].before >= 0) step["before"] = order.steps[k].before + 1;
    step["by_shutting"] = order.steps[k].byShutting;
    out["steps"].push_back(std::move(step));
  }
  for (const JointGroup& j : order.unreachable)
    out["unreachable"].push_back(joinJson(j));
  out["dressing"] = Json::array();
  for (const DressMoment& moment : moments) {
    Json keys = Json::array();
    for (FaceIndex face : moment.faces)
      keys.push_back(faces[face].key);
    out["dressing"].push_back({{"piece", assembly.pieces[moment.piece].key},
                               {"faces", std::move(keys)},
                               {"after", moment.after + 1},
                               {"before", moment.before < 0 ? Json() : Json(moment.before + 1)},
                               {"cut_open_mm", moment.cutOpen_mm}});
  }
  return printed(out);
}

} // namespace hinge
