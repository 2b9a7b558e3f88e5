#include "app/route/datum_panel.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "route/datum_input.h"
#include "sheets/figures.h"

#include <QHeaderView>
#include <QVBoxLayout>

#include <cmath>

namespace datrin::app {

using sheets::figure;
using sheets::qt;

DatumPanel::DatumPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document),
      table_(plain_table("Choices of first datums",
                         {"", "Stands on (3)", "Against (2)", "Against (1)", "Worst repeats to", "which is"},
                         6)),
      words_(words_label()), spreads_(muted_label()), rest_(words_label()),
      take_(new QPushButton("Take as first datums")) {
  const int widths[] = {34, 130, 130, 130, 120};
  for (int c = 0; c < 5; ++c) table_->setColumnWidth(c, theme().ipx(widths[c]));
  table_->horizontalHeader()->setStretchLastSection(true);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(6);
  column->addWidget(heading_label("First datums"));
  column->addWidget(words_);
  column->addWidget(heading_label("Repeats to, 95 %"));
  column->addWidget(spreads_);
  column->addWidget(take_);
  column->addWidget(hairline());
  column->addWidget(heading_label("How it will rest"));
  column->addWidget(rest_);
  column->addStretch(1);
  column->addWidget(
      muted_label("Use an as-cast face once, to make the first machined ones; then locate from those."));
  connect(table_, &QTableWidget::currentCellChanged, this, [this] {
    show_choice();
    emit chosen();
  });
  connect(take_, &QPushButton::clicked, this, [this] {
    const auto* choice = current();
    if (choice == nullptr) return;
    std::vector<long> ids;
    for (const int k : choice->surfaces)
      if (k >= 0) ids.push_back(static_cast<long>(ids_[static_cast<std::size_t>(k)]));
    emit take(ids);
  });
}

const casting::DatumChoice* DatumPanel::current() const {
  const int row = table_->currentRow();
  return row >= 0 && row < static_cast<int>(result_.choices.size())
             ? &result_.choices[static_cast<std::size_t>(row)]
             : nullptr;
}

void DatumPanel::show_state(const PieceState& state) {
  state_ = state;
  ids_.clear();
  for (const auto& [id, s] : document_.build().surfaces_of(state.part)) ids_.push_back(id);
  input_ = route::datum_input(document_.build(), state.part, state.piece, state.input, state.pose);
  const auto old =
      result_.choices.empty() || current() == nullptr ? std::array<int, 3>{-1, -1, -1} : current()->surfaces;
  result_ = casting::first_datums(input_);
  const auto name = [&](int k) {
    return k < 0 ? QString("by eye") : name_words(input_.surfaces[static_cast<std::size_t>(k)].name);
  };
  {
    const QSignalBlocker quiet(table_);
    table_->setRowCount(static_cast<int>(result_.choices.size()));
    int row = 0;
    for (std::size_t k = 0; k < result_.choices.size(); ++k) {
      const auto& c = result_.choices[k];
      const bool gripped = c.holding == casting::Holding::gripped;
      const bool tempting = c.surfaces == result_.tempting.surfaces;
      fill_row(table_, static_cast<int>(k),
               {QString::number(k + 1),
                name(c.surfaces[0]) + (gripped    ? " (gripped, 4)"
                                       : tempting ? " (tempting)"
                                                  : ""),
                name(c.surfaces[1]) + (gripped ? " (1)" : ""), name(c.surfaces[2]),
                figure(c.worst, document_.unit()), name(c.worst_surface)});
      if (c.surfaces == old) row = static_cast<int>(k);
    }
    if (!result_.choices.empty()) table_->setCurrentCell(row, 0);
  }
  take_->setEnabled(!result_.choices.empty());
  QStringList words{qt(result_.usable() ? result_.text : result_.message)};
  for (const auto& w : result_.warnings) words << qt(w);
  words_->setText(words.join(" "));
  show_choice();
}

void DatumPanel::show_choice() {
  const auto* choice = current();
  QStringList lines;
  if (choice)
    for (const auto& s : choice->spreads)
      lines << QString("%1 \u00B1%2")
                   .arg(name_words(input_.surfaces[static_cast<std::size_t>(s.surface)].name),
                        sheets::figure_with_unit(s.spread, document_.unit()));
  spreads_->setText(lines.join("\n"));
  show_rest();
}

void DatumPanel::show_rest() {
  const auto* choice = current();
  if (choice == nullptr) {
    rest_->setText(
        "It is said here what the casting will really stand on, once there is a face to stand it on.");
    return;
  }
  if (choice->holding == casting::Holding::gripped) {
    rest_->setText(
        QString("Gripped on %1: run out what is to be true before it is cut, with a clock or a scriber; "
                "jaws on a raw skin want soft packing, and a stop behind the work. Keep chuck key, "
                "sleeves and fingers clear of what turns; the machine's manual stands above this.")
            .arg(name_words(input_.surfaces[static_cast<std::size_t>(choice->surfaces[0])].name)));
    return;
  }
  const auto id = ids_[static_cast<std::size_t>(choice->surfaces[0])];
  const int s = state_.input.surface_index(id);
  casting::RestingInput in;
  std::vector<int> touch_numbers;
  Vec3 middle = Vec3::Zero();
  int count = 0;
  for (std::size_t i = 0; i < state_.input.seat.points.size(); ++i) {
    const auto& p = state_.input.seat.points[i];
    middle += state_.pose.apply(p.xyz);
    ++count;
    if (p.surface != s || in.points.size() >= 4000) continue;
    in.points.push_back(state_.pose.apply(p.xyz));
    touch_numbers.push_back(static_cast<int>(i));
  }
  const auto& shape = input_.surfaces[static_cast<std::size_t>(choice->surfaces[0])];
  if (in.points.size() < 3) {
    rest_->setText(QString("Touch %1 near its corners: then it is said here on which three points it really "
                           "stands, and whether it rocks.")
                       .arg(name_words(shape.name)));
    return;
  }
  in.down = shape.shape.direction;
  // The weight is taken to be over the middle of the part's box.
  const auto box = sheets::bounds(part_scene(document_.build(), state_.part));
  in.centroid = (box.low + box.high) / 2;
  const auto r = casting::rest_on(in, {.unit = document_.unit()});
  if (!r.usable()) {
    rest_->setText(qt(r.message));
    return;
  }
  const auto number = [&](int k) { return QString::number(touch_numbers[static_cast<std::size_t>(k)] + 1); };
  QStringList lines;
  lines << QString("On %1 it stands on touches %2, %3 and %4, %5\u00B0 from the drawing's way.")
               .arg(name_words(shape.name), number(r.stands_on[0]), number(r.stands_on[1]),
                    number(r.stands_on[2]), qt(number_text(degrees(r.tilt), 2)));
  for (const auto& rock : r.rocks)
    if (rock.lands >= 0 && rock.gap >= 0.05)
      lines << QString("Pressed beyond %1\u2013%2 it tips until touch %3 lands: %4.")
                   .arg(number(rock.edge[0]), number(rock.edge[1]), number(rock.lands),
                        sheets::figure_with_unit(rock.gap, document_.unit()));
  if (r.falls || r.rock < 0.05) {
    lines << qt(r.cure);
  } else {
    const auto worst = std::max_element(r.rocks.begin(), r.rocks.end(),
                                        [](const auto& x, const auto& y) { return x.gap < y.gap; });
    lines << QString("Soft packing %1 thick under touch %2, or a jack brought up there until it just bites, "
                     "cures it; clamp over the three points and over the packing only.")
                 .arg(sheets::figure_with_unit(worst->gap, document_.unit()), number(worst->lands));
  }
  rest_->setText(lines.join("\n"));
}

std::vector<sheets::SceneSpot> DatumPanel::target_spots() const {
  std::vector<sheets::SceneSpot> spots;
  if (const auto* choice = current())
    for (std::size_t k = 0; k < 6; ++k)
      if (choice->targets[k].surface >= 0) spots.push_back({std::to_string(k + 1), choice->targets[k].at});
  return spots;
}

} // namespace datrin::app
