#include "app/drawing/wall_list.h"

#include "app/marks/column.h"
#include "app/theme.h"
#include "build/edit_drawing.h"
#include "sheets/figures.h"

#include <QHBoxLayout>

namespace datrin::app {

using sheets::qt;

WallList::WallList(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), rows_(new QWidget), from_(new QComboBox), to_(new QComboBox),
      add_(new QPushButton("Keep a wall")) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  auto* rows = new QVBoxLayout(rows_);
  rows->setContentsMargins(0, 0, 0, 0);
  column->addWidget(rows_);
  auto* pick = new QHBoxLayout;
  pick->setSpacing(4);
  from_->setAccessibleName("Wall from as-cast surface");
  to_->setAccessibleName("Wall to finished surface");
  for (auto* box : {from_, to_}) {
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(6);
    pick->addWidget(box, 1);
  }
  column->addLayout(pick);
  column->addWidget(add_);
  connect(add_, &QPushButton::clicked, this, [this] {
    const build::Id from = from_->currentData().toLongLong(), to = to_->currentData().toLongLong();
    document_.apply(build::keep_wall(document_.build(), document_.part(), from, to));
  });
}

void WallList::refresh() {
  const auto& b = document_.build();
  const auto from_now = from_->currentData(), to_now = to_->currentData();
  from_->clear();
  to_->clear();
  for (const auto& [id, surface] : b.surfaces_of(document_.part()))
    (surface.machined ? to_ : from_)->addItem(name_words(surface.name), QVariant::fromValue<qlonglong>(id));
  if (const int k = from_->findData(from_now); k >= 0) from_->setCurrentIndex(k);
  if (const int k = to_->findData(to_now); k >= 0) to_->setCurrentIndex(k);
  add_->setEnabled(from_->count() > 0 && to_->count() > 0);
  add_->setToolTip(add_->isEnabled()
                       ? QString()
                       : "A wall runs from an as-cast surface to a machined one; state one of each first");

  const auto walls = b.walls_of(document_.part());
  if (!walls.same_ids(shown_)) {
    for (auto* child : rows_->findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly)) {
      child->hide();
      child->deleteLater();
    }
    fields_.clear();
    for (const auto& [id, wall] : walls) {
      auto* row = new QWidget;
      auto* box = new QHBoxLayout(row);
      box->setContentsMargins(0, 0, 0, 0);
      box->setSpacing(4);
      auto* field = new LengthField(QString());
      field->set_rule(must_not_be_negative);
      field->set_compact();
      auto* drop = new QPushButton("\u00D7");
      drop->setFixedWidth(theme().ipx(26));
      drop->setAccessibleName("Remove this wall");
      box->addWidget(field, 1);
      box->addWidget(drop);
      rows_->layout()->addWidget(row);
      fields_.push_back(field);
      connect(field, &LengthField::committed, this, [this, wall_id = id](double mm) {
        document_.apply(build::set_wall(document_.build(), wall_id, mm));
      });
      connect(drop, &QPushButton::clicked, this,
              [this, wall_id = id] { document_.apply(build::take_away(document_.build(), wall_id)); });
    }
  }
  shown_ = walls;
  for (std::size_t i = 0; i < shown_.size(); ++i) {
    const auto& wall = shown_[i].second;
    const auto* from = b.find<build::PartSurface>(wall.from);
    const auto* to = b.find<build::PartSurface>(wall.to);
    const auto name =
        QString("%1 \u2192 %2").arg(from ? name_words(from->name) : "?", to ? name_words(to->name) : "?");
    fields_[i]->edit()->setAccessibleName("Least wall from " + name);
    fields_[i]->findChild<QLabel*>()->setText(name);
    fields_[i]->set_value(wall.least, document_.unit(), shown_[i].first);
  }
}

} // namespace datrin::app
