#include "core/checks/analysis.h"
#include "core/contact/contact.h"
#include "core/io/design_json.h"
#include "core/structures/assemble.h"
#include "render/picture.h"
#include "render/stage_painter.h"
#include <QGuiApplication>
#include <benchmark/benchmark.h>
#include <cstdlib>

// Speed of what a user waits for. Compare ratios inside one run: machines are noisy.

using namespace hinge;

namespace {

Design demo() { return *loadDesign(HINGE_SOURCE_DIR "/demo/night-market.hinge"); }

/// A long card with `count` structures, every third one standing on the ridge of a box.
Design row(int count) {
  Design d;
  d.card.width_mm = 130, d.card.height_mm = 900;
  const double pitch = 880.0 / count;
  for (int k = 0; k < count; ++k) {
    const bool tier = k % 3 == 2;
    const std::string seat = tier ? "s" + std::to_string(k) + "/ridge" : "gutter";
    const double length = pitch * 0.8;
    const ParameterValues box{{"position", tier ? 0.1 * length : 8 + pitch * k}, {"length", std::max(5.0, tier ? 0.8 * length : length)}, {"a", tier ? 14.0 : 30.0}, {"b", tier ? 14.0 : 30.0}, {"c", tier ? 26.0 : 45.0}, {"d", tier ? 26.0 : 45.0}, {"tab", 10}};
    d = addStructure(d, "box", seat, box)->design;
  }
  return d;
}

void sweepDemo(benchmark::State& state) {
  const auto assembly = std::make_shared<const Assembly>(*assembleDesign(demo()));
  for (auto _ : state) {
    const Motion motion = Motion::trace(assembly);
    double worst = 0;
    for (int deg = 0; deg <= 180; ++deg) worst = std::max(worst, motion.poseAt(radians(deg)).residual_mm);
    benchmark::DoNotOptimize(worst);
  }
}
BENCHMARK(sweepDemo)->Unit(benchmark::kMillisecond);

void fullCheckOfDemo(benchmark::State& state) {
  const Design design = demo();
  for (auto _ : state) benchmark::DoNotOptimize(analyse(design)->findings.size());
}
BENCHMARK(fullCheckOfDemo)->Unit(benchmark::kMillisecond);

void editToPictureOfDemo(benchmark::State& state) {
  const Design design = demo();
  QImage image(812, 750, QImage::Format_ARGB32_Premultiplied);
  const QRectF area(0, 0, 812, 750);
  double c = 46;
  // As the window does: the background is painted once and copied.
  QImage behind(image.size(), QImage::Format_RGB32);
  {
    QPainter painter(&behind);
    paintStageBackground(painter, area, *assembleDesign(design), cameraFor(design.card, area), Theme::light());
  }
  StageStyle style;
  style.background = false;
  for (auto _ : state) {
    c = c == 46 ? 47 : 46;
    const Design edited = *setValues(design, StructureId{2}, {{"c", c}, {"d", c}});
    const auto assembly = assembleDesign(edited);
    QPainter painter(&image);
    painter.drawImage(0, 0, behind);
    paintStage(painter, area, *assembly, Motion::quickPose(*assembly, radians(100)), cameraFor(edited.card, area), style);
  }
}
BENCHMARK(editToPictureOfDemo)->Unit(benchmark::kMillisecond);

void poseOfRow(benchmark::State& state) {
  const auto assembly = std::make_shared<const Assembly>(*assembleDesign(row(static_cast<int>(state.range(0)))));
  const Motion motion = Motion::trace(assembly);
  int deg = 0;
  for (auto _ : state) benchmark::DoNotOptimize(motion.poseAt(radians(1 + (deg++ % 178))).residual_mm);
  state.counters["panels"] = static_cast<double>(assembly->panels.size());
  state.SetComplexityN(state.range(0));
}
BENCHMARK(poseOfRow)->Arg(10)->Arg(40)->Arg(160)->Complexity()->Unit(benchmark::kMicrosecond);

void traceOfRow(benchmark::State& state) {
  const auto assembly = std::make_shared<const Assembly>(*assembleDesign(row(static_cast<int>(state.range(0)))));
  for (auto _ : state) benchmark::DoNotOptimize(Motion::trace(assembly).high_rad());
  state.SetComplexityN(state.range(0));
}
BENCHMARK(traceOfRow)->Arg(10)->Arg(40)->Arg(160)->Complexity()->Unit(benchmark::kMillisecond);

void contactOfRow(benchmark::State& state) {
  const Motion motion = Motion::trace(std::make_shared<const Assembly>(*assembleDesign(row(static_cast<int>(state.range(0))))));
  for (auto _ : state) benchmark::DoNotOptimize(findContacts(motion).intervals);
  state.SetComplexityN(state.range(0));
}
BENCHMARK(contactOfRow)->Arg(10)->Arg(40)->Arg(160)->Complexity()->Unit(benchmark::kMillisecond);

} // namespace

int main(int argc, char** argv) {
  if (!std::getenv("QT_QPA_PLATFORM")) setenv("QT_QPA_PLATFORM", "offscreen", 1);
  QGuiApplication application(argc, argv);
  std::vector<char*> arguments(argv, argv + argc);
  char format[] = "--benchmark_format=json";
  arguments.push_back(format); // JSON on stdout unless asked otherwise
  std::rotate(arguments.begin() + 1, arguments.end() - 1, arguments.end());
  int count = static_cast<int>(arguments.size());
  benchmark::Initialize(&count, arguments.data());
  benchmark::RunSpecifiedBenchmarks();
  return 0;
}
