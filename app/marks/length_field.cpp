#include "app/marks/length_field.h"

#include "app/theme.h"
#include "sheets/figures.h"

#include <QGridLayout>
#include <QKeyEvent>

#include <cmath>
#include <utility>

namespace datrin::app {

using sheets::qt;

LengthField::LengthField(const QString& name, QWidget* parent)
    : QWidget(parent), label_(new QLabel(name)), edit_(new LengthEdit(name)), other_(new QLabel),
      wrong_(new QLabel) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(8);
  grid->setVerticalSpacing(2);
  grid->addWidget(label_, 0, 0);
  grid->addWidget(edit_, 0, 1);
  if (theme().large())
    grid->addWidget(other_, 1, 1);
  else
    grid->addWidget(other_, 0, 2);
  grid->addWidget(wrong_, 2, 0, 1, 3);
  grid->setColumnStretch(1, 1);
  label_->setBuddy(edit_);
  other_->setFont(theme().small());
  other_->setMinimumWidth(theme().ipx(72));
  edit_->setMinimumWidth(theme().ipx(48));
  other_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
  wrong_->setFont(theme().small());
  wrong_->setWordWrap(true);
  wrong_->hide();
  setFocusProxy(edit_);
  connect(edit_, &QLineEdit::textEdited, this, [this] {
    const auto now = edit_->read(unit_);
    refused_.clear();
    mark({}); // nobody is told off in the middle of a word
    if (now.ok()) {
      show_other(now.mm);
      emit previewed(now.mm);
    } else {
      other_->clear();
    }
  });
  connect(edit_, &QLineEdit::editingFinished, this, [this] { commit(); });
}

/// The field in it goes after this, and says that editing is finished when it had the keyboard.
LengthField::~LengthField() {
  edit_->disconnect(this);
}

void LengthField::set_compact() {
  other_->hide();
}

void LengthField::set_label_width(int pixels) {
  label_->setFixedWidth(pixels);
}

QString LengthField::message() const {
  return wrong_->isHidden() ? QString() : wrong_->text();
}

void LengthField::set_value(double mm, Unit unit, qint64 of) {
  const bool another = std::exchange(of_, of) != of;
  mm_ = mm;
  unit_ = unit;
  if (edit_->isModified() && !another) { // being typed, or refused and there to be mended
    if (!message().isEmpty()) mark(refusal(edit_->read(unit_)));
    return;
  }
  show_value();
}

void LengthField::show_value() {
  refused_.clear();
  edit_->setText(qt(length_entry_text(mm_, unit_)));
  edit_->setCursorPosition(0);
  mark({});
  show_other(mm_);
}

QString LengthField::refusal(const TypedLength& typed) const {
  if (typed.ok() && refused_.isEmpty()) return {};
  return (typed.ok()         ? refused_
          : typed.column > 0 ? filled("Column %1: %2", typed.column, typed.wrong)
                             : edit_->accessibleName() + " " + typed.wrong) +
         QString(". It stays %1.").arg(qt(length_entry_text(mm_, unit_)));
}

void LengthField::refuse(const QString& why) {
  mm_ = before_.mm;
  edit_->setText(before_.typed);
  edit_->setModified(true);
  refused_ = why.endsWith('.') ? why.chopped(1) : why;
  mark(refusal(edit_->read(unit_)));
}

void LengthField::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape && edit_->isModified()) {
    show_value(); // setText also ends "modified"
    event->accept();
  } else {
    QWidget::keyPressEvent(event);
  }
}

bool LengthField::commit() {
  if (!edit_->isModified()) return message().isEmpty();
  const auto now = edit_->read(unit_);
  if (!now.ok() || !refused_.isEmpty()) {
    mark(refusal(now));
    return false;
  }
  edit_->setModified(false);
  const bool differs = std::abs(now.mm - mm_) > 1e-12;
  before_ = {mm_, edit_->text()};
  mm_ = now.mm;
  edit_->setText(qt(length_entry_text(mm_, unit_)));
  mark({});
  show_other(mm_);
  if (differs) emit committed(mm_);
  return true;
}

void LengthField::mark(const QString& wrong) {
  const bool is_wrong = !wrong.isEmpty();
  edit_->mark(is_wrong);
  wrong_->setText(wrong);
  wrong_->setVisible(is_wrong);
  edit_->setAccessibleDescription(wrong);
  if (is_wrong) {
    auto palette = wrong_->palette();
    palette.setColor(QPalette::WindowText, theme().gone);
    wrong_->setPalette(palette);
  }
}

void LengthField::show_other(double mm) {
  auto palette = other_->palette();
  palette.setColor(QPalette::WindowText, theme().muted);
  other_->setPalette(palette);
  constexpr double small = 1; // mm: a clearance, not the size of a part
  other_->setText(std::abs(mm) < small ? sheets::fit_with_unit(mm, sheets::other(unit_))
                                       : sheets::figure_with_unit(mm, sheets::other(unit_)));
  edit_->setToolTip(other_->text());
}

} // namespace datrin::app
