#pragma once
// What was done to the build, newest first, with what was taken back.

#include "app/document.h"

#include <QDialog>

namespace datrin::app {

class LogDialog : public QDialog {
public:
  LogDialog(Document& document, QWidget* parent);
};

} // namespace datrin::app
