// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/production/cut_plan.h"
#include "core/production/score_table.h"
#include <string>
#include <vector>

namespace hinge {

/// A table as it is read, in the user's language and unit: for window, PDF, clipboard, CSV and
/// plain text alike.
struct ReadTable {
  std::string title;              ///< "B  Awning"
  std::vector<std::string> lines; ///< under the title: count, paper, size, what to mind
  std::vector<std::string> head;
  std::vector<std::vector<std::string>> rows; ///< as wide as the head
};

/// A length as it is set: the nearest mark of the maker's step and, when the length is not on it,
/// how far beyond ("62.5 +0.2", "3 5/8 and a hair").
std::string sayMark(double length_mm, double step_mm, LengthUnit unit);

ReadTable readTable(const PieceTable& table, const Design& design, const Assembly& assembly,
                    const Bench& bench);

std::vector<ReadTable> readTables(const std::vector<PieceTable>& tables, const Design& design,
                                  const Assembly& assembly, const Bench& bench);

/// What the letters on the sheets mean: each distinct piece and each line of layers, how many of
/// it, of what, and on which sheets of the plan.
ReadTable legendTable(const std::vector<PieceTable>& tables, const CutPlan& plan,
                      const Design& design, const Assembly& assembly, const Bench& bench);

/// Two tables of the same piece in one: where they differ, "before -> after". That of `after` alone
/// when they have not the same rows.
ReadTable sideBySide(const ReadTable& before, const ReadTable& after);

/// What a row of the bench is called.
std::string sayBenchRow(std::string_view key);
/// What a school is good for, said of one of its choices.
std::string saySchool(std::string_view key, std::string_view choice);

/// Tables under one another: columns in line, or as RFC 4180 with the title in the first column.
std::string plainText(const std::vector<ReadTable>& tables);
std::string commaSeparated(const std::vector<ReadTable>& tables);
/// With tabs between columns, as spreadsheets and word processors take it from the clipboard.
std::string tabSeparated(const std::vector<ReadTable>& tables);

} // namespace hinge
