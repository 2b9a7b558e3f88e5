#pragma once
// One place of the window: what stands in the centre, what in the room column beside it, and what in the
// shelf's place where the shelf is not wanted.

#include "app/document.h"
#include "app/marks/tabs.h"
#include "app/page/steps.h"

#include <QVBoxLayout>
#include <QWidget>

#include <initializer_list>

namespace datrin::app {

class Page : public QWidget {
  Q_OBJECT
public:
  Page(Document& document, Step step) : document_(document), step_(step), side_(new QWidget) {}

  Step step() const { return step_; }
  QWidget* side() const { return side_; }
  Tabs* tabs() const { return tabs_; }              ///< the faces of the room column; null: it has one
  virtual QWidget* left() const { return nullptr; } ///< stands in the shelf's place; null: the shelf does
  /// Shows the document as it is now; called when it changed and when the page comes to the front.
  virtual void refresh() = 0;
  /// The field or picture that takes the keyboard when the page comes to the front.
  virtual QWidget* first_focus() { return this; }

signals:
  void go_to(datrin::app::Step step); ///< the page asks for another
  void say(const QString& words);     ///< something for the message line

protected:
  /// Gives the room column its faces, called as the table of steps has them.
  void put_faces(std::initializer_list<QWidget*> faces) {
    tabs_ = new Tabs;
    auto* whole = new QVBoxLayout(side_);
    whole->setContentsMargins(0, 4, 0, 0);
    whole->addWidget(tabs_);
    const auto& names = row_of(step_).faces;
    qsizetype k = 0;
    for (auto* face : faces) tabs_->add(names.value(k++), face);
  }

  Document& document_;
  Step step_;
  QWidget* side_;
  Tabs* tabs_ = nullptr;
};

/// A face of the room column, its parts one below the other.
inline QVBoxLayout* face_column(QWidget* face, int spacing = 5) {
  auto* column = new QVBoxLayout(face);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(spacing);
  return column;
}

} // namespace datrin::app
