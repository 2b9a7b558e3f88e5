#pragma once
// What holds the seat: ring number, touch, its share as a bar and per cent.

#include <QString>
#include <QWidget>

#include <vector>

namespace datrin::app {

struct HoldRow {
  int number = 0;
  QString name;
  double share = -1; ///< below 0: not known (the part was moved by hand)
};

class HoldList : public QWidget {
public:
  using QWidget::QWidget;
  void set_rows(std::vector<HoldRow> rows);
  const std::vector<HoldRow>& rows() const { return rows_; }
  QSize sizeHint() const override;

protected:
  void paintEvent(QPaintEvent*) override;

private:
  std::vector<HoldRow> rows_;
};

} // namespace datrin::app
