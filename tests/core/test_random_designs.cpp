// SPDX-License-Identifier: GPL-3.0-or-later
#include "random_designs.h"
#ifndef Q_MOC_RUN
#include "core/edits/arrange.h"
#include <map>
#endif

using namespace hinge;
using namespace hinge::test;

// Random nested designs drawn from the parameter tables: whatever the sizes, panels stay rigid,
// rings stay closed, and the findings agree with the closed forms.

namespace {

#ifdef __SANITIZE_ADDRESS__
constexpr bool kWatched = true; // every step takes ten times as long
#else
constexpr bool kWatched = false;
#endif

constexpr unsigned some(unsigned designs) {
  return kWatched ? designs / 10 : designs;
}
constexpr unsigned kDesigns = some(2000);

} // namespace

namespace {

bool hasNoImage(const Design& d) {
  return std::ranges::any_of(d.structures, [&](const StructureItem& item) {
    // The treads of a stair grow narrower from one side to the other: it has no mirror image among
    // stairs.
    if (item.kind == "step" && item.values.find("treads")->second > 1) return true;
    // Wall a of a step stands on its foot, wall b on the ridge: what is on them is not mirrored.
    const auto host = ownerOfKey(item.seat);
    return host && d.find(*host)->kind == "step" &&
           assembleDesign(d)->findSeat(item.seat)->kind() == SeatKind::Face;
  });
}

/// The mirror image of the whole card. A window whose image has no room beside one that is not
/// moved yet has none.
std::optional<Design> imageOf(const Design& d) {
  Design image = d;
  for (const StructureItem& item : d.structures) {
    const bool onPage = item.seat.starts_with("card/");
    if (item.seat != "gutter" && !onPage) continue;
    auto next = mirrored(image, item.id);
    if (!next) return std::nullopt;
    image = std::move(next).value();
    // On a page: the other page shows the image.
    for (StructureItem& other : image.structures)
      if (onPage && other.id == item.id) other.seat = assembleDesign(d)->otherSideOf(item.seat);
  }
  return image;
}

/// The largest amount of each code.
std::map<std::string, double> codesOf(const Analysis& a) {
  std::map<std::string, double> all;
  for (const Finding& f : a.findings)
    all[f.code] = std::max(all[f.code], f.amount);
  return all;
}

/// Belts close with a tab (and its foot) on one side only, overlaps in the shut card are read at
/// single places, and where the parts of what does not shut come to lie depends on the ring that is
/// laid first.
bool isOneSided(const std::string& code, const std::map<std::string, double>& all) {
  return code == "panels-hit" || code.starts_with("stack") || code.starts_with("tab") ||
         code == "foot-covered" ||
         (all.contains("shut-flat") && (code == "outside-cover" || code == "edge-reserve"));
}

} // namespace

class TestRandomDesigns : public QObject {
  Q_OBJECT
private slots:
  void panelsStayRigidAndRingsStayClosed() {
    unsigned poses = 0;
    for (unsigned seed = 1; seed <= kDesigns; ++seed) {
      const auto assembly = assemble(randomDesign(seed));
      const Motion motion = Motion::trace(assembly);
      double given = 0; // by paper, where that is most
      for (const Motion::BlockReport& block : motion.blocks())
        given = std::max(given, block.gap_mm);
      QVERIFY(given <= starting::kClosureLimit_mm);
      for (double deg : {0.5, 17.0, 90.0, 151.0, 179.0}) {
        const Pose pose = motion.poseAt(radians(deg));
        QVERIFY2(pose.residual_mm < 1e-6 + 4 * given, // of all ends of its rings together
                 fmt::format("seed {}: ring open by {} mm at {} deg", seed, pose.residual_mm, deg)
                     .c_str());
        for (PanelIndex p : assembly->panels.indices()) {
          if (!pose.placed[p]) continue;
          ++poses;
          const Polygon& outline = assembly->panels[p].outline.rim;
          for (std::size_t i = 0; i < outline.size(); ++i) {
            const Vec2 &a = outline[i], &b = outline[(i + 2) % outline.size()];
            const double folded = (pose.panels[p] * lift(a) - pose.panels[p] * lift(b)).norm();
            QVERIFY2(std::abs(folded - (a - b).norm()) < 1e-6,
                     fmt::format("seed {}: {} bends", seed, assembly->panels[p].key).c_str());
          }
        }
      }
    }
    QVERIFY(poses > some(10000));
  }

  void shutFlatAgreesWithTheEnginesShutState() {
    unsigned exact = 0, spoiled = 0;
    for (unsigned seed = 1; seed <= kDesigns; ++seed) {
      const Design d = randomDesign(seed);
      const auto assembly = assemble(d);
      const Motion motion = Motion::trace(assembly);
      for (const StructureItem& item : d.structures) {
        // A host that does not close carries its guests away with it; they are judged by their own
        // sizes only.
        bool hostCloses = true;
        for (auto host = ownerOfKey(item.seat); host; host = ownerOfKey(d.find(*host)->seat))
          hostCloses = hostCloses && closesExactly(*d.find(*host), motion);
        if (!hostCloses) continue;
        const bool closes = closesExactly(item, motion);
        // A ring shows a misfit of another structure when that one is solved first.
        const bool othersClose = std::ranges::all_of(d.structures, [&](const StructureItem& other) {
          return other.id == item.id || closesExactly(other, motion);
        });
        if (closes && !othersClose) continue;
        if (std::ranges::find(motion.impossible(), item.id) != motion.impossible().end()) continue;
        (closes ? exact : spoiled)++;
        for (const auto& block : motion.blocks()) {
          if (block.owners != std::vector<StructureId>{item.id}) continue;
          // The linear condition and the rings of the shut assembly are two roads to the same
          // verdict.
          QVERIFY2(closes == (block.shutMisfit_mm < 1e-5),
                   fmt::format("seed {}: {} closes {} but misfit {} mm", seed, item.id.text(),
                               closes, block.shutMisfit_mm)
                       .c_str());
        }
      }
    }
    QVERIFY(exact > some(500) && spoiled > some(100));
  }

  void boxesOnTheGutterReachWhatTheClosedFormSays() {
    unsigned limited = 0;
    for (unsigned seed = 1; seed <= some(300); ++seed) {
      Draw draw(seed + 50000);
      const double a = draw.in(10, 60), b = draw.in(10, 60), c = draw.in(20, 70), d = a + c - b;
      if (d < 5) continue;
      Design design = card(200, 260);
      addFitted(design, "box", {{"a", a}, {"b", b}, {"c", c}, {"d", d}});
      const Motion motion = Motion::trace(assemble(design));
      // Or to the end, when paper gives what is missing there.
      const bool reaches = a + b - (c + d) <= starting::kClosureLimit_mm;
      const double limit =
          reaches ? kPi : std::acos((a * a + b * b - (c + d) * (c + d)) / (2 * a * b));
      limited += limit < kPi;
      QVERIFY2(
          std::abs(motion.high_rad() - limit) < radians(1e-3),
          fmt::format("seed {}: {} against {}", seed, degrees(motion.high_rad()), degrees(limit))
              .c_str());
      QVERIFY_NEAR(motion.low_rad(), 0, 0);
    }
    QVERIFY(limited > some(20));
  }

  void verdictsDoNotChangeAlongTheGutter() {
    for (unsigned seed = 1; seed <= some(60); ++seed) {
      Design d = randomDesign(seed);
      // Room on both ends, so that moving brings no new edge into play.
      d.card.height_mm = 900;
      for (StructureItem& item : d.structures)
        if (item.seat == "gutter") item.values["position"] += 300;
      Design moved = d;
      for (StructureItem& item : moved.structures)
        if (item.seat == "gutter") item.values["position"] += 50;
      Analysis one = checked(d), two = checked(moved);
      // Where the card's weight lies does change with the place of its structures.
      for (Analysis* a : {&one, &two})
        std::erase_if(a->findings, [](const Finding& f) { return f.check == "stands"; });
      if (one.findings.size() != two.findings.size()) {
        std::string list = fmt::format("seed {}:", seed);
        for (const Finding& f : one.findings)
          list += "\n  " + describe(f, d);
        list += "\nmoved:";
        for (const Finding& f : two.findings)
          list += "\n  " + describe(f, moved);
        QFAIL(list.c_str());
      }
      for (std::size_t k = 0; k < one.findings.size(); ++k) {
        QCOMPARE(one.findings[k].code, two.findings[k].code);
        // The deepest opening of a contact is searched to 0.1 degrees, where the depth is flat.
        const double tolerance = one.findings[k].code == "panels-hit" ? 0.02 : 1e-5;
        QVERIFY2(std::abs(one.findings[k].amount - two.findings[k].amount) < tolerance,
                 fmt::format("seed {}: {}", seed, one.findings[k].code).c_str());
      }
    }
  }

  void verdictsDoNotChangeInTheMirror() {
    unsigned compared = 0, without = 0;
    for (unsigned seed = 1; seed <= some(150); ++seed) {
      const Design d = randomDesign(seed);
      if (hasNoImage(d)) continue;
      const auto image = imageOf(d);
      without += !image;
      if (!image) continue;
      if (!assembleDesign(*image))
        QFAIL(fmt::format("seed {}: the image cannot be assembled: {}", seed,
                          say(assembleDesign(*image).error()))
                  .c_str());
      Analysis one = checked(d), two = checked(*image);
      for (Analysis* a : {&one, &two})
        std::erase_if(a->findings, [](const Finding& f) { return f.check == "stands"; });
      const auto first = codesOf(one), second = codesOf(two);
      QVERIFY2(one.verdict == two.verdict,
               fmt::format("seed {}: {} against {}", seed, verdictKey(one.verdict),
                           verdictKey(two.verdict))
                   .c_str());
      // Loose blocks may be told apart or together, and what hangs in them with them.
      if (first.contains("floppy")) {
        QCOMPARE(one.motion->mobility(), two.motion->mobility());
        continue;
      }
      for (const auto& [code, amount] : first) {
        if (isOneSided(code, first)) continue;
        ++compared;
        QVERIFY2(second.contains(code), fmt::format("seed {}: {} is missing in the mirror: {}",
                                                    seed, code, describe(*findCode(one, code), d))
                                            .c_str());
        if (code == "unreachable") continue; // of a belt also the tab that closes it, on one side
        // Limits are found to steps of 1e-5 degrees, blocks may be solved in another order.
        QVERIFY2(
            std::abs(second.at(code) - amount) < (code == "taut" || code == "jammed" ? 1e-4 : 1e-5),
            fmt::format("seed {}: {} {} against {}", seed, code, amount, second.at(code)).c_str());
      }
    }
    QVERIFY(compared > some(100));
    QVERIFY(without < 8);
  }

  void symmetricDesignsMoveSymmetrically() {
    for (unsigned seed = 1; seed <= some(100); ++seed) {
      Draw draw(seed + 90000);
      Design d = card(200, 260);
      const double al = draw.in(35, 80), g = draw.in(60, 110), a = draw.in(15, 50),
                   c = draw.in(30, 70);
      addFitted(d, "vfold", {{"position", 30}, {"alpha", al}, {"gamma1", g}});
      addFitted(d, "box", {{"position", 150}, {"a", a}, {"c", c}});
      const Motion motion = Motion::trace(assemble(d));
      for (double deg : {20.0, 90.0, 160.0}) {
        const Pose pose = motion.poseAt(radians(deg));
        if (!pose.placed[motion.assembly().findPanel("s2/wall-a")] ||
            !pose.placed[motion.assembly().findPanel("s1/panel-a")])
          continue;
        const Vec3 left = worldPoint(motion, pose, "s2/wall-a", {0, 0}),
                   right = worldPoint(motion, pose, "s2/wall-b", {2 * c, 0});
        QVERIFY((left - Vec3(-right.x(), right.y(), right.z())).norm() < 1e-7);
        QVERIFY_NEAR(worldPoint(motion, pose, "s1/panel-a", {0, 40}).x(), 0, 1e-7);
      }
    }
  }
};

QTEST_APPLESS_MAIN(TestRandomDesigns)
#include "test_random_designs.moc"
