// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/look.h"
#include <QApplication>
#include <QFontDatabase>
#include <QPalette>

namespace hinge {
namespace {
Theme s_theme = Theme::light();

/// The look of all widgets; names after % are colours of the theme.
constexpr char kSheet[] = R"(
    QWidget { color: %ink; }
    QMainWindow, #page { background: %surface; }
    QToolTip { background: %raised; color: %ink; border: 1px solid %line; padding: 4px 6px; }
    QLabel#heading { font-size: 15px; font-weight: 700; }
    QLabel#large { font-size: 26px; font-weight: 300; }
    QLabel#soft, QCheckBox#soft { color: %soft; }
    QLabel#section { color: %soft; font-size: 12px; font-weight: 700; }
    QFrame#hairline { background: %line; max-height: 1px; border: none; }
    QFrame#card { background: %raised; border: 1px solid %line; border-radius: 8px; }
    QPlainTextEdit { background: %field; border: 1px solid %line; border-radius: 5px;
      selection-background-color: %accent; selection-color: %accentInk; }
    QPlainTextEdit:focus { border: 1px solid %accent; }
    QLineEdit { background: %field; border: 1px solid %line; border-radius: 5px;
      padding: 2px 6px; selection-background-color: %accent; selection-color: %accentInk; }
    QLineEdit:focus { border: 1px solid %accent; }
    QLineEdit[wrong="true"] { border: 1px solid %trouble; }
    QLineEdit:disabled { color: %faint; background: %surface; }
    QComboBox { background: %field; border: 1px solid %line; border-radius: 5px; padding: 3px 8px; }
    QComboBox:focus { border-color: %accent; }
    QComboBox::drop-down { border: none; width: 22px; }
    QComboBox::down-arrow { image: url(:/icons/chevron-%mode.svg); width: 12px; height: 12px; }
    QComboBox QAbstractItemView { background: %raised; border: 1px solid %line;
      selection-background-color: %accent; selection-color: %accentInk; }
    QPushButton, QToolButton { background: %raised; border: 1px solid %line;
      border-radius: 6px; padding: 5px 12px; }
    QPushButton:hover, QToolButton:hover { border-color: %accent; }
    QPushButton:focus, QToolButton:focus { border: 1px solid %accent; }
    QPushButton:disabled, QToolButton:disabled { color: %faint; background: %surface; }
    QPushButton#primary { background: %accent; color: %accentInk; border-color: %accent;
      font-weight: 700; }
    QPushButton#primary:disabled { background: %surface; color: %faint; border-color: %line; }
    QPushButton#mend { background: transparent; color: %accent; border: none; padding: 2px 0px;
      text-align: left; font-weight: 700; }
    QPushButton#mend:hover, QPushButton#mend:focus { text-decoration: underline; }
    QToolButton#quiet { background: transparent; border: 1px solid transparent; padding: 5px 9px; }
    QToolButton#quiet:hover { border-color: %line; }
    QToolButton#quiet:focus { border-color: %accent; }
    QToolButton::menu-indicator { image: none; }
    QToolButton#handword { background: transparent; border: none; border-radius: 0; color: %soft;
      padding: 4px 6px; margin-right: 0; }
    QToolButton#handword:hover { color: %ink; }
    QToolButton#handword:checked { color: %ink; font-weight: 700;
      border-bottom: 2px solid %accent; }
    QToolButton#handword:focus { color: %accent; }
    QToolButton#handchoice { background: transparent; border: 1px solid transparent;
      border-radius: 9px; color: %soft; padding: 1px 8px; font-size: 12px; }
    QToolButton#handchoice:hover { border-color: %line; }
    QToolButton#handchoice:checked { color: %ink; border-color: %accent; }
    QToolButton#place { background: transparent; border: none; border-radius: 0;
      padding: 14px 16px 11px 16px; font-size: 14px; color: %soft;
      border-bottom: 3px solid transparent; }
    QToolButton#place:hover { color: %ink; }
    QToolButton#place:checked { color: %ink; font-weight: 700; border-bottom: 3px solid %accent; }
    QToolButton#place:focus { color: %accent; }
    QPushButton:checked { background: %field; color: %ink; font-weight: 700;
      border: 1px solid %line; border-bottom: 3px solid %accent; }
    QTabWidget::pane { border: none; border-top: 1px solid %line; }
    QTabBar { background: transparent; }
    QTabBar::tab { background: transparent; border: none; color: %soft; padding: 6px 4px 5px 4px;
      margin-right: 18px; border-bottom: 2px solid transparent; }
    QTabBar::tab:hover { color: %ink; }
    QTabBar::tab:selected { color: %ink; font-weight: 700; border-bottom: 2px solid %accent; }
    QTabBar::tab:focus { color: %accent; }
    QMenu { background: %raised; border: 1px solid %line; padding: 5px; }
    QMenu::item { padding: 5px 26px 5px 14px; border-radius: 4px; }
    QMenu::item:selected { background: %accent; color: %accentInk; }
    QMenu::item:disabled { color: %faint; }
    QMenu::separator { height: 1px; background: %line; margin: 4px 8px; }
    QScrollArea, QScrollArea > QWidget > QWidget { background: transparent; border: none; }
    QScrollBar:vertical { background: transparent; width: 9px; margin: 0; }
    QScrollBar::handle:vertical { background: %line; border-radius: 4px; min-height: 24px; }
    QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }
    QTableWidget, QListWidget { background: %raised; border: 1px solid %line;
      border-radius: 8px; gridline-color: transparent; selection-background-color: %field;
      selection-color: %ink; }
    QTableWidget::item { padding-left: 6px; }
    QListWidget::item { padding: 6px; }
    QHeaderView::section { background: transparent; color: %soft; border: none;
      border-bottom: 1px solid %line; padding: 6px 8px; font-weight: 700; }
    QTreeWidget#standing { background: transparent; border: none; color: %stageInk;
      outline: none; show-decoration-selected: 1; }
    QTreeWidget#standing::item { padding: 2px 4px; color: %stageInk; }
    QTreeWidget#standing::item:selected { background: rgba(232,154,67,0.25); color: %stageInk; }
    QTreeWidget#standing::item:hover { background: rgba(255,255,255,0.06); }
    QTreeWidget#standing::branch { image: none; border: none; }
    QTreeWidget#standing::branch:selected { background: transparent; }
    QWidget#shelf { background: %raised; border: 1px solid %line; border-radius: 10px; }
    QLabel#trouble { color: %trouble; font-weight: 700; }
    QLabel#notice { background: %trouble; color: white; border-radius: 6px; padding: 8px 12px; }
    QDialog { background: %surface; border: 1px solid %line; }
  )";

QString sheet(const Theme& t) {
  QString css = QString::fromLatin1(kSheet);
  const std::pair<const char*, QColor> names[] = {
      {"%accentInk", t.accentInk}, {"%accent", t.accent},
      {"%stageInk", t.stageInk},   {"%surface", t.surface},
      {"%raised", t.raised},       {"%field", t.field},
      {"%line", t.line},           {"%soft", t.inkSoft},
      {"%faint", t.inkFaint},      {"%ink", t.ink},
      {"%trouble", t.trouble}};
  for (const auto& [name, colour] : names)
    css.replace(QLatin1String(name), colour.name());
  css.replace(QLatin1String("%mode"), t.dark ? QLatin1String("dark") : QLatin1String("light"));
  return css;
}

} // namespace

const Theme& Look::theme() {
  return s_theme;
}
bool Look::isDark() {
  return s_theme.dark;
}

QFont Look::font(double size_px, int weight) {
  QFont font(QStringLiteral("Lato"));
  font.setPixelSize(static_cast<int>(size_px));
  font.setWeight(static_cast<QFont::Weight>(weight));
  return font;
}

void Look::apply(QApplication& application, bool dark) {
  s_theme = dark ? Theme::night() : Theme::light();
  application.setFont(font(13));
  QPalette palette;
  palette.setColor(QPalette::Window, s_theme.surface);
  palette.setColor(QPalette::Base, s_theme.field);
  palette.setColor(QPalette::AlternateBase, s_theme.raised);
  palette.setColor(QPalette::Text, s_theme.ink);
  palette.setColor(QPalette::WindowText, s_theme.ink);
  palette.setColor(QPalette::Button, s_theme.raised);
  palette.setColor(QPalette::ButtonText, s_theme.ink);
  palette.setColor(QPalette::Highlight, s_theme.accent);
  palette.setColor(QPalette::HighlightedText, s_theme.accentInk);
  palette.setColor(QPalette::PlaceholderText, s_theme.inkFaint);
  application.setPalette(palette);
  application.setStyleSheet(sheet(s_theme));
}

} // namespace hinge
