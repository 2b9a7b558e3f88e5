#include "steps/zeros.h"

#include "build/rows.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>

namespace datrin::steps {

using namespace build;

namespace {

const Machine* machine_of(const Build& build, const BenchInput& in) {
  const auto* setup = build.find<Setup>(in.setup);
  return setup ? build.find<Machine>(setup->machine) : nullptr;
}

} // namespace

std::vector<double> touches_in(const std::string& text) {
  std::vector<double> touches;
  for (const auto word : words_of(text)) {
    double mm = 0;
    std::from_chars(word.data(), word.data() + word.size(), mm);
    touches.push_back(mm);
  }
  return touches;
}

void add_touch(std::string& touches, double mm) {
  touches += fmt::format("{}{:.5f}", touches.empty() ? "" : " ", mm);
}

TouchedPoints points_in(const BenchZero& zero) {
  const auto own = touches_in(zero.touches), across = touches_in(zero.across);
  return zero.axis == MachineAxis::x ? TouchedPoints{own, across} : TouchedPoints{across, own};
}

std::size_t axis_of(const BenchStep& step) {
  return step.axis == "X" ? 0 : step.axis == "Y" ? 1 : 2;
}

double last_figure(const Build& build, const BenchInput& input) {
  const auto* machine = machine_of(build, input);
  return machine ? machine->resolution : Machine{}.resolution;
}

std::optional<std::pair<Id, BenchZero>> zero_now(const Build& build, const BenchInput& input,
                                                 std::size_t axis, Id datum, Id operation) {
  const auto all = build.bench_zeros_of(input.piece, input.setup);
  const auto last = [&](Id of_operation) {
    return std::find_if(all.rbegin(), all.rend(), [&](const auto& z) {
      return z.second.axis == static_cast<MachineAxis>(axis) && z.second.datum == datum &&
             z.second.operation == of_operation && !z.second.lost;
    });
  };
  auto found = last(operation);
  if (found == all.rend()) found = last(0); // up to format 13 nothing said with whose tool Z was set
  return found == all.rend() ? std::nullopt : std::optional(*found);
}

double axis_sense(const Build& build, const BenchInput& input, std::size_t axis) {
  const auto* machine = machine_of(build, input);
  const auto reversed = machine ? lower_case(machine->reversed) : std::string();
  return reversed.find(lower_case(axis_names[axis])) != std::string::npos ? -1 : 1;
}

Counting counting(const Build& build, const BenchInput& input, std::size_t axis, Id datum, Id operation) {
  Counting count;
  count.sense = axis_sense(build, input, axis);
  const auto now = zero_now(build, input, axis, datum, operation);
  if (!now || !now->second.found) return count;
  count.shows = now->second.shows;
  count.uncertainty = now->second.uncertainty;
  count.turn = now->second.turn;
  count.found = true;
  return count;
}

double finder_across(const Build& build, const BenchInput& input, double usual) {
  if (const auto here = build.bench_place_of(input.piece, input.setup); here && here->second.finder > 0)
    return here->second.finder;
  const BenchPlace* last = nullptr;
  for (const auto& [id, place] : build.all<BenchPlace>())
    if (place.finder > 0 && (!last || place.at > last->at)) last = build.find<BenchPlace>(id);
  return last ? last->finder : usual;
}

Edit height_found(const Build& build, const BenchInput& input, const BenchStep& step, double shows,
                  const std::string& at) {
  BenchZero zero;
  zero.piece = input.piece;
  zero.setup = input.setup;
  zero.axis = MachineAxis::z;
  zero.datum = step.surface;
  zero.operation = step.operation;
  add_touch(zero.touches, shows);
  zero.shows = shows - step.number.value_or(0);
  zero.uncertainty = last_figure(build, input);
  zero.found = true;
  zero.at = at;
  Rows rows(build);
  rows.add(zero);
  return rows.edit("Set Z" + (step.datum.empty() ? "" : " on " + step.datum));
}

Edit lose_zero(const Build& build, const BenchInput& input, const BenchStep& step, const std::string& at) {
  if (step.axis.empty()) return {};
  Rows rows(build);
  bool any = false;
  const auto axis = axis_of(step);
  // Z is set with every tool: it leaves no record but that it was; nor does a touch that was left out.
  if (const auto place = build.bench_place_of(input.piece, input.setup)) {
    const auto key = axis == 2 ? fmt::format("zero-z-{}", step.operation) : std::string("zero-");
    auto kept = place->second;
    kept.passed.clear();
    for (const auto word : words_of(place->second.passed))
      if (axis == 2 ? word != key : !word.starts_with(key) || word.starts_with("zero-z"))
        kept.passed += (kept.passed.empty() ? "" : " ") + std::string(word);
    any = axis == 2 && kept.passed != place->second.passed;
    kept.at = at;
    if (kept.passed != place->second.passed) rows.set(place->first, kept);
  }
  const auto zeros = build.bench_zeros_of(input.piece, input.setup);
  const auto now = [&](const BenchZero& z) {
    return !z.lost && (axis == 2 ? z.axis == MachineAxis::z && z.operation == step.operation
                                 : z.axis == static_cast<MachineAxis>(axis));
  };
  // X and Y that were found together are lost together, and found together again.
  const bool together = axis != 2 && std::any_of(zeros.begin(), zeros.end(), [&](const auto& z) {
                          return now(z.second) && z.second.both_axes;
                        });
  std::optional<BenchZero> anew;
  for (const auto& [id, z] : zeros) {
    const bool with_it = together && !z.lost && z.both_axes && z.axis != MachineAxis::z;
    if (!now(z) && !with_it) continue;
    if (z.both_axes && !anew) anew = z;
    auto lost = z;
    lost.lost = true;
    lost.at = at;
    rows.set(id, lost);
    any = true;
  }
  if (anew) {
    BenchZero fresh;
    fresh.piece = anew->piece, fresh.setup = anew->setup, fresh.axis = anew->axis, fresh.datum = anew->datum;
    fresh.both_axes = true;
    fresh.at = at;
    rows.add(fresh);
  }
  return any ? rows.edit(fmt::format("Find {} again", together ? std::string("X and Y") : step.axis))
             : Edit{};
}

} // namespace datrin::steps
