// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/states/sheets_in_plane.h"

namespace hinge {

/// Tells the solver what ties the statements together at every moment: nothing lies between what
/// glue holds together, nor between two leaves past their fold; of two folds on one line one lies
/// within the other or beside it; of three sheets on one another none lies over and under the
/// others.
void tieOrders(const SheetsInPlane& sheets, OrderSolver& solver, std::stop_token stop);

} // namespace hinge
