// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"
#include "render/bsp.h"
#include "render/camera.h"
#include "render/card_look.h"
#include "render/theme.h"
#include <QPainter>
#include <set>

namespace hinge {

/// What is on the screen, back to front: for picking and for assistive technology.
struct DrawnFace {
  PanelIndex panel;
  QPolygonF outline;
};

struct StageStyle {
  Theme theme = Theme::light();
  bool background = true;
  std::optional<StructureId> selected; ///< drawn with the accent along its edges
  PanelIndex hoverPanel;
  /// While something is dragged: every face in one colour, without contact shadows. The pool of
  /// light costs more than all the rest.
  bool quick = false;
  bool plainPrints = false;             ///< printed papers in their mean colour: textures are dear
  bool ghostPages = false;              ///< pages seen from outside let the structure show through
  std::optional<Iso3> bench;            ///< how the card lies; unset: see benchPose()
  std::shared_ptr<const CardLook> look; ///< papers and layers; null: all of it plain card
  /// What lies on what in one plane; null: as far as joints say.
  std::shared_ptr<const InPlaneReport> sheets;
  std::set<std::string> troubled; ///< keys of panels in the finding that is shown: hatched
};

/// Draws a pose as folded paper lit from inside: every face shines by its distance and slant to a
/// warm light in the gutter, outsides glow through. The same code draws to the screen, PNG, SVG and
/// PDF.
std::vector<DrawnFace> paintStage(QPainter& painter, const QRectF& area, const Assembly& assembly,
                                  const Pose& pose, const Camera& camera, const StageStyle& style);

/// The dusk behind the card and the pool of light on the bench. Large gradients cost more than the
/// paper does, so a view that repaints often keeps this in an image and asks for a picture without
/// background.
void paintStageBackground(QPainter& painter, const QRectF& area, const Assembly& assembly,
                          const Camera& camera, const Theme& theme);

/// A camera that holds the whole card at every opening inside the area.
Camera cameraFor(const CardBase& card, const QRectF& area, const Assembly& assembly);

/// A camera that holds what is placed in one pose, laid as `bench` says, inside the area.
Camera cameraAt(const CardBase& card, const QRectF& area, const Assembly& assembly,
                const Pose& pose, const Iso3& bench);

/// Where the eye is for a card of this size, before it is brought so near that all fits.
Camera viewOf(const CardBase& card);
/// All corners of what is placed, laid as `bench` says.
std::vector<Vec3> cornersOf(const Assembly& assembly, const Pose& pose, const Iso3& bench);
/// The view brought so near that the corners (one at least) fill that share of the area.
Camera cameraOn(Camera view, const std::vector<Vec3>& corners, const QRectF& area, double share);

/// How the card lies on the bench: the second page flat, the first one turned up by the opening, so
/// that it swings as the leaf of the opening control does. Maps the world frame into the bench
/// frame in which the stage is drawn.
Iso3 benchPose(const Assembly& assembly, double opening_rad);

/// An opening at which the picture of a flat state is well defined: a hair beside shut and open
/// flat.
double drawableOpening(double opening_rad);

} // namespace hinge
