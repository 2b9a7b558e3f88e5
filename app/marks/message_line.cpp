#include "app/marks/message_line.h"

#include "app/marks/column.h"
#include "app/theme.h"

#include <QAccessible>

namespace datrin::app {

MessageLine::MessageLine(QWidget* parent) : QLabel(parent) {
  setWordWrap(true);
  setTextFormat(Qt::PlainText);
  setMinimumWidth(theme().ipx(20)); // a path without blanks does not push the column wide
  setFont(theme().small());
  tell({});
}

void MessageLine::tell(const QString& words) {
  say(words, false);
}

void MessageLine::refuse(const QString& words) {
  say(words, true);
}

void MessageLine::say(const QString& words, bool wrong) {
  refuses_ = wrong;
  setText(words);
  colour_label(this, wrong ? theme().gone : theme().muted);
  if (!wrong || words.isEmpty()) return;
  QAccessibleEvent alert(this, QAccessible::Alert); // read out at once
  QAccessible::updateAccessibility(&alert);
}

} // namespace datrin::app
