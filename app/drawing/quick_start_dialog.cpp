#include "app/drawing/quick_start_dialog.h"

#include "app/casting/piece_state.h"
#include "app/marks/column.h"
#include "app/theme.h"
#include "sheets/figures.h"
#include "sheets/solid_picture.h"

#include <QHBoxLayout>

namespace datrin::app {

using sheets::qt;

QuickStartDialog::QuickStartDialog(Unit unit, QWidget* parent)
    : QDialog(parent), unit_(unit), shapes_(new QListWidget), fields_box_(new QVBoxLayout),
      canvas_(new PartCanvas), message_(new MessageLine), draw_(new QPushButton("Draw it")) {
  setWindowTitle("A part from a few sizes");
  resize(std::min(theme().ipx(1000), 1240), std::min(theme().ipx(560), 760));
  auto* columns = new QHBoxLayout(this);
  columns->setSpacing(14);
  shapes_->setAccessibleName("Shapes");
  shapes_->setFixedWidth(theme().ipx(150));
  for (const auto& start : solid::quick_starts()) {
    auto* item = new QListWidgetItem(name_words(start.name));
    item->setToolTip(qt(start.words));
    shapes_->addItem(item);
  }
  columns->addWidget(shapes_);
  auto* middle = new QVBoxLayout;
  middle->addWidget(heading_label("Sizes"));
  fields_box_->setSpacing(5);
  middle->addLayout(fields_box_);
  middle->addWidget(message_);
  middle->addStretch(1);
  middle->addWidget(muted_label("Everything can be changed afterwards, body by body."));
  auto* buttons = new QHBoxLayout;
  auto* none = new QPushButton("Draw nothing");
  buttons->addWidget(none);
  buttons->addWidget(draw_);
  middle->addLayout(buttons);
  auto* box = new QWidget;
  box->setLayout(middle);
  box->setFixedWidth(theme().ipx(320));
  columns->addWidget(box);
  columns->addWidget(canvas_, 1);
  draw_->setDefault(true);
  connect(none, &QPushButton::clicked, this, &QDialog::reject);
  connect(draw_, &QPushButton::clicked, this, [this] {
    for (auto* field : fields_)
      if (!field->commit()) return;
    if (drawing().message.empty()) accept();
  });
  connect(shapes_, &QListWidget::currentRowChanged, this, &QuickStartDialog::choose);
  shapes_->setCurrentRow(0);
  shapes_->setFocus();
}

void QuickStartDialog::choose(int row) {
  if (row < 0) return;
  for (auto* field : fields_) {
    fields_box_->removeWidget(field);
    field->hide();
    field->deleteLater();
  }
  fields_.clear();
  for (const auto& size : solid::quick_starts()[static_cast<std::size_t>(row)].sizes) {
    auto* field = new LengthField(name_words(size.name));
    field->set_label_width(theme().ipx(140));
    field->set_rule(must_be_positive);
    field->set_value(size.begins(unit_), unit_);
    connect(field, &LengthField::committed, this, &QuickStartDialog::show_drawing);
    fields_box_->addWidget(field);
    fields_.push_back(field);
  }
  show_drawing();
}

QString QuickStartDialog::part_name() const {
  return name_words(solid::quick_starts()[static_cast<std::size_t>(std::max(0, shapes_->currentRow()))].name);
}

solid::QuickDrawing QuickStartDialog::drawing() const {
  std::vector<double> sizes;
  for (const auto* field : fields_) sizes.push_back(field->value());
  return solid::quick_drawing(
      solid::quick_starts()[static_cast<std::size_t>(std::max(0, shapes_->currentRow()))].shape, sizes);
}

void QuickStartDialog::show_drawing() {
  const auto made = drawing();
  message_->refuse(made.message.empty() ? QString() : qt(made.message) + ".");
  draw_->setEnabled(made.message.empty());
  if (!made.message.empty()) return;
  build::Build build;
  const auto added = solid::add_quick_part(build, "x", made);
  if (!build.apply(added.edit)) return;
  auto scene = part_scene(build, added.id);
  scene.solid = sheets::picture_of(solid::make_solid(solid::place_bodies(build, added.id)));
  canvas_->set_unit(unit_);
  canvas_->set_scene(std::move(scene), false);
}

} // namespace datrin::app
