// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/accessible_items.h"
#include "app/analyst.h"
#include "app/document.h"
#include "app/fan.h"
#include "app/size_tags.h"
#include "render/stage_painter.h"
#include <QToolButton>
#include <QTreeWidget>
#include <functional>

namespace hinge {

/// The moving structure: the hero of the window. Shows the pose at the fan's opening, picks
/// structures, marks findings, offers the folds on which something can be put.
class StageView : public QWidget, public AccessibleCanvas {
  Q_OBJECT
public:
  StageView(Document* document, Analyst* analyst, QWidget* parent = nullptr);

  Fan& fan() { return *m_fan; }
  SizeTags& tags() { return *m_tags; }
  QTreeWidget& standing() { return *m_standing; }
  QToolButton& addButton() { return *m_add; }
  void showFinding(int index); ///< goes to its opening and marks its panels; -1 marks none
  int shownFinding() const { return m_shownFinding; }
  void setHoveredPanel(const QString& key);
  void setAdding(bool on);
  bool adding() const { return m_adding; }
  const Pose& pose() const { return m_pose; }
  std::shared_ptr<const Assembly> assembly() const { return m_assembly; }
  QPointF seatPoint(const Seat& seat) const;  ///< where the seat's bead is drawn
  QPointF panelPoint(PanelIndex panel) const; ///< middle of the panel on the screen
  /// Where a point of a panel (in its flat piece) is drawn; nothing when the panel is not placed.
  std::optional<QPointF> pointOnScreen(PanelIndex panel, const Vec2& flat) const {
    return screenOf(panel, flat);
  }

  QList<AccessibleItem> accessibleItems() const override;
  void pressItem(int index) override;
  QWidget* canvasWidget() override { return this; }

  /// A point of the paper that was pointed at: on which face (seat key), and where on the face and
  /// on the flat piece, on the user's lattice.
  struct Picked {
    PanelIndex panel;
    std::string face;
    Vec2 onFace = Vec2::Zero(), onPiece = Vec2::Zero();
  };
  /// The next click tells a point in place of selecting; `take` gets nothing when Escape ends it.
  /// `hint` stands on the stage.
  void pick(const QString& hint, std::function<void(std::optional<Picked>)> take);
  bool picking() const { return static_cast<bool>(m_take); }

signals:
  void panelHovered(const QString& key);
  void seatChosen(const QString& seat, const QPoint& where);
  void refused(const QString& why);
  void findingChosen(int index);
  void poseChanged(); ///< another opening, or another assembly

protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void mouseDoubleClickEvent(QMouseEvent*) override;
  void wheelEvent(QWheelEvent*) override;
  void leaveEvent(QEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

private:
  void refresh(); ///< assembly and pose anew
  void refreshStanding();
  void layOutStanding();
  void layOutTags();
  Camera camera() const;
  QRectF stageArea() const;
  std::optional<QPointF> screenOf(PanelIndex panel, const Vec2& flat) const;
  PanelIndex panelAt(const QPointF& point) const;
  int badgeAt(const QPointF& point) const;
  int seatAt(const QPointF& point)
      const; ///< a fold near the point, or else the visible side of the panel under it
  int faceAt(const QPointF& point) const;
  std::optional<Picked> pickedAt(const QPointF& point) const;
  void endPick(const std::optional<Picked>& picked);
  bool nudge(QKeyEvent* event); ///< arrow keys on the selected structure
  const ParameterSpec* nudgedSize(const StructureItem& item) const;
  std::optional<QPointF> badgePlace(const Finding& finding) const;
  void paintSeats(QPainter& painter) const;
  void paintBadges(QPainter& painter) const;
  void paintStatus(QPainter& painter) const;

  Document* m_document;
  Analyst* m_analyst;
  Fan* m_fan;
  SizeTags* m_tags;
  QTreeWidget* m_standing;
  QToolButton* m_add;
  std::shared_ptr<const Assembly> m_assembly;
  std::shared_ptr<const Snapshot> m_shown; ///< the one m_assembly is of
  Pose m_pose;
  std::vector<DrawnFace> m_drawn;
  QImage m_background; ///< kept between repaints with the card and camera it belongs to
  QList<double> m_backgroundFor;
  QString m_hovered, m_pickHint;
  std::function<void(std::optional<Picked>)> m_take; ///< set while a point is being picked
  std::string m_nudged;                              ///< key of the size that arrow keys change
  int m_shownFinding = -1, m_hoveredSeat = -1;
  bool m_adding = false, m_orbiting = false, m_moved = false;
  QPointF m_pressedAt;
  double m_turn = 0, m_height = 0, m_zoom = 1;
};

} // namespace hinge
