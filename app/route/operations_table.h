#pragma once
// The operations of a part in the order they stand, each with what it waits for. Rows are dragged to another
// place.

#include "build/build.h"
#include "route/plan_route.h"

#include <QTableWidget>

namespace datrin::app {

class OperationsTable : public QTableWidget {
  Q_OBJECT
public:
  explicit OperationsTable(QWidget* parent = nullptr);

  /// `piece`: whose ticks are shown; 0: none. The row of `chosen` is chosen.
  void show_plan(const build::Build& build, const route::RoutePlan& plan, build::Id piece, build::Id chosen);

signals:
  void moved(int from, int to); ///< row `from` was dragged to be row `to`

protected:
  void dropEvent(QDropEvent* event) override;
};

/// "10, 20": the numbers of those that come right before it; with ✗ where one stands later.
QString waits_text(const route::RoutePlan& plan, std::size_t row);

/// What an operation is done with: the tool of the shop, else what it wants: "drill 5.0 mm, not in the shop".
QString tool_text(const build::Build& build, const build::Operation& operation);

} // namespace datrin::app
