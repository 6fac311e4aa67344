// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/dress/seen.h"
#include "core/states/lift.h"
#include "core/states/lying.h"
#include "core/states/stand.h"
#include <array>
#include <cmath>

namespace hinge {
namespace {

constexpr int kCells = 200;               ///< along each side of a picture
constexpr int kPoints = 500;              ///< of a face, about
constexpr double kStep_rad = radians(15); ///< from one opening to the next
constexpr double kLowest = -0.05;         ///< of a direction on display, over the level table
constexpr double kEdgeOn = 0.02;          ///< a face that is seen more from its edge shows nothing
constexpr double kBehind_mm = 0.3 * Lying::kStep_mm;

/// A convex piece of a panel in space.
struct Part {
  PanelIndex panel;
  std::vector<Vec3> corners;
  Vec3 normal;
};

struct Scene {
  std::vector<Part> parts;
  IndexedVector<PanelIndex, Iso3> place; ///< with what panels lie off one another
  IndexedVector<PanelIndex, char> placed;
};

Scene sceneAt(const Assembly& assembly, const Pose& pose, std::span<const SheetOrder> order,
              const Iso3& table) {
  Scene scene;
  const Lying lying(assembly, pose, order);
  scene.place.assign(assembly.panels.size(), Iso3::Identity());
  scene.placed.assign(assembly.panels.size(), 0);
  for (PanelIndex p : assembly.panels.indices()) {
    if (!pose.placed[p]) continue;
    scene.placed[p] = 1;
    Iso3 place = pose.panels[p];
    place.pretranslate(lying.off_mm(p));
    scene.place[p] = table * place;
    for (const Polygon& part : convexParts(assembly.panels[p].outline)) {
      Part made{p, {}, scene.place[p].linear().col(2)};
      for (const Vec2& corner : part)
        made.corners.push_back(scene.place[p] * lift(corner));
      scene.parts.push_back(std::move(made));
    }
  }
  return scene;
}

/// The card from one direction: which part is in front in each cell.
class Picture {
public:
  Picture(const Scene& scene, const Vec3& toEye) : m_scene(scene), m_eye(toEye) {
    const Vec3 up = std::abs(toEye.z()) < 0.9 ? Vec3(Vec3::UnitZ()) : Vec3(Vec3::UnitY());
    m_right = up.cross(toEye).normalized();
    m_up = toEye.cross(m_right);
    Box2 box;
    for (const Part& part : scene.parts) {
      Polygon& outline = m_outlines.emplace_back();
      for (const Vec3& corner : part.corners)
        outline.push_back(flat(corner));
      m_boxes.push_back(boundsOf(outline));
      // Seen from its edge a part has no depth, and is not asked for one.
      const double slant = part.normal.dot(m_eye);
      const double by = std::abs(slant) < kEdgeOn ? 0 : 1 / slant;
      m_planes.emplace_back(-by * part.normal.dot(m_right), -by * part.normal.dot(m_up),
                            by * part.normal.dot(part.corners.front()));
      box.add(m_boxes.back());
    }
    m_low = box.empty() ? Vec2::Zero() : box.low;
    m_cell = box.empty() ? 1 : std::max(1e-6, box.size().maxCoeff() / (kCells - 2));
    m_front.assign(static_cast<std::size_t>(kCells) * kCells, -1);
    m_depth.assign(m_front.size(), -1e300);
    for (std::size_t k = 0; k < scene.parts.size(); ++k)
      draw(static_cast<int>(k));
  }

  bool shows(PanelIndex panel, const Vec3& point) const {
    const Vec2 at = flat(point);
    const int column = cell(at.x() - m_low.x()), row = cell(at.y() - m_low.y());
    bool sure = true;
    for (int dy = -1; dy <= 1; ++dy)
      for (int dx = -1; dx <= 1; ++dx) {
        const int front = frontAt(column + dx, row + dy);
        if (front < 0 || m_scene.parts[static_cast<std::size_t>(front)].panel != panel)
          sure = false;
      }
    return sure || !hidden(panel, point, at);
  }

private:
  Vec2 flat(const Vec3& p) const { return {m_right.dot(p), m_up.dot(p)}; }
  int cell(double from_mm) const { return 1 + static_cast<int>(std::floor(from_mm / m_cell)); }
  Vec2 middleOf(int column, int row) const {
    return m_low + m_cell * Vec2(column - 0.5, row - 0.5);
  }
  int frontAt(int column, int row) const {
    if (column < 0 || row < 0 || column >= kCells || row >= kCells) return -1;
    return m_front[static_cast<std::size_t>(row) * kCells + static_cast<std::size_t>(column)];
  }
  /// How near to the eye the plane of a part is over a place of the picture.
  double depthAt(std::size_t index, const Vec2& at) const {
    const Vec3& plane = m_planes[index];
    return plane.z() + plane.x() * at.x() + plane.y() * at.y();
  }

  void draw(int index) {
    const Part& part = m_scene.parts[static_cast<std::size_t>(index)];
    if (std::abs(part.normal.dot(m_eye)) < kEdgeOn) return;
    const Polygon& outline = m_outlines[static_cast<std::size_t>(index)];
    const Box2& box = m_boxes[static_cast<std::size_t>(index)];
    const int low = std::max(0, cell(box.low.y() - m_low.y())),
              high = std::min(kCells - 1, cell(box.high.y() - m_low.y()));
    for (int row = low; row <= high; ++row) {
      const double y = middleOf(0, row).y();
      double from = 1e300, to = -1e300; // the part is convex: one stretch a row
      for (std::size_t k = 0; k < outline.size(); ++k) {
        const Vec2 &a = outline[k], &b = outline[(k + 1) % outline.size()];
        if ((a.y() <= y) == (b.y() <= y)) continue;
        const double x = a.x() + (y - a.y()) / (b.y() - a.y()) * (b.x() - a.x());
        from = std::min(from, x), to = std::max(to, x);
      }
      fill(index, row, from, to);
    }
  }
  void fill(int index, int row, double from, double to) {
    for (int column = std::max(0, cell(from - m_low.x()));
         column <= std::min(kCells - 1, cell(to - m_low.x())); ++column) {
      const Vec2 at = middleOf(column, row);
      if (at.x() < from || at.x() > to) continue;
      const auto k = static_cast<std::size_t>(row) * kCells + static_cast<std::size_t>(column);
      if (const double depth = depthAt(static_cast<std::size_t>(index), at); depth > m_depth[k])
        m_depth[k] = depth, m_front[k] = index;
    }
  }

  /// Where the cells round a point do not agree, or another panel is in front in one of them, all
  /// parts that are in front near it are asked.
  bool hidden(PanelIndex panel, const Vec3& point, const Vec2& at) const {
    const double own = m_eye.dot(point);
    const int column = cell(at.x() - m_low.x()), row = cell(at.y() - m_low.y());
    // First the likely one.
    const int front = frontAt(column, row);
    if (front >= 0 && covers(static_cast<std::size_t>(front), panel, at, own)) return true;
    for (std::size_t k = 0; k < m_scene.parts.size(); ++k)
      if (covers(k, panel, at, own)) return true;
    return false;
  }
  bool covers(std::size_t index, PanelIndex panel, const Vec2& at, double own) const {
    const Box2& box = m_boxes[index];
    if (at.x() < box.low.x() || at.x() > box.high.x() || at.y() < box.low.y() ||
        at.y() > box.high.y())
      return false;
    const Part& part = m_scene.parts[index];
    if (part.panel == panel || std::abs(part.normal.dot(m_eye)) < kEdgeOn) return false;
    if (depthAt(index, at) < own + kBehind_mm) return false;
    const Polygon& outline = m_outlines[index];
    double side = 0;
    for (std::size_t k = 0; k < outline.size(); ++k) {
      const Vec2 &a = outline[k], &b = outline[(k + 1) % outline.size()];
      const double turn = cross2(b - a, at - a);
      if (side * turn < 0) return false;
      if (turn != 0) side = turn;
    }
    return true;
  }

  const Scene& m_scene;
  const Vec3 m_eye;
  Vec3 m_right, m_up;
  Vec2 m_low;
  double m_cell = 1;
  std::vector<Polygon> m_outlines; ///< of the parts, as they are seen
  std::vector<Box2> m_boxes;
  std::vector<Vec3> m_planes; ///< depth over the picture: by x, by y, at its origin
  std::vector<int> m_front;
  std::vector<double> m_depth;
};

/// Points spread evenly over a face, in its piece (the sequence R2: Roberts 2018, "The unreasonable
/// effectiveness of quasirandom sequences").
std::vector<Vec2> pointsOn(const Assembly& assembly, const Face& face) {
  const Region& outline = assembly.panels[face.panel].outline;
  const Box2 box = boundsOf(outline);
  const double share = area_mm2(outline) / std::max(1e-9, box.size().prod());
  const int tries = static_cast<int>(kPoints / std::clamp(share, 0.05, 1.0));
  std::vector<Vec2> points;
  for (int k = 1; k <= tries; ++k) {
    const Vec2 share01(std::fmod(0.5 + 0.7548776662466927 * k, 1.0),
                       std::fmod(0.5 + 0.5698402909980532 * k, 1.0));
    const Vec2 at = box.low + share01.cwiseProduct(box.size());
    if (contains(outline, at)) points.push_back(at);
  }
  return points;
}

struct Watched {
  std::vector<Vec2> points;
  std::vector<char> displayed, opened;
};

void watch(const Scene& scene, const KeyedVector<FaceIndex, Face>& faces, bool onDisplay,
           std::vector<Watched>& watched, const std::stop_token& stop) {
  for (const Vec3& toEye : sightDirections()) {
    if (onDisplay && toEye.z() < kLowest) continue;
    if (stop.stop_requested()) return;
    const Picture picture(scene, toEye);
    for (FaceIndex f : faces.indices()) {
      const Face& face = faces[f];
      if (!scene.placed[face.panel]) continue;
      const Iso3& place = scene.place[face.panel];
      if ((face.back ? -1.0 : 1.0) * place.linear().col(2).dot(toEye) < kEdgeOn) continue;
      Watched& own = watched[static_cast<std::size_t>(f.value)];
      std::vector<char>& seen = onDisplay ? own.displayed : own.opened;
      for (std::size_t k = 0; k < own.points.size(); ++k)
        if (!seen[k] && picture.shows(face.panel, place * lift(own.points[k]))) seen[k] = 1;
    }
  }
}

double shareOf(const std::vector<char>& seen) {
  if (seen.empty()) return 0;
  return static_cast<double>(std::ranges::count(seen, char(1))) / static_cast<double>(seen.size());
}

std::vector<Vec3> icosahedronTwice() {
  const double g = 0.5 * (1 + std::sqrt(5.0));
  std::vector<Vec3> all;
  for (const double a : {-1.0, 1.0})
    for (const double b : {-g, g}) {
      all.push_back(Vec3(0, a, b).normalized());
      all.push_back(Vec3(a, b, 0).normalized());
      all.push_back(Vec3(b, 0, a).normalized());
    }
  const std::size_t corners = all.size();
  const double edge = 2 / std::sqrt(1 + g * g); // of the icosahedron in the unit sphere
  for (std::size_t i = 0; i < corners; ++i)
    for (std::size_t j = i + 1; j < corners; ++j)
      if ((all[i] - all[j]).norm() < edge + 1e-6) all.push_back((all[i] + all[j]).normalized());
  // Turned a little, so that none looks along a panel that stands square.
  const Eigen::Matrix3d turn =
      (Eigen::AngleAxisd(0.17, Vec3::UnitZ()) * Eigen::AngleAxisd(0.11, Vec3::UnitX()))
          .toRotationMatrix();
  for (Vec3& direction : all)
    direction = turn * direction;
  return all;
}

} // namespace

std::vector<SeenClass> seenClasses(const std::vector<FaceSeen>& seen) {
  std::vector<SeenClass> classes;
  for (const FaceSeen& face : seen)
    classes.push_back(face.seenAs());
  return classes;
}

double displayOpening_rad(const CardBase& card, const Assembly& assembly) {
  return std::clamp(radians(card.display_deg), assembly.low_rad, assembly.high_rad);
}

const std::vector<Vec3>& sightDirections() {
  static const std::vector<Vec3> all = icosahedronTwice();
  return all;
}

std::vector<FaceSeen> seenFaces(const Motion& motion, std::span<const SheetOrder> order,
                                const CardBase& card, const KeyedVector<FaceIndex, Face>& faces,
                                std::stop_token stop) {
  const Assembly& assembly = motion.assembly();
  std::vector<Watched> watched;
  for (const Face& face : faces) {
    Watched one{pointsOn(assembly, face), {}, {}};
    one.displayed.assign(one.points.size(), 0), one.opened.assign(one.points.size(), 0);
    watched.push_back(std::move(one));
  }
  const double shown = displayOpening_rad(card, assembly);
  const auto at = [&](double opening_rad, bool onDisplay) {
    const Pose pose = motion.poseAt(opening_rad);
    const Scene scene = sceneAt(assembly, pose, order, onTable(card, assembly, opening_rad));
    watch(scene, faces, onDisplay, watched, stop);
  };
  at(shown, true);
  for (Watched& one : watched)
    one.opened = one.displayed; // what is seen on display need not be looked for again
  // Quite shut, and quite open, whole structures lie in one plane.
  constexpr double kFlat_rad = radians(2);
  for (double opening = std::max(assembly.low_rad, kFlat_rad); opening < shown + kStep_rad;
       opening += kStep_rad)
    at(std::clamp(opening, assembly.low_rad, std::min(shown, kPi - kFlat_rad)), false);
  // What hands move shows more of itself, and of what it lies on, where they take it.
  for (const double share : {0.5, 1.0}) {
    if (assembly.lifts.empty()) break;
    Pose pose = motion.poseAt(shown);
    for (const Lift& lift : assembly.lifts)
      pose = lifted(assembly, pose, lift, share);
    watch(sceneAt(assembly, pose, order, onTable(card, assembly, shown)), faces, false, watched,
          stop);
  }
  if (stop.stop_requested()) return {};
  std::vector<FaceSeen> seen;
  for (const Watched& one : watched)
    seen.push_back({shareOf(one.displayed), shareOf(one.opened)});
  return seen;
}

} // namespace hinge
