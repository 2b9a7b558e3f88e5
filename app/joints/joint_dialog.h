#pragma once
// Stating a joint: two features pointed at, or two sizes typed, and what the joint is for.

#include "app/document.h"
#include "app/marks/message_line.h"
#include "fits/joint_edits.h"

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

namespace datrin::app {

class JointDialog : public QDialog {
public:
  explicit JointDialog(Document& document, QWidget* parent = nullptr);

  QLineEdit* name_edit() const { return name_; }
  QComboBox* purpose_box() const { return purpose_; }
  QComboBox* hole_box() const { return hole_; }
  QComboBox* shaft_box() const { return shaft_; }
  QLineEdit* hole_size() const { return hole_size_; }
  QLineEdit* shaft_size() const { return shaft_size_; }
  QLineEdit* thread_edit() const { return thread_; }
  QPushButton* state_button() const { return state_; }
  QString message() const { return message_->text(); }
  build::Id joint() const { return joint_; } ///< that was stated; 0: none

private:
  void show_rows();
  void keep();
  void fail(fits::JointField at, const QString& why);

  Document& document_;
  QLineEdit *name_, *hole_size_, *shaft_size_, *thread_;
  QComboBox *purpose_, *hole_, *shaft_;
  QWidget *shaft_row_, *thread_row_, *hole_size_row_, *shaft_size_row_;
  QPushButton* state_;
  MessageLine* message_;
  build::Id joint_ = 0;
};

} // namespace datrin::app
