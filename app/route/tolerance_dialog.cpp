#include "app/route/tolerance_dialog.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "build/edit_route.h"
#include "sheets/figures.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QVBoxLayout>

#include <algorithm>

namespace datrin::app {

using build::Characteristic;
using build::GeometricTolerance;
using build::Id;

ToleranceDialog::ToleranceDialog(Document& document, Id part, QWidget* parent)
    : QDialog(parent), document_(document), part_(part),
      table_(plain_table("Geometrical tolerances", {"What", "Of", "From", "Within"}, 3)),
      what_(choice_box("What is toleranced", plain_words<Characteristic>())),
      surface_(choice_box("Of which surface")), within_(new LengthField("Within")),
      add_(new QPushButton("Add")), remove_(new QPushButton("Remove")), message_(new MessageLine) {
  setWindowTitle("Position, squareness, coaxiality");
  resize(std::min(theme().ipx(620), 1220), std::min(theme().ipx(460), 740)); // never more than a screen
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 16, 20, 16);
  column->setSpacing(6);
  const int widths[] = {100, 150, 200};
  for (int c = 0; c < 3; ++c) table_->setColumnWidth(c, theme().ipx(widths[c]));
  table_->horizontalHeader()->setStretchLastSection(true);
  column->addWidget(table_, 1);
  column->addWidget(remove_, 0, Qt::AlignLeft);
  remove_->setAccessibleName("Remove the chosen tolerance");
  column->addWidget(hairline());
  constexpr int label = 84;
  column->addWidget(labelled("What", what_, label));
  column->addWidget(labelled("Of", surface_, label));
  static constexpr const char* names[] = {"Taken from", "And from", "And from as well"};
  for (std::size_t k = 0; k < datums_.size(); ++k) {
    datums_[k] = choice_box(names[k]);
    column->addWidget(labelled(k == 0 ? "From" : "and", datums_[k], label));
  }
  within_->set_label_width(theme().ipx(label));
  within_->set_rule(must_not_be_negative);
  within_->edit()->setAccessibleName("Width of the zone");
  column->addWidget(within_);
  column->addWidget(
      muted_label("The width of the zone the surface, or its axis, must lie in; of a position or one "
                  "axis its diameter: half of it each way (ISO 1101)."));
  column->addWidget(message_);
  auto* row = new QHBoxLayout;
  row->addStretch(1);
  auto* close = new QPushButton("Close");
  row->addWidget(add_);
  row->addWidget(close);
  column->addLayout(row);
  add_->setDefault(true);
  add_->setAccessibleName("Add the tolerance");
  const auto& b = document_.build();
  for (std::size_t k = 0; k < datums_.size(); ++k) datums_[k]->addItem(k == 0 ? "choose" : "nothing more", 0);
  for (const auto& [id, s] : b.surfaces_of(part_)) {
    surface_->addItem(name_words(s.name), qlonglong(id));
    for (auto* box : datums_) box->addItem(name_words(s.name), qlonglong(id));
  }
  within_->set_value(0, document_.unit());
  connect(close, &QPushButton::clicked, this, &QDialog::accept);
  connect(&document_, &Document::changed, this, &ToleranceDialog::refresh);
  connect(add_, &QPushButton::clicked, this, [this] {
    if (!within_->commit()) return;
    GeometricTolerance t;
    t.what = static_cast<Characteristic>(std::max(0, what_->currentIndex()));
    t.surface = surface_->currentData().toLongLong();
    for (auto* box : datums_)
      if (const Id datum = box->currentData().toLongLong(); datum != 0 && !build::contains(t.datums, datum))
        t.datums.push_back(datum);
    t.within = within_->value();
    const auto added = build::add_tolerance(document_.build(), t);
    if (!added.ok()) return message_->refuse(sheets::sentence(added.wrong));
    document_.apply(added.edit);
  });
  connect(remove_, &QPushButton::clicked, this, [this] {
    const auto all = document_.build().tolerances_of(part_);
    const int at = table_->currentRow();
    if (at >= 0 && at < static_cast<int>(all.size()))
      document_.apply(build::take_away(document_.build(), all[static_cast<std::size_t>(at)].first));
  });
  refresh();
}

void ToleranceDialog::refresh() {
  const auto& b = document_.build();
  const auto all = b.tolerances_of(part_);
  const int row = table_->currentRow();
  table_->setRowCount(static_cast<int>(all.size()));
  int k = 0;
  for (const auto& [id, t] : all) {
    QStringList from;
    for (const Id datum : t.datums) from << name_words(build::surface_name(b, datum));
    fill_row(table_, k++,
             {plain_words<Characteristic>()[static_cast<int>(t.what)],
              name_words(build::surface_name(b, t.surface)), from.join(", "),
              sheets::fit_figure(t.within, document_.unit())});
  }
  table_->setCurrentCell(all.empty() ? -1 : std::clamp(row, 0, static_cast<int>(all.size()) - 1), 0);
  remove_->setEnabled(!all.empty());
  message_->tell({});
}

} // namespace datrin::app
