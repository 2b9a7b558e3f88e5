// Targets, chains and the joints of a whole build, beside GLPK and the plain way.
//   build/release/bin/bench-joints
// The sums of a chain by NumPy: python3 benchmarks/chain_numpy.py

#include "app/overview/map_view.h"
#include "app/shell/main_window.h"
#include "build/edits.h"
#include "chains/build_targets.h"
#include "chains/chain.h"
#include "sim/random_targets.h"

#include <QApplication>
#include <QTemporaryDir>
#include <benchmark/benchmark.h>
#include <glpk.h>

#include <cmath>
#include <random>

using namespace datrin;
using namespace datrin::chains;

namespace {

void lexicographic_targets(benchmark::State& state) {
  const auto in = sim::random_targets(3, static_cast<int>(state.range(0)), static_cast<int>(state.range(1)));
  int programmes = 0;
  for (auto _ : state) {
    const auto result = targets(in);
    programmes = result.programmes;
    benchmark::DoNotOptimize(result.least_room);
  }
  state.counters["programmes"] = programmes;
}
BENCHMARK(lexicographic_targets)->Args({100, 60})->Args({1000, 600})->Unit(benchmark::kMillisecond);

/// GLPK, the first level alone: the least room, one linear programme.
void first_level_glpk(benchmark::State& state) {
  const auto in = sim::random_targets(3, static_cast<int>(state.range(0)), static_cast<int>(state.range(1)));
  glp_term_out(GLP_OFF);
  for (auto _ : state) {
    glp_prob* lp = glp_create_prob();
    glp_set_obj_dir(lp, GLP_MAX);
    std::vector<int> column(in.dimensions.size(), 0);
    int n = 0;
    for (std::size_t d = 0; d < column.size(); ++d)
      if (!in.dimensions[d].measured) column[d] = ++n;
    glp_add_cols(lp, n + 1);
    for (int j = 1; j <= n + 1; ++j) glp_set_col_bnds(lp, j, GLP_FR, 0, 0);
    glp_set_obj_coef(lp, n + 1, 1);
    const auto row = [&](std::vector<std::pair<int, double>> terms, double bound) {
      const int i = glp_add_rows(lp, 1);
      std::vector<int> index{0};
      std::vector<double> value{0};
      terms.emplace_back(n + 1, -1);
      for (const auto& [j, a] : terms) {
        index.push_back(j);
        value.push_back(a);
      }
      glp_set_mat_row(lp, i, static_cast<int>(terms.size()), index.data(), value.data());
      glp_set_row_bnds(lp, i, GLP_LO, bound, 0);
    };
    for (const auto& c : in.conditions) {
      double spread = 0, known = 0;
      std::vector<double> slope(static_cast<std::size_t>(n) + 1, 0.0);
      for (const auto& t : c.terms) {
        const auto& d = in.dimensions[static_cast<std::size_t>(t.dimension)];
        spread += std::abs(t.coefficient) * d.spread();
        if (d.measured)
          known += t.coefficient * *d.measured;
        else
          slope[static_cast<std::size_t>(column[static_cast<std::size_t>(t.dimension)])] += t.coefficient;
      }
      for (const double sign : {1.0, -1.0}) {
        std::vector<std::pair<int, double>> terms;
        for (int j = 1; j <= n; ++j)
          if (slope[static_cast<std::size_t>(j)] != 0)
            terms.emplace_back(j, sign * slope[static_cast<std::size_t>(j)] / spread);
        row(terms, (sign > 0 ? c.least - known : known - c.most) / spread);
      }
    }
    for (std::size_t d = 0; d < column.size(); ++d) {
      if (column[d] == 0) continue;
      const auto& x = in.dimensions[d];
      row({{column[d], 1 / x.capability}}, x.lower / x.capability);
      row({{column[d], -1 / x.capability}}, -x.upper / x.capability);
    }
    glp_smcp how;
    glp_init_smcp(&how);
    how.msg_lev = GLP_MSG_OFF;
    glp_simplex(lp, &how);
    benchmark::DoNotOptimize(glp_get_obj_val(lp));
    glp_delete_prob(lp);
  }
}
BENCHMARK(first_level_glpk)->Args({100, 60})->Args({1000, 600})->Unit(benchmark::kMillisecond);

ChainInput twenty(Distribution distribution) {
  ChainInput in;
  for (int k = 0; k < 20; ++k) {
    ChainLink link;
    link.id = "l" + std::to_string(k);
    link.coefficient = k % 2 == 0 ? 1 : -1;
    link.nominal = 10;
    link.plus = link.minus = 0.02;
    link.distribution = distribution;
    in.links.push_back(link);
  }
  in.lower = -0.1;
  in.upper = 0.1;
  return in;
}

void chain_a_million_of_twenty(benchmark::State& state) {
  const auto in = twenty(state.range(0) == 0 ? Distribution::uniform : Distribution::normal);
  double p = 0;
  for (auto _ : state) p = chain(in).p_within;
  state.counters["p"] = p;
}
BENCHMARK(chain_a_million_of_twenty)->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond)->UseRealTime();

/// The plain way: the standard library's engine and distribution, one thread.
void chain_the_plain_way(benchmark::State& state) {
  for (auto _ : state) {
    std::mt19937_64 random(1);
    std::uniform_real_distribution<double> any(-0.02, 0.02);
    std::int64_t within = 0;
    for (int s = 0; s < 1000000; ++s) {
      double sum = 0;
      for (int k = 0; k < 20; ++k) sum += any(random);
      within += std::abs(sum) <= 0.1;
    }
    benchmark::DoNotOptimize(within);
  }
}
BENCHMARK(chain_the_plain_way)->Unit(benchmark::kMillisecond);

/// 200 parts and 400 joints between them.
build::Build large_build() {
  build::Build b;
  std::vector<build::Record> records;
  build::Id id = b.next_id();
  std::vector<build::Id> sizes;
  for (int p = 0; p < 200; ++p) {
    records.emplace_back(build::Part{"Part " + std::to_string(p), "steel", 1, static_cast<double>(p)});
    records.emplace_back(build::Piece{id, 1});
    for (int d = 0; d < 4; ++d) {
      build::Dimension size;
      size.part = id;
      size.name = "size " + std::to_string(d);
      size.nominal = 12;
      size.lower = d % 2 == 0 ? 0 : -0.034;
      size.upper = d % 2 == 0 ? 0.018 : -0.016;
      size.capability = 0.004;
      records.emplace_back(size);
      sizes.push_back(id + 2 + d);
    }
    id += 6;
  }
  for (int j = 0; j < 400; ++j) {
    build::Joint joint;
    joint.name = "Joint " + std::to_string(j);
    joint.hole = sizes[static_cast<std::size_t>(j % 200 * 4 + (j / 200) * 2)];
    joint.shaft = sizes[static_cast<std::size_t>((j * 7 + 3) % 200 * 4 + (j / 200) * 2 + 1)];
    joint.least = 0.016;
    joint.most = 0.052;
    records.emplace_back(joint);
  }
  b.apply(build::add_all(b, std::move(records), "large"));
  return b;
}

void targets_of_400_joints(benchmark::State& state) {
  const auto b = large_build();
  for (auto _ : state) benchmark::DoNotOptimize(build_targets(b).result.least_room);
}
BENCHMARK(targets_of_400_joints)->Unit(benchmark::kMillisecond);

/// From Enter on a typed reading to everything painted, edit on disk included.
void reading_to_new_targets(benchmark::State& state, const build::Build* given) {
  QTemporaryDir folder;
  const auto path = folder.filePath("b.datrin").toStdString();
  store::FileOutcome outcome;
  {
    auto file = store::BuildFile::create(path, "b", outcome);
    build::Edit everything{"everything", {}};
    for (const auto& [id, record] : given->records())
      everything.changes.push_back(
          {id, id == build::Build::info_id ? std::optional(file->build().records().at(id)) : std::nullopt,
           record});
    (void)file->apply(everything);
  }
  app::MainWindow window(std::make_unique<QSettings>(folder.filePath("s.ini"), QSettings::IniFormat));
  window.resize(1280, 800);
  window.open_build(QString::fromStdString(path));
  window.show();
  window.go_to(app::MainWindow::joints);
  const auto made = window.joints_page()->state().hole;
  auto* edit = window.joints_page()->make()->hole_edit();
  int k = 0;
  for (auto _ : state) {
    edit->setText(QString("%1").arg(12.004 + 0.001 * (k++ % 7), 0, 'f', 3));
    edit->setModified(true);
    emit edit->editingFinished();
    benchmark::DoNotOptimize(window.grab());
  }
  benchmark::DoNotOptimize(made);
}

void pan_200_parts(benchmark::State& state, const build::Build* given) {
  app::MapView map;
  std::vector<app::MapPart> parts;
  std::vector<app::MapJoint> joints;
  for (const auto& [id, part] : given->parts())
    parts.push_back({id, QString::fromStdString(part.name), "1 of 4 sizes made", 0.25, false});
  joints.reserve(400);
  for (int j = 0; j < 400; ++j) joints.push_back({j, j % 200, (j * 7 + 3) % 200, "Joint", 1.2, true, false});
  map.resize(770, 700);
  map.show_map(std::move(parts), std::move(joints));
  for (auto _ : state) benchmark::DoNotOptimize(map.grab());
}

} // namespace

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication application(argc, argv);
  QApplication::setStyle("Fusion");
  const auto large = large_build();
  benchmark::RegisterBenchmark("reading_to_new_targets/400_joints", reading_to_new_targets, &large)
      ->Unit(benchmark::kMillisecond);
  benchmark::RegisterBenchmark("overview_of_200_parts_400_joints", pan_200_parts, &large)
      ->Unit(benchmark::kMillisecond);
  benchmark::Initialize(&argc, argv);
  benchmark::RunSpecifiedBenchmarks();
}
