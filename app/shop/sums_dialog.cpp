#include "app/shop/sums_dialog.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/marks/length_edit.h"
#include "app/theme.h"
#include "bench/sum_values.h"
#include "sheets/figures.h"

#include <QHBoxLayout>
#include <QHeaderView>

namespace datrin::app {

using bench::Quantity;
using sheets::qt;

SumsDialog::SumsDialog(Unit unit, const QString& part, QWidget* parent)
    : QDialog(parent), unit_(unit),
      search_(text_field("Look for a sum", "look for: drill, taper, square\u2026")), list_(new QListWidget),
      title_(new QLabel), what_for_(muted_label()), verdict_(words_label()), fields_box_(new QVBoxLayout),
      answers_(plain_table("Answers", {"Answer", "", "", "How"}, 1)),
      take_(new QPushButton("Take this answer")), keep_(new QPushButton("Keep as a dimension")),
      can_keep_(!part.isEmpty()) {
  setWindowTitle("Sums of the bench");
  resize(theme().ipx(960), theme().ipx(600));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(16, 14, 20, 16);
  row->setSpacing(18);
  auto* left = new QVBoxLayout;
  left->addWidget(search_);
  list_->setAccessibleName("Sums");
  left->addWidget(list_, 1);
  row->addLayout(left, 2);
  auto* right = new QVBoxLayout;
  right->setSpacing(8);
  title_->setFont(theme().title());
  right->addWidget(title_);
  right->addWidget(what_for_);
  fields_box_->setSpacing(5);
  right->addLayout(fields_box_);
  right->addWidget(hairline());
  answers_->horizontalHeaderItem(3)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  answers_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
  answers_->horizontalHeader()->setStretchLastSection(true);
  answers_->setColumnWidth(1, theme().ipx(84));
  answers_->setColumnWidth(2, theme().ipx(84));
  right->addWidget(answers_, 1);
  right->addWidget(verdict_);
  auto* below = new QHBoxLayout;
  below->addStretch(1);
  below->addWidget(keep_);
  below->addWidget(take_);
  right->addLayout(below);
  take_->setToolTip(
      "The chosen answer, into the field you came from; without one it is copied. Enter on it does "
      "the same");
  keep_->setToolTip(
      can_keep_
          ? filled("The chosen answer becomes a dimension of %1, with how it was reckoned as its reason",
                   part)
          : QString("Choose a part first: the answer becomes a dimension of it"));
  connect(keep_, &QPushButton::clicked, this, &SumsDialog::keep);
  connect(take_, &QPushButton::clicked, this, &SumsDialog::take);
  connect(answers_, &QTableWidget::cellActivated, this, [this] { take(); });
  row->addLayout(right, 3);
  connect(search_, &QLineEdit::textChanged, this, [this] { fill_list(); });
  connect(search_, &QLineEdit::returnPressed, this, [this] {
    if (!fields_.empty()) fields_.front()->setFocus();
  });
  connect(list_, &QListWidget::currentRowChanged, this, [this] { show_sum(); });
  fill_list();
}

std::map<std::pair<std::string, Unit>, std::vector<QString>>& SumsDialog::kept_values() {
  static std::map<std::pair<std::string, Unit>, std::vector<QString>> kept;
  return kept;
}

void SumsDialog::take() {
  const auto* item = answers_->currentRow() < 0 ? nullptr : answers_->item(answers_->currentRow(), 0);
  if (item == nullptr || !item->data(Qt::UserRole).isValid()) {
    verdict_->setText("Choose an answer that is a length.");
    return;
  }
  taken_ = item->data(Qt::UserRole).toDouble();
  accept();
}

void SumsDialog::keep() {
  const auto* sum = current();
  const auto* item = answers_->currentRow() < 0 ? nullptr : answers_->item(answers_->currentRow(), 0);
  if (sum == nullptr || item == nullptr || !item->data(Qt::UserRole).isValid()) {
    verdict_->setText("Choose an answer that is a length.");
    return;
  }
  QStringList typed;
  for (std::size_t k = 0; k < fields_.size() && k < sum->fields.size(); ++k)
    if (!fields_[k]->text().trimmed().isEmpty())
      typed << qt(sum->fields[k].name) + " " + fields_[k]->text().trimmed();
  emit keep_wanted(item->text(), item->data(Qt::UserRole).toDouble(),
                   qt(sum->title) + ": " + typed.join(", "));
}

const bench::Sum* SumsDialog::current() const {
  auto* item = list_->currentItem();
  return item ? bench::sum_called(item->data(Qt::UserRole).toString().toStdString()) : nullptr;
}

void SumsDialog::choose(const QString& id) {
  search_->clear();
  for (int k = 0; k < list_->count(); ++k)
    if (list_->item(k)->data(Qt::UserRole).toString() == id) list_->setCurrentRow(k);
}

void SumsDialog::fill_list() {
  const auto wanted = search_->text().trimmed();
  list_->clear();
  QString group;
  for (const auto& sum : bench::sums()) {
    if (!bench::is_called(sum, wanted.toStdString())) continue;
    if (qt(sum.group) != group) {
      group = qt(sum.group);
      auto* head = new QListWidgetItem(group.toUpper(), list_);
      head->setFlags(Qt::NoItemFlags);
      head->setFont(theme().small());
    }
    auto* item = new QListWidgetItem(qt(sum.title), list_);
    item->setData(Qt::UserRole, whole(sum.id));
    item->setToolTip(qt(sum.words));
  }
  for (int k = 0; k < list_->count(); ++k)
    if (list_->item(k)->flags() != Qt::NoItemFlags) {
      list_->setCurrentRow(k);
      return;
    }
  show_sum();
}

void SumsDialog::show_sum() {
  while (auto* item = fields_box_->takeAt(0)) {
    if (item->widget()) {
      item->widget()->hide();
      item->widget()->deleteLater();
    }
    delete item;
  }
  fields_.clear();
  understood_.clear();
  answers_->setRowCount(0);
  const auto* sum = current();
  if (sum == nullptr) {
    title_->setText("Nothing by that name");
    what_for_->setText("Look for another word: drill, ream, taper, offset, square.");
    verdict_->clear();
    return;
  }
  title_->setText(qt(sum->title));
  what_for_->setText(qt(sum->words));
  for (const auto& f : sum->fields) {
    const QString hint = !f.hint.empty()                  ? qt(f.hint)
                         : f.may_be_empty                 ? QString("may stay empty")
                         : f.quantity == Quantity::angle  ? QString("45, 4\u00B0 45', 1 in 12")
                         : f.quantity == Quantity::length ? QString("1 3/8, 35 mm, #30")
                                                          : QString();
    auto* row = new QWidget;
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    QWidget* field = nullptr;
    QLineEdit* edit = nullptr;
    if (f.quantity == Quantity::choice) {
      QStringList choices;
      for (const auto& choice : f.choices) choices << qt(choice);
      auto* box = choice_box(name_words(f.name), choices);
      box->setEditable(true);
      edit = box->lineEdit();
      if (!f.may_be_empty) { // asked: none is taken for the person
        box->setCurrentIndex(-1);
        edit->setPlaceholderText(choices.join(" or "));
      }
      field = box;
    } else {
      field = edit = f.quantity == Quantity::length ? new LengthEdit(name_words(f.name), hint)
                                                    : text_field(name_words(f.name), hint);
    }
    auto* understood = muted_label();
    understood->setAccessibleName("Understood, " + name_words(f.name));
    line->addWidget(labelled(name_words(f.name), field, 150), 3);
    // A list of readings or blocks wants the whole line; what is understood of one length has room beside it.
    line->addWidget(understood, f.quantity == Quantity::lengths ? 0 : 2);
    fields_.push_back(edit);
    understood_.push_back(understood);
    fields_box_->addWidget(row);
  }
  // What was typed for this sum before is still there.
  const auto kept = kept_values().find({sum->id, unit_});
  for (std::size_t k = 0; k < fields_.size(); ++k) {
    if (kept != kept_values().end() && k < kept->second.size()) fields_[k]->setText(kept->second[k]);
    if (const auto owned = owned_.find(sum->id);
        owned != owned_.end() && bench::key_of(sum->fields[k]) == "blocks" && fields_[k]->text().isEmpty())
      fields_[k]->setText(owned->second);
    connect(fields_[k], &QLineEdit::textChanged, this, [this] { reckon(); });
  }
  answers_->setHorizontalHeaderLabels(
      {"Answer", qt(unit_name(unit_)), qt(unit_name(sheets::other(unit_))), "How"});
  reckon();
}

void SumsDialog::reckon() {
  const auto* sum = current();
  if (sum == nullptr) return;
  std::vector<bench::SumValue> values;
  QString wrong;
  bool empty = true;
  auto& kept = kept_values()[{sum->id, unit_}];
  kept.clear();
  for (std::size_t k = 0; k < fields_.size(); ++k) {
    const auto& f = sum->fields[k];
    kept.push_back(fields_[k]->text());
    auto typed = fields_[k]->text().toStdString();
    const bool grams = f.quantity == Quantity::number && f.name.ends_with(", g");
    if (grams && read_masses_) typed = read_masses_(typed);
    auto read = bench::read_value(f, typed, entry_options(unit_));
    empty = empty && (!read.value.given || f.quantity == Quantity::choice);
    if (!read.ok() && wrong.isEmpty()) wrong = filled("%1: %2", name_words(f.name), qt(read.wrong));
    QString understood;
    if (read.ok() && read.value.given && f.quantity == Quantity::length)
      understood = qt(length_text_both(read.value.value, unit_, {.decimals_mm = 3, .decimals_inch = 4}));
    else if (read.ok() && read.value.given && grams && typed != fields_[k]->text().toStdString())
      understood = filled("%1\u202Fg", qt(number_text(read.value.value, 1)));
    else if (read.ok() && read.value.given && f.quantity == Quantity::angle)
      understood = qt(angle_text(read.value.value));
    understood_[k]->setText(understood);
    values.push_back(std::move(read.value));
  }
  answers_->setRowCount(0);
  take_->setEnabled(false);
  keep_->setEnabled(false);
  if (empty) {
    verdict_->setText("Type what you have; the answer stands here at once, in both units.");
    colour_label(verdict_, theme().muted);
    return;
  }
  const auto a = wrong.isEmpty() ? bench::answer(*sum, values, unit_)
                                 : bench::SumAnswer{false, wrong.toStdString(), {}, {}};
  if (!a.ok) {
    verdict_->setText(qt(a.message) + ".");
    colour_label(verdict_, wrong.isEmpty() ? theme().muted : theme().gone);
    return;
  }
  for (const auto& line : a.lines) {
    const int row = answers_->rowCount();
    answers_->insertRow(row);
    QString first, second;
    const LengthTextOptions figures{.decimals_mm = 3, .decimals_inch = 4};
    if (line.quantity == Quantity::length) {
      first = qt(length_text(line.value, unit_, figures));
      second = qt(length_text(line.value, sheets::other(unit_), figures));
    } else if (line.quantity == Quantity::angle) {
      first = qt(angle_text(line.value));
    } else {
      first = qt(number_text(line.value, line.quantity == Quantity::count ? 0 : 2));
    }
    fill_row(answers_, row, {qt(line.label), first, second, qt(line.how)});
    answers_->item(row, 3)->setForeground(theme().muted);
    if (line.quantity == Quantity::length) answers_->item(row, 0)->setData(Qt::UserRole, line.value);
  }
  answers_->setCurrentCell(0, 0);
  take_->setEnabled(true);
  keep_->setEnabled(can_keep_);
  verdict_->setText(qt(a.words));
  colour_label(verdict_, theme().ink);
}

} // namespace datrin::app
