#include "app/theme.h"

#include "sheets/shown.h"

#include <QApplication>
#include <QPalette>

#include <algorithm>

// Resources of a static library must be drawn in by name, outside any namespace.
static void init_app_resources() {
  Q_INIT_RESOURCE(app);
}

namespace datrin::app {
namespace {

Theme& current() {
  static Theme theme;
  return theme;
}

QString style_sheet(const Theme& t) {
  const auto c = [](const QColor& colour) { return colour.name(); };
  return filled(QString(R"(
    * { font-family: "Datrin B612"; }
    QToolTip { background: %2; color: %3; border: 1px solid %5; padding: 4px; }
    QLineEdit, QComboBox, QSpinBox { background: %2; color: %3; border: 1px solid %5; border-radius: 3px;
      padding: 2px 6px; selection-background-color: %6; selection-color: %1; min-height: %9px; }
    QLineEdit:focus, QComboBox:focus, QSpinBox:focus { border: 1px solid %6; }
    QLineEdit[wrong="true"] { border: 1px solid %7; border-bottom: 3px solid %7; }
    QComboBox::drop-down { border: 0; width: 20px; } QComboBox::down-arrow { image: url(:/datrin/chevron.png); width: 12px; height: 8px; }
    QComboBox QAbstractItemView, QMenu { background: %2; color: %3; border: 1px solid %5;
      selection-background-color: %6; selection-color: %1; }
    QMenu::item { padding: 5px 24px 5px 14px; } QMenu::item:selected { background: %6; color: %1; }
    QMenu::item:disabled { color: %4; } QMenu::separator { height: 1px; background: %5; margin: 4px 0; }
    QPushButton { background: transparent; color: %3; border: 1px solid %5; border-radius: 3px; padding: 4px 10px; }
    QPushButton:hover { border-color: %6; } QPushButton:focus { border: 2px solid %6; padding: 3px 9px; }
    QPushButton:disabled { color: %4; }
    QPushButton[primary="true"] { background: %3; color: %1; border: 0; text-align: left; padding: 10px 14px; }
    QPushButton[primary="true"]:focus { border: 2px solid %6; padding: 8px 12px; }
    QPushButton[primary="true"]:disabled { background: %5; color: %4; }
    QPushButton[flat_link="true"] { border: 0; padding: 2px 0; color: %3; text-align: left; font-weight: bold; }
    QPushButton[flat_link="true"]:focus { color: %6; border: 0; }
    QPushButton[tab="true"] { border: 0; border-bottom: 2px solid transparent; border-radius: 0; padding: 4px 0; color: %4; }
    QPushButton[tab="true"]:checked { color: %3; border-bottom: 2px solid %6; font-weight: bold; }
    QPushButton[tab="true"]:focus { color: %6; padding: 4px 0; border: 0; border-bottom: 2px solid %6; }
    QListView { background: transparent; color: %3; border: 0; outline: 0; }
    QListWidget::item { border-bottom: 1px solid %5; padding: 4px 0; }
    QListWidget::item:selected { background: %8; color: %3; }
    QListWidget:focus { border: 1px solid %6; }
    QListView[painted="true"]:focus { border: 0; } QListView[painted="true"]::item { border: 0; padding: 0; }
    QPushButton[flat_link="true"]::menu-indicator { width: 0; }
    QTableView { background: transparent; color: %3; border: 0; gridline-color: %5; outline: 0;
      selection-background-color: %8; selection-color: %3; }
    QTableView::item { padding: 0 6px; border: 0; } QTableView::item:focus { border: 1px solid %6; }
    QTableView QLineEdit { min-height: 0; padding: 0 4px; }
    QHeaderView::section { background: transparent; color: %4; border: 0; border-bottom: 1px solid %5; padding: 2px 6px; }
    QHeaderView { background: transparent; border: 0; } QTableCornerButton::section { background: transparent; border: 0; }
    QAbstractScrollArea::corner { background: transparent; border: 0; }
    QScrollArea { background: transparent; border: 0; } QScrollArea > QWidget > QWidget { background: transparent; }
    QScrollBar:vertical { background: transparent; width: 10px; margin: 0; }
    QScrollBar::handle:vertical { background: %5; border-radius: 4px; min-height: 24px; margin: 1px 2px; }
    QScrollBar:horizontal { background: transparent; height: 10px; margin: 0; }
    QScrollBar::handle:horizontal { background: %5; border-radius: 4px; min-width: 24px; margin: 2px 1px; }
    QScrollBar::add-line, QScrollBar::sub-line { width: 0; height: 0; }
    QScrollBar::add-page, QScrollBar::sub-page { background: transparent; }
    QCheckBox { color: %3; spacing: 6px; } QCheckBox:focus { color: %6; }
    QCheckBox::indicator { width: %10px; height: %10px; border: 1px solid %4; border-radius: 2px; background: %2; }
    QCheckBox::indicator:checked { background: %6; border: 3px solid %2; outline: 1px solid %6; }
    QCheckBox::indicator:focus { border-color: %6; }
  )"),
                c(t.paper), c(t.raised), c(t.ink), c(t.muted), c(t.hairline), c(t.brass), c(t.gone),
                c(t.track), t.ipx(20), t.ipx(12));
}

} // namespace

QFont Theme::heading() const {
  auto f = sheets::font(px(11));
  f.setCapitalization(QFont::AllUppercase);
  f.setLetterSpacing(QFont::PercentageSpacing, 104);
  return f;
}

const Theme& theme() {
  return current();
}

void set_theme(QApplication& application, bool dark, double text_scale) {
  sheets::load_fonts();
  init_app_resources();
  auto& t = current();
  t.dark = dark;
  t.text_scale = std::clamp(text_scale, 0.8, 2.0);
  t.paper = QColor(dark ? "#15181C" : "#F5F3EE");
  t.raised = QColor(dark ? "#20242A" : "#FFFFFF");
  t.ink = QColor(dark ? "#E8E4DA" : "#20262E");
  t.muted = QColor(dark ? "#9AA3AD" : "#636B76");
  t.hairline = QColor(dark ? "#353B43" : "#DAD5CA");
  t.brass = QColor(dark ? "#D9AE5A" : "#8F6518");
  t.gone = QColor(dark ? "#F0806C" : "#B93C26");
  t.good = QColor(dark ? "#66BFA8" : "#256F5F");
  t.track = QColor(dark ? "#2F353D" : "#E6E0D3");

  QPalette palette;
  palette.setColor(QPalette::Window, t.paper);
  palette.setColor(QPalette::Base, t.raised);
  palette.setColor(QPalette::AlternateBase, t.paper);
  palette.setColor(QPalette::WindowText, t.ink);
  palette.setColor(QPalette::Text, t.ink);
  palette.setColor(QPalette::ButtonText, t.ink);
  palette.setColor(QPalette::Button, t.raised);
  palette.setColor(QPalette::PlaceholderText, t.muted);
  palette.setColor(QPalette::Highlight, t.brass);
  palette.setColor(QPalette::HighlightedText, t.paper);
  palette.setColor(QPalette::ToolTipBase, t.raised);
  palette.setColor(QPalette::ToolTipText, t.ink);
  application.setPalette(palette);
  application.setFont(t.text());
}

void set_style(QApplication& application) {
  application.setStyleSheet(style_sheet(current()));
}

void clear_style(QApplication& application) {
  application.setStyleSheet({});
}

} // namespace datrin::app
