// SPDX-License-Identifier: GPL-3.0-or-later
#include "seeds.h"
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/bring_in.h"
#include "core/io/drawing.h"
#include "core/io/flatten.h"
#include "core/io/fold_file.h"
#include "core/io/svg_path.h"
#include "core/model/snapshot.h"
#include "core/pieces/sheet_words.h"
#include "render/sheets_dxf.h"
#include "render/sheets_svg.h"
#include <QDir>
#include <random>
#endif

using namespace hinge;
using namespace hinge::test;

// Paper from outside: drawings in SVG, DXF and FOLD, lists of scores, and what is not understood.

namespace {

Drawing svg(const std::string& inside, const char* head = "width=\"100mm\" height=\"80mm\" "
                                                          "viewBox=\"0 0 100 80\"") {
  const auto drawing = drawingFromSvg(
      fmt::format("<svg xmlns=\"http://www.w3.org/2000/svg\" {}>\n{}\n</svg>", head, inside));
  if (!drawing) qFatal("%s", hinge::say(drawing.error()).c_str());
  return *drawing;
}
std::string svgRefusal(const std::string& text) {
  const auto drawing = drawingFromSvg(text);
  return drawing ? "" : drawing.error().message.key + " " + drawing.error().place;
}
Box2 boundsOfAll(const Drawing& drawing) {
  Box2 box;
  for (const DrawnLine& line : drawing.lines)
    for (const Vec2& p : line.points)
      box.add(p);
  return box;
}
PieceWork only(const Drawing& drawing) {
  const auto pieces = piecesOf(drawing, likelyUses(drawing));
  if (!pieces) qFatal("%s", hinge::say(pieces.error()).c_str());
  return pieces->front();
}

std::string dxf(const std::string& entities, int unit = 4) {
  return fmt::format("0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n{}\n0\nENDSEC\n0\nSECTION\n2\n"
                     "ENTITIES\n{}0\nENDSEC\n0\nEOF\n",
                     unit, entities);
}

/// What of a piece a drawing can carry, for comparing: areas and lengths that do not hang on where
/// it lies.
struct Measures {
  std::size_t pieces = 0, windows = 0;
  double paper = 0, folds = 0, mountains = 0, cuts = 0;
};
Measures measuresOf(const std::vector<PieceWork>& pieces) {
  Measures m;
  m.pieces = pieces.size();
  for (const PieceWork& piece : pieces) {
    m.paper += std::abs(signedArea_mm2(piece.outline));
    for (const Polygon& window : piece.windows)
      m.paper -= std::abs(signedArea_mm2(window)), ++m.windows;
    for (const WorkLine& line : piece.lines) {
      const double length = (line.to - line.from).norm();
      (line.kind == WorkLine::Kind::Cut ? m.cuts : m.folds) += length;
      if (line.kind == WorkLine::Kind::Mountain) m.mountains += length;
    }
  }
  return m;
}
/// The same of what is cut out for a card.
Measures measuresOf(const Snapshot& card) {
  Measures m;
  const Assembly& assembly = **card.assembly();
  for (const FlatPiece& piece : *card.flatPieces()) {
    ++m.pieces;
    for (PanelIndex p : assembly.pieces[piece.piece].panels)
      m.paper += area_mm2(assembly.panels[p].outline);
    for (const FlatLine& line : piece.lines)
      for (std::size_t k = 0; k + 1 < line.corners.size() && line.kind != LineKind::Cut; ++k) {
        const double length = (line.corners[k + 1] - line.corners[k]).norm();
        m.folds += length;
        if (line.kind == LineKind::Mountain) m.mountains += length;
      }
  }
  return m;
}

/// A path of the vector format, written command by command beside points of its curve.
struct WrittenPath {
  explicit WrittenPath(unsigned seed) : random(seed) { text = "M50 50", curve = {here}; }
  std::string text;
  std::vector<Vec2> curve;
  Vec2 here{50, 50}, control = here;
  char last = 'M'; ///< the control point before counts for 'C' and 'Q'
  std::mt19937 random;

  void addAny() {
    const char which = "LHVCSQTA"[std::uniform_int_distribution<int>(0, 7)(random)];
    relative = std::uniform_int_distribution<int>(0, 1)(random) != 0;
    text += relative ? static_cast<char>(std::tolower(which)) : which;
    switch (which) {
    case 'L': lineTo(write(any())); break;
    case 'H': lineTo({alongAxis(0), here.y()}); break;
    case 'V': lineTo({here.x(), alongAxis(1)}); break;
    case 'C':
    case 'S': {
      const Vec2 b = which == 'C' ? write(any()) : last == 'C' ? Vec2(2 * here - control) : here;
      const Vec2 c = write(any()), d = write(any());
      cubic(b, c, d);
      control = c, last = 'C';
      break;
    }
    case 'Q':
    case 'T': {
      const Vec2 b = which == 'Q' ? write(any()) : last == 'Q' ? Vec2(2 * here - control) : here;
      const Vec2 a = here, d = write(any());
      sample(
          [&](double t) { return Vec2((1 - t) * (1 - t) * a + 2 * t * (1 - t) * b + t * t * d); });
      here = d, control = b, last = 'Q';
      break;
    }
    default: arc();
    }
  }

private:
  bool relative = false;
  double between(double low, double high) {
    return std::uniform_real_distribution<double>(low, high)(random);
  }
  Vec2 any() { return {between(0, 100), between(0, 100)}; }
  Vec2 write(const Vec2& p) {
    const Vec2 said = relative ? Vec2(p - here) : p;
    text += fmt::format(" {:.17g},{:.17g}", said.x(), said.y());
    return p;
  }
  double alongAxis(int axis) {
    const double to = between(0, 100);
    text += fmt::format("{:.17g}", relative ? to - here[axis] : to);
    return to;
  }
  void lineTo(const Vec2& to) { curve.push_back(to), here = to, last = 'L'; }
  void sample(const std::function<Vec2(double)>& at) {
    for (int k = 1; k <= 800; ++k)
      curve.push_back(at(k / 800.0));
  }
  void cubic(const Vec2& b, const Vec2& c, const Vec2& d) {
    const Vec2 a = here;
    sample([&](double t) {
      const double u = 1 - t;
      return Vec2(u * u * u * a + 3 * u * u * t * b + 3 * u * t * t * c + t * t * t * d);
    });
    here = d;
  }
  /// From its middle, radii and angles; the format has its end and two choices instead.
  void arc() {
    const double rx = between(5, 40), ry = between(5, 40), tilt = between(-90, 90);
    const double from = between(-kPi, kPi),
                 turn = between(0.3, 5.9) * (between(-1, 1) < 0 ? -1 : 1);
    const Eigen::Rotation2Dd turned(radians(tilt));
    const auto on = [&](double angle) {
      return Vec2(turned * Vec2(rx * std::cos(angle), ry * std::sin(angle)));
    };
    const Vec2 middle = here - on(from), to = middle + on(from + turn);
    text += fmt::format(" {:.17g} {:.17g} {:.17g} {:d} {:d}", rx, ry, tilt, std::abs(turn) > kPi,
                        turn > 0);
    write(to);
    sample([&](double t) { return Vec2(middle + on(from + t * turn)); });
    here = to, last = 'A';
  }
};

/// Random damage: bytes changed, cut out, doubled.
std::string damaged(std::string text, std::mt19937& random) {
  const auto any = [&](std::size_t most) {
    return std::uniform_int_distribution<std::size_t>(0, most)(random);
  };
  static constexpr std::string_view kBits[] = {"<",  ">",   "\"",  "/",    "-",        "e308", "[",
                                               "]",  "{",   "}",   "0\n",  "99999999", "M",    "A",
                                               "\n", "nan", "<g>", "1e-9", "&lt;",     ","};
  for (std::size_t k = 0; k <= any(4); ++k) {
    const std::size_t at = any(text.size() - 1);
    switch (any(4)) {
    case 0: text[at] = static_cast<char>(any(255)); break;
    case 1: text.erase(at, 1 + any(20)); break;
    case 2: text.insert(at, kBits[any(std::size(kBits) - 1)]); break;
    case 3: text.insert(at, text.substr(at, any(200))); break;
    default: text.resize(at + 1); break;
    }
    if (text.empty()) text = " ";
  }
  return text;
}

} // namespace

class TestDrawings : public QObject {
  Q_OBJECT
  static constexpr int kMutations = 10'000;

private slots:
  // --- SVG -----------------------------------------------------------------------------------
  void unitsAndViewBoxesGiveMillimetres_data() {
    QTest::addColumn<QString>("head");
    QTest::addColumn<double>("width");
    const auto row = [](const char* head, double width) { QTest::newRow(head) << head << width; };
    row("width=\"100mm\" height=\"80mm\" viewBox=\"0 0 100 80\"", 50);
    row("width=\"10cm\" height=\"8cm\" viewBox=\"0 0 200 160\"", 25);
    row("width=\"4in\" height=\"4in\" viewBox=\"0 0 100 100\"", 50.8);
    row("viewBox=\"0 0 100 80\"", 50 * 25.4 / 96);
    row("width=\"300\" height=\"200\"", 50 * 25.4 / 96);
    row("width=\"100%\" height=\"100%\" viewBox=\"0 0 96 96\"", 50 * 25.4 / 96);
    row("width=\"200mm\" height=\"80mm\" viewBox=\"0 0 100 80\"", 50); // as wide as fits
  }
  void unitsAndViewBoxesGiveMillimetres() {
    QFETCH(QString, head);
    QFETCH(double, width);
    const Drawing drawing =
        svg("<rect x=\"10\" y=\"10\" width=\"50\" height=\"30\" stroke=\"black\"/>",
            head.toUtf8().constData());
    QVERIFY_NEAR(boundsOfAll(drawing).size().x(), width, 1e-9);
  }
  void upIsUp() {
    const PieceWork piece =
        only(svg("<path d=\"M0,80 H100 V0 L50,40 L0,0 Z\" fill=\"none\" stroke=\"#000\"/>"));
    // The notch is at the top.
    const Box2 box = boundsOf(piece.outline);
    QVERIFY_NEAR(box.low.y(), 0, 1e-9);
    QVERIFY(std::ranges::any_of(piece.outline,
                                [](const Vec2& p) { return (p - Vec2(50, 40)).norm() < 1e-9; }));
    QVERIFY(contains(piece.outline, Vec2(50, 10)) && !encloses(piece.outline, Vec2(50, 70)));
  }
  void everyPathCommandIsRead() {
    std::optional<std::size_t> wrong;
    const auto one = [&](const char* d) {
      const auto made = svgPath(d, 0.01, wrong);
      if (wrong || made.size() != 1) qFatal("%s", d);
      return made.front();
    };
    QCOMPARE(one("M1 2 3,4-5-6").points.size(), std::size_t(3));
    QCOMPARE(one("m1 1 h5v5H0V0z").points.size(), std::size_t(5));
    QVERIFY(one("m1 1 h5v5z").closed);
    QVERIFY_NEAR((one("M0 0 c0 10 10 10 10 0 s10-10 10 0").points.back() - Vec2(20, 0)).norm(), 0,
                 1e-9);
    // Quadratic and its smooth twin: two parabola arches, symmetric.
    const auto arches = one("M0 0 Q5 10 10 0 T20 0").points;
    double lowest = 0;
    for (const Vec2& p : arches)
      lowest = std::min(lowest, p.y());
    QVERIFY_NEAR(lowest, -5, 0.02);
    // A half circle by an arc, flags not parted from the numbers.
    const auto half = one("M0 0 a10 10 0 0120 0").points;
    for (const Vec2& p : half)
      QVERIFY_NEAR((p - Vec2(10, 0)).norm(), 10, 1e-9);
    QVERIFY(half[half.size() / 2].y() < -9); // y points down there: it goes round above
    // Radii that are too small grow.
    QVERIFY_NEAR((one("M0 0 A1 1 0 0 1 20 0").points.back() - Vec2(20, 0)).norm(), 0, 1e-9);
    QCOMPARE(svgPath("M0 0 L5 5 M1 1 L2 2", 0.01, wrong).size(), std::size_t(2));
    QVERIFY(svgPath("M0 0 L5 5 L6", 0.01, wrong).size() == 1 && wrong);
    QVERIFY(svgPath("5 5 L6 6", 0.01, wrong).empty() && wrong);
  }
  /// Paths written at random, in absolute and relative words, against their curves point by point.
  void pathsAreTheirCurves_data() { rowsOfSeeds(40); }
  void pathsAreTheirCurves() {
    QFETCH(unsigned, seed);
    WrittenPath path(seed);
    for (int k = 0; k < 12; ++k)
      path.addAny();
    std::optional<std::size_t> wrong;
    const auto made = svgPath(path.text, 0.02, wrong);
    QVERIFY2(!wrong && made.size() == 1, path.text.c_str());
    const std::vector<Vec2>& chords = made.front().points;
    const auto fromChords = [&](const Vec2& p) {
      double least = 1e300;
      for (std::size_t j = 0; j + 1 < chords.size(); ++j)
        least = std::min(least, distanceToSegment(p, chords[j], chords[j + 1]));
      return least;
    };
    for (const Vec2& p : path.curve)
      QVERIFY2(fromChords(p) <= 0.021, path.text.c_str());
    // The chords have no corner beside the curve, and not more of them than it needs.
    for (const Vec2& corner : chords) {
      double least = 1e300;
      for (std::size_t j = 0; j + 1 < path.curve.size(); ++j)
        least = std::min(least, distanceToSegment(corner, path.curve[j], path.curve[j + 1]));
      QVERIFY2(least <= 0.02, path.text.c_str());
    }
    QVERIFY_NEAR((chords.back() - path.here).norm(), 0, 1e-6);
    QVERIFY(chords.size() < path.curve.size() / 2);
  }
  void arcsWithoutExtentAreLines() {
    std::optional<std::size_t> wrong;
    for (const char* flat : {"M1 2 A0 5 0 0 1 20 30 L40 2", "M1 2 A5 0 0 1 1 20 30 L40 2",
                             "M1 2 L20 30 A9 9 0 0 1 20 30 L40 2"}) {
      const auto made = svgPath(flat, 0.02, wrong);
      QVERIFY2(!wrong && made.size() == 1, flat);
      std::vector<Vec2> points = made.front().points;
      points.erase(std::unique(points.begin(), points.end()), points.end());
      QCOMPARE(points.size(), std::size_t(3));
      QVERIFY_NEAR((points[1] - Vec2(20, 30)).norm(), 0, 1e-9);
    }
  }
  void transformsAreTheirMatrices() {
    const auto maps = [](const char* text, const Vec2& p, const Vec2& to) {
      const auto map = svgTransform(text);
      QVERIFY2(map, text);
      QVERIFY2((*map * p - to).norm() < 1e-9, text);
    };
    maps("translate(3)", {1, 2}, {4, 2});
    maps("translate(3,-5)", {1, 2}, {4, -3});
    maps("scale(3)", {1, 2}, {3, 6});
    maps("scale(3 , -2)", {1, 2}, {3, -4});
    maps("rotate(90)", {1, 2}, {-2, 1});
    maps("rotate(90 10 20)", {11, 22}, {8, 21});
    maps("skewX(45)", {1, 2}, {3, 2});
    maps("skewY(45)", {1, 2}, {1, 3});
    maps("rotate(90) translate(3,5)", {0, 0}, {-5, 3});
    maps("matrix(1,2,3,4,5,6) matrix(7,8,9,10,11,12)", {1, 1},
         {1 * 27 + 3 * 30 + 5, 2 * 27 + 4 * 30 + 6});
    maps("matrix(1,2,3,4,5,6)", {1, 2}, {12, 16});
    maps(" translate(10,0) , scale (2)\trotate(90)", {1, 2}, {6, 2});
    for (const char* wrong :
         {"translate()", "translate(1,2,3)", "scale(1,2,3)", "rotate(1,2)", "skewX(1,2)", "skewY()",
          "matrix(1,2,3,4,5)", "turn(3)", "scale(2", "scale 2)"})
      QVERIFY2(!svgTransform(wrong), wrong);
    QVERIFY_NEAR(svgTransform("scale(2,3)")->scale(), 3, 1e-9);
    QVERIFY_NEAR(svgTransform("scale(5,3)")->scale(), 5, 1e-9);
    QVERIFY_NEAR(svgTransform("rotate(30) scale(2)")->scale(), 2, 1e-9);
  }
  void roundedRectanglesAreTheirOutline_data() {
    QTest::addColumn<QString>("radii");
    QTest::addColumn<double>("rx");
    QTest::addColumn<double>("ry");
    QTest::newRow("both") << "rx=\"12\" ry=\"8\"" << 12.0 << 8.0;
    QTest::newRow("one for both") << "rx=\"9\"" << 9.0 << 9.0;
    QTest::newRow("the other for both") << "ry=\"7\"" << 7.0 << 7.0;
    QTest::newRow("no more than half") << "rx=\"100\" ry=\"100\"" << 30.0 << 20.0;
    QTest::newRow("none") << "" << 0.0 << 0.0;
  }
  void roundedRectanglesAreTheirOutline() {
    QFETCH(QString, radii);
    QFETCH(double, rx);
    QFETCH(double, ry);
    const Drawing drawing = svg("<rect x=\"10\" y=\"20\" width=\"60\" height=\"40\" " +
                                radii.toStdString() + " stroke=\"#000\"/>");
    QCOMPARE(drawing.lines.size(), std::size_t(1));
    const DrawnLine& line = drawing.lines.front();
    QVERIFY(line.closed);
    const Box2 box = boundsOfAll(drawing);
    QVERIFY_NEAR((box.low - Vec2(10, 20)).norm(), 0, 0.06);
    QVERIFY_NEAR((box.high - Vec2(70, 60)).norm(), 0, 0.06);
    QVERIFY_NEAR(std::abs(signedArea_mm2(line.points)), 60 * 40 - (4 - kPi) * rx * ry, 8);
    // Every corner lies on a side, or on the quarter of an ellipse nearest to it.
    for (const Vec2& p : line.points) {
      const Vec2 from = (p - Vec2(40, 40)).cwiseAbs() - Vec2(30 - rx, 20 - ry);
      if (from.x() > 1e-9 && from.y() > 1e-9 && rx > 0)
        QVERIFY_NEAR(std::hypot(from.x() / rx, from.y() / ry), 1, 0.02);
      else
        QVERIFY(std::abs(from.x() - rx) < 1e-6 || std::abs(from.y() - ry) < 1e-6);
    }
  }
  void shapesThatAreNoPaperAreLeftOut() {
    const Drawing drawing =
        svg("<rect width=\"0\" height=\"40\" stroke=\"#000\"/>"
            "<rect width=\"40\" height=\"0\" stroke=\"#000\"/>"
            "<circle r=\"0\" stroke=\"#000\"/><ellipse rx=\"4\" ry=\"0\" stroke=\"#000\"/>"
            "<ellipse rx=\"0\" ry=\"4\" stroke=\"#000\"/>"
            "<title>t</title><desc>d</desc><metadata>m</metadata><style></style>"
            "<clipPath><circle r=\"4\"/></clipPath><foreignThing/><foreignThing/>"
            "<polyline points=\"0,0 30,0 30,40\" stroke=\"#000\" fill=\"none\"/>"
            "<polygon points=\"0,0 30,0 30,40\" stroke=\"#000\" fill=\"none\"/>");
    QCOMPARE(drawing.lines.size(), std::size_t(2));
    QVERIFY(!drawing.lines[0].closed && drawing.lines[1].closed);
    QCOMPARE(drawing.unused.size(), std::size_t(2));
    QCOMPARE(drawing.unused.at("svg.unused/clip"), 1);
    QCOMPARE(drawing.unused.at("svg.unused/other"), 2);
  }
  void curvesLieNearTheirChords() {
    const Drawing drawing = svg("<circle cx=\"50\" cy=\"40\" r=\"30\" stroke=\"black\"/>"
                                "<path stroke=\"black\" d=\"M10 10 C 10 60 90 60 90 10 Z\"/>");
    for (const DrawnLine& line : drawing.lines) {
      const auto& points = line.points;
      for (std::size_t k = 0; k + 1 < points.size(); ++k) {
        const Vec2 middle = 0.5 * (points[k] + points[k + 1]);
        if (&line == &drawing.lines[0])
          QVERIFY(std::abs((middle - Vec2(50, 40)).norm() - 30) <= kChordOff_mm + 1e-9);
      }
      QVERIFY(points.size() > 12 && points.size() < 200);
    }
    // Bezier: every point of the curve near a chord.
    const auto& chords = drawing.lines[1].points;
    for (int k = 0; k <= 400; ++k) {
      const double t = k / 400.0, u = 1 - t;
      const Vec2 p = u * u * u * Vec2(10, 70) + 3 * u * u * t * Vec2(10, 20) +
                     3 * u * t * t * Vec2(90, 20) + t * t * t * Vec2(90, 70);
      double least = 1e300;
      for (std::size_t j = 0; j + 1 < chords.size(); ++j)
        least = std::min(least, distanceToSegment(p, chords[j], chords[j + 1]));
      QVERIFY2(least <= kChordOff_mm, qPrintable(QString::number(least)));
    }
  }
  void groupsHandOnTransformsAndLooks() {
    const Drawing drawing =
        svg("<style>.fold { stroke: #00ff00; stroke-dasharray: 2 1 }</style>"
            "<g id=\"outer\" transform=\"translate(10,5) scale(2)\" stroke=\"#F00\" fill=\"none\">"
            "<rect width=\"20\" height=\"10\"/>"
            "<g transform=\"rotate(90)\"><line class=\"fold\" x1=\"0\" y1=\"-10\" x2=\"10\" "
            "y2=\"-10\"/></g>"
            "<g display=\"none\"><rect width=\"5\" height=\"5\"/></g></g>"
            "<g id=\"inside\"><path style=\"stroke:#123;fill:none\" d=\"M0 0 L5 5\"/></g>");
    QCOMPARE(drawing.lines.size(), std::size_t(3));
    QCOMPARE(QString::fromStdString(drawing.lines[0].look.layer), "outer");
    QCOMPARE(QString::fromStdString(drawing.lines[0].look.colour), "#ff0000");
    QVERIFY_NEAR(boundsOf(drawing.lines[0].points).size().x(), 40, 1e-9);
    QCOMPARE(QString::fromStdString(drawing.lines[1].look.dash), "2 1");
    QVERIFY_NEAR((drawing.lines[1].points[1] - Vec2(30, 80 - 25)).norm(), 0, 1e-9);
    QCOMPARE(QString::fromStdString(drawing.lines[2].look.colour), "#112233");
    const auto map = svgTransform("matrix(1 2 3 4 5 6) skewX(45)");
    QVERIFY(map && std::abs(map->c - 4) < 1e-9 && std::abs(map->d - 6) < 1e-9);
    QVERIFY(!svgTransform("spin(4)") && !svgTransform("rotate(1,2)"));
  }
  void layersAreNamedByTheirLabels() {
    const Drawing drawing =
        svg("<g xmlns:a=\"urn:any\" a:label=\"hill folds\" id=\"g7\" stroke=\"#000\">"
            "<line x2=\"9\"/></g><g label=\"none\" id=\"g8\" stroke=\"#000\"><line x2=\"9\"/></g>");
    QCOMPARE(QString::fromStdString(drawing.lines[0].look.layer), "hill folds");
    QCOMPARE(QString::fromStdString(drawing.lines[1].look.layer), "g8");
  }
  void aDrawingBecomesAPiece() {
    const PieceWork piece = only(
        svg("<g id=\"cut\" stroke=\"black\" fill=\"none\">"
            "<path d=\"M0 0 H60\"/><path d=\"M60 40 H0 V0\"/><path d=\"M60 0 V40\"/>"
            "<circle cx=\"15\" cy=\"20\" r=\"5\"/><line x1=\"40\" y1=\"10\" x2=\"50\" y2=\"10\"/>"
            "</g><g id=\"valley folds\" stroke=\"blue\"><line x1=\"30\" y1=\"0.05\" x2=\"30\" "
            "y2=\"39.96\"/></g><g id=\"labels\" stroke=\"red\"><line x1=\"0\" y1=\"0\" x2=\"9\" "
            "y2=\"9\"/></g>"));
    QCOMPARE(piece.outline.size(), std::size_t(4));
    QCOMPARE(piece.windows.size(), std::size_t(1));
    QCOMPARE(piece.lines.size(), std::size_t(2));
    QVERIFY(piece.lines[0].kind == WorkLine::Kind::Valley);
    // Drawn a little short, it reaches the rim.
    QVERIFY_NEAR(std::abs(piece.lines[0].to.y() - piece.lines[0].from.y()), 40, 1e-9);
    QVERIFY(piece.lines[1].kind == WorkLine::Kind::Cut);
  }
  void whatLinesAreIsAskedByTheirLooks() {
    const Drawing drawing = svg("<rect width=\"60\" height=\"40\" stroke=\"#000\" fill=\"none\"/>"
                                "<line x1=\"30\" y1=\"0\" x2=\"30\" y2=\"40\" stroke=\"#f0f\"/>");
    LineUses uses = likelyUses(drawing);
    QCOMPARE(uses.size(), std::size_t(2));
    QVERIFY(uses.begin()->second == LineUse::Cut);
    for (auto& [look, use] : uses)
      if (look.colour == "#ff00ff") use = LineUse::Mountain;
    const auto pieces = piecesOf(drawing, uses);
    QVERIFY(pieces.ok() && pieces->front().lines.size() == 1);
    QVERIFY(pieces->front().lines[0].kind == WorkLine::Kind::Mountain);
    for (auto& [look, use] : uses)
      use = LineUse::Nothing;
    const auto nothing = piecesOf(drawing, uses);
    QVERIFY(!nothing && nothing.error().message.key == "drawing.no-outline");
    QVERIFY(likelyUse({"Fold lines", "", ""}) == LineUse::Valley);
    QVERIFY(likelyUse({"", "", "3 2"}) == LineUse::Valley);
    QVERIFY(likelyUse({"Dimensions", "", ""}) == LineUse::Nothing);
  }
  void whatIsNoLineIsNamed() {
    const Drawing drawing =
        svg("<text>words</text><image href=\"x.png\"/><use href=\"#a\"/><script>1</script>"
            "<defs><rect width=\"5\" height=\"5\"/></defs>"
            "<rect width=\"60\" height=\"40\" stroke=\"#000\"/>");
    QCOMPARE(drawing.lines.size(), std::size_t(1));
    for (const char* what : {"text", "image", "use", "script"})
      QCOMPARE(drawing.unused.at(std::string("svg.unused/") + what), 1);
  }
  void brokenDrawingsAreRefusedWithTheirLine() {
    QCOMPARE(QString::fromStdString(svgRefusal("")), "svg.broken line 1");
    QCOMPARE(QString::fromStdString(svgRefusal("<html/>")), "svg.none line 1");
    QCOMPARE(
        QString::fromStdString(svgRefusal("<svg>\n<path d=\"M1 1 L 2 x\" stroke=\"red\"/></svg>")),
        "svg.path line 2");
    QCOMPARE(QString::fromStdString(svgRefusal("<svg>\n\n<g transform=\"bend(3)\"/></svg>")),
             "svg.transform line 3");
    QVERIFY(svgRefusal("<svg>\n<g>\n</svg>").starts_with("svg.broken line 3"));
    std::string deep = "<svg>";
    for (int k = 0; k < 200; ++k)
      deep += "<g>";
    QVERIFY(svgRefusal(deep).starts_with("drawing.deep"));
    QVERIFY(svgRefusal("<svg><line x1=\"0\" x2=\"1e9\" stroke=\"red\"/></svg>")
                .starts_with("drawing.far"));
    std::string bomb = "<!DOCTYPE svg [<!ENTITY a \"aaaaaaaaaa\">";
    for (char c = 'b'; c <= 'h'; ++c) {
      bomb += fmt::format("<!ENTITY {} \"", c);
      for (int k = 0; k < 10; ++k)
        bomb += fmt::format("&{};", static_cast<char>(c - 1));
      bomb += "\">";
    }
    QVERIFY(svgRefusal(bomb + "]><svg><text>&h;</text></svg>").starts_with("svg.broken"));
  }

  // --- DXF -----------------------------------------------------------------------------------
  void dxfEntitiesAreRead() {
    const auto read = drawingFromDxf(dxf(
        "0\nLINE\n8\nvalley\n10\n30\n20\n0\n11\n30\n21\n40\n"
        "0\nLWPOLYLINE\n8\ncut\n90\n4\n70\n1\n10\n0\n20\n0\n10\n60\n20\n0\n42\n1\n10\n60\n20\n40\n"
        "10\n0\n20\n40\n"
        "0\nCIRCLE\n8\ncut\n10\n15\n20\n20\n40\n5\n"
        "0\nARC\n8\nmarks\n10\n0\n20\n0\n40\n10\n50\n0\n51\n90\n"
        "0\nTEXT\n8\nlabels\n10\n0\n20\n0\n40\n3\n1\nhello\n"));
    QVERIFY2(read.ok(), read ? "" : hinge::say(read.error()).c_str());
    QCOMPARE(read->lines.size(), std::size_t(4));
    QCOMPARE(read->unused.at("dxf.unused/text"), 1);
    const PieceWork piece = only(*read);
    QCOMPARE(piece.windows.size(), std::size_t(1));
    QCOMPARE(piece.lines.size(), std::size_t(1));
    // A bulge of one is a half circle.
    QVERIFY_NEAR(std::abs(signedArea_mm2(piece.outline)), 60 * 40 + 0.5 * kPi * 400, 4);
    QVERIFY_NEAR(boundsOf(piece.outline).high.x(), 80, 0.06);
  }
  void dxfEllipsesAreTheirCurves() {
    const auto ellipse = [](const char* from, const char* to) {
      return drawingFromDxf(dxf(fmt::format("0\nELLIPSE\n8\ncut\n10\n50\n20\n40\n11\n24\n21\n"
                                            "18\n40\n0.5\n41\n{}\n42\n{}\n",
                                            from, to)));
    };
    const auto off = [](const Vec2& p) {
      const Vec2 x = Vec2(24, 18) / 900, y = Vec2(-18, 24) / 450, d = p - Vec2(50, 40);
      return std::hypot(x.dot(d), y.dot(d)) - 1;
    };
    const auto whole = ellipse("0", "6.283185307179586");
    QVERIFY(whole.ok() && whole->lines.size() == 1 && whole->lines[0].closed);
    for (const Vec2& p : whole->lines[0].points)
      QVERIFY_NEAR(off(p), 0, 1e-6);
    QVERIFY_NEAR(std::abs(signedArea_mm2(whole->lines[0].points)), kPi * 30 * 15, 8);
    QVERIFY((whole->lines[0].points.front() - whole->lines[0].points.back()).norm() > 0.1);
    // From the quarter to the half, and across the start: anticlockwise.
    const auto quarter = ellipse("1.5707963267948966", "3.141592653589793");
    QVERIFY(quarter.ok() && quarter->lines.size() == 1 && !quarter->lines[0].closed);
    QVERIFY_NEAR((quarter->lines[0].points.front() - Vec2(41, 52)).norm(), 0, 1e-6);
    QVERIFY_NEAR((quarter->lines[0].points.back() - Vec2(26, 22)).norm(), 0, 1e-6);
    for (const Vec2& p : quarter->lines[0].points)
      QVERIFY_NEAR(off(p), 0, 1e-6);
    const auto across = ellipse("4.71238898038469", "1.5707963267948966");
    QVERIFY(across.ok());
    QVERIFY_NEAR((across->lines[0].points.front() - Vec2(59, 28)).norm(), 0, 1e-6);
    QVERIFY(std::ranges::any_of(across->lines[0].points, [](const Vec2& p) {
      return (p - Vec2(74, 58)).norm() < 3; // the end of the long axis
    }));
    QCOMPARE(ellipse("1e9", "2")->unused.at("dxf.unused/ellipse"), 1);
    QCOMPARE(ellipse("1", "1e9")->unused.at("dxf.unused/ellipse"), 1);
  }
  void dxfSplinesAreTheirCurves() {
    const auto read = drawingFromDxf(dxf(
        "0\nSPLINE\n8\ncut\n70\n8\n71\n3\n72\n8\n73\n4\n74\n0\n40\n0\n40\n0\n40\n0\n40\n0\n"
        "40\n1\n40\n1\n40\n1\n40\n1\n10\n0\n20\n0\n10\n0\n20\n30\n10\n40\n20\n30\n10\n40\n20\n0\n"
        "0\nLINE\n8\ncut\n10\n0\n20\n0\n11\n40\n21\n0\n"));
    QVERIFY(read.ok());
    QCOMPARE(read->lines.size(), std::size_t(2));
    const std::vector<Vec2>& chords = read->lines[0].points;
    QVERIFY_NEAR((chords.front() - Vec2(0, 0)).norm() + (chords.back() - Vec2(40, 0)).norm(), 0,
                 1e-6);
    QVERIFY_NEAR(boundsOf(chords).high.y(), 22.5, 0.06);
    QVERIFY(read->lines[0].look.layer == "cut" && !read->lines[0].closed);
  }
  void dxfLooksComeFromLayers() {
    const std::string layers =
        "0\nSECTION\n2\nTABLES\n0\nTABLE\n2\nLAYER\n70\n2\n0\nLAYER\n2\nfolds\n70\n0\n62\n3\n6\n"
        "DASHED\n0\nLAYER\n2\nplain\n70\n0\n62\n5\n6\nCONTINUOUS\n0\nENDTAB\n0\nENDSEC\n";
    const auto line = [](const std::string& look) {
      return "0\nLINE\n" + look + "10\n0\n20\n0\n11\n40\n21\n0\n";
    };
    const auto read = drawingFromDxf(
        layers +
        dxf(line("8\nfolds\n62\n256\n6\nBYLAYER\n") + line("8\nplain\n62\n256\n6\nBYLAYER\n") +
            line("8\nfolds\n62\n1\n6\nDOTS\n") + line("8\nfolds\n62\n1\n6\nContinuous\n") +
            line("8\nfolds\n62\n1\n6\nCONTINUOUS\n") + line("8\nnone\n62\n256\n6\nBYLAYER\n")));
    QVERIFY2(read.ok(), read ? "" : hinge::say(read.error()).c_str());
    std::string looks;
    for (const DrawnLine& one : read->lines)
      looks += one.look.layer + "/" + one.look.colour + "/" + one.look.dash + " ";
    QCOMPARE(QString::fromStdString(looks),
             "folds/3/DASHED plain/5/ folds/1/DOTS folds/1/ folds/1/ none// ");
  }
  void dxfKnowsItsUnit() {
    const std::string line = "0\nLINE\n8\n0\n10\n0\n20\n0\n11\n2\n21\n0\n";
    const auto length = [&](int unit) {
      return boundsOfAll(*drawingFromDxf(dxf(line, unit))).size().x();
    };
    QVERIFY_NEAR(length(4), 2, 1e-9);
    QVERIFY_NEAR(length(5), 20, 1e-9);
    QVERIFY_NEAR(length(1), 50.8, 1e-9);
    QVERIFY_NEAR(length(0), 2, 1e-9);
  }
  void splinesComeNearTheirCurve() {
    // A clamped cubic with four control points is a Bezier curve.
    std::vector<Vec2> chords;
    addSpline(chords, {{0, 0}, {0, 30}, {40, 30}, {40, 0}}, {0, 0, 0, 0, 1, 1, 1, 1}, 3, 0.05);
    for (int k = 0; k <= 200; ++k) {
      const double t = k / 200.0, u = 1 - t;
      const Vec2 p =
          3 * u * u * t * Vec2(0, 30) + 3 * u * t * t * Vec2(40, 30) + t * t * t * Vec2(40, 0);
      double least = 1e300;
      for (std::size_t j = 0; j + 1 < chords.size(); ++j)
        least = std::min(least, distanceToSegment(p, chords[j], chords[j + 1]));
      QVERIFY(least < 0.06);
    }
    // Where its parameter begins says nothing of its shape.
    const std::vector<Vec2> control{{0, 0}, {10, 30}, {40, -20}, {60, 10}};
    std::vector<Vec2> fromNought, fromSeven;
    addSpline(fromNought, control, {0, 0, 0, 0, 1, 1, 1, 1}, 3, 0.05);
    addSpline(fromSeven, control, {7, 7, 7, 7, 8, 8, 8, 8}, 3, 0.05);
    QVERIFY(fromNought.size() > 8);
    QCOMPARE(fromSeven.size(), fromNought.size());
    for (std::size_t k = 0; k < fromNought.size(); ++k)
      QVERIFY((fromSeven[k] - fromNought[k]).norm() < 1e-9);
    std::vector<Vec2> straight;
    addSpline(straight, {{0, 0}, {5, 5}}, {0, 1}, 3, 0.05); // does not fit together
    QCOMPARE(straight.size(), std::size_t(2));
  }
  void brokenDxfIsRefusedWithItsLine() {
    const auto refusal = [](const std::string& text) {
      const auto read = drawingFromDxf(text);
      return read ? std::string() : read.error().message.key + " " + read.error().place;
    };
    QCOMPARE(QString::fromStdString(refusal("0\nSECTION\nnonsense\nHEADER\n")),
             "dxf.broken line 3");
    for (const char* code : {"0000000", "", "12x", "  \t"}) // too long; none; no number
      QCOMPARE(QString::fromStdString(refusal(fmt::format("0\nSECTION\n{}\nHEADER\n", code))),
               "dxf.broken line 3");
    for (const char* end : {"", "\n", "  ", "\n\n"}) {
      const auto read = drawingFromDxf(dxf("0\nLINE\n8\n0\n10\n0\n20\n0\n11\n9\n21\n0\n") + end);
      QCOMPARE(read.ok(), end != std::string_view("\n\n")); // an empty line ends it, two do not
    }
    QVERIFY(refusal(std::string("Binary DXF\0x", 12)).starts_with("dxf.binary"));
    QVERIFY(refusal("").starts_with("dxf.none"));
    QVERIFY(
        refusal(dxf("0\nLINE\n8\n0\n10\n0\n20\n0\n11\n9e9\n21\n0\n")).starts_with("drawing.far"));
  }

  // --- FOLD ----------------------------------------------------------------------------------
  void foldPatternsAreRead() {
    const auto read = drawingFromFold(
        R"({"frame_unit": "cm", "vertices_coords": [[0,0],[3,0],[6,0],[6,4],[3,4],[0,4]],
            "edges_vertices": [[0,1],[1,2],[2,3],[3,4],[4,5],[5,0],[1,4]],
            "edges_assignment": ["B","B","B","B","B","B","M"],
            "file_frames": [{"edges_foldAngle": [0,0,0,0,0,0,-60]}]})");
    QVERIFY2(read.ok(), read ? "" : hinge::say(read.error()).c_str());
    const PieceWork piece = only(*read);
    QCOMPARE(piece.lines.size(), std::size_t(1));
    QVERIFY(piece.lines[0].kind == WorkLine::Kind::Mountain);
    QVERIFY_NEAR(*piece.lines[0].folded_deg, 120, 1e-9);
    QVERIFY_NEAR(boundsOf(piece.outline).size().x(), 60, 1e-9);
    const auto refusal = [](const char* text) {
      const auto bad = drawingFromFold(text);
      return bad ? QString()
                 : QString::fromStdString(bad.error().message.key + " " + bad.error().place);
    };
    QCOMPARE(refusal("{\n\"a\": [1,\n}"), "fold.none line 3");
    QCOMPARE(refusal("[]"), "fold.none ");
    QCOMPARE(refusal("{}"), "fold.member vertices_coords");
    QCOMPARE(refusal(R"({"vertices_coords": [[0,0],[1]]})"), "fold.point vertices_coords[1]");
    QCOMPARE(refusal(R"({"vertices_coords": [[0,0],[1,0,7]]})"),
             "fold.not-flat vertices_coords[1]");
    QCOMPARE(refusal(R"({"vertices_coords": [[0,0],[1,0]], "edges_vertices": [[0,2]]})"),
             "fold.edge edges_vertices[0]");
    QCOMPARE(refusal(R"({"frame_unit": "ell", "vertices_coords": [[0,0]]})"),
             "fold.unit frame_unit");
  }

  // --- lists of scores -----------------------------------------------------------------------
  /// Depth counts what is open, not what was closed beside it.
  void deepFoldFilesAreRefused() {
    const auto code = [](const std::string& text) {
      const auto read = drawingFromFold(text);
      return read ? std::string() : read.error().message.key;
    };
    std::string mixed, closed = "{\"a\":[";
    for (int k = 0; k < 3000; ++k)
      mixed += "[1,{\"x\":", closed += "[{}],";
    QCOMPARE(code(std::string(3000, '[')), "drawing.deep");
    QCOMPARE(code(mixed), "drawing.deep");
    QVERIFY(code(closed + "[]]}") != "drawing.deep");
    QVERIFY(code("{\"a\":\"\\\"" + std::string(3000, '[') + "\"}") != "drawing.deep");
  }
  void scoresAreReadFromLists() {
    const auto places = scoresFromCsv("position, kind, from edge\n20, mountain, left\r\n"
                                      "1/2in; valley\n10 mm,v,right\n\n35\n",
                                      LengthUnit::Millimetre, 100);
    QVERIFY2(places.ok(), places ? "" : hinge::say(places.error()).c_str());
    QCOMPARE(places->size(), std::size_t(4));
    QVERIFY_NEAR((*places)[0].low_mm, 12.7, 1e-9);
    QVERIFY((*places)[1].kind == WorkLine::Kind::Mountain);
    QVERIFY(!(*places)[2].kind);
    QVERIFY_NEAR((*places)[3].low_mm, 90, 1e-9);
    const auto bad = scoresFromCsv("10, v\n20, sideways\n", LengthUnit::Millimetre, 100);
    QVERIFY(!bad && bad.error().place == "line 2");
    QVERIFY(!scoresFromCsv("position, kind\n", LengthUnit::Millimetre, 100));
  }

  // --- brought in ----------------------------------------------------------------------------
  void paperIsBroughtInAsPieceBaseAndOpening() {
    const PieceWork piece = only(svg(
        "<rect x=\"20\" y=\"10\" width=\"60\" height=\"40\" stroke=\"#000\" fill=\"none\"/>"
        "<g id=\"valley\"><line x1=\"50\" y1=\"10\" x2=\"50\" y2=\"50\" stroke=\"#00f\"/></g>"));
    const auto added = withPieceIn(card(), piece);
    QVERIFY(added.ok());
    const PieceWork& own = *added->design.find(added->id)->work;
    QVERIFY_NEAR(boundsOf(own.outline).low.norm(), 0, 1e-9);
    QVERIFY_NEAR(own.lines[0].from.x(), 30, 1e-9);
    QVERIFY(!withPieceIn(card(), piece, "nowhere"));
    const auto base = withBaseIn(card(), piece);
    QVERIFY2(base.ok(), base ? "" : hinge::say(base.error()).c_str());
    QCOMPARE(QString::fromStdString(base->card.kind), "sheet");
    QVERIFY_NEAR(base->card.width_mm, 30, 1e-6);
    QVERIFY(checked(*base).verdict != Verdict::Spoiled);
    const auto holed =
        withOpeningsIn(added->design, {added->id, 0}, {{{0, 0}, {4, 0}, {4, 6}}}, Vec2(15, 20));
    QVERIFY(holed.ok());
    QVERIFY_NEAR(
        (boundsOf(holed->find(added->id)->work->windows[0]).centre() - Vec2(15, 20)).norm(), 0,
        1e-9);
  }

  // --- round trips ---------------------------------------------------------------------------
  void ourOwnFilesComeBack_data() {
    QTest::addColumn<QString>("name");
    for (const QString& file : QDir(QStringLiteral(HINGE_SOURCE_DIR "/demo"))
                                   .entryList({QStringLiteral("*.hinge")}, QDir::Files))
      QTest::newRow(qPrintable(file)) << file.chopped(6);
  }
  void ourOwnFilesComeBack() {
    QFETCH(QString, name);
    Design d = demo(name.toStdString());
    d.settings.slice = false; // equal strips come as one sheet else
    const Snapshot snapshot(d);
    const Assembly& assembly = **snapshot.assembly();
    const Measures own = measuresOf(snapshot);
    const auto compare = [&](const char* what, const Result<Drawing>& drawing, double off) {
      QVERIFY2(drawing.ok(), drawing ? "" : hinge::say(drawing.error()).c_str());
      const auto pieces = piecesOf(*drawing, likelyUses(*drawing));
      QVERIFY2(pieces.ok(), pieces ? "" : hinge::say(pieces.error()).c_str());
      const Measures back = measuresOf(*pieces);
      QVERIFY2(back.pieces == own.pieces, what);
      QVERIFY2(std::abs(back.paper - own.paper) < off * own.paper + 1,
               qPrintable(QStringLiteral("%1: %2 mm2, not %3")
                              .arg(QLatin1String(what))
                              .arg(back.paper)
                              .arg(own.paper)));
      QVERIFY2(std::abs(back.folds - own.folds) < off * own.folds + 0.1,
               qPrintable(QStringLiteral("%1: folds %2, not %3")
                              .arg(QLatin1String(what))
                              .arg(back.folds)
                              .arg(own.folds)));
      QVERIFY2(std::abs(back.mountains - own.mountains) < off * own.folds + 0.1, what);
    };
    compare("svg", drawingFromSvg(piecesToSvg(assembly, d)), 1e-4);
    const auto dxf = piecesToDxf(assembly, d);
    QVERIFY(dxf.ok());
    compare("dxf", drawingFromDxf(*dxf), 1e-4);
    // Folds that bend to both sides, in a card that is wrong, are neither mountain nor valley
    // there.
    if (name.contains(QLatin1String("mistakes"))) return;
    const auto motion = snapshot.motion();
    std::vector<double> openings;
    for (double t : foldFrames_deg(*motion))
      if (radians(t) >= motion->low_rad() && radians(t) <= motion->high_rad())
        openings.push_back(t);
    if (const auto fold = motionToFold(*motion, openings))
      compare("fold", drawingFromFold(*fold), 1e-4);
  }

  // --- hostile files -------------------------------------------------------------------------
  void damagedFilesAreReadOrRefused_data() {
    QTest::addColumn<int>("format");
    QTest::newRow("svg") << 0;
    QTest::newRow("dxf") << 1;
    QTest::newRow("fold") << 2;
    QTest::newRow("csv") << 3;
  }
  void damagedFilesAreReadOrRefused() {
    QFETCH(int, format);
    const Design d = demo("ferry-pass");
    const Snapshot snapshot(d);
    const Assembly& assembly = **snapshot.assembly();
    std::string text;
    if (format == 0) text = piecesToSvg(assembly, d);
    if (format == 1) text = *piecesToDxf(assembly, d);
    if (format == 2) {
      const double openings[] = {90};
      text = *motionToFold(*snapshot.motion(), openings);
    }
    if (format == 3) text = "position,kind,edge\n10 1/2,valley,left\n20mm,m\n3in,v,right\n";
    // Short enough that ten thousand of them are read in a moment.
    if (format < 2 && text.size() > 6000) text.resize(6000);
    std::mt19937 random(20261126u + static_cast<unsigned>(format));
    int read = 0, refused = 0;
    for (int k = 0; k < kMutations; ++k) {
      const std::string bad = damaged(text, random);
      if (format == 3) {
        scoresFromCsv(bad, LengthUnit::Millimetre, 100) ? ++read : ++refused;
        continue;
      }
      const auto drawing = format == 0   ? drawingFromSvg(bad)
                           : format == 1 ? drawingFromDxf(bad)
                                         : drawingFromFold(bad);
      if (!drawing) {
        QVERIFY(!hinge::say(drawing.error()).empty());
        ++refused;
        continue;
      }
      ++read;
      if (k % 20 == 0) (void)piecesOf(*drawing, likelyUses(*drawing)).ok();
    }
    QCOMPARE(read + refused, kMutations);
    QVERIFY(refused > 100);
  }
};

QTEST_GUILESS_MAIN(TestDrawings)
#include "test_drawings.moc"
