// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/dress_hand.h"
#include "app/face_view.h"
#include "app/findings_panel.h"
#include "app/swatch_row.h"
#include <QLineEdit>

class QHBoxLayout;
class QVBoxLayout;

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
  FindingsPanel& findings() { return *m_findings; }
  QLineEdit& border() { return *m_border; }
  QLineEdit& topperWords() { return *m_words; }
  QToolButton& dressAllButton() { return *m_all; }
  /// One of the small choices, by its word ("twins", "around", "round", "along-fold", "hidden").
  QToolButton* choice(const QString& word) const;

  /// A picture becomes a paper in the drawer, a drawing a topper on the chosen face.
  bool takeFile(const QString& path);

signals:
  void refused(const QString& why);
  void notice(const QString& text);

private:
  QWidget* makeSide(Analyst* analyst);
  void makeLayerChoices(QWidget* side, QVBoxLayout* column);
  void makeFaceChoices(QVBoxLayout* column);
  void makeTopperRow(QWidget* side, QVBoxLayout* column);
  void makeLastRow(QWidget* side, QVBoxLayout* column);
  void addChoices(
      QHBoxLayout* row, const QString& heading,
      const std::vector<std::tuple<QString, QString, std::function<void()>, std::function<bool()>>>&
          choices);
  void refresh();
  void takeBorder();
  void takeWords();
  void takePaper(const QString& words);
  void putPaper(const Paper& paper);
  void layPaper(const std::string& paper);
  void layItem(const std::string& item); ///< a paper or a shape of the drawer
  void dressAll();
  bool eventFilter(QObject* watched, QEvent* event) override;

  Document* m_document;
  StageView* m_stage;
  DressHand* m_hand;
  FaceView* m_face;
  SwatchRow* m_drawer;
  FindingsPanel* m_findings;
  QLineEdit *m_border, *m_words;
  QWidget* m_topperRow;
  QToolButton* m_all;
  std::vector<std::pair<QToolButton*, std::function<bool()>>> m_choices;
};

} // namespace hinge
