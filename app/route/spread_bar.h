#pragma once
// The expected spread of one distance as a bar to the scale of what its limits allow, parted by setup and
// cause.

#include "route/part_spread.h"

#include <QStringList>
#include <QWidget>

namespace datrin::app {

class SpreadBar : public QWidget {
public:
  explicit SpreadBar(QWidget* parent = nullptr);
  /// `setups`: their names, for the screen reader and below the parts that have room.
  void show_spread(const route::DimensionSpread& spread, const QStringList& setups);
  void clear();

  QSize sizeHint() const override;

protected:
  void paintEvent(QPaintEvent*) override;

private:
  struct Share {
    double part = 0; ///< of the variance
    bool cutting = false;
    QString name;
  };
  std::vector<Share> shares_;
  double expected_ = 0, allowed_ = 0;
};

} // namespace datrin::app
