#include "app/route/operations_table.h"

#include "app/marks/fields.h"
#include "app/theme.h"
#include "route/propose.h"
#include "sheets/figures.h"

#include <QDropEvent>
#include <QHeaderView>

#include <algorithm>

namespace datrin::app {

using sheets::qt;

namespace {

enum Column { number, what, in_setup, with_tool, minutes, waits, done, columns };

} // namespace

OperationsTable::OperationsTable(QWidget* parent) : QTableWidget(parent) {
  make_plain(this, "Operations in order", {"No.", "Operation", "In", "With", "Min", "Waits for", ""},
             columns);
  for (const int c : {number, minutes})
    horizontalHeaderItem(c)->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
  const int widths[] = {44, 216, 136, 120, 48, 104};
  for (int c = 0; c < done; ++c) setColumnWidth(c, theme().ipx(widths[c]));
  setColumnWidth(done, theme().ipx(30));
  horizontalHeader()->setStretchLastSection(true);
  setDragDropMode(InternalMove);
  setDragDropOverwriteMode(false);
  setDropIndicatorShown(true);
  setToolTip("Drag a row to another place, or Alt+Up and Alt+Down");
}

void OperationsTable::dropEvent(QDropEvent* event) {
  const int from = currentRow();
  auto at = indexAt(event->position().toPoint());
  int to = at.isValid() ? at.row() : rowCount();
  if (at.isValid() && dropIndicatorPosition() == BelowItem) ++to;
  if (to > from) --to;                    // the row itself is gone from above
  event->setDropAction(Qt::IgnoreAction); // the rows follow the records
  event->accept();
  if (from >= 0 && to != from) emit moved(from, to);
}

QString waits_text(const route::RoutePlan& plan, std::size_t row) {
  QStringList list;
  for (const int k : plan.operations[row].right_before) {
    const auto m = static_cast<std::size_t>(k);
    list << (m > row ? QString("\u2717\u202F%1") : QString("%1")).arg(plan.operations[m].number);
  }
  return list.join(", ");
}

QString tool_text(const build::Build& build, const build::Operation& operation) {
  if (const auto* tool = build.find<build::Tool>(operation.tool)) return name_words(tool->name);
  using K = build::OperationKind;
  if (operation.size <= 0 ||
      (operation.kind != K::drill && operation.kind != K::ream && operation.kind != K::tap))
    return {};
  const auto word =
      whole(build::words_of<build::OperationKind>().first[static_cast<std::size_t>(operation.kind)]);
  return filled("%1 %2, to get", operation.kind == K::ream ? QString("reamer") : word,
                sheets::figure(operation.size, build.info().unit));
}

void OperationsTable::show_plan(const build::Build& build, const route::RoutePlan& plan, build::Id piece,
                                build::Id chosen) {
  const QSignalBlocker quiet(this);
  setRowCount(static_cast<int>(plan.operations.size()));
  const auto all = build.operations_of(
      plan.operations.empty() ? 0 : build.find<build::Operation>(plan.operations.front().id)->part);
  build::Id setup_before = -1;
  for (std::size_t k = 0; k < plan.operations.size(); ++k) {
    const auto& planned = plan.operations[k];
    const auto& o = all[k].second;
    const auto* setup = build.find<build::Setup>(o.setup);
    // A setup is named where it is come to.
    const auto in = setup ? name_words(setup->name) : QString("on the bench");
    const int row = static_cast<int>(k);
    fill_row(this, row,
             {QString::number(planned.number), qt(route::operation_text(build, o)),
              o.setup == setup_before ? QString() : in, tool_text(build, o),
              o.minutes > 0 ? QString::number(o.minutes, 'g', 4) : QString(), waits_text(plan, k),
              piece != 0 && build.done_of(piece, planned.id) ? QString("\u2713") : QString()});
    setup_before = o.setup;
    item(row, number)->setForeground(theme().muted);
    if (planned.broken) {
      item(row, waits)->setForeground(theme().gone);
      item(row, number)->setForeground(theme().gone);
    }
    if (planned.id == chosen) setCurrentCell(row, 0);
  }
  if (currentRow() < 0 && rowCount() > 0) setCurrentCell(0, 0);
}

} // namespace datrin::app
