#include "app/casting/judge_panel.h"

#include "app/marks/column.h"
#include "app/marks/copy_table.h"
#include "app/marks/fields.h"
#include "app/marks/why.h"
#include "app/theme.h"
#include "build/edit_casting.h"
#include "casting/explain.h"
#include "sheets/figures.h"

#include <QGridLayout>
#include <QHeaderView>
#include <QShortcut>

namespace datrin::app {

using sheets::figure;
using sheets::qt;

casting::SeatWishes seat_wishes(const build::Build& build, build::Id piece,
                                const casting::PieceInput& input) {
  casting::SeatWishes wishes;
  if (const auto judgement = build.judgement_of(piece)) {
    wishes.locked = judgement->second.locked;
    if (judgement->second.central_bore)
      wishes.central_bore = input.surface_index(judgement->second.central_bore);
  }
  return wishes;
}

JudgePanel::JudgePanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), favoured_(new QComboBox), central_(new QComboBox),
      favour_(new LengthField("by")), balance_(words_label()), costs_(muted_label()),
      table_(new QTableWidget(0, 2)), take_(new QPushButton("Take this seat")) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(5);
  make_wishes();
  connect_wishes();
  make_others();
  connect_others();
}

void JudgePanel::make_wishes() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  column->addWidget(heading_label("Not allowed"));
  auto* grid = new QGridLayout;
  grid->setSpacing(4);
  for (int k = 0; k < 6; ++k) {
    auto* box = new QCheckBox(filled("%1 %2", k < 3 ? "move" : "turn", QChar('x' + k % 3)));
    box->setToolTip(
        k < 3 ? QString("The casting is not moved along %1 from where it lies").arg(QChar('x' + k))
              : QString("The casting is not turned about %1 from how it lies").arg(QChar('x' + k - 3)));
    locks_[static_cast<std::size_t>(k)] = box;
    grid->addWidget(box, theme().large() ? k / 2 : k / 3, theme().large() ? k % 2 : k % 3);
    on_tick(box, this, [this, k](bool on) {
      wish([k, on](build::Judgement& j) { j.locked[static_cast<std::size_t>(k)] = on; },
           QString(on ? "Lock %1 of the seat" : "Free %1 of the seat")
               .arg(locks_[static_cast<std::size_t>(k)]->text()));
    });
  }
  column->addLayout(grid);
  column->addSpacing(4);
  column->addWidget(heading_label("More room for"));
  auto* favour_row = new QHBoxLayout;
  favour_row->setSpacing(4);
  favoured_->setAccessibleName("Surface that is to have more room");
  favoured_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  favoured_->setMinimumContentsLength(3);
  favour_->set_compact();
  favour_->set_label_width(theme().ipx(20));
  favour_row->addWidget(favoured_, 3);
  favour_row->addWidget(favour_, 4);
  column->addLayout(favour_row);
  central_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  central_->setMinimumContentsLength(6);
  central_->setAccessibleName("Bore kept central in its boss");
  column->addWidget(central_);
}

void JudgePanel::connect_wishes() {
  connect(favoured_, &QComboBox::activated, this, [this] { show_state(state_, nullptr); });
  connect(favour_, &LengthField::committed, this, [this](double mm) {
    const auto id = favoured_->currentData().toLongLong();
    if (id == 0) return;
    wish([id, mm](build::Judgement& j) { j.set_favour(id, mm); },
         "More room for " + favoured_->currentText());
  });
  connect(central_, &QComboBox::activated, this, [this] {
    const auto id = central_->currentData().toLongLong();
    wish([id](build::Judgement& j) { j.central_bore = id; },
         id ? "Keep " + central_->currentText() : QString("Keep no bore central"));
  });
}

void JudgePanel::make_others() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  column->addSpacing(4);
  column->addWidget(hairline());
  column->addWidget(heading_label("In balance"));
  column->addWidget(balance_);
  column->addSpacing(4);
  column->addWidget(hairline());
  column->addWidget(heading_label("Beside it"));
  table_->setHorizontalHeaderLabels({"Seat", "Least room"});
  table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  table_->horizontalHeader()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
  table_->horizontalHeaderItem(0)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  table_->horizontalHeaderItem(1)->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
  table_->verticalHeader()->hide();
  table_->verticalHeader()->setDefaultSectionSize(theme().ipx(23));
  table_->setShowGrid(false);
  table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setSelectionMode(QAbstractItemView::SingleSelection);
  table_->setTabKeyNavigation(false);
  table_->setAccessibleName("Other seats");
  make_copyable(table_);
  table_->setToolTip("F1 shows where the figure of the chosen row comes from");
  auto* why = new QShortcut(QKeySequence("F1"), table_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(why, &QShortcut::activated, this, &JudgePanel::ask_why);
  table_->setMinimumHeight(theme().ipx(24 * 6 + 6));
  column->addWidget(table_, 1);
  column->addWidget(costs_);
  column->addWidget(take_);
}

void JudgePanel::connect_others() {
  connect(table_, &QTableWidget::currentCellChanged, this, [this] { fill(); });
  connect(take_, &QPushButton::clicked, this, [this] {
    const int row = table_->currentRow();
    if (row >= 0 && row < static_cast<int>(others_.size()))
      emit take(others_[static_cast<std::size_t>(row)].pose, others_[static_cast<std::size_t>(row)].name);
  });
}

void JudgePanel::show_others(std::vector<OtherSeat> others) {
  const int row = table_->currentRow();
  others_ = std::move(others);
  table_->setRowCount(static_cast<int>(others_.size()));
  for (int k = 0; k < table_->rowCount(); ++k) {
    const auto& other = others_[static_cast<std::size_t>(k)];
    auto* name = new QTableWidgetItem(other.name);
    name->setToolTip(other.how);
    auto* least = new QTableWidgetItem(figure(other.margins.least, document_.unit(), true));
    least->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
    if (other.margins.least < 0) least->setForeground(theme().gone);
    table_->setItem(k, 0, name);
    table_->setItem(k, 1, least);
  }
  table_->setCurrentCell(std::clamp(row, 0, std::max(0, table_->rowCount() - 1)), 0);
  fill();
}

void JudgePanel::ask_why() {
  const int row = table_->currentRow();
  if (row < 0 || row >= static_cast<int>(others_.size())) return;
  const auto& groups = others_[static_cast<std::size_t>(row)].margins.groups;
  const auto least = std::min_element(groups.begin(), groups.end(),
                                      [](const auto& a, const auto& b) { return a.margin < b.margin; });
  if (least != groups.end() && least->touches > 0)
    show_why(table_, casting::explain_margin(state_.input.seat, *least), document_.unit());
}

void JudgePanel::wish(const std::function<void(build::Judgement&)>& change, const QString& label) {
  const auto& b = document_.build();
  build::Judgement judgement;
  if (const auto now = b.judgement_of(state_.piece)) judgement = now->second;
  judgement.piece = state_.piece;
  change(judgement);
  if (state_.piece != 0) document_.apply(build::set_judgement(b, judgement, label.toStdString()));
}

void JudgePanel::show_state(const PieceState& state, const casting::SeatResult* answer) {
  state_ = state;
  const auto& b = document_.build();
  build::Judgement judgement;
  if (const auto now = b.judgement_of(state.piece)) judgement = now->second;
  for (std::size_t k = 0; k < 6; ++k) show_tick(locks_[k], judgement.locked[k]);
  const auto now = favoured_->currentData();
  favoured_->clear();
  central_->clear();
  central_->addItem("no bore kept central", 0);
  for (std::size_t i = 0; i < state.input.surface_ids.size(); ++i) {
    const auto& s = state.input.seat.surfaces[i];
    const auto id = QVariant::fromValue<qlonglong>(state.input.surface_ids[i]);
    if (s.machined) favoured_->addItem(name_words(s.id), id);
    if (is_hole(s.shape.kind) && casting::around(state.input.seat, static_cast<int>(i)) >= 0)
      central_->addItem(name_words(s.id) + " central in its boss", id);
  }
  if (const int k = favoured_->findData(now); k >= 0) favoured_->setCurrentIndex(k);
  if (const int k = central_->findData(QVariant::fromValue<qlonglong>(judgement.central_bore)); k >= 0)
    central_->setCurrentIndex(k);
  const auto chosen = favoured_->currentData().toLongLong();
  favour_->set_value(judgement.favour_of(chosen), document_.unit(), chosen);

  QStringList lines;
  if (answer)
    for (const auto& line : casting::explain_balance(state.input.seat, *answer)) lines << qt(line) + ".";
  if (answer) {
    const double eased = document_.unit() == Unit::mm ? 0.2 : 0.01 * mm_per_inch;
    QStringList gains;
    for (const auto& easing : casting::easings(*answer, eased)) {
      if (easing.gain < 0.02 * eased) break;
      const auto name = name_words(state.input.seat.surfaces[static_cast<std::size_t>(easing.surface)].id);
      gains << QString("%1 %2").arg(easing.wall_to >= 0 ? "the wall at " + name : name,
                                    sheets::figure_with_unit(easing.gain, document_.unit()));
    }
    if (!gains.isEmpty())
      lines << QString("Easing by %1 gains everywhere: %2.")
                   .arg(sheets::figure_with_unit(eased, document_.unit()), gains.join(", "));
  }
  balance_->setText(lines.isEmpty()
                        ? QString("Seat it best first: then it is said here what holds it which way.")
                        : lines.join("\n"));
  if (isVisible()) compare();
}

/// Works out the seats to stand beside this one, aside from the window.
void JudgePanel::compare() {
  if (!state_.can_judge()) {
    table_->setRowCount(0);
    others_.clear();
    fill();
    return;
  }
  const auto wishes = seat_wishes(document_.build(), state_.piece, state_.input);
  comparing_.start([input = state_.input.seat, pose = state_.pose, wishes](const auto& should_stop) {
    std::vector<OtherSeat> list;
    list.push_back({"this one", "the seat as it is", pose, casting::margins_at(input, pose)});
    casting::SeatOptions options;
    options.start = pose;
    options.should_stop = should_stop;
    casting::SeatInput even = input;
    for (auto& s : even.surfaces) s.favour = 0;
    if (const auto best = casting::seat(even, options); best.usable())
      list.push_back({"best, evened out", "the most room everywhere, no wishes", best.pose, best.margins});
    if (const auto wished = casting::wished_seat(input, wishes, options); wished.usable())
      list.push_back(
          {"best, as wished", "with what is not allowed and favoured above", wished.pose, wished.margins});
    for (const auto& hand : casting::hand_seats(even, pose, options.should_stop))
      if (hand.possible) list.push_back({name_words(hand.name), qt(hand.how), hand.pose, hand.margins});
    return list;
  });
}

void JudgePanel::fill() {
  const int row = table_->currentRow();
  const bool any = row >= 0 && row < static_cast<int>(others_.size());
  take_->setEnabled(any && row > 0);
  if (!any) {
    costs_->clear();
    return;
  }
  const auto& other = others_[static_cast<std::size_t>(row)];
  if (row == 0) {
    costs_->setText(other.how);
    return;
  }
  // What it costs and gains, surface by surface, against the seat shown.
  QStringList words;
  for (std::size_t g = 0; g < other.margins.groups.size() && g < state_.margins.groups.size(); ++g) {
    const auto& group = other.margins.groups[g];
    const double change = group.margin - state_.margins.groups[g].margin;
    if (group.touches > 0 && std::abs(change) >= 0.005)
      words << QString("%1 %2").arg(qt(casting::group_name(state_.input.seat, group)),
                                    figure(change, document_.unit(), true));
  }
  costs_->setText(other.how + (words.isEmpty() ? QString(": the same as this one")
                                               : ". Against this one: " + words.join(", ")));
}

} // namespace datrin::app
