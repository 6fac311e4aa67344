// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/dress/seen.h"
#include "core/making/adhesive.h"
#include "core/making/dress_moments.h"
#include "core/making/order.h"
#include <stop_token>

namespace hinge {

enum class WorkKind {
  Ready,   ///< paper, tools and adhesives on the table
  Score,   ///< all scores of a paper's pieces
  Slice,   ///< strips that were scored as one wide sheet
  Cut,     ///< and all cuts
  Fold,    ///< every score both ways
  Splice,  ///< the parts of a piece that was cut in two
  Cross,   ///< an X on faces that nobody sees
  Pencil,  ///< where something goes that no edge shows
  Dress,   ///< layers on the faces of one piece
  DryFit,  ///< the next joint without glue: fold, shut, look
  Join,    ///< a joint, or several that are made in one go
  Wait,    ///< until the last joint may be moved
  Measure, ///< a number that must be right before going on
  Open,    ///< the first opening
  Finish
};
std::string_view keyOf(WorkKind kind);

/// How a glued joint is made.
enum class PressWay {
  Openly,    ///< with room all round
  ByFinger,  ///< a finger gets there
  ByShutting ///< the card is shut on it
};
std::string_view keyOf(PressWay way);

/// A place on a panel that is marked with a pencil, from the panel's left and lower border as its
/// piece lies flat. What is glued there covers it.
struct PencilPoint {
  PanelIndex panel;
  Vec2 from_mm = Vec2::Zero();
};

/// One step of the work.
struct WorkStep {
  WorkKind kind = WorkKind::Ready;
  std::vector<PieceIndex> pieces; ///< that are worked on, or put on, the new ones first
  std::vector<JointIndex> joints; ///< Join, DryFit, Wait, Measure: that are meant
  std::vector<FaceIndex> faces;   ///< Dress, Cross
  std::size_t splice = 0;         ///< Splice: its number in the design
  std::optional<Adhesive> adhesive = {};
  std::vector<Region> glueOn = {}; ///< where it goes, on the tab, in its piece; clear of folds
  double glue_cm2 = 0, tape_mm = 0;
  PressWay press = PressWay::Openly;
  bool onCard = true; ///< a joint of what is on the card by then; false: of a part by itself
  /// Join: a tab's long edge lies on a fold of its host. Folded back the other way, that fold is an
  /// edge to line it up against.
  bool alongFold = false;
  double opening_deg = 180; ///< of the card while it is done
  std::vector<PencilPoint> points = {};
  double number_mm = 0, within_mm = 0;      ///< Measure: what the ruler must show, and how nearly
  Edge between{Vec2::Zero(), Vec2::Zero()}; ///< Measure: from where to where, on the host's piece
  int before = -1; ///< the step before which it must be done, because that one shuts it in; -1: any
  double hands_s = 0; ///< about how long hands have to do
  double waits_s = 0; ///< and how long nothing more may be done to it
};

/// The whole work on one card.
struct WorkPlan {
  std::vector<WorkStep> steps;
  std::vector<JointGroup> unreachable; ///< no order leaves room for these: the step that will fail
  double glue_cm2 = 0, tape_mm = 0;    ///< of all steps
  double hands_s() const;
};

struct WorkInput {
  const Design& design;
  const Motion& motion;
  const AssemblyOrder& order;
  const KeyedVector<FaceIndex, Face>& faces;
  const std::vector<DressedFace>& dressed;
  const std::vector<FaceSeen>& seen; ///< empty: no crosses
};

/// Steps for one card in an order in which everything can be reached, by the maker's ways. Every
/// joint that hands make, every dressed face and every splice is in exactly one step that makes it.
/// A joint is made by shutting the card on it when the ways say so, it can be, and it closes a
/// structure whose first side is glued already; when it can be made in no other way it is as well.
/// Cost: that of the order of work.
WorkPlan workPlan(const WorkInput& input, const MakingWays& ways);

/// Where glue goes on a tab: the part that is glued, clear of the folds of its own piece, and of
/// those of its host, by so much; up to folds along which both turn together.
std::vector<Region> glueRegion(const Assembly& assembly, const Glue& glue, double clearance_mm);

} // namespace hinge
