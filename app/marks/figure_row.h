#pragma once
// A named figure in both units. F1 or Enter asks where it came from.

#include "quantity/reckoning.h"

#include <QWidget>

namespace datrin::app {

class FigureRow : public QWidget {
public:
  FigureRow(const QString& mark, const QString& name, double mm, Unit unit, Reckoning why,
            QWidget* parent = nullptr);
  void set_fine() { fine_ = true; } ///< three decimals of a millimetre; the other unit in the tool tip alone
  double value() const { return mm_; }
  QString name() const { return name_; }
  const Reckoning& why() const { return why_; }
  QSize sizeHint() const override;

protected:
  void paintEvent(QPaintEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void mouseDoubleClickEvent(QMouseEvent*) override;
  void focusInEvent(QFocusEvent*) override { update(); }
  void focusOutEvent(QFocusEvent*) override { update(); }

private:
  QString mark_, name_;
  double mm_;
  Unit unit_;
  bool fine_ = false;
  Reckoning why_;
};

} // namespace datrin::app
