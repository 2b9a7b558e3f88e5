#include "app/casting/touch_entry.h"

#include "app/marks/column.h"
#include "app/marks/length_field.h"
#include "app/theme.h"
#include "build/edit_casting.h"
#include "geometry/direction_text.h"
#include "sheets/figures.h"

#include <QGridLayout>
#include <QStyle>
#include <QVBoxLayout>

namespace datrin::app {

using sheets::qt;

TouchEntry::TouchEntry(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), surface_(new QComboBox), toward_(new QComboBox),
      tip_(new QLineEdit), uncertainty_(new QLineEdit), setting_(new QLineEdit), message_(muted_label()) {
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
    cell->addWidget(label);
    cell->addWidget(field);
    row->addLayout(cell, place / in_a_row, place % in_a_row);
    row->setColumnStretch(place % in_a_row, stretch);
    field->setMinimumWidth(theme().ipx(40));
    ++place;
  };
  put(surface_, "Touch on", 3);
  for (int k = 0; k < 3; ++k) {
    xyz_[static_cast<std::size_t>(k)] = new QLineEdit;
    put(xyz_[static_cast<std::size_t>(k)], QString(QChar('x' + k)), 2);
  }
  put(tip_, "Tip radius", 2);
  toward_->addItems({"\u2013", "+x", "\u2212x", "+y", "\u2212y", "+z", "\u2212z"});
  put(toward_, "Tip went", 2);
  put(uncertainty_, "\u00B1 (95 %)", 2);
  put(setting_, "Setting", 3);
  tip_->setPlaceholderText("0");
  uncertainty_->setPlaceholderText("0");
  column->addLayout(row);
  message_->setWordWrap(true);
  column->addWidget(message_);
  tell("Enter keeps the touch and goes on to the next on the same surface.", false);
  for (auto* field : {xyz_[0], xyz_[1], xyz_[2], tip_, uncertainty_, setting_})
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
    surface_->addItem(qt(s.name), QVariant::fromValue<qlonglong>(id));
  if (const int k = surface_->findData(now); k >= 0) surface_->setCurrentIndex(k);
  setEnabled(surface_->count() > 0 && document_.piece() != 0);
}

void TouchEntry::tell(const QString& words, bool wrong) {
  message_->setText(words);
  colour_label(message_, wrong ? theme().gone : theme().muted);
}

bool TouchEntry::read(QLineEdit* field, const QString& name, double& mm, bool may_be_empty) {
  const auto mark = [&](bool wrong) {
    field->setProperty("wrong", wrong);
    field->style()->unpolish(field);
    field->style()->polish(field);
  };
  mark(false);
  if (may_be_empty && field->text().trimmed().isEmpty()) {
    mm = 0;
    return true;
  }
  const auto length = parse_length(field->text().toStdString(), entry_options(document_.unit()));
  QString why = length.ok() ? QString() : qt(length.message);
  if (length.ok() && may_be_empty && length.mm < 0) why = "must not be negative";
  if (!why.isEmpty()) {
    mark(true);
    tell(QString("%1: %2").arg(name, why), true);
    field->setFocus();
    field->selectAll();
    return false;
  }
  mm = length.mm;
  return true;
}

void TouchEntry::add() {
  build::Touch touch;
  for (int k = 0; k < 3; ++k)
    if (!read(xyz_[static_cast<std::size_t>(k)], QString(QChar('x' + k)), touch.centre[k], false)) return;
  if (!read(tip_, "Tip radius", touch.tip_radius, true) ||
      !read(uncertainty_, "Uncertainty", touch.uncertainty, true))
    return;
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
  const auto added = build::book_touch(document_.build(), touch);
  const auto name = surface_->currentText();
  if (!document_.apply(added.edit)) return;
  for (auto* field : xyz_) field->clear();
  xyz_[0]->setFocus();
  tell(QString("Kept: %1 at %2, %3, %4 %5.")
           .arg(name, sheets::figure(touch.centre.x(), document_.unit()),
                sheets::figure(touch.centre.y(), document_.unit()),
                sheets::figure(touch.centre.z(), document_.unit()), qt(unit_name(document_.unit()))),
       false);
  emit this->added(added.id);
}

} // namespace datrin::app
