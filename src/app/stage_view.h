// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/accessible_items.h"
#include "app/analyst.h"
#include "app/document.h"
#include "app/fan.h"
#include "app/preview_motion.h"
#include "app/size_nudge.h"
#include "app/size_tags.h"
#include "app/stage_hand.h"
#include "app/stage_scene.h"
#include "app/standing_tree.h"
#include <QToolButton>

namespace hinge {

/// The moving structure: the hero of the window. Shows the pose at the fan's opening, picks
/// structures, marks findings, offers the folds on which something can be put.
class StageView : public QWidget, public AccessibleCanvas {
  Q_OBJECT
public:
  StageView(Document* document, Analyst* analyst, QWidget* parent = nullptr);

  Fan& fan() { return *m_fan; }
  SizeTags& tags() { return *m_tags; }
  StandingTree& standing() { return *m_standing; }
  QToolButton& addButton() { return *m_add; }
  void showFinding(int index); ///< goes to its opening and marks its panels; -1 marks none
  int shownFinding() const { return m_shownFinding; }
  void setHoveredPanel(const QString& key);
  void setLettered(PieceIndex piece); ///< the piece whose panels carry their letters
  /// What a hand moves goes on to its next stop; once all of it is at its end, back.
  void liftAll();
  void setAdding(bool on);
  bool adding() const { return m_adding; }
  const StageScene& scene() const { return m_scene; }
  const Pose& pose() const { return m_scene.pose(); }
  std::shared_ptr<const Assembly> assembly() const { return m_scene.assembly(); }

  QList<AccessibleItem> accessibleItems() const override;
  void pressItem(int index) override;
  QWidget* canvasWidget() override { return this; }

  /// A second stage need not follow every change while nobody sees it.
  void restWhileHidden() { m_restsHidden = true; }
  /// Gives pointer and keys to a hand, which must outlive that; null: takes them back.
  void take(StageHand* hand);
  StageHand* hand() const { return m_hand; }

signals:
  void panelHovered(const QString& key);
  void seatChosen(const QString& seat, const QPoint& where);
  void refused(const QString& why);
  void findingChosen(int index);
  void poseChanged();    ///< another opening, or another assembly
  void toolKey(int key); ///< a letter that is none of the stage's own

protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  void showEvent(QShowEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void mouseDoubleClickEvent(QMouseEvent*) override;
  void wheelEvent(QWheelEvent*) override;
  void leaveEvent(QEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

private:
  void refresh();             ///< assembly and pose anew
  std::ptrdiff_t openScene(); ///< the pose at the fan's opening; how many panels have no place
  void layOutTags();
  void paintSeats(QPainter& painter) const;
  void paintStart(QPainter& painter, const Seat& face) const;
  void paintSides(QPainter& painter, const Seat& seat) const;
  void paintBadges(QPainter& painter) const;
  void paintKnobs(QPainter& painter) const;
  void paintLetters(QPainter& painter) const;
  QRectF roomForLetter(const FlatLabel& label) const;
  void paintStatus(QPainter& painter) const;
  void paintHint(QPainter& painter) const;

  Document* m_document;
  Analyst* m_analyst;
  PreviewMotion* m_preview;
  Fan* m_fan;
  SizeTags* m_tags;
  StandingTree* m_standing;
  SizeNudge* m_nudge;
  QToolButton* m_add;
  StageScene m_scene;
  QImage m_background; ///< kept between repaints with the card and camera it belongs to
  QList<double> m_backgroundFor;
  QImage m_still; ///< the card under a hand, with what it belongs to
  QList<double> m_stillFor;
  /// What is shown of a stroke under way: its card, one of a moment ago, or that before it.
  enum class Shown : std::uint8_t { AsItIs, AMomentAgo, AsBefore };
  Shown m_isShown = Shown::AsItIs;
  std::ptrdiff_t m_missing = 0; ///< panels without a place in the card that is kept
  bool m_restsHidden = false, m_stale = false;
  QTimer m_settles;        ///< runs while the card moves
  double m_printed_ms = 0; ///< what the last picture with printed papers took
  int m_stillCount = 0;    ///< goes up when the pose or the card is another
  /// The plus signs by keys: Page Down and Up go through folds, then faces; Enter takes one.
  bool chooseSeat(const QKeyEvent& event);
  QString m_hovered;
  StageHand* m_hand = nullptr;
  std::optional<std::size_t> m_knob; ///< of what a hand is moving
  int m_shownFinding = -1;
  SeatIndex m_hoveredSeat;
  PieceIndex m_lettered;
  bool m_adding = false, m_orbiting = false, m_moved = false;
  QPointF m_pressedAt;
};

} // namespace hinge
