#pragma once
// The settings of a survey: how each is joined to the others, the reference marks that join them, and sizes
// read across.

#include "app/casting/piece_state.h"
#include "app/document.h"

#include "app/marks/length_edit.h"

#include <QComboBox>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

#include <array>

namespace datrin::app {

class SettingsPanel : public QWidget {
public:
  explicit SettingsPanel(Document& document, QWidget* parent = nullptr);
  void show_state(const PieceState& state);

  QComboBox* frame_box(const QString& setting) const;
  QString setting_text(const QString& setting) const;
  QLineEdit* mark_name() const { return mark_; }
  QLineEdit* mark_xyz(int k) const { return xyz_[static_cast<std::size_t>(k)]; }
  QComboBox* mark_setting() const { return mark_setting_; }
  QPushButton* add_mark_button() const { return add_mark_; }
  QComboBox* size_from() const { return size_from_; }
  QComboBox* size_to() const { return size_to_; }
  QLineEdit* size_edit() const { return size_; }
  QLineEdit* mark_spread() const { return mark_spread_; }
  QLineEdit* size_spread() const { return size_spread_; }
  QPushButton* add_size_button() const { return add_size_; }
  QListWidget* marks_list() const { return marks_; }
  QString message() const { return message_->text(); }

private:
  void make_marks();
  void make_sizes();
  void connect_entries();
  struct Row {
    QString name;
    QComboBox* frame;
    QLabel* words;
  };
  void show_settings(const PieceState& state);
  QLabel* how_joined(const casting::SettingState& setting) const;
  void show_known(const PieceState& state);   ///< marks, and sizes measured across
  void show_choices(const PieceState& state); ///< between what a size may be measured
  void add_mark();
  void add_size();
  void remove_chosen();
  void set_frame(const QString& name, build::SettingFrame frame);

  Document& document_;
  QVBoxLayout* settings_;
  QWidget* settings_box_;
  std::vector<Row> rows_;
  QComboBox *mark_setting_, *size_from_, *size_to_;
  QLineEdit* mark_;
  LengthEdit *size_, *mark_spread_, *size_spread_; ///< spreads: 95 %; what they say is what is kept
  std::array<LengthEdit*, 3> xyz_{};
  QPushButton *add_mark_, *add_size_;
  QListWidget* marks_;
  MessageLine* message_;
};

} // namespace datrin::app
