#include "app/route/spread_panel.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/route/tolerance_dialog.h"
#include "app/theme.h"
#include "quantity/length_text.h"
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
      bar_(new SpreadBar), words_(words_label()), remarks_(muted_label()), taken_(muted_label()),
      other_words_(words_label()), take_(new QPushButton("Take that datum")),
      tolerances_(new QPushButton("Tolerances\u2026")),
      allowed_(new FigureRow({}, "Allowed \u00B1", 0, Unit::mm, {})),
      expected_(new FigureRow({}, "Expected \u00B1", 0, Unit::mm, {})) {
  allowed_->set_fine();
  expected_->set_fine();
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
  side->addWidget(allowed_);
  side->addWidget(expected_);
  side->addWidget(bar_);
  side->addWidget(words_);
  side->addWidget(other_words_);
  side->addWidget(take_, 0, Qt::AlignLeft);
  side->addWidget(remarks_);
  side->addStretch(1);
  side->addWidget(tolerances_, 0, Qt::AlignLeft);
  tolerances_->setToolTip(
      "Where holes and faces must lie, run true, stand square: the spread is held to them");
  side->addWidget(taken_);
  connect(take_, &QPushButton::clicked, this, [this] {
    if (other_) document_.apply(other_->edit);
  });
  connect(tolerances_, &QPushButton::clicked, this, [this] {
    auto* dialog = new ToleranceDialog(document_, document_.part(), window());
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->open();
  });
  connect(table_, &QTableWidget::currentCellChanged, this, [this] { show_chosen(); });
}

void SpreadPanel::refresh() {
  spread_ = document_.is_open()
                ? route::part_spread(document_.build(), document_.part(), {}, document_.piece())
                : route::PartSpread{};
  const auto unit = document_.unit();
  const int row = table_->currentRow();
  table_->setRowCount(static_cast<int>(spread_.dimensions.size()));
  for (std::size_t k = 0; k < spread_.dimensions.size(); ++k) {
    const auto& d = spread_.dimensions[k];
    fill_row(table_, static_cast<int>(k),
             {name_words(route::spread_name(document_.build(), d)),
              d.allowed > 0 ? fit_figure(d.allowed, unit) : QString("\u2013"),
              d.measured ? filled("read %1", fit_figure(*d.measured, unit)) : fit_figure(d.expected(), unit),
              d.together > 0 ? fit_figure(3 * d.together, unit) : QString("\u2013"),
              qt(route::spread_from(document_.build(), spread_, d))});
    table_->item(static_cast<int>(k), 4)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    table_->item(static_cast<int>(k), 2)->setForeground(d.fits() ? theme().good : theme().gone);
  }
  if (table_->rowCount() > 0) table_->setCurrentCell(std::clamp(row, 0, table_->rowCount() - 1), 0);
  QStringList remarks;
  for (const auto& remark : spread_.remarks) remarks << sheets::sentence(remark);
  remarks_->setText(remarks.join("\n"));
  taken_->setText(document_.is_open() ? taken_words() : QString());
  show_chosen();
}

/// The standard deviations it is reckoned with, in the build's unit.
QString SpreadPanel::taken_words() const {
  const route::PartSpreadOptions o;
  const auto text = [this](double mm) { return qt(length_text_both(mm, document_.unit())); };
  return filled(
      "Reckoned with %1 for seating at a locator, %2 for a cut, %3 for touching off, %4 for a face as "
      "cast and %5 for bar, each a standard deviation: common practice, until a machine of the shop says its "
      "own.",
      text(o.seating), text(o.cutting), text(o.touching_off), text(o.raw_cast), text(o.raw_stock));
}

void SpreadPanel::show_allowed(const route::DimensionSpread& d) {
  const auto& b = document_.build();
  const auto unit = document_.unit();
  const auto* dimension = b.find<build::Dimension>(d.dimension);
  const auto* tolerance = b.find<build::GeometricTolerance>(d.tolerance);
  allowed_->setVisible(dimension != nullptr || tolerance != nullptr);
  if (dimension) {
    Reckoning half{"half of what the limits leave",
                   {{"upper deviation", dimension->upper,
                     dimension->tolerance.empty() ? "drawing" : dimension->tolerance},
                    {"less the lower", -dimension->lower, "drawing"}},
                   {}};
    half.answer = "half of it: " + length_text_both(d.allowed, unit);
    allowed_->show_figure(d.allowed, unit, std::move(half));
  } else if (tolerance) {
    Reckoning zone{"what the zone leaves", {{"width of the zone", tolerance->within, "drawing"}}, {}};
    const bool half = d.allowed < tolerance->within;
    zone.answer = (half ? "half of it, each way: " : "all of it: ") + length_text_both(d.allowed, unit);
    allowed_->show_figure(d.allowed, unit, std::move(zone));
  }
}

/// What another datum would give, where it is worth it.
void SpreadPanel::show_other(const route::DimensionSpread* d) {
  other_ = d ? route::other_datum(document_.build(), document_.part(), *d) : std::nullopt;
  other_words_->setVisible(other_.has_value());
  take_->setVisible(other_.has_value());
  if (other_)
    other_words_->setText(filled("%1: \u00B1%2 instead of \u00B1%3.",
                                 sheets::sentence(other_->text).chopped(1),
                                 qt(length_text_both(3 * other_->sigma, document_.unit())),
                                 qt(length_text_both(d->expected(), document_.unit()))));
}

void SpreadPanel::show_chosen() {
  const int row = table_->currentRow();
  const bool any = row >= 0 && row < static_cast<int>(spread_.dimensions.size());
  show_other(any ? &spread_.dimensions[static_cast<std::size_t>(row)] : nullptr);
  tolerances_->setEnabled(document_.is_open() && document_.part() != 0);
  allowed_->setVisible(any);
  expected_->setVisible(any);
  if (!any) bar_->clear();
  if (!any)
    return words_->setText(
        spread_.setups.empty()
            ? QString("First setups, under Setups: then it is told what each turn-over costs.")
            : QString("No distance between two surfaces of this part has limits."));
  const auto& d = spread_.dimensions[static_cast<std::size_t>(row)];
  const auto& b = document_.build();
  const auto unit = document_.unit();
  QStringList setups;
  for (const auto id : spread_.setups)
    if (const auto* setup = b.find<build::Setup>(id)) setups << name_words(setup->name);
  bar_->show_spread(d, setups);
  show_allowed(d);
  expected_->show_figure(d.expected(), unit, route::spread_sum(b, spread_, d),
                         "Three standard deviations: nearly all pieces keep it.");
  QString words = name_words(route::spread_name(b, d)) + ":";
  if (d.measured)
    words += filled("\nRead on this piece as %1: that counts, not what was expected.",
                    sheets::figure_with_unit(*d.measured, unit));
  if (d.tir() > 0)
    words += filled("\nAn indicator on the one shows up to %1 when the other runs true (twice as much).",
                    qt(length_text_both(d.tir(), unit)));
  for (std::size_t k = 0; k < d.shares.size(); ++k) {
    const auto* setup = b.find<build::Setup>(spread_.setups[k]);
    const auto per_cent = [](double share) { return QString::number(100 * share, 'f', 0); };
    if (setup && d.shares[k].locating + d.shares[k].cutting > 0.005)
      words += filled("\n%1 % from %2 (locating %3, cutting %4)",
                      per_cent(d.shares[k].locating + d.shares[k].cutting), name_words(setup->name),
                      per_cent(d.shares[k].locating), per_cent(d.shares[k].cutting));
  }
  if (d.raw > 0.005)
    words += filled("\n%1 % from a face that stays raw", QString::number(100 * d.raw, 'f', 0));
  constexpr double worth = 0.95; // a stop that takes off less is not worth its setting
  if (!d.measured && d.with_stop > 0 && d.with_stop < worth * d.sigma)
    words += filled("\nWith a stop where nothing locates it: \u00B1%1.",
                    qt(length_text_both(3 * d.with_stop, unit)));
  if (!d.measured && d.of == route::SpreadOf::coaxial && d.together > 0)
    words += filled("\nCut in one setup: \u00B1%1.", qt(length_text_both(3 * d.together, unit)));
  if (!d.fits() && d.together > 0 && 3 * d.together <= d.allowed)
    words += "\nCut both its faces in one setup, and it is kept.";
  else if (!d.fits())
    words += "\nLocate it from a face that is cut, or measure each piece and cut to that.";
  words_->setText(words);
}

} // namespace datrin::app
