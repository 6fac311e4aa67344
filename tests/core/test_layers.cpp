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
  void coreLayersPointOneWay() {
    // A layer may include itself and those before it. Recipes are data that the design's edits
    // validate against, so design.cpp alone may look the tables up.
    const QStringList order{
        QStringLiteral("base"),       QStringLiteral("units"),  QStringLiteral("geom"),
        QStringLiteral("paper"),      QStringLiteral("design"), QStringLiteral("assembly"),
        QStringLiteral("motion"),     QStringLiteral("bases"),  QStringLiteral("structures"),
        QStringLiteral("contact"),    QStringLiteral("states"), QStringLiteral("making"),
        QStringLiteral("production"), QStringLiteral("model"),  QStringLiteral("checks"),
        QStringLiteral("io")};
    for (const QString& path : sourcesIn(QStringLiteral("core"))) {
      const QString layer =
          path.section(QStringLiteral("/core/"), 1).section(QLatin1Char('/'), 0, 0);
      QVERIFY2(order.contains(layer), qPrintable(layer));
      for (const QString& include : includesOf(path)) {
        if (!include.startsWith(QStringLiteral("core/"))) continue;
        const QString other = include.section(QLatin1Char('/'), 1, 1);
        const bool lookup = path.endsWith(QStringLiteral("design/design.cpp")) &&
                            other == QStringLiteral("structures");
        QVERIFY2(lookup || order.indexOf(other) <= order.indexOf(layer),
                 qPrintable(path + QStringLiteral(" includes ") + include));
      }
    }
  }
};

QTEST_APPLESS_MAIN(TestLayers)
#include "test_layers.moc"
