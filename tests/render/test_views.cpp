// SPDX-License-Identifier: GPL-3.0-or-later
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/model/snapshot.h"
#include "render/card_look.h"
#include "render/pose_faces.h"
#include "render/seen_map.h"
#include "render/stage_painter.h"
#include "render/theme.h"
#include <QImage>
#include <QPainter>
#endif

using namespace hinge;
using namespace hinge::test;

// What is seen in a picture, against straight ways from the eye and areas that are known.

namespace {

/// From the eye through a point of the picture.
struct Ray {
  Vec3 from, way;
};

Ray rayThrough(const Camera& camera, const QPointF& point) {
  Eigen::Matrix3d toEye; // its columns are what the camera makes of the axes
  for (int k = 0; k < 3; ++k)
    toEye.col(k) = camera.toEye(camera.target + Vec3::Unit(k));
  const Vec3 onTarget((point.x() - camera.centre.x()) / camera.scale_px,
                      (camera.centre.y() - point.y()) / camera.scale_px, 0);
  const Vec3 there = camera.target + toEye.transpose() * onTarget;
  return {camera.eye(), (there - camera.eye()).normalized()};
}

struct Hit {
  double far_mm, toEdge_mm;
};

/// Where a ray goes through the paper of a panel; nothing when it passes beside it.
std::optional<Hit> hitOf(const Ray& ray, const Region& outline, const Iso3& place) {
  const Vec3 normal = place.linear().col(2);
  const double along = normal.dot(ray.way);
  if (std::abs(along) < 1e-3) return std::nullopt; // from its edge there is nothing to see
  const double far = normal.dot(place.translation() - ray.from) / along;
  const Vec2 flat = (place.inverse() * (ray.from + far * ray.way)).head<2>();
  if (far < 0 || !contains(outline, flat)) return std::nullopt;
  return Hit{far, distanceToOutline(outline, flat)};
}

/// The panel that is drawn last at a point; nothing where there is none.
std::optional<PanelIndex> drawnAtPoint(const std::vector<DrawnFace>& drawn, const QPointF& point) {
  for (std::size_t k = drawn.size(); k-- > 0;)
    if (drawn[k].outline.containsPoint(point, Qt::OddEvenFill)) return drawn[k].panel;
  return std::nullopt;
}

double brightness(const QColor& colour) {
  const auto part = [](double share) {
    return share <= 0.04045 ? share / 12.92 : std::pow((share + 0.055) / 1.055, 2.4);
  };
  return 0.2126 * part(colour.redF()) + 0.7152 * part(colour.greenF()) +
         0.0722 * part(colour.blueF());
}
/// As accessibility guidelines measure it: 1 to 21.
double contrast(const QColor& a, const QColor& b) {
  const double p = brightness(a), q = brightness(b);
  return (std::max(p, q) + 0.05) / (std::min(p, q) + 0.05);
}

QPolygonF box(double x, double y, double width, double height) {
  return QPolygonF(QRectF(x, y, width, height));
}

} // namespace

class TestViews : public QObject {
  Q_OBJECT
private slots:
  // --- the camera ----------------------------------------------------------------------------
  void theCameraKeepsLengths() {
    Camera camera;
    camera.target = {10, 20, 30}, camera.centre = {400, 300};
    for (const double turn : {-2.0, -0.45, 0.3, 1.7})
      for (const double height : {0.1, 0.52, 1.4}) {
        camera.turn_rad = turn, camera.height_rad = height;
        QVERIFY((camera.toEye(camera.eye()) - Vec3(0, 0, camera.distance_mm)).norm() < 1e-9);
        const QPointF middle = camera.project(camera.target);
        QVERIFY(std::hypot(middle.x() - 400, middle.y() - 300) < 1e-9);
        const Vec3 a(1, 2, 3), b(-40, 7, 25);
        QVERIFY_NEAR((camera.toEye(a) - camera.toEye(b)).norm(), (a - b).norm(), 1e-9);
        // What is higher is seen higher, whatever the turn.
        QVERIFY(camera.project(camera.target + Vec3(0, 0, 5)).y() < 300);
      }
  }
  void whatIsNearerIsLarger() {
    Camera camera;
    camera.turn_rad = 0, camera.height_rad = 0;
    const auto width = [&](double y) {
      return camera.project({10, y, 0}).x() - camera.project({0, y, 0}).x();
    };
    QVERIFY_NEAR(width(0), 10 * camera.scale_px, 1e-9);
    // At a third of the way to the eye all is 3/2 as large.
    QVERIFY_NEAR(width(-camera.distance_mm / 3), 15 * camera.scale_px, 1e-9);
    QVERIFY(width(100) < width(0));
  }
  void aPlaneLiesWhereItsPointsDo() {
    const Region outline({{-20, 0}, {70, 0}, {70, 45}, {-20, 45}});
    Iso3 place = Iso3::Identity();
    place.rotate(Eigen::AngleAxisd(0.8, Vec3(1, 2, 0.5).normalized()));
    place.pretranslate(Vec3(12, -30, 8));
    Camera camera;
    camera.centre = {200, 150};
    const auto map = planeOnScreen(outline, place, camera);
    QVERIFY(map);
    for (const Vec2& flat : {Vec2(0, 0), Vec2(31, 12), Vec2(69, 44), Vec2(-5, 30)}) {
      const QPointF mapped = map->map(QPointF(flat.x(), flat.y())),
                    projected = camera.project(place * lift(flat));
      QVERIFY_NEAR(mapped.x(), projected.x(), 1e-6);
      QVERIFY_NEAR(mapped.y(), projected.y(), 1e-6);
    }
  }

  // --- what hides what -----------------------------------------------------------------------
  void theNearestPaperIsDrawnLast_data() {
    QTest::addColumn<QString>("name");
    for (const char* name : {"night-market", "canal-houses", "tower", "bridge-of-arches",
                             "lantern-through-the-wall", "market-table", "tea-chests"})
      QTest::newRow(name) << QString::fromLatin1(name);
  }
  void theNearestPaperIsDrawnLast() {
    QFETCH(QString, name);
    const Design design = demo(name.toStdString());
    const Motion motion = Motion::trace(assemble(design));
    const Assembly& assembly = motion.assembly();
    const QRectF area(0, 0, 600, 450);
    int seen = 0;
    for (const double deg : {45.0, 90.0, 160.0}) {
      const Pose pose = motion.poseAt(radians(deg));
      const Iso3 bench = benchPose(assembly, pose.opening_rad);
      const Camera camera = cameraAt(design.card, area, assembly, pose, bench);
      QImage image(600, 450, QImage::Format_RGB32);
      QPainter painter(&image);
      const auto drawn = paintStage(painter, area, assembly, pose, camera, StageStyle{});
      Lying lying(assembly, pose);
      std::vector<std::pair<PanelIndex, Iso3>> places;
      for (PanelIndex p : assembly.panels.indices())
        if (pose.placed[p]) places.emplace_back(p, drawnAt(p, pose, bench, lying));
      for (double x = 7.3; x < 600; x += 11)
        for (double y = 6.1; y < 450; y += 11) {
          const Ray ray = rayThrough(camera, {x, y});
          std::optional<PanelIndex> nearest;
          double far = 1e9, next = 1e9;
          bool atAnEdge = false;
          for (const auto& [panel, place] : places) {
            const auto hit = hitOf(ray, assembly.panels[panel].outline, place);
            if (!hit) continue;
            atAnEdge = atAnEdge || hit->toEdge_mm < 0.3;
            if (hit->far_mm < far)
              next = far, far = hit->far_mm, nearest = panel;
            else
              next = std::min(next, hit->far_mm);
          }
          const auto last = drawnAtPoint(drawn, {x, y});
          // Two sheets on one another, and edges, may come out either way.
          if (atAnEdge || next - far < 0.02) continue;
          QVERIFY2(last.has_value() == nearest.has_value() && last == nearest,
                   fmt::format("at {} {} of {} degrees: {} is drawn, {} is nearest ({} before {})",
                               x, y, deg, last ? assembly.panels[*last].key : "nothing",
                               nearest ? assembly.panels[*nearest].key : "nothing", far, next)
                       .c_str());
          seen += last.has_value();
        }
    }
    QVERIFY(seen > 300);
  }

  // --- room in a picture ---------------------------------------------------------------------
  void roomIsWhereNothingElseIs() {
    SeenMap map(QRectF(100, 50, 520, 260)); // two units a cell
    QVERIFY(!map.roomiest(5));
    QCOMPARE(map.empty(QRectF(100, 50, 520, 260)), 1.0);
    map.fill(box(200, 100, 120, 80), 5);
    QVERIFY_NEAR(map.seen(5), 120 * 80, 600);
    QCOMPARE(map.at({260, 140}), 5);
    QCOMPARE(map.at({150, 140}), SeenMap::kNothing);
    QCOMPARE(map.at({-1000, 140}), SeenMap::kNothing);

    const auto middle = map.roomiest(5);
    QVERIFY(middle);
    QVERIFY_NEAR(middle->at.y(), 140, 4);
    QVERIFY_NEAR(middle->room, 40, 4); // half of the lower side
    // What is painted over the left half leaves the right one.
    map.fill(box(200, 100, 70, 80), 6);
    const auto right = map.roomiest(5);
    QVERIFY(right && right->at.x() > 285 && right->at.x() < 305);
    QVERIFY_NEAR(right->room, 25, 3);
    map.take(QRectF(270, 100, 50, 80));
    QVERIFY(!map.roomiest(5));
    QCOMPARE(map.at({300, 140}), SeenMap::kTaken);
    QVERIFY_NEAR(map.empty(QRectF(140, 100, 120, 80)), 0.5, 0.03);
  }
  void aStrokeTakesItsWidth() {
    SeenMap map(QRectF(0, 0, 260, 260));
    map.fill(box(0, 0, 260, 260), 7);
    map.take(QPolygonF() << QPointF(30, 130) << QPointF(230, 130), 20);
    QVERIFY_NEAR(map.seen(SeenMap::kTaken), 200 * 20, 500);
    QCOMPARE(map.at({130, 130}), SeenMap::kTaken);
    QCOMPARE(map.at({130, 145}), 7);
  }

  // --- what the paper looks like -------------------------------------------------------------
  void plainCardHasNoCoat() {
    const Snapshot plain(demo("night-market"));
    const auto look = lookOf(plain);
    for (PanelIndex p : (*plain.assembly())->panels.indices())
      QVERIFY(look->coats(p, false).empty() && look->coats(p, true).empty());
  }
  void dressedPanelsWearTheirPapers() {
    const Snapshot dressed(demoAsItComes("night-market"));
    const auto look = lookOf(dressed);
    const auto worn = dressed.dressed();
    QVERIFY(look && worn);
    std::size_t layers = 0, grounds = 0;
    for (PanelIndex p : (*dressed.assembly())->panels.indices())
      for (const bool back : {false, true})
        for (const Coat& coat : look->coats(p, back)) {
          (coat.ground ? grounds : layers) += 1;
          QVERIFY(!coat.outline.isEmpty());
          QVERIFY(findPaper(dressed.design().papers, coat.paper.key));
        }
    std::size_t cut = 0;
    for (const DressedFace& face : *worn)
      cut += face.layers.size();
    QVERIFY(cut > 0 && layers >= cut);
  }
  void linesAreReadOnTheirSheet() {
    for (const Theme& theme : {Theme::light(), Theme::night()}) {
      for (const QColor& line : {theme.cut, theme.mountain, theme.valley})
        QVERIFY2(contrast(line, theme.sheet) >= 4.5, qPrintable(line.name()));
      for (const QColor& text :
           {theme.ink, theme.inkSoft, theme.accent, theme.trouble, theme.advice, theme.fine})
        for (const QColor& ground : {theme.surface, theme.raised, theme.field})
          QVERIFY2(contrast(text, ground) >= 4.5, qPrintable(text.name() + ground.name()));
      QVERIFY2(contrast(theme.accentInk, theme.accent) >= 4.5, qPrintable(theme.accent.name()));
      QVERIFY(theme.mountain != theme.valley);
    }
    QVERIFY(Theme::night().dark && !Theme::light().dark);
  }
};

QTEST_MAIN(TestViews)
#include "test_views.moc"
