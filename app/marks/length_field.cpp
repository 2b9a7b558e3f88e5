#include "app/marks/length_field.h"

#include "app/theme.h"
#include "quantity/text.h"
#include "sheets/figures.h"
#include "threads/threads.h"

#include <QGridLayout>
#include <QLocale>
#include <QStyle>

#include <cmath>

namespace datrin::app {

using sheets::qt;

namespace {

bool comma_is_decimal() {
  return QLocale().decimalPoint() == QString(",");
}

} // namespace

LengthOptions entry_options(Unit unit) {
  return {.bare_unit = unit, .thread_hole = threads::hole_of, .decimal_comma = comma_is_decimal()};
}

AngleOptions angle_options(TaperOf taper) {
  return {comma_is_decimal(), taper};
}

std::optional<double> typed_number(const QString& text) {
  return number_from(text.toStdString(), comma_is_decimal());
}

QString must_be_positive(double mm) {
  return mm > 0 ? QString() : QString("must be above 0");
}
QString must_not_be_negative(double mm) {
  return mm >= 0 ? QString() : QString("must not be negative");
}

LengthField::LengthField(const QString& name, QWidget* parent)
    : QWidget(parent), label_(new QLabel(name)), edit_(new QLineEdit), other_(new QLabel),
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
  edit_->setAccessibleName(name);
  other_->setFont(theme().small());
  other_->setMinimumWidth(theme().ipx(72));
  edit_->setMinimumWidth(theme().ipx(48));
  other_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
  wrong_->setFont(theme().small());
  wrong_->setWordWrap(true);
  wrong_->hide();
  setFocusProxy(edit_);
  connect(edit_, &QLineEdit::textEdited, this, [this] {
    const auto now = read();
    mark({}); // nobody is told off in the middle of a word
    if (now.ok) {
      show_other(now.mm);
      emit previewed(now.mm);
    } else {
      other_->clear();
    }
  });
  connect(edit_, &QLineEdit::editingFinished, this, [this] { commit(); });
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

void LengthField::set_value(double mm, Unit unit) {
  mm_ = mm;
  unit_ = unit;
  if (edit_->hasFocus() && edit_->isModified()) return; // someone is typing
  edit_->setText(qt(length_entry_text(mm, unit)));
  edit_->setCursorPosition(0);
  mark({});
  show_other(mm);
}

LengthField::Read LengthField::read() const {
  const auto parsed = parse_length(edit_->text().toStdString(), entry_options(unit_));
  if (!parsed.ok()) return {false, 0, QString("Column %1: %2").arg(parsed.column).arg(qt(parsed.message))};
  if (rule_)
    if (const auto rule = rule_(parsed.mm); !rule.isEmpty())
      return {false, 0, edit_->accessibleName() + " " + rule};
  return {true, parsed.mm, {}};
}

bool LengthField::commit() {
  if (!edit_->isModified()) return message().isEmpty();
  const auto now = read();
  if (!now.ok) {
    mark(now.message + QString(". It stays %1.").arg(qt(length_entry_text(mm_, unit_))));
    return false;
  }
  edit_->setModified(false);
  const bool differs = std::abs(now.mm - mm_) > 1e-12;
  mm_ = now.mm;
  edit_->setText(qt(length_entry_text(mm_, unit_)));
  mark({});
  show_other(mm_);
  if (differs) emit committed(mm_);
  return true;
}

void LengthField::mark(const QString& wrong) {
  const bool is_wrong = !wrong.isEmpty();
  if (edit_->property("wrong").toBool() != is_wrong) {
    edit_->setProperty("wrong", is_wrong);
    edit_->style()->unpolish(edit_);
    edit_->style()->polish(edit_);
  }
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
  other_->setText(sheets::figure_with_unit(mm, sheets::other(unit_)));
  edit_->setToolTip(other_->text());
}

} // namespace datrin::app
