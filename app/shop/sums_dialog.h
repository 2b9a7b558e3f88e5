#pragma once
// The sums of the bench: chosen from a list, typed into, answered as one types, in both units.

#include "bench/sums.h"
#include "quantity/unit.h"

#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QTableWidget>
#include <QVBoxLayout>

namespace datrin::app {

class SumsDialog : public QDialog {
  Q_OBJECT
public:
  SumsDialog(Unit unit, QWidget* parent);

  QLineEdit* search() const { return search_; }
  QListWidget* list() const { return list_; }
  std::vector<QLineEdit*> fields() const { return fields_; }
  QTableWidget* answers() const { return answers_; }
  QString words() const { return verdict_->text(); }
  void choose(const QString& id);

private:
  void fill_list();
  void show_sum();
  void reckon();
  const bench::Sum* current() const;

  Unit unit_;
  QLineEdit* search_;
  QListWidget* list_;
  QLabel *title_, *what_for_, *verdict_;
  QVBoxLayout* fields_box_;
  std::vector<QLineEdit*> fields_;
  QTableWidget* answers_;
};

} // namespace datrin::app
