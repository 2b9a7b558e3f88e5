#pragma once
// Trial fits of the joint shown: how far two pieces went together and how it felt, kept as a log; and from
// what was read along both, what is to be relieved, where and how.

#include "app/document.h"
#include "app/joints/joint_picture.h"
#include "app/joints/targets_state.h"
#include "app/joints/trial_view.h"
#include "app/marks/length_edit.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>

namespace datrin::app {

class TryPanel : public QWidget {
  Q_OBJECT
public:
  TryPanel(Document& document, TargetsState& targets, QWidget* parent = nullptr);
  void show_state(const JointState& state);
  TrialPicture picture() const; ///< of the newest trial of these two pieces

  QComboBox* felt_box() const { return felt_; }
  QComboBox* off_box() const { return off_; }
  LengthEdit* depth_edit() const { return depth_; }
  QLineEdit* note_edit() const { return note_; }
  QPushButton* keep_button() const { return keep_; }
  QPushButton* take_back_button() const { return take_back_; }
  QTableWidget* table() const { return table_; }
  QString words() const { return words_->text(); }
  const Reckoning& why() const { return why_; }

signals:
  void changed();

protected:
  void keyPressEvent(QKeyEvent*) override;

private:
  void keep();
  void take_back();
  void show_trials();
  void show_words();
  bool cuts_hole() const { return off_->currentIndex() == 0; }

  Document& document_;
  TargetsState& targets_;
  JointState state_;
  std::vector<build::Id> trials_; ///< per row
  Reckoning why_;
  QLabel *name_, *words_, *why_text_, *caution_;
  QComboBox *felt_, *off_;
  LengthEdit* depth_;
  QWidget* depth_row_;
  QLineEdit* note_;
  QPushButton *keep_, *take_back_;
  MessageLine* line_;
  QTableWidget* table_;
};

} // namespace datrin::app
