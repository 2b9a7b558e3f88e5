#include "app/route/route_page.h"

#include "allowance/plan.h"
#include "app/route/plans_dialog.h"
#include "app/route/recovery_dialog.h"
#include "app/theme.h"
#include "build/now.h"
#include "chains/aims.h"
#include "route/card.h"
#include "route/suggest_setups.h"
#include "sheets/local_time.h"
#include "sheets/page_file.h"
#include "sheets/route_sheet.h"
#include "store/route_export.h"

#include <QFileDialog>
#include <QFileInfo>

namespace datrin::app {

RoutePage::RoutePage(Document& document, TargetsState& targets)
    : Page(document, Step::route), targets_(targets), canvas_(new PartCanvas),
      datums_(new DatumPanel(document)), setups_(new SetupPanel(document)),
      operations_(new OperationsPanel(document)), spread_(new SpreadPanel(document)),
      tables_(new QStackedWidget) {
  draw_solid_of_part(canvas_, document_);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 8, 8);
  column->setSpacing(8);
  canvas_->set_empty_text("First the drawing", "State the part in the Drawing step: here it is worked out "
                                               "which as-cast surfaces to stand it on, and what must be "
                                               "true before it is unclamped.");
  column->addWidget(canvas_, 64);
  tables_->addWidget(datums_->table());
  tables_->addWidget(setups_->overview());
  tables_->addWidget(operations_->table());
  tables_->addWidget(spread_->table());
  column->addWidget(tables_, 36);
  put_faces({datums_, setups_, operations_, setups_->gate(), spread_});
  connect(operations_, &OperationsPanel::operation_chosen, this, [this] { show_canvas(); });
  connect(datums_, &DatumPanel::chosen, this, [this] { show_canvas(); });
  connect(datums_, &DatumPanel::take, this, &RoutePage::take_datums);
  connect(tabs_, &Tabs::changed, this, [this](int k) {
    tables_->setCurrentIndex(k == datums_face ? 0 : k == operations_face ? 2 : k == spread_face ? 3 : 1);
    if (k == spread_face) spread_->refresh();
    if (k == operations_face) operations_->refresh();
    show_canvas();
  });
  connect(operations_, &OperationsPanel::plans_wanted, this, &RoutePage::show_plans);
  connect(operations_, &OperationsPanel::card_wanted, this, &RoutePage::ask_card);
  connect(operations_, &OperationsPanel::bench_wanted, this, &RoutePage::bench_wanted);
  connect(setups_, &SetupPanel::recovery_wanted, this, &RoutePage::recover);
  connect(setups_, &SetupPanel::go_to_surface, this, &RoutePage::surface_wanted);
  connect(canvas_, &PartCanvas::angle_clicked, this,
          [this] { emit say("First or third angle is chosen in the Drawing step"); });
}

void RoutePage::refresh() {
  state_ = piece_state(document_.build(), document_.piece());
  if (state_.part == 0) state_.part = document_.part();
  datums_->show_state(state_);
  setups_->show_state(
      state_, allowance::surface_plans(document_.build(), state_.piece, state_.input, state_.pose,
                                       chains::aims_of(document_.build(), state_.piece, targets_.now())));
  const int open = setups_->gate_result().open;
  tabs_->set_name(gate_face, open > 0 ? QString("Gate %1").arg(open) : QString("Gate"));
  if (tabs_->chosen() == spread_face) spread_->refresh();
  if (tabs_->chosen() == operations_face) operations_->refresh();
  show_canvas();
}

void RoutePage::show_canvas() {
  auto scene = piece_scene(document_.build(), state_, state_.pose);
  if (tabs_->chosen() == datums_face) scene.spots = datums_->target_spots();
  canvas_->set_unit(document_.unit());
  canvas_->set_scene(std::move(scene), document_.build().info().third_angle);
  // What the chosen operation makes.
  int lit = -1, row = 0;
  if (tabs_->chosen() == operations_face)
    for (const auto& [id, unused] : document_.build().surfaces_of(state_.part)) {
      if (lit < 0 && build::contains(operations_->lit(), id)) lit = row;
      ++row;
    }
  canvas_->set_lit_surface(lit);
}

void RoutePage::take_datums(const std::vector<long>& ids) {
  document_.apply(route::take_datums(document_.build(), state_.part, {ids.begin(), ids.end()}));
  tabs_->choose(setups_face);
  refresh();
}

void RoutePage::recover(qlonglong surface) {
  const auto plans =
      allowance::surface_plans(document_.build(), state_.piece, state_.input, state_.pose,
                               chains::aims_of(document_.build(), state_.piece, targets_.now()));
  auto* dialog = new RecoveryDialog(document_,
                                    route::recoveries(document_.build(), state_.piece, state_.input,
                                                      state_.pose, plans, surface, build::utc_now()),
                                    name_words(build::surface_name(document_.build(), surface)), window());
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->open();
}

void RoutePage::show_plans() {
  auto* dialog = new PlansDialog(document_, window());
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->open();
}

void RoutePage::ask_card() {
  const auto path = QFileDialog::getSaveFileName(this, "Save the route card", "route.pdf",
                                                 "PDF (*.pdf);;CSV (*.csv);;JSON (*.json)");
  if (path.isEmpty()) return;
  const auto wrong = save_card(path);
  emit say(wrong.isEmpty() ? filled("%1 written", path) : wrong);
}

QString RoutePage::save_card(const QString& path) const {
  if (const auto wrong = document_.is_own_file(path); !wrong.isEmpty()) return wrong;
  const auto& b = document_.build();
  sheets::RouteSheet sheet;
  document_.solids().wait_for(b, state_.part);
  route::ClashOptions look;
  const auto solid = document_.solid_of(state_.part);
  if (solid && solid->picture) look.finished = &solid->picture->solid.mesh;
  sheet.card = route::route_card(b, state_.part, state_.piece, look);
  const auto ending = QFileInfo(path).suffix().toLower();
  if (ending == "csv")
    return sheets::write_bytes(path, QByteArray::fromStdString(store::route_csv(sheet.card)));
  if (ending == "json")
    return sheets::write_bytes(path, QByteArray::fromStdString(store::route_json(sheet.card)));
  if (ending != "pdf") return filled("%1: a route is written as .pdf, .csv or .json", path);
  sheet.build = name_words(b.info().name);
  sheet.made_at = sheets::local_time(build::utc_now()).left(16);
  sheet.unit = document_.unit();
  sheet.third_angle = b.info().third_angle;
  sheet.part = part_scene(b, state_.part);
  for (const auto& setup : sheet.card.setups) {
    std::vector<int> lit;
    int row = 0;
    for (const auto& [id, unused] : b.surfaces_of(state_.part)) {
      const auto* s = b.find<build::Setup>(setup.setup);
      if (s != nullptr && build::contains(s->cuts, id)) lit.push_back(row);
      ++row;
    }
    sheet.lit.push_back(std::move(lit));
  }
  return sheets::write_route_pdf(path, sheet);
}

} // namespace datrin::app
