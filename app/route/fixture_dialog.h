#pragma once
// A fixture, jig or holder beside the part it is made for: where it takes hold, what play that leaves for
// every piece, what the cut turns it with, and what it was tried on.

#include "app/document.h"
#include "app/marks/length_field.h"
#include "app/marks/message_line.h"
#include "route/fixture.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>

namespace datrin::app {

class FixtureDialog : public QDialog {
  Q_OBJECT
public:
  /// Of the part held, for that fixture (0: the first there is, or none yet).
  FixtureDialog(Document& document, build::Id part, build::Id fixture, QWidget* parent = nullptr);

  QComboBox* fixture_box() const { return fixture_; }
  QTableWidget* locators() const { return locators_; }
  QComboBox* surface_box() const { return surface_; }
  QComboBox* kind_box() const { return kind_; }
  LengthField* size_field() const { return size_; }
  LengthField* closes_field() const { return closes_; }
  LengthField* arm_field() const { return arm_; }
  QPushButton* add_button() const { return add_; }
  QPushButton* remove_button() const { return remove_; }
  QString words() const { return words_->text(); }
  QComboBox* tried_on() const { return tried_on_; }
  LengthField* off_field() const { return off_; }
  QCheckBox* good_box() const { return good_; }
  QPushButton* tried_button() const { return tried_; }
  QString trials() const { return trials_->text(); }

private:
  QWidget* form();
  QWidget* trial_form();
  void connect_fields();
  void refresh();
  void show_locator();
  void show_words();
  template <class How>
  void change(const char* what, How how);
  build::Id fixture() const { return fixture_->currentData().toLongLong(); }

  Document& document_;
  build::Id part_, chosen_ = 0;
  QComboBox *fixture_, *surface_, *kind_, *tried_on_;
  QTableWidget* locators_;
  LengthField *size_, *closes_, *arm_, *off_;
  QPushButton *add_, *remove_, *tried_;
  QCheckBox* good_;
  QLineEdit* note_;
  QLabel *words_, *trials_;
  MessageLine* message_;
  route::FixtureCheck check_;
  bool filling_ = false;
};

} // namespace datrin::app
