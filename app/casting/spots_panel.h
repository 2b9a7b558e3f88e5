#pragma once
// Draft, flash, pores, chill, defects, repairs and the like, noted where they are, with what is to be done
// about each.

#include "app/document.h"

#include "app/marks/length_edit.h"

#include <QCheckBox>
#include <QComboBox>
#include <QListWidget>
#include <QPushButton>

#include <array>

namespace datrin::app {

/// "flash", and the letter that stands for it in the views.
QString spot_name(build::SpotKind kind);
std::string spot_letter(build::SpotKind kind);

class SpotsPanel : public QWidget {
public:
  explicit SpotsPanel(Document& document, QWidget* parent = nullptr);
  void refresh(build::Id chosen_touch);
  QComboBox* kind_box() const { return kind_; }
  QLineEdit* xyz(int k) const { return xyz_[static_cast<std::size_t>(k)]; }
  QLineEdit* size_edit() const { return size_; }
  QLineEdit* note_edit() const { return note_; }
  QPushButton* add_button() const { return add_; }
  QListWidget* list() const { return list_; }
  QComboBox* cure_box() const { return cure_; }
  QCheckBox* done_box() const { return done_; }
  QString message() const { return message_->text(); }

private:
  void add();
  build::Id chosen() const;
  void show_chosen();

  Document& document_;
  build::Id touch_ = 0; ///< place taken from this touch where no coordinates are typed
  QComboBox *kind_, *surface_;
  std::array<LengthEdit*, 3> xyz_{};
  LengthEdit* size_;
  QLineEdit* note_;
  QPushButton* add_;
  QListWidget* list_;
  QComboBox* cure_;
  QCheckBox* done_;
  MessageLine* message_;
};

} // namespace datrin::app
