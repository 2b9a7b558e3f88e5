#pragma once
// One operation: what is done, in which setup, with what, how long; what it must come after and why.

#include "app/document.h"
#include "app/marks/length_field.h"
#include "app/marks/message_line.h"
#include "route/plan_route.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>

namespace datrin::app {

class OperationForm : public QWidget {
  Q_OBJECT
public:
  explicit OperationForm(Document& document, QWidget* parent = nullptr);
  void show_operation(build::Id operation, const route::RoutePlan& plan);

  QLineEdit* name_edit() const { return name_; }
  QLineEdit* minutes_edit() const { return minutes_; }
  QComboBox* kind_box() const { return kind_; }
  QComboBox* setup_box() const { return setup_; }
  QComboBox* made_box() const { return made_; }
  QComboBox* after_box() const { return after_; }
  QComboBox* needs_box() const { return needs_; }
  QListWidget* reasons() const { return reasons_; }
  QLineEdit* aside_edit() const { return aside_; }
  QPushButton* aside_button() const { return aside_button_; }
  QCheckBox* done_box() const { return done_; }
  QString message() const { return message_->text(); }

private:
  void connect_fields();
  void show_choices(const build::Operation& now);
  void show_reasons(const route::RoutePlan& plan);
  void take_minutes();
  void take_text(QLineEdit* edit, std::string build::Operation::*into, const char* what);
  void set_aside();
  const build::Operation* current() const;
  template <class How>
  void change(const char* what, How how);

  Document& document_;
  build::Id operation_ = 0;
  QComboBox *kind_, *setup_, *tool_, *made_, *after_, *needs_;
  QLineEdit *name_, *minutes_, *until_, *deferred_, *note_, *aside_;
  LengthField* size_;
  QWidget *size_row_, *until_row_;
  QListWidget* reasons_;
  QPushButton* aside_button_;
  QCheckBox* done_;
  MessageLine* message_;
};

} // namespace datrin::app
