// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/document.h"
#include <QKeyEvent>

namespace hinge {

/// Arrow keys on the selected structure: up and down move it along its fold, with Ctrl they change
/// the chosen size, and left and right with Ctrl choose another one.
class SizeNudge : public QObject {
  Q_OBJECT
public:
  SizeNudge(Document* document, QObject* parent) : QObject(parent), m_document(document) {}

  /// True when the key was one of these.
  bool take(const QKeyEvent& event);
  /// The size that the keys change; null when the structure has none.
  const ParameterSpec* sizeOf(const StructureItem& item) const;

signals:
  void refused(const QString& why);
  void chosen(); ///< another size

private:
  void choose(const StructureItem& item, bool next);
  void change(const StructureItem& item, const ParameterSpec& spec, double by);

  Document* m_document;
  std::string m_chosen; ///< key of the size
};

} // namespace hinge
