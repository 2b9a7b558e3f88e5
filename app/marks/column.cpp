#include "app/marks/column.h"

#include "app/theme.h"

#include <QPainter>

namespace datrin::app {

void colour_label(QLabel* label, const QColor& colour) {
  auto palette = label->palette();
  palette.setColor(QPalette::WindowText, colour);
  label->setPalette(palette);
}

QLabel* heading_label(const QString& text, QWidget* parent) {
  auto* label = words_label(text, parent);
  label->setWordWrap(false);
  label->setFont(theme().heading());
  colour_label(label, theme().muted);
  return label;
}

QLabel* words_label(const QString& text, QWidget* parent) {
  auto* label = new QLabel(text, parent);
  label->setWordWrap(true);
  label->setTextFormat(Qt::PlainText);
  label->setMinimumWidth(theme().ipx(20)); // a name without blanks does not push the column wide
  return label;
}

QLabel* muted_label(const QString& text, QWidget* parent) {
  auto* label = words_label(text, parent);
  label->setFont(theme().small());
  colour_label(label, theme().muted);
  return label;
}

QWidget* hairline(QWidget* parent) {
  auto* line = new QWidget(parent);
  line->setFixedHeight(1);
  line->setAutoFillBackground(true);
  auto palette = line->palette();
  palette.setColor(QPalette::Window, theme().hairline);
  line->setPalette(palette);
  return line;
}

NextButton::NextButton(QWidget* parent) : QPushButton(parent) {
  setProperty("primary", true);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void NextButton::set_words(const QString& title, const QString& line1, const QString& line2,
                           const QString& key) {
  title_ = title;
  line1_ = line1;
  line2_ = line2;
  key_ = key;
  setAccessibleName(title);
  setAccessibleDescription(line1 + " " + line2);
  updateGeometry();
  update();
}

QSize NextButton::sizeHint() const {
  const int lines = (line1_.isEmpty() ? 0 : 1) + (line2_.isEmpty() ? 0 : 1);
  return {theme().ipx(200), theme().ipx(40 + 23 * lines)};
}

void NextButton::paintEvent(QPaintEvent* event) {
  QPushButton::paintEvent(event);
  QPainter painter(this);
  const auto& t = theme();
  const QRectF area = QRectF(rect()).adjusted(t.px(14), t.px(10), -t.px(14), -t.px(10));
  painter.setPen(isEnabled() ? t.paper : t.muted);
  painter.setFont(t.text(true));
  painter.drawText(area, Qt::AlignLeft | Qt::AlignTop, title_);
  painter.setFont(t.small());
  painter.setPen(isEnabled() ? (t.dark ? t.hairline : QColor("#A8BDD6")) : t.muted);
  painter.drawText(area, Qt::AlignRight | Qt::AlignTop, key_);
  painter.setFont(t.text());
  painter.setPen(!isEnabled() ? t.muted : t.dark ? QColor("#5A3F0C") : t.blue.brass);
  painter.drawText(area.adjusted(0, t.px(22), 0, 0), Qt::AlignLeft | Qt::AlignTop,
                   painter.fontMetrics().elidedText(line1_, Qt::ElideRight, static_cast<int>(area.width())));
  painter.drawText(area.adjusted(0, t.px(45), 0, 0), Qt::AlignLeft | Qt::AlignTop,
                   painter.fontMetrics().elidedText(line2_, Qt::ElideRight, static_cast<int>(area.width())));
}

} // namespace datrin::app
