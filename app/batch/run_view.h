#pragma once
// The sizes of one column of a batch, piece by piece, scribed between its limits: where the tool wears, which
// pieces are out, and the groups that one setting serves.

#include "app/marks/spoken.h"
#include "quantity/unit.h"

#include <QString>
#include <QWidget>

#include <optional>
#include <vector>

namespace datrin::app {

struct RunPicture {
  struct Point {
    int number = 0;
    double value = 0; ///< mm
    bool out = false;
  };
  struct Band {
    double least = 0, most = 0;
  };
  QString title;
  std::vector<Point> points;                  ///< by the pieces' numbers
  int pieces = 0;                             ///< in all
  std::optional<double> lower, upper, wanted; ///< mm
  std::vector<Band> groups;
};

class RunView : public QWidget, public SpokenPicture {
public:
  explicit RunView(QWidget* parent = nullptr);
  void show_picture(RunPicture picture, Unit unit);

protected:
  void paintEvent(QPaintEvent*) override;

private:
  RunPicture picture_;
  Unit unit_ = Unit::mm;
};

} // namespace datrin::app
