// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QTest>
#ifndef Q_MOC_RUN
#include "app/accessible_items.h"
#include "app/look.h"
#include "app/main_window.h"
#include "patience.h"
#include <QMessageBox>
#include <QStandardPaths>
#endif

namespace hinge::test {

/// The real window with a sheet under the hand, driven with real events.
class SheetDriver : public QObject {
protected:
  std::unique_ptr<MainWindow> m_window;

  /// Once for a program; `name` keeps its settings apart.
  static void prepare(const QString& name) {
    QStandardPaths::setTestModeEnabled(true);
    QCoreApplication::setOrganizationName(QStringLiteral("hinge-lantern-test"));
    QCoreApplication::setApplicationName(name);
    Look::apply(*qApp, false);
    installCanvasAccessibility();
  }
  void openWindow() {
    m_window = std::make_unique<MainWindow>();
    m_window->askUnsaved = [] { return static_cast<int>(QMessageBox::Discard); };
    m_window->resize(1280, 800);
    m_window->show();
    QVERIFY(QTest::qWaitForWindowExposed(m_window.get()));
  }
  void settle() {
    QTRY_VERIFY_WITH_TIMEOUT(!m_window->analyst().busy() && !m_window->analyst().searchingMends(),
                             kPatience_ms);
    QCoreApplication::processEvents();
  }
  SheetView& view() { return m_window->sheet().view(); }
  SheetHand& hand() { return m_window->sheet().hand(); }
  StageView& stage() { return m_window->stage(); }
  Document& document() { return m_window->document(); }
  PieceWork work() { return hand().committed().work; }
  /// A point of the sheet, from its lower left corner, on the screen.
  QPoint at(double x, double y) {
    const Vec2 low = boundsOf(hand().sheet().work.outline).low;
    return view().toScreen(low + Vec2(x, y)).toPoint();
  }
  void take(const char* word) { m_window->sheet().bar().word(QLatin1String(word))->click(); }
  void click(const QPoint& where) {
    QTest::mouseMove(&view(), where);
    QTest::mouseClick(&view(), Qt::LeftButton, {}, where);
  }
};

} // namespace hinge::test
