#pragma once
// A part made in numbers: the sheet of its pieces, how far they are, which go together by size, and which are
// rejected.

#include "app/batch/batch_table.h"
#include "app/batch/run_view.h"
#include "app/joints/targets_state.h"
#include "app/marks/length_field.h"
#include "app/marks/message_line.h"
#include "app/page/page.h"

#include <QComboBox>
#include <QLineEdit>
#include <QPushButton>
#include <QStackedWidget>

namespace datrin::app {

class BatchPage : public Page {
  Q_OBJECT
public:
  BatchPage(Document& document, TargetsState& targets);
  void refresh() override;
  QWidget* first_focus() override { return table_; }

  BatchTable* table() const { return table_; }
  BatchModel* model() const { return model_; }
  LengthField* width_field() const { return width_; }
  QComboBox* instrument_box() const { return instrument_; }
  QLineEdit* reason_edit() const { return reason_; }
  QPushButton* reject_button() const { return reject_; }
  QString progress_text() const { return progress_->text(); }
  QString column_text() const { return column_->text(); }
  QString groups_text() const { return groups_->text(); }
  QString message() const { return message_->text(); }

private:
  void make_side();
  void show_column();
  void show_run(const std::vector<batch::SizeGroup>& groups);
  void show_piece();
  void reject();
  int row() const { return table_->currentIndex().row(); }

  TargetsState& targets_;
  BatchModel* model_;
  BatchTable* table_;
  RunView* run_;
  QStackedWidget* stack_;
  QLabel *title_, *progress_, *column_heading_, *column_, *groups_, *piece_;
  LengthField* width_;
  QComboBox* instrument_;
  QLineEdit* reason_;
  QPushButton* reject_;
  MessageLine* message_;
  double width_of_groups_ = 0.01; ///< mm
  build::Id shown_part_ = 0;
  QString path_; ///< of the build shown
};

} // namespace datrin::app
