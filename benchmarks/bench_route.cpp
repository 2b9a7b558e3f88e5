// The route: an order of 40 operations beside a topological sort of the same graph by Boost.Graph (which
// finds some order, not the best); a part of the demo re-planned; whole plans; spread of 60 distances over 8
// setups beside the products of matrices of that size by Eigen; 100,000 parts by trial.
//   build/release/bin/bench-route

#include "demo/mill_engine.h"
#include "route/clashes.h"
#include "route/order.h"
#include "route/plan_route.h"
#include "route/plans.h"
#include "route/propose.h"
#include "route/spread.h"

#include <Eigen/Dense>
#include <benchmark/benchmark.h>
#include <boost/graph/adjacency_list.hpp>
#include <boost/graph/topological_sort.hpp>

#include <random>

using namespace datrin;

namespace {

route::OrderInput forty() {
  std::mt19937 random(3);
  route::OrderInput in;
  in.setup_minutes = 20, in.tool_minutes = 2;
  for (int k = 0; k < 40; ++k) {
    route::RouteStep step;
    step.id = std::to_string(10 * (k + 1));
    step.setup = "setup " + std::to_string(random() % 5);
    step.tool = "tool " + std::to_string(random() % 8);
    step.minutes = 1 + static_cast<double>(random() % 15);
    for (int j = 0; j < k; ++j)
      if (random() % 12 == 0) step.after.push_back(j);
    in.operations.push_back(step);
  }
  return in;
}

void order_of_40(benchmark::State& state) {
  const auto in = forty();
  bool proved = false;
  for (auto _ : state) {
    const auto best = route::best_order(in);
    proved = best.proved_best;
    benchmark::DoNotOptimize(best.minutes);
  }
  state.counters["proved"] = proved;
}
BENCHMARK(order_of_40)->Unit(benchmark::kMillisecond);

/// As the Route step asks it, while one types.
void order_of_40_on_screen(benchmark::State& state) {
  const auto in = forty();
  route::OrderOptions options;
  options.most_states = route::PlanOptions().most_states;
  options.beam = 100;
  double over = 0;
  for (auto _ : state) {
    const auto best = route::best_order(in, options);
    over = best.minutes / best.lower_bound - 1;
    benchmark::DoNotOptimize(best.minutes);
  }
  state.counters["over_the_bound"] = over;
}
BENCHMARK(order_of_40_on_screen)->Unit(benchmark::kMillisecond);

void some_order_by_boost(benchmark::State& state) {
  const auto in = forty();
  using Graph = boost::adjacency_list<boost::vecS, boost::vecS, boost::directedS>;
  for (auto _ : state) {
    Graph graph(in.operations.size());
    for (std::size_t k = 0; k < in.operations.size(); ++k)
      for (const int before : in.operations[k].after)
        boost::add_edge(k, static_cast<std::size_t>(before), graph);
    std::vector<std::size_t> order;
    boost::topological_sort(graph, std::back_inserter(order));
    benchmark::DoNotOptimize(order.data());
  }
}
BENCHMARK(some_order_by_boost)->Unit(benchmark::kMillisecond);

struct Pedestal {
  build::Build b = demo::mill_engine().build;
  build::Id part = b.parts().front().first;
  Pedestal() { b.apply(route::propose_operations(b, part)); }
};

void a_part_replanned(benchmark::State& state) {
  const Pedestal p;
  for (auto _ : state) {
    const auto plan = route::plan_route(p.b, p.part);
    benchmark::DoNotOptimize(plan.now.minutes);
  }
}
BENCHMARK(a_part_replanned)->Unit(benchmark::kMillisecond);

void clashes_of_a_part(benchmark::State& state) {
  const Pedestal p;
  for (auto _ : state) benchmark::DoNotOptimize(route::clashes(p.b, p.part).size());
}
BENCHMARK(clashes_of_a_part)->Unit(benchmark::kMillisecond);

void three_whole_plans(benchmark::State& state) {
  const Pedestal p;
  for (auto _ : state) benchmark::DoNotOptimize(route::best_plans(p.b, p.part).plans.size());
}
BENCHMARK(three_whole_plans)->Unit(benchmark::kMillisecond);

route::SpreadInput sixty_over_eight() {
  route::SpreadInput in;
  std::mt19937 random(5);
  std::uniform_real_distribution<double> place(-50, 50);
  for (int k = 0; k < 24; ++k)
    in.features.push_back({"f" + std::to_string(k),
                           false,
                           {place(random), place(random), place(random)},
                           Vec3::Unit(k % 3),
                           0.3});
  for (int s = 0; s < 8; ++s) {
    route::SpreadSetup setup;
    setup.id = "s" + std::to_string(s);
    const int from = s == 0 ? 0 : 3 * (s - 1);
    const Vec3 at[] = {{-40, -30, 0}, {40, -30, 0}, {0, 30, 0}, {-40, 0, 10}, {40, 0, 10}, {0, 0, 20}};
    const int along[] = {2, 2, 2, 1, 1, 0};
    for (int k = 0; k < 6; ++k)
      setup.locators.push_back({from + (along[k] == 2   ? 2
                                        : along[k] == 1 ? 1
                                                        : 0),
                                at[k], Vec3::Unit(along[k]), 0.01});
    for (int k = 0; k < 3; ++k) setup.cuts.push_back({3 * s + k, 0.01});
    in.setups.push_back(std::move(setup));
  }
  for (int k = 0; k < 60; ++k)
    in.requirements.push_back({"r" + std::to_string(k),
                               k % 24,
                               (k * 7 + 3) % 24,
                               Vec3::Unit(k % 3),
                               {place(random), place(random), place(random)}});
  return in;
}

void spread_of_60_over_8(benchmark::State& state) {
  const auto in = sixty_over_eight();
  bool usable = false;
  for (auto _ : state) {
    const auto found = route::spread(in);
    usable = found.usable();
    benchmark::DoNotOptimize(found.requirements.data());
  }
  state.counters["usable"] = usable;
}
BENCHMARK(spread_of_60_over_8)->Unit(benchmark::kMillisecond);

void matrices_of_that_size_by_eigen(benchmark::State& state) {
  const Eigen::MatrixXd to_place = Eigen::MatrixXd::Random(60, 48),
                        of_locators = Eigen::MatrixXd::Random(48, 48);
  for (auto _ : state) {
    const Eigen::MatrixXd covariance = to_place * of_locators * to_place.transpose();
    benchmark::DoNotOptimize(covariance.data());
  }
}
BENCHMARK(matrices_of_that_size_by_eigen)->Unit(benchmark::kMillisecond);

void parts_made_by_trial(benchmark::State& state) {
  const auto in = sixty_over_eight();
  constexpr int parts = 100000;
  for (auto _ : state) benchmark::DoNotOptimize(route::spread_by_trial(in, parts, 1).data());
}
BENCHMARK(parts_made_by_trial)->Unit(benchmark::kMillisecond)->Iterations(1);

} // namespace

BENCHMARK_MAIN();
