#pragma once
// What a joint is for and its limits: proposals side by side, and which of them the shop can make.

#include "app/document.h"
#include "app/joints/joint_picture.h"
#include "app/marks/length_field.h"
#include "fits/joint_edits.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>

namespace datrin::app {

class FitPanel : public QWidget {
public:
  explicit FitPanel(Document& document, QWidget* parent = nullptr);
  void show_state(const JointState& state);

  QLineEdit* name_edit() const { return name_; }
  QComboBox* purpose_box() const { return purpose_; }
  QComboBox* hole_box() const { return hole_; }
  QComboBox* shaft_box() const { return shaft_; }
  QLineEdit* thread_edit() const { return thread_; }
  QLineEdit* code_edit() const { return code_; }
  LengthField* least_field() const { return least_; }
  LengthField* most_field() const { return most_; }
  QTableWidget* proposals() const { return table_; }
  QPushButton* take_button() const { return take_; }
  QPushButton* remove_button() const { return remove_; }
  QString words() const { return words_->text(); }

private:
  void connect_fields();
  void keep(const fits::ChangedJoint& changed, const QString& what);
  void take();
  void keep_code();
  void show_proposals();
  void show_words();
  void fail(const QString& why);

  Document& document_;
  JointState state_;
  std::vector<fits::Proposal> shown_;
  QLineEdit *name_, *thread_, *code_;
  QComboBox *purpose_, *hole_, *shaft_;
  QWidget *shaft_row_, *thread_row_;
  LengthField *least_, *most_;
  QTableWidget* table_;
  QPushButton *take_, *remove_;
  QLabel* words_;
};

} // namespace datrin::app
