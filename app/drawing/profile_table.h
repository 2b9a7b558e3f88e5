#pragma once
// The profile of what is turned, place by place, to type in: how far up, how wide, and the arc to there.

#include "build/body.h"
#include "quantity/unit.h"

#include <QTableWidget>

#include <vector>

namespace datrin::app {

class ProfileTable : public QTableWidget {
  Q_OBJECT
public:
  explicit ProfileTable(QWidget* parent = nullptr);
  void show_profile(const std::vector<build::ProfilePoint>& profile, Unit unit);

signals:
  void typed(const std::vector<datrin::build::ProfilePoint>& profile);
  void not_understood(const QString& why); ///< what was typed in a cell; the old value stands

private:
  enum Column { up, diameter, arc };
  void take(QTableWidgetItem* item);
  void show_rows();

  std::vector<build::ProfilePoint> profile_;
  Unit unit_ = Unit::mm;
};

} // namespace datrin::app
