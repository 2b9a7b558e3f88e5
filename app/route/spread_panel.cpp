#include "app/route/spread_panel.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "sheets/figures.h"

#include <QHeaderView>
#include <QVBoxLayout>

#include <algorithm>

namespace datrin::app {

using sheets::fit_figure;
using sheets::qt;

SpreadPanel::SpreadPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document),
      table_(plain_table(
          "Expected spread of distances with limits",
          {"Distance", "Allowed \u00B1", "Expected \u00B1", "In one setup \u00B1", "Most of it"}, 1)),
      words_(words_label()), remarks_(muted_label()) {
  table_->horizontalHeaderItem(4)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  table_->horizontalHeaderItem(2)->setToolTip("Three standard deviations: nearly all pieces keep it.");
  table_->horizontalHeaderItem(3)->setToolTip("If both its faces were cut in one setup.");
  const int widths[] = {150, 92, 100, 120};
  for (int c = 0; c < 4; ++c) table_->setColumnWidth(c, theme().ipx(widths[c]));
  table_->horizontalHeader()->setStretchLastSection(true);
  auto* side = new QVBoxLayout(this);
  side->setContentsMargins(12, 10, 12, 12);
  side->setSpacing(6);
  side->addWidget(heading_label("What turning over costs"));
  side->addWidget(words_);
  side->addWidget(remarks_);
  side->addStretch(1);
  side->addWidget(
      muted_label("Reckoned with 0.01 mm (0.4 thou) for seating at a locator and for a cut, 0.02 mm for "
                  "touching off, 0.3 mm for a face as cast and 0.05 mm for bar, each a standard "
                  "deviation: common practice, not your machine."));
  connect(table_, &QTableWidget::currentCellChanged, this, [this] { show_chosen(); });
}

void SpreadPanel::refresh() {
  spread_ =
      document_.is_open() ? route::part_spread(document_.build(), document_.part()) : route::PartSpread{};
  const auto unit = document_.unit();
  const int row = table_->currentRow();
  table_->setRowCount(static_cast<int>(spread_.dimensions.size()));
  for (std::size_t k = 0; k < spread_.dimensions.size(); ++k) {
    const auto& d = spread_.dimensions[k];
    const auto* dimension = document_.build().find<build::Dimension>(d.dimension);
    fill_row(table_, static_cast<int>(k),
             {name_words(dimension ? dimension->name : std::string()), fit_figure(d.allowed, unit),
              fit_figure(d.expected(), unit),
              d.together > 0 ? fit_figure(3 * d.together, unit) : QString("\u2013"),
              qt(route::spread_from(document_.build(), spread_, d))});
    table_->item(static_cast<int>(k), 4)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    table_->item(static_cast<int>(k), 2)->setForeground(d.fits() ? theme().good : theme().gone);
  }
  if (table_->rowCount() > 0) table_->setCurrentCell(std::clamp(row, 0, table_->rowCount() - 1), 0);
  QStringList remarks;
  for (const auto& remark : spread_.remarks) remarks << sheets::sentence(remark);
  remarks_->setText(remarks.join("\n"));
  show_chosen();
}

void SpreadPanel::show_chosen() {
  const int row = table_->currentRow();
  if (row < 0 || row >= static_cast<int>(spread_.dimensions.size())) {
    words_->setText(spread_.setups.empty()
                        ? QString("First setups, under Setups: then it is told what each turn-over costs.")
                        : QString("No distance between two surfaces of this part has limits."));
    return;
  }
  const auto& d = spread_.dimensions[static_cast<std::size_t>(row)];
  const auto* dimension = document_.build().find<build::Dimension>(d.dimension);
  const auto unit = document_.unit();
  QString words =
      filled("%1: its limits leave \u00B1%2, the setups as they stand come to \u00B1%3 (\u03C3 %4).",
             name_words(dimension ? dimension->name : std::string()), sheets::fit_with_unit(d.allowed, unit),
             sheets::fit_with_unit(d.expected(), unit), sheets::fit_with_unit(d.sigma, unit));
  for (std::size_t k = 0; k < d.shares.size(); ++k) {
    const auto* setup = document_.build().find<build::Setup>(spread_.setups[k]);
    const auto per_cent = [](double share) { return QString::number(100 * share, 'f', 0); };
    if (setup && d.shares[k].locating + d.shares[k].cutting > 0.005)
      words +=
          filled("\n%1 %: %2 (locating %3, cutting %4)", per_cent(d.shares[k].locating + d.shares[k].cutting),
                 name_words(setup->name), per_cent(d.shares[k].locating), per_cent(d.shares[k].cutting));
  }
  if (d.raw > 0.005) words += filled("\n%1 %: a face that stays raw", QString::number(100 * d.raw, 'f', 0));
  if (!d.fits() && d.together > 0 && 3 * d.together <= d.allowed)
    words += "\nCut both its faces in one setup, and it is kept.";
  else if (!d.fits())
    words += "\nLocate it from a face that is cut, or measure each piece and cut to that.";
  words_->setText(words);
}

} // namespace datrin::app
