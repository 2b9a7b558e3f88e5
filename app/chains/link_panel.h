#pragma once
// The links of a chain: added one by one with a coefficient, or by walking from feature to feature on the
// drawings.

#include "app/document.h"
#include "chains/walk.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>

namespace datrin::app {

class LinkPanel : public QWidget {
public:
  explicit LinkPanel(Document& document, QWidget* parent = nullptr);
  void show_chain(build::Id chain);
  void choose_row(int row);

  QTableWidget* table() const { return table_; }
  QComboBox* dimension_box() const { return dimension_; }
  QLineEdit* coefficient_edit() const { return coefficient_; }
  QPushButton* add_button() const { return add_; }
  QPushButton* remove_button() const { return remove_; }
  QComboBox* part_box() const { return part_; }
  QComboBox* from_box() const { return from_; }
  QComboBox* to_box() const { return to_; }
  QComboBox* way_box() const { return way_; }
  QPushButton* step_button() const { return step_; }
  QPushButton* walk_button() const { return walk_; }
  QString words() const { return words_->text(); }
  QString steps_text() const { return steps_text_->text(); }

private:
  void add_link();
  void add_step();
  void take_walk();
  void show_steps();
  void fill_surfaces();
  chains::WalkEnd end_in(const QComboBox* box) const;
  void fail(const QString& why);

  Document& document_;
  build::Id chain_ = 0;
  chains::WalkInput steps_;
  std::vector<chains::WalkEnd> ends_; ///< what from and to are chosen among
  QTableWidget* table_;
  QComboBox *dimension_, *part_, *from_, *to_, *way_;
  QLineEdit* coefficient_;
  QPushButton *add_, *remove_, *step_, *walk_, *again_;
  QLabel *words_, *steps_text_;
};

} // namespace datrin::app
