#include "app/casting/touch_entry.h"

#include "app/marks/column.h"
#include "app/theme.h"
#include "build/edit_casting.h"
#include "casting/settings.h"
#include "geometry/direction_text.h"
#include "sheets/figures.h"

#include <QGridLayout>
#include <QVBoxLayout>

#include <utility>

namespace datrin::app {

using sheets::qt;

TouchEntry::TouchEntry(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), surface_(new QComboBox), toward_(new QComboBox),
      tip_(new LengthEdit({}, "0", must_not_be_negative)),
      uncertainty_(new LengthEdit({}, "0", must_not_be_negative)), setting_(new QLineEdit),
      message_(new MessageLine) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(2);
  auto* row = new QGridLayout;
  row->setSpacing(6);
  int place = 0;
  const int in_a_row = theme().large() ? 4 : 8;
  const auto put = [&](QWidget* field, const QString& name, int stretch) {
    auto* cell = new QVBoxLayout;
    cell->setSpacing(1);
    auto* label = muted_label(name);
    label->setWordWrap(false);
    label->setBuddy(field);
    field->setAccessibleName(name);
    if (field == xyz_[0]) place_names_[0] = label;
    if (field == xyz_[1]) place_names_[1] = label;
    cell->addWidget(label);
    cell->addWidget(field);
    row->addLayout(cell, place / in_a_row, place % in_a_row);
    row->setColumnStretch(place % in_a_row, stretch);
    field->setMinimumWidth(theme().ipx(40));
    ++place;
  };
  put(surface_, "Touch on", 3);
  for (int k = 0; k < 3; ++k) {
    xyz_[static_cast<std::size_t>(k)] = new LengthEdit({});
    put(xyz_[static_cast<std::size_t>(k)], QString(QChar('x' + k)), 2);
  }
  put(tip_, "Tip radius", 2);
  toward_->addItems({"\u2013", "+x", "\u2212x", "+y", "\u2212y", "+z", "\u2212z"});
  put(toward_, "Tip went", 2);
  put(uncertainty_, "\u00B1 (95 %)", 2);
  put(setting_, "Setting", 3);
  for (auto* field : {tip_, uncertainty_}) field->set_when_empty(0);
  column->addLayout(row);
  column->addWidget(message_);
  connect(setting_, &QLineEdit::textChanged, this, [this] { name_places(); });
  tell("Enter keeps the touch and goes on to the next on the same surface.", false);
  for (QLineEdit* field :
       std::initializer_list<QLineEdit*>{xyz_[0], xyz_[1], xyz_[2], tip_, uncertainty_, setting_})
    connect(field, &QLineEdit::returnPressed, this, [this, field] {
      // Enter in x or y goes on; in z or later it keeps the touch.
      if (field == xyz_[0])
        xyz_[1]->setFocus();
      else if (field == xyz_[1])
        xyz_[2]->setFocus();
      else
        add();
    });
}

void TouchEntry::refresh() {
  const auto now = surface_->currentData();
  surface_->clear();
  for (const auto& [id, s] : document_.build().surfaces_of(document_.part()))
    surface_->addItem(name_words(s.name), QVariant::fromValue<qlonglong>(id));
  const bool any = surface_->count() > 0;
  if (any) surface_->addItem("where it falls", QVariant::fromValue<qlonglong>(0));
  if (const int k = surface_->findData(now); k >= 0) surface_->setCurrentIndex(k);
  setEnabled(any && document_.piece() != 0);
  name_places();
}

bool TouchEntry::heights() const {
  return casting::gives_heights(document_.build(), document_.piece(),
                                setting_->text().trimmed().toStdString());
}

void TouchEntry::name_places() {
  const bool flat = document_.is_open() && heights();
  const char* names[] = {flat ? "right" : "x", flat ? "up" : "y"};
  for (std::size_t k = 0; k < 2; ++k) {
    place_names_[k]->setText(names[k]);
    xyz_[k]->setAccessibleName(flat ? QString("On its face, %1").arg(names[k]) : QString(names[k]));
    xyz_[k]->setToolTip(
        flat ? "Only the height z is read here. Where on its face: from the middle to the right, "
               "and up; empty: not known."
             : QString());
    xyz_[k]->set_when_empty(flat ? std::optional(0.0) : std::nullopt);
  }
}

void TouchEntry::tell(const QString& words, bool wrong) {
  wrong ? message_->refuse(words) : message_->tell(words);
}

/// Which surface it is on, by where the part lies among the touches so far.
casting::FallsOn TouchEntry::fall(const build::Touch& touch) const {
  const auto& b = document_.build();
  const auto input = casting::piece_input(b, document_.piece());
  const auto* setting = input.settings.find(touch.setting.empty() ? std::string() : touch.setting);
  const auto to_survey = setting ? setting->pose() : Pose{};
  const Vec3 at = to_survey.apply(touch.centre + touch.tip_radius * touch.toward);
  return casting::falls_on(b, document_.part(), casting::seat_or_start(b, document_.piece(), input), at,
                           to_survey.turn(touch.toward));
}

void TouchEntry::add() {
  build::Touch touch;
  const auto unit = document_.unit();
  for (int k = 0; k < 3; ++k) {
    const auto at = xyz_[static_cast<std::size_t>(k)]->take(unit, *message_);
    if (!at) return;
    touch.centre[k] = *at;
  }
  if (heights()) {
    touch.right = std::exchange(touch.centre.x(), 0);
    touch.up = std::exchange(touch.centre.y(), 0);
  }
  const auto tip = tip_->take(unit, *message_);
  const auto uncertainty = tip ? uncertainty_->take(unit, *message_) : std::nullopt;
  if (!uncertainty) return;
  touch.tip_radius = *tip;
  touch.uncertainty = *uncertainty;
  if (toward_->currentIndex() > 0) touch.toward = *parse_direction(toward_->currentText().toStdString());
  if (touch.tip_radius > 0 && toward_->currentIndex() == 0) {
    tell("Tip went: say which way the tip travelled when it touched, so that its radius can be taken off.",
         true);
    toward_->setFocus();
    return;
  }
  touch.piece = document_.piece();
  touch.surface = surface_->currentData().toLongLong();
  touch.setting = setting_->text().trimmed().toStdString();
  QString doubt;
  if (touch.surface == 0 && heights())
    return tell("A height alone does not say which face it is of: choose the surface.", true);
  if (touch.surface == 0) {
    const auto found = fall(touch);
    if (found.surface == 0) return tell(sheets::sentence(found.words), true);
    touch.surface = found.surface;
    if (found.next != 0) doubt = " It may be " + qt(found.words) + ": look at it.";
  }
  const auto added = build::book_touch(document_.build(), touch);
  const auto name = name_words(build::surface_name(document_.build(), touch.surface));
  if (!document_.apply(added)) return;
  for (auto* field : xyz_) field->clear();
  xyz_[0]->setFocus();
  tell(heights() ? filled("Kept: %1 at a height of %2.", name,
                          sheets::figure_with_unit(touch.centre.z(), document_.unit()))
                 : QString("Kept: %1 at %2, %3, %4 %5.")
                           .arg(name, sheets::figure(touch.centre.x(), document_.unit()),
                                sheets::figure(touch.centre.y(), document_.unit()),
                                sheets::figure(touch.centre.z(), document_.unit()),
                                qt(unit_name(document_.unit()))) +
                       doubt,
       false);
  emit this->added(added.id);
}

} // namespace datrin::app
