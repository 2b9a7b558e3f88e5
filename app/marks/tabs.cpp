#include "app/marks/tabs.h"

#include "app/theme.h"

namespace datrin::app {

Tabs::Tabs(QWidget* parent) : QWidget(parent), row_(new QGridLayout), pages_(new QStackedWidget) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 8, 0, 0);
  column->setSpacing(0);
  row_->setContentsMargins(12, 0, 4, 0);
  row_->setHorizontalSpacing(theme().ipx(7)); // five of them in the narrow column
  row_->setVerticalSpacing(0);
  row_->setColumnStretch(9, 1);
  column->addLayout(row_);
  column->addWidget(pages_, 1);
  // Toggled, not clicked: so a screen reader's action turns the page as well.
  connect(&group_, &QButtonGroup::idToggled, this, [this](int k, bool on) {
    if (!on || k == pages_->currentIndex()) return;
    pages_->setCurrentIndex(k);
    as_high_as_shown();
    emit changed(k);
  });
}

void Tabs::add(const QString& name, QWidget* page) {
  auto* button = new QPushButton(name);
  button->setCheckable(true);
  button->setProperty("tab", true);
  group_.addButton(button, pages_->count());
  const int k = pages_->count(), in_a_row = theme().large() ? 2 : 9;
  row_->addWidget(button, k / in_a_row, k % in_a_row, Qt::AlignLeft);
  pages_->addWidget(page);
  if (pages_->count() == 1) button->setChecked(true);
  as_high_as_shown();
}

/// As high as the page that is shown wants it: those that are not have no say.
void Tabs::as_high_as_shown() {
  for (int k = 0; k < pages_->count(); ++k) {
    auto* page = pages_->widget(k);
    page->setSizePolicy(page->sizePolicy().horizontalPolicy(),
                        k == pages_->currentIndex() ? QSizePolicy::Preferred : QSizePolicy::Ignored);
  }
}

void Tabs::set_name(int k, const QString& name) {
  button(k)->setText(name);
}

void Tabs::choose(int k) {
  if (k == pages_->currentIndex())
    emit changed(k);
  else
    button(k)->setChecked(true);
}

} // namespace datrin::app
