// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/rehearsal_picture.h"
#include "render/flat_painter.h"
#include "render/scene_painter.h"
#include "render/stage_painter.h"
#include "render/step_picture.h"

namespace hinge {
namespace {

constexpr double kFolds_rad = radians(75); ///< as far as a fold is folded on the table

} // namespace

RehearsalPainter::RehearsalPainter(std::shared_ptr<const PlannedWork> work)
    : m_work(std::move(work)), m_scenes(m_work->plan, *m_work->motion, *m_work->stack,
                                        m_work->design().settings.foldClearance_mm) {}

QImage RehearsalPainter::sceneOn(const StepScene& scene, QSize size) const {
  return onWhite(size, [&](QPainter& p, const QRectF& area) {
    if (!scene.anything()) return;
    const Assembly& assembly = m_work->assembly();
    paintScene(p, area, assembly, scene, viewOn(m_work->design().card, assembly, scene, {}, area),
               MakingStyle(area));
  });
}

/// The piece flat on the table but for one fold; what lies beyond it goes along.
QImage RehearsalPainter::foldAt(FoldIndex index, double angle_rad, QSize size) const {
  const Assembly& assembly = m_work->assembly();
  const Fold& fold = assembly.folds[index];
  StepScene flat, turned;
  flat.pose.panels.assign(assembly.panels.size(), Iso3::Identity());
  flat.pose.placed.assign(assembly.panels.size(), 0);
  for (PanelIndex p : assembly.pieces[assembly.panels[fold.left].piece].panels)
    flat.pose.placed[p] = 1;
  turned = flat;
  // What hangs on the right panel without the fold.
  std::vector<PanelIndex> open{fold.right};
  std::vector<char> beyond(assembly.panels.size(), 0);
  beyond[static_cast<std::size_t>(fold.right.value)] = 1;
  for (std::size_t k = 0; k < open.size(); ++k)
    for (FoldIndex f : assembly.foldsOf(open[k])) {
      if (f == index) continue;
      const Fold& other = assembly.folds[f];
      const PanelIndex next = other.left == open[k] ? other.right : other.left;
      if (next == fold.left) continue; // a ring of folds: it stays
      if (!std::exchange(beyond[static_cast<std::size_t>(next.value)], 1)) open.push_back(next);
    }
  const Iso3 over = foldedOver(fold, angle_rad);
  for (PanelIndex p : open)
    turned.pose.panels[p] = over;
  turned.ties = {{lift(fold.from), lift(fold.to)}};
  turned.freshTies = 1;
  // The eye stays where it is whichever way it folds.
  std::vector<Vec3> corners = cornersOf(assembly, flat.pose, flat.bench);
  for (double angle : {kFolds_rad, -kFolds_rad}) {
    StepScene reach = turned;
    for (PanelIndex panel : open)
      reach.pose.panels[panel] = foldedOver(fold, angle);
    for (const Vec3& corner : cornersOf(assembly, reach.pose, reach.bench))
      corners.push_back(corner);
  }
  Camera view = viewOf(m_work->design().card);
  view.height_rad = 0.75;
  turned.fresh = open;
  turned.named = {fold.left, fold.right};
  return onWhite(size, [&](QPainter& p, const QRectF& area) {
    paintScene(p, area, assembly, turned, cameraOn(view, corners, area, 0.9), MakingStyle(area));
  });
}

QImage RehearsalPainter::question(const RehearsalTask& task, QSize size) const {
  if (task.kind == RehearsalTask::Kind::FoldSense) return foldAt(task.fold, 0, size);
  StepScene scene = m_scenes.at(task.step, 0);
  if (task.kind == RehearsalTask::Kind::NextJoint) {
    // The card as it is by now, without what comes.
    for (PanelIndex p : scene.fresh)
      scene.pose.placed[p] = 0;
    scene.fresh.clear();
  }
  scene.glue.clear(), scene.ways.clear(), scene.pins.clear();
  if (task.kind == RehearsalTask::Kind::GlueSide)
    for (JointIndex j : m_work->plan.steps[task.step].joints)
      scene.named.push_back(panelsOf(m_work->assembly().joints[j])[1]);
  scene.ties.clear(), scene.freshTies = 0;
  return sceneOn(scene.anything() ? scene : m_scenes.at(task.step, 0), size);
}

QImage RehearsalPainter::answered(const RehearsalTask& task, int answer, QSize size,
                                  double progress) const {
  if (task.kind == RehearsalTask::Kind::FoldSense)
    return foldAt(task.fold, (answer == 0 ? -1 : 1) * progress * kFolds_rad, size);
  const std::size_t step = task.kind == RehearsalTask::Kind::NextJoint
                               ? task.choices[static_cast<std::size_t>(answer)]
                               : task.step;
  return sceneOn(m_scenes.at(step, progress), size);
}

QImage RehearsalPainter::wrongFold(const RehearsalTask& task, const FoldedWrong& wrong,
                                   QSize size) const {
  const Assembly& assembly = m_work->assembly();
  if (!wrong.motion) return foldAt(task.fold, 0, size);
  StepScene scene;
  scene.pose = wrong.motion->poseAt(
      std::clamp(wrong.at_rad, wrong.motion->low_rad(), drawableOpening(wrong.motion->high_rad())));
  scene.bench = assembly.onTable(scene.pose.opening_rad);
  for (PanelIndex p : assembly.pieces[assembly.panels[assembly.folds[task.fold].left].piece].panels)
    scene.fresh.push_back(p);
  return sceneOn(scene, size);
}

QImage RehearsalPainter::outOfReach(std::size_t made, std::size_t unreached, QSize size) const {
  StepScene scene = m_scenes.at(made, 1);
  const Assembly& assembly = m_work->assembly();
  scene.fresh.clear(), scene.glue.clear(), scene.ways.clear();
  for (JointIndex j : m_work->plan.steps[unreached].joints)
    for (PanelIndex p : panelsOf(assembly.joints[j]))
      if (scene.pose.placed[p]) scene.fresh.push_back(p);
  return sceneOn(scene, size);
}

QImage RehearsalPainter::turnedOver(std::size_t step, QSize size) const {
  const Assembly& assembly = m_work->assembly();
  StepScene scene = m_scenes.at(step, 1);
  scene.glue.clear(), scene.ways.clear();
  for (JointIndex j : m_work->plan.steps[step].joints) {
    const auto* glue = std::get_if<Glue>(&assembly.joints[j]);
    const auto turn = glue ? hinge::turnedOver(assembly, *glue, scene.pose) : std::nullopt;
    if (!turn) continue;
    for (PanelIndex p : assembly.pieces[assembly.panels[glue->tab].piece].panels)
      scene.pose.panels[p] = *turn * scene.pose.panels[p];
    break;
  }
  return sceneOn(scene, size);
}

} // namespace hinge
