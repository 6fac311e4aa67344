// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/sheet_view.h"
#include "app/stage_hand.h"
#include "app/stage_view.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/place_said.h"
#endif

namespace hinge {

/// A hand that joins: a panel is picked on the sheet, its ghost lies over the face under the
/// pointer, slides, turns and snaps, and is joined where it is let go. Or another sheet is chosen
/// and clicked where it goes. By keys alone: arrows slide it, comma and full stop turn it, F turns
/// it over, Page Up and Down go through the faces, O takes the other side of the paper, numbers say
/// how far it is from the lines that are told beside it, Enter joins.
class JointHand : public QObject, public StageHand {
  Q_OBJECT
public:
  JointHand(Document* document, SheetHand* hand, SheetView* sheet, StageView* stage,
            QObject* parent);

  std::size_t kind() const { return m_lying.kind; }
  void setKind(std::size_t kind);
  /// What else is said of the next joint: "least 0 most 40".
  void setMore(const QString& words) { m_more = words; }
  bool laying() const { return m_laying; }
  const HeldSheet& lying() const { return m_lying; }
  QLineEdit& typed() { return *m_typed; }
  /// What stands beside the ghost: the face, where it lies there, which side takes the glue.
  QStringList told() const;

  QString hint() const override;
  void pointed(const QPointF& at) override;
  void pressed(const QPointF&) override {}
  void released(const QPointF& at) override;
  bool key(const QKeyEvent& event) override;
  void paint(QPainter& painter) const override;
  void ended() override;

signals:
  void refused(const QString& why);
  void changed();

private:
  void pick(const Vec2& at);
  /// A point of another sheet, while a panel is held: there it is joined.
  void layOnSheet(const Vec2& at);
  void takeArea(const Vec2& at, const Polygon& area);
  void loosen(const Vec2& at);
  void goTo(const std::string& face, const Vec2& to);
  void nextFace(int by);
  void otherSide(); ///< of the panel it lies on
  void slide(const Vec2& by);
  void turn(double by_deg);
  void keep();
  void takeTyped();
  bool eventFilter(QObject* object, QEvent* event) override;
  const SeatSide* face() const;
  std::optional<QPointF> onStage(const Vec2& onFace) const;
  const PieceWork& work() const { return m_work; }
  QString placeOf(const Vec2& at) const;
  /// The rules that the joint keeps: what was typed, and where lines and middles meet.
  std::vector<PlaceRule> rulesKept(const Assembly& assembly) const;
  void paintMeasures(QPainter& painter) const;
  void paintSlit(QPainter& painter, const QPointF& at) const;
  void paintTold(QPainter& painter, const QRectF& ghost) const;

  Document* m_document;
  SheetHand* m_hand;
  SheetView* m_sheet;
  StageView* m_stage;
  QLineEdit* m_typed;
  HeldSheet m_lying;
  SheetTarget m_target; ///< the sheet that is held
  PieceWork m_work;
  QString m_more;
  std::vector<PlaceRule> m_typedRules; ///< where it lies by what was typed
  bool m_laying = false, m_flush = false;
};

} // namespace hinge
