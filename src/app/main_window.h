// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/analyst.h"
#include "app/build_place.h"
#include "app/cut_place.h"
#include "app/document.h"
#include "app/dress_place.h"
#include "app/make_place.h"
#include "app/size_place.h"
#include <QActionGroup>
#include <QMainWindow>
#include <QStackedWidget>

namespace hinge {

/// The window: places along the order of the work (size, build, dress, cut) over one document.
class MainWindow : public QMainWindow {
  Q_OBJECT
public:
  enum Place { SizeCard, BuildCard, DressCard, CutCard, MakeCard };
  explicit MainWindow(QWidget* parent = nullptr);

  Document& document() { return *m_document; }
  Analyst& analyst() { return *m_analyst; }
  StageView& stage() { return m_build->stage(); }
  BenchView& bench() { return m_build->bench(); }
  SheetPanel& sheet() { return m_build->sheet(); }
  SizesPanel& sizes() { return m_build->sizes(); }
  FindingsPanel& findings() { return m_build->findings(); }
  DressPlace& dressPlace() { return *m_dress; }
  CutPlace& cutPlace() { return *m_cut; }
  MakePlace& makePlace() { return *m_make; }
  SizePlace& sizePlace() { return *m_size; }
  void go(Place place);
  void openNewPlace();
  bool openFile(const QString& path);
  /// Makes the design with a structure just added the current one and selects it.
  void takeOver(const Design& design, StructureId added);
  void openShelf(const QString& seat, const QPoint& where);
  /// Puts the finished card of a file on a face or astride a fold.
  void placeCard(const QString& kind, const QString& seat, const QString& path);
  /// Asks what the drawing of a file is to be; a list of scores goes onto the sheet under the hand.
  void bringIn(const QString& path);
  void offerRecovery();
  void setDark(bool dark);
  QString noticeText() const { return m_notice->isVisible() ? m_notice->text() : QString(); }
  /// An empty card as its maker works: in a unit and from a sheet.
  static Design emptyCard(const Settings& asBefore);

  /// Answers of the unsaved-changes prompt, replaceable so that it can be tested without a modal
  /// dialog.
  std::function<int()> askUnsaved;
  /// The same for a copy that a program left behind (Yes, No, Cancel), and for replacing a file.
  std::function<int(const QString& name, const QDateTime& saved)> askRecover;
  std::function<bool(const QString& path)> askReplace;
  /// What to do about a file that somebody else has changed since it was opened or saved.
  enum class WhenChanged { Reload, KeepMine, SaveAs, Cancel };
  std::function<WhenChanged(const QString& path)> askChanged;
  /// Saves to the card's own file; false when it was not.
  bool save();
  /// Saves under a name that was chosen; without the ending of a card it gets one.
  bool saveUnder(const QString& chosen);

protected:
  void closeEvent(QCloseEvent*) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  void askByDialogs(); ///< unless a test answers
  void listen();       ///< to the places, the document and the analyst
  void buildActions();
  QAction* make(const QString& text, const QKeySequence& keys,
                const std::function<void(bool)>& run);
  QToolButton* placeButton(QWidget* bar, const QString& text, Place place);
  QWidget* buildBar();
  void updateActions();
  void showRefusal(const QString& why);
  void showNotice(const QString& text, bool trouble);
  /// Applies an edit of the selected structure, or says why it cannot be made.
  void editSelected(const QString& what, const std::function<Result<Design>(StructureId)>& edit);
  bool mayLeave();
  bool saveAs();
  void rememberRecent(const QString& path);
  void fillRecent();

  Document* m_document;
  Analyst* m_analyst;
  BuildPlace* m_build = nullptr;
  SizePlace* m_size = nullptr;
  DressPlace* m_dress = nullptr;
  CutPlace* m_cut = nullptr;
  MakePlace* m_make = nullptr;
  QStackedWidget* m_places = nullptr;
  QLabel *m_title = nullptr, *m_notice = nullptr, *m_noCopy = nullptr;
  QTimer m_noticeTimer;
  QMenu *m_menu = nullptr, *m_recent = nullptr;
  QList<QToolButton*> m_placeButtons;
  QAction *m_new, *m_open, *m_save, *m_saveAs, *m_undo, *m_redo, *m_add, *m_newSheet, *m_bringIn,
      *m_remove, *m_swap, *m_repeat, *m_otherSide, *m_play, *m_dark, *m_quit;
};

} // namespace hinge
