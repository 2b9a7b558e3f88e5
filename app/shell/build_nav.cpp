#include "app/shell/build_nav.h"

#include "app/marks/column.h"
#include "app/theme.h"

#include <QHBoxLayout>
#include <QPushButton>

namespace datrin::app {

BuildNav::BuildNav(QWidget* parent) : QWidget(parent), group_(this) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 14, 0, 0);
  column->setSpacing(2);
  column->addWidget(heading_label("The build"));
  QBoxLayout* row = theme().large() ? static_cast<QBoxLayout*>(new QVBoxLayout) : new QHBoxLayout;
  row->setSpacing(theme().large() ? 0 : 5);
  column->addLayout(row);
  group_.setExclusive(false);
  for (const auto& page : steps_of(false)) {
    auto* button = new QPushButton(page.name);
    button->setProperty("tab", true);
    button->setCheckable(true);
    button->setCursor(Qt::PointingHandCursor);
    button->setToolTip(page.key);
    group_.addButton(button, static_cast<int>(page.step));
    row->addWidget(button);
    connect(button, &QPushButton::clicked, this, [this, step = page.step] { emit chosen(step); });
    // A screen reader toggles where others click.
    connect(button, &QPushButton::toggled, this, [this, step = page.step](bool on) {
      if (on && !setting_) emit chosen(step);
    });
  }
  row->addStretch(1);
}

void BuildNav::set_step(Step step) {
  setting_ = true;
  for (auto* button : group_.buttons()) button->setChecked(group_.id(button) == static_cast<int>(step));
  setting_ = false;
}

} // namespace datrin::app
