// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/accessible_items.h"
#include "app/fan.h"
#include "app/saying.h"
#include <QAbstractButton>
#include <QAbstractItemView>
#include <QAccessibleWidget>
#include <QComboBox>
#include <QCoreApplication>
#include <QLabel>
#include <QPointer>
#include <QTextDocumentFragment>
#include <QWidget>
#include <cmath>

namespace hinge {
namespace {

class ItemInterface : public QAccessibleInterface, public QAccessibleActionInterface {
public:
  ItemInterface(QWidget* widget, AccessibleCanvas* canvas, int index)
      : m_widget(widget), m_canvas(canvas), m_index(index) {}
  bool isValid() const override { return m_widget && m_index < m_canvas->accessibleItems().size(); }
  QObject* object() const override { return nullptr; }
  QWindow* window() const override {
    return m_widget ? m_widget->window()->windowHandle() : nullptr;
  }
  QAccessibleInterface* childAt(int, int) const override { return nullptr; }
  QAccessibleInterface* parent() const override {
    return QAccessible::queryAccessibleInterface(m_widget);
  }
  QAccessibleInterface* child(int) const override { return nullptr; }
  int childCount() const override { return 0; }
  int indexOfChild(const QAccessibleInterface*) const override { return -1; }
  QString text(QAccessible::Text kind) const override {
    if (!isValid()) return {};
    const AccessibleItem item = m_canvas->accessibleItems().at(m_index);
    return kind == QAccessible::Name          ? item.name
           : kind == QAccessible::Description ? item.description
                                              : QString();
  }
  void setText(QAccessible::Text, const QString&) override {}
  QRect rect() const override {
    if (!isValid()) return {};
    const QRect local = m_canvas->accessibleItems().at(m_index).rect;
    return {m_widget->mapToGlobal(local.topLeft()), local.size()};
  }
  QAccessible::Role role() const override {
    return isValid() ? m_canvas->accessibleItems().at(m_index).role : QAccessible::NoRole;
  }
  QAccessible::State state() const override { return {}; }
  void* interface_cast(QAccessible::InterfaceType type) override {
    if (type != QAccessible::ActionInterface || !isValid() ||
        !m_canvas->accessibleItems().at(m_index).pressable)
      return nullptr;
    return static_cast<QAccessibleActionInterface*>(this);
  }
  QStringList actionNames() const override { return {pressAction()}; }
  void doAction(const QString& name) override {
    if (name == pressAction() && isValid()) m_canvas->pressItem(m_index);
  }
  QStringList keyBindingsForAction(const QString&) const override { return {}; }

private:
  QPointer<QWidget> m_widget;
  AccessibleCanvas* m_canvas;
  int m_index;
};

class CanvasInterface : public QAccessibleWidget {
public:
  CanvasInterface(QWidget* widget, AccessibleCanvas* canvas)
      : QAccessibleWidget(widget, QAccessible::Grouping), m_canvas(canvas) {}
  ~CanvasInterface() override {
    for (QAccessible::Id id : m_ids)
      QAccessible::deleteAccessibleInterface(id);
  }
  int childCount() const override {
    return QAccessibleWidget::childCount() + static_cast<int>(m_canvas->accessibleItems().size());
  }
  QAccessibleInterface* child(int index) const override {
    const int own = QAccessibleWidget::childCount();
    if (index < own) return QAccessibleWidget::child(index);
    index -= own;
    if (index >= m_canvas->accessibleItems().size()) return nullptr;
    while (m_ids.size() <= index)
      m_ids.append(QAccessible::registerAccessibleInterface(
          new ItemInterface(widget(), m_canvas, static_cast<int>(m_ids.size()))));
    return QAccessible::accessibleInterface(m_ids.at(index));
  }
  int indexOfChild(const QAccessibleInterface* child) const override {
    for (int k = 0; k < m_ids.size(); ++k)
      if (QAccessible::accessibleInterface(m_ids.at(k)) == child)
        return QAccessibleWidget::childCount() + k;
    return QAccessibleWidget::indexOfChild(child);
  }
  QAccessibleInterface* childAt(int x, int y) const override {
    const int own = QAccessibleWidget::childCount();
    const auto items = m_canvas->accessibleItems();
    const QPoint local = widget()->mapFromGlobal(QPoint(x, y));
    for (qsizetype k = items.size(); k-- > 0;)
      if (items.at(k).rect.contains(local)) return child(own + static_cast<int>(k));
    return QAccessibleWidget::childAt(x, y);
  }

private:
  AccessibleCanvas* m_canvas;
  mutable QList<QAccessible::Id> m_ids;
};

/// A combo box that is heard by its name, with its value as description. Qt gives the value as the
/// name on this platform, so that seven boxes in a row are "A4", "Single fold", ... and nothing
/// says what they choose.
class ComboInterface : public QAccessibleWidget {
public:
  explicit ComboInterface(QComboBox* box)
      : QAccessibleWidget(box, QAccessible::ComboBox), m_box(box) {}
  QString text(QAccessible::Text kind) const override {
    if (kind == QAccessible::Value || kind == QAccessible::Description) return m_box->currentText();
    return QAccessibleWidget::text(kind);
  }
  QAccessible::State state() const override {
    QAccessible::State state = QAccessibleWidget::state();
    state.expandable = state.hasPopup = true;
    state.expanded = m_box->view()->isVisible();
    return state;
  }
  QStringList actionNames() const override { return {showMenuAction(), pressAction()}; }
  void doAction(const QString&) override {
    if (m_box->view()->isVisible())
      m_box->hidePopup();
    else
      m_box->showPopup();
  }

private:
  QComboBox* m_box;
};

/// A button that stays down. Qt's own interface toggles it without a click, which nobody hears who
/// waits for one; to a user of assistive technology it is the same act.
class CheckableInterface : public QAccessibleWidget {
public:
  explicit CheckableInterface(QAbstractButton* button)
      : QAccessibleWidget(button, QAccessible::CheckBox), m_button(button) {}
  QString text(QAccessible::Text kind) const override {
    const QString own = QAccessibleWidget::text(kind);
    return kind == QAccessible::Name && own.isEmpty() ? m_button->text().remove(QLatin1Char('&'))
                                                      : own;
  }
  QAccessible::State state() const override {
    QAccessible::State state = QAccessibleWidget::state();
    state.checkable = true, state.checked = m_button->isChecked();
    return state;
  }
  QStringList actionNames() const override { return {toggleAction(), setFocusAction()}; }
  void doAction(const QString& name) override {
    if (name == toggleAction())
      m_button->click();
    else
      QAccessibleWidget::doAction(name);
  }

private:
  QAbstractButton* m_button;
};

/// A label with a name is heard by it and by what it says. Qt gives the name in place of the text.
class LabelInterface : public QAccessibleWidget {
public:
  explicit LabelInterface(QLabel* label)
      : QAccessibleWidget(label, QAccessible::StaticText), m_label(label) {}
  QString text(QAccessible::Text kind) const override {
    const QString own = QTextDocumentFragment::fromHtml(m_label->text()).toPlainText();
    if (kind != QAccessible::Name) return QAccessibleWidget::text(kind);
    const QString name = m_label->accessibleName();
    return name.isEmpty() || own.isEmpty() ? name + own : tr("%1: %2").arg(name, own);
  }
  QList<std::pair<QAccessibleInterface*, QAccessible::Relation>>
  relations(QAccessible::Relation match) const override {
    auto all = QAccessibleWidget::relations(match);
    if ((match & QAccessible::Labelled) && m_label->buddy())
      all.append({QAccessible::queryAccessibleInterface(m_label->buddy()), QAccessible::Labelled});
    return all;
  }

private:
  static QString tr(const char* text) { return QCoreApplication::translate("hinge::Label", text); }
  QLabel* m_label;
};

/// The opening in degrees, as the reading says it; the slider counts tenths.
class FanInterface : public QAccessibleWidget, public QAccessibleValueInterface {
public:
  explicit FanInterface(Fan* fan) : QAccessibleWidget(fan, QAccessible::Slider), m_fan(fan) {}
  void* interface_cast(QAccessible::InterfaceType type) override {
    if (type == QAccessible::ValueInterface) return static_cast<QAccessibleValueInterface*>(this);
    return QAccessibleWidget::interface_cast(type);
  }
  QString text(QAccessible::Text kind) const override {
    if (kind == QAccessible::Value) return asQt(formatAngle(m_fan->value() / Fan::kPerDegree));
    return QAccessibleWidget::text(kind);
  }
  QVariant currentValue() const override { return m_fan->value() / Fan::kPerDegree; }
  void setCurrentValue(const QVariant& degrees) override {
    m_fan->setValue(static_cast<int>(std::lround(degrees.toDouble() * Fan::kPerDegree)));
  }
  QVariant maximumValue() const override { return m_fan->maximum() / Fan::kPerDegree; }
  QVariant minimumValue() const override { return m_fan->minimum() / Fan::kPerDegree; }
  QVariant minimumStepSize() const override { return m_fan->singleStep() / Fan::kPerDegree; }

private:
  Fan* m_fan;
};

QAccessibleInterface* makeInterface(const QString& name, QObject* object) {
  if (auto* button = qobject_cast<QAbstractButton*>(object))
    return button->isCheckable() ? new CheckableInterface(button) : nullptr;
  if (auto* fan = qobject_cast<Fan*>(object)) return new FanInterface(fan);
  if (name == QLatin1String("QLabel"))
    if (auto* label = qobject_cast<QLabel*>(object)) return new LabelInterface(label);
  if (name == QLatin1String("QComboBox"))
    if (auto* box = qobject_cast<QComboBox*>(object)) return new ComboInterface(box);
  auto* widget = qobject_cast<QWidget*>(object);
  auto* canvas = dynamic_cast<AccessibleCanvas*>(object);
  return widget && canvas ? new CanvasInterface(widget, canvas) : nullptr;
}

} // namespace

void installCanvasAccessibility() {
  QAccessible::installFactory(makeInterface);
}

} // namespace hinge
