#include "demo/making.h"

#include "allowance/plan.h"
#include "build/edit_casting.h"
#include "casting/expect.h"
#include "casting/judgement.h"
#include "casting/survey.h"
#include "quantity/length_text.h"
#include "quantity/tolerance.h"
#include "route/propose.h"

#include <cmath>

namespace datrin::demo {

using namespace build;

namespace {

class Making {
public:
  Making(const Build& build, const std::function<void(const Edit&)>& keep) : build_(build), keep_(keep) {}

  void run() {
    shop();
    const Id pedestal = part("Main pedestal"), cylinder = part("Cylinder block");
    dimension(pedestal, "bore", DimensionKind::size, "bore", nullptr, 27, "H7", DimensionClass::fit,
              DimensionSource::drawing, "bush pressed in later");
    dimension(pedestal, "centre height", DimensionKind::distance, "foot", "bore", 46, "ISO 2768-f",
              DimensionClass::critical, DimensionSource::mate, "as the cylinder's");
    dimension(pedestal, "over the cheeks", DimensionKind::distance, "cheek L", "cheek R", 48, "ISO 2768-m",
              DimensionClass::critical, DimensionSource::drawing, "end float of the shaft");
    dimension(pedestal, "foot length", DimensionKind::distance, "end A", "end B", 98, "ISO 2768-m",
              DimensionClass::looks, DimensionSource::chosen, "");
    dimension(cylinder, "bore", DimensionKind::size, "bore", nullptr, 31, "H7", DimensionClass::fit,
              DimensionSource::drawing, "piston turned to suit");
    dimension(cylinder, "length", DimensionKind::distance, "end A", "end B", 82, "ISO 2768-m",
              DimensionClass::critical, DimensionSource::drawing, "port timing");
    dimension(cylinder, "centre height", DimensionKind::distance, "foot", "bore", 34, "ISO 2768-f",
              DimensionClass::critical, DimensionSource::drawing, "");
    foundry(pedestal);
    foundry(cylinder);
    begin_cylinder(cylinder);
  }

private:
  Id part(const std::string& name) const {
    for (const auto& [id, p] : build_.parts())
      if (p.name == name) return id;
    return 0;
  }
  Id surface(Id of, const std::string& name) const {
    for (const auto& [id, s] : build_.surfaces_of(of))
      if (s.name == name) return id;
    return 0;
  }
  void shop() {
    std::vector<Record> records;
    Machine mill{"mill", false, Unit::mm, 0.01, "Z reads a side", 0};
    mill.kind = MachineKind::mill;
    mill.reach = 320, mill.chuck = 100, mill.shank = 20;
    mill.taper = "R8", mill.speeds = "90 160 270 450 750 1250 2100";
    Machine lathe{"lathe", true, Unit::mm, 0.02, "cross slide reads the diameter", 1};
    lathe.kind = MachineKind::lathe;
    lathe.spindle_bore = 26, lathe.swing = 230, lathe.reach = 500, lathe.chuck = 100, lathe.shank = 16;
    lathe.taper = "MT4", lathe.speeds = "60 105 170 320 540 900 1400";
    records.emplace_back(mill);
    records.emplace_back(lathe);
    Tool facing{"face mill 50", 50, 0.4, 0.1, 0, "", 0};
    facing.shank = 20;
    Tool bar{"boring bar 12", 12, 0.2, 0.02, 60, "", 1};
    bar.shank = 12;
    records.emplace_back(facing);
    records.emplace_back(bar);
    keep_(add_all(build_, std::move(records), "Fill the shop"));
  }
  Id dimension(Id of, const char* name, DimensionKind kind, const char* from, const char* to, double nominal,
               const char* tolerance, DimensionClass importance, DimensionSource source, const char* reason) {
    Dimension d;
    d.part = of;
    d.name = name;
    d.kind = kind;
    d.surface = surface(of, from);
    d.other = to ? surface(of, to) : 0;
    d.nominal = nominal;
    const std::string t = tolerance;
    if (t.starts_with("ISO 2768-")) {
      const double band = general_tolerance(GeneralOf::linear, nominal, t.back()).value_or(0);
      d.lower = -band;
      d.upper = band;
    } else if (const auto limits = iso_286(nominal, t)) {
      d.lower = limits->lower;
      d.upper = limits->upper;
    }
    d.tolerance = t;
    d.importance = importance;
    d.source = source;
    d.reason = reason;
    d.order = next_order(build_.dimensions_of(of));
    const Id id = build_.next_id();
    keep_(add(build_, d, std::string("Limits of ") + name));
    return id;
  }
  void foundry(Id of) {
    auto f = casting::foundry_or_usual(build_, of);
    f.tolerance_grade = 10;
    f.allowance = "F";
    f.process = "sand by machine";
    f.own_pattern = true;
    keep_(add(build_, f, "How " + build_.find<Part>(of)->name + " is cast"));
  }
  /// The cylinder block is on the mill: foot finished, bore roughed once.
  void begin_cylinder(Id cylinder) {
    const Id piece = build_.pieces_of(cylinder).front().first;
    const auto input = casting::piece_input(build_, piece);
    casting::SeatOptions options;
    options.start = casting::seat_or_start(build_, piece, input);
    const auto seat = casting::wished_seat(input.seat, {}, options);
    keep_(set_seat(build_, piece, seat.pose, true, "Seat Cylinder block"));
    const auto machines = build_.machines();
    const auto tools = build_.tools();
    for (const char* name : {"foot", "end A", "end B", "port face", "bore"}) {
      auto a = allowance::usual_allowance(build_, piece, surface(cylinder, name));
      const bool bore = std::string(name) == "bore";
      a.machine = machines[bore ? 1 : 0].first;
      a.tool = tools[bore ? 1 : 0].first;
      a.skin = 0.5;
      a.rough = 1.0;
      a.finish = bore ? 0.15 : 0.25;
      if (bore) {
        a.last = 0.02;
        a.last_step = LastStep::lap;
      }
      keep_(add(build_, a, std::string("Allowances for ") + name));
    }
    std::vector<Record> setups;
    Setup first{cylinder,
                "on the chest, foot to the side",
                {surface(cylinder, "port face"), surface(cylinder, "end A"), surface(cylinder, "barrel")},
                {surface(cylinder, "foot"), surface(cylinder, "end B")},
                {},
                {},
                0};
    Setup second{cylinder,
                 "on the foot",
                 {surface(cylinder, "foot"), surface(cylinder, "end B")},
                 {surface(cylinder, "bore"), surface(cylinder, "end A"), surface(cylinder, "port face")},
                 {},
                 {},
                 1};
    first.machine = second.machine = machines[0].first;
    first.holding = Workholding::clamps;
    second.holding = Workholding::angle_plate;
    first.packing = "screw jacks under the flange";
    second.packing = "parallels clear of the bore";
    for (const auto& [id, d] : build_.dimensions_of(cylinder)) second.sizes.push_back(id);
    setups.emplace_back(first);
    setups.emplace_back(second);
    keep_(add_all(build_, std::move(setups), "Two setups for the cylinder"));
    keep_(route::propose_operations(build_, cylinder));
    for (const double off : {-0.03, -0.01, -0.02, 0.01}) cut(piece, cylinder, "foot", off);
    cut(piece, cylinder, "bore", 0.02);
  }
  /// The next pass, `off` mm away from where the plan has it.
  void cut(Id piece, Id of, const char* name, double off) {
    const auto input = casting::piece_input(build_, piece);
    const auto pose = casting::seat_or_start(build_, piece, input);
    for (const auto& plan : allowance::surface_plans(build_, piece, input, pose)) {
      if (plan.surface != surface(of, name) || plan.rest.passes.empty()) continue;
      // Read to a hundredth: a face still over size, a bore its diameter.
      const auto hundredth = [](double mm) { return std::round(mm * 100) / 100; };
      double left = hundredth(plan.rest.passes.front().left + off);
      std::string read = number_text(left, 2) + " mm";
      if (const auto size = plan.size_with(left)) {
        read = number_text(hundredth(*size), 2) + " mm";
        left = allowance::left_by_reading(build_, plan, allowance::ReadingOf::size, hundredth(*size))
                   .value_or(left);
      }
      auto record = allowance::cut_of(plan, pose, left);
      record.read = read;
      record.note = allowance::pass_name(plan.rest.passes.front().kind);
      record.at = "2026-11-20T09:30:00Z";
      keep_(add(build_, record, std::string("Cut ") + name));
    }
  }

  const Build& build_;
  const std::function<void(const Edit&)>& keep_;
};

} // namespace

void add_making(const Build& build, const std::function<void(const Edit&)>& keep) {
  Making(build, keep).run();
}

} // namespace datrin::demo
