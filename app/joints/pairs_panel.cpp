#include "app/joints/pairs_panel.h"

#include "app/joints/make_panel.h"
#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/marks/why.h"
#include "app/theme.h"
#include "build/now.h"
#include "fits/form.h"
#include "readings/measure.h"
#include "readings/pair_pieces.h"
#include "readings/size_now.h"
#include "sheets/figures.h"

#include <QHeaderView>
#include <QShortcut>

namespace datrin::app {

using sheets::fine_figure;
using sheets::fit_figure;
using sheets::qt;

PairsPanel::PairsPanel(Document& document, TargetsState& targets, QWidget* parent)
    : QWidget(parent), document_(document), targets_(targets),
      table_(plain_table("Pairs of pieces", {"Hole", "Shaft", "Clear", "Room"}, 2)),
      places_(plain_table("Readings at depths and directions", {"Deep", "Turned", "Size"}, 0)),
      choice_(new QWidget), hole_(choice_box("Piece with the hole")),
      shaft_(choice_box("Piece with the shaft")),
      goal_(choice_box("What the pairing is best for", {"best over all pairs", "the worst pair best"})),
      side_(choice_box("Readings of", {"hole", "shaft"})), instrument_(choice_box("Instrument")),
      together_(new QPushButton("Go together")), only_(new QPushButton("Only these")),
      pair_(new QPushButton("Pair them")), add_(new QPushButton("Add")),
      depth_(new LengthEdit("Depth", "deep")),
      direction_(text_field("Direction in degrees", "turned \u00B0")),
      size_(new LengthEdit("Size read there", "size")), words_(muted_label()), form_(new MessageLine) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(4);
  column->addWidget(heading_label("Which with which"));
  for (auto* t : {table_, places_}) {
    t->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    t->setFixedHeight(theme().ipx(24 * 4 + 10));
  }
  for (const int c : {2, 3}) // with its unit
    table_->horizontalHeader()->setSectionResizeMode(c, QHeaderView::ResizeToContents);
  column->addWidget(table_);
  auto* two = new QGridLayout(choice_);
  two->setContentsMargins(0, 0, 0, 0);
  two->setSpacing(4);
  two->addWidget(hole_, 0, 0);
  two->addWidget(shaft_, 0, 1);
  two->addWidget(together_, 1, 0);
  two->addWidget(only_, 1, 1);
  together_->setToolTip("These two pieces go with each other");
  column->addWidget(choice_);
  column->addWidget(goal_);
  column->addWidget(pair_);
  column->addWidget(words_);
  column->addWidget(hairline());
  column->addWidget(heading_label("Several readings"));
  column->addWidget(side_);
  column->addWidget(instrument_);
  column->addWidget(places_);
  auto* row = new QHBoxLayout;
  row->setSpacing(4);
  for (QLineEdit* edit : std::initializer_list<QLineEdit*>{depth_, direction_, size_})
    row->addWidget(edit, 1);
  column->addLayout(row);
  column->addWidget(add_);
  column->addWidget(form_);
  column->addStretch(1);
  depth_->set_when_empty(0);
  connect(pair_, &QPushButton::clicked, this, &PairsPanel::pair_up);
  const auto chosen = [this] {
    return build::PiecePair(hole_->currentData().toLongLong(), shaft_->currentData().toLongLong());
  };
  connect(together_, &QPushButton::clicked, this, [this, chosen] {
    keep(chains::pair_them(document_.build(), state_.joint, chosen()), "Which with which");
  });
  connect(only_, &QPushButton::clicked, this, [this, chosen] {
    if (state_.joint.pairs.size() == 1) {
      auto all = state_.joint;
      all.pairs.clear();
      return keep({all, {}}, "All pieces in order");
    }
    keep(chains::pair_only(document_.build(), state_.joint, chosen()), "Only this pair");
  });
  connect(add_, &QPushButton::clicked, this, &PairsPanel::add_place);
  connect(size_, &QLineEdit::returnPressed, this, &PairsPanel::add_place);
  connect(side_, &QComboBox::activated, this, [this] { show_form(); });
  auto* ask = new QShortcut(QKeySequence(Qt::Key_F1), table_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(ask, &QShortcut::activated, this, [this] {
    const int r = table_->currentRow();
    if (r < 0 || r >= static_cast<int>(conditions_.size())) return;
    const auto state =
        joint_state(document_.build(), targets_.now(), state_.id, conditions_[static_cast<std::size_t>(r)]);
    show_why(table_, clearance_sum(document_.build(), targets_.now(), state, 20), document_.unit());
  });
  connect(table_, &QTableWidget::cellClicked, this, [this](int r, int) {
    if (r >= 0 && r < static_cast<int>(conditions_.size()))
      emit pair_chosen(conditions_[static_cast<std::size_t>(r)]);
  });
}

void PairsPanel::show_state(const JointState& state) {
  state_ = state;
  setEnabled(state.id != 0);
  fill_instruments(instrument_, document_.build());
  show_pairs();
  show_form();
}

void PairsPanel::show_pairs() {
  const auto& b = document_.build();
  const auto& targets = targets_.now();
  const auto unit = document_.unit();
  conditions_.clear();
  if (targets.result.usable())
    for (std::size_t c = 0; c < targets.sources.size(); ++c)
      if (targets.sources[c].joint == state_.id && state_.id != 0) conditions_.push_back(static_cast<int>(c));
  const auto piece_name = [&](build::Id id) {
    const auto* piece = b.find<build::Piece>(id);
    return piece ? QString("no. %1").arg(piece->number) : qt(state_.joint.thread);
  };
  table_->setHorizontalHeaderLabels({"Hole", "Shaft", "Clear, " + sheets::fine_unit(unit), "Room"});
  table_->setRowCount(static_cast<int>(conditions_.size()));
  for (std::size_t k = 0; k < conditions_.size(); ++k) {
    const auto c = static_cast<std::size_t>(conditions_[k]);
    const auto& source = targets.sources[c];
    const auto& room = targets.result.conditions[c];
    fill_row(table_, static_cast<int>(k),
             {piece_name(source.hole_piece), piece_name(source.shaft_piece),
              fine_figure(room.expected - state_.major, unit), qt(number_text(room.room, 1, true))});
    if (room.room < 0) table_->item(static_cast<int>(k), 3)->setForeground(theme().gone);
  }
  show_choice();
  const auto count_measured = [&](build::Id dimension) {
    const auto* d = b.find<build::Dimension>(dimension);
    int n = 0;
    if (d != nullptr)
      for (const auto& [id, piece] : b.pieces_of(d->part))
        n += readings::size_now(b, {dimension, id}).settled() ? 1 : 0;
    return n;
  };
  // One shaft through two bushes meets both: only where there are several of each is there anything to
  // choose.
  const auto pieces = [&](build::Id dimension) {
    const auto* d = b.find<build::Dimension>(dimension);
    return d != nullptr ? b.pieces_of(d->part).size() : 0;
  };
  const bool several = pieces(state_.joint.hole) > 1 && pieces(state_.joint.shaft) > 1;
  pair_->setEnabled(several && count_measured(state_.joint.hole) > 0 &&
                    count_measured(state_.joint.shaft) > 0);
  words_->setText(pair_->isEnabled()
                      ? QString()
                      : QString("Once holes and shafts of several pieces are read, they are paired here so "
                                "that each clearance comes nearest to the middle."));
}

/// Two pieces to be put together by hand; only where there is a choice.
void PairsPanel::show_choice() {
  const auto& b = document_.build();
  bool choice = false;
  for (const auto& [box, dimension, side, now] :
       {std::tuple{hole_, state_.joint.hole, QString("hole"), state_.hole.piece},
        std::tuple{shaft_, state_.joint.shaft, QString("shaft"), state_.shaft.piece}}) {
    box->clear();
    const auto* d = b.find<build::Dimension>(dimension);
    if (d == nullptr) continue;
    const auto pieces = b.pieces_of(d->part);
    choice = choice || pieces.size() > 1;
    for (const auto& [id, piece] : pieces)
      box->addItem(pieces.size() > 1 ? filled("%1 no. %2", side, piece.number) : side,
                   QVariant::fromValue<qlonglong>(id));
    choose_data(box, now);
  }
  for (const auto& [k, side, piece] : {std::tuple{0, QString("hole"), state_.hole.piece},
                                       std::tuple{1, QString("shaft"), state_.shaft.piece}}) {
    const auto* p = b.find<build::Piece>(piece);
    side_->setItemText(k, p && b.pieces_of(p->part).size() > 1 ? filled("%1 no. %2", side, p->number) : side);
  }
  choice_->setVisible(choice && state_.joint.shaft != 0);
  const bool one = state_.joint.pairs.size() == 1;
  only_->setText(one ? "All again" : "Only these");
  only_->setToolTip(
      one ? "Every piece in order, as at first"
          : "The joint is of these two alone: of two boxes on one axle the left is one joint, the "
            "right another");
  together_->setEnabled(!one);
}

void PairsPanel::keep(const chains::Paired& paired, const char* what) {
  if (!paired.ok()) return words_->setText(sheets::sentence(paired.wrong));
  document_.apply(build::change(document_.build(), state_.id, paired.joint, what));
}

void PairsPanel::pair_up() {
  const auto paired = readings::pair_pieces(document_.build(), state_.joint,
                                            goal_->currentIndex() == 0 ? fits::PairingGoal::all_pairs
                                                                       : fits::PairingGoal::worst_pair);
  if (!paired.wrong.empty()) {
    words_->setText(qt(paired.wrong));
    return;
  }
  document_.apply(build::change(document_.build(), state_.id, paired.joint, "Pairs"));
  QString words = QString("The worst is %1 %2 from the middle.")
                      .arg(fine_figure(paired.worst, document_.unit()), sheets::fine_unit(document_.unit()));
  for (const auto& left : paired.left)
    words += filled("\n%1 no. %2 is left over: make a %3 of %4.", left.hole ? "Hole" : "Shaft", left.number,
                    left.hole ? "shaft" : "hole", fit_figure(left.mate, document_.unit()));
  words_->setText(words);
}

void PairsPanel::show_form() {
  const auto& b = document_.build();
  const auto made = side_->currentIndex() == 0 ? state_.hole : state_.shaft;
  const auto m = readings::size_now(b, made).measurement;
  add_->setEnabled(made.piece != 0 && b.find<build::Dimension>(made.dimension) != nullptr);
  fits::FormInput in;
  in.is_hole = side_->currentIndex() == 0;
  in.unit = document_.unit();
  if (m) in.uncertainty = m->uncertainty;
  places_->setRowCount(m ? static_cast<int>(m->places.size()) : 0);
  if (m)
    for (std::size_t k = 0; k < m->places.size(); ++k) {
      const auto& p = m->places[k];
      in.readings.push_back({p.depth, p.direction, p.value});
      fill_row(places_, static_cast<int>(k),
               {sheets::figure(p.depth, document_.unit()),
                qt(number_text(degrees(p.direction), 0)) + "\u00B0", fit_figure(p.value, document_.unit())});
    }
  const auto form = fits::form(in);
  form_->tell(
      form.ok
          ? qt(form.verdict)
          : QString("Read it at several depths and directions: its taper, ovality and high spots are told, "
                    "and the joint uses the size that matters to its mate."));
}

void PairsPanel::add_place() {
  const auto& b = document_.build();
  const auto made = side_->currentIndex() == 0 ? state_.hole : state_.shaft;
  if (made.piece == 0) return;
  const auto fail = [this](QLineEdit* edit, const QString& why) {
    form_->refuse(edit->accessibleName() + ": " + why);
    edit->setFocus();
  };
  const auto depth = depth_->take(document_.unit(), *form_);
  if (!depth) return;
  const auto turned = parse_angle(
      direction_->text().trimmed().isEmpty() ? "0" : direction_->text().toStdString(), angle_options());
  if (!turned.ok) return fail(direction_, qt(turned.message));
  readings::MeasureInput in;
  in.made = made;
  const auto typed = size_->text().toStdString();
  in.text = typed;
  in.instrument = instrument_->currentData().toLongLong();
  in.place = readings::Place{*depth, turned.radian};
  in.at = build::utc_now();
  const auto read = readings::measure(b, in, entry_options(document_.unit()));
  if (!read.ok) return fail(size_, qt(read.message));
  size_->clear();
  document_.apply(readings::keep_measurement(b, read.measurement));
  size_->setFocus();
}

} // namespace datrin::app
