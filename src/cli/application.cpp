// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/application.h"
#include "words/language.h"
#include <QGuiApplication>
#include <cstdlib>

namespace hinge {
namespace {

int s_count = 1;
char s_name[] = "hinge-lantern-cli";
char* s_arguments[] = {s_name, nullptr};
Application* s_current = nullptr;

} // namespace

Application::Application() {
  if (QCoreApplication::instance()) return;
  m_own = new QCoreApplication(s_count, s_arguments);
  s_current = this;
  speakUsersLanguage();
}

Application::~Application() {
  delete m_own;
  s_current = nullptr;
}

void Application::paint() {
  if (qobject_cast<QGuiApplication*>(QCoreApplication::instance()) || !s_current) return;
  if (!std::getenv("QT_QPA_PLATFORM")) setenv("QT_QPA_PLATFORM", "offscreen", 1);
  // The offscreen platform asks for a runtime folder only to warn that there is none.
  if (!std::getenv("XDG_RUNTIME_DIR"))
    qputenv("QT_LOGGING_RULES", "qt.core.qstandardpaths=false;default.warning=false");
  delete s_current->m_own;
  s_current->m_own = new QGuiApplication(s_count, s_arguments);
  speakUsersLanguage();
}

} // namespace hinge
