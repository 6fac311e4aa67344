// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/work_panel.h"
#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <map>

namespace hinge {

struct StructureKind;

/// Small drawing that shows which distance each parameter is; the one being edited is lit.
class SketchView : public QWidget {
  Q_OBJECT
public:
  explicit SketchView(QWidget* parent = nullptr);
  void show(const StructureKind* kind);
  void light(const QString& key);

protected:
  void paintEvent(QPaintEvent*) override;

private:
  const StructureKind* m_kind = nullptr;
  QString m_lit;
};

/// All sizes of the selected structure, both sides of a fold in one row; of the card when nothing
/// is selected.
class SizesPanel : public QWidget {
  Q_OBJECT
public:
  SizesPanel(Document* document, QWidget* parent = nullptr);
  QLineEdit* field(const QString& key) const;
  WorkPanel& work() { return *m_work; } ///< shown in place of the sizes of a free piece

signals:
  void refused(const QString& why);
  void notice(const QString& text);

private:
  void rebuild();
  void refill();
  void commit(const std::string& key, QLineEdit* field);
  void addSwitch(int row, const ParameterSpec& spec, const QString& tip);
  /// A row of one field, or of two for a size on both sides; `names` say each of them.
  void addRow(int row, const QString& label, const QString& tip,
              const std::vector<std::string>& keys, const QStringList& names);
  QLineEdit* makeField(const std::string& key, const QString& name, const QString& tip);
  bool eventFilter(QObject* object, QEvent* event) override;
  double valueOf(const std::string& key) const;

  Document* m_document;
  std::optional<StructureId> m_shown;
  bool m_built = false;
  QGridLayout* m_grid;
  QLineEdit* m_name;
  QCheckBox* m_alike;
  QPushButton* m_remove;
  SketchView* m_sketch;
  WorkPanel* m_work;
  std::map<std::string, QComboBox*> m_switches;
  std::map<std::string, QLineEdit*> m_fields;
};

} // namespace hinge
