// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/dress_hand.h"
#include "app/face_view.h"
#include "app/swatch_row.h"
#include <QLineEdit>

class QHBoxLayout;

namespace hinge {

/// Where the card gets its papers: the stage in their true colours, the chosen face at large beside
/// it, the drawer below.
class DressPlace : public QWidget {
  Q_OBJECT
public:
  DressPlace(Document* document, Analyst* analyst, QWidget* parent = nullptr);
  StageView& stage() { return *m_stage; }
  DressHand& hand() { return *m_hand; }
  FaceView& face() { return *m_face; }
  SwatchRow& drawer() { return *m_drawer; }
  QLineEdit& border() { return *m_border; }
  QToolButton& dressAllButton() { return *m_all; }
  /// One of the small choices, by its word ("twins", "around", "round", "along-fold", "hidden").
  QToolButton* choice(const QString& word) const;

signals:
  void refused(const QString& why);

private:
  QWidget* makeSide();
  void addChoices(QHBoxLayout* row, const QString& heading,
                  const std::vector<std::tuple<QString, QString, std::function<void()>,
                                               std::function<bool()>>>& choices);
  void refresh();
  void takeBorder();
  void layPaper(const std::string& paper);
  void dressAll();
  bool eventFilter(QObject* watched, QEvent* event) override;

  Document* m_document;
  StageView* m_stage;
  DressHand* m_hand;
  FaceView* m_face;
  SwatchRow* m_drawer;
  QLineEdit* m_border;
  QToolButton* m_all;
  std::vector<std::pair<QToolButton*, std::function<bool()>>> m_choices;
};

} // namespace hinge
