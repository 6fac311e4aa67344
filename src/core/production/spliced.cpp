// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/production/spliced.h"
#include "core/pieces/splicing.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kOn_mm = 0.01, kSpeck_mm2 = 0.05, kLost_mm2 = 1, kFar_mm = 1e6;
constexpr double kStep_mm = 1; ///< between places that are tried
constexpr int kMostParts = 12; ///< of one piece
constexpr double kRoomForSheets_mm = 5;
constexpr double kFinger_mm = 10; ///< clear of folds, if it can be
constexpr double kLook_mm = 2;    ///< between points of a cut that are looked at

std::vector<FlatArea> areasOn(const std::vector<FlatArea>& areas, const Region& side) {
  std::vector<FlatArea> own;
  for (const FlatArea& area : areas)
    for (const Region& part : common(area.outline, side))
      if (area_mm2(part) > kSpeck_mm2) own.push_back({area.panel, part, area.onFace});
  return own;
}

/// What lies on one side of a cut, with this as its paper.
FlatPiece part(const FlatPiece& piece, const Region& paper, const Region& side) {
  FlatPiece own{piece.piece, {}, {}, {}, {}, {}, boundsOf(paper), piece.paper};
  for (const Polygon* ring : ringsOf(paper))
    own.lines.push_back({LineKind::Cut, *ring, true});
  for (const FlatLine& line : piece.lines)
    if (!(line.kind == LineKind::Cut && line.closed) &&
        contains(side, 0.5 * (line.corners.front() + line.corners.back()), kOn_mm))
      own.lines.push_back(line);
  own.glue = areasOn(piece.glue, side), own.marks = areasOn(piece.marks, side);
  bool named = false;
  for (const FlatLabel& label : piece.labels)
    if (contains(side, label.at)) {
      named = named || !label.panel.valid();
      own.labels.push_back(label);
    }
  if (!named)
    own.labels.insert(own.labels.begin(),
                      {piece.piece, {}, centroidOf(side), 0.4 * boundsOf(side).size()});
  return own;
}

/// Whether all of a splice lies on a part, with paper on both sides of the cut: two splices may not
/// share their tabs.
bool holds(const FlatPiece& part, const LaidSplice& laid, const Splice& splice) {
  const Region paper = paperOf(part);
  const Eigen::Index axis = splice.level ? 1 : 0;
  const auto there = common(paper, laid.overlap);
  return there.size() == 1 && area_mm2(there.front()) > area_mm2(laid.overlap) - kLost_mm2 &&
         between(paper, axis, -kFar_mm, laid.cut_mm).size() == 1 &&
         between(paper, axis, laid.cut_mm, kFar_mm).size() == 1;
}

/// Parts what holds the splice.
std::pair<FlatPiece, FlatPiece> partedAt(const FlatPiece& piece, const LaidSplice& laid,
                                         const Splice& splice) {
  const Region whole = paperOf(piece);
  const Eigen::Index axis = splice.level ? 1 : 0;
  const Region left = between(whole, axis, -kFar_mm, laid.cut_mm).front(),
               right = between(whole, axis, laid.cut_mm, kFar_mm).front();
  const Region withTab = united({left, laid.tab}).front();
  std::pair halves{part(piece, withTab, left), part(piece, right, right)};
  halves.first.glue.push_back({laid.panel, laid.tab, !splice.onFace});
  halves.second.marks.push_back({laid.panel, laid.tab, splice.onFace});
  return halves;
}

} // namespace

std::vector<FlatPiece> cutParts(const FlatPiece& piece, const Assembly& assembly,
                                const std::vector<Splice>& splices) {
  std::vector<FlatPiece> parts{piece};
  for (const Splice& splice : splices) {
    const auto laid = laidSplice(assembly, splice);
    if (!laid || assembly.panels[laid->panel].piece != piece.piece) continue;
    for (std::size_t k = 0; k < parts.size(); ++k) {
      if (!holds(parts[k], *laid, splice)) continue;
      auto [left, right] = partedAt(parts[k], *laid, splice);
      parts[k] = std::move(left);
      parts.insert(parts.begin() + static_cast<std::ptrdiff_t>(k) + 1, std::move(right));
      break;
    }
  }
  for (std::size_t k = 0; parts.size() > 1 && k < parts.size(); ++k)
    parts[k].part = static_cast<int>(k) + 1;
  return parts;
}

namespace {

class Proposing {
public:
  Proposing(const Design& design, const Assembly& assembly,
            const KeyedVector<FaceIndex, Face>& faces, const std::vector<FaceSeen>& seen,
            const std::vector<LaidOn>& laid, double margin_mm)
      : m_design(design), m_assembly(assembly), m_faces(faces), m_seen(seen), m_laid(laid),
        m_margin_mm(margin_mm) {}

  std::optional<SpliceProposal> proposed(const FlatPiece& piece) {
    std::vector<FlatPiece> parts = cutParts(piece, m_assembly, m_design.splices);
    if (std::ranges::all_of(parts, [&](const FlatPiece& p) { return fits(p); }))
      return std::nullopt;
    SpliceProposal out;
    out.piece = piece.piece;
    const Vec2 room = piece.bounds.size() + 2 * Vec2::Constant(m_margin_mm + kRoomForSheets_mm);
    out.spared_width_mm = std::min(room.x(), room.y());
    out.spared_height_mm = std::max(room.x(), room.y());
    std::vector<Splice> all = m_design.splices;
    for (std::size_t k = 0; k < parts.size() && parts.size() < kMostParts;) {
      if (fits(parts[k])) {
        ++k;
        continue;
      }
      const auto best = bestFor(parts[k]);
      if (!best) {
        out.splices.clear();
        return out;
      }
      out.splices.push_back(best->splice), all.push_back(best->splice);
      out.seen = std::max(out.seen, best->seen);
      out.tabHidden = out.tabHidden && best->tabHidden;
      parts = cutParts(piece, m_assembly, all);
      k = 0;
    }
    return out;
  }

private:
  struct Candidate {
    Splice splice;
    bool bothFit = false, tabHidden = false, atFold = false;
    double seen = 0, uneven = 0;
    auto rank() const {
      // In steps of a twentieth: shares that differ by less are the same to the eye.
      return std::tuple(!bothFit, std::lround(20 * seen), !tabHidden, atFold, uneven);
    }
  };

  bool fits(const FlatPiece& piece) const { return fitsSomeSheet(m_design, piece, m_margin_mm); }

  double shareOf(PanelIndex panel, bool back) const {
    if (m_seen.size() != m_faces.size()) return 0;
    for (FaceIndex f : m_faces.indices())
      if (m_faces[f].panel == panel && m_faces[f].back == back)
        return m_seen[static_cast<std::size_t>(f.value)].display;
    return 0;
  }

  std::optional<Candidate> bestFor(const FlatPiece& piece) const {
    std::optional<Candidate> best;
    for (PanelIndex p : m_assembly.pieces[piece.piece].panels)
      for (const bool level : {false, true}) {
        const Box2 box = boundsOf(m_assembly.panels[p].outline);
        const double length = box.size()[level ? 1 : 0];
        for (double at = kStep_mm; at < length; at += kStep_mm) {
          Splice splice;
          splice.panel = m_assembly.panels[p].key, splice.at_mm = at, splice.level = level;
          judge(piece, p, splice, best);
        }
      }
    return best;
  }

  void judge(const FlatPiece& piece, PanelIndex p, Splice splice,
             std::optional<Candidate>& best) const {
    const auto laid = laidSplice(m_assembly, splice);
    if (!laid || !holds(piece, *laid, splice)) return;
    const auto [left, right] = partedAt(piece, *laid, splice);
    if (!fits(left)) return; // the other one may be parted again
    Candidate now;
    now.bothFit = fits(right);
    const double face = shareOf(p, false), back = shareOf(p, true);
    splice.onFace = face < back;
    now.splice = splice;
    now.seen = std::max(face * barePart(piece, *laid, splice.level, true),
                        back * barePart(piece, *laid, splice.level, false));
    const Box2 box = boundsOf(m_assembly.panels[p].outline);
    now.atFold = splice.at_mm < kFinger_mm ||
                 splice.at_mm + splice.overlap_mm > box.size()[splice.level ? 1 : 0] - kFinger_mm;
    now.tabHidden = std::min(face, back) <= FaceSeen::kSeenShare;
    const double a = left.bounds.size().prod(), b = right.bounds.size().prod();
    now.uneven = now.bothFit ? std::abs(a - b) : b;
    if (!best || now.rank() < best->rank()) best = now;
  }

  /// How much of a cut neither a layer nor another piece covers, on one side.
  double barePart(const FlatPiece& piece, const LaidSplice& laid, bool level, bool face) const {
    const Box2 box = boundsOf(laid.overlap);
    const Eigen::Index across = level ? 0 : 1;
    int bare = 0, all = 0;
    for (double at = box.low[across] + 0.5; at < box.high[across]; at += kLook_mm) {
      const Vec2 p = level ? Vec2(at, laid.cut_mm + kOn_mm) : Vec2(laid.cut_mm + kOn_mm, at);
      const auto covers = [&](const LaidOn& on) {
        return on.panel == laid.panel && on.onBack != face && contains(on.onPiece, p);
      };
      const bool covered = std::ranges::any_of(m_laid, covers) ||
                           std::ranges::any_of(piece.marks, [&](const FlatArea& mark) {
                             return mark.onFace == face && contains(mark.outline, p);
                           });
      ++all, bare += covered ? 0 : 1;
    }
    return all > 0 ? static_cast<double>(bare) / all : 1;
  }

  const Design& m_design;
  const Assembly& m_assembly;
  const KeyedVector<FaceIndex, Face>& m_faces;
  const std::vector<FaceSeen>& m_seen;
  const std::vector<LaidOn>& m_laid;
  double m_margin_mm;
};

} // namespace

std::vector<Splice> splicesOf(const std::vector<SpliceProposal>& proposals) {
  std::vector<Splice> all;
  for (const SpliceProposal& one : proposals)
    all.insert(all.end(), one.splices.begin(), one.splices.end());
  return all;
}

std::vector<SpliceProposal> proposedSplices(const Design& design, const Assembly& assembly,
                                            const std::vector<FlatPiece>& pieces,
                                            const KeyedVector<FaceIndex, Face>& faces,
                                            const std::vector<FaceSeen>& seen,
                                            const std::vector<LaidOn>& laid, double margin_mm) {
  std::vector<SpliceProposal> all;
  Proposing proposing(design, assembly, faces, seen, laid, margin_mm);
  for (const FlatPiece& piece : pieces)
    if (auto one = proposing.proposed(piece)) all.push_back(std::move(*one));
  return all;
}

} // namespace hinge
