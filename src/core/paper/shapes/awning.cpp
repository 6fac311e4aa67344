// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A roof of cloth with scallops; the detail is how deep they hang.
Region awning(double detail) {
  constexpr int kScallops = 5;
  const double hang = 0.1 + 0.3 * detail, width = 1.0 / kScallops, top = -0.5 + hang;
  Polygon rim;
  for (int k = 0; k < kScallops; ++k) {
    const Polygon scallop = arc({-0.5 + (k + 0.5) * width, top}, 0.5 * width, hang, 180, 360, 10);
    rim.insert(rim.end(), scallop.begin() + (k == 0 ? 0 : 1), scallop.end());
  }
  rim.emplace_back(0.4, 0.5);
  rim.emplace_back(-0.4, 0.5);
  return rim;
}

} // namespace hinge::shapes
