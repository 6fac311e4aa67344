// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/fitted_tables.h"
#include "core/edits/proportion.h"
#include "core/model/snapshot.h"

namespace hinge {

Result<FittedTables> tablesFitted(const Design& design, double flat_mm, std::set<std::string> held,
                                  const Bench& bench) {
  const auto before = lengthRows(design);
  for (const LengthRow& row : before)
    if (row.held) held.insert(row.key);
  const auto fitted = fittedTo(design, std::nullopt, flat_mm, held);
  if (!fitted) return fitted.error();
  const Snapshot after(fitted->design);
  const auto assembly = after.assembly();
  if (!assembly) return assembly.error();
  FittedTables out;
  out.tables = readTables(scoreTables(**assembly, fitted->design, *after.flatPieces(), bench),
                          fitted->design, **assembly, bench);
  const auto rows = lengthRows(fitted->design);
  for (std::size_t k = 0; k < rows.size() && k < before.size(); ++k)
    out.lengths.push_back({rows[k].label, before[k].value_mm, rows[k].value_mm});
  return out;
}

} // namespace hinge
