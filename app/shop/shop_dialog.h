#pragma once
// The shop: machines and how their dials read, tools and what they cut, reamers, bar and gauge pins,
// instruments.

#include "app/document.h"
#include "app/marks/length_edit.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QPushButton>
#include <QTableWidget>

namespace datrin::app {

class ShopDialog : public QDialog {
public:
  ShopDialog(Document& document, QWidget* parent);

  QTableWidget* machines() const { return machines_; }
  QTableWidget* tools() const { return tools_; }
  QLineEdit* machine_name() const { return machine_name_; }
  QComboBox* unit_box() const { return unit_; }
  QCheckBox* reads_diameter() const { return diameter_; }
  QLineEdit* resolution() const { return resolution_; }
  QPushButton* add_machine_button() const { return add_machine_; }
  QLineEdit* tool_name() const { return tool_name_; }
  QComboBox* tool_kind() const { return kind_; }
  QLineEdit* tool_size() const { return size_; }
  QTableWidget* instruments() const { return instruments_; }
  QLineEdit* instrument_name() const { return instrument_name_; }
  QLineEdit* instrument_uncertainty() const { return uncertainty_; }
  QLineEdit* instrument_zero() const { return zero_; }
  QPushButton* add_instrument_button() const { return add_instrument_; }
  QLineEdit* tool_corner() const { return corner_; }
  QLineEdit* tool_least() const { return least_; }
  QPushButton* add_tool_button() const { return add_tool_; }
  QTableWidget* offcuts() const { return offcuts_; }
  QComboBox* offcut_form() const { return offcut_form_; }
  QLineEdit* offcut_material() const { return offcut_material_; }
  QLineEdit* offcut_width() const { return offcut_width_; }
  QLineEdit* offcut_bore() const { return offcut_bore_; }
  QLineEdit* offcut_length() const { return offcut_length_; }
  QPushButton* add_offcut_button() const { return add_offcut_; }
  QString message() const { return message_->text(); }

private:
  void make_lists();
  void connect_buttons();
  void set_rules();
  void refresh();
  void add_machine();
  void add_tool();
  void add_instrument();
  void add_offcut();
  void remove_chosen(QTableWidget* table, const std::vector<build::Id>& ids);

  Document& document_;
  QTableWidget *machines_, *tools_, *instruments_, *offcuts_;
  QLineEdit* machine_name_;
  LengthEdit* resolution_;
  QLineEdit *quirk_, *tool_name_;
  LengthEdit *corner_, *least_, *size_;
  QLineEdit* instrument_name_;
  LengthEdit *uncertainty_, *zero_;
  QCheckBox* diameter_;
  QComboBox *unit_, *kind_, *offcut_form_;
  QLineEdit* offcut_material_;
  LengthEdit *offcut_width_, *offcut_thick_, *offcut_bore_, *offcut_length_;
  QPushButton *add_machine_, *add_tool_, *add_instrument_, *add_offcut_;
  MessageLine* message_;
  std::vector<build::Id> machine_ids_, tool_ids_, instrument_ids_, offcut_ids_;
};

} // namespace datrin::app
