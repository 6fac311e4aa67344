#include "app/analyst.h"
#include <QThreadPool>
#include <QPointer>
#include <QCoreApplication>

namespace hinge {

Analyst::Analyst(QObject* parent) : QObject(parent) {}

Analyst::~Analyst() {
  m_stop.request_stop();
  // Workers post to this object; none may be left when it goes.
  QThreadPool::globalInstance()->waitForDone();
}

void Analyst::request(const Design& design) {
  m_stop.request_stop();
  m_stop = std::stop_source();
  m_current.reset();
  m_busy = true, m_searching = m_mending = false;
  const int request = ++m_request;
  const std::stop_token stop = m_stop.get_token();
  emit changed();
  QThreadPool::globalInstance()->start([this, design, stop, request] {
    const auto post = [&](std::shared_ptr<const Analysis> analysis, bool final) {
      QMetaObject::invokeMethod(this, [this, request, analysis, final] { receive(request, analysis, final); }, Qt::QueuedConnection);
    };
    auto worked = analyse(design, {.searchMends = false}, stop);
    if (!worked || !worked->complete) return post(nullptr, true);
    auto first = std::make_shared<const Analysis>(*worked);
    const bool open = std::ranges::any_of(first->findings, [](const Finding& f) { return !f.mend; });
    post(first, !open);
    if (!open) return;
    Analysis complete = *first;
    searchMends(complete, stop);
    if (!stop.stop_requested()) post(std::make_shared<const Analysis>(std::move(complete)), true);
  });
}

void Analyst::mendAll(const Design& design) {
  // The verdict on the screen stays true while the design does; only the search for single mends is given up.
  m_stop.request_stop();
  m_stop = std::stop_source();
  m_mending = true, m_searching = false;
  const int request = ++m_request;
  const std::stop_token stop = m_stop.get_token();
  emit changed();
  QThreadPool::globalInstance()->start([this, design, stop, request] {
    const auto result = hinge::mendAll(design, stop);
    const auto done = std::make_shared<const Design>(result && !stop.stop_requested() ? result->design : design);
    QMetaObject::invokeMethod(this, [this, request, done] {
      if (request != m_request) return;
      m_mending = false;
      emit changed();
      emit mended(done);
    }, Qt::QueuedConnection);
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
