#pragma once
// A pressed crank as its readings say it is: the shafts out of line a hundred times as far, and the place to
// act on in brass.

#include "app/marks/spoken.h"
#include "truing/crank_log.h"

#include <QWidget>

namespace datrin::app {

class CrankPicture : public QWidget, public SpokenPicture {
public:
  explicit CrankPicture(QWidget* parent = nullptr);
  void show_log(const truing::CrankLog& log);
  QSize sizeHint() const override { return {460, 320}; }

protected:
  void paintEvent(QPaintEvent*) override;

private:
  truing::CrankLog log_;
};

} // namespace datrin::app
