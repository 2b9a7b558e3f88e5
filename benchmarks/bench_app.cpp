// What a person waits for in the window: a drag from mouse to paint, an edit shown and on disk, a big build
// opened. Runs on Qt's offscreen platform, so painting is by the processor, as it is on a plain desktop.

#include "app/shell/main_window.h"
#include "app/theme.h"
#include "build/edits.h"
#include "casting/scan_assign.h"
#include "demo/mill_engine.h"
#include "sim/pedestal.h"

#include <QApplication>
#include <QMouseEvent>
#include <QTemporaryDir>

#include <benchmark/benchmark.h>

#include <cmath>

using namespace datrin;

namespace {

struct Bench {
  QTemporaryDir folder;
  app::MainWindow window{std::make_unique<QSettings>(folder.filePath("s.ini"), QSettings::IniFormat)};

  /// The demo's first pedestal with `touches` touches.
  explicit Bench(int touches) {
    window.resize(1280, 800);
    const auto demo = demo::mill_engine();
    window.new_build(folder.filePath("b.datrin"));
    auto& document = window.document();
    for (auto edit : demo.edits) {
      for (auto& change : edit.changes)
        if (change.id == build::Build::info_id) change.before = document.build().records().at(change.id);
      document.apply(edit);
    }
    const auto piece = demo.pieces[0].piece;
    document.choose(demo.build.find<build::Piece>(piece)->part, piece);
    std::vector<build::Record> more;
    const auto all = document.build().touches_of(piece);
    for (int n = static_cast<int>(all.size()); n < touches; ++n) {
      auto touch = all[static_cast<std::size_t>(n) % all.size()].second;
      touch.centre += Vec3(0.002 * n, 0.001 * n, 0).unaryExpr([](double v) { return std::fmod(v, 0.4); });
      more.emplace_back(touch);
    }
    document.apply(build::add_all(document.build(), std::move(more), "More touches"));
    window.show();
    window.go_to(app::MainWindow::seat);
    QApplication::processEvents();
  }
};

void drag_among_touches(benchmark::State& state) {
  Bench bench(static_cast<int>(state.range(0)));
  auto* canvas = bench.window.seat_page()->canvas();
  const auto send = [&](QEvent::Type type, QPointF at) {
    QMouseEvent event(type, at, canvas->mapToGlobal(at), Qt::LeftButton, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(canvas, &event);
  };
  send(QEvent::MouseButtonPress, {250, 200});
  double x = 250;
  for (auto _ : state) {
    x = x > 260 ? 250 : x + 0.5;
    send(QEvent::MouseMove, {x, 200});
    QApplication::processEvents(); // layout and paint, as the event loop would
  }
  send(QEvent::MouseButtonRelease, {x, 200});
}

void one_edit_shown_and_on_disk(benchmark::State& state) {
  Bench bench(72);
  for (auto _ : state) {
    bench.window.seat_page()->nudge({0.05, 0, 0}, Vec3::Zero());
    QApplication::processEvents();
  }
}

/// What the program does when it is started on the demo, until the first page stands painted. The fonts are
/// there already after the first round.
void start_to_a_painted_demo(benchmark::State& state) {
  const QTemporaryDir folder;
  const auto path = folder.filePath("b.datrin");
  {
    Bench bench(72);
    QFile::copy(bench.folder.filePath("b.datrin"), path);
  }
  for (auto _ : state) {
    app::MainWindow window(std::make_unique<QSettings>(folder.filePath("started.ini"), QSettings::IniFormat));
    window.resize(1280, 800);
    window.open_build(path);
    window.show();
    QApplication::processEvents();
    benchmark::DoNotOptimize(window.grab());
  }
}

/// Where the demo's crank web is bored: its piece.
void to_the_crank_web(app::MainWindow& window) {
  auto& document = window.document();
  for (const auto& [id, part] : document.build().parts())
    if (part.name == "Crank web") document.choose(id, document.build().pieces_of(id).front().first);
  window.go_to_bench();
}

/// A step back and on again: both kept on disk, the number and the picture of each painted.
void bench_step_kept_and_painted(benchmark::State& state) {
  Bench bench(72);
  to_the_crank_web(bench.window);
  auto* view = bench.window.bench();
  const auto press = [&](int key) {
    QKeyEvent event(QEvent::KeyPress, key, Qt::NoModifier);
    QApplication::sendEvent(view->reading(), &event);
    QApplication::processEvents();
  };
  press(Qt::Key_Return);
  press(Qt::Key_Return);
  for (auto _ : state) {
    press(Qt::Key_Backspace);
    press(Qt::Key_Return);
  }
}

/// The same without keeping: only another step shown.
void bench_step_painted(benchmark::State& state) {
  Bench bench(72);
  to_the_crank_web(bench.window);
  int step = 0;
  for (auto _ : state) {
    bench.window.bench()->look_at(step = 5 - step); // 0, 5, 0, …
    QApplication::processEvents();                  // layout and paint
  }
}

/// Started on a build that was left at the machine, until the step stands painted.
void start_to_the_interrupted_step(benchmark::State& state) {
  const QTemporaryDir folder;
  const auto path = folder.filePath("b.datrin"), settings = folder.filePath("started.ini");
  {
    Bench bench(72);
    QFile::copy(bench.folder.filePath("b.datrin"), path);
    app::MainWindow window(std::make_unique<QSettings>(settings, QSettings::IniFormat));
    window.open_build(path);
    window.show();
    to_the_crank_web(window);
  }
  for (auto _ : state) {
    app::MainWindow window(std::make_unique<QSettings>(settings, QSettings::IniFormat));
    window.resize(1280, 800);
    window.open_build(path);
    window.show();
    QApplication::processEvents();
    if (!window.bench()->is_open()) state.SkipWithError("it does not stand at the bench");
    benchmark::DoNotOptimize(window.grab());
  }
}

void open_ten_thousand_surfaces(benchmark::State& state) {
  QTemporaryDir folder;
  const auto path = folder.filePath("big.datrin").toStdString();
  {
    store::FileOutcome outcome;
    auto file = store::BuildFile::create(path, "Big", outcome);
    std::vector<build::Record> records;
    build::Id id = file->build().next_id();
    for (int p = 0; p < 500; ++p) {
      build::Part part;
      part.name = "Part " + std::to_string(p);
      const auto part_id = id++;
      records.emplace_back(part);
      for (int n = 0; n < 20; ++n, ++id) {
        build::PartSurface surface;
        surface.part = part_id;
        surface.name = "surface " + std::to_string(n);
        records.emplace_back(surface);
      }
    }
    file->apply(build::add_all(file->build(), std::move(records), "Many"));
  }
  for (auto _ : state) {
    store::FileOutcome outcome;
    benchmark::DoNotOptimize(store::BuildFile::open(path, outcome));
  }
}

/// A scan as dense as `points` asks, laid on the drawing and every point given to its surface.
struct Scanned {
  sim::Pedestal pedestal;
  std::vector<std::array<float, 3>> points;
  explicit Scanned(std::int64_t count) {
    sim::PedestalOptions options;
    options.touches = static_cast<int>(count / 7);
    pedestal = sim::random_pedestal(options);
    for (const auto& p : pedestal.input.points)
      points.push_back(
          {static_cast<float>(p.xyz.x()), static_cast<float>(p.xyz.y()), static_cast<float>(p.xyz.z())});
  }
};

void scan_laid_and_given(benchmark::State& state) {
  const Scanned scanned(state.range(0));
  casting::ScanInput input;
  input.surfaces = scanned.pedestal.input.surfaces;
  input.extent = scanned.pedestal.extent;
  input.points = &scanned.points;
  casting::ScanResult result;
  for (auto _ : state) benchmark::DoNotOptimize(result = casting::assign_scan(input));
  state.counters["given"] = static_cast<double>(result.given);
}

void drag_among_a_scan(benchmark::State& state) {
  Bench bench(72);
  auto& document = bench.window.document();
  const auto piece_state = app::piece_state(document.build(), document.piece());
  auto points = std::make_shared<build::ScanPoints>();
  for (const auto id : piece_state.input.surface_ids) points->surfaces.push_back(id);
  for (std::int64_t n = 0; n < state.range(0); ++n) {
    const auto& p =
        piece_state.input.seat.points[static_cast<std::size_t>(n) % piece_state.input.seat.points.size()];
    const double off = 0.3 * std::fmod(0.618 * static_cast<double>(n), 1.0);
    points->at.push_back(
        {static_cast<float>(p.xyz.x() + off), static_cast<float>(p.xyz.y()), static_cast<float>(p.xyz.z())});
    points->surface.push_back(static_cast<std::uint16_t>(p.surface));
  }
  document.apply(
      build::add(document.build(), build::Scan{document.piece(), "scan", {}, 0.05, points}, "Scan"));
  QApplication::processEvents();
  auto* canvas = bench.window.seat_page()->canvas();
  const auto send = [&](QEvent::Type type, QPointF at) {
    QMouseEvent event(type, at, canvas->mapToGlobal(at), Qt::LeftButton, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(canvas, &event);
  };
  send(QEvent::MouseButtonPress, {250, 200});
  double x = 250;
  for (auto _ : state) {
    x = x > 260 ? 250 : x + 0.5;
    send(QEvent::MouseMove, {x, 200});
    QApplication::processEvents();
  }
  send(QEvent::MouseButtonRelease, {x, 200});
}

} // namespace

BENCHMARK(scan_laid_and_given)->Arg(1'000'000)->Unit(benchmark::kMillisecond);
BENCHMARK(drag_among_a_scan)->Arg(1'000'000)->Unit(benchmark::kMillisecond);
BENCHMARK(drag_among_touches)->Arg(72)->Arg(1000)->Unit(benchmark::kMillisecond);
BENCHMARK(one_edit_shown_and_on_disk)->Unit(benchmark::kMillisecond);
BENCHMARK(start_to_a_painted_demo)->Unit(benchmark::kMillisecond);
BENCHMARK(start_to_the_interrupted_step)->Unit(benchmark::kMillisecond);
BENCHMARK(bench_step_kept_and_painted)->Unit(benchmark::kMillisecond);
BENCHMARK(bench_step_painted)->Unit(benchmark::kMillisecond);
BENCHMARK(open_ten_thousand_surfaces)->Unit(benchmark::kMillisecond);

int main(int argc, char** argv) {
  if (qgetenv("QT_QPA_PLATFORM").isEmpty()) qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication application(argc, argv);
  benchmark::Initialize(&argc, argv);
  benchmark::RunSpecifiedBenchmarks();
  return 0;
}
