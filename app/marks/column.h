#pragma once
// The parts a room column is made of: headings of groups, words, hairlines, the one thing to do next.

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace datrin::app {

QLabel* heading_label(const QString& text, QWidget* parent = nullptr);
QLabel* words_label(const QString& text = {}, QWidget* parent = nullptr); ///< wraps
QLabel* muted_label(const QString& text = {}, QWidget* parent = nullptr); ///< wraps, small
QWidget* hairline(QWidget* parent = nullptr);

void colour_label(QLabel* label, const QColor& colour);

/// A dark button with a title, a line or two below it and the key that presses it.
class NextButton : public QPushButton {
public:
  explicit NextButton(QWidget* parent = nullptr);
  void set_words(const QString& title, const QString& line1, const QString& line2, const QString& key);
  QSize sizeHint() const override;
  QSize minimumSizeHint() const override { return {80, sizeHint().height()}; }

protected:
  void paintEvent(QPaintEvent*) override;

private:
  QString title_, line1_, line2_, key_;
};

} // namespace datrin::app
