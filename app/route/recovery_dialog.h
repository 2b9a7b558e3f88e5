#pragma once
// After a slip: what can still be done, side by side, with what each costs; one is taken.

#include "app/document.h"
#include "app/marks/length_field.h"
#include "route/hole_recovery.h"

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

namespace datrin::app {

class RecoveryDialog : public QDialog {
public:
  RecoveryDialog(Document& document, std::vector<route::RecoveryWay> ways, const QString& surface,
                 QWidget* parent = nullptr);
  /// Of a hole: what happened is said here.
  RecoveryDialog(Document& document, route::Feature hole, build::Id piece, QWidget* parent = nullptr);

  QComboBox* slip_box() const { return slip_; }
  LengthField* off_field() const { return off_; }
  QTableWidget* table() const { return table_; }
  QPushButton* take_button() const { return take_; }
  QString words() const { return words_->text(); }

private:
  RecoveryDialog(Document& document, const QString& heading, QWidget* parent);
  void show_ways(std::vector<route::RecoveryWay> ways);
  void show_chosen();
  void look();
  void take();

  Document& document_;
  std::vector<route::RecoveryWay> ways_;
  QTableWidget* table_;
  QLabel* words_;
  QPushButton* take_;
  route::Feature hole_;
  build::Id piece_ = 0;
  QComboBox* slip_ = nullptr;
  LengthField* off_ = nullptr;
};

} // namespace datrin::app
