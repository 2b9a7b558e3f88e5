#pragma once
// The sums of the bench: chosen from a list, typed into, answered as one types, in both units.

#include "bench/sums.h"
#include "quantity/unit.h"

#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace datrin::app {

class SumsDialog : public QDialog {
  Q_OBJECT
public:
  /// `part`: what an answer may be kept for, by name; empty: nothing is chosen.
  SumsDialog(Unit unit, const QString& part, QWidget* parent);

  QLineEdit* search() const { return search_; }
  QListWidget* list() const { return list_; }
  std::vector<QLineEdit*> fields() const { return fields_; }
  QTableWidget* answers() const { return answers_; }
  QString words() const { return verdict_->text(); }
  QLabel* understood(std::size_t field) const { return understood_[field]; }
  QPushButton* take_button() const { return take_; }
  QPushButton* keep_button() const { return keep_; }
  void choose(const QString& id);
  /// What a field "Blocks" begins with, by the sum: those of the shop.
  void own_blocks(std::map<std::string, QString> owned) { owned_ = std::move(owned); }
  /// Reads parts named where grams are asked for.
  void name_masses(std::function<std::string(const std::string&)> read) { read_masses_ = std::move(read); }
  /// The answer that was taken, mm; of a dialog that was accepted.
  std::optional<double> taken() const { return taken_; }

signals:
  /// An answer is to be kept as a dimension; `how` it was reckoned.
  void keep_wanted(const QString& name, double mm, const QString& how);

public slots:
  void show_kept(const QString& words) { verdict_->setText(words); }

private:
  void keep();
  void fill_list();
  void show_sum();
  void reckon();
  void take();
  /// What was typed last for each sum in each unit (a bare number is of it), as long as the program runs.
  static std::map<std::pair<std::string, Unit>, std::vector<QString>>& kept_values();
  const bench::Sum* current() const;

  Unit unit_;
  QLineEdit* search_;
  QListWidget* list_;
  QLabel *title_, *what_for_, *verdict_;
  QVBoxLayout* fields_box_;
  std::vector<QLineEdit*> fields_;
  std::vector<QLabel*> understood_;
  QTableWidget* answers_;
  QPushButton *take_, *keep_;
  bool can_keep_;
  std::function<std::string(const std::string&)> read_masses_;
  std::map<std::string, QString> owned_;
  std::optional<double> taken_;
};

} // namespace datrin::app
