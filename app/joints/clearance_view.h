#pragma once
// The clearance a joint will have: how likely each is, over what is wanted, cold and hot.

#include "app/marks/spoken.h"
#include "quantity/unit.h"

#include <QWidget>

#include <vector>

namespace datrin::app {

struct ClearancePicture {
  bool known = false;
  QString title = "Clearance that results"; ///< or "Gap that results"
  double expected = 0, sigma = 0;           ///< mm
  double least = 0, most = 0;               ///< wanted
  double hot_by = 0;                        ///< mm the clearance changes by at work; 0: not known
  double worst_low = 0, worst_high = 0;     ///< both 0: not shown
  std::vector<double> histogram;            ///< instead of the bell, when there is one
  double histogram_low = 0, histogram_width = 0;
  bool fine = true;  ///< in micrometres or thou; else in the unit itself
  QStringList lines; ///< below the curve
};

class ClearanceView : public QWidget, public SpokenPicture {
public:
  explicit ClearanceView(QWidget* parent = nullptr);
  void show_picture(const ClearancePicture& picture, Unit unit);
  const ClearancePicture& picture() const { return picture_; }

protected:
  void paintEvent(QPaintEvent*) override;

private:
  ClearancePicture picture_;
  Unit unit_ = Unit::mm;
};

} // namespace datrin::app
