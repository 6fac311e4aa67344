// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "app/document.h"
#include "core/production/cut_plan.h"
#endif
#include <QWidget>

namespace hinge {

/// The sheets of a plan in their real papers, under one another. A click chooses a part; on sheets
/// for a machine a part is dragged to another place, where it stays when the rest is laid out
/// again.
class SheetsView : public QWidget {
  Q_OBJECT
public:
  explicit SheetsView(Document* document, QWidget* parent = nullptr);

  void show(std::shared_ptr<const CutPlan> plan);
  void choose(std::vector<std::size_t> parts); ///< that stand out
  /// That was pressed last, or holds the first part that stands out.
  std::size_t currentSheet() const { return m_current; }
  std::vector<PinnedPart> pinned() const;
  void unpinAll();
  /// The rectangle of a part's middle, for tests and for scrolling to it.
  QPointF middleOf(std::size_t part) const;

signals:
  void chosen(std::size_t part);
  void moved();
  void refused(const QString& why);

protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

private:
  struct Spot {
    std::size_t sheet = 0, place = 0;
  };
  double scale() const;
  int columns() const;
  QRectF pageOf(std::size_t sheet) const; ///< in pixels
  QTransform toPixels(std::size_t sheet) const;
  Vec2 onSheetAt(std::size_t sheet, const QPointF& at) const;
  std::optional<Spot> at(const QPointF& where) const;
  /// A place near another one where the part lies flush to the sheet or to other parts.
  Vec2 snapped(const Spot& spot, const Vec2& offset) const;
  bool free(const Spot& spot, const Vec2& offset) const;
  void paintCuts(QPainter& painter, std::size_t sheet, const std::vector<Blank>& blanks) const;
  void paintSheet(QPainter& painter, std::size_t sheet, const Assembly& assembly) const;
  QString titleOf(std::size_t sheet) const;

  Document* m_document;
  std::shared_ptr<CutPlan> m_plan;
  std::vector<std::size_t> m_chosen;
  std::optional<Spot> m_dragged;
  Vec2 m_grip = Vec2::Zero(), m_from = Vec2::Zero();
  bool m_moved = false;
  std::size_t m_current = 0;
};

} // namespace hinge
