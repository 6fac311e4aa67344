// SPDX-License-Identifier: GPL-3.0-or-later
#include <QDirIterator>
#include <QFile>
#include <QRegularExpression>
#include <QTest>

// The arrows of docs/architecture.md, read from the sources: each layer includes only what stands
// before it.

class TestLayers : public QObject {
  Q_OBJECT
  static QStringList includesOf(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return {};
    QStringList found;
    static const QRegularExpression include(QStringLiteral("^\\s*#include [<\"]([^>\"]+)[>\"]"),
                                            QRegularExpression::MultilineOption);
    for (auto it = include.globalMatch(QString::fromUtf8(file.readAll())); it.hasNext();)
      found << it.next().captured(1);
    return found;
  }
  static QStringList sourcesIn(const QString& folder) {
    QStringList found;
    for (QDirIterator it(QStringLiteral(HINGE_SOURCE_DIR "/src/") + folder,
                         {QStringLiteral("*.h"), QStringLiteral("*.cpp")}, QDir::Files,
                         QDirIterator::Subdirectories);
         it.hasNext();)
      found << it.next();
    return found;
  }
  /// The rows of the table of layers, in their order.
  static QStringList layersOf(const QString& document) {
    QFile file(QStringLiteral(HINGE_SOURCE_DIR "/") + document);
    if (!file.open(QIODevice::ReadOnly)) return {};
    static const QRegularExpression row(QStringLiteral("^\\| `((?:core/)?[a-z]+)` \\|"),
                                        QRegularExpression::MultilineOption);
    QStringList found;
    for (auto it = row.globalMatch(QString::fromUtf8(file.readAll())); it.hasNext();)
      found << it.next().captured(1);
    return found;
  }
  static QString layerOf(const QString& path) {
    const int parts = path.startsWith(QStringLiteral("core/")) ? 1 : 0;
    return path.section(QLatin1Char('/'), 0, parts);
  }
private slots:
  void coreAndRenderKnowNoWidgets() {
    static const QRegularExpression widgets(
        QStringLiteral("^Q(tWidgets|Widget|MainWindow|Application|Dialog|Action|Menu|Label|"
                       "PushButton|MessageBox|LineEdit|UndoStack)"));
    int seen = 0;
    for (const QString& path :
         sourcesIn(QStringLiteral("core")) + sourcesIn(QStringLiteral("render")))
      for (const QString& include : includesOf(path)) {
        ++seen;
        QVERIFY2(!widgets.match(include).hasMatch() &&
                     !include.startsWith(QStringLiteral("app/")) &&
                     !include.startsWith(QStringLiteral("cli/")),
                 qPrintable(path + QStringLiteral(" includes ") + include));
        if (path.contains(QStringLiteral("/core/")))
          QVERIFY2(!include.startsWith(QStringLiteral("render/")) &&
                       !include.startsWith(QStringLiteral("QPainter")),
                   qPrintable(path + QStringLiteral(" includes ") + include));
      }
    QVERIFY(seen > 150);
  }
  void layersPointOneWay() {
    // A layer may include itself and those before it in the table, and there are no exceptions.
    const QStringList order = layersOf(QStringLiteral("docs/architecture.md"));
    QVERIFY(order.size() > 15);
    int seen = 0;
    for (const QString& path : sourcesIn(QString())) {
      const QString inside = path.section(QStringLiteral("/src/"), 1);
      const QString layer = layerOf(inside);
      QVERIFY2(order.contains(layer), qPrintable(layer + QStringLiteral(" is in no table")));
      for (const QString& include : includesOf(path)) {
        const QString other = layerOf(include);
        if (!order.contains(other)) continue; // a library
        ++seen;
        const bool before = order.indexOf(other) <= order.indexOf(layer);
        const bool window = layer == QStringLiteral("app") && other == QStringLiteral("cli");
        QVERIFY2(before && !window, qPrintable(path + QStringLiteral(" includes ") + include));
      }
    }
    QVERIFY(seen > 500);
  }
  void theWindowDerivesNothingByItself() {
    // What a design is worth comes from its snapshot: once, off the interface thread.
    static const QRegularExpression derives(
        QStringLiteral("\\b(assembleDesign|assemblyOrder|findContacts|shutState|standOf|flatPieces|"
                       "sheetsFor|Motion::trace|Mechanism::from|checkKinds)\\s*\\("));
    static const QStringList hidden{
        QStringLiteral("core/structures/assemble.h"), QStringLiteral("core/contact/contact.h"),
        QStringLiteral("core/making/access.h"), QStringLiteral("core/motion/mechanism.h")};
    for (const QString& path : sourcesIn(QStringLiteral("app"))) {
      QFile file(path);
      QVERIFY(file.open(QIODevice::ReadOnly));
      QString text = QString::fromUtf8(file.readAll());
      text.replace(QStringLiteral("->flatPieces("), QString()); // of the snapshot
      const auto match = derives.match(text);
      QVERIFY2(!match.hasMatch(), qPrintable(path + QStringLiteral(": ") + match.captured()));
      for (const QString& include : includesOf(path))
        QVERIFY2(!hidden.contains(include),
                 qPrintable(path + QStringLiteral(" includes ") + include));
    }
  }
};

QTEST_APPLESS_MAIN(TestLayers)
#include "test_layers.moc"
