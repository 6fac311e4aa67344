// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/making/folded_wrong.h"
#include "core/making/rehearsal.h"
#include "core/making/step_scene.h"
#include "core/model/planned.h"
#include <QImage>

namespace hinge {

/// The pictures of a rehearsal. Immutable: several threads may paint at once.
class RehearsalPainter {
public:
  explicit RehearsalPainter(std::shared_ptr<const PlannedWork> work);

  /// What is asked: the flat piece with the fold in question, the card as far as it is built with
  /// the tab in question. Nothing in it gives the answer away.
  QImage question(const RehearsalTask& task, QSize size) const;
  /// What an answer does, `progress` of the way: the fold folds to that side, the joint is made.
  QImage answered(const RehearsalTask& task, int answer, QSize size, double progress) const;
  /// The card with a fold to the wrong side, at the opening at which it stops.
  QImage wrongFold(const RehearsalTask& task, const FoldedWrong& wrong, QSize size) const;
  /// The joint that is out of reach once another one is made.
  QImage outOfReach(std::size_t made, std::size_t unreached, QSize size) const;
  /// The piece turned over, as it lies when its other side is glued on.
  QImage turnedOver(std::size_t step, QSize size) const;

private:
  QImage foldAt(FoldIndex fold, double angle_rad, QSize size) const;
  QImage sceneOn(const StepScene& scene, QSize size) const;
  std::shared_ptr<const PlannedWork> m_work;
  StepScenes m_scenes;
};

} // namespace hinge
