#include "app/joints/work_panel.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "build/edits.h"
#include "chains/bearing_rings.h"
#include "fits/heat.h"
#include "fits/metal_of.h"
#include "fits/press.h"
#include "fits/purpose.h"
#include "fits/taper_fit.h"
#include "sheets/figures.h"
#include "threads/threads.h"

#include <cmath>

namespace datrin::app {

using build::JointPurpose;
using sheets::fine_figure;
using sheets::fit_figure;
using sheets::qt;

WorkPanel::WorkPanel(Document& document, TargetsState& targets, QWidget* parent)
    : QWidget(parent), document_(document), targets_(targets),
      temperature_(text_field("Temperature at work, degrees Celsius")), length_(new LengthField("Engaged")),
      hub_(new LengthField("Hub outside")), bore_(new LengthField("Shaft's bore")),
      apart_(new QCheckBox("must come apart")), through_(new QCheckBox("bore must stay free")),
      looks_(new QCheckBox("the face is looked at")), heat_(words_label()),
      press_heading_(heading_label("Held by the fit")), press_(words_label()), methods_(new QListWidget) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(4);
  column->addWidget(heading_label("At work"));
  column->addWidget(labelled("\u00B0C", temperature_, 84));
  column->addWidget(heat_);
  column->addWidget(hairline());
  column->addWidget(press_heading_);
  for (auto* field : {length_, hub_, bore_}) {
    field->set_label_width(theme().ipx(84));
    field->set_compact();
    field->set_rule(must_not_be_negative);
    column->addWidget(field);
  }
  column->addWidget(press_);
  column->addWidget(hairline());
  column->addWidget(heading_label("How to hold it"));
  for (auto* box : {apart_, through_, looks_}) column->addWidget(box);
  methods_->setAccessibleName("Ways of holding it");
  methods_->setWordWrap(true);
  methods_->setMinimumHeight(theme().ipx(150));
  column->addWidget(methods_, 1);
  connect_fields();
}

void WorkPanel::connect_fields() {
  connect(temperature_, &QLineEdit::editingFinished, this, [this] {
    if (!temperature_->isModified()) return;
    temperature_->setModified(false);
    const auto celsius = typed_celsius(temperature_->text());
    if (!celsius) {
      temperature_->setModified(true); // it stays there to be mended
      heat_->setText("Write a temperature in degrees Celsius, like 90.");
      colour_label(heat_, theme().gone);
      return;
    }
    emit temperature_wanted(*celsius);
  });
  const auto length = [this](LengthField* field, double build::Joint::*into, const char* what) {
    connect(field, &LengthField::committed, this, [this, into, what](double mm) {
      auto changed = state_.joint;
      changed.*into = mm;
      keep(changed, what);
    });
  };
  length(length_, &build::Joint::length, "Engaged length");
  length(hub_, &build::Joint::hub_outside, "Outside of the hub");
  length(bore_, &build::Joint::shaft_bore, "Bore of the shaft");
  const auto tick = [this](QCheckBox* box, bool build::Joint::*into) {
    on_tick(box, this, [this, into](bool on) {
      auto changed = state_.joint;
      changed.*into = on;
      keep(changed, "What is asked");
    });
  };
  tick(apart_, &build::Joint::comes_apart);
  tick(through_, &build::Joint::through);
  tick(looks_, &build::Joint::looks);
  connect(methods_, &QListWidget::itemActivated, this, [this](QListWidgetItem* item) {
    auto changed = state_.joint;
    changed.method = item->data(Qt::UserRole).toString().toStdString();
    keep(changed, "Way of holding");
  });
}

void WorkPanel::keep(const build::Joint& changed, const QString& what) {
  if (state_.id != 0)
    document_.apply(build::change(document_.build(), state_.id, changed, what.toStdString()));
}

void WorkPanel::show_state(const JointState& state, double temperature) {
  const bool another = state.id != state_.id;
  state_ = state;
  setEnabled(state.id != 0);
  const auto unit = document_.unit();
  if (!temperature_->isModified() || another) temperature_->setText(qt(number_text(temperature, 0)));
  length_->set_value(state.joint.length, unit, state.id);
  hub_->set_value(state.joint.hub_outside, unit, state.id);
  bore_->set_value(state.joint.shaft_bore, unit, state.id);
  show_tick(apart_, state.joint.comes_apart);
  show_tick(through_, state.joint.through);
  show_tick(looks_, state.joint.looks);
  const auto& targets = targets_.now();
  double clearance = 0, spread = 0;
  if (state.usable() && targets.result.usable()) {
    const auto& condition = targets.result.conditions[static_cast<std::size_t>(state.condition)];
    clearance = condition.expected - state.major;
    spread = condition.spread;
  }
  const auto& b = document_.build();
  const auto* hole = b.find<build::Dimension>(state.joint.hole);
  colour_label(heat_, theme().ink);
  if (hole == nullptr || state.joint.shaft == 0) {
    heat_->setText("Temperature says nothing about a hole over a thread.");
  } else {
    fits::HeatInput in{hole->nominal, clearance,  hole_metal(b, state.joint), shaft_metal(b, state.joint),
                       temperature,   temperature};
    const auto hot = fits::clearance_hot(in);
    if (!hot.ok) {
      heat_->setText(
          in.hole == nullptr || in.shaft == nullptr
              ? QString("State the material of both parts in the Drawing step: then it is said here what "
                        "clearance is left when hot.")
              : qt(hot.message) + ".");
      if (in.hole != nullptr && in.shaft != nullptr) colour_label(heat_, theme().gone);
    } else {
      const auto words = [&](double c) {
        return QString("%1 %2 of %3")
            .arg(fine_figure(std::abs(c), unit), sheets::fine_unit(unit),
                 c < 0 ? "interference" : "clearance");
      };
      QString text = QString("A %1 shaft in %2: %3 at 20\u202F\u00B0C")
                         .arg(name_words(in.shaft->name), name_words(in.hole->name), words(clearance));
      if (std::abs(temperature - 20) > 0.5)
        text += QString(", %1 at %2\u202F\u00B0C").arg(words(hot.clearance), qt(number_text(temperature, 0)));
      heat_->setText(text + ".");
    }
  }
  const bool bearing = state.joint.purpose == JointPurpose::bearing_housing ||
                       state.joint.purpose == JointPurpose::bearing_shaft;
  const bool thread = fits::is_over_a_thread(state.joint.purpose);
  const auto taper = taper_words();
  press_heading_->setText(bearing            ? "INSIDE THE BEARING"
                          : thread           ? "DRILLS"
                          : !taper.isEmpty() ? "HELD BY THE TAPER"
                                             : "HELD BY THE FIT");
  hub_->setVisible(!bearing && !thread);
  bore_->setVisible(!thread);
  press_->setText(bearing            ? bearing_words()
                  : thread           ? thread_words()
                  : !taper.isEmpty() ? taper
                                     : press_words(clearance, spread));
  show_methods();
}

QString WorkPanel::press_words(double clearance, double spread) const {
  const auto& b = document_.build();
  const auto* hole = b.find<build::Dimension>(state_.joint.hole);
  if (hole == nullptr) return {};
  const auto* hub = hole_metal(b, state_.joint);
  const auto* shaft = shaft_metal(b, state_.joint);
  if (!(clearance < 0)) return "There is clearance: the fit itself holds nothing.";
  if (hub == nullptr || shaft == nullptr) return "State the materials of both parts first.";
  if (!(state_.joint.hub_outside > 0))
    return "Say how large the hub is outside: then its pressure and stress are worked out.";
  fits::PressInput in;
  in.diameter = hole->nominal;
  in.hub_outside = state_.joint.hub_outside;
  in.shaft_bore = state_.joint.shaft_bore;
  in.length = state_.joint.length;
  in.interference = -clearance;
  in.hub = hub;
  in.shaft = shaft;
  in.unit = document_.unit();
  const auto r = fits::press(in);
  if (!r.usable()) return qt(r.message) + ".";
  const auto n = [](double v, int decimals = 0) { return qt(number_text(v, decimals)); };
  QStringList lines;
  const auto fine = [this](double mm) { return qt(fine_text(mm, document_.unit())); };
  lines << QString("%1 of interference, %2 of it lost to roughness.").arg(fine(-clearance), fine(r.loss));
  lines << QString("Pressure %1 N/mm\u00B2; the hub pulls %2, the shaft is pressed %3 N/mm\u00B2.")
               .arg(n(r.pressure, 1), n(r.hub_hoop), n(-r.shaft_hoop));
  lines << qt(r.verdict);
  if (in.length > 0)
    lines << QString("Pushes on with about %1 N, slips at %2 N or %3 Nm (\u00B5 %4, dry).")
                 .arg(n(r.push_force), n(r.push_force), n(r.torque / 1000, 2), n(r.friction, 2));
  // It must go together also when both come out at the tight end of what is held.
  const auto assembly = fits::assembly({hole->nominal, spread - clearance, 0, hub, shaft, -18});
  if (assembly.ok)
    lines << QString("For the most there may be, %1: ").arg(fine(spread - clearance)) + qt(assembly.verdict);
  lines << "A press throws a part that slips: guard, in line, never by hand held work. The machine's manual "
           "stands above this.";
  return lines.join("\n");
}

/// Empty where neither of the two is drawn as a cone.
QString WorkPanel::taper_words() const {
  const auto& b = document_.build();
  const auto half_angle = [&b](build::Id dimension) {
    const auto* d = b.find<build::Dimension>(dimension);
    const auto* s = d ? b.find<build::PartSurface>(d->surface) : nullptr;
    return s != nullptr && is_cone(s->kind) ? s->half_angle : 0;
  };
  const double hole = half_angle(state_.joint.hole), shaft = half_angle(state_.joint.shaft);
  const auto& targets = targets_.now();
  if (!(hole > 0 || shaft > 0) || !state_.usable() || !targets.result.usable()) return {};
  const auto size = [&targets](const chains::Made& made) {
    const auto k = targets.index_of(made);
    if (k < 0) return 0.0;
    const auto* target = targets.result.target(k);
    const auto& d = targets.input.dimensions[static_cast<std::size_t>(k)];
    return target ? target->make : d.measured.value_or(d.nominal);
  };
  fits::TaperFitInput in;
  in.hole = size(state_.hole);
  in.shaft = size(state_.shaft);
  in.half_angle = hole > 0 ? hole : shaft;
  in.shaft_half_angle = shaft;
  in.length = state_.joint.length;
  in.wanted_least = state_.joint.least;
  in.wanted_most = state_.joint.most;
  in.unit = document_.unit();
  const auto fit = fits::taper_fit(in);
  return qt(fit.usable() ? fit.words : fit.message);
}

QString WorkPanel::bearing_words() const {
  auto rings = chains::bearing_rings(document_.build(), targets_.now(), state_.joint);
  if (!rings.message.empty()) return qt(rings.message);
  rings.input.unit = document_.unit();
  const auto r = fits::bearing_clearance(rings.input);
  if (!r.ok) return qt(r.message) + ".";
  const auto fine = [this](double mm) { return qt(fine_text(mm, document_.unit())); };
  return QString("%1 to %2 before fitting (normal class). The shaft takes %3, the housing %4, the "
                 "warm inner ring %5.\n%6")
      .arg(fine(r.before_least), fine(r.before_most), fine(r.inner_grows), fine(r.outer_shrinks),
           fine(r.by_heat), qt(r.verdict));
}

QString WorkPanel::thread_words() const {
  const auto found = threads::find(state_.joint.thread);
  if (found.thread == nullptr) return qt(found.message) + ".";
  const auto& t = *found.thread;
  threads::TapInput in{t};
  in.engaged = state_.joint.length;
  in.full_thread = state_.joint.length;
  in.drawer = document_.unit();
  const auto plan = threads::plan_tap(in);
  if (!plan.ok) return qt(plan.message) + ".";
  const auto unit = document_.unit();
  QStringList lines;
  for (const auto& line : threads::tap_words(in, plan, unit)) lines << qt(line);
  const auto& targets = targets_.now();
  if (state_.joint.purpose == JointPurpose::thread && state_.usable() && targets.result.usable()) {
    const double hole = targets.result.conditions[static_cast<std::size_t>(state_.condition)].expected;
    lines << QString("The hole at %1 leaves %2 % of thread.")
                 .arg(fit_figure(hole, unit), qt(number_text(t.percent_of(hole), 0)));
  }
  return lines.join("\n");
}

void WorkPanel::show_methods() {
  methods_->clear();
  if (state_.id == 0) return;
  const auto& joint = state_.joint;
  fits::MethodInput asked{joint.comes_apart, joint.through, joint.looks, joint.temperature, document_.unit()};
  if (joint.shaft != 0) asked.least = joint.least;
  for (const auto& m : fits::methods(asked)) {
    const bool chosen = m.name == state_.joint.method;
    auto* item = new QListWidgetItem((chosen ? "\u25B8 " : "") + name_words(m.name) +
                                     (m.why_not.empty() ? ": " + qt(m.note) : ": no, " + qt(m.why_not)));
    item->setData(Qt::UserRole, whole(m.name));
    if (!m.why_not.empty()) item->setForeground(theme().muted);
    methods_->addItem(item);
  }
}

} // namespace datrin::app
