#pragma once
// The setups of a part, in order: what locates each, what it cuts, what it measures; and the gate before a
// piece is taken out of it.

#include "allowance/plan.h"
#include "app/casting/piece_state.h"
#include "app/document.h"
#include "app/route/holding_form.h"
#include "route/gate.h"

#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTableWidget>

namespace datrin::app {

class SetupPanel : public QWidget {
  Q_OBJECT
public:
  explicit SetupPanel(Document& document, QWidget* parent = nullptr);
  void show_state(const PieceState& state, const std::vector<allowance::SurfacePlan>& plans);

  QListWidget* setups() const { return setups_; }
  QListWidget* parts() const { return parts_; } ///< surfaces and dimensions with their part in the setup
  QLineEdit* name_edit() const { return name_; }
  QPushButton* add_button() const { return add_; }
  QString remarks() const { return remarks_->text(); }
  HoldingForm* holding() const { return holding_; }
  QLineEdit* left_edit() const { return left_; } ///< what stays on the machine when it is unclamped
  build::Id chosen() const { return chosen_; }

  QTableWidget* overview() const {
    return overview_;
  }                                       ///< surfaces by setups; stands in the centre of the page
  QWidget* gate() const { return gate_; } ///< the second face
  QListWidget* gate_list() const { return gate_list_; }
  QString verdict() const { return verdict_->text(); }
  QPushButton* recover_button() const { return recover_; } ///< of an entry that is cut too deep
  QPushButton* release_button() const { return release_; }
  const route::GateResult& gate_result() const { return gate_result_; }

public slots:
  void add_setup();
  void remove_setup();
  void cycle_part(); ///< of the chosen surface: nothing, datum, cut, reference
  void move_setup(int by);

signals:
  void go_to_surface(qlonglong surface);
  void recovery_wanted(qlonglong surface);

private:
  void make_gate();
  void connect_setups();
  void connect_gate();
  void show_setup();
  void show_gate();
  void show_overview();
  void release();
  void gate_done();
  const build::Setup* current() const;
  /// The chosen entry's surface where it is cut too deep, else the first that is; null: none.
  const allowance::SurfacePlan* spoilt() const;

  Document& document_;
  QListWidget *setups_, *parts_, *gate_list_;
  QLineEdit *name_, *left_;
  HoldingForm* holding_;
  QLabel *remarks_, *verdict_, *gate_heading_;
  QPushButton *add_, *remove_, *up_, *down_, *release_, *done_, *recover_;
  QWidget* gate_;
  QTableWidget* overview_;
  PieceState state_;
  std::vector<allowance::SurfacePlan> plans_;
  route::GateResult gate_result_;
  build::Id chosen_ = 0;
  bool filling_ = false;
};

} // namespace datrin::app
