#pragma once
// Every text the window shows on the face in front, with what a screen reader says of it.

#include <QAbstractButton>
#include <QAbstractItemView>
#include <QComboBox>
#include <QGroupBox>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QTextDocumentFragment>

#include <string>
#include <vector>

namespace datrin::test {

struct HarvestedText {
  std::string text;
  std::string from; ///< "QLabel Number to make"
};

inline std::vector<HarvestedText> harvest(const QWidget* window) {
  std::vector<HarvestedText> texts;
  const auto put = [&](const QWidget* widget, const QString& text, const char* what) {
    if (text.trimmed().isEmpty()) return;
    auto plain = text.contains('<') ? QTextDocumentFragment::fromHtml(text).toPlainText() : text;
    for (const auto& line : plain.split('\n'))
      if (!line.trimmed().isEmpty())
        texts.push_back({line.toStdString(), (QString(widget->metaObject()->className()) + " " +
                                              widget->accessibleName() + " " + what)
                                                 .toStdString()});
  };
  for (auto* widget : window->findChildren<QWidget*>()) {
    if (!widget->isVisible()) continue;
    put(widget, widget->accessibleName(), "name");
    put(widget, widget->accessibleDescription(), "description");
    put(widget, widget->toolTip(), "tip");
    if (auto* label = qobject_cast<QLabel*>(widget)) put(widget, label->text(), "text");
    if (auto* button = qobject_cast<QAbstractButton*>(widget)) put(widget, button->text(), "text");
    if (auto* edit = qobject_cast<QLineEdit*>(widget)) put(widget, edit->text(), "field");
    if (auto* box = qobject_cast<QComboBox*>(widget))
      for (int k = 0; k < box->count(); ++k) put(widget, box->itemText(k), "item");
    if (auto* view = qobject_cast<QAbstractItemView*>(widget); view && view->model()) {
      const auto* model = view->model();
      for (int r = 0; r < model->rowCount() && r < 40; ++r)
        for (int c = 0; c < model->columnCount(); ++c)
          for (const int role : {Qt::DisplayRole, Qt::ToolTipRole, Qt::AccessibleTextRole})
            put(widget, model->index(r, c).data(role).toString(), "cell");
      if (!qobject_cast<QHeaderView*>(widget))
        for (int c = 0; c < model->columnCount(); ++c)
          put(widget, model->headerData(c, Qt::Horizontal).toString(), "heading");
    }
  }
  return texts;
}

} // namespace datrin::test
