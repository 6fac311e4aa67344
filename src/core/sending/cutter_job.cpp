// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sending/cutter_job.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <iterator>

namespace hinge {
namespace {

constexpr double kLeg_mm = 40;       ///< what is sent before the machine is asked again
constexpr double kShortest_mm = 0.1; ///< a stroke that is worth lowering the tool for
constexpr double kClamped_mm = 1;    ///< how far the holder may be asked past the sheet's edge
constexpr double kOnWay = 2;         ///< machine units
constexpr int kScores = 1, kCuts = 2;
constexpr std::size_t kPairs = 20; ///< of coordinates in one instruction
constexpr double kMostStretch = 0.1;
/// For the time that a job takes.
constexpr double kUsual_cms = 20, kRaised_mms = 400, kLowering_s = 0.15;
/// A short cut in the margin that turns the knife into its first direction.
constexpr double kSettle_mm = 3, kSettleFromEdge_mm = 1;

double between(const MachinePoint& a, const MachinePoint& b) {
  return std::hypot(a[0] - b[0], a[1] - b[1]) * kMachineUnit_mm;
}

/// Parts a way into legs of at most 40 mm and at most half of it, with points of its own at their
/// ends.
void partIntoLegs(CutterStep& step) {
  const double most = std::min(kLeg_mm, 0.5 * lengthOf_mm(step.way));
  std::vector<MachinePoint> way{step.way.front()};
  double gone = 0;
  for (std::size_t k = 1; k < step.way.size(); ++k) {
    MachinePoint from = way.back();
    const MachinePoint to = step.way[k];
    while (gone + between(from, to) > most + kMachineUnit_mm) {
      const double share = std::max(0.0, (most - gone) / between(from, to));
      const MachinePoint at{from[0] + static_cast<int>(std::lround(share * (to[0] - from[0]))),
                            from[1] + static_cast<int>(std::lround(share * (to[1] - from[1])))};
      if (at != way.back()) way.push_back(at);
      step.legs.push_back(way.size() - 1);
      from = at, gone = 0;
    }
    gone += between(from, to);
    if (to != way.back()) way.push_back(to);
  }
  step.way = std::move(way);
  if (step.legs.empty() || step.legs.back() + 1 < step.way.size())
    step.legs.push_back(step.way.size() - 1);
}

/// Where the machine is told to go for a way of the holder; nothing when that is beyond what it
/// counts.
Result<std::vector<MachinePoint>> told(const std::vector<Vec2>& way, const MachineFit& fit) {
  std::vector<MachinePoint> points;
  for (const Vec2& wanted : way) {
    const Vec2 at = fit.told(wanted);
    if (at.minCoeff() < -kClamped_mm)
      return Error{{"cutter.outside", Millimetres{-at.minCoeff()}}, "bench"};
    const Vec2 units = at.cwiseMax(0) / kMachineUnit_mm;
    if (units.maxCoeff() > kMachineMost)
      return Error{{"cutter.large", Millimetres{kMachineMost * kMachineUnit_mm}}, "sheet"};
    const MachinePoint point{static_cast<int>(std::lround(units.x())),
                             static_cast<int>(std::lround(units.y()))};
    if (points.empty() || points.back() != point) points.push_back(point);
  }
  return points;
}

/// Adds a stroke; short ones, and those of no length, are nothing to lower a tool for.
Result<void> addStep(CutterJob& job, const ToolStroke& stroke, std::size_t part, const Bench& bench,
                     const MachineFit& fit, Vec2& heading) {
  CutterStep step;
  step.kind = stroke.kind, step.part = part;
  const bool scores =
      stroke.kind == StrokeKind::ScoreMountain || stroke.kind == StrokeKind::ScoreValley;
  step.tool = scores ? kScores : kCuts;
  Vec2 unused = heading;
  auto way = told(wayOf(stroke, scores ? Blade{} : Blade{bench.blade_mm, bench.overcut_mm},
                        scores ? unused : heading),
                  fit);
  if (!way) return way.error();
  if (way->size() < 2 || lengthOf_mm(*way) < kShortest_mm) return {};
  step.way = std::move(way).value();
  partIntoLegs(step);
  job.steps.push_back(std::move(step));
  return {};
}

/// A place in a corner of the sheet where no part lies and the machine gets to, for the first short
/// cut of the knife.
std::optional<Vec2> freeCorner(const CutPlan& plan, const LaidSheet& sheet, const MachineFit& fit) {
  const double left = kSettleFromEdge_mm, right = sheet.width_mm - left - kSettle_mm;
  for (const Vec2& at : {Vec2(left, left), Vec2(right, left), Vec2(left, sheet.height_mm - left),
                         Vec2(right, sheet.height_mm - left)}) {
    const Box2 cut{at - Vec2(0.5, 0.5), at + Vec2(kSettle_mm + 0.5, 0.5)};
    const Vec2 from = fit.told(at), to = fit.told(at + Vec2(2 * kSettle_mm, 0));
    if (from.minCoeff() >= 0 && to.maxCoeff() < kMachineMost * kMachineUnit_mm &&
        std::ranges::none_of(sheet.places, [&](const PartPlace& place) {
          const Box2 box = boxOnSheet(plan.parts[place.part], place);
          return (box.low.array() < cut.high.array()).all() &&
                 (cut.low.array() < box.high.array()).all();
        }))
      return at;
  }
  return std::nullopt;
}

Result<void> settle(CutterJob& job, const Vec2& at, const Bench& bench, const MachineFit& fit) {
  Vec2 heading = Vec2::UnitX();
  const ToolStroke stroke{StrokeKind::CutInside, {at, at + Vec2(kSettle_mm, 0)}, false, 0};
  return addStep(job, stroke, CutterStep::kNoPart, bench, fit, heading);
}

void appendPairs(std::string& out, const char* instruction,
                 const std::vector<MachinePoint>& points) {
  for (std::size_t k = 0; k < points.size(); k += kPairs) {
    out += instruction;
    for (std::size_t at = k; at < std::min(points.size(), k + kPairs); ++at)
      out += fmt::format("{}{},{}", at == k ? "" : ",", points[at][0], points[at][1]);
    out += ';';
  }
}

} // namespace

double lengthOf_mm(std::span<const MachinePoint> way) {
  double sum = 0;
  for (std::size_t k = 0; k + 1 < way.size(); ++k)
    sum += between(way[k], way[k + 1]);
  return sum;
}

double CutterJob::lowered_mm() const {
  double sum = 0;
  for (const CutterStep& step : steps)
    sum += lengthOf_mm(step.way);
  return sum;
}

double CutterJob::raised_mm() const {
  double sum = 0;
  MachinePoint at{};
  for (const CutterStep& step : steps) {
    sum += between(at, step.way.front());
    at = step.way.back();
  }
  return sum;
}

double CutterJob::seconds() const {
  const double speed_mms = 10 * (speed_cms > 0 ? speed_cms : kUsual_cms);
  return lowered_mm() / speed_mms + raised_mm() / kRaised_mms +
         kLowering_s * static_cast<double>(steps.size());
}

void setFit(Bench& bench, const MachineFit& fit) {
  bench.scaleX = fit.scale.x(), bench.scaleY = fit.scale.y();
  bench.offsetX_mm = fit.offset_mm.x(), bench.offsetY_mm = fit.offset_mm.y();
}

MachineFit fitOf(const Bench& bench) {
  return {Vec2(bench.scaleX, bench.scaleY), Vec2(bench.offsetX_mm, bench.offsetY_mm)};
}

int speedFor_cms(const Paper& paper, const Bench& bench) {
  if (const auto own = bench.speeds_cms.find(paper.key); own != bench.speeds_cms.end())
    return static_cast<int>(std::lround(own->second));
  return static_cast<int>(std::lround(std::clamp(34 - 40 * paper.thickness_mm, 5.0, 30.0)));
}

int forceFor_g(const Paper& paper) {
  return static_cast<int>(std::lround(std::clamp(40 + 400 * paper.thickness_mm, 40.0, 400.0)));
}

Result<CutterJob> cutterJob(const CutPlan& plan, std::size_t sheet, const Design& design,
                            const Bench& bench) {
  const LaidSheet& here = plan.sheets[sheet];
  const Paper& known = design.paperNamed(here.paper);
  CutterJob job{here.width_mm, here.height_mm, speedFor_cms(known, bench), forceFor_g(known), {}};
  const MachineFit fit = fitOf(bench);
  Vec2 heading = Vec2::UnitX();
  bool settled = false;
  for (const ToolStroke& stroke : strokesOf(plan, sheet)) {
    const bool cuts = stroke.kind == StrokeKind::CutInside || stroke.kind == StrokeKind::CutOutline;
    if (cuts && !settled && bench.blade_mm > 0)
      if (const auto corner = freeCorner(plan, here, fit))
        if (auto done = settle(job, *corner, bench, fit); !done) return done.error();
    settled = settled || cuts;
    if (auto done = addStep(job, stroke, stroke.part, bench, fit, heading); !done)
      return done.error();
  }
  return job;
}

WayPlace startOf(const CutterStep& step, std::size_t leg) {
  const std::size_t from = leg == 0 ? 0 : step.legs[leg - 1];
  return {from, step.way[from]};
}

std::string hpglOf(const CutterJob& job, const CutterStep& step, std::size_t leg,
                   const WayPlace& from, bool lowered) {
  std::string out;
  if (!lowered) {
    out += fmt::format("SP{};", step.tool);
    if (job.speed_cms > 0) out += fmt::format("VS{};", job.speed_cms);
    if (job.force_g > 0 && step.tool == kCuts) out += fmt::format("FS{};", job.force_g);
    out += fmt::format("PU{},{};", from.at[0], from.at[1]);
  }
  appendPairs(out, "PD",
              {step.way.begin() + static_cast<std::ptrdiff_t>(from.behind) + 1,
               step.way.begin() + static_cast<std::ptrdiff_t>(step.legs[leg]) + 1});
  if (leg + 1 == step.legs.size()) out += "PU;";
  return out;
}

std::string hpglOf(const CutterJob& job) {
  std::string out = "IN;";
  for (const CutterStep& step : job.steps)
    for (std::size_t leg = 0; leg < step.legs.size(); ++leg)
      out += hpglOf(job, step, leg, startOf(step, leg), leg > 0) + "\n";
  return out + "PU0,0;SP0;\n";
}

std::optional<WayPlace> placeOn(const CutterStep& step, std::size_t leg, const WayPlace& from,
                                const MachinePoint& tool) {
  const auto vec = [](const MachinePoint& p) { return Vec2(p[0], p[1]); };
  std::optional<WayPlace> best;
  double nearest = kOnWay;
  MachinePoint start = from.at;
  for (std::size_t k = from.behind; k < step.legs[leg]; ++k) {
    const Vec2 a = vec(start), along = vec(step.way[k + 1]) - a;
    const double square = along.squaredNorm();
    const double share =
        square > 0 ? std::clamp((vec(tool) - a).dot(along) / square, 0.0, 1.0) : 0.0;
    const double off = (a + share * along - vec(tool)).norm();
    if (off < nearest - 1e-9) {
      nearest = off;
      best = share >= 1 ? WayPlace{k + 1, step.way[k + 1]} : WayPlace{k, share > 0 ? tool : start};
    }
    start = step.way[k + 1];
  }
  if (!best && from.behind == step.legs[leg] && (vec(from.at) - vec(tool)).norm() <= kOnWay)
    return from;
  return best;
}

std::string markOf(const CutterJob& job) {
  // FNV-1a, 64 bits: the same in every build.
  std::uint64_t hash = 14695981039346656037ULL;
  for (const char c : hpglOf(job)) {
    hash ^= static_cast<unsigned char>(c);
    hash *= 1099511628211ULL;
  }
  return fmt::format("{:016x}", hash);
}

Result<TestSquares> testSquares(double width_mm, double height_mm, const Paper& paper,
                                const Bench& bench) {
  TestSquares made;
  made.first_mm = Vec2::Constant(kSquare_mm);
  const Vec2 room = Vec2(width_mm, height_mm) - Vec2::Constant(3 * kSquare_mm);
  made.apart_mm = (room / 10).array().floor().matrix() * 10;
  if (made.apart_mm.minCoeff() < 2 * kSquare_mm)
    return Error{{"cutter.small-sheet", Millimetres{5 * kSquare_mm}}, "sheet"};
  made.job = {width_mm, height_mm, speedFor_cms(paper, bench), forceFor_g(paper), {}};
  Vec2 heading = Vec2::UnitX();
  if (bench.blade_mm > 0)
    if (auto done = settle(made.job, Vec2(1, 1), bench, {}); !done) return done.error();
  for (const Vec2& corner : {made.first_mm, Vec2(made.first_mm + made.apart_mm)}) {
    const ToolStroke square{StrokeKind::CutOutline,
                            {corner, corner + Vec2(kSquare_mm, 0),
                             corner + Vec2(kSquare_mm, kSquare_mm), corner + Vec2(0, kSquare_mm)},
                            true,
                            0};
    if (auto done = addStep(made.job, square, CutterStep::kNoPart, bench, {}, heading); !done)
      return done.error();
  }
  return made;
}

Result<MachineFit> fitFrom(const TestSquares& squares, const MeasuredSquares& measured) {
  MachineFit fit;
  fit.scale = (measured.apart_mm.array() / squares.apart_mm.array()).matrix();
  if (!((fit.scale - Vec2::Ones()).cwiseAbs().maxCoeff() <= kMostStretch))
    return Error{
        {"cutter.measured", Millimetres{squares.apart_mm.x()}, Millimetres{squares.apart_mm.y()}},
        "measured"};
  fit.offset_mm = measured.first_mm - (fit.scale.array() * squares.first_mm.array()).matrix();
  return fit;
}

} // namespace hinge
