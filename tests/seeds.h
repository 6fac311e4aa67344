// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QTest>

namespace hinge::test {

/// A row for each seed from 1 on, of what is made at random.
inline void rowsOfSeeds(unsigned last) {
  QTest::addColumn<unsigned>("seed");
  for (unsigned seed = 1; seed <= last; ++seed)
    QTest::addRow("%u", seed) << seed;
}

} // namespace hinge::test
