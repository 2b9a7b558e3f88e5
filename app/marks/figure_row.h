#pragma once
// A named figure in both units, or in words where it is no length. F1 or Enter asks where it came from.

#include "quantity/reckoning.h"

#include <QWidget>

namespace datrin::app {

class FigureRow : public QWidget {
public:
  FigureRow(const QString& mark, const QString& name, double mm, Unit unit, Reckoning why,
            QWidget* parent = nullptr);
  /// A figure that is no one length, as words: "483 g · 17.0 oz".
  FigureRow(const QString& name, const QString& words, Unit unit, Reckoning why, QWidget* parent = nullptr);
  /// Another figure in the same row: it stays where it is, and with it the keyboard. `more`: said in its tool
  /// tip as well.
  void show_figure(double mm, Unit unit, Reckoning why, const QString& more = {});
  void show_words(const QString& words, Reckoning why); ///< the same of a figure in words
  void set_fine() { fine_ = true; } ///< three decimals of a millimetre; the other unit in the tool tip alone
  double value() const { return mm_; }
  QString name() const { return name_; }
  QString words() const { return words_; }
  const Reckoning& why() const { return why_; }
  QSize sizeHint() const override;

protected:
  void paintEvent(QPaintEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void mouseDoubleClickEvent(QMouseEvent*) override;
  void focusInEvent(QFocusEvent*) override { update(); }
  void focusOutEvent(QFocusEvent*) override { update(); }

private:
  QString mark_, name_, words_; ///< words: in place of mm, where there are some
  double mm_ = 0;
  Unit unit_;
  bool fine_ = false;
  Reckoning why_;
};

} // namespace datrin::app
