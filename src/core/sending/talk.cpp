// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sending/talk.h"
#include <algorithm>
#include <charconv>
#include <chrono>
#include <thread>

namespace hinge {
namespace {

/// Error numbers of the machine for what a hand has to see to.
constexpr int kJam = 20, kOutOfPaper = 21;
/// Ends what the machine has not done yet of all that it was sent.
constexpr const char* kAbort = "\x1b.K";
constexpr double kSlowest_cms = 5; ///< of a machine that was told no speed
constexpr auto kPauseStep = std::chrono::milliseconds(40);

struct Stand {
  MachinePoint at{};
  bool lowered = false;
};

Result<std::vector<int>> numbersOf(const std::string& answer, std::size_t count) {
  std::vector<int> numbers;
  const char* at = answer.data();
  const char* const end = at + answer.size();
  while (at < end) {
    int value = 0;
    const auto [next, failed] = std::from_chars(at, end, value);
    if (failed != std::errc{}) break;
    numbers.push_back(value);
    at = next < end && *next == ',' ? next + 1 : next;
    if (next < end && *next != ',') break;
  }
  if (at != end || numbers.size() != count) return Error{{"cutter.answer", answer}, ""};
  return numbers;
}

class Talk {
public:
  Talk(const CutterJob& job, CutterLine& line, const CutterControl& control)
      : m_job(job), m_line(line), m_control(control), m_all_mm(job.lowered_mm()) {
    m_mark.job = markOf(job);
    if (!job.steps.empty()) m_mark.from = startOf(job.steps.front(), 0);
  }

  Result<CutterEnd> run(const std::optional<CutterMark>& mark) {
    if (m_job.steps.empty()) return CutterEnd::Done;
    if (auto ready = mark ? goOnFrom(*mark) : begin(); !ready) return ready.error();
    while (m_mark.step < m_job.steps.size()) {
      if (m_control.stop.stop_requested()) return lifted(CutterEnd::Stopped);
      if (m_control.pause && m_control.pause->load()) {
        if (auto up = raise(); !up) return up.error();
        std::this_thread::sleep_for(kPauseStep);
        continue;
      }
      if (auto done = sendLeg(); !done) return done.error();
    }
    if (auto home = m_line.send("PU0,0;SP0;"); !home) return home.error();
    return CutterEnd::Done;
  }

private:
  const CutterStep& step() const { return m_job.steps[m_mark.step]; }

  Result<void> begin() {
    if (auto sent = m_line.send(std::string(kAbort) + "IN;"); !sent) return sent;
    const auto stands = ask(m_control.patience_ms);
    return stands ? Result<void>() : Result<void>(stands.error());
  }

  /// Where the tool stands tells how much of the leg that was sent last has been done.
  Result<void> goOnFrom(const CutterMark& mark) {
    if (mark.job != m_mark.job || mark.step >= m_job.steps.size() ||
        mark.leg >= m_job.steps[mark.step].legs.size() ||
        mark.from.behind > m_job.steps[mark.step].legs[mark.leg])
      return Error{"cutter.other-job", ""};
    m_mark = mark;
    if (auto sent = m_line.send(kAbort); !sent) return sent;
    const auto stands = ask(m_control.patience_ms);
    if (!stands) return stands.error();
    // On its way to a stroke the tool is raised, and nothing of the stroke is done.
    const bool untouched = mark.from == startOf(step(), mark.leg) && mark.leg == 0;
    if (!(untouched && !stands->lowered)) {
      const auto at = placeOn(step(), mark.leg, mark.from, stands->at);
      if (!at) return Error{"cutter.elsewhere", ""};
      m_mark.from = *at;
    }
    return m_line.send("IN;");
  }

  Result<Stand> ask(double patience_ms) {
    if (auto sent = m_line.send("OE;OA;"); !sent) return sent.error();
    const auto error = m_line.answer(static_cast<int>(patience_ms));
    if (!error) return error.error();
    const auto number = numbersOf(*error, 1);
    if (!number) return number.error();
    const auto place = m_line.answer(static_cast<int>(patience_ms));
    if (!place) return place.error();
    if (number->front() == kJam) return Error{"cutter.jam", ""};
    if (number->front() == kOutOfPaper) return Error{"cutter.paper", ""};
    if (number->front() != 0) return Error{{"cutter.refused", number->front()}, ""};
    const auto at = numbersOf(*place, 3);
    if (!at) return at.error();
    return Stand{{(*at)[0], (*at)[1]}, (*at)[2] != 0};
  }

  Result<void> sendLeg() {
    const CutterStep& now = step();
    if (auto kept = m_control.keep(m_mark); !kept) return kept;
    const std::string text = hpglOf(m_job, now, m_mark.leg, m_mark.from, m_lowered);
    if (auto sent = m_line.send(text); !sent) return sent;
    const double speed_mms = 10 * (m_job.speed_cms > 0 ? m_job.speed_cms : kSlowest_cms);
    const double lasts_ms = 1000 * (m_job.width_mm + m_job.height_mm) / speed_mms;
    const auto stands = ask(m_control.patience_ms + lasts_ms);
    if (!stands) return stands.error();
    const bool last = m_mark.leg + 1 == now.legs.size();
    if (stands->at != now.way[now.legs[m_mark.leg]]) return Error{"cutter.elsewhere", ""};
    m_lowered = !last;
    if (last)
      ++m_mark.step, m_mark.leg = 0;
    else
      ++m_mark.leg;
    if (m_mark.step < m_job.steps.size()) m_mark.from = startOf(step(), m_mark.leg);
    tell();
    return {};
  }

  Result<void> raise() {
    if (!m_lowered) return {};
    m_lowered = false; // and the next leg begins by lowering it
    return m_line.send("PU;");
  }

  Result<CutterEnd> lifted(CutterEnd end) {
    if (auto kept = m_control.keep(m_mark); !kept) return kept.error();
    if (auto up = raise(); !up) return up.error();
    return end;
  }

  void tell() {
    if (!m_control.progress) return;
    double done = 0;
    for (std::size_t k = 0; k <= std::min(m_mark.step, m_job.steps.size() - 1); ++k) {
      const CutterStep& one = m_job.steps[k];
      const std::size_t last = k < m_mark.step ? one.way.size() - 1 : m_mark.from.behind;
      done += lengthOf_mm(std::span(one.way).first(last + 1));
    }
    m_control.progress(done, m_all_mm, m_mark.step);
  }

  const CutterJob& m_job;
  CutterLine& m_line;
  const CutterControl& m_control;
  double m_all_mm = 0;
  CutterMark m_mark;
  bool m_lowered = false;
};

} // namespace

Result<CutterEnd> runCutter(const CutterJob& job, CutterLine& line,
                            const std::optional<CutterMark>& mark, const CutterControl& control) {
  return Talk(job, line, control).run(mark);
}

} // namespace hinge
