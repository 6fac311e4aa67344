// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/bsp.h"
#include <algorithm>
#include <memory>

namespace hinge {
namespace {

constexpr double kOnPlane_mm = 1e-5;

struct Node {
  Vec3 normal;
  double level = 0;
  std::vector<SpaceFace> faces;
  std::unique_ptr<Node> front, back;
};

double distance(const Node& node, const Vec3& p) {
  return node.normal.dot(p) - node.level;
}

void split(const Node& node, const SpaceFace& face, SpaceFace& front, SpaceFace& back) {
  front = {{}, {}, face.normal, face.source};
  back = front;
  const std::size_t n = face.corners.size();
  for (std::size_t i = 0; i < n; ++i) {
    const Vec3 &a = face.corners[i], &b = face.corners[(i + 1) % n];
    const double da = distance(node, a), db = distance(node, b);
    const bool inFront = da > kOnPlane_mm, behind = da < -kOnPlane_mm, on = !inFront && !behind;
    const char edge = face.edges[i];
    if (inFront || on) front.corners.push_back(a), front.edges.push_back(edge);
    if (behind || on) back.corners.push_back(a), back.edges.push_back(edge);
    // The new edge runs along the cut and is no edge of the panel.
    if (on) {
      if (db < -kOnPlane_mm) front.edges.back() = 0;
      if (db > kOnPlane_mm) back.edges.back() = 0;
    }
    if ((inFront && db < -kOnPlane_mm) || (behind && db > kOnPlane_mm)) {
      const Vec3 cut = a + (b - a) * (da / (da - db));
      front.corners.push_back(cut), front.edges.push_back(inFront ? 0 : edge);
      back.corners.push_back(cut), back.edges.push_back(behind ? 0 : edge);
    }
  }
}

std::unique_ptr<Node> build(std::vector<SpaceFace> faces) {
  if (faces.empty()) return nullptr;
  // The largest face is the least likely to be cut by others and to cut them badly; it always goes
  // into its own node, so that a face that is slightly bent cannot be split for ever.
  std::size_t chosen = 0;
  double largest = -1;
  for (std::size_t i = 0; i < faces.size(); ++i) {
    double area = 0;
    for (std::size_t k = 1; k + 1 < faces[i].corners.size(); ++k)
      area += (faces[i].corners[k] - faces[i].corners[0])
                  .cross(faces[i].corners[k + 1] - faces[i].corners[0])
                  .norm();
    if (area > largest) largest = area, chosen = i;
  }
  auto node = std::make_unique<Node>();
  node->normal = faces[chosen].normal;
  node->level = node->normal.dot(faces[chosen].corners[0]);
  std::vector<SpaceFace> front, back;
  for (std::size_t i = 0; i < faces.size(); ++i) {
    SpaceFace& face = faces[i];
    double low = 0, high = 0;
    for (const Vec3& p : face.corners)
      low = std::min(low, distance(*node, p)), high = std::max(high, distance(*node, p));
    if (i == chosen || (low > -kOnPlane_mm && high < kOnPlane_mm))
      node->faces.push_back(std::move(face));
    else if (low > -kOnPlane_mm)
      front.push_back(std::move(face));
    else if (high < kOnPlane_mm)
      back.push_back(std::move(face));
    else {
      SpaceFace f, b;
      split(*node, face, f, b);
      if (f.corners.size() >= 3) front.push_back(std::move(f));
      if (b.corners.size() >= 3) back.push_back(std::move(b));
    }
  }
  faces.clear();
  node->front = build(std::move(front));
  node->back = build(std::move(back));
  return node;
}

void walk(const Node* node, const Vec3& eye, std::vector<SpaceFace>& out) {
  if (!node) return;
  const bool inFront = distance(*node, eye) > 0;
  walk(inFront ? node->back.get() : node->front.get(), eye, out);
  out.insert(out.end(), node->faces.begin(), node->faces.end());
  walk(inFront ? node->front.get() : node->back.get(), eye, out);
}

} // namespace

std::vector<SpaceFace> backToFront(std::vector<SpaceFace> faces, const Vec3& eye) {
  std::erase_if(faces, [](const SpaceFace& f) {
    return f.corners.size() < 3 || !f.normal.allFinite() || f.normal.norm() < 0.5;
  });
  std::vector<SpaceFace> out;
  const auto root = build(std::move(faces));
  walk(root.get(), eye, out);
  return out;
}

} // namespace hinge
