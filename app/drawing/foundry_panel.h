#pragma once
// How a part is cast: metal, process, grades, shrinkage, draft; what that lets one expect, the pattern for
// it, and what the foundry really made of the chosen piece.

#include "app/casting/piece_state.h"
#include "app/document.h"
#include "app/marks/figure_row.h"
#include "app/marks/message_line.h"
#include "casting/as_cast.h"
#include "casting/expect.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSpinBox>
#include <QTableWidget>

namespace datrin::app {

class FoundryPanel : public QWidget {
  Q_OBJECT
public:
  explicit FoundryPanel(Document& document, QWidget* parent = nullptr);
  void refresh();

  QTableWidget* table() const { return table_; } ///< raw sizes; stands in the centre of the page
  QCheckBox* own_box() const { return own_; }
  QComboBox* metal_box() const { return metal_; }
  QComboBox* process_box() const { return process_; }
  QSpinBox* grade_box() const { return grade_; }
  QComboBox* allowance_box() const { return allowance_; }
  QLineEdit* shrinkage_edit() const { return shrinkage_; }
  QLineEdit* draft_edit() const { return draft_; }
  QString message() const { return message_->text(); }
  FigureRow* jaw() const { return jaw_; }
  QString made_text() const { return made_->text(); }
  QString write_pattern(const QString& path) const; ///< empty when written

signals:
  void say(const QString& words);

private:
  build::Foundry foundry() const; ///< of the part shown, as kept or as usual
  void make_column();
  void connect_choices();
  void connect_figures();
  void keep(const build::Foundry& foundry, const QString& what);
  void show_jaw(const build::Foundry& foundry);
  void show_made(const build::Foundry& foundry);
  void ask_why();

  Document& document_;
  QTableWidget* table_;
  QComboBox *metal_, *process_, *allowance_, *draw_;
  QSpinBox* grade_;
  QLineEdit *shrinkage_, *draft_;
  MessageLine* message_;
  QLabel* made_;
  FigureRow* jaw_; ///< what a jaw bears on of a drafted side
  QPushButton* pattern_;
  QCheckBox* own_;
  casting::Expectation expected_;
};

} // namespace datrin::app
