// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/rounding_search.h"

namespace hinge {
namespace {

Result<JudgedRounding> tried(const Analysis& before, double step_mm,
                             const std::set<std::string>& held, RoundingKeeps keeps,
                             std::chrono::duration<double> most, std::stop_token stop,
                             const Progress& progress) {
  auto rounding =
      roundedTo(before.design, *before.motion, step_mm, held, keeps, most, stop, progress);
  if (!rounding) return rounding.error();
  auto analysis = analyse(rounding->design, stop);
  if (!analysis) return analysis.error();
  return JudgedRounding{std::move(rounding).value(), std::move(analysis).value(), keeps};
}

} // namespace

Result<JudgedRounding> judgedRounding(const Analysis& before, double step_mm,
                                      const std::set<std::string>& held,
                                      std::chrono::duration<double> most, std::stop_token stop,
                                      const Progress& progress) {
  auto first = tried(before, step_mm, held, RoundingKeeps::ShutFlat, most, stop, progress);
  if (!first || before.verdict == Verdict::Spoiled || first->analysis.verdict != Verdict::Spoiled)
    return first;
  auto second = tried(before, step_mm, held, RoundingKeeps::Motion, most, stop, progress);
  return second && second->analysis.verdict != Verdict::Spoiled ? second : first;
}

} // namespace hinge
