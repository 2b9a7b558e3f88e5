#pragma once
// After a slip: what can still be done, side by side, with what each costs; one is taken.

#include "app/document.h"
#include "route/recovery.h"

#include <QDialog>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

namespace datrin::app {

class RecoveryDialog : public QDialog {
public:
  RecoveryDialog(Document& document, std::vector<route::RecoveryWay> ways, const QString& surface,
                 QWidget* parent = nullptr);

  QTableWidget* table() const { return table_; }
  QPushButton* take_button() const { return take_; }
  QString words() const { return words_->text(); }

private:
  void show_chosen();
  void take();

  Document& document_;
  std::vector<route::RecoveryWay> ways_;
  QTableWidget* table_;
  QLabel* words_;
  QPushButton* take_;
};

} // namespace datrin::app
