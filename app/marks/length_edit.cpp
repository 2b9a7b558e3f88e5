#include "app/marks/length_edit.h"

#include "app/theme.h"
#include "quantity/text.h"
#include "sheets/figures.h"
#include "threads/threads.h"

#include <QLocale>
#include <QPainter>
#include <QRegularExpression>
#include <QStyle>

namespace datrin::app {

using sheets::qt;

namespace {

bool comma_is_decimal() {
  return QLocale().decimalPoint() == QString(",");
}

std::function<std::optional<NamedSize>(std::string_view)>& named_sizes() {
  static std::function<std::optional<NamedSize>(std::string_view)> named;
  return named;
}

} // namespace

LengthOptions entry_options(Unit unit) {
  return {.bare_unit = unit,
          .thread_hole = threads::hole_of,
          .named = named_sizes(),
          .decimal_comma = comma_is_decimal()};
}

void set_named_sizes(std::function<std::optional<NamedSize>(std::string_view)> named) {
  named_sizes() = std::move(named);
}

AngleOptions angle_options(TaperOf taper) {
  return {comma_is_decimal(), taper};
}

std::optional<double> typed_number(const QString& text) {
  return number_from(text.toStdString(), comma_is_decimal());
}

std::optional<double> typed_celsius(const QString& text) {
  static const QRegularExpression unit("\\s*(\u00B0|deg)?\\s*([cCfF])?\\s*$");
  const auto match = unit.match(text);
  const auto value = typed_number(text.left(match.capturedStart()));
  const bool fahrenheit = match.captured(2).compare("f", Qt::CaseInsensitive) == 0;
  return value && fahrenheit ? std::optional((*value - 32) / 1.8) : value;
}

QString must_be_positive(double mm) {
  return mm > 0 ? QString() : QString("must be above 0");
}

QString must_not_be_negative(double mm) {
  return mm >= 0 ? QString() : QString("must not be negative");
}

TypedLength typed_length(const QString& text, Unit unit, const LengthRule& rule) {
  const auto read = parse_length(text.toStdString(), entry_options(unit));
  if (!read.ok()) return {0, qt(read.message), static_cast<int>(read.column)};
  return {read.mm, rule ? rule(read.mm) : QString(), 0};
}

LengthEdit::LengthEdit(const QString& name, const QString& hint, LengthRule rule) : rule_(std::move(rule)) {
  setAccessibleName(name);
  setPlaceholderText(hint);
  setMinimumWidth(theme().ipx(40));
  connect(this, &QLineEdit::textChanged, this, [this] {
    mark(false); // nobody is told off in the middle of a word
    setAccessibleDescription(reads_inches() ? "A fraction without a unit is inches" : QString());
  });
}

TypedLength LengthEdit::read(Unit unit) const {
  if (when_empty_ && text().trimmed().isEmpty()) return {*when_empty_, {}, 0};
  return typed_length(text(), unit, rule_);
}

std::optional<double> LengthEdit::take(Unit unit, MessageLine& line) {
  const auto typed = read(unit);
  mark(!typed.ok());
  if (typed.ok()) return typed.mm;
  line.refuse(QString("%1: %2").arg(accessibleName(), typed.wrong));
  setFocus();
  selectAll();
  return std::nullopt;
}

void LengthEdit::mark(bool wrong) {
  if (property("wrong").toBool() == wrong) return;
  setProperty("wrong", wrong);
  style()->unpolish(this);
  style()->polish(this);
}

bool LengthEdit::reads_inches() const {
  return parse_length(text().toStdString(), entry_options(Unit::mm)).fraction_as_inches;
}

void LengthEdit::paintEvent(QPaintEvent* event) {
  QLineEdit::paintEvent(event);
  if (!reads_inches()) return;
  QPainter painter(this);
  painter.setFont(theme().small());
  painter.setPen(theme().muted);
  painter.drawText(rect().adjusted(0, 0, -theme().ipx(8), 0), Qt::AlignRight | Qt::AlignVCenter, "in");
}

} // namespace datrin::app
