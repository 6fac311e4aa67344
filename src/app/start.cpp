// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/start.h"
#include "app/accessible_items.h"
#include "app/at_bench.h"
#include "app/background.h"
#include "app/bring_in_dialog.h"
#include "app/fit_dialog.h"
#include "app/look.h"
#include "app/main_window.h"
#include "app/new_place.h"
#include "app/rehearsal_window.h"
#include "app/round_dialog.h"
#include "app/shelf.h"
#include "app/splice_dialog.h"
#include "core/units/length.h"
#include "render/picture.h"
#include "words/language.h"
#include "words/words.h"
#include <QApplication>
#include <QCommandLineParser>
#include <QElapsedTimer>
#include <QKeyEvent>
#include <QSettings>
#include <QThreadPool>
#include <cstdio>
#include <cstdlib>
#include <functional>

namespace hinge {
namespace {

struct MainTexts {
  Q_DECLARE_TR_FUNCTIONS(hinge::MainTexts)
};

/// The hand in the middle of a stroke on the sheet; a joint lies over the middle of the stage.
void holdHand(MainWindow& window, const QCommandLineParser& options) {
  SheetPanel& sheet = window.sheet();
  QToolButton* word = sheet.bar().word(options.value(QStringLiteral("hand")));
  if (!word) return;
  word->click();
  const QStringList numbers = options.value(QStringLiteral("stroke")).split(QLatin1Char(','));
  if (numbers.size() < 4) return;
  const auto at = [&](int k) { return numbers.value(k).toDouble(); };
  if (sheet.view().picking()) {
    emit sheet.view().panelPicked({at(0), at(1)});
    return sheet.joints().pointed({at(2), at(3)}); // pixels of the stage
  }
  sheet.hand().point({at(0), at(1)}, {});
  sheet.hand().press({at(0), at(1)});
  sheet.hand().point({at(2), at(3)}, {});
}

void waitWhile(const std::function<bool()>& busy) {
  constexpr int kLongest_ms = 60000;
  QElapsedTimer timer;
  timer.start();
  while (busy() && timer.elapsed() < kLongest_ms)
    QCoreApplication::processEvents(QEventLoop::AllEvents, 50);
}

/// What is asked for at the cutting table; the dialog, if one is.
QWidget* showCutting(MainWindow& window, const QCommandLineParser& options) {
  CutPlace& place = window.cutPlace();
  if (options.isSet(QStringLiteral("machine")))
    place.findChild<QPushButton*>(QStringLiteral("by-machine"))->click();
  waitWhile([&place] { return place.planner().busy(); });
  if (options.isSet(QStringLiteral("press"))) {
    const QString name = options.value(QStringLiteral("press"));
    if (auto* button = place.findChild<QPushButton*>(name)) button->click();
    auto* dialog = window.findChild<WorkDialog*>();
    if (auto* parting = qobject_cast<SpliceDialog*>(dialog))
      waitWhile([parting] { return parting->busy(); });
    return dialog;
  }
  if (!options.isSet(QStringLiteral("round"))) return nullptr;
  place.findChild<QPushButton*>(QStringLiteral("round-sizes"))->click();
  auto* dialog = window.findChild<RoundDialog*>();
  dialog->findChild<QComboBox*>()->setCurrentText(options.value(QStringLiteral("round")));
  waitWhile([dialog] { return dialog->busy(); });
  return dialog;
}

/// The rehearsal, its first question answered when a number is given; null when it is not asked
/// for.
QWidget* showRehearsal(MainWindow& window, const QCommandLineParser& options) {
  if (!options.isSet(QStringLiteral("rehearse"))) return nullptr;
  waitWhile([&window] { return window.makePlace().busy(); });
  window.makePlace().openRehearsal();
  auto* rehearsal = window.findChild<RehearsalWindow*>();
  if (!rehearsal) return nullptr;
  for (const QChar key : options.value(QStringLiteral("rehearse"))) {
    QKeyEvent press(QEvent::KeyPress, key.unicode(), {}, QString(key));
    QCoreApplication::sendEvent(rehearsal, &press);
    waitWhile([rehearsal] { return rehearsal->busy() || rehearsal->view().playing(); });
  }
  waitWhile([rehearsal] { return rehearsal->busy(); });
  return rehearsal;
}

/// The work at the bench, so many numbers and steps on; null when it is not asked for.
QWidget* showBench(MainWindow& window, const QCommandLineParser& options) {
  if (!options.isSet(QStringLiteral("bench"))) return nullptr;
  waitWhile([&window] { return window.makePlace().busy(); });
  window.makePlace().openBench();
  auto* bench = window.findChild<AtBench*>();
  if (!bench) return nullptr;
  bench->resize(window.size());
  for (int k = options.value(QStringLiteral("bench")).toInt(); k > 0; --k)
    bench->goOn();
  waitWhile([bench] { return bench->view().busy(); });
  return bench;
}

/// Lets the window work the design out, mends included, then saves a picture of it.
int takeShot(MainWindow& window, const QString& file, const QCommandLineParser& options) {
  const auto settle = [&] {
    waitWhile([&] { return window.analyst().busy() || window.analyst().searchingMends(); });
    for (int k = 0; k < 5; ++k)
      QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
  };
  settle();
  if (options.isSet(QStringLiteral("finding")))
    window.stage().showFinding(options.value(QStringLiteral("finding")).toInt() - 1);
  if (options.isSet(QStringLiteral("step"))) {
    waitWhile([&window] { return window.makePlace().busy(); });
    window.makePlace().steps().setCurrentRow(options.value(QStringLiteral("step")).toInt() - 1);
    waitWhile([&window] { return window.makePlace().busy(); });
  }
  if (options.isSet(QStringLiteral("lifted"))) window.stage().liftAll();
  if (options.isSet(QStringLiteral("adding"))) window.stage().setAdding(true);
  QWidget* target = &window;
  if (options.isSet(QStringLiteral("new"))) {
    window.openNewPlace();
    target = window.findChild<NewPlace*>();
  }
  if (options.isSet(QStringLiteral("trace")))
    window.bringIn(options.value(QStringLiteral("trace")));
  if (options.isSet(QStringLiteral("bring"))) {
    window.bringIn(options.value(QStringLiteral("bring")));
    if (auto* dialog = window.findChild<BringInDialog*>()) target = dialog;
  }
  if (options.isSet(QStringLiteral("hand"))) holdHand(window, options);
  if (options.isSet(QStringLiteral("fit"))) {
    if (window.document().selection())
      window.sizes().work().fitButton().click();
    else
      window.sizePlace().findChild<QPushButton*>(QStringLiteral("fit-sheet"))->click();
    target = window.findChild<FitDialog*>();
    target->findChild<QLineEdit*>()->setText(options.value(QStringLiteral("fit")));
  }
  if (QWidget* dialog = showCutting(window, options)) target = dialog;
  if (QWidget* rehearsal = showRehearsal(window, options)) target = rehearsal;
  if (QWidget* bench = showBench(window, options)) target = bench;
  if (options.isSet(QStringLiteral("shelf"))) {
    window.openShelf(options.value(QStringLiteral("shelf")), window.mapToGlobal(QPoint(400, 300)));
    target = QApplication::activePopupWidget();
    waitWhile([target] {
      return qobject_cast<Shelf*>(target) && !static_cast<Shelf*>(target)->isReady();
    });
  }
  settle();
  const auto written = target ? writePicture(target->grab().toImage(), file.toStdString())
                              : Result<void>(Error{"file.unwritable/picture", file.toStdString()});
  if (written) return 0;
  std::fprintf(stderr, "hinge-lantern: %s\n", say(written.error()).c_str());
  return 2;
}

void addOptions(QCommandLineParser& parser) {
  parser.addOptions(
      {{QStringLiteral("shot"), MainTexts::tr("Save a picture of the window to FILE and end."),
        MainTexts::tr("FILE")},
       {QStringLiteral("place"), MainTexts::tr("Start at size, build, dress, cut or make."),
        MainTexts::tr("PLACE")},
       {QStringLiteral("face"), MainTexts::tr("With --place dress: the face that is chosen."),
        MainTexts::tr("FACE")},
       {QStringLiteral("topper"),
        MainTexts::tr("With --place dress: the topper that is chosen, among the shapes."),
        MainTexts::tr("NAME")},
       {QStringLiteral("hidden"),
        MainTexts::tr("With --place dress: hidden faces are struck through.")},
       {QStringLiteral("open"), MainTexts::tr("Opening in degrees."), MainTexts::tr("DEG")},
       {QStringLiteral("round"), MainTexts::tr("Show what rounding to STEP would change."),
        MainTexts::tr("STEP")},
       {QStringLiteral("press"),
        MainTexts::tr("With --place cut: a button that is pressed: bench, send or primary."),
        MainTexts::tr("NAME")},
       {QStringLiteral("step"), MainTexts::tr("With --place make: the step that is chosen."),
        MainTexts::tr("N")},
       {QStringLiteral("rehearse"),
        MainTexts::tr("With --shot and --place make: the rehearsal, after these keys."),
        MainTexts::tr("KEYS")},
       {QStringLiteral("bench"),
        MainTexts::tr("With --shot and --place make: at the bench, after N acts."),
        MainTexts::tr("N")},
       {QStringLiteral("machine"), MainTexts::tr("Lay the sheets out for a machine.")},
       {QStringLiteral("select"), MainTexts::tr("Select a structure."), MainTexts::tr("ID")},
       {QStringLiteral("finding"), MainTexts::tr("Show finding number N."), MainTexts::tr("N")},
       {QStringLiteral("adding"), MainTexts::tr("Show the folds on which a structure can be put.")},
       {QStringLiteral("lifted"),
        MainTexts::tr("With --shot: what a hand moves has been moved on.")},
       {QStringLiteral("new"), MainTexts::tr("With --shot: the place where a new card begins.")},
       {QStringLiteral("shelf"),
        MainTexts::tr("With --shot: the shelf for a seat instead of the window."),
        MainTexts::tr("SEAT")},
       {QStringLiteral("fit"),
        MainTexts::tr("With --shot: fitting the sheet, or the selected free piece, to a length."),
        MainTexts::tr("LENGTH")},
       {QStringLiteral("hand"),
        MainTexts::tr("With --shot: what the hand does on the sheet: hold, score, cut, opening, "
                      "reverse, tab, corner, fold, join."),
        MainTexts::tr("WORD")},
       {QStringLiteral("trace"), MainTexts::tr("With --shot: a picture under the sheet."),
        MainTexts::tr("FILE")},
       {QStringLiteral("bring"), MainTexts::tr("With --shot: a drawing that is brought in."),
        MainTexts::tr("FILE")},
       {QStringLiteral("stroke"),
        MainTexts::tr("With --hand: from where to where it moves, in mm on the sheet."),
        MainTexts::tr("X,Y,X,Y")},
       {QStringLiteral("dark"), MainTexts::tr("Dark bench.")},
       {QStringLiteral("light"), MainTexts::tr("Light bench.")}});
}

void goToPlace(MainWindow& window, const QCommandLineParser& parser) {
  const QString place = parser.value(QStringLiteral("place"));
  if (place == QStringLiteral("size")) window.go(MainWindow::SizeCard);
  if (place == QStringLiteral("dress")) {
    window.go(MainWindow::DressCard);
    window.dressPlace().hand().choose(parser.value(QStringLiteral("face")).toStdString());
    if (parser.isSet(QStringLiteral("topper"))) {
      window.dressPlace().drawer().showShapes(true);
      window.dressPlace().hand().chooseTopper(
          parser.value(QStringLiteral("topper")).mid(1).toInt());
    }
    window.dressPlace().hand().showHidden(parser.isSet(QStringLiteral("hidden")));
  }
  if (place == QStringLiteral("cut")) window.go(MainWindow::CutCard);
  if (place == QStringLiteral("make")) window.go(MainWindow::MakeCard);
}

int runWindow(const QCommandLineParser& parser, bool shot) {
  MainWindow window;
  const QStringList files = parser.positionalArguments();
  if (!files.isEmpty() && !window.openFile(files.first()) && shot) {
    std::fprintf(stderr, "hinge-lantern: %s\n", qPrintable(window.noticeText()));
    return 2;
  }
  if (parser.isSet(QStringLiteral("open")))
    window.stage().fan().setOpening_rad(radians(parser.value(QStringLiteral("open")).toDouble()));
  if (parser.isSet(QStringLiteral("select")))
    window.document().select(
        structureIdFromText(parser.value(QStringLiteral("select")).toStdString()));
  goToPlace(window, parser);
  window.show();
  if (shot) return takeShot(window, parser.value(QStringLiteral("shot")), parser);
  window.offerRecovery();
  // Nobody begins with an empty card: unless there is one, the choice of a beginning comes first.
  if (files.isEmpty() && !window.document().isModified()) window.openNewPlace();
  return QApplication::exec();
}

} // namespace

int startWindow(int argc, char** argv) {
  QApplication application(argc, argv);
  QApplication::setOrganizationName(QStringLiteral("hinge-lantern"));
  QApplication::setApplicationName(QStringLiteral("hinge-lantern"));
  speakUsersLanguage();
  QCommandLineParser parser;
  parser.setApplicationDescription(MainTexts::tr("Pop-up card engineering: build, try, cut."));
  parser.addHelpOption();
  parser.addPositionalArgument(QStringLiteral("file"), MainTexts::tr("card to open (.hinge)"));
  addOptions(parser);
  parser.process(application);
  const bool shot = parser.isSet(QStringLiteral("shot"));
  const bool dark =
      parser.isSet(QStringLiteral("dark")) || (!parser.isSet(QStringLiteral("light")) && !shot &&
                                               QSettings().value(QStringLiteral("dark")).toBool());
  Look::apply(application, dark);
  installCanvasAccessibility();
  const int code = runWindow(parser, shot);
  // The window is gone, and nobody wants what is still being worked out: it was asked to stop, and
  // a check in the middle of a large card may need half a minute to hear of it.
  constexpr int kPatience_ms = 1500;
  backgroundPool().clear();
  if (backgroundPool().waitForDone(kPatience_ms)) return code;
  QSettings().sync();
  std::fflush(nullptr);
  std::_Exit(code);
}

} // namespace hinge
