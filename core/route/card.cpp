#include "route/card.h"

#include "build/words.h"
#include "drawing/dimension_limits.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "route/clashes.h"
#include "route/fixture.h"
#include "route/propose.h"
#include "stock/part_stock.h"

#include <fmt/format.h>

#include <algorithm>

namespace datrin::route {

using namespace build;

namespace {

std::string length(double mm, Unit unit) {
  return length_text(mm, unit, {.decimals_mm = 2, .show_unit = true});
}

std::vector<std::string> datums_of(const Build& build, const Setup& setup) {
  static constexpr const char* targets[] = {"three targets", "two targets", "one target"};
  std::vector<std::string> out;
  const auto* first = setup.datums.empty() ? nullptr : build.find<PartSurface>(setup.datums.front());
  for (std::size_t k = 0; k < setup.datums.size(); ++k) {
    const bool gripped = first != nullptr && first->round();
    const char* how = gripped ? (k == 0 ? "gripped" : "one target") : targets[std::min<std::size_t>(k, 2)];
    out.push_back(fmt::format("{}, {}", surface_name(build, setup.datums[k]), how));
  }
  return out;
}

/// What is usual to say of danger where the part is held so and cut so (common practice).
void usual_cautions(const Part* part, const Setup* setup, const std::vector<const Operation*>& operations,
                    std::vector<std::string>& out) {
  const auto any = [&](std::initializer_list<OperationKind> kinds) {
    return std::any_of(operations.begin(), operations.end(), [&](const Operation* o) {
      return std::find(kinds.begin(), kinds.end(), o->kind) != kinds.end();
    });
  };
  const auto holding = setup ? setup->holding : Workholding::not_stated;
  const bool chuck = holding == Workholding::three_jaw || holding == Workholding::four_jaw ||
                     holding == Workholding::six_jaw;
  out.push_back("Eyes; guards on; the machine's own manual stands above this card.");
  if (chuck) out.push_back("Key out of the chuck; no gloves, sleeves or rags near what turns.");
  const bool turns = any({OperationKind::drill, OperationKind::mill, OperationKind::face, OperationKind::turn,
                          OperationKind::bore, OperationKind::ream, OperationKind::slit});
  if (turns && !chuck) out.push_back("No gloves, sleeves or rags near what turns.");
  if (turns) out.push_back("Swarf and fresh edges cut, and are hot: a brush, not fingers.");
  constexpr double too_far = 4; // times as far out as it is gripped (common practice)
  if (chuck && setup->grip > 0 && setup->overhang > too_far * setup->grip)
    out.push_back("It stands far out for its grip: a centre or a steady, or light cuts and slowly.");
  if (holding == Workholding::faceplate) out.push_back("Balance the faceplate and turn it once by hand.");
  if (holding == Workholding::tape)
    out.push_back("Tape lets go when warm: light cuts, a stop behind the work.");
  if (any({OperationKind::drill}))
    out.push_back("A drill grabs as it breaks through: hold the part, ease the feed.");
  if (any({OperationKind::slit}))
    out.push_back("A saw pulls itself in: cut against the feed, no play in the screw.");
  if (any({OperationKind::tap}))
    out.push_back("Stop before a tap turns back; know which way its thread goes before it cuts under power.");
  if (any({OperationKind::wait}))
    out.push_back("Paint, glue and solvents: air, no flame, gloves off the machine.");
  const auto metal = part ? lower_case(part->material) : std::string();
  if (turns && metal.find("iron") != std::string::npos)
    out.push_back("Dust of cast iron: a mask, and off the slides.");
  if (metal.find("magnesium") != std::string::npos)
    out.push_back("Magnesium burns: sharp tools, no dust left, sand at hand, never water.");
  const auto name = part ? lower_case(part->name) : std::string();
  for (const auto* word : {"boiler", "firebox", "superheater", "pressure"})
    if (name.find(word) != std::string::npos) {
      out.push_back("What holds pressure is for the boiler inspector and the local code to pass.");
      break;
    }
  if (any({OperationKind::grind})) out.push_back("Stand out of line of the wheel; dust mask.");
  if (any({OperationKind::press}))
    out.push_back(
        "Pressed parts can fly: a guard round the press. Soft hammers: hard steel on hard steel chips.");
}

} // namespace

std::string held_text(const Setup& setup, Unit unit) {
  std::string text;
  const auto add = [&](const std::string& words) { text += (text.empty() ? "" : ", ") + words; };
  if (setup.holding != Workholding::not_stated)
    add(std::string(words_of<Workholding>().first[static_cast<std::size_t>(setup.holding)]));
  if (setup.grip > 0) add(length(setup.grip, unit) + " gripped");
  if (setup.overhang > 0) add(length(setup.overhang, unit) + " out");
  if (!setup.packing.empty()) add(setup.packing);
  if (setup.stop) add("against a stop");
  return text;
}

namespace {

/// Where its fixtures take hold, and what of that is doubtful.
void say_fixtures(const Build& build, Id setup, CardSetup& into) {
  for (const Id fixture : fixtures_of(build, setup)) {
    const auto check = fixture_check(build, fixture);
    if (check.locators.empty()) continue; // a gauge, a form tool
    const auto& name = build.find<Part>(fixture)->name;
    into.held += (into.held.empty() ? "" : ", ") + name;
    for (const auto& locator : check.locators) {
      into.datums.push_back(locator.text);
      if (!locator.goes) into.cautions.push_back(locator.text);
    }
    for (const auto& torque : check.torques)
      if (!torque.held) into.cautions.push_back(torque.text);
    if (!check.tried) into.cautions.push_back(name + " was not tried yet: a reject or a bit of scrap first");
  }
}

} // namespace

bool is_turned(const Build& build, const Setup& setup) {
  if (const auto* machine = build.find<Machine>(setup.machine);
      machine && machine->kind != MachineKind::not_stated)
    return machine->kind == MachineKind::lathe;
  return setup.holding == Workholding::three_jaw || setup.holding == Workholding::four_jaw ||
         setup.holding == Workholding::six_jaw || setup.holding == Workholding::collet ||
         setup.holding == Workholding::mandrel || setup.holding == Workholding::stub ||
         setup.holding == Workholding::centres || setup.holding == Workholding::faceplate;
}

Unit machine_unit(const Build& build, const Setup& setup) {
  const auto* machine = build.find<Machine>(setup.machine);
  return machine ? machine->unit : build.info().unit;
}

RouteCard route_card(const Build& build, Id part, Id piece, const ClashOptions& look) {
  RouteCard card;
  const auto* p = build.find<Part>(part);
  if (!p) return card;
  const auto unit = build.info().unit;
  card.part = p->name;
  card.material = p->material;
  card.pieces = p->quantity;
  if (const auto stock = build.stock_of(part)) card.made_from = stock::stock_text(stock->second, unit);
  PlanOptions options;
  options.find_best = false;
  const auto plan = plan_route(build, part, options);
  const auto found = clashes(build, part, look);
  std::vector<const Operation*> here; // of the entry that is being filled
  const auto finish = [&] {
    if (!card.setups.empty())
      usual_cautions(build.find<Part>(part), build.find<Setup>(card.setups.back().setup), here,
                     card.setups.back().cautions);
    here.clear();
  };
  for (const auto& planned : plan.operations) {
    const auto& o = *build.find<Operation>(planned.id);
    if (card.setups.empty() || card.setups.back().setup != o.setup) {
      finish();
      CardSetup one;
      one.setup = o.setup;
      one.name = "on the bench";
      if (const auto* setup = build.find<Setup>(o.setup)) {
        one.name = setup->name;
        if (const auto* machine = build.find<Machine>(setup->machine)) one.machine = machine->name;
        one.held = held_text(*setup, unit);
        one.way = way_of_setup(build, *setup);
        one.lathe = is_turned(build, *setup);
        one.datums = datums_of(build, *setup);
        for (const Id id : setup->sizes)
          if (const auto* d = build.find<Dimension>(id))
            one.measure.push_back(fmt::format("{} {}", d->name, drawing::dimension_text(*d, unit)));
        for (const Id id : setup->marks) one.leave.push_back(surface_name(build, id));
        for (const auto& clash : found)
          if (clash.setup == o.setup && clash.certain) one.cautions.push_back(clash.text);
        say_fixtures(build, o.setup, one);
      }
      card.setups.push_back(std::move(one));
    }
    auto& setup = card.setups.back();
    CardOperation line;
    line.number = planned.number;
    line.what = operation_text(build, o);
    if (const auto* tool = build.find<Tool>(o.tool)) line.with = tool->name;
    line.size = o.size;
    line.minutes = o.minutes;
    for (const int k : planned.right_before)
      line.after.push_back(plan.operations[static_cast<std::size_t>(k)].number);
    const auto say = [&](const std::string& words) { line.note += (line.note.empty() ? "" : "; ") + words; };
    for (const Id needed : o.needs)
      if (const auto* made = build.find<Part>(needed)) say("with " + made->name);
    if (!o.note.empty()) say(o.note);
    if (!o.deferred.empty()) say("open: " + o.deferred);
    if (!o.until.empty()) say("back on " + o.until);
    line.done = piece != 0 && build.done_of(piece, planned.id).has_value();
    setup.minutes += o.minutes;
    card.minutes += o.minutes;
    setup.operations.push_back(std::move(line));
    here.push_back(&o);
  }
  finish();
  return card;
}

} // namespace datrin::route
