// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/sending/cutter_job.h"
#include <atomic>
#include <functional>
#include <stop_token>

namespace hinge {

/// The line to a machine. Answers end with a carriage return or a new line, which is taken off.
class CutterLine {
public:
  virtual ~CutterLine() = default;
  virtual Result<void> send(std::string_view text) = 0;
  /// Error "cutter.silent" when nothing has come after so many milliseconds, "cutter.lost" when the
  /// line is gone.
  virtual Result<std::string> answer(int patience_ms) = 0;
};

/// How far a job has come, as it is kept while it is cut: this leg was sent from there, or is about
/// to be. Every leg before it is done.
struct CutterMark {
  std::string job; ///< markOf()
  std::size_t step = 0, leg = 0;
  WayPlace from;
  bool operator==(const CutterMark&) const = default;
};

struct CutterControl {
  /// Keeps the mark on disk before a leg is sent; nothing is sent when it cannot be kept.
  std::function<Result<void>(const CutterMark&)> keep;
  /// Hears how much of the tools' way is done, of all, and at which step the machine is.
  std::function<void(double done_mm, double all_mm, std::size_t step)> progress = {};
  std::stop_token stop = {};
  const std::atomic<bool>* pause = nullptr; ///< waits with a raised tool while this is set
  int patience_ms = 5000;                   ///< besides the time that a leg takes
};

enum class CutterEnd { Done, Stopped };

/// Sends a job leg by leg, asking after each what the machine has done, from its start or from a
/// mark. A mark is held against where the tool stands: what was cut before the line broke, the
/// machine jammed or one of the two was switched off is not cut again. Errors: "cutter.jam",
/// "cutter.paper", "cutter.refused" (another error number), "cutter.silent", "cutter.lost",
/// "cutter.answer", "cutter.other-job" (the mark is of another job), "cutter.elsewhere" (the tool
/// stands where this job has not led it), and what keep() says. After an error the mark last kept
/// is where to go on.
Result<CutterEnd> runCutter(const CutterJob& job, CutterLine& line,
                            const std::optional<CutterMark>& mark, const CutterControl& control);

} // namespace hinge
