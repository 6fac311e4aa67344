// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "render/booklet.h"
#include "render/flat_painter.h"
#include "render/making_style.h"
#include "render/seen_map.h"
#include "render/step_picture.h"
#include "words/words.h"
#include <QDir>
#include <QGuiApplication>
#include <QPdfWriter>
#include <QRegularExpression>
#include <QTemporaryDir>
#include <QXmlStreamReader>
#include <set>
#endif

using namespace hinge;
using namespace hinge::test;

// What lies before the maker in each step, judged by paper alone: rigid, joined where it is made,
// complete; and that the pictures of it show something.

namespace {

std::shared_ptr<const PlannedWork> planned(const Design& design, const MakingWays& ways = {}) {
  return planWork(std::make_shared<const Snapshot>(design), ways);
}

/// Joints that are made before a step begins, by the plan alone.
std::set<JointIndex> madeBefore(const WorkPlan& plan, std::size_t step) {
  std::set<JointIndex> made;
  for (std::size_t k = 0; k < step; ++k)
    if (plan.steps[k].kind == WorkKind::Join)
      made.insert(plan.steps[k].joints.begin(), plan.steps[k].joints.end());
  return made;
}

/// The widest gap along folds and joints whose two sides lie there.
double widestGap(const Assembly& assembly, const Pose& pose, const std::set<JointIndex>& made) {
  double widest = 0;
  for (const Fold& fold : assembly.folds)
    if (pose.placed[fold.left] && pose.placed[fold.right])
      for (const Vec2& end : {fold.from, fold.to})
        widest = std::max(
            widest,
            (pose.panels[fold.left] * lift(end) - pose.panels[fold.right] * lift(end)).norm());
  for (JointIndex j : made) {
    const auto* glue = std::get_if<Glue>(&assembly.joints[j]);
    if (!glue || !pose.placed[glue->tab] || !pose.placed[glue->host]) continue;
    for (const Vec2& corner : assembly.panels[glue->tab].outline.rim)
      widest = std::max(widest, (pose.panels[glue->tab] * lift(corner) -
                                 pose.panels[glue->host] * (glue->tabToHost * lift(corner)))
                                    .norm());
  }
  return widest;
}

/// Some piece is glued to both panels at a fold.
bool joinedOnBothSides(const Assembly& assembly, const Fold& fold) {
  for (PieceIndex piece : assembly.pieces.indices())
    if (gluedOnBothSides(assembly, fold, piece)) return true;
  return false;
}

int inkOf(const QImage& image) {
  int ink = 0;
  for (int y = 0; y < image.height(); ++y)
    for (int x = 0; x < image.width(); ++x)
      ink += qGray(image.pixel(x, y)) < 160;
  return ink;
}

} // namespace

class TestStepPictures : public QObject {
  Q_OBJECT

  static void demos() {
    QTest::addColumn<QString>("file");
    for (const QString& file : QDir(QStringLiteral(HINGE_SOURCE_DIR "/demo"))
                                   .entryList({QStringLiteral("*.hinge")}, QDir::Files))
      if (!file.contains(QStringLiteral("mistakes"))) QTest::newRow(qPrintable(file)) << file;
  }
  static std::shared_ptr<const PlannedWork> workOn(const QString& file) {
    return planned(demoAsItComes(file.chopped(6).toStdString()));
  }

private slots:
  void paperStaysTogether_data() { demos(); }
  void paperStaysTogether() {
    QFETCH(QString, file);
    const auto work = workOn(file);
    QVERIFY(work);
    const Assembly& assembly = work->assembly();
    const StepScenes scenes(work->plan, *work->motion, *work->stack,
                            work->design().settings.foldClearance_mm);
    for (std::size_t k = 0; k < work->plan.steps.size(); ++k) {
      const WorkStep& step = work->plan.steps[k];
      if (!scenes.builds(k)) continue;
      auto made = madeBefore(work->plan, k);
      for (double progress : {0.0, 0.3, 0.8, 1.0}) {
        // In a dry fit on the card everything is held as if it were glued.
        if ((step.kind == WorkKind::DryFit && step.onCard) ||
            (step.kind == WorkKind::Join && progress == 1.0))
          made.insert(step.joints.begin(), step.joints.end());
        const bool all = step.kind == WorkKind::Ready || step.kind == WorkKind::Finish;
        const StepScene scene = scenes.at(k, progress);
        QVERIFY2(scene.anything(), qPrintable(QString::number(k + 1)));
        const double gap = widestGap(assembly, scene.pose,
                                     all ? madeBefore(work->plan, work->plan.steps.size()) : made);
        // A joint that is only held, in the ring that it closes, gapes by what the engine leaves.
        QVERIFY2(
            gap < 0.3,
            qPrintable(QStringLiteral("step %1 at %2: %3 mm").arg(k + 1).arg(progress).arg(gap)));
        for (PanelIndex p : scene.fresh)
          QVERIFY2(scene.pose.placed[p], qPrintable(QString::number(k + 1)));
      }
    }
  }

  void whatIsJoinedIsShownAndGlueIsInItsPlace_data() { demos(); }
  void whatIsJoinedIsShownAndGlueIsInItsPlace() {
    QFETCH(QString, file);
    const auto work = workOn(file);
    const Assembly& assembly = work->assembly();
    const double clear = work->design().settings.foldClearance_mm;
    const StepScenes scenes(work->plan, *work->motion, *work->stack, clear);
    for (std::size_t k = 0; k < work->plan.steps.size(); ++k) {
      const WorkStep& step = work->plan.steps[k];
      if (step.kind != WorkKind::Join) continue;
      const StepScene scene = scenes.at(k, 0);
      std::size_t glued = 0;
      for (JointIndex j : step.joints) {
        for (PanelIndex p : panelsOf(assembly.joints[j]))
          QVERIFY2(scene.pose.placed[p], qPrintable(QString::number(k + 1)));
        glued += std::holds_alternative<Glue>(assembly.joints[j]);
      }
      std::size_t spots = 0;
      for (const GlueSpot& spot : scene.glue) {
        if (spot.lands) continue;
        ++spots;
        for (const Region& part : spot.where)
          for (const Vec2& corner : part.rim) {
            QVERIFY(contains(assembly.panels[spot.panel].outline, corner, 0.01));
            for (FoldIndex f : assembly.foldsOf(spot.panel))
              QVERIFY(joinedOnBothSides(assembly, assembly.folds[f]) ||
                      distanceToSegment(corner, assembly.folds[f].from, assembly.folds[f].to) >
                          clear - 0.01);
          }
      }
      QCOMPARE(spots, glued);
      // Something is brought, pressed, tied or shut.
      QVERIFY2(!scene.ways.empty() || scene.freshTies > 0, qPrintable(QString::number(k + 1)));
    }
  }

  void everyStepHasAPicture_data() { demos(); }
  void everyStepHasAPicture() {
    QFETCH(QString, file);
    const auto work = workOn(file);
    const StepPainter painter(work);
    for (std::size_t k = 0; k < work->plan.steps.size(); ++k) {
      const QImage image = stepImage(painter, k, QSize(320, 240));
      QVERIFY2(inkOf(image) > 60, qPrintable(QString::number(k + 1)));
      // Nothing stands in the border that is left white.
      for (int x = 0; x < image.width(); ++x)
        QVERIFY(qGray(image.pixel(x, 0)) > 200 && qGray(image.pixel(x, image.height() - 1)) > 200);
    }
  }

  void whatMovesIsElsewhereAfterwards() {
    const auto work = planned(demoAsItComes("canal-houses"));
    const StepPainter painter(work);
    for (std::size_t k = 0; k < work->plan.steps.size(); ++k) {
      const QImage before = stepImage(painter, k, QSize(320, 240), 0.0),
                   after = stepImage(painter, k, QSize(320, 240), 1.0);
      QVERIFY2((before != after) == painter.moves(k), qPrintable(QString::number(k + 1)));
    }
  }

  /// The first side lies flat while the card is open; the second waits for the page to come down.
  void aFirstSideLiesFlat() {
    Design design = card();
    add(design, "vfold", "gutter");
    const auto work = planned(design);
    const StepScenes scenes(work->plan, *work->motion, *work->stack, 1);
    int shut = 0;
    for (std::size_t k = 0; k < work->plan.steps.size(); ++k) {
      const WorkStep& step = work->plan.steps[k];
      if (step.kind != WorkKind::Join) continue;
      const StepScene scene = scenes.at(k, step.press == PressWay::ByShutting ? 0.0 : 1.0);
      const PanelIndex page = std::get<Glue>(work->assembly().joints[step.joints.front()]).host;
      // What hangs on one page alone lies in its plane.
      const PanelIndex under =
          step.press == PressWay::ByShutting
              ? (page == work->assembly().root ? work->assembly().basePoses(0)[1].first
                                               : work->assembly().root)
              : page;
      const Iso3 toPage = scene.pose.panels[under].inverse();
      for (PanelIndex p : scene.fresh)
        for (const Vec2& corner : work->assembly().panels[p].outline.rim)
          QVERIFY(std::abs((toPage * (scene.pose.panels[p] * lift(corner))).z()) < 0.1);
      if (step.press == PressWay::ByShutting) {
        // What the page comes down on lies on top of all that lies there.
        ++shut;
        const PanelIndex tab = std::get<Glue>(work->assembly().joints[step.joints.front()]).tab;
        const Vec3 up = scene.bench.linear().transpose() * Vec3::UnitZ();
        for (PanelIndex p : scene.fresh)
          QVERIFY(p == tab || scene.off[tab].dot(up) > scene.off[p].dot(up));
      }
    }
    QCOMPARE(shut, 1);
  }

  /// Where glue goes on 7 mm, a ring in a corner shows it larger, and nothing of it leaves the
  /// ring.
  void smallPlacesHaveAnInset() {
    const auto work = planned(demoAsItComes("ferry-pass"));
    const StepPainter painter(work);
    const StepScenes scenes(work->plan, *work->motion, *work->stack,
                            work->design().settings.foldClearance_mm);
    int small = 0;
    for (std::size_t k = 0; k < work->plan.steps.size(); ++k) {
      if (work->plan.steps[k].kind != WorkKind::Join || scenes.at(k, 0).least_mm >= 8) continue;
      ++small;
      const QImage image = stepImage(painter, k, QSize(600, 450));
      const double border = 12, r = 0.17 * (450 - 2 * border);
      int rings = 0;
      for (double x : {border + 1.1 * r, 600 - border - 1.1 * r})
        for (double y : {border + 1.1 * r, 450 - border - 1.1 * r}) {
          int inkOnRing = 0;
          std::set<QRgb> inside;
          for (int a = 0; a < 360; a += 5) {
            const QPointF way(std::cos(radians(a)), std::sin(radians(a)));
            const QPointF in = QPointF(x, y) + 0.6 * r * way;
            int darkest = 255; // the line is thin
            for (double off : {-1.0, 0.0, 1.0})
              darkest = std::min(darkest,
                                 qGray(image.pixel((QPointF(x, y) + (r + off) * way).toPoint())));
            inkOnRing += darkest < 140;
            inside.insert(image.pixel(in.toPoint()));
          }
          if (inkOnRing < 65) continue;
          ++rings;
          QVERIFY(inside.size() > 2); // paper, edges, the place: not one colour
        }
      QCOMPARE(rings, 1);
    }
    QCOMPARE(small, 2);
  }

  void svgHasNothingThatNeedsClipping() {
    const auto work = planned(demoAsItComes("lamp-lattice"));
    const StepPainter painter(work);
    for (std::size_t k = 0; k < work->plan.steps.size(); ++k) {
      const QByteArray svg = stepSvg(painter, k, QSize(800, 600), QStringLiteral("Fold & look"));
      QVERIFY(svg.contains("<svg") && svg.contains("</svg>"));
      QVERIFY(svg.count("<path") + svg.count("<poly") > 3 || svg.count("<image") == 1);
      QVERIFY(!svg.contains("clip"));
      QXmlStreamReader xml(svg);
      QString title;
      while (!xml.atEnd())
        if (xml.readNext() == QXmlStreamReader::StartElement &&
            xml.name() == QStringLiteral("title"))
          title = xml.readElementText();
      QVERIFY2(!xml.hasError(), qPrintable(xml.errorString()));
      QCOMPARE(title, QStringLiteral("Fold & look"));
    }
    const auto& steps = work->plan.steps;
    const auto first = std::ranges::find(steps, WorkKind::Join, &WorkStep::kind);
    QVERIFY(first != steps.end());
    const auto join = static_cast<std::size_t>(first - steps.begin());
    QVERIFY(stepSvg(painter, join, QSize(400, 300), QStringLiteral("x"), 0.0) !=
            stepSvg(painter, join, QSize(400, 300), QStringLiteral("x"), 1.0));
  }

  void hatchStaysInside() {
    const QRectF area(0, 0, 100, 100);
    QImage image(100, 100, QImage::Format_RGB32);
    image.fill(Qt::white);
    QPainterPath ring;
    ring.addRect(20, 20, 60, 60);
    ring.addRect(40, 40, 20, 20);
    QPainter p(&image);
    hatch(p, ring, Qt::black, 6, 1);
    p.end();
    int inside = 0;
    for (int y = 0; y < 100; ++y)
      for (int x = 0; x < 100; ++x) {
        if (qGray(image.pixel(x, y)) > 128) continue;
        QVERIFY(QRect(18, 18, 64, 64).contains(x, y));
        QVERIFY(!QRect(42, 42, 16, 16).contains(x, y));
        ++inside;
      }
    QVERIFY(inside > 200);
  }

  void lettersFindTheWidestPlace() {
    SeenMap map(QRectF(0, 0, 200, 100));
    map.fill(QPolygonF(QRectF(0, 0, 200, 100)), SeenMap::kFirst);
    map.fill(QPolygonF(QRectF(0, 0, 120, 100)), SeenMap::kFirst + 1);
    const auto spot = map.roomiest(SeenMap::kFirst);
    QVERIFY(spot.has_value());
    QVERIFY_NEAR(spot->at.x(), 160, 3);
    QVERIFY_NEAR(spot->room, 40, 3);
    QVERIFY_NEAR(map.seen(SeenMap::kFirst), 8000, 200);
    map.take(QRectF(130, 0, 70, 100));
    QVERIFY(map.roomiest(SeenMap::kFirst)->room < 8);
    QVERIFY(!map.roomiest(SeenMap::kFirst + 7));
    QVERIFY_NEAR(map.empty(QRectF(0, 0, 200, 100)), 0, 0.01);
  }

  void theBookletHasAllSteps() {
    QTemporaryDir folder;
    const auto work = planned(demoAsItComes("canal-houses"));
    const StepPainter painter(work);
    const std::string html = folder.filePath(QStringLiteral("b.html")).toStdString();
    QVERIFY(writeBookletHtml(*work, painter, Bench(), html));
    QFile file(QString::fromStdString(html));
    QVERIFY(file.open(QIODevice::ReadOnly));
    const QString text = QString::fromUtf8(file.readAll());
    const auto steps = static_cast<int>(work->plan.steps.size());
    QCOMPARE(text.count(QStringLiteral("type=\"checkbox\"")), steps);
    int waits = 0;
    for (const WorkStep& step : work->plan.steps)
      waits += step.kind == WorkKind::Wait;
    QCOMPARE(text.count(QStringLiteral("<img")), steps - waits);
    QVERIFY(text.contains(QStringLiteral("<table>")) && text.contains(QStringLiteral("Papers")) &&
            text.contains(QStringLiteral("Parts")));
  }

  /// Pages by the objects of the file; a folded sheet holds four.
  void staplingOrdersThePages() {
    QTemporaryDir folder;
    const auto work = planned(demo("two-tents"));
    const StepPainter painter(work);
    const auto pagesOf = [&](const BookletWishes& wishes) {
      const QString path = folder.filePath(QStringLiteral("b.pdf"));
      [&] { QVERIFY(writeBooklet(*work, painter, Bench(), path.toStdString(), wishes)); }();
      QFile file(path);
      [&] { QVERIFY(file.open(QIODevice::ReadOnly)); }();
      static const QRegularExpression page(QStringLiteral("/Type /Page\\b"));
      return static_cast<int>(QString::fromLatin1(file.readAll()).count(page));
    };
    BookletWishes plain, stapled;
    plain.templates = stapled.templates = false;
    stapled.stapled = true;
    const int single = pagesOf(plain);
    QVERIFY(single > 4);
    QCOMPARE(pagesOf(stapled), (single + 3) / 4 * 2);
    QVERIFY(pagesOf({}) > single);
  }

  void aStopLeavesNothing() {
    QTemporaryDir folder;
    const auto work = planned(demo("two-tents"));
    const StepPainter painter(work);
    std::stop_source stop;
    const QString path = folder.filePath(QStringLiteral("b.pdf"));
    int heard = 0;
    const auto done = writeBooklet(*work, painter, Bench(), path.toStdString(), {},
                                   stop.get_token(), [&](std::size_t, std::size_t) {
                                     if (++heard == 2) stop.request_stop();
                                   });
    QVERIFY(!done);
    QCOMPARE(done.error().message.key, std::string("stopped"));
    QCOMPARE(heard, 2);
    QVERIFY(!QFile::exists(path));
  }
};

QTEST_MAIN(TestStepPictures)
#include "test_step_pictures.moc"
