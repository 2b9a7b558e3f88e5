#pragma once
// Geometrical tolerances of a part: where holes and faces must lie, what must run about one axis, stand
// square or parallel, and within how wide a zone.

#include "app/document.h"
#include "app/marks/length_field.h"
#include "app/marks/message_line.h"

#include <QComboBox>
#include <QDialog>
#include <QPushButton>
#include <QTableWidget>

#include <array>

namespace datrin::app {

class ToleranceDialog : public QDialog {
  Q_OBJECT
public:
  ToleranceDialog(Document& document, build::Id part, QWidget* parent = nullptr);

  QTableWidget* table() const { return table_; }
  QComboBox* what_box() const { return what_; }
  QComboBox* surface_box() const { return surface_; }
  QComboBox* datum_box(int k) const { return datums_[static_cast<std::size_t>(k)]; }
  LengthField* within_field() const { return within_; }
  QPushButton* add_button() const { return add_; }
  QPushButton* remove_button() const { return remove_; }
  QString message() const { return message_->text(); }

private:
  void refresh();

  Document& document_;
  build::Id part_;
  QTableWidget* table_;
  QComboBox *what_, *surface_;
  std::array<QComboBox*, 3> datums_{};
  LengthField* within_;
  QPushButton *add_, *remove_;
  MessageLine* message_;
};

} // namespace datrin::app
