#include "app/joints/joint_dialog.h"

#include "app/marks/column.h"
#include "app/marks/dimension_box.h"
#include "app/marks/fields.h"
#include "app/marks/length_edit.h"
#include "app/theme.h"
#include "sheets/figures.h"

namespace datrin::app {

using sheets::qt;

JointDialog::JointDialog(Document& document, QWidget* parent)
    : QDialog(parent), document_(document), name_(text_field("Name of the joint", "big end")),
      hole_size_(text_field("Size of the hole", "10 H7, 10 +0.015/0")),
      shaft_size_(text_field("Size of the shaft", "10 f7")),
      thread_(text_field("Thread", "M6, 4BA, 5/16-18")),
      purpose_(choice_box("What it is for", shown_words<build::JointPurpose>())),
      hole_(choice_box("Hole, or the outer of the two")),
      shaft_(choice_box("Shaft, or the inner of the two")), state_(new QPushButton("State the joint")),
      message_(new MessageLine) {
  setWindowTitle("State a joint");
  resize(theme().ipx(520), theme().ipx(320));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(20, 16, 20, 16);
  column->setSpacing(8);
  column->addWidget(heading_label("What mates, and what for"));
  column->addWidget(labelled("For", purpose_));
  column->addWidget(labelled("Hole", hole_));
  column->addWidget(hole_size_row_ = labelled("", hole_size_));
  column->addWidget(shaft_row_ = labelled("Shaft", shaft_));
  column->addWidget(shaft_size_row_ = labelled("", shaft_size_));
  column->addWidget(thread_row_ = labelled("Thread", thread_));
  column->addWidget(labelled("Name", name_));
  column->addWidget(message_);
  column->addStretch(1);
  auto* row = new QHBoxLayout;
  row->addStretch(1);
  auto* cancel = new QPushButton("Cancel");
  row->addWidget(cancel);
  row->addWidget(state_);
  column->addLayout(row);
  state_->setDefault(true); // from a field; on Cancel, Enter leaves
  fill_dimensions(hole_, document_.build(), "typed size");
  fill_dimensions(shaft_, document_.build(), "typed size");
  message_->tell(
      "Point at two dimensions of the drawings, or type two sizes: they become parts of their own.");
  connect(cancel, &QPushButton::clicked, this, &QDialog::reject);
  connect(state_, &QPushButton::clicked, this, &JointDialog::keep);
  for (auto* box : {purpose_, hole_, shaft_})
    connect(box, &QComboBox::currentIndexChanged, this, [this] { show_rows(); });
  show_rows();
}

void JointDialog::show_rows() {
  const auto purpose = static_cast<build::JointPurpose>(purpose_->currentIndex());
  const bool thread = fits::is_over_a_thread(purpose);
  shaft_row_->setVisible(!thread);
  shaft_size_row_->setVisible(!thread && shaft_->currentData().toLongLong() == 0);
  hole_size_row_->setVisible(hole_->currentData().toLongLong() == 0);
  thread_row_->setVisible(thread);
}

void JointDialog::keep() {
  fits::JointInput in;
  in.purpose = static_cast<build::JointPurpose>(purpose_->currentIndex());
  in.name = name_->text().toStdString();
  in.thread = thread_->text().toStdString();
  in.hole = {hole_->currentData().toLongLong(), hole_size_->text().toStdString()};
  in.shaft = {shaft_->currentData().toLongLong(), shaft_size_->text().toStdString()};
  LimitsOptions options;
  options.length = entry_options(document_.unit());
  const auto stated = fits::state_joint(document_.build(), in, options);
  if (!stated.added.ok()) return fail(stated.wrong_at, qt(stated.added.wrong));
  if (!document_.apply(stated.added.edit)) return fail(fits::JointField::name, "It could not be kept.");
  joint_ = stated.added.id;
  accept();
}

void JointDialog::fail(fits::JointField at, const QString& why) {
  message_->refuse(why);
  const auto side = [](QComboBox* box, QLineEdit* size) -> QWidget* {
    return box->currentData().toLongLong() != 0 ? static_cast<QWidget*>(box) : size;
  };
  QWidget* const field = at == fits::JointField::thread  ? thread_
                         : at == fits::JointField::hole  ? side(hole_, hole_size_)
                         : at == fits::JointField::shaft ? side(shaft_, shaft_size_)
                                                         : name_;
  field->setFocus();
}

} // namespace datrin::app
