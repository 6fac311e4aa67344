// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

class QCoreApplication;

namespace hinge {

/// The application object of the command line: one without painting speaks the user's language;
/// pictures and PDF need one that can paint, which starts slower and takes the first one's place.
/// Where there is one already (in a test), that one serves. Objects end with the scope.
class Application {
public:
  Application();
  ~Application();
  Application(const Application&) = delete;
  Application& operator=(const Application&) = delete;

  /// From now on there can be painted. It needs fonts but never a screen.
  static void paint();

private:
  QCoreApplication* m_own = nullptr;
};

} // namespace hinge
