// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/blocks.h"
#include <map>
#include <memory>
#include <stop_token>

namespace hinge {

/// Where every panel is at one opening. `placed` is false for panels of structures that cannot
/// exist or cannot reach this opening.
struct Pose {
  double opening_rad = 0;
  IndexedVector<PanelIndex, Iso3> panels; ///< piece frame into the world
  IndexedVector<PanelIndex, char> placed;
  double residual_mm = 0; ///< worst gap of any closure
};

/// The computed motion of an assembly from shut to open: fold angles at nodes along the opening,
/// solved from there. Immutable after trace(); poseAt() may be called from several threads.
class Motion {
public:
  /// What is known of one block of structures that move together.
  struct BlockReport {
    std::vector<StructureId> owners;
    double low_rad = 0, high_rad = kPi; ///< openings the block can follow
    int freedoms = 0;                   ///< 0 guided, more: floppy
    std::vector<PanelIndex> panels;     ///< that the block places
    int looseBy =
        -1; ///< block whose freedom moves this one: itself or one it stands on; -1: guided
    double closed_mm = 0;     ///< gap below which its rings count as closed
    double gap_mm = 0;        ///< by which its rings miss closing where that is most
    Eigen::VectorXd shutGap;  ///< of all its rings, as closureResidual() has them
    double shutMisfit_mm = 0; ///< gap of the closures in the exact shut state of the recipes
  };

  /// Follows the motion both ways from an opening where all placements agree. Cost: about 75 nodes,
  /// each linear in the number of blocks. A stop request ends early with the range traced so far.
  /// `near` is the motion of a design that differs a little, if there is one: free pieces are put
  /// together as they are there, which is quicker, but another of several ways to fold them may
  /// come out than without it.
  static Motion trace(std::shared_ptr<const Assembly> assembly, std::stop_token stop = {},
                      const Motion* near = nullptr);

  /// The assembly at one opening without a trace, for a quick picture while something is dragged:
  /// openings out of reach leave the structure out. Free pieces have no closed form: they are put
  /// together as in `near`, the motion of a design that differs a little, or left out.
  static Pose quickPose(const Assembly& assembly, double opening_rad, const Motion* near = nullptr);

  /// Solved pose. Outside of [low, high] the structures that do not reach are not placed.
  Pose poseAt(double opening_rad) const { return poseAt(opening_rad, {}); }
  /// The same for some blocks only (one entry per block of parts(), see blocksFor); panels of the
  /// others are not placed.
  Pose poseAt(double opening_rad, const std::vector<char>& wanted) const;
  /// Marks the blocks that must be solved to place these bodies: their own and all that those stand
  /// on.
  std::vector<char> blocksFor(const std::vector<BodyIndex>& bodies) const;

  /// The flat shut state in which every fold has exactly the angle its recipe demands (in free
  /// pieces: flat or folded over, whichever the motion comes to); rings that do not close show
  /// their misfit in the block reports.
  Pose shutPose() const;
  /// Fold angle in that state: 0 or +-pi.
  double shutAngle(FoldIndex fold) const { return m_foldShut[fold]; }

  double low_rad() const { return m_low; }   ///< all structures follow down to here
  double high_rad() const { return m_high; } ///< and up to here
  const std::vector<BlockReport>& blocks() const { return m_reports; }
  const std::vector<StructureId>& impossible() const {
    return m_impossible;
  } ///< no opening at which they fit together
  /// The card comes down to its shut state.
  bool shuts() const { return m_assembly->low_rad == 0; }
  /// Hangs on a motion that the opening does not decide: its pose is one of many that are as good.
  bool isLoose(PanelIndex panel) const { return m_loose[panel] != 0; }
  bool anyLoose() const { return mobility() > 0; }
  int mobility() const; ///< free motions left once the opening is fixed
  const Assembly& assembly() const { return *m_assembly; }
  const Mechanism& mechanism() const { return *m_mechanism; }
  const std::vector<Block>& parts() const { return m_blocks; }
  std::vector<double> nodeOpenings() const;

private:
  struct Node {
    double opening_rad;
    std::vector<Eigen::VectorXd> angles; ///< per block; empty where the block is not alive
  };
  void startAt(double opening_rad, const BodyPoses& guess);
  /// By how much a block's rings miss closing where that is most.
  double gapOf(const Block& block, const BodyPoses& poses) const;
  /// What has been followed beyond its limit as far as paper gives (from node `given` on) counts
  /// only when it comes to the end so; else it is taken back to its limit.
  void takeBack(std::vector<Node>& path, const std::vector<std::size_t>& given,
                const std::vector<char>& alive);
  bool traceDirection(double towards_rad, std::stop_token stop);
  void report();
  /// All bodies at those nodes that have been asked for.
  using NodePoses = std::map<std::size_t, BodyPoses>;
  const BodyPoses& posesAt(std::size_t node, NodePoses& known) const;
  /// Owners, openings and freedoms of a block, from the nodes of the trace.
  BlockReport reachOf(std::size_t block, NodePoses& known) const;
  /// Lays a block into the shut state and notes by how much its rings do not close there.
  void shutBlock(std::size_t block, BodyPoses& shut, BlockReport& report);
  /// The unknowns of a block in the shut state, from the recipes or from where the nodes lead to;
  /// `poses` holds the bodies of earlier blocks there.
  Eigen::VectorXd shutAngles(std::size_t block, BodyPoses& poses) const;
  /// For a block that does not come down to the shut state: each fold of a free piece flat or
  /// folded over to its side, whichever choice leaves the smallest gap. Cost 2^n in the number of
  /// such folds.
  void nearestShut(std::size_t block, BodyPoses& poses, Eigen::VectorXd& x) const;
  Pose worldPose(double opening_rad, const BodyPoses& bodies,
                 const std::vector<char>& placed) const;

  std::shared_ptr<const Assembly> m_assembly;
  std::shared_ptr<const Mechanism> m_mechanism;
  std::vector<Block> m_blocks;
  std::vector<Node> m_nodes; ///< by rising opening
  std::vector<BlockReport> m_reports;
  std::vector<Eigen::VectorXd> m_shut; ///< per block: its unknowns in the shut state
  IndexedVector<FoldIndex, double> m_foldShut;
  IndexedVector<BodyIndex, int> m_placedBy; ///< block that places a body, -1 for the pages
  std::vector<StructureId> m_impossible;
  IndexedVector<PanelIndex, char> m_loose;
  double m_low = 0, m_high = kPi;
};

} // namespace hinge
