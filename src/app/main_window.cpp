// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/main_window.h"
#include "app/bring_in_dialog.h"
#include "app/look.h"
#include "app/new_place.h"
#include "app/saying.h"
#include "app/shelf.h"
#include "core/checks/propose.h"
#include "core/edits/arrange.h"
#include "core/io/design_json.h"
#include "core/structures/registry.h"
#include <QApplication>
#include <QCloseEvent>
#include <QDateTime>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMenu>
#include <QMessageBox>
#include <QPointer>
#include <QSettings>
#include <QSplitter>

namespace hinge {
namespace {
constexpr int kMostRecent = 8;
const QString kFilter = QStringLiteral("Hinge Lantern (*.hinge)");
} // namespace

Design MainWindow::emptyCard(const Settings& asBefore) {
  Design design;
  design.settings = startingSettings(asBefore.unit);
  design.settings.sheet = asBefore.sheet;
  if (asBefore.unit == LengthUnit::Inch)
    design.card.width_mm = 5 * kMillimetresPerInch, design.card.height_mm = 7 * kMillimetresPerInch;
  return design;
}

void MainWindow::askByDialogs() {
  askUnsaved = [this] {
    return static_cast<int>(QMessageBox::warning(
        this, tr("Unsaved changes"), tr("Save the changes to \"%1\"?").arg(m_document->name()),
        QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, QMessageBox::Save));
  };
  askRecover = [this](const QString& name, const QDateTime& saved) {
    return static_cast<int>(QMessageBox::question(
        this, tr("Unsaved work found"),
        tr("The program ended while %1 had unsaved changes (kept %2). Restore them?")
            .arg(name, saved.toString(Qt::ISODate)),
        QMessageBox::Yes | QMessageBox::No | QMessageBox::Cancel));
  };
  askReplace = [this](const QString& path) {
    return QMessageBox::question(this, tr("Replace the file?"),
                                 tr("%1 is there already. Replace it?").arg(path)) ==
           QMessageBox::Yes;
  };
  askChanged = [this](const QString& path) {
    QMessageBox box(QMessageBox::Warning, tr("The file has changed"),
                    tr("%1 was changed by somebody else since it was opened here.").arg(path),
                    QMessageBox::NoButton, this);
    const QAbstractButton* reload =
        box.addButton(tr("Reload it, drop what is open here"), QMessageBox::DestructiveRole);
    const QAbstractButton* mine =
        box.addButton(tr("Keep mine, replace the file"), QMessageBox::AcceptRole);
    const QAbstractButton* elsewhere = box.addButton(tr("Save as …"), QMessageBox::ActionRole);
    box.addButton(QMessageBox::Cancel);
    box.exec();
    return box.clickedButton() == reload      ? WhenChanged::Reload
           : box.clickedButton() == mine      ? WhenChanged::KeepMine
           : box.clickedButton() == elsewhere ? WhenChanged::SaveAs
                                              : WhenChanged::Cancel;
  };
}

MainWindow::MainWindow(QWidget* parent)
    : QMainWindow(parent), m_document(new Document(this)), m_analyst(new Analyst(this)) {
  setWindowTitle(tr("Hinge Lantern"));
  resize(1280, 800);
  askByDialogs();
  buildActions();
  auto* central = new QWidget(this);
  central->setObjectName(QStringLiteral("page"));
  auto* column = new QVBoxLayout(central);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  column->addWidget(buildBar());
  auto* line = new QFrame(central);
  line->setObjectName(QStringLiteral("hairline"));
  line->setFixedHeight(1);
  column->addWidget(line);
  m_places = new QStackedWidget(central);
  const auto talk = [this]<class Place>(Place* place) {
    connect(place, &Place::refused, this, &MainWindow::showRefusal);
    connect(place, &Place::notice, this, [this](const QString& text) { showNotice(text, false); });
  };
  m_size = new SizePlace(m_document, m_places);
  m_cut = new CutPlace(m_document, m_places);
  m_places->addWidget(m_size);
  m_build = new BuildPlace(m_document, m_analyst, m_places);
  talk(m_build);
  connect(m_build, &BuildPlace::seatChosen, this, &MainWindow::openShelf);
  m_places->addWidget(m_build);
  m_dress = new DressPlace(m_document, m_analyst, m_places);
  talk(m_dress);
  // One opening in all places.
  Fan *built = &m_build->stage().fan(), *dressed = &m_dress->stage().fan();
  connect(built, &Fan::valueChanged, dressed, &Fan::setValue);
  connect(dressed, &Fan::valueChanged, built, &Fan::setValue);
  dressed->setValue(built->value());
  m_places->addWidget(m_dress);
  m_places->addWidget(m_cut);
  m_make = new MakePlace(m_document, m_analyst, m_places);
  m_places->addWidget(m_make);
  talk(m_make);
  column->addWidget(m_places, 1);
  setCentralWidget(central);
  m_notice = new QLabel(this);
  m_notice->setObjectName(QStringLiteral("notice"));
  m_notice->setAccessibleName(tr("Notice"));
  m_notice->hide();
  m_noticeTimer.setSingleShot(true);
  connect(&m_noticeTimer, &QTimer::timeout, m_notice, &QWidget::hide);

  listen();
  qApp->installEventFilter(this);
  m_document->start(emptyCard(SizePlace::chosenLast()));
  go(BuildCard);
  stage().setFocus();
}

void MainWindow::listen() {
  connect(m_size, &SizePlace::refused, this, &MainWindow::showRefusal);
  connect(m_size, &SizePlace::done, this, [this] { go(BuildCard); });
  connect(m_analyst, &Analyst::changed, m_cut, [this] {
    if (const auto analysis = m_analyst->current()) m_cut->showOrder(*analysis);
  });
  connect(m_size, &SizePlace::notice, this,
          [this](const QString& text) { showNotice(text, false); });
  connect(m_cut, &CutPlace::refused, this, &MainWindow::showRefusal);
  connect(m_cut, &CutPlace::notice, this, [this](const QString& text) { showNotice(text, false); });
  connect(m_document, &Document::designChanged, this, [this] {
    if (!m_document->previewing()) m_analyst->request(m_document->committedSnapshot());
    updateActions();
  });
  connect(m_document, &Document::selectionChanged, this, &MainWindow::updateActions);
  connect(m_document, &Document::titleChanged, this, &MainWindow::updateActions);
  connect(m_document, &Document::copyTroubleChanged, this, [this] {
    const QString why = m_document->copyTrouble();
    m_noCopy->setVisible(!why.isEmpty());
    m_noCopy->setToolTip(why);
    if (!why.isEmpty()) showRefusal(tr("No safety copy could be written: %1").arg(why));
  });
  connect(&m_document->undoStack(), &QUndoStack::indexChanged, this, &MainWindow::updateActions);
}

QAction* MainWindow::make(const QString& text, const QKeySequence& keys,
                          const std::function<void(bool)>& run) {
  auto* action = new QAction(text, this);
  action->setShortcut(keys);
  // Desktops differ on standard keys: all that mean the same do the same.
  for (auto standard : {QKeySequence::Undo, QKeySequence::Redo})
    if (keys == QKeySequence(standard)) action->setShortcuts(QKeySequence::keyBindings(standard));
  connect(action, &QAction::triggered, this, run);
  addAction(action);
  return action;
}

void MainWindow::buildActions() {
  m_new = make(tr("New card"), QKeySequence::New, [this](bool) {
    if (!mayLeave()) return;
    openNewPlace();
  });
  m_open = make(tr("Open …"), QKeySequence::Open, [this](bool) {
    if (!mayLeave()) return;
    const QString path = QFileDialog::getOpenFileName(this, tr("Open a card"), QString(), kFilter);
    if (!path.isEmpty()) openFile(path);
  });
  m_save = make(tr("Save"), QKeySequence::Save, [this](bool) { save(); });
  m_saveAs = make(tr("Save as …"), QKeySequence::SaveAs, [this](bool) { saveAs(); });
  m_undo = make(tr("Undo"), QKeySequence::Undo, [this](bool) { m_document->undoStack().undo(); });
  m_redo = make(tr("Redo"), QKeySequence::Redo, [this](bool) { m_document->undoStack().redo(); });
  m_add = make(tr("Add a structure"), QKeySequence(Qt::Key_A), [this](bool) {
    go(BuildCard);
    stage().setAdding(!stage().adding());
    stage().setFocus();
  });
  m_newSheet = make(tr("Cut a new sheet"), QKeySequence(Qt::Key_N), [this](bool) {
    go(BuildCard);
    m_build->cutNewSheet();
  });
  m_bringIn = make(tr("Bring paper in …"), QKeySequence(Qt::CTRL | Qt::Key_I), [this](bool) {
    const QString path =
        QFileDialog::getOpenFileName(this, tr("Bring paper in"), QString(),
                                     tr("Drawings, score lists and pictures to trace "
                                        "(*.svg *.dxf *.fold *.csv *.png *.jpg *.jpeg)"));
    if (!path.isEmpty()) bringIn(path);
  });
  m_remove = make(tr("Remove the structure"), QKeySequence::Delete, [this](bool) {
    const auto id = m_document->selection();
    if (!id) return;
    const auto next = removeStructure(m_document->committed(), *id);
    if (next)
      (void)m_document->apply(*next, tr("remove %1").arg(QString::fromStdString(id->text()))).ok();
  });
  m_swap = make(tr("Mirror the structure across its fold"), QKeySequence(Qt::Key_M), [this](bool) {
    editSelected(tr("mirror %1"),
                 [this](StructureId id) { return mirrored(m_document->committed(), id); });
  });
  m_repeat = make(tr("Repeat the structure along its fold"), QKeySequence(Qt::Key_R), [this](bool) {
    editSelected(tr("repeat %1"), [this](StructureId id) {
      const StructureItem* item = m_document->committed().find(id);
      // Behind the last one, with a finger's breadth between; arrow keys move it from there.
      constexpr double kGap_mm = 10, kOtherwise_mm = 40;
      double step = kOtherwise_mm;
      for (Sense along : {Sense::AboutPlace, Sense::FromPlace})
        if (const ParameterSpec* own = findSense(parametersOf(*item), along))
          step = item->values.find(own->key)->second + kGap_mm;
      return repeatedAlong(m_document->committed(), id, 1, step);
    });
  });
  m_otherSide = make(tr("Copy the structure to the other side"),
                     QKeySequence(Qt::SHIFT | Qt::Key_M), [this](bool) {
                       editSelected(tr("copy %1 to the other side"),
                                    [this](StructureId id) -> Result<Design> {
                                      auto copied = copiedToOtherSide(m_document->committed(), id);
                                      if (!copied) return copied.error();
                                      return copied->design;
                                    });
                     });
  m_play = make(tr("Open and shut the card"), QKeySequence(Qt::Key_P),
                [this](bool) { stage().fan().togglePlay(); });
  m_dark =
      make(tr("Dark bench"), QKeySequence(Qt::CTRL | Qt::Key_D), [this](bool on) { setDark(on); });
  m_dark->setCheckable(true);
  m_dark->setChecked(Look::isDark());
  m_quit = make(tr("Quit"), QKeySequence::Quit, [this](bool) { close(); });
}

/// It is in the menu too, with its key.
QToolButton* MainWindow::placeButton(QWidget* bar, const QString& text, Place place) {
  auto* button = new QToolButton(bar);
  button->setCheckable(true); // before its name: assistive technology asks from then on
  button->setObjectName(QStringLiteral("place"));
  button->setText(text);
  button->setAccessibleName(tr("Place: %1").arg(text));
  const QKeySequence keys(
      Qt::CTRL | static_cast<Qt::Key>(static_cast<int>(Qt::Key_1) + static_cast<int>(place)));
  button->setToolTip(keys.toString(QKeySequence::NativeText));
  m_menu->insertAction(m_dark, make(text, keys, [this, to = place](bool) { go(to); }));
  connect(button, &QToolButton::clicked, this, [this, to = place] { go(to); });
  m_placeButtons.append(button);
  return button;
}

QWidget* MainWindow::buildBar() {
  auto* bar = new QWidget(this);
  bar->setFixedHeight(50);
  auto* row = new QHBoxLayout(bar);
  row->setContentsMargins(10, 0, 12, 0);
  row->setSpacing(4);
  const auto quiet = [&](const QString& text, const QString& name) {
    auto* button = new QToolButton(bar);
    button->setObjectName(QStringLiteral("quiet"));
    button->setText(text);
    button->setAccessibleName(name);
    return button;
  };
  auto* menu = quiet(tr("☰"), tr("Menu"));
  menu->setPopupMode(QToolButton::InstantPopup);
  m_menu = new QMenu(menu);
  m_recent = new QMenu(tr("Open recent"), m_menu);
  connect(m_recent, &QMenu::aboutToShow, this, &MainWindow::fillRecent);
  m_menu->addActions({m_new, m_open});
  m_menu->addMenu(m_recent);
  m_menu->addActions({m_save, m_saveAs});
  m_menu->addSeparator();
  m_menu->addActions({m_undo, m_redo});
  m_menu->addSeparator();
  m_menu->addActions(
      {m_add, m_newSheet, m_bringIn, m_repeat, m_swap, m_otherSide, m_remove, m_play});
  m_menu->addSeparator();
  m_menu->addActions({m_dark, m_quit});
  menu->setMenu(m_menu);
  row->addWidget(menu);
  m_title = new QLabel(bar);
  m_title->setObjectName(QStringLiteral("heading"));
  m_title->setAccessibleName(tr("Document"));
  row->addWidget(m_title);
  m_noCopy = new QLabel(tr("◆ no safety copy"), bar);
  m_noCopy->setObjectName(QStringLiteral("trouble"));
  m_noCopy->setAccessibleName(tr("No safety copy"));
  m_noCopy->hide();
  row->addWidget(m_noCopy);
  row->addStretch(1);
  const std::pair<QString, Place> places[] = {{tr("Size"), SizeCard},
                                              {tr("Build"), BuildCard},
                                              {tr("Dress"), DressCard},
                                              {tr("Cut"), CutCard},
                                              {tr("Make"), MakeCard}};
  for (const auto& [text, place] : places) {
    row->addWidget(placeButton(bar, text, place));
  }
  m_menu->insertSeparator(m_dark);
  row->addStretch(1);
  for (QAction* action : {m_undo, m_redo}) {
    auto* button = quiet(action->text(), action->text());
    connect(button, &QToolButton::clicked, action, &QAction::trigger);
    connect(action, &QAction::changed, button, [button, action] {
      button->setEnabled(action->isEnabled());
      button->setToolTip(action->toolTip());
    });
    row->addWidget(button);
  }
  return bar;
}

void MainWindow::go(Place place) {
  m_places->setCurrentIndex(place);
  for (int k = 0; k < m_placeButtons.size(); ++k)
    m_placeButtons[k]->setChecked(k == place);
}

void MainWindow::openNewPlace() {
  auto* place = new NewPlace(this);
  connect(place, &NewPlace::emptyChosen, this, [this] {
    m_document->start(emptyCard(m_document->committed().settings));
    go(SizeCard);
  });
  connect(place, &NewPlace::designChosen, this, [this](const Design& design) {
    m_document->start(design);
    go(BuildCard);
  });
  place->open();
}

void MainWindow::openShelf(const QString& seat, const QPoint& where) {
  auto* shelf = new Shelf(m_document->committedSnapshot(), seat, this);
  connect(shelf, &Shelf::chosen, this, &MainWindow::takeOver);
  connect(shelf, &Shelf::cardWanted, this, [this](const QString& kind, const QString& on) {
    const QString path =
        QFileDialog::getOpenFileName(this, tr("The card that goes on it"), QString(), kFilter);
    if (!path.isEmpty()) placeCard(kind, on, path);
  });
  shelf->adjustSize();
  const QRect area = geometry();
  shelf->move(std::clamp(where.x() - shelf->width() / 2, area.left() + 8,
                         std::max(area.left() + 8, area.right() - shelf->width() - 8)),
              std::clamp(where.y() + 18, area.top() + 8,
                         std::max(area.top() + 8, area.bottom() - shelf->height() - 8)));
  shelf->show();
}

void MainWindow::placeCard(const QString& kind, const QString& seat, const QString& path) {
  const Design& design = m_document->design();
  auto small = loadDesign(path.toStdString());
  if (!small) return showRefusal(said(small.error(), design.settings.unit));
  const auto added = addCardWithin(design, kind.toStdString(), seat.toStdString(), {},
                                   {std::make_shared<const Design>(std::move(small).value())});
  if (!added) return showRefusal(said(added.error(), design.settings.unit));
  takeOver(added->design, added->id);
}

void MainWindow::bringIn(const QString& path) {
  if (m_places->currentIndex() == DressCard) return void(m_dress->takeFile(path));
  go(BuildCard);
  const LengthUnit unit = m_document->committed().settings.unit;
  if (path.endsWith(QStringLiteral(".csv"), Qt::CaseInsensitive)) {
    const auto scores = sheet().hand().takeScores(path);
    if (!scores) showRefusal(said(scores.error(), unit));
    return;
  }
  for (const char* ending : {".png", ".jpg", ".jpeg"})
    if (path.endsWith(QLatin1String(ending), Qt::CaseInsensitive)) {
      const auto tracing = Tracing::fromFile(path);
      if (!tracing) return showRefusal(said(tracing.error(), unit));
      if (!sheet().hand().target()) m_build->cutNewSheet();
      return sheet().view().lay(*tracing);
    }
  auto drawing = drawingFromFile(path.toStdString());
  if (!drawing) return showRefusal(said(drawing.error(), unit));
  auto* dialog = new BringInDialog(m_document, std::move(drawing).value(),
                                   QFileInfo(path).fileName(), sheet().hand().target(), this);
  connect(dialog, &BringInDialog::refused, this, &MainWindow::showRefusal);
  connect(dialog, &BringInDialog::notice, this,
          [this](const QString& text) { showNotice(text, false); });
  dialog->open();
}

void MainWindow::takeOver(const Design& design, StructureId added) {
  const StructureItem* item = design.find(added);
  const StructureKind* kind = item ? findStructureKind(item->kind) : nullptr;
  if (!kind) return;
  if (auto done = m_document->apply(design, tr("add %1").arg(said(kind->name()))); !done)
    return showRefusal(said(done.error(), m_document->design().settings.unit));
  stage().setAdding(false);
  m_document->select(added);
}

void MainWindow::updateActions() {
  QUndoStack& stack = m_document->undoStack();
  m_undo->setEnabled(stack.canUndo());
  m_redo->setEnabled(stack.canRedo());
  m_undo->setToolTip(stack.canUndo() ? tr("Undo: %1").arg(stack.undoText())
                                     : tr("Nothing to undo"));
  m_redo->setToolTip(stack.canRedo() ? tr("Redo: %1").arg(stack.redoText())
                                     : tr("Nothing to redo"));
  const bool chosen = m_document->selection().has_value();
  m_remove->setEnabled(chosen);
  for (QAction* action : {m_swap, m_repeat, m_otherSide})
    action->setEnabled(chosen);
  m_save->setEnabled(m_document->isUnsaved() || m_document->path().isEmpty());
  m_title->setText(m_document->name() +
                   (m_document->isModified() ? QStringLiteral("  •") : QString()));
  m_title->setToolTip(m_document->path().isEmpty() ? tr("Not saved yet") : m_document->path());
  setWindowTitle(
      tr("%1%2 – Hinge Lantern")
          .arg(m_document->isModified() ? QStringLiteral("• ") : QString(), m_document->name()));
}

void MainWindow::editSelected(const QString& what,
                              const std::function<Result<Design>(StructureId)>& edit) {
  const auto id = m_document->selection();
  if (!id || !m_document->committed().find(*id)) return;
  const std::size_t before = m_document->committed().structures.size();
  auto next = edit(*id);
  Result<void> done;
  if (!next)
    done = next.error();
  else
    done = m_document->apply(*next, what.arg(QString::fromStdString(id->text())));
  if (!done) return showRefusal(said(done.error(), m_document->design().settings.unit));
  // The first of what was added is what one goes on working with.
  if (next->structures.size() > before) m_document->select(next->structures[before].id);
}

void MainWindow::showRefusal(const QString& why) {
  showNotice(why, true);
}

void MainWindow::showNotice(const QString& text, bool trouble) {
  m_notice->setStyleSheet(
      QStringLiteral("background: %1")
          .arg((trouble ? Theme::light().trouble : Theme::light().fine).name()));
  m_notice->setText(text);
  m_notice->adjustSize();
  m_notice->move(20, 62);
  m_notice->raise();
  m_notice->show();
  m_noticeTimer.start(trouble ? 7000 : 4000);
}

bool MainWindow::mayLeave() {
  if (!m_document->isUnsaved()) return true;
  const int answer = askUnsaved();
  if (answer == QMessageBox::Save) return save();
  return answer == QMessageBox::Discard;
}

bool MainWindow::openFile(const QString& path) {
  if (auto opened = m_document->open(path); !opened) {
    showRefusal(said(opened.error(), m_document->design().settings.unit));
    return false;
  }
  rememberRecent(m_document->path());
  go(BuildCard);
  return true;
}

bool MainWindow::save() {
  if (m_document->path().isEmpty()) return saveAs();
  if (m_document->onDisk() == Document::OnDisk::Changed) {
    switch (askChanged(m_document->path())) {
    case WhenChanged::Reload: return openFile(m_document->path());
    case WhenChanged::SaveAs: return saveAs();
    case WhenChanged::Cancel: return false;
    case WhenChanged::KeepMine: break;
    }
  }
  if (auto saved = m_document->saveTo(m_document->path()); !saved) {
    showRefusal(said(saved.error(), m_document->design().settings.unit));
    return false;
  }
  rememberRecent(m_document->path());
  return true;
}

bool MainWindow::saveAs() {
  const QString start = m_document->path().isEmpty() ? m_document->name() + QStringLiteral(".hinge")
                                                     : m_document->path();
  const QString path = QFileDialog::getSaveFileName(this, tr("Save the card"), start, kFilter);
  return !path.isEmpty() && saveUnder(path);
}

bool MainWindow::saveUnder(const QString& chosen) {
  QString path = chosen;
  if (!path.endsWith(QStringLiteral(".hinge"))) {
    // The dialog has asked about the name as typed, not about the one with the ending.
    path += QStringLiteral(".hinge");
    if (QFileInfo::exists(path) && !askReplace(path)) return false;
  }
  if (auto saved = m_document->saveTo(path); !saved) {
    showRefusal(said(saved.error(), m_document->design().settings.unit));
    return false;
  }
  rememberRecent(path);
  return true;
}

bool MainWindow::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() != QEvent::ShortcutOverride) return QMainWindow::eventFilter(watched, event);
  // A field that has the focus would take these keys for its own text; here they always mean the
  // design, whose sizes the fields only show.
  const auto* key = static_cast<QKeyEvent*>(event);
  const auto* field = qobject_cast<QLineEdit*>(watched);
  const bool ours = key->matches(QKeySequence::Undo) || key->matches(QKeySequence::Redo);
  if (!field || !ours || field->window() != this) return QMainWindow::eventFilter(watched, event);
  event->ignore();
  return true;
}

void MainWindow::rememberRecent(const QString& path) {
  QSettings settings;
  QStringList recent = settings.value(QStringLiteral("recent")).toStringList();
  recent.removeAll(path);
  recent.prepend(path);
  settings.setValue(QStringLiteral("recent"), recent.mid(0, kMostRecent));
}

void MainWindow::fillRecent() {
  m_recent->clear();
  for (const QString& path : QSettings().value(QStringLiteral("recent")).toStringList())
    connect(m_recent->addAction(path), &QAction::triggered, this, [this, path] {
      if (mayLeave()) openFile(path);
    });
  if (m_recent->isEmpty()) m_recent->addAction(tr("nothing yet"))->setEnabled(false);
}

void MainWindow::offerRecovery() {
  for (const SafetyCopy::Left& copy : SafetyCopy::leftBehind()) {
    const QString name = copy.originalPath.isEmpty() ? tr("an unsaved card")
                                                     : QFileInfo(copy.originalPath).fileName();
    const int answer = askRecover(name, copy.saved);
    if (answer == QMessageBox::Cancel) return;
    if (answer == QMessageBox::No) {
      SafetyCopy::discard(copy);
      continue;
    }
    const auto done = m_document->recover(copy);
    if (done) return;
    // One that cannot be read must not stand before the others at every start.
    showRefusal(tr("%1\nThe damaged copy is kept as %2.")
                    .arg(said(done.error(), m_document->design().settings.unit),
                         SafetyCopy::setAside(copy)));
  }
}

void MainWindow::setDark(bool dark) {
  Look::apply(*qApp, dark);
  m_dark->setChecked(dark);
  QSettings().setValue(QStringLiteral("dark"), dark);
  for (QWidget* widget : findChildren<QWidget*>())
    widget->update();
}

void MainWindow::closeEvent(QCloseEvent* event) {
  if (mayLeave())
    event->accept();
  else
    event->ignore();
}

} // namespace hinge
