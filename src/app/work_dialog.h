// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "app/document.h"
#endif
#include <QDialog>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace hinge {

/// The frame of what is done to a card, or at its table, in a window of its own: what it is about,
/// what is to be said of it at the moment, a button that does it and one that leaves it. It stands
/// beside the window and goes when it is closed.
class WorkDialog : public QDialog {
  Q_OBJECT
public:
  WorkDialog(Document* document, const QString& title, const QString& hint, QWidget* parent);

signals:
  void notice(const QString& text);

protected:
  /// The sentence at the foot and the buttons; called when all else is there.
  void addFoot(const QString& doIt);
  void sayRefusal(const Error& error);

  Document* m_document;
  QVBoxLayout* m_column;
  QHBoxLayout* m_buttons = nullptr;
  QLabel* m_says;
  QPushButton* m_take = nullptr;
};

} // namespace hinge
