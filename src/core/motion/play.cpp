// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/play.h"
#include <algorithm>

namespace hinge {

Eigen::VectorXd beyondPlay(const Block& block, Eigen::VectorXd residual) {
  for (std::size_t c = 0; c < block.play_mm.size(); ++c) {
    if (block.play_mm[c] == 0) continue;
    const auto row = static_cast<Eigen::Index>(6 * c);
    const Vec3 shift = 0.5 * (residual.segment<3>(row) + residual.segment<3>(row + 3));
    const double apart = shift.norm();
    const Vec3 taken = apart > 0 ? Vec3(shift * std::min(1.0, block.play_mm[c] / apart)) : shift;
    residual.segment<3>(row) -= taken, residual.segment<3>(row + 3) -= taken;
  }
  return residual;
}

double widestGap_mm(const Eigen::VectorXd& residual) {
  double widest = 0;
  for (Eigen::Index r = 0; r + 3 <= residual.size(); r += 3)
    widest = std::max(widest, residual.segment<3>(r).norm());
  return widest;
}

namespace {

class Plays {
public:
  Plays(const Mechanism& mechanism, const Assembly& assembly, Block& block)
      : m(mechanism), m_assembly(assembly), m_block(block) {}

  void run() {
    const std::size_t rings = m_block.closing.size();
    m_block.play_mm.assign(rings, 0);
    for (const Block::Step& step : m_block.steps) {
      if (!hasPlay(m.pairs[step.pair])) continue;
      std::vector<std::size_t> in;
      for (std::size_t ring = 0; ring < rings; ++ring)
        if (isIn(step, ring)) in.push_back(ring);
      for (std::size_t ring : in)
        m_block.play_mm[ring] += play_mm(step.pair, ring) / static_cast<double>(in.size());
    }
    for (std::size_t ring = 0; ring < rings; ++ring)
      if (const PairIndex closing = m_block.closing[ring]; hasPlay(m.pairs[closing]))
        m_block.play_mm[ring] += play_mm(closing, ring);
  }

private:
  static bool hasPlay(const Pair& pair) { return pair.joint.valid() && pair.restsAnywhere; }
  /// What moves both ends of a closing joint alike is not in its ring.
  bool isIn(const Block::Step& step, std::size_t ring) const {
    const auto moves = [&](int end) {
      return end >= 0 && std::ranges::find(step.moves, end) != step.moves.end();
    };
    return moves(m_block.ends[ring][0]) != moves(m_block.ends[ring][1]);
  }

  double play_mm(PairIndex index, std::size_t ring) const {
    const Pair& pair = m.pairs[index];
    if (!pair.slides) return m_assembly.pinPlay_mm;
    const Slide& slide = std::get<Slide>(m_assembly.joints[pair.joint]);
    if (slide.guided_mm <= 0) return m_assembly.slidePlay_mm;
    // It stands by an edge, or askew from one edge to the other over the length that guides it.
    return slide.room_mm * (1 + 2 * lever_mm(pair, slide, index, ring) / slide.guided_mm);
  }

  /// How far from the middle of its guide the slider is held by the next joint of the ring, where
  /// that comes nearest to it on the way.
  double lever_mm(const Pair& pair, const Slide& slide, PairIndex index, std::size_t ring) const {
    const Vec3 along = (pair.rightTo - pair.rightFrom).normalized();
    double least = 1e300;
    const auto look = [&](PairIndex j) {
      const Pair& next = m.pairs[j];
      if (j == index || (next.left != pair.right && next.right != pair.right)) return;
      const Vec3& at = next.left == pair.right ? next.leftFrom : next.rightFrom;
      const double place = along.dot(at - pair.rightFrom) - slide.guidedAt_mm;
      const double low = place + slide.least_mm, high = place + slide.most_mm;
      least = std::min(least, low * high <= 0 ? 0.0 : std::min(std::abs(low), std::abs(high)));
    };
    for (const Block::Step& step : m_block.steps)
      if (isIn(step, ring)) look(step.pair);
    look(m_block.closing[ring]);
    return least < 1e300 ? least : 0;
  }

  const Mechanism& m;
  const Assembly& m_assembly;
  Block& m_block;
};

} // namespace

void allowPlay(const Mechanism& mechanism, const Assembly& assembly, Block& block) {
  Plays(mechanism, assembly, block).run();
}

} // namespace hinge
