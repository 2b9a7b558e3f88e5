#pragma once
// The allowance step: how the metal over each surface is spent, what to cut to next, and what each reading
// means.

#include "allowance/plan.h"
#include "app/allowance/metal_view.h"
#include "app/allowance/share_panel.h"
#include "app/casting/piece_state.h"
#include "app/joints/targets_state.h"
#include "app/marks/column.h"
#include "app/marks/length_edit.h"
#include "app/marks/length_field.h"
#include "app/page/page.h"

#include <QCheckBox>
#include <QComboBox>
#include <QTableWidget>

namespace datrin::app {

class AllowancePage : public Page {
  Q_OBJECT
public:
  AllowancePage(Document& document, TargetsState& targets);
  void refresh() override;
  QWidget* first_focus() override { return metal_; }

  MetalView* metal() const { return metal_; }
  QTableWidget* table() const { return table_; }
  SharePanel* shares() const { return shares_; }
  QString next_text() const { return next_->text(); }
  QString verdict_text() const { return verdict_->text(); }
  QString mistake_text() const { return mistake_->text(); }
  QString announced_text() const { return announced_words_->text(); }
  QComboBox* reading_box() const { return of_; }
  QLineEdit* reading_edit() const { return reading_; }
  QPushButton* move_button() const { return move_; }
  QComboBox* machine_box() const { return machine_; }
  QComboBox* tool_box() const { return tool_; }
  QComboBox* last_box() const { return last_step_; }
  QLineEdit* announced_edit() const { return announced_; }
  QCheckBox* even_box() const { return even_; }
  QCheckBox* batch_box() const { return batch_; }
  LengthField* field(const QString& name) const;
  const std::vector<allowance::SurfacePlan>& plans() const { return plans_; }

public slots:
  void choose(int k);
  void choose_surface(qlonglong surface);
  void take_reading();
  void take_back();

private:
  void make_picture();
  void make_cut_face();
  void make_plan_face();
  void connect_cut();
  void connect_plan();
  void ask_why();
  void show_plan();
  void show_table();
  void show_next();
  /// The number to cut to as it stands on the dial, a tick or a dash where there is none, and why.
  struct Next {
    QString figure;
    QStringList words;
  };
  Next next_number(const allowance::SurfacePlan& plan) const;
  QString trial_words(const allowance::SurfacePlan& plan) const; ///< empty: no fit by trial is to come
  void show_mistake(const allowance::SurfacePlan& plan);
  void show_fields();
  void keep(const std::function<void(build::Allowance&)>& change, const QString& what);
  const allowance::SurfacePlan* current() const;
  QString dial_text(double depth) const;
  void add_field(QVBoxLayout* to, const QString& name, double build::Allowance::*field, LengthRule rule);

  TargetsState& targets_;
  MetalView* metal_;
  QTableWidget* table_;
  QWidget *cut_, *plan_;
  SharePanel* shares_;
  QLabel *after_, *heading_, *next_, *next_unit_, *verdict_, *mistake_, *remarks_, *announced_words_,
      *ladder_;
  QComboBox *of_, *machine_, *tool_, *last_step_;
  LengthEdit* reading_;
  QLineEdit *note_, *announced_;
  QPushButton *take_, *back_, *move_;
  QCheckBox *even_, *batch_;
  std::vector<std::pair<LengthField*, double build::Allowance::*>> fields_;
  PieceState state_;
  std::vector<allowance::SurfacePlan> plans_;
  allowance::MistakeResult mistake_found_;
  build::Id chosen_ = 0, shown_piece_ = 0;
};

} // namespace datrin::app
