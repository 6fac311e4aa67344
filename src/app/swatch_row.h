// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/accessible_items.h"
#include "app/document.h"
#include <QLineEdit>
#include <QWidget>

namespace hinge {

/// The drawer: papers as real swatches, the pattern at its true scale, each with a letter. First
/// those that lie in the drawer of this card, then those that everybody has. A click or a letter
/// lays one on the chosen face; a drag carries it to any face. The other half of the drawer holds
/// the shapes that toppers are cut to, which go onto faces in the same way.
class SwatchRow : public QWidget, public AccessibleCanvas {
  Q_OBJECT
public:
  SwatchRow(Document* document, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {900, 132}; }
  /// The paper of a letter key; empty: none.
  std::string paperOf(int key) const;
  std::vector<std::string> papers() const; ///< in their order
  std::vector<std::string> items() const;  ///< papers, or shapes
  QLineEdit& words() { return *m_words; }  ///< of the paper that is being described
  bool showsShapes() const { return m_shapes; }
  void showShapes(bool on);
  QRect rectOf(std::size_t swatch) const;

  QList<AccessibleItem> accessibleItems() const override;
  void pressItem(int index) override;
  QWidget* canvasWidget() override { return this; }

signals:
  void chosen(const QString& paper);
  void carried(const QString& paper, const QPoint& globalAt);
  void dropped(const QPoint& globalAt);
  void putBack();
  void described(const QString& words);  ///< a paper, new or changed, as the command line has it
  void keepWanted(const QString& paper); ///< in the maker's own drawer

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void wheelEvent(QWheelEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void mouseDoubleClickEvent(QMouseEvent*) override;
  void showEvent(QShowEvent*) override;
  bool event(QEvent*) override;

private:
  void openWords();
  bool eventFilter(QObject* watched, QEvent* event) override;
  void readMakersDrawer();
  const Paper* paperAt(std::size_t swatch) const;

public:
  /// Of the card's drawer, the maker's, or everybody's.
  const Paper* find(const std::string& key) const;

private:
  void paintPaper(QPainter& painter, std::size_t swatch) const;
  void paintShape(QPainter& painter, std::size_t swatch) const;
  std::size_t count() const { return items().size(); }
  std::size_t ownCount() const;
  int swatchAt(const QPoint& at) const; ///< -1: none
  void scrollBy(int px);
  void reveal(std::size_t swatch);

  Document* m_document;
  QLineEdit* m_words;
  std::vector<Paper> m_makers; ///< the maker's own, as they were when the row came to be seen
  int m_scroll = 0, m_current = 0, m_pressed = -1;
  QPoint m_pressedAt;
  bool m_carrying = false, m_shapes = false;
};

} // namespace hinge
