// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN
#include "core/edits/edits.h"
#include "core/states/stand.h"
#include "render/bsp.h"
#include "render/picture.h"
#include "render/sheets_pdf.h"
#include "render/stage_painter.h"
#include <QFile>
#include <QGuiApplication>
#include <QTemporaryDir>
#include <random>
#endif

using namespace hinge;
using namespace hinge::test;

namespace {
SpaceFace faceOf(const std::vector<Vec3>& corners, int source) {
  return {corners, std::vector<char>(corners.size(), 1),
          (corners[1] - corners[0]).cross(corners[2] - corners[0]).normalized(), source};
}
double areaOf(const SpaceFace& f) {
  Vec3 sum = Vec3::Zero();
  for (std::size_t k = 1; k + 1 < f.corners.size(); ++k)
    sum += (f.corners[k] - f.corners[0]).cross(f.corners[k + 1] - f.corners[0]);
  return 0.5 * sum.norm();
}
} // namespace

class TestRender : public QObject {
  Q_OBJECT
private slots:
  void picturesHoldTheWholeCardAtEveryOpening_data() {
    QTest::addColumn<QString>("name");
    for (const char* name : {"tower", "long-quay", "oil-sleeve", "night-market", "easel-lantern"})
      QTest::newRow(name) << QString::fromLatin1(name);
  }
  void picturesHoldTheWholeCardAtEveryOpening() {
    QFETCH(QString, name);
    const Design design = demo(name.toStdString());
    const Motion motion = Motion::trace(assemble(design));
    const QRectF area(0, 0, 1200, 900);
    for (double deg : {20.0, 60.0, 120.0, 170.0}) {
      const Pose pose = motion.poseAt(radians(deg));
      const Iso3 bench = onTable(design.card, motion.assembly(), pose.opening_rad);
      const Camera camera = cameraAt(design.card, area, motion.assembly(), pose, bench);
      QRectF seen;
      for (PanelIndex p : motion.assembly().panels.indices()) {
        if (!pose.placed[p]) continue;
        for (const Vec2& c : motion.assembly().panels[p].outline.rim)
          seen = seen.united(
              QRectF(camera.project(bench * (pose.panels[p] * lift(c))), QSizeF(1e-6, 1e-6)));
      }
      QVERIFY(area.contains(seen));
      // And not much smaller than the picture.
      QVERIFY(seen.width() > 0.7 * area.width() || seen.height() > 0.7 * area.height());
    }
  }
  void aCardOnItsEdgeStandsInThePicture() {
    const Design design = demo("tower");
    const Motion motion = Motion::trace(assemble(design));
    const Iso3 bench = onTable(design.card, motion.assembly(), radians(90));
    // The fold is upright: lying, it would be level.
    const Pose pose = motion.poseAt(radians(90));
    const PanelIndex page = motion.assembly().root;
    const Vec3 fold = bench.linear() * pose.panels[page].linear() * Vec3::UnitY();
    QVERIFY_NEAR(std::abs(fold.z()), 1, 1e-9);
  }
  void partitioningKeepsAllAreaAndOrdersCrossingFaces() {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> at(-50, 50);
    std::vector<SpaceFace> faces;
    double area = 0;
    for (int k = 0; k < 40; ++k) {
      const Vec3 o(at(random), at(random), at(random)), u(at(random), at(random), at(random)),
          v(at(random), at(random), at(random));
      faces.push_back(faceOf({o, o + u, o + u + v, o + v}, k));
      area += areaOf(faces.back());
    }
    Camera camera;
    const Vec3 eye = camera.eye();
    const auto onScreen = [&](const SpaceFace& f) {
      QPolygonF polygon;
      for (const Vec3& c : f.corners)
        polygon << camera.project(c);
      return polygon;
    };
    const auto ordered = backToFront(faces, eye);
    double after = 0;
    for (const SpaceFace& f : ordered)
      after += areaOf(f);
    QVERIFY_NEAR(after / area, 1, 1e-6);
    // Of two faces that cover one another on the screen, the one in front comes later.
    int covering = 0;
    for (std::size_t i = 0; i < ordered.size(); ++i)
      for (std::size_t j = i + 1; j < ordered.size(); ++j) {
        const auto wholly = [&](const SpaceFace& of, const SpaceFace& to, double sign) {
          const double facing = to.normal.dot(eye - to.corners[0]) > 0 ? sign : -sign;
          return std::ranges::all_of(of.corners, [&](const Vec3& p) {
            return facing * to.normal.dot(p - to.corners[0]) > 1e-3;
          });
        };
        if (!wholly(ordered[j], ordered[i], -1.0) || !wholly(ordered[i], ordered[j], 1.0)) continue;
        const QRectF shared = onScreen(ordered[i]).intersected(onScreen(ordered[j])).boundingRect();
        ++covering;
        QVERIFY2(shared.width() * shared.height() < 1.0,
                 "a face in front was drawn before one behind it");
      }
    QVERIFY(covering > 0);
  }
  void bentAndDegenerateFacesDoNotHang() {
    std::vector<SpaceFace> faces{faceOf({{0, 0, 0}, {10, 0, 0}, {10, 10, 3}, {0, 10, 0}}, 0),
                                 faceOf({{0, 0, 1}, {10, 0, 1}, {10, 10, -3}, {0, 10, 1}}, 1),
                                 faceOf({{0, 0, 0}, {0, 0, 0}, {0, 0, 0}}, 2)};
    QVERIFY(backToFront(faces, {0, 0, 100}).size() >= 2);
  }
  void everyPlacedPanelIsDrawnAndPicked() {
    Design d = card();
    add(d, "box", "gutter");
    const auto assembly = assemble(d);
    QImage image(800, 600, QImage::Format_ARGB32_Premultiplied);
    QPainter painter(&image);
    const QRectF area(0, 0, 800, 600);
    const auto drawn =
        paintStage(painter, area, *assembly, Motion::quickPose(*assembly, radians(100)),
                   cameraFor(d.card, area, *assembly), StageStyle{});
    std::set<int> panels;
    for (const DrawnFace& f : drawn)
      panels.insert(f.panel.value);
    QCOMPARE(panels.size(), assembly->panels.size());
    for (const DrawnFace& f : drawn)
      QVERIFY(area.adjusted(-1, -1, 1, 1).contains(f.outline.boundingRect()));
  }
  void jointsThatGoRoundInARingAreDrawn() {
    PieceWork work = plainStrip(90, 20);
    for (double x : {30.0, 60.0})
      work.lines.push_back({WorkLine::Kind::Valley, {x, 0}, {x, 20}});
    work.joints = {{{5, 5}, "card/page-a", {50, 50}, given::Glue()},
                   {{45, 10}, "s1/panel-3", {15, 10}, given::Pivot()},
                   {{75, 10}, "s1/panel-2", {15, 10}, given::Pivot()}};
    const auto added = addStructure(card(), "piece", "card/page-a", {{"position", 0.0}}, work);
    QVERIFY(added.ok());
    const QImage picture = stagePicture(Motion::trace(assemble(added->design)), added->design.card,
                                        radians(90), {320, 240});
    QCOMPARE(picture.size(), QSize(320, 240));
  }
  void theCameraHoldsTheCardAtEveryOpening() {
    for (const FoldSide fold : {FoldSide::Side, FoldSide::Top}) {
      CardBase c;
      c.fold = fold;
      const QRectF area(0, 0, 760, 560);
      Design sized;
      sized.card = c;
      const Camera camera = cameraFor(c, area, *assembleDesign(sized));
      for (int k = 0; k <= 18; ++k)
        for (double y : {0.0, c.gutterLength_mm()})
          QVERIFY(area.contains(camera.project(Vec3(c.pageDepth_mm() * std::cos(k * kPi / 18), y,
                                                    c.pageDepth_mm() * std::sin(k * kPi / 18)))));
    }
  }
  void picturesAndSheetsAreWritten() {
    QTemporaryDir folder;
    Design d = card(400, 300); // larger than A4: tiled
    add(d, "box", "gutter");
    const auto assembly = assemble(d);
    const std::string png = folder.filePath(QStringLiteral("a.png")).toStdString(),
                      pdf = folder.filePath(QStringLiteral("a.pdf")).toStdString();
    QVERIFY(
        writePicture(stagePicture(Motion::trace(assembly), d.card, radians(90), {640, 480}), png)
            .ok());
    QCOMPARE(QImage(QString::fromStdString(png)).size(), QSize(640, 480));
    QVERIFY(writeSheetsPdf(Snapshot(d), Bench(), pdf).ok());
    QFile file(QString::fromStdString(pdf));
    QVERIFY(file.open(QIODevice::ReadOnly));
    const QByteArray text = file.readAll();
    QVERIFY(text.startsWith("%PDF"));
    // An open card of 800 x 300 mm in tiles of 190 x 263 with 8 mm overlap: 5 columns, 2 rows; and
    // a sheet for the box; then a page of tables.
    QCOMPARE(text.count("/Type /Page\n"), 12);
    QVERIFY(!writeSheetsPdf(Snapshot(d), Bench(),
                            folder.filePath(QStringLiteral("no/a.pdf")).toStdString())
                 .ok());
  }
};

QTEST_MAIN(TestRender)
#include "test_render.moc"
