#include "app/overview/overview_page.h"

#include "app/theme.h"
#include "sheets/figures.h"

#include <QDateTime>
#include <QFileDialog>

#include <algorithm>
#include <set>

namespace datrin::app {

using sheets::qt;

namespace {

template <class W>
void clear(std::vector<W*>& widgets) {
  for (auto* w : widgets) {
    w->hide();
    w->deleteLater();
  }
  widgets.clear();
}

} // namespace

OverviewPage::OverviewPage(Document& document, TargetsState& targets)
    : Page(document, Step::overview), targets_(targets), map_(new MapView), words_(words_label()),
      left_out_(muted_label()), part_name_(heading_label("")), part_words_(muted_label()),
      card_(new NextButton) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 8, 8);
  column->addWidget(map_);
  map_->set_empty_text("The map of the build",
                       "Parts appear here, and lines between those that must fit each other. Add a "
                       "part on the left, then state what fits what under Joints.");
  auto* side = new QVBoxLayout(side_);
  side->setContentsMargins(12, 14, 12, 12);
  side->setSpacing(4);
  side->addWidget(words_);
  side->addWidget(hairline());
  side->addWidget(heading_label("Next to cut"));
  next_box_ = new QVBoxLayout;
  next_box_->setSpacing(0);
  side->addLayout(next_box_);
  side->addWidget(card_);
  card_->set_words("Print the card", "", "", "Ctrl+P");
  side->addWidget(hairline());
  side->addWidget(heading_label("Tightest"));
  tight_box_ = new QVBoxLayout;
  tight_box_->setSpacing(0);
  side->addLayout(tight_box_);
  side->addWidget(hairline());
  side->addWidget(part_name_);
  side->addWidget(part_words_);
  side->addWidget(left_out_);
  side->addStretch(1);
  connect(card_, &QPushButton::clicked, this, &OverviewPage::ask_card);
  connect(map_, &MapView::joint_opened, this, &OverviewPage::joint_wanted);
  connect(map_, &MapView::part_chosen, this, [this](qlonglong part) { document_.choose(part, 0); });
  connect(map_, &MapView::part_opened, this, [this](qlonglong part) {
    document_.choose(part, 0);
    emit go_to(Step::drawing);
  });
}

void OverviewPage::refresh() {
  const auto& list = targets_.to_cut();
  const auto parts = map_parts(list);
  map_->show_map(parts, map_joints(parts));
  map_->set_chosen(document_.part());
  show_part(list);
  show_next(list);
  show_tightest();
  words_->setText(verdict());
  QStringList left;
  for (const auto& l : targets_.now().left_out) left << qt(l);
  left_out_->setText(left.join("\n"));
  left_out_->setVisible(!left.isEmpty());
}

OverviewPage::Made OverviewPage::made_of(build::Id part) const {
  const auto& targets = targets_.now();
  Made out;
  for (std::size_t k = 0; k < targets.made.size(); ++k) {
    const auto* d = document_.build().find<build::Dimension>(targets.made[k].dimension);
    if (d == nullptr || (part != 0 && d->part != part)) continue;
    out.made += targets.input.dimensions[k].measured.has_value();
    ++out.all;
  }
  return out;
}

std::vector<MapPart> OverviewPage::map_parts(const std::vector<chains::NextNumber>& list) const {
  const auto& b = document_.build();
  const auto& targets = targets_.now();
  std::set<build::Id> next;
  for (std::size_t k = 0; k < list.size() && k < numbers_shown; ++k)
    if (const auto* d = b.find<build::Dimension>(list[k].made.dimension)) next.insert(d->part);
  std::map<build::Id, Made> counts;
  for (std::size_t k = 0; k < targets.made.size(); ++k)
    if (const auto* d = b.find<build::Dimension>(targets.made[k].dimension)) {
      auto& count = counts[d->part];
      count.made += targets.input.dimensions[k].measured.has_value();
      ++count.all;
    }
  std::vector<MapPart> parts;
  for (const auto& [id, part] : b.parts()) {
    MapPart p;
    p.part = id;
    p.name = name_words(part.name) +
             (part.quantity > 1 ? QString(" \u00D7\u202F%1").arg(part.quantity) : QString());
    const auto count = counts[id];
    p.done = count.all > 0 ? static_cast<double>(count.made) / count.all : 0;
    p.below = count.all == 0            ? QString("mates with nothing yet")
              : count.made == count.all ? QString("made")
                                        : filled("%1 of %2 sizes made", count.made, count.all);
    p.next = next.contains(id);
    parts.push_back(std::move(p));
  }
  return parts;
}

std::vector<MapJoint> OverviewPage::map_joints(const std::vector<MapPart>& parts) const {
  const auto& b = document_.build();
  const auto& targets = targets_.now();
  std::map<build::Id, int> place;
  for (const auto& p : parts) place.emplace(p.part, static_cast<int>(place.size()));
  std::vector<MapJoint> joints;
  for (const auto& [id, joint] : b.joints()) {
    const auto* hole = b.find<build::Dimension>(joint.hole);
    const auto* shaft = b.find<build::Dimension>(joint.shaft);
    if (hole == nullptr || shaft == nullptr || hole->part == shaft->part) continue;
    MapJoint j;
    j.joint = id;
    j.a = place[hole->part];
    j.b = place[shaft->part];
    j.name = name_words(joint.name);
    const int c = targets.tightest_of_joint(id);
    if (c >= 0 && targets.result.usable()) {
      j.known = true;
      j.room = targets.result.conditions[static_cast<std::size_t>(c)].room;
      j.limiting = targets.result.conditions[static_cast<std::size_t>(c)].limiting;
    }
    joints.push_back(std::move(j));
  }
  return joints;
}

void OverviewPage::show_next(const std::vector<chains::NextNumber>& list) {
  const auto& targets = targets_.now();
  clear(next_);
  for (std::size_t k = 0; k < list.size() && k < numbers_shown; ++k) {
    const auto& n = list[k];
    auto why = chains::target_sum(targets.input, targets.result, targets.index_of(n.made));
    auto* row = new FigureRow(QString::number(k + 1), qt(chains::made_name(document_.build(), n.made)),
                              n.make, document_.unit(), std::move(why));
    row->set_fine();
    row->setToolTip(row->toolTip() + "\n" + qt(n.why));
    next_box_->addWidget(row);
    next_.push_back(row);
  }
  card_->setEnabled(!list.empty());
}

void OverviewPage::show_tightest() {
  const auto& targets = targets_.now();
  const auto& conditions = targets.result.conditions;
  clear(rows_);
  std::vector<std::size_t> order(conditions.size());
  for (std::size_t c = 0; c < order.size(); ++c) order[c] = c;
  std::stable_sort(order.begin(), order.end(),
                   [&](auto x, auto y) { return conditions[x].room < conditions[y].room; });
  for (std::size_t k = 0; k < order.size() && k < 10; ++k) {
    const auto c = order[k];
    auto* row = new RoomRow;
    row->show_ratio(name_words(targets.input.conditions[c].id), conditions[c].room, conditions[c].limiting, 3,
                    chains::condition_sum(targets.input, targets.result, static_cast<int>(c)));
    const auto source = targets.sources[c];
    connect(row, &RoomRow::asked, this, [this, source] {
      if (source.joint != 0)
        emit joint_wanted(source.joint);
      else
        emit chain_wanted(source.chain);
    });
    tight_box_->addWidget(row);
    rows_.push_back(row);
  }
}

QString OverviewPage::verdict() const {
  const auto unit = document_.unit();
  const auto& targets = targets_.now();
  const auto [made, all] = made_of(0);
  if (all == 0) return "No joints yet: state under Joints what fits what.";
  QString words = filled("%1 of %2 sizes that mate are made. ", made, all);
  if (!targets.result.usable()) return words + qt(targets.result.message);
  const auto gone = std::count_if(targets.result.conditions.begin(), targets.result.conditions.end(),
                                  [](const auto& c) { return c.room < 0; });
  if (gone == 0)
    return words + (targets.function_first ? "All joints can be held, where the drawing gives way."
                                           : "Everything can still be held.");
  words += QString("%1 cannot be held as things stand.").arg(gone);
  const auto& conflicts = targets_.conflicts();
  if (conflicts.empty()) return words;
  words +=
      " To end it, at the least: " + qt(chains::conflict_words(targets.input, conflicts.front(), unit)) + ".";
  if (conflicts.size() > 1)
    words += filled(conflicts.size() == 2 ? " One more then stands." : " %1 more then stand.",
                    conflicts.size() - 1);
  return words;
}

/// Of the part chosen: what is made, what is to be made, and for what it waits.
void OverviewPage::show_part(const std::vector<chains::NextNumber>& list) {
  const auto& b = document_.build();
  const auto unit = document_.unit();
  const auto* part = b.find<build::Part>(document_.part());
  const auto& targets = targets_.now();
  QStringList lines;
  for (std::size_t k = 0; k < targets.made.size(); ++k) {
    const auto& made = targets.made[k];
    const auto* d = b.find<build::Dimension>(made.dimension);
    if (d == nullptr || d->part != document_.part()) continue;
    const auto& input = targets.input.dimensions[k];
    const auto* piece = b.find<build::Piece>(made.piece);
    const auto name = part->quantity > 1 && piece ? filled("%1, no. %2", name_words(d->name), piece->number)
                                                  : name_words(d->name);
    if (input.measured) {
      lines << QString("%1: made %2").arg(name, sheets::fit_with_unit(*input.measured, unit));
      continue;
    }
    const auto next = std::find_if(list.begin(), list.end(), [&](const auto& n) { return n.made == made; });
    if (next == list.end()) continue;
    QStringList open;
    for (const auto& mate : next->mates)
      if (!targets.size(mate)) open << name_words(chains::made_name(b, mate));
    lines << QString("%1: make %2%3")
                 .arg(name, sheets::fit_with_unit(next->make, unit),
                      open.isEmpty()
                          ? QString(", to suit")
                          : ", waits for " + open.mid(0, 2).join(" and ") +
                                (open.size() > 2 ? QString(" and %1 more").arg(open.size() - 2) : QString()));
  }
  part_name_->setText(part ? name_words(part->name) : QString());
  part_words_->setText(lines.isEmpty() ? QString("It mates with nothing yet.") : lines.join("\n"));
  part_name_->setVisible(part != nullptr);
  part_words_->setVisible(part != nullptr);
}

sheets::CardSheet OverviewPage::card() const {
  const auto& b = document_.build();
  sheets::CardSheet card;
  card.build = name_words(b.info().name);
  // Whoever wants the same bytes again says which time it is (reproducible-builds.org).
  const auto stated = qEnvironmentVariable("SOURCE_DATE_EPOCH").toLongLong();
  const auto now = stated > 0 ? QDateTime::fromSecsSinceEpoch(stated) : QDateTime::currentDateTime();
  card.made_at = now.toString("yyyy-MM-dd hh:mm");
  card.unit = document_.unit();
  for (const auto& n : targets_.to_cut()) {
    if (card.lines.size() == 12) break;
    card.lines.push_back({name_words(chains::made_name(b, n.made)), n.make, n.hold, qt(n.why)});
  }
  return card;
}

QString OverviewPage::save_card(const QString& path) const {
  if (const auto wrong = document_.is_own_file(path); !wrong.isEmpty()) return wrong;
  const auto sheet = card();
  if (sheet.lines.empty()) return "there is nothing to cut next: every size that mates is made, or none does";
  return sheets::write_card(path, sheet);
}

void OverviewPage::ask_card() {
  auto path =
      QFileDialog::getSaveFileName(this, "The card for the machine", "next-to-cut.pdf", "PDF (*.pdf)");
  if (path.isEmpty()) return;
  if (!path.endsWith(".pdf")) path += ".pdf";
  const auto wrong = save_card(path);
  emit say(wrong.isEmpty() ? "Written to " + path + "." : wrong);
}

} // namespace datrin::app
