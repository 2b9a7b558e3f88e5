#pragma once
// The walls to keep: from an as-cast surface to a finished one, each with its least thickness.

#include "app/document.h"
#include "app/marks/length_field.h"

#include <QComboBox>
#include <QPushButton>

namespace datrin::app {

class WallList : public QWidget {
public:
  explicit WallList(Document& document, QWidget* parent = nullptr);
  void refresh();

  QComboBox* from_box() const { return from_; }
  QComboBox* to_box() const { return to_; }
  QPushButton* add_button() const { return add_; }
  std::vector<LengthField*> fields() const { return fields_; }

private:
  Document& document_;
  QWidget* rows_;
  QComboBox *from_, *to_;
  QPushButton* add_;
  std::vector<LengthField*> fields_;
  build::List<build::Wall> shown_;
};

} // namespace datrin::app
