#pragma once
// What a survey file holds that cannot be read, before anything of it is taken.

#include "store/survey_csv.h"

#include <QDialog>
#include <QPushButton>

namespace datrin::app {

/// Lists the bad lines; nothing is imported unless the person says "the other 397".
class ImportDialog : public QDialog {
  Q_OBJECT
public:
  ImportDialog(const QString& file, const store::SurveyCsv& survey, QWidget* parent);
  QPushButton* take_button() const { return take_; }

private:
  QPushButton* take_;
};

} // namespace datrin::app
