#include "app/allowance/allowance_page.h"

#include "allowance/ladder.h"
#include "app/marks/fields.h"
#include "app/marks/why.h"
#include "app/theme.h"
#include "build/edit_casting.h"
#include "build/edit_making.h"
#include "build/now.h"
#include "chains/aims.h"
#include "readings/measure.h"
#include "sheets/figures.h"
#include "stock/part_stock.h"

#include <QHeaderView>
#include <QShortcut>

#include <algorithm>
#include <cmath>

namespace datrin::app {

using allowance::ReadingOf;
using allowance::SurfacePlan;
using allowance::SurfaceState;
using sheets::figure;
using sheets::qt;

namespace {

/// What was typed, with a true minus before it.
QString shown_sign(const QString& typed) {
  return typed.startsWith('-') ? QChar(0x2212) + typed.mid(1) : typed;
}

} // namespace

AllowancePage::AllowancePage(Document& document, TargetsState& targets)
    : Page(document, Step::allowance), targets_(targets), metal_(new MetalView),
      table_(plain_table("Passes",
                         {"", "Pass", "Depth", "Left a side", "Dial", "Size after", "Read", "Off plan"}, 2)),
      cut_(new QWidget), plan_(new QWidget), shares_(new SharePanel(document)),
      after_(heading_label("After the cut")), heading_(heading_label("Cut next")), next_(new QLabel),
      next_unit_(new QLabel), verdict_(words_label()), mistake_(words_label()), remarks_(muted_label()),
      announced_words_(muted_label()), ladder_(words_label()), of_(choice_box("What the reading is of")),
      machine_(choice_box("Machine")), tool_(choice_box("Tool")),
      last_step_(choice_box("What the last of it is for", shown_words<build::LastStep>())),
      reading_(new LengthEdit("Reading after the cut", "what it reads")),
      note_(text_field("Note on the cut", "note")),
      announced_(text_field("Passes as announced", "0.10 + 0.15 + 0.04")),
      take_(new QPushButton("Log the cut")), back_(new QPushButton("Take back")),
      move_(new QPushButton("Move the part so")), even_(new QCheckBox("passes all alike")),
      batch_(new QCheckBox("same for all pieces")) {
  put_faces({cut_, plan_, shares_});
  make_picture();
  make_cut_face();
  make_plan_face();
  connect_cut();
  connect_plan();
}

void AllowancePage::make_picture() {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 8, 8);
  column->setSpacing(8);
  metal_->set_empty_text(
      "Nothing to cut yet",
      "State the surfaces to be machined in the Drawing step; touch the casting, or say under "
      "Stock what else it is made from. Each surface then stands here as a column of the metal "
      "over it, with its skin and the passes down to size.");
  column->addWidget(metal_, 64);
  const int widths[] = {28, 168, 76, 92, 84, 92, 96};
  for (int c = 0; c < 7; ++c) table_->setColumnWidth(c, theme().ipx(widths[c]));
  table_->horizontalHeader()->setStretchLastSection(true);
  column->addWidget(table_, 36);
  table_->setToolTip("F1 shows how the level of the chosen pass adds up");
  for (QWidget* asked : std::initializer_list<QWidget*>{table_, metal_}) {
    auto* why = new QShortcut(QKeySequence("F1"), asked, nullptr, nullptr, Qt::WidgetShortcut);
    connect(why, &QShortcut::activated, this, &AllowancePage::ask_why);
  }
  connect(metal_, &MetalView::picked, this, &AllowancePage::choose);
}

void AllowancePage::make_cut_face() {
  auto* side = face_column(cut_);
  side->addWidget(heading_);
  auto* big = new QHBoxLayout;
  next_->setFont(theme().figure());
  next_->setAccessibleName("Dial figure to cut to next");
  big->addWidget(next_);
  next_unit_->setFont(theme().title());
  next_unit_->setContentsMargins(0, 0, 0, theme().ipx(9));
  colour_label(next_unit_, theme().muted);
  big->addWidget(next_unit_, 0, Qt::AlignBottom);
  big->addStretch(1);
  side->addLayout(big);
  side->addWidget(verdict_);
  side->addSpacing(4);
  side->addWidget(hairline());
  side->addWidget(after_);
  side->addWidget(of_);
  side->addWidget(reading_);
  side->addWidget(note_);
  QBoxLayout* buttons =
      theme().large() ? static_cast<QBoxLayout*>(new QVBoxLayout) : static_cast<QBoxLayout*>(new QHBoxLayout);
  buttons->setSpacing(4);
  buttons->addWidget(take_);
  buttons->addWidget(back_);
  buttons->addStretch(1);
  side->addLayout(buttons);
  side->addWidget(mistake_);
  side->addWidget(move_);
  side->addStretch(1);
  side->addWidget(muted_label("Chips, swarf and edges are sharp: guards and eyes; stop the spindle before "
                              "measuring. The machine's manual goes first."));
}

void AllowancePage::make_plan_face() {
  auto* form = face_column(plan_);
  form->addWidget(heading_label("How the metal is spent"));
  form->addWidget(labelled("Machine", machine_, 64));
  form->addWidget(labelled("Tool", tool_, 64));
  add_field(form, "skin", &build::Allowance::skin, must_not_be_negative);
  add_field(form, "rough", &build::Allowance::rough, must_be_positive);
  add_field(form, "semi", &build::Allowance::semi, must_not_be_negative);
  add_field(form, "finish", &build::Allowance::finish, must_not_be_negative);
  add_field(form, "last", &build::Allowance::last, must_not_be_negative);
  form->addWidget(labelled("kept for", last_step_, 64));
  add_field(form, "spare", &build::Allowance::spare_end, must_not_be_negative);
  field("rough")->setToolTip("The most a roughing pass takes, a side");
  field("semi")->setToolTip("Before the finishing cut, a side; 0: none");
  field("last")->setToolTip("Left a side for reamer, lap or trial");
  field("spare")->setToolTip("Trial metal at the end, faced away when the fit is made");
  form->addWidget(even_);
  form->addWidget(batch_);
  form->addWidget(remarks_);
  form->addWidget(hairline());
  form->addWidget(heading_label("Passes as announced"));
  form->addWidget(announced_);
  form->addWidget(announced_words_);
  form->addWidget(hairline());
  form->addWidget(ladder_);
  form->addStretch(1);
}

void AllowancePage::connect_cut() {
  connect(take_, &QPushButton::clicked, this, &AllowancePage::take_reading);
  connect(reading_, &QLineEdit::returnPressed, this, &AllowancePage::take_reading);
  connect(back_, &QPushButton::clicked, this, &AllowancePage::take_back);
  connect(move_, &QPushButton::clicked, this, [this] {
    if (!mistake_found_.other_face) return;
    document_.apply(build::set_seat(document_.build(), state_.piece, mistake_found_.pose, false,
                                    "Move " + piece_title(document_.build(), state_.piece).toStdString() +
                                        " after a cut"));
  });
}

void AllowancePage::connect_plan() {
  connect(machine_, &QComboBox::activated, this, [this] {
    keep([this](build::Allowance& a) { a.machine = machine_->currentData().toLongLong(); }, "Machine");
  });
  connect(tool_, &QComboBox::activated, this, [this] {
    keep([this](build::Allowance& a) { a.tool = tool_->currentData().toLongLong(); }, "Tool");
  });
  connect(last_step_, &QComboBox::activated, this, [this] {
    keep(
        [this](build::Allowance& a) {
          a.last_step = static_cast<build::LastStep>(last_step_->currentIndex());
          if (const auto* plan_now = current()) a.last = allowance::usual_last(a.last_step, plan_now->drawn);
        },
        "Last step");
  });
  on_tick(even_, this,
          [this](bool on) { keep([on](build::Allowance& a) { a.even = on; }, "Roughing passes"); });
  on_tick(batch_, this,
          [this](bool on) { keep([on](build::Allowance& a) { a.batch = on; }, "Heights of the batch"); });
  connect(announced_, &QLineEdit::editingFinished, this, [this] {
    if (!announced_->isModified()) return;
    announced_->setModified(false);
    keep([this](build::Allowance& a) { a.announced = announced_->text().trimmed().toStdString(); },
         "Announced passes");
  });
}

void AllowancePage::add_field(QVBoxLayout* to, const QString& name, double build::Allowance::*member,
                              LengthRule rule) {
  auto* length = new LengthField(name);
  length->set_label_width(theme().ipx(64));
  length->set_rule(std::move(rule));
  to->addWidget(length);
  fields_.emplace_back(length, member);
  connect(length, &LengthField::committed, this, [this, name, member](double mm) {
    keep([member, mm](build::Allowance& a) { a.*member = mm; }, name.left(1).toUpper() + name.mid(1));
  });
}

LengthField* AllowancePage::field(const QString& name) const {
  for (const auto& [length, member] : fields_)
    if (length->edit()->accessibleName() == name) return length;
  return nullptr;
}

const SurfacePlan* AllowancePage::current() const {
  const auto found =
      std::find_if(plans_.begin(), plans_.end(), [&](const auto& p) { return p.surface == chosen_; });
  return found == plans_.end() ? nullptr : &*found;
}

void AllowancePage::refresh() {
  state_ = piece_state(document_.build(), document_.piece());
  plans_ = allowance::surface_plans(document_.build(), document_.piece(), state_.input, state_.pose,
                                    chains::aims_of(document_.build(), document_.piece(), targets_.now()));
  if (shown_piece_ != document_.piece()) mistake_->clear();
  shown_piece_ = document_.piece();
  if (current() == nullptr && !plans_.empty()) {
    chosen_ = plans_[static_cast<std::size_t>(allowance::surface_to_cut(plans_))].surface;
  }
  metal_->set_plans(plans_, document_.unit());
  for (std::size_t k = 0; k < plans_.size(); ++k)
    if (plans_[k].surface == chosen_) metal_->set_chosen(static_cast<int>(k));
  show_plan();
}

void AllowancePage::ask_why() {
  const auto* plan = current();
  if (plan == nullptr) return;
  // Asked of the picture: the next cut.
  const int row = table_->hasFocus() ? table_->currentRow() : static_cast<int>(plan->cuts.size());
  if (const auto sum = allowance::level_sum(*plan, row); !sum.lines.empty())
    show_why(table_, sum, document_.unit());
}

void AllowancePage::choose(int k) {
  if (k < 0 || k >= static_cast<int>(plans_.size())) return;
  chosen_ = plans_[static_cast<std::size_t>(k)].surface;
  metal_->set_chosen(k);
  reading_->clear();
  show_plan();
}

void AllowancePage::choose_surface(qlonglong surface) {
  for (std::size_t k = 0; k < plans_.size(); ++k)
    if (plans_[k].surface == surface) choose(static_cast<int>(k));
}

QString AllowancePage::dial_text(double depth) const {
  return qt(allowance::dial_text(depth, current()->dial_here()));
}

void AllowancePage::show_plan() {
  const auto* plan = current();
  side_->setEnabled(plan != nullptr);
  show_table();
  show_next();
  show_fields();
  shares_->show_plan(state_, plans_, plan);
}

void AllowancePage::show_table() {
  const auto* plan = current();
  table_->setRowCount(0);
  if (plan == nullptr) return;
  const auto unit = document_.unit();
  const auto size = [&](double left) {
    const auto d = plan->size_with(left);
    return d ? figure(*d, unit) : QString("\u2013");
  };
  int row = 0;
  double before = plan->most;
  for (const auto& [id, cut] : plan->cuts) {
    table_->insertRow(row);
    fill_row(table_, row,
             {QString::number(row + 1), cut.note.empty() ? QString("cut") : qt(cut.note),
              figure(before - cut.left, unit), figure(cut.left, unit), dial_text(plan->most - cut.left),
              size(cut.left), shown_sign(qt(cut.read)), figure(cut.left - cut.planned, unit, true)});
    for (int c = 0; c < table_->columnCount(); ++c) table_->item(row, c)->setForeground(theme().muted);
    if (plan->limited && cut.left < plan->low - 1e-9) table_->item(row, 3)->setForeground(theme().gone);
    before = cut.left;
    ++row;
  }
  if (plan->read.read()) { // on another page
    table_->insertRow(row);
    fill_row(table_, row,
             {QString::number(row + 1),
              "read since",
              {},
              figure(plan->now, unit),
              dial_text(plan->most - plan->now),
              size(plan->now),
              qt(readings::reading_text(document_.build(), *plan->read.measurement)),
              {}});
    for (int c = 0; c < table_->columnCount(); ++c) table_->item(row, c)->setForeground(theme().muted);
    ++row;
  }
  bool clean = plan->least - plan->now >= plan->allowance.skin;
  for (const auto& pass : plan->rest.passes) {
    table_->insertRow(row);
    QString name = allowance::pass_name(pass.kind);
    if (pass.all_clean && !clean && plan->allowance.skin > 0) name += ", clean all over";
    clean = clean || pass.all_clean;
    fill_row(table_, row,
             {QString::number(row + 1),
              name,
              figure(pass.depth, unit),
              figure(pass.left, unit),
              dial_text(plan->most - pass.left),
              size(pass.left),
              {},
              {}});
    ++row;
  }
  if (plan->rest.usable() && plan->allowance.last > 0 && plan->state != SurfaceState::finished &&
      plan->state != SurfaceState::spoilt) {
    static const QStringList kept{"kept", "ream", "lap", "fit by trial"};
    table_->insertRow(row);
    fill_row(table_, row,
             {QString::number(row + 1),
              kept[static_cast<int>(plan->allowance.last_step)],
              figure(plan->allowance.last, unit),
              figure(plan->aim, unit),
              dial_text(plan->most - plan->aim),
              size(plan->aim),
              {},
              {}});
  }
}

void AllowancePage::show_next() {
  const auto* plan = current();
  mistake_found_ = {};
  move_->hide();
  if (plan == nullptr) {
    next_->setText("\u2013");
    next_unit_->clear();
    verdict_->setText(stock::form_of(document_.build(), state_.part) == build::StockForm::bought
                          ? QString("Bought finished: nothing of it is cut.")
                          : QString("No surface is to be machined yet."));
    return;
  }
  of_->clear();
  of_->addItem("metal over nominal, a side", static_cast<int>(ReadingOf::left));
  of_->insertItem(0, plan->drawn.round() ? "diameter as it is" : "distance to the face opposite",
                  static_cast<int>(plan->drawn.round() ? ReadingOf::size : ReadingOf::distance));
  of_->addItem("dial, since first touching", static_cast<int>(ReadingOf::dial));
  of_->setCurrentIndex(plan->drawn.round() ? 0 : 1);
  const bool to_cut = plan->state != SurfaceState::finished && plan->state != SurfaceState::spoilt;
  const auto* piece = document_.build().find<build::Piece>(state_.piece);
  const bool several = document_.build().pieces_of(plan->drawn.part).size() > 1;
  after_->setText(several && piece ? filled("AFTER THE CUT, NO. %1", piece->number)
                                   : QString("AFTER THE CUT"));
  reading_->setToolTip("Of " + piece_title(document_.build(), state_.piece));
  heading_->setText((to_cut ? "Cut next: " : "") + name_words(plan->drawn.name));
  const auto dial = plan->dial_here();
  next_unit_->setText(
      to_cut ? QString("%1 %2").arg(qt(unit_name(dial.unit)), dial.reads_diameter ? "on diameter" : "a side")
             : QString());
  auto next = next_number(*plan);
  next_->setText(next.figure);
  next_->setAccessibleName(
      ("Dial figure to cut to next: " + next.figure + " " + next_unit_->text()).trimmed());
  if (const auto trial = trial_words(*plan); !trial.isEmpty()) next.words << trial;
  verdict_->setText(next.words.join(" "));
  show_mistake(*plan);
  back_->setEnabled(!plan->cuts.empty());
}

AllowancePage::Next AllowancePage::next_number(const SurfacePlan& plan) const {
  const auto unit = document_.unit();
  if (plan.source == allowance::StockSource::none)
    return {
        "\u2013",
        {plan.of_casting
             ? QString(
                   "Nothing is known of the metal here: touch it, or say in the Drawing step how it is cast.")
             : QString(
                   "Nothing is known of the metal here: say under Stock in the Drawing step what size it is "
                   "sawn to, or read across it.")}};
  if (plan.state == SurfaceState::finished) {
    const auto size = plan.size_with(plan.now);
    QStringList words{plan.limited ? QString("Finished: %1 a side over its nominal, within %2 to %3.")
                                         .arg(sheets::figure_with_unit(plan.now, unit),
                                              figure(plan.low, unit), figure(plan.high, unit))
                      : size ? QString("Finished: it measures %1; the drawing gives no limits.")
                                   .arg(sheets::figure_with_unit(*size, unit))
                             : QString("Finished: %1 over its nominal; the drawing gives no limits.")
                                   .arg(sheets::figure_with_unit(plan.now, unit))};
    if (!plan.plan.cleans_up)
      words << QString("At the lowest place scale may still show: it was %1 short.")
                   .arg(figure(plan.plan.short_by, unit));
    return {QChar(0x2713), words};
  }
  if (plan.state == SurfaceState::spoilt) return {"\u2013", {}};
  if (!plan.rest.usable()) return {"\u2013", {qt(plan.rest.message) + "."}};
  if (plan.rest.passes.empty())
    return {dial_text(plan.most - plan.now),
            {QString("Nothing more to cut: %1 a side is kept for the last step.")
                 .arg(sheets::figure_with_unit(plan.allowance.last, unit))}};
  const auto& pass = plan.rest.passes.front();
  QStringList words{
      QString("%1 deep, %2 left a side after it.")
          .arg(sheets::figure_with_unit(pass.depth, unit), sheets::figure_with_unit(pass.left, unit))};
  words << (plan.cuts.empty() && !plan.read.read()
                ? QString("The dial stands at zero where the tool first touches, %1 over size.")
                      .arg(sheets::figure_with_unit(plan.most, unit))
                : QString("Now %1 a side is left.").arg(sheets::figure_with_unit(plan.now, unit)));
  if (std::abs(plan.aim) > 0.0005) { // every figure here counts from the nominal: where it ends is said
    const auto size = plan.size_with(plan.aim);
    words << filled("It is finished at %1, where its joints and limits want it.",
                    size ? sheets::fit_with_unit(*size, unit)
                         : sheets::figure_with_unit(plan.aim, unit, true) + " a side");
  }
  if (!plan.rest.cleans_up)
    words << QString("At the lowest place scale still shows at size: %1 short.")
                 .arg(sheets::figure_with_unit(plan.rest.short_by, unit));
  if (plan.source == allowance::StockSource::expected)
    words << "The metal is what the casting grade lets expect; touch it to be sure.";
  else if (plan.source == allowance::StockSource::sizes)
    words << "The metal is what the sizes of the stock leave; read across it, and that counts.";
  else if (plan.source == allowance::StockSource::solid)
    words << (plan.drawn.round() ? "Made from solid: this is what the last drill leaves."
                                 : "A shoulder: this is what roughing what stands on it leaves.");
  else if (plan.of_casting && !state_.seated)
    words << "The part is not seated yet: this is the metal as it lies.";
  return {dial_text(plan.most - pass.left), words};
}

QString AllowancePage::trial_words(const SurfacePlan& plan) const {
  if (plan.allowance.last_step != build::LastStep::trial || plan.allowance.last <= 0 ||
      plan.state == SurfaceState::finished)
    return {};
  QStringList steps;
  for (const double s : allowance::trial_steps(plan.allowance.last)) steps << figure(s, document_.unit());
  return QString("Fit by trial at %1 off%2.")
      .arg(steps.join(", "), plan.allowance.spare_end > 0
                                 ? ", on the spare end that is faced away"
                                 : "; a spare end to try on, faced away later, costs nothing");
}

void AllowancePage::show_mistake(const SurfacePlan& plan) {
  if (plan.state != SurfaceState::spoilt) {
    mistake_->clear();
    return;
  }
  mistake_found_ =
      allowance::absorb_mistake(document_.build(), state_.input, state_.pose, plans_, plan, plan.now);
  QStringList lines{qt(mistake_found_.verdict)};
  for (const auto& way : mistake_found_.ways)
    lines << filled("%1 %2", way.works ? QChar(0x2713) : QChar(0x2013), qt(way.text));
  mistake_->setText(lines.join("\n"));
  colour_label(mistake_, mistake_found_.ends ? theme().gone : theme().ink);
  move_->setVisible(mistake_found_.other_face);
}

void AllowancePage::show_fields() {
  const auto* plan = current();
  const auto& b = document_.build();
  machine_->clear();
  machine_->addItem("none: dial reads a side", 0);
  for (const auto& [id, m] : b.machines())
    machine_->addItem(
        QString("%1, %2").arg(name_words(m.name), m.reads_diameter ? "reads diameter" : "reads a side"),
        QVariant::fromValue<qlonglong>(id));
  tool_->clear();
  tool_->addItem("none", 0);
  for (const auto& [id, t] : b.tools())
    tool_->addItem(t.least_cut > 0
                       ? QString("%1, cuts from %2")
                             .arg(name_words(t.name), sheets::figure_with_unit(t.least_cut, document_.unit()))
                       : name_words(t.name),
                   QVariant::fromValue<qlonglong>(id));
  if (plan == nullptr) return;
  const auto& a = plan->allowance;
  choose_data(machine_, a.machine);
  choose_data(tool_, a.tool);
  for (const auto& [length, member] : fields_) length->set_value(a.*member, document_.unit(), plan->surface);
  last_step_->setCurrentIndex(static_cast<int>(a.last_step));
  show_tick(even_, a.even);
  show_tick(batch_, a.batch);
  batch_->setVisible(b.pieces_of(plan->drawn.part).size() > 1);
  QStringList remarks;
  for (const auto& r : plan->plan.remarks) remarks << qt(r) + ".";
  remarks_->setText(remarks.join(" "));
  remarks_->setVisible(!remarks.isEmpty());
  if (!(announced_->hasFocus() && announced_->isModified())) show_from_start(announced_, whole(a.announced));
  announced_words_->setText("Type the passes somebody called out: whether they add up is said here.");
  colour_label(announced_words_, theme().muted);
  if (!a.announced.empty() && plan->rest.usable()) {
    const auto check = allowance::check_announced(a.announced, plan->now - plan->aim - a.last,
                                                  document_.unit(), plan->dial_here().reads_diameter);
    announced_words_->setText(check.ok ? qt(check.verdict) : qt(check.message));
    colour_label(announced_words_, check.ok && check.off == 0 ? theme().good : theme().gone);
  }
  ladder_->clear();
  if (plan->drawn.kind == SurfaceKind::bore) {
    allowance::LadderInput in;
    in.made = a.last_step == build::LastStep::ream ? allowance::HoleMade::reamed : allowance::HoleMade::bored;
    in.size = plan->drawn.diameter - 2 * plan->aim;
    if (plan->source != allowance::StockSource::none &&
        (!plan->from_solid || !plan->cuts.empty())) { // bored once, it is true
      const bool as_cast = plan->source == allowance::StockSource::touches && plan->cuts.empty();
      in.core_off = as_cast ? (plan->most - plan->least) / 2 : 0;
      in.cored = std::max(0.0, plan->drawn.diameter - (as_cast ? plan->most + plan->least : 2 * plan->now));
    }
    in.drills = document_.unit();
    const auto ladder = allowance::drill_ladder(in);
    if (ladder.usable()) {
      QStringList names;
      for (const auto& d : ladder.drills) names << name_words(d.name);
      ladder_->setText((names.isEmpty() ? QString() : "Drills: " + names.join(", then ") + ". ") +
                       qt(ladder.verdict));
    }
  }
}

void AllowancePage::keep(const std::function<void(build::Allowance&)>& change, const QString& what) {
  const auto* plan = current();
  if (plan == nullptr) return;
  auto changed = plan->allowance;
  changed.piece = state_.piece;
  changed.surface = plan->surface;
  change(changed);
  document_.apply(build::set_allowance(document_.build(), changed, what.toStdString()));
}

void AllowancePage::take_reading() {
  const auto* plan = current();
  if (plan == nullptr || state_.piece == 0) return;
  const auto text = reading_->text().trimmed();
  const auto fail = [this](const QString& why) {
    mistake_->setText(why);
    colour_label(mistake_, theme().gone);
    reading_->setFocus();
  };
  if (plan->source == allowance::StockSource::none)
    return fail(plan->of_casting
                    ? "Nothing is known of the metal here yet: touch it first."
                    : "Nothing is known of the metal here yet: say under Stock what it is made from.");
  const auto read = reading_->read(document_.unit());
  if (!read.ok()) return fail(filled("Reading, column %1: %2", read.column, read.wrong));
  std::string why;
  const auto left = allowance::left_by_reading(
      document_.build(), *plan, static_cast<ReadingOf>(of_->currentData().toInt()), read.mm, &why);
  if (!left) return fail(sheets::sentence(why));
  auto cut = allowance::cut_of(*plan, state_.pose, *left);
  cut.read = text.toStdString();
  cut.note = note_->text().trimmed().toStdString();
  cut.at = build::utc_now();
  note_->clear();
  reading_->clear();
  document_.apply(build::log_cut(document_.build(), cut));
}

void AllowancePage::take_back() {
  const auto* plan = current();
  if (plan == nullptr || plan->cuts.empty()) return;
  document_.apply(build::take_back_cut(document_.build(), state_.piece, plan->surface));
}

} // namespace datrin::app
