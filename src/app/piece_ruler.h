// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "app/document.h"
#include "core/production/score_table.h"
#endif
#include <QWidget>

namespace hinge {

/// One flat piece with a ruler along it, and one of its numbers as it is measured: from which edge,
/// to which line.
class PieceRuler : public QWidget {
  Q_OBJECT
public:
  explicit PieceRuler(Document* document, QWidget* parent = nullptr);

  void show(const FlatPiece& piece, const PieceTable& table, const Bench& bench);
  void clear();
  /// What one of the table's cells measures; nothing for cells that are no length.
  void measure(int row, int column);

protected:
  void paintEvent(QPaintEvent*) override;
  QSize sizeHint() const override { return {420, 170}; }

private:
  struct Measure {
    Vec2 from, to; ///< on the piece, from its lower left corner
    double length_mm = 0;
  };
  std::optional<Measure> measureOf(const ScoreSetting& score, int column, std::size_t row) const;
  void paintRuler(QPainter& painter, const QRectF& along, double scale) const;
  void paintMeasure(QPainter& painter, const QTransform& to) const;

  Document* m_document;
  std::optional<FlatPiece> m_piece;
  PieceTable m_table;
  Bench m_bench;
  std::optional<Measure> m_measure;
};

} // namespace hinge
