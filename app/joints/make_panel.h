#pragma once
// The number to make next for the joint shown: large, with its sum, what the last reading moved, and where a
// reading is entered.

#include "app/document.h"
#include "app/joints/joint_picture.h"
#include "app/joints/targets_state.h"
#include "app/marks/column.h"

#include <QComboBox>
#include <QLineEdit>

namespace datrin::app {

class MakePanel : public QWidget {
  Q_OBJECT
public:
  MakePanel(Document& document, TargetsState& targets, QWidget* parent = nullptr);
  void show_state(const JointState& state);

  QLineEdit* hole_edit() const { return hole_; }
  QLineEdit* shaft_edit() const { return shaft_; }
  QComboBox* instrument_box() const { return instrument_; }
  QPushButton* widen_button() const { return widen_; }
  QPushButton* follow_button() const { return follow_; }
  QPushButton* card_button() const { return card_; }
  QString figure_text() const { return figure_->text(); }
  QComboBox* pair_box() const { return pair_; }
  QString to_come_text() const { return to_come_->text(); }
  QString was_text() const { return was_->text(); }
  QString verdict() const { return verdict_->text(); }
  QString moves_text() const { return moves_->text(); }
  const Reckoning& why() const { return why_; }

signals:
  void card_wanted();
  void pair_chosen(int condition);

protected:
  void keyPressEvent(QKeyEvent*) override;

private:
  void keep_reading(QLineEdit* edit, const chains::Made& made, const chains::Made& mate);
  void show_figure();
  void show_pairs();
  void show_readings();
  void depart(bool follow);
  const chains::Conflict* conflict_of(const chains::Made& made);
  QString conflict_text(const chains::Conflict& conflict);
  chains::Made next() const; ///< the side to make; dimension 0: both are made

  Document& document_;
  TargetsState& targets_;
  JointState state_;
  Reckoning why_;
  QLabel *name_, *figure_, *other_, *to_come_, *was_, *why_text_, *verdict_, *moves_, *next_;
  QWidget *pair_row_, *hole_row_, *shaft_row_, *why_box_, *moves_box_;
  QLineEdit *hole_, *shaft_;
  QComboBox *instrument_, *pair_;
  QPushButton *widen_, *follow_, *card_;
};

/// Fills a box with the instruments of the shop, keeping what is chosen; data is the id, 0: none, ± as typed.
void fill_instruments(QComboBox* box, const build::Build& build);

/// The sum of a target as lines of text, figures right: for a label.
QString sum_lines(const Reckoning& sum, Unit unit);
/// Shows it in a label; hidden where there is no sum.
void show_sum_lines(QLabel* label, const Reckoning& sum, Unit unit);

} // namespace datrin::app
