// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QTest>
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/checks/analysis.h"
#include "core/checks/propose.h"
#include "core/io/design_json.h"
#include "core/structures/assemble.h"
#include "words/words.h"
#include <fmt/format.h>
#endif

namespace hinge::test {

/// Tests compare reals with an explicit tolerance; QCOMPARE is relative and fails near zero.
#define QVERIFY_NEAR(actual, expected, tolerance)                                                  \
  QVERIFY2(std::abs((actual) - (expected)) <= (tolerance),                                         \
           qPrintable(QStringLiteral("%1 is not %2 within %3")                                     \
                          .arg(double(actual), 0, 'g', 12)                                         \
                          .arg(double(expected), 0, 'g', 12)                                       \
                          .arg(double(tolerance))))

/// What was refused and why, as a key; empty when it was not.
template <class T> std::string codeOf(const Result<T>& made) {
  return made ? std::string() : made.error().message.key;
}

inline Design card(double width_mm = 130, double height_mm = 180) {
  Design d;
  d.card.width_mm = width_mm, d.card.height_mm = height_mm;
  return d;
}

/// A design as it was before it was dressed: all of it plain card.
inline Design undressed(Design design) {
  design.papers = Design().papers, design.stock = Design().stock, design.dressing = {};
  for (StructureItem& item : design.structures)
    item.paper.clear();
  return design;
}

/// One of the designs that come with the program, undressed unless it is asked for as it comes.
inline Design demoAsItComes(const std::string& name) {
  auto design = loadDesign(HINGE_SOURCE_DIR "/demo/" + name + ".hinge");
  if (!design) qFatal("%s", say(design.error()).c_str());
  return *design;
}
inline Design demo(const std::string& name) {
  return undressed(demoAsItComes(name));
}

/// Both panels at a fold are glued to the other piece: the two never part there.
inline bool gluedOnBothSides(const Assembly& assembly, const Fold& fold, PieceIndex other) {
  const auto glued = [&](PanelIndex panel) {
    for (const auto& [j, glue] : assembly.every<Glue>())
      if ((glue.tab == panel && assembly.panels[glue.host].piece == other) ||
          (glue.host == panel && assembly.panels[glue.tab].piece == other))
        return true;
    return false;
  };
  return glued(fold.left) && glued(fold.right);
}

/// Adds a structure; what is not given is fitted. Fails the test when it cannot be added.
inline StructureId add(Design& design, const char* kind, const char* seat,
                       const ParameterValues& given = {}) {
  const auto added = addProposed(design, kind, seat, given);
  if (!added) qFatal("%s", say(added.error()).c_str());
  design = added->design;
  return added->id;
}

inline std::shared_ptr<const Assembly> assemble(const Design& design) {
  auto assembly = assembleDesign(design);
  if (!assembly) qFatal("%s", say(assembly.error()).c_str());
  return std::make_shared<const Assembly>(std::move(assembly).value());
}

inline Vec3 worldPoint(const Motion& motion, const Pose& pose, const char* panel,
                       const Vec2& flat) {
  return pose.panels[motion.assembly().findPanel(panel)] * lift(flat);
}

inline const Finding* findCode(const Analysis& analysis, std::string_view code) {
  for (const Finding& f : analysis.findings)
    if (f.code == code) return &f;
  return nullptr;
}

inline Analysis checked(const Design& design, bool mends = false) {
  auto analysis = analyse(design);
  if (!analysis) qFatal("%s", say(analysis.error()).c_str());
  Analysis result = *analysis;
  if (mends) searchMends(result);
  return result;
}

} // namespace hinge::test
