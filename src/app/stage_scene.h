// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/checks/analysis.h"
#include "render/stage_painter.h"
#include <QPolygonF>

namespace hinge {

/// A point of the paper that was pointed at: on which face (seat key), and where on the face and
/// on the flat piece.
struct PickedPoint {
  PanelIndex panel;
  std::string face;
  Vec2 onFace = Vec2::Zero(), onPiece = Vec2::Zero();
};

/// What the stage shows and from where it is looked at: which paper is where on the screen, and
/// what lies under a point of it. Points are in pixels of the stage.
class StageScene {
public:
  // --- what is shown -------------------------------------------------------------------------
  /// True when the snapshot is another one than before. False, with nothing changed, when it does
  /// not assemble.
  bool show(const std::shared_ptr<const Snapshot>& snapshot);
  /// The pose at an opening: of the traced motion of what is shown when it is known, else a direct
  /// solution near the last one.
  void open(double opening_rad, const Motion* last);
  /// How far a hand has moved what it can (Assembly::lifts): 0 as it rests, 1 as far as it goes.
  /// Everything rests when another card is shown.
  double share(std::size_t lift) const { return m_shares[lift]; }
  void setShare(std::size_t lift, double share);
  const std::shared_ptr<const Snapshot>& shown() const { return m_shown; }
  const std::shared_ptr<const Assembly>& assembly() const { return m_assembly; }
  const Pose& pose() const { return m_pose; }
  /// What the faces wear. Until it is worked out with what is seen of this very card, faces count
  /// as seen that were seen the last time. Null: there is nothing to wear.
  std::shared_ptr<const std::vector<DressedFace>> dressed() const { return m_dressed; }
  std::shared_ptr<const CardLook> look() const { return m_look; } ///< null: plain card
  /// Whether the face side (or the back) of a panel is turned to the eye.
  bool showsSide(PanelIndex panel, bool back) const;
  /// What was painted last, the farthest first.
  void setDrawn(std::vector<DrawnFace> drawn) { m_drawn = std::move(drawn); }

  // --- from where ----------------------------------------------------------------------------
  void setArea(const QRectF& area);
  void orbit(double turn_rad, double height_rad);
  void zoom(double by);
  void lookStraight();
  const Camera& camera() const { return m_camera; }

  // --- where things are ----------------------------------------------------------------------
  /// A point of a panel in its flat piece; nothing when the panel is not placed.
  std::optional<QPointF> onScreen(PanelIndex panel, const Vec2& flat) const {
    return onScreenIn(panel, flat, m_pose);
  }
  QPointF middleOf(PanelIndex panel) const { return middleIn(panel, m_pose); }
  QPolygonF outlineOf(PanelIndex panel) const { return outlineIn(panel, m_pose); }
  /// The same in another pose of the card that is shown.
  QPolygonF outlineIn(PanelIndex panel, const Pose& pose) const;
  QPointF middleIn(PanelIndex panel, const Pose& pose) const; ///< far off when it is not placed
  QPointF beadOf(const Seat& seat) const;
  QPointF knobOf(std::size_t lift) const; ///< by which a hand takes what it moves
  std::optional<QPointF> badgeOf(const Finding& finding) const;

  // --- what lies under a point ---------------------------------------------------------------
  PanelIndex panelAt(const QPointF& point) const;
  SeatIndex faceAt(const QPointF& point) const; ///< the side of the panel that is seen there
  /// A fold or span whose bead is near, or else the face.
  SeatIndex seatAt(const QPointF& point) const;
  std::optional<std::size_t> knobAt(const QPointF& point) const;
  /// How far it has to be moved for its knob to come nearest to a point.
  double shareAt(std::size_t lift, const QPointF& point) const;
  /// The finding whose badge is there; -1: none.
  int badgeAt(const QPointF& point, const std::vector<Finding>& findings) const;
  /// Where the line of sight meets the paper, on the lattice (0: as it is); nothing where there is
  /// none or it is seen from its edge.
  std::optional<PickedPoint> pickedAt(const QPointF& point, double lattice_mm) const;

private:
  void aim(); ///< the camera anew
  void dress();
  std::optional<QPointF> onScreenIn(PanelIndex panel, const Vec2& flat, const Pose& pose) const;

  std::shared_ptr<const Snapshot> m_shown;
  std::shared_ptr<const Assembly> m_assembly; ///< of m_shown
  std::shared_ptr<const std::vector<DressedFace>> m_dressed;
  std::shared_ptr<const CardLook> m_look;
  std::shared_ptr<const Snapshot> m_dressedFor; ///< worked out for this card for good
  std::map<std::string, SeenClass> m_seen;      ///< by face, of the last card that knew
  Pose m_rest, m_pose;          ///< as the opening has it, and with what a hand has moved
  std::vector<double> m_shares; ///< per lift
  std::vector<DrawnFace> m_drawn;
  QRectF m_area{0, 0, 640, 480}; ///< until there is one
  Camera m_camera;
  double m_turn = 0, m_height = 0, m_zoom = 1;
};

} // namespace hinge
