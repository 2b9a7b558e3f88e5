#pragma once
// The fast way in: surface, x, y, z, Enter; the surface, tip and uncertainty stay for the next touch.

#include "app/document.h"

#include "app/marks/length_edit.h"
#include "casting/falls_on.h"

#include <QComboBox>

#include <array>

namespace datrin::app {

class TouchEntry : public QWidget {
  Q_OBJECT
public:
  explicit TouchEntry(Document& document, QWidget* parent = nullptr);
  void refresh();

  QComboBox* surface_box() const { return surface_; }
  QLineEdit* coordinate(int k) const { return xyz_[static_cast<std::size_t>(k)]; }
  QLineEdit* tip_edit() const { return tip_; }
  QComboBox* toward_box() const { return toward_; }
  QLineEdit* uncertainty_edit() const { return uncertainty_; }
  QString message() const { return message_->text(); }
  void tell(const QString& words, bool wrong);

signals:
  void added(datrin::build::Id touch);

private:
  void add();
  /// Where only heights are read, x and y are where on the face: they are called so.
  void name_places();
  bool heights() const;
  casting::FallsOn fall(const build::Touch& touch) const;

  Document& document_;
  QComboBox *surface_, *toward_;
  std::array<LengthEdit*, 3> xyz_{};
  std::array<QLabel*, 2> place_names_{};
  LengthEdit *tip_, *uncertainty_;
  QLineEdit* setting_;
  MessageLine* message_;
};

} // namespace datrin::app
