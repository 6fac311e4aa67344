// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/design/piece_work.h"
#endif

namespace hinge::test {

/// Face coordinates of a point beside the gutter of a single fold: `y_mm` along it, `out_mm` away
/// from it.
inline PieceJoint onPage(char page, const Design& d, const Vec2& at, double y_mm, double out_mm,
                         bool byFace) {
  PieceJoint joint;
  joint.on = std::string("card/page-") + page, joint.at = at;
  const bool a = page == 'a';
  joint.to = {a ? y_mm : d.card.gutterLength_mm() - y_mm, out_mm};
  joint.kind = given::Glue{a == byFace ? 90.0 : -90.0, byFace};
  return joint;
}

inline PieceWork strip(const std::vector<double>& widths, double height,
                       const std::vector<WorkLine::Kind>& kinds) {
  double sum = 0;
  for (double w : widths)
    sum += w;
  PieceWork work = plainStrip(sum, height);
  double x = 0;
  for (std::size_t k = 0; k < kinds.size(); ++k)
    x += widths[k], work.lines.push_back({kinds[k], {x, 0}, {x, height}});
  return work;
}

/// A strip over the gutter: tabs of 8 mm that point to the fold, feet at a and b, panels c and d.
inline Design overGutter(double a, double b, double c, double d,
                         const std::vector<double>& slant = {}) {
  Design design = card(150, 150);
  PieceWork work = strip({8, c, d, 8}, 40, std::vector(3, WorkLine::Kind::Mountain));
  for (std::size_t k = 0; k < slant.size(); ++k)
    work.lines[k].to.x() += slant[k];
  work.joints = {onPage('a', design, {4, 20}, 60, a - 4, true),
                 onPage('b', design, {12 + c + d, 20}, 60, b - 4, true)};
  const auto added = addStructure(design, "piece", "gutter", {{"position", 0.0}}, work);
  if (!added) qFatal("%s", say(added.error()).c_str());
  return added->design;
}

} // namespace hinge::test
