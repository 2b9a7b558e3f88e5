#include "app/route/plans_dialog.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "route/plan_route.h"
#include "sheets/figures.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QTimer>
#include <QVBoxLayout>
#include <algorithm>

namespace datrin::app {

using sheets::qt;

PlansDialog::PlansDialog(Document& document, QWidget* parent)
    : QDialog(parent), document_(document),
      table_(plain_table("Plans that differ", {"Plan", "Setups", "Tools", "Minutes", "Used of limits"}, 1)),
      words_(words_label()), detail_(words_label()), take_(new QPushButton("Take it")),
      stop_(new QPushButton("Stop")) {
  setWindowTitle("Plans");
  resize(std::min(theme().ipx(760), 1220), std::min(theme().ipx(440), 740)); // never more than a screen
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 16, 20, 16);
  column->setSpacing(8);
  const auto* part = document_.build().find<build::Part>(document_.part());
  column->addWidget(heading_label(part ? "Plans for " + name_words(part->name) : QString("Plans")));
  column->addWidget(words_);
  const int widths[] = {320, 70, 70, 80};
  for (int c = 0; c < 4; ++c) table_->setColumnWidth(c, theme().ipx(widths[c]));
  table_->horizontalHeader()->setStretchLastSection(true);
  table_->horizontalHeaderItem(2)->setToolTip("Tool changes");
  table_->horizontalHeaderItem(4)->setToolTip(
      "Of the distance that is worst off: three standard deviations, by what its limits allow");
  column->addWidget(table_, 1);
  column->addWidget(detail_);
  auto* row = new QHBoxLayout;
  row->addStretch(1);
  row->addWidget(stop_);
  row->addWidget(take_);
  column->addLayout(row);
  take_->setEnabled(false);
  connect(table_, &QTableWidget::currentCellChanged, this, [this] { show_chosen(); });
  connect(table_, &QTableWidget::itemActivated, this, &PlansDialog::take);
  connect(take_, &QPushButton::clicked, this, &PlansDialog::take);
  connect(stop_, &QPushButton::clicked, this, [this] {
    if (looking_.busy())
      looking_.stop();
    else
      reject();
  });
  auto* tick = new QTimer(this);
  tick->setInterval(80);
  connect(tick, &QTimer::timeout, this, [this] {
    if (looking_.busy())
      words_->setText(filled("Looking through first datums and orders: %1 %.", looking_.percent()));
  });
  tick->start();
  words_->setText("Looking through first datums and orders\u2026");
  looking_.start([build = document_.build(), id = document_.part()](const Running& running) {
    route::PlansOptions options;
    options.should_stop = running;
    options.progress = [running](double part_done) { running.tell(part_done); };
    return route::best_plans(build, id, options);
  });
}

void PlansDialog::show_plans(route::PlansResult result) {
  result_ = std::move(result);
  stop_->setText("Close");
  if (result_.plans.empty()) {
    words_->setText(sheets::sentence(result_.message));
    return;
  }
  words_->setText(filled(result_.stopped
                             ? "Stopped after %1 choices of first datums; the best of them:"
                             : "%1 choices of first datums gone through. Fewest setups first, then "
                               "what leaves most of the limits, then the least time.",
                         result_.tried));
  table_->setRowCount(static_cast<int>(result_.plans.size()));
  for (std::size_t k = 0; k < result_.plans.size(); ++k) {
    const auto& plan = result_.plans[k];
    const int row = static_cast<int>(k);
    fill_row(table_, row,
             {sheets::sentence(plan.words).chopped(1), QString::number(plan.order.setups),
              QString::number(plan.order.tool_changes), QString::number(plan.order.minutes, 'f', 0),
              plan.worst_of.empty() ? QString("no limits")
                                    : filled("%1 %, %2", QString::number(100 * plan.worst, 'f', 0),
                                             name_words(plan.worst_of))});
    table_->item(row, 4)->setForeground(plan.fits() ? theme().good : theme().gone);
  }
  table_->setCurrentCell(0, 0);
  table_->setFocus();
  show_chosen();
}

void PlansDialog::show_chosen() {
  const int row = table_->currentRow();
  const bool any = row >= 0 && row < static_cast<int>(result_.plans.size());
  take_->setEnabled(any);
  if (!any) return detail_->clear();
  QStringList lines;
  for (const auto& setup : result_.plans[static_cast<std::size_t>(row)].setups) {
    QStringList cuts;
    for (const auto id : setup.cuts) cuts << name_words(build::surface_name(document_.build(), id));
    lines << filled("%1: %2", name_words(setup.name),
                    cuts.isEmpty() ? QString("what is no surface") : cuts.join(", "));
  }
  const auto& notes = result_.plans[static_cast<std::size_t>(row)].notes;
  if (!notes.empty()) lines.clear();
  for (const auto& note : notes) lines << sheets::sentence(note);
  for (const auto& datum : result_.plans[static_cast<std::size_t>(row)].datums)
    lines << sheets::sentence("less is lost so: " + datum);
  if (!document_.build().setups_of(document_.part()).empty())
    lines << "Taking it puts these in place of the setups there are; operations stay.";
  detail_->setText(lines.join("\n"));
}

void PlansDialog::take() {
  const int row = table_->currentRow();
  if (row < 0 || row >= static_cast<int>(result_.plans.size())) return;
  if (document_.apply(result_.plans[static_cast<std::size_t>(row)].edit)) accept();
}

} // namespace datrin::app
