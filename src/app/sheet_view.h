// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/accessible_items.h"
#include "app/sheet_hand.h"
#include "app/tracing.h"
#include "core/production/flat_piece.h"
#include "render/theme.h"
#include <QLineEdit>
#include <QPainter>
#include <QWidget>

namespace hinge {

struct PieceSheet;

/// The sheet under the hand, at true proportions: what is pointed at, pressed, dragged and typed
/// here is done to the paper, and the stage beside it follows. How the hand works is chosen beside
/// it (HandBar); what a joint needs is handed on (panelPicked).
class SheetView : public QWidget, public AccessibleCanvas {
  Q_OBJECT
public:
  SheetView(Document* document, SheetHand* hand, QWidget* parent = nullptr);

  QPointF toScreen(const Vec2& flat) const;
  Vec2 toSheet(const QPointF& point) const;
  QLineEdit& typed() { return *m_typed; }
  /// Opens the field with the beginning of a sentence, to be ended by its maker.
  void begin(const QString& sentence) { openTyped(sentence); }
  void setHoveredPanel(const QString& key);
  PieceIndex piece() const { return m_piece; } ///< of the assembly; not valid: none
  /// While joints are being made a click picks a panel, and a drag the part of it that takes glue.
  void setPicking(bool on);
  bool picking() const { return m_picking; }
  /// A template under the sheet, to be traced: two clicks and a typed distance scale it.
  void lay(const Tracing& tracing);
  const Tracing& tracing() const { return m_tracing; }
  /// The panel from which a joint is being made, by a point of it.
  void setPicked(const std::optional<Vec2>& at);

  QList<AccessibleItem> accessibleItems() const override;
  void pressItem(int index) override;
  QWidget* canvasWidget() override { return this; }

signals:
  void panelHovered(const QString& key);
  void panelPicked(const Vec2& at);
  void areaPicked(const Vec2& at, const Polygon& area);
  void loosened(const Vec2& at); ///< the joint at that panel is to go
  void refused(const QString& why);
  void toolKey(int key); ///< a letter that chooses how the hand works

protected:
  bool event(QEvent*) override; ///< keys belong to the sheet before they belong to the window
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void mouseDoubleClickEvent(QMouseEvent*) override;
  void leaveEvent(QEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

private:
  void refresh();
  void layOut();
  bool pickKey(const QKeyEvent& event);
  bool nudgeKey(const QKeyEvent& event);
  void openTyped(const QString& begun);
  void placeTyped();
  void closeTyped(bool keep);
  bool scaleTracing(bool keep);
  bool eventFilter(QObject* object, QEvent* event) override;
  PanelIndex panelAt(const Vec2& at) const;
  /// Where it would be drawn if nothing were under the hand, which must not move what it holds.
  QTransform fitting() const;
  void paintPaper(QPainter& painter) const;
  void paintChosen(QPainter& painter) const;
  void paintJoints(QPainter& painter, const PieceSheet& parts) const;
  void paintIdleScores(QPainter& painter, const PieceSheet& parts) const;
  void paintStroke(QPainter& painter) const;
  void paintMeasures(QPainter& painter) const;
  void paintRuler(QPainter& painter) const;

  Document* m_document;
  SheetHand* m_hand;
  QLineEdit* m_typed;
  std::optional<SheetInWork> m_sheet; ///< as shown
  std::shared_ptr<const Assembly> m_assembly;
  PieceIndex m_piece;
  FlatPiece
      m_flat; ///< what is drawn: lines of the sheet as shown, glue and letters of the last card
  QTransform m_toPixels;
  QString m_hovered;
  bool m_picking = false;
  std::optional<Vec2> m_picked, m_areaFrom;
  Vec2 m_areaTo = Vec2::Zero(), m_dragFrom = Vec2::Zero();
  QPointF m_pointer;
  Tracing m_tracing;
};

} // namespace hinge
