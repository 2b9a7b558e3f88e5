#pragma once
// A joint at work: running clearance hot, a press fit's pressure, stress and force, assembly by heat, what is
// left inside a bearing, a thread's drills; and which ways of holding it are ruled out.

#include "app/document.h"
#include "app/joints/joint_picture.h"
#include "app/joints/targets_state.h"
#include "app/marks/length_field.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>

namespace datrin::app {

class WorkPanel : public QWidget {
  Q_OBJECT
public:
  WorkPanel(Document& document, TargetsState& targets, QWidget* parent = nullptr);
  void show_state(const JointState& state, double temperature);

  QLineEdit* temperature_edit() const { return temperature_; }
  LengthField* length_field() const { return length_; }
  LengthField* hub_field() const { return hub_; }
  LengthField* bore_field() const { return bore_; }
  QCheckBox* apart_box() const { return apart_; }
  QCheckBox* through_box() const { return through_; }
  QListWidget* methods() const { return methods_; }
  QString heat_text() const { return heat_->text(); }
  QString press_text() const { return press_->text(); }

signals:
  void temperature_wanted(double celsius);

private:
  void connect_fields();
  void keep(const build::Joint& changed, const QString& what);
  QString press_words(double clearance, double spread) const;
  QString taper_words() const;
  QString bearing_words() const;
  QString thread_words() const;
  void show_methods();

  Document& document_;
  TargetsState& targets_;
  JointState state_;
  QLineEdit* temperature_;
  LengthField *length_, *hub_, *bore_;
  QCheckBox *apart_, *through_, *looks_;
  QLabel *heat_, *press_heading_, *press_;
  QListWidget* methods_;
};

} // namespace datrin::app
