#pragma once
// How far the read-out still is from where it should be: a figure, and a scale with both marked.

#include "app/marks/spoken.h"
#include "quantity/unit.h"

#include <QWidget>

#include <optional>

namespace datrin::app {

class ToGo : public QWidget, public SpokenPicture {
public:
  explicit ToGo(QWidget* parent = nullptr);

  struct Shown {
    QString axis;
    std::optional<double> target, now; ///< mm; without a target only where it is
    double within = 0.01;              ///< mm: it is there
    Unit unit = Unit::mm;
    bool old = false; ///< it has sent nothing for a while: `now` is what it showed then
    QString trouble;  ///< in place of the figures
  };
  void show_way(Shown shown);
  QString text() const; ///< "to go −2.416", "there", "old: X read 8.000"
  bool is_there() const;
  QSize sizeHint() const override;

protected:
  void paintEvent(QPaintEvent*) override;

private:
  void paint_scale(class QPainter& p, const QRectF& area);
  Shown shown_;
};

} // namespace datrin::app
