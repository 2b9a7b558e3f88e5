#include "app/drawing/foundry_panel.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/marks/length_field.h"
#include "app/marks/why.h"
#include "app/theme.h"
#include "build/edit_drawing.h"
#include "casting/foundry_tables.h"
#include "casting/jaw_hold.h"
#include "quantity/length_text.h"
#include "sheets/figures.h"
#include "sheets/pattern_sheet.h"
#include "stock/part_stock.h"

#include <QFileDialog>
#include <QHeaderView>
#include <QShortcut>
#include <QVBoxLayout>

#include <fmt/format.h>

#include <cmath>

namespace datrin::app {

using sheets::figure;
using sheets::qt;

namespace {

const std::pair<const char*, Vec3> draws[] = {
    {"up (z)", Vec3::UnitZ()}, {"sideways (x)", Vec3::UnitX()}, {"front to back (y)", Vec3::UnitY()}};

/// The axis a direction is nearest to: "towards +x".
QString towards(const Vec3& direction) {
  Eigen::Index axis = 0;
  direction.cwiseAbs().maxCoeff(&axis);
  return filled("towards %1%2", direction[axis] < 0 ? QChar(0x2212) : QChar('+'),
                QChar('x' + static_cast<int>(axis)));
}

QString plus_minus(const casting::WithUncertainty& v, Unit unit) {
  return QString("%1 \u00B1%2").arg(figure(v.value, unit), figure(v.uncertainty, unit));
}

} // namespace

FoundryPanel::FoundryPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document),
      table_(plain_table("Raw sizes to expect",
                         {"Size", "Finished", "Raw", "Tolerance", "Metal a side", "least", "most"}, 1)),
      metal_(choice_box("Metal")), process_(choice_box("How it is cast")),
      allowance_(choice_box("Machining allowance grade, ISO 8062-3")),
      draw_(choice_box("The pattern is drawn")), grade_(new QSpinBox),
      shrinkage_(text_field("Shrinkage, per cent")), draft_(text_field("Draft, degrees")),
      message_(new MessageLine), made_(words_label()),
      jaw_(new FigureRow({}, "Jaw bears on", 0, Unit::mm, {})),
      pattern_(new QPushButton("Drawing for a pattern\u2026")), own_(new QCheckBox("pattern known")) {
  const int widths[] = {220, 80, 80, 80, 92, 70};
  for (int c = 0; c < 6; ++c) table_->setColumnWidth(c, theme().ipx(widths[c]));
  table_->horizontalHeader()->setStretchLastSection(true);
  table_->setToolTip("F1 shows how the raw size of the chosen row adds up");
  auto* why = new QShortcut(QKeySequence("F1"), table_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(why, &QShortcut::activated, this, &FoundryPanel::ask_why);
  for (const auto& m : casting::metals()) metal_->addItem(name_words(m.name));
  QStringList processes;
  for (const auto& g : casting::casting_grades())
    if (!processes.contains(qt(g.process))) processes << qt(g.process);
  process_->addItems(processes);
  for (const char* letter : {"A", "B", "C", "D", "E", "F", "G", "H", "J", "K"}) allowance_->addItem(letter);
  for (const auto& [name, direction] : draws) draw_->addItem(name);
  grade_->setRange(1, 16);
  grade_->setAccessibleName("Casting tolerance grade, ISO 8062-3");
  grade_->setButtonSymbols(QAbstractSpinBox::NoButtons);
  make_column();
  connect_choices();
  connect_figures();
}

void FoundryPanel::make_column() {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(4);
  column->addWidget(heading_label("How it is cast"));
  column->addWidget(labelled("Metal", metal_));
  column->addWidget(labelled("Process", process_));
  auto* grades = new QWidget;
  auto* row = new QHBoxLayout(grades);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(4);
  row->addWidget(grade_, 1);
  row->addWidget(allowance_, 1);
  grades->setToolTip(
      "ISO 8062-3: casting tolerance grade (DCTG) 1 to 16, machining allowance grade (RMAG) A to K");
  column->addWidget(labelled("Grades", grades));
  column->addWidget(labelled("Shrinkage %", shrinkage_));
  column->addWidget(labelled("Draft", draft_));
  column->addWidget(jaw_);
  column->addWidget(labelled("Drawn", draw_));
  column->addWidget(own_);
  own_->setToolTip(
      "Tick it where the pattern is known: only then is it told how much a casting really shrank");
  column->addWidget(message_);
  column->addWidget(pattern_);
  column->addSpacing(4);
  column->addWidget(hairline());
  column->addWidget(heading_label("What was made"));
  column->addWidget(made_);
  column->addStretch(1);
}

void FoundryPanel::connect_choices() {
  connect(metal_, &QComboBox::activated, this,
          [this] { keep(casting::of_metal(foundry(), metal_->currentText().toStdString()), "Metal"); });
  connect(process_, &QComboBox::activated, this, [this] {
    keep(casting::by_process(foundry(), process_->currentText().toStdString()), "Casting process");
  });
  connect(grade_, &QSpinBox::editingFinished, this, [this] {
    auto f = foundry();
    f.tolerance_grade = grade_->value();
    keep(f, "Casting tolerance grade");
  });
  connect(allowance_, &QComboBox::activated, this, [this] {
    auto f = foundry();
    f.allowance = allowance_->currentText().toStdString();
    keep(f, "Machining allowance grade");
  });
  on_tick(own_, this, [this](bool on) {
    auto f = foundry();
    f.own_pattern = on;
    keep(f, on ? "Pattern known" : "Pattern not known");
  });
  connect(draw_, &QComboBox::activated, this, [this] {
    auto f = foundry();
    f.draw = draws[draw_->currentIndex()].second;
    keep(f, "Direction of draw");
  });
}

void FoundryPanel::connect_figures() {
  const auto refuse = [this](const QString& words) { message_->refuse(words); };
  connect(shrinkage_, &QLineEdit::editingFinished, this, [this, refuse] {
    if (!shrinkage_->isModified()) return;
    const auto percent = typed_number(shrinkage_->text().remove('%'));
    if (!percent || *percent < 0 || *percent > 10)
      return refuse("Shrinkage: a number of per cent from 0 to 10");
    auto f = foundry();
    f.shrinkage = *percent / 100;
    shrinkage_->setModified(false);
    keep(f, "Shrinkage");
  });
  connect(draft_, &QLineEdit::editingFinished, this, [this, refuse] {
    if (!draft_->isModified()) return;
    const auto angle = parse_angle(draft_->text().toStdString(), angle_options());
    if (!angle.ok || angle.radian < 0 || angle.radian > radians(15))
      return refuse(angle.ok ? "Draft: from 0 to 15\u00B0" : "Draft: " + qt(angle.message));
    auto f = foundry();
    f.draft = angle.radian;
    draft_->setModified(false);
    keep(f, "Draft");
  });
  connect(pattern_, &QPushButton::clicked, this, [this] {
    auto path = QFileDialog::getSaveFileName(this, "Drawing for a pattern", "pattern.pdf", "PDF (*.pdf)");
    if (path.isEmpty()) return;
    if (!path.endsWith(".pdf")) path += ".pdf";
    const auto wrong = write_pattern(path);
    emit say(wrong.isEmpty() ? "Written to " + path + "." : wrong);
  });
}

build::Foundry FoundryPanel::foundry() const {
  return casting::foundry_or_usual(document_.build(), document_.part());
}

void FoundryPanel::keep(const build::Foundry& foundry, const QString& what) {
  document_.apply(build::set_foundry(document_.build(), foundry, what.toStdString()));
}

QString FoundryPanel::write_pattern(const QString& path) const {
  if (const auto wrong = document_.is_own_file(path); !wrong.isEmpty()) return wrong;
  const auto& b = document_.build();
  const auto* part = b.find<build::Part>(document_.part());
  if (part == nullptr) return "There is no part to make a pattern for.";
  const auto foundry = casting::foundry_or_usual(b, document_.part());
  sheets::PatternSheet sheet;
  sheet.build = name_words(b.info().name);
  sheet.part = name_words(part->name);
  sheet.metal = qt(foundry.metal);
  sheet.process = filled("%1, tolerance grade %2, allowance grade %3", qt(foundry.process),
                         foundry.tolerance_grade, qt(foundry.allowance));
  sheet.pattern = casting::make_pattern(b, document_.part(), foundry);
  sheet.draft = foundry.draft;
  sheet.unit = document_.unit();
  sheet.third_angle = b.info().third_angle;
  if (!sheet.pattern.usable()) return qt(sheet.pattern.message);
  return sheets::write_pattern_pdf(path, sheet);
}

void FoundryPanel::refresh() {
  const auto& b = document_.build();
  const auto foundry = casting::foundry_or_usual(b, document_.part());
  metal_->setCurrentText(qt(foundry.metal));
  process_->setCurrentText(qt(foundry.process));
  grade_->setValue(foundry.tolerance_grade);
  allowance_->setCurrentText(qt(foundry.allowance));
  for (int k = 0; k < draw_->count(); ++k)
    if (std::abs(foundry.draw.dot(draws[k].second)) > 0.99) draw_->setCurrentIndex(k);
  if (!shrinkage_->hasFocus()) shrinkage_->setText(qt(number_text(100 * foundry.shrinkage, 2)));
  if (!draft_->hasFocus()) draft_->setText(qt(angle_text(foundry.draft)));
  show_tick(own_, foundry.own_pattern);
  expected_ = casting::expect_casting(b, document_.part(), foundry);
  pattern_->setEnabled(expected_.usable());
  const auto unit = document_.unit();
  table_->setRowCount(static_cast<int>(expected_.sizes.size() + expected_.walls.size()));
  for (std::size_t k = 0; k < expected_.sizes.size(); ++k) {
    const auto& s = expected_.sizes[k];
    fill_row(table_, static_cast<int>(k),
             {name_words(s.name), s.finished > 0 ? figure(s.finished, unit) : QString("\u2013"),
              figure(s.raw, unit), "\u00B1" + figure(s.tolerance / 2, unit), figure(s.stock, unit),
              figure(s.stock_least, unit), figure(s.stock_most, unit)});
  }
  const QString none("\u2013");
  for (std::size_t k = 0; k < expected_.walls.size(); ++k) {
    const auto& w = expected_.walls[k];
    fill_row(table_, static_cast<int>(expected_.sizes.size() + k),
             {"wall " + name_words(w.name), none, figure(w.nominal, unit),
              "\u00B1" + figure(w.tolerance / 2, unit), none, none, none});
  }
  QStringList words;
  if (!expected_.usable())
    words << qt(expected_.message);
  else
    words << QString("Allowance %1 a side, by the largest dimension, %2.")
                 .arg(sheets::figure_with_unit(expected_.allowance, unit),
                      sheets::figure_with_unit(expected_.largest, unit));
  for (const auto& r : expected_.remarks) words << qt(r);
  if (!b.foundry_of(document_.part())) words << "Usual for the material, until chosen.";
  if (!stock::needs_touches(b, document_.part()))
    message_->tell(
        "This part is not cast: what it is made from stands under Stock. These are the sizes it would have.");
  else if (expected_.usable())
    message_->tell(words.join(" "));
  else
    message_->refuse(words.join(" "));
  show_jaw(foundry);
  show_made(foundry);
}

/// How far down a drafted side a jaw bears, with card behind it.
void FoundryPanel::show_jaw(const build::Foundry& foundry) {
  jaw_->setVisible(foundry.draft > 0);
  if (foundry.draft <= 0) return;
  constexpr double as_high_as_one_likes = 1e6; // mm
  const auto hold = casting::jaw_hold({as_high_as_one_likes, foundry.draft, casting::card_gives});
  Reckoning why{"what a jaw bears on of a drafted side", {}, {}};
  why.lines = {{"card behind the jaw gives", casting::card_gives, "common practice"}};
  why.answer = fmt::format("divided by tan {} = {}", angle_text(foundry.draft),
                           length_text_both(hold.borne, document_.unit()));
  jaw_->show_figure(
      hold.borne, document_.unit(), std::move(why),
      "A jaw stands square, a drafted side leans: it touches the thick edge, and with card behind "
      "it that much of it.");
}

void FoundryPanel::show_made(const build::Foundry& foundry) {
  const auto& b = document_.build();
  const auto state = piece_state(b, document_.piece());
  if (state.input.seat.points.empty()) {
    made_->setText(
        "Touch a casting: then its draft, warp and core shift are said here, and where the pattern "
        "is known how much it really shrank.");
    return;
  }
  const auto unit = document_.unit();
  const auto made = casting::as_cast(state.input.seat, state.pose);
  QStringList lines;
  const auto shrunk =
      casting::shrinkage_found(state.input.seat, made, state.input.surface_ids,
                               casting::make_pattern(b, document_.part(), foundry), foundry.shrinkage, unit);
  if (shrunk.known && foundry.own_pattern) lines << "It " + qt(shrunk.text);
  const auto name = [&](int k) {
    return name_words(state.input.seat.surfaces[static_cast<std::size_t>(k)].id);
  };
  for (const auto& core : made.cores)
    lines << QString("Core of %1 stands off %2 by %3\u202F%4.")
                 .arg(name(core.bore), name(core.boss), plus_minus(core.amount, unit), qt(unit_name(unit)));
  for (const auto& s : made.surfaces) {
    if (!s.fitted) continue;
    QString line = name(s.surface) + ":";
    if (s.lean.value > s.lean.uncertainty && s.lean.uncertainty > 0)
      line += QString(" leans %1\u00B0 \u00B1%2 %3;")
                  .arg(qt(number_text(degrees(s.lean.value), 2)),
                       qt(number_text(degrees(s.lean.uncertainty), 2)), towards(s.leans_to));
    line += QString(" out of true %1, rough %2.")
                .arg(sheets::figure_with_unit(s.warp, unit), sheets::figure_with_unit(s.roughness, unit));
    lines << line;
  }
  made_->setText(lines.isEmpty() ? QString("Too few touches yet: four on a face, six on a bore.")
                                 : lines.join("\n"));
}

void FoundryPanel::ask_why() {
  const int row = table_->currentRow();
  if (row >= 0 && row < static_cast<int>(expected_.sizes.size()))
    show_why(table_, expected_.sizes[static_cast<std::size_t>(row)].sum, document_.unit());
}

} // namespace datrin::app
