// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/folding_step.h"
#include "core/structures/names.h"
#include "render/picture_rows.h"
#include "render/scene_painter.h"
#include "render/stage_painter.h"
#include "words/words.h"
#include <algorithm>

namespace hinge {
namespace {

constexpr double kFolded_rad = radians(40); ///< how far folds are turned in the picture

/// A piece with its folds turned; where they go round in a ring, as it is in the finished card.
StepScene foldedPiece(const PlannedWork& work, PieceIndex piece, double progress) {
  const Assembly& assembly = work.assembly();
  StepScene scene;
  scene.pose.panels.assign(assembly.panels.size(), Iso3::Identity());
  scene.pose.placed.assign(assembly.panels.size(), 0);
  const std::vector<PanelIndex>& panels = assembly.pieces[piece].panels;
  const PanelIndex first = *std::ranges::max_element(
      panels, {}, [&](PanelIndex p) { return area_mm2(assembly.panels[p].outline); });
  scene.pose.placed[first] = 1;
  std::vector<PanelIndex> open{first};
  bool rings = false;
  for (std::size_t k = 0; k < open.size(); ++k)
    for (FoldIndex f : assembly.foldsOf(open[k])) {
      const Fold& fold = assembly.folds[f];
      const bool right = fold.left == open[k];
      const PanelIndex next = right ? fold.right : fold.left;
      const Iso3 over =
          foldedOver(fold, (fold.sense == FoldSense::Valley ? 1 : -1) * progress * kFolded_rad);
      const Iso3 there = scene.pose.panels[open[k]] * (right ? over : inverseOf(over));
      if (scene.pose.placed[next]) {
        rings = rings || !there.isApprox(scene.pose.panels[next], 1e-3);
        continue;
      }
      scene.pose.panels[next] = there;
      scene.pose.placed[next] = 1;
      open.push_back(next);
    }
  if (rings) {
    const Pose pose = work.motion->poseAt(0.5 * (work.motion->low_rad() + work.motion->high_rad()));
    for (PanelIndex p : panels)
      scene.pose.panels[p] = pose.panels[p], scene.pose.placed[p] = pose.placed[p];
    scene.bench = inverseOf(pose.panels[first]);
  }
  return scene;
}

} // namespace

void paintFolding(QPainter& painter, const QRectF& area, const PlannedWork& work,
                  const WorkStep& step, double progress, const MakingStyle& style) {
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  const double text = kNameLine * style.unit;
  std::vector<StepScene> scenes;
  std::vector<QSizeF> boxes;
  std::vector<QRectF> seen;
  Camera view = viewOf(work.design().card);
  view.height_rad = 0.8, view.scale_px = 1, view.centre = QPointF();
  view.target = Vec3::Zero();
  for (PieceIndex piece : step.pieces) {
    scenes.push_back(foldedPiece(work, piece, progress));
    QRectF box;
    for (const Vec3& corner : cornersOf(work.assembly(), scenes.back().pose, scenes.back().bench))
      box = box.united(QRectF(view.project(corner), QSizeF(1e-3, 1e-3)));
    seen.push_back(box);
    boxes.push_back(box.size());
  }
  std::vector<QPointF> corners;
  const double scale = PictureRows(area, text, 16 * style.unit).lay(boxes, corners);
  for (std::size_t k = 0; k < scenes.size(); ++k) {
    Camera camera = view;
    camera.scale_px = scale;
    camera.centre = corners[k] - scale * seen[k].topLeft();
    const QRectF cell(corners[k], boxes[k] * scale);
    paintScene(painter, cell, work.assembly(), scenes[k], camera, style);
    writeName(painter, cell.center().x(), cell.bottom(), cell.width(),
              say(pieceName(work.design(), work.assembly(), step.pieces[k])), style);
  }
  painter.restore();
}

} // namespace hinge
