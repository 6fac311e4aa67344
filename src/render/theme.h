// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QColor>

namespace hinge {

/// Colours of the whole program. One accent; the stage stays dusk-dark in both themes because the
/// paper is lit.
struct Theme {
  bool dark = false;
  QColor surface, raised, field, line; ///< bench, cards on it, text fields, hairlines
  QColor ink, inkSoft, inkFaint;       ///< text
  QColor accent, accentInk;            ///< the lantern's amber and text on it
  QColor trouble, advice, fine;        ///< verdicts (always with a sign or pattern as well)
  QColor stageTop, stageBottom, stageInk, stageSoft;
  QColor paperLit, paperShade, paperBack, paperEdge;
  QColor sheet, sheetEdge; ///< flat piece on the bench
  QColor cut, mountain, valley, glue, mark;

  static Theme light();
  static Theme night();
};

} // namespace hinge
