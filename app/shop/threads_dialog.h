#pragma once
// Threads: drills, engagement and depth of a thread by its name; and which thread an unknown one may be.

#include "app/marks/length_edit.h"
#include "quantity/drills.h"
#include "quantity/unit.h"

#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QTableWidget>

#include <vector>

namespace datrin::app {

class ThreadsDialog : public QDialog {
public:
  /// `owned`: the shop's own drills.
  ThreadsDialog(Unit unit, std::vector<Drill> owned, QWidget* parent);

  QLineEdit* thread_edit() const { return thread_; }
  QLineEdit* percent_edit() const { return percent_; }
  QLineEdit* deep_edit() const { return deep_; }
  QLineEdit* engaged_edit() const { return engaged_; }
  QLineEdit* outside_edit() const { return outside_; }
  QLineEdit* pitch_edit() const { return pitch_; }
  QTableWidget* ranked() const { return ranked_; }
  QString answer() const { return answer_->text(); }
  QString verdict() const { return verdict_->text(); }

private:
  void plan();
  void identify();

  Unit unit_;
  std::vector<Drill> owned_;
  QLineEdit *thread_, *percent_;
  LengthEdit *deep_, *engaged_, *outside_, *pitch_;
  QLabel *answer_, *verdict_;
  QTableWidget* ranked_;
};

} // namespace datrin::app
