// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/document.h"
#include "core/io/design_json.h"
#include <QDir>
#include <QElapsedTimer>
#include <QSignalSpy>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTest>
#include <sys/stat.h>
#include <utility>

using namespace hinge;

// The document by itself: what is kept of unsaved work, where, and for how long it is not.

namespace {

QStringList filesIn(const QString& folder, const QString& pattern) {
  return QDir(folder).entryList({pattern}, QDir::Files);
}
QStringList copies() {
  return filesIn(SafetyCopy::folder(), QStringLiteral("*.hinge"));
}

Design card(double width_mm) {
  Design d;
  d.card.width_mm = width_mm;
  return d;
}

/// What a program leaves that ends in the middle of its work: everything but its lock.
QString leaveBehind(const Design& design, const QString& original, const QString& name) {
  QDir().mkpath(SafetyCopy::folder());
  const QString file = SafetyCopy::folder() + QLatin1Char('/') + name + QStringLiteral(".hinge");
  if (!saveDesign(design, file.toStdString())) qFatal("cannot write %s", qPrintable(file));
  QFile path(SafetyCopy::folder() + QLatin1Char('/') + name + QStringLiteral(".path"));
  if (!path.open(QIODevice::WriteOnly)) qFatal("cannot write the path");
  path.write(original.toUtf8());
  return file;
}

} // namespace

class TestDocument : public QObject {
  Q_OBJECT
private slots:
  void initTestCase() {
    QStandardPaths::setTestModeEnabled(true);
    QCoreApplication::setApplicationName(QStringLiteral("hinge-lantern-document-test"));
  }
  void init() { QDir(SafetyCopy::folder()).removeRecursively(); }
  void cleanup() { QDir(SafetyCopy::folder()).removeRecursively(); }

  void theFirstEditIsKept() {
    Document document;
    document.start(card(130));
    QVERIFY(copies().isEmpty());
    QVERIFY(document.apply(card(140), QStringLiteral("wider")).ok());
    QTRY_COMPARE_WITH_TIMEOUT(copies().size(), qsizetype(1), Document::kCopyWhenQuiet_ms + 6000);
    const auto kept =
        loadDesign((SafetyCopy::folder() + QLatin1Char('/') + copies().front()).toStdString());
    QVERIFY(kept.ok());
    QCOMPARE(kept->card.width_mm, 140.0);
  }
  void steadyEditingIsKeptToo() {
    Document document;
    document.start(card(130));
    QElapsedTimer timer;
    timer.start();
    double width = 130;
    // Faster than the pause that is waited for, so that it never comes.
    while (copies().isEmpty() && timer.elapsed() < 3 * Document::kLongestWithoutCopy_ms) {
      QVERIFY(document.apply(card(width += 0.5), QStringLiteral("wider")).ok());
      QTest::qWait(Document::kCopyWhenQuiet_ms / 5);
    }
    QVERIFY(!copies().isEmpty());
    QVERIFY2(timer.elapsed() < Document::kLongestWithoutCopy_ms + 4000,
             qPrintable(QString::number(timer.elapsed())));
  }
  void undoingToWhatIsSavedLeavesNoCopy() {
    Document document;
    document.start(card(130));
    QVERIFY(document.apply(card(140), QStringLiteral("wider")).ok());
    document.copyNow();
    QCOMPARE(copies().size(), qsizetype(1));
    document.undoStack().undo();
    QVERIFY(copies().isEmpty());
    QVERIFY(filesIn(SafetyCopy::folder(), QStringLiteral("*")).isEmpty());
    document.undoStack().redo();
    document.copyNow();
    QCOMPARE(copies().size(), qsizetype(1));
  }
  void anEditMadeOnHearingOfAnotherIsUndoneInItsTurn() {
    Document document;
    document.start(card(130));
    bool once = false;
    connect(&document, &Document::designChanged, this, [&] {
      if (std::exchange(once, true)) return;
      Design next = document.committed();
      next.card.height_mm = 200;
      QVERIFY(document.apply(next, QStringLiteral("higher")).ok());
    });
    QVERIFY(document.apply(card(140), QStringLiteral("wider")).ok());
    QCOMPARE(document.undoStack().count(), 2);
    QCOMPARE(document.undoStack().undoText(), QStringLiteral("higher"));
    document.undoStack().undo();
    QVERIFY(document.committed() == card(140));
    document.undoStack().undo();
    QVERIFY(document.committed() == card(130));
    document.undoStack().redo();
    document.undoStack().redo();
    QCOMPARE(document.committed().card.height_mm, 200.0);
  }
  void savingRemovesTheCopy() {
    QTemporaryDir folder;
    Document document;
    document.start(card(130));
    QVERIFY(document.apply(card(140), QStringLiteral("wider")).ok());
    document.copyNow();
    QVERIFY(document.saveTo(folder.filePath(QStringLiteral("a.hinge"))).ok());
    QVERIFY(copies().isEmpty());
    // And the first edit after saving is kept again, with its path.
    QVERIFY(document.apply(card(150), QStringLiteral("wider")).ok());
    document.copyNow();
    const QStringList paths = filesIn(SafetyCopy::folder(), QStringLiteral("*.path"));
    QCOMPARE(paths.size(), qsizetype(1));
    QFile path(SafetyCopy::folder() + QLatin1Char('/') + paths.front());
    QVERIFY(path.open(QIODevice::ReadOnly));
    QCOMPARE(QString::fromUtf8(path.readAll()), folder.filePath(QStringLiteral("a.hinge")));
  }
  void copiesAreForTheirOwnerOnly() {
    Document document;
    document.start(card(130));
    QVERIFY(document.apply(card(140), QStringLiteral("wider")).ok());
    document.copyNow();
    for (const QString& name : filesIn(SafetyCopy::folder(), QStringLiteral("*"))) {
      struct stat facts {};
      const QByteArray file = (SafetyCopy::folder() + QLatin1Char('/') + name).toLocal8Bit();
      QCOMPARE(::stat(file.constData(), &facts), 0);
      QCOMPARE(facts.st_mode & 077, 0u);
    }
    struct stat facts {};
    QCOMPARE(::stat(SafetyCopy::folder().toLocal8Bit().constData(), &facts), 0);
    QCOMPARE(facts.st_mode & 077, 0u);
  }
  void aCopyOfALivingProgramIsNotOffered() {
    Document document;
    document.start(card(130));
    QVERIFY(document.apply(card(140), QStringLiteral("wider")).ok());
    document.copyNow();
    QVERIFY(SafetyCopy::leftBehind().isEmpty());
    leaveBehind(card(155), QString(), QStringLiteral("left"));
    const auto left = SafetyCopy::leftBehind();
    QCOMPARE(left.size(), qsizetype(1));
    QVERIFY(left.front().originalPath.isEmpty());
    QCOMPARE(copies().size(), qsizetype(2));
  }
  void recoveredWorkHasItsOwnCopyBeforeTheOldOneGoes() {
    QTemporaryDir folder;
    const QString original = folder.filePath(QStringLiteral("a.hinge"));
    QVERIFY(saveDesign(card(130), original.toStdString()).ok());
    leaveBehind(card(155), original, QStringLiteral("left"));
    Document document;
    QVERIFY(document.recover(SafetyCopy::leftBehind().front()).ok());
    QCOMPARE(document.committed().card.width_mm, 155.0);
    QCOMPARE(document.path(), original);
    QVERIFY(document.isModified());
    QCOMPARE(copies().size(), qsizetype(1));
    QVERIFY(SafetyCopy::leftBehind().isEmpty());
    document.undoStack().undo(); // back to what is on disk
    QCOMPARE(document.committed().card.width_mm, 130.0);
  }
  void aDamagedCopyIsSetAside() {
    const QString bad = leaveBehind(card(155), QString(), QStringLiteral("bad"));
    QFile file(bad);
    QVERIFY(file.open(QIODevice::WriteOnly));
    file.write("{ half a");
    file.close();
    leaveBehind(card(166), QString(), QStringLiteral("good"));
    Document document;
    int damaged = 0;
    for (const auto& copy : SafetyCopy::leftBehind()) {
      if (document.recover(copy)) continue;
      ++damaged;
      QVERIFY(QFile::exists(SafetyCopy::setAside(copy)));
    }
    QCOMPARE(damaged, 1);
    QCOMPARE(document.committed().card.width_mm, 166.0);
    QVERIFY(SafetyCopy::leftBehind().isEmpty()); // not offered again
  }
  void aCopyThatCannotBeWrittenIsTold() {
    // A file where the folder should be.
    QDir().mkpath(QFileInfo(SafetyCopy::folder()).path());
    QFile file(SafetyCopy::folder());
    QVERIFY(file.open(QIODevice::WriteOnly));
    file.close();
    Document document;
    document.start(card(130));
    QSignalSpy told(&document, &Document::copyTroubleChanged);
    QVERIFY(document.apply(card(140), QStringLiteral("wider")).ok());
    document.copyNow();
    QCOMPARE(told.size(), qsizetype(1));
    QVERIFY(!document.copyTrouble().isEmpty());
    QCOMPARE(document.committed().card.width_mm, 140.0); // the work goes on
    QVERIFY(file.remove());
    document.copyNow();
    QVERIFY(document.copyTrouble().isEmpty());
    QCOMPARE(copies().size(), qsizetype(1));
  }
};

QTEST_GUILESS_MAIN(TestDocument)
#include "test_document.moc"
