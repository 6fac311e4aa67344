// SPDX-License-Identifier: GPL-3.0-or-later
#include "patience.h"
#include "pseudo_language.h"
#include <QTest>
#ifndef Q_MOC_RUN
#include "app/accessible_items.h"
#include "app/at_bench.h"
#include "app/booklet_dialog.h"
#include "app/fit_dialog.h"
#include "app/live_picture.h"
#include "app/look.h"
#include "app/main_window.h"
#include "app/new_place.h"
#include "app/rehearsal_window.h"
#include "app/shelf.h"
#include "cli/commands.h"
#include "core/io/design_json.h"
#include <QAbstractItemView>
#include <QComboBox>
#include <QGroupBox>
#include <QHeaderView>
#include <QMessageBox>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTemporaryFile>
#include <cstdio>
#include <iostream>
#include <unistd.h>
#endif

using namespace hinge;
using namespace hinge::test;

// Window and command line in a language that nobody speaks: nothing that a user reads stays in
// plain letters but names, keys, units and what belongs to a file.

namespace {

/// Keys, and what is typed, are the same in every language.
const char* const kTyped =
    "closing drying shut marks moving layers wet-glue strong-tape glue-stick pads solvent-glue "
    "copies card-by-card plan h min cm wet strong tape stick solvent bench layout txt csv trimmer "
    "machine cards board grid way "
    "thickest offcut sides whole "
    "folding first left right bottom both stock margin gap apply text scores-table from-stock "
    "cut-first score-first cli deg switch count spoils advice good spoiled valley ridge "
    "face span held gives glue slot pivot slide band film true false null page edge none "
    "help json out width height unit fold base set force hold give steps wrap mends "
    "finding all step open columns size key value svg pdf obj png display rests SECONDS "
    "file kind values places length files top side tmp such directory File single new "
    "add remove scores rules solve fit order check mend sweep export gallery seats structures "
    "describe read sheet target words small import dxf piece opening list source lines "
    "number part join line other edge-of-other papers faces dress topper thickness mats "
    "shape put take keep forget mine picture wide paper border borders turn round seen "
    "displayed more bare drop at shapes from for twins alike under over around FACE "
    "splice cut hpgl prints backs letter sheets tables only level overlap on squares "
    "measured resume again scale offset speed PAPER blade overcut x y s cm "
    "hinge-lantern-cutter cutter HPGL booklet stapled html half-letter half progress";

} // namespace

class TestLanguage : public QObject {
  Q_OBJECT
  PseudoLanguage m_language;
  QTemporaryDir m_folder;
  std::unique_ptr<MainWindow> m_window;
  int m_seen = 0;
  QSet<QString> m_allowed{QStringLiteral("Hinge"), QStringLiteral("Lantern"),
                          QStringLiteral("hinge"), QStringLiteral("lantern")};

  QString demo(const char* name) const {
    return QStringLiteral(HINGE_SOURCE_DIR "/demo/") + QLatin1String(name) +
           QStringLiteral(".hinge");
  }
  void allow(const QString& text) {
    static const QRegularExpression word(QStringLiteral("[A-Za-z]+"));
    for (auto it = word.globalMatch(text); it.hasNext();)
      m_allowed.insert(it.next().captured());
  }
  /// Names and keys of a card are its maker's.
  void allowNamesOf(const QString& file) {
    const auto d = loadDesign(file.toStdString());
    QVERIFY(d.ok());
    allow(file), allow(QString::fromStdString(d->title));
    // What is said of joints is the grammar of files, which stays as it is.
    allow(QStringLiteral("only deep into spun to least most pushed long"));
    for (const StructureItem& item : d->structures) {
      for (const std::string& own : {item.label, item.seat, item.kind})
        allow(QString::fromStdString(own));
      for (const auto& [key, value] : item.values)
        allow(QString::fromStdString(key));
    }
    const Snapshot snapshot(*d);
    const auto assembly = snapshot.assembly();
    for (const Panel& panel : (*assembly)->panels)
      allow(QString::fromStdString(panel.key));
    for (const Seat& seat : (*assembly)->seats)
      allow(QString::fromStdString(seat.key));
    for (const Fold& fold : (*assembly)->folds)
      allow(QString::fromStdString(fold.key));
  }
  static QStringList textsOf(const QAbstractItemModel& model, const QModelIndex& under = {}) {
    QStringList all;
    for (int column = 0; column < model.columnCount(under); ++column) {
      all << model.headerData(column, Qt::Horizontal).toString();
      for (int row = 0; row < model.rowCount(under); ++row) {
        const QModelIndex at = model.index(row, column, under);
        for (int role : {int(Qt::DisplayRole), int(Qt::ToolTipRole), int(Qt::AccessibleTextRole)})
          all << model.data(at, role).toString();
        if (column == 0) all << textsOf(model, at);
      }
    }
    return all;
  }
  static QStringList textsOf(const QWidget& w) {
    QStringList all{w.windowTitle(), w.toolTip(),        w.statusTip(),
                    w.whatsThis(),   w.accessibleName(), w.accessibleDescription()};
    if (const auto* label = qobject_cast<const QLabel*>(&w)) all << label->text();
    if (const auto* button = qobject_cast<const QAbstractButton*>(&w)) all << button->text();
    if (const auto* edit = qobject_cast<const QLineEdit*>(&w))
      all << edit->text() << edit->placeholderText();
    if (const auto* group = qobject_cast<const QGroupBox*>(&w)) all << group->title();
    if (const auto* box = qobject_cast<const QComboBox*>(&w)) all << textsOf(*box->model());
    if (const auto* view = qobject_cast<const QAbstractItemView*>(&w))
      if (view->model()) all << textsOf(*view->model());
    for (const QAction* action : w.actions())
      all << action->text() << action->toolTip();
    if (auto* canvas = dynamic_cast<const AccessibleCanvas*>(&w))
      for (const AccessibleItem& item : canvas->accessibleItems())
        all << item.name;
    return all;
  }
  /// What stands in plain letters in a widget and all within it. Counts the texts it has seen.
  QStringList escaped(QWidget& root) {
    QStringList found;
    QList<QWidget*> all = root.findChildren<QWidget*>();
    all << &root;
    for (const QWidget* w : all)
      for (const QString& text : textsOf(*w)) {
        m_seen += text.isEmpty() ? 0 : 1;
        if (const QStringList plain = plainWords(text, m_allowed); !plain.isEmpty())
          found << QLatin1String(w->metaObject()->className()) + QStringLiteral(": ") + text;
      }
    found.removeDuplicates();
    return found;
  }
  void settle() {
    QTRY_VERIFY_WITH_TIMEOUT(!m_window->analyst().busy() && !m_window->analyst().searchingMends(),
                             kPatience_ms);
    QCoreApplication::processEvents();
  }
  void open(const char* card) {
    allowNamesOf(demo(card));
    QVERIFY(m_window->openFile(demo(card)));
    settle();
  }
  /// Runs a verb of the command line in this process; stdout and stderr as one text.
  QString ran(const QStringList& arguments) const {
    std::vector<std::string> texts{"hinge-lantern-cli"};
    for (const QString& a : arguments)
      texts.push_back(a.toStdString());
    std::vector<char*> argv;
    for (std::string& text : texts)
      argv.push_back(text.data());
    QTemporaryFile file;
    if (!file.open()) return {};
    std::fflush(stdout), std::fflush(stderr);
    const int out = ::dup(STDOUT_FILENO), err = ::dup(STDERR_FILENO);
    ::dup2(file.handle(), STDOUT_FILENO), ::dup2(file.handle(), STDERR_FILENO);
    runCommandLine(static_cast<int>(argv.size()), argv.data());
    std::cout.flush(), std::cerr.flush();
    std::fflush(stdout), std::fflush(stderr);
    ::dup2(out, STDOUT_FILENO), ::dup2(err, STDERR_FILENO);
    ::close(out), ::close(err);
    QFile read(file.fileName());
    return read.open(QIODevice::ReadOnly) ? QString::fromUtf8(read.readAll()) : QString();
  }

private slots:
  void initTestCase() {
    QStandardPaths::setTestModeEnabled(true);
    QCoreApplication::setOrganizationName(QStringLiteral("hinge-lantern-test"));
    QCoreApplication::setApplicationName(QStringLiteral("hinge-lantern-language"));
    QDir(SafetyCopy::folder()).removeRecursively();
    QCoreApplication::installTranslator(&m_language);
    Look::apply(*qApp, false);
    installCanvasAccessibility();
    for (const char* shipped : {"night-market", "waving-boatmen", "night-market-mistakes"})
      allowNamesOf(demo(shipped));
  }
  void init() {
    m_window = std::make_unique<MainWindow>();
    m_window->askUnsaved = [] { return static_cast<int>(QMessageBox::Discard); };
    m_window->show();
    QVERIFY(QTest::qWaitForWindowExposed(m_window.get()));
  }
  void cleanup() { m_window.reset(); }

  void theWindowSpeaksTheLanguage_data() {
    QTest::addColumn<QString>("card");
    for (const char* name :
         {"night-market", "night-market-mistakes", "waving-boatmen", "oil-sleeve", "tower"})
      QTest::newRow(name) << QString::fromLatin1(name);
  }
  void theWindowSpeaksTheLanguage() {
    QFETCH(QString, card);
    open(card.toLatin1().constData());
    for (const auto place : {MainWindow::SizeCard, MainWindow::BuildCard, MainWindow::DressCard,
                             MainWindow::CutCard}) {
      m_window->go(place);
      QCoreApplication::processEvents();
      const QStringList plain = escaped(*m_window);
      QVERIFY2(plain.isEmpty(), qPrintable(plain.join(QLatin1Char('\n'))));
    }
    QVERIFY(m_seen > 200);
    // Every structure's sizes.
    m_window->go(MainWindow::BuildCard);
    for (const StructureItem& item : m_window->document().design().structures) {
      m_window->document().select(item.id);
      QCoreApplication::processEvents();
      const QStringList plain = escaped(*m_window);
      QVERIFY2(plain.isEmpty(), qPrintable(plain.join(QLatin1Char('\n'))));
    }
  }
  /// Every step of the work, the bench, the rehearsal and the booklet's dialog.
  void makingSpeaksIt() {
    QStandardPaths::setTestModeEnabled(false);
    qputenv("XDG_DATA_HOME", m_folder.path().toUtf8());
    const QString card = m_folder.filePath(QStringLiteral("boatmen.hinge"));
    QVERIFY(QFile::copy(QStringLiteral(HINGE_SOURCE_DIR "/demo/waving-boatmen.hinge"), card));
    QVERIFY(m_window->openFile(card));
    for (const QString& part : card.split(QRegularExpression(QStringLiteral("[^A-Za-z]"))))
      m_allowed << part;
    m_window->go(MainWindow::MakeCard);
    MakePlace& make = m_window->makePlace();
    QTRY_VERIFY_WITH_TIMEOUT(!make.busy() && make.plan(), kPatience_ms);
    for (int row = 0; row < make.steps().count(); ++row) {
      make.steps().setCurrentRow(row);
      const QStringList plain = escaped(*m_window);
      QVERIFY2(plain.isEmpty(), qPrintable(plain.join(QLatin1Char('\n'))));
    }
    make.openBench();
    QTRY_VERIFY_WITH_TIMEOUT(m_window->findChild<AtBench*>(), kPatience_ms);
    make.openRehearsal();
    make.findChild<QPushButton*>(QStringLiteral("booklet"))->click();
    auto* bench = m_window->findChild<AtBench*>();
    auto* rehearsal = m_window->findChild<RehearsalWindow*>();
    auto* booklet = m_window->findChild<BookletDialog*>();
    QVERIFY(bench && rehearsal && booklet);
    for (int acts = 0; acts < 40; ++acts) {
      const QStringList plain = escaped(*bench);
      QVERIFY2(plain.isEmpty(), qPrintable(plain.join(QLatin1Char('\n'))));
      bench->goOn();
    }
    QTest::keyClick(rehearsal, Qt::Key_2);
    QTRY_VERIFY_WITH_TIMEOUT(!rehearsal->busy(), kPatience_ms);
    for (QWidget* one : {static_cast<QWidget*>(rehearsal), static_cast<QWidget*>(booklet)}) {
      const QStringList plain = escaped(*one);
      QVERIFY2(plain.isEmpty(), qPrintable(plain.join(QLatin1Char('\n'))));
      one->close();
    }
    bench->close();
    QStandardPaths::setTestModeEnabled(true);
  }
  void dialogsSpeakIt() {
    open("waving-boatmen");
    for (const StructureItem& item : m_window->document().design().structures)
      if (item.work) {
        m_window->document().select(item.id);
        break;
      }
    WorkPanel& work = m_window->sizes().work();
    for (QAbstractButton* button : {static_cast<QAbstractButton*>(&work.fitButton())}) {
      button->click();
      QCoreApplication::processEvents();
      const auto dialogs = m_window->findChildren<QDialog*>();
      QVERIFY(!dialogs.isEmpty());
      const QStringList plain = escaped(*dialogs.last());
      QVERIFY2(plain.isEmpty(), qPrintable(plain.join(QLatin1Char('\n'))));
      dialogs.last()->close();
    }
  }
  void refusalsSpeakIt() {
    open("night-market");
    m_window->document().select(m_window->document().design().structures.front().id);
    QCoreApplication::processEvents();
    for (const char* typed : {"99999", "no length"}) {
      QLineEdit* field = m_window->sizes().field(QStringLiteral("position"));
      QVERIFY(field);
      field->setText(QString::fromLatin1(typed));
      field->setModified(true);
      emit field->editingFinished();
      allow(QString::fromLatin1(typed));
      QVERIFY(!m_window->noticeText().isEmpty());
      QCOMPARE(plainWords(m_window->noticeText(), m_allowed), QStringList());
    }
  }
  void aShelfSpeaksIt() {
    open("night-market");
    m_window->openShelf(QStringLiteral("gutter"), m_window->mapToGlobal(QPoint(300, 300)));
    QWidget* shelf = QApplication::activePopupWidget();
    QVERIFY(shelf);
    const QStringList plain = escaped(*shelf);
    shelf->close();
    QVERIFY2(plain.isEmpty(), qPrintable(plain.join(QLatin1Char('\n'))));
  }
  void theBeginningSpeaksIt() {
    m_window->openNewPlace();
    auto* place = m_window->findChild<NewPlace*>();
    QVERIFY(place);
    QTRY_VERIFY_WITH_TIMEOUT(place->findChild<LivePicture*>(), kPatience_ms);
    // Titles of the starting designs are their makers'.
    for (const QFileInfo& file :
         QDir(QStringLiteral(HINGE_SOURCE_DIR "/demo")).entryInfoList({QStringLiteral("*.hinge")}))
      allowNamesOf(file.filePath());
    const QStringList plain = escaped(*place);
    QVERIFY2(plain.isEmpty(), qPrintable(plain.join(QLatin1Char('\n'))));
  }
  void theCommandLineSpeaksIt_data() {
    QTest::addColumn<QStringList>("arguments");
    const QString market = demo("night-market"), wrong = demo("night-market-mistakes"),
                  boats = demo("waving-boatmen");
    QTest::newRow("structures") << QStringList{"structures"};
    QTest::newRow("structures as JSON") << QStringList{"structures", "--json"};
    QTest::newRow("seats") << QStringList{"seats", market};
    QTest::newRow("seats as JSON") << QStringList{"seats", market, "--json"};
    QTest::newRow("check") << QStringList{"check", wrong, "--mends", "1"};
    QTest::newRow("check as JSON") << QStringList{"check", wrong, "--json", "--mends", "1"};
    QTest::newRow("order") << QStringList{"order", boats};
    QTest::newRow("order as JSON") << QStringList{"order", boats, "--json"};
    QTest::newRow("lengths of the card") << QStringList{"fit", market, "card"};
    QTest::newRow("lengths of a piece") << QStringList{"fit", boats, "s1"};
    QTest::newRow("scores") << QStringList{"scores", demo("canal-frames"), "s1"};
    QTest::newRow("solve") << QStringList{"solve", boats, "s1", "-o", m_folder.filePath("s.hinge")};
    QTest::newRow("sweep") << QStringList{"sweep", market, "--step", "60"};
    QTest::newRow("help") << QStringList{"--help"};
    for (const char* verb :
         {"new",        "add",   "set",      "remove",    "scores",       "solve",   "fit",
          "order",      "check", "mend",     "sweep",     "export",       "gallery", "seats",
          "structures", "sheet", "describe", "read",      "small",        "import",  "papers",
          "faces",      "dress", "topper",   "thickness", "mats",         "plan",    "splice",
          "cut",        "bench", "layout",   "round",     "scores-table", "rules"})
      QTest::addRow("help of %s", verb) << QStringList{QString::fromLatin1(verb), "--help"};
    QTest::newRow("plan") << QStringList{"plan", boats, "--copies", "5"};
    QTest::newRow("plan with tape")
        << QStringList{"plan", demo("ferry-pass"), "--glue", "solvent-glue"};
    QTest::newRow("splice") << QStringList{"splice", demo("long-quay")};
    QTest::newRow("cut") << QStringList{"cut", market};
    QTest::newRow("bench") << QStringList{"bench"};
    QTest::newRow("no machine") << QStringList{"cut", market, "--to", "/nowhere"};
    QTest::newRow("no such file") << QStringList{"check", "/nowhere"};
    QTest::newRow("no such structure") << QStringList{"set", market, "s99", "a=3"};
    QTest::newRow("no such key") << QStringList{"set", market, "s1", "zz=3"};
    QTest::newRow("out of range") << QStringList{"set", market, "s1", "position=99999"};
    QTest::newRow("no such seat") << QStringList{"add", market, "box", "--on", "zz"};
    QTest::newRow("not on a face") << QStringList{"add", market, "box", "--on", "s2/wall-a"};
    QTest::newRow("no such finding")
        << QStringList{"mend", market, "--finding", "77", "-o", m_folder.filePath("m.hinge")};
    QTest::newRow("a card that is there")
        << QStringList{"new", market, "--width", "100", "--height", "100"};
  }
  void theCommandLineSpeaksIt() {
    QFETCH(QStringList, arguments);
    QSet<QString> allowed = m_allowed;
    for (const QString& key : QString::fromLatin1(kTyped).split(QLatin1Char(' ')))
      allowed.insert(key);
    for (const QString& argument : arguments)
      for (const QString& part : argument.split(QRegularExpression(QStringLiteral("[^A-Za-z]"))))
        allowed.insert(part);
    const QString said = ran(arguments);
    QVERIFY(!said.isEmpty());
    QStringList plain;
    static const QRegularExpression key(QStringLiteral("\"[\\w-]+\": ")),
        table(QStringLiteral("^(    )?[a-z0-9-]+ "), QRegularExpression::MultilineOption);
    QString text = said;
    text.remove(key).remove(table);
    // In JSON the codes stay; what is for people stands under these members.
    if (arguments.contains(QStringLiteral("--json"))) {
      static const QRegularExpression forPeople(
          QStringLiteral("\"(?:label|summary|meaning|message|text)\": \"((?:[^\"\\\\]|\\\\.)*)\""));
      text.clear();
      for (auto it = forPeople.globalMatch(said); it.hasNext();)
        text += it.next().captured(1) + QLatin1Char('\n');
    }
    plain = plainWords(text, allowed);
    QVERIFY2(plain.isEmpty(), qPrintable(plain.join(QStringLiteral(", ")) +
                                         QStringLiteral(" in:\n") + said.left(3000)));
  }
};

QTEST_MAIN(TestLanguage)
#include "test_language.moc"
