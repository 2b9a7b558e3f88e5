#include "app/shell/build_nav.h"

#include "app/marks/column.h"
#include "app/theme.h"

#include <QGridLayout>
#include <QPushButton>

namespace datrin::app {

BuildNav::BuildNav(QWidget* parent) : QWidget(parent), group_(this) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 14, 0, 0);
  column->setSpacing(2);
  column->addWidget(heading_label("The build"));
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(10);
  grid->setVerticalSpacing(0);
  column->addLayout(grid);
  const int in_a_row = theme().large() ? 1 : 3;
  int place = 0;
  group_.setExclusive(false);
  for (const auto& page : steps_of(false)) {
    auto* button = new QPushButton(page.name);
    button->setProperty("tab", true);
    button->setCheckable(true);
    button->setCursor(Qt::PointingHandCursor);
    button->setToolTip(page.key);
    group_.addButton(button, static_cast<int>(page.step));
    grid->addWidget(button, place / in_a_row, place % in_a_row, Qt::AlignLeft);
    ++place;
    connect(button, &QPushButton::clicked, this, [this, step = page.step] { emit chosen(step); });
    // A screen reader toggles where others click.
    connect(button, &QPushButton::toggled, this, [this, step = page.step](bool on) {
      if (on && !setting_) emit chosen(step);
    });
  }
  grid->setColumnStretch(in_a_row, 1);
}

void BuildNav::set_step(Step step) {
  setting_ = true;
  for (auto* button : group_.buttons()) button->setChecked(group_.id(button) == static_cast<int>(step));
  setting_ = false;
}

} // namespace datrin::app
