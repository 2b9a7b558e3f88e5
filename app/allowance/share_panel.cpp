#include "app/allowance/share_panel.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "build/edit_casting.h"
#include "casting/expect.h"
#include "sheets/figures.h"

#include <QHeaderView>
#include <QVBoxLayout>

#include <algorithm>

namespace datrin::app {

using sheets::figure;
using sheets::qt;

SharePanel::SharePanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document),
      table_(plain_table("Ways to share the metal", {"Share", "here", "there", "Room"}, 1)),
      heading_(heading_label("The face opposite")), words_(words_label()),
      take_(new QPushButton("Share it so")) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(6);
  column->addWidget(heading_);
  table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  for (int c = 1; c < 4; ++c)
    table_->horizontalHeader()->setSectionResizeMode(c, QHeaderView::ResizeToContents);
  table_->setMinimumHeight(theme().ipx(24 * 7 + 6));
  column->addWidget(table_);
  column->addWidget(words_);
  column->addWidget(take_);
  column->addStretch(1);
  connect(table_, &QTableWidget::currentCellChanged, this, [this] { show_words(); });
  connect(table_, &QTableWidget::cellActivated, this, [this] { take(); });
  connect(take_, &QPushButton::clicked, this, [this] { take(); });
}

void SharePanel::show_plan(const PieceState& state, const std::vector<allowance::SurfacePlan>& plans,
                           const allowance::SurfacePlan* plan) {
  rows_.clear();
  piece_ = state.piece;
  table_->setRowCount(0);
  table_->hide();
  take_->hide();
  const auto other_id = plan ? casting::opposite_plane(document_.build(), plan->surface) : 0;
  const auto other =
      std::find_if(plans.begin(), plans.end(), [&](const auto& p) { return p.surface == other_id; });
  if (plan == nullptr || plan->drawn.round() || other == plans.end() ||
      plan->source != allowance::StockSource::touches || other->source != allowance::StockSource::touches) {
    heading_->setText("The face opposite");
    words_->setText(
        plan && plan->drawn.round()
            ? QString("A round surface shares with nothing: its metal is evened out by moving "
                      "its axis, in the Seat step.")
        : plan && !plan->of_casting
            ? QString("How the metal of bar or block is shared between its sides is said under Stock, in "
                      "the Drawing step.")
            : QString("There is nothing to share with: it needs touches here and on a face "
                      "opposite that is machined too."));
    return;
  }
  heading_->setText(QString("%1 and %2").arg(name_words(plan->drawn.name), name_words(other->drawn.name)));
  title_ = name_words(plan->drawn.name);
  allowance::ShareInput in;
  in.least_a = plan->least;
  in.least_b = other->least;
  in.needed_a = plan->drawn.required;
  in.needed_b = other->drawn.required;
  for (const auto& [id, spot] : document_.build().spots_of(state.piece)) {
    if (spot.surface != plan->surface || spot.size <= 0 ||
        (spot.kind != build::SpotKind::pore && spot.kind != build::SpotKind::defect &&
         spot.kind != build::SpotKind::chill))
      continue;
    const double over = stock_at(plan->drawn.shape(), state.pose.apply(spot.at));
    if (spot.size - over > in.defect - in.over_defect) {
      in.defect = spot.size;
      in.over_defect = over;
    }
  }
  const bool cut = !plan->cuts.empty() || !other->cuts.empty();
  const std::pair<allowance::Share, QString> ways[] = {
      {allowance::Share::as_seated, "as seated"}, {allowance::Share::even_room, "even room"},
      {allowance::Share::half, "half each"},      {allowance::Share::all_a, "all here"},
      {allowance::Share::all_b, "all there"},     {allowance::Share::clear_defect, "clear the defect"}};
  for (const auto& [how, name] : ways) {
    const auto result = allowance::share(in, how, document_.unit());
    if (!result.usable()) continue;
    Row row{name, result, state.pose, 0};
    // The pose maps the casting into the drawing: metal over a face grows when the casting moves along its
    // normal.
    row.pose.translation += result.shift * plan->drawn.direction;
    row.least = casting::margins_at(state.input.seat, row.pose).least;
    rows_.push_back(row);
  }
  const auto unit = document_.unit();
  table_->show();
  take_->show();
  table_->setRowCount(static_cast<int>(rows_.size()));
  for (std::size_t k = 0; k < rows_.size(); ++k) {
    const auto& r = rows_[k];
    fill_row(table_, static_cast<int>(k),
             {r.name, figure(r.result.metal_a, unit), figure(r.result.metal_b, unit),
              figure(r.least, unit, true)});
    if (r.least < 0) table_->item(static_cast<int>(k), 3)->setForeground(theme().gone);
  }
  take_->setEnabled(!cut);
  take_->setToolTip(cut ? "One of the two is cut already: the metal between them is no longer free to share"
                        : QString());
  table_->setCurrentCell(0, 0);
  show_words();
}

void SharePanel::show_words() {
  const int k = table_->currentRow();
  if (k < 0 || k >= static_cast<int>(rows_.size())) return;
  const auto& r = rows_[static_cast<std::size_t>(k)];
  QString words = qt(r.result.text) + ", at the lowest places. ";
  if (std::abs(r.result.shift) > 1e-6)
    words += QString("The part moves %1. ")
                 .arg(sheets::figure_with_unit(std::abs(r.result.shift), document_.unit()));
  words +=
      r.least >= 0
          ? QString("Everything still cleans up, with %1 to spare.")
                .arg(sheets::figure_with_unit(r.least, document_.unit()))
          : QString("Then something no longer cleans up, by %1.").arg(figure(-r.least, document_.unit()));
  if (!r.result.fits && r.name == "clear the defect") words += " The defect is not cut away whole.";
  words_->setText(words);
}

void SharePanel::take() {
  const int k = table_->currentRow();
  if (k < 0 || k >= static_cast<int>(rows_.size()) || !take_->isEnabled() || piece_ == 0) return;
  const auto& r = rows_[static_cast<std::size_t>(k)];
  if (std::abs(r.result.shift) < 1e-9) return;
  document_.apply(build::set_seat(document_.build(), piece_, r.pose, false,
                                  QString("Share the metal at %1: %2").arg(title_, r.name).toStdString()));
}

} // namespace datrin::app
