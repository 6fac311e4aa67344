// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/cut_json.h"
#include "cli/cut_verbs.h"
#include "core/io/cut_mark.h"
#include "core/io/cutter_port.h"
#include "core/io/design_json.h"
#include "core/io/maker_bench.h"
#include "core/paper/sheet_size.h"
#include "words/words.h"
#include <atomic>
#include <csignal>
#include <fmt/format.h>

// The verb that speaks to a cutting machine.

namespace hinge {
namespace {

std::atomic<bool> interrupted = false;

/// In steps of ten per cent: enough for somebody who watches the machine.
class Told {
public:
  Told(const Design& design, bool quiet) : m_design(design), m_quiet(quiet) {}
  void operator()(double done_mm, double all_mm, std::size_t) {
    const int tenths = all_mm > 0 ? static_cast<int>(10 * done_mm / all_mm + 1e-9) : 10;
    if (m_quiet || tenths <= m_tenths) return;
    m_tenths = tenths;
    tell({"cli.cut-so-far", 10 * tenths}, m_design);
    std::fflush(stdout);
  }

private:
  const Design& m_design;
  bool m_quiet;
  int m_tenths = 0;
};

Result<CutterEnd> sendTo(const Options& o, const Design& design, const CutterJob& job) {
  // First the machine: whoever is still sending to it has left a mark too, and has not broken off.
  auto line = openCutter(o.device);
  if (!line) return line.error();
  const auto mark = keptCutMark();
  if (!mark && !o.again) return mark.error();
  if (o.resume && !*mark) return Error{"cutter.nothing-under-way", "--resume"};
  if (!o.resume && !o.again && *mark) return Error{"cutter.under-way", cutMarkPath()};
  std::stop_source stop;
  interrupted = false;
  std::signal(SIGINT, [](int) { interrupted = true; });
  CutterControl control;
  control.keep = [&](const CutterMark& at) {
    if (interrupted) stop.request_stop();
    return keepCutMark(at);
  };
  control.progress = Told(design, o.json);
  control.stop = stop.get_token();
  const auto ended = runCutter(job, **line, o.resume ? *mark : std::nullopt, control);
  std::signal(SIGINT, SIG_DFL);
  if (ended && *ended == CutterEnd::Done) forgetCutMark();
  return ended;
}

Result<CutterJob> jobFor(const Options& o, const Snapshot& snapshot, const Bench& bench) {
  const auto plan = planFor(o, snapshot);
  if (!plan) return plan.error();
  const auto sheet = static_cast<std::size_t>(std::max(1, o.sheetNumber) - 1);
  if (sheet >= plan->sheets.size())
    return Error{{"layout.no-sheet", plan->sheets.size(), sheet + 1}, "--sheet"};
  return cutterJob(*plan, sheet, snapshot.design(), bench);
}

Result<TestSquares> squaresFor(const Design& design, const Bench& bench) {
  const SheetSize& sheet = sheetByKey(design.settings.sheet);
  return testSquares(sheet.width_mm, sheet.height_mm, design.cardPaper(), bench);
}

/// What was measured of the squares becomes the bench's correction.
Result<MachineFit> measuredOn(const Options& o, const Design& design, Bench bench) {
  const auto squares = squaresFor(design, bench);
  if (!squares) return squares.error();
  double read[4] = {};
  for (std::size_t k = 0; k < 4; ++k) {
    const auto length = parseLength_mm(o.measured[k], design.settings.unit);
    if (!length) return Error{length.error().message, "--measured"};
    read[k] = *length;
  }
  const auto fit = fitFrom(*squares, {Vec2(read[0], read[1]), Vec2(read[2], read[3])});
  if (!fit) return fit;
  setFit(bench, *fit);
  const auto kept = keepBench(bench);
  return kept ? fit : Result<MachineFit>(kept.error());
}

void tellFit(const MachineFit& fit, const Design& design) {
  tell({"cli.machine-fit", Decimal{fit.scale.x(), 4}, Decimal{fit.scale.y(), 4},
        Millimetres{fit.offset_mm.x()}, Millimetres{fit.offset_mm.y()}},
       design);
}

} // namespace

Result<std::string> sheetAsHpgl(const Options& o, const Snapshot& snapshot) {
  const auto bench = makersBench();
  if (!bench) return bench.error();
  const auto job = jobFor(o, snapshot, *bench);
  return job ? hpglOf(*job) : Result<std::string>(job.error());
}

int cutVerb(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const LengthUnit unit = d->settings.unit;
  const auto bench = makersBench();
  if (!bench) return refuse(bench.error(), unit);
  if (!o.measured.empty()) {
    const auto fit = measuredOn(o, *d, *bench);
    if (!fit) return refuse(fit.error(), unit);
    tellFit(*fit, *d);
    return kFine;
  }
  Result<CutterJob> job = CutterJob();
  if (o.squares) {
    const auto squares = squaresFor(*d, *bench);
    job = squares ? Result<CutterJob>(squares->job) : Result<CutterJob>(squares.error());
    if (squares && !o.json)
      tell({"cli.squares", Millimetres{kSquare_mm}, Millimetres{squares->first_mm.x()},
            Millimetres{squares->apart_mm.x()}, Millimetres{squares->apart_mm.y()}},
           *d);
  } else {
    job = jobFor(o, Snapshot(*d), *bench);
  }
  if (!job) return refuse(job.error(), unit);
  if (!o.json)
    tell({"cli.cut-job", job->steps.size(), Decimal{job->lowered_mm() / 1000, 2}, job->speed_cms,
          job->force_g, Decimal{job->seconds() / 60, 1}},
         *d);
  std::optional<CutterEnd> ended;
  if (!o.device.empty()) {
    const auto sent = sendTo(o, *d, *job);
    if (!sent) return refuse(sent.error(), unit);
    ended = *sent;
  }
  if (o.json)
    fmt::print("{}", cutterJobToJson(*job, ended));
  else if (ended)
    tell(*ended == CutterEnd::Done ? "cli.cut-done" : "cli.cut-stopped", *d);
  return !ended || *ended == CutterEnd::Done ? kFine : kSpoiled;
}

} // namespace hinge
