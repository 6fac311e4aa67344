// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/analyst.h"
#include <QElapsedTimer>

namespace hinge {
namespace {

constexpr int kShowMendsEvery_ms = 400;

using Found = std::shared_ptr<const Analysis>;

/// Motion and findings, what is seen, then the search for mends; `show` gets each as it comes, the
/// last of it is returned. Null when it was stopped before there was a verdict.
template <class Show>
Found workedOut(const std::shared_ptr<const Snapshot>& snapshot, std::stop_token stop,
                const Progress& progress, const Show& show) {
  auto worked = analyse(snapshot, stop, progress);
  if (!worked || !worked->complete) return nullptr;
  Analysis analysis = std::move(worked).value();
  const auto copy = [&] { return std::make_shared<const Analysis>(analysis); };
  const bool fine = analysis.findings.empty();
  if (fine) workOutFacts(analysis);
  show(copy());
  // What is seen, and so what everything wears.
  if (!snapshot->seen(stop) || !snapshot->dressed(stop) || fine) return copy();
  show(copy());
  // Mends come as they are found, but not so often that showing them becomes the work.
  QElapsedTimer sinceShown;
  sinceShown.start();
  searchMends(analysis, stop, [&](std::size_t) {
    if (sinceShown.elapsed() < kShowMendsEvery_ms) return;
    sinceShown.restart();
    show(copy());
  });
  return copy();
}

} // namespace

void Analyst::advance(std::size_t done, std::size_t all) {
  m_done = done, m_all = all;
  emit advanced();
}

void Analyst::request(std::shared_ptr<const Snapshot> snapshot) {
  if (m_current) m_lastMotion = m_current->motion;
  m_current.reset();
  m_busy = true, m_searching = m_mending = false;
  m_done = m_all = 0;
  m_working.start(
      [this, snapshot](std::stop_token stop, const NewestWork::Tell& tell) {
        const auto told = [this](std::size_t done, std::size_t all) { advance(done, all); };
        return workedOut(snapshot, stop, toldNowAndThen(tell, told), [&](const Found& found) {
          tell([this, found] { receive(found, false); });
        });
      },
      [this](const Found& found) { receive(found, true); });
  emit changed();
}

void Analyst::mendAll(const Design& design) {
  // The verdict on the screen stays true while the design does; only the search for single mends is
  // given up.
  m_mending = true, m_searching = false;
  m_done = m_all = 0;
  m_working.start(
      [this, design](std::stop_token stop, const NewestWork::Tell& tell) {
        const auto told = [this](std::size_t done, std::size_t all) { advance(done, all); };
        const auto result = hinge::mendAll(design, stop, toldNowAndThen(tell, told));
        return std::make_shared<const Design>(result && !stop.stop_requested() ? result->design
                                                                               : design);
      },
      [this](const std::shared_ptr<const Design>& done) {
        m_mending = false;
        emit changed();
        emit mended(done);
      });
  emit changed();
}

void Analyst::cancel() {
  m_working.stop();
  m_busy = m_searching = m_mending = false;
  emit changed();
}

void Analyst::receive(std::shared_ptr<const Analysis> analysis, bool final) {
  if (analysis) m_current = std::move(analysis);
  m_busy = false;
  m_done = m_all = 0;
  m_searching = !final;
  emit changed();
}

} // namespace hinge
