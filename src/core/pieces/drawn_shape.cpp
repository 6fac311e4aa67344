// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/drawn_shape.h"
#include "core/base/nearest_word.h"
#include "core/geom/rim.h"
#include "core/paper/topper_shape.h"
#include "core/pieces/piece_sheet.h"
#include "core/pieces/sheet_edits.h"
#include <algorithm>
#include <cctype>
#include <vector>

namespace hinge {
namespace {

constexpr double kLeastShape_mm = 1, kLeastRing_mm = 0.5;

/// The same shape as wide and high as is said, about a middle.
Polygon filling(Polygon rim, const Vec2& middle, const Vec2& size_mm) {
  const Box2 box = boundsOf(rim);
  for (Vec2& p : rim)
    p = middle + (p - box.centre()).cwiseProduct(size_mm.cwiseQuotient(box.size()));
  return rim;
}

class ShapeReader {
public:
  ShapeReader(SheetScanner& in, const PieceWork& work)
      : m_in(in), m_work(work),
        m_corner(work.outline.empty() ? Vec2::Zero() : boundsOf(work.outline).low) {}

  Result<Polygon> run() {
    if (m_in.take("disc")) return disc();
    if (m_in.take("oval")) return boxed(&hinge::oval);
    if (m_in.take("rectangle"))
      return boxed([](const Vec2& middle, const Vec2& size) {
        return rectangle(middle - 0.5 * size, middle + 0.5 * size);
      });
    if (m_in.take("ring")) return ring();
    for (const TopperShape& shape : topperShapes())
      if (m_in.take(shape.key))
        return boxed([&](const Vec2& middle, const Vec2& size) {
          return *namedShape(shape.key, middle, size);
        });
    return corners();
  }

private:
  std::optional<Vec2> point() {
    const auto p = m_in.point();
    return p ? std::optional<Vec2>(*p + m_corner) : std::nullopt;
  }

  Result<Vec2> middle() {
    constexpr double kReach_mm = 0.5;
    if (!m_in.take("centred")) {
      const auto at = point();
      return at ? Result<Vec2>(*at) : m_in.lost("x,y, centred");
    }
    if (!m_in.take("on"))
      return m_work.outline.empty() ? Result<Vec2>(m_in.lost("x,y"))
                                    : Result<Vec2>(boundsOf(m_work.outline).centre());
    const auto on = point();
    if (!on) return m_in.lost("x,y");
    const auto found = middleOfWhat(m_work, *on, kReach_mm);
    if (found) return *found;
    const Vec2 named = *on - m_corner;
    return Error{{"sheet.nothing-at", Millimetres{named.x()}, Millimetres{named.y()}}, ""};
  }

  Result<Polygon> disc() {
    const auto at = middle();
    if (!at) return at.error();
    if (!m_in.take("across")) return m_in.lost("across");
    const auto across = m_in.length();
    if (!across) return m_in.lost("length");
    if (*across < kLeastShape_mm) return Error{{"sheet.radius", Millimetres{0.5 * *across}}, ""};
    return hinge::disc(*at, *across);
  }

  /// "P L x L": what fills a box about its middle.
  template <class Make> Result<Polygon> boxed(const Make& make) {
    const auto at = middle();
    if (!at) return at.error();
    const auto width = m_in.length();
    if (!width) return m_in.lost("length");
    if (!m_in.take("x")) return m_in.lost("x");
    const auto height = m_in.length();
    if (!height) return m_in.lost("length");
    if (!(*width >= kLeastShape_mm && *height >= kLeastShape_mm))
      return Error{
          {"sheet.size", Millimetres{*width}, Millimetres{*height}, Millimetres{kLeastShape_mm}},
          ""};
    return make(*at, Vec2(*width, *height));
  }

  /// Radii, and angles from the right, anticlockwise.
  Result<Polygon> ring() {
    const auto about = middle();
    if (!about) return about.error();
    double at[4] = {}; // inner, outer, towards, wide
    static constexpr std::string_view kBefore[] = {"from", "to", "towards", "wide"};
    for (std::size_t k = 0; k < 4; ++k) {
      if (!m_in.take(kBefore[k])) return m_in.lost(kBefore[k]);
      const auto value = k < 2 ? m_in.length() : m_in.angle_deg();
      if (!value) return m_in.lost(k < 2 ? "length" : "angle");
      at[k] = *value;
    }
    if (!(at[0] >= kLeastRing_mm && at[1] >= at[0] + kLeastRing_mm && at[3] >= 1))
      return Error{{"sheet.ring", Millimetres{at[0]}, Millimetres{at[1]}}, ""};
    return ringSegment(*about, at[0], at[1], at[2], at[3]);
  }

  /// A word that is no shape, with the one that was likely meant.
  Error noShape(std::string_view word) const {
    std::vector<std::string_view> known{"disc", "oval", "rectangle", "ring"};
    for (const TopperShape& shape : topperShapes())
      known.push_back(shape.key);
    const auto meant = nearestWord(word, known);
    return meant ? Error{{"sheet.no-shape", word, *meant}, ""}
                 : Error{{"sheet.no-shape/none", word}, ""};
  }

  Result<Polygon> corners() {
    const std::string_view word = m_in.nextWord();
    if (!word.empty() && std::isalpha(static_cast<unsigned char>(word.front())))
      return noShape(word);
    Polygon found;
    while (const auto p = point())
      found.push_back(*p);
    if (found.size() == 1 && m_in.take("to")) {
      const auto other = point();
      if (!other) return m_in.lost("x,y");
      return rectangle(found.front(), *other);
    }
    if (found.size() < 3) return m_in.lost("x,y");
    return found;
  }

  SheetScanner& m_in;
  const PieceWork& m_work;
  Vec2 m_corner; ///< from which places are read
};

} // namespace

Result<Polygon> drawnShapeIn(SheetScanner& in, const PieceWork& work) {
  return ShapeReader(in, work).run();
}

std::optional<Vec2> middleOfWhat(const PieceWork& work, const Vec2& at, double reach_mm) {
  if (const auto line = lineAt(work, at, reach_mm))
    return Vec2(0.5 * (work.lines[*line].from + work.lines[*line].to));
  const PieceSheet parts(work);
  const std::size_t face = parts.faceAt(at);
  if (face == parts.parts.faces.size()) return std::nullopt;
  return boundsOf(parts.parts.faces[face].rim).centre();
}

Polygon oval(const Vec2& middle, const Vec2& size_mm) {
  // Squeezed, the chords of a disc only come nearer to what they stand for.
  return filling(disc(Vec2::Zero(), size_mm.maxCoeff()), middle, size_mm);
}

std::optional<Polygon> namedShape(std::string_view key, const Vec2& middle, const Vec2& size_mm) {
  const TopperShape* shape = findTopperShape(key);
  if (!shape) return std::nullopt;
  return filling(topperOutline(*shape, size_mm.x(), size_mm.y(), shape->usualDetail).rim, middle,
                 size_mm);
}

} // namespace hinge
