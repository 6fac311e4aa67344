// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/states/lying.h"
#include "render/bsp.h"
#include "render/camera.h"
#include <QPolygonF>
#include <QTransform>
#include <optional>

namespace hinge {

/// A convex part of a panel, in space; `whole` tells which of its edges are edges of the panel.
SpaceFace spaceFace(const Polygon& part, const Region& whole, const Iso3& place, int source);

/// Where a panel is drawn: its pose on the table, off what it lies on.
Iso3 drawnAt(PanelIndex panel, const Pose& pose, const Iso3& bench, Lying& lying);

QPolygonF onScreen(const SpaceFace& face, const Camera& camera);

/// The perspective of a panel's plane: from the flat frame of its piece to the screen.
std::optional<QTransform> planeOnScreen(const Region& outline, const Iso3& place,
                                        const Camera& camera);

} // namespace hinge
