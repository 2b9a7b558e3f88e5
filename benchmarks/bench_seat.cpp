// How long a seat takes, beside GLPK on the linear programme that holds every touch.

#include "benchmarks/whole_lp_glpk.h"
#include "casting/seat.h"
#include "sim/pedestal.h"

#include <benchmark/benchmark.h>

using namespace datrin;

namespace {

sim::Pedestal pedestal_of(std::int64_t touches) {
  sim::PedestalOptions options;
  options.touches = static_cast<int>(touches / 7);
  options.seed = 11;
  return sim::random_pedestal(options);
}

void seat_whole(benchmark::State& state) {
  const auto pedestal = pedestal_of(state.range(0));
  casting::SeatResult result;
  for (auto _ : state) benchmark::DoNotOptimize(result = casting::seat(pedestal.input));
  state.counters["touches"] = static_cast<double>(pedestal.input.points.size());
  state.counters["least_mm"] = result.margins.least;
  state.counters["programmes"] = result.programmes;
  state.counters["rows"] = result.rows;
  state.counters["proved"] = result.check.holds;
}

/// A pose near the seat, where one programme of it starts.
Pose near_seat(const sim::Pedestal& pedestal) {
  return moved(casting::seat(pedestal.input).pose, Vec3::Zero(), {0.3, -0.2, 0.25}, {0.004, 0.003, -0.005});
}

/// One programme only, a row for every touch, as a general library is usually given it; stopped after 60 s.
void glpk_whole_programme(benchmark::State& state) {
  const auto pedestal = pedestal_of(state.range(0));
  const Pose near = near_seat(pedestal);
  reference::WholeLpResult result;
  for (auto _ : state)
    benchmark::DoNotOptimize(result = reference::seat_by_whole_lp(pedestal.input, near, 5, 1, 60));
  state.counters["touches"] = static_cast<double>(pedestal.input.points.size());
  state.counters["finished"] = result.solved;
}

/// The same programme as its dual, which suits it far better: the best a general library does with all
/// touches.
void glpk_whole_programme_as_dual(benchmark::State& state) {
  const auto pedestal = pedestal_of(state.range(0));
  const Pose near = near_seat(pedestal);
  reference::WholeLpResult result;
  for (auto _ : state) benchmark::DoNotOptimize(result = reference::whole_lp_dual(pedestal.input, near, 5));
  state.counters["touches"] = static_cast<double>(pedestal.input.points.size());
  state.counters["finished"] = result.solved;
}

/// The margins of every touch at a pose, as dragging the part by hand asks for.
void margins(benchmark::State& state) {
  const auto pedestal = pedestal_of(state.range(0));
  for (auto _ : state) benchmark::DoNotOptimize(casting::margins_at(pedestal.input, pedestal.truth));
}

} // namespace

BENCHMARK(seat_whole)->Arg(84)->Arg(10'000)->Arg(100'000)->Arg(1'000'000)->Unit(benchmark::kMillisecond);
BENCHMARK(glpk_whole_programme)
    ->Arg(84)
    ->Arg(10'000)
    ->Arg(100'000)
    ->Unit(benchmark::kMillisecond)
    ->Iterations(1);
BENCHMARK(glpk_whole_programme_as_dual)
    ->Arg(84)
    ->Arg(10'000)
    ->Arg(100'000)
    ->Unit(benchmark::kMillisecond)
    ->Iterations(1);
BENCHMARK(margins)->Arg(1'000)->Unit(benchmark::kMillisecond);

BENCHMARK_MAIN();
