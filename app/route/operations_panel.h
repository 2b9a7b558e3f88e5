#pragma once
// The operations of a part: proposed, put in order by hand or by the best order found, with the time a batch
// takes and what most waits for.

#include "app/document.h"
#include "app/marks/figure_row.h"
#include "app/marks/message_line.h"
#include "app/route/operation_form.h"
#include "app/route/operations_table.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>

namespace datrin::app {

class OperationsPanel : public QWidget {
  Q_OBJECT
public:
  explicit OperationsPanel(Document& document, QWidget* parent = nullptr);
  void refresh();

  OperationsTable* table() const { return table_; } ///< stands in the centre of the page
  OperationForm* form() const { return form_; }
  const route::RoutePlan& plan() const { return plan_; }
  QPushButton* propose_button() const { return propose_; }
  QPushButton* plans_button() const { return plans_; }
  QPushButton* card_button() const { return card_; }
  QPushButton* bench_button() const { return bench_; }
  QPushButton* best_button() const { return best_; }
  QComboBox* manner_box() const { return manner_; }
  QLineEdit* setup_minutes() const { return setup_minutes_; }
  QLineEdit* tool_minutes() const { return tool_minutes_; }
  QPushButton* slip_button() const { return slip_; } ///< of an operation that makes a hole
  FigureRow* time() const { return time_; }
  QString words() const { return words_->text(); }
  QString remarks() const { return remarks_->text(); }
  build::Id chosen() const { return chosen_; }
  /// Surfaces the chosen operation makes, to be lit in the picture.
  std::vector<build::Id> lit() const;

public slots:
  void propose();
  void take_best();
  void add();
  void remove();
  void move(int by);

signals:
  void operation_chosen();
  void plans_wanted();
  void card_wanted();
  void bench_wanted();

private:
  void show_words();
  QWidget* minutes_row();
  void take_minutes();
  void show_slip();
  /// The hole the chosen operation makes.
  std::optional<route::Feature> hole() const;
  void put(int row, int to);
  route::PlanOptions options() const;

  Document& document_;
  OperationsTable* table_;
  OperationForm* form_;
  FigureRow* time_;
  QLabel *words_, *remarks_;
  QPushButton *propose_, *best_, *plans_, *card_, *bench_, *add_, *remove_, *up_, *down_, *slip_;
  QComboBox* manner_;
  QLineEdit *setup_minutes_, *tool_minutes_;
  MessageLine* message_;
  route::RoutePlan plan_;
  build::Id chosen_ = 0;
};

} // namespace datrin::app
