#include "app/casting/spots_panel.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/marks/xyz_row.h"
#include "app/theme.h"
#include "build/edit_casting.h"
#include "casting/spots.h"
#include "casting/survey.h"
#include "sheets/figures.h"

#include <QHBoxLayout>
#include <QShortcut>
#include <QVBoxLayout>

namespace datrin::app {

using sheets::figure;
using sheets::qt;

QString spot_name(build::SpotKind kind) {
  return qt(build::shown_word(kind));
}

std::string spot_letter(build::SpotKind kind) {
  // "draft" and "defect" begin alike.
  static constexpr const char* letters[] = {"A", "F", "P", "C", "D", "R", "L", "S", "W", "I", "H", "M"};
  return letters[static_cast<std::size_t>(kind)];
}

SpotsPanel::SpotsPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), kind_(new QComboBox), surface_(new QComboBox),
      size_(new LengthEdit("Size of the spot", "size, or how deep", must_not_be_negative)),
      note_(new QLineEdit), add_(new QPushButton("Note it")), list_(new QListWidget),
      cure_(choice_box("What is done about it", shown_words<build::SpotCure>())),
      done_(new QCheckBox("done")), message_(new MessageLine) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(6);
  column->addWidget(heading_label("Seen on the casting"));
  kind_->addItems(shown_words<build::SpotKind>());
  kind_->setCurrentIndex(static_cast<int>(build::SpotKind::pore));
  kind_->setAccessibleName("What was seen");
  surface_->setAccessibleName("On surface");
  for (auto* box : {kind_, surface_}) {
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(3);
  }
  auto* first = new QHBoxLayout;
  first->setSpacing(4);
  first->addWidget(kind_, 1);
  first->addWidget(surface_, 1);
  column->addLayout(first);
  xyz_ = add_xyz_row(column, "Spot", [this] { size_->setFocus(); });
  size_->set_when_empty(0);
  note_->setPlaceholderText("note");
  note_->setAccessibleName("Note on the spot");
  column->addWidget(size_);
  column->addWidget(note_);
  column->addWidget(add_);
  column->addWidget(message_);
  list_->setAccessibleName("Spots");
  list_->setWordWrap(true);
  list_->setTextElideMode(Qt::ElideNone);
  list_->setResizeMode(QListView::Adjust);
  list_->setMaximumHeight(theme().ipx(300));
  column->addWidget(list_, 1);
  column->addWidget(labelled("Cure", cure_, 56));
  column->addWidget(done_);
  column->addStretch(1);
  connect(list_, &QListWidget::currentRowChanged, this, [this] { show_chosen(); });
  connect(cure_, &QComboBox::activated, this, [this](int k) {
    document_.apply(casting::decide_spot(document_.build(), chosen(), static_cast<build::SpotCure>(k)));
  });
  on_tick(done_, this,
          [this](bool on) { document_.apply(casting::mark_spot_done(document_.build(), chosen(), on)); });
  connect(add_, &QPushButton::clicked, this, &SpotsPanel::add);
  connect(note_, &QLineEdit::returnPressed, this, &SpotsPanel::add);
  auto* drop = new QShortcut(QKeySequence::Delete, list_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(drop, &QShortcut::activated, this, [this] {
    if (const auto* item = list_->currentItem())
      document_.apply(build::take_away(document_.build(), item->data(Qt::UserRole).toLongLong()));
  });
}

void SpotsPanel::refresh(build::Id chosen_touch) {
  touch_ = chosen_touch;
  const auto now = surface_->currentData();
  surface_->clear();
  surface_->addItem("anywhere", 0);
  for (const auto& [id, s] : document_.build().surfaces_of(document_.part()))
    surface_->addItem(name_words(s.name), QVariant::fromValue<qlonglong>(id));
  if (const int k = surface_->findData(now); k >= 0) surface_->setCurrentIndex(k);
  message_->tell(touch_ ? "Without coordinates it is noted at the touch chosen in the list."
                        : "Give its coordinates, or choose a touch in the list.");
  add_->setEnabled(document_.piece() != 0);
  const auto old = chosen();
  list_->clear();
  for (const auto& [id, spot] : document_.build().spots_of(document_.piece())) {
    const auto* s = document_.build().find<build::PartSurface>(spot.surface);
    auto* item = new QListWidgetItem(
        filled("%1  %2%3%4%5\nat %6, %7, %8\n%9", qt(spot_letter(spot.kind)), spot_name(spot.kind),
               s ? " on " + name_words(s->name) : QString(),
               spot.size > 0 ? ", " + sheets::figure_with_unit(spot.size, document_.unit()) : QString(),
               spot.note.empty() ? QString() : ": " + qt(spot.note), figure(spot.at.x(), document_.unit()),
               figure(spot.at.y(), document_.unit()), figure(spot.at.z(), document_.unit()),
               qt(build::shown_word(spot.cure)) + (spot.done ? " \u2713" : "")));
    item->setData(Qt::UserRole, QVariant::fromValue<qlonglong>(id));
    list_->addItem(item);
    if (id == old) list_->setCurrentItem(item);
  }
  if (list_->currentRow() < 0 && list_->count() > 0) list_->setCurrentRow(0);
  show_chosen();
}

build::Id SpotsPanel::chosen() const {
  const auto* item = list_->currentItem();
  return item ? item->data(Qt::UserRole).toLongLong() : 0;
}

void SpotsPanel::show_chosen() {
  const auto* spot = document_.build().find<build::Spot>(chosen());
  cure_->setEnabled(spot != nullptr);
  done_->setEnabled(spot != nullptr && spot->cure != build::SpotCure::leave);
  cure_->setCurrentIndex(spot ? static_cast<int>(spot->cure) : 0);
  show_tick(done_, spot != nullptr && spot->done);
}

void SpotsPanel::add() {
  build::Spot spot;
  spot.piece = document_.piece();
  spot.kind = static_cast<build::SpotKind>(kind_->currentIndex());
  spot.surface = surface_->currentData().toLongLong();
  spot.cure = casting::usual_cure(spot.kind);
  bool typed = false;
  for (auto* field : xyz_) typed = typed || !field->text().trimmed().isEmpty();
  if (typed) {
    for (int k = 0; k < 3; ++k) {
      const auto at = xyz_[static_cast<std::size_t>(k)]->take(document_.unit(), *message_);
      if (!at) return;
      spot.at[k] = *at;
    }
  } else {
    const auto* touch = document_.build().find<build::Touch>(touch_);
    const auto at = touch ? casting::touched_point(*touch) : std::nullopt;
    if (!at) return message_->refuse("Give its coordinates, or choose a touch in the list.");
    const auto input = casting::piece_input(document_.build(), spot.piece);
    const auto* setting = input.settings.find(touch->setting);
    spot.at = setting && setting->joined ? setting->pose().apply(*at) : *at;
    if (spot.surface == 0) spot.surface = touch->surface;
  }
  const auto size = size_->take(document_.unit(), *message_);
  if (!size) return;
  spot.size = *size;
  spot.note = note_->text().trimmed().toStdString();
  if (!document_.apply(build::note_spot(document_.build(), spot))) return;
  for (auto* field : xyz_) field->clear();
  size_->clear();
  note_->clear();
}

} // namespace datrin::app
