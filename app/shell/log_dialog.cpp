#include "app/shell/log_dialog.h"

#include "app/theme.h"
#include "sheets/figures.h"
#include "sheets/local_time.h"

#include <QPlainTextEdit>
#include <QVBoxLayout>

namespace datrin::app {

LogDialog::LogDialog(Document& document, QWidget* parent) : QDialog(parent) {
  setWindowTitle("Log of the build");
  resize(theme().ipx(560), theme().ipx(420));
  auto* list = new QPlainTextEdit;
  list->setReadOnly(true);
  QString text;
  for (const auto& line : document.log(2000))
    text +=
        QString("%1   %2%3\n")
            .arg(sheets::local_time(line.at), sheets::qt(line.label), line.undone ? "   (taken back)" : "");
  list->setPlainText(text.isEmpty() ? QString("Nothing has been done yet.") : text);
  (new QVBoxLayout(this))->addWidget(list);
}

} // namespace datrin::app
