// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geom/rim.h"
#include "core/pieces/rule_words.h"
#include "core/pieces/score_edits.h"
#include "core/pieces/sheet_edits.h"
#include "core/pieces/sheet_words.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace hinge {
namespace {

constexpr double kExact_mm = 1e-9;

bool same(const Vec2& a, const Vec2& b) {
  return (a - b).cwiseAbs().maxCoeff() < kExact_mm;
}

class Writing {
public:
  Writing(const SheetInWork& sheet, LengthUnit unit)
      : m_sheet(sheet), m_unit(unit), m_corner(boundsOf(sheet.work.outline).low) {}

  std::vector<std::string> run() {
    outline();
    for (const WorkLine& line : m_sheet.work.lines)
      m_out.push_back(line.kind == WorkLine::Kind::Cut
                          ? fmt::format("cut {} to {}", point(line.from), point(line.to))
                          : score(line));
    for (const Polygon& window : m_sheet.work.windows)
      m_out.push_back(opening(window));
    for (const PieceJoint& joint : m_sheet.work.joints)
      m_out.push_back(joined(joint));
    if (m_sheet.ground) m_out.push_back("ground " + point(*m_sheet.ground));
    if (!same(m_corner, Vec2::Zero()))
      m_out.push_back(fmt::format("corner at {},{}", length(m_corner.x()), length(m_corner.y())));
    return std::move(m_out);
  }

  std::string joined(PieceJoint joint) const {
    std::string text = fmt::format("{} {} on {} at {},{}", jointKey(joint.kind), point(joint.at),
                                   joint.on, length(joint.to.x()), length(joint.to.y()));
    for (std::size_t k = 0; k < joint.rules.size(); ++k)
      text += (k == 0 ? " " : " and ") + inWords(joint.rules[k], m_corner, m_unit);
    if (const bool* byFace = byFaceOf(joint.kind); byFace && *byFace) text += " by face";
    const auto index = static_cast<std::size_t>(
        std::ranges::find(kJointKeys, jointKey(joint.kind)) - kJointKeys.begin());
    given::Kind plain = changedTo(index, given::Kind());
    const auto usual = numbersOf(plain), own = numbersOf(joint.kind);
    const auto told = [&](std::size_t k) { return *own[k].value != *usual[k].value; };
    for (std::size_t k = 0; k < own.size(); ++k)
      if (told(k) || (own[k].key.starts_with("hand_from") && told(k + 1)))
        text += fmt::format(" {} {}", jointWord(own[k].key),
                            own[k].isLength() ? length(*own[k].value) : exactNumber(*own[k].value));
    if (const auto* glue = std::get_if<given::Glue>(&joint.kind); glue && !glue->area.empty())
      text += " only" + points(glue->area);
    return text;
  }

private:
  std::string length(double mm) const { return exactLength(mm, m_unit); }
  std::string point(const Vec2& p) const {
    return length(p.x() - m_corner.x()) + "," + length(p.y() - m_corner.y());
  }
  std::string points(const Polygon& polygon) const {
    std::string text;
    for (const Vec2& p : polygon)
      text += " " + point(p);
    return text;
  }

  void outline() {
    const Vec2 size = boundsOf(m_sheet.work.outline).size();
    const Polygon plain = plainStrip(size.x(), size.y()).outline;
    bool rectangle = plain.size() == m_sheet.work.outline.size();
    for (std::size_t k = 0; k < plain.size() && rectangle; ++k)
      rectangle = same(plain[k], m_sheet.work.outline[k]);
    m_out.push_back(rectangle ? fmt::format("size {} x {}", length(size.x()), length(size.y()))
                              : "outline" + points(m_sheet.work.outline));
  }

  std::string opening(const Polygon& window) const {
    const auto alike = [&](const Polygon& other) {
      return other.size() == window.size() && std::ranges::equal(other, window, same);
    };
    const Box2 box = boundsOf(window);
    if (alike(rectangle(box.low, box.high)))
      return fmt::format("opening {} to {}", point(box.low), point(box.high));
    Vec2 middle = Vec2::Zero();
    for (const Vec2& p : window)
      middle += p / static_cast<double>(window.size());
    const double across = 2 * (window.front() - middle).norm();
    if (window.size() >= kLeastDisc && alike(disc(middle, across)))
      return fmt::format("opening disc {} across {}", point(middle), length(across));
    return "opening" + points(window);
  }

  std::string score(const WorkLine& line) const {
    const std::string_view kind = workKey(line.kind);
    const auto low = acrossAt(m_sheet.work, line.from.x()),
               high = acrossAt(m_sheet.work, line.to.x());
    const auto level = alongAt(m_sheet.work, line.from.y());
    std::string text;
    if (low && high && same(low->first, line.from) && same(high->second, line.to)) {
      text = "score " + length(line.from.x() - m_corner.x());
      if (!same({line.from.x(), 0}, {line.to.x(), 0}))
        text += " > " + length(line.to.x() - m_corner.x());
    } else if (level && same(level->first, line.from) && same(level->second, line.to)) {
      text = "score across " + length(line.from.y() - m_corner.y());
    } else {
      text = fmt::format("score {} to {}", point(line.from), point(line.to));
    }
    return fmt::format("{} {}{}{}", text, kind, moves(line),
                       line.folded_deg ? " folded " + exactNumber(*line.folded_deg) : "");
  }

  /// What is said of a fold where it is not what is meant without a word: its row folds together,
  /// and follows the opening just when it is a base's, from edge to edge.
  std::string moves(const WorkLine& line) const {
    const auto row =
        rowOf(m_sheet.work, static_cast<std::size_t>(&line - m_sheet.work.lines.data()));
    const bool follows = m_sheet.base && isFromEdgeToEdge(m_sheet.work, row);
    const auto silent = follows ? std::optional<FoldMoves>(FoldMoves()) : std::nullopt;
    const auto asSilent = [&](std::size_t k) { return m_sheet.work.lines[k].moves == silent; };
    if (std::ranges::all_of(row, asSilent)) return "";
    if (!line.moves) return " free";
    const FoldMoves& m = *line.moves;
    if (m.byHand)
      return fmt::format(" lifted from {} to {}{}", exactNumber(m.shut_deg),
                         exactNumber(m.open_deg),
                         m.step_deg > 0 ? " step " + exactNumber(m.step_deg) : "");
    if (m.shut_deg == m.open_deg && m.from_deg == 0 && m.to_deg == 180)
      return " held at " + exactNumber(m.shut_deg);
    std::string text = " opens";
    if (m.shut_deg != 0) text += " from " + exactNumber(m.shut_deg);
    text += " to " + exactNumber(m.open_deg);
    if (m.from_deg != 0 || m.to_deg != 180)
      text += fmt::format(" between {} and {}", exactNumber(m.from_deg), exactNumber(m.to_deg));
    return text;
  }

  const SheetInWork& m_sheet;
  LengthUnit m_unit;
  Vec2 m_corner;
  std::vector<std::string> m_out;
};

} // namespace

std::string exactNumber(double value) {
  for (int decimals = 0; decimals < 12; ++decimals)
    if (std::string text = formatNumber(value, decimals); std::abs(std::stod(text) - value) < 1e-10)
      return text;
  return fmt::format("{}", value);
}

std::string_view jointWord(std::string_view key) {
  static constexpr std::pair<std::string_view, std::string_view> kWords[] = {
      {"turn_deg", "turned"},     {"way_deg", "way"},        {"slit_mm", "deep"},
      {"face_slit_mm", "into"},   {"catch_mm", "catch"},     {"least_mm", "least"},
      {"most_mm", "most"},        {"pull_mm", "pulled"},     {"pull_from_deg", "after"},
      {"pull_to_deg", "until"},   {"hand_from_deg", "spun"}, {"hand_to_deg", "to"},
      {"hand_from_mm", "pushed"}, {"hand_to_mm", "to"},      {"length_mm", "long"},
      {"hand_step_deg", "step"},  {"hand_step_mm", "step"}};
  const auto found =
      std::ranges::find(kWords, key, &std::pair<std::string_view, std::string_view>::first);
  return found == std::end(kWords) ? key : found->second;
}

std::string exactLength(double length_mm, LengthUnit unit) {
  const auto exact = [&](const std::string& text, LengthUnit in) {
    const auto again = parseLength_mm(text, in);
    return again && std::abs(*again - length_mm) < kExact_mm;
  };
  if (std::string text = formatLength(length_mm, unit, false); exact(text, unit)) return text;
  std::string inMillimetres = fmt::format("{}mm", length_mm);
  for (int decimals = 3; decimals < 12; ++decimals)
    if (std::string text = formatNumber(length_mm / millimetresIn(unit), decimals);
        exact(text, unit))
      // 60 mm is no number of an inch ruler; nor are ten decimals.
      return inMillimetres.size() < text.size() ? inMillimetres : text;
  return inMillimetres;
}

std::vector<std::string> sentencesOf(const SheetInWork& sheet, LengthUnit unit) {
  return Writing(sheet, unit).run();
}

std::string jointSentence(const SheetInWork& sheet, const PieceJoint& joint, LengthUnit unit) {
  return Writing(sheet, unit).joined(joint);
}

} // namespace hinge
