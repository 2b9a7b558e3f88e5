#include "app/joints/pairs_panel.h"

#include "app/marks/form.h"
#include "app/marks/length_field.h"
#include "app/shell/column.h"
#include "app/theme.h"
#include "build/edits.h"
#include "fits/form.h"
#include "fits/pairing.h"
#include "sheets/figures.h"

#include <QHeaderView>

namespace datrin::app {

using sheets::fine_figure;
using sheets::fit_figure;
using sheets::qt;

PairsPanel::PairsPanel(Document& document, TargetsState& targets, QWidget* parent)
    : QWidget(parent), document_(document), targets_(targets),
      table_(plain_table("Pairs of pieces", {"Hole", "Shaft", "Clear", "Room"}, 2)),
      places_(plain_table("Readings at depths and directions", {"Deep", "Turned", "Size"}, 0)),
      goal_(choice_box("What the pairing is best for", {"best over all pairs", "the worst pair best"})),
      side_(choice_box("Readings of", {"hole", "shaft"})), pair_(new QPushButton("Pair them")),
      add_(new QPushButton("Add")), depth_(text_field("Depth", "deep")),
      direction_(text_field("Direction in degrees", "turned \u00B0")),
      size_(text_field("Size read there", "size")), words_(muted_label()), form_(muted_label()) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(4);
  column->addWidget(heading_label("Which with which"));
  for (auto* t : {table_, places_}) {
    t->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    t->setMinimumHeight(theme().ipx(24 * 4 + 8));
  }
  column->addWidget(table_);
  column->addWidget(goal_);
  column->addWidget(pair_);
  column->addWidget(words_);
  column->addWidget(hairline());
  column->addWidget(heading_label("Several readings"));
  column->addWidget(side_);
  column->addWidget(places_);
  auto* row = new QHBoxLayout;
  row->setSpacing(4);
  for (auto* edit : {depth_, direction_, size_}) row->addWidget(edit, 1);
  column->addLayout(row);
  column->addWidget(add_);
  column->addWidget(form_);
  column->addStretch(1);
  connect(pair_, &QPushButton::clicked, this, &PairsPanel::pair_up);
  connect(add_, &QPushButton::clicked, this, &PairsPanel::add_place);
  connect(size_, &QLineEdit::returnPressed, this, &PairsPanel::add_place);
  connect(side_, &QComboBox::activated, this, [this] { show_form(); });
  connect(table_, &QTableWidget::cellClicked, this, [this](int r, int) {
    if (r >= 0 && r < static_cast<int>(conditions_.size()))
      emit pair_chosen(conditions_[static_cast<std::size_t>(r)]);
  });
}

void PairsPanel::show_state(const JointState& state) {
  state_ = state;
  setEnabled(state.id != 0);
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
  table_->setRowCount(static_cast<int>(conditions_.size()));
  int measured = 0;
  for (std::size_t k = 0; k < conditions_.size(); ++k) {
    const auto c = static_cast<std::size_t>(conditions_[k]);
    const auto& source = targets.sources[c];
    const auto& room = targets.result.conditions[c];
    fill_row(table_, static_cast<int>(k),
             {piece_name(source.hole_piece), piece_name(source.shaft_piece),
              fine_figure(room.expected - state_.major, unit), qt(number_text(room.room, 1, true))});
    if (room.room < 0) table_->item(static_cast<int>(k), 3)->setForeground(theme().gone);
  }
  const auto count_measured = [&](build::Id dimension) {
    const auto* d = b.find<build::Dimension>(dimension);
    int n = 0;
    if (d != nullptr)
      for (const auto& [id, piece] : b.pieces_of(d->part)) n += b.measurement_of(id, dimension) ? 1 : 0;
    return n;
  };
  measured = std::min(count_measured(state_.joint.hole), count_measured(state_.joint.shaft));
  pair_->setEnabled(measured >= 1 && state_.joint.shaft != 0);
  words_->setText(pair_->isEnabled()
                      ? QString()
                      : QString("Once holes and shafts of several pieces are read, they are paired here so "
                                "that each clearance comes nearest to the middle."));
}

void PairsPanel::pair_up() {
  const auto& b = document_.build();
  const auto* hole = b.find<build::Dimension>(state_.joint.hole);
  const auto* shaft = b.find<build::Dimension>(state_.joint.shaft);
  if (hole == nullptr || shaft == nullptr) return;
  fits::PairingInput in;
  std::vector<build::Id> holes, shafts;
  for (const auto& [id, piece] : b.pieces_of(hole->part))
    if (const auto m = b.measurement_of(id, state_.joint.hole)) {
      in.holes.push_back(m->second.value);
      holes.push_back(id);
    }
  for (const auto& [id, piece] : b.pieces_of(shaft->part))
    if (const auto m = b.measurement_of(id, state_.joint.shaft)) {
      in.shafts.push_back(m->second.value);
      shafts.push_back(id);
    }
  in.least = state_.joint.least;
  in.most = state_.joint.most;
  in.target = (in.least + in.most) / 2;
  const auto result = fits::pair_up(in, goal_->currentIndex() == 0 ? fits::PairingGoal::all_pairs
                                                                   : fits::PairingGoal::worst_pair);
  if (!result.ok) {
    words_->setText(qt(result.message));
    return;
  }
  auto changed = state_.joint;
  changed.pairs.clear();
  for (const auto& pair : result.pairs)
    changed.pairs.emplace_back(holes[static_cast<std::size_t>(pair.hole)],
                               shafts[static_cast<std::size_t>(pair.shaft)]);
  document_.apply(build::replace(b, state_.id, changed, "Pair the pieces of " + state_.joint.name));
  QString words = QString("The worst is %1 %2 from the middle.")
                      .arg(fine_figure(result.worst, document_.unit()), sheets::fine_unit(document_.unit()));
  for (const auto& left : result.leftovers) words += "\nLeft over: " + qt(left) + ".";
  words_->setText(words);
}

void PairsPanel::show_form() {
  const auto& b = document_.build();
  const auto made = side_->currentIndex() == 0 ? state_.hole : state_.shaft;
  const auto m = made.piece != 0 ? chains::reading(b, made) : std::nullopt;
  add_->setEnabled(made.piece != 0 && b.find<build::Dimension>(made.dimension) != nullptr);
  fits::FormInput in;
  in.is_hole = side_->currentIndex() == 0;
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
  form_->setText(
      form.ok
          ? qt(form.verdict)
          : QString("Read it at several depths and directions: its taper, ovality and high spots are told, "
                    "and the joint uses the size that matters to its mate."));
  colour_label(form_, theme().muted);
}

void PairsPanel::add_place() {
  const auto& b = document_.build();
  const auto made = side_->currentIndex() == 0 ? state_.hole : state_.shaft;
  if (made.piece == 0) return;
  const auto fail = [this](QLineEdit* edit, const QString& why) {
    form_->setText(edit->accessibleName() + ": " + why);
    colour_label(form_, theme().gone);
    edit->setFocus();
  };
  const auto options = entry_options(document_.unit());
  const auto depth =
      parse_length(depth_->text().trimmed().isEmpty() ? "0 mm" : depth_->text().toStdString(), options);
  if (!depth.ok()) return fail(depth_, qt(depth.message));
  const auto turned = parse_angle(
      direction_->text().trimmed().isEmpty() ? "0" : direction_->text().toStdString(), options.decimal_comma);
  if (!turned.ok) return fail(direction_, qt(turned.message));
  const auto size = parse_length(size_->text().toStdString(), options);
  if (!size.ok() || !(size.mm > 0))
    return fail(size_, size.ok() ? QString("must be above 0") : qt(size.message));
  const auto old = b.measurement_of(made.piece, made.dimension);
  build::Measurement m;
  if (old) m = old->second;
  m.piece = made.piece;
  m.dimension = made.dimension;
  m.at = now_text();
  m.mate = m.mate_piece = 0;
  m.read.clear();
  m.places.push_back({depth.mm, turned.radian, size.mm});
  fits::FormInput in;
  in.is_hole = side_->currentIndex() == 0;
  in.uncertainty = m.uncertainty;
  for (const auto& p : m.places) in.readings.push_back({p.depth, p.direction, p.value});
  m.value = fits::form(in).matters;
  const auto name = chains::made_name(b, made);
  size_->clear();
  document_.apply(old ? build::replace(b, old->first, m, "Read " + name + " at another place")
                      : build::add(b, m, "Measure " + name));
  size_->setFocus();
}

} // namespace datrin::app
