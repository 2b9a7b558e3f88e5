#include "app/joints/joint_dialog.h"

#include "app/drawing/dimension_panel.h"
#include "app/marks/form.h"
#include "app/marks/length_field.h"
#include "app/shell/column.h"
#include "app/theme.h"
#include "build/edits.h"
#include "fits/purpose.h"
#include "quantity/limits.h"
#include "sheets/figures.h"
#include "threads/threads.h"

namespace datrin::app {

using build::Dimension;
using build::DimensionKind;
using sheets::qt;

QStringList purpose_names() {
  QStringList names;
  for (int k = 0; k < fits::purpose_count; ++k)
    names << qt(fits::purpose_words(static_cast<build::JointPurpose>(k)));
  return names;
}

void fill_dimensions(QComboBox* box, const build::Build& b, const QString& first) {
  const QSignalBlocker quiet(box);
  const auto kept = box->currentData();
  box->clear();
  box->addItem(first, 0);
  for (const auto& [part_id, part] : b.parts())
    for (const auto& [id, d] : b.dimensions_of(part_id))
      if (d.kind != DimensionKind::angle)
        box->addItem(QString("%1, %2  %3").arg(qt(part.name), qt(d.name), dimension_text(d, b.info().unit)),
                     static_cast<qlonglong>(id));
  box->setCurrentIndex(std::max(0, box->findData(kept)));
}

JointDialog::JointDialog(Document& document, QWidget* parent)
    : QDialog(parent), document_(document), name_(text_field("Name of the joint", "big end")),
      hole_size_(text_field("Size of the hole", "10 H7, 10 +0.015/0")),
      shaft_size_(text_field("Size of the shaft", "10 f7")),
      thread_(text_field("Thread", "M6, 4BA, 5/16-18")),
      purpose_(choice_box("What it is for", purpose_names())),
      hole_(choice_box("Hole, or the outer of the two")),
      shaft_(choice_box("Shaft, or the inner of the two")), state_(new QPushButton("State the joint")),
      message_(muted_label()) {
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
  auto* cancel = new QPushButton("Leave it");
  row->addWidget(cancel);
  row->addWidget(state_);
  column->addLayout(row);
  state_->setDefault(true);
  cancel->setAutoDefault(false);
  fill_dimensions(hole_, document_.build(), "typed size");
  fill_dimensions(shaft_, document_.build(), "typed size");
  message_->setText(
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
  const auto& b = document_.build();
  const auto fail = [this](QWidget* field, const QString& why) {
    message_->setText(why);
    colour_label(message_, theme().gone);
    field->setFocus();
  };
  const auto purpose = static_cast<build::JointPurpose>(purpose_->currentIndex());
  const bool over_thread = fits::is_over_a_thread(purpose);
  if (over_thread) {
    const auto found = threads::find(thread_->text().toStdString());
    if (found.thread == nullptr) return fail(thread_, qt(found.message));
  }
  build::Joint joint;
  joint.purpose = purpose;
  joint.name = name_->text().trimmed().toStdString();
  if (joint.name.empty()) joint.name = fits::purpose_words(purpose);
  joint.thread = over_thread ? thread_->text().trimmed().toStdString() : std::string();
  std::vector<build::Record> records;
  build::Id next = b.next_id();
  double nominal = 0;
  LimitsOptions options;
  options.length = entry_options(document_.unit());
  struct Side {
    QComboBox* box;
    QLineEdit* size;
    const char* name;
    build::Id build::Joint::*into;
  };
  std::vector<Side> sides{{hole_, hole_size_, "hole", &build::Joint::hole}};
  if (!over_thread) sides.push_back({shaft_, shaft_size_, "shaft", &build::Joint::shaft});
  double part_order = build::next_order(b.parts());
  for (const auto& side : sides) {
    const auto chosen = side.box->currentData().toLongLong();
    if (chosen != 0) {
      joint.*side.into = chosen;
      if (nominal == 0) nominal = b.find<Dimension>(chosen)->nominal;
      continue;
    }
    const auto read = parse_limits(side.size->text().toStdString(), options);
    if (!read.ok) return fail(side.size, QString("The %1: %2").arg(side.name, qt(read.message)));
    if (!(read.nominal > 0)) return fail(side.size, QString("The %1 must be above 0.").arg(side.name));
    build::Part part;
    part.name = joint.name + ", " + side.name;
    part.order = part_order++;
    Dimension d;
    d.part = next;
    d.name = "size";
    d.kind = DimensionKind::length;
    d.nominal = read.nominal;
    d.lower = read.lower;
    d.upper = read.upper;
    d.tolerance = read.tolerance;
    d.importance = build::DimensionClass::fit;
    d.source = build::DimensionSource::chosen;
    records.emplace_back(part);
    records.emplace_back(build::Piece{next, 1});
    records.emplace_back(d);
    joint.*side.into = next + 2;
    next += 3;
    if (nominal == 0) nominal = read.nominal;
  }
  if (!over_thread && joint.hole == joint.shaft)
    return fail(shaft_, "Hole and shaft are the same dimension.");
  std::string why;
  if (!fits::take_limits(joint, nominal, false, &why))
    return fail(over_thread ? static_cast<QWidget*>(thread_) : hole_, qt(why));
  joint.order = build::next_order(b.joints());
  joint_ = next;
  records.emplace_back(joint);
  if (!document_.apply(build::add_all(b, std::move(records), "State the joint " + joint.name))) {
    joint_ = 0;
    return fail(name_, "It could not be kept.");
  }
  accept();
}

} // namespace datrin::app
