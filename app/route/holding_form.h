#pragma once
// How a part is held in a setup: machine, what holds it, grip, overhang, packing, stop; and what would go
// wrong as it is planned, with ways out.

#include "app/document.h"
#include "app/marks/length_field.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

namespace datrin::app {

class HoldingForm : public QWidget {
  Q_OBJECT
public:
  explicit HoldingForm(Document& document, QWidget* parent = nullptr);
  void show_setup(build::Id setup);

  QComboBox* machine_box() const { return machine_; }
  QComboBox* holding_box() const { return holding_; }
  LengthField* grip_field() const { return grip_; }
  LengthField* overhang_field() const { return overhang_; }
  QLineEdit* packing_edit() const { return packing_; }
  QCheckBox* stop_box() const { return stop_; }
  QString clashes() const { return clashes_->text(); }
  QPushButton* fixture_button() const { return fixture_; }

private:
  template <class How>
  void change(const char* what, How how);

  Document& document_;
  build::Id setup_ = 0;
  QComboBox *machine_, *holding_;
  LengthField *grip_, *overhang_;
  QLineEdit* packing_;
  QCheckBox* stop_;
  QPushButton* fixture_;
  QLabel* clashes_;
};

} // namespace datrin::app
