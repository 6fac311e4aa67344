// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/analysis.h"
#include "core/contact/contact.h"
#include "core/edits/dressing.h"
#include "core/making/order.h"
#include "core/structures/assemble.h"
#include "designs.h"
#include "render/picture.h"
#include "render/stage_painter.h"
#include <QGuiApplication>
#include <benchmark/benchmark.h>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <map>
#include <sys/resource.h>
#include <unistd.h>

// Speed of what a user waits for. Compare ratios inside one run: machines are noisy.

using namespace hinge;
using namespace hinge::bench;

namespace {

void sweepDemo(benchmark::State& state) {
  const auto assembly = std::make_shared<const Assembly>(*assembleDesign(demo()));
  for (auto _ : state) {
    const Motion motion = Motion::trace(assembly);
    double worst = 0;
    for (int deg = 0; deg <= 180; ++deg)
      worst = std::max(worst, motion.poseAt(radians(deg)).residual_mm);
    benchmark::DoNotOptimize(worst);
  }
}
BENCHMARK(sweepDemo)->Unit(benchmark::kMillisecond);

void fullCheckOfDemo(benchmark::State& state) {
  const Design design = demo();
  for (auto _ : state)
    benchmark::DoNotOptimize(analyse(design)->findings.size());
}
BENCHMARK(fullCheckOfDemo)->Unit(benchmark::kMillisecond);

/// The verdict of a card that was slow once; mends are not part of it.
void verdict(benchmark::State& state, const char* name) {
  const Design design = slowCase(name);
  for (auto _ : state)
    benchmark::DoNotOptimize(analyse(design)->findings.size());
}
BENCHMARK_CAPTURE(verdict, clean - 500, "clean-500")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(verdict, messy - 50, "messy-50")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(verdict, inset - 22, "inset-22")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(verdict, sheet - 100, "sheet-100")->Unit(benchmark::kMillisecond);

/// All mends of the two that are looked at one finding at a time.
void mends(benchmark::State& state, const char* name) {
  const Analysis before = *analyse(slowCase(name));
  for (auto _ : state) {
    Analysis analysis = before;
    searchMends(analysis);
    benchmark::DoNotOptimize(analysis.findings.size());
  }
}
BENCHMARK_CAPTURE(mends, messy - 50, "messy-50")->Iterations(1)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(mends, inset - 22, "inset-22")->Iterations(1)->Unit(benchmark::kMillisecond);

/// A card of many panels with a mat and a pattern on each of them.
Design dressedRow(int structures) {
  const auto dressed =
      withRule(row(structures), {DressReach::All, "", AtGlue::Under, {{"canal-blue"}, {"net"}}});
  return dressed.value();
}

void sightOfManyPanels(benchmark::State& state) {
  const Snapshot snapshot(dressedRow(static_cast<int>(state.range(0))));
  const auto motion = snapshot.motion();
  const auto faces = snapshot.faces();
  for (auto _ : state)
    benchmark::DoNotOptimize(
        seenFaces(*motion, snapshot.inPlane()->order, snapshot.design().card, *faces).size());
  state.counters["panels"] = static_cast<double>(motion->assembly().panels.size());
}
BENCHMARK(sightOfManyPanels)->Arg(14)->Unit(benchmark::kMillisecond);

void layersOfManyPanels(benchmark::State& state) {
  const Snapshot snapshot(dressedRow(static_cast<int>(state.range(0))));
  const Pose pose = snapshot.motion()->poseAt(radians(90));
  for (auto _ : state)
    benchmark::DoNotOptimize(
        dressedFaces(snapshot.design(), **snapshot.assembly(), *snapshot.faces(), {}, pose).size());
}
BENCHMARK(layersOfManyPanels)->Arg(14)->Unit(benchmark::kMillisecond);

void editToPictureOfDemo(benchmark::State& state) {
  const Design design = demo();
  QImage image(812, 750, QImage::Format_ARGB32_Premultiplied);
  const QRectF area(0, 0, 812, 750);
  double c = 46;
  // As the window does: the background is painted once and copied.
  QImage behind(image.size(), QImage::Format_RGB32);
  {
    QPainter painter(&behind);
    paintStageBackground(painter, area, *assembleDesign(design),
                         cameraFor(design.card, area, *assembleDesign(design)), Theme::light());
  }
  StageStyle style;
  style.background = false;
  for (auto _ : state) {
    c = c == 46 ? 47 : 46;
    const Design edited = *setValues(design, StructureId{2}, {{"c", c}, {"d", c}});
    const auto assembly = assembleDesign(edited);
    QPainter painter(&image);
    painter.drawImage(0, 0, behind);
    paintStage(painter, area, *assembly, Motion::quickPose(*assembly, radians(100)),
               cameraFor(edited.card, area, *assembly), style);
  }
}
BENCHMARK(editToPictureOfDemo)->Unit(benchmark::kMillisecond);

double secondsOf(const auto& work, int times) {
  const auto from = std::chrono::steady_clock::now();
  for (int k = 0; k < times; ++k)
    work();
  return std::chrono::duration<double>(std::chrono::steady_clock::now() - from).count() / times;
}

/// Cost of `work(motion)` at about 60 and about 1,000 panels, and the exponent with which it grows
/// between them.
void growth(benchmark::State& state, void (*work)(const Motion&), int repeats) {
  const auto motionOf = [](int count) {
    return Motion::trace(std::make_shared<const Assembly>(*assembleDesign(row(count))));
  };
  const Motion small = motionOf(15), large = motionOf(250);
  work(small), work(large); // what is made once is made before
  double smallTime = 0, largeTime = 0;
  for (auto _ : state) {
    smallTime += secondsOf([&] { work(small); }, 8 * repeats);
    largeTime += secondsOf([&] { work(large); }, repeats);
  }
  const double panels[] = {static_cast<double>(small.assembly().panels.size()),
                           static_cast<double>(large.assembly().panels.size())};
  state.counters["panels_small"] = panels[0], state.counters["panels_large"] = panels[1];
  state.counters["ms_small"] = 1e3 * smallTime / static_cast<double>(state.iterations()),
  state.counters["ms_large"] = 1e3 * largeTime / static_cast<double>(state.iterations());
  state.counters["exponent"] = std::log(largeTime / smallTime) / std::log(panels[1] / panels[0]);
}
BENCHMARK_CAPTURE(
    growth, pose,
    [](const Motion& m) {
      for (int deg = 1; deg < 180; deg += 2)
        benchmark::DoNotOptimize(m.poseAt(radians(deg)).residual_mm);
    },
    1)
    ->Iterations(2)
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(
    growth, trace,
    [](const Motion& m) {
      benchmark::DoNotOptimize(
          Motion::trace(std::make_shared<const Assembly>(m.assembly())).high_rad());
    },
    1)
    ->Iterations(2)
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(
    growth, contact, [](const Motion& m) { benchmark::DoNotOptimize(findContacts(m).intervals); },
    1)
    ->Iterations(2)
    ->Unit(benchmark::kMillisecond);
/// The recipes alone: putting the design itself together, structure by structure, copies it each
/// time.
void assembly(const Motion& m) {
  static std::map<std::size_t, Design> designs;
  const std::size_t count = m.assembly().placements.size();
  auto known = designs.find(count);
  if (known == designs.end()) known = designs.emplace(count, row(static_cast<int>(count))).first;
  benchmark::DoNotOptimize(assembleDesign(known->second)->panels.size());
}
BENCHMARK_CAPTURE(growth, assembly, assembly, 4)->Iterations(2)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(
    growth, order,
    [](const Motion& m) { benchmark::DoNotOptimize(assemblyOrder(m, kPi).steps.size()); }, 1)
    ->Iterations(2)
    ->Unit(benchmark::kMillisecond);

constexpr char kMemoryFlag[] = "--memory-at-1000-panels";

/// Peak memory (MB) of a process that traces 1,000 panels, finds their contacts and holds 181 poses
/// of them.
int reportMemory() {
  const Motion motion = Motion::trace(std::make_shared<const Assembly>(*assembleDesign(row(250))));
  std::vector<Pose> poses;
  for (int deg = 0; deg <= 180; ++deg)
    poses.push_back(motion.poseAt(radians(deg)));
  benchmark::DoNotOptimize(findContacts(motion).intervals);
  rusage usage{};
  getrusage(RUSAGE_SELF, &usage);
  std::printf("%zu %f\n", motion.assembly().panels.size(),
              static_cast<double>(usage.ru_maxrss) / 1024);
  return 0;
}

void memory(benchmark::State& state) {
  double panels = 0, megabytes = 0;
  for (auto _ : state) {
    // A process of its own: the peak must not be that of another benchmark.
    char self[4096];
    const ssize_t length = readlink("/proc/self/exe", self, sizeof self - 1);
    const std::string command =
        "'" + std::string(self, static_cast<std::size_t>(std::max<ssize_t>(length, 0))) + "' " +
        kMemoryFlag;
    FILE* child = popen(command.c_str(), "r");
    if (!child || std::fscanf(child, "%lf %lf", &panels, &megabytes) != 2)
      state.SkipWithError("the measured process failed");
    if (child) pclose(child);
  }
  state.counters["panels"] = panels, state.counters["peak_MB"] = megabytes;
}
BENCHMARK(memory)->Iterations(1)->Unit(benchmark::kMillisecond);

} // namespace

int main(int argc, char** argv) {
  if (argc == 2 && std::string_view(argv[1]) == kMemoryFlag) return reportMemory();
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
