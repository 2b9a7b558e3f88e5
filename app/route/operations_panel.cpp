#include "app/route/operations_panel.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/route/recovery_dialog.h"
#include "app/theme.h"
#include "build/edit_route.h"
#include "build/edits.h"
#include "quantity/text.h"
#include "route/propose.h"
#include "sheets/figures.h"

#include <QHBoxLayout>
#include <QShortcut>
#include <QVBoxLayout>

#include <algorithm>

namespace datrin::app {

using build::Id;
using sheets::qt;

OperationsPanel::OperationsPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), table_(new OperationsTable), form_(new OperationForm(document)),
      time_(new FigureRow("Time", {}, Unit::mm, {})), words_(words_label()), remarks_(muted_label()),
      propose_(new QPushButton("Propose")), best_(new QPushButton("Best order")),
      plans_(new QPushButton("Plans\u2026")), card_(new QPushButton("Route card\u2026")),
      bench_(new QPushButton("At the machine  F11")), add_(new QPushButton("Add")),
      remove_(new QPushButton("Remove")), up_(new QPushButton("\u2191")), down_(new QPushButton("\u2193")),
      slip_(new QPushButton("After a slip\u2026")),
      manner_(choice_box("In which manner a batch is made", {"part by part", "operation by operation"})),
      setup_minutes_(text_field("Minutes to make a setup ready")),
      tool_minutes_(text_field("Minutes to change a tool")), message_(new MessageLine) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(5);
  QBoxLayout* head = theme().large() ? static_cast<QBoxLayout*>(new QVBoxLayout) : new QHBoxLayout;
  head->setSpacing(4);
  head->addWidget(propose_);
  head->addWidget(best_);
  head->addWidget(plans_);
  head->addStretch(1);
  plans_->setToolTip("Other first datums, other setups: three whole plans that differ");
  card_->setToolTip("A page a setup, as PDF; or the route as CSV or JSON");
  propose_->setToolTip("What makes each feature that nothing makes yet; setups too, where there are none");
  best_->setToolTip(
      "Fewest minutes: setups and tools changed as seldom as what must come before what lets one");
  column->addLayout(head);
  column->addWidget(manner_);
  column->addWidget(minutes_row());
  column->addWidget(message_);
  message_->hide();
  column->addWidget(time_);
  column->addWidget(words_);
  column->addWidget(remarks_);
  column->addWidget(card_);
  column->addWidget(bench_);
  bench_->setToolTip("The whole window for one step of the setup, number pad and Enter");
  column->addWidget(hairline());
  auto* row = new QHBoxLayout;
  row->setSpacing(4);
  for (auto* b : {up_, down_}) b->setFixedWidth(theme().ipx(28));
  up_->setAccessibleName("Operation earlier");
  down_->setAccessibleName("Operation later");
  for (auto* b : {add_, remove_}) row->addWidget(b);
  row->addStretch(1);
  for (auto* b : {up_, down_}) row->addWidget(b);
  add_->setAccessibleName("Add an operation");
  remove_->setAccessibleName("Remove the operation");
  column->addLayout(row);
  column->addWidget(form_, 1);
  column->addWidget(slip_);
  slip_->setToolTip("The hole lies out of its place, or a tap broke in it: what can still be done");
  column->addStretch(0);
  words_->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
  remarks_->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
  connect(propose_, &QPushButton::clicked, this, &OperationsPanel::propose);
  connect(best_, &QPushButton::clicked, this, &OperationsPanel::take_best);
  connect(plans_, &QPushButton::clicked, this, &OperationsPanel::plans_wanted);
  connect(card_, &QPushButton::clicked, this, &OperationsPanel::card_wanted);
  connect(bench_, &QPushButton::clicked, this, &OperationsPanel::bench_wanted);
  connect(add_, &QPushButton::clicked, this, &OperationsPanel::add);
  connect(remove_, &QPushButton::clicked, this, &OperationsPanel::remove);
  connect(up_, &QPushButton::clicked, this, [this] { move(-1); });
  connect(down_, &QPushButton::clicked, this, [this] { move(1); });
  for (auto* edit : {setup_minutes_, tool_minutes_})
    connect(edit, &QLineEdit::editingFinished, this, &OperationsPanel::take_minutes);
  connect(slip_, &QPushButton::clicked, this, &OperationsPanel::show_slip);
  connect(manner_, &QComboBox::activated, this, [this] { refresh(); });
  connect(table_, &OperationsTable::moved, this, &OperationsPanel::put);
  connect(table_, &QTableWidget::currentCellChanged, this, [this](int at) {
    chosen_ = at >= 0 && at < static_cast<int>(plan_.operations.size())
                  ? plan_.operations[static_cast<std::size_t>(at)].id
                  : 0;
    form_->show_operation(chosen_, plan_);
    slip_->setVisible(document_.piece() != 0 && hole().has_value());
    emit operation_chosen();
  });
  const auto key = [this](const QKeySequence& keys, auto act) {
    auto* shortcut = new QShortcut(keys, table_, nullptr, nullptr, Qt::WidgetShortcut);
    connect(shortcut, &QShortcut::activated, this, act);
  };
  key(QKeySequence("Alt+Up"), [this] { move(-1); });
  key(QKeySequence("Alt+Down"), [this] { move(1); });
  key(QKeySequence::Delete, [this] { remove(); });
}

/// "A setup takes 20 min, a tool 2".
QWidget* OperationsPanel::minutes_row() {
  auto* row = new QWidget;
  QBoxLayout* line = theme().large() ? static_cast<QBoxLayout*>(new QVBoxLayout(row)) : new QHBoxLayout(row);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(6);
  line->addWidget(new QLabel("Setup"));
  line->addWidget(setup_minutes_);
  line->addWidget(new QLabel("tool"));
  line->addWidget(tool_minutes_);
  line->addWidget(new QLabel("min"));
  for (auto* edit : {setup_minutes_, tool_minutes_}) {
    edit->setMinimumWidth(theme().ipx(40));
    edit->setToolTip("Minutes it takes here, in this build");
  }
  return row;
}

void OperationsPanel::take_minutes() {
  const auto read = [](const QLineEdit* edit) {
    const auto value = number_from(edit->text().trimmed().toStdString(), true);
    return value && *value >= 0 && *value <= 1e4 ? value : std::nullopt;
  };
  if (!setup_minutes_->isModified() && !tool_minutes_->isModified()) return;
  const auto setup = read(setup_minutes_), tool = read(tool_minutes_);
  message_->setVisible(!setup || !tool); // takes no room while there is nothing to say
  if (!setup || !tool)
    return message_->refuse(filled("%1 is no time: minutes, as 20 or 2.5.",
                                   (setup ? tool_minutes_ : setup_minutes_)->text().trimmed()));
  message_->tell({});
  for (auto* edit : {setup_minutes_, tool_minutes_}) edit->setModified(false);
  document_.apply(build::set_change_minutes(document_.build(), *setup, *tool));
}

std::optional<route::Feature> OperationsPanel::hole() const {
  const auto* o = document_.build().find<build::Operation>(chosen_);
  if (!o) return std::nullopt;
  for (const auto& f : route::features_to_make(document_.build(), o->part))
    if (route::makes(*o, f) &&
        (f.shape == route::FeatureShape::hole || f.shape == route::FeatureShape::taper_hole))
      return f;
  return std::nullopt;
}

void OperationsPanel::show_slip() {
  const auto feature = hole();
  if (!feature || document_.piece() == 0) return;
  auto* dialog = new RecoveryDialog(document_, *feature, document_.piece(), window());
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->open();
}

route::PlanOptions OperationsPanel::options() const {
  route::PlanOptions options;
  options.manner =
      manner_->currentIndex() == 0 ? route::Manner::part_by_part : route::Manner::operation_by_operation;
  return options;
}

void OperationsPanel::refresh() {
  const bool open = document_.is_open() && document_.part() != 0;
  plan_ = open ? route::plan_route(document_.build(), document_.part(), options()) : route::RoutePlan{};
  const auto there = [this](Id id) {
    return std::any_of(plan_.operations.begin(), plan_.operations.end(),
                       [id](const auto& o) { return o.id == id; });
  };
  if (!there(chosen_)) chosen_ = plan_.operations.empty() ? 0 : plan_.operations.front().id;
  table_->show_plan(document_.build(), plan_, document_.piece(), chosen_);
  form_->show_operation(chosen_, plan_);
  propose_->setEnabled(open && !plan_.unmade.empty());
  best_->setEnabled(plan_.best.usable() && !plan_.in_best_order());
  add_->setEnabled(open);
  plans_->setEnabled(open);
  card_->setEnabled(!plan_.operations.empty());
  bench_->setEnabled(open && document_.piece() != 0 &&
                     !document_.build().setups_of(document_.part()).empty());
  for (auto* b : {remove_, up_, down_}) b->setEnabled(chosen_ != 0);
  if (open)
    for (const auto& [edit, minutes] : {std::pair{setup_minutes_, document_.build().info().setup_minutes},
                                        std::pair{tool_minutes_, document_.build().info().tool_minutes}})
      if (!(edit->hasFocus() && edit->isModified())) edit->setText(QString::number(minutes, 'g', 6));
  slip_->setVisible(document_.piece() != 0 && hole().has_value());
  show_words();
}

void OperationsPanel::show_words() {
  QStringList words, remarks;
  const auto number_of = [this](std::size_t k) { return plan_.operations[k].number; };
  if (plan_.operations.empty()) {
    words << (plan_.unmade.empty()
                  ? QString("State what of the part is machined, in the Drawing step: what makes it is "
                            "proposed here.")
                  : filled(plan_.unmade.size() == 1 ? "%1 feature is to be made. Propose says what makes it, "
                                                      "in an order that can work."
                                                    : "%1 features are to be made. Propose says what makes "
                                                      "them, in an order that can work.",
                           plan_.unmade.size()));
  } else if (!plan_.cycle.empty()) {
    words << sheets::sentence(plan_.cycle);
  } else {
    const auto& b = document_.build();
    const auto* part = b.find<build::Part>(document_.part());
    const auto off = part && part->quantity > 1 ? filled(" for %1 pieces", part->quantity) : QString();
    if (plan_.now.usable()) {
      auto sum = route::order_sum(b, plan_.now, part ? std::max(1, part->quantity) : 1, options());
      const auto answer = qt(sum.answer);
      time_->show_words(answer, std::move(sum));
    }
    if (plan_.now.usable())
      words << qt(route::order_counts(plan_.now)) + off + ".";
    else
      words << "As it stands it cannot work: see what is marked \u2717.";
    if (plan_.in_best_order())
      words << (plan_.best.proved_best ? "No order takes less." : "The best order found.");
    else if (plan_.best.usable())
      words << "Best: " + qt(route::order_text(plan_.best)) + ".";
    if (part && part->quantity > 1) { // which way round a batch is quicker
      auto other = options();
      other.manner = other.manner == route::Manner::part_by_part ? route::Manner::operation_by_operation
                                                                 : route::Manner::part_by_part;
      if (const auto way = route::plan_route(b, document_.part(), other); way.best.usable())
        words << filled(other.manner == route::Manner::part_by_part ? "Part by part: %1."
                                                                    : "Operation by operation: %1.",
                        qt(route::order_text(way.best)));
    }
    const auto most = std::max_element(
        plan_.operations.begin(), plan_.operations.end(),
        [](const auto& one, const auto& other) { return one.waited_for < other.waited_for; });
    if (most->waited_for > 1)
      words << filled("Most waits for %1: %2 come after it.",
                      number_of(static_cast<std::size_t>(most - plan_.operations.begin())), most->waited_for);
    const auto here = std::find_if(plan_.operations.begin(), plan_.operations.end(),
                                   [this](const auto& o) { return o.id == chosen_; });
    if (here != plan_.operations.end() && here->side_by_side > 0)
      words << filled(here->side_by_side == 1 ? "%1 may be done before or after %2 other."
                                              : "%1 may be done before or after %2 others.",
                      here->number, here->side_by_side);
  }
  if (!plan_.operations.empty())
    for (const auto& f : plan_.unmade) remarks << filled("Nothing makes %1.", name_words(f.name));
  for (const auto& remark : plan_.remarks) remarks << sheets::sentence(remark);
  time_->setVisible(plan_.now.usable());
  words_->setText(words.join(" "));
  colour_label(words_, plan_.now.usable() || plan_.operations.empty() ? theme().ink : theme().gone);
  remarks_->setText(remarks.join("\n"));
  remarks_->setVisible(!remarks.isEmpty());
}

std::vector<Id> OperationsPanel::lit() const {
  const auto* o = document_.build().find<build::Operation>(chosen_);
  return o ? o->surfaces : std::vector<Id>{};
}

void OperationsPanel::propose() {
  document_.apply(route::propose_operations(document_.build(), document_.part()));
}

void OperationsPanel::take_best() {
  document_.apply(route::take_best_order(document_.build(), document_.part(), options()));
}

void OperationsPanel::add() {
  const auto added =
      build::add_operation(document_.build(), document_.part(), build::OperationKind::mill, chosen_);
  if (added.ok()) chosen_ = added.id;
  document_.apply(added);
}

void OperationsPanel::remove() {
  if (chosen_ != 0) document_.apply(build::take_away(document_.build(), chosen_));
}

void OperationsPanel::move(int by) {
  const int row = table_->currentRow();
  if (row >= 0 && row + by >= 0 && row + by < table_->rowCount()) put(row, row + by);
}

void OperationsPanel::put(int row, int to) {
  if (row < 0 || row >= static_cast<int>(plan_.operations.size())) return;
  chosen_ = plan_.operations[static_cast<std::size_t>(row)].id;
  document_.apply(route::put_operation(document_.build(), chosen_, to));
}

} // namespace datrin::app
