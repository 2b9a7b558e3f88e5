#pragma once
// Which piece goes with which, and what several readings of one bore or shaft say together.

#include "app/document.h"
#include "app/joints/joint_picture.h"
#include "app/joints/targets_state.h"
#include "app/marks/length_edit.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>

namespace datrin::app {

class PairsPanel : public QWidget {
  Q_OBJECT
public:
  PairsPanel(Document& document, TargetsState& targets, QWidget* parent = nullptr);
  void show_state(const JointState& state);

  QTableWidget* table() const { return table_; }
  QComboBox* hole_box() const { return hole_; }
  QComboBox* shaft_box() const { return shaft_; }
  QPushButton* together_button() const { return together_; }
  QPushButton* only_button() const { return only_; }
  QComboBox* goal_box() const { return goal_; }
  QPushButton* pair_button() const { return pair_; }
  QLineEdit* depth_edit() const { return depth_; }
  QLineEdit* direction_edit() const { return direction_; }
  QLineEdit* size_edit() const { return size_; }
  QComboBox* side_box() const { return side_; }
  QComboBox* instrument_box() const { return instrument_; }
  QPushButton* add_button() const { return add_; }
  QString words() const { return words_->text(); }
  QString form_words() const { return form_->text(); }

signals:
  void pair_chosen(int condition);

private:
  void pair_up();
  void add_place();
  void show_pairs();
  void show_choice();
  void keep(const chains::Paired& paired, const char* what);
  void show_form();

  Document& document_;
  TargetsState& targets_;
  JointState state_;
  std::vector<int> conditions_; ///< per row
  QTableWidget *table_, *places_;
  QWidget* choice_; ///< of two pieces
  QComboBox *hole_, *shaft_, *goal_, *side_, *instrument_;
  QPushButton *together_, *only_, *pair_, *add_;
  LengthEdit* depth_;
  QLineEdit* direction_;
  LengthEdit* size_;
  QLabel* words_;
  MessageLine* form_;
};

} // namespace datrin::app
