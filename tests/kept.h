// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "support.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include <QDir>
#include <QFile>
#include <charconv>
#include <map>
#include <nlohmann/json.hpp>
#include <random>
#endif

namespace hinge::test {

// What cards and edits come to, in numbers that are kept: what a maker has must not change its
// paper, motion, verdicts or plans unseen. Who changes them on purpose looks at what differs and
// keeps the new ones, for example
//     HINGE_RECORD=1 build/bin/test_records

using Numbers = std::map<std::string, double>;

/// By which share they may differ: sight is counted in cells, of which one may fall to either side.
constexpr double kOfNumbers = 1e-8, kOfCells = 1e-3;

/// A place as one number in which no coordinate can stand for another.
inline double one(const Vec2& p) {
  return p.x() + 1.7 * p.y();
}
inline double one(const Vec3& p) {
  return p.x() + 1.7 * p.y() + 2.9 * p.z();
}
inline double one(const Iso3& place) {
  return one(Vec3(place * Vec3(3, 5, 7)));
}
inline double one(const Polygon& polygon) {
  double sum = 0;
  for (const Vec2& corner : polygon)
    sum += one(corner);
  return sum;
}
inline double one(const Region& region) {
  double sum = area_mm2(region) + one(region.rim);
  for (const Polygon& hole : region.holes)
    sum += 1.3 * one(hole);
  return sum;
}
inline double at(std::size_t k) {
  return 1 + 0.37 * static_cast<double>(k % 11);
}
/// Texts as a number, for what is said and not measured.
inline double one(std::string_view text) {
  double sum = 0;
  for (std::size_t k = 0; k < text.size(); ++k)
    sum += at(k) * static_cast<unsigned char>(text[k]);
  return sum;
}
inline double said(const Text& text) {
  double sum = one(text.key);
  for (std::size_t k = 0; k < text.with().size(); ++k)
    sum += at(k + 3) * std::visit(
                           [](const auto& what) -> double {
                             using What = std::remove_cvref_t<decltype(what)>;
                             if constexpr (std::is_same_v<What, int>)
                               return what;
                             else if constexpr (requires { what.value; })
                               return what.value;
                             else if constexpr (std::is_same_v<What, Text>)
                               return said(what);
                             else
                               return one(what);
                           },
                           text.with()[k].what);
  return sum;
}
double number(auto index) {
  return static_cast<double>(index.value) + 1;
}

inline double one(const Feature& feature) {
  double sum = 1 + static_cast<double>(feature.index());
  if (const auto* slit = std::get_if<Slit>(&feature))
    for (const std::size_t side : {0U, 1U})
      sum += at(side) * (one(slit->inner[side]) + 1.9 * one(slit->lips[side])) + slit->width_mm +
             1.3 * slit->catch_mm + number(slit->panel);
  else if (const auto* cut = std::get_if<Cut>(&feature))
    sum += one(cut->from) + 1.9 * one(cut->to) + number(cut->panel);
  else if (const auto* window = std::get_if<Window>(&feature))
    sum += number(window->panel) + static_cast<double>(window->hole);
  else if (const auto* strap = std::get_if<Strap>(&feature))
    sum += number(strap->panel) + 1.7 * number(strap->carrier) + 2.3 * number(strap->folds[0]) +
           2.9 * number(strap->folds[1]);
  return sum;
}

inline void addPaper(const Assembly& a, Numbers& n) {
  n["pieces"] = static_cast<double>(a.pieces.size());
  n["panels"] = static_cast<double>(a.panels.size());
  for (const Piece& piece : a.pieces) {
    n["pieces called"] += one(piece.key) + 1.7 * said(piece.label) + 2.3 * one(piece.paper);
    for (const Feature& feature : piece.features)
      n["features"] += one(feature);
  }
  for (PanelIndex p : a.panels.indices()) {
    const Panel& panel = a.panels[p];
    const double k = at(static_cast<std::size_t>(p.value));
    n["paper"] += one(panel.outline), n["twins"] += number(panel.twin);
    n["panels called"] += k * (one(panel.key) + 1.7 * said(panel.label));
    n["uses"] += k * (static_cast<int>(panel.use) + 0.1 * static_cast<double>(panel.folds.size()));
    n["held by"] += k * number(panel.gluedBy) + 0.1 * number(panel.piece);
  }
  for (const DimensionMark& mark : a.dimensions) {
    n["dimensions"] += one(mark.from) + 1.9 * one(mark.to);
    n["dimensions"] += 0.1 * one(mark.key) + number(mark.panel);
    if (mark.corner) n["dimensions"] += 2.3 * one(*mark.corner);
  }
}

inline void addHinges(const Assembly& a, Numbers& n) {
  n["folds"] = static_cast<double>(a.folds.size());
  for (FoldIndex f : a.folds.indices()) {
    const Fold& fold = a.folds[f];
    const double k = at(static_cast<std::size_t>(f.value));
    n["fold lines"] += one(fold.from) + 3.1 * one(fold.to);
    n["fold angles"] += fold.shutAngle_rad + fold.rest_rad.value_or(0.1);
    n["fold angles"] += k * (fold.start_rad.value_or(0.2) + 0.3 * fold.hangs + fold.shutKnown);
    n["mountains"] += fold.sense == FoldSense::Mountain;
    n["folds called"] += k * (one(fold.key) + 1.7 * said(fold.label));
    n["hinged"] += k * (number(fold.left) + 1.7 * number(fold.right));
  }
  for (const Drive& drive : a.drives)
    n["driven"] += number(drive.fold) + drive.shut_rad + 1.7 * drive.open_rad +
                   2.3 * drive.from_rad + 2.9 * drive.to_rad;
  for (const Lift& by : a.lifts)
    n["lifts"] += by.least + 1.7 * by.most + by.step + 0.1 * static_cast<double>(by.panels.size()) +
                  by.secondMoves + 1.3 * by.slides + number(by.fold) + number(by.joint) +
                  by.stopAt(0.37) + 1.7 * by.nextStop(0.2);
  for (const Carried& carried : a.carried)
    n["carried"] += number(carried.panel) + 1.7 * number(carried.host) + one(carried.at);
  n["openings"] = a.openBy_rad + 1.7 * a.low_rad + 2.3 * a.high_rad + a.symmetric;
}

inline void addJoints(const Assembly& a, Numbers& n) {
  n["joints"] = static_cast<double>(a.joints.size());
  for (const auto& [j, glue] : a.every<Glue>())
    n["glue"] += one(glue.tabToHost) + glue.byFace + glue.raised_mm + 1.3 * one(glue.area);
  for (JointIndex j : a.joints.indices()) {
    const Joint& joint = a.joints[j];
    const double k = at(static_cast<std::size_t>(j.value));
    const auto [first, second] = panelsOf(joint);
    n["joined"] += k * (number(first) + 1.7 * number(second) + static_cast<double>(joint.index()));
    if (const Guide* guide = guideOf(joint)) {
      n["guides"] += one(guide->onFirst) + 1.9 * one(guide->onSecond);
      const auto byHand = guide->byHand.value_or(std::array{0.1, 0.2});
      n["guides by hand"] += k * (byHand[0] + 1.7 * byHand[1] + guide->handStep + guide->rests +
                                  1.3 * guide->over + 0.01 * one(guide->key));
    }
    if (const auto* slide = std::get_if<Slide>(&joint)) {
      n["slides"] += slide->least_mm + 1.7 * slide->most_mm + slide->room_mm + slide->guided_mm;
      if (const auto& pull = slide->pull)
        n["pulls"] += pull->way_mm + pull->from_rad + 1.7 * pull->to_rad;
    }
    if (const Tie* tie = tieOf(joint))
      n["tied"] += one(tie->at[0]) + 1.7 * one(tie->at[1]) + tie->length_mm + 0.01 * one(tie->key);
  }
}

inline void addSeats(const Assembly& a, Numbers& n) {
  for (const Seat& seat : a.seats) {
    n["seats"] += seat.length_mm + seat.shutOpening_rad;
    n["seats called"] += one(seat.key) + 1.7 * said(seat.label) + 2.3 * one(seat.twin);
    n["seats called"] += static_cast<int>(seat.kind()) + seat.fromBehind[0];
    for (const int side : {0, 1})
      n["room"] +=
          seatDepth_mm(seat, side, a) + one(seat.sides[static_cast<std::size_t>(side)].toPiece);
  }
}

inline void addAssembly(const Assembly& a, Numbers& n) {
  addPaper(a, n);
  addHinges(a, n);
  addJoints(a, n);
  addSeats(a, n);
}

/// A refusal with its place, counted under its key.
inline void addRefused(const std::string& name, const Error& error, double weight, Numbers& n) {
  n[name + ": " + error.message.key] +=
      weight * (1 + 0.1 * error.line + 1e-4 * one(error.place) + 1e-3 * said(error.message));
}

/// The same throws on every machine, which those of the standard library need not be.
class Dice {
public:
  explicit Dice(unsigned seed) : m_random(seed) {}
  double between(double low, double high) { return low + (high - low) * m_random() / 4294967296.0; }
  std::size_t below(std::size_t n) { return static_cast<std::size_t>(between(0, double(n))); }
  bool chance(double share) { return between(0, 1) < share; }
  Vec2 in(const Box2& box, double round_mm) {
    const double x = between(box.low.x() - round_mm, box.high.x() + round_mm);
    return {x, between(box.low.y() - round_mm, box.high.y() + round_mm)};
  }

private:
  std::mt19937 m_random;
};

/// A text as two numbers: its words, and the numbers in it, which may differ in their last digits.
inline void addWritten(const std::string& name, const std::string& text, Numbers& n) {
  double &words = n[name + " words"], &numbers = n[name + " numbers"];
  std::size_t k = 0;
  for (std::size_t at = 0; at < text.size(); ++k) {
    const char* from = text.data() + at;
    double value = 0;
    const auto [end, error] = std::from_chars(from, text.data() + text.size(), value);
    if (error == std::errc() && std::abs(value) < 1e7) {
      numbers += test::at(k) * value;
      at += static_cast<std::size_t>(end - from);
    } else {
      words += test::at(k) * static_cast<unsigned char>(text[at++]);
    }
  }
}

/// The numbers of one program of tests, in tests/data.
class Kept {
public:
  explicit Kept(const char* file) : m_path(QStringLiteral(HINGE_TEST_DATA "/") + file) {
    QFile kept(m_path);
    if (kept.open(QIODevice::ReadOnly))
      m_kept = nlohmann::json::parse(kept.readAll().toStdString());
  }
  /// What differs, one a line; nothing when all is as it was, or is being recorded.
  std::string differences(const std::string& name, const Numbers& now) {
    if (m_record) {
      m_kept[name] = now;
      return {};
    }
    if (!m_kept.contains(name)) return "\n  not kept yet";
    const Numbers kept = m_kept[name].get<Numbers>();
    std::string differs;
    for (const auto& [key, value] : now)
      if (const auto was = kept.find(key); was == kept.end())
        differs += fmt::format("\n  {}: {} is new", key, value);
      else if (!(std::abs(value - was->second) <=
                 (key == "seen" ? kOfCells : kOfNumbers) * std::max(1.0, std::abs(was->second))))
        differs += fmt::format("\n  {}: {:.12g}, kept {:.12g}", key, value, was->second);
    for (const auto& [key, was] : kept)
      if (!now.contains(key)) differs += fmt::format("\n  {}: gone, kept {:.12g}", key, was);
    return differs;
  }
  /// Writes what was recorded; false when it cannot be written.
  bool save() const {
    if (!m_record) return true;
    QFile file(m_path);
    return file.open(QIODevice::WriteOnly) &&
           file.write(QByteArray::fromStdString(m_kept.dump(1) + "\n")) > 0;
  }

private:
  QString m_path;
  nlohmann::json m_kept = nlohmann::json::object();
  bool m_record = qEnvironmentVariableIsSet("HINGE_RECORD");
};

/// A class of tests that keeps numbers.
class KeptTest : public QObject {
protected:
  explicit KeptTest(const char* file) : m_kept(file) {}
  void compare(const std::string& name, const Numbers& now) {
    const std::string differs = m_kept.differences(name, now);
    QVERIFY2(differs.empty(), (name + differs).c_str());
  }
  void save() { QVERIFY(m_kept.save()); }
  /// A row for each card that comes with the program and is wanted.
  template <class Wanted> static void rowsOfDemos(Wanted wanted) {
    QTest::addColumn<QString>("name");
    for (const QString& file : QDir(HINGE_SOURCE_DIR "/demo").entryList({"*.hinge"}))
      if (wanted(file.chopped(6).toStdString())) QTest::newRow(qPrintable(file)) << file.chopped(6);
  }
  static void rowsOfDemos() {
    rowsOfDemos([](const std::string&) { return true; });
  }

private:
  Kept m_kept;
};

} // namespace hinge::test
