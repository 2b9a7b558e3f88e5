// The answers of the drawing, allowance and route steps for a piece with 500 touches and 100 dimensions: each
// must come while one types (aim 50 ms). As-cast fits stand beside a plain least squares of the same size by
// Eigen.
//   build/release/bin/bench-stock

#include "allowance/plan.h"
#include "build/edits.h"
#include "casting/as_cast.h"
#include "casting/expect.h"
#include "casting/first_datum.h"
#include "casting/resting.h"
#include "casting/survey.h"
#include "demo/mill_engine.h"
#include "drawing/contradictions.h"
#include "route/gate.h"

#include <Eigen/Dense>
#include <benchmark/benchmark.h>

#include <random>

using namespace datrin;
using namespace datrin::build;

namespace {

struct Piece500 {
  Build b;
  Id part = 0, piece = 0;
  casting::PieceInput input;
  Pose pose;

  Piece500() {
    b = demo::mill_engine().build;
    for (const auto& [id, p] : b.parts())
      if (p.name == "Cylinder block") part = id;
    piece = b.pieces_of(part).front().first;
    const auto touches = b.touches_of(piece);
    std::mt19937 random(1);
    std::normal_distribution<double> rough(0, 0.1);
    std::vector<Record> more;
    while (touches.size() + more.size() < 500) {
      auto t = touches[more.size() % touches.size()].second;
      t.centre += Vec3(rough(random), rough(random), rough(random));
      more.emplace_back(t);
    }
    b.apply(add_all(b, std::move(more), "more"));
    std::vector<Record> dimensions;
    const auto surfaces = b.surfaces_of(part);
    for (int k = 0; k < 100; ++k) {
      Dimension d;
      d.part = part;
      d.name = "d" + std::to_string(k);
      d.kind = DimensionKind::distance;
      d.surface = surfaces[static_cast<std::size_t>(k) % surfaces.size()].first;
      d.other = surfaces[static_cast<std::size_t>(7 * k + 1) % surfaces.size()].first;
      d.nominal = 10;
      dimensions.emplace_back(d);
    }
    b.apply(add_all(b, std::move(dimensions), "dimensions"));
    input = casting::piece_input(b, piece);
    pose = casting::seat_or_start(b, piece, input);
  }
};

const Piece500& piece() {
  static const Piece500 p;
  return p;
}

void plans(benchmark::State& state) {
  const auto& p = piece();
  for (auto _ : state) benchmark::DoNotOptimize(allowance::surface_plans(p.b, p.piece, p.input, p.pose));
}
BENCHMARK(plans)->Unit(benchmark::kMillisecond);

void gate(benchmark::State& state) {
  const auto& p = piece();
  const auto all = allowance::surface_plans(p.b, p.piece, p.input, p.pose);
  const auto setup = p.b.setups_of(p.part).front().first;
  for (auto _ : state) benchmark::DoNotOptimize(route::unclamp_gate(p.b, p.piece, setup, all));
}
BENCHMARK(gate)->Unit(benchmark::kMillisecond);

void contradictions(benchmark::State& state) {
  const auto& p = piece();
  for (auto _ : state) benchmark::DoNotOptimize(drawing::contradictions(p.b, p.part));
}
BENCHMARK(contradictions)->Unit(benchmark::kMillisecond);

void expected(benchmark::State& state) {
  const auto& p = piece();
  const auto foundry = casting::foundry_or_usual(p.b, p.part);
  for (auto _ : state) benchmark::DoNotOptimize(casting::expect_casting(p.b, p.part, foundry));
}
BENCHMARK(expected)->Unit(benchmark::kMillisecond);

void as_cast(benchmark::State& state) {
  const auto& p = piece();
  for (auto _ : state) benchmark::DoNotOptimize(casting::as_cast(p.input.seat, p.pose));
}
BENCHMARK(as_cast)->Unit(benchmark::kMillisecond);

/// The same work in bare algebra: eight steps of a six-column least squares over 500 rows.
void as_cast_eigen(benchmark::State& state) {
  const Eigen::MatrixXd a = Eigen::MatrixXd::Random(500, 6);
  const Eigen::VectorXd b = Eigen::VectorXd::Random(500);
  for (auto _ : state)
    for (int k = 0; k < 8; ++k) benchmark::DoNotOptimize(Eigen::VectorXd(a.colPivHouseholderQr().solve(b)));
}
BENCHMARK(as_cast_eigen)->Unit(benchmark::kMillisecond);

void resting(benchmark::State& state) {
  casting::RestingInput in;
  std::mt19937 random(2);
  std::normal_distribution<double> normal;
  for (int k = 0; k < 500; ++k)
    in.points.emplace_back(40 * normal(random), 30 * normal(random), 0.2 * normal(random));
  in.centroid = {0, 0, 30};
  for (auto _ : state) benchmark::DoNotOptimize(casting::rest_on(in));
}
BENCHMARK(resting)->Unit(benchmark::kMillisecond);

void first_datums(benchmark::State& state) {
  casting::FirstDatumInput in;
  for (const auto& [id, s] : piece().b.surfaces_of(piece().part)) {
    casting::DatumSurface d;
    d.name = s.name;
    d.shape = s.shape();
    d.width = s.width > 0 ? s.width : 20;
    d.height = s.height > 0 ? s.height : 20;
    d.as_cast = s.kind != SurfaceKind::bore;
    d.to_machine = s.machined;
    in.surfaces.push_back(d);
  }
  for (auto _ : state) benchmark::DoNotOptimize(casting::first_datums(in));
}
BENCHMARK(first_datums)->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
