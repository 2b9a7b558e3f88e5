#include "app/joints/fit_panel.h"

#include "app/marks/column.h"
#include "app/marks/dimension_box.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "build/now.h"
#include "sheets/figures.h"

#include <QHeaderView>

namespace datrin::app {

using sheets::fine_figure;
using sheets::fit_figure;
using sheets::qt;

FitPanel::FitPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), name_(text_field("Name of the joint")),
      thread_(text_field("Thread", "M6, 4BA")), code_(text_field("Fit by its code", "H7/f7, RC5")),
      purpose_(choice_box("What it is for", shown_words<build::JointPurpose>())), hole_(choice_box("Hole")),
      shaft_(choice_box("Shaft")), least_(new LengthField("Least")), most_(new LengthField("Most")),
      table_(plain_table("Proposed limits", {"By", "least", "most"}, 1)),
      take_(new QPushButton("Take these limits")), remove_(new QPushButton("Remove")), words_(muted_label()) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(4);
  auto* head = new QHBoxLayout;
  head->addWidget(heading_label("The joint"));
  head->addStretch(1);
  head->addWidget(remove_);
  column->addLayout(head);
  column->addWidget(labelled("Name", name_, 52));
  column->addWidget(labelled("For", purpose_, 52));
  column->addWidget(labelled("Hole", hole_, 52));
  column->addWidget(shaft_row_ = labelled("Shaft", shaft_, 52));
  column->addWidget(thread_row_ = labelled("Thread", thread_, 52));
  column->addWidget(hairline());
  column->addWidget(heading_label("Clearance wanted"));
  for (auto* field : {least_, most_}) {
    field->set_label_width(theme().ipx(52));
    field->edit()->setAccessibleName(field == least_ ? "Least clearance" : "Most clearance");
    column->addWidget(field);
  }
  column->addWidget(labelled("By code", code_, 52));
  column->addWidget(hairline());
  column->addWidget(heading_label("Proposed"));
  table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  for (int c = 1; c < 3; ++c)
    table_->horizontalHeader()->setSectionResizeMode(c, QHeaderView::ResizeToContents);
  table_->setMinimumHeight(theme().ipx(24 * 5 + 8));
  column->addWidget(table_);
  column->addWidget(words_);
  column->addWidget(take_);
  column->addStretch(1);

  connect_fields();
}

void FitPanel::connect_fields() {
  connect(name_, &QLineEdit::editingFinished, this, [this] {
    const auto text = name_->text().trimmed().toStdString();
    if (!name_->isModified() || text.empty() || text == state_.joint.name) return;
    auto changed = state_.joint;
    changed.name = text;
    keep({changed, {}}, "Name");
  });
  connect(thread_, &QLineEdit::editingFinished, this, [this] {
    if (!thread_->isModified()) return;
    keep(fits::with_thread(document_.build(), state_.joint, thread_->text().toStdString()), "Thread");
  });
  connect(purpose_, &QComboBox::activated, this, [this](int k) {
    keep(fits::with_purpose(document_.build(), state_.joint, static_cast<build::JointPurpose>(k)), "Purpose");
  });
  for (auto* box : {hole_, shaft_})
    connect(box, &QComboBox::activated, this, [this, box] {
      const auto dimension = box->currentData().toLongLong();
      if (box == hole_)
        keep(fits::with_hole(document_.build(), state_.joint, dimension), "Hole");
      else
        keep(fits::with_shaft(state_.joint, dimension), "Shaft");
    });
  for (auto* field : {least_, most_})
    connect(field, &LengthField::committed, this, [this, field](double mm) {
      const auto changed = fits::with_clearance(state_.joint, field == least_ ? mm : state_.joint.least,
                                                field == least_ ? state_.joint.most : mm);
      if (!changed.ok())
        field->refuse(qt(changed.wrong));
      else
        keep(changed, "Clearance wanted");
    });
  connect(code_, &QLineEdit::editingFinished, this, &FitPanel::keep_code);
  connect(table_, &QTableWidget::currentCellChanged, this, [this] { show_words(); });
  connect(table_, &QTableWidget::cellActivated, this, [this] { take(); });
  connect(take_, &QPushButton::clicked, this, &FitPanel::take);
  connect(remove_, &QPushButton::clicked, this,
          [this] { document_.apply(build::take_away(document_.build(), state_.id)); });
}

void FitPanel::fail(const QString& why) {
  words_->setText(why);
  colour_label(words_, theme().gone);
}

void FitPanel::keep(const fits::ChangedJoint& changed, const QString& what) {
  if (!changed.ok()) return fail(qt(changed.wrong));
  document_.apply(
      fits::keep_joint(document_.build(), state_.id, changed, what.toStdString(), build::utc_now()));
}

void FitPanel::keep_code() {
  if (!code_->isModified() || code_->text().trimmed().isEmpty()) return;
  const auto changed = fits::with_fit(document_.build(), state_.joint, code_->text().toStdString());
  if (changed.ok()) code_->setText({}); // and forgets the keys: undo is the window's again
  keep(changed, "Fit");
}

void FitPanel::show_state(const JointState& state) {
  if (state.id != state_.id) code_->setText({}); // what was refused there means nothing here
  state_ = state;
  const auto& b = document_.build();
  const bool there = state.id != 0;
  setEnabled(there);
  fill_dimensions(hole_, b, "not chosen");
  fill_dimensions(shaft_, b, "not chosen");
  show_from_start(name_, whole(state.joint.name));
  show_from_start(thread_, whole(state.joint.thread));
  thread_->setModified(false);
  purpose_->setCurrentIndex(static_cast<int>(state.joint.purpose));
  choose_data(hole_, state.joint.hole);
  choose_data(shaft_, state.joint.shaft);
  const bool thread = fits::is_over_a_thread(state.joint);
  shaft_row_->setVisible(!fits::is_over_a_thread(state.joint.purpose)); // a shoulder may be one after all
  thread_row_->setVisible(thread);
  least_->set_value(state.joint.least, document_.unit(), state.id);
  most_->set_value(state.joint.most, document_.unit(), state.id);
  show_proposals();
}

void FitPanel::show_proposals() {
  shown_.clear();
  const auto& b = document_.build();
  const auto* hole = b.find<build::Dimension>(state_.joint.hole);
  QString why;
  if (hole != nullptr) {
    fits::ProposeInput in{state_.joint.purpose, hole->nominal, state_.joint.thread, {}, document_.unit(), 0};
    for (const auto& [id, tool] : b.tools()) in.shop.push_back(tool);
    const auto result = fits::propose(in);
    shown_ = result.proposals;
    why = qt(result.message);
  }
  const QSignalBlocker quiet(table_);
  table_->setRowCount(static_cast<int>(shown_.size()));
  const auto unit = document_.unit();
  table_->setHorizontalHeaderLabels({"By", "least", "most, " + sheets::fine_unit(unit)});
  int chosen = 0;
  for (std::size_t k = 0; k < shown_.size(); ++k) {
    fill_row(
        table_, static_cast<int>(k),
        {name_words(shown_[k].name), fine_figure(shown_[k].least, unit), fine_figure(shown_[k].most, unit)});
    if (shown_[k].basis == state_.joint.basis) chosen = static_cast<int>(k);
  }
  if (!shown_.empty()) table_->setCurrentCell(chosen, 0);
  take_->setEnabled(!shown_.empty());
  if (shown_.empty())
    fail(why);
  else
    show_words();
}

void FitPanel::show_words() {
  const int k = table_->currentRow();
  if (k < 0 || k >= static_cast<int>(shown_.size())) return;
  const auto& p = shown_[static_cast<std::size_t>(k)];
  // The build's unit first, the other beside it.
  const auto unit = document_.unit();
  const auto fine = [](double mm, Unit in) { return qt(fine_text(mm, in)); };
  QString words = QString("%1 to %2, %3 to %4. ")
                      .arg(fine(p.least, unit), fine(p.most, unit), fine(p.least, sheets::other(unit)),
                           fine(p.most, sheets::other(unit)));
  if (p.most < 0)
    words += "All of it interference. ";
  else if (p.least < 0)
    words += "May bind or may slip. ";
  if (p.has_limits)
    words += QString("Hole %1 / %2, shaft %3 / %4 %5. ")
                 .arg(fine_figure(p.hole.upper, unit, true), fine_figure(p.hole.lower, unit, true),
                      fine_figure(p.shaft.upper, unit, true), fine_figure(p.shaft.lower, unit, true),
                      sheets::fine_unit(unit));
  if (!p.reach.empty()) words += "In the shop: " + qt(p.reach) + ".";
  words_->setText(words);
  colour_label(words_, theme().muted);
}

void FitPanel::take() {
  const int k = table_->currentRow();
  if (k < 0 || k >= static_cast<int>(shown_.size())) return;
  keep(fits::with_proposal(document_.build(), state_.joint, shown_[static_cast<std::size_t>(k)]), "Fit");
}

} // namespace datrin::app
