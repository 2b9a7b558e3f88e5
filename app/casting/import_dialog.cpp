#include "app/casting/import_dialog.h"

#include "app/marks/column.h"
#include "app/theme.h"
#include "sheets/figures.h"

#include <QHBoxLayout>
#include <QPlainTextEdit>

namespace datrin::app {

using sheets::qt;

ImportDialog::ImportDialog(const QString& file, const store::SurveyCsv& survey, QWidget* parent)
    : QDialog(parent), take_(new QPushButton) {
  setWindowTitle("Import a survey");
  resize(theme().ipx(560), theme().ipx(320));
  auto* column = new QVBoxLayout(this);
  column->setSpacing(10);
  const auto bad = survey.bad.size(), good = survey.good.size();
  auto* title = words_label(filled("%1 of %2 lines cannot be read", bad, bad + good));
  title->setFont(theme().title());
  column->addWidget(title);
  column->addWidget(muted_label(file + ". Nothing has been taken yet."));
  auto* list = new QPlainTextEdit;
  list->setReadOnly(true);
  list->setAccessibleName("Lines that cannot be read");
  QString text;
  for (const auto& line : survey.bad) text += qt(line.message) + "\n";
  list->setPlainText(text);
  list->setTabChangesFocus(true);
  column->addWidget(list, 1);
  auto* buttons = new QHBoxLayout;
  auto* none = new QPushButton("Take nothing");
  take_->setText(QString("Take the other %1").arg(good));
  take_->setEnabled(good > 0);
  buttons->addStretch(1);
  buttons->addWidget(none);
  buttons->addWidget(take_);
  column->addLayout(buttons);
  none->setDefault(true);
  none->setFocus();
  connect(none, &QPushButton::clicked, this, &QDialog::reject);
  connect(take_, &QPushButton::clicked, this, &QDialog::accept);
}

} // namespace datrin::app
