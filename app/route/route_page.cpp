#include "app/route/route_page.h"

#include "allowance/plan.h"
#include "app/theme.h"
#include "chains/aims.h"
#include "route/suggest_setups.h"

namespace datrin::app {

RoutePage::RoutePage(Document& document, TargetsState& targets)
    : Page(document, Step::route), targets_(targets), canvas_(new PartCanvas),
      datums_(new DatumPanel(document)), setups_(new SetupPanel(document)),
      spread_(new SpreadPanel(document)), tables_(new QStackedWidget) {
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
  tables_->addWidget(spread_->table());
  column->addWidget(tables_, 36);
  put_faces({datums_, setups_, setups_->gate(), spread_});
  connect(datums_, &DatumPanel::chosen, this, [this] { show_canvas(); });
  connect(datums_, &DatumPanel::take, this, &RoutePage::take_datums);
  connect(tabs_, &Tabs::changed, this, [this](int k) {
    tables_->setCurrentIndex(k == datums_face ? 0 : k == spread_face ? 2 : 1);
    if (k == spread_face) spread_->refresh();
    show_canvas();
  });
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
  show_canvas();
}

void RoutePage::show_canvas() {
  auto scene = piece_scene(document_.build(), state_, state_.pose);
  if (tabs_->chosen() == datums_face) scene.spots = datums_->target_spots();
  canvas_->set_unit(document_.unit());
  canvas_->set_scene(std::move(scene), document_.build().info().third_angle);
}

void RoutePage::take_datums(const std::vector<long>& ids) {
  document_.apply(route::take_datums(document_.build(), state_.part, {ids.begin(), ids.end()}));
  tabs_->choose(setups_face);
  refresh();
}

} // namespace datrin::app
