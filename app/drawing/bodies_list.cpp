#include "app/drawing/bodies_list.h"

#include "app/drawing/bodies_words.h"
#include "app/marks/fields.h"
#include "app/theme.h"

#include <QHeaderView>
#include <QMenu>
#include <QPushButton>
#include <QSignalBlocker>

namespace datrin::app {

using solid::BodyShape;

BodiesList::BodiesList(QWidget* parent)
    : QWidget(parent),
      table_(plain_table("Bodies of the part", {"Body", "What it is", "Sizes", "Where it is put"}, 4)) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(8);
  make_bar(column);
  const int widths[] = {120, 150, 250};
  for (int c = 0; c < 3; ++c) table_->setColumnWidth(c, theme().ipx(widths[c]));
  table_->horizontalHeader()->setStretchLastSection(true);
  column->addWidget(table_, 1);
  connect(table_, &QTableWidget::currentCellChanged, this, [this](int row) {
    if (row >= 0 && row < static_cast<int>(rows_.size())) emit chosen(rows_[static_cast<std::size_t>(row)]);
  });
  connect(table_, &QTableWidget::cellActivated, this, &BodiesList::entered);
}

void BodiesList::make_bar(QVBoxLayout* column) {
  auto* bar = new QHBoxLayout;
  bar->setSpacing(6);
  const auto button = [&](const QString& words, const QString& key, auto&& act) {
    auto* b = new QPushButton(words);
    b->setToolTip(key);
    b->setShortcut(QKeySequence(key));
    connect(b, &QPushButton::clicked, this, act);
    bar->addWidget(b);
  };
  button("Block", "Ctrl+Alt+B", [this] { emit wanted(BodyShape::block, false); });
  button("Round", "Ctrl+Alt+R", [this] { emit wanted(BodyShape::round, false); });
  button("Hole", "Ctrl+Alt+H", [this] { emit wanted(BodyShape::hole, true); });
  const bool room = !theme().large(); // else it stands in the menu
  if (room) button("Slot", "Ctrl+Alt+S", [this] { emit wanted(BodyShape::slot, true); });
  auto* more = new QPushButton("More");
  more->setAccessibleName("More bodies and features");
  auto* menu = new QMenu("Bodies and features", more);
  menu->setAccessibleName(menu->title());
  if (!room) {
    auto* slot = menu->addAction("Slot", QKeySequence("Ctrl+Alt+S"), this,
                                 [this] { emit wanted(BodyShape::slot, true); });
    addAction(slot);
  }
  struct Entry {
    const char* words;
    BodyShape shape;
    bool cut;
  };
  static constexpr Entry entries[] = {{"Cone", BodyShape::cone, false},
                                      {"Tube", BodyShape::tube, false},
                                      {"Hexagon or other prism", BodyShape::prism, false},
                                      {"Turned by a profile", BodyShape::turned, false},
                                      {"Rib", BodyShape::rib, false},
                                      {"Spokes", BodyShape::spokes, false},
                                      {"Pocket", BodyShape::pocket, true},
                                      {"Groove round a boss", BodyShape::groove, true},
                                      {"Taper hole", BodyShape::cone, true},
                                      {"Step or keyway (block taken away)", BodyShape::block, true},
                                      {"Recess (round taken away)", BodyShape::round, true},
                                      {"Chamfer of the edges of a face", BodyShape::chamfer, false},
                                      {"Fillet of the edges of a face", BodyShape::fillet, false},
                                      {"Scribed line", BodyShape::scribed, false},
                                      {"Centre pop", BodyShape::pop, false}};
  for (const auto& entry : entries)
    connect(menu->addAction(entry.words), &QAction::triggered, this,
            [this, entry] { emit wanted(entry.shape, entry.cut); });
  menu->addSeparator();
  const auto entry = [&](const char* words, const char* key, int by) {
    auto* action = menu->addAction(words, QKeySequence(key), this, [this, by] { emit move_wanted(by); });
    action->setShortcutContext(Qt::WidgetWithChildrenShortcut);
    addAction(action);
  };
  entry("Earlier in the order", "Ctrl+Alt+Up", -1);
  entry("Later in the order", "Ctrl+Alt+Down", 1);
  more->setMenu(menu);
  bar->addWidget(more);
  button("Remove", "Ctrl+Alt+Backspace", [this] { emit remove_wanted(); });
  bar->addStretch(1);
  column->addLayout(bar);
}

void BodiesList::choose(build::Id body) {
  for (std::size_t k = 0; k < rows_.size(); ++k)
    if (rows_[k] == body) table_->selectRow(static_cast<int>(k));
}

void BodiesList::show_bodies(const Document& document, build::Id chosen) {
  const QSignalBlocker quiet(table_);
  rows_.clear();
  table_->setRowCount(0);
  const auto solid = document.solid_of(document.part());
  for (const auto& [id, body] : document.build().bodies_of(document.part())) {
    const int row = table_->rowCount();
    table_->insertRow(row);
    fill_row(table_, row,
             {name_words(body.name), shape_words(body), sizes_text(body, document.unit()),
              place_text(document.build(), body)});
    if (solid)
      for (const auto& problem : solid->problems)
        if (problem.body == id) table_->item(row, 0)->setForeground(theme().gone);
    rows_.push_back(id);
    if (id == chosen) table_->selectRow(row);
  }
}

} // namespace datrin::app
