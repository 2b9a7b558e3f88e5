#include "app/shell/build_nav.h"

#include "app/shell/column.h"
#include "app/theme.h"

#include <QHBoxLayout>
#include <QPushButton>

namespace datrin::app {

BuildNav::BuildNav(const QStringList& names, int first_step, QWidget* parent)
    : QWidget(parent), group_(this), first_step_(first_step) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 14, 12, 0);
  column->setSpacing(2);
  column->addWidget(heading_label("The build"));
  QBoxLayout* row = theme().large() ? static_cast<QBoxLayout*>(new QVBoxLayout) : new QHBoxLayout;
  row->setSpacing(theme().large() ? 0 : 10);
  column->addLayout(row);
  group_.setExclusive(false);
  for (int k = 0; k < names.size(); ++k) {
    auto* button = new QPushButton(names[k]);
    button->setProperty("tab", true);
    button->setCheckable(true);
    button->setCursor(Qt::PointingHandCursor);
    button->setToolTip(QString("Ctrl+%1").arg(first_step + k + 1));
    group_.addButton(button, k);
    row->addWidget(button);
    connect(button, &QPushButton::clicked, this, [this, k] { emit chosen(first_step_ + k); });
  }
  row->addStretch(1);
}

void BuildNav::set_step(int step) {
  for (auto* button : group_.buttons()) button->setChecked(group_.id(button) == step - first_step_);
}

} // namespace datrin::app
