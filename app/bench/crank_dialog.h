#pragma once
// Truing a pressed crank or wheel set, a blow at a time: what was read round both shafts, what to do next and
// how hard, what each blow did.

#include "app/bench/crank_picture.h"
#include "app/document.h"
#include "app/marks/length_edit.h"
#include "app/marks/message_line.h"

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>

namespace datrin::app {

class CrankDialog : public QDialog {
public:
  /// Of the chosen piece.
  CrankDialog(Document& document, QWidget* parent);

  QLineEdit* left() const { return left_; }
  QLineEdit* right() const { return right_; }
  LengthEdit* shaft() const { return shaft_; }
  LengthEdit* rim() const { return rim_; }
  LengthEdit* limit() const { return limit_; }
  LengthEdit* wanted() const { return wanted_; }
  QComboBox* move() const { return move_; }
  QTableWidget* history() const { return history_; }
  QPushButton* why_button() const { return why_; }
  QString advice() const { return advice_->text(); }
  QString figure() const { return figure_->text(); }
  QString message() const { return message_->text(); }

  void read();      ///< keeps what is typed as a reading
  void struck();    ///< what was done after it, as it stands in the fields
  void take_back(); ///< the last of either

private:
  void refresh();
  QString text(double mm) const;

  Document& document_;
  truing::CrankLog log_;
  QLineEdit *left_, *right_;
  QComboBox *on_, *move_;
  LengthEdit *shaft_, *rim_, *limit_, *wanted_;
  QLabel *figure_, *advice_;
  MessageLine* message_;
  CrankPicture* picture_;
  QTableWidget* history_;
  QPushButton *read_, *struck_, *back_, *why_;
};

} // namespace datrin::app
