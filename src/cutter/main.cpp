// SPDX-License-Identifier: GPL-3.0-or-later
#include "cutter/bed.h"
#include <QApplication>
#include <QCommandLineParser>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <cstdio>
#include <unistd.h>

// A simulated cutting machine: what a job does to a sheet can be seen without one.

namespace hinge {
namespace {

class BedWindow : public QWidget {
public:
  explicit BedWindow(Bed* bed) : m_bed(bed) {
    setWindowTitle(tr("Hinge Lantern: simulated cutter"));
    auto* column = new QVBoxLayout(this);
    m_picture = new QLabel(this);
    m_picture->setAccessibleName(tr("The sheet in the machine"));
    column->addWidget(m_picture);
    m_says = new QLabel(this);
    column->addWidget(m_says);
    auto* row = new QHBoxLayout;
    for (const auto& [what, label] :
         {std::pair{"jam", tr("Jam")}, std::pair{"no-paper", tr("Run out of paper")},
          std::pair{"lose", tr("Pull the plug")}, std::pair{"clear", tr("Clear")},
          std::pair{"new-sheet", tr("New sheet")}}) {
      auto* button = new QPushButton(label, this);
      connect(button, &QPushButton::clicked, this,
              [this, w = QString::fromLatin1(what)] { m_bed->doAtMachine(w); });
      row->addWidget(button);
    }
    column->addLayout(row);
    connect(bed, &Bed::changed, this, &BedWindow::refresh);
    refresh();
  }

private:
  void refresh() {
    m_picture->setPixmap(QPixmap::fromImage(m_bed->picture(2.2)));
    m_says->setText(m_bed->says());
  }
  Bed* m_bed;
  QLabel *m_picture, *m_says;
};

struct Wishes {
  QSizeF sheet{210, 297};
  double blade_mm = 0.25, faster = 1;
  CutterFaults faults;
};

/// False, with a line on stderr, when a value is none.
bool readWishes(const QCommandLineParser& parser, Wishes& wishes) {
  const auto number = [&](const QString& name, double& value) {
    if (!parser.isSet(name)) return true;
    bool ok = false;
    value = parser.value(name).toDouble(&ok);
    if (!ok || value < 0) std::fprintf(stderr, "--%s: not a number\n", qPrintable(name));
    return ok && value >= 0;
  };
  const auto fault = [&](const QString& name, std::optional<double>& after) {
    double value = 0;
    if (!parser.isSet(name)) return true;
    if (!number(name, value)) return false;
    after = value;
    return true;
  };
  double scaleX = 1, scaleY = 1;
  if (!number(QStringLiteral("blade"), wishes.blade_mm) ||
      !number(QStringLiteral("faster"), wishes.faster) ||
      !number(QStringLiteral("scale-x"), scaleX) || !number(QStringLiteral("scale-y"), scaleY) ||
      !fault(QStringLiteral("jam-after"), wishes.faults.jamAfter_mm) ||
      !fault(QStringLiteral("paper-for"), wishes.faults.outAfter_mm) ||
      !fault(QStringLiteral("lose-line-after"), wishes.faults.loseLineAfter_mm))
    return false;
  wishes.faults.scale = {scaleX, scaleY};
  const auto pair = [&](const QString& name, double& a, double& b) {
    if (!parser.isSet(name)) return true;
    const QStringList two = parser.value(name).split(QLatin1Char('x'));
    bool first = false, second = false;
    a = two.value(0).toDouble(&first), b = two.value(1).toDouble(&second);
    if (!first || !second) std::fprintf(stderr, "--%s: not two numbers\n", qPrintable(name));
    return first && second;
  };
  return pair(QStringLiteral("sheet"), wishes.sheet.rwidth(), wishes.sheet.rheight()) &&
         pair(QStringLiteral("off"), wishes.faults.offset_mm.rx(), wishes.faults.offset_mm.ry());
}

void addOptions(QCommandLineParser& parser) {
  parser.setApplicationDescription(
      QStringLiteral("A simulated pen-and-blade cutter for HPGL.\n"
                     "Lines on its input: clear, jam, no-paper, lose, new-sheet, "
                     "picture FILE, quit."));
  parser.addHelpOption();
  const auto option = [&](const char* name, const char* what, const char* value) {
    parser.addOption(
        {QString::fromLatin1(name), QString::fromLatin1(what), QString::fromLatin1(value)});
  };
  option("socket", "be called at this local socket (without it: at a pseudo-terminal)", "path");
  option("sheet", "size of the sheet in mm, 210x297", "size");
  option("blade", "of the knife, from its axis to its tip, 0.25", "mm");
  option("faster", "than a real machine, so many times", "times");
  option("picture", "PNG of the sheet, written when it ends", "file");
  option("memory", "file in which the sheet outlives the machine", "file");
  option("jam-after", "jam once, after this way", "mm");
  option("paper-for", "run out of paper once, after this way", "mm");
  option("lose-line-after", "lose the line once, after this way", "mm");
  option("scale-x", "what it makes of a length of 1 to the right", "factor");
  option("scale-y", "what it makes of a length of 1 upwards", "factor");
  option("off", "how far off it begins, 1.5x-0.5", "mm");
  parser.addOption(
      {QStringLiteral("window"), QStringLiteral("show the sheet and what goes wrong")});
}

void obey(Bed& bed, const QString& line) {
  const QString picture = QStringLiteral("picture ");
  if (line == QStringLiteral("quit"))
    QCoreApplication::quit();
  else if (line.startsWith(picture))
    bed.picture(4).save(line.mid(picture.size()));
  else if (!bed.doAtMachine(line))
    std::fprintf(stderr, "unknown: %s\n", qPrintable(line));
  std::printf("done %s\n", qPrintable(line));
  std::fflush(stdout);
}

int run(QApplication& application) {
  QCommandLineParser parser;
  addOptions(parser);
  parser.process(application);
  Wishes wishes;
  if (!readWishes(parser, wishes)) return 2;
  Bed bed(wishes.sheet, wishes.blade_mm, wishes.faults, wishes.faster);
  const QString memory = parser.value(QStringLiteral("memory"));
  if (!memory.isEmpty() && !bed.remember(memory)) {
    std::fprintf(stderr, "%s cannot be written\n", qPrintable(memory));
    return 2;
  }
  QString place = parser.value(QStringLiteral("socket"));
  if (place.isEmpty())
    place = bed.openTerminal();
  else if (!bed.listenAt(place))
    place.clear();
  if (place.isEmpty()) {
    std::fprintf(stderr, "cannot be called there\n");
    return 2;
  }
  std::printf("listening %s\n", qPrintable(place));
  std::fflush(stdout);
  QSocketNotifier input(STDIN_FILENO, QSocketNotifier::Read);
  QByteArray typed;
  QObject::connect(&input, &QSocketNotifier::activated, &bed, [&] {
    char text[512];
    const ssize_t got = ::read(STDIN_FILENO, text, sizeof text);
    if (got <= 0) return input.setEnabled(false);
    typed.append(text, got);
    for (qsizetype end = 0; (end = typed.indexOf('\n')) >= 0; typed.remove(0, end + 1))
      obey(bed, QString::fromUtf8(typed.left(end)).trimmed());
  });
  std::optional<BedWindow> window;
  if (parser.isSet(QStringLiteral("window"))) window.emplace(&bed).show();
  const int code = QApplication::exec();
  const QString picture = parser.value(QStringLiteral("picture"));
  if (!picture.isEmpty() && !bed.picture(4).save(picture)) {
    std::fprintf(stderr, "%s cannot be written\n", qPrintable(picture));
    return 2;
  }
  return code;
}

} // namespace
} // namespace hinge

int main(int argc, char** argv) {
  // Without a window there need be no screen.
  bool window = false;
  for (int k = 1; k < argc; ++k)
    window = window || qstrcmp(argv[k], "--window") == 0;
  if (!window) qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication application(argc, argv);
  QApplication::setQuitOnLastWindowClosed(window);
  return hinge::run(application);
}
