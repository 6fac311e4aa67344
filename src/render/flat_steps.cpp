// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/flat_steps.h"
#include "core/pieces/splicing.h"
#include "core/structures/names.h"
#include "core/units/length.h"
#include "render/flat_painter.h"
#include "render/picture_rows.h"
#include "words/words.h"
#include <QFontMetricsF>
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

/// One piece on the table, from its face or from its back.
struct Item {
  const FlatPiece* piece;
  bool back = false;
  QRectF cell; ///< where it goes, its name included
  QTransform toPixels;
};

class FlatStep {
public:
  FlatStep(QPainter& painter, const QRectF& area, const PlannedWork& work, const WorkStep& step,
           const MakingStyle& style)
      : p(painter), m_area(area), m_work(work), m_design(work.design()),
        m_assembly(work.assembly()), m_faces(*work.snapshot->faces()), m_step(step),
        m_style(style) {}

  void run() {
    choose();
    if (m_items.empty()) return;
    const bool marking = m_step.kind == WorkKind::Pencil;
    const QRectF table(m_area.right() - 0.34 * m_area.width(), m_area.top(), 0.34 * m_area.width(),
                       m_area.height());
    if (marking) m_area.setRight(table.left());
    lay();
    for (const Item& item : m_items)
      paintItem(item);
    if (marking) pointTable(table);
  }

private:
  void add(PieceIndex piece, bool back) {
    for (const Item& item : m_items)
      if (item.piece->piece == piece && item.back == back) return;
    for (const FlatPiece& flat : *m_work.snapshot->flatPieces())
      if (flat.piece == piece) m_items.push_back({&flat, back, {}, {}});
  }

  /// Which sides of which pieces lie there.
  void choose() {
    if (m_step.kind == WorkKind::Cross || m_step.kind == WorkKind::Dress)
      for (FaceIndex f : m_step.faces)
        add(m_assembly.panels[m_faces[f].panel].piece, m_faces[f].back);
    else if (m_step.kind == WorkKind::Measure)
      add(m_assembly.panels[glue().host].piece, !glue().onHostFace());
    else
      for (PieceIndex piece : m_step.pieces)
        add(piece, false);
  }

  const Glue& glue() const { return std::get<Glue>(m_assembly.joints[m_step.joints.front()]); }

  void lay() {
    std::vector<QSizeF> boxes;
    for (const Item& item : m_items) {
      const Vec2 size = item.piece->bounds.size();
      boxes.push_back(QSizeF(size.x(), size.y()));
    }
    std::vector<QPointF> corners;
    const double text = kNameLine * m_style.unit;
    m_scale = PictureRows(m_area, text, 12 * m_style.unit).lay(boxes, corners);
    for (std::size_t k = 0; k < m_items.size(); ++k) {
      Item& item = m_items[k];
      const Box2& box = item.piece->bounds;
      item.cell = QRectF(corners[k], boxes[k] * m_scale + QSizeF(0, text));
      // What is turned over is turned about its upright middle.
      item.toPixels =
          item.back ? QTransform(-m_scale, 0, 0, -m_scale, corners[k].x() + m_scale * box.high.x(),
                                 corners[k].y() + m_scale * box.high.y())
                    : QTransform(m_scale, 0, 0, -m_scale, corners[k].x() - m_scale * box.low.x(),
                                 corners[k].y() + m_scale * box.high.y());
    }
  }

  /// Lines of one kind, and nothing else of the piece.
  static FlatPiece only(const FlatPiece& piece, bool scores) {
    FlatPiece some = piece;
    std::erase_if(some.lines,
                  [&](const FlatLine& line) { return (line.kind != LineKind::Cut) != scores; });
    return some;
  }

  FlatPiece asSeen(const Item& item) const {
    FlatPiece flat = *item.piece;
    if (item.back)
      for (FlatLine& line : flat.lines)
        if (line.kind != LineKind::Cut)
          line.kind = line.kind == LineKind::Mountain ? LineKind::Valley : LineKind::Mountain;
    return flat;
  }

  void paintItem(const Item& item) {
    const bool scoring = m_step.kind == WorkKind::Score,
               cutting = m_step.kind == WorkKind::Cut || m_step.kind == WorkKind::Slice;
    const FlatPiece flat = asSeen(item);
    FlatStyle quiet;
    quiet.lineWidth_px = 0.8 * m_style.unit;
    quiet.glue = false;
    quiet.marks = m_step.kind == WorkKind::Pencil && !item.back;
    paintFlatPiece(p, m_assembly, flat, item.toPixels, quiet);
    if (scoring || cutting) {
      FlatStyle strong = quiet;
      strong.fillSheet = strong.marks = false;
      strong.lineWidth_px = 2.2 * m_style.unit;
      paintFlatPiece(p, m_assembly, only(flat, scoring), item.toPixels, strong);
    }
    switch (m_step.kind) {
    case WorkKind::Cross: crosses(item); break;
    case WorkKind::Dress: layers(item); break;
    case WorkKind::Splice: splice(item); break;
    case WorkKind::Pencil: points(item); break;
    case WorkKind::Measure: measure(item); break;
    default: break;
    }
    if (!item.back && m_step.kind != WorkKind::Measure && m_step.kind != WorkKind::Pencil) {
      FlatPiece letters = *item.piece;
      std::erase_if(letters.labels, [](const FlatLabel& label) { return !label.panel.valid(); });
      paintLabels(p, m_design, m_assembly, letters, item.toPixels, m_scale, m_style.ink);
    }
    name(item);
  }

  void name(const Item& item) {
    std::string text = say(pieceName(m_design, m_assembly, item.piece->piece));
    if (item.back) text = say(Text("picture.back", Text("as-it-is", text)));
    writeName(p, item.cell.center().x(), item.cell.bottom() - kNameLine * m_style.unit,
              item.cell.width(), text, m_style);
  }

  void crosses(const Item& item) {
    const QPen pen(m_style.move, 2.4 * m_style.unit, Qt::SolidLine, Qt::RoundCap);
    for (FaceIndex f : m_step.faces)
      if (m_faces[f].back == item.back &&
          m_assembly.panels[m_faces[f].panel].piece == item.piece->piece)
        paintCross(p, m_assembly.panels[m_faces[f].panel].outline, item.toPixels, pen, 9);
  }

  void layers(const Item& item) {
    for (const DressedFace& wears : *m_work.snapshot->dressed()) {
      const Face& face = m_faces[wears.face];
      if (std::ranges::count(m_step.faces, wears.face) == 0 || face.back != item.back ||
          m_assembly.panels[face.panel].piece != item.piece->piece)
        continue;
      for (const CutLayer& layer : wears.layers)
        for (const Region& part : layer.parts) {
          const QPainterPath path = toPath(mapped(part, face.toPiece), item.toPixels);
          p.setBrush(m_style.fresh);
          p.setPen(QPen(m_style.ink, 2 * m_style.unit));
          p.drawPath(path);
        }
    }
  }

  void splice(const Item& item) {
    const auto laid = laidSplice(m_assembly, m_design.splices[m_step.splice]);
    if (!laid) return;
    p.setPen(QPen(m_style.ink, 2.1 * m_style.unit));
    p.setBrush(m_style.fresh);
    p.drawPath(toPath(laid->tab, item.toPixels));
    hatch(p, toPath(laid->tab, item.toPixels), m_style.glue, 4.5 * m_style.unit,
          1.6 * m_style.unit);
  }

  /// The number where nothing else is written yet: beside the line, or along it further on.
  void writeBeside(const QPointF& a, const QPointF& b, const QString& text) {
    const QFontMetricsF metrics(p.font());
    const QSizeF size(metrics.horizontalAdvance(text), metrics.height());
    const QLineF line(a, b);
    const QPointF aside = QPointF(-line.dy(), line.dx()) / std::max(1.0, line.length());
    for (double along : {0.5, 0.0, 1.0, -1.0, 2.0, -2.0, 3.0, -4.0, 5.0})
      for (double side : {1.0, -1.0}) {
        const QPointF middle =
            line.pointAt(along) +
            side * aside *
                (0.5 * (std::abs(aside.x()) * size.width() + std::abs(aside.y()) * size.height()) +
                 3 * m_style.unit);
        const QRectF box(middle - QPointF(0.5 * size.width(), 0.5 * size.height()), size);
        if (std::ranges::any_of(m_written, [&](const QRectF& r) { return r.intersects(box); }))
          continue;
        m_written.push_back(box);
        p.fillRect(box, QColor(255, 255, 255, 200));
        p.drawText(box, Qt::AlignCenter, text);
        return;
      }
  }

  QString length(double mm) const {
    return QString::fromStdString(formatLength(mm, m_design.settings.unit));
  }

  void line(const QPointF& a, const QPointF& b, double strength) {
    p.setPen(QPen(m_style.move, strength * m_style.unit, Qt::SolidLine, Qt::FlatCap));
    p.drawLine(a, b);
    const QLineF all(a, b);
    const QPointF aside = QPointF(-all.dy(), all.dx()) / std::max(1.0, all.length());
    for (const QPointF& end : {a, b})
      p.drawLine(end - 4 * m_style.unit * aside, end + 4 * m_style.unit * aside);
  }

  /// Numbered crosses, with thin lines to the two borders from which they are measured.
  void points(const Item& item) {
    const double cross = 5 * m_style.unit;
    for (std::size_t k = 0; k < m_step.points.size(); ++k) {
      const PencilPoint& point = m_step.points[k];
      const Panel& panel = m_assembly.panels[point.panel];
      if (panel.piece != item.piece->piece) continue;
      const Vec2 low = boundsOf(panel.outline).low, at = low + point.from_mm;
      const auto map = [&](double x, double y) { return item.toPixels.map(QPointF(x, y)); };
      const QPointF here = map(at.x(), at.y());
      p.setPen(QPen(m_style.soft, 0.7 * m_style.unit));
      p.drawLine(map(low.x(), at.y()), here);
      p.drawLine(map(at.x(), low.y()), here);
      p.setPen(QPen(m_style.move, 2 * m_style.unit));
      p.drawLine(here - QPointF(cross, 0), here + QPointF(cross, 0));
      p.drawLine(here - QPointF(0, cross), here + QPointF(0, cross));
      m_written.push_back(QRectF(here - QPointF(cross, cross), QSizeF(2 * cross, 2 * cross)));
    }
    for (std::size_t k = 0; k < m_step.points.size(); ++k) {
      const PencilPoint& point = m_step.points[k];
      const Panel& panel = m_assembly.panels[point.panel];
      if (panel.piece != item.piece->piece) continue;
      const Vec2 at = boundsOf(panel.outline).low + point.from_mm;
      p.setFont(m_style.font(12));
      p.setPen(m_style.ink);
      writeAround(item.toPixels.map(QPointF(at.x(), at.y())), QString::number(k + 1));
    }
  }

  /// A number near a point, where nothing is written yet.
  void writeAround(const QPointF& at, const QString& text) {
    const QFontMetricsF metrics(p.font());
    const QSizeF size(metrics.horizontalAdvance(text), 0.75 * metrics.height());
    for (double far : {11.0, 17.0, 24.0})
      for (double angle : {-0.7, 0.7, 2.4, -2.4, 0.0, 3.14, 1.57, -1.57}) {
        const QRectF box(at + far * m_style.unit * QPointF(std::cos(angle), std::sin(angle)) -
                             QPointF(0.5 * size.width(), 0.5 * size.height()),
                         size);
        if (std::ranges::any_of(m_written, [&](const QRectF& r) { return r.intersects(box); }))
          continue;
        m_written.push_back(box);
        paintLetters(p, box.center(), text, m_style, 12);
        return;
      }
  }

  /// How far every cross lies from the left and the lower border, beside the pieces.
  void pointTable(const QRectF& area) {
    const double row = std::min(22 * m_style.unit,
                                area.height() / (1.0 + static_cast<double>(m_step.points.size())));
    QFont font = m_style.font(13);
    font.setPixelSize(std::max(1, static_cast<int>(0.62 * row)));
    double y = area.center().y() - 0.5 * row * (1.0 + static_cast<double>(m_step.points.size()));
    // The widest number has room.
    for (const PencilPoint& point : m_step.points)
      for (double mm : {point.from_mm.x(), point.from_mm.y()})
        while (font.pixelSize() > 2 &&
               QFontMetricsF(font).horizontalAdvance(length(mm)) > 0.38 * area.width())
          font.setPixelSize(font.pixelSize() - 1);
    p.setFont(font);
    const auto write = [&](const QString& a, const QString& b, const QString& c) {
      const double w = area.width();
      p.drawText(QRectF(area.left(), y, 0.14 * w, row), Qt::AlignVCenter | Qt::AlignRight, a);
      p.drawText(QRectF(area.left() + 0.18 * w, y, 0.4 * w, row), Qt::AlignVCenter | Qt::AlignRight,
                 b);
      p.drawText(QRectF(area.left() + 0.6 * w, y, 0.4 * w, row), Qt::AlignVCenter | Qt::AlignRight,
                 c);
      y += row;
    };
    p.setPen(m_style.move);
    write(QStringLiteral("+"), QStringLiteral("|\u2192"), QStringLiteral("\u2191"));
    p.setPen(m_style.ink);
    for (std::size_t k = 0; k < m_step.points.size(); ++k)
      write(QString::number(k + 1), length(m_step.points[k].from_mm.x()),
            length(m_step.points[k].from_mm.y()));
  }

  void measure(const Item& item) {
    p.setPen(QPen(m_style.ink, 2.1 * m_style.unit));
    p.setBrush(m_style.fresh);
    for (const Region& part : gluedOf(m_assembly, glue())) {
      p.drawPath(toPath(mapped(part, glue().tabToHost), item.toPixels));
      m_written.push_back(toPath(mapped(part, glue().tabToHost), item.toPixels).boundingRect());
    }
    const auto map = [&](const Vec2& v) { return item.toPixels.map(QPointF(v.x(), v.y())); };
    m_written.push_back(
        item.cell.adjusted(0, item.cell.height() - 20 * m_style.unit, 0, 8 * m_style.unit));
    const QPointF a = map(m_step.between.first), b = map(m_step.between.second);
    line(a, b, 2);
    p.setPen(m_style.ink);
    p.setFont(m_style.font(24));
    writeBeside(a, b, length(m_step.number_mm));
  }

  QPainter& p;
  QRectF m_area;
  const PlannedWork& m_work;
  const Design& m_design;
  const Assembly& m_assembly;
  const KeyedVector<FaceIndex, Face>& m_faces;
  const WorkStep& m_step;
  const MakingStyle& m_style;
  std::vector<Item> m_items;
  std::vector<QRectF> m_written;
  double m_scale = 1;
};

} // namespace

void paintFlatStep(QPainter& painter, const QRectF& area, const PlannedWork& work,
                   const WorkStep& step, const MakingStyle& style) {
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  FlatStep(painter, area, work, step, style).run();
  painter.restore();
}

} // namespace hinge
