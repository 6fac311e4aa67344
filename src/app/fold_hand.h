// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/sheet_hand.h"
#include "app/stage_hand.h"
#include "app/stage_view.h"

namespace hinge {

/// A hand that folds a piece before it is glued: a panel that nothing but its fold holds is dragged
/// on the stage to where it goes, and stays there. From there the search for the pose of the glued
/// piece begins. By keys: Page Up and Down choose the panel, arrows turn it, numbers say the angle.
class FoldHand : public QObject, public StageHand {
  Q_OBJECT
public:
  FoldHand(Document* document, SheetHand* hand, StageView* stage, QObject* parent);

  QString hint() const override;
  void pointed(const QPointF& at) override;
  void pressed(const QPointF& at) override;
  void released(const QPointF& at) override;
  bool key(const QKeyEvent& event) override;
  void paint(QPainter& painter) const override;
  void ended() override;
  /// Folds the panel by a fold angle (180 flat, 0 folded over; negative: the other way).
  void fold(PanelIndex panel, double angle_rad);
  PanelIndex panel() const; ///< that is chosen; not valid: none

signals:
  void refused(const QString& why);
  void finished();

private:
  std::vector<PanelIndex> foldable() const;
  std::optional<Lift> folding() const; ///< of the chosen panel
  double angleNow() const;

  Document* m_document;
  SheetHand* m_hand;
  StageView* m_stage;
  std::string m_key; ///< of the panel that is chosen: indices change with the card
  bool m_dragging = false;
  double m_angle = 0; ///< fold angle while it is dragged
};

} // namespace hinge
