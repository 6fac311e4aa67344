// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/io/text_file.h"
#include "core/production/bench.h"
#include "render/step_picture.h"

namespace hinge {

struct BookletWishes {
  Vec2 page_mm{148, 210};
  /// Two pages on each side of a sheet twice as wide, in the order in which the sheets lie in one
  /// another when they are folded and stapled; to be printed on both sides, turned about the short
  /// edge.
  bool stapled = false;
  bool templates = true; ///< cutting sheets and tables at full size after it
};

/// The work as a booklet to be printed: the standing card, papers, adhesives, tools and cautions,
/// every step with its picture and a box to tick, cutting sheets. Legible without colour. Written
/// beside the target and moved into place; nothing when it is stopped (error "stopped"). `progress`
/// counts pictures.
Result<void> writeBooklet(const PlannedWork& work, const StepPainter& painter, const Bench& bench,
                          const std::string& path, const BookletWishes& wishes = {},
                          std::stop_token stop = {}, const Progress& progress = {},
                          Replaces replaces = Replaces::SameKind);

/// The same as one HTML file with all pictures in it as SVG.
Result<void> writeBookletHtml(const PlannedWork& work, const StepPainter& painter,
                              const Bench& bench, const std::string& path,
                              std::stop_token stop = {}, const Progress& progress = {},
                              Replaces replaces = Replaces::SameKind);

} // namespace hinge
