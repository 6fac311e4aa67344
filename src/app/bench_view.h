// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/accessible_items.h"
#include "app/size_tags.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/production/flat_piece.h"
#include "render/card_look.h"
#endif
#include <QToolButton>
#include <memory>

namespace hinge {

/// The flat pieces of the selected structure, or of the card, one at a time: cuts, mountains,
/// valleys, glue, letters and sizes, at one scale with a legend of the line code.
class BenchView : public QWidget, public AccessibleCanvas {
  Q_OBJECT
public:
  BenchView(Document* document, QWidget* parent = nullptr);
  SizeTags& tags() { return *m_tags; }
  void setHoveredPanel(const QString& key);
  QPointF panelPoint(const QString& key) const;
  /// Which of its pieces is shown, from 0; the one before and the one behind it go round.
  int pieceShown() const { return m_at; }
  PieceIndex piece() const { return m_piece ? m_piece->piece : PieceIndex(); }
  int pieceCount() const { return static_cast<int>(m_pieces.size()); }
  QToolButton& nextButton() { return *m_next; }

  QList<AccessibleItem> accessibleItems() const override;
  void pressItem(int index) override;
  QWidget* canvasWidget() override { return this; }

  /// Papers of a card, shown while that is the one on the bench.
  void setLook(std::shared_ptr<const CardLook> look, std::shared_ptr<const Assembly> of);

signals:
  void panelHovered(const QString& key);
  void refused(const QString& why);
  void pieceTurnedTo(PieceIndex piece); ///< not valid: none

protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void leaveEvent(QEvent*) override;

private:
  void refresh();
  void layOut();
  void turnTo(int piece);
  void paintLegend(QPainter& painter) const;
  PanelIndex panelAt(const QPointF& point) const;

  Document* m_document;
  SizeTags* m_tags;
  std::shared_ptr<const Assembly> m_assembly;
  std::vector<FlatPiece> m_pieces; ///< of what is selected
  int m_at = 0;
  const FlatPiece* m_piece = nullptr; ///< the one of them that is shown
  std::optional<StructureId> m_of;
  QToolButton *m_before, *m_next;
  QTransform m_toPixels;
  QString m_hovered;
  std::shared_ptr<const CardLook> m_look;
  std::shared_ptr<const Assembly> m_lookOf;
};

} // namespace hinge
