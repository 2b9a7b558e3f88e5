#include "app/route/recovery_dialog.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "build/now.h"
#include "sheets/figures.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QVBoxLayout>
#include <algorithm>

namespace datrin::app {

using sheets::qt;

RecoveryDialog::RecoveryDialog(Document& document, const QString& heading, QWidget* parent)
    : QDialog(parent), document_(document),
      table_(plain_table("What can still be done", {"What", "Works", "Minutes", "Touches"}, 4)),
      words_(words_label()), take_(new QPushButton("Take it")) {
  setWindowTitle("After a slip");
  resize(std::min(theme().ipx(720), 1220), std::min(theme().ipx(420), 740)); // never more than a screen
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 16, 20, 16);
  column->setSpacing(8);
  column->addWidget(heading_label(heading));
  const int widths[] = {150, 80, 90};
  for (int c = 0; c < 3; ++c) table_->setColumnWidth(c, theme().ipx(widths[c]));
  table_->horizontalHeader()->setStretchLastSection(true);
  table_->horizontalHeaderItem(2)->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
  table_->horizontalHeaderItem(2)->setToolTip("Of more work; of scrap, the work that is lost");
  column->addWidget(table_, 1);
  column->addWidget(words_);
  auto* row = new QHBoxLayout;
  row->addStretch(1);
  auto* close = new QPushButton("Decide later");
  row->addWidget(close);
  row->addWidget(take_);
  for (auto* button : {close, take_}) button->setAutoDefault(false); // Enter is the field's own
  column->addLayout(row);
  connect(table_, &QTableWidget::currentCellChanged, this, [this] { show_chosen(); });
  connect(table_, &QTableWidget::itemActivated, this, [this] { take(); });
  connect(take_, &QPushButton::clicked, this, [this] { take(); });
  connect(close, &QPushButton::clicked, this, &QDialog::reject);
}

RecoveryDialog::RecoveryDialog(Document& document, std::vector<route::RecoveryWay> ways,
                               const QString& surface, QWidget* parent)
    : RecoveryDialog(document, filled("%1 is too deep: what can still be done", surface), parent) {
  show_ways(std::move(ways));
}

RecoveryDialog::RecoveryDialog(Document& document, route::Feature hole, build::Id piece, QWidget* parent)
    : RecoveryDialog(document, filled("%1: what can still be done", name_words(hole.name)), parent) {
  hole_ = std::move(hole);
  piece_ = piece;
  slip_ = choice_box("What happened", {"it lies out of its place", "a tap broke in it"});
  off_ = new LengthField("By");
  off_->set_label_width(theme().ipx(84));
  off_->set_rule(must_not_be_negative);
  off_->edit()->setAccessibleName("How far it lies out of its place");
  off_->set_value(0, document_.unit());
  auto* head = new QVBoxLayout;
  head->setSpacing(4);
  head->addWidget(labelled("What", slip_));
  head->addWidget(off_);
  static_cast<QVBoxLayout*>(layout())->insertLayout(1, head);
  connect(slip_, &QComboBox::activated, this, [this] { look(); });
  connect(off_, &LengthField::committed, this, [this] { look(); });
  look();
}

void RecoveryDialog::look() {
  route::HoleSlipInput slip;
  slip.piece = piece_;
  slip.slip = static_cast<route::HoleSlip>(std::max(0, slip_->currentIndex()));
  slip.off = slip.slip == route::HoleSlip::tap_broken ? 0 : off_->value();
  slip.at = build::utc_now();
  off_->setVisible(slip.slip == route::HoleSlip::out_of_place);
  show_ways(route::hole_recoveries(document_.build(), hole_, slip));
  if (ways_.empty()) words_->setText("Say how far its axis lies beside where it should.");
}

void RecoveryDialog::show_ways(std::vector<route::RecoveryWay> ways) {
  ways_ = std::move(ways);
  table_->setRowCount(static_cast<int>(ways_.size()));
  for (std::size_t k = 0; k < ways_.size(); ++k) {
    const auto& way = ways_[k];
    QStringList others;
    for (const auto& other : way.others) others << name_words(other);
    fill_row(table_, static_cast<int>(k),
             {route::recovery_name(way.way), way.works ? "\u2713" : "\u2717",
              way.minutes > 0 ? QString::number(way.minutes, 'f', 0) : QString("\u2013"), others.join("; ")});
    if (!way.works) table_->item(static_cast<int>(k), 1)->setForeground(theme().gone);
  }
  if (!ways_.empty()) table_->setCurrentCell(0, 0);
  show_chosen();
}

void RecoveryDialog::show_chosen() {
  const int row = table_->currentRow();
  const bool any = row >= 0 && row < static_cast<int>(ways_.size());
  words_->setText(any ? qt(ways_[static_cast<std::size_t>(row)].text) : QString());
  take_->setEnabled(any && ways_[static_cast<std::size_t>(row)].works);
}

void RecoveryDialog::take() {
  const int row = table_->currentRow();
  if (row < 0 || row >= static_cast<int>(ways_.size()) || !ways_[static_cast<std::size_t>(row)].works) return;
  if (document_.apply(ways_[static_cast<std::size_t>(row)].edit)) accept();
}

} // namespace datrin::app
