#include "app/route/setup_panel.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "build/edit_making.h"
#include "build/edit_route.h"
#include "build/now.h"
#include "casting/spots.h"
#include "sheets/figures.h"
#include "sheets/local_time.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QScopedValueRollback>
#include <QShortcut>
#include <QVBoxLayout>

#include <algorithm>

namespace datrin::app {

using build::contains;
using build::Id;
using build::Setup;
using sheets::qt;

SetupPanel::SetupPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), setups_(new QListWidget), parts_(new QListWidget),
      gate_list_(new QListWidget), name_(text_field("Name of the setup")),
      left_(text_field("What stays on the machine", "what stays on the machine")),
      holding_(new HoldingForm(document)), remarks_(muted_label()), verdict_(words_label()),
      gate_heading_(heading_label("Before it is unclamped")), add_(new QPushButton("Add")),
      remove_(new QPushButton("Remove")), up_(new QPushButton("\u2191")), down_(new QPushButton("\u2193")),
      release_(new QPushButton("Unclamp")), done_(new QPushButton("Done")),
      recover_(new QPushButton("What can be done\u2026")), gate_(new QWidget),
      overview_(plain_table("What each setup does", {"Surface"}, 9)) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(5);
  auto* head = new QHBoxLayout;
  head->setSpacing(4);
  if (theme().large())
    column->addWidget(heading_label("Setups"));
  else
    head->addWidget(heading_label("Setups"));
  head->addStretch(1);
  for (auto* b : {up_, down_}) b->setFixedWidth(theme().ipx(28));
  up_->setAccessibleName("Setup earlier");
  down_->setAccessibleName("Setup later");
  head->addWidget(up_);
  head->addWidget(down_);
  head->addWidget(add_);
  column->addLayout(head);
  setups_->setAccessibleName("Setups in order");
  setups_->setMinimumHeight(theme().ipx(84));
  column->addWidget(setups_, 1);
  QBoxLayout* named =
      theme().large() ? static_cast<QBoxLayout*>(new QVBoxLayout) : static_cast<QBoxLayout*>(new QHBoxLayout);
  named->setSpacing(4);
  named->addWidget(name_, 1);
  named->addWidget(remove_);
  column->addLayout(named);
  column->addWidget(holding_);
  parts_->setAccessibleName("What takes part in the setup");
  parts_->setToolTip("Enter or a double click: not in it, datum, cut here, reference for later; a dimension: "
                     "measured here or not");
  parts_->setMinimumHeight(theme().ipx(130));
  column->addWidget(parts_, 3);
  column->addWidget(muted_label(
      "Enter changes the part a surface plays: locates (1\u20133), cut, reference; a dimension: measured."));
  column->addWidget(remarks_);

  make_gate();
  connect_setups();
  connect_gate();
}

void SetupPanel::make_gate() {
  auto* gate_column = new QVBoxLayout(gate_);
  gate_column->setContentsMargins(12, 10, 12, 12);
  gate_column->setSpacing(6);
  gate_column->addWidget(gate_heading_);
  gate_column->addWidget(verdict_);
  gate_list_->setAccessibleName("What must be true before unclamping");
  gate_list_->setWordWrap(true);
  gate_column->addWidget(gate_list_, 1);
  gate_column->addWidget(left_);
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(done_);
  buttons->addWidget(release_);
  gate_column->addWidget(recover_);
  recover_->setToolTip("A surface that was cut too deep: other face, mate, bush, build up, scrap");
  buttons->addStretch(1);
  done_->setToolTip("A reference cut or scribed on a surface that stays as cast; what was seen dealt with");
  gate_column->addLayout(buttons);
  gate_column->addWidget(muted_label("Unclamped work can fall or swing: support it first; heavy castings "
                                     "want lifting tackle and its rules."));
}

void SetupPanel::connect_setups() {
  connect(add_, &QPushButton::clicked, this, &SetupPanel::add_setup);
  connect(remove_, &QPushButton::clicked, this, &SetupPanel::remove_setup);
  connect(up_, &QPushButton::clicked, this, [this] { move_setup(-1); });
  connect(down_, &QPushButton::clicked, this, [this] { move_setup(1); });
  connect(release_, &QPushButton::clicked, this, &SetupPanel::release);
  connect(done_, &QPushButton::clicked, this, &SetupPanel::gate_done);
  connect(setups_, &QListWidget::currentRowChanged, this, [this](int row) {
    if (filling_) return;
    const auto all = document_.build().setups_of(state_.part);
    chosen_ = row >= 0 && row < static_cast<int>(all.size()) ? all[static_cast<std::size_t>(row)].first : 0;
    show_setup();
    show_gate();
  });
  auto* drop = new QShortcut(QKeySequence::Delete, setups_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(drop, &QShortcut::activated, this, &SetupPanel::remove_setup);
  connect(parts_, &QListWidget::itemActivated, this, [this] { cycle_part(); });
}

void SetupPanel::connect_gate() {
  connect(gate_list_, &QListWidget::itemActivated, this, [this] {
    const int row = gate_list_->currentRow();
    if (row >= 0 && row < static_cast<int>(gate_result_.items.size()))
      emit go_to_surface(gate_result_.items[static_cast<std::size_t>(row)].surface);
  });
  connect(gate_list_, &QListWidget::currentRowChanged, this, [this](int row) {
    const bool any = row >= 0 && row < static_cast<int>(gate_result_.items.size());
    const auto item = any ? gate_result_.items[static_cast<std::size_t>(row)] : route::GateItem{};
    const bool by_hand = item.kind == route::GateKind::spot || item.kind == route::GateKind::operation ||
                         (item.kind == route::GateKind::reference && item.surface != 0);
    done_->setEnabled(any && by_hand && !item.done);
  });
  connect(recover_, &QPushButton::clicked, this, [this] {
    if (const auto* plan = spoilt()) emit recovery_wanted(plan->surface);
  });
  connect(name_, &QLineEdit::editingFinished, this, [this] {
    const auto* now = current();
    if (now == nullptr || !name_->isModified() || name_->text().trimmed().isEmpty()) return;
    auto changed = *now;
    changed.name = name_->text().trimmed().toStdString();
    name_->setModified(false);
    document_.apply(build::change(document_.build(), chosen_, changed, "Name"));
  });
}

const Setup* SetupPanel::current() const {
  return document_.build().find<Setup>(chosen_);
}

void SetupPanel::add_setup() {
  const auto added = build::add_setup(document_.build(), state_.part);
  if (added.ok()) chosen_ = added.id;
  document_.apply(added);
}

void SetupPanel::remove_setup() {
  document_.apply(build::take_away(document_.build(), chosen_));
}

void SetupPanel::move_setup(int by) {
  document_.apply(build::move_setup(document_.build(), chosen_, by));
}

void SetupPanel::cycle_part() {
  if (const auto* item = parts_->currentItem())
    document_.apply(build::next_role(document_.build(), chosen_, item->data(Qt::UserRole).toLongLong()));
}

void SetupPanel::show_state(const PieceState& state, const std::vector<allowance::SurfacePlan>& plans) {
  state_ = state;
  plans_ = plans;
  const auto& b = document_.build();
  const auto all = b.setups_of(state.part);
  if ((current() == nullptr || current()->part != state.part)) chosen_ = all.empty() ? 0 : all.front().first;
  {
    const QScopedValueRollback<bool> filling(filling_, true);
    setups_->clear();
    for (const auto& [id, s] : all) {
      QString words = filled("%1  %2", setups_->count() + 1, name_words(s.name));
      if (b.release_of(state.piece, id)) words += "  \u2713";
      setups_->addItem(words);
      if (id == chosen_) setups_->setCurrentRow(setups_->count() - 1);
    }
  }
  add_->setEnabled(state.part != 0);
  QStringList remarks;
  for (const auto& r : route::route_remarks(b, state.part)) remarks << qt(r.text) + ".";
  remarks_->setText(all.empty()
                        ? QString("No setups yet. Take first datums to have them suggested, or add one.")
                        : remarks.join("\n"));
  remarks_->setVisible(!remarks_->text().isEmpty());
  colour_label(remarks_, remarks.isEmpty() ? theme().muted : theme().gone);
  show_setup();
  show_gate();
  show_overview();
}

void SetupPanel::show_overview() {
  const auto& b = document_.build();
  const auto setups = b.setups_of(state_.part);
  QStringList heads{"Surface", "As it is"};
  for (const auto& [id, s] : setups) heads << name_words(s.name);
  overview_->setColumnCount(static_cast<int>(heads.size()));
  overview_->setHorizontalHeaderLabels(heads);
  for (int c = 0; c < overview_->columnCount(); ++c) {
    overview_->horizontalHeaderItem(c)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    overview_->setColumnWidth(c, theme().ipx(c < 2 ? 120 : 170));
  }
  overview_->setRowCount(0);
  for (const auto& [id, s] : b.surfaces_of(state_.part)) {
    const auto plan = std::find_if(plans_.begin(), plans_.end(),
                                   [&, wanted = id](const auto& p) { return p.surface == wanted; });
    QStringList cells{name_words(s.name), plan == plans_.end()
                                              ? QString(state_.cast ? "stays as cast" : "stays as it came")
                                              : QString(allowance::state_name(*plan))};
    bool any = s.machined;
    for (const auto& [setup_id, setup] : setups) {
      const auto datum = std::find(setup.datums.begin(), setup.datums.end(), id);
      QString cell;
      const auto* held = setup.datums.empty() ? nullptr : b.find<build::PartSurface>(setup.datums.front());
      if (datum != setup.datums.end() && held != nullptr && held->round())
        cell = datum == setup.datums.begin() ? "grips, 4" : "locates, 1";
      else if (datum != setup.datums.end())
        cell = QString("locates, %1").arg(std::max<std::ptrdiff_t>(1, 3 - (datum - setup.datums.begin())));
      else if (contains(setup.cuts, id))
        cell = "cut";
      else if (contains(setup.marks, id))
        cell = "reference";
      any = any || !cell.isEmpty();
      cells << cell;
    }
    if (!any) continue;
    const int row = overview_->rowCount();
    overview_->insertRow(row);
    fill_row(overview_, row, cells);
    if (plan != plans_.end() && plan->state == allowance::SurfaceState::spoilt)
      overview_->item(row, 1)->setForeground(theme().gone);
    if (plan != plans_.end() && plan->state == allowance::SurfaceState::finished)
      overview_->item(row, 1)->setForeground(theme().good);
  }
}

void SetupPanel::show_setup() {
  const auto* now = current();
  holding_->show_setup(chosen_);
  for (QWidget* w : std::initializer_list<QWidget*>{name_, remove_, up_, down_, parts_})
    w->setEnabled(now != nullptr);
  const int row = parts_->currentRow();
  parts_->clear();
  if (now == nullptr) {
    name_->clear();
    return;
  }
  if (!(name_->hasFocus() && name_->isModified())) show_from_start(name_, whole(now->name));
  const auto& b = document_.build();
  static const QString targets[] = {"locates, 3 targets", "locates, 2 targets", "locates, 1 target"};
  for (const auto& [id, s] : b.surfaces_of(state_.part)) {
    QString role;
    const auto datum = std::find(now->datums.begin(), now->datums.end(), id);
    const auto* held = now->datums.empty() ? nullptr : b.find<build::PartSurface>(now->datums.front());
    if (datum != now->datums.end() && held != nullptr && held->round())
      role = datum == now->datums.begin() ? "grips, 4 targets" : targets[2];
    else if (datum != now->datums.end())
      role = targets[std::min<std::ptrdiff_t>(2, datum - now->datums.begin())];
    else if (contains(now->cuts, id))
      role = "cut here";
    else if (contains(now->marks, id))
      role = "reference for later";
    auto* item = new QListWidgetItem(
        role.isEmpty() ? name_words(s.name) : name_words(s.name) + "  \u00B7  " + role, parts_);
    item->setData(Qt::UserRole, QVariant::fromValue<qlonglong>(id));
    if (role.isEmpty()) item->setForeground(theme().muted);
  }
  for (const auto& [id, d] : b.dimensions_of(state_.part)) {
    const bool in = contains(now->sizes, id);
    auto* item = new QListWidgetItem(
        in ? name_words(d.name) + "  \u00B7  measured here" : name_words(d.name) + " (dimension)", parts_);
    item->setData(Qt::UserRole, QVariant::fromValue<qlonglong>(id));
    if (!in) item->setForeground(theme().muted);
  }
  parts_->setCurrentRow(std::clamp(row, 0, std::max(0, parts_->count() - 1)));
}

void SetupPanel::show_gate() {
  const auto* now = current();
  gate_list_->clear();
  gate_result_ = {};
  done_->setEnabled(false);
  if (now == nullptr || state_.piece == 0) {
    gate_heading_->setText("Before it is unclamped");
    verdict_->setText("Add a setup: what must be true before the piece leaves it is listed here.");
    release_->setEnabled(false);
    return;
  }
  gate_heading_->setText("Before it leaves \"" + name_words(now->name) + "\"");
  gate_result_ = route::unclamp_gate(document_.build(), state_.piece, chosen_, plans_);
  const auto released = document_.build().release_of(state_.piece, chosen_);
  verdict_->setText(released ? QString("Unclamped on %1.%2")
                                       .arg(sheets::local_time(released->second.at).left(10),
                                            released->second.missing.empty()
                                                ? QString()
                                                : " Missing then: " + qt(released->second.missing)) +
                                   (released->second.left.empty()
                                        ? QString()
                                        : " Left on the machine: " + whole(released->second.left) + ".")
                             : qt(gate_result_.verdict));
  colour_label(verdict_, gate_result_.open == 0 ? theme().good : theme().gone);
  for (const auto& item : gate_result_.items) {
    auto* row = new QListWidgetItem(
        filled("%1  %2", item.done ? QChar(0x2713) : QChar(0x2717), qt(item.text)), gate_list_);
    if (!item.done) row->setForeground(theme().gone);
  }
  recover_->setVisible(spoilt() != nullptr);
  release_->setEnabled(true);
  release_->setText(released ? "Clamp it again" : gate_result_.open == 0 ? "Unclamp" : "Unclamp anyway");
}

const allowance::SurfacePlan* SetupPanel::spoilt() const {
  const int row = gate_list_->currentRow();
  const auto chosen = row >= 0 && row < static_cast<int>(gate_result_.items.size())
                          ? gate_result_.items[static_cast<std::size_t>(row)].surface
                          : 0;
  const allowance::SurfacePlan* found = nullptr;
  for (const auto& plan : plans_)
    if (plan.state == allowance::SurfaceState::spoilt && (!found || plan.surface == chosen)) found = &plan;
  return found;
}

void SetupPanel::gate_done() {
  const int row = gate_list_->currentRow();
  if (row < 0 || row >= static_cast<int>(gate_result_.items.size())) return;
  if (const auto operation = gate_result_.items[static_cast<std::size_t>(row)].operation; operation != 0) {
    document_.apply(build::set_done(document_.build(), state_.piece, operation, true, build::utc_now()));
    return;
  }
  if (const auto spot = gate_result_.items[static_cast<std::size_t>(row)].spot; spot != 0) {
    document_.apply(casting::mark_spot_done(document_.build(), spot, true));
    return;
  }
  const auto surface = gate_result_.items[static_cast<std::size_t>(row)].surface;
  const auto* s = document_.build().find<build::PartSurface>(surface);
  if (s == nullptr) return;
  if (s->machined) {
    emit go_to_surface(surface);
    return;
  }
  document_.apply(build::log_reference(document_.build(), state_.piece, surface,
                                       state_.pose.inverse().apply(s->point), build::utc_now()));
}

void SetupPanel::release() {
  const auto& b = document_.build();
  document_.apply(b.release_of(state_.piece, chosen_)
                      ? build::clamp_again(b, state_.piece, chosen_)
                      : build::unclamp(b, state_.piece, chosen_, route::still_missing(gate_result_),
                                       build::utc_now(), left_->text().trimmed().toStdString()));
}

} // namespace datrin::app
