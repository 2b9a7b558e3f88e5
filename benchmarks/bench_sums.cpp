// What a person waits for at the machine: the sums that search, and a setup worked out as steps. The
// harmonics beside Eigen's least squares of the same equations.

#include "bench/sums.h"
#include "build/edits.h"
#include "demo/mill_engine.h"
#include "dividing/change_wheels.h"
#include "dividing/clock_train.h"
#include "dividing/indexing.h"
#include "steps/bench_steps.h"
#include "truing/runout.h"

#include <Eigen/QR>
#include <benchmark/benchmark.h>

#include <cmath>

using namespace datrin;

namespace {

std::vector<truing::RunoutReading> readings(std::int64_t count) {
  std::vector<truing::RunoutReading> list;
  for (std::int64_t k = 0; k < count; ++k) {
    const double at = 2 * pi * static_cast<double>(k) / static_cast<double>(count);
    list.push_back({at, 0.05 * std::cos(at - 0.4) + 0.01 * std::cos(2 * at) + 0.002 * std::sin(17 * at)});
  }
  return list;
}

void harmonics(benchmark::State& state) {
  const truing::RunoutInput in{readings(state.range(0))};
  for (auto _ : state) benchmark::DoNotOptimize(truing::runout(in));
}

void harmonics_by_eigen(benchmark::State& state) {
  const auto list = readings(state.range(0));
  for (auto _ : state) {
    Eigen::MatrixXd a(static_cast<Eigen::Index>(list.size()), 5);
    Eigen::VectorXd b(static_cast<Eigen::Index>(list.size()));
    for (std::size_t k = 0; k < list.size(); ++k) {
      const double at = list[k].at;
      a.row(static_cast<Eigen::Index>(k)) << 1, std::cos(at), std::sin(at), std::cos(2 * at),
          std::sin(2 * at);
      b(static_cast<Eigen::Index>(k)) = list[k].value;
    }
    benchmark::DoNotOptimize(a.colPivHouseholderQr().solve(b).eval());
  }
}

/// 127 divisions: on no circle exactly; on two, and by change wheels.
void indexing(benchmark::State& state) {
  dividing::IndexingInput in;
  in.divisions = static_cast<int>(state.range(0));
  in.plates = {15, 16, 17, 18, 19, 20, 21, 23, 27, 29, 31, 33, 37, 39, 41, 43, 47, 49};
  if (state.range(1)) in.wheels = {24, 24, 28, 32, 40, 44, 48, 56, 64, 72, 86, 100};
  for (auto _ : state) benchmark::DoNotOptimize(dividing::indexing(in));
}

void change_wheels(benchmark::State& state) {
  dividing::ChangeWheelsInput in;
  in.ratio = 1.5 / (25.4 / 8); // a pitch of 1.5 mm by a leadscrew of 8 to the inch: no 127 there
  in.wheels = {20, 20, 25, 30, 35, 38, 40, 45, 50, 55, 60, 65, 70, 75, 80};
  in.most_pairs = static_cast<std::size_t>(state.range(0));
  for (auto _ : state) benchmark::DoNotOptimize(dividing::change_wheels(in));
}

void clock_train(benchmark::State& state) {
  dividing::ClockTrainInput in;
  in.beats_an_hour = 7387; // of no easy factors
  in.pinions = {7, 8, 10, 12};
  in.stages = static_cast<int>(state.range(0));
  for (auto _ : state) benchmark::DoNotOptimize(dividing::clock_train(in));
}

/// Blocks of a set of 46.
void gauge_stack(benchmark::State& state) {
  const auto* sum = bench::sum_called("gauge-stack");
  std::string blocks = "1.005";
  for (int k = 1; k <= 9; ++k)
    blocks += " 1.00" + std::to_string(k) + " 1.0" + std::to_string(k) + " 1." + std::to_string(k);
  for (int k = 1; k <= 9; ++k) blocks += " " + std::to_string(k);
  for (int k = 1; k <= 10; ++k) blocks += " " + std::to_string(10 * k);
  const std::vector<bench::SumValue> values{{true, 47.873, {}}, {true, 0, blocks}};
  if (!bench::answer(*sum, values).ok) state.SkipWithError("no stack");
  for (auto _ : state) benchmark::DoNotOptimize(bench::answer(*sum, values));
}

void steps_of_a_setup(benchmark::State& state) {
  const auto demo = demo::mill_engine();
  steps::BenchInput in;
  for (const auto& [id, s] : demo.build.all<build::Setup>()) in.setup = id;
  in.piece = demo.build.pieces_of(demo.build.find<build::Setup>(in.setup)->part).front().first;
  in.plans = allowance::surface_plans(demo.build, in.piece, casting::piece_input(demo.build, in.piece), {});
  if (steps::bench_steps(demo.build, in).size() < 10) state.SkipWithError("no steps");
  for (auto _ : state) benchmark::DoNotOptimize(steps::bench_steps(demo.build, in));
}

} // namespace

BENCHMARK(harmonics)->Arg(4)->Arg(72)->Unit(benchmark::kMicrosecond);
BENCHMARK(harmonics_by_eigen)->Arg(72)->Unit(benchmark::kMicrosecond);
BENCHMARK(indexing)
    ->ArgNames({"divisions", "wheels"})
    ->Args({28, 0})
    ->Args({127, 0})
    ->Args({127, 1})
    ->Unit(benchmark::kMillisecond);
BENCHMARK(change_wheels)->ArgName("pairs")->Arg(2)->Arg(3)->Unit(benchmark::kMillisecond);
BENCHMARK(clock_train)->ArgName("pairs")->Arg(2)->Arg(3)->Unit(benchmark::kMillisecond);
BENCHMARK(gauge_stack)->Unit(benchmark::kMillisecond);
BENCHMARK(steps_of_a_setup)->Unit(benchmark::kMillisecond);

BENCHMARK_MAIN();
