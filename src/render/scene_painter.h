// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/making/step_scene.h"
#include "render/camera.h"
#include "render/making_style.h"
#include "render/seen_map.h"

namespace hinge {

/// The view in which most of what matters in a scene is seen: the usual one unless another is much
/// better. `others`: scenes that must fit into the picture as well, because it moves to them.
Camera viewOn(const CardBase& card, const Assembly& assembly, const StepScene& scene,
              const std::vector<StepScene>& others, const QRectF& area);

/// The paper of a scene with its glue, letters, bands and ways; a magnified inset when the smallest
/// place for glue is under 8 mm.
void paintScene(QPainter& painter, const QRectF& area, const Assembly& assembly,
                const StepScene& scene, const Camera& camera, const MakingStyle& style);

} // namespace hinge
