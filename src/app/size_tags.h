// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/document.h"
#include "core/assembly/assembly.h"
#include <QLineEdit>
#include <QPainter>
#include <QPointer>
#include <QWidget>
#include <functional>

namespace hinge {

/// Value of a parameter as the user reads it, and back.
QString shownValue(const Design& design, const ParameterSpec& spec, double value);
Result<double> typedValue(const Design& design, const ParameterSpec& spec, const QString& text);

/// The edit of one size: also its twin's when both sides are alike, so that a symmetric structure
/// stays symmetric.
ParameterValues linkedChange(const StructureItem& item, const ParameterSpec& spec, double value,
                             bool bothSides);
bool sidesAlike(const StructureItem& item);

/// Dimension tags of the selected structure on a view: drawn at their line, clicked to type a
/// value, dragged to slide it. Both views use this; they only differ in where a point of a panel
/// lands on the screen.
class SizeTags : public QObject {
  Q_OBJECT
public:
  struct Tag {
    const ParameterSpec* spec = nullptr;
    QString text;
    QRectF rect;
    QPointF from, to;
    std::optional<QPointF> corner;
    double pixelsPerUnit = 1; ///< for dragging
  };
  using Projector = std::function<std::optional<QPointF>(PanelIndex, const Vec2&)>;

  SizeTags(QWidget* view, Document* document);
  /// Lays the tags out anew; `allowed` is the area they must stay in.
  void update(const Assembly& assembly, const Projector& projector, const QRectF& allowed);
  void clear() { m_tags.clear(); }
  void paint(QPainter& painter, bool onStage) const;
  bool press(const QPointF& at);
  bool move(const QPointF& at); ///< true while a tag is dragged or hovered
  bool release(const QPointF& at);
  bool leave();
  const std::vector<Tag>& tags() const { return m_tags; }
  void edit(int index); ///< opens the line in which the value is typed
  QLineEdit* editor() const { return m_editor; }

signals:
  void refused(const QString& why);
  void repaint();

private:
  int at(const QPointF& point) const;
  void commit(const ParameterSpec& spec, double value, bool preview);
  void closeEditor(bool take);
  bool eventFilter(QObject* object, QEvent* event) override;

  QWidget* m_view;
  Document* m_document;
  std::vector<Tag> m_tags;
  int m_hover = -1, m_dragged = -1;
  bool m_moved = false;
  QPointF m_pressedAt;
  double m_valueAtPress = 0;
  QPointer<QLineEdit> m_editor;
  const ParameterSpec* m_edited = nullptr;
};

} // namespace hinge
