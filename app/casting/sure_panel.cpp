#include "app/casting/sure_panel.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "sheets/figures.h"

#include <QHeaderView>
#include <QTimer>
#include <QVBoxLayout>

namespace datrin::app {

using casting::Standing;
using sheets::figure;
using sheets::qt;

SurePanel::SurePanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document),
      table_(plain_table("How sure the margins are", {"Surface", "Sure", "Half", "Standing"}, 1)),
      words_(words_label()), next_(words_label()), how_(muted_label()), progress_(new QProgressBar),
      button_(new QPushButton("Stop")) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(6);
  column->addWidget(heading_label("How sure"));
  column->addWidget(words_);
  progress_->setRange(0, 100);
  progress_->setTextVisible(false);
  progress_->setFixedHeight(theme().ipx(6));
  progress_->setAccessibleName("Progress");
  column->addWidget(progress_);
  table_->setFont(theme().small());
  table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  for (int c = 1; c < 4; ++c)
    table_->horizontalHeader()->setSectionResizeMode(c, QHeaderView::ResizeToContents);
  table_->setMinimumHeight(theme().ipx(24 * 7));
  column->addWidget(table_, 1);
  column->addWidget(hairline());
  column->addWidget(heading_label("Touch next"));
  column->addWidget(next_);
  column->addWidget(button_);
  how_->setText("Sure: in 95 of 100 simulated surfaces through these touches there is at least so much room, "
                "between the touches too. Half: in half of them.");
  column->addWidget(how_);
  connect(button_, &QPushButton::clicked, this, [this] {
    if (busy())
      working_.stop();
    else
      start();
  });
  auto* tick = new QTimer(this);
  tick->setInterval(80);
  connect(tick, &QTimer::timeout, this, [this] {
    if (busy()) progress_->setValue(working_.percent());
  });
  tick->start();
}

void SurePanel::take(Found found) {
  found_ = std::move(found);
  have_ = found_.certainty.usable();
  fill();
  emit ready();
}

SurePanel::Found SurePanel::failed(const QString& why) {
  Found found;
  found.certainty.status = casting::CertaintyStatus::refused;
  found.certainty.message = (why.endsWith('.') ? why.chopped(1) : why).toStdString();
  return found;
}

void SurePanel::show_state(const PieceState& state) {
  state_ = state;
  if (!isVisible()) return;
  start();
}

void SurePanel::start() {
  have_ = false;
  if (!state_.can_judge()) {
    found_ = {};
    fill();
    return;
  }
  std::vector<casting::SurfaceReach> reach;
  const auto scene = part_scene(document_.build(), state_.part);
  const auto surfaces = document_.build().surfaces_of(state_.part);
  for (const auto id : state_.input.surface_ids) {
    casting::SurfaceReach r;
    for (std::size_t k = 0; k < surfaces.size() && k < scene.surfaces.size(); ++k)
      if (surfaces[k].first == id) r = {scene.surfaces[k].width, scene.surfaces[k].height};
    reach.push_back(r);
  }
  asked_ = state_;
  casting::CertaintyOptions options;
  options.keep_draws = true;
  working_.start([input = state_.input.seat, pose = state_.pose, reach, options,
                  unit = document_.unit()](const Running& running) mutable {
    options.should_stop = running;
    options.progress = [running](double part) { running.tell(part); };
    Found found;
    found.certainty = casting::certainty(input, pose, reach, options);
    casting::NextTouchOptions advice;
    advice.unit = unit;
    found.next = casting::next_touches(casting::margins_at(input, pose), found.certainty, advice);
    for (auto& g : found.certainty.groups) g.draws = {}; // they are large, and done with
    return found;
  });
  fill();
}

void SurePanel::fill() {
  const auto unit = document_.unit();
  table_->setRowCount(0);
  progress_->setVisible(busy());
  button_->setText(busy() ? "Stop" : "Work it out again");
  button_->setEnabled(busy() || state_.can_judge());
  if (busy()) {
    words_->setText("Simulating the surface between the touches\u2026");
    next_->clear();
    return;
  }
  const auto& c = found_.certainty;
  if (!c.usable()) {
    words_->setText(c.status == casting::CertaintyStatus::not_run
                        ? QString("Touch every surface to be machined first.")
                        : qt(c.message) + ".");
    next_->clear();
    return;
  }
  words_->setText(filled("Least room %1 for sure, %2 as likely as not: it cleans up in %3 of 100. %4.",
                         figure(c.sure, unit, true), figure(c.middle, unit, true),
                         static_cast<int>(std::floor(100 * c.clean)),
                         c.standing == Standing::sure     ? "Sure"
                         : c.standing == Standing::likely ? "Likely"
                                                          : "Doubtful"));
  colour_label(words_, c.standing == Standing::doubtful ? theme().gone : theme().ink);
  for (const auto& g : c.groups) {
    if (!g.known) continue;
    const auto& group = asked_.margins.groups[static_cast<std::size_t>(g.group)];
    const auto name = name_words(asked_.input.seat.surfaces[static_cast<std::size_t>(group.surface)].id) +
                      (group.wall >= 0 ? " wall" : "");
    const int row = table_->rowCount();
    table_->insertRow(row);
    fill_row(
        table_, row,
        {name, figure(g.sure, unit, true), figure(g.middle, unit, true), casting::standing_name(g.standing)});
    for (int k = 0; k < 4; ++k)
      table_->item(row, k)->setToolTip(
          filled("%1 touches; rough %2, over lengths of about %3; at the touches themselves %4", g.touches,
                 figure(g.roughness, unit), figure(g.length, unit), figure(g.seen, unit, true)));
    if (g.standing == Standing::doubtful) table_->item(row, 3)->setForeground(theme().gone);
  }
  QStringList lines;
  char letter = 'A';
  for (const auto& t : found_.next.touches) {
    if (!found_.next.pays) break;
    lines << filled("%1  %2 at x %3, y %4, z %5 of the drawing", QChar(letter++),
                    name_words(asked_.input.seat.surfaces[static_cast<std::size_t>(t.surface)].id),
                    figure(t.at.x(), unit), figure(t.at.y(), unit), figure(t.at.z(), unit));
  }
  lines << qt(found_.next.message);
  next_->setText(lines.join("\n"));
}

std::vector<sheets::SceneSpot> SurePanel::advice_spots() const {
  std::vector<sheets::SceneSpot> spots;
  if (have_ && found_.next.pays)
    for (std::size_t k = 0; k < found_.next.touches.size(); ++k)
      spots.push_back({std::string(1, static_cast<char>('A' + k)), found_.next.touches[k].at});
  return spots;
}

} // namespace datrin::app
