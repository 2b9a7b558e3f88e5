#pragma once
// A step of the path: what stands in the centre, and what in the room column beside it.

#include "app/document.h"

#include <QVBoxLayout>
#include <QWidget>

namespace datrin::app {

class Page : public QWidget {
  Q_OBJECT
public:
  explicit Page(Document& document) : document_(document), side_(new QWidget) {}

  QWidget* side() const { return side_; }
  /// Shows the document as it is now; called when it changed and when the page comes to the front.
  virtual void refresh() = 0;
  /// The field or picture that takes the keyboard when the page comes to the front.
  virtual QWidget* first_focus() { return this; }

signals:
  void go_to(int step);           ///< the page asks for another step
  void say(const QString& words); ///< something for the message line

protected:
  /// A room column with several faces.
  void put_in_side(QWidget* tabs) {
    auto* whole = new QVBoxLayout(side_);
    whole->setContentsMargins(0, 4, 0, 0);
    whole->addWidget(tabs);
  }

  Document& document_;
  QWidget* side_;
};

} // namespace datrin::app
