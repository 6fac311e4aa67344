// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "app/document.h"
#include "app/piece_ruler.h"
#include "core/dress/mats.h"
#include "core/production/cut_plan.h"
#include "core/production/score_table.h"
#include "words/tables.h"
#endif
#include <QLabel>
#include <QLineEdit>
#include <QTableWidget>

namespace hinge {

/// Every distinct piece and every line of layers, with the numbers that are set to make it: the row
/// that is chosen on a ruler and as a table, beside it those of the card fitted to another sheet
/// when one is given. The row is one choice with the structure on the card.
class NumbersPanel : public QWidget {
  Q_OBJECT
public:
  NumbersPanel(Document* document, QWidget* parent = nullptr);

  void refill(const Bench& bench); ///< from the card as it is now
  void fillLayers();               ///< once it is known what the card wears
  bool lacksLayers() const { return m_mats.empty(); }
  std::vector<ReadTable> readTables() const;
  /// Parts of a plan that the chosen row means.
  std::vector<std::size_t> chosenIn(const CutPlan& plan) const;
  void choose(const CutPart& part);
  void followSelection();
  /// Beside the numbers those for a sheet of this length, or none; what was held and what gave
  /// stands below. Refused when the card cannot be fitted to it.
  Result<void> putBeside(std::optional<double> flat_mm);

signals:
  void chosen();
  void refused(const QString& why);

private:
  void makeBeside();
  void fill();
  void chooseRow(int row);
  std::optional<StructureId> ownerOf(std::size_t row) const;

  Document* m_document;
  QTableWidget *m_pieces, *m_numbers;
  PieceRuler* m_ruler;
  QLabel* m_says;
  QLineEdit* m_otherSheet;
  std::vector<PieceTable> m_tables;
  std::vector<MatLine> m_mats; ///< rows of the piece list after the tables
  Bench m_bench;
  std::vector<ReadTable> m_beside; ///< of the fitted card; empty: none
  std::string m_gave;              ///< what gave for it
};

} // namespace hinge
