// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/states/sheets_in_plane.h"

namespace hinge {

/// Something seen that decides a statement, with what it is to be told by.
struct SeenOrder {
  OrderSolver::Literal fact;
  PanelIndex first, second;
  double depth_mm = 0;
  std::size_t moment = 0;
  Vec3 place = Vec3::Zero();
};

/// Two leaves of a fold that rise to different sides of a sheet across it: no order helps.
struct SeenThrough {
  PanelIndex sheet, leaf;
  double depth_mm = 0;
  std::size_t moment = 0;
  Vec3 place = Vec3::Zero();
};

struct SeenOrders {
  std::vector<SeenOrder> orders; ///< moment by moment
  std::vector<SeenThrough> through;
};

/// What shows which of two sheets lies on the other: joints and marks of folds that are folded
/// over, how far guides run over what is glued, leaves that rise, sheets that come together and
/// part.
SeenOrders seenOrders(const SheetsInPlane& sheets, std::stop_token stop);

} // namespace hinge
