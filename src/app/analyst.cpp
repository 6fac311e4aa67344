// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/analyst.h"
#include "app/background.h"
#include <QElapsedTimer>
#include <QThreadPool>

namespace hinge {
namespace {

constexpr int kShowMendsEvery_ms = 400;

} // namespace

Analyst::Analyst(QObject* parent) : QObject(parent) {}

Analyst::~Analyst() {
  m_stop.request_stop();
  // Workers post to this object; none may be left when it goes.
  backgroundPool().waitForDone();
}

void Analyst::request(std::shared_ptr<const Snapshot> snapshot) {
  m_stop.request_stop();
  m_stop = std::stop_source();
  if (m_current) m_lastMotion = m_current->motion;
  m_current.reset();
  m_busy = true, m_searching = m_mending = false;
  const int request = ++m_request;
  const std::stop_token stop = m_stop.get_token();
  emit changed();
  runInBackground([this, snapshot = std::move(snapshot), stop, request] {
    const auto post = [&](std::shared_ptr<const Analysis> analysis, bool final) {
      QMetaObject::invokeMethod(
          this, [this, request, analysis, final] { receive(request, analysis, final); },
          Qt::QueuedConnection);
    };
    auto worked = analyse(snapshot, stop);
    if (!worked || !worked->complete) return post(nullptr, true);
    Analysis analysis = std::move(worked).value();
    const bool fine = analysis.findings.empty();
    if (fine) workOutFacts(analysis);
    post(std::make_shared<const Analysis>(analysis), false);
    // What is seen, and so what everything wears.
    if (!snapshot->seen(stop) || !snapshot->dressed(stop)) return;
    post(std::make_shared<const Analysis>(analysis), fine);
    if (fine) return;
    // Mends come as they are found, but not so often that showing them becomes the work.
    QElapsedTimer sinceShown;
    sinceShown.start();
    searchMends(analysis, stop, [&](std::size_t) {
      if (sinceShown.elapsed() < kShowMendsEvery_ms) return;
      sinceShown.restart();
      post(std::make_shared<const Analysis>(analysis), false);
    });
    if (!stop.stop_requested()) post(std::make_shared<const Analysis>(std::move(analysis)), true);
  });
}

void Analyst::mendAll(const Design& design) {
  // The verdict on the screen stays true while the design does; only the search for single mends is
  // given up.
  m_stop.request_stop();
  m_stop = std::stop_source();
  m_mending = true, m_searching = false;
  const int request = ++m_request;
  const std::stop_token stop = m_stop.get_token();
  emit changed();
  runInBackground([this, design, stop, request] {
    const auto result = hinge::mendAll(design, stop);
    const auto done =
        std::make_shared<const Design>(result && !stop.stop_requested() ? result->design : design);
    QMetaObject::invokeMethod(
        this,
        [this, request, done] {
          if (request != m_request) return;
          m_mending = false;
          emit changed();
          emit mended(done);
        },
        Qt::QueuedConnection);
  });
}

void Analyst::cancel() {
  m_stop.request_stop();
  ++m_request;
  m_busy = m_searching = m_mending = false;
  emit changed();
}

void Analyst::receive(int request, std::shared_ptr<const Analysis> analysis, bool final) {
  if (request != m_request) return;
  if (analysis) m_current = std::move(analysis);
  m_busy = false;
  m_searching = !final;
  emit changed();
}

} // namespace hinge
