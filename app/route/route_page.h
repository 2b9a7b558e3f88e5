#pragma once
// The route step: first datums, setups, and the gate before each unclamping.

#include "app/casting/piece_state.h"
#include "app/joints/targets_state.h"
#include "app/marks/part_canvas.h"
#include "app/page/page.h"
#include "app/route/datum_panel.h"
#include "app/route/operations_panel.h"
#include "app/route/setup_panel.h"
#include "app/route/spread_panel.h"

#include <QStackedWidget>

namespace datrin::app {

class RoutePage : public Page {
  Q_OBJECT
public:
  RoutePage(Document& document, TargetsState& targets);
  void refresh() override;
  QWidget* first_focus() override { return datums_->table(); }

  PartCanvas* canvas() const { return canvas_; }
  DatumPanel* datums() const { return datums_; }
  SetupPanel* setups() const { return setups_; }
  OperationsPanel* operations() const { return operations_; }
  /// Writes the route card: .pdf, .csv or .json; the message is empty when it was written.
  QString save_card(const QString& path) const;
  SpreadPanel* spread() const { return spread_; }

signals:
  void surface_wanted(qlonglong surface); ///< to be cut: in the allowance step
  void bench_wanted();

private:
  enum Face { datums_face, setups_face, operations_face, gate_face, spread_face }; ///< of the room column
  void show_canvas();
  void take_datums(const std::vector<long>& ids);
  void show_plans();
  void recover(qlonglong surface);
  void ask_card();

  TargetsState& targets_;
  PartCanvas* canvas_;
  DatumPanel* datums_;
  SetupPanel* setups_;
  OperationsPanel* operations_;
  SpreadPanel* spread_;
  QStackedWidget* tables_;
  PieceState state_;
};

} // namespace datrin::app
