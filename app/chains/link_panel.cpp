#include "app/chains/link_panel.h"

#include "app/marks/column.h"
#include "app/marks/dimension_box.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "build/edit_mating.h"
#include "chains/build_targets.h"
#include "chains/chain.h"
#include "geometry/direction_text.h"
#include "sheets/figures.h"

#include <QHeaderView>
#include <QShortcut>

namespace datrin::app {

using chains::Flank;
using sheets::fit_figure;
using sheets::qt;

LinkPanel::LinkPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document),
      table_(plain_table("Links of the chain", {"\u00D7", "Dimension"}, 2)),
      dimension_(choice_box("Dimension to add")), part_(choice_box("Part to walk through")),
      from_(choice_box("From surface")), to_(choice_box("To surface")),
      way_(choice_box("Which way the gap is counted",
                      {"along x", "along y", "along z", "against x", "against y", "against z"})),
      coefficient_(text_field("Coefficient", "1, \u22121, 2, 1/cos 30")), add_(new QPushButton("Add")),
      remove_(new QPushButton("Remove")), step_(new QPushButton("Walk on")),
      walk_(new QPushButton("Take the walk")), again_(new QPushButton("Begin again")), words_(muted_label()),
      steps_text_(muted_label()) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(4);
  auto* head = new QHBoxLayout;
  head->addWidget(heading_label("Links"));
  head->addStretch(1);
  head->addWidget(remove_);
  column->addLayout(head);
  table_->setColumnWidth(0, theme().ipx(52));
  table_->horizontalHeader()->setStretchLastSection(true);
  table_->setMinimumHeight(theme().ipx(24 * 6 + 8));
  column->addWidget(table_, 1);
  column->addWidget(dimension_);
  auto* row = new QHBoxLayout;
  row->addWidget(coefficient_, 1);
  row->addWidget(add_);
  column->addLayout(row);
  column->addWidget(hairline());
  column->addWidget(heading_label("Walk on the drawings"));
  column->addWidget(labelled("Gap", way_, 52));
  column->addWidget(labelled("Part", part_, 52));
  column->addWidget(labelled("From", from_, 52));
  column->addWidget(labelled("To", to_, 52));
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(step_, 1);
  buttons->addWidget(again_, 1);
  column->addLayout(buttons);
  column->addWidget(steps_text_);
  column->addWidget(walk_);
  column->addWidget(words_);
  connect(add_, &QPushButton::clicked, this, &LinkPanel::add_link);
  connect(coefficient_, &QLineEdit::returnPressed, this, &LinkPanel::add_link);
  const auto drop = [this] {
    const auto* chain = document_.build().find<build::Chain>(chain_);
    const int at = table_->currentRow();
    if (chain == nullptr || at < 0 || at >= static_cast<int>(chain->terms.size())) return;
    document_.apply(build::remove_link(document_.build(), chain_, static_cast<std::size_t>(at)));
  };
  connect(remove_, &QPushButton::clicked, this, drop);
  auto* key = new QShortcut(QKeySequence::Delete, table_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(key, &QShortcut::activated, this, drop);
  connect(part_, &QComboBox::activated, this, [this] { fill_surfaces(); });
  connect(step_, &QPushButton::clicked, this, &LinkPanel::add_step);
  connect(again_, &QPushButton::clicked, this, [this] {
    steps_.steps.clear();
    show_steps();
  });
  connect(way_, &QComboBox::activated, this, [this] { show_steps(); });
  connect(walk_, &QPushButton::clicked, this, &LinkPanel::take_walk);
}

void LinkPanel::fail(const QString& why) {
  words_->setText(why);
  colour_label(words_, theme().gone);
}

void LinkPanel::choose_row(int row) {
  if (row >= 0 && row < table_->rowCount()) table_->setCurrentCell(row, 0);
}

void LinkPanel::show_chain(build::Id id) {
  const auto& b = document_.build();
  if (id != chain_) {
    steps_.steps.clear();
    words_->clear();
  }
  chain_ = id;
  const auto* chain = b.find<build::Chain>(id);
  setEnabled(chain != nullptr);
  fill_dimensions(dimension_, b, "dimension\u2026");
  {
    const QSignalBlocker quiet(part_);
    const auto kept = part_->currentData();
    part_->clear();
    for (const auto& [part_id, part] : b.parts())
      part_->addItem(name_words(part.name), static_cast<qlonglong>(part_id));
    part_->setCurrentIndex(std::max(0, part_->findData(kept)));
  }
  fill_surfaces();
  const int row = table_->currentRow();
  table_->setRowCount(0);
  if (chain != nullptr) {
    table_->setRowCount(static_cast<int>(chain->terms.size()));
    for (std::size_t k = 0; k < chain->terms.size(); ++k) {
      const auto& term = chain->terms[k];
      const auto* d = b.find<build::Dimension>(term.dimension);
      const auto pieces = b.pieces_of(d ? d->part : 0);
      const chains::Made made{term.dimension, term.piece != 0   ? term.piece
                                              : !pieces.empty() ? pieces.front().first
                                                                : 0};
      const bool whole = std::abs(term.coefficient - std::round(term.coefficient)) < 1e-9;
      fill_row(
          table_, static_cast<int>(k),
          {qt(number_text(term.coefficient, whole ? 0 : 3, true)), name_words(chains::made_name(b, made))});
      if (!term.why.empty()) table_->item(static_cast<int>(k), 0)->setToolTip(qt(term.why));
    }
    if (row >= 0 && row < table_->rowCount()) table_->setCurrentCell(row, 0);
  }
  show_steps();
}

void LinkPanel::fill_surfaces() {
  const auto& b = document_.build();
  const chains::WalkEnd was[] = {end_in(from_), end_in(to_)};
  const auto surfaces = b.surfaces_of(part_->currentData().toLongLong());
  ends_.clear();
  for (const auto& [id, s] : surfaces) ends_.push_back({id, Flank::none});
  // The flanks of what is round, on either side of the way.
  for (const auto& [id, s] : surfaces)
    if (s.round())
      for (const auto flank : {Flank::far, Flank::near}) ends_.push_back({id, flank});
  for (auto* box : {from_, to_}) {
    const QSignalBlocker quiet(box);
    const auto kept = was[box == from_ ? 0 : 1];
    box->clear();
    for (const auto& end : ends_) {
      const auto& s = *b.find<build::PartSurface>(end.surface);
      const auto words = end.flank == Flank::far    ? QString("%1, far side")
                         : end.flank == Flank::near ? QString("%1, near side")
                         : s.round()                ? QString("axis of %1")
                                                    : QString("%1");
      box->addItem(words.arg(name_words(s.name)));
    }
    const auto again = std::find(ends_.begin(), ends_.end(), kept);
    box->setCurrentIndex(again == ends_.end() ? 0 : static_cast<int>(again - ends_.begin()));
  }
}

chains::WalkEnd LinkPanel::end_in(const QComboBox* box) const {
  const int k = box->currentIndex();
  return k >= 0 && k < static_cast<int>(ends_.size()) ? ends_[static_cast<std::size_t>(k)]
                                                      : chains::WalkEnd{};
}

void LinkPanel::add_link() {
  const auto* chain = document_.build().find<build::Chain>(chain_);
  if (chain == nullptr) return;
  const auto id = dimension_->currentData().toLongLong();
  if (id == 0) return fail("Choose the dimension to add.");
  std::string why;
  const auto text = coefficient_->text().trimmed();
  const auto coefficient = chains::parse_coefficient(text.isEmpty() ? "1" : text.toStdString(), &why);
  if (!coefficient) return fail("Coefficient: " + qt(why) + ".");
  if (*coefficient == 0) return fail("A coefficient of 0 adds nothing.");
  words_->clear();
  coefficient_->clear();
  document_.apply(build::add_link(document_.build(), chain_, id, *coefficient, text.toStdString()));
}

void LinkPanel::add_step() {
  chains::WalkStep step;
  step.part = part_->currentData().toLongLong();
  step.from = end_in(from_);
  step.to = end_in(to_);
  if (step.from.surface == 0 || step.to.surface == 0)
    return fail("The part has no surfaces to walk between yet.");
  steps_.steps.push_back(step);
  show_steps();
}

void LinkPanel::show_steps() {
  static const Vec3 ways[] = {Vec3::UnitX(),  Vec3::UnitY(),  Vec3::UnitZ(),
                              -Vec3::UnitX(), -Vec3::UnitY(), -Vec3::UnitZ()};
  steps_.along = ways[std::clamp(way_->currentIndex(), 0, 5)];
  const auto& b = document_.build();
  QStringList lines;
  for (const auto& step : steps_.steps) {
    const auto* part = b.find<build::Part>(step.part);
    const auto* from = b.find<build::PartSurface>(step.from.surface);
    const auto* to = b.find<build::PartSurface>(step.to.surface);
    if (part && from && to)
      lines << QString("%1: %2 \u2192 %3")
                   .arg(name_words(part->name), name_words(from->name), name_words(to->name));
  }
  walk_->setEnabled(!steps_.steps.empty());
  again_->setEnabled(!steps_.steps.empty());
  if (!steps_.steps.empty()) {
    const auto result = chains::walk(b, steps_);
    if (result.ok) {
      lines << filled("Adds up to %1, %2 dimensions", fit_figure(result.nominal, document_.unit()),
                      result.terms.size());
      words_->clear();
    } else {
      fail(qt(result.message) + ".");
    }
    walk_->setEnabled(result.ok);
  }
  steps_text_->setText(lines.isEmpty()
                           ? QString("From feature to feature, part by part: signs come from the drawings.")
                           : lines.join("\n"));
}

void LinkPanel::take_walk() {
  const auto* chain = document_.build().find<build::Chain>(chain_);
  if (chain == nullptr) return;
  const auto result = chains::walk(document_.build(), steps_);
  if (!result.ok) return fail(qt(result.message) + ".");
  steps_.steps.clear();
  document_.apply(build::set_links(document_.build(), chain_, result.terms));
}

} // namespace datrin::app
