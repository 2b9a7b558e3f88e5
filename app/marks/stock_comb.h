#pragma once
// Metal at each touch against what is needed: one comb a surface, teeth sorted by height, the needed stock as
// a dashed line, the least tooth of a limiting surface ringed.

#include "app/marks/spoken.h"
#include "casting/seat_input.h"
#include "quantity/unit.h"

#include <QWidget>

#include <string>
#include <vector>

namespace datrin::app {

struct Comb {
  QString name;
  std::vector<double> metal; ///< mm, ascending; at most a few dozen teeth (the lowest always among them)
  double required = 0;
  double least = 0, most = 0;
  bool limiting = false, gone = false;
  bool wall = false; ///< drawn to a scale of its own: walls are many times thicker than stock
};

/// Combs of all surfaces and walls with touches, at a pose.
std::vector<Comb> make_combs(const casting::SeatInput& input, const Pose& pose,
                             const casting::SeatMargins& margins);

class StockComb : public QWidget, public SpokenPicture {
public:
  explicit StockComb(QWidget* parent = nullptr);
  void set_combs(std::vector<Comb> combs, Unit unit);
  const std::vector<Comb>& combs() const { return combs_; }
  QSize sizeHint() const override;

protected:
  void paintEvent(QPaintEvent*) override;

private:
  std::vector<Comb> combs_;
  Unit unit_ = Unit::mm;
};

} // namespace datrin::app
