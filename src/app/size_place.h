// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/document.h"
#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMap>
#include <QPushButton>
#include <QToolButton>

namespace hinge {

class SizeDrawing;

/// Where the work starts: finished size, the side that folds, stock, unit and the sheet it is cut
/// from, with the card drawn to scale open, shut and in its envelope.
class SizePlace : public QWidget {
  Q_OBJECT
public:
  SizePlace(Document* document, QWidget* parent = nullptr);
  /// The unit and the sheet that the maker chose last for any card.
  static Settings chosenLast();

  QLineEdit* widthField() const { return m_width; }
  QComboBox* baseChoice() const { return m_base; }
  QLineEdit* baseField(const QString& key) const {
    return m_baseFields.value(key);
  } ///< none for another base

signals:
  void refused(const QString& why);
  void notice(const QString& text);
  void done();

private:
  void makeForm();
  void addUse();
  void listen(); ///< to every field
  void refill();
  void sayFacts(const Design& design);
  void commitCard();
  void commitEnvelope();
  Document* m_document;
  QLineEdit *m_title, *m_width, *m_height, *m_display, *m_openBy, *m_worksFrom, *m_worksTo;
  void refillBase();
  void offerStocks(const Design& design);
  std::vector<Paper> m_stocks; ///< as they are offered
  bool m_stocksInInches = false;
  QFormLayout* m_form;
  QComboBox* m_base;
  QString m_shownBase;                    ///< key of the base whose sizes have fields
  QMap<QString, QLineEdit*> m_baseFields; ///< by parameter
  QComboBox *m_fold, *m_stock, *m_unit, *m_sheet, *m_envelope, *m_rests;
  SizeDrawing* m_drawing;
  QToolButton* m_use; ///< shows the fields of how the card is used
  QLabel* m_facts;
};

} // namespace hinge
