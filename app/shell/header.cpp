#include "app/shell/header.h"

#include "app/casting/piece_state.h"
#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/marks/length_field.h"
#include "app/theme.h"
#include "build/edit_drawing.h"
#include "quantity/expression.h"
#include "quantity/nearest_to.h"
#include "sheets/figures.h"

#include <QApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QShortcut>

#include <cmath>

namespace datrin::app {

using sheets::qt;

namespace {

/// Both units side by side, the one in force dark.
class UnitButton : public QPushButton {
public:
  explicit UnitButton(Document& document) : document_(document) {
    setCheckable(false);
    setCursor(Qt::PointingHandCursor);
    setFixedSize(theme().ipx(86), theme().ipx(26));
  }

protected:
  void paintEvent(QPaintEvent*) override {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto& t = theme();
    const QRectF area = QRectF(rect()).adjusted(1, 1, -1, -1);
    painter.setPen(hasFocus() ? QPen(t.brass, 1.5) : QPen(Qt::NoPen));
    painter.setBrush(t.track);
    painter.drawRoundedRect(area, area.height() / 2, area.height() / 2);
    const bool mm = document_.unit() == Unit::mm;
    const QRectF half(mm ? area.left() : area.center().x(), area.top(), area.width() / 2, area.height());
    painter.setPen(Qt::NoPen);
    painter.setBrush(t.ink);
    painter.drawRoundedRect(half, half.height() / 2, half.height() / 2);
    painter.setFont(t.text());
    painter.setPen(mm ? t.paper : t.muted);
    painter.drawText(QRectF(area.left(), area.top(), area.width() / 2, area.height()), Qt::AlignCenter, "mm");
    painter.setPen(mm ? t.muted : t.paper);
    painter.drawText(QRectF(area.center().x(), area.top(), area.width() / 2, area.height()), Qt::AlignCenter,
                     "inch");
  }

private:
  Document& document_;
};

} // namespace

Reckoner::Reckoner(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), edit_(new QLineEdit) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->addWidget(edit_);
  edit_->setPlaceholderText("Reckon\u2026   Ctrl K");
  edit_->setAccessibleName("Reckoner");
  edit_->setToolTip(
      "Anything that can be reckoned, units mixed: 3 mm + 9/16 in, bore/2 + 3 mm, sqrt(3^2 + 4^2), "
      "0.125 in/ft x 5 in. Enter answers, Ctrl+Enter puts the answer into the field you came from");
  edit_->setFixedWidth(theme().large() ? 150 : theme().ipx(150));
  setFocusProxy(edit_);
  connect(edit_, &QLineEdit::returnPressed, this, [this] {
    reckon();
    if (!answer_.isEmpty() && from_ && QApplication::keyboardModifiers().testFlag(Qt::ControlModifier)) {
      type_into(*from_, qt(length_entry_text(mm_, document_.unit())));
    }
  });
}

void Reckoner::call() {
  from_ = qobject_cast<QLineEdit*>(QApplication::focusWidget());
  if (from_ == edit_) from_ = nullptr;
  edit_->setFocus();
  edit_->selectAll();
}

void Reckoner::reckon() {
  const auto unit = document_.unit();
  const auto length = datrin::reckon(edit_->text().toStdString(), entry_options(unit));
  answer_.clear();
  if (!length.ok()) {
    emit answered(filled("Column %1: %2", length.column, qt(length.message)), true);
    return;
  }
  mm_ = length.value;
  if (length.power != 1) { // an answer, but none for a field
    const double in_unit = length.value / std::pow(to_mm(1, unit), length.power);
    const auto power = length.power == 0 ? QString() : filled(" %1^%2", qt(unit_name(unit)), length.power);
    emit answered(filled("%1 = %2%3, %4", qt(length.understood), qt(number_text(in_unit, 4)), power,
                         qt(power_words(length.power))),
                  false);
    return;
  }
  double step = unit == Unit::mm ? 0.01 : mm_per_thou;
  if (const auto machines = document_.build().machines();
      !machines.empty() && machines.front().second.resolution > 0)
    step = machines.front().second.resolution;
  answer_ = filled("%1 = %2", qt(length.understood),
                   qt(length_text_both(mm_, unit, {.decimals_mm = 3, .decimals_inch = 5})));
  emit answered(answer_ + "; " + qt(nearest_words(mm_, unit, step)), false);
}

Header::Header(Document& document, QMenu* menu, QWidget* parent)
    : QWidget(parent), document_(document), build_(new QPushButton), piece_(new QLabel), path_(new PathRuler),
      unit_(new UnitButton(document)), reckoner_(new Reckoner(document)) {
  setFixedHeight(theme().ipx(52));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(20, 0, 18, 0);
  row->setSpacing(10);
  build_->setProperty("flat_link", true);
  build_->setMenu(menu);
  build_->setToolTip("Alt+B");
  build_->setFont(theme().title());
  row->addWidget(build_);
  auto* mark = new QLabel("\u203A");
  colour_label(mark, theme().muted);
  mark->setVisible(!theme().large());
  row->addWidget(mark);
  piece_->setFont(sheets::font(theme().px(14)));
  row->addWidget(piece_);
  row->addStretch(1);
  path_->setMinimumWidth(theme().large() ? 540 : 300);
  path_->setMaximumWidth(theme().large() ? 620 : theme().ipx(552));
  row->addWidget(path_, 6);
  row->addSpacing(12);
  row->addWidget(unit_);
  row->addWidget(reckoner_);
  connect(unit_, &QPushButton::clicked, this,
          [this] { document_.apply(build::work_in(document_.build(), sheets::other(document_.unit()))); });
}

void Header::refresh() {
  const auto name = document_.is_open() ? name_words(document_.build().info().name) : QString("Datrin");
  build_->setText(literal(build_->fontMetrics().elidedText(name, Qt::ElideRight, 200)) + " \u25BE");
  build_->setAccessibleName("Menu of the build " + name);
  const auto title = piece_title(document_.build(), document_.piece());
  piece_->setText(!place_.isEmpty() ? place_
                  : title.isEmpty()
                      ? QString("no part yet")
                      : piece_->fontMetrics().elidedText(title, Qt::ElideMiddle, theme().ipx(190)));
  piece_->setVisible(!theme().large()); // the shelf shows it as well
  unit_->setAccessibleName(
      QString("Unit: %1. Press to change").arg(document_.unit() == Unit::mm ? "millimetres" : "inches"));
  unit_->update();
}

void Header::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setPen(QPen(theme().hairline, 1));
  painter.drawLine(0, height() - 1, width(), height() - 1);
}

} // namespace datrin::app
