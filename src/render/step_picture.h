// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/making/step_scene.h"
#include "core/model/planned.h"
#include "render/camera.h"
#include "render/card_look.h"
#include "render/theme.h"
#include <QPainter>
#include <functional>
#include <map>
#include <mutex>
#include <tuple>

namespace hinge {

/// The pictures of the work: what lies before the maker in a step, what is new, where glue goes,
/// how it moves. Drawn to be understood without words and without colour: what is new has strong
/// lines, glue is slanted strokes, the place where it comes to is dashed, panels have the letters
/// that they have on the sheets. Vector; on white, whatever the theme. Immutable: several threads
/// may paint at once.
class StepPainter {
public:
  explicit StepPainter(std::shared_ptr<const PlannedWork> work);

  /// A step, `progress` of the way through it; without one as far as tells most. The picture fills
  /// the area, lines and letters are as large as suits it.
  void paint(QPainter& painter, const QRectF& area, std::size_t step,
             std::optional<double> progress = {}) const;
  /// The finished card, as it is displayed.
  void paintCover(QPainter& painter, const QRectF& area) const;
  /// The picture moves when `progress` goes from 0 to 1.
  bool moves(std::size_t step) const;

private:
  /// Where the eye is in a step: it stays there while paper moves. Looked for once for each size.
  Camera eyeOn(std::size_t step, const QRectF& area) const;

  std::shared_ptr<const PlannedWork> m_work;
  StepScenes m_scenes;
  std::shared_ptr<const CardLook> m_look;
  mutable std::mutex m_lock;
  mutable std::map<std::tuple<std::size_t, double, double, double, double>, Camera> m_eyes;
};

/// An image on white with a border that is left free.
QImage onWhite(QSize size, const std::function<void(QPainter&, const QRectF&)>& paint);

/// A picture in an image of its own, on white.
QImage stepImage(const StepPainter& painter, std::size_t step, QSize size,
                 std::optional<double> progress = {});
/// The same as SVG, lengths in its own units. The title is what a reader who cannot see it hears.
QByteArray stepSvg(const StepPainter& painter, std::size_t step, QSize size, const QString& title,
                   std::optional<double> progress = {});

} // namespace hinge
