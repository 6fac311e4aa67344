// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/document.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/sheet.h"
#include "core/io/drawing.h"
#endif
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QPushButton>

namespace hinge {

/// Paper brought in from a drawing: what it is to be, and what each kind of line in it means. What
/// is told of a look once is remembered for the next drawing.
class BringInDialog : public QDialog {
  Q_OBJECT
public:
  /// `sheet` is what lies under the hand, which openings go into.
  BringInDialog(Document* document, Drawing drawing, const QString& name,
                const std::optional<SheetTarget>& sheet, QWidget* parent);
  QComboBox& becomes() { return *m_becomes; }
  QComboBox& number() { return *m_number; }
  QComboBox* useOf(const LineLook& look) const;
  QPushButton& take() { return *m_take; }

signals:
  void refused(const QString& why);
  void notice(const QString& text);

protected:
  void paintEvent(QPaintEvent*) override;

private:
  enum Becomes { Piece, Base, Opening };
  void addLooks(QLayout* column);
  void work(); ///< the pieces anew
  void bringIn();
  LineUses uses() const;

  Document* m_document;
  Drawing m_drawing;
  std::optional<SheetTarget> m_sheet;
  Result<std::vector<PieceWork>> m_pieces = Error{};
  std::map<LineLook, QComboBox*> m_uses;
  QComboBox *m_becomes, *m_number;
  QLabel *m_found, *m_room;
  QPushButton* m_take;
};

} // namespace hinge
