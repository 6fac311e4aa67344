// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/placing.h"
#include "core/geom/rim.h"
#include "core/pieces/piece_sheet.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <array>
#include <cmath>

namespace hinge {
namespace {

constexpr double kSameTurn_rad = 1e-6;
constexpr double kHold_mm = 1e-4; ///< two rules that come this near to one another both hold

Eigen::Matrix2d flatMap(const SeatSide& side) {
  return side.toPiece.linear().topLeftCorner<2, 2>();
}
double angleOf(const Vec2& v) {
  return std::atan2(v.y(), v.x());
}

/// One edge or fold of a panel with all that lies on the same line, in the flat frame.
PaperLine wholeLine(const Polygon& rim, const Edge& edge, const Vec2& in) {
  Vec2 along = (edge.second - edge.first).normalized();
  if (along.y() < -kSameTurn_rad || (std::abs(along.y()) <= kSameTurn_rad && along.x() < 0))
    along = -along;
  double low = 0, high = along.dot(edge.second - edge.first);
  if (high < low) std::swap(low, high);
  for (const Vec2& p : rim) {
    if (std::abs(cross2(along, p - edge.first)) > kTouch_mm) continue;
    low = std::min(low, along.dot(p - edge.first)),
    high = std::max(high, along.dot(p - edge.first));
  }
  return {edge.first + low * along, along, in, high - low};
}

std::optional<PaperLine> lineOf(const Polygon& rim, SheetEdge side) {
  const auto edge = edgeOnSide(rim, side);
  if (!edge) return std::nullopt;
  return wholeLine(rim, edgesOf(rim)[*edge], -outwards(rim, *edge));
}

PaperLine lineAt(const Polygon& rim, const Vec2& at) {
  const auto edges = edgesOf(rim);
  const auto far = [&](const Edge& e) { return distanceToSegment(at, e.first, e.second); };
  const auto nearest = std::ranges::min_element(edges, {}, far);
  return wholeLine(rim, *nearest,
                   -outwards(rim, static_cast<std::size_t>(nearest - edges.begin())));
}

/// The line of a fold of the panel, in the flat frame.
PaperLine lineOf(const Assembly& assembly, PanelIndex panel, const Fold& fold) {
  const Vec2 along = (fold.to - fold.from).normalized(), left(-along.y(), along.x());
  return wholeLine(assembly.panels[panel].outline.rim, {fold.from, fold.to},
                   fold.left == panel ? left : Vec2(-left));
}

std::string lastWord(const std::string& key) {
  return key.substr(key.rfind('/') + 1);
}

Result<PaperLine> foldBelow(const Assembly& assembly, PanelIndex panel, const std::string& key) {
  std::optional<PaperLine> found;
  std::string names;
  for (FoldIndex f : assembly.foldsOf(panel)) {
    const Fold& fold = assembly.folds[f];
    names += (names.empty() ? "" : ", ") + lastWord(fold.key);
    if (!key.empty() && fold.key != key && lastWord(fold.key) != key) continue;
    const PaperLine line = lineOf(assembly, panel, fold);
    // Cuts part a fold into several: they are one line.
    if (found && (std::abs(cross2(found->along, line.along)) > kSameTurn_rad ||
                  std::abs(cross2(found->along, line.at - found->at)) > kTouch_mm))
      return Error{{"rule.which-fold", assembly.panels[panel].label, names}, ""};
    found = line;
  }
  if (found) return *found;
  if (names.empty()) return Error{{"rule.no-fold/none", assembly.panels[panel].label}, ""};
  return Error{{"rule.no-fold", assembly.panels[panel].label, key, names}, ""};
}

/// A line of the flat sheet in the frame of a face.
PaperLine inFace(const SeatSide& face, const PaperLine& line) {
  const Eigen::Matrix2d back = flatMap(face).inverse();
  return {facePoint(face, line.at), back * line.along, back * line.in, line.length_mm};
}

bool sameLine(const PaperLine& a, const PaperLine& b) {
  return std::abs(cross2(a.along, b.along)) < kSameTurn_rad && a.in.dot(b.in) > 0 &&
         std::abs(a.in.dot(b.at - a.at)) < kTouch_mm;
}

Text called(SheetEdge side) {
  static constexpr std::array kCalled{"rule.side/left", "rule.side/right", "rule.side/bottom",
                                      "rule.side/top"};
  return kCalled[static_cast<std::size_t>(side)];
}

/// The folds that lead from one panel of a sheet to another, by the fewest.
std::optional<std::vector<FoldIndex>> foldsBetween(const Assembly& assembly, PanelIndex from,
                                                   PanelIndex to) {
  std::vector<std::pair<PanelIndex, std::vector<FoldIndex>>> reached{{from, {}}};
  for (std::size_t k = 0; k < reached.size(); ++k) {
    const auto [here, path] = reached[k];
    if (here == to) return path;
    for (FoldIndex f : assembly.foldsOf(here)) {
      const Fold& fold = assembly.folds[f];
      const PanelIndex next = fold.left == here ? fold.right : fold.left;
      if (std::ranges::any_of(reached, [next](const auto& was) { return was.first == next; }))
        continue;
      reached.push_back({next, path});
      reached.back().second.push_back(f);
    }
  }
  return std::nullopt;
}

class Placing {
public:
  Placing(const PieceJoint& joint, const JointToPlace& on)
      : m_in(joint), m_on(on), m_face(on.assembly.findSeat(joint.on)->sides[0]),
        m_lies(startsAs(joint.kind)), m_rim(on.panel) {}

  Result<PieceJoint> run() {
    // How the sheet is turned comes first: the others measure it as it lies then.
    for (std::size_t k = 0; k < m_in.rules.size(); ++k)
      if (auto turned = turnBy(k); !turned) return turned.error();
    for (std::size_t k = 0; k < m_in.rules.size(); ++k) {
      auto held = std::visit([&](const auto& rule) { return hold(k, rule); }, m_in.rules[k]);
      if (!held) return held.error();
    }
    auto to = solved();
    if (!to) return to.error();
    PieceJoint made = m_in;
    // Files keep it: rounding of the way there is no place on paper.
    constexpr double kTidy = 1e9;
    made.to = (kTidy * *to).array().round() / kTidy;
    if (m_turnedBy) layAs(made.kind, angleOf(m_lies->x));
    return made;
  }

  /// How far the own line of a rule is from the one below as the joint's numbers have it.
  Result<double> measured(const placed::Distance& rule) const {
    const auto line = below(rule.from);
    if (!line) return line.error();
    Vec2 mine = Vec2::Zero();
    if (!std::holds_alternative<std::monostate>(rule.own)) {
      const auto found = own(rule.own);
      if (!found) return found.error();
      mine = lying(found->at - m_in.at);
    }
    return line->in.dot(m_in.to + mine - line->at);
  }

private:
  /// a . to = b
  struct Wanted {
    Vec2 a;
    double b;
    std::size_t rule;
  };

  Vec2 lying(const Vec2& own) const {
    return m_lies ? Vec2(own.x() * m_lies->x + own.y() * m_lies->y()) : own;
  }
  Error both(std::size_t one, std::size_t other, const char* key = "rule.both") const {
    return {{key, described(m_in.rules[one]), described(m_in.rules[other])}, ""};
  }

  Result<PaperLine> below(const placed::LineBelow& meant) const {
    const PanelIndex panel = m_face.panel;
    const Polygon& rim = m_on.assembly.panels[panel].outline.rim;
    if (const auto* fold = std::get_if<placed::FoldBelow>(&meant)) {
      const auto line = foldBelow(m_on.assembly, panel, fold->key);
      if (!line) return line;
      return inFace(m_face, *line);
    }
    const SheetEdge side = std::get<SheetEdge>(meant);
    if (const auto line = lineOf(rim, side)) return inFace(m_face, *line);
    return Error{{"rule.no-side", m_on.assembly.panels[panel].label, called(side)}, ""};
  }

  Result<PaperLine> own(const placed::OwnLine& meant) const {
    if (const SheetEdge* side = std::get_if<SheetEdge>(&meant)) {
      const auto found = lineOf(m_rim, *side);
      if (found) return *found;
      return Error{{"rule.no-side", m_on.name, called(*side)}, ""};
    }
    return lineAt(m_rim, std::get<Vec2>(meant));
  }

  Result<void> turnTo(std::size_t rule, double angle) {
    if (!m_lies) return Error{{"rule.own-line", described(m_in.rules[rule])}, ""};
    const Vec2 x(std::cos(angle), std::sin(angle));
    if (m_turnedBy && (x - m_lies->x).norm() > kSameTurn_rad)
      return both(*m_turnedBy, rule,
                  (x + m_lies->x).norm() < kSameTurn_rad ? "rule.both/turned" : "rule.both");
    if (!m_turnedBy) m_lies->x = x, m_turnedBy = rule;
    return {};
  }

  Result<void> turnBy(std::size_t k) {
    if (const auto* given = std::get_if<placed::Distance>(&m_in.rules[k])) {
      if (std::holds_alternative<std::monostate>(given->own)) return {};
      const auto line = below(given->from);
      if (!line) return line.error();
      const auto mine = own(given->own);
      if (!mine) return mine.error();
      const double up = m_lies ? m_lies->up : 1;
      return turnTo(k, angleOf(given->upTo ? Vec2(-line->in) : line->in) - up * angleOf(mine->in));
    }
    if (const auto* given = std::get_if<placed::Mirrored>(&m_in.rules[k])) {
      const auto image = mirrorImage(*given);
      if (!image) return image.error();
      if (m_lies) return turnTo(k, angleOf(image->map.col(0)));
    }
    return {};
  }

  Result<void> hold(std::size_t k, const placed::Distance& rule) {
    const auto far = measured(rule);
    if (!far) return far.error();
    const Vec2 in = below(rule.from)->in;
    m_wanted.push_back({in, in.dot(m_in.to) + rule.distance_mm - *far, k});
    return {};
  }

  /// How far the panel reaches along a direction of the face, from the joint's point.
  std::pair<double, double> extent(const Vec2& along) const {
    if (!m_lies) return {0, 0};
    std::pair<double, double> reach{1e300, -1e300};
    for (const Vec2& p : m_rim) {
      const double at = along.dot(lying(p - m_in.at));
      reach = {std::min(reach.first, at), std::max(reach.second, at)};
    }
    return reach;
  }

  Result<void> hold(std::size_t k, const placed::Centred& rule) {
    const auto line = below(rule.on);
    if (!line) return line.error();
    const auto [low, high] = extent(line->along);
    const double middle = line->along.dot(line->at) + 0.5 * line->length_mm;
    m_wanted.push_back({line->along, middle - 0.5 * (low + high), k});
    return {};
  }

  Result<void> hold(std::size_t k, const placed::Spaced& rule) {
    const auto line = below(rule.on);
    if (!line) return line.error();
    const auto [low, high] = extent(line->along);
    const double width = high - low, gap = (line->length_mm - rule.of * width) / (rule.of + 1);
    if (gap < -kTouch_mm)
      return Error{
          {"rule.no-room", Decimal{rule.of}, Millimetres{width}, Millimetres{line->length_mm}}, ""};
    const double begins = line->along.dot(line->at) + gap * rule.which + width * (rule.which - 1);
    m_wanted.push_back({line->along, begins - low, k});
    return {};
  }

  /// Another joint of the piece, as it lies.
  Result<const PieceJoint*> other(const Vec2& at) const {
    const PieceSheet sheet(m_on.work);
    const std::size_t face = sheet.faceAt(at);
    for (const PieceJoint& joint : m_on.placed)
      if (sheet.faceAt(joint.at) == face) return &joint;
    for (const PieceJoint& joint : m_on.work.joints)
      if (sheet.faceAt(joint.at) == face) return Error{"rule.later", ""};
    return Error{"rule.no-joint", ""};
  }
  const SeatSide& faceOf(const PieceJoint& joint) const {
    return m_on.assembly.findSeat(joint.on)->sides[0];
  }

  Result<void> hold(std::size_t k, const placed::Level& rule) {
    const auto with = other(rule.with);
    if (!with) return with.error();
    const SeatSide& there = faceOf(**with);
    const auto path = foldsBetween(m_on.assembly, there.panel, m_face.panel);
    if (!path) return Error{"rule.level", ""};
    Vec2 u = flatMap(m_face).col(0); // on one panel: along the line on which it stands
    for (std::size_t f = 0; f < path->size(); ++f) {
      const Fold& fold = m_on.assembly.folds[(*path)[f]];
      const Vec2 along = (fold.to - fold.from).normalized();
      if (f > 0 && std::abs(cross2(u, along)) > kSameTurn_rad) return Error{"rule.level", ""};
      u = along;
    }
    const Vec2 offset = m_lies ? lying((*with)->at - m_in.at) : Vec2(Vec2::Zero());
    const Vec2 a = flatMap(m_face).transpose() * u;
    const double begins =
        u.dot(flatPoint(there, (*with)->to)) - u.dot(flatPoint(m_face, Vec2::Zero()));
    m_wanted.push_back({a, begins - a.dot(offset), k});
    return {};
  }

  struct MirrorImage {
    Vec2 to;
    Eigen::Matrix2d map; ///< of the piece's directions onto the face
  };
  Result<MirrorImage> mirrorImage(const placed::Mirrored& rule) const {
    const auto of = other(rule.of);
    if (!of) return of.error();
    const SeatSide& there = faceOf(**of);
    const auto path = foldsBetween(m_on.assembly, there.panel, m_face.panel);
    if (!path || path->size() != 1) return Error{"rule.mirrored", ""};
    const Fold& fold = m_on.assembly.folds[path->front()];
    const Vec2 u = (fold.to - fold.from).normalized();
    const Eigen::Matrix2d reflect = 2 * u * u.transpose() - Eigen::Matrix2d::Identity();
    const Vec2 to = fold.from + reflect * (flatPoint(there, (*of)->to) - fold.from);
    MirrorImage image{facePoint(m_face, to), Eigen::Matrix2d::Identity()};
    const auto lies = startsAs((*of)->kind);
    if (!lies || !m_lies) return image;
    if (lies->up != m_lies->up) return Error{"rule.mirrored-side", ""};
    Eigen::Matrix2d first, exchange = Eigen::Vector2d(-1, 1).asDiagonal();
    first << lies->x, lies->y();
    image.map = flatMap(m_face).inverse() * reflect * flatMap(there) * first * exchange;
    // The twin of its point on the piece may be another one than this joint's.
    const Box2 box = boundsOf(m_on.work.outline);
    const Vec2 twin(box.low.x() + box.high.x() - (*of)->at.x(), (*of)->at.y());
    image.to += image.map * (m_in.at - twin);
    return image;
  }

  Result<void> hold(std::size_t k, const placed::Mirrored& rule) {
    const auto image = mirrorImage(rule);
    if (!image) return image.error();
    m_wanted.push_back({Vec2::UnitX(), image->to.x(), k});
    m_wanted.push_back({Vec2::UnitY(), image->to.y(), k});
    return {};
  }

  /// The place that all rules want, as near to the one by numbers as they leave it.
  Result<Vec2> solved() const {
    Vec2 to = m_in.to;
    if (m_wanted.empty()) return to;
    const Wanted& first = m_wanted.front();
    to += (first.b - first.a.dot(to)) / first.a.squaredNorm() * first.a;
    const auto second = std::ranges::find_if(
        m_wanted, [&](const Wanted& w) { return std::abs(cross2(first.a, w.a)) > kSameTurn_rad; });
    if (second != m_wanted.end()) {
      Eigen::Matrix2d square;
      square << first.a.transpose(), second->a.transpose();
      to = square.inverse() * Vec2(first.b, second->b);
    }
    for (const Wanted& w : m_wanted)
      if (std::abs(w.a.dot(to) - w.b) > kHold_mm)
        return both(second == m_wanted.end() || w.rule != first.rule ? first.rule : second->rule,
                    w.rule);
    return to;
  }

  const PieceJoint& m_in;
  const JointToPlace& m_on;
  const SeatSide& m_face;
  std::optional<LiesOn> m_lies;
  const Polygon& m_rim;
  std::optional<std::size_t> m_turnedBy; ///< the rule
  std::vector<Wanted> m_wanted;
};

Text describedLine(const placed::LineBelow& line) {
  if (const SheetEdge* side = std::get_if<SheetEdge>(&line)) return {"rule.edge", called(*side)};
  const std::string& key = std::get<placed::FoldBelow>(line).key;
  return key.empty() ? Text("rule.fold") : Text("rule.fold/named", lastWord(key));
}

struct Describing {
  Text operator()(const placed::Distance& rule) const {
    Text own = "rule.own/point";
    if (const SheetEdge* side = std::get_if<SheetEdge>(&rule.own))
      own = {"rule.own/side", called(*side)};
    else if (const Vec2* at = std::get_if<Vec2>(&rule.own))
      own = {"rule.own/at", Millimetres{at->x()}, Millimetres{at->y()}};
    const Text line = describedLine(rule.from);
    const Millimetres far{rule.distance_mm};
    if (rule.distance_mm < 0 && !rule.upTo)
      return {"rule.past", own, Millimetres{-rule.distance_mm}, line};
    if (rule.distance_mm == 0) return {rule.upTo ? "rule.up-to-line" : "rule.on", own, line};
    return {rule.upTo ? "rule.up-to" : "rule.from", own, far, line};
  }
  Text operator()(const placed::Centred& rule) const {
    return {"rule.centred", describedLine(rule.on)};
  }
  Text operator()(const placed::Spaced& rule) const {
    return {"rule.spaced", Decimal{rule.which}, Decimal{rule.of}, describedLine(rule.on)};
  }
  Text operator()(const placed::Level&) const { return "rule.level/said"; }
  Text operator()(const placed::Mirrored&) const { return "rule.mirrored/said"; }
};

} // namespace

Vec2 flatPoint(const SeatSide& side, const Vec2& onFace) {
  return (side.toPiece * lift(onFace)).head<2>();
}

Vec2 facePoint(const SeatSide& side, const Vec2& flat) {
  return (inverseOf(side.toPiece) * lift(flat)).head<2>();
}

std::vector<std::pair<placed::LineBelow, PaperLine>> linesBelow(const Assembly& assembly,
                                                                const SeatSide& face) {
  std::vector<std::pair<placed::LineBelow, PaperLine>> all;
  const auto add = [&](placed::LineBelow name, const PaperLine& line) {
    const PaperLine there = inFace(face, line);
    if (std::ranges::none_of(all, [&](const auto& known) { return sameLine(known.second, there); }))
      all.emplace_back(std::move(name), there);
  };
  const auto& folds = assembly.foldsOf(face.panel);
  for (FoldIndex f : folds) {
    const Fold& fold = assembly.folds[f];
    add(placed::FoldBelow{lastWord(fold.key)}, lineOf(assembly, face.panel, fold));
  }
  for (std::size_t side = 0; side < kSideWords.size(); ++side)
    if (const auto line = lineOf(assembly.panels[face.panel].outline.rim, SheetEdge(side)))
      add(SheetEdge(side), *line);
  return all;
}

std::vector<std::pair<placed::OwnLine, PaperLine>> ownLines(const Polygon& panel) {
  std::vector<std::pair<placed::OwnLine, PaperLine>> all;
  const auto edges = edgesOf(panel);
  for (std::size_t k = 0; k < edges.size(); ++k) {
    placed::OwnLine name = Vec2(0.5 * (edges[k].first + edges[k].second));
    for (std::size_t side = 0; side < kSideWords.size(); ++side)
      if (edgeOnSide(panel, SheetEdge(side)) == k) name = SheetEdge(side);
    all.emplace_back(name, wholeLine(panel, edges[k], -outwards(panel, k)));
  }
  return all;
}

Result<double> distanceNow(const placed::Distance& rule, const PieceJoint& joint,
                           const JointToPlace& on) {
  return Placing(joint, on).measured(rule);
}

Result<PieceJoint> placedByRules(const PieceJoint& joint, const JointToPlace& on) {
  if (joint.rules.empty()) return joint;
  return Placing(joint, on).run();
}

placed::LineBelow mirroredLine(const Assembly& assembly, const placed::LineBelow& line,
                               const SeatSide& from, const SeatSide& onto) {
  const auto image = [&](const Vec2& inFlat) -> Vec2 {
    const Vec2 there = flatMap(from).inverse() * inFlat;
    return flatMap(onto) * Vec2(-there.x(), there.y());
  };
  if (const SheetEdge* side = std::get_if<SheetEdge>(&line))
    return sideTowards(image(outOf(*side)));
  const std::string& key = std::get<placed::FoldBelow>(line).key;
  const auto was = foldBelow(assembly, from.panel, key);
  if (!was || key.empty()) return line;
  const Vec2 in = image(was->in);
  placed::LineBelow nearest = line;
  double best = -1;
  for (FoldIndex f : assembly.foldsOf(onto.panel)) {
    const Fold& fold = assembly.folds[f];
    if (const double alike = lineOf(assembly, onto.panel, fold).in.dot(in); alike > best)
      best = alike, nearest = placed::FoldBelow{lastWord(fold.key)};
  }
  return nearest;
}

Text described(const PlaceRule& rule) {
  return std::visit(Describing(), rule);
}

} // namespace hinge
