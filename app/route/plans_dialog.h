#pragma once
// Whole plans for a part, looked for aside and set side by side: setups, time, what they leave of the limits.
// One is taken in one step to undo.

#include "app/aside.h"
#include "app/document.h"
#include "route/plans.h"

#include <QDialog>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

namespace datrin::app {

class PlansDialog : public QDialog {
  Q_OBJECT
public:
  explicit PlansDialog(Document& document, QWidget* parent = nullptr);

  QTableWidget* table() const { return table_; }
  QPushButton* take_button() const { return take_; }
  QPushButton* stop_button() const { return stop_; }
  QString words() const { return words_->text(); }
  QString detail() const { return detail_->text(); } ///< of the chosen plan
  bool busy() const { return looking_.busy(); }

private:
  void show_plans(route::PlansResult result);
  void show_chosen();
  void take();

  Document& document_;
  QTableWidget* table_;
  QLabel *words_, *detail_;
  QPushButton *take_, *stop_;
  route::PlansResult result_;
  Aside<route::PlansResult, PieceAsOf> looking_{this, [this] { return document_.piece_now(); },
                                                [this](auto result) { show_plans(std::move(result)); },
                                                [this](const QString& why) {
                                                  show_plans({{}, 0, false, why.toStdString()});
                                                }};
};

} // namespace datrin::app
