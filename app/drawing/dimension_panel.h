#pragma once
// The dimensions of a part: each with its limits, class, source and reason; what contradicts what; and how a
// dimension that cannot be measured may be read another way.

#include "app/document.h"
#include "app/marks/figure_row.h"
#include "app/marks/length_edit.h"
#include "drawing/contradictions.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

namespace datrin::app {

class DimensionPanel : public QWidget {
  Q_OBJECT
public:
  explicit DimensionPanel(Document& document, QWidget* parent = nullptr);
  void refresh();

  QTableWidget* table() const { return table_; } ///< stands in the centre of the page
  QLineEdit* name_edit() const { return name_; }
  QLineEdit* limits_edit() const { return limits_; }
  QLineEdit* reason_edit() const { return reason_; }
  QLineEdit* sum_edit() const { return sum_; }
  QLineEdit* run_edit() const { return run_; }
  QLineEdit* rise_edit() const { return rise_; }
  QLineEdit* measured_edit() const { return measured_; }
  QComboBox* kind_box() const { return kind_; }
  QComboBox* from_box() const { return from_; }
  QComboBox* to_box() const { return to_; }
  QComboBox* class_box() const { return class_; }
  QComboBox* source_box() const { return source_; }
  QComboBox* how_box() const { return how_; }
  QLineEdit* pin_edit() const { return pin_; }
  QLineEdit* hole_edit() const { return hole_; }
  QPushButton* add_button() const { return add_; }
  QListWidget* contradictions() const { return wrong_; }
  QString message() const { return message_->text(); }
  QString verdict() const { return verdict_->text(); }
  QString history() const { return history_->text(); }
  build::Id chosen() const { return chosen_; }

public slots:
  void add_dimension();
  void remove_dimension();

signals:
  void surface_chosen(qlonglong id);

private:
  void make_head();
  void make_form();
  void make_contradictions();
  void make_restated();
  void connect_table();
  void connect_texts();
  void connect_choices();
  void connect_restated();
  const build::Dimension* current() const;
  void keep(const build::Dimension& changed, const QString& what);
  void keep_limits();
  void keep_length(LengthEdit* edit, double build::Dimension::*field, const char* what);
  void keep_measured();
  void show_form();
  void show_restated();
  void show_contradictions();

  Document& document_;
  QTableWidget* table_;
  QLineEdit *name_, *limits_, *reason_, *sum_;
  LengthEdit *cutter_, *run_, *rise_;
  QLineEdit* measured_;
  LengthEdit *pin_, *hole_, *instrument_;
  QComboBox *kind_, *from_, *to_, *class_, *source_, *how_;
  QWidget *measured_row_, *cutter_row_, *run_row_, *rise_row_, *between_row_, *form_, *restate_box_;
  QVBoxLayout* reading_box_;
  QPushButton *add_, *remove_;
  MessageLine* message_;
  QLabel *legs_, *history_, *verdict_;
  QListWidget* wrong_;
  std::vector<drawing::Contradiction> shown_;
  build::Id chosen_ = 0, shown_part_ = 0;
  bool filling_ = false;
};

} // namespace datrin::app
