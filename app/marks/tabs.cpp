#include "app/marks/tabs.h"

#include "app/theme.h"

namespace datrin::app {

Tabs::Tabs(QWidget* parent) : QWidget(parent), row_(new QHBoxLayout), pages_(new QStackedWidget) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 8, 0, 0);
  column->setSpacing(0);
  row_->setContentsMargins(12, 0, 12, 0);
  row_->setSpacing(theme().ipx(14));
  row_->addStretch(1);
  column->addLayout(row_);
  column->addWidget(pages_, 1);
  connect(&group_, &QButtonGroup::idClicked, this, [this](int k) {
    pages_->setCurrentIndex(k);
    emit changed(k);
  });
}

void Tabs::add(const QString& name, QWidget* page) {
  auto* button = new QPushButton(name);
  button->setCheckable(true);
  button->setProperty("tab", true);
  group_.addButton(button, pages_->count());
  row_->insertWidget(row_->count() - 1, button);
  pages_->addWidget(page);
  if (pages_->count() == 1) button->setChecked(true);
}

void Tabs::set_name(int k, const QString& name) {
  button(k)->setText(name);
}

void Tabs::choose(int k) {
  button(k)->setChecked(true);
  pages_->setCurrentIndex(k);
  emit changed(k);
}

} // namespace datrin::app
