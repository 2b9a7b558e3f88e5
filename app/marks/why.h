#pragma once
// "Why this number": its sum as a short column, added up as on paper, in both units, each line with its
// source.

#include "quantity/reckoning.h"

#include <QFrame>

namespace datrin::app {

class WhyCard : public QFrame {
  Q_OBJECT
public:
  WhyCard(Reckoning reckoning, Unit unit, QWidget* parent);
  const Reckoning& reckoning() const { return reckoning_; }

protected:
  void paintEvent(QPaintEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

private:
  Reckoning reckoning_;
  Unit unit_;
};

/// Opens the card beside `origin`; Esc or a click elsewhere closes it, Ctrl+C copies it as text.
WhyCard* show_why(QWidget* origin, const Reckoning& reckoning, Unit unit);

} // namespace datrin::app
